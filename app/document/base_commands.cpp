#include "app/document/base_commands.h"

#include "app/document/set_value.h"
#include "app/document/shell_commands.h"
#include "core/measure/grown.h"
#include "core/shell/shape.h"

#include <QCoreApplication>
#include <QString>
#include <QStringList>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

struct BaseCommands {
    Q_DECLARE_TR_FUNCTIONS(BaseCommands)
};

const SurfacePlan* measuredPlan(const JobDocument& d, const std::string& surface) {
    const SurfacePlan* plan = d.plan() ? d.plan()->surface(surface) : nullptr;
    return plan && plan->measured.measured() ? plan : nullptr;
}

Reading exactly(Mm mm) { return {{}, {std::round(mm.value * 10) / 10}}; }

/// Puts the middle of an opening, of the first of a row, at a point. False if its placement cannot say so.
bool putMiddle(Opening& o, Point middle, const MeasuredOutline& measured) {
    if (!o.width) return false;
    const double width = o.width->length.value, height = o.height ? o.height->length.value : width;
    const auto to = distancesOf(o.place, middle, width, height, measured);
    if (!to) return false;
    o.place.fromSide = exactly(to->fromSide);
    o.place.fromCross = exactly(to->fromCross);
    return true;
}

/// The lamps that are kept even, where they stand even now.
bool evened(Surface& s, const SurfacePlan& plan) {
    bool moved = false;
    for (const LampRow& row : evenLamps(s, plan)) {
        Opening& o = s.openings[static_cast<std::size_t>(row.opening)];
        // From the surface's lower edge and its left one, so that the row runs along.
        o.place = {.side = 0, .cross = 3, .toCentre = true};
        o.rowAlong = true;
        if (o.count > 1) o.pitch = exactly(row.pitch);
        moved = putMiddle(o, row.first, plan.measured) || moved;
    }
    return moved;
}

Command changeLayer(const QString& name, JobDocument& d, const std::string& surface, int layer, const auto& change) {
    FinishOptions options = d.job().options(surface);
    Finish& finish = options.now();
    if (layer < 0 || layer >= static_cast<int>(finish.layers.size())) return nullptr;
    change(finish.layers[static_cast<std::size_t>(layer)]);
    return setValue(name, d, JobPart::Finish, surface, optionsOf(surface), std::move(options));
}

} // namespace

Command shiftOpening(JobDocument& d, const std::string& surface, int index, Point by) {
    const SurfacePlan* plan = measuredPlan(d, surface);
    if (!plan) return nullptr;
    Surface s = *d.job().surface(surface);
    if (index < 0 || index >= static_cast<int>(s.openings.size())) return nullptr;
    for (const PlacedOpening& o : plan->shape.openings)
        if (o.opening == index && o.inRow == 0) {
            if (!putMiddle(s.openings[static_cast<std::size_t>(index)], o.centre + by, plan->measured)) return nullptr;
            return replaceSurface(BaseCommands::tr("Shift an opening"), d, std::move(s));
        }
    return nullptr;
}

Command addBacking(JobDocument& d, const std::string& surface, int zone) {
    const SurfacePlan* plan = measuredPlan(d, surface);
    if (!plan) return nullptr;
    const Surface& s = *d.job().surface(surface);
    if (zone < 0 || zone >= static_cast<int>(s.zones.size())) return nullptr;
    const QString name =
        BaseCommands::tr("Backing, %1").arg(QString::fromStdString(s.zones[static_cast<std::size_t>(zone)].name));
    return replaceSurface(BaseCommands::tr("Add a backing timber"), d,
                          withBacking(s, plan->measured, plan->shape, zone, name.toStdString()));
}

