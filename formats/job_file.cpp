#include "formats/job_file.h"

#include "core/setout/set_out.h"
#include "formats/base_json.h"
#include "formats/cut_list_json.h"
#include "formats/record_json.h"
#include "formats/surface_json.h"
#include "formats/work_json.h"

#include <QFile>
#include <QFileInfo>
#include <QSaveFile>

#include <algorithm>
#include <cmath>
#include <set>

namespace westrum {
namespace {

constexpr int kMostSpares = 10000;
constexpr std::size_t kMostBought = 10000;
constexpr std::size_t kMostLayers = 40, kMostOptions = 12, kMostJoints = 200;

constexpr FileWords<LengthUnit, 5> kUnits{{{LengthUnit::Millimetre, "mm"},
                                           {LengthUnit::Centimetre, "cm"},
                                           {LengthUnit::Metre, "m"},
                                           {LengthUnit::Inch, "in"},
                                           {LengthUnit::Foot, "ft"}}};

constexpr std::size_t kMostAreaTrims = 200;
constexpr FileWords<EdgeMeeting, 12> kMeetings{{{EdgeMeeting::FloorAtWall, "floorAtWall"},
                                                {EdgeMeeting::FloorAtDoor, "floorAtDoor"},
                                                {EdgeMeeting::CeilingAtWall, "ceilingAtWall"},
                                                {EdgeMeeting::InsideCorner, "insideCorner"},
                                                {EdgeMeeting::OutsideCorner, "outsideCorner"},
                                                {EdgeMeeting::WetCorner, "wetCorner"},
                                                {EdgeMeeting::FreeEdge, "freeEdge"},
                                                {EdgeMeeting::Reveal, "reveal"},
                                                {EdgeMeeting::UnderTrim, "underTrim"},
                                                {EdgeMeeting::PanelJoint, "panelJoint"},
                                                {EdgeMeeting::Opening, "opening"},
                                                {EdgeMeeting::OpeningReveal, "openingReveal"}}};
constexpr FileWords<OfferState, 3> kOfferStates{
    {{OfferState::Sold, "sold"}, {OfferState::OutOfStock, "out-of-stock"}, {OfferState::Withdrawn, "withdrawn"}}};

constexpr FileWords<LotRule, 3> kLotRules{{{LotRule::Usual, "usual"}, {LotRule::One, "one"}, {LotRule::Any, "any"}}};

/// The kilograms of a van's mass by their keys.
std::array<std::pair<const char*, std::optional<double>*>, 6> kgs(VanMass& m) {
    return {{{"frontKg", &m.front},
             {"rearKg", &m.rear},
             {"frontLimitKg", &m.frontLimit},
             {"rearLimitKg", &m.rearLimit},
             {"grossLimitKg", &m.grossLimit},
             {"allowanceKg", &m.allowance}}};
}

class JobReader : public JsonWalk {
public:
    Job read(const Json& root) {
        Job job;
        readHead(root, job);
        readBuying(root, job);
        if (const Json* prices = objectMember(root, "", "prices", false)) job.prices = priceBook(*prices);
        if (const Json* m = objectMember(root, "", "mass", false)) job.mass = vanMass(*m, "mass");
        if (const Json* d = objectMember(root, "", "datum", false))
            job.datum = {reading(*d, "datum", "rear"), reading(*d, "datum", "front")};
        flag(root, "", "symmetricBody", job.symmetricBody);
        if (const Json* h = objectMember(root, "", "headroom", false))
            job.headroom = {reading(*h, "headroom", "rear"), reading(*h, "headroom", "middle"),
                            reading(*h, "headroom", "front"), reading(*h, "headroom", "person")};
        each(
            root, "", "archBoxes",
            [&](const Json& e, const std::string& at) { job.archBoxes.push_back(readArchBox(*this, e, at, boxIds_)); },
            false, 20);
        if (const Json* c = objectMember(root, "", "clearances", false))
            job.clearances = readClearances(*this, *c, "clearances");
        if (const Json* w = objectMember(root, "", "work", false)) job.work = readWork(*this, *w, "work");
        job.record = readRecord(*this, root, "record");
        if (const Json* b = objectMember(root, "", "before", false)) job.before = readBefore(*this, *b, "before");
        if (const Json* a = objectMember(root, "", "access", false)) job.access = readAccess(*this, *a, "access");
        each(root, "", "catalogue", [&](const Json& entry, const std::string& path) {
            job.catalogue.products.push_back(product(entry, path));
        });
        each(root, "", "surfaces", [&](const Json& entry, const std::string& path) {
            Surface s = readSurface(*this, entry, path, surfaceIds_);
            if (const Json* f = member(entry, path, "finish", false))
                job.finishes[s.id] = oldFinish(*f, path + ".finish");
            if (member(entry, path, "options", false)) job.finishes[s.id] = options(entry, path);
            if (const Json* l = member(entry, path, "log", false))
                job.logs[s.id] = readFitLog(*this, *l, path + ".log", currency_);
            job.surfaces.push_back(std::move(s));
        });
        readCutLists(root, job);
        return job;
    }

private:
    void readHead(const Json& root, Job& job) {
        text(root, "", "name", job.name);
        text(root, "", "vehicle", job.vehicle, false);
        text(root, "", "id", job.bookId, false);
        std::string code = "EUR";
        text(root, "", "currency", code);
        if (const auto currency = currencyOf(code))
            job.currency = *currency;
        else
            fault(FileFaultKind::UnknownWord, "currency", code);
        currency_ = job.currency;
        word(root, "", "bareUnit", kUnits, job.bareUnit);
        word(root, "", "shownUnit", kUnits, job.shownUnit);
        double seed = 1;
        number(root, "", "seed", 0, 1e15, seed, false);
        job.seed = static_cast<std::uint64_t>(seed);
        number(root, "", "spoilChance", 0, 0.9, job.spoilChance, false);
        number(root, "", "spreadM2PerMinute", 0.01, 50, job.spreadM2PerMinute, false);
        number(root, "", "closeM2PerMinute", 0.01, 50, job.closeM2PerMinute, false);
        flag(root, "", "consumables", job.consumables);
        number(root, "", "acceptedRisk", 0, 1, job.acceptedRisk, false);
    }

