#include "app/stages/setout/set_out_page.h"

#include "app/document/commands.h"
#include "app/document/cut_commands.h"
#include "app/widgets/gesture.h"
#include "core/catalogue/plank.h"
#include "core/setout/plank_floor.h"

#include <QHBoxLayout>

namespace westrum {

SetOutPage::SetOutPage(JobDocument& document, char decimalMark, QWidget* parent)
    : StagePage(document, decimalMark, parent),
      doIt_(new QPushButton(tr("Do it"))),
      next_(new QPushButton(tr("Another way"))),
      planks_(new ProductPanel(
          document, decimalMark, "planks",
          {[this] { return document_.job().finish(surfaceId()).product; },
           [this](const std::string& id) { push(document_, chooseProduct(document_, surfaceId(), id)); },
           tr("no planks")})),
      underlay_(new ProductPanel(
          document, decimalMark, "underlay",
          {[this] { return document_.job().finish(surfaceId()).underlay; },
           [this](const std::string& id) { push(document_, chooseUnderlay(document_, surfaceId(), id)); },
           tr("no underlay")})),
      trim_(new ProductPanel(
          document, decimalMark, "trim",
          {[this] { return document_.job().finish(surfaceId()).trim; },
           [this](const std::string& id) { push(document_, chooseTrim(document_, surfaceId(), id)); }, tr("no trim")})),
      rules_(new FieldForm(
          plankRuleFields(), {"startOffset"}, 3, [this] { return document_.job().bareUnit; },
          [this](const std::string& key, double value) {
              push(document_, setRule(document_, surfaceId(), key, value));
          })),
      bench_(new SetOutBench(document, decimalMark)),
      strip_(new StartStrip) {
    trim_->setParent(this);
    trim_->hide(); // only its list is shown here
    doIt_->setObjectName(QStringLiteral("doIt"));
    next_->setObjectName(QStringLiteral("anotherWay"));
    sentenceRow()->addWidget(doIt_, 0, Qt::AlignTop);
    sentenceRow()->addWidget(next_, 0, Qt::AlignTop);
    connect(doIt_, &QPushButton::clicked, this, &SetOutPage::takeSuggestion);
    connect(next_, &QPushButton::clicked, this, [this] {
        ++suggestion_;
        refresh();
    });

    auto* row = new QHBoxLayout;
    row->setSpacing(8);
    planks_->choice()->setObjectName(QStringLiteral("product"));
    planks_->choice()->setAccessibleName(tr("Planks"));
    underlay_->choice()->setObjectName(QStringLiteral("underlay"));
    underlay_->choice()->setAccessibleName(tr("Underlay"));
    row->addWidget(planks_->choice(), 3);
    row->addWidget(underlay_->choice(), 2);
    trim_->choice()->setObjectName(QStringLiteral("trim"));
    trim_->choice()->setAccessibleName(tr("Trim along the edges"));
    trim_->choice()->setToolTip(tr("What runs along the edges; its runs are cut in Cut, where its figures are edited"));
    row->addWidget(trim_->choice(), 2);
    for (QComboBox* box : {planks_->choice(), underlay_->choice(), trim_->choice()})
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    const auto fold = [&](const QString& text, const QString& name, QWidget* panel) {
        auto* button = new QPushButton(text);
        button->setCheckable(true);
        button->setObjectName(name);
        panel->hide();
        connect(button, &QPushButton::toggled, panel, &QWidget::setVisible);
        row->addWidget(button);
        return button;
    };
    fold(tr("Planks…"), QStringLiteral("editPlanks"), planks_);
    fold(tr("Underlay…"), QStringLiteral("editUnderlay"), underlay_);
    fold(tr("How laid…"), QStringLiteral("editRules"), rules_);
    column()->addLayout(row);
    column()->addWidget(planks_);
    column()->addWidget(underlay_);
    column()->addWidget(rules_);
    column()->addWidget(bench_, 1);
    column()->addWidget(strip_);

    connect(bench_, &SetOutBench::startMoved, this, &SetOutPage::moveStart);
    connect(strip_, &StartStrip::startMoved, this, &SetOutPage::moveStart);
    connect(&document_, &JobDocument::startsComputed, this, [this] {
        if (isVisible()) refresh();
    });
    const auto note = [this](const QString& sentence) {
        problem_ = sentence;
        refresh();
    };
    connect(planks_, &ProductPanel::problem, this, note);
    connect(underlay_, &ProductPanel::problem, this, note);
    connect(rules_, &FieldForm::problem, this, note);
}

void SetOutPage::moveStart(Mm offset, int gesture) {
    push(document_, moveStartLine(document_, surfaceId(), offset, gesture));
}

void SetOutPage::takeSuggestion() {
    const auto& all = document_.starts()->suggestions;
    if (all.empty()) return;
    moveStart(all[suggestion_ % all.size()].choice.startOffset, nextGesture());
}

void SetOutPage::saySuggestion() {
    const auto starts = document_.starts();
    const SurfacePlan* plan = surfacePlan();
    const bool offered = !starts->suggestions.empty() && plan && plan->setOut.laid();
    doIt_->setVisible(offered);
    next_->setVisible(offered && starts->suggestions.size() > 1);
    if (!offered) {
        const bool chosen = !document_.job().finish(surfaceId()).product.empty();
        say(!chosen                 ? tr("No planks are chosen for this surface. Choose them here to lay it.")
            : document_.isSettled() ? QString()
                                    : tr("Working out every start …"));
        return;
    }
    const Suggestion& s = starts->suggestions[suggestion_ % starts->suggestions.size()];
    const Mm now = plan->setOut.startOffset;
    say(suggestionText(s, now, starts->unitsPerPack, figures()));
    doIt_->setEnabled(std::abs(s.choice.startOffset.value - now.value) >= 0.5);
}

void SetOutPage::refresh() {
    const Surface* s = surface();
    if (!s) return;
    const Figures f = figures();
    const Finish& finish = document_.job().finish(surfaceId());
    const Product* product = document_.job().catalogue.find(finish.product);
    const SurfacePlan* plan = surfacePlan();
    QString detail;
    double width = 0;
    if (product && product->family == "planks") {
        const Plank p = plankOf(*product);
        width = p.width.value;
        detail = tr("planks %1 × %2 × %3, %4, %5 movement gap")
                     .arg(f.fineLength(p.length, false), f.fineLength(p.width, false), f.fineLength(p.thickness, false),
                          plankRulesOf(finish.rules).across ? tr("across the van") : tr("along the van"),
                          f.fineLength(plankRulesOf(finish.rules).gap));
        if (plan && plan->setOut.laid())
            detail += tr("; %1 in %2 rows")
                          .arg(planksText(static_cast<int>(plan->setOut.stock.size())))
                          .arg(plan->setOut.rows.size());
    }
    setHeading(QString::fromStdString(s->name), detail);
    planks_->refresh();
    underlay_->refresh();
    trim_->refresh();
    rules_->showValues(finish.rules, f);
    strip_->showStarts(document_.starts(), plan ? plan->setOut.startOffset : Mm{0}, width, f, document_.isSettled());
    bench_->update();

    const Remark* error = nullptr;
    if (plan)
        for (const Remark& r : plan->remarks)
            if (r.severity == Severity::Error && !error) error = &r;
    if (!problem_.isEmpty()) {
        doIt_->hide();
        next_->hide();
        say(problem_, true);
    } else if (!plan || !plan->measured.measured()) {
        doIt_->hide();
        next_->hide();
        say(error ? sentence(*error, f) : tr("Measure the floor first: the planks are laid on its real shape."),
            error != nullptr);
    } else if (error) {
        doIt_->hide();
        next_->hide();
        say(sentence(*error, f), true);
    } else {
        saySuggestion();
    }
}

} // namespace westrum
