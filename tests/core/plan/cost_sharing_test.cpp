#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/cost_sharing.h"
#include "core/plan/cut_problems.h"
#include "formats/demo.h"
#include "tests/support/any_van.h"
#include "tests/support/registry.h"

#include <map>

using namespace westrum;
using namespace westrum::test;

namespace {

Plan cutPlan(const Job& job) {
    const Plan planned = plan(job);
    std::vector<ProductCut> cuts;
    for (const CutProblem& problem : cutProblems(job, planned))
        cuts.push_back(cutProduct(problem, {.seed = 1, .iterations = 1}));
    return withCuts(planned, job, cuts);
}

/// What every purchase must satisfy, whatever the job; empty if it does.
QString unbalanced(const Job& job, const Plan& p) {
    std::int64_t total = 0;
    double mass = 0;
    for (const Purchase& q : p.purchases) {
        const QString who = QString::fromStdString(q.product + " " + q.size);
        // Bought is what is needed and what is left, by whatever it is reckoned in; a pack less would not do.
        if (q.amountPerPack > 0) {
            if (q.packs * q.amountPerPack < q.amount - 1e-6) return who + QStringLiteral(" does not suffice");
            if (q.spare == 0 && q.packs > 1 && (q.packs - 1) * q.amountPerPack > q.amount + 1e-6)
                return who + QStringLiteral(" is a pack too many");
        } else if (stockFormOf(q.family) == StockForm::Roll) {
            const double pieces = q.laidArea.value, run = q.boughtArea.value;
            if (run < pieces - 1e-6) return who + QStringLiteral(" covers less than its pieces");
        } else {
            if (q.unitsLeft() < 0) return who + QStringLiteral(" is too few");
            if (q.spare == 0 && q.unitsLeft() >= q.unitsPerPack) return who + QStringLiteral(" is a pack too many");
        }
        if (q.consumedArea.value > q.boughtArea.value + 1e-6)
            return who + QStringLiteral(" consumes more than is bought");
        if (q.shares.empty()) return who + QStringLiteral(" belongs to nobody");
        std::int64_t sum = 0;
        double kg = 0;
        for (const PurchaseShare& s : q.shares) {
            if (!s.surface.empty() && !job.surface(s.surface))
                return who + QStringLiteral(" goes to an unknown surface");
            if (s.consumed < 0 || (s.cost && s.cost->minor < 0)) return who + QStringLiteral(" has a negative share");
            sum += s.cost ? s.cost->minor : 0;
            kg += s.mass.value;
        }
        if (sum != (q.cost ? q.cost->minor : 0)) return who + QStringLiteral(" does not add up");
        if (std::abs(kg - q.laidMass.value) > 1e-6) return who + QStringLiteral(" weighs something else");
        total += sum;
        mass += kg;
    }
    for (const DeliveryPlan& d : p.deliveries) { // bringing it is shared as well
        std::int64_t sum = 0;
        for (const PurchaseShare& s : d.shares) sum += s.cost->minor;
        if (sum != d.cost.minor)
            return QString::fromStdString(d.supplier) + QStringLiteral("'s delivery does not add up");
        total += sum;
    }
    if (p.totals.cost && p.totals.cost->minor != total) return QStringLiteral("the total is another");
    if (std::abs(p.totals.laidMass.value - mass) > 1e-6) return QStringLiteral("the mass is another");
    std::int64_t bySurface = 0;
    for (const SurfaceCost& c : costBySurface(job, p)) bySurface += c.cost ? c.cost->minor : 0;
    if (p.totals.cost && bySurface != total) return QStringLiteral("the surfaces' costs do not add up");
    return {};
}

} // namespace

/// Every cent and gram of what is bought belongs to a surface.
class CostSharingTest : public QObject {
    Q_OBJECT
private slots:
    void twoFloorsBearWhatTheyConsume() {
        // 2000 x 1000 of planks 1000 x 200: five rows of two planks, 10 in all. A second floor as wide as half of it:
        // five rows of one: 5. Packs of four at 40.00: 4 packs, 16 planks, 160.00. The spare one is borne as 10 to 5.
        Job job = jobWith(test::rectangle(2000, 1000), plankProduct(1000, 200, 4, 4000),
                          {{"gap", 0}, {"stagger", 0}, {"leastEnd", 0}});
        Surface other = job.surfaces[0];
        other.id = other.name = "other";
        other.measurement = test::rectangle(1000, 1000);
        job.surfaces.push_back(other);
        job.finishes["other"] = job.finishes["floor"];
        for (Layer* l : {&job.finishes["floor"].now().layers[0], &job.finishes["other"].now().layers[0]})
            l->rules = {{"gap", 0}, {"stagger", 0}, {"leastEnd", 0}};
        const Plan p = plan(job);
        QCOMPARE(p.purchases.size(), 1UL);
        QCOMPARE(p.purchases[0].packs, 4);
        QCOMPARE(p.purchases[0].shares.size(), 2UL);
        QCOMPARE(p.purchases[0].shares[0].cost->minor, 10667); // two thirds of 160.00
        QCOMPARE(p.purchases[0].shares[1].cost->minor, 5333);
        QCOMPARE(unbalanced(job, p), QString());
    }

    void theExampleAddsUpToTheCentAndTheGram() {
        const Job job = demoJob();
        const Plan before = plan(job);
        QCOMPARE(unbalanced(job, before), QString());
        const Plan p = cutPlan(job);
        QCOMPARE(unbalanced(job, p), QString());
        QVERIFY(p.purchases.size() > 20);
    }

    void anyVanAddsUpInAnyOrder() {
        std::mt19937 dice(5);
        for (int round = 0; round < 12; ++round) {
            Job job = anyVan(dice);
            const Plan p = cutPlan(job);
            QVERIFY2(unbalanced(job, p).isEmpty(), qPrintable(unbalanced(job, p)));
            // The same surfaces in another order cost and weigh the same, each but for odd cents.
            const Plan one = plan(job);
            std::reverse(job.surfaces.begin(), job.surfaces.end());
            const Plan other = plan(job);
            QVERIFY(one.totals.cost == other.totals.cost);
            QVERIFY(std::abs(one.totals.laidMass.value - other.totals.laidMass.value) < 1e-6);
            std::map<std::string, std::int64_t> before;
            for (const SurfaceCost& c : costBySurface(job, one)) before[c.surface] = c.cost->minor;
            for (const SurfaceCost& c : costBySurface(job, other))
                QVERIFY(std::abs(before[c.surface] - c.cost->minor) <=
                        static_cast<std::int64_t>(other.purchases.size()));
        }
    }

    void withoutAPriceSharesAreStillKnown() {
        Job job = jobWith(test::rectangle(2000, 1000), plankProduct(1000, 200, 4, 4000), {});
        job.catalogue.products[0].packPrice.reset();
        const Plan p = plan(job);
        QVERIFY(!p.purchases[0].shares.empty() && !p.purchases[0].shares[0].cost);
        QVERIFY(!costBySurface(job, p)[0].cost);
    }
};

WESTRUM_TEST(CostSharingTest)
#include "cost_sharing_test.moc"
