#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/families/family.h"
#include "core/geometry/boolean.h"
#include "core/plan/cut_problems.h"
#include "core/plan/rack.h"
#include "formats/demo.h"
#include "tests/support/cuts.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;
using namespace westrum::test;

namespace {

RackPiece offcutOf(const Product& p, double length, double width) {
    return {.number = "R1", .product = productIdentity(p), .name = p.name, .lengthMm = length, .widthMm = width};
}

LyingPiece lying(int piece, Region shape, bool cut = false) {
    LyingPiece l;
    l.piece = piece;
    l.shape = std::move(shape);
    l.cut = cut;
    return l;
}

Region boxAt(double x, double y, double w, double h) { return {{rectangle(x, y, w, h)}}; }

} // namespace

/// Between a job and the rack of the workshop.
class RackTest : public QObject {
    Q_OBJECT
private slots:
    /// The same however it is spaced or written, and not of another thickness or family.
    void aProductIsTheSameInAnotherJob() {
        Product a{.id = "one", .family = "sheet", .name = "  Dipper  birch Ply ", .fields = {{"thickness", 9}}};
        Product b{.id = "two",
                  .family = "sheet",
                  .name = "dipper birch ply",
                  .supplier = "another",
                  .fields = {{"thickness", 9}}};
        QCOMPARE(productIdentity(a), productIdentity(b));
        b.fields["thickness"] = 9.5;
        QVERIFY(productIdentity(a) != productIdentity(b));
        b.fields["thickness"] = 9;
        b.family = "boards";
        QVERIFY(productIdentity(a) != productIdentity(b));
        QVERIFY(findIdentity({{b}}, productIdentity(a)) == nullptr);
        QCOMPARE(findIdentity({{b, a}}, productIdentity(a))->id, std::string("one"));
    }

    /// A roll 2000 wide, 1500 of it run off, a piece of 1000 x 1400 at the lower left: what is left is an L of
    /// 1500 x 2000 less 1000 x 1400 = 1.6 m2, in one outline.
    void whatIsLeftOfARollKeepsItsOutline() {
        CutItem run{.lengthMm = 1500, .widthMm = 2000};
        run.pieces = {lying(0, boxAt(0, 0, 1000, 1400))};
        run.left = {{1000, 0, 500, 2000}, {0, 1400, 1000, 600}};
        const auto left = offcutsOf(run, StockForm::Roll);
        QCOMPARE(left.size(), std::size_t{1});
        QVERIFY(std::abs(areaMm2(left[0]) - (1500.0 * 2000 - 1000 * 1400)) < 1);
        const Bounds b = boundsOf(left[0]);
        QVERIFY(b.low == (Point{0, 0}) && b.high == (Point{1500, 2000}));
        // The blade takes 10 all round; and what lies apart comes apart.
        run.kerfMm = 10;
        run.pieces = {lying(0, boxAt(500, 0, 400, 2000))};
        run.left = {{0, 0, 490, 2000}, {910, 0, 590, 2000}};
        const auto two = offcutsOf(run, StockForm::Roll);
        QCOMPARE(two.size(), std::size_t{2});
        QVERIFY(std::abs(areaMm2(two[0]) - 490.0 * 2000) < 1 && std::abs(areaMm2(two[1]) - 590.0 * 2000) < 1);
        // A sliver that hangs on is no offcut.
        run.kerfMm = 0;
        run.pieces = {lying(0, boxAt(0, 0, 1000, 1990))};
        run.left = {{1000, 0, 500, 2000}};
        const auto one = offcutsOf(run, StockForm::Roll);
        QCOMPARE(one.size(), std::size_t{1});
        QVERIFY(std::abs(areaMm2(one[0]) - 500.0 * 2000) < 1);
    }

