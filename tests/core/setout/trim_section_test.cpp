#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/setout/trim_section.h"

#include "tests/support/registry.h"

#include <cmath>
#include <numbers>

using namespace westrum;

class TrimSectionTest : public QObject {
    Q_OBJECT
    static TrimLength trim(Profile profile, double width, double thickness) {
        TrimLength t;
        t.profile = profile;
        t.width = {width};
        t.thickness = {thickness};
        return t;
    }

private slots:
    void everySectionIsAsWideAndThickAsItsTrim() {
        for (int k = 0; k < kProfiles; ++k) {
            const auto profile = static_cast<Profile>(k);
            const Ring ring = trimSection(trim(profile, 30, 10));
            QVERIFY2(signedArea(ring) > 0, qPrintable(QString::number(k))); // counter-clockwise
            const Bounds b = boundsOf(ring);
            QCOMPARE(b.low.x, 0.0);
            QVERIFY(std::abs(b.height() - 30) < 0.1);
            // Angle, cove and quadrant stand as far into the room as they are high.
            const bool twoLegs = profile == Profile::Angle || profile == Profile::Cove || profile == Profile::Quadrant;
            QVERIFY(std::abs(b.width() - (twoLegs ? 30 : 10)) < 0.1);
        }
    }

    void quadrantIsAQuarterOfACircle() {
        // A quarter of pi r^2; chords within 0.05 mm lose less than 0.05 times the arc, 1.6 r.
        const double area = signedArea(trimSection(trim(Profile::Quadrant, 20, 20)));
        QVERIFY(std::abs(area - std::numbers::pi * 100) < 0.05 * 1.6 * 20);
    }

    void squareCornerIsCopedToTheSectionItself() {
        // A quadrant of 20 mm at a square corner: at the foot the coped piece is cut back by 20 mm, at half the
        // height by 20 x sqrt(1 - 0.5^2) = 17.32 mm, at the top it reaches into the corner.
        const Ring line = copeLine(trimSection(trim(Profile::Quadrant, 20, 20)), std::numbers::pi / 2);
        QVERIFY(std::abs(line.front().x - 20) < 0.06);
        QVERIFY(std::abs(line[line.size() / 2].x - 17.32) < 0.06);
        QCOMPARE(line[line.size() / 2].y, 10.0);
        QVERIFY(line.back().x < 0.3);
    }

    void sharpCornerDrawsTheLineOut() {
        // 10 mm thick, its edge rounded over: at 90 degrees cut back by 10 mm at the foot, at 60 by 10 / sin 60
        // = 11.55.
        const Ring section = trimSection(trim(Profile::Skirting, 60, 10));
        QVERIFY(std::abs(copeLine(section, std::numbers::pi / 2).front().x - 10) < 0.05);
        QVERIFY(std::abs(copeLine(section, std::numbers::pi / 3).front().x - 11.547) < 0.05);
    }

    void copeNeverReachesBeyondTheCorner() {
        for (int k = 0; k < kProfiles; ++k)
            for (const double degrees : {35.0, 80.0, 90.0, 125.0}) {
                const Ring line =
                    copeLine(trimSection(trim(static_cast<Profile>(k), 25, 8)), degrees * std::numbers::pi / 180);
                double least = 1e9;
                for (const Point& p : line) least = std::min(least, p.x);
                QVERIFY(std::abs(least) < 1e-9);
                for (std::size_t i = 1; i < line.size(); ++i) QVERIFY(line[i].y > line[i - 1].y);
            }
    }
};

WESTRUM_TEST(TrimSectionTest)
#include "trim_section_test.moc"
