#include <QtTest>

#include "app/document/commands.h"
#include "app/document/option_worker.h"
#include "app/document/shell_commands.h"
#include "formats/demo.h"
#include "formats/words.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"
#include "tests/support/settle.h"

#include <functional>

using namespace westrum;
using namespace westrum::test;

class BuildUpCommandsTest : public QObject {
    Q_OBJECT
    static std::unique_ptr<JobDocument> opened() {
        auto d = std::make_unique<JobDocument>();
        d->cutting().setPatience(0.001);
        d->open(demoJob(), {});
        return d;
    }

private slots:
    void everyCommandUndoesAndRedoes() {
        auto d = opened();
        const std::vector<std::function<Command(JobDocument&)>> commands{
            [](JobDocument& j) { return addLayer(j, "ceiling", "primer"); },
            [](JobDocument& j) { return addLayer(j, "ceiling", "foam-30", 0); },
            [](JobDocument& j) { return removeLayer(j, "ceiling", 0); },
            [](JobDocument& j) { return moveLayer(j, "ceiling", 0, 3); },
            [](JobDocument& j) { return replaceLayer(j, "ceiling", 3, "spruce-board"); },
            [](JobDocument& j) { return setBolted(j, "floor", 0, true); },
            [](JobDocument& j) { return setRule(j, "ceiling", "between", 0, 0); },
            [](JobDocument& j) {
                return setRules(j, "ceiling", {{"start", 1}, {"jointing", 2}});
            },
            [](JobDocument& j) {
                return moveJoints(j, "right-lower", {1500, 2500}, 1);
            },
            [](JobDocument& j) { return moveStartLine(j, "ceiling", {12}, 2); },
            [](JobDocument& j) { return moveAllowance(j, "left-lower", "allowance", {52}, 4); },
            [](JobDocument& j) { return moveAllowance(j, "garage-floor", "upstand", {75}, 5); },
            [](JobDocument& j) { return moveStartColumn(j, "wet-cell-1", {30}, 3); },
            [](JobDocument& j) { return addOption(j, "ceiling", "third"); },
            [](JobDocument& j) { return removeOption(j, "ceiling", 0); },
            [](JobDocument& j) { return renameOption(j, "ceiling", 1, "painted"); },
            [](JobDocument& j) { return chooseOption(j, "ceiling", 1); },
            [](JobDocument& j) { return copyBuildUp(j, "ceiling", "kitchen-front"); },
            [](JobDocument& j) { return chooseTrim(j, "ceiling", std::string(kNoTrim)); },
            [](JobDocument& j) { return chooseProduct(j, "ceiling", "cedar-board"); },
            [](JobDocument& j) {
                return setHeadroom(j, {mm(1800), {}, {}, mm(1700)});
            },
            [](JobDocument& j) { return removeProduct(j, "yacht-varnish"); },
            [](JobDocument& j) {
                return mergeProducts(
                    j, {{"primer", "coating", "New primer", "", {}, {}}, {"fresh", "sheet", "Fresh", "", {}, {}}});
            }};
        for (std::size_t i = 0; i < commands.size(); ++i) {
            const Job before = d->job();
            push(*d, commands[i](*d));
            const Job after = d->job();
            QVERIFY2(!(after == before), qPrintable(QStringLiteral("command %1 changed nothing").arg(i)));
            d->undoStack().undo();
            QVERIFY2(d->job() == before, qPrintable(QString::number(i)));
            d->undoStack().redo();
            QVERIFY2(d->job() == after, qPrintable(QString::number(i)));
            d->undoStack().undo();
        }
    }

    void aDraggedJointIsOneStep() {
        auto d = opened();
        const int steps = d->undoStack().index();
        for (double x = 1500; x < 1560; x += 10) push(*d, moveJoints(*d, "right-lower", {x}, 77));
        QCOMPARE(d->undoStack().index(), steps + 1);
        QCOMPARE(d->job().face("right-lower")->joints.front(), 1550.0);
    }

    void anotherFamilyForgetsTheRulesOfTheOneBefore() {
        auto d = opened();
        push(*d, setRule(*d, "ceiling", "jointing", 1));
        push(*d, chooseProduct(*d, "ceiling", "spruce-board")); // boards again: how they are laid stays
        QCOMPARE(d->job().face("ceiling")->rules.at("jointing"), 1.0);
        push(*d, chooseProduct(*d, "ceiling", "poplar-ply-4"));
        QVERIFY(!d->job().face("ceiling")->rules.contains("jointing"));
        QCOMPARE(d->job().finish("ceiling").layers.size(), 5U); // in its place
        push(*d, chooseProduct(*d, "ceiling", ""));
        QVERIFY(!d->job().face("ceiling"));
    }

