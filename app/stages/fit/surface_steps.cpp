#include "app/stages/fit/surface_steps.h"

#include "app/document/commands.h"
#include "app/document/record_commands.h"
#include "app/document/work_commands.h"
#include "app/drawing/theme.h"
#include "app/stages/fit/bay_picture.h"
#include "app/stages/fit/place_ticks.h"
#include "app/widgets/caution_line.h"
#include "app/widgets/flow_row.h"
#include "core/fitting/efforts.h"
#include "core/takeoff/bonding.h"
#include "formats/work_words.h"

#include <QLabel>
#include <QScrollBar>
#include <QVBoxLayout>

#include <algorithm>

namespace westrum {
namespace {

constexpr int kMostBays = 60;    ///< more are told, not drawn
constexpr int kMostPlaces = 400; ///< likewise

/// Places of a step that are ticked one by one, and what they lie on.
std::pair<Region, std::vector<PlaceTicks::Place>> placesOf(const Surface& surface, const SurfacePlan& plan,
                                                           const FitStep& step) {
    std::vector<PlaceTicks::Place> places;
    Region outline = plan.measured.outline;
    const auto add = [&](Point at, bool square) {
        places.push_back({at, step.key + '#' + std::to_string(places.size() + 1), square});
    };
    switch (step.kind) {
    case StepKind::FixPanel:
    case StepKind::FirstBoard:
    case StepKind::BoardRow:
    case StepKind::LastBoard: {
        const LayerPlan& layer = plan.layers[static_cast<std::size_t>(step.layer)];
        outline.rings.clear();
        for (const int i : step.pieces) {
            const Region& shape = layer.setOut.pieces[static_cast<std::size_t>(i)].shape;
            outline.rings.insert(outline.rings.end(), shape.rings.begin(), shape.rings.end());
            for (const Fixing& f : layer.fixings)
                if (f.piece == i && f.place.holds) add(f.place.at, false);
        }
        break;
    }
    case StepKind::FixBattens:
        for (const Fixing& f : plan.layers[static_cast<std::size_t>(step.layer)].fixings)
            if (f.place.holds) add(f.place.at, false);
        break;
    case StepKind::TailsThrough:
        for (const PlacedOpening& o : plan.shape.openings)
            if (surface.openings[static_cast<std::size_t>(o.opening)].treatment != Treatment::CutBefore)
                add(o.centre, false);
        break;
    case StepKind::BackingIn:
        for (const PlacedZone& z : plan.shape.zones)
            if (surface.zones[static_cast<std::size_t>(z.zone)].kind == ZoneKind::Heavy) add(centroid(z.shape), true);
        break;
    default: break;
    }
    return {std::move(outline), std::move(places)};
}

/// Minutes, hands, place, temperatures and tools of a step, in one line.
QString effortText(const FitStep& step, bool practised) {
    QStringList facts;
    const double minutes = minutesOf(step, practised);
    facts << (step.effort.hands > 1 ? SurfaceSteps::tr("about %1, two pairs of hands").arg(durationText(minutes))
                                    : SurfaceSteps::tr("about %1").arg(durationText(minutes)));
    if (step.effort.place != WorkPlace::Van) facts << placeText(step.effort.place);
    if (step.effort.dry) facts << SurfaceSteps::tr("dry");
    if (step.effort.light) facts << SurfaceSteps::tr("by daylight");
    if (step.effort.minC && step.effort.maxC)
        facts << SurfaceSteps::tr("%1 to %2 °C").arg(*step.effort.minC).arg(*step.effort.maxC);
    else if (step.effort.minC)
        facts << SurfaceSteps::tr("from %1 °C").arg(*step.effort.minC);
    if (step.effort.fumes)
        facts << SurfaceSteps::tr("nobody else inside for %1 after").arg(durationText(*step.effort.fumes));
    if (step.wait && step.wait->hours > 0)
        facts << (step.wait->kind == WaitKind::Set
                      ? SurfaceSteps::tr("%1 after the one before").arg(durationText(step.wait->hours * 60))
                      : SurfaceSteps::tr("then %1 of waiting").arg(durationText(step.wait->hours * 60)));
    QStringList tools;
    for (const Tool tool : toolsFor(step.kind)) tools << toolText(tool);
    if (!tools.isEmpty()) facts << tools.join(QStringLiteral(", "));
    return facts.join(QStringLiteral("  ·  "));
}

} // namespace

SurfaceSteps::SurfaceSteps(JobDocument& document, QWidget* parent)
    : QWidget(parent),
      document_(document),
      scroll_(new QScrollArea),
      pace_(new QWidget),
      spread_(new EntryField([this](const QString& typed) { return takePace(typed, true); })),
      close_(new EntryField([this](const QString& typed) { return takePace(typed, false); })) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto* row = new FlowRow;
    row->setContentsMargins(0, 0, 0, 0);
    pace_->setLayout(row);
    spread_->setObjectName(QStringLiteral("spreadPace"));
    spread_->setAccessibleName(tr("m² a minute that one coat is spread on"));
    close_->setObjectName(QStringLiteral("closePace"));
    close_->setAccessibleName(tr("m² a minute that are laid and pressed"));
    for (EntryField* field : {spread_, close_}) {
        field->setFixedWidth(64);
        field->setAlignment(Qt::AlignRight);
        connect(field, &EntryField::problemChanged, this, &SurfaceSteps::problem);
    }
    row->addWidget(new QLabel(tr("Your speed with adhesive: one coat on")));
    row->addWidget(spread_);
    row->addWidget(new QLabel(tr("m² a minute, laying and pressing")));
    row->addWidget(close_);
    row->addWidget(new QLabel(tr("m² a minute")));
    pace_->hide();
    scroll_->setWidgetResizable(true);
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(scroll_, 1);
    column->addWidget(pace_); // below, so that the first tick has the keys
    effort_ = new EffortBar(document_);
    connect(effort_, &EffortBar::problem, this, &SurfaceSteps::problem);
    column->addWidget(effort_);
}

