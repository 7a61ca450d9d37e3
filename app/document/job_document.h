#pragma once

#include <QObject>

#include "app/document/cut_worker.h"
#include "app/document/odds_worker.h"
#include "app/document/plan_worker.h"
#include "app/document/work_worker.h"
#include "core/plan/job.h"
#include "core/plan/plan.h"
#include "formats/job_file.h"

#include <QString>
#include <QUndoStack>

#include <functional>
#include <memory>
#include <optional>

namespace westrum {

/// What of the job changed, so that views repaint their part only.
enum class JobPart { Details, Shell, Measurement, Finish, Catalogue, Log, Cutting, Buying, Work };

/// The open job. Only commands change it; each change is told by one signal and planned in the background.
class JobDocument : public QObject {
    Q_OBJECT
public:
    explicit JobDocument(QObject* parent = nullptr);

    [[nodiscard]] const Job& job() const { return job_; }
    [[nodiscard]] QUndoStack& undoStack() { return undo_; }
    [[nodiscard]] const QUndoStack& undoStack() const { return undo_; }

    /// The file the job was opened from or saved to; empty for a job never saved.
    [[nodiscard]] const QString& path() const { return path_; }
    [[nodiscard]] bool isModified() const { return recovered_ || !undo_.isClean(); }

    /// Replaces the open job; undo starts anew. `recovered` marks work that no file holds yet.
    void open(Job job, const QString& path, bool recovered = false);
    /// Reads a file; on faults the open job stays as it is.
    std::optional<FileFaults> openFile(const QString& path);
    /// Undo reaches across a save.
    std::optional<FileFault> saveTo(const QString& path);

    /// The surface in hand; its start lines are worked out.
    [[nodiscard]] const std::string& currentSurface() const { return current_; }
    void setCurrentSurface(const std::string& id);
    /// The layer in hand of its build-up: the one that is seen, until another is taken. -1: there is none.
    [[nodiscard]] int currentLayer() const;
    void setCurrentLayer(int layer);

    /// The latest plan, with what the cutting buys; never null. It may be of an earlier revision while planning is
    /// under way.
    [[nodiscard]] std::shared_ptr<const Plan> plan() const { return plan_; }
    [[nodiscard]] std::shared_ptr<const Starts> starts() const { return starts_; }
    [[nodiscard]] bool isPlanning() const { return planRevision_ != revision_; }
    /// The cutting of all products, which goes on in the background.
    [[nodiscard]] CutWorker& cutting() { return cutting_; }
    [[nodiscard]] const CutWorker& cutting() const { return cutting_; }
    /// The latest cutting of every product that has one.
    [[nodiscard]] std::vector<ProductCut> cuts() const;
    /// True once plan() and starts() belong to the job as it is.
    [[nodiscard]] bool isSettled() const { return planRevision_ == revision_ && startsRevision_ == revision_; }

    /// How often what is bought would not do, of the plan as it is; null until it was asked for and tried.
    [[nodiscard]] std::shared_ptr<const std::vector<ProductOdds>> odds() const { return odds_; }
    /// Has them tried, if the plan and its cutting are settled and nobody did yet; oddsChanged() tells.
    void askOdds();
    void setOddsTries(int tries) { oddsTries_ = tries; }
    [[nodiscard]] int oddsTries() const { return oddsTries_; }

    /// The work in time; null until it was asked for. It may be of an earlier job while planning is under way.
    [[nodiscard]] std::shared_ptr<const WorkAnswer> work() const { return work_; }
    /// Has it planned, if the plan is settled and it is not of the job as it is; workChanged() tells.
    void askWork();
    /// Whether the work that is there is of the job as it is, and settled.
    [[nodiscard]] bool isWorkSettled() const { return work_ && !work_->searching && workFor_ == work_->question; }
    /// How long it is searched for, and how often it is played through.
    void setWorkSearch(int iterations, int runs) {
        workIterations_ = iterations;
        workRuns_ = runs;
    }
    /// By the clock on the wall, or as it was set.
    [[nodiscard]] WorkClock::Moment now() const;
    /// For tests, pictures and the example; nothing: the clock's.
    void setNow(std::optional<WorkClock::Moment> now) { now_ = now; }

    /// For commands only: edits the job, tells the views and asks for a plan.
    void edit(JobPart part, const std::string& surface, const std::function<void(Job&)>& change);

signals:
    void jobReplaced();
    void jobChanged(westrum::JobPart part, const std::string& surface);
    void currentSurfaceChanged();
    void planComputed();
    /// A better cutting of some product is there, or a search began or ended.
    void cuttingChanged();
    /// Only the cuts changed, and something else is bought than before. `consequence`: of a change to the job, not of a
    /// search that found better.
    void purchasesChanged(bool consequence);
    /// They are there, or no longer of the plan as it is.
    void oddsChanged();
    void oddsProgress(double share);
    /// A plan of the work, a better one, or how sure it is.
    void workChanged();
    void startsComputed();
    /// How far the search for better ways is, from 0 to 1.
    void startsProgress(double share);
    void pathChanged();
    void modifiedChanged();
    void saved();

private:
    /// Asks for a plan of the job and the cuts as they are: whatever was edited, what differs is found by its inputs.
    void replan(bool edited);
    void takePlan(const PlanWorker::Planned& planned);
    void takeCuts();
    /// Odds that are of another question are taken away; of those that stay it is said anew what is bought.
    void checkOdds();

    Job job_;
    QUndoStack undo_;
    QString path_;
    bool recovered_ = false;
    std::string current_;
    int layer_ = -1; ///< taken in hand; -1: the one that is seen
    Revision revision_ = 0;
    Revision planRevision_ = 0;
    Revision startsRevision_ = 0;
    std::shared_ptr<const Plan> plan_;
    bool edited_ = false;      ///< since the plan that is there: the job, not the cuts alone
    bool consequence_ = false; ///< as purchasesChanged() tells it, of the cuts since
    std::shared_ptr<const Starts> starts_;
    PlanWorker worker_;
    std::vector<CutState> cuts_; ///< as last told
    CutWorker cutting_;
    std::optional<OddsQuestion> oddsFor_; ///< asked, or answered by odds_
    std::shared_ptr<const std::vector<ProductOdds>> odds_;
    int oddsTries_ = 300;
    OddsWorker oddsWorker_;
    std::optional<WorkQuestion> workFor_; ///< asked, or answered by work_
    std::shared_ptr<const WorkAnswer> work_;
    std::optional<WorkClock::Moment> now_;
    int workIterations_ = kWorkIterations, workRuns_ = kWorkRuns;
    WorkWorker workWorker_;
};

} // namespace westrum
