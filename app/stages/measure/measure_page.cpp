#include "app/stages/measure/measure_page.h"

#include "app/document/commands.h"
#include "core/geometry/polygon.h"

#include <QHBoxLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QSignalBlocker>

namespace westrum {

MeasurePage::MeasurePage(JobDocument& document, char decimalMark, QWidget* parent)
    : StagePage(document, decimalMark, parent),
      form_(new QComboBox),
      bench_(new OutlineBench(document, decimalMark)),
      closure_(new ClosureStrip),
      cutouts_(new QWidget),
      cutoutGrid_(new QGridLayout(cutouts_)) {
    form_->addItem(tr("length and width"), static_cast<int>(OutlineForm::Rectangle));
    form_->addItem(tr("four sides and diagonals"), static_cast<int>(OutlineForm::FourSides));
    form_->setAccessibleName(tr("Way of measuring"));
    form_->setObjectName(QStringLiteral("form"));
    connect(form_, &QComboBox::activated, this, [this](int index) {
        push(document_,
             chooseOutlineForm(document_, surfaceId(), static_cast<OutlineForm>(form_->itemData(index).toInt())));
    });
    connect(bench_, &OutlineBench::problem, this, [this](const QString& sentence) {
        problem_ = sentence;
        refresh();
    });
    sentenceRow()->addWidget(form_, 0, Qt::AlignTop);
    cutoutGrid_->setContentsMargins(0, 0, 0, 0);
    for (int c = 0; c < 3; ++c) cutoutGrid_->setColumnStretch(c, 1);
    column()->addWidget(bench_, 1);
    column()->addWidget(closure_);
    column()->addWidget(cutouts_);
}

void MeasurePage::refresh() {
    const Surface* s = surface();
    if (!s) return;
    const Figures f = figures();
    const SurfacePlan* plan = surfacePlan();
    form_->setCurrentIndex(form_->findData(static_cast<int>(s->measurement.form)));
    const bool measured = plan && plan->measured.measured();
    setHeading(QString::fromStdString(s->name),
               measured ? tr("%1, seen from above").arg(f.area({areaMm2(plan->measured.outline) / 1e6}))
                        : tr("seen from above"));

    const Remark* worst = nullptr;
    if (plan)
        for (const Remark& r : plan->measured.remarks)
            if (!worst || r.severity > worst->severity) worst = &r;
    if (!problem_.isEmpty())
        say(problem_, true);
    else if (s->measurement.empty())
        say(tr("Type the length of the floor into a and its width into b."));
    else if (worst) {
        const int more = static_cast<int>(plan->measured.remarks.size()) - 1;
        say(sentence(*worst, f) +
                (more > 0 ? QStringLiteral(" ") + tr("%n more remark(s) in the tally.", nullptr, more) : QString()),
            worst->severity == Severity::Error);
    } else if (measured)
        say(tr("The readings close. Lay the finish in Set out."));
    else
        say({});

    bench_->refresh();
    closure_->showClosure(s->measurement, plan ? plan->measured : MeasuredOutline{}, f);
    rebuildCutouts();
}

void MeasurePage::addCutout(bool notch) {
    const Measurement& m = surface()->measurement;
    if (notch)
        push(document_, addNotch(document_, surfaceId(),
                                 {.name = tr("Notch %1").arg(m.notches.size() + 1).toStdString(), .side = 0}));
    else
        push(document_, addStep(document_, surfaceId(),
                                {.name = tr("Corner %1").arg(m.steps.size() + 1).toStdString(), .corner = 1}));
}

std::vector<MeasurePage::Chip> MeasurePage::chips() {
    const Measurement& m = surface()->measurement;
    const std::string id = surfaceId();
    const QStringList sides{tr("side a"), tr("side b"), tr("side c"), tr("side d")};
    const QStringList corners{tr("rear right"), tr("front right"), tr("front left"), tr("rear left")};
    std::vector<Chip> all;
    for (int i = 0; i < static_cast<int>(m.notches.size()); ++i) {
        const Notch& n = m.notches[static_cast<std::size_t>(i)];
        all.push_back({n.name, sides, n.side,
                       [this, id, i](const std::string& name) { push(document_, renameNotch(document_, id, i, name)); },
                       [this, id, i](int side) { push(document_, moveNotchToSide(document_, id, i, side)); },
                       [this, id, i] { push(document_, removeNotch(document_, id, i)); }});
    }
    for (int i = 0; i < static_cast<int>(m.steps.size()); ++i) {
        const Step& s = m.steps[static_cast<std::size_t>(i)];
        all.push_back({s.name, corners, s.corner,
                       [this, id, i](const std::string& name) { push(document_, renameStep(document_, id, i, name)); },
                       [this, id, i](int where) { push(document_, moveStepToCorner(document_, id, i, where)); },
                       [this, id, i] { push(document_, removeStep(document_, id, i)); }});
    }
    return all;
}

QWidget* MeasurePage::chipWidget(const Chip& chip) {
    auto* widget = new QWidget;
    auto* row = new QHBoxLayout(widget);
    row->setContentsMargins(0, 0, 8, 0);
    row->setSpacing(4);
    auto* name = new QLineEdit(QString::fromStdString(chip.name));
    name->setAccessibleName(tr("Name of the cut-out"));
    connect(name, &QLineEdit::editingFinished, this, [name, chip] {
        const QString typed = name->text().trimmed();
        if (!typed.isEmpty() && typed.toStdString() != chip.name) chip.rename(typed.toStdString());
    });
    auto* where = new QComboBox;
    where->addItems(chip.places);
    where->setCurrentIndex(chip.place);
    where->setAccessibleName(tr("Where the cut-out is"));
    connect(where, &QComboBox::activated, this, chip.move);
    auto* gone = new QPushButton(QStringLiteral("✕"));
    gone->setProperty("quiet", true);
    gone->setFixedWidth(26);
    gone->setToolTip(tr("Remove %1").arg(QString::fromStdString(chip.name)));
    gone->setAccessibleName(gone->toolTip());
    connect(gone, &QPushButton::clicked, this, chip.remove);
    row->addWidget(name, 1);
    row->addWidget(where);
    row->addWidget(gone);
    return widget;
}

void MeasurePage::rebuildCutouts() {
    const std::vector<Chip> all = chips();
    QString wanted = QString::fromStdString(surfaceId());
    for (const Chip& c : all)
        wanted += QStringLiteral("|%1 %2 %3").arg(c.places.size()).arg(c.place).arg(QString::fromStdString(c.name)) +
                  c.places.join(QString());
    if (wanted == built_) return;
    built_ = wanted;
    while (QLayoutItem* item = cutoutGrid_->takeAt(0)) {
        if (item->widget()) item->widget()->deleteLater();
        delete item;
    }
    int cell = 0;
    for (const Chip& c : all) {
        cutoutGrid_->addWidget(chipWidget(c), cell / 3, cell % 3);
        ++cell;
    }
    auto* add = new QWidget;
    auto* row = new QHBoxLayout(add);
    row->setContentsMargins(0, 0, 0, 0);
    for (const bool notch : {true, false}) {
        auto* button = new QPushButton(notch ? tr("Add a notch") : tr("Cut a corner"));
        button->setObjectName(notch ? QStringLiteral("addNotch") : QStringLiteral("addStep"));
        button->setToolTip(notch ? tr("A wheel arch or post foot let into a side")
                                 : tr("A door well: a corner cut away"));
        connect(button, &QPushButton::clicked, this, [this, notch] { addCutout(notch); });
        row->addWidget(button);
    }
    row->addStretch(1);
    cutoutGrid_->addWidget(add, (cell + 2) / 3, 0, 1, 3);
}

} // namespace westrum
