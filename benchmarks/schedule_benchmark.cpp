// How fast work is planned: the first answer, and orders tried a second, on made-up work of a whole van.

#include "core/schedule/work.h"

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

void plan(benchmark::State& state) {
    const WorkProblem p = work(static_cast<int>(state.range(0)));
    WorkEffort effort;
    effort.iterations = state.range(1);
    for (auto _ : state) benchmark::DoNotOptimize(planWork(p, effort));
}
BENCHMARK(plan)
    ->ArgNames({"tasks", "orders"})
    ->Args({130, 1})
    ->Args({130, 5000})
    ->Args({2000, 1})
    ->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