    /// Over made-up runs: what is kept and what was cut are no more than there was, nothing kept is smaller than is
    /// worth keeping, and every rectangle that the cutting found free is on some offcut.
    void offcutsAreWhatIsLeft() {
        std::mt19937 dice(8);
        for (int run = 0; run < 60; ++run) {
            CutItem item{.lengthMm = 800.0 + dice() % 2000, .widthMm = 1400};
            item.kerfMm = static_cast<double>(dice() % 3) * 5;
            double cut = 0;
            // Columns of pieces from the left; every third one stays free.
            for (double x = 0; x + 300 <= item.lengthMm; x += 320) {
                const double height = 200.0 + dice() % 1100;
                if (dice() % 3 == 0) {
                    item.left.push_back({x, 0, 300, 1400});
                    continue;
                }
                item.pieces.push_back(lying(0, boxAt(x, 0, 300, height)));
                cut += 300 * height;
                if (1400 - height > 400) item.left.push_back({x, height + 20, 300, 1400 - height - 20});
            }
            const auto offcuts = offcutsOf(item, StockForm::Roll);
            double kept = 0;
            for (const Region& o : offcuts) {
                const Bounds b = boundsOf(o);
                QVERIFY(std::abs(b.low.x) < 1e-6 && std::abs(b.low.y) < 1e-6);
                QVERIFY(std::max(b.width(), b.height()) >= 300 && std::min(b.width(), b.height()) >= 150);
                kept += areaMm2(o);
            }
            QVERIFY(kept + cut <= item.lengthMm * item.widthMm + 1);
            QCOMPARE(offcuts.empty(), item.left.empty());
        }
    }

    void whatIsSawnKeepsItsRectangles() {
        CutItem sheet{.lengthMm = 2440, .widthMm = 1220};
        sheet.left = {{1000, 0, 700.9, 400.2}, {0, 500, 300, 150}};
        const auto left = offcutsOf(sheet, StockForm::Sheets);
        QCOMPARE(left.size(), std::size_t{2});
        QVERIFY(boundsOf(left[0]).high == (Point{700, 400})); // down to whole millimetres: it can only be larger
    }

    /// 600 x 400 across the grain does not fit 500 x 700 unless it may turn; one that is cut already does not ask.
    void whatAnOffcutCouldServe() {
        Job job;
        const Product ply{.id = "ply", .family = "sheet", .name = "Ply", .fields = {{"thickness", 9}}};
        job.catalogue.products = {ply};
        ProductCut cut{.product = "ply", .form = StockForm::Sheets};
        const auto piece = [&](const char* key, double l, double w, bool mayTurn, const char* surface) {
            CutPiece p = wanted(key, l, w, mayTurn);
            p.surface = surface;
            cut.pieces.push_back(p);
        };
        piece("1", 600, 400, false, "floor");
        piece("2", 600, 400, true, "wall");
        piece("3", 500, 700, false, "wall");
        piece("4", 100, 100, false, "floor");
        const RackPiece offcut = offcutOf(ply, 500, 700);
        QVERIFY((servesNow(job, {cut}, offcut) == std::vector<RackServes>{{"wall", 2}, {"floor", 1}}));
        cut.items.push_back({});
        cut.items[0].pieces = {lying(3, box(100, 100), true)};
        QVERIFY((servesNow(job, {cut}, offcut) == std::vector<RackServes>{{"wall", 2}}));
        // A notch of 300 x 400 in its corner: the largest rectangle is 500 x 300, or 200 x 700.
        RackPiece notched = offcut;
        notched.shape = difference(box(500, 700), boxAt(200, 300, 300, 400));
        QVERIFY(servesNow(job, {cut}, notched).empty());
        RackPiece other = offcut;
        other.product = "another";
        QVERIFY(servesNow(job, {cut}, other).empty());
        // What serves a spoilt piece: the smallest of those that are free.
        std::vector<RackPiece> rack{offcutOf(ply, 2000, 900), offcutOf(ply, 700, 500), offcutOf(ply, 650, 450)};
        rack[2].state = RackPiece::State::Reserved;
        QCOMPARE(rackPieceFor(rack, ply, {600}, {400}, false), &rack[1]);
        QVERIFY(!rackPieceFor(rack, ply, {2100}, {400}, false));
        QVERIFY(!rackPieceFor(rack, ply, {0}, {0}, false)); // of unknown size
    }