    /// What is bought, and what was weighed.
    void readBuying(const Json& root, Job& job) {
        if (const Json* spares = objectMember(root, "", "spares", false)) {
            for (const auto& [product, n] : spares->items())
                if (n.is_number_integer() && n >= 0 && n <= kMostSpares)
                    job.spares[product] = n;
                else
                    fault(FileFaultKind::OutOfRange, "spares." + product);
        }
        each(
            root, "", "areaTrims",
            [&](const Json& entry, const std::string& at) {
                AreaTrim a;
                readArea(*this, entry, at, a.area);
                word(entry, at, "meeting", kMeetings, a.meeting);
                text(entry, at, "product", a.product);
                job.areaTrims.push_back(std::move(a));
            },
            false, kMostAreaTrims);
        each(
            root, "", "shelf",
            [&](const Json& entry, const std::string& at) {
                ShelfPack s;
                text(entry, at, "product", s.product);
                number(entry, at, "packs", 0, kMostSpares, s.packs);
                text(entry, at, "number", s.number, false);
                job.shelf.push_back(std::move(s));
            },
            false);
        job.budget = money(root, "", "budgetMinor");
        if (const Json* bought = objectMember(root, "", "bought", false))
            for (const auto& [key, entry] : bought->items()) {
                const std::string path = "bought." + key;
                if (!entry.is_object() || job.bought.size() >= kMostBought) {
                    fault(FileFaultKind::WrongType, path, "object");
                    continue;
                }
                Bought b;
                count(entry, path, "packs", 0, 1000000, b.packs);
                b.paid = money(entry, path, "paidMinor");
                text(entry, path, "lot", b.lot, false);
                job.bought[key] = std::move(b);
            }
        each(
            root, "", "weighings",
            [&](const Json& entry, const std::string& path) {
                Weighing w;
                text(entry, path, "when", w.when, false);
                text(entry, path, "note", w.note, false);
                number(entry, path, "frontKg", 0, kMostVanKg, w.front, false);
                number(entry, path, "rearKg", 0, kMostVanKg, w.rear, false);
                number(entry, path, "fittedKg", -kMostVanKg, kMostVanKg, w.fitted, false);
                job.weighings.push_back(std::move(w));
            },
            false, 200);
    }

