#include "core/setout/tiling.h"

#include "core/geometry/boolean.h"
#include "core/setout/piece_width.h"
#include "core/units/count.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <numeric>

namespace westrum {
namespace {

constexpr double kLevel = 1e-6;
constexpr double kLeastTileMm2 = 1; ///< what covers less of a cell is none; what lacks less of it is whole

constexpr std::array<std::string_view, 6> kStarts{"a tile on the centre",
                                                  "a joint on the centre",
                                                  "from the first corner",
                                                  "from the last corner",
                                                  "by hand",
                                                  "runs on"};
constexpr std::array<std::string_view, 3> kBonds{"grid", "half bond", "third bond"};

constexpr std::array<Field, 14> kRules{{
    {"startX", "columns start", FieldUnit::Choice, 0, 5, 0, kStarts},
    {"startY", "rows start", FieldUnit::Choice, 0, 5, 0, kStarts},
    {"columnOffset", "cut off the first column", FieldUnit::Length, 0, 1500, 0},
    {"startOffset", "cut off the first row", FieldUnit::Length, 0, 1500, 0},
    {"centre", "centred on", FieldUnit::Choice, 0, 1, 1, std::span(kCentres).first(2)},
    {"bond", "bond", FieldUnit::Choice, 0, 2, 0, kBonds},
    {"joint", "joint width", FieldUnit::Length, 0, 20, 2},
    {"gap", "movement gap", FieldUnit::Length, 0, 100, 3},
    {"leastCut", "least cut, share of a tile", FieldUnit::Share, 0, 0.9, 0.3333333333333333},
    {"borderHeight", "height of a border row", FieldUnit::Length, 0, 1500, 0},
    {"borderAfter", "rows below the border", FieldUnit::Count, 0, 200, 1},
    {"reuse", "use what is left of a cut tile", FieldUnit::Flag, 0, 1, 1},
    {"hidden", "hidden parts left bare", FieldUnit::Flag, 0, 1, 0},
    {"bearing", "reaches under furniture by", FieldUnit::Length, 0, 500, 50},
}};

/// The straight edges of a region, to tell quickly which cells lie wholly in or out.
class Outline {
public:
    explicit Outline(const Region& region) : region_(region) {
        for (const Ring& ring : region.rings)
            for (std::size_t i = 0; i < ring.size(); ++i) edges_.emplace_back(ring[i], ring[(i + 1) % ring.size()]);
    }
    /// What of the cell the region covers.
    [[nodiscard]] Region within(double x, double y, double w, double h) const {
        const auto touches = [&](const std::pair<Point, Point>& e) {
            return std::max(e.first.x, e.second.x) > x - kLevel && std::min(e.first.x, e.second.x) < x + w + kLevel &&
                   std::max(e.first.y, e.second.y) > y - kLevel && std::min(e.first.y, e.second.y) < y + h + kLevel;
        };
        const Ring cell = rectangle(x, y, w, h);
        if (std::any_of(edges_.begin(), edges_.end(), touches)) return intersection(region_, {{cell}});
        return contains(region_, {x + w / 2, y + h / 2}) ? Region{{cell}} : Region{};
    }

private:
    const Region& region_;
    std::vector<std::pair<Point, Point>> edges_;
};

double bondShift(Bond bond, long row) {
    const long n = bond == Bond::Half ? 2 : bond == Bond::Third ? 3 : 1;
    return static_cast<double>(((row % n) + n) % n) / static_cast<double>(n);
}

/// Cut tiles share tiles: each takes a rectangle out of a tile, and what is left of it serves the next that fits.
class TileSharer {
public:
    TileSharer(const Tile& tile, bool reuse) : tile_(tile), reuse_(reuse) {}
    /// The tile, by number, that gives a piece of this size.
    int take(double w, double h) {
        if (reuse_)
            for (std::size_t i = 0; i < left_.size(); ++i)
                if (left_[i].w >= w - kLevel && left_[i].h >= h - kLevel) {
                    const Left from = left_[i];
                    left_.erase(left_.begin() + static_cast<std::ptrdiff_t>(i));
                    part(from, w, h);
                    return from.tile;
                }
        part({tiles_, tile_.width.value, tile_.height.value}, w, h);
        return tiles_++;
    }
    [[nodiscard]] int tiles() const { return tiles_; }

private:
    struct Left {
        int tile;
        double w, h;
    };
    /// What is left beside and above: parted so that the larger rest stays in one.
    void part(const Left& from, double w, double h) {
        const double besideW = from.w - w - tile_.kerf.value, aboveH = from.h - h - tile_.kerf.value;
        const bool wideAbove = from.w * std::max(0.0, aboveH) > from.h * std::max(0.0, besideW);
        const Left beside{from.tile, besideW, wideAbove ? h : from.h};
        const Left above{from.tile, wideAbove ? from.w : w, aboveH};
        for (const Left& l : {beside, above})
            if (l.w >= 5 && l.h >= 5) left_.push_back(l);
        std::stable_sort(left_.begin(), left_.end(),
                         [](const Left& a, const Left& b) { return a.w * a.h < b.w * b.h; });
    }

