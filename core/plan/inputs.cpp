#include "core/plan/inputs.h"

#include "core/families/family.h"

namespace westrum {
namespace {

/// Products whose set-out chooses among the lengths that they are sold in, or that stand on the rack.
bool choosesLengths(const Job& job, const std::string& product) {
    const Product* sold = job.catalogue.find(product);
    const Family* family = sold ? familyOf(sold->family) : nullptr;
    return family && family->laid.choosesLengths;
}

void readSurfaces(const Job& job, Job& read) {
    read.surfaces = job.surfaces;
    read.archBoxes = job.archBoxes;
    read.areaTrims = job.areaTrims;
    read.clearances = job.clearances;
    read.datum = job.datum;
    read.access = job.access;
    read.headroom = job.headroom;
    read.symmetricBody = job.symmetricBody;
    read.spreadM2PerMinute = job.spreadM2PerMinute;
    read.closeM2PerMinute = job.closeM2PerMinute;
    read.consumables = job.consumables;
    read.work.hours = job.work.hours;
    read.work.efforts = job.work.efforts;
    if (const auto way = job.work.rules.find(WorkRule::CoatsBeforeFitting); way != job.work.rules.end())
        read.work.rules.insert(*way);
    read.catalogue = job.catalogue;
    for (const auto& [surface, options] : job.finishes) {
        FinishOptions chosen;
        chosen.now() = options.now();
        chosen.now().name.clear();
        read.finishes[surface] = std::move(chosen);
    }
    for (const auto& [product, list] : job.cutLists)
        if (choosesLengths(job, product)) {
            CutList& lengths = read.cutLists[product];
            lengths.useOwnStock = list.useOwnStock;
            lengths.stock = list.stock;
        }
}

void readCutting(const Job& job, Job& read) {
    for (const Surface& s : job.surfaces) { // whose pieces they are, and what they are called
        Surface named;
        named.id = s.id;
        named.name = s.name;
        read.surfaces.push_back(std::move(named));
    }
    read.archBoxes = job.archBoxes;
    read.cutLists = job.cutLists;
    read.catalogue = job.catalogue;
    read.currency = job.currency;
    read.seed = job.seed;
}

void readPrices(const Job& job, Job& read) {
    read.catalogue = job.catalogue;
    read.currency = job.currency;
    read.prices = job.prices;
    read.spares = job.spares;
    read.shelf = job.shelf;
    read.spoilChance = job.spoilChance;
}

} // namespace

SurfacesInput surfacesInput(const Job& job) {
    SurfacesInput in;
    readSurfaces(job, in.read);
    return in;
}

CuttingInput cuttingInput(const Job& job) {
    CuttingInput in;
    readCutting(job, in.read);
    return in;
}

PurchasesInput purchasesInput(const Job& job) {
    PurchasesInput in;
    readPrices(job, in.read);
    return in;
}

BalanceInput balanceInput(const Job& job) {
    BalanceInput in;
    in.read.surfaces = job.surfaces;
    in.read.mass = job.mass;
    in.read.currency = job.currency;
    for (const auto& [surface, log] : job.logs) in.read.logs[surface].done = log.done;
    return in;
}

OddsInput oddsInput(const Job& job) {
    OddsInput in;
    readSurfaces(job, in.read);
    in.read.cutLists = job.cutLists;
    in.read.currency = job.currency;
    in.read.seed = job.seed;
    in.read.spoilChance = job.spoilChance;
    in.read.work.efforts.clear(); // they change no amount
    in.read.work.readingErrorMm = job.work.readingErrorMm;
    return in;
}

ComparisonInput comparisonInput(const Job& job) {
    ComparisonInput in;
    readSurfaces(job, in.read);
    in.read.finishes = job.finishes;
    in.read.cutLists = job.cutLists;
    in.read.seed = job.seed;
    readPrices(job, in.read);
    return in;
}

} // namespace westrum
