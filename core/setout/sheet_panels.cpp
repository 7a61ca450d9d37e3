#include "core/setout/sheet_panels.h"

#include "core/geometry/boolean.h"
#include "core/setout/panel_cutouts.h"
#include "core/setout/piece_width.h"
#include "core/units/count.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <tuple>

namespace westrum {
namespace {

constexpr double kLevel = 1e-6;
constexpr double kLeastPanelMm2 = 100;
constexpr std::size_t kWaysJudged = 40; // on the surface as it is
constexpr double kOverhang = 3;         // a free edge bears this part of a span: docs/formulae.md#panels
constexpr int kMostPartings = 4000;     ///< choices of joints looked at

constexpr std::array<std::string_view, 2> kGrains{"along", "across"};
constexpr std::array<std::string_view, 3> kJoints{"butt joint", "V-joint", "cover strip"};

constexpr std::array<Field, 10> kRules{{
    {"grain", "grain runs", FieldUnit::Choice, 0, 1, 0, kGrains},
    {"panelJoint", "panels meet in a", FieldUnit::Choice, 0, 2, 0, kJoints},
    {"jointGap", "gap between panels", FieldUnit::Length, 0, 50, 2},
    {"gap", "movement gap", FieldUnit::Length, 0, 100, 3},
    {"leastPanel", "least panel", FieldUnit::Length, 0, 2000, 150},
    {"centre", "centred on", FieldUnit::Choice, 0, 1, 1, std::span(kCentres).first(2)},
    {"symmetric", "symmetric where seen", FieldUnit::Flag, 0, 1, 1},
    {"strips", "strips along a curve", FieldUnit::Count, 0, 60, 0},
    {"hidden", "hidden parts left bare", FieldUnit::Flag, 0, 1, 0},
    {"bearing", "reaches under furniture by", FieldUnit::Length, 0, 500, 50},
}};

class Panelling {
public:
    Panelling(const SetOutRequest& request, const SheetGoods& sheet, const PanelRules& rules)
        : request_(request), sheet_(sheet), rules_(rules) {}

    SetOut lay() {
        out_.net = insetBy(toCover(request_, rules_.hiddenBare, rules_.bearing, rules_.gap), rules_.gap);
        if (nothingLeft(out_.net, rules_.gap, out_.remarks)) return std::move(out_);
        bounds_ = boundsOf(out_.net);
        usable();
        if (mostX_ <= 1 || mostY_ <= 1) {
            out_.remarks.push_back(
                {Severity::Error,
                 {"", Part::Product},
                 RemarkKind::PanelTooLarge,
                 {{"panel", std::string("1")}, {"length", Mm{bounds_.width()}}, {"width", Mm{bounds_.height()}}},
                 {}});
            return std::move(out_);
        }
        if (tooMany(bounds_.width() / mostX_ * std::max(1.0, bounds_.height() / mostY_), out_.remarks))
            return std::move(out_);
        part();
        cut();
        checkLids(request_, sheet_.kerf, out_);
        checks();
        judge();
        return std::move(out_);
    }

private:
    /// The largest panel in either direction: within the sheet, its grain as asked, and through the door.
    void usable() {
        const double trim = 2 * sheet_.edgeTrim.value;
        const double length = sheet_.length.value - trim, width = sheet_.width.value - trim;
        const bool across = sheet_.grain ? rules_.grainAcross : partsWith(width, length) < partsWith(length, width);
        out_.grainAcross = grainAcross_ = across;
        mostX_ = across ? width : length;
        mostY_ = across ? length : width;
        throughDoor();
        intoCar();
    }
    void throughDoor() {
        if (!request_.widestThroughDoor) return;
        // A panel passes when its narrow side does. If neither side of a full panel does, the shorter cut is made.
        const double door = request_.widestThroughDoor->value;
        const double x = std::min(mostX_, bounds_.width()), y = std::min(mostY_, bounds_.height());
        if (std::min(x, y) <= door + kLevel) return;
        if (bounds_.width() / door <= bounds_.height() / door && !request_.supports.empty())
            mostX_ = door;
        else if (bounds_.width() >= bounds_.height())
            mostX_ = door;
        else
            mostY_ = door;
        byDoor_ = true;
    }
    /// Its longer side along the load space, its shorter one across.
    void intoCar() {
        if (!request_.loadLength || !request_.loadWidth) return;
        const double longest = std::max(request_.loadLength->value, request_.loadWidth->value),
                     widest = std::min(request_.loadLength->value, request_.loadWidth->value);
        const double x = std::min(mostX_, bounds_.width()), y = std::min(mostY_, bounds_.height());
        if (std::max(x, y) <= longest + kLevel && std::min(x, y) <= widest + kLevel) return;
        double &far = x >= y ? mostX_ : mostY_, &near = x >= y ? mostY_ : mostX_;
        far = std::min(far, longest);
        if (std::min(x, y) > widest) near = std::min(near, widest);
    }
    [[nodiscard]] double partsWith(double x, double y) const {
        return static_cast<double>(roundUp(bounds_.width() / x) * roundUp(bounds_.height() / y));
    }

