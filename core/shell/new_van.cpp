#include "core/shell/new_van.h"

#include "core/measure/developed.h"
#include "core/shell/ties.h"

#include <algorithm>
#include <map>

namespace westrum {
namespace {

using enum AreaKind;

class Builder {
public:
    Builder(const BodyFigures& f, const SurfaceNamer& name) : f_(f), name_(name) {}

    std::vector<Surface> run() {
        const Mm lower = f_.height * 0.5, upper = f_.height - lower;
        const Mm across{f_.roofCamber.value > 0 ? arcLengthOf({f_.width.value, f_.roofCamber.value}) : f_.width.value};
        add("floor", SurfaceKind::Floor, Hand::None, Living, f_.length, f_.width);
        add("left-lower", SurfaceKind::LeftWall, Hand::Left, Living, f_.length, lower);
        add("left-upper", SurfaceKind::LeftWallUpper, Hand::Left, Living, f_.length, upper);
        add("right-lower", SurfaceKind::RightWall, Hand::Right, Living, f_.length, lower);
        add("right-upper", SurfaceKind::RightWallUpper, Hand::Right, Living, f_.length, upper);
        add("ceiling", SurfaceKind::Ceiling, Hand::None, Living, f_.length, across);
        add("bulkhead", SurfaceKind::Bulkhead, Hand::None, Cab, f_.width, f_.height);
        const Hand door = f_.slidingDoorLeft ? Hand::Left : Hand::Right;
        add("sliding-door", SurfaceKind::SlidingDoor, door, Living, f_.slidingDoorWidth, f_.slidingDoorHeight);
        for (const Hand hand : {Hand::Left, Hand::Right}) {
            const std::string side = hand == Hand::Left ? "left" : "right";
            add("rear-door-" + side, SurfaceKind::RearDoor, hand, Garage, f_.rearDoorsWidth * 0.5, f_.rearDoorsHeight);
        }
        for (const Hand hand : {Hand::Left, Hand::Right}) {
            const std::string side = hand == Hand::Left ? "left" : "right";
            add("arch-top-" + side, SurfaceKind::ArchTop, hand, Garage, f_.archLength, f_.archDepth);
            add("arch-face-" + side, SurfaceKind::ArchFace, hand, Garage, f_.archLength, f_.archHeight);
            add("arch-end-1-" + side, SurfaceKind::ArchEnd, hand, Garage, f_.archDepth, f_.archHeight);
            add("arch-end-2-" + side, SurfaceKind::ArchEnd, hand, Garage, f_.archDepth, f_.archHeight);
            for (const int n : {1, 2})
                add("pillar-" + std::to_string(n) + "-" + side, SurfaceKind::Pillar, hand, n == 1 ? Garage : Living,
                    {160}, f_.height);
            add("reveal-" + side, SurfaceKind::CabReveal, hand, Cab, {130}, f_.height);
        }
        add("bench-front", SurfaceKind::BenchFront, Hand::None, Living, {1200}, {420});
        add("bench-top", SurfaceKind::BenchTop, Hand::None, Living, {1200}, {520});
        add("kitchen-front", SurfaceKind::KitchenFront, Hand::None, Living, {1100}, {880});
        add("splashback", SurfaceKind::Splashback, Hand::None, Living, {1100}, {350});
        for (const int n : {1, 2, 3})
            add("wet-cell-" + std::to_string(n), SurfaceKind::WetCellWall, Hand::None, WetCell, {800}, f_.height);
        add("shelf", SurfaceKind::Shelf, Hand::None, Cab, f_.width, {380});
        add("headliner", SurfaceKind::Headliner, Hand::None, Cab, f_.width, {700});

        meet(all_, "floor", 2, "left-lower", 0);
        meet(all_, "floor", 0, "right-lower", 0);
        meet(all_, "floor", 1, "bulkhead", 0);
        meet(all_, "left-lower", 2, "left-upper", 0);
        meet(all_, "right-lower", 2, "right-upper", 0);
        meet(all_, "left-upper", 2, "ceiling", 0);
        meet(all_, "right-upper", 2, "ceiling", 2);
        meet(all_, "bulkhead", 2, "headliner", 0);
        meet(all_, "rear-door-left", 1, "rear-door-right", 3);
        meet(all_, "bench-front", 2, "bench-top", 0);
        meet(all_, "kitchen-front", 2, "splashback", 0);
        meet(all_, "wet-cell-1", 1, "wet-cell-2", 3);
        meet(all_, "wet-cell-2", 1, "wet-cell-3", 3);
        for (const std::string side : {"left", "right"}) {
            meet(all_, "arch-face-" + side, 2, "arch-top-" + side, 0);
            meet(all_, "arch-face-" + side, 3, "arch-end-1-" + side, 1);
            meet(all_, "arch-face-" + side, 1, "arch-end-2-" + side, 3);
        }
        return std::move(all_);
    }

private:
    void add(const std::string& id, SurfaceKind kind, Hand hand, AreaKind area, Mm length, Mm height) {
        Surface s;
        s.id = id;
        s.kind = kind;
        s.hand = hand;
        s.name = name_(kind, hand, ++counts_[{kind, hand}]);
        s.area.kind = area;
        s.ghostLength = length;
        s.ghostHeight = height;
        // What was bowed or taped round a curve is asked for as such.
        if (kind == SurfaceKind::Ceiling) s.measurement.form = OutlineForm::FourSides;
        all_.push_back(std::move(s));
    }

    const BodyFigures& f_;
    const SurfaceNamer& name_;
    std::map<std::pair<SurfaceKind, Hand>, int> counts_;
    std::vector<Surface> all_;
};

} // namespace

const std::vector<BodyField>& bodyFields() {
    static const std::vector<BodyField> fields{
        {"length", &BodyFigures::length, 800, 12000},
        {"width", &BodyFigures::width, 800, 3000},
        {"height", &BodyFigures::height, 800, 3500},
        {"roofCamber", &BodyFigures::roofCamber, 0, 400},
        {"archLength", &BodyFigures::archLength, 100, 2500},
        {"archHeight", &BodyFigures::archHeight, 20, 1200},
        {"archDepth", &BodyFigures::archDepth, 20, 800},
        {"slidingDoorWidth", &BodyFigures::slidingDoorWidth, 300, 2500},
        {"slidingDoorHeight", &BodyFigures::slidingDoorHeight, 300, 3000},
        {"rearDoorsWidth", &BodyFigures::rearDoorsWidth, 300, 2800},
        {"rearDoorsHeight", &BodyFigures::rearDoorsHeight, 300, 3000},
    };
    return fields;
}

std::vector<Surface> surfacesOf(const BodyFigures& figures, const SurfaceNamer& name) {
    return Builder(figures, name).run();
}

bool isFurniture(SurfaceKind kind) {
    using enum SurfaceKind;
    return kind == BenchFront || kind == BenchTop || kind == KitchenFront || kind == Shelf || kind == Splashback;
}

Access accessOf(const BodyFigures& f, const std::string& slidingDoor, const std::string& rearDoors) {
    const auto reading = [](Mm mm) { return Reading{{}, mm}; };
    Access access;
    access.doors = {{slidingDoor, reading(f.slidingDoorWidth), reading(f.slidingDoorHeight)},
                    {rearDoors, reading(f.rearDoorsWidth), reading(f.rearDoorsHeight)}};
    return access;
}

} // namespace westrum
