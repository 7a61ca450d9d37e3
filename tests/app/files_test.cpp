#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/autosave.h"
#include "app/print/paper.h"
#include "tests/app/bench.h"
#include "tests/support/demo_floor.h"
#include "tests/support/registry.h"

#include <QMenu>
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
            QVERIFY(plain(b.window->notice()).contains(QStringLiteral("bad.westrum was not opened")));
            QVERIFY(plain(b.window->notice()).contains(QStringLiteral("stays as it was")));
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
        QVERIFY(plain(b.window->notice()).isEmpty());
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
        document.open(newJob("New van", "Floor", starterCatalogue(), Currency{}), {});
        MainWindow window(document, dir.path());
        QVERIFY(plain(window.notice()).contains(QStringLiteral("Plover")));
        QCOMPARE(document.job().face("floor")->rules.at("startOffset"), 33.0);
        QVERIFY(document.isModified()); // until it is saved
    }

    void everyCopyStaysUntilItIsSavedOrThrownAwayByName() {
        QTemporaryDir dir;
        for (const char* offset : {"33", "44"}) {
            QProcess victim;
            victim.start(QStringLiteral(WESTRUM_BINARY_DIR "/autosave-victim"), {dir.path(), QLatin1String(offset)});
            QVERIFY(victim.waitForReadyRead(20000));
            victim.kill();
            QVERIFY(victim.waitForFinished());
        }
        const auto left = [&] { return Autosave::leftBehind(dir.path()).size(); };
        QCOMPARE(left(), std::size_t{2});
        const auto entry = [](MainWindow& window, const QString& start) -> QAction* {
            for (QAction* a : window.findChild<QPushButton*>(QStringLiteral("copies"))->menu()->actions())
                if (plain(a->text()).startsWith(start)) return a;
            return nullptr;
        };
        {
            // Something else was asked for: it is opened, and the copies are offered beside it.
            JobDocument document;
            document.open(newJob("Asked for", "Floor", starterCatalogue(), Currency{}), {});
            MainWindow window(document, dir.path(), MainWindow::LeftBehind::Offer);
            QCOMPARE(document.job().name, std::string("Asked for"));
            QVERIFY(plain(window.notice()).contains(QStringLiteral("2 jobs")));
            entry(window, QStringLiteral("Open"))->trigger();
            QCOMPARE(document.job().name, std::string("Plover"));
            QVERIFY(document.isModified());
        }
        QCOMPARE(left(), std::size_t{2}); // looked at, not saved: both are there
        {
            JobDocument document;
            document.open(newJob("New van", "Floor", starterCatalogue(), Currency{}), {});
            MainWindow window(document, dir.path());
            const double newest = document.job().face("floor")->rules.at("startOffset");
            QCOMPARE(newest, 44.0);
            entry(window, QStringLiteral("Throw"))->trigger(); // the first is the one that is open
            QCOMPARE(document.job().name, std::string("New van"));
            QVERIFY(plain(window.notice()).contains(QStringLiteral("1 job")));
        }
        QCOMPARE(left(), std::size_t{1});
        {
            JobDocument document;
            document.open(newJob("New van", "Floor", starterCatalogue(), Currency{}), {});
            MainWindow window(document, dir.path());
            QCOMPARE(document.job().face("floor")->rules.at("startOffset"), 33.0);
            QVERIFY(!document.saveTo(dir.filePath(QStringLiteral("kept.westrum"))));
            QTest::keyClick(&window, Qt::Key_S, Qt::ControlModifier);
            QVERIFY(plain(window.notice()).isEmpty());
        }
        QCOMPARE(left(), std::size_t{0});
    }

    void paperIsThatOfTheCountryUntilAnotherIsChosen() {
        QCOMPARE(usualPaper(QLocale(QStringLiteral("en_US"))), QPageSize::Letter);
        QCOMPARE(usualPaper(QLocale(QStringLiteral("de_DE"))), QPageSize::A4);
        QTemporaryDir dir;
        const auto heightOf = [&](QPageSize::PageSizeId size) {
            choosePaper(size);
            double high = 0;
            const QString path = dir.filePath(QStringLiteral("x.pdf"));
            const QString fault = savePdf(path, QStringLiteral("x"), QMarginsF(10, 10, 10, 10),
                                          [&](QPainter&, const QRectF& page, const auto&) { high = page.height(); });
            return fault.isEmpty() ? high : 0.0;
        };
        // In 96ths of an inch: A4 297 - 20 mm, Letter 279.4 - 20 mm.
        QVERIFY(std::abs(heightOf(QPageSize::A4) - 277 / 25.4 * 96) < 2);
        QVERIFY(std::abs(heightOf(QPageSize::Letter) - 259.4 / 25.4 * 96) < 2);
        choosePaper(QPageSize::A4);
    }

    void everyStageFitsASmallScreen() {
        Bench b(demoJob());
        b.window->resize(1100, 640);
        for (const char* surface : {"floor", "left-lower", "wet-cell-2", "bench-top"})
            for (int stage = 0; stage <= MainWindow::Log; ++stage) {
                b.document.setCurrentSurface(surface);
                b.go(static_cast<MainWindow::Stage>(stage));
                QVERIFY(settle(b.document));
                QCoreApplication::processEvents();
                QVERIFY2(b.window->width() <= 1100 && b.window->height() <= 640,
                         qPrintable(QStringLiteral("%1, stage %2: %3 x %4")
                                        .arg(QLatin1String(surface))
                                        .arg(stage + 1)
                                        .arg(b.window->width())
                                        .arg(b.window->height())));
            }
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
