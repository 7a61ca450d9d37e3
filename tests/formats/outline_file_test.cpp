#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/geometry/boolean.h"
#include "formats/demo.h"
#include "formats/outline_file.h"
#include "formats/readings_file.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <numbers>
#include <random>

using namespace westrum;
using namespace westrum::test;

class OutlineFileTest : public QObject {
    Q_OBJECT

    static QByteArray dxf(const QByteArray& entities, int units = 4) {
        return "0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n" + QByteArray::number(units) +
               "\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" + entities + "0\nENDSEC\n0\nEOF\n";
    }
    static QByteArray line(double x1, double y1, double x2, double y2) {
        return "0\nLINE\n8\n0\n10\n" + QByteArray::number(x1) + "\n20\n" + QByteArray::number(y1) + "\n11\n" +
               QByteArray::number(x2) + "\n21\n" + QByteArray::number(y2) + '\n';
    }
    static QByteArray svg(const QByteArray& body, const QByteArray& head = "width=\"400mm\" viewBox=\"0 0 400 300\"") {
        return "<svg xmlns=\"http://www.w3.org/2000/svg\" " + head + ">" + body + "</svg>";
    }
    /// Area in mm2 of the largest ring; -1 if there is none.
    static double area(const Result<OutlineDrawing, OutlineFault>& d) {
        return d.has_value() ? signedArea(d.value().rings.front()) * std::pow(d.value().mmPerUnit.value_or(1), 2) : -1;
    }
    static bool near(double a, double b, double by) { return std::abs(a - b) <= by; }
    static bool refuses(const Result<OutlineDrawing, OutlineFault>& d, OutlineFaultKind kind) {
        return !d.has_value() && d.error().kind == kind && !sentence(d.error()).isEmpty();
    }

private slots:
    void linesInAnyOrderAndDirectionCloseARing() {
        const QByteArray box =
            line(0, 0, 500, 0) + line(500, 300, 500, 0) + line(0, 300, 0, 0) + line(500, 300, 0, 300);
        QVERIFY(near(area(readDxf(dxf(box))), 500 * 300, 1e-6));
        QCOMPARE(*readDxf(dxf(box)).value().mmPerUnit, 1.0);
        QVERIFY(near(area(readDxf(dxf(box, 5))), 5000 * 3000, 1e-3)); // centimetres
        QVERIFY(!readDxf(dxf(box, 0)).value().mmPerUnit);             // the person is asked
        QVERIFY(refuses(readDxf(dxf(line(0, 0, 500, 0) + line(500, 0, 500, 300))), OutlineFaultKind::NoOutline));
        QCOMPARE(readDxf(dxf(box + line(900, 0, 950, 0))).value().open, 1);
    }

    void aBulgeIsAnArc() {
        // 1000 x 500 with the right side a half circle of radius 250 bulging out (bulge 1).
        const QByteArray p = "0\nLWPOLYLINE\n8\n0\n90\n4\n70\n1\n10\n0\n20\n0\n10\n1000\n20\n0\n42\n1\n10\n1000\n20\n50"
                             "0\n10\n0\n20\n500\n";
        QVERIFY(near(area(readDxf(dxf(p))), 1000 * 500 + std::numbers::pi * 250 * 250 / 2, 60));
        // Inwards (bulge -0.4142: a quarter turn over the chord of 500).
        QByteArray in = p;
        in.replace("42\n1\n", "42\n-0.41421356\n");
        const double r = 250 * std::numbers::sqrt2, segment = r * r * (std::numbers::pi / 4 - 0.5);
        QVERIFY(near(area(readDxf(dxf(in))), 1000 * 500 - segment, 60));
    }

