#include "core/cutting/shape_placing.h"

#include "core/cutting/shape_attempt.h"
#include "core/cutting/shape_forms.h"
#include "core/cutting/shape_rows.h"

#include <algorithm>
#include <array>
#include <limits>
#include <mutex>
#include <numeric>
#include <thread>

namespace westrum {

namespace {

constexpr std::size_t kMostSearched = 250; ///< pieces up to which overlaps are searched; beyond, rows must do
constexpr std::size_t kSearches = 2; ///< side by side, whatever processors there are: the answer must not depend on it

// Large pieces may be laid alone first, then all. Each stage begins with what the one before has come to, the other
// pieces put in, and with layouts of its own.
constexpr double kLargeOfArea = 0.92;
/// Up to which share of the effort a stage does what.
struct Shares {
    double filled;   ///< pieces are put into layouts of the stage before
    double started;  ///< first layouts are made
    double explored; ///< the better ones of both kinds are gone on with
};
using Schedule = std::array<Shares, 2>;
constexpr Schedule kAllAtOnce{{{0, 0.32, 0.95}}};
constexpr Schedule kLargeFirst{{{0, 0.1, 0.25}, {0.38, 0.5, 0.95}}};
constexpr double kExplored = 0.95; // in any of them; then the best is squeezed

using Attempts = std::vector<ShapeAttempt>;

void shortestFirst(Attempts& attempts) {
    std::stable_sort(attempts.begin(), attempts.end(),
                     [](const ShapeAttempt& a, const ShapeAttempt& b) { return a.length < b.length; });
}

/// Does the work of each search in a thread of its own. What they make of it does not depend on who is first.
template <class Work> void sideBySide(const Work& work) {
    std::vector<std::jthread> threads;
    for (std::size_t i = 1; i < kSearches; ++i) threads.emplace_back([&work, i] { work(i); });
    work(0);
}

/// The attempts that each search makes, the first search's before the second's.
template <class Work> Attempts fromEach(const Work& work) {
    std::vector<Attempts> lists(kSearches);
    sideBySide([&](std::size_t i) { lists[i] = work(i); });
    Attempts all;
    for (Attempts& list : lists)
        all.insert(all.end(), std::make_move_iterator(list.begin()), std::make_move_iterator(list.end()));
    return all;
}

class Placing {
public:
    Placing(const ShapesProblem& problem, const Effort& effort, const std::function<void(const ShapesPlan&)>& progress)
        : problem_(problem), effort_(effort), progress_(progress), forms_(problem), bound_(shortestLengthMm(problem)) {}

    ShapesPlan run();

private:
    using Searches = std::vector<ShapeShortener>;

    ShapesPlan planOf(const ShapeLayout& layout, double length) const;
    void publish(const ShapeLayout& layout, double length);
    void prepare();
    ShapeLayout rows();
    double lengthOf(const ShapeLayout& layout) const;
    Searches searchesFor(const std::vector<std::size_t>& items, std::uint64_t seed);
    Attempts start(ShapeShortener& search, const ShapeAttempt& rows, double until);
    static Attempts explore(Searches& searches, Attempts attempts, double from, double to);
    [[nodiscard]] double areaOf(std::size_t item) const {
        return forms_.form(forms_.formsOf(pieces_[item]).front()).areaMm2;
    }
    [[nodiscard]] std::vector<std::size_t> large(double ofArea) const;
    [[nodiscard]] bool othersAreSmall(const std::vector<std::size_t>& large) const;
    [[nodiscard]] std::vector<std::vector<std::size_t>> stages() const;
    static Attempts fill(Searches& searches, const ShapeAttempt& rows, const Attempts& laid,
                         const std::vector<std::size_t>& items, double until);

