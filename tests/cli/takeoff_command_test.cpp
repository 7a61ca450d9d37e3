#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "formats/demo.h"
#include "formats/job_file.h"
#include "tests/support/registry.h"

#include <QFile>
#include <QJsonDocument>
#include <QProcess>
#include <QTemporaryDir>

using namespace westrum;

namespace {

struct Ran {
    int status;
    QByteArray out, err;
};

Ran run(const QString& program, const QStringList& arguments) {
    QProcess process;
    process.start(QStringLiteral(WESTRUM_BINARY_DIR "/") + program, arguments);
    process.waitForFinished(60000);
    return {process.exitStatus() == QProcess::NormalExit ? process.exitCode() : -1, process.readAllStandardOutput(),
            process.readAllStandardError()};
}

Ran takeoff(const QStringList& arguments) { return run(QStringLiteral("westrum-takeoff"), arguments); }

} // namespace

class TakeoffCommandTest : public QObject {
    Q_OBJECT
    QTemporaryDir dir_;

    QString saved(const Job& job) {
        const QString path = dir_.filePath(QStringLiteral("job.westrum"));
        (void)saveJobFile(job, path);
        return path;
    }
    QString written(const QByteArray& bytes) {
        const QString path = dir_.filePath(QStringLiteral("raw.westrum"));
        QFile file(path);
        if (file.open(QIODevice::WriteOnly)) file.write(bytes);
        return path;
    }

private slots:
    void planned() {
        // The example's one reading error set right: nothing but warnings and notes is left.
        Job sound = demoJob();
        sound.surface("bulkhead")->measurement.readings[4]->length = {2558};
        const QString path = saved(sound);
        const Ran text = takeoff({path});
        QCOMPARE(text.status, 0);
        QVERIFY(text.out.contains("Plover") && text.out.contains("To buy"));
        QVERIFY(text.err.isEmpty());
        const Ran json = takeoff({path, QStringLiteral("--json")});
        QCOMPARE(json.status, 0);
        QVERIFY(QJsonDocument::fromJson(json.out).isObject());
        // What is cut is bought too, and the same search gives the same list.
        const QStringList list{QStringLiteral("--csv"), path, QStringLiteral("--iterations"), QStringLiteral("20")};
        const Ran csv = takeoff(list);
        QVERIFY(csv.out.startsWith("product,"));
        QVERIFY(csv.out.contains("Siskin larch board 88") && csv.out.contains("Thrush stretch lining"));
        QCOMPARE(takeoff(list).out, csv.out);
        QCOMPARE(takeoff({path, QStringLiteral("--iterations"), QStringLiteral("none")}).status, 2);
        QVERIFY(takeoff({path, QStringLiteral("--cuts")}).out.startsWith("surface,"));
    }

    void errorsAmongTheRemarksAreStatusOne() {
        QCOMPARE(takeoff({saved(demoJob())}).status, 1); // its bulkhead has a diagonal to be taken again
        Job job = demoJob();
        job.surfaces[0].measurement.readings[0]->length = {0};
        const Ran ran = takeoff({saved(job)});
        QCOMPARE(ran.status, 1);
        QVERIFY(ran.out.contains("Take it again"));
    }

    void whatCannotBeReadIsStatusTwoWithASentence() {
        for (const QByteArray& bytes : {QByteArray(), QByteArray("{"), QByteArray("{}"), QByteArray("[[[[")}) {
            const Ran ran = takeoff({written(bytes)});
            QCOMPARE(ran.status, 2);
            QVERIFY(ran.out.isEmpty());
            QVERIFY(ran.err.trimmed().endsWith('.'));
        }
        QCOMPARE(takeoff({QStringLiteral("/no/such/file")}).status, 2);
        QCOMPARE(takeoff({}).status, 2);
        QCOMPARE(takeoff({QStringLiteral("--nonsense"), saved(demoJob())}).status, 2);
        QCOMPARE(takeoff({QStringLiteral("--json"), QStringLiteral("--csv"), saved(demoJob())}).status, 2);
        QCOMPARE(takeoff({QStringLiteral("--help")}).status, 0);
        QCOMPARE(takeoff({QStringLiteral("--version")}).status, 0);
    }

    void theReferenceProgramTellsAgreementFromDisagreement() {
        // 3-4-5: sides 4 m and 3 m, diagonal 5 m, 12 m2.
        const auto caseWith = [](const char* area) {
            return QByteArray("{\"cases\":[{\"id\":\"q\",\"topic\":\"quad_from_sides\",\"inputs\":{\"AB\":4000,\"BC\":"
                              "3000,\"CD\":4000,\"DA\":3000,\"AC\":5000},"
                              "\"expect\":{\"area_m2\":") +
                   area + "},\"tolerance\":{\"abs\":0.001}}]}";
        };
        const QString program = QStringLiteral("westrum-reference");
        QCOMPARE(run(program, {written(caseWith("12"))}).status, 0);
        const Ran wrong = run(program, {written(caseWith("12.5"))});
        QCOMPARE(wrong.status, 1);
        QVERIFY(wrong.out.contains("DISAGREES"));
        // Nothing run is no success, and a topic not built is named.
        const Ran none =
            run(program, {written("{\"cases\":[{\"id\":\"x\",\"topic\":\"sewing\",\"inputs\":{},\"expect\":{}}]}")});
        QCOMPARE(none.status, 1);
        QVERIFY(none.out.contains("skipped: sewing"));
        QCOMPARE(run(program, {written("no json")}).status, 2);
        QCOMPARE(run(program, {}).status, 2);
    }
};
WESTRUM_TEST(TakeoffCommandTest)

#include "takeoff_command_test.moc"
