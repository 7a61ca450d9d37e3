#include "core/setout/cushion.h"

#include "core/geometry/boolean.h"
#include "core/measure/developed.h"
#include "core/setout/common_rules.h"
#include "core/setout/cushion_edges.h"
#include "core/setout/lining.h"
#include "core/setout/pattern.h"
#include "core/units/count.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr std::array<std::string_view, 3> kStyles{"boxed cushion", "knife-edge cushion", "wrapped on its board"};
constexpr std::array<std::string_view, 5> kZips{"upper side", "lower side", "left side", "right side", "no zip"};
constexpr std::array<std::string_view, 3> kPipings{"none", "straight strips", "bias strips"};
constexpr std::array<std::string_view, 5> kPiles{"as usual", "drawn downwards", "drawn upwards", "drawn to the left",
                                                 "drawn to the right"};
constexpr std::array<Field, 17> kRules{{
    {"style", "made as", FieldUnit::Choice, 0, 2, 0, kStyles},
    {"cushions", "cushions beside each other", FieldUnit::Count, 1, 12, 1},
    {"gap", "short of the walls by", FieldUnit::Length, 0, 100, 5},
    {"height", "height, 0 as its foam", FieldUnit::Length, 0, 500, 0},
    {"seam", "seam allowance", FieldUnit::Length, 3, 50, 12},
    {"zip", "zip in the", FieldUnit::Choice, 0, 4, 0, kZips},
    {"zipAllowance", "allowance at the zip", FieldUnit::Length, 3, 60, 20},
    {"ease", "foam larger by", FieldUnit::Length, 0, 60, 15},
    {"easeHeight", "foam higher by", FieldUnit::Length, 0, 40, 0},
    {"piping", "piping", FieldUnit::Choice, 0, 2, 0, kPipings},
    {"cord", "cord", FieldUnit::Length, 2, 20, 5},
    {"overlap", "piping overlaps by", FieldUnit::Length, 0, 200, 40},
    {"turnUnder", "turned round the board", FieldUnit::Length, 0, 150, 40},
    {"pile", "nap lies", FieldUnit::Choice, 0, 4, 1, kPiles},
    {"railroad", "cloth turned, length along the borders", FieldUnit::Flag, 0, 1, 0},
    {"matched", "pattern goes on from cushion to cushion", FieldUnit::Flag, 0, 1, 0},
    {"plainBottom", "bottom of plain lining", FieldUnit::Flag, 0, 1, 0},
}};

constexpr double kCornerRad = 20 * std::numbers::pi / 180;
constexpr double kThin = 80;         // mm: a part narrower than this is hard to fill
constexpr double kShown = 26;        // mm between panels as they are drawn
constexpr double kTick = 8;          // mm of a notch
constexpr double kThreadPerSeam = 3; // of thread, top and bottom, to a length of seam
constexpr double kZipBeyond = 50;    // mm longer than its opening
constexpr double kStapleApart = 25;  // mm

/// A region without its holes.
Region outerOf(const Region& region) {
    Region outer;
    for (const Ring& r : region.rings)
        if (signedArea(r) > 0) outer.rings.push_back(r);
    return outer;
}

/// The same margin all round a ring, corners square to the mitre.
Region grownBy(const Region& region, double by) {
    if (by <= 0) return region;
    // Outwards is inwards of what is around it.
    const Bounds b = boundsOf(region);
    const double room = 4 * by + 100;
    const Region around{{rectangle(b.low.x - room, b.low.y - room, b.width() + 2 * room, b.height() + 2 * room)}};
    const Region rest = inset(difference(around, region), by);
    Region frame = difference(inset(around, by), rest);
    return frame;
}

/// Cushions beside each other: the outline less the gap, parted along its longer way.
std::vector<Region> cushionsOn(const Region& net, const CushionRules& rules) {
    if (rules.cushions <= 1) return partsOf(net);
    const Bounds b = boundsOf(net);
    const bool alongX = b.width() >= b.height();
    const double low = alongX ? b.low.x : b.low.y, size = alongX ? b.width() : b.height();
    const double half = rules.gap.value / 2;
    std::vector<Region> all;
    for (int k = 0; k < rules.cushions; ++k) {
        const double from = low + size * k / rules.cushions + (k > 0 ? half : 0);
        const double to = low + size * (k + 1) / rules.cushions - (k + 1 < rules.cushions ? half : 0);
        if (to <= from) continue;
        const Region band{{alongX ? rectangle(from, b.low.y - 1, to - from, b.height() + 2)
                                  : rectangle(b.low.x - 1, from, b.width() + 2, to - from)}};
        for (Region& part : partsOf(intersection(net, band))) all.push_back(std::move(part));
    }
    return all;
}

