#include "core/takeoff/fixing_places.h"

#include "core/geometry/boolean.h"
#include "core/geometry/side_offset.h"
#include "core/takeoff/needs.h"
#include "core/units/count.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

namespace westrum {
namespace {

constexpr double kTouch = 1;      // mm: what is nearer than that touches
constexpr double kSamePlace = 20; // mm: two fixings nearer than that are one
constexpr double kIntoEnd = 10;   // mm: from the end of a support to a fixing in it
constexpr double kHoleInside = 8; // mm: from a hole of the body to the panel's edge
constexpr double kStraight = 0.5; // mm: a run that leaves its chord by less is straight
constexpr double kShift = 5;      // mm: steps in which a fixing is shifted clear
constexpr double kShared = 45;    // mm: two edges of a strip that hold in one support
constexpr double kSecondRow = 40; // mm: a support no further from an edge's line has its fixings there

struct Interval {
    double from, to;
};

/// Joined where they touch, rising.
std::vector<Interval> joined(std::vector<Interval> all) {
    std::sort(all.begin(), all.end(), [](const Interval& a, const Interval& b) { return a.from < b.from; });
    std::vector<Interval> out;
    for (const Interval& i : all) {
        if (!out.empty() && i.from <= out.back().to + kTouch)
            out.back().to = std::max(out.back().to, i.to);
        else
            out.push_back(i);
    }
    return out;
}

std::vector<Interval> without(const std::vector<Interval>& from, const Interval& cut) {
    std::vector<Interval> out;
    for (const Interval& i : from) {
        if (cut.to <= i.from || cut.from >= i.to) {
            out.push_back(i);
            continue;
        }
        if (cut.from > i.from) out.push_back({i.from, cut.from});
        if (cut.to < i.to) out.push_back({cut.to, i.to});
    }
    return out;
}

Bounds boxOf(const Holder& h) {
    return h.along ? Bounds{{h.from, h.centre - h.half}, {h.to, h.centre + h.half}}
                   : Bounds{{h.centre - h.half, h.from}, {h.centre + h.half, h.to}};
}

int holderAt(Point p, std::span<const Holder> holders) {
    int best = -1;
    double off = 0;
    for (std::size_t i = 0; i < holders.size(); ++i) {
        const Bounds b = boxOf(holders[i]);
        if (p.x < b.low.x - kTouch || p.x > b.high.x + kTouch || p.y < b.low.y - kTouch || p.y > b.high.y + kTouch)
            continue;
        const double from = std::abs((holders[i].along ? p.y : p.x) - holders[i].centre);
        if (best >= 0 && from >= off) continue;
        best = static_cast<int>(i);
        off = from;
    }
    return best;
}

/// The part of a line from p to q within a box, as shares of it.
std::optional<Interval> clipped(Point p, Point q, const Bounds& box) {
    double from = 0, to = 1;
    const auto side = [&](double at, double step, double low, double high) {
        if (std::abs(step) < 1e-12) return at >= low && at <= high;
        double a = (low - at) / step, b = (high - at) / step;
        if (a > b) std::swap(a, b);
        from = std::max(from, a);
        to = std::min(to, b);
        return from <= to;
    };
    if (!side(p.x, q.x - p.x, box.low.x, box.high.x) || !side(p.y, q.y - p.y, box.low.y, box.high.y))
        return std::nullopt;
    return Interval{from, to};
}

/// A line that is walked along from its start.
class Path {
public:
    void add(Point p) {
        if (!points_.empty()) length_ += distance(points_.back(), p);
        points_.push_back(p);
        s_.push_back(length_);
    }
    [[nodiscard]] double length() const { return length_; }
    [[nodiscard]] Point at(double s) const {
        for (std::size_t i = 1; i < points_.size(); ++i) {
            if (s > s_[i] && i + 1 < points_.size()) continue;
            const double step = s_[i] - s_[i - 1];
            return points_[i - 1] + (points_[i] - points_[i - 1]) * (step > 0 ? (s - s_[i - 1]) / step : 0);
        }
        return points_.empty() ? Point{} : points_.front();
    }
    /// Where it lies over boxes.
    [[nodiscard]] std::vector<Interval> over(std::span<const Holder> holders) const {
        std::vector<Interval> all;
        for (const Holder& h : holders) {
            const Bounds box = boxOf(h);
            for (std::size_t i = 1; i < points_.size(); ++i)
                if (const auto t = clipped(points_[i - 1], points_[i], box)) {
                    const double step = s_[i] - s_[i - 1];
                    all.push_back({s_[i - 1] + t->from * step, s_[i - 1] + t->to * step});
                }
        }
        return joined(std::move(all));
    }

private:
    std::vector<Point> points_;
    std::vector<double> s_;
    double length_ = 0;
};

/// Equally spaced from one end of a stretch to the other, both ends taken.
void spread(double from, double to, double apart, std::vector<double>& places) {
    const auto spaces = std::max<std::int64_t>(1, roundUp((to - from - 0.01) / apart));
    for (std::int64_t k = 0; k <= spaces; ++k)
        places.push_back(from + (to - from) * static_cast<double>(k) / static_cast<double>(spaces));
}

/// Places along a run of an edge: those that hold, and of the equally spaced ones between them those that do not.
struct RunPlaces {
    std::vector<double> held, loose;
};
RunPlaces placesAlong(const Path& path, double spaces, bool closed, double apart, std::span<const Holder> holders) {
    RunPlaces out;
    const double length = path.length();
    std::vector<double> even;
    for (int k = 0; k <= static_cast<int>(spaces) - (closed ? 1 : 0); ++k) even.push_back(length * k / spaces);
    if (holders.empty()) {
        out.held = std::move(even);
        return out;
    }
    std::vector<Interval> covered = path.over(holders);
    if (closed && covered.size() > 1 && covered.front().from <= kTouch && covered.back().to >= length - kTouch) {
        // Round the place where it is begun.
        covered.front().from = covered.back().from - length;
        covered.pop_back();
    }
    for (const Interval& i : covered) {
        const bool start = i.from <= kTouch && !closed, end = i.to >= length - kTouch && !closed;
        if (closed && i.to - i.from >= length - kTouch) {
            out.held = even;
            return out;
        }
        if (i.to - i.from > apart || (start && end)) {
            const double in = std::min(kIntoEnd, (i.to - i.from) / 4);
            spread(start ? 0 : i.from + in, end ? length : i.to - in, apart, out.held);
        } else
            out.held.push_back(start ? 0 : end ? length : (i.from + i.to) / 2);
    }
    for (const double s : even) {
        const auto near = [&](double h) {
            double off = std::abs(h - s);
            if (closed) off = std::min(off, length - off);
            return off < length / spaces / 2 + kTouch;
        };
        if (std::none_of(out.held.begin(), out.held.end(), near)) out.loose.push_back(s);
    }
    return out;
}

/// One vertex for sides that have no direction of their own.
Ring withoutSpecks(const Ring& ring) {
    Ring clean;
    for (const Point& p : ring)
        if (clean.empty() || distance(clean.back(), p) > 0.02) clean.push_back(p);
    while (clean.size() > 1 && distance(clean.back(), clean.front()) <= 0.02) clean.pop_back();
    return clean;
}

Point unit(Point v) { return v * (1 / std::max(1e-12, distance({0, 0}, v))); }

/// How far in the fixings of a straight run lie: on a support that runs along it, if one is in reach.
double insetOf(const Ring& ring, const EdgeRun& run, double usual, std::span<const Holder> holders) {
    const std::size_t n = ring.size();
    const Point from = ring[run.from], to = ring[(run.from + run.sides) % n];
    const double length = distance(from, to);
    if (run.closed || length < kSamePlace) return usual;
    const Point u = unit(to - from);
    for (std::size_t k = 1; k < run.sides; ++k)
        if (std::abs(cross(u, ring[(run.from + k) % n] - from)) > kStraight) return usual;
    const bool along = std::abs(u.y) < 0.02;
    if (!along && std::abs(u.x) >= 0.02) return usual;
    const double edge = along ? (from.y + to.y) / 2 : (from.x + to.x) / 2;
    const double inwards = along ? u.x : -u.y; // +1: the panel lies above, or to the right
    double best = usual;
    bool found = false;
    for (const Holder& h : holders) {
        if (h.along != along) continue;
        const double a = std::min(along ? from.x : from.y, along ? to.x : to.y),
                     b = std::max(along ? from.x : from.y, along ? to.x : to.y);
        if (std::min(b, h.to) - std::max(a, h.from) < (b - a) / 2) continue;
        const double near = (h.centre - edge) * inwards - h.half, far = near + 2 * h.half;
        if (far < usual || near > kReachIn.value) continue;
        const double in = std::clamp(usual, near + std::min(kIntoEnd, h.half), far - std::min(kIntoEnd, h.half));
        const double at = std::max(usual, in);
        if (!found || at < best) best = at;
        found = true;
    }
    return best;
}

/// The line of fixings along a run that has ends: from where it crosses the line of the side before to where it crosses
/// that of the side after it, however short the sides at its ends are.
/// @param length  along it; round a curve tighter than the inset it runs back, and that counts off
std::vector<Point> walkedAlong(const Ring& ring, const Ring& line, const EdgeRun& run, double& length) {
    const std::size_t n = ring.size();
    const auto side = [&](std::size_t k) { return (run.from + k) % n; };
    const auto way = [&](std::size_t i) { return unit(ring[(i + 1) % n] - ring[i]); };
    // Where the moved line of one side crosses that of another.
    const auto crossing = [&](std::size_t i, std::size_t other) {
        const Point u = way(i), v = way(other), to = line[other] - line[i];
        const double turn = cross(u, v);
        return std::abs(turn) < 1e-9 ? line[i] : line[i] + u * (cross(to, v) / turn);
    };
    const std::size_t before = (run.from + n - 1) % n, after = side(run.sides);
    std::size_t first = 0, last = run.sides;
    Point from = line[run.from], to = line[after];
    while (first < run.sides) {
        const std::size_t i = side(first);
        if (first > 0) from = crossing(i, before);
        if (dot(line[(i + 1) % n] - from, way(i)) > 0) break;
        ++first;
    }
    while (last > first) {
        const std::size_t i = side(last - 1);
        if (last < run.sides) to = crossing(i, after);
        if (dot(to - (last - 1 == first ? from : line[i]), way(i)) > 0) break;
        --last;
    }
    length = 0;
    if (last <= first) return {};
    std::vector<Point> walked;
    for (std::size_t k = first; k < last; ++k) {
        const std::size_t i = side(k);
        const Point p = k == first ? from : line[i], q = k + 1 == last ? to : line[(i + 1) % n];
        const double on = dot(q - p, way(i));
        length += on;
        if (on > 0 || k == first) walked.push_back(p);
    }
    walked.push_back(to);
    return walked;
}

class Panel {
public:
    Panel(const Region& panel, const FixingRules& rules, std::span<const Holder> holders)
        : rules_(rules), holders_(holders) {
        for (const Ring& given : panel.rings) {
            const Ring ring = withoutSpecks(given);
            if (ring.size() < 3) continue;
            const bool outer = signedArea(ring) > 0;
            std::vector<EdgeRun> runs;
            if (outer) runs = edgeRuns(ring);
            std::vector<double> by(ring.size(), rules.inset.value);
            for (const EdgeRun& run : runs) {
                const double in = insetOf(ring, run, rules.inset.value, holders);
                for (std::size_t k = 0; k < run.sides; ++k) by[(run.from + k) % ring.size()] = in;
            }
            lines_.push_back(sidesMoved(ring, by));
            area_.rings.push_back(ring);
            if (!outer) continue;
            for (const EdgeRun& run : runs) edge(ring, lines_.back(), run);
        }
        if (!area_.rings.empty() && areaMm2(area_) > 1) middle_ = centroid(area_);
    }

