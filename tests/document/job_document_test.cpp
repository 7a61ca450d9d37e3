#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/job_document.h"
#include "app/document/shell_commands.h"
#include "formats/demo.h"
#include "tests/support/demo_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"
#include "tests/support/settle.h"

#include <QFile>
#include <QSignalSpy>
#include <QTemporaryDir>

using namespace westrum;
using namespace westrum::test;

class JobDocumentTest : public QObject {
    Q_OBJECT
private slots:
    void thePlanFollowsTheJob() {
        JobDocument d;
        d.open(demoFloor(), {});
        QVERIFY(settle(d));
        QVERIFY(d.plan()->surfaces[0].setOut() == plan(d.job()).surfaces[0].setOut());
        push(d, moveStartLine(d, "floor", {14}, 1));
        QVERIFY(settle(d));
        QCOMPARE(d.plan()->surfaces[0].setOut().startOffset.value, 14.0);
        QVERIFY(d.plan()->surfaces[0].setOut() == plan(d.job()).surfaces[0].setOut());
        QVERIFY(!d.starts()->choices.empty());
    }

    void theNewestRequestWins() {
        JobDocument d;
        d.open(demoFloor(), {});
        for (int offset = 0; offset < 120; ++offset) push(d, moveStartLine(d, "floor", {double(offset)}, offset));
        QVERIFY(settle(d));
        QCOMPARE(d.plan()->surfaces[0].setOut().startOffset.value, 119.0);
    }

    void aMovedStartLineKeepsTheStripAChangedFloorDoesNot() {
        JobDocument d;
        d.open(demoFloor(), {});
        QVERIFY(settle(d));
        const auto before = d.starts();
        push(d, moveStartLine(d, "floor", {14}, 1));
        QVERIFY(!d.starts()->choices.empty());
        QVERIFY(settle(d));
        QCOMPARE(d.starts().get(), before.get());
        push(d, takeReading(d, "floor", "BC", mm(1700)));
        QVERIFY(settle(d));
        QVERIFY(d.starts().get() != before.get());
    }

    void changesAreToldByPart() {
        JobDocument d;
        d.open(demoFloor(), {});
        QVERIFY(settlePlan(d)); // a step is written into the record with the minutes that were planned for it
        std::vector<JobPart> parts;
        connect(&d, &JobDocument::jobChanged, this, [&](JobPart part) { parts.push_back(part); });
        push(d, moveStartLine(d, "floor", {14}, 1));
        push(d, tickStep(d, "floor", "base", true));
        push(d, setPackPrice(d, "heron-oak", std::nullopt));
        QVERIFY((parts == std::vector<JobPart>{JobPart::Finish, JobPart::Log, JobPart::Log, JobPart::Catalogue}));
    }

    void undoReachesAcrossASave() {
        QTemporaryDir dir;
        const QString path = dir.filePath(QStringLiteral("a.westrum"));
        JobDocument d;
        d.open(demoFloor(), {});
        push(d, moveStartLine(d, "floor", {14}, 1));
        QVERIFY(!d.saveTo(path));
        QVERIFY(!d.isModified());
        QCOMPARE(d.path(), path);
        d.undoStack().undo();
        QVERIFY(d.isModified());
        QVERIFY(d.job() == demoFloor());
        d.undoStack().redo();
        QVERIFY(!d.isModified());
        JobDocument other;
        QVERIFY(!other.openFile(path));
        QVERIFY(other.job() == d.job());
    }

    void aBadFileLeavesTheOpenJobUntouched() {
        QTemporaryDir dir;
        const QString path = dir.filePath(QStringLiteral("bad.westrum"));
        QFile file(path);
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write("{\"format\":\"westrum-job\",\"version\":9}");
        file.close();
        JobDocument d;
        d.open(demoFloor(), {});
        push(d, moveStartLine(d, "floor", {14}, 1));
        const Job before = d.job();
        const auto faults = d.openFile(path);
        QVERIFY(faults && faults->front().kind == FileFaultKind::UnknownVersion);
        QVERIFY(d.job() == before);
        QCOMPARE(d.undoStack().count(), 1);
        QVERIFY(d.path().isEmpty());
    }

    void aFailedSaveStaysUnsaved() {
        JobDocument d;
        d.open(demoFloor(), {});
        push(d, moveStartLine(d, "floor", {14}, 1));
        QVERIFY(d.saveTo(QStringLiteral("/no/such/folder/a.westrum")));
        QVERIFY(d.isModified());
        QVERIFY(d.path().isEmpty());
    }
};
WESTRUM_TEST(JobDocumentTest)

#include "job_document_test.moc"
