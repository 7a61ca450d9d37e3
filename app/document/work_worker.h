#pragma once

#include <QObject>

#include "app/document/newest_question.h"
#include "core/vanwork/work_plan.h"

#include <memory>
#include <optional>

namespace westrum {

/// The work in time as far as it is known.
struct WorkAnswer {
    WorkQuestion question;
    WorkPlan plan;
    std::optional<WorkChance> chance; ///< once the plan is settled
    bool searching = false;           ///< for a plan that ends sooner
};

/// Orders tried before a plan stands, and runs of the chance: fixed, so that the same job gives the same plan on any
/// machine.
inline constexpr int kWorkIterations = 4000, kWorkRuns = 1000;

/// Plans the work on a thread of its own: a first plan at once, better ones as they are found, how sure it is at the
/// end.
class WorkWorker : public QObject {
    Q_OBJECT
public:
    explicit WorkWorker(QObject* parent = nullptr);
    void request(WorkQuestion question, int iterations = kWorkIterations, int runs = kWorkRuns) {
        newest_.ask({std::move(question), iterations, runs});
    }
    void stop() { newest_.stop(); }

signals:
    void planned(const std::shared_ptr<const westrum::WorkAnswer>& answer);

private:
    struct Asked {
        WorkQuestion question;
        int iterations{}, runs{};
    };
    NewestQuestion<Asked> newest_;
};

} // namespace westrum
