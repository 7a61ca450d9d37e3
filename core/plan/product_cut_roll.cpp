#include "core/plan/product_cutting.h"

#include "core/catalogue/family.h"

#include "core/catalogue/plank.h"
#include "core/cutting/lengths.h"
#include "core/cutting/shape_stock.h"
#include "core/cutting/sheets.h"
#include "core/geometry/boolean.h"
#include "core/plan/cut_order.h"
#include "core/units/count.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <numeric>
#include <set>

namespace westrum {
namespace {

constexpr double kQuarter = std::numbers::pi / 2;

} // namespace

class Cutting::RollLayout {
public:
    explicit RollLayout(Cutting& cutting) : c_(cutting), goods_(rollOf(cutting.p_.product)) {
        problem.gapMm = goods_.gap.value;
        problem.repeat = {goods_.repeatAlong.value, goods_.repeatAcross.value, {}};
        const int steps = goods_.turning == RollTurning::HalfTurn ? 2 : goods_.turning == RollTurning::Quarter ? 4 : 24;
        if (goods_.turning != RollTurning::OneWay)
            for (int i = 1; i < steps; ++i) turns_.push_back(2 * std::numbers::pi * i / steps);
    }

    StockedShapes problem;

    /// Builds the problem and takes out what cannot be planned. False: nothing can be.
    bool settle() {
        return withoutFaults(
            [this] { return build(); }, [this](const CuttingFaultAt& f) { return c_.pieceOut(f, kinds_); },
            [this](const CuttingFaultAt& f) { return f.index < order_.size() && c_.stockOut(f, order_[f.index]); },
            [this](const CuttingFaultAt& f) {
                const auto bad = std::find_if(c_.pinned_.begin(), c_.pinned_.end(),
                                              [&](const Pinned& item) { return placeOf(item.stock) == f.index; });
                return c_.pinOut(f, std::size_t(bad - c_.pinned_.begin()));
            },
            c_.result_.troubles);
    }

    [[nodiscard]] ProductCut answerOf(const StockedPlan& plan) const {
        ProductCut answer = c_.result_;
        std::vector<std::vector<int>> members = c_.freeOf(kinds_);
        std::set<std::size_t> filled; // stock whose pins lie on its first item
        for (const UsedShapeStock& used : plan.used) {
            const std::size_t s = order_[used.stock];
            CutItem item = itemOf(used, filled.insert(s).second, members);
            if (c_.stock_[s].lengthMm <= 0) {
                item.lengthMm = double(roundUp(used.plan.lengthMm / goods_.step.value)) * goods_.step.value;
                answer.rollMm = used.plan.lengthMm;
                answer.leastRollMm = used.plan.lowerBoundMm;
                answer.proven = used.plan.proven && !rackUsed();
            }
            item.order = orderOfRoll(item);
            item.left = c_.leftOfRun(item);
            answer.items.push_back(std::move(item));
        }
        if (rackUsed()) answer.leastRollMm = std::min(answer.rollMm, leastWithRack(answer));
        for (const std::size_t kind : plan.unplaced) {
            answer.unplaced.push_back(members[kind].back());
            members[kind].pop_back();
        }
        return answer;
    }

private:
    [[nodiscard]] std::size_t placeOf(std::size_t s) const {
        return std::size_t(std::find(order_.begin(), order_.end(), s) - order_.begin());
    }
    [[nodiscard]] bool rackUsed() const {
        return std::any_of(c_.stock_.begin(), c_.stock_.end(), [](const CutStock& s) { return s.lengthMm > 0; });
    }

    void takeStock() {
        order_.resize(c_.stock_.size());
        std::iota(order_.begin(), order_.end(), std::size_t(0));
        std::stable_sort(order_.begin(), order_.end(), [&](std::size_t a, std::size_t b) {
            const auto rank = [&](std::size_t s) { return c_.stock_[s].rack ? 0 : c_.stock_[s].lengthMm > 0 ? 1 : 2; };
            return rank(a) < rank(b);
        });
        problem.stock.clear();
        for (const std::size_t s : order_) {
            const CutStock& from = c_.stock_[s];
            ShapeStock stock = from.shape.empty() ? ShapeStock{.widthMm = from.widthMm} : offcutStock(from.shape);
            if (from.lengthMm > 0) stock.lengthMm = from.lengthMm;
            stock.count = from.lengthMm > 0 ? from.count : std::optional(1);
            problem.stock.push_back(std::move(stock));
        }
    }

    [[nodiscard]] ShapePiece shapeOf(const Kind& kind) {
        const CutPiece& first = c_.piece(kind.members.front());
        ShapePiece shape;
        shape.outline = first.shape.rings.empty() ? Ring{} : first.shape.rings.front();
        for (std::size_t r = 1; r < first.shape.rings.size(); ++r) shape.holes.push_back(first.shape.rings[r]);
        // The engine lays a piece's origin on the pattern.
        for (Point& q : shape.outline) q = q + first.patternAt;
        for (Ring& hole : shape.holes)
            for (Point& q : hole) q = q + first.patternAt;
        // A loose piece of which a person says that it may turn, turns as far as its corners are square.
        static const std::vector<double> quarters{0, kQuarter, 2 * kQuarter, 3 * kQuarter};
        shape.rotationsRad = first.mayTurn && turns_.size() < 4 ? quarters : turns_;
        shape.count = int(kind.members.size());
        shape.offPattern = first.offPattern;
        if (!first.together.empty())
            shape.group = groups_.try_emplace(first.together, int(groups_.size())).first->second;
        return shape;
    }