/// Upholstery on an outline, from the cushions to the panels that are cut.
class Upholstery {
public:
    Upholstery(const SetOutRequest& request, const RollGoods& cloth, const CushionRules& rules)
        : request_(request), cloth_(cloth), rules_(rules) {}

    SetOut run() {
        const int pile = rules_.pile == 0 ? 1 : rules_.pile;
        out_.pile = pileOf(static_cast<Pile>(pile), false);
        if (rules_.railroad) out_.pile = Point{-out_.pile->y, out_.pile->x};
        out_.net = insetBy(toCover(request_, false, {}, rules_.gap), rules_.gap);
        if (nothingLeft(out_.net, rules_.gap, out_.remarks)) return std::move(out_);
        // Foam that is higher than its cover keeps it taut: the cover is as much lower.
        out_.cushionHeight = rules_.height.value > 0 ? rules_.height : request_.foamThickness - rules_.easeHeight;
        // Cloth over the bare board needs no foam; anything else is sewn to a height.
        const bool bare = rules_.style == CushionStyle::Wrapped && out_.cushionHeight.value > -1e-9;
        if (out_.cushionHeight.value <= 0 && !bare) {
            out_.remarks.push_back({Severity::Error, {"", Part::Rule}, RemarkKind::CushionNoHeight, {}, {}});
            return std::move(out_);
        }
        if (cloth_.usable().value <= 2 * rules_.seam.value + 1) {
            out_.remarks.push_back({Severity::Error,
                                    {"", Part::Product},
                                    RemarkKind::RollTooNarrow,
                                    {{"width", cloth_.usable()}, {"limit", rules_.seam * 2}},
                                    {}});
            return std::move(out_);
        }
        const Bounds b = boundsOf(out_.net);
        out_.patternAt = (b.low + b.high) * 0.5;
        int number = 0;
        std::vector<Region> shapes;
        fillHoles();
        for (const Region& c : cushionsOn(out_.net, rules_)) {
            shapes.push_back(c);
            number_ = ++number;
            cushion(number, c);
        }
        out_.net.rings.clear(); // what is covered: the cushions without the room between them
        for (const Region& c : shapes)
            for (const Ring& r : c.rings) out_.net.rings.push_back(r);
        alignPattern(cloth_, rules_.matched && rules_.cushions > 1, out_);
        piping();
        sundries();
        figures();
        return std::move(out_);
    }

private:
    /// Cushions are made whole: over a lid they lie loose, and what stands up through one is told.
    void fillHoles() {
        const Region filled = outerOf(out_.net);
        if (filled.rings.size() == out_.net.rings.size()) return;
        const bool only = std::all_of(request_.openings.begin(), request_.openings.end(), [&](const OpeningFact& o) {
            return o.kind == OpeningKind::Hatch || o.treatment != Treatment::CutBefore ||
                   !contains(filled, o.placed.centre);
        });
        if (!only) out_.remarks.push_back({Severity::Warning, {"", Part::Opening}, RemarkKind::CushionHole, {}, {}});
        out_.net = filled;
    }

    /// @param across  the direction in it that lies across the cloth; its pile is square to that
    void add(PieceName name, Region cut, const Region& shape, Point pile, bool offPattern, bool aside = false) {
        Piece p;
        p.name = std::move(name);
        p.inRow = static_cast<int>(out_.pieces.size());
        p.kind = PieceKind::Cut;
        p.shape = shape;
        p.cut = std::move(cut);
        p.offPattern = offPattern;
        p.aside = aside;
        p.unit = aside ? 0 : number_;
        if (distance(pile, *out_.pile) > 1e-9) p.pile = pile;
        const double turn = -std::atan2(pile.y, pile.x);
        const Bounds lies = boundsOf(turned(p.cut, turn));
        p.length = {lies.width()};
        p.width = {lies.height()};
        p.narrowest = p.width;
        p.notched = p.cut.rings.size() > 1 || (p.cut.rings.size() == 1 && p.cut.rings[0].size() > 4);
        out_.pieces.push_back(std::move(p));
    }