    PlacedFixings run() {
        const std::size_t edges = found_.size();
        for (std::size_t i = 0; i < holders_.size(); ++i) field(holders_[i], static_cast<int>(i));
        useHoles(edges);
        keepClear();
        merge();
        return {std::move(found_), leftOut_};
    }

private:
    void edge(const Ring& ring, const Ring& line, const EdgeRun& run) {
        const std::size_t n = ring.size();
        Path path;
        double length = 0; // round a curve tighter than the inset it runs back
        std::size_t first = run.from;
        if (run.closed) {
            // Begun where it lies lowest, above the middle of its box, so that it is the same whichever way it is told.
            const Bounds b = boundsOf(line);
            const double x = (b.low.x + b.high.x) / 2;
            Point start = line.front();
            bool any = false;
            for (std::size_t i = 0; i < n; ++i) {
                const Point p = line[i], q = line[(i + 1) % n];
                if ((p.x > x) == (q.x > x)) continue;
                const Point at{x, p.y + (q.y - p.y) * (x - p.x) / (q.x - p.x)};
                if (any && at.y >= start.y) continue;
                start = at;
                first = (i + 1) % n;
                any = true;
            }
            path.add(start);
            for (std::size_t k = 0; k < n; ++k) path.add(line[(first + k) % n]);
            path.add(start);
            length = path.length();
        } else {
            const std::vector<Point> walked = walkedAlong(ring, line, run, length);
            for (const Point& p : walked) path.add(p);
            if (walked.empty()) // too short for its insets: one place in its middle
                path.add((line[first] + line[(run.from + run.sides) % n]) * 0.5);
            length = std::max(0.0, length);
        }
        const auto spaces = static_cast<double>(
            std::max<std::int64_t>(run.closed ? 3 : 1, roundUp((length - 0.01) / rules_.edge.value)));
        const RunPlaces places = placesAlong(path, spaces, run.closed, rules_.edge.value, holders_);
        for (const double s : places.held) {
            const Point p = path.at(s < 0 ? s + path.length() : s); // round the place where it is begun
            found_.push_back({p, FixingAt::Edge, holderAt(p, holders_)});
        }
        for (const double s : places.loose) found_.push_back({path.at(s), FixingAt::Edge, -1, false, false});
        // A straight run along x or y: what lies beneath it needs no second row.
        const Point a = path.at(0), b = path.at(path.length());
        if (!run.closed && distance(a, b) > path.length() - kStraight) straight_.push_back({a, b});
    }

