#include "core/fitting/hours.h"

#include <array>

namespace westrum {
namespace {

struct Rate {
    std::string_view family;
    double perM2, perPiece;
};
constexpr std::array<Rate, 13> kRates{{{"planks", 0.25, 0.02},
                                       {"boards", 0.5, 0.04},
                                       {"sheet", 0.3, 0.35},
                                       {"tiles", 0.9, 0.02},
                                       {"roll", 0.5, 0.25},
                                       {"cloth", 0.8, 0.3},
                                       {"foam", 0.1, 0.2},
                                       {"underlay", 0.06, 0},
                                       {"barrier", 0.15, 0},
                                       {"insulation", 0.2, 0},
                                       {"battens", 0.6, 0},
                                       {"adhesive", 0.15, 0},
                                       {"coating", 0.25, 0}}};

} // namespace

double hoursFor(std::string_view family, double areaM2, int pieces) {
    for (const Rate& r : kRates)
        if (r.family == family) return r.perM2 * areaM2 + r.perPiece * pieces;
    return 0;
}

} // namespace westrum
