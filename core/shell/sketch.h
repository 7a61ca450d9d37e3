#pragma once

#include "core/shell/shape.h"
#include "core/shell/surface.h"

#include <string>
#include <vector>

namespace westrum {

enum class SlotKind {
    Side,     ///< a dimension outside the drawing, along from-to
    Diagonal, ///< across the drawing
    Station,  ///< along the baseline, from its start to the station
    Offset,   ///< square to the baseline
    Tape,     ///< from a fixed point to a corner
    Small,    ///< of a cut-out, opening, zone or support
};

/// A place on the drawing where a reading is typed: its dimension line in the surface's coordinates.
struct ReadingSlot {
    std::string key;    ///< as in findReading()
    std::string letter; ///< as on the drawing and the measuring sheet
    SlotKind kind{};
    Point from, to;
    friend bool operator==(const ReadingSlot&, const ReadingSlot&) = default;
};

/// What of a surface's parts has its dimensions drawn besides the outline.
struct SketchParts {
    bool cutouts = true;
    int opening = -1; ///< the one in hand, or none
    int zone = -1;
    int support = -1;
};

/// The drawing on which readings are entered: true to scale once measured, before that a guess of the right kind.
struct Sketch {
    Ring frame;
    std::vector<Ring> sides;
    bool measured = false;
    Point fixedA, fixedB;            ///< two-point form
    std::vector<ReadingSlot> places; ///< in the order in which a person goes round
};

Sketch sketchOf(const Surface& surface, const MeasuredOutline& measured, const SketchParts& parts = {});

/// Stations up to this many are entered on the drawing; more go into the table only.
inline constexpr std::size_t kMostStationsDrawn = 9;

} // namespace westrum
