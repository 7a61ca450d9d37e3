#include "app/document/option_worker.h"

namespace westrum {

OptionWorker::OptionWorker(QObject* parent)
    : QObject(parent), newest_(this, [this](const Question& question, const auto& turn) {
          if (question.surface.empty()) {
              std::vector<SchemeFigures> schemes = schemeFigures(question.job, turn.stop);
              turn.tell([this, schemes = std::move(schemes)] { emit schemesFound(schemes); });
              return;
          }
          std::vector<OptionFigures> figures = optionFigures(question.job, question.surface, turn.stop);
          turn.tell([this, surface = question.surface, figures = std::move(figures)] { emit found(surface, figures); });
      }) {}

void OptionWorker::request(const Job& job, const std::string& surface) { newest_.ask({job, surface}); }

void OptionWorker::requestSchemes(const Job& job) { newest_.ask({job, {}}); }

} // namespace westrum
