#include "core/setout/plank_floor.h"

#include "core/geometry/boolean.h"
#include "core/setout/common_rules.h"
#include "core/setout/cut_away.h"
#include "core/setout/piece_width.h"
#include "core/units/count.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace westrum {
namespace {

constexpr double kLevel = 1e-6; // mm: widths and lengths this near are the same
constexpr double kLeastOffcutMm = 1;
constexpr std::int64_t kMostPlanks = 4000;

constexpr std::array<std::string_view, 2> kWays{"plan all cuts ahead", "cut as you go"};
constexpr std::array<Field, 12> kRules{{
    {"direction", "rows run", FieldUnit::Choice, 0, 1, 0, kDirections},
    {"gap", "movement gap", FieldUnit::Length, 0, 100, 5},
    {"startOffset", "ripped off the first row", FieldUnit::Length, 0, 1000, 0},
    {"stagger", "stagger", FieldUnit::Length, 0, 2000, 300},
    {"endLeast", "least end piece", FieldUnit::Length, 0, 2000, 300},
    {"kerf", "saw kerf", FieldUnit::Length, 0, 20, 3},
    {"working", "way of working", FieldUnit::Choice, 0, 1, 0, kWays},
    {"ripReuse", "rip one plank for first and last row", FieldUnit::Flag, 0, 1, 1},
    {"mixPacks", "packs open at once", FieldUnit::Count, 1, 20, 3},
    {"feature", "finest plank where it is seen", FieldUnit::Flag, 0, 1, 0},
    {"hidden", "hidden parts left bare", FieldUnit::Flag, 0, 1, 0},
    {"bearing", "reaches under furniture by", FieldUnit::Length, 0, 500, 50},
}};

/// Turns a row plan into pieces and planks.
class Layer {
public:
    Layer(const std::vector<LaidRun>& runs, const RowPlan& plan, const Plank& plank, const PlankRules& rules,
          SetOut& out)
        : runs_(runs), plan_(plan), plank_(plank), rules_(rules), out_(out) {}

    void lay() {
        findCutPlanks();
        shareRippedPlanks();
        std::vector<int> inRow(out_.rows.size(), 0);
        for (std::size_t i = 0; i < runs_.size(); ++i) {
            const Run& run = runs_[i].run;
            const RunLayout& laid = plan_.runs[i];
            const auto add = [&](PieceKind kind, double from, double to) {
                addPiece(static_cast<int>(i), kind, from, to, inRow[static_cast<std::size_t>(run.row)]++);
            };
            if (laid.isSingle()) {
                add(PieceKind::Single, run.start, run.end());
                continue;
            }
            double at = run.start + laid.first;
            const bool firstIsWhole = laid.first >= plank_.length.value - kLevel;
            add(firstIsWhole ? PieceKind::Whole : PieceKind::First, run.start, at);
            for (int w = 0; w < laid.wholes; ++w, at += plank_.length.value)
                add(PieceKind::Whole, at, at + plank_.length.value);
            const bool lastIsWhole = laid.last >= plank_.length.value - kLevel;
            add(lastIsWhole ? PieceKind::Whole : PieceKind::Last, at, run.end());
        }
        for (StockUnit& unit : out_.stock) cutUp(unit);
    }

private:
    struct Key {
        int run;
        RunPiece piece;
        auto operator<=>(const Key&) const = default;
    };

    void findCutPlanks() {
        for (std::size_t c = 0; c < plan_.cutPlanks.size(); ++c)
            for (const CutPlank::Part& part : plan_.cutPlanks[c].parts)
                cutPlankOf_[{part.run, part.piece}] = static_cast<int>(c);
        stockOfCutPlank_.assign(plan_.cutPlanks.size(), -1);
        fromStrip_.assign(plan_.cutPlanks.size(), false);
    }

    [[nodiscard]] bool ripped(std::size_t row) const { return out_.rows[row].width() < plank_.width.value - kLevel; }

