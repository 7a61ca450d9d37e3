#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/record_commands.h"
#include "app/stages/log/log_page.h"
#include "app/stages/measure/body_bar.h"
#include "formats/book_file.h"
#include "tests/app/bench.h"
#include "tests/support/registry.h"

#include <QLineEdit>
#include <QTableView>
#include <QTableWidget>

using namespace westrum;
using namespace westrum::test;
using State = RackPiece::State;

/// The rack, what a job took, photographs, and a van that starts from an earlier body, in the window.
class RackStageTest : public QObject {
    Q_OBJECT
    static LogPage& page(Bench& b) { return *b.window->findChild<LogPage*>(); }
    static State stateOf(Bench& b, const std::string& number) {
        for (const RackPiece& p : b.window->workshop().book().rack)
            if (p.number == number) return p.state;
        return State::Gone;
    }
    static void toRack(Bench& b) {
        (void)settleCuts(b.document);
        b.window->workshop().settle();
        b.go(MainWindow::Log);
        QVERIFY(b.click("logRack"));
    }
    /// A picture of two halves, dark on the left: turned by its mark when it is read.
    static QString photograph(const QString& path, QSize size) {
        QImage image(size, QImage::Format_RGB32);
        image.fill(Qt::white);
        for (int y = 0; y < size.height(); ++y)
            for (int x = 0; x < size.width() / 2; ++x) image.setPixel(x, y, qRgb(20, 20, 20));
        return image.save(path) ? path : QString();
    }

private slots:
    /// The second example has three of nine; a press gives one back, another takes one more; others' are not to be had.
    void offcutsAreTakenAndGivenBack() {
        Bench b(demoSecondJob());
        toRack(b);
        RackBoard& board = page(b).rack().board();
        QCOMPARE(board.cards().size(), std::size_t{9});
        QVERIFY(board.cards()[0].mine && stateOf(b, "R1") == State::Reserved);
        QVERIFY(!board.cards()[0].serves.isEmpty()); // the galley's front fits on it
        QVERIFY(board.cards()[4].serves.isEmpty());  // no vinyl is wanted here
        board.takeInHand(0);
        QVERIFY(b.click("offcutUse"));
        QVERIFY(stateOf(b, "R1") == State::Free);
        QTest::keyClick(b.window.get(), Qt::Key_Z, Qt::ControlModifier);
        b.window->workshop().settle();
        QVERIFY(stateOf(b, "R1") == State::Reserved);
        QTest::keyClick(&board, Qt::Key_Right);
        QTest::keyClick(&board, Qt::Key_Right);
        QTest::keyClick(&board, Qt::Key_Right);
        QCOMPARE(board.inHand()->piece.number, std::string("R4"));
        QVERIFY(b.click("offcutUse"));
        QVERIFY(stateOf(b, "R4") == State::Reserved);
        QCOMPARE(b.document.job().cutList("poplar-ply-12").stock[0].book, std::string("R4"));
        // What is written of it is kept.
        auto* stands = b.find<QLineEdit>("offcutStands");
        stands->setFocus();
        stands->setText(QStringLiteral("by the door"));
        QTest::keyClick(stands, Qt::Key_Return);
        QCOMPARE(b.window->workshop().book().rack[3].stands, std::string("by the door"));
        QVERIFY(inkOn(&board) > 0.05);
    }

    /// By hand: off the rack 1.180 x 0.610 + 0.742 x 0.418 + (1.460 x 0.930 - 0.390 x 0.290) = 2.2746 m2, laid 0.854 x
    /// 0.554 + 0.634 x 0.354 + 0.520 x 1.100 = 1.2696 m2, nothing bought: 79.2 % of it is on no surface.
    void whatComesOffTheRackIsOpenedToo() {
        Bench b(demoSecondJob());
        QVERIFY(settleCuts(b.document));
        QCoreApplication::processEvents();
        QCOMPARE(b.figure("Waste bought").value, QStringLiteral("79.2 %"));
        QVERIFY(std::abs(b.document.plan()->totals.rackArea.value - 2.2746) < 1e-3);
        QVERIFY(std::abs(b.document.plan()->totals.laidArea.value - 1.2696) < 1e-3);
    }

