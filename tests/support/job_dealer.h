#pragma once

#include "core/families/family.h"
#include "core/plan/job.h"
#include "formats/demo.h"
#include "tests/support/floors.h"

#include <array>
#include <random>
#include <string>
#include <vector>

namespace westrum::test {

/// Small whole jobs over all families, drawn at random from the example's catalogue.
class JobDealer {
public:
    explicit JobDealer(unsigned seed) : dice_(seed) {}

    Job deal() {
        static const Job demo = demoJob();
        Job job;
        job.catalogue = demo.catalogue;
        job.currency = demo.currency;
        job.spoilChance = 0.05;
        const int surfaces = between(2, 4);
        for (int i = 0; i < surfaces; ++i) addSurface(job, i);
        // Other sizes and other shops, somebody who is paid for bringing, a spare.
        for (int i = between(0, 6); i > 0; --i) {
            const Product& p = job.catalogue.products[static_cast<std::size_t>(
                between(0, static_cast<int>(job.catalogue.products.size()) - 1))];
            if (!p.packPrice) continue;
            job.prices.offers.push_back({.product = p.id,
                                         .supplier = between(0, 1) ? "Ferry Wholesale" : "Corner shop",
                                         .size = static_cast<double>(between(0, 12)),
                                         .price = Money{p.packPrice->minor * between(40, 130) / 100 + 1, job.currency},
                                         .lot = between(0, 1) ? LotRule::Any : LotRule::Usual});
        }
        if (between(0, 1)) job.prices.suppliers = {{"Ferry Wholesale", Money{1200, job.currency}, {}}};
        for (const auto& [surface, options] : job.finishes)
            if (between(0, 3) == 0) job.spares[options.now().layers.back().product] = between(1, 2);
        return job;
    }

    int between(int low, int high) { return std::uniform_int_distribution(low, high)(dice_); }

private:
    void addSurface(Job& job, int i) {
        static const std::vector<std::vector<const char*>> buildUps{
            {"film-barrier", "reed-mat", "heron-oak"},
            {"wool-20", "foil-barrier", "batten-19", "larch-board", "hard-oil"},
            {"foam-30", "birch-ply-6", "chalk-paint"},
            {"tile-backer", "wet-coat", "tile-mortar", "quay-white"},
            {"tile-backer", "tile-mortar", "pebble-mosaic"},
            {"contact-can", "thrush-lining"},
            {"poplar-ply-12", "vinyl-glue", "coot-vinyl"},
            {"birch-ply-18", "seat-foam-80", "siskin-weave"},
            {"poplar-ply-4", "contact-can", "linnet-suede"}};
        static const std::array kinds{SurfaceKind::Floor,       SurfaceKind::LeftWall, SurfaceKind::Ceiling,
                                      SurfaceKind::WetCellWall, SurfaceKind::Bulkhead, SurfaceKind::Shelf};
        Surface s;
        s.id = s.name = "s" + std::to_string(i);
        s.kind = kinds[static_cast<std::size_t>(between(0, kinds.size() - 1))];
        const int length = between(500, 2600), height = between(400, 1500), first = between(30, 120),
                  apart = between(200, 450);
        const bool along = between(0, 1) == 1;
        s.measurement = test::rectangle(length, height);
        if (length > 1400 && height > 700 && between(0, 2) == 0)
            s.measurement.notches.push_back(
                notch(between(0, 1) * 2, between(150, 500), between(200, 600), between(80, 250)));
        if (length > 1400 && height > 900 && between(0, 2) == 0) {
            Opening window;
            window.name = "Window";
            window.kind = OpeningKind::Window;
            window.width = mm(between(200, 500));
            window.height = mm(between(150, 300));
            window.place = {0, mm(between(300, 500)), 3, mm(between(200, 800)), false};
            s.openings.push_back(window);
        }
        const int count = 1 + ((along ? height : length) - 2 * first) / apart;
        s.supports = {{"Batten", SupportKind::Batten, along, mm(first), mm(40), count, mm(apart), {}}};
        const auto& layers = buildUps[static_cast<std::size_t>(between(0, static_cast<int>(buildUps.size()) - 1))];
        for (const char* id : layers) {
            Layer l{id, {}, {}, false};
            if (std::string(id) == "linnet-suede") l.rules["face"] = 1;
            if (stockFormOf(job.catalogue.find(id)->family) == StockForm::Sheets && between(0, 1)) {
                l.rules["symmetric"] = 0;
                l.rules["grain"] = between(0, 1);
            }
            if (std::string(id) == "larch-board") l.rules["direction"] = between(0, 1);
            job.finishes[s.id].now().layers.push_back(std::move(l));
        }
        job.surfaces.push_back(std::move(s));
    }

    std::mt19937 dice_;
};

/// WESTRUM_LAW_JOBS=2000 deals that many: the laws at length.
inline unsigned jobsDealt(unsigned usual) {
    const int asked = qEnvironmentVariableIntValue("WESTRUM_LAW_JOBS");
    return asked > 0 ? static_cast<unsigned>(asked) : usual;
}

} // namespace westrum::test
