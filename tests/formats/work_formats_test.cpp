#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "formats/demo.h"
#include "formats/forecast_file.h"
#include "formats/job_file.h"
#include "formats/record_words.h"
#include "formats/work_out.h"
#include "formats/work_words.h"
#include "tests/support/registry.h"

#include <random>
#include <set>

using namespace westrum;

namespace {

Job roundTrip(const Job& job) {
    const auto read = readJob(writeJob(job));
    if (!read) qFatal("not read: %s", read.error().front().path.c_str());
    return read.value();
}

/// The faults of the example with a member of its "work" replaced.
std::size_t faultsWith(const char* member, const char* value) {
    QByteArray bytes = writeJob(demoJob());
    const QByteArray wanted = QByteArray("\"work\": {\n");
    const qsizetype at = bytes.indexOf(wanted);
    if (at < 0) qFatal("no work in the example");
    // The later of two members of one name counts.
    bytes.replace(bytes.indexOf("\"gates\"", at), 7, QByteArray("\"") + member + "\": " + value + ", \"gates\"");
    const auto read = readJob(bytes);
    return read ? 0 : read.error().size();
}

} // namespace

/// Settings of the work in the job file, forecasts in, calendars out, and how it is typed and told.
class WorkFormatsTest : public QObject {
    Q_OBJECT
private slots:
    void settingsAreKept() {
        Job job = demoJob();
        WorkSettings& w = job.work;
        w.start = CivilDate{2028, 2, 29};
        w.week[0] = {{480, 600, 1}, {660, 1020, 3}};
        w.days[{2028, 3, 1}] = {};
        w.days[{2028, 3, 2}] = {{600, 900, 2}};
        w.site = {.latitudeDeg = -37.5,
                  .longitudeDeg = 145,
                  .utcOffset = 600,
                  .change = ClockChange::None,
                  .heated = false,
                  .tarpaulin = true,
                  .workshop = true};
        w.forecast.days[{2028, 3, 3}] = {.dryChance = 0.4, .low = -2.5, .high = {}};
        w.rules = {{WorkRule::DoorsLast, RuleWay::Off}, {WorkRule::FloorBeforeWalls, RuleWay::Turned}};
        w.gates[WorkGate::Watertight] = {.expected = {}, .passed = CivilDate{2028, 3, 4}};
        w.practised = true;
        w.hours["boards"] = {0.7, 0.05};
        w.pins["ceiling/boards/row-1"] = {2028, 3, 11};
        w.done["trip/Harbour Stores"] = {{2028, 3, 1}, 540, 700};
        w.acceptedChance = 0.65;
        job.logs["floor"].done = {"a", "b"};
        job.logs["floor"].when["a"] = {{2028, 3, 1}, 600, 660};
        w.refused = {"spoils"};
        w.shops[6] = {{600, 720}};
        w.readingErrorMm = 3.5;
        // Every kind of step has a word of its own.
        for (int k = 0; k < kStepKinds; ++k) w.efforts[static_cast<StepKind>(k)].once = k;
        w.efforts[StepKind::Coat] = {
            .once = 1.5, .each = 2, .hands = 2, .dry = true, .light = false, .minC = -3, .maxC = 30, .fumes = 0};
        job.shelf = {{"contact-can", 0.5, "P-1"}, {"gone", 2, {}}};
        // What stands with the surfaces, and with the areas of the van.
        Surface& floor = *job.surface("floor");
        floor.openings.push_back({.name = "Hatch",
                                  .kind = OpeningKind::Hatch,
                                  .lid = Reading{"4", {4}},
                                  .finger = Reading{"30", {30}},
                                  .hole = "hole-1"});
        floor.edges.resize(4);
        floor.edges[1].startDeg = 84.5;
        floor.edges[2].endDeg = 100;
        job.areaTrims = {{{AreaKind::Garage, "Boot"}, EdgeMeeting::FloorAtWall, "low"},
                         {{AreaKind::Other, "Nook"}, EdgeMeeting::FreeEdge, std::string(kNoTrim)},
                         {{}, EdgeMeeting::OpeningReveal, "x"}};
        job.access.partToLoad = true;
        QVERIFY(roundTrip(job) == job);
        Job plain = demoJob();
        plain.work = {};
        QVERIFY(!writeJob(plain).contains("\"work\"")); // all as usual: nothing to write
        QVERIFY(roundTrip(plain) == plain);
    }

