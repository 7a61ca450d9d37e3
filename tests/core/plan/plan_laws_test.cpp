#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/families/family.h"
#include "core/plan/cost_sharing.h"
#include "core/plan/cut_problems.h"
#include "core/plan/surface_stage.h"
#include "formats/demo.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <map>
#include <random>
#include <set>

using namespace westrum;
using namespace westrum::test;

namespace {

/// Small whole jobs over all families, drawn at random from the example's catalogue.
class JobDealer {
public:
    explicit JobDealer(unsigned seed) : dice_(seed) {}

    Job deal() {
        static const Job demo = demoJob();
        Job job;
        job.catalogue = demo.catalogue;
        job.currency = demo.currency;
        job.spoilChance = 0.05;
        const int surfaces = between(2, 4);
        for (int i = 0; i < surfaces; ++i) addSurface(job, i);
        // Other sizes and other shops, somebody who is paid for bringing, a spare.
        for (int i = between(0, 6); i > 0; --i) {
            const Product& p = job.catalogue.products[static_cast<std::size_t>(
                between(0, static_cast<int>(job.catalogue.products.size()) - 1))];
            if (!p.packPrice) continue;
            job.prices.offers.push_back({.product = p.id,
                                         .supplier = between(0, 1) ? "Ferry Wholesale" : "Corner shop",
                                         .size = static_cast<double>(between(0, 12)),
                                         .price = Money{p.packPrice->minor * between(40, 130) / 100 + 1, job.currency},
                                         .lot = between(0, 1) ? LotRule::Any : LotRule::Usual});
        }
        if (between(0, 1)) job.prices.suppliers = {{"Ferry Wholesale", Money{1200, job.currency}, {}}};
        for (const auto& [surface, options] : job.finishes)
            if (between(0, 3) == 0) job.spares[options.now().layers.back().product] = between(1, 2);
        return job;
    }

    int between(int low, int high) { return std::uniform_int_distribution(low, high)(dice_); }

private:
    void addSurface(Job& job, int i) {
        static const std::vector<std::vector<const char*>> buildUps{
            {"film-barrier", "reed-mat", "heron-oak"},
            {"wool-20", "foil-barrier", "batten-19", "larch-board", "hard-oil"},
            {"foam-30", "birch-ply-6", "chalk-paint"},
            {"tile-backer", "wet-coat", "tile-mortar", "quay-white"},
            {"tile-backer", "tile-mortar", "pebble-mosaic"},
            {"contact-can", "thrush-lining"},
            {"poplar-ply-12", "vinyl-glue", "coot-vinyl"},
            {"birch-ply-18", "seat-foam-80", "siskin-weave"},
            {"poplar-ply-4", "contact-can", "linnet-suede"}};
        static const std::array kinds{SurfaceKind::Floor,       SurfaceKind::LeftWall, SurfaceKind::Ceiling,
                                      SurfaceKind::WetCellWall, SurfaceKind::Bulkhead, SurfaceKind::Shelf};
        Surface s;
        s.id = s.name = "s" + std::to_string(i);
        s.kind = kinds[static_cast<std::size_t>(between(0, kinds.size() - 1))];
        const int length = between(500, 2600), height = between(400, 1500), first = between(30, 120),
                  apart = between(200, 450);
        const bool along = between(0, 1) == 1;
        s.measurement = test::rectangle(length, height);
        if (length > 1400 && height > 700 && between(0, 2) == 0)
            s.measurement.notches.push_back(
                notch(between(0, 1) * 2, between(150, 500), between(200, 600), between(80, 250)));
        if (length > 1400 && height > 900 && between(0, 2) == 0) {
            Opening window;
            window.name = "Window";
            window.kind = OpeningKind::Window;
            window.width = mm(between(200, 500));
            window.height = mm(between(150, 300));
            window.place = {0, mm(between(300, 500)), 3, mm(between(200, 800)), false};
            s.openings.push_back(window);
        }
        const int count = 1 + ((along ? height : length) - 2 * first) / apart;
        s.supports = {{"Batten", SupportKind::Batten, along, mm(first), mm(40), count, mm(apart), {}}};
        const auto& layers = buildUps[static_cast<std::size_t>(between(0, static_cast<int>(buildUps.size()) - 1))];
        for (const char* id : layers) {
            Layer l{id, {}, {}, false};
            if (std::string(id) == "linnet-suede") l.rules["face"] = 1;
            if (stockFormOf(job.catalogue.find(id)->family) == StockForm::Sheets && between(0, 1)) {
                l.rules["symmetric"] = 0;
                l.rules["grain"] = between(0, 1);
            }
            if (std::string(id) == "larch-board") l.rules["direction"] = between(0, 1);
            job.finishes[s.id].now().layers.push_back(std::move(l));
        }
        job.surfaces.push_back(std::move(s));
    }

