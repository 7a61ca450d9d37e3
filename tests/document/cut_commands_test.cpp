#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/cut_commands.h"
#include "formats/demo.h"
#include "tests/support/demo_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"
#include "tests/support/settle.h"

using namespace westrum;
using namespace westrum::test;

class CutCommandsTest : public QObject {
    Q_OBJECT

    static constexpr const char* kPly = "dipper-ply";

    /// @param roll  with the lining too, whose layout takes longest
    static std::unique_ptr<JobDocument> opened(double patience = 0.005, bool roll = true) {
        auto d = std::make_unique<JobDocument>();
        d->cutting().setPatience(patience);
        Job job = demoFloor();
        if (!roll) job.cutLists.erase("thrush-lining");
        d->open(std::move(job), {});
        return d;
    }
    static std::shared_ptr<const ProductCut> cutOf(const JobDocument& d, const char* product = kPly) {
        return settleCuts(d) ? d.cutting().state(product).cut : nullptr;
    }

private slots:
    /// Every command: does something, is named, undoes exactly, redoes exactly.
    void everyCommandUndoesAndRedoes_data() {
        QTest::addColumn<int>("which");
        for (int i = 0; i < 14; ++i) QTest::addRow("command %d", i) << i;
    }
    void everyCommandUndoesAndRedoes() {
        QFETCH(int, which);
        const auto d = opened(0.005, false);
        const auto cut = cutOf(*d);
        QVERIFY(cut && cut->items.size() > 1);
        const std::vector<std::function<Command()>> all{
            [&] { return addLoosePieces(*d, kPly, {{.name = "Lid", .length = mm(500), .width = mm(300)}}); },
            [&] { return removeLoosePiece(*d, kPly, "p1"); },
            [&] { return addStockEntry(*d, kPly, {.name = "end", .rack = true, .length = mm(800), .width = mm(400)}); },
            [&] { return removeStockEntry(*d, kPly, "s2"); },
            [&] { return useStock(*d, kPly, "", false); },
            [&] { return useStock(*d, kPly, "s1", false); },
            [&] { return pinPiece(*d, *cut, 0, 0, true); },
            [&] { return pinAll(*d, *cut); },
            [&] {
                return movePiece(*d, *cut, 0, 0, 1, {5, 5}, 0);
            },
            [&] { return tickPiece(*d, *cut, 0, 0, true); },
            [&] { return tickItem(*d, *cut, 0, true); },
            [&] { return leftoversToRack(*d, *cut, 0, "left"); },
            [&] { return chooseTrim(*d, "floor", std::string(kNoTrim)); },
            [&] { return addLoosePieces(*d, "rail-oak", {{.name = "Edge", .length = mm(900)}}); },
        };
        QCOMPARE(all.size(), 14UL);
        const Job before = d->job();
        push(*d, all[std::size_t(which)]());
        QCOMPARE(d->undoStack().count(), 1);
        QVERIFY(!d->undoStack().text(0).isEmpty());
        const Job after = d->job();
        QVERIFY(!(after == before));
        d->undoStack().undo();
        QVERIFY(d->job() == before);
        d->undoStack().redo();
        QVERIFY(d->job() == after);
    }

    void aTickLocksItsItemAndTheLastOneFreesIt() {
        const auto d = opened();
        auto cut = cutOf(*d);
        const CutItem first = cut->items[0];
        push(*d, tickPiece(*d, *cut, 0, 0, true));
        push(*d, addLoosePieces(*d, kPly, {{.name = "More", .length = mm(300), .width = mm(200), .count = 5}}));
        cut = cutOf(*d);
        const auto locked =
            std::find_if(cut->items.begin(), cut->items.end(), [](const CutItem& i) { return i.locked; });
        QVERIFY(locked != cut->items.end());
        QCOMPARE(locked->pieces.size(), first.pieces.size());
        for (std::size_t i = 0; i < first.pieces.size(); ++i) {
            QCOMPARE(locked->pieces[i].key, first.pieces[i].key);
            QVERIFY(distance(locked->pieces[i].at, first.pieces[i].at) < 1e-9);
            QCOMPARE(locked->pieces[i].cut, i == 0);
        }
        QVERIFY(!locked->order.empty() && !locked->left.empty() == !first.left.empty());
        push(*d, tickPiece(*d, *cut, std::size_t(locked - cut->items.begin()), 0, false));
        QVERIFY(d->job().cutList(kPly).kept.empty());
    }

