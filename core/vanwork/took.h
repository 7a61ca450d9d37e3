#pragma once

#include "core/plan/job.h"
#include "core/plan/plan.h"

#include <optional>
#include <set>
#include <string>
#include <vector>

namespace westrum {

/// What a job took so far, beside what was planned.
struct Took {
    struct OfSurface {
        std::string surface; ///< id
        M2 area;             ///< of the finish that is seen, as laid
        int steps{}, done{};
        double hours{};                       ///< planned, of all its steps
        double hoursPlanned{}, hoursReally{}; ///< of those that are done and whose times are known
        int spoilt{};
        std::optional<CivilDate> last; ///< day of the last of its steps
        friend bool operator==(const OfSurface&, const OfSurface&) = default;
    };
    struct OfProduct {
        std::string product; ///< id
        double packs{};      ///< by the plan
        double bought{};     ///< as ticked
        double emptied{}, left{};
        std::optional<Money> planned, paid;
        std::set<std::string> lots{};
        friend bool operator==(const OfProduct&, const OfProduct&) = default;
    };
    std::vector<OfSurface> surfaces;      ///< of which something is planned
    std::vector<OfProduct> products;      ///< that were bought, emptied or left
    double hoursPlanned{}, hoursReally{}; ///< of what is done
    double hoursWhole{};                  ///< planned, of everything
    int steps{}, done{};
    int cut{}, spoilt{};
    int days{}; ///< on which something was written down as done
    std::optional<CivilDate> first, last;
    std::optional<Money> costPlanned; ///< of all that is bought
    Money paid;                       ///< of what was
    int linesPaid{}, lines{};
    Kg fittedPlanned;                 ///< by the ticks
    std::optional<Kg> weighed;        ///< by the last weighing, over what the van weighed before
    std::optional<Kg> weighedPlan;    ///< that was to be fitted by then
    std::vector<RecordEntry> remarks; ///< notes and differences, in their order
    friend bool operator==(const Took&, const Took&) = default;
};
/// Entries about what is not there any more count in the whole and on no surface.
Took tookOf(const Job& job, const Plan& plan);

} // namespace westrum
