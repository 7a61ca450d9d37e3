#pragma once

#include "core/plan/plan.h"

#include <string>
#include <vector>

namespace westrum {

/// A gap that is left at a side for movement, and the trim over it.
struct CoveredGap {
    std::size_t surface{}; ///< its place in the job
    int side{};
    std::string product; ///< name of the trim
    Mm gap, cover;       ///< as wide as it is planned, and as wide as the trim reaches over
    friend bool operator==(const CoveredGap&, const CoveredGap&) = default;
};

/// All gaps of finishes that keep one and have a trim over it. What stands on the neighbour - skirting, a quadrant, a
/// cove - reaches as far over as it is thick, a bead as far as its leg, a strip or threshold that lies over an edge by
/// half its width. A gap that is closed by a tapered filler is left out. Source: docs/formulae.md#edge-trims.
std::vector<CoveredGap> coveredGaps(const Job& job, const SurfaceStage& plan);

/// GapBeyondTrim, where a gap is wider than its trim reaches; its place carries the surface.
Remark beyondTrim(const Job& job, const CoveredGap& covered);

} // namespace westrum
