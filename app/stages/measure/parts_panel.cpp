#include "app/stages/measure/parts_panel.h"

#include "app/document/shell_commands.h"
#include "core/shell/ties.h"

#include <QVBoxLayout>

#include <algorithm>
#include <numbers>

#include <tuple>

namespace westrum {
namespace {

template <class T> const T* member(const std::vector<T>& list, int index) {
    return index >= 0 && static_cast<std::size_t>(index) < list.size() ? &list[static_cast<std::size_t>(index)]
                                                                       : nullptr;
}

Reading whole(double mm) { return {{}, {std::round(mm)}}; }

} // namespace

PartsPanel::PartsPanel(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent),
      document_(document),
      decimalMark_(decimalMark),
      groups_(new BoundForm(document, decimalMark)),
      form_(new BoundForm(document, decimalMark)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 2, 0, 0);
    column->setSpacing(6);
    column->addWidget(groups_);
    column->addWidget(form_);
    connect(form_, &BoundForm::problem, this, &PartsPanel::problem);
}

void PartsPanel::show(Group group, int inHand) {
    group_ = group;
    inHand_ = inHand;
    refresh();
    emit turned();
}

QStringList PartsPanel::sideNames() const {
    QStringList names;
    const int n = surface() ? sidesOf(surface()->measurement) : 4;
    for (int k = 0; k < std::max(4, n); ++k) names << tr("side %1").arg(sideLetter(k));
    return names;
}

QString PartsPanel::structure() const {
    const Surface* s = surface();
    if (!s) return {};
    const Measurement& m = s->measurement;
    QString text = QStringLiteral("%1|%2|%3|").arg(QString::fromStdString(s->id)).arg(group_).arg(inHand_);
    const auto add = [&](auto... n) { ((text += QString::number(static_cast<int>(n)) + QLatin1Char(' ')), ...); };
    add(m.form, m.polygon.sides.size(), m.polygon.diagonals.size(), m.stations.rows.size(), m.fixedPoints.rows.size(),
        m.curve.curving, m.curve.parts.size(), m.cornerRadii.size(), m.notches.size(), m.steps.size(),
        s->openings.size(), s->edges.size(), s->zones.size(), s->supports.size(), document_.job().access.doors.size(),
        document_.job().surfaces.size());
    for (const auto& o : s->openings) text += QString::fromStdString(o.name) + QLatin1Char(',');
    for (const auto& z : s->zones) text += QString::fromStdString(z.name) + QLatin1Char(',');
    for (const auto& u : s->supports) text += QString::fromStdString(u.name) + QLatin1Char(',');
    if (const Opening* o = member(s->openings, inHand_); o && group_ == Openings)
        add(o->shape, o->edge, o->count > 1, o->corners.size());
    if (const Support* u = member(s->supports, inHand_); u && group_ == Supports)
        add(u->count > 1, u->kind, u->holes.size());
    add(s->lean.has_value());
    if (group_ == Itself) text += QString::fromStdString(template_);
    if (group_ == Box) {
        for (const Notch& n : s->measurement.notches) text += QString::fromStdString(n.name) + QLatin1Char(',');
        for (const ArchBox& b : document_.job().archBoxes)
            text += QStringLiteral("%1:%2,").arg(QString::fromStdString(b.floor)).arg(b.notch);
    }
    if (group_ == Edges) {
        add(s->edge(inHand_).kind);
        for (const Surface& other : document_.job().surfaces) text += QString::fromStdString(other.name);
    }
    return text;
}

void PartsPanel::refresh() {
    const Surface* s = surface();
    if (!s) return;
    // What was in hand may be gone: removed, undone, or of another surface.
    const auto limit = [&] {
        switch (group_) {
        case Openings: return static_cast<int>(s->openings.size());
        case Zones: return static_cast<int>(s->zones.size());
        case Supports: return static_cast<int>(s->supports.size());
        case Box: return static_cast<int>(s->measurement.notches.size());
        case Edges: return std::max(4, sidesOf(s->measurement));
        default: return 0;
        }
    }();
    const int before = inHand_;
    if (inHand_ >= limit) inHand_ = limit - 1;
    if (inHand_ < 0 && limit > 0) inHand_ = 0;
    const QString wanted = structure();
    if (wanted != built_) {
        built_ = wanted;
        build();
    }
    form_->refresh();
    if (inHand_ != before) emit turned();
}

