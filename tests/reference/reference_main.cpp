// westrum-reference FILE: computes worked examples through the core's public functions and holds the answers against
// the expectations. Case topics are in the table at the end; a topic not there is named as skipped.
// Exit status: 0 all agree, 1 something disagrees or nothing was run, 2 the file cannot be read.

#include "core/geometry/boolean.h"
#include "core/geometry/net_area.h"
#include "core/measure/developed.h"
#include "core/measure/quad.h"
#include "core/measure/stations.h"
#include "core/measure/two_point.h"
#include "core/setout/plank_floor.h"
#include "core/units/count.h"

#include <nlohmann/json.hpp>

#include <cmath>
#include <cstdio>
#include <fstream>
#include <functional>
#include <map>
#include <set>

using nlohmann::json;
using namespace westrum;

namespace {

double optionalNumber(const json& inputs, const char* key, double byDefault) {
    const auto found = inputs.find(key);
    return found == inputs.end() || found->is_null() ? byDefault : found->get<double>();
}

json points(const auto& corners) {
    json list = json::array();
    for (Point p : corners) list.push_back({p.x, p.y});
    return list;
}

Ring ringOf(const json& list) {
    Ring ring;
    for (const json& p : list) ring.push_back({p.at(0), p.at(1)});
    return ring;
}

json quadFromSides(const json& in) {
    QuadReadings readings;
    constexpr std::array keys{"AB", "BC", "CD", "DA", "AC", "BD"};
    for (std::size_t k = 0; k < keys.size(); ++k)
        if (in.contains(keys[k]) && !in[keys[k]].is_null()) readings.mm[k] = in[keys[k]].get<double>();
    const QuadFit fit = fitQuad(readings);
    if (fit.impossible) return {{"verdict", "impossible"}};
    json got{{"corners_mm", points(fit.corners)}, {"area_m2", fit.area.value}, {"verdict", "ok"}};
    if (readings.has(QuadReading::AC) && readings.has(QuadReading::BD)) {
        got["largest_residual_mm"] = fit.largestResidual;
        const auto misclosure = [&](QuadReading r) {
            const auto& m = fit.misclosure[static_cast<std::size_t>(r)];
            return m ? json(*m) : json(nullptr);
        };
        got["misclosure_AC_mm"] = misclosure(QuadReading::AC);
        got["misclosure_BD_mm"] = misclosure(QuadReading::BD);
        if (fit.largestResidual > optionalNumber(in, "limit_mm", 10)) got["verdict"] = "suspect";
    }
    return got;
}

Ring openingRing(const json& o) {
    if (o.contains("rect")) {
        const json& r = o["rect"];
        return roundedRectangle(r[0], r[1], r[2], r[3], optionalNumber(o, "r", 0));
    }
    if (o.contains("circle")) return circle({o["circle"][0], o["circle"][1]}, o["circle"][2]);
    return ringOf(o.at("polygon"));
}

json polygonNetArea(const json& in) {
    std::vector<Ring> openings;
    for (const json& o : in.at("openings")) openings.push_back(openingRing(o));
    const NetArea net = netAreaOf(ringOf(in.at("outline")), openings);
    std::map<std::string, double> whole, left;
    for (std::size_t k = 0; k < net.edgeLength.size(); ++k) {
        const std::string name = in.at("classes").at(k);
        whole[name] += net.edgeLength[k].value;
        left[name] += net.edgeLeft[k].value;
    }
    return {{"gross_m2", net.grossArea.value},
            {"net_m2", net.netArea.value},
            {"edge_length_by_class_mm", whole},
            {"edge_left_by_class_mm", left},
            {"opening_edge_mm", net.openingEdge.value}};
}

json stationsCase(const json& in) {
    StationCurve upper{in.at("stations_mm").get<std::vector<double>>(), in.at("offsets_mm").get<std::vector<double>>()};
    upper.join = in.value("join", "straight") == "smooth" ? StationJoin::Smooth : StationJoin::Straight;
    double area = areaUnder(upper).value, edge = lengthAlong(upper).value;
    double ends = upper.offset.front() + upper.offset.back();
    const bool both = in.contains("offsets_other_side_mm") && !in["offsets_other_side_mm"].is_null();
    if (both) {
        StationCurve lower = upper;
        lower.offset = in["offsets_other_side_mm"].get<std::vector<double>>();
        area += areaUnder(lower).value;
        edge += lengthAlong(lower).value;
        ends += lower.offset.front() + lower.offset.back();
    }
    const double baseline = both ? 0 : upper.at.back() - upper.at.front();
    return {{"area_m2", area}, {"edge_length_mm", edge}, {"outline_perimeter_mm", edge + ends + baseline}};
}

json twoPointCase(const json& in) {
    std::vector<TwoPointReading> readings;
    std::vector<std::string> ids;
    for (const json& p : in.at("points")) {
        readings.push_back({p.at("a"), p.at("b"), p.value("side", 1) < 0});
        const json& id = p.at("id");
        ids.push_back(id.is_string() ? id.get<std::string>() : id.dump());
    }
    const auto corners = cornersFromTwoPoints(in.at("AB"), readings, optionalNumber(in, "snap_mm", kTapeSnapMm));
    json impossible = json::array(), weak = json::array();
    Ring ring;
    for (std::size_t i = 0; i < corners.size(); ++i) {
        if (corners[i].meeting == TapeMeeting::Impossible) impossible.push_back(in["points"][i]["id"]);
        if (corners[i].meeting == TapeMeeting::Weak) weak.push_back(in["points"][i]["id"]);
        ring.push_back(corners[i].at);
    }
    json got{{"impossible", impossible}, {"weak", weak}};
    if (!impossible.empty()) return got;
    const bool crossed = crossesItself(ring);
    got["points_mm"] = got["corners_mm"] = points(ring);
    got["crossed"] = crossed;
    got["area_m2"] = crossed ? json(nullptr) : json(std::abs(signedArea(ring)) / 1e6);
    got["perimeter_mm"] = crossed ? json(nullptr) : json(perimeter(ring));
    return got;
}

json developedCase(const json& in) {
    std::vector<ProfilePart> profile;
    for (const json& part : in.at("profile"))
        profile.push_back(part.contains("straight") ? ProfilePart{part["straight"], 0}
                                                    : ProfilePart{part.at("chord"), part.at("rise")});
    const Developed d = developed(profile);
    const CurveSide side = in.value("side", "inside") == "outside" ? CurveSide::Outside : CurveSide::Inside;
    const double least = optionalNumber(in, "min_bend_radius_mm", 0);
    return {{"developed_width_mm", d.width.value},
            {"area_m2", areaOf(d.width, {optionalNumber(in, "length_mm", 0)}).value},
            {"smallest_radius_mm", d.leastRadius ? json(d.leastRadius->value) : json(nullptr)},
            {"bend_ok", !d.leastRadius || d.leastRadius->value >= least},
            {"cut_width_mm", cutWidth(profile, {optionalNumber(in, "sheet_thickness_mm", 0)}, side).value},
            {"chord_shortfall_mm", d.chordShortfall.value}};
}

json plankRowsCase(const json& in) {
    const double length = in.at("plank_l_mm");
    const double width = in.at("plank_w_mm");
    const double kerf = optionalNumber(in, "kerf_mm", 0);
    Region floor{{ringOf(in.at("floor"))}};
    if (signedArea(floor.rings.front()) < 0) std::reverse(floor.rings.front().begin(), floor.rings.front().end());
    if (in.value("direction", "x") == "y") floor = transposed(floor);
    const Region net = inset(floor, in.at("gap_mm"));
    const Bounds b = boundsOf(net);
    const double depth = b.height();
    const auto rowCount = static_cast<int>(roundUp(depth / width));
    const double lastIfFull = plankRows(0, depth, width, width).back().width();
    const double equal = equalEdgeRow(depth, width);

    json got{{"net_area_m2", areaMm2(net) / 1e6}, {"depth_mm", depth}};
    got["full_first"] = {{"rows", rowCount}, {"last_mm", lastIfFull}};
    got["equal"] = {{"rows", rowCount}, {"width_mm", equal}, {"start_offset_mm", width - equal}};
    const auto fair = fairFirstRows(depth, width);
    got["third_range_mm"] = fair ? json{fair->least, fair->most} : json(nullptr);

    const std::vector<LaidRun> laid =
        runsOf(net, plankRows(b.low.y, depth, width, optionalNumber(in, "first_row_mm", equal)));
    std::vector<Run> runs;
    std::map<int, json> byRow;
    double sum = 0;
    int simple = 0;
    for (const LaidRun& l : laid) {
        runs.push_back(l.run);
        byRow[l.run.row].push_back({l.run.start, l.run.end()});
        sum += l.run.length;
        simple += l.run.length > length ? static_cast<int>(roundUp(l.run.length / length)) + 1 : 1;
    }
    got["rows"] = json::array();
    for (const auto& [row, segments] : byRow) got["rows"].push_back(segments);
    got["area_bound"] = roundUp(areaMm2(net) / (length * width));
    got["row_bound"] = roundUp(sum / length);
    got["simple_plan"] = simple;
    // One more row than needed, first and last at least a third, both out of one plank.
    const double spare = depth - (rowCount - 1) * width;
    got["strip_fits"] =
        rowCount == 1 ? json(nullptr) : json(2 * width / 3 <= spare + 1e-9 && spare <= width - kerf + 1e-9);
    if (in.contains("stagger_mm") && in.contains("end_min_mm")) {
        RowRules rules{.plankLength = length, .kerf = kerf, .stagger = in["stagger_mm"], .endLeast = in["end_min_mm"]};
        rules.effort = 3'000'000;
        for (const auto& [key, working] :
             {std::pair{"hand_min", Working::AsYouGo}, {"free_min", Working::PlannedAhead}}) {
            rules.working = working;
            const RowPlan plan = planRows(runs, rules);
            got[key] = plan.feasible() ? json(plan.planks) : json(nullptr);
        }
    }
    return got;
}

/// Whether `got` agrees with `want` under the case's tolerance; `key` is the nearest enclosing key.
bool agrees(const json& got, const json& want, const json& tolerance, const std::string& key) {
    if (want.is_object() && want.contains("one_of")) {
        for (const json& choice : want["one_of"])
            if (agrees(got, choice, tolerance, key)) return true;
        return false;
    }
    if (want.is_object()) {
        for (const auto& [k, v] : want.items())
            if (!got.is_object() || !got.contains(k) || !agrees(got[k], v, tolerance, k)) return false;
        return true;
    }
    if (want.is_array()) {
        if (!got.is_array() || got.size() != want.size()) return false;
        for (std::size_t i = 0; i < want.size(); ++i)
            if (!agrees(got[i], want[i], tolerance, key)) return false;
        return true;
    }
    if (!want.is_number()) return got == want;
    if (!got.is_number()) return false;
    const double w = want;
    double absolute = tolerance.value("abs", 0.0);
    if (tolerance.contains("keys") && tolerance["keys"].contains(key)) absolute = tolerance["keys"][key];
    return std::abs(got.get<double>() - w) <= std::max(absolute, tolerance.value("rel", 0.0) * std::abs(w));
}

const std::map<std::string, std::function<json(const json&)>> kTopics{
    {"quad_from_sides", quadFromSides}, {"polygon_net_area", polygonNetArea}, {"plank_rows", plankRowsCase},
    {"stations", stationsCase},         {"two_point", twoPointCase},          {"developed", developedCase}};

} // namespace

