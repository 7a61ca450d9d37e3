#include "core/families/family.h"

namespace westrum {

std::span<const ProductFamily* const> productFamilies() {
    static const std::vector<const ProductFamily*> all = [] {
        std::vector<const ProductFamily*> list;
        for (const Family& family : familyTable()) list.push_back(&family.product);
        return list;
    }();
    return all;
}

const Family* familyOf(std::string_view id) {
    for (const Family& family : familyTable())
        if (family.product.id == id) return &family;
    return nullptr;
}

const ProductFamily* productFamily(std::string_view id) {
    const Family* family = familyOf(id);
    return family ? &family->product : nullptr;
}

std::span<const SetOutFamily> setOutFamilies() {
    static const std::vector<SetOutFamily> all = [] {
        std::vector<SetOutFamily> list;
        for (const Family& family : familyTable())
            if (family.setOut) list.push_back(*family.setOut);
        return list;
    }();
    return all;
}

const SetOutFamily* findFamily(std::string_view id) {
    const Family* family = familyOf(id);
    return family && family->setOut ? &*family->setOut : nullptr;
}

std::span<const Field> fixingRules(std::string_view family) {
    const Family* found = familyOf(family);
    return found ? found->fixing : std::span<const Field>();
}

double hoursFor(std::string_view family, double areaM2, int pieces, const HourRates& own) {
    const Family* found = familyOf(family);
    if (!found) return 0;
    const auto mine = own.find(family);
    const HourRate& rate = mine == own.end() ? found->hours : mine->second;
    return rate.perM2 * areaM2 + rate.perPiece * pieces;
}

std::vector<Fixing> fixingsOf(NeedFacts& facts) {
    std::vector<Fixing> fixings;
    const Family* family = familyOf(facts.product->family);
    if (!family || !family->fix) return fixings;
    facts.fixing = family->fixing;
    family->fix(facts, fixings);
    return fixings;
}

std::vector<Need> needsOf(NeedFacts facts) {
    std::vector<Need> needs;
    const Family* family = familyOf(facts.product->family);
    if (!family) return needs;
    hold(facts.fixings ? *facts.fixings : fixingsOf(facts), needs);
    facts.fixing = family->fixing;
    if (family->needs) family->needs(facts, needs);
    addSundries(*facts.setOut, needs);
    return needs;
}

} // namespace westrum
