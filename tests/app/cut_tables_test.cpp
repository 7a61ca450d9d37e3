#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "app/document/cut_commands.h"
#include "app/stages/cut/cut_tables.h"
#include "formats/demo.h"
#include "tests/app/bench.h"
#include "tests/support/demo_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <QAbstractItemModelTester>
#include <QComboBox>

using namespace westrum;
using namespace westrum::test;

class CutTablesTest : public QObject {
    Q_OBJECT

    static constexpr const char* kPly = "dipper-ply";
    struct Opened {
        Opened() {
            document.cutting().setPatience(0.001);
            document.open(demoFloor(), {});
        }
        JobDocument document;
    };
    static bool put(TypedTable& table, int row, int column, const char* text) {
        return table.setData(table.index(row, column), QString::fromUtf8(text));
    }
    static QString shown(const TypedTable& table, int row, int column) {
        return plain(table.index(row, column).data().toString()).replace(QChar(0x202F), QLatin1Char(' '));
    }

private slots:
    void cellsShowWhatTheListHolds() {
        Opened o;
        PiecesTable table(o.document, '.');
        QAbstractItemModelTester tester(&table, QAbstractItemModelTester::FailureReportingMode::QtTest);
        table.refresh(kPly);
        QCOMPARE(table.rowCount(), 10);
        QCOMPARE(shown(table, 0, PiecesTable::Name), QStringLiteral("Bench top"));
        QCOMPARE(shown(table, 0, PiecesTable::Length), QStringLiteral("1 780"));
        QCOMPARE(shown(table, 1, PiecesTable::Count), QStringLiteral("2"));
        QCOMPARE(shown(table, 3, PiecesTable::Goes), QStringLiteral("Kitchen front"));
        QCOMPARE(table.index(7, PiecesTable::Turn).data(Qt::CheckStateRole).toInt(), int(Qt::Checked));
        QCOMPARE(shown(table, 9, PiecesTable::Name), QStringLiteral("another piece …"));
        table.refresh("thrush-lining"); // shapes show their bounds, which are not typed
        QVERIFY(!shown(table, 0, PiecesTable::Length).isEmpty());
        QVERIFY(!(table.flags(table.index(0, PiecesTable::Length)) & Qt::ItemIsEditable));
        table.refresh("no such product");
        QCOMPARE(table.rowCount(), 0);
    }

    void whatIsTypedGoesIntoTheListAsOneStepEach() {
        Opened o;
        PiecesTable table(o.document, '.');
        table.refresh(kPly);
        connect(&o.document, &JobDocument::jobChanged, &table, [&] { table.refresh(kPly); });
        QVERIFY(put(table, 0, PiecesTable::Name, "Top"));
        QVERIFY(put(table, 0, PiecesTable::Length, "1.7 m"));
        QVERIFY(put(table, 0, PiecesTable::Count, "3"));
        QVERIFY(put(table, 0, PiecesTable::Goes, "SPLASHBACK"));
        QVERIFY(table.setData(table.index(0, PiecesTable::Turn), Qt::Checked, Qt::CheckStateRole));
        const LoosePiece p = o.document.job().cutList(kPly).pieces[0];
        QCOMPARE(p.name, std::string("Top"));
        QCOMPARE(p.length->length.value, 1700.0);
        QCOMPARE(p.length->typed, std::string("1.7 m"));
        QCOMPARE(p.count, 3);
        QCOMPARE(p.surface, std::string("splashback"));
        QVERIFY(p.mayTurn);
        QCOMPARE(o.document.undoStack().count(), 5);
        // The same again changes nothing.
        QVERIFY(put(table, 0, PiecesTable::Length, "1.7 m"));
        QCOMPARE(o.document.undoStack().count(), 5);
        // The last row takes another piece, whichever cell is typed in first.
        QVERIFY(put(table, 9, PiecesTable::Width, "90"));
        QCOMPARE(table.rowCount(), 11);
        QCOMPARE(o.document.job().cutList(kPly).pieces[9].width->length.value, 90.0);
        while (o.document.undoStack().canUndo()) o.document.undoStack().undo();
        QVERIFY(o.document.job() == demoFloor());
        QCOMPARE(table.rowCount(), 10);
    }

