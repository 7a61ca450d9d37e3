#include "core/plan/surface_stage.h"

#include "core/families/holding.h"
#include "core/plan/base_checks.h"
#include "core/plan/base_plan.h"
#include "core/plan/box_plan.h"
#include "core/plan/fixing_plan.h"

#include "core/shell/holes.h"
#include "core/shell/ties.h"

#include <algorithm>
#include <utility>

namespace westrum {
namespace {

void place(std::vector<Remark>& remarks, const std::string& surface) {
    for (Remark& r : remarks) r.place.surface = surface;
}

void append(std::vector<Remark>& to, const std::vector<Remark>& more) { to.insert(to.end(), more.begin(), more.end()); }

/// A product that a layer names and whose fields are sound; says what is wrong otherwise.
const Product* soundProduct(const std::optional<Product>& product, const std::string& id,
                            std::vector<Remark>& remarks) {
    const Place at{"", Part::Product};
    if (!product || !productFamily(product->family)) {
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

std::vector<FitStep> stepsOf(const Surface& surface, const SurfacePlan& p, const SurfaceContext& context) {
    FitFacts fit;
    for (const Ring& ring : p.measured.outline.rings) fit.edgeLength = fit.edgeLength + Mm{perimeter(ring)};
    for (std::size_t i = 0; i < p.layers.size(); ++i) {
        const LayerPlan& l = p.layers[i];
        if (l.family.empty()) continue;
        fit.layers.push_back({.product = &*context.products[i],
                              .setOut = &l.setOut,
                              .take = &l.take,
                              .rules = &l.rules,
                              .purchase = l.purchase ? &*l.purchase : nullptr,
                              .seen = static_cast<int>(i) == p.face,
                              .layer = static_cast<int>(i),
                              .held = l.held,
                              .fixings = l.fixings,
                              .area = l.area});
    }
    for (const Opening& o : surface.openings) fit.openings.push_back({o.name, o.kind, o.treatment, o.count});
    fit.wiring = std::any_of(surface.zones.begin(), surface.zones.end(),
                             [](const Zone& z) { return z.kind == ZoneKind::Wiring; });
    fit.supports = static_cast<int>(p.shape.supports.size());
    fit.lies = liesLevel(surface.kind);
    fit.airbags = surface.kind == SurfaceKind::Pillar || surface.kind == SurfaceKind::Headliner ||
                  surface.kind == SurfaceKind::CabReveal || surface.area.kind == AreaKind::Cab;
    fit.coatsFirst = context.coatsFirst;
    fit.efforts = context.efforts;
    fit.overhead = surface.kind == SurfaceKind::Ceiling || surface.kind == SurfaceKind::Headliner;
    return fitSteps(std::move(fit), context.hours);
}

/// Glue and coats go where pieces lie: a finish that leaves what furniture hides bare leaves it bare of them too.
bool onPieces(const Family& family) {
    return family.product.role == LayerRole::Adhesive || family.product.role == LayerRole::Coating;
}

/// The surface as the finish over a layer covers it, or where there is none over it the one below.
SurfaceShape coveredAbove(const SetOutRequest& facts, const Finish& finish, const SurfaceContext& context,
                          std::size_t layer, const SurfaceShape& shape) {
    const auto bareBy = [&](std::size_t k) -> std::optional<Mm> {
        const auto& product = context.products[k];
        const SetOutFamily* family = product ? findFamily(product->family) : nullptr;
        if (!family || !findField(family->ruleFields, "hidden")) return std::nullopt;
        const FieldValues& rules = finish.layers[k].rules;
        if (valueOf(rules, family->ruleFields, "hidden") == 0) return Mm{-1};
        return Mm{valueOf(rules, family->ruleFields, "bearing")};
    };
    std::optional<Mm> bearing;
    for (std::size_t k = layer + 1; k < finish.layers.size() && !bearing; ++k) bearing = bareBy(k);
    for (std::size_t k = layer; k-- > 0 && !bearing;) bearing = bareBy(k);
    if (!bearing || bearing->value < 0) return shape;
    SurfaceShape covered = shape;
    SetOutRequest whole = facts;
    whole.sides.clear(); // gaps at the edges are the finish's
    covered.net = toCover(whole, true, *bearing, {});
    return covered;
}

/// What the layers hang on and come to, once they are set out: packers, thickness, fixings, and what is wrong with it.
void planBase(const Surface& surface, const Finish& finish, const Catalogue& catalogue, const SurfaceContext& context,
              SurfacePlan& p) {
    Mm ribDepth;
    for (const Support& s : surface.supports)
        if (s.kind == SupportKind::Rib && s.depth)
            ribDepth = ribDepth.value > 0 ? std::min(ribDepth, s.depth->length) : s.depth->length;
    if (p.measured.measured()) p.packed = packBattens(surface, finish, p.shape, context, p.remarks);
    std::vector<StackLayer> layers = stackLayers(finish, catalogue);
    for (StackLayer& l : layers) // packers stand below the battens that lie on the ribs
        if (l.batten && !l.beside) {
            l.thickness = l.thickness + p.packed.lost;
            break;
        }
    p.stack = stackOf(layers, ribDepth);
    append(p.remarks, p.stack.remarks);
    if (!p.measured.measured()) return;
    append(p.remarks, baseRemarks(surface, context, p));
    placeFixings(surface, finish, context, p);
    checkBacking(surface, p);
    checkClearances(surface, context, p);
    checkLamps(surface, p);
}

SurfacePlan planSurface(const Surface& surface, const Finish& finish, const Catalogue& catalogue,
                        const SurfaceContext& context, const MeasuredOutline& measured, const std::stop_token& stop) {
    SurfacePlan p;
    p.surface = surface.id;
    p.measured = measured;
    append(p.remarks, p.measured.remarks);
    if (p.measured.measured()) {
        p.shape = shapeOf(surface, p.measured);
        append(p.remarks, p.shape.remarks);
    }
    const bool begun = !surface.measurement.empty();
    if (begun && finish.layers.empty() && surface.kind == SurfaceKind::Floor)
        p.remarks.push_back({Severity::Note, {"", Part::Product}, RemarkKind::NoProduct, {}, {}});

    SetOutRequest facts;
    if (p.measured.measured()) facts = requestOf(surface, p.shape, p.measured, context);
    p.face = faceLayer(finish, catalogue);
    const LayersSeen seen = layersSeen(finish, context);
    const std::vector<Holding> held = holdingsOf(seen.products, seen.rules);
    for (std::size_t i = 0; i < finish.layers.size(); ++i) {
        const Layer& layer = finish.layers[i];
        LayerPlan planned{
            .product = layer.product, .family = {}, .rules = layer.rules, .setOut = {}, .take = {}, .held = held[i]};
        std::vector<Remark> remarks;
        if (const Product* product = soundProduct(context.products[i], layer.product, remarks)) {
            planned.family = product->family;
            if (p.measured.measured()) {
                const auto next = [&](std::size_t k) {
                    return k < context.products.size() && context.products[k] ? &*context.products[k] : nullptr;
                };
                const Family& family = *familyOf(product->family);
                if (family.setOut)
                    setOutLayer(requestFor(facts, finish, context, i, panelsBelow(p.layers)), *product, planned,
                                remarks, stop);
                else if (family.takeOff)
                    family.takeOff(
                        {.surface = surface,
                         .shape = onPieces(family) ? coveredAbove(facts, finish, context, i, p.shape) : p.shape,
                         .outline = p.measured.outline,
                         .product = *product,
                         .below = i > 0 ? next(i - 1) : nullptr,
                         .above = next(i + 1),
                         .spread = context.spread,
                         .close = context.close},
                        planned, remarks);
            }
        }
        // A remark on a layer that is not seen says whose it is.
        for (Remark& r : remarks)
            if (static_cast<int>(i) != p.face) r.place.layer = static_cast<int>(i);
        place(planned.setOut.remarks, surface.id);
        append(p.remarks, remarks);
        p.layers.push_back(std::move(planned));
    }
    planBase(surface, finish, catalogue, context, p);
    if (p.measured.measured()) p.steps = stepsOf(surface, p, context);
    place(p.remarks, surface.id);
    place(p.measured.remarks, surface.id);
    place(p.shape.remarks, surface.id);
    place(p.stack.remarks, surface.id);
    return p;
}

/// Where surfaces do not fit each other. What the van knows to be one reading's is said already.
std::vector<Remark> apartRemarks(const std::vector<TiedSurface>& tied, const FoldUp& fold) {
    std::vector<Remark> apart = tieRemarks(tied);
    for (Remark& r : holeRemarks(tied)) {
        const auto place = static_cast<std::size_t>(r.place.index);
        if (std::none_of(fold.suspects.begin(), fold.suspects.end(), [&](const VanSuspect& s) {
                return s.surface == r.place.surface && openingOfKey(s.key) == place;
            }))
            apart.push_back(std::move(r));
    }
    return apart;
}

} // namespace

SurfaceStage Planner::surfaces(const SurfacesInput& input, const std::stop_token& stop) {
    const Job& job = input.read;
    SurfaceStage stage;
    std::vector<MeasuredOutline> measured;
    for (const Surface& s : job.surfaces) {
        const auto same = std::find_if(kept_.begin(), kept_.end(), [&](const Kept& k) {
            return k.surface.id == s.id && k.surface.measurement == s.measurement;
        });
        measured.push_back(same != kept_.end() ? same->plan.measured : outlineOf(s.measurement));
        for (Remark& r : measured.back().remarks) r.place.surface.clear();
    }
    std::vector<TiedSurface> bare;
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) bare.push_back({&job.surfaces[i], &measured[i]});
    stage.fold = foldUp(bare, job.headroom, job.symmetricBody);
    const FloorFrame floor = floorFrameOf(bare, stage.fold);
    stage.passage = passageOf(job.access);
    stage.surfaces.resize(job.surfaces.size());
    std::vector<Kept> next(job.surfaces.size());
    std::vector<int> state(job.surfaces.size(), 0); // 1: being planned, 2: planned
    const auto planOne = [&](const auto& self, std::size_t i) -> void {
        if (state[i] != 0) return;
        state[i] = 1;
        const Surface& surface = job.surfaces[i];
        Kept entry{withBattensOf(surface, job.finish(surface.id)),
                   job.finish(surface.id),
                   contextOf(job, surface, measured[i], floor, stage.passage),
                   {}};
        entry.context.care = care_;
        // The neighbour at the left is planned first; where walls run on in a ring, somebody begins.
        entry.context.runsOnFrom = runsOnFrom(surface, measured[i], entry.finish, entry.context.products,
                                              [&](const std::string& id) -> SurfacePlan* {
                                                  for (std::size_t k = 0; k < job.surfaces.size(); ++k) {
                                                      if (job.surfaces[k].id != id) continue;
                                                      self(self, k);
                                                      return state[k] == 2 ? &stage.surfaces[k] : nullptr;
                                                  }
                                                  return nullptr;
                                              });
        const auto same = std::find_if(kept_.begin(), kept_.end(), [&](const Kept& k) {
            return k.surface == entry.surface && k.finish == entry.finish && k.context == entry.context;
        });
        entry.plan = same != kept_.end()
                         ? same->plan
                         : planSurface(entry.surface, entry.finish, job.catalogue, entry.context, measured[i], stop);
        stage.surfaces[i] = entry.plan;
        next[i] = std::move(entry);
        state[i] = 2;
    };
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        planOne(planOne, i);
        if (stop.stop_requested()) {
            stage.stopped = true;
            return stage;
        }
    }
    kept_ = std::move(next);
    tellClosing(job, stage);
    for (const SurfacePlan& s : stage.surfaces) append(stage.found, s.remarks);
    std::vector<TiedSurface> tied;
    for (std::size_t i = 0; i < job.surfaces.size(); ++i)
        tied.push_back({&job.surfaces[i], &stage.surfaces[i].measured});
    for (Remark& r : apartRemarks(tied, stage.fold)) {
        for (SurfacePlan& s : stage.surfaces)
            if (s.surface == r.place.surface) s.remarks.push_back(r);
        stage.found.push_back(std::move(r));
    }
    for (std::size_t i = 0; i < job.surfaces.size(); ++i)
        stage.surfaces[i].datum = datumOn(job.surfaces[i], stage.surfaces[i].measured, job.datum, floor);
    checkBoxes(job, stage);
    checkLines(job, stage);
    checkNaps(job, stage);
    findHeadroom(job, stage);
    findTrims(job, stage);
    findNeeds(job, stage);
    findSeats(job, stage);
    append(stage.found, stage.passage.remarks);
    return stage;
}

Plan Planner::plan(const Job& job, const std::stop_token& stop) {
    return withCuts(surfaces(surfacesInput(job), stop), job, {});
}

} // namespace westrum
