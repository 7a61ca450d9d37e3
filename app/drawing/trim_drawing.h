#pragma once

#include "app/drawing/plan_view.h"
#include "core/plan/plan.h"
#include "formats/words.h"

#include <QPainter>

namespace westrum {

/// One end of one piece of a run.
struct JointPlace {
    int run = -1, piece = -1;
    bool atEnd = false;
    friend bool operator==(const JointPlace&, const JointPlace&) = default;
};

/// What is lit while something is in hand.
struct TrimMarks {
    bool joints = false;   ///< a mark at every end
    double leastWidth = 3; ///< pixels, so that it is seen
    int runInHand = -1;
    JointPlace jointInHand{};
};

/// The trims along one surface's edges: those that follow its own outline, and those that a neighbour's carries.
void paintTrims(QPainter& painter, const PlanView& view, const Job& job, const Plan& plan, const std::string& surface,
                const TrimMarks& marks);

/// How a piece lies on the saw for one end: from above the fence and the blade's line, from the front the blade's lean.
void paintSaw(QPainter& painter, const QRectF& into, const TrimJoint& joint, bool atEnd, const Figures& figures);

/// What to trace on a piece that is coped: the trim it fits over in section, and beside it the end of the piece from
/// the front with the line to saw along, both to one scale, with how far it is cut back at foot, middle and top.
void paintCope(QPainter& painter, const QRectF& into, const TrimLength& over, const TrimJoint& joint, bool atEnd,
               const Figures& figures);

/// Joint marks of the runs that follow a surface's own outline, where they are drawn.
std::vector<std::pair<JointPlace, Point>> jointPlaces(const Plan& plan, const std::string& surface);
const TrimJoint* jointAt(const Plan& plan, const JointPlace& place);

/// The line along which a run is drawn on a surface: its own path, or the side of the surface that it closes. Empty
/// where it has none there.
Ring runLineOn(const TrimRun& run, const Job& job, const Plan& plan, const std::string& surface);

} // namespace westrum
