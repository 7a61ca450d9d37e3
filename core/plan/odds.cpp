#include "core/plan/odds.h"

#include "core/families/family.h"
#include "core/plan/cut_problems.h"
#include "core/plan/purchases.h"
#include "core/plan/surface_stage.h"

#include <algorithm>
#include <atomic>
#include <cmath>
#include <map>
#include <mutex>
#include <thread>

namespace westrum {
namespace {

constexpr double kCare = 0.3; // of the searches of a plan, for each variation

/// What a plan and its cutting need of each product, in units.
using Needs = std::map<std::string, double>;

/// Whether what is bought of a family is what its set-outs open.
bool setOutCounts(const std::string& id) {
    const Family* family = familyOf(id);
    return family && family->laid.unitsBySetOut;
}

double unitsOf(const ProductCut& cut) {
    return cut.form == StockForm::Roll ? cut.rollMm / 1000 : static_cast<double>(cut.itemsToBuy);
}

/// What the cutting's first layout opens, before a search improves it.
double firstLayout(const CutProblem& problem, const std::stop_token& stop) {
    const ProductCut cut = cutProduct(problem, Effort::first(problem.seed, stop));
    return unitsOf(cut) + static_cast<double>(cut.unplaced.size()); // one longer than its stock takes one at least
}

/// Pieces that are spoiled are cut again.
void spoilPieces(CutProblem& problem, Dice& dice, double spoil) {
    const std::size_t n = problem.pieces.size();
    for (std::size_t i = 0; i < n; ++i) {
        const int again = spoiledTries(dice, 1, spoil);
        for (int k = 0; k < std::min(again, 5); ++k) {
            CutPiece piece = problem.pieces[i];
            piece.key += "/again" + std::to_string(k);
            problem.pieces.push_back(std::move(piece));
        }
    }
}

Needs needsOf(const Job& job, const SurfaceStage& plan, std::span<const Purchase> purchases, Dice* dice,
              const Mishaps& mishaps, const std::stop_token& stop) {
    Needs needs;
    const double spoil = dice ? std::min(job.spoilChance, 0.9) : 0;
    for (const CutProblem& asked : cutProblems(job, plan)) {
        if (setOutCounts(asked.product.family)) continue; // the set-out decides them
        CutProblem problem = asked;
        problem.kept.clear();
        if (dice) spoilPieces(problem, *dice, spoil);
        needs[problem.product.id] = firstLayout(problem, stop);
    }
    for (const Purchase& p : purchases) {
        if (needs.contains(p.product)) continue;
        double units = 0; // of all its lines
        for (const Purchase& q : purchases) {
            if (q.product != p.product) continue;
            const Mm roll = (q.lengthNeeded + q.lengthLeft) / std::max(1, q.packs);
            units += q.measuredOut()                  ? q.amount
                     : q.quantity != Quantity::Length ? q.unitsNeeded
                     : q.strips.empty()               ? q.lengthNeeded.value / 1000
                                                      : rollsOf(q, roll) * roll.value / 1000; // whole strips
        }
        if (dice && setOutCounts(p.family)) units += spoiledTries(*dice, plan.cutUnits(p.product), spoil);
        // What is laid out by its area is off as its surface is, not as a rate.
        if (dice && p.measuredOut() && (p.serves || p.quantity != Quantity::Area))
            units *= std::max(
                0.2, 1 + (p.serves ? std::abs(offByChance(*dice, mishaps.lost)) : offByChance(*dice, mishaps.rate)));
        needs[p.product] = units;
    }
    if (dice)
        for (auto& [product, units] : needs) {
            // Whatever is counted may arrive damaged; what is measured out does not.
            int bad = 0;
            for (double k = 0; k < std::min(units, 2000.0); ++k) bad += dice->unit() < mishaps.damaged ? 1 : 0;
            const Product* sold = job.catalogue.find(product);
            if (sold && (findFamily(sold->family) || stockFormOf(sold->family)) &&
                stockFormOf(sold->family) != StockForm::Roll)
                units += bad;
        }
    return needs;
}

/// What the purchase gives, and in what steps it is bought.
void fillBought(const Job& job, const PurchaseStage& bought, std::span<const ProductCut> cuts, ProductOdds& odds) {
    const Product* sold = job.catalogue.find(odds.product);
    for (const ProductCut& c : cuts)
        if (c.product == odds.product && c.items.size() > 0 && !c.items.front().decided &&
            (!sold || perPackOf(*sold) == 1)) { // what comes in packs is counted by the pack below
            const bool roll = c.form == StockForm::Roll;
            odds.have = roll ? c.rollToBuyMm / 1000 : static_cast<double>(c.itemsToBuy);
            odds.perPack = roll && sold ? rollOf(*sold).step.value / 1000 : 1;
            for (const Purchase& p : bought.purchases)
                if (p.product == odds.product) odds.have += odds.perPack * p.spare;
            return;
        }
    for (const Purchase& p : bought.purchases) {
        if (p.product != odds.product) continue;
        odds.perPack = p.measuredOut() ? p.amountPerPack
                       : p.quantity == Quantity::Length
                           ? ((p.lengthNeeded + p.lengthLeft).value / 1000 - p.shelf) / std::max(1, p.packs)
                           : static_cast<double>(std::max(1, p.unitsPerPack));
        odds.have += odds.perPack * p.packs + p.shelf;
    }
}

} // namespace

void fillBought(const Job& job, const PurchaseStage& bought, std::span<const ProductCut> cuts,
                std::vector<ProductOdds>& odds) {
    for (ProductOdds& o : odds) {
        o.have = 0;
        fillBought(job, bought, cuts, o);
    }
}

Job measuredAgain(const Job& job, Dice& dice, const Mishaps& mishaps) {
    Job varied = job;
    for (Surface& s : varied.surfaces)
        for (const std::string& key : readingKeys(s.measurement)) {
            MaybeReading* reading = findReading(s.measurement, key);
            if (!reading || !*reading || (*reading)->length.value <= 0) continue;
            const bool along = key.starts_with('p') || key.starts_with("chord");
            Mm& length = (*reading)->length;
            length.value = std::max(1.0, length.value + offByChance(dice, along ? mishaps.curveMm : mishaps.flatMm));
        }
    return varied;
}

namespace {

constexpr double kHair = 1e-9; // a need that comes out as what there is, is served

bool isShort(const ProductOdds& o, std::size_t k, double have) {
    return k < o.byTry.size() && o.byTry[k] > have + kHair;
}

} // namespace

double chanceOfAnyShort(std::span<const ProductOdds> odds) {
    std::size_t tries = 0, missed = 0;
    for (const ProductOdds& o : odds) tries = std::max(tries, o.byTry.size());
    for (std::size_t k = 0; k < tries; ++k)
        missed += std::any_of(odds.begin(), odds.end(), [&](const ProductOdds& o) { return isShort(o, k, o.have); });
    return tries > 0 ? static_cast<double>(missed) / static_cast<double>(tries) : 0;
}

std::vector<int> sparesWithin(std::span<const ProductOdds> odds, std::span<const SpareLine> lines, double risk,
                              int most) {
    std::size_t tries = 0;
    for (const ProductOdds& o : odds) tries = std::max(tries, o.byTry.size());
    std::vector<int> spares(odds.size(), 0);
    const auto have = [&](std::size_t i, int spare) {
        return odds[i].have + (spare - lines[i].spare) * odds[i].perPack;
    };
    std::vector<int> missing(tries, 0); // products that a try lacks
    for (std::size_t i = 0; i < odds.size(); ++i) {
        const std::vector<double>& needs = odds[i].byTry;
        const double all = needs.empty() ? 0 : *std::max_element(needs.begin(), needs.end());
        while (odds[i].perPack > 0 && spares[i] < most && all > have(i, spares[i]) + kHair) ++spares[i];
        for (std::size_t k = 0; k < tries; ++k) missing[k] += isShort(odds[i], k, have(i, spares[i])) ? 1 : 0;
    }
    auto left = static_cast<std::ptrdiff_t>(std::floor(risk * static_cast<double>(tries) + kHair)) -
                (static_cast<std::ptrdiff_t>(tries) - std::count(missing.begin(), missing.end(), 0));
    for (;;) {
        std::size_t best = odds.size();
        std::ptrdiff_t lost = 0;
        double gain = 0;
        for (std::size_t i = 0; i < odds.size(); ++i) {
            if (spares[i] == 0) continue;
            std::ptrdiff_t more = 0;
            for (std::size_t k = 0; k < tries; ++k)
                more += missing[k] == 0 && isShort(odds[i], k, have(i, spares[i] - 1)) ? 1 : 0;
            const double saves = lines[i].price / (static_cast<double>(more) + kHair);
            if (more > left || saves <= gain) continue;
            best = i;
            lost = more;
            gain = saves;
        }
        if (best == odds.size()) return spares;
        for (std::size_t k = 0; k < tries; ++k) missing[k] -= isShort(odds[best], k, have(best, spares[best])) ? 1 : 0;
        --spares[best];
        for (std::size_t k = 0; k < tries; ++k) missing[k] += isShort(odds[best], k, have(best, spares[best])) ? 1 : 0;
        left -= lost;
    }
}

OddsQuestion oddsQuestion(const Job& job, const PurchaseStage& bought, std::span<const ProductCut> cuts, int tries) {
    OddsQuestion q{oddsInput(job), {}, tries};
    for (const Purchase& p : bought.purchases) {
        if (std::any_of(q.products.begin(), q.products.end(), [&](const auto& o) { return o.product == p.product; }))
            continue;
        OddsQuestion::Searched searched{p.product, {}, false};
        const auto cut =
            std::find_if(cuts.begin(), cuts.end(), [&](const ProductCut& c) { return c.product == p.product; });
        if (stockFormOf(p.family) && setOutCounts(p.family))
            searched.units = unitsNeededOf(bought.purchases, p.product);
        else if (stockFormOf(p.family) && cut != cuts.end()) {
            searched.units = unitsOf(*cut);
            searched.roll = cut->form == StockForm::Roll;
        }
        q.products.push_back(std::move(searched));
    }
    return q;
}

Mishaps mishapsOf(const Job& job) {
    Mishaps m;
    m.curveMm *= job.work.readingErrorMm / m.flatMm;
    m.flatMm = job.work.readingErrorMm;
    return m;
}

std::vector<ProductOdds> oddsOf(const OddsQuestion& question, const Mishaps& mishaps, int threads,
                                const std::stop_token& stop, const std::function<void(double)>& progress) {
    const auto needs = [&](const Job& job, Dice* dice) {
        const SurfaceStage surfaces = Planner(kCare).surfaces(surfacesInput(job), stop);
        return needsOf(job, surfaces, purchasesOf(surfaces, {}, purchasesInput(job)).purchases, dice, mishaps, stop);
    };
    const Job& job = question.job.read;
    // Against the first layout of the job as it is: what the search gained since is gained in each variation.
    const Needs plain = needs(job, nullptr);
    std::vector<Needs> found(static_cast<std::size_t>(std::max(0, question.tries)));
    std::atomic<int> next{0}, done{0};
    std::mutex telling;
    const auto work = [&] {
        for (int k = next++; k < question.tries && !stop.stop_requested(); k = next++) {
            Dice dice(job.seed * 1000003 + static_cast<std::uint64_t>(k));
            found[static_cast<std::size_t>(k)] = needs(measuredAgain(job, dice, mishaps), &dice);
            const std::scoped_lock lock(telling);
            if (progress) progress(static_cast<double>(++done) / question.tries);
        }
    };
    {
        std::vector<std::jthread> team;
        for (int i = 1; i < threads; ++i) team.emplace_back(work);
        work();
    }
    if (stop.stop_requested()) return {};
    std::vector<ProductOdds> all;
    for (const OddsQuestion::Searched& s : question.products) {
        ProductOdds odds{s.product, {}, NeedOdds({}), 0, 1};
        const auto base = plain.find(s.product);
        double gained = s.roll ? 1 : 0; // by the search, in units; of a roll as a share
        if (s.units && base != plain.end())
            gained = !s.roll ? *s.units - base->second : base->second > 0 ? *s.units / base->second : 1;
        for (const Needs& n : found) {
            const auto need = n.find(s.product);
            const double units = need == n.end() ? 0 : need->second;
            odds.byTry.push_back(need == n.end() ? 0 : s.roll ? units * gained : units + gained);
        }
        odds.needs = NeedOdds(odds.byTry);
        all.push_back(std::move(odds));
    }
    return all;
}

std::vector<ProductOdds> oddsOf(const Job& job, const PurchaseStage& bought, std::span<const ProductCut> cuts,
                                int tries, const Mishaps& mishaps, int threads, const std::stop_token& stop,
                                const std::function<void(double)>& progress) {
    std::vector<ProductOdds> odds = oddsOf(oddsQuestion(job, bought, cuts, tries), mishaps, threads, stop, progress);
    fillBought(job, bought, cuts, odds);
    return odds;
}

} // namespace westrum
