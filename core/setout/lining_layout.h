#pragma once

#include "core/setout/common_rules.h"
#include "core/setout/lining.h"
#include "core/setout/lining_margins.h"

#include <optional>
#include <vector>

namespace westrum {

/// A lining while it is set out: from what is covered to the pieces as they are cut.
class Lay {
public:
    Lay(const SetOutRequest& request, const RollGoods& roll, const LiningRules& rules)
        : request_(request), roll_(roll), rules_(rules) {}

    SetOut run();

private:
    void say(Severity severity, Part part, RemarkKind kind, Facts facts, std::optional<Fix> fix = {});
    /// The side that a stretch between two points of the outline lies on; null: none, as in a notch.
    const SideFact* sideAlong(Point a, Point b) const;
    /// Whether it is turned up along that stretch.
    bool standsUp(Point a, Point b) const;
    /// What is left beyond a stretch between two points of the outline, by what happens there.
    Beyond beyond(Point a, Point b) const;
    /// A region with what is left beyond each stretch of its outer edge; folds and relief cuts with it.
    Region grown(const Region& region, const MarginOf& by, Piece& lines) const {
        return withMargins(region, by, lines);
    }
    /// How far into an opening the lining reaches before it is trimmed or turned.
    Mm intoOpening(const OpeningFact& o) const;
    void coverSurface();
    /// The outline without its openings: what an opening must lie in to be a hole of it.
    Region hull() const;
    double acrossOf(Point p) const { return acrossIsY_ ? p.y : p.x; }
    Region between(const Region& region, double from, double to) const;
    /// Length of a line along the pile, at `at` across it, that is seen.
    double seenAt(double at);
    /// What a piece has beyond the seam at its lower and at its upper end. Butted ones are cut through together; of
    /// lapped ones the lower reaches under the upper, which ends at the seam: water runs over it.
    double lapBefore() const { return rules_.lapped ? 0 : rules_.seamLap.value; }
    double lapAfter() const { return rules_.seamLap.value; }

    /// Relief cuts by hand, from the edge of what is cut on.
    void reliefs(const Region& cut);
    /// Seams where the roll is too narrow: as few as can be, where they are seen least and trodden on least.
    void seams(const Region& cut);
    void byHand(double low, double high);
    /// The cheapest places for so many strips, each no wider than the roll, by dynamic programming over places
    /// kStepMm apart: a seam costs the length of it that is seen, up to twice as much in the middle of what lies
    /// (where one treads), and nothing behind furniture.
    void place(double low, double high, int strips, double usable);
    /// The pieces between the seams.
    void strips(const Region& cut, const Piece& lines);
    void add(const Region& shape, Region cut, const Piece& lines, double from, double to, bool whole);
    /// The part of a line that lies on a piece: its points between the piece's two ends across the pile.
    void keep(const Ring& line, double from, double to, bool whole, std::vector<Ring>& kept) const;
    /// Cut smaller about its middle, to be stretched into place.
    void shrink(Piece& p) const;
    void measure(Piece& p) const;
    void coverPanels();
    void coverGlass();
    void fits(const Region& cut);
    void checkStretch();
    /// A relief cut belongs where something hides it: at a side that goes under a trim, or behind furniture; else
    /// nowhere, and a seam is the way out. The first free place along such sides, the longest side first.
    void proposeRelief(const Region& strip, double wanted);
    /// What the cuts by hand that reach into a strip count for there, in seams.
    double relievedOf(const Region& strip) const;
    /// The widest that one of so many strips may be, of what is covered: so that the lining gives enough over each, if
    /// it can; and where seams besides are asked for, none is left nearly as wide as it was without.
    double widest(double extent, int strips) const;
    /// At a corner that sticks into the room an up-stand opens: a piece closes it. So does one at an inside corner, if
    /// it is not to be sealed along its mitre alone.
    void upstandCorners(const Region& whole);
    void checkPattern();
    /// What it takes for this surface alone.
    double runOnRoll() const;
    void figures();
    const SetOutRequest& request_;
    const RollGoods& roll_;
    const LiningRules& rules_;
    SetOut out_;
    Point along_;
    bool acrossIsY_ = false; ///< the pile runs in x, so strips lie beside each other in y
    std::vector<double> seams_;
    std::vector<Ring> reliefs_; ///< by hand, as they are cut
    Region seen_;               ///< what is covered less what is hidden, transposed where seams are level
    int corners_ = 0;
};

} // namespace westrum
