#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/cut_problems.h"
#include "core/plan/odds.h"
#include "formats/demo.h"
#include "tests/support/any_van.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

namespace {

constexpr Mishaps kNone{.flatMm = 0, .curveMm = 0, .damaged = 0, .rate = 0, .lost = 0};

Job floorOfPlanks() {
    Job job = jobWith(test::rectangle(3640, 1788), plankProduct(1285, 192, 9, 3000), {});
    job.spoilChance = 0;
    return job;
}

const ProductOdds& of(const std::vector<ProductOdds>& all, const std::string& product) {
    for (const ProductOdds& o : all)
        if (o.product == product) return o;
    qFatal("no such product");
}

} // namespace

/// The plan made over again with what may go wrong.
class OddsTest : public QObject {
    Q_OBJECT
private slots:
    void withoutMishapsThePlanIsRight() {
        const Job job = floorOfPlanks();
        const Plan p = plan(job);
        const auto odds = oddsOf(job, p, {}, 5, kNone);
        QCOMPARE(odds.size(), 1UL);
        QCOMPARE(odds[0].needs.within(0), static_cast<double>(p.purchases[0].unitsNeeded));
        QCOMPARE(odds[0].needs.within(1), static_cast<double>(p.purchases[0].unitsNeeded));
        QCOMPARE(odds[0].have, static_cast<double>(p.purchases[0].packs * 9));
        QCOMPARE(odds[0].chanceShort(), 0.0);
    }

    /// Four tries: planks 10 12 10 13 of which 10 are bought, sheets 3 3 4 5 of which 4 are. Short: the second by
    /// planks, the fourth by both: in two of four something is; singly 0.5 and 0.25.
    void oneFigureSaysHowOftenAnythingRunsShort() {
        std::vector<ProductOdds> odds{{"planks", {10, 12, 10, 13}, NeedOdds({10, 12, 10, 13}), 10, 2},
                                      {"sheets", {3, 3, 4, 5}, NeedOdds({3, 3, 4, 5}), 4, 1}};
        QCOMPARE(chanceOfAnyShort(odds), 0.5);
        QCOMPARE(odds[0].chanceShort(), 0.5);
        QCOMPARE(odds[1].chanceShort(), 0.25);
        // None short: 13 planks take two packs of two more, 5 sheets one more. A quarter may be: the last try is given
        // up, which spares a pack of planks and the sheet.
        std::vector<SpareLine> lines{{0, 30}, {0, 50}};
        QCOMPARE(sparesWithin(odds, lines, 0, 20), (std::vector<int>{2, 1}));
        QCOMPARE(sparesWithin(odds, lines, 0.25, 20), (std::vector<int>{1, 0}));
        QCOMPARE(sparesWithin(odds, lines, 0.5, 20), (std::vector<int>{0, 0}));
        // Spares that are bought already are part of what is there: the answer is the same.
        odds[0].have = 14;
        lines[0].spare = 2;
        QCOMPARE(chanceOfAnyShort(odds), 0.25);
        QCOMPARE(sparesWithin(odds, lines, 0.25, 20), (std::vector<int>{1, 0}));
        QCOMPARE(chanceOfAnyShort({}), 0.0);
    }

    void withoutMishapsEveryVariationIsCutAsThePlanIs() {
        std::mt19937 dice(8);
        Job job = anyVan(dice);
        job.spoilChance = 0;
        const Plan planned = plan(job);
        std::vector<ProductCut> cuts;
        for (const CutProblem& problem : cutProblems(job, planned))
            cuts.push_back(cutProduct(problem, {.seed = 1, .iterations = 400}));
        const auto odds = oddsOf(job, withCuts(planned, job, cuts), cuts, 2, kNone);
        int cutFromStock = 0;
        for (const ProductCut& c : cuts) {
            if (c.items.empty() || c.items.front().decided) continue;
            ++cutFromStock;
            const double units = c.form == StockForm::Roll ? c.rollMm / 1000 : c.itemsToBuy;
            QVERIFY2(std::abs(of(odds, c.product).needs.within(1) - units) < 1e-9, c.product.c_str());
        }
        QVERIFY(cutFromStock >= 3);
        for (const ProductOdds& o : odds) QVERIFY2(o.chanceShort() == 0, o.product.c_str());
    }

    void spoiledCutsAloneAgreeWithTheFormula() {
        Job job = floorOfPlanks();
        job.spoilChance = 0.1;
        const Plan p = plan(job);
        const auto odds = oddsOf(job, p, {}, 3000, kNone);
        const int needed = p.purchases[0].unitsNeeded, cuts = p.cutUnits("plank");
        for (const int have : {needed, needed + 1, needed + 2})
            QVERIFY(std::abs(odds[0].needs.chanceShort(have) - chanceOfRunningShort(needed, cuts, have, 0.1)) < 0.03);
    }

