#include "formats/job_file.h"

#include "core/catalogue/plank.h"
#include "core/setout/set_out.h"

#include <QFile>
#include <QFileInfo>
#include <QSaveFile>

#include <nlohmann/json.hpp>

#include <array>
#include <cmath>
#include <set>

namespace westrum {
namespace {

using Json = nlohmann::ordered_json;

constexpr int kDeepest = 32;
constexpr std::size_t kMostEntries = 2000;
constexpr std::size_t kMostFaults = 20;
constexpr std::size_t kLongestText = 10000;

template <class Enum, std::size_t N> using Words = std::array<std::pair<Enum, const char*>, N>;

constexpr Words<LengthUnit, 5> kUnits{{{LengthUnit::Millimetre, "mm"},
                                       {LengthUnit::Centimetre, "cm"},
                                       {LengthUnit::Metre, "m"},
                                       {LengthUnit::Inch, "in"},
                                       {LengthUnit::Foot, "ft"}}};
constexpr Words<SurfaceKind, 6> kKinds{{{SurfaceKind::Floor, "floor"},
                                        {SurfaceKind::Ceiling, "ceiling"},
                                        {SurfaceKind::LeftWall, "left-wall"},
                                        {SurfaceKind::RightWall, "right-wall"},
                                        {SurfaceKind::Bulkhead, "bulkhead"},
                                        {SurfaceKind::RearDoors, "rear-doors"}}};
constexpr Words<OutlineForm, 2> kForms{{{OutlineForm::Rectangle, "rectangle"}, {OutlineForm::FourSides, "four-sides"}}};
constexpr Words<int, 4> kSides{{{0, "AB"}, {1, "BC"}, {2, "CD"}, {3, "DA"}}};
constexpr Words<int, 4> kCorners{{{0, "A"}, {1, "B"}, {2, "C"}, {3, "D"}}};

template <class Enum, std::size_t N> const char* wordOf(const Words<Enum, N>& words, Enum value) {
    for (const auto& [v, word] : words)
        if (v == value) return word;
    return words.front().second;
}

/// Depth of nesting, brackets in texts not counted; done before parsing, so that no parser meets the deep.
int nestingOf(const QByteArray& bytes) {
    int depth = 0, deepest = 0;
    bool inText = false;
    for (qsizetype i = 0; i < bytes.size(); ++i) {
        const char c = bytes[i];
        if (inText) {
            if (c == '\\')
                ++i;
            else if (c == '"')
                inText = false;
        } else if (c == '"') {
            inText = true;
        } else if (c == '[' || c == '{') {
            deepest = std::max(deepest, ++depth);
        } else if (c == ']' || c == '}') {
            --depth;
        }
    }
    return deepest;
}

/// Walks a parsed document, checks everything and gathers faults; what is missing or wrong leaves its default.
class JobReader {
public:
    Job read(const Json& root) {
        Job job;
        text(root, "", "name", job.name);
        text(root, "", "vehicle", job.vehicle, false);
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
        each(root, "", "catalogue", [&](const Json& entry, const std::string& path) {
            job.catalogue.products.push_back(product(entry, path));
        });
        each(root, "", "surfaces", [&](const Json& entry, const std::string& path) {
            Surface s = surface(entry, path);
            if (const Json* f = member(entry, path, "finish", false)) job.finishes[s.id] = finish(*f, path + ".finish");
            if (const Json* l = member(entry, path, "log", false)) job.logs[s.id] = log(*l, path + ".log");
            job.surfaces.push_back(std::move(s));
        });
        return job;
    }

    [[nodiscard]] FileFaults& faults() { return faults_; }

private:
    void fault(FileFaultKind kind, const std::string& path, const std::string& detail = {}) {
        if (faults_.size() < kMostFaults) faults_.push_back({kind, path, detail.substr(0, 60)});
    }
    static std::string join(const std::string& path, const char* key) { return path.empty() ? key : path + "." + key; }

    const Json* member(const Json& object, const std::string& path, const char* key, bool required = true) {
        if (!object.is_object()) return nullptr; // said where the object was opened
        const auto found = object.find(key);
        if (found == object.end() || found->is_null()) {
            if (required) fault(FileFaultKind::Missing, join(path, key));
            return nullptr;
        }
        return &*found;
    }

    void text(const Json& object, const std::string& path, const char* key, std::string& into, bool required = true) {
        const Json* value = member(object, path, key, required);
        if (!value) return;
        if (!value->is_string())
            fault(FileFaultKind::WrongType, join(path, key), "text");
        else if (value->get_ref<const std::string&>().size() > kLongestText)
            fault(FileFaultKind::OutOfRange, join(path, key));
        else
            into = value->get<std::string>();
    }

    bool number(const Json& object, const std::string& path, const char* key, double least, double most, double& into,
                bool required = true) {
        const Json* value = member(object, path, key, required);
        if (!value) return false;
        if (!value->is_number()) {
            fault(FileFaultKind::WrongType, join(path, key), "number");
            return false;
        }
        const double n = value->get<double>();
        if (!std::isfinite(n) || n < least || n > most) {
            fault(FileFaultKind::OutOfRange, join(path, key));
            return false;
        }
        into = n;
        return true;
    }

