#include "app/stages/log/log_page.h"

#include "app/document/commands.h"
#include "app/drawing/theme.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/view_tabs.h"
#include "core/families/family.h"

#include <QGridLayout>
#include <QTimer>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

/// Takes a whole number, or nothing, into the log.
auto countInto(std::optional<int> FitLog::*member) {
    return [member](const QString& typed, FitLog& log) -> QString {
        if (typed.isEmpty()) {
            log.*member = std::nullopt;
            return {};
        }
        const auto n = parseNumber(typed.toStdString());
        if (!n) return sentence(n.error(), typed);
        if (n.value() < 0 || n.value() > 100000 || n.value() != std::floor(n.value()))
            return LogPage::tr("A whole number is wanted here.");
        log.*member = static_cast<int>(n.value());
        return {};
    };
}

} // namespace

LogPage::LogPage(JobDocument& document, Workshop& workshop, char decimalMark, QWidget* parent)
    : StagePage(document, decimalMark, parent),
      views_(new QStackedWidget),
      entries_(new EntriesView(document, workshop)),
      learned_(new LearnedView(document, workshop)),
      rack_(new RackView(document, workshop)),
      took_(new TookView(document, workshop)),
      workshop_(workshop),
      note_(new QPlainTextEdit) {
    addTabs();
    auto* figuresView = new QWidget;
    auto* figuresColumn = new QVBoxLayout(figuresView);
    figuresColumn->setContentsMargins(0, 0, 0, 0);
    views_->addWidget(entries_);
    views_->addWidget(learned_);
    views_->addWidget(rack_);
    views_->addWidget(took_);
    views_->addWidget(figuresView);
    column()->addWidget(views_, 1);
    const auto tell = [this](const QString& sentence, bool attention) {
        if (attention)
            answer(sentence);
        else
            say(sentence);
    };
    connect(entries_, &EntriesView::said, this, tell);
    connect(learned_, &LearnedView::said, this, tell);
    connect(rack_, &RackView::said, this, tell);
    connect(took_, &TookView::said, this, tell);
    connect(&document_, &JobDocument::cuttingChanged, this, [this] {
        if (views_->currentIndex() == Rack) figuresCameIn([this] { rack_->show(figures()); });
    });
    addFigures(figuresColumn);
}

/// What is typed of one surface, and its note.
void LogPage::addFigures(QVBoxLayout* figuresColumn) {
    auto* table = new QWidget;
    auto* grid = new QGridLayout(table);
    grid->setContentsMargins(0, 8, 0, 8);
    grid->setHorizontalSpacing(24);
    grid->setVerticalSpacing(8);
    int place = 0;
    for (const QString& head : {QString(), tr("really"), tr("planned"), QString()}) {
        auto* label = new QLabel(head);
        label->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().muted)));
        grid->addWidget(label, 0, place++);
    }
    opened_ = addLine(grid, tr("Planks opened"), QStringLiteral("opened"), countInto(&FitLog::opened));
    spoilt_ = addLine(grid, tr("of these, spoilt"), QStringLiteral("spoilt"), countInto(&FitLog::spoilt));
    leftOver_ = addLine(grid, tr("Whole planks left over"), QStringLiteral("leftOver"), countInto(&FitLog::leftOver));
    hours_ = addLine(grid, tr("Hours"), QStringLiteral("hours"), [](const QString& typed, FitLog& log) -> QString {
        if (typed.isEmpty()) {
            log.hours = std::nullopt;
            return {};
        }
        const auto n = parseNumber(typed.toStdString());
        if (!n) return sentence(n.error(), typed);
        if (n.value() < 0 || n.value() > 100000) return LogPage::tr("Hours cannot be less than nothing, or that many.");
        log.hours = n.value();
        return {};
    });
    paid_ = addLine(grid, tr("Paid"), QStringLiteral("paid"), [this](const QString& typed, FitLog& log) -> QString {
        if (typed.isEmpty()) {
            log.paid = std::nullopt;
            return {};
        }
        const auto money = parseMoney(typed.toStdString(), document_.job().currency);
        if (!money) return sentence(money.error(), typed);
        log.paid = money.value();
        return {};
    });
    grid->setColumnStretch(3, 1);
    figuresColumn->addWidget(table);
    auto* noteLabel = new QLabel(tr("Notes: supplier, lot, temperature, what to do differently"));
    noteLabel->setBuddy(note_);
    figuresColumn->addWidget(noteLabel);
    note_->setTabChangesFocus(true);
    note_->setAccessibleName(noteLabel->text());
    note_->setObjectName(QStringLiteral("note"));
    figuresColumn->addWidget(note_, 1);
    // Each pause in writing is one undo step.
    auto* pause = new QTimer(this);
    pause->setSingleShot(true);
    pause->setInterval(800);
    connect(note_, &QPlainTextEdit::textChanged, this, [this, pause] {
        if (note_->hasFocus()) pause->start();
    });
    connect(pause, &QTimer::timeout, this, [this] {
        FitLog log = document_.job().log(surfaceId());
        log.note = note_->toPlainText().toStdString();
        push(document_, writeLog(document_, surfaceId(), std::move(log)));
    });
}