    void part() {
        const double own = (bounds_.low.x + bounds_.high.x) / 2;
        const double centre = rules_.centre == CentreRule::Visible ? request_.visibleCentreX.value_or(own) : own;
        out_.centreLine = centre;
        const double gap = rules_.jointGap.value;
        xs_ = {bounds_.low.x};
        if (!request_.joints.empty()) {
            for (const double j : request_.joints)
                if (j > xs_.back() + gap + 1 && j < bounds_.high.x - gap - 1) xs_.push_back(j);
            byHand_ = true;
        } else {
            // A joint takes its gap, half from either panel.
            const auto slivers = [&](const std::vector<double>& at) { return sliversAt(at); };
            const Parting p = partLength(
                {bounds_.low.x, bounds_.high.x, mostX_, gap, centre, rules_.leastPanel.value, rules_.symmetric},
                supportsAcross(request_, false), slivers);
            xs_.insert(xs_.end(), p.joints.begin(), p.joints.end());
        }
        xs_.push_back(bounds_.high.x);
        ys_ = {bounds_.low.y};
        if (rules_.strips > 0) {
            for (int k = 1; k < rules_.strips; ++k) ys_.push_back(bounds_.low.y + bounds_.height() * k / rules_.strips);
        } else {
            const Parting p =
                partLength({bounds_.low.y, bounds_.high.y, mostY_, gap, (bounds_.low.y + bounds_.high.y) / 2,
                            rules_.leastPanel.value, rules_.symmetric},
                           supportsAcross(request_, true));
            ys_.insert(ys_.end(), p.joints.begin(), p.joints.end());
        }
        ys_.push_back(bounds_.high.y);
        for (std::size_t r = 0; r + 1 < ys_.size(); ++r) out_.rows.push_back({ys_[r], ys_[r + 1]});
        joints();
    }

    /// Panels narrower than the least that joints at these places would part off.
    [[nodiscard]] int sliversAt(const std::vector<double>& at) const {
        int found = 0;
        double before = bounds_.low.x;
        for (std::size_t i = 0; i <= at.size(); ++i) {
            const double next = i < at.size() ? at[i] : bounds_.high.x;
            for (const Region& part : partsOf(clippedInX(out_.net, before, next)))
                found += areaMm2(part) > kLeastPanelMm2 && isSliver(boundsOf(part)) ? 1 : 0;
            before = next;
        }
        return found;
    }
    /// Narrower than the least, though the surface is not.
    [[nodiscard]] bool isSliver(const Bounds& b) const {
        const double least = rules_.leastPanel.value - kLevel;
        return (b.width() < least && bounds_.width() >= least) || (b.height() < least && bounds_.height() >= least);
    }

    [[nodiscard]] bool onSupport(double at, bool runsAlong) const {
        return std::any_of(request_.supports.begin(), request_.supports.end(), [&](const PlacedSupport& s) {
            if (s.along != runsAlong) return false;
            const Bounds b = boundsOf(s.shape);
            const double low = runsAlong ? b.low.y : b.low.x, high = runsAlong ? b.high.y : b.high.x;
            return at > low - kLevel && at < high + kLevel;
        });
    }

