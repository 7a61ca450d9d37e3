#include "core/catalogue/layers.h"
#include "core/families/family.h"
#include "core/fitting/efforts.h"

#include <algorithm>
#include <iterator>
#include <map>
#include <utility>

namespace westrum {

namespace {

/// A step of no layer.
FitStep withEffort(FitStep step, const FitFacts& facts) {
    giveEfforts({&step, 1}, facts, {});
    return step;
}

/// What must be seen to before it is hidden.
void beforeCovering(const FitFacts& facts, std::vector<FitStep>& steps) {
    const auto add = [&](const char* key, StepKind kind, Facts given = {}, std::optional<Caution> caution = {}) {
        steps.push_back(withEffort(
            {.key = std::string("before/") + key, .kind = kind, .facts = std::move(given), .caution = caution}, facts));
    };
    const auto covered = std::count_if(facts.openings.begin(), facts.openings.end(),
                                       [](const OpeningName& o) { return o.treatment != Treatment::CutBefore; });
    add("cables", StepKind::CablesTested);
    if (facts.wiring) add("pipes", StepKind::PipesTested);
    add("backing", StepKind::BackingIn);
    if (facts.supports > 0) add("supports", StepKind::SupportsRecorded, {{"count", std::int64_t{facts.supports}}});
    if (std::any_of(facts.layers.begin(), facts.layers.end(),
                    [](const LayerFacts& l) { return l.role == LayerRole::Barrier; }))
        add("barrier", StepKind::BarrierTaped);
    if (covered > 0) add("tails", StepKind::TailsThrough, {{"count", static_cast<std::int64_t>(covered)}});
}

bool covers(const LayerFacts& layer) { return layer.role == LayerRole::Finish; }

/// What was made ready stands before what is opened; one layer's steps after the other's.
class InOrder {
public:
    explicit InOrder(const FitFacts& facts) : facts_(facts) {
        // A floating floor over nothing but its underlay hides nothing that was not checked with its base.
        listed_ = std::none_of(facts.layers.begin(), facts.layers.end(),
                               [](const LayerFacts& l) { return covers(l) && !l.floats; });
    }

    void add(std::size_t place, std::vector<FitStep> own) {
        const LayerFacts& layer = facts_.layers[place];
        if (layer.role == LayerRole::Adhesive) return append(opened_, std::move(own)); // the last thing opened
        if (!covers(layer)) return append(steps_, std::move(own));
        std::vector<FitStep> laying;
        for (FitStep& step : own) (step.effort.prepares ? steps_ : laying).push_back(std::move(step));
        if (wrappedLater(place)) return append(held_, std::move(laying));
        if (facts_.coatsFirst) append(steps_, std::move(coats_));
        if (!std::exchange(listed_, true)) beforeCovering(facts_, steps_);
        // Panels are wrapped at a table, then go up.
        const auto wrap =
            std::find_if(laying.begin(), laying.end(), [](const FitStep& s) { return s.kind == StepKind::WrapPanels; });
        if (wrap != laying.end())
            for (FitStep& step : opened_) {
                step.effort.place = WorkPlace::Workshop;
                step.effort.fumes.reset();
            }
        append(steps_, std::move(opened_));
        if (wrap != laying.end())
            laying.insert(wrap + 1, std::make_move_iterator(held_.begin()), std::make_move_iterator(held_.end()));
        else
            laying.insert(laying.begin(), std::make_move_iterator(held_.begin()), std::make_move_iterator(held_.end()));
        held_.clear();
        append(steps_, std::move(laying));
    }

    /// Coats over a finish, to come before it goes up.
    void coats(std::vector<FitStep> own) { append(coats_, std::move(own)); }

