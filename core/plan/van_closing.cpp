#include "core/plan/surface_stage.h"
#include "core/shell/holes.h"

#include <algorithm>

namespace westrum {
namespace {

bool tellsSlip(const Remark& r) {
    return r.kind == RemarkKind::ReadingsDisagree || r.kind == RemarkKind::OneReadingWrong ||
           r.kind == RemarkKind::SeveralReadingsWrong;
}

/// Whether the van's suspects include this reading.
const VanSuspect* named(const FoldUp& fold, const std::string& surface, const std::string& key) {
    const auto found = std::find_if(fold.suspects.begin(), fold.suspects.end(),
                                    [&](const VanSuspect& s) { return s.surface == surface && s.key == key; });
    return found == fold.suspects.end() ? nullptr : &*found;
}

/// A surface that knows of a slip but not which: those that the van rules out are no suspects any more.
/// @return  whether the surface's own remark says all there is to say
bool narrowed(const FoldUp& fold, SurfacePlan& plan) {
    SlipReport& slip = *plan.measured.slip;
    std::vector<SuspectReading> left;
    for (const SuspectReading& s : slip.suspects)
        if (named(fold, plan.surface, s.key)) left.push_back(s);
    const bool elsewhere = std::any_of(fold.suspects.begin(), fold.suspects.end(),
                                       [&](const VanSuspect& s) { return s.surface != plan.surface; });
    if (left.empty() || elsewhere || left.size() == slip.suspects.size()) return !left.empty() && !elsewhere;
    slip.suspects = std::move(left);
    slip.proved = fold.proved;
    slip.others = 0;
    return false;
}

/// The surface that a reading is of, and before it the opening.
std::string whereOf(const Surface& surface, const std::string& key) {
    const auto opening = openingOfKey(key);
    return opening && *opening < surface.openings.size() ? surface.openings[*opening].name + ", " + surface.name
                                                         : surface.name;
}

Remark remarkOf(const Job& job, const FoldUp& fold) {
    static constexpr std::array<const char*, kMostNamed> reading{"reading", "other", "another"};
    static constexpr std::array<const char*, kMostNamed> by{"misclosure", "otherBy", "anotherBy"};
    static constexpr std::array<const char*, kMostNamed> on{"on", "otherOn", "anotherOn"};
    Facts facts;
    const std::size_t count = std::min(fold.suspects.size(), kMostNamed);
    for (std::size_t k = 0; k < count; ++k) {
        const VanSuspect& s = fold.suspects[k];
        const Surface* surface = job.surface(s.surface);
        facts.emplace_back(reading[k], s.key);
        facts.emplace_back(by[k], s.slip());
        facts.emplace_back(on[k], surface ? whereOf(*surface, s.key) : std::string());
    }
    facts.emplace_back("length", fold.suspects.front().reads);
    facts.emplace_back("implied", fold.suspects.front().implied);
    if (fold.suspects.size() > count)
        facts.emplace_back("count", static_cast<std::int64_t>(fold.suspects.size() - count));
    if (fold.several) facts.emplace_back("several", std::int64_t{1});
    if (fold.decides) {
        const auto corner = [](int k) { return std::string(1, static_cast<char>('A' + k % 26)); };
        const Surface* surface = job.surface(fold.decides->surface);
        facts.emplace_back("corner", corner(fold.decides->from));
        facts.emplace_back("toCorner", corner(fold.decides->to));
        facts.emplace_back("decidesOn", surface ? surface->name : std::string());
    }
    Place place{fold.suspects.front().surface, Part::Reading};
    place.key = fold.suspects.front().key;
    return {fold.proved ? Severity::Error : Severity::Warning,
            std::move(place),
            fold.proved ? RemarkKind::VanReadingWrong : RemarkKind::VanDoesNotClose,
            std::move(facts),
            {}};
}

/// Of a surface that the van has readings of under suspicion: those, as the surface's own slip would be told.
std::optional<SlipReport> slipOn(const Surface& surface, const FoldUp& fold, const MeasuredOutline& measured) {
    SlipReport slip;
    slip.proved = fold.proved;
    slip.several = fold.several;
    slip.ofOutline = false;
    for (std::size_t k = 0; k < std::min(fold.suspects.size(), kMostNamed); ++k) {
        const VanSuspect& s = fold.suspects[k];
        if (s.surface != surface.id) continue;
        Measurement corrected = surface.measurement;
        MaybeReading* reading = findReading(corrected, s.key);
        if (reading && *reading) (*reading)->length = s.implied;
        slip.ofOutline = slip.ofOutline || reading;
        const Ring corners = reading ? outlineOf(corrected).frame : measured.frame;
        slip.suspects.push_back({s.key, s.reads, s.implied, s.chance, corners.empty() ? measured.frame : corners});
    }
    if (slip.suspects.empty()) return std::nullopt;
    if (fold.decides && fold.decides->surface == surface.id)
        slip.decides = std::pair(fold.decides->from, fold.decides->to);
    slip.others = static_cast<int>(fold.suspects.size() - slip.suspects.size());
    return slip;
}

} // namespace

void tellClosing(const Job& job, SurfaceStage& stage) {
    const FoldUp& fold = stage.fold;
    if (fold.suspects.empty()) return;
    // Slips in several surfaces: each tells its own as well as it can.
    if (fold.several && std::any_of(stage.surfaces.begin(), stage.surfaces.end(),
                                    [](const SurfacePlan& s) { return s.measured.slip.has_value(); }))
        return;
    bool said = false;
    for (SurfacePlan& s : stage.surfaces) {
        if (!s.measured.slip) continue;
        const bool any = std::any_of(fold.suspects.begin(), fold.suspects.end(),
                                     [&](const VanSuspect& v) { return v.surface == s.surface; });
        if (!any) continue;
        if (narrowed(fold, s)) {
            said = true;
            continue;
        }
        // All of the van knows better than the surface alone: its sentence goes in the place of the surface's.
        std::erase_if(s.remarks, tellsSlip);
    }
    if (said) return;
    for (std::size_t i = 0; i < stage.surfaces.size(); ++i) {
        SurfacePlan& s = stage.surfaces[i];
        if (auto slip = slipOn(job.surfaces[i], fold, s.measured)) s.measured.slip = std::move(slip);
    }
    Remark remark = remarkOf(job, fold);
    for (SurfacePlan& s : stage.surfaces)
        if (s.surface == remark.place.surface) s.remarks.insert(s.remarks.begin(), std::move(remark));
}

} // namespace westrum