void LogPage::addTabs() {
    auto* tabs = new FlowRow;
    tabs->setContentsMargins(0, 0, 0, 0);
    addViewTabs(tabs,
                {{tr("What happened"), "logEntries"},
                 {tr("Planned and really"), "logLearned"},
                 {tr("The rack"), "logRack"},
                 {tr("What it took"), "logTook"},
                 {tr("This surface"), "logSurface"}},
                tabs_, [this](int view) { showView(static_cast<View>(view)); });
    column()->addLayout(tabs);
}

LogPage::Line LogPage::addLine(QGridLayout* grid, const QString& name, const QString& objectName,
                               std::function<QString(const QString&, FitLog&)> take) {
    const int row = grid->rowCount();
    Line line{new EntryField([this, take = std::move(take)](const QString& typed) -> QString {
                  FitLog log = document_.job().log(surfaceId());
                  const QString why = take(typed, log);
                  if (why.isEmpty()) push(document_, writeLog(document_, surfaceId(), std::move(log)));
                  return why;
              }),
              new QLabel, new QLabel};
    line.entry->setObjectName(objectName);
    line.entry->setAccessibleName(name);
    line.entry->setAlignment(Qt::AlignRight);
    line.entry->setFixedWidth(140);
    auto* label = new QLabel(name);
    line.name = label;
    label->setBuddy(line.entry);
    grid->addWidget(label, row, 0);
    grid->addWidget(line.entry, row, 1);
    grid->addWidget(line.planned, row, 2);
    grid->addWidget(line.verdict, row, 3);
    connect(line.entry, &EntryField::problemChanged, this, [verdict = line.verdict](const QString& sentence) {
        verdict->setText(sentence);
        verdict->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().pencil)));
    });
    return line;
}

/// Units are what the finish is made of. Boards and sheets are cut together with what other surfaces need of them: what
/// one surface takes is about what it was set out with.
void LogPage::nameUnits(CountedAs counted) {
    const bool boards = counted == CountedAs::Boards, sheets = counted == CountedAs::Sheets,
               tiles = counted == CountedAs::Tiles, roll = counted == CountedAs::MetresOfRoll;
    opened_.name->setText(boards   ? tr("Boards opened")
                          : sheets ? tr("Sheets opened")
                          : tiles  ? tr("Tiles opened")
                          : roll   ? tr("Metres cut off the roll")
                                   : tr("Planks opened"));
    leftOver_.name->setText(boards   ? tr("Whole boards left over")
                            : sheets ? tr("Whole sheets left over")
                            : tiles  ? tr("Whole tiles left over")
                            : roll   ? tr("Metres left over")
                                     : tr("Whole planks left over"));
}

void LogPage::sayWhatTheyMake(const FitLog& log, const Purchase* bought) {
    if (!bought)
        say(tr("Write down what it takes as you go; the plan stands beside it once the floor is set out."));
    else if (log.opened && log.spoilt && log.leftOver &&
             *log.opened + *log.leftOver != bought->packs * bought->unitsPerPack)
        say(tr("Opened and left over make %1; %2 hold %3.")
                .arg(*log.opened + *log.leftOver)
                .arg(packsText(*bought), itemsText(bought->family, bought->packs * bought->unitsPerPack)));
    else
        say(tr("Write down what it took: the next plan is the better for it."));
}

void LogPage::showView(View view) {
    views_->setCurrentIndex(view);
    refresh();
}

void LogPage::refresh() {
    const auto view = static_cast<View>(views_->currentIndex());
    for (int i = 0; i < 5; ++i) tabs_[static_cast<std::size_t>(i)]->setChecked(i == view);
    shadeMap();
    if (view == Surface) return refreshSurface();
    const Job& job = document_.job();
    setHeading(QString::fromStdString(job.name), tr("what really happened"));
    if (view == Entries) {
        entries_->show(figures());
        say(job.record.empty()
                ? tr("Ticks in Buy, Cut and Fit write themselves down here; what else happens is written below.")
                : tr("%n thing(s) written down.", nullptr, static_cast<int>(job.record.size())));
        return;
    }
    if (view == Rack) {
        setHeading(tr("The rack"), tr("what earlier jobs left"));
        rack_->show(figures());
        const auto free = std::count_if(workshop_.book().rack.begin(), workshop_.book().rack.end(),
                                        [](const RackPiece& p) { return p.state == RackPiece::State::Free; });
        return say(tr("%n offcut(s) are free: plans of this job cut from those that you take for it first.", nullptr,
                      static_cast<int>(free)));
    }
    if (view == Took) {
        took_->show(figures());
        return say(tr("All of it, as planned and as it was; bars show how far it is."));
    }
    learned_->show(figures());
    const auto offers = static_cast<int>(learned_->offers().size());
    say(offers > 0 ? tr("%n rate(s) to look at: the next plan is the better for each.", nullptr, offers)
                   : tr("Write down what it takes as you go: rates are offered once they differ from the plan."));
}

