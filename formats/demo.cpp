#include "formats/demo.h"

#include "core/fitting/efforts.h"
#include "core/units/print.h"
#include "core/vanwork/work_plan.h"
#include "formats/job_file.h"

#include <QFile>

#include <algorithm>
#include <cassert>
#include <cmath>

// Q_INIT_RESOURCE must be called outside any namespace: the library is static.
static void initStarterData() { Q_INIT_RESOURCE(starter); }

namespace westrum {
namespace {

Job fromResource(const char* path) {
    initStarterData();
    Result<Job, FileFaults> job = readJobFile(QString::fromLatin1(path));
    assert(job.has_value()); // tests/formats reads both files
    return job.has_value() ? std::move(job.value()) : Job{};
}

} // namespace

Catalogue starterCatalogue() { return fromResource(":/starter/starter.westrum").catalogue; }

Job demoJob() { return fromResource(":/starter/plover.westrum"); }

WorkClock::Moment demoUnderWayNow() {
    constexpr int kMorning = 8 * 60 + 30;
    return {{2027, 4, 10}, kMorning};
}

namespace {

/// A made-up person: slower with boards than planned, quicker with linings; the same in every run.
double paceOf(StepKind kind, int nth) {
    const double wobble = 1 + 0.12 * ((nth * 7) % 5 - 2) / 2;
    switch (kind) {
    case StepKind::FirstBoard:
    case StepKind::BoardRow:
    case StepKind::LastBoard: return 1.35 * wobble;
    case StepKind::StickLining:
    case StepKind::CutLinings: return 0.8 * wobble;
    default: return 1.05 * wobble;
    }
}

/// Writes down every step of a piece of work that was done by the clock of the plan.
void writeDone(const WorkItem& item, const WorkPlan& plan, int at, const Plan& planned, Job& job, std::int64_t& id) {
    const auto& parts = plan.parts(at);
    const WorkClock::Moment end = plan.clock.moment(parts.back().end);
    if (item.steps.empty()) {
        job.work.done[item.id] = {end.day, std::max(0, end.minute - static_cast<int>(item.left)), end.minute};
        return;
    }
    int to = end.minute;
    for (auto ref = item.steps.rbegin(); ref != item.steps.rend(); ++ref) {
        const SurfacePlan* s = planned.surface(ref->surface);
        const auto step =
            std::find_if(s->steps.begin(), s->steps.end(), [&](const FitStep& x) { return x.key == ref->key; });
        const double wanted = step->effort.minutes * kFirstTimer;
        const int took = std::max(1, static_cast<int>(std::lround(wanted * paceOf(step->kind, static_cast<int>(id)))));
        const WorkedTime when{end.day, std::max(0, to - took), to};
        to = std::max(1, to - took);
        job.logs[ref->surface].done.insert(ref->key);
        job.logs[ref->surface].when[ref->key] = when;
        job.record.push_back({.id = id++,
                              .kind = EntryKind::StepDone,
                              .when = when,
                              .surface = ref->surface,
                              .step = ref->key,
                              .planned = wanted});
    }
}

} // namespace

Job demoJobUnderWay() {
    Job job = demoJob();
    job.work.person = "Wren";
    const Plan planned = plan(job);
    const WorkQuestion question = workQuestion(job, planned, demoNow());
    const WorkPlan work = planVan(question, {.iterations = 40});
    const int now = work.clock.at(demoUnderWayNow());
    std::vector<std::pair<int, int>> done; // by their end
    for (std::size_t i = 0; i < question.net.items.size(); ++i)
        if (const auto& parts = work.parts(static_cast<int>(i));
            !parts.empty() && parts.back().end <= now && question.net.items[i].kind != WorkKind::Gate)
            done.emplace_back(parts.back().end, static_cast<int>(i));
    std::sort(done.begin(), done.end());
    for (auto& [gate, state] : job.work.gates)
        if (state.expected < demoUnderWayNow().day) state.passed = state.expected;
    std::int64_t id = 1;
    for (const auto& [end, at] : done) {
        const WorkItem& item = question.net.items[static_cast<std::size_t>(at)];
        writeDone(item, work, at, planned, job, id);
    }
    // What else happened, by hand.
    const auto on = [](int month, int day, int minute) { return WorkedTime{{2027, month, day}, minute, minute}; };
    const auto add = [&](RecordEntry e) {
        e.id = id++;
        job.record.push_back(std::move(e));
    };
    add({.kind = EntryKind::Delivery, .when = on(3, 13, 700), .product = "larch-board", .amount = 26, .lot = "B-117"});
    add({.kind = EntryKind::Note, .when = on(3, 13, 720), .text = "the washers were not in the parcel"});
    for (int n = 0; n < 22; ++n)
        add({.kind = EntryKind::PieceCut,
             .when = on(3, 20 + n / 12, 600 + n),
             .surface = "ceiling",
             .piece = std::to_string(n + 1),
             .product = "larch-board",
             .amount = 1});
    add({.kind = EntryKind::PieceSpoilt,
         .when = on(3, 20, 660),
         .surface = "ceiling",
         .piece = "4.2",
         .product = "larch-board",
         .amount = 1,
         .reason = SpoilReason::WrongSide});
    add({.kind = EntryKind::PieceSpoilt,
         .when = on(3, 21, 640),
         .surface = "ceiling",
         .piece = "9.1",
         .product = "larch-board",
         .amount = 1,
         .reason = SpoilReason::Split});
    add({.kind = EntryKind::PieceSpoilt,
         .when = on(3, 27, 700),
         .surface = "floor",
         .piece = "2",
         .product = "poplar-ply-12",
         .amount = 1,
         .reason = SpoilReason::Mismeasured});
    add({.kind = EntryKind::Climate, .when = on(3, 25, 1180), .surface = "headliner", .degC = 18.2, .humidity = 58.0});
    add({.kind = EntryKind::Opened, .when = on(3, 14, 890), .product = "contact-can", .amount = 1, .lot = "G-2"});
    add({.kind = EntryKind::Emptied, .when = on(4, 4, 900), .product = "contact-can", .amount = 3});
    add({.kind = EntryKind::Emptied, .when = on(4, 3, 800), .product = "hard-oil", .amount = 2});
    add({.kind = EntryKind::OffcutKept,
         .when = on(3, 21, 720),
         .product = "birch-ply-6",
         .amount = 1,
         .text = "behind the workshop door, 610 × 480"});
    add({.kind = EntryKind::Difference,
         .when = on(3, 28, 640),
         .surface = "left-upper",
         .by = {6},
         .text = "further in at the pillar"});
    add({.kind = EntryKind::Weighed, .when = on(4, 4, 990), .amount = 2310});
    std::stable_sort(job.record.begin(), job.record.end(), [](const RecordEntry& a, const RecordEntry& b) {
        return std::pair(a.when.day, a.when.to) < std::pair(b.when.day, b.when.to);
    });
    return job;
}

WorkClock::Moment demoNow() {
    constexpr int kMorning = 8 * 60 + 30;
    return {{2027, 3, 13}, kMorning};
}

} // namespace westrum
