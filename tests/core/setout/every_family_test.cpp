#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/catalogue/family.h"
#include "core/catalogue/hard_finishes.h"
#include "core/catalogue/plank.h"
#include "core/families/family.h"
#include "core/setout/set_out.h"
#include "tests/support/registry.h"
#include "tests/support/surfaces.h"

using namespace westrum;
using namespace westrum::test;

namespace {

/// A product of any family with figures as they are sold.
Product anyProduct(std::string_view family, std::mt19937& dice) {
    Product p{std::string(family), std::string(family), "Test", "", {}, {}};
    if (family == "planks")
        p.fields = {
            {"length", 900.0 + dice() % 500}, {"width", 120.0 + dice() % 100}, {"movementGap", 0}, {"leastStagger", 0}};
    if (family == "boards") {
        const double cover = 60 + dice() % 60;
        p.fields = {{"cover", cover}, {"overall", cover + 8}, {"length", 1800.0 + dice() % 1500}, {"movementGap", 0}};
    }
    if (family == "tiles") p.fields = {{"width", 70.0 + dice() % 200}, {"height", 60.0 + dice() % 150}};
    return p;
}

SetOutRequest anyRequest(const SetOutFamily& family, std::mt19937& dice) {
    SetOutRequest r;
    r.outline = anySurface(dice);
    r.product = anyProduct(family.id, dice);
    r.foamThickness = {80};
    r.supports = supportsAt({250, 700, 1150, 1600, 2050, 2500, 2950, 3400}, false);
    // Rules as anyone might set them, within what their fields allow.
    for (const Field& f : family.ruleFields) {
        if (f.unit == FieldUnit::Choice && f.key != "start" && f.key != "startX" && f.key != "startY" &&
            f.key != "face") // what else it may cover, these surfaces do not have
            r.rules[std::string(f.key)] = static_cast<double>(dice() % (static_cast<unsigned>(f.most) + 1));
        if (f.key == "gap") r.rules["gap"] = dice() % 12;
        if (f.key == "startOffset") r.rules["startOffset"] = dice() % 50;
        if (f.key == "taperBoards") r.rules["taperBoards"] = 1 + dice() % 3;
    }
    for (const char* start : {"start", "startX", "startY"})
        if (findField(family.ruleFields, start)) r.rules[start] = dice() % 5;
    return r;
}

double pieceArea(const SetOut& s) {
    double area = 0;
    for (const Piece& p : s.pieces) area += areaMm2(p.shape);
    return area;
}

} // namespace

/// What must hold for the set-out of any family on any surface; a new family comes under these tests by itself.
class EveryFamilyTest : public QObject {
    Q_OBJECT
private slots:
    void initTestCase_data() {
        QTest::addColumn<int>("family");
        for (std::size_t i = 0; i < setOutFamilies().size(); ++i)
            QTest::newRow(std::string(setOutFamilies()[i].id).c_str()) << static_cast<int>(i);
    }

    void piecesDoNotOverlapAndCoverWhatTheyShould() {
        QFETCH_GLOBAL(int, family);
        const SetOutFamily& f = setOutFamilies()[static_cast<std::size_t>(family)];
        std::mt19937 dice(41);
        int laid = 0;
        for (int round = 0; round < 40; ++round) {
            const SetOutRequest r = anyRequest(f, dice);
            const SetOut s = f.setOut(r, {});
            if (!s.laid()) continue;
            ++laid;
            for (std::size_t i = 0; i < s.pieces.size(); ++i) {
                const Region& shape = s.pieces[i].shape;
                if (shape.empty()) continue; // a border, a corner piece: it stands beside the surface
                QVERIFY2(areaMm2(difference(shape, s.net)) < 1, qPrintable(QString::number(round)));
                const Bounds a = boundsOf(shape);
                for (std::size_t k = 0; k < i; ++k) {
                    if (s.pieces[k].shape.empty()) continue;
                    const Bounds b = boundsOf(s.pieces[k].shape);
                    if (a.high.x <= b.low.x || b.high.x <= a.low.x || a.high.y <= b.low.y || b.high.y <= a.low.y)
                        continue;
                    QVERIFY2(areaMm2(intersection(shape, s.pieces[k].shape)) < 1, qPrintable(QString::number(round)));
                }
            }
            const double sum = pieceArea(s), net = areaMm2(s.net);
            if (s.jointWidth.value <= 0) {
                // Without joints they cover all of it, but for scraps under 1 mm2 a piece.
                QVERIFY2(std::abs(net - sum) < static_cast<double>(s.pieces.size() + s.rows.size() + 2),
                         qPrintable(QStringLiteral("%1: %2 of %3").arg(round).arg(sum).arg(net)));
            } else {
                // With them, each piece grown by half a joint, all of it is covered to the joint.
                QVERIFY(sum <= net + 1);
                const double joints = net - sum;
                double length = 0;
                for (const Piece& p : s.pieces)
                    for (const Ring& ring : p.shape.rings) length += perimeter(ring);
                QVERIFY2(joints <= (length / 2 + 4 * std::sqrt(net)) * s.jointWidth.value +
                                       static_cast<double>(s.pieces.size()),
                         qPrintable(QStringLiteral("%1: %2 left").arg(round).arg(joints)));
            }
        }
        QVERIFY(laid > 25);
    }