    /// Notches at the middle of each stretch, and snips at inner corners, on the panel added last.
    void markPanel(const Ring& ring, Point by) {
        Piece& p = out_.pieces.back();
        for (const CushionEdge& s : cushionEdges(ring, zipWay())) {
            const Point middle = s.middle + by, n = s.facing;
            p.marks.push_back({middle + n * rules_.seam.value, middle + n * (rules_.seam.value - kTick)});
        }
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point in = ring[i] - ring[(i + ring.size() - 1) % ring.size()],
                        out = ring[(i + 1) % ring.size()] - ring[i];
            const double turn = std::atan2(cross(in, out), dot(in, out));
            if (turn > -kCornerRad) continue;
            // To a hair's breadth of the seam's corner.
            Point d = Point{in.y, -in.x} * (1 / std::max(1e-9, std::hypot(in.x, in.y))) +
                      Point{out.y, -out.x} * (1 / std::max(1e-9, std::hypot(out.x, out.y)));
            d = d * (1 / std::max(1e-9, std::hypot(d.x, d.y)));
            const double reach = rules_.seam.value / std::max(0.2, std::cos(turn / 2));
            p.snips.push_back({ring[i] + by + d * reach, ring[i] + by + d * 1.5});
        }
    }

    void cushion(int number, const Region& shape) {
        const Bounds b = boundsOf(shape);
        if (std::min(b.width(), b.height()) < kThin)
            out_.remarks.push_back({Severity::Warning,
                                    {"", Part::Piece, number - 1},
                                    RemarkKind::CushionThin,
                                    {{"piece", std::to_string(number)}, {"width", Mm{std::min(b.width(), b.height())}}},
                                    {}});
        const double s = rules_.seam.value;
        switch (rules_.style) {
        case CushionStyle::Wrapped: {
            const double by = out_.cushionHeight.value + request_.boardThickness.value + rules_.turnUnder.value;
            add(PieceName::of(PiecePart::Cover, number), grownBy(shape, by), shape, *out_.pile, false);
            edge_ += perimeter(shape.rings.front());
            staples_ += static_cast<int>(roundUp(perimeter(shape.rings.front()) / kStapleApart));
            break;
        }
        case CushionStyle::KnifeEdge: {
            // Puffed up in the middle it needs more cloth in both directions than it covers.
            const double kx = knifeEdgeLength({b.width()}, out_.cushionHeight).value / b.width(),
                         ky = knifeEdgeLength({b.height()}, out_.cushionHeight).value / b.height();
            const Point middle = (b.low + b.high) * 0.5;
            Region puffed = shape;
            for (Ring& r : puffed.rings)
                for (Point& q : r) q = {middle.x + (q.x - middle.x) * kx, middle.y + (q.y - middle.y) * ky};
            add(PieceName::of(PiecePart::Top, number), grownBy(puffed, s), shape, *out_.pile,
                !rules_.matched && rules_.cushions > 1);
            markPanel(puffed.rings.front(), {});
            bottom(number, puffed, b.width() + 4 * s + kShown);
            edge_ += perimeter(puffed.rings.front());
            seams_ += perimeter(puffed.rings.front());
            zips_ += zipLength(puffed.rings.front());
            break;
        }
        case CushionStyle::Boxed:
            add(PieceName::of(PiecePart::Top, number), grownBy(shape, s), shape, *out_.pile,
                !rules_.matched && rules_.cushions > 1);
            markPanel(shape.rings.front(), {});
            borders(number, shape.rings.front());
            bottom(number, shape, b.width() + 2 * (out_.cushionHeight.value + 5 * s) + 4 * kShown);
            edge_ += perimeter(shape.rings.front());
            seams_ += 2 * perimeter(shape.rings.front());
            break;
        }
    }

    void bottom(int number, const Region& shape, double aside) {
        if (rules_.plainBottom) {
            lining_ += areaMm2(grownBy(shape, rules_.seam.value)) / 1e6;
            return;
        }
        const Point by{aside, 0};
        add(PieceName::of(PiecePart::Bottom, number), moved(grownBy(shape, rules_.seam.value), by), {}, *out_.pile,
            true);
        markPanel(shape.rings.front(), by);
        out_.pieces.back().aside = rules_.cushions > 1;
    }

    std::optional<Point> zipWay() const {
        constexpr std::array<Point, 4> ways{Point{0, 1}, {0, -1}, {-1, 0}, {1, 0}};
        if (rules_.zip == ZipSide::None) return std::nullopt;
        return ways[static_cast<std::size_t>(rules_.zip)];
    }
    /// The stretch in which the zip goes: half of what has no corners; else the longest that looks the way asked for.
    int zipStretch(const std::vector<CushionEdge>& all) const {
        const std::optional<Point> way = zipWay();
        if (!way) return -1;
        int best = -1;
        double most = 0;
        for (std::size_t i = 0; i < all.size(); ++i)
            if (const double w = all[i].length * dot(all[i].outwards(), *way); w > most) {
                most = w;
                best = static_cast<int>(i);
            }
        return best;
    }
    double zipLength(const Ring& ring) const {
        const auto all = cushionEdges(ring, zipWay());
        const int at = zipStretch(all);
        return at < 0 ? 0 : all[static_cast<std::size_t>(at)].length + kZipBeyond;
    }

    /// Borders, unfolded outwards from the edge that each is sewn to; that with the zip is split along its length.
    void borders(int number, const Ring& ring) {
        const double s = rules_.seam.value, high = out_.cushionHeight.value;
        const auto all = cushionEdges(ring, zipWay());
        const int zip = zipStretch(all);
        if (zip >= 0) zips_ += all[static_cast<std::size_t>(zip)].length + kZipBeyond;
        for (std::size_t i = 0; i < all.size(); ++i) {
            const CushionEdge& e = all[i];
            const Point u = e.along(), out = e.outwards();
            const Point middle = (e.from + e.to) * 0.5;
            // The nap runs down every border; turned cloth has its length along them.
            const Point pile = rules_.railroad ? u : out;
            const double most = rules_.railroad ? 1e9 : cloth_.usable().value;
            const int parts = std::max(1, static_cast<int>(roundUp((e.length + 2 * s) / std::max(1.0, most) - 1e-9)) > 1
                                              ? static_cast<int>(roundUp(e.length / (most - 2 * s)))
                                              : 1);
            const auto strip = [&](PieceName name, double from, double tall) {
                for (int k = 0; k < parts; ++k) {
                    const double length = e.length / parts + 2 * s;
                    const double at = -e.length / 2 + e.length * k / parts - s;
                    const Point a = middle + u * at + out * from;
                    name.share = parts > 1 ? k + 1 : 0;
                    add(name, {{{a, a + out * tall, a + u * length + out * tall, a + u * length}}}, {}, pile, true);
                    Piece& p = out_.pieces.back();
                    for (Ring& r : p.cut.rings)
                        if (signedArea(r) < 0) std::reverse(r.begin(), r.end());
                    p.aside = rules_.cushions > 1;
                    const Point tick = a + u * (length / 2);
                    p.marks.push_back({tick, tick + out * kTick});
                }
                if (parts > 1) seams_ += (parts - 1) * high;
            };
            if (static_cast<int>(i) == zip) {
                const double half = high / 2 + s + rules_.zipAllowance.value;
                strip(PieceName::of(PiecePart::ZipStrip, number, 1), s + kShown, half);
                strip(PieceName::of(PiecePart::ZipStrip, number, 2), s + 2 * kShown + half, half);
            } else {
                strip(PieceName::of(PiecePart::Border, number, static_cast<int>(i) + 1), s + kShown, high + 2 * s);
            }
            seams_ += high; // up the corner
        }
    }

    void piping() {
        if (rules_.piping == Piping::None || rules_.style == CushionStyle::Wrapped) return;
        const int runs = rules_.style == CushionStyle::Boxed ? 2 : 1;
        const int cushions = static_cast<int>(partsOf(out_.net).size());
        const Mm all{runs * (edge_) + runs * cushions * rules_.overlap.value};
        piping_ = {runs * edge_ + runs * cushions * rules_.overlap.value};
        const Mm width = pipingStripWidth(rules_.cord, rules_.seam);
        const PipingStrips strips = rules_.piping == Piping::Straight
                                        ? straightStrips(all, width, cloth_.usable(), rules_.seam)
                                        : biasStrips(all, width, cloth_.usable(), rules_.seam);
        // The strips are cut from one run over the whole width of the cloth.
        const Bounds b = boundsOf(out_.net);
        const double turn = std::atan2(out_.pile->y, out_.pile->x);
        const Region block = turned(Region{{rectangle(0, 0, strips.run.value, cloth_.usable().value)}}, turn);
        add(PieceName::of(PiecePart::Piping, 0), moved(block, {b.low.x, b.low.y - 4 * strips.run.value}), {},
            *out_.pile, true, true);
    }

    void sundries() {
        const auto put = [&](SundryKind kind, double amount) {
            if (amount > 0) out_.sundries.push_back({kind, amount});
        };
        put(SundryKind::Zip, zips_);
        put(SundryKind::PipingCord, piping_.value);
        put(SundryKind::Thread, seams_ * kThreadPerSeam);
        put(SundryKind::Staples, staples_);
        put(SundryKind::LiningCloth, lining_);
    }

    void figures() {
        Judgement& j = out_.figures;
        j.pieces = static_cast<int>(out_.pieces.size());
        std::vector<std::pair<double, double>> lying;
        double area = 0;
        const bool turns = cloth_.turning == RollTurning::Quarter || cloth_.turning == RollTurning::Any;
        for (const Piece& p : out_.pieces) {
            for (const Ring& r : p.cut.rings) j.cutLength = j.cutLength + Mm{perimeter(r)};
            const double across = turns ? std::min(p.length, p.width).value : p.width.value;
            lying.emplace_back(turns ? std::max(p.length, p.width).value : p.length.value, across);
            area += areaMm2(p.cut);
            if (j.narrowestEdge.value <= 0 || p.width < j.narrowestEdge) j.narrowestEdge = p.width;
            if (across > cloth_.usable().value + 0.01)
                out_.remarks.push_back({Severity::Error,
                                        {"", Part::Product},
                                        RemarkKind::PieceWiderThanRoll,
                                        {{"piece", p.name}, {"width", Mm{across}}, {"limit", cloth_.usable()}},
                                        Fix{FixKind::SetRule, "railroad", rules_.railroad ? 0.0 : 1.0}});
        }
        j.stock = static_cast<int>(roundUp(rowsOnRoll(std::move(lying), cloth_.usable().value, cloth_.gap.value) / 10));
        j.leastStock = static_cast<int>(
            std::min(static_cast<double>(j.stock), std::floor(area / std::max(1.0, cloth_.usable().value) / 10)));
        out_.leastStock = j.leastStock;
    }

    const SetOutRequest& request_;
    const RollGoods& cloth_;
    const CushionRules& rules_;
    SetOut out_;
    double edge_ = 0, seams_ = 0, zips_ = 0, lining_ = 0;
    int staples_ = 0;
    int number_ = 0; ///< of the cushion in work
    Mm piping_;
};

