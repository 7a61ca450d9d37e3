#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/buildup/packing.h"
#include "tests/support/registry.h"

#include <algorithm>
#include <cmath>
#include <random>

using namespace westrum;

namespace {

std::vector<CrookedCrossing> grid(const std::vector<double>& ribs, const std::vector<double>& battens,
                                  const std::vector<std::vector<double>>& heights) {
    std::vector<CrookedCrossing> all;
    for (std::size_t b = 0; b < battens.size(); ++b)
        for (std::size_t r = 0; r < ribs.size(); ++r)
            all.push_back({{ribs[r], battens[b]}, static_cast<int>(b), heights[b][r]});
    return all;
}

bool near(double a, double b) { return std::abs(a - b) < 1e-6; }

} // namespace

class PackingTest : public QObject {
    Q_OBJECT
private slots:
    void aLevelTouchesTheHighestRib() {
        // Heights 2 0 5.5 and 1 3 0: everything comes up to 5.5: 3.5 5.5 0 and 4.5 2.5 5.5, together 21.5.
        const auto c = grid({300, 900, 1500}, {200, 700}, {{2, 0, 5.5}, {1, 3, 0}});
        const PackedFaces level = packedFaces(PackTo::Level, c);
        QVERIFY(near(level.sum, 21.5) && near(level.lost(), 21.5 / 6));
        QVERIFY(near(level.packer[3], 4.5) && near(level.packer[2], 0));
        // A plane may tilt, and loses no more; a line for each batten no more than that.
        const PackedFaces plane = packedFaces(PackTo::Plane, c), line = packedFaces(PackTo::EachLine, c);
        QVERIFY(plane.sum <= level.sum + 1e-9 && line.sum <= plane.sum + 1e-9);
    }

    void aLineLiesOnTheTwoRibsThatStandOutMost() {
        // Ribs at 0, 1 and 2 m stand 0, 1 and 4 mm in. The line from the first to the last is 2 above the middle: one
        // packer of 1 mm. With 0, 3, 0 any line over the middle one leaves 6 in all.
        QVERIFY(near(packedFaces(PackTo::EachLine, grid({0, 1000, 2000}, {0}, {{0, 1, 4}})).sum, 1));
        QVERIFY(near(packedFaces(PackTo::EachLine, grid({0, 1000, 2000}, {0}, {{0, 3, 0}})).sum, 6));
        // A roof that falls evenly is a plane: no packers at all.
        QVERIFY(near(packedFaces(PackTo::Plane, grid({0, 700, 1900}, {100, 800}, {{1, 8, 20}, {8, 15, 27}})).sum, 0));
    }

    void packersAreWhatIsAtHand() {
        const std::vector<Mm> stock{{1.5}, {3}, {6}};
        const auto stack = [&](double wanted) { return packerStack({wanted}, stock); };
        QCOMPARE(stack(3.5).thickness, Mm{3}); // 0.5 off; of 3 and 1.5 + 1.5 the single one
        QCOMPARE(stack(3.5).pieces.size(), 1UL);
        QCOMPARE(stack(5.5).thickness, Mm{6});
        QCOMPARE(stack(4.5).pieces, (std::vector<Mm>{{3}, {1.5}}));
        QVERIFY(stack(0.7).pieces.empty());    // nearer to none
        QVERIFY(stack(0.75).pieces.empty());   // as near to none as to 1.5: the thinner
        QCOMPARE(stack(30).thickness, Mm{12}); // no more than two on each other
        QVERIFY(packerStack({4}, {}).pieces.empty());
    }

    void aPlaneIsNeverBelowARibAndNoneLosesLess() {
        std::mt19937 dice(3);
        const auto any = [&](double most) { return most * (dice() % 1000) / 1000.0; };
        for (int n = 0; n < 200; ++n) {
            std::vector<CrookedCrossing> c;
            const int battens = 1 + static_cast<int>(dice() % 4), ribs = 1 + static_cast<int>(dice() % 6);
            for (int b = 0; b < battens; ++b)
                for (int r = 0; r < ribs; ++r)
                    c.push_back({{600.0 * r + any(50), 350.0 * b}, b, any(dice() % 10 == 0 ? 80 : 8)});
            for (const PackTo to : {PackTo::Plane, PackTo::EachLine, PackTo::Level}) {
                const PackedFaces p = packedFaces(to, c);
                for (std::size_t i = 0; i < c.size(); ++i) QVERIFY(p.face[i] >= c[i].height - 1e-6);
                // Told in another order, mirrored, or from another plane, the sum is the same.
                std::vector<CrookedCrossing> other = c;
                std::shuffle(other.begin(), other.end(), dice);
                for (CrookedCrossing& x : other) {
                    x.at.x = -x.at.x;
                    x.height += 25;
                }
                QVERIFY(std::abs(packedFaces(to, other).sum - p.sum) < 1e-4);
            }
            // No plane through three of the ribs that clears the others loses less.
            const double least = packedFaces(PackTo::Plane, c).sum;
            for (int t = 0; t < 30 && c.size() > 2; ++t) {
                const auto pick = [&] { return c[dice() % c.size()]; };
                const CrookedCrossing a = pick(), b = pick(), d = pick();
                const Point u = b.at - a.at, v = d.at - a.at;
                const double det = cross(u, v);
                if (std::abs(det) < 1) continue;
                const double gx = ((b.height - a.height) * v.y - (d.height - a.height) * u.y) / det,
                             gy = ((d.height - a.height) * u.x - (b.height - a.height) * v.x) / det;
                double sum = 0;
                bool clears = std::abs(gx) < 1 && std::abs(gy) < 1;
                for (const CrookedCrossing& x : c) {
                    const double over = a.height + gx * (x.at.x - a.at.x) + gy * (x.at.y - a.at.y) - x.height;
                    clears = clears && over > -1e-9;
                    sum += over;
                }
                if (clears) QVERIFY(least <= sum + 1e-6);
            }
        }
    }
};

WESTRUM_TEST(PackingTest)

#include "packing_test.moc"
