#include "core/vanwork/took.h"

#include "core/fitting/efforts.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace westrum {
namespace {

void readSurfaces(const Job& job, const Plan& plan, Took& took) {
    for (const SurfacePlan& s : plan.surfaces) {
        if (s.steps.empty()) continue;
        Took::OfSurface of{.surface = s.surface};
        const FitLog& log = job.log(s.surface);
        for (const FitStep& step : s.steps) {
            ++of.steps;
            of.hours += minutesOf(step, job.work.practised) / 60;
            if (!log.done.contains(step.key)) continue;
            ++of.done;
            if (const auto when = log.when.find(step.key); when != log.when.end())
                of.last = of.last ? std::max(*of.last, when->second.day) : when->second.day;
        }
        if (s.face >= 0) of.area = s.layers[static_cast<std::size_t>(s.face)].area;
        took.steps += of.steps;
        took.done += of.done;
        took.hoursWhole += of.hours;
        took.surfaces.push_back(std::move(of));
    }
}

void readProducts(const Job& job, const Plan& plan, Took& took) {
    std::map<std::string, Took::OfProduct> products;
    for (const Purchase& p : plan.purchases) {
        Took::OfProduct& of = products[p.product];
        of.product = p.product;
        of.packs += p.packs;
        if (p.cost) of.planned = of.planned ? *of.planned + *p.cost : *p.cost;
        ++took.lines;
        const auto bought = job.bought.find(boughtKey(p.product, p.size));
        if (bought == job.bought.end()) continue;
        of.bought += bought->second.packs;
        if (!bought->second.lot.empty()) of.lots.insert(bought->second.lot);
        if (!bought->second.paid || bought->second.paid->currency != job.currency) continue;
        of.paid = of.paid ? *of.paid + *bought->second.paid : *bought->second.paid;
        took.paid = took.paid + *bought->second.paid;
        ++took.linesPaid;
    }
    for (const RecordEntry& e : job.record) {
        if (e.product.empty() || !job.catalogue.find(e.product)) continue;
        if (e.kind != EntryKind::Emptied && e.kind != EntryKind::ThrownAway && e.kind != EntryKind::LeftOver &&
            e.kind != EntryKind::Delivery)
            continue;
        Took::OfProduct& of = products[e.product];
        of.product = e.product;
        if (e.kind == EntryKind::Emptied || e.kind == EntryKind::ThrownAway) of.emptied += e.amount;
        if (e.kind == EntryKind::LeftOver) of.left += e.amount;
        if (!e.lot.empty()) of.lots.insert(e.lot);
    }
    for (auto& [id, of] : products)
        if (of.bought > 0 || of.emptied > 0 || of.left > 0 || !of.lots.empty()) took.products.push_back(std::move(of));
}

} // namespace

Took tookOf(const Job& job, const Plan& plan) {
    Took took;
    took.paid = {0, job.currency};
    took.costPlanned = plan.totals.cost;
    took.fittedPlanned = plan.balance.fitted;
    readSurfaces(job, plan, took);
    readProducts(job, plan, took);
    std::set<CivilDate> days;
    for (const RecordEntry& e : job.record) {
        const auto of = std::find_if(took.surfaces.begin(), took.surfaces.end(),
                                     [&](const Took::OfSurface& s) { return s.surface == e.surface; });
        const int pieces = std::max(1, static_cast<int>(std::lround(e.amount)));
        switch (e.kind) {
        case EntryKind::StepDone:
            days.insert(e.when.day);
            took.hoursPlanned += e.planned / 60;
            took.hoursReally += e.minutes() / 60;
            if (of != took.surfaces.end()) {
                of->hoursPlanned += e.planned / 60;
                of->hoursReally += e.minutes() / 60;
            }
            break;
        case EntryKind::PieceSpoilt:
            took.spoilt += pieces;
            if (of != took.surfaces.end()) of->spoilt += pieces;
            break;
        case EntryKind::PieceCut: took.cut += pieces; break;
        case EntryKind::Note:
        case EntryKind::Difference: took.remarks.push_back(e); break;
        default: break;
        }
    }
    took.days = static_cast<int>(days.size());
    if (!days.empty()) {
        took.first = *days.begin();
        took.last = *days.rbegin();
    }
    if (!job.weighings.empty() && job.mass.front && job.mass.rear) {
        const Weighing& w = job.weighings.back();
        took.weighed = Kg{w.front + w.rear - *job.mass.front - *job.mass.rear};
        took.weighedPlan = Kg{w.fitted};
    }
    return took;
}

} // namespace westrum
