#pragma once

#include <QObject>

#include "core/plan/product_cut.h"

#include <chrono>
#include <condition_variable>
#include <memory>
#include <mutex>
#include <string>
#include <thread>
#include <vector>

namespace westrum {

/// How far the cutting of one product is.
struct CutState {
    std::shared_ptr<const ProductCut> cut; ///< the best so far; null for a moment after a change
    bool searching = false;
    int rounds = 1;          ///< how often it was sent to look further, and once
    bool stale = false;      ///< still that of the problem before the latest change
    std::uint64_t asked = 0; ///< which request brought the problem: another number, another problem
};

/// Cuts the products of a job on a thread of its own, one after the other: first a quick answer for each that has
/// none, then an improving search. A product whose problem did not change keeps its answer. The search is counted in
/// iterations, so that the same job gives the same answer on any machine. Signals come in the thread of this object.
class CutWorker : public QObject {
    Q_OBJECT
public:
    explicit CutWorker(QObject* parent = nullptr);
    ~CutWorker() override;

    /// The problems as they are now, one for each product.
    void request(std::vector<CutProblem> problems);
    /// Ends the search for a product; the best so far stays.
    void stop(const std::string& product);
    /// Looks further, twice as long as before.
    void lookFurther(const std::string& product);

    /// Every product's state, in the order of the request.
    [[nodiscard]] std::vector<CutState> states() const;
    [[nodiscard]] CutState state(const std::string& product) const;
    /// What is asked about a product; empty pieces if nothing is.
    [[nodiscard]] CutProblem problem(const std::string& product) const;
    [[nodiscard]] bool isSearching() const;

    /// The search's length, as a share of the usual one: tests take a small one.
    void setPatience(double share);

signals:
    /// A better answer is there, or a search began or ended.
    void changed();

private:
    struct Entry {
        CutProblem problem;
        CutState state;
        bool quick = false;    ///< it has its first answer
        bool finished = false; ///< nothing more is to be searched
    };
    void run(const std::stop_token& quit);
    void tell();

    mutable std::mutex mutex_;
    std::condition_variable_any wake_;
    std::vector<Entry> entries_;
    std::string running_; ///< product that is being cut
    std::stop_source current_;
    double patience_ = 1;
    std::uint64_t asked_ = 0; ///< how many problems were asked so far
    bool told_ = false;       ///< a signal is on its way
    std::jthread thread_;     ///< last: it stops and joins before what it uses goes away
};

} // namespace westrum