    void wrongSettingsAreTold() {
        QCOMPARE(faultsWith("start", "\"2027-03-14\""), std::size_t{0});
        for (const auto& [member, value] : std::initializer_list<std::pair<const char*, const char*>>{
                 {"start", "\"2027-02-30\""},
                 {"start", "7"},
                 {"week", "[[], []]"},
                 {"week", "[[[600, 500, 1]], [], [], [], [], [], []]"},
                 {"week", "[[[1e300, 500, 1]], [], [], [], [], [], []]"},
                 {"week", "[[[9, 600, 1], [500, 700, 1]], [], [], [], [], [], []]"},
                 {"days", "{\"soon\": []}"},
                 {"site", "{\"latitude\": 120}"},
                 {"site", "{\"clockChange\": \"mars\"}"},
                 {"forecast", "{\"days\": {\"2027-03-13\": {\"dry\": 3}}}"},
                 {"rules", "{\"roofFirst\": \"usual\"}"},
                 {"rules", "{\"doorsLast\": 3}"},
                 {"hours", "{\"dragons\": {\"perM2\": 1}}"},
                 {"hours", "{\"boards\": {\"perM2\": -1}}"},
                 {"shops", "[[]]"},
                 {"readingErrorMm", "0"},
                 {"efforts", "{\"dancing\": {}}"},
                 {"efforts", "{\"coat\": 3}"},
                 {"efforts", "{\"coat\": {\"hands\": 0}}"},
                 {"efforts", "{\"coat\": {\"once\": -1}}"},
                 {"efforts", "{\"coat\": {\"dry\": 1}}"},
                 {"pins", "{\"floor/row-1\": \"never\"}"},
                 {"done", "{\"tidy\": {\"day\": \"2027-03-13\", \"from\": 700, \"to\": 600}}"},
                 {"acceptedChance", "1.5"}})
            QVERIFY2(faultsWith(member, value) > 0, value);
    }

    /// The record, entry by entry, as it was; a wrong one is told with its place, two of one id too.
    void theRecordIsKept() {
        const Job job = demoJobUnderWay();
        QVERIFY(roundTrip(job) == job);
        Job one = demoJob();
        one.record = {{.id = 7,
                       .kind = EntryKind::Difference,
                       .when = {{2028, 2, 29}, 600, 610},
                       .surface = "gone",
                       .product = "none",
                       .amount = 2.5,
                       .planned = 12,
                       .reason = SpoilReason::Split,
                       .lot = "L",
                       .degC = -3.5,
                       .humidity = 40.0,
                       .by = {-6},
                       .text = "a \"quote\"\nand more"}};
        QVERIFY(roundTrip(one) == one);
        const QByteArray sound = writeJob(one);
        for (const auto& [from, to] :
             std::initializer_list<std::pair<const char*, const char*>>{{"\"difference\"", "\"explosion\""},
                                                                        {"2028-02-29", "2027-02-29"},
                                                                        {"\"id\": 7", "\"id\": 0"},
                                                                        {"\"humidity\": 40", "\"humidity\": 400"},
                                                                        {"\"to\": 610", "\"to\": 590"},
                                                                        {"\"amount\": 2.5", "\"amount\": \"many\""}}) {
            QByteArray wrong = sound;
            wrong.replace(from, to);
            QVERIFY2(wrong != sound && !readJob(wrong), from);
        }
        one.record.push_back(one.record.front());
        QVERIFY(!readJob(writeJob(one)));
    }

