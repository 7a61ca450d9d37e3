#include "core/shell/body_check.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace westrum {
namespace {

enum Axis { Length, Width, Height, Axes };

/// In which direction of the van a surface's x and y run.
std::array<Axis, 2> axesOf(SurfaceKind kind) {
    switch (kind) {
    case SurfaceKind::Floor:
    case SurfaceKind::Ceiling:
    case SurfaceKind::ArchTop:
    case SurfaceKind::BenchTop:
    case SurfaceKind::Shelf:
    case SurfaceKind::Headliner: return {Length, Width};
    case SurfaceKind::Bulkhead:
    case SurfaceKind::RearDoors:
    case SurfaceKind::RearDoor:
    case SurfaceKind::ArchEnd:
    case SurfaceKind::CabReveal: return {Width, Height};
    default: return {Length, Height};
    }
}

/// A reading, and how it grows with each strain: of the van's axes first, then of each surface's x and y.
struct Strained {
    std::size_t surface;
    std::string key;
    double mm;
    std::vector<std::pair<std::size_t, double>> by;
};

/// The line along which a reading of an outline was taken; of no length where that is not known.
Point lineOf(const Measurement& m, const MeasuredOutline& outline, const std::string& key) {
    const Ring& f = outline.frame;
    const auto corner = [&](std::size_t i) { return i < f.size() ? f[i] : Point{}; };
    const auto side = [&](std::size_t i) {
        const Point a = corner(i), b = corner((i + 1) % std::max<std::size_t>(f.size(), 1));
        return Point{b.x - a.x, b.y - a.y};
    };
    if (m.form == OutlineForm::Rectangle || m.form == OutlineForm::FourSides) {
        if (key.size() != 2 || key[0] < 'A' || key[0] > 'D' || key[1] < 'A' || key[1] > 'D') return {};
        const Point a = corner(std::size_t(key[0] - 'A')), b = corner(std::size_t(key[1] - 'A'));
        return {b.x - a.x, b.y - a.y};
    }
    if (m.form == OutlineForm::Polygon && key.size() > 1) {
        const auto n = std::size_t(std::strtoul(key.c_str() + 1, nullptr, 10));
        if (key[0] == 'S') return side(n);
        if (key[0] == 'D' && n < m.polygon.diagonals.size()) {
            const auto& d = m.polygon.diagonals[n];
            const Point a = corner(std::size_t(d.from)), b = corner(std::size_t(d.to));
            return {b.x - a.x, b.y - a.y};
        }
    }
    if (m.form == OutlineForm::Stations && key.size() > 1) {
        if (key[0] == 'x') return {1, 0};
        if (key[0] == 'y' || key[0] == 'z') return {0, 1};
    }
    if (m.form == OutlineForm::TwoPoint && key == "base") return {1, 0};
    return {};
}

std::vector<Strained> strained(const std::vector<Surface>& surfaces) {
    std::vector<Strained> list;
    for (std::size_t s = 0; s < surfaces.size(); ++s) {
        if (!surfaces[s].before) continue;
        const Measurement& m = surfaces[s].measurement;
        const MeasuredOutline outline = outlineOf(m);
        if (!outline.measured()) continue;
        const auto axes = axesOf(surfaces[s].kind);
        for (const std::string& key : readingKeys(m)) {
            const MaybeReading* reading = findReading(surfaces[s], key);
            const Point line = lineOf(m, outline, key);
            const double along = std::hypot(line.x, line.y);
            if (!reading || !*reading || along <= 0) continue;
            // l' = sqrt((x(1+ex))^2 + (y(1+ey))^2), to the first order: dl = l (x^2 ex + y^2 ey) / (x^2 + y^2)
            const double l = (*reading)->length.value;
            const double x = l * line.x * line.x / (along * along), y = l * line.y * line.y / (along * along);
            list.push_back({s, key, l, {{axes[0], x}, {axes[1], y}, {Axes + 2 * s, x}, {Axes + 2 * s + 1, y}}});
        }
    }
    return list;
}

/// What is believed of all strains: their mean and covariance, made surer by each reading.
class Belief {
public:
    explicit Belief(std::size_t surfaces) : n_(Axes + 2 * surfaces), mean_(n_), covariance_(n_ * n_) {
        for (std::size_t i = 0; i < n_; ++i) {
            const double sd = i < Axes ? kBodyStrain : kSurfaceStrain;
            covariance_[i * n_ + i] = sd * sd;
        }
    }
    [[nodiscard]] double expected(const Strained& r) const {
        double sum = 0;
        for (const auto& [i, w] : r.by) sum += w * mean_[i];
        return sum;
    }
    [[nodiscard]] double shared(const Strained& a, const Strained& b) const {
        double sum = 0;
        for (const auto& [i, v] : a.by)
            for (const auto& [j, w] : b.by) sum += v * w * covariance_[i * n_ + j];
        return sum;
    }
    /// A reading was taken, and it is `by` longer than before.
    void take(const Strained& r, double by) {
        std::vector<double> gain(n_);
        for (std::size_t i = 0; i < n_; ++i)
            for (const auto& [j, w] : r.by) gain[i] += covariance_[i * n_ + j] * w;
        const double variance = shared(r, r) + errors();
        const double surprise = (by - expected(r)) / variance;
        for (std::size_t i = 0; i < n_; ++i) mean_[i] += gain[i] * surprise;
        for (std::size_t i = 0; i < n_; ++i)
            for (std::size_t j = 0; j < n_; ++j) covariance_[i * n_ + j] -= gain[i] * gain[j] / variance;
    }
    /// Both readings are in error: the one then and the one now.
    [[nodiscard]] static double errors() { return 2 * kTapeMm * kTapeMm; }

private:
    std::size_t n_;
    std::vector<double> mean_, covariance_;
};

} // namespace