SetOut setOutCloth(const SetOutRequest& request, const std::stop_token&) {
    const RollGoods cloth = rollOf(request.product);
    const CushionRules rules = cushionRulesOf(request.rules);
    return Upholstery(request, cloth, rules).run();
}

std::vector<StartChoice> clothChoices(const SetOutRequest& request, const std::stop_token& stop) {
    std::vector<StartChoice> all;
    for (const double railroad : {0.0, 1.0}) {
        if (stop.stop_requested()) return {};
        SetOutRequest r = request;
        r.rules["railroad"] = railroad;
        StartChoice c = choiceOf(setOutCloth(r, stop), {{"railroad", railroad}}, false);
        all.push_back(std::move(c));
        tell(request, railroad / 2 + 0.5);
    }
    return all;
}

/// Blocks of foam under the cushions, a little larger; joined where the sheet is too small.
SetOut setOutFoam(const SetOutRequest& request, const std::stop_token&) {
    SetOut out;
    const CushionRules rules = cushionRulesOf(request.cover);
    const SheetGoods sheet = sheetOf(request.product);
    const Region net = insetBy(toCover(request, false, {}, rules.gap), rules.gap);
    if (nothingLeft(net, rules.gap, out.remarks)) return out;
    const double ease = rules.style == CushionStyle::Boxed ? rules.ease.value / 2 : 0;
    const double x = sheet.length.value - 2 * sheet.edgeTrim.value, y = sheet.width.value - 2 * sheet.edgeTrim.value;
    double glued = 0;
    int number = 0;
    for (const Region& outer : cushionsOn(outerOf(net), rules)) {
        const Region block = grownBy(outer, ease);
        const Bounds b = boundsOf(block), s = boundsOf(outer);
        const auto fits = [&](double w, double h) {
            return (w <= x + 1e-6 && h <= y + 1e-6) || (w <= y + 1e-6 && h <= x + 1e-6);
        };
        int columns = 1, rows = 1;
        while (!fits(b.width() / columns, b.height() / rows) && columns * rows < 100) {
            // The longer way is parted first.
            if (b.width() / columns >= b.height() / rows)
                ++columns;
            else
                ++rows;
        }
        ++number;
        for (int c = 0; c < columns; ++c)
            for (int r = 0; r < rows; ++r) {
                const auto cell = [&](const Bounds& of) {
                    const double w = of.width() / columns, h = of.height() / rows;
                    return Region{{rectangle(of.low.x + c * w - (c == 0 ? 1 : 0), of.low.y + r * h - (r == 0 ? 1 : 0),
                                             w + (c == 0 ? 1 : 0) + (c + 1 == columns ? 1 : 0),
                                             h + (r == 0 ? 1 : 0) + (r + 1 == rows ? 1 : 0))}};
                };
                Piece p;
                p.name.own = std::to_string(number);
                if (columns * rows > 1) p.name.own += static_cast<char>('a' + (c * rows + r) % 26);
                p.inRow = static_cast<int>(out.pieces.size());
                p.kind = PieceKind::Cut;
                p.shape = intersection(outer, cell(s));
                p.cut = intersection(block, cell(b));
                if (p.cut.empty()) continue;
                const Bounds own = boundsOf(p.cut);
                p.length = {own.width()};
                p.width = p.narrowest = {own.height()};
                p.notched = areaMm2(p.cut) < own.width() * own.height() - 50;
                for (const Ring& ring : p.cut.rings)
                    out.figures.cutLength = out.figures.cutLength + Mm{perimeter(ring)};
                out.pieces.push_back(std::move(p));
            }
        glued += ((columns - 1) * b.height() + (rows - 1) * b.width()) * sheet.thickness.value / 1e6;
        for (const Ring& r : outer.rings) out.net.rings.push_back(r);
    }
    double area = 0;
    for (const Piece& p : out.pieces) area += p.length.value * p.width.value;
    out.figures.pieces = static_cast<int>(out.pieces.size());
    out.figures.stock = static_cast<int>(roundUp(area / std::max(1.0, x * y)));
    out.figures.leastStock = std::max(1, static_cast<int>(std::floor(area / std::max(1.0, x * y))));
    out.figures.leastStock = std::min(out.figures.leastStock, out.figures.stock);
    out.cushionHeight = sheet.thickness;
    if (glued > 0) out.sundries.push_back({SundryKind::FoamGlue, glued});
    return out;
}

