#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/cut_problems.h"
#include "formats/csv.h"
#include "formats/demo.h"
#include "formats/plan_file.h"
#include "tests/support/demo_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>

using namespace westrum;
using namespace westrum::test;

class PlanFileTest : public QObject {
    Q_OBJECT
private slots:
    void cellsThatASpreadsheetWouldRunAreMadeHarmless() {
        QCOMPARE(csvCell(QStringLiteral("Oak")), QByteArray("Oak"));
        for (const char* bad : {"=1+1", "+1", "-1", "@SUM(A1)", "\t=1", "\r=1", "  =1", "|calc", "%0A",
                                "\xEF\xBC\x9D"
                                "1"})
            QVERIFY2(csvCell(QString::fromUtf8(bad)).contains('\''), bad);
        QCOMPARE(csvCell(QStringLiteral("=HYPERLINK(\"x\",\"y\")")),
                 QByteArray("\"'=HYPERLINK(\"\"x\"\",\"\"y\"\")\""));
        QCOMPARE(csvCell(QStringLiteral("a,b")), QByteArray("\"a,b\""));
        QCOMPARE(csvCell(QStringLiteral("a\nb")), QByteArray("\"a\nb\""));
        QCOMPARE(csvCell(QString()), QByteArray());
        QCOMPARE(csvNumber(-1.5, 2), QByteArray("-1.5")); // a real number is no formula
    }

    void aHostileProductNameStaysText() {
        Job job = demoFloor();
        job.catalogue.products[0].name = "=cmd|'/c calc'!A1";
        const QByteArray csv = shoppingListAsCsv(job, plan(job));
        QVERIFY(csv.contains("'=cmd|"));
        QVERIFY(!csv.contains("\n=cmd"));
    }

    void theListsHaveALineForEach() {
        const Job job = demoFloor();
        const Plan p = plan(job);
        const auto lines = [](const QByteArray& csv) { return csv.count("\r\n"); };
        QCOMPARE(lines(shoppingListAsCsv(job, p)), static_cast<qsizetype>(p.purchases.size()) + 1);
        QCOMPARE(lines(cutListAsCsv(job, p)), static_cast<qsizetype>(p.surfaces[0].setOut().pieces.size()) + 1);
        // Planks are seen: of one lot, none of them to spare, and what is left of them is whole.
        QVERIFY(shoppingListAsCsv(job, withCuts(p, job, {})).contains(",0,yes,0\r\n"));
        const auto columns = [](const QByteArray& line) { return line.count(','); };
        const auto all = cutListAsCsv(job, p).split('\n');
        for (const QByteArray& line : all)
            if (!line.isEmpty()) QCOMPARE(columns(line), columns(all[0]));
    }

    void theJsonAgreesWithThePlan() {
        const Job job = demoFloor();
        const Plan p = plan(job);
        const QJsonObject root = QJsonDocument::fromJson(planAsJson(job, p)).object();
        QCOMPARE(root[QStringLiteral("format")].toString(), QStringLiteral("westrum-plan"));
        const QJsonObject floor = root[QStringLiteral("surfaces")].toArray()[0].toObject();
        const QJsonObject setOut =
            floor[QStringLiteral("layers")].toArray().last().toObject()[QStringLiteral("setOut")].toObject();
        QCOMPARE(setOut[QStringLiteral("pieces")].toArray().size(),
                 static_cast<qsizetype>(p.surfaces[0].setOut().pieces.size()));
        QCOMPARE(setOut[QStringLiteral("planks")].toArray().size(),
                 static_cast<qsizetype>(p.surfaces[0].setOut().stock.size()));
        QCOMPARE(root[QStringLiteral("totals")].toObject()[QStringLiteral("costMinor")].toInteger(),
                 p.totals.cost->minor);
        // Lengths along each row add up to the rows' runs: pieces of row 4 fill the floor's length less two gaps.
        double row = 0;
        for (const QJsonValue& v : setOut[QStringLiteral("pieces")].toArray())
            if (v.toObject()[QStringLiteral("row")].toInt() == 4)
                row += v.toObject()[QStringLiteral("lengthMm")].toDouble();
        QVERIFY(row > 3600 && row < 3641);
        QCOMPARE(planAsJson(job, plan(job)), planAsJson(job, p));
    }

