#include "core/plan/options.h"

#include "core/families/family.h"
#include "core/plan/quick_plan.h"

#include <algorithm>
#include <utility>

namespace westrum {
namespace {

constexpr std::size_t kFacesShown = 6;

/// What all of it costs; what buys nothing costs nothing, which is no missing price.
std::optional<Money> costOf(const Job& job, const Plan& plan) {
    return plan.purchases.empty() ? std::optional(Money{0, job.currency}) : plan.totals.cost;
}

/// All that follows for one surface as it is planned, but for what it costs.
OptionFigures figuresOf(const Job& job, const Plan& plan, const SurfacePlan& s, std::span<const ProductCut> cuts) {
    OptionFigures f;
    f.thickness = s.stack.total;
    for (const LayerPlan& l : s.layers) {
        f.hours += hoursFor(l.family, l.area.value, static_cast<int>(l.setOut.pieces.size()), job.work.hours);
    }
    for (const Purchase& p : plan.purchases)
        for (const PurchaseShare& share : p.shares)
            if (share.surface == s.surface) f.mass = f.mass + share.mass;
    f.face = s.setOut();
    f.pieces = f.face.figures.pieces;
    f.planned = f.face.laid();
    for (const Piece& p : f.face.pieces) f.cuts += p.kind != PieceKind::Whole || p.notched ? 1 : 0;
    f.remarks = s.remarks;
    f.warnings = static_cast<int>(std::count_if(s.remarks.begin(), s.remarks.end(),
                                                [](const Remark& r) { return r.severity != Severity::Note; }));
    if (const Surface* surface = job.surface(s.surface))
        f.asked = demandOf(*surface, s.measured.leastRadius.has_value());
    if (const LayerPlan* face = s.faceLayer()) {
        f.product = face->product;
        if (const Product* product = job.catalogue.find(face->product); product && !face->family.empty())
            f.suits = suitabilityOf(*product);
        if (face->purchase && face->purchase->consumedArea.value > 0)
            f.wasteShare = face->purchase->wasteOfConsumed().value / face->purchase->consumedArea.value;
        for (const ProductCut& c : cuts)
            if (c.product == face->product && !face->purchase && c.figures.bought + c.figures.fromRack > 0)
                f.wasteShare = c.figures.waste() / (c.figures.bought + c.figures.fromRack);
    }
    return f;
}

} // namespace

std::vector<OptionFigures> optionFigures(const Job& job, const std::string& surface, const std::stop_token& stop) {
    const FinishOptions& options = job.options(surface);
    std::vector<OptionFigures> figures;
    Planner planner;
    KnownCuts known;
    Job tried = job;
    for (int k = 0; k < static_cast<int>(options.options.size()); ++k) {
        if (auto at = tried.finishes.find(surface); at != tried.finishes.end()) at->second.chosen = k;
        std::vector<ProductCut> cuts;
        const std::optional<Plan> plan = cutQuickly(tried, planner, known, cuts, stop);
        if (!plan) return {};
        const SurfacePlan* s = plan->surface(surface);
        OptionFigures f = s ? figuresOf(tried, *plan, *s, cuts) : OptionFigures{};
        f.cost = costOf(job, *plan);
        f.totalMass = plan->totals.laidMass;
        figures.push_back(std::move(f));
    }
    return figures;
}

std::vector<std::string> schemesOf(const Job& job) {
    std::vector<std::string> names, schemes;
    for (const Surface& s : job.surfaces)
        for (const Finish& f : job.options(s.id).options) {
            if (f.name.empty()) continue;
            if (std::find(names.begin(), names.end(), f.name) == names.end())
                names.push_back(f.name);
            else if (std::find(schemes.begin(), schemes.end(), f.name) == schemes.end())
                schemes.push_back(f.name);
        }
    return schemes;
}

Job withScheme(const Job& job, const std::string& scheme) {
    Job other = job;
    for (auto& [surface, options] : other.finishes)
        for (std::size_t k = 0; k < options.options.size(); ++k)
            if (options.options[k].name == scheme) options.chosen = static_cast<int>(k);
    return other;
}

std::vector<SchemeFigures> schemeFigures(const Job& job, const std::stop_token& stop) {
    std::vector<std::string> names{std::string()};
    for (std::string& name : schemesOf(job)) names.push_back(std::move(name));
    std::vector<SchemeFigures> all;
    Planner planner;
    KnownCuts known;
    for (const std::string& name : names) {
        const Job tried = name.empty() ? job : withScheme(job, name);
        std::vector<ProductCut> cuts;
        const std::optional<Plan> planned = cutQuickly(tried, planner, known, cuts, stop);
        if (!planned) return {};
        const Plan& plan = *planned;
        SchemeFigures f{name, costOf(job, plan), plan.totals.laidMass, 0, 0, 0, 0, {}};
        for (const Remark& r : plan.remarks) f.warnings += r.severity != Severity::Note ? 1 : 0;
        for (const SurfacePlan& s : plan.surfaces) {
            OptionFigures o = figuresOf(tried, plan, s, cuts);
            f.hours += o.hours;
            f.pieces += o.pieces;
            f.surfaces += tried.options(s.surface).chosen != job.options(s.surface).chosen ? 1 : 0;
            if (o.planned) f.faces.emplace_back(s.surface, std::move(o));
        }
        std::stable_sort(f.faces.begin(), f.faces.end(), [](const auto& a, const auto& b) {
            return a.second.face.laidArea() > b.second.face.laidArea();
        });
        if (!name.empty() && f.surfaces == 0) continue; // it is what is chosen
        if (f.faces.size() > kFacesShown) f.faces.resize(kFacesShown);
        all.push_back(std::move(f));
    }
    return all;
}

} // namespace westrum
