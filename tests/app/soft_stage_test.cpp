#include <QtTest>

#include "app/document/shell_commands.h"
#include "app/stages/setout/cushion_picture.h"
#include "app/stages/setout/roll_strip.h"
#include "app/stages/setout/set_out_bench.h"
#include "tests/app/bench.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

/// Linings and upholstery in the real window: seams and allowances moved by hand, the roll beside them, the cushion.
class SoftStageTest : public QObject {
    Q_OBJECT
    static std::unique_ptr<Bench> at(const std::string& surface) {
        auto b = std::make_unique<Bench>(demoJob());
        b->document.setCurrentSurface(surface);
        b->go(MainWindow::SetOut);
        (void)settlePlan(b->document);
        return b;
    }
    static const SetOut& laid(Bench& b, const std::string& surface) {
        return b.document.plan()->surface(surface)->setOut();
    }
    static SetOutBench* bench(Bench& b) { return b.window->findChild<SetOutBench*>(); }
    static bool drag(Bench& b, QPointF from, QPointF by) {
        SetOutBench* w = bench(b);
        QTest::mousePress(w, Qt::LeftButton, {}, from.toPoint());
        for (const double share : {0.4, 1.0}) {
            const QPointF p = from + by * share;
            QMouseEvent move(QEvent::MouseMove, p, w->mapToGlobal(p), Qt::LeftButton, Qt::LeftButton, {});
            QCoreApplication::sendEvent(w, &move);
        }
        QTest::mouseRelease(w, Qt::LeftButton, {}, (from + by).toPoint());
        return settlePlan(b.document);
    }

private slots:
    void aSeamIsDraggedAndNudged() {
        auto b = at("left-lower");
        QCOMPARE(laid(*b, "left-lower").joints.size(), 1UL);
        const double before = laid(*b, "left-lower").joints[0].from.x;
        const int steps = b->document.undoStack().index();
        const QPointF handle = bench(*b)->jointHandle(0);
        QVERIFY(!handle.isNull());
        QVERIFY(drag(*b, handle, {8, 0}));
        const double after = laid(*b, "left-lower").joints[0].from.x;
        QVERIFY(after > before + 5);
        QVERIFY(laid(*b, "left-lower").joints[0].byHand);
        QCOMPARE(b->document.undoStack().index(), steps + 1);
        bench(*b)->setFocus();
        QTest::keyClick(bench(*b), Qt::Key_Left, Qt::ShiftModifier);
        QVERIFY(settlePlan(b->document));
        QVERIFY(std::abs(laid(*b, "left-lower").joints[0].from.x - (after - 10)) < 1e-6);
        // Too far, the one strip is wider than the roll: said, and nothing lost.
        push(b->document, moveJoints(b->document, "left-lower", {600}, 99));
        QVERIFY(settlePlan(b->document));
        QVERIFY2(b->sentenceShown().contains(QStringLiteral("the roll gives")), qPrintable(b->sentenceShown()));
        b->document.undoStack().undo();
        QVERIFY(b->click("freeJoints"));
        QVERIFY(std::abs(laid(*b, "left-lower").joints[0].from.x - before) < 1e-6);
    }

    void anAllowanceIsDraggedAndTheRollFollows() {
        auto b = at("pillar-1-left");
        const double before = boundsOf(laid(*b, "pillar-1-left").pieces[0].cut).height();
        const QPointF handle = bench(*b)->allowanceHandle();
        QVERIFY(!handle.isNull());
        const double mm = 20 * (bench(*b)->onScreen({0, 0}).y() - bench(*b)->onScreen({0, 1}).y());
        QVERIFY(drag(*b, handle, {0, -mm}));
        const double allowance = b->document.job().face("pillar-1-left")->rules.at("allowance");
        QVERIFY(allowance > 55 && allowance < 76); // a pixel is some millimetres
        QVERIFY(std::abs(boundsOf(laid(*b, "pillar-1-left").pieces[0].cut).height() - before - 2 * (allowance - 45)) <
                1);
        QTRY_VERIFY_WITH_TIMEOUT(b->text("rollText").contains(QStringLiteral("off the roll for the whole van")), 60000);
        QVERIFY(inkOn(b->window->findChild<RollStrip*>()) > 0.02);
        // The floor's up-stand has a handle of its own.
        b->document.setCurrentSurface("garage-floor");
        QVERIFY(settlePlan(b->document));
        QVERIFY(drag(*b, bench(*b)->allowanceHandle(), {0, -6}));
        QVERIFY(b->document.job().face("garage-floor")->rules.at("upstand") > 60);
    }

