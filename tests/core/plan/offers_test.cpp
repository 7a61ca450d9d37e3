#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/cost_sharing.h"
#include "core/plan/cut_problems.h"
#include "formats/demo.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

namespace {

/// A floor of 3.6 m2 with two coats of paint at 12 m2/l: 0.6 l.
Job painted(double square) {
    Job job = jobWith(test::rectangle(square * 1000, 1000), plankProduct(1000, 200, 4, 4000), {{"gap", 0}});
    Product paint{.id = "paint", .family = "coating", .name = "Paint", .supplier = "Corner shop"};
    paint.fields = {{"coats", 2}, {"spreading", 12}, {"tin", 0.75}};
    paint.packPrice = Money{1500, {}};
    job.catalogue.products.push_back(paint);
    job.consumables = false;
    job.finishes["floor"].now().layers.push_back({"paint", {}, {}, false});
    return job;
}

Plan bought(const Job& job) { return withCuts(plan(job), job, {}); }

std::vector<const Purchase*> linesOf(const Plan& p, const std::string& product) {
    std::vector<const Purchase*> all;
    for (const Purchase& q : p.purchases)
        if (q.product == product) all.push_back(&q);
    return all;
}

} // namespace

/// Other sizes, other suppliers, deliveries: through to the list.
class OffersTest : public QObject {
    Q_OBJECT
private slots:
    void tinsOfSeveralSizesAreCombined() {
        // 9 m2 twice at 12 m2/l: 1.5 l. Two tins of 0.75 at 15.00: 30.00; a tin of 1 l at 17.00 and one of 0.5
        // at 9.50: 26.50.
        Job job = painted(9);
        QCOMPARE(linesOf(bought(job), "paint")[0]->cost->minor, 3000);
        job.prices.offers = {{.product = "paint", .supplier = "Paint yard", .size = 1, .price = {1700, {}}},
                             {.product = "paint", .supplier = "Paint yard", .size = 0.5, .price = {950, {}}}};
        const Plan p = bought(job);
        const auto lines = linesOf(p, "paint");
        QCOMPARE(lines.size(), 2UL);
        QCOMPARE(lines[0]->cost->minor + lines[1]->cost->minor, 2650);
        QCOMPARE(lines[0]->supplier, std::string("Paint yard"));
        QVERIFY(p.leastCost == p.totals.cost); // proved
        // Both lines are the floor's, and all adds up.
        std::int64_t sum = 0;
        for (const Purchase& q : p.purchases)
            for (const PurchaseShare& s : q.shares) sum += s.cost->minor;
        QCOMPARE(sum, p.totals.cost->minor);
        job.prices.offers[0].state = OfferState::OutOfStock;
        job.prices.offers[1].state = OfferState::Withdrawn;
        QCOMPARE(linesOf(bought(job), "paint")[0]->cost->minor, 3000);
    }