    /// The stretches of the joints that lie on the surface.
    void joints() {
        const auto add = [&](const Region& line, Point along, double at, bool alongX) {
            for (const Region& part : partsOf(line)) {
                const Bounds b = boundsOf(part);
                const Point from = alongX ? Point{b.low.x, at} : Point{at, b.low.y};
                const Point to = alongX ? Point{b.high.x, at} : Point{at, b.high.y};
                if (std::abs(dot(to - from, along)) < 5) continue;
                out_.joints.push_back({from, to, onSupport(at, alongX), byHand_ && !alongX});
            }
        };
        for (std::size_t i = 1; i + 1 < xs_.size(); ++i)
            add(clippedInX(out_.net, xs_[i] - 0.05, xs_[i] + 0.05), {0, 1}, xs_[i], false);
        for (std::size_t i = 1; i + 1 < ys_.size(); ++i)
            add(intersection(out_.net, {{rectangle(bounds_.low.x, ys_[i] - 0.05, bounds_.width(), 0.1)}}), {1, 0},
                ys_[i], true);
    }

    void cut() {
        const double half = rules_.jointGap.value / 2;
        for (std::size_t r = 0; r + 1 < ys_.size(); ++r) {
            int inRow = 0;
            for (std::size_t c = 0; c + 1 < xs_.size(); ++c) {
                const double left = xs_[c] + (c > 0 ? half : 0), right = xs_[c + 1] - (c + 2 < xs_.size() ? half : 0);
                const double low = ys_[r] + (r > 0 ? half : 0), high = ys_[r + 1] - (r + 2 < ys_.size() ? half : 0);
                if (right <= left || high <= low) continue;
                std::vector<Region> parts =
                    partsOf(intersection(out_.net, {{rectangle(left, low, right - left, high - low)}}));
                std::sort(parts.begin(), parts.end(), [](const Region& a, const Region& b) {
                    const Bounds p = boundsOf(a), q = boundsOf(b);
                    return std::tuple(p.low.x, p.low.y) < std::tuple(q.low.x, q.low.y);
                });
                for (Region& part : parts)
                    if (areaMm2(part) > kLeastPanelMm2) addPanel(std::move(part), static_cast<int>(r), inRow++);
            }
        }
    }

    void addPanel(Region shape, int row, int inRow) {
        Piece p;
        p.row = row;
        p.inRow = inRow;
        p.name = std::to_string(out_.pieces.size() + 1);
        p.kind = PieceKind::Cut;
        const Bounds b = boundsOf(shape);
        p.length = {b.width()};
        p.width = {b.height()};
        p.narrowest = {std::min(narrowestOf(shape), b.height())};
        p.notched = areaMm2(shape) < b.width() * b.height() - std::max(50.0, 1e-4 * b.width() * b.height());
        p.removable = std::any_of(request_.wiring.begin(), request_.wiring.end(),
                                  [&](const Region& w) { return areaMm2(intersection(w, shape)) > 1; });
        p.wants = wantedEdges(request_, b, rules_.gap);
        const int index = static_cast<int>(out_.pieces.size());
        for (const Ring& ring : shape.rings) {
            cutMm_ += perimeter(ring);
            if (signedArea(ring) < 0) addCutout(request_, ring, index, sheet_.kerf, rules_.gap, out_);
        }
        if (p.length.value > mostX_ + kLevel * 10 || p.width.value > mostY_ + kLevel * 10)
            out_.remarks.push_back({Severity::Error,
                                    {"", Part::Piece, index},
                                    RemarkKind::PanelTooLarge,
                                    {{"panel", p.name}, {"length", p.length}, {"width", p.width}},
                                    {}});
        if (request_.widestThroughDoor && std::min(p.length, p.width) > *request_.widestThroughDoor + Mm{kLevel})
            out_.remarks.push_back({Severity::Warning,
                                    {"", Part::Piece, index},
                                    RemarkKind::PanelPastDoor,
                                    {{"panel", p.name},
                                     {"width", std::min(p.length, p.width)},
                                     {"door", request_.door},
                                     {"limit", *request_.widestThroughDoor}},
                                    {}});
        checkLoad(request_, p, index, out_.remarks);
        p.shape = std::move(shape);
        out_.pieces.push_back(std::move(p));
    }

