#include <QtTest>

#include "app/stages/measure/measure_page.h"
#include "app/stages/setout/edge_view.h"
#include "core/setout/edge_trims.h"
#include "tests/app/bench.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

/// Edges in the real window: runs and joints pointed at, trims overruled, the saw's setting told.
class EdgesStageTest : public QObject {
    Q_OBJECT
    static std::unique_ptr<Bench> edgesOf(const std::string& surface) {
        auto b = std::make_unique<Bench>(demoJob());
        b->document.setCurrentSurface(surface);
        b->go(MainWindow::SetOut);
        (void)settle(b->document);
        (void)b->click("edges");
        return b;
    }
    static EdgeView* view(Bench& b) { return b.window->findChild<EdgeView*>(); }
    /// The first joint of the surface's own runs that is made like this.
    static JointPlace jointMade(Bench& b, TrimEnd end) {
        for (const auto& [place, at] : jointPlaces(*b.document.plan(), b.document.currentSurface()))
            if (jointAt(*b.document.plan(), place)->end == end) return place;
        return {};
    }

private slots:
    void aJointThatIsPointedAtSaysHowTheSawIsSet() {
        auto b = edgesOf("floor");
        QVERIFY(b->sentenceShown().contains(QStringLiteral("close its edges")));
        const JointPlace mitred = jointMade(*b, TrimEnd::Mitred);
        QVERIFY(mitred.run >= 0);
        QTest::mouseClick(view(*b)->bench(), Qt::LeftButton, {}, view(*b)->onBench(mitred).toPoint());
        QVERIFY(b->text("jointTitle").contains(QStringLiteral("mitred, outside corner")));
        QVERIFY2(b->text("jointText").contains(QStringLiteral("bevel 45°")), qPrintable(b->text("jointText")));
        // The arrow keys go on to the next joint, and back.
        const QString first = b->text("jointTitle");
        QTest::keyClick(view(*b)->bench(), Qt::Key_Right);
        QVERIFY(b->text("jointTitle") != first);
        QTest::keyClick(view(*b)->bench(), Qt::Key_Left);
        QCOMPARE(b->text("jointTitle"), first);
    }

    void aTrimIsOverruledAtItsEdgeAndTakenBack() {
        auto b = edgesOf("floor");
        const auto& runs = b->document.plan()->trims.runs;
        const auto at = std::find_if(runs.begin(), runs.end(), [](const TrimRun& r) {
            return r.surface == "floor" && r.profile == Profile::Threshold;
        });
        QVERIFY(at != runs.end());
        const int side = at->side;
        const Mm before = b->document.plan()->trims.lengthOf("step-strip");
        QTest::mouseClick(view(*b)->bench(), Qt::LeftButton, {},
                          view(*b)->onBench(static_cast<int>(at - runs.begin())).toPoint());
        QVERIFY(b->text("edgeRun").contains(QStringLiteral("Threshold strip")));
        auto* choice = b->find<QComboBox>("edgeTrim");
        QVERIFY(choice && choice->currentIndex() == 0);
        const int rail = choice->findData(QStringLiteral("rail-oak"));
        choice->setCurrentIndex(rail);
        emit choice->activated(rail);
        QVERIFY(settlePlan(b->document));
        QCOMPARE(b->document.job().surface("floor")->edge(side).trim, std::string("rail-oak"));
        QVERIFY(b->document.plan()->trims.lengthOf("step-strip") < before - Mm{1000});
        b->document.undoStack().undo();
        QVERIFY(settlePlan(b->document));
        QCOMPARE(b->document.plan()->trims.lengthOf("step-strip"), before);
    }

