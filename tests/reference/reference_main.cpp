// westrum-reference FILE: computes worked examples through the core's public functions and holds the answers against
// the expectations. Case topics are in the table at the end; a topic not there is named as skipped.
// Exit status: 0 all agree, 1 something disagrees or nothing was run, 2 the file cannot be read.

#include "core/buildup/packing.h"
#include "core/buildup/stack_up.h"
#include "core/buying/cost_shares.h"
#include "core/buying/need_odds.h"
#include "core/buying/pack_sizes.h"
#include "core/buying/purchase.h"
#include "core/cutting/shapes.h"
#include "core/families/family.h"
#include "core/geometry/boolean.h"
#include "core/geometry/net_area.h"
#include "core/measure/developed.h"
#include "core/measure/quad.h"
#include "core/measure/stations.h"
#include "core/measure/two_point.h"
#include "core/schedule/daylight.h"
#include "core/setout/board_cladding.h"
#include "core/setout/cushion.h"
#include "core/setout/plank_floor.h"
#include "core/setout/saw_setting.h"
#include "core/setout/tiling.h"
#include "core/shell/arch_box.h"
#include "core/takeoff/bonding.h"
#include "core/takeoff/fixings.h"
#include "core/takeoff/mass_balance.h"
#include "core/units/count.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <fstream>
#include <functional>
#include <map>
#include <numbers>
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

std::vector<StockLength> stockOf(const json& list) {
    std::vector<StockLength> lengths;
    for (const json& s : list) lengths.push_back({{s.at(0).get<double>()}, s.at(1).get<std::int64_t>()});
    return lengths;
}

json boardsCase(const json& in) {
    const std::string kind = in.at("kind");
    if (kind == "widths") {
        const Board board{.length = {}, .overall = {in.at("overall_mm")}, .cover = {in.at("cover_mm")}};
        const double cover = board.cover.value;
        const double width = in.at("developed_mm").get<double>() - 2 * optionalNumber(in, "edge_gap_mm", 0);
        const auto centred = [&](bool onBoard) {
            const EdgeBoards e = edgeBoards(width, cover, centredPhase(width / 2, cover, onBoard));
            const auto rip = [&](bool tongueSide) {
                const Mm r = ripWidth(e.first, board, tongueSide);
                return r.value > 0 ? r.value : board.overall.value;
            };
            return json{{"rows", e.rows},
                        {"edge_visible_mm", e.first.value},
                        {"rip_tongue_side_mm", rip(true)},
                        {"rip_groove_side_mm", rip(false)}};
        };
        const EdgeBoards fromEdge = edgeBoards(width, cover, 0);
        const json onBoard = centred(true), onJoint = centred(false);
        return {
            {"net_mm", width},
            {"from_edge", {{"rows", fromEdge.rows}, {"last_visible_mm", fromEdge.last.value}}},
            {"board_centred", onBoard},
            {"joint_centred", onJoint},
            {"better", onBoard["edge_visible_mm"] > onJoint["edge_visible_mm"] ? "board_centred" : "joint_centred"}};
    }
    if (kind == "taper") {
        const int n = in.at("n");
        const Taper t = taperOver(in.at("d0_mm"), in.at("d1_mm"), in.at("cover_mm"), n, in.at("min_visible_mm"));
        return {{"rows", t.rows},
                {"visible_end0_mm", t.atWide.value},
                {"visible_end1_mm", t.atNarrow.value},
                {"ok", t.fair},
                {"least_n", t.leastBoards ? json(*t.leastBoards) : json(nullptr)}};
    }
    JointRules rules;
    rules.lengths = stockOf(in.at("stock"));
    rules.supports = in.at("battens_mm").get<std::vector<double>>();
    rules.kerf = in.at("kerf_mm");
    rules.staggerBays = static_cast<int>(optionalNumber(in, "stagger_bays", 1));
    rules.mostJoints = static_cast<int>(optionalNumber(in, "max_joints", 1));
    rules.effort = 200000;
    std::vector<Run> runs;
    for (int r = 0; r < in.at("rows").get<int>(); ++r) runs.push_back({r, 0, in.at("run_mm")});
    json got{{"full_min_cost", nullptr}, {"jointed_min_cost", nullptr}};
    JointPlan full = planJoints(runs, rules);
    if (full.longerThanStock.empty()) {
        rules.supports.clear();
        rules.jointing = Jointing::FewestBoards; // without supports: whole boards, cut at least cost
        full = planJoints(runs, rules);
        got["full_min_cost"] = full.cost;
        rules.supports = in.at("battens_mm").get<std::vector<double>>();
    }
    rules.jointing = Jointing::FewestBoards;
    const JointPlan joined = planJoints(runs, rules);
    if (joined.offSupport == 0 && joined.inLine == 0 && joined.cost == joined.leastCost)
        got["jointed_min_cost"] = joined.cost;
    return got;
}

