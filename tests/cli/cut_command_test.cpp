#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "formats/cutting_file.h"
#include "formats/words.h"
#include "tests/support/registry.h"

#include <QDir>
#include <QFile>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>

using namespace westrum;

namespace {

struct Ran {
    int status;
    QByteArray out, err;
};

Ran cutCommand(const QByteArray& instance,
               const QStringList& arguments = {QStringLiteral("--iterations"), QStringLiteral("300")}) {
    QProcess process;
    process.start(QStringLiteral(WESTRUM_BINARY_DIR "/westrum-cut"), QStringList{QStringLiteral("-")} + arguments);
    process.write(instance);
    process.closeWriteChannel();
    process.waitForFinished(60000);
    return {process.exitStatus() == QProcess::NormalExit ? process.exitCode() : -1, process.readAllStandardOutput(),
            process.readAllStandardError()};
}

const QByteArray kBars = R"({"kind":"linear","kerf":3,"stock":[{"length":4200,"price":4.1}],
    "pieces":[{"id":"long","length":2100,"count":1},{"id":"short","length":1000,"count":3}]})";
const QByteArray kSheets = R"({"kind":"sheet","kerf":3,"stock":[{"w":2440,"h":1220,"price":30}],
    "pieces":[{"id":"door","w":600,"h":400,"count":2,"rotate":true},{"id":"top","w":1200,"h":600,"count":1,"rotate":false}]})";
const QByteArray kRoll = R"({"kind":"roll","width":1000,"gap":0,"pieces":[
    {"id":"half","outline":[[0,0],[400,0],[0,1000]],"holes":[],"rotations":[0,180],"count":2}]})";

} // namespace

class CutCommandTest : public QObject {
    Q_OBJECT

private slots:
    void barsSheetsAndRollsAreAnswered() {
        const Ran bars = cutCommand(kBars);
        QCOMPARE(bars.status, 0);
        QVERIFY(bars.err.isEmpty());
        const QJsonObject linear = QJsonDocument::fromJson(bars.out).object();
        QCOMPARE(linear[QLatin1String("kind")].toString(), QStringLiteral("linear"));
        // 2100 + 1000 + 1000 and two kerfs fit one bar; the third 1000 needs another.
        QCOMPARE(linear[QLatin1String("cost")].toDouble(), 8.2);
        QVERIFY(linear[QLatin1String("proven")].toBool());
        QCOMPARE(linear[QLatin1String("bars")].toArray().size(), 2);

        const QJsonObject sheet = QJsonDocument::fromJson(cutCommand(kSheets).out).object();
        QCOMPARE(sheet[QLatin1String("cost")].toDouble(), 30.0);
        QCOMPARE(sheet[QLatin1String("lower_bound_cost")].toDouble(), 30.0);
        QCOMPARE(sheet[QLatin1String("sheets")].toArray()[0].toObject()[QLatin1String("pieces")].toArray().size(), 3);

        const QJsonObject roll = QJsonDocument::fromJson(cutCommand(kRoll).out).object();
        QCOMPARE(roll[QLatin1String("placements")].toArray().size(), 2);
        QVERIFY(roll[QLatin1String("length")].toDouble() < 400.1);
    }

    void sameSeedAndIterationsSameBytes() {
        for (const QByteArray& instance : {kBars, kSheets, kRoll})
            QCOMPARE(cutCommand(instance).out, cutCommand(instance).out);
    }

    void theTimeIsKept() {
        // Many pieces that can always be improved on: a second is a second, give or take a start of the program.
        QByteArray many = R"({"kind":"roll","width":1500,"gap":2,"pieces":[)";
        for (int i = 0; i < 60; ++i)
            many += QStringLiteral(R"(%1{"id":"p%2","outline":[[0,0],[%3,20],[%4,%5],[30,%6]],"rotations":[0,180]})")
                        .arg(i ? QStringLiteral(",") : QString())
                        .arg(i)
                        .arg(200 + i * 7 % 311)
                        .arg(250 + i * 5 % 97)
                        .arg(150 + i * 11 % 203)
                        .arg(170 + i * 3 % 59)
                        .toUtf8();
        many += "]}";
        const Ran ran = cutCommand(many, {QStringLiteral("--seconds"), QStringLiteral("1")});
        QCOMPARE(ran.status, 0);
        QCOMPARE(QJsonDocument::fromJson(ran.out).object()[QLatin1String("placements")].toArray().size(), 60);
    }

