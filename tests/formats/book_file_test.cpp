#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/rack.h"
#include "formats/book_file.h"
#include "formats/demo.h"
#include "formats/words.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;

/// The workshop's book as files.
class BookFileTest : public QObject {
    Q_OBJECT
private slots:
    void aBookComesBackAsItWas() {
        const WorkshopBook book = exampleBook();
        const QByteArray bytes = writeBook(book);
        const auto back = readBook(bytes);
        QVERIFY2(back, back ? "" : qPrintable(sentence(back.error().front())));
        QVERIFY(back.value().people == book.people && back.value().rack == book.rack &&
                back.value().packs == book.packs && back.value().jobs == book.jobs &&
                back.value().prices == book.prices && back.value().bodies == book.bodies);
        QCOMPARE(writeBook(back.value()), bytes);
        QVERIFY(readBook(writeBook({})).value() == WorkshopBook{});
    }

    /// The body in it is the body of the van: what comes out is what was measured.
    void aBodyCanBeReadAgain() {
        const auto shell = readJob(QByteArray::fromStdString(exampleBook().bodies[0].shell));
        QVERIFY(shell);
        QVERIFY(shell.value().surface("left-upper")->measurement == demoJob().surface("left-upper")->measurement);
        QVERIFY(shell.value() == shellOf(demoJob()));
    }

    void whatIsNoBookIsRefused() {
        for (const char* bytes :
             {"", "nonsense", "{}", "[]", "{\"format\":\"westrum-job\",\"version\":1}",
              "{\"format\":\"westrum-book\",\"version\":2}", "{\"format\":\"westrum-book\"}",
              "{\"format\":\"westrum-book\",\"version\":1,\"rack\":{}}",
              "{\"format\":\"westrum-book\",\"version\":1,\"rack\":[{}]}",
              "{\"format\":\"westrum-book\",\"version\":1,\"rack\":[{\"number\":\"R1\",\"product\":\"x\","
              "\"name\":\"x\",\"lengthMm\":-4,\"widthMm\":2,\"kept\":\"2027-01-01\"}]}",
              "{\"format\":\"westrum-book\",\"version\":1,\"people\":[{\"name\":\"a\"},{\"name\":\"a\"}]}",
              "{\"format\":\"westrum-book\",\"version\":1,\"people\":[{\"name\":\"a\",\"hours\":{\"x\":3}}]}",
              "{\"format\":\"westrum-book\",\"version\":1,\"packs\":[{\"number\":\"P1\",\"product\":\"x\","
              "\"name\":\"x\",\"count\":1,\"kept\":\"2027-02-30\"}]}",
              "{\"format\":\"westrum-book\",\"version\":1,\"bodies\":[{\"name\":\"x\",\"day\":"
              "\"2027-01-01\",\"shell\":{\"format\":\"westrum-job\"}}]}"}) {
            const auto read = readBook(bytes);
            QVERIFY2(!read, bytes);
            QVERIFY(!sentence(read.error().front()).isEmpty());
        }
    }

    /// Bytes changed anywhere: refused or read, never a crash.
    void hostileBytesAreAnswered() {
        const QByteArray whole = writeBook(exampleBook()).left(20000) + writeBook(exampleBook()).right(3000);
        const QByteArray good = writeBook(exampleBook());
        std::mt19937 dice(4);
        for (int run = 0; run < 300; ++run) {
            QByteArray bytes = run % 3 == 0 ? whole : good;
            if (run % 3 == 1) bytes.truncate(static_cast<qsizetype>(dice() % static_cast<unsigned>(bytes.size())));
            for (int k = 0; k < 5 && !bytes.isEmpty(); ++k)
                bytes[static_cast<qsizetype>(dice() % static_cast<unsigned>(bytes.size()))] = static_cast<char>(dice());
            if (const auto read = readBook(bytes)) QVERIFY(read.value().rack.size() <= 9);
        }
    }

    void aListOfOffcutsComesBack() {
        const auto rack = exampleBook().rack;
        const RackReading read = readRackCsv(rackAsCsv(rack), {2027, 5, 1});
        QVERIFY(read.faults.empty());
        QCOMPARE(read.rack.size(), rack.size());
        for (std::size_t i = 0; i < rack.size(); ++i) {
            QCOMPARE(read.rack[i].number, rack[i].number);
            QVERIFY(read.rack[i].lengthMm == rack[i].lengthMm && read.rack[i].shape == rack[i].shape &&
                    read.rack[i].lot == rack[i].lot && read.rack[i].kept == rack[i].kept);
        }
    }

