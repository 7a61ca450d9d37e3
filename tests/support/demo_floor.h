#pragma once

#include "formats/demo.h"

namespace westrum::test {

/// The example van with nothing decided but its floor: planks over their mat, on bare metal. What it costs and weighs
/// was worked out by hand for many a test.
inline Job demoFloor() {
    Job job = demoJob();
    job.spares.clear();
    job.acceptedRisk = Job().acceptedRisk;
    FinishOptions floor = job.finishes.at("floor");
    floor.options = {floor.options.front()};
    std::vector<Layer>& layers = floor.now().layers;
    layers.erase(layers.begin(), layers.end() - 2);
    job.finishes = {{"floor", floor}};
    job.headroom = {};
    job.archBoxes.clear();
    job.prices = {};
    for (Product& p : job.catalogue.products) // trims that need nothing to hold them
        if (p.family == "trim") p.fields["fixedBy"] = 2;
    for (Access::Door& d : job.access.doors) d.sill.reset();
    return job;
}

} // namespace westrum::test
