#include "app/stages/fit/work_setup.h"

#include "app/document/work_commands.h"
#include "app/drawing/theme.h"
#include "app/widgets/flow_row.h"
#include "core/families/family.h"
#include "devices/climate.h"
#include "formats/forecast_file.h"
#include "formats/work_words.h"

#include <QFile>
#include <QFileDialog>
#include <QLocale>
#include <QVBoxLayout>

#include <algorithm>
#include <set>

namespace westrum {
namespace {

QLabel* heading(const QString& text) {
    auto* label = new QLabel(text);
    label->setFont(textFont(1.08, true));
    label->setStyleSheet(QStringLiteral("color: %1; margin-top: 8px;").arg(css(Theme::now().chalk)));
    return label;
}

QLabel* muted(const QString& text) {
    auto* label = new QLabel(text);
    label->setWordWrap(true);
    label->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().muted)));
    return label;
}

QPushButton* toggle(const QString& text, const char* id) {
    auto* button = new QPushButton(text);
    button->setCheckable(true);
    button->setObjectName(QString::fromLatin1(id));
    return button;
}

/// A layout as one widget, for a column.
QWidget* wrapped(QLayout* layout) {
    auto* widget = new QWidget;
    layout->setContentsMargins(0, 0, 0, 0);
    widget->setLayout(layout);
    return widget;
}

void emptied(QGridLayout* grid) {
    while (QLayoutItem* item = grid->takeAt(0)) {
        if (QWidget* widget = item->widget()) widget->deleteLater();
        delete item;
    }
}

constexpr int kForecastDays = 14;

} // namespace

WorkSetup::WorkSetup(JobDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
    auto* list = new QWidget;
    auto* column = new QVBoxLayout(list);
    column->setContentsMargins(0, 0, 12, 8);
    addWhen(column);
    addRules(column);
    addGates(column);
    addWeather(column);
    addWhere(column);
    addHours(column);
    column->addStretch(1);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setWidget(list);
    auto* own = new QVBoxLayout(this);
    own->setContentsMargins(0, 0, 0, 0);
    own->addWidget(scroll);
}

EntryField* WorkSetup::field(const QString& id, const QString& name, int width, EntryField::Commit commit) {
    auto* entry = new EntryField(std::move(commit));
    entry->setObjectName(id);
    entry->setAccessibleName(name);
    entry->setFixedWidth(width);
    connect(entry, &EntryField::problemChanged, this, [this](const QString& why) { emit said(why, !why.isEmpty()); });
    return entry;
}

