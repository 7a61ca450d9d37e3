#include "app/document/job_document.h"

#include "core/plan/cut_problems.h"

#include <QDateTime>
#include <QDir>
#include <QFileInfo>

#include <algorithm>
#include <utility>

namespace westrum {

/// Below one frame at 60 Hz with room for painting: beyond it the plan follows when it is ready.
static constexpr std::chrono::milliseconds kWithinAFrame{10};

JobDocument::JobDocument(QObject* parent)
    : QObject(parent), plan_(std::make_shared<const Plan>()), starts_(std::make_shared<const Starts>()) {
    connect(&worker_, &PlanWorker::planned, this, &JobDocument::takePlan);
    connect(&cutting_, &CutWorker::changed, this, &JobDocument::takeCuts);
    connect(&worker_, &PlanWorker::startsProgress, this, &JobDocument::startsProgress);
    connect(&worker_, &PlanWorker::startsFound, this,
            [this](const std::shared_ptr<const Starts>& starts, quint64 revision) {
                if (revision != revision_) return;
                startsRevision_ = revision;
                if (starts_ == starts) return;
                starts_ = starts;
                emit startsComputed();
            });
    connect(&oddsWorker_, &OddsWorker::progress, this, &JobDocument::oddsProgress);
    connect(&oddsWorker_, &OddsWorker::found, this, [this](const std::vector<ProductOdds>& odds) {
        odds_ = std::make_shared<const std::vector<ProductOdds>>(odds);
        checkOdds();
        if (odds_) emit oddsChanged();
    });
    connect(&workWorker_, &WorkWorker::planned, this, [this](const std::shared_ptr<const WorkAnswer>& answer) {
        work_ = answer;
        emit workChanged();
    });
    connect(&undo_, &QUndoStack::cleanChanged, this, &JobDocument::modifiedChanged);
}

void JobDocument::open(Job job, const QString& path, bool recovered) {
    job_ = std::move(job);
    path_ = path;
    recovered_ = recovered;
    undo_.clear();
    current_ = job_.surfaces.empty() ? std::string() : job_.surfaces.front().id;
    plan_ = std::make_shared<const Plan>();
    starts_ = std::make_shared<const Starts>();
    cutting_.request({});
    oddsWorker_.stop();
    oddsFor_.reset();
    odds_.reset();
    workWorker_.stop();
    workFor_.reset();
    work_.reset();
    now_.reset();
    emit jobReplaced();
    emit pathChanged();
    emit modifiedChanged();
    replan(true);
}

std::optional<FileFaults> JobDocument::openFile(const QString& path) {
    Result<Job, FileFaults> read = readJobFile(path);
    if (!read) return read.error();
    open(std::move(read.value()), path);
    return std::nullopt;
}

namespace {

/// Photographs are named from the job's file: from its new place they are called otherwise.
void besideFile(Job& job, const QString& from, const QString& to) {
    const QDir old(from.isEmpty() ? QDir::currentPath() : QFileInfo(from).absolutePath());
    const QDir here(QFileInfo(to).absolutePath());
    for (RecordEntry& e : job.record)
        if (e.kind == EntryKind::Photograph && !e.text.empty())
            e.text = here.relativeFilePath(old.absoluteFilePath(QString::fromStdString(e.text))).toStdString();
}

} // namespace

std::optional<FileFault> JobDocument::saveTo(const QString& path) {
    const bool moved = path != path_;
    Job kept = job_;
    if (moved) besideFile(kept, path_, path);
    if (auto fault = saveJobFile(kept, path)) return fault;
    path_ = path;
    if (kept != job_) edit(JobPart::Log, {}, [&](Job& j) { j = std::move(kept); });
    recovered_ = false;
    undo_.setClean();
    if (moved) emit pathChanged();
    emit modifiedChanged();
    emit saved();
    return std::nullopt;
}

void JobDocument::setCurrentSurface(const std::string& id) {
    if (id == current_ || !job_.surface(id)) return;
    current_ = id;
    layer_ = -1;
    starts_ = std::make_shared<const Starts>();
    emit currentSurfaceChanged();
    replan(true);
}

int JobDocument::currentLayer() const {
    const Finish& finish = job_.finish(current_);
    return layer_ >= 0 && layer_ < static_cast<int>(finish.layers.size()) ? layer_ : faceLayer(finish, job_.catalogue);
}

void JobDocument::setCurrentLayer(int layer) {
    if (layer == currentLayer()) return;
    layer_ = layer;
    starts_ = std::make_shared<const Starts>();
    emit currentSurfaceChanged();
    replan(true);
}

void JobDocument::edit(JobPart part, const std::string& surface, const std::function<void(Job&)>& change) {
    change(job_);
    // A list with nothing in it is none.
    if (part == JobPart::Cutting) std::erase_if(job_.cutLists, [](const auto& list) { return list.second.empty(); });
    if (part == JobPart::Finish)
        std::erase_if(job_.finishes, [](const auto& f) { return f.second == FinishOptions{}; });
    const bool gone = !job_.surface(current_);
    if (gone) current_ = job_.surfaces.empty() ? std::string() : job_.surfaces.front().id;
    emit jobChanged(part, surface);
    if (gone) emit currentSurfaceChanged();
    replan(true);
}

void JobDocument::replan(bool edited) {
    ++revision_;
    edited_ = edited_ || edited;
    Cuts cuts;
    for (const CutState& state : cuts_)
        if (state.cut) cuts.push_back(state.cut);
    worker_.request(job_, std::move(cuts), revision_, current_, currentLayer());
    if (edited) worker_.waitBriefly(kWithinAFrame);
}

void JobDocument::takePlan(const PlanWorker::Planned& planned) {
    if (planned.revision != revision_) return; // of an older job
    const std::shared_ptr<const Plan> before = std::exchange(plan_, planned.answer.plan);
    planRevision_ = revision_;
    if (!planned.startsHold) starts_ = std::make_shared<const Starts>();
    checkOdds();
    const bool byEdit = std::exchange(edited_, false), consequence = std::exchange(consequence_, false);
    if (byEdit)
        emit planComputed();
    else if (before->purchases != plan_->purchases)
        emit purchasesChanged(consequence);
    cutting_.request(*planned.answer.problems);
}

void JobDocument::takeCuts() {
    // The quick answer may be there before the change was told: its problem is another one all the same.
    const auto standsStill = [](const CutState& a, const CutState& b) { return !a.stale && a.asked == b.asked; };
    const std::vector<CutState> last = std::exchange(cuts_, cutting_.states());
    const bool other = !std::equal(last.begin(), last.end(), cuts_.begin(), cuts_.end(),
                                   [](const CutState& a, const CutState& b) { return a.cut == b.cut; });
    consequence_ = consequence_ || !std::equal(last.begin(), last.end(), cuts_.begin(), cuts_.end(), standsStill);
    emit cuttingChanged();
    if (other) replan(false);
}

void JobDocument::checkOdds() {
    if (!oddsFor_) return;
    if (*oddsFor_ != oddsQuestion(job_, *plan_, cuts(), oddsTries_)) {
        oddsWorker_.stop();
        oddsFor_.reset();
        if (std::exchange(odds_, nullptr)) emit oddsChanged();
    } else if (odds_) {
        auto now = std::make_shared<std::vector<ProductOdds>>(*odds_);
        fillBought(job_, *plan_, cuts(), *now);
        odds_ = std::move(now);
    }
}

void JobDocument::askOdds() {
    if (oddsFor_ || planRevision_ != revision_ || cutting_.isSearching() || plan_->purchases.empty()) return;
    oddsFor_ = oddsQuestion(job_, *plan_, cuts(), oddsTries_);
    oddsWorker_.request(*oddsFor_);
}

void JobDocument::askWork() {
    if (planRevision_ != revision_) return;
    WorkClock::Moment at = now();
    constexpr int kStep = 15; // minutes: a plan does not change with every look at the clock
    at.minute -= at.minute % kStep;
    WorkQuestion question = workQuestion(job_, *plan_, at);
    if (workFor_ == question) return;
    workFor_ = question;
    workWorker_.request(std::move(question), workIterations_, workRuns_);
}

WorkClock::Moment JobDocument::now() const {
    if (now_) return *now_;
    const QDateTime clock = QDateTime::currentDateTime();
    return {{clock.date().year(), clock.date().month(), clock.date().day()},
            clock.time().hour() * 60 + clock.time().minute()};
}

std::vector<ProductCut> JobDocument::cuts() const {
    std::vector<ProductCut> all;
    for (const CutState& state : cuts_)
        if (state.cut) all.push_back(*state.cut);
    return all;
}

} // namespace westrum
