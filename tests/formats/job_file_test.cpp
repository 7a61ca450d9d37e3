#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/plan.h"
#include "formats/demo.h"
#include "formats/job_file.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <QFile>
#include <QTemporaryDir>

#include <csignal>
#include <random>

#include <sys/resource.h>

using namespace westrum;
using namespace westrum::test;

namespace {

FileFaultKind firstFault(const QByteArray& bytes) {
    const auto job = readJob(bytes);
    return job ? FileFaultKind::CannotWrite : job.error().front().kind;
}

QByteArray demoBytes() { return writeJob(demoJob()); }

/// The floor, a curved wall and the ceiling of the example: everything a file can hold, small enough to be cut up.
QByteArray partOfTheDemo() {
    Job job = demoJob();
    std::erase_if(job.surfaces,
                  [](const Surface& s) { return s.id != "floor" && s.id != "left-upper" && s.id != "ceiling"; });
    job.catalogue.products.resize(2);
    return writeJob(job);
}

QByteArray demoWith(const char* from, const char* to) {
    QByteArray bytes = demoBytes();
    Q_ASSERT(bytes.contains(from));
    bytes.replace(from, to);
    return bytes;
}

} // namespace

class JobFileTest : public QObject {
    Q_OBJECT
private slots:
    void theDemoComesBackAsItWas() {
        const Job job = demoJob();
        QCOMPARE(QString::fromStdString(job.name), QStringLiteral("Plover"));
        QVERIFY(job.catalogue.products.size() >= 6);
        const auto back = readJob(writeJob(job));
        QVERIFY(back.has_value());
        QVERIFY(back.value() == job);
        QCOMPARE(writeJob(back.value()), writeJob(job)); // the same job is the same bytes
        QVERIFY(starterCatalogue() == job.catalogue);
    }

    void whatWasTypedIsKept() {
        const auto b = demoJob().surfaces[0].measurement.readings[1];
        QCOMPARE(QString::fromStdString(b->typed), QStringLiteral("178.5 cm"));
        QCOMPARE(b->length.value, 1785.0);
    }

    void aJobWithEverythingComesBack() {
        Job job = jobWith(rectangle(3000, 1800), plankProduct(1200, 180, 8, 1999), {{"gap", 8}, {"working", 1}});
        job.name = "Quotes \" and \\ and \xC3\xA4\xE2\x82\xAC";
        job.currency = *currencyOf("JPY");
        job.catalogue.products[0].packPrice = Money{1999, job.currency};
        job.shownUnit = LengthUnit::Foot;
        job.bareUnit = LengthUnit::Inch;
        job.finishes["floor"].now().layers[0].reliefs = {{{10, 0}, {10.5, 80}}};
        job.consumables = false;
        job.acceptedRisk = 0.02;
        job.spreadM2PerMinute = 0.4;
        job.closeM2PerMinute = 1.1;
        job.spares = {{"plank", 2}};
        job.prices.offers = {{.product = "plank",
                              .supplier = "Other",
                              .size = 5,
                              .price = {1234, *currencyOf("GBP")},
                              .taxIncluded = false,
                              .tax = 0.2,
                              .state = OfferState::OutOfStock,
                              .lot = LotRule::One,
                              .date = "2026-11-01"}};
        job.prices.suppliers = {{"Other", Money{500, job.currency}, Money{9000, job.currency}}, {"None", {}, {}}};
        job.prices.rates = {{"GBP", 1.17}};
        job.budget = Money{50000, job.currency};
        job.bought = {{"plank", {.packs = 3, .paid = Money{6100, job.currency}, .lot = "L 17/4"}},
                      {"plank/short", {.packs = 1}}};
        job.mass = {
            .wheelbase = mm(3500), .track = {}, .rearAxle = mm(1100), .front = 1000, .rear = 900.5, .grossLimit = 3300};
        job.weighings = {{.when = "2026-11-20", .front = 1040, .rear = 930, .fitted = 66.4, .note = "after the floor"}};
        job.logs["floor"] = {.opened = 12,
                             .spoilt = 1,
                             .leftOver = 3,
                             .hours = 6.5,
                             .paid = Money{4200, job.currency},
                             .note = "wet\nday",
                             .done = {"row-1"}};
        job.surfaces[0].measurement.notches = {notch(2, 100, 200, 50), {"half measured", 1, mm(5), {}, {}}};
        job.surfaces[0].measurement.steps = {{"Well", 3, mm(300), {}}};
        const auto back = readJob(writeJob(job));
        QVERIFY(back.has_value());
        QVERIFY(back.value() == job);
    }

