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
