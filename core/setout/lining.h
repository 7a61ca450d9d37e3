#pragma once

#include "core/catalogue/stock.h"
#include "core/setout/set_out.h"

namespace westrum {

/// Which way the nap lies, as the surface is drawn. `Usual`: down what stands, to the left (the rear) on what lies.
enum class Pile { Usual, Down, Up, Left, Right };
/// What a lining is fixed to.
enum class LinedFace {
    Surface, ///< the metal, a subfloor, a wet-cell wall
    Panels,  ///< each panel of the layer below by itself, wrapped
    Glass,   ///< the windows of the surface
};

/// How a lining off the roll lies.
struct LiningRules {
    Pile pile = Pile::Usual;
    LinedFace face = LinedFace::Surface;
    Mm allowance{45};     ///< at every edge, to be trimmed
    Mm turnIn{30};        ///< at door reveals without one of their own
    Mm turnUnder{40};     ///< round the back of a panel
    Mm tuck{15};          ///< under a trim
    Mm upstand{0};        ///< up an upright neighbour
    Mm corner{20};        ///< to which corners are rounded
    double undersize = 0; ///< cut so much smaller, and stretched
    Mm seamLap{30};       ///< beyond a seam, each piece
    bool lapped = false;  ///< the upper piece over the lower, which reaches under it; else both are cut through at once
    bool cornerPieces = false; ///< inside corners of an up-stand are closed by a piece too, not mitred alone
    int extraSeams = 0;        ///< besides those that the roll's width asks for
    Mm clips{200};             ///< apart, round a wrapped panel
    bool hiddenBare = false;
    Mm bearing{50};
};

std::span<const Field> liningRuleFields();
LiningRules liningRulesOf(const FieldValues& rules);
SetOutFamily liningSetOut();

/// Of a surface bent both ways: how far a cut reaches across it counts as that much of a seam.
struct ReliefShare {
    double depth = 0;  ///< mm within what is covered
    double extent = 0; ///< mm of what is covered along the cut's line, from edge to edge
    [[nodiscard]] double asSeam() const { return extent > 0 ? depth / extent : 0; }
};
ReliefShare shareOf(const ReliefCut& cut, const Region& covered);

/// The pile's direction on a surface that lies or stands.
Point pileOf(Pile pile, bool lies);

/// What a doubly curved surface asks of one of its strips: strain goes with the product of a patch's two lengths, so a
/// strip has the share of it that its width has of the whole; relief cuts into it count as parts of a seam that halves
/// it. Source: docs/formulae.md#linings.
/// @param stretch  of the whole as a share  @param part  of the whole's width  @param reliefs  in seams
double stretchOfStrip(double stretch, double part, double reliefs);

} // namespace westrum
