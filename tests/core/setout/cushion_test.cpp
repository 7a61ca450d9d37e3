#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/cut_problems.h"
#include "core/setout/cushion.h"
#include "core/setout/pattern.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"
#include "tests/support/surfaces.h"

#include <numbers>

using namespace westrum;
using namespace westrum::test;

namespace {

Product cloth(FieldValues more = {}) {
    Product p{.id = "cloth", .family = "cloth", .name = "Cloth"};
    p.fields = {{"rollWidth", 1420}, {"selvedge", 10}};
    for (const auto& [key, value] : more) p.fields[key] = value;
    return p;
}

SetOutRequest bench(double w, double h, FieldValues rules = {}) {
    SetOutRequest r;
    r.outline = sheetOfSize(w, h);
    r.product = cloth();
    r.rules = {{"gap", 0}};
    for (const auto& [key, value] : rules) r.rules[key] = value;
    r.foamThickness = {100};
    r.lies = true;
    return r;
}

SetOut sewn(const SetOutRequest& r) { return clothSetOut().setOut(r, {}); }

const Piece* named(const SetOut& s, const std::string& name) {
    for (const Piece& p : s.pieces)
        if (p.name == name) return &p;
    return nullptr;
}
double amount(const SetOut& s, SundryKind kind) {
    for (const Sundry& each : s.sundries)
        if (each.kind == kind) return each.amount;
    return 0;
}

/// The same rules on a surface of a job: board, foam and cloth.
Job jobWith(FieldValues rules, FieldValues ofCloth = {}) {
    Job job;
    Product foam{.id = "foam", .family = "foam", .name = "Foam"};
    foam.fields = {{"thickness", 80}, {"squash", 0.25}};
    Product board{.id = "ply", .family = "sheet", .name = "Ply"};
    board.fields = {{"thickness", 18}};
    job.catalogue.products = {cloth(std::move(ofCloth)), foam, board};
    Surface s;
    s.id = s.name = "bench";
    s.kind = SurfaceKind::BenchTop;
    s.measurement = test::rectangle(1200, 500);
    s.heightRear = mm(420);
    job.surfaces.push_back(std::move(s));
    job.finishes["bench"].now().layers = {
        {"ply", {}, {}, false}, {"foam", {}, {}, false}, {"cloth", std::move(rules), {}, false}};
    return job;
}

} // namespace

/// From a bench to the panels of its cushions, their foam and what else they take.
class CushionTest : public QObject {
    Q_OBJECT
private slots:
    /// 1200 x 500 x 100, seam 12: top 1224 x 524, long borders 1224 x 124, short ones 524 x 124, the zip in the upper
    /// side: two strips 1224 x (50 + 12 + 20).
    void aBoxedCushionByHand() {
        const SetOut s = sewn(bench(1200, 500, {{"piping", 1}}));
        const auto size = [&](const char* name) {
            const Piece* p = named(s, name);
            return p ? std::pair(std::round(p->length.value), std::round(p->width.value)) : std::pair(0.0, 0.0);
        };
        QCOMPARE(size("1 top"), std::pair(524.0, 1224.0));
        QCOMPARE(size("1 bottom"), std::pair(524.0, 1224.0));
        QCOMPARE(size("1 border 1"), std::pair(124.0, 1224.0)); // nap down, its length across the cloth
        QCOMPARE(size("1 border 2"), std::pair(124.0, 524.0));
        QCOMPARE(size("1 zip a"), std::pair(82.0, 1224.0));
        QVERIFY(named(s, "1 zip b") && !named(s, "1 border 3"));
        QCOMPARE(amount(s, SundryKind::Zip), 1250.0);
        QCOMPARE(amount(s, SundryKind::PipingCord), 2 * 3400.0 + 2 * 40); // two runs round it, each overlapping
        // Seams: twice round, four corners; three times that of thread.
        QVERIFY(std::abs(amount(s, SundryKind::Thread) - 3 * (2 * 3400 + 4 * 100)) < 1e-6);
        QVERIFY(named(s, "piping")->aside);
    }

    void foamHigherThanItsCoverLowersTheBorders() {
        const SetOut s = sewn(bench(1200, 500, {{"easeHeight", 6}}));
        QCOMPARE(s.cushionHeight, Mm{94});
        QVERIFY(std::abs(named(s, "1 border 1")->length.value - (94 + 24)) < 1e-6);
    }

