#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/cut_commands.h"
#include "app/document/record_commands.h"
#include "app/document/workshop.h"
#include "formats/demo.h"
#include "tests/support/registry.h"
#include "tests/support/settle.h"

#include <QDir>
#include <QFile>
#include <QSignalSpy>
#include <QTemporaryDir>

using namespace westrum;
using namespace westrum::test;
using State = RackPiece::State;

namespace {

/// A job and the book beside it, as the window has them.
struct Shop {
    explicit Shop(const QString& folder, Job job, bool own = true, bool cuts = true, const QString& path = {}) {
        document.cutting().setPatience(0.004);
        if (own) job.bookId.clear(); // no example: the person's own book
        document.open(std::move(job), path);
        workshop = std::make_unique<Workshop>(document, folder);
        QObject::connect(workshop.get(), &Workshop::told, [this](const QString& s, bool) { told << s; });
        (void)(cuts ? settleCuts(document) : settlePlan(document));
        workshop->settle();
    }
    ~Shop() { document.undoStack().setClean(); }
    [[nodiscard]] State stateOf(const std::string& number) const {
        for (const RackPiece& p : workshop->book().rack)
            if (p.number == number) return p.state;
        return State::Gone;
    }
    [[nodiscard]] const ProductCut* cutOf(const char* product) const {
        return document.cutting().state(product).cut.get();
    }
    void undo() {
        document.undoStack().undo();
        workshop->settle();
    }
    void redo() {
        document.undoStack().redo();
        workshop->settle();
    }

    JobDocument document;
    std::unique_ptr<Workshop> workshop;
    QStringList told;
};

/// A job that wants panels of a ply, and has it in its catalogue.
Job panels() {
    Job job = demoSecondJob();
    job.cutLists.clear();
    return job;
}

std::vector<RackPiece> twoOffcuts() {
    std::vector<RackPiece> rack = exampleBook().rack;
    rack.resize(2);
    for (RackPiece& p : rack) p.number.clear();
    return rack;
}

} // namespace

/// The workshop's book beside a job.
class WorkshopTest : public QObject {
    Q_OBJECT
private slots:
    /// Leftovers go on the rack with the press, off it with undo, and on again under the same number with redo.
    void offcutsComeAndGoWithUndo() {
        QTemporaryDir dir;
        Shop shop(dir.path(), panels());
        const ProductCut* cut = shop.cutOf("dipper-ply");
        QVERIFY(cut && !cut->items.empty() && !cut->items[0].left.empty());
        const std::size_t left = cut->items[0].left.size();
        push(shop.document, shop.workshop->keepOffcuts(*cut, 0, "left"));
        shop.workshop->settle();
        QCOMPARE(shop.workshop->book().rack.size(), left);
        const RackPiece first = shop.workshop->book().rack[0];
        QVERIFY(first.number == "R1" && first.from == shop.document.job().name);
        QVERIFY(first.state == State::Reserved); // this job's plan may cut from it
        QCOMPARE(shop.document.job().record.back().kind, EntryKind::OffcutKept);
        shop.undo();
        QVERIFY(shop.workshop->book().rack.empty());
        QVERIFY(shop.document.job().record.empty());
        shop.redo();
        QCOMPARE(shop.workshop->book().rack.size(), left);
        QCOMPARE(shop.workshop->book().rack[0].number, first.number);
        QCOMPARE(shop.document.job().cutList("dipper-ply").stock[0].book, std::string("R1"));
        push(shop.document, shop.workshop->giveBack("R1")); // for others
        shop.workshop->settle();
        QVERIFY(shop.stateOf("R1") == State::Free);
        QVERIFY(!shop.document.job().cutList("dipper-ply").stock[0].used);
    }

    /// Taking it reserves, a tick takes it off the rack, taking the tick back reserves it again, undo frees it.
    void aPlanDrawsOnTheRack() {
        QTemporaryDir dir;
        Shop shop(dir.path(), panels());
        QVERIFY(shop.workshop->take(twoOffcuts()));
        QString why;
        push(shop.document, shop.workshop->reserve("R1", why));
        shop.workshop->settle();
        QVERIFY2(why.isEmpty(), qPrintable(why));
        QVERIFY(shop.stateOf("R1") == State::Reserved && shop.stateOf("R2") == State::Free);
        QVERIFY(settleCuts(shop.document));
        const ProductCut* cut = shop.cutOf("dipper-ply");
        const auto item = std::find_if(cut->items.begin(), cut->items.end(), [](const CutItem& i) { return i.rack; });
        QVERIFY(item != cut->items.end() && !item->pieces.empty()); // it is cut from first
        push(shop.document, tickItem(shop.document, *cut, std::size_t(item - cut->items.begin()), true));
        shop.workshop->settle();
        QVERIFY(shop.stateOf("R1") == State::Cut);
        shop.undo();
        QVERIFY(shop.stateOf("R1") == State::Reserved);
        shop.undo();
        QVERIFY(shop.stateOf("R1") == State::Free);
        QVERIFY(!shop.workshop->reserve("R77", why) && !why.isEmpty());
    }

