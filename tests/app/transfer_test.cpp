#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/print/measuring_sheet.h"
#include "app/stages/measure/import_preview.h"
#include "app/stages/measure/measure_page.h"
#include "app/stages/measure/photograph_tracer.h"
#include "core/geometry/boolean.h"
#include "tests/app/bench.h"
#include "tests/support/demo_floor.h"
#include "tests/support/registry.h"

#include <QAbstractButton>
#include <QMessageBox>
#include <QTimer>

using namespace westrum;
using namespace westrum::test;

/// Outlines from drawings and photographs, and out again to files and paper.
class TransferTest : public QObject {
    Q_OBJECT

    static QString written(const QTemporaryDir& dir, const char* name, const QByteArray& bytes) {
        const QString path = dir.filePath(QString::fromUtf8(name));
        QFile file(path);
        if (file.open(QIODevice::WriteOnly)) file.write(bytes);
        return path;
    }
    static const SurfacePlan& plan(Bench& b, const char* id) { return *b.document.plan()->surface(id); }

private slots:
    void aDrawingIsLookedAtThenTakenIn() {
        // A panel with a slanting side and a hatch, in a drawing without a unit.
        OutlineDrawing drawing;
        drawing.rings = {{{10, 10}, {130, 10}, {120, 90}, {10, 90}}, {{30, 30}, {60, 32}, {58, 50}, {31, 50}}};
        ImportPreview preview(drawing, Figures{});
        QVERIFY(preview.said().contains(QStringLiteral("120 × 80")));
        auto* unit = preview.findChild<QComboBox*>(QStringLiteral("importUnit"));
        unit->setCurrentIndex(2); // metres: no van has such a panel
        QVERIFY(preview.said().contains(QStringLiteral("is the unit right")));
        QVERIFY(!preview.findChild<QPushButton*>(QStringLiteral("takeIn"))->isEnabled());
        unit->setCurrentIndex(1); // centimetres
        QVERIFY(preview.findChild<QPushButton*>(QStringLiteral("takeIn"))->isEnabled());
        QVERIFY(inkOn(&preview) > 0.02);

        Bench b(demoFloor());
        push(b.document, takeOutlineIn(b.document, "shelf", preview.outline(), preview.openings()));
        QVERIFY(settlePlan(b.document));
        const SurfacePlan& shelf = plan(b, "shelf");
        QVERIFY(std::abs(areaMm2(shelf.measured.outline) - (1200.0 + 1100.0) / 2 * 800) < 2);
        QCOMPARE(shelf.shape.openings.size(), std::size_t{1});
        // The hatch lies where the drawing has it: its corners, less the drawing's own corner.
        for (const Point p : {Point{200, 200}, {500, 220}, {480, 400}, {210, 400}}) {
            double nearest = 1e9;
            for (const Point q : shelf.shape.openings[0].shape) nearest = std::min(nearest, distance(p, q));
            QVERIFY2(nearest < 0.1, qPrintable(QString::number(nearest)));
        }
        QCOMPARE(b.document.undoStack().count(), 1);
        b.document.undoStack().undo();
        QVERIFY(b.document.job() == demoFloor());
    }