json tilesCase(const json& in) {
    const std::string kind = in.at("kind");
    if (kind == "grout") {
        const Mm a{in.at("a_mm")}, b{in.at("b_mm")}, joint{in.at("joint_mm")}, depth{in.at("depth_mm")};
        const double kg = in.at("area_m2").get<double>() * in.at("rate_kg_m2").get<double>() *
                          (1 + optionalNumber(in, "back_butter", 0));
        return {{"grout_formula_kg_m2", groutByFormulaKgPerM2(a, b, joint, depth, in.at("density"))},
                {"grout_exact_kg_m2", groutKgPerM2(a, b, joint, depth, in.at("density"))},
                {"adhesive_kg", kg},
                {"bags", roundUp(kg / in.at("bag_kg").get<double>())}};
    }
    // Through the set-out itself, as a wall is tiled.
    const Tile tile{.width = {in.at("a_mm")}, .height = {in.at("b_mm")}, .thickness = {6}, .perPack = 1};
    TileRules rules;
    rules.joint = {in.at("joint_mm")};
    rules.gap = {optionalNumber(in, "edge_gap_mm", 0)};
    rules.centre = CentreRule::Surface;
    SetOutRequest wall;
    const auto whole = [](const SetOut& s) {
        return std::count_if(s.pieces.begin(), s.pieces.end(),
                             [](const Piece& p) { return p.kind == PieceKind::Whole; });
    };
    if (kind == "polygon") {
        std::vector<Ring> openings;
        if (in.contains("openings"))
            for (const json& o : in["openings"]) openings.push_back(openingRing(o));
        wall.outline = {{ringOf(in.at("outline"))}};
        if (!openings.empty()) wall.outline = difference(wall.outline, unionOf(openings));
        // A joint of the rows lies half a joint under the origin; the columns go on from what lies left of it.
        const double x = in.at("origin_mm").at(0), y = in.at("origin_mm").at(1).get<double>() - rules.joint.value / 2;
        rules.startX = rules.startY = TileStart::RunsOn;
        wall.runsOnFrom = boundsOf(wall.outline).low.x - x;
        wall.datum = DatumLine{{0, y}, {1, y}};
        rules.bond = optionalNumber(in, "bond", 0) > 0 ? Bond::Half : Bond::Grid;
        const SetOut s = setOutTiles(wall, tile, rules);
        const auto full = whole(s), all = static_cast<std::ptrdiff_t>(s.pieces.size());
        return {{"net_m2", areaMm2(s.net) / 1e6}, {"full", full}, {"cut", all - full}, {"tiles_no_reuse", all}};
    }
    wall.outline = {{rectangle(0, 0, in.at("w_mm"), in.at("h_mm"))}};
    json got;
    for (const bool x : {true, false}) {
        TileStart& start = x ? rules.startX : rules.startY;
        double edge[2] = {0, 0};
        json shown[2];
        for (const bool joint : {false, true}) {
            start = joint ? TileStart::JointCentred : TileStart::TileCentred;
            const SetOut s = setOutTiles(wall, tile, rules);
            const double size = (x ? tile.width : tile.height).value;
            edge[joint] = (x ? s.firstColumn : s.firstRow).value;
            const bool cut = edge[joint] < size - 1e-6;
            const auto across =
                x ? std::count_if(s.pieces.begin(), s.pieces.end(), [](const Piece& p) { return p.row == 0; })
                  : static_cast<std::ptrdiff_t>(s.rows.size());
            shown[joint] = {{"full", across - (cut ? 2 : 0)}, {"cut_mm", cut ? edge[joint] : 0}};
        }
        const bool onTile = edge[0] >= edge[1];
        start = onTile ? TileStart::TileCentred : TileStart::JointCentred;
        got[x ? "x" : "y"] = {{"tile", shown[0]}, {"joint", shown[1]}, {"better", onTile ? "tile" : "joint"}};
    }
    const SetOut s = setOutTiles(wall, tile, rules);
    got["full"] = whole(s);
    got["total"] = s.pieces.size();
    got["cut"] = static_cast<std::ptrdiff_t>(s.pieces.size()) - whole(s);
    return got;
}

