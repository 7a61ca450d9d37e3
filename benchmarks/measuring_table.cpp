// Prints how often a wrong reading is found, by form: docs/measuring.md says what the columns are. The same seed gives
// the same table.

#include "core/measure/embeddings.h"
#include "core/measure/slips.h"
#include "tests/support/crooked_van.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <functional>
#include <random>
#include <string>
#include <utility>
#include <vector>

namespace {

using namespace westrum;
using Dice = std::mt19937_64;

double between(Dice& dice, double low, double high) { return std::uniform_real_distribution<double>(low, high)(dice); }

Ring shaken(Dice& dice, Ring ring, double by) {
    for (Point& p : ring) p = p + Point{between(dice, -by, by), between(dice, -by, by)};
    return ring;
}

Ring floorOutline(Dice& dice) {
    const double l = between(dice, 2500, 4200), w = between(dice, 1500, 1900);
    return shaken(dice, {{0, 0}, {l, 0}, {l, w}, {0, w}}, 15);
}
Ring wallOutline(Dice& dice) {
    const double l = between(dice, 1500, 3600), h = between(dice, 600, 1400), rake = between(dice, 0, 150);
    return shaken(dice, {{0, 0}, {l, 0}, {l - rake, h}, {0, h}}, 15);
}
Ring door(Dice& dice) {
    const double w = between(dice, 600, 1200), h = between(dice, 1000, 1800), taper = between(dice, 50, 250);
    return shaken(dice, {{0, 0}, {w, 0}, {w - taper, h}, {between(dice, 0, 40), h}}, 15);
}
Ring strip(Dice& dice) {
    const double l = between(dice, 2000, 3600), h = between(dice, 120, 260);
    return shaken(dice, {{0, 0}, {l, 0}, {l, h}, {0, h}}, 5);
}
Ring pentagon(Dice& dice) {
    const double w = between(dice, 1500, 2200), h = between(dice, 800, 1300), up = between(dice, 200, 500);
    return shaken(dice, {{0, 0}, {w, 0}, {w, h}, {w * between(dice, 0.4, 0.6), h + up}, {0, h}}, 20);
}
Ring ell(Dice& dice) {
    const double l = between(dice, 2200, 3600), w = between(dice, 1500, 1900);
    const double a = l * between(dice, 0.35, 0.7), b = w * between(dice, 0.35, 0.7);
    return shaken(dice, {{0, 0}, {l, 0}, {l, b}, {a, b}, {a, w}, {0, w}}, 15);
}
Ring notched(Dice& dice) {
    const double l = between(dice, 2800, 4000), w = between(dice, 1500, 1900);
    const double from = l * between(dice, 0.1, 0.3), to = from + between(dice, 600, 900),
                 deep = between(dice, 180, 300);
    return shaken(dice, {{0, 0}, {from, 0}, {from, deep}, {to, deep}, {to, 0}, {l, 0}, {l, w}, {0, w}}, 10);
}

struct Form {
    std::string name;
    std::function<Ring(Dice&)> ring;
    int spare; ///< readings more than just hold it; -1: all inside diagonals
};

/// Sides, a triangulation's worth of inside diagonals and `spare` more; nothing where they do not hold the outline.
std::vector<CornerDistance> readingsOf(Dice& dice, const Ring& ring, int spare) {
    const int n = static_cast<int>(ring.size());
    std::vector<CornerDistance> sides, diagonals;
    for (int a = 0; a < n; ++a)
        for (int b = a + 1; b < n; ++b) {
            const CornerDistance r{a, b,
                                   distance(ring[static_cast<std::size_t>(a)], ring[static_cast<std::size_t>(b)])};
            if (b == a + 1 || (a == 0 && b == n - 1))
                sides.push_back(b == a + 1 ? r : CornerDistance{b, a, r.mm});
            else if (liesInside(ring, a, b))
                diagonals.push_back(r);
        }
    if (spare >= 0) {
        std::shuffle(diagonals.begin(), diagonals.end(), dice);
        const auto wanted = static_cast<std::size_t>(n - 3 + spare);
        if (diagonals.size() < wanted) return {};
        diagonals.resize(wanted);
    }
    sides.insert(sides.end(), diagonals.begin(), diagonals.end());
    return sides;
}

struct Count {
    int all = 0, alone = 0, among = 0, accused = 0, silent = 0, notClosed = 0, shape = 0;
    int clean = 0, alarms = 0, asked = 0;
};

Count tried(const Form& form, int rounds, Dice& dice) {
    Count count;
    std::normal_distribution<double> noise(0, kTapeMm);
    for (int round = 0; round < rounds;) {
        const Ring ring = form.ring(dice);
        if (crossesItself(ring)) continue;
        const std::vector<CornerDistance> exact = readingsOf(dice, ring, form.spare);
        const int n = static_cast<int>(ring.size());
        if (exact.empty() || fitNetwork(n, exact).state != NetworkState::Solved) continue;
        ++round;
        std::vector<CornerDistance> readings = exact;
        for (CornerDistance& r : readings) r.mm += noise(dice);
        const NetworkFit good = fitNetwork(n, readings);
        ++count.clean;
        count.alarms += good.state != NetworkState::Solved || findSlip(good.corners, readings).wrong();
        // Corners laid elsewhere without a word: not by the tape's error, which narrow shapes enlarge.
        bool elsewhere = false;
        for (std::size_t k = 0; k < ring.size() && good.state == NetworkState::Solved; ++k) {
            const auto turn = [&](const std::vector<Point>& c) {
                const std::size_t all = c.size();
                return cross(c[k] - c[(k + all - 1) % all], c[(k + 1) % all] - c[k]);
            };
            elsewhere = elsewhere || turn(good.corners) * turn(ring) < 0;
        }
        count.asked += good.turnsEitherWay >= 0;
        count.shape += elsewhere && good.turnsEitherWay < 0;
        const auto wrong = static_cast<std::size_t>(dice() % readings.size());
        readings[wrong].mm += between(dice, 15, 200) * (dice() % 2 ? 1 : -1);
        if (readings[wrong].mm < 10) readings[wrong].mm = exact[wrong].mm + 100;
        const NetworkFit fit = fitNetwork(n, readings);
        ++count.all;
        if (fit.state != NetworkState::Solved) {
            ++count.notClosed; // told: a reading is too long for its triangle
            continue;
        }
        const SlipFinding finding = findSlip(fit.corners, readings);
        if (!finding.wrong()) {
            ++count.silent;
            continue;
        }
        bool among = false;
        for (const Suspect& s : finding.suspects) among = among || s.reading == static_cast<int>(wrong);
        count.among += among;
        count.alone += among && finding.suspects.size() == 1;
        count.accused += !among && finding.proved;
    }
    return count;
}

/// A van of six faces, and what is left out or said of it.
struct VanForm {
    std::string name;
    double rise = 0;       ///< of its roof
    bool diagonals = true; ///< both of every face; else one
    bool ceiling = true;
    bool alike = false;   ///< its sides are, and that is said
    bool heights = false; ///< bare heights are read, good to 5 mm
    double strip = 0;     ///< height of the upper part of its left wall, where that is parted
};

/// One reading of any surface wrong: by the surface that it is of, all of them first.
std::array<Count, 8> triedInVans(const VanForm& form, int vans, unsigned long long seed) {
    std::mt19937 dice(static_cast<unsigned>(seed));
    std::array<Count, 8> counts{};
    for (int round = 0; round < vans; ++round) {
        test::CrookedVan van(dice, form.alike ? 0 : 20, kTapeMm, form.rise);
        if (form.strip > 0) van.partLeftWall(dice, kTapeMm, form.strip);
        if (!form.diagonals)
            for (Surface& s : van.surfaces) s.measurement.readings[5].reset();
        if (!form.ceiling) van.loosen("ceiling");
        Headroom bare;
        if (form.heights) {
            std::normal_distribution<double> about(0, 5);
            const auto read = [&](double high) { return Reading{{}, {high + form.rise + about(dice)}}; };
            const auto& c = van.corners;
            bare = {read((c[4].z + c[7].z) / 2),
                    read((c[4].z + c[5].z + c[6].z + c[7].z) / 4),
                    read((c[5].z + c[6].z) / 2),
                    {}};
        }
        const bool alarm = !van.folded(form.alike, bare).suspects.empty();
        std::size_t surface = dice() % van.surfaces.size();
        while (!form.ceiling && surface == 1) surface = dice() % van.surfaces.size();
        Surface& s = van.surfaces[surface];
        std::vector<std::string> keys;
        for (const std::string& key : readingKeys(s.measurement))
            if (const MaybeReading* r = findReading(s.measurement, key); r && *r) keys.push_back(key);
        const std::string key = keys[dice() % keys.size()];
        Reading& reading = **findReading(s.measurement, key);
        double slip = std::uniform_real_distribution<double>(15, 200)(dice) * (dice() % 2 ? 1 : -1);
        if (reading.length.value + slip < 10) slip = -slip;
        reading.length = reading.length + Mm{slip};
        const FoldUp fold = van.folded(form.alike, bare);
        bool among = false;
        for (std::size_t k = 0; k < std::min(fold.suspects.size(), kMostNamed); ++k)
            among = among || (fold.suspects[k].surface == s.id && fold.suspects[k].key == key);
        for (const std::size_t to : {std::size_t{0}, surface + 1}) {
            Count& c = counts[to];
            ++c.all;
            ++c.clean;
            c.alarms += alarm;
            c.among += among;
            c.alone += among && fold.proved;
            c.accused += !among && fold.proved;
            c.silent += fold.suspects.empty();
        }
    }
    return counts;
}

void printVans(int vans, unsigned long long seed) {
    const std::vector<VanForm> forms{{"all six faces"},
                                     {"roof bowed by 70", 70},
                                     {"roof bowed by 70, bare heights read", 70, true, true, false, true},
                                     {"left wall in two, upper strip 200 high", 0, true, true, false, false, 200},
                                     {"one diagonal a face", 0, false},
                                     {"no ceiling measured", 0, true, false},
                                     {"no ceiling, sides said to be alike", 0, true, false, true}};
    std::printf("\n| van, and the surface of the slip | named | alone | accused | silent | false alarm |\n");
    std::printf("|---|---|---|---|---|---|\n");
    for (const VanForm& form : forms) {
        const auto counts = triedInVans(form, vans, seed);
        constexpr std::array<const char*, 8> who{"any",        "floor",    "ceiling", "left wall",
                                                 "right wall", "bulkhead", "rear",    "strip"};
        for (std::size_t k = 0; k < counts.size(); ++k) {
            const Count& c = counts[k];
            if (c.all == 0) continue;
            const auto share = [&](int part) { return 100.0 * part / c.all; };
            std::printf("| %s: %s | %.1f | %.1f | %.1f | %.1f | %.2f |\n", form.name.c_str(), who[k], share(c.among),
                        share(c.alone), share(c.accused), share(c.silent), share(c.alarms));
        }
    }
}

} // namespace