int main(int argc, char** argv) {
    if (argc != 2) {
        std::fprintf(stderr, "usage: westrum-reference FILE\n");
        return 2;
    }
    std::ifstream file(argv[1]);
    const json document = json::parse(file, nullptr, false);
    if (document.is_discarded() || !document.is_object() || !document.contains("cases")) {
        std::fprintf(stderr, "%s: no file of worked examples\n", argv[1]);
        return 2;
    }
    int run = 0, disagreeing = 0;
    std::map<std::string, int> skipped;
    for (const json& c : document["cases"]) {
        const std::string topic = c.value("topic", "");
        const auto found = kTopics.find(topic);
        if (found == kTopics.end()) {
            ++skipped[topic];
            continue;
        }
        ++run;
        json got;
        try {
            got = found->second(c.at("inputs"));
        } catch (const json::exception& e) {
            got = std::string("inputs not understood: ") + e.what();
        }
        const bool agree = agrees(got, c.at("expect"), c.value("tolerance", json::object()), "");
        if (!agree) ++disagreeing;
        std::printf("%s %s\n  expected %s\n  got      %s\n", c.value("id", "?").c_str(), agree ? "agrees" : "DISAGREES",
                    c["expect"].dump().c_str(), got.dump().c_str());
    }
    for (const auto& [topic, count] : skipped)
        std::printf("skipped: %s, %d cases (not built yet)\n", topic.c_str(), count);
    std::printf("%d run, %d agree, %d disagree\n", run, run - disagreeing, disagreeing);
    return run == 0 || disagreeing > 0 ? 1 : 0;
}
