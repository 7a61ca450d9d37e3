#include "core/cutting/bar_packer.h"

#include <algorithm>
#include <utility>

namespace westrum {

namespace {

constexpr std::size_t kMostFills = 400;     // of one bar that are weighed against each other
constexpr std::size_t kMostDead = 400000;   // remembered failures
constexpr std::int64_t kMostProbes = 40000; // steps in listing the fills of one bar

using Bits = std::vector<std::uint64_t>;

void orShifted(Bits& into, const Bits& from, std::int64_t shift) {
    const auto words = std::size_t(shift / 64);
    const int bits = int(shift % 64);
    for (std::size_t i = into.size(); i-- > words;) {
        std::uint64_t word = from[i - words] << bits;
        if (bits > 0 && i > words) word |= from[i - words - 1] >> (64 - bits);
        into[i] |= word;
    }
}

/// Whether any bit from `low` to `high` is set; low <= high.
bool anyIn(const Bits& bits, std::int64_t low, std::int64_t high) {
    auto word = std::size_t(low / 64);
    const auto last = std::size_t(high / 64);
    std::uint64_t mask = ~0ULL << (low % 64);
    for (; word <= last; ++word, mask = ~0ULL) {
        if (word == last && high % 64 < 63) mask &= (1ULL << (high % 64 + 1)) - 1;
        if (bits[word] & mask) return true;
    }
    return false;
}

} // namespace

BarPacker::BarPacker(const BarInstance& instance, StockSet bars) : instance_(&instance), bars_(std::move(bars)) {}

std::uint64_t BarPacker::state() const {
    std::uint64_t hash = 0xcbf29ce484222325ULL;
    const auto mix = [&hash](int value) {
        hash ^= std::uint64_t(value) + 0x9E3779B97F4A7C15ULL + (hash << 6) + (hash >> 2);
        hash *= 0x100000001b3ULL;
    };
    for (const int n : left_) mix(n);
    for (const int n : demand_) mix(n);
    return hash;
}

bool BarPacker::fillsOf(std::size_t kind, std::size_t longest, std::int64_t slack, std::vector<Fill>& fills) {
    const std::int64_t room = instance_->capacity[kind] - instance_->size[longest];
    // The kinds of piece in an order shaken a little, so that other fills come first on another attempt.
    std::vector<std::pair<double, std::size_t>> order;
    for (std::size_t i = 0; i < demand_.size(); ++i)
        if (demand_[i] > (i == longest ? 1 : 0) && instance_->size[i] <= room)
            order.push_back({-double(instance_->size[i]) * dice_->between(0.7, 1.0), i});
    std::sort(order.begin(), order.end());
    const std::size_t count = order.size();
    const auto words = std::size_t(room / 64 + 1);
    if (reach_.size() < count + 1) reach_.resize(count + 1);
    reach_[count].assign(words, 0);
    reach_[count][0] = 1;
    const auto most = [&](std::size_t place) {
        const std::size_t i = order[place].second;
        return int(std::min<std::int64_t>(demand_[i] - (i == longest ? 1 : 0), room / instance_->size[i]));
    };
    for (std::size_t place = count; place-- > 0;) {
        reach_[place].assign(reach_[place + 1].begin(), reach_[place + 1].begin() + std::ptrdiff_t(words));
        Bits base = reach_[place];
        for (int left = most(place), step = 1; left > 0; step *= 2) {
            const int times = std::min(left, step);
            const std::int64_t shift = instance_->size[order[place].second] * times;
            if (shift <= room) orShifted(reach_[place], base, shift);
            base = reach_[place];
            left -= times;
        }
    }

    std::vector<int> chosen(demand_.size(), 0);
    chosen[longest] = 1;
    bool complete = true;
    std::int64_t probes = 0;
    const auto list = [&](const auto& self, std::size_t place, std::int64_t rest) -> void {
        if (fills.size() >= kMostFills || ++probes > kMostProbes) {
            complete = false;
            return;
        }
        if (place == count) {
            // A fill to which a piece could be added is never better than the one that has it.
            for (std::size_t i = demand_.size(); i-- > 0 && instance_->size[i] <= rest;)
                if (chosen[i] < demand_[i]) return;
            fills.push_back({chosen, rest, double(rest) * 4 + dice_->unit() * double(instance_->size[longest])});
            return;
        }
        const std::size_t i = order[place].second;
        for (int n = int(std::min<std::int64_t>(most(place), rest / instance_->size[i])); n >= 0; --n) {
            const std::int64_t after = rest - n * instance_->size[i];
            if (!anyIn(reach_[place + 1], std::max<std::int64_t>(0, after - slack), after)) continue;
            chosen[i] += n;
            self(self, place + 1, after);
            chosen[i] -= n;
        }
    };
    list(list, 0, room);
    return complete;
}

bool BarPacker::pack(std::int64_t slack) {
    std::size_t longest = 0;
    while (longest < demand_.size() && demand_[longest] == 0) ++longest;
    if (longest == demand_.size()) return true;
    if (steps_ % 16 == 0) stopped_ = stopped_ || (*over_)();
    if (steps_ > most_ || stopped_) {
        complete_ = false;
        return false;
    }
    const std::uint64_t here = state();
    if (dead_.contains(here)) return false;
    const bool completeBefore = std::exchange(complete_, true);

    std::vector<std::pair<std::size_t, Fill>> ways;
    for (std::size_t kind = 0; kind < left_.size(); ++kind) {
        if (left_[kind] == 0 || instance_->capacity[kind] < instance_->size[longest]) continue;
        std::vector<Fill> fills;
        complete_ = fillsOf(kind, longest, slack, fills) && complete_;
        for (Fill& fill : fills) ways.push_back({kind, std::move(fill)});
    }
    std::sort(ways.begin(), ways.end(), [](const auto& a, const auto& b) { return a.second.order < b.second.order; });
    for (auto& [kind, fill] : ways) {
        ++steps_;
        --left_[kind];
        for (std::size_t i = 0; i < demand_.size(); ++i) demand_[i] -= fill.pieces[i];
        packed_.push_back({kind, fill.pieces});
        if (pack(slack - fill.slack)) return true;
        packed_.pop_back();
        for (std::size_t i = 0; i < demand_.size(); ++i) demand_[i] += fill.pieces[i];
        ++left_[kind];
        if (steps_ > most_ || stopped_) {
            complete_ = false;
            break;
        }
    }
    if (complete_ && dead_.size() < kMostDead) dead_.insert(here);
    complete_ = complete_ && completeBefore;
    return false;
}

std::optional<std::vector<PackedBar>> BarPacker::attempt(Dice& dice, std::int64_t most,
                                                         const std::function<bool()>& over) {
    left_ = bars_;
    demand_ = instance_->demand;
    packed_.clear();
    dice_ = &dice;
    over_ = &over;
    stopped_ = false;
    steps_ = 0;
    most_ = most;
    complete_ = true;
    std::int64_t slack = 0;
    for (std::size_t kind = 0; kind < bars_.size(); ++kind) slack += instance_->capacity[kind] * bars_[kind];
    for (std::size_t i = 0; i < demand_.size(); ++i) slack -= instance_->size[i] * demand_[i];
    if (slack < 0) {
        impossible_ = true;
        return std::nullopt;
    }
    if (pack(slack)) return packed_;
    impossible_ = complete_;
    return std::nullopt;
}

} // namespace westrum
