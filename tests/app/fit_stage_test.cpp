#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/work_commands.h"
#include "app/print/work_print.h"
#include "app/stages/fit/fit_page.h"
#include "app/stages/fit/place_ticks.h"
#include "formats/work_words.h"
#include "tests/app/bench.h"
#include "tests/support/demo_floor.h"
#include "tests/support/registry.h"

#include <QCheckBox>
#include <QScrollBar>

using namespace westrum;
using namespace westrum::test;

namespace {

/// The window with the example at Fit, its work planned.
class FitBench : public Bench {
public:
    explicit FitBench(Job job = demoJob()) : Bench(std::move(job)) {
        document.setNow(demoNow());
        (void)settleCuts(document); // what is bought decides what is fetched
        go(MainWindow::Fit);
        (void)settleWork();
    }
    bool settleWork() {
        if (!settlePlan(document)) return false;
        QCoreApplication::processEvents();
        document.askWork();
        const bool done = QTest::qWaitFor([&] { return document.isWorkSettled(); }, 60000);
        QCoreApplication::processEvents();
        return done;
    }
    FitPage& page() { return *window->findChild<FitPage*>(); }
    WorkStrip& strip() { return page().van().strip(); }
    int item(const char* id) { return document.work()->question.net.find(id); }
    CivilDate dayOf(const char* id) {
        const WorkPlan& p = document.work()->plan;
        return p.clock.moment(p.parts(item(id)).front().start).day;
    }
    /// Drags a piece of work to the middle of a day, and lets it go.
    bool drag(const char* id, const CivilDate& to, QString* whileDragging = nullptr) {
        strip().reveal(item(id));
        const QRectF bar = strip().barOf(item(id));
        if (bar.isNull()) return false;
        const QPoint from = QPointF(bar.left() + 2, bar.center().y()).toPoint();
        const QPoint at(strip().dayBox(to).center().toPoint().x(), from.y());
        QWidget* on = strip().viewport();
        QTest::mousePress(on, Qt::LeftButton, {}, from);
        for (const int share : {40, 100}) { // a drag is many small moves
            const QPoint p = from + (at - from) * share / 100;
            QMouseEvent move(QEvent::MouseMove, p, on->mapToGlobal(p), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
            QCoreApplication::sendEvent(on, &move);
        }
        if (whileDragging) *whileDragging = sentenceShown();
        QTest::mouseRelease(on, Qt::LeftButton, {}, at);
        return settleWork();
    }
};

} // namespace

/// Fit in the window: the strip of days, today, the surface's list, days and rules.
class FitStageTest : public QObject {
    Q_OBJECT
private slots:
    void theWholeVanIsPlannedFromItsFirstDay() {
        FitBench b;
        QVERIFY(b.document.isWorkSettled());
        QVERIFY(b.sentenceShown().contains(QStringLiteral("of work to go; as planned it is done on")));
        const WorkPlan& p = b.document.work()->plan;
        QVERIFY(p.schedule.unplaced.empty());
        QVERIFY(b.sentenceShown().contains(plain(dayText(*p.done()))));
        QVERIFY(inkOn(b.strip().viewport()) > 0.1);
        QVERIFY(inkOn(&b.page().van().curve()) > 0.02);
        // Every piece has a bar, on its own day.
        for (std::size_t i = 0; i < b.document.work()->question.net.items.size(); ++i) {
            if (b.document.work()->question.net.items[i].kind == WorkKind::Gate) continue;
            const QRectF bar = b.strip().barOf(static_cast<int>(i));
            QVERIFY(!bar.isNull());
            const CivilDate day = p.clock.moment(p.parts(static_cast<int>(i)).front().start).day;
            const QRectF box = b.strip().dayBox(day);
            QVERIFY(bar.left() >= box.left() - 1 && bar.left() <= box.right() + 1);
        }
    }