void PartsPanel::build() {
    groups_->clear();
    groups_->row();
    const std::pair<QString, const char*> names[] = {
        {tr("Outline"), "groupOutline"},   {tr("Openings"), "groupOpenings"},
        {tr("Sides"), "groupEdges"},       {tr("Hidden"), "groupZones"},
        {tr("Supports"), "groupSupports"}, {tr("Arch box"), "groupBox"},
        {tr("Surface"), "groupItself"},    {tr("Van"), "groupVan"}};
    for (int g = Outline; g <= Van; ++g) {
        QString text = names[g].first;
        const Surface* s = surface();
        const std::size_t count = g == Openings   ? s->openings.size()
                                  : g == Zones    ? s->zones.size()
                                  : g == Supports ? s->supports.size()
                                                  : 0;
        if (count > 0) text += QStringLiteral(" %1").arg(count);
        // A box stands on a floor, or is what the surface belongs to.
        if (g == Box && s && s->kind != SurfaceKind::Floor && g != group_) continue;
        groups_->pick(text, QString::fromLatin1(names[g].second), g == group_,
                      [this, g] { show(static_cast<Group>(g)); });
    }
    groups_->stretch();
    form_->clear();
    switch (group_) {
    case Outline: buildOutline(); break;
    case Openings: buildOpenings(); break;
    case Edges: buildEdges(); break;
    case Zones: buildZones(); break;
    case Supports: buildSupports(); break;
    case Box: buildBox(); break;
    case Itself: buildItself(); break;
    case Van: buildVan(); break;
    }
}

void PartsPanel::shape(const std::function<void(Measurement&)>& change) {
    Measurement m = surface()->measurement;
    change(m);
    push(document_, shapeMeasurement(document_, id(), std::move(m)));
}

void PartsPanel::buildOutline() {
    buildForm();
    buildCurve();
    buildCutouts();
}

/// Which way the outline turns at each corner, where the person says so.
void PartsPanel::buildTurns() {
    form_->row();
    const std::size_t n = surface()->measurement.polygon.sides.size();
    for (std::size_t k = 0; k < n; ++k) {
        if (k > 0 && k % 6 == 0) form_->row();
        const QString letter(QLatin1Char(static_cast<char>('A' + k % 26)));
        form_->choice(
            k == 0 ? tr("corner %1 turns").arg(letter) : letter, QStringLiteral("cornerTurns%1").arg(k),
            {tr("as it fits"), tr("outwards"), tr("inwards")},
            [this, k] {
                const auto& turns = surface()->measurement.polygon.turns;
                return k < turns.size() ? static_cast<int>(turns[k]) : 0;
            },
            [this, k](int turn) {
                push(document_, turnCorner(document_, id(), static_cast<int>(k), static_cast<CornerTurn>(turn)));
            });
    }
    form_->stretch();
}

void PartsPanel::buildPolygon() {
    const Measurement& m = surface()->measurement;
    const auto now = [this]() -> const Measurement& { return surface()->measurement; };
    form_->row();
    form_->count(
        tr("sides"), QStringLiteral("polygonSides"), 3, 40,
        [now] { return static_cast<int>(now().polygon.sides.size()); },
        [this](int n) {
            shape([n](Measurement& c) {
                c.polygon.sides.resize(static_cast<std::size_t>(n));
                if (!c.polygon.turns.empty()) c.polygon.turns.resize(static_cast<std::size_t>(n));
                std::erase_if(c.polygon.diagonals, [n](const auto& d) {
                    const int apart = std::abs(d.from - d.to);
                    return d.from >= n || d.to >= n || apart < 2 || apart == n - 1; // those are sides
                });
                // A fan of diagonals from the first corner holds any outline that it lies within.
                for (int k = 2; k < n - 1; ++k)
                    if (std::none_of(c.polygon.diagonals.begin(), c.polygon.diagonals.end(),
                                     [k](const auto& d) { return d.from == 0 && d.to == k; }))
                        c.polygon.diagonals.push_back({0, k, {}});
            });
        });
    QStringList corners;
    for (std::size_t k = 0; k < m.polygon.sides.size(); ++k)
        corners << QString(QLatin1Char(static_cast<char>('A' + k % 26)));
    for (std::size_t d = 0; d < m.polygon.diagonals.size(); ++d) {
        if (d % 4 == 3) form_->row();
        const auto end = [&](const QString& label, int PolygonReadings::Diagonal::*which) {
            form_->choice(
                label, QString(), corners, [now, d, which] { return now().polygon.diagonals[d].*which; },
                [this, d, which](int k) { shape([&](Measurement& c) { c.polygon.diagonals[d].*which = k; }); });
        };
        end(tr("diagonal %1").arg(d + 1), &PolygonReadings::Diagonal::from);
        end({}, &PolygonReadings::Diagonal::to);
        form_->button(
            QStringLiteral("✕"), QStringLiteral("removeDiagonal"),
            [this, d] {
                shape([d](Measurement& c) {
                    c.polygon.diagonals.erase(c.polygon.diagonals.begin() + static_cast<std::ptrdiff_t>(d));
                });
            },
            true);
    }
    form_->button(tr("Add a diagonal"), QStringLiteral("addDiagonal"), [this] {
        shape([](Measurement& c) { c.polygon.diagonals.push_back({1, 3, {}}); });
    });
    form_->stretch();
    buildTurns();
}

