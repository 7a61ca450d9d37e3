#pragma once

#include <QObject>

#include "core/plan/odds.h"

#include <condition_variable>
#include <memory>
#include <mutex>
#include <optional>
#include <thread>
#include <vector>

namespace westrum {

/// Tries on a thread of its own how often what is bought would not do: the newest question wins, and it can be stopped.
/// Signals come in the thread of this object.
class OddsWorker : public QObject {
    Q_OBJECT
public:
    explicit OddsWorker(QObject* parent = nullptr);
    ~OddsWorker() override;
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
        int number{};
    };
    void run(const std::stop_token& quit);

    std::mutex mutex_;
    std::condition_variable_any wake_;
    std::optional<Question> waiting_;
    int asked_ = 0; ///< questions so far; an older one's answer is not told
    std::stop_source current_;
    std::jthread thread_; ///< last: it stops and joins before what it uses goes away
};

} // namespace westrum
