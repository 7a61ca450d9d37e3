#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/cutting/shape_forms.h"
#include "core/geometry/boolean.h"
#include "core/geometry/net_area.h"
#include "tests/support/any_outline.h"
#include "tests/support/registry.h"

#include <numbers>
#include <random>
#include <set>

using namespace westrum;

namespace {

ShapesProblem turnable(std::vector<Ring> outlines, int steps) {
    ShapesProblem problem{.widthMm = 2000};
    for (Ring& outline : outlines) {
        ShapePiece piece{.outline = std::move(outline)};
        piece.rotationsRad.clear();
        for (int k = 0; k < steps; ++k) piece.rotationsRad.push_back(k * 2 * std::numbers::pi / steps);
        problem.pieces.push_back(std::move(piece));
    }
    return problem;
}

} // namespace

class ShapeFormsTest : public QObject {
    Q_OBJECT

private slots:
    void pairsTurnedAlikeShareARegion() {
        // Two pieces in four rotations each: of the sixteen pairs those with the same angle between them are one.
        const Ring box{{0, 0}, {300, 0}, {300, 100}, {0, 100}};
        const Ring wedge{{0, 0}, {200, 0}, {0, 90}};
        const ShapesProblem problem = turnable({box, wedge}, 4);
        ShapeForms forms(problem);
        std::set<const NoFit*> regions;
        for (const int a : forms.formsOf(0))
            for (const int b : forms.formsOf(1)) regions.insert(forms.meeting(a, b).fit);
        QCOMPARE(regions.size(), std::size_t(4));
    }

    void aTurnThatChangesNothingIsNoForm() {
        const Ring box{{0, 0}, {300, 0}, {300, 100}, {0, 100}};
        const Ring square{{0, 0}, {100, 0}, {100, 100}, {0, 100}};
        const Ring wedge{{0, 0}, {200, 0}, {0, 90}};
        const Ring notched{{0, 0}, {100, 0}, {50, 50}, {100, 100}, {0, 100}}; // turned, it keeps its corners
        ShapesProblem problem = turnable({box, square, wedge, box, notched}, 4);
        problem.pieces[3].holes = {{{20, 20}, {60, 20}, {60, 60}, {20, 60}}}; // off the middle
        const auto counts = [&] {
            const ShapeForms forms(problem);
            std::vector<std::size_t> list;
            for (std::size_t i = 0; i < problem.pieces.size(); ++i) list.push_back(forms.formsOf(i).size());
            return list;
        };
        QCOMPARE(counts(), (std::vector<std::size_t>{2, 1, 4, 4, 4}));
        // On a pattern the origin must lie on it, and a box that is turned has it at another corner.
        problem.repeat.alongMm = 70;
        problem.pieces[1].offPattern = true;
        QCOMPARE(counts(), (std::vector<std::size_t>{4, 1, 4, 4, 4}));
    }

    void whatIsForbiddenIsNotTurned() {
        ShapesProblem problem = turnable({{{0, 0}, {300, 0}, {300, 100}, {0, 60}}}, 2);
        problem.forbidden = {{{{{500, 0}, {520, 0}, {520, 2000}, {500, 2000}}}}};
        ShapeForms forms(problem);
        const auto [fit, turn] = forms.meeting(forms.obstacle(0), forms.formsOf(0)[1]);
        // Lying turned, the piece reaches from its origin back to -300: at 819 it is 1 mm short of being clear.
        QVERIFY(std::abs(fit->depth(turn({819, 500})) - 1) < 0.02);
        QCOMPARE(fit->depth(turn({821, 500})), 0.0);
    }

    /// Whichever way round two forms are asked for, their region says the same as the shapes themselves.
    void aTurnedRegionTellsOverlaps() {
        std::mt19937 dice(21);
        int touching = 0;
        for (const int steps : {4, 7}) {
            const ShapesProblem problem =
                turnable({test::anyOutline(dice, 220), test::anyOutline(dice, 160), test::anyOutline(dice, 90)}, steps);
            ShapeForms forms(problem);
            for (int n = 0; n < 400; ++n) {
                const int a = int(dice() % unsigned(forms.count()));
                const int b = int(dice() % unsigned(forms.count()));
                const Point at{double(dice() % 600) - 300, double(dice() % 600) - 300};
                const auto [fit, turn] = forms.meeting(a, b);
                const double depth = fit->depth(turn(at));
                const double shared = areaMm2(intersection(forms.form(a).region, moved(forms.form(b).region, at)));
                if (shared > 5) QVERIFY2(depth > 0, qPrintable(QString::number(shared)));
                if (depth > 0.5) QVERIFY2(shared > 0, qPrintable(QString::number(depth)));
                touching += int(depth > 0.5);
                const auto [same, round] = forms.meeting(b, a);
                QVERIFY(std::abs(same->depth(round({-at.x, -at.y})) - depth) < 0.02);
            }
        }
        QVERIFY(touching > 100);
    }
};

WESTRUM_TEST(ShapeFormsTest)
#include "shape_forms_test.moc"