void PartsPanel::buildStations() {
    const Measurement& m = surface()->measurement;
    const auto now = [this]() -> const Measurement& { return surface()->measurement; };
    form_->row();
    form_->count(
        tr("stations"), QStringLiteral("stationCount"), 2, 300,
        [now] { return static_cast<int>(now().stations.rows.size()); },
        [this](int n) { shape([n](Measurement& c) { c.stations.rows.resize(static_cast<std::size_t>(n)); }); });
    form_->flag(
        tr("smooth curve between them"), QStringLiteral("smooth"), [now] { return now().stations.smooth; },
        [this](bool on) { shape([on](Measurement& c) { c.stations.smooth = on; }); });
    form_->flag(
        tr("offsets on both sides"), QStringLiteral("bothSides"), [now] { return now().stations.bothSides; },
        [this](bool on) { shape([on](Measurement& c) { c.stations.bothSides = on; }); });
    form_->stretch();
    if (m.stations.rows.size() > kMostStationsDrawn)
        for (std::size_t i = 0; i < std::min<std::size_t>(m.stations.rows.size(), 24); ++i) {
            if (i % 4 == 0) form_->row();
            for (const char kind : {'x', 'y'}) {
                const std::string key = readingKey(kind, static_cast<int>(i));
                form_->length(
                    kind == 'x' ? QString::number(i + 1) : QString(),
                    QStringLiteral("reading-") + QString::fromStdString(key),
                    [this, key] { return *findReading(*surface(), key); },
                    [this, key](MaybeReading r) { push(document_, takeReading(document_, id(), key, std::move(r))); });
            }
        }
}

void PartsPanel::buildFixedPoints() {
    const Measurement& m = surface()->measurement;
    const auto now = [this]() -> const Measurement& { return surface()->measurement; };
    form_->row();
    form_->count(
        tr("corners"), QStringLiteral("fixedPointRows"), 3, 60,
        [now] { return static_cast<int>(now().fixedPoints.rows.size()); },
        [this](int n) { shape([n](Measurement& c) { c.fixedPoints.rows.resize(static_cast<std::size_t>(n)); }); });
    for (std::size_t i = 0; i < std::min<std::size_t>(m.fixedPoints.rows.size(), 12); ++i)
        form_->flag(
            tr("%1 below").arg(i + 1), QString(), [now, i] { return now().fixedPoints.rows[i].below; },
            [this, i](bool on) { shape([&](Measurement& c) { c.fixedPoints.rows[i].below = on; }); });
    form_->stretch();
}

void PartsPanel::buildForm() {
    switch (surface()->measurement.form) {
    case OutlineForm::Polygon: buildPolygon(); break;
    case OutlineForm::Stations: buildStations(); break;
    case OutlineForm::TwoPoint: buildFixedPoints(); break;
    default: break;
    }
}

