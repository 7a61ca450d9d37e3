#include "core/setout/board_cladding.h"

#include "core/units/count.h"

#include <cmath>

namespace westrum {
namespace {

constexpr double kLevel = 1e-6;

} // namespace

std::vector<double> boundaries(double low, double high, double cover, double phase) {
    std::vector<double> lines{low};
    const double first = low + cover - [&] {
        double into = std::fmod(low - phase, cover);
        if (into < 0) into += cover;
        return into < kLevel || cover - into < kLevel ? 0.0 : into;
    }();
    for (double at = first; at < high - kLevel; at += cover) lines.push_back(at);
    lines.push_back(high);
    return lines;
}

EdgeBoards edgeBoards(double width, double cover, double phase) {
    const std::vector<double> lines = boundaries(0, width, cover, phase);
    const std::size_t rows = lines.size() - 1;
    return {static_cast<int>(rows), {lines[1] - lines[0]}, {lines[rows] - lines[rows - 1]}};
}

double centredPhase(double centre, double cover, bool onBoard) { return onBoard ? centre - cover / 2 : centre; }

Mm ripWidth(Mm visible, const Board& board, bool tongueSide) {
    if (visible.value >= board.cover.value - kLevel) return {0};
    return tongueSide ? visible : visible + board.tongue();
}

Taper taperOver(double wide, double narrow, double cover, int boards, double leastVisible) {
    Taper t;
    t.rows = static_cast<int>(roundUp(wide / cover));
    const auto shared = [&](int n, double width) { return (width - (t.rows - n) * cover) / n; };
    const auto fair = [&](int n) { return n <= t.rows && shared(n, narrow) >= leastVisible - kCountSlack; };
    t.atWide = {shared(boards, wide)};
    t.atNarrow = {shared(boards, narrow)};
    t.fair = fair(boards);
    for (int n = 1; n <= t.rows && !t.leastBoards; ++n)
        if (fair(n)) t.leastBoards = n;
    return t;
}

} // namespace westrum
