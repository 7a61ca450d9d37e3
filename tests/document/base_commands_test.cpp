#include <QtTest>

#include "app/document/base_commands.h"
#include "app/document/shell_commands.h"
#include "core/geometry/boolean.h"
#include "core/measure/grown.h"
#include "formats/demo.h"
#include "formats/job_file.h"
#include "formats/words.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"
#include "tests/support/settle.h"

#include <cmath>

using namespace westrum;
using namespace westrum::test;

/// What is done to the base: one undo step each, nothing lost in a file.
class BaseCommandsTest : public QObject {
    Q_OBJECT
    static std::unique_ptr<JobDocument> opened() {
        auto d = std::make_unique<JobDocument>();
        d->cutting().setPatience(0.004);
        d->open(demoJob(), {});
        (void)settlePlan(*d);
        return d;
    }
    /// Does it, undoes it and does it again: the job is what it was each time, and its file says all of it.
    static bool doneAndUndone(JobDocument& d, Command command) {
        if (!command) return false;
        const Job before = d.job();
        push(d, std::move(command));
        const Job after = d.job();
        if (after == before || !settlePlan(d)) return false;
        const auto read = readJob(writeJob(after));
        if (!read || !(read.value() == after)) return false;
        d.undoStack().undo();
        if (!(d.job() == before)) return false;
        d.undoStack().redo();
        return d.job() == after && settlePlan(d);
    }

private slots:
    void everyCommandUndoesAndIsKeptInTheFile() {
        const auto d = opened();
        QVERIFY(doneAndUndone(*d, spaceLamps(*d, "ceiling", 8, 2, mm(60).length)));
        Packing packing{PackTo::EachLine, true, {}};
        packing.readings.push_back({1, 2, 0, 2, 1, mm(14)});
        QVERIFY(doneAndUndone(*d, setPacking(*d, "ceiling", packing)));
        QVERIFY(doneAndUndone(*d, readCrossing(*d, "ceiling", {1, 0, 0, 0, 0, mm(11)})));
        QVERIFY(doneAndUndone(*d, readCrossing(*d, "ceiling", {1, 0, 0, 0, 0, {}})));
        QVERIFY(doneAndUndone(*d, holdPiece(*d, "rear-door-right", 1, "1", FixedWith::HookAndLoop)));
        QVERIFY(doneAndUndone(*d, setClearance(*d, OpeningKind::Hob, Mm{120})));
        QVERIFY(doneAndUndone(*d, shiftOpening(*d, "left-lower", 0, {12, -7})));
        Support rib = d->job().surface("rear-door-right")->supports[0];
        rib.holeFirst = mm(30);
        rib.holePitch = mm(100);
        rib.holes = {mm(55)};
        QVERIFY(doneAndUndone(*d, changeSupport(*d, "rear-door-right", 0, rib)));
        Support strip;
        strip.kind = SupportKind::Batten;
        strip.position = mm(300);
        strip.width = mm(40);
        QVERIFY(doneAndUndone(*d, setBattens(*d, "floor", 2, {strip})));
        QVERIFY(doneAndUndone(*d, setBattens(*d, "floor", 2, {})));
    }

    void theLastLampsMoveWithTheCupboard() {
        const auto d = opened();
        push(*d, spaceLamps(*d, "ceiling", 6, 2, mm(68).length));
        QVERIFY(settlePlan(*d));
        const auto off = [&]() -> const Remark* {
            for (const Remark& r : d->plan()->remarks)
                if (r.kind == RemarkKind::LampsOffCentre) return &r;
            return nullptr;
        };
        QVERIFY(!off());
        // The cupboard grows deeper over the upper row: told, and settled by one press.
        Zone z = d->job().surface("ceiling")->zones[0];
        z.height = mm(800);
        push(*d, changeZone(*d, "ceiling", 0, z));
        QVERIFY(settlePlan(*d));
        QVERIFY(off());
        push(*d, takeFix(*d, *off()));
        QVERIFY(settlePlan(*d));
        QVERIFY(!off());
        d->undoStack().undo();
        QVERIFY(settlePlan(*d));
        QVERIFY(off());
    }