void LogPage::refreshSurface() {
    const westrum::Surface* s = surface();
    if (!s) return;
    const Figures f = figures();
    const FitLog& log = document_.job().log(surfaceId());
    const SurfacePlan* plan = surfacePlan();
    setHeading(QString::fromStdString(s->name), tr("what it really took"));
    // The finish counts; what lies below it is no unit that one opens and counts.
    const LayerPlan* face = plan ? plan->faceLayer() : nullptr;
    const Purchase* bought = face && face->purchase ? &*face->purchase : nullptr;
    // What was bought for this surface: the van's total holds what is cut for others as well.
    std::optional<Money> cost;
    if (bought) {
        // Nothing with a layer that has no price, or one that is bought with what others need.
        std::vector<std::optional<Money>> costs;
        for (const LayerPlan& l : plan->layers) costs.push_back(l.purchase ? l.purchase->cost : std::nullopt);
        cost = sumOf(costs, document_.job().currency);
    }
    const auto show = [&](Line& line, const QString& value, const QString& planned, const QString& verdict) {
        line.entry->setFigure(value, {});
        line.planned->setText(planned.isEmpty() ? QStringLiteral("–") : planned);
        if (!line.entry->isWrong()) {
            line.verdict->setText(verdict);
            line.verdict->setStyleSheet({});
        }
    };
    const auto count = [&](const std::optional<int>& n) { return n ? QString::number(*n) : QString(); };
    const auto compare = [&](const std::optional<int>& really, int planned) -> QString {
        if (!really || !bought) return {};
        const int more = *really - planned;
        if (more == 0) return tr("as planned");
        return more > 0 ? tr("%1 more than planned").arg(more) : tr("%1 fewer than planned").arg(-more);
    };
    int cut = 0;
    if (face)
        for (const StockUnit& u : face->setOut.stock) cut += !u.cuts.empty();
    const int spoils = static_cast<int>(std::lround(cut * document_.job().spoilChance));
    const ProductFamily* family = face ? productFamily(face->family) : nullptr;
    const CountedAs counted = family ? family->counted : CountedAs::Planks;
    nameUnits(counted);
    const bool roll = counted == CountedAs::MetresOfRoll;
    // A set-out reckons what it takes off a roll in centimetres.
    const QString about = !face || !face->setOut.laid() || bought ? QString()
                          : roll ? tr("about %1").arg(f.run(Mm{face->setOut.figures.stock * 10.0}, 1))
                                 : tr("about %1").arg(face->setOut.figures.stock);
    show(opened_, count(log.opened), bought ? QString::number(bought->unitsNeeded) : about,
         bought ? compare(log.opened, bought->unitsNeeded) : QString());
    show(spoilt_, count(log.spoilt), bought ? tr("about %1").arg(spoils) : QString(), {});
    show(leftOver_, count(log.leftOver), bought ? QString::number(bought->unitsLeft()) : QString(),
         bought ? compare(log.leftOver, bought->unitsLeft()) : QString());
    show(hours_, log.hours ? f.number(*log.hours, 2) : QString(), {}, {});
    QString money;
    if (log.paid && cost && log.paid->currency == cost->currency) {
        const Money more = *log.paid - *cost;
        money = more.minor == 0  ? tr("as planned")
                : more.minor > 0 ? tr("%1 more than planned").arg(f.money(more))
                                 : tr("%1 less than planned").arg(f.money({-more.minor, more.currency}));
    }
    show(paid_, log.paid ? f.money(*log.paid) : QString(), cost ? f.money(*cost) : QString(), money);
    if (!note_->hasFocus() || note_->toPlainText().isEmpty()) note_->setPlainText(QString::fromStdString(log.note));
    sayWhatTheyMake(log, bought);
}

/// How far each surface is, by its steps; spoils are told with it.
void LogPage::shadeMap() {
    constexpr double kLight = 0.4; // what is shaded stays readable
    std::vector<ShellMap::Shade> shades;
    for (const Took::OfSurface& of : tookOf(document_.job(), *document_.plan()).surfaces)
        if (of.done > 0)
            shades.push_back({of.surface, kLight * of.done / of.steps,
                              of.spoilt > 0 ? tr("%1 of %2, %n spoilt", nullptr, of.spoilt).arg(of.done).arg(of.steps)
                                            : tr("%1 of %2").arg(of.done).arg(of.steps)});
    emit shaded(shades);
}

} // namespace westrum
