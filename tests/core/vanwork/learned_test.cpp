#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/fitting/efforts.h"
#include "core/plan/odds.h"
#include "core/vanwork/learned.h"
#include "formats/demo.h"
#include "tests/support/registry.h"

#include <algorithm>
#include <cmath>
#include <random>

using namespace westrum;

namespace {

const RateOffer* offer(const std::vector<RateOffer>& all, const std::string& key) {
    const auto found = std::find_if(all.begin(), all.end(), [&](const RateOffer& o) { return offerKey(o) == key; });
    return found == all.end() ? nullptr : &*found;
}

} // namespace

/// What the record teaches.
class LearnedTest : public QObject {
    Q_OBJECT
private slots:
    /// Twice 130 min for 100: the mean of the logarithms is ln 1.3 = 0.2624; with the default counting as two more
    /// observations e^(0.2624 x 2 / 4) = 1.1402. Of one observation a third: e^(0.2624 / 3) = 1.0914. Many leave the
    /// default behind: of 98, e^(0.2624 x 0.98) = 1.2932.
    void ratiosAreShrunkWhileTheyAreFew() {
        const auto times = [](int n) {
            return learnedRatio(std::vector<Observed>(static_cast<std::size_t>(n), {100, 130}));
        };
        QVERIFY(std::abs(times(2).ratio - 1.1402) < 1e-4);
        QVERIFY(std::abs(times(1).ratio - 1.0914) < 1e-4);
        QVERIFY(std::abs(times(98).ratio - 1.2932) < 1e-4);
        QCOMPARE(times(0).ratio, 1.0);
        QVERIFY(std::abs(times(2).observed - 1.3) < 1e-9);
        // Until three say otherwise, two of three lie within e^0.3 of it.
        QVERIFY(std::abs(times(2).high - 1.3 * std::exp(0.3)) < 1e-9);
        // 0.5, 1 and 2: mean 1, and a spread of ln 2.
        const LearnedRatio three = learnedRatio({{10, 5}, {10, 10}, {10, 20}});
        QVERIFY(std::abs(three.ratio - 1) < 1e-9 && std::abs(three.high - 2) < 1e-9 &&
                std::abs(three.low - 0.5) < 1e-9);
        QCOMPARE(learnedRatio({{0, 5}, {5, 0}, {-1, 2}}).observations, 0); // nothing to learn from
    }

    /// 3 of 25 cuts spoilt, 1 in 15 planned: (3 + 20 / 15) / 45 = 0.0963. None of none: as planned.
    void sharesAreShrunkWhileTheyAreFew() {
        const LearnedShare s = learnedShare(3, 25, 1.0 / 15);
        QVERIFY(std::abs(s.share - (3 + 20.0 / 15) / 45) < 1e-12);
        QVERIFY(s.low < s.share && s.share < s.high);
        QVERIFY(std::abs(learnedShare(0, 0, 0.02).share - 0.02) < 1e-12);
        QVERIFY(learnedShare(1000, 1000, 0.02).high <= 1);
    }

    /// Against a recount by another way: over made-up observations the shrunk mean is that of as many more observations
    /// of the plan itself as the default counts.
    void shrinkingIsAddingObservationsOfThePlan() {
        std::mt19937 dice(5);
        for (int run = 0; run < 200; ++run) {
            std::vector<Observed> seen;
            double product = 1;
            const int n = 1 + static_cast<int>(dice() % 30);
            for (int i = 0; i < n; ++i) {
                seen.push_back({10.0 + dice() % 90, 10.0 + dice() % 90});
                product *= seen.back().really / seen.back().planned;
            }
            const double recount = std::pow(product, 1 / (n + kDefaultCounts));
            QVERIFY(std::abs(learnedRatio(seen).ratio - recount) < 1e-9);
        }
    }

