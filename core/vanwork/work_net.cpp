#include "core/vanwork/work_net.h"

#include "core/buying/bought.h"
#include "core/fitting/efforts.h"
#include "core/plan/trips.h"
#include "core/shell/new_van.h"

#include <algorithm>
#include <map>
#include <set>

namespace westrum {
namespace {

constexpr int kHourMinutes = 60;
/// Work with something opened goes on without a break up to so long; beyond it is laid in bays, on another day too.
constexpr double kOneGoMinutes = 240;

bool isTrimming(StepKind kind) {
    return kind == StepKind::Trims || kind == StepKind::FitTrim || kind == StepKind::FitEdging ||
           kind == StepKind::RunBead;
}

/// What is cut or sewn from the roll hangs on nothing in the van.
bool fromTheRoll(const FitStep& step) { return step.effort.place == WorkPlace::Workshop; }

/// One surface's work as it grows.
struct Chain {
    const Surface* surface{};
    const SurfacePlan* plan{};
    std::vector<int> items; ///< its own, in order
    std::vector<int> trims;
    int firstInside = -1, firstCover = -1, lastFace = -1;
    int lastInside = -1;      ///< so far
    std::vector<int> outside; ///< off the van since then
};

class Builder {
public:
    Builder(const Job& job, const Plan& plan) : job_(job), plan_(plan) {}

    WorkNet build() {
        for (const Surface& s : job_.surfaces) {
            const SurfacePlan* planned = plan_.surface(s.id);
            if (!planned || planned->steps.empty()) continue;
            chains_.push_back({.surface = &s, .plan = planned});
            addSurface(chains_.back());
        }
        closeNeeds();
        addTrips();
        addRules();
        addGates();
        addProtection();
        addClosing();
        finish();
        return std::move(net_);
    }

private:
    [[nodiscard]] WorkItem& item(int i) { return net_.items[static_cast<std::size_t>(i)]; }

    int newItem(WorkItem made) {
        net_.items.push_back(std::move(made));
        return static_cast<int>(net_.items.size()) - 1;
    }

    void link(int first, int then, int wait = 0, std::optional<WorkRule> rule = {}) {
        if (first < 0 || then < 0 || first == then) return;
        const auto [known, fresh] = links_.try_emplace({first, then}, net_.links.size());
        if (fresh)
            net_.links.push_back({first, then, wait, rule});
        else
            net_.links[known->second].wait = std::max(net_.links[known->second].wait, wait);
    }

    /// Whether a step can go on with the work in hand.
    [[nodiscard]] static bool goesOn(const WorkItem& work, const FitStep& last, const FitStep& step) {
        const StepEffort &a = last.effort, &b = step.effort;
        if (a.place != b.place || work.kind != WorkKind::Surface) return false;
        if (b.follows && (a.opens || a.follows)) return true; // while it is fresh
        if (b.opens || a.opens || b.follows != a.follows) return false;
        if (last.wait && last.wait->kind != WaitKind::Set) return false;
        if (step.wait && step.wait->kind == WaitKind::Set) return false;
        if (isTrimming(step.kind) != isTrimming(last.kind)) return false;
        return a.covers == b.covers && a.hands == b.hands && a.dry == b.dry && a.light == b.light && a.minC == b.minC &&
               a.maxC == b.maxC && a.fumes == b.fumes && a.split == b.split;
    }

    /// Needs of a piece of work with one step more.
    static void takeNeeds(StepEffort& all, const StepEffort& one) {
        all.hands = std::max(all.hands, one.hands);
        all.dry = all.dry || one.dry;
        all.light = all.light || one.light;
        all.opens = all.opens || one.opens;
        all.covers = all.covers || one.covers;
        all.prepares = all.prepares && one.prepares;
        all.split = all.split && one.split;
        if (one.minC) all.minC = std::max(all.minC.value_or(*one.minC), *one.minC);
        if (one.maxC) all.maxC = std::min(all.maxC.value_or(*one.maxC), *one.maxC);
        if (one.fumes) all.fumes = std::max(all.fumes.value_or(0), *one.fumes);
    }

