#include "app/stages/fit/van_view.h"

#include "app/document/work_commands.h"
#include "app/drawing/theme.h"
#include "app/widgets/flow_row.h"
#include "formats/work_words.h"

#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>

namespace westrum {
namespace {

constexpr int kRunsWhileDragging = 30; ///< of the chance: within a frame

/// What the patterns mean.
class Legend : public QWidget {
public:
    Legend() { setFixedHeight(20); }

protected:
    void paintEvent(QPaintEvent*) override {
        const Theme& t = Theme::now();
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        p.setFont(textFont(0.85));
        double x = 2;
        const auto entry = [&](const QString& text, const auto& paint) {
            const double wants = QFontMetricsF(p.font()).horizontalAdvance(text);
            if (x + 26 + wants > width()) return;
            const QRectF box(x, 4, 20, 12);
            p.save();
            paint(box);
            p.restore();
            p.setPen(t.muted);
            p.drawText(QRectF(x + 25, 0, wants + 4, 20), Qt::AlignVCenter, text);
            x += wants + 44;
        };
        for (const WorkPlace place : {WorkPlace::Van, WorkPlace::Yard, WorkPlace::Workshop, WorkPlace::Shop})
            entry(placeText(place), [&](const QRectF& box) { paintWorkFill(p, box, place, false); });
        entry(VanView::tr("sets by itself"), [&](const QRectF& box) { paintWaitFill(p, box); });
        entry(VanView::tr("covers for good, with what must be in"), [&](const QRectF& box) {
            p.setPen(QPen(t.pencil, 2));
            p.drawLine(QPointF(box.left() + 4, 1), QPointF(box.left() + 4, 18));
            p.setPen(QPen(t.pencil, 1.4));
            p.drawEllipse(QRectF(box.left() + 8, 7, 6, 6));
        });
        entry(VanView::tr("likely wet"), [&](const QRectF& box) { paintRain(p, box.adjusted(0, -4, 0, 4)); });
    }
};

} // namespace

VanView::VanView(JobDocument& document, QWidget* parent)
    : QWidget(parent),
      document_(document),
      strip_(new WorkStrip),
      curve_(new ChanceCurve),
      legend_(new Legend),
      hand_(new QLabel),
      late_(new QLabel),
      done_(new QPushButton(tr("Done now"))),
      letMove_(new QPushButton(tr("Let it move"))),
      steps_(new QPushButton(tr("Its steps"))) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    column->addWidget(strip_, 1);
    column->addWidget(legend_);
    auto* handRow = new QHBoxLayout;
    hand_->setTextFormat(Qt::PlainText);
    hand_->setWordWrap(true);
    hand_->setObjectName(QStringLiteral("workInHand"));
    handRow->addWidget(hand_, 1);
    for (QPushButton* button : {done_, letMove_, steps_}) handRow->addWidget(button);
    done_->setObjectName(QStringLiteral("workDone"));
    letMove_->setObjectName(QStringLiteral("letMove"));
    steps_->setObjectName(QStringLiteral("itsSteps"));
    column->addLayout(handRow);
    auto* title = new QHBoxLayout;
    auto* name = new QLabel(tr("When it is done"));
    name->setFont(textFont(1.0, true));
    title->addWidget(name);
    auto* hint = new QLabel(tr("drag to the date you need"));
    curve_->setToolTip(tr("%1 runs with slips and the weather of those weeks").arg(kWorkRuns));
    hint->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().muted)));
    hint->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    title->addWidget(hint, 1);
    addZoom(title);
    for (const auto& [text, id, signal] : {std::tuple{tr("Calendar file…"), "saveCalendar", &VanView::saveCalendar},
                                           {tr("List…"), "saveWorkList", &VanView::saveList},
                                           {tr("Print the days ahead…"), "printWeekend", &VanView::printWeekend}}) {
        auto* button = new QPushButton(text);
        button->setObjectName(QString::fromLatin1(id));
        connect(button, &QPushButton::clicked, this, signal);
        title->addWidget(button);
    }
    column->addLayout(title);
    column->addWidget(curve_);
    late_->setTextFormat(Qt::PlainText);
    late_->setWordWrap(true);
    late_->setObjectName(QStringLiteral("lateMost"));
    column->addWidget(late_);
    connect(strip_, &WorkStrip::handChanged, this, [this] {
        showHand();
        emit settled();
    });
    connect(strip_, &WorkStrip::dragged, this, &VanView::drag);
    connect(strip_, &WorkStrip::dropped, this, &VanView::drop);
    connect(strip_, &WorkStrip::dragGivenUp, this, [this] {
        strip_->preview(nullptr);
        emit settled();
    });
    connect(strip_, &WorkStrip::surfacePicked, this,
            [this](const std::string& id) { document_.setCurrentSurface(id); });
    connect(strip_, &WorkStrip::checkPressed, this, [this](const StepRef& check) {
        const bool done = document_.job().log(check.surface).done.contains(check.key);
        push(document_, tickStep(document_, check.surface, check.key, !done));
    });
    connect(curve_, &ChanceCurve::chosen, this,
            [this](double chance) { push(document_, acceptChance(document_, chance)); });
    connect(done_, &QPushButton::clicked, this, &VanView::tickHand);
    connect(letMove_, &QPushButton::clicked, this, [this] {
        if (const WorkItem* w = inHand()) push(document_, pinWork(document_, w->id, std::nullopt));
    });
    connect(steps_, &QPushButton::clicked, this, [this] {
        const WorkItem* w = inHand();
        if (w && !w->steps.empty()) emit stepsWanted(w->steps.front().surface);
    });
}

