#pragma once

#include "core/cutting/effort.h"
#include "core/cutting/factory_edges.h"
#include "core/cutting/fault.h"
#include "core/cutting/sheets.h"
#include "core/plan/product_cut.h"

#include <algorithm>
#include <functional>
#include <string>
#include <vector>

namespace westrum {

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
    class RollLayout; ///< the problem of a roll, and its answers (product_cut_roll.cpp)
    class LengthsCut; ///< the same of bars (product_cut.cpp)
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
    void trouble(CuttingFault fault, const PieceName& name = {}) { result_.troubles.push_back({fault, name, {}}); }

    void settle();
    /// Pieces that are the same to the engine; with those that are pinned, or only those that have no place yet.
    std::vector<Kind> kinds(const auto& same, bool withPinned = true) const;
    ProductCut planned(const Effort& effort, const std::function<void(const ProductCut&)>& progress);
    ProductCut lengths(const Effort& effort, const std::function<void(const ProductCut&)>& progress);
    [[nodiscard]] EdgeWish wishOf(const PlacedRectangle& lies, const std::vector<Kind>& kinds) const;
    /// Moved so that sides come onto the sheet's own edges where they are wanted.
    [[nodiscard]] CutSheet ontoEdges(CutSheet sheet, const std::vector<Kind>& kinds, const SheetsProblem& problem,
                                     bool pinned) const;
    [[nodiscard]] FactoryEdges wantedOnEdge(const CutSheet& sheet, std::size_t piece, const std::vector<Kind>& kinds,
                                            const SheetsProblem& problem) const;
    ProductCut sheets(const Effort& effort, const std::function<void(const ProductCut&)>& progress);
    ProductCut roll(const Effort& effort, const std::function<void(const ProductCut&)>& progress);
    void addOutlines(CutItem& bar) const;
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

/// What a fault is about; the stock is settled before the pieces, and both before the pins.
enum class FaultOf { Stock, Piece, Pin, Whole };

inline FaultOf aboutWhat(CuttingFault fault) {
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

} // namespace westrum
