#include "app/document/shell_commands.h"

#include "app/document/base_commands.h"
#include "app/document/set_value.h"
#include "core/plan/base_checks.h"
#include "core/shell/ties.h"
#include "core/units/print.h"

#include <QCoreApplication>

#include <algorithm>

namespace westrum {
namespace {

struct ShellCommands {
    Q_DECLARE_TR_FUNCTIONS(ShellCommands)
};

/// A changed copy of one surface: small, and every change of it is one exchange.
Command changeSurface(const QString& name, JobDocument& d, const std::string& id, const auto& change,
                      int gesture = -1) {
    Surface s = *d.job().surface(id);
    change(s);
    return setValue(
        name, d, JobPart::Measurement, id, [id](auto& job) -> auto& { return *job.surface(id); }, std::move(s),
        gesture);
}

/// A changed copy of all surfaces: where one comes or goes, or two are tied.
Command changeShell(const QString& name, JobDocument& d, const std::string& id, const auto& change) {
    std::vector<Surface> all = d.job().surfaces;
    change(all);
    return setValue(
        name, d, JobPart::Shell, id, [](auto& job) -> auto& { return job.surfaces; }, std::move(all));
}

template <class T> T& at(std::vector<T>& list, int index) { return list[static_cast<std::size_t>(index)]; }

Command addCopy(const QString& what, JobDocument& d, const std::string& from, const std::string& name, Surface copy) {
    copy.id = freeSurfaceId(d.job(), from);
    copy.name = name;
    // Which surface the copy meets is for the person to say.
    for (Edge& e : copy.edges)
        if (e.kind == EdgeKind::Meets) e = Edge{};
    for (Opening& o : copy.openings) o.hole.clear();
    std::vector<Command> parts;
    parts.push_back(changeShell(what, d, copy.id, [&](std::vector<Surface>& all) {
        const auto after = std::find_if(all.begin(), all.end(), [&](const Surface& s) { return s.id == from; });
        all.insert(after == all.end() ? after : after + 1, copy);
    }));
    std::map<std::string, FinishOptions> finishes = d.job().finishes;
    if (const auto options = finishes.find(from); options != finishes.end()) {
        finishes[copy.id] = options->second;
        parts.push_back(setValue(
            what, d, JobPart::Finish, copy.id, [](auto& job) -> auto& { return job.finishes; }, std::move(finishes)));
    }
    return together(what, std::move(parts));
}

void moveTo(Placement& place, const PlacementDistances& to) {
    place.fromSide = Reading{{}, to.fromSide};
    place.fromCross = Reading{{}, to.fromCross};
}

} // namespace

Command takeReading(JobDocument& d, const std::string& surface, const std::string& key, MaybeReading reading) {
    // The notch of a box over a wheel arch is the box's own footprint: all of it changes together.
    for (ArchBox box : d.job().archBoxes) {
        const std::string notch = "n" + std::to_string(box.notch);
        if (!reading || box.floor != surface || (key != notch + ".length" && key != notch + ".depth")) continue;
        (key == notch + ".length" ? box.length : box.depth) = std::move(reading);
        return putBox(d, std::move(box), [](SurfaceKind, Hand, int) { return std::string("?"); });
    }
    return changeSurface(ShellCommands::tr("Take a reading"), d, surface, [&](Surface& s) {
        if (MaybeReading* place = findReading(s, key)) *place = std::move(reading);
    });
}

Command takeCheck(JobDocument& d, std::size_t check, MaybeReading reading) {
    const QString name = ShellCommands::tr("Take a check reading");
    BodyBefore before = d.job().before;
    if (check >= before.checks.size()) return together(name, {});
    before.checks[check].taken = reading;
    const BodyCheck& c = before.checks[check];
    std::vector<Command> parts;
    const Surface* s = d.job().surface(c.surface);
    if (s && findReading(*s, c.key)) {
        // Taken back, the reading is again as it was before.
        const MaybeReading now = reading ? reading : Reading{printLength(c.before, {.decimals = 1}), c.before};
        parts.push_back(takeReading(d, c.surface, c.key, now));
    }
    parts.push_back(setValue(
        name, d, JobPart::Measurement, c.surface, [](auto& job) -> auto& { return job.before; }, before));
    return together(name, std::move(parts));
}

Command measuredHere(JobDocument& d, const std::string& surface) {
    return changeSurface(ShellCommands::tr("Say that it is measured here"), d, surface,
                         [](Surface& s) { s.before = false; });
}

Command shapeMeasurement(JobDocument& d, const std::string& surface, Measurement shaped) {
    return changeSurface(ShellCommands::tr("Change the way of measuring"), d, surface,
                         [&](Surface& s) { s.measurement = std::move(shaped); });
}

Command turnCorner(JobDocument& d, const std::string& surface, int corner, CornerTurn turn) {
    return changeSurface(ShellCommands::tr("Say which way a corner turns"), d, surface, [&](Surface& s) {
        PolygonReadings& p = s.measurement.polygon;
        p.turns.resize(p.sides.size());
        if (corner >= 0 && static_cast<std::size_t>(corner) < p.turns.size()) at(p.turns, corner) = turn;
        if (std::all_of(p.turns.begin(), p.turns.end(), [](CornerTurn t) { return t == CornerTurn::Unsaid; }))
            p.turns.clear();
    });
}

Command addDiagonal(JobDocument& d, const std::string& surface, int from, int to) {
    return changeSurface(ShellCommands::tr("Add a diagonal"), d, surface, [&](Surface& s) {
        auto& diagonals = s.measurement.polygon.diagonals;
        const bool known = std::any_of(diagonals.begin(), diagonals.end(), [&](const auto& g) {
            return (g.from == from && g.to == to) || (g.from == to && g.to == from);
        });
        if (!known) diagonals.push_back({from, to, {}});
    });
}

Command replaceSurface(const QString& name, JobDocument& d, Surface surface) {
    const std::string id = surface.id;
    return changeSurface(name, d, id, [&](Surface& s) { s = std::move(surface); });
}

Command addSurface(JobDocument& d, Surface surface) {
    surface.id = freeSurfaceId(d.job(), surface.id.empty() ? "surface" : surface.id);
    const std::string id = surface.id;
    return changeShell(ShellCommands::tr("Add a surface"), d, id,
                       [&](std::vector<Surface>& all) { all.push_back(std::move(surface)); });
}

Command duplicateSurface(JobDocument& d, const std::string& surface, const std::string& name) {
    return addCopy(ShellCommands::tr("Duplicate the surface"), d, surface, name, *d.job().surface(surface));
}

Command mirrorSurface(JobDocument& d, const std::string& surface, const std::string& name) {
    return addCopy(ShellCommands::tr("Mirror the surface"), d, surface, name, mirrored(*d.job().surface(surface)));
}

Command removeSurface(JobDocument& d, const std::string& surface) {
    return changeShell(ShellCommands::tr("Remove the surface"), d, surface, [&](std::vector<Surface>& all) {
        for (int side = 0; side < static_cast<int>(d.job().surface(surface)->edges.size()); ++side)
            part(all, surface, side);
        std::erase_if(all, [&](const Surface& s) { return s.id == surface; });
    });
}

Command describeSurface(JobDocument& d, const std::string& surface, SurfaceKind kind, Hand hand, const Area& area) {
    return changeSurface(ShellCommands::tr("Say what the surface is"), d, surface, [&](Surface& s) {
        s.kind = kind;
        s.hand = hand;
        s.area = area;
    });
}

Command leanSurface(JobDocument& d, const std::string& surface, bool outwards) {
    return changeSurface(ShellCommands::tr("Say which way it leans"), d, surface,
                         [&](Surface& s) { s.leansOut = outwards; });
}

Command addOpening(JobDocument& d, const std::string& surface, Opening opening) {
    return changeSurface(ShellCommands::tr("Add an opening"), d, surface,
                         [&](Surface& s) { s.openings.push_back(std::move(opening)); });
}
Command changeOpening(JobDocument& d, const std::string& surface, int index, Opening opening) {
    return changeSurface(ShellCommands::tr("Change an opening"), d, surface,
                         [&](Surface& s) { at(s.openings, index) = std::move(opening); });
}
Command joinHole(JobDocument& d, const std::string& surface, int index, const std::string& other, int otherIndex) {
    std::vector<Command> parts;
    const QString what = ShellCommands::tr("Say which hole it is");
    const Surface* there = d.job().surface(other);
    std::string hole;
    if (there && otherIndex >= 0 && static_cast<std::size_t>(otherIndex) < there->openings.size()) {
        Opening partner = there->openings[static_cast<std::size_t>(otherIndex)];
        hole = partner.hole;
        const auto taken = [&] {
            for (const Surface& s : d.job().surfaces)
                for (const Opening& o : s.openings)
                    if (o.hole == hole) return true;
            return hole.empty();
        };
        if (hole.empty()) {
            for (int k = 1; taken(); ++k) hole = "hole-" + std::to_string(k);
            partner.hole = hole;
            parts.push_back(changeOpening(d, other, otherIndex, std::move(partner)));
        }
    }
    Opening own = d.job().surface(surface)->openings[static_cast<std::size_t>(index)];
    own.hole = hole;
    parts.push_back(changeSurface(what, d, surface, [&](Surface& s) {
        for (Opening& o : s.openings) // a surface has one side of a hole
            if (o.hole == hole) o.hole.clear();
        at(s.openings, index) = std::move(own);
    }));
    return together(what, std::move(parts));
}
Command removeOpening(JobDocument& d, const std::string& surface, int index) {
    return changeSurface(ShellCommands::tr("Remove an opening"), d, surface,
                         [&](Surface& s) { s.openings.erase(s.openings.begin() + index); });
}
Command addZone(JobDocument& d, const std::string& surface, Zone zone) {
    return changeSurface(ShellCommands::tr("Add a hidden zone"), d, surface,
                         [&](Surface& s) { s.zones.push_back(std::move(zone)); });
}
Command changeZone(JobDocument& d, const std::string& surface, int index, Zone zone) {
    return changeSurface(ShellCommands::tr("Change a hidden zone"), d, surface,
                         [&](Surface& s) { at(s.zones, index) = std::move(zone); });
}
Command removeZone(JobDocument& d, const std::string& surface, int index) {
    return changeSurface(ShellCommands::tr("Remove a hidden zone"), d, surface,
                         [&](Surface& s) { s.zones.erase(s.zones.begin() + index); });
}
Command addSupport(JobDocument& d, const std::string& surface, Support support) {
    return changeSurface(ShellCommands::tr("Add a support"), d, surface,
                         [&](Surface& s) { s.supports.push_back(std::move(support)); });
}
Command changeSupport(JobDocument& d, const std::string& surface, int index, Support support) {
    return changeSurface(ShellCommands::tr("Change a support"), d, surface,
                         [&](Surface& s) { at(s.supports, index) = std::move(support); });
}
Command removeSupport(JobDocument& d, const std::string& surface, int index) {
    return changeSurface(ShellCommands::tr("Remove a support"), d, surface, [&](Surface& s) {
        s.supports.erase(s.supports.begin() + index);
        // Readings at its crossings go with it; others keep the supports that they are about.
        std::erase_if(s.packing.readings,
                      [&](const CrossingReading& r) { return r.batten == index || r.rib == index; });
        for (CrossingReading& r : s.packing.readings) {
            r.batten -= r.batten > index ? 1 : 0;
            r.rib -= r.rib > index ? 1 : 0;
        }
    });
}

Command turnBattens(JobDocument& d, const std::string& surface) {
    const SurfacePlan* planned = d.plan() ? d.plan()->surface(surface) : nullptr;
    if (!planned || !planned->measured.measured()) return nullptr;
    return changeSurface(ShellCommands::tr("Turn the battens"), d, surface,
                         [&](Surface& s) { s = withBattensTurned(s, planned->measured); });
}

Command moveOpening(JobDocument& d, const std::string& surface, int index, PlacementDistances to, int gesture) {
    return changeSurface(
        ShellCommands::tr("Move an opening"), d, surface, [&](Surface& s) { moveTo(at(s.openings, index).place, to); },
        gesture);
}
Command moveZone(JobDocument& d, const std::string& surface, int index, PlacementDistances to, int gesture) {
    return changeSurface(
        ShellCommands::tr("Move a hidden zone"), d, surface, [&](Surface& s) { moveTo(at(s.zones, index).place, to); },
        gesture);
}

Command describeEdge(JobDocument& d, const std::string& surface, int side, Edge edge) {
    return changeShell(ShellCommands::tr("Say what a side meets"), d, surface, [&](std::vector<Surface>& all) {
        part(all, surface, side);
        for (Surface& s : all)
            if (s.id == surface) {
                if (s.edges.size() <= static_cast<std::size_t>(side))
                    s.edges.resize(static_cast<std::size_t>(side) + 1);
                at(s.edges, side) = std::move(edge);
            }
    });
}

Command chooseEdgeTrim(JobDocument& d, const std::string& surface, int side, const std::string& product) {
    return changeShell(ShellCommands::tr("Choose an edge's trim"), d, surface, [&](std::vector<Surface>& all) {
        for (Surface& s : all)
            if (s.id == surface) {
                if (s.edges.size() <= static_cast<std::size_t>(side))
                    s.edges.resize(static_cast<std::size_t>(side) + 1);
                at(s.edges, side).trim = product;
            }
    });
}

Command chooseAreaTrim(JobDocument& d, const AreaTrim& trim, const std::string& surface, int side) {
    const QString what = ShellCommands::tr("Choose the trim of all such edges");
    std::vector<AreaTrim> trims = d.job().areaTrims;
    std::erase_if(trims, [&](const AreaTrim& a) { return a.area == trim.area && a.meeting == trim.meeting; });
    if (!trim.product.empty()) trims.push_back(trim);
    std::vector<Command> parts;
    parts.push_back(setValue(
        what, d, JobPart::Shell, {}, [](auto& job) -> auto& { return job.areaTrims; }, std::move(trims)));
    parts.push_back(chooseEdgeTrim(d, surface, side, {}));
    return together(what, std::move(parts));
}

Command gaugeCorner(JobDocument& d, const std::string& surface, int side, bool atEnd, std::optional<double> degrees) {
    return changeShell(ShellCommands::tr("Gauge a corner"), d, surface, [&](std::vector<Surface>& all) {
        for (Surface& s : all)
            if (s.id == surface) {
                if (s.edges.size() <= static_cast<std::size_t>(side))
                    s.edges.resize(static_cast<std::size_t>(side) + 1);
                (atEnd ? at(s.edges, side).endDeg : at(s.edges, side).startDeg) = degrees;
            }
    });
}

Command meetSides(JobDocument& d, const std::string& surface, int side, const std::string& other, int otherSide) {
    return changeShell(ShellCommands::tr("Say what a side meets"), d, surface,
                       [&](std::vector<Surface>& all) { meet(all, surface, side, other, otherSide); });
}

Command setDatum(JobDocument& d, Datum datum) {
    return setValue(
        ShellCommands::tr("Set the datum"), d, JobPart::Details, {}, [](auto& job) -> auto& { return job.datum; },
        std::move(datum));
}

Command saySymmetric(JobDocument& d, bool symmetric) {
    return setValue(
        symmetric ? ShellCommands::tr("Both sides are alike") : ShellCommands::tr("Each side by itself"), d,
        JobPart::Shell, {}, [](auto& job) -> auto& { return job.symmetricBody; }, symmetric);
}

Command setHeadroom(JobDocument& d, Headroom headroom) {
    return setValue(
        ShellCommands::tr("Measure the headroom"), d, JobPart::Details, {},
        [](auto& job) -> auto& { return job.headroom; }, std::move(headroom));
}

Command setAccess(JobDocument& d, Access access) {
    return setValue(
        ShellCommands::tr("Measure the way in"), d, JobPart::Details, {}, [](auto& job) -> auto& { return job.access; },
        std::move(access));
}

Command setVanMass(JobDocument& d, VanMass mass, int gesture) {
    return setValue(
        ShellCommands::tr("Say what the van weighs"), d, JobPart::Buying, {},
        [](auto& job) -> auto& { return job.mass; }, std::move(mass), gesture);
}

Command setWeighings(JobDocument& d, std::vector<Weighing> weighings) {
    return setValue(
        ShellCommands::tr("Change the weighings"), d, JobPart::Buying, {},
        [](auto& job) -> auto& { return job.weighings; }, std::move(weighings));
}

} // namespace westrum
