#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/geometry/boolean.h"
#include "core/plan/cut_order.h"
#include "core/plan/cut_problems.h"
#include "core/plan/hand_place.h"
#include "tests/support/cuts.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;
using namespace westrum::test;

/// The order of cuts carried out with an imaginary saw, and pieces put down by an imaginary hand.
class CutOrderTest : public QObject {
    Q_OBJECT

    struct Part {
        double x, y, w, h;
    };

    /// Carries the strokes out on a sheet. Empty if each goes right across one part that is there by then, and every
    /// piece has come off in the end; else what went wrong.
    static QString sawn(const CutItem& sheet) {
        constexpr double kFuzz = 0.02;
        std::vector<Part> parts{{0, 0, sheet.lengthMm, sheet.widthMm}};
        int number = 0;
        for (const CutStep& s : sheet.order) {
            ++number;
            const bool across = s.kind == CutStep::Kind::Across;
            const auto part = std::find_if(parts.begin(), parts.end(), [&](const Part& p) {
                const double low = across ? p.x : p.y, high = low + (across ? p.w : p.h);
                const double from = across ? p.y : p.x, to = from + (across ? p.h : p.w);
                // A trimmed edge is cut over its whole length, though the end of it is off already.
                return s.atMm >= low - kFuzz && s.atMm < high - kFuzz && s.fromMm <= from + kFuzz &&
                       s.toMm >= to - kFuzz && s.fromMm >= from - 10 && s.toMm <= to + 10;
            });
            if (part == parts.end())
                return QStringLiteral("stroke %1 goes right across nothing that is in hand").arg(number);
            const Part whole = *part;
            parts.erase(part);
            const double near = s.atMm - (across ? whole.x : whole.y);
            const double far = (across ? whole.w : whole.h) - near - sheet.kerfMm;
            if (near > kFuzz)
                parts.push_back(across ? Part{whole.x, whole.y, near, whole.h} : Part{whole.x, whole.y, whole.w, near});
            if (far > kFuzz)
                parts.push_back(across ? Part{s.atMm + sheet.kerfMm, whole.y, far, whole.h}
                                       : Part{whole.x, s.atMm + sheet.kerfMm, whole.w, far});
        }
        for (const LyingPiece& l : sheet.pieces) {
            const Bounds b = boundsOf(l.shape);
            const bool off = std::any_of(parts.begin(), parts.end(), [&](const Part& p) {
                return std::abs(p.x - b.low.x) < kFuzz && std::abs(p.y - b.low.y) < kFuzz &&
                       std::abs(p.w - b.width()) < kFuzz && std::abs(p.h - b.height()) < kFuzz;
            });
            if (!off) return QStringLiteral("%1 never comes off").arg(QString::fromStdString(l.name.key()));
        }
        return {};
    }

private slots:
    void everySheetIsSawnInItsOrder() {
        std::mt19937 random(5);
        const auto whole = [&](int low, int high) {
            return double(std::uniform_int_distribution<int>(low, high)(random));
        };
        for (int round = 0; round < 30; ++round) {
            const Product ply = product("sheet",
                                        {{"length", 2440},
                                         {"width", 1220},
                                         {"kerf", whole(1, 5)},
                                         {"edgeTrim", whole(0, 1) * 8},
                                         {"grain", whole(0, 1)}},
                                        100);
            std::vector<CutPiece> pieces;
            for (int i = 0; i < 3 + round % 14; ++i)
                pieces.push_back(wanted(QStringLiteral("p%1").arg(i).toStdString(), whole(80, 1200), whole(60, 600)));
            const ProductCut cut =
                cutProduct(problemOf(ply, pieces), {.seed = std::uint64_t(round), .iterations = 200});
            for (const CutItem& item : cut.items)
                QVERIFY2(sawn(item).isEmpty(), qPrintable(QStringLiteral("round %1: %2").arg(round).arg(sawn(item))));
        }
    }

    void leftoversComeOffWholeToo() {
        // What is named as left is a part that the saw leaves: no piece and no stroke goes through it.
        const Product ply = product("sheet", {{"length", 2440}, {"width", 1220}, {"kerf", 3}, {"edgeTrim", 5}}, 100);
        const ProductCut cut =
            cutProduct(problemOf(ply, {wanted("a", 1500, 700), wanted("b", 600, 300), wanted("c", 400, 900)}),
                       {.iterations = 300});
        int found = 0;
        for (const CutItem& item : cut.items)
            for (const LeftRectangle& left : item.left) {
                ++found;
                QVERIFY(std::max(left.widthMm, left.heightMm) >= 300 && std::min(left.widthMm, left.heightMm) >= 150);
                for (const LyingPiece& l : item.pieces) {
                    const Bounds b = boundsOf(l.shape);
                    QVERIFY(b.high.x <= left.x + 0.01 || b.low.x >= left.x + left.widthMm - 0.01 ||
                            b.high.y <= left.y + 0.01 || b.low.y >= left.y + left.heightMm - 0.01);
                }
                for (const CutStep& s : item.order) {
                    const bool across = s.kind == CutStep::Kind::Across;
                    const double low = across ? left.x : left.y, high = low + (across ? left.widthMm : left.heightMm);
                    const double from = across ? left.y : left.x, to = from + (across ? left.heightMm : left.widthMm);
                    QVERIFY(s.atMm <= low + 0.01 || s.atMm >= high - 0.01 || s.toMm <= from + 0.01 ||
                            s.fromMm >= to - 0.01);
                }
            }
        QVERIFY(found > 0);
    }

