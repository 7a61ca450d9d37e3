#pragma once

#include <QObject>

#include "app/document/newest_question.h"
#include "core/plan/odds.h"

#include <memory>
#include <vector>

namespace westrum {

/// Tries on a thread of its own how often what is bought would not do: the newest question wins, and it can be stopped.
/// Signals come in the thread of this object.
class OddsWorker : public QObject {
    Q_OBJECT
public:
    explicit OddsWorker(QObject* parent = nullptr);
    /// @param plan  with what the cuts buy
    void request(const Job& job, std::shared_ptr<const Plan> plan, std::vector<ProductCut> cuts, int tries);
    void stop();

signals:
    void progress(double share);
    void found(const std::vector<westrum::ProductOdds>& odds);

private:
    struct Question {
        Job job;
        std::shared_ptr<const Plan> plan;
        std::vector<ProductCut> cuts;
        int tries{};
    };
    NewestQuestion<Question> newest_;
};

} // namespace westrum