    void badFiguresStayInTheirCellAndAreTold_data() {
        QTest::addColumn<int>("column");
        QTest::addColumn<QByteArray>("text");
        QTest::addColumn<QString>("says");
        QTest::addRow("words") << int(PiecesTable::Length) << QByteArray("an ell") << "an";
        QTest::addRow("nothing") << int(PiecesTable::Length) << QByteArray("0") << "more than nothing";
        QTest::addRow("below nothing") << int(PiecesTable::Width) << QByteArray("-20") << "more than nothing";
        QTest::addRow("beyond all") << int(PiecesTable::Width) << QByteArray("9999999") << "99";
        QTest::addRow("half a piece") << int(PiecesTable::Count) << QByteArray("1.5") << "no number of pieces";
        QTest::addRow("too many") << int(PiecesTable::Count) << QByteArray("10001") << "no number of pieces";
        QTest::addRow("nowhere") << int(PiecesTable::Goes) << QByteArray("the moon") << "none of the surfaces";
    }
    void badFiguresStayInTheirCellAndAreTold() {
        QFETCH(int, column);
        QFETCH(QByteArray, text);
        QFETCH(QString, says);
        Opened o;
        PiecesTable table(o.document, '.');
        table.refresh(kPly);
        QString told;
        connect(&table, &TypedTable::problem, &table, [&](const QString& why) { told = why; });
        QVERIFY(put(table, 2, column, text.constData()));
        QVERIFY2(told.contains(says), qPrintable(told));
        QCOMPARE(table.index(2, column).data().toString(), QString::fromUtf8(text));
        QCOMPARE(table.index(2, column).data(Qt::EditRole).toString(), QString::fromUtf8(text));
        QVERIFY(table.index(2, column).data(Qt::ForegroundRole).isValid());
        QVERIFY(o.document.job() == demoFloor());
        // A good figure settles it.
        const bool goes = column == PiecesTable::Goes;
        QVERIFY(put(table, 2, column, goes ? "Ceiling" : "7"));
        QVERIFY(told.isEmpty());
        QVERIFY(!table.index(2, column).data(Qt::ForegroundRole).isValid());
    }

    void stockIsTypedWithItsPriceOrPutOnTheRack() {
        Opened o;
        StockTable table(o.document, ',');
        QAbstractItemModelTester tester(&table, QAbstractItemModelTester::FailureReportingMode::QtTest);
        table.refresh(kPly);
        connect(&o.document, &JobDocument::jobChanged, &table, [&] { table.refresh(kPly); });
        QCOMPARE(table.rowCount(), 4); // as sold, half sheet, the offcut, the empty row
        QCOMPARE(shown(table, 0, StockTable::Name), QStringLiteral("as sold"));
        QVERIFY(shown(table, 1, StockTable::Price).contains(QStringLiteral("29,90")));
        QCOMPARE(shown(table, 2, StockTable::Price), QStringLiteral("in hand"));
        QVERIFY(put(table, 3, StockTable::Length, "2500"));
        QVERIFY(put(table, 3, StockTable::Width, "1250"));
        const auto last = [&] { return o.document.job().cutList(kPly).stock.back(); };
        QVERIFY(last().rack); // until a price says that it is to be bought
        QVERIFY(put(table, 3, StockTable::Price, "61,50"));
        QVERIFY(!last().rack);
        QCOMPARE(last().price->minor, 6150);
        QVERIFY(put(table, 3, StockTable::Count, "2"));
        QCOMPARE(last().count, std::optional(2));
        QVERIFY(put(table, 3, StockTable::Count, ""));
        QVERIFY(!last().count);
        QVERIFY(put(table, 3, StockTable::Price, "cheap"));
        QCOMPARE(last().price->minor, 6150);
        QVERIFY(table.setData(table.index(0, StockTable::Use), Qt::Unchecked, Qt::CheckStateRole));
        QVERIFY(!o.document.job().cutList(kPly).useOwnStock);
        QCOMPARE(table.entryOf(0), std::string());
        QCOMPARE(table.entryOf(1), std::string("s1"));
        QVERIFY(!(table.flags(table.index(0, StockTable::Length)) & Qt::ItemIsEditable));
    }

    void surfacesAreChosenFromAList() {
        Opened o;
        PiecesTable table(o.document, '.');
        table.refresh(kPly);
        SurfaceChoice choice(o.document, &table);
        QWidget parent;
        auto* box = qobject_cast<QComboBox*>(choice.createEditor(&parent, {}, table.index(0, PiecesTable::Goes)));
        QVERIFY(box);
        QCOMPARE(box->count(), int(o.document.job().surfaces.size()) + 1);
        choice.setEditorData(box, table.index(0, PiecesTable::Goes));
        QCOMPARE(box->currentText(), QStringLiteral("Bench top"));
        box->setCurrentIndex(0);
        choice.setModelData(box, &table, table.index(0, PiecesTable::Goes));
        QVERIFY(o.document.job().cutList(kPly).pieces[0].surface.empty());
    }
};

WESTRUM_TEST(CutTablesTest)
#include "cut_tables_test.moc"
