#pragma once

#include "core/plan/plan.h"

#include <functional>
#include <stop_token>
#include <vector>

namespace westrum {

/// A reading whose likely error would cost: it is taken again before anything is cut.
struct CostlyReading {
    std::string surface, key;
    Mm off;                       ///< by which it was tried to read otherwise, the worse of both ways
    std::optional<Money> more;    ///< that buying would cost more; nothing if no more, or a price is missing
    std::optional<Remark> brings; ///< what would not fit any more
    double harm{};                ///< to order them by: cents, and a remark as kRemarkHarm of them
    friend bool operator==(const CostlyReading&, const CostlyReading&) = default;
};

/// Two standard deviations of a tape: one reading in twenty is off by as much.
inline constexpr double kLikelyErrorMm = 4;
/// A remark that a likely error would bring weighs as much as this many minor units of money.
inline constexpr double kRemarkHarm = 2000;

/// Tries every outline reading of every surface that gets a finish, read kLikelyErrorMm longer and shorter, by planning
/// and roughly cutting anew: what is bought more, which warnings come that were not there, and which gap
/// would be wider than its trim reaches over. Those that cost nothing are not told. The same job gives the same answer.
/// Source: docs/formulae.md#take-again.
/// @param progress  told the share done; may be empty  @return  the costliest first; empty when stopped
std::vector<CostlyReading> costlyReadings(const Job& job, const std::stop_token& stop = {},
                                          const std::function<void(double)>& progress = {});

} // namespace westrum
