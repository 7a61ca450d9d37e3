#include "core/setout/board_cladding.h"

#include "core/setout/board_lines.h"
#include "core/setout/cut_away.h"

#include "core/geometry/boolean.h"
#include "core/setout/piece_width.h"
#include "core/units/count.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr double kSawnToNothing = 0.01; // mm: 0 would say that it comes as it is
constexpr double kLevel = 1e-6;
constexpr double kLampTolerance = 2;

constexpr std::array<std::string_view, 6> kStarts{
    "a board on the centre", "a joint on the centre", "from the first edge", "from the last edge", "by hand",
    "a joint on the datum"};
constexpr std::array<std::string_view, 3> kJointings{"full length", "joined in turns", "fewest boards"};
constexpr std::array<std::string_view, 3> kReturns{"square", "mitred", "coped"};
constexpr std::array<std::string_view, 2> kTongues{"first row", "last row"};

constexpr std::array<Field, 16> kRules{{
    {"direction", "rows run", FieldUnit::Choice, 0, 1, 0, kDirections},
    {"start", "start", FieldUnit::Choice, 0, 5, 0, kStarts},
    {"startOffset", "ripped off the first row", FieldUnit::Length, 0, 400, 0},
    {"centre", "centred on", FieldUnit::Choice, 0, 2, 1, kCentres},
    {"openingA", "first opening", FieldUnit::Count, 0, 200, 0},
    {"openingB", "second opening", FieldUnit::Count, 0, 200, 0},
    {"gap", "movement gap", FieldUnit::Length, 0, 100, 5},
    {"jointing", "rows are", FieldUnit::Choice, 0, 2, 0, kJointings},
    {"staggerBays", "joints apart by supports", FieldUnit::Count, 1, 10, 1},
    {"endLeast", "least end piece", FieldUnit::Length, 0, 2000, 300},
    {"tongues", "tongues towards the", FieldUnit::Choice, 0, 1, 1, kTongues},
    {"taperBoards", "boards that share a taper", FieldUnit::Count, 1, 40, 1},
    {"returns", "ends of boards", FieldUnit::Choice, 0, 2, 0, kReturns},
    {"returnAngle", "angle of the strip", FieldUnit::Degrees, 5, 135, 45},
    {"hidden", "hidden parts left bare", FieldUnit::Flag, 0, 1, 0},
    {"bearing", "reaches under furniture by", FieldUnit::Length, 0, 500, 50},
}};

class Cladding {
public:
    Cladding(const SetOutRequest& request, const Board& board, const BoardRules& rules, const std::stop_token& stop)
        : request_(request), board_(board), rules_(rules), stop_(stop) {}

    SetOut lay() {
        out_.rowsAcross = rules_.across;
        checkGap(rules_.gap, board_.movementGap, out_.remarks);
        checkSideGaps(request_, board_.movementGap, out_.remarks);
        out_.net = insetBy(toCover(request_, rules_.hiddenBare, rules_.bearing, rules_.gap), rules_.gap);
        if (nothingLeft(out_.net, rules_.gap, out_.remarks)) return std::move(out_);
        slope();
        net_ = sheared(rules_.across ? transposed(out_.net) : out_.net, slope_);
        bounds_ = boundsOf(net_);
        if (tooMany(bounds_.height() / cover_ * std::max(1.0, bounds_.width() / board_.length.value) +
                        areaMm2(net_) / (cover_ * board_.length.value),
                    out_.remarks))
            return std::move(out_);
        findRows();
        findRuns();
        if (stop_.stop_requested()) return std::move(out_);
        join();
        cut();
        judge();
        return std::move(out_);
    }

private:
    /// Rows lie along the datum when they start from it.
    void slope() {
        cover_ = board_.cover.value;
        if (rules_.start != BoardStart::Datum || rules_.across || !request_.datum) return;
        const Point d = request_.datum->right - request_.datum->left;
        if (std::abs(d.x) < 1) return;
        slope_ = d.y / d.x;
        stretch_ = std::sqrt(1 + slope_ * slope_);
        cover_ *= stretch_;
    }

