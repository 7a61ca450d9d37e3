#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/geometry/boolean.h"
#include "core/plan/cut_problems.h"
#include "core/shell/ties.h"
#include "tests/support/any_van.h"
#include "tests/support/cuts.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;
using namespace westrum::test;

/// Linings, cushions, foam and trims of a whole van, through to what is cut and bought.
class SoftCutsTest : public QObject {
    Q_OBJECT
private slots:
    /// Whatever the van, every piece that the set-outs ask for is cut once, inside its stock, turned only as it may be,
    /// and clear of the others - by the rules restated in tests/support/cuts.h.
    void everyPieceOfAnyVanIsCutByTheRules() {
        std::mt19937 dice(77);
        int cutPieces = 0;
        for (int round = 0; round < 14; ++round) {
            const Job job = anyVan(dice);
            const Plan p = plan(job);
            for (const CutProblem& problem : cutProblems(job, p)) {
                const ProductCut cut = cutProduct(problem, {.seed = 3, .iterations = 30});
                for (const CutTrouble& t : cut.troubles) QVERIFY2(t.fault != CuttingFault::PieceCrosses, t.key.c_str());
                QVERIFY2(broken(problem, cut).isEmpty(),
                         qPrintable(QStringLiteral("%1, %2: %3")
                                        .arg(round)
                                        .arg(QString::fromStdString(problem.product.id), broken(problem, cut))));
                for (const CutItem& item : cut.items) cutPieces += static_cast<int>(item.pieces.size());
                if (problem.product.id != "carpet") continue;
                // As many linings as the set-outs have, each as large as it lies there, cut with its lines inside it.
                std::size_t wanted = 0;
                double area = 0;
                for (const SurfacePlan& s : p.surfaces)
                    for (const LayerPlan& l : s.layers)
                        if (l.product == "carpet") {
                            wanted += l.setOut.pieces.size();
                            for (const Piece& piece : l.setOut.pieces) area += areaMm2(piece.cut);
                        }
                QCOMPARE(problem.pieces.size(), wanted);
                double asked = 0;
                for (const CutPiece& piece : problem.pieces) {
                    asked += areaMm2(piece.shape);
                    const Bounds b = boundsOf(piece.shape);
                    QVERIFY(std::abs(b.low.x) < 1e-6 && std::abs(b.low.y) < 1e-6);
                    for (const Ring& line : piece.folds)
                        for (const Point& q : line)
                            QVERIFY(q.x > -1 && q.y > -1 && q.x < b.high.x + 1 && q.y < b.high.y + 1);
                }
                QVERIFY(std::abs(asked - area) < 1);
            }
        }
        QVERIFY(cutPieces > 150);
    }

    /// What is cut is bought, each product once, and the total is the sum.
    void whatIsCutIsBoughtToTheCent() {
        std::mt19937 dice(5);
        for (int round = 0; round < 6; ++round) {
            const Job job = anyVan(dice);
            const Plan p = plan(job);
            std::vector<ProductCut> cuts;
            for (const CutProblem& problem : cutProblems(job, p))
                cuts.push_back(cutProduct(problem, {.seed = 3, .iterations = 10}));
            const Plan bought = withCuts(p, job, cuts);
            std::int64_t sum = 0;
            std::set<std::string> products;
            for (const Purchase& each : bought.purchases) {
                QVERIFY(products.insert(each.product + each.size).second);
                if (each.cost) sum += each.cost->minor;
            }
            if (bought.totals.cost) QCOMPARE(bought.totals.cost->minor, sum);
            for (const ProductCut& cut : cuts) {
                if (cut.form != StockForm::Roll || cut.items.empty() || !cut.troubles.empty()) continue;
                const auto own = std::find_if(bought.purchases.begin(), bought.purchases.end(),
                                              [&](const Purchase& q) { return q.product == cut.product; });
                QVERIFY(own != bought.purchases.end());
                double metres = 0;
                for (const CutItem& item : cut.items) metres += item.lengthMm;
                QVERIFY(std::abs(own->lengthNeeded.value - metres) < 1e-6);
            }
        }
    }

    /// The same van again gives the same pieces and the same layout, bit for bit.
    void theSameVanIsCutTheSame() {
        std::mt19937 one(31), two(31);
        const Job a = anyVan(one), b = anyVan(two);
        const auto first = cutProblems(a, plan(a)), second = cutProblems(b, plan(b));
        QVERIFY(first == second);
        for (std::size_t i = 0; i < first.size(); ++i)
            QVERIFY(cutProduct(first[i], {.seed = 9, .iterations = 20}) ==
                    cutProduct(second[i], {.seed = 9, .iterations = 20}));
    }
};

WESTRUM_TEST(SoftCutsTest)
#include "soft_cuts_test.moc"
