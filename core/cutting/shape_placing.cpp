#include "core/cutting/shape_placing.h"

#include "core/cutting/shape_forms.h"
#include "core/cutting/shape_search.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <mutex>
#include <thread>

namespace westrum {

namespace {

constexpr double kFuzzMm = 1e-6;
constexpr std::size_t kMostSearched = 250; ///< pieces up to which overlaps are searched; beyond, rows must do
// Steps by which a layout is shortened, as shares of its length.
constexpr double kLongestStep = 0.03;
constexpr double kFineStep = 0.015; ///< from here on what is found is squeezed at once
constexpr double kShortestStep = 0.004;
// Shares of the effort: first layouts of many orders are made; the better ones are gone on with; the best is squeezed.
constexpr double kUntilStarted = 0.36;
constexpr double kUntilExplored = 0.95;

struct Rectangle {
    Point low, high;
};

/// Places by bounding boxes: each piece as near to the start as it goes without touching another's box.
class Rows {
public:
    Rows(const ShapesProblem& problem, ShapeForms& forms) : problem_(problem), forms_(forms) {}

    void block(const Bounds& bounds, Point at) { taken_.push_back({bounds.low + at, bounds.high + at}); }

    Point place(int form) {
        const Bounds& b = forms_.form(form).bounds;
        const std::size_t piece = forms_.form(form).piece;
        const PatternRepeat repeat =
            piece < problem_.pieces.size() && problem_.pieces[piece].offPattern ? PatternRepeat{} : problem_.repeat;
        // Few pieces: every corner that the boxes make. Many: columns, one after another.
        if (taken_.size() < 200) {
            std::vector<double> xs{0};
            std::vector<double> ys{0};
            for (const Rectangle& r : taken_) {
                xs.push_back(r.high.x + problem_.gapMm);
                ys.push_back(r.high.y + problem_.gapMm);
            }
            std::sort(xs.begin(), xs.end());
            std::sort(ys.begin(), ys.end());
            for (const double x : xs)
                for (const double y : ys)
                    if (const auto p = fitted({x - b.low.x, y - b.low.y}, b, repeat)) return taken(*p, b);
        }
        while (true) {
            if (const auto p = fitted({columnX_ - b.low.x, columnY_ - b.low.y}, b, repeat)) {
                columnY_ = p->y + b.high.y + problem_.gapMm;
                columnHigh_ = std::max(columnHigh_, p->x + b.high.x + problem_.gapMm);
                return taken(*p, b);
            }
            double end = columnHigh_;
            if (columnY_ == 0) { // not even at the column's foot: beyond whatever lies there
                for (const Rectangle& r : taken_)
                    if (r.high.x > columnX_ - kFuzzMm) end = std::max(end, r.high.x + problem_.gapMm);
                end = std::max(end, columnX_ + 1);
            }
            columnX_ = end;
            columnY_ = 0;
        }
    }

private:
    /// The place, moved up to the pattern's next point, if nothing is in the way.
    [[nodiscard]] std::optional<Point> fitted(Point p, const Bounds& b, const PatternRepeat& repeat) const {
        if (repeat.alongMm > 0)
            p.x = repeat.phase.x + std::ceil((p.x - repeat.phase.x) / repeat.alongMm - 1e-9) * repeat.alongMm;
        if (repeat.acrossMm > 0)
            p.y = repeat.phase.y + std::ceil((p.y - repeat.phase.y) / repeat.acrossMm - 1e-9) * repeat.acrossMm;
        const Rectangle box{p + b.low, p + b.high};
        if (box.high.y > problem_.widthMm + kShapeToleranceMm || box.low.x < -kFuzzMm || box.low.y < -kFuzzMm)
            return std::nullopt;
        const double gap = problem_.gapMm - kFuzzMm;
        for (const Rectangle& r : taken_)
            if (box.low.x < r.high.x + gap && box.high.x > r.low.x - gap && box.low.y < r.high.y + gap &&
                box.high.y > r.low.y - gap)
                return std::nullopt;
        return p;
    }
    Point taken(Point p, const Bounds& b) {
        taken_.push_back({p + b.low, p + b.high});
        return p;
    }