    void theRackIsFiltered() {
        Bench b(demoSecondJob());
        toRack(b);
        RackBoard& board = page(b).rack().board();
        auto* filter = b.find<QComboBox>("rackFilter");
        QCOMPARE(filter->count(), 8); // all, and seven products
        filter->setCurrentIndex(1);
        emit filter->activated(1);
        QVERIFY(board.cards().size() < 9 && !board.cards().empty());
        filter->setCurrentIndex(0);
        emit filter->activated(0);
        QVERIFY(b.click("rackFree"));
        QCOMPARE(board.cards().size(), std::size_t{6});
    }

    void theBookGoesOutAndIn() {
        Bench b(demoSecondJob());
        toRack(b);
        RackView& rack = page(b).rack();
        QTemporaryDir dir;
        const QString json = dir.filePath(QStringLiteral("book.json")), csv = dir.filePath(QStringLiteral("rack.csv")),
                      pdf = dir.filePath(QStringLiteral("labels.pdf"));
        for (const QString& path : {json, csv, pdf}) {
            rack.exportTo(path);
            QVERIFY2(QFileInfo(path).size() > 500, qPrintable(path));
        }
        for (const char* beside : {"rack-packs.csv", "rack-prices.csv", "rack-jobs.csv"})
            QVERIFY(QFileInfo(dir.filePath(QString::fromLatin1(beside))).size() > 50);
        QFile file(json);
        QVERIFY(file.open(QIODevice::ReadOnly));
        QVERIFY(readBook(file.readAll()).value() == b.window->workshop().book());
        rack.importFrom(json); // nothing comes twice
        QCOMPARE(rack.board().cards().size(), std::size_t{9});
        QFile list(dir.filePath(QStringLiteral("more.csv")));
        QVERIFY(list.open(QIODevice::WriteOnly));
        list.write(
            "product;length;width\nDipper birch ply 9;400;300\nSome other board;400;300\nDipper birch ply 9;x;300\n");
        list.close();
        rack.importFrom(list.fileName());
        QCOMPARE(rack.board().cards().size(), std::size_t{10});
        QVERIFY2(b.sentenceShown().contains(QStringLiteral("left out")), qPrintable(b.sentenceShown()));
        rack.importFrom(dir.filePath(QStringLiteral("not there.json")));
        QCOMPARE(rack.board().cards().size(), std::size_t{10});
    }

    /// A tin that goes off within a month is told in pencil; used up, it leaves the shelf; nonsense is refused.
    void theShelfIsKept() {
        Bench b(demoSecondJob());
        b.document.setNow(demoUnderWayNow());
        toRack(b);
        page(b).rack().show(figuresFor(b.document.job()));
        auto* shelf = b.find<QTableWidget>("shelf");
        QCOMPARE(shelf->rowCount(), 3);
        QVERIFY(!shelf->item(2, 0)->toolTip().isEmpty() && shelf->item(0, 0)->toolTip().isEmpty());
        shelf->item(0, 4)->setText(QStringLiteral("soon"));
        QCOMPARE(b.window->workshop().book().packs[0].goesOff, std::optional(CivilDate{2027, 9, 30}));
        QCOMPARE(shelf->item(0, 4)->text(), QStringLiteral("2027-09-30"));
        shelf->item(0, 4)->setText(QStringLiteral("2027-08-01"));
        QCOMPARE(b.window->workshop().book().packs[0].goesOff, std::optional(CivilDate{2027, 8, 1}));
        shelf->item(1, 2)->setText(QStringLiteral("0"));
        QCOMPARE(shelf->rowCount(), 2);
    }