    /// A wall's worth by hand: two insulation steps, planned 60 min each, took 90; its rate is 0.2 h a m2. With the
    /// default as two more: 1.5^(2/4) = 1.2247, 0.2449 h a m2.
    void stepsTeachTheirFamily() {
        Job job = demoJob();
        const Plan p = plan(job);
        for (const char* surface : {"ceiling", "left-upper"})
            job.record.push_back({.id = static_cast<std::int64_t>(job.record.size()) + 1,
                                  .kind = EntryKind::StepDone,
                                  .when = {{2027, 3, 14}, 600, 690},
                                  .surface = surface,
                                  .step = "insulation/fit",
                                  .planned = 60});
        const auto offers = rateOffers(job, p);
        const RateOffer* o = offer(offers, "minutes/insulation");
        QVERIFY(o && o->observations == 2);
        QVERIFY(std::abs(o->offered - 0.2 * std::sqrt(1.5)) < 1e-9);
        QVERIFY(std::abs(o->observed - 0.3) < 1e-9);
        const Job taken = withRate(job, *o);
        QVERIFY(std::abs(taken.work.hours.at("insulation").perM2 - 0.2 * std::sqrt(1.5)) < 1e-9);
        // Refused, it is not offered again; and entries about what is gone are passed over.
        job.work.refused = {"minutes/insulation"};
        QVERIFY(!offer(rateOffers(job, p), "minutes/insulation"));
        job.work.refused.clear();
        for (RecordEntry& e : job.record) e.surface = "gone";
        QVERIFY(rateOffers(job, p).empty());
        QVERIFY(plannedAndReally(job, p).empty());
    }

    /// The example under way: rates are offered, each makes its own figure what it says, and the drawing's sums are
    /// those of the entries.
    void theExampleTeaches() {
        const Job job = demoJobUnderWay();
        const Plan p = plan(job);
        QVERIFY(job.record.size() > 150);
        const auto offers = rateOffers(job, p);
        QVERIFY(offer(offers, "spoils") && offer(offers, "minutes/boards") && offer(offers, "coverage/contact-can"));
        const RateOffer& can = *offer(offers, "coverage/contact-can");
        QVERIFY(can.observed < can.offered && can.offered < can.now); // between what was seen and the plan
        const Plan more = plan(withRate(job, can));
        const auto amount = [](const Plan& of) {
            for (const Purchase& q : of.purchases)
                if (q.product == "contact-can") return q.amount;
            return 0.0;
        };
        QVERIFY(std::abs(amount(more) / amount(p) - can.now / can.offered) < 1e-6);
        QVERIFY(std::abs(withRate(job, *offer(offers, "spoils")).spoilChance - offer(offers, "spoils")->offered) <
                1e-12);
        const auto pairs = plannedAndReally(job, p);
        double planned = 0, really = 0;
        for (const RecordEntry& e : job.record)
            if (e.kind == EntryKind::StepDone) {
                planned += e.planned / 60;
                really += e.minutes() / 60;
            }
        QVERIFY(pairs.front().surface.empty() && pairs.front().what == PlannedReally::Hours);
        QVERIFY(std::abs(pairs.front().planned - planned) < 1e-6 && std::abs(pairs.front().really - really) < 1e-6);
        double sum = 0;
        for (const PlannedReally& pair : pairs)
            if (pair.what == PlannedReally::Hours && !pair.surface.empty()) sum += pair.really;
        QVERIFY(std::abs(sum - really) < 1e-6);
    }

