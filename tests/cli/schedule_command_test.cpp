#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "tests/support/registry.h"

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

Ran schedule(const QByteArray& instance,
             const QStringList& arguments = {QStringLiteral("--iterations"), QStringLiteral("500")}) {
    QProcess process;
    process.start(QStringLiteral(WESTRUM_BINARY_DIR "/westrum-schedule"), QStringList{QStringLiteral("-")} + arguments);
    process.write(instance);
    process.closeWriteChannel();
    process.waitForFinished(60000);
    return {process.exitStatus() == QProcess::NormalExit ? process.exitCode() : -1, process.readAllStandardOutput(),
            process.readAllStandardError()};
}

const QByteArray kWork = R"({"vanHolds": 2, "windows": [
    {"start": 540, "end": 1020, "people": 2, "dry": true, "light": true, "degC": 14},
    {"start": 1980, "end": 2460, "people": 1, "dry": false, "light": true, "degC": 9},
    {"start": 3420, "end": 3900, "people": 2, "dry": true, "light": true, "degC": 16}],
   "tasks": [{"id": "cut", "minutes": 240, "hands": 1, "place": "yard", "dry": true, "light": true},
             {"id": "glue", "minutes": 90, "hands": 2, "place": "van", "minC": 15, "fumes": 120},
             {"id": "trim", "minutes": 60, "hands": 1, "place": "van", "split": true}],
   "before": [{"first": "cut", "then": "glue"}, {"first": "glue", "then": "trim", "wait": 60}]})";

} // namespace

class ScheduleCommandTest : public QObject {
    Q_OBJECT
private slots:
    void workIsPlannedAndItsFinishProved() {
        // Cut on the first dry day; glue where it is 15 degrees, on the third, 3420 to 3510; nobody inside for two
        // hours after it: trimmed from 3630 to 3690. Nothing can end sooner.
        const Ran ran = schedule(kWork);
        QCOMPARE(ran.status, 0);
        QVERIFY(ran.err.isEmpty());
        const QJsonObject answer = QJsonDocument::fromJson(ran.out).object();
        QCOMPARE(answer[QLatin1String("finish")].toInt(), 3690);
        const QJsonArray tasks = answer[QLatin1String("tasks")].toArray();
        QCOMPARE(tasks[1].toObject()[QLatin1String("parts")].toArray()[0].toArray()[0].toInt(), 3420);
        QVERIFY(answer[QLatin1String("bound")].toInt() <= 3690 && answer[QLatin1String("bound")].toInt() >= 3630);
        QCOMPARE(schedule(kWork).out, ran.out); // the same bytes
    }

    void whatCannotBePlacedIsSaidAndTheRestIsPlanned() {
        QByteArray cold = kWork;
        cold.replace("\"minC\": 15", "\"minC\": 25");
        const Ran ran = schedule(cold);
        QCOMPARE(ran.status, 1);
        QVERIFY(ran.err.contains("glue") && ran.err.contains("temperatures"));
        QVERIFY(ran.err.contains("trim"));
        const QJsonArray tasks = QJsonDocument::fromJson(ran.out).object()[QLatin1String("tasks")].toArray();
        QCOMPARE(tasks[0].toObject()[QLatin1String("parts")].toArray().size(), 1);
        QVERIFY(tasks[1].toObject()[QLatin1String("parts")].toArray().isEmpty());
    }

    void nonsenseIsRefusedInASentence() {
        for (const QByteArray& bad :
             {QByteArray("nonsense"), QByteArray("[]"), QByteArray(R"({"windows": [], "tasks": [{"id": "a"}]})"),
              QByteArray(kWork).replace("\"first\": \"cut\"", "\"first\": \"gone\""),
              QByteArray(kWork).replace("\"start\": 1980", "\"start\": 600"),
              QByteArray(kWork).replace("\"id\": \"glue\"", "\"id\": \"cut\""),
              QByteArray(kWork).replace("\"minutes\": 90", "\"minutes\": -5"),
              QByteArray(kWork).replace("\"place\": \"yard\"", "\"place\": \"moon\"")}) {
            const Ran ran = schedule(bad);
            QCOMPARE(ran.status, 2);
            QVERIFY(ran.err.startsWith("westrum-schedule: ") && ran.out.isEmpty());
        }
        QCOMPARE(schedule(kWork, {QStringLiteral("--seconds"), QStringLiteral("soon")}).status, 2);
        QCOMPARE(schedule(kWork, {QStringLiteral("--iterations"), QStringLiteral("-1")}).status, 2);
    }
};

WESTRUM_TEST(ScheduleCommandTest)

#include "schedule_command_test.moc"
