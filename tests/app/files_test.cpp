#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/autosave.h"
#include "tests/app/bench.h"
#include "tests/support/demo_floor.h"
#include "tests/support/registry.h"

#include <QMessageBox>
#include <QProcess>

using namespace westrum;
using namespace westrum::test;

class FilesTest : public QObject {
    Q_OBJECT
private slots:
    void aBadFileIsRefusedInASentenceAndNothingIsLost() {
        Bench b(demoFloor());
        const Job before = b.document.job();
        const QString path = b.folder.filePath(QStringLiteral("bad.westrum"));
        for (const QByteArray& bytes : {QByteArray(), QByteArray("{\"format\":"), QByteArray(5000, '['),
                                        QByteArray("{\"format\":\"westrum-job\",\"version\":7}")}) {
            QFile file(path);
            QVERIFY(file.open(QIODevice::WriteOnly));
            file.write(bytes);
            file.close();
            QVERIFY(!b.window->openFile(path));
            QVERIFY(b.window->notice().contains(QStringLiteral("bad.westrum was not opened")));
            QVERIFY(b.window->notice().contains(QStringLiteral("stays as it was")));
            QVERIFY(b.document.job() == before);
        }
    }

    void savedAndOpenedAgain() {
        Bench b(demoFloor());
        push(b.document, moveStartLine(b.document, "floor", {14}, 1));
        const QString path = b.folder.filePath(QStringLiteral("good.westrum"));
        QVERIFY(!b.document.saveTo(path));
        QTest::keyClick(b.window.get(), Qt::Key_Z, Qt::ControlModifier);
        QTest::keyClick(b.window.get(), Qt::Key_S, Qt::ControlModifier); // saves over it, undone
        QVERIFY(readJobFile(path).value() == demoFloor());
        QVERIFY(b.window->openFile(path));
        QVERIFY(b.window->notice().isEmpty());
        QVERIFY(!b.document.isModified());
    }

    void workOfAKilledProgramIsOfferedAgain() {
        QTemporaryDir dir;
        QProcess victim;
        victim.start(QStringLiteral(WESTRUM_BINARY_DIR "/autosave-victim"), {dir.path()});
        QVERIFY(victim.waitForReadyRead(20000));
        victim.kill();
        QVERIFY(victim.waitForFinished());
        JobDocument document;
        document.open(newJob("New van", starterCatalogue(), Currency{}), {});
        MainWindow window(document, dir.path());
        QVERIFY(window.notice().contains(QStringLiteral("Plover")));
        QCOMPARE(document.job().face("floor")->rules.at("startOffset"), 33.0);
        QVERIFY(document.isModified()); // until it is saved
    }

    void closingWithUnsavedWorkAsks() {
        Bench b(demoFloor());
        push(b.document, moveStartLine(b.document, "floor", {14}, 1));
        bool asked = false;
        QTimer::singleShot(200, b.window.get(), [&] {
            for (QWidget* w : QApplication::topLevelWidgets())
                if (auto* box = qobject_cast<QMessageBox*>(w)) {
                    asked = true;
                    box->button(QMessageBox::Cancel)->click();
                }
        });
        QVERIFY(!b.window->close());
        QVERIFY(asked);
        QVERIFY(b.window->isVisible());
    }
};
WESTRUM_TEST(FilesTest)

#include "files_test.moc"
