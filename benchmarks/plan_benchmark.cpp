// Speed of planning, printed, never asserted. scripts/benchmark runs this and times the window's start and memory.

#include "app/document/commands.h"
#include "formats/demo.h"

#include <benchmark/benchmark.h>

#include <QCoreApplication>

using namespace westrum;

static void planOfTheDemoFloor(benchmark::State& state) {
    const Job job = demoJob();
    for (auto _ : state) benchmark::DoNotOptimize(plan(job));
}
BENCHMARK(planOfTheDemoFloor)->Unit(benchmark::kMillisecond);

/// What a drag of the start line costs: each round another offset, planned by a planner that remembers.
static void replanAfterAStartLineChange(benchmark::State& state) {
    Job job = demoJob();
    Planner planner;
    int offset = 0;
    for (auto _ : state) {
        offset = (offset + 7) % 181;
        job.finishes["floor"].now().layers.back().rules["startOffset"] = offset;
        benchmark::DoNotOptimize(planner.plan(job));
    }
}
BENCHMARK(replanAfterAStartLineChange)->Unit(benchmark::kMillisecond)->Repetitions(9)->ReportAggregatesOnly();

/// The slowest single start line of the demo floor.
static void replanAtTheWorstStart(benchmark::State& state) {
    Job job = demoJob();
    double worst = 0;
    for (int offset = 0; offset < 181; ++offset) {
        job.finishes["floor"].now().layers.back().rules["startOffset"] = offset;
        const auto before = std::chrono::steady_clock::now();
        benchmark::DoNotOptimize(plan(job));
        const double took = std::chrono::duration<double>(std::chrono::steady_clock::now() - before).count();
        if (took > worst) {
            worst = took;
            state.counters["offset_mm"] = offset;
        }
    }
    job.finishes["floor"].now().layers.back().rules["startOffset"] = state.counters["offset_mm"];
    for (auto _ : state) benchmark::DoNotOptimize(plan(job));
}
BENCHMARK(replanAtTheWorstStart)->Unit(benchmark::kMillisecond);

static void everyStartOfTheDemoFloor(benchmark::State& state) {
    const Job job = demoJob();
    for (auto _ : state) benchmark::DoNotOptimize(startsOf(job, "floor"));
}
BENCHMARK(everyStartOfTheDemoFloor)->Unit(benchmark::kMillisecond);

/// From the gesture to the plan in the document, through command, undo stack and worker thread.
static void gestureToPlanInTheDocument(benchmark::State& state) {
    JobDocument document;
    document.open(demoJob(), {});
    int offset = 0;
    for (auto _ : state) {
        offset = (offset + 7) % 181;
        push(document, moveStartLine(document, "floor", {static_cast<double>(offset)}, 1));
        while (document.isPlanning()) QCoreApplication::processEvents();
    }
}
BENCHMARK(gestureToPlanInTheDocument)->Unit(benchmark::kMillisecond);

int main(int argc, char** argv) {
    QCoreApplication app(argc, argv);
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
