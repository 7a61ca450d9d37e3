#include "core/fitting/efforts.h"
#include "core/plan/standing.h"
#include "core/plan/surface_stage.h"
#include "core/plan/trim_cover.h"

#include <algorithm>
#include <map>

namespace westrum {
namespace {

std::optional<LayerRole> roleOf(const Product& product) {
    const ProductFamily* family = productFamily(product.family);
    return family ? std::optional(family->role) : std::nullopt;
}

/// Says of a fixing which screw, bolt or clip goes there.
void name(Fixing& f, const Need& n, std::span<const Product* const> goods) {
    const bool bolt = f.by == FixedWith::RivetNuts || f.by == FixedWith::ExpandingNuts;
    const bool same = f.by == FixedWith::Screws        ? n.serves == Serves::Screws
                      : bolt                           ? n.serves == Serves::MachineScrews
                      : f.by == FixedWith::PanelClips  ? n.serves == Serves::PanelClips
                      : f.by == FixedWith::HookAndLoop ? n.serves == Serves::HookAndLoop
                                                       : n.serves == Serves::Staples && f.by == FixedWith::Staples;
    if (!same || !f.place.holds || n.least != f.least || n.most != f.most || n.product.empty()) return;
    f.product = n.product;
    for (const Product* p : goods)
        if (p->id == n.product) f.length = sundryOf(*p).length;
}

/// Strips over joints are drilled where the panels below them are held, exactly: there the panels' holes are larger.
void drillStrips(SurfaceStage& plan, std::span<const Product> trims) {
    constexpr double kFromItsEdge = 3; // mm: nearer the strip would break out
    for (TrimRun& run : plan.trims.runs) {
        if (run.meeting != EdgeMeeting::PanelJoint) continue;
        const SurfacePlan* s = plan.surface(run.surface);
        const LayerPlan* face = s ? s->faceLayer() : nullptr;
        const auto product =
            std::find_if(trims.begin(), trims.end(), [&](const Product& p) { return p.id == run.product; });
        if (!face || product == trims.end()) continue;
        const double reach = trimOf(*product).width.value / 2 - kFromItsEdge;
        for (TrimPiece& piece : run.pieces) {
            if (piece.path.size() < 2) continue;
            const Point from = piece.path.front(), way = piece.path.back() - from;
            const double length = std::max(1e-9, distance(from, piece.path.back()));
            for (const Fixing& f : face->fixings) {
                if (!f.underStrip || !f.place.holds) continue;
                const double along = dot(f.place.at - from, way) / length,
                             across = cross(way, f.place.at - from) / length;
                if (along > kFromItsEdge && along < piece.length.value - kFromItsEdge && std::abs(across) <= reach)
                    piece.drills.push_back({along, across});
            }
            std::sort(piece.drills.begin(), piece.drills.end(),
                      [](const Point& a, const Point& b) { return std::pair(a.x, a.y) < std::pair(b.x, b.y); });
        }
    }
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
        s.pose = standingPose(plan, i);
        surfaces.push_back(std::move(s));
    }
    plan.trims = trimEdges(surfaces, trims, job.areaTrims);
    drillStrips(plan, trims);
    for (SurfacePlan& s : plan.surfaces) {
        // Of all edges only those are trimmed that have a trim.
        Mm trimmed;
        for (const TrimRun& run : plan.trims.runs)
            if (run.surface == s.surface && !run.product.empty()) trimmed = trimmed + run.length;
        for (FitStep& step : s.steps)
            if (step.kind == StepKind::Trims && trimmed.value > 0) {
                for (auto& [name, value] : step.facts)
                    if (name == "length") value = trimmed;
                giveEfforts({&step, 1}, {.efforts = job.work.efforts}, {});
            }
        trimSteps(plan.trims, s.surface, trims, job.work.efforts, s.steps);
    }
    for (const CoveredGap& gap : coveredGaps(job, plan))
        if (gap.gap > gap.cover) plan.trims.remarks.push_back(beyondTrim(job, gap));
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
    for (SurfacePlan& s : plan.surfaces)
        for (std::size_t k = 0; k < s.layers.size(); ++k) {
            LayerPlan& l = s.layers[k];
            const Product* product = job.catalogue.find(l.product);
            if (!product || l.family.empty() || !s.measured.measured()) continue;
            if (!checkFields(l.rules, fixingRules(l.family), "", {}).empty()) continue; // told by the surface's plan
            NeedFacts facts{product, &l.rules, &l.setOut, &l.take, &s.shape, {}, {}, {}};
            for (const Ring& ring : s.shape.net.rings) facts.edges = facts.edges + Mm{perimeter(ring)};
            facts.held = l.held;
            facts.fixings = &l.fixings;
            for (Need& n : needsOf(facts)) {
                if (const Product* serves = productFor(n, goods)) n.product = serves->id;
                for (Fixing& f : l.fixings) name(f, n, goods);
                n.surface = s.surface;
                n.layer = static_cast<int>(k);
                plan.needs.push_back(std::move(n));
            }
        }
    for (const SurfacePlan& s : plan.surfaces) {
        std::map<double, double> packers; // by thickness
        for (const auto& c : s.packed.crossings)
            for (const Mm piece : c.stack.pieces) ++packers[piece.value];
        for (const auto& [thickness, n] : packers)
            plan.needs.push_back({.serves = Serves::Packers,
                                  .amount = n,
                                  .least = Mm{thickness},
                                  .most = Mm{thickness},
                                  .surface = s.surface});
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
