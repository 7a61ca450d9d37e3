#include "app/stages/fit/strip_layout.h"

#include <algorithm>
#include <map>

namespace westrum {
namespace {

constexpr double kNarrowest = 30, kNextDay = 4, kDaysOff = 12;
constexpr int kEvening = 17 * 60;

StripRow::Kind rowOf(const WorkItem& item) {
    switch (item.kind) {
    case WorkKind::Trip:
    case WorkKind::Delivery:
    case WorkKind::Weigh:
    case WorkKind::Tidy:
    case WorkKind::Gate: return StripRow::Trips;
    case WorkKind::Cutting:
    case WorkKind::Coating: return StripRow::Outside;
    case WorkKind::Surface:
    case WorkKind::Protect: break;
    }
    return StripRow::OfSurface;
}

} // namespace

StripLayout::StripLayout(const Job& job, const WorkAnswer& answer, double pixelsPerHour) {
    layDays(answer, pixelsPerHour);
    layRows(job, answer);
}

void StripLayout::layDays(const WorkAnswer& answer, double pixelsPerHour) {
    const WorkPlan& plan = answer.plan;
    const WorkSettings& settings = answer.question.settings;
    std::map<CivilDate, StripDay> days;
    const auto show = [&](const CivilDate& day, int from, int to) {
        const auto [at, fresh] = days.try_emplace(day, StripDay{.day = day, .from = from, .to = to});
        at->second.from = std::min(at->second.from, from);
        at->second.to = std::max(at->second.to, to);
    };
    const int finish = plan.schedule.finish;
    for (const WorkWindow& w : plan.problem.windows) {
        if (w.start > finish + 1440) break; // a day to drag to
        const WorkClock::Moment a = plan.clock.moment(w.start);
        show(a.day, a.minute, a.minute + (w.end - w.start));
    }
    for (std::size_t t = 0; t < plan.schedule.parts.size(); ++t) {
        if (answer.question.net.items[static_cast<std::size_t>(plan.items[t])].kind == WorkKind::Gate) continue;
        for (const WorkPart& p : plan.schedule.parts[t]) {
            const WorkClock::Moment a = plan.clock.moment(p.start);
            show(a.day, a.minute, a.minute + (p.end - p.start));
        }
    }
    double x = 0;
    for (auto& [date, day] : days) {
        if (!days_.empty()) x += days_.back().day + 1 == date ? kNextDay : kDaysOff;
        for (const WorkSpan& span : workDayOf(settings, date)) {
            day.from = std::min(day.from, span.from);
            day.to = std::max(day.to, span.to);
            day.people = std::max(day.people, span.people);
        }
        const ExpectedWeather weather = expectedWeather(settings, date);
        day.dryChance = weather.dryChance;
        day.forecast = weather.forecast;
        day.evening = day.from >= kEvening;
        day.x = x;
        day.width = std::max(kNarrowest, (day.to - day.from) / 60.0 * pixelsPerHour);
        x += day.width;
        days_.push_back(day);
    }
    width_ = x;
}

void StripLayout::layRows(const Job& job, const WorkAnswer& answer) {
    const WorkPlan& plan = answer.plan;
    const auto& items = answer.question.net.items;
    struct Gathered {
        StripRow row;
        std::vector<std::pair<WorkPart, int>> parts;
    };
    std::map<std::pair<int, std::string>, Gathered> rows;
    for (std::size_t i = 0; i < items.size(); ++i) {
        if (items[i].kind == WorkKind::Gate) continue;
        const StripRow::Kind kind = rowOf(items[i]);
        Gathered& row = rows[{kind, kind == StripRow::OfSurface ? items[i].surface : std::string()}];
        row.row.kind = kind;
        if (kind == StripRow::OfSurface) row.row.surface = items[i].surface;
        for (const WorkPart& p : plan.parts(static_cast<int>(i))) {
            row.parts.emplace_back(p, static_cast<int>(i));
        }
    }
    std::vector<Gathered*> sorted;
    for (auto& [key, row] : rows)
        if (row.row.kind != StripRow::OfSurface || job.surface(row.row.surface)) sorted.push_back(&row);
    // In the order of the job, so that a surface stays where it is when the plan moves.
    const auto place = [&](const Gathered* row) {
        const auto s = std::find_if(job.surfaces.begin(), job.surfaces.end(),
                                    [&](const Surface& x) { return x.id == row->row.surface; });
        return std::pair(row->row.kind, s - job.surfaces.begin());
    };
    std::sort(sorted.begin(), sorted.end(), [&](const Gathered* a, const Gathered* b) { return place(a) < place(b); });
    double y = 0;
    for (Gathered* row : sorted) {
        std::sort(row->parts.begin(), row->parts.end(), [](const auto& a, const auto& b) {
            return a.first.start != b.first.start ? a.first.start < b.first.start : a.second < b.second;
        });
        std::vector<int> free; // by lane: when it is
        for (const auto& [part, item] : row->parts) {
            std::size_t lane = 0;
            while (lane < free.size() && free[lane] > part.start) ++lane;
            if (lane == free.size()) free.push_back(0);
            free[lane] = part.end;
            const auto& own = plan.parts(item);
            bars_.push_back({.item = item,
                             .row = rows_.size(),
                             .lane = static_cast<int>(lane),
                             .part = part,
                             .box = {},
                             .first = own.front() == part,
                             .last = own.back() == part});
        }
        row->row.lanes = std::max<int>(1, static_cast<int>(free.size()));
        row->row.y = y;
        // Flags stand at the foot of the first row.
        const bool flags = row->row.kind == StripRow::Trips && !answer.question.settings.gates.empty();
        row->row.height = row->row.lanes * kLane + kRowPadding + (flags ? 12 : 0);
        y += row->row.height;
        rows_.push_back(row->row);
    }
    height_ = y;
    for (StripBar& bar : bars_) {
        const double from = xAt(plan.clock.moment(bar.part.start)), to = xAt(plan.clock.moment(bar.part.end));
        bar.box = {from, rows_[bar.row].y + 3 + bar.lane * kLane, std::max(3.0, to - from), kLane - 4};
    }
    for (StripBar& bar : bars_) {
        const int wait = bar.last ? items[static_cast<std::size_t>(bar.item)].wait : 0;
        double next = width_;
        for (const StripBar& other : bars_)
            if (other.row == bar.row && other.lane == bar.lane && other.box.left() > bar.box.left())
                next = std::min(next, other.box.left());
        bar.room = wait > 0 ? 0 : std::max(0.0, next - bar.box.right());
    }
}

double StripLayout::xAt(const WorkClock::Moment& m) const {
    const auto after = std::lower_bound(days_.begin(), days_.end(), m.day,
                                        [](const StripDay& d, const CivilDate& x) { return d.day < x; });
    if (after == days_.end()) return width_;
    if (after->day != m.day) return after->x;
    const double share = static_cast<double>(m.minute - after->from) / std::max(1, after->to - after->from);
    return after->x + std::clamp(share, 0.0, 1.0) * after->width;
}

const StripDay* StripLayout::dayAt(double x) const {
    const StripDay* nearest = nullptr;
    for (const StripDay& d : days_)
        if (!nearest || x >= d.x - kNextDay) nearest = &d;
    return nearest;
}

const StripDay* StripLayout::find(const CivilDate& day) const {
    for (const StripDay& d : days_)
        if (d.day == day) return &d;
    return nullptr;
}

const StripBar* StripLayout::barAt(QPointF at) const {
    const StripBar* found = nullptr;
    for (const StripBar& bar : bars_)
        if (bar.box.adjusted(-2, -2, 2, 2).contains(at) && (!found || bar.box.width() < found->box.width()))
            found = &bar;
    return found;
}

const StripBar* StripLayout::firstBarOf(int item) const {
    for (const StripBar& bar : bars_)
        if (bar.item == item && bar.first) return &bar;
    return nullptr;
}

} // namespace westrum