json stackUpCase(const json& in) {
    const auto layers = [&](const char* key) {
        std::vector<StackLayer> list;
        for (const json& l : in.at(key))
            list.push_back({.thickness = {l.at("t")},
                            .tolerance = {l.value("tol", 0.0)},
                            .squash = l.value("squash", 0.0),
                            .bolted = l.value("bolt", false)});
        return stackOf(list, {});
    };
    const Stack floor = layers("floor"), ceiling = layers("ceiling");
    std::vector<Mm> heights;
    for (const json& h : in.at("heights_mm")) heights.push_back({h.get<double>()});
    const HeadroomLeft left = headroomLeft(heights, floor, ceiling, Mm{in.at("person_mm")}, Mm{in.at("clear_mm")});
    const ThresholdStep step = thresholdStep(floor, {in.at("sill_mm")}, {in.at("step_limit_mm")},
                                             in.at("ramp_deg").get<double>() * std::numbers::pi / 180);
    return {{"floor_mm", floor.total.value},      {"ceiling_mm", ceiling.total.value},
            {"head_mm", left.head.value},         {"head_worst_mm", left.worst.value},
            {"head_rss_mm", left.probable.value}, {"tall_ok", *left.standsUpright},
            {"step_mm", step.step.value},         {"needs_transition", step.needsTransition},
            {"ramp_run_mm", step.rampRun.value},  {"grip_mm", floor.grip.value + in.at("bolt_extra_mm").get<double>()}};
}

json fixingsCase(const json& in) {
    const std::string kind = in.at("kind");
    const auto lengths = [&] {
        std::vector<Mm> list;
        for (const json& l : in.at("lengths")) list.push_back({l.get<double>()});
        return list;
    };
    if (kind == "run") {
        const RunFixings f = fixingsAlong({in.at("length_mm")}, {in.at("end_mm")}, {in.at("spacing_mm")});
        return {{"count", f.count}, {"spacing_mm", f.spacing ? json(f.spacing->value) : json(nullptr)}};
    }
    if (kind == "bolt") {
        std::vector<StackLayer> through;
        for (const json& l : in.at("layers_mm"))
            through.push_back({.thickness = {l.get<double>()}, .tolerance = {}, .bolted = true});
        const Mm grip = stackOf(through, {}).grip;
        const BoltLength b = boltLength(grip, Mm{in.at("washer_mm")} * in.at("washers").get<double>(),
                                        {in.at("nut_mm")}, {in.at("protrude_mm")}, lengths());
        return {{"grip_mm", grip.value},
                {"needed_mm", b.needed.value},
                {"length_mm", b.length ? json(b.length->value) : json(nullptr)}};
    }
    if (kind == "screw") {
        const ScrewLength s =
            screwLength({in.at("lining_mm")}, {in.at("batten_mm")}, {in.at("bite_mm")}, {in.at("clear_mm")}, lengths());
        return {{"min_mm", s.least.value},
                {"max_mm", s.most.value},
                {"length_mm", s.length ? json(s.length->value) : json(nullptr)}};
    }
    std::vector<SupportLine> battens;
    for (const json& x : in.at("battens_x_mm")) battens.push_back({.at = x.get<double>()});
    const PanelFixings f = fixingsOfPanel({{ringOf(in.at("outline"))}}, {in.at("inset_mm")}, {in.at("edge_mm")},
                                          battens, {in.at("field_mm")});
    json spacing = json::array();
    for (const Mm s : f.edgeSpacing) spacing.push_back(s.value);
    return {{"edge_count", f.edge}, {"edge_spacing_mm", spacing}, {"field_count", f.field}, {"total", f.total()}};
}

