#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/record_commands.h"
#include "app/stages/log/log_page.h"
#include "formats/demo.h"
#include "tests/app/bench.h"
#include "tests/support/registry.h"

#include <QComboBox>
#include <QLineEdit>
#include <QScrollBar>

using namespace westrum;
using namespace westrum::test;

/// Log in the window: what happened, what it teaches.
class LogStageTest : public QObject {
    Q_OBJECT
    static LogPage& page(Bench& b) { return *b.window->findChild<LogPage*>(); }
    static void what(Bench& b, EntryKind kind) {
        auto* box = b.find<QComboBox>("entryKind");
        box->setCurrentIndex(box->findData(static_cast<int>(kind)));
        QCoreApplication::processEvents();
    }

private slots:
    void ticksStandInTheRecord() {
        Bench b(demoJob());
        b.document.setNow(demoNow());
        b.document.setCurrentSurface("ceiling");
        push(b.document, tickStep(b.document, "ceiling", "insulation/fit", true));
        QVERIFY(settlePlan(b.document));
        b.go(MainWindow::Log);
        QCOMPARE(page(b).entries().model().rowCount(), 1);
        const QString text = plain(page(b).entries().model().index(0, 2).data().toString());
        QVERIFY2(text.startsWith(QStringLiteral("Ceiling: Fit the insulation")), qPrintable(text));
        QVERIFY(text.contains(QStringLiteral("planned")));
    }

