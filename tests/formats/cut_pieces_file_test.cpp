#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "formats/cut_pieces_file.h"
#include "formats/demo.h"
#include "formats/job_file.h"
#include "tests/support/cuts.h"
#include "tests/support/demo_floor.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;
using namespace westrum::test;

class CutPiecesFileTest : public QObject {
    Q_OBJECT

    static ProductCut twoPieces() {
        CutPiece lid = wanted("Lid", 560, 410), flap = wanted("Klappe \xC3\x84", 300, 200);
        lid.folds = {{{0, 30}, {560, 30}}};
        flap.marks = {{{150, 0}, {150, 200}}};
        const CutProblem problem =
            problemOf(product("roll", {{"rollWidth", 1000}, {"gap", 5}, {"step", 100}}), {lid, flap});
        return cutProduct(problem, {.iterations = 200});
    }

private slots:
    void aListIsReadAsPeopleWriteIt() {
        const Job job = demoFloor();
        const auto list = readPieces("\xEF\xBB\xBFpiece;length;width;how many;surface\r\n"
                                     "Lid;56 cm;410;2;bench top\r\n"
                                     "\"Flap; left\";22 1/2\";0,3 m\r\n\r\n",
                                     job, false);
        QVERIFY(list.has_value());
        QCOMPARE(list.value().size(), 2UL);
        const LoosePiece& lid = list.value()[0];
        QCOMPARE(lid.length->length.value, 560.0);
        QCOMPARE(lid.length->typed, std::string("56 cm"));
        QCOMPARE(lid.count, 2);
        QCOMPARE(lid.surface, std::string("bench-top"));
        const LoosePiece& flap = list.value()[1];
        QCOMPARE(flap.name, std::string("Flap; left"));
        QCOMPARE(flap.length->length.value, 571.5);
        QCOMPARE(flap.width->length.value, 300.0);
        // Of bars the length is enough, and a list without a heading is one too.
        const auto bars = readPieces("Edge,900\n,1200,,3\n", job, true);
        QVERIFY(bars.has_value());
        QCOMPARE(bars.value()[1].count, 3);
        QCOMPARE(bars.value()[1].name, std::string("2"));
    }

    void whatCannotBeReadIsToldByItsLine_data() {
        QTest::addColumn<QByteArray>("bytes");
        QTest::addColumn<int>("line");
        QTest::addColumn<QString>("says");
        QTest::addRow("empty") << QByteArray("  \n") << 0 << "no pieces";
        QTest::addRow("heading only") << QByteArray("piece,length,width\n") << 0 << "no pieces";
        QTest::addRow("no width") << QByteArray("Lid,500\n") << 1 << "lacks a size";
        QTest::addRow("words") << QByteArray("Lid,500,300\nFlap,12 ells,3\n") << 2 << "Line 2";
        QTest::addRow("zero") << QByteArray("Lid,0,300\n") << 1 << "nothing that can be cut";
        QTest::addRow("negative") << QByteArray("Lid,500,-300\n") << 1 << "nothing that can be cut";
        QTest::addRow("count") << QByteArray("Lid,500,300,many\n") << 1 << "no number of pieces";
        QTest::addRow("count of none") << QByteArray("Lid,500,300,0\n") << 1 << "no number of pieces";
        QTest::addRow("endless") << QByteArray("Lid,1e300,300\n") << 1 << "Line 1";
        QTest::addRow("too many") << QByteArray("a,1,1\n").repeated(5001) << 5001 << "5 000";
    }
    void whatCannotBeReadIsToldByItsLine() {
        QFETCH(QByteArray, bytes);
        QFETCH(int, line);
        QFETCH(QString, says);
        const auto list = readPieces(bytes, demoFloor(), false);
        QVERIFY(!list.has_value());
        QCOMPARE(list.error().line, line);
        QVERIFY2(sentence(list.error()).contains(says), qPrintable(sentence(list.error())));
    }