std::vector<StartChoice> foamChoices(const SetOutRequest&, const std::stop_token&) { return {}; }

} // namespace

std::span<const Field> cushionRuleFields() { return kRules; }

CushionRules cushionRulesOf(const FieldValues& rules) {
    const auto value = [&](std::string_view key) { return valueOf(rules, kRules, key); };
    const auto mm = [&](std::string_view key) { return Mm{value(key)}; };
    const auto place = [&](std::string_view key) { return static_cast<int>(value(key)); };
    return {.style = static_cast<CushionStyle>(place("style")),
            .cushions = place("cushions"),
            .gap = mm("gap"),
            .height = mm("height"),
            .seam = mm("seam"),
            .zip = static_cast<ZipSide>(place("zip")),
            .zipAllowance = mm("zipAllowance"),
            .ease = mm("ease"),
            .easeHeight = mm("easeHeight"),
            .piping = static_cast<Piping>(place("piping")),
            .cord = mm("cord"),
            .overlap = mm("overlap"),
            .turnUnder = mm("turnUnder"),
            .pile = place("pile"),
            .railroad = value("railroad") != 0,
            .matched = value("matched") != 0,
            .plainBottom = value("plainBottom") != 0};
}

SetOutFamily clothSetOut() { return {"cloth", kRules, setOutCloth, clothChoices}; }
SetOutFamily foamSetOut() { return {"foam", {}, setOutFoam, foamChoices}; }

Mm pipingStripWidth(Mm cord, Mm seam) { return {std::numbers::pi * cord.value + 2 * seam.value}; }

PipingStrips straightStrips(Mm piping, Mm width, Mm usable, Mm seam) {
    const double gain = (usable - seam * 2).value; // of each strip after the first
    const int n = static_cast<int>(std::max<std::int64_t>(1, roundUp((piping - seam * 2).value / gain)));
    return {n, width * n};
}

PipingStrips biasStrips(Mm piping, Mm width, Mm usable, Mm seam) {
    constexpr double root = std::numbers::sqrt2;
    const double gain = (usable.value - 2 * seam.value) * root;
    const int n = static_cast<int>(
        std::max<std::int64_t>(1, roundUp((piping.value + width.value - 2 * root * seam.value) / gain)));
    return {n, {usable.value + n * width.value * root}};
}

Mm knifeEdgeLength(Mm length, Mm height) { return {arcLengthOf({length.value, height.value / 2})}; }

} // namespace westrum