    /// Dragged a week on it stays there, what follows moves with it, and one step back undoes it.
    void aPieceIsDraggedToAnotherDay() {
        FitBench b;
        const char* id = "left-upper/insulation/fit";
        const CivilDate before = b.dayOf(id);
        CivilDate to = before;
        for (const WorkWindow& w : b.document.work()->plan.problem.windows) {
            const CivilDate day = b.document.work()->plan.clock.moment(w.start).day;
            if (dayNumber(day) >= dayNumber(before) + 10 && weekdayOf(day) >= 5) {
                to = day;
                break;
            }
        }
        QVERIFY(to > before);
        QString said;
        QVERIFY(b.drag(id, to, &said));
        QVERIFY2(said.contains(QStringLiteral("all is done by")), qPrintable(said));
        QVERIFY(b.document.job().work.pins.contains(id));
        QCOMPARE(b.dayOf(id), to);
        const auto covers = b.document.work()->plan.parts(b.item("left-upper/adhesive/spread"));
        QVERIFY(!covers.empty() && b.document.work()->plan.clock.moment(covers.front().start).day >= to);
        // Let go again by its button.
        b.strip().takeInHand(b.item(id));
        QVERIFY(b.click("letMove"));
        QVERIFY(!b.document.job().work.pins.contains(id));
        b.document.undoStack().undo();
        b.document.undoStack().undo();
        QVERIFY(b.settleWork());
        QCOMPARE(b.dayOf(id), before);
    }

    /// A drop that breaks a rule says which, and nothing moves.
    void aDropThatBreaksARuleSaysWhich() {
        FitBench b;
        const char* id = "left-upper/adhesive/spread"; // after the ceiling
        const CivilDate before = b.dayOf(id);
        QVERIFY(b.drag(id, {2027, 3, 14}));
        QVERIFY(b.document.job().work.pins.empty());
        QCOMPARE(b.dayOf(id), before);
        QVERIFY2(b.sentenceShown().contains(QStringLiteral("waits for")), qPrintable(b.sentenceShown()));
        // By keys: Shift and an arrow to the day before is refused as well, or moves it.
        b.strip().takeInHand(b.item("cut/birch-ply-6"));
        b.strip().setFocus();
        QTest::keyClick(&b.strip(), Qt::Key_Left);
        QVERIFY(b.strip().inHand() != b.item("cut/birch-ply-6"));
    }