void WorkSetup::addWhen(QVBoxLayout* column) {
    column->addWidget(heading(tr("When you work")));
    auto* row = new FlowRow;
    row->addWidget(new QLabel(tr("First day")));
    start_ = field(QStringLiteral("workStart"), tr("First day"), 110, [this](const QString& typed) -> QString {
        if (typed.trimmed().isEmpty()) {
            push(document_, beginWorkOn(document_, std::nullopt));
            return {};
        }
        const auto day = parseDay(typed);
        if (!day) return tr("A day, such as 2027-03-13 or 13.3.2027.");
        push(document_, beginWorkOn(document_, day));
        return {};
    });
    row->addWidget(start_);
    practised_ = toggle(tr("practised hands"), "practised");
    practised_->setToolTip(tr("A first-timer takes about twice as long."));
    connect(practised_, &QPushButton::clicked, this, [this](bool on) {
        remember(on ? tr("practised hands") : tr("a first-timer"));
        push(document_, setPractised(document_, on));
    });
    row->addWidget(practised_);
    column->addWidget(wrapped(row));
    auto* week = new FlowRow;
    for (int d = 0; d < 7; ++d) {
        auto* day = new QHBoxLayout;
        day->addWidget(new QLabel(QLocale().dayName(d + 1, QLocale::ShortFormat)));
        week_[static_cast<std::size_t>(d)] = field(
            QStringLiteral("weekday%1").arg(d), QLocale().dayName(d + 1), 130,
            [this, d](const QString& typed) -> QString {
                const auto spans = parseWorkDay(typed);
                if (!spans)
                    return tr(
                        "From when to when and how many, such as 9:00-16:30 x2; more of them with commas; or off.");
                push(document_, setWeekday(document_, d, *spans));
                return {};
            });
        day->addWidget(week_[static_cast<std::size_t>(d)]);
        week->addWidget(wrapped(day));
    }
    column->addWidget(wrapped(week));
    addShops(column);
    column->addWidget(muted(tr("Days that differ: a holiday off, a Friday more, two people from 10 to 3.")));
    days_ = new QGridLayout;
    days_->setHorizontalSpacing(10);
    column->addWidget(wrapped(days_));
    auto* more = new FlowRow;
    const auto line = [](const char* id, const QString& name, const QString& hint, int width) {
        auto* edit = new QLineEdit;
        edit->setObjectName(QString::fromLatin1(id));
        edit->setAccessibleName(name);
        edit->setPlaceholderText(hint);
        edit->setFixedWidth(width);
        return edit;
    };
    newDate_ = line("newDate", tr("A day that differs"), tr("2027-03-13"), 110);
    newDay_ = line("newDay", tr("When somebody works on it"), tr("10-15 x2, or off"), 130);
    auto* add = new QPushButton(tr("Add this day"));
    add->setObjectName(QStringLiteral("addDay"));
    connect(add, &QPushButton::clicked, this, [this] {
        const auto date = parseDay(newDate_->text());
        const auto day = parseWorkDay(newDay_->text());
        if (!date || !day) return emit said(tr("A day, and when somebody works on it, or off."), true);
        push(document_, setWorkDay(document_, *date, *day));
        newDate_->clear();
        newDay_->clear();
    });
    more->addWidget(newDate_);
    more->addWidget(newDay_);
    more->addWidget(add);
    column->addWidget(wrapped(more));
}

void WorkSetup::addShops(QVBoxLayout* column) {
    column->addWidget(muted(tr("When suppliers and weighbridges are open: trips are made then.")));
    auto* shops = new FlowRow;
    for (int d = 0; d < 7; ++d) {
        auto* day = new QHBoxLayout;
        day->addWidget(new QLabel(QLocale().dayName(d + 1, QLocale::ShortFormat)));
        auto* entry =
            field(QStringLiteral("shops%1").arg(d), tr("Suppliers are open on %1").arg(QLocale().dayName(d + 1)), 110,
                  [this, d](const QString& typed) -> QString {
                      const auto spans = parseWorkDay(typed);
                      if (!spans) return tr("From when to when, such as 8:00-18:00; more of them with commas; or off.");
                      push(document_, setShops(document_, d, *spans));
                      return {};
                  });
        shops_[static_cast<std::size_t>(d)] = entry;
        day->addWidget(entry);
        shops->addWidget(wrapped(day));
    }
    column->addWidget(wrapped(shops));
}