    void aFileOfVersionThreeOpensStill() {
        const auto old = readJobFile(QStringLiteral(WESTRUM_SOURCE_DIR "/tests/data/plover-version-3.westrum"));
        QVERIFY(old.has_value());
        // Its one finish over its underlay are the layers of one option now, with the same trim and the same planks.
        const FinishOptions& floor = old.value().options("floor");
        QCOMPARE(floor.options.size(), 1U);
        QCOMPARE(floor.now().layers.size(), 2U);
        QCOMPARE(floor.now().trim, std::string("rail-oak"));
        QVERIFY(*old.value().face("floor") == *demoJob().face("floor"));
        QVERIFY(old.value().cutList("dipper-ply") == demoJob().cutList("dipper-ply"));
        QCOMPARE(old.value().cutList("thrush-lining").pieces.size(), 12UL);
        const auto back = readJob(writeJob(old.value()));
        QVERIFY(back.has_value() && back.value() == old.value());
    }

    void edgesAndLeansAreKept() {
        Job job = demoJob();
        Surface& wall = *job.surface("left-lower");
        wall.lean = Reading{"3 1/2\"", {88.9}};
        wall.leansOut = true;
        wall.edges.resize(4);
        wall.edges[3] = {.kind = EdgeKind::UnderTrim,
                         .allowance = Reading{"6", {6}},
                         .gapAtEnd = Reading{"1.4cm", {14}},
                         .trim = "rail-oak"};
        wall.edges[1].trim = kNoTrim;
        const auto back = readJob(writeJob(job));
        QVERIFY(back.has_value() && back.value() == job);
        QCOMPARE(back.value().surface("left-lower")->lean->typed, std::string("3 1/2\""));
        // The mirrored wall leans and is trimmed alike.
        QVERIFY(mirrored(wall).lean == wall.lean && mirrored(wall).leansOut);
    }

    void aFileOfVersionFourKeepsItsEdgesAsTheyWere() {
        const auto old = readJobFile(QStringLiteral(WESTRUM_SOURCE_DIR "/tests/data/plover-version-4.westrum"));
        QVERIFY(old.has_value());
        // A surface with a trim has it still; one without is not given any by today's rules.
        QCOMPARE(old.value().finish("floor").trim, std::string("rail-oak"));
        QVERIFY(old.value().finish("bench-top").trim == kNoTrim);
        const Plan p = plan(old.value());
        QVERIFY(std::none_of(p.trims.runs.begin(), p.trims.runs.end(),
                             [](const TrimRun& r) { return r.surface == "bench-top"; }));
        const auto back = readJob(writeJob(old.value()));
        QVERIFY(back.has_value() && back.value() == old.value());
    }