    void aBoxChangesAllOfItselfAtOnce() {
        const auto d = opened();
        const auto name = [](SurfaceKind, Hand, int) { return std::string("box"); };
        ArchBox box;
        box.floor = "floor";
        box.notch = 0;
        box.length = mm(760);
        box.height = mm(300);
        box.depth = mm(240);
        box.thickness = mm(12);
        box.product = "poplar-ply-12";
        box.face = "arch-face-right";
        box.top = "arch-top-right";
        box.rearEnd = "arch-end-1-right";
        box.frontEnd = "arch-end-2-right";
        const std::size_t surfaces = d->job().surfaces.size();
        QVERIFY(doneAndUndone(*d, putBox(*d, box, name)));
        QCOMPARE(d->job().surfaces.size(), surfaces); // the van's own were taken over
        const std::string id = d->job().archBoxes.back().id;
        ArchBox deeper = d->job().archBoxes.back();
        deeper.depth = mm(255);
        QVERIFY(doneAndUndone(*d, putBox(*d, deeper, name)));
        QCOMPARE(d->job().surface("floor")->measurement.notches[0].depth->length, Mm{255});
        QCOMPARE(boundsOf(d->plan()->surface("arch-top-right")->measured.outline).height(), 255.0);
        // Its footprint typed as the notch that it is: the box follows.
        QVERIFY(doneAndUndone(*d, takeReading(*d, "floor", "n0.length", mm(790))));
        QCOMPARE(boundsOf(d->plan()->surface("arch-face-right")->measured.outline).width(), 790.0);
        QVERIFY(doneAndUndone(*d, removeBox(*d, id)));
        QVERIFY(d->job().surface("arch-top-right"));
    }

    void aBoxKeepsItsNotchWhenAnotherGoes() {
        const auto d = opened(); // the example's box stands on its second notch
        QCOMPARE(d->job().archBoxes.at(0).notch, 1);
        QVERIFY(doneAndUndone(*d, removeNotch(*d, "floor", 0)));
        QCOMPARE(d->job().archBoxes.at(0).notch, 0);
        QVERIFY(doneAndUndone(*d, removeNotch(*d, "floor", 0)));
        QVERIFY(d->job().archBoxes.empty());
        QVERIFY(d->job().surface("arch-top-left")); // its surfaces stay, to be measured by themselves
    }

    void theFixesOfTheBaseSettleTheirRemarks() {
        const auto d = opened();
        Surface s = *d->job().surface("bench-front");
        s.measurement = test::rectangle(900, 400);
        Zone rail{.name = "Rail", .kind = ZoneKind::Heavy};
        rail.place = {.side = 0, .fromSide = mm(250), .cross = 3, .fromCross = mm(100)};
        rail.width = mm(400);
        rail.height = mm(60);
        s.zones = {rail};
        Opening socket;
        socket.name = "Socket";
        socket.kind = OpeningKind::Socket;
        socket.shape = OpeningShape::Round;
        socket.width = mm(60);
        socket.place = {.side = 0, .fromSide = mm(45), .cross = 3, .fromCross = mm(300), .toCentre = true};
        s.openings = {socket};
        push(*d, replaceSurface(QStringLiteral("test"), *d, s));
        QVERIFY(settlePlan(*d));
        for (const RemarkKind kind : {RemarkKind::BackingMissing, RemarkKind::OpeningTooNear}) {
            std::optional<Remark> told;
            for (const Remark& r : d->plan()->remarks)
                if (r.kind == kind && r.place.surface == "bench-front") told = r;
            QVERIFY(told);
            QVERIFY(!fixText(d->job(), *told, figuresFor(d->job(), '.')).isEmpty());
            QVERIFY(doneAndUndone(*d, takeFix(*d, *told)));
            for (const Remark& r : d->plan()->remarks) QVERIFY(r.kind != kind || r.place.surface != "bench-front");
        }
    }

