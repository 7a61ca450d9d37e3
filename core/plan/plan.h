#pragma once

#include "core/buildup/packing.h"
#include "core/buildup/stack_up.h"
#include "core/buying/purchase.h"
#include "core/families/layer_plan.h"
#include "core/fitting/steps.h"
#include "core/plan/job.h"
#include "core/setout/edge_trims.h"
#include "core/setout/set_out.h"
#include "core/shell/datum.h"
#include "core/shell/fold_up.h"
#include "core/shell/shape.h"
#include "core/takeoff/floor_takeoff.h"
#include "core/takeoff/layer_takeoff.h"
#include "core/takeoff/mass_balance.h"
#include "core/takeoff/needs.h"

#include <optional>
#include <span>
#include <stop_token>
#include <string>
#include <vector>

namespace westrum {

struct ProductCut;

/// What lies between the ribs of a surface and its battens.
struct PackedBattens {
    struct Crossing {
        CrossingReading where; ///< which batten and rib
        Point at;
        std::optional<Mm> height; ///< how far the rib stands into the room; nothing: not read
        Mm packer;                ///< to be packed
        PackerStack stack;        ///< what is put there
        [[nodiscard]] Mm off() const { return stack.thickness - packer; } ///< left out of the plane
        friend bool operator==(const Crossing&, const Crossing&) = default;
    };
    PackTo to = PackTo::Nothing;
    std::vector<Crossing> crossings; ///< batten by batten
    Mm sum, lost, worst;             ///< of all packers; a crossing's share of that; the largest error left
    std::vector<PackedAt> under;     ///< what the fixings of the battens pass through
    friend bool operator==(const PackedBattens&, const PackedBattens&) = default;
};

/// All that follows for one surface.
struct SurfacePlan {
    std::string surface; ///< id
    MeasuredOutline measured;
    SurfaceShape shape;             ///< empty until measured
    std::optional<DatumLine> datum; ///< the van's line, where it crosses this surface
    std::vector<LayerPlan> layers;  ///< of the option chosen, from the metal inwards
    int face = -1;                  ///< the layer that is seen
    PackedBattens packed;
    Stack stack;
    std::vector<FitStep> steps;
    std::vector<Remark> remarks; ///< all of this surface, places filled in