    /// The second example buys no panel and no lining: all of it comes off the rack. Of panels 854 x 554 and 634 x 354
    /// make 0.6976 m2; the two offcuts are 1.0300 m2.
    void aJobCutsFromTheRackFirst() {
        const Job job = demoSecondJob();
        const Plan planned = plan(job);
        std::vector<ProductCut> cuts;
        for (const CutProblem& problem : cutProblems(job, planned))
            cuts.push_back(cutProduct(problem, {.iterations = 300}));
        const Plan p = withCuts(planned, job, cuts);
        const RackWish wish = rackWish(job);
        QVERIFY(wish.reserved == (std::set<std::string>{"R1", "R2", "R3"}) && wish.cut.empty());
        for (const Purchase& line : p.purchases)
            if (line.product == "dipper-ply" || line.product == "thrush-lining") {
                QCOMPARE(line.packs, 0);
                QCOMPARE(line.cost, std::optional(Money{0, job.currency}));
            }
        const auto ply = std::find_if(p.purchases.begin(), p.purchases.end(),
                                      [](const Purchase& l) { return l.product == "dipper-ply"; });
        QVERIFY(ply != p.purchases.end());
        QVERIFY(std::abs(ply->rackArea.value - (1.180 * 0.610 + 0.742 * 0.418)) < 1e-9);
        QVERIFY(std::abs(ply->laidArea.value - (0.854 * 0.554 + 0.634 * 0.354)) < 1e-9);
        QVERIFY(p.totals.boughtArea.value == 0 && p.totals.rackArea.value >= p.totals.laidArea.value);
    }

    void whatIsCutIsNoLongerReserved() {
        Job job = demoSecondJob();
        CutList& list = job.cutLists["dipper-ply"];
        list.kept.push_back({"s1", true, 1180, 610, {{"x", "1", {0, 0}, 0, true, box(10, 10)}}});
        RackWish wish = rackWish(job);
        QVERIFY(wish.cut == std::set<std::string>{"R1"} && !wish.reserved.contains("R1"));
        list.kept[0].pieces[0].cut = false;
        list.stock[1].used = false;
        wish = rackWish(job);
        QVERIFY(wish.cut.empty() && wish.reserved == (std::set<std::string>{"R1", "R3"}));
    }

    void whatWasPaidAndLeftIsReadOffTheJob() {
        Job job = demoJob();
        job.bookId = "abcdef";
        job.bought["contact-can"] = {2, Money{6580, job.currency}, "G-2"};
        job.bought["thrush-lining"] = {450, Money{9000, job.currency}, ""}; // 4.5 m of a roll
        job.bought["hard-oil"] = {1, {}, ""};                               // nobody said what it cost
        job.record.push_back({.id = 1,
                              .kind = EntryKind::Delivery,
                              .when = {{2027, 3, 14}, 600, 600},
                              .product = "contact-can",
                              .lot = "G-2"});
        job.record.push_back({.id = 2,
                              .kind = EntryKind::LeftOver,
                              .when = {{2027, 4, 1}, 600, 600},
                              .product = "contact-can",
                              .amount = 0.5});
        job.record.push_back(
            {.id = 3, .kind = EntryKind::LeftOver, .when = {{2027, 4, 1}, 600, 600}, .product = "gone", .amount = 1});
        const auto paid = pricesPaid(job, {2027, 4, 10});
        QCOMPARE(paid.size(), std::size_t{2});
        QVERIFY(paid[0].day == (CivilDate{2027, 3, 14}) && paid[0].packs == 2 && paid[0].paid.minor == 6580);
        QVERIFY(paid[1].day == (CivilDate{2027, 4, 10}) && paid[1].packs == 4.5);
        const auto left = packsLeft(job);
        QCOMPARE(left.size(), std::size_t{1});
        QVERIFY(left[0].number == "P-abcd-2" && left[0].opened && left[0].lot == "G-2");
        QVERIFY(goesOffWithin({.goesOff = CivilDate{2027, 4, 30}}, {2027, 4, 1}, 29));
        QVERIFY(!goesOffWithin({.goesOff = CivilDate{2027, 4, 30}}, {2027, 4, 1}, 28));
        QVERIFY(!goesOffWithin({}, {2027, 4, 1}, 10000));
    }