    const Tile& tile_;
    bool reuse_;
    std::vector<Left> left_;
    int tiles_ = 0;
};

class Tiling {
public:
    Tiling(const SetOutRequest& request, const Tile& tile, const TileRules& rules, const std::stop_token& stop)
        : request_(request), tile_(tile), rules_(rules), stop_(stop) {}

    SetOut lay() {
        out_.net = insetBy(toCover(request_, rules_.hiddenBare, rules_.bearing, rules_.gap), rules_.gap);
        if (nothingLeft(out_.net, rules_.gap, out_.remarks)) return std::move(out_);
        bounds_ = boundsOf(out_.net);
        pitchX_ = tile_.width.value + rules_.joint.value;
        pitchY_ = tile_.height.value + rules_.joint.value;
        if (tooMany((bounds_.width() / pitchX_ + 2) * (bounds_.height() / pitchY_ + 2), out_.remarks))
            return std::move(out_);
        const double x0 = originX(), y0 = originY();
        findRows(y0);
        findCells(x0);
        if (stop_.stop_requested()) return std::move(out_);
        share();
        judge(x0);
        return std::move(out_);
    }

private:
    /// Lower edge of one tile in a direction, by where the grid starts there.
    [[nodiscard]] double originOf(TileStart start, double low, double high, double tile, double centre, Mm offset,
                                  std::optional<double> runsOn) {
        switch (start) {
        case TileStart::TileCentred: return centre - tile / 2;
        case TileStart::JointCentred: return centre + rules_.joint.value / 2;
        case TileStart::LowCorner: return low;
        case TileStart::HighCorner: return high - tile;
        case TileStart::ByHand: return low - std::min(offset.value, tile - 1);
        case TileStart::RunsOn: return runsOn.value_or(centre - tile / 2);
        }
        return low;
    }
    [[nodiscard]] double originX() {
        const double own = (bounds_.low.x + bounds_.high.x) / 2;
        const double centre = rules_.centre == CentreRule::Visible ? request_.visibleCentreX.value_or(own) : own;
        centreX_ = centre;
        std::optional<double> on;
        if (request_.runsOnFrom) on = bounds_.low.x - *request_.runsOnFrom;
        if (rules_.startX == TileStart::RunsOn && !on)
            out_.remarks.push_back({Severity::Warning,
                                    {"", Part::Rule},
                                    RemarkKind::NothingToRunOn,
                                    {},
                                    Fix{FixKind::SetRule, "startX", 0.0}});
        return originOf(rules_.startX, bounds_.low.x, bounds_.high.x, tile_.width.value, centre, rules_.offsetX, on);
    }
    [[nodiscard]] double originY() {
        const double own = (bounds_.low.y + bounds_.high.y) / 2;
        const double centre = rules_.centre == CentreRule::Visible ? request_.visibleCentreY.value_or(own) : own;
        out_.centreLine = centre;
        std::optional<double> on;
        if (request_.datum) on = (request_.datum->left.y + request_.datum->right.y) / 2 + rules_.joint.value / 2;
        if (rules_.startY == TileStart::RunsOn && !on)
            out_.remarks.push_back({Severity::Warning,
                                    {"", Part::Rule},
                                    RemarkKind::DatumMissing,
                                    {},
                                    Fix{FixKind::SetRule, "startY", 0.0}});
        return originOf(rules_.startY, bounds_.low.y, bounds_.high.y, tile_.height.value, centre, rules_.offsetY, on);
    }

