#include "core/shell/unfold.h"

#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>
#include <deque>
#include <map>
#include <numbers>

namespace westrum {
namespace {

constexpr double kGapMm = 40; ///< between neighbours on the map

Ring mapped(const Unfolded& place, const Ring& ring) {
    Ring out;
    for (Point p : ring) out.push_back(place.map(p));
    return out;
}

Bounds joined(const Bounds& a, const Bounds& b) {
    return {{std::min(a.low.x, b.low.x), std::min(a.low.y, b.low.y)},
            {std::max(a.high.x, b.high.x), std::max(a.high.y, b.high.y)}};
}

bool apart(const Bounds& a, const Bounds& b) {
    return a.high.x <= b.low.x || b.high.x <= a.low.x || a.high.y <= b.low.y || b.high.y <= a.low.y;
}

/// Beyond the side from `from` to `to` on the map. Both run counter-clockwise, so along the shared side they run
/// against each other.
Unfolded sideToSide(const Ring& ours, Point from, Point to) {
    Unfolded place;
    const Point chord = ours.back() - ours.front(), u = (to - from) * (1 / distance(from, to)), outward{u.y, -u.x};
    place.angleRad = std::atan2(from.y - to.y, from.x - to.x) - std::atan2(chord.y, chord.x);
    const Point middle = (from + to) * 0.5 + outward * kGapMm;
    place.shift = middle - place.map((ours.front() + ours.back()) * 0.5);
    return place;
}

/// Turned about their side as it stands in the van, until it lies in the plane of what it hangs on.
Unfolded asTheyStand(const Ring& theirs, const Pose& on, const Ring& ours, const Pose& own, Point from, Point to) {
    const VanPoint a = on.map(theirs.front()), hinge = unit(on.map(theirs.back()) - a);
    const Point middle = (ours.front() + ours.back()) * 0.5;
    const VanPoint at = own.map(middle);
    // Into the flap, square to the hinge: to the left of its own side, which runs against the hinge.
    const VanPoint into = unit(cross(hinge, own.facing(middle)));
    const Point u = (to - from) * (1 / distance(from, to)), outward{u.y, -u.x};
    Unfolded place;
    place.angleRad = std::atan2(u.y, u.x) + std::atan2(-dot(own.perX, into), dot(own.perX, hinge));
    place.shift = from + u * dot(at - a, hinge) + outward * (kGapMm + dot(at - a, into)) - place.map(middle);
    return place;
}

/// Whether what would hang on beside the floor is hung there, or laid with the rest.
enum class Ends { Hang, Lie };

class Unfolder {
public:
    Unfolder(const std::vector<Flap>& flaps, Ends ends) : flaps_(flaps), ends_(ends), places_(flaps.size()) {
        for (std::size_t i = 0; i < flaps.size(); ++i) {
            places_[i].id = flaps[i].id;
            byId_[flaps[i].id] = i;
        }
        done_.assign(flaps.size(), false);
        std::size_t root = 0;
        while (root < flaps_.size() && !flaps_[root].isRoot) ++root;
        if (root == flaps_.size()) root = 0;
        settle(root, {.id = flaps_[root].id, .attached = true});
        rootBounds_ = rings_.front().second;
        std::deque<std::size_t> open{root};
        while (!open.empty()) {
            const std::size_t at = open.front();
            open.pop_front();
            const Flap& flap = flaps_[at];
            for (std::size_t side = 0; side < flap.edges.size() && side < flap.sides.size(); ++side) {
                const Edge& edge = flap.edges[side];
                if (edge.kind != EdgeKind::Meets) continue;
                const auto found = byId_.find(edge.surface);
                if (found == byId_.end() || done_[found->second]) continue;
                if (hang(at, side, found->second, edge.side)) open.push_back(found->second);
            }
        }
        hung_ = rings_.front().second;
        for (const auto& [ring, b] : rings_) hung_ = joined(hung_, b);
    }

    [[nodiscard]] const Bounds& hung() const { return hung_; }

    /// The places with the rest in rows of at most `width`, to the right of what hangs together or below it.
    [[nodiscard]] std::vector<Unfolded> withRest(double width, bool beside) const {
        std::vector<Unfolded> places = places_;
        std::vector<std::size_t> rest;
        for (std::size_t i = 0; i < flaps_.size(); ++i)
            if (!done_[i]) rest.push_back(i);
        // Highest first, so that rows are even.
        std::stable_sort(rest.begin(), rest.end(), [&](std::size_t a, std::size_t b) {
            return boundsOf(flaps_[a].frame).height() > boundsOf(flaps_[b].frame).height();
        });
        const double gap = 3 * kGapMm;
        const double left = beside ? hung_.high.x + 2 * gap : hung_.low.x;
        double x = left, top = beside ? hung_.high.y : hung_.low.y - 2 * gap, deepest = 0;
        for (const std::size_t i : rest) {
            const Bounds b = boundsOf(flaps_[i].frame);
            if (x > left && x + b.width() > left + width) {
                x = left;
                top -= deepest + gap;
                deepest = 0;
            }
            places[i] = {.id = flaps_[i].id, .shift = {x - b.low.x, top - b.height() - b.low.y}};
            x += b.width() + gap;
            deepest = std::max(deepest, b.height());
        }
        return places;
    }

private:
    void settle(std::size_t i, Unfolded place) {
        places_[i] = std::move(place);
        done_[i] = true;
        Ring ring = mapped(places_[i], flaps_[i].frame);
        const Bounds b = boundsOf(ring);
        rings_.emplace_back(std::move(ring), b);
    }