    /// A list as somebody types it: columns in any order, inches, and what is wrong is told by its line.
    void aListTypedElsewhereIsRead() {
        const RackReading read = readRackCsv("width;length;product;stands\n"
                                             "400;600;Birch ply 9;rack\n"
                                             "12 in;24 in;Birch ply 9;\n"
                                             ";600;Birch ply 9;\n"
                                             "400;600;;\n"
                                             "-4;600;Ply;\n",
                                             {2027, 5, 1});
        QCOMPARE(read.rack.size(), std::size_t{2});
        QVERIFY(read.rack[0].lengthMm == 600 && read.rack[0].widthMm == 400 && read.rack[0].stands == "rack");
        QVERIFY(std::abs(read.rack[1].lengthMm - 609.6) < 1e-9 && read.rack[1].kept == (CivilDate{2027, 5, 1}));
        QCOMPARE(read.faults.size(), std::size_t{3});
        QVERIFY(read.faults[0].line == 4 && read.faults[0].kind == RackLineFault::Kind::BadSize);
        QVERIFY(read.faults[1].line == 5 && read.faults[1].kind == RackLineFault::Kind::NoProduct);
        for (const RackLineFault& f : read.faults) QVERIFY(!sentence(f).isEmpty());
        QVERIFY(readRackCsv("a;b\n1;2\n", {2027, 5, 1}).faults[0].kind == RackLineFault::Kind::NoHeading);
        QVERIFY(readRackCsv("  \n", {2027, 5, 1}).faults[0].kind == RackLineFault::Kind::Empty);
    }

    void shapesAreWrittenAsText() {
        const Region shape{{{{0, 0}, {600, 0}, {600, 400.5}}, {{1, 1}, {1, 2}, {2, 1}}}};
        QCOMPARE(shapeAsText(shape), std::string("0 0; 600 0; 600 400.5 / 1 1; 1 2; 2 1"));
        QVERIFY(shapeFromText(shapeAsText(shape)) == std::optional(shape));
        QVERIFY(shapeFromText("") == std::optional(Region{}));
        for (const char* text : {"0 0; 1 1", "0 0; 1; 2 2", "a b; c d; e f", "0 0; 1 1; 1e9 2", "/", "0 0; nan 1; 2 2"})
            QVERIFY2(!shapeFromText(text), text);
    }

    /// Money as it is spoken, in its currency; a formula of a spreadsheet is defused.
    void otherListsAreWritten() {
        WorkshopBook book = exampleBook();
        QVERIFY(pricesAsCsv(book.prices).contains("51.80;EUR;"));
        QVERIFY(jobsAsCsv(book.jobs).contains(";21.4;164;1184.50;EUR;96;121;31"));
        book.packs[0].name = "=cmd()";
        const QByteArray packs = packsAsCsv(book.packs);
        QVERIFY(!packs.contains(";=cmd()") && packs.contains("2027-09-30"));
    }

    /// What the book and the record gave the job comes back with it.
    void aJobKeepsWhatTheBookGaveIt() {
        Job job = fromBody(shellOf(demoJob()), newVanJob("Next", starterCatalogue(), {}, shellOf(demoJob()).surfaces),
                           "Plover's body");
        job.bookId = "abc";
        job.work.person = "Wren";
        job.before.checks[0].taken = Reading{"3642", {3642}};
        job.cutLists["dipper-ply"].stock.push_back(stockOf(exampleBook().rack[0], "s1"));
        job.record.push_back({.id = 1,
                              .kind = EntryKind::Photograph,
                              .when = {{2027, 3, 1}, 5, 5},
                              .surface = "floor",
                              .text = "a.jpg",
                              .laid = {{-10, 0}, {500, 1.5}, {500, 300}, {0, 300}}});
        const auto back = readJob(writeJob(job));
        QVERIFY2(back, back ? "" : qPrintable(sentence(back.error().front())));
        QVERIFY(back.value() == job);
        QByteArray wrong = writeJob(job);
        wrong.replace("\"laid\": [", "\"laid\": [ 3,");
        QVERIFY(!readJob(wrong));
    }
};

WESTRUM_TEST(BookFileTest)
#include "book_file_test.moc"
