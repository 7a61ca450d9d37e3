#pragma once

#include "core/catalogue/family.h"
#include "core/cutting/shapes.h"
#include "core/plan/product_cut.h"

#include <QString>

#include <map>
#include <set>

namespace westrum::test {

inline Region box(double w, double h) { return {{{{0, 0}, {w, 0}, {w, h}, {0, h}}}}; }

inline CutPiece wanted(const std::string& key, double length, double width, bool mayTurn = false) {
    CutPiece piece;
    piece.key = key;
    piece.name = key;
    piece.shape = box(length, width);
    piece.mayTurn = mayTurn;
    return piece;
}

inline Product product(const std::string& family, FieldValues fields, std::optional<std::int64_t> price = {}) {
    Product p{.id = "x-" + family, .family = family, .name = family};
    p.fields = std::move(fields);
    if (price) p.packPrice = Money{*price, {}};
    return p;
}

/// A product with its own stock and the pieces given.
inline CutProblem problemOf(const Product& p, std::vector<CutPiece> pieces) {
    CutProblem problem;
    problem.product = p;
    problem.form = *stockFormOf(p.family);
    problem.pieces = std::move(pieces);
    CutStock own{.name = p.name, .price = p.packPrice};
    if (p.family == "trim") own.lengthMm = trimOf(p).length.value, own.widthMm = trimOf(p).width.value;
    if (p.family == "sheet") own.lengthMm = sheetOf(p).length.value, own.widthMm = sheetOf(p).width.value;
    if (p.family == "roll") own.widthMm = rollOf(p).width.value;
    problem.stock.push_back(own);
    return problem;
}

inline KeptItem keep(const std::string& stock, const CutPiece& piece, Point at, double rotationRad = 0) {
    return {stock, false, 0, 0, {{piece.key, piece.name.key(), at, rotationRad, false, piece.shape}}};
}

/// The rules of a cutting plan, in words of their own: empty if all are kept, else what is broken.
inline QString broken(const CutProblem& problem, const ProductCut& cut) {
    std::map<std::string, int> seen;
    double kerf = 0, trim = 0;
    if (problem.product.family == "trim")
        kerf = trimOf(problem.product).kerf.value, trim = trimOf(problem.product).endTrim.value;
    if (problem.form == StockForm::Sheets)
        kerf = sheetOf(problem.product).kerf.value, trim = sheetOf(problem.product).edgeTrim.value;
    if (problem.form == StockForm::Roll) kerf = rollOf(problem.product).gap.value;
    constexpr double kFuzz = 0.05;
    for (const CutItem& item : cut.items) {
        if (item.decided) continue;
        for (std::size_t i = 0; i < item.pieces.size(); ++i) {
            const LyingPiece& lies = item.pieces[i];
            if (lies.piece >= 0) ++seen[lies.key];
            const Bounds b = boundsOf(lies.shape);
            const double acrossTrim = problem.form == StockForm::Lengths ? 0 : trim;
            if (b.low.x < trim - kFuzz || b.low.y < acrossTrim - kFuzz || b.high.x > item.lengthMm - trim + kFuzz ||
                b.high.y > item.widthMm - acrossTrim + kFuzz)
                return QStringLiteral("%1 lies beyond its stock").arg(QString::fromStdString(lies.name.key()));
            for (std::size_t j = 0; j < i; ++j) {
                const Bounds o = boundsOf(item.pieces[j].shape);
                const double x = std::max(b.low.x - o.high.x, o.low.x - b.high.x);
                const double y = std::max(b.low.y - o.high.y, o.low.y - b.high.y);
                if (std::max(x, y) >= kerf - kFuzz) continue;
                if (problem.form != StockForm::Roll)
                    return QStringLiteral("%1 and %2 overlap")
                        .arg(QString::fromStdString(lies.name.key()),
                             QString::fromStdString(item.pieces[j].name.key()));
            }
        }
    }
    for (const int i : cut.unplaced) ++seen[cut.pieces[std::size_t(i)].key];
    for (const CutTrouble& t : cut.troubles) ++seen[t.key];
    for (const CutPiece& piece : problem.pieces)
        if (seen[piece.key] != 1)
            return QStringLiteral("%1 is there %2 times").arg(QString::fromStdString(piece.key)).arg(seen[piece.key]);
    const double all = cut.figures.used + cut.figures.kept + cut.figures.waste();
    if (std::abs(all - cut.figures.bought - cut.figures.fromRack) > 1) return QStringLiteral("figures do not add up");
    if (cut.figures.waste() < -1) return QStringLiteral("less than nothing is wasted");
    return {};
}

} // namespace westrum::test