void PartsPanel::buildCurve() {
    const Measurement& m = surface()->measurement;
    const auto now = [this]() -> const Measurement& { return surface()->measurement; };
    form_->row();
    form_->choice(
        tr("bent"), QStringLiteral("curving"), {tr("flat"), tr("one way"), tr("both ways")},
        [now] { return static_cast<int>(now().curve.curving); },
        [this](int k) { shape([k](Measurement& c) { c.curve.curving = static_cast<Curving>(k); }); });
    const auto reading = [&](const std::string& key, const QString& label) {
        form_->length(
            label, QStringLiteral("reading-") + QString::fromStdString(key),
            [this, key] { return *findReading(*surface(), key); },
            [this, key](MaybeReading r) { push(document_, takeReading(document_, id(), key, std::move(r))); });
    };
    if (m.curve.curving != Curving::Flat) {
        for (std::size_t i = 0; i < m.curve.parts.size(); ++i) {
            reading(readingKey('p', static_cast<int>(i)),
                    m.curve.parts.size() == 1 ? tr("chord") : tr("part %1").arg(i + 1));
            reading(readingKey('h', static_cast<int>(i)), tr("rise"));
        }
        form_->button(tr("Add a part"), QStringLiteral("addProfilePart"),
                      [this] { shape([](Measurement& c) { c.curve.parts.emplace_back(); }); });
        if (m.curve.curving == Curving::Double) {
            reading("chord2", tr("the other way: chord"));
            reading("rise2", tr("rise"));
        }
    }
    if (m.cornerRadii.empty())
        form_->button(tr("Round corners"), QStringLiteral("roundCorners"), [this] {
            const auto n = static_cast<std::size_t>(std::max(3, sidesOf(surface()->measurement)));
            shape([n](Measurement& c) { c.cornerRadii.resize(n); });
        });
    else
        for (std::size_t k = 0; k < m.cornerRadii.size(); ++k)
            reading(readingKey('R', static_cast<int>(k)),
                    tr("radius %1").arg(QLatin1Char(static_cast<char>('A' + k % 26))));
    form_->button(tr("Add a notch"), QStringLiteral("addNotch"), [this] {
        const std::size_t n = surface()->measurement.notches.size();
        push(document_, addNotch(document_, id(), {.name = tr("Notch %1").arg(n + 1).toStdString(), .side = 0}));
        emit begun(QStringLiteral("n%1.").arg(n));
    });
    form_->button(tr("Cut a corner"), QStringLiteral("addStep"), [this] {
        const std::size_t n = surface()->measurement.steps.size();
        push(document_, addStep(document_, id(), {.name = tr("Corner %1").arg(n + 1).toStdString(), .corner = 1}));
        emit begun(QStringLiteral("s%1.").arg(n));
    });
    form_->stretch();
}

void PartsPanel::buildEdges() {
    const Surface* s = surface();
    form_->row();
    const QStringList names = sideNames();
    for (int k = 0; k < names.size(); ++k)
        form_->pick(names[k], QStringLiteral("edge%1").arg(k), k == inHand_, [this, k] { show(Edges, k); });
    form_->stretch();
    const int side = inHand_;
    const auto edge = [this, side] { return surface()->edge(side); };
    form_->row();
    form_->choice(
        {}, QStringLiteral("edgeKind"),
        {tr("not said yet"), tr("meets a surface"), tr("free"), tr("door reveal, turned in"), tr("goes under a trim"),
         tr("movement gap")},
        [edge] { return static_cast<int>(edge().kind); },
        [this, side, edge](int k) {
            if (static_cast<EdgeKind>(k) == EdgeKind::Meets) {
                emit pointAtSide();
                return;
            }
            Edge e;
            e.kind = static_cast<EdgeKind>(k);
            e.trim = edge().trim;
            push(document_, describeEdge(document_, id(), side, std::move(e)));
        });
    if (edge().kind == EdgeKind::DoorReveal || edge().kind == EdgeKind::MovementGap ||
        edge().kind == EdgeKind::UnderTrim)
        form_->length(
            edge().kind == EdgeKind::DoorReveal ? tr("turn-in") : tr("gap"), QStringLiteral("edgeAllowance"),
            [edge] { return edge().allowance; },
            [this, side, edge](MaybeReading r) {
                Edge e = edge();
                e.allowance = std::move(r);
                push(document_, describeEdge(document_, id(), side, std::move(e)));
            });
    if (edge().kind == EdgeKind::UnderTrim) // wider at one end: a filler tapers
        form_->length(
            tr("and at its other end"), QStringLiteral("edgeGapAtEnd"), [edge] { return edge().gapAtEnd; },
            [this, side, edge](MaybeReading r) {
                Edge e = edge();
                e.gapAtEnd = std::move(r);
                push(document_, describeEdge(document_, id(), side, std::move(e)));
            });
    form_->flag(
        tr("on the sheet's own edge"), QStringLiteral("edgeFactory"), [edge] { return edge().factory; },
        [this, side, edge](bool on) {
            Edge e = edge();
            e.factory = on;
            push(document_, describeEdge(document_, id(), side, std::move(e)));
        });
    // Every side of every other surface, for those who would rather choose than point.
    QStringList sides{tr("which side?")};
    std::vector<std::pair<std::string, int>> targets{{}};
    for (const Surface& other : document_.job().surfaces) {
        if (other.id == s->id) continue;
        for (int k = 0; k < std::max(3, sidesOf(other.measurement)); ++k) {
            sides << tr("%1, side %2").arg(QString::fromStdString(other.name), sideLetter(k));
            targets.emplace_back(other.id, k);
        }
    }
    form_->choice(
        tr("meets"), QStringLiteral("edgeMeets"), sides,
        [edge, targets] {
            const Edge e = edge();
            if (e.kind != EdgeKind::Meets) return 0;
            const auto at = std::find(targets.begin(), targets.end(), std::pair(e.surface, e.side));
            return at == targets.end() ? 0 : static_cast<int>(at - targets.begin());
        },
        [this, targets](int k) {
            if (k > 0)
                meetInHand(targets[static_cast<std::size_t>(k)].first, targets[static_cast<std::size_t>(k)].second);
        });
    form_->words([this, side] { return hingeWords(side); })->setObjectName(QStringLiteral("edgeHinge"));
    form_->button(tr("Point at it on the map"), QStringLiteral("pointAtSide"), [this] { emit pointAtSide(); });
    form_->button(tr("Point at two"), QStringLiteral("tieOnMap"), [this] { emit tieOnMap(); });
    form_->stretch();
}

