#include "core/plan/plan.h"

#include "core/catalogue/plank.h"
#include "core/geometry/boolean.h"
#include "core/setout/plank_floor.h"
#include "core/shell/ties.h"

#include <algorithm>

namespace westrum {
namespace {

void place(std::vector<Remark>& remarks, const std::string& surface) {
    for (Remark& r : remarks) r.place.surface = surface;
}

void append(std::vector<Remark>& to, const std::vector<Remark>& more) { to.insert(to.end(), more.begin(), more.end()); }

std::optional<Product> productOf(const Job& job, const std::string& id) {
    const Product* found = id.empty() ? nullptr : job.catalogue.find(id);
    return found ? std::optional(*found) : std::nullopt;
}

bool anyError(const std::vector<Remark>& remarks) {
    return std::any_of(remarks.begin(), remarks.end(), [](const Remark& r) { return r.severity == Severity::Error; });
}

/// A product that the surface names and whose fields are sound; says what is wrong otherwise.
const Product* soundProduct(const std::optional<Product>& product, const std::string& id, std::string_view family,
                            std::vector<Remark>& remarks) {
    if (id.empty()) return nullptr;
    const Place at{"", Part::Product};
    if (!product || product->family != family) {
        remarks.push_back({Severity::Error, at, RemarkKind::ProductMissing, {{"product", id}}, {}});
        return nullptr;
    }
    const std::vector<Remark> faults = checkFields(product->fields, fieldsOfFamily(product->family), product->name, at);
    append(remarks, faults);
    if (!faults.empty()) return nullptr;
    if (!product->packPrice)
        remarks.push_back({Severity::Warning, at, RemarkKind::PriceMissing, {{"product", product->name}}, {}});
    return &*product;
}

SurfacePlan planSurface(const Surface& surface, const Finish& finish, const std::optional<Product>& product,
                        const std::optional<Product>& underlay, const std::stop_token& stop) {
    SurfacePlan p;
    p.surface = surface.id;
    p.measured = outlineOf(surface.measurement);
    append(p.remarks, p.measured.remarks);
    if (p.measured.measured()) {
        p.shape = shapeOf(surface, p.measured);
        append(p.remarks, p.shape.remarks);
    }
    const bool begun = !surface.measurement.empty();
    if (begun && finish.product.empty() && surface.kind == SurfaceKind::Floor)
        p.remarks.push_back({Severity::Note, {"", Part::Product}, RemarkKind::NoProduct, {}, {}});

    const SetOutFamily* family = product ? findFamily(product->family) : nullptr;
    const Product* sound = soundProduct(product, finish.product, family ? family->id : "planks", p.remarks);
    if (p.measured.measured() && sound && family) {
        const std::vector<Remark> faults = checkFields(finish.rules, family->ruleFields, "", {"", Part::Rule});
        append(p.remarks, faults);
        if (faults.empty()) {
            p.setOut = family->setOut({p.shape.net, *sound, finish.rules}, stop);
            append(p.remarks, p.setOut.remarks);
        }
    }
    if (p.setOut.laid()) {
        const Plank plank = plankOf(*sound);
        p.planks = takeOffPlanks(p.setOut, plank);
        p.purchases.push_back(buyPlanks(*sound, *p.planks));
        p.thickness = plank.thickness;
        if (const Product* below = soundProduct(underlay, finish.underlay, "underlay", p.remarks)) {
            const Underlay roll = underlayOf(*below);
            if (roll.lap < roll.rollWidth) {
                p.underlay = takeOffUnderlay(p.measured.outline, roll);
                p.purchases.push_back(buyUnderlay(*below, *p.underlay));
                p.thickness = p.thickness + roll.thickness;
            } else {
                p.remarks.push_back({Severity::Error,
                                     {"", Part::Product},
                                     RemarkKind::FieldOutOfRange,
                                     {{"product", below->name},
                                      {"field", std::string("lap between strips")},
                                      {"value", roll.lap},
                                      {"least", Mm{0}},
                                      {"most", roll.rollWidth}},
                                     {}});
            }
        }
        Mm edge;
        for (const Ring& ring : p.measured.outline.rings) edge = edge + Mm{perimeter(ring)};
        p.steps = fitSteps(p.setOut, {.packs = p.purchases.front().packs,
                                      .underlay = p.underlay,
                                      .gap = plankRulesOf(finish.rules).gap,
                                      .edgeLength = edge});
    }
    place(p.remarks, surface.id);
    place(p.measured.remarks, surface.id);
    place(p.setOut.remarks, surface.id);
    place(p.shape.remarks, surface.id);
    return p;
}

/// Adds the surfaces' purchases up: one product is bought once for the whole van.
void total(const Job& job, Plan& plan) {
    plan.totals.cost = Money{0, job.currency};
    for (const SurfacePlan& s : plan.surfaces) {
        append(plan.remarks, s.remarks);
        for (const Purchase& p : s.purchases) {
            const auto same = std::find_if(plan.purchases.begin(), plan.purchases.end(),
                                           [&](const Purchase& q) { return q.product == p.product; });
            if (same == plan.purchases.end())
                plan.purchases.push_back(p);
            else
                *same = boughtTogether(*same, p);
        }
    }
    for (const Purchase& p : plan.purchases) {
        plan.totals.laidMass = plan.totals.laidMass + p.laidMass;
        if (!p.cost || p.cost->currency != job.currency)
            plan.totals.cost.reset();
        else if (plan.totals.cost)
            plan.totals.cost = *plan.totals.cost + *p.cost;
        if (p.family == "underlay") continue;
        plan.totals.laidArea = plan.totals.laidArea + p.laidArea;
        plan.totals.boughtArea = plan.totals.boughtArea + p.boughtArea;
        plan.totals.consumedArea = plan.totals.consumedArea + p.consumedArea;
        plan.totals.runShort =
            std::max(plan.totals.runShort, chanceOfRunningShort(p.unitsNeeded, plan.cutPlanks(p.product),
                                                                p.packs * p.unitsPerPack, job.spoilChance));
    }
    if (plan.purchases.empty()) plan.totals.cost.reset();
}

} // namespace

const SurfacePlan* Plan::surface(std::string_view id) const {
    for (const SurfacePlan& s : surfaces)
        if (s.surface == id) return &s;
    return nullptr;
}

int Plan::cutPlanks(std::string_view product) const {
    int cut = 0;
    for (const SurfacePlan& s : surfaces)
        if (s.planks && !s.purchases.empty() && s.purchases.front().product == product) cut += s.planks->cutPlanks;
    return cut;
}

bool Plan::hasErrors() const { return anyError(remarks); }

Plan Planner::plan(const Job& job, const std::stop_token& stop) {
    Plan result;
    std::vector<Kept> next;
    for (const Surface& surface : job.surfaces) {
        Kept entry{surface, job.finish(surface.id), {}, {}, {}};
        entry.product = productOf(job, entry.finish.product);
        entry.underlay = productOf(job, entry.finish.underlay);
        const auto same = std::find_if(kept_.begin(), kept_.end(), [&](const Kept& k) {
            return k.surface == entry.surface && k.finish == entry.finish && k.product == entry.product &&
                   k.underlay == entry.underlay;
        });
        entry.plan =
            same != kept_.end() ? same->plan : planSurface(surface, entry.finish, entry.product, entry.underlay, stop);
        if (stop.stop_requested()) {
            result.stopped = true;
            return result;
        }
        result.surfaces.push_back(entry.plan);
        next.push_back(std::move(entry));
    }
    kept_ = std::move(next);
    total(job, result);
    std::vector<TiedSurface> tied;
    for (std::size_t i = 0; i < job.surfaces.size(); ++i)
        tied.push_back({&job.surfaces[i], &result.surfaces[i].measured});
    for (Remark& r : tieRemarks(tied)) {
        for (SurfacePlan& s : result.surfaces)
            if (s.surface == r.place.surface) s.remarks.push_back(r);
        result.remarks.push_back(std::move(r));
    }
    Mm floorLength;
    for (std::size_t i = 0; i < job.surfaces.size(); ++i)
        if (job.surfaces[i].kind == SurfaceKind::Floor && result.surfaces[i].measured.measured() &&
            floorLength.value == 0)
            floorLength = {boundsOf(result.surfaces[i].measured.frame).width()};
    for (std::size_t i = 0; i < job.surfaces.size(); ++i)
        result.surfaces[i].datum = datumOn(job.surfaces[i], result.surfaces[i].measured, job.datum, floorLength);
    result.passage = passageOf(job.access);
    append(result.remarks, result.passage.remarks);
    return result;
}

Plan plan(const Job& job, const std::stop_token& stop) { return Planner().plan(job, stop); }

Starts startsOf(const Job& job, const std::string& surfaceId, const std::stop_token& stop) {
    const Surface* surface = job.surface(surfaceId);
    if (!surface) return {};
    const Finish& finish = job.finish(surfaceId);
    const auto product = productOf(job, finish.product);
    const SetOutFamily* family = product ? findFamily(product->family) : nullptr;
    if (!family || !checkFields(product->fields, family->productFields, "", {}).empty() ||
        !checkFields(finish.rules, family->ruleFields, "", {}).empty())
        return {};
    const MeasuredOutline measured = outlineOf(surface->measurement);
    if (!measured.measured()) return {};
    Starts starts;
    starts.choices = family->starts({shapeOf(*surface, measured).net, *product, finish.rules}, stop);
    starts.unitsPerPack = plankOf(*product).perPack;
    starts.suggestions = suggestStarts(starts.choices, starts.unitsPerPack);
    return starts;
}

} // namespace westrum
