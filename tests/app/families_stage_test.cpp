#include <QtTest>

#include "app/stages/setout/set_out_bench.h"
#include "app/stages/setout/start_strip.h"
#include "tests/app/bench.h"
#include "tests/support/registry.h"

#include <QCheckBox>

using namespace westrum;
using namespace westrum::test;

/// Set out for boards, panels and tiles in the real window: what is moved by hand, and what follows.
class FamiliesStageTest : public QObject {
    Q_OBJECT
    static std::unique_ptr<Bench> at(const std::string& surface) {
        auto b = std::make_unique<Bench>(demoJob());
        b->document.setCurrentSurface(surface);
        b->go(MainWindow::SetOut);
        (void)settle(b->document);
        return b;
    }
    /// With the first of its options, boards, chosen.
    static std::unique_ptr<Bench> inBoards(const std::string& surface) {
        auto b = at(surface);
        push(b->document, chooseOption(b->document, surface, 0));
        (void)settle(b->document);
        return b;
    }
    static const SetOut& laid(Bench& b, const std::string& surface) {
        return b.document.plan()->surface(surface)->setOut();
    }
    static SetOutBench* bench(Bench& b) { return b.window->findChild<SetOutBench*>(); }
    static bool drag(Bench& b, QPointF from, QPointF to) {
        SetOutBench* w = bench(b);
        QTest::mousePress(w, Qt::LeftButton, {}, from.toPoint());
        for (const double share : {0.3, 0.7, 1.0}) {
            const QPointF p = from + (to - from) * share;
            QMouseEvent move(QEvent::MouseMove, p, w->mapToGlobal(p), Qt::LeftButton, Qt::LeftButton, {});
            QCoreApplication::sendEvent(w, &move);
        }
        QTest::mouseRelease(w, Qt::LeftButton, {}, to.toPoint());
        return settlePlan(b.document);
    }
    static QString figuresShown(Bench& b) {
        auto* label = b.find<QLabel>("setOutFigures");
        return label ? plain(label->text()).replace(QChar(0x202F), QLatin1Char(' ')) : QString();
    }

private slots:
    void theStartLineOfBoardsIsDraggedAndNudged() {
        auto b = at("ceiling");
        const double before = laid(*b, "ceiling").firstRow.value;
        const int steps = b->document.undoStack().index();
        const QPointF handle = bench(*b)->startHandle();
        QVERIFY(drag(*b, handle, handle + QPointF(0, -4)));
        QVERIFY(laid(*b, "ceiling").firstRow.value > before);
        QCOMPARE(b->document.undoStack().index(), steps + 1);                // one drag, one step
        QCOMPARE(b->document.job().face("ceiling")->rules.at("start"), 4.0); // by hand from now on
        const double offset = b->document.job().face("ceiling")->rules.at("startOffset");
        bench(*b)->setFocus();
        QTest::keyClick(bench(*b), Qt::Key_Down, Qt::ShiftModifier);
        QVERIFY(settlePlan(b->document));
        QCOMPARE(b->document.job().face("ceiling")->rules.at("startOffset"), offset + 10);
        QVERIFY(figuresShown(*b).contains(QStringLiteral("pieces")));
    }

    void theStripShowsEveryStartOfBoards() {
        auto b = at("ceiling");
        auto* strip = b->window->findChild<StartStrip*>();
        QVERIFY(strip->isVisible());
        QTest::mouseClick(strip, Qt::LeftButton, {}, QPoint(strip->width() / 3, strip->height() / 2));
        QVERIFY(settle(b->document));
        const double there = laid(*b, "ceiling").startOffset.value;
        bool found = false;
        for (const StartChoice& c : b->document.starts()->choices)
            if (c.onStrip && std::abs(c.startOffset.value - there) < 1e-6) {
                found = true;
                QCOMPARE(c.firstRow.value, laid(*b, "ceiling").firstRow.value);
                QCOMPARE(c.figures.pieces, laid(*b, "ceiling").figures.pieces);
            }
        QVERIFY(found);
    }