namespace {
QString degrees(double rad, const Figures& figures) {
    return figures.number(rad * 180 / std::numbers::pi, 1) + QStringLiteral("°");
}
} // namespace

QString PartsPanel::hingeSentence(const Hinge& hinge, const Figures& figures) {
    constexpr double kUnknown = 2 * std::numbers::pi / 180; // not worth a figure
    if (hinge.errorRad > kUnknown) return tr("at what angle, no reading says");
    return tr("at %1, give or take %2").arg(degrees(hinge.angleRad, figures), degrees(hinge.errorRad, figures));
}

/// At what angle a side meets its neighbour, as both stand in the van; empty where that is not known.
QString PartsPanel::hingeWords(int side) const {
    for (const Hinge& h : document_.plan()->fold.hinges)
        if ((h.surface == id() && h.side == side) || (h.other == id() && h.otherSide == side))
            return hingeSentence(h, figuresFor(document_.job(), decimalMark_));
    return {};
}

void PartsPanel::meetInHand(const std::string& other, int side) {
    if (group_ != Edges || inHand_ < 0) return;
    push(document_, meetSides(document_, id(), inHand_, other, side));
}

void PartsPanel::buildZones() {
    const Surface* s = surface();
    form_->row();
    for (int i = 0; i < static_cast<int>(s->zones.size()); ++i)
        form_->pick(QString::fromStdString(s->zones[static_cast<std::size_t>(i)].name), QStringLiteral("zone%1").arg(i),
                    i == inHand_, [this, i] { show(Zones, i); });
    form_->button(tr("Add a hidden zone"), QStringLiteral("addZone"), [this] {
        const int n = static_cast<int>(surface()->zones.size());
        push(document_, addZone(document_, id(), {.name = tr("Hidden %1").arg(n + 1).toStdString()}));
        show(Zones, n);
        emit begun(QStringLiteral("z%1.").arg(n));
    });
    form_->words(
        tr("Or draw it on the surface. What furniture will hide may lie plain; the chalk cross is the middle of "
           "what is seen."));
    if (!member(s->zones, inHand_)) return;
    const int index = inHand_;
    const auto now = [this, index]() -> const Zone& { return surface()->zones[static_cast<std::size_t>(index)]; };
    const auto change = [this, index, now](const std::function<void(Zone&)>& does) {
        Zone z = now();
        does(z);
        push(document_, changeZone(document_, id(), index, std::move(z)));
    };
    form_->row();
    form_->text(
        tr("name"), QStringLiteral("zoneName"), [now] { return now().name; },
        [change](const std::string& n) { change([&](Zone& z) { z.name = n; }); });
    form_->choice(
        tr("is"), QStringLiteral("zoneKind"),
        {tr("hidden by furniture"), tr("wiring or pipes behind"), tr("something heavy hangs there")},
        [now] { return static_cast<int>(now().kind); },
        [change](int k) { change([k](Zone& z) { z.kind = static_cast<ZoneKind>(k); }); });
    placementFields(QStringLiteral("zone"),
                    [change](const std::function<void(Placement&)>& does) { change([&](Zone& z) { does(z.place); }); });
    form_->button(
        QStringLiteral("✕"), QStringLiteral("removeZone"),
        [this, index] { push(document_, removeZone(document_, id(), index)); }, true);
    form_->stretch();
}

