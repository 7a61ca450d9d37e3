#pragma once

#include "core/plan/plan.h"

#include <optional>
#include <stop_token>
#include <string>
#include <vector>

namespace westrum {

/// What one option of a surface comes to, to be held against the others.
struct OptionFigures {
    Mm thickness;
    Kg mass;                   ///< of the surface's layers
    std::optional<Money> cost; ///< of all that the job buys of the products in any of the options: compare, do not show
    double wasteShare{};       ///< of what is opened of its finish, by area or length
    int pieces{};              ///< of its finish
    int warnings{};            ///< remarks on the surface that ask for something
    bool planned{};            ///< false: it has no finish, or was not worked out
    friend bool operator==(const OptionFigures&, const OptionFigures&) = default;
};

/// The figures of every option of a surface, in order, each as if it were chosen. What is cut to size is cut as well,
/// quickly. Empty when stopped.
std::vector<OptionFigures> optionFigures(const Job& job, const std::string& surface, const std::stop_token& stop = {});

} // namespace westrum