    /// A corner is gauged at its joint, a trim is taken for all such edges of the area; both go by one step back.
    void aCornerIsGaugedAndATrimTakenForAllOfAnArea() {
        auto b = edgesOf("floor");
        const JointPlace mitred = jointMade(*b, TrimEnd::Mitred);
        QTest::mouseClick(view(*b)->bench(), Qt::LeftButton, {}, view(*b)->onBench(mitred).toPoint());
        const TrimRun run = b->document.plan()->trims.runs[static_cast<std::size_t>(mitred.run)];
        if (run.side >= 0) {
            QVERIFY(b->type("cornerGauge", "84"));
            const Edge edge = b->document.job().surface(run.surface)->edge(run.side);
            QCOMPARE((mitred.atEnd ? edge.endDeg : edge.startDeg), std::optional(84.0));
            (void)b->type("cornerGauge", "5");
            QVERIFY2(b->sentenceShown().contains(QStringLiteral("10 to 350")), qPrintable(b->sentenceShown()));
            QTest::keyClick(b->find<EntryField>("cornerGauge"), Qt::Key_Escape);
            QVERIFY(b->type("cornerGauge", ""));
            QVERIFY(!b->document.job().surface(run.surface)->edge(run.side).endDeg &&
                    !b->document.job().surface(run.surface)->edge(run.side).startDeg);
        }
        const auto& runs = b->document.plan()->trims.runs;
        const auto skirting = std::find_if(runs.begin(), runs.end(), [](const TrimRun& r) {
            return r.surface == "floor" && r.meeting == EdgeMeeting::FloorAtWall && r.side >= 0 && !r.product.empty();
        });
        QVERIFY(skirting != runs.end());
        QTest::mouseClick(view(*b)->bench(), Qt::LeftButton, {},
                          view(*b)->onBench(static_cast<int>(skirting - runs.begin())).toPoint());
        const std::string product = skirting->product;
        QVERIFY(b->click("edgeEverywhere"));
        QCOMPARE(b->document.job().areaTrims.size(), std::size_t{1});
        QCOMPARE(b->document.job().areaTrims[0].product, product);
        QVERIFY(plain(b->find<QPushButton>("edgeEverywhere")->text()).startsWith(QStringLiteral("By rule again")));
        QVERIFY(b->click("edgeEverywhere"));
        QVERIFY(b->document.job().areaTrims.empty());
        b->document.undoStack().undo();
        QCOMPARE(b->document.job().areaTrims.size(), std::size_t{1});
    }

    void aSharedEdgeIsSeenFromBothSides() {
        auto b = edgesOf("bulkhead");
        const auto& runs = b->document.plan()->trims.runs;
        int shared = -1;
        for (std::size_t r = 0; r < runs.size(); ++r)
            if (runs[r].surface == "floor" && runs[r].neighbour == "bulkhead") shared = static_cast<int>(r);
        QVERIFY(shared >= 0);
        QTest::mouseClick(view(*b)->bench(), Qt::LeftButton, {}, view(*b)->onBench(shared).toPoint());
        QVERIFY2(b->text("edgeRun").contains(QStringLiteral("Its joints stand with")), qPrintable(b->text("edgeRun")));
    }

    void goingBetweenEdgesPiecesAndCushionsKeepsTheWindowsSize() {
        auto b = edgesOf("floor");
        const QSize size = b->window->size();
        for (const char* surface : {"bench-top", "left-lower", "floor"})
            for (int twice = 0; twice < 2; ++twice) {
                b->document.setCurrentSurface(surface);
                QVERIFY(settlePlan(b->document));
                QVERIFY(b->click("edges"));
                QCOMPARE(b->window->size(), size);
            }
    }

    void aSurfaceWithoutEdgesToCloseSaysWhatToDo() {
        auto b = edgesOf("headliner");
        QVERIFY(b->sentenceShown().contains(QStringLiteral("Say in Measure what its sides meet")));
        QTest::keyClick(view(*b)->bench(), Qt::Key_Right); // nothing to go to
        QVERIFY(b->text("jointTitle").isEmpty());
        (void)b->click("edges");
        QVERIFY(!view(*b)->isVisible());
    }

    void aLeanAndAWideningGapAreTypedInMeasure() {
        Bench b(demoJob());
        b.document.setCurrentSurface("left-lower");
        b.go(MainWindow::Measure);
        b.window->measurePage().parts().show(PartsPanel::Itself, -1);
        QVERIFY(b.type("reading-lean", "120"));
        QCOMPARE(b.document.job().surface("left-lower")->lean->length, Mm{120});
        const double tilt =
            tiltOf({b.document.job().surface("left-lower"), &b.document.plan()->surface("left-lower")->measured}, 0);
        QVERIFY(tilt < 1.57);
        b.document.setCurrentSurface("floor");
        const int rear = 3; // goes under a trim
        b.window->measurePage().parts().show(PartsPanel::Edges, rear);
        QVERIFY(b.type("edgeAllowance", "6"));
        QVERIFY(b.type("edgeGapAtEnd", "14"));
        const auto& runs = b.document.plan()->trims.runs;
        QVERIFY(std::any_of(runs.begin(), runs.end(), [&](const TrimRun& r) {
            return r.surface == "floor" && r.side == rear && r.filler && r.filler->gap1 == Mm{14};
        }));
    }
};

WESTRUM_TEST(EdgesStageTest)
#include "edges_stage_test.moc"
