#include <QtTest>

#include "app/document/shell_commands.h"
#include "app/stages/setout/base_view.h"
#include "core/plan/base_plan.h"
#include "devices/simulated_meter.h"
#include "tests/app/bench.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <cmath>

using namespace westrum;
using namespace westrum::test;

/// The base in the real window: fixings pointed at, packers read, lamps spaced, what is too near shifted.
class BaseStageTest : public QObject {
    Q_OBJECT
    static std::unique_ptr<Bench> baseOf(const std::string& surface) {
        auto b = std::make_unique<Bench>(demoJob());
        b->document.setCurrentSurface(surface);
        b->go(MainWindow::SetOut);
        (void)settle(b->document);
        (void)b->click("base");
        return b;
    }
    static BaseView* view(Bench& b) { return b.window->findChild<BaseView*>(); }
    static void press(Bench& b, Point at) {
        QTest::mouseClick(view(b)->bench(), Qt::LeftButton, {}, view(b)->onBench(at).toPoint());
        (void)settlePlan(b.document);
        QCoreApplication::processEvents();
    }
    static double needed(Bench& b, Serves serves) {
        double n = 0;
        for (const Need& need : b.document.plan()->needs) n += need.serves == serves ? need.amount : 0;
        return n;
    }

private slots:
    void aPanelIsPointedAtAndHeldAnotherWay() {
        auto b = baseOf("right-lower");
        const int at = b->document.currentLayer();
        const LayerPlan layer = b->document.plan()->surface("right-lower")->layers[static_cast<std::size_t>(at)];
        QVERIFY(!layer.fixings.empty());
        const Point middle = centroid(layer.setOut.pieces[0].shape);
        press(*b, contains(layer.setOut.pieces[0].shape, middle) ? middle : layer.fixings[0].place.at);
        QVERIFY(view(*b)->inHand() >= 0);
        QVERIFY2(b->text("baseFigures").contains(QStringLiteral("Panel")), qPrintable(b->text("baseFigures")));
        const double loops = needed(*b, Serves::HookAndLoop);
        QVERIFY(b->choose("holdPiece", QStringLiteral("hook-and-loop")));
        QVERIFY(settlePlan(b->document));
        QVERIFY(needed(*b, Serves::HookAndLoop) > loops + 0.2);
        QVERIFY(b->text("baseFigures").contains(QStringLiteral("ook")));
        b->document.undoStack().undo();
        QVERIFY(settlePlan(b->document));
        QCOMPARE(needed(*b, Serves::HookAndLoop), loops);
        // The arrow keys go to the next panel.
        const int before = view(*b)->inHand();
        QTest::keyClick(view(*b)->bench(), Qt::Key_Right);
        QVERIFY(view(*b)->inHand() != before || layer.setOut.pieces.size() == 1);
    }

    void aHoleOfTheBodyIsPointedAtAndUsed() {
        auto b = baseOf("rear-door-right");
        QVERIFY(b->click("baseBattens"));
        const PlacedSupport rib = b->document.plan()->surface("rear-door-right")->shape.supports[1];
        const Bounds box = boundsOf(rib.shape);
        const auto holes = [&] { return b->document.job().surface("rear-door-right")->supports[0].holes.size(); };
        const auto before = holes();
        const Point at{rib.centre, box.low.y + 200};
        press(*b, at);
        QCOMPARE(holes(), before + 1);
        press(*b, at);
        // once more: it goes
        QCOMPARE(holes(), before);
        press(*b, {rib.centre + 100, box.low.y + 200}); // beside every rib: nothing
        QCOMPARE(holes(), before);
    }

