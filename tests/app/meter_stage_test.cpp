#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/stages/measure/measure_page.h"
#include "devices/simulated_meter.h"
#include "tests/app/bench.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

/// Readings taken by the meter in the real window.
class MeterStageTest : public QObject {
    Q_OBJECT

    static QString says(Bench& b) { return b.find<QLabel>("meterSays") ? b.text("meterSays") : QString(); }
    static const Measurement& floor(Bench& b) { return b.document.job().surface("floor")->measurement; }

private slots:
    void spaceFillsTheDimensionAndGoesOn() {
        SimulatedMeter sim;
        const QString name = QStringLiteral("westrum-stage-%1").arg(QCoreApplication::applicationPid());
        QVERIFY(sim.listen(name));
        Bench b(newJob("New van", "Floor", starterCatalogue(), Currency{}));
        b.go(MainWindow::Measure);
        QVERIFY(b.click("joinMeter"));
        auto* socket = b.find<QLineEdit>("meterSocket");
        socket->setText(QStringLiteral("nobody-there"));
        QTest::keyClick(socket, Qt::Key_Return);
        QVERIFY(QTest::qWaitFor([&] { return says(b).contains(QStringLiteral("No meter answers")); }));
        socket->setText(name);
        QTest::keyClick(socket, Qt::Key_Return);
        QVERIFY(QTest::qWaitFor([&] { return b.find<QPushButton>("takeReading") != nullptr; }));

        sim.setTrueLength({3640});
        auto* a = b.find<EntryField>("reading-a");
        a->setFocus();
        QTest::keyClick(a, Qt::Key_Space);
        QVERIFY(QTest::qWaitFor([&] { return floor(b).readings[0].has_value(); }));
        QCOMPARE(floor(b).readings[0]->length.value, 3640.0);
        QVERIFY(b.find<EntryField>("reading-b")->hasFocus()); // on to the next
        QCOMPARE(plain(b.document.undoStack().undoText()), QStringLiteral("Take a reading"));

        // Three readings: the middle one, and how far they lie apart.
        b.find<QCheckBox>("threeReadings")->setChecked(true);
        for (const double mm : {1785.0, 1850.0, 1786.0}) {
            sim.setTrueLength({mm});
            QVERIFY(!floor(b).readings[1].has_value());
            const QString before = says(b);
            QTest::keyClick(b.find<EntryField>("reading-b"), Qt::Key_Space);
            QVERIFY(QTest::qWaitFor([&] { return says(b) != before && !says(b).contains(QStringLiteral("…")); }));
        }
        QVERIFY(QTest::qWaitFor([&] { return floor(b).readings[1].has_value(); }));
        QCOMPARE(floor(b).readings[1]->length.value, 1786.0);
        QVERIFY2(says(b).contains(QStringLiteral("within 65 mm")), qPrintable(says(b)));

        // A meter that fails changes nothing.
        b.find<QCheckBox>("threeReadings")->setChecked(false);
        const Job before = b.document.job();
        for (const auto& [mood, answer] : {std::pair{MeterMood::Weak, "too weak"},
                                           {MeterMood::Garbage, "not understood"},
                                           {MeterMood::Drop, "went away"}}) {
            sim.setMood(mood);
            a->setFocus();
            QTest::keyClick(a, Qt::Key_Space);
            QVERIFY2(QTest::qWaitFor([&] { return says(b).contains(QString::fromUtf8(answer)); }), answer);
            QVERIFY(b.document.job() == before);
        }
        QVERIFY(QTest::qWaitFor([&] { return !b.find<QPushButton>("takeReading"); })); // it is gone
    }
};
WESTRUM_TEST(MeterStageTest)

#include "meter_stage_test.moc"