    /// Two layers, one half area and one all area: planned 100 min each, the first took 100, the second 150. Together
    /// (100 x 150 / 100^2)^(1/4) = 1.1067. By shares 0.5 and 1, off their mean by -0.25 and 0.25, logs 0 and 0.4055 off
    /// by -0.2027 and 0.2027: tilt 0.10137 / (0.125 + 0.5) = 0.1622. Area: 1.1067 e^(0.1622 x 0.25) = 1.1525; a piece:
    /// 1.1067 e^(-0.1622 x 0.75) = 0.9800.
    void areaAndPiecesAreToldApart() {
        const LearnedParts two = learnedParts({{{100, 100}, 0.5}, {{100, 150}, 1}});
        QVERIFY(std::abs(two.whole.ratio - 1.1067) < 1e-4);
        QVERIFY(std::abs(two.first - 1.1525) < 1e-4);
        QVERIFY(std::abs(two.second - 0.9800) < 1e-4);
        // Of one share throughout nothing can be told apart.
        const LearnedParts same = learnedParts({{{100, 130}, 0.7}, {{100, 130}, 0.7}});
        QCOMPARE(same.first, same.whole.ratio);
        QCOMPARE(same.second, same.whole.ratio);
        QCOMPARE(learnedParts({}).first, 1.0);
        // Many made-up layers whose area takes 1.4 and whose pieces take 0.8 times as long are found out.
        std::mt19937 dice(11);
        std::vector<ObservedParts> many;
        for (int i = 0; i < 400; ++i) {
            const double share = 0.1 + 0.8 * (dice() % 1000) / 1000.0;
            const double noise = 0.9 + 0.2 * (dice() % 1000) / 1000.0;
            many.push_back({{60, 60 * std::pow(1.4, share) * std::pow(0.8, 1 - share) * noise}, share});
        }
        const LearnedParts found = learnedParts(many);
        QVERIFY2(std::abs(found.first - 1.4) < 0.05 && std::abs(found.second - 0.8) < 0.05,
                 QByteArray::number(found.first).constData());
    }

    /// 60 readings, two of them noted as off by 6 and 9: root of ((36 + 81) + 58 x 4) / 60 = 2.412. A container thrown
    /// away beside four emptied, 5 % planned: (1 + 0.1) / (4 + 2) = 18.3 %.
    void errorsAndWasteByHand() {
        QVERIFY(std::abs(learnedError({6, -9}, 60, 2) - std::sqrt((117 + 232) / 60.0)) < 1e-12);
        QCOMPARE(learnedError({}, 0, 2), 2.0);
        QVERIFY(std::abs(learnedError({3, 4}, 0, 2) - std::sqrt(12.5)) < 1e-12); // no fewer readings than were noted
        QVERIFY(std::abs(learnedWaste(1, 4, 0.05) - 1.1 / 6) < 1e-12);
        QCOMPARE(learnedWaste(0, 0, 0.05), 0.05);
    }

    /// The lining glue of the example, laid whole: what set hard has a rate of its own, and taken it is what the
    /// product is planned with.
    void whatWasThrownAwayIsARateOfItsOwn() {
        Job job = demoJob();
        const Plan p = plan(job);
        for (const SurfacePlan& s : p.surfaces)
            for (const FitStep& step : s.steps) job.logs[s.surface].done.insert(step.key);
        const auto add = [&](EntryKind kind, double amount) {
            job.record.push_back({.id = static_cast<std::int64_t>(job.record.size()) + 1,
                                  .kind = kind,
                                  .when = {{2027, 3, 14}, 600, 600},
                                  .product = "contact-can",
                                  .amount = amount});
        };
        add(EntryKind::Emptied, 4);
        QVERIFY(!offer(rateOffers(job, p), "waste/contact-can")); // nothing was noted
        add(EntryKind::ThrownAway, 1);
        const auto offers = rateOffers(job, p);
        const RateOffer* waste = offer(offers, "waste/contact-can");
        QVERIFY(waste);
        const double planned = waste->now;
        QVERIFY(std::abs(waste->offered - (1 + 2 * planned) / 6) < 1e-12);
        const Job taken = withRate(job, *waste);
        QVERIFY(std::abs(taken.catalogue.find("contact-can")->fields.at("waste") - waste->offered) < 1e-12);
        const auto amount = [](const Plan& of) {
            for (const Purchase& q : of.purchases)
                if (q.product == "contact-can") return q.amount;
            return 0.0;
        };
        QVERIFY(std::abs(amount(plan(taken)) / amount(p) - (1 + waste->offered) / (1 + planned)) < 1e-6);
        // A tin that set hard is a tin that is gone.
        const auto emptied = emptiedConsequence(job, p, "contact-can");
        QVERIFY(emptied && emptied->emptied == 5);
    }