    void aFileOfVersionTwoOpensStill() {
        const auto old = readJobFile(QStringLiteral(WESTRUM_SOURCE_DIR "/tests/data/plover-version-2.westrum"));
        QVERIFY(old.has_value());
        // The same van: only trim and cut lists came later, and build-ups with the supports and sills that they need.
        Job today = demoJob();
        QVERIFY(old.value().surfaces.size() > 30);
        const ArchBox& box = today.archBoxes.front(); // built since
        for (const Surface& s : old.value().surfaces)
            if (s.id != box.top && s.id != box.face && s.id != box.rearEnd && s.id != box.frontEnd)
                QVERIFY(s.measurement == today.surface(s.id)->measurement);
        QVERIFY(old.value().cutLists.empty() && old.value().finish("floor").trim == kNoTrim);
        QCOMPARE(plan(old.value()).surface("floor")->setOut().stock.size(),
                 plan(today).surface("floor")->setOut().stock.size());
    }

    void aFileOfVersionOneOpensStill() {
        const auto old = readJobFile(QStringLiteral(WESTRUM_SOURCE_DIR "/tests/data/plover-version-1.westrum"));
        QVERIFY(old.has_value());
        const Surface& floor = old.value().surfaces.front();
        // The same floor as today's example: only what came later is not there.
        QVERIFY(floor.measurement == demoJob().surfaces.front().measurement);
        QVERIFY(*old.value().face("floor") == *demoJob().face("floor"));
        QCOMPARE(old.value().finish("floor").layers.size(), 2U); // underlay and planks
        QVERIFY(floor.openings.empty() && floor.edges.empty() && old.value().access.doors.empty());
        const auto back = readJob(writeJob(old.value()));
        QVERIFY(back.has_value() && back.value() == old.value());
    }

    void anEmptyOrForeignFileIsRefused() {
        QCOMPARE(firstFault(""), FileFaultKind::Empty);
        QCOMPARE(firstFault(" \n\t "), FileFaultKind::Empty);
        QCOMPARE(firstFault("hello"), FileFaultKind::NotJson);
        QCOMPARE(firstFault("{}"), FileFaultKind::NotAJob);
        QCOMPARE(firstFault("[1,2,3]"), FileFaultKind::NotAJob);
        QCOMPARE(firstFault("null"), FileFaultKind::NotAJob);
        QCOMPARE(firstFault(QByteArray("\x00\x01\x02\xFF", 4)), FileFaultKind::NotJson);
    }

    void truncatedAtEveryByteItIsRefused() {
        const QByteArray whole = partOfTheDemo().trimmed();
        for (qsizetype n = 0; n < whole.size(); ++n)
            QVERIFY2(!readJob(whole.left(n)).has_value(), qPrintable(QString::number(n)));
        QVERIFY(readJob(whole).has_value());
    }

    void flippedBytesNeverCrash() {
        std::mt19937 dice(71);
        const QByteArray whole = partOfTheDemo();
        int refused = 0;
        for (int round = 0; round < 1500; ++round) {
            QByteArray bytes = whole;
            for (unsigned n = 1 + dice() % 4; n > 0; --n)
                bytes[static_cast<qsizetype>(dice() % static_cast<unsigned>(bytes.size()))] =
                    static_cast<char>(dice() % 256);
            const auto job = readJob(bytes);
            if (!job) {
                ++refused;
                QVERIFY(!job.error().empty());
            } else {
                // What loads can be planned and written again.
                QVERIFY(!writeJob(job.value()).isEmpty());
                if (round % 20 == 0) (void)plan(job.value());
            }
        }
        QVERIFY(refused > 200);
    }

    void unknownVersionsAreNamed() {
        const auto next = readJob(demoWith("\"version\": 5", "\"version\": 6"));
        QVERIFY(!next.has_value());
        QVERIFY(next.error().front().kind == FileFaultKind::UnknownVersion);
        QCOMPARE(QString::fromStdString(next.error().front().detail), QStringLiteral("6"));
        QCOMPARE(firstFault(demoWith("\"version\": 5", "\"version\": \"1\"")), FileFaultKind::UnknownVersion);
        QCOMPARE(firstFault(demoWith("\"version\": 5", "\"version\": 0")), FileFaultKind::UnknownVersion);
        QCOMPARE(firstFault(demoWith("\"version\": 5", "\"edition\": 1")), FileFaultKind::UnknownVersion);
    }

