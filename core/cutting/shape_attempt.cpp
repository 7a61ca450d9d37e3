#include "core/cutting/shape_attempt.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace westrum {

namespace {

constexpr int kPatience = 30;
constexpr double kFineStep = 0.015;     // from here on what is found is squeezed at once
constexpr double kShortestStep = 0.004; // shares of a layout's length

} // namespace

ShapeShortener::ShapeShortener(const ShapesProblem& problem, ShapeForms& forms, const Effort& effort, double least,
                               ShapeSearch search, std::vector<std::size_t> pieces, Found found)
    : problem_(problem),
      forms_(forms),
      effort_(effort),
      least_(least),
      search_(std::move(search)),
      pieces_(std::move(pieces)),
      found_(std::move(found)) {}

void ShapeShortener::take(const ShapeAttempt& attempt) {
    best_ = attempt.best;
    length_ = attempt.length;
    keepGroups();
}

/// The search's layout is free of overlaps within `aim`: it becomes the best.
void ShapeShortener::found(double aim) {
    best_ = search_.layout();
    length_ = std::min(aim, search_.lengthOf(best_));
    keepGroups();
    if (found_) found_(best_, length_);
}

void ShapeShortener::keepGroups() {
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
            const ShapeForm& form = forms_.form(best_.form[i]);
            low = std::min(low, best_.at[i].x + form.bounds.low.x);
            high = std::max(high, best_.at[i].x + form.bounds.high.x);
            area += form.areaMm2;
            widest = std::max(widest, form.bounds.width());
        }
        const double wanted = std::max(widest, area / problem_.widthMm) * 1.2 + problem_.gapMm;
        span[std::size_t(g)] = std::max(wanted, high - low);
    }
    search_.groupSpanMm = std::move(span);
}

void ShapeShortener::parted(ShapeAttempt& attempt, double aim) const {
    attempt.best = search_.layout();
    attempt.length = std::min(aim, search_.lengthOf(attempt.best));
    attempt.step = kFineStep;
}

bool ShapeShortener::scatter(ShapeAttempt& attempt, double aim, double until) {
    constexpr double kEasier = 1.003; // after each failure
    for (; spent() < until; aim *= kEasier) {
        search_.scatter(aim);
        if (!separate(aim, kPatience)) continue;
        parted(attempt, aim);
        return true;
    }
    return false;
}

bool ShapeShortener::fill(ShapeAttempt& attempt, const std::vector<std::size_t>& items, const ShapeAttempt& laid,
                          double until) {
    take(attempt);         // what groups may spread
    double easier = 0.002; // after a failure, and more after the next: the others may need much
    constexpr double kMore = 1.5;
    for (double aim = std::max(least_, laid.length); spent() < until; aim *= 1 + easier, easier *= kMore) {
        search_.scatter(aim);
        ShapeLayout layout = search_.layout();
        for (std::size_t i = 0; i < items.size(); ++i) {
            layout.form[items[i]] = laid.best.form[i];
            layout.at[items[i]] = laid.best.at[i];
        }
        search_.setLayout(std::move(layout));
        if (!separate(aim, kPatience)) continue;
        parted(attempt, aim);
        return true;
    }
    return false;
}

/// Takes out what little patience finds at once, so that lengths can be compared.
void ShapeShortener::squeeze(double until) {
    constexpr double kMost = 0.004;
    constexpr double kLeast = 0.0002;
    constexpr int kLittlePatience = 4;
    double share = kMost;
    for (int n = 0; share > kLeast && spent() < until && !atItsLeast(); ++n) {
        const double aim = std::max(least_, length_ * (1 - share));
        search_.setLayout(best_);
        if (n % 2 == 1) search_.shortenAt(length_ - aim); // else what lies beyond the end is pushed in
        search_.pushInside(aim);
        if (separate(aim, kLittlePatience)) {
            found(aim);
            share *= 1.5;
        } else {
            share *= 0.6;
        }
    }
}