std::vector<BodyCheck> proposedChecks(const std::vector<Surface>& surfaces, int most) {
    constexpr int kLeast = 3;
    constexpr double kWorthIt = 0.05;
    const std::vector<Strained> readings = strained(surfaces);
    Belief belief(surfaces.size());
    double doubt = 0;
    for (const Strained& r : readings) doubt += belief.shared(r, r);
    std::vector<BodyCheck> checks;
    std::vector<bool> taken(readings.size());
    while (static_cast<int>(checks.size()) < most) {
        double best = 0;
        std::size_t which = readings.size();
        for (std::size_t k = 0; k < readings.size(); ++k) {
            if (taken[k]) continue;
            double less = 0;
            for (const Strained& r : readings) {
                const double c = belief.shared(r, readings[k]);
                less += c * c;
            }
            less /= belief.shared(readings[k], readings[k]) + Belief::errors();
            if (less > best * (1 + 1e-9)) best = less, which = k;
        }
        if (which == readings.size()) break;
        if (static_cast<int>(checks.size()) >= kLeast && best < kWorthIt * doubt) break;
        taken[which] = true;
        const Strained& r = readings[which];
        belief.take(r, belief.expected(r));
        checks.push_back({surfaces[r.surface].id, r.key, {r.mm}, {}});
    }
    return checks;
}

std::map<std::string, BodyVerdictOf> bodyVerdicts(const std::vector<Surface>& surfaces,
                                                  const std::vector<BodyCheck>& checks) {
    const std::vector<Strained> readings = strained(surfaces);
    Belief belief(surfaces.size());
    std::map<std::string, BodyVerdictOf> verdicts;
    for (const Surface& s : surfaces)
        if (s.before) verdicts[s.id];
    std::map<std::string, double> own; ///< the largest difference that was read
    for (const BodyCheck& c : checks) {
        const auto r = std::find_if(readings.begin(), readings.end(), [&](const Strained& x) {
            return surfaces[x.surface].id == c.surface && x.key == c.key;
        });
        if (!c.taken || r == readings.end()) continue;
        const double by = c.taken->length.value - c.before.value;
        belief.take(*r, by);
        BodyVerdictOf& v = verdicts[c.surface];
        if (v.verdict == BodyVerdict::Unchecked || std::fabs(by) > std::fabs(v.by.value))
            v = {std::fabs(by) > kAgreesMm ? BodyVerdict::Differs : BodyVerdict::Agrees, c.key, {by}};
    }
    for (const Strained& r : readings) {
        BodyVerdictOf& v = verdicts[surfaces[r.surface].id];
        const double by = belief.expected(r);
        if (v.verdict == BodyVerdict::Differs || std::fabs(by) <= kAgreesMm) continue;
        if (v.verdict != BodyVerdict::Doubtful || std::fabs(by) > std::fabs(v.by.value))
            v = {BodyVerdict::Doubtful, r.key, {by}};
    }
    return verdicts;
}

} // namespace westrum