int main(int argc, char** argv) {
    const int rounds = argc > 1 ? std::atoi(argv[1]) : 1000;
    const unsigned long long seed = argc > 2 ? std::strtoull(argv[2], nullptr, 10) : 1;
    if (rounds < 1) {
        std::fprintf(stderr, "westrum-measuring-table [ROUNDS] [SEED]\n");
        return 2;
    }
    const std::vector<Form> forms{{"floor, both diagonals", floorOutline, 1},
                                  {"wall, both diagonals", wallOutline, 1},
                                  {"door, both diagonals", door, 1},
                                  {"narrow strip, both diagonals", strip, 1},
                                  {"gable, one spare", pentagon, 1},
                                  {"gable, two spare", pentagon, 2},
                                  {"L, none spare", ell, 0},
                                  {"L, one spare", ell, 1},
                                  {"L, two spare", ell, 2},
                                  {"L, all inside", ell, -1},
                                  {"arch notch, one spare", notched, 1},
                                  {"arch notch, three spare", notched, 3},
                                  {"arch notch, all inside", notched, -1}};
    std::printf("| %-28s | named | alone | accused | silent | cannot close | false alarm | asked | other shape |\n",
                "form");
    std::printf("|---|---|---|---|---|---|---|---|---|\n");
    for (const Form& form : forms) {
        Dice dice(seed);
        const Count c = tried(form, rounds, dice);
        const auto share = [](int part, int all) { return 100.0 * part / std::max(1, all); };
        std::printf("| %-28s | %.1f | %.1f | %.1f | %.1f | %.1f | %.2f | %.1f | %.2f |\n", form.name.c_str(),
                    share(c.among, c.all - c.notClosed), share(c.alone, c.all), share(c.accused, c.all),
                    share(c.silent, c.all), share(c.notClosed, c.all), share(c.alarms, c.clean),
                    share(c.asked, c.clean), share(c.shape, c.clean));
    }
    printVans(std::max(1, rounds / 2), seed);
    return 0;
}