    void aSchoolIsSwitchedAndSaysWhatItDoes() {
        FitBench b;
        QVERIFY(b.click("rulesNow"));
        const int floor = static_cast<int>(WorkRule::FloorBeforeWalls);
        const QByteArray name = "rule" + QByteArray::number(floor);
        QCOMPARE(plain(b.find<QPushButton>(name.constData())->text()), QStringLiteral("floor first"));
        QVERIFY(b.click(name.constData()));
        QVERIFY(b.settleWork());
        QCOMPARE(plain(b.find<QPushButton>(name.constData())->text()), QStringLiteral("floor last"));
        QVERIFY2(b.sentenceShown().startsWith(QStringLiteral("floor last: done by")), qPrintable(b.sentenceShown()));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("less work"))); // nobody covers the floor
        QVERIFY(b.document.work()->question.net.find("protect/floor") < 0);
    }

    /// A weekend that turns wet: nothing is sawn on it.
    void aWetWeekendMovesTheSawing() {
        FitBench b;
        const CivilDate before = b.dayOf("cut/birch-ply-6");
        Forecast wet = b.document.job().work.forecast;
        wet.days[before].dryChance = 0.05;
        push(b.document, takeForecast(b.document, wet));
        QVERIFY(b.settleWork());
        QVERIFY(!(b.dayOf("cut/birch-ply-6") == before));
        push(b.document, setWorkSite(b.document, {.tarpaulin = true}));
        QVERIFY(b.settleWork());
        QVERIFY(b.dayOf("cut/birch-ply-6") <= before);
    }

    void workIsTickedOnTheStripAndToday() {
        FitBench b;
        const char* id = "trip/Harbour Stores";
        b.strip().takeInHand(b.item(id));
        b.document.setNow(WorkClock::Moment{{2027, 3, 13}, 12 * 60});
        QVERIFY(b.click("workDone"));
        QVERIFY(b.document.job().work.done.contains(id));
        QVERIFY(b.settleWork());
        QCOMPARE(b.document.work()->question.net.items[static_cast<std::size_t>(b.item(id))].left, 0.0);
        QVERIFY(b.click("workDone")); // not after all
        QVERIFY(!b.document.job().work.done.contains(id));
        QVERIFY(b.settleWork());
        // Today: the first thing that can be done, ticked there.
        QVERIFY(b.click("fitToday"));
        const TodayPlan& today = b.page().today().plan();
        QVERIFY(!today.work.empty());
        const std::string first =
            b.document.work()->question.net.items[static_cast<std::size_t>(today.work[0].item)].id;
        auto* tick = b.find<QCheckBox>(("today-" + first).c_str());
        QVERIFY(tick);
        const std::size_t undo = static_cast<std::size_t>(b.document.undoStack().index());
        tick->click();
        QVERIFY(b.settleWork());
        QCOMPARE(static_cast<std::size_t>(b.document.undoStack().index()), undo + 1);
        const int now = b.document.work()->question.net.find(first);
        QVERIFY(now < 0 || b.document.work()->question.net.items[static_cast<std::size_t>(now)].left <= 0);
    }

    void todayKnowsWhoIsHereAndTheWeather() {
        FitBench b;
        QVERIFY(b.click("fitToday"));
        const auto minutes = [&] {
            int sum = 0;
            for (const TodayWork& w : b.page().today().plan().work) sum += w.to - w.from;
            return sum;
        };
        const int two = minutes();
        QVERIFY(b.type("todayPeople", "1"));
        QVERIFY(minutes() < two);
        QVERIFY(b.type("todayUntil", "10:00"));
        for (const TodayWork& w : b.page().today().plan().work) QVERIFY(w.to <= 600);
        (void)b.type("todayUntil", "25:99");
        QVERIFY(b.sentenceShown().contains(QStringLiteral("A time of the day")));
        QTest::keyClick(b.find<EntryField>("todayUntil"), Qt::Key_Escape);
        (void)b.type("todayPeople", "half");
        QVERIFY(b.find<EntryField>("todayPeople")->isWrong());
        QTest::keyClick(b.find<EntryField>("todayPeople"), Qt::Key_Escape);
        QVERIFY(b.click("todayRain"));
        QCOMPARE(plain(b.find<QPushButton>("todayRain")->text()), QStringLiteral("It is wet"));
        for (const TodayWork& w : b.page().today().plan().work) {
            const WorkItem& item = b.document.work()->question.net.items[static_cast<std::size_t>(w.item)];
            QVERIFY(!(item.place == WorkPlace::Yard && item.needs.dry));
        }
        QVERIFY(b.click("readThermometer"));
        QVERIFY(plain(b.find<QLabel>("climate")->text()).contains(QStringLiteral("simulated")));
    }

    void checksHangFromWhatCoversThem() {
        FitBench b;
        b.document.setCurrentSurface("ceiling");
        int rows = -1;
        for (std::size_t i = 0; i < b.document.work()->question.net.items.size(); ++i)
            if (const WorkItem& w = b.document.work()->question.net.items[i];
                w.covers && !w.checks.empty() && w.surface == "ceiling")
                rows = static_cast<int>(i);
        QVERIFY(rows >= 0);
        const StepRef check = b.document.work()->question.net.items[static_cast<std::size_t>(rows)].checks[0];
        b.strip().reveal(rows);
        QTest::mouseClick(b.strip().viewport(), Qt::LeftButton, {}, b.strip().checkBox(rows, 0).center().toPoint());
        QVERIFY(b.document.job().log("ceiling").done.contains(check.key));
    }

    /// A panel's fixings, each at its place, are ticked one by one; a missed one is counted.
    /// Begun and left: it stands in the record with its step; pressed again it was not.
    void aStepBegunAndLeftIsWrittenDown() {
        FitBench b;
        b.document.setCurrentSurface("ceiling");
        QVERIFY(b.click("fitSurface"));
        QVERIFY(b.click("broken-insulation/fit"));
        QCOMPARE(b.document.job().record.size(), std::size_t{1});
        const RecordEntry e = b.document.job().record.back();
        QVERIFY(e.kind == EntryKind::BrokenOff && e.surface == "ceiling" && e.step == "insulation/fit");
        QVERIFY(plain(b.find<QPushButton>("broken-insulation/fit")->text()).startsWith(QStringLiteral("broken off, ")));
        QVERIFY(b.click("broken-insulation/fit"));
        QVERIFY(b.document.job().record.empty());
        QVERIFY(b.click("broken-insulation/fit"));
        push(b.document, tickStep(b.document, "ceiling", "insulation/fit", true));
        QVERIFY(settlePlan(b.document));
        QVERIFY(!b.find<QPushButton>("broken-insulation/fit")); // done: there is nothing left of it
    }

    /// What a kind of step takes is typed at one of its steps: the plan of the work has it at once, the sentence below
    /// the step too, and one press puts it back. What is wrong is told and changes nothing.
    void whatAStepTakesIsTyped() {
        FitBench b;
        b.document.setCurrentSurface("right-lower");
        QVERIFY(b.click("fitSurface"));
        const auto step = [&] {
            for (const FitStep& s : b.document.plan()->surface("right-lower")->steps)
                if (s.key == "sheet/cut") return s.effort;
            return StepEffort{};
        };
        const StepEffort usual = step();
        QVERIFY(usual.minutes > 0);
        QVERIFY(b.click("effort-sheet/cut"));
        QVERIFY(b.text("effortOf").contains(QStringLiteral("all steps of its kind")));
        QVERIFY(b.type("effortOnce", "31"));
        QVERIFY(b.type("effortEach", "0"));
        QCOMPARE(step().minutes, 31.0);
        QVERIFY(b.type("effortHands", "2"));
        QCOMPARE(step().hands, 2);
        QVERIFY2(b.labels(b.find<QScrollArea>("")).contains(QStringLiteral("two pairs of hands")) ||
                     b.labels().contains(QStringLiteral("two pairs of hands")),
                 "the step says so");
        (void)b.type("effortHands", "many");
        QVERIFY2(b.sentenceShown().contains(QStringLiteral("whole number")), qPrintable(b.sentenceShown()));
        QTest::keyClick(b.find<EntryField>("effortHands"), Qt::Key_Escape);
        QVERIFY(b.type("effortLeast", "20"));
        (void)b.type("effortMost", "10");
        QVERIFY2(b.sentenceShown().contains(QStringLiteral("warmer")), qPrintable(b.sentenceShown()));
        QTest::keyClick(b.find<EntryField>("effortMost"), Qt::Key_Escape);
        QVERIFY(b.click("effortDry"));
        QVERIFY(step().dry != usual.dry);
        b.document.undoStack().undo();
        QVERIFY(settlePlan(b.document));
        QCOMPARE(step().dry, usual.dry);
        QVERIFY(b.type("effortEach", "")); // emptied, the usual figure stands again
        QVERIFY(step().minutes > 31);
        QVERIFY(b.click("effortUsual"));
        QVERIFY(b.document.job().work.efforts.empty());
        QVERIFY(step() == usual);
        QVERIFY(b.click("effortShut"));
        QVERIFY(!b.find<EntryField>("effortOnce"));
    }

    /// What a surface waits for stands above its steps, and is ticked there as well as under the days.
    void aSurfaceShowsWhatItWaitsFor() {
        FitBench b;
        b.document.setCurrentSurface("ceiling");
        QVERIFY(b.click("fitSurface"));
        QVERIFY(!b.find<QCheckBox>("surfaceGate0")); // nobody expects it: it is no hindrance
        push(b.document, setGate(b.document, WorkGate::Watertight, {.expected = CivilDate{2027, 4, 10}, .passed = {}}));
        QVERIFY(settlePlan(b.document));
        auto* gate = b.find<QCheckBox>("surfaceGate0");
        QVERIFY(gate && !gate->isChecked() && plain(gate->text()).contains(QStringLiteral("expected Sat 10 April")));
        gate->click();
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.document.job().work.gates.at(WorkGate::Watertight).passed, std::optional(demoNow().day));
        QVERIFY(plain(b.find<QCheckBox>("surfaceGate0")->text()).contains(QStringLiteral("ready since")));
        b.document.setCurrentSurface("floor");
        QVERIFY(settlePlan(b.document));
        QVERIFY(b.find<QCheckBox>("surfaceGate0")); // the leak check is everybody's
    }

    /// Shops shut all week but on one day: trips are made on it.
    void tripsKeepToOpeningHours() {
        FitBench b;
        QVERIFY(b.click("fitSetup"));
        QVERIFY(b.type("shops5", "off"));
        QVERIFY(b.type("shops6", "9-17"));
        (void)b.type("shops1", "always");
        QVERIFY(b.sentenceShown().contains(QStringLiteral("From when to when")));
        QTest::keyClick(b.find<EntryField>("shops1"), Qt::Key_Escape);
        QVERIFY(b.settleWork());
        const WorkQuestion& q = b.document.work()->question;
        int trips = 0;
        for (std::size_t i = 0; i < q.net.items.size(); ++i)
            if (q.net.items[i].kind == WorkKind::Trip) {
                QCOMPARE(weekdayOf(b.dayOf(q.net.items[i].id.c_str())), 6);
                ++trips;
            }
        QVERIFY(trips > 1);
    }

    void daysGetLargerAndSmaller() {
        FitBench b;
        const CivilDate first = demoNow().day + 1;
        const double before = b.strip().dayBox(first).width();
        QVERIFY(b.click("stripWider"));
        QVERIFY(b.strip().dayBox(first).width() > before * 1.2);
        QVERIFY(b.click("stripNarrower"));
        QVERIFY(std::abs(b.strip().dayBox(first).width() - before) < 1.5);
    }

    void placesAreTickedOneByOne() {
        FitBench b;
        b.document.setCurrentSurface("right-lower");
        QVERIFY(b.click("fitSurface"));
        auto* places = b.find<PlaceTicks>("places-sheet/panel-1");
        QVERIFY(places);
        const int all = places->missing();
        std::size_t fixings = 0;
        const SurfacePlan* s = b.document.plan()->surface("right-lower");
        for (const Fixing& f : s->layerOf("sheet")->fixings) fixings += f.piece == 0 && f.place.holds ? 1 : 0;
        QCOMPARE(static_cast<std::size_t>(all), fixings);
        QTest::mouseClick(places, Qt::LeftButton, {}, places->spot(0).toPoint());
        QVERIFY(b.document.job().log("right-lower").done.contains("sheet/panel-1#1"));
        QVERIFY(settlePlan(b.document));
        places = b.find<PlaceTicks>("places-sheet/panel-1");
        QCOMPARE(places->missing(), all - 1);
        b.document.undoStack().undo();
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.find<PlaceTicks>("places-sheet/panel-1")->missing(), all);
    }

    void daysAreTyped() {
        FitBench b;
        QVERIFY(b.click("fitSetup"));
        QVERIFY(b.type("weekday4", "8-12 x2, 13-15"));
        QVERIFY(b.document.job().work.week[4] == (WorkDay{{480, 720, 2}, {780, 900, 1}}));
        (void)b.type("weekday4", "noon");
        QVERIFY(b.sentenceShown().contains(QStringLiteral("From when to when")));
        QTest::keyClick(b.find<EntryField>("weekday4"), Qt::Key_Escape);
        QVERIFY(b.type("workStart", "3.4.2027"));
        QVERIFY(b.document.job().work.start == (CivilDate{2027, 4, 3}));
        QVERIFY(b.click("addDay")); // with nothing typed
        QVERIFY(b.sentenceShown().contains(QStringLiteral("A day, and when")));
        QTest::keyClicks(b.find<QLineEdit>("newDate"), QStringLiteral("2027-04-04"));
        QTest::keyClicks(b.find<QLineEdit>("newDay"), QStringLiteral("off"));
        QVERIFY(b.click("addDay"));
        QVERIFY(b.document.job().work.days.contains({2027, 4, 4}) &&
                b.document.job().work.days.at({2027, 4, 4}).empty());
        QVERIFY(b.type("gate0", "2027-04-10"));
        QVERIFY(b.document.job().work.gates.contains(WorkGate::Watertight));
        QVERIFY(b.document.job().work.gates.at(WorkGate::Watertight).expected == (CivilDate{2027, 4, 10}));
        QVERIFY(b.type("hoursM2-boards", "1"));
        QCOMPARE(b.document.job().work.hours.at("boards").perM2, 1.0);
        QVERIFY(b.type("hoursM2-boards", ""));
        QVERIFY(b.document.job().work.hours.empty());
        QVERIFY(b.click("fetchForecast"));
        QCOMPARE(b.document.job().work.forecast.days.size(), std::size_t{14});
        QVERIFY(b.click("forgetForecast"));
        QVERIFY(b.document.job().work.forecast.days.empty());
    }

    /// The mark is dragged to the date that is needed.
    void theDateIsChosenByItsChance() {
        FitBench b;
        ChanceCurve& curve = b.page().van().curve();
        const auto before = curve.marked();
        QVERIFY(before);
        const CivilDate later = *before + 6;
        QTest::mouseClick(&curve, Qt::LeftButton, {}, QPoint(static_cast<int>(curve.xOf(later)), 30));
        QVERIFY(b.settleWork());
        QVERIFY(*curve.marked() > *before);
        QVERIFY(b.document.job().work.acceptedChance > 0.8);
    }

    /// Where everything lies on the strip: days rise, no two bars of a lane overlap, a later time is never further
    /// left.
    void theStripKeepsItsOrder() {
        FitBench b;
        const StripLayout layout(b.document.job(), *b.document.work(), 10);
        double x = -1;
        CivilDate last{1900, 1, 1};
        for (const StripDay& d : layout.days()) {
            QVERIFY(d.x > x && d.day > last && d.width > 0 && d.to > d.from);
            x = d.x + d.width - 0.01;
            last = d.day;
            QCOMPARE(layout.dayAt(d.x + d.width / 2)->day, d.day);
        }
        for (std::size_t i = 0; i < layout.bars().size(); ++i)
            for (std::size_t k = i + 1; k < layout.bars().size(); ++k) {
                const StripBar &one = layout.bars()[i], &other = layout.bars()[k];
                if (one.row != other.row || one.lane != other.lane) continue;
                QVERIFY(one.part.end <= other.part.start || other.part.end <= one.part.start);
            }
        const WorkClock& clock = b.document.work()->plan.clock;
        double before = -1;
        for (int t = 0; t < 60 * 1440; t += 97) {
            const double at = layout.xAt(clock.moment(t));
            QVERIFY(at >= before - 1e-9);
            before = at;
        }
        // Twice as near is twice as wide, but for the gaps and the narrowest days.
        const StripLayout nearer(b.document.job(), *b.document.work(), 40);
        QVERIFY(nearer.width() > layout.width() * 2);
        QCOMPARE(nearer.bars().size(), layout.bars().size());
        // Every surface with work has its row, in the order of the job.
        std::size_t place = 0;
        for (const StripRow& row : layout.rows()) {
            if (row.kind != StripRow::OfSurface) continue;
            while (place < b.document.job().surfaces.size() && b.document.job().surfaces[place].id != row.surface)
                ++place;
            QVERIFY(place < b.document.job().surfaces.size());
        }
    }

    /// By the keys alone: along the strip, to another day, and along the chance.
    void everythingIsReachedByKeys() {
        FitBench b;
        b.strip().setFocus();
        QTest::keyClick(&b.strip(), Qt::Key_Right);
        const int first = b.strip().inHand();
        QVERIFY(first >= 0);
        QTest::keyClick(&b.strip(), Qt::Key_Right);
        QVERIFY(b.strip().inHand() != first);
        QTest::keyClick(&b.strip(), Qt::Key_Left);
        QCOMPARE(b.strip().inHand(), first);
        QVERIFY(!plain(b.find<QLabel>("workInHand")->text()).isEmpty());
        // To the next day that is shown: it goes there, or it is said why it cannot.
        const char* id = "left-upper/insulation/fit";
        b.strip().takeInHand(b.item(id));
        const CivilDate day = b.dayOf(id);
        const QString said = b.sentenceShown();
        QTest::keyClick(&b.strip(), Qt::Key_Right, Qt::ShiftModifier);
        if (b.document.job().work.pins.contains(id)) {
            QVERIFY(b.settleWork());
            QVERIFY(b.dayOf(id) > day);
        } else
            QVERIFY(b.sentenceShown() != said);
        ChanceCurve& curve = b.page().van().curve();
        const double before = b.document.job().work.acceptedChance;
        curve.setFocus();
        QTest::keyClick(&curve, Qt::Key_Left);
        QVERIFY(b.document.job().work.acceptedChance != before);
    }

    /// The days ahead on paper: a page for each of the next days, and a calendar that opens elsewhere.
    void theDaysAheadArePrinted() {
        FitBench b;
        QTemporaryDir folder;
        const QString path = folder.filePath(QStringLiteral("days.pdf"));
        QCOMPARE(printWork(path, b.document.job(), *b.document.plan(), *b.document.work(), b.document.now(), {}),
                 QString());
        QFile pdf(path);
        QVERIFY(pdf.open(QIODevice::ReadOnly));
        const QByteArray bytes = pdf.readAll();
        QVERIFY(bytes.startsWith("%PDF"));
        QVERIFY(bytes.count("/Type /Page\n") + bytes.count("/Type /Page ") + bytes.count("/Type /Page/") >= 3 ||
                bytes.size() > 20000);
        // Nowhere to write to: a sentence.
        QVERIFY(!printWork(folder.filePath(QStringLiteral("no/such/days.pdf")), b.document.job(), *b.document.plan(),
                           *b.document.work(), b.document.now(), {})
                     .isEmpty());
    }

    void aJobWithNothingToDoSaysSo() {
        Job empty = demoJob();
        empty.finishes.clear();
        empty.cutLists.clear(); // what is cut for itself is fetched
        empty.archBoxes.clear();
        for (Surface& s : empty.surfaces) s.measurement = {};
        FitBench b(empty);
        QVERIFY2(b.sentenceShown().contains(QStringLiteral("nothing to plan yet")), qPrintable(b.sentenceShown()));
        QVERIFY(b.click("fitToday") && b.click("fitSetup") && b.click("fitSurface"));
    }
};
WESTRUM_TEST(FitStageTest)
#include "fit_stage_test.moc"
