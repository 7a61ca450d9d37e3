#include "app/stages/fit/today_view.h"

#include "app/document/work_commands.h"
#include "app/drawing/theme.h"
#include "app/widgets/caution_line.h"
#include "app/widgets/flow_row.h"
#include "devices/climate.h"
#include "formats/work_words.h"

#include <QRegularExpression>
#include <QVBoxLayout>

#include <algorithm>

namespace westrum {

TodayView::TodayView(JobDocument& document, QWidget* parent)
    : QWidget(parent),
      document_(document),
      scroll_(new QScrollArea),
      people_(new EntryField([this](const QString& typed) { return takePeople(typed); })),
      until_(new EntryField([this](const QString& typed) { return takeUntil(typed); })),
      inside_(new EntryField([this](const QString& typed) { return takeInside(typed); })),
      rain_(new QPushButton),
      read_(new QPushButton(tr("Read the thermometer"))),
      climate_(new QLabel) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto* row = new FlowRow;
    row->setContentsMargins(0, 0, 0, 0);
    const auto field = [&](EntryField* entry, const char* id, const QString& name, int width) {
        entry->setObjectName(QString::fromLatin1(id));
        entry->setAccessibleName(name);
        entry->setFixedWidth(width);
        connect(entry, &EntryField::problemChanged, this,
                [this](const QString& why) { emit said(why.isEmpty() ? sentence() : why, !why.isEmpty()); });
        row->addWidget(entry);
    };
    row->addWidget(new QLabel(tr("People here")));
    field(people_, "todayPeople", tr("People here"), 48);
    row->addWidget(new QLabel(tr("until")));
    field(until_, "todayUntil", tr("When work ends today"), 64);
    rain_->setObjectName(QStringLiteral("todayRain"));
    connect(rain_, &QPushButton::clicked, this, [this] {
        wet_ = today_.dry;
        show(figures_);
        emit said(sentence(), false);
    });
    row->addWidget(rain_);
    row->addWidget(new QLabel(tr("In the van, °C")));
    field(inside_, "todayInside", tr("Temperature in the van"), 56);
    read_->setObjectName(QStringLiteral("readThermometer"));
    connect(read_, &QPushButton::clicked, this, &TodayView::readThermometer);
    row->addWidget(read_);
    auto* bar = new QWidget;
    bar->setLayout(row);
    column->addWidget(bar);
    climate_->setObjectName(QStringLiteral("climate"));
    climate_->setWordWrap(true);
    column->addWidget(climate_);
    scroll_->setWidgetResizable(true);
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(scroll_, 1);
}

QString TodayView::takePeople(const QString& typed) {
    const auto n = parseNumber(typed.trimmed().toStdString());
    if (!typed.trimmed().isEmpty() &&
        (!n || n.value() < 1 || n.value() > 20 || n.value() != static_cast<int>(n.value())))
        return tr("From 1 to 20 people, in whole ones.");
    peopleHere_ = typed.trimmed().isEmpty() ? std::nullopt : std::optional(static_cast<int>(n.value()));
    show(figures_);
    return {};
}

QString TodayView::takeUntil(const QString& typed) {
    if (typed.trimmed().isEmpty()) {
        untilMinute_.reset();
        show(figures_);
        return {};
    }
    static const QRegularExpression kClock(QStringLiteral("^\\s*(\\d{1,2})(?:[:.h](\\d{2}))?\\s*$"));
    const QRegularExpressionMatch m = kClock.match(typed);
    const int minute = m.hasMatch() ? m.captured(1).toInt() * 60 + m.captured(2).toInt() : -1;
    if (minute < 0 || minute > 24 * 60 || m.captured(2).toInt() > 59) return tr("A time of the day, such as 16:30.");
    if (minute <= today_.now.minute) return tr("It is later than that already.");
    untilMinute_ = minute;
    show(figures_);
    return {};
}

QString TodayView::takeInside(const QString& typed) {
    const auto n = parseNumber(typed.trimmed().toStdString());
    if (!typed.trimmed().isEmpty() && (!n || n.value() < -40 || n.value() > 70))
        return tr("A temperature in °C, from -40 to 70.");
    insideC_ = typed.trimmed().isEmpty() ? std::nullopt : std::optional(n.value());
    humidity_.reset();
    show(figures_);
    return {};
}

