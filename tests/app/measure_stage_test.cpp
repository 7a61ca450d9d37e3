#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "tests/app/bench.h"
#include "tests/support/demo_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <QCheckBox>

using namespace westrum;
using namespace westrum::test;

class MeasureStageTest : public QObject {
    Q_OBJECT
private slots:
    /// Of the demo's floor: what stands in its door well is said under Outline, that both sides are alike under Van;
    /// both are undone like anything else.
    void edgesOfAWellAndAlikeSidesAreSaid() {
        Bench b(demoFloor());
        b.go(MainWindow::Measure);
        b.document.setCurrentSurface("floor");
        QVERIFY(b.click("groupOutline"));
        QVERIFY(b.choose("stepEdges0", QStringLiteral("edges free")));
        QCOMPARE(b.document.job().surfaces[0].measurement.steps[0].edges, EdgeKind::Free);
        QCOMPARE(b.document.plan()->surfaces[0].measured.cutAways.size(), std::size_t{1});
        QVERIFY(b.choose("notchEdges0", QStringLiteral("under a trim")));
        QCOMPARE(b.document.job().surfaces[0].measurement.notches[0].edges, EdgeKind::UnderTrim);
        b.document.undoStack().undo();
        QCOMPARE(b.document.job().surfaces[0].measurement.notches[0].edges, EdgeKind::Unsaid);
        QVERIFY(b.click("groupVan"));
        auto* alike = b.find<QCheckBox>("symmetricBody");
        QVERIFY(alike && !alike->isChecked());
        alike->click();
        QVERIFY(b.document.job().symmetricBody);
        b.document.undoStack().undo();
        QVERIFY(!b.document.job().symmetricBody && !b.find<QCheckBox>("symmetricBody")->isChecked());
    }

    void theOutlineFollowsEachReading() {
        Bench b(demoFloor());
        b.go(MainWindow::Measure);
        const double before = areaMm2(b.floor().measured.outline);
        QVERIFY(b.type("reading-b", "185 cm"));
        QVERIFY(areaMm2(b.floor().measured.outline) > before);
        QCOMPARE(QString::fromStdString(b.document.job().surfaces[0].measurement.readings[1]->typed),
                 QStringLiteral("185 cm"));
        // Shown in the job's unit, with what was typed behind it.
        auto* field = b.find<EntryField>("reading-b");
        b.find<EntryField>("reading-a")->setFocus();
        QCOMPARE(field->text().replace(QChar(0x202F), QLatin1Char(' ')), QStringLiteral("1 850"));
        QVERIFY(field->toolTip().contains(QStringLiteral("185 cm")));
    }

    void nonsenseStaysInTheFieldWithASentence_data() {
        QTest::addColumn<QString>("typed");
        QTest::addColumn<QString>("answer");
        QTest::newRow("word") << QStringLiteral("long") << QStringLiteral("A number is expected");
        QTest::newRow("unit") << QStringLiteral("18 parsecs") << QStringLiteral("no unit known");
        QTest::newRow("comma") << QStringLiteral("1,840") << QStringLiteral("two ways");
        QTest::newRow("huge") << QStringLiteral("999999999999") << QStringLiteral("too large");
        QTest::newRow("unfinished") << QStringLiteral("620+") << QStringLiteral("missing at the end");
    }
    void nonsenseStaysInTheFieldWithASentence() {
        QFETCH(QString, typed);
        QFETCH(QString, answer);
        Bench b(demoFloor());
        b.go(MainWindow::Measure);
        const Job before = b.document.job();
        QVERIFY(b.type("reading-a", typed.toUtf8().constData()));
        auto* field = b.find<EntryField>("reading-a");
        QVERIFY(field->isWrong());
        QCOMPARE(field->text(), typed); // nothing typed is lost
        QVERIFY2(b.sentenceShown().contains(answer), qPrintable(b.sentenceShown()));
        QVERIFY(b.document.job() == before);
        QTest::keyClick(field, Qt::Key_Escape);
        QVERIFY(!field->isWrong());
        QVERIFY(!b.sentenceShown().contains(answer));
    }

