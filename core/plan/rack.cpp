#include "core/plan/rack.h"

#include "core/cutting/leftovers.h"
#include "core/families/family.h"
#include "core/geometry/boolean.h"
#include "core/shell/new_van.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace westrum {
namespace {

constexpr double kAlike = 1e-9;

Region fromOrigin(const Region& region) {
    const Bounds b = boundsOf(region);
    Region out = region;
    for (Ring& ring : out.rings)
        for (Point& p : ring) p = p - b.low;
    return out;
}

Region rectangleOf(double width, double height) { return {{rectangle(0, 0, width, height)}}; }

bool isRectangle(const Region& shape) {
    const Bounds b = boundsOf(shape);
    return areaMm2(shape) > (1 - 1e-6) * b.width() * b.height();
}

/// The fields that say how far an adhesive or a coating goes; null: it is none.
const char* spreadField(const Product& product) {
    for (const char* key : {"spreading", "rate"})
        if (findField(fieldsOfFamily(product.family), key)) return key;
    return nullptr;
}

} // namespace

std::vector<Region> offcutsOf(const CutItem& item, StockForm form) {
    std::vector<Region> offcuts;
    if (form != StockForm::Roll) {
        for (const LeftRectangle& left : item.left)
            offcuts.push_back(rectangleOf(std::floor(left.widthMm), std::floor(left.heightMm)));
        return offcuts;
    }
    const KeepRule rule = keepRuleOf(form);
    Region free = item.shape.empty() ? rectangleOf(item.lengthMm, item.widthMm) : item.shape;
    for (const LyingPiece& p : item.pieces)
        free = difference(free, item.kerfMm > 0 ? outset(p.shape, item.kerfMm) : p.shape);
    const std::vector<Region> parts = partsOf(free);
    std::vector<bool> taken(parts.size());
    for (const LeftRectangle& left : item.left) {
        const Region square{{rectangle(left.x, left.y, left.widthMm, left.heightMm)}};
        for (std::size_t i = 0; i < parts.size(); ++i) {
            if (taken[i] || areaMm2(intersection(parts[i], square)) < 0.5 * areaMm2(square)) continue;
            taken[i] = true;
            // Slivers that hang on it are no use to anybody.
            const double thin = rule.leastWidthMm / 4;
            Region stout = outset(inset(parts[i], thin), thin);
            stout = intersection(stout, parts[i]);
            for (const Region& part : partsOf(stout))
                if (const Bounds b = boundsOf(part); std::min(b.width(), b.height()) >= rule.leastWidthMm &&
                                                     std::max(b.width(), b.height()) >= rule.leastLengthMm)
                    offcuts.push_back(fromOrigin(part));
            break;
        }
    }
    return offcuts;
}

StockEntry stockOf(const RackPiece& piece, std::string id) {
    const auto reading = [](double mm) {
        const double whole = std::floor(mm + kAlike);
        return Reading{std::to_string(static_cast<long>(whole)) + " mm", {whole}};
    };
    StockEntry entry;
    entry.id = std::move(id);
    entry.name = piece.number;
    entry.rack = true;
    entry.count = 1;
    entry.length = reading(piece.lengthMm);
    entry.width = reading(piece.widthMm);
    entry.shape = piece.shape;
    entry.book = piece.number;
    entry.lot = piece.lot;
    entry.stands = piece.stands;
    return entry;
}

namespace {

/// The largest rectangle of an offcut.
std::array<double, 2> usableOf(const RackPiece& piece) {
    if (piece.shape.empty() || isRectangle(piece.shape)) return {piece.lengthMm, piece.widthMm};
    const LeftRectangle usable = largestRectangle(piece.shape, {0, 0});
    return {usable.widthMm, usable.heightMm};
}

bool goesOn(const std::array<double, 2>& usable, double length, double width, bool mayTurn) {
    constexpr double kTight = 1e-6;
    const auto fits = [&](double l, double w) { return l <= usable[0] + kTight && w <= usable[1] + kTight; };
    return fits(length, width) || (mayTurn && fits(width, length));
}

} // namespace

