#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/fitting/efforts.h"
#include "core/vanwork/learned.h"
#include "core/vanwork/took.h"
#include "formats/demo.h"
#include "tests/support/registry.h"

#include <cmath>

using namespace westrum;

/// What a job took.
class TookTest : public QObject {
    Q_OBJECT
private slots:
    /// Two steps by hand: planned 60 and 30 min, took 90 and 45, on two days; one cut of four spoilt.
    void theWholeIsAddedUp() {
        Job job = demoJob();
        job.record = {
            {.id = 1,
             .kind = EntryKind::StepDone,
             .when = {{2027, 3, 13}, 600, 690},
             .surface = "ceiling",
             .step = "a",
             .planned = 60},
            {.id = 2,
             .kind = EntryKind::StepDone,
             .when = {{2027, 3, 20}, 600, 645},
             .surface = "floor",
             .step = "b",
             .planned = 30},
            {.id = 3,
             .kind = EntryKind::StepDone,
             .when = {{2027, 3, 20}, 700, 760},
             .surface = "gone",
             .step = "c",
             .planned = 60},
            {.id = 4, .kind = EntryKind::PieceCut, .when = {{2027, 3, 20}, 0, 0}, .surface = "ceiling", .amount = 3},
            {.id = 5, .kind = EntryKind::PieceSpoilt, .when = {{2027, 3, 20}, 0, 0}, .surface = "ceiling", .amount = 1},
            {.id = 6, .kind = EntryKind::Note, .when = {{2027, 3, 21}, 0, 0}, .text = "washers missing"}};
        job.mass.front = 1400;
        job.mass.rear = 1300;
        job.weighings = {{"2027-03-28", 1450, 1370, 115, ""}};
        job.bought["contact-can"] = {2, Money{7000, job.currency}, "G-2"};
        const Plan p = plan(job);
        const Took took = tookOf(job, p);
        QVERIFY(std::abs(took.hoursPlanned - 2.5) < 1e-12 && std::abs(took.hoursReally - 3.25) < 1e-12);
        QVERIFY(took.days == 2 && took.first == CivilDate({2027, 3, 13}) && took.last == CivilDate({2027, 3, 20}));
        QVERIFY(took.cut == 3 && took.spoilt == 1 && took.remarks.size() == 1);
        QVERIFY(took.weighed == std::optional(Kg{120}) && took.weighedPlan == std::optional(Kg{115}));
        const auto of = [&](const char* id) {
            return *std::find_if(took.surfaces.begin(), took.surfaces.end(),
                                 [&](const Took::OfSurface& s) { return s.surface == id; });
        };
        QVERIFY(std::abs(of("ceiling").hoursReally - 1.5) < 1e-12 && of("ceiling").spoilt == 1);
        QVERIFY(std::abs(of("floor").hoursPlanned - 0.5) < 1e-12 && of("floor").spoilt == 0);
        // Money: as the plan has it, and what was paid of it.
        QVERIFY(took.costPlanned == p.totals.cost && took.paid.minor == 7000 && took.linesPaid == 1);
        QCOMPARE(took.lines, static_cast<int>(p.purchases.size()));
        QVERIFY(took.products.size() == 1 && took.products[0].lots == std::set<std::string>{"G-2"});
    }

    /// Hours and steps of the surfaces make those of the whole; laid areas are those of the plan.
    void partsMakeTheWhole() {
        const Job job = demoJobUnderWay();
        const Plan p = plan(job);
        const Took took = tookOf(job, p);
        int steps = 0, done = 0;
        double whole = 0, really = 0;
        for (const Took::OfSurface& s : took.surfaces) {
            steps += s.steps, done += s.done, whole += s.hours, really += s.hoursReally;
            QCOMPARE(s.done > 0, s.last.has_value());
            const SurfacePlan* plan = p.surface(s.surface);
            QCOMPARE(s.area, plan->faceLayer() ? plan->faceLayer()->area : M2{});
        }
        QVERIFY(steps == took.steps && done == took.done && done > 100);
        QVERIFY(std::abs(whole - took.hoursWhole) < 1e-9 && std::abs(really - took.hoursReally) < 1e-9);
        QVERIFY(took.hoursPlanned <= took.hoursWhole + 1e-9);
        const JobDone key = jobDone(job, p, {2027, 5, 1});
        QVERIFY(std::abs(key.hoursReally - took.hoursReally) < 1e-9 && key.massKg == p.balance.added.value);
    }