void TodayView::readThermometer() {
    // The instrument that stands in: near what the day is likely to give.
    const WorkSite& site = document_.job().work.site;
    SimulatedThermoHygrometer instrument(document_.job().seed + static_cast<std::uint64_t>(++readings_),
                                         site.heated ? kHeatedC : today_.outsideC + 2, 60);
    const auto reading = readClimate(instrument.read());
    if (const auto* fault = std::get_if<ClimateFault>(&reading)) {
        emit said(*fault == ClimateFault::Silent     ? tr("The thermometer says nothing.")
                  : *fault == ClimateFault::Nonsense ? tr("What the thermometer says cannot be read.")
                                                     : tr("The thermometer shows what cannot be."),
                  true);
        return;
    }
    insideC_ = std::get<ClimateReading>(reading).degC;
    humidity_ = std::get<ClimateReading>(reading).humidity;
    show(figures_);
}

QString TodayView::titleOf(int item) const {
    const auto work = document_.work();
    return workTitle(document_.job(), *document_.plan(), work->question.net.items[static_cast<std::size_t>(item)],
                     figures_);
}

void TodayView::show(const Figures& figures) {
    figures_ = figures;
    const auto work = document_.work();
    const WorkClock::Moment now = document_.now();
    if (saidOn_ != now.day) { // yesterday's weather is over
        peopleHere_.reset();
        untilMinute_.reset();
        wet_.reset();
        insideC_.reset();
        humidity_.reset();
        saidOn_ = now.day;
    }
    today_ = expectedToday(document_.job().work, now);
    if (peopleHere_) today_.people = *peopleHere_;
    if (untilMinute_ && *untilMinute_ > today_.now.minute) today_.until = *untilMinute_;
    if (wet_) today_.dry = !*wet_;
    today_.insideC = insideC_;
    plan_ = work ? todayOf(work->question, work->plan, today_) : TodayPlan{};
    people_->setFigure(QString::number(today_.people), QString::number(today_.people));
    until_->setFigure(clockText(today_.until), clockText(today_.until));
    const QString inside = insideC_ ? figures_.number(*insideC_, 1) : QString();
    inside_->setFigure(inside, inside);
    rain_->setText(today_.dry ? tr("It is dry") : tr("It is wet"));
    rain_->setToolTip(tr("Press it if it is the other way round."));
    rebuild();
}

QString TodayView::layOut() const {
    const auto work = document_.work();
    QStringList all;
    for (const TodayWork& w : plan_.work)
        for (const QString& tool : toolsText(work->question.net.items[static_cast<std::size_t>(w.item)]))
            if (!all.contains(tool)) all << tool;
    // And what is used: the products of the steps.
    for (const TodayWork& w : plan_.work)
        for (const StepRef& ref : work->question.net.items[static_cast<std::size_t>(w.item)].steps) {
            const FitStep* step = stepOf(*document_.plan(), ref);
            if (!step || step->layer < 0 || step->effort.prepares) continue;
            const auto& layers = document_.plan()->surface(ref.surface)->layers;
            const Product* p = document_.job().catalogue.find(layers[static_cast<std::size_t>(step->layer)].product);
            if (p && !all.contains(QString::fromStdString(p->name))) all << QString::fromStdString(p->name);
        }
    return all.join(QStringLiteral(", "));
}

void TodayView::addWork(QVBoxLayout* column, std::size_t place) {
    const auto work = document_.work();
    const TodayWork& w = plan_.work[place];
    const WorkItem& item = work->question.net.items[static_cast<std::size_t>(w.item)];
    const Theme& t = Theme::now();
    auto* row = new QHBoxLayout;
    auto* time = new QLabel(tr("%1 to %2").arg(clockText(w.from), clockText(w.to)));
    time->setFixedWidth(112);
    time->setStyleSheet(QStringLiteral("color: %1;").arg(css(t.muted)));
    row->addWidget(time, 0, Qt::AlignTop);
    auto* box = new QVBoxLayout;
    box->setSpacing(1);
    auto* tick = new QCheckBox(titleOf(w.item));
    tick->setFont(textFont(1.08, true));
    tick->setObjectName(QStringLiteral("today-") + QString::fromStdString(item.id));
    const std::string id = item.id;
    connect(tick, &QCheckBox::clicked, this, [this, id] {
        const auto now = document_.work();
        const int i = now ? now->question.net.find(id) : -1;
        if (i < 0) return;
        const WorkItem& done = now->question.net.items[static_cast<std::size_t>(i)];
        const WorkedTime when = workedUntilNow(document_, done.left);
        push(document_,
             done.steps.empty() ? tickWork(document_, id, when) : tickWorkSteps(document_, done.steps, true, when));
    });
    box->addWidget(tick);
    QStringList facts{item.needs.hands > 1 ? tr("two pairs of hands") : tr("one pair of hands"), placeText(item.place)};
    if (!w.whole) facts << tr("as far as the day goes; the rest another day");
    if (item.wait > 0) facts << tr("sets for %1 after").arg(durationText(item.wait));
    auto* line = new QLabel(facts.join(QStringLiteral("  ·  ")));
    line->setWordWrap(true);
    line->setContentsMargins(28, 0, 0, 0);
    line->setStyleSheet(QStringLiteral("color: %1;").arg(css(t.muted)));
    box->addWidget(line);
    if (item.needs.opens && insideC_)
        if (const auto why = mayOpen(item.needs, *insideC_, humidity_)) {
            auto* no = new QLabel(*why == OpenFault::TooCold   ? tr("Do not open it: too cold in the van.")
                                  : *why == OpenFault::TooWarm ? tr("Do not open it: too warm in the van.")
                                                               : tr("Do not open it: the air is too damp."));
            no->setContentsMargins(28, 0, 0, 0);
            no->setStyleSheet(QStringLiteral("color: %1;").arg(css(t.pencil)));
            box->addWidget(no);
        }
    std::optional<Caution> caution;
    for (const StepRef& ref : item.steps)
        if (const FitStep* step = stepOf(*document_.plan(), ref); step && step->caution && !caution)
            caution = step->caution;
    if (caution) box->addLayout(cautionLine(cautionText(*caution)));
    row->addLayout(box, 1);
    column->addLayout(row);
    column->addSpacing(8);
}

