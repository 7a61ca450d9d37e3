#pragma once

#include "core/catalogue/product.h"
#include "core/setout/set_out.h"

#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace westrum {

/// What a grip on a set-out moves.
enum class Moves {
    StartLine,   ///< between first and second row: the rule `rule`
    StartColumn, ///< the same of a grid's columns
    Joint,       ///< between two pieces: a place among the layer's joints
    Taper,       ///< the row from which on a taper is shared: the rule `rule`, in rows
    Margin,      ///< what is left at the edges: the rule `rule`
    ReliefEnd,   ///< one end of a relief cut
    NewRelief,   ///< nothing yet: pressed, it puts a relief cut where one is proposed
    Lamp,        ///< a lamp, which falls onto the middle of a row
};
enum class Pull { Up, Sideways, Anywhere };
/// Where a grip stands: at the place itself, or clear of the outline beside it.
enum class Stands { There, Above, Right, FarRight };

/// One thing on a set-out that can be taken hold of. Plain figures: whoever draws it needs to know nothing of its
/// family. Coordinates are the surface's, in mm.
struct Grip {
    Moves moves{};
    Pull pull = Pull::Up;
    Stands stands = Stands::There;
    int index = -1;     ///< of the joint or opening; of a relief cut twice its place, and one more for its inner end
    Point at;           ///< of what is moved; the line through it runs across the pull
    bool line = false;  ///< it moves a line that runs right over the surface
    bool snaps = false; ///< onto supports that it comes near
    // Of what sets a rule: value = sense x (coordinate - origin), the coordinate along the pull.
    std::string_view rule{};
    double value{}; ///< now
    double least{}, most{};
    double origin{};
    int sense = 1;
    /// The rule that says whether the value is set by hand, and what it says then; empty: it always is.
    std::string_view handRule{};
    double byHand{};
    [[nodiscard]] double valueAt(double coordinate) const { return sense * (coordinate - origin); }
    friend bool operator==(const Grip&, const Grip&) = default;
};

/// All that the grips of a layer depend on.
struct GripFacts {
    const Product& product;
    const FieldValues& rules;
    const SetOut& setOut;                 ///< laid
    Bounds outline;                       ///< of the surface as measured
    std::span<const ReliefCut> reliefs{}; ///< as the job has them
    std::span<const OpeningFact> openings{};
    bool lies = false; ///< the surface lies rather than stands
};

/// The start line between the first two rows. @param module  of a full row  @param low  where the first row begins
Grip startLineGrip(const GripFacts& facts, double module, double low, std::string_view handRule, double byHand);
/// A grip for every joint or seam that runs right across, in order of its place.
/// @param level  seams run along x, and are moved up and down
void addJointGrips(const GripFacts& facts, bool level, bool snaps, std::vector<Grip>& grips);

} // namespace westrum
