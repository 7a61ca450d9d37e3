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

bool alike(const Region& a, const Region& b) {
    if (a.rings.size() != b.rings.size()) return false;
    for (std::size_t r = 0; r < a.rings.size(); ++r) {
        if (a.rings[r].size() != b.rings[r].size()) return false;
        for (std::size_t i = 0; i < a.rings[r].size(); ++i)
            if (distance(a.rings[r][i], b.rings[r][i]) > 0.5) return false;
    }
    return true;
}

} // namespace

double Cutting::kerf() const {
    switch (p_.form) {
    case StockForm::Lengths: return barOf(p_.product).kerf.value;
    case StockForm::Sheets: return sheetOf(p_.product).kerf.value;
    case StockForm::Roll: return 0;
    }
    return 0;
}

CutItem Cutting::itemOf(std::size_t s) const {
    const CutStock& stock = stock_[s];
    CutItem item;
    item.stock = stock.id;
    item.name = stock.name;
    item.lengthMm = stock.lengthMm;
    item.widthMm = stock.widthMm;
    item.shape = stock.shape;
    item.rack = stock.rack;
    item.kerfMm = kerf();
    item.price = stock.price;
    return item;
}

void Cutting::settle() {
    stock_ = p_.stock;
    std::vector<char> placed(p_.pieces.size(), 0);
    for (const CutItem& item : p_.decided)
        for (const LyingPiece& lies : item.pieces)
            if (lies.piece >= 0) placed[std::size_t(lies.piece)] = 1;
    for (const KeptItem& kept : p_.kept) {
        const auto found =
            std::find_if(stock_.begin(), stock_.end(), [&](const CutStock& s) { return s.id == kept.stock; });
        std::vector<LyingPiece> pieces;
        for (const KeptPiece& k : kept.pieces) {
            const int i = find(k.piece);
            // What changed since, or has a place already, is no longer that piece.
            const bool same = i >= 0 && !placed[std::size_t(i)] && alike(piece(i).shape, k.shape);
            if (!same && !kept.locked) continue;
            LyingPiece lies{same ? i : -1, k.piece,       i >= 0 ? piece(i).name : k.name,
                            k.at,          k.rotationRad, shapeAt(k.shape, k.rotationRad, k.at),
                            true,          k.cut};
            if (same) placed[std::size_t(i)] = 1;
            pieces.push_back(std::move(lies));
        }
        if (kept.locked) {
            CutItem item = found != stock_.end() ? itemOf(std::size_t(found - stock_.begin())) : CutItem{};
            if (found == stock_.end()) {
                item.stock = kept.stock;
                item.name = p_.product.name;
                item.kerfMm = kerf();
            } else if (found->count) {
                found->count = std::max(0, *found->count - 1);
            }
            item.lengthMm = kept.lengthMm;
            item.widthMm = kept.widthMm;
            item.locked = true;
            item.pieces = std::move(pieces);
            result_.items.push_back(std::move(item));
        } else if (!pieces.empty()) {
            if (found == stock_.end()) {
                for (const LyingPiece& l : pieces) placed[std::size_t(l.piece)] = 0; // its stock is gone: so is the pin
                continue;
            }
            pinned_.push_back({std::size_t(found - stock_.begin()), std::move(pieces), kept});
        }
    }
    for (std::size_t i = 0; i < p_.pieces.size(); ++i)
        if (!placed[i]) open_.push_back(int(i));
}

std::vector<std::vector<int>> Cutting::freeOf(const std::vector<Kind>& kinds) const {
    const std::set<int> open(open_.begin(), open_.end());
    std::vector<std::vector<int>> free(kinds.size());
    for (std::size_t k = 0; k < kinds.size(); ++k)
        for (auto i = kinds[k].members.rbegin(); i != kinds[k].members.rend(); ++i)
            if (open.contains(*i)) free[k].push_back(*i);
    return free;
}

std::vector<double> Cutting::prices() const {
    const bool all = priced();
    std::vector<double> list;
    for (const CutStock& s : stock_)
        list.push_back(s.rack ? 0
                       : all  ? double(s.price->minor)
                              : s.lengthMm * (p_.form == StockForm::Lengths ? 1 : s.widthMm));
    return list;
}

