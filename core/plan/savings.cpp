#include "core/plan/savings.h"

#include "core/families/family.h"
#include "core/plan/quick_plan.h"
#include "core/plan/starts.h"
#include "core/plan/surface_stage.h"

#include <algorithm>

namespace westrum {
namespace {

constexpr std::size_t kTried = 4;             ///< ways of one surface that are planned and cut
constexpr std::int64_t kRollIterations = 400; ///< of nesting, enough to tell two ways of a roll apart

/// What a job buys, and of one product.
struct BoughtOf {
    std::optional<Money> cost; ///< of everything that has a price, deliveries too; nothing if the product has none
    double units = 0;          ///< of the product: packs, items, or m
};

BoughtOf boughtOf(const Job& job, const Product& product, Planner& planner, KnownCuts& known,
                  const std::stop_token& stop) {
    const bool roll = stockFormOf(product.family) == StockForm::Roll;
    std::vector<ProductCut> cuts;
    const std::optional<Plan> stage =
        cutQuickly(job, planner, known, cuts, stop, product.id, roll ? kRollIterations : 1);
    if (!stage) return {};
    BoughtOf all;
    Money sum{0, job.currency};
    for (const DeliveryPlan& d : stage->deliveries) sum = sum + d.cost;
    bool priced = true;
    for (const Purchase& p : stage->purchases) {
        if (p.cost && p.cost->currency == job.currency) sum = sum + *p.cost;
        if (p.product != product.id) continue;
        all.units += stockFormOf(p.family) == StockForm::Roll ? p.lengthNeeded.value / 1000 : p.packs;
        priced = priced && p.cost.has_value();
    }
    if (priced) all.cost = sum;
    return all;
}

} // namespace

Job withSaving(const Job& job, const std::string& product, const Saving& s) {
    Job other = job;
    if (s.kind == Saving::Kind::Turned) {
        for (Product& p : other.catalogue.products)
            if (p.id == product)
                for (const auto& [key, value] : s.change) p.fields[key] = value;
        return other;
    }
    std::vector<Layer>& layers = other.finishes[s.surface].now().layers;
    if (s.layer >= 0 && s.layer < static_cast<int>(layers.size()))
        for (const auto& [key, value] : s.change) layers[static_cast<std::size_t>(s.layer)].rules[key] = value;
    return other;
}

std::vector<Saving> savingsOn(const Job& job, const std::string& product, const std::stop_token& stop,
                              const std::function<void(double)>& progress) {
    const Product* sold = job.catalogue.find(product);
    if (!sold) return {};
    Planner planner;
    const SurfaceStage surfaces = planner.surfaces(surfacesInput(job), stop);
    KnownCuts known;
    const BoughtOf now = boughtOf(job, *sold, planner, known, stop);
    if (stop.stop_requested() || now.units <= 0) return {};
    std::vector<Saving> all;
    const auto tried = [&](Saving s) {
        const BoughtOf then = boughtOf(withSaving(job, product, s), *sold, planner, known, stop);
        if (stop.stop_requested() || then.units <= 0 || !now.cost || !then.cost) return;
        s.saved = *now.cost - *then.cost;
        s.less = now.units - then.units;
        if (s.saved.minor <= 0) return;
        // The best of its kind on its surface.
        const auto same = std::find_if(all.begin(), all.end(),
                                       [&](const Saving& o) { return o.kind == s.kind && o.surface == s.surface; });
        if (same == all.end())
            all.push_back(std::move(s));
        else if (s.saved.minor > same->saved.minor)
            *same = std::move(s);
    };
    const auto turning = sold->fields.find("turning");
    if (stockFormOf(sold->family) == StockForm::Roll && (turning == sold->fields.end() || turning->second == 0))
        tried({Saving::Kind::Turned, {}, -1, {{"turning", static_cast<double>(RollTurning::HalfTurn)}}, {}, 0});
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        const std::string& id = job.surfaces[i].id;
        const std::vector<Layer>& layers = job.finish(id).layers;
        for (std::size_t k = 0; k < layers.size(); ++k) {
            if (layers[k].product != product || !findFamily(sold->family)) continue;
            const int layer = static_cast<int>(k);
            const SetOutFamily* family = findFamily(sold->family);
            if (findField(family->ruleFields, "extraSeams")) {
                const auto seams = layers[k].rules.find("extraSeams");
                tried({Saving::Kind::Seam,
                       id,
                       layer,
                       {{"extraSeams", (seams == layers[k].rules.end() ? 0 : seams->second) + 1}},
                       {},
                       0});
            }
            Starts starts = startsOf(startsInput(job, surfaces, id, layer), stop);
            if (stop.stop_requested()) return {};
            std::erase_if(starts.choices, [](const StartChoice& c) { return c.stock <= 0 && c.figures.stock <= 0; });
            const auto stock = [](const StartChoice& c) { return c.stock > 0 ? c.stock : c.figures.stock; };
            std::stable_sort(starts.choices.begin(), starts.choices.end(),
                             [&](const StartChoice& a, const StartChoice& b) {
                                 return std::pair(stock(a), a.slivers) < std::pair(stock(b), b.slivers);
                             });
            const int units = setOutAs(job, surfaces, id, layer, layers[k].rules).figures.stock;
            for (std::size_t n = 0; n < std::min(kTried, starts.choices.size()); ++n) {
                const StartChoice& c = starts.choices[n];
                if (stock(c) >= units) break;
                FieldValues change = c.change;
                if (change.empty() && family->startAt) change = family->startAt(c.startOffset);
                if (!change.empty()) tried({Saving::Kind::Rules, id, layer, std::move(change), {}, 0});
                if (stop.stop_requested()) return {};
            }
        }
        if (progress) progress(static_cast<double>(i + 1) / static_cast<double>(job.surfaces.size()));
    }
    std::stable_sort(all.begin(), all.end(),
                     [](const Saving& a, const Saving& b) { return a.saved.minor > b.saved.minor; });
    return all;
}

} // namespace westrum
