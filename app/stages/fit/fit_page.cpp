#include "app/stages/fit/fit_page.h"

#include "app/drawing/theme.h"
#include "app/print/paper.h"
#include "app/print/work_print.h"
#include "app/widgets/view_tabs.h"
#include "formats/work_out.h"
#include "formats/work_words.h"

#include <QHBoxLayout>

namespace westrum {

FitPage::FitPage(JobDocument& document, char decimalMark, QWidget* parent)
    : StagePage(document, decimalMark, parent),
      rules_(new QPushButton),
      views_(new QStackedWidget),
      van_(new VanView(document)),
      today_(new TodayView(document)),
      steps_(new SurfaceSteps(document)),
      setup_(new WorkSetup(document)) {
    auto* tabs = new QHBoxLayout;
    tabs->setSpacing(8);
    addViewTabs(tabs,
                {{tr("Whole van"), "fitWhole"},
                 {tr("Today"), "fitToday"},
                 {tr("This surface"), "fitSurface"},
                 {tr("Days and rules"), "fitSetup"}},
                tabs_, [this](int view) { showView(static_cast<View>(view)); });
    tabs->addStretch(1);
    rules_->setProperty("quiet", true);
    rules_->setObjectName(QStringLiteral("rulesNow"));
    rules_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    rules_->setMinimumWidth(60);
    rules_->setStyleSheet(QStringLiteral("text-align: right;"));
    connect(rules_, &QPushButton::clicked, this, [this] { showView(DaysAndRules); });
    tabs->addWidget(rules_, 4);
    column()->addLayout(tabs);
    for (QWidget* view : std::initializer_list<QWidget*>{van_, today_, steps_, setup_}) views_->addWidget(view);
    column()->addWidget(views_, 1);
    views_->setCurrentIndex(document_.job().surfaces.size() > 1 ? WholeVan : ThisSurface);
    connect(&document_, &JobDocument::jobReplaced, this, [this] {
        views_->setCurrentIndex(document_.job().surfaces.size() > 1 ? WholeVan : ThisSurface);
        van_->strip().begin();
    });
    connect(&document_, &JobDocument::workChanged, this, [this] { figuresCameIn([this] { refresh(); }); });
    const auto tell = [this](const QString& sentence, bool attention) {
        if (sentence.isEmpty())
            answer({});
        else if (attention)
            answer(sentence);
        else
            say(sentence);
    };
    connect(van_, &VanView::said, this, tell);
    connect(today_, &TodayView::said, this, tell);
    connect(setup_, &WorkSetup::said, this, tell);
    connect(steps_, &SurfaceSteps::problem, this, &FitPage::answer);
    connect(van_, &VanView::settled, this, &FitPage::sayAll);
    connect(van_, &VanView::stepsWanted, this, [this](const std::string& surface) {
        document_.setCurrentSurface(surface);
        showView(ThisSurface);
    });
    connect(van_, &VanView::saveCalendar, this, [this] { saveWork(true); });
    connect(van_, &VanView::saveList, this, [this] { saveWork(false); });
    connect(van_, &VanView::printWeekend, this, &FitPage::printAhead);
}

void FitPage::showView(View view) {
    views_->setCurrentIndex(view);
    refresh();
}

void FitPage::sayAll() {
    const Surface* s = surface();
    bool attention = false;
    switch (static_cast<View>(views_->currentIndex())) {
    case ThisSurface:
        setHeading(s ? QString::fromStdString(s->name) : QString(), steps_->detail());
        return say(steps_->sentence());
    case Today: setHeading(tr("Today"), QString::fromStdString(document_.job().name)); return say(today_->sentence());
    case DaysAndRules:
    case WholeVan: break;
    }
    setHeading(QString::fromStdString(document_.job().name), tr("the work in time"));
    const QString effect = views_->currentIndex() == DaysAndRules ? setup_->effect() : QString();
    const QString sentence = van_->sentence(attention);
    say(effect.isEmpty() ? sentence : effect, attention);
}

void FitPage::refresh() {
    document_.askWork();
    const auto view = static_cast<View>(views_->currentIndex());
    for (int i = 0; i < 4; ++i) tabs_[static_cast<std::size_t>(i)]->setChecked(i == view);
    const Figures f = figures();
    QStringList rules;
    for (const WorkRule rule : {WorkRule::FloorBeforeWalls, WorkRule::CoatsBeforeFitting, WorkRule::CeilingBeforeWalls})
        rules << ruleText(rule, document_.job().work.way(rule));
    rules_->setText(rules.join(QStringLiteral(" · ")));
    switch (view) {
    case WholeVan: van_->show(f); break;
    case Today: today_->show(f); break;
    case ThisSurface: steps_->show(f); break;
    case DaysAndRules:
        van_->show(f);
        setup_->show(f);
        break;
    }
    sayAll();
}

void FitPage::saveWork(bool calendar) {
    const auto work = document_.work();
    if (!work || work->plan.problem.tasks.empty()) return say(tr("There is no plan to save yet."), true);
    const Job& job = document_.job();
    bool wrong = false;
    const QString name = QString::fromStdString(job.name) + (calendar ? tr("-work.ics") : tr("-work.csv"));
    const QString saved = askAndSave(
        calendar ? tr("The work as a calendar") : tr("The work as a list"), name,
        calendar ? tr("Calendars (*.ics)") : tr("Lists (*.csv)"),
        [&](const QString& path) {
            return saveBytes(path, calendar
                                       ? workAsCalendar(job, *document_.plan(), work->question, work->plan, figures())
                                       : workAsCsv(job, *document_.plan(), work->question, work->plan, figures()));
        },
        wrong);
    if (!saved.isEmpty()) say(saved, wrong);
}

void FitPage::printAhead() {
    const auto work = document_.work();
    if (!work || work->plan.problem.tasks.empty()) return say(tr("There is no plan to print yet."), true);
    bool wrong = false;
    const QString saved = askAndSave(
        tr("The days ahead on paper"), QString::fromStdString(document_.job().name) + tr("-days.pdf"),
        tr("PDF (*.pdf)"),
        [&](const QString& path) {
            return printWork(path, document_.job(), *document_.plan(), *work, document_.now(), figures());
        },
        wrong);
    if (!saved.isEmpty()) say(saved, wrong);
}

} // namespace westrum