    /// 20 planks are needed, ten in a pack of 40.00, 2 m2. Half a pack and one whole in hand are 15: one pack is
    /// bought, and 5 of it are used. Two in hand: nothing is bought, and nothing is paid. 1.25 packs are 12 planks,
    /// not 12.5.
    void whatIsOnTheShelfIsUsedFirst() {
        Job job = jobWith(test::rectangle(4000, 1000), plankProduct(1000, 200, 10, 4000),
                          {{"gap", 0}, {"stagger", 0}, {"endLeast", 0}});
        job.consumables = false;
        const auto line = [&] {
            const Plan p = bought(job);
            return *linesOf(p, "plank")[0];
        };
        QCOMPARE(line().unitsNeeded, 20);
        QCOMPARE(line().packs, 2);
        job.shelf = {{"plank", 0.5, "P1"}, {"plank", 1, "P2"}};
        Purchase q = line();
        QCOMPARE(q.packs, 1);
        QCOMPARE(q.shelf, 15.0);
        QCOMPARE(q.unitsLeft(), 5);
        QCOMPARE(q.cost->minor, 4000);
        QVERIFY(std::abs(q.boughtArea.value - 2) < 1e-9 && std::abs(q.rackArea.value - 3) < 1e-9);
        QVERIFY(std::abs(q.consumedArea.value - 4) < 1e-9);
        QVERIFY(std::abs(bought(job).totals.laidArea.value - 4) < 1e-9);
        job.spares = {{"plank", 1}}; // spares come on top
        QCOMPARE(line().packs, 2);
        job.spares.clear();
        job.shelf = {{"plank", 2, {}}};
        q = line();
        QCOMPARE(q.packs, 0);
        QCOMPARE(q.unitsLeft(), 0);
        QCOMPARE(q.cost->minor, 0);
        QCOMPARE(bought(job).totals.cost->minor, 0);
        QCOMPARE(q.boughtMass.value, 0.0);
        QVERIFY(q.laidMass.value > 0);               // it is in the van all the same
        job.catalogue.products[0].packPrice.reset(); // nobody misses a price of what is not bought
        const Plan free = bought(job);
        QVERIFY(free.totals.cost && free.totals.cost->minor == 0);
        QVERIFY(std::none_of(free.bought.begin(), free.bought.end(),
                             [](const Remark& r) { return r.kind == RemarkKind::PriceMissing; }));
        job.shelf = {{"plank", 1.25, {}}};
        QCOMPARE(line().shelf, 12.0);
        QCOMPARE(line().packs, 1);
        job.shelf = {{"plank", 30, {}}, {"nothing of ours", 3, {}}}; // more than is needed stays on the shelf
        QCOMPARE(line().shelf, 20.0);
        QCOMPARE(line().unitsLeft(), 0);
    }

    /// 1.5 l of paint; half a tin of 0.75 is 0.375, so 1.125 are to be bought: two tins, 30.00; or, where half a litre
    /// is to be had at 9.50, one tin and one of these: 24.50 for 1.25 l. With one tin in hand 0.75 are left: one
    /// more, 15.00, cheaper than 1 l at 17.00.
    void theShelfGoesBeforeOffersOfOtherSizes() {
        Job job = painted(9);
        job.shelf = {{"paint", 0.5, {}}};
        QCOMPARE(linesOf(bought(job), "paint")[0]->cost->minor, 3000);
        job.prices.offers = {{.product = "paint", .supplier = "Paint yard", .size = 1, .price = {1700, {}}},
                             {.product = "paint", .supplier = "Paint yard", .size = 0.5, .price = {950, {}}}};
        Plan p = bought(job);
        double amount = 0, shelf = 0, left = 0;
        std::int64_t cost = 0;
        for (const Purchase* q : linesOf(p, "paint")) {
            amount += q->amount;
            shelf += q->shelf;
            left += q->amountLeft();
            cost += q->cost->minor;
            QVERIFY(!q->offered || *q->offered == 0.5);
        }
        QCOMPARE(cost, 2450);
        QVERIFY(std::abs(amount - 1.5) < 1e-9 && std::abs(shelf - 0.375) < 1e-9);
        QVERIFY(std::abs(left - (0.375 + 1.25 - 1.5)) < 1e-9);
        job.shelf = {{"paint", 1, {}}};
        p = bought(job);
        QCOMPARE(linesOf(p, "paint").size(), 1UL);
        QCOMPARE(linesOf(p, "paint")[0]->cost->minor, 1500);
        QVERIFY(!linesOf(p, "paint")[0]->offered);
    }

