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
                d.y + b.high.y > a.low.y - gap) {
                const auto& [fit, turn] = meeting(form, otherForm);
                depth = fit->depth(turn(d));
            }
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
    // How the weight of an overlap that stays grows in each round, by its depth, and fades once it is gone.
    constexpr double kGrowsLeast = 1.1;
    constexpr double kGrowsMost = 1.5;
    constexpr double kFades = 0.99;
    constexpr int kEarly = 5; // rounds after which it shows whether there is hope
    std::fill(weight_.begin(), weight_.end(), 1.0);
    early_.reset();
    int round = 0;
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
        if (++round == kEarly) {
            early_ = least;
            if (least > hopelessMm) break;
        }
        if (without > patience || effort.spent(moves) >= 1) break;
        for (std::size_t k = 0; k < weight_.size(); ++k) {
            if (overlaps_[k] > kTouching)
                weight_[k] *= kGrowsLeast + (kGrowsMost - kGrowsLeast) * overlaps_[k] / deepest_;
            else
                weight_[k] = std::max(1.0, weight_[k] * kFades);
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
        layout_.form[i] = forms[i == largest_ ? scattered_ % forms.size() : dice_.below(forms.size())];
        const Bounds& b = forms_.form(layout_.form[i]).bounds;
        const int group = problem_.pieces[pieces_[i]].group;
        const bool grouped = group >= 0 && std::size_t(group) < from.size();
        const double low = grouped ? from[std::size_t(group)] : 0;
        const double wide = grouped ? groupSpanMm[std::size_t(group)] : lengthMm;
        layout_.at[i] = {low - b.low.x + dice_.unit() * std::max(0.0, wide - b.width()),
                         dice_.unit() * std::max(0.0, problem_.widthMm - b.height()) - b.low.y};
    }
    ++scattered_;
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