    const ShapesProblem& problem_;
    ShapeForms& forms_;
    std::vector<Rectangle> taken_;
    double columnX_ = 0;
    double columnY_ = 0;
    double columnHigh_ = 0;
};

/// A layout on its way: what it has come to, and how it is being shortened.
struct Attempt {
    ShapeLayout best;
    double length = 0;
    double step = kLongestStep;
    double aim = 0;   ///< the length that is tried
    int failures = 0; ///< at this length
    struct Failed {
        double overlap;
        ShapeLayout layout;
    };
    std::vector<Failed> failed; ///< the best of those, the least overlap first; some as long as there are failures
};

/// One of the searches that run side by side, and the best of the attempt that it has in hand.
struct Searcher {
    ShapeSearch search;
    ShapeLayout best;
    double length = 0;
    std::int64_t moves = 0;
};

class Placing {
public:
    Placing(const ShapesProblem& problem, const Effort& effort, const std::function<void(const ShapesPlan&)>& progress)
        : problem_(problem), effort_(effort), progress_(progress), forms_(problem), bound_(shortestLengthMm(problem)) {}

    ShapesPlan run();

private:
    ShapesPlan planOf(const ShapeLayout& layout, double length) const;
    void prepare(std::size_t searches);
    ShapeLayout rows(const std::vector<ShapeSearch::Fixed>& fixed);
    void found(Searcher& searcher, double aim);
    void keepGroups(Searcher& searcher) const;
    void take(Searcher& searcher, const Attempt& attempt) const;
    bool scatter(Searcher& searcher, Attempt& attempt, double aim, double until);
    void squeeze(Searcher& searcher);
    void again(Searcher& searcher, const Attempt& attempt);
    void advance(Searcher& searcher, Attempt& attempt, double until);
    std::vector<Attempt> start(Searcher& searcher, const Attempt& rows);
    void explore(std::vector<Searcher>& searchers, const Attempt& rows);
    void compress(Searcher& searcher);
    [[nodiscard]] bool least(const Searcher& searcher) const { return searcher.length <= bound_ + kShapeToleranceMm; }