    void wrongTypesAreNamedWithTheirPath_data() {
        QTest::addColumn<QByteArray>("bytes");
        QTest::addColumn<FileFaultKind>("kind");
        QTest::addColumn<QString>("path");
        const auto row = [](const char* name, const char* from, const char* to, FileFaultKind kind, const char* path) {
            QTest::newRow(name) << demoWith(from, to) << kind << QString::fromLatin1(path);
        };
        row("name a number", "\"name\": \"Plover\"", "\"name\": 7", FileFaultKind::WrongType, "name");
        row("surfaces an object", "\"surfaces\": [", "\"surfaces\": {}, \"other\": [", FileFaultKind::WrongType,
            "surfaces");
        row("reading a text", "\"mm\": 3640.0", "\"mm\": \"3640\"", FileFaultKind::WrongType,
            "surfaces[0].measurement.readings.AB.mm");
        row("reading 1e308", "\"mm\": 3640.0", "\"mm\": 1e308", FileFaultKind::OutOfRange,
            "surfaces[0].measurement.readings.AB.mm");
        row("reading 1e999", "\"mm\": 3640.0", "\"mm\": 1e999", FileFaultKind::NotJson, "");
        row("reading NaN", "\"mm\": 3640.0", "\"mm\": NaN", FileFaultKind::NotJson, "");
        row("field null text", "\"perPack\": 10.0", "\"perPack\": []", FileFaultKind::WrongType,
            "catalogue[0].fields.perPack");
        row("unknown form", "\"four-sides\"", "\"five-sides\"", FileFaultKind::UnknownWord,
            "surfaces[0].measurement.form");
        row("unknown kind", "\"kind\": \"floor\"", "\"kind\": \"attic\"", FileFaultKind::UnknownWord,
            "surfaces[0].kind");
        row("negative price", "\"packPriceMinor\": 4390", "\"packPriceMinor\": -1", FileFaultKind::OutOfRange,
            "catalogue[0].packPriceMinor");
        row("currency", "\"EUR\"", "\"euro\"", FileFaultKind::UnknownWord, "currency");
        row("twice the same id", "\"id\": \"curlew-ash\"", "\"id\": \"heron-oak\"", FileFaultKind::Duplicate,
            "catalogue[1].id");
        row("name missing", "\"name\": \"Plover\",", "", FileFaultKind::Missing, "name");
        row("measurement a list", "\"measurement\": {", "\"measurement\": [], \"x\": {", FileFaultKind::WrongType,
            "surfaces[0].measurement");
    }
    void wrongTypesAreNamedWithTheirPath() {
        QFETCH(QByteArray, bytes);
        QFETCH(FileFaultKind, kind);
        QFETCH(QString, path);
        const auto job = readJob(bytes);
        QVERIFY(!job.has_value());
        QCOMPARE(job.error().front().kind, kind);
        QCOMPARE(QString::fromStdString(job.error().front().path), path);
    }

    void allFaultsAreToldNotOnlyTheFirst() {
        QByteArray bytes = demoWith("\"name\": \"Plover\"", "\"name\": 7");
        bytes.replace("\"kind\": \"floor\"", "\"kind\": \"attic\"");
        QVERIFY(readJob(bytes).error().size() >= 2);
    }

