#include "app/document/plan_worker.h"

#include <QMetaObject>

namespace westrum {

PlanWorker::PlanWorker(QObject* parent)
    : QObject(parent),
      planThread_([this](const std::stop_token& quit) { runPlans(quit); }),
      startsThread_([this](const std::stop_token& quit) { runStarts(quit); }) {}

PlanWorker::~PlanWorker() {
    planThread_.request_stop();
    startsThread_.request_stop();
    const std::scoped_lock lock(mutex_);
    currentPlan_.request_stop();
    currentStarts_.request_stop();
}

Finish withoutStarts(Finish finish) {
    for (Layer& layer : finish.layers)
        for (const char* key : {"startOffset", "start", "startY"}) layer.rules.erase(key);
    return finish;
}

void PlanWorker::request(const Job& job, Revision revision, const std::string& startsOf, int layer) {
    StartsKey key{job, startsOf, layer};
    bool planks = true;
    if (const auto f = key.job.finishes.find(startsOf); f != key.job.finishes.end()) {
        f->second.now() = withoutStarts(f->second.now());
        f->second.options = {f->second.now()};
        f->second.chosen = 0;
        if (layer >= 0) {
            const Product* p = job.catalogue.find(f->second.now().layers[static_cast<std::size_t>(layer)].product);
            planks = !p || p->family == "planks";
        }
    }
    key.job.logs.clear();
    key.job.name.clear();
    key.job.vehicle.clear();
    key.job.headroom = {};
    if (planks) { // neither the datum nor the door nor supports matter to a floating floor
        key.job.datum = {};
        key.job.access = {};
    }
    // What other surfaces are does not change this one's start lines, but for the floor, on which the datum hangs.
    std::erase_if(key.job.surfaces,
                  [&](const Surface& s) { return s.id != startsOf && (planks || s.kind != SurfaceKind::Floor); });
    for (Surface& s : key.job.surfaces) {
        s.name.clear();
        s.edges.clear();
    }
    std::erase_if(key.job.finishes, [&](const auto& f) { return f.first != startsOf; });
    bool again = false;
    {
        const std::scoped_lock lock(mutex_);
        waitingPlan_ = Request{job, revision, startsOf, layer};
        asked_ = revision;
        currentPlan_.request_stop();
        startsRevision_ = revision;
        if (startsKey_ != key) {
            startsKey_ = std::move(key);
            waitingStarts_ = Request{job, revision, startsOf, layer};
            latestStarts_.reset();
            starts_.reset(); // found for another question and not told yet: it would be taken for this one's answer
            currentStarts_.request_stop();
        } else if (latestStarts_) {
            starts_ = latestStarts_; // they still hold: say so for the new revision
            again = true;
        }
    }
    wake_.notify_all();
    if (again)
        QMetaObject::invokeMethod(
            this, [this] { deliver(); }, Qt::QueuedConnection);
}

void PlanWorker::waitBriefly(std::chrono::milliseconds most) {
    {
        std::unique_lock lock(mutex_);
        done_.wait_for(lock, most, [this] { return plan_ && planRevision_ == asked_; });
    }
    deliver();
}

template <class Keep> void PlanWorker::post(Keep keep) {
    {
        const std::scoped_lock lock(mutex_);
        keep();
    }
    done_.notify_all();
    QMetaObject::invokeMethod(
        this, [this] { deliver(); }, Qt::QueuedConnection);
}

void PlanWorker::runPlans(const std::stop_token& quit) {
    Planner planner;
    while (true) {
        Request request;
        std::stop_token stop;
        {
            std::unique_lock lock(mutex_);
            if (!wake_.wait(lock, quit, [this] { return waitingPlan_.has_value(); })) return;
            request = std::move(*waitingPlan_);
            waitingPlan_.reset();
            currentPlan_ = std::stop_source();
            stop = currentPlan_.get_token();
        }
        auto plan = std::make_shared<const Plan>(planner.plan(request.job, stop));
        if (plan->stopped || quit.stop_requested()) continue;
        post([&] {
            plan_ = std::move(plan);
            planRevision_ = request.revision;
        });
    }
}

void PlanWorker::runStarts(const std::stop_token& quit) {
    while (true) {
        Request request;
        std::stop_token stop;
        {
            std::unique_lock lock(mutex_);
            if (!wake_.wait(lock, quit, [this] { return waitingStarts_.has_value(); })) return;
            request = std::move(*waitingStarts_);
            waitingStarts_.reset();
            currentStarts_ = std::stop_source();
            stop = currentStarts_.get_token();
        }
        auto found = std::make_shared<const Starts>(
            westrum::startsOf(request.job, request.startsOf, request.layer, stop, [&, last = -1](double share) mutable {
                const int percent = static_cast<int>(share * 20) * 5; // now and then
                if (percent == std::exchange(last, percent) || stop.stop_requested()) return;
                QMetaObject::invokeMethod(
                    this, [this, percent] { emit startsProgress(percent / 100.0); }, Qt::QueuedConnection);
            }));
        if (stop.stop_requested() || quit.stop_requested()) continue;
        post([&] {
            if (stop.stop_requested()) return; // asked for others meanwhile
            latestStarts_ = found;
            starts_ = found;
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
