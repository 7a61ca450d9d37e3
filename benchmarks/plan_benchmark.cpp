// Speed of planning, printed, never asserted. scripts/benchmark runs this and times the window's start and memory.

#include "app/document/commands.h"
#include "core/families/family.h"
#include "core/plan/cut_problems.h"
#include "core/plan/odds.h"
#include "core/plan/starts.h"
#include "core/plan/surface_stage.h"
#include "core/setout/set_out.h"
#include "core/shell/fold_up.h"
#include "formats/demo.h"

#include <benchmark/benchmark.h>

#include <QCoreApplication>

using namespace westrum;

static void planOfTheDemoJobFromCold(benchmark::State& state) {
    const Job job = demoJob();
    for (auto _ : state) benchmark::DoNotOptimize(plan(job));
}
BENCHMARK(planOfTheDemoJobFromCold)->Unit(benchmark::kMillisecond);

/// All surfaces of the van laid in space, their corners closed, and its one slip looked for.
static void closeTheDemoVan(benchmark::State& state) {
    const Job job = demoJob();
    std::vector<MeasuredOutline> measured;
    for (const Surface& s : job.surfaces) measured.push_back(outlineOf(s.measurement));
    std::vector<TiedSurface> tied;
    for (std::size_t i = 0; i < measured.size(); ++i) tied.push_back({&job.surfaces[i], &measured[i]});
    for (auto _ : state) benchmark::DoNotOptimize(foldUp(tied, job.headroom));
}
BENCHMARK(closeTheDemoVan)->Unit(benchmark::kMillisecond);

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

/// A thousand variations: of the floor on one core; of the whole job on two, a tenth of them here.
static void thousandVariationsOfTheFloor(benchmark::State& state) {
    Job job = demoJob();
    std::erase_if(job.surfaces, [](const Surface& s) { return s.id != "floor"; });
    std::erase_if(job.finishes, [](const auto& f) { return f.first != "floor"; });
    job.cutLists.clear();
    const Plan p = plan(job);
    for (auto _ : state) benchmark::DoNotOptimize(oddsOf(job, p, {}, 1000));
}
BENCHMARK(thousandVariationsOfTheFloor)->Unit(benchmark::kMillisecond)->UseRealTime();

static void hundredVariationsOfTheWholeJob(benchmark::State& state) {
    const Job job = demoJob();
    const Plan p = plan(job);
    for (auto _ : state) benchmark::DoNotOptimize(oddsOf(job, p, {}, 100, {}, 2));
}
BENCHMARK(hundredVariationsOfTheWholeJob)->Unit(benchmark::kMillisecond)->UseRealTime();

/// Another price of one product: what is bought, shared and weighed anew.
static void repriceTheDemoJob(benchmark::State& state) {
    Job job = demoJob();
    Planner planner;
    Plan p = planner.plan(job);
    std::vector<ProductCut> cuts;
    for (const CutProblem& problem : cutProblems(job, p))
        cuts.push_back(cutProduct(problem, {.seed = 1, .iterations = 1}));
    for (auto _ : state) {
        job.catalogue.products[0].packPrice->minor += 1;
        benchmark::DoNotOptimize(withCuts(planner.plan(job), job, cuts));
    }
}
BENCHMARK(repriceTheDemoJob)->Unit(benchmark::kMillisecond);

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

/// Every layer of the example that is set out: one set-out, and the search for better ways.
static void registerLayers() {
    static const Job job = demoJob();
    static const SurfaceStage planned = Planner().surfaces(surfacesInput(job));
    for (const auto& [surface, options] : job.finishes)
        for (std::size_t i = 0; i < options.now().layers.size(); ++i) {
            const Layer& layer = options.now().layers[i];
            const Product* product = job.catalogue.find(layer.product);
            if (!product || !findFamily(product->family)) continue;
            const std::string name = surface + "/" + layer.product;
            const auto place = static_cast<int>(i);
            benchmark::RegisterBenchmark(("setOut/" + name).c_str(), [=, surface = surface](benchmark::State& state) {
                const FieldValues rules = job.finish(surface).layers[static_cast<std::size_t>(place)].rules;
                for (auto _ : state) benchmark::DoNotOptimize(setOutAs(job, planned, surface, place, rules));
            })->Unit(benchmark::kMillisecond);
            benchmark::RegisterBenchmark(("suggest/" + name).c_str(), [=, surface = surface](benchmark::State& state) {
                for (auto _ : state) benchmark::DoNotOptimize(startsOf(startsInput(job, planned, surface, place)));
            })->Unit(benchmark::kMillisecond);
        }
}

int main(int argc, char** argv) {
    QCoreApplication app(argc, argv);
    registerLayers();
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
