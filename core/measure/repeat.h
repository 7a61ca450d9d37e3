#pragma once

#include "core/units/quantity.h"

#include <algorithm>
#include <cassert>
#include <vector>

namespace westrum {

/// Several readings of one length: the median is not moved by one bad reading, the spread tells of it.
struct Repeated {
    Mm median;
    Mm spread; ///< greatest minus least
};

/// @pre at least one reading. Of an even number the median is the mean of the middle two.
inline Repeated repeated(std::vector<Mm> readings) {
    assert(!readings.empty());
    std::sort(readings.begin(), readings.end());
    const std::size_t n = readings.size();
    const Mm middle = n % 2 ? readings[n / 2] : (readings[n / 2 - 1] + readings[n / 2]) / 2;
    return {middle, readings.back() - readings.front()};
}

} // namespace westrum
