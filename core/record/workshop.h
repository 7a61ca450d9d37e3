#pragma once

#include "core/catalogue/product.h"
#include "core/geometry/polygon.h"
#include "core/record/work_settings.h"
#include "core/units/quantity.h"

#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace westrum {

// What a workshop keeps across jobs. Values only: where they are kept is no business of the core.

/// What makes a product the same in another job: its family, its name however it is spaced and in whatever case, and
/// how thick it is.
std::string productIdentity(const Product& product);
/// The product of a catalogue with that identity; null if there is none.
const Product* findIdentity(const Catalogue& catalogue, std::string_view identity);

/// An offcut on the rack.
struct RackPiece {
    enum class State {
        Free,
        Reserved, ///< a job's plan draws on it
        Cut,      ///< a job has cut it
        Gone      ///< given away, thrown away
    };
    std::string number;           ///< written on it; unique in the book
    std::string product;          ///< its identity
    std::string name;             ///< of the product
    double lengthMm{}, widthMm{}; ///< its bounds
    Region shape;                 ///< its outline, within them; empty: the whole rectangle
    std::string lot, stands;
    std::string photograph; ///< a path
    CivilDate kept;
    std::string from; ///< name of the job that it is left of
    State state = State::Free;
    std::string job, jobName; ///< that reserved or cut it
    friend bool operator==(const RackPiece&, const RackPiece&) = default;
};

/// Packs, tins, tubes that were left.
struct KeptPack {
    std::string number;
    std::string product, name; ///< identity, and how it is called
    double count = 1;          ///< of packs; half a tin is 0.5
    bool opened = false;
    std::string lot, stands;
    CivilDate kept;
    std::optional<CivilDate> goesOff;
    std::string from;             ///< name of the job
    std::string job{}, jobName{}; ///< that means to use it; empty: it is free
    friend bool operator==(const KeptPack&, const KeptPack&) = default;
};
/// Whether it is past its date, or will be within so many days.
bool goesOffWithin(const KeptPack& pack, CivilDate today, int days);

/// Whose hands. Only what was taken from a record is here; all else is as the program starts with it.
struct Person {
    std::string name;
    bool practised = false;
    HourRates hours;
    std::optional<double> spoilChance;
    std::map<std::string, double> coverage; ///< how far it goes: its field of spreading or rate, by identity
    std::map<std::string, double> waste{};  ///< left in tray and roller, as a share, by identity
    std::optional<double> readingErrorMm{};
    friend bool operator==(const Person&, const Person&) = default;
};

/// A job that was done, in its key figures.
struct JobDone {
    std::string id, name, vehicle;
    CivilDate day;
    double areaM2{}, massKg{};
    std::optional<Money> cost;
    double hoursPlanned{}, hoursReally{};
    double wasteShare{};
    friend bool operator==(const JobDone&, const JobDone&) = default;
};

struct PricePaid {
    CivilDate day;
    std::string product, name; ///< identity, and how it is called
    std::string supplier;
    double packs = 1; ///< or items; metres of a roll
    Money paid;       ///< for all of them
    std::string job;
    friend bool operator==(const PricePaid&, const PricePaid&) = default;
};

/// The inside of a body as it was measured in an earlier job: its shell as the job file has it.
struct BodyShape {
    std::string name;
    CivilDate day;
    int surfaces{};
    std::string shell;
    friend bool operator==(const BodyShape&, const BodyShape&) = default;
};

/// All of it.
struct WorkshopBook {
    std::vector<Person> people;
    std::vector<RackPiece> rack;
    std::vector<KeptPack> packs;
    std::vector<JobDone> jobs;
    std::vector<PricePaid> prices;
    std::vector<BodyShape> bodies;
    friend bool operator==(const WorkshopBook&, const WorkshopBook&) = default;
};

} // namespace westrum