/// Through the set-out's own figure where the tile is as it is sold; a depth and a density of one's own by its parts.
json groutCase(const json& in) {
    const json tile = in.contains("chip_mm") && !in["chip_mm"].is_null() ? in["chip_mm"] : in.at("tile_mm");
    const Mm length{tile.at(0)}, width{tile.at(1)}, joint{in.at("joint_mm")};
    const Mm depth{optionalNumber(in, "depth_mm", in.at("thick_mm"))};
    const double area = in.at("area_m2"), more = 1 + optionalNumber(in, "waste", 0), density = in.at("density");
    json got{{"share", groutKgPerM2(length, width, joint, {1}, 1)},
             {"grout_kg", area * groutKgPerM2(length, width, joint, depth, density) * more}};
    if (in.contains("bed_mm"))
        got["adhesive_kg"] = area * in["bed_mm"].get<double>() * in.at("bed_density").get<double>() * more;
    return got;
}

json edgeRunsCase(const json& in) {
    const double degrees = optionalNumber(in, "smooth_deg", 20);
    const auto runs = edgeRuns(ringOf(in.at("outline")), degrees * std::numbers::pi / 180);
    json lengths = json::array();
    for (const EdgeRun& r : runs) lengths.push_back(r.length.value);
    return {{"count", fixingsRound(runs, {in.at("spacing_mm")})}, {"runs", runs.size()}, {"lengths_mm", lengths}};
}

/// A rectangle as a surface, and a product of cloth or foam as large as is wanted.
SetOut upholstered(const char* family, double l, double w, FieldValues product, FieldValues rules, Mm foam, Mm board) {
    SetOutRequest r;
    r.outline = {{rectangle(0, 0, l, w)}};
    r.product = {.id = family, .family = family, .name = family};
    r.product.fields = std::move(product);
    rules["gap"] = 0;
    r.cover = rules;
    r.rules = std::move(rules);
    r.foamThickness = foam;
    r.boardThickness = board;
    return findFamily(family)->setOut(r, {});
}

json boltCase(const json& in) {
    ShapesProblem p;
    const double selvedge = optionalNumber(in, "selvedge_mm", 0);
    p.widthMm = in.at("bolt_mm").get<double>() - 2 * selvedge;
    const double repeat = optionalNumber(in, "repeat_mm", 0);
    p.repeat = {repeat, 0, {}};
    std::set<int> matched;
    if (in.contains("match"))
        for (const json& m : in["match"]) matched.insert(m.get<int>());
    const bool nap = in.value("nap", false) || repeat > 0;
    double area = 0;
    for (std::size_t i = 0; i < in.at("pieces").size(); ++i) {
        const double across = in["pieces"][i].at(0), along = in["pieces"][i].at(1);
        ShapePiece piece;
        piece.outline = rectangle(0, 0, along, across);
        if (!nap) piece.rotationsRad = {0, std::numbers::pi / 2};
        piece.offPattern = !matched.contains(static_cast<int>(i));
        area += across * along;
        p.pieces.push_back(std::move(piece));
    }
    json got{{"usable_mm", p.widthMm}, {"area_bound_mm", area / p.widthMm}, {"least_run_mm", nullptr}};
    if (faultsOf(p).empty()) got["least_run_mm"] = placeShapes(p, {.seed = 1, .iterations = 60000}).lengthMm;
    return got;
}

