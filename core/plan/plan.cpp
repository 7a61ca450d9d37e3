#include "core/plan/plan.h"

#include "core/catalogue/hard_finishes.h"
#include "core/catalogue/plank.h"
#include "core/geometry/boolean.h"
#include "core/plan/balance.h"
#include "core/plan/cost_sharing.h"
#include "core/setout/plank_floor.h"
#include "core/setout/sheet_panels.h"
#include "core/setout/tiling.h"
#include "core/shell/ties.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kLinesMeet = 2; ///< mm: lines this near run through

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

/// Of the surface and its measured outline, without anything that is laid.
SetOutRequest requestOf(const Surface& surface, const SurfaceShape& shape, const MeasuredOutline& measured,
                        const Planner::Context& context) {
    SetOutRequest r;
    r.outline = shape.net;
    r.supports = shape.supports;
    for (std::size_t i = 0; i < measured.sides.size(); ++i) {
        const Edge edge = surface.edge(static_cast<int>(i));
        r.sides.push_back(
            {measured.sides[i], edge.kind, edge.allowance ? std::optional(edge.allowance->length) : std::nullopt});
    }
    r.openings = openingFacts(surface, shape);
    for (const PlacedZone& z : shape.zones)
        (surface.zones[static_cast<std::size_t>(z.zone)].kind == ZoneKind::Hidden ? r.hidden : r.wiring)
            .push_back(z.shape);
    r.visibleCentreX = shape.visibleCentreX;
    r.visibleCentreY = shape.visibleCentreY;
    r.datum = context.datum;
    r.widestThroughDoor = context.widestThroughDoor;
    r.door = context.door;
    r.runsOnFrom = context.runsOnFrom;
    r.bendRadius = measured.leastRadius;
    r.lies = liesLevel(surface.kind);
    r.stretch = measured.stretch;
    r.care = context.care;
    return r;
}

SetOutRequest requestFor(const SetOutRequest& surface, const Layer& layer, const Product& product,
                         const std::vector<StockLength>& lengths) {
    SetOutRequest r = surface;
    r.product = product;
    r.rules = layer.rules;
    r.joints = layer.joints;
    r.reliefs = layer.reliefs;
    r.lengths = lengths;
    return r;
}

/// A lap as wide as its roll would never end.
bool lapTooWide(const Product& product, Mm lap, Mm width, std::vector<Remark>& remarks) {
    if (lap < width) return false;
    remarks.push_back({Severity::Error,
                       {"", Part::Product},
                       RemarkKind::FieldOutOfRange,
                       {{"product", product.name},
                        {"field", std::string("lap between strips")},
                        {"value", lap},
                        {"least", Mm{0}},
                        {"most", width}},
                       {}});
    return true;
}

/// Degrees C that a skin in the sun heats a surface to. Source: docs/formulae.md#bonding
double heatAt(SurfaceKind kind) {
    switch (kind) {
    case SurfaceKind::Ceiling:
    case SurfaceKind::Headliner: return 80;
    case SurfaceKind::Floor:
    case SurfaceKind::Bulkhead: return 40;
    default: return 60;
    }
}

/// What lies next to an adhesive, below and above it; metal where there is nothing.
struct GluedBetween {
    const Product* below = nullptr;
    const Product* above = nullptr;
};

void bond(const Surface& surface, const SurfacePlan& plan, const Product& product, const GluedBetween& between,
          const Planner::Context& context, LayerPlan& layer, std::vector<Remark>& remarks) {
    const Adhesive a = adhesiveOf(product);
    layer.take = takeOffAdhesive(plan.shape, a, between.below && isPorous(*between.below),
                                 between.above && isPorous(*between.above), context.spread, context.close);
    layer.area = layer.take.area;
    layer.mass = {layer.take.amount * a.dryShare};
    layer.purchase = buyAmount(product, layer.take, a.container.value, layer.mass);
    const Place at{"", Part::Product};
    if (!layer.take.bays)
        remarks.push_back({Severity::Error,
                           at,
                           RemarkKind::AdhesiveNeverCloses,
                           {{"product", product.name}, {"flash", a.flashMinutes}, {"open", a.openMinutes}},
                           {}});
    if (const double heat = heatAt(surface.kind); a.standsHeat < heat)
        remarks.push_back({Severity::Warning,
                           at,
                           RemarkKind::AdhesiveTooCool,
                           {{"product", product.name}, {"limit", a.standsHeat}, {"heat", heat}},
                           {}});
}