    /// Free edges, and what one support or none carries. A sheet that lies on something all over needs none.
    void carried(Mm span) {
        if (request_.backed) return;
        // Along the axis on which its supports serve it best; two of them carry, how far apart they stand is told
        // apart.
        std::optional<double> free;
        int supports = 0;
        for (const bool runAlong : {false, true}) {
            std::vector<double> at = supportsAcross(request_, runAlong);
            std::sort(at.begin(), at.end());
            supports += static_cast<int>(at.size());
            if (at.size() < 2) continue;
            const double low = runAlong ? bounds_.low.y : bounds_.low.x,
                         high = runAlong ? bounds_.high.y : bounds_.high.x;
            const double edge = std::max(at.front() - low, high - at.back());
            free = free ? std::min(*free, edge) : edge;
        }
        const bool overhangs = free.has_value();
        const double length = free.value_or(std::min(bounds_.width(), bounds_.height()));
        if (length <= span.value / (overhangs ? kOverhang : 1) + kLevel) return;
        Remark remark{Severity::Warning, {"", Part::Product}, RemarkKind::PanelsUnsupported, {}, {}};
        remark.facts = {{"product", request_.product.name}, {"length", Mm{length}}};
        if (overhangs) {
            remark.kind = RemarkKind::EdgeOverhangs;
            remark.facts.emplace_back("limit", span / kOverhang);
        } else {
            remark.facts.emplace_back("limit", span);
            remark.facts.emplace_back("supports", std::int64_t{supports});
        }
        out_.remarks.push_back(std::move(remark));
    }

    void checks() {
        const Mm span = longestSpan(sheet_.thickness);
        double widest = 0;
        for (const bool runAlong : {false, true}) {
            const std::vector<double> at = supportsAcross(request_, runAlong);
            double gap = 0;
            for (std::size_t i = 1; i < at.size(); ++i) gap = std::max(gap, at[i] - at[i - 1]);
            if (at.size() > 1) widest = widest > 0 ? std::min(widest, gap) : gap;
        }
        carried(span);
        if (widest > span.value + kLevel)
            out_.remarks.push_back({Severity::Warning,
                                    {"", Part::Product},
                                    RemarkKind::SpanTooWide,
                                    {{"length", Mm{widest}}, {"limit", span}, {"product", request_.product.name}},
                                    {}});
        const bool easy = !sheet_.grain || !grainAcross_;
        if (request_.bendRadius && rules_.strips == 0) {
            const Mm limit = leastBendRadius(sheet_.thickness, easy);
            if (*request_.bendRadius < limit)
                out_.remarks.push_back(
                    {Severity::Warning,
                     {"", Part::Product},
                     RemarkKind::BendTooTight,
                     {{"product", request_.product.name},
                      {"radius", *request_.bendRadius},
                      {"limit", limit},
                      {"half", sheet_.thickness / 2},
                      {"halfLimit", leastBendRadius(sheet_.thickness / 2, easy)},
                      {"strips", static_cast<std::int64_t>(stripsFor({bounds_.height()}, *request_.bendRadius, {2}))}},
                     Fix{FixKind::SetRule, "strips",
                         static_cast<double>(stripsFor({bounds_.height()}, *request_.bendRadius, {2}))}});
        }
        if (sheet_.solid) {
            const Mm across{grainAcross_ ? bounds_.width() : bounds_.height()};
            out_.remarks.push_back({Severity::Note,
                                    {"", Part::Product},
                                    RemarkKind::SolidMoves,
                                    {{"product", request_.product.name},
                                     {"length", solidMovement(across)},
                                     {"width", across},
                                     {"gap", solidMovement(across) / 2}},
                                    {}});
        }
        slivers();
        int off = 0;
        for (const Joint& j : out_.joints) off += !j.onSupport;
        out_.figures.jointsOffSupport = off;
        if (off == 0) return;
        out_.remarks.push_back(
            {Severity::Warning,
             {"", Part::Rule},
             request_.supports.empty() ? RemarkKind::NoSupports : RemarkKind::JointsOffSupport,
             {{"count", std::int64_t{off}}, {"total", static_cast<std::int64_t>(out_.joints.size())}},
             {}});
    }

