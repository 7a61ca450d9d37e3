#pragma once

#include "core/families/family.h"
#include "core/plan/inputs.h"
#include "core/plan/plan.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// What a surface's plan depends on besides the surface and its finish.
struct SurfaceContext {
    std::vector<std::optional<Product>> products;  ///< of its layers
    std::vector<std::vector<StockLength>> lengths; ///< in which they are sold, or stand on the rack
    std::optional<DatumLine> datum;                ///< even where it passes above or below the surface
    std::optional<Mm> widestThroughDoor;
    std::optional<Mm> loadLength{}, loadWidth{}; ///< where panels are to lie in the car
    std::string door;
    double spread = 0, close = 0;     ///< the person's speed with adhesive
    std::optional<double> runsOnFrom; ///< finish of a neighbour
    double care = 1;                  ///< of the searches, this share
    std::vector<Mm> packers{};        ///< thicknesses that the catalogue has
    std::map<OpeningKind, Mm> clearances{};
    bool coatsFirst = true; ///< boards and panels are coated before they are fitted
    HourRates hours{};      ///< the person's own
    OwnEfforts efforts{};
    /// First products of the catalogue that serve a purpose, by id, to be offered; empty: none.
    struct AtHand {
        std::string sheet, barrier, waterproof;
        friend bool operator==(const AtHand&, const AtHand&) = default;
    };
    AtHand atHand;
    friend bool operator==(const SurfaceContext&, const SurfaceContext&) = default;
};

/// Whether a product's fields are all there and within their ranges.
bool isSound(const Product& product);

/// The layers of a surface as rules about several of them see them: null for a product that the catalogue lacks or that
/// is not sound. They point into what was given.
struct LayersSeen {
    std::vector<const Product*> products;
    std::vector<const FieldValues*> rules;
};
LayersSeen layersSeen(const Finish& finish, const SurfaceContext& context);

/// @param floor  the first measured one, over which the datum runs
SurfaceContext contextOf(const Job& job, const Surface& surface, const MeasuredOutline& measured,
                         const FloorFrame& floor, const Passage& passage);

/// Of the surface and its measured outline, without anything that is laid.
SetOutRequest requestOf(const Surface& surface, const SurfaceShape& shape, const MeasuredOutline& measured,
                        const SurfaceContext& context);

/// What lies on a surface, as its set-outs see it; empty until it is measured.
std::vector<OpeningFact> openingFacts(const Surface& surface, const SurfaceShape& shape);

/// The request of one layer that is set out. @param surface  as requestOf() makes it  @param panelsBelow  that a lining
/// may wrap  @pre the layer's product is there and its family is set out
SetOutRequest requestFor(const SetOutRequest& surface, const Finish& finish, const SurfaceContext& context,
                         std::size_t layer, std::span<const Region> panelsBelow);

/// The panels of the last layer below whose panels may be wrapped one by one.
std::vector<Region> panelsBelow(std::span<const LayerPlan> layers);

/// Sets a layer out: its pieces, area, mass and what is bought of it by the piece.
void setOutLayer(const SetOutRequest& request, const Product& product, LayerPlan& layer, std::vector<Remark>& remarks,
                 const std::stop_token& stop);

/// The side of a surface's outline that stands at its left or right end: the one whose middle lies farthest there.
int endSide(const MeasuredOutline& measured, bool right);

/// What a neighbour at the left end has used of its last unit, where this finish is to run on from it.
/// @param plannedOf  the neighbour's plan, or null where there is none
template <class PlannedOf>
std::optional<double> runsOnFrom(const Surface& surface, const MeasuredOutline& measured, const Finish& finish,
                                 const std::vector<std::optional<Product>>& products, PlannedOf plannedOf) {
    std::optional<double> used;
    for (std::size_t i = 0; i < finish.layers.size() && measured.measured(); ++i) {
        const Family* family = products[i] ? familyOf(products[i]->family) : nullptr;
        if (!family || !family->laid.runsOn || !family->laid.runsOn(finish.layers[i].rules)) continue;
        const Edge e = surface.edge(endSide(measured, false));
        const SurfacePlan* neighbour = e.kind == EdgeKind::Meets ? plannedOf(e.surface) : nullptr;
        const LayerPlan* face = neighbour ? neighbour->faceLayer() : nullptr;
        if (face && face->product == products[i]->id && face->setOut.laid())
            used = family->laid.usedOfLast(*products[i], face->setOut);
    }
    return used;
}

} // namespace westrum
