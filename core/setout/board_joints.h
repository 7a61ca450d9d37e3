#pragma once

#include "core/setout/row_starts.h"
#include "core/setout/set_out.h"

#include <cstdint>
#include <span>
#include <stop_token>
#include <vector>

namespace westrum {

/// How the rows of a cladding may be joined.
enum class Jointing {
    FullLength,   ///< one piece where any stock is long enough
    Alternating,  ///< joined on supports, two or three places taking turns
    FewestBoards, ///< joined on supports so that the stock costs least
};

struct JointRules {
    Jointing jointing = Jointing::FullLength;
    std::vector<double> supports;     ///< coordinates along the rows, rising; a joint needs one
    std::vector<StockLength> lengths; ///< usable lengths, ends squared off already; not empty
    double kerf{};
    double endLeast{};   ///< of the first and last piece of a joined row
    int mostJoints = 0;  ///< in a row; 0: as many as the stock asks for, and one more
    int staggerBays = 1; ///< joints of neighbouring rows lie at least so many supports apart
    int effort = 400;    ///< branches that the exact search may take
};

struct JointPlan {
    std::vector<std::vector<double>> joints; ///< by run: coordinates along the row, rising
    std::int64_t cost = 0;                   ///< of the stock, as found
    std::int64_t leastCost = 0;              ///< no choice under the rules costs less
    int boards = 0;
    int offSupport = 0;               ///< joints for which there was no support
    int inLine = 0;                   ///< joints too near one of a neighbouring row
    std::vector<int> longerThanStock; ///< runs that no stock reaches: joined, whatever the rule
};

/// Decides where the rows of a cladding are joined. Ends are square, any offcut may serve anywhere, so pieces p come
/// out of a length L when their sum and a kerf between each two is at most L.
///
/// Every run is one piece, or joined as seldom as stock allows. Alternating: every pair and triple of joint places is
/// tried. FewestBoards: an integer programme over joint places and cutting patterns, solved by branch and bound within
/// `effort`; exact where it ends by itself (cost == leastCost), and never dearer than Alternating.
/// Deterministic; when stopped, the best so far.
JointPlan planJoints(const std::vector<Run>& runs, const JointRules& rules, const std::stop_token& stop = {});

/// The least cost of cutting these pieces as found by first fit into each length, and a bound below which none can be.
struct BarCost {
    std::int64_t cost = 0;
    std::int64_t least = 0;
    int boards = 0;
};
/// @pre the longest piece fits the longest length
BarCost barCost(std::span<const double> pieces, std::span<const StockLength> lengths, double kerf);

} // namespace westrum