void WorkSetup::addWhere(QVBoxLayout* column) {
    column->addWidget(heading(tr("Where the van stands")));
    auto* row = new FlowRow;
    const auto figure = [this](double WorkSite::*member, double most) {
        return [this, member, most](const QString& typed) -> QString {
            const auto n = parseNumber(typed.trimmed().toStdString());
            if (!n) return westrum::sentence(n.error(), typed);
            if (std::abs(n.value()) > most) return tr("From -%1 to %1 degrees.").arg(most);
            WorkSite site = document_.job().work.site;
            site.*member = n.value();
            push(document_, setWorkSite(document_, site));
            return {};
        };
    };
    row->addWidget(new QLabel(tr("Latitude, north")));
    row->addWidget(latitude_ = field(QStringLiteral("latitude"), tr("Latitude in degrees north"), 64,
                                     figure(&WorkSite::latitudeDeg, 90)));
    row->addWidget(new QLabel(tr("Longitude, east")));
    row->addWidget(longitude_ = field(QStringLiteral("longitude"), tr("Longitude in degrees east"), 64,
                                      figure(&WorkSite::longitudeDeg, 180)));
    row->addWidget(new QLabel(tr("Hours ahead of UTC in winter")));
    offset_ = field(QStringLiteral("utcOffset"), tr("Hours ahead of UTC in winter"), 56,
                    [this](const QString& typed) -> QString {
                        const auto n = parseNumber(typed.trimmed().toStdString());
                        if (!n) return westrum::sentence(n.error(), typed);
                        if (std::abs(n.value()) > 14) return tr("From -14 to 14 hours.");
                        WorkSite site = document_.job().work.site;
                        site.utcOffset = static_cast<int>(std::lround(n.value() * 60));
                        push(document_, setWorkSite(document_, site));
                        return {};
                    });
    row->addWidget(offset_);
    change_ = new QComboBox;
    change_->setObjectName(QStringLiteral("clockChange"));
    change_->addItems(
        {tr("clocks do not change"), tr("clocks change as in Europe"), tr("clocks change as in North America")});
    connect(change_, &QComboBox::activated, this, [this](int i) {
        WorkSite site = document_.job().work.site;
        site.change = static_cast<ClockChange>(i);
        push(document_, setWorkSite(document_, site));
    });
    row->addWidget(change_);
    column->addWidget(wrapped(row));
    column->addWidget(muted(tr("From it follow sunrise and sunset: full sheets are sawn by daylight.")));
}

void WorkSetup::addWeather(QVBoxLayout* column) {
    column->addWidget(heading(tr("Weather and warmth")));
    auto* row = new FlowRow;
    const auto flag = [&](QPushButton*& button, const QString& text, const char* id, bool WorkSite::*member) {
        button = toggle(text, id);
        connect(button, &QPushButton::clicked, this, [this, member, text](bool on) {
            remember(text);
            WorkSite site = document_.job().work.site;
            site.*member = on;
            push(document_, setWorkSite(document_, site));
        });
        row->addWidget(button);
    };
    flag(heated_, tr("van heated to %1 °C").arg(kHeatedC), "heated", &WorkSite::heated);
    flag(tarpaulin_, tr("tarpaulin over the yard"), "tarpaulin", &WorkSite::tarpaulin);
    flag(workshop_, tr("a lit room to saw and paint in"), "workshop", &WorkSite::workshop);
    column->addWidget(wrapped(row));
    forecast_ = muted({});
    forecast_->setObjectName(QStringLiteral("forecast"));
    column->addWidget(forecast_);
    auto* buttons = new FlowRow;
    const auto button = [&](const QString& text, const char* id, auto does) {
        auto* b = new QPushButton(text);
        b->setObjectName(QString::fromLatin1(id));
        connect(b, &QPushButton::clicked, this, does);
        buttons->addWidget(b);
    };
    button(tr("Forecast from a file…"), "loadForecast", [this] { loadForecast(); });
    button(tr("Fetch one (simulated)"), "fetchForecast", [this] { fetchForecast(); });
    button(tr("Forget it"), "forgetForecast", [this] { push(document_, takeForecast(document_, {})); });
    column->addWidget(wrapped(buttons));
}

