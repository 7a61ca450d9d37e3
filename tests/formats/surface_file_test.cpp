#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/shell/new_van.h"
#include "formats/demo.h"
#include "formats/job_file.h"
#include "formats/words.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;
using namespace westrum::test;

/// Surfaces in the job file: everything comes back, and everything that is wrong is named with its path.
class SurfaceFileTest : public QObject {
    Q_OBJECT

    /// A surface on which every kind of thing is written, half of it not yet measured.
    static Surface crowded(OutlineForm form) {
        Surface s;
        s.id = "crowded";
        s.name = "Crowded wall";
        s.kind = SurfaceKind::RightWallUpper;
        s.hand = Hand::Right;
        s.area = {AreaKind::Other, "attic"};
        s.ghostLength = {1234};
        s.ghostHeight = {567};
        s.heightRear = mm(900);
        s.fromRear = mm(12);
        Measurement& m = s.measurement;
        m.form = form;
        m.readings[0] = mm(3000);
        m.readings[5] = Reading{"72 1/2\"", {1841.5}};
        m.polygon.sides = {mm(100), {}, mm(300)};
        m.polygon.diagonals = {{0, 2, mm(5)}, {1, 0, {}}};
        m.stations.rows = {{mm(0), mm(1), {}}, {{}, mm(2), mm(3)}};
        m.stations.smooth = false;
        m.stations.bothSides = true;
        m.fixedPoints.base = mm(1500);
        m.fixedPoints.rows = {{mm(1), {}, true}, {{}, mm(2), false}, {mm(3), mm(4), false}};
        m.curve.curving = Curving::Double;
        m.curve.parts = {{mm(1450), mm(62)}, {mm(300), {}}};
        m.curve.alongRise = mm(20);
        m.drawn = {{0, 0}, {1000.25, 0}, {1000.25, 500}, {0, 500}};
        m.cornerRadii = {mm(60), {}, {}, mm(5)};
        m.notches = {notch(2, 1, 2, 3), {"half", 7, {}, mm(5), {}}};
        m.steps = {{"Well", 9, mm(3), {}}};
        Opening o{.name = "Star", .kind = OpeningKind::Pipe, .shape = OpeningShape::Polygon};
        o.place = {.side = 4, .fromSide = mm(10), .cross = 2, .fromCross = {}, .toCentre = true};
        o.corners = {{mm(0), mm(0)}, {mm(5), {}}, {{}, {}}};
        o.count = 3;
        o.rowAlong = false;
        o.pitch = mm(40);
        o.treatment = Treatment::LeaveCovered;
        o.edge = OpeningEdge::Reveal;
        o.turnIn = mm(30);
        s.openings = {o, Opening{.name = "Plain"}};
        s.edges = {{},
                   {.kind = EdgeKind::Meets, .surface = "floor", .side = 2},
                   {.kind = EdgeKind::MovementGap, .allowance = mm(5)}};
        s.zones = {{.name = "Bed", .place = {.side = 1, .fromSide = mm(4)}, .width = mm(9)}};
        s.supports = {{.name = "Rib",
                       .kind = SupportKind::Batten,
                       .along = true,
                       .position = mm(1),
                       .count = 7,
                       .spacing = mm(2)}};
        return s;
    }

    static QByteArray with(const QByteArray& from, const QByteArray& to) {
        QByteArray bytes = writeJob(demoJob());
        Q_ASSERT(bytes.contains(from));
        const qsizetype at = bytes.indexOf(from);
        return bytes.replace(at, from.size(), to);
    }

private slots:
    void everythingOfASurfaceComesBack() {
        for (const OutlineForm form : {OutlineForm::Rectangle, OutlineForm::FourSides, OutlineForm::Polygon,
                                       OutlineForm::Stations, OutlineForm::TwoPoint, OutlineForm::Drawn}) {
            Job job = demoJob();
            job.surfaces.push_back(crowded(form));
            job.datum = {mm(1200), {}};
            job.access.doors = {{"side", mm(1), {}}};
            job.access.loadHeight = mm(8);
            const auto back = readJob(writeJob(job));
            QVERIFY2(back.has_value(), qPrintable(back.has_value() ? QString() : sentence(back.error().front())));
            QVERIFY(back.value() == job);
            QCOMPARE(writeJob(back.value()), writeJob(job));
        }
    }

    void aWholeNewVanComesBack() {
        const std::vector<Surface> all =
            surfacesOf({}, [](SurfaceKind k, Hand h, int n) { return surfaceName(k, h, n).toStdString(); });
        const Job job = newVanJob("New", starterCatalogue(), Currency{}, all);
        const auto back = readJob(writeJob(job));
        QVERIFY(back.has_value() && back.value() == job);
        // No two surfaces of a new van are called the same.
        std::set<std::string> names;
        for (const Surface& s : all) QVERIFY2(names.insert(s.name).second, s.name.c_str());
    }

