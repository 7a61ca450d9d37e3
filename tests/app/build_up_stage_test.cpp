#include <QtTest>

#include "app/stages/buildup/build_up_page.h"
#include "app/stages/buildup/section_bench.h"
#include "tests/app/bench.h"
#include "tests/support/registry.h"

#include <QCheckBox>
#include <QHelpEvent>
#include <QListWidget>
#include <QToolTip>

using namespace westrum;
using namespace westrum::test;

/// The Build-up stage in the real window.
class BuildUpStageTest : public QObject {
    Q_OBJECT
    static std::unique_ptr<Bench> at(const std::string& surface) {
        auto b = std::make_unique<Bench>(demoJob());
        b->document.setCurrentSurface(surface);
        (void)settlePlan(b->document);
        b->go(MainWindow::BuildUp);
        return b;
    }
    static const std::vector<Layer>& layers(Bench& b, const std::string& surface) {
        return b.document.job().finish(surface).layers;
    }

private slots:
    void aSurfaceIsBuiltUpFromBareMetal() {
        auto b = at("kitchen-front");
        QVERIFY(b->sentenceShown().contains(QStringLiteral("What goes onto this metal?")));
        QVERIFY(b->choose("addLayer", QStringLiteral("Matt paint, chalk")));
        QVERIFY(b->choose("addLayer", QStringLiteral("Pipit poplar ply 4")));
        QCOMPARE(layers(*b, "kitchen-front").size(), 2U);
        QCOMPARE(layers(*b, "kitchen-front")[0].product, std::string("poplar-ply-4")); // under its paint
        QVERIFY(b->sentenceShown().contains(QStringLiteral("4.1 mm thick")));
        QVERIFY(b->document.plan()->surface("kitchen-front")->setOut().laid());
        b->document.undoStack().undo();
        b->document.undoStack().undo();
        QVERIFY(settlePlan(b->document));
    }

    void aLayerIsPointedAtSwappedAndTakenOut() {
        auto b = at("ceiling");
        auto* section = b->window->findChild<SectionBench*>();
        QTest::mouseClick(section, Qt::LeftButton, {}, section->middleOf(3).toPoint());
        QCOMPARE(section->layerInHand(), 3);
        QVERIFY(b->choose("layerProduct", QStringLiteral("Redstart cedar board 70")));
        QCOMPARE(layers(*b, "ceiling")[3].product, std::string("cedar-board"));
        auto* bolted = b->find<QCheckBox>("bolted");
        QVERIFY(bolted);
        bolted->click();
        QVERIFY(settlePlan(b->document));
        QVERIFY(layers(*b, "ceiling")[3].bolted);
        QVERIFY(b->sentenceShown().contains(QStringLiteral("bolts grip 9.2 mm"))); // 8 + 1.2 of metal and plate
        QVERIFY(b->click("removeLayer"));
        QCOMPARE(layers(*b, "ceiling").size(), 4U);
    }

    void insulationThatDoesNotFitIsTold() {
        auto b = at("ceiling"); // roof bows are 27 deep
        auto* section = b->window->findChild<SectionBench*>();
        section->takeInHand(0);
        emit section->picked(0);
        QVERIFY(b->choose("layerProduct", QStringLiteral("Closed-cell foam board 30")));
        // There are strips of 9 on the bows: 36 mm of room. Beside the bows there are 27 only.
        QVERIFY(b->document.plan()->surface("ceiling")->stack.remarks.empty());
        section->takeInHand(2);
        emit section->picked(2);
        auto* beside = b->find<QCheckBox>("rule-beside");
        QVERIFY(beside);
        beside->click();
        QVERIFY(settlePlan(b->document));
        QCOMPARE(b->sentenceShown(),
                 QStringLiteral("Closed-cell foam board 30 is 30 mm thick, but there is only 27 mm between the "
                                "supports: 3 mm stand out."));
    }

