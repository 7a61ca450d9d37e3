#include "core/setout/set_out.h"

#include "core/setout/plank_floor.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <tuple>

namespace westrum {
namespace {

SetOut setOutPlankProduct(const SetOutRequest& r, const std::stop_token& stop) {
    return setOutPlanks(r.outline, plankOf(r.product), plankRulesOf(r.rules), stop);
}

std::vector<StartChoice> plankProductStarts(const SetOutRequest& r, const std::stop_token& stop) {
    return plankStarts(r.outline, plankOf(r.product), plankRulesOf(r.rules), stop);
}

} // namespace

M2 SetOut::laidArea() const { return {areaMm2(net) / 1e6}; }

std::span<const SetOutFamily> setOutFamilies() {
    static const std::array<SetOutFamily, 1> families{
        {{"planks", plankFields(), plankRuleFields(), setOutPlankProduct, plankProductStarts}}};
    return families;
}

const SetOutFamily* findFamily(std::string_view id) {
    for (const SetOutFamily& family : setOutFamilies())
        if (family.id == id) return &family;
    return nullptr;
}

std::vector<Suggestion> suggestStarts(std::span<const StartChoice> starts, int unitsPerPack) {
    std::vector<StartChoice> candidates;
    for (const StartChoice& s : starts)
        if (s.stock > 0 && s.fair) candidates.push_back(s);
    if (candidates.empty())
        for (const StartChoice& s : starts)
            if (s.stock > 0) candidates.push_back(s);
    if (candidates.empty()) return {};

    const auto packs = [&](const StartChoice& s) { return (s.stock + unitsPerPack - 1) / unitsPerPack; };
    // Differences of two millimetres are within the sawing: such rows are equal.
    const auto unevenness = [](const StartChoice& s) {
        const double difference = std::abs(s.firstRow.value - s.lastRow.value);
        return difference <= 2 ? 0 : static_cast<int>(std::lround(difference));
    };
    const auto exactly = [](const StartChoice& s) { return std::abs(s.firstRow.value - s.lastRow.value); };
    const auto best = [&](const auto& key) {
        return *std::min_element(candidates.begin(), candidates.end(),
                                 [&](const StartChoice& a, const StartChoice& b) { return key(a) < key(b); });
    };
    const std::array<Suggestion, 3> found{{
        {SuggestionReason::EqualEdges, best([&](const StartChoice& s) {
             return std::tuple(unevenness(s), packs(s), s.rows, s.slivers, s.stock, exactly(s));
         })},
        {SuggestionReason::FewestUnits,
         best([&](const StartChoice& s) { return std::tuple(packs(s), s.stock, s.slivers, unevenness(s)); })},
        {SuggestionReason::FewestSlivers,
         best([&](const StartChoice& s) { return std::tuple(s.slivers, packs(s), s.stock, unevenness(s)); })},
    }};
    std::vector<Suggestion> kept;
    for (const Suggestion& s : found) {
        const bool addsNothing = std::any_of(kept.begin(), kept.end(), [&](const Suggestion& k) {
            return k.choice.stock <= s.choice.stock && k.choice.slivers <= s.choice.slivers &&
                   unevenness(k.choice) <= unevenness(s.choice);
        });
        if (!addsNothing) kept.push_back(s);
    }
    return kept;
}

} // namespace westrum
