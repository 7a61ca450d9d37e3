#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "formats/demo.h"
#include "records/book.h"
#include "records/book_schema.h"
#include "tests/support/registry.h"

#include <QDir>
#include <QFile>
#include <QProcess>
#include <QSqlError>
#include <QSqlQuery>
#include <QTemporaryDir>

#include <map>
#include <random>

using namespace westrum;
using Kind = BookFault::Kind;
using State = RackPiece::State;

namespace {

RackPiece offcut(double length, double width) {
    return {.product = "sheet|ply|900", .name = "Ply", .lengthMm = length, .widthMm = width, .kept = {2027, 4, 1}};
}

const RackPiece* find(const std::vector<RackPiece>& rack, const std::string& number) {
    for (const RackPiece& p : rack)
        if (p.number == number) return &p;
    return nullptr;
}

/// Runs statements on a file behind the book's back.
bool onFile(const QString& path, const QStringList& statements, QVariant* answer = nullptr) {
    bool well = true;
    {
        QSqlDatabase d = QSqlDatabase::addDatabase(QStringLiteral("QSQLITE"), QStringLiteral("behind"));
        d.setDatabaseName(path);
        well = d.open();
        QSqlQuery q(d);
        for (const QString& s : statements) well = well && q.exec(s);
        if (answer && q.next()) *answer = q.value(0);
    }
    QSqlDatabase::removeDatabase(QStringLiteral("behind"));
    return well;
}

bool write(const QString& path, const QByteArray& bytes) {
    QFile file(path);
    return file.open(QIODevice::WriteOnly) && file.write(bytes) == bytes.size();
}

QByteArray bytesOf(const QString& path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
}

} // namespace

/// The workshop's book.
class BookTest : public QObject {
    Q_OBJECT
    QTemporaryDir dir_;
    [[nodiscard]] QString fresh() const {
        static int n = 0;
        return dir_.filePath(QStringLiteral("book-%1/a shop's book.westrum-book").arg(++n));
    }

private slots:
    void allOfItIsKept() {
        Book book;
        const QString path = fresh();
        QVERIFY(!book.open(path)); // the folder is made too
        QVERIFY(book.all() == WorkshopBook{});
        WorkshopBook example = exampleBook();
        example.people[0].waste["x|y|0"] = 0.12;
        example.people[0].readingErrorMm = 2.6;
        example.packs[0].job = "another";
        example.packs[0].jobName = "Heron";
        QVERIFY(!book.merge(example));
        QVERIFY(book.all() == example);
        QVERIFY(!book.merge(example)); // what is there already stays: nothing comes twice
        QVERIFY(book.all() == example);
        book.close();
        Book again;
        QVERIFY(!again.open(path));
        QVERIFY(again.all() == example);
    }

    /// R1, R2 on the rack; a number that was written on something is not given again, not even once it is gone.
    void numbersAreGivenOnce() {
        Book book;
        QVERIFY(!book.open(fresh()));
        std::vector<RackPiece> two{offcut(600, 400), offcut(500, 300)};
        QVERIFY(!book.keep(two));
        QVERIFY(two[0].number == "R1" && two[1].number == "R2");
        QVERIFY(!book.strike({"R2"}));
        std::vector<RackPiece> one{offcut(700, 200)};
        QVERIFY(!book.keep(one));
        QCOMPARE(one[0].number, std::string("R3"));
        std::vector<RackPiece> known{two[0]};
        known[0].lengthMm = 1;
        QVERIFY(!book.keep(known)); // it stands there already, as it was
        QCOMPARE(find(book.rack(), "R1")->lengthMm, 600.0);
        QCOMPARE(book.rack().size(), std::size_t{2});
    }

