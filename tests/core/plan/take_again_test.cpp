#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/take_again.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

class TakeAgainTest : public QObject {
    Q_OBJECT
private slots:
    void aReadingOnTheEdgeOfAPackIsNamed() {
        // Planks of 1000 x 200, nine a pack at 40.00, no gap: 2000 x 800 is four rows and takes nine with the stagger,
        // a whole pack. 4 mm more across begin a fifth row, and the second pack; 4 mm more along come out of what is
        // left.
        const Job job = jobWith(test::rectangle(2000, 800), plankProduct(1000, 200, 9, 4000), {{"gap", 0}});
        const std::vector<CostlyReading> found = costlyReadings(job);
        QCOMPARE(found.size(), std::size_t{1});
        QCOMPARE(found[0].surface, std::string("floor"));
        QCOMPARE(found[0].key, std::string("BC"));
        QCOMPARE(found[0].off.value, kLikelyErrorMm);
        QVERIFY(found[0].more && found[0].more->minor == 4000);
    }

    void aReadingWithRoomCostsNothing() {
        // 1990 x 790 takes as many planks 4 mm longer, shorter, wider and narrower.
        const Job job = jobWith(test::rectangle(1990, 790), plankProduct(1000, 200, 9, 4000), {{"gap", 0}});
        for (const CostlyReading& c : costlyReadings(job)) QVERIFY(!c.more);
    }

    void aGapThatItsTrimWouldNotReachOverIsTold() {
        // A floor of 1990 x 790 that keeps 5 off a wall, under a skirting 8 thick: pieces cut by a reading that is 4
        // short leave 9. Under one of 12 nothing would be seen.
        Job job = jobWith(test::rectangle(1990, 790), plankProduct(1000, 200, 9, 4000), {{"gap", 5}});
        Surface wall;
        wall.id = wall.name = "wall";
        wall.kind = SurfaceKind::LeftWall;
        wall.measurement = test::rectangle(1990, 600);
        job.surfaces.push_back(wall);
        meet(job.surfaces, "floor", 2, "wall", 0);
        const auto skirting = [&](double thick) {
            Product p;
            p.id = "skirting";
            p.name = "Skirting";
            p.family = "trim";
            p.fields = {{"profile", static_cast<double>(Profile::Skirting)}, {"width", thick}, {"thickness", thick}};
            std::erase_if(job.catalogue.products, [](const Product& q) { return q.id == "skirting"; });
            job.catalogue.products.push_back(p);
        };
        const auto told = [&]() -> std::optional<Remark> {
            for (const CostlyReading& c : costlyReadings(job))
                if (c.surface == "floor" && c.key == "BC" && c.brings && c.off.value > 0) return c.brings;
            return std::nullopt;
        };
        skirting(8);
        const auto remark = told();
        QVERIFY(remark && remark->kind == RemarkKind::GapBeyondTrim && remark->place.index == 2);
        for (const auto& [name, value] : remark->facts) {
            if (name == "gap") QCOMPARE(std::get<Mm>(value).value, 9.0);
            if (name == "limit") QCOMPARE(std::get<Mm>(value).value, 8.0);
        }
        skirting(12);
        QVERIFY(!told());
        // Planned wider than it reaches it is told by the plan itself.
        skirting(4);
        const Plan made = plan(job);
        QVERIFY(std::any_of(made.remarks.begin(), made.remarks.end(),
                            [](const Remark& r) { return r.kind == RemarkKind::GapBeyondTrim; }));
    }

    void stoppedItSaysNothing() {
        std::stop_source stop;
        stop.request_stop();
        QVERIFY(costlyReadings(jobWith(test::rectangle(2000, 800), plankProduct(1000, 200, 4, 4000), {{"gap", 0}}),
                               stop.get_token())
                    .empty());
    }
};
WESTRUM_TEST(TakeAgainTest)
#include "take_again_test.moc"
