#include "app/document/plan_worker.h"

#include <QMetaObject>

#include <utility>

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

void PlanWorker::request(const Job& job, Cuts cuts, Revision revision, const std::string& startsOf, int layer) {
    {
        const std::scoped_lock lock(mutex_);
        waitingPlan_ = Request{job, std::move(cuts), revision, startsOf, layer};
        asked_ = revision;
        currentPlan_.request_stop();
    }
    wake_.notify_all();
}

void PlanWorker::waitBriefly(std::chrono::milliseconds most) {
    {
        std::unique_lock lock(mutex_);
        done_.wait_for(lock, most, [this] { return planned_ && planned_->revision == asked_; });
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
    StagedPlan staged;
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
        StagedPlan::Answer answer = staged.plan(request.job, request.cuts, stop);
        if (!answer.plan || quit.stop_requested()) continue;
        StartsInput input = startsInput(request.job, *answer.surfaces, request.startsOf, request.layer);
        post([&] {
            if (startsInput_ != input) {
                startsInput_ = std::move(input);
                startsWaiting_ = true;
                latestStarts_.reset();
                currentStarts_.request_stop();
            }
            starts_ = latestStarts_; // those that hold are told for the new revision too
            startsRevision_ = request.revision;
            planned_ = Planned{std::move(answer), request.revision, latestStarts_ != nullptr};
        });
        wake_.notify_all();
    }
}

void PlanWorker::runStarts(const std::stop_token& quit) {
    while (true) {
        StartsInput input;
        std::stop_token stop;
        {
            std::unique_lock lock(mutex_);
            if (!wake_.wait(lock, quit, [this] { return startsWaiting_; })) return;
            startsWaiting_ = false;
            input = *startsInput_;
            currentStarts_ = std::stop_source();
            stop = currentStarts_.get_token();
        }
        auto found =
            std::make_shared<const Starts>(westrum::startsOf(input, stop, [&, last = -1](double share) mutable {
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
    std::optional<Planned> planned;
    std::shared_ptr<const Starts> starts;
    Revision startsRevision = 0;
    {
        const std::scoped_lock lock(mutex_);
        planned = std::exchange(planned_, std::nullopt);
        starts = std::exchange(starts_, nullptr);
        startsRevision = startsRevision_;
    }
    if (planned) emit this->planned(*planned);
    if (starts) emit startsFound(starts, startsRevision);
}

} // namespace westrum