    void twoWindowsCannotUseOnePiece() {
        QTemporaryDir dir;
        Shop one(dir.path(), panels()), other(dir.path(), panels());
        QVERIFY(one.workshop->jobId() != other.workshop->jobId());
        QVERIFY(one.workshop->take(twoOffcuts()));
        QString why;
        push(one.document, one.workshop->reserve("R1", why));
        one.workshop->settle();
        QVERIFY(!other.workshop->reserve("R1", why)); // it looks first
        QVERIFY2(why.contains(QString::fromStdString(one.document.job().name)), qPrintable(why));
        QVERIFY(other.document.job().cutList("dipper-ply").stock.empty());
        push(other.document, other.workshop->reserve("R2", why));
        other.workshop->settle();
        one.workshop->look();
        QVERIFY(one.stateOf("R2") == State::Reserved);
        // Freed by hand and taken by the other: the first is told as soon as it does anything with the rack.
        QVERIFY(other.workshop->freeByHand("R1"));
        push(other.document, other.workshop->reserve("R1", why));
        other.workshop->settle();
        one.workshop->look();
        one.workshop->settle();
        QVERIFY2(one.told.join(QLatin1Char(' ')).contains(QStringLiteral("R1")),
                 qPrintable(one.told.join(QLatin1Char('|'))));
        QVERIFY(one.stateOf("R1") == State::Reserved);
    }

    /// A job that was saved, closed and opened again has what it had; one that no longer wants a piece gives it back.
    void reservationsOutliveTheProgram() {
        QTemporaryDir dir;
        const QString path = dir.filePath(QStringLiteral("job.westrum"));
        {
            Shop shop(dir.path(), panels());
            QVERIFY(shop.workshop->take(twoOffcuts()));
            QString why;
            push(shop.document, shop.workshop->reserve("R1", why));
            shop.workshop->settle();
            QVERIFY(!shop.document.saveTo(path));
        }
        Job saved = readJobFile(path).value();
        QVERIFY(!saved.bookId.empty());
        {
            Shop again(dir.path(), saved, false, true, path);
            QVERIFY(again.stateOf("R1") == State::Reserved && again.told.isEmpty());
        }
        saved.cutLists.clear();
        Shop without(dir.path(), saved, false, true, path);
        QVERIFY(without.stateOf("R1") == State::Free);
        // A job from elsewhere, with an offcut that nobody has here, still plans with it, and it is told.
        saved.cutLists["dipper-ply"].stock.push_back(stockOf(exampleBook().rack[0], "s1"));
        saved.cutLists["dipper-ply"].stock[0].book = "R500";
        without.document.open(saved, {});
        without.workshop->settle();
        QVERIFY2(without.told.join(QLatin1Char(' ')).contains(QStringLiteral("R500")),
                 qPrintable(without.told.join(QLatin1Char('|'))));
        QVERIFY(settlePlan(without.document));
    }

    /// A rate is taken for the job and for the person; one step back puts both as they were; the next job may take it.
    void ratesAreKeptForThePerson() {
        QTemporaryDir dir;
        Shop shop(dir.path(), demoJobUnderWay(), true, false);
        push(shop.document, shop.workshop->choosePerson("Wren"));
        const auto offers = rateOffers(shop.document.job(), *shop.document.plan());
        const auto boards =
            std::find_if(offers.begin(), offers.end(), [](const RateOffer& o) { return o.what == RateOffer::Minutes; });
        QVERIFY(boards != offers.end());
        push(shop.document, shop.workshop->takeRateToo(*boards));
        QVERIFY(shop.workshop->person());
        const HourRate taken = shop.document.job().work.hours.at(boards->family);
        QVERIFY(shop.workshop->person()->hours.at(boards->family) == taken);
        shop.undo();
        QVERIFY(!shop.document.job().work.hours.contains(boards->family));
        QVERIFY(shop.workshop->person()->hours.empty());
        shop.redo();
        // Another job of the same person is planned as it was, until the rate is taken.
        Shop next(dir.path(), demoJob(), true, false);
        push(next.document, next.workshop->choosePerson("Wren"));
        const auto rates = ratesOf(*next.workshop->person(), next.document.job());
        QCOMPARE(rates.size(), std::size_t{1});
        push(next.document, next.workshop->takeFromBook(rates[0]));
        QVERIFY(next.document.job().work.hours.at(boards->family) == taken);
        QCOMPARE(next.document.job().work.person, std::string("Wren"));
        next.undo();
        QVERIFY(next.document.job().work.hours.empty());
    }

