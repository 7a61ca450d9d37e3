#pragma once

#include "core/catalogue/hard_finishes.h"
#include "core/setout/board_joints.h"
#include "core/setout/common_rules.h"
#include "core/setout/set_out.h"

#include <optional>
#include <stop_token>

namespace westrum {

/// Where the first row of boards lies.
enum class BoardStart {
    BoardCentred, ///< a board on the centre line
    JointCentred, ///< a joint on it
    FirstEdge,    ///< a whole board at the lower (rear) edge
    LastEdge,     ///< a whole board at the upper (front) edge
    ByHand,       ///< so much ripped off the first board
    Datum,        ///< a joint on the van's datum: lines run through from surface to surface
};

/// How the ends of boards meet a strip that stands at an angle to them.
enum class BoardReturn { Square, Mitred, Coped };

struct BoardRules {
    bool across = false;
    BoardStart start = BoardStart::BoardCentred;
    Mm startOffset; ///< ripped off the first board, by hand only
    CentreRule centre = CentreRule::Visible;
    int openingA = 0, openingB = 0; ///< of the centre line through two openings, from 1; 0: found
    Mm gap{5};
    Jointing jointing = Jointing::FullLength;
    int staggerBays = 1;
    Mm endLeast{300};
    bool tongueTowardsLast = true; ///< tongues point to the last row
    int taperBoards = 1;           ///< that share a taper, at each side that has one
    BoardReturn returns = BoardReturn::Square;
    double returnAngleRad = 0.7853981633974483; ///< between the faces of cladding and strip: 45 degrees
    bool hiddenBare = false;
    Mm bearing{50};
};

std::span<const Field> boardRuleFields();
BoardRules boardRulesOf(const FieldValues& rules);
SetOutFamily boardSetOut();

/// Edge boards of a width to be covered.
/// Source: docs/formulae.md#boards. Width 1788, cover 96: board centred 19 rows with 78 mm at both edges
struct EdgeBoards {
    int rows{};
    Mm first, last; ///< visible
    friend bool operator==(const EdgeBoards&, const EdgeBoards&) = default;
};
/// Boundaries between rows, from the first to the last edge of the bounds. @param phase  where one of them would lie
std::vector<double> boundaries(double low, double high, double cover, double phase);

/// @param width  > 0, gaps already off  @param cover  > 0
/// @param phase  coordinate of a line between two boards, with the width lying from 0 to `width`
EdgeBoards edgeBoards(double width, double cover, double phase);
/// The phase that puts a board, or a joint, on the centre.
double centredPhase(double centre, double cover, bool onBoard);

/// What is sawn: a board narrower than its cover loses its tongue on the tongue side, and keeps it on the groove side.
/// 0 if it is a whole board.
Mm ripWidth(Mm visible, const Board& board, bool tongueSide);

/// A taper shared by n boards.
struct Taper {
    int rows{};                     ///< in all
    Mm atWide, atNarrow;            ///< visible width of each of the n
    bool fair{};                    ///< the narrow end keeps `leastVisible`, and there are n rows at all
    std::optional<int> leastBoards; ///< the fewest that make it fair
};
/// @param wide, narrow  widths to be covered at the two ends, wide >= narrow > 0
Taper taperOver(double wide, double narrow, double cover, int boards, double leastVisible);

SetOut setOutBoards(const SetOutRequest& request, const Board& board, const BoardRules& rules,
                    const std::stop_token& stop = {});

} // namespace westrum