    /// One job reserves R1 and cuts R2; another may have neither; doing without gives both back.
    void twoJobsCannotHaveOnePiece() {
        Book book, other; // two windows
        const QString path = fresh();
        QVERIFY(!book.open(path) && !other.open(path));
        std::vector<RackPiece> three{offcut(600, 400), offcut(500, 300), offcut(400, 300)};
        QVERIFY(!book.keep(three));
        const qint64 before = other.othersChanges();
        QVERIFY(!book.use({"job-a", "Plover", {"R1"}, {"R2"}}));
        QVERIFY(other.othersChanges() != before); // the other window sees that something changed
        QVERIFY(find(other.rack(), "R1")->state == RackPiece::State::Reserved);
        QCOMPARE(find(other.rack(), "R2")->jobName, std::string("Plover"));
        // All of it or nothing: R3 is free, and stays so.
        QCOMPARE(*other.use({"job-b", "Heron", {"R3", "R1"}, {}}), (BookFault{Kind::Taken, QStringLiteral("R1")}));
        QVERIFY(find(book.rack(), "R3")->state == RackPiece::State::Free);
        QCOMPARE(other.use({"job-b", "Heron", {}, {"R9"}})->kind, Kind::NotThere);
        QCOMPARE(other.strike({"R1"})->kind, Kind::Taken);
        QVERIFY(!book.use({"job-a", "Plover", {}, {}}));
        QVERIFY(!other.use({"job-b", "Heron", {"R3", "R1"}, {}}));
        QCOMPARE(find(book.rack(), "R1")->job, std::string("job-b"));
        QVERIFY(!book.free("R1")); // by hand
        QVERIFY(find(book.rack(), "R1")->state == RackPiece::State::Free && find(book.rack(), "R1")->job.empty());
    }

    /// One job means to use P1; another may have it only once the first does without.
    void twoJobsCannotHaveOnePack() {
        Book book;
        QVERIFY(!book.open(fresh()));
        QVERIFY(!book.put(KeptPack{.product = "x", .name = "Tin", .count = 0.5, .kept = {2027, 3, 1}}));
        const std::string number = book.all().packs[0].number;
        QVERIFY(!book.use({"job-a", "Plover", {}, {}, {number}}));
        QCOMPARE(book.all().packs[0].jobName, std::string("Plover"));
        QCOMPARE(book.use({"job-b", "Heron", {}, {}, {number}})->kind, Kind::Taken);
        QCOMPARE(book.use({"job-b", "Heron", {}, {}, {"P77"}})->kind, Kind::NotThere);
        KeptPack changed = book.all().packs[0]; // what is written of it leaves it with its job
        changed.count = 0.25;
        changed.job.clear();
        QVERIFY(!book.put(changed));
        QVERIFY(book.all().packs[0].count == 0.25 && book.all().packs[0].job == "job-a");
        QVERIFY(!book.use({"job-a", "Plover", {}, {}, {}}));
        QVERIFY(!book.use({"job-b", "Heron", {}, {}, {number}}));
        QVERIFY(!book.freePack(number));
        QVERIFY(book.all().packs[0].job.empty());
        QCOMPARE(book.freePack("P77")->kind, Kind::NotThere);
        // Where a job's file is.
        QVERIFY(book.fileOf("job-a").isEmpty());
        QVERIFY(!book.putFile("job-a", QStringLiteral("/here/a.westrum")));
        QVERIFY(!book.putFile("job-a", QStringLiteral("/there/a.westrum")));
        QCOMPARE(book.fileOf("job-a"), QStringLiteral("/there/a.westrum"));
    }

    void aShapeKeepsItsOutline() {
        Book book;
        QVERIFY(!book.open(fresh()));
        std::vector<RackPiece> one{offcut(600, 400)};
        one[0].shape = {{{{0, 0}, {600, 0}, {600, 400.25}, {1.0 / 3, 400}}, {{100, 100}, {100, 200}, {200, 100}}}};
        QVERIFY(!book.keep(one));
        const Region back = book.rack()[0].shape;
        QCOMPARE(back.rings.size(), std::size_t{2});
        QVERIFY(std::abs(areaMm2(back) - areaMm2(one[0].shape)) < 1e-3);
        QVERIFY(book.describe([&] {
            RackPiece p = one[0];
            p.stands = "o'er the door; DROP TABLE offcut";
            return p;
        }()) == std::nullopt);
        QCOMPARE(book.rack()[0].stands, std::string("o'er the door; DROP TABLE offcut"));
    }