    void takeStep(int at, const SurfacePlan& s, const FitStep& step) {
        WorkItem& w = item(at);
        if (w.steps.empty()) {
            w.needs = step.effort;
            w.needs.minutes = w.needs.firstMore = 0;
            w.place = step.effort.place;
        } else
            takeNeeds(w.needs, step.effort);
        // The first of its kind takes longer, wherever in the van it is.
        const double more = begun_.insert(step.kind).second ? step.effort.firstMore : 0;
        const double minutes = (step.effort.minutes + more) * (job_.work.practised ? 1 : kFirstTimer);
        w.needs.minutes += minutes;
        w.covers = w.covers || step.effort.covers;
        w.steps.push_back({s.surface, step.key});
        w.kinds.push_back(step.kind);
        if (step.wait && step.wait->kind != WaitKind::Set)
            w.wait = std::max(w.wait, static_cast<int>(step.wait->hours * kHourMinutes));
        const FitLog& log = job_.log(s.surface);
        if (!log.done.contains(step.key))
            w.left += minutes;
        else if (const auto when = log.when.find(step.key); when != log.when.end())
            w.worked.push_back(when->second);
    }

    /// The sitting in which all of a product is cut, or coated: a surface's first time of it, its second, and so on.
    int session(WorkKind kind, const std::string& what, const std::string& product, int nth) {
        const std::string id = what + "/" + product + (nth > 0 ? "/" + std::to_string(nth + 1) : "");
        const auto [known, fresh] = sessions_.try_emplace(id, -1);
        if (fresh) known->second = newItem({.id = id, .kind = kind, .surface = {}, .of = product});
        return known->second;
    }

    /// In a wet cell one works alone.
    int narrowOf(const Surface& s) {
        if (s.kind != SurfaceKind::WetCellWall && s.area.kind != AreaKind::WetCell) return 0;
        const std::string where = s.area.kind == AreaKind::WetCell ? s.area.name : std::string();
        return narrow_.try_emplace(where, static_cast<int>(narrow_.size()) + 1).first->second;
    }

    void addSurface(Chain& c) {
        std::map<std::string, int> times; // that this surface sat in on a product
        const FitStep* last = nullptr;
        int now = -1;
        for (const FitStep& step : c.plan->steps) {
            const std::string product =
                step.layer >= 0 ? c.plan->layers[static_cast<std::size_t>(step.layer)].product : std::string();
            const bool cutting = step.kind == StepKind::CutPanels;
            const bool coating = step.kind == StepKind::Coat && step.effort.place != WorkPlace::Van;
            if (cutting || coating) {
                const std::string what = cutting ? "cut" : "coat";
                now = session(cutting ? WorkKind::Cutting : WorkKind::Coating, what, product, times[what + product]++);
                place(c, now, step);
            } else if (last && now >= 0 && goesOn(item(now), *last, step)) {
                noteStep(c, now, step);
            } else {
                const int before = now;
                now = newItem({.id = c.surface->id + "/" + step.key,
                               .kind = WorkKind::Surface,
                               .surface = c.surface->id,
                               .narrow = step.effort.place == WorkPlace::Van ? narrowOf(*c.surface) : 0});
                place(c, now, step);
                if (step.wait && step.wait->kind == WaitKind::Set)
                    link(before, now, static_cast<int>(step.wait->hours * kHourMinutes));
            }
            takeStep(now, *c.plan, step);
            if (!product.empty()) products_[now].insert(product);
            if (constexpr std::string_view kTrim = "trim/"; step.key.starts_with(kTrim))
                products_[now].insert(step.key.substr(kTrim.size()));
            last = &step;
        }
    }

    /// A new link of a surface's chain: what it waits for there.
    void place(Chain& c, int now, const FitStep& step) {
        const bool inside = step.effort.place == WorkPlace::Van;
        if (inside || !fromTheRoll(step)) link(c.lastInside, now);
        if (inside)
            for (const int out : c.outside) link(out, now);
        else if (!c.outside.empty())
            link(c.outside.back(), now);
        if (inside) {
            c.lastInside = now;
            c.outside.clear();
            if (c.firstInside < 0) c.firstInside = now;
        } else
            c.outside.push_back(now);
        if (c.items.empty() || c.items.back() != now) c.items.push_back(now);
        noteStep(c, now, step);
    }

    void noteStep(Chain& c, int now, const FitStep& step) {
        if (isCheck(step.kind)) checks_[c.surface->id].push_back({c.surface->id, step.key});
        const bool face = step.layer >= 0 && step.layer == c.plan->face && !step.effort.prepares;
        if (step.effort.covers || face) {
            if (c.firstCover < 0) {
                c.firstCover = now;
                item(now).checks = checks_[c.surface->id];
            }
            c.lastFace = now;
        }
        if (isTrimming(step.kind) && (c.trims.empty() || c.trims.back() != now)) c.trims.push_back(now);
    }

    /// Short sittings with something opened are not broken off.
    void closeNeeds() {
        for (WorkItem& w : net_.items)
            if (w.needs.opens) w.needs.split = w.needs.minutes > kOneGoMinutes;
    }

