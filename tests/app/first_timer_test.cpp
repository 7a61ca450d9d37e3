#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "tests/app/bench.h"
#include "tests/support/registry.h"

#include <QMenu>

using namespace westrum;
using namespace westrum::test;

/// From an empty window to a shopping list for one floor, by keys and clicks only.
class FirstTimerTest : public QObject {
    Q_OBJECT
private slots:
    void fromAnEmptyWindowToAShoppingList() {
        Bench b(newJob("New van", "Floor", starterCatalogue(), Currency{}));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("Type the length")));
        QVERIFY(!b.floor().measured.measured());
        QVERIFY(b.type("reading-a", "3 m + 20 cm"));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("side b")));
        QVERIFY(b.type("reading-b", "1,75 m"));
        QVERIFY(b.floor().measured.measured());
        QVERIFY(std::abs(areaMm2(b.floor().measured.outline) - 3200.0 * 1750) < 1);
        QVERIFY(b.sentenceShown().contains(QStringLiteral("The readings close")));

        b.go(MainWindow::SetOut);
        QVERIFY(settle(b.document));
        QVERIFY(b.floor().setOut().laid());
        QVERIFY(b.find<QPushButton>("doIt") != nullptr);
        const double before = b.floor().setOut().startOffset.value;
        if (b.find<QPushButton>("doIt")->isEnabled()) {
            QVERIFY(b.click("doIt"));
            QVERIFY(b.floor().setOut().startOffset.value != before);
            QVERIFY(b.sentenceShown().contains(QStringLiteral("well placed")));
        }

        b.go(MainWindow::Buy);
        QTRY_VERIFY_WITH_TIMEOUT(b.sentenceShown().contains(QStringLiteral("short")), 60000);
        QVERIFY(!b.document.plan()->purchases.empty());
        // The tally says the same as the plan.
        QCOMPARE(b.figure("Cost").value, Figures{}.money(*b.document.plan()->totals.cost));
        QCOMPARE(b.figure("Added mass").value, Figures{}.mass(b.document.plan()->totals.laidMass));
        QVERIFY(b.figure("Cost").madeOf.size() ==
                4); // planks, underlay, the skirting that closes the edges, what holds it
    }

    void everyStageCanBeEnteredWithNothingMeasured() {
        Bench b(newJob("New van", "Floor", starterCatalogue(), Currency{}));
        for (int stage = MainWindow::Measure; stage <= MainWindow::Log; ++stage) {
            b.go(static_cast<MainWindow::Stage>(stage));
            QVERIFY2(!b.sentenceShown().isEmpty(), qPrintable(QString::number(stage))); // empty states say what to do
            QVERIFY(inkOn(b.window.get()) > 0.01);
        }
        QCOMPARE(b.figure("Cost").value, QStringLiteral("–"));
    }

    void everythingCanBeTakenBack() {
        Bench b(newJob("New van", "Floor", starterCatalogue(), Currency{}));
        const Job empty = b.document.job();
        QVERIFY(b.type("reading-a", "3200"));
        QVERIFY(b.type("reading-b", "1750"));
        QVERIFY(b.click("addNotch"));
        b.go(MainWindow::SetOut);
        QComboBox* product = b.find<QComboBox>("product");
        QVERIFY(product);
        product->setFocus();
        QTest::keyClick(product, Qt::Key_Down);
        QVERIFY(settlePlan(b.document));
        int steps = 0;
        for (; b.document.undoStack().canUndo() && steps < 50; ++steps) {
            QVERIFY(!plain(b.document.undoStack().undoText()).isEmpty());
            QTest::keyClick(b.window.get(), Qt::Key_Z, Qt::ControlModifier);
        }
        QVERIFY(steps >= 3);
        QVERIFY(b.document.job() == empty);
        QVERIFY(settlePlan(b.document));
        QVERIFY(!b.floor().measured.measured());
    }
};
WESTRUM_TEST(FirstTimerTest)

#include "first_timer_test.moc"
