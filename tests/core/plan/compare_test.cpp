#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/families/family.h"
#include "core/plan/cut_problems.h"
#include "core/plan/options.h"
#include "formats/demo.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

namespace {

/// A floor 4000 x 2000 in two options: planks, or vinyl off the roll.
Job twoWays() {
    Job job = jobWith(test::rectangle(4000, 2000), plankProduct(1000, 200, 4, 4000),
                      {{"gap", 0}, {"stagger", 0}, {"leastEnd", 0}});
    Product vinyl{.id = "vinyl", .family = "roll", .name = "Vinyl"};
    vinyl.fields = {{"lining", static_cast<double>(Lining::SheetVinyl)}, {"rollWidth", 2200}, {"thickness", 2}};
    vinyl.packPrice = Money{2500, {}};
    job.catalogue.products.push_back(vinyl);
    FinishOptions& o = job.finishes["floor"];
    o.options[0].name = "everyday";
    o.options.push_back({.name = "light", .layers = {{"vinyl", {}, {}, false}}, .trim = {}});
    return job;
}

} // namespace

/// Options and schemes held against each other.
class CompareTest : public QObject {
    Q_OBJECT
private slots:
    void hoursFollowAreaAndPieces() {
        // 8 m2 of planks in 40 pieces: 8 x 0.25 + 40 x 0.02 = 2.8 h; a layer that is not set out by its area alone.
        QVERIFY(std::abs(hoursFor("planks", 8, 40) - 2.8) < 1e-9);
        QVERIFY(std::abs(hoursFor("coating", 4, 0) - 1.0) < 1e-9);
        QCOMPARE(hoursFor("cork", 8, 40), 0.0); // nobody knows
        // More is never quicker.
        for (const ProductFamily* each : productFamilies())
            for (double area = 0; area < 10; area += 2.5) {
                QVERIFY(hoursFor(each->id, area + 1, 3) >= hoursFor(each->id, area, 3));
                QVERIFY(hoursFor(each->id, area, 4) >= hoursFor(each->id, area, 3));
            }
    }

    void whatASurfaceAsksForIsHeldAgainstWhatItGets() {
        Surface s;
        s.kind = SurfaceKind::WetCellWall;
        const Suitability asked = demandOf(s, false);
        Product tiles{.id = "t", .family = "tiles"};
        Product carpet{.id = "c", .family = "roll"};
        QCOMPARE(shortOf(suitabilityOf(tiles), asked), 0);
        QVERIFY(shortOf(suitabilityOf(carpet), asked) >= 2); // wet, and hard to clean
        // Bent, it asks for what follows a curve: carpet does, tiles do not.
        s.kind = SurfaceKind::LeftWall;
        QCOMPARE(shortOf(suitabilityOf(tiles), demandOf(s, false)), 0);
        QCOMPARE(shortOf(suitabilityOf(tiles), demandOf(s, true)), 1);
        QCOMPARE(shortOf(suitabilityOf(carpet), demandOf(s, true)), 0);
        for (const Product& p : demoJob().catalogue.products)
            for (const int n : suitabilityOf(p)) QVERIFY(n >= 0 && n <= 3);
    }

    void everyOptionIsWorkedOutAsIfChosen() {
        const Job job = twoWays();
        const auto figures = optionFigures(job, "floor");
        QCOMPARE(figures.size(), 2UL);
        // Ten rows of four planks; one piece of vinyl.
        QCOMPARE(figures[0].pieces, 40);
        QCOMPARE(figures[0].product, std::string("plank"));
        QCOMPARE(figures[1].pieces, 1);
        QVERIFY(figures[1].face.laid() && figures[1].face.pieces.size() == 1);
        QVERIFY(std::abs(figures[0].hours - (8 * 0.25 + 40 * 0.02)) < 0.01);
        QVERIFY(std::abs(figures[1].hours - (8 * 0.5 + 0.25)) < 0.01);
        // Each is as heavy as a job in which it is chosen.
        for (int k = 0; k < 2; ++k) {
            Job chosen = job;
            chosen.finishes["floor"].chosen = k;
            const auto again = optionFigures(chosen, "floor");
            QCOMPARE(again[static_cast<std::size_t>(k)].mass.value, figures[static_cast<std::size_t>(k)].mass.value);
            QVERIFY(again[static_cast<std::size_t>(k)].cost == figures[static_cast<std::size_t>(k)].cost);
        }
        std::stop_source stop;
        stop.request_stop();
        QVERIFY(optionFigures(job, "floor", stop.get_token()).empty());
    }

    void whatIsPromisedIsWhatChoosingGives() {
        // With a trim along its edges by rule, a supplier who takes 39.00 for bringing, and both.
        for (const bool brought : {false, true})
            for (const bool trimmed : {false, true}) {
                Job job = twoWays();
                job.consumables = false;
                job.catalogue.products.back().supplier = "Roll hall";
                if (brought) job.prices.suppliers = {{"Roll hall", Money{3900, {}}, {}}};
                if (trimmed) {
                    Product rail{.id = "rail", .family = "trim", .name = "Rail"};
                    rail.fields = {{"profile", static_cast<double>(Profile::Skirting)}, {"length", 2400}};
                    rail.packPrice = Money{700, {}};
                    job.catalogue.products.push_back(rail);
                }
                const auto figures = optionFigures(job, "floor");
                std::vector<std::optional<Money>> cost;
                std::vector<Kg> mass;
                for (const int k : {0, 1}) {
                    Job chosen = job;
                    chosen.finishes["floor"].chosen = k;
                    const Plan bare = plan(chosen);
                    std::vector<ProductCut> cuts;
                    for (const CutProblem& problem : cutProblems(chosen, bare)) {
                        Effort effort;
                        effort.seed = problem.seed;
                        effort.iterations = 1;
                        cuts.push_back(cutProduct(problem, effort));
                    }
                    const Plan p = withCuts(bare, chosen, cuts);
                    cost.push_back(p.totals.cost);
                    mass.push_back(p.totals.laidMass);
                }
                QVERIFY(cost[0] && cost[1] && figures[0].cost && figures[1].cost);
                QCOMPARE(figures[1].cost->minor - figures[0].cost->minor, cost[1]->minor - cost[0]->minor);
                QVERIFY(std::abs((figures[1].totalMass - figures[0].totalMass).value - (mass[1] - mass[0]).value) <
                        1e-9);
            }
    }

    void aSchemeIsTheOptionsOfOneName() {
        Job job = twoWays();
        QVERIFY(schemesOf(job).empty()); // one surface makes no scheme
        Surface other = job.surfaces[0];
        other.id = other.name = "other";
        job.surfaces.push_back(other);
        job.finishes["other"] = job.finishes["floor"];
        QCOMPARE(schemesOf(job), (std::vector<std::string>{"everyday", "light"}));
        const auto schemes = schemeFigures(job);
        // As chosen, and light; everyday is what is chosen already.
        QCOMPARE(schemes.size(), 2UL);
        QCOMPARE(schemes[1].name, std::string("light"));
        QCOMPARE(schemes[1].surfaces, 2);
        QCOMPARE(schemes[0].pieces, 80);
        QCOMPARE(schemes[1].pieces, 2);
        QVERIFY(schemes[1].mass < schemes[0].mass);
        const Job light = withScheme(job, "light");
        QCOMPARE(light.options("other").chosen, 1);
        QVERIFY(withScheme(job, "no such scheme") == job);
        // The faces to be drawn are the largest first.
        QCOMPARE(schemes[0].faces.size(), 2UL);
    }
};

WESTRUM_TEST(CompareTest)
#include "compare_test.moc"