    /// Where the start rule wants its line: what lies below it may not move it.
    [[nodiscard]] double lineY() const {
        switch (rules_.startY) {
        case TileStart::HighCorner: return bounds_.high.y;
        case TileStart::TileCentred:
        case TileStart::JointCentred: return out_.centreLine.value_or(bounds_.low.y);
        case TileStart::RunsOn:
            return request_.datum ? (request_.datum->left.y + request_.datum->right.y) / 2
                                  : out_.centreLine.value_or(bounds_.low.y);
        case TileStart::LowCorner:
        case TileStart::ByHand: break;
        }
        return bounds_.low.y;
    }

    /// A border row lifts all that lies above it: where it lies below the line that the rows start from, they begin as
    /// much lower.
    void findRows(double y0) {
        if (rules_.borderHeight.value > 0) {
            rowsFrom(y0 - rules_.borderHeight.value - rules_.joint.value);
            if (borderRow_ >= 0 && out_.rows[static_cast<std::size_t>(borderRow_)].high <= lineY() + kLevel) return;
            out_.rows.clear();
            numbers_.clear();
            borderRow_ = -1;
        }
        rowsFrom(y0);
    }

    /// Rows from the lowest that shows; a border row of its own height is let in after so many.
    void rowsFrom(double y0) {
        double y = y0 + std::floor((bounds_.low.y - y0 + kLevel) / pitchY_) * pitchY_;
        long number = std::lround((y - y0) / pitchY_);
        for (int k = 0; y < bounds_.high.y - kLevel; ++k) {
            const bool border = rules_.borderHeight.value > 0 && k == rules_.borderAfter;
            const double h = border ? rules_.borderHeight.value : tile_.height.value;
            if (y + h > bounds_.low.y + kLevel) {
                out_.rows.push_back({y, y + h});
                numbers_.push_back(border ? 0 : number);
                if (border) borderRow_ = static_cast<int>(out_.rows.size()) - 1;
            } else {
                --k; // lies wholly below: a joint at the edge
            }
            if (!border) ++number;
            y += h + rules_.joint.value;
        }
    }

    void findCells(double x0) {
        const Outline outline(out_.net);
        const double w = tile_.width.value;
        for (std::size_t r = 0; r < out_.rows.size(); ++r) {
            const double shift = x0 + bondShift(rules_.bond, numbers_[r]) * pitchX_;
            double x = shift + std::floor((bounds_.low.x - shift) / pitchX_ + kLevel) * pitchX_;
            int inRow = 0;
            for (; x < bounds_.high.x - kLevel; x += pitchX_) {
                const Row& row = out_.rows[r];
                const Region part = outline.within(x, row.low, w, row.width());
                const double area = areaMm2(part), cell = w * row.width();
                if (area <= kLeastTileMm2) continue;
                Piece piece;
                piece.row = static_cast<int>(r);
                piece.inRow = inRow++;
                piece.name = std::to_string(r + 1) + "." + std::to_string(inRow);
                const bool whole = area >= cell - kLeastTileMm2;
                const Bounds b = boundsOf(part);
                piece.kind = whole && static_cast<int>(r) != borderRow_ ? PieceKind::Whole : PieceKind::Cut;
                piece.length = {whole ? w : b.width()};
                piece.width = {whole ? row.width() : b.height()};
                piece.narrowest = {whole ? std::min(w, row.width()) : std::min(b.width(), narrowestOf(part))};
                if (!whole && piece.narrowest.value <= 0) piece.narrowest = {std::min(b.width(), b.height())};
                piece.notched = !whole && area < b.width() * b.height() - std::max(20.0, 0.002 * cell);
                piece.factory = {.left = b.low.x <= x + kLevel,
                                 .right = b.high.x >= x + w - kLevel,
                                 .near = b.low.y <= row.low + kLevel,
                                 .far = b.high.y >= row.high - kLevel};
                piece.shape = whole ? Region{{rectangle(x, row.low, w, row.width())}} : part;
                out_.pieces.push_back(std::move(piece));
            }
            if (stop_.stop_requested()) return;
        }
        if (out_.pieces.size() == 1 && out_.pieces.front().kind == PieceKind::Cut)
            out_.remarks.push_back({Severity::Note,
                                    {"", Part::Piece, 0},
                                    RemarkKind::TileLargerThanSurface,
                                    {{"width", tile_.width}, {"limit", Mm{bounds_.width()}}},
                                    {}});
    }

