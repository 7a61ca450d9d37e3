#pragma once

#include "core/buying/purchase.h"
#include "core/fitting/steps.h"
#include "core/plan/job.h"
#include "core/setout/set_out.h"
#include "core/shell/datum.h"
#include "core/shell/shape.h"
#include "core/takeoff/floor_takeoff.h"

#include <optional>
#include <stop_token>
#include <string>
#include <vector>

namespace westrum {

/// All that follows for one surface.
struct SurfacePlan {
    std::string surface; ///< id
    MeasuredOutline measured;
    SurfaceShape shape;             ///< empty until measured
    std::optional<DatumLine> datum; ///< the van's line, where it crosses this surface
    SetOut setOut;
    std::optional<PlankTakeoff> planks;
    std::optional<UnderlayTakeoff> underlay;
    std::vector<Purchase> purchases;
    std::vector<FitStep> steps;
    Mm thickness;                ///< of everything laid
    std::vector<Remark> remarks; ///< all of this surface, places filled in
};

struct Totals {
    std::optional<Money> cost; ///< nothing if a price is missing
    Kg laidMass;
    M2 laidArea;
    M2 boughtArea; ///< of finishes; underlay has its own line
    M2 consumedArea;
    double runShort = 0; ///< chance that the finish bought does not suffice, the worst over all products
    friend bool operator==(const Totals&, const Totals&) = default;
};

/// What must be cut, bought and done. Computed whole from the job, never edited, never saved.
struct Plan {
    std::vector<SurfacePlan> surfaces; ///< one for each surface of the job, in order
    std::vector<Purchase> purchases;   ///< one for each product: what several surfaces need is bought together
    Totals totals;
    Passage passage;
    std::vector<Remark> remarks; ///< of the whole job, and all of the surfaces'
    bool stopped = false;        ///< cut short by the stop token: not to be shown

    [[nodiscard]] const SurfacePlan* surface(std::string_view id) const;
    [[nodiscard]] bool hasErrors() const;
    /// Planks of a product that a saw goes through, over all surfaces.
    [[nodiscard]] int cutPlanks(std::string_view product) const;
};

/// Plans the job. Pure: the same job gives the same plan, bit for bit.
Plan plan(const Job& job, const std::stop_token& stop = {});

/// Plans jobs one after the other and keeps the surfaces whose inputs did not change. Not for two threads at once.
class Planner {
public:
    Plan plan(const Job& job, const std::stop_token& stop = {});

private:
    struct Kept {
        Surface surface;
        Finish finish;
        std::optional<Product> product, underlay;
        SurfacePlan plan;
    };
    std::vector<Kept> kept_;
};

/// Every start line of a surface and the best of them.
struct Starts {
    std::vector<StartChoice> choices;
    std::vector<Suggestion> suggestions;
    int unitsPerPack = 1;
};
/// Empty when the surface is not measured, has no sound product, or when stopped.
Starts startsOf(const Job& job, const std::string& surface, const std::stop_token& stop = {});

} // namespace westrum
