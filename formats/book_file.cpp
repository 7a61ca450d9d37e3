#include "formats/book_file.h"

#include "core/units/parse.h"
#include "core/units/print.h"
#include "formats/csv.h"
#include "formats/cut_list_json.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <map>

namespace westrum {
namespace {

struct BookWords {
    Q_DECLARE_TR_FUNCTIONS(BookWords)
};

constexpr std::size_t kMostRows = 100000;
constexpr double kMostMm = 1e6, kMostAmount = 1e6;
constexpr std::size_t kFaultsKept = 100;

constexpr FileWords<RackPiece::State, 4> kStates{{{RackPiece::State::Free, "free"},
                                                  {RackPiece::State::Reserved, "reserved"},
                                                  {RackPiece::State::Cut, "cut"},
                                                  {RackPiece::State::Gone, "gone"}}};

class BookReader : public JsonWalk {
public:
    WorkshopBook read(const Json& root) {
        WorkshopBook book;
        rows(root, "people", [&](const Json& e, const std::string& at) { book.people.push_back(person(e, at)); });
        rows(root, "rack", [&](const Json& e, const std::string& at) { book.rack.push_back(piece(e, at)); });
        rows(root, "packs", [&](const Json& e, const std::string& at) { book.packs.push_back(pack(e, at)); });
        rows(root, "jobs", [&](const Json& e, const std::string& at) { book.jobs.push_back(done(e, at)); });
        rows(root, "prices", [&](const Json& e, const std::string& at) { book.prices.push_back(price(e, at)); });
        rows(root, "bodies", [&](const Json& e, const std::string& at) { book.bodies.push_back(body(e, at)); });
        return book;
    }

private:
    void rows(const Json& root, const char* key, const auto& take) { each(root, "", key, take, false, kMostRows); }

    /// Unique in its list.
    void key(const Json& entry, const std::string& at, const char* name, const char* list, std::string& into) {
        text(entry, at, name, into);
        if (into.empty() || !seen_[list].insert(into).second) fault(FileFaultKind::Duplicate, join(at, name), into);
    }
    CivilDate day(const Json& entry, const std::string& at, const char* name) {
        std::string typed;
        text(entry, at, name, typed);
        const auto date = parseIsoDate(typed);
        if (!date) fault(FileFaultKind::OutOfRange, join(at, name), typed);
        return date.value_or(CivilDate{2000, 1, 1});
    }
    std::optional<Money> money(const Json& entry, const std::string& at, const char* name, bool required) {
        double minor = 0;
        if (!number(entry, at, name, 0, static_cast<double>(kMostMinorUnits), minor, required)) return {};
        std::string code = "EUR";
        text(entry, at, "currency", code, false);
        const auto currency = currencyOf(code);
        if (!currency) fault(FileFaultKind::UnknownWord, join(at, "currency"), code);
        return Money{static_cast<std::int64_t>(std::llround(minor)), currency.value_or(Currency{})};
    }

    void byProduct(const Json& e, const std::string& at, const char* name, double most,
                   std::map<std::string, double>& into) {
        if (const Json* list = objectMember(e, at, name, false))
            for (const auto& [product, figure] : list->items()) {
                const double value = figure.is_number() ? figure.get<double>() : -1;
                if (value > 0 && value <= most)
                    into[product] = value;
                else
                    fault(FileFaultKind::OutOfRange, join(at, name) + "." + product);
            }
    }