/// @param below  what it lies on; null: the metal
void takeOff(const Surface& surface, const SurfacePlan& plan, const Product& product, const Product* below,
             LayerPlan& layer, std::vector<Remark>& remarks) {
    if (product.family == "underlay" || product.family == "barrier") {
        const bool underlay = product.family == "underlay";
        const Underlay u = underlay ? underlayOf(product) : Underlay{};
        const Barrier b = underlay ? Barrier{} : barrierOf(product);
        if (lapTooWide(product, underlay ? u.lap : b.lap, underlay ? u.rollWidth : b.rollWidth, remarks)) return;
        if (underlay) {
            layer.take.strips = takeOffUnderlay(plan.measured.outline, u);
            layer.take.area = layer.take.strips.laidArea;
        } else {
            layer.take = takeOffBarrier(plan.measured.outline, b);
        }
        layer.area = layer.take.area;
        layer.mass = layer.take.strips.laidMass;
        layer.purchase = buyUnderlay(product, layer.take.strips);
    } else if (product.family == "insulation") {
        const Insulation i = insulationOf(product);
        layer.take = takeOffInsulation(plan.shape, valueOf(layer.rules, insulationRules(), "between") != 0);
        layer.area = layer.take.area;
        layer.mass = {layer.area.value * i.massKgPerM2};
        layer.purchase = buyAmount(product, layer.take, (areaOf(i.length, i.width) * i.perPack).value, layer.mass);
    } else if (product.family == "coating") {
        const Coating c = coatingOf(product);
        layer.take = takeOffCoating(plan.shape, c, below && isPorous(*below));
        layer.area = layer.take.area;
        layer.mass = {layer.take.amount / (1 + c.waste) * c.dryKgPerLitre};
        layer.purchase = buyAmount(product, layer.take, c.tinLitres, layer.mass);
    } else if (product.family == "battens") {
        std::vector<bool> batten;
        for (const Support& s : surface.supports) batten.push_back(s.kind == SupportKind::Batten);
        layer.take = takeOffBattens(plan.shape, batten);
        layer.area = layer.take.area;
        if (layer.take.lengths.empty())
            remarks.push_back(
                {Severity::Warning, {"", Part::Support}, RemarkKind::NoBattens, {{"product", product.name}}, {}});
    }
}

void setOutLayer(const SetOutRequest& request, const Product& product, LayerPlan& layer, std::vector<Remark>& remarks,
                 const std::stop_token& stop) {
    const SetOutFamily* family = findFamily(product.family);
    const std::vector<Remark> faults = checkFields(request.rules, family->ruleFields, "", {"", Part::Rule});
    append(remarks, faults);
    append(remarks, checkFields(request.rules, fixingRules(product.family), "", {"", Part::Rule}));
    if (!faults.empty()) return;
    layer.setOut = family->setOut(request, stop);
    append(remarks, layer.setOut.remarks);
    if (!layer.setOut.laid()) return;
    layer.setOut.carried = carriedPieces(layer.setOut, request.openings);
    double area = 0;
    for (const Piece& p : layer.setOut.pieces) area += areaMm2(p.shape) / 1e6;
    layer.area = {area};
    if (product.family == "cloth") { // borders and bottoms weigh too
        area = 0;
        for (const Piece& p : layer.setOut.pieces) area += areaMm2(p.cut) / 1e6;
    }
    layer.mass = {area * massPerM2Of(product)};
    if (product.family == "planks") {
        layer.planks = takeOffPlanks(layer.setOut, plankOf(product));
        layer.purchase = buyPlanks(product, *layer.planks);
        layer.area = layer.planks->laidArea;
        layer.mass = layer.planks->laidMass;
    } else if (product.family == "tiles") {
        layer.purchase = buyTiles(product, layer.setOut);
    }
}

/// The panels of the last layer of sheets below: what a lining may wrap one by one.
std::vector<Region> panelsBelow(const std::vector<LayerPlan>& layers) {
    std::vector<Region> panels;
    for (const LayerPlan& l : layers) {
        if (l.family != "sheet" || !l.setOut.laid()) continue;
        panels.clear();
        for (const Piece& piece : l.setOut.pieces) panels.push_back(piece.shape);
    }
    return panels;
}

/// What foam and cloth know of each other: the cushion's rules, and what lies under its cover.
void tellUpholstery(SetOutRequest& request, const Finish& finish, const std::vector<std::optional<Product>>& products,
                    std::size_t at) {
    if (!products[at]) return;
    if (products[at]->family == "foam")
        for (std::size_t i = at + 1; i < products.size(); ++i)
            if (products[i] && products[i]->family == "cloth") request.cover = finish.layers[i].rules;
    if (products[at]->family == "cloth")
        for (std::size_t i = 0; i < at; ++i) {
            if (!products[i] || !checkFields(products[i]->fields, fieldsOfFamily(products[i]->family), "", {}).empty())
                continue;
            if (products[i]->family == "foam")
                request.foamThickness = request.foamThickness + thicknessOf(*products[i]);
            if (products[i]->family == "sheet") request.boardThickness = thicknessOf(*products[i]);
        }
}