    void whoSpoilsMoreNeedsNoLess() {
        Job job = floorOfPlanks();
        std::vector<double> likely;
        for (const double chance : {0.0, 0.05, 0.3}) {
            job.spoilChance = chance;
            const auto odds = oddsOf(job, plan(job), {}, 300, kNone);
            likely.push_back(odds[0].needs.within(0.9));
            for (const double share : {0.1, 0.5, 0.9}) // more certainty takes no fewer planks
                QVERIFY(odds[0].needs.within(share) <= odds[0].needs.within(std::min(1.0, share + 0.1)));
        }
        QVERIFY(likely[0] < likely[1] && likely[1] < likely[2]);
    }

    void readingsThatAreOffChangeTheSetOutItself() {
        // 3640 wide rows of planks 1285 long, 1788 / 192 = 9.3 rows: a few millimetres more or less move the offcuts.
        const Job job = floorOfPlanks();
        Mishaps rough = kNone;
        rough.flatMm = 40;
        const auto odds = oddsOf(job, plan(job), {}, 200, rough);
        QVERIFY(odds[0].needs.within(0) < odds[0].needs.within(1));
        Dice dice(3);
        const Job again = measuredAgain(job, dice, rough);
        QVERIFY(again.surfaces[0].measurement != job.surfaces[0].measurement);
        QVERIFY(again.catalogue == job.catalogue);
    }

    void sameSeedSameAnswerOnAnyNumberOfThreads() {
        std::mt19937 dice(8);
        const Job job = anyVan(dice);
        const Plan planned = plan(job);
        std::vector<ProductCut> cuts;
        for (const CutProblem& problem : cutProblems(job, planned))
            cuts.push_back(cutProduct(problem, {.seed = 1, .iterations = 1}));
        const Plan bought = withCuts(planned, job, cuts);
        const auto one = oddsOf(job, bought, cuts, 12, {}, 1), two = oddsOf(job, bought, cuts, 12, {}, 2);
        QCOMPARE(one.size(), two.size());
        QVERIFY(one.size() >= 3);
        for (std::size_t i = 0; i < one.size(); ++i) {
            QCOMPARE(one[i].product, two[i].product);
            QVERIFY(one[i].needs == two[i].needs);
            QCOMPARE(one[i].needs.tries(), 12UL);
        }
        Job other = job;
        other.seed = 77;
        bool differs = false;
        const auto third = oddsOf(other, bought, cuts, 12);
        for (std::size_t i = 0; i < one.size(); ++i) differs = differs || !(one[i].needs == third[i].needs);
        QVERIFY(differs);
    }

    void morePacksAreNeverRiskierAndSparesCount() {
        Job job = floorOfPlanks();
        job.spoilChance = 0.2;
        const auto before = oddsOf(job, plan(job), {}, 200);
        job.spares["plank"] = 1;
        const Plan spared = plan(job);
        QCOMPARE(spared.purchases[0].spare, 1);
        auto after = before;
        fillBought(job, spared, {}, after);
        QCOMPARE(after[0].have, before[0].have + 9);
        QVERIFY(after[0].chanceShort() <= before[0].chanceShort());
        // What is bought to spare is paid for and borne by the floor.
        QCOMPARE(spared.totals.cost->minor, plan(floorOfPlanks()).totals.cost->minor + 3000);
        QCOMPARE(spared.purchases[0].shares[0].cost->minor, spared.totals.cost->minor);
    }

    void adhesiveRunsShortByItsRate() {
        // 1 kg tins, 0.95 kg needed: a rate 5.3 % up is short. With 12 % as one sigma that is 0.44 sigma: 33 %.
        Job job = floorOfPlanks();
        Product glue{.id = "glue", .family = "adhesive", .name = "Glue"};
        glue.fields = {{"rate", 0.95 / (3.640 * 1.788)}, {"container", 1}, {"standsHeat", 100}};
        job.catalogue.products.push_back(glue);
        job.finishes["floor"].now().layers.insert(job.finishes["floor"].now().layers.begin(),
                                                  Layer{"glue", {}, {}, false});
        Mishaps rates = kNone;
        rates.rate = 0.12;
        const auto odds = oddsOf(job, plan(job), {}, 3000, rates);
        QVERIFY(std::abs(of(odds, "glue").chanceShort() - 0.33) < 0.03);
    }

    void stoppedItSaysNothing() {
        std::stop_source stop;
        stop.request_stop();
        QVERIFY(oddsOf(floorOfPlanks(), plan(floorOfPlanks()), {}, 50, {}, 1, stop.get_token()).empty());
    }
};

WESTRUM_TEST(OddsTest)
#include "odds_test.moc"
