#pragma once

#include <QObject>

#include "core/plan/plan.h"

#include <chrono>
#include <condition_variable>
#include <memory>
#include <mutex>
#include <optional>
#include <string>
#include <thread>

namespace westrum {

using Revision = quint64;

/// A finish without what the start lines are: what each of them is worth does not hang on where they are.
Finish withoutStarts(Finish finish);

/// Plans jobs on a thread of its own: the newest request wins, older ones are cancelled. A second thread works out
/// every start line of one surface; since that does not depend on the start line in hand, a drag neither stops nor
/// repeats it. Signals are emitted in the thread of this object.
class PlanWorker : public QObject {
    Q_OBJECT
public:
    explicit PlanWorker(QObject* parent = nullptr);
    ~PlanWorker() override;

    /// Asks for a plan of a snapshot; `startsOf` names the surface, `layer` the layer of it, whose start lines are
    /// wanted.
    void request(const Job& job, Revision revision, const std::string& startsOf, int layer);

    /// Waits, at most that long, until the plan of the last request is there, and emits its signal at once: what is
    /// moved by hand and its consequences then appear in the same frame.
    void waitBriefly(std::chrono::milliseconds most);

signals:
    void planned(std::shared_ptr<const westrum::Plan> plan, quint64 revision);
    /// How far the search for start lines is, from 0 to 1.
    void startsProgress(double share);
    void startsFound(std::shared_ptr<const westrum::Starts> starts, quint64 revision);

private:
    struct Request {
        Job job;
        Revision revision{};
        std::string startsOf;
        int layer = -1;
    };
    struct StartsKey {
        Job job; ///< with the start offset of the surface taken out
        std::string surface;
        int layer = -1;
        friend bool operator==(const StartsKey&, const StartsKey&) = default;
    };

    void runPlans(const std::stop_token& quit);
    void runStarts(const std::stop_token& quit);
    void deliver();
    /// Hands a result over under the lock, wakes who waits and has it delivered.
    template <class Keep> void post(Keep keep);

    mutable std::mutex mutex_;
    std::condition_variable_any wake_;
    std::condition_variable_any done_;
    std::optional<Request> waitingPlan_;
    std::optional<Request> waitingStarts_;
    std::stop_source currentPlan_, currentStarts_;
    std::optional<StartsKey> startsKey_; ///< of the start lines found, or being worked out
    Revision asked_ = 0;
    std::shared_ptr<const Plan> plan_; ///< ready and not yet delivered
    Revision planRevision_ = 0;
    std::shared_ptr<const Starts> starts_;
    std::shared_ptr<const Starts> latestStarts_; ///< of startsKey_, once found
    Revision startsRevision_ = 0;
    std::jthread planThread_, startsThread_; ///< last: they stop and join before what they use goes away
};

} // namespace westrum
