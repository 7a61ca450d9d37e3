#include "core/buildup/build_up.h"

namespace westrum {
namespace {

std::optional<LayerRole> roleOf(const Layer& layer, const Catalogue& catalogue) {
    const Product* product = catalogue.find(layer.product);
    const ProductFamily* family = product ? productFamily(product->family) : nullptr;
    return family ? std::optional(family->role) : std::nullopt;
}

} // namespace

Surface withBattensOf(const Surface& surface, const Finish& finish) {
    std::vector<Support> own;
    for (const Layer& l : finish.layers) own.insert(own.end(), l.battens.begin(), l.battens.end());
    if (own.empty()) return surface;
    Surface with = surface;
    // Those that were measured keep their places, with none in the row: others are told by their places.
    for (Support& s : with.supports)
        if (s.kind == SupportKind::Batten) s.count = 0;
    for (Support s : own) {
        s.kind = SupportKind::Batten;
        with.supports.push_back(std::move(s));
    }
    return with;
}

int faceLayer(const Finish& finish, const Catalogue& catalogue) {
    for (int i = static_cast<int>(finish.layers.size()) - 1; i >= 0; --i)
        if (roleOf(finish.layers[static_cast<std::size_t>(i)], catalogue) == LayerRole::Finish) return i;
    return -1;
}

int layerOfRole(const Finish& finish, const Catalogue& catalogue, LayerRole role) {
    for (std::size_t i = 0; i < finish.layers.size(); ++i)
        if (roleOf(finish.layers[i], catalogue) == role) return static_cast<int>(i);
    return -1;
}

int placeFor(const Finish& finish, const Catalogue& catalogue, LayerRole role) {
    for (std::size_t i = 0; i < finish.layers.size(); ++i) {
        const auto other = roleOf(finish.layers[i], catalogue);
        if (other && *other > role) return static_cast<int>(i);
    }
    return static_cast<int>(finish.layers.size());
}

} // namespace westrum
