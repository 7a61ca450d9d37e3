#include "core/plan/base_plan.h"

#include "core/measure/cutouts.h"
#include "core/setout/sheet_panels.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kStandsOut = 5; // mm of headroom lost by one crossing alone: worth a word
constexpr double kFromEdge = 50; // mm: the outer battens' middle lines
constexpr double kMostLeft = 1;  // mm: a packer that leaves more out of flat is told

Reading exactly(double mm) { return {{}, {std::round(mm * 10) / 10}}; }

/// Whether the build-up has battens that lie on the ribs.
bool onRibs(const Finish& finish, const SurfaceContext& context) {
    for (std::size_t i = 0; i < finish.layers.size(); ++i) {
        const ProductFamily* f = context.products[i] ? productFamily(context.products[i]->family) : nullptr;
        if (f && f->role == LayerRole::Batten) return valueOf(finish.layers[i].rules, f->layerRules, "beside") == 0;
    }
    return false;
}

bool sameBattenAndRib(const PackedBattens::Crossing& a, const PackedBattens::Crossing& b) {
    CrossingReading other = a.where;
    other.station = b.where.station;
    return a.where.station != b.where.station && other.at(b.where);
}

/// What screws pass through between two stations of a batten that lies along its rib.
void between(const PackedBattens::Crossing& a, const PackedBattens::Crossing& b, std::vector<PackedAt>& under) {
    constexpr double kStep = 50; // mm
    const double length = distance(a.at, b.at);
    for (double at = kStep; at < length; at += kStep) {
        const double t = at / length;
        const Mm thickness = a.stack.thickness * (1 - t) + b.stack.thickness * t;
        if (thickness.value > 0.1) under.push_back({a.at + (b.at - a.at) * t, thickness});
    }
}

/// Where battens meet ribs, and what is known of how those stand there.
struct Crossings {
    std::vector<PackedBattens::Crossing> all;
    std::vector<CrookedCrossing> known;
    std::vector<std::size_t> of; ///< place among all of each that is known
};
class CrossingFinder {
public:
    CrossingFinder(const Surface& surface, const SurfaceShape& shape) : surface_(surface), shape_(shape) {
        // Ribs that differ in depth say how they stand even where no line was stretched.
        depths_ = surface.packing.readings.empty();
        for (const Support& s : surface.supports) depths_ = depths_ && (s.kind != SupportKind::Rib || s.depth);
    }
    Crossings run() {
        for (const PlacedSupport& b : shape_.supports) {
            if (b.kind != SupportKind::Batten || b.shape.empty()) continue;
            ++line_;
            for (const PlacedSupport& r : shape_.supports)
                if (r.kind == SupportKind::Rib && !r.shape.empty()) meet(b, r);
        }
        return std::move(out_);
    }

private:
    void meet(const PlacedSupport& b, const PlacedSupport& r) {
        const Bounds box = boundsOf(b.shape), rib = boundsOf(r.shape);
        const Point at = r.along == b.along ? (box.low + box.high) * 0.5
                         : b.along          ? Point{r.centre, b.centre}
                                            : Point{b.centre, r.centre};
        if (at.x < std::max(box.low.x, rib.low.x) - 1 || at.x > std::min(box.high.x, rib.high.x) + 1 ||
            at.y < std::max(box.low.y, rib.low.y) - 1 || at.y > std::min(box.high.y, rib.high.y) + 1)
            return;
        if (r.along != b.along) return cross(b, r, at, 0);
        // It lies along the rib, and is packed at stations; not where an opening parts it.
        const std::vector<double> stations =
            b.along ? packingStations(box.low.x, box.high.x) : packingStations(box.low.y, box.high.y);
        for (std::size_t k = 0; k < stations.size(); ++k) {
            const Point on = b.along ? Point{stations[k], b.centre} : Point{b.centre, stations[k]};
            if (contains(shape_.net, on)) cross(b, r, on, static_cast<int>(k));
        }
    }
    void cross(const PlacedSupport& b, const PlacedSupport& r, Point at, int station) {
        PackedBattens::Crossing c;
        c.where = {b.support, b.inRow, r.support, r.inRow, station, {}};
        c.at = at;
        for (const CrossingReading& read : surface_.packing.readings)
            if (read.at(c.where) && read.reading) {
                c.where.reading = read.reading;
                const double mm = read.reading->length.value;
                c.height = {surface_.packing.fromLine ? -mm : mm};
            }
        if (depths_) c.height = surface_.supports[static_cast<std::size_t>(r.support)].depth->length;
        if (c.height) {
            out_.known.push_back({at, line_, c.height->value});
            out_.of.push_back(out_.all.size());
        }
        out_.all.push_back(std::move(c));
    }

    const Surface& surface_;
    const SurfaceShape& shape_;
    bool depths_ = false;
    int line_ = -1;
    Crossings out_;
};

