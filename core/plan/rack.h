#pragma once

#include "core/plan/job.h"
#include "core/plan/plan.h"
#include "core/plan/product_cut.h"
#include "core/record/workshop.h"

#include <set>
#include <string>
#include <vector>

namespace westrum {

// Between a job's cutting and the rack of the workshop.

/// What is worth keeping of an item that was cut, each from 0, 0: of a roll the true outline of what is left, without
/// what the blade took; of anything sawn its rectangles. In the order of `left`; one outline that holds several of
/// these comes once.
std::vector<Region> offcutsOf(const CutItem& item, StockForm form);

/// An offcut on the rack as stock that a job may cut from: it costs nothing and is used first.
StockEntry stockOf(const RackPiece& piece, std::string id);

/// Where it could serve.
struct RackServes {
    std::string surface; ///< id; empty: of none
    int pieces = 0;      ///< that are still to be cut and would each fit on it
    friend bool operator==(const RackServes&, const RackServes&) = default;
};
/// By the cuts as they are, most pieces first. A piece that may not turn keeps its grain; a saw cuts from the largest
/// rectangle of an offcut, a blade from its outline.
std::vector<RackServes> servesNow(const Job& job, const std::vector<ProductCut>& cuts, const RackPiece& piece);

/// What of a piece spoilt would fit on an offcut of the same product, the smallest that does; null if none does.
const RackPiece* rackPieceFor(const std::vector<RackPiece>& rack, const Product& product, Mm length, Mm width,
                              bool mayTurn);

/// What a job does with the book's rack by its cut lists.
struct RackWish {
    std::set<std::string> reserved, cut; ///< numbers
    std::set<std::string> packs;         ///< numbers of packs, tins, rolls
    friend bool operator==(const RackWish&, const RackWish&) = default;
};
RackWish rackWish(const Job& job);

/// What a job paid, by what was ticked as bought; of the day of its delivery, else of `today`.
std::vector<PricePaid> pricesPaid(const Job& job, CivilDate today);
/// Packs that a record says were left, each under a number that stays the same for its entry.
std::vector<KeptPack> packsLeft(const Job& job);
/// A job in its key figures.
JobDone jobDone(const Job& job, const Plan& plan, CivilDate today);

/// The job with a person's rates: hours, spoils, coverage of the products that it has.
Job withRatesOf(Job job, const Person& person);
/// The person once a rate was taken: with what of it differs between a job before and after.
Person personOf(const Job& before, const Job& after, Person known);

/// A rate of a person that differs from what a job is planned with.
struct BookRate {
    enum Kind { Minutes, Coverage, Spoils, Waste, Readings } kind{};
    std::string of{};          ///< family or product
    double now{}, offered{};   ///< hours a m2 or a piece; the product's field of spreading or rate; chance; share; mm
    bool aSquareMetre = false; ///< of coverage: so much a m2 rather than m2 out of it
    Person alone{};            ///< this rate and no other, for withRatesOf()
};
std::vector<BookRate> ratesOf(const Person& person, const Job& job);

/// The inside of a body, as another job may start from it: surfaces, boxes, doors, datum and headroom, nothing chosen.
Job shellOf(const Job& job);
/// A new job in a body as it was measured before: all its surfaces say so, and checks are proposed.
Job fromBody(const Job& shell, Job fresh, const std::string& body);

} // namespace westrum
