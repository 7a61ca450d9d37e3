#include "core/measure/embeddings.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

std::size_t at(int i) { return static_cast<std::size_t>(i); }

/// Tapes that fall short of each other by less than this are taken to lie in one line.
constexpr double kFlatMm = 10;
/// A further reading costs its misfit, but no more than this: one slip must not bar the true shape.
constexpr double kMostMisfitMm = 60;
constexpr std::size_t kMostAtOnce = 400;
/// A line that leaves the outline by no more than this still runs along its edge.
constexpr double kEdgeMm = 5;

double segmentDistance(Point p, Point a, Point b) {
    const Point ab = b - a;
    const double t = std::clamp(dot(p - a, ab) / std::max(1e-12, dot(ab, ab)), 0.0, 1.0);
    return distance(p, a + ab * t);
}

/// Whether two sides properly cross; ends that touch do not.
bool cross4(Point a, Point b, Point c, Point d) {
    const double s = cross(b - a, c - a), t = cross(b - a, d - a), u = cross(d - c, a - c), v = cross(d - c, b - c);
    return ((s > 1e-6 && t < -1e-6) || (s < -1e-6 && t > 1e-6)) && ((u > 1e-6 && v < -1e-6) || (u < -1e-6 && v > 1e-6));
}

struct Partial {
    std::vector<Point> corners;
    std::vector<bool> stands;
    double cost = 0;
};

/// A corner that two readings reach from corners that stand.
struct Reach {
    int corner = -1, a = -1, b = -1;
    double fromA{}, fromB{};
};

class Search {
public:
    Search(int corners, const std::vector<CornerDistance>& readings, const std::vector<CornerTurn>& turns)
        : n_(corners), readings_(readings), turns_(turns), reach_(at(corners * corners), -1), read_(at(corners)) {
        for (std::size_t r = 0; r < readings.size(); ++r) {
            const auto [from, to, mm] = readings[r];
            if (reach_[at(from * n_ + to)] >= 0) continue; // read twice: the fit averages them
            reach_[at(from * n_ + to)] = reach_[at(to * n_ + from)] = static_cast<int>(r);
            read_[at(from)].push_back(to);
            read_[at(to)].push_back(from);
        }
    }

    Embeddings run() {
        if (between(0, 1) < 0) return {NetworkState::Undetermined, 1, {}};
        // Diagonals run inside an outline as a rule: that settles most choices at once.
        Embeddings result = search(true);
        if (result.state == NetworkState::Solved && result.found.empty()) result = search(false);
        // All choices cross or turn the wrong way: the outline is told as crossed by whoever draws it.
        std::stable_partition(result.found.begin(), result.found.end(),
                              [](const Embedding& e) { return e.diagonalsInside; });
        return result;
    }

private:
    [[nodiscard]] int between(int a, int b) const { return reach_[at(a * n_ + b)]; }
    [[nodiscard]] double mm(int a, int b) const { return readings_[at(between(a, b))].mm; }
    [[nodiscard]] int next(int k) const { return (k + 1) % n_; }
    [[nodiscard]] int before(int k) const { return (k + n_ - 1) % n_; }

    Embeddings search(bool inside) {
        inside_ = inside;
        Partial start{std::vector<Point>(at(n_)), std::vector<bool>(at(n_), false), 0};
        start.corners[1] = {mm(0, 1), 0};
        start.stands[0] = start.stands[1] = true;
        std::vector<Partial> beam{start};
        for (int placed = 2; placed < n_; ++placed) {
            std::vector<Partial> next;
            Embeddings stuck;
            for (const Partial& p : beam) grow(p, next, stuck);
            if (next.empty()) {
                if (stuck.state == NetworkState::Solved) return {}; // every choice crosses itself
                return stuck;
            }
            std::stable_sort(next.begin(), next.end(),
                             [](const Partial& a, const Partial& b) { return a.cost < b.cost; });
            if (next.size() > kMostAtOnce) next.resize(kMostAtOnce);
            beam = std::move(next);
        }
        Embeddings result;
        for (Partial& p : beam) {
            if (crossesItself(p.corners) || signedArea(p.corners) <= 0) continue;
            Embedding e{std::move(p.corners), true};
            for (const CornerDistance& r : readings_)
                if (next(r.from) != r.to && next(r.to) != r.from)
                    e.diagonalsInside = e.diagonalsInside && liesInside(e.corners, r.from, r.to);
            if (e.diagonalsInside || !inside_) result.found.push_back(std::move(e));
        }
        return result;
    }