bool Cutting::priced() const {
    return std::all_of(stock_.begin(), stock_.end(), [](const CutStock& s) { return s.rack || s.price; });
}

bool Cutting::pieceOut(const CuttingFaultAt& fault, const std::vector<Kind>& kinds) {
    if (fault.index >= kinds.size()) return false;
    const std::set<int> out(kinds[fault.index].members.begin(), kinds[fault.index].members.end());
    trouble(fault.fault, *out.begin());
    std::erase_if(open_, [&](int i) { return out.contains(i); });
    for (Pinned& item : pinned_) std::erase_if(item.pieces, [&](const LyingPiece& l) { return out.contains(l.piece); });
    std::erase_if(pinned_, [](const Pinned& item) { return item.pieces.empty(); });
    return true;
}

bool Cutting::stockOut(const CuttingFaultAt& fault, std::size_t stock) {
    if (stock >= stock_.size()) return false;
    trouble(fault.fault, stock_[stock].name);
    stock_.erase(stock_.begin() + std::ptrdiff_t(stock));
    for (std::size_t i = pinned_.size(); i-- > 0;) {
        if (pinned_[i].stock == stock) {
            for (const LyingPiece& l : pinned_[i].pieces) open_.push_back(l.piece);
            pinned_.erase(pinned_.begin() + std::ptrdiff_t(i));
        } else if (pinned_[i].stock > stock) {
            --pinned_[i].stock;
        }
    }
    return true;
}

bool Cutting::pinOut(const CuttingFaultAt& fault, std::size_t pinned) {
    if (pinned >= pinned_.size()) return false;
    trouble(fault.fault, pinned_[pinned].pieces.back().name);
    for (const LyingPiece& l : pinned_[pinned].pieces) open_.push_back(l.piece);
    pinned_.erase(pinned_.begin() + std::ptrdiff_t(pinned));
    return true;
}

void Cutting::tellBound(ProductCut& answer, double leastCost) const {
    const std::vector<double> price = prices();
    double dearest = 0; // so many of these at least
    for (std::size_t s = 0; s < stock_.size(); ++s)
        if (!stock_[s].rack) dearest = std::max(dearest, price[s]);
    if (dearest > 0) answer.leastItems = int(std::ceil(leastCost / dearest - 1e-9));
    if (!priced()) return;
    for (const CutStock& s : stock_)
        if (s.price) answer.leastCost = Money{std::int64_t(std::ceil(leastCost - 1e-6)), s.price->currency};
}

ProductCut Cutting::planned(const Effort& effort, const std::function<void(const ProductCut&)>& progress) {
    switch (p_.form) {
    case StockForm::Lengths: return lengths(effort, progress);
    case StockForm::Sheets: return sheets(effort, progress);
    case StockForm::Roll: return roll(effort, progress);
    }
    return result_;
}

class Cutting::LengthsCut {
public:
    explicit LengthsCut(Cutting& cutting) : c_(cutting) {
        problem.kerfMm = c_.kerf();
        problem.endTrimMm = barOf(c_.p_.product).endTrim.value;
    }

    LengthsProblem problem;

    /// Builds the problem and takes out what cannot be planned. False: nothing can be.
    bool settle() {
        return withoutFaults([this] { return build(); },
                             [this](const CuttingFaultAt& f) { return c_.pieceOut(f, kinds_); },
                             [this](const CuttingFaultAt& f) { return c_.stockOut(f, f.index); },
                             [](const CuttingFaultAt&) { return false; }, c_.result_.troubles);
    }