    void packsOfTwoSizesShareTheNeedAndTheSurfacesTheBill() {
        // Two floors of 2.6 and 1.4 m2 of planks of 0.2 m2: 13 and 7, 20 in all. A pack of 16 at 60.00 and one of 4 at
        // 17.00 are 77.00; packs of the catalogue's 10 at 40.00 would be 80.00.
        Job job = jobWith(test::rectangle(2600, 1000), plankProduct(1000, 200, 10, 4000),
                          {{"gap", 0}, {"stagger", 0}, {"endLeast", 0}});
        Surface second = job.surfaces[0];
        second.id = "second";
        second.measurement = test::rectangle(1400, 1000);
        job.surfaces.push_back(second);
        job.finishes["second"] = job.finishes["floor"];
        job.consumables = false;
        job.prices.offers = {
            {.product = "plank", .supplier = "Hall", .size = 16, .price = {6000, {}}, .lot = LotRule::Any},
            {.product = "plank", .supplier = "Hall", .size = 4, .price = {1700, {}}, .lot = LotRule::Any}};
        const Plan bare = plan(job);
        std::vector<ProductCut> cuts;
        for (const CutProblem& problem : cutProblems(job, bare)) cuts.push_back(cutProduct(problem, {.iterations = 1}));
        for (const Plan& p : {bought(job), withCuts(bare, job, cuts)}) {
            const auto lines = linesOf(p, "plank");
            int needed = 0, capacity = 0;
            std::int64_t cost = 0;
            double consumed = 0;
            std::map<std::string, std::int64_t> bears;
            for (const Purchase* q : lines) {
                QVERIFY(q->unitsLeft() >= 0);
                QVERIFY(q->consumedArea.value <= q->boughtArea.value + 1e-9);
                needed += q->unitsNeeded;
                capacity += q->packs * q->unitsPerPack;
                cost += q->cost->minor;
                consumed += q->consumedArea.value;
                for (const PurchaseShare& s : q->shares) bears[s.surface] += s.cost->minor;
            }
            QCOMPARE(needed, unitsNeededOf(p.purchases, "plank"));
            QVERIFY(capacity >= needed);
            QVERIFY(std::abs(consumed - needed * 0.2) < 1e-9);
            QCOMPARE(bears["floor"] + bears["second"], cost);
            // As their planks are: whatever the sizes of the packs.
            const double share = double(bears["floor"]) / double(cost);
            QVERIFY2(std::abs(share - 13.0 / 20) < 0.06, qPrintable(QString::number(share)));
        }
    }

    void stockOfOneNameIsPricedByItsSize() {
        // Sheets of 1000 x 1000 at 20.00 and of 2000 x 1000 at 30.00 that both are called "half": each line by its own.
        Job job = jobWith(test::rectangle(1500, 900), plankProduct(1000, 200, 10, 4000), {});
        Product ply{.id = "ply", .family = "sheet", .name = "Ply"};
        ply.fields = {{"length", 500}, {"width", 400}, {"thickness", 6}, {"edgeTrim", 0}};
        ply.packPrice = Money{100000, {}};
        job.catalogue.products.push_back(ply);
        job.consumables = false;
        CutList& list = job.cutLists["ply"];
        list.useOwnStock = false;
        StockEntry small{.id = "a", .name = "half"}, large{.id = "b", .name = "half"};
        small.length = small.width = Reading{{}, {1000}};
        small.price = Money{2000, {}};
        large.length = Reading{{}, {2000}};
        large.width = Reading{{}, {1000}};
        large.price = Money{3000, {}};
        list.stock = {small, large};
        LoosePiece lid{.id = "p1", .name = "Lid"}, shelf{.id = "p2", .name = "Shelf"};
        lid.shape = {{westrum::rectangle(0, 0, 900, 900)}};
        shelf.shape = {{westrum::rectangle(0, 0, 1900, 900)}};
        list.pieces = {lid, shelf};
        const Plan bare = plan(job);
        std::vector<ProductCut> cuts;
        for (const CutProblem& problem : cutProblems(job, bare)) cuts.push_back(cutProduct(problem, {.iterations = 1}));
        const Plan p = withCuts(bare, job, cuts);
        const auto lines = linesOf(p, "ply");
        std::int64_t cost = 0;
        for (const Purchase* q : lines) cost += q->cost->minor;
        std::int64_t items = 0;
        for (const ProductCut& c : cuts)
            if (c.product == "ply")
                for (const CutItem& item : c.items) items += item.stock == "a" ? 2000 : 3000;
        QCOMPARE(cost, items);
        for (std::size_t i = 1; i < lines.size(); ++i) QVERIFY(lines[i]->size != lines[0]->size);
    }