    void circlesArcsAndOldPolylines() {
        QVERIFY(near(area(readDxf(dxf("0\nCIRCLE\n8\n0\n10\n5\n20\n5\n40\n100\n"))), std::numbers::pi * 1e4, 25));
        const QByteArray half = "0\nARC\n8\n0\n10\n0\n20\n0\n40\n100\n50\n0\n51\n180\n" + line(-100, 0, 100, 0);
        QVERIFY(near(area(readDxf(dxf(half))), std::numbers::pi * 5e3, 20));
        const QByteArray old =
            "0\nPOLYLINE\n8\n0\n66\n1\n70\n1\n0\nVERTEX\n8\n0\n10\n0\n20\n0\n0\nVERTEX\n8\n0\n10\n100\n20\n0\n"
            "0\nVERTEX\n8\n0\n10\n100\n20\n80\n0\nSEQEND\n";
        QVERIFY(near(area(readDxf(dxf(old))), 100 * 80 / 2, 1e-6));
        QCOMPARE(readDxf(dxf(old + "0\nTEXT\n8\n0\n1\nhello\n")).value().passedOver, 1);
    }

    void dxfCurvesAndGapsAreMeantInMillimetres() {
        const double circle = std::numbers::pi * 50 * 50;
        // A circle of radius 50 mm in a drawing in metres.
        QVERIFY(near(area(readDxf(dxf("0\nCIRCLE\n8\n0\n10\n0\n20\n0\n40\n0.05\n", 6))), circle, 12));
        // A square of 400 mm of lines in metres, and one with a gap of 450 mm, which does not close.
        const QByteArray square = line(0, 0, 0.4, 0) + line(0.4, 0, 0.4, 0.4) + line(0.4, 0.4, 0, 0.4);
        QVERIFY(near(area(readDxf(dxf(square + line(0, 0.4, 0, 0), 6))), 160000, 1));
        QVERIFY(refuses(readDxf(dxf(line(0, 0, 2, 0) + line(2, 0, 2, 1) + line(2, 1, 0, 0.45), 6)),
                        OutlineFaultKind::NoOutline));
        // Ends that meet to 0.3 mm do, in inches too.
        QVERIFY(near(area(readDxf(dxf(line(0, 0, 10, 0) + line(10, 0, 10, 5) + line(10, 5, 0, 0.01), 1))),
                     10 * 5 / 2.0 * 645.16, 50));
        // Without a unit it is flattened by how large it is drawn.
        QVERIFY(near(area(readDxf(dxf("0\nCIRCLE\n8\n0\n10\n0\n20\n0\n40\n0.05\n", 0))), circle * 1e-6, 1e-5));
    }

    void whatIsNotSeenInADrawingIsNotTaken() {
        const QByteArray frame = "0\nLWPOLYLINE\n8\nSHEET\n90\n4\n70\n1\n10\n-500\n20\n-500\n10\n3000\n20\n-"
                                 "500\n10\n3000\n20\n2000\n10\n-500\n20\n2000\n";
        const QByteArray box =
            line(0, 0, 500, 0) + line(500, 0, 500, 300) + line(500, 300, 0, 300) + line(0, 300, 0, 0);
        const auto with = [&](const QByteArray& layer, QByteArray sheet) {
            return "0\nSECTION\n2\nHEADER\n9\n$"
                   "INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nTABLES\n0\nTABLE\n2\nLAYER\n0\n"
                   "LAYER\n2\nSHEET\n" +
                   layer + "0\nENDTAB\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" + box + sheet + "0\nENDSEC\n0\nEOF\n";
        };
        QVERIFY(near(area(readDxf(with("70\n0\n62\n7\n", frame))), 3500 * 2500, 1));
        QVERIFY(near(area(readDxf(with("70\n0\n62\n-7\n", frame))), 150000, 1)); // switched off
        QVERIFY(near(area(readDxf(with("70\n1\n62\n7\n", frame))), 150000, 1));  // frozen
        QByteArray paper = frame;                                                // on the sheet beside the model
        QVERIFY(
            near(area(readDxf(with("70\n0\n62\n7\n", paper.replace("8\nSHEET\n", "8\nSHEET\n67\n1\n")))), 150000, 1));
    }

    void arcsSeenFromBelowTurnTheOtherWay() {
        // Extrusion 0,0,-1: the entity's x runs to the left. Its half circle from 0 to 180 about (-200, 0) closes the
        // line from 100 to 300 from above.
        const QByteArray arc = "0\nARC\n8\n0\n10\n-200\n20\n0\n40\n100\n50\n0\n51\n180\n210\n0\n220\n0\n230\n-1\n";
        const auto half = readDxf(dxf(arc + line(100, 0, 300, 0)));
        QVERIFY(near(area(half), std::numbers::pi * 5000, 20));
        QVERIFY(near(boundsOf(half.value().rings[0]).low.x, 100, 0.1) &&
                near(boundsOf(half.value().rings[0]).high.y, 100, 0.1));
    }

