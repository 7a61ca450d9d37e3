#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/print/shopping_print.h"
#include "app/stages/buy/buy_page.h"
#include "formats/plan_file.h"
#include "tests/app/bench.h"
#include "tests/support/demo_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <QAbstractItemModelTester>
#include <QTableView>

using namespace westrum;
using namespace westrum::test;

class BuyStageTest : public QObject {
    Q_OBJECT
private slots:
    void theListIsAMappingOfThePlan() {
        const Job job = demoFloor();
        const auto p = std::make_shared<const Plan>(plan(job));
        PurchaseModel model;
        QAbstractItemModelTester tester(&model, QAbstractItemModelTester::FailureReportingMode::QtTest);
        model.setPlan(p, job.catalogue, figuresFor(job), {}, 0.05, "floor");
        QCOMPARE(model.rowCount(), 2);
        QCOMPARE(plain(model.data(model.index(0, PurchaseModel::Buy)).toString()), QStringLiteral("3 packs"));
        QCOMPARE(plain(model.data(model.index(1, PurchaseModel::Buy)).toString()), QStringLiteral("1 roll"));
        QCOMPARE(plain(model.data(model.index(0, PurchaseModel::Cost)).toString()), QStringLiteral("131.70 EUR"));
        QCOMPARE(plain(model.data(model.index(0, PurchaseModel::LeftOver)).toString()),
                 plain(planksText(p->purchases[0].unitsLeft())));
        // What it goes to, and whether it may run short, once that is tried.
        QVERIFY(model.data(model.index(0, PurchaseModel::Name), Qt::FontRole).value<QFont>().bold());
        QCOMPARE(plain(model.data(model.index(0, PurchaseModel::Short)).toString()), QStringLiteral("…"));
        auto odds = std::make_shared<std::vector<ProductOdds>>(oddsOf(job, *p, {}, 20));
        model.setPlan(p, job.catalogue, figuresFor(job), odds, 0.0, "nowhere");
        QCOMPARE(plain(model.data(model.index(0, PurchaseModel::Short)).toString()),
                 figuresFor(job).percent(odds->front().chanceShort()));
        QVERIFY(!model.data(model.index(0, PurchaseModel::Name), Qt::FontRole).value<QFont>().bold());
        model.setPlan(std::make_shared<const Plan>(), {}, {}, {}, 0.05, "");
        QCOMPARE(model.rowCount(), 0);
    }

