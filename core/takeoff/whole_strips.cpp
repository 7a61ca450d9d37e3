#include "core/takeoff/whole_strips.h"

#include "core/cutting/lengths.h"
#include "core/units/count.h"

#include <algorithm>
#include <cmath>
#include <functional>

namespace westrum {
namespace {

constexpr double kHairMm = 1e-3;    ///< a strip may be longer than its roll by this much
constexpr std::int64_t kTries = 40; ///< sets of rolls that the search tries

/// The longest first, each onto the first roll with room.
int firstFit(std::vector<double> strips, double roll) {
    std::sort(strips.begin(), strips.end(), std::greater<>());
    std::vector<double> room;
    for (const double s : strips) {
        const auto fits = std::find_if(room.begin(), room.end(), [&](double r) { return r >= s - kHairMm; });
        if (fits == room.end())
            room.push_back(roll - s);
        else
            *fits -= s;
    }
    return static_cast<int>(room.size());
}

int searched(const std::vector<double>& strips, double roll, int most) {
    LengthsProblem problem;
    problem.stock = {{roll + kHairMm, 1, {}}};
    for (const double s : strips) problem.pieces.push_back({s, 1});
    if (!faultsOf(problem).empty()) return most;
    const LengthsPlan plan = cutLengths(problem, {.iterations = kTries});
    return plan.unplaced.empty() ? std::min(most, static_cast<int>(plan.bars.size())) : most;
}

} // namespace

StripsOnRolls rollsFor(const std::vector<Mm>& strips, Mm loose, Mm roll) {
    StripsOnRolls found;
    std::vector<double> rest;
    double sum = 0;
    for (const Mm strip : strips) {
        const int needs = std::max(1, static_cast<int>(roundUp((strip.value - kHairMm) / roll.value)));
        found.rolls += needs - 1;
        found.joints += needs - 1;
        rest.push_back(strip.value - roll.value * (needs - 1));
        sum += rest.back();
    }
    const int least = static_cast<int>(roundUp((sum - kHairMm) / roll.value));
    int shared = firstFit(rest, roll.value);
    if (shared > least) shared = searched(rest, roll.value, shared);
    found.rolls += shared;
    // What may be pieced fills the ends of the rolls first.
    const double more = loose.value - (shared * roll.value - sum);
    if (more > kHairMm) found.rolls += static_cast<int>(roundUp(more / roll.value));
    return found;
}

} // namespace westrum
