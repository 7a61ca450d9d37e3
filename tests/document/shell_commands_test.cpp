#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/shell_commands.h"
#include "core/plan/rack.h"
#include "formats/demo.h"
#include "tests/support/demo_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"
#include "tests/support/settle.h"

using namespace westrum;
using namespace westrum::test;

class ShellCommandsTest : public QObject {
    Q_OBJECT
private slots:
    /// Every command: does something, is named, undoes exactly, redoes exactly, and plans without a fault.
    void everyCommandUndoesAndRedoes_data() {
        QTest::addColumn<int>("which");
        for (int i = 0; i < 29; ++i) QTest::addRow("command %d", i) << i;
    }
    void everyCommandUndoesAndRedoes() {
        QFETCH(int, which);
        JobDocument d;
        d.open(demoFloor(), {});
        const std::string w = "left-lower", c = "ceiling";
        const Opening hatch{.name = "Hatch", .kind = OpeningKind::Hatch};
        Measurement pentagon;
        pentagon.form = OutlineForm::Polygon;
        const std::vector<std::function<Command()>> all{
            [&] { return takeReading(d, w, "AC", mm(3700)); },
            [&] { return takeReading(d, "left-upper", "y3", mm(960)); },
            [&] { return takeReading(d, c, "o0.width", std::nullopt); },
            [&] { return takeReading(d, c, "u0.spacing", mm(500)); },
            [&] { return takeReading(d, w, "heightRear", mm(12)); },
            [&] { return shapeMeasurement(d, w, pentagon); },
            [&] { return addSurface(d, Surface{.id = "floor", .name = "Second floor"}); },
            [&] { return duplicateSurface(d, w, "Copy"); },
            [&] { return mirrorSurface(d, c, "Mirror"); },
            [&] { return removeSurface(d, w); },
            [&] {
                return describeSurface(d, w, SurfaceKind::Other, Hand::None, {AreaKind::Other, "attic"});
            },
            [&] { return addOpening(d, w, hatch); },
            [&] { return changeOpening(d, c, 1, hatch); },
            [&] { return removeOpening(d, c, 2); },
            [&] { return addZone(d, w, Zone{.name = "Bed"}); },
            [&] { return changeZone(d, c, 0, Zone{.name = "Bed"}); },
            [&] { return removeZone(d, c, 0); },
            [&] { return addSupport(d, w, Support{.name = "Batten"}); },
            [&] { return changeSupport(d, c, 0, Support{.name = "Batten"}); },
            [&] { return removeSupport(d, c, 1); },
            [&] { return describeEdge(d, w, 0, {.kind = EdgeKind::Free}); },
            [&] { return meetSides(d, w, 1, "shelf", 2); },
            [&] { return chooseEdgeTrim(d, w, 1, "rail-oak"); },
            [&] { return chooseEdgeTrim(d, c, 3, std::string(kNoTrim)); },
            [&] { return leanSurface(d, w, true); },
            [&] { return takeReading(d, w, "lean", mm(90)); },
            [&] { return takeReading(d, c, "e0.end", mm(9)); },
            [&] {
                return setDatum(d, {mm(1000), {}});
            },
            [&] { return setAccess(d, {}); },
        };
        const Job before = d.job();
        push(d, all[static_cast<std::size_t>(which)]());
        const Job after = d.job();
        QVERIFY(!(before == after));
        QVERIFY(!d.undoStack().undoText().isEmpty());
        QVERIFY(settlePlan(d));
        QCOMPARE(d.plan()->surfaces.size(), after.surfaces.size());
        d.undoStack().undo();
        QVERIFY(d.job() == before);
        d.undoStack().redo();
        QVERIFY(d.job() == after);
    }

    void aRemovedSurfaceLeavesNoTieAndNoSelection() {
        JobDocument d;
        d.open(demoFloor(), {});
        d.setCurrentSurface("left-lower");
        push(d, removeSurface(d, "left-lower"));
        QVERIFY(!d.job().surface("left-lower"));
        QVERIFY(d.job().surface("floor")->edge(2).kind == EdgeKind::Unsaid);
        QCOMPARE(QString::fromStdString(d.currentSurface()), QStringLiteral("floor"));
        d.undoStack().undo();
        QCOMPARE(QString::fromStdString(d.job().surface("floor")->edge(2).surface), QStringLiteral("left-lower"));
    }

    void copiesHaveIdsOfTheirOwn() {
        JobDocument d;
        d.open(demoFloor(), {});
        const std::size_t n = d.job().surfaces.size();
        push(d, duplicateSurface(d, "shelf", "Second shelf"));
        push(d, duplicateSurface(d, "shelf", "Third shelf"));
        QCOMPARE(d.job().surfaces.size(), n + 2);
        std::set<std::string> ids;
        for (const Surface& s : d.job().surfaces) QVERIFY(ids.insert(s.id).second);
    }

    void oneDragOfAnOpeningIsOneStep() {
        JobDocument d;
        d.open(demoFloor(), {});
        for (int i = 1; i <= 20; ++i) push(d, moveOpening(d, "ceiling", 0, {{500.0 + i}, {600}}, 5));
        QCOMPARE(d.undoStack().count(), 1);
        push(d, moveZone(d, "ceiling", 0, {{10}, {20}}, 6));
        QCOMPARE(d.undoStack().count(), 2);
        d.undoStack().undo();
        d.undoStack().undo();
        QVERIFY(d.job() == demoFloor());
    }

    void measuringAWallLeavesTheFloorsStartLinesAlone() {
        JobDocument d;
        d.open(demoFloor(), {});
        QVERIFY(settle(d));
        const auto before = d.starts();
        QVERIFY(!before->choices.empty());
        push(d, takeReading(d, "left-lower", "AB", mm(3620)));
        QVERIFY(!d.starts()->choices.empty()); // still there, not worked out anew
    }

    /// A check of an earlier body: it stands among the checks and in the surface's readings, is taken back, and a
    /// surface that is measured here is no longer as before; each is one step.
    void checksOfAnEarlierBodyAreTaken() {
        JobDocument d;
        const Job shell = shellOf(demoJob());
        d.open(fromBody(shell, newVanJob("Next", starterCatalogue(), {}, shell.surfaces), "Plover's body"), {});
        const BodyCheck c = d.job().before.checks.at(0);
        const auto reading = [&] { return **findReading(*d.job().surface(c.surface), c.key); };
        push(d, takeCheck(d, 0, Reading{"3.7 m", {3700}}));
        QCOMPARE(d.job().before.checks[0].taken->length, Mm{3700});
        QVERIFY(reading().length == Mm{3700} && reading().typed == "3.7 m");
        push(d, takeCheck(d, 0, {}));
        QVERIFY(!d.job().before.checks[0].taken);
        QVERIFY(std::abs((reading().length - c.before).value) < 1e-9);
        d.undoStack().undo();
        QCOMPARE(reading().length, Mm{3700});
        push(d, takeCheck(d, 99, Reading{"1", {1}})); // there is none
        const Job before = d.job();
        push(d, measuredHere(d, c.surface));
        QVERIFY(!d.job().surface(c.surface)->before);
        push(d, measuredHere(d, c.surface)); // once more: nothing to undo
        d.undoStack().undo();
        QVERIFY(d.job() == before);
        while (d.undoStack().canUndo()) d.undoStack().undo();
        QVERIFY(d.job().surface(c.surface)->before && !d.job().before.checks[0].taken);
    }
};
WESTRUM_TEST(ShellCommandsTest)

#include "shell_commands_test.moc"