    [[nodiscard]] ProductCut answerOf(const LengthsPlan& plan) const {
        ProductCut answer = c_.result_;
        std::vector<std::size_t> next(kinds_.size(), 0);
        std::vector<std::vector<std::size_t>> onRest(c_.pinned_.size());
        for (const CutBar& bar : plan.bars)
            if (bar.stock >= c_.stock_.size()) onRest[restItem_[bar.stock - c_.stock_.size()]] = bar.pieces;
        for (std::size_t i = 0; i < c_.pinned_.size(); ++i) {
            CutItem item = c_.itemOf(c_.pinned_[i].stock);
            double at = problem.endTrimMm;
            std::vector<LyingPiece> pins = c_.pinned_[i].pieces;
            std::stable_sort(pins.begin(), pins.end(),
                             [](const LyingPiece& a, const LyingPiece& b) { return a.at.x < b.at.x; });
            for (LyingPiece& pin : pins) put(item, at, pin.piece).pinned = true;
            fill(item, at, onRest[i], next);
            answer.items.push_back(std::move(item));
        }
        for (const CutBar& bar : plan.bars) {
            if (bar.stock >= c_.stock_.size()) continue;
            CutItem item = c_.itemOf(bar.stock);
            double at = problem.endTrimMm;
            fill(item, at, bar.pieces, next);
            answer.items.push_back(std::move(item));
        }
        for (const std::size_t kind : plan.unplaced) answer.unplaced.push_back(kinds_[kind].members[next[kind]++]);
        if (plan.lowerBoundCost > 0 || plan.proven) {
            double pinnedPrice = 0;
            for (const Pinned& item : c_.pinned_) pinnedPrice += price_[item.stock];
            c_.tellBound(answer, plan.lowerBoundCost + pinnedPrice);
            answer.proven = plan.proven && plan.unplaced.empty();
        }
        return answer;
    }

private:
    /// What is pinned to a bar is cut first; the rest of that bar is stock of its own that costs no more.
    [[nodiscard]] double restOf(const Pinned& item) const {
        double rest = c_.stock_[item.stock].lengthMm;
        for (const LyingPiece& l : item.pieces) rest -= c_.piece(l.piece).lengthMm() + problem.kerfMm;
        return rest;
    }

    CuttingFaults build() {
        // Pins that overfill their bar are let go.
        for (std::size_t i = c_.pinned_.size(); i-- > 0;)
            if (restOf(c_.pinned_[i]) + problem.kerfMm < 2 * problem.endTrimMm - 1e-6)
                c_.pinOut({CuttingFault::LockedDoesNotFit}, i);
        price_ = c_.prices();
        problem.stock.clear();
        problem.pieces.clear();
        restItem_.clear();
        for (std::size_t s = 0; s < c_.stock_.size(); ++s) {
            std::optional<int> count = c_.stock_[s].count;
            for (const Pinned& item : c_.pinned_)
                if (item.stock == s && count) count = std::max(0, *count - 1);
            problem.stock.push_back({c_.stock_[s].lengthMm, price_[s], count});
        }
        for (std::size_t i = 0; i < c_.pinned_.size(); ++i)
            if (const double rest = restOf(c_.pinned_[i]); rest > 2 * problem.endTrimMm + 1) {
                problem.stock.push_back({rest, 0, 1});
                restItem_.push_back(i);
            }
        kinds_ = c_.kinds([](const CutPiece& a, const CutPiece& b) { return a.lengthMm() == b.lengthMm(); }, false);
        for (const Kind& kind : kinds_)
            problem.pieces.push_back({c_.piece(kind.members.front()).lengthMm(), int(kind.members.size())});
        return c_.open_.empty() ? CuttingFaults{} : faultsOf(problem);
    }

    LyingPiece& put(CutItem& item, double& at, int piece) const {
        item.pieces.push_back(c_.lyingAt(piece, 0, {at, 0}));
        at += c_.piece(piece).lengthMm() + problem.kerfMm;
        return item.pieces.back();
    }
    /// @param next  of each kind, how many are handed out
    void fill(CutItem& item, double& at, const std::vector<std::size_t>& bar, std::vector<std::size_t>& next) const {
        for (const std::size_t kind : bar) put(item, at, kinds_[kind].members[next[kind]++]);
    }

    Cutting& c_;
    std::vector<Kind> kinds_;
    std::vector<double> price_;
    std::vector<std::size_t> restItem_; ///< of each further stock: place among the pinned items
};

