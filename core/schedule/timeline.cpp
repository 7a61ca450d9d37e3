#include "core/schedule/timeline.h"

#include <algorithm>
#include <limits>

namespace westrum {

WorkTimeline::WorkTimeline(const WorkProblem& problem) : p_(problem) {
    busy_.resize(p_.windows.size());
    for (std::size_t i = 0; i < p_.tasks.size(); ++i) {
        const WorkTask& t = p_.tasks[i];
        std::vector<std::size_t> windows;
        for (std::size_t w = 0; w < p_.windows.size(); ++w) {
            const int length = p_.windows[w].end - p_.windows[w].start;
            if (accepts(static_cast<int>(i), w) && (t.split || length >= t.minutes)) windows.push_back(w);
        }
        usable_.push_back(std::move(windows));
    }
}

bool WorkTimeline::accepts(int task, std::size_t window) const {
    const WorkTask& t = p_.tasks[static_cast<std::size_t>(task)];
    const WorkWindow& w = p_.windows[window];
    return w.people >= t.hands && (!t.inside || p_.holds >= t.hands) && (!t.dry || w.dry) && (!t.light || w.light) &&
           (!t.open || w.open) && (!t.minC || w.degC >= *t.minC) && (!t.maxC || w.degC <= *t.maxC);
}

void WorkTimeline::clear() {
    for (auto& window : busy_) window.clear();
    fumes_.clear();
}

int WorkTimeline::endOf(const WorkTask& t, std::size_t w) const {
    return t.pinned ? std::min(p_.windows[w].end, t.pinned->end) : p_.windows[w].end;
}

int WorkTimeline::clash(const WorkTask& t, std::size_t w, int start, int end, int airedAt) const {
    if (t.inside)
        for (const Fumes& f : fumes_)
            if (f.start < end && f.end > start) return f.end;
    if (t.fumes)
        for (std::size_t v = w; v < busy_.size() && p_.windows[v].start < airedAt; ++v)
            for (const Busy& b : busy_[v])
                if (b.inside > 0 && b.start < airedAt && b.end > start) return b.end;
    const std::vector<Busy>& busy = busy_[w];
    if (t.narrow != 0)
        for (const Busy& b : busy)
            if (b.narrow == t.narrow && b.start < end && b.end > start) return b.end;
    const int inside = t.inside ? t.hands : 0, people = p_.windows[w].people;
    const auto full = [&](int at) {
        int hands = t.hands, within = inside;
        for (const Busy& b : busy)
            if (b.start <= at && b.end > at) {
                hands += b.hands;
                within += b.inside;
            }
        return hands > people || (inside > 0 && within > p_.holds);
    };
    bool taken = false, any = false;
    for (const Busy& b : busy) {
        if (b.start >= end || b.end <= start) continue;
        any = true;
        taken = taken || full(std::max(b.start, start));
    }
    if (!any || !taken) return -1;
    int next = std::numeric_limits<int>::max();
    for (const Busy& b : busy)
        if (b.start < end && b.end > start) next = std::min(next, b.end);
    return next;
}

int WorkTimeline::soonest(const WorkTask& t, std::size_t w, int from, int minutes, bool last) const {
    const int end = endOf(t, w);
    int at = std::max(from, p_.windows[w].start);
    while (at + minutes <= end) {
        const int next = clash(t, w, at, at + minutes, at + minutes + (last ? t.fumes.value_or(0) : 0));
        if (next < 0) return at;
        at = std::max(next, at + 1);
    }
    return -1;
}

int WorkTimeline::until(const WorkTask& t, std::size_t w, int start, int most) const {
    int end = std::min(endOf(t, w), start + most);
    if (t.inside)
        for (const Fumes& f : fumes_)
            if (f.start >= start) end = std::min(end, f.start);
    const std::vector<Busy>& busy = busy_[w];
    const int inside = t.inside ? t.hands : 0;
    for (const Busy& b : busy) {
        if (b.start <= start || b.start >= end) continue;
        if ((t.fumes && b.inside > 0) || (t.narrow != 0 && b.narrow == t.narrow)) {
            end = b.start;
            continue;
        }
        int hands = t.hands, within = inside;
        for (const Busy& o : busy)
            if (o.start <= b.start && o.end > b.start) {
                hands += o.hands;
                within += o.inside;
            }
        if (hands > p_.windows[w].people || (inside > 0 && within > p_.holds)) end = b.start;
    }
    return end;
}

int WorkTimeline::windowAt(int time) const {
    const auto w = std::upper_bound(p_.windows.begin(), p_.windows.end(), time,
                                    [](int at, const WorkWindow& x) { return at < x.start; });
    return w != p_.windows.begin() && (w - 1)->end > time ? static_cast<int>(w - 1 - p_.windows.begin()) : -1;
}

void WorkTimeline::put(int task, const std::vector<WorkPart>& parts) {
    const WorkTask& t = p_.tasks[static_cast<std::size_t>(task)];
    for (std::size_t k = 0; k < parts.size(); ++k) {
        const WorkPart& part = parts[k];
        if (const int w = windowAt(part.start); w >= 0)
            busy_[static_cast<std::size_t>(w)].push_back(
                {part.start, part.end, t.hands, t.inside ? t.hands : 0, t.narrow});
        if (t.fumes) fumes_.push_back({part.start, part.end + (k + 1 == parts.size() ? *t.fumes : 0)});
    }
}

void WorkTimeline::take(int task, const std::vector<WorkPart>& parts) {
    const bool fumes = p_.tasks[static_cast<std::size_t>(task)].fumes.has_value();
    for (std::size_t k = parts.size(); k-- > 0;) {
        if (const int w = windowAt(parts[k].start); w >= 0) busy_[static_cast<std::size_t>(w)].pop_back();
        if (fumes) fumes_.pop_back();
    }
}

std::size_t WorkTimeline::firstUsable(int task, int from) const {
    const std::vector<std::size_t>& windows = usable_[static_cast<std::size_t>(task)];
    const auto first =
        std::partition_point(windows.begin(), windows.end(), [&](std::size_t w) { return p_.windows[w].end <= from; });
    return static_cast<std::size_t>(first - windows.begin());
}

bool WorkTimeline::placeWhole(int task, int from, std::vector<WorkPart>& parts) {
    const WorkTask& t = p_.tasks[static_cast<std::size_t>(task)];
    const std::vector<std::size_t>& windows = usable_[static_cast<std::size_t>(task)];
    for (std::size_t i = firstUsable(task, from); i < windows.size(); ++i) {
        const std::size_t w = windows[i];
        const int at = soonest(t, w, from, t.minutes, true);
        if (at < 0) continue;
        parts = {{at, at + t.minutes}};
        return true;
    }
    return false;
}

bool WorkTimeline::placeSplit(int task, int from, std::vector<WorkPart>& parts) {
    const WorkTask& t = p_.tasks[static_cast<std::size_t>(task)];
    parts.clear();
    int left = t.minutes;
    const std::vector<std::size_t>& windows = usable_[static_cast<std::size_t>(task)];
    for (std::size_t i = firstUsable(task, from); i < windows.size(); ++i) {
        const std::size_t w = windows[i];
        int at = from;
        while (left > 0) {
            const int least = std::min(kShortestPart, left);
            const int start = soonest(t, w, at, least, left == least);
            if (start < 0) break;
            int end = until(t, w, start, left);
            if (end - start == left && t.fumes) {
                // Its last part must be aired out before anybody comes in.
                const int next = clash(t, w, start, end, end + *t.fumes);
                if (next >= 0) {
                    at = next;
                    continue;
                }
            }
            if (end - start < least) { // air that would come too late for so short a part
                at = start + 1;
                continue;
            }
            parts.push_back({start, end});
            left -= end - start;
            at = end;
        }
        if (left == 0) return true;
    }
    return false;
}

bool WorkTimeline::place(int task, int from, std::vector<WorkPart>& parts) {
    const WorkTask& t = p_.tasks[static_cast<std::size_t>(task)];
    if (t.pinned) from = std::max(from, t.pinned->start);
    if (!(t.split ? placeSplit(task, from, parts) : placeWhole(task, from, parts))) return false;
    put(task, parts);
    return true;
}

} // namespace westrum