    void whatMustBeOfOneLotComesFromOneSupplier() {
        // 1.5 l. Half a litre costs 5.00 here, a litre 9.00 there: one of each is cheapest, 14.00; or, all of one
        // lot, three times half a litre for 15.00.
        Job job = painted(9);
        job.catalogue.products.back().packPrice.reset();
        job.prices.offers = {{.product = "paint", .supplier = "Here", .size = 0.5, .price = {500, {}}},
                             {.product = "paint", .supplier = "There", .size = 1, .price = {900, {}}}};
        QCOMPARE(linesOf(bought(job), "paint").size(), 2UL);
        job.prices.offers[1].lot = LotRule::One;
        const Plan p = bought(job);
        QCOMPARE(linesOf(p, "paint").size(), 1UL);
        QCOMPARE(linesOf(p, "paint")[0]->cost->minor, 1500);
        QVERIFY(linesOf(p, "paint")[0]->oneLot);
        // Planks are seen, so they come in one lot; unless who sells them says that theirs all match.
        QVERIFY(linesOf(p, "plank")[0]->oneLot);
        job.prices.offers.push_back({.product = "plank", .supplier = "Here", .price = {4000, {}}, .lot = LotRule::Any});
        QVERIFY(!linesOf(bought(job), "plank")[0]->oneLot);
    }

    void deliveryIsPaidOnceSharedAndAvoided() {
        Job job = painted(9);
        job.catalogue.products[0].supplier = "Plank hall";
        job.prices.suppliers = {{"Plank hall", Money{3900, {}}, {}}, {"Corner shop", {}, {}}};
        const Plan p = bought(job);
        QCOMPARE(p.deliveries.size(), 1UL);
        QCOMPARE(p.deliveries[0].cost.minor, 3900);
        std::int64_t sum = 0;
        for (const Purchase& q : p.purchases) sum += q.cost->minor;
        QCOMPARE(p.totals.cost->minor, sum + 3900);
        std::int64_t surfaces = 0;
        for (const SurfaceCost& c : costBySurface(job, p)) surfaces += c.cost->minor;
        QCOMPARE(surfaces, p.totals.cost->minor);
        // The corner shop has the planks as well, 20.00 dearer in all: cheaper than having them brought.
        const int packs = linesOf(p, "plank")[0]->packs;
        job.prices.offers = {{.product = "plank", .supplier = "Corner shop", .price = {4000 + 2000 / packs, {}}}};
        const Plan other = bought(job);
        QVERIFY(other.deliveries.empty());
        QCOMPARE(linesOf(other, "plank")[0]->supplier, std::string("Corner shop"));
        QVERIFY(other.totals.cost->minor < p.totals.cost->minor);
    }

    void anotherCurrencyNeedsARate() {
        Job job = painted(9);
        job.prices.offers = {
            {.product = "paint", .supplier = "Overseas", .size = 1.5, .price = {1000, *currencyOf("GBP")}}};
        const auto told = [](const Plan& p) {
            return std::any_of(p.remarks.begin(), p.remarks.end(),
                               [](const Remark& r) { return r.kind == RemarkKind::RateMissing; });
        };
        Plan p = bought(job);
        QVERIFY(told(p));
        QCOMPARE(linesOf(p, "paint")[0]->cost->minor, 3000);
        job.prices.rates["GBP"] = 1.15;
        p = bought(job);
        QVERIFY(!told(p));
        QCOMPARE(linesOf(p, "paint")[0]->cost->minor, 1150);
    }

    void sparesAreBoughtWhereTheLineIs() {
        Job job = painted(9);
        job.prices.offers = {{.product = "plank", .supplier = "Paint yard", .size = 6, .price = {5000, {}}}};
        const Plan before = bought(job);
        job.spares["plank"] = 1;
        const Plan after = bought(job);
        const Purchase &a = *linesOf(before, "plank")[0], &b = *linesOf(after, "plank")[0];
        QCOMPARE(b.packs, a.packs + 1);
        QCOMPARE(after.totals.cost->minor - before.totals.cost->minor, a.packPrice->minor);
    }

    void nothingChangesWithoutAChoice() {
        Job job = demoJob();
        job.prices = {};
        job.spares["heron-oak"] = 2; // nor are spares counted twice
        const Plan p = plan(job);
        const Plan same = withCuts(p, job, {});
        QCOMPARE(same.totals.cost->minor, p.totals.cost->minor);
        QVERIFY(same.deliveries.empty() && !same.leastCost);
        for (const Purchase& q : same.purchases) QVERIFY(!q.supplier.empty());
    }
};

WESTRUM_TEST(OffersTest)
#include "offers_test.moc"