SurfacePlan planSurface(const Surface& surface, const Finish& finish, const Catalogue& catalogue,
                        const Planner::Context& context, const MeasuredOutline& measured, const std::stop_token& stop) {
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
    for (std::size_t i = 0; i < finish.layers.size(); ++i) {
        const Layer& layer = finish.layers[i];
        LayerPlan planned{.product = layer.product, .family = {}, .rules = layer.rules, .setOut = {}, .take = {}};
        std::vector<Remark> remarks;
        if (const Product* product = soundProduct(context.products[i], layer.product, remarks)) {
            planned.family = product->family;
            if (p.measured.measured()) {
                const auto next = [&](std::size_t k) {
                    return k < context.products.size() && context.products[k] ? &*context.products[k] : nullptr;
                };
                const Product* below = i > 0 ? next(i - 1) : nullptr;
                if (findFamily(product->family)) {
                    SetOutRequest request = requestFor(facts, layer, *product, context.lengths[i]);
                    request.panels = panelsBelow(p.layers);
                    tellUpholstery(request, finish, context.products, i);
                    setOutLayer(request, *product, planned, remarks, stop);
                } else if (product->family == "adhesive") {
                    bond(surface, p, *product, {below, next(i + 1)}, context, planned, remarks);
                } else {
                    takeOff(surface, p, *product, below, planned, remarks);
                }
            }
        }
        // A remark on a layer that is not seen says whose it is.
        for (Remark& r : remarks)
            if (static_cast<int>(i) != p.face) r.place.layer = static_cast<int>(i);
        place(planned.setOut.remarks, surface.id);
        append(p.remarks, remarks);
        p.layers.push_back(std::move(planned));
    }
    Mm ribDepth;
    for (const Support& s : surface.supports)
        if (s.kind == SupportKind::Rib && s.depth)
            ribDepth = ribDepth.value > 0 ? std::min(ribDepth, s.depth->length) : s.depth->length;
    p.stack = stackOf(stackLayers(finish, catalogue), ribDepth);
    append(p.remarks, p.stack.remarks);
    if (p.measured.measured()) {
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
                                  .layer = static_cast<int>(i)});
        }
        for (const Opening& o : surface.openings) fit.openings.push_back({o.name, o.kind, o.treatment});
        fit.wiring = std::any_of(surface.zones.begin(), surface.zones.end(),
                                 [](const Zone& z) { return z.kind == ZoneKind::Wiring; });
        fit.supports = static_cast<int>(p.shape.supports.size());
        fit.lies = liesLevel(surface.kind);
        fit.airbags = surface.kind == SurfaceKind::Pillar || surface.kind == SurfaceKind::Headliner ||
                      surface.kind == SurfaceKind::CabReveal || surface.area == "cab";
        fit.overhead = surface.kind == SurfaceKind::Ceiling || surface.kind == SurfaceKind::Headliner;
        p.steps = fitSteps(fit);
    }
    place(p.remarks, surface.id);
    place(p.measured.remarks, surface.id);
    place(p.shape.remarks, surface.id);
    place(p.stack.remarks, surface.id);
    return p;
}

/// A sum without a price, or in another currency, is none.
void addToTotal(Totals& totals, const std::optional<Money>& cost, const Currency& currency) {
    if (!cost || cost->currency != currency)
        totals.cost.reset();
    else if (totals.cost)
        totals.cost = *totals.cost + *cost;
}

/// Adds the surfaces' purchases up: one product is bought once for the whole van.
void total(const Job& job, Plan& plan) {
    plan.totals.cost = Money{0, job.currency};
    for (const SurfacePlan& s : plan.surfaces) {
        append(plan.remarks, s.remarks);
        for (const LayerPlan& l : s.layers) {
            if (!l.purchase) continue;
            const auto same = std::find_if(plan.purchases.begin(), plan.purchases.end(),
                                           [&](const Purchase& q) { return q.product == l.purchase->product; });
            if (same == plan.purchases.end())
                plan.purchases.push_back(*l.purchase);
            else
                *same = boughtTogether(*same, *l.purchase);
        }
    }
    // Finishes first, as families are listed; the order of the surfaces does not matter.
    const auto place = [&](const Purchase& p) {
        const auto all = families();
        const auto family = std::find_if(all.begin(), all.end(), [&](const Family& f) { return f.id == p.family; });
        const auto& list = job.catalogue.products;
        const auto product =
            std::find_if(list.begin(), list.end(), [&](const Product& q) { return q.id == p.product; });
        return std::pair(family - all.begin(), product - list.begin());
    };
    std::stable_sort(plan.purchases.begin(), plan.purchases.end(),
                     [&](const Purchase& a, const Purchase& b) { return place(a) < place(b); });
    for (const Purchase& p : plan.purchases) {
        plan.totals.laidMass = plan.totals.laidMass + p.laidMass;
        addToTotal(plan.totals, p.cost, job.currency);
        if (!findFamily(p.family)) continue;
        plan.totals.laidArea = plan.totals.laidArea + p.laidArea;
        plan.totals.boughtArea = plan.totals.boughtArea + p.boughtArea;
        plan.totals.consumedArea = plan.totals.consumedArea + p.consumedArea;
        plan.totals.runShort =
            std::max(plan.totals.runShort, chanceOfRunningShort(p.unitsNeeded, plan.cutUnits(p.product),
                                                                p.packs * p.unitsPerPack, job.spoilChance));
    }
    if (plan.purchases.empty()) plan.totals.cost.reset();
}

/// In which lengths a product of bars comes: as it is sold, other sizes, and the rack, which costs nothing.
std::vector<StockLength> lengthsOf(const Job& job, const Product& product) {
    if (product.family != "boards") return {};
    std::vector<StockLength> lengths;
    const CutList& list = job.cutList(product.id);
    const bool priced = product.packPrice.has_value() &&
                        std::all_of(list.stock.begin(), list.stock.end(),
                                    [](const StockEntry& e) { return !e.used || e.rack || e.price.has_value(); });
    if (list.useOwnStock)
        lengths.push_back({boardOf(product).length, priced ? std::max<std::int64_t>(1, product.packPrice->minor) : 1});
    for (const StockEntry& e : list.stock)
        if (e.used && !e.rack && e.length && e.length->length.value > 0)
            lengths.push_back({e.length->length, priced ? std::max<std::int64_t>(1, e.price->minor) : 1});
    return lengths;
}

