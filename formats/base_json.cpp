#include "formats/base_json.h"

#include "core/takeoff/needs.h"

namespace westrum {
namespace {

constexpr FileWords<SupportKind, 2> kSupports{{{SupportKind::Rib, "rib"}, {SupportKind::Batten, "batten"}}};
constexpr FileWords<PackTo, 4> kPackTo{{{PackTo::Nothing, "nothing"},
                                        {PackTo::Plane, "plane"},
                                        {PackTo::EachLine, "each-line"},
                                        {PackTo::Level, "level"}}};
constexpr FileWords<BoxLap, 2> kLaps{{{BoxLap::TopOverAll, "top-over-all"}, {BoxLap::EndsOutside, "ends-outside"}}};
constexpr FileWords<FixedWith, 8> kHeld{{{FixedWith::Screws, "screws"},
                                         {FixedWith::RivetNuts, "rivet-nuts"},
                                         {FixedWith::PanelClips, "panel-clips"},
                                         {FixedWith::HookAndLoop, "hook-and-loop"},
                                         {FixedWith::Staples, "staples"},
                                         {FixedWith::AdhesiveAlone, "adhesive"},
                                         {FixedWith::ExpandingNuts, "expanding-nuts"},
                                         {FixedWith::AsNeeded, "as-needed"}}};
constexpr int kMostInRow = 50, kMostPlaces = 99;
constexpr std::size_t kMostHoles = 500, kMostPieces = 2000;

} // namespace

Support readSupport(JsonWalk& walk, const Json& e, const std::string& at) {
    Support u;
    walk.text(e, at, "name", u.name, false);
    walk.word(e, at, "kind", kSupports, u.kind);
    walk.flag(e, at, "along", u.along);
    u.position = walk.reading(e, at, "position");
    u.width = walk.reading(e, at, "width");
    walk.count(e, at, "count", 1, kMostInRow, u.count);
    u.spacing = walk.reading(e, at, "spacing");
    u.depth = walk.reading(e, at, "depth");
    u.holeFirst = walk.reading(e, at, "holeFirst");
    u.holePitch = walk.reading(e, at, "holePitch");
    walk.each(
        e, at, "holes",
        [&](const Json& h, const std::string& where) {
            if (const MaybeReading r = walk.reading(h, where, "at")) u.holes.push_back(*r);
        },
        false, kMostHoles);
    return u;
}

Json written(const Support& u) {
    Json support{{"name", u.name}, {"kind", wordOf(kSupports, u.kind)}, {"along", u.along}, {"count", u.count}};
    putReading(support, "position", u.position);
    putReading(support, "width", u.width);
    putReading(support, "spacing", u.spacing);
    putReading(support, "depth", u.depth);
    putReading(support, "holeFirst", u.holeFirst);
    putReading(support, "holePitch", u.holePitch);
    for (const Reading& r : u.holes) {
        Json hole = Json::object();
        putReading(hole, "at", r);
        support["holes"].push_back(std::move(hole));
    }
    return support;
}

Packing readPacking(JsonWalk& walk, const Json& entry, const std::string& path) {
    Packing p;
    walk.word(entry, path, "to", kPackTo, p.to, false);
    walk.flag(entry, path, "fromLine", p.fromLine);
    walk.each(
        entry, path, "readings",
        [&](const Json& e, const std::string& at) {
            CrossingReading r;
            walk.count(e, at, "batten", 0, kMostPlaces, r.batten, true);
            walk.count(e, at, "battenInRow", 0, kMostInRow, r.battenInRow);
            walk.count(e, at, "rib", 0, kMostPlaces, r.rib, true);
            walk.count(e, at, "ribInRow", 0, kMostInRow, r.ribInRow);
            walk.count(e, at, "station", 0, kMostInRow, r.station);
            r.reading = walk.reading(e, at, "reading");
            p.readings.push_back(std::move(r));
        },
        false);
    return p;
}

Json written(const Packing& p) {
    Json out{{"to", wordOf(kPackTo, p.to)}, {"fromLine", p.fromLine}};
    for (const CrossingReading& r : p.readings) {
        Json e{{"batten", r.batten}, {"battenInRow", r.battenInRow}, {"rib", r.rib}, {"ribInRow", r.ribInRow}};
        if (r.station > 0) e["station"] = r.station;
        putReading(e, "reading", r.reading);
        out["readings"].push_back(std::move(e));
    }
    return out;
}

ArchBox readArchBox(JsonWalk& walk, const Json& e, const std::string& at, std::set<std::string>& ids) {
    ArchBox b;
    walk.id(e, at, ids, b.id);
    walk.text(e, at, "floor", b.floor, false);
    walk.count(e, at, "notch", 0, kMostPlaces, b.notch);
    walk.text(e, at, "top", b.top, false);
    walk.text(e, at, "face", b.face, false);
    walk.text(e, at, "rearEnd", b.rearEnd, false);
    walk.text(e, at, "frontEnd", b.frontEnd, false);
    b.length = walk.reading(e, at, "length");
    b.height = walk.reading(e, at, "height");
    b.depth = walk.reading(e, at, "depth");
    b.rake = walk.reading(e, at, "rake");
    b.thickness = walk.reading(e, at, "thickness");
    b.scribe = walk.reading(e, at, "scribe");
    walk.word(e, at, "lap", kLaps, b.lap, false);
    walk.text(e, at, "product", b.product, false);
    return b;
}

Json written(const ArchBox& b) {
    Json out{{"id", b.id},          {"floor", b.floor},     {"notch", b.notch},       {"top", b.top},
             {"face", b.face},      {"rearEnd", b.rearEnd}, {"frontEnd", b.frontEnd}, {"lap", wordOf(kLaps, b.lap)},
             {"product", b.product}};
    putReading(out, "length", b.length);
    putReading(out, "height", b.height);
    putReading(out, "depth", b.depth);
    putReading(out, "rake", b.rake);
    putReading(out, "thickness", b.thickness);
    putReading(out, "scribe", b.scribe);
    return out;
}

std::map<std::string, int> readHolders(JsonWalk& walk, const Json& entry, const std::string& path) {
    std::map<std::string, int> holders;
    walk.each(
        entry, path, "holders",
        [&](const Json& e, const std::string& at) {
            std::string piece;
            FixedWith by = FixedWith::AsNeeded;
            walk.text(e, at, "piece", piece);
            walk.word(e, at, "by", kHeld, by);
            holders[piece] = static_cast<int>(by);
        },
        false, kMostPieces);
    return holders;
}

Json writtenHolders(const std::map<std::string, int>& holders) {
    Json out = Json::array();
    for (const auto& [piece, by] : holders)
        out.push_back({{"piece", piece}, {"by", wordOf(kHeld, static_cast<FixedWith>(by))}});
    return out;
}

std::map<OpeningKind, Mm> readClearances(JsonWalk& walk, const Json& entry, const std::string& path) {
    constexpr double kMost = 2000; // mm
    std::map<OpeningKind, Mm> clearances;
    for (const auto& [kind, word] : kOpeningWords) {
        double mm = 0;
        if (walk.number(entry, path, word, 0, kMost, mm, false)) clearances[kind] = {mm};
    }
    return clearances;
}

Json written(const std::map<OpeningKind, Mm>& clearances) {
    Json out = Json::object();
    for (const auto& [kind, mm] : clearances) out[wordOf(kOpeningWords, kind)] = mm.value;
    return out;
}

} // namespace westrum