std::vector<RackServes> servesNow(const Job& job, const std::vector<ProductCut>& cuts, const RackPiece& piece) {
    std::vector<RackServes> serves;
    const Product* product = findIdentity(job.catalogue, piece.product);
    if (!product) return serves;
    const auto usable = usableOf(piece);
    for (const ProductCut& cut : cuts) {
        if (cut.product != product->id) continue;
        std::vector<bool> isCut(cut.pieces.size());
        for (const CutItem& item : cut.items)
            for (const LyingPiece& l : item.pieces)
                if (l.cut && l.piece >= 0) isCut[static_cast<std::size_t>(l.piece)] = true;
        for (std::size_t i = 0; i < cut.pieces.size(); ++i) {
            const CutPiece& p = cut.pieces[i];
            if (isCut[i] || !goesOn(usable, p.lengthMm(), p.widthMm(), p.mayTurn)) continue;
            auto at =
                std::find_if(serves.begin(), serves.end(), [&](const RackServes& s) { return s.surface == p.surface; });
            if (at == serves.end()) at = serves.insert(serves.end(), {p.surface, 0});
            ++at->pieces;
        }
    }
    std::stable_sort(serves.begin(), serves.end(),
                     [](const RackServes& a, const RackServes& b) { return a.pieces > b.pieces; });
    return serves;
}

const RackPiece* rackPieceFor(const std::vector<RackPiece>& rack, const Product& product, Mm length, Mm width,
                              bool mayTurn) {
    const std::string identity = productIdentity(product);
    const RackPiece* best = nullptr;
    if (!(length.value > 0)) return nullptr;
    for (const RackPiece& p : rack)
        if (p.state == RackPiece::State::Free && p.product == identity &&
            goesOn(usableOf(p), length.value, width.value, mayTurn) &&
            (!best || p.lengthMm * p.widthMm < best->lengthMm * best->widthMm))
            best = &p;
    return best;
}

RackWish rackWish(const Job& job) {
    RackWish wish;
    for (const auto& [product, list] : job.cutLists)
        for (const StockEntry& entry : list.stock) {
            if (!entry.rack || entry.book.empty()) continue;
            const bool cut = std::any_of(list.kept.begin(), list.kept.end(), [&](const KeptItem& k) {
                return k.stock == entry.id &&
                       std::any_of(k.pieces.begin(), k.pieces.end(), [](const KeptPiece& p) { return p.cut; });
            });
            if (cut)
                wish.cut.insert(entry.book);
            else if (entry.used)
                wish.reserved.insert(entry.book);
        }
    for (const ShelfPack& s : job.shelf)
        if (!s.number.empty()) wish.packs.insert(s.number);
    return wish;
}

std::vector<PricePaid> pricesPaid(const Job& job, CivilDate today) {
    std::vector<PricePaid> paid;
    for (const auto& [key, bought] : job.bought) {
        if (!bought.paid || bought.packs <= 0) continue;
        const Product* product = job.catalogue.find(key.substr(0, key.find('/')));
        if (!product) continue;
        PricePaid p{.day = today,
                    .product = productIdentity(*product),
                    .name = product->name,
                    .supplier = product->supplier,
                    .packs = bought.packs / (stockFormOf(product->family) == StockForm::Roll ? 100.0 : 1.0),
                    .paid = *bought.paid,
                    .job = job.name};
        for (const RecordEntry& e : job.record)
            if (e.kind == EntryKind::Delivery && e.product == product->id) p.day = e.when.day;
        paid.push_back(std::move(p));
    }
    return paid;
}

std::vector<KeptPack> packsLeft(const Job& job) {
    std::vector<KeptPack> packs;
    if (job.bookId.empty()) return packs;
    for (const RecordEntry& e : job.record) {
        if (e.kind != EntryKind::LeftOver || !(e.amount > 0)) continue;
        const Product* product = job.catalogue.find(e.product);
        if (!product) continue;
        KeptPack p{.number = "P-" + job.bookId.substr(0, 4) + "-" + std::to_string(e.id),
                   .product = productIdentity(*product),
                   .name = product->name,
                   .count = e.amount,
                   .opened = e.amount != std::floor(e.amount),
                   .lot = e.lot,
                   .kept = e.when.day,
                   .from = job.name};
        for (const RecordEntry& d : job.record)
            if (p.lot.empty() && d.kind == EntryKind::Delivery && d.product == e.product) p.lot = d.lot;
        packs.push_back(std::move(p));
    }
    return packs;
}