    void readCutLists(const Json& root, Job& job) {
        if (const Json* lists = objectMember(root, "", "cutLists", false)) {
            if (lists->size() > kMostEntries) fault(FileFaultKind::TooMany, "cutLists");
            for (const auto& [product, list] : lists->items()) {
                const std::string path = "cutLists." + product;
                if (faults().size() >= kMostFaults || lists->size() > kMostEntries) break;
                if (!list.is_object())
                    fault(FileFaultKind::WrongType, path, "object");
                else
                    job.cutLists[product] = readCutList(*this, list, path, currency_);
            }
        }
    }

    FieldValues fields(const Json& object, const std::string& path, const char* key) {
        FieldValues values;
        const Json* list = member(object, path, key, false);
        if (!list) return values;
        if (!list->is_object()) {
            fault(FileFaultKind::WrongType, join(path, key), "object");
            return values;
        }
        if (list->size() > 200) {
            fault(FileFaultKind::TooMany, join(path, key));
            return values;
        }
        for (const auto& [name, value] : list->items()) {
            double n = 0;
            if (number(*list, join(path, key), name.c_str(), -1e9, 1e9, n)) values[name] = n;
        }
        return values;
    }

    Product product(const Json& entry, const std::string& path) {
        Product p;
        id(entry, path, productIds_, p.id);
        text(entry, path, "family", p.family);
        text(entry, path, "name", p.name);
        text(entry, path, "supplier", p.supplier, false);
        double minor = 0;
        if (number(entry, path, "packPriceMinor", 0, static_cast<double>(kMostMinorUnits), minor, false))
            p.packPrice = Money{static_cast<std::int64_t>(std::llround(minor)), currency_};
        p.fields = fields(entry, path, "fields");
        return p;
    }

    /// Until version 3 a surface had one finish over an underlay.
    FinishOptions oldFinish(const Json& entry, const std::string& path) {
        FinishOptions f;
        if (!entry.is_object()) {
            fault(FileFaultKind::WrongType, path, "object");
            return f;
        }
        Layer finish, underlay;
        text(entry, path, "product", finish.product, false);
        text(entry, path, "underlay", underlay.product, false);
        text(entry, path, "trim", f.now().trim, false);
        finish.rules = fields(entry, path, "rules");
        for (Layer* layer : {&underlay, &finish})
            if (!layer->product.empty()) f.now().layers.push_back(std::move(*layer));
        return f;
    }

    FinishOptions options(const Json& entry, const std::string& path) {
        FinishOptions f;
        f.options.clear();
        each(
            entry, path, "options",
            [&](const Json& o, const std::string& at) {
                Finish option;
                text(o, at, "name", option.name, false);
                text(o, at, "trim", option.trim, false);
                each(
                    o, at, "layers",
                    [&](const Json& l, const std::string& where) { option.layers.push_back(layer(l, where)); }, false,
                    kMostLayers);
                f.options.push_back(std::move(option));
            },
            true, kMostOptions);
        if (f.options.empty()) f.options.emplace_back();
        count(entry, path, "chosen", 0, static_cast<int>(f.options.size()) - 1, f.chosen);
        return f;
    }

    Layer layer(const Json& entry, const std::string& path) {
        Layer l;
        text(entry, path, "product", l.product);
        l.rules = fields(entry, path, "rules");
        flag(entry, path, "bolted", l.bolted);
        if (const Json* joints = member(entry, path, "joints", false)) {
            if (!joints->is_array() || joints->size() > kMostJoints) {
                fault(FileFaultKind::WrongType, path + ".joints", "list");
                return l;
            }
            for (const Json& j : *joints)
                if (j.is_number() && std::abs(j.get<double>()) <= kLongestLength.value)
                    l.joints.push_back(j.get<double>());
                else
                    fault(FileFaultKind::OutOfRange, path + ".joints");
            std::sort(l.joints.begin(), l.joints.end());
        }
        if (const Json* reliefs = member(entry, path, "reliefs", false)) {
            if (!reliefs->is_array() || reliefs->size() > kMostJoints) {
                fault(FileFaultKind::WrongType, path + ".reliefs", "list");
                return l;
            }
            const auto sound = [](const Json& n) {
                return n.is_number() && std::abs(n.get<double>()) <= kLongestLength.value;
            };
            for (const Json& r : *reliefs)
                if (r.is_array() && r.size() == 4 && std::all_of(r.begin(), r.end(), sound))
                    l.reliefs.push_back({{r[0], r[1]}, {r[2], r[3]}});
                else
                    fault(FileFaultKind::OutOfRange, path + ".reliefs");
        }
        each(
            entry, path, "battens",
            [&](const Json& e, const std::string& at) { l.battens.push_back(readSupport(*this, e, at)); }, false, 100);
        l.holders = readHolders(*this, entry, path);
        return l;
    }