    void blocksSplinesAndEllipsesAreTaken() {
        const QByteArray blocks = "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n8\n0\n2\nDoor\n70\n0\n10\n100\n20\n0\n" +
                                  line(100, 0, 300, 0) + line(300, 0, 300, 100) + line(300, 100, 100, 0) +
                                  "0\nENDBLK\n0\nENDSEC\n";
        const auto placed = [&](const QByteArray& insert) {
            QByteArray text = dxf(insert);
            return readDxf(text.insert(text.indexOf("0\nSECTION\n2\nENTITIES"), blocks));
        };
        // A triangle of 200 x 100 with its base point at a corner: twice as wide, turned by a quarter, at 1000, 1000.
        const auto d = placed("0\nINSERT\n8\n0\n2\nDOOR\n10\n1000\n20\n1000\n41\n2\n42\n1\n50\n90\n");
        QVERIFY(near(area(d), 20000, 0.01));
        const Bounds b = boundsOf(d.value().rings[0]);
        QVERIFY(near(b.low.x, 900, 0.01) && near(b.high.y, 1400, 0.01));
        QCOMPARE(
            placed("0\nINSERT\n8\n0\n2\nDOOR\n10\n0\n20\n0\n70\n3\n71\n2\n44\n500\n45\n400\n").value().rings.size(),
            std::size_t{6});
        // A block that holds itself ends.
        QByteArray loop = dxf("0\nINSERT\n8\n0\n2\nA\n10\n0\n20\n0\n");
        loop.insert(loop.indexOf("0\nSECTION\n2\nENTITIES"),
                    "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n8\n0\n2\nA\n10\n0\n20\n0\n0\nINSERT\n8\n0\n2\nA\n10\n1\n20\n0\n" +
                        line(0, 0, 10, 0) + line(10, 0, 10, 10) + line(10, 10, 0, 0) + "0\nENDBLK\n0\nENDSEC\n");
        QVERIFY(readDxf(loop).has_value());
        // Half axes 200 and 100.
        QVERIFY(near(
            area(readDxf(dxf("0\nELLIPSE\n8\n0\n10\n0\n20\n0\n11\n200\n21\n0\n40\n0.5\n41\n0\n42\n6.283185307\n"))),
            std::numbers::pi * 20000, 60));
        // A quadratic spline with clamped knots over a tent 300 wide and 200 high is a parabola: two thirds of 300 x
        // 100.
        const QByteArray spline = "0\nSPLINE\n8\n0\n70\n8\n71\n2\n72\n6\n73\n3\n74\n0\n40\n0\n40\n0\n40\n0\n40\n1\n40\n"
                                  "1\n40\n1\n10\n0\n20\n0\n10\n150\n20\n200\n10\n300\n20\n0\n";
        QVERIFY(near(area(readDxf(dxf(spline + line(0, 0, 300, 0)))), 20000, 10));
        QByteArray lies = spline;
        lies.replace("72\n6\n73\n3", "72\n900000\n73\n-4");
        QVERIFY(near(area(readDxf(dxf(lies + line(0, 0, 300, 0)))), 20000, 10));
    }

