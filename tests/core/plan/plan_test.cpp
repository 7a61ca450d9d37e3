#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/catalogue/plank.h"
#include "core/families/family.h"
#include "core/plan/plan.h"
#include "core/plan/starts.h"
#include "core/plan/surface_stage.h"
#include "core/setout/plank_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

namespace {

bool has(const Plan& plan, RemarkKind kind) {
    return std::any_of(plan.remarks.begin(), plan.remarks.end(), [&](const Remark& r) { return r.kind == kind; });
}

Job job() { return jobWith(rectangle(3640, 1785), plankProduct(1220, 181, 10, 4390), {{"gap", 5}, {"stagger", 300}}); }

} // namespace

class PlanTest : public QObject {
    Q_OBJECT
private slots:
    void theWholeChain() {
        const Plan p = plan(job());
        QVERIFY(!p.hasErrors());
        const SurfacePlan& s = *p.surface("floor");
        QVERIFY(s.setOut().laid());
        // 3630 x 1775 mm are covered.
        QVERIFY(std::abs(p.totals.laidArea.value - 3.630 * 1.775) < 1e-9);
        QCOMPARE(p.purchases.size(), std::size_t{1});
        QCOMPARE(p.totals.cost->minor, 4390 * p.purchases.front().packs);
        // 6.44 m2 over 0.22082 m2 a plank: at least 30 planks, so four packs of ten at most.
        QVERIFY(p.purchases.front().unitsNeeded >= 30);
        QVERIFY(p.purchases.front().packs * 10 >= p.purchases.front().unitsNeeded);
    }

    void theSameJobGivesTheSamePlan() {
        const Plan a = plan(job()), b = plan(job());
        QVERIFY(a.surfaces[0].setOut() == b.surfaces[0].setOut());
        QVERIFY(a.purchases == b.purchases);
        QVERIFY(a.totals == b.totals);
        QVERIFY(a.remarks == b.remarks);
    }

    void aPlannerThatRemembersAgreesWithOneThatDoesNot() {
        Planner planner;
        Job j = job();
        for (double offset = 0; offset < 180; offset += 30) {
            face(j).rules["startOffset"] = offset;
            const Plan kept = planner.plan(j);
            const Plan again = planner.plan(j);
            QVERIFY(kept.surfaces[0].setOut() == plan(j).surfaces[0].setOut());
            QVERIFY(again.surfaces[0].setOut() == kept.surfaces[0].setOut());
        }
        j.name = "Another name"; // changes nothing that is planned
        QVERIFY(planner.plan(j).surfaces[0].setOut() == plan(j).surfaces[0].setOut());
    }

    void aStoppedPlanSaysSo() {
        std::stop_source stop;
        stop.request_stop();
        QVERIFY(plan(job(), stop.get_token()).stopped);
        QVERIFY(startsOf(job(), "floor", -1, stop.get_token()).choices.empty());
    }

    void anUnmeasuredFloorIsNoMistake() {
        Job j = job();
        j.surfaces[0].measurement = {};
        const Plan p = plan(j);
        QVERIFY(p.remarks.empty());
        QVERIFY(!p.totals.cost);
        QVERIFY(startsOf(j, "floor").choices.empty());
        QVERIFY(startsOf(j, "no such surface").choices.empty());
    }

    void badProductsAreRemarksNotCrashes_data() {
        QTest::addColumn<QString>("key");
        QTest::addColumn<double>("value");
        for (const auto& [key, value] : {std::pair{"perPack", 0.0},
                                         {"perPack", -3.0},
                                         {"perPack", 2.5},
                                         {"width", 0.0},
                                         {"length", 1e308},
                                         {"width", std::nan("")},
                                         {"length", -1220.0},
                                         {"packMass", -1.0}})
            QTest::addRow("%s %g", key, value) << QString::fromLatin1(key) << value;
    }
    void badProductsAreRemarksNotCrashes() {
        QFETCH(QString, key);
        QFETCH(double, value);
        Job j = job();
        j.catalogue.products[0].fields[key.toStdString()] = value;
        const Plan p = plan(j);
        QVERIFY(has(p, RemarkKind::FieldOutOfRange));
        QVERIFY(p.hasErrors());
        QVERIFY(p.surface("floor")->measured.measured()); // the rest stands
        QVERIFY(p.purchases.empty());
    }

