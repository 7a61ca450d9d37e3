#include "core/plan/layer_request.h"

#include <algorithm>

namespace westrum {

bool isSound(const Product& product) {
    return checkFields(product.fields, fieldsOfFamily(product.family), "", {}).empty();
}

LayersSeen layersSeen(const Finish& finish, const SurfaceContext& context) {
    LayersSeen seen;
    for (std::size_t i = 0; i < finish.layers.size(); ++i) {
        const auto& product = context.products[i];
        seen.products.push_back(product && isSound(*product) ? &*product : nullptr);
        seen.rules.push_back(&finish.layers[i].rules);
    }
    return seen;
}

namespace {

std::optional<Product> productOf(const Job& job, const std::string& id) {
    const Product* found = id.empty() ? nullptr : job.catalogue.find(id);
    return found ? std::optional(*found) : std::nullopt;
}

/// In which lengths a product of bars comes: as it is sold, other sizes, and the rack, which costs nothing.
std::vector<StockLength> lengthsOf(const Job& job, const Product& product) {
    const Family* family = familyOf(product.family);
    if (!family || !family->laid.choosesLengths) return {};
    std::vector<StockLength> lengths;
    const CutList& list = job.cutList(product.id);
    const bool priced = product.packPrice.has_value() &&
                        std::all_of(list.stock.begin(), list.stock.end(),
                                    [](const StockEntry& e) { return !e.used || e.rack || e.price.has_value(); });
    if (list.useOwnStock)
        lengths.push_back({barOf(product).length, priced ? std::max<std::int64_t>(1, product.packPrice->minor) : 1});
    for (const StockEntry& e : list.stock)
        if (e.used && !e.rack && e.length && e.length->length.value > 0)
            lengths.push_back({e.length->length, priced ? std::max<std::int64_t>(1, e.price->minor) : 1});
    return lengths;
}

} // namespace

namespace {

/// Whether a layer lies on something all over: on another sheet or a bed of glue down to the metal or a sheet, or, of a
/// floor, on the van's own floor with nothing but what lies flat between.
bool isBacked(const SurfaceContext& context, std::size_t layer, const SetOutRequest& surface) {
    for (std::size_t k = layer; k-- > 0;) {
        const auto& product = context.products[k];
        const ProductFamily* family = product ? productFamily(product->family) : nullptr;
        if (!family) continue;
        if (family->role == LayerRole::Finish) return true;
        if (family->role == LayerRole::Batten) return false;
    }
    return surface.onFloor ||
           (layer > 0 && context.products[layer - 1] && productFamily(context.products[layer - 1]->family) &&
            productFamily(context.products[layer - 1]->family)->role == LayerRole::Adhesive);
}

} // namespace

SurfaceContext contextOf(const Job& job, const Surface& surface, const MeasuredOutline& measured,
                         const FloorFrame& floor, const Passage& passage) {
    SurfaceContext c;
    for (const Layer& l : job.finish(surface.id).layers) {
        c.products.push_back(productOf(job, l.product));
        c.lengths.push_back(c.products.back() ? lengthsOf(job, *c.products.back()) : std::vector<StockLength>());
    }
    c.datum = datumLevelOn(surface, measured, job.datum, floor);
    c.widestThroughDoor = passage.widestPanel;
    c.door = passage.door;
    if (job.access.partToLoad) {
        c.loadLength = passage.loadLength;
        c.loadWidth = passage.loadWidth;
    }
    c.spread = job.spreadM2PerMinute;
    c.close = job.closeM2PerMinute;
    c.clearances = job.clearances;
    c.coatsFirst = job.work.way(WorkRule::CoatsBeforeFitting) == RuleWay::Usual;
    c.hours = job.work.hours;
    c.efforts = job.work.efforts;
    for (const Product& p : job.catalogue.products) {
        const Family* family = familyOf(p.family);
        if (!family || !isSound(p)) continue;
        if (family->product.role == LayerRole::Sundry)
            if (const SundryGoods goods = sundryOf(p); goods.serves == Serves::Packers && goods.length.value > 0)
                c.packers.push_back(goods.length);
        const auto take = [&](std::string& id, bool serves) {
            if (id.empty() && serves) id = p.id;
        };
        take(c.atHand.sheet, family->laid.wrapped);
        take(c.atHand.barrier, family->product.role == LayerRole::Barrier);
        take(c.atHand.waterproof, family->product.role == LayerRole::Coating && coatingOf(p).waterproof);
    }
    return c;
}

SetOutRequest requestOf(const Surface& surface, const SurfaceShape& shape, const MeasuredOutline& measured,
                        const SurfaceContext& context) {
    SetOutRequest r;
    r.outline = shape.net;
    r.supports = shape.supports;
    for (std::size_t i = 0; i < measured.sides.size(); ++i) {
        const Edge edge = surface.edge(static_cast<int>(i));
        r.sides.push_back({measured.sides[i], edge.kind,
                           edge.allowance ? std::optional(edge.allowance->length) : std::nullopt, edge.factory});
    }
    for (const CutAway& c : measured.cutAways) // its ends lie on the sides themselves, which go before it
        for (const Ring& ring : c.shape.rings) {
            Ring line = ring;
            line.push_back(ring.front());
            r.sides.push_back({std::move(line), c.edges, std::nullopt, false});
        }
    r.openings = openingFacts(surface, shape);
    for (const PlacedZone& z : shape.zones) {
        const ZoneKind kind = surface.zones[static_cast<std::size_t>(z.zone)].kind;
        if (kind == ZoneKind::Hidden) r.hidden.push_back(z.shape);
        if (kind == ZoneKind::Wiring) r.wiring.push_back(z.shape);
    }
    r.visibleCentreX = shape.visibleCentreX;
    r.visibleCentreY = shape.visibleCentreY;
    r.datum = context.datum;
    r.widestThroughDoor = context.widestThroughDoor;
    r.loadLength = context.loadLength;
    r.loadWidth = context.loadWidth;
    r.door = context.door;
    r.runsOnFrom = context.runsOnFrom;
    r.bendRadius = measured.leastRadius;
    r.lies = liesLevel(surface.kind);
    r.onFloor = surface.kind == SurfaceKind::Floor;
    r.stretch = measured.stretch;
    r.care = context.care;
    return r;
}

SetOutRequest requestFor(const SetOutRequest& surface, const Finish& finish, const SurfaceContext& context,
                         std::size_t layer, std::span<const Region> panelsBelow) {
    SetOutRequest r = surface;
    const Layer& l = finish.layers[layer];
    r.product = *context.products[layer];
    r.rules = l.rules;
    r.joints = l.joints;
    r.reliefs = l.reliefs;
    r.lengths = context.lengths[layer];
    r.backed = isBacked(context, layer, surface);
    const Family* family = familyOf(r.product.family);
    if (family && family->look) {
        const LayersSeen seen = layersSeen(finish, context);
        family->look({seen.products, seen.rules, layer, panelsBelow}, r);
    }
    return r;
}

std::vector<Region> panelsBelow(std::span<const LayerPlan> layers) {
    std::vector<Region> panels;
    for (const LayerPlan& l : layers) {
        const Family* family = familyOf(l.family);
        if (!family || !family->laid.wrapped || !l.setOut.laid()) continue;
        panels.clear();
        for (const Piece& piece : l.setOut.pieces) panels.push_back(piece.shape);
    }
    return panels;
}

void setOutLayer(const SetOutRequest& request, const Product& product, LayerPlan& layer, std::vector<Remark>& remarks,
                 const std::stop_token& stop) {
    const Family& family = *familyOf(product.family);
    const auto append = [&](const std::vector<Remark>& more) {
        remarks.insert(remarks.end(), more.begin(), more.end());
    };
    const std::vector<Remark> faults = checkFields(request.rules, family.setOut->ruleFields, "", {"", Part::Rule});
    append(faults);
    append(checkFields(request.rules, family.fixing, "", {"", Part::Rule}));
    if (!faults.empty()) return;
    layer.setOut = family.setOut->setOut(request, stop);
    append(layer.setOut.remarks);
    if (!layer.setOut.laid()) return;
    layer.setOut.carried = carriedPieces(layer.setOut, request.openings);
    double area = 0;
    for (const Piece& p : layer.setOut.pieces) area += areaMm2(p.shape) / 1e6;
    layer.area = {area};
    layer.mass = {area * massPerM2Of(product)};
    if (family.reckon) family.reckon(product, layer);
}

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

std::vector<OpeningFact> openingFacts(const Surface& surface, const SurfaceShape& shape) {
    std::vector<OpeningFact> facts;
    for (const PlacedOpening& o : shape.openings) {
        const Opening& opening = surface.openings[static_cast<std::size_t>(o.opening)];
        facts.push_back({.placed = o,
                         .kind = opening.kind,
                         .treatment = opening.treatment,
                         .name = opening.name,
                         .edge = opening.edge,
                         .turnIn = opening.turnIn ? std::optional(opening.turnIn->length) : std::nullopt,
                         .lid = lidOf(opening, o)});
    }
    return facts;
}

} // namespace westrum
