#include "core/families/holding.h"

#include "core/families/family.h"

namespace westrum {
namespace {

const Family* familyAt(std::span<const Product* const> products, std::size_t i) {
    return products[i] ? familyOf(products[i]->family) : nullptr;
}

/// The layer of panels that a lining wraps: the last of them below it.
std::optional<std::size_t> wrappedBy(std::span<const Product* const> products, std::size_t lining) {
    for (std::size_t k = lining; k-- > 0;)
        if (const Family* f = familyAt(products, k); f && f->laid.wrapped) return k;
    return std::nullopt;
}

} // namespace

std::vector<Holding> holdingsOf(std::span<const Product* const> products, std::span<const FieldValues* const> rules) {
    std::vector<Holding> all(products.size());
    for (std::size_t i = 0; i < products.size(); ++i) {
        const Family* family = familyAt(products, i);
        if (!family || !findField(family->fixing, "fixWith")) continue;
        const bool said = rules[i]->contains("fixWith");
        const Family* below = i > 0 ? familyAt(products, i - 1) : nullptr;
        all[i].by = !said && below && below->product.role == LayerRole::Adhesive
                        ? FixedWith::AdhesiveAlone
                        : static_cast<FixedWith>(static_cast<int>(valueOf(*rules[i], family->fixing, "fixWith")));
    }
    for (std::size_t i = 0; i < products.size(); ++i) {
        const Family* family = familyAt(products, i);
        if (!family || !family->laid.wraps || !family->laid.wraps(*rules[i])) continue;
        const auto panels = wrappedBy(products, i);
        if (!panels) continue;
        const auto said = rules[*panels]->find("fixWith");
        if (said != rules[*panels]->end() && static_cast<FixedWith>(int(said->second)) != FixedWith::PanelClips) {
            all[i].by = FixedWith::AdhesiveAlone; // onto its panels, which are held another way
            continue;
        }
        all[i].by = FixedWith::PanelClips;
        all[*panels] = {.by = FixedWith::PanelClips, .byWrapping = true};
    }
    return all;
}

} // namespace westrum
