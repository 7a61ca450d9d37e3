// How fast work is planned: the first answer, and orders tried a second, on made-up work of a whole van.

#include "core/schedule/work.h"
#include "core/vanwork/learned.h"
#include "core/vanwork/took.h"
#include "core/vanwork/work_plan.h"
#include "formats/demo.h"
#include "formats/job_file.h"

#include <benchmark/benchmark.h>

#include <random>

namespace {

using namespace westrum;

WorkProblem work(int tasks) {
    std::mt19937 dice(4);
    WorkProblem p;
    for (int d = 0; d < 400; ++d)
        if (d % 7 == 5 || d % 7 == 6 || dice() % 3 == 0) {
            const bool weekend = d % 7 >= 5;
            const int from = d * 1440 + (weekend ? 540 : 1080);
            p.windows.push_back(
                {from, from + (weekend ? 420 : 150), weekend ? 2 : 1, dice() % 3 != 0, weekend, 6.0 + dice() % 15});
        }
    for (int i = 0; i < tasks; ++i) {
        WorkTask t;
        t.id = std::to_string(i);
        t.minutes = 20 + 5 * static_cast<int>(dice() % 40);
        t.hands = dice() % 4 == 0 ? 2 : 1;
        t.inside = dice() % 3 != 0;
        t.split = dice() % 3 == 0;
        t.dry = dice() % 5 == 0;
        if (dice() % 4 == 0) t.minC = 8.0 + dice() % 5;
        if (t.inside && dice() % 9 == 0) t.fumes = 60;
        p.tasks.push_back(t);
        if (i > 0 && dice() % 10 < 9)
            p.before.push_back({std::max(0, i - 1 - static_cast<int>(dice() % 6)), i, dice() % 5 == 0 ? 1440 : 0});
    }
    return p;
}

void planMadeUp(benchmark::State& state) {
    const WorkProblem p = work(static_cast<int>(state.range(0)));
    WorkEffort effort;
    effort.iterations = state.range(1);
    for (auto _ : state) benchmark::DoNotOptimize(planWork(p, effort));
}
BENCHMARK(planMadeUp)
    ->ArgNames({"tasks", "orders"})
    ->Args({130, 1})
    ->Args({130, 5000})
    ->Args({2000, 1})
    ->Unit(benchmark::kMillisecond);

/// The example: its first plan, the plan after a piece is dragged a week on, and how sure the date is.
const WorkQuestion& example() {
    static const WorkQuestion question = [] {
        const Job job = demoJob();
        return workQuestion(job, plan(job), demoNow());
    }();
    return question;
}

void vanFirst(benchmark::State& state) {
    for (auto _ : state) benchmark::DoNotOptimize(planVan(example(), {.iterations = 1}));
}
BENCHMARK(vanFirst)->Unit(benchmark::kMillisecond);

void vanAfterADrag(benchmark::State& state) {
    const WorkPlan settled = planVan(example(), {.iterations = 500});
    WorkQuestion dragged = example();
    const int item = dragged.net.find("left-upper/insulation/fit");
    const CivilDate day = settled.clock.moment(settled.parts(item).front().start).day + 7;
    dragged.settings.pins["left-upper/insulation/fit"] = day;
    constexpr int kRunsWhileDragging = 30;
    for (auto _ : state) {
        const WorkPlan p = planNear(dragged, settled);
        benchmark::DoNotOptimize(chanceOfVan(dragged, p, kRunsWhileDragging));
    }
}
BENCHMARK(vanAfterADrag)->Unit(benchmark::kMillisecond);

void vanChance(benchmark::State& state) {
    const WorkPlan p = planVan(example(), {.iterations = 500});
    for (auto _ : state) benchmark::DoNotOptimize(chanceOfVan(example(), p, 1000));
}
BENCHMARK(vanChance)->Unit(benchmark::kMillisecond);

/// The example some weekends in, its record over and over until it has so many entries.
Job withEntries(std::int64_t entries) {
    Job job = demoJobUnderWay();
    const Record once = job.record;
    while (static_cast<std::int64_t>(job.record.size()) < entries) {
        RecordEntry e = once[job.record.size() % once.size()];
        e.id = static_cast<std::int64_t>(job.record.size()) + 1;
        job.record.push_back(std::move(e));
    }
    return job;
}

/// Read from its file; and what it teaches and took worked out.
void openRecord(benchmark::State& state) {
    const QByteArray file = writeJob(withEntries(state.range(0)));
    for (auto _ : state) benchmark::DoNotOptimize(readJob(file));
}
BENCHMARK(openRecord)->ArgName("entries")->Arg(200)->Arg(50000)->Unit(benchmark::kMillisecond);

void learnFromRecord(benchmark::State& state) {
    const Job job = withEntries(state.range(0));
    const Plan p = plan(job);
    for (auto _ : state) {
        benchmark::DoNotOptimize(rateOffers(job, p));
        benchmark::DoNotOptimize(tookOf(job, p));
    }
}
BENCHMARK(learnFromRecord)->ArgName("entries")->Arg(200)->Arg(50000)->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