    void leftoversOnTheRackAreUsedNext() {
        const auto d = opened();
        auto cut = cutOf(*d);
        std::size_t with = 0;
        while (with < cut->items.size() && cut->items[with].left.empty()) ++with;
        QVERIFY(with < cut->items.size());
        const LeftRectangle left = cut->items[with].left.front();
        push(*d, tickItem(*d, *cut, with, true));
        push(*d, leftoversToRack(*d, *cut, with, "left of it"));
        const StockEntry& entry = d->job().cutList(kPly).stock[2];
        QVERIFY(entry.rack && entry.count == 1);
        QCOMPARE(entry.length->length.value, std::floor(left.widthMm));
        // A piece that just fits it costs nothing more.
        const auto cost = cutOf(*d)->cost;
        push(*d, addLoosePieces(*d, kPly,
                                {{.name = "Fits",
                                  .length = mm(std::floor(left.widthMm) - 10),
                                  .width = mm(std::floor(left.heightMm) - 10)}}));
        QVERIFY(cutOf(*d)->cost->minor <= cost->minor);
    }

    void planksAreTickedThoughTheSetOutDecidesThem() {
        const auto d = opened();
        const std::string product = d->job().face("floor")->product;
        auto cut = cutOf(*d, product.c_str());
        QVERIFY(cut->items[0].decided);
        push(*d, pinPiece(*d, *cut, 0, 0, true));
        QCOMPARE(d->undoStack().count(), 0); // nothing to pin
        push(*d, tickItem(*d, *cut, 0, true));
        cut = cutOf(*d, product.c_str());
        QVERIFY(cut->items[0].locked && cut->items[0].pieces[0].cut);
        // The floor is laid anew: what was cut is still shown, as of an earlier list.
        push(*d, moveStartLine(*d, "floor", {60}, 1));
        QVERIFY(settlePlan(*d));
        cut = cutOf(*d, product.c_str());
        QVERIFY(std::any_of(cut->items.begin(), cut->items.end(),
                            [](const CutItem& i) { return i.locked && !i.pieces.empty() && i.pieces[0].piece < 0; }) ||
                cut->items[0].locked);
    }

    void onlyTheProductThatChangedIsPlannedAgain() {
        const auto d = opened();
        const auto ply = cutOf(*d), roll = cutOf(*d, "thrush-lining");
        push(*d, addLoosePieces(*d, kPly, {{.name = "Lid", .length = mm(500), .width = mm(300)}}));
        QVERIFY(cutOf(*d) != ply);
        QCOMPARE(cutOf(*d, "thrush-lining"), roll); // the very same answer
    }

    void theSameJobGivesTheSameLayout() {
        const auto a = opened(0.02), b = opened(0.02);
        for (const char* product : {kPly, "thrush-lining", "rail-oak"})
            QVERIFY(*cutOf(*a, product) == *cutOf(*b, product));
    }

    void aSearchIsStoppedAndSentFurther() {
        const auto d = opened(1000); // it would go on for hours
        QVERIFY(QTest::qWaitFor(
            [&] {
                const CutState s = d->cutting().state("thrush-lining");
                return s.cut && !s.stale;
            },
            20000));
        QVERIFY(d->cutting().isSearching());
        QVERIFY(QTest::qWaitFor(
            [&] {
                for (const CutState& s : d->cutting().states())
                    if (s.cut) d->cutting().stop(s.cut->product);
                return !d->cutting().isSearching();
            },
            20000));
        const double length = d->cutting().state("thrush-lining").cut->rollMm;
        QVERIFY(length > 0);
        d->cutting().setPatience(0.02);
        d->cutting().lookFurther("thrush-lining");
        QVERIFY(d->cutting().state("thrush-lining").searching);
        QVERIFY(settleCuts(*d));
        QVERIFY(d->cutting().state("thrush-lining").cut->rollMm > 0);
    }

    void whatTheCuttingBuysIsInThePlan() {
        const auto d = opened();
        QVERIFY(settlePlan(*d));
        const auto cut = cutOf(*d);
        std::int64_t ply = 0;
        for (const Purchase& p : d->plan()->purchases)
            if (p.product == kPly) ply += p.cost->minor - p.spare * p.packPrice->minor; // spares come besides
        QCOMPARE(ply, cut->cost->minor);
        std::int64_t sum = 0;
        for (const Purchase& p : d->plan()->purchases) sum += p.cost->minor;
        QCOMPARE(sum, d->plan()->totals.cost->minor);
    }

