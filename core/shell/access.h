#pragma once

#include "core/measure/measurement.h"

#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// The way in: door openings, the thickness of the panels to be carried in, and the load space that fetches them.
struct Access {
    struct Door {
        std::string name;
        MaybeReading width, height;
        MaybeReading sill;   ///< height of its fixed sill over the bare floor
        std::string floor{}; ///< id of the floor that it opens onto; empty: the first one
        friend bool operator==(const Door&, const Door&) = default;
    };
    std::vector<Door> doors;
    MaybeReading panelThickness;
    MaybeReading loadLength, loadWidth, loadHeight;
    bool partToLoad = false; ///< panels are parted so that each lies in the load space
    friend bool operator==(const Access&, const Access&) = default;
};

/// The widest panel of a thickness that goes, tilted as it must be, through a rectangular opening: the largest w for
/// which some angle gives w cos + t sin <= width and w sin + t cos <= height. 0 if none goes through.
/// Source: docs/formulae.md#access. Exact to 0.01 mm.
Mm widestThrough(Mm openingWidth, Mm openingHeight, Mm thickness);

/// What the doors and the load space let through, as far as they are measured.
struct Passage {
    std::optional<Mm> widestPanel; ///< through the best door; its length is limited only by what is inside
    std::string door;              ///< the best door's name
    std::optional<Mm> loadLength;  ///< longest panel that lies flat or tilted in the load space
    std::optional<Mm> loadWidth;   ///< and how wide it may be
    std::vector<Remark> remarks;
    friend bool operator==(const Passage&, const Passage&) = default;
};
Passage passageOf(const Access& access);

/// How high the bare inside is, and who stands in it.
struct Headroom {
    MaybeReading rear, middle, front; ///< from the floor's metal to the ceiling's ribs
    MaybeReading person;              ///< the tallest who uses it
    friend bool operator==(const Headroom&, const Headroom&) = default;
};

/// One line for the whole van that other surfaces' lines refer to, by its height over the floor.
struct Datum {
    MaybeReading rear, front;
    friend bool operator==(const Datum&, const Datum&) = default;
};

} // namespace westrum
