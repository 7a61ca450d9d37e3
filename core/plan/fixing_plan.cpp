#include "core/plan/fixing_plan.h"

#include "core/geometry/boolean.h"

#include <algorithm>

namespace westrum {
namespace {

/// What the screws of a layer pass through, and the batten that they hold in.
void findGrip(const Finish& finish, const SurfaceContext& context, std::size_t at, NeedFacts& facts) {
    for (std::size_t k = at + 1; k-- > 0;) {
        const Product* p = context.products[k] ? &*context.products[k] : nullptr;
        const ProductFamily* family = p ? productFamily(p->family) : nullptr;
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

/// How deep it is behind the battens below a layer: the ribs that they lie on; nothing where they lie beside them.
Mm hollowBehind(const Surface& surface, const Finish& finish, const SurfaceContext& context, std::size_t at) {
    for (std::size_t k = at; k-- > 0;) {
        const Product* p = context.products[k] ? &*context.products[k] : nullptr;
        const ProductFamily* family = p ? productFamily(p->family) : nullptr;
        if (!family || family->role != LayerRole::Batten) continue;
        if (valueOf(finish.layers[k].rules, family->layerRules, "beside") != 0) return {};
        Mm depth;
        for (const Support& s : surface.supports)
            if (s.kind == SupportKind::Rib && s.depth && (depth.value <= 0 || s.depth->length < depth))
                depth = s.depth->length;
        return depth;
    }
    return {};
}

/// What no fixing may go into: cables, and what is routed or stays covered.
std::vector<Region> keptOutOf(const Surface& surface, const SurfaceShape& shape) {
    std::vector<Region> out;
    for (const PlacedZone& z : shape.zones)
        if (surface.zones[static_cast<std::size_t>(z.zone)].kind == ZoneKind::Wiring) out.push_back(z.shape);
    for (const PlacedOpening& o : shape.openings) {
        if (surface.openings[static_cast<std::size_t>(o.opening)].treatment == Treatment::CutBefore) continue;
        Ring ring = o.shape;
        std::reverse(ring.begin(), ring.end());
        out.push_back(outset({{ring}}, kClearOfCovered.value));
    }
    return out;
}

} // namespace

void placeFixings(const Surface& surface, const Finish& finish, const SurfaceContext& context, SurfacePlan& plan) {
    const std::vector<Region> keepOut = keptOutOf(surface, plan.shape);
    std::vector<Region> heavy;
    for (const PlacedZone& z : plan.shape.zones)
        if (surface.zones[static_cast<std::size_t>(z.zone)].kind == ZoneKind::Heavy) heavy.push_back(z.shape);
    for (std::size_t i = 0; i < plan.layers.size(); ++i) {
        LayerPlan& l = plan.layers[i];
        const Family* family = l.family.empty() ? nullptr : familyOf(l.family);
        if (!family || !family->fix || !checkFields(l.rules, family->fixing, "", {}).empty()) continue;
        NeedFacts facts{&*context.products[i], &l.rules, &l.setOut, &l.take, &plan.shape, {}, {}, {}};
        facts.held = l.held;
        facts.surface = &surface;
        facts.keepOut = keepOut;
        facts.heavy = heavy;
        facts.holders = &finish.layers[i].holders;
        facts.packers = plan.packed.under;
        findGrip(finish, context, i, facts);
        facts.hollow = hollowBehind(surface, finish, context, i);
        l.fixings = fixingsOf(facts);
        l.fixingsLeftOut = facts.leftOut;
        if (facts.leftOut > 0)
            plan.remarks.push_back({Severity::Note,
                                    {"", Part::Layer, static_cast<int>(i), {}, static_cast<int>(i)},
                                    RemarkKind::FixingsLeftOut,
                                    {{"product", context.products[i]->name}, {"count", std::int64_t{facts.leftOut}}},
                                    {}});
    }
}

} // namespace westrum
