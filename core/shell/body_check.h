#pragma once

#include "core/shell/surface.h"

#include <map>
#include <string>
#include <vector>

namespace westrum {

// Shapes that come from an earlier body of the same make are a start, not a measurement: a few readings, taken where
// they tell most, say whether this van is like that one.

/// A reading to be taken again.
struct BodyCheck {
    std::string surface; ///< id
    std::string key;     ///< of the reading
    Mm before;           ///< as it was in the earlier body
    MaybeReading taken;  ///< in this one
    friend bool operator==(const BodyCheck&, const BodyCheck&) = default;
};
struct BodyBefore {
    std::string body; ///< its name; empty: there is none
    std::vector<BodyCheck> checks;
    friend bool operator==(const BodyBefore&, const BodyBefore&) = default;
};

// Two bodies of one make: how far they usually differ, as a share of each length. Source: docs/formulae.md#body-checks
inline constexpr double kBodyStrain = 0.004;    ///< the whole van, in each of its three directions
inline constexpr double kSurfaceStrain = 0.001; ///< each surface by itself, each way
/// Two readings of one length agree within this: twice their standard error.
inline constexpr double kAgreesMm = 6;

/// Which readings to take again: one by one the one that leaves least doubt over all readings of all surfaces that were
/// measured before, by the differences that are usual between bodies. At least three where there are as many, then
/// until another would take away less than a twentieth of the doubt there was; at most `most`.
std::vector<BodyCheck> proposedChecks(const std::vector<Surface>& surfaces, int most = 4);

enum class BodyVerdict {
    Unchecked, ///< nothing said of it yet
    Agrees,    ///< a reading of its own does, and none is expected to differ
    Doubtful,  ///< what was read elsewhere lets expect that it differs
    Differs    ///< a reading of its own does: it wants measuring
};
struct BodyVerdictOf {
    BodyVerdict verdict = BodyVerdict::Unchecked;
    std::string key; ///< the reading that differs most
    Mm by;           ///< how much longer it is, or is expected to be, than before
    friend bool operator==(const BodyVerdictOf&, const BodyVerdictOf&) = default;
};
/// By surface, of those that are still as they were measured before.
std::map<std::string, BodyVerdictOf> bodyVerdicts(const std::vector<Surface>& surfaces,
                                                  const std::vector<BodyCheck>& checks);

} // namespace westrum