    void addTrips() {
        for (const Trip& trip : tripsOf(job_, plan_)) {
            std::set<std::string> wanted; // products of it not bought yet
            std::set<std::string> small;  // surfaces that small things are for
            for (const std::size_t line : trip.lines) {
                const Purchase& p = plan_.purchases[line];
                if (p.packs == 0 || job_.bought.contains(boughtKey(p.product, p.size))) continue;
                wanted.insert(p.product);
                if (p.serves)
                    for (const PurchaseShare& share : p.shares) small.insert(share.surface);
            }
            if (wanted.empty()) continue;
            const int t = newItem({.id = (trip.brought ? "delivery/" : "trip/") + trip.supplier,
                                   .kind = trip.brought ? WorkKind::Delivery : WorkKind::Trip,
                                   .of = trip.supplier,
                                   .place = trip.brought ? WorkPlace::Yard : WorkPlace::Shop,
                                   .needs = {.minutes = trip.brought ? kDeliveryMinutes : kTripMinutes,
                                             .split = false,
                                             .open = !trip.brought}});
            for (const auto& [work, products] : products_)
                if (std::any_of(products.begin(), products.end(),
                                [&](const std::string& p) { return wanted.contains(p); }))
                    link(t, work);
            for (const Chain& c : chains_)
                if (small.contains(c.surface->id))
                    for (const int w : c.items)
                        if (item(w).kind == WorkKind::Surface && item(w).place == WorkPlace::Van &&
                            !item(w).needs.prepares)
                            link(t, w);
        }
    }

    void addRules() {
        for (int r = 0; r < kWorkRules; ++r) {
            const auto rule = static_cast<WorkRule>(r);
            const RuleWay way = job_.work.way(rule);
            if (way == RuleWay::Off || rule == WorkRule::CoatsBeforeFitting) continue;
            if (rule == WorkRule::TrimsAfterFaces) {
                addTrimRule(way);
                continue;
            }
            // Furniture that comes first is what its gate waits for, not its fronts: they close over the walls.
            if (rule == WorkRule::FloorBeforeFurniture && way == RuleWay::Turned) continue;
            for (const Chain& a : chains_)
                for (const Chain& b : chains_) {
                    if (&a == &b || !isFirstOf(rule, a.surface->kind) || !isSecondOf(rule, b.surface->kind)) continue;
                    const Chain &first = way == RuleWay::Usual ? a : b, &then = way == RuleWay::Usual ? b : a;
                    link(first.lastFace, then.firstCover, afterFace(first), rule);
                }
        }
    }

    /// What is laid last must have set.
    [[nodiscard]] int afterFace(const Chain& c) { return c.lastFace < 0 ? 0 : item(c.lastFace).wait; }

    /// A trim waits for the faces on both sides of its edge; turned: faces go up against trims that are there.
    void addTrimRule(RuleWay way) {
        for (const Chain& a : chains_)
            for (const Edge& e : a.surface->edges) {
                if (e.kind != EdgeKind::Meets) continue;
                const auto b = std::find_if(chains_.begin(), chains_.end(),
                                            [&](const Chain& c) { return c.surface->id == e.surface; });
                if (b == chains_.end()) continue;
                if (way == RuleWay::Usual)
                    for (const int trim : a.trims) link(b->lastFace, trim, 0, WorkRule::TrimsAfterFaces);
                else if (!a.trims.empty() && isFirstOf(WorkRule::FloorBeforeWalls, a.surface->kind))
                    link(a.trims.back(), b->firstCover, 0, WorkRule::TrimsAfterFaces);
            }
    }

    void addGates() {
        for (const auto& [gate, state] : job_.work.gates) {
            if (!state.expected || state.passed) continue;
            const int g = newItem({.id = "gate/" + std::to_string(static_cast<int>(gate)),
                                   .kind = WorkKind::Gate,
                                   .gate = gate,
                                   .worked = {{*state.expected, 0, 1}}});
            for (const Chain& c : chains_) {
                if (!waitsForGate(job_, *c.surface, gate)) continue;
                const bool all =
                    gate == WorkGate::Watertight || (gate == WorkGate::FurnitureIn && isFurniture(c.surface->kind));
                link(g, all ? c.firstInside : c.firstCover);
            }
        }
    }