    /// Two readings of a floor that is worked on were off by 8 and 10 mm; the rest of its readings held.
    void readingsTeachHowFarTheyAreOff() {
        Job job = demoJob();
        const Plan p = plan(job);
        job.logs["floor"].done.insert("check-base");
        std::size_t readings = 0;
        const Surface* floor = job.surface("floor");
        for (const std::string& key : readingKeys(floor->measurement)) readings += *findReading(*floor, key) ? 1 : 0;
        QVERIFY(readings > 4);
        job.record = {{.id = 1, .kind = EntryKind::Difference, .surface = "floor", .by = {8}},
                      {.id = 2, .kind = EntryKind::Difference, .surface = "floor", .by = {-10}},
                      {.id = 3, .kind = EntryKind::Difference, .surface = "floor", .piece = "P1", .by = {3}},
                      {.id = 4, .kind = EntryKind::Difference, .surface = "floor", .piece = "P2", .by = {1}}};
        const auto offers = rateOffers(job, p);
        const RateOffer* o = offer(offers, "readings");
        const double n = static_cast<double>(readings);
        QVERIFY(o && std::abs(o->offered - std::sqrt((164 + (n - 2) * 4) / n)) < 1e-12);
        QVERIFY(std::abs(withRate(job, *o).work.readingErrorMm - o->offered) < 1e-12);
        QVERIFY(std::abs(mishapsOf(withRate(job, *o)).curveMm / mishapsOf(job).curveMm - o->offered / 2) < 1e-12);
        // Pieces are told apart from readings: root of (9 + 1) / 2 = 2.24 mm.
        bool cut = false;
        for (const PlannedReally& pair : plannedAndReally(job, p)) {
            if (pair.what == PlannedReally::Miscut) cut = std::abs(pair.really - std::sqrt(5.0)) < 1e-12;
            if (pair.what == PlannedReally::Misread) QVERIFY(std::abs(pair.really - std::sqrt(82.0)) < 1e-12);
        }
        QVERIFY(cut);
    }

    void aSpoiltPieceSaysWhatItAsksFor() {
        const Job job = demoJob();
        Plan p = plan(job);
        Purchase sheet{.product = "birch-ply-6"};
        sheet.packPrice = Money{3900, job.currency};
        sheet.offcutLength = {800};
        sheet.offcutWidth = {400};
        p.purchases = {sheet};
        QCOMPARE(spoilConsequence(job, p, "birch-ply-6", {390}, {790}).from, SpoilConsequence::Leftover);
        const SpoilConsequence c = spoilConsequence(job, p, "birch-ply-6", {900}, {300});
        QVERIFY(c.from == SpoilConsequence::MustBuy && c.cost->minor == 3900);
        p.purchases[0].spare = 1;
        QCOMPARE(spoilConsequence(job, p, "birch-ply-6", {900}, {300}).from, SpoilConsequence::Spare);
        QCOMPARE(spoilConsequence(job, p, "unheard-of", {900}, {300}).from, SpoilConsequence::MustBuy);
    }

    /// Off by 3 and -4 mm: root of (9 + 16) / 2 = 3.54 against the 2 mm of a tape. One difference alone says nothing.
    void readingsOffAreToldBesideTheTape() {
        Job job = demoJob();
        const Plan p = plan(job);
        const auto misread = [&] {
            for (const PlannedReally& pair : plannedAndReally(job, p))
                if (pair.what == PlannedReally::Misread) return std::optional(pair);
            return std::optional<PlannedReally>();
        };
        job.record = {{.id = 1, .kind = EntryKind::Difference, .surface = "floor", .by = {3}}};
        QVERIFY(!misread());
        job.record.push_back({.id = 2, .kind = EntryKind::Difference, .surface = "gone", .by = {-4}});
        QVERIFY(misread() && misread()->planned == 2);
        QVERIFY(std::abs(misread()->really - std::sqrt(12.5)) < 1e-12);
    }
};

WESTRUM_TEST(LearnedTest)
#include "learned_test.moc"