json cushionCase(const json& in) {
    const std::string kind = in.at("kind");
    if (kind == "bolt") return boltCase(in);
    const auto size = [](const Region& r) {
        const Bounds b = boundsOf(r);
        return json{b.width(), b.height()};
    };
    if (kind == "wrapped") {
        const double a = in.at("a_mm"), b = in.at("b_mm");
        const SetOut s =
            upholstered("cloth", a, b, {{"rollWidth", 4000}}, {{"style", 2}, {"turnUnder", in.at("turn_mm")}},
                        {in.at("foam_mm")}, {in.at("board_mm")});
        const SetOut foam = upholstered("foam", a, b, {{"length", 6000}, {"width", 4000}}, {{"style", 2}}, {}, {});
        if (!s.laid()) return {{"verdict", "not laid"}};
        json got{{"fabric_mm", size(s.pieces[0].cut)}, {"fabric_m2", areaMm2(s.pieces[0].cut) / 1e6}};
        if (foam.laid()) got["foam_mm"] = size(foam.pieces[0].cut);
        return got;
    }
    const double l = in.at("l_mm"), w = in.at("w_mm"), h = in.at("h_mm");
    const Mm seam{in.at("seam_mm")}, usable{in.at("usable_mm")}, cord{in.at("cord_mm")};
    const FieldValues rules{{"seam", seam.value},
                            {"zipAllowance", in.at("zip_mm")},
                            {"ease", in.at("ease_mm")},
                            {"easeHeight", optionalNumber(in, "ease_h_mm", 0)},
                            {"cord", cord.value},
                            {"overlap", in.at("overlap_mm")},
                            {"piping", 1}};
    const SetOut s = upholstered("cloth", l, w, {{"rollWidth", usable.value + 0}, {"selvedge", 0}}, rules,
                                 {h + optionalNumber(in, "ease_h_mm", 0)}, {});
    const SetOut foam = upholstered(
        "foam", l, w, {{"length", 6000}, {"width", 4000}, {"thickness", h + optionalNumber(in, "ease_h_mm", 0)}}, rules,
        {}, {});
    json got;
    const auto piece = [&](const std::string& name) {
        for (const Piece& p : s.pieces)
            if (p.name == name) return size(p.cut);
        return json(nullptr);
    };
    got["top"] = piece("1 top");
    got["front"] = piece("1 border 1"); // along the lower side
    const json side = piece("1 border 2");
    got["side"] = json{side.at(1), side.at(0)}; // it stands upright beside the top
    got["zip_strip"] = piece("1 zip a");
    const Bounds f = boundsOf(foam.pieces[0].cut);
    got["foam"] = json{f.width(), f.height(), foam.cushionHeight.value};
    got["foam_m2"] = areaMm2(foam.pieces[0].cut) / 1e6;
    Mm piping;
    for (const Sundry& each : s.sundries)
        if (each.kind == SundryKind::PipingCord) piping = {each.amount};
    got["piping_mm"] = piping.value;
    const Mm width = pipingStripWidth(cord, seam);
    got["strip_width_mm"] = width.value;
    const PipingStrips straight = straightStrips(piping, width, usable, seam),
                       bias = biasStrips(piping, width, usable, seam);
    got["straight_strips"] = straight.strips;
    got["straight_run_mm"] = straight.run.value;
    got["bias_strips"] = bias.strips;
    got["bias_run_mm"] = bias.run.value;
    return got;
}

