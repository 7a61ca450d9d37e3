#pragma once

#include "core/cutting/effort.h"
#include "core/cutting/fault.h"

#include <functional>
#include <optional>
#include <vector>

namespace westrum {

/// A kind of bar to cut from: boards, trims. All lengths in mm.
struct LengthStock {
    double lengthMm{};
    double price{};             ///< of one, in any unit of money; 0 for what lies on the rack already
    std::optional<int> count{}; ///< how many there are; none: any number can be bought
    friend bool operator==(const LengthStock&, const LengthStock&) = default;
};

struct LengthPiece {
    double lengthMm{};
    int count = 1;
    friend bool operator==(const LengthPiece&, const LengthPiece&) = default;
};

/// One bar and what is cut from it, in order from its first end.
struct CutBar {
    std::size_t stock{};             ///< place in the list of stock
    std::vector<std::size_t> pieces; ///< places in the list of pieces, one for each cut
    bool locked = false;             ///< already cut: stays as it is
    friend bool operator==(const CutBar&, const CutBar&) = default;
};

struct LengthsProblem {
    double kerfMm{};
    double endTrimMm{}; ///< taken off both ends of every bar, the saw's kerf included
    std::vector<LengthStock> stock;
    std::vector<LengthPiece> pieces;
    std::vector<CutBar> locked;
    friend bool operator==(const LengthsProblem&, const LengthsProblem&) = default;
};

struct LengthsPlan {
    std::vector<CutBar> bars; ///< the locked ones first
    double cost{};
    double lowerBoundCost{};           ///< no plan can cost less
    bool proven = false;               ///< the cost is proved to be the least
    std::vector<std::size_t> unplaced; ///< pieces left over because the counted stock is used up, one for each
    friend bool operator==(const LengthsPlan&, const LengthsPlan&) = default;
};

/// All that is wrong with a problem. A piece longer than any stock is told as PieceTooLarge.
CuttingFaults faultsOf(const LengthsProblem& problem);

/// What is left of a bar after its pieces, their kerfs and the trims, in mm; never below 0.
double leftoverMm(const LengthsProblem& problem, const CutBar& bar);

/// Cuts the pieces from bars at the least cost. Pieces and kerfs between them must fit: what is left at the end of a
/// bar may be thinner than the kerf.
///
/// Method: a set of bars (so many of each kind) is tried in order of cost. Column generation (Gilmore and Gomory,
/// 1961) decides whether the pieces fit it in fractions; if not, the dual prices give an inequality that rules out
/// all such sets (Benders). A set that passes is packed by a search that fills one bar after another as full as the
/// slack of the whole allows, with the proven failures remembered. The cheapest set that is neither ruled out nor
/// packed is the lower bound. Of equally cheap plans one is chosen that keeps a long leftover in one piece.
/// An iteration is one attempt to pack a set of bars.
/// @param problem   without faults
/// @param progress  called with each better plan, from this thread
LengthsPlan cutLengths(const LengthsProblem& problem, const Effort& effort,
                       const std::function<void(const LengthsPlan&)>& progress = {});

} // namespace westrum