    void aLayerIsDraggedToAnotherPlaceAndMovedByKeys() {
        auto b = at("floor");
        auto* section = b->window->findChild<SectionBench*>();
        // The ply (3) is dragged under the battens (2): on a floor, further down.
        const QPointF from = section->middleOf(3), to = section->middleOf(0) + QPointF(0, 6);
        const QImage still = section->grab().toImage();
        QTest::mousePress(section, Qt::LeftButton, {}, from.toPoint());
        QMouseEvent move(QEvent::MouseMove, to, section->mapToGlobal(to), Qt::LeftButton, Qt::LeftButton, {});
        QCoreApplication::sendEvent(section, &move);
        QVERIFY(section->grab().toImage() != still); // where it would be put down is drawn
        QTest::mouseRelease(section, Qt::LeftButton, {}, to.toPoint());
        QVERIFY(settlePlan(b->document));
        QCOMPARE(layers(*b, "floor")[0].product, std::string("poplar-ply-12"));
        section->setFocus();
        QTest::keyClick(section, Qt::Key_Up, Qt::ShiftModifier);
        QVERIFY(settlePlan(b->document));
        QCOMPARE(layers(*b, "floor")[1].product, std::string("poplar-ply-12"));
        QTest::keyClick(section, Qt::Key_Up);
        QCOMPARE(section->layerInHand(), 2);
    }

    void headroomFollowsWhatIsLaidAndWhoStandsInIt() {
        auto b = at("floor");
        // 1884 bare at the lowest; floor 37.55, ceiling 18.34 and 2.67 of packers.
        QVERIFY2(b->sentenceShown().contains(QStringLiteral("Headroom 1 825.4 mm")), qPrintable(b->sentenceShown()));
        QVERIFY(b->sentenceShown().contains(QStringLiteral("One can stand upright")));
        QVERIFY(b->sentenceShown().contains(QStringLiteral("Step at sliding door")));
        QVERIFY(b->type("person", "1.84 m"));
        QVERIFY(b->sentenceShown().contains(QStringLiteral("One cannot stand upright")));
        QVERIFY(b->type("headMiddle", "nine"));
        QVERIFY(b->sentenceShown().contains(QStringLiteral("number is expected")));
        QTest::keyClick(b->find<EntryField>("headMiddle"), Qt::Key_Escape);
        QCOMPARE(b->document.job().headroom.middle->length.value, 1884.0);
    }

    void withoutABareHeightTheVansShapeTellsTheHeadroom() {
        auto b = at("floor");
        const auto before = b->document.plan()->headroom;
        QVERIFY(before && !before->byShape && !before->places.empty());
        for (const char* height : {"headRear", "headMiddle", "headFront"}) QVERIFY(b->type(height, ""));
        const auto after = b->document.plan()->headroom;
        QVERIFY(after && after->byShape);
        QVERIFY(!after->places.empty());
        QVERIFY(b->sentenceShown().contains(QStringLiteral("By the van's shape")));
        // Plover's walls say about what was read under its roof.
        QVERIFY(std::abs(after->left.head.value - before->left.head.value) < 60);
        // Pointed at, each place says what is left over it.
        auto* section = b->window->findChild<SectionBench*>();
        QHelpEvent help(QEvent::ToolTip, section->standingMiddle().toPoint(), QPoint());
        QApplication::sendEvent(section, &help);
        QTRY_VERIFY(QToolTip::text().contains(QStringLiteral("from the rear")));
        // Somebody taller than the room is high stands nowhere.
        QVERIFY(b->type("person", "2.1 m"));
        QCOMPARE(b->document.plan()->headroom->shareEnough(), 0.0);
    }

