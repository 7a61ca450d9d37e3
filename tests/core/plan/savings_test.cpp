#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/savings.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

/// What would buy less.
class SavingsTest : public QObject {
    Q_OBJECT
private slots:
    void aStartLineThatSavesAPackIsFoundAndItsSavingIsReal() {
        // Floors of any size: whatever is said to save, does, and the rest of the job stays as it is.
        std::mt19937 dice(12);
        int found = 0;
        for (int round = 0; round < 40 && found < 6; ++round) {
            Job job =
                jobWith(test::rectangle(2000 + dice() % 2200, 1100 + dice() % 900),
                        plankProduct(1000 + dice() % 400, 150 + dice() % 60, 5, 3000), {{"startOffset", dice() % 120}});
            // Whatever is brought costs 39.00 under 150.00 of goods: a pack saved may be a delivery paid.
            if (round % 2 == 1) job.prices.suppliers = {{"Test yard", Money{3900, {}}, Money{15000, {}}}};
            const Plan before = plan(job);
            if (before.hasErrors()) continue;
            for (const Saving& s : savingsOn(job, "plank")) {
                ++found;
                QCOMPARE(s.kind, Saving::Kind::Rules);
                const Plan after = plan(withSaving(job, "plank", s));
                QVERIFY(!after.hasErrors());
                QCOMPARE(before.totals.cost->minor - after.totals.cost->minor, s.saved.minor);
                QVERIFY(s.saved.minor > 0 && s.less >= 1);
            }
        }
        QVERIFY2(found > 0, "no floor had anything to save");
    }

    /// Rows the other way are tried too. 1000 x 2440 of planks 1220 x 200: rows of 1000 are 12.2, thirteen planks and
    /// two packs of twelve; turned, five rows of two planks (their joints staggered: one more) need eleven, one pack.
    void turningTheRowsIsOffered() {
        Job job =
            jobWith(test::rectangle(1000, 2440), plankProduct(1220, 200, 12, 3000), {{"gap", 0}, {"direction", 0}});
        const Plan before = plan(job);
        const std::vector<Saving> all = savingsOn(job, "plank");
        const auto turned = std::find_if(all.begin(), all.end(), [](const Saving& s) {
            const auto way = s.change.find("direction");
            return way != s.change.end() && way->second == 1;
        });
        QVERIFY(turned != all.end());
        const Plan after = plan(withSaving(job, "plank", *turned));
        QCOMPARE(before.totals.cost->minor - after.totals.cost->minor, turned->saved.minor);
        QCOMPARE(before.purchases[0].packs, 2);
        QCOMPARE(after.purchases[0].packs, 1);
    }

    void turningTwoTrapezoidsSavesWhatTheyInterlock() {
        // Two surfaces 1400 along the foot, 400 along the top, 900 high, on a roll 1000 wide: one way up they take 1400
        // each, 2.8 m; one turned half round lies against the other's slant, 1400 + 400 and a little: a metre less.
        Job job = jobWith(fourSides(1400, 1345, 400, 900, 985), plankProduct(1000, 200, 4, 4000), {});
        Product carpet{.id = "carpet", .family = "roll", .name = "Carpet"};
        carpet.fields = {{"rollWidth", 1000}, {"turning", 0}, {"gap", 5}};
        carpet.packPrice = Money{2000, {}};
        job.catalogue.products.push_back(carpet);
        Surface other = job.surfaces[0];
        other.id = other.name = "other";
        job.surfaces.push_back(other);
        for (const char* id : {"floor", "other"})
            job.finishes[id].now().layers = {{"carpet", {{"pile", 3}, {"allowance", 0}, {"corner", 0}}, {}, false}};
        const std::vector<Saving> all = savingsOn(job, "carpet");
        const auto turned =
            std::find_if(all.begin(), all.end(), [](const Saving& s) { return s.kind == Saving::Kind::Turned; });
        QVERIFY(turned != all.end());
        QVERIFY2(turned->less > 0.8 && turned->less < 1.1, qPrintable(QString::number(turned->less)));
        QVERIFY(turned->saved.minor >= 1600); // at 20.00 a metre
        QCOMPARE(withSaving(job, "carpet", *turned).catalogue.find("carpet")->fields.at("turning"), 1.0);
    }

    void nothingOrStoppedSavesNothing() {
        const Job job = jobWith(test::rectangle(2000, 1000), plankProduct(1000, 200, 4, 4000), {});
        QVERIFY(savingsOn(job, "nothing").empty());
        std::stop_source stop;
        stop.request_stop();
        QVERIFY(savingsOn(job, "plank", stop.get_token()).empty());
        Job free = job; // without a price nothing can be saved
        free.catalogue.products[0].packPrice.reset();
        QVERIFY(savingsOn(free, "plank").empty());
    }
};

WESTRUM_TEST(SavingsTest)
#include "savings_test.moc"