    void layersAreAddedWhereTheyBelong() {
        auto d = opened();
        push(*d, addLayer(*d, "kitchen-front", "chalk-paint"));
        push(*d, addLayer(*d, "kitchen-front", "pipit-none")); // no such product: nothing is added
        push(*d, addLayer(*d, "kitchen-front", "poplar-ply-4"));
        push(*d, addLayer(*d, "kitchen-front", "film-barrier"));
        const auto& layers = d->job().finish("kitchen-front").layers;
        QCOMPARE(layers.size(), 3U);
        QCOMPARE(layers[0].product, std::string("film-barrier"));
        QCOMPARE(layers[2].product, std::string("chalk-paint"));
    }

    void copyingLeavesJointsBehindAndTheNameThere() {
        auto d = opened();
        push(*d, moveJoints(*d, "right-lower", {1500}, 1));
        push(*d, renameOption(*d, "left-lower", 0, "mine"));
        push(*d, copyBuildUp(*d, "right-lower", "left-lower"));
        QCOMPARE(d->job().finish("left-lower").name, std::string("mine"));
        QCOMPARE(d->job().finish("left-lower").layers.size(), d->job().finish("right-lower").layers.size());
        QVERIFY(d->job().face("left-lower")->joints.empty());
    }

    void theLayerInHandHasItsOwnStarts() {
        auto d = opened();
        d->setCurrentSurface("wet-cell-1");
        QCOMPARE(d->currentLayer(), 3); // the tiles
        QVERIFY(settle(*d));
        QVERIFY(d->starts()->module > 100);
        d->setCurrentLayer(0); // the backer: panels have no start line
        QVERIFY(settle(*d));
        QCOMPARE(d->starts()->module, 0.0);
        QVERIFY(!d->starts()->choices.empty());
        push(*d, removeLayer(*d, "wet-cell-1", 0));
        QVERIFY(d->currentLayer() >= 0);
        d->setCurrentSurface("kitchen-front");
        QCOMPARE(d->currentLayer(), -1);
    }

    void onlyTheNewestQuestionOfOptionsIsAnswered() {
        OptionWorker worker;
        std::vector<std::string> answered;
        connect(&worker, &OptionWorker::found, this,
                [&](const std::string& surface, const std::vector<OptionFigures>&) { answered.push_back(surface); });
        const Job job = demoJob();
        for (int i = 0; i < 5; ++i) worker.request(job, "ceiling");
        worker.request(job, "bulkhead");
        QTRY_VERIFY_WITH_TIMEOUT(!answered.empty(), 20000);
        QTest::qWait(50);
        QCOMPARE(answered.size(), 1U);
        QCOMPARE(answered[0], std::string("bulkhead"));
    }

    void theBaseIsPutRightByTheFixes() {
        // Battens along the boards of the ceiling, and a lining glued to wool.
        Job job = demoJob();
        Surface& ceiling = *job.surface("ceiling");
        std::erase_if(ceiling.supports, [](const Support& s) { return s.kind == SupportKind::Batten; });
        ceiling.supports.push_back(
            {"Batten", SupportKind::Batten, true, test::mm(210), test::mm(45), 4, test::mm(395), {}});
        job.finishes["left-lower"].now().layers[0].product = "wool-40";
        JobDocument d;
        d.open(job, {});
        QVERIFY(settlePlan(d));
        const auto told = [&](RemarkKind kind) -> const Remark* {
            for (const Remark& r : d.plan()->remarks)
                if (r.kind == kind) return &r;
            return nullptr;
        };
        for (const auto& [kind, says] :
             {std::pair(RemarkKind::RunsAlongSupports, "Battens across"), std::pair(RemarkKind::LooseBelow, "Add ")}) {
            const Remark* r = told(kind);
            QVERIFY(r);
            QVERIFY(fixText(d.job(), *r, {}).startsWith(QLatin1String(says)));
            push(d, takeFix(d, *r));
            QVERIFY(settlePlan(d));
            QVERIFY(!told(kind));
        }
        QCOMPARE(d.job().finish("left-lower").layers.size(), job.finish("left-lower").layers.size() + 1);
        d.undoStack().undo();
        d.undoStack().undo();
        QVERIFY(d.job() == job);
    }
};
WESTRUM_TEST(BuildUpCommandsTest)

#include "build_up_commands_test.moc"