    void badInputIsAnsweredByASentence_data() {
        QTest::addColumn<QByteArray>("instance");
        QTest::addColumn<QByteArray>("said");
        QTest::newRow("empty") << QByteArray() << QByteArray("empty");
        QTest::newRow("no JSON") << QByteArray("{\"kind\":NaN}") << QByteArray("damaged");
        QTest::newRow("deep") << QByteArray(100, '[') << QByteArray("nested");
        QTest::newRow("kind") << QByteArray(R"({"kind":"blob"})") << QByteArray("“blob”");
        QTest::newRow("list") << QByteArray("[1]") << QByteArray("“kind”");
        QTest::newRow("no size") << QByteArray(R"({"kind":"linear","kerf":0,"stock":[{"length":9,"price":1}],
            "pieces":[{"id":"a","length":0}]})")
                                 << QByteArray("Piece “a” has no size");
        QTest::newRow("negative kerf") << QByteArray(R"({"kind":"sheet","kerf":-1,"stock":[{"w":9,"h":9,"price":1}],
            "pieces":[{"id":"a","w":1,"h":1}]})")
                                       << QByteArray("Kerf");
        QTest::newRow("twice") << QByteArray(R"({"kind":"linear","kerf":0,"stock":[],
            "pieces":[{"id":"a","length":1},{"id":"a","length":2}]})")
                               << QByteArray("occurs twice");
        QTest::newRow("too large") << QByteArray(R"({"kind":"roll","width":100,"pieces":[
            {"id":"wall","outline":[[0,0],[50,0],[50,300]]}]})")
                                   << QByteArray("“wall” is larger than any stock");
        QTest::newRow("crossing") << QByteArray(R"({"kind":"roll","width":100,"pieces":[
            {"id":"bow","outline":[[0,0],[50,50],[50,0],[0,50]]}]})")
                                  << QByteArray("crosses itself");
        QTest::newRow("point") << QByteArray(R"({"kind":"roll","width":100,"pieces":[
            {"id":"bow","outline":[[0,0],[50],[50,0]]}]})")
                               << QByteArray("is not a point");
    }
    void badInputIsAnsweredByASentence() {
        QFETCH(const QByteArray, instance);
        QFETCH(const QByteArray, said);
        const Ran ran = cutCommand(instance);
        QCOMPARE(ran.status, 2);
        QVERIFY(ran.out.isEmpty());
        QVERIFY2(ran.err.contains(said), ran.err.constData());
    }

    void tooLittleStockIsStatusOne() {
        const Ran ran = cutCommand(R"({"kind":"linear","kerf":0,"stock":[{"length":1000,"price":1,"count":1}],
            "pieces":[{"id":"a","length":600,"count":2}]})");
        QCOMPARE(ran.status, 1);
        QCOMPARE(QJsonDocument::fromJson(ran.out).object()[QLatin1String("unplaced")].toArray().size(), 1);
    }

    void whatWeAddToTheFormatIsRead() {
        const auto linear = readCutting(R"({"kind":"linear","kerf":2,"end_trim":5,
            "stock":[{"length":1000,"price":1,"count":4}],"pieces":[{"id":"a","length":600}]})");
        QVERIFY(linear.has_value());
        QCOMPARE(std::get<LengthsProblem>(linear.value().problem),
                 (LengthsProblem{.kerfMm = 2, .endTrimMm = 5, .stock = {{1000, 1, 4}}, .pieces = {{600, 1}}}));
        const auto roll = readCutting(R"({"kind":"roll","width":900,"repeat":{"along":320,"across":0,"phase":[10,0]},
            "forbidden":[[[0,0],[0,9],[9,9]]],"pieces":[{"id":"a","outline":[[0,0],[9,0],[9,9]],"group":3}]})");
        QVERIFY(roll.has_value());
        const auto& shapes = std::get<ShapesProblem>(roll.value().problem);
        QCOMPARE(shapes.repeat, (PatternRepeat{.alongMm = 320, .phase = {10, 0}}));
        QCOMPARE(shapes.pieces[0].group, 3);
        QVERIFY(signedArea(shapes.forbidden[0].rings[0]) > 0);
    }

    void everyFaultHasItsSentence() {
        for (int kind = 0; kind <= int(CuttingFault::LockedDoesNotFit); ++kind)
            QVERIFY(sentence(CuttingFaultAt{CuttingFault(kind), 0}, {"shelf"}).size() > 15);
    }

    void theBenchmarksInstancesAreRead() {
        const QDir folder(QStringLiteral(WESTRUM_SOURCE_DIR "/benchmarks/cutting"));
        const QStringList names = folder.entryList({QStringLiteral("*-*.json")});
        QVERIFY(names.size() >= 12);
        for (const QString& name : names) {
            QFile file(folder.filePath(name));
            QVERIFY(file.open(QIODevice::ReadOnly));
            const auto instance = readCutting(file.readAll());
            QVERIFY2(instance.has_value() && faultsOf(instance.value()).empty(), qPrintable(name));
        }
    }
};

WESTRUM_TEST(CutCommandTest)
#include "cut_command_test.moc"
