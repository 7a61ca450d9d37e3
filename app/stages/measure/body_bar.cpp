#include "app/stages/measure/body_bar.h"

#include "app/document/shell_commands.h"
#include "app/drawing/theme.h"

#include <algorithm>
#include <cmath>

namespace westrum {

BodyBar::BodyBar(JobDocument& document, QWidget* parent)
    : QWidget(parent),
      document_(document),
      words_(new QLabel),
      verdict_(new QLabel),
      row_(new FlowRow),
      measured_(new QPushButton(tr("It is measured here"))) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 4);
    column->setSpacing(4);
    words_->setWordWrap(true);
    words_->setTextFormat(Qt::PlainText);
    words_->setObjectName(QStringLiteral("bodyWords"));
    column->addWidget(words_);
    row_->setContentsMargins(0, 0, 0, 0);
    column->addLayout(row_);
    auto* foot = new QHBoxLayout;
    verdict_->setWordWrap(true);
    verdict_->setTextFormat(Qt::PlainText);
    verdict_->setObjectName(QStringLiteral("bodyVerdict"));
    foot->addWidget(verdict_, 1);
    measured_->setObjectName(QStringLiteral("measuredHere"));
    measured_->setToolTip(tr("What stands here was read in this van: it is no longer taken from the earlier one"));
    foot->addWidget(measured_);
    column->addLayout(foot);
    connect(measured_, &QPushButton::clicked, this,
            [this] { push(document_, measuredHere(document_, document_.currentSurface())); });
    hide();
}

void BodyBar::build() {
    for (QWidget* w : made_) {
        w->hide();
        w->deleteLater();
    }
    while (QLayoutItem* item = row_->takeAt(0)) delete item;
    made_.clear();
    fields_.clear();
    names_.clear();
    for (std::size_t i = 0; i < shown_.size(); ++i) {
        auto* name = new QPushButton;
        name->setProperty("quiet", true);
        name->setObjectName(QStringLiteral("checkName%1").arg(i));
        connect(name, &QPushButton::clicked, this, [this, id = shown_[i].surface] { document_.setCurrentSurface(id); });
        auto* field = new EntryField([this, i](const QString& typed) -> QString {
            if (typed.trimmed().isEmpty()) {
                push(document_, takeCheck(document_, i, {}));
                return {};
            }
            const auto length = parseLength(typed.toStdString(), document_.job().bareUnit);
            if (!length) return westrum::sentence(length.error(), typed);
            if (length.value().value < kShortestSideMm || length.value().value > kLongestSideMm)
                return tr("That is no length of a van.");
            push(document_, takeCheck(document_, i, Reading{typed.toStdString(), length.value()}));
            return {};
        });
        field->setObjectName(QStringLiteral("check%1").arg(i));
        field->setFixedWidth(96);
        field->setAlignment(Qt::AlignRight);
        connect(field, &EntryField::problemChanged, this, [this](const QString& why) {
            if (why.isEmpty()) return refresh(figures_);
            verdict_->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().pencil)));
            verdict_->setText(why);
        });
        row_->addWidget(name);
        row_->addWidget(field);
        made_.insert(made_.end(), {name, field});
        names_.push_back(name);
        fields_.push_back(field);
    }
}

QString BodyBar::verdictText(const Surface& s, const Figures& f) const {
    if (!s.before) return tr("%1 is measured in this van.").arg(QString::fromStdString(s.name));
    const auto verdicts = bodyVerdicts(document_.job().surfaces, document_.job().before.checks);
    const auto at = verdicts.find(s.id);
    const QString name = QString::fromStdString(s.name);
    if (at == verdicts.end()) return {};
    const BodyVerdictOf& v = at->second;
    const QString by = f.length({std::abs(v.by.value)});
    switch (v.verdict) {
    case BodyVerdict::Unchecked: return tr("%1: measured before; nothing read in this van says otherwise.").arg(name);
    case BodyVerdict::Agrees: return tr("%1 agrees with what was measured before.").arg(name);
    case BodyVerdict::Doubtful:
        return (v.by.value > 0 ? tr("%1: by what was read elsewhere its %2 is about %3 longer here. Measure it.")
                               : tr("%1: by what was read elsewhere its %2 is about %3 shorter here. Measure it."))
            .arg(name, readingName(v.key), by);
    case BodyVerdict::Differs:
        return (v.by.value > 0 ? tr("%1 differs: its %2 is %3 longer than before. Measure it.")
                               : tr("%1 differs: its %2 is %3 shorter than before. Measure it."))
            .arg(name, readingName(v.key), by);
    }
    return {};
}

void BodyBar::refresh(const Figures& f) {
    figures_ = f;
    const Job& job = document_.job();
    const auto before =
        std::count_if(job.surfaces.begin(), job.surfaces.end(), [](const Surface& s) { return s.before; });
    setVisible(!job.before.body.empty() && before > 0);
    if (isHidden()) return;
    std::vector<BodyCheck> wanted = job.before.checks;
    for (BodyCheck& c : wanted) c.taken.reset();
    if (wanted != shown_) {
        shown_ = std::move(wanted);
        build();
    }
    const auto open =
        std::count_if(job.before.checks.begin(), job.before.checks.end(), [](const BodyCheck& c) { return !c.taken; });
    const QString body = QString::fromStdString(job.before.body);
    words_->setText(
        open > 0
            ? tr("From “%1”: take these again, they tell soonest whether this van is like that one.").arg(body)
            : tr("From “%1”: %n surface(s) are still as they were measured there.", nullptr, static_cast<int>(before))
                  .arg(body));
    for (std::size_t i = 0; i < fields_.size(); ++i) {
        const BodyCheck& c = job.before.checks[i];
        const Surface* s = job.surface(c.surface);
        names_[i]->setText(tr("%1, %2 (was %3)")
                               .arg(s ? QString::fromStdString(s->name) : QString(), readingName(c.key),
                                    f.fineLength(c.before, false)));
        fields_[i]->setAccessibleName(names_[i]->text());
        fields_[i]->setFigure(c.taken ? f.fineLength(c.taken->length, false) : QString(),
                              c.taken ? QString::fromStdString(c.taken->typed) : QString());
        fields_[i]->setSuspect(c.taken && std::abs(c.taken->length.value - c.before.value) > kAgreesMm);
    }
    const Surface* s = job.surface(document_.currentSurface());
    measured_->setVisible(s && s->before);
    const bool wrong = std::any_of(fields_.begin(), fields_.end(), [](const EntryField* e) { return e->isWrong(); });
    if (wrong || !s) return;
    const QString text = verdictText(*s, f);
    const auto verdicts = bodyVerdicts(job.surfaces, job.before.checks);
    const auto at = verdicts.find(s->id);
    const bool attention = s->before && at != verdicts.end() &&
                           (at->second.verdict == BodyVerdict::Differs || at->second.verdict == BodyVerdict::Doubtful);
    verdict_->setStyleSheet(
        QStringLiteral("color: %1;").arg(css(attention ? Theme::now().pencil : Theme::now().muted)));
    verdict_->setText(text);
}

} // namespace westrum