/// One crossing that stands out has all the others packed for it.
void tellWhatStandsOut(const Surface& surface, const PackedBattens& packed, const Crossings& c,
                       const PackedFaces& faces, std::vector<Remark>& remarks) {
    std::size_t worst = 0;
    double saves = 0;
    for (std::size_t k = 0; k < c.known.size() && c.known.size() > 3; ++k) {
        if (faces.packer[k] > 0.05) continue;
        std::vector<CrookedCrossing> rest = c.known;
        rest.erase(rest.begin() + static_cast<std::ptrdiff_t>(k));
        const double saved = faces.lost() - packedFaces(packed.to, rest).lost();
        if (saved > saves) {
            saves = saved;
            worst = c.of[k];
        }
    }
    if (saves <= kStandsOut) return;
    const CrossingReading& w = packed.crossings[worst].where;
    remarks.push_back({Severity::Warning,
                       {"", Part::Support, w.rib},
                       RemarkKind::PackingStandsOut,
                       {{"batten", std::int64_t{w.battenInRow + 1}},
                        {"rib", std::int64_t{w.ribInRow + 1}},
                        {"ribName", surface.supports[static_cast<std::size_t>(w.rib)].name},
                        {"length", Mm{saves}}},
                       {}});
}

} // namespace

PackedBattens packBattens(const Surface& surface, const Finish& finish, const SurfaceShape& shape,
                          const SurfaceContext& context, std::vector<Remark>& remarks) {
    PackedBattens packed;
    packed.to = surface.packing.to;
    if (packed.to == PackTo::Nothing || !onRibs(finish, context)) return packed;
    const Crossings crossings = CrossingFinder(surface, shape).run();
    packed.crossings = crossings.all;
    const std::vector<CrookedCrossing>& known = crossings.known;
    const std::vector<std::size_t>& of = crossings.of;
    const auto total = static_cast<std::int64_t>(packed.crossings.size());
    if (known.size() < packed.crossings.size())
        remarks.push_back({Severity::Warning,
                           {"", Part::Support},
                           RemarkKind::PackingIncomplete,
                           {{"count", total - static_cast<std::int64_t>(known.size())}, {"total", total}},
                           {}});
    if (known.empty()) return packed;
    const PackedFaces faces = packedFaces(packed.to, known);
    packed.sum = {faces.sum};
    packed.lost = {faces.lost()};
    int tooThick = 0;
    Mm reach;
    for (std::size_t k = 0; k < known.size(); ++k) {
        PackedBattens::Crossing& c = packed.crossings[of[k]];
        c.packer = {faces.packer[k]};
        c.stack = packerStack(c.packer, context.packers);
        packed.worst = std::max(packed.worst, Mm{std::abs(c.off().value)});
        if (c.stack.thickness.value > 0) packed.under.push_back({c.at, c.stack.thickness});
        if (k > 0 && sameBattenAndRib(packed.crossings[of[k - 1]], c))
            between(packed.crossings[of[k - 1]], c, packed.under);
        if (-c.off().value > kMostLeft) {
            ++tooThick;
            reach = std::max(reach, c.packer);
        }
    }
    if (context.packers.empty() && faces.sum > 0.5)
        remarks.push_back({Severity::Warning, {"", Part::Support}, RemarkKind::PackersMissing, {}, {}});
    else if (tooThick > 0)
        remarks.push_back({Severity::Warning,
                           {"", Part::Support},
                           RemarkKind::PackerTooThick,
                           {{"count", std::int64_t{tooThick}}, {"length", reach}},
                           {}});
    tellWhatStandsOut(surface, packed, crossings, faces, remarks);
    return packed;
}

std::vector<Support> battensBySpan(const MeasuredOutline& measured, bool along, Mm width, Mm span,
                                   std::span<const double> joints, const std::string& name) {
    std::vector<Support> battens;
    const SideLine lower = lowerEdge(measured);
    const Bounds b = boundsOf(measured.outline);
    const double base = along ? lower.from.y : lower.from.x;
    const double from = (along ? b.low.y : b.low.x) + kFromEdge, to = (along ? b.high.y : b.high.x) - kFromEdge;
    if (to <= from || span.value <= 0) return battens;
    const auto put = [&](double at, int count, double spacing) {
        Support s;
        s.name = name;
        s.kind = SupportKind::Batten;
        s.along = along;
        s.position = exactly(at - base);
        s.width = exactly(width.value);
        s.count = count;
        if (count > 1) s.spacing = exactly(spacing);
        battens.push_back(std::move(s));
    };
    std::vector<double> fixed{from};
    std::vector<double> sorted(joints.begin(), joints.end());
    std::sort(sorted.begin(), sorted.end());
    for (const double j : sorted)
        if (j > fixed.back() + width.value && j < to - width.value) fixed.push_back(j);
    fixed.push_back(to);
    // Equal spaces all through make one row.
    std::vector<double> all;
    for (std::size_t i = 1; i < fixed.size(); ++i) {
        const double gap = fixed[i] - fixed[i - 1];
        const int spaces = std::max(1, static_cast<int>(std::ceil(gap / span.value - 1e-9)));
        for (int k = 0; k < spaces; ++k) all.push_back(fixed[i - 1] + gap * k / spaces);
    }
    all.push_back(to);
    for (std::size_t i = 0; i < all.size();) {
        std::size_t last = i + 1;
        const double step = last < all.size() ? all[last] - all[i] : 0;
        while (last + 1 < all.size() && std::abs(all[last + 1] - all[last] - step) < 0.05) ++last;
        if (last >= all.size()) {
            put(all[i], 1, 0);
            break;
        }
        put(all[i], static_cast<int>(last - i) + 1, step);
        i = last + 1;
    }
    return battens;
}