    /// A file that was damaged on the way, a byte here and there: read or refused, never worse.
    void damagedFilesAreReadOrRefused() {
        const QByteArray sound = writeJob(demoJobUnderWay());
        const qsizetype record = sound.indexOf("\"record\""), work = sound.indexOf("\"work\"");
        QVERIFY(record > 0 && work > 0);
        std::mt19937 dice(17);
        int read = 0, refused = 0;
        for (int run = 0; run < 60; ++run) {
            QByteArray wrong = sound;
            for (int k = 0; k < 4; ++k) {
                const qsizetype from = dice() % 2 == 0 ? record : work;
                const qsizetype at = from + static_cast<qsizetype>(dice() % 4000);
                if (at < wrong.size()) wrong[at] = "0919-,:[]{}\"ex \n"[dice() % 16];
            }
            if (readJob(wrong))
                ++read;
            else
                ++refused;
        }
        QCOMPARE(read + refused, 60);
        QVERIFY(refused > 20);
    }

    void aForecastIsRead() {
        const CivilDate made{2027, 3, 12};
        ForecastReading r = readForecast("date;dry;low;high\n2027-03-13;80 %;3;11,5\n2027-03-14;;;9\n", made);
        QCOMPARE(r.faulty, std::size_t{0});
        QCOMPARE(r.forecast.days.size(), std::size_t{2});
        QCOMPARE((*r.forecast.days[{2027, 3, 13}].dryChance), 0.8);
        QCOMPARE((*r.forecast.days[{2027, 3, 13}].high), 11.5);
        QVERIFY(!(r.forecast.days[{2027, 3, 14}].dryChance));
        QVERIFY(readForecast(forecastAsCsv(r.forecast), made).forecast == r.forecast);
        // Columns in another order, commas, what else there is passed over.
        r = readForecast("wind,high,date\nstrong,12,2027-03-15\n", made);
        QCOMPARE((*r.forecast.days[{2027, 3, 15}].high), 12.0);
        // Sound lines are taken, the others told.
        r = readForecast("date;dry\n2027-03-13;80\n2027-02-30;80\n2027-03-14;180\n2027-03-13;10\nrain;;\n", made);
        QCOMPARE(r.forecast.days.size(), std::size_t{1});
        QCOMPARE(r.faulty, std::size_t{4});
        for (const ForecastFault& f : r.faults) QVERIFY(sentence(f).contains(QStringLiteral("Line ")));
        QCOMPARE(readForecast("", made).faults.front().kind, ForecastFault::Kind::Empty);
        QCOMPARE(readForecast("a;b\n1;2\n", made).faults.front().kind, ForecastFault::Kind::NoHeading);
        QCOMPARE(readForecast(QByteArray(kLargestForecastFile + 1, 'x'), made).faults.front().kind,
                 ForecastFault::Kind::TooLarge);
        QByteArray many = "date;dry\n";
        for (int d = 0; d < 10000; ++d) many += QByteArray::fromStdString(isoDate(CivilDate{2027, 1, 1} + d)) + ";50\n";
        QCOMPARE(readForecast(many, made).forecast.days.size(), std::size_t{10000});
        QVERIFY(readForecast(QByteArray("date\n\0\xFF\xFE;;\n\"", 12), made).forecast.days.empty());
    }

