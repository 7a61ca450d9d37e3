#include "core/plan/trim_cover.h"

#include "core/families/family.h"

#include <algorithm>
#include <optional>

namespace westrum {
namespace {

std::optional<Mm> coverOf(const TrimRun& run, const TrimLength& trim) {
    switch (trim.profile) {
    case Profile::Quadrant:
    case Profile::Skirting:
    case Profile::Cove: return trim.thickness;
    case Profile::SealantBead: return trim.width;
    case Profile::CoverStrip:
    case Profile::Threshold:
        return run.meeting == EdgeMeeting::PanelJoint ? std::nullopt : std::optional(trim.width * 0.5);
    default: return std::nullopt;
    }
}

/// What the finish keeps off a side; nothing of one that keeps none, as what is turned in.
std::optional<Mm> gapAt(const Job& job, const SurfacePlan& plan, std::size_t surface, int side) {
    const LayerPlan* face = plan.faceLayer();
    const Family* family = face ? familyOf(face->family) : nullptr;
    if (!family || !family->setOut || !findField(family->setOut->ruleFields, "gap")) return std::nullopt;
    const Edge edge = job.surfaces[surface].edge(side);
    if (edge.allowance) return edge.gapAtEnd ? std::nullopt : std::optional(edge.allowance->length);
    return Mm{valueOf(face->rules, family->setOut->ruleFields, "gap")};
}

} // namespace

std::vector<CoveredGap> coveredGaps(const Job& job, const SurfaceStage& plan) {
    std::vector<CoveredGap> found;
    for (const TrimRun& run : plan.trims.runs) {
        const Product* product = run.product.empty() ? nullptr : job.catalogue.find(run.product);
        if (!product || run.side < 0) continue;
        for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
            if (job.surfaces[i].id != run.surface) continue;
            const auto cover = coverOf(run, trimOf(*product));
            const auto gap = gapAt(job, plan.surfaces[i], i, run.side);
            const bool known = std::any_of(found.begin(), found.end(), [&](const CoveredGap& c) {
                return c.surface == i && c.side == run.side && c.product == product->name;
            });
            if (cover && gap && gap->value > 0 && !known) found.push_back({i, run.side, product->name, *gap, *cover});
        }
    }
    return found;
}

Remark beyondTrim(const Job& job, const CoveredGap& covered) {
    return {Severity::Warning,
            Place{job.surfaces[covered.surface].id, Part::Edge, covered.side},
            RemarkKind::GapBeyondTrim,
            {{"edge", edgeName(covered.side)},
             {"gap", covered.gap},
             {"product", covered.product},
             {"limit", covered.cover}},
            {}};
}

} // namespace westrum