    bool hang(std::size_t on, std::size_t side, std::size_t flap, int ownSide) {
        const Flap& f = flaps_[flap];
        if (ownSide < 0 || static_cast<std::size_t>(ownSide) >= f.sides.size()) return false;
        const Ring& theirs = flaps_[on].sides[side];
        const Ring& ours = f.sides[static_cast<std::size_t>(ownSide)];
        const Point from = places_[on].map(theirs.front()), to = places_[on].map(theirs.back());
        const double length = distance(from, to);
        if (length < 1e-6 || distance(ours.front(), ours.back()) < 1e-6) return false;
        Unfolded place = flaps_[on].pose && f.pose ? asTheyStand(theirs, *flaps_[on].pose, ours, *f.pose, from, to)
                                                   : sideToSide(ours, from, to);
        place.id = f.id;
        place.attached = true;
        Ring ring = mapped(place, f.frame);
        const Bounds b = boundsOf(ring);
        if (ends_ == Ends::Lie) {
            const double slack = rootBounds_.width() * 0.1;
            if (b.low.x < rootBounds_.low.x - slack || b.high.x > rootBounds_.high.x + slack) return false;
        }
        const double area = std::abs(signedArea(ring));
        for (const auto& [other, otherBounds] : rings_) {
            if (apart(b, otherBounds)) continue;
            if (areaMm2(intersection({{ring}}, {{other}})) > 0.01 * area) return false;
        }
        settle(flap, std::move(place));
        return true;
    }

    const std::vector<Flap>& flaps_;
    Ends ends_;
    std::vector<Unfolded> places_;
    std::map<std::string, std::size_t> byId_;
    std::vector<bool> done_;
    std::vector<std::pair<Ring, Bounds>> rings_;
    Bounds rootBounds_, hung_;
};

} // namespace

Point Unfolded::map(Point p) const {
    const double c = std::cos(angleRad), s = std::sin(angleRad);
    return Point{c * p.x - s * p.y, s * p.x + c * p.y} + shift;
}

Point Unfolded::unmap(Point onMap) const {
    const double c = std::cos(angleRad), s = std::sin(angleRad);
    const Point p = onMap - shift;
    return {c * p.x + s * p.y, -s * p.x + c * p.y};
}

Flap flapOf(const Surface& surface, const MeasuredOutline& measured, const Pose* pose) {
    Flap flap{surface.id, measured.frame, measured.sides, surface.edges, surface.kind == SurfaceKind::Floor, pose};
    if (measured.measured()) return flap;
    const double w = std::max(10.0, surface.ghostLength.value), h = std::max(10.0, surface.ghostHeight.value);
    flap.frame = {{0, 0}, {w, 0}, {w, h}, {0, h}};
    flap.sides.clear();
    for (std::size_t k = 0; k < 4; ++k) flap.sides.push_back({flap.frame[k], flap.frame[(k + 1) % 4]});
    return flap;
}

Bounds extentOf(const std::vector<Flap>& flaps, const std::vector<Unfolded>& places) {
    Bounds all = boundsOf(mapped(places.front(), flaps.front().frame));
    for (std::size_t i = 1; i < flaps.size(); ++i) all = joined(all, boundsOf(mapped(places[i], flaps[i].frame)));
    return all;
}

std::vector<Unfolded> unfold(const std::vector<Flap>& flaps, double aspect) {
    if (flaps.empty()) return {};
    std::vector<Unfolded> best;
    double largest = 0;
    for (const Ends ends : {Ends::Hang, Ends::Lie}) {
        const Unfolder unfolder(flaps, ends);
        const double base = unfolder.hung().width();
        for (const bool beside : {false, true})
            for (const double share : {0.25, 0.35, 0.5, 0.7, 0.85, 1.0, 1.25, 1.6, 2.0, 2.6, 3.4}) {
                std::vector<Unfolded> places = unfolder.withRest(base * share, beside);
                const Bounds all = extentOf(flaps, places);
                const double scale = std::min(aspect / all.width(), 1 / all.height());
                // Hung on is better than laid beside, unless the map gets clearly larger.
                if (scale <= largest * (ends == Ends::Lie ? 1.08 : 1)) continue;
                largest = scale;
                best = std::move(places);
            }
    }
    return best;
}

} // namespace westrum