    void daysAreTypedAndTold() {
        const auto day = parseWorkDay(QStringLiteral("9-16:30 x2, 18.30–21"));
        QVERIFY(day.has_value());
        QVERIFY(*day == (WorkDay{{540, 990, 2}, {1110, 1260, 1}}));
        QVERIFY(parseWorkDay(workDayText(*day)) == day);
        QVERIFY(parseWorkDay(QString()) == WorkDay{});
        QVERIFY(parseWorkDay(workDayText({})) == WorkDay{});
        for (const char* wrong : {"9", "9-", "16-9", "9-25", "9:75-10", "9-12, 11-13", "9-12 x0", "9-12 x99", "now"})
            QVERIFY2(!parseWorkDay(QString::fromLatin1(wrong)), wrong);
        QVERIFY(parseDay(QStringLiteral("13.3.2027")) == (CivilDate{2027, 3, 13}));
        QVERIFY(parseDay(QStringLiteral(" 2027-03-13 ")) == (CivilDate{2027, 3, 13}));
        QVERIFY(!parseDay(QStringLiteral("31.2.2027")) && !parseDay(QStringLiteral("tomorrow")));
        QCOMPARE(durationText(45.4), QStringLiteral("45 min"));
        QCOMPARE(durationText(150), QStringLiteral("2 h 30"));
        QCOMPARE(durationText(180), QStringLiteral("3 h"));
        QCOMPARE(durationText(13208), QStringLiteral("220 h"));
    }

    /// An entry for each stretch, in UTC, folded, escaped; the times are those of the plan.
    void theCalendarHoldsThePlan() {
        const Job job = demoJob();
        const Plan p = plan(job);
        const WorkQuestion q = workQuestion(job, p, demoNow());
        const WorkPlan w = planVan(q, {.iterations = 1});
        const Figures f;
        const QByteArray ics = workAsCalendar(job, p, q, w, f);
        QVERIFY(ics.startsWith("BEGIN:VCALENDAR\r\nVERSION:2.0\r\n"));
        QVERIFY(ics.endsWith("END:VCALENDAR\r\n"));
        std::size_t stretches = 0;
        for (std::size_t i = 0; i < q.net.items.size(); ++i)
            if (q.net.items[i].kind != WorkKind::Gate) stretches += w.parts(static_cast<int>(i)).size();
        QCOMPARE(static_cast<std::size_t>(ics.count("BEGIN:VEVENT")), stretches);
        std::set<QByteArray> ids;
        for (const QByteArray& line : ics.split('\n')) {
            QVERIFY2(line.size() <= 76, line.constData()); // 75 octets and the carriage return
            if (line.startsWith("UID:")) ids.insert(line);
        }
        QVERIFY(QString::fromUtf8(ics).toUtf8() == ics); // no character is broken in two
        // The first piece of work: nine o'clock on 13 March, an hour ahead of UTC; in summer time two.
        QVERIFY(ics.contains("DTSTART:20270313T080000Z"));
        QVERIFY(ics.contains("DTSTART:20270403T070000Z"));
        const QByteArray csv = workAsCsv(job, p, q, w, f);
        QCOMPARE(static_cast<std::size_t>(csv.count('\n')), stretches + 1);
        QVERIFY(csv.contains("2027-03-13;09:00;"));
    }

    /// Every word there is for what the plan can say, none of them empty.
    void everythingHasItsWords() {
        const Job job = demoJob();
        const Plan p = plan(job);
        const WorkNet net = workNet(job, p);
        for (const WorkItem& w : net.items) {
            QVERIFY2(!workTitle(job, p, w, {}).isEmpty(), w.id.c_str());
            QVERIFY2(!workLabel(w).isEmpty(), w.id.c_str());
        }
        for (const EffortRow& row : effortTable()) {
            WorkItem one;
            one.kinds = {row.kind};
            QVERIFY(!workLabel(one).isEmpty());
            for (const QString& tool : toolsText(one)) QVERIFY(!tool.isEmpty());
        }
        std::set<QString> said;
        for (int r = 0; r < kWorkRules; ++r)
            for (const RuleWay way : {RuleWay::Usual, RuleWay::Turned}) {
                const QString text = ruleText(static_cast<WorkRule>(r), way);
                QVERIFY2(!text.isEmpty() && said.insert(text).second, qPrintable(text));
                QVERIFY(!ruleReason(static_cast<WorkRule>(r)).isEmpty());
            }
        for (int f = 0; f <= static_cast<int>(WorkFault::AfterUnplaced); ++f)
            QVERIFY(faultText(static_cast<WorkFault>(f), QStringLiteral("X")).contains(QLatin1Char('X')));
        for (int t = 0; t <= static_cast<int>(PinTrouble::AlreadyDone); ++t)
            QVERIFY(
                !troubleText({static_cast<PinTrouble::Why>(t)}, QStringLiteral("X"), QStringLiteral("Y"), {2027, 3, 13})
                     .isEmpty());
    }