    [[nodiscard]] double phase() {
        const double low = bounds_.low.y, high = bounds_.high.y;
        const double centre =
            centreOf(request_, out_.net, rules_.centre, rules_.openingA, rules_.openingB, rules_.across, out_.remarks) -
            (rules_.across ? 0 : slope_ * (bounds_.low.x + bounds_.high.x) / 2);
        out_.centreLine = centre;
        switch (rules_.start) {
        case BoardStart::BoardCentred: return centredPhase(centre, cover_, true);
        case BoardStart::JointCentred: return centre;
        case BoardStart::FirstEdge: return low;
        case BoardStart::LastEdge: return high;
        case BoardStart::ByHand: return low - std::min(rules_.startOffset.value, cover_ - 1) * stretch_;
        case BoardStart::Datum:
            if (request_.datum && !rules_.across) return request_.datum->left.y - slope_ * request_.datum->left.x;
            out_.remarks.push_back({Severity::Warning,
                                    {"", Part::Rule},
                                    RemarkKind::DatumMissing,
                                    {},
                                    Fix{FixKind::SetRule, "start", 0.0}});
            return centredPhase(centre, cover_, true);
        }
        return low;
    }

    void findRows() {
        const double low = bounds_.low.y, high = bounds_.high.y;
        const double at = phase();
        const std::vector<double> lines = boundaries(low, high, cover_, at);
        const std::size_t rows = lines.size() - 1;
        lowSide_ = sideOf(net_, bounds_, false);
        highSide_ = sideOf(net_, bounds_, true);
        for (const double y : lines) lines_.push_back({y, y});
        // A taper shared by several boards: their lines fan out evenly towards the side.
        const auto share = static_cast<std::size_t>(std::max(1, rules_.taperBoards));
        std::int64_t midField = 0;
        const auto fan = [&](const Line& side, bool highEnd) {
            if (std::abs(side.atStart - side.atEnd) < kLevel) return;
            const std::size_t n = std::min(share, rows);
            out_.taperBoards = static_cast<int>(n);
            // Counted from the first line between two boards, off which whole boards are laid towards the side.
            if (rows > 1) {
                const double from = lines[highEnd ? 1 : rows - 1];
                const double a = std::abs(side.atStart - from), b = std::abs(side.atEnd - from);
                sayTaper(static_cast<int>(std::min(n, rows - 1)),
                         taperOver(std::max(a, b), std::max(kLevel, std::min(a, b)), cover_,
                                   static_cast<int>(std::min(n, rows - 1)), cover_ / 3));
            }
            if (n < 2) return;
            const double from = highEnd ? lines[rows - n] : lines[n];
            for (std::size_t k = 1; k <= n; ++k) {
                const double part = static_cast<double>(k) / static_cast<double>(n);
                const Line line{from + (side.atStart - from) * part, from + (side.atEnd - from) * part};
                lines_[highEnd ? rows - n + k : n - k] = line;
            }
            midField += static_cast<std::int64_t>(n) - 1;
        };
        fan(highSide_, true);
        fan(lowSide_, false);
        if (midField > 0)
            out_.remarks.push_back(
                {Severity::Note, {"", Part::Rule}, RemarkKind::TaperLosesLock, {{"boards", midField}}, {}});
        for (std::size_t r = 0; r < rows; ++r)
            out_.rows.push_back({.low = lines_[r].atStart,
                                 .high = lines_[r + 1].atStart,
                                 .lowAtEnd = lines_[r].atEnd,
                                 .highAtEnd = lines_[r + 1].atEnd});
        out_.module = cover_;
        out_.startLine = lines_.size() > 1 ? lines_[1].atStart : high;
        // At the wide end of a taper; what is left at its narrow end is judged apart.
        const auto visible = [&](std::size_t row, bool wide) {
            const double start = visibleBetween(row, 0), end = visibleBetween(row, 1);
            return Mm{(wide ? std::max(start, end) : std::min(start, end)) / stretch_};
        };
        out_.firstRow = visible(0, true);
        out_.lastRow = visible(rows - 1, true);
        narrowFirst_ = visible(0, false);
        narrowLast_ = visible(rows - 1, false);
        out_.startOffset = {rows == 1 ? 0 : std::max(0.0, board_.cover.value - (lines[1] - lines[0]) / stretch_)};
        if (rows == 1 && board_.cover.value > bounds_.height() + kLevel)
            out_.remarks.push_back({Severity::Note,
                                    {"", Part::Row, 0},
                                    RemarkKind::BoardWiderThanSurface,
                                    {{"width", board_.cover}, {"limit", Mm{bounds_.height()}}},
                                    {}});
    }

