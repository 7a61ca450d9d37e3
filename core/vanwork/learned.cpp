#include "core/vanwork/learned.h"

#include "core/buying/bought.h"
#include "core/catalogue/field.h"
#include "core/families/family.h"
#include "core/measure/distance_network.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <tuple>

namespace westrum {
namespace {

constexpr double kWorthTelling = 0.05; ///< less of a difference is no offer
constexpr double kWasteWorthTelling = 0.01;
constexpr int kFewest = 2; ///< observations
constexpr double kLeastErrorMm = 0.5, kMostErrorMm = 20;

const LayerPlan* layerOfStep(const Plan& plan, const RecordEntry& e) {
    const SurfacePlan* s = plan.surface(e.surface);
    if (!s) return nullptr;
    for (const FitStep& step : s->steps)
        if (step.key == e.step && step.layer >= 0) return &s->layers[static_cast<std::size_t>(step.layer)];
    return nullptr;
}

/// A product's layers that are laid, all of them ticked: what they cover and what that was to take, in containers.
struct Used {
    double area = 0, planned = 0;
};
Used usedOf(const Job& job, const Plan& plan, const std::string& product) {
    Used used;
    const Purchase* bought = nullptr;
    for (const Purchase& p : plan.purchases)
        if (p.product == product && p.amountPerPack > 0) bought = &p;
    if (!bought) return used;
    for (const SurfacePlan& s : plan.surfaces)
        for (std::size_t k = 0; k < s.layers.size(); ++k) {
            const LayerPlan& l = s.layers[k];
            if (l.product != product) continue;
            const FitLog& log = job.log(s.surface);
            const bool done = std::any_of(s.steps.begin(), s.steps.end(),
                                          [&](const FitStep& step) { return step.layer == static_cast<int>(k); }) &&
                              std::all_of(s.steps.begin(), s.steps.end(), [&](const FitStep& step) {
                                  return step.layer != static_cast<int>(k) || log.done.contains(step.key);
                              });
            if (!done) continue;
            used.area += l.area.value;
            used.planned += l.take.amount / bought->amountPerPack;
        }
    return used;
}

double amountOf(const Record& record, EntryKind kind, const std::string& product) {
    double n = 0;
    for (const RecordEntry& e : record)
        if (e.kind == kind && e.product == product) n += e.amount;
    return n;
}
/// Containers that are empty, onto faces or not.
double usedUp(const Record& record, const std::string& product) {
    return amountOf(record, EntryKind::Emptied, product) + amountOf(record, EntryKind::ThrownAway, product);
}

/// What a product is planned to leave in tray and roller.
double wasteOf(const Product& p) {
    const Field* field = findField(fieldsOfFamily(p.family), "waste");
    return field ? valueOf(p.fields, *field) : 0;
}

int countOf(const Record& record, EntryKind kind) {
    double n = 0;
    for (const RecordEntry& e : record)
        if (e.kind == kind) n += std::max(1.0, e.amount);
    return static_cast<int>(std::lround(n));
}

bool differs(double now, double offered) { return std::abs(offered - now) >= kWorthTelling * std::abs(now); }

/// Of the hours of a layer, what its area takes; the rest goes by the piece.
double shareOfArea(const LayerPlan& layer, const HourRate& rate) {
    const double area = rate.perM2 * layer.area.value,
                 pieces = rate.perPiece * static_cast<double>(layer.setOut.pieces.size());
    return area + pieces > 0 ? area / (area + pieces) : 1;
}

/// Minutes by family: each step done is an observation.
void offerMinutes(const Job& job, const Plan& plan, std::vector<RateOffer>& offers) {
    std::map<std::string, std::vector<ObservedParts>> byFamily;
    const auto rateOf = [&](const std::string& id) {
        const auto own = job.work.hours.find(id);
        const Family* family = familyOf(id);
        return own != job.work.hours.end() ? own->second : family ? family->hours : HourRate{};
    };
    for (const RecordEntry& e : job.record) {
        if (e.kind != EntryKind::StepDone || e.planned <= 0) continue;
        if (const LayerPlan* layer = layerOfStep(plan, e))
            byFamily[layer->family].push_back({{e.planned, e.minutes()}, shareOfArea(*layer, rateOf(layer->family))});
    }
    for (const auto& [id, observed] : byFamily) {
        const LearnedParts learned = learnedParts(observed);
        if (!familyOf(id) || learned.whole.observations < kFewest) continue;
        const HourRate rate = rateOf(id);
        const bool area = rate.perM2 > 0, pieces = rate.perPiece > 0;
        const bool other = (area && differs(1, learned.first)) || (pieces && differs(1, learned.second));
        if (!other) continue;
        const double now = area ? rate.perM2 : rate.perPiece;
        RateOffer offer{.what = RateOffer::Minutes,
                        .family = id,
                        .now = now,
                        .observed = now * learned.whole.observed,
                        .offered = now * (area ? learned.first : learned.second),
                        .low = now * learned.whole.low,
                        .high = now * learned.whole.high,
                        .observations = learned.whole.observations};
        if (area && pieces) {
            offer.nowPiece = rate.perPiece;
            offer.offeredPiece = rate.perPiece * learned.second;
        }
        offers.push_back(std::move(offer));
    }
}

/// Coverage: the area laid over the containers that were emptied for it; each container is an observation. Once what
/// was thrown away is noted, it has a rate of its own, and coverage is what went onto the faces.
void offerCoverage(const Job& job, const Plan& plan, std::vector<RateOffer>& offers) {
    for (const Product& p : job.catalogue.products) {
        const Family* family = familyOf(p.family);
        if (!family || (family->product.role != LayerRole::Adhesive && family->product.role != LayerRole::Coating))
            continue;
        const double emptied = amountOf(job.record, EntryKind::Emptied, p.id),
                     thrown = amountOf(job.record, EntryKind::ThrownAway, p.id), waste = wasteOf(p);
        const Used used = usedOf(job, plan, p.id);
        if (emptied < kFewest || used.planned <= 0) continue;
        const double planned = thrown > 0 ? used.planned / (1 + waste) : used.planned;
        const LearnedRatio learned =
            learnedRatio(std::vector<Observed>(static_cast<std::size_t>(emptied), Observed{planned / emptied, 1.0}));
        // More containers than planned: each covers less.
        const double now = used.area / planned, offered = now / learned.ratio;
        const double spread = std::exp(kUsualSpread / std::sqrt(emptied));
        const auto offer = [&](RateOffer::What what, double usual, double observed, double better) {
            offers.push_back({.what = what,
                              .product = p.id,
                              .now = usual,
                              .observed = observed,
                              .offered = better,
                              .low = observed / spread,
                              .high = observed * spread,
                              .observations = static_cast<int>(emptied)});
        };
        if (differs(now, offered)) offer(RateOffer::Coverage, now, used.area / emptied, offered);
        const double better = learnedWaste(thrown, emptied, waste);
        if (thrown > 0 && std::abs(better - waste) >= kWasteWorthTelling)
            offer(RateOffer::Waste, waste, thrown / emptied, better);
    }
}

/// Differences between the drawing and the van, of readings or of pieces.
std::vector<double> differencesOf(const Record& record, bool pieces) {
    std::vector<double> all;
    for (const RecordEntry& e : record)
        if (e.kind == EntryKind::Difference && e.piece.empty() != pieces) all.push_back(e.by.value);
    return all;
}

/// Readings: all of the surfaces that are worked on were put to the proof.
void offerReadings(const Job& job, std::vector<RateOffer>& offers) {
    const std::vector<double> noted = differencesOf(job.record, false);
    std::size_t readings = 0;
    for (const Surface& s : job.surfaces)
        if (!job.log(s.id).done.empty())
            for (const std::string& key : readingKeys(s.measurement)) {
                const MaybeReading* reading = findReading(s, key);
                readings += reading && *reading ? 1 : 0;
            }
    if (noted.size() < kFewest) return;
    const double now = job.work.readingErrorMm, offered = learnedError(noted, readings, now);
    if (!differs(now, offered)) return;
    double squares = 0;
    for (const double mm : noted) squares += mm * mm;
    const double spread = std::exp(1 / std::sqrt(2.0 * static_cast<double>(std::max(readings, noted.size()))));
    offers.push_back({.what = RateOffer::Readings,
                      .now = now,
                      .observed = std::sqrt(squares / static_cast<double>(noted.size())),
                      .offered = offered,
                      .low = offered / spread,
                      .high = offered * spread,
                      .observations = static_cast<int>(noted.size())});
}

void offerSpoils(const Job& job, std::vector<RateOffer>& offers) {
    const int spoilt = countOf(job.record, EntryKind::PieceSpoilt),
              cut = countOf(job.record, EntryKind::PieceCut) + spoilt;
    if (cut < kFewest) return;
    const LearnedShare learned = learnedShare(spoilt, cut, job.spoilChance);
    if (!differs(job.spoilChance, learned.share)) return;
    offers.push_back({.what = RateOffer::Spoils,
                      .now = job.spoilChance,
                      .observed = static_cast<double>(spoilt) / cut,
                      .offered = learned.share,
                      .low = learned.low,
                      .high = learned.high,
                      .observations = cut});
}

} // namespace

std::string offerKey(const RateOffer& o) {
    switch (o.what) {
    case RateOffer::Minutes: return "minutes/" + o.family;
    case RateOffer::Coverage: return "coverage/" + o.product;
    case RateOffer::Spoils: return "spoils";
    case RateOffer::Waste: return "waste/" + o.product;
    case RateOffer::Readings: return "readings";
    }
    return {};
}

std::vector<RateOffer> rateOffers(const Job& job, const Plan& plan) {
    std::vector<RateOffer> offers;
    offerMinutes(job, plan, offers);
    offerCoverage(job, plan, offers);
    offerSpoils(job, offers);
    offerReadings(job, offers);
    std::erase_if(offers, [&](const RateOffer& o) { return job.work.refused.contains(offerKey(o)); });
    const auto by = [](const RateOffer& o) {
        if (o.what == RateOffer::Waste) return std::abs(std::log((1 + o.offered) / (1 + o.now)));
        const double piece = o.nowPiece > 0 ? std::abs(std::log(o.offeredPiece / o.nowPiece)) : 0;
        return o.now > 0 ? std::max(piece, std::abs(std::log(o.offered / o.now))) : 0;
    };
    std::stable_sort(offers.begin(), offers.end(),
                     [&](const RateOffer& a, const RateOffer& b) { return by(a) > by(b); });
    return offers;
}

Job withRate(Job job, const RateOffer& offer) {
    const double ratio = offer.now > 0 ? offer.offered / offer.now : 1;
    switch (offer.what) {
    case RateOffer::Minutes:
        if (const Family* family = familyOf(offer.family)) {
            const auto own = job.work.hours.try_emplace(offer.family, family->hours).first;
            HourRate& rate = own->second;
            if (rate.perM2 > 0)
                rate.perM2 *= ratio;
            else
                rate.perPiece *= ratio;
            if (offer.nowPiece > 0) rate.perPiece *= offer.offeredPiece / offer.nowPiece;
        }
        break;
    case RateOffer::Coverage:
        for (Product& p : job.catalogue.products) {
            if (p.id != offer.product) continue;
            // A litre covers more, or a face takes less of it.
            for (const auto& [key, up] : {std::pair{"spreading", true}, {"rate", false}})
                if (const Field* field = findField(fieldsOfFamily(p.family), key)) {
                    const double value = valueOf(p.fields, fieldsOfFamily(p.family), key) * (up ? ratio : 1 / ratio);
                    p.fields[key] = std::clamp(value, field->least, field->most);
                }
        }
        break;
    case RateOffer::Spoils: job.spoilChance = std::clamp(offer.offered, 0.0, 0.9); break;
    case RateOffer::Waste:
        for (Product& p : job.catalogue.products)
            if (const Field* field = findField(fieldsOfFamily(p.family), "waste"); p.id == offer.product && field)
                p.fields["waste"] = std::clamp(offer.offered, field->least, field->most);
        break;
    case RateOffer::Readings: job.work.readingErrorMm = std::clamp(offer.offered, kLeastErrorMm, kMostErrorMm); break;
    }
    return job;
}

std::vector<PlannedReally> plannedAndReally(const Job& job, const Plan& plan) {
    std::vector<PlannedReally> all;
    std::map<std::string, PlannedReally> hours;
    PlannedReally whole{.what = PlannedReally::Hours};
    for (const RecordEntry& e : job.record) {
        if (e.kind != EntryKind::StepDone || e.planned <= 0 || !job.surface(e.surface)) continue;
        PlannedReally& h = hours[e.surface];
        h.surface = e.surface;
        for (PlannedReally* sum : {&h, &whole}) {
            sum->planned += e.planned / 60;
            sum->really += e.minutes() / 60;
        }
    }
    for (const auto& [surface, h] : hours) all.push_back(h);
    for (const Product& p : job.catalogue.products) {
        const double emptied = usedUp(job.record, p.id);
        const Used used = usedOf(job, plan, p.id);
        if (emptied > 0 && used.planned > 0)
            all.push_back(
                {.what = PlannedReally::Containers, .product = p.id, .planned = used.planned, .really = emptied});
    }
    const int spoilt = countOf(job.record, EntryKind::PieceSpoilt),
              cut = countOf(job.record, EntryKind::PieceCut) + spoilt;
    if (cut > 0)
        all.push_back(
            {.what = PlannedReally::Spoilt, .planned = job.spoilChance * cut, .really = static_cast<double>(spoilt)});
    for (const auto& [pieces, what, usual] : {std::tuple{false, PlannedReally::Misread, job.work.readingErrorMm},
                                              std::tuple{true, PlannedReally::Miscut, kCutMm}}) {
        const std::vector<double> noted = differencesOf(job.record, pieces);
        double squares = 0;
        for (const double mm : noted) squares += mm * mm;
        if (noted.size() >= kFewest)
            all.push_back(
                {.what = what, .planned = usual, .really = std::sqrt(squares / static_cast<double>(noted.size()))});
    }
    const auto off = [](const PlannedReally& p) {
        return p.planned > 0 && p.really > 0 ? std::abs(std::log(p.ratio())) : p.planned != p.really ? 1.0 : 0.0;
    };
    std::stable_sort(all.begin(), all.end(),
                     [&](const PlannedReally& a, const PlannedReally& b) { return off(a) > off(b); });
    if (whole.planned > 0) all.insert(all.begin(), whole);
    return all;
}

SpoilConsequence spoilConsequence(const Job& job, const Plan& plan, const std::string& product, Mm length, Mm width,
                                  const std::vector<RackPiece>& rack) {
    const Product* sold = job.catalogue.find(product);
    SpoilConsequence c{.from = SpoilConsequence::MustBuy, .item = sold ? sold->name : product};
    if (const RackPiece* piece = sold ? rackPieceFor(rack, *sold, length, width, false) : nullptr) {
        c.from = SpoilConsequence::Rack;
        c.item = piece->number;
    }
    for (const Purchase& p : plan.purchases) {
        if (p.product != product) continue;
        c.cost = p.packPrice;
        const bool fits = length.value > 0 && ((p.offcutLength >= length && p.offcutWidth >= width) ||
                                               (p.offcutLength >= width && p.offcutWidth >= length));
        if (fits) return {.from = SpoilConsequence::Leftover, .cost = c.cost, .item = sold ? sold->name : product};
        if (c.from == SpoilConsequence::MustBuy && (p.spare > 0 || p.unitsLeft() > 0)) c.from = SpoilConsequence::Spare;
    }
    return c;
}

std::optional<SpoilDelay> spoilDelay(const Job& job, const Plan& plan, const WorkQuestion& question,
                                     const WorkPlan& work, const std::string& product, const std::string& surface) {
    const Product* sold = job.catalogue.find(product);
    const std::string from = sold ? sold->supplier : std::string();
    WorkQuestion asked = question;
    WorkNet& net = asked.net;
    // A trip that is still to come brings it along.
    int trip = -1;
    for (std::size_t i = 0; i < net.items.size(); ++i) {
        const WorkItem& w = net.items[i];
        const bool brings = (w.kind == WorkKind::Trip || w.kind == WorkKind::Delivery) && w.of == from;
        if (brings && w.left > 0 && !work.parts(static_cast<int>(i)).empty()) trip = static_cast<int>(i);
    }
    WorkPlan wish = work;
    if (trip < 0) {
        trip = static_cast<int>(net.items.size());
        net.items.push_back({.id = "trip/again",
                             .kind = WorkKind::Trip,
                             .of = from,
                             .place = WorkPlace::Shop,
                             .needs = {.minutes = kTripMinutes, .split = false, .open = true},
                             .left = kTripMinutes});
        wish.tasks.push_back(-1);
    }
    // What its product is still to be laid by waits for it.
    const auto lays = [&](const StepRef& ref) {
        const SurfacePlan* s = plan.surface(ref.surface);
        if (!s || (!surface.empty() && ref.surface != surface) || job.log(ref.surface).done.contains(ref.key))
            return false;
        return std::any_of(s->steps.begin(), s->steps.end(), [&](const FitStep& step) {
            return step.key == ref.key && step.layer >= 0 && !step.effort.prepares &&
                   s->layers[static_cast<std::size_t>(step.layer)].product == product;
        });
    };
    bool awaited = false;
    for (std::size_t i = 0; i < question.net.items.size(); ++i) {
        const WorkItem& w = net.items[i];
        if (w.left <= 0 || static_cast<int>(i) == trip || !std::any_of(w.steps.begin(), w.steps.end(), lays)) continue;
        net.links.push_back({trip, static_cast<int>(i), 0, {}});
        awaited = true;
    }
    if (!awaited) return std::nullopt;
    const auto before = planNear(question, work).done(), after = planNear(asked, wish).done();
    if (!before || !after) return std::nullopt;
    return SpoilDelay{*before, *after};
}

std::optional<CivilDate> nextBuyingDay(const WorkQuestion& question, const WorkPlan& work) {
    std::optional<CivilDate> trip, any;
    const auto sooner = [](std::optional<CivilDate>& day, const CivilDate& other) {
        if (!day || other < *day) day = other;
    };
    for (std::size_t i = 0; i < question.net.items.size(); ++i)
        for (const WorkPart& part : work.parts(static_cast<int>(i))) {
            if (part.start < work.now) continue;
            const CivilDate day = work.clock.moment(part.start).day;
            const WorkKind kind = question.net.items[i].kind;
            if (kind == WorkKind::Trip || kind == WorkKind::Delivery) sooner(trip, day);
            sooner(any, day);
        }
    return trip ? trip : any;
}

std::optional<EmptiedConsequence> emptiedConsequence(const Job& job, const Plan& plan, const std::string& product) {
    const auto bought = std::find_if(plan.purchases.begin(), plan.purchases.end(),
                                     [&](const Purchase& p) { return p.product == product && p.amountPerPack > 0; });
    const Used used = usedOf(job, plan, product);
    if (bought == plan.purchases.end() || used.planned <= 0) return std::nullopt;
    double whole = 0;
    for (const SurfacePlan& s : plan.surfaces)
        for (const LayerPlan& l : s.layers)
            if (l.product == product) whole += l.take.amount / bought->amountPerPack;
    EmptiedConsequence c{.emptied = usedUp(job.record, product), .planned = used.planned};
    const auto seen = static_cast<std::size_t>(std::max(0.0, std::floor(c.emptied)));
    const LearnedRatio learned =
        learnedRatio(std::vector<Observed>(seen, {used.planned / std::max(c.emptied, 1e-9), 1}));
    c.still = std::max(0.0, whole - used.planned) * learned.ratio;
    constexpr double kHair = 1e-6;
    c.more = std::max(0, static_cast<int>(std::ceil(c.emptied + c.still - kHair)) - bought->packs);
    if (bought->packPrice) c.cost = *bought->packPrice * c.more;
    return c;
}

} // namespace westrum