    /// Of the layer that is seen; an empty one if there is none.
    [[nodiscard]] const SetOut& setOut() const;
    [[nodiscard]] const LayerPlan* faceLayer() const;
    /// The first layer of a family; null if there is none.
    [[nodiscard]] const LayerPlan* layerOf(std::string_view family) const;
    friend bool operator==(const SurfacePlan&, const SurfacePlan&) = default;
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
    M2 rackArea{};       ///< of offcuts in hand that are cut into besides
    double runShort = 0; ///< chance that spoilt cuts alone use up planks or tiles bought, of any product
    friend bool operator==(const Totals&, const Totals&) = default;
};

/// What is left over one place of a floor, under the ceiling that stands there.
struct HeadAt {
    Point at;           ///< from above: x forwards and y to the left from the floor's rear right corner
    Mm head;            ///< over what is laid there, plumb
    Mm worst;           ///< less all tolerances at once
    bool enough = true; ///< for the person to stand in, with the air over a head; true where nobody is said
    friend bool operator==(const HeadAt&, const HeadAt&) = default;
};
/// Floor and ceiling over each other.
struct HeadroomPlan {
    std::string floor, ceiling; ///< ids of the thickest; empty: none measured
    HeadroomLeft left;    ///< by the bare heights that were read; without them by the van's shape, along its middle
    bool byShape = false; ///< nothing was read: the van's shape alone says so
    std::vector<HeadAt> places;               ///< all over the floor, where the van closes up to a ceiling; else none
    Mm cell;                                  ///< each stands for a square of that side
    [[nodiscard]] double shareEnough() const; ///< of the places; 1 without any
    friend bool operator==(const HeadroomPlan&, const HeadroomPlan&) = default;
};
struct DoorPlan {
    std::string door;
    std::string floor; ///< surface id; empty: there is none
    ThresholdStep step;
    friend bool operator==(const DoorPlan&, const DoorPlan&) = default;
};

/// What one surface adds to the van, and where.
struct SurfaceMass {
    std::string surface; ///< id; empty: of no surface
    Kg mass;
    Point at; ///< of its middle, from above: x forwards and y to the left from the floor's rear right corner
    bool assumed =
        false; ///< nothing says where it is: taken to be in the middle of the floor, or as far from the rear as it says
    friend bool operator==(const SurfaceMass&, const SurfaceMass&) = default;
};
/// What the finishes do to the van on its wheels.
struct BalancePlan {
    std::vector<SurfaceMass> surfaces;
    Kg added;                          ///< all of it
    Kg fitted;                         ///< of that, by the ticks in the log
    std::optional<MassBalance> wheels; ///< once wheelbase, track and rear axle are measured
    friend bool operator==(const BalancePlan&, const BalancePlan&) = default;
};

/// Upholstery that one sits on.
struct SeatPlan {
    std::string surface;     ///< id
    Mm height;               ///< over the finished floor, the foam pressed as by a person
    std::optional<Mm> above; ///< from there to the ceiling's lining; nothing without a bare height
    friend bool operator==(const SeatPlan&, const SeatPlan&) = default;
};

/// First stage: what lies on every surface, and what follows from that alone. Nothing of it hangs on what is cut or
/// bought.
struct SurfaceStage {
    std::vector<SurfacePlan> surfaces; ///< one for each surface of the job, in order
    FoldUp fold;                       ///< where they stand, and how the van closes
    Passage passage;
    std::optional<HeadroomPlan> headroom; ///< once a bare height is measured
    std::vector<DoorPlan> thresholds;     ///< of doors whose sill is measured
    std::vector<SeatPlan> seats;          ///< of upholstered surfaces that lie, whose height is measured
    std::vector<Need> needs;              ///< small things of all surfaces, each with what serves it, or without
    TrimPlan trims;                       ///< along the edges of all surfaces
    std::vector<Remark> found;            ///< remarks of the whole, and all of the surfaces'
    bool stopped = false;                 ///< cut short by the stop token: not to be shown

    [[nodiscard]] const SurfacePlan* surface(std::string_view id) const;
    /// Planks or tiles of a product that a saw goes through, over all surfaces.
    [[nodiscard]] int cutUnits(std::string_view product) const;
    friend bool operator==(const SurfaceStage&, const SurfaceStage&) = default;
};

/// Second stage, of the first and of how products are cut: what is bought, from whom, and each surface's share of it.
struct PurchaseStage {
    std::vector<Purchase> purchases; ///< one for each product and size: what several surfaces need is bought together
    std::vector<DeliveryPlan> deliveries;
    std::optional<Money> leastCost; ///< no choice of offers and deliveries costs less; nothing: there was none to make
    Totals totals;
    std::vector<Remark> bought; ///< remarks on buying
    friend bool operator==(const PurchaseStage&, const PurchaseStage&) = default;
};

/// Third stage, of both: what it does to the van on its wheels.
struct BalanceStage {
    BalancePlan balance;
    std::vector<Remark> weighed; ///< remarks on masses
    friend bool operator==(const BalanceStage&, const BalanceStage&) = default;
};

/// What must be cut, bought and done: its stages side by side, each a pure function of those before it, none changed by
/// a later one. Computed whole from the job, never edited, never saved.
struct Plan : SurfaceStage, PurchaseStage, BalanceStage {
    std::vector<Remark> remarks; ///< of all stages
    [[nodiscard]] bool hasErrors() const;
    friend bool operator==(const Plan&, const Plan&) = default;
};

/// The plan of a job as it is measured and chosen, before anything is cut to size. Pure: the same job gives the same
/// plan, bit for bit.
/// @param care  of the searches that set-outs make, this share
Plan plan(const Job& job, const std::stop_token& stop = {}, double care = 1);

/// The stages put side by side.
Plan planOf(const SurfaceStage& surfaces, const PurchaseStage& purchases, const BalanceStage& balance);

/// The plan that a first stage leads to once its products are cut so: lengths, sheets and metres of roll are bought.
Plan withCuts(const SurfaceStage& surfaces, const Job& job, std::span<const ProductCut> cuts);

} // namespace westrum