    /// Where the middle line of a support lies within the line of fixings, and whether each end is at a hole's.
    void field(const Holder& h, int index) {
        struct Hit {
            double at;
            bool hole;
        };
        const auto crossings = [&](double at) {
            std::vector<Hit> hits;
            for (const Ring& line : lines_) {
                const bool hole = signedArea(line) < 0;
                for (std::size_t i = 0; i < line.size(); ++i) {
                    const Point p = line[i], q = line[(i + 1) % line.size()];
                    const double pa = h.along ? p.y : p.x, qa = h.along ? q.y : q.x;
                    const double pb = h.along ? p.x : p.y, qb = h.along ? q.x : q.y;
                    if ((pa > at) != (qa > at)) hits.push_back({pb + (qb - pb) * (at - pa) / (qa - pa), hole});
                }
            }
            std::sort(hits.begin(), hits.end(), [](const Hit& a, const Hit& b) { return a.at < b.at; });
            return hits;
        };
        // A hole that it only touches, on either side of it, does not part it.
        const std::vector<Hit> below = crossings(h.centre - 0.01), above = crossings(h.centre + 0.01);
        const auto all = [](const std::vector<Hit>& hits) {
            double sum = 0;
            for (std::size_t i = 1; i < hits.size(); i += 2) sum += hits[i].at - hits[i - 1].at;
            return sum;
        };
        const std::vector<Hit>& hits = all(below) >= all(above) ? below : above;
        for (std::size_t i = 1; i < hits.size(); i += 2) {
            const double from = std::max(hits[i - 1].at, h.from), to = std::min(hits[i].at, h.to);
            if (to <= from + 1e-6) continue;
            std::vector<Interval> left{{from, to}};
            for (const auto& [a, b] : straight_) {
                const bool same = h.along ? std::abs(a.y - b.y) < kStraight : std::abs(a.x - b.x) < kStraight;
                if (!same || std::abs((h.along ? a.y : a.x) - h.centre) > kSecondRow) continue;
                const double low = std::min(h.along ? a.x : a.y, h.along ? b.x : b.y),
                             high = std::max(h.along ? a.x : a.y, h.along ? b.x : b.y);
                left = without(left, {low - kTouch, high + kTouch});
            }
            for (const Interval& part : left) {
                if (part.to - part.from < kTouch) continue;
                std::vector<double> places;
                spread(part.from, part.to, rules_.field.value, places);
                // An end on the edge's line of fixings has one already; one at a hole or at the support's end has none.
                const bool keepFirst =
                               part.from > from + kTouch ? false : hits[i - 1].hole || from > hits[i - 1].at + kTouch,
                           keepLast = part.to < to - kTouch ? false : hits[i].hole || to < hits[i].at - kTouch;
                for (std::size_t k = keepFirst ? 0 : 1; k + (keepLast ? 0 : 1) < places.size(); ++k) {
                    const Point p = h.along ? Point{places[k], h.centre} : Point{h.centre, places[k]};
                    found_.push_back({p, FixingAt::Field, index});
                }
            }
        }
    }

