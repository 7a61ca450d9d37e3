#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/autosave.h"
#include "app/document/commands.h"
#include "formats/demo.h"
#include "tests/support/demo_floor.h"
#include "tests/support/registry.h"

#include <QDir>
#include <QProcess>
#include <QTemporaryDir>

using namespace westrum;

namespace {
qsizetype copiesIn(const QString& folder) { return QDir(folder).entryList({QStringLiteral("*.autosave")}).size(); }
} // namespace

class AutosaveTest : public QObject {
    Q_OBJECT
private slots:
    void unsavedWorkIsCopiedAndSavedWorkIsNot() {
        QTemporaryDir dir;
        const QString folder = dir.filePath(QStringLiteral("autosave"));
        JobDocument d;
        Autosave autosave(d, folder);
        d.open(test::demoFloor(), {});
        autosave.writeNow();
        QCOMPARE(copiesIn(folder), 0);
        push(d, moveStartLine(d, "floor", {14}, 1));
        QVERIFY(QTest::qWaitFor([&] { return copiesIn(folder) == 1; }, 5000)); // by itself, soon
        QVERIFY(Autosave::leftBehind(folder).empty());                         // its owner lives
        QVERIFY(!d.saveTo(dir.filePath(QStringLiteral("a.westrum"))));
        autosave.writeNow();
        QCOMPARE(copiesIn(folder), 0);
    }

    void anOrdinaryEndLeavesNothing() {
        QTemporaryDir dir;
        {
            JobDocument d;
            Autosave autosave(d, dir.path());
            d.open(test::demoFloor(), {});
            push(d, moveStartLine(d, "floor", {14}, 1));
            autosave.writeNow();
            QCOMPARE(copiesIn(dir.path()), 1);
        }
        QCOMPARE(copiesIn(dir.path()), 0);
    }

    void workOfAKilledProgramIsFoundAgain() {
        QTemporaryDir dir;
        QProcess victim;
        victim.start(QStringLiteral(WESTRUM_BINARY_DIR "/autosave-victim"), {dir.path()});
        QVERIFY(victim.waitForReadyRead(20000));
        QVERIFY(Autosave::leftBehind(dir.path()).empty()); // still running
        victim.kill();                                     // as hard as it gets
        QVERIFY(victim.waitForFinished());
        const auto found = Autosave::leftBehind(dir.path());
        QCOMPARE(found.size(), std::size_t{1});
        QCOMPARE(found[0].job.face("floor")->rules.at("startOffset"), 33.0);
        QCOMPARE(found[0].originalPath, QStringLiteral("/somewhere/plover.westrum"));
        Autosave::discard(found[0]);
        QVERIFY(Autosave::leftBehind(dir.path()).empty());
    }

    void aDamagedCopyIsPassedOver() {
        QTemporaryDir dir;
        QFile file(dir.filePath(QStringLiteral("x.autosave")));
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write("AAAA\n{\"format\":");
        file.close();
        QVERIFY(Autosave::leftBehind(dir.path()).empty());
        QVERIFY(file.exists()); // nothing is thrown away that was not understood
    }
};
WESTRUM_TEST(AutosaveTest)

#include "autosave_test.moc"
