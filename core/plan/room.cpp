#include "core/plan/standing.h"
#include "core/plan/surface_stage.h"

#include <algorithm>
#include <utility>

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

/// The inside as it stands in the van: what of it is floor, and what hangs over that. Where bare heights were read, the
/// ceiling is brought to them, straight from one to the next: its shape tells the rest.
class RoomShape {
public:
    RoomShape(const Job& job, const SurfaceStage& plan) {
        for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
            const Pose* pose = standingPose(plan, i);
            if (!pose) continue;
            const SurfaceKind kind = job.surfaces[i].kind;
            const Face face{pose, &plan.surfaces[i]};
            if (kind == SurfaceKind::Floor) floors_.push_back(face);
            if (kind == SurfaceKind::Ceiling || kind == SurfaceKind::Headliner) over_.push_back(face);
        }
        if (floors_.empty()) return;
        const Bounds b = boundsOf(floors_.front().plan->measured.frame);
        std::vector<std::pair<double, double>> brought;
        for (const auto& [read, share] : {std::pair{&job.headroom.rear, kNearEnd},
                                          {&job.headroom.middle, 0.5},
                                          {&job.headroom.front, 1 - kNearEnd}}) {
            const double x = b.low.x + share * b.width();
            if (!*read) continue;
            if (const auto shape = bareAt({x, (b.low.y + b.high.y) / 2}))
                brought.emplace_back(x, ((*read)->length - *shape).value);
        }
        brought_ = std::move(brought);
    }

    /// Bare heights over the middle of the floor: near its rear, in its middle and near its front, where there is a
    /// ceiling.
    [[nodiscard]] std::vector<Mm> alongTheMiddle() const {
        std::vector<Mm> heights;
        if (floors_.empty()) return heights;
        const Bounds b = boundsOf(floors_.front().plan->measured.frame);
        for (const double share : {kNearEnd, 0.5, 1 - kNearEnd})
            if (const auto h = bareAt({b.low.x + share * b.width(), (b.low.y + b.high.y) / 2})) heights.push_back(*h);
        return heights;
    }
    /// From the floor's metal to the lowest of what hangs over a place, plumb.
    [[nodiscard]] std::optional<Mm> bareAt(Point at) const {
        const auto under = lowest(at, false);
        return under ? std::optional(Mm{under->height}) : std::nullopt;
    }
    /// From the lining that hangs over a place down to the floor's metal.
    [[nodiscard]] std::optional<Mm> linedAt(Point at) const {
        const auto under = lowest(at, true);
        return under ? std::optional(Mm{under->height}) : std::nullopt;
    }
    void overTheFloor(std::optional<Mm> person, HeadroomPlan& head) const {
        if (floors_.empty() || over_.empty()) return;
        const Bounds b = boundsOf(floors_.front().plan->measured.frame);
        constexpr double kAcross = 9; // cells over the width of a van
        head.cell = {std::max(50.0, std::min(b.width(), b.height()) / kAcross)};
        const double cell = head.cell.value;
        for (double x = b.low.x + cell / 2; x < b.high.x; x += cell)
            for (double y = b.low.y + cell / 2; y < b.high.y; y += cell) {
                const Point at{x, y};
                const Face* on = floorAt(at);
                const auto under = on ? lowest(at, true) : std::nullopt;
                if (!under) continue;
                const Stack& below = on->plan->stack;
                HeadAt h{at, Mm{under->height} - below.total, {}, true};
                h.worst = h.head - below.tolerance - under->tolerance;
                if (person) h.enough = h.worst >= *person + kHeadClearance;
                head.places.push_back(h);
            }
    }

