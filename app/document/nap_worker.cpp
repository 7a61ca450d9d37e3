#include "app/document/nap_worker.h"

namespace westrum {
namespace {

constexpr std::int64_t kIterations = 1500;

} // namespace

NapWorker::NapWorker(QObject* parent)
    : QObject(parent), newest_(this, [this](const CutProblem& problem, const auto& turn) {
          const auto with = [&](RollTurning turning) {
              CutProblem p = problem;
              p.product.fields["turning"] = static_cast<double>(turning);
              return Mm{cutProduct(p, {.seed = p.seed, .iterations = kIterations, .stop = turn.stop}).rollMm};
          };
          const RollTurning now = rollOf(problem.product).turning;
          const Mm asIs = with(now), half = with(RollTurning::HalfTurn), quarter = with(RollTurning::Quarter);
          turn.tell([this, product = problem.product.id, asIs, half, quarter] {
              working_ = false;
              emit found(product, asIs, half, quarter);
          });
      }) {}

void NapWorker::ask(const CutProblem& problem) {
    working_ = true;
    newest_.ask(problem);
}

} // namespace westrum
