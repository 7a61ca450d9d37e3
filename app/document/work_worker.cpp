#include "app/document/work_worker.h"

#include <chrono>

namespace westrum {
namespace {

/// A plan better than the last is told no more often.
constexpr std::chrono::milliseconds kBetween{150};

} // namespace

WorkWorker::WorkWorker(QObject* parent)
    : QObject(parent), newest_(this, [this](const Asked& asked, const auto& turn) {
          const WorkQuestion& question = asked.question;
          const auto tell = [&](const WorkPlan& plan, std::optional<WorkChance> chance, bool searching) {
              auto answer =
                  std::make_shared<const WorkAnswer>(WorkAnswer{question, plan, std::move(chance), searching});
              turn.tell([this, answer = std::move(answer)] { emit planned(answer); });
          };
          WorkEffort effort{.iterations = 1, .seed = question.seed, .stop = turn.stop};
          tell(planVan(question, effort), {}, true);
          if (turn.stop.stop_requested()) return;
          effort.iterations = asked.iterations;
          auto last = std::chrono::steady_clock::now();
          const WorkPlan plan = planVan(question, effort, [&](const WorkPlan& better) {
              const auto now = std::chrono::steady_clock::now();
              if (now - last < kBetween) return;
              last = now;
              tell(better, {}, true);
          });
          if (turn.stop.stop_requested()) return;
          tell(plan, chanceOfVan(question, plan, asked.runs, turn.stop), false);
      }) {}

} // namespace westrum