    /// By hand: laid with what was to be 2 containers, 3 are empty. ln 1.5 = 0.405 of three observations, the default
    /// counting as two more: e^(0.405 x 3/5) = 1.2754. The rest, planned as the whole less 2, takes that much more.
    void emptiedSoonerSaysHowManyMore() {
        Job job = demoJob();
        Plan p = plan(job);
        const auto line = std::find_if(p.purchases.begin(), p.purchases.end(),
                                       [](const Purchase& x) { return x.product == "contact-can"; });
        QVERIFY(line != p.purchases.end());
        QVERIFY(!emptiedConsequence(job, p, "contact-can")); // nothing of it is laid yet
        double whole = 0, laid = 0;
        for (const SurfacePlan& s : p.surfaces)
            for (std::size_t k = 0; k < s.layers.size(); ++k) {
                if (s.layers[k].product != "contact-can") continue;
                const double containers = s.layers[k].take.amount / line->amountPerPack;
                whole += containers;
                if (s.surface != "left-upper") continue;
                laid += containers;
                for (const FitStep& step : s.steps)
                    if (step.layer == static_cast<int>(k)) job.logs[s.surface].done.insert(step.key);
            }
        QVERIFY(laid > 0 && laid < whole);
        job.record = {{.id = 1,
                       .kind = EntryKind::Emptied,
                       .when = {{2027, 3, 20}, 0, 0},
                       .product = "contact-can",
                       .amount = 3}};
        const auto c = emptiedConsequence(job, p, "contact-can");
        QVERIFY(c);
        const double ratio = std::exp(std::log(3 / laid) * 3 / 5);
        QVERIFY(std::abs(c->planned - laid) < 1e-9 && std::abs(c->still - (whole - laid) * ratio) < 1e-9);
        QCOMPARE(c->more, std::max(0, static_cast<int>(std::ceil(3 + (whole - laid) * ratio)) - line->packs));
        QVERIFY(c->more > 0 && c->cost == std::optional(*line->packPrice * c->more));
        QVERIFY(!emptiedConsequence(job, p, "unheard-of"));
    }

    /// A spoilt piece: the rack comes after what is left here and before what must be bought.
    void aSpoiltPieceIsCutFromTheRack() {
        const Job job = demoJob();
        const Plan p = plan(job);
        std::vector<RackPiece> rack = exampleBook().rack;
        const SpoilConsequence c = spoilConsequence(job, p, "birch-ply-18", {500}, {400}, rack);
        QVERIFY(c.from == SpoilConsequence::Rack && c.item == "R8");
        rack[7].state = RackPiece::State::Reserved;
        QVERIFY(spoilConsequence(job, p, "birch-ply-18", {500}, {400}, rack).from != SpoilConsequence::Rack);
        QVERIFY(spoilConsequence(job, p, "birch-ply-18", {530}, {400}, exampleBook().rack).from !=
                SpoilConsequence::Rack);
    }

    /// The next trip that is planned is the day on which what must be bought can be there.
    void whatMustBeBoughtWaitsForATrip() {
        const Job job = demoJob();
        const Plan p = plan(job);
        const WorkQuestion question = workQuestion(job, p, demoNow());
        const WorkPlan work = planVan(question, {.iterations = 5});
        const auto day = nextBuyingDay(question, work);
        QVERIFY(day && *day >= demoNow().day);
        bool trip = false;
        for (std::size_t i = 0; i < question.net.items.size(); ++i)
            for (const WorkPart& part : work.parts(static_cast<int>(i)))
                if (work.clock.moment(part.start).day == *day)
                    trip |= question.net.items[i].kind == WorkKind::Trip ||
                            question.net.items[i].kind == WorkKind::Delivery;
        QVERIFY(trip);
        QVERIFY(!nextBuyingDay({}, {}));
    }

    /// One floor, planks fetched already, worked on on Saturdays from 8 to 18 by one person. With a plank more to fetch
    /// (two and a half hours while shops are open) the laying waits: the day on which it is done is worked out by
    /// planning both. Fetched on the way with a trip that is still to come it costs no day.
    void aSpoiltPieceCostsTheDaysThatItCosts() {
        Job job = demoJob();
        const Plan p = plan(job);
        for (const Purchase& q : p.purchases) job.bought[boughtKey(q.product, q.size)] = {}; // no trip is left
        const WorkQuestion question = workQuestion(job, p, demoNow());
        const WorkPlan work = planVan(question, {.iterations = 5});
        const std::string plank = job.faceProduct("floor")->id;
        const auto delay = spoilDelay(job, p, question, work, plank, "floor");
        QVERIFY(delay && delay->with >= delay->without);
        QVERIFY(delay->without == *planNear(question, work).done());
        // A supplier who is open on no day that anybody works: the van is never done.
        WorkQuestion shut = question;
        for (WorkDay& d : shut.settings.shops) d.clear();
        QVERIFY(!spoilDelay(job, p, shut, work, plank, "floor"));
        // Only on one Saturday far ahead: it waits for it.
        for (int d = 0; d < 400; ++d) {
            const CivilDate day = demoNow().day + d;
            if (weekdayOf(day) == 5 && d > 200) {
                shut.settings.days[day] = {{540, 1000, 2}};
                shut.settings.shops[5] = {{540, 1000}};
            } else if (weekdayOf(day) == 5)
                shut.settings.days[day] = {};
        }
        const auto late = spoilDelay(job, p, shut, planVan(shut, {.iterations = 1}), plank, "floor");
        QVERIFY(late && late->with > demoNow().day + 200);
        // What is laid already waits for nothing.
        for (const FitStep& step : p.surface("floor")->steps) job.logs["floor"].done.insert(step.key);
        QVERIFY(!spoilDelay(job, p, workQuestion(job, p, demoNow()), work, plank, "floor"));
    }
};

WESTRUM_TEST(TookTest)
#include "took_test.moc"
