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

ProductCut Cutting::roll(const Effort& effort, const std::function<void(const ProductCut&)>& progress) {
    const RollGoods goods = rollOf(p_.product);
    StockedShapes problem;
    problem.gapMm = goods.gap.value;
    problem.repeat = {goods.repeatAlong.value, goods.repeatAcross.value, {}};
    std::vector<std::size_t> order; // of the stock: the rack first, what has no end last
    const auto placeOf = [&](std::size_t s) {
        return std::size_t(std::find(order.begin(), order.end(), s) - order.begin());
    };
    const auto takeStock = [&] {
        order.resize(stock_.size());
        std::iota(order.begin(), order.end(), std::size_t(0));
        std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
            const auto rank = [&](std::size_t s) { return stock_[s].rack ? 0 : stock_[s].lengthMm > 0 ? 1 : 2; };
            return rank(a) < rank(b);
        });
        problem.stock.clear();
        for (const std::size_t s : order) {
            const CutStock& from = stock_[s];
            ShapeStock stock = from.shape.empty() ? ShapeStock{.widthMm = from.widthMm} : offcutStock(from.shape);
            if (from.lengthMm > 0) stock.lengthMm = from.lengthMm;
            stock.count = from.lengthMm > 0 ? from.count : std::optional(1);
            problem.stock.push_back(std::move(stock));
        }
    };
    std::vector<double> turns{0};
    const int steps = goods.turning == RollTurning::HalfTurn ? 2 : goods.turning == RollTurning::Quarter ? 4 : 24;
    if (goods.turning != RollTurning::OneWay)
        for (int i = 1; i < steps; ++i) turns.push_back(2 * std::numbers::pi * i / steps);
    const std::vector<double> quarters{0, kQuarter, 2 * kQuarter, 3 * kQuarter};
    std::vector<Kind> kinds;
    std::map<std::string, int> groups;
    const auto build = [&] {
        takeStock();
        problem.pieces.clear();
        problem.fixed.clear();
        kinds = this->kinds([](const CutPiece& a, const CutPiece& b) {
            return a.shape == b.shape && a.mayTurn == b.mayTurn && a.together == b.together &&
                   a.patternAt == b.patternAt && a.offPattern == b.offPattern;
        });
        std::map<int, std::size_t> kindOf;
        for (std::size_t k = 0; k < kinds.size(); ++k) {
            const CutPiece& first = piece(kinds[k].members.front());
            ShapePiece shape;
            shape.outline = first.shape.rings.empty() ? Ring{} : first.shape.rings.front();
            for (std::size_t r = 1; r < first.shape.rings.size(); ++r) shape.holes.push_back(first.shape.rings[r]);
            // The engine lays a piece's origin on the pattern.
            for (Point& q : shape.outline) q = q + first.patternAt;
            for (Ring& hole : shape.holes)
                for (Point& q : hole) q = q + first.patternAt;
            shape.rotationsRad = first.mayTurn && turns.size() < 4 ? quarters : turns;
            shape.count = int(kinds[k].members.size());
            shape.offPattern = first.offPattern;
            if (!first.together.empty())
                shape.group = groups.try_emplace(first.together, int(groups.size())).first->second;
            problem.pieces.push_back(std::move(shape));
            for (const int i : kinds[k].members) kindOf[i] = k;
        }
        for (const Pinned& item : pinned_)
            for (const LyingPiece& l : item.pieces) {
                const std::size_t kind = kindOf[l.piece];
                const Point low = boundsOf(lying(problem.pieces[kind], {0, l.rotationRad, {}})).low;
                problem.fixed.push_back({placeOf(item.stock), {kind, l.rotationRad, l.at - low}});
            }
        return faultsOf(problem);
    };
    if (!withoutFaults(
            build, [&](const CuttingFaultAt& f) { return pieceOut(f, kinds); },
            [&](const CuttingFaultAt& f) { return f.index < order.size() && stockOut(f, order[f.index]); },
            [&](const CuttingFaultAt& f) {
                const auto bad = std::find_if(pinned_.begin(), pinned_.end(),
                                              [&](const Pinned& item) { return placeOf(item.stock) == f.index; });
                return pinOut(f, std::size_t(bad - pinned_.begin()));
            },
            result_.troubles)) {
        ProductCut answer = result_;
        answer.unplaced = open_;
        return answer;
    }
    const bool rackUsed = std::any_of(stock_.begin(), stock_.end(), [](const CutStock& s) { return s.lengthMm > 0; });
    const auto answerOf = [&](const StockedPlan& plan) {
        ProductCut answer = result_;
        std::vector<std::vector<int>> members = freeOf(kinds);
        std::set<std::size_t> filled; // stock whose pins lie on its first item
        const auto kindOfPiece = [&](int i) {
            for (std::size_t k = 0; k < kinds.size(); ++k)
                if (std::find(kinds[k].members.begin(), kinds[k].members.end(), i) != kinds[k].members.end()) return k;
            return kinds.size();
        };
        for (const UsedShapeStock& used : plan.used) {
            const std::size_t s = order[used.stock];
            CutItem item = itemOf(s);
            std::vector<const LyingPiece*> pins;
            for (const Pinned& p : pinned_)
                if (p.stock == s && !filled.contains(s))
                    for (const LyingPiece& l : p.pieces) pins.push_back(&l);
            filled.insert(s);
            for (const PlacedShape& placed : used.plan.placements) {
                const Region lies = lying(problem.pieces[placed.piece], placed);
                const Point at = boundsOf(lies).low;
                const auto pin = std::find_if(pins.begin(), pins.end(), [&](const LyingPiece* l) {
                    return kindOfPiece(l->piece) == placed.piece && distance(l->at, at) < 0.01;
                });
                LyingPiece put;
                if (pin != pins.end()) {
                    put = lyingAt((*pin)->piece, placed.rotationRad, at);
                    put.pinned = true;
                    pins.erase(pin);
                } else {
                    if (members[placed.piece].empty()) continue;
                    put = lyingAt(members[placed.piece].back(), placed.rotationRad, at);
                    members[placed.piece].pop_back();
                }
                item.pieces.push_back(std::move(put));
            }
            if (stock_[s].lengthMm <= 0) {
                item.lengthMm = double(roundUp(used.plan.lengthMm / goods.step.value)) * goods.step.value;
                answer.rollMm = used.plan.lengthMm;
                answer.leastRollMm = used.plan.lowerBoundMm;
                answer.proven = used.plan.proven && !rackUsed;
            }
            item.order = orderOfRoll(item);
            item.left = leftOfRun(item);
            answer.items.push_back(std::move(item));
        }
        if (rackUsed) { // another share between rack and roll might be shorter
            double area = 0;
            for (const CutItem& item : answer.items)
                for (const LyingPiece& l : item.pieces) area += item.locked || item.decided ? 0 : areaMm2(l.shape);
            for (std::size_t s = 0; s < stock_.size(); ++s)
                if (stock_[s].lengthMm > 0)
                    area -= stock_[s].lengthMm * stock_[s].widthMm * stock_[s].count.value_or(1);
            answer.leastRollMm = std::min(answer.rollMm, std::max(0.0, area / goods.usable().value));
        }
        for (const std::size_t kind : plan.unplaced) {
            answer.unplaced.push_back(members[kind].back());
            members[kind].pop_back();
        }
        return answer;
    };
    const StockedPlan plan = placeOnStock(
        problem, effort, !progress ? std::function<void(const StockedPlan&)>{} : [&](const StockedPlan& better) {
            ProductCut answer = answerOf(better);
            finish(answer);
            progress(answer);
        });
    return answerOf(plan);
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