    void whatWasPaidAndLeftIsWritten() {
        QTemporaryDir dir;
        Shop shop(dir.path(), demoJob(), true, false);
        QVERIFY(shop.workshop->book().prices.empty());
        push(shop.document,
             tickBought(shop.document, "contact-can", Bought{2, Money{6580, shop.document.job().currency}, "G-2"}));
        shop.workshop->settle();
        QCOMPARE(shop.workshop->book().prices.size(), std::size_t{1});
        QCOMPARE(shop.workshop->book().prices[0].paid.minor, 6580);
        shop.undo();
        QVERIFY(shop.workshop->book().prices.empty());
    }

    /// The book is damaged, newer, or its folder cannot be made: the job opens, is planned and edited all the same.
    void aJobNeverHangsOnTheBook() {
        QTemporaryDir dir;
        QFile file(dir.filePath(QStringLiteral("workshop.westrum-book")));
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write(QByteArray(3000, 'x'));
        file.close();
        Shop shop(dir.path(), panels());
        QVERIFY(!shop.workshop->isOpen() && !shop.workshop->trouble().isEmpty());
        QVERIFY(settlePlan(shop.document) && !shop.document.plan()->purchases.empty());
        const ProductCut* cut = shop.cutOf("dipper-ply");
        push(shop.document, shop.workshop->keepOffcuts(*cut, 0, "left of sheet 1"));
        QCOMPARE(shop.document.job().cutList("dipper-ply").stock[0].name, std::string("left of sheet 1"));
        QVERIFY(shop.document.job().cutList("dipper-ply").stock[0].book.empty());
        shop.workshop->settle();
        shop.workshop->beginAnew(); // by a person's press: the old one lies beside it
        QVERIFY(shop.workshop->isWritable() && shop.workshop->trouble().isEmpty());
        QCOMPARE(QDir(dir.path()).entryList({QStringLiteral("*aside*")}).size(), 1);
        QTemporaryDir other;
        QFile inTheWay(other.filePath(QStringLiteral("folder")));
        QVERIFY(inTheWay.open(QIODevice::WriteOnly));
        Shop nowhere(other.filePath(QStringLiteral("folder")), panels());
        QVERIFY(!nowhere.workshop->isOpen() && !nowhere.workshop->trouble().isEmpty());
    }

    void aFullDiskIsToldAndTheJobGoesOn() {
        QTemporaryDir dir;
        Shop shop(dir.path(), panels());
        QVERIFY(shop.workshop->take(twoOffcuts()));
        shop.workshop->limitPages(1);
        const std::vector<RackPiece> many(3000, twoOffcuts()[0]);
        QVERIFY(!shop.workshop->take(many));
        QVERIFY(!shop.told.isEmpty());
        QCOMPARE(shop.workshop->book().rack.size(), std::size_t{2});
        QVERIFY(settlePlan(shop.document));
    }

    /// The examples keep out of the person's own book.
    void examplesHaveABookOfTheirOwn() {
        QTemporaryDir dir;
        Shop shop(dir.path(), demoSecondJob(), false);
        QCOMPARE(shop.workshop->book().rack.size(), exampleBook().rack.size());
        QVERIFY(shop.stateOf("R1") == State::Reserved);
        shop.document.open(newJob("Mine", "Floor", starterCatalogue(), {}), {});
        QVERIFY(shop.workshop->book().rack.empty() && !shop.workshop->jobId().empty());
    }