    void missingThingsAreSaid() {
        Job j = job();
        j.catalogue.products[0].packPrice.reset();
        QVERIFY(has(plan(j), RemarkKind::PriceMissing));
        QVERIFY(!plan(j).totals.cost);
        j = job();
        face(j).product = "gone";
        QVERIFY(has(plan(j), RemarkKind::ProductMissing));
        j.finishes["floor"].now().layers.clear();
        QVERIFY(has(plan(j), RemarkKind::NoProduct));
        j = job();
        face(j).rules["kerf"] = -4;
        QVERIFY(has(plan(j), RemarkKind::FieldOutOfRange));
        j = job();
        j.finishes["floor"].now().layers.insert(j.finishes["floor"].now().layers.begin(),
                                                Layer{"sand", {}, {}, false}); // no such product
        QVERIFY(has(plan(j), RemarkKind::ProductMissing));
    }

    void everyFieldTableIsSound() {
        const auto sound = [](std::span<const Field> fields) {
            return std::all_of(fields.begin(), fields.end(), [&](const Field& f) {
                return f.least <= f.byDefault && f.byDefault <= f.most && findField(fields, f.key) == &f &&
                       (f.unit != FieldUnit::Choice || f.choices.size() == static_cast<std::size_t>(f.most) + 1);
            });
        };
        for (const Family& family : familyTable())
            QVERIFY(sound(family.product.fields) && sound(family.product.layerRules) && sound(family.fixing));
        for (const SetOutFamily& family : setOutFamilies())
            QVERIFY(sound(family.ruleFields) && productFamily(family.id)->role == LayerRole::Finish);
        QVERIFY(fieldsOfFamily("cork").empty());
        QVERIFY(findFamily("planks") && !findFamily("cork"));
    }

    void aNewJobStartsWithTheLabelsGap() {
        Catalogue c;
        c.products.push_back(plankProduct(1220, 181, 10, 100));
        c.products[0].fields["movementGap"] = 8;
        c.products[0].fields["leastStagger"] = 400;
        const Job j = newJob("New", "Floor", c, Currency{});
        QCOMPARE(j.face("floor")->rules.at("gap"), 8.0);
        QCOMPARE(j.face("floor")->rules.at("stagger"), 400.0);
        QVERIFY(j.log("floor").done.empty());
    }

    void plansOfGeneratedFloorsAddUp() {
        std::mt19937 dice(61);
        for (int round = 0; round < 25; ++round) {
            Job j = jobWith(anyFloor(dice),
                            plankProduct(800 + dice() % 500, 130 + dice() % 100, 1 + static_cast<int>(dice() % 12),
                                         1000 + dice() % 5000),
                            {{"gap", 5}, {"stagger", 200}, {"endLeast", 200}});
            const Plan p = plan(j);
            if (p.purchases.empty()) continue;
            const Purchase& buy = p.purchases.front();
            QVERIFY(buy.packs * buy.unitsPerPack >= buy.unitsNeeded);
            QVERIFY((buy.packs - 1) * buy.unitsPerPack < buy.unitsNeeded);
            QVERIFY(buy.boughtArea.value >= buy.consumedArea.value - 1e-9);
            QVERIFY(buy.consumedArea.value >= buy.laidArea.value - 1e-9);
            QCOMPARE(p.totals.cost->minor, buy.cost->minor);
            QVERIFY(p.totals.runShort >= 0 && p.totals.runShort <= 1);
        }
    }
};
WESTRUM_TEST(PlanTest)

#include "plan_test.moc"
