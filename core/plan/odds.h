#pragma once

#include "core/buying/need_odds.h"
#include "core/plan/inputs.h"
#include "core/plan/plan.h"
#include "core/plan/product_cut.h"

#include <functional>
#include <optional>
#include <span>
#include <stop_token>
#include <string>
#include <vector>

namespace westrum {

/// What may go other than planned. Typical figures. Source: docs/formulae.md#variations
struct Mishaps {
    double flatMm = 2;      ///< by which a reading is off (one sigma), taken straight
    double curveMm = 5;     ///< the same along a curve
    double damaged = 0.005; ///< chance that a unit of stock arrives damaged
    double rate = 0.12;     ///< by which a rate of adhesive or coating is off (one sigma), as a share
    double lost = 0.03;     ///< of small things dropped or bent, as a share
};

/// Those of a job: its readings are off as this tape in these hands is, along a curve more so in the same proportion.
Mishaps mishapsOf(const Job& job);

/// How often one product was needed in what amount.
struct ProductOdds {
    std::string product;       ///< id
    std::vector<double> byTry; ///< the same as `needs`, in the order of the tries, which all products share
    NeedOdds needs; ///< in units: planks, tiles, sheets, lengths, rolls; m of what is sold by the metre; or its amount
    double have{};  ///< of the plan's purchase
    double perPack{}; ///< units in one that is bought; of metres the step they are cut off in
    [[nodiscard]] double chanceShort() const { return needs.chanceShort(have); }
};

/// Share of the tries in which anything of what is bought does not suffice: the one figure for the whole job.
double chanceOfAnyShort(std::span<const ProductOdds> odds);

/// A product's spares, and what another of them costs.
struct SpareLine {
    int spare{};      ///< bought now
    double price = 1; ///< of one pack or step more, > 0
};
/// Spares for every product so that anything runs short in no more than this share of the tries. Found from above: with
/// all that any try took, then pack after pack is left out where most money is saved for each try that is given up; so
/// it is not always the cheapest. @param lines  one for each product of `odds`  @param most  for any one of them
std::vector<int> sparesWithin(std::span<const ProductOdds> odds, std::span<const SpareLine> lines, double risk,
                              int most);

/// All that these odds depend on, but for what is bought in the end.
struct OddsQuestion {
    OddsInput job;
    /// One for each product bought, in the plan's order: what its set-out or the search of its cutting came to, if
    /// either did.
    struct Searched {
        std::string product;
        std::optional<double> units{}; ///< of a roll in m
        bool roll = false;
        friend bool operator==(const Searched&, const Searched&) = default;
    };
    std::vector<Searched> products;
    int tries = 0;
    friend bool operator==(const OddsQuestion&, const OddsQuestion&) = default;
};
/// @param bought  by the plan with its cuts  @param cuts  those it was made with
OddsQuestion oddsQuestion(const Job& job, const PurchaseStage& bought, std::span<const ProductCut> cuts, int tries);

/// Plans the job `tries` times over, each time with other readings, spoiled cuts, damaged stock and rates, through the
/// real set-outs and the first layout of the cutting, and says for every product bought how often what the plan buys
/// would not have done. The same job, cuts, seed and number of tries give the same answer, on however many threads.
/// What an improving search gained over a first layout is taken to be gained in every variation.
/// `have` and `perPack` are left to fillBought().
/// @param threads  at least one  @param progress  told the share done, never by two threads at once; may be empty
/// @return one for each product bought, in the plan's order; empty when stopped
std::vector<ProductOdds> oddsOf(const OddsQuestion& question, const Mishaps& mishaps = {}, int threads = 1,
                                const std::stop_token& stop = {}, const std::function<void(double)>& progress = {});
/// The same at once, `have` filled in.
std::vector<ProductOdds> oddsOf(const Job& job, const PurchaseStage& bought, std::span<const ProductCut> cuts,
                                int tries, const Mishaps& mishaps = {}, int threads = 1,
                                const std::stop_token& stop = {}, const std::function<void(double)>& progress = {});

/// What the plan buys now of each product, spares and all: `have` and `perPack` filled in anew.
void fillBought(const Job& job, const PurchaseStage& bought, std::span<const ProductCut> cuts,
                std::vector<ProductOdds>& odds);

/// The job as it might have been measured: every reading off by chance.
Job measuredAgain(const Job& job, Dice& dice, const Mishaps& mishaps);

} // namespace westrum
