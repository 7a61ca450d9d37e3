#include "core/plan/job.h"

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

const Finish& Job::finish(const std::string& id) const {
    static const Finish undecided;
    const auto found = finishes.find(id);
    return found == finishes.end() ? undecided : found->second;
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

Job newJob(const std::string& name, Catalogue catalogue, Currency currency) {
    Surface floor;
    floor.id = "floor";
    floor.name = "Floor";
    floor.ghostLength = {3600};
    floor.ghostHeight = {1780};
    return newVanJob(name, std::move(catalogue), currency, {std::move(floor)});
}

Job newVanJob(const std::string& name, Catalogue catalogue, Currency currency, std::vector<Surface> surfaces) {
    Job job;
    job.name = name;
    job.currency = currency;
    job.surfaces = std::move(surfaces);
    Finish finish;
    for (const Product& product : catalogue.products) {
        if (product.family == "planks" && finish.product.empty()) {
            finish.product = product.id;
            // A plank's label asks for a gap and a stagger: a new floor starts with them.
            for (const auto& [rule, field] : {std::pair{"gap", "movementGap"}, {"stagger", "leastStagger"}})
                if (const auto value = product.fields.find(field); value != product.fields.end())
                    finish.rules[rule] = value->second;
        }
        if (product.family == "underlay" && finish.underlay.empty()) finish.underlay = product.id;
    }
    for (const Surface& s : job.surfaces)
        if (s.kind == SurfaceKind::Floor) job.finishes[s.id] = finish;
    job.catalogue = std::move(catalogue);
    return job;
}

std::string freeSurfaceId(const Job& job, const std::string& wanted) {
    std::string id = wanted;
    for (int n = 2; job.surface(id); ++n) id = wanted + "-" + std::to_string(n);
    return id;
}

} // namespace westrum
