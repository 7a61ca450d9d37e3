#include "app/stages/buildup/options_box.h"

#include "app/document/commands.h"
#include "app/drawing/theme.h"

#include <QHBoxLayout>
#include <QShortcut>
#include <QVBoxLayout>

namespace westrum {
namespace {

void writeOn(QLabel* label, const QString& text, const QColor& colour) {
    label->setText(text);
    label->setStyleSheet(QStringLiteral("color: %1;").arg(css(colour)));
}

} // namespace

OptionsBox::OptionsBox(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent),
      document_(document),
      decimalMark_(decimalMark),
      grid_(new QGridLayout),
      name_(new QLineEdit),
      remove_(new QPushButton(tr("Remove it"))) {
    grid_->setHorizontalSpacing(14);
    grid_->setVerticalSpacing(2);
    grid_->setColumnStretch(3, 1);
    name_->setObjectName(QStringLiteral("optionName"));
    name_->setAccessibleName(tr("Name of the option chosen"));
    name_->setPlaceholderText(tr("name of the option"));
    name_->setMaximumWidth(190);
    connect(name_, &QLineEdit::editingFinished, this, &OptionsBox::rename);
    auto* more = new QPushButton(tr("Another option"));
    more->setObjectName(QStringLiteral("addOption"));
    more->setToolTip(tr("A copy of the one chosen, to be changed"));
    connect(more, &QPushButton::clicked, this, [this] {
        const std::string& surface = document_.currentSurface();
        const auto n = document_.job().options(surface).options.size();
        push(document_, addOption(document_, surface, tr("option %1").arg(n + 1).toStdString()));
    });
    remove_->setObjectName(QStringLiteral("removeOption"));
    connect(remove_, &QPushButton::clicked, this, [this] {
        const std::string& surface = document_.currentSurface();
        push(document_, removeOption(document_, surface, document_.job().options(surface).chosen));
    });
    auto* line = new QHBoxLayout;
    line->addWidget(name_);
    line->addWidget(more);
    line->addWidget(remove_);
    line->addStretch(1);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(2);
    column->addLayout(grid_);
    column->addLayout(line);
    connect(&worker_, &OptionWorker::found, this,
            [this](const std::string& surface, const std::vector<OptionFigures>& figures) {
                foundFor_ = surface;
                working_ = false; // an older question's answer is never told
                found_ = figures;
                write();
            });
    for (int k = 0; k < 9; ++k) // the buttons come and go, their keys stay
        connect(new QShortcut(QKeySequence(QStringLiteral("Ctrl+%1").arg(k + 1)), parent ? parent : this),
                &QShortcut::activated, this, [this, k] {
                    rename(); // a name being typed belongs to the one chosen until now
                    push(document_, chooseOption(document_, document_.currentSurface(), k));
                });
}

void OptionsBox::refresh() {
    askedFor_ = document_.currentSurface();
    if (worker_.request(document_.job(), askedFor_)) working_ = true;
    write();
}

QString OptionsBox::differences(const Figures& f, const OptionFigures& o, const OptionFigures& c) {
    QStringList said;
    const auto more = [&](double by, double least, const QString& text) {
        if (std::abs(by) >= least) said << (by > 0 ? QStringLiteral("+") : QStringLiteral("−")) + text;
    };
    more((o.thickness - c.thickness).value, 0.05, f.fineLength({std::abs((o.thickness - c.thickness).value)}));
    more((o.mass - c.mass).value, 0.05, f.mass({std::abs((o.mass - c.mass).value)}));
    if (o.cost && c.cost) {
        const std::int64_t by = o.cost->minor - c.cost->minor;
        more(static_cast<double>(by), 1, f.money({std::abs(by), o.cost->currency}));
    } else {
        said << tr("a price is missing");
    }
    return said.isEmpty() ? tr("the same") : said.join(QStringLiteral("   "));
}

OptionsBox::Row OptionsBox::makeRow(int k) {
    Row row{new QPushButton, new QLabel, new QLabel, new QLabel};
    row.pick->setCheckable(true);
    row.pick->setObjectName(QStringLiteral("option%1").arg(k));
    row.pick->setToolTip(tr("Choose this option: Ctrl+%1").arg(k + 1));
    connect(row.pick, &QPushButton::clicked, this, [this, k] {
        push(document_, chooseOption(document_, document_.currentSurface(), k));
        write(); // the one chosen stays pressed
    });
    grid_->addWidget(row.pick, k, 0);
    int column = 1;
    for (QLabel* label : {row.itself, row.against, row.rest}) {
        label->setTextFormat(Qt::PlainText);
        grid_->addWidget(label, k, column++);
    }
    return row;
}

void OptionsBox::write() {
    const std::string& surface = document_.currentSurface();
    const FinishOptions& all = document_.job().options(surface);
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const Theme& t = Theme::now();
    while (rows_.size() > all.options.size()) {
        for (QWidget* w : {static_cast<QWidget*>(rows_.back().pick), static_cast<QWidget*>(rows_.back().itself),
                           static_cast<QWidget*>(rows_.back().against), static_cast<QWidget*>(rows_.back().rest)}) {
            w->hide();
            w->deleteLater(); // it may be the one pressed
        }
        rows_.pop_back();
    }
    while (rows_.size() < all.options.size()) rows_.push_back(makeRow(static_cast<int>(rows_.size())));
    const bool known = foundFor_ == surface && found_.size() == all.options.size();
    for (int k = 0; k < static_cast<int>(rows_.size()); ++k) {
        const Row& row = rows_[static_cast<std::size_t>(k)];
        const Finish& option = all.options[static_cast<std::size_t>(k)];
        row.pick->setText(
            QStringLiteral("%1   %2")
                .arg(QChar(0x2460 + k))
                .arg(option.name.empty() ? tr("option %1").arg(k + 1) : QString::fromStdString(option.name)));
        row.pick->setChecked(k == all.chosen);
        if (!known) {
            writeOn(row.itself, tr("being worked out …"), t.muted);
            row.against->clear();
            row.rest->clear();
            continue;
        }
        const OptionFigures& o = found_[static_cast<std::size_t>(k)];
        writeOn(row.itself, tr("%1, %2").arg(f.fineLength(o.thickness), f.mass(o.mass)), t.graphite);
        if (k == all.chosen)
            writeOn(row.against, tr("chosen"), t.agreed);
        else
            writeOn(row.against, differences(f, o, found_[static_cast<std::size_t>(all.chosen)]), t.graphite);
        QStringList rest;
        if (o.planned) rest << tr("%n piece(s)", nullptr, o.pieces) << tr("%1 cut away").arg(f.percent(o.wasteShare));
        rest << (o.warnings == 0 ? tr("nothing to remark") : tr("%n remark(s)", nullptr, o.warnings));
        writeOn(row.rest, rest.join(QStringLiteral(", ")), o.warnings > 0 ? t.pencil : t.muted);
    }
    remove_->setEnabled(all.options.size() > 1);
    if (!name_->hasFocus() || nameOf_ != std::pair(surface, all.chosen)) { // a name being typed is not taken away
        name_->setText(QString::fromStdString(all.now().name));
        nameOf_ = {surface, all.chosen};
    }
}

void OptionsBox::rename() {
    const auto& [surface, option] = nameOf_;
    const auto& options = document_.job().options(surface).options;
    if (option >= static_cast<int>(options.size())) return;
    const std::string typed = name_->text().trimmed().toStdString();
    if (typed != options[static_cast<std::size_t>(option)].name)
        push(document_, renameOption(document_, surface, option, typed));
}

} // namespace westrum
