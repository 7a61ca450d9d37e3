#include "app/document/plan_worker.h"

#include <QMetaObject>

namespace westrum {

PlanWorker::PlanWorker(QObject* parent)
    : QObject(parent), thread_([this](const std::stop_token& quit) { run(quit); }) {}

PlanWorker::~PlanWorker() {
    thread_.request_stop();
    {
        const std::scoped_lock lock(mutex_);
        current_.request_stop();
    }
    wake_.notify_all();
}

void PlanWorker::request(const Job& job, Revision revision, const std::string& startsOf) {
    {
        const std::scoped_lock lock(mutex_);
        waiting_ = Request{job, revision, startsOf};
        asked_ = revision;
        current_.request_stop();
    }
    wake_.notify_all();
}

void PlanWorker::waitBriefly(std::chrono::milliseconds most) {
    {
        std::unique_lock lock(mutex_);
        done_.wait_for(lock, most, [this] { return plan_ && planRevision_ == asked_; });
    }
    deliver();
}

bool PlanWorker::busy() const {
    const std::scoped_lock lock(mutex_);
    return busy_ || waiting_.has_value();
}

void PlanWorker::run(const std::stop_token& quit) {
    Planner planner;
    std::optional<StartsKey> startsFor;
    std::shared_ptr<const Starts> starts;
    while (true) {
        Request request;
        std::stop_token stop;
        {
            std::unique_lock lock(mutex_);
            busy_ = false;
            if (!wake_.wait(lock, quit, [this] { return waiting_.has_value(); })) return;
            request = std::move(*waiting_);
            waiting_.reset();
            current_ = std::stop_source();
            stop = current_.get_token();
            busy_ = true;
        }
        auto plan = std::make_shared<const Plan>(planner.plan(request.job, stop));
        if (plan->stopped) continue;
        const auto post = [&](auto&& keep) {
            {
                const std::scoped_lock lock(mutex_);
                keep();
            }
            done_.notify_all();
            QMetaObject::invokeMethod(this, [this] { deliver(); }, Qt::QueuedConnection);
        };
        post([&] {
            plan_ = std::move(plan);
            planRevision_ = request.revision;
        });
        if (request.startsOf.empty()) continue;

        // What the start lines are worth does not depend on the start line in hand.
        StartsKey key{request.job, request.startsOf};
        if (const auto f = key.job.finishes.find(request.startsOf); f != key.job.finishes.end())
            f->second.rules.erase("startOffset");
        key.job.logs.clear();
        key.job.name.clear();
        if (startsFor != key) {
            auto found = std::make_shared<const Starts>(westrum::startsOf(request.job, request.startsOf, stop));
            if (stop.stop_requested()) continue;
            starts = std::move(found);
            startsFor = std::move(key);
        }
        post([&] {
            starts_ = starts;
            startsRevision_ = request.revision;
        });
    }
}

void PlanWorker::deliver() {
    std::shared_ptr<const Plan> plan;
    std::shared_ptr<const Starts> starts;
    Revision planRevision = 0, startsRevision = 0;
    {
        const std::scoped_lock lock(mutex_);
        plan = std::exchange(plan_, nullptr);
        starts = std::exchange(starts_, nullptr);
        planRevision = planRevision_;
        startsRevision = startsRevision_;
    }
    if (plan) emit planned(plan, planRevision);
    if (starts) emit startsFound(starts, startsRevision);
}

} // namespace westrum