    /// What the record says was left goes on the shelf under a number of its own, off it when the entry is struck; what
    /// somebody used up stays used up, however often the job is looked over.
    void whatWasLeftGoesOnTheShelf() {
        QTemporaryDir dir;
        Shop shop(dir.path(), demoJob(), true, false);
        RecordEntry left = entryNow(shop.document, EntryKind::LeftOver);
        left.product = "contact-can";
        left.amount = 0.5;
        push(shop.document, addEntries(shop.document, {left}));
        shop.workshop->settle();
        QCOMPARE(shop.workshop->book().packs.size(), std::size_t{1});
        KeptPack pack = shop.workshop->book().packs[0];
        QVERIFY(pack.opened && pack.count == 0.5 && pack.from == shop.document.job().name);
        shop.undo();
        QVERIFY(shop.workshop->book().packs.empty());
        shop.redo();
        pack.count = 0;
        QVERIFY(shop.workshop->put(pack));
        push(shop.document, renameJob(shop.document, "Another name", "van"));
        shop.workshop->settle();
        QCOMPARE(shop.workshop->book().packs.size(), std::size_t{1});
        QCOMPARE(shop.workshop->book().packs[0].count, 0.0);
    }

    /// Two tins of a half and one are taken for a job: the plan buys less, another job may not have them, undo gives
    /// them back. A tin past its date is left where it is.
    void theShelfIsUsedByOneJob() {
        QTemporaryDir dir;
        Shop one(dir.path(), demoJob(), true, false), other(dir.path(), demoJob(), true, false);
        const Product can = *one.document.job().catalogue.find("contact-can");
        const auto packs = [&] {
            for (const Purchase& p : one.document.plan()->purchases)
                if (p.product == "contact-can") return std::pair(p.packs, p.shelf);
            return std::pair(-1, 0.0);
        };
        const auto [before, none] = packs();
        QVERIFY(before > 1 && none == 0);
        const std::string identity = productIdentity(can);
        const CivilDate today = one.document.now().day;
        for (const auto& [count, goesOff] : {std::pair{0.5, std::optional<CivilDate>()},
                                             {1.0, std::optional(today + 40)},
                                             {3.0, std::optional(today + -5)}})
            QVERIFY(one.workshop->put(
                KeptPack{.product = identity, .name = can.name, .count = count, .kept = today, .goesOff = goesOff}));
        QCOMPARE(one.workshop->onShelf(can).size(), std::size_t{2});
        QString why;
        push(one.document, one.workshop->useShelf("contact-can", why));
        one.workshop->settle();
        QVERIFY(settlePlan(one.document));
        QVERIFY(packs().first < before && packs().second > 0);
        QVERIFY(one.told.isEmpty());
        other.workshop->look();
        QVERIFY(other.workshop->onShelf(can).empty());
        QVERIFY(!other.workshop->useShelf("contact-can", why) && !why.isEmpty());
        one.undo();
        QVERIFY(settlePlan(one.document));
        QCOMPARE(packs().first, before);
        other.workshop->look();
        QCOMPARE(other.workshop->onShelf(can).size(), std::size_t{2});
        one.redo();
        push(one.document, one.workshop->leaveShelf("contact-can"));
        one.workshop->settle();
        QVERIFY(one.document.job().shelf.empty());
        // By hand, whoever has it; who had it is told.
        one.undo();
        const std::string number = one.document.job().shelf.front().number;
        QVERIFY(other.workshop->freePack(number));
        push(other.document, other.workshop->useShelf("contact-can", why));
        other.workshop->settle();
        one.workshop->look();
        one.workshop->settle();
        QVERIFY2(one.told.join(QLatin1Char(' ')).contains(QString::fromStdString(number)),
                 qPrintable(one.told.join(QLatin1Char('|'))));
    }

