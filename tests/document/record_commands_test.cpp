#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/cut_commands.h"
#include "app/document/record_commands.h"
#include "app/document/work_commands.h"
#include "core/fitting/efforts.h"
#include "formats/demo.h"
#include "tests/support/registry.h"
#include "tests/support/settle.h"

using namespace westrum;
using namespace westrum::test;

/// What happened writes itself down as it is ticked, and can be corrected; each is one step back.
class RecordCommandsTest : public QObject {
    Q_OBJECT
private slots:
    void ticksInFitWriteAndStrike() {
        JobDocument d;
        d.open(demoJob(), {});
        d.setNow(WorkClock::Moment{{2027, 3, 20}, 720});
        QVERIFY(settlePlan(d));
        push(d, tickStep(d, "ceiling", "insulation/fit", true));
        QCOMPARE(d.job().record.size(), std::size_t{1});
        const RecordEntry e = d.job().record[0];
        QVERIFY(e.kind == EntryKind::StepDone && e.surface == "ceiling" && e.step == "insulation/fit");
        QVERIFY(e.planned > 0 && e.when.to == 720);
        QVERIFY(e.when == d.job().log("ceiling").when.at("insulation/fit"));
        // Corrected: the tick's time goes with it, and back.
        RecordEntry longer = e;
        longer.when.from = 500;
        push(d, correctEntry(d, longer));
        QCOMPARE(d.job().record[0].when.from, 500);
        QCOMPARE(d.job().log("ceiling").when.at("insulation/fit").from, 500);
        d.undoStack().undo();
        QVERIFY(d.job().record[0] == e);
        push(d, tickStep(d, "ceiling", "insulation/fit", false));
        QVERIFY(d.job().record.empty());
        d.undoStack().undo();
        QVERIFY(d.job().record.size() == 1 && d.job().record[0] == e);
    }

    /// Three steps ticked together share the time by what each was to take.
    void stepsDoneTogetherShareTheTime() {
        JobDocument d;
        d.open(demoJob(), {});
        QVERIFY(settlePlan(d));
        const std::vector<StepRef> steps{{"ceiling", "insulation/fit"}, {"ceiling", "barrier/lay"}};
        push(d, tickWorkSteps(d, steps, true, WorkedTime{{2027, 3, 13}, 540, 660}));
        const Record& r = d.job().record;
        QCOMPARE(r.size(), std::size_t{2});
        QCOMPARE(r[0].when.from, 540);
        QCOMPARE(r[0].when.to, r[1].when.from);
        QCOMPARE(r[1].when.to, 660);
        QVERIFY(std::abs(r[0].minutes() / r[1].minutes() - r[0].planned / r[1].planned) < 0.05);
        QVERIFY(r[0].id != r[1].id);
    }

    void ticksInBuyAndCutWriteToo() {
        JobDocument d;
        d.cutting().setPatience(0.004);
        d.open(demoJob(), {});
        d.setNow(demoNow());
        QVERIFY(settleCuts(d));
        push(d, tickBought(d, "foil-barrier", Bought{.packs = 2, .paid = {}, .lot = "L7"}));
        QVERIFY(d.job().record.back().kind == EntryKind::Delivery && d.job().record.back().lot == "L7");
        push(d, tickBought(d, "foil-barrier", std::nullopt));
        QVERIFY(d.job().record.empty());
        const auto cuts = d.cuts();
        const auto cut =
            std::find_if(cuts.begin(), cuts.end(), [](const ProductCut& c) { return c.product == "birch-ply-6"; });
        QVERIFY(cut != cuts.end());
        push(d, tickItem(d, *cut, 0, true));
        QCOMPARE(d.job().record.size(), cut->items[0].pieces.size());
        const RecordEntry first = d.job().record.front();
        QVERIFY(first.kind == EntryKind::PieceCut && !first.piece.empty() && first.product == "birch-ply-6");
        // Spoilt: written down, and back to be cut.
        RecordEntry spoilt = entryNow(d, EntryKind::PieceSpoilt);
        spoilt.product = first.product;
        spoilt.piece = first.piece;
        const auto keptPieces = [&] {
            std::size_t n = 0;
            for (const KeptItem& k : d.job().cutList("birch-ply-6").kept) n += k.pieces.size();
            return n;
        };
        const std::size_t before = keptPieces();
        push(d, spoilPiece(d, spoilt));
        QVERIFY(keptPieces() < before);
        QVERIFY(d.job().record.back().kind == EntryKind::PieceSpoilt);
        d.undoStack().undo();
        QCOMPARE(keptPieces(), before);
        QVERIFY(d.job().record.back().kind == EntryKind::PieceCut);
    }