json mitreCase(const json& in) {
    const double degree = std::numbers::pi / 180;
    const std::string kind = in.at("kind");
    if (kind == "plain") return {{"each_deg", plainMitre(in.at("plan_deg").get<double>() * degree) / degree}};
    if (kind == "filler") {
        std::vector<Mm> at;
        for (const json& x : in.at("at_mm")) at.push_back({x.get<double>()});
        const Filler f = taperedFiller({in.at("length_mm")}, {in.at("gap0_mm")}, {in.at("gap1_mm")}, at);
        json widths = json::array();
        for (const Mm w : f.wide) widths.push_back(w.value);
        return {{"rip_deg", f.ripRad / degree},
                {"cut_edge_mm", f.cutEdge.value},
                {"widths_mm", widths},
                {"offcut_m2", f.offcut.value}};
    }
    const bool leansIn = in.value("lean", "in") == "in";
    const auto tilt = [&](double deg) { return (leansIn ? deg : 180 - deg) * degree; };
    const double one = in.at("tilt1_deg");
    const CornerSetting c = compoundMitre(
        {in.at("plan_deg").get<double>() * degree, tilt(one), tilt(optionalNumber(in, "tilt2_deg", one))});
    const auto edge = [](LongEdge e) {
        return e == LongEdge::Equal ? "equal" : e == LongEdge::Bottom ? "bottom" : "top";
    };
    return {{"mitre1_deg", c.first.mitreRad / degree},
            {"bevel1_deg", c.first.bevelRad / degree},
            {"long_edge1", edge(c.first.longEdge)},
            {"mitre2_deg", c.second.mitreRad / degree},
            {"bevel2_deg", c.second.bevelRad / degree},
            {"long_edge2", edge(c.second.longEdge)},
            {"width_ratio", c.widthRatio ? json(*c.widthRatio) : json(nullptr)}};
}

json adhesiveCase(const json& in) {
    std::vector<GluedFace> faces;
    int coats = 0;
    for (const json& f : in.at("faces")) {
        faces.push_back({f.at("rate_g_m2").get<double>() / 1000, f.at("coats"), f.at("factor")});
        coats += faces.back().coats;
    }
    const M2 area{in.at("area_m2")};
    const Kg need = adhesiveFor(area, faces, in.at("waste"));
    const json& close = in.at("close_m2_min");
    const auto bays = baysFor(area, coats,
                              {.spreadM2PerMinute = in.at("spread_m2_min"),
                               .closeM2PerMinute = close.is_null() ? std::nullopt : std::optional(close.get<double>()),
                               .openMinutes = in.at("open_min"),
                               .flashMinutes = in.at("flash_min")});
    const auto known = [&](auto value) { return bays ? json(value(*bays)) : json(nullptr); };
    return {{"need_kg", need.value},
            {"containers", roundUp(need.value / in.at("container_kg").get<double>())},
            {"max_bay_m2", known([](const Bays& b) { return b.largest.value; })},
            {"bays", known([](const Bays& b) { return b.count; })},
            {"bay_m2", known([](const Bays& b) { return b.each.value; })},
            {"bay_minutes", known([](const Bays& b) { return b.minutes; })}};
}

json coatingCase(const json& in) {
    const double litres = litresFor({in.at("area_m2")}, in.at("coverage").get<std::vector<double>>(), in.at("waste"));
    std::vector<PackSize> tins;
    for (const json& t : in.at("tins")) tins.push_back({t.at(0), t.at(1)});
    const PackChoice c = leastCostPacks(litres, tins).value_or(PackChoice{});
    return {{"need_l", litres}, {"min_cost_cents", c.costMinor}, {"best_litres", c.amount}, {"best_tins", c.packs()}};
}