    /// A file that was copied is a job of its own: what the other has reserved stays with that one. A job saved under
    /// another name goes on as itself, and the file that it leaves behind is the copy then.
    void aCopiedFileIsAJobOfItsOwn() {
        QTemporaryDir dir;
        const QString path = dir.filePath(QStringLiteral("job.westrum")),
                      copy = dir.filePath(QStringLiteral("copy.westrum"));
        Shop shop(dir.path(), panels());
        QVERIFY(shop.workshop->take(twoOffcuts()));
        QString why;
        push(shop.document, shop.workshop->reserve("R1", why));
        shop.workshop->settle();
        QVERIFY(!shop.document.saveTo(path));
        const std::string id = shop.workshop->jobId();
        QVERIFY(QFile::copy(path, copy));
        QVERIFY(!shop.document.openFile(copy));
        shop.workshop->settle();
        QVERIFY(shop.workshop->jobId() != id);
        QVERIFY2(shop.told.join(QLatin1Char(' ')).contains(QStringLiteral("This is a copy of job.westrum.")),
                 qPrintable(shop.told.join(QLatin1Char('|'))));
        QCOMPARE(shop.workshop->book().rack[0].job, id);
        shop.told.clear();
        QVERIFY(!shop.document.openFile(path));
        shop.workshop->settle();
        QVERIFY(shop.workshop->jobId() == id && shop.told.isEmpty());
        const QString moved = dir.filePath(QStringLiteral("moved.westrum"));
        QVERIFY(!shop.document.saveTo(moved));
        QVERIFY(!shop.document.openFile(moved));
        shop.workshop->settle();
        QVERIFY(shop.workshop->jobId() == id && shop.told.isEmpty());
        QVERIFY(QFile::remove(path)); // a file that was moved is no copy
        QVERIFY(QFile::rename(moved, path));
        QVERIFY(!shop.document.openFile(path));
        shop.workshop->settle();
        QVERIFY(shop.workshop->jobId() == id && shop.told.isEmpty());
    }

    /// A job that was never saved, and is let go of, leaves nothing reserved behind.
    void aJobThrownAwayGivesBack() {
        QTemporaryDir dir;
        Shop keeper(dir.path(), panels());
        QVERIFY(keeper.workshop->take(twoOffcuts()));
        QString why;
        {
            Shop thrown(dir.path(), panels());
            push(thrown.document, thrown.workshop->reserve("R1", why));
            thrown.workshop->settle();
            keeper.workshop->look();
            QVERIFY(keeper.stateOf("R1") == State::Reserved);
            thrown.document.open(panels(), {}); // another one in its place
            keeper.workshop->look();
            QVERIFY(keeper.stateOf("R1") == State::Free);
            push(thrown.document, thrown.workshop->reserve("R2", why));
            thrown.workshop->settle();
        }
        keeper.workshop->look();
        QVERIFY(keeper.stateOf("R2") == State::Free);
    }

    /// Photographs are named from the job's file: saved in another folder, it still finds them.
    void photographsAreFoundFromANewPlace() {
        QTemporaryDir dir;
        QVERIFY(QDir(dir.path()).mkpath(QStringLiteral("old")) && QDir(dir.path()).mkpath(QStringLiteral("new")));
        JobDocument document;
        Job job = demoJob();
        job.record = {{.id = 1,
                       .kind = EntryKind::Photograph,
                       .when = {{2027, 3, 1}, 600, 600},
                       .text = dir.filePath(QStringLiteral("old/a.jpg")).toStdString()},
                      {.id = 2, .kind = EntryKind::Note, .when = {{2027, 3, 1}, 600, 600}, .text = "old/a.jpg"}};
        document.open(job, {});
        QVERIFY(!document.saveTo(dir.filePath(QStringLiteral("old/job.westrum"))));
        QCOMPARE(document.job().record[0].text, std::string("a.jpg"));
        QVERIFY(!document.saveTo(dir.filePath(QStringLiteral("new/job.westrum"))));
        QCOMPARE(document.job().record[0].text, std::string("../old/a.jpg"));
        QCOMPARE(document.job().record[1].text, std::string("old/a.jpg")); // a note is a note
        QVERIFY(!document.isModified());
        QCOMPARE(readJobFile(document.path()).value().record[0].text, std::string("../old/a.jpg"));
        // Where it cannot be saved nothing changes.
        QVERIFY(document.saveTo(dir.filePath(QStringLiteral("nowhere/job.westrum"))));
        QCOMPARE(document.job().record[0].text, std::string("../old/a.jpg"));
    }

    /// A job renamed is told so on the rack: what it has reserved bears its name as it is now.
    void theRackKnowsAJobByItsNewName() {
        QTemporaryDir dir;
        Shop shop(dir.path(), panels());
        QVERIFY(shop.workshop->take(twoOffcuts()));
        QString why;
        push(shop.document, shop.workshop->reserve("R1", why));
        push(shop.document, renameJob(shop.document, "Sandpiper", "box trailer"));
        shop.workshop->settle();
        QCOMPARE(shop.workshop->book().rack[0].jobName, std::string("Sandpiper"));
        shop.undo();
        QCOMPARE(shop.workshop->book().rack[0].jobName, std::string("Dabchick, a small trailer"));
    }
};

WESTRUM_TEST(WorkshopTest)
#include "workshop_test.moc"