    void whatIsShownAgrees() {
        Bench b(demoFloor());
        b.go(MainWindow::Buy);
        auto* table = b.find<QTableView>("shoppingList");
        QVERIFY(table && table->isVisible());
        QCOMPARE(table->model()->rowCount(), static_cast<int>(b.document.plan()->purchases.size()));
        b.document.setOddsTries(40);
        QTRY_VERIFY_WITH_TIMEOUT(b.document.odds() != nullptr, 60000);
        double worst = 0;
        for (const ProductOdds& o : *b.document.odds()) worst = std::max(worst, o.chanceShort());
        QVERIFY2(b.sentenceShown().contains(figuresFor(b.document.job()).percent(worst)),
                 qPrintable(b.sentenceShown()));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("40 tries")));
    }

    void aNumberIsChosenOnTheCurve() {
        Bench b(demoFloor());
        b.document.setOddsTries(60);
        b.go(MainWindow::Buy);
        QTRY_VERIFY_WITH_TIMEOUT(b.document.odds() != nullptr, 60000);
        auto* table = b.find<QTableView>("shoppingList");
        table->selectRow(0);
        auto* curve = b.window->findChild<OddsCurve*>();
        const auto before = *b.document.plan()->totals.cost;
        QTest::mouseClick(curve, Qt::LeftButton, {}, curve->barOf(4).toPoint()); // three packs are planned
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.document.job().spares.at("heron-oak"), 1);
        QCOMPARE(b.document.plan()->purchases[0].packs, 4);
        QCOMPARE(b.document.plan()->totals.cost->minor, before.minor + 4390);
        QVERIFY(b.document.odds() != nullptr); // no need was changed by that
        QCOMPARE(b.text("lineText").contains(QStringLiteral("1 pack of it to spare")), true);
        curve->setFocus();
        QTest::keyClick(curve, Qt::Key_Left);
        QVERIFY(settlePlan(b.document));
        QVERIFY(b.document.job().spares.empty());
        QTest::keyClick(curve, Qt::Key_Left); // fewer than the plan takes cannot be chosen
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.document.plan()->purchases[0].packs, 3);
        b.document.undoStack().undo();
        QCOMPARE(b.document.job().spares.at("heron-oak"), 1);
    }

    void everyLineIsTracedToItsSurfacesAndBack() {
        Bench b(demoJob());
        b.document.setOddsTries(3);
        b.go(MainWindow::Buy);
        (void)settlePlan(b.document);
        auto* table = b.find<QTableView>("shoppingList");
        auto* bars = b.window->findChild<ShareBars*>();
        for (int row = 0; row < static_cast<int>(b.document.plan()->purchases.size()); ++row) {
            table->selectRow(row);
            const Purchase& p = b.document.plan()->purchases[static_cast<std::size_t>(row)];
            QVERIFY2(bars->rows() > 0, p.product.c_str());
            QCOMPARE(b.text("lineTitle"), plain(purchaseName(p, b.document.job().catalogue)));
        }
        // Back: the surface that is pressed is taken in hand, and told what it bears.
        table->selectRow(0);
        QTest::mouseClick(bars, Qt::LeftButton, {}, bars->rowAt(0).toPoint());
        (void)settlePlan(b.document);
        QVERIFY(b.text("ofThisSurface")
                    .contains(QString::fromStdString(b.document.job().surface(b.document.currentSurface())->name)));
        QVERIFY(inkOn(bars) > 0.02);
    }

    void whatIsUsedUpIsLeftOutByOneTick() {
        Bench b(demoJob());
        b.document.setOddsTries(3);
        b.go(MainWindow::Buy);
        QVERIFY(settleCuts(b.document));
        const auto lines = [&] { return b.document.plan()->purchases.size(); };
        const std::size_t before = lines();
        QVERIFY(b.find<QCheckBox>("consumables")->isChecked());
        b.find<QCheckBox>("consumables")->click();
        QVERIFY(settleCuts(b.document));
        QVERIFY(lines() + 2 <= before); // discs, tape and blades
        b.document.undoStack().undo();
        QVERIFY(settleCuts(b.document));
        QCOMPARE(lines(), before);
    }

    void sparesBringEveryRiskDown() {
        Bench b(demoFloor());
        b.document.setOddsTries(60);
        b.go(MainWindow::Buy);
        QTRY_VERIFY_WITH_TIMEOUT(b.document.odds() != nullptr, 60000);
        QVERIFY(b.click("spareAll"));
        for (const ProductOdds& o : *b.document.odds()) QVERIFY2(o.chanceShort() <= 0.05, o.product.c_str());
        QVERIFY(!b.document.job().spares.empty());
        const int before = b.document.job().spares.at("heron-oak");
        QVERIFY(b.type("acceptedRisk", "60 %")); // with which nothing need be spared
        QCOMPARE(b.document.job().acceptedRisk, 0.6);
        QVERIFY(b.click("spareAll"));
        QVERIFY(before > 0 && !b.document.job().spares.contains("heron-oak"));
        (void)b.type("acceptedRisk", "160");
        QVERIFY(b.sentenceShown().contains(QStringLiteral("between 0 and 100")));
        QCOMPARE(b.document.job().acceptedRisk, 0.6);
    }

    void aLineIsTickedPaidAndHeldAgainstTheBudget() {
        Bench b(demoFloor());
        b.go(MainWindow::Buy);
        auto* table = b.find<QTableView>("shoppingList");
        table->selectRow(0);
        b.find<QCheckBox>("bought")->click();
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.document.job().bought.at("heron-oak").packs, 3);
        QCOMPARE(b.document.job().bought.at("heron-oak").paid->minor, 13170); // as listed, until another is typed
        QVERIFY(b.type("paid", "129.50"));
        QCOMPARE(b.document.job().bought.at("heron-oak").paid->minor, 12950);
        (void)b.type("paid", "a lot");
        QVERIFY(b.find<EntryField>("paid")->isWrong());
        QCOMPARE(b.document.job().bought.at("heron-oak").paid->minor, 12950);
        QTest::keyClick(b.find<EntryField>("paid"), Qt::Key_Escape);
        QVERIFY(plain(table->model()->index(0, 0).data().toString()).startsWith(QStringLiteral("✓")));
        // The plan wants a pack more: the line says that too few were bought.
        push(b.document, setSpare(b.document, "heron-oak", 1));
        QVERIFY(settlePlan(b.document));
        QVERIFY(table->model()->index(0, 0).data().toString().contains(QStringLiteral("too few")));
        QVERIFY(b.type("budget", "100"));
        QVERIFY(b.text("budgetText").contains(QStringLiteral("over it")));
        QVERIFY(b.type("budget", "1000"));
        QVERIFY(b.text("budgetText").contains(QStringLiteral("under it")));
        b.find<QCheckBox>("bought")->click();
        QVERIFY(settlePlan(b.document));
        QVERIFY(b.document.job().bought.empty());
    }

    void whatWouldSaveIsTriedAndTaken() {
        Job job = demoFloor();
        job.finishes["floor"].now().layers.back().rules["startOffset"] = 120;
        Bench b(std::move(job));
        b.go(MainWindow::Buy);
        b.find<QTableView>("shoppingList")->selectRow(0);
        QVERIFY(b.click("askSavings"));
        QTRY_VERIFY_WITH_TIMEOUT(
            !b.find<QLabel>("savingText") || !b.text("savingText").startsWith(QStringLiteral("Trying")), 60000);
        // What the search itself finds is what is said: a way that buys less, to be taken by one press, or that there
        // is none.
        const std::vector<Saving> found = savingsOn(b.document.job(), "heron-oak");
        const QString said = b.text("savingText");
        const auto before = b.document.plan()->totals.cost->minor;
        auto* take = b.find<QPushButton>("takeSaving");
        QCOMPARE(take != nullptr, !found.empty());
        if (found.empty()) {
            QCOMPARE(said, QStringLiteral("No other way to lay it buys less."));
            return;
        }
        QTest::mouseClick(take, Qt::LeftButton);
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.document.plan()->totals.cost->minor, before - found.front().saved.minor);
    }

    void optionsAreComparedAndChosenByAKey() {
        Bench b(demoJob());
        b.document.setCurrentSurface("left-upper");
        b.go(MainWindow::Buy);
        QVERIFY(b.click("showCompare"));
        auto* compare = b.window->findChild<CompareView*>();
        QTRY_COMPARE_WITH_TIMEOUT(compare->columns(), 3, 60000);
        QVERIFY(inkOn(compare) > 0.02);
        const int chosen = b.document.job().options("left-upper").chosen;
        const int other = chosen == 0 ? 1 : 0;
        QTest::keyClick(compare, static_cast<Qt::Key>(Qt::Key_1 + other));
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.document.job().options("left-upper").chosen, other);
        QTRY_COMPARE_WITH_TIMEOUT(compare->columns(), 3, 60000);
        QTest::mouseClick(compare, Qt::LeftButton, {}, compare->columnAt(chosen).toPoint());
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.document.job().options("left-upper").chosen, chosen);
        // The whole van by schemes.
        QVERIFY(b.click("wholeVan"));
        QTRY_VERIFY_WITH_TIMEOUT(compare->columns() >= 3, 60000);
        QTest::keyClick(compare, Qt::Key_2);
        QVERIFY(settlePlan(b.document));
        QCOMPARE(plain(b.document.undoStack().undoText()), QStringLiteral("Choose a scheme"));
        // A surface with one option says what to do.
        QVERIFY(b.click("wholeVan"));
        b.document.setCurrentSurface("left-lower");
        QTRY_COMPARE_WITH_TIMEOUT(compare->columns(), 1, 60000);
        QVERIFY(b.sentenceShown().contains(QStringLiteral("Build-up")));
    }

    void aWorkbookIsWritten() {
        QTemporaryDir dir;
        const Job job = demoFloor();
        const QString path = dir.filePath(QStringLiteral("list.xlsx"));
        QCOMPARE(saveShoppingXlsx(path, job, plan(job), figuresFor(job)), QString());
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly));
        const QByteArray bytes = file.readAll();
        QVERIFY(bytes.startsWith("PK") && bytes.contains("xl/worksheets/sheet2.xml"));
        QVERIFY(QDir(dir.path()).entryList(QDir::AllEntries | QDir::Hidden | QDir::NoDotAndDotDot).size() == 1);
        QVERIFY(!saveShoppingXlsx(QStringLiteral("/no/such/folder/x.xlsx"), job, plan(job), {}).isEmpty());
    }

    void pricesAreTypedFetchedReviewedAndTakenBack() {
        Bench b(demoFloor());
        b.go(MainWindow::Buy);
        QVERIFY(b.click("showPrices"));
        auto* product = b.find<QComboBox>("offerProduct");
        product->setCurrentIndex(product->findData(QStringLiteral("heron-oak")));
        QVERIFY(b.click("addOffer"));
        auto* offers = b.find<QTableView>("offers");
        QAbstractItemModelTester tester(offers->model(), QAbstractItemModelTester::FailureReportingMode::QtTest);
        const auto cell = [&](int column) { return offers->model()->index(0, column); };
        const auto before = b.document.plan()->totals.cost->minor;
        QVERIFY(offers->model()->setData(cell(OffersModel::From), QStringLiteral("Far yard")));
        QVERIFY(offers->model()->setData(cell(OffersModel::Price), QStringLiteral("40.00")));
        QVERIFY(settleCuts(b.document));
        QCOMPARE(b.document.plan()->totals.cost->minor, before - 3 * 390); // 43.90 before
        QVERIFY(!offers->model()->setData(cell(OffersModel::Price), QStringLiteral("cheap")));
        QVERIFY(!b.sentenceShown().isEmpty());
        QCOMPARE(b.document.job().prices.offers[0].price.minor, 4000); // nothing is lost
        // In another currency it counts once its rate is typed.
        QVERIFY(offers->model()->setData(cell(OffersModel::Lot), sentenceCase(OffersModel::tr("one"))));
        QVERIFY(!offers->model()->setData(cell(OffersModel::Lot), QStringLiteral("some")));
        QVERIFY(settleCuts(b.document)); // figures that come in meanwhile do not wipe the answer
        QVERIFY(b.sentenceShown().contains(QStringLiteral("usual, one, any")));
        QVERIFY(b.document.job().prices.offers[0].lot == LotRule::One);
        QVERIFY(offers->model()->setData(cell(OffersModel::Price), QStringLiteral("30 GBP")));
        QVERIFY(settleCuts(b.document));
        QCOMPARE(b.document.plan()->totals.cost->minor, before);
        QVERIFY(b.type("rate", "1.2"));
        QVERIFY(settleCuts(b.document));
        QCOMPARE(b.document.plan()->totals.cost->minor, before - 3 * (4390 - 3600));
        // Bringing it costs more than that saves.
        auto* supplier = b.find<QComboBox>("supplier");
        supplier->setCurrentText(QStringLiteral("Far yard"));
        emit supplier->activated(supplier->currentIndex());
        QVERIFY(b.type("delivery", "90"));
        QVERIFY(settleCuts(b.document));
        QCOMPARE(b.document.plan()->totals.cost->minor, before);
        // A fetched list changes nothing before it is taken in.
        const PriceBook book = b.document.job().prices;
        QVERIFY(b.click("fetch"));
        QVERIFY(b.document.job().prices == book);
        QVERIFY(b.text("review").contains(QStringLiteral("changes")));
        QVERIFY(b.click("takeIn"));
        QVERIFY(b.document.job().prices.offers.size() > 50);
        b.document.undoStack().undo();
        QVERIFY(b.document.job().prices == book);
        auto* view = b.window->findChild<PricesView*>();
        QVERIFY(view->review("product,supplier,price\nnothing,x,1\n").contains(QStringLiteral("nothing")));
        QVERIFY(b.click("removeOffer") || b.document.job().prices.offers.size() == 1);
    }

    void theVanIsWeighed() {
        Bench b(demoJob());
        b.go(MainWindow::Buy);
        (void)settlePlan(b.document);
        QVERIFY(b.click("showMass"));
        QVERIFY(b.text("massSums").contains(figuresFor(b.document.job()).mass(b.document.plan()->balance.added)));
        auto* limit = b.find<EntryField>("rearLimit");
        limit->setFocus();
        limit->selectAll();
        QTest::keyClicks(limit, QStringLiteral("1 t"));
        QTest::keyClick(limit, Qt::Key_Return);
        QVERIFY(settlePlan(b.document));
        QCOMPARE(b.document.job().mass.rearLimit, std::optional(1000.0));
        QVERIFY2(b.sentenceShown().contains(QStringLiteral("The rear axle would carry")),
                 qPrintable(b.sentenceShown()));
        limit->setFocus();
        limit->selectAll();
        QTest::keyClicks(limit, QStringLiteral("heavy"));
        QTest::keyClick(limit, Qt::Key_Return);
        QVERIFY(limit->isWrong());
        QCOMPARE(b.document.job().mass.rearLimit, std::optional(1000.0)); // nothing is lost
        QTest::keyClick(limit, Qt::Key_Escape);
        QVERIFY(b.click("simulatedTicket"));
        QCOMPARE(b.document.job().weighings.size(), 1UL);
        QVERIFY(b.text("weighings").contains(QStringLiteral("fitted by the plan")));
        auto* view = b.window->findChild<MassView*>();
        QVERIFY(view->takeTicket(QStringLiteral("Axle 1 1000\nAxle 2 900\nGross 3000"))
                    .contains(QStringLiteral("contradicts")));
        QCOMPARE(b.document.job().weighings.size(), 1UL);
        // What no tie places is dragged to where it is.
        auto* picture = b.window->findChild<MassPicture*>();
        const QPointF disc = picture->discOf("wet-cell-1");
        QTest::mousePress(picture, Qt::LeftButton, {}, disc.toPoint());
        QMouseEvent move(QEvent::MouseMove, disc + QPointF(-60, 0), picture->mapToGlobal(disc + QPointF(-60, 0)),
                         Qt::LeftButton, Qt::LeftButton, {});
        QCoreApplication::sendEvent(picture, &move);
        QTest::mouseRelease(picture, Qt::LeftButton, {}, (disc + QPointF(-60, 0)).toPoint());
        QVERIFY(settlePlan(b.document));
        QVERIFY(picture->discOf("wet-cell-1").x() < disc.x() - 40);
        QVERIFY(b.click("dropWeighing"));
        QVERIFY(b.document.job().weighings.empty());
        QVERIFY(inkOn(picture) > 0.02);
    }

    void aPdfIsWritten() {
        QTemporaryDir dir;
        const Job job = demoFloor();
        const QString path = dir.filePath(QStringLiteral("list.pdf"));
        QCOMPARE(saveShoppingPdf(path, job, plan(job), figuresFor(job)), QString());
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly));
        const QByteArray bytes = file.readAll();
        QVERIFY(bytes.startsWith("%PDF-") && bytes.trimmed().endsWith("%%EOF"));
        QVERIFY(bytes.count("/Type /Page\n") + bytes.count("/Type /Page ") >= 2);
        QVERIFY(!saveShoppingPdf(QStringLiteral("/no/such/folder/x.pdf"), job, plan(job), {}).isEmpty());
    }

    void csvIsWrittenWhole() {
        QTemporaryDir dir;
        const Job job = demoFloor();
        const QString path = dir.filePath(QStringLiteral("list.csv"));
        QCOMPARE(saveBytes(path, shoppingListAsCsv(job, plan(job))), QString());
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly));
        QCOMPARE(file.readAll(), shoppingListAsCsv(job, plan(job)));
        QVERIFY(!saveBytes(QStringLiteral("/no/such/folder/x.csv"), "x").isEmpty());
    }

    void aLongCutListTurnsThePage() {
        Job job = demoFloor();
        face(job).product = "dunlin-short"; // many short planks
        const Plan p = plan(job);
        QImage page(600, 800, QImage::Format_RGB32);
        page.fill(Qt::white);
        QPainter painter(&page);
        int pages = 1;
        paintShopping(
            painter, QRectF(20, 20, 560, 760), [&] { ++pages; }, job, p, figuresFor(job));
        QVERIFY(p.surfaces[0].setOut().pieces.size() > 60);
        QVERIFY2(pages >= 4, qPrintable(QString::number(pages)));
    }
};
WESTRUM_TEST(BuyStageTest)

#include "buy_stage_test.moc"
