#include "core/plan/product_cut.h"

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

/// Common to the three forms: which pieces are still to be placed, which items are fixed, and how an answer of the
/// engine becomes items.
class Cutting {
public:
    explicit Cutting(const CutProblem& problem) : p_(problem) {
        result_.product = p_.product.id;
        result_.form = p_.form;
        result_.pieces = p_.pieces;
        result_.troubles = p_.troubles;
        result_.items = p_.decided;
        settle();
    }

    ProductCut run(const Effort& effort, const std::function<void(const ProductCut&)>& progress) {
        first_ = effort.spent(0) >= 1;
        const bool settled = open_.empty() && pinned_.empty();
        ProductCut answer = settled ? result_ : planned(effort, progress);
        if (settled) answer.proven = true; // there is nothing left to plan
        finish(answer);
        return answer;
    }

private:
    struct Kind {
        std::vector<int> members; ///< pieces that are the same to the engine
    };
    struct Pinned {
        std::size_t stock; ///< place in stock_
        std::vector<LyingPiece> pieces;
        KeptItem item;
    };

    [[nodiscard]] const CutPiece& piece(int i) const { return p_.pieces[std::size_t(i)]; }
    [[nodiscard]] int find(const std::string& key) const {
        for (std::size_t i = 0; i < p_.pieces.size(); ++i)
            if (p_.pieces[i].key == key) return int(i);
        return -1;
    }
    void trouble(CuttingFault fault, int of) { result_.troubles.push_back({fault, piece(of).name, piece(of).key}); }
    void trouble(CuttingFault fault, const std::string& name = {}) { result_.troubles.push_back({fault, name, {}}); }

    void settle();
    /// Pieces that are the same to the engine; with those that are pinned, or only those that have no place yet.
    std::vector<Kind> kinds(const auto& same, bool withPinned = true) const;
    ProductCut planned(const Effort& effort, const std::function<void(const ProductCut&)>& progress);
    ProductCut lengths(const Effort& effort, const std::function<void(const ProductCut&)>& progress);
    ProductCut sheets(const Effort& effort, const std::function<void(const ProductCut&)>& progress);
    ProductCut roll(const Effort& effort, const std::function<void(const ProductCut&)>& progress);
    void finish(ProductCut& answer) const;
    /// What of a run of roll, its order of cuts known, is worth keeping.
    [[nodiscard]] std::vector<LeftRectangle> leftOfRun(const CutItem& run) const;
    [[nodiscard]] CutItem itemOf(std::size_t stock) const;
    [[nodiscard]] LyingPiece lyingAt(int i, double rotation, Point at) const {
        return {i, piece(i).key, piece(i).name, at, rotation, shapeAt(piece(i).shape, rotation, at), false, false};
    }
    /// Price of each stock as the engine is to weigh it: in minor units, or by size where a price is missing.
    [[nodiscard]] std::vector<double> prices() const;
    /// Whether everything that can be bought has a price.
    [[nodiscard]] bool priced() const;
    /// Parts that are taken out of the plan, and told.
    bool pieceOut(const CuttingFaultAt& fault, const std::vector<Kind>& kinds);
    bool stockOut(const CuttingFaultAt& fault, std::size_t stock);
    bool pinOut(const CuttingFaultAt& fault, std::size_t pinned);
    /// Of each kind the pieces that have no fixed place, to be handed out from the back.
    [[nodiscard]] std::vector<std::vector<int>> freeOf(const std::vector<Kind>& kinds) const;
    /// The bound in items and, with prices, in money.
    void tellBound(ProductCut& answer, double leastCost) const;
    [[nodiscard]] double kerf() const;

    const CutProblem& p_;
    bool first_ = false;         ///< a first layout is counted, not cut from: what is left of its rolls is not sought
    ProductCut result_;          ///< what stands already: decided and locked items, troubles
    std::vector<int> open_;      ///< pieces without a fixed place
    std::vector<Pinned> pinned_; ///< items with pins, to be filled up
    std::vector<CutStock> stock_;
};

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

