#include "app/stages/setout/base_view.h"

#include "app/document/base_commands.h"
#include "app/document/shell_commands.h"
#include "app/print/fixing_print.h"
#include "app/stages/setout/base_bench.h"
#include "app/widgets/meter_words.h"
#include "core/families/family.h"
#include "formats/base_words.h"

#include <QFileDialog>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <utility>

namespace westrum {
namespace {

constexpr FixedWith kWays[]{FixedWith::AsNeeded,      FixedWith::Screws,       FixedWith::RivetNuts,
                            FixedWith::ExpandingNuts, FixedWith::PanelClips,   FixedWith::HookAndLoop,
                            FixedWith::Staples,       FixedWith::AdhesiveAlone};

} // namespace

BaseView::BaseView(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent),
      document_(document),
      decimalMark_(decimalMark),
      lampWidth_(Reading{{}, {70}}),
      reveal_(Reading{{}, {3}}),
      groups_(new BoundForm(document, decimalMark)),
      form_(new BoundForm(document, decimalMark)),
      bench_(new BaseBench(
          document, decimalMark, [this](int found) { show(group_, found); }, [this](Point at) { toggleHole(at); })),
      figuresLine_(new QLabel) {
    setObjectName(QStringLiteral("baseView"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    column->addWidget(groups_);
    column->addWidget(form_);
    column->addWidget(bench_, 1);
    figuresLine_->setObjectName(QStringLiteral("baseFigures"));
    figuresLine_->setTextFormat(Qt::PlainText);
    figuresLine_->setWordWrap(true);
    column->addWidget(figuresLine_);
    connect(form_, &BoundForm::problem, this, &BaseView::problem);
}

QWidget* BaseView::bench() const { return bench_; }

QPointF BaseView::onBench(Point p) const {
    const SurfacePlan* planned = plan();
    return planned ? bench_->view(*planned).map(p) : QPointF();
}

const SurfacePlan* BaseView::plan() const { return bench_->plan(); }

const LayerPlan* BaseView::layer() const {
    const SurfacePlan* p = plan();
    const int at = layerInHand();
    return p && at >= 0 && at < static_cast<int>(p->layers.size()) ? &p->layers[static_cast<std::size_t>(at)] : nullptr;
}

int BaseView::battenLayer() const {
    return layerOfRole(document_.job().finish(document_.currentSurface()), document_.job().catalogue,
                       LayerRole::Batten);
}

void BaseView::show(Group group, int inHand) {
    group_ = group;
    inHand_ = inHand;
    refresh();
    emit turned();
}

QString BaseView::structure() const {
    const Surface* s = surface();
    const SurfacePlan* p = plan();
    if (!s) return {};
    QString text = QStringLiteral("%1|%2|%3|%4|%5")
                       .arg(QString::fromStdString(s->id))
                       .arg(group_)
                       .arg(inHand_)
                       .arg(layerInHand())
                       .arg(battenLayer());
    if (p) text += QStringLiteral("|%1").arg(p->packed.crossings.size());
    if (const LayerPlan* l = layer(); l && group_ == Fixings)
        text += QStringLiteral("|%1").arg(l->setOut.pieces.size());
    if (group_ == Packers)
        text += QStringLiteral("|%1|%2").arg(static_cast<int>(s->packing.to)).arg(meter_ && meter_->isReady());
    if (group_ == Openings)
        for (const Opening& o : s->openings) text += QString::fromStdString(o.name) + QLatin1Char(',');
    return text;
}

void BaseView::refresh() {
    const Surface* s = surface();
    if (!s) return;
    const SurfacePlan* p = plan();
    const int limit = group_ == Openings  ? static_cast<int>(s->openings.size())
                      : group_ == Packers ? (p ? static_cast<int>(p->packed.crossings.size()) : 0)
                      : group_ == Fixings ? (layer() ? static_cast<int>(layer()->setOut.pieces.size()) : 0)
                                          : 0;
    if (inHand_ >= limit) inHand_ = limit - 1;
    if (inHand_ < 0 && limit > 0 && group_ != Fixings) inHand_ = group_ == Openings && p ? nearestToTrouble() : 0;
    bench_->group = group_;
    bench_->inHand = inHand_;
    bench_->battenLayer = battenLayer();
    if (const QString wanted = structure(); wanted != built_) {
        built_ = wanted;
        build();
    }
    form_->refresh();
    figuresLine_->setText(figuresText());
    bench_->update();
}

void BaseView::build() {
    groups_->clear();
    groups_->row();
    const std::pair<QString, const char*> names[]{{tr("Fixings"), "baseFixings"},
                                                  {tr("Battens"), "baseBattens"},
                                                  {tr("Packers"), "basePackers"},
                                                  {tr("Openings, lamps"), "baseOpenings"}};
    for (int g = Fixings; g <= Openings; ++g)
        groups_->pick(names[g].first, QString::fromLatin1(names[g].second), g == group_,
                      [this, g] { show(static_cast<Group>(g)); });
    groups_->button(tr("Print it…"), QStringLiteral("printFixings"), [this] { print(); });
    groups_->stretch();
    form_->clear();
    switch (group_) {
    case Fixings: buildFixings(); break;
    case Battens: buildBattens(); break;
    case Packers: buildPackers(); break;
    case Openings: buildOpenings(); break;
    }
}

QString BaseView::printTo(const QString& path) const {
    const SurfacePlan* p = plan();
    if (!p) return tr("Measure the surface first.");
    return saveFixingPlanPdf(path, document_.job(), *p, figures());
}

void BaseView::print() {
    const QString path =
        QFileDialog::getSaveFileName(this, tr("Fixing plan"), tr("fixing plan.pdf"), tr("PDF (*.pdf)"));
    if (path.isEmpty()) return;
    if (const QString said = printTo(path); !said.isEmpty()) emit problem(said);
}

void BaseView::buildFixings() {
    form_->row();
    const LayerPlan* l = layer();
    const Family* family = l ? familyOf(l->family) : nullptr;
    if (!l || !family || !family->fix) {
        form_->words(tr("The layer in hand has no fixings of its own: glue, or what lies around it, holds it."));
        return;
    }
    const bool panels = findField(family->fixing, "fixEdge") != nullptr;
    if (!panels) {
        form_->words(tr("How far apart its fixings are is said in How laid."));
        return;
    }
    if (inHand_ < 0) {
        form_->words(tr("Point at a panel to see what holds it, or to hold it another way."));
        return;
    }
    const std::string piece = l->setOut.pieces[static_cast<std::size_t>(inHand_)].name.key();
    const std::string id = document_.currentSurface();
    const int at = layerInHand();
    QStringList ways{tr("as the layer is")};
    for (const FixedWith by : kWays) ways << heldText(by);
    form_->choice(
        tr("panel %1 held by").arg(pieceText(l->setOut.pieces[static_cast<std::size_t>(inHand_)].name)),
        QStringLiteral("holdPiece"), ways,
        [this, id, at, piece] {
            const Finish& f = document_.job().finish(id);
            if (at >= static_cast<int>(f.layers.size())) return 0;
            const auto& holders = f.layers[static_cast<std::size_t>(at)].holders;
            const auto own = holders.find(piece);
            if (own == holders.end()) return 0;
            for (std::size_t k = 0; k < std::size(kWays); ++k)
                if (static_cast<int>(kWays[k]) == own->second) return static_cast<int>(k) + 1;
            return 0;
        },
        [this, id, at, piece](int k) {
            std::optional<FixedWith> by;
            if (k > 0) by = kWays[k - 1];
            if (Command c = holdPiece(document_, id, at, piece, by)) push(document_, std::move(c));
        });
    form_->stretch();
}

void BaseView::setBySpan() {
    const SurfacePlan* p = plan();
    const Finish& finish = document_.job().finish(document_.currentSurface());
    const auto demand = p ? battenDemand(finish, *p, document_.job().catalogue) : std::nullopt;
    if (!demand) {
        emit problem(
            tr("Nothing that lies on battens asks for them: put battens below a panel or boards in Build-up."));
        return;
    }
    std::vector<Support> battens = battensBySpan(p->measured, demand->along, demand->width, demand->span,
                                                 demand->joints, tr("Battens").toStdString());
    if (battens.empty()) {
        emit problem(tr("The surface is too small for a batten at either edge."));
        return;
    }
    push(document_, setBattens(document_, document_.currentSurface(), battenLayer(), std::move(battens)));
}

void BaseView::buildBattens() {
    form_->row();
    if (battenLayer() < 0) {
        form_->words(tr("This build-up has no battens. Another option with battens, or with a thicker sheet, is made "
                        "in Build-up; Compare tells what each costs and weighs."));
        return;
    }
    const SurfacePlan* p = plan();
    const auto demand =
        p ? battenDemand(document_.job().finish(document_.currentSurface()), *p, document_.job().catalogue)
          : std::nullopt;
    form_->button(tr("Set them by span and joints"), QStringLiteral("battensBySpan"), [this] { setBySpan(); });
    form_->button(tr("As measured"), QStringLiteral("battensAsMeasured"),
                  [this] { push(document_, setBattens(document_, document_.currentSurface(), battenLayer(), {})); });
    form_->words(tr("Point at a rib where the body has a hole: fixings use it."));
    if (demand)
        form_->words(tr("What lies on them carries %1 from batten to batten.").arg(figures().length(demand->span)));
    form_->stretch();
}

void BaseView::toggleHole(Point at) {
    constexpr double kSame = 15; // mm: pointed at once more, it goes
    const SurfacePlan* p = plan();
    const Surface* s = surface();
    for (const PlacedSupport& placed : p->shape.supports) {
        if (placed.kind != SupportKind::Rib || placed.support >= static_cast<int>(s->supports.size()) ||
            !contains(placed.shape, at))
            continue;
        const Bounds b = boundsOf(placed.shape);
        const double up = placed.along ? at.x - b.low.x : at.y - b.low.y;
        Support rib = s->supports[static_cast<std::size_t>(placed.support)];
        const auto before = rib.holes.size();
        std::erase_if(rib.holes, [&](const Reading& r) { return std::abs(r.length.value - up) < kSame; });
        if (rib.holes.size() == before) rib.holes.push_back({{}, {std::round(up)}});
        push(document_, changeSupport(document_, document_.currentSurface(), placed.support, std::move(rib)));
        return;
    }
}

int BaseView::nearestToTrouble() const {
    const Surface& s = *surface();
    for (int i = 0; i < static_cast<int>(s.openings.size()); ++i)
        for (const OpeningDistance& d : openingDistances(s, *plan(), i, document_.job().clearances))
            if (d.tooNear()) return i;
    return 0;
}

int BaseView::nextUnread() const {
    const SurfacePlan* p = plan();
    const int n = p ? static_cast<int>(p->packed.crossings.size()) : 0;
    for (int k = 1; k <= n; ++k)
        if (const int i = (inHand_ + k) % n; !p->packed.crossings[static_cast<std::size_t>(i)].where.reading) return i;
    return -1;
}

void BaseView::buildPackers() {
    const std::string id = document_.currentSurface();
    const auto now = [this, id]() -> const Packing& { return document_.job().surface(id)->packing; };
    form_->row();
    form_->choice(
        tr("bring the battens into"), QStringLiteral("packTo"),
        {tr("nothing: as the ribs are"), tr("one plane"), tr("a straight line each"), tr("one level")},
        [now] { return static_cast<int>(now().to); },
        [this, id, now](int k) {
            Packing changed = now();
            changed.to = static_cast<PackTo>(k);
            push(document_, setPacking(document_, id, std::move(changed)));
        });
    const SurfacePlan* p = plan();
    if (now().to == PackTo::Nothing) {
        form_->stretch();
        return;
    }
    form_->choice(
        tr("read as"), QStringLiteral("packFrom"), {tr("how far the rib stands in"), tr("from a line down to the rib")},
        [now] { return now().fromLine ? 1 : 0; },
        [this, id, now](int k) {
            Packing changed = now();
            changed.fromLine = k == 1;
            push(document_, setPacking(document_, id, std::move(changed)));
        });
    form_->stretch();
    if (!p || p->packed.crossings.empty()) {
        form_->row();
        form_->words(tr("No batten crosses a rib here: set both in Measure, under Supports."));
        return;
    }
    form_->row();
    const CrossingReading where = p->packed.crossings[static_cast<std::size_t>(std::max(0, inHand_))].where;
    const auto find = [now, where]() -> MaybeReading {
        for (const CrossingReading& r : now().readings)
            if (r.at(where)) return r.reading;
        return {};
    };
    form_->length(tr("crossing %1 of %2").arg(std::max(0, inHand_) + 1).arg(p->packed.crossings.size()),
                  QStringLiteral("crossing"), find, [this, id, where](MaybeReading reading) {
                      CrossingReading read = where;
                      read.reading = std::move(reading);
                      push(document_, readCrossing(document_, id, std::move(read)));
                  });
    if (meter_ && meter_->isReady())
        form_->button(tr("Take it with the meter"), QStringLiteral("meterCrossing"), [this] { readCrossingByMeter(); });
    form_->button(tr("Next"), QStringLiteral("nextCrossing"), [this] {
        const int n = plan() ? static_cast<int>(plan()->packed.crossings.size()) : 0;
        const int next = nextUnread();
        if (n > 0) show(Packers, next >= 0 ? next : (inHand_ + 1) % n);
    });
    form_->stretch();
}

void BaseView::setMeter(LaserMeter& meter) {
    meter_ = &meter;
    connect(meter_, &LaserMeter::readyChanged, this, [this] {
        if (isVisible()) refresh();
    });
    connect(meter_, &LaserMeter::taken, this, &BaseView::keepCrossing);
    connect(meter_, &LaserMeter::failed, this, [this](MeterFault fault) {
        if (!std::exchange(asked_, {}).empty())
            emit problem(tr("%1 The crossing stays as it was.").arg(sentence(fault, QString())));
    });
}

void BaseView::readCrossingByMeter() {
    const SurfacePlan* p = plan();
    if (!meter_ || !p || inHand_ < 0 || inHand_ >= static_cast<int>(p->packed.crossings.size())) return;
    asked_ = document_.currentSurface();
    askedWhere_ = p->packed.crossings[static_cast<std::size_t>(inHand_)].where;
    meter_->take();
}

/// The reading goes to the crossing that it was asked for, and the next one without is taken in hand.
void BaseView::keepCrossing(Mm length) {
    const std::string id = std::exchange(asked_, {});
    if (id.empty() || !document_.job().surface(id)) return;
    CrossingReading read = askedWhere_;
    const QString typed = QString::fromStdString(printNumber(length.value, 1, '.', false)) + QStringLiteral(" mm");
    read.reading = Reading{typed.toStdString(), length};
    push(document_, readCrossing(document_, id, std::move(read)));
    emit problem({});
    if (id != document_.currentSurface() || group_ != Packers) return;
    if (const int next = nextUnread(); next >= 0) show(Packers, next);
}

void BaseView::buildOpenings() {
    const Surface* s = surface();
    const std::string id = document_.currentSurface();
    if (s && inHand_ >= 0 && inHand_ < static_cast<int>(s->openings.size())) {
        form_->row();
        const std::string key = "o" + std::to_string(inHand_) + ".clear";
        const Opening& o = s->openings[static_cast<std::size_t>(inHand_)];
        form_->length(
            tr("%1: clear of edges and joints").arg(QString::fromStdString(o.name)), QStringLiteral("openingClear"),
            [this, id, key] {
                const MaybeReading* r = findReading(*document_.job().surface(id), key);
                return r ? *r : MaybeReading();
            },
            [this, id, key](MaybeReading r) { push(document_, takeReading(document_, id, key, std::move(r))); });
        const OpeningKind kind = o.kind;
        form_->length(
            tr("all of its kind"), QStringLiteral("kindClear"),
            [this, kind]() -> MaybeReading {
                const auto own = document_.job().clearances.find(kind);
                return Reading{{}, own != document_.job().clearances.end() ? own->second : usualClearance(kind).edge};
            },
            [this, kind](const MaybeReading& r) {
                push(document_, setClearance(document_, kind, r ? std::optional(r->length) : std::nullopt));
            });
        form_->stretch();
    }
    form_->row();
    form_->count(
        tr("lamps"), QStringLiteral("lampCount"), 1, 50, [this] { return lamps_; }, [this](int n) { lamps_ = n; });
    form_->count(
        tr("in rows"), QStringLiteral("lampRows"), 1, 10, [this] { return rows_; }, [this](int n) { rows_ = n; });
    form_->length(
        tr("hole"), QStringLiteral("lampHole"), [this] { return lampWidth_; },
        [this](MaybeReading r) {
            if (r) lampWidth_ = std::move(r);
        });
    form_->button(tr("Space them evenly"), QStringLiteral("spaceLamps"), [this, id] {
        Command c = spaceLamps(document_, id, lamps_, rows_, lampWidth_->length);
        if (c)
            push(document_, std::move(c));
        else
            emit problem(tr("Measure the surface first: lamps are spaced over what is seen of it."));
    });
    form_->stretch();
    const SurfaceKind kind = s ? s->kind : SurfaceKind::Other;
    if (kind != SurfaceKind::KitchenFront && kind != SurfaceKind::BenchFront) return;
    form_->row();
    form_->count(
        tr("drawers and doors across"), QStringLiteral("frontsAcross"), 1, 20, [this] { return across_; },
        [this](int n) { across_ = n; });
    form_->count(
        tr("up"), QStringLiteral("frontsUp"), 1, 20, [this] { return up_; }, [this](int n) { up_ = n; });
    form_->length(
        tr("gap round each"), QStringLiteral("frontsReveal"), [this] { return reveal_; },
        [this](MaybeReading r) {
            if (r) reveal_ = std::move(r);
        });
    form_->button(tr("Part it evenly"), QStringLiteral("partFront"), [this, id] {
        Command c = partFront(document_, id, across_, up_, reveal_->length);
        if (c)
            push(document_, std::move(c));
        else
            emit problem(tr("The front is not measured, or too small for so many: fewer, or a smaller gap."));
    });
    form_->stretch();
}

QString BaseView::figuresText() const {
    const SurfacePlan* p = plan();
    if (!p) return {};
    const Figures f = figures();
    switch (group_) {
    case Fixings: {
        const LayerPlan* l = layer();
        if (!l || l->fixings.empty()) return tr("No fixings.");
        const QString text = fixingsText(*l, inHand_, document_.job().catalogue, f);
        return inHand_ >= 0 && inHand_ < static_cast<int>(l->setOut.pieces.size())
                   ? tr("Panel %1: %2").arg(pieceText(l->setOut.pieces[static_cast<std::size_t>(inHand_)].name), text)
                   : tr("In all: %1").arg(text);
    }
    case Battens: {
        const int at = battenLayer();
        if (at < 0 || at >= static_cast<int>(p->layers.size())) return {};
        const LayerPlan& l = p->layers[static_cast<std::size_t>(at)];
        Mm total;
        for (const Mm length : l.take.lengths) total = total + length;
        return tr("%n batten(s), %1 in all; %2", nullptr, static_cast<int>(l.take.lengths.size()))
            .arg(f.length(total), fixingsText(l, -1, document_.job().catalogue, f));
    }
    case Packers: return packingText(p->packed, f);
    case Openings: {
        const Surface* s = surface();
        if (!s || inHand_ < 0 || inHand_ >= static_cast<int>(s->openings.size())) return tr("No openings.");
        QStringList said;
        for (const OpeningDistance& d : openingDistances(*s, *p, inHand_, document_.job().clearances)) {
            const QString length = f.fineLength({std::abs(d.length.value)}), limit = f.length(d.limit);
            switch (d.to) {
            case OpeningDistance::To::Edge: said << tr("%1 to the edge, %2 wanted").arg(length, limit); break;
            case OpeningDistance::To::Opening:
                said << tr("%1 to the next opening, %2 wanted").arg(length, limit);
                break;
            case OpeningDistance::To::Joint: said << tr("%1 to a joint, %2 wanted").arg(length, limit); break;
            case OpeningDistance::To::Support:
                said << (d.length.value < 0 ? tr("%1 over a support").arg(length)
                                            : tr("%1 beside a support").arg(length));
                break;
            }
        }
        return sentenceCase(said.isEmpty() ? tr("this kind of opening is kept clear of nothing")
                                           : said.join(QStringLiteral("  ·  ")));
    }
    }
    return {};
}

QString BaseView::summary() const {
    const SurfacePlan* p = plan();
    if (!p) return {};
    switch (group_) {
    case Fixings: {
        const LayerPlan* l = layer();
        if (!l) return tr("No layer is in hand.");
        int loose = 0, drilled = 0;
        for (const Fixing& x : l->fixings) {
            loose += x.place.holds ? 0 : 1;
            drilled += drillFor(x).value > 0 ? 1 : 0;
        }
        if (loose > 0)
            return tr("%n place(s) along its edges have nothing behind them: put a batten there, or leave those out.",
                      nullptr, loose);
        return tr("Every fixing has its place; %n hole(s) are drilled before it goes up.", nullptr, drilled);
    }
    case Battens: return tr("What the panels and boards above them ask of the battens.");
    case Packers: return tr("Packers between ribs and battens bring crooked ribs into line, and lose the least room.");
    case Openings: return tr("How near openings come to edges, joints, each other and what lies behind.");
    }
    return {};
}

} // namespace westrum