const SurfacePlan* SurfaceSteps::surfacePlan() const { return document_.plan()->surface(document_.currentSurface()); }

QString SurfaceSteps::takePace(const QString& typed, bool spread) {
    const auto n = parseNumber(typed.trimmed().toStdString());
    if (!n) return westrum::sentence(n.error(), typed);
    if (n.value() < 0.01 || n.value() > 50) return tr("A speed lies between 0.01 and 50 m² a minute.");
    const Job& job = document_.job();
    push(document_,
         setPace(document_, spread ? n.value() : job.spreadM2PerMinute, spread ? job.closeM2PerMinute : n.value()));
    return {};
}

void SurfaceSteps::addPlaces(QVBoxLayout* column, const SurfacePlan& plan, const FitStep& step) {
    const Surface* surface = document_.job().surface(plan.surface);
    if (!surface) return;
    auto [outline, places] = placesOf(*surface, plan, step);
    if (places.empty() || places.size() > kMostPlaces) return;
    auto* drawing = new PlaceTicks(std::move(outline), std::move(places));
    drawing->setObjectName(QStringLiteral("places-") + QString::fromStdString(step.key));
    connect(drawing, &PlaceTicks::pressed, this, [this](const std::string& key, bool on) {
        push(document_, tickStep(document_, document_.currentSurface(), key, on));
    });
    column->addWidget(drawing);
}

