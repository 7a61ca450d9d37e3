#include "core/cutting/factory_edges.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace westrum {
namespace {

constexpr double kHair = 1e-6;

/// A stretch of a part along one axis, and whether each of its ends is the sheet's own edge.
struct Stretch {
    double low{}, high{};
    bool lowIsEdge{}, highIsEdge{};
};

using Group = std::vector<EdgeWish*>;

double lowOf(const EdgeWish& p, bool x) { return x ? p.x : p.y; }
double highOf(const EdgeWish& p, bool x) { return x ? p.x + p.width : p.y + p.height; }
bool wantsLow(const EdgeWish& p, bool x) { return x ? p.wants.left : p.wants.near; }
bool wantsHigh(const EdgeWish& p, bool x) { return x ? p.wants.right : p.wants.far; }

double lowOf(const Group& part, bool x) {
    double low = 1e12;
    for (const EdgeWish* p : part) low = std::min(low, lowOf(*p, x));
    return low;
}
double highOf(const Group& part, bool x) {
    double high = -1e12;
    for (const EdgeWish* p : part) high = std::max(high, highOf(*p, x));
    return high;
}

/// What straight cuts across an axis part, in order.
std::vector<Group> partsAlong(Group pieces, bool x, double kerf) {
    std::sort(pieces.begin(), pieces.end(),
              [x](const EdgeWish* a, const EdgeWish* b) { return lowOf(*a, x) < lowOf(*b, x); });
    std::vector<Group> parts;
    double reach = -1e12;
    for (EdgeWish* p : pieces) {
        if (lowOf(*p, x) >= reach + kerf - kHair)
            parts.push_back({p});
        else
            parts.back().push_back(p);
        reach = std::max(reach, highOf(*p, x));
    }
    return parts;
}

void shift(Group& part, double by, bool x) {
    for (EdgeWish* p : part) (x ? p->x : p->y) += by;
}

class Mover {
public:
    explicit Mover(double kerf) : kerf_(kerf) {}

    void move(Group& pieces, std::array<Stretch, 2> room, int alike = 0) {
        if (pieces.empty() || alike == 2) return;
        const bool x = axis_;
        std::vector<Group> parts = partsAlong(pieces, x, kerf_);
        Stretch& own = room[x ? 0 : 1];
        if (parts.size() == 1 && pieces.size() > 1) {
            place(parts, own, x);
            return turned([&] { move(pieces, room, alike + 1); });
        }
        place(parts, own, x);
        if (pieces.size() == 1)
            return turned([&] {
                std::vector<Group> other = partsAlong(pieces, axis_, kerf_);
                place(other, room[axis_ ? 0 : 1], axis_);
            });
        for (Group& part : parts) {
            std::array<Stretch, 2> inner = room;
            const double low = lowOf(part, x), high = highOf(part, x);
            inner[x ? 0 : 1] = {low, high, own.lowIsEdge && std::abs(low - own.low) < kHair,
                                own.highIsEdge && std::abs(high - own.high) < kHair};
            turned([&] { move(part, inner); });
        }
    }

private:
    template <class Work> void turned(const Work& work) {
        axis_ = !axis_;
        work();
        axis_ = !axis_;
    }

    /// Those that want the low edge from there on, those that want the high one up to it, the others as they come.
    void place(std::vector<Group>& parts, const Stretch& room, bool x) const {
        const auto any = [x](const Group& part, const auto& wants) {
            return std::any_of(part.begin(), part.end(), [&](const EdgeWish* p) { return wants(*p, x); });
        };
        const bool low = room.lowIsEdge, high = room.highIsEdge;
        std::vector<Group*> first, middle, last;
        for (Group& part : parts)
            (low && any(part, wantsLow) ? first : high && any(part, wantsHigh) ? last : middle).push_back(&part);
        if (first.empty() && last.empty()) return; // as it was found
        double at = room.low;
        for (auto* list : {&first, &middle})
            for (Group* part : *list) {
                const double size = highOf(*part, x) - lowOf(*part, x);
                shift(*part, at - lowOf(*part, x), x);
                at += size + kerf_;
            }
        double end = room.high;
        for (Group* part : last) {
            const double size = highOf(*part, x) - lowOf(*part, x);
            shift(*part, end - highOf(*part, x), x);
            end -= size + kerf_;
        }
    }

    double kerf_;
    bool axis_ = true; ///< along the sheet, else across it
};

} // namespace

void toFactoryEdges(std::vector<EdgeWish>& pieces, double length, double width, double kerf) {
    if (std::none_of(pieces.begin(), pieces.end(), [](const EdgeWish& p) { return p.wants != FactoryEdges{}; })) return;
    Group all;
    for (EdgeWish& p : pieces) all.push_back(&p);
    Mover(kerf).move(all, {Stretch{0, length, true, true}, Stretch{0, width, true, true}});
}

FactoryEdges onEdges(const EdgeWish& p, double length, double width) {
    constexpr double kOn = 0.01;
    return {.left = p.wants.left && std::abs(p.x) < kOn,
            .right = p.wants.right && std::abs(p.x + p.width - length) < kOn,
            .near = p.wants.near && std::abs(p.y) < kOn,
            .far = p.wants.far && std::abs(p.y + p.height - width) < kOn};
}

} // namespace westrum
