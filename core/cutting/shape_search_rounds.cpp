#include "core/cutting/shape_search.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>
#include <numeric>

namespace westrum {

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