    /// Whoever works over a finished floor covers it first.
    void addProtection() {
        if (job_.work.way(WorkRule::FloorBeforeWalls) != RuleWay::Usual) return;
        for (const Chain& floor : chains_) {
            if (floor.surface->kind != SurfaceKind::Floor || floor.lastFace < 0) continue;
            int protect = -1;
            for (const Chain& wall : chains_) {
                if (!isSecondOf(WorkRule::FloorBeforeWalls, wall.surface->kind) || wall.firstCover < 0) continue;
                if (protect < 0)
                    protect = newItem({.id = "protect/" + floor.surface->id,
                                       .kind = WorkKind::Protect,
                                       .surface = floor.surface->id,
                                       .needs = {.minutes = kProtectMinutes}});
                link(protect, wall.firstCover);
            }
            if (protect >= 0) link(floor.lastFace, protect, afterFace(floor));
        }
    }

    void addClosing() {
        if (chains_.empty()) return;
        if (job_.mass.front) {
            const int w = newItem({.id = "weigh",
                                   .kind = WorkKind::Weigh,
                                   .place = WorkPlace::Shop,
                                   .needs = {.minutes = kWeighMinutes, .split = false, .open = true}});
            for (const Chain& c : chains_)
                if (c.surface->kind == SurfaceKind::Ceiling || c.surface->kind == SurfaceKind::Floor ||
                    isSecondOf(WorkRule::CeilingBeforeWalls, c.surface->kind))
                    link(c.lastFace, w, afterFace(c));
        }
        const int tidy = newItem({.id = "tidy", .kind = WorkKind::Tidy, .needs = {.minutes = kTidyMinutes}});
        std::set<int> followed;
        for (const WorkLink& l : net_.links) followed.insert(l.first);
        for (int i = 0; i < tidy; ++i)
            if (!followed.contains(i)) link(i, tidy, item(i).wait);
    }

    /// Waits of each piece of work stand on what follows it there; what is of no surface has its own ticks.
    void finish() {
        const double pace = job_.work.practised ? kPractisedSpread : kFirstTimerSpread;
        for (WorkItem& w : net_.items) {
            if (w.kind == WorkKind::Surface || w.kind == WorkKind::Cutting || w.kind == WorkKind::Coating) {
                w.spread = pace;
                continue;
            }
            if (w.kind == WorkKind::Gate) continue;
            w.spread = kPractisedSpread;
            w.left = w.needs.minutes;
            if (const auto done = job_.work.done.find(w.id); done != job_.work.done.end()) {
                w.left = 0;
                w.worked = {done->second};
            }
        }
        for (const Chain& c : chains_) {
            const std::set<int> own(c.items.begin(), c.items.end());
            for (WorkLink& l : net_.links)
                if (own.contains(l.first) && own.contains(l.then)) l.wait = std::max(l.wait, item(l.first).wait);
        }
    }

    const Job& job_;
    const Plan& plan_;
    WorkNet net_;
    std::vector<Chain> chains_;
    std::map<std::pair<int, int>, std::size_t> links_;
    std::map<std::string, int> sessions_;
    std::map<std::string, int> narrow_; ///< places of one piece of work at a time, by the name of their area
    std::map<std::string, std::vector<StepRef>> checks_; ///< by surface
    std::map<int, std::set<std::string>> products_;      ///< by piece of work
    std::set<StepKind> begun_;
};

} // namespace

int WorkNet::find(std::string_view id) const {
    for (std::size_t i = 0; i < items.size(); ++i)
        if (items[i].id == id) return static_cast<int>(i);
    return -1;
}

namespace {

/// Gas, water or mains come through it.
bool hasServices(const Surface& s) {
    return std::any_of(s.openings.begin(), s.openings.end(),
                       [](const Opening& o) {
                           return o.kind == OpeningKind::Socket || o.kind == OpeningKind::Pipe ||
                                  o.kind == OpeningKind::Hob || o.kind == OpeningKind::Sink ||
                                  o.kind == OpeningKind::Heater;
                       }) ||
           std::any_of(s.zones.begin(), s.zones.end(), [](const Zone& z) { return z.kind == ZoneKind::Wiring; });
}

} // namespace

bool waitsForGate(const Job& job, const Surface& surface, WorkGate gate) {
    switch (gate) {
    case WorkGate::Watertight:
    case WorkGate::FirstFix: return true;
    case WorkGate::SignedOff: return hasServices(surface);
    case WorkGate::FurnitureIn:
        return isFurniture(surface.kind) ||
               (job.work.way(WorkRule::FloorBeforeFurniture) == RuleWay::Turned && surface.kind == SurfaceKind::Floor);
    }
    return false;
}

WorkNet workNet(const Job& job, const Plan& plan) { return Builder(job, plan).build(); }

} // namespace westrum
