#pragma once

#include "core/buildup/relief_cut.h"
#include "core/catalogue/family.h"
#include "core/shell/surface.h"

#include <map>
#include <string>
#include <vector>

namespace westrum {

/// One layer of a build-up: a product and how it is laid.
struct Layer {
    std::string product; ///< id in the catalogue
    FieldValues rules;   ///< of the family's set-out, or of Family::layerRules
    /// Joints of panels set by hand: coordinates along the surface, rising. Empty: where the set-out puts them.
    std::vector<double> joints;
    bool bolted = false;                  ///< the bolts of furniture or seats pass through it
    std::vector<ReliefCut> reliefs{};     ///< of a lining, by hand
    std::vector<Support> battens{};       ///< of a layer of battens: this option's own, in place of the surface's
    std::map<std::string, int> holders{}; ///< by key of a piece's name: how it is held, if another way than the rest
    friend bool operator==(const Layer&, const Layer&) = default;
};

/// In place of a trim's id, for a surface or an edge: nothing is to close it.
inline constexpr std::string_view kNoTrim = "-";

/// What a surface is made of: its layers from the metal inwards, and what closes its edges.
struct Finish {
    std::string name; ///< of the option, where several are kept side by side
    std::vector<Layer> layers;
    std::string trim; ///< id of what runs along its edges; kNoTrim: nothing; empty: chosen edge by edge, by rule
    friend bool operator==(const Finish&, const Finish&) = default;
};

/// The options kept for a surface, one of them chosen.
struct FinishOptions {
    std::vector<Finish> options{1};
    int chosen = 0; ///< always a place in `options`
    [[nodiscard]] const Finish& now() const { return options[static_cast<std::size_t>(chosen)]; }
    [[nodiscard]] Finish& now() { return options[static_cast<std::size_t>(chosen)]; }
    friend bool operator==(const FinishOptions&, const FinishOptions&) = default;
};

/// The surface as an option has it: battens of its own stand in place of those that were measured.
Surface withBattensOf(const Surface& surface, const Finish& finish);

/// Place of the layer that is seen: the last one that is a finish, whatever coats it. -1 if there is none.
int faceLayer(const Finish& finish, const Catalogue& catalogue);

/// Place of the first layer of a role; -1 if there is none.
int layerOfRole(const Finish& finish, const Catalogue& catalogue, LayerRole role);

/// Where a layer of a role belongs: before the first layer of a later role.
int placeFor(const Finish& finish, const Catalogue& catalogue, LayerRole role);

} // namespace westrum