    /// Pairs planks that serve only the first row with planks that serve only the last: one plank, ripped along, gives
    /// both strips, since the first row keeps the lock away from the wall and the last row the lock towards the rows.
    void shareRippedPlanks() {
        const std::size_t rows = out_.rows.size();
        if (!rules_.ripReuse || rows < 2 || !ripped(0) || !ripped(rows - 1)) return;
        if (out_.rows.front().width() + out_.rows.back().width() + rules_.kerf.value > plank_.width.value + kLevel)
            return;
        const int last = static_cast<int>(rows) - 1;
        std::vector<int> lastRowPlanks;
        int strips = 0;
        for (std::size_t c = 0; c < plan_.cutPlanks.size(); ++c)
            if (servesOnly(plan_.cutPlanks[c], 0))
                ++strips;
            else if (servesOnly(plan_.cutPlanks[c], last))
                lastRowPlanks.push_back(static_cast<int>(c));
        int wholesLast = 0;
        for (std::size_t i = 0; i < runs_.size(); ++i) {
            if (runs_[i].run.row == 0) strips += plan_.runs[i].wholes;
            if (runs_[i].run.row == last) wholesLast += plan_.runs[i].wholes;
        }
        // Whole pieces of the last row take strips first, then its cut planks.
        wholesLastFromStrips_ = std::min(strips, wholesLast);
        strips -= wholesLastFromStrips_;
        for (int c : lastRowPlanks)
            if (strips > 0) {
                fromStrip_[static_cast<std::size_t>(c)] = true;
                --strips;
            }
    }

    [[nodiscard]] bool servesOnly(const CutPlank& plank, int row) const {
        return std::all_of(plank.parts.begin(), plank.parts.end(), [&](const CutPlank::Part& part) {
            return runs_[static_cast<std::size_t>(part.run)].run.row == row;
        });
    }

    int openStock() {
        out_.stock.emplace_back();
        return static_cast<int>(out_.stock.size()) - 1;
    }

    /// The next plank of the first row whose other strip is still free.
    int takeStrip() {
        const int unit = freeStrips_.at(nextStrip_++);
        out_.stock[static_cast<std::size_t>(unit)].rippedInTwo = true;
        return unit;
    }

    int stockFor(int run, PieceKind kind, bool whollyInside) {
        const int row = runs_[static_cast<std::size_t>(run)].run.row;
        const bool lastRow = row == static_cast<int>(out_.rows.size()) - 1;
        if (whollyInside) {
            if (lastRow && wholesLastFromStrips_ > 0) {
                --wholesLastFromStrips_;
                return takeStrip();
            }
            const int unit = openStock();
            if (row == 0) freeStrips_.push_back(unit);
            return unit;
        }
        const RunPiece piece = kind == PieceKind::Single ? RunPiece::Single
                               : kind == PieceKind::Last ? RunPiece::Last
                                                         : RunPiece::First;
        const auto c = static_cast<std::size_t>(cutPlankOf_.at({run, piece}));
        if (stockOfCutPlank_[c] < 0) {
            if (fromStrip_[c]) {
                stockOfCutPlank_[c] = takeStrip();
            } else {
                stockOfCutPlank_[c] = openStock();
                if (servesOnly(plan_.cutPlanks[c], 0)) freeStrips_.push_back(stockOfCutPlank_[c]);
            }
        }
        return stockOfCutPlank_[c];
    }