    void slivers() {
        std::int64_t count = 0;
        double narrowest = 1e12;
        for (const Piece& p : out_.pieces) {
            const Bounds b = boundsOf(p.shape);
            if (!isSliver(b)) continue;
            ++count;
            narrowest = std::min({narrowest, b.width(), b.height()});
        }
        if (count == 0) return;
        // Evened out it may do without; else whoever wants them so says so.
        const Fix fix = rules_.symmetric && !byHand_ ? Fix{FixKind::SetRule, "symmetric", 0}
                                                     : Fix{FixKind::SetRule, "leastPanel", std::floor(narrowest)};
        out_.remarks.push_back({Severity::Warning,
                                {"", Part::Rule},
                                RemarkKind::PanelSlivers,
                                {{"count", count},
                                 {"total", static_cast<std::int64_t>(out_.pieces.size())},
                                 {"width", Mm{narrowest}},
                                 {"limit", rules_.leastPanel}},
                                fix});
    }

    void judge() {
        Judgement& j = out_.figures;
        const double least = rules_.leastPanel.value;
        double narrowest = std::min(bounds_.width(), bounds_.height());
        for (const Piece& p : out_.pieces) {
            const double narrow = std::min(p.length, p.width).value;
            if (out_.pieces.size() > 1) narrowest = std::min(narrowest, narrow);
            if (narrow < least - kLevel) ++out_.slivers;
        }
        const std::size_t columns = xs_.size() - 1;
        out_.firstColumn = {xs_[1] - xs_[0]};
        out_.lastColumn = {xs_[columns] - xs_[columns - 1]};
        out_.firstRow = {out_.rows.front().width()};
        out_.lastRow = {out_.rows.back().width()};
        out_.module = 0;
        out_.jointWidth = rules_.jointGap;
        out_.startLine = out_.rows.front().high;
        j.narrowestEdge = {narrowest};
        j.unevenness = {std::abs((out_.firstColumn - out_.lastColumn).value)};
        if (columns > 1) { // the joints' middle against the centre
            double sum = 0;
            for (std::size_t i = 1; i < columns; ++i) sum += xs_[i];
            j.offCentre = {std::abs(sum / static_cast<double>(columns - 1) - *out_.centreLine)};
        }
        j.slivers = out_.slivers;
        j.pieces = static_cast<int>(out_.pieces.size());
        j.cutLength = {cutMm_};
        double area = 0;
        for (const Piece& p : out_.pieces) area += areaMm2(p.shape);
        const double usableArea = mostX_ * mostY_;
        const double sheetArea =
            (sheet_.length.value - 2 * sheet_.edgeTrim.value) * (sheet_.width.value - 2 * sheet_.edgeTrim.value);
        j.leastStock = static_cast<int>(roundUp(area / std::max(usableArea, sheetArea) - 1e-6));
        j.stock = sheetsByRows();
        out_.leastStock = j.leastStock;
    }