Command spaceLamps(JobDocument& d, const std::string& surface, int lamps, int rows, Mm diameter) {
    const SurfacePlan* plan = measuredPlan(d, surface);
    if (!plan || lamps < 1 || rows < 1) return nullptr;
    Surface s = *d.job().surface(surface);
    std::erase_if(s.openings, [](const Opening& o) { return o.kind == OpeningKind::Lamp; });
    rows = std::min(rows, lamps);
    SurfacePlan bare = *plan;
    std::erase_if(bare.shape.openings, [](const PlacedOpening&) { return true; });
    for (int r = 0; r < rows; ++r) {
        Opening o;
        o.name = (rows > 1 ? BaseCommands::tr("Lamps, row %1").arg(r + 1) : BaseCommands::tr("Lamps")).toStdString();
        o.kind = OpeningKind::Lamp;
        o.shape = OpeningShape::Round;
        o.width = exactly(diameter);
        o.count = lamps / rows + (r < lamps % rows ? 1 : 0);
        o.edge = OpeningEdge::None;
        o.even = true;
        s.openings.push_back(std::move(o));
    }
    if (!evened(s, bare)) return nullptr;
    return replaceSurface(BaseCommands::tr("Space the lamps"), d, std::move(s));
}

Command partFront(JobDocument& d, const std::string& surface, int across, int up, Mm reveal) {
    const SurfacePlan* plan = measuredPlan(d, surface);
    if (!plan || across < 1 || up < 1) return nullptr;
    const Bounds b = boundsOf(plan->measured.outline);
    const double width = (b.width() - (across + 1) * reveal.value) / across,
                 height = (b.height() - (up + 1) * reveal.value) / up;
    constexpr double kLeast = 50; // mm: a drawer
    if (width < kLeast || height < kLeast) return nullptr;
    Surface s = *d.job().surface(surface);
    std::erase_if(s.openings, [](const Opening& o) { return o.kind == OpeningKind::Other && o.even; });
    for (int r = 0; r < up; ++r) {
        Opening o;
        o.name = (up > 1 ? BaseCommands::tr("Fronts, row %1").arg(r + 1) : BaseCommands::tr("Fronts")).toStdString();
        o.kind = OpeningKind::Other;
        o.width = exactly({width});
        o.height = exactly({height});
        o.count = across;
        if (across > 1) o.pitch = exactly({width + reveal.value});
        o.edge = OpeningEdge::None;
        o.even = true;
        o.place = {.side = 0, .cross = 3, .toCentre = true};
        const Point middle{b.low.x + reveal.value + width / 2,
                           b.low.y + reveal.value + height / 2 + r * (height + reveal.value)};
        if (!putMiddle(o, middle, plan->measured)) return nullptr;
        s.openings.push_back(std::move(o));
    }
    return replaceSurface(BaseCommands::tr("Part the front"), d, std::move(s));
}

Command placeLamps(JobDocument& d, const std::string& surface) {
    const SurfacePlan* plan = measuredPlan(d, surface);
    if (!plan) return nullptr;
    Surface s = *d.job().surface(surface);
    if (!evened(s, *plan)) return nullptr;
    return replaceSurface(BaseCommands::tr("Space the lamps anew"), d, std::move(s));
}

Command setBattens(JobDocument& d, const std::string& surface, int layer, std::vector<Support> battens) {
    return changeLayer(BaseCommands::tr("Set the battens"), d, surface, layer,
                       [&](Layer& l) { l.battens = std::move(battens); });
}

Command setPacking(JobDocument& d, const std::string& surface, Packing packing, int gesture) {
    return setValue(
        BaseCommands::tr("Pack the battens"), d, JobPart::Measurement,
        surface, [surface](auto& job) -> auto& { return job.surface(surface)->packing; }, std::move(packing), gesture);
}

Command readCrossing(JobDocument& d, const std::string& surface, CrossingReading crossing) {
    Packing packing = d.job().surface(surface)->packing;
    std::erase_if(packing.readings, [&](const CrossingReading& r) { return r.at(crossing); });
    if (crossing.reading) packing.readings.push_back(std::move(crossing));
    return setPacking(d, surface, std::move(packing));
}

Command holdPiece(JobDocument& d, const std::string& surface, int layer, const std::string& piece,
                  std::optional<FixedWith> by) {
    return changeLayer(BaseCommands::tr("Hold a panel another way"), d, surface, layer, [&](Layer& l) {
        if (by)
            l.holders[piece] = static_cast<int>(*by);
        else
            l.holders.erase(piece);
    });
}