    void aSideKeepsItsOwnGap() {
        QFETCH_GLOBAL(int, family);
        const SetOutFamily& f = setOutFamilies()[static_cast<std::size_t>(family)];
        if (!findField(f.ruleFields, "gap")) QSKIP("no movement gap in this family");
        std::mt19937 dice(40);
        SetOutRequest r;
        r.outline = sheetOfSize(2000, 1000);
        r.product = anyProduct(f.id, dice);
        r.rules = {{"gap", 5}};
        r.sides = {{{{0, 0}, {2000, 0}}, EdgeKind::Free, {}},
                   {{{2000, 0}, {2000, 1000}}, EdgeKind::MovementGap, Mm{12}},
                   {{{2000, 1000}, {0, 1000}}, EdgeKind::Unsaid, {}},
                   {{{0, 1000}, {0, 0}}, EdgeKind::MovementGap, Mm{2}}};
        const Bounds net = boundsOf(f.setOut(r, {}).net);
        QVERIFY(distance(net.low, {2, 5}) < 1e-3);
        QVERIFY(distance(net.high, {1988, 995}) < 1e-3);
        // A gap of none is a gap too: at a side that butts.
        r.sides[3].allowance = Mm{0};
        QVERIFY(std::abs(boundsOf(f.setOut(r, {}).net).low.x) < 1e-3);
    }

    void everyPieceFitsItsStock() {
        QFETCH_GLOBAL(int, family);
        const SetOutFamily& f = setOutFamilies()[static_cast<std::size_t>(family)];
        std::mt19937 dice(43);
        for (int round = 0; round < 40; ++round) {
            const SetOutRequest r = anyRequest(f, dice);
            const SetOut s = f.setOut(r, {});
            const bool told = has(s, RemarkKind::PanelTooLarge);
            for (const Piece& p : s.pieces) {
                if (f.id == "foam") {
                    // As it is cut, joined from parts that a sheet holds.
                    const SheetGoods g = sheetOf(r.product);
                    const Bounds c = boundsOf(p.cut);
                    const auto fits = [&](double w, double h) {
                        return w <= g.length.value + 1e-6 && h <= g.width.value + 1e-6;
                    };
                    QVERIFY(fits(c.width(), c.height()) || fits(c.height(), c.width()));
                }
                if (f.id == "cloth" && !has(s, RemarkKind::PieceWiderThanRoll)) {
                    const Bounds c = boundsOf(turned(p.cut, -std::atan2(s.pile->y, s.pile->x)));
                    const Point pile = p.pile.value_or(*s.pile);
                    const bool alongRoll = std::abs(dot(pile, *s.pile)) > 0.5;
                    QVERIFY((alongRoll ? c.height() : c.width()) <= rollOf(r.product).usable().value + 1e-3);
                }
                if (p.shape.empty()) continue;
                const Bounds b = boundsOf(p.shape);
                const double longer = s.rowsAcross ? b.height() : b.width(),
                             wide = s.rowsAcross ? b.width() : b.height();
                if (f.id == "planks")
                    QVERIFY(p.length.value <= plankOf(r.product).length.value + 1e-6 &&
                            longer <= p.length.value + 1e-6);
                if (f.id == "boards") {
                    const Board board = boardOf(r.product);
                    QVERIFY(p.length.value <= board.length.value - 2 * board.endTrim.value + 1e-6);
                    QVERIFY(std::max(p.ripAtStart, p.ripAtEnd).value <= board.overall.value + 1e-6);
                    // Fanned rows of a taper may stand askew by a little.
                    QVERIFY(wide <= board.cover.value + 61);
                }
                if (f.id == "tiles") {
                    const Tile t = tileOf(r.product);
                    QVERIFY(b.width() <= t.width.value + 1e-4 && b.height() <= t.height.value + 1e-4);
                }
                if (f.id == "sheet" && !told) {
                    const SheetGoods g = sheetOf(r.product);
                    const double x = (s.grainAcross ? g.width : g.length).value,
                                 y = (s.grainAcross ? g.length : g.width).value;
                    QVERIFY(b.width() <= x - 2 * g.edgeTrim.value + 1e-6 &&
                            b.height() <= y - 2 * g.edgeTrim.value + 1e-6);
                }
                if (f.id == "roll") {
                    QVERIFY(p.width <= Mm{rollOf(r.product).usable().value + 1e-3});
                    QVERIFY(areaMm2(difference(p.shape, p.cut)) < 1); // cut no smaller than what it covers
                }
                // Where the set-out opens the stock itself, every piece is on one of its units.
                if (familyOf(f.id)->laid.unitsBySetOut)
                    QVERIFY(p.stock >= 0 && p.stock < static_cast<int>(s.stock.size()));
                else
                    QCOMPARE(p.stock, -1);
            }
        }
    }

