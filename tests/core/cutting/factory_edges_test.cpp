#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/cutting/factory_edges.h"
#include "core/plan/cut_problems.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <algorithm>
#include <cmath>
#include <random>

using namespace westrum;
using namespace westrum::test;

namespace {

/// Rectangles that straight cuts part, a kerf of 3 between them, some wanting an edge.
void cutUp(std::mt19937& dice, double x, double y, double w, double h, int depth, std::vector<EdgeWish>& all) {
    constexpr double kKerf = 3;
    const bool across = dice() % 2 == 0;
    const double side = across ? w : h;
    if (depth == 0 || side < 200 || dice() % 5 == 0) {
        FactoryEdges wants;
        if (dice() % 3 == 0) (dice() % 2 ? wants.left : wants.far) = true;
        if (dice() % 9 == 0) wants.right = true;
        all.push_back({x, y, w, h, wants});
        return;
    }
    const double at = 60 + dice() % static_cast<unsigned>(side - 120);
    if (across) {
        cutUp(dice, x, y, at, h, depth - 1, all);
        cutUp(dice, x + at + kKerf, y, w - at - kKerf, h, depth - 1, all);
    } else {
        cutUp(dice, x, y, w, at, depth - 1, all);
        cutUp(dice, x, y + at + kKerf, w, h - at - kKerf, depth - 1, all);
    }
}

int kept(const std::vector<EdgeWish>& all, double length, double width) {
    int n = 0;
    for (const EdgeWish& p : all) {
        const FactoryEdges on = onEdges(p, length, width);
        n += on.left + on.right + on.near + on.far;
    }
    return n;
}

} // namespace

/// Sides of panels on the sheet's own edges.
class FactoryEdgesTest : public QObject {
    Q_OBJECT
private slots:
    /// Two panels of 600 and 900 beside each other on a sheet of 2440 x 1220: the second wants the left edge, so they
    /// change places; the first wants the right one, so it goes to the other end.
    void partsChangePlaces() {
        std::vector<EdgeWish> two{{0, 0, 600, 500, {}}, {603, 0, 900, 500, {.left = true}}};
        toFactoryEdges(two, 2440, 1220, 3);
        QCOMPARE(two[1].x, 0.0);
        QCOMPARE(two[0].x, 903.0);
        two[0].wants.right = true;
        toFactoryEdges(two, 2440, 1220, 3);
        QCOMPARE(two[0].x, 2440.0 - 600);
        QCOMPARE(two[1].x, 0.0);
        two[1].wants.far = true; // across they are one part: both go up
        toFactoryEdges(two, 2440, 1220, 3);
        QCOMPARE(two[1].y, 1220.0 - 500);
        QVERIFY(onEdges(two[1], 2440, 1220) == two[1].wants);
        std::vector<EdgeWish> none{{5, 7, 600, 500, {}}};
        toFactoryEdges(none, 2440, 1220, 3);
        QVERIFY(none[0].x == 5 && none[0].y == 7); // nobody asked
    }

    /// Whatever is cut up, everything stays on the sheet and apart by a kerf, and no fewer wishes are kept than before.
    void nothingIsLost() {
        std::mt19937 dice(17);
        int better = 0;
        for (int round = 0; round < 400; ++round) {
            std::vector<EdgeWish> all;
            cutUp(dice, 0, 0, 2440, 1220, 4, all);
            all.erase(std::remove_if(all.begin(), all.end(), [&](const EdgeWish&) { return dice() % 6 == 0; }),
                      all.end());
            const std::vector<EdgeWish> before = all;
            toFactoryEdges(all, 2440, 1220, 3);
            for (std::size_t i = 0; i < all.size(); ++i) {
                const EdgeWish& p = all[i];
                QVERIFY(p.width == before[i].width && p.height == before[i].height && p.wants == before[i].wants);
                QVERIFY(p.x > -1e-6 && p.y > -1e-6 && p.x + p.width < 2440 + 1e-6 && p.y + p.height < 1220 + 1e-6);
                for (std::size_t k = 0; k < i; ++k) {
                    const EdgeWish& o = all[k];
                    const double x = std::max(o.x - (p.x + p.width), p.x - (o.x + o.width)),
                                 y = std::max(o.y - (p.y + p.height), p.y - (o.y + o.height));
                    QVERIFY2(std::max(x, y) > 3 - 1e-6, qPrintable(QString::number(round)));
                }
            }
            better += kept(all, 2440, 1220) > kept(before, 2440, 1220);
        }
        QVERIFY2(better > 150, qPrintable(QString::number(better)));
    }

    /// From the surface to the sheet: a wall's lower side is said to lie on the sheet's own edge; its panel of 1200 x
    /// 400 lies there, and no saw goes along it. A sheet that is squared off has no such edge any more.
    void aSideOfAPanelLiesThere() {
        Job job;
        Product ply{.id = "ply", .family = "sheet", .name = "Ply"};
        ply.fields = {{"length", 2440}, {"width", 1220}, {"thickness", 6}, {"kerf", 3}, {"edgeTrim", 0}};
        job.catalogue.products = {ply};
        for (const auto& [id, height] : {std::pair{"high", 700.0}, {"low", 400.0}}) {
            Surface s;
            s.id = s.name = id;
            s.kind = SurfaceKind::LeftWall;
            s.measurement = test::rectangle(1200, height);
            s.edges.resize(4);
            s.edges[0].factory = std::string(id) == "low";
            job.surfaces.push_back(std::move(s));
            job.finishes[id].now().layers = {{"ply", {{"gap", 0}}, {}, false}};
        }
        const auto lies = [&](const char* surface) {
            const Plan p = plan(job);
            for (const CutProblem& problem : cutProblems(job, p)) {
                const ProductCut cut = cutProduct(problem, {.iterations = 50});
                for (const CutItem& item : cut.items)
                    for (const LyingPiece& l : item.pieces)
                        if (cut.pieces[static_cast<std::size_t>(l.piece)].surface == surface) return l;
            }
            return LyingPiece{};
        };
        QVERIFY(lies("low").onEdge != FactoryEdges{});
        QVERIFY(lies("high").onEdge == FactoryEdges{});
        // Both want the lower edge of one sheet, one above the other: one of them has it, and which one is told.
        job.surfaces[0].edges[0].factory = true;
        QVERIFY(lies("low").onEdge.near != lies("high").onEdge.near);
        job.catalogue.products[0].fields["edgeTrim"] = 5;
        QVERIFY(lies("low").onEdge == FactoryEdges{});
    }
};

WESTRUM_TEST(FactoryEdgesTest)
#include "factory_edges_test.moc"