    void addPiece(int run, PieceKind kind, double from, double to, int inRow) {
        const LaidRun& laid = runs_[static_cast<std::size_t>(run)];
        const auto row = static_cast<std::size_t>(laid.run.row);
        const RunLayout& layout = plan_.runs[static_cast<std::size_t>(run)];
        Piece piece;
        piece.row = laid.run.row;
        piece.inRow = inRow;
        piece.name = std::to_string(piece.row + 1) + "." + std::to_string(inRow + 1);
        piece.kind = kind;
        piece.length = {to - from};
        piece.width = {std::min(out_.rows[row].width(), plank_.width.value)};
        // A first or last piece of a whole plank's length is still a cut plank of the row plan.
        const bool isFirstPlace = !layout.isSingle() && from <= laid.run.start + kLevel;
        const bool isLastPlace = !layout.isSingle() && to >= laid.run.end() - kLevel;
        const bool inside = !layout.isSingle() && !isFirstPlace && !isLastPlace;
        const PieceKind place = layout.isSingle() ? PieceKind::Single
                                : isFirstPlace    ? PieceKind::First
                                                  : PieceKind::Last;
        const std::size_t opened = out_.stock.size();
        piece.stock = stockFor(run, place, inside);
        piece.fromOffcut = static_cast<std::size_t>(piece.stock) < opened;
        const Region shape = clippedInX(laid.part, from, to);
        piece.narrowest = {std::min(narrowestOf(shape), piece.width.value)};
        const double whole = piece.length.value * out_.rows[row].width();
        piece.notched = areaMm2(shape) < whole - std::max(50.0, 0.005 * whole);
        if (piece.notched)
            piece.cutAway = cutAwayOf(moved(shape, Point{from, out_.rows[row].low} * -1), piece.length, piece.width);
        piece.shape = out_.rowsAcross ? transposed(shape) : shape;
        const bool full = piece.length.value >= plank_.length.value - kLevel;
        piece.factory = {.left = kind == PieceKind::Whole || kind == PieceKind::Last || full,
                         .right = kind == PieceKind::Whole || kind == PieceKind::First || full,
                         .near = row != 0 || !ripped(0),
                         .far = row + 1 != out_.rows.size() || !ripped(row)};
        if (row == 0 && out_.rows.size() == 1) piece.factory.far = !ripped(0);
        out_.stock[static_cast<std::size_t>(piece.stock)].pieces.push_back(static_cast<int>(out_.pieces.size()));
        out_.pieces.push_back(std::move(piece));
    }

    /// Puts the pieces of one strip into the order in which they lie on it and lists cuts and offcuts.
    void cutStrip(StockUnit& unit, std::vector<int>& ids, double stripWidth) {
        const auto pieceAt = [&](int id) -> Piece& { return out_.pieces[static_cast<std::size_t>(id)]; };
        const auto place = [&](int id) {
            const PieceKind kind = pieceAt(id).kind;
            return kind == PieceKind::Last ? 0 : kind == PieceKind::First ? 2 : 1;
        };
        std::stable_sort(ids.begin(), ids.end(), [&](int a, int b) { return place(a) < place(b); });
        const double plank = plank_.length.value;
        const double kerf = rules_.kerf.value;
        double used = 0; // up to here from the left-hand end, kerfs included
        double rightUsed = 0;
        for (std::size_t i = 0; i < ids.size(); ++i) {
            Piece& piece = pieceAt(ids[i]);
            if (piece.kind == PieceKind::First) {
                rightUsed = piece.length.value;
                continue;
            }
            if (piece.kind == PieceKind::Single) piece.factory.left = i == 0;
            used += (used > 0 ? kerf : 0) + piece.length.value;
            if (used < plank - kLevel) unit.cuts.push_back({CutKind::Cross, {used}});
        }
        if (rightUsed > 0 && rightUsed < plank - kLevel) {
            const double at = plank - rightUsed;
            // One cut parts both if only the kerf is between.
            if (used == 0 || at - used > kerf + kLevel) unit.cuts.push_back({CutKind::Cross, {at}});
        }
        const double left =
            plank - used - rightUsed - (used > 0 ? kerf : 0) - (rightUsed > 0 && rightUsed < plank ? kerf : 0);
        if (left >= kLeastOffcutMm) unit.offcuts.push_back({{left}, {stripWidth}, false});
        for (int id : ids)
            if (pieceAt(id).notched) unit.cuts.push_back({CutKind::Shape, {}});
    }