    std::mt19937 dice_;
};

Plan planned(const Job& job) {
    Planner planner(0.05);
    const SurfaceStage surfaces = planner.surfaces(surfacesInput(job), {});
    std::vector<ProductCut> cuts;
    for (const CutProblem& problem : cutProblems(job, surfaces)) {
        Effort effort;
        effort.seed = 1;
        effort.iterations = 1;
        cuts.push_back(cutProduct(problem, effort));
    }
    return withCuts(surfaces, job, cuts);
}

std::map<std::string, double> needsOf(const Plan& p) {
    std::map<std::string, double> all;
    for (const Need& n : p.needs) all[n.product + '/' + std::to_string(static_cast<int>(n.serves))] += n.amount;
    return all;
}

bool same(const std::map<std::string, double>& a, const std::map<std::string, double>& b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(), [](const auto& x, const auto& y) {
        return x.first == y.first && std::abs(x.second - y.second) < 1e-3; // a cut may end at another rounding
    });
}

/// The products that two plans buy differently.
QByteArray differing(const Plan& a, const Plan& b) {
    std::map<std::string, std::int64_t> costs;
    for (const Purchase& p : a.purchases) costs[p.product] += p.cost ? p.cost->minor : 0;
    for (const Purchase& p : b.purchases) costs[p.product] -= p.cost ? p.cost->minor : 0;
    QByteArray said;
    auto needs = needsOf(a);
    for (const auto& [what, amount] : needsOf(b)) needs[what] -= amount;
    for (const auto& [what, by] : needs)
        if (std::abs(by) > 1e-6) said += ' ' + QByteArray::fromStdString(what) + ' ' + QByteArray::number(by);
    for (const auto& [product, by] : costs)
        if (by != 0) said += ' ' + QByteArray::fromStdString(product) + ' ' + QByteArray::number(qlonglong(by));
    return said;
}

/// WESTRUM_LAW_JOBS=2000 deals that many: the laws at length.
unsigned jobsDealt(unsigned usual) {
    const int asked = qEnvironmentVariableIntValue("WESTRUM_LAW_JOBS");
    return asked > 0 ? static_cast<unsigned>(asked) : usual;
}

} // namespace

/// What holds for every job, whatever is in it.
class PlanLawsTest : public QObject {
    Q_OBJECT
private slots:
    void theSurfacesBearTheWholeBill() {
        for (unsigned seed = 1; seed <= jobsDealt(120); ++seed) {
            const Job job = JobDealer(seed).deal();
            const Plan p = planned(job);
            std::int64_t lines = 0, borne = 0;
            bool priced = true;
            for (const Purchase& q : p.purchases) {
                priced = priced && q.cost;
                if (q.cost) lines += q.cost->minor;
                for (const PurchaseShare& s : q.shares) borne += s.cost ? s.cost->minor : 0;
            }
            for (const DeliveryPlan& d : p.deliveries) {
                lines += d.cost.minor;
                for (const PurchaseShare& s : d.shares) borne += s.cost->minor;
            }
            const QByteArray job_ = QByteArray("job ") + QByteArray::number(seed);
            QVERIFY2(priced && p.totals.cost, job_.constData());
            QVERIFY2(p.totals.cost->minor == lines, job_.constData());
            QVERIFY2(borne == lines, (job_ + ": " + QByteArray::number(lines - borne) + " not borne").constData());
            std::int64_t bySurface = 0;
            for (const SurfaceCost& c : costBySurface(job, p)) bySurface += c.cost ? c.cost->minor : 0;
            QVERIFY2(bySurface == lines, job_.constData());
        }
    }

    void nothingIsLeftOverThatWasNotBought() {
        for (unsigned seed = 1; seed <= jobsDealt(120); ++seed) {
            const Plan p = planned(JobDealer(seed).deal());
            for (const Purchase& q : p.purchases) {
                const QByteArray line = QByteArray("job ") + QByteArray::number(seed) + ", " + q.product.c_str();
                QVERIFY2(q.laidMass.value >= -1e-9 && q.boughtMass.value >= -1e-9, line.constData());
                QVERIFY2(q.consumedArea.value <= q.boughtArea.value + 1e-6, line.constData());
                if (q.measuredOut())
                    QVERIFY2(q.amount <= q.amountPerPack * q.packs + 1e-6, line.constData());
                else if (q.quantity == Quantity::Length)
                    QVERIFY2(q.lengthLeft.value >= -1e-6, line.constData());
                else if (q.unitsPerPack > 1)
                    QVERIFY2(q.unitsLeft() >= 0, line.constData());
            }
            QVERIFY(p.totals.laidArea.value <= p.totals.boughtArea.value + 1e-6);
        }
    }

