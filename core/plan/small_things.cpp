#include "core/plan/surface_stage.h"

#include <algorithm>

namespace westrum {
namespace {

std::optional<LayerRole> roleOf(const Product& product) {
    const ProductFamily* family = productFamily(product.family);
    return family ? std::optional(family->role) : std::nullopt;
}

/// What the screws of a layer pass through, and the batten that they hold in.
void findGrip(const Finish& finish, const Catalogue& catalogue, std::size_t at, NeedFacts& facts) {
    for (std::size_t k = at + 1; k-- > 0;) {
        const Product* p = catalogue.find(finish.layers[k].product);
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

constexpr Mm kShortOfSkin{4}, kIntoHollow{8}; // docs/formulae.md#needs

/// How deep it is behind the battens below a layer: the ribs that they lie on; nothing where they lie beside them.
Mm hollowBehind(const Surface& surface, const Finish& finish, const Catalogue& catalogue, std::size_t at) {
    for (std::size_t k = at; k-- > 0;) {
        const Product* p = catalogue.find(finish.layers[k].product);
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

} // namespace

void findTrims(const Job& job, SurfaceStage& plan) {
    std::vector<Product> trims;
    for (const Product& p : job.catalogue.products)
        if (isSound(p) && roleOf(p) == LayerRole::Trim) trims.push_back(p);
    std::vector<TrimSurface> surfaces;
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        const SurfacePlan& p = plan.surfaces[i];
        TrimSurface s{&job.surfaces[i], &p.measured, &p.shape};
        if (const LayerPlan* face = p.faceLayer(); face && !face->family.empty()) {
            s.hardness = stockFormOf(face->family) == StockForm::Roll ? Hardness::Soft : Hardness::Hard;
            s.face = &face->setOut;
            const Family* family = familyOf(face->family);
            s.coverJoints = family && family->laid.jointsCovered && family->laid.jointsCovered(face->rules);
        }
        s.trim = job.finish(s.surface->id).trim;
        surfaces.push_back(std::move(s));
    }
    plan.trims = trimEdges(surfaces, trims);
    for (SurfacePlan& s : plan.surfaces) {
        // Of all edges only those are trimmed that have a trim.
        Mm trimmed;
        for (const TrimRun& run : plan.trims.runs)
            if (run.surface == s.surface && !run.product.empty()) trimmed = trimmed + run.length;
        for (FitStep& step : s.steps)
            if (step.kind == StepKind::Trims && trimmed.value > 0)
                for (auto& [name, value] : step.facts)
                    if (name == "length") value = trimmed;
        trimSteps(plan.trims, s.surface, trims, s.steps);
    }
    for (const Remark& r : plan.trims.remarks) {
        for (SurfacePlan& s : plan.surfaces)
            if (s.surface == r.place.surface) s.remarks.push_back(r);
        plan.found.push_back(r);
    }
}

void findNeeds(const Job& job, SurfaceStage& plan) {
    std::vector<const Product*> goods;
    std::vector<Product> trims;
    for (const Product& p : job.catalogue.products) {
        if (!isSound(p)) continue;
        if (roleOf(p) == LayerRole::Sundry) goods.push_back(&p);
        if (roleOf(p) == LayerRole::Trim) trims.push_back(p);
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
            facts.held = l.held;
            findGrip(finish, job.catalogue, k, facts);
            const Mm hollow = hollowBehind(*job.surface(s.surface), finish, job.catalogue, k);
            for (Need& n : needsOf(facts)) {
                // A strip too thin to hold a screw and hide its point may stand in front of a hollow that hides it.
                if (facts.into && n.least && n.most && *n.most < *n.least)
                    n.most = std::max(
                        *n.most, std::min(facts.through + *facts.into + hollow - kShortOfSkin, *n.least + kIntoHollow));
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
        plan.found.push_back({Severity::Note,
                              {"", Part::Product},
                              RemarkKind::NeedUnserved,
                              {{"serves", static_cast<std::int64_t>(n.serves)},
                               {"amount", n.amount},
                               {"least", n.least.value_or(Mm{0})},
                               {"most", n.most.value_or(Mm{0})}},
                              {}});
}

} // namespace westrum