    void whatHappensIsWrittenAndStruck() {
        Bench b(demoJob());
        b.document.setNow(demoNow());
        b.document.setCurrentSurface("left-upper");
        b.go(MainWindow::Log);
        what(b, EntryKind::Difference);
        QTest::keyClicks(b.find<QLineEdit>("entryAmount"), QStringLiteral("6"));
        QTest::keyClicks(b.find<QLineEdit>("entryText"), QStringLiteral("at the pillar"));
        QVERIFY(b.click("writeEntry"));
        const RecordEntry e = b.document.job().record.back();
        QVERIFY(e.kind == EntryKind::Difference && e.by == Mm{6} && e.text == "at the pillar" &&
                e.surface == "left-upper");
        // Of a piece it wants its name.
        what(b, EntryKind::Difference);
        auto* about = b.find<QComboBox>("entryReading");
        about->setCurrentIndex(1);
        QTest::keyClicks(b.find<QLineEdit>("entryAmount"), QStringLiteral("2"));
        QVERIFY(b.click("writeEntry"));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("Which piece")));
        QTest::keyClicks(b.find<QLineEdit>("entryText"), QStringLiteral("P1"));
        QVERIFY(b.click("writeEntry"));
        QVERIFY(b.document.job().record.back().piece == "P1" && b.document.job().record.back().step.empty());
        b.document.undoStack().undo();
        // A tin that set hard is not one that was emptied.
        what(b, EntryKind::ThrownAway);
        QVERIFY(b.find<QComboBox>("entryProduct"));
        QTest::keyClicks(b.find<QLineEdit>("entryAmount"), QStringLiteral("0.5"));
        QVERIFY(b.click("writeEntry"));
        QVERIFY(b.document.job().record.back().kind == EntryKind::ThrownAway &&
                b.document.job().record.back().amount == 0.5);
        b.document.undoStack().undo();
        QVERIFY(settlePlan(b.document));
        what(b, EntryKind::Climate);
        QTest::keyClicks(b.find<QLineEdit>("entryAmount"), QStringLiteral("warm"));
        QVERIFY(b.click("writeEntry"));
        QCOMPARE(b.document.job().record.size(), std::size_t{1}); // refused, and what was typed stands there still
        QCOMPARE(b.find<QLineEdit>("entryAmount")->text(), QStringLiteral("warm"));
        b.find<QLineEdit>("entryAmount")->setText(QStringLiteral("18.5"));
        QTest::keyClicks(b.find<QLineEdit>("entryText"), QStringLiteral("61"));
        QVERIFY(b.click("writeEntry"));
        QCOMPARE(b.document.job().record.back().humidity, std::optional(61.0));
        what(b, EntryKind::PieceSpoilt);
        QVERIFY(b.click("writeEntry"));
        QVERIFY2(b.sentenceShown().contains(QStringLiteral("cut again")) ||
                     b.sentenceShown().contains(QStringLiteral("must be bought")),
                 qPrintable(b.sentenceShown()));
        QCOMPARE(page(b).entries().model().rowCount(), 3);
        page(b).entries().list().setCurrentIndex(page(b).entries().model().index(0, 0));
        QVERIFY(b.click("strikeEntry"));
        QCOMPARE(b.document.job().record.size(), std::size_t{2});
        QTest::keyClick(b.window.get(), Qt::Key_Z, Qt::ControlModifier);
        QCOMPARE(b.document.job().record.size(), std::size_t{3});
    }

    void itIsFilteredByWhatIsInHand() {
        Bench b(demoJobUnderWay());
        b.document.setNow(demoUnderWayNow());
        b.document.setCurrentSurface("ceiling");
        b.go(MainWindow::Log);
        const int all = page(b).entries().model().rowCount();
        QCOMPARE(static_cast<std::size_t>(all), b.document.job().record.size());
        QVERIFY(b.click("entriesHere"));
        const int here = page(b).entries().model().rowCount();
        QVERIFY(here > 5 && here < all);
        auto* filter = b.find<QComboBox>("entryFilter");
        filter->setCurrentIndex(filter->findData(static_cast<int>(EntryKind::PieceSpoilt)));
        QCOMPARE(page(b).entries().model().rowCount(), 2);
    }

    void ratesAreOfferedTakenAndLeft() {
        Bench b(demoJobUnderWay());
        b.document.setNow(demoUnderWayNow());
        b.go(MainWindow::Log);
        QVERIFY(b.click("logLearned"));
        const std::size_t offered = page(b).learned().offers().size();
        QVERIFY(offered >= 3);
        QVERIFY(inkOn(b.find<QWidget>("spread")) > 0.01);
        QVERIFY(inkOn(page(b).findChild<PlannedBars*>()) > 0.02);
        const double before = b.document.job().spoilChance;
        QVERIFY(b.click("take-spoils"));
        QVERIFY(b.document.job().spoilChance > before);
        b.document.undoStack().undo();
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.document.job().spoilChance, before);
        QVERIFY(b.click("refuse-spoils"));
        QCOMPARE(page(b).learned().offers().size(), offered - 1);
        QVERIFY(b.click("offerAgain"));
        QCOMPARE(page(b).learned().offers().size(), offered);
    }

    /// Fifty thousand entries: the list is there, and scrolls.
    void fiftyThousandEntries() {
        Job job = demoJob();
        for (int i = 0; i < 50000; ++i)
            job.record.push_back({.id = i + 1,
                                  .kind = EntryKind::Note,
                                  .when = {CivilDate{2027, 1, 1} + i / 200, i % 1440, i % 1440},
                                  .text = "n"});
        Bench b(job);
        b.go(MainWindow::Log);
        QCOMPARE(page(b).entries().model().rowCount(), 50000);
        auto* bar = page(b).entries().list().verticalScrollBar();
        bar->setValue(bar->maximum());
        QCoreApplication::processEvents();
        QVERIFY(page(b).entries().list().indexAt({10, 10}).row() > 49000);
    }

    /// The newest day lies above the list, hour by hour; a press on it takes an entry in hand, and the other way round.
    void aDayIsAStripOfHours() {
        Bench b(demoJobUnderWay());
        b.document.setNow(demoUnderWayNow());
        b.go(MainWindow::Log);
        auto* strip = b.find<DayStrip>("dayStrip");
        QVERIFY(strip && inkOn(strip) > 0.05);
        EntriesView& entries = page(b).entries();
        const RecordEntry first = *entries.model().entry(0), second = *entries.model().entry(1);
        QVERIFY(first.when.day == second.when.day);
        entries.list().selectRow(0);
        const auto spot = strip->spotOf(second.id);
        QVERIFY(spot && strip->rect().contains(spot->toPoint()));
        QTest::mouseClick(strip, Qt::LeftButton, {}, spot->toPoint());
        QCOMPARE(entries.list().currentIndex().row(), 1);
        // Another day taken in hand: that day lies there now.
        for (int row = 0; row < entries.model().rowCount(); ++row)
            if (entries.model().entry(row)->when.day != first.when.day) {
                entries.list().selectRow(row);
                QVERIFY(strip->spotOf(entries.model().entry(row)->id) && !strip->spotOf(first.id));
                return;
            }
        QFAIL("the example has more days than one");
    }

    /// The clock was set back: what was written later stands where its own time says, and nothing is lost.
    void aClockSetBackLosesNothing() {
        Bench b(demoJob());
        const auto at = [](int day, int minute) { return WorkedTime{{2027, 3, day}, minute, minute}; };
        push(b.document,
             addEntries(b.document,
                        {{.kind = EntryKind::Note, .when = at(20, 900), .text = "later"},
                         {.kind = EntryKind::Note, .when = at(13, 500), .surface = "gone", .text = "earlier"}}));
        b.go(MainWindow::Log);
        EntriesView& entries = page(b).entries();
        QCOMPARE(entries.model().rowCount(), 2);
        QCOMPARE(entries.model().entry(0)->text, std::string("later"));
        entries.list().selectRow(1); // of a surface that is not there any more
        QCOMPARE(entries.model().entry(entries.list().currentIndex().row())->text, std::string("earlier"));
    }
};
WESTRUM_TEST(LogStageTest)
#include "log_stage_test.moc"