    void dxfThatLiesIsRefusedOrPassedOver() {
        const QByteArray good = line(0, 0, 500, 0) + line(500, 0, 0, 300) + line(0, 300, 0, 0);
        // Counts that are not true, figures that are none, coordinates before the count.
        QVERIFY(readDxf(dxf(good + "0\nLWPOLYLINE\n90\n2000000000\n70\n1\n10\n0\n20\n0\n")).has_value());
        QVERIFY(readDxf(dxf(good + "0\nLWPOLYLINE\n10\n0\n20\n0\n90\n-5\n70\n1\n10\n5\n20\n5\n10\n9\n20\n0\n"))
                    .has_value());
        QCOMPARE(readDxf(dxf(good + line(std::nan(""), 0, 1, 1))).value().passedOver, 1);
        QCOMPARE(readDxf(dxf(good + line(1e300, 0, 1, 1))).value().passedOver, 1);
        QVERIFY(refuses(readDxf({}), OutlineFaultKind::Empty));
        QVERIFY(refuses(readDxf("not a drawing\nat all\n"), OutlineFaultKind::Damaged));
        QVERIFY(refuses(readDxf(QByteArray(17 * 1024 * 1024, '0')), OutlineFaultKind::TooLarge));
        const QByteArray whole = dxf(good);
        for (qsizetype n = 0; n < whole.size(); ++n) (void)readDxf(whole.left(n)); // never a crash
    }

    void everySvgShapeHasItsArea() {
        QVERIFY(near(area(readSvg(svg("<rect x='10' y='20' width='200' height='100'/>"))), 20000, 1e-6));
        QVERIFY(near(area(readSvg(svg("<rect width='200' height='100' rx='20'/>"))),
                     20000 - (4 - std::numbers::pi) * 400, 5));
        QVERIFY(near(area(readSvg(svg("<circle cx='50' cy='50' r='40'/>"))), std::numbers::pi * 1600, 12));
        QVERIFY(near(area(readSvg(svg("<ellipse cx='50' cy='50' rx='40' ry='20'/>"))), std::numbers::pi * 800, 12));
        QVERIFY(near(area(readSvg(svg("<polygon points='0,0 100,0 100,50'/>"))), 2500, 1e-6));
        QVERIFY(near(area(readSvg(svg("<path d='M10 10h80v40H10z'/>"))), 3200, 1e-6));
        QVERIFY(near(area(readSvg(svg("<path d='m10,10 80,0 0,40 -80,0z'/>"))), 3200, 1e-6));
        QVERIFY(near(area(readSvg(svg("<path d='M0 0A50 50 0 0 1 100 0z'/>"))), std::numbers::pi * 1250, 8));
        // Flags of an arc may stand without gaps.
        QVERIFY(near(area(readSvg(svg("<path d='M0 0a50 50 0 01100 0z'/>"))), std::numbers::pi * 1250, 8));
        // A cubic with both handles a third of the way is the straight line.
        QVERIFY(near(area(readSvg(svg("<path d='M0 0C30 0 60 0 90 0L90 30Q45 30 0 30z'/>"))), 2700, 1e-6));
    }

    void transformsAndRealWorldSizeAreKept() {
        // 100 x 50 user units, doubled: in millimetres by the viewBox, upright after the turn.
        const auto d = readSvg(
            svg("<g transform='translate(5,5) scale(2)'><rect width='100' height='50' transform='rotate(90)'/></g>"));
        QVERIFY(near(area(d), 200 * 100, 1e-3));
        QVERIFY(near(boundsOf(d.value().rings[0]).height(), 200, 1e-6));
        QCOMPARE(*d.value().mmPerUnit, 1.0);
        const QByteArray square = "<rect width='10' height='10'/>";
        QVERIFY(near(area(readSvg(svg(square, "width='20in' viewBox='0 0 10 10'"))), 508.0 * 508.0, 1e-3));
        QVERIFY(near(area(readSvg(svg(square, "width='10cm' viewBox='0 0 10 10'"))), 1e4, 1e-6));
        QVERIFY(!readSvg(svg(square, "width='100%'")).value().mmPerUnit); // no size in the world: the person is asked
        // y runs down in the file: what is above there is above here.
        const auto two =
            readSvg(svg("<rect x='0' y='0' width='50' height='10'/><rect x='0' y='100' width='20' height='10'/>"));
        QVERIFY(boundsOf(two.value().rings[0]).low.y > boundsOf(two.value().rings[1]).high.y);
        QVERIFY(refuses(readSvg(svg("<defs><rect width='100' height='50'/></defs>")), OutlineFaultKind::NoOutline));
    }