std::optional<BattenDemand> battenDemand(const Finish& finish, const SurfacePlan& plan, const Catalogue& catalogue) {
    std::optional<BattenDemand> demand;
    bool battens = false, boards = false;
    Mm width;
    for (std::size_t i = 0; i < plan.layers.size() && i < finish.layers.size(); ++i) {
        const Product* product = catalogue.find(finish.layers[i].product);
        const Family* family = plan.layers[i].family.empty() ? nullptr : familyOf(plan.layers[i].family);
        if (!product || !family) continue;
        if (family->product.role == LayerRole::Batten) {
            battens = true;
            width = barOf(*product).width;
            demand.reset(); // what lies on the last battens asks
            continue;
        }
        if (!battens || !(family->laid.acrossSupports || family->laid.wrapped) || !plan.layers[i].setOut.laid())
            continue;
        const SetOut& s = plan.layers[i].setOut;
        const Mm span = longestSpan(thicknessOf(*product));
        if (!demand) demand = BattenDemand{.span = span, .joints = {}, .width = width};
        demand->span = std::min(demand->span, span);
        demand->width = width;
        if (family->laid.acrossSupports) {
            demand->along = s.rowsAcross;
            boards = true;
        } else if (!boards) {
            // Panels' joints land on battens: those run the way that most of the joints do.
            double up = 0, level = 0;
            for (const Joint& j : s.joints) {
                up += std::abs(j.to.y - j.from.y);
                level += std::abs(j.to.x - j.from.x);
            }
            demand->along = level > up;
        }
        for (const Joint& j : s.joints) {
            const bool level = std::abs(j.to.x - j.from.x) > std::abs(j.to.y - j.from.y);
            if (family->laid.wrapped && level == demand->along) demand->joints.push_back(level ? j.from.y : j.from.x);
        }
    }
    return demand;
}

void checkBacking(const Surface& surface, SurfacePlan& plan) {
    for (const PlacedZone& z : plan.shape.zones) {
        const Zone& zone = surface.zones[static_cast<std::size_t>(z.zone)];
        if (zone.kind != ZoneKind::Heavy) continue;
        const bool backed = std::any_of(plan.shape.supports.begin(), plan.shape.supports.end(), [&](const auto& s) {
            return s.kind == SupportKind::Batten && areaMm2(intersection(s.shape, z.shape)) > 100;
        });
        if (!backed)
            plan.remarks.push_back({Severity::Warning,
                                    {"", Part::Zone, z.zone},
                                    RemarkKind::BackingMissing,
                                    {{"zone", zone.name}},
                                    Fix{FixKind::AddBacking, "", static_cast<double>(z.zone)}});
    }
}

Surface withBacking(const Surface& surface, const MeasuredOutline& measured, const SurfaceShape& shape, int zone,
                    const std::string& name) {
    constexpr double kBackingWidth = 60; // mm
    Surface backed = surface;
    for (const PlacedZone& z : shape.zones) {
        if (z.zone != zone || z.shape.empty()) continue;
        const Bounds b = boundsOf(z.shape);
        const SideLine lower = lowerEdge(measured);
        Support s;
        s.name = name;
        s.kind = SupportKind::Batten;
        // Across the ribs, so that it reaches from one to the next.
        const bool ribsAlong = std::any_of(surface.supports.begin(), surface.supports.end(),
                                           [](const Support& u) { return u.kind == SupportKind::Rib && u.along; });
        s.along = !ribsAlong;
        s.position =
            exactly(s.along ? (b.low.y + b.high.y) / 2 - lower.from.y : (b.low.x + b.high.x) / 2 - lower.from.x);
        s.width = exactly(kBackingWidth);
        backed.supports.push_back(std::move(s));
    }
    return backed;
}

} // namespace westrum
