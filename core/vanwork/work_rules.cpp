#include "core/shell/new_van.h"
#include "core/vanwork/work_net.h"

namespace westrum {
namespace {

using enum SurfaceKind;

bool isWall(SurfaceKind k) { return k == LeftWall || k == RightWall || k == LeftWallUpper || k == RightWallUpper; }
bool isDoor(SurfaceKind k) { return k == SlidingDoor || k == RearDoor || k == RearDoors; }

} // namespace

bool isFirstOf(WorkRule rule, SurfaceKind kind) {
    switch (rule) {
    case WorkRule::CeilingBeforeWalls: return kind == Ceiling;
    case WorkRule::WallsBeforeEnds:
    case WorkRule::WallsBeforeFronts: return isWall(kind);
    case WorkRule::FloorBeforeWalls:
    case WorkRule::FloorBeforeFurniture: return kind == Floor;
    case WorkRule::DoorsLast: return !isDoor(kind);
    case WorkRule::TrimsAfterFaces:
    case WorkRule::CoatsBeforeFitting: return false; // within a surface, or between neighbours
    }
    return false;
}

bool isSecondOf(WorkRule rule, SurfaceKind kind) {
    switch (rule) {
    case WorkRule::CeilingBeforeWalls:
    case WorkRule::FloorBeforeWalls: return isWall(kind);
    case WorkRule::WallsBeforeEnds: return kind == Bulkhead || kind == Pillar || kind == CabReveal;
    case WorkRule::FloorBeforeFurniture:
    case WorkRule::WallsBeforeFronts: return isFurniture(kind);
    case WorkRule::DoorsLast: return isDoor(kind);
    case WorkRule::TrimsAfterFaces:
    case WorkRule::CoatsBeforeFitting: return false;
    }
    return false;
}

} // namespace westrum