    void whatAnSvgHidesIsNotTaken() {
        const QByteArray seen = "<rect width='100' height='50'/>";
        for (const char* hidden :
             {"<rect width='300' height='200' display='none'/>",
              "<g style='display:none'><rect width='300' height='200'/></g>",
              "<rect width='300' height='200' visibility='hidden'/>",
              "<rect width='300' height='200' style='opacity:0'/>", "<rect width='300' height='200' fill='none'/>",
              "<style>.cut{fill:none} #frame, .off { display : none }</style><rect class='off' width='300' "
              "height='200'/>",
              "<style>/* .x{} */ #frame{visibility:hidden}</style><rect id='frame' width='300' height='200'/>"})
            QVERIFY2(near(area(readSvg(svg(QByteArray(hidden) + seen))), 5000, 1e-6), hidden);
        // Visible again within what is hidden; a stroke without a filling is seen.
        QVERIFY(
            near(area(readSvg(svg("<g visibility='hidden'><rect width='300' height='200' visibility='visible'/></g>"))),
                 60000, 1e-6));
        QVERIFY(
            near(area(readSvg(svg("<rect width='300' height='200' style='fill:none;stroke:#000'/>"))), 60000, 1e-6));
    }

    void svgSizesAreMeantInTheWorld() {
        // Drawn in metres: curves are flattened by how large they come out.
        QVERIFY(near(area(readSvg(svg("<circle cx='1' cy='1' r='0.05'/>", "width='2000mm' viewBox='0 0 2 2'"))),
                     std::numbers::pi * 2500, 12));
        // A box that is not as wide as its page is fitted whole and centred: 100 x 100 into 400 x 200 mm doubles it.
        const QByteArray square = "<rect width='100' height='100'/>";
        QVERIFY(near(area(readSvg(svg(square, "width='400mm' height='200mm' viewBox='0 0 100 100'"))), 40000, 1e-3));
        QVERIFY(near(
            area(readSvg(svg(
                square, "width='400mm' height='200mm' viewBox='0 0 100 100' preserveAspectRatio='xMidYMid slice'"))),
            160000, 1e-3));
        QVERIFY(near(
            area(readSvg(svg(square, "width='400mm' height='200mm' viewBox='0 0 100 100' preserveAspectRatio='none'"))),
            80000, 1e-3));
        // Units inside: without a box a user unit is 1/96 inch and 5 cm are 5 cm; with one, units scale with it.
        QVERIFY(near(area(readSvg(svg("<rect width='5cm' height='96'/>", "width='400mm' height='300mm'"))), 50 * 25.4,
                     1e-3));
        QVERIFY(near(area(readSvg(svg("<rect width='50%' height='10%'/>"))), 200 * 30, 1e-3));
        // A page within the page, and what is used twice.
        QVERIFY(near(area(readSvg(svg("<svg x='10' y='10' width='200' height='100' viewBox='0 0 20 10'><rect "
                                      "width='20' height='10'/></svg>"))),
                     20000, 1e-3));
        const auto twice = readSvg(
            svg("<defs><rect id='r' width='50' height='20'/></defs><use href='#r'/><use href='#r' x='100' y='60'/>"));
        QCOMPARE(twice.value().rings.size(), std::size_t{2});
        QVERIFY(near(area(twice), 1000, 1e-6));
        const auto symbol = readSvg(svg("<symbol id='s' viewBox='0 0 1 1'><rect width='1' height='1'/></symbol><use "
                                        "href='#s' width='80' height='80'/>"));
        QVERIFY(near(area(symbol), 6400, 1e-3));
        // What uses itself ends.
        QVERIFY(readSvg(svg("<g id='a'><rect width='9' height='9'/><use href='#a' x='1'/></g>")).has_value());
        QByteArray laughs = "<g id='a0'><rect width='9' height='9'/></g>";
        for (int i = 1; i < 30; ++i)
            laughs += "<g id='a" + QByteArray::number(i) + "'>" + QByteArray("<use href='#a") +
                      QByteArray::number(i - 1) + "'/><use href='#a" + QByteArray::number(i - 1) + "' x='1'/></g>";
        QVERIFY(refuses(readSvg(svg(laughs)), OutlineFaultKind::TooLarge));
    }