    void sayTaper(int boards, const Taper& taper) {
        if (taper.fair) return;
        out_.remarks.push_back({Severity::Warning,
                                {"", Part::Rule},
                                RemarkKind::TaperTooNarrow,
                                {{"boards", std::int64_t{boards}},
                                 {"width", Mm{std::max(0.0, taper.atNarrow.value)}},
                                 {"limit", Mm{cover_ / 3}},
                                 {"least", std::int64_t{taper.leastBoards.value_or(0)}}},
                                taper.leastBoards ? std::optional(Fix{FixKind::SetRule, "taperBoards",
                                                                      static_cast<double>(*taper.leastBoards)})
                                                  : std::nullopt});
    }

    void findRuns() {
        const double x0 = bounds_.low.x, x1 = bounds_.high.x;
        for (std::size_t r = 0; r + 1 < lines_.size(); ++r) {
            const Line &low = lines_[r], &high = lines_[r + 1];
            const bool level = low.atStart == low.atEnd && high.atStart == high.atEnd;
            std::vector<Region> parts;
            if (level) {
                parts = bandOf(net_, low.atStart, high.atStart);
            } else {
                const Region band = intersection(
                    net_,
                    {{{{x0 - 1, low.atStart}, {x1 + 1, low.atEnd}, {x1 + 1, high.atEnd}, {x0 - 1, high.atStart}}}});
                for (Region& part : partsOf(band))
                    if (areaMm2(part) > 1) parts.push_back(std::move(part));
                std::sort(parts.begin(), parts.end(),
                          [](const Region& a, const Region& b) { return boundsOf(a).low.x < boundsOf(b).low.x; });
            }
            for (Region& part : parts) {
                const Bounds b = boundsOf(part);
                runs_.push_back({static_cast<int>(r), b.low.x, b.width()});
                parts_.push_back(std::move(part));
            }
        }
    }

    /// What an end adds that is mitred or coped onto a strip.
    [[nodiscard]] double returnAllowance() const {
        switch (rules_.returns) {
        case BoardReturn::Square: return 0;
        case BoardReturn::Mitred: return board_.thickness.value * std::tan(rules_.returnAngleRad / 2);
        case BoardReturn::Coped: return board_.thickness.value;
        }
        return 0;
    }
    [[nodiscard]] bool atEnd(double x) const { return x < bounds_.low.x + 1 || x > bounds_.high.x - 1; }

    void join() {
        JointRules joints;
        joints.jointing = rules_.jointing;
        joints.supports = supportsAcross(request_, rules_.across);
        joints.kerf = board_.kerf.value;
        joints.endLeast = rules_.endLeast.value;
        joints.staggerBays = rules_.staggerBays;
        const double ends = 2 * board_.endTrim.value + 2 * returnAllowance();
        for (const StockLength& l : request_.lengths)
            if (l.length.value > ends) joints.lengths.push_back({{(l.length.value - ends) / stretch_}, l.cost});
        if (joints.lengths.empty()) joints.lengths.push_back({{(board_.length.value - ends) / stretch_}, 1});
        plan_ = planJoints(runs_, joints, stop_);
        if (!plan_.longerThanStock.empty()) {
            const Run& run = runs_[static_cast<std::size_t>(plan_.longerThanStock.front())];
            double longest = 0;
            for (const StockLength& l : joints.lengths) longest = std::max(longest, l.length.value);
            out_.remarks.push_back({rules_.jointing == Jointing::FullLength ? Severity::Warning : Severity::Note,
                                    {"", Part::Row, run.row},
                                    RemarkKind::RunLongerThanStock,
                                    {{"row", std::int64_t{run.row + 1}},
                                     {"length", Mm{run.length * stretch_}},
                                     {"limit", Mm{longest * stretch_}}},
                                    {}});
            if (joints.supports.empty())
                out_.remarks.push_back({Severity::Warning, {"", Part::Support}, RemarkKind::NoSupports, {}, {}});
        }
    }

