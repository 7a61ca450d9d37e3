#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "tests/app/bench.h"
#include "tests/support/demo_floor.h"
#include "tests/support/registry.h"

#include <QCheckBox>
#include <QPlainTextEdit>

using namespace westrum;
using namespace westrum::test;

class FitAndLogTest : public QObject {
    Q_OBJECT
private slots:
    void stepsAreTickedAndStayTicked() {
        Bench b(demoFloor());
        b.go(MainWindow::Fit);
        QVERIFY(b.click("fitSurface"));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("Check the delivery")));
        auto* tick = b.find<QCheckBox>("tick-delivery");
        QVERIFY(tick);
        tick->click();
        QVERIFY(b.document.job().log("floor").done.contains("delivery"));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("Let the packs rest")));
        b.go(MainWindow::Measure);
        b.go(MainWindow::Fit);
        QVERIFY(b.find<QCheckBox>("tick-delivery")->isChecked());
        QTest::keyClick(b.window.get(), Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(!b.find<QCheckBox>("tick-delivery")->isChecked());
    }

    void whatIsTickedIsFittedOnTheScales() {
        Bench b(demoFloor());
        QCOMPARE(b.document.plan()->balance.fitted.value, 0.0);
        const auto& parts = b.document.plan()->balance.surfaces;
        const auto floor =
            std::find_if(parts.begin(), parts.end(), [](const SurfaceMass& m) { return m.surface == "floor"; });
        QVERIFY(floor != parts.end());
        const double all = floor->mass.value;
        const std::vector<FitStep> steps = b.floor().steps; // the plan is another one after each tick
        for (const FitStep& step : steps) push(b.document, tickStep(b.document, "floor", step.key, true));
        QVERIFY(settlePlan(b.document));
        QVERIFY(all > 10);
        QVERIFY(std::abs(b.document.plan()->balance.fitted.value - all) < 1e-6);
    }

    void theStepsFollowThePlan() {
        Bench b(demoFloor());
        b.go(MainWindow::Fit);
        QVERIFY(b.click("fitSurface"));
        QVERIFY(b.labels().contains(QStringLiteral("Full width")));
        push(b.document, moveStartLine(b.document, "floor", {14}, 1));
        QVERIFY(settlePlan(b.document));
        QCoreApplication::processEvents();
        QVERIFY(b.labels().contains(QStringLiteral("Rip to 167 mm (take 14 mm off")));
        // The cautions stand with their steps.
        QVERIFY(b.labels().contains(QStringLiteral("Guard on")));
    }

    void theLogStandsBesideThePlan() {
        Bench b(demoFloor());
        b.go(MainWindow::Log);
        QVERIFY(b.click("logSurface"));
        const int planned = b.document.plan()->purchases[0].unitsNeeded;
        QVERIFY(b.type("opened", QByteArray::number(planned + 2).constData()));
        QCOMPARE(b.document.job().log("floor").opened, std::optional<int>(planned + 2));
        bool told = false;
        for (QLabel* label : b.window->findChildren<QLabel*>())
            told = told || plain(label->text()) == QStringLiteral("2 more than planned");
        QVERIFY(told);
        QVERIFY(b.type("hours", "6,5"));
        QCOMPARE(b.document.job().log("floor").hours, std::optional<double>(6.5));
        QVERIFY(b.type("paid", "150"));
        QCOMPARE(b.document.job().log("floor").paid->minor, 15000);
        // Planks and underlay of this floor are planned at 131.70 and 24.90, whatever is cut for other surfaces.
        QVERIFY(settleCuts(b.document));
        QCoreApplication::processEvents();
        told = false;
        for (QLabel* label : b.window->findChildren<QLabel*>())
            told = told || plain(label->text()) == QStringLiteral("6.60 EUR less than planned");
        QVERIFY(told);
        QVERIFY(b.type("spoilt", "two"));
        QVERIFY(b.find<EntryField>("spoilt")->isWrong());
        QVERIFY(!b.document.job().log("floor").spoilt);
        QVERIFY(b.type("spoilt", "1.5"));
        QVERIFY(b.find<EntryField>("spoilt")->isWrong());
    }

    void notesAreKept() {
        Bench b(demoFloor());
        b.go(MainWindow::Log);
        QVERIFY(b.click("logSurface"));
        auto* note = b.find<QPlainTextEdit>("note");
        note->setFocus();
        QTest::keyClicks(note, QStringLiteral("lot 7"));
        QVERIFY(QTest::qWaitFor([&] { return b.document.job().log("floor").note == "lot 7"; }, 5000));
    }

    void adhesiveIsLaidInBaysAtOnesOwnSpeed() {
        Bench b(demoJob());
        b.document.setCurrentSurface("left-lower");
        b.go(MainWindow::Fit);
        QVERIFY(b.click("fitSurface"));
        (void)settlePlan(b.document);
        const auto bays = [&] {
            const SurfacePlan* s = b.document.plan()->surface("left-lower");
            return s->layerOf("adhesive")->take.bays->count;
        };
        const int before = bays();
        QVERIFY(before >= 1);
        QVERIFY(b.type("spreadPace", "0.2")); // three times as slow: more bays
        QVERIFY(bays() > before);
        QVERIFY(b.find<QWidget>("bays") && inkOn(b.find<QWidget>("bays")) > 0.02);
        (void)b.type("closePace", "0");
        QVERIFY(b.sentenceShown().contains(QStringLiteral("between 0.01 and 50")));
        QCOMPARE(b.document.job().closeM2PerMinute, 1.5);
        QTest::keyClick(b.find<EntryField>("closePace"), Qt::Key_Escape);
        b.document.undoStack().undo();
        (void)settlePlan(b.document);
        QCOMPARE(bays(), before);
    }
};
WESTRUM_TEST(FitAndLogTest)

#include "fit_and_log_test.moc"
