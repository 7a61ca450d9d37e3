#include "core/catalogue/field.h"

#include <cassert>
#include <cmath>

namespace westrum {

double valueOf(const FieldValues& values, const Field& field) {
    const auto found = values.find(field.key);
    return found == values.end() ? field.byDefault : found->second;
}

const Field* findField(std::span<const Field> fields, std::string_view key) {
    for (const Field& field : fields)
        if (field.key == key) return &field;
    return nullptr;
}

double valueOf(const FieldValues& values, std::span<const Field> fields, std::string_view key) {
    const Field* field = findField(fields, key);
    assert(field);
    return valueOf(values, *field);
}

std::vector<Remark> checkFields(const FieldValues& values, std::span<const Field> fields, const std::string& owner,
                                const Place& place) {
    std::vector<Remark> remarks;
    for (const Field& field : fields) {
        const double value = valueOf(values, field);
        const bool counted =
            field.unit == FieldUnit::Count || field.unit == FieldUnit::Flag || field.unit == FieldUnit::Choice;
        const bool inRange = std::isfinite(value) && value >= field.least && value <= field.most;
        if (inRange && (!counted || value == std::floor(value))) continue;
        const auto fact = [&](double v) -> FactValue {
            if (field.unit == FieldUnit::Length) return Mm{v};
            return v;
        };
        remarks.push_back({Severity::Error,
                           place,
                           RemarkKind::FieldOutOfRange,
                           {{"product", owner},
                            {"field", std::string(field.tradeName)},
                            {"value", fact(value)},
                            {"least", fact(field.least)},
                            {"most", fact(field.most)}},
                           Fix{place.part == Part::Rule ? FixKind::SetRule : FixKind::SetField, std::string(field.key),
                               field.byDefault}});
    }
    return remarks;
}

} // namespace westrum
