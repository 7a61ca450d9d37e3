#pragma once

#include "core/plan/job.h"
#include "tests/support/floors.h"

#include <random>

namespace westrum::test {

/// A van of a few surfaces, lined, upholstered and trimmed with whatever comes.
inline Job anyVan(std::mt19937& dice) {
    Job job;
    Product carpet{.id = "carpet", .family = "roll", .name = "Carpet"};
    carpet.fields = {{"rollWidth", 1400.0 + dice() % 700},
                     {"selvedge", dice() % 30},
                     {"turning", dice() % 4},
                     {"gap", dice() % 8},
                     {"repeatAlong", dice() % 3 == 0 ? 200 : 0},
                     {"repeatAcross", dice() % 4 == 0 ? 150 : 0}};
    carpet.packPrice = Money{1200, {}};
    Product foam{.id = "foam", .family = "foam", .name = "Foam"};
    foam.packPrice = Money{6000, {}};
    Product cloth{.id = "cloth", .family = "cloth", .name = "Cloth"};
    cloth.fields = {{"rollWidth", 1370}, {"repeatAlong", dice() % 2 ? 160 : 0}};
    cloth.packPrice = Money{2400, {}};
    Product skirting{.id = "skirting", .family = "trim", .name = "Skirting"};
    skirting.fields = {{"profile", 3}, {"inside", dice() % 4}, {"outside", dice() % 4}};
    skirting.packPrice = Money{700, {}};
    job.catalogue.products = {carpet, foam, cloth, skirting};
    const auto add = [&](const std::string& id, SurfaceKind kind, Measurement m, std::vector<Layer> layers) {
        Surface s;
        s.id = s.name = id;
        s.kind = kind;
        s.measurement = std::move(m);
        for (int side = 0; side < 4; ++side) {
            Edge e;
            e.kind = static_cast<EdgeKind>(dice() % 2 ? 0 : 2 + dice() % 4); // whatever but a neighbour
            if (dice() % 2) e.allowance = mm(5 + dice() % 40);
            s.edges.push_back(e);
        }
        job.surfaces.push_back(std::move(s));
        job.finishes[id].now().layers = std::move(layers);
    };
    const FieldValues lining{{"pile", dice() % 5}, {"allowance", 20 + dice() % 40}, {"upstand", dice() % 2 ? 60 : 0}};
    add("floor", SurfaceKind::Floor, anyFloor(dice), {{"carpet", lining, {}, false}});
    add("wall", SurfaceKind::LeftWall, test::rectangle(1500 + dice() % 1500, 700 + dice() % 500),
        {{"carpet", {{"pile", dice() % 5}}, {}, false}});
    Measurement seat = test::rectangle(900 + dice() % 600, 450 + dice() % 200);
    if (dice() % 2) seat.notches.push_back(notch(2, 200, 250 + dice() % 200, 90));
    add("bench", SurfaceKind::BenchTop, seat,
        {{"foam", {}, {}, false},
         {"cloth",
          {{"style", dice() % 3},
           {"cushions", 1 + dice() % 3},
           {"piping", dice() % 3},
           {"zip", dice() % 5},
           {"matched", dice() % 2}},
          {},
          false}});
    return job;
}

} // namespace westrum::test