    void cutUp(StockUnit& unit) {
        const double width = plank_.width.value;
        const double kerf = rules_.kerf.value;
        const std::size_t lastRow = out_.rows.size() - 1;
        if (unit.rippedInTwo) {
            const double near = out_.rows[lastRow].width();
            const double far = out_.rows.front().width();
            unit.cuts.push_back({CutKind::Rip, {near}});
            const double between = width - near - far - kerf;
            if (between > kLevel) unit.cuts.push_back({CutKind::Rip, {width - far}});
            if (between - kerf >= kLeastOffcutMm) unit.offcuts.push_back({plank_.length, {between - kerf}, true});
            std::vector<int> first, last;
            for (int id : unit.pieces)
                (out_.pieces[static_cast<std::size_t>(id)].row == 0 ? first : last).push_back(id);
            cutStrip(unit, first, far);
            cutStrip(unit, last, near);
            unit.pieces = first;
            unit.pieces.insert(unit.pieces.end(), last.begin(), last.end());
            return;
        }
        cutStrip(unit, unit.pieces, width);
        for (int id : unit.pieces) {
            const Piece& piece = out_.pieces[static_cast<std::size_t>(id)];
            if (piece.width.value >= width - kLevel) continue;
            const bool fromNear = piece.row != 0 || lastRow == 0;
            unit.cuts.push_back({CutKind::Rip, {fromNear ? piece.width.value : width - piece.width.value}});
            const double strip = width - piece.width.value - kerf;
            if (strip >= kLeastOffcutMm) unit.offcuts.push_back({piece.length, {strip}, true});
        }
    }

    const std::vector<LaidRun>& runs_;
    const RowPlan& plan_;
    const Plank& plank_;
    const PlankRules& rules_;
    SetOut& out_;
    std::map<Key, int> cutPlankOf_;
    std::vector<int> stockOfCutPlank_;
    std::vector<bool> fromStrip_; ///< this cut plank of the last row comes out of a first-row strip
    std::vector<int> freeStrips_;
    std::size_t nextStrip_ = 0;
    int wholesLastFromStrips_ = 0;
};

/// The row plan under the rules, or under the nearest weaker ones that can be kept, with a remark saying which.
RowPlan planOrRelax(const std::vector<Run>& runs, RowRules rules, std::vector<Remark>& remarks,
                    const std::stop_token& stop) {
    RowPlan plan = planRows(runs, rules, stop);
    if (plan.feasible() || stop.stop_requested()) return plan;
    const RowRules asked = rules;
    for (const double share : {0.75, 0.5, 0.25, 0.0}) {
        rules.stagger = asked.stagger * share;
        for (const double endShare : {1.0, 0.5, 0.1}) {
            rules.endLeast = asked.endLeast * endShare;
            plan = planRows(runs, rules, stop);
            if (!plan.feasible()) continue;
            remarks.push_back({Severity::Warning,
                               {"", Part::Rule, -1},
                               RemarkKind::RowsCannotBeLaid,
                               {{"stagger", Mm{asked.stagger}},
                                {"end", Mm{asked.endLeast}},
                                {"gotStagger", Mm{rules.stagger}},
                                {"gotEnd", Mm{rules.endLeast}}},
                               Fix{FixKind::SetRule, "stagger", rules.stagger}});
            return plan;
        }
    }
    remarks.push_back({Severity::Error, {"", Part::Whole}, RemarkKind::RowsNotLaid, {}, {}});
    return {};
}

/// Planks are taken from several open packs in turn, so that their patterns mix.
void numberPacks(std::vector<StockUnit>& stock, int perPack, int mix) {
    const int planks = static_cast<int>(stock.size()), packs = (planks + perPack - 1) / std::max(1, perPack);
    for (int i = 0; i < planks; ++i) {
        const int group = i / (mix * perPack);
        const int open = std::min(mix, packs - group * mix);
        stock[static_cast<std::size_t>(i)].pack = group * mix + i % open + 1;
    }
}

void judge(const Plank& plank, const RowPlan& plan, SetOut& out) {
    const double third = plank.width.value / 3;
    const auto edge = [&](int row, Mm width) {
        if (width.value >= third - kLevel) return;
        out.remarks.push_back({Severity::Warning,
                               {"", Part::Row, row},
                               RemarkKind::EdgeRowSliver,
                               {{"row", std::int64_t{row + 1}}, {"width", width}, {"limit", Mm{third}}},
                               {}});
    };
    edge(0, out.firstRow);
    if (out.rows.size() > 1) edge(static_cast<int>(out.rows.size()) - 1, out.lastRow);
    double narrowest = third;
    int at = -1;
    for (std::size_t i = 0; i < out.pieces.size(); ++i) {
        const Piece& piece = out.pieces[i];
        if (out.rows[static_cast<std::size_t>(piece.row)].width() < third - kLevel) continue;
        if (piece.narrowest.value >= third - kLevel) continue;
        ++out.slivers;
        if (piece.narrowest.value < narrowest) {
            narrowest = piece.narrowest.value;
            at = static_cast<int>(i);
        }
    }
    if (out.slivers > 0)
        out.remarks.push_back({Severity::Warning,
                               {"", Part::Piece, at},
                               RemarkKind::CutoutSliver,
                               {{"count", std::int64_t{out.slivers}}, {"width", Mm{narrowest}}, {"limit", Mm{third}}},
                               {}});
    Judgement& j = out.figures;
    out.module = plank.width.value;
    j.narrowestEdge = std::min(out.firstRow, out.lastRow);
    j.unevenness = {std::abs(out.firstRow.value - out.lastRow.value)};
    j.slivers = out.slivers;
    j.pieces = static_cast<int>(out.pieces.size());
    for (const Piece& p : out.pieces) {
        if (p.kind != PieceKind::Whole) j.cutLength = j.cutLength + p.width;
        if (p.width < plank.width - Mm{kLevel}) j.cutLength = j.cutLength + p.length;
    }
    j.stock = static_cast<int>(out.stock.size());
    // The bound counts planks cut crosswise; where planks are ripped for two rows it says nothing.
    j.leastStock = j.stock >= out.leastStock ? out.leastStock : 0;
    if (!plan.provenLeast())
        out.remarks.push_back({Severity::Note,
                               {"", Part::Whole},
                               RemarkKind::NotProvenLeast,
                               {{"planks", std::int64_t{plan.planks}}, {"limit", std::int64_t{plan.leastPossible}}},
                               {}});
}

} // namespace

