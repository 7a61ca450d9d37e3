#include "core/setout/edge_meeting.h"

namespace westrum {
namespace {

bool isDoor(SurfaceKind kind) {
    return kind == SurfaceKind::SlidingDoor || kind == SurfaceKind::RearDoor || kind == SurfaceKind::RearDoors;
}
bool isWet(const Surface& s) { return s.kind == SurfaceKind::WetCellWall; }
bool isTop(SurfaceKind k) { return k == SurfaceKind::ArchTop || k == SurfaceKind::BenchTop || k == SurfaceKind::Shelf; }
bool isBoxFace(SurfaceKind k) {
    return k == SurfaceKind::ArchFace || k == SurfaceKind::ArchEnd || k == SurfaceKind::BenchFront ||
           k == SurfaceKind::KitchenFront;
}

} // namespace

bool isOverhead(SurfaceKind k) { return k == SurfaceKind::Ceiling || k == SurfaceKind::Headliner; }

std::optional<EdgeMeeting> meetingOf(const Surface& here, const Edge& edge, const Surface* there) {
    switch (edge.kind) {
    case EdgeKind::Free: return EdgeMeeting::FreeEdge;
    case EdgeKind::UnderTrim:
        return here.kind == SurfaceKind::Floor ? EdgeMeeting::FloorAtDoor : EdgeMeeting::UnderTrim;
    case EdgeKind::DoorReveal: return here.kind == SurfaceKind::Floor ? EdgeMeeting::FloorAtDoor : EdgeMeeting::Reveal;
    case EdgeKind::MovementGap: return std::nullopt;
    case EdgeKind::Unsaid:
        // A floor ends at something upright nearly always; elsewhere nothing is taken for granted.
        if (here.kind == SurfaceKind::Floor) return EdgeMeeting::FloorAtWall;
        return std::nullopt;
    case EdgeKind::Meets: break;
    }
    if (!there) return std::nullopt;
    const auto either = [&](const auto& is) { return is(here.kind) || is(there->kind); };
    const auto kinds = [&](SurfaceKind k) { return here.kind == k || there->kind == k; };
    if (kinds(SurfaceKind::Floor) && either(isDoor)) return EdgeMeeting::FloorAtDoor;
    if (isWet(here) || isWet(*there)) return EdgeMeeting::WetCorner;
    if (kinds(SurfaceKind::Floor)) return EdgeMeeting::FloorAtWall;
    if (either(isOverhead)) return EdgeMeeting::CeilingAtWall;
    if (either(isDoor)) return std::nullopt; // it opens
    if ((isTop(here.kind) && isBoxFace(there->kind)) || (isTop(there->kind) && isBoxFace(here.kind)))
        return EdgeMeeting::OutsideCorner;
    if (isBoxFace(here.kind) && isBoxFace(there->kind)) return EdgeMeeting::OutsideCorner;
    const bool parted = (here.kind == SurfaceKind::LeftWall && there->kind == SurfaceKind::LeftWallUpper) ||
                        (here.kind == SurfaceKind::LeftWallUpper && there->kind == SurfaceKind::LeftWall) ||
                        (here.kind == SurfaceKind::RightWall && there->kind == SurfaceKind::RightWallUpper) ||
                        (here.kind == SurfaceKind::RightWallUpper && there->kind == SurfaceKind::RightWall);
    if (parted) return EdgeMeeting::UnderTrim; // one wall in two parts: a strip covers where they meet
    return EdgeMeeting::InsideCorner;
}

std::optional<Profile> profileFor(EdgeMeeting meeting, Hardness here, Hardness there) {
    const bool hard = here == Hardness::Hard || there == Hardness::Hard;
    switch (meeting) {
    case EdgeMeeting::FloorAtWall: return here == Hardness::Soft ? Profile::Cove : Profile::Skirting;
    case EdgeMeeting::FloorAtDoor: return Profile::Threshold;
    case EdgeMeeting::CeilingAtWall: return hard ? std::optional(Profile::Quadrant) : std::nullopt;
    case EdgeMeeting::InsideCorner:
        return here == Hardness::Hard && there == Hardness::Hard ? std::optional(Profile::Quadrant) : std::nullopt;
    case EdgeMeeting::OutsideCorner: return hard ? std::optional(Profile::Angle) : std::nullopt;
    case EdgeMeeting::WetCorner: return Profile::SealantBead;
    case EdgeMeeting::FreeEdge:
        return here == Hardness::Hard   ? std::optional(Profile::DSection)
               : here == Hardness::Soft ? std::optional(Profile::BoundEdge)
                                        : std::nullopt;
    case EdgeMeeting::Reveal:
    case EdgeMeeting::OpeningReveal:
        return here == Hardness::Bare ? std::nullopt : std::optional(Profile::PushOnEdging);
    case EdgeMeeting::UnderTrim:
    case EdgeMeeting::PanelJoint: return Profile::CoverStrip;
    case EdgeMeeting::Opening: return Profile::BoundEdge;
    }
    return std::nullopt;
}

} // namespace westrum
