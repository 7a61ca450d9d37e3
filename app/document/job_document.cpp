#include "app/document/job_document.h"

#include "core/plan/cut_problems.h"

#include <algorithm>
#include <utility>

namespace westrum {

/// Below one frame at 60 Hz with room for painting: beyond it the plan follows when it is ready.
static constexpr std::chrono::milliseconds kWithinAFrame{10};

JobDocument::JobDocument(QObject* parent)
    : QObject(parent),
      surfacesPlan_(std::make_shared<const Plan>()),
      plan_(surfacesPlan_),
      starts_(std::make_shared<const Starts>()) {
    connect(&worker_, &PlanWorker::planned, this, [this](const std::shared_ptr<const Plan>& plan, quint64 revision) {
        if (revision != revision_) return; // of an older job
        surfacesPlan_ = plan;
        planRevision_ = revision;
        addCuts();
        refillOdds();
        emit planComputed();
        recut();
    });
    connect(&cutting_, &CutWorker::changed, this, &JobDocument::takeCuts);
    connect(&worker_, &PlanWorker::startsProgress, this, &JobDocument::startsProgress);
    connect(&worker_, &PlanWorker::startsFound, this,
            [this](const std::shared_ptr<const Starts>& starts, quint64 revision) {
                if (revision != revision_) return;
                starts_ = starts;
                startsRevision_ = revision;
                emit startsComputed();
            });
    connect(&oddsWorker_, &OddsWorker::progress, this, &JobDocument::oddsProgress);
    connect(&oddsWorker_, &OddsWorker::found, this, [this](const std::vector<ProductOdds>& odds) {
        odds_ = std::make_shared<const std::vector<ProductOdds>>(odds);
        refillOdds();
        emit oddsChanged();
    });
    connect(&undo_, &QUndoStack::cleanChanged, this, &JobDocument::modifiedChanged);
}

void JobDocument::open(Job job, const QString& path, bool recovered) {
    job_ = std::move(job);
    path_ = path;
    recovered_ = recovered;
    undo_.clear();
    current_ = job_.surfaces.empty() ? std::string() : job_.surfaces.front().id;
    surfacesPlan_ = plan_ = std::make_shared<const Plan>();
    starts_ = std::make_shared<const Starts>();
    cutting_.request({});
    dropOdds();
    emit jobReplaced();
    emit pathChanged();
    emit modifiedChanged();
    replan();
}

std::optional<FileFaults> JobDocument::openFile(const QString& path) {
    Result<Job, FileFaults> read = readJobFile(path);
    if (!read) return read.error();
    open(std::move(read.value()), path);
    return std::nullopt;
}

std::optional<FileFault> JobDocument::saveTo(const QString& path) {
    if (auto fault = saveJobFile(job_, path)) return fault;
    const bool moved = path != path_;
    path_ = path;
    recovered_ = false;
    undo_.setClean();
    if (moved) emit pathChanged();
    emit modifiedChanged();
    return std::nullopt;
}

void JobDocument::setCurrentSurface(const std::string& id) {
    if (id == current_ || !job_.surface(id)) return;
    current_ = id;
    layer_ = -1;
    starts_ = std::make_shared<const Starts>();
    emit currentSurfaceChanged();
    replan();
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
    replan();
}

void JobDocument::edit(JobPart part, const std::string& surface, const std::function<void(Job&)>& change) {
    const Finish before = withoutStarts(job_.finish(surface));
    const double spoiled = job_.spoilChance;
    const bool consumables = job_.consumables;
    change(job_);
    // What is bought to spare, or accepted, changes no need.
    const bool needsHold = part == JobPart::Log ||
                           (part == JobPart::Buying && spoiled == job_.spoilChance && consumables == job_.consumables);
    if (!needsHold) dropOdds();
    // A list with nothing in it is none.
    if (part == JobPart::Cutting) std::erase_if(job_.cutLists, [](const auto& list) { return list.second.empty(); });
    if (part == JobPart::Finish)
        std::erase_if(job_.finishes, [](const auto& f) { return f.second == FinishOptions{}; });
    // What each start line is worth stays true only while nothing but the start line itself has moved.
    const Finish after = withoutStarts(job_.finish(surface));
    const bool elsewhere = (part == JobPart::Measurement || part == JobPart::Finish) && surface != current_;
    const bool startsHold = elsewhere || part == JobPart::Log || part == JobPart::Cutting || part == JobPart::Details ||
                            part == JobPart::Buying || (part == JobPart::Finish && after == before);
    if (!startsHold) starts_ = std::make_shared<const Starts>();
    const bool gone = !job_.surface(current_);
    if (gone) current_ = job_.surfaces.empty() ? std::string() : job_.surfaces.front().id;
    emit jobChanged(part, surface);
    if (gone) emit currentSurfaceChanged();
    const bool lengthsMatter = std::any_of(job_.finishes.begin(), job_.finishes.end(), [&](const auto& f) {
        return std::any_of(f.second.now().layers.begin(), f.second.now().layers.end(), [&](const Layer& l) {
            const Product* p = job_.catalogue.find(l.product);
            return p && p->family == "boards";
        });
    });
    if (part == JobPart::Cutting && !lengthsMatter)
        recut(); // surfaces do not hang on it
    else if (part != JobPart::Log)
        replan();
}

void JobDocument::recut() { cutting_.request(cutProblems(job_, *surfacesPlan_)); }

void JobDocument::takeCuts() {
    const auto waits = [](const CutState& s) { return s.stale; };
    const std::vector<CutState> last = std::exchange(cuts_, cutting_.states());
    const bool consequence = last.size() != cuts_.size() || std::any_of(last.begin(), last.end(), waits);
    const std::shared_ptr<const Plan> before = plan_;
    addCuts();
    if (before->purchases != plan_->purchases) {
        dropOdds();
        emit purchasesChanged(consequence);
    }
    emit cuttingChanged();
}

void JobDocument::dropOdds() {
    oddsAsked_ = false;
    oddsWorker_.stop();
    if (!odds_) return;
    odds_.reset();
    emit oddsChanged();
}

void JobDocument::refillOdds() {
    if (!odds_) return;
    auto now = std::make_shared<std::vector<ProductOdds>>(*odds_);
    fillBought(job_, *plan_, cuts(), *now);
    odds_ = std::move(now);
}

void JobDocument::askOdds() {
    if (odds_ || oddsAsked_ || planRevision_ != revision_ || cutting_.isSearching() || plan_->purchases.empty()) return;
    oddsAsked_ = true;
    oddsWorker_.request(job_, plan_, cuts(), oddsTries_);
}

std::vector<ProductCut> JobDocument::cuts() const {
    std::vector<ProductCut> all;
    for (const CutState& state : cuts_)
        if (state.cut) all.push_back(*state.cut);
    return all;
}

void JobDocument::addCuts() {
    const std::vector<ProductCut> cuts = this->cuts();
    plan_ = std::make_shared<const Plan>(withCuts(*surfacesPlan_, job_, cuts));
}

void JobDocument::replan() {
    ++revision_;
    worker_.request(job_, revision_, current_, currentLayer());
    worker_.waitBriefly(kWithinAFrame);
}

} // namespace westrum
