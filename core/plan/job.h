#pragma once

#include "core/buildup/build_up.h"
#include "core/buying/bought.h"
#include "core/buying/price_book.h"
#include "core/catalogue/product.h"
#include "core/plan/cut_list.h"
#include "core/record/fit_log.h"
#include "core/record/record.h"
#include "core/record/work_settings.h"
#include "core/setout/edge_meeting.h"
#include "core/shell/access.h"
#include "core/shell/arch_box.h"
#include "core/shell/body_check.h"
#include "core/shell/surface.h"
#include "core/shell/van_mass.h"
#include "core/units/parse.h"

#include <map>
#include <string>
#include <vector>

namespace westrum {

/// All that was measured and chosen: the one thing that is saved and edited. A value; copies are cheap enough to hand
/// to a worker thread and to keep for undo.
struct Job {
    std::string name;
    std::string vehicle;
    Currency currency;
    LengthUnit bareUnit = LengthUnit::Millimetre; ///< unit of a length typed without one
    LengthUnit shownUnit = LengthUnit::Millimetre;
    std::uint64_t seed = 1;
    double spoilChance = 1.0 / 15;     ///< chance that a cut spoils its plank: about 1/15 first-timer, 1/50 practised
    double spreadM2PerMinute = 0.6;    ///< of adhesive, one coat: the person's speed
    double closeM2PerMinute = 1.5;     ///< of what is laid into it and pressed
    double acceptedRisk = 0.05;        ///< of running short of a product
    std::map<std::string, int> spares; ///< by product id: bought beyond the plan; packs, items, or steps of a roll
    PriceBook prices;                  ///< besides the catalogue's own
    std::map<std::string, Bought> bought; ///< by boughtKey()
    std::optional<Money> budget;          ///< for all that is bought
    bool consumables = true;              ///< discs, masking tape and blades are counted and bought
    std::vector<Surface> surfaces;
    std::vector<ArchBox> archBoxes;
    std::vector<AreaTrim> areaTrims;      ///< by area of the van, in place of the rule table
    std::map<OpeningKind, Mm> clearances; ///< of openings from edges, joints and each other, if not as usual
    Datum datum;
    Access access;
    Headroom headroom;
    bool symmetricBody = false; ///< somebody said that its left and right sides are alike
    VanMass mass;
    std::vector<Weighing> weighings;               ///< in the order in which they were taken
    std::map<std::string, FinishOptions> finishes; ///< by surface id
    std::map<std::string, FitLog> logs;            ///< by surface id
    std::map<std::string, CutList> cutLists;       ///< by product id
    std::vector<ShelfPack> shelf;                  ///< used before anything is bought
    WorkSettings work;
    Record record; ///< what happened
    Catalogue catalogue;
    std::string bookId{}; ///< under which the workshop's book knows it, once it does
    BodyBefore before{};  ///< the earlier body that its shapes were taken from

    [[nodiscard]] const Surface* surface(std::string_view id) const;
    [[nodiscard]] Surface* surface(std::string_view id);
    [[nodiscard]] const FinishOptions& options(const std::string& id) const; ///< one empty option if there is none
    [[nodiscard]] const Finish& finish(const std::string& id) const;         ///< the option chosen
    /// The layer that is seen, of the option chosen; null if none is decided.
    [[nodiscard]] const Layer* face(const std::string& id) const;
    [[nodiscard]] const Product* faceProduct(const std::string& id) const; ///< of that layer; null if there is none
    /// The layer of a role, of the option chosen; null if it has none.
    [[nodiscard]] const Layer* layer(const std::string& id, LayerRole role) const;
    [[nodiscard]] const FitLog& log(const std::string& id) const;           ///< an empty log if there is none
    [[nodiscard]] const CutList& cutList(const std::string& product) const; ///< an empty one if there is none
    friend bool operator==(const Job&, const Job&) = default;
};

/// A layer of a product with the rules that its label asks for: gap, stagger, joint.
Layer layerOf(const Product& product);
/// Puts a product in place of the layer of its role that the finish has (of a face: of the layer that is seen), or in
/// where that role belongs. What the label asks for comes with it; other rules stay if the family stays.
void putLayer(Finish& finish, const Catalogue& catalogue, const Product& product);
/// Takes the layer of a role out; of LayerRole::Finish the one that is seen.
void dropLayer(Finish& finish, const Catalogue& catalogue, LayerRole role);

/// A job with one unmeasured floor and the given catalogue; its finish is the first plank and the first underlay.
/// @param floorName  as the floor is called
Job newJob(const std::string& name, const std::string& floorName, Catalogue catalogue, Currency currency);

/// A job with all usual surfaces of a body, unmeasured; floors start with the first plank and underlay.
Job newVanJob(const std::string& name, Catalogue catalogue, Currency currency, std::vector<Surface> surfaces);

/// An id that no surface of the job has: `wanted`, or that with a number.
std::string freeSurfaceId(const Job& job, const std::string& wanted);

} // namespace westrum