ProductCut Cutting::lengths(const Effort& effort, const std::function<void(const ProductCut&)>& progress) {
    LengthsCut cut(*this);
    const bool sound = cut.settle();
    if (!sound || open_.empty()) {
        LengthsPlan nothing;
        nothing.proven = sound;
        ProductCut answer = cut.answerOf(nothing);
        if (!sound) answer.unplaced = open_;
        return answer;
    }
    return cut.answerOf(cutLengths(cut.problem, effort, [&](const LengthsPlan& better) {
        if (!progress) return;
        ProductCut answer = cut.answerOf(better);
        finish(answer);
        progress(answer);
    }));
}

ProductCut Cutting::sheets(const Effort& effort, const std::function<void(const ProductCut&)>& progress) {
    const SheetGoods goods = sheetOf(p_.product);
    SheetsProblem problem;
    problem.kerfMm = goods.kerf.value;
    problem.edgeTrimMm = goods.edgeTrim.value;
    std::vector<Kind> kinds;
    const auto build = [&] {
        const std::vector<double> price = prices();
        problem.stock.clear();
        problem.pieces.clear();
        problem.fixed.clear();
        for (std::size_t s = 0; s < stock_.size(); ++s)
            problem.stock.push_back({stock_[s].lengthMm, stock_[s].widthMm, price[s], stock_[s].count});
        kinds = this->kinds([](const CutPiece& a, const CutPiece& b) {
            return a.lengthMm() == b.lengthMm() && a.widthMm() == b.widthMm() && a.mayTurn == b.mayTurn &&
                   a.wants == b.wants;
        });
        std::map<int, std::size_t> kindOf;
        for (std::size_t k = 0; k < kinds.size(); ++k) {
            const CutPiece& first = piece(kinds[k].members.front());
            problem.pieces.push_back(
                {first.lengthMm(), first.widthMm(), int(kinds[k].members.size()), first.mayTurn || !goods.grain});
            for (const int i : kinds[k].members) kindOf[i] = k;
        }
        for (const Pinned& item : pinned_) {
            CutSheet sheet{item.stock, {}, false};
            for (const LyingPiece& l : item.pieces)
                sheet.pieces.push_back({kindOf[l.piece], l.at.x, l.at.y, std::abs(l.rotationRad) > 0.1});
            problem.fixed.push_back(std::move(sheet));
        }
        return faultsOf(problem);
    };
    if (!withoutFaults(
            build, [&](const CuttingFaultAt& f) { return pieceOut(f, kinds); },
            [&](const CuttingFaultAt& f) { return stockOut(f, f.index); },
            [&](const CuttingFaultAt& f) { return pinOut(f, f.index); }, result_.troubles)) {
        ProductCut answer = result_;
        answer.unplaced = open_;
        return answer;
    }
    const auto answerOf = [&](const SheetsPlan& plan) {
        ProductCut answer = result_;
        std::vector<std::vector<int>> members = freeOf(kinds);
        const auto take = [&](std::size_t kind) {
            const int i = members[kind].back();
            members[kind].pop_back();
            return i;
        };
        for (std::size_t s = 0; s < plan.sheets.size(); ++s) {
            const Pinned* pins = s < pinned_.size() ? &pinned_[s] : nullptr;
            const CutSheet sheet = ontoEdges(plan.sheets[s], kinds, problem, pins != nullptr);
            CutItem item = itemOf(sheet.stock);
            for (std::size_t n = 0; n < sheet.pieces.size(); ++n) {
                const PlacedRectangle& r = sheet.pieces[n];
                const bool pinned = pins && n < pins->pieces.size();
                LyingPiece lies =
                    lyingAt(pinned ? pins->pieces[n].piece : take(r.piece), r.turned ? kQuarter : 0, {r.x, r.y});
                lies.pinned = pinned;
                lies.onEdge = wantedOnEdge(sheet, n, kinds, problem);
                item.pieces.push_back(std::move(lies));
            }
            item.left = leftOfSheet(problem, sheet, keepRuleOf(p_.form));
            item.order = orderOfSheet(item, problem, sheet);
            answer.items.push_back(std::move(item));
        }
        for (const std::size_t kind : plan.unplaced) answer.unplaced.push_back(take(kind));
        tellBound(answer, plan.lowerBoundCost);
        answer.proven = plan.proven && plan.unplaced.empty();
        return answer;
    };
    const SheetsPlan plan = cutSheets(problem, effort, [&](const SheetsPlan& better) {
        if (!progress) return;
        ProductCut answer = answerOf(better);
        finish(answer);
        progress(answer);
    });
    return answerOf(plan);
}

