#include "core/measure/slips.h"

#include "core/measure/embeddings.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace westrum {
namespace {

std::size_t at(int i) { return static_cast<std::size_t>(i); }

/// A reading that stands out by this much, in the tape's error, is no accident; with more that could it must be more.
constexpr double kStandsOut = 3.75;
/// Below this share of its own error a reading keeps in the residuals, nothing tells of it.
constexpr double kUnchecked = 1e-4;
/// Corners of a van are square to about this much over their shorter side.
constexpr double kSquareMm = 10;

/// 99.9 % of a sum of so many squares of standard normal errors stay below this (Wilson and Hilferty).
double mostByChance(int count) {
    if (count <= 0) return 1e-6;
    const double n = count, k = 2 / (9 * n);
    return n * std::pow(1 - k + 3.09 * std::sqrt(k), 3);
}

/// How unlikely the corners make a shape: near square angles are usual, others no rarer the further off they are.
double oddness(const std::vector<Point>& c) {
    double sum = 0;
    const std::size_t n = c.size();
    for (std::size_t k = 0; k < n; ++k) {
        const Point in = c[k] - c[(k + n - 1) % n], on = c[(k + 1) % n] - c[k];
        const double a = std::hypot(in.x, in.y), b = std::hypot(on.x, on.y);
        if (a < 1e-6 || b < 1e-6) continue;
        const double along = std::abs(dot(in, on)) / (a * b), across = std::abs(cross(in, on)) / (a * b);
        const double off = std::min(along, across) * std::min(a, b) / kSquareMm;
        sum += std::log1p(off * off);
    }
    return sum;
}

struct Trial {
    Suspect suspect;
    double left{};   ///< of the others' errors, in squares of the tape's
    double weight{}; ///< log of its likelihood
};

Trial trialOf(int reading, double share, const std::vector<Point>& corners,
              const std::vector<CornerDistance>& readings) {
    std::vector<CornerDistance> others = readings;
    others.erase(others.begin() + reading);
    Trial t;
    t.suspect.reading = reading;
    t.suspect.corners = adjustCorners(corners, others);
    const CornerDistance& r = readings[at(reading)];
    t.suspect.slip = r.mm - distance(t.suspect.corners[at(r.from)], t.suspect.corners[at(r.to)]);
    t.left = sumOfSquares(t.suspect.corners, others) / (kTapeMm * kTapeMm);
    const double size = std::abs(t.suspect.slip);
    t.weight = -t.left / 2 - oddness(t.suspect.corners) - 2 * std::log(std::max(1.0, size / kUsualSlipMm));
    // The worse a reading is checked, the more slips of it would look like this.
    t.weight += std::log(std::min(kTapeMm / std::sqrt(share), kUsualSlipMm / 2));
    return t;
}

/// The line not yet taped whose length differs most between any two of the suspects.
std::optional<CornerDistance> deciding(const std::vector<Suspect>& suspects,
                                       const std::vector<CornerDistance>& readings) {
    constexpr double tells = 4 * kTapeMm;
    const int n = static_cast<int>(suspects.front().corners.size());
    std::optional<CornerDistance> best;
    double most = tells;
    for (int a = 0; a < n; ++a)
        for (int b = a + 1; b < n; ++b) {
            if (std::any_of(readings.begin(), readings.end(), [&](const CornerDistance& r) {
                    return (r.from == a && r.to == b) || (r.from == b && r.to == a);
                }))
                continue;
            if (!liesInside(suspects.front().corners, a, b)) continue;
            const auto length = [&](const Suspect& s) { return distance(s.corners[at(a)], s.corners[at(b)]); };
            double least = 1e18;
            for (std::size_t i = 0; i < suspects.size(); ++i)
                for (std::size_t k = 0; k < i; ++k)
                    least = std::min(least, std::abs(length(suspects[i]) - length(suspects[k])));
            if (least <= most) continue;
            most = least;
            best = CornerDistance{a, b, length(suspects.front())};
        }
    return best;
}

} // namespace

SlipFinding findSlip(const std::vector<Point>& corners, const std::vector<CornerDistance>& readings) {
    SlipFinding finding;
    const int spare = static_cast<int>(readings.size()) - (2 * static_cast<int>(corners.size()) - 3);
    if (spare <= 0) return finding;
    std::vector<double> shares;
    const std::vector<Point> fitted = adjustCorners(corners, readings, &shares);
    double stands = 0;
    for (std::size_t r = 0; r < readings.size(); ++r)
        if (shares[r] > kUnchecked)
            stands = std::max(
                stands, std::abs(readings[r].mm - distance(fitted[at(readings[r].from)], fitted[at(readings[r].to)])) /
                            std::sqrt(shares[r]) / kTapeMm);
    if (stands < std::sqrt(kStandsOut * kStandsOut + 2 * std::log(spare))) return finding;

    std::vector<Trial> trials;
    for (std::size_t r = 0; r < readings.size(); ++r)
        if (shares[r] > kUnchecked) trials.push_back(trialOf(static_cast<int>(r), shares[r], fitted, readings));
    const auto least =
        std::min_element(trials.begin(), trials.end(), [](const Trial& a, const Trial& b) { return a.left < b.left; });
    const double limit = std::max(least->left + kOutOfTest, spare > 1 ? 0 : 1.0);
    finding.several = least->left > std::max(mostByChance(spare - 1), kOutOfTest);
    std::erase_if(trials, [&](const Trial& t) { return t.left > limit; });
    std::stable_sort(trials.begin(), trials.end(), [](const Trial& a, const Trial& b) { return a.weight > b.weight; });
    double sum = 0;
    for (const Trial& t : trials) sum += std::exp(t.weight - trials.front().weight);
    finding.proved = trials.size() == 1 && !finding.several;
    finding.others = static_cast<int>(trials.size() - std::min(trials.size(), kMostNamed));
    for (std::size_t k = 0; k < std::min(trials.size(), kMostNamed); ++k) {
        trials[k].suspect.chance = std::exp(trials[k].weight - trials.front().weight) / sum;
        finding.suspects.push_back(std::move(trials[k].suspect));
    }
    if (finding.suspects.size() > 1) finding.decides = deciding(finding.suspects, readings);
    return finding;
}

} // namespace westrum
