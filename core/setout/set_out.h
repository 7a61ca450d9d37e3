#pragma once

#include "core/catalogue/product.h"
#include "core/geometry/polygon.h"
#include "core/units/quantity.h"
#include "core/units/remark.h"

#include <optional>
#include <span>
#include <stop_token>
#include <string>
#include <string_view>
#include <vector>

namespace westrum {

/// Where along its stock a piece was cut.
enum class PieceKind {
    Whole, ///< a whole plank
    First, ///< starts a row; has the plank's right-hand end
    Last,  ///< ends a row; has the plank's left-hand end
    Single ///< fills a run alone; both ends stand at an edge
};

/// Which edges of a piece are as the factory made them; the others are sawn. `left` to `right` runs along the row in
/// laying direction, `near` is the long edge towards the first row.
struct FactoryEdges {
    bool left{}, right{}, near{}, far{};
    friend bool operator==(const FactoryEdges&, const FactoryEdges&) = default;
};

/// One piece as it lies on the surface.
struct Piece {
    std::string name; ///< "3.2": third row, second piece
    int row{};        ///< from 0
    int inRow{};      ///< from 0, in laying order
    int stock{};      ///< place in SetOut::stock
    PieceKind kind{};
    Region shape;      ///< in surface coordinates
    Mm length;         ///< along the row, as cut before any notch is taken out
    Mm width;          ///< across the row; less than the stock's width where the row is ripped
    Mm narrowest;      ///< least width over a stretch of at least 20 mm
    bool notched{};    ///< a cut-out or a slanting edge bites into it
    bool fromOffcut{}; ///< its stock was opened for an earlier piece
    FactoryEdges factory;
    friend bool operator==(const Piece&, const Piece&) = default;
};

enum class CutKind { Cross, Rip, Shape };
/// One cut on a stock unit. `at` is from the left-hand end (Cross) or from the near long edge (Rip).
struct Cut {
    CutKind kind{};
    Mm at;
    friend bool operator==(const Cut&, const Cut&) = default;
};

struct Offcut {
    Mm length;
    Mm width;
    bool ripped{}; ///< a strip left from ripping
    friend bool operator==(const Offcut&, const Offcut&) = default;
};

/// One plank (sheet, length) opened, in the order in which it is first needed.
struct StockUnit {
    std::vector<int>
        pieces; ///< from its left-hand end; the far strip of a plank ripped in two comes after the near one
    std::vector<Cut> cuts;
    std::vector<Offcut> offcuts; ///< what is left, 1 mm and more
    bool rippedInTwo{};          ///< serves the first and the last row, split along
    friend bool operator==(const StockUnit&, const StockUnit&) = default;
};

/// One row: its extent across the surface and the visible width of what is laid in it.
struct Row {
    double low{};
    double high{};
    [[nodiscard]] double width() const { return high - low; }
    friend bool operator==(const Row&, const Row&) = default;
};

/// How a finish lies on a surface.
struct SetOut {
    bool rowsAcross = false; ///< rows run in y, and `rows` are extents in x
    Region net;              ///< what is covered: the outline less the movement gap
    std::vector<Row> rows;   ///< in laying order
    std::vector<Piece> pieces;
    std::vector<StockUnit> stock;
    double startLine{};         ///< coordinate across the rows of the line between first and second row
    Mm startOffset;             ///< ripped off the first row; 0 for a full first row
    Mm firstRow, lastRow;       ///< visible widths
    int leastStock{};           ///< no layout under the rules and this start needs fewer units cut crosswise
    int stockWithoutRipReuse{}; ///< what is needed if no plank is ripped for two rows
    int slivers{};              ///< pieces beside cut-outs narrower than a third of the stock's width
    std::vector<Remark> remarks;
    [[nodiscard]] bool laid() const { return !pieces.empty(); }
    [[nodiscard]] M2 laidArea() const;
    friend bool operator==(const SetOut&, const SetOut&) = default;
};

/// What one start line would give: a column of the start strip.
struct StartChoice {
    Mm startOffset;
    int rows{};
    Mm firstRow, lastRow;
    int stock{}; ///< units needed; 0 if it cannot be laid
    int slivers{};
    bool fair{}; ///< both edge rows at least a third of the stock's width
    friend bool operator==(const StartChoice&, const StartChoice&) = default;
};

enum class SuggestionReason { EqualEdges, FewestUnits, FewestSlivers };
/// A start line worth taking, with the figures for its sentence.
struct Suggestion {
    SuggestionReason reason{};
    StartChoice choice;
    friend bool operator==(const Suggestion&, const Suggestion&) = default;
};

struct SetOutRequest {
    Region outline;
    Product product; ///< fields have passed checkFields()
    FieldValues rules;
};

/// A finish family: the one table entry through which everything else reaches a set-out.
struct SetOutFamily {
    std::string_view id; ///< as in Product::family
    std::span<const Field> productFields;
    std::span<const Field> ruleFields;
    SetOut (*setOut)(const SetOutRequest&, const std::stop_token&);
    /// Every start worth telling apart, in order of offset; empty when stopped or when nothing can be laid.
    std::vector<StartChoice> (*starts)(const SetOutRequest&, const std::stop_token&);
};

/// All families that can be set out.
std::span<const SetOutFamily> setOutFamilies();
const SetOutFamily* findFamily(std::string_view id);

/// The best start lines, best first, at most one for each reason; none that is worse in every figure than another.
/// @param unitsPerPack  packs are what is paid for: starts that need the same packs count as equal at first
std::vector<Suggestion> suggestStarts(std::span<const StartChoice> starts, int unitsPerPack);

} // namespace westrum