/// A piece of a sheet and which edges it wants, as it lies there: turned by a quarter to the left, its left is below.
EdgeWish Cutting::wishOf(const PlacedRectangle& r, const std::vector<Kind>& kinds) const {
    const CutPiece& p = piece(kinds[r.piece].members.front());
    const FactoryEdges& w = p.wants;
    if (!r.turned) return {r.x, r.y, p.lengthMm(), p.widthMm(), w};
    return {r.x, r.y, p.widthMm(), p.lengthMm(), {.left = w.far, .right = w.near, .near = w.left, .far = w.right}};
}

/// What is pinned lies where a person put it; a squared-off sheet has no edge of its own left.
CutSheet Cutting::ontoEdges(CutSheet sheet, const std::vector<Kind>& kinds, const SheetsProblem& problem,
                            bool pinned) const {
    if (pinned || problem.edgeTrimMm > 0) return sheet;
    std::vector<EdgeWish> wishes;
    for (const PlacedRectangle& r : sheet.pieces) wishes.push_back(wishOf(r, kinds));
    const CutStock& stock = stock_[sheet.stock];
    toFactoryEdges(wishes, stock.lengthMm, stock.widthMm, problem.kerfMm);
    for (std::size_t n = 0; n < wishes.size(); ++n) {
        sheet.pieces[n].x = wishes[n].x;
        sheet.pieces[n].y = wishes[n].y;
    }
    return sheet;
}

FactoryEdges Cutting::wantedOnEdge(const CutSheet& sheet, std::size_t n, const std::vector<Kind>& kinds,
                                   const SheetsProblem& problem) const {
    if (problem.edgeTrimMm > 0) return {};
    const CutStock& stock = stock_[sheet.stock];
    return onEdges(wishOf(sheet.pieces[n], kinds), stock.lengthMm, stock.widthMm);
}

/// The strokes round what is sawn out of a bar's pieces.
void Cutting::addOutlines(CutItem& bar) const {
    for (std::size_t i = 0; i < bar.pieces.size(); ++i)
        if (const int n = bar.pieces[i].piece; n >= 0 && !piece(n).cutAway.empty())
            bar.order.push_back(outlineStep(piece(n), int(i), boundsOf(bar.pieces[i].shape).low));
}