    void cut() {
        std::vector<int> inRow(out_.rows.size(), 0);
        for (std::size_t i = 0; i < runs_.size(); ++i) {
            std::vector<double> stops{runs_[i].start};
            stops.insert(stops.end(), plan_.joints[i].begin(), plan_.joints[i].end());
            stops.push_back(runs_[i].end());
            for (std::size_t k = 0; k + 1 < stops.size(); ++k)
                addPiece(i, stops[k], stops[k + 1], k, stops.size() - 1, inRow);
            for (std::size_t k = 1; k + 1 < stops.size(); ++k) {
                const auto row = static_cast<std::size_t>(runs_[i].row);
                const double share = (stops[k] - bounds_.low.x) / std::max(1.0, bounds_.width());
                const Point a = back({stops[k], lines_[row].at(share)}),
                            b = back({stops[k], lines_[row + 1].at(share)});
                out_.joints.push_back({a, b, onSupport(stops[k]), false});
            }
        }
    }

    [[nodiscard]] bool onSupport(double x) const {
        for (const double s : supportsAcross(request_, rules_.across))
            if (std::abs(s - x) < 1) return true;
        return false;
    }

    void addPiece(std::size_t run, double from, double to, std::size_t place, std::size_t places,
                  std::vector<int>& inRow) {
        const int row = runs_[run].row;
        const auto r = static_cast<std::size_t>(row);
        const Region shape = clippedInX(parts_[run], from, to);
        if (areaMm2(shape) < 1) return;
        Piece piece;
        piece.row = row;
        piece.inRow = inRow[r]++;
        piece.name = std::to_string(row + 1) + "." + std::to_string(piece.inRow + 1);
        piece.kind = places == 1           ? PieceKind::Single
                     : place == 0          ? PieceKind::First
                     : place + 1 == places ? PieceKind::Last
                                           : PieceKind::Inner;
        piece.length = {(to - from) * stretch_ + (atEnd(from) ? returnAllowance() : 0) +
                        (atEnd(to) ? returnAllowance() : 0)};
        piece.width = board_.cover;
        piece.narrowest = {std::min(narrowestOf(shape) / stretch_, board_.cover.value)};
        const bool first = row == 0, last = r + 1 == out_.rows.size();
        const Mm start = visibleAt(r, from, shape), end = visibleAt(r, to, shape);
        // Rows at the edges and those that share a taper are ripped; the others come as they are, notches apart.
        // So are rows that a side which tapers crosses.
        const bool ripsNear = first || (!last && crossedBy(lowSide_, lines_[r], from, to, 1));
        const bool edge =
            ripsNear || last || out_.rows[r].tapered() || crossedBy(highSide_, lines_[r + 1], from, to, -1);
        const bool tongueSide = rules_.tongueTowardsLast != ripsNear;
        if (edge && std::min(start, end).value < board_.cover.value - 1e-3) {
            // The saw runs out of the board at one edge where all of it is seen, at the other where nothing is.
            const auto rip = [&](Mm visible) {
                return visible.value >= board_.cover.value - 1e-3
                           ? board_.overall
                           : std::max(ripWidth(visible, board_, tongueSide), Mm{kSawnToNothing});
            };
            piece.ripAtStart = rip(start);
            piece.ripAtEnd = rip(end);
            piece.ripTo = piece.length;
            runOut(r, from, to, {start, end}, ripsNear, piece);
            piece.width = {std::max(start.value, end.value)};
        }
        const double whole = (to - from) * (out_.rows[r].width() + out_.rows[r].widthAtEnd()) / 2;
        const double full = piece.ripAtStart.value <= 0 ? 0
                            : piece.ripFrom.value > 0   ? piece.ripFrom.value
                                                        : piece.length.value - piece.ripTo.value; // not ripped of it
        const double ripped =
            ((piece.length.value - full) * (start.value + end.value) / 2 + full * std::max(start.value, end.value)) *
            stretch_;
        piece.notched = areaMm2(shape) < std::min(whole, edge ? ripped : whole) - std::max(50.0, 0.005 * whole);
        if (piece.notched)
            piece.cutAway = cutAwayOf(onBoard(shape, from, r), piece, board_,
                                      {.farKept = ripsNear && piece.ripAtStart.value > 0,
                                       .nearHidden = rules_.tongueTowardsLast ? Mm{0} : board_.tongue(),
                                       .visible = {start, end}});
        piece.factory = {.left = false,
                         .right = false,
                         .near = !(ripsNear && piece.ripAtStart.value > 0),
                         .far = !(!ripsNear && piece.ripAtStart.value > 0)};
        piece.removable = std::any_of(request_.wiring.begin(), request_.wiring.end(),
                                      [&](const Region& w) { return areaMm2(intersection(w, placed(shape))) > 1; });
        cutMm_ += board_.overall.value + (piece.ripAtStart.value > 0 ? piece.length.value : 0);
        if (piece.notched) cutMm_ += 2 * board_.cover.value;
        piece.shape = placed(shape);
        out_.pieces.push_back(std::move(piece));
    }