    /// How many sheets rows of panels take, tallest first: what the cutting will better.
    [[nodiscard]] int sheetsByRows() const {
        struct Shelf {
            double left, height;
        };
        std::vector<std::vector<Shelf>> sheets;
        std::vector<double> roomY;
        const double kerf = sheet_.kerf.value, trim = 2 * sheet_.edgeTrim.value;
        const double lengthX = grainAcross_ ? sheet_.width.value - trim : sheet_.length.value - trim;
        const double lengthY = grainAcross_ ? sheet_.length.value - trim : sheet_.width.value - trim;
        std::vector<const Piece*> pieces;
        for (const Piece& p : out_.pieces) pieces.push_back(&p);
        std::stable_sort(pieces.begin(), pieces.end(), [](auto* a, auto* b) { return a->width > b->width; });
        const auto place = [&](const Piece& p) {
            for (auto& sheet : sheets)
                for (Shelf& s : sheet)
                    if (s.height + kLevel >= p.width.value && s.left + kLevel >= p.length.value) {
                        s.left -= p.length.value + kerf;
                        return;
                    }
            for (std::size_t i = 0; i < sheets.size(); ++i)
                if (roomY[i] + kLevel >= p.width.value) {
                    roomY[i] -= p.width.value + kerf;
                    sheets[i].push_back({lengthX - p.length.value - kerf, p.width.value});
                    return;
                }
            sheets.push_back({{lengthX - p.length.value - kerf, p.width.value}});
            roomY.push_back(lengthY - p.width.value - kerf);
        };
        for (const Piece* p : pieces) place(*p);
        return static_cast<int>(sheets.size());
    }