    void hostileSvgIsRefused() {
        QVERIFY(refuses(readSvg("<html/>"), OutlineFaultKind::Damaged));
        QVERIFY(refuses(readSvg("<svg><g>"), OutlineFaultKind::Damaged));
        QByteArray deep = "<svg>";
        for (int i = 0; i < 100000; ++i) deep += "<g>";
        QVERIFY(refuses(readSvg(deep), OutlineFaultKind::TooLarge));
        // Entities that multiply.
        QByteArray bomb = "<!DOCTYPE svg [<!ENTITY a 'ha'>";
        for (char c = 'b'; c < 'l'; ++c)
            bomb += QByteArray("<!ENTITY ") + c + " '" +
                    QByteArray(10, '&').replace("&", QByteArray("&") + static_cast<char>(c - 1) + ";") + "'>";
        QVERIFY(!readSvg(bomb + "]><svg><text>&k;</text></svg>").has_value());
        for (const char* d :
             {"M0 0L1e999 0L5 5z", "M nan nan z", "M0 0 0 0z", "A A A", "M1 1a0 0 0 2 3 4 5z", "z z z", "M0,0c1"})
            QVERIFY2(!readSvg(svg(QByteArray("<path d='") + d + "'/>")).has_value(), d);
        QByteArray many = "<path d='M0 0";
        for (int i = 0; i < 300000; ++i) many += " L1 2";
        QVERIFY(refuses(readSvg(svg(many + "z'/>")), OutlineFaultKind::TooLarge));
        const QByteArray whole = svg("<g transform='rotate(3)'><path d='M10 10h80v40a5 5 0 0 1 -80 0z'/></g>");
        for (qsizetype n = 0; n < whole.size(); ++n) (void)readSvg(whole.left(n));
    }

    void pointsAreReadAsPeopleWriteThem() {
        QVERIFY(near(area(readPoints("x,y\r\n0,0\r\n1200,0\r\n1200,800\r\n0,800\r\n")), 960000, 1e-6));
        QVERIFY(near(area(readPoints("0;0\n1200,5;0\n1200,5;800\n")), 1200.5 * 400, 1e-6));
        QVERIFY(near(area(readPoints("0\t0\n0\t80\n100\t80\n")), 4000, 1e-6)); // clockwise is turned
        QCOMPARE(readPoints("0,0\n100,0\n100,100\n\n10,10\n20,10\n20,20\n").value().rings.size(), std::size_t{2});
        // The first corner counts: behind a byte-order mark, with exponents, and one gone wrong is told.
        QVERIFY(near(area(readPoints("\xEF\xBB\xBF"
                                     "0,0\n1200,0\n1200,800\n0,800\n")),
                     960000, 1e-6));
        QVERIFY(near(area(readPoints("0e0,0\n1.2e3,0\n1.2E+3,8e2\n0,800\n")), 960000, 1e-6));
        QCOMPARE(QString::fromStdString(readPoints("0..0,0\n1200,0\n1200,800\n0,800\n").error().detail),
                 QStringLiteral("1"));
        QVERIFY(refuses(readPoints("0,0\n1,x\n2,2\n"), OutlineFaultKind::NoNumber));
        QCOMPARE(QString::fromStdString(readPoints("0,0\n1,x\n2,2\n").error().detail), QStringLiteral("2"));
        QVERIFY(refuses(readPoints("1,1\n2,2\n3,3\n"), OutlineFaultKind::NoOutline));
        QVERIFY(refuses(readPoints("  \n"), OutlineFaultKind::Empty));
    }