    /// Whether a side that tapers bites into a row beyond one of its lines, over a stretch. @param way  1: from below
    [[nodiscard]] bool crossedBy(const Line& side, const Line& line, double from, double to, double way) const {
        constexpr double kBites = 0.5; // mm
        const auto bites = [&](double x) {
            const double share = (x - bounds_.low.x) / std::max(1.0, bounds_.width());
            return (side.at(share) - line.at(share)) * way > kBites;
        };
        return side.atStart != side.atEnd && (bites(from) || bites(to));
    }

    /// A piece's shape along its board, from the near edge of the whole width that is seen of one.
    [[nodiscard]] Region onBoard(Region shape, double from, std::size_t row) const {
        for (Ring& ring : shape.rings)
            for (Point& p : ring) {
                const double share = (p.x - bounds_.low.x) / std::max(1.0, bounds_.width());
                const double near =
                    row == 0 ? lines_[1].at(share) - board_.cover.value * stretch_ : lines_[row].at(share);
                p = {(p.x - from) * stretch_ + (atEnd(from) ? returnAllowance() : 0), (p.y - near) / stretch_};
            }
        return shape;
    }

    /// Where the sides take more of a row at one end than there is of it, its cut begins or ends on the way: there all
    /// of the board is seen.
    void runOut(std::size_t row, double from, double to, std::array<Mm, 2> visible, bool ripsNear, Piece& piece) const {
        const auto shareAt = [&](double x) { return (x - bounds_.low.x) / std::max(1.0, bounds_.width()); };
        // As wide as the sides leave room for, were the board no narrower than that.
        const auto room = [&](double x) {
            const double share = shareAt(x);
            const double low = ripsNear ? lowSide_.at(share) : std::max(lines_[row].at(share), lowSide_.at(share));
            const double high =
                ripsNear ? std::min(lines_[row + 1].at(share), highSide_.at(share)) : highSide_.at(share);
            return (high - low) / stretch_;
        };
        const double cover = board_.cover.value, a = room(from), b = room(to);
        const auto straight = [&](double raw, Mm seen) { return std::abs(std::min(raw, cover) - seen.value) < 0.5; };
        if (!straight(a, visible[0]) || !straight(b, visible[1]) || std::abs(b - a) < 1e-6) return;
        const Mm where{(cover - a) / (b - a) * (to - from) * stretch_ + (atEnd(from) ? returnAllowance() : 0)};
        if (a > cover + 1e-3 && b < cover - 1e-3) piece.ripFrom = where;
        if (b > cover + 1e-3 && a < cover - 1e-3) piece.ripTo = where;
    }

    /// Height of a row between its own lines and the sides, at a share of the rows' length.
    [[nodiscard]] double visibleBetween(std::size_t row, double share) const {
        const double low = std::max(lines_[row].at(share), lowSide_.at(share));
        const double high = std::min(lines_[row + 1].at(share), highSide_.at(share));
        return std::max(0.0, high - low);
    }

    /// Visible width of a row at x: between its own lines and the sides of the surface.
    [[nodiscard]] Mm visibleAt(std::size_t row, double x, const Region& shape) const {
        double visible = visibleBetween(row, (x - bounds_.low.x) / std::max(1.0, bounds_.width()));
        // A curved side lies inside the bounds: the piece's own height there.
        const Bounds b = boundsOf(shape);
        // A little inside: an end that leans is sawn askew, not ripped.
        const double margin = std::min(kLeastStretchMm, b.width() / 2);
        const double inside = std::clamp(x, b.low.x + margin, b.high.x - margin);
        const double there = visibleBetween(row, (inside - bounds_.low.x) / std::max(1.0, bounds_.width()));
        if (const double own = heightAt(shape, inside); own > 0 && (row == 0 || row + 1 == out_.rows.size()))
            visible = std::abs(own - there) < 1 ? visible : own;
        return {std::max(0.0, visible / stretch_)};
    }

    [[nodiscard]] Point back(Point p) const {
        p.y += slope_ * p.x;
        return rules_.across ? Point{p.y, p.x} : p;
    }
    [[nodiscard]] Region placed(const Region& shape) const {
        Region r = sheared(shape, -slope_);
        return rules_.across ? transposed(r) : r;
    }

