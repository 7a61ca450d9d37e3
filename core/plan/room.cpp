#include "core/plan/surface_stage.h"

#include <algorithm>

namespace westrum {

namespace {

/// The floor that a door opens onto: as said, else the first there is.
const SurfacePlan* floorAt(const Job& job, const Access::Door& door, const SurfaceStage& plan) {
    const SurfacePlan* first = nullptr;
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        if (job.surfaces[i].kind != SurfaceKind::Floor) continue;
        if (job.surfaces[i].id == door.floor) return &plan.surfaces[i];
        if (!first) first = &plan.surfaces[i];
    }
    return first;
}

} // namespace

void findHeadroom(const Job& job, SurfaceStage& plan) {
    const SurfacePlan *floor = nullptr, *ceiling = nullptr;
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        const SurfacePlan& s = plan.surfaces[i];
        const auto thicker = [&](const SurfacePlan* than) { return !than || s.stack.total > than->stack.total; };
        if (job.surfaces[i].kind == SurfaceKind::Floor && thicker(floor)) floor = &s;
        if (job.surfaces[i].kind == SurfaceKind::Ceiling && thicker(ceiling)) ceiling = &s;
    }
    static const Stack bare;
    const Stack& below = floor ? floor->stack : bare;
    std::vector<Mm> heights;
    for (const MaybeReading* r : {&job.headroom.rear, &job.headroom.middle, &job.headroom.front})
        if (*r) heights.push_back((*r)->length);
    if (!heights.empty()) {
        const auto person = job.headroom.person ? std::optional(job.headroom.person->length) : std::nullopt;
        plan.headroom =
            HeadroomPlan{floor ? floor->surface : std::string(), ceiling ? ceiling->surface : std::string(),
                         headroomLeft(heights, below, ceiling ? ceiling->stack : bare, person, kHeadClearance)};
        const HeadroomLeft& left = plan.headroom->left;
        if (left.standsUpright == false)
            plan.found.push_back({Severity::Warning,
                                  {ceiling ? ceiling->surface : std::string(), Part::Whole},
                                  RemarkKind::HeadroomShort,
                                  {{"head", left.worst}, {"person", *person}, {"limit", *person + kHeadClearance}},
                                  {}});
    }
    for (const Access::Door& d : job.access.doors) {
        if (!d.sill) continue;
        const SurfacePlan* at = floorAt(job, d, plan);
        const ThresholdStep step = thresholdStep(at ? at->stack : bare, d.sill->length, kStepLimit, kRampAngleRad);
        plan.thresholds.push_back({d.name, at ? at->surface : std::string(), step});
        if (step.needsTransition && at && !at->layers.empty())
            plan.found.push_back({Severity::Note,
                                  {at->surface, Part::Whole},
                                  RemarkKind::DoorStep,
                                  {{"door", d.name}, {"step", step.step}, {"length", step.rampRun}},
                                  {}});
    }
}

void findSeats(const Job& job, SurfaceStage& plan) {
    double floor = 0;
    for (std::size_t i = 0; i < job.surfaces.size(); ++i)
        if (job.surfaces[i].kind == SurfaceKind::Floor) floor = std::max(floor, plan.surfaces[i].stack.total.value);
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        const Surface& s = job.surfaces[i];
        SurfacePlan& p = plan.surfaces[i];
        const LayerPlan* face = p.faceLayer();
        const Family* upholstery = face ? familyOf(face->family) : nullptr;
        if (!upholstery || !upholstery->laid.seat || !face->setOut.laid() || !liesLevel(s.kind) || !s.heightRear)
            continue;
        double pressed = 0; // what is left of the layers under a person
        for (std::size_t k = 0; k < p.layers.size(); ++k)
            if (const Product* product = job.catalogue.find(p.layers[k].product)) {
                const Family* family = familyOf(product->family);
                pressed += thicknessOf(*product).value * (family && family->laid.cushion ? 1 - squashOf(*product) : 1);
            }
        SeatPlan seat{s.id, {s.heightRear->length.value + pressed - floor}, {}};
        std::optional<double> bare;
        for (const MaybeReading* r : {&job.headroom.rear, &job.headroom.middle, &job.headroom.front})
            if (*r) bare = bare ? std::min(*bare, (*r)->length.value) : (*r)->length.value;
        double ceiling = 0;
        for (std::size_t k = 0; k < job.surfaces.size(); ++k)
            if (job.surfaces[k].kind == SurfaceKind::Ceiling)
                ceiling = std::max(ceiling, plan.surfaces[k].stack.total.value);
        if (bare) seat.above = Mm{*bare - ceiling - s.heightRear->length.value - pressed};
        plan.seats.push_back(std::move(seat));
    }
}

} // namespace westrum
