#include "core/plan/base_checks.h"

#include "core/families/family.h"
#include "core/measure/cutouts.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kBattenFromEdge = 50, kBattensApart = 400; // mm; apart where nothing says how far

const Family* familyAt(const SurfacePlan& plan, std::size_t i) {
    return plan.layers[i].family.empty() ? nullptr : familyOf(plan.layers[i].family);
}

/// What a layer is fixed to: battens where there are such below it, else the ribs.
SupportKind fixedTo(const SurfacePlan& plan, std::size_t layer) {
    for (std::size_t k = layer; k-- > 0;)
        if (const Family* f = familyAt(plan, k); f && f->product.role == LayerRole::Batten) return SupportKind::Batten;
    return SupportKind::Rib;
}

/// Rows that run the same way as everything that they could be fixed to hang on nothing.
void checkDirection(const SurfacePlan& plan, std::size_t layer, const Product& product, std::vector<Remark>& remarks) {
    const Family* family = familyAt(plan, layer);
    const SetOut& setOut = plan.layers[layer].setOut;
    if (!family || !family->laid.acrossSupports || !setOut.laid()) return;
    if (plan.layers[layer].held.by == FixedWith::AdhesiveAlone) return;
    const SupportKind kind = fixedTo(plan, layer);
    const bool along = !setOut.rowsAcross;
    int same = 0, across = 0;
    for (const PlacedSupport& s : plan.shape.supports)
        if (s.kind == kind) ++(s.along == along ? same : across);
    if (same == 0 || across > 0) return;
    Remark remark{Severity::Error,
                  {"", Part::Support, -1, {}, static_cast<int>(layer)},
                  RemarkKind::RunsAlongSupports,
                  {{"product", product.name}, {"ribs", std::int64_t{kind == SupportKind::Rib ? 1 : 0}}},
                  {}};
    if (kind == SupportKind::Batten) remark.fix = Fix{FixKind::TurnBattens, "", 0};
    remarks.push_back(std::move(remark));
}

/// Puts a product of the catalogue into the build-up, if it has one of the kind.
std::optional<Fix> layerFix(const std::string& product, std::size_t place) {
    if (product.empty()) return std::nullopt;
    return Fix{FixKind::AddLayer, product, static_cast<double>(place)};
}

/// What may lie on what: docs/formulae.md#what-lies-on-what
void checkOrder(const Surface& surface, const SurfaceContext& context, const SurfacePlan& plan,
                std::vector<Remark>& remarks) {
    const auto role = [&](std::size_t i) {
        return familyAt(plan, i) ? std::optional(familyAt(plan, i)->product.role) : std::nullopt;
    };
    std::optional<std::size_t> insulation, face;
    bool barrier = false, waterproof = false;
    for (std::size_t i = 0; i < plan.layers.size(); ++i) {
        const Family* family = familyAt(plan, i);
        if (!family) continue;
        const Product& product = *context.products[i];
        if (*role(i) == LayerRole::Insulation) {
            insulation = i;
            barrier = family->laid.keepsDampOut && family->laid.keepsDampOut(product);
        }
        barrier = barrier || *role(i) == LayerRole::Barrier;
        if (*role(i) == LayerRole::Finish) {
            face = i;
            waterproof = waterproof || (family->laid.keepsWaterOut && family->laid.keepsWaterOut(product));
        }
        if (*role(i) == LayerRole::Coating) waterproof = waterproof || coatingOf(product).waterproof;
        // Stuck to what gives way: the layer below, whatever glue lies between.
        if (!family->laid.stuck || !family->laid.stuck(plan.layers[i].rules) || !plan.layers[i].setOut.laid()) continue;
        std::size_t below = i;
        while (below-- > 0)
            if (role(below) && *role(below) != LayerRole::Adhesive && *role(below) != LayerRole::Batten) break;
        if (below >= plan.layers.size() || *role(below) != LayerRole::Insulation) continue;
        const Family* soft = familyAt(plan, below);
        if (!soft->laid.gives || !soft->laid.gives(*context.products[below])) continue;
        remarks.push_back({Severity::Warning,
                           {"", Part::Layer, static_cast<int>(i), {}, static_cast<int>(i)},
                           RemarkKind::LooseBelow,
                           {{"product", product.name}, {"below", context.products[below]->name}},
                           layerFix(context.atHand.sheet, below + 1)});
    }
    const bool wet = surface.area.kind == AreaKind::WetCell;
    if (insulation && !barrier && wet)
        remarks.push_back({Severity::Warning,
                           {"", Part::Layer, static_cast<int>(*insulation), {}, static_cast<int>(*insulation)},
                           RemarkKind::BarrierMissing,
                           {{"product", context.products[*insulation]->name}},
                           layerFix(context.atHand.barrier, *insulation + 1)});
    if (face && !waterproof && wet) {
        // Below what is stuck, under its glue; else on the face itself.
        const Family* seen = familyAt(plan, *face);
        const bool stuck = seen->laid.stuck && seen->laid.stuck(plan.layers[*face].rules);
        std::size_t place = stuck ? *face : *face + 1;
        while (stuck && place > 0 && role(place - 1) == LayerRole::Adhesive) --place;
        remarks.push_back({Severity::Warning,
                           {"", Part::Layer, static_cast<int>(*face), {}, static_cast<int>(*face)},
                           RemarkKind::WaterproofMissing,
                           {{"product", context.products[*face]->name}, {"on", std::int64_t{stuck ? 0 : 1}}},
                           layerFix(context.atHand.waterproof, place)});
    }
}

} // namespace

std::vector<Remark> baseRemarks(const Surface& surface, const SurfaceContext& context, const SurfacePlan& plan) {
    std::vector<Remark> remarks;
    for (std::size_t i = 0; i < plan.layers.size(); ++i)
        if (!plan.layers[i].family.empty()) checkDirection(plan, i, *context.products[i], remarks);
    checkOrder(surface, context, plan, remarks);
    return remarks;
}

Surface withBattensTurned(const Surface& surface, const MeasuredOutline& measured) {
    Surface turned = surface;
    const Bounds b = boundsOf(measured.frame);
    const Support* first = nullptr;
    double apart = 0;
    for (const Support& s : surface.supports) {
        if (s.kind != SupportKind::Batten) continue;
        if (!first) first = &s;
        if (s.count > 1 && s.spacing) apart = std::max(apart, s.spacing->length.value);
    }
    if (!first) return turned;
    Support row = *first;
    row.along = !first->along;
    const SideLine lower = lowerEdge(measured);
    const double extent = row.along ? b.high.y - lower.from.y : lower.to.x - lower.from.x,
                 inside = extent - 2 * kBattenFromEdge;
    const auto exactly = [](double mm) { return Reading{{}, {std::round(mm * 10) / 10}}; };
    const auto spaces = std::max(1.0, std::ceil(inside / (apart > 0 ? apart : kBattensApart) - 1e-9));
    row.position = exactly(inside > 0 ? kBattenFromEdge : extent / 2);
    row.count = inside > 0 ? static_cast<int>(spaces) + 1 : 1;
    row.spacing = inside > 0 ? std::optional(exactly(inside / spaces)) : std::nullopt;
    std::erase_if(turned.supports, [](const Support& s) { return s.kind == SupportKind::Batten; });
    turned.supports.push_back(std::move(row));
    return turned;
}

} // namespace westrum