void SurfaceSteps::addStep(QVBoxLayout* column, const SurfacePlan& plan, const FitStep& step) {
    const Theme& t = Theme::now();
    const Figures& f = figures_;
    auto* tick = new QCheckBox(stepTitle(step, f));
    tick->setFont(textFont(1.08, true));
    tick->setObjectName(QStringLiteral("tick-") + QString::fromStdString(step.key));
    const std::string key = step.key;
    connect(tick, &QCheckBox::clicked, this,
            [this, key](bool on) { push(document_, tickStep(document_, document_.currentSurface(), key, on)); });
    auto* brokenOff = new QPushButton;
    brokenOff->setProperty("quiet", true);
    brokenOff->setObjectName(QStringLiteral("broken-") + QString::fromStdString(step.key));
    connect(brokenOff, &QPushButton::clicked, this, [this, key] { breakOff(key); });
    ticks_.push_back({key, tick, brokenOff});
    auto* head = new QHBoxLayout;
    head->addWidget(tick, 1);
    head->addWidget(brokenOff);
    column->addLayout(head);
    const auto line = [&](const QString& text, const QColor& colour) {
        auto* label = new QLabel(text);
        label->setTextFormat(Qt::PlainText);
        label->setWordWrap(true);
        label->setContentsMargins(28, 0, 0, 0);
        label->setStyleSheet(QStringLiteral("color: %1;").arg(css(colour)));
        column->addWidget(label);
    };
    if (const QString body = stepBody(step, f); !body.isEmpty()) line(body, t.graphite);
    line(effortText(step, document_.job().work.practised), t.muted);
    auto* change = new QPushButton(tr("change what it takes"));
    change->setProperty("quiet", true);
    change->setObjectName(QStringLiteral("effort-") + QString::fromStdString(step.key));
    connect(change, &QPushButton::clicked, this, [this, step] { effort_->take(step, figures_); });
    head->insertWidget(1, change);
    if (step.kind == StepKind::SpreadAdhesive && step.layer >= 0) {
        const LayerTakeoff& take = plan.layers[static_cast<std::size_t>(step.layer)].take;
        const Bounds b = boundsOf(plan.shape.net);
        if (take.bays && take.bays->count > 1 && take.bays->count <= kMostBays)
            column->addWidget(new BayPicture(equalStrips(plan.shape.net, take.bays->count, b.width() >= b.height())));
    }
    if (!step.pieces.empty()) {
        QStringList pieces;
        const LayerPlan& layer = plan.layers[static_cast<std::size_t>(step.layer)];
        for (int id : step.pieces) pieces << stepPiece(layer.setOut, id, layer.family, f);
        line(pieces.join(QStringLiteral("    ·    ")), t.muted);
    }
    addPlaces(column, plan, step);
    if (step.caution) column->addLayout(cautionLine(cautionText(*step.caution)));
    column->addSpacing(10);
}

void SurfaceSteps::addGates(QVBoxLayout* column, const Surface& surface) {
    const Job& job = document_.job();
    for (int g = 0; g < kWorkGates; ++g) {
        const auto gate = static_cast<WorkGate>(g);
        const auto known = job.work.gates.find(gate);
        const GateState state = known == job.work.gates.end() ? GateState{} : known->second;
        if ((!state.expected && !state.passed) || !waitsForGate(job, surface, gate)) continue;
        const QString name = sentenceCase(gateText(gate));
        auto* ready = new QCheckBox(state.passed ? tr("%1: ready since %2").arg(name, dayText(*state.passed))
                                                 : tr("%1: expected %2").arg(name, dayText(*state.expected)));
        ready->setObjectName(QStringLiteral("surfaceGate%1").arg(g));
        ready->setChecked(state.passed.has_value());
        ready->setToolTip(tr("The work here waits for it."));
        ready->setStyleSheet(
            QStringLiteral("color: %1;").arg(css(state.passed ? Theme::now().agreed : Theme::now().pencil)));
        connect(ready, &QCheckBox::clicked, this, [this, gate, state](bool on) {
            GateState changed = state;
            changed.passed = on ? std::optional(document_.now().day) : std::nullopt;
            push(document_, setGate(document_, gate, changed));
        });
        column->addWidget(ready);
    }
}

void SurfaceSteps::breakOff(const std::string& key) {
    const std::string surface = document_.currentSurface();
    if (const RecordEntry* known = lastOfStep(document_.job().record, EntryKind::BrokenOff, surface, key))
        return push(document_, removeEntry(document_, known->id));
    RecordEntry e = entryNow(document_, EntryKind::BrokenOff);
    if (const SurfacePlan* plan = surfacePlan())
        for (const FitStep& step : plan->steps)
            if (step.key == key) e.when = workedUntilNow(document_, minutesOf(step, document_.job().work.practised));
    e.surface = surface;
    e.step = key;
    std::vector<RecordEntry> one;
    one.push_back(std::move(e));
    push(document_, addEntries(document_, std::move(one)));
}