    void useHoles(std::size_t edges) {
        const Region inner = inset(area_, kHoleInside);
        for (std::size_t i = 0; i < found_.size(); ++i) {
            FixingPlace& f = found_[i];
            if (f.holder < 0 || !f.holds) continue;
            const Holder& h = holders_[static_cast<std::size_t>(f.holder)];
            const double at = h.along ? f.at.x : f.at.y;
            const double reach = i < edges ? kReachHole.value : std::max(kReachHole.value, rules_.field.value / 2);
            std::optional<Point> best;
            for (const double hole : h.holes) {
                const Point p = h.along ? Point{hole, h.centre} : Point{h.centre, hole};
                if (std::abs(hole - at) > reach || !contains(inner, p)) continue;
                if (best && std::abs(hole - at) >= std::abs((h.along ? best->x : best->y) - at) - 1e-6) continue;
                const auto taken = [&](const FixingPlace& o) { return o.bodyHole && distance(o.at, p) < kTouch; };
                if (std::any_of(found_.begin(), found_.end(), taken)) continue;
                best = p;
            }
            if (!best) continue;
            f.at = *best;
            f.bodyHole = true;
        }
    }

    [[nodiscard]] bool keptOut(Point p) const {
        return std::any_of(rules_.keepOut.begin(), rules_.keepOut.end(),
                           [&](const Region& r) { return contains(r, p); });
    }