json oddsCase(const json& in) {
    constexpr double kAccepted = 0.05;
    const int perPack = in.at("per_pack"), cuts = in.at("cuts");
    const double spoil = in.at("p");
    std::function<double(int)> risk;
    std::optional<NeedOdds> odds;
    if (in.at("kind") == "binomial") {
        risk = [&](int packs) { return chanceOfRunningShort(in.at("planks"), cuts, packs * perPack, spoil); };
    } else {
        Dice dice(1);
        std::vector<double> needs;
        for (int k = 0; k < 200000; ++k) {
            double area = 0;
            for (const json& s : in.at("surfaces"))
                area += (s.at(0).get<double>() + offByChance(dice, in.at("sigma_mm"))) *
                        (s.at(1).get<double>() + offByChance(dice, in.at("sigma_mm")));
            area *= 1 + in.at("waste").get<double>();
            needs.push_back(static_cast<double>(
                                roundUp(area / in.at("plank_l_mm").get<double>() / in.at("plank_w_mm").get<double>())) +
                            spoiledTries(dice, cuts, spoil));
        }
        odds.emplace(std::move(needs));
        risk = [&](int packs) { return odds->chanceShort(packs * perPack); };
    }
    json risks = json::array();
    for (const json& packs : in.at("packs")) risks.push_back(risk(packs));
    int least = 1;
    while (risk(least) > kAccepted) ++least;
    return {{"risk", risks}, {"least_packs", least}};
}

json shareCase(const json& in) {
    const auto names = in.at("surfaces").get<std::vector<std::string>>();
    std::vector<SharedUnit> units;
    for (const json& u : in.at("units")) {
        SharedUnit unit{u.at("area"), {}};
        for (const json& p : u.at("pieces"))
            unit.taken.emplace_back(std::find(names.begin(), names.end(), p.at(0).get<std::string>()) - names.begin(),
                                    p.at(1).get<double>());
        units.push_back(std::move(unit));
    }
    const CostShares s = shareCost(static_cast<int>(names.size()), units, {in.at("total_cents"), {}});
    json cents = json::array();
    for (const Money& m : s.share) cents.push_back(m.minor);
    return {{"consumed_mm2", s.consumed}, {"share_cents", cents}};
}