    void aSuggestionIsTakenByAKeyAndDoesWhatItSays() {
        auto b = inBoards("right-upper");
        const auto starts = b->document.starts();
        QVERIFY(!starts->suggestions.empty() && starts->suggestions.size() <= 3);
        const Judgement promised = starts->suggestions[0].choice.figures;
        auto* doIt = b->find<QPushButton>("doIt");
        QVERIFY(doIt && doIt->isEnabled());
        bench(*b)->setFocus();
        QTest::keyClick(bench(*b), Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(settle(b->document));
        QCOMPARE(laid(*b, "right-upper").figures.narrowestEdge.value, promised.narrowestEdge.value);
        QCOMPARE(laid(*b, "right-upper").figures.stock, promised.stock);
        QVERIFY(b->sentenceShown().contains(QStringLiteral("well set out")));
        b->document.undoStack().undo();
        QVERIFY(settle(b->document));
        QTest::keyClick(bench(*b), Qt::Key_Space, Qt::ControlModifier); // another way
        QVERIFY(!b->sentenceShown().isEmpty());
    }

    void theTaperIsSharedByHand() {
        auto b = inBoards("right-upper");
        QCOMPARE(laid(*b, "right-upper").taperBoards, 2);
        const QPointF handle = bench(*b)->taperHandle();
        QVERIFY(!handle.isNull());
        // Down by two covers of 88: four boards share it.
        const double cover = bench(*b)->onScreen({0, 0}).y() - bench(*b)->onScreen({0, 88}).y();
        QVERIFY(drag(*b, handle, handle + QPointF(0, 2.2 * cover)));
        QCOMPARE(b->document.job().face("right-upper")->rules.at("taperBoards"), 4.0);
    }

    void jointsOfPanelsAreDraggedAndSnapToSupports() {
        auto b = at("right-lower");
        const QPointF handle = bench(*b)->jointHandle(0);
        QVERIFY(!handle.isNull());
        const double before = laid(*b, "right-lower").joints[0].from.x;
        // To within a few pixels of the next rib: it falls onto its middle.
        double rib = 0;
        for (const PlacedSupport& s : b->document.plan()->surface("right-lower")->shape.supports)
            if (s.centre > before + 50 && (rib == 0 || s.centre < rib)) rib = s.centre;
        const double there = bench(*b)->onScreen({rib, 0}).x() + 5;
        QVERIFY(drag(*b, handle, {there, handle.y()}));
        QCOMPARE(b->document.job().face("right-lower")->joints.size(), 1U);
        QCOMPARE(b->document.job().face("right-lower")->joints[0], rib);
        QVERIFY(laid(*b, "right-lower").joints[0].onSupport);
        bench(*b)->setFocus();
        QTest::keyClick(bench(*b), Qt::Key_Left);
        QVERIFY(settlePlan(b->document));
        QCOMPARE(b->document.job().face("right-lower")->joints[0], rib - 1);
        QVERIFY(b->click("freeJoints"));
        QVERIFY(b->document.job().face("right-lower")->joints.empty());
    }

    void bothStartLinesOfTilesAreMoved() {
        auto b = at("wet-cell-2");
        const double column = laid(*b, "wet-cell-2").firstColumn.value, row = laid(*b, "wet-cell-2").firstRow.value;
        const QPointF grip = bench(*b)->columnHandle();
        QVERIFY(drag(*b, grip, grip + QPointF(-6, 0)));
        QVERIFY(laid(*b, "wet-cell-2").firstColumn.value < column);
        QCOMPARE(laid(*b, "wet-cell-2").firstRow.value, row);
        bench(*b)->setFocus();
        QTest::keyClick(bench(*b), Qt::Key_Up);
        QTest::keyClick(bench(*b), Qt::Key_Right, Qt::ShiftModifier);
        QVERIFY(settlePlan(b->document));
        QVERIFY(std::abs(laid(*b, "wet-cell-2").firstRow.value - row - 1) < 1.01);
    }

    void lampsGoOntoRows() {
        auto b = at("ceiling");
        push(b->document, setRules(b->document, "ceiling", {{"start", 1}})); // another start: the lamps lie off now
        QVERIFY(settlePlan(b->document));
        const auto off = [&] {
            const auto& remarks = b->document.plan()->surface("ceiling")->remarks;
            return std::any_of(remarks.begin(), remarks.end(),
                               [](const Remark& r) { return r.kind == RemarkKind::LampOffRow; });
        };
        QVERIFY(off());
        const int steps = b->document.undoStack().index();
        QVERIFY(b->click("lampsOntoRows"));
        QVERIFY(!off());
        QCOMPARE(b->document.undoStack().index(), steps + 1);
    }

    void theLayerBelowIsSetOutToo() {
        auto b = at("wet-cell-1");
        auto* layers = b->find<QComboBox>("layerInHand");
        QVERIFY(layers && layers->count() == 2);
        layers->setCurrentIndex(0);
        emit layers->activated(0);
        QVERIFY(settle(b->document));
        QVERIFY(!b->window->findChild<StartStrip*>()->isVisible()); // panels have no start line
        QVERIFY(figuresShown(*b).contains(QStringLiteral("sheet")));
        // Its rules are its own.
        QVERIFY(b->click("editRules"));
        QVERIFY(b->type("field-leastPanel", "200"));
        QCOMPARE(b->document.job().finish("wet-cell-1").layers[0].rules.at("leastPanel"), 200.0);
    }

    void anotherFamilyIsChosenAndItsFormsFollow() {
        auto b = at("bulkhead");
        QVERIFY(b->click("editProduct"));
        QVERIFY(b->find<EntryField>("field-edgeTrim"));
        auto* finish = b->find<QComboBox>("product");
        const int index = finish->findText(QStringLiteral("Wren spruce board 96"));
        finish->setCurrentIndex(index);
        emit finish->activated(index);
        QVERIFY(settle(b->document));
        QVERIFY(!b->find<EntryField>("field-edgeTrim") && b->find<EntryField>("field-cover"));
        QVERIFY(laid(*b, "bulkhead").rows.size() > 3);
        QVERIFY(b->click("editProduct")); // folded away again
        QVERIFY(!b->find<EntryField>("field-cover"));
    }

    void aPieceIsPointedAtAndToldWithItsSize() {
        auto b = at("ceiling");
        const Piece& piece = laid(*b, "ceiling").pieces[5];
        const Bounds box = boundsOf(piece.shape);
        QTest::mouseClick(bench(*b), Qt::LeftButton, {}, bench(*b)->onScreen((box.low + box.high) * 0.5).toPoint());
        QCOMPARE(bench(*b)->pieceInHand(), 5);
        QVERIFY2(figuresShown(*b).startsWith(QStringLiteral("Piece ") + pieceText(piece.name)),
                 qPrintable(figuresShown(*b)));
        const QImage alone = bench(*b)->grab().toImage();
        QVERIFY(b->click("neighbours"));
        QVERIFY(bench(*b)->grab().toImage() != alone);
    }

    void fitAndLogAreCompleteForEveryFinish() {
        Bench b(demoJob());
        for (const char* surface : {"ceiling", "right-lower", "wet-cell-1", "floor"}) {
            b.document.setCurrentSurface(surface);
            QVERIFY(settlePlan(b.document));
            b.go(MainWindow::Fit);
            QVERIFY(b.click("fitSurface"));
            QString all = b.labels();
            for (QCheckBox* t : b.window->findChildren<QCheckBox*>()) all += plain(t->text()) + QLatin1Char('\n');
            QVERIFY2(all.contains(QStringLiteral("Before you cover it")), surface);
            QVERIFY2(all.contains(QStringLiteral("airbag")) || all.contains(QStringLiteral("fuel")), surface);
            b.go(MainWindow::Log);
            QVERIFY(!b.sentenceShown().isEmpty());
        }
    }
};
WESTRUM_TEST(FamiliesStageTest)

#include "families_stage_test.moc"
