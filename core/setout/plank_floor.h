#pragma once

#include "core/catalogue/plank.h"
#include "core/setout/row_starts.h"
#include "core/setout/set_out.h"

#include <functional>
#include <stop_token>
#include <vector>

namespace westrum {

/// How planks are to be laid on a surface.
struct PlankRules {
    bool across = false; ///< rows run along y (across the van) instead of x
    Mm gap{5};           ///< movement gap at every edge
    Mm startOffset{0};   ///< ripped off the first row, 0 <= offset < plank width
    Mm stagger{300};     ///< end joints of neighbouring rows
    Mm endLeast{300};    ///< first and last piece of a row with joints
    Mm kerf{3};
    Working working = Working::PlannedAhead;
    bool ripReuse = true;    ///< planks of the first row, ripped, may serve the last row too
    int mixPacks = 3;        ///< packs open at once, from which planks are taken in turn
    bool hiddenBare = false; ///< furniture first: hidden zones stay bare but for `bearing` along their edges
    Mm bearing{50};
    double care = 1; ///< of the usual search for the fewest planks, this share
};

/// The rule fields of the family "planks", stored with the surface.
std::span<const Field> plankRuleFields();
PlankRules plankRulesOf(const FieldValues& rules, double care = 1);

/// Row widths across a depth: the first as ripped, whole rows, the last as what is left, in (0, width].
/// @param depth  > 0  @param first  in (0, width]; cut down to depth if larger
std::vector<Row> plankRows(double low, double depth, double width, double first);

/// First-row widths for which the least number of rows suffices and both edge rows keep a third of a plank.
struct FairRange {
    double least{}, most{};
};
/// Nothing if one row covers the depth or no such width exists.
std::optional<FairRange> fairFirstRows(double depth, double width);

/// The width that makes first and last row equal with the least number of rows; the depth itself if one row covers it.
double equalEdgeRow(double depth, double width);

/// The stretches of each row to be laid: each connected part of the net area in the row's band.
struct LaidRun {
    Run run;
    Region part; ///< in row coordinates: x along the row
};
std::vector<LaidRun> runsOf(const Region& net, const std::vector<Row>& rows);

/// Sets out floating planks. See docs/formulae.md#planks for the rules of locks and reuse.
SetOut setOutPlanks(const Region& outline, const Plank& plank, const PlankRules& rules,
                    const std::stop_token& stop = {});

SetOutFamily plankSetOut();

/// @param progress  told how far it is, from 0 to 1; may be empty
std::vector<StartChoice> plankStarts(const Region& outline, const Plank& plank, const PlankRules& rules,
                                     const std::stop_token& stop = {},
                                     const std::function<void(double)>& progress = {});

} // namespace westrum
