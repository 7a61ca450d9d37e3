#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/drawing/cut_drawing.h"
#include "app/drawing/plan_view.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/theme.h"
#include "app/drawing/trim_drawing.h"
#include "formats/demo.h"
#include "tests/app/bench.h"
#include "tests/support/cuts.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

class DrawingTest : public QObject {
    Q_OBJECT
private slots:
    void theViewIsTrueToScaleAndComesBack() {
        const PlanView v(Bounds{{0, 0}, {3640, 1792}}, QRectF(10, 20, 400, 400));
        QVERIFY(std::abs(v.scale() - 400.0 / 3640) < 1e-12);
        for (const Point p : {Point{0, 0}, Point{3640, 1792}, Point{812.5, 33.25}})
            QVERIFY(distance(v.unmap(v.map(p)), p) < 1e-9);
        QVERIFY(v.map({0, 100}).y() < v.map({0, 0}).y()); // y up on the floor is up on the screen
    }

    void planksArePaintedWhereTheyLieAndMetalWhereTheyDoNot() {
        const Job job = demoJob();
        const Plan p = plan(job);
        const SurfacePlan& s = p.surfaces[0];
        QImage image(800, 420, QImage::Format_RGB32);
        image.fill(Qt::magenta);
        const PlanView v(boundsOf(s.measured.outline), QRectF(20, 20, 760, 380));
        {
            QPainter painter(&image);
            paintSetOut(painter, v, s.measured.outline, s.setOut(), job.faceProduct("floor"), figuresFor(job),
                        {.names = false});
        }
        const auto at = [&](Point where) { return image.pixelColor(v.map(where).toPoint()); };
        for (const Piece& piece : s.setOut().pieces) {
            const Bounds b = boundsOf(piece.shape);
            const Point middle = (b.low + b.high) * 0.5;
            if (!contains(piece.shape, middle)) continue;
            const QColor c = at(middle + Point{20, 20});
            QVERIFY2(c.red() > c.blue(), piece.name.key().c_str()); // wood, not grey metal
        }
        QCOMPARE(at({1190, 100}), QColor(Qt::magenta)); // inside the right wheel arch nothing is painted
    }

    void aLiningShowsItsMarginsAndATrimItsEdge() {
        const Job job = demoJob();
        const Plan p = plan(job);
        const SurfacePlan& s = *p.surface("left-lower");
        QImage image(900, 420, QImage::Format_RGB32);
        image.fill(Qt::magenta);
        const PlanView v(boundsOf(s.setOut().pieces[0].cut), QRectF(40, 40, 700, 300));
        const auto at = [&](Point where) { return image.pixelColor(v.map(where).toPoint()); };
        const Bounds cut = boundsOf(s.setOut().pieces[0].cut);
        const Point margin{cut.low.x + 20, (cut.low.y + cut.high.y) / 2};
        {
            QPainter painter(&image);
            paintSetOut(painter, v, s.measured.outline, s.setOut(), job.faceProduct("left-lower"), figuresFor(job),
                        {.names = false});
        }
        QCOMPARE(at(margin), QColor(Qt::magenta)); // on the map only what covers the metal
        {
            QPainter painter(&image);
            paintSetOut(painter, v, s.measured.outline, s.setOut(), job.faceProduct("left-lower"), figuresFor(job),
                        {.names = false, .margins = true});
        }
        QVERIFY(at(margin) != QColor(Qt::magenta));
        const QImage before = image;
        {
            QPainter painter(&image);
            paintTrims(painter, v, job, p, "left-lower", {.joints = true});
        }
        QVERIFY(image != before);
    }

    void theSawLeansAsItIsSet() {
        const auto drawn = [](const SawSetting& saw, bool atEnd) {
            QImage image(260, 200, QImage::Format_RGB32);
            image.fill(Qt::white);
            QPainter painter(&image);
            TrimJoint j;
            j.end = TrimEnd::Mitred;
            j.saw = saw;
            paintSaw(painter, QRectF(0, 0, 260, 200), j, atEnd, Figures{});
            return image;
        };
        const QImage square = drawn({}, true);
        QVERIFY(drawn({0.6, 0, LongEdge::Bottom}, true) != square);
        QVERIFY(drawn({0, 0.6, LongEdge::Equal}, true) != square);
        QVERIFY(drawn({0.6, 0, LongEdge::Bottom}, true) != drawn({0.6, 0, LongEdge::Top}, true));
        QVERIFY(drawn({0.6, 0, LongEdge::Bottom}, true) != drawn({0.6, 0, LongEdge::Bottom}, false));
    }

    void theEveningIsDarkAndEveryViewStillPaints() {
        Theme::choose(true);
        QVERIFY(Theme::now().paper.lightness() < 80 && Theme::now().graphite.lightness() > 180);
        Bench b(demoJob());
        for (int stage = MainWindow::Measure; stage <= MainWindow::Log; ++stage) {
            b.go(static_cast<MainWindow::Stage>(stage));
            const QImage image = b.window->grab().toImage();
            for (const QPoint corner : {QPoint(2, 2), QPoint(image.width() - 3, 2), QPoint(2, image.height() - 3),
                                        QPoint(image.width() - 3, image.height() - 3)})
                QVERIFY2(image.pixelColor(corner).lightness() < 90, qPrintable(QString::number(stage)));
        }
        Theme::choose(false);
    }

