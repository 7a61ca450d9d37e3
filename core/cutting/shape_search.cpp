#include "core/cutting/shape_search.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>
#include <numeric>

namespace westrum {

namespace {

constexpr double kTouching = 0.008;    // mm: overlaps up to this count as none
constexpr double kNoOverlap = 0.004;   // and while a place is looked for, only these
constexpr double kClear = 0.001;       // mm that a piece is put clear of what it shall touch
constexpr std::size_t kMostKept = 600; // forms up to which a search keeps a table of its own
constexpr double kNever = std::numeric_limits<double>::infinity();

// Places that are looked at before a piece is moved.
constexpr int kAnywhere = 40;
constexpr int kNearby = 24;
constexpr int kCorners = 60;

} // namespace

std::optional<Point> ShapeSearch::crossing(const Line& a, const Line& b) {
    constexpr double kParallel = 0.05; // sine of the angle between them: their crossing would be far off
    const double det = a.across.x * b.across.y - a.across.y * b.across.x;
    if (std::abs(det) < kParallel) return std::nullopt;
    return Point{(a.at * b.across.y - b.at * a.across.y) / det, (a.across.x * b.at - b.across.x * a.at) / det};
}

struct ShapeSearch::Candidate {
    double cost = kNever;
    int way = 0; // place in the piece's list of forms
    Point at{};
};

ShapeSearch::ShapeSearch(const ShapesProblem& problem, ShapeForms& forms, std::vector<std::size_t> pieces,
                         std::vector<Fixed> fixed, std::uint64_t seed)
    : problem_(problem),
      forms_(forms),
      pieces_(std::move(pieces)),
      fixed_(std::move(fixed)),
      count_(pieces_.size()),
      weight_(count_ * (count_ + fixed_.size()), 1.0),
      overlaps_(weight_.size(), 0.0),
      dice_(seed) {}

double ShapeSearch::lengthOf(const ShapeLayout& layout) const {
    double length = 0;
    for (std::size_t i = 0; i < layout.at.size(); ++i)
        length = std::max(length, layout.at[i].x + forms_.form(layout.form[i]).bounds.high.x);
    for (const Fixed& fixed : fixed_)
        if (forms_.form(fixed.form).piece < problem_.pieces.size())
            length = std::max(length, fixed.at.x + forms_.form(fixed.form).bounds.high.x);
    return length;
}

PatternRepeat ShapeSearch::repeatOf(int form) const {
    const std::size_t piece = forms_.form(form).piece;
    return piece < problem_.pieces.size() && problem_.pieces[piece].offPattern ? PatternRepeat{} : problem_.repeat;
}

std::optional<ShapeSearch::Box> ShapeSearch::room(std::size_t item, int form, double lengthMm) const {
    const Bounds& b = forms_.form(form).bounds;
    Box box{{-b.low.x, -b.low.y}, {lengthMm - b.high.x, problem_.widthMm - b.high.y}, repeatOf(form)};
    if (const int group = problem_.pieces[pieces_[item]].group; group >= 0 && !groupSpanMm.empty()) {
        double low = kNever;
        double high = -kNever;
        for (std::size_t j = 0; j < count_; ++j) {
            if (j == item || problem_.pieces[pieces_[j]].group != group) continue;
            const Bounds& other = forms_.form(layout_.form[j]).bounds;
            low = std::min(low, layout_.at[j].x + other.low.x);
            high = std::max(high, layout_.at[j].x + other.high.x);
        }
        if (low < kNever) {
            box.low.x = std::max(box.low.x, high - groupSpanMm[std::size_t(group)] - b.low.x);
            box.high.x = std::min(box.high.x, low + groupSpanMm[std::size_t(group)] - b.high.x);
        }
    }
    if (box.high.x < box.low.x - kTouching || box.high.y < box.low.y - kShapeToleranceMm) return std::nullopt;
    box.high.x = std::max(box.high.x, box.low.x);
    box.high.y = std::max(box.high.y, box.low.y);
    return box;
}

std::optional<Point> ShapeSearch::snapped(Point p, const Box& room) const {
    p.x = std::clamp(p.x, room.low.x, room.high.x);
    p.y = std::clamp(p.y, room.low.y, room.high.y);
    const auto toRepeat = [](double& value, double step, double phase, double low, double high) {
        if (step <= 0) return true;
        value = phase + std::round((value - phase) / step) * step;
        if (value < low - kTouching) value += step;
        if (value > high + kTouching) value -= step;
        return value >= low - kTouching && value <= high + kTouching;
    };
    if (!toRepeat(p.x, room.repeat.alongMm, room.repeat.phase.x, room.low.x, room.high.x) ||
        !toRepeat(p.y, room.repeat.acrossMm, room.repeat.phase.y, room.low.y, room.high.y))
        return std::nullopt;
    return p;
}

const NoFit& ShapeSearch::noFit(int a, int b) {
    const auto forms = std::size_t(forms_.count());
    if (forms > kMostKept) return forms_.noFit(a, b);
    if (known_.empty()) known_.assign(forms * forms, nullptr);
    const NoFit*& kept = known_[std::size_t(a) * forms + std::size_t(b)];
    if (!kept) kept = &forms_.noFit(a, b);
    return *kept;
}

void ShapeSearch::gather(std::size_t item, int form, Others& others) {
    std::vector<Other>& list = others.list;
    list.clear();
    const auto add = [&](int otherForm, Point at, double weight) {
        const bool flipped = otherForm > form;
        const NoFit& fit = flipped ? noFit(form, otherForm) : noFit(otherForm, form);
        if (fit.corners().empty()) return;
        const Bounds& b = fit.bounds();
        list.push_back(
            {&fit, at, weight, flipped ? at - b.high : at + b.low, flipped ? at - b.low : at + b.high, flipped});
    };
    for (std::size_t j = 0; j < count_; ++j)
        if (j != item) add(layout_.form[j], layout_.at[j], pair(weight_, std::min(item, j), std::max(item, j)));
    for (std::size_t f = 0; f < fixed_.size(); ++f) add(fixed_[f].form, fixed_[f].at, pair(weight_, item, count_ + f));
    // What weighs most first: a bad place is given up sooner.
    std::stable_sort(list.begin(), list.end(), [](const Other& a, const Other& b) { return a.weight > b.weight; });
    others.blocks.assign((list.size() + Others::kBlock - 1) / Others::kBlock, Others::Block{}); // empty: never met
    for (std::size_t k = 0; k < list.size(); ++k) {
        Others::Block& block = others.blocks[k / Others::kBlock];
        const std::size_t lane = k % Others::kBlock;
        block.lowX[lane] = float(list[k].low.x);
        block.lowY[lane] = float(list[k].low.y);
        block.highX[lane] = float(list[k].high.x);
        block.highY[lane] = float(list[k].high.y);
    }
}

double ShapeSearch::weigh(const Others& others, Point p, double limit) {
    // Most others are far away: bounds are compared without a branch for each. Then what a glance tells, then the
    // depths.
    struct Hit {
        const Other* other;
        Point place;
        NoFit::Glance seen;
    };
    const auto x = float(p.x);
    const auto y = float(p.y);
    std::array<int, Others::kBlock> meets;
    std::array<std::size_t, Others::kBlock> near;
    std::array<Hit, Others::kBlock> hits;
    double sum = 0;
    for (std::size_t b = 0; b < others.blocks.size(); ++b) {
        const Others::Block& block = others.blocks[b];
        for (std::size_t k = 0; k < Others::kBlock; ++k)
            meets[k] =
                int(x > block.lowX[k]) & int(x < block.highX[k]) & int(y > block.lowY[k]) & int(y < block.highY[k]);
        std::size_t nearby = 0;
        for (std::size_t k = 0; k < Others::kBlock; ++k) {
            near[nearby] = b * Others::kBlock + k;
            nearby += std::size_t(meets[k]);
        }
        std::size_t hit = 0;
        for (std::size_t k = 0; k < nearby; ++k) {
            const Other& other = others.list[near[k]];
            const Point place = other.placeOf(p);
            const NoFit::Glance seen = other.fit->glance(place);
            if (seen.cell < 0) continue;
            sum += seen.atLeast * other.weight;
            hits[hit++] = {&other, place, seen};
        }
        if (sum >= limit) return sum;
        for (std::size_t k = 0; k < hit; ++k) {
            const Hit& h = hits[k];
            const double depth = h.other->fit->depth(h.place, h.seen);
            sum += ((depth > kNoOverlap ? depth : 0) - h.seen.atLeast) * h.other->weight;
            if (sum >= limit) return sum;
        }
    }
    return std::max(sum, 0.0);
}

/// From a place to a better one near it. Moved a little, a piece overlaps more or less in proportion, so the cost is
/// least where two edges of no-fit regions cross: where the piece touches two others, or one and the roll's edge.
void ShapeSearch::refine(const Others& others, const Box& room, Candidate& candidate, double reach) {
    constexpr int kRounds = 4;       // edges are straight for a short way only
    constexpr double kFarthest = 10; // crossings are tried up to so many times the reach away
    constexpr double kEnough = 0.999;
    const auto attempt = [&](Point p) {
        const auto there = snapped(p, room);
        if (!there) return;
        const double cost = weigh(others, *there, candidate.cost);
        if (cost >= candidate.cost) return;
        candidate.cost = cost;
        candidate.at = *there;
    };
    for (int round = 0; round < kRounds && candidate.cost > 0; ++round) {
        const double before = candidate.cost;
        const Point from = candidate.at;
        lines_.clear();
        for (const Other& other : others.list) {
            if (!other.mayMeet(from)) continue;
            const Point place = other.placeOf(from);
            const auto near = other.fit->nearest(place);
            if (!near || near->depth < -reach) continue;
            const double sign = other.flipped ? -1 : 1;
            const Point out = near->out * sign;
            const Point exit = from + (near->exit - place) * sign + out * kClear;
            if (near->depth > kNoOverlap) attempt(exit);
            lines_.push_back({out, dot(out, exit)});
        }
        const std::size_t ofOthers = lines_.size();
        if (from.x - room.low.x < reach) lines_.push_back({{1, 0}, room.low.x});
        if (room.high.x - from.x < reach) lines_.push_back({{1, 0}, room.high.x});
        if (from.y - room.low.y < reach) lines_.push_back({{0, 1}, room.low.y});
        if (room.high.y - from.y < reach) lines_.push_back({{0, 1}, room.high.y});
        for (std::size_t i = 0; i < ofOthers; ++i)
            for (std::size_t j = i + 1; j < lines_.size(); ++j)
                if (const auto p = crossing(lines_[i], lines_[j]);
                    p && std::abs(p->x - from.x) + std::abs(p->y - from.y) < kFarthest * reach)
                    attempt(*p);
        if (candidate.cost > before * kEnough) break;
    }
    if (room.repeat.alongMm <= 0 && room.repeat.acrossMm <= 0) return;
    // A pattern ties the piece to its points: the neighbouring ones.
    const double sx = room.repeat.alongMm > 0 ? room.repeat.alongMm : reach;
    const double sy = room.repeat.acrossMm > 0 ? room.repeat.acrossMm : reach;
    for (double part = 1; part > 0.02 && candidate.cost > 0; part /= 2) {
        const double kx = room.repeat.alongMm > 0 ? 1 : part;
        const double ky = room.repeat.acrossMm > 0 ? 1 : part;
        for (const Point d : {Point{sx * kx, 0}, {-sx * kx, 0}, {0, sy * ky}, {0, -sy * ky}}) attempt(candidate.at + d);
    }
}

void ShapeSearch::relocate(std::size_t item, double lengthMm) {
    const std::vector<int>& ways = forms_.formsOf(pieces_[item]);
    if (gathered_.size() < ways.size()) gathered_.resize(ways.size());
    std::vector<char> ready(ways.size(), 0);
    std::vector<std::optional<Box>> rooms(ways.size());
    const auto others = [&](int way) -> const Others& {
        if (!ready[std::size_t(way)]) {
            gather(item, ways[std::size_t(way)], gathered_[std::size_t(way)]);
            ready[std::size_t(way)] = 1;
        }
        return gathered_[std::size_t(way)];
    };
    for (std::size_t w = 0; w < ways.size(); ++w) rooms[w] = room(item, ways[w], lengthMm);

    constexpr std::size_t kBest = 3;
    std::array<Candidate, kBest> best;
    const auto consider = [&](int way, Point p) {
        const auto& box = rooms[std::size_t(way)];
        if (!box) return;
        const auto there = snapped(p, *box);
        if (!there) return;
        const double cost = weigh(others(way), *there, best.back().cost);
        if (cost >= best.back().cost) return;
        // Of candidates that lie next to each other one is enough.
        for (Candidate& b : best)
            if (b.way == way && std::abs(b.at.x - there->x) + std::abs(b.at.y - there->y) < 1) {
                if (cost < b.cost) b = {cost, way, *there};
                std::sort(best.begin(), best.end(), [](const auto& x, const auto& y) { return x.cost < y.cost; });
                return;
            }
        best.back() = {cost, way, *there};
        std::sort(best.begin(), best.end(), [](const auto& x, const auto& y) { return x.cost < y.cost; });
    };
    const int now = int(std::find(ways.begin(), ways.end(), layout_.form[item]) - ways.begin());
    const Point from = layout_.at[item];
    if (now < int(ways.size())) consider(now, from);
    const Bounds& b = forms_.form(layout_.form[item]).bounds;
    const auto anyWay = [&] { return ways.size() == 1 ? 0 : int(dice_.below(ways.size())); };
    for (int n = 0; n < kAnywhere; ++n) {
        const int way = anyWay();
        if (const auto& box = rooms[std::size_t(way)])
            consider(way, {dice_.between(box->low.x, box->high.x), dice_.between(box->low.y, box->high.y)});
    }
    const Point here = middle(item);
    for (int n = 0; n < kNearby; ++n) {
        const int way = anyWay();
        const Bounds& turned = forms_.form(ways[std::size_t(way)]).bounds;
        consider(way, here - (turned.low + turned.high) * 0.5 +
                          Point{b.width() * dice_.between(-0.25, 0.25), b.height() * dice_.between(-0.25, 0.25)});
    }
    // Corners of no-fit regions: places where two corners or a corner and an edge touch.
    for (int n = 0; n < kCorners; ++n) {
        const int way = anyWay();
        const std::vector<Other>& list = others(way).list;
        if (list.empty()) break;
        const Other& other = list[dice_.below(list.size())];
        const auto& corners = other.fit->corners();
        const Point corner = corners[dice_.below(corners.size())];
        const Point p = other.flipped ? other.at - corner : other.at + corner;
        const auto& box = rooms[std::size_t(way)];
        if (!box || p.x < box->low.x - 1 || p.x > box->high.x + 1 || p.y < box->low.y - 1 || p.y > box->high.y + 1)
            continue;
        consider(way, p);
    }
    constexpr double kReach = 0.04; // of the piece's size
    const double reach = std::sqrt(b.width() * b.height()) * kReach;
    for (Candidate& candidate : best)
        if (candidate.cost < kNever)
            refine(others(candidate.way), *rooms[std::size_t(candidate.way)], candidate, reach);
    const Candidate& chosen =
        *std::min_element(best.begin(), best.end(), [](const auto& x, const auto& y) { return x.cost < y.cost; });
    if (chosen.cost == kNever) return;
    layout_.form[item] = ways[std::size_t(chosen.way)];
    layout_.at[item] = chosen.at;
}

double ShapeSearch::strain(const std::vector<Point>& at, std::vector<Point>& slope) {
    std::fill(slope.begin(), slope.end(), Point{});
    tightest_ = 0;
    double sum = 0;
    for (const Tie& tie : ties_) {
        const Point other = tie.j < count_ ? at[tie.j] : fixed_[tie.j - count_].at;
        const Point place = tie.flipped ? at[tie.i] - other : other - at[tie.i];
        const Bounds& b = tie.fit->bounds();
        if (place.x <= b.low.x || place.x >= b.high.x || place.y <= b.low.y || place.y >= b.high.y) continue;
        Point exit;
        const double depth = tie.fit->depth(place, exit);
        if (depth <= 0) continue;
        tightest_ = std::max(tightest_, depth);
        sum += depth * depth;
        const Point grows = (tie.flipped ? exit - place : place - exit) * 2; // as j moves
        if (tie.j < count_) slope[tie.j] = slope[tie.j] + grows;
        slope[tie.i] = slope[tie.i] - grows;
    }
    return sum;
}

/// All pieces give way at once: the sum of the squared depths falls along its slope (spectral projected gradient;
/// Birgin, Martinez and Raydan, 2000). What parts a row of pieces by a little each takes one call instead of many
/// rounds. Pieces that a pattern or a group ties to places are left as they are.
void ShapeSearch::settle(double lengthMm) {
    constexpr int kMostSteps = 60;
    constexpr std::size_t kMemory = 6; // steps by which the sum may grow for a while
    constexpr double kEnough = 1e-4;   // share of the promised fall
    if (problem_.repeat.alongMm > 0 || problem_.repeat.acrossMm > 0 || !groupSpanMm.empty()) return;
    std::vector<Box> rooms;
    for (std::size_t i = 0; i < count_; ++i) {
        const auto box = room(i, layout_.form[i], lengthMm);
        if (!box) return;
        rooms.push_back(*box);
    }
    ties_.clear();
    for (std::size_t i = 0; i < count_; ++i) {
        const auto tie = [&](std::size_t j, int other) {
            const int form = layout_.form[i];
            const NoFit& fit = form <= other ? noFit(form, other) : noFit(other, form);
            if (!fit.corners().empty()) ties_.push_back({i, j, &fit, form > other});
        };
        for (std::size_t j = i + 1; j < count_; ++j) tie(j, layout_.form[j]);
        for (std::size_t f = 0; f < fixed_.size(); ++f) tie(count_ + f, fixed_[f].form);
    }
    const auto inside = [&](Point p, std::size_t i) {
        return Point{std::clamp(p.x, rooms[i].low.x, rooms[i].high.x),
                     std::clamp(p.y, rooms[i].low.y, rooms[i].high.y)};
    };
    std::vector<Point> at = layout_.at;
    for (std::size_t i = 0; i < count_; ++i) at[i] = inside(at[i], i);
    std::vector<Point> next(count_);
    std::vector<Point> slope(count_);
    std::vector<Point> nextSlope(count_);
    double now = strain(at, slope);
    std::array<double, kMemory> before{};
    before.fill(now);
    double step = 0.25; // each of two pieces goes half of the way
    for (int n = 0; n < kMostSteps && tightest_ > kTouching * 0.9; ++n) {
        double promised = 0;
        for (std::size_t i = 0; i < count_; ++i) {
            next[i] = inside(at[i] - slope[i] * step, i);
            promised += dot(next[i] - at[i], slope[i]);
        }
        if (promised > -1e-12) break;
        const double limit = *std::max_element(before.begin(), before.end());
        double part = 1;
        double then = strain(next, nextSlope);
        for (int k = 0; k < 8 && then > limit + kEnough * part * promised; ++k) {
            constexpr double kShorter = 0.4;
            part *= kShorter;
            for (std::size_t i = 0; i < count_; ++i) next[i] = at[i] + (next[i] - at[i]) * kShorter;
            then = strain(next, nextSlope);
        }
        double moved = 0;
        double bent = 0;
        for (std::size_t i = 0; i < count_; ++i) {
            const Point by = next[i] - at[i];
            moved += dot(by, by);
            bent += dot(by, nextSlope[i] - slope[i]);
        }
        step = bent > 1e-12 ? std::clamp(moved / bent, 1e-3, 10.0) : 1.0;
        std::swap(at, next);
        std::swap(slope, nextSlope);
        before[std::size_t(n) % kMemory] = then;
    }
    layout_.at = std::move(at);
}

double ShapeSearch::measure() {
    overlap_ = 0;
    deepest_ = 0;
    for (std::size_t i = 0; i < count_; ++i) {
        const auto against = [&](std::size_t j, int otherForm, Point otherAt) {
            const int form = layout_.form[i];
            double depth = 0;
            // Only what can overlap is looked up: the bounds of the pieces, grown by the gap, tell.
            const Bounds& a = forms_.form(form).bounds;
            const Bounds& b = forms_.form(otherForm).bounds;
            const Point d = otherAt - layout_.at[i];
            const double gap = problem_.gapMm;
            if (d.x + b.low.x < a.high.x + gap && d.x + b.high.x > a.low.x - gap && d.y + b.low.y < a.high.y + gap &&
                d.y + b.high.y > a.low.y - gap)
                depth =
                    form <= otherForm ? noFit(form, otherForm).depth(d) : noFit(otherForm, form).depth({-d.x, -d.y});
            pair(overlaps_, i, j) = depth;
            if (depth > kTouching) overlap_ += depth;
            deepest_ = std::max(deepest_, depth);
        };
        for (std::size_t j = i + 1; j < count_; ++j) against(j, layout_.form[j], layout_.at[j]);
        for (std::size_t f = 0; f < fixed_.size(); ++f) against(count_ + f, fixed_[f].form, fixed_[f].at);
    }
    return overlap_;
}

/// No two overlap, and no group lies wider apart than it may.
bool ShapeSearch::parted() const {
    if (deepest_ > kTouching) return false;
    for (std::size_t g = 0; g < groupSpanMm.size(); ++g) {
        double low = kNever;
        double high = -kNever;
        for (std::size_t i = 0; i < count_; ++i) {
            if (problem_.pieces[pieces_[i]].group != int(g)) continue;
            const Bounds& b = forms_.form(layout_.form[i]).bounds;
            low = std::min(low, layout_.at[i].x + b.low.x);
            high = std::max(high, layout_.at[i].x + b.high.x);
        }
        if (high - low > groupSpanMm[g] + kTouching) return false;
    }
    return true;
}

bool ShapeSearch::separate(double lengthMm, int patience, const Effort& effort, std::int64_t& moves) {
    std::fill(weight_.begin(), weight_.end(), 1.0);
    settle(lengthMm);
    measure();
    ShapeLayout best = layout_;
    double least = overlap_;
    int without = 0;
    const std::size_t wide = count_ + fixed_.size();
    std::vector<std::size_t> order;
    while (true) {
        if (parted()) return true;
        order.clear();
        for (std::size_t i = 0; i < count_; ++i) {
            bool overlapping = false;
            for (std::size_t j = 0; j < wide && !overlapping; ++j) {
                if (j == i) continue;
                overlapping = (j < i ? pair(overlaps_, j, i) : pair(overlaps_, i, j)) > kTouching;
            }
            if (overlapping) order.push_back(i);
        }
        dice_.shuffle(order);
        for (const std::size_t i : order) {
            if (effort.spent(moves) >= 1) break;
            ++moves;
            relocate(i, lengthMm);
        }
        measure();
        if (parted()) return true;
        if (overlap_ < least * 0.98) {
            without = 0;
        } else {
            ++without;
        }
        if (overlap_ < least) {
            least = overlap_;
            best = layout_;
        }
        if (without > patience || effort.spent(moves) >= 1) break;
        for (std::size_t k = 0; k < weight_.size(); ++k) {
            if (overlaps_[k] > kTouching)
                weight_[k] *= temper.least + (temper.most - temper.least) * overlaps_[k] / deepest_;
            else
                weight_[k] = std::max(1.0, weight_[k] * temper.fade);
        }
    }
    layout_ = std::move(best);
    measure();
    return false;
}

void ShapeSearch::pushInside(double lengthMm) {
    for (std::size_t i = 0; i < count_; ++i) {
        const Bounds& b = forms_.form(layout_.form[i]).bounds;
        const Box box{{-b.low.x, -b.low.y},
                      {std::max(-b.low.x, lengthMm - b.high.x), std::max(-b.low.y, problem_.widthMm - b.high.y)},
                      repeatOf(layout_.form[i])};
        layout_.at[i] = snapped(layout_.at[i], box).value_or(Point{box.low.x, box.low.y});
    }
}

Point ShapeSearch::middle(std::size_t item) const {
    const Bounds& box = forms_.form(layout_.form[item]).bounds;
    return layout_.at[item] + (box.low + box.high) * 0.5;
}

void ShapeSearch::scatter(double lengthMm) {
    std::vector<double> from; // where each group may begin
    from.reserve(groupSpanMm.size());
    for (const double span : groupSpanMm) from.push_back(dice_.unit() * std::max(0.0, lengthMm - span));
    for (std::size_t i = 0; i < count_; ++i) {
        const std::vector<int>& forms = forms_.formsOf(pieces_[i]);
        layout_.form[i] = forms[dice_.below(forms.size())];
        const Bounds& b = forms_.form(layout_.form[i]).bounds;
        const int group = problem_.pieces[pieces_[i]].group;
        const bool grouped = group >= 0 && std::size_t(group) < from.size();
        const double low = grouped ? from[std::size_t(group)] : 0;
        const double wide = grouped ? groupSpanMm[std::size_t(group)] : lengthMm;
        layout_.at[i] = {low - b.low.x + dice_.unit() * std::max(0.0, wide - b.width()),
                         dice_.unit() * std::max(0.0, problem_.widthMm - b.height()) - b.low.y};
    }
    pushInside(lengthMm);
}

void ShapeSearch::exchangeParts(double lengthMm) {
    const double least = std::min(lengthMm / 2, problem_.widthMm / 4);
    const double first = dice_.between(least, lengthMm / 2);
    const double second = dice_.between(least, lengthMm / 2);
    const double from = dice_.between(0, lengthMm - first - second);
    for (std::size_t i = 0; i < count_; ++i) {
        const double x = middle(i).x - from;
        if (x >= 0 && x < first)
            layout_.at[i].x += second;
        else if (x >= first && x < first + second)
            layout_.at[i].x -= first;
    }
}

void ShapeSearch::turnPart(double lengthMm) {
    const double wide = dice_.between(std::min(lengthMm, problem_.widthMm * 0.4), lengthMm);
    const double from = dice_.between(-0.1, 1.1) * (lengthMm - wide);
    for (std::size_t i = 0; i < count_; ++i) {
        const Point was = middle(i);
        if (was.x < from || was.x > from + wide) continue;
        // What may not lie turned changes its place only.
        const double now = forms_.form(layout_.form[i]).rotationRad;
        for (const int form : forms_.formsOf(pieces_[i]))
            if (std::abs(std::abs(forms_.form(form).rotationRad - now) - std::numbers::pi) < 1e-6) {
                layout_.form[i] = form;
                break;
            }
        layout_.at[i] = layout_.at[i] + (Point{2 * from + wide - was.x, problem_.widthMm - was.y} - middle(i));
    }
}

std::vector<std::size_t> ShapeSearch::inSomePart(double lengthMm) {
    std::vector<std::size_t> chosen;
    const double wide = lengthMm * dice_.between(0.15, 0.45);
    const double from = dice_.unit() * (lengthMm - wide);
    for (std::size_t i = 0; i < count_; ++i)
        if (const double x = middle(i).x; x >= from && x <= from + wide) chosen.push_back(i);
    return chosen;
}

/// Two of the larger pieces, of different kinds; none if they are all the same.
std::vector<std::size_t> ShapeSearch::twoLarge() {
    std::vector<std::size_t> large(count_);
    std::iota(large.begin(), large.end(), std::size_t(0));
    std::stable_sort(large.begin(), large.end(), [&](std::size_t a, std::size_t b) {
        return forms_.form(layout_.form[a]).areaMm2 > forms_.form(layout_.form[b]).areaMm2;
    });
    large.resize(std::max<std::size_t>(2, count_ * 3 / 5));
    const std::size_t a = large[dice_.below(large.size())];
    std::size_t b = a;
    for (int n = 0; n < 20 && (b == a || pieces_[b] == pieces_[a]); ++n) b = large[dice_.below(large.size())];
    if (a == b) return {};
    return {a, b};
}

/// What lies in the bounds of a piece and is much smaller.
std::vector<std::size_t> ShapeSearch::lyingIn(std::size_t holder) const {
    const ShapeForm& form = forms_.form(layout_.form[holder]);
    const Point low = layout_.at[holder] + form.bounds.low;
    const Point high = layout_.at[holder] + form.bounds.high;
    std::vector<std::size_t> list;
    for (std::size_t i = 0; i < count_; ++i)
        if (const Point m = middle(i); m.x > low.x && m.x < high.x && m.y > low.y && m.y < high.y &&
                                       forms_.form(layout_.form[i]).areaMm2 < 0.4 * form.areaMm2)
            list.push_back(i);
    return list;
}

void ShapeSearch::disturb(double lengthMm) {
    if (count_ < 2) return;
    if (dice_.unit() < disturbance.exchange) {
        exchangeParts(lengthMm);
    } else if (dice_.unit() < disturbance.turn) {
        turnPart(lengthMm);
    } else {
        std::vector<std::size_t> chosen;
        if (dice_.unit() < disturbance.shuffle) chosen = inSomePart(lengthMm);
        const bool shuffled = chosen.size() >= 2;
        if (!shuffled) chosen = twoLarge();
        if (chosen.empty()) return;
        std::vector<Point> middles;
        middles.reserve(chosen.size());
        for (const std::size_t i : chosen) middles.push_back(middle(i));
        if (shuffled) {
            dice_.shuffle(middles);
        } else {
            if (dice_.unit() < disturbance.carry) {
                const Point by = middles[1] - middles[0];
                const std::vector<std::size_t> there = lyingIn(chosen[0]);
                const std::vector<std::size_t> back = lyingIn(chosen[1]);
                for (const std::size_t i : there)
                    if (i != chosen[1]) layout_.at[i] = layout_.at[i] + by;
                for (const std::size_t i : back)
                    if (i != chosen[0]) layout_.at[i] = layout_.at[i] - by;
            }
            std::swap(middles[0], middles[1]);
        }
        for (std::size_t n = 0; n < chosen.size(); ++n)
            layout_.at[chosen[n]] = layout_.at[chosen[n]] + (middles[n] - middle(chosen[n]));
    }
    pushInside(lengthMm);
}

void ShapeSearch::shortenAt(double byMm) {
    const double line = dice_.unit() * lengthOf(layout_);
    for (std::size_t i = 0; i < count_; ++i) {
        const Bounds& b = forms_.form(layout_.form[i]).bounds;
        if (layout_.at[i].x + (b.low.x + b.high.x) / 2 > line) layout_.at[i].x -= byMm;
    }
}

} // namespace westrum
