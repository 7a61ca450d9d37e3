#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/shell_commands.h"
#include "app/stages/setout/set_out_bench.h"
#include "app/stages/setout/start_strip.h"
#include "app/widgets/tally_strip.h"
#include "tests/app/bench.h"
#include "tests/support/demo_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <QCheckBox>

using namespace westrum;
using namespace westrum::test;

class SetOutStageTest : public QObject {
    Q_OBJECT
private slots:
    void startsFollowASidesOwnGap() {
        Bench b(demoFloor());
        b.go(MainWindow::SetOut);
        QVERIFY(settle(b.document));
        const auto lastRowAt = [&](double offset) {
            for (const StartChoice& c : b.document.starts()->choices)
                if (c.onStrip && c.startOffset.value == offset) return c.lastRow.value;
            return -1.0;
        };
        const double before = lastRowAt(0);
        QCOMPARE(before, b.floor().setOut().lastRow.value);
        for (const int side : {0, 2}) {
            Edge e = b.document.job().surfaces[0].edge(side);
            e.kind = EdgeKind::MovementGap;
            e.allowance = Reading{"60", {60}};
            push(b.document, describeEdge(b.document, "floor", side, e));
        }
        QVERIFY(settle(b.document));
        // 55 mm less at either side: the last row is 110 mm narrower, on the floor and on the strip.
        QVERIFY(std::abs(b.floor().setOut().lastRow.value - (before - 110)) < 0.5);
        QCOMPARE(lastRowAt(0), b.floor().setOut().lastRow.value);
    }

    void aBudgetLeavesTheStartLinesAsTheyAre() {
        Bench b(demoFloor());
        b.go(MainWindow::SetOut);
        QVERIFY(settle(b.document));
        const auto before = b.document.starts();
        push(b.document, setBudget(b.document, Money{50000, {}}));
        QVERIFY(settle(b.document));
        QCOMPARE(b.document.starts().get(), before.get()); // the very same, not found again
    }

