#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/shell_commands.h"
#include "core/plan/options.h"
#include "formats/demo.h"
#include "tests/support/demo_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"
#include "tests/support/settle.h"

using namespace westrum;
using namespace westrum::test;

class CommandsTest : public QObject {
    Q_OBJECT
private slots:
    /// Every command: does something, is named, undoes exactly, redoes exactly.
    void everyCommandUndoesAndRedoes_data() {
        QTest::addColumn<int>("which");
        for (int i = 0; i < 24; ++i) QTest::addRow("command %d", i) << i;
    }
    void everyCommandUndoesAndRedoes() {
        QFETCH(int, which);
        JobDocument d;
        d.open(demoFloor(), {});
        const std::string f = "floor";
        const Product extra = plankProduct(1000, 150, 5, 999);
        const std::vector<std::function<Command()>> all{
            [&] { return takeReading(d, f, "AB", mm(3700)); },
            [&] { return takeReading(d, f, "BD", std::nullopt); },
            [&] { return chooseOutlineForm(d, f, OutlineForm::Rectangle); },
            [&] { return addNotch(d, f, notch(1, 100, 200, 50)); },
            [&] {
                return addStep(d, f, {"Step", 0, mm(100), mm(100)});
            },
            [&] { return removeNotch(d, f, 0); },
            [&] { return removeStep(d, f, 0); },
            [&] { return takeReading(d, f, "n1.depth", mm(99)); },
            [&] { return takeReading(d, f, "n1.position", std::nullopt); },
            [&] { return takeReading(d, f, "s0.across", mm(99)); },
            [&] { return moveNotchToSide(d, f, 0, 2); },
            [&] { return moveStepToCorner(d, f, 0, 2); },
            [&] { return renameNotch(d, f, 0, "Arch"); },
            [&] { return renameStep(d, f, 0, "Door"); },
            [&] { return describeNotchEdges(d, f, 0, EdgeKind::UnderTrim); },
            [&] { return describeStepEdges(d, f, 0, EdgeKind::Free); },
            [&] { return renameSurface(d, f, "Floor of the hold"); },
            [&] { return moveStartLine(d, f, {41}, 1); },
            [&] { return setRule(d, f, "gap", 9); },
            [&] { return chooseProduct(d, f, "teal-walnut"); },
            [&] { return chooseUnderlay(d, f, ""); },
            [&] { return setProductField(d, "heron-oak", "perPack", 12); },
            [&] { return setPackPrice(d, "heron-oak", std::nullopt); },
            [&] { return addProduct(d, extra); },
            [&] { return renameJob(d, "Another", "van"); },
            [&] { return chooseUnits(d, LengthUnit::Inch, LengthUnit::Inch); },
        };
        const Job before = d.job();
        push(d, all[static_cast<std::size_t>(which)]());
        const Job after = d.job();
        QVERIFY(!(before == after));
        QVERIFY(!d.undoStack().undoText().isEmpty());
        QVERIFY(d.isModified());
        d.undoStack().undo();
        QVERIFY(d.job() == before);
        QVERIFY(!d.isModified());
        d.undoStack().redo();
        QVERIFY(d.job() == after);
        // The same once more changes nothing and leaves no step.
        if (which != 3 && which != 4 && which != 5 && which != 6 && which != 23) {
            push(d, all[static_cast<std::size_t>(which)]());
            QCOMPARE(d.undoStack().count(), 1);
        }
    }

    void whatIsSaidOfBuyingUndoesToo() {
        JobDocument d;
        d.open(demoFloor(), {});
        VanMass mass;
        mass.front = 1000;
        mass.places["floor"] = {100, 200};
        const Saving saving{Saving::Kind::Rules, "floor", 1, {{"startOffset", 33}}, {}, 0};
        const Saving turned{Saving::Kind::Turned, {}, -1, {{"turning", 1}}, {}, 0};
        const std::vector<std::function<Command()>> all{
            [&] { return setSpare(d, "heron-oak", 2); },
            [&] {
                return setSpares(d, {{"heron-oak", 1}, {"reed-mat", 3}});
            },
            [&] {
                return tickBought(d, "heron-oak", Bought{3, Money{13170, {}}, "A 7"});
            },
            [&] {
                return setBudget(d, Money{100000, {}});
            },
            [&] { return countConsumables(d, false); },
            [&] { return acceptRisk(d, 0.01); },
            [&] {
                return setPrices(d, {.offers = {{.product = "heron-oak", .supplier = "x", .price = {4000, {}}}}});
            },
            [&] { return setSpoilChance(d, 0.02); },
            [&] { return setPace(d, 0.3, 0.9); },
            [&] { return takeSaving(d, "heron-oak", saving); },
            [&] { return takeSaving(d, "thrush-lining", turned); },
            [&] {
                return moveReliefs(d, "floor", {{{0, 0}, {0, 50}}}, 1);
            },
            [&] { return setVanMass(d, mass); },
            [&] {
                return setWeighings(d, {Weighing{"today", 1000, 900, 12, ""}});
            },
        };
        for (const auto& command : all) {
            const Job before = d.job();
            push(d, command());
            const Job after = d.job();
            QVERIFY(!(before == after));
            d.undoStack().undo();
            QVERIFY(d.job() == before);
            d.undoStack().redo();
            QVERIFY(d.job() == after);
        }
        // What is no longer said is gone altogether.
        push(d, setSpare(d, "heron-oak", 0));
        QVERIFY(!d.job().spares.contains("heron-oak"));
        push(d, tickBought(d, "heron-oak", {}));
        QVERIFY(d.job().bought.empty());
    }

