#include "app/stages/fit/effort_bar.h"

#include "app/document/work_commands.h"
#include "app/drawing/theme.h"
#include "app/widgets/flow_row.h"
#include "core/fitting/efforts.h"

#include <QVBoxLayout>

#include <utility>

namespace westrum {

EffortBar::EffortBar(JobDocument& document, QWidget* parent)
    : QWidget(parent), document_(document), what_(new QLabel), unit_(new QLabel) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 4, 0, 4);
    what_->setWordWrap(true);
    what_->setObjectName(QStringLiteral("effortOf"));
    column->addWidget(what_);
    auto* row = new FlowRow;
    row->setContentsMargins(0, 0, 0, 0);
    constexpr double kMostMinutes = 10000, kColdestC = -50, kHottestC = 60;
    constexpr int kMostHands = 20, kMostFumes = 10080;
    const auto named = [&](const QString& name, QWidget* widget, const QString& unit) {
        auto* pair = new QWidget;
        auto* own = new QHBoxLayout(pair);
        own->setContentsMargins(0, 0, 8, 0);
        own->addWidget(new QLabel(name));
        own->addWidget(widget);
        if (!unit.isEmpty()) own->addWidget(new QLabel(unit));
        row->addWidget(pair);
        return own;
    };
    once_ = figure("effortOnce", tr("Minutes to set up"), 0, kMostMinutes, &OwnEffort::once);
    named(tr("to set up"), once_, tr("min"));
    each_ = figure("effortEach", tr("Minutes for each"), 0, kMostMinutes, &OwnEffort::each);
    named(tr("then"), each_, {})->addWidget(unit_);
    hands_ = whole("effortHands", tr("Pairs of hands"), 1, kMostHands, &OwnEffort::hands);
    named(tr("pairs of hands"), hands_, {});
    least_ = figure("effortLeast", tr("Not below so many °C"), kColdestC, kHottestC, &OwnEffort::minC);
    named(tr("from"), least_, tr("°C"));
    most_ = figure("effortMost", tr("Not above so many °C"), kColdestC, kHottestC, &OwnEffort::maxC);
    named(tr("to"), most_, tr("°C"));
    fumes_ = whole("effortFumes", tr("Minutes for which others stay out after it"), 0, kMostFumes, &OwnEffort::fumes);
    named(tr("others stay out"), fumes_, tr("min"));
    row->addWidget(dry_ = flag("effortDry", tr("dry"), &OwnEffort::dry));
    row->addWidget(light_ = flag("effortLight", tr("by daylight"), &OwnEffort::light));
    usual_ = new QPushButton(tr("As usual"));
    usual_->setObjectName(QStringLiteral("effortUsual"));
    connect(usual_, &QPushButton::clicked, this, [this] { put({}); });
    row->addWidget(usual_);
    shut_ = new QPushButton(tr("Close"));
    shut_->setObjectName(QStringLiteral("effortShut"));
    connect(shut_, &QPushButton::clicked, this, [this] { take(std::nullopt, figures_); });
    row->addWidget(shut_);
    auto* bar = new QWidget;
    bar->setLayout(row);
    column->addWidget(bar);
    hide();
}

OwnEffort EffortBar::own() const {
    if (!step_) return {};
    const OwnEfforts& efforts = document_.job().work.efforts;
    const auto known = efforts.find(step_->kind);
    return known == efforts.end() ? OwnEffort{} : known->second;
}

void EffortBar::put(const OwnEffort& own) {
    if (step_) push(document_, setEffort(document_, step_->kind, own));
}

EntryField* EffortBar::field(const char* id, const QString& name, EntryField::Commit commit) {
    auto* field = new EntryField(std::move(commit));
    field->setObjectName(QString::fromLatin1(id));
    field->setAccessibleName(name);
    field->setFixedWidth(56);
    connect(field, &EntryField::problemChanged, this, &EffortBar::problem);
    return field;
}