/// Figures, orders and leftovers that do not depend on the engine.
void Cutting::finish(ProductCut& answer) const {
    const KeepRule rule = keepRuleOf(p_.form);
    const bool bars = p_.form == StockForm::Lengths;
    const double endTrim = barOf(p_.product).endTrim.value;
    std::optional<Money> cost;
    bool priced = true;
    std::int64_t rolls = 0; // in minor units
    CutFigures f;
    // An offcut that serves is a leftover no more, and was bought with its plank.
    for (const CutItem& item : answer.items)
        for (CutItem& plank : answer.items)
            if (plank.decided && !plank.pieces.empty())
                for (std::size_t n = plank.left.size(); n-- > 0;)
                    if (item.stock == offcutId(plank, n)) plank.left.erase(plank.left.begin() + std::ptrdiff_t(n));
    for (CutItem& item : answer.items) {
        if (bars && !item.decided) {
            item.order = orderOfBar(item, endTrim);
            addOutlines(item);
            double end = endTrim;
            for (const LyingPiece& l : item.pieces) end = std::max(end, boundsOf(l.shape).high.x + item.kerfMm);
            item.left.clear();
            if (const double rest = item.lengthMm - endTrim - end; rest >= rule.leastLengthMm)
                item.left.push_back({end, 0, rest, item.widthMm});
        } else if (item.locked && p_.form == StockForm::Sheets && !item.decided) {
            SheetsProblem own{
                item.kerfMm, sheetOf(p_.product).edgeTrim.value, {{item.lengthMm, item.widthMm, 0, {}}}, {}, {}};
            CutSheet sheet;
            for (const LyingPiece& l : item.pieces) {
                const Bounds b = boundsOf(l.shape);
                sheet.pieces.push_back({own.pieces.size(), b.low.x, b.low.y, false});
                own.pieces.push_back({b.width(), b.height(), 1, false});
            }
            item.left = leftOfSheet(own, sheet, rule);
            item.order = orderOfSheet(item, own, sheet);
        } else if (item.locked && p_.form == StockForm::Roll) {
            item.order = orderOfRoll(item);
            item.left = leftOfRun(item);
            if (!item.rack) { // cut off already: no plan can do without it
                double end = 0;
                for (const LyingPiece& l : item.pieces) end = std::max(end, boundsOf(l.shape).high.x);
                answer.rollMm += end;
                answer.leastRollMm += end;
            }
        }
        const double size = bars ? item.lengthMm : item.lengthMm * item.widthMm;
        if (!item.stock.starts_with(kOffcutOf))
            (item.rack ? f.fromRack : f.bought) += item.shape.empty() ? size : areaMm2(item.shape);
        // What is sawn out of a panel was counted with it: a panel is cut as the rectangle that holds it.
        const bool counted = p_.form == StockForm::Sheets && item.stock.starts_with(kOffcutOf);
        for (const LyingPiece& l : item.pieces)
            if (!counted) f.used += bars ? boundsOf(l.shape).width() : areaMm2(l.shape);
        for (const LeftRectangle& l : item.left) f.kept += bars ? l.widthMm : l.widthMm * l.heightMm;
        if (item.rack || item.decided) continue;
        if (p_.form == StockForm::Roll) {
            answer.rollToBuyMm += item.lengthMm;
            if (item.price) rolls += std::llround(double(item.price->minor) * item.lengthMm / 1000);
        } else {
            ++answer.itemsToBuy;
            if (item.price) cost = cost ? *cost + *item.price : *item.price;
        }
        if (!item.price) priced = false;
        if (item.price && p_.form == StockForm::Roll) cost = Money{rolls, item.price->currency};
    }
    if (bars && !p_.decided.empty()) {
        for (const CutItem& item : answer.items)
            if (item.decided) ++answer.itemsToBuy;
        answer.leastItems += p_.leastDecided;
        answer.proven = (answer.proven || open_.empty()) && answer.itemsToBuy == answer.leastItems;
    } else {
        // What is locked has been bought: it counts among what no plan can do without.
        for (const CutItem& item : answer.items)
            if (item.locked && !item.rack && !item.decided) {
                ++answer.leastItems;
                if (answer.leastCost && item.price) answer.leastCost = *answer.leastCost + *item.price;
            }
    }
    answer.leastItems = std::min(answer.leastItems, answer.itemsToBuy);
    if (priced) answer.cost = cost;
    answer.figures = f;
}

Region shapeAt(const Region& shape, double rotationRad, Point at) {
    const Region lies = turned(shape, rotationRad);
    return moved(lies, at - boundsOf(lies).low);
}

Ring onStock(const CutPiece& piece, const LyingPiece& lies, const Ring& line) {
    const Point low = boundsOf(turned(piece.shape, lies.rotationRad)).low;
    Ring there = turned(line, lies.rotationRad);
    for (Point& p : there) p = p + (lies.at - low);
    return there;
}

std::string offcutId(const CutItem& plank, std::size_t left) {
    return std::string(kOffcutOf) + plank.pieces.front().key + "/" + std::to_string(std::lround(plank.left[left].x)) +
           "/" + std::to_string(std::lround(plank.left[left].widthMm));
}

ProductCut cutProduct(const CutProblem& problem, const Effort& effort,
                      const std::function<void(const ProductCut&)>& progress) {
    return Cutting(problem).run(effort, progress);
}

} // namespace westrum