    void sharesAndAxlesAreTold() {
        const Job job = demoJob();
        const QJsonObject root = QJsonDocument::fromJson(planAsJson(job, plan(job))).object();
        for (const auto& value : root[QStringLiteral("purchases")].toArray()) {
            const QJsonObject p = value.toObject();
            double sum = 0;
            for (const auto& share : p[QStringLiteral("shares")].toArray())
                sum += share.toObject()[QStringLiteral("costMinor")].toDouble();
            QCOMPARE(sum, p[QStringLiteral("costMinor")].toDouble());
        }
        const QJsonObject axles = root[QStringLiteral("axles")].toObject();
        const double added =
            axles[QStringLiteral("frontAddedKg")].toDouble() + axles[QStringLiteral("rearAddedKg")].toDouble();
        QVERIFY(std::abs(added - root[QStringLiteral("totals")].toObject()[QStringLiteral("laidKg")].toDouble()) < 0.1);
    }

    void softPiecesTrimsAndSeatsAreTold() {
        const Job job = demoJob();
        const Plan p = plan(job);
        const QJsonObject root = QJsonDocument::fromJson(planAsJson(job, p)).object();
        const QJsonArray trims = root[QStringLiteral("trims")].toArray();
        QCOMPARE(trims.size(), static_cast<qsizetype>(p.trims.runs.size()));
        for (qsizetype i = 0; i < trims.size(); ++i) {
            const TrimRun& run = p.trims.runs[static_cast<std::size_t>(i)];
            const QJsonObject told = trims[i].toObject();
            QCOMPARE(told[QStringLiteral("product")].toString().toStdString(), run.product);
            double length = 0; // as cut: no shorter than the edge but for blocks and butts
            for (const QJsonValue& piece : told[QStringLiteral("pieces")].toArray())
                length += piece.toObject()[QStringLiteral("lengthMm")].toDouble();
            QVERIFY(length > 0.9 * run.length.value);
        }
        QCOMPARE(root[QStringLiteral("seats")].toArray().size(), 2);
        // A lining says how it is cut, larger than what it covers.
        for (const QJsonValue& v : root[QStringLiteral("surfaces")].toArray()) {
            const QJsonObject surface = v.toObject();
            if (surface[QStringLiteral("id")].toString() != QStringLiteral("left-lower")) continue;
            const QJsonArray pieces = surface[QStringLiteral("layers")]
                                          .toArray()
                                          .last()
                                          .toObject()[QStringLiteral("setOut")]
                                          .toObject()[QStringLiteral("pieces")]
                                          .toArray();
            QCOMPARE(pieces.size(), 2);
            for (const QJsonValue& piece : pieces)
                QVERIFY(!piece.toObject()[QStringLiteral("cut")].toArray().isEmpty());
        }
        const QString text = planAsText(job, p, figuresFor(job));
        QVERIFY(text.contains(QStringLiteral("Edges")) && text.contains(QStringLiteral("coped, inside corner")));
        QVERIFY(!text.contains(QStringLiteral("(s)")));
    }

    void theTextNamesWhatToBuy() {
        const Job job = demoFloor();
        const QString text = planAsText(job, plan(job), figuresFor(job));
        QVERIFY(text.contains(QStringLiteral("Plover")));
        QVERIFY(text.contains(QStringLiteral("3 packs")));
        QVERIFY(text.contains(QStringLiteral("1 roll")));
        QVERIFY(!text.contains(QStringLiteral("(s)")));
        Job empty = demoFloor();
        empty.surfaces[0].measurement = {};
        QVERIFY(planAsText(empty, plan(empty), figuresFor(empty)).contains(QStringLiteral("not measured")));
    }
};
WESTRUM_TEST(PlanFileTest)

#include "plan_file_test.moc"