Command putBox(JobDocument& d, ArchBox box, const BoxSurfaceNamer& name) {
    Job after = d.job();
    if (box.id.empty()) {
        int n = 1;
        const auto taken = [&](const std::string& id) {
            return std::any_of(after.archBoxes.begin(), after.archBoxes.end(),
                               [&](const ArchBox& b) { return b.id == id; });
        };
        while (taken("box-" + std::to_string(n))) ++n;
        box.id = "box-" + std::to_string(n);
    }
    const std::string floor = box.floor;
    putArchBox(after, std::move(box), name);
    const QString what = BaseCommands::tr("Change a wheel-arch box");
    std::vector<Command> parts;
    parts.push_back(setValue(
        what, d, JobPart::Shell, floor, [](auto& job) -> auto& { return job.surfaces; }, std::move(after.surfaces)));
    parts.push_back(setValue(
        what, d, JobPart::Shell, floor, [](auto& job) -> auto& { return job.archBoxes; }, std::move(after.archBoxes)));
    return together(what, std::move(parts));
}

Command removeBox(JobDocument& d, const std::string& id) {
    std::vector<ArchBox> boxes = d.job().archBoxes;
    std::erase_if(boxes, [&](const ArchBox& b) { return b.id == id; });
    return setValue(
        BaseCommands::tr("Take a wheel-arch box away"), d, JobPart::Shell, {},
        [](auto& job) -> auto& { return job.archBoxes; }, std::move(boxes));
}

Command setClearance(JobDocument& d, OpeningKind kind, std::optional<Mm> clear) {
    std::map<OpeningKind, Mm> all = d.job().clearances;
    if (clear)
        all[kind] = *clear;
    else
        all.erase(kind);
    return setValue(
        BaseCommands::tr("Set a clearance"), d, JobPart::Measurement, {},
        [](auto& job) -> auto& { return job.clearances; }, std::move(all));
}

Command takeOutline(JobDocument& d, const std::string& surface, const std::string& from,
                    const std::vector<double>& bySide, double rest, bool openings) {
    const SurfacePlan* plan = measuredPlan(d, from);
    if (!plan || !d.job().surface(surface)) return nullptr;
    const auto grown = grownOutline(plan->measured, bySide, rest);
    if (!grown) return nullptr;
    Surface s = *d.job().surface(surface);
    s.measurement.form = OutlineForm::Drawn;
    s.measurement.drawn = drawnOutline(grown->ring);
    s.measurement.notches.clear();
    s.measurement.steps.clear();
    if (openings) {
        s.openings.clear();
        const MeasuredOutline measured = outlineOf(s.measurement);
        // Placed from a level side and an upright one, whatever their letters are now.
        int level = 0, upright = 0;
        for (std::size_t k = 0; k < measured.sides.size(); ++k) {
            const Point way = measured.sides[k].back() - measured.sides[k].front();
            const Point best = measured.sides[static_cast<std::size_t>(level)].back() -
                               measured.sides[static_cast<std::size_t>(level)].front();
            const Point high = measured.sides[static_cast<std::size_t>(upright)].back() -
                               measured.sides[static_cast<std::size_t>(upright)].front();
            if (std::abs(way.x) > std::abs(best.x)) level = static_cast<int>(k);
            if (std::abs(way.y) > std::abs(high.y)) upright = static_cast<int>(k);
        }
        const Surface& template_ = *d.job().surface(from);
        for (const PlacedOpening& placed : plan->shape.openings) {
            if (placed.inRow > 0) continue;
            Opening o = template_.openings[static_cast<std::size_t>(placed.opening)];
            o.place.side = level;
            o.place.cross = upright;
            if (putMiddle(o, placed.centre + grown->shift, measured)) s.openings.push_back(std::move(o));
        }
    }
    return replaceSurface(BaseCommands::tr("Take an outline over"), d, std::move(s));
}

Command takeBaseFix(JobDocument& d, const Remark& remark) {
    if (!remark.fix) return nullptr;
    const std::string& surface = remark.place.surface;
    switch (remark.fix->kind) {
    case FixKind::AddBacking: return addBacking(d, surface, static_cast<int>(remark.fix->value));
    case FixKind::PlaceLamps: return placeLamps(d, surface);
    case FixKind::ShiftOpening: {
        const QStringList by = QString::fromStdString(remark.fix->key).split(QLatin1Char(' '));
        if (by.size() != 2) return nullptr;
        return shiftOpening(d, surface, static_cast<int>(remark.fix->value), {by[0].toDouble(), by[1].toDouble()});
    }
    default: return nullptr;
    }
}

} // namespace westrum
