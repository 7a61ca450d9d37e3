#pragma once

#include "core/measure/measurement.h"
#include "core/plan/job.h"

#include <random>
#include <string>

namespace westrum::test {

inline Reading mm(double value) { return {std::to_string(static_cast<int>(value)), {value}}; }

inline Measurement rectangle(double length, double width) {
    Measurement m;
    m.readings[0] = mm(length);
    m.readings[1] = mm(width);
    return m;
}

inline Measurement fourSides(double ab, double bc, double cd, double da, double ac) {
    Measurement m;
    m.form = OutlineForm::FourSides;
    m.readings = {mm(ab), mm(bc), mm(cd), mm(da), mm(ac), std::nullopt};
    return m;
}

inline Notch notch(int side, double position, double length, double depth) {
    return {"Notch", side, mm(position), mm(length), mm(depth)};
}

inline Product plankProduct(double length, double width, int perPack, std::int64_t priceMinor) {
    return {"plank",
            "planks",
            "Test plank",
            "Test yard",
            Money{priceMinor, Currency{}},
            {{"length", length},
             {"width", width},
             {"perPack", perPack},
             {"thickness", 5},
             {"packMass", 18},
             {"movementGap", 0},
             {"leastStagger", 0}}};
}

/// A job with one floor and one plank product.
inline Job jobWith(Measurement m, Product plank, FieldValues rules) {
    Job job;
    job.name = "Test";
    Surface floor;
    floor.id = "floor";
    floor.name = "Floor";
    floor.measurement = std::move(m);
    job.surfaces.push_back(std::move(floor));
    job.finishes["floor"].now().layers = {{plank.id, std::move(rules), {}, false}};
    job.catalogue.products.push_back(std::move(plank));
    return job;
}

/// The layer that is seen on a surface, to be changed.
inline Layer& face(Job& job, const std::string& surface = "floor") {
    Finish& f = job.finishes.at(surface).now();
    return f.layers.at(static_cast<std::size_t>(faceLayer(f, job.catalogue)));
}

/// A van-like floor: a nearly rectangular quadrilateral with up to two wheel arches and a door well.
inline Measurement anyFloor(std::mt19937& dice) {
    const auto between = [&](double low, double high) {
        return std::floor(low + (high - low) * (dice() % 1000) / 1000.0);
    };
    const double length = between(1800, 4200), width = between(1200, 2000);
    Measurement m = dice() % 2 ? rectangle(length, width)
                               : fourSides(length, width, length - between(0, 15), width + between(0, 12),
                                           std::hypot(length, width));
    if (dice() % 2) m.notches.push_back(notch(0, between(200, 700), between(500, 800), between(120, 300)));
    if (dice() % 2) m.notches.push_back(notch(2, between(200, 700), between(500, 800), between(120, 300)));
    if (dice() % 2) m.steps.push_back({"Well", 1, mm(between(300, 600)), mm(between(100, 250))});
    return m;
}

} // namespace westrum::test