    /// Shifts what lies on wires or covered openings along what carries it; leaves out what cannot be shifted.
    void keepClear() {
        std::vector<FixingPlace> clear;
        for (FixingPlace& f : found_) {
            if (!keptOut(f.at)) {
                clear.push_back(f);
                continue;
            }
            if (!f.holds) continue;
            std::optional<Point> best;
            const double most = (f.where == FixingAt::Edge ? rules_.edge : rules_.field).value / 2;
            for (const Point way : waysOf(f))
                for (double off = kShift; off <= most && !best; off += kShift) {
                    const Point p = f.at + way * off, q = f.at - way * off;
                    const bool pin = fits(p, f), qin = fits(q, f);
                    if (pin && qin)
                        best = distance(p, middle_) <= distance(q, middle_) ? p : q;
                    else if (pin || qin)
                        best = pin ? p : q;
                }
            if (!best) {
                ++leftOut_;
                continue;
            }
            f.at = *best;
            f.bodyHole = false;
            clear.push_back(f);
        }
        found_ = std::move(clear);
    }
    [[nodiscard]] std::vector<Point> waysOf(const FixingPlace& f) const {
        if (f.holder < 0) return {{1, 0}, {0, 1}};
        return {holders_[static_cast<std::size_t>(f.holder)].along ? Point{1, 0} : Point{0, 1}};
    }
    [[nodiscard]] bool fits(Point p, const FixingPlace& f) const {
        if (keptOut(p) || !contains(area_, p)) return false;
        if (f.holder < 0) return true;
        const Bounds b = boxOf(holders_[static_cast<std::size_t>(f.holder)]);
        return p.x >= b.low.x && p.x <= b.high.x && p.y >= b.low.y && p.y <= b.high.y;
    }

