#include "app/stages/fit/fit_page.h"

#include "app/document/commands.h"
#include "app/drawing/theme.h"
#include "app/stages/fit/bay_picture.h"
#include "app/widgets/flow_row.h"
#include "core/takeoff/bonding.h"

#include <QScrollBar>

#include <algorithm>

namespace westrum {

static constexpr int kMostBays = 60; ///< more are told, not drawn

FitPage::FitPage(JobDocument& document, char decimalMark, QWidget* parent)
    : StagePage(document, decimalMark, parent),
      scroll_(new QScrollArea),
      pace_(new QWidget),
      spread_(new EntryField([this](const QString& typed) { return takePace(typed, true); })),
      close_(new EntryField([this](const QString& typed) { return takePace(typed, false); })) {
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
        connect(field, &EntryField::problemChanged, this, &FitPage::answer);
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
    column()->addWidget(scroll_, 1);
    column()->addWidget(pace_); // below, so that the first tick has the keys
}

QString FitPage::takePace(const QString& typed, bool spread) {
    const auto n = parseNumber(typed.trimmed().toStdString());
    if (!n) return sentence(n.error(), typed);
    if (n.value() < 0.01 || n.value() > 50) return tr("A speed lies between 0.01 and 50 m² a minute.");
    const Job& job = document_.job();
    push(document_,
         setPace(document_, spread ? n.value() : job.spreadM2PerMinute, spread ? job.closeM2PerMinute : n.value()));
    return {};
}

void FitPage::rebuild(const SurfacePlan& plan) {
    const Theme& t = Theme::now();
    const Figures f = figures();
    const int at = scroll_->verticalScrollBar()->value();
    auto* list = new QWidget;
    auto* column = new QVBoxLayout(list);
    column->setContentsMargins(0, 6, 12, 6);
    column->setSpacing(2);
    ticks_.clear();
    for (const FitStep& step : plan.steps) {
        auto* tick = new QCheckBox(stepTitle(step, f));
        tick->setFont(textFont(1.08, true));
        tick->setObjectName(QStringLiteral("tick-") + QString::fromStdString(step.key));
        const std::string key = step.key;
        connect(tick, &QCheckBox::clicked, this,
                [this, key](bool on) { push(document_, tickStep(document_, surfaceId(), key, on)); });
        ticks_.emplace_back(key, tick);
        column->addWidget(tick);
        const auto line = [&](const QString& text, const QColor& colour, bool cautious) {
            auto* label = new QLabel(text);
            label->setTextFormat(Qt::PlainText);
            label->setWordWrap(true);
            label->setStyleSheet(QStringLiteral("color: %1;").arg(css(colour)));
            auto* row = new QHBoxLayout;
            row->setContentsMargins(28, cautious ? 4 : 0, 0, 0);
            if (cautious) {
                // A caution stands with its step behind a red bar, calm and always there.
                auto* bar = new QFrame;
                bar->setFixedWidth(4);
                bar->setStyleSheet(QStringLiteral("background: %1;").arg(css(t.pencil)));
                row->addWidget(bar);
                row->setSpacing(10);
            }
            row->addWidget(label, 1);
            column->addLayout(row);
        };
        if (const QString body = stepBody(step, f); !body.isEmpty()) line(body, t.graphite, false);
        if (step.kind == StepKind::SpreadAdhesive && step.layer >= 0) {
            const LayerTakeoff& take = plan.layers[static_cast<std::size_t>(step.layer)].take;
            const Bounds b = boundsOf(plan.shape.net);
            if (take.bays && take.bays->count > 1 && take.bays->count <= kMostBays)
                column->addWidget(
                    new BayPicture(equalStrips(plan.shape.net, take.bays->count, b.width() >= b.height())));
        }
        if (!step.pieces.empty()) {
            QStringList pieces;
            const LayerPlan& layer = plan.layers[static_cast<std::size_t>(step.layer)];
            for (int id : step.pieces) pieces << stepPiece(layer.setOut, id, layer.family, f);
            line(pieces.join(QStringLiteral("    ·    ")), t.muted, false);
        }
        if (step.caution) line(cautionText(*step.caution), t.graphite, true);
        column->addSpacing(10);
    }
    column->addStretch(1);
    scroll_->setWidget(list);
    scroll_->verticalScrollBar()->setValue(at);
}

void FitPage::refresh() {
    const Surface* s = surface();
    if (!s) return;
    const auto whole = document_.plan();
    const SurfacePlan* plan = surfacePlan();
    const FitLog& log = document_.job().log(surfaceId());
    const bool ready = plan && !plan->steps.empty();
    scroll_->setVisible(ready);
    pace_->setVisible(ready && std::any_of(plan->steps.begin(), plan->steps.end(),
                                           [](const FitStep& step) { return step.kind == StepKind::SpreadAdhesive; }));
    for (const auto& [field, pace] :
         {std::pair(spread_, document_.job().spreadM2PerMinute), std::pair(close_, document_.job().closeM2PerMinute)})
        field->setFigure(figures().number(pace, 2), QString::number(pace));
    if (!ready) {
        setHeading(QString::fromStdString(s->name), {});
        say(tr("The steps are written once the floor is measured and set out."));
        return;
    }
    if (builtFor_ != whole.get() || plan->steps != built_) {
        rebuild(*plan);
        built_ = plan->steps;
        builtFor_ = whole.get();
    }
    int done = 0;
    const FitStep* next = nullptr;
    for (const FitStep& step : plan->steps) {
        if (log.done.contains(step.key))
            ++done;
        else if (!next)
            next = &step;
    }
    for (const auto& [key, tick] : ticks_) {
        const bool is = log.done.contains(key);
        tick->setChecked(is);
        tick->setStyleSheet(is ? QStringLiteral("color: %1;").arg(css(Theme::now().agreed)) : QString());
    }
    setHeading(QString::fromStdString(s->name), tr("%1 of %2 steps done").arg(done).arg(plan->steps.size()));
    say(next ? tr("Next: %1.").arg(stepTitle(*next, figures())) : tr("All done. Write down what it took in Log."));
}

} // namespace westrum