    /// Which tile each piece comes out of: whole ones their own, cut ones as they can share, the largest first.
    void share() {
        std::vector<int> cuts;
        for (std::size_t i = 0; i < out_.pieces.size(); ++i) {
            Piece& p = out_.pieces[i];
            if (p.kind != PieceKind::Whole) {
                cuts.push_back(static_cast<int>(i));
                continue;
            }
            p.stock = static_cast<int>(out_.stock.size());
            out_.stock.push_back({.pieces = {static_cast<int>(i)}, .cuts = {}, .offcuts = {}});
        }
        std::stable_sort(cuts.begin(), cuts.end(), [&](int a, int b) {
            const auto area = [&](int i) {
                return out_.pieces[static_cast<std::size_t>(i)].length.value *
                       out_.pieces[static_cast<std::size_t>(i)].width.value;
            };
            return area(a) > area(b) + kLevel;
        });
        const auto wholes = static_cast<int>(out_.stock.size());
        TileSharer sharer(tile_, rules_.reuse);
        for (const int i : cuts) {
            Piece& p = out_.pieces[static_cast<std::size_t>(i)];
            // A border row taller than the tile cannot be cut from it; it is its own product then, one a piece.
            const int tile = sharer.take(p.length.value, std::min(p.width.value, tile_.height.value));
            p.stock = wholes + tile;
            p.fromOffcut = p.stock < static_cast<int>(out_.stock.size());
            if (!p.fromOffcut) out_.stock.emplace_back();
            StockUnit& unit = out_.stock[static_cast<std::size_t>(p.stock)];
            unit.pieces.push_back(i);
            if (p.length < tile_.width - Mm{kLevel}) unit.cuts.push_back({CutKind::Cross, p.length});
            if (p.width < tile_.height - Mm{kLevel}) unit.cuts.push_back({CutKind::Rip, p.width});
            if (p.notched) unit.cuts.push_back({CutKind::Shape, {}});
            cutMm_ += (p.length < tile_.width ? p.width.value : 0) + (p.width < tile_.height ? p.length.value : 0);
        }
    }

