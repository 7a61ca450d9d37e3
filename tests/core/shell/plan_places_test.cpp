#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/plan/balance.h"
#include "core/plan/plan.h"
#include "core/shell/fold_up.h"
#include "formats/demo.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

using namespace westrum;
using namespace westrum::test;

namespace {

Surface surface(const char* id, SurfaceKind kind, double w, double h) {
    Surface s;
    s.id = s.name = id;
    s.kind = kind;
    s.measurement = test::rectangle(w, h);
    return s;
}

bool near(Point a, Point b) { return distance(a, b) < 0.01; }

} // namespace

/// Where surfaces are in the van, and what that does to its axles.
class PlanPlacesTest : public QObject {
    Q_OBJECT
private slots:
    /// A box 3000 long, 1800 wide, 1900 high. Sides of a rectangle: 0 the lower, 1 the right, 2 the upper, 3 the left.
    void everyFaceOfABoxIsWhereItStands() {
        std::vector<Surface> all{surface("floor", SurfaceKind::Floor, 3000, 1800),
                                 surface("left", SurfaceKind::LeftWall, 3000, 1900),
                                 surface("right", SurfaceKind::RightWall, 3000, 1900),
                                 surface("bulkhead", SurfaceKind::Bulkhead, 1800, 1900),
                                 surface("ceiling", SurfaceKind::Ceiling, 3000, 1800),
                                 surface("end", SurfaceKind::Other, 600, 1900),
                                 surface("loose", SurfaceKind::Shelf, 500, 300)};
        meet(all, "floor", 2, "left", 0);
        meet(all, "floor", 0, "right", 0);
        meet(all, "floor", 1, "bulkhead", 0);
        meet(all, "left", 2, "ceiling", 0);
        meet(all, "left", 3, "end", 1); // a partition that stands against the rear end of the left wall
        std::vector<MeasuredOutline> measured;
        for (const Surface& s : all) measured.push_back(outlineOf(s.measurement));
        std::vector<TiedSurface> tied;
        for (std::size_t i = 0; i < all.size(); ++i) tied.push_back({&all[i], &measured[i]});
        const auto places = foldUp(tied).poses;
        const auto middle = [&](std::size_t i) {
            const VanPoint at = places[i]->map(centroid(measured[i].outline));
            return Point{at.x, at.y};
        };
        QVERIFY(near(middle(0), {1500, 900}));
        QVERIFY(near(middle(1), {1500, 1800})); // over the left side, whatever its height
        QVERIFY(near(middle(2), {1500, 0}));
        QVERIFY(near(middle(3), {3000, 900}));
        QVERIFY(near(middle(4), {1500, 900})); // over the floor
        // From the corner at the left of the rear end it stands 600 mm into the van: its middle at 1500.
        QVERIFY(near(middle(5), {0, 1500}));
        QVERIFY(!places[6]);
    }

    void nothingIsPlacedWithoutAFloor() {
        const Surface wall = surface("left", SurfaceKind::LeftWall, 3000, 1900);
        const MeasuredOutline measured = outlineOf(wall.measurement);
        QVERIFY(!foldUp({{&wall, &measured}}).poses[0]);
    }

    void aFloorInFrontOfTheRearAxleLoadsBoth() {
        // 2000 x 1000 of planks, 18 kg in packs of four planks of 0.2 m2: 22.5 kg/m2, 45 kg laid, its middle 1000 in
        // front of the rear edge. Rear axle 400 in front of that edge, wheelbase 3000: 600 / 3000 of it, 9 kg, on the
        // front.
        Job job = jobWith(test::rectangle(2000, 1000), plankProduct(1000, 200, 4, 4000), {{"gap", 0}});
        Plan p = plan(job);
        QCOMPARE(p.balance.added.value, 45.0);
        QVERIFY(!p.balance.wheels);
        job.mass.wheelbase = mm(3000);
        job.mass.track = mm(1600);
        job.mass.rearAxle = mm(400);
        p = plan(job);
        QVERIFY(std::abs(p.balance.wheels->frontAdded.value - 9) < 1e-9);
        QVERIFY(std::abs(p.balance.wheels->rearAdded.value - 36) < 1e-9);
        QVERIFY(std::abs(p.balance.wheels->leftAdded.value - 22.5) < 1e-9);
        const auto told = [](const Plan& of, RemarkKind kind) {
            return std::any_of(of.remarks.begin(), of.remarks.end(), [&](const Remark& r) { return r.kind == kind; });
        };
        job.mass.front = 900;
        job.mass.rear = 800;
        job.mass.rearLimit = 836; // just enough
        QVERIFY(!told(plan(job), RemarkKind::AxleOver));
        job.mass.rearLimit = 835;
        QVERIFY(told(plan(job), RemarkKind::AxleOver));
        job.mass.rearLimit.reset();
        job.mass.grossLimit = 1740; // 1745 in all
        QVERIFY(told(plan(job), RemarkKind::AxleOver));
        QVERIFY(told(plan(job), RemarkKind::SideOver)); // 872.5 on each, half of it is 870
        job.mass.allowance = 44;
        QVERIFY(told(plan(job), RemarkKind::AllowancePassed));
    }

    void whatIsTickedIsFitted() {
        Job job = jobWith(test::rectangle(2000, 1000), plankProduct(1000, 200, 4, 4000), {{"gap", 0}});
        const Plan p = plan(job);
        QCOMPARE(p.balance.fitted.value, 0.0);
        for (const FitStep& s : p.surfaces[0].steps) job.logs["floor"].done.insert(s.key);
        QCOMPARE(plan(job).balance.fitted.value, 45.0);
        // A step of the planks themselves is open again.
        for (const FitStep& s : p.surfaces[0].steps)
            if (s.layer == 0) job.logs["floor"].done.erase(s.key);
        QCOMPARE(plan(job).balance.fitted.value, 0.0);
    }

    void theExampleHangsTogether() {
        const Job job = demoJob();
        const Plan p = plan(job);
        double mass = 0;
        for (const SurfaceMass& m : p.balance.surfaces) {
            mass += m.mass.value;
            QVERIFY(m.at.x > -600 && m.at.x < 5200 && m.at.y > -300 && m.at.y < 2200);
        }
        QVERIFY(std::abs(mass - p.totals.laidMass.value) < 1e-6);
        for (const SurfaceMass& m : p.balance.surfaces)
            if (m.surface == "ceiling" || m.surface == "left-lower" || m.surface == "bulkhead") QVERIFY(!m.assumed);
    }
};

WESTRUM_TEST(PlanPlacesTest)
#include "plan_places_test.moc"
