#pragma once

#include <cstdint>
#include <functional>
#include <stop_token>
#include <utility>

namespace westrum {

/// How hard an improving search tries. The core has no clock: whoever calls says how much of the time is gone, or
/// limits the number of iterations. With iterations alone the same seed gives the same answer on any machine.
struct Effort {
    std::uint64_t seed = 1;
    std::int64_t iterations = 0;         ///< 0: no limit of this kind. What an iteration is, each search says itself
    std::stop_token stop{};              ///< the best so far is returned soon after it is asked for
    std::function<double()> timeSpent{}; ///< share of the time gone, 1 or more: over; none: no limit in time

    /// None at all beyond the first layout.
    static Effort first(std::uint64_t seed, std::stop_token stop = {}) {
        return {.seed = seed, .iterations = 1, .stop = std::move(stop), .timeSpent = [] { return 1.0; }};
    }
    /// Share of the effort gone after `done` iterations, the greater of the two limits; 1 and above: stop. Where there
    /// are both, the first tenth of the time does not count: it would tell one run from the next of a search that the
    /// iterations end.
    [[nodiscard]] double spent(std::int64_t done) const {
        constexpr double kCounts = 0.1;
        if (stop.stop_requested()) return 1;
        const double timed = timeSpent ? timeSpent() : 0;
        if (iterations <= 0) return timed;
        const double counted = double(done) / double(iterations);
        return timed > kCounts && timed > counted ? timed : counted;
    }
};

/// Random numbers that are the same on any machine (splitmix64; the standard's distributions are not).
class Dice {
public:
    explicit Dice(std::uint64_t seed) : state_(seed * 0x9E3779B97F4A7C15ULL + 0x1234567ULL) {}

    std::uint64_t bits() {
        std::uint64_t z = (state_ += 0x9E3779B97F4A7C15ULL);
        z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9ULL;
        z = (z ^ (z >> 27)) * 0x94D049BB133111EBULL;
        return z ^ (z >> 31);
    }
    /// In [0, 1).
    double unit() { return double(bits() >> 11) * 0x1.0p-53; }
    double between(double low, double high) { return low + (high - low) * unit(); }
    /// In 0 .. count-1; count > 0.
    std::size_t below(std::size_t count) { return std::size_t(unit() * double(count)); }

    template <class List> void shuffle(List& list) {
        for (std::size_t i = list.size(); i > 1; --i) std::swap(list[i - 1], list[below(i)]);
    }

private:
    std::uint64_t state_;
};

} // namespace westrum
