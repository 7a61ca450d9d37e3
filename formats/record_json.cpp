#include "formats/record_json.h"

namespace westrum {
namespace {

constexpr int kDayMinutes = 1440;
constexpr double kMostAmount = 1e6, kMostMm = 1e5;

constexpr FileWords<EntryKind, kEntryKinds> kKinds{{{EntryKind::Note, "note"},
                                                    {EntryKind::StepDone, "step-done"},
                                                    {EntryKind::BrokenOff, "broken-off"},
                                                    {EntryKind::PieceCut, "piece-cut"},
                                                    {EntryKind::PieceSpoilt, "piece-spoilt"},
                                                    {EntryKind::OffcutKept, "offcut-kept"},
                                                    {EntryKind::Opened, "opened"},
                                                    {EntryKind::Emptied, "emptied"},
                                                    {EntryKind::LeftOver, "left-over"},
                                                    {EntryKind::Delivery, "delivery"},
                                                    {EntryKind::Climate, "climate"},
                                                    {EntryKind::Weighed, "weighed"},
                                                    {EntryKind::Photograph, "photograph"},
                                                    {EntryKind::Difference, "difference"},
                                                    {EntryKind::ThrownAway, "thrown-away"}}};
constexpr FileWords<SpoilReason, kSpoilReasons> kReasons{{{SpoilReason::Other, "other"},
                                                          {SpoilReason::WrongSide, "wrong-side"},
                                                          {SpoilReason::Mismeasured, "mismeasured"},
                                                          {SpoilReason::Split, "split"},
                                                          {SpoilReason::Chipped, "chipped"}}};

/// Four points, or a fault.
void readLaid(JsonWalk& walk, const Json& list, const std::string& path, std::vector<Point>& into) {
    if (!list.is_array() || list.size() != 4) return walk.fault(FileFaultKind::WrongType, path, "list of four points");
    std::vector<Point> points;
    for (const Json& p : list) {
        if (!p.is_array() || p.size() != 2 || !p[0].is_number() || !p[1].is_number())
            return walk.fault(FileFaultKind::WrongType, path, "list of x and y");
        const Point point{p[0].get<double>(), p[1].get<double>()};
        if (!(std::fabs(point.x) <= kMostMm) || !(std::fabs(point.y) <= kMostMm))
            return walk.fault(FileFaultKind::OutOfRange, path);
        points.push_back(point);
    }
    into = std::move(points);
}

} // namespace

Record readRecord(JsonWalk& walk, const Json& root, const char* key) {
    Record record;
    std::set<std::int64_t> ids;
    walk.each(
        root, "", key,
        [&](const Json& entry, const std::string& at) {
            RecordEntry e;
            double id = 0;
            const std::size_t faults = walk.faults().size();
            walk.number(entry, at, "id", 1, 1e15, id);
            e.id = static_cast<std::int64_t>(id);
            walk.word(entry, at, "kind", kKinds, e.kind);
            std::string day;
            walk.text(entry, at, "day", day);
            const auto date = parseIsoDate(day);
            if (!date && walk.faults().size() == faults) walk.fault(FileFaultKind::OutOfRange, at + ".day", day);
            walk.count(entry, at, "from", 0, kDayMinutes, e.when.from);
            e.when.to = e.when.from;
            walk.count(entry, at, "to", 0, 2 * kDayMinutes, e.when.to);
            if (e.when.to < e.when.from) walk.fault(FileFaultKind::OutOfRange, at + ".to");
            walk.text(entry, at, "surface", e.surface, false);
            walk.text(entry, at, "step", e.step, false);
            walk.text(entry, at, "piece", e.piece, false);
            walk.text(entry, at, "product", e.product, false);
            walk.number(entry, at, "amount", 0, kMostAmount, e.amount, false);
            walk.number(entry, at, "planned", 0, kMostAmount, e.planned, false);
            walk.word(entry, at, "reason", kReasons, e.reason, false);
            walk.text(entry, at, "lot", e.lot, false);
            double value = 0;
            if (walk.number(entry, at, "degC", -60, 90, value, false)) e.degC = value;
            if (walk.number(entry, at, "humidity", 0, 100, value, false)) e.humidity = value;
            walk.number(entry, at, "byMm", -kMostMm, kMostMm, e.by.value, false);
            walk.text(entry, at, "text", e.text, false);
            if (const Json* laid = walk.member(entry, at, "laid", false)) readLaid(walk, *laid, at + ".laid", e.laid);
            if (walk.faults().size() != faults) return;
            e.when.day = *date;
            if (ids.insert(e.id).second)
                record.push_back(std::move(e));
            else
                walk.fault(FileFaultKind::OutOfRange, at + ".id");
        },
        false, kMostRecordEntries);
    return record;
}

Json written(const Record& record) {
    Json list = Json::array();
    for (const RecordEntry& e : record) {
        Json entry{{"id", e.id}, {"kind", wordOf(kKinds, e.kind)}, {"day", isoDate(e.when.day)}, {"from", e.when.from}};
        if (e.when.to != e.when.from) entry["to"] = e.when.to;
        for (const auto& [key, text] : {std::pair{"surface", &e.surface},
                                        {"step", &e.step},
                                        {"piece", &e.piece},
                                        {"product", &e.product},
                                        {"lot", &e.lot},
                                        {"text", &e.text}})
            if (!text->empty()) entry[key] = *text;
        if (e.amount != 0) entry["amount"] = e.amount;
        if (e.planned != 0) entry["planned"] = e.planned;
        if (e.reason != SpoilReason::Other) entry["reason"] = wordOf(kReasons, e.reason);
        if (e.degC) entry["degC"] = *e.degC;
        if (e.humidity) entry["humidity"] = *e.humidity;
        if (e.by.value != 0) entry["byMm"] = e.by.value;
        for (const Point& p : e.laid) entry["laid"].push_back({p.x, p.y});
        list.push_back(std::move(entry));
    }
    return list;
}

} // namespace westrum