void WorkSetup::addGates(QVBoxLayout* column) {
    column->addWidget(heading(tr("What must be ready first")));
    column->addWidget(muted(
        tr("The day on which you expect it; without one it is no hindrance. Gas and mains are for a licensed trade.")));
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(12);
    for (int g = 0; g < kWorkGates; ++g) {
        const auto gate = static_cast<WorkGate>(g);
        const auto state = [this, gate] {
            const auto found = document_.job().work.gates.find(gate);
            return found == document_.job().work.gates.end() ? GateState{} : found->second;
        };
        grid->addWidget(new QLabel(gateText(gate)), g, 0);
        expected_[static_cast<std::size_t>(g)] =
            field(QStringLiteral("gate%1").arg(g), tr("Expected: %1").arg(gateText(gate)), 110,
                  [this, gate, state](const QString& typed) -> QString {
                      GateState s = state();
                      const auto day = parseDay(typed);
                      if (!day && !typed.trimmed().isEmpty()) return tr("A day, such as 2027-03-13 or 13.3.2027.");
                      s.expected = day;
                      push(document_, setGate(document_, gate, s));
                      return {};
                  });
        grid->addWidget(expected_[static_cast<std::size_t>(g)], g, 1);
        auto* passed = toggle(tr("it is ready"), "");
        passed->setObjectName(QStringLiteral("gatePassed%1").arg(g));
        connect(passed, &QPushButton::clicked, this, [this, gate, state](bool on) {
            GateState s = state();
            s.passed = on ? std::optional(document_.now().day) : std::nullopt;
            push(document_, setGate(document_, gate, s));
        });
        passed_[static_cast<std::size_t>(g)] = passed;
        grid->addWidget(passed, g, 2);
    }
    grid->setColumnStretch(3, 1);
    column->addWidget(wrapped(grid));
}

void WorkSetup::addRules(QVBoxLayout* column) {
    column->addWidget(heading(tr("In which order")));
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(12);
    for (int r = 0; r < kWorkRules; ++r) {
        const auto rule = static_cast<WorkRule>(r);
        auto* button = new QPushButton;
        button->setObjectName(QStringLiteral("rule%1").arg(r));
        button->setToolTip(tr("Press it for the other school."));
        connect(button, &QPushButton::clicked, this, [this, rule] { turn(rule); });
        rules_[static_cast<std::size_t>(r)] = button;
        grid->addWidget(button, r, 0, Qt::AlignTop);
        grid->addWidget(muted(ruleReason(rule)), r, 1);
    }
    grid->setColumnStretch(1, 1);
    column->addWidget(wrapped(grid));
}

void WorkSetup::addHours(QVBoxLayout* column) {
    column->addWidget(heading(tr("How long it takes practised hands")));
    column->addWidget(muted(tr("Hours a square metre, and for each piece; the steps of a surface share them. Emptied, "
                               "the usual figure stands again.")));
    hours_ = new QGridLayout;
    hours_->setHorizontalSpacing(12);
    column->addWidget(wrapped(hours_));
}

void WorkSetup::turn(WorkRule rule) {
    const RuleWay way = document_.job().work.way(rule);
    // Coats are either before or after; others may also be left open.
    const bool two = rule == WorkRule::CoatsBeforeFitting;
    const RuleWay next = way == RuleWay::Usual    ? RuleWay::Turned
                         : way == RuleWay::Turned ? (two ? RuleWay::Usual : RuleWay::Off)
                                                  : RuleWay::Usual;
    remember(ruleText(rule, next));
    push(document_, switchRule(document_, rule, next));
}

void WorkSetup::remember(const QString& what) {
    const auto work = document_.work();
    if (!work) return;
    Before b{.what = what, .done = work->plan.done(), .sure = {}};
    for (const WorkItem& w : work->question.net.items) b.minutes += w.left;
    if (work->chance) b.sure = work->plan.clock.moment(work->chance->at(document_.job().work.acceptedChance) - 1).day;
    before_ = std::move(b);
}

QString WorkSetup::effect() {
    const auto work = document_.work();
    if (!before_ || !work || !document_.isWorkSettled()) return {};
    const Before b = *std::exchange(before_, std::nullopt);
    const auto done = work->plan.done();
    if (!done) return {}; // why, the page says
    double minutes = 0;
    for (const WorkItem& w : work->question.net.items) minutes += w.left;
    QStringList parts;
    const auto dates = [](const QString& same, const QString& other, const std::optional<CivilDate>& was,
                          const CivilDate& is) {
        return was && *was == is ? same.arg(dayText(is))
               : was             ? other.arg(dayText(is), dayText(*was))
                                 : same.arg(dayText(is));
    };
    parts << dates(tr("done by %1, as before"), tr("done by %1 instead of %2"), b.done, *done);
    const double more = minutes - b.minutes;
    parts << (std::abs(more) < 1 ? tr("the same hours")
              : more > 0         ? tr("%1 more work").arg(durationText(more))
                                 : tr("%1 less work").arg(durationText(-more)));
    if (work->chance && b.sure) {
        const CivilDate sure = work->plan.clock.moment(work->chance->at(document_.job().work.acceptedChance) - 1).day;
        parts << dates(tr("as sure as before (%1)"), tr("sure by %1 instead of %2"), b.sure, sure);
    }
    return tr("%1: %2.").arg(b.what, parts.join(QStringLiteral(", ")));
}