    void judge(double x0) {
        const double least = std::min(tile_.width, tile_.height).value * rules_.leastCut;
        out_.module = pitchY_;
        out_.columnModule = pitchX_;
        out_.jointWidth = rules_.joint;
        const Row &first = out_.rows.front(), &last = out_.rows.back();
        out_.firstRow = {std::min(first.high, bounds_.high.y) - std::max(first.low, bounds_.low.y)};
        out_.lastRow = {std::min(last.high, bounds_.high.y) - std::max(last.low, bounds_.low.y)};
        out_.startOffset = {std::max(0.0, first.width() - out_.firstRow.value)};
        out_.startLine = first.high;
        // Columns are measured in the first row of the grid, unshifted.
        double x = x0 + std::floor((bounds_.low.x - x0) / pitchX_ + kLevel) * pitchX_;
        if (x + tile_.width.value <= bounds_.low.x + kLevel) x += pitchX_;
        out_.firstColumn = {std::min(x + tile_.width.value, bounds_.high.x) - std::max(x, bounds_.low.x)};
        out_.columnOffset = {tile_.width.value - out_.firstColumn.value};
        out_.startColumn = x + tile_.width.value;
        double end = x0 + std::floor((bounds_.high.x - x0 - kLevel) / pitchX_) * pitchX_;
        out_.lastColumn = {std::min({bounds_.high.x - end, tile_.width.value, bounds_.width()})};
        Judgement& j = out_.figures;
        double narrowestCut = least;
        for (std::size_t i = 0; i < out_.pieces.size(); ++i) {
            const Piece& p = out_.pieces[i];
            if (p.kind == PieceKind::Whole) continue;
            const double narrow = std::min({p.length.value, p.width.value, p.narrowest.value});
            if (narrow >= least - kLevel) continue;
            ++out_.slivers;
            if (narrow < narrowestCut) {
                narrowestCut = narrow;
                sliverAt_ = static_cast<int>(i);
            }
        }
        if (out_.slivers > 0)
            out_.remarks.push_back(
                {Severity::Warning,
                 {"", Part::Piece, sliverAt_},
                 RemarkKind::CutTileSliver,
                 {{"count", std::int64_t{out_.slivers}}, {"width", Mm{narrowestCut}}, {"limit", Mm{least}}},
                 {}});
        j.narrowestEdge = std::min({out_.firstRow, out_.lastRow, out_.firstColumn, out_.lastColumn});
        j.unevenness = {std::max(std::abs(out_.firstRow.value - out_.lastRow.value),
                                 std::abs(out_.firstColumn.value - out_.lastColumn.value))};
        const auto off = [](double line, double centre, double pitch) {
            const double d = std::fmod(std::abs(line - centre), pitch / 2);
            return std::min(d, pitch / 2 - d);
        };
        // Rows above a border keep the line where it lies above the border too.
        const bool above = borderRow_ >= 0 && borderRow_ + 1 < static_cast<int>(out_.rows.size()) &&
                           out_.rows[static_cast<std::size_t>(borderRow_)].high <= *out_.centreLine;
        const double row = above ? out_.rows[static_cast<std::size_t>(borderRow_) + 1].low : first.low;
        j.offCentre = {std::max(off(row + tile_.height.value / 2, *out_.centreLine, pitchY_),
                                off(x0 + tile_.width.value / 2, centreX_, pitchX_))};
        j.slivers = out_.slivers;
        j.pieces = static_cast<int>(out_.pieces.size());
        j.cutLength = {cutMm_};
        j.stock = static_cast<int>(out_.stock.size());
        // No fewer tiles than their area, joints aside.
        double area = 0;
        for (const Piece& p : out_.pieces) area += areaMm2(p.shape);
        j.leastStock = static_cast<int>(roundUp(area / (tile_.width.value * tile_.height.value) - 1e-6));
        out_.leastStock = j.leastStock;
    }