    CuttingFaults build() {
        takeStock();
        problem.pieces.clear();
        problem.fixed.clear();
        kinds_ = c_.kinds([](const CutPiece& a, const CutPiece& b) {
            return a.shape == b.shape && a.mayTurn == b.mayTurn && a.together == b.together &&
                   a.patternAt == b.patternAt && a.offPattern == b.offPattern;
        });
        for (const Kind& kind : kinds_) problem.pieces.push_back(shapeOf(kind));
        for (const Pinned& item : c_.pinned_)
            for (const LyingPiece& l : item.pieces) {
                const std::size_t kind = kindOf(l.piece);
                const Point low = boundsOf(lying(problem.pieces[kind], {0, l.rotationRad, {}})).low;
                problem.fixed.push_back({placeOf(item.stock), {kind, l.rotationRad, l.at - low}});
            }
        return faultsOf(problem);
    }

    [[nodiscard]] std::size_t kindOf(int piece) const {
        for (std::size_t k = 0; k < kinds_.size(); ++k)
            if (std::find(kinds_[k].members.begin(), kinds_[k].members.end(), piece) != kinds_[k].members.end())
                return k;
        return kinds_.size();
    }

    /// @param first  whether the pins of its stock lie on it  @param members  what is handed out is taken from them
    [[nodiscard]] CutItem itemOf(const UsedShapeStock& used, bool first, std::vector<std::vector<int>>& members) const {
        const std::size_t s = order_[used.stock];
        CutItem item = c_.itemOf(s);
        std::vector<const LyingPiece*> pins;
        for (const Pinned& p : c_.pinned_)
            if (p.stock == s && first)
                for (const LyingPiece& l : p.pieces) pins.push_back(&l);
        for (const PlacedShape& placed : used.plan.placements) {
            const Point at = boundsOf(lying(problem.pieces[placed.piece], placed)).low;
            const auto pin = std::find_if(pins.begin(), pins.end(), [&](const LyingPiece* l) {
                return kindOf(l->piece) == placed.piece && distance(l->at, at) < 0.01;
            });
            LyingPiece put;
            if (pin != pins.end()) {
                put = c_.lyingAt((*pin)->piece, placed.rotationRad, at);
                put.pinned = true;
                pins.erase(pin);
            } else {
                if (members[placed.piece].empty()) continue;
                put = c_.lyingAt(members[placed.piece].back(), placed.rotationRad, at);
                members[placed.piece].pop_back();
            }
            item.pieces.push_back(std::move(put));
        }
        return item;
    }

    /// Another share between rack and roll might be shorter: no bound but by area.
    [[nodiscard]] double leastWithRack(const ProductCut& answer) const {
        double area = 0;
        for (const CutItem& item : answer.items)
            for (const LyingPiece& l : item.pieces) area += item.locked || item.decided ? 0 : areaMm2(l.shape);
        for (const CutStock& s : c_.stock_)
            if (s.lengthMm > 0) area -= s.lengthMm * s.widthMm * s.count.value_or(1);
        return std::max(0.0, area / goods_.usable().value);
    }

    Cutting& c_;
    RollGoods goods_;
    std::vector<double> turns_{0};
    std::vector<std::size_t> order_; ///< of the stock: the rack first, what has no end last
    std::vector<Kind> kinds_;
    std::map<std::string, int> groups_;
};

ProductCut Cutting::roll(const Effort& effort, const std::function<void(const ProductCut&)>& progress) {
    RollLayout layout(*this);
    if (!layout.settle()) {
        ProductCut answer = result_;
        answer.unplaced = open_;
        return answer;
    }
    const auto tell = [&](const StockedPlan& better) {
        ProductCut answer = layout.answerOf(better);
        finish(answer);
        progress(answer);
    };
    return layout.answerOf(
        placeOnStock(layout.problem, effort, progress ? tell : std::function<void(const StockedPlan&)>{}));
}

std::vector<LeftRectangle> Cutting::leftOfRun(const CutItem& run) const {
    if (first_) return {};
    const Region whole{{rectangle(0, 0, run.lengthMm, run.widthMm)}};
    ShapesProblem own{.widthMm = run.widthMm, .gapMm = rollOf(p_.product).gap.value};
    ShapesPlan shown{.lengthMm = run.lengthMm};
    for (const LyingPiece& l : run.pieces) {
        ShapePiece piece{.outline = l.shape.rings.front()};
        piece.holes.assign(l.shape.rings.begin() + 1, l.shape.rings.end());
        shown.placements.push_back({own.pieces.size(), 0, {}});
        own.pieces.push_back(std::move(piece));
    }
    if (!run.shape.empty())
        for (Region& missing : partsOf(difference(whole, run.shape))) own.forbidden.push_back(std::move(missing));
    // Nothing stays whole across a cut that goes right across.
    for (const CutStep& step : run.order)
        if (step.kind == CutStep::Kind::Across)
            own.forbidden.push_back(
                {{{{step.atMm, 0}, {step.atMm + 1, 0}, {step.atMm + 1, run.widthMm}, {step.atMm, run.widthMm}}}});
    return leftoversWorthKeeping(own, shown, keepRuleOf(p_.form));
}

} // namespace westrum