void PartsPanel::addZoneAt(const QRectF& box) {
    const SurfacePlan* plan = document_.plan()->surface(id());
    if (!plan) return;
    Zone z{.name = tr("Hidden %1").arg(surface()->zones.size() + 1).toStdString()};
    z.width = whole(box.width());
    z.height = whole(box.height());
    const Point centre{box.center().x(), box.center().y()};
    const auto d = distancesOf(z.place, centre, z.width->length.value, z.height->length.value, plan->measured);
    if (!d) return;
    z.place.fromSide = whole(std::max(0.0, d->fromSide.value));
    z.place.fromCross = whole(std::max(0.0, d->fromCross.value));
    const int n = static_cast<int>(surface()->zones.size());
    push(document_, addZone(document_, id(), std::move(z)));
    show(Zones, n);
}

void PartsPanel::buildSupports() {
    const Surface* s = surface();
    form_->row();
    for (int i = 0; i < static_cast<int>(s->supports.size()); ++i)
        form_->pick(QString::fromStdString(s->supports[static_cast<std::size_t>(i)].name),
                    QStringLiteral("support%1").arg(i), i == inHand_, [this, i] { show(Supports, i); });
    for (const bool batten : {false, true})
        form_->button(batten ? tr("Add battens") : tr("Add ribs"),
                      batten ? QStringLiteral("addBatten") : QStringLiteral("addRib"), [this, batten] {
                          const int n = static_cast<int>(surface()->supports.size());
                          Support u;
                          u.kind = batten ? SupportKind::Batten : SupportKind::Rib;
                          u.name = (batten ? tr("Batten %1") : tr("Rib %1")).arg(n + 1).toStdString();
                          push(document_, addSupport(document_, id(), std::move(u)));
                          show(Supports, n);
                          emit begun(QStringLiteral("u%1.position").arg(n));
                      });
    form_->stretch();
    if (!member(s->supports, inHand_)) {
        form_->row();
        form_->words(
            tr("Joints and fixings land on ribs and battens; once covered, this map is the way to find them."));
        return;
    }
    const int index = inHand_;
    const auto now = [this, index]() -> const Support& { return surface()->supports[static_cast<std::size_t>(index)]; };
    const auto change = [this, index, now](const std::function<void(Support&)>& does) {
        Support u = now();
        does(u);
        push(document_, changeSupport(document_, id(), index, std::move(u)));
    };
    const auto length = [&](const QString& label, const char* what) {
        const std::string key = "u" + std::to_string(index) + "." + what;
        form_->length(
            label, QStringLiteral("field-") + QString::fromStdString(key),
            [this, key] { return *findReading(*surface(), key); },
            [this, key](MaybeReading r) { push(document_, takeReading(document_, id(), key, std::move(r))); });
    };
    form_->row();
    form_->text(
        tr("name"), QStringLiteral("supportName"), [now] { return now().name; },
        [change](const std::string& n) { change([&](Support& u) { u.name = n; }); });
    form_->choice(
        tr("runs"), QStringLiteral("supportRuns"), {tr("across"), tr("along")}, [now] { return now().along ? 1 : 0; },
        [change](int k) { change([k](Support& u) { u.along = k == 1; }); });
    length(tr("centre at"), "position");
    length(tr("width"), "width");
    form_->count(
        tr("how many"), QStringLiteral("supportCount"), 1, 50, [now] { return now().count; },
        [change](int n) { change([n](Support& u) { u.count = n; }); });
    if (now().count > 1) length(tr("spacing"), "spacing");
    if (now().kind == SupportKind::Rib) {
        length(tr("deep"), "depth");
        length(tr("first hole in it"), "holeFirst");
        length(tr("next holes"), "holePitch");
        if (!now().holes.empty())
            form_->button(
                tr("Forget %1 pointed at").arg(now().holes.size()), QStringLiteral("forgetHoles"),
                [change] { change([](Support& u) { u.holes.clear(); }); }, true);
    }
    form_->button(
        QStringLiteral("✕"), QStringLiteral("removeSupport"),
        [this, index] { push(document_, removeSupport(document_, id(), index)); }, true);
    form_->stretch();
}

} // namespace westrum