    void ratesAreTakenRefusedAndPutBack() {
        JobDocument d;
        d.open(demoJobUnderWay(), {});
        QVERIFY(settlePlan(d));
        const auto offers = rateOffers(d.job(), *d.plan());
        QVERIFY(offers.size() >= 3);
        const Job start = d.job();
        for (const RateOffer& o : offers) {
            push(d, takeRate(d, o));
            QVERIFY2(d.job() != start, offerKey(o).c_str());
            d.undoStack().undo();
            QVERIFY2(d.job() == start, offerKey(o).c_str());
        }
        push(d, refuseRate(d, offers[0]));
        QCOMPARE(rateOffers(d.job(), *d.plan()).size(), offers.size() - 1);
        push(d, offerRefused(d));
        QVERIFY(rateOffers(d.job(), *d.plan()) == offers);
    }

    void entriesComeGoAndComeBackInTheirPlace() {
        JobDocument d;
        Job job = demoJob();
        for (int i = 1; i <= 5; ++i)
            job.record.push_back({.id = i, .kind = EntryKind::Note, .when = {{2027, 3, i}, 0, 0}});
        d.open(job, {});
        push(d, removeEntry(d, 3));
        QCOMPARE(d.job().record.size(), std::size_t{4});
        d.undoStack().undo();
        QVERIFY(d.job().record == job.record);
        QVERIFY(removeEntry(d, 99)->isObsolete());
        RecordEntry e = job.record[1];
        e.text = "more";
        push(d, correctEntry(d, e));
        QCOMPARE(d.job().record[1].text, std::string("more"));
        d.undoStack().undo();
        QVERIFY(d.job().record == job.record);
        push(d, addEntries(d, {entryNow(d, EntryKind::Note), entryNow(d, EntryKind::Note)}));
        QCOMPARE(d.job().record.back().id, std::int64_t{7});
    }

    /// The first step of a kind is planned with what the first takes longer, as Fit plans it, and the next one without:
    /// otherwise the record would teach that it all takes longer.
    void theFirstOfItsKindIsPlannedLonger() {
        JobDocument d;
        d.open(demoJob(), {});
        QVERIFY(settlePlan(d));
        std::vector<std::pair<StepRef, FitStep>> alike; // two of one kind, with a first that takes longer
        for (const SurfacePlan& s : d.plan()->surfaces)
            for (const FitStep& step : s.steps)
                if (step.effort.firstMore > 0 && (alike.empty() || alike[0].second.kind == step.kind))
                    alike.push_back({{s.surface, step.key}, step});
        QVERIFY(alike.size() >= 2);
        const WorkedTime when{{2027, 3, 13}, 600, 660};
        for (std::size_t i = 0; i < 2; ++i) {
            const auto& [ref, step] = alike[i];
            push(d, tickWorkSteps(d, {ref}, true, when));
            const double first = i == 0 ? step.effort.firstMore : 0;
            QVERIFY(std::abs(d.job().record.back().planned - kFirstTimer * (step.effort.minutes + first)) < 1e-9);
        }
    }
};

WESTRUM_TEST(RecordCommandsTest)
#include "record_commands_test.moc"
