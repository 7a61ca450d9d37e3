#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/vanwork/work_days.h"
#include "core/vanwork/work_plan.h"
#include "formats/demo.h"
#include "tests/support/registry.h"

#include <algorithm>

using namespace westrum;

/// The calendar: dates, changing clocks, light, weather.
class WorkDaysTest : public QObject {
    Q_OBJECT
private slots:
    void datesCountRight() {
        QCOMPARE(weekdayOf({2027, 3, 13}), 5); // a Saturday
        QCOMPARE(dayNumber({1970, 1, 1}), 0);
        QCOMPARE(dayNumber({2000, 3, 1}),
                 11017); // 30 years of 365 and 8 leap days (1972 to 2000) and 59: 10950 + 8 + 59
        QVERIFY((CivilDate{2028, 2, 28}) + 1 == (CivilDate{2028, 2, 29}));
        QVERIFY((CivilDate{2027, 2, 28}) + 1 == (CivilDate{2027, 3, 1}));
        QCOMPARE(dayOfYear({2028, 12, 31}), 366);
        for (int n = -20000; n < 90000; n += 37) QCOMPARE(dayNumber(dayOfNumber(n)), n);
        QCOMPARE(isoDate({2027, 3, 5}), std::string("2027-03-05"));
        QVERIFY(parseIsoDate("2028-02-29") == (CivilDate{2028, 2, 29}));
        for (const char* wrong :
             {"", "2027-02-29", "2027-13-01", "2027-3-1", "27-03-01", "2027/03/01", "abcd-ef-gh", "9999-01-01"})
            QVERIFY2(!parseIsoDate(wrong), wrong);
    }

    /// In Europe the last Sunday of March 2027 is the 28th and has 23 hours, that of October the 31st and 25; in North
    /// America 14 March and 7 November. A wait of a day across it ends an hour later on the wall.
    void clocksChange() {
        const WorkSite europe{};
        const WorkClock clock({2027, 3, 20}, europe);
        const auto length = [&](const WorkClock& c, const CivilDate& d) { return c.at(d + 1, 0) - c.at(d, 0); };
        QCOMPARE(length(clock, {2027, 3, 27}), 1440);
        QCOMPARE(length(clock, {2027, 3, 28}), 1380);
        QCOMPARE(length(clock, {2027, 10, 31}), 1500);
        QCOMPARE(clock.at({2027, 3, 28}, 900) - clock.at({2027, 3, 27}, 900), 1380);
        const int evening = clock.at({2027, 3, 27}, 17 * 60);
        QVERIFY(clock.moment(evening + 1440) == (WorkClock::Moment{{2027, 3, 28}, 18 * 60}));
        WorkSite america{.longitudeDeg = -90, .utcOffset = -360, .change = ClockChange::NorthAmerica};
        const WorkClock there({2027, 3, 1}, america);
        QCOMPARE(length(there, {2027, 3, 14}), 1380);
        QCOMPARE(length(there, {2027, 11, 7}), 1500);
        america.change = ClockChange::None;
        QCOMPARE(length(WorkClock({2027, 3, 1}, america), {2027, 3, 14}), 1440);
        // There and back, every quarter of an hour of two years.
        for (int t = -3000; t < 2 * 366 * 1440; t += 15) {
            const WorkClock::Moment m = clock.moment(t);
            // The hour that comes twice in autumn is told once.
            const int back = clock.at(m);
            QVERIFY2(back == t || std::abs(back - t) == 60, std::to_string(t).c_str());
        }
    }

    /// 52 N 5 E on 20 March 2027: sunrise 345, sunset 1071 minutes UTC; an hour later on the wall in winter: 6:45,
    /// 18:51.
    void lightIsToldByTheWall() {
        const WorkSite site{};
        DayLight light = dayLightOn(site, {2027, 3, 20});
        QVERIFY(std::abs(*light.from - 405) <= 3 && std::abs(*light.to - 1131) <= 3);
        light = dayLightOn(site, {2027, 3, 28}); // in summer time
        QVERIFY(*light.to > 1131 + 60);
        QVERIFY(dayLightOn({.latitudeDeg = 80}, {2027, 12, 20}).never);
        QVERIFY(!dayLightOn({.latitudeDeg = 80}, {2027, 6, 20}).to);
    }

