#pragma once

#include "core/units/money.h"
#include "core/units/quantity.h"
#include "core/units/result.h"

#include <cstddef>
#include <string>
#include <string_view>

namespace westrum {

enum class LengthUnit { Millimetre, Centimetre, Metre, Inch, Foot };

/// What kept a typed figure from being understood.
enum class ParseFault {
    Empty,         ///< nothing was typed
    NotANumber,    ///< a number was expected at `position`
    UnknownUnit,   ///< `text` is no unit known here
    Ambiguous,     ///< `text` can be read two ways ("1,840": 1840 or 1.84)
    TrailingText,  ///< `text` follows a complete figure
    Unfinished,    ///< the text ends after + or -, or after a fraction's stroke
    ZeroDivisor,   ///< a fraction with 0 below the stroke
    OutOfRange,    ///< too large to be a real figure here
    TooPrecise,    ///< money with more decimals than its currency has
    WrongCurrency, ///< another currency than the job's
    Negative,      ///< a price or a mass below zero
};

/// Says which part of the typed text was not understood; a sentence is made from it where the language is known.
struct ParseError {
    ParseFault fault{};
    std::size_t position{}; ///< byte offset into the typed text
    std::string text;       ///< the offending part as typed
    friend bool operator==(const ParseError&, const ParseError&) = default;
};

/// Reads a length as people say it: `1840`, `184 cm`, `1,84 m`, `72 1/2"`, `72-1/2 in`, `6' 1/2"`, `6ft 0.5in`,
/// and sums and differences of such, `620+38+620`.
/// @param bareUnit  the unit of a figure typed without one. In a sum, a bare figure takes the job's unit too.
/// A point or a comma is the decimal mark. A comma before exactly three digits is refused as ambiguous unless the unit
/// is metres ("1,840 m" can only be 1.84 m). Digits may be grouped by (thin) spaces: `3 640`.
/// A whole number, a dash and a fraction is one mixed number (`72-1/2`), not a difference.
/// @return the signed length; |length| <= kLongestLength. Whether it makes sense (> 0) is the caller's to judge.
Result<Mm, ParseError> parseLength(std::string_view typed, LengthUnit bareUnit = LengthUnit::Millimetre);

/// Reads money: `12.50`, `12,50`, `1 234.50`, `12.50 EUR`. Never negative. A bare amount is in `currency`.
/// Exact: kept in minor units, never passing through floating point.
Result<Money, ParseError> parseMoney(std::string_view typed, Currency currency);

/// Reads an area: bare or `m2`/`m²`/`sqm` in square metres, `cm2`, `mm2`, `sqft`/`ft2`. Not negative.
Result<M2, ParseError> parseArea(std::string_view typed);

/// Reads a mass: bare or `kg` in kilograms, `g`, `t`, `lb`, `oz`. Not negative.
Result<Kg, ParseError> parseMass(std::string_view typed);

/// Reads a plain number with either decimal mark, no unit. Signed.
Result<double, ParseError> parseNumber(std::string_view typed);

} // namespace westrum
