#include "app/document/savings_worker.h"

#include <QMetaObject>

namespace westrum {

void SavingsWorker::ask(const Job& job, const std::string& product) {
    working_ = true;
    thread_ = std::jthread([this, job, product, number = ++asked_](const std::stop_token& stop) {
        std::vector<Saving> savings = savingsOn(job, product, stop);
        if (stop.stop_requested()) return;
        QMetaObject::invokeMethod(
            this,
            [this, number, product, savings = std::move(savings)] {
                if (number != asked_) return;
                working_ = false;
                emit found(product, savings);
            },
            Qt::QueuedConnection);
    });
}

void SavingsWorker::stop() {
    ++asked_;
    working_ = false;
    thread_.request_stop();
}

} // namespace westrum