    /// Round a wheel arch: as many borders as edges, together as long as the outline and two seams each.
    void bordersFollowAnyOutline() {
        std::mt19937 dice(4);
        for (int round = 0; round < 25; ++round) {
            SetOutRequest r = bench(900 + dice() % 900, 400 + dice() % 300, {{"zip", 4}});
            r.product = cloth({{"rollWidth", 2500}}); // wide enough for every border in one
            const double at = 150 + dice() % 300, wide = 120 + dice() % 250, deep = 60 + dice() % 120;
            r.outline = difference(r.outline, {{westrum::rectangle(at, -1, wide, deep + 1)}});
            if (dice() % 2)
                r.outline = intersection(r.outline, {{{{0, -5}, {5000, -5}, {5000, 5000}, {40, 5000}}}}); // tapered
            const SetOut s = sewn(r);
            double borders = 0;
            int count = 0;
            for (const Piece& p : s.pieces)
                if (p.name.part == PiecePart::Border) {
                    borders += p.width.value - 24;
                    ++count;
                }
            QCOMPARE(count, 8);
            QVERIFY(std::abs(borders - perimeter(s.net.rings[0])) < 0.01);
            const Piece* top = named(s, "1 top");
            QCOMPARE(top->snips.size(), 2UL); // at the arch's inner corners
            QVERIFY(areaMm2(difference(top->shape, top->cut)) < 1);
            // A seam wide all round, to the mitre at square corners.
            QVERIFY(areaMm2(top->cut) > areaMm2(top->shape) + perimeter(s.net.rings[0]) * 12 - 8 * 12 * 12);
        }
    }

    void severalCushionsShareABench() {
        const SetOut s = sewn(bench(1500, 500, {{"cushions", 3}, {"gap", 6}, {"zip", 4}}));
        QCOMPARE(s.net.rings.size(), 3UL);
        std::vector<double> widths;
        for (const Ring& r : s.net.rings) widths.push_back(boundsOf(r).width());
        std::sort(widths.begin(), widths.end());
        // 1488 in three, half of 6 off where they meet: 493, 490, 493.
        QVERIFY(std::abs(widths[0] - 490) < 0.01 && std::abs(widths[2] - 493) < 0.01);
        const SetOut knife = sewn(bench(800, 400, {{"style", 1}}));
        QVERIFY(!named(knife, "1 border 1") && named(knife, "1 bottom"));
        // Over a rise of 50 in the middle of 800: R = 1625, the arc 4 R atan(2 * 50 / 800) = 808.3; and two seams.
        QVERIFY(std::abs(named(knife, "1 top")->width.value - (4 * 1625 * std::atan(0.125) + 24)) < 0.1);
        QCOMPARE(knifeEdgeLength({800}, {0}), Mm{800});
    }

    void aWrappedPanelCountsItsStaples() {
        SetOutRequest r = bench(820, 430, {{"style", 2}, {"turnUnder", 35}});
        r.foamThickness = {20};
        r.boardThickness = {6};
        const SetOut s = sewn(r);
        QCOMPARE(s.pieces.size(), 1UL);
        QVERIFY(std::abs(areaMm2(s.pieces[0].cut) - 942 * 552) < 1);
        QCOMPARE(amount(s, SundryKind::Staples), 100.0); // 2500 round, 25 apart
    }

    /// As few strips as reach, against counting up.
    void pipingTakesAsFewStripsAsReach() {
        std::mt19937 dice(9);
        for (int round = 0; round < 200; ++round) {
            const double piping = 500 + dice() % 20000, usable = 900 + dice() % 700, seam = 8 + dice() % 10,
                         cord = 4 + dice() % 5;
            const Mm width = pipingStripWidth({cord}, {seam});
            const double root = std::numbers::sqrt2;
            const auto reaches = [&](int n, bool bias) {
                return bias ? n * usable * root - (n - 1) * 2 * root * seam - width.value >= piping - 1e-9
                            : n * usable - (n - 1) * 2 * seam >= piping - 1e-9;
            };
            for (const bool bias : {false, true}) {
                const PipingStrips s = bias ? biasStrips({piping}, width, {usable}, {seam})
                                            : straightStrips({piping}, width, {usable}, {seam});
                QVERIFY(reaches(s.strips, bias) && (s.strips == 1 || !reaches(s.strips - 1, bias)));
            }
        }
    }

    /// Foam 15 larger than the cover; 2400 x 500 from sheets of 2000 x 1200 is two blocks, glued at 80 x 515.
    void foamIsCutLargerAndJoined() {
        SetOutRequest r = bench(2400, 500);
        r.product = {.id = "foam", .family = "foam", .name = "Foam"};
        r.product.fields = {{"thickness", 80}};
        r.cover = {{"gap", 0}, {"ease", 15}};
        const SetOut s = foamSetOut().setOut(r, {});
        QCOMPARE(s.pieces.size(), 2UL);
        double area = 0;
        for (const Piece& p : s.pieces) {
            area += areaMm2(p.cut);
            QVERIFY(p.length.value <= 2000);
        }
        QVERIFY(std::abs(area - 2415 * 515) < 1);
        QVERIFY(std::abs(amount(s, SundryKind::FoamGlue) - 0.515 * 0.08) < 1e-6);
    }