    /// Half a tin stands on the shelf: used, the line buys less or as much and says what comes off it, the shelf says
    /// whose it is; left again, all is as before.
    void whatIsOnTheShelfIsUsed() {
        Bench b(demoJob());
        QVERIFY(settleCuts(b.document));
        b.go(MainWindow::Buy);
        auto* list = b.find<QTableView>("shoppingList");
        int row = 0;
        while (row < list->model()->rowCount() && !b.text("bookText").contains(QStringLiteral("0.5 on the shelf")))
            list->selectRow(row++);
        const auto line = [&] {
            for (const Purchase& p : b.document.plan()->purchases)
                if (!b.document.job().shelf.empty() && p.product == b.document.job().shelf[0].product) return p;
            return Purchase{};
        };
        QVERIFY(b.find<QPushButton>("useShelf"));
        const std::int64_t cost = b.document.plan()->totals.cost->minor;
        QVERIFY(b.click("useShelf"));
        QCOMPARE(b.document.job().shelf.size(), std::size_t{1});
        QVERIFY(std::abs(line().shelf - line().amountPerPack / 2) < 1e-9);
        QVERIFY(settleCuts(b.document));
        QVERIFY(b.document.plan()->totals.cost->minor <= cost);
        QVERIFY2(b.text("lineText").contains(QStringLiteral("of it from the shelf")), qPrintable(b.text("lineText")));
        const auto& packs = b.window->workshop().book().packs;
        QVERIFY(std::any_of(packs.begin(), packs.end(),
                            [&](const KeptPack& k) { return k.job == b.window->workshop().jobId(); }));
        QVERIFY(b.click("useShelf"));
        QVERIFY(b.document.job().shelf.empty());
        QVERIFY(settleCuts(b.document));
        QCOMPARE(b.document.plan()->totals.cost->minor, cost);
    }

    /// 2026-08-02, one tin for 27.90: the newest of the prices in the book; half a tin is on the shelf.
    void buyingSaysWhatWasPaidAndWhatIsThere() {
        Bench b(demoJob());
        b.go(MainWindow::Buy);
        auto* list = b.find<QTableView>("shoppingList");
        for (int row = 0; row < list->model()->rowCount(); ++row) {
            list->selectRow(row);
            if (b.text("bookText").contains(QStringLiteral("27.90 EUR each, 2026-08-02"))) break;
        }
        QVERIFY2(b.text("bookText").contains(QStringLiteral("27.90 EUR each, 2026-08-02  ·  0.5 on the shelf")),
                 qPrintable(b.text("bookText")));
    }

    void whatItTookIsShownAndPrinted() {
        Bench b(demoJobUnderWay());
        b.document.setNow(demoUnderWayNow());
        b.go(MainWindow::Log);
        QVERIFY(b.click("logTook"));
        const Took took = tookOf(b.document.job(), *b.document.plan());
        const auto bars = tookBars(b.document.job(), took, figuresFor(b.document.job()));
        QCOMPARE(bars.size(), std::size_t{3}); // hours, money, spoils; it was not weighed
        QVERIFY(bars[0].really == took.hoursReally && bars[0].whole == took.hoursWhole);
        QVERIFY(inkOn(b.find<TookBars>("tookBars")) > 0.05);
        QTemporaryDir dir;
        QVERIFY(page(b).took().exportTo(dir.filePath(QStringLiteral("took.pdf"))).isEmpty());
        QVERIFY(QFileInfo(dir.filePath(QStringLiteral("took.pdf"))).size() > 2000);
        QVERIFY(!page(b).took().exportTo(dir.filePath(QStringLiteral("no/folder.pdf"))).isEmpty());
        const std::size_t jobs = b.window->workshop().book().jobs.size();
        QVERIFY(b.click("tookDone"));
        QVERIFY(b.click("tookDone")); // once more: the same job, its figures anew
        QCOMPARE(b.window->workshop().book().jobs.size(), jobs + 1);
    }