JobDone jobDone(const Job& job, const Plan& plan, CivilDate today) {
    JobDone done{.id = job.bookId,
                 .name = job.name,
                 .vehicle = job.vehicle,
                 .day = today,
                 .areaM2 = plan.totals.laidArea.value,
                 .massKg = plan.balance.added.value,
                 .cost = plan.totals.cost};
    for (const RecordEntry& e : job.record)
        if (e.kind == EntryKind::StepDone) {
            done.hoursReally += e.minutes() / 60;
            done.hoursPlanned += e.planned / 60;
        }
    if (done.areaM2 > 0)
        done.wasteShare = std::clamp(
            (plan.totals.boughtArea.value + plan.totals.rackArea.value - done.areaM2) / done.areaM2, 0.0, 1.0);
    return done;
}

Job withRatesOf(Job job, const Person& person) {
    job.work.person = person.name;
    job.work.practised = person.practised;
    for (const auto& [family, rate] : person.hours) job.work.hours[family] = rate;
    if (person.spoilChance) job.spoilChance = *person.spoilChance;
    if (person.readingErrorMm) job.work.readingErrorMm = *person.readingErrorMm;
    for (Product& p : job.catalogue.products) {
        if (const auto share = person.waste.find(productIdentity(p)); share != person.waste.end())
            if (const Field* field = findField(fieldsOfFamily(p.family), "waste"))
                p.fields["waste"] = std::clamp(share->second, field->least, field->most);
        const auto known = person.coverage.find(productIdentity(p));
        const char* key = spreadField(p);
        if (known == person.coverage.end() || !key) continue;
        const Field* field = findField(fieldsOfFamily(p.family), key);
        p.fields[key] = std::clamp(known->second, field->least, field->most);
    }
    return job;
}

Person personOf(const Job& before, const Job& after, Person known) {
    known.practised = after.work.practised;
    for (const auto& [family, rate] : after.work.hours)
        if (const auto old = before.work.hours.find(family); old == before.work.hours.end() || old->second != rate)
            known.hours[family] = rate;
    if (after.spoilChance != before.spoilChance) known.spoilChance = after.spoilChance;
    if (after.work.readingErrorMm != before.work.readingErrorMm) known.readingErrorMm = after.work.readingErrorMm;
    for (const Product& p : after.catalogue.products) {
        const char* key = spreadField(p);
        const Product* old = before.catalogue.find(p.id);
        if (!key || !old || *old == p) continue;
        const auto changed = [&](std::string_view name) {
            const Field* field = findField(fieldsOfFamily(p.family), name);
            return field && valueOf(p.fields, *field) != valueOf(old->fields, *field);
        };
        if (changed(key)) known.coverage[productIdentity(p)] = valueOf(p.fields, fieldsOfFamily(p.family), key);
        if (changed("waste")) known.waste[productIdentity(p)] = valueOf(p.fields, fieldsOfFamily(p.family), "waste");
    }
    return known;
}