    const SetOutRequest& request_;
    const SheetGoods& sheet_;
    const PanelRules& rules_;
    SetOut out_;
    Bounds bounds_;
    bool grainAcross_ = false, byDoor_ = false, byHand_ = false;
    double mostX_ = 0, mostY_ = 0, cutMm_ = 0;
    std::vector<double> xs_, ys_; ///< joints, both edges included
};

SetOut setOut(const SetOutRequest& r, const std::stop_token& stop) {
    return setOutPanels(r, sheetOf(r.product), panelRulesOf(r.rules), stop);
}

std::vector<StartChoice> choices(const SetOutRequest& request, const std::stop_token& stop) {
    std::vector<StartChoice> found;
    const SheetGoods sheet = sheetOf(request.product);
    SetOutRequest free = request;
    free.joints.clear();
    for (const bool grain : {false, true})
        for (const bool symmetric : {true, false})
            for (const CentreRule centre : {CentreRule::Visible, CentreRule::Surface}) {
                if (stop.stop_requested()) return {};
                PanelRules at = panelRulesOf(request.rules);
                at.grainAcross = grain;
                at.symmetric = symmetric;
                at.centre = centre;
                const SetOut s = setOutPanels(free, sheet, at, stop);
                if (s.laid())
                    found.push_back(choiceOf(s,
                                             {{"grain", grain ? 1.0 : 0.0},
                                              {"symmetric", symmetric ? 1.0 : 0.0},
                                              {"centre", static_cast<double>(centre)}},
                                             false));
            }
    return found;
}

} // namespace

std::span<const Field> panelRuleFields() { return kRules; }

PanelRules panelRulesOf(const FieldValues& rules) {
    const auto value = [&](std::string_view key) { return valueOf(rules, kRules, key); };
    return {.grainAcross = value("grain") != 0,
            .joint = static_cast<PanelJoint>(static_cast<int>(value("panelJoint"))),
            .jointGap = {value("jointGap")},
            .gap = {value("gap")},
            .leastPanel = {value("leastPanel")},
            .centre = static_cast<CentreRule>(static_cast<int>(value("centre"))),
            .symmetric = value("symmetric") != 0,
            .strips = static_cast<int>(value("strips")),
            .hiddenBare = value("hidden") != 0,
            .bearing = {value("bearing")}};
}

SetOutFamily panelSetOut() { return {"sheet", kRules, setOut, choices}; }

Mm longestSpan(Mm thickness) {
    if (thickness.value < 5) return {300};
    return thickness.value < 9 ? Mm{400} : Mm{600};
}

Mm leastBendRadius(Mm thickness, bool easyDirection) {
    // 3 mm 400, 4 mm 600, 5 mm 800, 6 mm 1000, and on in the same steps; thinner in proportion.
    const double t = thickness.value;
    const double easy = t < 3 ? t * 400 / 3 : 200 * (t - 1);
    return {easyDirection ? easy : easy * 1.5};
}

Mm solidMovement(Mm widthAcrossGrain) { return widthAcrossGrain * 0.01; }

int stripsFor(Mm along, Mm radius, Mm mostGap) {
    // A flat strip of width s leaves its curve by s^2 / (8 R).
    const double strip = std::sqrt(8 * radius.value * mostGap.value);
    return static_cast<int>(std::max<std::int64_t>(1, roundUp(along.value / strip)));
}

Parting partLength(const Parted& p, std::span<const double> places,
                   const std::function<int(const std::vector<double>&)>& slivers) {
    Parting parting;
    // n panels with a gap at every joint: ends lose half of it, those between all of it.
    const auto parts = static_cast<int>(roundUp((p.high - p.low + p.gap) / (p.most + p.gap)));
    if (parts <= 1) return parting;
    std::vector<double> inside;
    for (const double at : places)
        if (at > p.low + 1 && at < p.high - 1) inside.push_back(at);
    const double longest = p.most + p.gap, longestEnd = p.most + p.gap / 2;
    using Score = std::tuple<int, double, double>;
    struct Way {
        Score score;
        std::vector<double> joints;
    };
    const auto judged = [&](Way way) { // by what it parts off the surface as it is
        if (slivers) std::get<0>(way.score) = std::max(std::get<0>(way.score), slivers(way.joints));
        return way;
    };
    std::optional<Way> found;                  // the best that leaves slivers
    for (int n = parts; n <= parts + 1; ++n) { // one part more, rather than a joint that hangs in the air
        std::vector<Way> ways;
        std::vector<double> chosen;
        int looked = 0;
        const std::function<void(std::size_t, double)> choose = [&](std::size_t from, double last) {
            if (static_cast<int>(chosen.size()) == n - 1) {
                if (p.high - last > longestEnd + kLevel || ++looked > kMostPartings) return;
                double shortest = p.high - last - p.gap / 2, uneven = 0, before = p.low - p.gap / 2;
                for (std::size_t i = 0; i < chosen.size(); ++i) {
                    shortest = std::min(shortest, chosen[i] - before - p.gap);
                    before = chosen[i];
                    uneven += std::abs(chosen[i] + chosen[chosen.size() - 1 - i] - 2 * p.centre);
                }
                // Joints on a support that is off by a little are even enough.
                const double even = p.symmetric ? std::floor(uneven / 20) : 0;
                ways.push_back({{shortest < p.leastPart - kLevel ? 1 : 0, even, -shortest}, chosen});
                return;
            }
            for (std::size_t i = from; i < inside.size(); ++i) {
                if (inside[i] - last > (chosen.empty() ? longestEnd : longest) + kLevel) break;
                chosen.push_back(inside[i]);
                choose(i + 1, inside[i]);
                chosen.pop_back();
            }
        };
        choose(0, p.low);
        std::stable_sort(ways.begin(), ways.end(), [](const Way& a, const Way& b) { return a.score < b.score; });
        for (std::size_t i = 0; i < ways.size() && i < kWaysJudged; ++i) {
            Way way = judged(std::move(ways[i]));
            if (std::get<0>(way.score) == 0) {
                parting.joints = std::move(way.joints);
                return parting;
            }
            if (!found || way.score < found->score) found = std::move(way);
        }
    }
    Way even{{0, 0, 0}, {}};
    const double each = (p.high - p.low - (parts - 1) * p.gap) / parts;
    for (int k = 1; k < parts; ++k) even.joints.push_back(p.low + k * each + (k - 0.5) * p.gap);
    if (each < p.leastPart - kLevel) std::get<0>(even.score) = 1;
    even = judged(std::move(even));
    // Supports are to be set where equal parts want them, rather than strips be cut.
    parting.onPlaces = found && std::get<0>(found->score) <= std::get<0>(even.score);
    parting.joints = parting.onPlaces ? std::move(found->joints) : std::move(even.joints);
    return parting;
}

SetOut setOutPanels(const SetOutRequest& request, const SheetGoods& sheet, const PanelRules& rules,
                    const std::stop_token&) {
    return Panelling(request, sheet, rules).lay();
}

} // namespace westrum