    /// Corners belong to both their runs; two edges of a strip that hold in one support share their fixings, half-way
    /// between; one of two others that stand too near goes.
    void merge() {
        const auto pairs = [&](std::size_t i, std::size_t k) {
            const FixingPlace &a = found_[i], &b = found_[k];
            return i != k && a.holds && b.holds && !a.bodyHole && !b.bodyHole && a.where == FixingAt::Edge &&
                   b.where == FixingAt::Edge && a.holder >= 0 && a.holder == b.holder &&
                   distance(a.at, b.at) < std::min(kShared, rules_.edge.value / 2) && distance(a.at, b.at) > kTouch;
        };
        const auto partner = [&](std::size_t i) {
            std::optional<std::size_t> best;
            for (std::size_t k = 0; k < found_.size(); ++k)
                if (pairs(i, k) &&
                    (!best || distance(found_[i].at, found_[k].at) < distance(found_[i].at, found_[*best].at) - 1e-9))
                    best = k;
            return best;
        };
        std::vector<FixingPlace> shared = found_;
        for (std::size_t i = 0; i < found_.size(); ++i)
            if (const auto k = partner(i); k && partner(*k) == i) shared[i].at = (found_[i].at + found_[*k].at) * 0.5;
        found_ = std::move(shared);
        // Of those that still stand together, as where such a strip ends, the one farther from the panel's middle goes.
        std::vector<bool> goes(found_.size(), false);
        for (std::size_t i = 0; i < found_.size(); ++i)
            for (std::size_t k = 0; k < found_.size(); ++k)
                if (pairs(i, k) && distance(found_[k].at, middle_) < distance(found_[i].at, middle_) - 1e-6)
                    goes[i] = true;
        std::vector<FixingPlace> stay;
        for (std::size_t i = 0; i < found_.size(); ++i)
            if (!goes[i]) stay.push_back(found_[i]);
        found_ = std::move(stay);
        // Round a needle or a slot the line of fixings runs out of the panel.
        std::erase_if(found_, [&](const FixingPlace& f) { return !contains(area_, f.at); });
        std::vector<FixingPlace> kept;
        const auto put = [&](const FixingPlace& f) {
            const auto near = [&](const FixingPlace& k) {
                return distance(k.at, f.at) < (k.bodyHole != f.bodyHole || k.where != f.where ? kSamePlace : kTouch);
            };
            if (std::none_of(kept.begin(), kept.end(), near)) kept.push_back(f);
        };
        for (const FixingPlace& f : found_)
            if (f.holds && f.bodyHole) put(f);
        for (const FixingPlace& f : found_)
            if (f.holds && !f.bodyHole) put(f);
        for (const FixingPlace& f : found_)
            if (!f.holds) put(f);
        found_ = std::move(kept);
    }

    const FixingRules& rules_;
    std::span<const Holder> holders_;
    Region area_;
    Point middle_;
    std::vector<Ring> lines_;
    std::vector<std::pair<Point, Point>> straight_;
    std::vector<FixingPlace> found_;
    int leftOut_ = 0;
};

} // namespace

std::vector<Holder> holdersOf(const SurfaceShape& shape, const Surface* surface) {
    std::vector<Holder> all;
    for (const PlacedSupport& s : shape.supports) {
        Holder h{s.along, s.centre, 0, -1e12, 1e12, s.kind, s.support};
        for (const Region& part : partsOf(s.shape)) { // an opening in a side parts it
            const Bounds b = boundsOf(part);
            h.half = std::max(s.along ? std::max(b.high.y - s.centre, s.centre - b.low.y)
                                      : std::max(b.high.x - s.centre, s.centre - b.low.x),
                              0.5);
            h.from = s.along ? b.low.x : b.low.y;
            h.to = s.along ? b.high.x : b.high.y;
            h.holes.clear();
            if (surface && s.support < static_cast<int>(surface->supports.size()))
                h.holes = bodyHolesAlong(surface->supports[static_cast<std::size_t>(s.support)], s, h.from, h.to);
            all.push_back(h);
        }
        if (s.shape.empty()) {
            h.half = 0.5;
            all.push_back(h);
        }
    }
    return all;
}

PlacedFixings placeOnPanel(const Region& panel, const FixingRules& rules, std::span<const Holder> holders) {
    return Panel(panel, rules, holders).run();
}

} // namespace westrum
