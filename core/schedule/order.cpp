#include "core/schedule/order.h"

#include <algorithm>

namespace westrum {

WorkOrder::WorkOrder(const WorkProblem& problem) {
    const std::size_t n = problem.tasks.size();
    before_.resize(n);
    after_.resize(n);
    circular_.assign(n, true);
    std::vector<int> open(n, 0);
    for (const WorkBefore& b : problem.before) {
        if (b.first < 0 || b.then < 0 || static_cast<std::size_t>(b.first) >= n ||
            static_cast<std::size_t>(b.then) >= n)
            continue;
        before_[static_cast<std::size_t>(b.then)].emplace_back(b.first, b.wait);
        after_[static_cast<std::size_t>(b.first)].emplace_back(b.then, b.wait);
        ++open[static_cast<std::size_t>(b.then)];
    }
    for (std::size_t i = 0; i < n; ++i)
        if (open[i] == 0) sorted_.push_back(static_cast<int>(i));
    for (std::size_t k = 0; k < sorted_.size(); ++k) {
        const int t = sorted_[k];
        circular_[static_cast<std::size_t>(t)] = false;
        for (const auto& [then, wait] : after_[static_cast<std::size_t>(t)])
            if (--open[static_cast<std::size_t>(then)] == 0) sorted_.push_back(then);
    }
}

} // namespace westrum
