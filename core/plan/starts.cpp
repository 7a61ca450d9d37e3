#include "core/plan/starts.h"

#include "core/plan/surface_stage.h"

#include <algorithm>

namespace westrum {
namespace {

/// The request of one layer as the plan makes it, or nothing if it cannot be set out.
std::optional<SetOutRequest> ask(const Job& job, const SurfaceStage& stage, const std::string& surfaceId, int layer) {
    const Surface* surface = job.surface(surfaceId);
    const SurfacePlan* planned = stage.surface(surfaceId);
    if (!surface || !planned || !planned->measured.measured()) return std::nullopt;
    const Finish& finish = job.finish(surfaceId);
    const int at = layer < 0 ? faceLayer(finish, job.catalogue) : layer;
    if (at < 0 || at >= static_cast<int>(finish.layers.size())) return std::nullopt;
    const auto place = static_cast<std::size_t>(at);
    const Layer& l = finish.layers[place];
    const Product* product = job.catalogue.find(l.product);
    const SetOutFamily* family = product ? findFamily(product->family) : nullptr;
    if (!family || !checkFields(product->fields, fieldsOfFamily(product->family), "", {}).empty() ||
        !checkFields(l.rules, family->ruleFields, "", {}).empty())
        return std::nullopt;
    static const MeasuredOutline none;
    std::vector<TiedSurface> tied;
    for (const Surface& s : job.surfaces) {
        const SurfacePlan* own = stage.surface(s.id);
        tied.push_back({&s, own ? &own->measured : &none});
    }
    SurfaceContext context = contextOf(job, *surface, planned->measured, floorFrameOf(tied, stage.fold), stage.passage);
    context.runsOnFrom = runsOnFrom(*surface, planned->measured, finish, context.products,
                                    [&](const std::string& id) { return stage.surface(id); });
    const SetOutRequest facts = requestOf(*surface, planned->shape, planned->measured, context);
    const std::size_t below = std::min(place, planned->layers.size());
    const std::vector<Region> panels = panelsBelow(std::span(planned->layers).first(below));
    return requestFor(facts, finish, context, place, panels);
}

} // namespace

StartsInput startsInput(const Job& job, const SurfaceStage& planned, const std::string& surface, int layer) {
    StartsInput in{ask(job, planned, surface, layer)};
    if (in.request)
        for (const std::string_view rule : findFamily(in.request->product.family)->startRules)
            in.request->rules.erase(std::string(rule));
    return in;
}

Starts startsOf(const StartsInput& input, const std::stop_token& stop, const std::function<void(double)>& progress) {
    if (!input.request) return {};
    SetOutRequest request = *input.request;
    request.progress.call = progress;
    Starts starts;
    starts.choices = findFamily(request.product.family)->choices(request, stop);
    starts.unitsPerPack = perPackOf(request.product);
    for (const StartChoice& c : starts.choices)
        if (c.onStrip) starts.module = std::max(starts.module, c.startOffset.value + 1);
    starts.suggestions = suggestStarts(starts.choices, starts.unitsPerPack);
    return starts;
}

Starts startsOf(const Job& job, const std::string& surface, int layer, const std::stop_token& stop) {
    return startsOf(startsInput(job, Planner().surfaces(surfacesInput(job), stop), surface, layer), stop);
}

SetOut setOutAs(const Job& job, const SurfaceStage& planned, const std::string& surface, int layer,
                const FieldValues& rules) {
    auto request = ask(job, planned, surface, layer);
    if (!request) return {};
    const SetOutFamily* family = findFamily(request->product.family);
    if (!checkFields(rules, family->ruleFields, "", {}).empty()) return {};
    request->rules = rules;
    return family->setOut(*request, {});
}

} // namespace westrum