    void theOrderOfSurfacesChangesNothing() {
        const auto reversed = [](Job job) {
            std::reverse(job.surfaces.begin(), job.surfaces.end());
            return job;
        };
        std::vector<Job> jobs{demoJob()};
        for (unsigned seed = 1; seed <= jobsDealt(60); ++seed) jobs.push_back(JobDealer(seed).deal());
        for (std::size_t i = 0; i < jobs.size(); ++i) {
            const Plan a = planned(jobs[i]), b = planned(reversed(jobs[i]));
            const QByteArray job = QByteArray("job ") + QByteArray::number(i);
            QVERIFY2(a.totals.cost == b.totals.cost, (job + differing(a, b)).constData());
            QVERIFY2(std::abs(a.totals.laidMass.value - b.totals.laidMass.value) < 1e-6, job.constData());
            QVERIFY2(same(needsOf(a), needsOf(b)), job.constData());
        }
    }

    void theHandOfASurfaceChangesNothing() {
        // Mirrored, supports, openings and all. Planks begin at the left whatever the hand, and what is nested on a
        // roll is another puzzle mirrored, its nap as it was: both are left out.
        for (unsigned seed = 1; seed <= jobsDealt(120); ++seed) {
            Job job = JobDealer(seed).deal();
            std::erase_if(job.surfaces, [&](const Surface& s) {
                const Product* face = job.catalogue.find(job.finish(s.id).layers.back().product);
                return familyOf(face->family)->laid.floats || stockFormOf(face->family) == StockForm::Roll;
            });
            if (job.surfaces.empty()) continue;
            Job other = job;
            for (Surface& s : other.surfaces) {
                const std::string id = s.id;
                s = mirrored(s);
                s.id = s.name = id;
            }
            const Plan a = planned(job), b = planned(other);
            const QByteArray said = QByteArray("job ") + QByteArray::number(seed) + differing(a, b);
            QVERIFY2(a.totals.cost == b.totals.cost, said.constData());
            QVERIFY2(std::abs(a.totals.laidMass.value - b.totals.laidMass.value) < 1e-6, said.constData());
            QVERIFY2(same(needsOf(a), needsOf(b)), said.constData());
        }
    }

    void everyPieceHasAKeyOfItsOwn() {
        std::vector<Job> jobs{demoJob()};
        for (unsigned seed = 1; seed <= jobsDealt(120); ++seed) jobs.push_back(JobDealer(seed).deal());
        for (const Job& job : jobs) {
            const SurfaceStage surfaces = Planner(0.05).surfaces(surfacesInput(job), {});
            for (const CutProblem& problem : cutProblems(job, surfaces)) {
                std::set<std::string> keys;
                for (const CutPiece& piece : problem.pieces) QVERIFY2(keys.insert(piece.key).second, piece.key.c_str());
            }
            std::set<std::string> runs;
            for (const TrimRun& run : surfaces.trims.runs)
                QVERIFY2(runs.insert(run.surface + '/' + run.name).second, run.name.c_str());
        }
    }

    void aSurfaceCutInTwoTakesAsMuch() {
        // Coats, glue, insulation, grout by area: of one wall, and of its two halves.
        for (unsigned seed = 1; seed <= jobsDealt(60); ++seed) {
            JobDealer dealer(seed);
            const double length = dealer.between(1000, 3000), height = dealer.between(500, 1500),
                         at = dealer.between(300, 700);
            const auto amounts = [&](const std::vector<double>& parts) {
                Job job;
                job.catalogue = demoJob().catalogue;
                for (std::size_t i = 0; i < parts.size(); ++i) {
                    Surface s;
                    s.id = "w" + std::to_string(i);
                    s.kind = SurfaceKind::LeftWall;
                    s.measurement = test::rectangle(parts[i], height);
                    job.surfaces.push_back(s);
                    for (const char* id : {"foam-30", "contact-can", "chalk-paint", "primer"})
                        job.finishes[s.id].now().layers.push_back({id, {}, {}, false});
                }
                const Plan p = planned(job);
                std::map<std::string, double> all;
                for (const SurfacePlan& s : p.surfaces)
                    for (const LayerPlan& l : s.layers) {
                        all[l.product] += l.take.amount;
                        all[l.product + " kg"] += l.mass.value;
                    }
                return all;
            };
            QVERIFY(same(amounts({length}), amounts({at, length - at})));
        }
    }
};

WESTRUM_TEST(PlanLawsTest)
#include "plan_laws_test.moc"
