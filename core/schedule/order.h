#pragma once

#include "core/schedule/work.h"

#include <utility>
#include <vector>

namespace westrum {

/// What comes before and after what, and an order that keeps it. Tasks that wait for themselves are left out of it.
class WorkOrder {
public:
    explicit WorkOrder(const WorkProblem& problem);
    /// The other task and the wait.
    using Links = std::vector<std::pair<int, int>>;
    [[nodiscard]] const Links& before(int task) const { return before_[static_cast<std::size_t>(task)]; }
    [[nodiscard]] const Links& after(int task) const { return after_[static_cast<std::size_t>(task)]; }
    [[nodiscard]] const std::vector<int>& sorted() const { return sorted_; }
    [[nodiscard]] bool circular(int task) const { return circular_[static_cast<std::size_t>(task)]; }

private:
    std::vector<Links> before_, after_;
    std::vector<int> sorted_;
    std::vector<bool> circular_;
};

} // namespace westrum