    Person person(const Json& e, const std::string& at) {
        Person p;
        key(e, at, "name", "people", p.name);
        flag(e, at, "practised", p.practised);
        double spoil = 0;
        if (number(e, at, "spoilChance", 0, 0.9, spoil, false)) p.spoilChance = spoil;
        if (const Json* hours = objectMember(e, at, "hours", false))
            for (const auto& [family, rate] : hours->items()) {
                HourRate& r = p.hours[family];
                if (!rate.is_object()) {
                    fault(FileFaultKind::WrongType, at + ".hours." + family, "object");
                    continue;
                }
                number(rate, at + ".hours." + family, "perM2", 0, 100, r.perM2);
                number(rate, at + ".hours." + family, "perPiece", 0, 100, r.perPiece);
            }
        byProduct(e, at, "coverage", kMostAmount, p.coverage);
        byProduct(e, at, "waste", 1, p.waste);
        double error = 0;
        if (number(e, at, "readingErrorMm", 0.1, 100, error, false)) p.readingErrorMm = error;
        return p;
    }
    RackPiece piece(const Json& e, const std::string& at) {
        RackPiece p;
        key(e, at, "number", "rack", p.number);
        text(e, at, "product", p.product);
        text(e, at, "name", p.name);
        number(e, at, "lengthMm", 1, kMostMm, p.lengthMm);
        number(e, at, "widthMm", 1, kMostMm, p.widthMm);
        p.shape = readShape(*this, e, at);
        for (const auto& [name, into] : {std::pair{"lot", &p.lot},
                                         {"stands", &p.stands},
                                         {"photograph", &p.photograph},
                                         {"from", &p.from},
                                         {"job", &p.job},
                                         {"jobName", &p.jobName}})
            text(e, at, name, *into, false);
        p.kept = day(e, at, "kept");
        word(e, at, "state", kStates, p.state, false);
        return p;
    }
    KeptPack pack(const Json& e, const std::string& at) {
        KeptPack p;
        key(e, at, "number", "packs", p.number);
        text(e, at, "product", p.product);
        text(e, at, "name", p.name);
        number(e, at, "count", 0, kMostAmount, p.count);
        flag(e, at, "opened", p.opened);
        text(e, at, "lot", p.lot, false);
        text(e, at, "stands", p.stands, false);
        text(e, at, "from", p.from, false);
        text(e, at, "job", p.job, false);
        text(e, at, "jobName", p.jobName, false);
        p.kept = day(e, at, "kept");
        if (member(e, at, "goesOff", false)) p.goesOff = day(e, at, "goesOff");
        return p;
    }
    JobDone done(const Json& e, const std::string& at) {
        JobDone j;
        key(e, at, "id", "jobs", j.id);
        text(e, at, "name", j.name);
        text(e, at, "vehicle", j.vehicle, false);
        j.day = day(e, at, "day");
        number(e, at, "areaM2", 0, kMostAmount, j.areaM2, false);
        number(e, at, "massKg", 0, kMostAmount, j.massKg, false);
        number(e, at, "hoursPlanned", 0, kMostAmount, j.hoursPlanned, false);
        number(e, at, "hoursReally", 0, kMostAmount, j.hoursReally, false);
        number(e, at, "wasteShare", 0, 1, j.wasteShare, false);
        j.cost = money(e, at, "costMinor", false);
        return j;
    }
    PricePaid price(const Json& e, const std::string& at) {
        PricePaid p;
        p.day = day(e, at, "day");
        text(e, at, "product", p.product);
        text(e, at, "name", p.name);
        text(e, at, "supplier", p.supplier, false);
        number(e, at, "packs", 0, kMostAmount, p.packs);
        if (const auto paid = money(e, at, "paidMinor", true)) p.paid = *paid;
        text(e, at, "job", p.job, false);
        return p;
    }
    BodyShape body(const Json& e, const std::string& at) {
        BodyShape b;
        key(e, at, "name", "bodies", b.name);
        b.day = day(e, at, "day");
        count(e, at, "surfaces", 0, 1000, b.surfaces);
        if (const Json* shell = objectMember(e, at, "shell"); shell) b.shell = shell->dump();
        if (!b.shell.empty() && !readJob(QByteArray::fromStdString(b.shell)))
            fault(FileFaultKind::WrongType, at + ".shell", "job");
        return b;
    }