void WorkSetup::takeBytes(const QByteArray& bytes) {
    const ForecastReading reading = readForecast(bytes, document_.now().day);
    if (reading.forecast.days.empty())
        return emit said(
            reading.faults.empty() ? tr("There is no day in it.") : westrum::sentence(reading.faults.front()), true);
    push(document_, takeForecast(document_, reading.forecast));
    if (reading.faulty > 0)
        emit said(tr("%n line(s) could not be read. %1", nullptr, static_cast<int>(reading.faulty))
                      .arg(westrum::sentence(reading.faults.front())),
                  true);
}

void WorkSetup::loadForecast() {
    const QString path = QFileDialog::getOpenFileName(this, tr("A forecast"), {}, tr("Lists (*.csv);;All files (*)"));
    if (path.isEmpty()) return;
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly))
        return emit said(tr("%1 cannot be opened: %2").arg(path, file.errorString()), true);
    takeBytes(file.read(kLargestForecastFile + 1));
}

void WorkSetup::fetchForecast() {
    const CivilDate today = document_.now().day;
    const CivilDate from = std::max(today, document_.job().work.start.value_or(today));
    takeBytes(SimulatedForecast(document_.job().seed).fetch(from, kForecastDays));
}

void WorkSetup::showDays() {
    const auto& days = document_.job().work.days;
    emptied(days_);
    int row = 0;
    for (const auto& [date, day] : days) {
        days_->addWidget(new QLabel(dayText(date)), row, 0);
        days_->addWidget(new QLabel(workDayText(day)), row, 1);
        auto* usual = new QPushButton(tr("As usual again"));
        connect(usual, &QPushButton::clicked, this,
                [this, date = date] { push(document_, setWorkDay(document_, date, std::nullopt)); });
        days_->addWidget(usual, row++, 2);
    }
    days_->setColumnStretch(3, 1);
}

void WorkSetup::showHours() {
    std::vector<std::string> families;
    std::set<std::string> seen;
    for (const SurfacePlan& s : document_.plan()->surfaces)
        for (const LayerPlan& l : s.layers)
            if (!l.family.empty() && seen.insert(l.family).second) families.push_back(l.family);
    if (families != hoursShown_) {
        hoursShown_ = families;
        hourFields_.clear();
        emptied(hours_);
        int row = 0;
        for (const std::string& id : families) {
            const Family* family = familyOf(id);
            if (!family) continue;
            const auto commit = [this, id, usual = family->hours](double HourRate::*member) {
                return [this, id, usual, member](const QString& typed) -> QString {
                    const auto own = document_.job().work.hours.find(id);
                    HourRate rate = own == document_.job().work.hours.end() ? usual : own->second;
                    if (typed.trimmed().isEmpty())
                        rate.*member = usual.*member;
                    else {
                        const auto n = parseNumber(typed.trimmed().toStdString());
                        if (!n) return westrum::sentence(n.error(), typed);
                        if (n.value() < 0 || n.value() > 1000) return tr("From 0 to 1000 hours.");
                        rate.*member = n.value();
                    }
                    remember(tr("other hours"));
                    push(document_, setHours(document_, id, rate == usual ? std::nullopt : std::optional(rate)));
                    return {};
                };
            };
            hours_->addWidget(new QLabel(fieldName(family->product.tradeName)), row, 0);
            auto* perM2 = field(QStringLiteral("hoursM2-") + QString::fromStdString(id), tr("Hours a square metre"), 64,
                                commit(&HourRate::perM2));
            auto* perPiece = field(QStringLiteral("hoursPiece-") + QString::fromStdString(id),
                                   tr("Hours for each piece"), 64, commit(&HourRate::perPiece));
            hours_->addWidget(perM2, row, 1);
            hours_->addWidget(muted(tr("h a m²")), row, 2);
            hours_->addWidget(perPiece, row, 3);
            hours_->addWidget(muted(tr("h a piece")), row++, 4);
            hourFields_.emplace_back(perM2, perPiece);
        }
        hours_->setColumnStretch(5, 1);
    }
    for (std::size_t i = 0; i < hourFields_.size(); ++i) {
        const auto own = document_.job().work.hours.find(hoursShown_[i]);
        const HourRate rate = own == document_.job().work.hours.end() ? familyOf(hoursShown_[i])->hours : own->second;
        hourFields_[i].first->setFigure(figures_.number(rate.perM2, 2), QString::number(rate.perM2));
        hourFields_[i].second->setFigure(figures_.number(rate.perPiece, 2), QString::number(rate.perPiece));
    }
}