    PriceBook priceBook(const Json& entry) {
        PriceBook book;
        each(
            entry, "prices", "offers",
            [&](const Json& o, const std::string& path) {
                Offer offer;
                text(o, path, "product", offer.product);
                text(o, path, "supplier", offer.supplier);
                text(o, path, "date", offer.date, false);
                number(o, path, "size", 0, 1e6, offer.size, false);
                number(o, path, "tax", 0, 2, offer.tax, false);
                flag(o, path, "taxIncluded", offer.taxIncluded);
                word(o, path, "state", kOfferStates, offer.state);
                word(o, path, "lot", kLotRules, offer.lot, false);
                double minor = 0;
                number(o, path, "priceMinor", 0, static_cast<double>(kMostMinorUnits), minor);
                std::string code = currency_.name();
                text(o, path, "currency", code, false);
                const auto currency = currencyOf(code);
                if (!currency) return fault(FileFaultKind::UnknownWord, path + ".currency", code);
                offer.price = {static_cast<std::int64_t>(minor), *currency};
                book.offers.push_back(std::move(offer));
            },
            false, kMostOffers);
        each(
            entry, "prices", "suppliers",
            [&](const Json& s, const std::string& path) {
                Supplier supplier;
                text(s, path, "name", supplier.name);
                supplier.delivery = money(s, path, "deliveryMinor");
                supplier.freeFrom = money(s, path, "freeFromMinor");
                book.suppliers.push_back(std::move(supplier));
            },
            false, 1000);
        if (const Json* rates = objectMember(entry, "prices", "rates", false)) {
            for (const auto& [code, rate] : rates->items())
                if (rate.is_number() && rate.get<double>() > 0 && rate.get<double>() < 1e6 && currencyOf(code))
                    book.rates[code] = rate;
                else
                    fault(FileFaultKind::OutOfRange, "prices.rates." + code);
        }
        return book;
    }

    VanMass vanMass(const Json& entry, const std::string& path) {
        VanMass m;
        m.wheelbase = reading(entry, path, "wheelbase");
        m.track = reading(entry, path, "track");
        m.rearAxle = reading(entry, path, "rearAxle");
        for (const auto& [key, value] : kgs(m)) {
            double kg = 0;
            if (!entry.contains(key)) continue;
            number(entry, path, key, 0, kMostVanKg, kg, false);
            *value = kg;
        }
        if (const Json* places = objectMember(entry, path, "places", false)) {
            for (const auto& [surface, at] : places->items()) {
                const auto sound = [](const Json& n) {
                    return n.is_number() && std::abs(n.get<double>()) <= kLongestLength.value;
                };
                if (at.is_array() && at.size() == 2 && sound(at[0]) && sound(at[1]))
                    m.places[surface] = {at[0], at[1]};
                else
                    fault(FileFaultKind::OutOfRange, path + ".places." + surface);
            }
        }
        return m;
    }

    /// An amount in the job's currency; nothing if it says none.
    std::optional<Money> money(const Json& entry, const std::string& path, const char* key) {
        double minor = 0;
        if (!number(entry, path, key, 0, static_cast<double>(kMostMinorUnits), minor, false)) return std::nullopt;
        return Money{static_cast<std::int64_t>(minor), currency_};
    }