    void whatIsWrongIsNamedWithItsPath_data() {
        QTest::addColumn<QByteArray>("bytes");
        QTest::addColumn<FileFaultKind>("kind");
        QTest::addColumn<QString>("path");
        const auto row = [](const char* name, const char* from, const QByteArray& to, FileFaultKind kind,
                            const char* path) {
            QTest::newRow(name) << with(from, to) << kind << QString::fromLatin1(path);
        };
        row("openings a number", "\"openings\": [", "\"openings\": 5, \"x\": [", FileFaultKind::WrongType,
            "surfaces[1].openings");
        row("shape unknown", "\"shape\": \"round\"", "\"shape\": \"star\"", FileFaultKind::UnknownWord,
            "surfaces[1].openings[1].shape");
        row("side unknown", "\"cross\": \"DA\"", "\"cross\": \"XY\"", FileFaultKind::UnknownWord,
            "surfaces[1].openings[0].cross");
        row("side beyond", "\"cross\": \"DA\"", "\"cross\": 5000", FileFaultKind::OutOfRange,
            "surfaces[1].openings[0].cross");
        row("row of a million", "\"count\": 6", "\"count\": 1000000", FileFaultKind::OutOfRange,
            "surfaces[5].supports[0].count");
        row("edge unknown", "\"kind\": \"meets\"", "\"kind\": \"touches\"", FileFaultKind::UnknownWord,
            "surfaces[0].edges[0].kind");
        row("stations of a million", "\"stationCount\": 7", "\"stationCount\": 1000000", FileFaultKind::OutOfRange,
            "surfaces[2].measurement.stationCount");
        row("one station", "\"stationCount\": 7", "\"stationCount\": 1", FileFaultKind::OutOfRange,
            "surfaces[2].measurement.stationCount");
        row("polygon of two", "\"polygonSides\": 5", "\"polygonSides\": 2", FileFaultKind::OutOfRange,
            "surfaces[7].measurement.polygonSides");
        row("smooth a text", "\"smooth\": true", "\"smooth\": \"yes\"", FileFaultKind::WrongType,
            "surfaces[2].measurement.smooth");
        row("curving unknown", "\"curving\": \"single\"", "\"curving\": \"wavy\"", FileFaultKind::UnknownWord,
            "surfaces[2].measurement.curving");
        row("ghost of nothing", "\"ghostLengthMm\": 3640.0", "\"ghostLengthMm\": 0", FileFaultKind::OutOfRange,
            "surfaces[0].ghostLengthMm");
        row("area a list", "\"area\": \"living\"", "\"area\": []", FileFaultKind::WrongType, "surfaces[0].area");
        row("datum a number", "\"datum\": {", "\"datum\": 5, \"x\": {", FileFaultKind::WrongType, "datum");
        row("drawn a text", "\"form\": \"stations\"", "\"form\": \"drawn\", \"drawn\": \"a box\"",
            FileFaultKind::WrongType, "surfaces[2].measurement.drawn");
        row("drawn of two", "\"form\": \"stations\"", "\"form\": \"drawn\", \"drawn\": [[0, 0], [1, 1]]",
            FileFaultKind::OutOfRange, "surfaces[2].measurement.drawn");
        row("drawn clockwise", "\"form\": \"stations\"", "\"form\": \"drawn\", \"drawn\": [[0, 0], [0, 9], [9, 9]]",
            FileFaultKind::OutOfRange, "surfaces[2].measurement.drawn");
        row("drawn far away", "\"form\": \"stations\"", "\"form\": \"drawn\", \"drawn\": [[0, 0], [1e9, 0], [0, 1e9]]",
            FileFaultKind::OutOfRange, "surfaces[2].measurement.drawn");
        QByteArray many = "\"form\": \"drawn\", \"drawn\": [";
        for (int i = 0; i < 5000; ++i) many += "[0, 0], ";
        row("drawn without end", "\"form\": \"stations\"", many + "[1, 1]]", FileFaultKind::TooMany,
            "surfaces[2].measurement.drawn");
        QByteArray zones = "\"zones\": [";
        for (int i = 0; i < 101; ++i) zones += "{\"side\": \"AB\", \"cross\": \"DA\"}, ";
        row("zones without end", "\"zones\": [", zones, FileFaultKind::TooMany, "surfaces[1].zones");
    }
    void whatIsWrongIsNamedWithItsPath() {
        QFETCH(QByteArray, bytes);
        QFETCH(FileFaultKind, kind);
        QFETCH(QString, path);
        const auto job = readJob(bytes);
        QVERIFY(!job.has_value());
        QCOMPARE(QString::fromStdString(job.error().front().path), path);
        QCOMPARE(job.error().front().kind, kind);
        QVERIFY(!sentence(job.error().front()).isEmpty());
    }

    void aReadingOfNoPlaceIsPassedOver() {
        // A later version may know more places: the file opens all the same.
        const auto job = readJob(with("\"readings\": {", "\"readings\": {\"future7\": {\"mm\": 5}, "));
        QVERIFY(job.has_value());
        QVERIFY(job.value() == demoJob());
    }

    void surfacesAndReadingsHaveNames() {
        for (int k = 0; k <= static_cast<int>(SurfaceKind::Other); ++k)
            QVERIFY(!surfaceKindName(static_cast<SurfaceKind>(k)).isEmpty());
        QCOMPARE(surfaceName(SurfaceKind::ArchEnd, Hand::Left, 2), QStringLiteral("Wheel arch, front end, left"));
        QCOMPARE(surfaceName(SurfaceKind::WetCellWall, Hand::None, 3), QStringLiteral("Wet cell wall 3"));
        QCOMPARE(readingName("AC"), QStringLiteral("diagonal e"));
        QCOMPARE(readingName("S2"), QStringLiteral("side c"));
        QCOMPARE(readingName("x0"), QStringLiteral("station 1"));
        QCOMPARE(readingName("R1"), QStringLiteral("radius at corner B"));
        const Surface s = crowded(OutlineForm::Stations);
        for (const std::string& key : readingKeys(s.measurement))
            QVERIFY2(readingName(key) != QString::fromStdString(key), key.c_str());
    }
};
WESTRUM_TEST(SurfaceFileTest)

#include "surface_file_test.moc"
