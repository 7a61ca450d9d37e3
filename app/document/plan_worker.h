#pragma once

#include <QObject>

#include "core/plan/staged_plan.h"

#include <chrono>
#include <condition_variable>
#include <memory>
#include <mutex>
#include <optional>
#include <string>
#include <thread>

namespace westrum {

using Revision = quint64;

/// Plans jobs on a thread of its own: the newest request wins, older ones are cancelled. A second thread works out
/// every start line of one surface; that is begun anew only when what it depends on differs, so that a drag of the
/// start line neither stops nor repeats it. Signals are emitted in the thread of this object.
class PlanWorker : public QObject {
    Q_OBJECT
public:
    explicit PlanWorker(QObject* parent = nullptr);
    ~PlanWorker() override;

    /// Asks for a plan of a snapshot with the products cut so; `startsOf` names the surface, `layer` the layer of it,
    /// whose start lines are wanted.
    void request(const Job& job, Cuts cuts, Revision revision, const std::string& startsOf, int layer);

    /// Waits, at most that long, until the plan of the last request is there, and emits its signal at once: what is
    /// moved by hand and its consequences then appear in the same frame.
    void waitBriefly(std::chrono::milliseconds most);

    struct Planned {
        StagedPlan::Answer answer;
        Revision revision{};
        bool startsHold = false; ///< the start lines last found are those of this plan too
    };

signals:
    void planned(const westrum::PlanWorker::Planned& planned);
    /// How far the search for start lines is, from 0 to 1.
    void startsProgress(double share);
    void startsFound(std::shared_ptr<const westrum::Starts> starts, quint64 revision);

private:
    struct Request {
        Job job;
        Cuts cuts;
        Revision revision{};
        std::string startsOf;
        int layer = -1;
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
    std::stop_source currentPlan_, currentStarts_;
    Revision asked_ = 0;
    std::optional<Planned> planned_;             ///< ready and not yet delivered
    std::optional<StartsInput> startsInput_;     ///< of the start lines found, or being worked out
    bool startsWaiting_ = false;                 ///< to be worked out
    std::shared_ptr<const Starts> latestStarts_; ///< of startsInput_, once found
    std::shared_ptr<const Starts> starts_;       ///< ready and not yet delivered
    Revision startsRevision_ = 0;
    std::jthread planThread_, startsThread_; ///< last: they stop and join before what they use goes away
};

} // namespace westrum