json weightCase(const json& in) {
    std::vector<PlacedMass> masses;
    double wet = 0;
    for (const json& item : in.at("items")) {
        const double area = item.value("area_m2", 0.0), spread = item.value("wet_g_m2", 0.0) / 1000 * area;
        double kg = item.value("kg", 0.0) + spread * item.value("solids", 0.0) +
                    item.value("fixings", 0) * item.value("g_each", 0.0) / 1000;
        for (const json& layer : item.value("kg_m2", json::array())) kg += layer.get<double>() * area;
        wet += spread;
        masses.push_back({{kg}, {item.at("x")}, {item.at("y")}});
    }
    const MassBalance b = balanceOf(masses, {.wheelbase = {in.at("wheelbase_mm")},
                                             .track = {in.at("track_mm")},
                                             .frontBefore = {in.at("base_front_kg")},
                                             .rearBefore = {in.at("base_rear_kg")},
                                             .frontLimit = Kg{in.at("front_limit_kg")},
                                             .rearLimit = Kg{in.at("rear_limit_kg")},
                                             .grossLimit = Kg{in.at("gross_limit_kg")}});
    return {{"added_kg", b.added.value},
            {"rear_kg", b.rearAdded.value},
            {"front_kg", b.frontAdded.value},
            {"right_kg", b.rightAdded.value},
            {"left_kg", b.leftAdded.value},
            {"cg_x_mm", b.centre ? json(b.centre->x) : json(nullptr)},
            {"cg_y_mm", b.centre ? json(b.centre->y) : json(nullptr)},
            {"front_total_kg", b.front.value},
            {"rear_total_kg", b.rear.value},
            {"ok", b.within()},
            {"wet_kg", wet}};
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

json packingCase(const json& in) {
    const std::string kind = in.at("kind");
    std::vector<CrookedCrossing> crossings;
    const json &x = in.at("ribs_x_mm"), &y = in.at("battens_y_mm"), &height = in.at("height_mm");
    for (std::size_t b = 0; b < y.size(); ++b)
        for (std::size_t r = 0; r < x.size(); ++r)
            crossings.push_back({{x[r], y[b]}, static_cast<int>(b), height[b][r]});
    const PackedFaces packed = packedFaces(kind == "plane"  ? PackTo::Plane
                                           : kind == "line" ? PackTo::EachLine
                                                            : PackTo::Level,
                                           crossings);
    json got{{"sum_mm", packed.sum}, {"lost_mm", packed.lost()}};
    if (kind != "level") return got;
    std::vector<Mm> stock;
    if (in.contains("stock_mm"))
        for (const json& s : in["stock_mm"]) stock.push_back({s.get<double>()});
    const int pieces = static_cast<int>(optionalNumber(in, "pieces", 2));
    json packers = json::array(), stacks = json::array();
    double worst = 0;
    for (std::size_t i = 0; i < crossings.size(); ++i) {
        if (i % x.size() == 0) {
            packers.push_back(json::array());
            stacks.push_back(json::array());
        }
        const double stack = packerStack({packed.packer[i]}, stock, pieces).thickness.value;
        packers.back().push_back(packed.packer[i]);
        stacks.back().push_back(stack);
        worst = std::max(worst, std::abs(stack - packed.packer[i]));
    }
    got.update({{"packers_mm", packers}, {"stacks_mm", stacks}, {"worst_mm", worst}});
    return got;
}

json archBoxCase(const json& in) {
    const auto reading = [&](const char* key, double usual) -> MaybeReading {
        return Reading{{}, {optionalNumber(in, key, usual)}};
    };
    ArchBox box;
    box.length = reading("length_mm", 0);
    box.height = reading("height_mm", 0);
    box.depth = reading("depth_mm", 0);
    box.rake = reading("rake_mm", 0);
    box.thickness = reading("t_mm", 0);
    box.scribe = reading("scribe_mm", 0);
    if (in.value("lap", "") == "ends") box.lap = BoxLap::EndsOutside;
    const auto p = boxParts(box).parts;
    if (!p) return nullptr;
    return {{"top_mm", {p->topLength, p->topDepth}},
            {"face_mm", {p->faceLength, p->faceHeight}},
            {"end_mm", {p->endDepth, p->endHeight}},
            {"footprint_mm", {box.length->length.value, box.depth->length.value}},
            {"area_m2", p->areaM2},
            {"end_area_m2", (p->endDepth + p->endDepthAbove) / 2 * p->endHeight / 1e6},
            {"face_from_level_deg", p->faceFromLevelRad * 180 / std::numbers::pi}};
}

json daylightCase(const json& in) {
    const std::string date = in.at("date");
    const Daylight d =
        daylightOn({std::stoi(date.substr(0, 4)), std::stoi(date.substr(5, 2)), std::stoi(date.substr(8, 2))},
                   in.at("lat_deg"), in.at("lon_deg"));
    return {{"day", d.kind == DayKind::Normal      ? "normal"
                    : d.kind == DayKind::NeverSets ? "never sets"
                                                   : "never rises"},
            {"sunrise_min_utc", d.sunrise ? json(*d.sunrise) : json(nullptr)},
            {"sunset_min_utc", d.sunset ? json(*d.sunset) : json(nullptr)}};
}

const std::map<std::string, std::function<json(const json&)>> kTopics{{"quad_from_sides", quadFromSides},
                                                                      {"polygon_net_area", polygonNetArea},
                                                                      {"plank_rows", plankRowsCase},
                                                                      {"stations", stationsCase},
                                                                      {"two_point", twoPointCase},
                                                                      {"developed", developedCase},
                                                                      {"tg_boards", boardsCase},
                                                                      {"tiles", tilesCase},
                                                                      {"stackup", stackUpCase},
                                                                      {"fixings", fixingsCase},
                                                                      {"grout", groutCase},
                                                                      {"edge_runs", edgeRunsCase},
                                                                      {"compound_mitre", mitreCase},
                                                                      {"boxed_cushion", cushionCase},
                                                                      {"adhesive", adhesiveCase},
                                                                      {"coating", coatingCase},
                                                                      {"packs_and_odds", oddsCase},
                                                                      {"cost_share", shareCase},
                                                                      {"packing", packingCase},
                                                                      {"daylight", daylightCase},
                                                                      {"arch_box", archBoxCase},
                                                                      {"weight", weightCase}};

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