    void aSchemeIsChosenEverywhereInOneStep() {
        JobDocument d;
        Job job = demoFloor();
        Surface other = *job.surface("floor");
        other.id = "other";
        job.surfaces.push_back(other);
        for (const char* id : {"floor", "other"}) {
            FinishOptions& o = job.finishes[id];
            o.options.resize(2);
            o.options[0].name = "everyday";
            o.options[1].name = "light";
            o.chosen = 0;
        }
        d.open(std::move(job), {});
        QCOMPARE(schemesOf(d.job()), (std::vector<std::string>{"everyday", "light"}));
        push(d, chooseScheme(d, "light"));
        QCOMPARE(d.job().options("floor").chosen, 1);
        QCOMPARE(d.job().options("other").chosen, 1);
        QCOMPARE(d.undoStack().count(), 1);
        d.undoStack().undo();
        QCOMPARE(d.job().options("other").chosen, 0);
    }

    void oddsAreTriedOnceAndHoldUntilANeedChanges() {
        JobDocument d;
        d.cutting().setPatience(0.004);
        d.setOddsTries(5);
        d.open(demoFloor(), {});
        QVERIFY(settleCuts(d));
        QVERIFY(!d.odds());
        d.askOdds();
        QTRY_VERIFY_WITH_TIMEOUT(d.odds() != nullptr, 30000);
        const double have = d.odds()->front().have;
        push(d, setSpare(d, "heron-oak", 1)); // buys more, needs the same
        QVERIFY(settleCuts(d));
        QVERIFY(d.odds() != nullptr);
        QCOMPARE(d.odds()->front().have, have + 10);
        push(d, setSpoilChance(d, 0.02));
        QTRY_VERIFY(!d.odds()); // with the plan that they are no longer of
        d.askOdds();            // while the plan is under way nothing is asked
        QVERIFY(settleCuts(d));
        d.askOdds();
        QTRY_VERIFY_WITH_TIMEOUT(d.odds() != nullptr, 30000);
        push(d, setRule(d, "floor", "gap", 12));
        QTRY_VERIFY(!d.odds());
    }

    void ticksAndLogUndoToo() {
        JobDocument d;
        d.open(demoFloor(), {});
        push(d, tickStep(d, "floor", "row-1", true));
        QVERIFY(d.job().log("floor").done.contains("row-1"));
        FitLog log = d.job().log("floor");
        log.opened = 29;
        push(d, writeLog(d, "floor", log));
        d.undoStack().undo();
        QVERIFY(!d.job().log("floor").opened);
        d.undoStack().undo();
        QVERIFY(d.job().log("floor").done.empty());
    }

    void oneDragIsOneStep() {
        JobDocument d;
        d.open(demoFloor(), {});
        for (int mm = 1; mm <= 40; ++mm) push(d, moveStartLine(d, "floor", {double(mm)}, 7));
        QCOMPARE(d.undoStack().count(), 1);
        push(d, moveStartLine(d, "floor", {50}, 8)); // another gesture
        QCOMPARE(d.undoStack().count(), 2);
        d.undoStack().undo();
        QCOMPARE(d.job().face("floor")->rules.at("startOffset"), 40.0);
        d.undoStack().undo();
        QCOMPARE(d.job().face("floor")->rules.at("startOffset"), 0.0);
    }

    void aDragThatEndsWhereItBeganLeavesNoStep() {
        JobDocument d;
        d.open(demoFloor(), {});
        for (const double offset : {5.0, 20.0, 5.0, 0.0}) push(d, moveStartLine(d, "floor", {offset}, 7));
        QCOMPARE(d.undoStack().count(), 0);
        QVERIFY(d.job() == demoFloor());
    }

    void aProductBringsItsLabelsGap() {
        JobDocument d;
        d.open(demoFloor(), {});
        push(d, moveStartLine(d, "floor", {170}, 1));
        push(d, chooseProduct(d, "floor", "dunlin-short")); // 150 wide, gap 5, stagger 150
        QCOMPARE(d.job().face("floor")->rules.at("stagger"), 150.0);
        QCOMPARE(d.job().face("floor")->rules.at("startOffset"), 0.0); // 170 is more than such a plank has
        d.undoStack().undo();
        QCOMPARE(d.job().face("floor")->rules.at("startOffset"), 170.0);
    }
};
WESTRUM_TEST(CommandsTest)

#include "commands_test.moc"