    void anOutlineIsTakenOverLargerAndSmaller() {
        // 1000 x 600: the first side 10 further out, the second 5 further in: 995 x 610; nothing at the others.
        const MeasuredOutline measured = outlineOf(test::rectangle(1000, 600));
        const std::vector<double> by{10, -5, 0, 0};
        const Bounds b = boundsOf(grownOutline(measured, by, 0)->ring);
        QVERIFY(std::abs(b.width() - 995) < 1e-9 && std::abs(b.height() - 610) < 1e-9);
        // Grown alike all round and back again it is what it was; so much smaller that nothing is left: nothing.
        Measurement notched = test::rectangle(1000, 600);
        notched.notches = {notch(0, 300, 200, 150)};
        const MeasuredOutline cut = outlineOf(notched);
        const std::vector<double> more(4, 8.0), less(4, -301.0);
        const auto larger = grownOutline(cut, more, 8);
        QVERIFY(std::abs(areaMm2({{larger->ring}}) - (1016 * 616 - 184 * 150)) < 1e-6); // the notch is 16 narrower
        QVERIFY(!grownOutline(cut, less, -301));
        QVERIFY(!grownOutline(cut, more, 110)); // the notch closes
        // With its holes, as a step of its own.
        const auto d = opened();
        QVERIFY(doneAndUndone(*d, takeOutline(*d, "shelf", "left-lower", std::vector<double>(4, 10.0), 10, true)));
        const SurfacePlan* from = d->plan()->surface("left-lower");
        const SurfacePlan* to = d->plan()->surface("shelf");
        QCOMPARE(to->shape.openings.size(), from->shape.openings.size());
        const Bounds was = boundsOf(from->measured.outline), is = boundsOf(to->measured.outline);
        QVERIFY(std::abs(is.width() - was.width() - 20) < 0.5);
        for (std::size_t i = 0; i < to->shape.openings.size(); ++i) {
            const Point a = from->shape.openings[i].centre - was.low, c = to->shape.openings[i].centre - is.low;
            QVERIFY(std::abs(c.x - a.x - 10) < 0.3 && std::abs(c.y - a.y - 10) < 0.3);
        }
        QVERIFY(!takeOutline(*d, "shelf", "left-lower", std::vector<double>(4, -5000.0), -5000, true));
    }

    void aFrontIsPartedWithOneGapRoundAll() {
        // 900 x 400, three across, gaps of 3: (900 - 4 x 3) / 3 = 296 wide, 394 high, 299 from middle to middle.
        const auto d = opened();
        Surface s = *d->job().surface("bench-front");
        s.measurement = test::rectangle(900, 400);
        push(*d, replaceSurface(QStringLiteral("test"), *d, s));
        QVERIFY(settlePlan(*d));
        QVERIFY(doneAndUndone(*d, partFront(*d, "bench-front", 3, 1, {3})));
        const auto& openings = d->plan()->surface("bench-front")->shape.openings;
        QCOMPARE(openings.size(), 3UL);
        QVERIFY(distance(openings[1].centre, {450, 200}) < 0.01);
        QVERIFY(std::abs(boundsOf(openings[0].shape).low.x - 3) < 0.01);
        QVERIFY(std::abs(boundsOf(openings[2].shape).high.x - 897) < 0.01);
        QVERIFY(!partFront(*d, "bench-front", 20, 1, {30}));
    }

    void supportsThatGoTakeTheirReadingsAlong() {
        const auto d = opened();
        Packing packing{PackTo::Plane, true, {{1, 0, 0, 0, 0, mm(9)}, {2, 0, 0, 1, 0, mm(8)}}};
        push(*d, setPacking(*d, "ceiling", packing));
        push(*d, removeSupport(*d, "ceiling", 1));
        const auto& left = d->job().surface("ceiling")->packing.readings;
        QCOMPARE(left.size(), 1UL);
        QCOMPARE(left[0].batten, 1); // what was the third is the second now
        QCOMPARE(left[0].reading->length, Mm{8});
    }
};

WESTRUM_TEST(BaseCommandsTest)

#include "base_commands_test.moc"
