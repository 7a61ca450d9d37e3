#include "core/plan/standing.h"

namespace westrum {

const Pose* standingPose(const SurfaceStage& stage, std::size_t place) {
    const auto& poses = stage.fold.poses;
    return place < poses.size() && poses[place] ? &*poses[place] : nullptr;
}

std::optional<Point> middleFromAbove(const Job& job, const SurfaceStage& stage, std::size_t place) {
    if (place >= stage.surfaces.size() || !stage.surfaces[place].measured.measured()) return std::nullopt;
    const SurfacePlan& s = stage.surfaces[place];
    if (const Pose* pose = standingPose(stage, place)) {
        const VanPoint at = pose->map(centroid(s.measured.outline));
        return Point{at.x, at.y};
    }
    const auto put = job.mass.places.find(s.surface);
    return put == job.mass.places.end() ? std::nullopt : std::optional(put->second);
}

} // namespace westrum
