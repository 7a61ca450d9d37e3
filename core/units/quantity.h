#pragma once

#include <compare>

namespace westrum {

/// A length in millimetres, the house's unit of length.
struct Mm {
    double value{};
    friend constexpr auto operator<=>(Mm, Mm) = default;
    friend constexpr Mm operator+(Mm a, Mm b) { return {a.value + b.value}; }
    friend constexpr Mm operator-(Mm a, Mm b) { return {a.value - b.value}; }
    friend constexpr Mm operator-(Mm a) { return {-a.value}; }
    friend constexpr Mm operator*(Mm a, double k) { return {a.value * k}; }
    friend constexpr Mm operator*(double k, Mm a) { return {a.value * k}; }
    friend constexpr Mm operator/(Mm a, double k) { return {a.value / k}; }
    friend constexpr double operator/(Mm a, Mm b) { return a.value / b.value; }
};

/// An area in square metres, as spoken and bought; square millimetres stay inside geometry.
struct M2 {
    double value{};
    friend constexpr auto operator<=>(M2, M2) = default;
    friend constexpr M2 operator+(M2 a, M2 b) { return {a.value + b.value}; }
    friend constexpr M2 operator-(M2 a, M2 b) { return {a.value - b.value}; }
    friend constexpr M2 operator*(M2 a, double k) { return {a.value * k}; }
};

/// A mass in kilograms.
struct Kg {
    double value{};
    friend constexpr auto operator<=>(Kg, Kg) = default;
    friend constexpr Kg operator+(Kg a, Kg b) { return {a.value + b.value}; }
    friend constexpr Kg operator-(Kg a, Kg b) { return {a.value - b.value}; }
    friend constexpr Kg operator*(Kg a, double k) { return {a.value * k}; }
};

inline namespace literals {
constexpr Mm operator""_mm(long double v) { return {static_cast<double>(v)}; }
constexpr Mm operator""_mm(unsigned long long v) { return {static_cast<double>(v)}; }
} // namespace literals

/// Area of a rectangle, from millimetres to square metres.
constexpr M2 areaOf(Mm a, Mm b) { return {a.value * b.value / 1e6}; }

/// Largest length the house accepts anywhere: 100 m. A van is 8 m; beyond this a figure is a slip or hostile.
inline constexpr Mm kLongestLength{100000};

} // namespace westrum