    void noStrokeAcrossARollGoesThroughAPiece() {
        std::mt19937 random(3);
        const auto whole = [&](int low, int high) {
            return double(std::uniform_int_distribution<int>(low, high)(random));
        };
        for (int round = 0; round < 15; ++round) {
            const Product lining = product("roll", {{"rollWidth", 1500}, {"gap", 4}, {"step", 50}});
            std::vector<CutPiece> pieces;
            for (int i = 0; i < 2 + round; ++i)
                pieces.push_back(wanted(QStringLiteral("p%1").arg(i).toStdString(), whole(100, 900), whole(100, 1490)));
            const ProductCut cut = cutProduct(problemOf(lining, pieces), {.iterations = 200});
            std::set<int> freed;
            for (const CutStep& s : cut.items[0].order) {
                freed.insert(s.frees.begin(), s.frees.end());
                if (s.kind != CutStep::Kind::Across) continue;
                for (const LyingPiece& l : cut.items[0].pieces) {
                    const Bounds b = boundsOf(l.shape);
                    QVERIFY(s.atMm <= b.low.x + 0.05 || s.atMm >= b.high.x - 0.05);
                }
            }
            QCOMPARE(freed.size(), pieces.size());
            // Strokes to be marked come first, from the free end on.
            double last = 0;
            bool outlines = false;
            for (const CutStep& s : cut.items[0].order) {
                outlines = outlines || s.kind == CutStep::Kind::ByOutline;
                if (s.kind == CutStep::Kind::Across) {
                    QVERIFY(!outlines && s.atMm > last);
                    last = s.atMm;
                }
            }
        }
    }

    /// Wherever a piece is put down: if it is said to fit, it is within the stock, clear of what is pinned, and no
    /// farther from the hand than it may snap.
    void whatFitsByHandKeepsTheRules() {
        std::mt19937 random(9);
        const auto whole = [&](int low, int high) {
            return double(std::uniform_int_distribution<int>(low, high)(random));
        };
        int fitted = 0, refused = 0;
        for (int round = 0; round < 60; ++round) {
            const bool sheet = round % 2 == 0;
            const Product p = sheet
                                  ? product("sheet", {{"length", 2000}, {"width", 1000}, {"kerf", 3}, {"edgeTrim", 5}})
                                  : product("roll", {{"rollWidth", 1000}, {"gap", 4}, {"step", 100}});
            const CutPiece fixed = wanted("fixed", whole(300, 900), whole(200, 700)),
                           loose = wanted("loose", whole(100, 700), whole(100, 600));
            CutProblem problem = problemOf(p, {fixed, loose});
            problem.kept = {keep("", fixed, {5, 5})};
            const ProductCut cut = cutProduct(problem, {.iterations = 20});
            const Point wish{whole(0, 1900), whole(0, 900)};
            const double reach = 30;
            const HandPlace put = placeByHand(problem, cut, 0, 1, 0, wish, reach);
            if (!put.fits) {
                ++refused;
                continue;
            }
            ++fitted;
            const double gap = sheet ? 3 : 4, trim = sheet ? 5 : 0;
            QVERIFY(put.at.x >= trim - 0.03 && put.at.y >= trim - 0.03 &&
                    put.at.y + loose.widthMm() <= 1000 - trim + 0.03);
            if (sheet) QVERIFY(put.at.x + loose.lengthMm() <= 2000 - trim + 0.03);
            QVERIFY(put.at.x >= 5 + fixed.lengthMm() + gap - 0.05 || put.at.y >= 5 + fixed.widthMm() + gap - 0.05);
            QVERIFY(std::abs(put.at.x - wish.x) <= (sheet ? reach : 2 * reach) + 0.01 &&
                    std::abs(put.at.y - wish.y) <= reach + 0.01);
        }
        QVERIFY(fitted > 10 && refused > 5);
    }
};

WESTRUM_TEST(CutOrderTest)
#include "cut_order_test.moc"
