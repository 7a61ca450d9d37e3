#include "app/document/odds_worker.h"

#include <QMetaObject>

#include <algorithm>

namespace westrum {

OddsWorker::OddsWorker(QObject* parent)
    : QObject(parent), thread_([this](const std::stop_token& quit) { run(quit); }) {}

OddsWorker::~OddsWorker() {
    thread_.request_stop();
    const std::scoped_lock lock(mutex_);
    current_.request_stop();
}

void OddsWorker::request(const Job& job, std::shared_ptr<const Plan> plan, std::vector<ProductCut> cuts, int tries) {
    {
        const std::scoped_lock lock(mutex_);
        waiting_ = Question{job, std::move(plan), std::move(cuts), tries, ++asked_};
        current_.request_stop();
    }
    wake_.notify_all();
}

void OddsWorker::stop() {
    const std::scoped_lock lock(mutex_);
    waiting_.reset();
    ++asked_;
    current_.request_stop();
}

void OddsWorker::run(const std::stop_token& quit) {
    // One core is left to the window.
    const int threads = std::clamp(static_cast<int>(std::thread::hardware_concurrency()) - 1, 1, 8);
    while (true) {
        Question question;
        std::stop_token stop;
        {
            std::unique_lock lock(mutex_);
            if (!wake_.wait(lock, quit, [this] { return waiting_.has_value(); })) return;
            question = std::move(*waiting_);
            waiting_.reset();
            current_ = std::stop_source();
            stop = current_.get_token();
        }
        const auto tell = [&](double share) {
            QMetaObject::invokeMethod(
                this,
                [this, number = question.number, share] {
                    if (number == asked_) emit progress(share);
                },
                Qt::QueuedConnection);
        };
        std::vector<ProductOdds> odds =
            oddsOf(question.job, *question.plan, question.cuts, question.tries, {}, threads, stop, tell);
        if (stop.stop_requested() || quit.stop_requested()) continue;
        QMetaObject::invokeMethod(
            this,
            [this, number = question.number, odds = std::move(odds)] {
                if (number == asked_) emit found(odds);
            },
            Qt::QueuedConnection);
    }
}

} // namespace westrum
