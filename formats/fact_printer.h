#pragma once

#include "core/units/remark.h"
#include "formats/words.h"

#include <QString>

#include <string>
#include <string_view>
#include <variant>

namespace westrum {

inline QString fromStd(const std::string& s) { return QString::fromStdString(s); }

/// Looks facts up by name and prints them for the sentence.
class FactPrinter {
public:
    FactPrinter(const Facts& facts, const Figures& figures) : facts_(facts), figures_(figures) {}

    [[nodiscard]] QString operator[](std::string_view key) const {
        for (const auto& [name, value] : facts_)
            if (name == key) return print(value);
        return {};
    }
    [[nodiscard]] std::int64_t count(std::string_view key) const {
        for (const auto& [name, value] : facts_)
            if (name == key)
                if (const auto* n = std::get_if<std::int64_t>(&value)) return *n;
        return 0;
    }
    [[nodiscard]] double mm(std::string_view key) const {
        for (const auto& [name, value] : facts_)
            if (name == key)
                if (const auto* l = std::get_if<Mm>(&value)) return l->value;
        return 0;
    }
    [[nodiscard]] double share(std::string_view key) const {
        for (const auto& [name, value] : facts_)
            if (name == key)
                if (const auto* d = std::get_if<double>(&value)) return *d;
        return 0;
    }
    [[nodiscard]] std::string text(std::string_view key) const {
        for (const auto& [name, value] : facts_)
            if (name == key)
                if (const auto* s = std::get_if<std::string>(&value)) return *s;
        return {};
    }
    [[nodiscard]] QString length(double mm) const { return figures_.length({mm}); }

private:
    [[nodiscard]] QString print(const FactValue& value) const {
        if (const auto* l = std::get_if<Mm>(&value)) return figures_.fineLength(*l);
        if (const auto* n = std::get_if<std::int64_t>(&value)) return QString::number(*n);
        if (const auto* d = std::get_if<double>(&value)) return figures_.number(*d, 2);
        if (const auto* m = std::get_if<Money>(&value)) return figures_.money(*m);
        if (const auto* p = std::get_if<PieceName>(&value)) return pieceText(*p);
        return fromStd(std::get<std::string>(value));
    }
    const Facts& facts_;
    const Figures& figures_;
};

} // namespace westrum
