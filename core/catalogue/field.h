#pragma once

#include "core/units/remark.h"

#include <map>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace westrum {

enum class FieldUnit {
    Length,      ///< mm
    Count,       ///< whole pieces
    Mass,        ///< kg
    MassPerArea, ///< kg/m2
    Share,       ///< of a whole, 0 to 1
    Spreading,   ///< m2 a litre
    Litres,
    Number, ///< of whatever the field says
    Minutes,
    Hours,
    Degrees,
    Flag,   ///< 0 or 1
    Choice, ///< place in `choices`
};

/// One field of a product or of a set-out's rules: from its table follow the form, the job file and every check.
struct Field {
    std::string_view key;       ///< in files; never changes once released
    std::string_view tradeName; ///< English, translated at the edge
    FieldUnit unit = FieldUnit::Length;
    double least = 0;
    double most = 0;
    double byDefault = 0;
    std::span<const std::string_view> choices{}; ///< trade names, for Choice
};

/// Field values by key, in the field's own unit (mm, kg, pieces). What is missing has its default.
using FieldValues = std::map<std::string, double, std::less<>>;

double valueOf(const FieldValues& values, const Field& field);
double valueOf(const FieldValues& values, std::span<const Field> fields, std::string_view key);
const Field* findField(std::span<const Field> fields, std::string_view key);

/// One FieldOutOfRange error for each value that is outside its field's range, not a whole number where one is
/// counted, or not a number at all. `owner` is the name used in the sentence.
std::vector<Remark> checkFields(const FieldValues& values, std::span<const Field> fields, const std::string& owner,
                                const Place& place);

} // namespace westrum