void VanView::addZoom(QHBoxLayout* row) {
    for (const auto& [text, id, name, factor] :
         {std::tuple{QStringLiteral("−"), "stripNarrower", tr("More days in sight"), 1 / 1.4},
          {QStringLiteral("+"), "stripWider", tr("Fewer days, larger"), 1.4}}) {
        auto* button = new QPushButton(text);
        button->setObjectName(QString::fromLatin1(id));
        button->setAccessibleName(name);
        button->setToolTip(name);
        button->setFixedWidth(44);
        connect(button, &QPushButton::clicked, strip_, [this, by = factor] { strip_->zoomBy(by); });
        row->addWidget(button);
    }
}

void VanView::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    // Where there is little room the strip goes before the curve's explanations.
    late_->setVisible(height() > 420 && !late_->text().isEmpty());
}

const WorkItem* VanView::inHand() const {
    const auto work = document_.work();
    const int i = strip_->inHand();
    return work && i >= 0 && i < static_cast<int>(work->question.net.items.size())
               ? &work->question.net.items[static_cast<std::size_t>(i)]
               : nullptr;
}

QString VanView::titleOf(int item) const {
    const auto work = document_.work();
    return workTitle(document_.job(), *document_.plan(), work->question.net.items[static_cast<std::size_t>(item)],
                     figures_);
}

void VanView::show(const Figures& figures) {
    figures_ = figures;
    const auto work = document_.work();
    const bool other = shownSurface_ != document_.currentSurface();
    shownSurface_ = document_.currentSurface();
    strip_->show(document_.job(), document_.plan(), work, document_.currentSurface(), figures);
    if (other) strip_->revealRow(document_.currentSurface());
    curve_->show(work, document_.job().work.acceptedChance, figures);
    QStringList late;
    if (work && work->chance)
        for (const WorkDelay& d : work->chance->delays) {
            if (late.size() == 3) break;
            late << delayText(titleOf(work->plan.items[static_cast<std::size_t>(d.task)]), d.by, d.share, figures);
        }
    late_->setText(late.isEmpty() ? QString() : tr("Late most often: %1.").arg(late.join(QStringLiteral(", "))));
    late_->setVisible(height() > 420 && !late.isEmpty());
    showHand();
}

void VanView::showHand() {
    const WorkItem* w = inHand();
    const bool mine = w && (!w->steps.empty() || w->kind == WorkKind::Trip || w->kind == WorkKind::Delivery ||
                            w->kind == WorkKind::Protect || w->kind == WorkKind::Weigh || w->kind == WorkKind::Tidy);
    done_->setVisible(mine);
    done_->setText(w && w->left <= 0 ? tr("Not done after all") : tr("Done now"));
    letMove_->setVisible(w && document_.job().work.pins.contains(w->id));
    steps_->setVisible(w && !w->steps.empty());
    if (!w) {
        hand_->setText(tr(
            "Press a piece of work for what it takes; drag it to another day. Ctrl and the wheel: nearer, farther."));
        return;
    }
    const auto work = document_.work();
    const int i = strip_->inHand();
    QStringList facts{titleOf(i)};
    const auto& parts = work->plan.parts(i);
    if (!parts.empty()) {
        const WorkClock::Moment from = work->plan.clock.moment(parts.front().start),
                                to = work->plan.clock.moment(parts.back().end);
        facts << (from.day == to.day
                      ? tr("%1, %2 to %3").arg(dayText(from.day), clockText(from.minute), clockText(to.minute))
                      : tr("%1 to %2, in %n part(s)", nullptr, static_cast<int>(parts.size()))
                            .arg(dayText(from.day), dayText(to.day)));
    }
    if (w->left > 0)
        facts << (w->needs.hands > 1 ? tr("%1 with two, %2").arg(durationText(w->left), placeText(w->place))
                                     : tr("%1, %2").arg(durationText(w->left), placeText(w->place)));
    if (w->wait > 0) facts << tr("sets for %1 after").arg(durationText(w->wait));
    if (const auto fault = work->plan.fault(i)) facts = {faultText(*fault, titleOf(i))};
    hand_->setText(facts.join(QStringLiteral("  ·  ")));
}