    void judge() {
        const double third = board_.cover.value / 3;
        const double narrowest = std::min(narrowFirst_, narrowLast_).value;
        double sliver = third;
        int at = -1;
        for (std::size_t i = 0; i < out_.pieces.size(); ++i) {
            const Piece& p = out_.pieces[i];
            const bool edge = p.row == 0 || p.row + 1 == static_cast<int>(out_.rows.size());
            if (edge && p.ripAtStart.value > 0) continue;
            if (p.narrowest.value <= 0 || p.narrowest.value >= third - kLevel) continue;
            ++out_.slivers;
            if (p.narrowest.value < sliver) {
                sliver = p.narrowest.value;
                at = static_cast<int>(i);
            }
        }
        checkEdge("first row", narrowFirst_, board_.cover, out_.remarks);
        if (out_.rows.size() > 1) checkEdge("last row", narrowLast_, board_.cover, out_.remarks);
        if (out_.slivers > 0)
            out_.remarks.push_back(
                {Severity::Warning,
                 {"", Part::Piece, at},
                 RemarkKind::CutoutSliver,
                 {{"count", std::int64_t{out_.slivers}}, {"width", Mm{sliver}}, {"limit", Mm{third}}},
                 {}});
        const auto total = static_cast<std::int64_t>(out_.joints.size());
        if (plan_.offSupport > 0)
            out_.remarks.push_back({Severity::Warning,
                                    {"", Part::Rule},
                                    RemarkKind::JointsOffSupport,
                                    {{"count", std::int64_t{plan_.offSupport}}, {"total", total}},
                                    {}});
        if (plan_.inLine > 0)
            out_.remarks.push_back(
                {Severity::Warning,
                 {"", Part::Rule},
                 RemarkKind::JointsInLine,
                 {{"count", std::int64_t{plan_.inLine}}, {"bays", static_cast<std::int64_t>(rules_.staggerBays)}},
                 {}});
        lamps();
        Judgement& j = out_.figures;
        j.narrowestEdge = {narrowest};
        j.unevenness = {std::abs(out_.firstRow.value - out_.lastRow.value)};
        double off = std::fmod(std::abs(lines_[std::min<std::size_t>(1, lines_.size() - 1)].atStart - *out_.centreLine),
                               cover_ / 2);
        off = std::min(off, cover_ / 2 - off);
        j.offCentre = {off};
        j.slivers = out_.slivers;
        j.jointsOffSupport = plan_.offSupport;
        j.jointsInLine = plan_.inLine;
        j.pieces = static_cast<int>(out_.pieces.size());
        j.cutLength = {cutMm_};
        j.stock = plan_.boards;
        j.leastStock = request_.lengths.size() <= 1 && plan_.cost > 0
                           ? static_cast<int>(plan_.leastCost * plan_.boards / plan_.cost)
                           : 0;
        out_.leastStock = j.leastStock;
    }

    /// Lamps lie on the middle of a row.
    void lamps() {
        for (const OpeningFact& o : request_.openings) {
            if (o.kind != OpeningKind::Lamp || o.placed.inRow > 0) continue;
            Point c = rules_.across ? Point{o.placed.centre.y, o.placed.centre.x} : o.placed.centre;
            c.y -= slope_ * c.x;
            for (const Row& row : out_.rows) {
                if (c.y < row.low || c.y >= row.high) continue;
                const double off = std::abs(c.y - (row.low + row.high) / 2);
                if (off > kLampTolerance)
                    out_.remarks.push_back({Severity::Note,
                                            {"", Part::Opening, o.placed.opening},
                                            RemarkKind::LampOffRow,
                                            {{"opening", o.name}, {"length", Mm{off}}},
                                            {}});
            }
        }
    }

    const SetOutRequest& request_;
    const Board& board_;
    const BoardRules& rules_;
    const std::stop_token& stop_;
    SetOut out_;
    double slope_ = 0;   ///< of the rows against x
    double stretch_ = 1; ///< of lengths along the rows over their extent in x
    double cover_ = 0;   ///< in y
    Region net_;         ///< in row coordinates
    Bounds bounds_;
    Line lowSide_, highSide_;
    Mm narrowFirst_, narrowLast_; ///< of the edge rows, at the narrow end of a taper
    std::vector<Line> lines_;     ///< between rows, first and last edge included
    std::vector<Run> runs_;
    std::vector<Region> parts_; ///< of each run
    JointPlan plan_;
    double cutMm_ = 0;
};

