#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/cutting/effort.h"
#include "tests/support/registry.h"

using namespace westrum;

class EffortTest : public QObject {
    Q_OBJECT

private slots:
    void eitherLimitAloneEndsIt() {
        const Effort timed{.timeSpent = [] { return 0.25; }};
        QCOMPARE(timed.spent(1000000), 0.25);
        const Effort counted{.iterations = 200};
        QCOMPARE(counted.spent(50), 0.25);
        QVERIFY(counted.spent(200) >= 1);
        QVERIFY(Effort::first(1).spent(0) >= 1);
    }

    // 4000 moves take a second; how long the machine took over the first ten must not show in the answer.
    void ofTwoLimitsTheTimeCountsLate() {
        double gone = 0.013;
        const Effort both{.iterations = 4000, .timeSpent = [&gone] { return gone; }};
        QCOMPARE(both.spent(0), 0.0);
        QCOMPARE(both.spent(10), 0.0025);
        gone = 0.4;
        QCOMPARE(both.spent(2000), 0.5);
        QCOMPARE(both.spent(400), 0.4);
        gone = 1;
        QVERIFY(both.spent(2000) >= 1);
    }

    void aStopEndsIt() {
        std::stop_source stop;
        const Effort effort{.iterations = 4000, .stop = stop.get_token()};
        QCOMPARE(effort.spent(40), 0.01);
        stop.request_stop();
        QVERIFY(effort.spent(40) >= 1);
    }
};

WESTRUM_TEST(EffortTest)
#include "effort_test.moc"
