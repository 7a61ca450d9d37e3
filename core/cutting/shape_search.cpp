#include "core/cutting/shape_search.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>
#include <numeric>

namespace westrum {

namespace {

constexpr double kNoOverlap = 0.004;   // and while a place is looked for, only these
constexpr double kClear = 0.001;       // mm that a piece is put clear of what it shall touch
constexpr std::size_t kMostKept = 600; // forms up to which a search keeps a table of its own

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
    std::size_t way = 0; // place in the piece's list of forms
    Point at{};
};

ShapeSearch::ShapeSearch(const ShapesProblem& problem, ShapeForms& forms, std::vector<std::size_t> pieces,
                         std::vector<Fixed> fixed, std::uint64_t seed)
    : problem_(problem),
      forms_(forms),
      pieces_(std::move(pieces)),
      fixed_(std::move(fixed)),
      count_(pieces_.size()),
      layout_{std::vector<int>(count_), std::vector<Point>(count_)},
      weight_(count_ * (count_ + fixed_.size()), 1.0),
      overlaps_(weight_.size(), 0.0),
      dice_(seed),
      scattered_(seed) {
    const auto area = [&](std::size_t i) { return forms.form(forms.formsOf(pieces_[i]).front()).areaMm2; };
    for (std::size_t i = 1; i < count_; ++i)
        if (area(i) > area(largest_)) largest_ = i;
}

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

const ShapeForms::Meeting& ShapeSearch::meeting(int a, int b) {
    const auto forms = std::size_t(forms_.count());
    if (forms > kMostKept) return asked_ = forms_.meeting(a, b);
    if (known_.empty()) known_.resize(forms * forms);
    ShapeForms::Meeting& kept = known_[std::size_t(a) * forms + std::size_t(b)];
    if (!kept.fit) kept = forms_.meeting(a, b);
    return kept;
}

void ShapeSearch::gather(std::size_t item, int form, Others& others) {
    std::vector<Other>& list = others.list;
    list.clear();
    const auto add = [&](int otherForm, Point at, double weight) {
        const auto& [fit, turn] = meeting(otherForm, form);
        if (fit->corners().empty()) return;
        const Bounds& b = fit->bounds();
        const Point middle = at + turn.back((b.low + b.high) * 0.5);
        const double wide = std::abs(turn.cos) * b.width() + std::abs(turn.sin) * b.height();
        const double high = std::abs(turn.sin) * b.width() + std::abs(turn.cos) * b.height();
        const Point half{wide / 2, high / 2};
        list.push_back({fit, turn, at, weight, middle - half, middle + half});
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

void ShapeSearch::Places::glance(const Others& others) {
    constexpr std::size_t kFour = 4;
    const std::size_t blocks = (at.size() + kFour - 1) / kFour;
    x.resize(blocks);
    y.resize(blocks);
    for (std::size_t i = 0; i < blocks * kFour; ++i) {
        const Point p = at[std::min(i, at.size() - 1)];
        x[i / kFour][i % kFour] = float(p.x);
        y[i / kFour][i % kFour] = float(p.y);
    }
    atLeast.assign(blocks, Four{});
    for (const Other& other : others.list) other.fit->glance(x, y, other.at, other.turn, other.weight, atLeast);
}

double ShapeSearch::weigh(const Others& others, Point p, double limit) {
    // Most others are far away: bounds are compared without a branch for each. Then what a glance tells, then the
    // depths.
    struct Hit {
        const Other* other;
        Point place;
        int cell;
        double atLeast;
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
            hits[hit++] = {&other, place, seen.cell, seen.atLeast};
        }
        if (sum >= limit) return sum;
        for (std::size_t k = 0; k < hit; ++k) {
            const Hit& h = hits[k];
            const double depth = h.other->fit->depth(h.place, {h.cell, h.atLeast});
            sum += ((depth > kNoOverlap ? depth : 0) - h.atLeast) * h.other->weight;
            if (sum >= limit) return sum;
        }
    }
    return std::max(sum, 0.0);
}

/// From a place to a better one near it. Moved a little, a piece overlaps more or less in proportion, so the cost is
/// least where two edges of no-fit regions cross: where the piece touches two others, or one and the roll's edge.
void ShapeSearch::refine(const Way& way, Candidate& candidate, double reach) {
    const Others& others = way.others;
    const Box& room = *way.room;
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
            const Point out = other.turn.back(near->out);
            const Point exit = from + other.turn.back(near->exit - place) + out * kClear;
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

/// Places that the piece may go to: where it is, anywhere, nearby, and where it would touch another's corner.
void ShapeSearch::drawPlaces(std::size_t item) {
    const auto consider = [&](Way& way, Point p) {
        if (const auto there = snapped(p, *way.room)) way.places.at.push_back(*there);
    };
    const auto anyWay = [&]() -> Way& { return ways_[ways_.size() == 1 ? 0 : dice_.below(ways_.size())]; };
    for (Way& way : ways_) {
        way.places.at.clear();
        if (way.room && way.form == layout_.form[item]) consider(way, layout_.at[item]);
    }
    for (int n = 0; n < kAnywhere; ++n)
        if (Way& way = anyWay(); way.room)
            consider(way, {dice_.between(way.room->low.x, way.room->high.x),
                           dice_.between(way.room->low.y, way.room->high.y)});
    const Bounds& now = forms_.form(layout_.form[item]).bounds;
    const Point here = middle(item);
    for (int n = 0; n < kNearby; ++n) {
        Way& way = anyWay();
        if (!way.room) continue;
        const Bounds& turned = forms_.form(way.form).bounds;
        consider(way, here - (turned.low + turned.high) * 0.5 +
                          Point{now.width() * dice_.between(-0.25, 0.25), now.height() * dice_.between(-0.25, 0.25)});
    }
    // Corners of no-fit regions lie all over the memory, so all are asked for before the first is used.
    struct Touching {
        Way* way;
        const Other* other;
        const Point* corner;
    };
    std::array<Touching, kCorners> touching;
    std::size_t drawn = 0;
    for (int n = 0; n < kCorners; ++n) {
        Way& way = anyWay();
        if (!way.room || way.others.list.empty()) continue;
        const Other& other = way.others.list[dice_.below(way.others.list.size())];
        const Point* const corner = &other.fit->corners()[dice_.below(other.fit->corners().size())];
        __builtin_prefetch(corner);
        touching[drawn++] = {&way, &other, corner};
    }
    for (std::size_t n = 0; n < drawn; ++n) {
        const auto& [way, other, corner] = touching[n];
        const Point p = other->at + other->turn.back(*corner);
        const Box& box = *way->room;
        if (p.x > box.low.x - 1 && p.x < box.high.x + 1 && p.y > box.low.y - 1 && p.y < box.high.y + 1)
            consider(*way, p);
    }
}

/// The best of the places. What a glance finds cheap is weighed first; once the best are cheaper than that, the rest
/// need not be.
void ShapeSearch::cheapest(std::array<Candidate, kBest>& best) {
    tries_.clear();
    for (std::size_t w = 0; w < ways_.size(); ++w) {
        Places& places = ways_[w].places;
        if (places.at.empty()) continue;
        places.glance(ways_[w].others);
        for (std::size_t i = 0; i < places.at.size(); ++i)
            tries_.push_back({double(places.atLeast[i / 4][i % 4]), w, places.at[i]});
    }
    const auto dearer = [](const Try& a, const Try& b) { return a.atLeast > b.atLeast; };
    std::make_heap(tries_.begin(), tries_.end(), dearer);
    for (auto end = tries_.end(); end != tries_.begin(); --end) {
        std::pop_heap(tries_.begin(), end, dearer);
        const Try& t = *(end - 1);
        if (t.atLeast >= best.back().cost) break;
        const double cost = weigh(ways_[t.way].others, t.at, best.back().cost);
        if (cost >= best.back().cost) continue;
        // Of candidates that lie next to each other one is enough.
        const auto same = std::find_if(best.begin(), best.end(), [&](const Candidate& c) {
            return c.way == t.way && std::abs(c.at.x - t.at.x) + std::abs(c.at.y - t.at.y) < 1;
        });
        if (same == best.end())
            best.back() = {cost, t.way, t.at};
        else if (cost < same->cost)
            *same = {cost, t.way, t.at};
        std::sort(best.begin(), best.end(), [](const auto& x, const auto& y) { return x.cost < y.cost; });
    }
}

void ShapeSearch::relocate(std::size_t item, double lengthMm) {
    const std::vector<int>& forms = forms_.formsOf(pieces_[item]);
    ways_.resize(forms.size());
    for (std::size_t w = 0; w < forms.size(); ++w) {
        ways_[w].form = forms[w];
        ways_[w].room = room(item, forms[w], lengthMm);
        if (ways_[w].room) gather(item, forms[w], ways_[w].others);
    }
    drawPlaces(item);
    std::array<Candidate, kBest> best;
    cheapest(best);
    constexpr double kReach = 0.04; // of the piece's size
    const Bounds& b = forms_.form(layout_.form[item]).bounds;
    const double reach = std::sqrt(b.width() * b.height()) * kReach;
    for (Candidate& candidate : best)
        if (candidate.cost < kNever) refine(ways_[candidate.way], candidate, reach);
    const Candidate& chosen =
        *std::min_element(best.begin(), best.end(), [](const auto& x, const auto& y) { return x.cost < y.cost; });
    if (chosen.cost == kNever) return;
    layout_.form[item] = ways_[chosen.way].form;
    layout_.at[item] = chosen.at;
}

double ShapeSearch::strain(const std::vector<Point>& at, std::vector<Point>& slope) {
    std::fill(slope.begin(), slope.end(), Point{});
    tightest_ = 0;
    double sum = 0;
    for (const Tie& tie : ties_) {
        const Point other = tie.j < count_ ? at[tie.j] : fixed_[tie.j - count_].at;
        const Point place = tie.meeting.turn(other - at[tie.i]);
        const Bounds& b = tie.meeting.fit->bounds();
        if (place.x <= b.low.x || place.x >= b.high.x || place.y <= b.low.y || place.y >= b.high.y) continue;
        Point exit;
        const double depth = tie.meeting.fit->depth(place, exit);
        if (depth <= 0) continue;
        tightest_ = std::max(tightest_, depth);
        sum += depth * depth;
        const Point grows = tie.meeting.turn.back(place - exit) * 2; // as j moves
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
            const ShapeForms::Meeting& met = meeting(layout_.form[i], other);
            if (!met.fit->corners().empty()) ties_.push_back({i, j, met});
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

} // namespace westrum