    void aStepsOwnConsequencesAreToldApartFromTheSearch() {
        const auto d = opened(0.02);
        QVERIFY(settleCuts(*d));
        std::vector<bool> told;
        connect(d.get(), &JobDocument::purchasesChanged, d.get(),
                [&](bool consequence) { told.push_back(consequence); });
        // Two more lids take more ply: what follows is a consequence, until the search goes on by itself.
        push(*d, addLoosePieces(*d, kPly, {{.name = "Lid", .length = mm(1700), .width = mm(1100), .count = 2}}));
        QVERIFY(settleCuts(*d));
        QVERIFY(!told.empty() && told.front());
        told.clear();
        push(*d, removeLoosePiece(*d, kPly, d->job().cutList(kPly).pieces.back().id));
        QVERIFY(settleCuts(*d));
        QVERIFY(!told.empty() && told.front());
        told.clear();
        d->cutting().lookFurther(kPly);
        QVERIFY(settleCuts(*d));
        for (const bool consequence : told) QVERIFY(!consequence);
    }

    void anotherJobForgetsTheCuttingOfTheLast() {
        const auto d = opened();
        QVERIFY(cutOf(*d));
        d->open(newJob("Empty", "Floor", starterCatalogue(), Currency{}), {});
        QVERIFY(settleCuts(*d));
        QVERIFY(!d->cutting().state(kPly).cut);
        QVERIFY(d->cutting().problem(kPly).pieces.empty());
        for (const Purchase& p : d->plan()->purchases) QVERIFY(p.product != kPly);
    }

    void piecesGetIdsOfTheirOwn() {
        const auto d = opened();
        push(*d, addLoosePieces(*d, kPly,
                                {{.name = "A", .length = mm(300), .width = mm(200)},
                                 {.name = "B", .length = mm(310), .width = mm(200)}}));
        push(*d, removeLoosePiece(*d, kPly, "p3"));
        push(*d, addLoosePieces(*d, kPly, {{.name = "C", .length = mm(320), .width = mm(200)}}));
        std::set<std::string> ids;
        for (const LoosePiece& p : d->job().cutList(kPly).pieces) QVERIFY(ids.insert(p.id).second);
        QCOMPARE(ids.size(), d->job().cutList(kPly).pieces.size());
    }

    void aLockedItemOutlivesItsStock() {
        // The half sheet is being cut; then its line is taken off the list: the item stays, and no other is opened for
        // it.
        const auto d = opened();
        push(*d, useStock(*d, kPly, "", false)); // so that half sheets are used
        auto cut = cutOf(*d);
        std::size_t half = 0;
        while (half < cut->items.size() && cut->items[half].stock != "s1") ++half;
        QVERIFY(half < cut->items.size());
        const CutItem before = cut->items[half];
        push(*d, tickItem(*d, *cut, half, true));
        push(*d, useStock(*d, kPly, "", true));
        push(*d, removeStockEntry(*d, kPly, "s1"));
        cut = cutOf(*d);
        const auto locked =
            std::find_if(cut->items.begin(), cut->items.end(), [](const CutItem& i) { return i.locked; });
        QVERIFY(locked != cut->items.end());
        QCOMPARE(locked->lengthMm, before.lengthMm);
        QCOMPARE(locked->pieces.size(), before.pieces.size());
        for (const LyingPiece& l : locked->pieces) QVERIFY(l.cut && l.piece >= 0);
    }

    void aPinThatMovesToAnotherItemLeavesTheFirst() {
        const auto d = opened();
        auto cut = cutOf(*d);
        push(*d, pinPiece(*d, *cut, 0, 0, true));
        const std::string key = cut->items[0].pieces[0].key;
        cut = cutOf(*d);
        std::size_t item = 0, piece = 0;
        for (std::size_t i = 0; i < cut->items.size(); ++i)
            for (std::size_t n = 0; n < cut->items[i].pieces.size(); ++n)
                if (cut->items[i].pieces[n].key == key) item = i, piece = n;
        const std::size_t to = item == 0 ? 1 : 0;
        push(*d, movePiece(*d, *cut, item, piece, to, {5, 5}, 0));
        int times = 0;
        for (const KeptItem& k : d->job().cutList(kPly).kept)
            for (const KeptPiece& p : k.pieces) times += p.piece == key ? 1 : 0;
        QCOMPARE(times, 1);
        push(*d, unpinAll(*d, kPly));
        QVERIFY(d->job().cutList(kPly).kept.empty());
    }
};

WESTRUM_TEST(CutCommandsTest)
#include "cut_commands_test.moc"
