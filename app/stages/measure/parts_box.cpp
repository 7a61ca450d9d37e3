#include "app/stages/measure/parts_panel.h"

#include "app/document/base_commands.h"
#include "core/families/family.h"
#include "formats/words.h"

#include <algorithm>

namespace westrum {
namespace {

const ArchBox* boxOn(const Job& job, const std::string& floor, int notch) {
    for (const ArchBox& b : job.archBoxes)
        if (b.floor == floor && b.notch == notch) return &b;
    return nullptr;
}

/// Surfaces that a van has for this arch already: a box takes them over.
void takeOver(const Job& job, const Surface& floor, ArchBox& box) {
    const Notch& notch = floor.measurement.notches[static_cast<std::size_t>(box.notch)];
    Hand hand = notch.side == 2 ? Hand::Left : Hand::Right;
    if (const Surface* wall = job.surface(floor.edge(notch.side).surface); wall && wall->hand != Hand::None)
        hand = wall->hand;
    const auto free = [&](const std::string& id) {
        return std::none_of(job.archBoxes.begin(), job.archBoxes.end(), [&](const ArchBox& b) {
            return b.top == id || b.face == id || b.rearEnd == id || b.frontEnd == id;
        });
    };
    for (const Surface& s : job.surfaces) {
        if (s.hand != hand || !free(s.id)) continue;
        if (s.kind == SurfaceKind::ArchTop && box.top.empty()) box.top = s.id;
        if (s.kind == SurfaceKind::ArchFace && box.face.empty()) box.face = s.id;
        if (s.kind == SurfaceKind::ArchEnd) (box.rearEnd.empty() ? box.rearEnd : box.frontEnd) = s.id;
    }
}

} // namespace

void PartsPanel::buildBox() {
    const std::string floor = id();
    const Surface* s = surface();
    const auto& notches = s->measurement.notches;
    form_->row();
    for (int i = 0; i < static_cast<int>(notches.size()); ++i) {
        const QString name = QString::fromStdString(notches[static_cast<std::size_t>(i)].name);
        form_->pick(name.isEmpty() ? tr("Notch %1").arg(i + 1) : name, QStringLiteral("box%1").arg(i), i == inHand_,
                    [this, i] { show(Box, i); });
    }
    form_->stretch();
    if (inHand_ < 0 || inHand_ >= static_cast<int>(notches.size())) {
        form_->words(tr("A box stands on a notch of the floor: cut the wheel arch out of it first, under Outline."));
        return;
    }
    const int notch = inHand_;
    const auto name = [](SurfaceKind kind, Hand hand, int number) {
        return surfaceName(kind, hand, number).toStdString();
    };
    form_->row();
    if (!boxOn(document_.job(), floor, notch)) {
        form_->button(tr("Build a box over it"), QStringLiteral("addBox"), [this, floor, notch, name] {
            ArchBox box;
            box.floor = floor;
            box.notch = notch;
            const Notch& n = surface()->measurement.notches[static_cast<std::size_t>(notch)];
            box.length = n.length;
            box.depth = n.depth;
            takeOver(document_.job(), *surface(), box);
            push(document_, putBox(document_, std::move(box), name));
        });
        form_->words(tr("Its top, face and two ends become surfaces to be finished, its footprint is the notch, its "
                        "panels are cut with the rest."));
        return;
    }
    buildBoxFigures(floor, notch);
}

/// The figures of the box on a notch, and its panels as they are cut.
void PartsPanel::buildBoxFigures(const std::string& floor, int notch) {
    const auto name = [](SurfaceKind kind, Hand hand, int number) {
        return surfaceName(kind, hand, number).toStdString();
    };
    const auto now = [this, floor, notch]() -> const ArchBox& {
        static const ArchBox gone;
        const ArchBox* box = boxOn(document_.job(), floor, notch);
        return box ? *box : gone;
    };
    const auto change = [this, now, name](const std::function<void(ArchBox&)>& does) {
        ArchBox box = now();
        if (box.id.empty()) return;
        does(box);
        push(document_, putBox(document_, std::move(box), name));
    };
    const std::pair<QString, MaybeReading ArchBox::*> figures[]{{tr("length"), &ArchBox::length},
                                                                {tr("height"), &ArchBox::height},
                                                                {tr("depth"), &ArchBox::depth},
                                                                {tr("face leans in by"), &ArchBox::rake},
                                                                {tr("panels thick"), &ArchBox::thickness},
                                                                {tr("left to scribe"), &ArchBox::scribe}};
    int n = 0;
    for (const auto& [label, figure] : figures)
        form_->length(
            label, QStringLiteral("boxFigure%1").arg(n++), [now, figure = figure] { return now().*figure; },
            [change, figure = figure](MaybeReading r) { change([&](ArchBox& b) { b.*figure = std::move(r); }); });
    form_->stretch();
    form_->row();
    form_->choice(
        tr("panels"), QStringLiteral("boxLap"), {tr("face before the ends"), tr("ends outside the face")},
        [now] { return static_cast<int>(now().lap); },
        [change](int k) { change([k](ArchBox& b) { b.lap = static_cast<BoxLap>(k); }); });
    QStringList sheets{tr("not cut here")};
    std::vector<std::string> ids{{}};
    for (const Product& p : document_.job().catalogue.products)
        if (const Family* f = familyOf(p.family); f && f->laid.wrapped) {
            sheets << QString::fromStdString(p.name);
            ids.push_back(p.id);
        }
    form_->choice(
        tr("cut from"), QStringLiteral("boxProduct"), sheets,
        [now, ids] {
            const auto at = std::find(ids.begin(), ids.end(), now().product);
            return at == ids.end() ? 0 : static_cast<int>(at - ids.begin());
        },
        [this, change, ids](int k) {
            change([&](ArchBox& b) {
                b.product = ids[static_cast<std::size_t>(k)];
                if (const Product* p = document_.job().catalogue.find(b.product))
                    b.thickness = Reading{{}, thicknessOf(*p)};
            });
        });
    form_->button(
        QStringLiteral("✕"), QStringLiteral("removeBox"),
        [this, now] { push(document_, removeBox(document_, now().id)); }, true);
    form_->stretch();
    form_->row();
    form_->words([this, now] {
        const BoxAnswer answer = boxParts(now());
        if (!answer.parts) return QString(); // what is wrong is a remark
        const Figures f = figuresFor(document_.job(), decimalMark_);
        const BoxParts& p = *answer.parts;
        const QString ends =
            p.endDepth == p.endDepthAbove
                ? f.length({p.endDepth}, false)
                : tr("%1 (%2 above)").arg(f.length({p.endDepth}, false), f.length({p.endDepthAbove}, false));
        return tr("Panels as cut: top %1 × %2, face %3 × %4, two ends %5 × %6; %7 in all.")
            .arg(f.length({p.topLength}, false), f.length({p.topDepth}, false), f.length({p.faceLength}, false),
                 f.length({p.faceHeight}, false), ends, f.length({p.endHeight}, false))
            .arg(f.area({p.areaM2}));
    });
}

void PartsPanel::buildTemplate() {
    // Surfaces that are measured, by name.
    std::vector<std::string> ids{{}};
    QStringList names{tr("none")};
    for (const Surface& s : document_.job().surfaces) {
        const SurfacePlan* plan = document_.plan()->surface(s.id);
        if (s.id == id() || !plan || !plan->measured.measured()) continue;
        ids.push_back(s.id);
        names << QString::fromStdString(s.name);
    }
    form_->row();
    form_->choice(
        tr("outline from what was there"), QStringLiteral("templateSurface"), names,
        [this, ids] {
            const auto at = std::find(ids.begin(), ids.end(), template_);
            return at == ids.end() ? 0 : static_cast<int>(at - ids.begin());
        },
        [this, ids](int k) {
            template_ = ids[static_cast<std::size_t>(k)];
            const SurfacePlan* plan = document_.plan()->surface(template_);
            grow_.assign(plan ? plan->measured.sides.size() : 0, Mm{});
            refresh();
        });
    if (template_.empty() || grow_.empty()) return form_->stretch();
    form_->choice(
        tr("sides"), QStringLiteral("templateWay"), {tr("larger by"), tr("smaller by")},
        [this] { return shrink_ ? 1 : 0; }, [this](int k) { shrink_ = k == 1; });
    constexpr std::size_t kMostShown = 8; // of a curve in many sides the first
    for (std::size_t k = 0; k < std::min(grow_.size(), kMostShown); ++k)
        form_->length(
            sideLetter(static_cast<int>(k)), QStringLiteral("templateSide%1").arg(k),
            [this, k]() -> MaybeReading {
                return Reading{{}, k < grow_.size() ? grow_[k] : Mm{}};
            },
            [this, k](const MaybeReading& r) {
                if (k < grow_.size()) grow_[k] = r ? r->length : Mm{};
            });
    form_->flag(
        tr("holes too"), QStringLiteral("templateHoles"), [this] { return holes_; }, [this](bool on) { holes_ = on; });
    form_->button(tr("Take it over"), QStringLiteral("takeTemplate"), [this] {
        std::vector<double> by;
        bool same = true;
        for (const Mm g : grow_) {
            by.push_back(shrink_ ? -g.value : g.value);
            same = same && g == grow_.front();
        }
        // Grown alike all round, notches and steps follow.
        Command c = takeOutline(document_, id(), template_, by, same ? by.front() : 0, holes_);
        if (c)
            push(document_, std::move(c));
        else
            emit problem(tr("So much smaller, nothing of it would be left, or it would cross itself: take less off."));
    });
    form_->stretch();
}

} // namespace westrum
