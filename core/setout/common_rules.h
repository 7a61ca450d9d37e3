#pragma once

#include "core/setout/set_out.h"

#include <array>

namespace westrum {

/// Words and checks that several families share.
inline constexpr std::array<std::string_view, 2> kDirections{"along the van", "across the van"};
inline constexpr std::array<std::string_view, 3> kCentres{"the surface", "its visible part", "two openings"};

/// What a layout is centred on.
enum class CentreRule { Surface, Visible, TwoOpenings };

/// The coordinate of the centre line across the rows, before any shear. A rule that cannot be followed is remarked on
/// and the surface's own middle taken.
/// @param across  rows run in y: the line is an x
/// @param openingA,openingB  counted from 1; 0: the first two roof vents, or the first two of any kind
double centreOf(const SetOutRequest& request, const Region& net, CentreRule rule, int openingA, int openingB,
                bool across, std::vector<Remark>& remarks);

/// The region less the movement gap at every edge; a gap of 0 leaves it as it is.
Region insetBy(const Region& region, Mm gap);
/// Warns of a gap under the product's own.
void checkGap(Mm gap, Mm label, std::vector<Remark>& remarks);
/// Warns of sides whose own gap is under the product's.
void checkSideGaps(const SetOutRequest& request, Mm label, std::vector<Remark>& remarks);
/// An error if the gap leaves nothing to cover; true if it does.
bool nothingLeft(const Region& net, Mm gap, std::vector<Remark>& remarks);
/// Warns of an edge narrower than a third of the module, in the order of rows.
void checkEdge(std::string_view edge, Mm width, Mm module, std::vector<Remark>& remarks);
/// An error if more pieces would come out than anyone lays; true if so.
bool tooMany(double pieces, std::vector<Remark>& remarks);
inline constexpr std::int64_t kMostLaid = 4000;

/// Tells the request's progress, if anyone listens.
void tell(const SetOutRequest& request, double share);

/// What pieces of a length along the roll and a width across it take in rows, the longest first, in mm.
double rowsOnRoll(std::vector<std::pair<double, double>> pieces, double usable, double gap);

/// A choice that differs from the rules as they are by `change`, worked out.
StartChoice choiceOf(const SetOut& setOut, FieldValues change, bool onStrip);

} // namespace westrum