void SurfaceSteps::rebuild(const SurfacePlan& plan) {
    const int at = scroll_->verticalScrollBar()->value();
    auto* list = new QWidget;
    auto* column = new QVBoxLayout(list);
    column->setContentsMargins(0, 6, 12, 6);
    column->setSpacing(2);
    ticks_.clear();
    if (const Surface* surface = document_.job().surface(plan.surface)) addGates(column, *surface);
    for (const FitStep& step : plan.steps) addStep(column, plan, step);
    column->addStretch(1);
    if (QWidget* old = scroll_->takeWidget()) old->deleteLater(); // it may be what asked for this
    scroll_->setWidget(list);
    scroll_->verticalScrollBar()->setValue(at);
}

void SurfaceSteps::show(const Figures& figures) {
    figures_ = figures;
    const auto whole = document_.plan(); // keeps what is read of it
    const SurfacePlan* plan = surfacePlan();
    const FitLog& log = document_.job().log(document_.currentSurface());
    const bool ready = plan && !plan->steps.empty();
    scroll_->setVisible(ready);
    pace_->setVisible(ready && std::any_of(plan->steps.begin(), plan->steps.end(),
                                           [](const FitStep& step) { return step.kind == StepKind::SpreadAdhesive; }));
    for (const auto& [field, pace] :
         {std::pair(spread_, document_.job().spreadM2PerMinute), std::pair(close_, document_.job().closeM2PerMinute)})
        field->setFigure(figures_.number(pace, 2), QString::number(pace));
    if (!ready) return;
    const bool practised = document_.job().work.practised;
    const auto& gates = document_.job().work.gates;
    if (built_ != *plan || builtUnit_ != figures.unit || builtPractised_ != practised || builtGates_ != gates) {
        builtGates_ = gates;
        rebuild(*plan);
        built_ = *plan;
        builtUnit_ = figures.unit;
        builtPractised_ = practised;
    }
    for (const Tick& t : ticks_) {
        const bool is = log.done.contains(t.key);
        t.done->setChecked(is);
        t.done->setStyleSheet(is ? QStringLiteral("color: %1;").arg(css(Theme::now().agreed)) : QString());
        const RecordEntry* left =
            lastOfStep(document_.job().record, EntryKind::BrokenOff, document_.currentSurface(), t.key);
        t.brokenOff->setVisible(!is);
        t.brokenOff->setText(left ? tr("broken off, %1").arg(dayText(left->when.day)) : tr("broken off"));
        t.brokenOff->setToolTip(left ? tr("Press again if it was not") : tr("Begun and left: written into the record"));
    }
    if (effort_->isOpen()) { // the step as it is now, or none of its kind is left
        const auto same = std::find_if(plan->steps.begin(), plan->steps.end(),
                                       [&](const FitStep& s) { return s.key == effort_->step()->key; });
        effort_->take(same == plan->steps.end() ? std::nullopt : std::optional(*same), figures_);
    }
    for (PlaceTicks* places : scroll_->widget()->findChildren<PlaceTicks*>()) places->setDone(log.done);
}

QString SurfaceSteps::detail() const {
    const SurfacePlan* plan = surfacePlan();
    if (!plan || plan->steps.empty()) return {};
    const FitLog& log = document_.job().log(document_.currentSurface());
    const auto done = std::count_if(plan->steps.begin(), plan->steps.end(),
                                    [&](const FitStep& step) { return log.done.contains(step.key); });
    return tr("%1 of %2 steps done").arg(done).arg(plan->steps.size());
}

QString SurfaceSteps::sentence() const {
    const SurfacePlan* plan = surfacePlan();
    if (!plan || plan->steps.empty()) return tr("The steps are written once the floor is measured and set out.");
    const FitLog& log = document_.job().log(document_.currentSurface());
    const auto next = std::find_if(plan->steps.begin(), plan->steps.end(),
                                   [&](const FitStep& step) { return !log.done.contains(step.key); });
    return next == plan->steps.end() ? tr("All done. Write down what it took in Log.")
                                     : tr("Next: %1.").arg(stepTitle(*next, figures_));
}

} // namespace westrum