    std::map<std::string, std::set<std::string>> seen_;
};

void put(Json& entry, const char* key, const std::string& text) {
    if (!text.empty()) entry[key] = text;
}

Json written(const Person& p) {
    Json entry{{"name", p.name}};
    if (p.practised) entry["practised"] = true;
    if (p.spoilChance) entry["spoilChance"] = *p.spoilChance;
    for (const auto& [family, rate] : p.hours)
        entry["hours"][family] = {{"perM2", rate.perM2}, {"perPiece", rate.perPiece}};
    for (const auto& [product, m2] : p.coverage) entry["coverage"][product] = m2;
    for (const auto& [product, share] : p.waste) entry["waste"][product] = share;
    if (p.readingErrorMm) entry["readingErrorMm"] = *p.readingErrorMm;
    return entry;
}

Json written(const RackPiece& p) {
    Json entry{{"number", p.number},     {"product", p.product}, {"name", p.name},
               {"lengthMm", p.lengthMm}, {"widthMm", p.widthMm}, {"kept", isoDate(p.kept)}};
    if (!p.shape.empty()) entry["shape"] = written(p.shape.rings);
    put(entry, "lot", p.lot);
    put(entry, "stands", p.stands);
    put(entry, "photograph", p.photograph);
    put(entry, "from", p.from);
    if (p.state != RackPiece::State::Free) entry["state"] = wordOf(kStates, p.state);
    put(entry, "job", p.job);
    put(entry, "jobName", p.jobName);
    return entry;
}

Json written(const KeptPack& p) {
    Json entry{
        {"number", p.number}, {"product", p.product}, {"name", p.name}, {"count", p.count}, {"kept", isoDate(p.kept)}};
    if (p.opened) entry["opened"] = true;
    put(entry, "lot", p.lot);
    put(entry, "stands", p.stands);
    put(entry, "from", p.from);
    if (p.goesOff) entry["goesOff"] = isoDate(*p.goesOff);
    put(entry, "job", p.job);
    put(entry, "jobName", p.jobName);
    return entry;
}

QByteArray cell(const std::string& text) { return csvCell(QString::fromStdString(text)); }
QByteArray cell(const CivilDate& day) { return QByteArray::fromStdString(isoDate(day)); }
QByteArray row(std::initializer_list<QByteArray> cells) {
    QByteArray out;
    for (const QByteArray& c : cells) out += (out.isEmpty() && &c == cells.begin() ? QByteArray() : ";") + c;
    return out + '\n';
}
QByteArray inUnits(const std::optional<Money>& money) {
    if (!money) return {};
    const int decimals = money->currency.decimals;
    return QByteArray::fromStdString(
        printNumber(static_cast<double>(money->minor) / std::pow(10, decimals), decimals, '.', false, true));
}

} // namespace

QByteArray writeBook(const WorkshopBook& book) {
    Json root{{"format", "westrum-book"}, {"version", kBookFileVersion}, {"people", Json::array()},
              {"rack", Json::array()},    {"packs", Json::array()},      {"jobs", Json::array()},
              {"prices", Json::array()},  {"bodies", Json::array()}};
    for (const Person& p : book.people) root["people"].push_back(written(p));
    for (const RackPiece& p : book.rack) root["rack"].push_back(written(p));
    for (const KeptPack& p : book.packs) root["packs"].push_back(written(p));
    for (const JobDone& j : book.jobs) {
        Json entry{{"id", j.id},
                   {"name", j.name},
                   {"vehicle", j.vehicle},
                   {"day", isoDate(j.day)},
                   {"areaM2", j.areaM2},
                   {"massKg", j.massKg},
                   {"hoursPlanned", j.hoursPlanned},
                   {"hoursReally", j.hoursReally},
                   {"wasteShare", j.wasteShare}};
        if (j.cost) entry["costMinor"] = j.cost->minor, entry["currency"] = j.cost->currency.name();
        root["jobs"].push_back(std::move(entry));
    }
    for (const PricePaid& p : book.prices)
        root["prices"].push_back({{"day", isoDate(p.day)},
                                  {"product", p.product},
                                  {"name", p.name},
                                  {"supplier", p.supplier},
                                  {"packs", p.packs},
                                  {"paidMinor", p.paid.minor},
                                  {"currency", p.paid.currency.name()},
                                  {"job", p.job}});
    for (const BodyShape& b : book.bodies)
        root["bodies"].push_back({{"name", b.name},
                                  {"day", isoDate(b.day)},
                                  {"surfaces", b.surfaces},
                                  {"shell", Json::parse(b.shell, nullptr, false)}});
    return QByteArray::fromStdString(root.dump(1, ' ', false, Json::error_handler_t::replace)) + '\n';
}

Result<WorkshopBook, FileFaults> readBook(const QByteArray& bytes) {
    auto parsed = parsedFile(bytes, "westrum-book", kBookFileVersion);
    if (!parsed) return parsed.error();
    BookReader reader;
    WorkshopBook book = reader.read(parsed.value());
    if (!reader.faults().empty()) return std::move(reader.faults());
    return book;
}

std::string shellText(const Job& shell) {
    return Json::parse(writeJob(shell).toStdString()).dump(-1, ' ', false, Json::error_handler_t::replace);
}

std::string shapeAsText(const Region& shape) {
    std::string out;
    for (const Ring& ring : shape.rings) {
        if (!out.empty()) out += " / ";
        for (std::size_t i = 0; i < ring.size(); ++i) {
            char point[64];
            std::snprintf(point, sizeof point, "%s%.10g %.10g", i ? "; " : "", ring[i].x, ring[i].y);
            out += point;
        }
    }
    return out;
}

std::optional<Region> shapeFromText(std::string_view text) {
    constexpr qsizetype kMostCorners = 4000;
    Region shape;
    const QString all = QString::fromUtf8(text.data(), qsizetype(text.size())).trimmed();
    if (all.isEmpty()) return shape;
    for (const QString& part : all.split(QLatin1Char('/'))) {
        Ring ring;
        const QStringList points = part.split(QLatin1Char(';'));
        if (points.size() < 3 || points.size() > kMostCorners) return std::nullopt;
        for (const QString& point : points) {
            const QStringList xy = point.simplified().split(QLatin1Char(' '));
            bool okX = false, okY = false;
            const Point p{xy.value(0).toDouble(&okX), xy.value(1).toDouble(&okY)};
            if (xy.size() != 2 || !okX || !okY || !(std::fabs(p.x) <= kMostMm) || !(std::fabs(p.y) <= kMostMm))
                return std::nullopt;
            ring.push_back(p);
        }
        shape.rings.push_back(std::move(ring));
    }
    return shape;
}

QByteArray rackAsCsv(const std::vector<RackPiece>& rack) {
    QByteArray out = "number;product;length;width;shape;lot;stands;kept;from;state;for\n";
    for (const RackPiece& p : rack)
        out += row({cell(p.number), cell(p.name), csvNumber(p.lengthMm, 1), csvNumber(p.widthMm, 1),
                    cell(shapeAsText(p.shape)), cell(p.lot), cell(p.stands), cell(p.kept), cell(p.from),
                    wordOf(kStates, p.state), cell(p.jobName)});
    return out;
}

QByteArray packsAsCsv(const std::vector<KeptPack>& packs) {
    QByteArray out = "number;product;count;opened;lot;stands;kept;goes off;from\n";
    for (const KeptPack& p : packs)
        out += row({cell(p.number), cell(p.name), csvNumber(p.count, 2), p.opened ? "yes" : "no", cell(p.lot),
                    cell(p.stands), cell(p.kept), p.goesOff ? cell(*p.goesOff) : QByteArray(), cell(p.from)});
    return out;
}

QByteArray pricesAsCsv(const std::vector<PricePaid>& prices) {
    QByteArray out = "day;product;supplier;packs;paid;currency;job\n";
    for (const PricePaid& p : prices)
        out += row({cell(p.day), cell(p.name), cell(p.supplier), csvNumber(p.packs, 2), inUnits(p.paid),
                    QByteArray::fromStdString(p.paid.currency.name()), cell(p.job)});
    return out;
}

QByteArray jobsAsCsv(const std::vector<JobDone>& jobs) {
    QByteArray out = "day;job;vehicle;m2;kg;cost;currency;hours planned;hours really;waste %\n";
    for (const JobDone& j : jobs)
        out += row({cell(j.day), cell(j.name), cell(j.vehicle), csvNumber(j.areaM2, 2), csvNumber(j.massKg, 1),
                    inUnits(j.cost), j.cost ? QByteArray::fromStdString(j.cost->currency.name()) : QByteArray(),
                    csvNumber(j.hoursPlanned, 1), csvNumber(j.hoursReally, 1), csvNumber(j.wasteShare * 100, 1)});
    return out;
}

namespace {

class RackCsv {
public:
    explicit RackCsv(const CivilDate& today) : today_(today) {}
    RackReading read(const QString& all) {
        CsvReader rows(all, csvSeparator(all.section(QLatin1Char('\n'), 0, 0)));
        for (CsvRow row; rows.next(row);) {
            if (columns_.empty()) {
                for (int i = 0; i < row.cells.size(); ++i) columns_.emplace(row.cells[i].toLower(), i);
                if (columns_.contains(QStringLiteral("product")) && columns_.contains(QStringLiteral("length")) &&
                    columns_.contains(QStringLiteral("width")))
                    continue;
                fault(RackLineFault::Kind::NoHeading, row.line);
                break;
            }
            if (reading_.rack.size() >= kMostRows) {
                fault(RackLineFault::Kind::TooMany, row.line);
                break;
            }
            line(row);
        }
        return std::move(reading_);
    }

private:
    void fault(RackLineFault::Kind kind, int line, const QString& text = {}) {
        if (reading_.faults.size() < kFaultsKept) reading_.faults.push_back({kind, line, text});
    }
    [[nodiscard]] QString cell(const CsvRow& row, const char* column) const {
        const auto at = columns_.find(QString::fromLatin1(column));
        return at == columns_.end() ? QString() : row.cells.value(at->second).trimmed();
    }
    void line(const CsvRow& row) {
        RackPiece p;
        p.name = cell(row, "product").toStdString();
        if (p.name.empty()) return fault(RackLineFault::Kind::NoProduct, row.line);
        for (const auto& [column, into] : {std::pair{"length", &p.lengthMm}, {"width", &p.widthMm}}) {
            const auto mm = parseLength(cell(row, column).toStdString(), LengthUnit::Millimetre);
            if (!mm || !(mm.value().value > 0) || mm.value().value > kMostMm)
                return fault(RackLineFault::Kind::BadSize, row.line, cell(row, column));
            *into = mm.value().value;
        }
        const auto shape = shapeFromText(cell(row, "shape").toStdString());
        if (!shape) return fault(RackLineFault::Kind::BadShape, row.line);
        p.shape = *shape;
        const QString kept = cell(row, "kept");
        const auto day = kept.isEmpty() ? std::optional(today_) : parseIsoDate(kept.toStdString());
        if (!day) return fault(RackLineFault::Kind::BadDate, row.line, kept);
        p.kept = *day;
        p.number = cell(row, "number").toStdString();
        p.lot = cell(row, "lot").toStdString();
        p.stands = cell(row, "stands").toStdString();
        p.from = cell(row, "from").toStdString();
        reading_.rack.push_back(std::move(p));
    }