    template <class Enum, std::size_t N>
    void word(const Json& object, const std::string& path, const char* key, const Words<Enum, N>& words, Enum& into) {
        std::string found;
        const std::size_t before = faults_.size();
        text(object, path, key, found);
        if (faults_.size() != before) return;
        for (const auto& [value, w] : words)
            if (found == w) {
                into = value;
                return;
            }
        if (member(object, path, key, false)) fault(FileFaultKind::UnknownWord, join(path, key), found);
    }

    void each(const Json& object, const std::string& path, const char* key, const auto& take, bool required = true) {
        const Json* list = member(object, path, key, required);
        if (!list) return;
        if (!list->is_array()) return fault(FileFaultKind::WrongType, join(path, key), "list");
        if (list->size() > kMostEntries) return fault(FileFaultKind::TooMany, join(path, key));
        std::size_t i = 0;
        for (const Json& entry : *list) {
            const std::string at = join(path, key) + "[" + std::to_string(i++) + "]";
            if (!entry.is_object())
                fault(FileFaultKind::WrongType, at, "object");
            else
                take(entry, at);
        }
    }

    void id(const Json& object, const std::string& path, std::set<std::string>& seen, std::string& into) {
        text(object, path, "id", into);
        if (!into.empty() && !seen.insert(into).second) fault(FileFaultKind::Duplicate, path + ".id", into);
    }