    void whatCannotBeSewnIsTold() {
        SetOutRequest r = bench(1200, 500);
        r.foamThickness = {};
        QVERIFY(has(sewn(r), RemarkKind::CushionNoHeight));
        r = bench(1200, 500);
        r.outline = difference(r.outline, {{westrum::rectangle(300, 150, 200, 150)}});
        r.openings = {openingAt(OpeningKind::Hatch, 300, 150, 200, 150)};
        QVERIFY(!has(sewn(r), RemarkKind::CushionHole)); // a lid lies under it
        // Two cushions that part over the lid, at 600, are whole as well.
        SetOutRequest two = bench(1200, 500);
        two.outline = difference(two.outline, {{westrum::rectangle(500, 150, 200, 150)}});
        two.openings = {openingAt(OpeningKind::Hatch, 500, 150, 200, 150)};
        two.rules["cushions"] = 2;
        int tops = 0;
        for (const Piece& p : sewn(two).pieces) {
            if (p.name.part != PiecePart::Top) continue;
            ++tops;
            QCOMPARE(p.shape.rings.front().size(), 4UL);
        }
        QCOMPARE(tops, 2);
        r.openings[0].kind = OpeningKind::Other;
        QVERIFY(has(sewn(r), RemarkKind::CushionHole)); // a wheel arch comes up through it
        QVERIFY(has(sewn(bench(1200, 70)), RemarkKind::CushionThin));
        // Wider than the cloth with its nap; turned it fits, as the fix says.
        r = bench(1800, 500);
        const SetOut wide = sewn(r);
        const Remark* told = remark(wide, RemarkKind::PieceWiderThanRoll);
        QVERIFY(told && told->fix && told->fix->key == "railroad");
        r.rules["railroad"] = 1;
        QVERIFY(!has(sewn(r), RemarkKind::PieceWiderThanRoll));
        r.product = cloth({{"rollWidth", 300}, {"selvedge", 140}});
        QVERIFY(has(sewn(r), RemarkKind::RollTooNarrow));
    }

    /// 420 over the floor, 18 of board, 80 of foam that loses a quarter, 1 of cloth: one sits at 499.
    void theSeatIsAsHighAsThePressedFoam() {
        Job job = jobWith({});
        Plan p = plan(job);
        QCOMPARE(p.seats.size(), 1UL);
        QVERIFY(std::abs(p.seats[0].height.value - 499) < 1e-6);
        QVERIFY(!p.seats[0].above);
        job.headroom.rear = mm(1900);
        p = plan(job);
        QVERIFY(p.seats[0].above && std::abs(p.seats[0].above->value - 1401) < 1e-6);
    }

    /// Round, 600 across: no corner, so the border is parted in two halves, pi x 300 = 942.5 long and two seams; the
    /// upper one has the zip, 942.5 + 50.
    void aRoundCushionHasItsZipInHalfOfItsBorder() {
        SetOutRequest r = bench(1000, 1000);
        r.product = cloth({{"rollWidth", 2500}});
        Ring circle;
        for (int k = 0; k < 720; ++k) {
            const double a = 2 * std::numbers::pi * k / 720;
            circle.push_back({300 * std::cos(a), 300 * std::sin(a)});
        }
        r.outline = {{circle}};
        const SetOut s = sewn(r);
        const double half = perimeter(circle) / 2;
        QVERIFY(std::abs(half - 942.5) < 0.2);
        QVERIFY(std::abs(amount(s, SundryKind::Zip) - (half + 50)) < 0.2);
        QVERIFY(named(s, "1 zip a") && named(s, "1 zip b"));
        std::vector<double> borders;
        for (const Piece& p : s.pieces)
            if (p.name.part == PiecePart::Border) borders.push_back(p.width.value - 24);
        QCOMPARE(borders.size(), 1UL);
        QVERIFY(std::abs(borders[0] - half) < 0.2);
        // Notches lie on the edge, not on the chord: the upper one's middle 300 + 12 above the middle.
        const Piece* top = named(s, "1 top");
        QVERIFY(top && top->marks.size() == 2);
        QVERIFY(std::abs(top->marks[0].front().y - 312) < 0.1 && std::abs(top->marks[0].front().x) < 2);
        r.rules["zip"] = 4; // none: one border all round
        QCOMPARE(amount(sewn(r), SundryKind::Zip), 0.0);
    }

