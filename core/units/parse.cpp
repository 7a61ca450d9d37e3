#include "core/units/parse.h"

#include <array>
#include <charconv>
#include <cmath>
#include <limits>
#include <optional>

namespace westrum {
namespace {

constexpr double kInch = 25.4;
constexpr double kFoot = 304.8;

bool isDigit(char c) { return c >= '0' && c <= '9'; }
bool isLetter(char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z'); }

/// Walks over typed text; remembers where it stands so that errors can say where.
class Reader {
public:
    explicit Reader(std::string_view text) : text_(text) {}

    [[nodiscard]] bool atEnd() const { return at_ >= text_.size(); }
    [[nodiscard]] std::size_t position() const { return at_; }
    void moveTo(std::size_t position) { at_ = position; }
    [[nodiscard]] char peek(std::size_t ahead = 0) const { return at_ + ahead < text_.size() ? text_[at_ + ahead] : 0; }
    void skip(std::size_t n = 1) { at_ += n; }

    /// Length in bytes of the blank at the position: a space, a tab, a no-break or a thin space; 0 if there is none.
    [[nodiscard]] std::size_t blank(std::size_t ahead = 0) const {
        const std::string_view rest = text_.substr(std::min(text_.size(), at_ + ahead));
        for (std::string_view b : {" ", "\t", "\xC2\xA0", "\xE2\x80\xAF", "\xE2\x80\x89"})
            if (rest.starts_with(b)) return b.size();
        return 0;
    }
    void skipBlanks() {
        while (std::size_t n = blank()) at_ += n;
    }
    bool take(std::string_view what) {
        if (!text_.substr(at_).starts_with(what)) return false;
        at_ += what.size();
        return true;
    }
    /// The word or sign at the position, for error messages: up to the next blank, at most 20 bytes, whole characters.
    [[nodiscard]] std::string wordHere() const {
        std::size_t end = at_;
        while (end < text_.size() && text_[end] != ' ' && end - at_ < 20) ++end;
        while (end < text_.size() && (static_cast<unsigned char>(text_[end]) & 0xC0) == 0x80) ++end;
        return std::string(text_.substr(at_, end - at_));
    }
    [[nodiscard]] ParseError error(ParseFault fault) const { return {fault, at_, wordHere()}; }
    [[nodiscard]] std::string_view between(std::size_t from, std::size_t to) const {
        return text_.substr(from, to - from);
    }

private:
    std::string_view text_;
    std::size_t at_ = 0;
};

struct Number {
    double value{};
    bool commaBeforeThree = false; ///< "1,840": a decimal comma or a thousands comma
    bool isFraction = false;
    bool isWhole = false;
    std::size_t start{};
    std::string text;
};

std::optional<double> toDouble(const std::string& digits) {
    double value{};
    const auto [end, problem] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
    if (problem != std::errc{} || end != digits.data() + digits.size() || !std::isfinite(value)) return std::nullopt;
    return value;
}

/// Digits, possibly in groups of three parted by blanks: "3 640". The groups are only taken where they can be nothing
/// else: 1 to 3 digits, then a blank and exactly three digits, not the numerator of a fraction.
std::string takeWholeDigits(Reader& r) {
    std::string digits;
    while (isDigit(r.peek())) {
        digits += r.peek();
        r.skip();
    }
    if (digits.empty() || digits.size() > 3) return digits;
    while (std::size_t b = r.blank()) {
        if (!(isDigit(r.peek(b)) && isDigit(r.peek(b + 1)) && isDigit(r.peek(b + 2))) || isDigit(r.peek(b + 3)) ||
            r.peek(b + 3) == '/')
            break;
        digits += {r.peek(b), r.peek(b + 1), r.peek(b + 2)};
        r.skip(b + 3);
    }
    return digits;
}

/// Reads `/d` after a numerator; the reader stands on the stroke.
Result<double, ParseError> takeDenominator(Reader& r, double numerator) {
    r.skip();
    r.skipBlanks();
    const std::size_t at = r.position();
    std::string below;
    while (isDigit(r.peek())) {
        below += r.peek();
        r.skip();
    }
    if (below.empty()) return r.error(r.atEnd() ? ParseFault::Unfinished : ParseFault::NotANumber);
    const auto divisor = toDouble(below);
    if (!divisor) return r.error(ParseFault::OutOfRange);
    if (*divisor == 0) return ParseError{ParseFault::ZeroDivisor, at, below};
    return numerator / *divisor;
}

/// The vulgar fraction signs that keyboards and phones offer.
std::optional<double> takeFractionSign(Reader& r) {
    static constexpr std::array<std::pair<std::string_view, double>, 7> signs{{{"\xC2\xBC", 0.25},
                                                                               {"\xC2\xBD", 0.5},
                                                                               {"\xC2\xBE", 0.75},
                                                                               {"\xE2\x85\x9B", 0.125},
                                                                               {"\xE2\x85\x9C", 0.375},
                                                                               {"\xE2\x85\x9D", 0.625},
                                                                               {"\xE2\x85\x9E", 0.875}}};
    for (const auto& [sign, value] : signs)
        if (r.take(sign)) return value;
    return std::nullopt;
}

/// `12`, `12.5`, `12,5`, `.5`, `1/2`, `12 1/2`, `12-1/2`, `12½`.
Result<Number, ParseError> takeNumber(Reader& r) {
    Number n{.start = r.position()};
    if (const auto sign = takeFractionSign(r)) {
        n.value = *sign;
        n.isFraction = true;
        return n;
    }
    std::string digits = takeWholeDigits(r);
    if (digits.empty() && !((r.peek() == '.' || r.peek() == ',') && isDigit(r.peek(1))))
        return r.error(r.atEnd() ? ParseFault::Unfinished : ParseFault::NotANumber);
    if (!digits.empty() && r.peek() == '/') {
        const auto above = toDouble(digits);
        if (!above) return ParseError{ParseFault::OutOfRange, n.start, digits};
        auto fraction = takeDenominator(r, *above);
        if (!fraction) return fraction.error();
        n.value = fraction.value();
        n.isFraction = true;
        return n;
    }
    const bool hasWhole = !digits.empty();
    const std::size_t wholeDigits = digits.size();
    if ((r.peek() == '.' || r.peek() == ',') && isDigit(r.peek(1))) {
        const bool comma = r.peek() == ',';
        r.skip();
        digits += digits.empty() ? "0." : ".";
        std::size_t decimals = 0;
        for (; isDigit(r.peek()); ++decimals) {
            digits += r.peek();
            r.skip();
        }
        n.commaBeforeThree = comma && decimals == 3 && wholeDigits >= 1 && wholeDigits <= 3 && digits[0] != '0';
        if ((r.peek() == '.' || r.peek() == ',') && isDigit(r.peek(1)))
            return ParseError{ParseFault::Ambiguous, n.start,
                              std::string(r.between(n.start, r.position())) + r.wordHere()};
    } else if (hasWhole) {
        n.isWhole = true;
    }
    const auto value = toDouble(digits);
    if (!value) return ParseError{ParseFault::OutOfRange, n.start, digits};
    n.value = *value;
    n.text = std::string(r.between(n.start, r.position()));
    if (!n.isWhole) return n;

    // A mixed number: whole, a blank or a dash, fraction.
    const std::size_t afterWhole = r.position();
    if (const auto sign = takeFractionSign(r)) {
        n.value += *sign;
        n.isWhole = false;
        return n;
    }
    if (r.peek() == '-')
        r.skip();
    else
        r.skipBlanks();
    if (r.position() != afterWhole) {
        if (const auto sign = takeFractionSign(r)) {
            n.value += *sign;
            n.isWhole = false;
            return n;
        }
        std::string above;
        std::size_t look = 0;
        while (isDigit(r.peek(look))) above += r.peek(look++);
        if (!above.empty() && r.peek(look) == '/' && above.size() < 4) {
            r.skip(look);
            auto fraction = takeDenominator(r, *toDouble(above));
            if (!fraction) return fraction.error();
            n.value += fraction.value();
            n.isWhole = false;
            return n;
        }
        r.moveTo(afterWhole);
    }
    return n;
}

struct NamedFactor {
    std::string_view name;
    double factor;
};

/// The unit at the reader, by the longest name that fits; nothing if there is none. Letters must end with the name.
std::optional<NamedFactor> takeUnit(Reader& r, const auto& names) {
    std::optional<NamedFactor> best;
    const std::size_t start = r.position();
    for (const NamedFactor& candidate : names) {
        r.moveTo(start);
        if (!r.take(candidate.name)) continue;
        if (isLetter(candidate.name.back()) && (isLetter(r.peek()))) continue;
        if (!best || candidate.name.size() > best->name.size()) best = candidate;
    }
    r.moveTo(start + (best ? best->name.size() : 0));
    return best;
}

constexpr std::array<NamedFactor, 24> kLengthUnits{{
    {"mm", 1},
    {"millimetre", 1},
    {"millimetres", 1},
    {"cm", 10},
    {"centimetre", 10},
    {"dm", 100},
    {"m", 1000},
    {"metre", 1000},
    {"metres", 1000},
    {"inches", kInch},
    {"inch", kInch},
    {"in", kInch},
    {"in.", kInch},
    {"\"", kInch},
    {"''", kInch},
    {"\xE2\x80\xB3", kInch},
    {"\xE2\x80\x9D", kInch},
    {"feet", kFoot},
    {"foot", kFoot},
    {"ft", kFoot},
    {"ft.", kFoot},
    {"'", kFoot},
    {"\xE2\x80\xB2", kFoot},
    {"\xE2\x80\x99", kFoot},
}};

double factorOf(LengthUnit unit) {
    switch (unit) {
    case LengthUnit::Millimetre: return 1;
    case LengthUnit::Centimetre: return 10;
    case LengthUnit::Metre: return 1000;
    case LengthUnit::Inch: return kInch;
    case LengthUnit::Foot: return kFoot;
    }
    return 1;
}

/// One term of a sum: a number with its unit, or feet followed by inches.
Result<double, ParseError> takeTerm(Reader& r, LengthUnit bareUnit) {
    const auto number = takeNumber(r);
    if (!number) return number.error();
    r.skipBlanks();
    const std::size_t unitAt = r.position();
    auto unit = takeUnit(r, kLengthUnits);
    if (!unit && isLetter(r.peek())) return r.error(ParseFault::UnknownUnit);
    const bool metres = unit ? unit->factor == 1000 : bareUnit == LengthUnit::Metre;
    if (number.value().commaBeforeThree && !metres)
        return ParseError{ParseFault::Ambiguous, number.value().start, number.value().text};
    const double factor = unit ? unit->factor : factorOf(bareUnit);
    double length = number.value().value * factor;
    if (unit && unit->factor == kFoot) {
        // Inches may follow: 6' 1/2", 6ft 0.5in, 6' 3 (bare inches after feet).
        const std::size_t afterFeet = r.position();
        r.skipBlanks();
        if (r.peek() == '-' && isDigit(r.peek(1))) {
            // 4'-3 3/8" is how drawings write it; the dash is no minus if inches follow, or a bare figure that inches
            // can be and that stands right behind.
            const bool close = r.position() == afterFeet;
            r.skip();
            const auto inches = takeNumber(r);
            r.skipBlanks();
            const auto inchUnit = inches ? takeUnit(r, kLengthUnits) : std::nullopt;
            const bool bare = close && inches && !inchUnit && !isLetter(r.peek()) && inches.value().value < 12;
            if (bare || (inches && inchUnit && inchUnit->factor == kInch)) return length + inches.value().value * kInch;
            r.moveTo(afterFeet);
            return length;
        }
        if (isDigit(r.peek()) || r.peek() == '.' || static_cast<unsigned char>(r.peek()) >= 0xC2) {
            const auto inches = takeNumber(r);
            if (!inches) return inches.error();
            r.skipBlanks();
            const auto inchUnit = takeUnit(r, kLengthUnits);
            if (inchUnit && inchUnit->factor != kInch)
                return ParseError{ParseFault::TrailingText, unitAt, r.wordHere()};
            length += inches.value().value * kInch;
        } else {
            r.moveTo(afterFeet);
        }
    }
    return length;
}

} // namespace

Result<Mm, ParseError> parseLength(std::string_view typed, LengthUnit bareUnit) {
    Reader r(typed);
    r.skipBlanks();
    if (r.atEnd()) return ParseError{ParseFault::Empty, 0, {}};
    double sum = 0;
    double sign = 1;
    if (r.take("-") || r.take("\xE2\x88\x92"))
        sign = -1;
    else
        r.take("+");
    while (true) {
        r.skipBlanks();
        const std::size_t at = r.position();
        const auto term = takeTerm(r, bareUnit);
        if (!term) return term.error();
        sum += sign * term.value();
        if (!std::isfinite(sum) || std::abs(sum) > kLongestLength.value)
            return ParseError{ParseFault::OutOfRange, at, std::string(r.between(at, r.position()))};
        r.skipBlanks();
        if (r.atEnd()) return Mm{sum};
        if (r.take("+"))
            sign = 1;
        else if (r.take("-") || r.take("\xE2\x88\x92"))
            sign = -1;
        else
            return r.error(ParseFault::TrailingText);
    }
}

Result<Money, ParseError> parseMoney(std::string_view typed, Currency currency) {
    Reader r(typed);
    r.skipBlanks();
    if (r.atEnd()) return ParseError{ParseFault::Empty, 0, {}};
    if (r.peek() == '-') return r.error(ParseFault::Negative);
    const std::size_t start = r.position();
    std::string digits = takeWholeDigits(r);
    if (digits.empty()) return r.error(ParseFault::NotANumber);
    std::string decimals;
    if (r.peek() == '.' || r.peek() == ',') {
        r.skip();
        while (isDigit(r.peek())) {
            decimals += r.peek();
            r.skip();
        }
    }
    while (static_cast<int>(decimals.size()) > currency.decimals && decimals.back() == '0' && decimals.size() != 3)
        decimals.pop_back();
    if (static_cast<int>(decimals.size()) > currency.decimals)
        return ParseError{ParseFault::TooPrecise, start, std::string(r.between(start, r.position()))};
    decimals.resize(static_cast<std::size_t>(currency.decimals), '0');
    digits += decimals;
    std::int64_t minor{};
    const auto [end, problem] = std::from_chars(digits.data(), digits.data() + digits.size(), minor);
    if (problem != std::errc{} || minor > kMostMinorUnits)
        return ParseError{ParseFault::OutOfRange, start, std::string(r.between(start, r.position()))};
    r.skipBlanks();
    if (isLetter(r.peek())) {
        if (!r.take(currency.name())) return r.error(ParseFault::WrongCurrency);
        r.skipBlanks();
    }
    if (!r.atEnd()) return r.error(ParseFault::TrailingText);
    return Money{minor, currency};
}

namespace {

/// A figure >= 0 with a unit from a table; a bare figure is in the table's unit of factor 1.
Result<double, ParseError> parseWithUnit(std::string_view typed, const auto& units, double most) {
    Reader r(typed);
    r.skipBlanks();
    if (r.atEnd()) return ParseError{ParseFault::Empty, 0, {}};
    if (r.peek() == '-') return r.error(ParseFault::Negative);
    const auto number = takeNumber(r);
    if (!number) return number.error();
    if (number.value().commaBeforeThree)
        return ParseError{ParseFault::Ambiguous, number.value().start, number.value().text};
    r.skipBlanks();
    const auto unit = takeUnit(r, units);
    if (!unit && !r.atEnd()) return r.error(ParseFault::UnknownUnit);
    r.skipBlanks();
    if (!r.atEnd()) return r.error(ParseFault::TrailingText);
    const double value = number.value().value * (unit ? unit->factor : 1);
    if (!std::isfinite(value) || value > most) return ParseError{ParseFault::OutOfRange, 0, std::string(typed)};
    return value;
}

} // namespace

Result<M2, ParseError> parseArea(std::string_view typed) {
    static constexpr std::array<NamedFactor, 9> units{{{"m2", 1},
                                                       {"m\xC2\xB2", 1},
                                                       {"sqm", 1},
                                                       {"cm2", 1e-4},
                                                       {"cm\xC2\xB2", 1e-4},
                                                       {"mm2", 1e-6},
                                                       {"mm\xC2\xB2", 1e-6},
                                                       {"sqft", 0.09290304},
                                                       {"ft2", 0.09290304}}};
    const auto value = parseWithUnit(typed, units, 1e6);
    if (!value) return value.error();
    return M2{value.value()};
}

Result<Kg, ParseError> parseMass(std::string_view typed) {
    static constexpr std::array<NamedFactor, 5> units{
        {{"kg", 1}, {"g", 1e-3}, {"t", 1000}, {"lb", 0.45359237}, {"oz", 0.028349523125}}};
    const auto value = parseWithUnit(typed, units, 1e6);
    if (!value) return value.error();
    return Kg{value.value()};
}

Result<double, ParseError> parseNumber(std::string_view typed) {
    const bool negative = typed.starts_with('-');
    const auto value = parseWithUnit(negative ? typed.substr(1) : typed, std::array<NamedFactor, 0>{}, 1e12);
    if (!value) return value.error();
    return negative ? -value.value() : value.value();
}

} // namespace westrum
