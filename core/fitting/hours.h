#pragma once

#include <string_view>

namespace westrum {

/// Hours that laying takes a practised pair of hands, setting out and cutting included, drying not: so many a square
/// metre, and for each piece. A first-timer takes about twice as long. Source: docs/formulae.md#hours
/// @param areaM2  that the layer covers  @param pieces  of a set-out; 0: it is not set out
double hoursFor(std::string_view family, double areaM2, int pieces);

} // namespace westrum
