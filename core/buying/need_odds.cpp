#include "core/buying/need_odds.h"

#include "core/units/count.h"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <numbers>

namespace westrum {

NeedOdds::NeedOdds(std::vector<double> needs) : needs_(std::move(needs)) { std::sort(needs_.begin(), needs_.end()); }

double NeedOdds::chanceShort(double amount) const {
    if (needs_.empty()) return 0;
    const auto more = needs_.end() - std::upper_bound(needs_.begin(), needs_.end(), amount + kCountSlack);
    return static_cast<double>(more) / static_cast<double>(needs_.size());
}

int NeedOdds::packsFor(double risk, double perPack, int most) const {
    assert(perPack > 0);
    for (int n = 1; n <= most; ++n)
        if (chanceShort(n * perPack) <= risk) return n;
    return 0;
}

double NeedOdds::within(double share) const {
    if (needs_.empty()) return 0;
    const auto last = static_cast<double>(needs_.size() - 1);
    return needs_[static_cast<std::size_t>(std::lround(std::clamp(share, 0.0, 1.0) * last))];
}

double offByChance(Dice& dice, double sigma) {
    // Two throws for one number (Box and Muller): no state is kept between calls.
    const double u = 1 - dice.unit(), v = dice.unit();
    return sigma * std::sqrt(-2 * std::log(u)) * std::cos(2 * std::numbers::pi * v);
}

int spoiledTries(Dice& dice, int cuts, double spoil) {
    assert(spoil >= 0 && spoil < 1);
    int spoiled = 0;
    for (int good = 0; good < cuts;) {
        if (dice.unit() < spoil)
            ++spoiled;
        else
            ++good;
    }
    return spoiled;
}

} // namespace westrum
