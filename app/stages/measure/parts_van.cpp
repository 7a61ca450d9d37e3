#include "app/stages/measure/parts_panel.h"

#include "app/document/shell_commands.h"
#include "core/shell/ties.h"

#include <QVBoxLayout>

#include <algorithm>

#include <tuple>

namespace westrum {

void PartsPanel::buildItself() {
    QStringList kinds;
    for (int k = 0; k <= static_cast<int>(SurfaceKind::Other); ++k)
        kinds << surfaceKindName(static_cast<SurfaceKind>(k));
    const auto now = [this]() -> const Surface& { return *surface(); };
    const auto describe = [this, now](SurfaceKind kind, Hand hand, const Area& area) {
        push(document_, describeSurface(document_, id(), kind, hand, area));
    };
    form_->row();
    form_->text(
        tr("name"), QStringLiteral("surfaceName"), [now] { return now().name; },
        [this](const std::string& n) { push(document_, renameSurface(document_, id(), n)); });
    form_->choice(
        tr("is a"), QStringLiteral("surfaceKind"), kinds, [now] { return static_cast<int>(now().kind); },
        [describe, now](int k) { describe(static_cast<SurfaceKind>(k), now().hand, now().area); });
    form_->choice(
        {}, QStringLiteral("surfaceHand"), {tr("in the middle"), tr("on the left"), tr("on the right")},
        [now] { return static_cast<int>(now().hand); },
        [describe, now](int k) { describe(now().kind, static_cast<Hand>(k), now().area); });
    form_->suggestion(
        tr("area"), QStringLiteral("surfaceArea"), areaNames(), [now] { return areaText(now().area).toStdString(); },
        [describe, now](const std::string& a) { describe(now().kind, now().hand, areaOf(QString::fromStdString(a))); });
    form_->stretch();
    form_->row();
    for (const auto& [key, label] : {std::pair{"heightRear", tr("lower edge over the floor: rear")},
                                     {"heightFront", tr("front")},
                                     {"fromRear", tr("from the rear of the floor")},
                                     {"lean", tr("upper edge leans over by")}}) {
        const std::string k = key;
        form_->length(
            label, QStringLiteral("reading-") + QString::fromLatin1(key),
            [this, k] { return *findReading(*surface(), k); },
            [this, k](MaybeReading r) { push(document_, takeReading(document_, id(), k, std::move(r))); });
    }
    form_->stretch();
    if (now().lean)
        form_->choice(
            {}, QStringLiteral("leansOut"), {tr("into the room"), tr("outwards")},
            [now] { return now().leansOut ? 1 : 0; },
            [this](int k) { push(document_, leanSurface(document_, id(), k == 1)); });
    buildTemplate();
    form_->row();
    form_->button(tr("Import a drawing…"), QStringLiteral("importOutline"), [this] { emit importWanted(); });
    form_->button(tr("Trace a photograph…"), QStringLiteral("tracePhotograph"), [this] { emit photographWanted(); });
    form_->button(tr("Export it…"), QStringLiteral("exportOutline"), [this] { emit exportWanted(); });
    form_->button(tr("Measuring sheets…"), QStringLiteral("measuringSheets"), [this] { emit sheetsWanted(); });
    form_->stretch();
    form_->row();
    form_->button(tr("Add a surface"), QStringLiteral("addSurface"), [this] {
        Surface s;
        s.id = "surface";
        s.kind = SurfaceKind::Other;
        s.name = tr("New surface").toStdString();
        push(document_, addSurface(document_, std::move(s)));
        document_.setCurrentSurface(document_.job().surfaces.back().id);
    });
    const auto follow = [this](Command command) {
        std::vector<std::string> before;
        for (const Surface& s : document_.job().surfaces) before.push_back(s.id);
        push(document_, std::move(command));
        for (const Surface& s : document_.job().surfaces)
            if (std::find(before.begin(), before.end(), s.id) == before.end()) document_.setCurrentSurface(s.id);
    };
    form_->button(tr("Duplicate it"), QStringLiteral("duplicateSurface"), [this, follow] {
        follow(duplicateSurface(document_, id(),
                                tr("%1, copy").arg(QString::fromStdString(surface()->name)).toStdString()));
    });
    form_->button(tr("Mirror it"), QStringLiteral("mirrorSurface"), [this, follow] {
        const QString name = QString::fromStdString(surface()->name);
        follow(
            mirrorSurface(document_, id(), nameOnOtherSide(name).value_or(tr("%1, mirrored").arg(name)).toStdString()));
    });
    if (document_.job().surfaces.size() > 1)
        form_->button(tr("Remove it"), QStringLiteral("removeSurface"),
                      [this] { push(document_, removeSurface(document_, id())); });
    form_->stretch();
}

void PartsPanel::buildVan() {
    const auto access = [this](const std::function<void(Access&)>& does) {
        Access a = document_.job().access;
        does(a);
        push(document_, setAccess(document_, std::move(a)));
    };
    const auto length = [&](const QString& label, const char* name, MaybeReading Access::*which) {
        form_->length(
            label, QString::fromLatin1(name), [this, which] { return document_.job().access.*which; },
            [access, which](MaybeReading r) { access([&](Access& a) { a.*which = r; }); });
    };
    form_->row();
    for (const bool rear : {true, false})
        form_->length(
            rear ? tr("datum over the floor: rear") : tr("front"),
            rear ? QStringLiteral("datumRear") : QStringLiteral("datumFront"),
            [this, rear] { return rear ? document_.job().datum.rear : document_.job().datum.front; },
            [this, rear](MaybeReading r) {
                Datum d = document_.job().datum;
                (rear ? d.rear : d.front) = std::move(r);
                push(document_, setDatum(document_, std::move(d)));
            });
    length(tr("panels carried in: thickness"), "panelThickness", &Access::panelThickness);
    form_->flag(
        tr("left and right are alike"), QStringLiteral("symmetricBody"),
        [this] { return document_.job().symmetricBody; },
        [this](bool on) { push(document_, saySymmetric(document_, on)); });
    form_->stretch();
    form_->row();
    for (std::size_t i = 0; i < document_.job().access.doors.size(); ++i) {
        const auto door = [this, i]() -> const Access::Door& { return document_.job().access.doors[i]; };
        form_->text(
            tr("door"), QStringLiteral("doorName%1").arg(i), [door] { return door().name; },
            [access, i](const std::string& n) { access([&](Access& a) { a.doors[i].name = n; }); });
        const std::tuple<QString, const char*, MaybeReading Access::Door::*> figures[] = {
            {tr("wide"), "doorWidth%1", &Access::Door::width},
            {tr("high"), "doorHeight%1", &Access::Door::height},
            {tr("sill over the bare floor"), "doorSill%1", &Access::Door::sill}};
        for (const auto& [label, name, which] : figures)
            form_->length(
                label, QString::fromLatin1(name).arg(i), [door, which = which] { return door().*which; },
                [access, i, which = which](MaybeReading r) { access([&](Access& a) { a.doors[i].*which = r; }); });
        buildDoorFloor(i);
        form_->row();
    }
    form_->button(tr("Add a door"), QStringLiteral("addDoor"), [this, access] {
        access([this](Access& a) { a.doors.push_back({.name = tr("Door %1").arg(a.doors.size() + 1).toStdString()}); });
    });
    form_->stretch();
    form_->row();
    length(tr("load space of the car that fetches: long"), "loadLength", &Access::loadLength);
    length(tr("wide"), "loadWidth", &Access::loadWidth);
    length(tr("high"), "loadHeight", &Access::loadHeight);
    form_->flag(
        tr("panels are parted to lie in it"), QStringLiteral("partToLoad"),
        [this] { return document_.job().access.partToLoad; },
        [access](bool on) { access([on](Access& a) { a.partToLoad = on; }); });
    form_->stretch();
}

/// The floor that a door opens onto, where there is more than one.
void PartsPanel::buildDoorFloor(std::size_t index) {
    QStringList names;
    std::vector<std::string> ids;
    for (const Surface& s : document_.job().surfaces)
        if (s.kind == SurfaceKind::Floor) {
            names << QString::fromStdString(s.name);
            ids.push_back(s.id);
        }
    if (ids.size() < 2) return;
    form_->choice(
        tr("opens onto"), QStringLiteral("doorFloor%1").arg(index), names,
        [this, index, ids] {
            const auto found = std::find(ids.begin(), ids.end(), document_.job().access.doors[index].floor);
            return found == ids.end() ? 0 : static_cast<int>(found - ids.begin());
        },
        [this, index, ids](int k) {
            Access a = document_.job().access;
            a.doors[index].floor = ids[static_cast<std::size_t>(k)];
            push(document_, setAccess(document_, std::move(a)));
        });
}

} // namespace westrum
