#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/cut_commands.h"
#include "app/print/cut_print.h"
#include "app/stages/cut/cut_page.h"
#include "tests/app/bench.h"
#include "tests/support/demo_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <QAbstractItemModelTester>
#include <QFile>
#include <QFileDialog>
#include <QListWidget>
#include <QMenu>
#include <QTableView>

using namespace westrum;
using namespace westrum::test;

class CutStageTest : public QObject {
    Q_OBJECT

    /// The window in Cut with a product, its search at an end.
    struct Cutting : Bench {
        explicit Cutting(const char* product) : Bench(demoFloor()) {
            go(MainWindow::Cut);
            page().chooseProduct(product);
            (void)settleCuts(document);
            QCoreApplication::processEvents();
        }
        CutPage& page() { return window->cutPage(); }
        CutBench& bench() { return page().bench(); }
        const ProductCut& cut() {
            (void)settleCuts(document);
            QCoreApplication::processEvents();
            held.push_back(document.cutting().state(page().product()).cut);
            return *held.back();
        }
        std::vector<std::shared_ptr<const ProductCut>> held; ///< what a test still looks at
        /// Types into a cell of a table as a person does.
        void typeInto(QTableView* table, int row, int column, const char* text) {
            table->setCurrentIndex(table->model()->index(row, column));
            table->edit(table->currentIndex());
            auto* editor = table->findChild<QLineEdit*>();
            QVERIFY(editor);
            editor->selectAll();
            QTest::keyClicks(editor, QString::fromUtf8(text));
            QTest::keyClick(editor, Qt::Key_Return);
            QCoreApplication::processEvents();
            QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete); // the editor goes
        }
        QString path(const char* name, const QByteArray& bytes) {
            QFile file(folder.filePath(QString::fromUtf8(name)));
            if (file.open(QIODevice::WriteOnly)) file.write(bytes);
            return file.fileName();
        }
    };

    static QString saidIn(Cutting& b) { return b.sentenceShown(); }

