#pragma once

#include "core/catalogue/hard_finishes.h"
#include "core/setout/set_out.h"

#include <array>

namespace westrum {

/// What is sawn out of a plank besides its cross cuts and its rip: notches, slants, curves.
/// @param shape  of the piece, its near left corner at 0, 0  @param length, width  as it is sawn before
Region cutAwayOf(const Region& shape, Mm length, Mm width);

/// How a board's piece lies on its board.
struct OnBoard {
    bool farKept = false;        ///< ripped at its near edge: its far one is whole
    Mm nearHidden{};             ///< of the tongue or what it goes into, before the visible width begins
    std::array<Mm, 2> visible{}; ///< width at its two ends
};
/// The same of a board, through the tongue where it reaches that far.
/// @param shape  of the piece, x along the board from its start, y from the near edge of its whole visible width
/// @param piece  its length and where its rip runs
Region cutAwayOf(const Region& shape, const Piece& piece, const Board& board, const OnBoard& lies);

} // namespace westrum