    std::vector<FitStep> all() {
        append(steps_, std::move(coats_));
        append(steps_, std::move(opened_));
        append(steps_, std::move(held_));
        return std::move(steps_);
    }

private:
    static void append(std::vector<FitStep>& to, std::vector<FitStep> more) {
        to.insert(to.end(), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
    }
    /// Whether a lining further up wraps these panels.
    [[nodiscard]] bool wrappedLater(std::size_t place) const {
        const Family* own = familyOf(facts_.layers[place].product->family);
        if (!own || !own->laid.wrapped) return false;
        for (std::size_t k = place + 1; k < facts_.layers.size(); ++k) {
            const LayerFacts& above = facts_.layers[k];
            const Family* family = familyOf(above.product->family);
            if (family && family->laid.wrapped) return false; // the panels above are
            if (family && family->laid.wraps && family->laid.wraps(*above.rules) && above.setOut->laid()) return true;
        }
        return false;
    }

    const FitFacts& facts_;
    std::vector<FitStep> steps_, opened_, held_, coats_;
    bool listed_ = false;
};

/// A coat that may go on before its finish is fitted: paint and oil on boards and panels, not what keeps water out of
/// what is already up.
bool coatsLoose(const FitFacts& facts, std::size_t place) {
    if (!facts.coatsFirst || facts.layers[place].role != LayerRole::Coating) return false;
    if (place == 0) return false;
    const LayerFacts& below = facts.layers[place - 1];
    const Family* family = familyOf(below.product->family);
    return covers(below) && below.setOut->laid() && !below.floats && family && family->laid.takesCoatLoose &&
           !coatingOf(*facts.layers[place].product).waterproof;
}

/// Steps of each layer, with their keys, from the metal inwards.
std::vector<std::vector<FitStep>> byLayer(const FitFacts& facts, const HourRates& own) {
    std::vector<std::vector<FitStep>> all(facts.layers.size());
    std::map<std::string, int> seen; // layers of each family so far
    for (std::size_t k = 0; k < facts.layers.size(); ++k) {
        const LayerFacts& layer = facts.layers[k];
        const Family* family = familyOf(layer.product->family);
        if ((covers(layer) && !layer.setOut->laid()) || !family || !family->steps) continue;
        family->steps(facts, layer, all[k]);
        const int nth = seen[layer.product->family]++;
        for (FitStep& step : all[k]) {
            step.layer = layer.layer;
            if (!family->laid.plainKeys || nth > 0)
                step.key = layer.product->family + (nth > 0 ? std::to_string(nth + 1) : std::string()) + "/" + step.key;
        }
        giveEfforts(all[k], facts, [&own](const LayerFacts& l) {
            return hoursFor(l.product->family, l.area.value, static_cast<int>(l.setOut->pieces.size()), own);
        });
    }
    return all;
}

/// What closes it: lamps and trims go on once the coat is dry.
void finishOff(const FitFacts& facts, std::vector<FitStep>& steps) {
    const bool anything = std::any_of(facts.layers.begin(), facts.layers.end(),
                                      [](const LayerFacts& l) { return l.seen && l.setOut->laid(); });
    if (!anything) return;
    std::int64_t fittings = 0;
    for (const OpeningName& o : facts.openings)
        if (isFitting(o.kind) && o.treatment != Treatment::LeaveCovered) fittings += o.count;
    if (fittings > 0)
        steps.push_back(
            withEffort({.key = "fittings", .kind = StepKind::FitFittings, .facts = {{"count", fittings}}}, facts));
    Mm gap;
    for (const LayerFacts& l : facts.layers)
        if (const SetOutFamily* f = findFamily(l.product->family); f && l.seen && findField(f->ruleFields, "gap"))
            gap = {valueOf(*l.rules, f->ruleFields, "gap")};
    steps.push_back(withEffort(
        {.key = "trims", .kind = StepKind::Trims, .facts = {{"length", facts.edgeLength}, {"gap", gap}}}, facts));
}

} // namespace

std::vector<FitStep> fitSteps(FitFacts facts, const HourRates& rates) {
    for (LayerFacts& layer : facts.layers)
        if (const Family* family = familyOf(layer.product->family)) {
            layer.fixing = family->fixing;
            layer.role = family->product.role;
            layer.floats = family->laid.floats;
        }
    std::vector<std::vector<FitStep>> own = byLayer(facts, rates);
    InOrder order(facts);
    for (std::size_t k = 0; k < facts.layers.size(); ++k) {
        if (coatsLoose(facts, k + 1 < facts.layers.size() ? k + 1 : 0)) {
            for (FitStep& step : own[k + 1]) {
                step.effort.place = WorkPlace::Yard;
                step.effort.dry = true;
                step.effort.fumes.reset();
            }
            order.coats(std::move(own[k + 1]));
            own[k + 1].clear();
        }
        if (!own[k].empty()) order.add(k, std::move(own[k]));
    }
    std::vector<FitStep> steps = order.all();
    finishOff(facts, steps);
    return steps;
}

} // namespace westrum
