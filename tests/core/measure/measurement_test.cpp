#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/geometry/polygon.h"
#include "core/measure/measurement.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

namespace {

bool has(const MeasuredOutline& m, RemarkKind kind, Severity severity) {
    return std::any_of(m.remarks.begin(), m.remarks.end(),
                       [&](const Remark& r) { return r.kind == kind && r.severity == severity; });
}

double area(const Measurement& m) { return areaMm2(outlineOf(m).outline); }

} // namespace

class MeasurementTest : public QObject {
    Q_OBJECT
private slots:
    void nothingReadIsNoMistake() {
        const MeasuredOutline m = outlineOf(Measurement{});
        QVERIFY(!m.measured());
        QVERIFY(m.remarks.empty());
    }

    void aHalfReadRectangleAsksForTheOtherSide() {
        Measurement m;
        m.readings[0] = mm(3640);
        QVERIFY(has(outlineOf(m), RemarkKind::ReadingMissing, Severity::Error));
    }

    void notchesAndStepsAreTakenOut() {
        // 3000 x 1800, arches 700 x 200 on both sides, a well of 600 x 250 at the front right corner.
        Measurement m = rectangle(3000, 1800);
        m.notches = {notch(0, 800, 700, 200), notch(2, 800, 700, 200)};
        m.steps = {{"Well", 1, mm(600), mm(250)}};
        QVERIFY(std::abs(area(m) - (3000.0 * 1800 - 2 * 700.0 * 200 - 600.0 * 250)) < 0.01);
        QVERIFY(outlineOf(m).remarks.empty());
        QCOMPARE(outlineOf(m).outline.rings.front().size(), std::size_t{4 + 4 + 4 + 2});
    }

    void positionsCountFromTheRearOnBothSides() {
        Measurement m = rectangle(3000, 1800);
        m.notches = {notch(2, 100, 500, 300)}; // left side, 100 mm from the rear: x 100 to 600, y 1500 to 1800
        const Region outline = outlineOf(m).outline;
        QVERIFY(!contains(outline, {300, 1700}));
        QVERIFY(contains(outline, {2800, 1700}));
        m.notches = {notch(3, 100, 500, 300)}; // rear side, 100 mm from the right: y 100 to 600
        QVERIFY(!contains(outlineOf(m).outline, {100, 300}));
        QVERIFY(contains(outlineOf(m).outline, {100, 1700}));
    }

    void theFourCornersCanBeCut() {
        const std::array<Point, 4> inside{{{100, 100}, {2900, 100}, {2900, 1700}, {100, 1700}}};
        for (int corner = 0; corner < 4; ++corner) {
            Measurement m = rectangle(3000, 1800);
            m.steps = {{"Cut", corner, mm(400), mm(300)}};
            const Region outline = outlineOf(m).outline;
            for (int k = 0; k < 4; ++k) QCOMPARE(contains(outline, inside[static_cast<std::size_t>(k)]), k != corner);
            QVERIFY(std::abs(areaMm2(outline) - (3000.0 * 1800 - 400.0 * 300)) < 0.01);
        }
    }

    void aNotchAtALeaningCornerLeavesNoSplinter() {
        Measurement m = fourSides(3000, 1800, 3060, 1800, std::hypot(3000, 1800) + 20);
        m.notches = {notch(0, 0, 400, 300)};
        const MeasuredOutline out = outlineOf(m);
        QVERIFY(out.measured());
        QCOMPARE(out.outline.rings.size(), std::size_t{1});
    }

    void wrongReadingsAreToldAndTheRestStands() {
        Measurement m = rectangle(3000, 1800);
        m.notches = {notch(0, 2500, 700, 200)};
        QVERIFY(has(outlineOf(m), RemarkKind::NotchOutside, Severity::Error));
        QVERIFY(outlineOf(m).measured());
        m.notches = {notch(0, 800, 700, 1800)};
        QVERIFY(has(outlineOf(m), RemarkKind::NotchTooDeep, Severity::Error));
        m.notches = {notch(0, 800, -700, 200)};
        QVERIFY(has(outlineOf(m), RemarkKind::ReadingNotPositive, Severity::Error));
        m.notches = {{"Arch", 0, mm(800), std::nullopt, mm(200)}};
        QVERIFY(has(outlineOf(m), RemarkKind::CutoutIncomplete, Severity::Warning));
        m.notches.clear();
        m.steps = {{"Well", 1, mm(3000), mm(200)}};
        QVERIFY(has(outlineOf(m), RemarkKind::StepOutside, Severity::Error));
        QVERIFY(outlineOf(m).measured());
    }

    void zeroNegativeAndAbsurdSidesAreRefused() {
        QVERIFY(has(outlineOf(rectangle(0, 1800)), RemarkKind::ReadingNotPositive, Severity::Error));
        QVERIFY(has(outlineOf(rectangle(-5, 1800)), RemarkKind::ReadingNotPositive, Severity::Error));
        QVERIFY(has(outlineOf(rectangle(3, 1800)), RemarkKind::ReadingAbsurd, Severity::Error));
        QVERIFY(has(outlineOf(rectangle(99999, 1800)), RemarkKind::ReadingAbsurd, Severity::Error));
        Measurement nan = rectangle(3000, 1800);
        nan.readings[0]->length = {std::nan("")};
        QVERIFY(!outlineOf(nan).measured());
    }

    void withoutADiagonalASquareCornerIsTakenAndSaid() {
        Measurement m = fourSides(3640, 1785, 3628, 1792, 4049);
        m.readings[4].reset();
        const MeasuredOutline out = outlineOf(m);
        QVERIFY(has(out, RemarkKind::SquareAssumed, Severity::Warning));
        QVERIFY(out.measured());
        QVERIFY(std::abs(out.frame[3].x) < 1e-6);
    }

    void aBlunderIsNamedWithWhatItShouldRead() {
        Measurement m = fourSides(3640, 1785, 3628, 1792, 4049);
        m.readings[5] = mm(3958); // 100 mm short
        const MeasuredOutline out = outlineOf(m);
        const auto found = std::find_if(out.remarks.begin(), out.remarks.end(),
                                        [](const Remark& r) { return r.kind == RemarkKind::OneReadingWrong; });
        QVERIFY(found != out.remarks.end());
        QCOMPARE(found->place.key, std::string("BD"));
        const auto implied = std::find_if(found->facts.begin(), found->facts.end(),
                                          [](const auto& fact) { return fact.first == "implied"; });
        QVERIFY(implied != found->facts.end());
        QVERIFY(std::abs(std::get<Mm>(implied->second).value - 4051.5) < 0.1); // 3958 + 93.5
    }

    void cutOutsThatEatTheFloorAreTold() {
        Measurement m = rectangle(1000, 400);
        m.notches = {notch(0, 0, 1000, 399), notch(2, 0, 1000, 399)};
        QVERIFY(has(outlineOf(m), RemarkKind::OutlineEmpty, Severity::Error));
        m.notches = {notch(0, 400, 200, 350), notch(2, 400, 200, 350)};
        QVERIFY(has(outlineOf(m), RemarkKind::OutlineInPieces, Severity::Warning));
    }
};
WESTRUM_TEST(MeasurementTest)

#include "measurement_test.moc"