    void packersAreReadOneAfterTheOther() {
        auto b = baseOf("ceiling");
        QVERIFY(b->click("basePackers"));
        QVERIFY(b->choose("packTo", QStringLiteral("one plane")));
        QVERIFY(settlePlan(b->document));
        const auto& crossings = [&]() -> const auto& {
            return b->document.plan()->surface("ceiling")->packed.crossings;
        };
        QVERIFY(crossings().size() > 4);
        press(*b, crossings()[2].at);
        QCOMPARE(view(*b)->inHand(), 2);
        QVERIFY(b->type("crossing", "17"));
        QCOMPARE(crossings()[2].where.reading->length, Mm{17});
        QVERIFY(b->click("nextCrossing"));
        QVERIFY(view(*b)->inHand() != 2);
        // Bad input is answered, and nothing is lost.
        const auto readings = b->document.job().surface("ceiling")->packing.readings;
        (void)b->type("crossing", "deep");
        QCOMPARE(b->document.job().surface("ceiling")->packing.readings, readings);
        QVERIFY(!b->sentenceShown().isEmpty());
    }

    /// With a meter at hand each crossing is a press: what it reads goes there, and the next one without is in hand.
    /// What fails changes nothing, and the strip in Measure takes nothing of it.
    void crossingsAreReadByTheMeter() {
        SimulatedMeter sim;
        const QString name = QStringLiteral("westrum-base-%1").arg(QCoreApplication::applicationPid());
        QVERIFY(sim.listen(name));
        auto b = baseOf("ceiling");
        QVERIFY(b->click("basePackers"));
        QVERIFY(b->choose("packTo", QStringLiteral("one plane")));
        QVERIFY(settlePlan(b->document));
        QVERIFY(!b->find<QPushButton>("meterCrossing")); // none is connected
        b->go(MainWindow::Measure);
        QVERIFY(b->click("joinMeter"));
        auto* socket = b->find<QLineEdit>("meterSocket");
        socket->setText(name);
        QTest::keyClick(socket, Qt::Key_Return);
        QVERIFY(QTest::qWaitFor([&] { return b->find<QPushButton>("takeReading") != nullptr; }));
        b->go(MainWindow::SetOut);
        QVERIFY(b->click("basePackers"));
        const auto readings = [&] { return b->document.job().surface("ceiling")->packing.readings; };
        const auto before = readings();
        const Measurement measured = b->document.job().surface("ceiling")->measurement;
        const int at = view(*b)->inHand();
        sim.setTrueLength({63.4});
        QVERIFY(b->click("meterCrossing"));
        const auto where = b->document.plan()->surface("ceiling")->packed.crossings[static_cast<std::size_t>(at)].where;
        QVERIFY(QTest::qWaitFor([&] {
            for (const CrossingReading& r : readings())
                if (r.at(where) && r.reading && r.reading->length == Mm{63.4}) return true;
            return false;
        }));
        QVERIFY(settlePlan(b->document));
        QVERIFY(b->document.job().surface("ceiling")->measurement == measured);
        const auto after = readings();
        sim.setMood(MeterMood::Weak);
        QVERIFY(b->click("meterCrossing"));
        QVERIFY(QTest::qWaitFor([&] { return b->sentenceShown().contains(QStringLiteral("too weak")); }));
        QVERIFY(readings() == after && after != before);
    }

    void battensAreSetBySpanForThisOptionAlone() {
        auto b = baseOf("floor");
        QVERIFY(b->click("baseBattens"));
        const auto count = [&] {
            const SurfacePlan* plan = b->document.plan()->surface("floor");
            return plan->layers[2].take.lengths.size();
        };
        const auto before = count();
        QVERIFY(b->click("battensBySpan"));
        QVERIFY(settlePlan(b->document));
        QVERIFY(!b->document.job().finish("floor").layers[2].battens.empty());
        QVERIFY(b->click("battensAsMeasured"));
        QVERIFY(settlePlan(b->document));
        QCOMPARE(count(), before);
    }