    const ShapesProblem& problem_;
    const Effort& effort_;
    const std::function<void(const ShapesPlan&)>& progress_;
    ShapeForms forms_;
    double bound_;
    std::vector<std::size_t> pieces_; // of each item, its place in the problem's list
    std::vector<ShapeSearch::Fixed> fixed_;
    std::mutex publishing_;
    double published_ = std::numeric_limits<double>::infinity();
};

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

double Placing::lengthOf(const ShapeLayout& layout) const {
    double length = 0;
    for (std::size_t i = 0; i < pieces_.size(); ++i)
        length = std::max(length, layout.at[i].x + forms_.form(layout.form[i]).bounds.high.x);
    return length;
}

void Placing::publish(const ShapeLayout& layout, double length) {
    if (!progress_) return;
    const std::scoped_lock lock(publishing_);
    if (length >= published_) return;
    published_ = length;
    progress_(planOf(layout, length));
}

/// Makes the no-fit regions that the search is going to ask for. They take part of the time, so that what is left can
/// be shared out. A search of few moves makes those that it meets.
void Placing::prepare() {
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
    sideBySide([&](std::size_t i) {
        std::size_t n = 0;
        for (std::size_t a = 0; a < forms.size(); ++a)
            for (std::size_t b = a; b < forms.size() && effort_.spent(0) < kMostOfEffort; ++b)
                if (meet(forms[a], forms[b]) && forms_.sharedBy(forms[a], forms[b]) == std::pair(forms[a], forms[b]) &&
                    n++ % kSearches == i)
                    forms_.meeting(forms[a], forms[b]);
    });
}

/// A layout by bounding boxes: groups one after the other, in each the highest first, lying as short as they may.
ShapeLayout Placing::rows() {
    ShapeRows rows(problem_, forms_);
    for (const ShapeSearch::Fixed& f : fixed_) rows.block(forms_.form(f.form).bounds, f.at);
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

/// They differ in their dice only.
/// @param items  that they move; plans of all are published
Placing::Searches Placing::searchesFor(const std::vector<std::size_t>& items, std::uint64_t seed) {
    std::vector<std::size_t> pieces;
    for (const std::size_t i : items) pieces.push_back(pieces_[i]);
    ShapeShortener::Found found;
    if (items.size() == pieces_.size())
        found = [this](const ShapeLayout& layout, double length) { publish(layout, length); };
    Searches list;
    for (std::size_t i = 0; i < kSearches; ++i)
        list.emplace_back(problem_, forms_, effort_, bound_, ShapeSearch(problem_, forms_, pieces, fixed_, seed + i),
                          pieces, found);
    return list;
}

/// One search's first attempts: the rows, then as many from anywhere as the effort allows; none gets too little.
Attempts Placing::start(ShapeShortener& search, const ShapeAttempt& rows, double until) {
    constexpr double kMostStarts = 12;
    constexpr double kLeastMoves = 10000; // for one, of all pieces
    constexpr double kLonger = 1.04;      // than the shortest so far
    Attempts attempts{rows};
    const double from = search.spent();
    const std::int64_t made = search.moves();
    if (from >= until) return attempts;
    double share = (until - from) / kMostStarts;
    search.advance(attempts[0], from + share, kExplored);
    const double least = kLeastMoves * double(search.items()) / double(pieces_.size());
    if (const double moves = double(std::max<std::int64_t>(search.moves() - made, 1)); moves < least) {
        share = std::min(until - from, std::max(share, search.spent() - from) * least / moves);
        search.advance(attempts[0], from + share, kExplored);
    }
    double shortest = attempts[0].length;
    for (double end = from + 2 * share; end <= until * 1.0001 && !search.atItsLeast(); end += share) {
        ShapeAttempt next = rows;
        if (!search.scatter(next, shortest * kLonger, end)) continue;
        search.advance(next, end, kExplored);
        shortest = std::min(shortest, next.length);
        attempts.push_back(std::move(next));
    }
    return attempts;
}

/// A third of the attempts goes on, and so on, down to the best, which all searches share. Returns all as they were
/// left, the shortest first.
Attempts Placing::explore(Searches& searches, Attempts attempts, double from, double to) {
    const auto third = [](std::size_t count) { return (count + 2) / 3; };
    int levels = 0;
    for (std::size_t left = attempts.size(); left > 1; left = third(left)) ++levels;
    Attempts dropped;
    double begin = from;
    for (int level = 1; level <= levels; ++level) {
        shortestFirst(attempts);
        const auto end = attempts.begin() + std::ptrdiff_t(third(attempts.size()));
        dropped.insert(dropped.end(), std::make_move_iterator(end), std::make_move_iterator(attempts.end()));
        attempts.erase(end, attempts.end());
        if (attempts.size() < kSearches) attempts.resize(kSearches, ShapeAttempt(attempts.front()));
        const double until = from + (to - from) * level / levels;
        sideBySide([&](std::size_t i) {
            const std::size_t mine = (attempts.size() - i + kSearches - 1) / kSearches;
            for (std::size_t k = i, n = 1; k < attempts.size(); k += kSearches, ++n)
                searches[i].advance(attempts[k], begin + (until - begin) * double(n) / double(mine), kExplored);
        });
        begin = until;
    }
    attempts.insert(attempts.end(), std::make_move_iterator(dropped.begin()), std::make_move_iterator(dropped.end()));
    shortestFirst(attempts);
    return attempts;
}

/// The largest items that make up so much of the area, by place.
std::vector<std::size_t> Placing::large(double ofArea) const {
    std::vector<std::size_t> order(pieces_.size());
    std::iota(order.begin(), order.end(), std::size_t(0));
    if (ofArea >= 1) return order;
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return areaOf(a) > areaOf(b); });
    const double whole =
        std::accumulate(order.begin(), order.end(), 0.0, [&](double sum, std::size_t i) { return sum + areaOf(i); });
    double sum = 0;
    const auto end = std::find_if(order.begin(), order.end(), [&](std::size_t i) {
        const bool enough = sum >= ofArea * whole;
        sum += areaOf(i);
        return enough;
    });
    order.erase(end, order.end());
    std::sort(order.begin(), order.end());
    return order;
}

/// What lies best without the others has room for them only if they are small against what takes the area; one giant
/// among pieces that are nearly alike does not count.
bool Placing::othersAreSmall(const std::vector<std::size_t>& large) const {
    constexpr double kMostSize = 0.4; // of the mean size, by area, of all but the largest
    double largest = 0;
    double sum = 0;
    double ofSquares = 0;
    double largestOther = 0;
    for (std::size_t i = 0; i < pieces_.size(); ++i) {
        const double area = areaOf(i);
        largest = std::max(largest, area);
        sum += area;
        ofSquares += area * area;
        if (!std::binary_search(large.begin(), large.end(), i)) largestOther = std::max(largestOther, area);
    }
    return largestOther * (sum - largest) < kMostSize * (ofSquares - largest * largest);
}

/// The items that are laid first, if any are, then all.
std::vector<std::vector<std::size_t>> Placing::stages() const {
    constexpr std::size_t kMore = 6; // one more of so many, or the stage is not worth it
    std::vector<std::vector<std::size_t>> list;
    std::vector<std::size_t> items = large(kLargeOfArea);
    const std::size_t others = pieces_.size() - items.size();
    if (items.size() >= 2 && others * kMore >= pieces_.size() && othersAreSmall(items))
        list.push_back(std::move(items));
    list.push_back(large(1));
    return list;
}

/// What each search makes of the layouts of some items: the others are put in.
/// @param items  of `laid`, by their places among the items of the searches
Attempts Placing::fill(Searches& searches, const ShapeAttempt& rows, const Attempts& laid,
                       const std::vector<std::size_t>& items, double until) {
    constexpr std::size_t kMostFilled = 4; // by each search
    const std::size_t each = std::min(laid.size() / kSearches, kMostFilled);
    return fromEach([&](std::size_t i) {
        Attempts filled;
        const double from = searches[i].spent();
        for (std::size_t k = 0; k < each; ++k) {
            ShapeAttempt next = rows;
            const double end = from + (until - from) * double(k + 1) / double(each);
            if (!searches[i].fill(next, items, laid[k * kSearches + i], end)) continue;
            searches[i].advance(next, end, kExplored);
            filled.push_back(std::move(next));
        }
        return filled;
    });
}

ShapesPlan Placing::run() {
    std::vector<int> left;
    for (const ShapePiece& piece : problem_.pieces) left.push_back(piece.count);
    for (const PlacedShape& placed : problem_.fixed) {
        --left[placed.piece];
        fixed_.push_back({forms_.formFor(placed), placed.at});
    }
    for (std::size_t i = 0; i < problem_.forbidden.size(); ++i) fixed_.push_back({forms_.obstacle(i), {}});
    for (std::size_t i = 0; i < left.size(); ++i)
        for (int n = 0; n < left[i]; ++n) pieces_.push_back(i);

    ShapeAttempt first;
    first.best = rows();
    first.length = lengthOf(first.best);
    publish(first.best, first.length);
    if (pieces_.empty() || pieces_.size() > kMostSearched) return planOf(first.best, first.length);
    prepare();

    Searches searches;
    Attempts attempts;
    std::vector<std::size_t> before; // the items of the attempts
    std::uint64_t seed = effort_.seed * kSearches;
    constexpr std::uint64_t kOtherSeed = 1000;
    const std::vector<std::vector<std::size_t>> stages = this->stages();
    const Schedule& schedule = stages.size() > 1 ? kLargeFirst : kAllAtOnce;
    for (std::size_t n = 0; n < stages.size(); ++n) {
        const std::vector<std::size_t>& items = stages[n];
        const Shares& until = schedule[n];
        Searches next = searchesFor(items, seed);
        seed += kOtherSeed;
        ShapeAttempt rows;
        for (const std::size_t i : items) {
            rows.best.form.push_back(first.best.form[i]);
            rows.best.at.push_back(first.best.at[i]);
        }
        rows.length = next.front().lengthOf(rows.best);
        for (std::size_t i = 0; i < searches.size(); ++i) next[i].countMoves(searches[i].moves());
        searches = std::move(next);

        for (std::size_t& item : before)
            item = std::size_t(std::lower_bound(items.begin(), items.end(), item) - items.begin());
        Attempts filled = fill(searches, rows, attempts, before, until.filled);
        attempts = fromEach([&](std::size_t i) { return start(searches[i], rows, until.started); });
        attempts.insert(attempts.end(), std::make_move_iterator(filled.begin()), std::make_move_iterator(filled.end()));
        attempts = explore(searches, std::move(attempts), until.started, until.explored);
        before = items;
    }
    sideBySide([&](std::size_t i) {
        searches[i].take(attempts.front());
        searches[i].compress();
    });
    const auto best =
        std::min_element(searches.begin(), searches.end(),
                         [](const ShapeShortener& a, const ShapeShortener& b) { return a.length() < b.length(); });
    return planOf(best->best(), best->length());
}

} // namespace

ShapesPlan placeOnRoll(const ShapesProblem& problem, const Effort& effort,
                       const std::function<void(const ShapesPlan&)>& progress) {
    return Placing(problem, effort, progress).run();
}

} // namespace westrum
