#include "app/document/option_worker.h"

#include <QMetaObject>

namespace westrum {

OptionWorker::OptionWorker(QObject* parent)
    : QObject(parent), thread_([this](const std::stop_token& quit) { run(quit); }) {}

OptionWorker::~OptionWorker() {
    thread_.request_stop();
    const std::scoped_lock lock(mutex_);
    current_.request_stop();
}

void OptionWorker::request(const Job& job, const std::string& surface) { ask({job, surface, 0}); }

void OptionWorker::requestSchemes(const Job& job) { ask({job, {}, 0}); }

void OptionWorker::ask(Question question) {
    {
        const std::scoped_lock lock(mutex_);
        question.number = ++asked_;
        waiting_ = std::move(question);
        current_.request_stop();
    }
    wake_.notify_all();
}

void OptionWorker::run(const std::stop_token& quit) {
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
        if (question.surface.empty()) {
            std::vector<SchemeFigures> schemes = schemeFigures(question.job, stop);
            if (stop.stop_requested() || quit.stop_requested()) continue;
            QMetaObject::invokeMethod(
                this,
                [this, number = question.number, schemes = std::move(schemes)] {
                    if (number == asked_) emit schemesFound(schemes);
                },
                Qt::QueuedConnection);
            continue;
        }
        std::vector<OptionFigures> figures = optionFigures(question.job, question.surface, stop);
        if (stop.stop_requested() || quit.stop_requested()) continue;
        QMetaObject::invokeMethod(
            this,
            [this, number = question.number, surface = question.surface, figures = std::move(figures)] {
                if (number == asked_) emit found(surface, figures);
            },
            Qt::QueuedConnection);
    }
}

} // namespace westrum