    void aReliefCutIsAddedDraggedNudgedAndTakenAway() {
        auto b = at("pillar-1-left");
        const auto cuts = [&] { return b->document.job().face("pillar-1-left")->reliefs; };
        QVERIFY(b->click("reliefCut"));
        QVERIFY(settlePlan(b->document));
        QCOMPARE(cuts().size(), 1UL);
        QCOMPARE(laid(*b, "pillar-1-left").reliefs, cuts());
        const ReliefCut before = cuts()[0];
        QVERIFY(drag(*b, bench(*b)->reliefHandle(1), {0, -6})); // its inner end: deeper
        QCOMPARE(cuts()[0].from, before.from);
        QVERIFY(cuts()[0].to.y > before.to.y);
        const Point deep = cuts()[0].to;
        QTest::keyClick(bench(*b), Qt::Key_Up, Qt::ShiftModifier);
        QVERIFY(settlePlan(b->document));
        QCOMPARE(cuts()[0].to, (Point{deep.x, deep.y + 10}));
        QVERIFY(drag(*b, bench(*b)->reliefHandle(0), {5, 0})); // its outer end: all of it goes along
        QVERIFY(cuts()[0].from.x > before.from.x);
        QCOMPARE(cuts()[0].to.y - cuts()[0].from.y, deep.y + 10 - before.from.y);
        QTest::keyClick(bench(*b), Qt::Key_Delete);
        QVERIFY(settlePlan(b->document));
        QVERIFY(cuts().empty());
        b->document.undoStack().undo();
        QCOMPARE(cuts().size(), 1UL);
    }

    void whereItStretchesTooLittleACutIsOfferedAndTaken() {
        // The ceiling in stretch lining, domed far more than it is: lockers hide a cut along one side.
        auto b = at("ceiling");
        push(b->document, chooseProduct(b->document, "ceiling", "thrush-lining"));
        push(b->document, takeReading(b->document, "ceiling", "h0", Reading{"420", {420}}));
        push(b->document, takeReading(b->document, "ceiling", "rise2", Reading{"900", {900}}));
        QVERIFY(settlePlan(b->document));
        QVERIFY(laid(*b, "ceiling").proposedRelief.has_value());
        const auto& remarks = b->document.plan()->surface("ceiling")->remarks;
        QVERIFY(std::any_of(remarks.begin(), remarks.end(), [&](const Remark& r) {
            return sentence(r, figuresFor(b->document.job())).contains(QStringLiteral("or a relief cut of"));
        }));
        const ReliefCut offered = *laid(*b, "ceiling").proposedRelief;
        QTest::mouseClick(bench(*b), Qt::LeftButton, {}, bench(*b)->proposalHandle().toPoint());
        QVERIFY(settlePlan(b->document));
        QCOMPARE(b->document.job().face("ceiling")->reliefs, std::vector{offered});
        QVERIFY(laid(*b, "ceiling").proposedRelief != offered);
    }

    void ofSeveralCushionsThatInHandIsUnfolded() {
        auto b = at("bench-top");
        push(b->document, setRule(b->document, "bench-top", "cushions", 2));
        QVERIFY(settlePlan(b->document));
        const SetOut& s = laid(*b, "bench-top");
        QCOMPARE(bench(*b)->unitInHand(), 0);
        const double before = bench(*b)->onScreen({100, 0}).x() - bench(*b)->onScreen({0, 0}).x();
        for (const Piece& p : s.pieces)
            if (p.name == "2 top") {
                const Bounds c = boundsOf(p.shape);
                QTest::mouseClick(bench(*b), Qt::LeftButton, {}, bench(*b)->onScreen((c.low + c.high) * 0.5).toPoint());
            }
        QCOMPARE(bench(*b)->unitInHand(), 2);
        // Its borders lie round it: the whole is drawn smaller.
        const double after = bench(*b)->onScreen({100, 0}).x() - bench(*b)->onScreen({0, 0}).x();
        QVERIFY(after < before);
    }

    void whatTurningWouldSaveIsTried() {
        auto b = at("garage-floor"); // a roll with little on it
        QTRY_VERIFY_WITH_TIMEOUT(b->text("rollText").contains(QStringLiteral("off the roll")), 60000);
        QVERIFY(b->click("ifTurned"));
        QTRY_VERIFY_WITH_TIMEOUT(b->text("rollText").contains(QStringLiteral("with its nap")), 60000);
        QVERIFY(b->text("rollText").contains(QStringLiteral("turned half round")));
    }

