#include "app/document/odds_worker.h"

#include <algorithm>

namespace westrum {

OddsWorker::OddsWorker(QObject* parent)
    : QObject(parent), newest_(this, [this](const OddsQuestion& question, const auto& turn) {
          // One core is left to the window.
          const int threads = std::clamp(static_cast<int>(std::thread::hardware_concurrency()) - 1, 1, 8);
          const auto tell = [&](double share) { turn.tell([this, share] { emit progress(share); }); };
          std::vector<ProductOdds> odds = oddsOf(question, mishapsOf(question.job.read), threads, turn.stop, tell);
          turn.tell([this, odds = std::move(odds)] { emit found(odds); });
      }) {}

void OddsWorker::request(OddsQuestion question) { newest_.ask(std::move(question)); }

void OddsWorker::stop() { newest_.stop(); }

} // namespace westrum
