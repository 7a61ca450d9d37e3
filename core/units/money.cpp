#include "core/units/money.h"

#include <algorithm>

namespace westrum {

std::optional<Currency> currencyOf(std::string_view code) {
    if (code.size() != 3 || !std::all_of(code.begin(), code.end(), [](char c) { return c >= 'A' && c <= 'Z'; }))
        return std::nullopt;
    static constexpr std::array<std::string_view, 6> none{"JPY", "KRW", "ISK", "CLP", "VND", "PYG"};
    static constexpr std::array<std::string_view, 6> three{"BHD", "IQD", "JOD", "KWD", "OMR", "TND"};
    Currency currency;
    std::copy(code.begin(), code.end(), currency.code.begin());
    if (std::find(none.begin(), none.end(), code) != none.end()) currency.decimals = 0;
    if (std::find(three.begin(), three.end(), code) != three.end()) currency.decimals = 3;
    return currency;
}

std::optional<Money> sumOf(std::span<const std::optional<Money>> costs, const Currency& currency) {
    Money sum{0, currency};
    for (const std::optional<Money>& cost : costs) {
        if (!cost || cost->currency != currency) return std::nullopt;
        sum = sum + *cost;
    }
    return sum;
}

} // namespace westrum