SetOut setOut(const SetOutRequest& r, const std::stop_token& stop) {
    const Board board = boardOf(r.product);
    SetOut out;
    out.remarks = checkBoard(board, r.product.name);
    if (!out.remarks.empty()) return out;
    return setOutBoards(r, board, boardRulesOf(r.rules), stop);
}

std::vector<StartChoice> choices(const SetOutRequest& request, const std::stop_token& stop) {
    const Board board = boardOf(request.product);
    if (!checkBoard(board, "").empty()) return {};
    std::vector<StartChoice> found;
    const BoardRules now = boardRulesOf(request.rules);
    const auto add = [&](const BoardRules& rules, FieldValues change, bool onStrip) {
        const SetOut s = setOutBoards(request, board, rules, stop);
        if (stop.stop_requested() || !s.laid()) return false;
        // "Full length" is no other way where no stock is as long.
        const bool tooLong = std::any_of(s.remarks.begin(), s.remarks.end(),
                                         [](const Remark& r) { return r.kind == RemarkKind::RunLongerThanStock; });
        if (!onStrip && rules.jointing == Jointing::FullLength && tooLong) return true;
        found.push_back(choiceOf(s, std::move(change), onStrip));
        return true;
    };
    for (double offset = 0; offset < board.cover.value - 0.5; offset += 1) {
        BoardRules at = now;
        tell(request, 0.8 * offset / board.cover.value);
        at.start = BoardStart::ByHand;
        at.startOffset = {offset};
        if (at.jointing == Jointing::FewestBoards) at.jointing = Jointing::Alternating; // the strip is drawn at once
        if (!add(at, {{"start", static_cast<double>(BoardStart::ByHand)}, {"startOffset", offset}}, true)) return {};
    }
    for (const bool across : {now.across, !now.across})
        for (const Jointing jointing : {Jointing::FullLength, Jointing::Alternating, Jointing::FewestBoards})
            for (const BoardStart start : {BoardStart::BoardCentred, BoardStart::JointCentred, BoardStart::FirstEdge}) {
                BoardRules at = now;
                at.across = across;
                at.jointing = jointing;
                at.start = start;
                if (!add(at,
                         {{"direction", across ? 1.0 : 0.0},
                          {"jointing", static_cast<double>(jointing)},
                          {"start", static_cast<double>(start)}},
                         false) &&
                    stop.stop_requested())
                    return {};
            }
    return found;
}

} // namespace

std::span<const Field> boardRuleFields() { return kRules; }

BoardRules boardRulesOf(const FieldValues& rules) {
    const auto value = [&](std::string_view key) { return valueOf(rules, kRules, key); };
    const auto whole = [&](std::string_view key) { return static_cast<int>(value(key)); };
    return {.across = value("direction") != 0,
            .start = static_cast<BoardStart>(whole("start")),
            .startOffset = {value("startOffset")},
            .centre = static_cast<CentreRule>(whole("centre")),
            .openingA = whole("openingA"),
            .openingB = whole("openingB"),
            .gap = {value("gap")},
            .jointing = static_cast<Jointing>(whole("jointing")),
            .staggerBays = whole("staggerBays"),
            .endLeast = {value("endLeast")},
            .tongueTowardsLast = value("tongues") != 0,
            .taperBoards = whole("taperBoards"),
            .returns = static_cast<BoardReturn>(whole("returns")),
            .returnAngleRad = value("returnAngle") * std::numbers::pi / 180,
            .hiddenBare = value("hidden") != 0,
            .bearing = {value("bearing")}};
}

SetOutFamily boardSetOut() {
    static constexpr std::array<std::string_view, 2> kStartRules{"start", "startOffset"};
    return {"boards",
            kRules,
            setOut,
            choices,
            [](Mm offset) {
                return FieldValues{{"start", static_cast<double>(BoardStart::ByHand)}, {"startOffset", offset.value}};
            },
            nullptr,
            kStartRules};
}

SetOut setOutBoards(const SetOutRequest& request, const Board& board, const BoardRules& rules,
                    const std::stop_token& stop) {
    return Cladding(request, board, rules, stop).lay();
}

} // namespace westrum