    /// Sliding the surface about its own coordinates changes nothing but where the pieces lie.
    void nothingDependsOnWhereTheOriginIs() {
        QFETCH_GLOBAL(int, family);
        const SetOutFamily& f = setOutFamilies()[static_cast<std::size_t>(family)];
        std::mt19937 dice(47);
        for (int round = 0; round < 15; ++round) {
            const SetOutRequest r = anyRequest(f, dice);
            const Point by{417.25, -268.5};
            SetOutRequest away = r;
            away.outline = moved(r.outline, by);
            for (PlacedSupport& s : away.supports) {
                s.centre += s.along ? by.y : by.x;
                s.shape = moved(s.shape, by);
            }
            const SetOut a = f.setOut(r, {}), b = f.setOut(away, {});
            QCOMPARE(b.pieces.size(), a.pieces.size());
            QCOMPARE(b.remarks.size(), a.remarks.size());
            QVERIFY(std::abs(a.firstRow.value - b.firstRow.value) < 1e-4);
            QCOMPARE(b.figures.stock, a.figures.stock);
            for (std::size_t i = 0; i < a.pieces.size(); ++i) {
                QCOMPARE(b.pieces[i].name, a.pieces[i].name);
                QVERIFY(std::abs(areaMm2(a.pieces[i].shape) - areaMm2(b.pieces[i].shape)) < 0.5);
            }
        }
    }

    void theSameAgainIsTheSame() {
        QFETCH_GLOBAL(int, family);
        const SetOutFamily& f = setOutFamilies()[static_cast<std::size_t>(family)];
        std::mt19937 dice(53);
        for (int round = 0; round < 8; ++round) {
            const SetOutRequest r = anyRequest(f, dice);
            QVERIFY(f.setOut(r, {}) == f.setOut(r, {}));
        }
    }

    void figuresAgreeWithThePieces() {
        QFETCH_GLOBAL(int, family);
        const SetOutFamily& f = setOutFamilies()[static_cast<std::size_t>(family)];
        std::mt19937 dice(59);
        for (int round = 0; round < 25; ++round) {
            const SetOut s = f.setOut(anyRequest(f, dice), {});
            if (!s.laid()) continue;
            QCOMPARE(s.figures.pieces, static_cast<int>(s.pieces.size()));
            QVERIFY(s.figures.leastStock <= s.figures.stock);
            QVERIFY(s.figures.stock > 0);
            int off = 0;
            for (const Joint& j : s.joints) off += !j.onSupport;
            QCOMPARE(s.figures.jointsOffSupport, off);
        }
    }

    void theyRemarkOnWhatTheirTableSays() {
        QFETCH_GLOBAL(int, family);
        const SetOutFamily& f = setOutFamilies()[static_cast<std::size_t>(family)];
        const auto said = familyOf(f.id)->remarks;
        QVERIFY(!said.empty());
        std::mt19937 dice(71);
        int heard = 0;
        for (int round = 0; round < 40; ++round) {
            SetOutRequest r = anyRequest(f, dice);
            if (round % 3 == 1) r.supports.clear();
            if (round % 4 == 3) r.rules["gap"] = 60;
            if (round % 5 == 4) r.outline = {}; // nothing is left
            for (const Remark& remark : f.setOut(r, {}).remarks) {
                ++heard;
                QVERIFY2(std::find(said.begin(), said.end(), remark.kind) != said.end(),
                         qPrintable(QStringLiteral("remark kind %1").arg(static_cast<int>(remark.kind))));
            }
        }
        QVERIFY(heard > 0);
    }

    void starvedOrStoppedTheyGiveUpCleanly() {
        QFETCH_GLOBAL(int, family);
        const SetOutFamily& f = setOutFamilies()[static_cast<std::size_t>(family)];
        std::mt19937 dice(61);
        SetOutRequest r = anyRequest(f, dice);
        std::stop_source stop;
        stop.request_stop();
        QVERIFY(f.choices(r, stop.get_token()).empty());
        // Twelve openings, supports none.
        r.outline = sheetOfSize(3000, 1500);
        r.supports.clear();
        for (int i = 0; i < 12; ++i)
            r.outline = difference(r.outline, {{rectangle(150 + 230 * i, 300 + 70 * (i % 5), 120, 160)}});
        const SetOut s = f.setOut(r, {});
        QVERIFY(s.laid() || !s.remarks.empty());
        r.outline = {{{{0, 0}, {2500, 0}, {0, 3}}}}; // a sliver of a triangle
        r.rules["gap"] = 0;
        const SetOut thin = f.setOut(r, {});
        QVERIFY(pieceArea(thin) <= areaMm2(r.outline) + 1);
        r.rules["gap"] = 50;
        if (findField(f.ruleFields, "gap")) QVERIFY(!f.setOut(r, {}).remarks.empty());
    }
};
WESTRUM_TEST(EveryFamilyTest)

#include "every_family_test.moc"