std::vector<BookRate> ratesOf(const Person& person, const Job& job) {
    constexpr double kSame = 1e-3;
    std::vector<BookRate> rates;
    const auto differs = [](double now, double then) { return std::abs(then - now) > kSame * std::abs(now); };
    const auto alone = [&] { return Person{.name = person.name, .practised = job.work.practised}; };
    for (const auto& [family, rate] : person.hours) {
        const Family* known = familyOf(family);
        if (!known) continue;
        const auto own = job.work.hours.find(family);
        const HourRate now = own == job.work.hours.end() ? known->hours : own->second;
        if (!differs(now.perM2, rate.perM2) && !differs(now.perPiece, rate.perPiece)) continue;
        BookRate b{.kind = BookRate::Minutes, .of = family, .now = now.perM2, .offered = rate.perM2, .alone = alone()};
        if (!(now.perM2 > 0)) b.now = now.perPiece, b.offered = rate.perPiece;
        b.alone.hours[family] = rate;
        rates.push_back(std::move(b));
    }
    for (const Product& p : job.catalogue.products) {
        const auto known = person.coverage.find(productIdentity(p));
        const char* key = spreadField(p);
        if (known == person.coverage.end() || !key) continue;
        const double now = valueOf(p.fields, fieldsOfFamily(p.family), key);
        if (!differs(now, known->second)) continue;
        BookRate b{.kind = BookRate::Coverage, .of = p.id, .now = now, .offered = known->second, .alone = alone()};
        b.aSquareMetre = std::string_view(key) == "rate";
        b.alone.coverage[known->first] = known->second;
        rates.push_back(std::move(b));
    }
    for (const Product& p : job.catalogue.products) {
        const auto known = person.waste.find(productIdentity(p));
        const Field* field = findField(fieldsOfFamily(p.family), "waste");
        if (known == person.waste.end() || !field) continue;
        const double now = valueOf(p.fields, *field);
        if (std::abs(now - known->second) < kSame) continue;
        BookRate b{.kind = BookRate::Waste, .of = p.id, .now = now, .offered = known->second, .alone = alone()};
        b.alone.waste[known->first] = known->second;
        rates.push_back(std::move(b));
    }
    if (person.readingErrorMm && differs(job.work.readingErrorMm, *person.readingErrorMm)) {
        BookRate b{.kind = BookRate::Readings,
                   .now = job.work.readingErrorMm,
                   .offered = *person.readingErrorMm,
                   .alone = alone()};
        b.alone.readingErrorMm = person.readingErrorMm;
        rates.push_back(std::move(b));
    }
    if (person.spoilChance && differs(job.spoilChance, *person.spoilChance)) {
        BookRate b{.kind = BookRate::Spoils, .now = job.spoilChance, .offered = *person.spoilChance, .alone = alone()};
        b.alone.spoilChance = person.spoilChance;
        rates.push_back(std::move(b));
    }
    return rates;
}

Job shellOf(const Job& job) {
    Job shell;
    shell.name = job.name;
    shell.vehicle = job.vehicle;
    shell.currency = job.currency;
    shell.shownUnit = job.shownUnit;
    shell.bareUnit = job.bareUnit;
    shell.surfaces = job.surfaces;
    shell.archBoxes = job.archBoxes;
    for (ArchBox& box : shell.archBoxes) box.product.clear();
    shell.datum = job.datum;
    shell.access = job.access;
    shell.headroom = job.headroom;
    shell.symmetricBody = job.symmetricBody;
    shell.mass.wheelbase = job.mass.wheelbase;
    shell.mass.track = job.mass.track;
    shell.mass.rearAxle = job.mass.rearAxle;
    const auto built = [](const Surface& s) { return isFurniture(s.kind) || s.kind == SurfaceKind::WetCellWall; };
    std::erase_if(shell.surfaces, built);
    for (Surface& s : shell.surfaces) {
        s.before = false;
        for (Edge& e : s.edges) // nothing meets what is not there
            if (e.kind == EdgeKind::Meets && !shell.surface(e.surface)) e = {};
        // What the body has stays; what was built into that van was its own.
        std::erase_if(s.openings, [](const Opening& o) {
            return o.kind != OpeningKind::Window && o.kind != OpeningKind::RoofVent && o.kind != OpeningKind::Hatch;
        });
        std::erase_if(s.zones, [](const Zone& z) { return z.kind != ZoneKind::Wiring; });
        std::erase_if(s.supports, [](const Support& u) { return u.kind == SupportKind::Batten; });
        s.packing = {};
        for (Edge& e : s.edges) e.trim.clear();
    }
    return shell;
}

Job fromBody(const Job& shell, Job fresh, const std::string& body) {
    fresh.archBoxes = shell.archBoxes;
    fresh.datum = shell.datum;
    fresh.access = shell.access;
    fresh.headroom = shell.headroom;
    fresh.symmetricBody = shell.symmetricBody;
    fresh.mass = shell.mass;
    fresh.surfaces = shell.surfaces;
    fresh.before.body = body;
    for (Surface& s : fresh.surfaces) s.before = !s.measurement.empty();
    fresh.before.checks = proposedChecks(fresh.surfaces);
    return fresh;
}

} // namespace westrum
