#include "core/units/print.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <numeric>

namespace westrum {
namespace {

constexpr const char* kThinSpace = "\xE2\x80\xAF";

std::string grouped(const std::string& digits) {
    if (digits.size() <= 3) return digits;
    std::string out;
    for (std::size_t i = 0; i < digits.size(); ++i) {
        if (i > 0 && (digits.size() - i) % 3 == 0) out += kThinSpace;
        out += digits[i];
    }
    return out;
}

/// Whole inches and a reduced fraction, `72 1/2`; only the fraction if there are no whole inches.
std::string inchesAndFraction(std::int64_t marks, int denominator) {
    const std::int64_t whole = marks / denominator;
    std::int64_t above = marks % denominator;
    std::int64_t below = denominator;
    const std::int64_t common = std::gcd(above, below);
    above /= common;
    below /= common;
    if (above == 0) return std::to_string(whole);
    const std::string fraction = std::to_string(above) + "/" + std::to_string(below);
    return whole == 0 ? fraction : std::to_string(whole) + " " + fraction;
}

std::string printInches(Mm length, const LengthStyle& style) {
    const double exact = std::abs(length.value) / 25.4 * style.inchDenominator;
    const auto marks = static_cast<std::int64_t>(std::llround(exact));
    const double rest =
        length.value - (length.value < 0 ? -1 : 1) * static_cast<double>(marks) * 25.4 / style.inchDenominator;
    const std::string sign = length.value < 0 && marks > 0 ? "-" : "";
    std::string text = sign;
    const std::int64_t marksPerFoot = 12LL * style.inchDenominator;
    if (style.unit == LengthUnit::Foot && marks >= marksPerFoot) {
        text += std::to_string(marks / marksPerFoot) + "'";
        if (marks % marksPerFoot != 0)
            text += " " + inchesAndFraction(marks % marksPerFoot, style.inchDenominator) + "\"";
    } else {
        text += inchesAndFraction(marks, style.inchDenominator) + "\"";
    }
    if (std::abs(rest) < 0.005) return text;
    if (style.betweenMarks == BetweenMarks::SayAbout) return "\xE2\x89\x88" + text;
    return text + (rest < 0 ? " - " : " + ") + printNumber(std::abs(rest), 2, style.decimalMark, false) + " mm";
}

} // namespace

std::string printNumber(double number, int decimals, char decimalMark, bool group, bool keepZeros) {
    char buffer[400];
    const int written = std::snprintf(buffer, sizeof buffer, "%.*f", decimals, std::abs(number));
    std::string text(buffer, static_cast<std::size_t>(written));
    std::string fraction;
    if (const auto dot = text.find_first_of(".,"); dot != std::string::npos) {
        fraction = text.substr(dot + 1);
        text.resize(dot);
    }
    while (!keepZeros && !fraction.empty() && fraction.back() == '0') fraction.pop_back();
    const bool isZero = (text + fraction).find_first_not_of('0') == std::string::npos;
    std::string out = number < 0 && !isZero ? "-" : "";
    out += group ? grouped(text) : text;
    if (!fraction.empty()) out += decimalMark + fraction;
    return out;
}

std::string printLength(Mm length, const LengthStyle& style) {
    const auto metric = [&](double factor, int moreDecimals, const char* unit) {
        std::string number =
            printNumber(length.value / factor, style.decimals + moreDecimals, style.decimalMark, style.groupDigits);
        // "199,089" could be taken for thousands when it is typed again: a fourth decimal settles it.
        if (style.decimalMark == ',' && number.size() > 4 && number[number.size() - 4] == ',') number += '0';
        return style.withUnit ? number + " " + unit : number;
    };
    switch (style.unit) {
    case LengthUnit::Millimetre: return metric(1, 0, "mm");
    case LengthUnit::Centimetre: return metric(10, 1, "cm");
    case LengthUnit::Metre: return metric(1000, 3, "m");
    case LengthUnit::Inch:
    case LengthUnit::Foot: return printInches(length, style);
    }
    return {};
}

std::string printMoney(Money money, char decimalMark, bool withCode) {
    const std::int64_t magnitude = money.minor < 0 ? -money.minor : money.minor;
    std::string digits = std::to_string(magnitude);
    const auto decimals = static_cast<std::size_t>(money.currency.decimals);
    if (digits.size() <= decimals) digits.insert(0, decimals + 1 - digits.size(), '0');
    std::string text = money.minor < 0 ? "-" : "";
    text += grouped(digits.substr(0, digits.size() - decimals));
    if (decimals > 0) text += decimalMark + digits.substr(digits.size() - decimals);
    return withCode ? text + " " + money.currency.name() : text;
}

Measures measuresWith(LengthUnit unit) {
    return unit == LengthUnit::Inch || unit == LengthUnit::Foot ? Measures::Imperial : Measures::Metric;
}

std::string printArea(M2 area, int decimals, char decimalMark, Measures measures) {
    if (measures == Measures::Metric) return printNumber(area.value, decimals, decimalMark, true, true) + " m\xC2\xB2";
    return printNumber(area.value / kSquareFootM2, std::max(0, decimals - 1), decimalMark, true, true) + " ft\xC2\xB2";
}

std::string printMass(Kg mass, int decimals, char decimalMark, Measures measures) {
    if (measures == Measures::Metric) return printNumber(mass.value, decimals, decimalMark, true, true) + " kg";
    return printNumber(mass.value / kPoundKg, decimals, decimalMark, true, true) + " lb";
}

std::string printRun(Mm length, int decimals, char decimalMark, Measures measures) {
    constexpr double kMetreMm = 1000, kFootMm = 304.8;
    if (measures == Measures::Metric)
        return printNumber(length.value / kMetreMm, decimals, decimalMark) + " m";
    return printNumber(length.value / kFootMm, std::max(0, decimals - 1), decimalMark) + " ft";
}

} // namespace westrum
