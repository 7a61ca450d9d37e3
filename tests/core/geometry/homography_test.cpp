#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/geometry/homography.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;

class HomographyTest : public QObject {
    Q_OBJECT
private slots:
    void aTrapezoidIsSetStraight() {
        // A 1000 x 600 board seen with its far edge half as long: the middle of the board is not the middle of the
        // picture.
        const auto h =
            homographyOf({{{0, 0}, {0, 0}}, {{400, 0}, {1000, 0}}, {{300, 200}, {1000, 600}}, {{100, 200}, {0, 600}}});
        QVERIFY(h.has_value());
        const Point crossing = *h->map({200, 400.0 / 3}); // where the picture's diagonals cross
        QVERIFY(distance(crossing, {500, 300}) < 1e-6);   // is where the board's do
        QVERIFY(distance(*h->inverse()->map({500, 300}), {200, 400.0 / 3}) < 1e-6);
    }

    void pointsOnALineSpanNothing() {
        QVERIFY(!homographyOf({{{0, 0}, {0, 0}}, {{1, 0}, {1, 0}}, {{2, 0}, {2, 0}}, {{0, 1}, {0, 1}}}));
        QVERIFY(!homographyOf({{{0, 0}, {0, 0}}, {{1, 0}, {1, 0}}, {{1, 1}, {1, 1}}}));
        QVERIFY(!homographyOf({{{5, 5}, {0, 0}}, {{5, 5}, {1, 0}}, {{5, 5}, {1, 1}}, {{5, 5}, {0, 1}}}));
    }

    void marksThatWouldCollapseThePictureAreRefused() {
        const auto square = [](std::vector<Point> seen) {
            const std::vector<Point> known{{0, 0}, {1000, 0}, {1000, 1000}, {0, 1000}};
            std::vector<PointPair> pairs;
            for (std::size_t k = 0; k < 4; ++k) pairs.push_back({seen[k], known[k]});
            return homographyOf(pairs);
        };
        QVERIFY(square({{100, 900}, {900, 880}, {850, 100}, {120, 150}}).has_value()); // pictures run downwards
        QVERIFY(!square({{100, 900}, {900, 880}, {120, 150}, {850, 100}}));            // two marks exchanged
        QVERIFY(!square({{100, 900}, {500, 895}, {900, 900}, {120, 150}}));            // three nearly on one line
        QVERIFY(!square({{100, 900}, {900, 880}, {450, 870}, {120, 150}}));            // one within the others
    }

    /// Any view of a plane: four points give it back everywhere, six with a pixel of error give it back to about a
    /// pixel.
    void anyViewIsUndone() {
        std::mt19937 dice(17);
        const auto unit = [&] { return (dice() % 10000) / 10000.0; };
        for (int round = 0; round < 200; ++round) {
            Homography view;
            view.m = {0.5 + unit(),  0.3 * unit(),  100 * unit(),
                      0.3 * unit(),  0.5 + unit(),  100 * unit(),
                      2e-4 * unit(), 2e-4 * unit(), 1};
            std::vector<PointPair> exact, rough;
            for (const Point p : {Point{0, 0}, {1000, 0}, {1000, 700}, {0, 700}, {500, 350}, {300, 600}}) {
                const Point seen = *view.map(p);
                exact.push_back({seen, p});
                rough.push_back({seen + Point{unit() - 0.5, unit() - 0.5}, p});
            }
            const auto four = homographyOf({exact.begin(), exact.begin() + 4});
            const auto six = homographyOf(rough);
            QVERIFY(four && six);
            for (int i = 0; i < 5; ++i) {
                const Point p{1000 * unit(), 700 * unit()};
                QVERIFY(distance(*four->map(*view.map(p)), p) < 1e-5);
                QVERIFY(distance(*six->map(*view.map(p)), p) < 6);
            }
        }
    }
};
WESTRUM_TEST(HomographyTest)

#include "homography_test.moc"