std::vector<Cutting::Kind> Cutting::kinds(const auto& same, bool withPinned) const {
    std::vector<Kind> list;
    std::vector<int> all = open_;
    for (const Pinned& item : pinned_)
        for (const LyingPiece& l : item.pieces)
            if (withPinned) all.push_back(l.piece);
    std::sort(all.begin(), all.end());
    for (const int i : all) {
        const auto k = std::find_if(list.begin(), list.end(),
                                    [&](const Kind& kind) { return same(piece(kind.members.front()), piece(i)); });
        if (k == list.end())
            list.push_back({{i}});
        else
            k->members.push_back(i);
    }
    return list;
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

std::vector<std::vector<int>> Cutting::freeOf(const std::vector<Kind>& kinds) const {
    const std::set<int> open(open_.begin(), open_.end());
    std::vector<std::vector<int>> free(kinds.size());
    for (std::size_t k = 0; k < kinds.size(); ++k)
        for (auto i = kinds[k].members.rbegin(); i != kinds[k].members.rend(); ++i)
            if (open.contains(*i)) free[k].push_back(*i);
    return free;
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

/// What a fault is about; the stock is settled before the pieces, and both before the pins.
enum class FaultOf { Stock, Piece, Pin, Whole };

FaultOf aboutWhat(CuttingFault fault) {
    switch (fault) {
    case CuttingFault::StockNotPositive:
    case CuttingFault::StockAbsurd:
    case CuttingFault::StockPriceNegative:
    case CuttingFault::TrimEatsStock: return FaultOf::Stock;
    case CuttingFault::PieceNotPositive:
    case CuttingFault::PieceAbsurd:
    case CuttingFault::PieceTooLarge:
    case CuttingFault::PieceCountNegative:
    case CuttingFault::PieceCrosses:
    case CuttingFault::PieceHoleOutside:
    case CuttingFault::PieceNoRotation: return FaultOf::Piece;
    case CuttingFault::LockedUnknown:
    case CuttingFault::LockedDoesNotFit: return FaultOf::Pin;
    default: return FaultOf::Whole;
    }
}

/// Takes out what is at fault until nothing is, and tells it; false: nothing can be planned.
/// @param build  builds the problem anew and returns its faults
template <class Build, class PieceOut, class StockOut, class PinOut>
bool withoutFaults(const Build& build, const PieceOut& pieceOut, const StockOut& stockOut, const PinOut& pinOut,
                   std::vector<CutTrouble>& troubles) {
    while (true) { // each round takes something out, or is the last
        CuttingFaults faults = build();
        if (faults.empty()) return true;
        FaultOf now = FaultOf::Whole;
        for (const CuttingFaultAt& f : faults) now = std::min(now, aboutWhat(f.fault));
        // From the back: what is taken out of a list leaves the places before it as they are.
        if (now == FaultOf::Stock || now == FaultOf::Pin) std::reverse(faults.begin(), faults.end());
        bool changed = false;
        for (const CuttingFaultAt& f : faults) {
            if (aboutWhat(f.fault) != now) continue;
            switch (now) {
            case FaultOf::Stock: changed = stockOut(f) || changed; break;
            case FaultOf::Piece: changed = pieceOut(f) || changed; break;
            case FaultOf::Pin: changed = pinOut(f) || changed; break;
            case FaultOf::Whole: troubles.push_back({f.fault, {}, {}}); break;
            }
        }
        if (!changed) return false;
    }
}

ProductCut Cutting::lengths(const Effort& effort, const std::function<void(const ProductCut&)>& progress) {
    LengthsProblem problem;
    problem.kerfMm = kerf();
    problem.endTrimMm = barOf(p_.product).endTrim.value;
    std::vector<Kind> kinds;
    std::vector<double> price;
    // What is pinned to a bar is cut first; the rest of that bar is stock of its own that costs no more.
    const auto restOf = [&](const Pinned& item) {
        double rest = stock_[item.stock].lengthMm;
        for (const LyingPiece& l : item.pieces) rest -= piece(l.piece).lengthMm() + problem.kerfMm;
        return rest;
    };
    std::vector<std::size_t> restItem; // of each further stock: place in pinned_
    const auto build = [&] {
        // Pins that overfill their bar are let go.
        for (std::size_t i = pinned_.size(); i-- > 0;)
            if (restOf(pinned_[i]) + problem.kerfMm < 2 * problem.endTrimMm - 1e-6)
                pinOut({CuttingFault::LockedDoesNotFit}, i);
        price = prices();
        problem.stock.clear();
        problem.pieces.clear();
        restItem.clear();
        for (std::size_t s = 0; s < stock_.size(); ++s) {
            std::optional<int> count = stock_[s].count;
            for (const Pinned& item : pinned_)
                if (item.stock == s && count) count = std::max(0, *count - 1);
            problem.stock.push_back({stock_[s].lengthMm, price[s], count});
        }
        for (std::size_t i = 0; i < pinned_.size(); ++i)
            if (const double rest = restOf(pinned_[i]); rest > 2 * problem.endTrimMm + 1) {
                problem.stock.push_back({rest, 0, 1});
                restItem.push_back(i);
            }
        kinds = this->kinds([](const CutPiece& a, const CutPiece& b) { return a.lengthMm() == b.lengthMm(); }, false);
        for (const Kind& kind : kinds)
            problem.pieces.push_back({piece(kind.members.front()).lengthMm(), int(kind.members.size())});
        return open_.empty() ? CuttingFaults{} : faultsOf(problem);
    };
    const bool sound = withoutFaults(
        build, [&](const CuttingFaultAt& f) { return pieceOut(f, kinds); },
        [&](const CuttingFaultAt& f) { return stockOut(f, f.index); }, [](const CuttingFaultAt&) { return false; },
        result_.troubles);

    double pinnedPrice = 0;
    for (const Pinned& item : pinned_) pinnedPrice += price[item.stock];
    const auto answerOf = [&](const LengthsPlan& plan) {
        ProductCut answer = result_;
        std::vector<std::size_t> next(kinds.size(), 0);
        const auto take = [&](std::size_t kind) { return kinds[kind].members[next[kind]++]; };
        const auto fill = [&](CutItem& item, double& at, const std::vector<std::size_t>& bar) {
            for (const std::size_t kind : bar) {
                const int i = take(kind);
                LyingPiece lies = lyingAt(i, 0, {at, 0});
                at += piece(i).lengthMm() + problem.kerfMm;
                item.pieces.push_back(std::move(lies));
            }
        };
        std::vector<std::vector<std::size_t>> onRest(pinned_.size());
        for (const CutBar& bar : plan.bars)
            if (bar.stock >= stock_.size()) onRest[restItem[bar.stock - stock_.size()]] = bar.pieces;
        for (std::size_t i = 0; i < pinned_.size(); ++i) {
            CutItem item = itemOf(pinned_[i].stock);
            double at = problem.endTrimMm;
            std::vector<LyingPiece> pins = pinned_[i].pieces;
            std::stable_sort(pins.begin(), pins.end(),
                             [](const LyingPiece& a, const LyingPiece& b) { return a.at.x < b.at.x; });
            for (LyingPiece& pin : pins) {
                LyingPiece lies = lyingAt(pin.piece, 0, {at, 0});
                lies.pinned = true;
                at += piece(pin.piece).lengthMm() + problem.kerfMm;
                item.pieces.push_back(std::move(lies));
            }
            fill(item, at, onRest[i]);
            answer.items.push_back(std::move(item));
        }
        for (const CutBar& bar : plan.bars) {
            if (bar.stock >= stock_.size()) continue;
            CutItem item = itemOf(bar.stock);
            double at = problem.endTrimMm;
            fill(item, at, bar.pieces);
            answer.items.push_back(std::move(item));
        }
        for (const std::size_t kind : plan.unplaced) answer.unplaced.push_back(take(kind));
        if (plan.lowerBoundCost > 0 || plan.proven) {
            tellBound(answer, plan.lowerBoundCost + pinnedPrice);
            answer.proven = plan.proven && plan.unplaced.empty();
        }
        return answer;
    };
    if (!sound || open_.empty()) {
        LengthsPlan nothing;
        nothing.proven = sound;
        ProductCut answer = answerOf(nothing);
        if (!sound) answer.unplaced = open_;
        return answer;
    }
    LengthsPlan plan = cutLengths(problem, effort, [&](const LengthsPlan& better) {
        if (!progress) return;
        ProductCut answer = answerOf(better);
        finish(answer);
        progress(answer);
    });
    return answerOf(plan);
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
            return a.lengthMm() == b.lengthMm() && a.widthMm() == b.widthMm() && a.mayTurn == b.mayTurn;
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
            const CutSheet& sheet = plan.sheets[s];
            CutItem item = itemOf(sheet.stock);
            const Pinned* pins = s < pinned_.size() ? &pinned_[s] : nullptr;
            for (std::size_t n = 0; n < sheet.pieces.size(); ++n) {
                const PlacedRectangle& r = sheet.pieces[n];
                const bool pinned = pins && n < pins->pieces.size();
                LyingPiece lies =
                    lyingAt(pinned ? pins->pieces[n].piece : take(r.piece), r.turned ? kQuarter : 0, {r.x, r.y});
                lies.pinned = pinned;
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

} // namespace

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