std::span<const Field> plankRuleFields() { return kRules; }

PlankRules plankRulesOf(const FieldValues& rules, double care) {
    const auto value = [&](std::string_view key) { return valueOf(rules, kRules, key); };
    return {.across = value("direction") != 0,
            .gap = {value("gap")},
            .startOffset = {value("startOffset")},
            .stagger = {value("stagger")},
            .endLeast = {value("endLeast")},
            .kerf = {value("kerf")},
            .working = value("working") == 0 ? Working::PlannedAhead : Working::AsYouGo,
            .ripReuse = value("ripReuse") != 0,
            .mixPacks = static_cast<int>(value("mixPacks")),
            .hiddenBare = value("hidden") != 0,
            .bearing = {value("bearing")},
            .care = care};
}

std::vector<Row> plankRows(double low, double depth, double width, double first) {
    std::vector<Row> rows;
    const double high = low + depth;
    double at = std::min(low + first, high);
    rows.push_back({low, at});
    const std::int64_t more = roundUp((high - at) / width);
    for (std::int64_t i = 0; i < more; ++i) {
        const double next = i + 1 == more ? high : at + width;
        rows.push_back({at, next});
        at = next;
    }
    return rows;
}

double equalEdgeRow(double depth, double width) {
    const std::int64_t rows = std::max<std::int64_t>(1, roundUp(depth / width));
    return rows == 1 ? depth : (depth - static_cast<double>(rows - 2) * width) / 2;
}