    /// A book of every earlier version is copied aside, brought up to date, and holds what it held.
    void earlierVersionsAreBroughtUpToDate_data() {
        QTest::addColumn<int>("version");
        for (int v = 1; v < newestBookVersion(); ++v) QTest::addRow("version %d", v) << v;
    }
    void earlierVersionsAreBroughtUpToDate() {
        QFETCH(int, version);
        const QString path = dir_.filePath(QStringLiteral("old-%1.westrum-book").arg(version));
        QStringList statements;
        for (int v = 0; v < version; ++v) statements += bookMigrations()[static_cast<std::size_t>(v)];
        statements << QStringLiteral("PRAGMA application_id = %1").arg(kBookMark)
                   << QStringLiteral("PRAGMA user_version = %1").arg(version)
                   << QStringLiteral(
                          "INSERT INTO offcut (number, product, name, length_mm, width_mm, shape, lot, stands, "
                          "kept, from_job, state, job, job_name) VALUES ('R7', 'sheet|ply|900', 'Ply', 810, "
                          "420, '', 'L1', 'rack', '2026-05-01', 'Heron', 1, 'j', 'Heron')")
                   << QStringLiteral("INSERT INTO person (name, practised, spoil_chance) VALUES ('Wren', 1, 0.04)")
                   << QStringLiteral("INSERT INTO person_hours VALUES ('Wren', 'boards', 0.8, 0.05)");
        if (version >= 2)
            statements << QStringLiteral("INSERT INTO pack VALUES ('P2', 'adhesive|can', 'Can', 0.5, 1, '', '', "
                                         "'2026-05-01', NULL, 'Heron')");
        QVERIFY(onFile(path, statements));
        Book book;
        QVERIFY(!book.open(path));
        const WorkshopBook all = book.all();
        QCOMPARE(all.rack.size(), std::size_t{1});
        QVERIFY(all.rack[0].number == "R7" && all.rack[0].lengthMm == 810 && all.rack[0].photograph.empty() &&
                all.rack[0].state == RackPiece::State::Reserved);
        QVERIFY(all.people.size() == 1 && all.people[0].practised && all.people[0].hours.at("boards").perM2 == 0.8);
        QCOMPARE(all.packs.size(), version >= 2 ? std::size_t{1} : std::size_t{0});
        QVERIFY(!book.merge(exampleBook())); // and takes all that a book takes today
        QVERIFY(QFile::exists(path + QStringLiteral(".version-%1").arg(version)));
        QVariant was;
        QVERIFY(
            onFile(path + QStringLiteral(".version-%1").arg(version), {QStringLiteral("PRAGMA user_version")}, &was));
        QCOMPARE(was.toInt(), version);
    }

    void whatIsNoBookIsLeftAlone() {
        Book book;
        const QString text = dir_.filePath(QStringLiteral("text"));
        QVERIFY(write(text, QByteArray(5000, 'x')));
        QCOMPARE(book.open(text)->kind, Kind::Damaged);
        QCOMPARE(bytesOf(text), QByteArray(5000, 'x'));
        QVERIFY(!book.isOpen() && book.all() == WorkshopBook{});
        const QString foreign = dir_.filePath(QStringLiteral("foreign"));
        QVERIFY(onFile(foreign, {QStringLiteral("CREATE TABLE songs (name TEXT)")}));
        QCOMPARE(book.open(foreign)->kind, Kind::Foreign);
        const QString newer = dir_.filePath(QStringLiteral("newer"));
        QVERIFY(onFile(newer, {QStringLiteral("PRAGMA application_id = %1").arg(kBookMark),
                               QStringLiteral("PRAGMA user_version = 99"), QStringLiteral("CREATE TABLE x (y)")}));
        QCOMPARE(*book.open(newer), (BookFault{Kind::Newer, QStringLiteral("99")}));
        QCOMPARE(book.open(dir_.path())->kind, Kind::CannotOpen); // a folder
        std::vector<RackPiece> one{offcut(600, 400)};
        QCOMPARE(book.keep(one)->kind, Kind::CannotOpen); // with no book open nothing is written
        QVERIFY(one[0].number.empty());
    }