    void aRemarkIsSettledByTheButtonBesideIt() {
        Job job = demoFloor();
        job.finishes["floor"].now().layers.back().rules["gap"] = 3; // the product asks for 5
        Bench b(std::move(job));
        b.go(MainWindow::SetOut);
        QVERIFY(settle(b.document));
        const auto told = [&] {
            const auto& all = b.document.plan()->remarks;
            return std::find_if(all.begin(), all.end(),
                                [](const Remark& r) { return r.kind == RemarkKind::GapBelowProduct; });
        };
        QVERIFY(told() != b.document.plan()->remarks.end());
        QCOMPARE(plain(fixText(b.document.job(), *told(), {})).replace(QChar(0x202F), QLatin1Char(' ')),
                 QStringLiteral("Movement gap 5 mm"));
        auto* tally = b.window->findChild<TallyStrip*>();
        tally->setFocus();
        for (int i = 0; i < 9; ++i) QTest::keyClick(tally, Qt::Key_Right); // the last figure: remarks
        QTest::keyClick(tally, Qt::Key_Return);
        auto* popup = tally->findChild<QFrame*>(QStringLiteral("madeOf"));
        QVERIFY(popup);
        auto* fix = popup->findChild<QPushButton*>(QStringLiteral("fix"));
        QVERIFY(fix);
        const int steps = b.document.undoStack().index();
        QTest::mouseClick(fix, Qt::LeftButton);
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.document.undoStack().index(), steps + 1);
        QCOMPARE(b.document.job().face("floor")->rules.at("gap"), 5.0);
        QVERIFY(told() == b.document.plan()->remarks.end());
    }

    void theStartLineIsDraggedAndEverythingFollows() {
        Bench b(demoFloor());
        b.window->resize(1700, 900); // every sentence above the bench has one line, whatever the language
        b.go(MainWindow::SetOut);
        QVERIFY(settle(b.document)); // the sentence above the bench is the one that stays
        auto* bench = b.window->findChild<SetOutBench*>();
        const QPoint handle = bench->startHandle().toPoint();
        const double before = b.floor().setOut().firstRow.value;
        QTest::mousePress(bench, Qt::LeftButton, {}, handle);
        for (int dy = 1; dy <= 12; ++dy) {
            QMouseEvent move(QEvent::MouseMove, handle + QPoint(0, dy), bench->mapToGlobal(handle + QPoint(0, dy)),
                             Qt::LeftButton, Qt::LeftButton, {});
            QCoreApplication::sendEvent(bench, &move);
        }
        QTest::mouseRelease(bench, Qt::LeftButton, {}, handle + QPoint(0, 12));
        QVERIFY(settlePlan(b.document));
        QVERIFY(b.floor().setOut().firstRow.value < before);
        QCOMPARE(b.document.undoStack().count(), 1);
        // The handle went with the line.
        QVERIFY(std::abs(bench->startHandle().y() - handle.y() - 12) < 3);
        QTest::keyClick(b.window.get(), Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.floor().setOut().firstRow.value, before);
    }

    void theStartLineIsNudgedByKeys() {
        Bench b(demoFloor());
        b.go(MainWindow::SetOut);
        auto* bench = b.window->findChild<SetOutBench*>();
        bench->setFocus();
        QTest::keyClick(bench, Qt::Key_Down);
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.floor().setOut().startOffset.value, 1.0);
        QTest::keyClick(bench, Qt::Key_Down, Qt::ShiftModifier);
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.floor().setOut().startOffset.value, 11.0);
        QTest::keyClick(bench, Qt::Key_Up, Qt::ShiftModifier);
        QTest::keyClick(bench, Qt::Key_Up);
        QTest::keyClick(bench, Qt::Key_Up); // not beyond a full first row
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.floor().setOut().startOffset.value, 0.0);
    }

    void theStripIsItselfTheControl() {
        Bench b(demoFloor());
        b.go(MainWindow::SetOut);
        QVERIFY(settle(b.document));
        auto* strip = b.window->findChild<StartStrip*>();
        QTest::mouseClick(strip, Qt::LeftButton, {}, QPoint(strip->width() / 2, strip->height() / 2));
        QVERIFY(settlePlan(b.document));
        const double there = b.floor().setOut().startOffset.value;
        QVERIFY2(std::abs(there - 90) <= 2, qPrintable(QString::number(there))); // the middle of 0 .. 180
        // What the strip says of this start is what the plan has.
        const auto& choice = b.document.starts()->choices[static_cast<std::size_t>(there)];
        QCOMPARE(choice.stock, static_cast<int>(b.floor().setOut().stock.size()));
        QCOMPARE(choice.firstRow.value, b.floor().setOut().firstRow.value);
        strip->setFocus();
        QTest::keyClick(strip, Qt::Key_Left, Qt::ShiftModifier);
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.floor().setOut().startOffset.value, there - 10);
    }

    void theTallyShowsTheChange() {
        Bench b(demoFloor());
        b.go(MainWindow::SetOut);
        QVERIFY(settleCuts(b.document)); // what the trims cost is in the figure already
        push(b.document, chooseUnderlay(b.document, "floor", ""));
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.figure("Cost").change, QStringLiteral("−24.90")); // the roll of underlay
        QVERIFY(b.figure("Added mass").change.startsWith(QStringLiteral("−")));
    }

    void productsAreEditedInPlaceAndBadFiguresAnswered() {
        Bench b(demoFloor());
        b.go(MainWindow::SetOut);
        QVERIFY(b.click("editProduct"));
        QVERIFY(b.type("field-perPack", "12"));
        QCOMPARE(b.document.job().catalogue.products[0].fields.at("perPack"), 12.0);
        QVERIFY(b.type("field-perPack", "0"));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("must lie between 1 and")));
        QCOMPARE(b.document.job().catalogue.products[0].fields.at("perPack"), 12.0);
        QTest::keyClick(b.find<EntryField>("field-perPack"), Qt::Key_Escape);
        QVERIFY(b.type("field-width", "1900"));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("must lie between")));
        QTest::keyClick(b.find<EntryField>("field-width"), Qt::Key_Escape);
        QVERIFY(b.type("field-width", "900"));
        QVERIFY(b.floor().setOut().laid());
        QVERIFY(b.type("price", ""));
        QVERIFY(!b.document.job().catalogue.products[0].packPrice);
        QCOMPARE(b.figure("Cost").value, QStringLiteral("price missing"));
        QVERIFY(b.type("price", "49,90"));
        QCOMPARE(b.document.job().catalogue.products[0].packPrice->minor, 4990);
    }

    void theRulesAreChangedInPlace() {
        Bench b(demoFloor());
        b.go(MainWindow::SetOut);
        QVERIFY(b.click("editRules"));
        auto* direction = b.find<QComboBox>("field-direction");
        QVERIFY(direction);
        direction->setFocus();
        QTest::keyClick(direction, Qt::Key_Down);
        QVERIFY(settlePlan(b.document));
        QVERIFY(b.floor().setOut().rowsAcross);
        QVERIFY(b.type("field-gap", "8"));
        QCOMPARE(b.document.job().face("floor")->rules.at("gap"), 8.0);
        auto* rip = b.find<QCheckBox>("field-ripReuse");
        rip->click();
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.document.job().face("floor")->rules.at("ripReuse"), 0.0);
        QVERIFY(inkOn(b.window->findChild<SetOutBench*>()) > 0.1); // rows across are drawn too
        // The line of rows across is dragged sideways.
        auto* bench = b.window->findChild<SetOutBench*>();
        const QPoint handle = bench->startHandle().toPoint();
        QTest::mousePress(bench, Qt::LeftButton, {}, handle);
        QMouseEvent move(QEvent::MouseMove, handle - QPoint(8, 0), bench->mapToGlobal(handle - QPoint(8, 0)),
                         Qt::LeftButton, Qt::LeftButton, {});
        QCoreApplication::sendEvent(bench, &move);
        QTest::mouseRelease(bench, Qt::LeftButton, {}, handle - QPoint(8, 0));
        QVERIFY(settlePlan(b.document));
        QVERIFY(b.floor().setOut().startOffset.value > 0);
    }

    void aTrimIsChosenAndItsRunsAreCut() {
        Bench b(newJob("One floor", "Floor", starterCatalogue(), Currency{}));
        push(b.document, takeReading(b.document, "floor", "AB", mm(3000)));
        push(b.document, takeReading(b.document, "floor", "BC", mm(1700)));
        push(b.document, chooseOutlineForm(b.document, "floor", OutlineForm::Rectangle));
        QVERIFY(settlePlan(b.document));
        b.go(MainWindow::SetOut);
        auto* trim = b.find<QComboBox>("trim");
        QVERIFY(trim && plain(trim->currentText()) == QStringLiteral("trims by rule"));
        const int strip = trim->findData(QStringLiteral("rail-oak"));
        trim->setCurrentIndex(strip);
        emit trim->activated(strip);
        QVERIFY(settleCuts(b.document));
        QCOMPARE(b.document.job().finish("floor").trim, std::string("rail-oak"));
        // Two sides of 3000 in two pieces each, two ends of 1700.
        const auto cut = b.document.cutting().state("rail-oak").cut;
        QVERIFY(cut);
        QCOMPARE(cut->pieces.size(), 6UL);
        double total = 0;
        for (const CutPiece& p : cut->pieces) total += p.lengthMm();
        QCOMPARE(total, 2 * 3000 + 2 * 1700.0 + 2 * 5); // a scarf takes the strip's 5 mm twice
    }
};
WESTRUM_TEST(SetOutStageTest)

#include "set_out_stage_test.moc"
