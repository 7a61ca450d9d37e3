#pragma once

#include "core/catalogue/product.h"
#include "core/plan/cut_list.h"
#include "core/record/fit_log.h"
#include "core/shell/access.h"
#include "core/shell/surface.h"
#include "core/units/parse.h"

#include <map>
#include <string>
#include <vector>

namespace westrum {

/// The finish chosen for a surface and how it is set out.
struct Finish {
    std::string product;  ///< id in the catalogue; empty: not decided
    std::string underlay; ///< id; empty: none
    FieldValues rules;    ///< by the product's family
    std::string trim{};   ///< id of what runs along its edges; empty: none
    friend bool operator==(const Finish&, const Finish&) = default;
};

/// All that was measured and chosen: the one thing that is saved and edited. A value; copies are cheap enough to hand
/// to a worker thread and to keep for undo.
struct Job {
    std::string name;
    std::string vehicle;
    Currency currency;
    LengthUnit bareUnit = LengthUnit::Millimetre; ///< unit of a length typed without one
    LengthUnit shownUnit = LengthUnit::Millimetre;
    std::uint64_t seed = 1;
    double spoilChance = 1.0 / 15; ///< chance that a cut spoils its plank: about 1/15 first-timer, 1/50 practised
    std::vector<Surface> surfaces;
    Datum datum;
    Access access;
    std::map<std::string, Finish> finishes;  ///< by surface id
    std::map<std::string, FitLog> logs;      ///< by surface id
    std::map<std::string, CutList> cutLists; ///< by product id
    Catalogue catalogue;

    [[nodiscard]] const Surface* surface(std::string_view id) const;
    [[nodiscard]] Surface* surface(std::string_view id);
    [[nodiscard]] const Finish& finish(const std::string& id) const;        ///< an undecided finish if there is none
    [[nodiscard]] const FitLog& log(const std::string& id) const;           ///< an empty log if there is none
    [[nodiscard]] const CutList& cutList(const std::string& product) const; ///< an empty one if there is none
    friend bool operator==(const Job&, const Job&) = default;
};

/// A job with one unmeasured floor and the given catalogue; its finish is the first plank and the first underlay.
Job newJob(const std::string& name, Catalogue catalogue, Currency currency);

/// A job with all usual surfaces of a body, unmeasured; floors start with the first plank and underlay.
Job newVanJob(const std::string& name, Catalogue catalogue, Currency currency, std::vector<Surface> surfaces);

/// An id that no surface of the job has: `wanted`, or that with a number.
std::string freeSurfaceId(const Job& job, const std::string& wanted);

} // namespace westrum