    void aFileThatCannotBeReadChangesNothing() {
        Bench b(demoFloor());
        b.go(MainWindow::Measure);
        QTemporaryDir dir;
        for (const auto& [name, bytes] : {std::pair{"a.dxf", QByteArray("rubbish\n")},
                                          {"b.svg", QByteArray("<svg>")},
                                          {"c.csv", QByteArray("1,2\n3,x\n")},
                                          {"d.dxf", QByteArray()}}) {
            b.window->measurePage().importFrom(written(dir, name, bytes));
            QVERIFY2(b.sentenceShown().contains(QStringLiteral("was not taken in")), name);
        }
        b.window->measurePage().importFrom(QStringLiteral("/no/such/file.dxf"));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("cannot be opened")));
        b.window->measurePage().tracePhotograph(written(dir, "e.jpg", "no picture"));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("no picture that can be read")));
        QVERIFY(b.document.job() == demoFloor());
    }

    void aListOfReadingsIsLookedAtThenTakenIn() {
        Bench b(demoFloor());
        b.document.setCurrentSurface("shelf");
        b.go(MainWindow::Measure);
        QTemporaryDir dir;
        const QString path = written(dir, "shelf.csv", "place,length\na,1700\nb,38 cm\n");
        const auto answer = [&](const char* with) {
            QTimer::singleShot(50, [with] {
                for (QWidget* top : QApplication::topLevelWidgets())
                    if (auto* box = qobject_cast<QMessageBox*>(top))
                        for (QAbstractButton* button : box->buttons())
                            if (plain(button->text()) == QString::fromUtf8(with)) button->click();
            });
        };
        answer("Leave them");
        b.window->measurePage().importFrom(path);
        QVERIFY(b.document.job() == demoFloor());
        answer("Take them in");
        b.window->measurePage().importFrom(path);
        QVERIFY(settlePlan(b.document));
        QVERIFY(std::abs(areaMm2(plan(b, "shelf").measured.outline) - 1700.0 * 380) < 1);
        QCOMPARE(b.document.undoStack().count(), 1);
        b.window->measurePage().importFrom(written(dir, "bad.csv", "a,1700\nb,long\n"));
        QVERIFY2(b.sentenceShown().contains(QStringLiteral("Line 2")), qPrintable(b.sentenceShown()));
        QCOMPARE(b.document.undoStack().count(), 1);
    }

    void outlinesAndSheetsAreWritten() {
        Bench b(demoFloor());
        b.document.setCurrentSurface("left-upper");
        b.go(MainWindow::Measure);
        QTemporaryDir dir;
        for (const char* ending : {"dxf", "svg", "csv"}) {
            const QString path = dir.filePath(QStringLiteral("wall.") + QString::fromUtf8(ending));
            QVERIFY(b.window->measurePage().exportTo(path));
            const auto back = readOutlineFile(path);
            QVERIFY2(back.has_value(), ending);
            QVERIFY(std::abs(signedArea(back.value().rings[0]) - areaMm2(plan(b, "left-upper").measured.outline)) < 20);
        }
        QVERIFY(!b.window->measurePage().exportTo(QStringLiteral("/no/such/folder/wall.dxf")));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("cannot be written")));
        b.document.setCurrentSurface("shelf");
        QVERIFY(!b.window->measurePage().exportTo(dir.filePath(QStringLiteral("shelf.dxf")))); // not measured
        const QString sheets = dir.filePath(QStringLiteral("sheets.pdf"));
        for (const bool filled : {false, true}) {
            QVERIFY(b.window->measurePage().writeSheets(sheets, true, filled));
            QFile pdf(sheets);
            QVERIFY(pdf.open(QIODevice::ReadOnly));
            const QByteArray bytes = pdf.readAll();
            QVERIFY(bytes.startsWith("%PDF-"));
            QCOMPARE(bytes.count("/Type /Page\n"), qsizetype(demoFloor().surfaces.size()));
        }
    }

    void aSheetHasAPlaceForEveryReading() {
        // Filled in, figures are drawn that are not there on an empty one.
        const Job job = demoFloor();
        const auto dark = [&](bool filled) {
            QImage page(800, 1130, QImage::Format_RGB32);
            page.fill(Qt::white);
            QPainter p(&page);
            const Surface& s = *job.surface("left-lower");
            paintMeasuringSheet(p, page.rect(), job, s, outlineOf(s.measurement), Figures{}, filled);
            p.end();
            int count = 0;
            for (int y = 0; y < page.height(); ++y)
                for (int x = 0; x < page.width(); ++x) count += qGray(page.pixel(x, y)) < 100;
            return count;
        };
        QVERIFY(dark(false) > 500);
        QVERIFY(dark(true) > dark(false));
    }

    void aPhotographIsSetStraightAndTraced() {
        // A plane seen at a slant; the known rectangle is 400 x 300 on it, the panel 1200 x 800 from (-200, -150).
        Homography view;
        view.m = {0.62, 0.11, 320, -0.04, 0.5, 260, 0.00012, 0.00025, 1};
        const auto seen = [&](double x, double y) { return *view.map({x, y}); };
        Bench b(demoFloor());
        QImage picture(1600, 1200, QImage::Format_RGB32);
        picture.fill(Qt::gray);
        PhotographTracer t(b.document, picture, '.');
        const Point known[] = {{0, 0}, {400, 0}, {400, 300}, {0, 300}};
        for (std::size_t k = 0; k < 4; ++k) t.setKnown(k, known[k]);
        t.press(seen(0, 0));
        QVERIFY(!t.toPlane());
        t.press(seen(400, 0));
        t.press(seen(400, 300));
        t.press(seen(0, 300));
        QVERIFY(t.toPlane().has_value());
        QVERIFY(t.said().contains(QStringLiteral("Press the corners")));
        for (const Point p : {Point{-200, -150}, {1000, -150}, {1000, 650}, {-200, 650}}) t.press(seen(p.x, p.y));
        QVERIFY(t.ringsMm().empty()); // not closed yet
        t.closeRing();
        for (const Point p : {Point{100, 100}, {300, 100}, {300, 250}}) t.press(seen(p.x, p.y));
        t.closeRing();
        const std::vector<Ring> rings = t.ringsMm();
        QCOMPARE(rings.size(), std::size_t{2});
        QVERIFY(std::abs(std::abs(signedArea(rings[0])) - 1200.0 * 800) < 1);
        QVERIFY(std::abs(std::abs(signedArea(rings[1])) - 200.0 * 150 / 2) < 1);
        // A fifth length: the plane's 1000 mm, marked 10 mm too far, tells 10 mm.
        t.setStep(PhotographTracer::Check);
        t.press(seen(0, 0));
        t.press(seen(1010, 0));
        auto* length = t.findChild<EntryField*>(QStringLiteral("checkLength"));
        QTest::keyClicks(length, QStringLiteral("1 m"));
        QTest::keyClick(length, Qt::Key_Return);
        QVERIFY(t.checkResidualMm().has_value());
        QVERIFY(std::abs(*t.checkResidualMm() - 10) < 0.01);
        QVERIFY(inkOn(&t) > 0.02);
        push(b.document, takeOutlineIn(b.document, "shelf", rings[0], {rings[1]}));
        QVERIFY(settlePlan(b.document));
        QVERIFY(std::abs(areaMm2(plan(b, "shelf").measured.outline) - 1200.0 * 800) < 1);
    }

    void threeMarksOnALineAreAnswered() {
        Bench b(demoFloor());
        PhotographTracer t(b.document, QImage(100, 100, QImage::Format_RGB32), '.');
        for (const Point p : {Point{0, 0}, {50, 0}, {100, 0}, {0, 100}}) t.press(p);
        QVERIFY(!t.toPlane());
        QVERIFY(t.said().contains(QStringLiteral("cannot be the marks")));
        t.takeBack();
        t.press({100, 100});
        QVERIFY(!t.toPlane()); // still three on a line
    }
};
WESTRUM_TEST(TransferTest)

#include "transfer_test.moc"
