#pragma once

#include "core/catalogue/stock.h"
#include "core/setout/common_rules.h"
#include "core/setout/set_out.h"

#include <functional>
#include <span>
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

/// A length to be parted into panels.
struct Parted {
    double low{}, high{};
    double most{};   ///< the longest panel, > 0
    double gap{};    ///< at every joint, half of it from either panel
    double centre{}; ///< that joints are to lie evenly about
    double leastPart{};
    bool symmetric{};
};
/// Where it is parted: as few parts as can be, at the places given if that many suffice and none is shorter than the
/// least; among equals the most even round the centre, then those whose shortest part is longest. Where places part
/// off slivers and equal parts do not, equal parts.
struct Parting {
    std::vector<double> joints; ///< rising
    bool onPlaces = true;       ///< false: no choice of places does it, the parts are equal
};
/// @param places  rising  @param slivers  how many panels narrower than the least joints make on the surface as it is
Parting partLength(const Parted& parted, std::span<const double> places,
                   const std::function<int(const std::vector<double>&)>& slivers = {});

SetOut setOutPanels(const SetOutRequest& request, const SheetGoods& sheet, const PanelRules& rules,
                    const std::stop_token& stop = {});

} // namespace westrum
