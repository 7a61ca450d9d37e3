#pragma once

#include "core/plan/job.h"
#include "core/plan/product_cut.h"
#include "core/units/result.h"
#include "formats/outline_file.h"

#include <QByteArray>
#include <QString>

#include <vector>

namespace westrum {

/// What kept a list of pieces from being read, with the line.
struct PieceListFault {
    enum class Kind { Empty, TooFewCells, BadLength, BadCount, NotPositive, TooMany };
    Kind kind{};
    int line{};
    QString text;
    ParseError error; ///< of a BadLength
};

inline constexpr std::size_t kMostListedPieces = 5000;

/// A list of pieces as CSV (`,` `;` or tab): name, length, width, how many, surface. A first line of words is passed
/// over; how many and surface may be left out; for lengths so may the width. A surface that the job lacks is left open.
Result<std::vector<LoosePiece>, PieceListFault> readPieces(const QByteArray& bytes, const Job& job, bool bars);
QString sentence(const PieceListFault& fault);

/// Pieces from the rings of a drawing: each ring that lies in no other is a piece, those in it are its holes, and what
/// lies in a hole is a piece again. Named `name`, or `name 1`, `name 2` where there are several.
std::vector<LoosePiece> piecesOf(const OutlineDrawing& drawing, double mmPerUnit, const std::string& name);

/// All pieces as they lie on their stock, one item above the other, in millimetres. Layers CUT, FOLD and MARK hold
/// their lines, MARK their names as well, STOCK the outline of the stock.
QByteArray cutPiecesAsDxf(const ProductCut& cut);
/// The same with the layers as groups of that name.
QByteArray cutPiecesAsSvg(const ProductCut& cut, const QString& title);

} // namespace westrum