std::optional<FairRange> fairFirstRows(double depth, double width) {
    const std::int64_t rows = roundUp(depth / width);
    if (rows < 2) return std::nullopt;
    const double third = width / 3;
    const FairRange range{std::max(third, depth - static_cast<double>(rows - 1) * width),
                          std::min(width, depth - static_cast<double>(rows - 2) * width - third)};
    if (range.least > range.most + kLevel) return std::nullopt;
    return range;
}

std::vector<LaidRun> runsOf(const Region& net, const std::vector<Row>& rows) {
    std::vector<LaidRun> runs;
    for (std::size_t r = 0; r < rows.size(); ++r)
        for (Region& part : bandOf(net, rows[r].low, rows[r].high)) {
            const Bounds b = boundsOf(part);
            runs.push_back({{static_cast<int>(r), b.low.x, b.width()}, std::move(part)});
        }
    return runs;
}

SetOut setOutPlanks(const Region& outline, const Plank& plank, const PlankRules& rules, const std::stop_token& stop) {
    SetOut out;
    out.rowsAcross = rules.across;
    out.net = inset(outline, rules.gap.value);
    if (out.net.empty()) {
        out.remarks.push_back(
            {Severity::Error, {"", Part::Rule}, RemarkKind::NothingLeftInsideGap, {{"gap", rules.gap}}, {}});
        return out;
    }
    if (rules.gap < plank.movementGap)
        out.remarks.push_back({Severity::Warning,
                               {"", Part::Rule},
                               RemarkKind::GapBelowProduct,
                               {{"gap", rules.gap}, {"limit", plank.movementGap}},
                               Fix{FixKind::SetRule, "gap", plank.movementGap.value}});
    if (rules.stagger < plank.leastStagger)
        out.remarks.push_back({Severity::Warning,
                               {"", Part::Rule},
                               RemarkKind::EndStaggerBelowLabel,
                               {{"stagger", rules.stagger}, {"limit", plank.leastStagger}},
                               Fix{FixKind::SetRule, "stagger", plank.leastStagger.value}});
    const Region net = rules.across ? transposed(out.net) : out.net;
    const Bounds bounds = boundsOf(net);
    const double depth = bounds.height();
    const double width = plank.width.value;
    const std::int64_t roughly = roundUp(areaMm2(net) / (width * plank.length.value)) + roundUp(depth / width);
    if (roughly > kMostPlanks) {
        out.remarks.push_back({Severity::Error,
                               {"", Part::Product},
                               RemarkKind::TooManyPieces,
                               {{"count", roughly}, {"limit", kMostPlanks}},
                               {}});
        return out;
    }
    Mm offset = rules.startOffset;
    if (offset >= plank.width) {
        out.remarks.push_back({Severity::Error,
                               {"", Part::Rule},
                               RemarkKind::FieldOutOfRange,
                               {{"product", std::string()},
                                {"field", std::string("ripped off the first row")},
                                {"value", offset},
                                {"least", Mm{0}},
                                {"most", plank.width}},
                               Fix{FixKind::SetRule, "startOffset", 0.0}});
        offset = Mm{0};
    }
    if (width > depth + kLevel)
        out.remarks.push_back({Severity::Note,
                               {"", Part::Row, 0},
                               RemarkKind::PlankWiderThanFloor,
                               {{"width", plank.width}, {"limit", Mm{depth}}},
                               {}});
    out.rows = plankRows(bounds.low.y, depth, width, width - offset.value);
    out.startLine = out.rows.front().high;
    out.startOffset = offset;
    out.firstRow = {out.rows.front().width()};
    out.lastRow = {out.rows.back().width()};

    const std::vector<LaidRun> laid = runsOf(net, out.rows);
    std::vector<Run> runs;
    runs.reserve(laid.size());
    for (const LaidRun& l : laid) runs.push_back(l.run);
    const RowPlan plan = planOrRelax(runs,
                                     {.plankLength = plank.length.value,
                                      .kerf = rules.kerf.value,
                                      .stagger = rules.stagger.value,
                                      .endLeast = rules.endLeast.value,
                                      .working = rules.working,
                                      .effort = static_cast<int>(RowRules{}.effort * rules.care)},
                                     out.remarks, stop);
    if (!plan.feasible()) return out;
    out.leastStock = plan.leastPossible;
    out.stockWithoutRipReuse = plan.planks;
    Layer(laid, plan, plank, rules, out).lay();
    numberPacks(out.stock, plank.perPack, rules.mixPacks);
    judge(plank, plan, out);
    return out;
}