    void optionsAreKeptSideBySideAndChosenByAKey() {
        auto b = at("ceiling");
        auto* page = b->window->findChild<BuildUpPage*>();
        QTRY_VERIFY_WITH_TIMEOUT(!page->isWorkingOut(), 20000);
        const QString rows = b->labels(page);
        QVERIFY2(rows.contains(QStringLiteral("chosen")), qPrintable(rows));
        QVERIFY2(rows.contains(QStringLiteral("−16.")), qPrintable(rows)); // the panels are lighter by so many kg
        QTest::keyClick(b->window.get(), Qt::Key_2, Qt::ControlModifier);
        QVERIFY(settlePlan(b->document));
        QCOMPARE(b->document.job().options("ceiling").chosen, 1);
        QCOMPARE(b->document.job().face("ceiling")->product, std::string("poplar-ply-4"));
        QVERIFY(b->click("addOption"));
        QCOMPARE(b->document.job().options("ceiling").options.size(), 3U);
        auto* name = b->find<QLineEdit>("optionName");
        QVERIFY(name);
        name->setFocus();
        name->selectAll();
        QTest::keyClicks(name, QStringLiteral("sue"));
        push(b->document, setProductField(b->document, "poplar-ply-4", "thickness", 4.5));
        QTRY_VERIFY_WITH_TIMEOUT(!page->isWorkingOut(), 20000); // figures that come in take nothing away
        QTest::keyClicks(name, QStringLiteral("de"));
        QTest::keyClick(name, Qt::Key_Return);
        QCOMPARE(b->document.job().finish("ceiling").name, std::string("suede"));
        b->window->setFocus();
        QVERIFY(b->click("removeOption"));
        QCOMPARE(b->document.job().options("ceiling").options.size(), 2U);
    }

    void aBuildUpIsCopiedToAnotherSurface() {
        auto b = at("right-lower");
        QVERIFY(b->choose("copyBuildUp", QStringLiteral("Left wall, lower")));
        QCOMPARE(layers(*b, "left-lower").size(), layers(*b, "right-lower").size());
        QVERIFY(b->sentenceShown().contains(QStringLiteral("Left wall, lower has this build-up now")));
        QVERIFY(b->document.plan()->surface("left-lower")->setOut().laid());
    }

    void theCatalogueIsEditedInPlaceAndGoesOutAndIn() {
        auto b = at("ceiling");
        b->window->findChild<SectionBench*>()->takeInHand(3);
        QVERIFY(b->click("catalogue"));
        auto* panel = b->window->findChild<CataloguePanel*>();
        QVERIFY(panel->isVisible());
        QCOMPARE(b->find<QComboBox>("catalogueFamily")->currentData().toString(), QStringLiteral("boards"));
        QVERIFY(b->type("field-cover", "90"));
        QCOMPARE(b->document.job().catalogue.find("larch-board")->fields.at("cover"), 90.0);
        QVERIFY(b->type("field-cover", "-3"));
        QVERIFY(b->sentenceShown().contains(QStringLiteral("must lie between")));
        QTest::keyClick(b->find<EntryField>("field-cover"), Qt::Key_Escape);
        // What is a layer somewhere is not taken away.
        QVERIFY(b->click("removeProduct"));
        QVERIFY(b->document.job().catalogue.find("larch-board"));
        QVERIFY(b->sentenceShown().contains(QStringLiteral("stays in the catalogue")));
        const QString path = b->folder.filePath(QStringLiteral("all.csv"));
        panel->writeTo(path);
        push(b->document, removeProduct(b->document, "yacht-varnish"));
        panel->readFrom(path);
        QVERIFY(b->document.job().catalogue.find("yacht-varnish"));
        QVERIFY(b->sentenceShown().contains(QStringLiteral("taken in")));
        panel->readFrom(b->folder.filePath(QStringLiteral("no such file.csv")));
        QVERIFY(b->sentenceShown().contains(QStringLiteral("cannot be opened")));
    }

    void everySurfaceAndLightIsDrawn() {
        auto b = at("ceiling");
        for (const Surface& s : demoJob().surfaces) {
            b->document.setCurrentSurface(s.id);
            QVERIFY(settlePlan(b->document));
            QVERIFY2(inkOn(b->window->findChild<SectionBench*>()) > 0.005, s.id.c_str());
        }
    }
};
WESTRUM_TEST(BuildUpStageTest)

#include "build_up_stage_test.moc"
