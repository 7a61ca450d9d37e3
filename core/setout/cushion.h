#pragma once

#include "core/catalogue/stock.h"
#include "core/setout/set_out.h"

#include <array>

namespace westrum {

enum class CushionStyle {
    Boxed,     ///< top, bottom and borders
    KnifeEdge, ///< two panels that meet in one seam
    Wrapped,   ///< over foam on a board, stapled behind
};
enum class Piping { None, Straight, Bias };
enum class ZipSide { Up, Down, Left, Right, None }; ///< as the surface is drawn

/// How a cushion, or several beside each other, is made on a surface's outline. Rules of the family "cloth".
struct CushionRules {
    CushionStyle style = CushionStyle::Boxed;
    int cushions = 1; ///< beside each other along the surface's longer way
    Mm gap{5};        ///< short of the outline all round, and half of it between two
    Mm height{0};     ///< 0: as thick as the foam below
    Mm seam{12};
    ZipSide zip = ZipSide::Up;
    Mm zipAllowance{20};
    Mm ease{15}; ///< by which the foam is larger than the cover, in both lengths
    Mm easeHeight{0};
    Piping piping = Piping::None;
    Mm cord{5};
    Mm overlap{40}; ///< of piping where its ends meet
    Mm turnUnder{40};
    int pile = 1;             ///< as Pile in lining.h; 0: down
    bool railroad = false;    ///< the cloth is turned: its length runs along the borders
    bool matched = false;     ///< the pattern goes on from cushion to cushion
    bool plainBottom = false; ///< of lining cloth
};

std::span<const Field> cushionRuleFields();
CushionRules cushionRulesOf(const FieldValues& rules);
/// What setting out a cushion can remark on, its cloth or its foam.
inline constexpr std::array kCushionRemarks{RemarkKind::CushionHole,          RemarkKind::CushionNoHeight,
                                            RemarkKind::CushionThin,          RemarkKind::PatternMisses,
                                            RemarkKind::PieceWiderThanRoll,   RemarkKind::RollTooNarrow,
                                            RemarkKind::NothingLeftInsideGap, RemarkKind::TooManyPieces};

SetOutFamily clothSetOut();
SetOutFamily foamSetOut();

/// Width of a strip that is sewn round a cord: its circumference and two seams.
Mm pipingStripWidth(Mm cord, Mm seam);
/// Strips for piping, and the run of cloth that they take at its whole usable width.
struct PipingStrips {
    int strips{};
    Mm run;
    friend bool operator==(const PipingStrips&, const PipingStrips&) = default;
};
/// Cut square across the cloth, joined square: n strips give n U - (n-1) 2 s. @pre usable > 2 seam
PipingStrips straightStrips(Mm piping, Mm width, Mm usable, Mm seam);
/// Cut at 45 degrees from selvedge to selvedge, joined on the straight grain. Source: docs/formulae.md#upholstery.
PipingStrips biasStrips(Mm piping, Mm width, Mm usable, Mm seam);

/// Length along a flat cover that rises by half the height in the middle and comes to an edge: the arc over a chord.
Mm knifeEdgeLength(Mm length, Mm height);

} // namespace westrum
