#pragma once

#include "core/buildup/stack_up.h"
#include "core/buying/purchase.h"
#include "core/fitting/steps.h"
#include "core/plan/job.h"
#include "core/setout/edge_trims.h"
#include "core/setout/set_out.h"
#include "core/shell/datum.h"
#include "core/shell/shape.h"
#include "core/takeoff/floor_takeoff.h"
#include "core/takeoff/layer_takeoff.h"
#include "core/takeoff/mass_balance.h"
#include "core/takeoff/needs.h"

#include <functional>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

namespace westrum {

/// All that follows for one layer of a surface's build-up.
struct LayerPlan {
    std::string product; ///< id
    std::string family;
    FieldValues rules;
    SetOut setOut;     ///< of a family that is set out
    LayerTakeoff take; ///< of one that is not
    std::optional<PlankTakeoff> planks;
    std::optional<Purchase> purchase; ///< nothing for what the cutting buys
    M2 area;                          ///< that it covers
    Kg mass;                          ///< that it adds, once dry; 0 for battens
};

/// All that follows for one surface.
struct SurfacePlan {
    std::string surface; ///< id
    MeasuredOutline measured;
    SurfaceShape shape;             ///< empty until measured
    std::optional<DatumLine> datum; ///< the van's line, where it crosses this surface
    std::vector<LayerPlan> layers;  ///< of the option chosen, from the metal inwards
    int face = -1;                  ///< the layer that is seen
    Stack stack;
    std::vector<FitStep> steps;
    std::vector<Remark> remarks; ///< all of this surface, places filled in

    /// Of the layer that is seen; an empty one if there is none.
    [[nodiscard]] const SetOut& setOut() const;
    [[nodiscard]] const LayerPlan* faceLayer() const;
    /// The first layer of a family; null if there is none.
    [[nodiscard]] const LayerPlan* layerOf(std::string_view family) const;
};

/// What a supplier is paid for bringing what is bought of him.
struct DeliveryPlan {
    std::string supplier;
    Money cost;
    std::vector<PurchaseShare> shares{}; ///< by surface, as they share in what he brings
    friend bool operator==(const DeliveryPlan&, const DeliveryPlan&) = default;
};

struct Totals {
    std::optional<Money> cost; ///< nothing if a price is missing
    Kg laidMass;
    M2 laidArea;
    M2 boughtArea; ///< of finishes; what lies below them has its own line
    M2 consumedArea;
    double runShort = 0; ///< chance that the finish bought does not suffice, the worst over all products
    friend bool operator==(const Totals&, const Totals&) = default;
};

/// Floor and ceiling over each other.
struct HeadroomPlan {
    std::string floor, ceiling; ///< ids; empty: none measured
    HeadroomLeft left;
};
struct DoorPlan {
    std::string door;
    ThresholdStep step;
};

/// What one surface adds to the van, and where.
struct SurfaceMass {
    std::string surface; ///< id; empty: of no surface
    Kg mass;
    Point at; ///< of its middle, from above: x forwards and y to the left from the floor's rear right corner
    bool assumed =
        false; ///< nothing says where it is: taken to be in the middle of the floor, or as far from the rear as it says
};
/// What the finishes do to the van on its wheels.
struct BalancePlan {
    std::vector<SurfaceMass> surfaces;
    Kg added;                          ///< all of it
    Kg fitted;                         ///< of that, by the ticks in the log
    std::optional<MassBalance> wheels; ///< once wheelbase, track and rear axle are measured
};

/// Upholstery that one sits on.
struct SeatPlan {
    std::string surface;     ///< id
    Mm height;               ///< over the finished floor, the foam pressed as by a person
    std::optional<Mm> above; ///< from there to the ceiling's lining; nothing without a bare height
};

/// What must be cut, bought and done. Computed whole from the job, never edited, never saved.
struct Plan {
    std::vector<SurfacePlan> surfaces; ///< one for each surface of the job, in order
    std::vector<Purchase> purchases;   ///< one for each product: what several surfaces need is bought together
    std::vector<DeliveryPlan> deliveries;
    std::optional<Money> leastCost; ///< no choice of offers and deliveries costs less; nothing: there was none to make
    Totals totals;
    Passage passage;
    std::optional<HeadroomPlan> headroom; ///< once a bare height is measured
    std::vector<DoorPlan> thresholds;     ///< of doors whose sill is measured
    std::vector<SeatPlan> seats;          ///< of upholstered surfaces that lie, whose height is measured
    std::vector<Need> needs;              ///< small things of all surfaces, each with what serves it, or without
    BalancePlan balance;
    TrimPlan trims;              ///< along the edges of all surfaces
    std::vector<Remark> remarks; ///< of the whole job, and all of the surfaces'
    bool stopped = false;        ///< cut short by the stop token: not to be shown

    [[nodiscard]] const SurfacePlan* surface(std::string_view id) const;
    [[nodiscard]] bool hasErrors() const;
    /// Planks or tiles of a product that a saw goes through, over all surfaces.
    [[nodiscard]] int cutUnits(std::string_view product) const;
};

/// Plans the job. Pure: the same job gives the same plan, bit for bit.
/// @param care  of the searches that set-outs make, this share
Plan plan(const Job& job, const std::stop_token& stop = {}, double care = 1);

/// Plans jobs one after the other and keeps the surfaces whose inputs did not change. Not for two threads at once.
class Planner {
public:
    explicit Planner(double care = 1) : care_(care) {}
    Plan plan(const Job& job, const std::stop_token& stop = {});

    /// What a surface's plan depends on besides itself.
    struct Context {
        std::vector<std::optional<Product>> products;  ///< of its layers
        std::vector<std::vector<StockLength>> lengths; ///< in which they are sold, or stand on the rack
        std::optional<DatumLine> datum;                ///< even where it passes above or below the surface
        std::optional<Mm> widestThroughDoor;
        std::string door;
        double spread = 0, close = 0;     ///< the person's speed with adhesive
        std::optional<double> runsOnFrom; ///< tiles of a neighbour
        double care = 1;                  ///< of the searches, this share
        friend bool operator==(const Context&, const Context&) = default;
    };

private:
    struct Kept {
        Surface surface;
        Finish finish;
        Context context;
        SurfacePlan plan;
    };
    double care_;
    std::vector<Kept> kept_;
};

/// Every start line of a surface's layer, other ways to lay it, and the best of them.
struct Starts {
    std::vector<StartChoice> choices;
    std::vector<Suggestion> suggestions;
    int unitsPerPack = 1;
    double module = 0; ///< of the strip: offsets run from 0 to this
};
/// Empty when the surface is not measured, the layer has no sound product, or when stopped.
/// @param layer  place in the option chosen; -1: the layer that is seen
/// @param progress  told how far it is, from 0 to 1; may be empty
Starts startsOf(const Job& job, const std::string& surface, int layer = -1, const std::stop_token& stop = {},
                const std::function<void(double)>& progress = {});

/// What lies on a surface, as its set-outs see it; empty until it is measured.
std::vector<OpeningFact> openingFacts(const Surface& surface, const SurfaceShape& shape);

/// One layer set out as if it had these rules: for trying what a change would do. Empty as startsOf() is.
SetOut setOutAs(const Job& job, const std::string& surface, int layer, const FieldValues& rules);

} // namespace westrum