    void lampsAreSpacedAndWhatIsTooNearIsShifted() {
        auto b = baseOf("ceiling");
        QVERIFY(b->click("baseOpenings"));
        QVERIFY(b->type("lampCount", "8"));
        QVERIFY(b->type("lampRows", "2"));
        QVERIFY(b->click("spaceLamps"));
        QVERIFY(settlePlan(b->document));
        int lamps = 0;
        for (const PlacedOpening& o : b->document.plan()->surface("ceiling")->shape.openings)
            lamps += b->document.job().surface("ceiling")->openings[static_cast<std::size_t>(o.opening)].kind ==
                             OpeningKind::Lamp
                         ? 1
                         : 0;
        QCOMPARE(lamps, 8);
        // A socket half over a rib: the sentence says so, its button shifts it.
        Opening socket;
        socket.name = "Socket";
        socket.kind = OpeningKind::Socket;
        socket.shape = OpeningShape::Round;
        socket.width = mm(60);
        const PlacedSupport rib = b->document.plan()->surface("left-lower")->shape.supports[2];
        socket.place = {
            .side = 0, .fromSide = mm(300), .cross = 3, .fromCross = mm(std::round(rib.centre)), .toCentre = true};
        push(b->document, addOpening(b->document, "left-lower", socket));
        b->document.setCurrentSurface("left-lower");
        QVERIFY(settlePlan(b->document));
        QVERIFY2(b->sentenceShown().contains(QStringLiteral("Socket")), qPrintable(b->sentenceShown()));
        QVERIFY(b->click("doIt"));
        const SurfacePlan* plan = b->document.plan()->surface("left-lower");
        for (const Remark& r : plan->remarks) QVERIFY(r.kind != RemarkKind::OpeningOnSupport);
    }

    void aBoxIsBuiltOverAnArch() {
        Bench b(demoJob());
        b.document.setCurrentSurface("floor");
        b.go(MainWindow::Measure);
        QVERIFY(b.click("groupBox"));
        QVERIFY(b.click("box0"));
        const std::size_t boxes = b.document.job().archBoxes.size();
        QVERIFY(b.click("addBox"));
        QCOMPARE(b.document.job().archBoxes.size(), boxes + 1);
        QVERIFY(b.type("boxFigure1", "31 cm"));
        QVERIFY(b.type("boxFigure2", "240"));
        QVERIFY(settlePlan(b.document));
        const ArchBox& box = b.document.job().archBoxes.back();
        QCOMPARE(box.height->length, Mm{310});
        QCOMPARE(b.document.job().surface("floor")->measurement.notches[0].depth->length, Mm{240});
        QCOMPARE(boundsOf(b.document.plan()->surface(box.top)->measured.outline).height(), 240.0);
        // A face that leans further than the box is deep: told in a sentence, the figure stays as it was typed.
        QVERIFY(b.type("boxFigure3", "300"));
        QVERIFY(settlePlan(b.document));
        bool told = false;
        for (const Remark& r : b.document.plan()->remarks) told = told || r.kind == RemarkKind::ArchBoxImpossible;
        QVERIFY(told);
        QCOMPARE(b.document.job().archBoxes.back().rake->length, Mm{300});
    }

    void theFixingPlanIsPrinted() {
        auto b = baseOf("right-lower");
        const QString path = b->folder.filePath(QStringLiteral("fixings.pdf"));
        QCOMPARE(view(*b)->printTo(path), QString());
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly) && file.read(5) == "%PDF-");
        QVERIFY(file.size() > 10000); // every panel with its places
        QVERIFY(!view(*b)->printTo(QStringLiteral("/no/such/folder/fixings.pdf")).isEmpty());
    }

    void everyGroupIsDrawn() {
        auto b = baseOf("ceiling");
        for (const char* group : {"baseFixings", "baseBattens", "basePackers", "baseOpenings"}) {
            QVERIFY(b->click(group));
            QVERIFY2(inkOn(view(*b)->bench()) > 0.1, group);
        }
    }
};

WESTRUM_TEST(BaseStageTest)

#include "base_stage_test.moc"