    void aDrawingsRingsBecomePiecesWithHoles() {
        // A panel with a window, in the window a cover, and another panel: three pieces.
        const auto ring = [](double x, double y, double w, double h) {
            return Ring{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}};
        };
        OutlineDrawing drawing;
        drawing.rings = {ring(0, 0, 40, 30), ring(50, 0, 30, 30), ring(5, 5, 20, 20), ring(8, 8, 10, 10)};
        const auto pieces = piecesOf(drawing, 25.4, "door");
        QCOMPARE(pieces.size(), 3UL);
        QCOMPARE(pieces[0].shape.rings.size(), 2UL);
        QVERIFY(signedArea(pieces[0].shape.rings[1]) < 0);
        QCOMPARE(boundsOf(pieces[0].shape).width(), 1016.0);
        QCOMPARE(pieces[2].name, std::string("door 3"));
        QCOMPARE(boundsOf(pieces[2].shape).width(), 254.0);
    }

    void whatIsWrittenAsDxfIsReadAgain() {
        const ProductCut cut = twoPieces();
        const QByteArray dxf = cutPiecesAsDxf(cut);
        const auto back = readDxf(dxf);
        QVERIFY(back.has_value());
        QCOMPARE(back.value().mmPerUnit, std::optional(1.0));
        QCOMPARE(back.value().rings.size(), 3UL); // the stock and two pieces
        QCOMPARE(boundsOf(back.value().rings[1]).width(), 560.0);
        for (const char* layer : {"CUT", "FOLD", "MARK", "STOCK"})
            QVERIFY(dxf.contains(QByteArray("\n8\n") + layer + '\n'));
        QVERIFY(dxf.contains("\nKlappe \\U+00C4\n"));
        for (const char c : dxf) QVERIFY(static_cast<unsigned char>(c) < 0x80);
    }

    void whatIsWrittenAsSvgIsReadAgain() {
        const QByteArray svg = cutPiecesAsSvg(twoPieces(), QStringLiteral("a < b"));
        for (const char* group : {"CUT", "FOLD", "MARK", "STOCK"})
            QVERIFY(svg.contains(QByteArray("<g id=\"") + group + '"'));
        QVERIFY(svg.contains("a &lt; b") && svg.contains("Klappe \xC3\x84"));
        const auto back = readSvg(svg);
        QVERIFY(back.has_value());
        QVERIFY(back.value().rings.size() >= 3);
        QVERIFY(std::abs(boundsOf(back.value().rings[1]).width() * back.value().mmPerUnit.value_or(1) - 560) < 0.01);
    }

    void cutListsComeBackFromTheFile() {
        Job job = demoFloor();
        CutList& list = job.cutLists["dipper-ply"];
        list.useOwnStock = false;
        list.pieces[0].folds = {{{0, 1}, {2, 3}}};
        list.pieces[0].together = "left";
        StockEntry odd{.id = "s9", .name = "odd", .rack = true, .used = false};
        odd.shape = {{{{0, 0}, {400, 0}, {0, 300}}}};
        list.stock.push_back(odd);
        list.kept = {keep("s1", wanted("loose/p1/1", 500, 300), {12.5, 7}, 1.5)};
        list.kept[0].locked = true;
        list.kept[0].pieces[0].cut = true;
        const auto back = readJob(writeJob(job));
        QVERIFY(back.has_value());
        QVERIFY(back.value() == job);
    }

    void hostileCutListsAreRefusedWithTheirPlace_data() {
        QTest::addColumn<QByteArray>("from");
        QTest::addColumn<QByteArray>("to");
        QTest::addColumn<QString>("path");
        QTest::addRow("no object") << QByteArray("\"cutLists\": {") << QByteArray("\"cutLists\": 7, \"x\": {")
                                   << "cutLists";
        QTest::addRow("count") << QByteArray("\"count\": 2") << QByteArray("\"count\": 1e9") << ".count";
        QTest::addRow("twice") << QByteArray("\"id\": \"p2\"") << QByteArray("\"id\": \"p1\"") << ".id";
        QTest::addRow("shape") << QByteArray("\"shape\": [") << QByteArray("\"shape\": [[[1]],") << ".shape";
        QTest::addRow("flag") << QByteArray("\"rack\": true") << QByteArray("\"rack\": 1") << ".rack";
        QTest::addRow("length") << QByteArray("\"useOwnStock\": true") << QByteArray("\"useOwnStock\": \"yes\"")
                                << ".useOwnStock";
    }
    void hostileCutListsAreRefusedWithTheirPlace() {
        QFETCH(QByteArray, from);
        QFETCH(QByteArray, to);
        QFETCH(QString, path);
        QByteArray bytes = writeJob(demoFloor());
        // The lists stand at the end of the file.
        const qsizetype lists = bytes.indexOf("\"cutLists\"");
        const qsizetype at = bytes.indexOf(from, lists);
        QVERIFY(at >= 0);
        bytes.replace(at, from.size(), to);
        const auto job = readJob(bytes);
        QVERIFY(!job.has_value());
        QVERIFY2(QString::fromStdString(job.error().front().path).contains(path), job.error().front().path.c_str());
    }
};

WESTRUM_TEST(CutPiecesFileTest)
#include "cut_pieces_file_test.moc"
