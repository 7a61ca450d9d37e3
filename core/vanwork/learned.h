#pragma once

#include "core/plan/plan.h"
#include "core/plan/rack.h"
#include "core/record/record.h"
#include "core/vanwork/work_plan.h"

#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// A better default that the record offers. Nothing takes it but a person.
struct RateOffer {
    enum What {
        Minutes,  ///< of a family: its hour rates, a square metre and a piece, each by itself
        Coverage, ///< of an adhesive or coating, by its containers
        Spoils,   ///< the chance that a cut is spoilt
        Waste,    ///< of an adhesive or coating: left in tray and roller, as a share
        Readings  ///< by how much a reading is off (one sigma), mm
    } what{};
    std::string family{}, product{}; ///< of what
    double now{};                    ///< as it is planned: hours a m2, m2 a container, chance, share, mm
    double observed{};               ///< by itself
    double offered{};                ///< shrunk towards what is planned while observations are few
    double low{}, high{};            ///< spread of what was observed, in the same unit
    int observations{};
    double nowPiece{}, offeredPiece{}; ///< of minutes: hours a piece; 0: it has no such rate
    friend bool operator==(const RateOffer&, const RateOffer&) = default;
};
/// Under which an offer is refused.
std::string offerKey(const RateOffer& offer);
/// What the record would teach: those that differ by a twentieth or more, with at least two observations. Entries about
/// what is not there any more are passed over, and what was refused. The largest difference stands first.
std::vector<RateOffer> rateOffers(const Job& job, const Plan& plan);

/// The job with an offer taken.
Job withRate(Job job, const RateOffer& offer);

/// By how much a piece comes out other than it was marked, one sigma, mm. Source: docs/formulae.md#rates
inline constexpr double kCutMm = 1;

/// Planned and really, of one thing.
struct PlannedReally {
    enum What { Hours, Containers, Spoilt, Misread, Miscut } what{};
    std::string surface{}, product{}; ///< one of them; both empty: the whole
    double planned{}, really{};
    [[nodiscard]] double ratio() const { return planned > 0 ? really / planned : 0; }
    friend bool operator==(const PlannedReally&, const PlannedReally&) = default;
};
/// Of every surface the hours of the steps that are done, as they were planned and as they were; of every product the
/// containers emptied against what was to be used where it is laid; cuts spoilt against what was reckoned with; by how
/// much readings, and pieces, were off (root mean square of the differences, mm) against what a tape and a saw are.
/// Where it differs most stands first.
std::vector<PlannedReally> plannedAndReally(const Job& job, const Plan& plan);

/// What a spoilt piece asks for, the cheapest way first.
struct SpoilConsequence {
    enum From { Leftover, Rack, Spare, MustBuy } from{};
    std::optional<Money> cost{}; ///< of what must be bought
    std::string item{};          ///< name of the product; number of the offcut on the rack
    friend bool operator==(const SpoilConsequence&, const SpoilConsequence&) = default;
};
/// @param length, width  of the piece that is to be cut again; 0: unknown  @param rack  of the workshop
SpoilConsequence spoilConsequence(const Job& job, const Plan& plan, const std::string& product, Mm length, Mm width,
                                  const std::vector<RackPiece>& rack = {});
/// What a spoilt piece does to the day on which all is done: the job planned once more with a trip for it before the
/// work that it is for. The first: as it is; the second: with it. Nothing where either has no end.
struct SpoilDelay {
    CivilDate without, with;
    friend bool operator==(const SpoilDelay&, const SpoilDelay&) = default;
};
/// @param surface  that the piece is for; empty: any that its product lies on
std::optional<SpoilDelay> spoilDelay(const Job& job, const Plan& plan, const WorkQuestion& question,
                                     const WorkPlan& work, const std::string& product, const std::string& surface);
/// The day on which what must be bought can be there: that of the next trip or delivery that is planned, else the next
/// on which somebody works; nothing if there is none.
std::optional<CivilDate> nextBuyingDay(const WorkQuestion& question, const WorkPlan& work);

/// What it says of the rest that containers are empty by now.
struct EmptiedConsequence {
    double emptied{}, planned{}; ///< containers: really, and by the plan for what is laid
    double still{};              ///< that the rest will take at this rate, as it is shrunk by docs/formulae.md#rates
    int more = 0;                ///< to be bought beyond the plan
    std::optional<Money> cost{};
    friend bool operator==(const EmptiedConsequence&, const EmptiedConsequence&) = default;
};
/// Nothing while no layer of the product is laid whole.
std::optional<EmptiedConsequence> emptiedConsequence(const Job& job, const Plan& plan, const std::string& product);

} // namespace westrum
