#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/stages/buy/buy_page.h"
#include "app/stages/buy/shopping_print.h"
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
        model.setPlan(p, job.catalogue, figuresFor(job));
        QCOMPARE(model.rowCount(), 2);
        QCOMPARE(model.data(model.index(0, PurchaseModel::Buy)).toString(), QStringLiteral("3 packs"));
        QCOMPARE(model.data(model.index(1, PurchaseModel::Buy)).toString(), QStringLiteral("1 roll"));
        QCOMPARE(model.data(model.index(0, PurchaseModel::Cost)).toString(), QStringLiteral("131.70 EUR"));
        QCOMPARE(model.data(model.index(0, PurchaseModel::LeftOver)).toString(),
                 planksText(p->purchases[0].unitsLeft()));
        model.setPlan(std::make_shared<const Plan>(), {}, {});
        QCOMPARE(model.rowCount(), 0);
    }

    void whatIsShownAgrees() {
        Bench b(demoFloor());
        b.go(MainWindow::Buy);
        auto* table = b.find<QTableView>("shoppingList");
        QVERIFY(table && table->isVisible());
        QCOMPARE(table->model()->rowCount(), static_cast<int>(b.document.plan()->purchases.size()));
        QVERIFY(b.sentenceShown().contains(figuresFor(b.document.job()).percent(b.document.plan()->totals.runShort)));
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