    std::optional<Reading> reading(const Json& object, const std::string& path, const char* key) {
        const Json* value = member(object, path, key, false);
        if (!value) return std::nullopt;
        const std::string at = join(path, key);
        if (!value->is_object()) {
            fault(FileFaultKind::WrongType, at, "object");
            return std::nullopt;
        }
        Reading r;
        text(*value, at, "typed", r.typed, false);
        double mm = 0;
        if (!number(*value, at, "mm", -kLongestLength.value, kLongestLength.value, mm)) return std::nullopt;
        r.length = {mm};
        return r;
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

    Surface surface(const Json& entry, const std::string& path) {
        Surface s;
        id(entry, path, surfaceIds_, s.id);
        text(entry, path, "name", s.name);
        word(entry, path, "kind", kKinds, s.kind);
        const Json* m = member(entry, path, "measurement");
        if (!m) return s;
        const std::string at = path + ".measurement";
        if (!m->is_object()) {
            fault(FileFaultKind::WrongType, at, "object");
            return s;
        }
        word(*m, at, "form", kForms, s.measurement.form);
        if (const Json* readings = member(*m, at, "readings", false)) {
            if (!readings->is_object())
                fault(FileFaultKind::WrongType, at + ".readings", "object");
            else
                for (int k = 0; k < kQuadReadings; ++k)
                    s.measurement.readings[static_cast<std::size_t>(k)] =
                        reading(*readings, at + ".readings", readingKey(static_cast<QuadReading>(k)).c_str());
        }
        each(
            *m, at, "notches",
            [&](const Json& n, const std::string& where) {
                Notch notch;
                text(n, where, "name", notch.name, false);
                word(n, where, "side", kSides, notch.side);
                notch.position = reading(n, where, "position");
                notch.length = reading(n, where, "length");
                notch.depth = reading(n, where, "depth");
                s.measurement.notches.push_back(std::move(notch));
            },
            false);
        each(
            *m, at, "steps",
            [&](const Json& st, const std::string& where) {
                Step step;
                text(st, where, "name", step.name, false);
                word(st, where, "corner", kCorners, step.corner);
                step.along = reading(st, where, "along");
                step.across = reading(st, where, "across");
                s.measurement.steps.push_back(std::move(step));
            },
            false);
        return s;
    }

    Finish finish(const Json& entry, const std::string& path) {
        Finish f;
        if (!entry.is_object()) {
            fault(FileFaultKind::WrongType, path, "object");
            return f;
        }
        text(entry, path, "product", f.product, false);
        text(entry, path, "underlay", f.underlay, false);
        f.rules = fields(entry, path, "rules");
        return f;
    }

    FitLog log(const Json& entry, const std::string& path) {
        FitLog l;
        if (!entry.is_object()) {
            fault(FileFaultKind::WrongType, path, "object");
            return l;
        }
        const auto count = [&](const char* key, std::optional<int>& into) {
            double n = 0;
            if (number(entry, path, key, 0, 100000, n, false)) into = static_cast<int>(n);
        };
        count("opened", l.opened);
        count("spoilt", l.spoilt);
        count("leftOver", l.leftOver);
        double hours = 0;
        if (number(entry, path, "hours", 0, 100000, hours, false)) l.hours = hours;
        double paid = 0;
        if (number(entry, path, "paidMinor", 0, static_cast<double>(kMostMinorUnits), paid, false))
            l.paid = Money{static_cast<std::int64_t>(std::llround(paid)), currency_};
        text(entry, path, "note", l.note, false);
        if (const Json* done = member(entry, path, "done", false)) {
            if (!done->is_array() || done->size() > kMostEntries)
                fault(FileFaultKind::WrongType, path + ".done", "list");
            else
                for (const Json& key : *done)
                    if (key.is_string())
                        l.done.insert(key.get<std::string>());
                    else
                        fault(FileFaultKind::WrongType, path + ".done", "text");
        }
        return l;
    }

    FileFaults faults_;
    Currency currency_;
    std::set<std::string> productIds_, surfaceIds_;
};

Json written(const Reading& r) { return {{"typed", r.typed}, {"mm", r.length.value}}; }

void put(Json& object, const char* key, const std::optional<Reading>& reading) {
    if (reading) object[key] = written(*reading);
}

Json written(const Measurement& m) {
    Json out{{"form", wordOf(kForms, m.form)},
             {"readings", Json::object()},
             {"notches", Json::array()},
             {"steps", Json::array()}};
    for (int k = 0; k < kQuadReadings; ++k)
        put(out["readings"], readingKey(static_cast<QuadReading>(k)).c_str(), m.readings[static_cast<std::size_t>(k)]);
    for (const Notch& n : m.notches) {
        Json notch{{"name", n.name}, {"side", wordOf(kSides, n.side)}};
        put(notch, "position", n.position);
        put(notch, "length", n.length);
        put(notch, "depth", n.depth);
        out["notches"].push_back(std::move(notch));
    }
    for (const Step& s : m.steps) {
        Json step{{"name", s.name}, {"corner", wordOf(kCorners, s.corner)}};
        put(step, "along", s.along);
        put(step, "across", s.across);
        out["steps"].push_back(std::move(step));
    }
    return out;
}

Json written(const FieldValues& values) {
    Json out = Json::object();
    for (const auto& [key, value] : values) out[key] = value;
    return out;
}

Json written(const FitLog& log) {
    Json out = Json::object();
    if (log.opened) out["opened"] = *log.opened;
    if (log.spoilt) out["spoilt"] = *log.spoilt;
    if (log.leftOver) out["leftOver"] = *log.leftOver;
    if (log.hours) out["hours"] = *log.hours;
    if (log.paid) out["paidMinor"] = log.paid->minor;
    if (!log.note.empty()) out["note"] = log.note;
    out["done"] = Json::array();
    for (const std::string& key : log.done) out["done"].push_back(key);
    return out;
}

} // namespace

Result<Job, FileFaults> readJob(const QByteArray& bytes) {
    const auto refuse = [](FileFaultKind kind, std::string detail = {}) {
        return FileFaults{{kind, {}, std::move(detail)}};
    };
    if (bytes.size() > kLargestJobFile) return refuse(FileFaultKind::TooLarge);
    if (bytes.trimmed().isEmpty()) return refuse(FileFaultKind::Empty);
    if (nestingOf(bytes) > kDeepest) return refuse(FileFaultKind::TooDeep);
    Json root;
    try {
        root = Json::parse(bytes.constData(), bytes.constData() + bytes.size());
    } catch (const Json::parse_error& e) {
        return refuse(FileFaultKind::NotJson, std::to_string(e.byte));
    } catch (const Json::exception&) {
        return refuse(FileFaultKind::NotJson, "0");
    }
    if (!root.is_object() || !root.contains("format") || root["format"] != "westrum-job")
        return refuse(FileFaultKind::NotAJob);
    const auto version = root.find("version");
    if (version == root.end() || !version->is_number_integer() || version->get<std::int64_t>() < 1 ||
        version->get<std::int64_t>() > kJobFileVersion)
        return refuse(FileFaultKind::UnknownVersion, version == root.end() ? "-" : version->dump().substr(0, 20));
    JobReader reader;
    Job job = reader.read(root);
    if (!reader.faults().empty()) return std::move(reader.faults());
    return job;
}

Result<Job, FileFaults> readJobFile(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly))
        return FileFaults{{FileFaultKind::CannotOpen, {}, file.errorString().toStdString()}};
    // Not trusted to say its size: a device or a pipe says 0.
    return readJob(file.read(kLargestJobFile + 1));
}

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
              {"surfaces", Json::array()},
              {"catalogue", Json::array()}};
    for (const Surface& s : job.surfaces) {
        Json surface{
            {"id", s.id}, {"name", s.name}, {"kind", wordOf(kKinds, s.kind)}, {"measurement", written(s.measurement)}};
        if (const auto f = job.finishes.find(s.id); f != job.finishes.end())
            surface["finish"] = {
                {"product", f->second.product}, {"underlay", f->second.underlay}, {"rules", written(f->second.rules)}};
        if (const auto l = job.logs.find(s.id); l != job.logs.end()) surface["log"] = written(l->second);
        root["surfaces"].push_back(std::move(surface));
    }
    for (const Product& p : job.catalogue.products) {
        Json product{{"id", p.id}, {"family", p.family}, {"name", p.name}, {"supplier", p.supplier}};
        if (p.packPrice) product["packPriceMinor"] = p.packPrice->minor;
        product["fields"] = written(p.fields);
        root["catalogue"].push_back(std::move(product));
    }
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
            if (const auto fault = writeFile(before, path + QLatin1Char('~'))) return fault;
    }
    return writeFile(writeJob(job), path);
}

} // namespace westrum