    /// The corner whose two tapes meet most squarely carries the least error on. Those whose tapes fall short of each
    /// other are passed over while another can be placed.
    std::optional<Reach> best(const Partial& p, Embeddings& stuck) const {
        Reach best;
        double bestMeeting = -1;
        for (int k = 0; k < n_; ++k) {
            if (p.stands[at(k)]) continue;
            for (const int a : read_[at(k)])
                for (const int b : read_[at(k)]) {
                    if (a >= b || !p.stands[at(a)] || !p.stands[at(b)]) continue;
                    const double fromA = mm(a, k), fromB = mm(b, k), d = distance(p.corners[at(a)], p.corners[at(b)]);
                    const double gap = std::max({d - fromA - fromB, fromA - d - fromB, fromB - d - fromA});
                    if (gap > kFlatMm || d < 1e-6) {
                        if (stuck.state != NetworkState::Solved) continue;
                        stuck.state = NetworkState::CannotClose;
                        stuck.at = d > fromA + fromB && between(a, b) >= 0 ? between(a, b)
                                   : fromA > fromB                         ? between(a, k)
                                                                           : between(b, k);
                        continue;
                    }
                    const double cosine = (fromA * fromA + fromB * fromB - d * d) / (2 * fromA * fromB);
                    const double meeting = 1 - std::min(1.0, std::abs(cosine));
                    if (meeting > bestMeeting) {
                        best = {k, a, b, fromA, fromB};
                        bestMeeting = meeting;
                    }
                }
        }
        if (best.corner >= 0) return best;
        if (stuck.state == NetworkState::Solved) {
            stuck.state = NetworkState::Undetermined;
            stuck.at = static_cast<int>(std::find(p.stands.begin(), p.stands.end(), false) - p.stands.begin());
        }
        return std::nullopt;
    }

    void grow(const Partial& p, std::vector<Partial>& into, Embeddings& stuck) const {
        const auto reach = best(p, stuck);
        if (!reach) return;
        const Point a = p.corners[at(reach->a)], b = p.corners[at(reach->b)];
        const double d = distance(a, b);
        const double along = (reach->fromA * reach->fromA - reach->fromB * reach->fromB + d * d) / (2 * d);
        const double height = std::sqrt(std::max(0.0, reach->fromA * reach->fromA - along * along));
        const Point u = (b - a) * (1 / d), v{-u.y, u.x};
        for (const double side : {1.0, -1.0}) {
            if (side < 0 && height < 1e-9) continue;
            const int k = reach->corner;
            Partial q = p;
            q.corners[at(k)] = a + u * along + v * (side * height);
            q.stands[at(k)] = true;
            if (!allowed(q, k)) continue;
            for (const int other : read_[at(k)])
                if (q.stands[at(other)] && other != reach->a && other != reach->b) {
                    const double off = std::abs(mm(k, other) - distance(q.corners[at(k)], q.corners[at(other)]));
                    q.cost += std::min(off, kMostMisfitMm) * std::min(off, kMostMisfitMm);
                }
            into.push_back(std::move(q));
        }
    }

    /// Whether the corner placed last breaks nothing that can be told already.
    [[nodiscard]] bool allowed(const Partial& p, int k) const {
        for (const int end : {before(k), next(k)}) {
            if (!p.stands[at(end)]) continue;
            for (int other = 0; other < n_; ++other) {
                const int then = next(other);
                if (other == k || then == k || other == end || then == end) continue;
                if (!p.stands[at(other)] || !p.stands[at(then)]) continue;
                if (cross4(p.corners[at(k)], p.corners[at(end)], p.corners[at(other)], p.corners[at(then)]))
                    return false;
            }
        }
        for (const int turning : {before(k), k, next(k)}) {
            const CornerTurn wanted = at(turning) < turns_.size() ? turns_[at(turning)] : CornerTurn::Unsaid;
            const int from = before(turning), to = next(turning);
            if (wanted == CornerTurn::Unsaid || !p.stands[at(from)] || !p.stands[at(turning)] || !p.stands[at(to)])
                continue;
            const double turn =
                cross(p.corners[at(turning)] - p.corners[at(from)], p.corners[at(to)] - p.corners[at(turning)]);
            if ((turn > 0) != (wanted == CornerTurn::Outwards)) return false;
        }
        // Three corners with readings between them all, none outside: they go round as their numbers do.
        if (inside_)
            for (const int a : read_[at(k)])
                for (const int b : read_[at(k)]) {
                    if (a >= b || !p.stands[at(a)] || !p.stands[at(b)] || between(a, b) < 0) continue;
                    const Point pa = p.corners[at(a)], pb = p.corners[at(b)], pk = p.corners[at(k)];
                    const double way = cross(pb - pa, pk - pa) * (k > a && k < b ? -1 : 1);
                    if (way < -kEdgeMm * distance(pa, pb)) return false;
                }
        return true;
    }

    int n_;
    const std::vector<CornerDistance>& readings_;
    const std::vector<CornerTurn>& turns_;
    std::vector<int> reach_;             ///< reading between two corners; -1: none
    std::vector<std::vector<int>> read_; ///< corners to which there is one, by corner
    bool inside_ = true;
};

} // namespace

bool liesInside(const std::vector<Point>& corners, int from, int to) {
    const Point a = corners[at(from)], b = corners[at(to)];
    constexpr int samples = 32;
    for (int i = 1; i < samples; ++i) {
        const Point p = a + (b - a) * (static_cast<double>(i) / samples);
        if (contains({{corners}}, p)) continue;
        double nearest = 1e18;
        for (std::size_t k = 0; k < corners.size(); ++k)
            nearest = std::min(nearest, segmentDistance(p, corners[k], corners[(k + 1) % corners.size()]));
        if (nearest > kEdgeMm) return false;
    }
    return true;
}

Embeddings embeddingsOf(int corners, const std::vector<CornerDistance>& readings,
                        const std::vector<CornerTurn>& turns) {
    return Search(corners, readings, turns).run();
}

} // namespace westrum
