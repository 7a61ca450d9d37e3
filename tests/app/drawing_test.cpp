#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/drawing/plan_view.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/theme.h"
#include "formats/demo.h"
#include "tests/app/bench.h"
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
            paintSetOut(painter, v, s.measured.outline, s.setOut, job.finish("floor").product, figuresFor(job),
                        {.names = false});
        }
        const auto at = [&](Point where) { return image.pixelColor(v.map(where).toPoint()); };
        for (const Piece& piece : s.setOut.pieces) {
            const Bounds b = boundsOf(piece.shape);
            const Point middle = (b.low + b.high) * 0.5;
            if (!contains(piece.shape, middle)) continue;
            const QColor c = at(middle + Point{20, 20});
            QVERIFY2(c.red() > c.blue(), piece.name.c_str()); // wood, not grey metal
        }
        QCOMPARE(at({1190, 100}), QColor(Qt::magenta)); // inside the right wheel arch nothing is painted
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
};
WESTRUM_TEST(DrawingTest)

#include "drawing_test.moc"