    void figuresHaveOneWidth() {
        // Tabular figures: columns of numbers stand under each other.
        const QFontMetricsF metrics(textFont());
        for (char digit = '1'; digit <= '9'; ++digit)
            QCOMPARE(metrics.horizontalAdvance(QLatin1Char(digit)), metrics.horizontalAdvance(QLatin1Char('0')));
    }

    void nothingIsCutOffWithLargeText() {
        const QFont before = QApplication::font();
        QFont large = before;
        large.setPointSizeF(before.pointSizeF() * 1.5);
        QApplication::setFont(large);
        {
            Bench b(demoJob());
            for (int stage = MainWindow::Measure; stage <= MainWindow::Log; ++stage)
                b.go(static_cast<MainWindow::Stage>(stage));
            QVERIFY2(b.window->width() >= b.window->minimumSizeHint().width(),
                     qPrintable(QString::number(b.window->minimumSizeHint().width())));
        }
        QApplication::setFont(before);
    }

    void aSheetIsDrawnWithItsPiecesLeftoversAndStrokes() {
        CutProblem problem = problemOf(product("sheet", {{"length", 2000}, {"width", 1000}, {"edgeTrim", 0}}),
                                       {wanted("lid", 800, 400)});
        const ProductCut cut = cutProduct(problem, {.iterations = 50});
        QImage image(840, 440, QImage::Format_RGB32);
        image.fill(Qt::magenta);
        const PlanView v(Bounds{{0, 0}, {2000, 1000}}, QRectF(20, 20, 800, 400));
        {
            QPainter painter(&image);
            paintCutItem(painter, v, newJob("x", "Floor", {}, {}), cut, cut.items[0], {}, {.inside = false});
        }
        const auto at = [&](Point p) { return image.pixelColor(v.map(p).toPoint()); };
        QVERIFY(at({200, 300}).red() > at({200, 300}).blue() + 6); // wood
        QCOMPARE(cut.items[0].left.size(), 2UL);
        for (const LeftRectangle& left : cut.items[0].left)
            QCOMPARE(at({left.x + left.widthMm / 2, left.y + left.heightMm / 2}), Theme::now().agreedWash);
        QCOMPARE(image.pixelColor(5, 5), QColor(Qt::magenta)); // nothing beyond the sheet
    }

    void cutsAreSaidAsTheyAreMarked() {
        CutItem item;
        item.lengthMm = 2440;
        item.widthMm = 1220;
        item.pieces.resize(2);
        item.pieces[0].name = "Lid";
        item.pieces[1].name = "Flap";
        const auto said = [&](const CutStep& step) {
            return plain(stepText(item, step, {})).replace(QChar(0x202F), QLatin1Char(' '));
        };
        QCOMPARE(said({CutStep::Kind::Across, 1545, 0, 1220, 1545, {}}), QStringLiteral("across at 1 545"));
        QCOMPARE(said({CutStep::Kind::Across, 1545, 0, 1220, 1540, {0}}),
                 QStringLiteral("across at 1 545 (part 1 540)  →  Lid"));
        QCOMPARE(said({CutStep::Kind::Along, 425, 5, 1545, 425, {0, 1}}),
                 QStringLiteral("along at 425, between 5 and 1 545  →  Lid, Flap"));
        QCOMPARE(said({CutStep::Kind::ByOutline, 0, 100, 660, 0, {1}}),
                 QStringLiteral("by its outline, 100 to 660  →  Flap"));
    }

    void itemsAreCalledByWhatTheyAre() {
        ProductCut cut;
        cut.items.resize(4);
        cut.items[1].rack = true;
        cut.items[1].name = "from the shed";
        cut.items[2].stock = "s1";
        cut.items[2].name = "half";
        cut.items[3].rack = true;
        cut.items[3].stock = "offcut/plank/floor/3.1";
        cut.items[3].name = "6";
        QCOMPARE(plain(itemName(cut, 0, "sheet")), QStringLiteral("Sheet 1"));
        QCOMPARE(plain(itemName(cut, 1, "sheet")), QStringLiteral("From the rack: from the shed"));
        QCOMPARE(plain(itemName(cut, 2, "sheet")), QStringLiteral("Sheet 2, half"));
        QCOMPARE(plain(itemName(cut, 3, "planks")), QStringLiteral("Offcut of plank 6"));
        QCOMPARE(plain(itemName(cut, 0, "roll")), QStringLiteral("Run 1 of the roll"));
        QCOMPARE(sizeText(1234.5, 0, StockForm::Lengths, {}).replace(QChar(0x202F), QLatin1Char(' ')),
                 QStringLiteral("1 234.5"));
    }

    void aTapeShowsWhereTheBladeGoes() {
        CutItem item;
        item.lengthMm = 1000;
        item.widthMm = 30;
        item.kerfMm = 10;
        item.order = {{CutStep::Kind::Across, 500, 0, 30, 500, {}}};
        QImage image(1020, 100, QImage::Format_RGB32);
        image.fill(Qt::white);
        {
            QPainter painter(&image);
            paintTape(painter, QRectF(10, 10, 1000, 80), item, {});
        }
        // The line stands at 500, its kerf on the far side of it.
        const QColor line = image.pixelColor(510, 28);
        QVERIFY(line.red() > line.green() + 60);
        QVERIFY(image.pixelColor(516, 28) != image.pixelColor(502, 28));
    }
};
WESTRUM_TEST(DrawingTest)

#include "drawing_test.moc"
