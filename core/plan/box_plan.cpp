#include "core/plan/box_plan.h"

#include "core/families/family.h"

#include <algorithm>

namespace westrum {
namespace {

Surface& surfaceFor(Job& job, std::string& id, const char* wanted, SurfaceKind kind, Hand hand, int number,
                    const BoxSurfaceNamer& name) {
    if (Surface* there = id.empty() ? nullptr : job.surface(id)) return *there;
    id = freeSurfaceId(job, wanted);
    Surface s;
    s.id = id;
    s.kind = kind;
    s.hand = hand;
    s.name = name(kind, hand, number);
    job.surfaces.push_back(std::move(s));
    return job.surfaces.back();
}

void tie(Surface& s, int side, const std::string& other, int otherSide) {
    if (static_cast<int>(s.edges.size()) <= side) s.edges.resize(static_cast<std::size_t>(side) + 1);
    Edge& e = s.edges[static_cast<std::size_t>(side)];
    e.kind = EdgeKind::Meets;
    e.surface = other;
    e.side = otherSide;
}

} // namespace

void putArchBox(Job& job, ArchBox box, const BoxSurfaceNamer& name) {
    Surface* floor = job.surface(box.floor);
    const bool makes = boxParts(box).parts.has_value();
    if (makes && floor) {
        // The first side of a floor is the right-hand one, seen forwards; the wall it meets says it for certain.
        Hand hand = Hand::Right;
        int side = 0;
        if (box.notch >= 0 && box.notch < static_cast<int>(floor->measurement.notches.size()))
            side = floor->measurement.notches[static_cast<std::size_t>(box.notch)].side;
        else {
            box.notch = static_cast<int>(floor->measurement.notches.size());
            floor->measurement.notches.push_back({.name = {}, .side = 0, .position = {}, .length = {}, .depth = {}});
        }
        if (side == 2) hand = Hand::Left;
        if (const Surface* wall = job.surface(floor->edge(side).surface); wall && wall->hand != Hand::None)
            hand = wall->hand;
        Notch& notch = floor->measurement.notches[static_cast<std::size_t>(box.notch)];
        notch.length = box.length;
        notch.depth = box.depth;
        const AreaKind area = floor->area.kind;
        const auto put = [&](std::string& id, const char* wanted, SurfaceKind kind, int number, Measurement m) {
            Surface& s = surfaceFor(job, id, wanted, kind, hand, number, name);
            s.measurement = std::move(m);
            if (s.area.kind == AreaKind::Unsaid) s.area.kind = area;
        };
        put(box.top, "box-top", SurfaceKind::ArchTop, 0, boxTop(box));
        put(box.face, "box-face", SurfaceKind::ArchFace, 0, boxFace(box));
        put(box.rearEnd, "box-end-1", SurfaceKind::ArchEnd, 1, boxEnd(box, false));
        put(box.frontEnd, "box-end-2", SurfaceKind::ArchEnd, 2, boxEnd(box, true));
        Surface& face = *job.surface(box.face);
        tie(face, 2, box.top, 0);
        tie(face, 3, box.rearEnd, 1);
        tie(face, 1, box.frontEnd, 3);
    }
    const auto same =
        std::find_if(job.archBoxes.begin(), job.archBoxes.end(), [&](const ArchBox& b) { return b.id == box.id; });
    if (same != job.archBoxes.end())
        *same = std::move(box);
    else
        job.archBoxes.push_back(std::move(box));
}

void checkBoxes(const Job& job, SurfaceStage& stage) {
    for (const ArchBox& box : job.archBoxes) {
        std::optional<BoxFault> fault = boxParts(box).fault;
        const Surface* floor = job.surface(box.floor);
        if (!fault && floor && box.notch < static_cast<int>(floor->measurement.notches.size())) {
            const Notch& notch = floor->measurement.notches[static_cast<std::size_t>(box.notch)];
            const SurfacePlan* wall = stage.surface(floor->edge(notch.side).surface);
            if (wall && wall->measured.measured() &&
                box.height->length.value > boundsOf(wall->measured.outline).height() + 1)
                fault = BoxFault::HigherThanWall;
        }
        if (!fault) continue;
        Remark remark{Severity::Error,
                      {box.face, Part::Whole},
                      RemarkKind::ArchBoxImpossible,
                      {{"what", static_cast<std::int64_t>(*fault)}},
                      {}};
        for (SurfacePlan& s : stage.surfaces)
            if (s.surface == box.face) s.remarks.push_back(remark);
        stage.found.push_back(std::move(remark));
    }
}

} // namespace westrum
