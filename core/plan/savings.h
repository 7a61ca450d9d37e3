#pragma once

#include "core/plan/plan.h"

#include <functional>
#include <stop_token>
#include <string>
#include <vector>

namespace westrum {

/// A change that buys less of a product.
struct Saving {
    enum class Kind {
        Rules,  ///< a surface is laid another way
        Turned, ///< pieces of a roll may be turned half round: felt, or where nobody sees the nap
        Seam,   ///< a surface gets one seam more
    };
    Kind kind{};
    std::string surface; ///< id; empty: of all
    int layer = -1;
    FieldValues change; ///< of the layer's rules, or of the product's fields
    Money saved;        ///< on the whole job, deliveries and small things too; > 0
    double less{};      ///< packs, items, or m of a roll
    friend bool operator==(const Saving&, const Saving&) = default;
};

/// Tries what would buy a product's next pack, item or step less: every other way to lay the surfaces that take it,
/// pieces turned, a seam allowed. Each is planned and cut, roughly, as the job is for comparison. The best for each
/// surface and kind, the largest saving first; empty if nothing saves, or when stopped.
std::vector<Saving> savingsOn(const Job& job, const std::string& product, const std::stop_token& stop = {},
                              const std::function<void(double)>& progress = {});

/// The job with a saving taken.
Job withSaving(const Job& job, const std::string& product, const Saving& saving);

} // namespace westrum