void VanView::tickHand() {
    const WorkItem* w = inHand();
    if (!w) return;
    const bool done = w->left > 0;
    const WorkedTime when = workedUntilNow(document_, w->left);
    if (w->steps.empty()) return push(document_, tickWork(document_, w->id, done ? std::optional(when) : std::nullopt));
    std::vector<StepRef> steps;
    for (const StepRef& ref : w->steps)
        if (document_.job().log(ref.surface).done.contains(ref.key) != done) steps.push_back(ref);
    push(document_, tickWorkSteps(document_, steps, done, when));
}

/// The rest is planned round it in the same gesture.
void VanView::drag(int item, const CivilDate& day) {
    const auto work = document_.work();
    if (!work || item >= static_cast<int>(work->question.net.items.size())) return;
    auto tried = std::make_shared<WorkAnswer>(*work);
    tried->question.settings.pins[work->question.net.items[static_cast<std::size_t>(item)].id] = day;
    tried->plan = planNear(tried->question, work->plan);
    tried->chance.reset();
    const auto end = tried->plan.done();
    if (tried->plan.parts(item).empty() || !end) {
        strip_->preview(nullptr);
        const auto trouble = pinTrouble(work->question, work->plan, item, day);
        emit said(
            trouble ? troubleText(*trouble, titleOf(item), trouble->item < 0 ? QString() : titleOf(trouble->item), day)
                    : tr("Not on %1.").arg(dayText(day)),
            true);
        return;
    }
    const WorkChance chance = chanceOfVan(tried->question, tried->plan, kRunsWhileDragging);
    const auto before = work->plan.done();
    const CivilDate sure = tried->plan.clock.moment(chance.at(document_.job().work.acceptedChance) - 1).day;
    strip_->preview(tried);
    const int later = before ? dayNumber(*end) - dayNumber(*before) : 0;
    emit said(later == 0 ? tr("On %1: all is done by the same day, %2; about %3 to be fairly sure.")
                               .arg(dayText(day), dayText(*end), dayText(sure))
                         : tr("On %1: all is done by %2, %3; about %4 to be fairly sure.")
                               .arg(dayText(day), dayText(*end),
                                    later > 0 ? tr("%n day(s) later", nullptr, later)
                                              : tr("%n day(s) sooner", nullptr, -later),
                                    dayText(sure)),
              false);
}

void VanView::drop(int item, const CivilDate& day) {
    const auto work = document_.work();
    strip_->preview(nullptr);
    if (!work || item >= static_cast<int>(work->question.net.items.size())) return;
    if (const auto trouble = pinTrouble(work->question, work->plan, item, day)) {
        emit said(troubleText(*trouble, titleOf(item), trouble->item < 0 ? QString() : titleOf(trouble->item), day),
                  true);
        return;
    }
    push(document_, pinWork(document_, work->question.net.items[static_cast<std::size_t>(item)].id, day));
}

QString VanView::sentence(bool& attention) const {
    const auto work = document_.work();
    attention = false;
    if (!work) return tr("Planning the work…");
    const auto& items = work->question.net.items;
    if (std::all_of(items.begin(), items.end(), [](const WorkItem& w) { return w.kind == WorkKind::Gate; }))
        return tr("There is nothing to plan yet: measure a surface and give it a finish. What is ticked stays ticked.");
    const WorkSchedule& s = work->plan.schedule;
    if (!s.unplaced.empty()) {
        attention = true;
        const WorkUnplaced& u = s.unplaced.front();
        const QString why = faultText(u.fault, titleOf(work->plan.items[static_cast<std::size_t>(u.task)]));
        const int others = static_cast<int>(s.unplaced.size()) - 1;
        return others > 0 ? tr("%1 %n more thing(s) have no place for it.", nullptr, others).arg(why) : why;
    }
    double left = 0;
    for (const WorkItem& w : work->question.net.items) left += w.left;
    if (left <= 0) return tr("All of it is done. What it took stands in Log.");
    const CivilDate end = *work->plan.done();
    QString text = tr("%1 of work to go; as planned it is done on %2.").arg(durationText(left), dayText(end));
    if (const auto sure = curve_->marked(); sure && work->chance)
        text += QLatin1Char(' ') +
                tr("With slips and weather: by %1 in %2 of runs.")
                    .arg(dayText(*sure), figures_.percent(work->chance->by(work->plan.clock.at(*sure + 1, 0))));
    else
        text += QLatin1Char(' ') + tr("Still looking for a plan that ends sooner…");
    return text;
}

} // namespace westrum