std::vector<StartChoice> plankStarts(const Region& outline, const Plank& plank, const PlankRules& rules,
                                     const std::stop_token& stop, const std::function<void(double)>& progress) {
    std::vector<StartChoice> starts;
    for (double offset = 0; offset < plank.width.value - 0.5; offset += 1) {
        if (stop.stop_requested()) return {};
        if (progress) progress(offset / plank.width.value);
        PlankRules at = rules;
        at.startOffset = {offset};
        const SetOut s = setOutPlanks(outline, plank, at, stop);
        if (stop.stop_requested()) return {};
        if (s.rows.empty()) return {};
        starts.push_back(choiceOf(s, {{"startOffset", offset}}, true));
        starts.back().startOffset = {offset};
        starts.back().fair = std::min(s.firstRow, s.lastRow).value >= plank.width.value / 3 - kLevel;
    }
    return starts;
}

namespace {

/// Rows the other way, by start lines kTurnedStepMm apart: what that gives, without another strip to choose from.
std::vector<StartChoice> turnedStarts(const Region& outline, const Plank& plank, PlankRules rules,
                                      const std::stop_token& stop) {
    constexpr double kTurnedStepMm = 10;
    std::vector<StartChoice> starts;
    rules.across = !rules.across;
    for (double offset = 0; offset < plank.width.value - 0.5 && !stop.stop_requested(); offset += kTurnedStepMm) {
        rules.startOffset = {offset};
        const SetOut s = setOutPlanks(outline, plank, rules, stop);
        if (s.rows.empty()) return {};
        starts.push_back(choiceOf(s, {{"direction", rules.across ? 1.0 : 0.0}, {"startOffset", offset}}, false));
        starts.back().startOffset = {offset};
        starts.back().fair = std::min(s.firstRow, s.lastRow).value >= plank.width.value / 3 - kLevel;
    }
    return starts;
}

} // namespace

SetOutFamily plankSetOut() {
    static constexpr std::array<std::string_view, 1> kStartRules{"startOffset"};
    return {"planks",
            kRules,
            [](const SetOutRequest& r, const std::stop_token& stop) {
                const PlankRules rules = plankRulesOf(r.rules, r.care);
                const Plank plank = plankOf(r.product);
                SetOut s = setOutPlanks(toCover(r, rules.hiddenBare, rules.bearing, rules.gap), plank, rules, stop);
                checkSideGaps(r, plank.movementGap, s.remarks);
                if (s.laid() && valueOf(r.rules, kRules, "feature") != 0) {
                    const Bounds b = boundsOf(s.net);
                    markFeature(s, {r.visibleCentreX.value_or((b.low.x + b.high.x) / 2),
                                    r.visibleCentreY.value_or((b.low.y + b.high.y) / 2)});
                }
                return s;
            },
            [](const SetOutRequest& r, const std::stop_token& stop) {
                const PlankRules rules = plankRulesOf(r.rules);
                const Region covered = toCover(r, rules.hiddenBare, rules.bearing, rules.gap);
                std::vector<StartChoice> all = plankStarts(covered, plankOf(r.product), rules, stop, r.progress.call);
                for (StartChoice& turned : turnedStarts(covered, plankOf(r.product), rules, stop))
                    all.push_back(std::move(turned));
                return stop.stop_requested() ? std::vector<StartChoice>() : all;
            },
            [](Mm offset) {
                return FieldValues{{"startOffset", offset.value}};
            },
            nullptr,
            kStartRules};
}

} // namespace westrum