    CivilDate today_;
    std::map<QString, int> columns_;
    RackReading reading_;
};

} // namespace

RackReading readRackCsv(const QByteArray& bytes, const CivilDate& today) {
    if (bytes.size() > kLargestJobFile) return {{}, {{RackLineFault::Kind::TooLarge}}};
    if (bytes.trimmed().isEmpty()) return {{}, {{RackLineFault::Kind::Empty}}};
    return RackCsv(today).read(QString::fromUtf8(bytes));
}

QString sentence(const RackLineFault& f) {
    using enum RackLineFault::Kind;
    const QString line = BookWords::tr("Line %1: ").arg(f.line);
    switch (f.kind) {
    case Empty: return BookWords::tr("The file is empty.");
    case TooLarge: return BookWords::tr("The file is too large for a list of offcuts.");
    case NoHeading: return BookWords::tr("The first line does not name the columns product, length and width.");
    case NoProduct: return line + BookWords::tr("it does not say of which product.");
    case BadSize: return line + BookWords::tr("“%1” is no length of an offcut.").arg(f.text);
    case BadShape: return line + BookWords::tr("its shape cannot be read; it is written 0 0; 600 0; 600 400.");
    case BadDate: return line + BookWords::tr("“%1” is no date; it is written 2027-03-13.").arg(f.text);
    case TooMany: return line + BookWords::tr("more offcuts than can be read; the rest is left out.");
    }
    return {};
}

} // namespace westrum