    const ShapesProblem& problem_;
    const Effort& effort_;
    const std::function<void(const ShapesPlan&)>& progress_;
    ShapeForms forms_;
    double bound_;
    std::vector<std::size_t> pieces_;
    std::mutex publishing_;
    double published_ = std::numeric_limits<double>::infinity();
};

/// Does the work of each search in a thread of its own. What they make of it does not depend on who is first.
template <class Work> void sideBySide(std::size_t searches, const Work& work) {
    std::vector<std::jthread> threads;
    for (std::size_t i = 1; i < searches; ++i) threads.emplace_back([&work, i] { work(i); });
    work(0);
}

ShapesPlan Placing::planOf(const ShapeLayout& layout, double length) const {
    ShapesPlan plan;
    plan.placements = problem_.fixed;
    for (std::size_t i = 0; i < pieces_.size(); ++i)
        plan.placements.push_back({pieces_[i], forms_.form(layout.form[i]).rotationRad, layout.at[i]});
    for (const PlacedShape& placed : problem_.fixed)
        length = std::max(length, boundsOf(lying(problem_.pieces[placed.piece], placed)).high.x);
    plan.lengthMm = length;
    plan.lowerBoundMm = std::min(bound_, length);
    plan.proven = length <= plan.lowerBoundMm + kShapeToleranceMm;
    return plan;
}

/// The searcher's layout is free of overlaps within `aim`: it becomes its best.
void Placing::found(Searcher& searcher, double aim) {
    searcher.best = searcher.search.layout();
    searcher.length = std::min(aim, searcher.search.lengthOf(searcher.best));
    keepGroups(searcher);
    if (!progress_) return;
    const std::scoped_lock lock(publishing_);
    if (searcher.length >= published_) return;
    published_ = searcher.length;
    progress_(planOf(searcher.best, searcher.length));
}

void Placing::keepGroups(Searcher& searcher) const {
    // A group may spread as far as it does now, or a fifth more than its own area takes.
    int groups = 0;
    for (const std::size_t p : pieces_) groups = std::max(groups, problem_.pieces[p].group + 1);
    std::vector<double> span(std::size_t(groups), 0);
    for (int g = 0; g < groups; ++g) {
        double low = std::numeric_limits<double>::infinity();
        double high = -low;
        double area = 0;
        double widest = 0;
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            if (problem_.pieces[pieces_[i]].group != g) continue;
            const ShapeForm& form = forms_.form(searcher.best.form[i]);
            low = std::min(low, searcher.best.at[i].x + form.bounds.low.x);
            high = std::max(high, searcher.best.at[i].x + form.bounds.high.x);
            area += form.areaMm2;
            widest = std::max(widest, form.bounds.width());
        }
        const double wanted = std::max(widest, area / problem_.widthMm) * 1.2 + problem_.gapMm;
        span[std::size_t(g)] = std::max(wanted, high - low);
    }
    searcher.search.groupSpanMm = std::move(span);
}

/// The searcher goes on with the attempt.
void Placing::take(Searcher& s, const Attempt& attempt) const {
    s.best = attempt.best;
    s.length = attempt.length;
    keepGroups(s);
}

/// Looks for a layout from anywhere, of a given length or little more. False: none in the time.
bool Placing::scatter(Searcher& s, Attempt& attempt, double aim, double until) {
    constexpr int kPatience = 20;
    constexpr double kEasier = 1.003; // after each failure
    for (; effort_.spent(s.moves) < until; aim *= kEasier) {
        s.search.scatter(aim);
        if (!s.search.separate(aim, kPatience, effort_, s.moves)) continue;
        attempt.best = s.search.layout();
        attempt.length = std::min(aim, s.search.lengthOf(attempt.best));
        attempt.step = kFineStep;
        return true;
    }
    return false;
}

/// Takes out what little patience finds at once, so that lengths can be compared.
void Placing::squeeze(Searcher& s) {
    constexpr double kMost = 0.004;
    constexpr double kLeast = 0.0002;
    constexpr int kPatience = 4;
    double share = kMost;
    for (int n = 0; share > kLeast && effort_.spent(s.moves) < kUntilExplored && !least(s); ++n) {
        const double aim = std::max(bound_, s.length * (1 - share));
        s.search.setLayout(s.best);
        if (n % 2 == 1) s.search.shortenAt(s.length - aim); // else what lies beyond the end is pushed in
        s.search.pushInside(aim);
        if (s.search.separate(aim, kPatience, effort_, s.moves)) {
            found(s, aim);
            share *= 1.5;
        } else {
            share *= 0.6;
        }
    }
}

/// One of the layouts that could not be parted, rather one with little overlap, is disturbed.
void Placing::again(Searcher& s, const Attempt& attempt) {
    const double lot = s.search.dice().unit();
    s.search.setLayout(attempt.failed[std::size_t(lot * lot * double(attempt.failed.size()))].layout);
    s.search.disturb(attempt.aim);
}

/// Shortens the attempt step by step; when pieces cannot be parted, the layout is disturbed and it is tried again.
void Placing::advance(Searcher& s, Attempt& attempt, double until) {
    constexpr int kPatience = 20;
    constexpr int kMostFailures = 20; // at one length, before a smaller step is tried
    constexpr std::size_t kMostKept = 12;
    take(s, attempt);
    if (attempt.failures > 0) again(s, attempt); // the searcher held another one meanwhile
    while (effort_.spent(s.moves) < until && !least(s)) {
        if (attempt.failures == 0) {
            attempt.aim = std::max(bound_, s.length * (1 - attempt.step));
            s.search.setLayout(s.best);
            s.search.shortenAt(s.length - attempt.aim);
            s.search.pushInside(attempt.aim);
            attempt.failed.clear();
        }
        if (s.search.separate(attempt.aim, kPatience, effort_, s.moves)) {
            found(s, attempt.aim);
            if (attempt.step <= kFineStep) squeeze(s);
            if (attempt.failures <= 1) attempt.step = std::min(kLongestStep, attempt.step * 1.5);
            attempt.failures = 0;
            continue;
        }
        ++attempt.failures;
        if (attempt.step > kShortestStep && attempt.failures > kMostFailures) {
            attempt.step = std::max(kShortestStep, attempt.step * 0.5);
            attempt.failures = 0;
            continue;
        }
        auto& failed = attempt.failed;
        failed.push_back({s.search.overlap(), s.search.layout()});
        std::stable_sort(failed.begin(), failed.end(),
                         [](const auto& x, const auto& y) { return x.overlap < y.overlap; });
        if (failed.size() > kMostKept) failed.pop_back();
        again(s, attempt);
    }
    attempt.best = s.best;
    attempt.length = s.length;
}

/// Makes the no-fit regions that the search is going to ask for. They take part of the time, so that what is left can
/// be shared out. A search of few moves makes those that it meets.
void Placing::prepare(std::size_t searches) {
    constexpr double kMostOfEffort = 0.2;
    std::vector<int> forms; // rising
    for (std::size_t i = 0; i < pieces_.size(); ++i) {
        if (i > 0 && pieces_[i] == pieces_[i - 1]) continue;
        const std::vector<int>& ways = forms_.formsOf(pieces_[i]);
        forms.insert(forms.end(), ways.begin(), ways.end());
    }
    const auto meet = [&](int a, int b) {
        const std::size_t piece = forms_.form(a).piece;
        return piece != forms_.form(b).piece || problem_.pieces[piece].count > 1;
    };
    if (effort_.iterations > 0 && effort_.iterations < std::int64_t(forms.size() * forms.size() / 2)) return;
    sideBySide(searches, [&](std::size_t i) {
        for (std::size_t a = i; a < forms.size(); a += searches)
            for (std::size_t b = a; b < forms.size() && effort_.spent(0) < kMostOfEffort; ++b)
                if (meet(forms[a], forms[b])) forms_.noFit(forms[a], forms[b]);
    });
}

/// One search's first attempts: the rows, then as many from anywhere as the effort allows; none gets too little.
std::vector<Attempt> Placing::start(Searcher& s, const Attempt& rows) {
    constexpr double kMostStarts = 8;
    constexpr double kLeastMoves = 20000; // for one
    constexpr double kLonger = 1.05;      // than the shortest so far
    std::vector<Attempt> attempts{rows};
    const double from = effort_.spent(s.moves);
    if (from >= kUntilStarted) return attempts;
    double share = (kUntilStarted - from) / kMostStarts;
    advance(s, attempts[0], from + share);
    if (const double moves = double(std::max<std::int64_t>(s.moves, 1)); moves < kLeastMoves) {
        share = std::min(kUntilStarted - from, std::max(share, effort_.spent(s.moves) - from) * kLeastMoves / moves);
        advance(s, attempts[0], from + share);
    }
    double shortest = attempts[0].length;
    for (double until = from + 2 * share; until <= kUntilStarted * 1.0001 && !least(s); until += share) {
        Attempt next = rows;
        if (!scatter(s, next, shortest * kLonger, until)) continue;
        advance(s, next, until);
        shortest = std::min(shortest, next.length);
        attempts.push_back(std::move(next));
    }
    return attempts;
}

/// Many attempts at first; a quarter of them goes on, and so on, down to the best, which all searches share.
void Placing::explore(std::vector<Searcher>& searchers, const Attempt& rows) {
    const std::size_t wide = searchers.size();
    std::vector<std::vector<Attempt>> first(wide);
    sideBySide(wide, [&](std::size_t i) { first[i] = start(searchers[i], rows); });
    std::vector<Attempt> attempts;
    for (auto& list : first) attempts.insert(attempts.end(), list.begin(), list.end());
    const auto shortestFirst = [&] {
        std::stable_sort(attempts.begin(), attempts.end(),
                         [](const Attempt& a, const Attempt& b) { return a.length < b.length; });
    };
    const auto quarter = [](std::size_t count) { return (count + 3) / 4; };
    int levels = 0;
    for (std::size_t left = attempts.size(); left > 1; left = quarter(left)) ++levels;
    double from = kUntilStarted;
    for (int level = 1; level <= levels; ++level) {
        shortestFirst();
        attempts.resize(quarter(attempts.size()));
        if (attempts.size() < wide) attempts.resize(wide, Attempt(attempts.front()));
        const double to = kUntilStarted + (kUntilExplored - kUntilStarted) * level / levels;
        sideBySide(wide, [&](std::size_t i) {
            const std::size_t mine = (attempts.size() - i + wide - 1) / wide;
            for (std::size_t k = i, n = 1; k < attempts.size(); k += wide, ++n)
                advance(searchers[i], attempts[k], from + (to - from) * double(n) / double(mine));
        });
        from = to;
    }
    shortestFirst();
    for (Searcher& s : searchers) take(s, attempts.front());
}

/// The best layout is squeezed: a little is taken out at a random line, less and less as the effort is used up.
void Placing::compress(Searcher& s) {
    constexpr double kMost = 0.004;
    constexpr double kLeast = 0.00002;
    constexpr int kPatience = 40;
    const double start = effort_.spent(s.moves);
    double share = kMost;
    while (effort_.spent(s.moves) < 1 && !least(s) && share > kLeast) {
        const double gone = std::clamp((effort_.spent(s.moves) - start) / std::max(1e-9, 1 - start), 0.0, 1.0);
        share = std::min(share, kMost * std::pow(0.01, gone));
        const double aim = std::max(bound_, s.length * (1 - share));
        s.search.setLayout(s.best);
        s.search.shortenAt(s.length - aim);
        s.search.pushInside(aim);
        if (s.search.separate(aim, kPatience, effort_, s.moves))
            found(s, aim);
        else
            share *= 0.9;
    }
}

/// A layout by bounding boxes: groups one after the other, in each the highest first, lying as short as they may.
ShapeLayout Placing::rows(const std::vector<ShapeSearch::Fixed>& fixed) {
    Rows rows(problem_, forms_);
    for (const ShapeSearch::Fixed& f : fixed) rows.block(forms_.form(f.form).bounds, f.at);
    std::vector<std::pair<std::size_t, int>> order;
    for (std::size_t i = 0; i < pieces_.size(); ++i) {
        const auto& ways = forms_.formsOf(pieces_[i]);
        order.push_back({i, *std::min_element(ways.begin(), ways.end(), [&](int a, int b) {
                             return forms_.form(a).bounds.width() < forms_.form(b).bounds.width();
                         })});
    }
    std::stable_sort(order.begin(), order.end(), [&](const auto& a, const auto& b) {
        const int ga = problem_.pieces[pieces_[a.first]].group;
        const int gb = problem_.pieces[pieces_[b.first]].group;
        if (ga != gb) return ga > gb;
        return forms_.form(a.second).bounds.width() > forms_.form(b.second).bounds.width();
    });
    ShapeLayout layout{std::vector<int>(pieces_.size()), std::vector<Point>(pieces_.size())};
    for (const auto& [i, form] : order) {
        layout.form[i] = form;
        layout.at[i] = rows.place(form);
    }
    return layout;
}

ShapesPlan Placing::run() {
    std::vector<int> left;
    for (const ShapePiece& piece : problem_.pieces) left.push_back(piece.count);
    std::vector<ShapeSearch::Fixed> fixed;
    for (const PlacedShape& placed : problem_.fixed) {
        --left[placed.piece];
        fixed.push_back({forms_.formFor(placed), placed.at});
    }
    for (std::size_t i = 0; i < problem_.forbidden.size(); ++i) fixed.push_back({forms_.obstacle(i), {}});
    for (std::size_t i = 0; i < left.size(); ++i)
        for (int n = 0; n < left[i]; ++n) pieces_.push_back(i);

    constexpr std::size_t kSearchers = 2; // the answer must not depend on how many processors there are
    std::vector<Searcher> searchers;
    Attempt start;
    start.best = rows(fixed);
    for (std::size_t i = 0; i < kSearchers; ++i) {
        searchers.push_back({ShapeSearch(problem_, forms_, pieces_, fixed, effort_.seed * kSearchers + i), start.best});
        searchers.back().search.setLayout(start.best);
    }
    // Two tempers, and two ways to disturb: neither is the better on all problems.
    searchers[0].search.disturbance = {.exchange = 0.1, .turn = 0.25, .shuffle = 0.5, .carry = 0.5};
    searchers[1].search.disturbance = {.carry = 0.5};
    searchers[1].search.temper = {1.5, 3.0, 0.8};
    Searcher& first = searchers.front();
    found(first, std::numeric_limits<double>::infinity());
    start.length = first.length;
    if (!pieces_.empty() && pieces_.size() <= kMostSearched) {
        prepare(kSearchers);
        explore(searchers, start);
        sideBySide(kSearchers, [&](std::size_t i) { compress(searchers[i]); });
    }
    const Searcher& best = *std::min_element(searchers.begin(), searchers.end(), [](const auto& a, const auto& b) {
        return a.length > 0 && (b.length <= 0 || a.length < b.length);
    });
    return planOf(best.best, best.length);
}

} // namespace

ShapesPlan placeOnRoll(const ShapesProblem& problem, const Effort& effort,
                       const std::function<void(const ShapesPlan&)>& progress) {
    return Placing(problem, effort, progress).run();
}

} // namespace westrum