    Currency currency_;
    std::set<std::string> productIds_, surfaceIds_, boxIds_;
};

Json written(const FieldValues& values) {
    Json out = Json::object();
    for (const auto& [key, value] : values) out[key] = value;
    return out;
}

Json written(const FinishOptions& finish) {
    Json options = Json::array();
    for (const Finish& f : finish.options) {
        Json layers = Json::array();
        for (const Layer& l : f.layers) {
            Json layer{{"product", l.product}, {"rules", written(l.rules)}};
            if (l.bolted) layer["bolted"] = true;
            if (!l.joints.empty()) layer["joints"] = l.joints;
            for (const ReliefCut& r : l.reliefs) layer["reliefs"].push_back({r.from.x, r.from.y, r.to.x, r.to.y});
            for (const Support& b : l.battens) layer["battens"].push_back(written(b));
            if (!l.holders.empty()) layer["holders"] = writtenHolders(l.holders);
            layers.push_back(std::move(layer));
        }
        options.push_back({{"name", f.name}, {"trim", f.trim}, {"layers", std::move(layers)}});
    }
    return options;
}

} // namespace

Result<Job, FileFaults> readJob(const QByteArray& bytes) {
    auto parsed = parsedFile(bytes, "westrum-job", kJobFileVersion);
    if (!parsed) return parsed.error();
    const Json& root = parsed.value();
    const auto version = root.find("version");
    JobReader reader;
    Job job = reader.read(root);
    if (!reader.faults().empty()) return std::move(reader.faults());
    if (version->get<std::int64_t>() < 5) // no trim meant none: no rule chose one
        for (auto& [surface, finishes] : job.finishes)
            for (Finish& f : finishes.options)
                if (f.trim.empty()) f.trim = kNoTrim;
    return job;
}

Result<Job, FileFaults> readJobFile(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly))
        return FileFaults{{FileFaultKind::CannotOpen, {}, file.errorString().toStdString()}};
    // Not trusted to say its size: a device or a pipe says 0.
    return readJob(file.read(kLargestJobFile + 1));
}

namespace {

Json written(const PriceBook& book) {
    Json prices = Json::object();
    for (const Offer& o : book.offers)
        prices["offers"].push_back({{"product", o.product},
                                    {"supplier", o.supplier},
                                    {"size", o.size},
                                    {"priceMinor", o.price.minor},
                                    {"currency", o.price.currency.name()},
                                    {"taxIncluded", o.taxIncluded},
                                    {"tax", o.tax},
                                    {"state", wordOf(kOfferStates, o.state)},
                                    {"lot", wordOf(kLotRules, o.lot)},
                                    {"date", o.date}});
    for (const Supplier& s : book.suppliers) {
        Json entry{{"name", s.name}};
        if (s.delivery) entry["deliveryMinor"] = s.delivery->minor;
        if (s.freeFrom) entry["freeFromMinor"] = s.freeFrom->minor;
        prices["suppliers"].push_back(std::move(entry));
    }
    for (const auto& [code, rate] : book.rates) prices["rates"][code] = rate;
    return prices;
}

Json written(const VanMass& van) {
    Json mass = Json::object();
    putReading(mass, "wheelbase", van.wheelbase);
    putReading(mass, "track", van.track);
    putReading(mass, "rearAxle", van.rearAxle);
    VanMass own = van;
    for (const auto& [key, value] : kgs(own))
        if (*value) mass[key] = **value;
    for (const auto& [surface, at] : van.places) mass["places"][surface] = {at.x, at.y};
    return mass;
}

Json written(const Product& p) {
    Json product{{"id", p.id}, {"family", p.family}, {"name", p.name}, {"supplier", p.supplier}};
    if (p.packPrice) product["packPriceMinor"] = p.packPrice->minor;
    product["fields"] = written(p.fields);
    return product;
}

} // namespace

