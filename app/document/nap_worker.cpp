#include "app/document/nap_worker.h"

#include <QMetaObject>

namespace westrum {
namespace {

constexpr std::int64_t kIterations = 1500;

} // namespace

void NapWorker::ask(const CutProblem& problem) {
    working_ = true;
    thread_ = std::jthread([this, problem, number = ++asked_](const std::stop_token& stop) {
        const auto with = [&](RollTurning turning) {
            CutProblem p = problem;
            p.product.fields["turning"] = static_cast<double>(turning);
            return Mm{cutProduct(p, {.seed = p.seed, .iterations = kIterations, .stop = stop}).rollMm};
        };
        const RollTurning now = rollOf(problem.product).turning;
        const Mm asIs = with(now), half = with(RollTurning::HalfTurn), quarter = with(RollTurning::Quarter);
        if (stop.stop_requested()) return;
        QMetaObject::invokeMethod(
            this,
            [this, number, product = problem.product.id, asIs, half, quarter] {
                if (number != asked_) return;
                working_ = false;
                emit found(product, asIs, half, quarter);
            },
            Qt::QueuedConnection);
    });
}

} // namespace westrum