void TodayView::rebuild() {
    const Theme& t = Theme::now();
    auto* list = new QWidget;
    auto* column = new QVBoxLayout(list);
    column->setContentsMargins(0, 6, 12, 6);
    const auto heading = [&](const QString& text) {
        auto* label = new QLabel(text);
        label->setFont(textFont(1.0, true));
        label->setStyleSheet(QStringLiteral("color: %1;").arg(css(t.chalk)));
        column->addWidget(label);
    };
    const auto line = [&](const QString& text) {
        auto* label = new QLabel(text);
        label->setWordWrap(true);
        label->setTextFormat(Qt::PlainText);
        column->addWidget(label);
        column->addSpacing(8);
    };
    if (insideC_) {
        climate_->setText(humidity_ ? tr("%1 °C and %2 % in the air of the van (simulated instrument).")
                                          .arg(figures_.number(*insideC_, 1), figures_.number(*humidity_, 0))
                                    : tr("%1 °C in the van.").arg(figures_.number(*insideC_, 1)));
    }
    climate_->setVisible(insideC_.has_value());
    if (!plan_.work.empty()) {
        if (const QString tools = layOut(); !tools.isEmpty()) {
            heading(tr("Lay out"));
            line(tools);
        }
        heading(tr("In this order"));
        for (std::size_t i = 0; i < plan_.work.size(); ++i) {
            if (static_cast<int>(i) == plan_.last) heading(tr("Begin this last: it sets overnight"));
            addWork(column, i);
        }
    }
    if (const auto work = document_.work(); work && today_.dry) {
        TodayIs wet = today_;
        wet.dry = false;
        const TodayPlan other = todayOf(work->question, work->plan, wet);
        QStringList names;
        for (const TodayWork& w : other.work) names << titleOf(w.item);
        if (!names.isEmpty()) {
            heading(tr("Should it rain"));
            line(names.mid(0, 8).join(QStringLiteral("; ")));
        }
    }
    if (!plan_.cannot.empty()) {
        heading(tr("Due, and kept from being done by this day"));
        QStringList names;
        for (const int item : plan_.cannot) names << titleOf(item);
        line(names.mid(0, 8).join(QStringLiteral("; ")));
    }
    column->addStretch(1);
    scroll_->setWidget(list);
}

QString TodayView::sentence() const {
    const auto work = document_.work();
    if (!work) return tr("Planning the work…");
    const CivilDate today = document_.now().day;
    if (const auto start = document_.job().work.start; start && *start > today)
        return tr("Work begins on %1; today, %2, is before that. What could be done already stands below.")
            .arg(dayText(*start), dayText(today));
    if (today_.until <= today_.now.minute)
        return tr("By the calendar nobody works any more today. Say until when you are here, and what can be done "
                  "stands below.");
    if (plan_.work.empty()) return tr("Nothing can be done today: all that is due waits for something.");
    return tr("%1, %2 to %3: %n piece(s) of work can be done.", nullptr, static_cast<int>(plan_.work.size()))
        .arg(dayText(today), clockText(today_.now.minute), clockText(today_.until));
}

} // namespace westrum