    /// What follows from a spoilt piece and from tins emptied too soon, each in one sentence with what it costs.
    void whatFollowsIsSaidInOneSentence() {
        const Figures f;
        const std::optional<CivilDate> saturday = CivilDate{2027, 4, 17};
        QCOMPARE(consequenceText({SpoilConsequence::Rack, {}, "R8"}, saturday, {}, f),
                 QStringLiteral("It can be cut again from the offcut R8 on the rack.")); // no trip is waited for
        const QString buy = consequenceText({SpoilConsequence::MustBuy, Money{4590, {}}, "Birch ply"}, saturday, {}, f);
        QVERIFY2(buy.contains(QStringLiteral("45.90 EUR")) &&
                     buy.endsWith(QStringLiteral("It waits until Sat 17 April.")),
                 qPrintable(buy));
        QVERIFY(!consequenceText({SpoilConsequence::MustBuy, {}, "Birch ply"}, {}, {}, f)
                     .contains(QStringLiteral("waits")));
        const SpoilDelay week{{2027, 6, 12}, {2027, 6, 19}}, none{{2027, 6, 12}, {2027, 6, 12}};
        QVERIFY(consequenceText({SpoilConsequence::MustBuy, {}, "x"}, saturday, week, f)
                    .endsWith(QStringLiteral("The van is done on Sat 19 June instead of Sat 12 June.")));
        QVERIFY(consequenceText({SpoilConsequence::MustBuy, {}, "x"}, saturday, none, f)
                    .endsWith(QStringLiteral("The van is done no later for it.")));
        QVERIFY(
            !consequenceText({SpoilConsequence::Spare, {}, "x"}, saturday, week, f).contains(QStringLiteral("done")));
        const QString tins = emptiedText({3, 2, 4.1, 2, Money{6580, {}}}, "Contact adhesive", f);
        QVERIFY2(tins.contains(QStringLiteral("3 empty by now, 2 planned")) &&
                     tins.contains(QStringLiteral("2 more must be bought, 65.80 EUR")),
                 qPrintable(tins));
        QVERIFY(emptiedText({3, 3, 1, 0, {}}, "x", f).endsWith(QStringLiteral("What is bought suffices.")));
        // A difference says which reading it is about, and whether it is in it.
        const Job job = demoJob();
        RecordEntry e{.kind = EntryKind::Difference, .surface = "floor", .step = "BC", .by = {-6}, .text = "pillar"};
        QCOMPARE(entryText(job, {}, e, f), QStringLiteral("Load floor: side b, -6 mm off the drawing: pillar"));
        e.amount = 1;
        QVERIFY(entryText(job, {}, e, f).contains(QStringLiteral("in the reading now")));
        e = {.kind = EntryKind::BrokenOff, .text = "row 4"};
        QCOMPARE(entryText(job, {}, e, f), QStringLiteral("broken off: row 4"));
        e = {.kind = EntryKind::OffcutKept, .piece = "R12", .product = "dipper-ply", .amount = 1, .lot = "T-40"};
        QCOMPARE(entryText(job, {}, e, f), QStringLiteral("offcut R12 of Dipper birch ply 9 kept, lot T-40"));
    }
};

WESTRUM_TEST(WorkFormatsTest)
#include "work_formats_test.moc"