    const SetOutRequest& request_;
    const Tile& tile_;
    const TileRules& rules_;
    const std::stop_token& stop_;
    SetOut out_;
    Bounds bounds_;
    double pitchX_ = 0, pitchY_ = 0, centreX_ = 0, cutMm_ = 0;
    std::vector<long> numbers_; ///< of each row in the grid, for the bond
    int borderRow_ = -1, sliverAt_ = -1;
};

SetOut setOut(const SetOutRequest& r, const std::stop_token& stop) {
    const Tile tile = tileOf(r.product);
    const TileRules rules = tileRulesOf(r.rules);
    SetOut out;
    out.remarks = checkTile(tile, rules.joint, r.product.name);
    if (!out.remarks.empty()) return out;
    return setOutTiles(r, tile, rules, stop);
}

std::vector<StartChoice> choices(const SetOutRequest& request, const std::stop_token& stop) {
    const Tile tile = tileOf(request.product);
    const TileRules now = tileRulesOf(request.rules);
    if (!checkTile(tile, now.joint, "").empty()) return {};
    std::vector<StartChoice> found;
    const auto add = [&](const TileRules& rules, FieldValues change, bool onStrip) {
        const SetOut s = setOutTiles(request, tile, rules, stop);
        if (stop.stop_requested() || !s.laid()) return false;
        found.push_back(choiceOf(s, std::move(change), onStrip));
        return true;
    };
    // A large tile's strip is drawn in steps, so that it is there at once.
    const double step = std::max(1.0, std::ceil(tile.height.value / 200));
    for (double offset = 0; offset < tile.height.value - 0.5; offset += step) {
        TileRules at = now;
        tell(request, 0.8 * offset / tile.height.value);
        at.startY = TileStart::ByHand;
        at.offsetY = {offset};
        if (!add(at, {{"startY", static_cast<double>(TileStart::ByHand)}, {"startOffset", offset}}, true)) return {};
    }
    constexpr std::array kTried{TileStart::TileCentred, TileStart::JointCentred, TileStart::LowCorner,
                                TileStart::HighCorner};
    for (const TileStart x : kTried)
        for (const TileStart y : kTried) {
            TileRules at = now;
            at.startX = x;
            at.startY = y;
            if (!add(at, {{"startX", static_cast<double>(x)}, {"startY", static_cast<double>(y)}}, false)) return {};
        }
    return found;
}

} // namespace

std::span<const Field> tileRuleFields() { return kRules; }

TileRules tileRulesOf(const FieldValues& rules) {
    const auto value = [&](std::string_view key) { return valueOf(rules, kRules, key); };
    return {.startX = static_cast<TileStart>(static_cast<int>(value("startX"))),
            .startY = static_cast<TileStart>(static_cast<int>(value("startY"))),
            .offsetX = {value("columnOffset")},
            .offsetY = {value("startOffset")},
            .centre = static_cast<CentreRule>(static_cast<int>(value("centre"))),
            .bond = static_cast<Bond>(static_cast<int>(value("bond"))),
            .joint = {value("joint")},
            .gap = {value("gap")},
            .leastCut = value("leastCut"),
            .borderHeight = {value("borderHeight")},
            .borderAfter = static_cast<int>(value("borderAfter")),
            .reuse = value("reuse") != 0,
            .hiddenBare = value("hidden") != 0,
            .bearing = {value("bearing")}};
}

SetOutFamily tileSetOut() {
    static constexpr std::array<std::string_view, 2> kStartRules{"startY", "startOffset"};
    return {"tiles",
            kRules,
            setOut,
            choices,
            [](Mm offset) {
                return FieldValues{{"startY", static_cast<double>(TileStart::ByHand)}, {"startOffset", offset.value}};
            },
            [](Mm offset) {
                return FieldValues{{"startX", static_cast<double>(TileStart::ByHand)}, {"columnOffset", offset.value}};
            },
            kStartRules};
}

double groutKgPerM2(Mm width, Mm height, Mm joint, Mm depth, double densityKgPerDm3) {
    const double share = 1 - width.value * height.value / ((width + joint).value * (height + joint).value);
    return share * depth.value * densityKgPerDm3;
}

double groutByFormulaKgPerM2(Mm width, Mm height, Mm joint, Mm depth, double densityKgPerDm3) {
    return (width.value + height.value) / (width.value * height.value) * depth.value * joint.value * densityKgPerDm3;
}

Kg groutFor(const SetOut& setOut, const Tile& tile) {
    // Joints of the factory between the chips of a mosaic; else of the rule between the tiles.
    const Mm joint = tile.mosaic() && tile.joint.value > 0 ? tile.joint : setOut.jointWidth;
    return {areaMm2(setOut.net) / 1e6 *
            groutKgPerM2(tile.mosaic() ? tile.chipWidth : tile.width, tile.mosaic() ? tile.chipHeight : tile.height,
                         joint, tile.thickness, kGroutKgPerDm3)};
}

SetOut setOutTiles(const SetOutRequest& request, const Tile& tile, const TileRules& rules,
                   const std::stop_token& stop) {
    return Tiling(request, tile, rules, stop).lay();
}

} // namespace westrum