    /// Cloth that may be turned end for end may not be turned across: no piece lies at a quarter, borders neither.
    void halfATurnIsNoQuarter() {
        const Job job = jobWith({{"cushions", 3}}, {{"turning", 1}});
        const Plan p = plan(job);
        for (const CutProblem& problem : cutProblems(job, p)) {
            if (problem.product.id != "cloth") continue;
            const ProductCut cut = cutProduct(problem, {.seed = 3, .iterations = 300});
            QVERIFY(cut.unplaced.empty());
            for (const CutItem& item : cut.items)
                for (const LyingPiece& l : item.pieces) QVERIFY(std::abs(std::sin(l.rotationRad)) < 1e-6);
        }
    }

    /// A block of foam 15 larger each way than its cushion of 1190 x 490 stays so: 1.205 x 0.505 x what a m2 weighs.
    void foamWeighsAsItIsCut() {
        Job job = jobWith({});
        for (Product& product : job.catalogue.products)
            if (product.id == "foam") product.fields["massPerArea"] = 4;
        const Plan p = plan(job);
        const LayerPlan& foam = p.surface("bench")->layers[1];
        QVERIFY2(std::abs(foam.mass.value - 1.205 * 0.505 * 4) < 1e-6, qPrintable(QString::number(foam.mass.value)));
    }

    /// 1400 of use, a pattern each 500 across, tops 1000 across of which one begins 450 past a point: 50 more serves
    /// both.
    void aPatternIsMovedSoThatEveryTopComesOutOfTheRoll() {
        const RollGoods roll = rollOf(cloth({{"rollWidth", 1420}, {"repeatAcross", 500}}));
        SetOut s;
        s.pile = Point{0, -1}; // across the roll is x
        const auto add = [&](double x) {
            Piece p;
            p.name = std::to_string(s.pieces.size() + 1);
            p.cut = {{westrum::rectangle(x, 0, 1000, 400)}};
            s.pieces.push_back(p);
        };
        add(0);
        add(1450);
        alignPattern(roll, true, s);
        QVERIFY(s.remarks.empty());
        QVERIFY(std::abs(s.patternAt.x + 50) < 1e-6); // each lies 50 further past a point
        s.patternAt = {};
        add(1700); // 200 past: 250 with the others' 50, and 1250 of 1400
        alignPattern(roll, true, s);
        QVERIFY(s.remarks.empty());
        s.patternAt = {};
        // Two that fit only at 0 to 10 past a point, and begin 200 apart: one of them cannot.
        s.pieces[0].cut = {{westrum::rectangle(0, 0, 1390, 400)}};
        s.pieces[2].cut = {{westrum::rectangle(1700, 0, 1390, 400)}};
        alignPattern(roll, true, s);
        QCOMPARE(s.remarks.size(), 1UL);
        QCOMPARE(s.remarks[0].kind, RemarkKind::PatternMisses);
    }

    /// Matched over the cushions of a row: laid on the cloth, all tops keep their place on one pattern; borders do not.
    void thePatternGoesOnFromCushionToCushion() {
        const Job job =
            jobWith({{"cushions", 2}, {"matched", 1}, {"zip", 4}}, {{"repeatAlong", 160}, {"repeatAcross", 140}});
        const Plan p = plan(job);
        const SetOut& s = p.surface("bench")->setOut();
        const auto problems = cutProblems(job, p);
        const auto own =
            std::find_if(problems.begin(), problems.end(), [](const CutProblem& c) { return c.product.id == "cloth"; });
        QVERIFY(own != problems.end());
        const ProductCut cut = cutProduct(*own, {.seed = 1, .iterations = 200});
        QVERIFY(cut.unplaced.empty());
        std::vector<Point> tops;
        for (const CutItem& item : cut.items)
            for (const LyingPiece& l : item.pieces) {
                const Piece& piece = s.pieces[static_cast<std::size_t>(l.piece)];
                if (piece.name.part != PiecePart::Top) continue;
                const double turn = -std::atan2(s.pile->y, s.pile->x);
                tops.push_back(boundsOf(turned(piece.cut, turn)).low - l.at);
            }
        QCOMPARE(tops.size(), 2UL);
        const auto off = [](double d, double repeat) { return std::abs(d - std::round(d / repeat) * repeat); };
        QVERIFY(off(tops[1].x - tops[0].x, 160) < 0.05 && off(tops[1].y - tops[0].y, 140) < 0.05);
    }
};

WESTRUM_TEST(CushionTest)
#include "cushion_test.moc"