/// The side of a surface's outline that stands at its left or right end: the one whose middle lies farthest there.
int endSide(const MeasuredOutline& measured, bool right) {
    int best = -1;
    double at = 0;
    for (std::size_t i = 0; i < measured.sides.size(); ++i) {
        const Ring& side = measured.sides[i];
        if (side.size() < 2) continue;
        const double x = (side.front().x + side.back().x) / 2 * (right ? 1 : -1);
        if (best < 0 || x > at) {
            best = static_cast<int>(i);
            at = x;
        }
    }
    return best;
}

/// What a neighbour at the left end has used of its last tile, where the tiles are to run on from it.
std::optional<double> runsOnFrom(const SurfacePlan& neighbour, const Product& product) {
    const LayerPlan* face = neighbour.faceLayer();
    if (!face || face->product != product.id || !face->setOut.laid()) return std::nullopt;
    const Tile tile = tileOf(product);
    const Mm last = face->setOut.lastColumn;
    return last.value >= tile.width.value - 1e-6 ? 0 : last.value;
}

bool wantsToRunOn(const Finish& finish, const std::vector<std::optional<Product>>& products) {
    for (std::size_t i = 0; i < finish.layers.size(); ++i)
        if (products[i] && products[i]->family == "tiles" &&
            static_cast<TileStart>(static_cast<int>(valueOf(finish.layers[i].rules, tileRuleFields(), "startX"))) ==
                TileStart::RunsOn)
            return true;
    return false;
}

/// Whether lines of two surfaces that share a side run through from one to the other.
void checkLines(const Job& job, Plan& plan) {
    const auto linesAt = [](const SurfacePlan& p, int side) {
        // Heights of the lines between rows over the lower end of the shared side.
        std::vector<double> heights;
        const Ring& s = p.measured.sides[static_cast<std::size_t>(side)];
        const double low = std::min(s.front().y, s.back().y), high = std::max(s.front().y, s.back().y);
        const double middle = (s.front().x + s.back().x) / 2;
        const Bounds b = boundsOf(p.measured.frame);
        const double share = b.width() > 0 ? (middle - b.low.x) / b.width() : 0;
        for (const Row& r : p.setOut().rows) {
            const double y = r.high + (r.highAtEnd - r.high) * share;
            if (y > low + 1 && y < high - 1) heights.push_back(y - low);
        }
        return heights;
    };
    const auto upright = [](const SurfacePlan& p, int side) {
        if (side < 0 || side >= static_cast<int>(p.measured.sides.size())) return false;
        const Ring& s = p.measured.sides[static_cast<std::size_t>(side)];
        return s.size() >= 2 && std::abs(s.back().y - s.front().y) > 2 * std::abs(s.back().x - s.front().x);
    };
    const auto rows = [](const SurfacePlan& p) {
        return p.measured.measured() && p.setOut().laid() && p.setOut().module > 0 && !p.setOut().rowsAcross;
    };
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        SurfacePlan& a = plan.surfaces[i];
        if (!rows(a)) continue;
        for (int side = 0; side < static_cast<int>(job.surfaces[i].edges.size()); ++side) {
            const Edge& e = job.surfaces[i].edges[static_cast<std::size_t>(side)];
            if (e.kind != EdgeKind::Meets || !upright(a, side)) continue;
            const auto other = std::find_if(plan.surfaces.begin(), plan.surfaces.end(),
                                            [&](const SurfacePlan& s) { return s.surface == e.surface; });
            if (other == plan.surfaces.end() || !rows(*other) || !upright(*other, e.side) ||
                std::abs(other->setOut().module - a.setOut().module) > 0.5)
                continue;
            const auto mine = linesAt(a, side), theirs = linesAt(*other, e.side);
            double worst = 0;
            for (const double y : mine) {
                double nearest = a.setOut().module;
                for (const double z : theirs) nearest = std::min(nearest, std::abs(y - z));
                if (!theirs.empty() && y <= theirs.back() + a.setOut().module / 2) worst = std::max(worst, nearest);
            }
            if (worst <= kLinesMeet) continue;
            SetOut& s = a.layers[static_cast<std::size_t>(a.face)].setOut;
            ++s.figures.linesMissed;
            const Surface* neighbour = job.surface(e.surface);
            const Remark r{Severity::Note,
                           {a.surface, Part::Edge, side},
                           RemarkKind::LinesMissNeighbour,
                           {{"other", neighbour ? neighbour->name : std::string()}, {"length", Mm{worst}}},
                           {}};
            a.remarks.push_back(r);
            plan.remarks.push_back(r);
        }
    }
}

