#include "core/takeoff/mass_balance.h"

#include <cassert>
#include <cmath>

namespace westrum {

MassBalance balanceOf(std::span<const PlacedMass> masses, const VanWheels& wheels) {
    assert(wheels.wheelbase.value > 0 && wheels.track.value > 0);
    MassBalance b;
    double along = 0, across = 0; // moments, kg mm
    for (const PlacedMass& m : masses) {
        b.added = b.added + m.mass;
        along += m.mass.value * m.behindFrontAxle.value;
        across += m.mass.value * m.toTheRight.value;
    }
    b.rearAdded = {along / wheels.wheelbase.value};
    b.frontAdded = b.added - b.rearAdded;
    b.rightAdded = {b.added.value / 2 + across / wheels.track.value};
    b.leftAdded = b.added - b.rightAdded;
    if (std::abs(b.added.value) > 1e-9) b.centre = Point{along / b.added.value, across / b.added.value};
    b.front = wheels.frontBefore + b.frontAdded;
    b.rear = wheels.rearBefore + b.rearAdded;
    const auto over = [](Kg is, std::optional<Kg> limit) { return limit && is.value > limit->value + 1e-9; };
    b.frontOver = over(b.front, wheels.frontLimit);
    b.rearOver = over(b.rear, wheels.rearLimit);
    b.grossOver = over(b.gross(), wheels.grossLimit);
    return b;
}

} // namespace westrum
