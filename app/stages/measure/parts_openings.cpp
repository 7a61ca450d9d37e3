#include "app/stages/measure/parts_panel.h"

#include "app/document/shell_commands.h"
#include "core/shell/ties.h"

#include <QVBoxLayout>

#include <algorithm>

#include <tuple>

namespace westrum {
namespace {

template <class T> const T* member(const std::vector<T>& list, int index) {
    return index >= 0 && static_cast<std::size_t>(index) < list.size() ? &list[static_cast<std::size_t>(index)]
                                                                       : nullptr;
}

} // namespace

void PartsPanel::placementFields(const QString& prefix,
                                 const std::function<void(const std::function<void(Placement&)>&)>& change) {
    const auto now = [this, prefix]() -> Placement {
        const Surface* s = surface();
        if (prefix == QLatin1String("opening")) {
            const Opening* o = member(s->openings, inHand_);
            return o ? o->place : Placement{};
        }
        const Zone* z = member(s->zones, inHand_);
        return z ? z->place : Placement{};
    };
    form_->choice(
        tr("up from"), prefix + QStringLiteral("Side"), sideNames(), [now] { return now().side; },
        [change](int k) { change([k](Placement& p) { p.side = k; }); });
    form_->choice(
        tr("along from"), prefix + QStringLiteral("Cross"), sideNames(), [now] { return now().cross; },
        [change](int k) { change([k](Placement& p) { p.cross = k; }); });
    form_->flag(
        tr("to its centre"), prefix + QStringLiteral("Centre"), [now] { return now().toCentre; },
        [change](bool on) { change([on](Placement& p) { p.toCentre = on; }); });
}

void PartsPanel::buildOpenings() {
    const Surface* s = surface();
    form_->row();
    for (int i = 0; i < static_cast<int>(s->openings.size()); ++i)
        form_->pick(QString::fromStdString(s->openings[static_cast<std::size_t>(i)].name),
                    QStringLiteral("opening%1").arg(i), i == inHand_, [this, i] { show(Openings, i); });
    const std::pair<QString, OpeningKind> kinds[] = {
        {tr("Window"), OpeningKind::Window}, {tr("Vent"), OpeningKind::RoofVent}, {tr("Lamps"), OpeningKind::Lamp},
        {tr("Socket"), OpeningKind::Socket}, {tr("Hatch"), OpeningKind::Hatch},   {tr("Pipe"), OpeningKind::Pipe},
        {tr("Hob"), OpeningKind::Hob},       {tr("Sink"), OpeningKind::Sink},     {tr("Heater"), OpeningKind::Heater}};
    form_->words(s->openings.empty()
                     ? tr("What is cut into this surface? Add it here; its figures stand on the drawing.")
                     : QString());
    form_->row();
    form_->words(tr("Add:"))->setMaximumWidth(50);
    for (const auto& [name, kind] : kinds)
        form_->button(name, QStringLiteral("add%1").arg(name), [this, name = name, kind = kind] {
            Opening o;
            const int n = static_cast<int>(surface()->openings.size());
            o.name = tr("%1 %2").arg(name).arg(n + 1).toStdString();
            o.kind = kind;
            if (kind == OpeningKind::Lamp || kind == OpeningKind::Pipe) {
                o.shape = OpeningShape::Round;
                o.place.toCentre = true;
            }
            if (kind == OpeningKind::Lamp || kind == OpeningKind::Window || kind == OpeningKind::RoofVent)
                o.treatment = Treatment::CoverAndRout;
            push(document_, addOpening(document_, id(), std::move(o)));
            show(Openings, n);
            emit begun(QStringLiteral("o%1.").arg(n));
        });
    form_->stretch();
    if (member(s->openings, inHand_)) buildOpening(inHand_);
}

void PartsPanel::buildOpening(int index) {
    const auto now = [this, index]() -> const Opening& { return surface()->openings[static_cast<std::size_t>(index)]; };
    const auto change = [this, index, now](const std::function<void(Opening&)>& does) {
        Opening o = now();
        does(o);
        push(document_, changeOpening(document_, id(), index, std::move(o)));
    };
    const auto length = [&](const QString& label, const char* what) {
        const std::string key = "o" + std::to_string(index) + "." + what;
        form_->length(
            label, QStringLiteral("reading-") + QString::fromStdString(key),
            [this, key] { return *findReading(*surface(), key); },
            [this, key](MaybeReading r) { push(document_, takeReading(document_, id(), key, std::move(r))); });
    };
    const Opening& o = now();
    form_->row();
    form_->text(
        tr("name"), QStringLiteral("openingName"), [now] { return now().name; },
        [change](const std::string& n) { change([&](Opening& c) { c.name = n; }); });
    form_->choice(
        {}, QStringLiteral("openingShape"), {tr("rectangle"), tr("round"), tr("polygon")},
        [now] { return static_cast<int>(now().shape); },
        [change](int k) {
            change([k](Opening& c) {
                c.shape = static_cast<OpeningShape>(k);
                if (c.shape == OpeningShape::Polygon && c.corners.empty()) c.corners.resize(4);
            });
        });
    if (o.shape == OpeningShape::Rectangle) length(tr("corner radius"), "radius");
    placementFields(QStringLiteral("opening"), [change](const std::function<void(Placement&)>& does) {
        change([&](Opening& c) { does(c.place); });
    });
    form_->stretch();
    if (o.shape == OpeningShape::Polygon) buildCorners(index);
    form_->row();
    form_->count(
        tr("how many in a row"), QStringLiteral("openingCount"), 1, 50, [now] { return now().count; },
        [change](int n) { change([n](Opening& c) { c.count = n; }); });
    if (o.count > 1) {
        length(tr("centre to centre"), "pitch");
        form_->choice(
            {}, QStringLiteral("openingRow"), {tr("along"), tr("up")}, [now] { return now().rowAlong ? 0 : 1; },
            [change](int k) { change([k](Opening& c) { c.rowAlong = k == 0; }); });
    }
    form_->choice(
        {}, QStringLiteral("openingTreatment"),
        {tr("cut before fitting"), tr("cover, then rout flush"), tr("leave covered")},
        [now] { return static_cast<int>(now().treatment); },
        [change](int k) { change([k](Opening& c) { c.treatment = static_cast<Treatment>(k); }); });
    form_->choice(
        tr("edge"), QStringLiteral("openingEdge"), {tr("none"), tr("trim ring"), tr("reveal, turned in"), tr("bound")},
        [now] { return static_cast<int>(now().edge); },
        [change](int k) { change([k](Opening& c) { c.edge = static_cast<OpeningEdge>(k); }); });
    if (o.edge == OpeningEdge::Reveal) length(tr("turn-in"), "turnIn");
    if (o.treatment == Treatment::CutBefore) {
        length(tr("keep it as a lid, gap"), "lid");
        if (o.lid) length(tr("with a hole of"), "finger");
    }
    if (o.kind == OpeningKind::Hob || o.kind == OpeningKind::Heater || o.kind == OpeningKind::Sink || o.clear)
        length(tr("clear, by its label"), "clear");
    buildSameHole(index);
    form_->button(
        QStringLiteral("✕"), QStringLiteral("removeOpening"),
        [this, index] { push(document_, removeOpening(document_, id(), index)); }, true);
    form_->stretch();
}

/// Which opening of another surface it is, seen from there.
void PartsPanel::buildSameHole(int index) {
    QStringList names{tr("none")};
    std::vector<std::pair<std::string, int>> places;
    for (const Surface& s : document_.job().surfaces) {
        if (s.id == id()) continue;
        for (std::size_t k = 0; k < s.openings.size(); ++k) {
            names << tr("%1, %2").arg(QString::fromStdString(s.name), QString::fromStdString(s.openings[k].name));
            places.emplace_back(s.id, static_cast<int>(k));
        }
    }
    if (places.empty()) return;
    form_->choice(
        tr("the same hole as"), QStringLiteral("openingHole"), names,
        [this, index, places] {
            const std::string& hole = surface()->openings[static_cast<std::size_t>(index)].hole;
            for (std::size_t k = 0; k < places.size() && !hole.empty(); ++k) {
                const Surface* s = document_.job().surface(places[k].first);
                const Opening* o = s ? member(s->openings, places[k].second) : nullptr;
                if (o && o->hole == hole) return static_cast<int>(k) + 1;
            }
            return 0;
        },
        [this, index, places](int k) {
            const auto [other, place] = k > 0 ? places[static_cast<std::size_t>(k - 1)] : std::pair(std::string(), -1);
            push(document_, joinHole(document_, id(), index, other, place));
        });
}

/// Of a polygon: each corner from the lower left of its box.
void PartsPanel::buildCorners(int index) {
    const auto now = [this, index]() -> const Opening& { return surface()->openings[static_cast<std::size_t>(index)]; };
    const auto change = [this, index, now](const std::function<void(Opening&)>& does) {
        Opening o = now();
        does(o);
        push(document_, changeOpening(document_, id(), index, std::move(o)));
    };
    const Opening& o = now();
    form_->row();
    for (std::size_t k = 0; k < std::min<std::size_t>(o.corners.size(), 8); ++k)
        for (const bool along : {true, false})
            form_->length(
                along ? QString(QLatin1Char(static_cast<char>('A' + k))) : QString(),
                QStringLiteral("openingCorner%1%2").arg(k).arg(along ? QLatin1Char('x') : QLatin1Char('y')),
                [now, k, along] {
                    const auto& corners = now().corners;
                    if (k >= corners.size()) return MaybeReading{};
                    return along ? corners[k].along : corners[k].across;
                },
                [change, k, along](MaybeReading r) {
                    change([&](Opening& c) { (along ? c.corners[k].along : c.corners[k].across) = r; });
                });
    form_->button(tr("Add a corner"), QStringLiteral("addOpeningCorner"),
                  [change] { change([](Opening& c) { c.corners.emplace_back(); }); });
    form_->stretch();
}

} // namespace westrum
