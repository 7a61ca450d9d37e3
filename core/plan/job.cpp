#include "core/plan/job.h"

#include "core/families/family.h"

namespace westrum {

const Surface* Job::surface(std::string_view id) const {
    for (const Surface& s : surfaces)
        if (s.id == id) return &s;
    return nullptr;
}

Surface* Job::surface(std::string_view id) {
    for (Surface& s : surfaces)
        if (s.id == id) return &s;
    return nullptr;
}

const FinishOptions& Job::options(const std::string& id) const {
    static const FinishOptions undecided;
    const auto found = finishes.find(id);
    return found == finishes.end() ? undecided : found->second;
}

const Finish& Job::finish(const std::string& id) const { return options(id).now(); }

const Layer* Job::face(const std::string& id) const {
    const Finish& f = finish(id);
    const int at = faceLayer(f, catalogue);
    return at < 0 ? nullptr : &f.layers[static_cast<std::size_t>(at)];
}

const Product* Job::faceProduct(const std::string& id) const {
    const Layer* seen = face(id);
    return seen ? catalogue.find(seen->product) : nullptr;
}

const Layer* Job::layer(const std::string& id, LayerRole role) const {
    const Finish& f = finish(id);
    const int at = layerOfRole(f, catalogue, role);
    return at < 0 ? nullptr : &f.layers[static_cast<std::size_t>(at)];
}

const FitLog& Job::log(const std::string& id) const {
    static const FitLog empty;
    const auto found = logs.find(id);
    return found == logs.end() ? empty : found->second;
}

const CutList& Job::cutList(const std::string& product) const {
    static const CutList none;
    const auto found = cutLists.find(product);
    return found == cutLists.end() ? none : found->second;
}

Layer layerOf(const Product& product) {
    Layer layer{.product = product.id, .rules = {}};
    const std::span<const Field> fields = fieldsOfFamily(product.family);
    for (const auto& [rule, field] : {std::pair{"gap", "movementGap"},
                                      {"stagger", "leastStagger"},
                                      {"joint", "joint"},
                                      {"allowance", "allowance"},
                                      {"seamLap", "lap"}})
        if (findField(fields, field))
            if (const auto value = product.fields.find(field); value != product.fields.end())
                layer.rules[rule] = value->second;
    return layer;
}

void putLayer(Finish& finish, const Catalogue& catalogue, const Product& product) {
    const ProductFamily* family = productFamily(product.family);
    if (!family) return;
    const int at =
        family->role == LayerRole::Finish ? faceLayer(finish, catalogue) : layerOfRole(finish, catalogue, family->role);
    Layer layer = layerOf(product);
    if (at < 0) {
        finish.layers.insert(finish.layers.begin() + placeFor(finish, catalogue, family->role), std::move(layer));
        return;
    }
    Layer& old = finish.layers[static_cast<std::size_t>(at)];
    const Product* before = catalogue.find(old.product);
    if (before && before->family == product.family) {
        for (const auto& [key, value] : layer.rules) old.rules[key] = value;
        // A start line of a wider plank may not exist on this one.
        const auto offset = old.rules.find("startOffset");
        if (offset != old.rules.end() && offset->second >= rowModuleOf(product).value) offset->second = 0;
        old.product = product.id;
    } else {
        layer.bolted = old.bolted;
        old = std::move(layer);
    }
}

void dropLayer(Finish& finish, const Catalogue& catalogue, LayerRole role) {
    const int at = role == LayerRole::Finish ? faceLayer(finish, catalogue) : layerOfRole(finish, catalogue, role);
    if (at >= 0) finish.layers.erase(finish.layers.begin() + at);
}

Job newJob(const std::string& name, const std::string& floorName, Catalogue catalogue, Currency currency) {
    Surface floor;
    floor.id = "floor";
    floor.name = floorName;
    floor.ghostLength = {3600};
    floor.ghostHeight = {1780};
    return newVanJob(name, std::move(catalogue), currency, {std::move(floor)});
}

Job newVanJob(const std::string& name, Catalogue catalogue, Currency currency, std::vector<Surface> surfaces) {
    Job job;
    job.name = name;
    job.currency = currency;
    job.surfaces = std::move(surfaces);
    FinishOptions floor;
    const auto putFirst = [&](const auto& wanted) {
        for (const Product& product : catalogue.products)
            if (const Family* family = familyOf(product.family); family && wanted(*family))
                return putLayer(floor.now(), catalogue, product);
    };
    putFirst([](const Family& f) { return f.product.role == LayerRole::Underlay; });
    putFirst([](const Family& f) { return f.laid.floats; });
    for (const Surface& s : job.surfaces)
        if (s.kind == SurfaceKind::Floor) job.finishes[s.id] = floor;
    job.catalogue = std::move(catalogue);
    return job;
}

namespace {

/// Whether a piece's key ("plank/floor/...", with a mark for a layer behind the surface's id) is of this surface.
bool isPieceOf(std::string_view key, std::string_view surface) {
    const std::size_t at = key.find('/');
    if (at == std::string_view::npos) return false;
    key.remove_prefix(at + 1);
    if (!key.starts_with(surface)) return false;
    const char then = key.size() > surface.size() ? key[surface.size()] : '/';
    return !(std::isalnum(static_cast<unsigned char>(then)) || then == '-' || then == '_');
}

} // namespace

std::string freeSurfaceId(const Job& job, const std::string& wanted) {
    std::string id = wanted;
    // What is still kept about one that was taken away must not come back to another.
    const auto taken = [&] {
        const auto tied = [&](const Surface& s) {
            return std::any_of(s.edges.begin(), s.edges.end(), [&](const Edge& e) { return e.surface == id; });
        };
        const auto cut = [&](const auto& entry) {
            const CutList& list = entry.second;
            return std::any_of(list.pieces.begin(), list.pieces.end(),
                               [&](const LoosePiece& p) { return p.surface == id; }) ||
                   std::any_of(list.kept.begin(), list.kept.end(), [&](const KeptItem& item) {
                       return std::any_of(item.pieces.begin(), item.pieces.end(),
                                          [&](const KeptPiece& p) { return isPieceOf(p.piece, id); });
                   });
        };
        return job.surface(id) || job.finishes.contains(id) || job.logs.contains(id) ||
               std::any_of(job.surfaces.begin(), job.surfaces.end(), tied) ||
               std::any_of(job.cutLists.begin(), job.cutLists.end(), cut);
    };
    for (int n = 2; taken(); ++n) id = wanted + "-" + std::to_string(n);
    return id;
}

} // namespace westrum
