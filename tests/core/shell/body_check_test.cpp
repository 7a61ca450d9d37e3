#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/shell/body_check.h"
#include "tests/support/registry.h"

#include <cmath>
#include <random>

using namespace westrum;

namespace {

Surface rectangleOf(const char* id, SurfaceKind kind, double length, double height) {
    Surface s;
    s.id = id;
    s.name = id;
    s.kind = kind;
    s.before = true;
    s.measurement.readings[std::size_t(QuadReading::AB)] = Reading{"", {length}};
    s.measurement.readings[std::size_t(QuadReading::BC)] = Reading{"", {height}};
    return s;
}

/// A van of a floor, two walls and a bulkhead.
std::vector<Surface> van() {
    return {rectangleOf("floor", SurfaceKind::Floor, 3600, 1780), rectangleOf("left", SurfaceKind::LeftWall, 3600, 900),
            rectangleOf("right", SurfaceKind::RightWall, 3600, 900),
            rectangleOf("bulkhead", SurfaceKind::Bulkhead, 1780, 1900)};
}

Reading mm(double v) { return {std::to_string(v), {v}}; }

} // namespace

/// Whether a van is like one that was measured before.
class BodyCheckTest : public QObject {
    Q_OBJECT
private slots:
    /// By hand, one floor of 3000 x 1000. Variance of a reading: l^2 (0.004^2 + 0.001^2) = 153 and 17 mm2; it is read
    /// twice with 2 mm each, 8 mm2. The length takes 153^2 / 161 = 145 of the doubt away, the width 17^2 / 25 = 12: the
    /// length is asked first.
    void theLongestIsAskedFirst() {
        const std::vector<Surface> floor{rectangleOf("floor", SurfaceKind::Floor, 3000, 1000)};
        const auto checks = proposedChecks(floor);
        QCOMPARE(checks.size(), std::size_t{2}); // there are no more
        QVERIFY(checks[0].key == "AB" && checks[0].before == Mm{3000});
        QCOMPARE(checks[1].key, std::string("BC"));
    }

    /// One length says something of three surfaces: the second question is of a width or a height.
    void whatIsKnownAlreadyIsNotAskedAgain() {
        const auto checks = proposedChecks(van());
        QVERIFY(checks.size() >= 3 && checks.size() <= 4);
        QCOMPARE(checks[0].key, std::string("AB"));
        QVERIFY(checks[1].surface == "bulkhead" || (checks[1].surface == "floor" && checks[1].key == "BC"));
        for (std::size_t i = 0; i < checks.size(); ++i)
            for (std::size_t j = 0; j < i; ++j)
                QVERIFY(std::pair(checks[i].surface, checks[i].key) != std::pair(checks[j].surface, checks[j].key));
        QCOMPARE(proposedChecks(van(), 1).size(), std::size_t{1});
        std::vector<Surface> ghosts = van();
        for (Surface& s : ghosts) s.measurement = {};
        QVERIFY(proposedChecks(ghosts).empty());
        std::vector<Surface> own = van();
        for (Surface& s : own) s.before = false;
        QVERIFY(proposedChecks(own).empty());
    }

    /// 3 mm is the tape; 40 mm is another van, and the walls beside the floor are doubted before anybody reads them.
    void aReadingThatDisagreesAsksForMore() {
        const std::vector<Surface> all = van();
        std::vector<BodyCheck> checks{{"floor", "AB", {3600}, mm(3603)}};
        auto verdicts = bodyVerdicts(all, checks);
        QVERIFY(verdicts.at("floor").verdict == BodyVerdict::Agrees);
        QVERIFY(verdicts.at("left").verdict == BodyVerdict::Unchecked);
        checks[0].taken = mm(3640);
        verdicts = bodyVerdicts(all, checks);
        QVERIFY(verdicts.at("floor").verdict == BodyVerdict::Differs && verdicts.at("floor").by == Mm{40});
        QVERIFY(verdicts.at("left").verdict == BodyVerdict::Doubtful);
        QCOMPARE(verdicts.at("left").key, std::string("AB"));
        // Expected by hand: 40 x 207.4 / (220.3 + 8) = 36.3, with 3600^2 x 0.004^2 = 207.4 of 220.3 shared.
        QVERIFY(std::abs(verdicts.at("left").by.value - 40 * 207.36 / 228.32) < 0.01);
        QVERIFY(verdicts.at("bulkhead").verdict == BodyVerdict::Unchecked); // it does not run that way
        // A reading of its own settles it.
        checks.push_back({"left", "AB", {3600}, mm(3600)});
        QVERIFY(bodyVerdicts(all, checks).at("left").verdict != BodyVerdict::Differs);
    }

    /// The order in which readings are taken changes nothing; and what agrees everywhere doubts nothing.
    void orderDoesNotMatter() {
        std::mt19937 dice(2);
        for (int run = 0; run < 50; ++run) {
            const std::vector<Surface> all = van();
            std::vector<BodyCheck> checks = proposedChecks(all);
            for (BodyCheck& c : checks) c.taken = mm(c.before.value + static_cast<double>(dice() % 60) - 30);
            const auto one = bodyVerdicts(all, checks);
            std::shuffle(checks.begin(), checks.end(), dice);
            const auto other = bodyVerdicts(all, checks);
            for (const auto& [surface, v] : one) {
                QVERIFY(v.verdict == other.at(surface).verdict);
                QVERIFY(std::abs(v.by.value - other.at(surface).by.value) < 1e-6);
            }
            for (BodyCheck& c : checks) c.taken = mm(c.before.value);
            for (const auto& [surface, v] : bodyVerdicts(all, checks))
                QVERIFY(v.verdict == BodyVerdict::Agrees || v.verdict == BodyVerdict::Unchecked);
        }
    }

    /// Four sides, a polygon, stations: each form says along which line it was read; a check of what is gone is passed
    /// over.
    void formsAreAllAsked() {
        Surface stations = rectangleOf("wall", SurfaceKind::LeftWall, 0, 0);
        stations.measurement = {};
        stations.measurement.form = OutlineForm::Stations;
        stations.measurement.stations.rows.resize(3);
        for (int i = 0; i < 3; ++i) {
            stations.measurement.stations.rows[std::size_t(i)].at = mm(1000 * i);
            stations.measurement.stations.rows[std::size_t(i)].offset = mm(800);
        }
        const auto checks = proposedChecks({stations});
        QVERIFY(!checks.empty());
        QCOMPARE(checks[0].key, std::string("x2")); // 2000 along
        QVERIFY(bodyVerdicts({stations}, {{"gone", "AB", {100}, mm(900)}, {"wall", "D9", {100}, mm(900)}})
                    .at("wall")
                    .verdict == BodyVerdict::Unchecked);
    }
};

WESTRUM_TEST(BodyCheckTest)
#include "body_check_test.moc"