    void badReadingsAreAnsweredInPlace_data() {
        QTest::addColumn<QString>("field");
        QTest::addColumn<QString>("typed");
        QTest::addColumn<QString>("answer");
        QTest::newRow("zero") << "reading-a"
                              << "0"
                              << "more than nothing";
        QTest::newRow("negative") << "reading-a"
                                  << "-5"
                                  << "more than nothing";
        QTest::newRow("absurd") << "reading-a"
                                << "99 m"
                                << "Is the unit right?";
        QTest::newRow("cannot close") << "reading-e"
                                      << "5490"
                                      << "cannot meet";
        QTest::newRow("blunder") << "reading-f"
                                 << "3958"
                                 << "Take the diagonal f again";
        QTest::newRow("notch outside") << "reading-Notch 1, from rear"
                                       << "3200"
                                       << "It is left out";
        QTest::newRow("notch too deep") << "reading-Notch 1, deep"
                                        << "3000"
                                        << "It is left out";
        QTest::newRow("step outside") << "reading-Corner 1, along"
                                      << "5000"
                                      << "It is left out";
    }
    void badReadingsAreAnsweredInPlace() {
        QFETCH(QString, field);
        QFETCH(QString, typed);
        QFETCH(QString, answer);
        Bench b(demoFloor());
        b.go(MainWindow::Measure);
        QVERIFY(b.type(field.toUtf8().constData(), typed.toUtf8().constData()));
        QVERIFY2(b.sentenceShown().contains(answer), qPrintable(b.sentenceShown()));
        QVERIFY(b.figure("Remarks").needsAttention);
        QTest::keyClick(b.window.get(), Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(settlePlan(b.document));
        QVERIFY(b.document.job() == demoFloor());
    }

    void cutOutsAreAddedMeasuredMovedAndRemoved() {
        Bench b(newJob("New van", "Floor", starterCatalogue(), Currency{}));
        QVERIFY(b.type("reading-a", "3000"));
        QVERIFY(b.type("reading-b", "1800"));
        QVERIFY(b.click("addNotch"));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("still needs")));
        QVERIFY(b.type("reading-Notch 1, from rear", "800"));
        QVERIFY(b.type("reading-Notch 1, long", "700"));
        QVERIFY(b.type("reading-Notch 1, deep", "200"));
        QVERIFY(std::abs(areaMm2(b.floor().measured.outline) - (3000.0 * 1800 - 700.0 * 200)) < 1);
        QVERIFY(b.click("addStep"));
        QVERIFY(b.type("reading-Corner 1, along", "500"));
        QVERIFY(b.type("reading-Corner 1, across", "200"));
        QVERIFY(std::abs(areaMm2(b.floor().measured.outline) - (3000.0 * 1800 - 700.0 * 200 - 500.0 * 200)) < 1);
        push(b.document, removeNotch(b.document, "floor", 0));
        QVERIFY(settlePlan(b.document));
        QCoreApplication::processEvents();
        QVERIFY(!b.find<EntryField>("reading-Notch 1, long"));
        QVERIFY(std::abs(areaMm2(b.floor().measured.outline) - (3000.0 * 1800 - 500.0 * 200)) < 1);
    }

    void theFirstFieldOfANewNotchTakesTheKeys() {
        Bench b(demoFloor());
        b.go(MainWindow::Measure);
        const std::size_t before = b.document.job().surfaces[0].measurement.notches.size();
        QVERIFY(b.click("addNotch"));
        QCoreApplication::processEvents();
        const auto* field = qobject_cast<EntryField*>(QApplication::focusWidget());
        QVERIFY(field);
        QTest::keyClicks(QApplication::focusWidget(), QStringLiteral("1200"));
        QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
        const Notch& n = b.document.job().surfaces[0].measurement.notches[before];
        QVERIFY(n.position && n.position->length.value == 1200);
        // Its fields do not lie on each other before they have values.
        std::vector<QRect> boxes;
        for (const auto* f : b.window->findChildren<EntryField*>())
            if (f->isVisible() && plain(f->objectName()).startsWith(QStringLiteral("reading-Notch")))
                boxes.push_back(QRect(f->mapToGlobal(QPoint()), f->size()));
        QVERIFY(boxes.size() >= 3);
        for (std::size_t i = 0; i < boxes.size(); ++i)
            for (std::size_t k = 0; k < i; ++k) QVERIFY(!boxes[i].adjusted(10, 4, -10, -4).intersects(boxes[k]));
    }

    void theWayOfMeasuringIsChosen() {
        Bench b(newJob("New van", "Floor", starterCatalogue(), Currency{}));
        QVERIFY(!b.find<EntryField>("reading-e"));
        auto* form = b.find<QComboBox>("form");
        form->setFocus();
        QTest::keyClick(form, Qt::Key_Down);
        QVERIFY(b.find<EntryField>("reading-e"));
        for (const auto& [field, text] :
             {std::pair{"reading-a", "3640"}, {"reading-b", "1785"}, {"reading-c", "3628"}, {"reading-d", "1792"}})
            QVERIFY(b.type(field, text));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("taken as square")));
        QVERIFY(b.type("reading-e", "4049"));
        QVERIFY(b.sentenceShown().contains(QStringLiteral("The readings close")));
    }

    void inchesAreTypedAndShownAsChosen() {
        Bench b(demoFloor());
        b.go(MainWindow::Measure);
        push(b.document, chooseUnits(b.document, LengthUnit::Inch, LengthUnit::Inch));
        QVERIFY(b.type("reading-a", "143 1/2"));
        QCOMPARE(b.document.job().surfaces[0].measurement.readings[0]->length.value, 143.5 * 25.4);
        b.find<EntryField>("reading-b")->setFocus();
        QCOMPARE(b.find<EntryField>("reading-a")->text(), QStringLiteral("143 1/2\""));
    }
};
WESTRUM_TEST(MeasureStageTest)

#include "measure_stage_test.moc"