    /// Taking a rate in one job and starting another with it gives that job the same rates; each can be taken alone.
    void ratesGoWithThePerson() {
        const Job job = demoJob();
        Job taught = job;
        taught.work.hours["boards"] = {0.9, 0.05};
        taught.spoilChance = 0.1;
        for (Product& p : taught.catalogue.products)
            if (p.id == "contact-can") p.fields["rate"] = 0.4;
        const Person wren = personOf(job, taught, {.name = "Wren"});
        QVERIFY(wren.hours.size() == 1 && wren.coverage.size() == 1 && wren.spoilChance == 0.1);
        const Job next = withRatesOf(job, wren);
        QCOMPARE(next.work.person, std::string("Wren"));
        QVERIFY(next.work.hours == taught.work.hours && next.spoilChance == 0.1 && next.catalogue == taught.catalogue);
        QVERIFY(ratesOf(wren, next).empty()); // nothing differs any more
        const auto rates = ratesOf(wren, job);
        QCOMPARE(rates.size(), std::size_t{3});
        for (const BookRate& r : rates) {
            const Job one = withRatesOf(job, r.alone);
            QCOMPARE(ratesOf(wren, one).size(), std::size_t{2}); // this one, and no other
        }
        QVERIFY(personOf(job, job, wren) == wren);
    }

    /// A body is its surfaces, doors and boxes; what was chosen for the van in it is not.
    void aBodyStartsAnotherJob() {
        const Job plover = demoJob();
        const Job shell = shellOf(plover);
        QVERIFY(shell.finishes.empty() && shell.catalogue.products.empty() && shell.record.empty());
        QVERIFY(!shell.surface("bench-top") && !shell.surface("wet-cell-1") && shell.surface("pillar-1-left"));
        for (const Surface& s : shell.surfaces) {
            for (const Edge& e : s.edges) QVERIFY(e.kind != EdgeKind::Meets || shell.surface(e.surface));
            for (const Opening& o : s.openings) QVERIFY(o.kind != OpeningKind::Socket && o.kind != OpeningKind::Lamp);
            for (const Support& u : s.supports) QVERIFY(u.kind == SupportKind::Rib);
        }
        const Job job = fromBody(shell, newVanJob("Next", starterCatalogue(), {}, shell.surfaces), "Plover's body");
        QCOMPARE(job.before.body, std::string("Plover's body"));
        for (const Surface& s : job.surfaces) {
            QCOMPARE(s.before, !s.measurement.empty());
            const Surface* was = plover.surface(s.id);
            QVERIFY(was && s.measurement == was->measurement);
        }
        QVERIFY(job.access == plover.access && job.archBoxes.size() == plover.archBoxes.size());
        QVERIFY(job.before.checks.size() >= 3 && job.before.checks.size() <= 4);
    }

    /// Half from the rack, half bought: R1 holds the galley's front, the splashback wants a sheet of its own.
    /// 1.180 x 0.610 = 0.7198 m2 off the rack, 2.440 x 1.220 = 2.9768 m2 bought; what is laid is the same as before.
    void rackAndSheetsAreToldApart() {
        Job job = demoSecondJob();
        job.cutLists["dipper-ply"].stock.pop_back(); // without R2
        job.cutLists["dipper-ply"].stock[0].count = 1;
        const Plan planned = plan(job);
        std::vector<ProductCut> cuts;
        for (const CutProblem& problem : cutProblems(job, planned))
            cuts.push_back(cutProduct(problem, {.iterations = 100}));
        const Plan p = withCuts(planned, job, cuts);
        const auto ply = std::find_if(p.purchases.begin(), p.purchases.end(),
                                      [](const Purchase& l) { return l.product == "dipper-ply"; });
        QVERIFY(ply != p.purchases.end() && ply->packs == 1);
        QVERIFY(std::abs(ply->rackArea.value - 0.7198) < 1e-9);
        QVERIFY(std::abs(ply->boughtArea.value - 2.9768) < 1e-9);
        QVERIFY(std::abs(ply->laidArea.value - (0.854 * 0.554 + 0.634 * 0.354)) < 1e-9);
        // Left out of the plan it is nobody's.
        job.cutLists["dipper-ply"].stock[0].used = false;
        QVERIFY(!rackWish(job).reserved.contains("R1"));
    }
};

WESTRUM_TEST(RackTest)
#include "rack_test.moc"
