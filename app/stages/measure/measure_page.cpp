#include "app/stages/measure/measure_page.h"

#include "app/document/commands.h"
#include "core/geometry/polygon.h"

#include <QShortcut>

namespace westrum {

MeasurePage::MeasurePage(JobDocument& document, char decimalMark, QWidget* parent)
    : StagePage(document, decimalMark, parent),
      form_(new QComboBox),
      bench_(new OutlineBench(document, decimalMark)),
      closure_(new ClosureStrip),
      parts_(new PartsPanel(document, decimalMark)),
      meterStrip_(new MeterStrip(document, decimalMark, *bench_, meter_)) {
    form_->addItem(tr("length and width"), static_cast<int>(OutlineForm::Rectangle));
    form_->addItem(tr("four sides and diagonals"), static_cast<int>(OutlineForm::FourSides));
    form_->addItem(tr("any sides and diagonals"), static_cast<int>(OutlineForm::Polygon));
    form_->addItem(tr("baseline and offsets"), static_cast<int>(OutlineForm::Stations));
    form_->addItem(tr("from two fixed points"), static_cast<int>(OutlineForm::TwoPoint));
    form_->setAccessibleName(tr("Way of measuring"));
    form_->setObjectName(QStringLiteral("form"));
    connect(form_, &QComboBox::activated, this, [this](int index) {
        push(document_,
             chooseOutlineForm(document_, surfaceId(), static_cast<OutlineForm>(form_->itemData(index).toInt())));
    });
    const auto note = [this](const QString& sentence) {
        problem_ = sentence;
        refresh();
    };
    connect(bench_, &OutlineBench::problem, this, note);
    connect(parts_, &PartsPanel::problem, this, note);
    connect(parts_, &PartsPanel::turned, this, [this] { refresh(); });
    connect(parts_, &PartsPanel::pointAtSide, this, &MeasurePage::pointAtSide);
    connect(bench_, &OutlineBench::pressed, this, [this](int index) {
        if (index >= 0) parts_->show(parts_->group(), index);
    });
    connect(bench_, &OutlineBench::boxDrawn, parts_, &PartsPanel::addZoneAt);
    sentenceRow()->addWidget(form_, 0, Qt::AlignTop);
    column()->addWidget(bench_, 1);
    column()->addWidget(closure_);
    column()->addWidget(parts_);
    column()->addWidget(meterStrip_);
    connect(meterStrip_, &MeterStrip::connectWanted, &meter_, &SocketMeter::connectTo);
    connect(meterStrip_, &MeterStrip::letGoWanted, &meter_, &SocketMeter::letGo);
    auto* shortcut = new QShortcut(QKeySequence(Qt::Key_F8), this);
    shortcut->setContext(Qt::WidgetWithChildrenShortcut);
    connect(shortcut, &QShortcut::activated, meterStrip_, &MeterStrip::take);
}

void MeasurePage::sidePointedAt(const std::string& surface, int side) { parts_->meetInHand(surface, side); }

QString MeasurePage::sentenceFor(const Surface& s, const SurfacePlan* plan, bool& attention) const {
    const Figures f = figures();
    if (!problem_.isEmpty()) {
        attention = true;
        return problem_;
    }
    if (s.measurement.empty()) {
        switch (s.measurement.form) {
        case OutlineForm::Rectangle:
            return s.kind == SurfaceKind::Floor ? tr("Type the length of the floor into a and its width into b.")
                                                : tr("Type the length into a and the height into b.");
        case OutlineForm::FourSides: return tr("Type the four sides and both diagonals where they stand.");
        case OutlineForm::Polygon:
            return tr("Type the sides in order round the outline, then the diagonals inside it.");
        case OutlineForm::Stations:
            return tr(
                "Lay the tape along the baseline; at each station type where it is and how far the edge is away.");
        case OutlineForm::TwoPoint: return tr("Type the base from A to B, then each corner's distance from both.");
        }
    }
    const Remark* worst = nullptr;
    int count = 0;
    if (plan)
        for (const Remark& r : plan->remarks) {
            const bool ours = r.place.part == Part::Reading || r.place.part == Part::Notch ||
                              r.place.part == Part::Step || r.place.part == Part::Opening ||
                              r.place.part == Part::Zone || r.place.part == Part::Support ||
                              r.place.part == Part::Edge || (r.place.part == Part::Whole && !plan->setOut.laid());
            if (!ours) continue;
            ++count;
            if (!worst || r.severity > worst->severity) worst = &r;
        }
    if (worst) {
        attention = worst->severity == Severity::Error;
        return sentence(*worst, f) +
               (count > 1 ? QStringLiteral(" ") + tr("%n more remark(s) in the tally.", nullptr, count - 1)
                          : QString());
    }
    if (!plan || !plan->measured.measured()) return {};
    switch (parts_->group()) {
    case PartsPanel::Zones:
        if (plan->shape.visibleCentreY && !plan->shape.zones.empty())
            return tr("The middle of what is seen lies %1 up and %2 along.")
                .arg(f.length({*plan->shape.visibleCentreY}), f.length({*plan->shape.visibleCentreX}));
        break;
    case PartsPanel::Van: {
        const Passage& way = document_.plan()->passage;
        if (way.widestPanel)
            return tr("A panel up to %1 wide goes in, through “%2”.")
                       .arg(f.length(*way.widestPanel), QString::fromStdString(way.door)) +
                   (way.loadLength
                        ? QStringLiteral(" ") + tr("The car takes %1 × %2.")
                                                    .arg(f.length(*way.loadLength, false), f.length(*way.loadWidth))
                        : QString());
        return tr("Measure the doors: the largest panel that goes through follows.");
    }
    default: break;
    }
    return s.kind == SurfaceKind::Floor ? tr("The readings close. Lay the finish in Set out.")
                                        : tr("The readings close.");
}

void MeasurePage::refresh() {
    const Surface* s = surface();
    if (!s) return;
    if (shown_ != s->id) {
        shown_ = s->id;
        problem_.clear();
    }
    const Figures f = figures();
    const SurfacePlan* plan = surfacePlan();
    form_->setCurrentIndex(form_->findData(static_cast<int>(s->measurement.form)));
    const bool measured = plan && plan->measured.measured();
    const QString seen = s->kind == SurfaceKind::Floor     ? tr("seen from above")
                         : s->kind == SurfaceKind::Ceiling ? tr("seen from below")
                                                           : tr("seen from inside");
    QString detail = measured ? tr("%1, %2").arg(f.area({areaMm2(plan->measured.outline) / 1e6}), seen) : seen;
    if (!s->area.empty()) detail = tr("%1; %2").arg(QString::fromStdString(s->area), detail);
    setHeading(QString::fromStdString(s->name), detail);
    parts_->refresh();
    constexpr BenchFocus focus[] = {BenchFocus::Outline,  BenchFocus::Openings, BenchFocus::Edges,  BenchFocus::Zones,
                                    BenchFocus::Supports, BenchFocus::Outline,  BenchFocus::Outline};
    bench_->setFocusOn(focus[parts_->group()], parts_->inHand());
    closure_->showClosure(s->measurement, plan ? plan->measured : MeasuredOutline{}, f);
    if (parts_->group() != PartsPanel::Outline) closure_->hide();
    meterStrip_->setVisible(parts_->group() != PartsPanel::Van);
    bool attention = false;
    const QString text = sentenceFor(*s, plan, attention);
    say(text, attention);
}

} // namespace westrum
