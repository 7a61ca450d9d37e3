#pragma once

#include "core/catalogue/hard_finishes.h"
#include "core/setout/common_rules.h"
#include "core/setout/set_out.h"

#include <stop_token>

namespace westrum {

/// Where a grid of tiles starts in one direction.
enum class TileStart {
    TileCentred,  ///< a tile on the centre line
    JointCentred, ///< a joint on it
    LowCorner,    ///< a whole tile at the lower (rear, left) edge
    HighCorner,   ///< a whole tile at the other edge
    ByHand,       ///< so much cut off the first tile
    RunsOn,       ///< upright: a joint on the van's datum; along: the run goes on round the corner from a neighbour
};

enum class Bond { Grid, Half, Third };

struct TileRules {
    TileStart startX = TileStart::TileCentred, startY = TileStart::TileCentred;
    Mm offsetX, offsetY; ///< cut off the first tile, by hand only
    CentreRule centre = CentreRule::Visible;
    Bond bond = Bond::Grid;
    Mm joint{2};
    Mm gap{3};                 ///< movement gap round the whole
    double leastCut = 1.0 / 3; ///< of a tile: a narrower cut is a sliver
    Mm borderHeight;           ///< of a row of another height let in, 0: none
    int borderAfter = 1;       ///< rows below it
    bool reuse = true;         ///< what is left of a cut tile serves another cut
    bool hiddenBare = false;
    Mm bearing{50};
};

std::span<const Field> tileRuleFields();
TileRules tileRulesOf(const FieldValues& rules);
SetOutFamily tileSetOut();

/// Grout by the share that joints take, and by the usual formula that overstates it. kg a square metre.
/// Source: docs/formulae.md#grout. 150 x 150, joint 2, depth 6, 1.8 kg/dm3: 0.2823 exact, 0.288 by formula
double groutKgPerM2(Mm width, Mm height, Mm joint, Mm depth, double densityKgPerDm3);
double groutByFormulaKgPerM2(Mm width, Mm height, Mm joint, Mm depth, double densityKgPerDm3);

/// The grout that a set-out takes: the joints' share of the tiled area, of a mosaic those between its chips, as deep as
/// the tiles are thick, at the density of cement grout.
inline constexpr double kGroutKgPerDm3 = 1.6;
Kg groutFor(const SetOut& setOut, const Tile& tile);

SetOut setOutTiles(const SetOutRequest& request, const Tile& tile, const TileRules& rules,
                   const std::stop_token& stop = {});

} // namespace westrum