/// Whether the nap of linings that share a side runs one way, as if the two were unfolded into one plane. Between
/// what lies and what stands it may turn.
void checkNaps(const Job& job, Plan& plan) {
    constexpr double kSameWay = 0.8; // cosine
    const auto lined = [&](const SurfacePlan& p) {
        const LayerPlan* face = p.faceLayer();
        return p.measured.measured() && face && face->family == "roll" && face->setOut.pile;
    };
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        SurfacePlan& a = plan.surfaces[i];
        if (!lined(a)) continue;
        for (std::size_t side = 0; side < job.surfaces[i].edges.size() && side < a.measured.sides.size(); ++side) {
            const Edge& e = job.surfaces[i].edges[side];
            if (e.kind != EdgeKind::Meets) continue;
            for (std::size_t k = i + 1; k < job.surfaces.size(); ++k) {
                const SurfacePlan& b = plan.surfaces[k];
                if (job.surfaces[k].id != e.surface || !lined(b) || e.side < 0 ||
                    e.side >= static_cast<int>(b.measured.sides.size()) ||
                    a.faceLayer()->product != b.faceLayer()->product ||
                    liesLevel(job.surfaces[i].kind) != liesLevel(job.surfaces[k].kind))
                    continue;
                const Ring &mine = a.measured.sides[side], &theirs = b.measured.sides[static_cast<std::size_t>(e.side)];
                const Point u = mine.back() - mine.front(), v = theirs.front() - theirs.back();
                const double turn = std::atan2(u.y, u.x) - std::atan2(v.y, v.x);
                const Point pile = turned(Ring{*b.setOut().pile}, turn).front();
                if (dot(pile, *a.setOut().pile) > kSameWay) continue;
                const Remark r{Severity::Warning,
                               {a.surface, Part::Edge, static_cast<int>(side)},
                               RemarkKind::NapDisagrees,
                               {{"other", job.surfaces[k].name}},
                               {}};
                ++a.layers[static_cast<std::size_t>(a.face)].setOut.figures.linesMissed;
                a.remarks.push_back(r);
                plan.remarks.push_back(r);
            }
        }
    }
}

void findHeadroom(const Job& job, Plan& plan) {
    const SurfacePlan *floor = nullptr, *ceiling = nullptr;
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        const SurfacePlan& s = plan.surfaces[i];
        const auto thicker = [&](const SurfacePlan* than) { return !than || s.stack.total > than->stack.total; };
        if (job.surfaces[i].kind == SurfaceKind::Floor && thicker(floor)) floor = &s;
        if (job.surfaces[i].kind == SurfaceKind::Ceiling && thicker(ceiling)) ceiling = &s;
    }
    static const Stack bare;
    const Stack& below = floor ? floor->stack : bare;
    std::vector<Mm> heights;
    for (const MaybeReading* r : {&job.headroom.rear, &job.headroom.middle, &job.headroom.front})
        if (*r) heights.push_back((*r)->length);
    if (!heights.empty()) {
        const auto person = job.headroom.person ? std::optional(job.headroom.person->length) : std::nullopt;
        plan.headroom =
            HeadroomPlan{floor ? floor->surface : std::string(), ceiling ? ceiling->surface : std::string(),
                         headroomLeft(heights, below, ceiling ? ceiling->stack : bare, person, kHeadClearance)};
        const HeadroomLeft& left = plan.headroom->left;
        if (left.standsUpright == false)
            plan.remarks.push_back({Severity::Warning,
                                    {ceiling ? ceiling->surface : std::string(), Part::Whole},
                                    RemarkKind::HeadroomShort,
                                    {{"head", left.worst}, {"person", *person}, {"limit", *person + kHeadClearance}},
                                    {}});
    }
    for (const Access::Door& d : job.access.doors) {
        if (!d.sill) continue;
        const ThresholdStep step = thresholdStep(below, d.sill->length, kStepLimit, kRampAngleRad);
        plan.thresholds.push_back({d.name, step});
        if (step.needsTransition && floor && !floor->layers.empty())
            plan.remarks.push_back({Severity::Note,
                                    {floor->surface, Part::Whole},
                                    RemarkKind::DoorStep,
                                    {{"door", d.name}, {"step", step.step}, {"length", step.rampRun}},
                                    {}});
    }
}

/// How high one sits on upholstery, and what is left above.
void findSeats(const Job& job, Plan& plan) {
    double floor = 0;
    for (std::size_t i = 0; i < job.surfaces.size(); ++i)
        if (job.surfaces[i].kind == SurfaceKind::Floor) floor = std::max(floor, plan.surfaces[i].stack.total.value);
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        const Surface& s = job.surfaces[i];
        SurfacePlan& p = plan.surfaces[i];
        const LayerPlan* face = p.faceLayer();
        if (!face || face->family != "cloth" || !face->setOut.laid() || !liesLevel(s.kind) || !s.heightRear) continue;
        double pressed = 0; // what is left of the layers under a person
        for (std::size_t k = 0; k < p.layers.size(); ++k)
            if (const Product* product = job.catalogue.find(p.layers[k].product))
                pressed += thicknessOf(*product).value * (product->family == "foam" ? 1 - squashOf(*product) : 1);
        SeatPlan seat{s.id, {s.heightRear->length.value + pressed - floor}, {}};
        std::optional<double> bare;
        for (const MaybeReading* r : {&job.headroom.rear, &job.headroom.middle, &job.headroom.front})
            if (*r) bare = bare ? std::min(*bare, (*r)->length.value) : (*r)->length.value;
        double ceiling = 0;
        for (std::size_t k = 0; k < job.surfaces.size(); ++k)
            if (job.surfaces[k].kind == SurfaceKind::Ceiling)
                ceiling = std::max(ceiling, plan.surfaces[k].stack.total.value);
        if (bare) seat.above = Mm{*bare - ceiling - s.heightRear->length.value - pressed};
        plan.seats.push_back(std::move(seat));
    }
}

