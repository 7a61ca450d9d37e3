#pragma once

#include "core/record/work_settings.h"

namespace westrum {

/// Minutes by which the clock on the wall is ahead of UTC.
int utcOffsetAt(const CivilDate& day, int minute, const WorkSite& site);

/// Real minutes from one midnight, and the clock on the wall: the two part where clocks change.
class WorkClock {
public:
    struct Moment {
        CivilDate day;
        int minute{}; ///< from midnight, by the clock on the wall
        friend bool operator==(const Moment&, const Moment&) = default;
        friend auto operator<=>(const Moment&, const Moment&) = default;
    };

    WorkClock() = default;
    WorkClock(const CivilDate& first, const WorkSite& site) : first_(first), site_(site) {}
    [[nodiscard]] int at(const CivilDate& day, int minute) const;
    [[nodiscard]] int at(const Moment& m) const { return at(m.day, m.minute); }
    [[nodiscard]] Moment moment(int minutes) const;
    [[nodiscard]] const CivilDate& first() const { return first_; }
    friend bool operator==(const WorkClock&, const WorkClock&) = default;

private:
    CivilDate first_{1970, 1, 1};
    WorkSite site_{};
};

} // namespace westrum
