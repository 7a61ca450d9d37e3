#include "app/document/cut_worker.h"

#include <QMetaObject>

#include <algorithm>

namespace westrum {
namespace {

/// Iterations of an improving search of usual length: about a quarter of a minute on an ordinary machine, more for many
/// pieces on a roll.
std::int64_t iterationsOf(StockForm form, std::size_t pieces) {
    switch (form) {
    case StockForm::Lengths: return 2000;
    case StockForm::Sheets: return 60000;
    case StockForm::Roll: return 400000 + 500 * std::int64_t(std::min<std::size_t>(pieces, 100));
    }
    return 1;
}

} // namespace

CutWorker::CutWorker(QObject* parent) : QObject(parent), thread_([this](const std::stop_token& quit) { run(quit); }) {}

CutWorker::~CutWorker() {
    thread_.request_stop();
    const std::scoped_lock lock(mutex_);
    current_.request_stop();
}

void CutWorker::request(std::vector<CutProblem> problems) {
    bool different = false;
    {
        const std::scoped_lock lock(mutex_);
        std::vector<Entry> next;
        for (CutProblem& problem : problems) {
            const auto same = std::find_if(entries_.begin(), entries_.end(),
                                           [&](const Entry& e) { return e.problem.product.id == problem.product.id; });
            if (same != entries_.end() && same->problem == problem) {
                next.push_back(std::move(*same));
                continue;
            }
            different = true;
            if (running_ == problem.product.id) current_.request_stop();
            Entry entry{std::move(problem), {}, false, false};
            if (same != entries_.end()) entry.state.cut = same->state.cut;
            entry.state.searching = true;
            entry.state.stale = true;
            entry.state.asked = ++asked_;
            next.push_back(std::move(entry));
        }
        different = different || next.size() != entries_.size();
        if (!running_.empty() &&
            std::none_of(next.begin(), next.end(), [&](const Entry& e) { return e.problem.product.id == running_; }))
            current_.request_stop();
        entries_ = std::move(next);
    }
    wake_.notify_all();
    if (different) emit changed();
}

void CutWorker::stop(const std::string& product) {
    {
        const std::scoped_lock lock(mutex_);
        for (Entry& e : entries_)
            if (e.problem.product.id == product && e.quick) {
                e.finished = true;
                e.state.searching = false;
                if (running_ == product) current_.request_stop();
            }
    }
    emit changed();
}

void CutWorker::lookFurther(const std::string& product) {
    {
        const std::scoped_lock lock(mutex_);
        for (Entry& e : entries_)
            if (e.problem.product.id == product && e.finished) {
                e.state.rounds *= 2;
                e.finished = false;
                e.state.searching = true;
            }
    }
    wake_.notify_all();
    emit changed();
}

std::vector<CutState> CutWorker::states() const {
    const std::scoped_lock lock(mutex_);
    std::vector<CutState> list;
    for (const Entry& e : entries_) list.push_back(e.state);
    return list;
}

CutState CutWorker::state(const std::string& product) const {
    const std::scoped_lock lock(mutex_);
    for (const Entry& e : entries_)
        if (e.problem.product.id == product) return e.state;
    return {};
}

CutProblem CutWorker::problem(const std::string& product) const {
    const std::scoped_lock lock(mutex_);
    for (const Entry& e : entries_)
        if (e.problem.product.id == product) return e.problem;
    return {};
}

bool CutWorker::isSearching() const {
    const std::scoped_lock lock(mutex_);
    return std::any_of(entries_.begin(), entries_.end(), [](const Entry& e) { return !e.quick || !e.finished; });
}

void CutWorker::setPatience(double share) {
    const std::scoped_lock lock(mutex_);
    patience_ = share;
}

/// @pre the lock is held by nobody
void CutWorker::tell() {
    {
        const std::scoped_lock lock(mutex_);
        if (told_) return;
        told_ = true;
    }
    QMetaObject::invokeMethod(
        this,
        [this] {
            {
                const std::scoped_lock lock(mutex_);
                told_ = false;
            }
            emit changed();
        },
        Qt::QueuedConnection);
}

void CutWorker::run(const std::stop_token& quit) {
    while (true) {
        CutProblem problem;
        Effort effort;
        bool quick = false;
        {
            std::unique_lock lock(mutex_);
            const auto next = [this] {
                auto e = std::find_if(entries_.begin(), entries_.end(), [](const Entry& x) { return !x.quick; });
                if (e == entries_.end())
                    e = std::find_if(entries_.begin(), entries_.end(), [](const Entry& x) { return !x.finished; });
                return e;
            };
            if (!wake_.wait(lock, quit, [&] { return next() != entries_.end(); })) return;
            Entry& e = *next();
            problem = e.problem;
            quick = !e.quick;
            running_ = problem.product.id;
            current_ = std::stop_source();
            effort.seed = problem.seed;
            effort.stop = current_.get_token();
            const double usual = double(iterationsOf(problem.form, problem.pieces.size()));
            effort.iterations = quick ? 1 : std::max<std::int64_t>(1, std::int64_t(usual * patience_ * e.state.rounds));
        }
        const auto post = [&](const ProductCut& found, bool last) {
            const std::scoped_lock lock(mutex_);
            const auto e = std::find_if(entries_.begin(), entries_.end(), [&](const Entry& x) {
                return x.problem.product.id == problem.product.id && x.problem == problem;
            });
            if (e == entries_.end()) return;
            if (last || !e->state.cut || e->state.stale || !(*e->state.cut == found)) {
                e->state.cut = std::make_shared<const ProductCut>(found);
                e->state.stale = false;
            }
            if (!last) return;
            e->quick = true;
            if (!quick || found.proven) {
                e->finished = true;
                e->state.searching = false;
            }
        };
        auto lastTold = std::chrono::steady_clock::now();
        const ProductCut found = cutProduct(problem, effort, [&](const ProductCut& better) {
            post(better, false);
            const auto now = std::chrono::steady_clock::now();
            if (now - lastTold < std::chrono::milliseconds(150)) return; // the eye follows no faster
            lastTold = now;
            tell();
        });
        if (quit.stop_requested()) return;
        post(found, true);
        {
            const std::scoped_lock lock(mutex_);
            running_.clear();
        }
        tell();
    }
}

} // namespace westrum