    void aTruncatedBookIsToldAndLeftAsItIs() {
        const QString path = fresh();
        {
            Book book;
            QVERIFY(!book.open(path) && !book.merge(exampleBook()));
        }
        const QByteArray whole = bytesOf(path);
        std::mt19937 dice(3);
        for (const double share : {0.1, 0.5, 0.9}) {
            QVERIFY(write(path, whole.left(static_cast<qsizetype>(static_cast<double>(whole.size()) * share))));
            const QByteArray left = bytesOf(path);
            Book book;
            const MaybeBookFault fault = book.open(path);
            QVERIFY(fault && fault->kind == Kind::Damaged);
            QCOMPARE(bytesOf(path), left);
        }
        // Bytes turned over anywhere: told, or read; never a crash, and never more offcuts than there were.
        for (int run = 0; run < 40; ++run) {
            QByteArray broken = whole;
            for (int k = 0; k < 20; ++k)
                broken[static_cast<qsizetype>(dice() % static_cast<unsigned>(whole.size()))] =
                    static_cast<char>(dice());
            QVERIFY(write(path, broken));
            for (const char* beside : {"-wal", "-shm", "~"}) QFile::remove(path + QString::fromLatin1(beside));
            Book book;
            if (!book.open(path)) QVERIFY(book.all().rack.size() <= exampleBook().rack.size());
        }
    }

    /// What does not fit on the disk is not written, and nothing that was there is lost.
    void aFullDiskChangesNothing() {
        Book book;
        const QString path = fresh();
        QVERIFY(!book.open(path) && !book.merge(exampleBook()));
        QVariant pages;
        QVERIFY(onFile(path, {QStringLiteral("PRAGMA page_count")}, &pages));
        book.limitPages(pages.toInt());
        MaybeBookFault fault;
        std::size_t kept = exampleBook().rack.size();
        for (int n = 0; n < 2000 && !fault; ++n) {
            std::vector<RackPiece> some(20, offcut(600, 400));
            fault = book.keep(some);
            if (!fault) kept += 20;
        }
        QVERIFY(fault && fault->kind == Kind::Full);
        QCOMPARE(book.rack().size(), kept);
        book.limitPages(1000000);
        std::vector<RackPiece> some{offcut(600, 400)};
        QVERIFY(!book.keep(some)); // there is room again
    }

    void aBookThatCannotBeWrittenIsRead() {
        const QString path = fresh();
        {
            Book book;
            QVERIFY(!book.open(path) && !book.merge(exampleBook()));
        }
        QFile::setPermissions(path, QFile::ReadOwner); // which stops nobody who may do anything
        Book book;
        QVERIFY(!book.open(path, Book::Way::ReadOnly));
        QVERIFY(book.isReadOnly() && book.all() == exampleBook());
        std::vector<RackPiece> one{offcut(600, 400)};
        QCOMPARE(book.keep(one)->kind, Kind::ReadOnly);
    }