    void deepNestingAndHugeFilesAreRefused() {
        QCOMPARE(firstFault(QByteArray(100000, '[')), FileFaultKind::TooDeep);
        QByteArray deep("{\"format\":\"westrum-job\",\"version\":1,\"name\":");
        for (int i = 0; i < 50000; ++i) deep += "{\"a\":";
        QCOMPARE(firstFault(deep), FileFaultKind::TooDeep);
        QTemporaryDir dir;
        QFile huge(dir.filePath(QStringLiteral("huge.westrum")));
        QVERIFY(huge.open(QIODevice::WriteOnly));
        QVERIFY(huge.resize(100LL * 1024 * 1024)); // 100 MB
        huge.close();
        QVERIFY(readJobFile(huge.fileName()).error().front().kind == FileFaultKind::TooLarge);
        QByteArray many("{\"format\":\"westrum-job\",\"version\":1,\"name\":\"x\",\"currency\":\"EUR\",\"bareUnit\":"
                        "\"mm\",\"shownUnit\":\"mm\",\"catalogue\":[],\"surfaces\":[");
        for (int i = 0; i < 3000; ++i) many += "{},";
        many += "{}]}";
        QCOMPARE(firstFault(many), FileFaultKind::TooMany);
    }

    void savingKeepsTheLastGoodVersion() {
        QTemporaryDir dir;
        const QString path = dir.filePath(QStringLiteral("a.westrum"));
        Job job = demoJob();
        QVERIFY(!saveJobFile(job, path));
        QVERIFY(!QFile::exists(path + QLatin1Char('~')));
        job.name = "Second";
        QVERIFY(!saveJobFile(job, path));
        QVERIFY(readJobFile(path).value() == job);
        QCOMPARE(QString::fromStdString(readJobFile(path + QLatin1Char('~')).value().name), QStringLiteral("Plover"));
        // A damaged file is no last good version: the backup stays.
        QFile broken(path);
        QVERIFY(broken.open(QIODevice::WriteOnly));
        broken.write("{");
        broken.close();
        QVERIFY(!saveJobFile(job, path));
        QCOMPARE(QString::fromStdString(readJobFile(path + QLatin1Char('~')).value().name), QStringLiteral("Plover"));
    }

    void whatCannotBeWrittenIsSaid() {
        const auto fault = saveJobFile(demoJob(), QStringLiteral("/no/such/folder/a.westrum"));
        QVERIFY(fault && fault->kind == FileFaultKind::CannotWrite);
        QVERIFY(readJobFile(QStringLiteral("/no/such/file")).error().front().kind == FileFaultKind::CannotOpen);
        QVERIFY(!readJobFile(QStringLiteral("/")).has_value()); // a folder
    }

    void aDiskThatFailsAfterAnyNumberOfBytesLeavesTheOldFileWhole() {
        QTemporaryDir dir;
        const QString path = dir.filePath(QStringLiteral("a.westrum"));
        QVERIFY(!saveJobFile(demoJob(), path));
        Job changed = demoJob();
        changed.name = "Changed";
        const auto whole = static_cast<rlim_t>(writeJob(changed).size());
        // A limit on the size of files makes every write beyond it fail, as a full disk does.
        std::signal(SIGXFSZ, SIG_IGN);
        rlimit before{};
        getrlimit(RLIMIT_FSIZE, &before);
        for (rlim_t bytes = 0; bytes < whole; bytes += 3989) {
            const rlimit limit{bytes, before.rlim_max};
            setrlimit(RLIMIT_FSIZE, &limit);
            const auto fault = saveJobFile(changed, path);
            setrlimit(RLIMIT_FSIZE, &before);
            QVERIFY2(fault && fault->kind == FileFaultKind::CannotWrite, qPrintable(QString::number(bytes)));
            QVERIFY(readJobFile(path).value() == demoJob());
        }
        QVERIFY(!saveJobFile(changed, path));
        QVERIFY(readJobFile(path).value() == changed);
    }

    void onlyAnOrdinaryFileIsWrittenOver() {
        QTemporaryDir dir;
        QVERIFY(saveJobFile(demoJob(), dir.path()).has_value());
        QVERIFY(saveJobFile(demoJob(), QStringLiteral("/dev/null")).has_value());
        QVERIFY(!QFileInfo(QStringLiteral("/dev/null")).isFile());
    }
};
WESTRUM_TEST(JobFileTest)

#include "job_file_test.moc"