    void theNapIsTurnedAndItsNeighbourComplains() {
        auto b = at("left-lower");
        QVERIFY(b->document.plan()->remarks.end() ==
                std::find_if(b->document.plan()->remarks.begin(), b->document.plan()->remarks.end(),
                             [](const Remark& r) { return r.kind == RemarkKind::NapDisagrees; }));
        push(b->document, setRule(b->document, "left-lower", "pile", 2));
        QVERIFY(settlePlan(b->document));
        const auto& remarks = b->document.plan()->remarks;
        const auto told = std::find_if(remarks.begin(), remarks.end(),
                                       [](const Remark& r) { return r.kind == RemarkKind::NapDisagrees; });
        QVERIFY(told != remarks.end());
        QVERIFY(sentence(*told, Figures{}).contains(QStringLiteral("two colours")));
    }

    void aWrappedPanelAndFilmAreSetOut() {
        auto b = at("sliding-door");
        QCOMPARE(laid(*b, "sliding-door").pieces.size(), 2UL);
        QVERIFY(laid(*b, "sliding-door").pieces[0].folds.size() >= 4);
        b->go(MainWindow::Fit);
        QStringList titles;
        for (const FitStep& s : b->document.plan()->surface("sliding-door")->steps)
            titles << stepTitle(s, Figures{}) << stepBody(s, Figures{});
        QVERIFY(titles.join(QLatin1Char('\n')).contains(QStringLiteral("Clip them in")));
        b->go(MainWindow::SetOut);
        QVERIFY(b->choose("product", QStringLiteral("Dusk window film")));
        push(b->document, setRule(b->document, "sliding-door", "face", 2));
        QVERIFY(settlePlan(b->document));
        QCOMPARE(laid(*b, "sliding-door").pieces.size(), 1UL);
        push(b->document, chooseProduct(b->document, "bench-front", "dusk-film"));
        b->document.setCurrentSurface("bench-front");
        push(b->document, setRule(b->document, "bench-front", "face", 2));
        QVERIFY(settlePlan(b->document));
        QVERIFY2(b->sentenceShown().contains(QStringLiteral("has no window")), qPrintable(b->sentenceShown()));
    }

    void aCushionIsShownAndMadeAnotherWay() {
        auto b = at("bench-top-right");
        auto* picture = b->window->findChild<CushionPicture*>();
        QVERIFY(picture && picture->isVisible());
        QVERIFY(b->text("setOutFigures").contains(QStringLiteral("one sits 464 mm over the floor")));
        QVERIFY(b->text("setOutFigures").contains(QStringLiteral("of piping cord")));
        const QImage boxed = picture->grab().toImage();
        push(b->document, setRule(b->document, "bench-top-right", "style", 1));
        QVERIFY(settlePlan(b->document));
        QVERIFY(picture->grab().toImage() != boxed);
        QCOMPARE(laid(*b, "bench-top-right").pieces.size(), 5UL); // two tops, two bottoms, a run for piping
        // Without foam and without a height it says what to do.
        push(b->document, removeLayer(b->document, "bench-top-right", 1));
        QVERIFY(settlePlan(b->document));
        QVERIFY2(b->sentenceShown().contains(QStringLiteral("needs a height")), qPrintable(b->sentenceShown()));
        QVERIFY(!picture->isVisible());
        b->document.undoStack().undo();
        b->document.undoStack().undo();
        QVERIFY(settlePlan(b->document));
        QVERIFY(picture->isVisible());
    }

    void everySoftSurfaceHasItsCautionsAndIsBought() {
        Bench b(demoJob());
        QVERIFY(settleCuts(b.document));
        for (const char* surface : {"left-upper", "garage-floor", "pillar-1-left", "bench-top", "headliner"}) {
            QString all;
            for (const FitStep& s : b.document.plan()->surface(surface)->steps) {
                QVERIFY2(!stepTitle(s, Figures{}).isEmpty() && !stepBody(s, Figures{}).isEmpty(), surface);
                if (s.caution) all += cautionText(*s.caution);
            }
            QVERIFY2(!all.isEmpty(), surface);
            const bool airbags = QString::fromUtf8(surface).contains(QStringLiteral("pillar"));
            QVERIFY2(!airbags || all.contains(QStringLiteral("Curtain airbags")), surface);
        }
        b.go(MainWindow::Buy);
        const auto bought = [&](const char* product) {
            const auto& all = b.document.plan()->purchases;
            return std::any_of(all.begin(), all.end(),
                               [&](const Purchase& p) { return p.product == product && p.cost; });
        };
        for (const char* product : {"thrush-lining", "coot-vinyl", "siskin-weave", "seat-foam-80", "skirting-spruce"})
            QVERIFY2(bought(product), product);
    }
};

WESTRUM_TEST(SoftStageTest)
#include "soft_stage_test.moc"