    /// Two jobs in two windows do as they like, 600 times; beside the book a plain list is kept in memory, by the rules
    /// in words: who may have what, and what nobody may. Both agree after every step.
    void aPlainListAgrees() {
        struct Known {
            State state = State::Free;
            std::string job, stands;
        };
        std::map<std::string, Known> list;
        Book windows[2];
        const QString path = fresh();
        for (Book& b : windows) QVERIFY(!b.open(path));
        std::mt19937 dice(21);
        const auto any = [&]() -> std::string {
            if (list.empty() || dice() % 20 == 0) return "R9999"; // one that nobody has
            return std::next(list.begin(), static_cast<std::ptrdiff_t>(dice() % list.size()))->first;
        };
        for (int step = 0; step < 600; ++step) {
            const std::string job = dice() % 2 ? "a" : "b";
            Book& book = windows[dice() % 2];
            switch (dice() % 5) {
            case 0: {
                std::vector<RackPiece> some(1 + dice() % 2, offcut(300 + dice() % 900, 200 + dice() % 300));
                QVERIFY(!book.keep(some));
                for (const RackPiece& p : some) QVERIFY(list.emplace(p.number, Known{}).second); // never a number twice
                break;
            }
            case 1: {
                const std::string n = any();
                const bool may = !list.contains(n) || list[n].state == State::Free;
                QCOMPARE(!book.strike({n}), may);
                if (may) list.erase(n);
                break;
            }
            case 2: {
                const std::string n = any();
                QCOMPARE(!book.free(n), list.contains(n));
                if (list.contains(n)) list[n].state = State::Free, list[n].job.clear();
                break;
            }
            case 3: {
                RackPiece p = offcut(1, 1);
                p.number = any();
                p.stands = std::to_string(step);
                QCOMPARE(!book.describe(p), list.contains(p.number));
                if (list.contains(p.number)) list[p.number].stands = p.stands;
                break;
            }
            default: {
                RackUse use{job, job, {}, {}};
                for (unsigned k = dice() % 4; k > 0; --k) (dice() % 3 ? use.reserved : use.cut).insert(any());
                bool may = true;
                for (const auto* numbers : {&use.reserved, &use.cut})
                    for (const std::string& n : *numbers)
                        may = may && list.contains(n) && (list[n].state == State::Free || list[n].job == job);
                QCOMPARE(!book.use(use), may);
                if (!may) break; // nothing at all is changed
                for (auto& [n, known] : list) {
                    if (known.job == job) known.state = State::Free, known.job.clear();
                    if (use.reserved.contains(n)) known.state = State::Reserved, known.job = job;
                    if (use.cut.contains(n)) known.state = State::Cut, known.job = job;
                }
            }
            }
            const auto rack = windows[dice() % 2].rack();
            QCOMPARE(rack.size(), list.size());
            for (const RackPiece& p : rack) {
                const Known& known = list.at(p.number);
                QVERIFY(p.state == known.state && p.job == known.job && p.stands == known.stands);
            }
        }
    }

    /// 500 times: killed at a moment of chance while it writes. Whatever it said was done is there, the book is whole,
    /// no number is there twice, and no offcut is with two jobs.
    void killedWhileWritingNothingIsLost() {
        const QString path = fresh();
        {
            Book book;
            QVERIFY(!book.open(path));
        }
        std::mt19937 dice(11);
        std::set<QByteArray> said;
        for (int run = 0; run < 500; ++run) {
            if (run % 50 == 0) { // not too many stand there
                Book book;
                QVERIFY(!book.open(path));
                for (const RackPiece& p : book.rack()) QVERIFY(!book.free(p.number));
                std::set<std::string> all;
                for (const RackPiece& p : book.rack()) all.insert(p.number);
                QVERIFY(!book.strike(all));
                said.clear();
            }
            QProcess victim;
            victim.start(QStringLiteral(WESTRUM_BINARY_DIR "/book-victim"), {path, QString::number(run)});
            QVERIFY(victim.waitForReadyRead(20000));
            QTest::qSleep(static_cast<int>(dice() % 12));
            victim.kill();
            QVERIFY(victim.waitForFinished());
            QList<QByteArray> lines = victim.readAllStandardOutput().split('\n');
            lines.removeLast(); // it may have been cut off by the kill
            for (const QByteArray& line : lines)
                if (line.startsWith("kept ")) said.insert(line.mid(5));
            Book book;
            const MaybeBookFault fault = book.open(path); // looks the whole of it over
            QVERIFY2(!fault, fault ? qPrintable(fault->detail) : "");
            std::map<std::string, int> seen;
            for (const RackPiece& p : book.rack()) {
                ++seen[p.number];
                QCOMPARE(p.state == RackPiece::State::Free, p.job.empty());
            }
            for (const auto& [number, n] : seen) QCOMPARE(n, 1);
            for (const QByteArray& number : said) QVERIFY2(seen.contains(number.toStdString()), number.constData());
        }
    }
};

WESTRUM_TEST(BookTest)
#include "book_test.moc"