private:
    struct Face {
        const Pose* pose;
        const SurfacePlan* plan;
    };
    struct Under {
        double height;
        Mm tolerance;
    };
    [[nodiscard]] const Face* floorAt(Point at) const {
        for (const Face& f : floors_)
            if (const auto own = f.pose->at(at.x, at.y); own && contains(f.plan->measured.outline, *own)) return &f;
        return nullptr;
    }
    [[nodiscard]] std::optional<Under> lowest(Point at, bool lined) const {
        std::optional<Under> least;
        for (const Face& f : over_) {
            const auto own = f.pose->at(at.x, at.y);
            if (!own || !contains(f.plan->measured.outline, *own)) continue;
            // What is built up hangs square to the ceiling.
            const double plumb = std::max(0.5, std::abs(f.pose->facing(*own).z));
            const Stack& stack = f.plan->stack;
            const double height = f.pose->map(*own).z + broughtAt(at.x) - (lined ? stack.total.value / plumb : 0);
            if (!least || height < least->height) least = Under{height, lined ? stack.tolerance : Mm{}};
        }
        return least;
    }

    [[nodiscard]] double broughtAt(double x) const {
        if (brought_.empty()) return 0;
        if (x <= brought_.front().first) return brought_.front().second;
        for (std::size_t k = 1; k < brought_.size(); ++k) {
            const auto& [from, low] = brought_[k - 1];
            const auto& [to, high] = brought_[k];
            if (x <= to) return low + (high - low) * (x - from) / (to - from);
        }
        return brought_.back().second;
    }
    static constexpr double kNearEnd = 0.1; ///< of the floor's length: where "rear" and "front" are read

    std::vector<Face> floors_, over_;
    std::vector<std::pair<double, double>> brought_; ///< along the floor: by how much the ceiling is
};

} // namespace

double HeadroomPlan::shareEnough() const {
    if (places.empty()) return 1;
    const auto enough = std::count_if(places.begin(), places.end(), [](const HeadAt& h) { return h.enough; });
    return static_cast<double>(enough) / static_cast<double>(places.size());
}

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
    const RoomShape room(job, plan);
    std::vector<Mm> heights;
    for (const MaybeReading* r : {&job.headroom.rear, &job.headroom.middle, &job.headroom.front})
        if (*r) heights.push_back((*r)->length);
    const bool byShape = heights.empty();
    if (byShape) heights = room.alongTheMiddle();
    if (!heights.empty()) {
        const auto person = job.headroom.person ? std::optional(job.headroom.person->length) : std::nullopt;
        HeadroomPlan& head = plan.headroom.emplace();
        head.floor = floor ? floor->surface : std::string();
        head.ceiling = ceiling ? ceiling->surface : std::string();
        head.left = headroomLeft(heights, below, ceiling ? ceiling->stack : bare, person, kHeadClearance);
        head.byShape = byShape;
        room.overTheFloor(person, head);
        if (head.left.standsUpright == false)
            plan.found.push_back({Severity::Warning,
                                  {head.ceiling, Part::Whole},
                                  RemarkKind::HeadroomShort,
                                  {{"head", head.left.worst}, {"person", *person}, {"limit", *person + kHeadClearance}},
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
    const RoomShape room(job, plan);
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
        const std::optional<Point> at = middleFromAbove(job, plan, i);
        const auto lined = at ? room.linedAt(*at) : std::nullopt;
        SeatPlan seat{s.id, {s.heightRear->length.value + pressed - floor}, {}};
        std::optional<double> bare;
        for (const MaybeReading* r : {&job.headroom.rear, &job.headroom.middle, &job.headroom.front})
            if (*r) bare = bare ? std::min(*bare, (*r)->length.value) : (*r)->length.value;
        double ceiling = 0;
        for (std::size_t k = 0; k < job.surfaces.size(); ++k)
            if (job.surfaces[k].kind == SurfaceKind::Ceiling)
                ceiling = std::max(ceiling, plan.surfaces[k].stack.total.value);
        const double sat = s.heightRear->length.value + pressed;
        if (lined) // as the ceiling stands over it
            seat.above = *lined - Mm{sat};
        else if (bare)
            seat.above = Mm{*bare - ceiling - sat};
        plan.seats.push_back(std::move(seat));
    }
}

} // namespace westrum