/// Trims along the edges of all surfaces, by what their faces are.
void findTrims(const Job& job, Plan& plan) {
    std::vector<Product> trims;
    for (const Product& p : job.catalogue.products)
        if (p.family == "trim" && checkFields(p.fields, fieldsOfFamily("trim"), "", {}).empty()) trims.push_back(p);
    std::vector<TrimSurface> surfaces;
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        const SurfacePlan& p = plan.surfaces[i];
        TrimSurface s{&job.surfaces[i], &p.measured, &p.shape};
        if (const LayerPlan* face = p.faceLayer(); face && !face->family.empty()) {
            s.hardness = stockFormOf(face->family) == StockForm::Roll ? Hardness::Soft : Hardness::Hard;
            s.face = &face->setOut;
            s.coverJoints = face->family == "sheet" && panelRulesOf(face->rules).joint == PanelJoint::Strip;
        }
        s.trim = job.finish(s.surface->id).trim;
        surfaces.push_back(std::move(s));
    }
    plan.trims = trimEdges(surfaces, trims);
    for (SurfacePlan& s : plan.surfaces) trimSteps(plan.trims, s.surface, trims, s.steps);
    for (const Remark& r : plan.trims.remarks) {
        for (SurfacePlan& s : plan.surfaces)
            if (s.surface == r.place.surface) s.remarks.push_back(r);
        plan.remarks.push_back(r);
    }
}

/// What the screws of a layer pass through, and the batten that they hold in.
void findGrip(const Finish& finish, const Catalogue& catalogue, std::size_t at, NeedFacts& facts) {
    for (std::size_t k = at + 1; k-- > 0;) {
        const Product* p = catalogue.find(finish.layers[k].product);
        const Family* family = p ? productFamily(p->family) : nullptr;
        if (!family || !checkFields(p->fields, family->fields, "", {}).empty()) continue;
        if (k < at && family->role == LayerRole::Batten) {
            facts.into = thicknessOf(*p);
            return;
        }
        const bool between = family->role == LayerRole::Insulation &&
                             valueOf(finish.layers[k].rules, family->layerRules, "between") != 0;
        if (!between) facts.through = facts.through + thicknessOf(*p);
    }
}

/// Fixings, tapes, grout and what is used up, with the product of the catalogue that serves each.
void findNeeds(const Job& job, Plan& plan) {
    std::vector<const Product*> goods;
    std::vector<Product> trims;
    for (const Product& p : job.catalogue.products) {
        if (!checkFields(p.fields, fieldsOfFamily(p.family), "", {}).empty()) continue;
        if (p.family == "sundries") goods.push_back(&p);
        if (p.family == "trim") trims.push_back(p);
    }
    for (std::size_t i = 0; i < plan.surfaces.size(); ++i) {
        const SurfacePlan& s = plan.surfaces[i];
        const Finish& finish = job.finish(s.surface);
        for (std::size_t k = 0; k < s.layers.size() && k < finish.layers.size(); ++k) {
            const LayerPlan& l = s.layers[k];
            const Product* product = job.catalogue.find(l.product);
            if (!product || l.family.empty() || !s.measured.measured()) continue;
            if (!checkFields(l.rules, fixingRules(l.family), "", {}).empty()) continue; // told by the surface's plan
            NeedFacts facts{product, &l.rules, &l.setOut, &l.take, &s.shape, {}, {}, {}};
            for (const Ring& ring : s.shape.net.rings) facts.edges = facts.edges + Mm{perimeter(ring)};
            findGrip(finish, job.catalogue, k, facts);
            for (Need& n : needsOf(facts)) {
                n.surface = s.surface;
                n.layer = static_cast<int>(k);
                plan.needs.push_back(std::move(n));
            }
        }
    }
    for (Need& n : needsOfTrims(plan.trims, trims)) plan.needs.push_back(std::move(n));
    if (!job.consumables) std::erase_if(plan.needs, [](const Need& n) { return isConsumable(n.serves); });
    std::vector<Need> unserved;
    for (Need& n : plan.needs) {
        if (n.product.empty())
            if (const Product* serves = productFor(n, goods)) n.product = serves->id;
        if (!n.product.empty()) continue;
        const auto same = std::find_if(unserved.begin(), unserved.end(), [&](const Need& u) {
            return u.serves == n.serves && u.least == n.least && u.most == n.most;
        });
        if (same == unserved.end())
            unserved.push_back(n);
        else
            same->amount += n.amount;
    }
    for (const Need& n : unserved)
        plan.remarks.push_back({Severity::Note,
                                {"", Part::Product},
                                RemarkKind::NeedUnserved,
                                {{"serves", static_cast<std::int64_t>(n.serves)},
                                 {"amount", n.amount},
                                 {"least", n.least.value_or(Mm{0})},
                                 {"most", n.most.value_or(Mm{0})}},
                                {}});
    // One line for each product, in the catalogue's order.
    for (const Product& p : job.catalogue.products) {
        double amount = 0;
        for (const Need& n : plan.needs) amount += n.product == p.id ? n.amount : 0;
        if (amount <= 0) continue;
        if (p.family == "trim") {
            const TrimLength bead = trimOf(p);
            plan.purchases.push_back(buySundries(p, Serves::Sealant, amount, bead.metresOfBead(), bead.mass));
        } else {
            const SundryGoods g = sundryOf(p);
            plan.purchases.push_back(buySundries(p, g.serves, amount, g.perPack, g.packMass));
        }
        const Purchase& bought = plan.purchases.back();
        plan.totals.laidMass = plan.totals.laidMass + bought.laidMass;
        addToTotal(plan.totals, bought.cost, job.currency);
        if (!bought.packPrice)
            plan.remarks.push_back(
                {Severity::Warning, {"", Part::Product}, RemarkKind::PriceMissing, {{"product", p.name}}, {}});
    }
}