QByteArray writeJob(const Job& job) {
    Json root{{"format", "westrum-job"},
              {"version", kJobFileVersion},
              {"name", job.name},
              {"vehicle", job.vehicle},
              {"currency", job.currency.name()},
              {"bareUnit", wordOf(kUnits, job.bareUnit)},
              {"shownUnit", wordOf(kUnits, job.shownUnit)},
              {"seed", job.seed},
              {"spoilChance", job.spoilChance},
              {"spreadM2PerMinute", job.spreadM2PerMinute},
              {"closeM2PerMinute", job.closeM2PerMinute},
              {"consumables", job.consumables},
              {"acceptedRisk", job.acceptedRisk},
              {"datum", Json::object()},
              {"headroom", Json::object()},
              {"access", written(job.access)},
              {"surfaces", Json::array()},
              {"catalogue", Json::array()}};
    if (job.symmetricBody) root["symmetricBody"] = true;
    if (!job.bookId.empty()) root["id"] = job.bookId;
    if (!job.before.body.empty()) root["before"] = written(job.before);
    if (job.prices != PriceBook{}) root["prices"] = written(job.prices);
    if (job.budget) root["budgetMinor"] = job.budget->minor;
    for (const auto& [key, b] : job.bought) {
        Json entry{{"packs", b.packs}};
        if (b.paid) entry["paidMinor"] = b.paid->minor;
        if (!b.lot.empty()) entry["lot"] = b.lot;
        root["bought"][key] = std::move(entry);
    }
    for (const auto& [product, n] : job.spares) root["spares"][product] = n;
    for (const AreaTrim& a : job.areaTrims) {
        Json entry{{"meeting", wordOf(kMeetings, a.meeting)}, {"product", a.product}};
        putArea(entry, a.area);
        root["areaTrims"].push_back(std::move(entry));
    }
    for (const ShelfPack& s : job.shelf) {
        Json entry{{"product", s.product}, {"packs", s.packs}};
        if (!s.number.empty()) entry["number"] = s.number;
        root["shelf"].push_back(std::move(entry));
    }
    Json mass = written(job.mass);
    if (!mass.empty()) root["mass"] = std::move(mass);
    for (const Weighing& w : job.weighings)
        root["weighings"].push_back(
            {{"when", w.when}, {"note", w.note}, {"frontKg", w.front}, {"rearKg", w.rear}, {"fittedKg", w.fitted}});
    putReading(root["datum"], "rear", job.datum.rear);
    putReading(root["datum"], "front", job.datum.front);
    for (const ArchBox& b : job.archBoxes) root["archBoxes"].push_back(written(b));
    if (!job.clearances.empty()) root["clearances"] = written(job.clearances);
    if (Json work = written(job.work); !work.empty()) root["work"] = std::move(work);
    if (!job.record.empty()) root["record"] = written(job.record);
    for (const auto& [key, reading] : {std::pair{"rear", &job.headroom.rear},
                                       {"middle", &job.headroom.middle},
                                       {"front", &job.headroom.front},
                                       {"person", &job.headroom.person}})
        putReading(root["headroom"], key, *reading);
    for (const Surface& s : job.surfaces) {
        Json surface = written(s);
        if (const auto f = job.finishes.find(s.id); f != job.finishes.end()) {
            surface["options"] = written(f->second);
            surface["chosen"] = f->second.chosen;
        }
        if (const auto l = job.logs.find(s.id); l != job.logs.end()) surface["log"] = written(l->second);
        root["surfaces"].push_back(std::move(surface));
    }
    for (const Product& p : job.catalogue.products) root["catalogue"].push_back(written(p));
    root["cutLists"] = Json::object();
    for (const auto& [product, list] : job.cutLists)
        if (!list.empty()) root["cutLists"][product] = written(list);
    // Text that is no UTF-8 is written with a replacement character rather than refused.
    return QByteArray::fromStdString(root.dump(1, ' ', false, Json::error_handler_t::replace)) + '\n';
}

std::optional<FileFault> writeFile(const QByteArray& bytes, const QString& path) {
    if (const QFileInfo info(path); info.exists() && !info.isFile())
        return FileFault{FileFaultKind::CannotWrite, {}, "not an ordinary file"};
    QSaveFile file(path);
    file.setDirectWriteFallback(false);
    // Unbuffered: a buffer that cannot be emptied at the end is not told by commit().
    if (!file.open(QIODevice::WriteOnly | QIODevice::Unbuffered) || file.write(bytes) != bytes.size() || !file.commit())
        return FileFault{FileFaultKind::CannotWrite, {}, file.errorString().toStdString()};
    return std::nullopt;
}

std::optional<FileFault> saveJobFile(const Job& job, const QString& path) {
    if (QFile old(path); QFileInfo(path).isFile() && old.open(QIODevice::ReadOnly)) {
        const QByteArray before = old.read(kLargestJobFile + 1);
        if (readJob(before).has_value())
            if (auto fault = writeFile(before, path + QLatin1Char('~'))) return fault;
    }
    return writeFile(writeJob(job), path);
}

} // namespace westrum
