#pragma once

#include "core/catalogue/stock.h"
#include "core/setout/common_rules.h"
#include "core/setout/set_out.h"

#include <stop_token>
#include <vector>

namespace westrum {

enum class PanelJoint { Butt, VJoint, Strip };

struct PanelRules {
    bool grainAcross = false; ///< of sheets with a grain: it runs along y
    PanelJoint joint = PanelJoint::Butt;
    Mm jointGap{2}; ///< between two panels
    Mm gap{3};      ///< movement gap round the whole
    Mm leastPanel{150};
    CentreRule centre = CentreRule::Visible;
    bool symmetric = true; ///< equal outer panels where that takes no more of them
    int strips = 0;        ///< a curved wall taken in so many strips along it; 0: bent in one
    bool hiddenBare = false;
    Mm bearing{50};
};

std::span<const Field> panelRuleFields();
PanelRules panelRulesOf(const FieldValues& rules);
SetOutFamily panelSetOut();

/// The span between supports that a sheet of a thickness carries as a lining, and the least radius it bends to dry,
/// along its easy direction. Defaults of the trade, below the sheet's own label.
/// Source: docs/formulae.md#panels. 4 mm: 300 and 600; 6 mm: 400 and 1000; 9 mm: 600
Mm longestSpan(Mm thickness);
Mm leastBendRadius(Mm thickness, bool easyDirection);
/// By how much solid timber moves over a width when its moisture changes by the usual 4 %: 0.25 % for each.
Mm solidMovement(Mm widthAcrossGrain);
/// How many equal strips stay within `mostGap` of a curve of this radius when they are flat.
int stripsFor(Mm along, Mm radius, Mm mostGap);

/// Where a length is parted so that no part is longer than `longest`: as few parts as can be, at the places given if
/// that many suffice; among equals the most even round the centre, then those whose shortest part is longest.
struct Parting {
    std::vector<double> joints; ///< rising
    bool onPlaces = true;       ///< false: no choice of places does it, the parts are equal
};
/// @pre low < high, longest > 0; places rising
Parting partLength(double low, double high, double longest, const std::vector<double>& places, double centre,
                   double leastPart, bool symmetric);

SetOut setOutPanels(const SetOutRequest& request, const SheetGoods& sheet, const PanelRules& rules,
                    const std::stop_token& stop = {});

} // namespace westrum
