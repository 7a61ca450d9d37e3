#include "app/document/option_worker.h"

namespace westrum {

OptionWorker::OptionWorker(QObject* parent)
    : QObject(parent), newest_(this, [this](const Question& question, const auto& turn) {
          if (question.surface.empty()) {
              std::vector<SchemeFigures> schemes = schemeFigures(question.job.read, turn.stop);
              turn.tell([this, schemes = std::move(schemes)] { emit schemesFound(schemes); });
              return;
          }
          std::vector<OptionFigures> figures = optionFigures(question.job.read, question.surface, turn.stop);
          turn.tell([this, surface = question.surface, figures = std::move(figures)] { emit found(surface, figures); });
      }) {}

bool OptionWorker::request(const Job& job, const std::string& surface) {
    Question question{comparisonInput(job), surface};
    if (asked_ == question) return false;
    asked_ = question;
    newest_.ask(std::move(question));
    return true;
}

} // namespace westrum