/// Gives up early what overlaps more than most tries at this length did by then. Of the tries that succeed a fifth is
/// lost so, of all moves three fifths.
bool ShapeShortener::hopefullySeparate(ShapeAttempt& attempt) {
    constexpr std::size_t kLeast = 10; // tries to compare with
    constexpr std::size_t kMost = 100; // the last ones
    constexpr double kHopeful = 0.3;   // share of them
    if (attempt.early.size() >= kLeast) {
        std::vector<double> last = attempt.early;
        const auto limit = last.begin() + std::ptrdiff_t(kHopeful * double(last.size()));
        std::nth_element(last.begin(), limit, last.end());
        search_.hopelessMm = *limit;
    }
    const bool found = separate(attempt.aim, kPatience);
    search_.hopelessMm = std::numeric_limits<double>::infinity();
    if (search_.early()) attempt.early.push_back(*search_.early());
    if (attempt.early.size() > kMost) attempt.early.erase(attempt.early.begin());
    return found;
}

/// The search's layout is kept with those that failed, unless it is one of them come back.
void ShapeShortener::failedAgain(ShapeAttempt& attempt) const {
    constexpr std::size_t kMostKept = 12;
    constexpr double kAlike = 0.005; // share of the overlap
    const double overlap = search_.overlap();
    for (const double known : attempt.overlaps)
        if (std::abs(known - overlap) < kAlike * overlap) return;
    attempt.overlaps.push_back(overlap);
    const auto after = std::upper_bound(attempt.failed.begin(), attempt.failed.end(), overlap,
                                        [](double o, const ShapeAttempt::Failed& f) { return o < f.overlap; });
    attempt.failed.insert(after, {overlap, search_.layout()});
    if (attempt.failed.size() > kMostKept) attempt.failed.pop_back();
}

/// One of the layouts that could not be parted, rather one with little overlap, is disturbed.
void ShapeShortener::disturb(const ShapeAttempt& attempt) {
    const double lot = search_.dice().unit();
    search_.setLayout(attempt.failed[std::size_t(lot * lot * double(attempt.failed.size()))].layout);
    search_.disturb(attempt.aim);
}

void ShapeShortener::advance(ShapeAttempt& attempt, double until, double untilSqueezed) {
    constexpr int kMostFailures = 20; // at one length, before a smaller step is tried
    take(attempt);
    if (attempt.failures > 0) disturb(attempt); // the search held another one meanwhile
    while (spent() < until && !atItsLeast()) {
        if (attempt.failures == 0) {
            attempt.aim = std::max(least_, length_ * (1 - attempt.step));
            search_.setLayout(best_);
            search_.shortenAt(length_ - attempt.aim);
            search_.pushInside(attempt.aim);
            attempt.failed.clear();
            attempt.overlaps.clear();
            attempt.early.clear();
        }
        if (hopefullySeparate(attempt)) {
            found(attempt.aim);
            if (attempt.step <= kFineStep) squeeze(untilSqueezed);
            if (attempt.failures <= 1) attempt.step = std::min(ShapeAttempt::kLongestStep, attempt.step * 1.5);
            attempt.failures = 0;
            continue;
        }
        ++attempt.failures;
        if (attempt.step > kShortestStep && attempt.failures > kMostFailures) {
            attempt.step = std::max(kShortestStep, attempt.step * 0.5);
            attempt.failures = 0;
            continue;
        }
        failedAgain(attempt);
        disturb(attempt);
    }
    attempt.best = best_;
    attempt.length = length_;
}

void ShapeShortener::compress() {
    constexpr double kMost = 0.004;
    constexpr double kLeast = 0.00002;
    constexpr int kMuchPatience = 40;
    const double start = spent();
    double share = kMost;
    while (spent() < 1 && !atItsLeast() && share > kLeast) {
        const double gone = std::clamp((spent() - start) / std::max(1e-9, 1 - start), 0.0, 1.0);
        share = std::min(share, kMost * std::pow(0.01, gone));
        const double aim = std::max(least_, length_ * (1 - share));
        search_.setLayout(best_);
        search_.shortenAt(length_ - aim);
        search_.pushInside(aim);
        if (separate(aim, kMuchPatience))
            found(aim);
        else
            share *= 0.9;
    }
}

} // namespace westrum