Mm floorLengthOf(const Job& job, const std::vector<MeasuredOutline>& measured) {
    for (std::size_t i = 0; i < job.surfaces.size(); ++i)
        if (job.surfaces[i].kind == SurfaceKind::Floor && measured[i].measured())
            return {boundsOf(measured[i].frame).width()};
    return {};
}

Planner::Context contextOf(const Job& job, const Surface& surface, const MeasuredOutline& measured, Mm floorLength,
                           const Passage& passage) {
    Planner::Context c;
    for (const Layer& l : job.finish(surface.id).layers) {
        c.products.push_back(productOf(job, l.product));
        c.lengths.push_back(c.products.back() ? lengthsOf(job, *c.products.back()) : std::vector<StockLength>());
    }
    c.datum = datumLevelOn(surface, measured, job.datum, floorLength);
    c.widestThroughDoor = passage.widestPanel;
    c.door = passage.door;
    c.spread = job.spreadM2PerMinute;
    c.close = job.closeM2PerMinute;
    return c;
}

} // namespace

const LayerPlan* SurfacePlan::faceLayer() const {
    return face < 0 || face >= static_cast<int>(layers.size()) ? nullptr : &layers[static_cast<std::size_t>(face)];
}

const SetOut& SurfacePlan::setOut() const {
    static const SetOut none;
    const LayerPlan* seen = faceLayer();
    return seen ? seen->setOut : none;
}

const LayerPlan* SurfacePlan::layerOf(std::string_view family) const {
    for (const LayerPlan& l : layers)
        if (l.family == family) return &l;
    return nullptr;
}

const SurfacePlan* Plan::surface(std::string_view id) const {
    for (const SurfacePlan& s : surfaces)
        if (s.surface == id) return &s;
    return nullptr;
}

int Plan::cutUnits(std::string_view product) const {
    int cut = 0;
    for (const SurfacePlan& s : surfaces)
        for (const LayerPlan& l : s.layers)
            if (l.product == product)
                for (const StockUnit& u : l.setOut.stock) cut += !u.cuts.empty();
    return cut;
}

bool Plan::hasErrors() const { return anyError(remarks); }

Plan Planner::plan(const Job& job, const std::stop_token& stop) {
    Plan result;
    std::vector<MeasuredOutline> measured;
    for (const Surface& s : job.surfaces) {
        const auto same = std::find_if(kept_.begin(), kept_.end(), [&](const Kept& k) {
            return k.surface.id == s.id && k.surface.measurement == s.measurement;
        });
        measured.push_back(same != kept_.end() ? same->plan.measured : outlineOf(s.measurement));
        for (Remark& r : measured.back().remarks) r.place.surface.clear();
    }
    const Mm floorLength = floorLengthOf(job, measured);
    result.passage = passageOf(job.access);
    result.surfaces.resize(job.surfaces.size());
    std::vector<Kept> next(job.surfaces.size());
    std::vector<int> state(job.surfaces.size(), 0); // 1: being planned, 2: planned
    const auto planOne = [&](const auto& self, std::size_t i) -> void {
        if (state[i] != 0) return;
        state[i] = 1;
        const Surface& surface = job.surfaces[i];
        Kept entry{
            surface, job.finish(surface.id), contextOf(job, surface, measured[i], floorLength, result.passage), {}};
        entry.context.care = care_;
        if (wantsToRunOn(entry.finish, entry.context.products) && measured[i].measured()) {
            // The neighbour at the left is planned first; where walls run on in a ring, somebody begins.
            const Edge e = surface.edge(endSide(measured[i], false));
            for (std::size_t k = 0; k < job.surfaces.size(); ++k)
                if (e.kind == EdgeKind::Meets && job.surfaces[k].id == e.surface) {
                    self(self, k);
                    for (const auto& product : entry.context.products)
                        if (product && product->family == "tiles" && state[k] == 2)
                            entry.context.runsOnFrom = runsOnFrom(result.surfaces[k], *product);
                }
        }
        const auto same = std::find_if(kept_.begin(), kept_.end(), [&](const Kept& k) {
            return k.surface == entry.surface && k.finish == entry.finish && k.context == entry.context;
        });
        entry.plan = same != kept_.end()
                         ? same->plan
                         : planSurface(surface, entry.finish, job.catalogue, entry.context, measured[i], stop);
        result.surfaces[i] = entry.plan;
        next[i] = std::move(entry);
        state[i] = 2;
    };
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        planOne(planOne, i);
        if (stop.stop_requested()) {
            result.stopped = true;
            return result;
        }
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
    for (std::size_t i = 0; i < job.surfaces.size(); ++i)
        result.surfaces[i].datum = datumOn(job.surfaces[i], result.surfaces[i].measured, job.datum, floorLength);
    checkLines(job, result);
    checkNaps(job, result);
    findHeadroom(job, result);
    findTrims(job, result);
    findNeeds(job, result);
    findSeats(job, result);
    append(result.remarks, result.passage.remarks);
    buySpares(job, result);
    shareCosts(job, {}, result);
    weighVan(job, result);
    return result;
}