    void aListOfReadingsFindsItsPlaces() {
        Surface s;
        s.measurement = fourSides(3000, 1800, 3000, 1800, 3498);
        const auto list =
            readReadings("place;length\na;3640\nDiagonal e;4049 mm\nBC;1,785 m\nd;\n", s, LengthUnit::Millimetre);
        QVERIFY(list.has_value());
        QCOMPARE(list.value().size(), std::size_t{3}); // d was not taken
        QCOMPARE(QString::fromStdString(list.value()[1].key), QStringLiteral("AC"));
        QCOMPARE(list.value()[2].reading.length.value, 1785.0);
        QCOMPARE(readReadings("a,10\n", s, LengthUnit::Inch).value()[0].reading.length.value, 254.0);
        for (const auto& [bytes, words] : {std::pair{QByteArray("a,3640\nz9,5\n"), "Line 2: “z9” is no reading"},
                                           {QByteArray("a,3640\nb,18 parsecs\n"), "no unit known"},
                                           {QByteArray("\n"), "empty"},
                                           {QByteArray("one column\n"), "a place and a length"}}) {
            const auto bad = readReadings(bytes, s, LengthUnit::Millimetre);
            QVERIFY(!bad.has_value());
            QVERIFY2(sentence(bad.error()).contains(QString::fromUtf8(words)), qPrintable(sentence(bad.error())));
        }
        // A list of corners is none of readings, even where diagonals have numbers.
        Surface pentagon;
        pentagon.measurement.form = OutlineForm::Polygon;
        QVERIFY(!readReadings("1,1\n2,2\n1,2\n", pentagon, LengthUnit::Millimetre).has_value());
        // Written and read again, of any form.
        for (const Surface& any : demoJob().surfaces) {
            if (any.measurement.empty()) continue;
            const auto back = readReadings(writeReadings(any), any, LengthUnit::Millimetre);
            QVERIFY2(back.has_value(), any.id.c_str());
            for (const ListedReading& r : back.value())
                QVERIFY(near((*findReading(any, r.key))->length.value, r.reading.length.value, 0.001));
        }
    }

    /// Whatever surface: written in each of the three formats it comes back to within the figures written.
    void whatIsExportedComesBack() {
        std::mt19937 dice(9);
        for (int round = 0; round < 20; ++round) {
            Surface s;
            s.measurement = anyFloor(dice);
            Opening o{.name = "Hatch"};
            o.place.fromSide = mm(600);
            o.place.fromCross = mm(600);
            o.width = mm(300);
            o.height = mm(250);
            o.radius = mm(40);
            s.openings = {o};
            const MeasuredOutline m = outlineOf(s.measurement);
            const SurfaceShape shape = shapeOf(s, m);
            const double outer = signedArea(m.outline.rings.front());
            for (const auto& back : {readDxf(writeDxf(m, shape)), readSvg(writeSvg(QStringLiteral("a <b>"), m, shape)),
                                     readPoints(writePoints(m, shape))}) {
                QVERIFY(back.has_value());
                QCOMPARE(back.value().rings.size(), m.outline.rings.size() + shape.openings.size());
                QVERIFY(near(area(back), outer, 8));
                QVERIFY(near(signedArea(back.value().rings.back()), std::abs(signedArea(shape.openings[0].shape)), 2));
            }
        }
    }

    void binaryNoiseNeverCrashes() {
        std::mt19937 dice(21);
        for (int round = 0; round < 300; ++round) {
            QByteArray noise;
            for (std::size_t i = 0, n = dice() % 400; i < n; ++i) noise.append(static_cast<char>(dice() % 256));
            (void)readDxf(noise);
            (void)readSvg(noise);
            (void)readPoints(noise);
            (void)readDxf(dxf(noise));
            (void)readSvg(svg("<path d='" + noise.toHex() + "'/>"));
        }
    }

    void aDrawnOutlineIsKeptShortAndTrue() {
        // A circle of 20 000 corners keeps its area within the tolerance and at most 4000 corners.
        const Ring round = circle({500, 500}, 500, 20000);
        const Ring kept = drawnOutline(round);
        QVERIFY(kept.size() <= kMostDrawnCorners && kept.size() > 50);
        QVERIFY(near(signedArea(kept), std::numbers::pi * 25e4, 400));
        QVERIFY(drawnSides(kept).size() == 3); // no corner: parted at three places all the same
        const Ring box{{0, 0}, {100, 0}, {200, 0}, {200, 100}, {0, 100}};
        QCOMPARE(drawnOutline(box).size(), std::size_t{4});
        QCOMPARE(drawnSides(drawnOutline(box)).size(), std::size_t{4});
    }
};
WESTRUM_TEST(OutlineFileTest)

#include "outline_file_test.moc"