    /// Shops shut at 17:00 on a Saturday and do not open on a Sunday: work from 15:00 to 18:00 is open for two hours
    /// and shut for one.
    void stretchesArePartedWhereShopsShut() {
        WorkSettings s;
        s.week = {};
        s.week[5] = s.week[6] = {{900, 1080, 2}};
        const WorkClock clock({2027, 5, 8}, s.site); // a Saturday in May: it is light throughout
        const WorkDays all = workDays(s, clock, 0, 2);
        QCOMPARE(all.windows.size(), std::size_t{3});
        QVERIFY(all.windows[0].open && !all.windows[1].open && !all.windows[2].open);
        QCOMPARE(all.windows[0].end - all.windows[0].start, 120);
        s.shops[5] = {};
        QCOMPARE(workDays(s, clock, 0, 2).windows.size(), std::size_t{2});
        // Trips of the example are made on days on which shops are open.
        const Job job = demoJob();
        const WorkPlan work = planVan(workQuestion(job, plan(job), demoNow()), {.iterations = 1});
        const WorkQuestion q = workQuestion(job, plan(job), demoNow());
        int trips = 0;
        for (std::size_t i = 0; i < q.net.items.size(); ++i)
            if (q.net.items[i].kind == WorkKind::Trip || q.net.items[i].kind == WorkKind::Weigh)
                for (const WorkPart& part : work.parts(static_cast<int>(i))) {
                    const WorkClock::Moment m = work.clock.moment(part.start);
                    const WorkDay& open = shopsOn(job.work, m.day);
                    QVERIFY(std::any_of(open.begin(), open.end(), [&](const WorkSpan& o) {
                        return m.minute >= o.from && work.clock.moment(part.end).minute <= o.to;
                    }));
                    ++trips;
                }
        QVERIFY(trips > 2);
    }

    /// An evening from 18:00 to 21:00 on 20 March gets dark at about 18:51: a lit window and a dark one, both with one
    /// person. A day off has none, and an extra day has its own.
    void stretchesArePartedWhereItGetsDark() {
        WorkSettings s;
        s.week = {};
        s.week[5] = {{1080, 1260, 1}};
        s.days[{2027, 3, 27}] = {};
        s.days[{2027, 3, 23}] = {{600, 900, 2}};
        const WorkClock clock({2027, 3, 20}, s.site);
        const WorkDays all = workDays(s, clock, 0, 15);
        QCOMPARE(all.windows.size(),
                 std::size_t{5}); // the 20th twice, the 23rd, 3 April twice: dark at 19:15 or so by summer time
        QVERIFY(all.windows[0].light && !all.windows[1].light);
        QCOMPARE(all.windows[0].end, all.windows[1].start);
        QVERIFY(std::abs(all.windows[0].end - 1131) <= 3);
        QCOMPARE(all.windows[1].end, 1260);
        QCOMPARE(all.windows[2].people, 2);
        QCOMPARE(all.windows[2].start, 3 * 1440 + 600);
        QCOMPARE(all.day[3], dayNumber({2027, 4, 3}));
        // From the middle of one on only what is left of it.
        QCOMPARE(workDays(s, clock, 1200, 2).windows.front().start, 1200);
    }

    /// A forecast goes before the month; what it leaves out is the month's. In the south the months are turned.
    void weatherComesFromForecastOrMonth() {
        WorkSettings s;
        s.forecast.days[{2027, 3, 20}] = {.dryChance = 0.2, .low = {}, .high = 9};
        ExpectedWeather w = expectedWeather(s, {2027, 3, 20});
        QVERIFY(w.forecast);
        QCOMPARE(w.dryChance, 0.2);
        QCOMPARE(w.high, 9.0);
        QCOMPARE(w.low, expectedWeather(s, {2027, 3, 21}).low);
        QVERIFY(!expectedWeather(s, {2027, 3, 21}).forecast);
        WorkSettings south;
        south.site.latitudeDeg = -37;
        QVERIFY(expectedWeather(south, {2027, 1, 10}).high == expectedWeather(s, {2027, 7, 10}).high);
        const WorkDays all = workDays(s, WorkClock({2027, 3, 20}, s.site), 0, 2);
        QVERIFY(!all.windows[0].dry);
        QCOMPARE(all.dry[0], 0.2);
    }

    void aYearOfEvenings() {
        WorkSettings s;
        for (WorkDay& day : s.week) day = {{1110, 1260, 1}};
        const WorkDays all = workDays(s, WorkClock({2028, 1, 1}, s.site), 0, 366);
        int last = -1;
        for (const WorkWindow& w : all.windows) {
            QVERIFY(w.start >= last && w.end > w.start); // rising, apart, across both changes and the leap day
            last = w.end;
        }
        QCOMPARE(all.day.back() - all.day.front(), 365);
    }
};

WESTRUM_TEST(WorkDaysTest)
#include "work_days_test.moc"