Plan plan(const Job& job, const std::stop_token& stop, double care) { return Planner(care).plan(job, stop); }

namespace {

/// The request of one layer as the plan makes it, or nothing if it cannot be set out.
struct Asked {
    SetOutRequest request;
    const SetOutFamily* family;
};
std::optional<Asked> ask(const Job& job, const std::string& surfaceId, int layer) {
    const Surface* surface = job.surface(surfaceId);
    if (!surface) return std::nullopt;
    const Finish& finish = job.finish(surfaceId);
    const int at = layer < 0 ? faceLayer(finish, job.catalogue) : layer;
    if (at < 0 || at >= static_cast<int>(finish.layers.size())) return std::nullopt;
    const Layer& l = finish.layers[static_cast<std::size_t>(at)];
    const Product* product = job.catalogue.find(l.product);
    const SetOutFamily* family = product ? findFamily(product->family) : nullptr;
    if (!family || !checkFields(product->fields, fieldsOfFamily(product->family), "", {}).empty() ||
        !checkFields(l.rules, family->ruleFields, "", {}).empty())
        return std::nullopt;
    std::vector<MeasuredOutline> measured;
    for (const Surface& s : job.surfaces)
        measured.push_back(&s == surface || s.kind == SurfaceKind::Floor ? outlineOf(s.measurement)
                                                                         : MeasuredOutline{});
    const MeasuredOutline& own = measured[static_cast<std::size_t>(surface - job.surfaces.data())];
    if (!own.measured()) return std::nullopt;
    const Planner::Context context = contextOf(job, *surface, own, floorLengthOf(job, measured), passageOf(job.access));
    const SetOutRequest facts = requestOf(*surface, shapeOf(*surface, own), own, context);
    SetOutRequest request = requestFor(facts, l, *product, context.lengths[static_cast<std::size_t>(at)]);
    tellUpholstery(request, finish, context.products, static_cast<std::size_t>(at));
    if (product->family == "roll") { // it may wrap the panels of a layer below
        std::vector<LayerPlan> below;
        for (std::size_t i = 0; i < static_cast<std::size_t>(at); ++i) {
            const auto& p = context.products[i];
            if (!p || p->family != "sheet") continue;
            LayerPlan sheet{
                .product = p->id, .family = p->family, .rules = finish.layers[i].rules, .setOut = {}, .take = {}};
            std::vector<Remark> unsaid;
            setOutLayer(requestFor(facts, finish.layers[i], *p, context.lengths[i]), *p, sheet, unsaid, {});
            below.push_back(std::move(sheet));
        }
        request.panels = panelsBelow(below);
    }
    return Asked{std::move(request), family};
}

} // namespace

std::vector<OpeningFact> openingFacts(const Surface& surface, const SurfaceShape& shape) {
    std::vector<OpeningFact> facts;
    for (const PlacedOpening& o : shape.openings) {
        const Opening& opening = surface.openings[static_cast<std::size_t>(o.opening)];
        facts.push_back({.placed = o,
                         .kind = opening.kind,
                         .treatment = opening.treatment,
                         .name = opening.name,
                         .edge = opening.edge,
                         .turnIn = opening.turnIn ? std::optional(opening.turnIn->length) : std::nullopt});
    }
    return facts;
}

Starts startsOf(const Job& job, const std::string& surfaceId, int layer, const std::stop_token& stop,
                const std::function<void(double)>& progress) {
    auto asked = ask(job, surfaceId, layer);
    if (!asked) return {};
    asked->request.progress = progress;
    Starts starts;
    starts.choices = asked->family->choices(asked->request, stop);
    const Field* perPack = findField(fieldsOfFamily(asked->family->id), "perPack");
    starts.unitsPerPack = perPack ? static_cast<int>(valueOf(asked->request.product.fields, *perPack)) : 1;
    for (const StartChoice& c : starts.choices)
        if (c.onStrip) starts.module = std::max(starts.module, c.startOffset.value + 1);
    starts.suggestions = suggestStarts(starts.choices, starts.unitsPerPack);
    return starts;
}

SetOut setOutAs(const Job& job, const std::string& surfaceId, int layer, const FieldValues& rules) {
    auto asked = ask(job, surfaceId, layer);
    if (!asked || !checkFields(rules, asked->family->ruleFields, "", {}).empty()) return {};
    asked->request.rules = rules;
    return asked->family->setOut(asked->request, {});
}

} // namespace westrum
