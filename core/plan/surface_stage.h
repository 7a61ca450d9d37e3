#pragma once

#include "core/plan/layer_request.h"

#include <memory>
#include <stop_token>
#include <vector>

namespace westrum {

/// Plans surfaces one job after the other and keeps those whose inputs did not change. Not for two threads at once.
class Planner {
public:
    explicit Planner(double care = 1) : care_(care) {}
    SurfaceStage surfaces(const SurfacesInput& input, const std::stop_token& stop = {});
    /// All stages, with nothing cut.
    Plan plan(const Job& job, const std::stop_token& stop = {});

private:
    struct Kept {
        Surface surface;
        Finish finish;
        SurfaceContext context;
        SurfacePlan plan;
    };
    double care_;
    std::vector<Kept> kept_;
};

// What follows once all surfaces are laid; each adds its own part of the stage.

/// What the van as a whole says of its readings: a slip that no surface shows alone, or cannot place, is told at the
/// reading that all of them together name.
void tellClosing(const Job& job, SurfaceStage& stage);
/// Whether lines of two surfaces that share a side run through from one to the other.
void checkLines(const Job& job, SurfaceStage& stage);
/// Whether the nap of linings that share a side runs one way, as if the two were unfolded into one plane. Between what
/// lies and what stands it may turn.
void checkNaps(const Job& job, SurfaceStage& stage);
void findHeadroom(const Job& job, SurfaceStage& stage);
/// How high one sits on upholstery, and what is left above.
void findSeats(const Job& job, SurfaceStage& stage);
/// Trims along the edges of all surfaces, by what their faces are.
void findTrims(const Job& job, SurfaceStage& stage);
/// Fixings, tapes, grout and what is used up, with the product of the catalogue that serves each.
void findNeeds(const Job& job, SurfaceStage& stage);

} // namespace westrum