    /// Weighed before and since: 120 kg more on the wheels than before, 115 of it planned by then; both stand as bars.
    void aWeighedVanShowsItsMass() {
        Job job = demoJobUnderWay();
        job.mass.front = 1400;
        job.mass.rear = 1300;
        job.weighings = {{"2027-03-28", 1450, 1370, 115, ""}};
        Bench b(job);
        b.go(MainWindow::Log);
        QVERIFY(b.click("logTook"));
        const auto bars = b.find<TookBars>("tookBars")->bars();
        const auto mass = std::find_if(bars.begin(), bars.end(),
                                       [](const TookBars::Bar& x) { return plain(x.name) == QStringLiteral("Mass"); });
        QVERIFY(mass != bars.end() && mass->planned == 115 && mass->really == 120);
        QVERIFY2(b.labels().contains(QStringLiteral("the van had gained 120.0 kg")), qPrintable(b.labels()));
    }

    /// A van of its own shows nothing of earlier bodies.
    void aVanOfItsOwnAsksForNoChecks() {
        Bench b(demoJob());
        b.go(MainWindow::Measure);
        QVERIFY(b.window->findChild<BodyBar*>() && !b.window->findChild<BodyBar*>()->isVisible());
    }

    /// Kept, chosen, started from; one reading 40 mm longer, and the walls beside it ask to be measured.
    void aVanStartsFromAnEarlierBody() {
        Bench b(demoJobUnderWay());
        b.go(MainWindow::Log);
        QVERIFY(b.click("logTook"));
        QVERIFY(b.click("tookBody"));
        QCOMPARE(b.window->workshop().book().bodies.size(), std::size_t{2});
        b.document.undoStack().setClean();
        b.window->showNewVan(true);
        QVERIFY(b.click("startFromBody"));
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.document.job().before.body, std::string("Plover's body"));
        QVERIFY(!b.document.plan()->surface("floor")->measured.outline.empty());
        const auto checks = b.document.job().before.checks;
        QVERIFY(checks.size() >= 3);
        b.document.setCurrentSurface(checks[0].surface);
        auto* field = b.find<EntryField>("check0");
        QVERIFY(field);
        b.type("check0", "nonsense");
        QVERIFY(field->isWrong() && !b.document.job().before.checks[0].taken);
        QVERIFY(b.type("check0", QByteArray::number(checks[0].before.value + 40).constData()));
        QVERIFY(settlePlan(b.document));
        QVERIFY(b.document.job().before.checks[0].taken);
        QVERIFY(bodyVerdicts(b.document.job().surfaces, b.document.job().before.checks).at(checks[0].surface).verdict ==
                BodyVerdict::Differs);
        QVERIFY2(plain(b.find<QLabel>("bodyVerdict")->text()).contains(QStringLiteral("longer than before")),
                 qPrintable(b.find<QLabel>("bodyVerdict")->text()));
        const MaybeReading* reading = findReading(*b.document.job().surface(checks[0].surface), checks[0].key);
        QVERIFY(reading && *reading && std::abs((*reading)->length.value - checks[0].before.value - 40) < 1e-9);
        QVERIFY(b.click("measuredHere"));
        QVERIFY(!b.document.job().surface(checks[0].surface)->before);
        for (int i = 0; i < 2; ++i) b.document.undoStack().undo();
        QVERIFY(!b.document.job().before.checks[0].taken);
    }

    /// A photograph beside the job, by its relative path; gone, it is told; laid over the wall it was taken of.
    void aPhotographIsKeptAndLaid() {
        QTemporaryDir dir;
        Bench b(demoJob());
        b.document.setNow(demoNow());
        QVERIFY(!b.document.saveTo(dir.filePath(QStringLiteral("job.westrum"))));
        const QString path = photograph(dir.filePath(QStringLiteral("wall.png")), {900, 300});
        QVERIFY(!path.isEmpty());
        b.document.setCurrentSurface("left-upper");
        b.go(MainWindow::Log);
        EntriesView& entries = page(b).entries();
        entries.writePhotograph(path);
        QCOMPARE(b.document.job().record.back().text, std::string("wall.png"));
        entries.list().selectRow(0);
        PhotographPane& pane = entries.photograph();
        QVERIFY(pane.isVisible() && pane.hasPicture());
        QVERIFY(b.click("layPhotograph"));
        QVERIFY(pane.isLaying());
        for (const QPointF& corner : {QPointF(0.1, 0.9), {0.9, 0.9}, {0.9, 0.1}, {0.1, 0.1}})
            QTest::mouseClick(&pane, Qt::LeftButton, {}, pane.onPane(corner).toPoint());
        const RecordEntry laid = b.document.job().record.back();
        QCOMPARE(laid.laid.size(), std::size_t{4});
        // A tenth lies outside on each side: 8 tenths are the wall's own length and height.
        const Bounds wall = boundsOf(outlineOf(b.document.job().surface("left-upper")->measurement).outline);
        QVERIFY(std::abs(laid.laid[1].x - laid.laid[0].x - wall.width() / 0.8) < wall.width() * 0.02);
        QVERIFY(std::abs(laid.laid[2].y - laid.laid[1].y - wall.height() / 0.8) < wall.height() * 0.05);
        QVERIFY(inkOn(&pane) > 0.1);
        b.document.undoStack().undo();
        QVERIFY(b.document.job().record.back().laid.empty());
        QFile::remove(path);
        entries.writePhotograph(path); // it is not there: nothing is written
        QCOMPARE(b.document.job().record.size(), std::size_t{1});
        QFile broken(dir.filePath(QStringLiteral("broken.jpg")));
        QVERIFY(broken.open(QIODevice::WriteOnly));
        broken.write("no picture");
        broken.close();
        entries.writePhotograph(broken.fileName());
        QCOMPARE(b.document.job().record.size(), std::size_t{1});
        // A hundred million pixels are read no larger than they are wanted.
        QImage vast(10000, 10000, QImage::Format_Mono);
        vast.fill(1);
        QVERIFY(vast.save(dir.filePath(QStringLiteral("vast.png"))));
        entries.writePhotograph(dir.filePath(QStringLiteral("vast.png")));
        QCOMPARE(b.document.job().record.size(), std::size_t{2});
        b.document.undoStack().undo();
        RecordEntry gone{.kind = EntryKind::Photograph,
                         .when = {{2027, 3, 14}, 600, 600},
                         .surface = "left-upper",
                         .text = "nowhere.jpg"};
        push(b.document, addEntries(b.document, {gone}));
        entries.list().selectRow(0);
        QVERIFY(!pane.hasPicture() && !pane.why().isEmpty());
    }

    /// 6 mm further in on side b: one press puts it into the reading, and the press is gone.
    void aDifferenceGoesIntoTheReading() {
        Bench b(demoJob());
        b.document.setNow(demoNow());
        b.document.setCurrentSurface("floor");
        b.go(MainWindow::Log);
        auto* kind = b.find<QComboBox>("entryKind");
        kind->setCurrentIndex(kind->findData(static_cast<int>(EntryKind::Difference)));
        auto* reading = b.find<QComboBox>("entryReading");
        reading->setCurrentIndex(reading->findData(QStringLiteral("BC")));
        QTest::keyClicks(b.find<QLineEdit>("entryAmount"), QStringLiteral("-6"));
        QTest::keyClicks(b.find<QLineEdit>("entryText"), QStringLiteral("at the pillar"));
        const Mm before = (*findReading(*b.document.job().surface("floor"), "BC"))->length;
        QVERIFY(b.click("writeEntry"));
        page(b).entries().list().selectRow(0);
        QVERIFY(b.click("takeDifference"));
        QCOMPARE((*findReading(*b.document.job().surface("floor"), "BC"))->length.value, before.value - 6);
        QVERIFY(b.document.job().record.back().amount == 1);
        page(b).entries().list().selectRow(0);
        QVERIFY(!b.find<QPushButton>("takeDifference")->isEnabled());
        b.document.undoStack().undo();
        QCOMPARE((*findReading(*b.document.job().surface("floor"), "BC"))->length, before);
        QVERIFY(b.document.job().record.back().amount == 0);
    }
};

WESTRUM_TEST(RackStageTest)
#include "rack_stage_test.moc"
