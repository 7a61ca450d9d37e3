#pragma once

#include "core/plan/plan.h"

#include <functional>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

namespace westrum {

/// Every start line of a surface's layer, other ways to lay it, and the best of them.
struct Starts {
    std::vector<StartChoice> choices;
    std::vector<Suggestion> suggestions;
    int unitsPerPack = 1;
    double module = 0; ///< of the strip: offsets run from 0 to this
    friend bool operator==(const Starts&, const Starts&) = default;
};

/// All that the ways to lay one layer depend on: its set-out's request, less the rules that each of these ways sets
/// itself. Equal input, equal ways.
struct StartsInput {
    std::optional<SetOutRequest> request; ///< nothing: the surface is not measured, or the layer cannot be set out
    friend bool operator==(const StartsInput&, const StartsInput&) = default;
};

/// @param layer  place in the option chosen; -1: the layer that is seen
/// @param planned  the first stage of the same job
StartsInput startsInput(const Job& job, const SurfaceStage& planned, const std::string& surface, int layer);

/// Empty when there is no input, or when stopped.
/// @param progress  told how far it is, from 0 to 1; may be empty
Starts startsOf(const StartsInput& input, const std::stop_token& stop = {},
                const std::function<void(double)>& progress = {});
Starts startsOf(const Job& job, const std::string& surface, int layer = -1, const std::stop_token& stop = {});

/// One layer set out as if it had these rules: for trying what a change would do. Empty as startsOf() is.
SetOut setOutAs(const Job& job, const SurfaceStage& planned, const std::string& surface, int layer,
                const FieldValues& rules);

} // namespace westrum
