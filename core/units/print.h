#pragma once

#include "core/units/money.h"
#include "core/units/parse.h"
#include "core/units/quantity.h"

#include <string>

namespace westrum {

/// How a length in inches that lies between two marks of the rule is written.
enum class BetweenMarks {
    AddRest,  ///< `72 1/2" + 0.31 mm`: parses back to the same length
    SayAbout, ///< `≈72 1/2"`: for labels; the sign tells that the exact value differs
};

struct LengthStyle {
    LengthUnit unit = LengthUnit::Millimetre; ///< Foot prints feet and inches
    int inchDenominator = 16;                 ///< 16 or 32 (any power of two up to 64)
    int decimals = 2;                         ///< most decimals in metric; zeros at the end are left off
    char decimalMark = '.';                   ///< '.' or ','
    bool withUnit = true;                     ///< false where the unit stands once per table
    bool groupDigits = true;                  ///< thin space between thousands
    BetweenMarks betweenMarks = BetweenMarks::AddRest;
};

/// Prints a length so that parseLength() reads it back to within 0.01 mm (with decimals as defaulted in mm; in cm and m
/// one and three more are used). Only BetweenMarks::SayAbout and a smaller `decimals` give up that round trip.
std::string printLength(Mm length, const LengthStyle& style = {});

/// A number with at most `decimals` decimals, zeros at the end left off, grouped by thin spaces. "-0" becomes "0".
std::string printNumber(double number, int decimals, char decimalMark = '.', bool group = true, bool keepZeros = false);

/// `1 234.50 EUR`, always with all decimals of the currency; the code can be left off where it stands once per table.
std::string printMoney(Money money, char decimalMark = '.', bool withCode = true);

/// Where lengths are shown in inches or feet, so is what goes with them.
enum class Measures { Metric, Imperial };
Measures measuresWith(LengthUnit unit);

/// `6.50 m²`; `70.0 ft²`, with one decimal less.
std::string printArea(M2 area, int decimals = 2, char decimalMark = '.', Measures measures = Measures::Metric);
/// `53.0 kg`, `116.8 lb`
std::string printMass(Kg mass, int decimals = 1, char decimalMark = '.', Measures measures = Measures::Metric);
/// What is run off a roll or sawn in all: `8.4 m`; `27.6 ft`, with one decimal less.
std::string printRun(Mm length, int decimals = 2, char decimalMark = '.', Measures measures = Measures::Metric);
/// Square metres and kilograms in one of what areas and masses are printed in. Source: the yard of 0.9144 m and the
/// pound of 0.45359237 kg, both exact since 1959.
inline constexpr double kSquareFootM2 = 0.09290304;
inline constexpr double kPoundKg = 0.45359237;

} // namespace westrum
