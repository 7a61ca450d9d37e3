#include "app/document/savings_worker.h"

namespace westrum {

SavingsWorker::SavingsWorker(QObject* parent)
    : QObject(parent), newest_(this, [this](const Question& question, const auto& turn) {
          std::vector<Saving> savings = savingsOn(question.job.read, question.product, turn.stop);
          turn.tell([this, product = question.product, savings = std::move(savings)] {
              working_ = false;
              emit found(product, savings);
          });
      }) {}

void SavingsWorker::ask(const Job& job, const std::string& product) {
    working_ = true;
    asked_ = Question{comparisonInput(job), product};
    newest_.ask(*asked_);
}

bool SavingsWorker::isStale(const Job& job) const { return asked_ && asked_->job != comparisonInput(job); }

void SavingsWorker::stop() {
    working_ = false;
    newest_.stop();
}

} // namespace westrum