void WorkSetup::show(const Figures& figures) {
    figures_ = figures;
    const WorkSettings& work = document_.job().work;
    const QString start = work.start ? QString::fromStdString(isoDate(*work.start)) : QString();
    start_->setFigure(start, start);
    start_->setPlaceholderText(tr("today"));
    practised_->setChecked(work.practised);
    for (std::size_t d = 0; d < 7; ++d) week_[d]->setFigure(workDayText(work.week[d]), workDayText(work.week[d]));
    for (std::size_t d = 0; d < 7; ++d)
        shops_[d]->setFigure(workDayText(work.shops[d], false), workDayText(work.shops[d], false));
    showDays();
    const WorkSite& site = work.site;
    latitude_->setFigure(figures_.number(site.latitudeDeg, 2), QString::number(site.latitudeDeg));
    longitude_->setFigure(figures_.number(site.longitudeDeg, 2), QString::number(site.longitudeDeg));
    offset_->setFigure(figures_.number(site.utcOffset / 60.0, site.utcOffset % 60 == 0 ? 0 : 2),
                       QString::number(site.utcOffset / 60.0));
    change_->setCurrentIndex(static_cast<int>(site.change));
    heated_->setChecked(site.heated);
    tarpaulin_->setChecked(site.tarpaulin);
    workshop_->setChecked(site.workshop);
    const Forecast& f = work.forecast;
    QString weather = tr("No forecast: each day is taken as its month usually is.");
    if (!f.days.empty()) {
        weather = tr("A forecast for %n day(s), %1 to %2; after it each day is taken as its month usually is.", nullptr,
                     static_cast<int>(f.days.size()))
                      .arg(dayText(f.days.begin()->first), dayText(f.days.rbegin()->first));
        constexpr int kStale = 5;
        if (f.made && dayNumber(document_.now().day) - dayNumber(*f.made) > kStale)
            weather += QLatin1Char(' ') + tr("It was made on %1: fetch a newer one.").arg(dayText(*f.made));
        else if (f.days.rbegin()->first < document_.now().day)
            weather += QLatin1Char(' ') + tr("All of its days are over.");
    }
    forecast_->setText(weather);
    for (int g = 0; g < kWorkGates; ++g) {
        const auto state = work.gates.find(static_cast<WorkGate>(g));
        const GateState s = state == work.gates.end() ? GateState{} : state->second;
        const QString day = s.expected ? QString::fromStdString(isoDate(*s.expected)) : QString();
        expected_[static_cast<std::size_t>(g)]->setFigure(day, day);
        passed_[static_cast<std::size_t>(g)]->setChecked(s.passed.has_value());
    }
    for (int r = 0; r < kWorkRules; ++r) {
        const auto rule = static_cast<WorkRule>(r);
        rules_[static_cast<std::size_t>(r)]->setText(ruleText(rule, work.way(rule)));
    }
    showHours();
}

} // namespace westrum
