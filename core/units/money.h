#pragma once

#include <array>
#include <cassert>
#include <compare>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace westrum {

/// A currency by its three-letter code (ISO 4217 form) and the number of decimals of its minor unit.
struct Currency {
    std::array<char, 3> code{'E', 'U', 'R'};
    int decimals = 2;
    friend constexpr auto operator<=>(const Currency&, const Currency&) = default;
    [[nodiscard]] std::string name() const { return {code.begin(), code.end()}; }
};

/// The currency of a three-letter code in capitals, or nothing if it is no such code. Currencies without a minor unit
/// (JPY, KRW, ISK and a few more) have 0 decimals, a few have 3; all others have 2.
std::optional<Currency> currencyOf(std::string_view code);

/// An amount in whole minor units (cents, pence), never floating point. Amounts of two currencies do not mix.
struct Money {
    std::int64_t minor{};
    Currency currency{};
    friend constexpr bool operator==(const Money&, const Money&) = default;
    friend Money operator+(Money a, Money b) {
        assert(a.currency == b.currency);
        return {a.minor + b.minor, a.currency};
    }
    friend Money operator-(Money a, Money b) {
        assert(a.currency == b.currency);
        return {a.minor - b.minor, a.currency};
    }
    friend Money operator*(Money a, std::int64_t n) { return {a.minor * n, a.currency}; }
};

/// What costs come to: nothing if one is not known, or is in another currency; 0 of none at all. The one way to add
/// costs up.
std::optional<Money> sumOf(std::span<const std::optional<Money>> costs, const Currency& currency);

/// Largest amount accepted anywhere, in minor units: keeps every sum of a job far inside 64 bits.
inline constexpr std::int64_t kMostMinorUnits = 100'000'000'000;

} // namespace westrum