private slots:
    void everyFigureAgreesWithThePlan() {
        Cutting b("dipper-ply");
        const ProductCut& cut = b.cut();
        QVERIFY2(saidIn(b).startsWith(QStringLiteral("%1 sheets to buy").arg(cut.itemsToBuy)), qPrintable(saidIn(b)));
        QVERIFY(
            saidIn(b).contains(figuresFor(b.document.job()).money(*cut.cost).replace(QChar(0x202F), QLatin1Char(' '))));
        std::int64_t bought = 0;
        for (const Purchase& p : b.document.plan()->purchases)
            if (p.product == "dipper-ply")
                bought += p.cost->minor - p.spare * p.packPrice->minor; // spares come besides
        QCOMPARE(bought, cut.cost->minor);
        b.page().chooseProduct("thrush-lining");
        QVERIFY2(saidIn(b).contains(QStringLiteral("no plan can use less than")), qPrintable(saidIn(b)));
    }

    void aPieceIsTypedAndBadFiguresAreAnswered() {
        Cutting b("dipper-ply");
        QVERIFY(b.click("facePieces"));
        auto* table = b.find<QTableView>("loosePieces");
        QVERIFY(table);
        QAbstractItemModelTester tester(table->model(), QAbstractItemModelTester::FailureReportingMode::QtTest);
        const int last = table->model()->rowCount() - 1;
        b.typeInto(table, last, PiecesTable::Name, "Hatch lid");
        QCOMPARE(table->model()->rowCount(), last + 2);
        // Without a size it is named as what is missing, and all else is planned.
        QVERIFY(b.cut().troubles.size() == 1);
        QVERIFY(b.text("cutTrouble").contains(QStringLiteral("Hatch lid has no size yet")));
        b.typeInto(table, last, PiecesTable::Length, "45,5 cm");
        b.typeInto(table, last, PiecesTable::Width, "300");
        const auto typed = [&] { return b.document.job().cutList("dipper-ply").pieces.back(); };
        QCOMPARE(typed().length->length.value, 455.0);
        QVERIFY(b.cut().troubles.empty());
        b.typeInto(table, last, PiecesTable::Width, "three ells");
        QCOMPARE(typed().width->length.value, 300.0);
        QVERIFY(table->model()->index(last, PiecesTable::Width).data().toString() == QStringLiteral("three ells"));
        QVERIFY2(saidIn(b).contains(QStringLiteral("three")), qPrintable(saidIn(b)));
        b.typeInto(table, last, PiecesTable::Count, "-4");
        QCOMPARE(typed().count, 1);
        table->setCurrentIndex(table->model()->index(last, 0));
        QVERIFY(b.click("removePiece"));
        QCOMPARE(table->model()->rowCount(), last + 1);
    }

    void aPieceIsDraggedAndStaysWhereItIsPut() {
        Cutting b("dipper-ply");
        const ProductCut& cut = b.cut();
        // The narrowest piece of the first sheet, to the upper right of it.
        int which = 0;
        for (std::size_t i = 0; i < cut.items[0].pieces.size(); ++i)
            if (areaMm2(cut.items[0].pieces[i].shape) < areaMm2(cut.items[0].pieces[std::size_t(which)].shape))
                which = int(i);
        const std::string key = cut.items[0].pieces[std::size_t(which)].key;
        const QPoint from = b.bench().middleOf(0, which).toPoint();
        const QPoint to = from + QPoint(0, -6);
        QTest::mousePress(&b.bench(), Qt::LeftButton, {}, from);
        for (int i = 1; i <= 4; ++i) {
            QMouseEvent move(QEvent::MouseMove, from + QPoint(0, -30) * i / 4, b.bench().mapToGlobal(from),
                             Qt::LeftButton, Qt::LeftButton, {});
            QCoreApplication::sendEvent(&b.bench(), &move);
        }
        QMouseEvent back(QEvent::MouseMove, to, b.bench().mapToGlobal(to), Qt::LeftButton, Qt::LeftButton, {});
        QCoreApplication::sendEvent(&b.bench(), &back);
        QTest::mouseRelease(&b.bench(), Qt::LeftButton, {}, to);
        const auto& kept = b.document.job().cutList("dipper-ply").kept;
        QCOMPARE(kept.size(), 1UL);
        QCOMPARE(kept[0].pieces[0].piece, key);
        const Point at = kept[0].pieces[0].at;
        bool there = false;
        for (const CutItem& item : b.cut().items)
            for (const LyingPiece& l : item.pieces)
                there = there || (l.key == key && l.pinned && distance(l.at, at) < 0.01);
        QVERIFY(there || !b.cut().troubles.empty()); // kept, or told why a saw cannot reach it
        b.document.undoStack().undo();
        QVERIFY(b.document.job().cutList("dipper-ply").kept.empty());
    }

    void everythingGoesByKeys() {
        Cutting b("rail-oak");
        b.bench().setFocus();
        b.bench().takeInHand(0, -1);
        QTest::keyClick(&b.bench(), Qt::Key_Right);
        QCOMPARE(b.bench().pieceInHand(), 0);
        QTest::keyClick(&b.bench(), Qt::Key_P);
        QCOMPARE(b.document.job().cutList("rail-oak").kept.size(), 1UL);
        (void)b.cut();
        QTest::keyClick(&b.bench(), Qt::Key_P); // and let go again
        QVERIFY(b.document.job().cutList("rail-oak").kept.empty());
        (void)b.cut();
        QTest::keyClick(&b.bench(), Qt::Key_Space);
        const ProductCut& cut = b.cut();
        QVERIFY(cut.items[std::size_t(b.bench().itemInHand())].locked);
        QTest::keyClick(&b.bench(), Qt::Key_P);
        QVERIFY(saidIn(b).contains(QStringLiteral("being cut stays")));
        QTest::keyClick(&b.bench(), Qt::Key_Down);
        QCOMPARE(b.bench().pieceInHand(), -1);
    }

    void ticksInTheListLockTheItem() {
        Cutting b("rail-oak");
        auto* ticks = b.find<QListWidget>("cutTicks");
        QVERIFY(ticks && ticks->count() == int(b.cut().items[0].pieces.size()));
        ticks->item(0)->setCheckState(Qt::Checked);
        const ProductCut& cut = b.cut();
        const auto locked = std::find_if(cut.items.begin(), cut.items.end(), [](const CutItem& i) { return i.locked; });
        QVERIFY(locked != cut.items.end() && locked->pieces[0].cut);
        QVERIFY(b.click("allCut"));
        for (const CutItem& item : b.cut().items)
            if (item.locked)
                for (const LyingPiece& l : item.pieces) QVERIFY(l.cut);
    }

    void stockIsLeftOutAndTheRackTakesMore() {
        Cutting b("dipper-ply");
        QVERIFY(b.click("faceStock"));
        auto* table = b.find<QTableView>("cutStock");
        QAbstractItemModelTester tester(table->model(), QAbstractItemModelTester::FailureReportingMode::QtTest);
        auto* model = table->model();
        model->setData(model->index(1, StockTable::Use), Qt::Unchecked, Qt::CheckStateRole); // the half sheet
        for (const CutItem& item : b.cut().items) QVERIFY(item.stock != "s1");
        const std::int64_t before = b.cut().cost->minor;
        const int last = model->rowCount() - 1;
        b.typeInto(table, last, StockTable::Length, "2400");
        b.typeInto(table, last, StockTable::Width, "1200");
        QVERIFY(b.document.job().cutList("dipper-ply").stock.back().rack);
        QVERIFY(b.cut().cost->minor < before);
        b.typeInto(table, last, StockTable::Price, "12 parrots");
        QVERIFY(!b.document.job().cutList("dipper-ply").stock.back().price);
        QVERIFY(b.document.job().cutList("dipper-ply").stock.back().rack);
    }

    void listsAndDrawingsAreTakenInOrRefused() {
        Cutting b("thrush-lining");
        const std::size_t before = b.document.job().cutList("thrush-lining").pieces.size();
        QVERIFY(b.page().importPieces(b.path("list.csv", "Cover,300,200,2\n")));
        QVERIFY(saidIn(b).contains(QStringLiteral("1 piece taken in")));
        QVERIFY(!b.page().importPieces(b.path("bad.csv", "Cover,300\n")));
        QVERIFY2(saidIn(b).contains(QStringLiteral("bad.csv was not taken in")), qPrintable(saidIn(b)));
        QVERIFY(!b.page().importPieces(b.path("bad.dxf", "rubbish")));
        QVERIFY(!b.page().importPieces(QStringLiteral("/no/such/list.csv")));
        QCOMPARE(b.document.job().cutList("thrush-lining").pieces.size(), before + 1);
        // What is written out can be taken in again: stock and pieces are rings of the drawing.
        QVERIFY(b.page().importPieces(b.path(
            "own.svg", "<svg xmlns='http://www.w3.org/2000/svg' width='400mm' height='300mm' viewBox='0 0 400 300'>"
                       "<path d='M0 0 L400 0 L0 300 Z'/></svg>")));
        QCOMPARE(b.document.job().cutList("thrush-lining").pieces.back().shape.rings.size(), 1UL);
        QVERIFY(b.page().importOffcut(b.path("end.csv", "0,0\n900,0\n900,700\n0,400\n")));
        bool used = false;
        for (const CutItem& item : b.cut().items) used = used || (item.rack && !item.pieces.empty());
        QVERIFY(used);
        QVERIFY(b.cut().unplaced.empty());
    }

    void mapAndStockLightEachOther() {
        Cutting b("dipper-ply");
        auto* map = b.window->findChild<ShellMap*>();
        const QImage dark = map->grab().toImage();
        const LyingPiece& l = b.cut().items[0].pieces[0];
        const QPointF at = b.bench().middleOf(0, 0);
        QMouseEvent over(QEvent::MouseMove, at, b.bench().mapToGlobal(at), Qt::NoButton, Qt::NoButton, {});
        QCoreApplication::sendEvent(&b.bench(), &over);
        QVERIFY(map->grab().toImage() != dark);
        const QImage plain = b.bench().grab().toImage();
        QVERIFY(!b.cut().pieces[std::size_t(l.piece)].surface.empty());
        const QPointF onMap = map->middleOf("kitchen-front");
        QMouseEvent there(QEvent::MouseMove, onMap, map->mapToGlobal(onMap), Qt::NoButton, Qt::NoButton, {});
        QCoreApplication::sendEvent(map, &there);
        QVERIFY(b.bench().grab().toImage() != plain);
    }

    void paperHoldsEveryItemAndEveryPiece() {
        Cutting b("dipper-ply");
        const Figures f = figuresFor(b.document.job());
        for (const bool labels : {false, true}) {
            const QString path =
                b.folder.filePath(labels ? QStringLiteral("labels.pdf") : QStringLiteral("sheets.pdf"));
            QCOMPARE(labels ? saveLabelsPdf(path, b.document.job(), b.cut(), f)
                            : saveCutSheetsPdf(path, b.document.job(), b.cut(), f),
                     QString());
            QFile file(path);
            QVERIFY(file.open(QIODevice::ReadOnly));
            const QByteArray bytes = file.readAll();
            QVERIFY(bytes.startsWith("%PDF") && bytes.size() > 5000);
        }
        // As many pages as it takes: 22 pieces are one sheet of labels, 50 are three.
        ProductCut many = b.cut();
        int pages = 1;
        QImage page(794, 1123, QImage::Format_RGB32);
        QPainter painter(&page);
        while (many.items[0].pieces.size() < 50) many.items[0].pieces.push_back(many.items[0].pieces[0]);
        many.items.resize(1);
        paintLabels(
            painter, QRectF(page.rect()), [&] { ++pages; }, b.document.job(), many, f);
        QCOMPARE(pages, 3);
        QVERIFY(!saveLabelsPdf(QStringLiteral("/no/such/folder/x.pdf"), b.document.job(), many, f).isEmpty());
    }

    void aNewProductIsCutFromNothing() {
        Bench b(newJob("Empty", "Floor", starterCatalogue(), Currency{}));
        b.go(MainWindow::Cut);
        b.window->cutPage().chooseProduct("thrush-lining");
        QVERIFY2(b.sentenceShown().contains(QStringLiteral("Nothing is to be cut")), qPrintable(b.sentenceShown()));
        QVERIFY(b.window->cutPage().importPieces([&] {
            QFile file(b.folder.filePath(QStringLiteral("l.csv")));
            if (file.open(QIODevice::WriteOnly)) file.write("A,900,1900\nB,900,2100\n");
            return file.fileName();
        }()));
        QVERIFY(settleCuts(b.document));
        QCoreApplication::processEvents();
        QVERIFY(b.text("cutTrouble").contains(QStringLiteral("B is larger than any stock")));
        QVERIFY(b.window->cutPage().bench().cut()->items.size() == 1);
    }

    void theWholeLayoutIsKeptAndLetGo() {
        Cutting b("thrush-lining");
        const ProductCut before = b.cut();
        QVERIFY(b.click("keepLayout"));
        std::size_t pinned = 0;
        for (const KeptItem& k : b.document.job().cutList("thrush-lining").kept) pinned += k.pieces.size();
        QCOMPARE(pinned, before.pieces.size());
        const ProductCut kept = b.cut();
        QVERIFY(kept.troubles.empty());
        QVERIFY(std::abs(kept.rollMm - before.rollMm) < 0.1);
        for (std::size_t i = 0; i < before.items[0].pieces.size(); ++i) {
            const LyingPiece& l = before.items[0].pieces[i];
            const auto there = std::find_if(kept.items[0].pieces.begin(), kept.items[0].pieces.end(),
                                            [&](const LyingPiece& m) { return m.key == l.key; });
            QVERIFY(there != kept.items[0].pieces.end() && there->pinned && distance(there->at, l.at) < 0.05);
        }
        // A further piece goes beside what is kept.
        push(b.document,
             addLoosePieces(b.document, "thrush-lining", {{.name = "More", .length = mm(300), .width = mm(200)}}));
        QCOMPARE(b.cut().unplaced.size(), 0UL);
        QVERIFY(b.click("keepLayout")); // the button now lets go
        QVERIFY(b.document.job().cutList("thrush-lining").kept.empty());
    }

    void aPieceIsTurnedWhereItsMaterialAllows() {
        Cutting b("dipper-ply");
        const auto take = [&](const char* name) {
            const ProductCut& cut = b.cut();
            for (std::size_t i = 0; i < cut.items.size(); ++i)
                for (std::size_t n = 0; n < cut.items[i].pieces.size(); ++n)
                    if (pieceText(cut.items[i].pieces[n].name).startsWith(QLatin1String(name))) {
                        b.bench().takeInHand(int(i), int(n));
                        return;
                    }
            QFAIL(name);
        };
        take("Bench top");
        b.bench().setFocus();
        QTest::keyClick(&b.bench(), Qt::Key_R);
        QVERIFY2(saidIn(b).contains(QStringLiteral("Grain or nap keep this piece")), qPrintable(saidIn(b)));
        QVERIFY(b.document.job().cutList("dipper-ply").kept.empty());
        take("Cross bearer");
        QTest::keyClick(&b.bench(), Qt::Key_R);
        const auto& kept = b.document.job().cutList("dipper-ply").kept;
        QVERIFY(kept.size() == 1 || saidIn(b).contains(QStringLiteral("no room")));
    }

    void aProductsFiguresAreEditedWhereItIsCut() {
        Cutting b("rail-oak");
        QVERIFY(b.click("faceStock"));
        const auto cost = b.cut().cost;
        QVERIFY(b.type("price", "22.80"));
        QCOMPARE(b.document.job().catalogue.find("rail-oak")->packPrice->minor, 2280);
        QVERIFY(b.cut().cost->minor > cost->minor);
        QVERIFY(b.type("price", "2")); // so cheap that it is what is bought
        QVERIFY(b.type("field-length", "12 parrots"));
        QCOMPARE(b.document.job().catalogue.find("rail-oak")->fields.at("length"), 2400.0);
        QTest::keyClick(b.find<EntryField>("field-length"), Qt::Key_Escape);
        QVERIFY(b.type("field-length", "3 m"));
        const ProductCut& longer = b.cut();
        QVERIFY(
            std::any_of(longer.items.begin(), longer.items.end(), [](const CutItem& i) { return i.lengthMm == 3000; }));
        auto* name = b.find<QLineEdit>("productName");
        name->setFocus();
        name->selectAll();
        QTest::keyClicks(name, QStringLiteral("Strip"));
        QTest::keyClick(name, Qt::Key_Return);
        QCOMPARE(b.document.job().catalogue.find("rail-oak")->name, std::string("Strip"));
    }

    void figuresThatSpoilTheStockAreTold() {
        Cutting b("dipper-ply");
        push(b.document, setProductField(b.document, "dipper-ply", "edgeTrim", 200));
        push(b.document, setProductField(b.document, "dipper-ply", "width", 390));
        (void)b.cut();
        auto* trouble = b.find<QLabel>("cutTrouble");
        QVERIFY(trouble && !trouble->text().isEmpty());
        b.document.undoStack().undo();
        b.document.undoStack().undo();
        QVERIFY(b.cut().troubles.empty());
        QVERIFY(b.document.job() == demoFloor());
    }

    void planksAreShownAsTheSetOutCutsThem() {
        Cutting b("heron-oak");
        const ProductCut& cut = b.cut();
        QCOMPARE(cut.items.size(), b.floor().setOut().stock.size());
        QVERIFY2(saidIn(b).contains(QStringLiteral("planks are opened")), qPrintable(saidIn(b)));
        QVERIFY(!b.find<QPushButton>("keepLayout"));
        // Dragging one says where it is decided.
        const QPoint from = b.bench().middleOf(0, 0).toPoint();
        QTest::mousePress(&b.bench(), Qt::LeftButton, {}, from);
        QMouseEvent move(QEvent::MouseMove, from + QPoint(40, 0), b.bench().mapToGlobal(from), Qt::LeftButton,
                         Qt::LeftButton, {});
        QCoreApplication::sendEvent(&b.bench(), &move);
        QTest::mouseRelease(&b.bench(), Qt::LeftButton, {}, from);
        QVERIFY2(saidIn(b).contains(QStringLiteral("decided in Set out")), qPrintable(saidIn(b)));
        QVERIFY(b.document.job() == demoFloor());
        // Of a piece at a plank's right-hand end the blade goes before it: the line is a kerf before the piece.
        const Mm kerf{3};
        for (const CutItem& item : cut.items)
            for (const CutStep& step : item.order)
                for (const int i : step.frees) {
                    if (step.kind != CutStep::Kind::Across) continue;
                    const Bounds piece = boundsOf(item.pieces[std::size_t(i)].shape);
                    QVERIFY(std::abs(step.atMm - piece.high.x) < 0.05 ||
                            std::abs(step.atMm + kerf.value - piece.low.x) < 0.05);
                }
    }

    void fiveThousandPiecesAreTakenInAndPlanned() {
        Cutting b("rail-oak");
        QByteArray list;
        for (int i = 0; i < 4900; ++i)
            list += "piece " + QByteArray::number(i) + ',' + QByteArray::number(200 + i % 700) + '\n';
        QVERIFY(b.page().importPieces(b.path("many.csv", list)));
        QVERIFY(QTest::qWaitFor(
            [&] {
                const CutState s = b.document.cutting().state("rail-oak");
                return !b.document.isPlanning() && s.cut && !s.stale;
            },
            60000));
        std::size_t there = 0;
        for (const CutItem& item : b.document.cutting().state("rail-oak").cut->items) there += item.pieces.size();
        QVERIFY(there >= 4900);
        b.document.cutting().stop("rail-oak");
        QVERIFY(!b.page().importPieces(b.path("more.csv", list)));
        QVERIFY2(saidIn(b).contains(QStringLiteral("more than 5 000")), qPrintable(saidIn(b)));
    }

    void theTallyShowsWhatATrimCosts() {
        Cutting b("skirting-spruce");
        const std::size_t pieces = b.cut().pieces.size();
        QVERIFY(pieces >= 12); // round the floor, its arches and its well
        push(b.document, chooseTrim(b.document, "floor", std::string(kNoTrim)));
        (void)b.cut();
        QVERIFY2(b.figure("Cost").change.startsWith(QStringLiteral("−")), qPrintable(b.figure("Cost").change));
        b.document.undoStack().undo();
        QCOMPARE(b.cut().pieces.size(), pieces);
    }

    void theOrderNamesEveryPieceOnceAndTheCareWithIt() {
        for (const char* product : {"dipper-ply", "thrush-lining"}) {
            Cutting b(product);
            const ProductCut& cut = b.cut();
            for (int item = 0; item < int(cut.items.size()); ++item) {
                b.bench().takeInHand(item, -1);
                const QString steps = b.text("cutSteps");
                QVERIFY(steps.contains(QStringLiteral("blade")) || steps.contains(QStringLiteral("guard on")));
                std::map<int, int> freed;
                for (const CutStep& s : cut.items[std::size_t(item)].order)
                    for (const int i : s.frees) ++freed[i];
                for (const auto& [piece, times] : freed) QCOMPARE(times, 1);
                QCOMPARE(freed.size(), cut.items[std::size_t(item)].pieces.size());
            }
        }
    }

    void fourWaysOutOfTheWindow() {
        Cutting b("dipper-ply");
        QApplication::setAttribute(Qt::AA_DontUseNativeDialogs);
        auto* out = b.find<QPushButton>("out");
        QVERIFY(out && out->menu() && out->menu()->actions().size() == 4);
        const QList<QPair<QString, QByteArray>> ways{{QStringLiteral("sheets.pdf"), "%PDF"},
                                                     {QStringLiteral("labels.pdf"), "%PDF"},
                                                     {QStringLiteral("pieces.dxf"), "0\nSECTION"},
                                                     {QStringLiteral("pieces.svg"), "<?xml"}};
        for (int way = 0; way < 4; ++way) {
            const QString path = b.folder.filePath(ways[way].first);
            QTimer::singleShot(200, b.window.get(), [&] {
                auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
                if (!dialog) return;
                dialog->findChild<QLineEdit*>()->setText(path);
                QMetaObject::invokeMethod(dialog, "accept");
            });
            out->menu()->actions()[way]->trigger();
            QVERIFY2(saidIn(b).contains(QStringLiteral("Saved as")), qPrintable(saidIn(b)));
            QFile file(path);
            QVERIFY(file.open(QIODevice::ReadOnly));
            QVERIFY(file.readAll().startsWith(ways[way].second));
        }
    }
};

WESTRUM_TEST(CutStageTest)
#include "cut_stage_test.moc"