EntryField* EffortBar::figure(const char* id, const QString& name, double least, double most,
                              std::optional<double> OwnEffort::*member) {
    return field(id, name, [this, least, most, member](const QString& typed) -> QString {
        OwnEffort changed = own();
        (changed.*member).reset();
        if (!typed.trimmed().isEmpty()) {
            const auto n = parseNumber(typed.trimmed().toStdString());
            if (!n) return westrum::sentence(n.error(), typed);
            if (n.value() < least || n.value() > most)
                return tr("From %1 to %2; emptied, the usual figure stands again.").arg(least).arg(most);
            changed.*member = n.value();
        }
        if (changed.minC && changed.maxC && *changed.minC > *changed.maxC)
            return tr("It cannot be at least warmer than at most.");
        put(changed);
        return {};
    });
}

EntryField* EffortBar::whole(const char* id, const QString& name, int least, int most,
                             std::optional<int> OwnEffort::*member) {
    return field(id, name, [this, least, most, member](const QString& typed) -> QString {
        OwnEffort changed = own();
        (changed.*member).reset();
        if (!typed.trimmed().isEmpty()) {
            bool is = false;
            const int n = typed.trimmed().toInt(&is);
            if (!is || n < least || n > most)
                return tr("A whole number from %1 to %2; emptied, the usual figure stands again.").arg(least).arg(most);
            changed.*member = n;
        }
        put(changed);
        return {};
    });
}

QPushButton* EffortBar::flag(const char* id, const QString& text, std::optional<bool> OwnEffort::*member) {
    auto* button = new QPushButton(text);
    button->setCheckable(true);
    button->setObjectName(QString::fromLatin1(id));
    connect(button, &QPushButton::clicked, this, [this, member](bool on) {
        OwnEffort changed = own();
        changed.*member = on;
        put(changed);
    });
    return button;
}

void EffortBar::take(std::optional<FitStep> step, const Figures& figures) {
    figures_ = figures;
    const bool other = step && (!step_ || step_->kind != step->kind);
    step_ = std::move(step);
    setVisible(step_.has_value());
    if (!step_) return;
    show();
    if (other) once_->setFocus();
}

void EffortBar::show() {
    const EffortRow& row = effortRow(step_->kind);
    const OwnEffort set = own();
    what_->setText(tr("What “%1” and all steps of its kind take, in practised hands. What a label says goes before it; "
                      "emptied, the usual figure stands again.")
                       .arg(stepTitle(*step_, figures_)));
    const auto number = [&](EntryField* field, std::optional<double> value, bool mine) {
        const QString text = value ? figures_.number(*value, *value == static_cast<int>(*value) ? 0 : 1) : QString();
        field->setFigure(text, value ? QString::number(*value) : QString());
        field->setStyleSheet(mine ? QStringLiteral("color: %1;").arg(css(Theme::now().chalk)) : QString());
    };
    number(once_, set.once.value_or(row.once), set.once.has_value());
    number(each_, set.each.value_or(row.each), set.each.has_value());
    unit_->setText(row.unit == EffortUnit::Once           ? tr("min")
                   : row.unit == EffortUnit::Pieces       ? tr("min a piece")
                   : row.unit == EffortUnit::SquareMetres ? tr("min a m²")
                                                          : tr("min a metre"));
    each_->parentWidget()->setVisible(row.unit != EffortUnit::Once);
    number(hands_, step_->effort.hands, set.hands.has_value());
    number(least_, step_->effort.minC, set.minC.has_value());
    number(most_, step_->effort.maxC, set.maxC.has_value());
    number(fumes_, step_->effort.fumes ? std::optional<double>(*step_->effort.fumes) : std::nullopt,
           set.fumes.has_value());
    dry_->setChecked(step_->effort.dry);
    light_->setChecked(step_->effort.light);
    usual_->setEnabled(set != OwnEffort{});
}

} // namespace westrum
