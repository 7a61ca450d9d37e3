#include "formats/cut_pieces_file.h"

#include "core/geometry/boolean.h"

#include "formats/csv.h"

#include "formats/words.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

struct PieceListWords {
    Q_DECLARE_TR_FUNCTIONS(PieceListWords)
};

/// A drawing with one item above the other: each item and where its lower left lies.
std::vector<std::pair<const CutItem*, Point>> stacked(const ProductCut& cut) {
    constexpr double kBetween = 100;
    std::vector<std::pair<const CutItem*, Point>> list;
    double y = 0;
    for (auto item = cut.items.rbegin(); item != cut.items.rend(); ++item) {
        list.emplace_back(&*item, Point{0, y});
        y += item->widthMm + kBetween;
    }
    std::reverse(list.begin(), list.end());
    return list;
}

QByteArray figure(double mm) {
    QByteArray text = QByteArray::number(mm, 'f', 3);
    while (text.endsWith('0')) text.chop(1);
    if (text.endsWith('.')) text.chop(1);
    return text == "-0" ? QByteArray("0") : text;
}

constexpr int kDrillCorners = 24;

/// Calls `line(layer, ring, closed)` and `name(text, at, height)` for all that is to be drawn.
void draw(const ProductCut& cut, const auto& line, const auto& name) {
    for (const auto& [item, at] : stacked(cut)) {
        const auto moved = [&, at = at](const Ring& ring) {
            Ring there = ring;
            for (Point& p : there) p = p + at;
            return there;
        };
        const Ring whole{{0, 0}, {item->lengthMm, 0}, {item->lengthMm, item->widthMm}, {0, item->widthMm}};
        line("STOCK", moved(item->shape.empty() ? whole : item->shape.rings.front()), true);
        for (const LyingPiece& lies : item->pieces) {
            for (const Ring& ring : lies.shape.rings) line("CUT", moved(ring), true);
            const Bounds b = boundsOf(lies.shape);
            name(pieceText(lies.name).toStdString(), (b.low + b.high) * 0.5 + at,
                 std::clamp(b.height() / 5, 4.0, 40.0));
            if (lies.piece < 0) continue;
            const CutPiece& piece = cut.pieces[std::size_t(lies.piece)];
            for (const Ring& fold : piece.folds) line("FOLD", moved(onStock(piece, lies, fold)), false);
            for (const Ring& mark : piece.marks) line("MARK", moved(onStock(piece, lies, mark)), false);
            for (const CutPiece::Drill& d : piece.drills)
                line("DRILL", moved(onStock(piece, lies, circle(d.at, d.diameter.value / 2, kDrillCorners))), true);
        }
    }
}

/// Only what every reader knows; other letters by their number.
QByteArray dxfText(const std::string& text) {
    QByteArray out;
    for (const QChar c : QString::fromStdString(text))
        if (c.unicode() >= 0x20 && c.unicode() < 0x7F)
            out += static_cast<char>(c.unicode());
        else
            out += "\\U+" + QByteArray::number(c.unicode(), 16).rightJustified(4, '0').toUpper();
    return out;
}

} // namespace

Result<std::vector<LoosePiece>, PieceListFault> readPieces(const QByteArray& bytes, const Job& job, bool bars) {
    using Kind = PieceListFault::Kind;
    const QString all = QString::fromUtf8(bytes.startsWith("\xEF\xBB\xBF") ? bytes.mid(3) : bytes);
    if (all.trimmed().isEmpty()) return PieceListFault{Kind::Empty, 0, {}, {}};
    CsvReader rows(all, csvSeparator(all));
    std::vector<LoosePiece> pieces;
    bool first = true;
    for (CsvRow row; rows.next(row);) {
        const int number = row.line;
        const QStringList& cells = row.cells;
        const bool heading = std::exchange(first, false) && cells.size() > 1 &&
                             std::none_of(cells.begin() + 1, cells.end(), [](const QString& c) {
                                 return std::any_of(c.begin(), c.end(), [](QChar x) { return x.isDigit(); });
                             });
        if (heading) continue;
        if (cells.size() < (bars ? 2 : 3)) return PieceListFault{Kind::TooFewCells, number, row.text.trimmed(), {}};
        if (pieces.size() >= kMostListedPieces) return PieceListFault{Kind::TooMany, number, {}, {}};
        LoosePiece piece;
        piece.name = cells[0].isEmpty() ? QString::number(pieces.size() + 1).toStdString() : cells[0].toStdString();
        const auto length = [&](const QString& text, MaybeReading& into) -> std::optional<PieceListFault> {
            const auto read = parseLength(text.toStdString(), job.bareUnit);
            if (!read) return PieceListFault{Kind::BadLength, number, text, read.error()};
            if (read.value().value <= 0) return PieceListFault{Kind::NotPositive, number, text, {}};
            into = Reading{text.toStdString(), read.value()};
            return std::nullopt;
        };
        if (auto fault = length(cells[1], piece.length)) return *fault;
        if (cells.size() > 2 && !cells[2].isEmpty())
            if (auto fault = length(cells[2], piece.width)) return *fault;
        if (!bars && !piece.width) return PieceListFault{Kind::TooFewCells, number, row.text.trimmed(), {}};
        if (cells.size() > 3 && !cells[3].isEmpty()) {
            bool ok = false;
            piece.count = cells[3].toInt(&ok);
            if (!ok || piece.count < 1 || piece.count > 10000)
                return PieceListFault{Kind::BadCount, number, cells[3], {}};
        }
        if (cells.size() > 4)
            for (const Surface& s : job.surfaces)
                if (QString::fromStdString(s.name).compare(cells[4], Qt::CaseInsensitive) == 0) piece.surface = s.id;
        pieces.push_back(std::move(piece));
    }
    if (pieces.empty()) return PieceListFault{Kind::Empty, 0, {}, {}};
    return pieces;
}

QString sentence(const PieceListFault& fault) {
    using Kind = PieceListFault::Kind;
    switch (fault.kind) {
    case Kind::Empty: return PieceListWords::tr("The file holds no pieces.");
    case Kind::TooFewCells:
        return PieceListWords::tr("Line %1, “%2”, lacks a size: name, length, width, how many, surface are wanted.")
            .arg(fault.line)
            .arg(fault.text.left(60));
    case Kind::BadLength:
        return PieceListWords::tr("Line %1: %2").arg(fault.line).arg(sentence(fault.error, fault.text.left(60)));
    case Kind::BadCount:
        return PieceListWords::tr("Line %1: “%2” is no number of pieces from 1 to 10 000.")
            .arg(fault.line)
            .arg(fault.text.left(60));
    case Kind::NotPositive:
        return PieceListWords::tr("Line %1: a size of “%2” is nothing that can be cut.")
            .arg(fault.line)
            .arg(fault.text.left(60));
    case Kind::TooMany: return PieceListWords::tr("The list holds more than 5 000 pieces.");
    }
    return {};
}

std::vector<LoosePiece> piecesOf(const OutlineDrawing& drawing, double mmPerUnit, const std::string& name) {
    std::vector<Ring> rings = drawing.rings;
    for (Ring& ring : rings)
        for (Point& p : ring) p = p * mmPerUnit;
    // Largest first: a ring's depth is the number of rings before it that hold it.
    std::vector<int> depth(rings.size(), 0), holder(rings.size(), -1);
    for (std::size_t i = 0; i < rings.size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
            if (contains({{rings[j]}}, rings[i].front())) {
                ++depth[i];
                holder[i] = int(j); // the smallest that holds it comes last
            }
    std::vector<LoosePiece> pieces;
    std::vector<int> pieceOfRing(rings.size(), -1);
    for (std::size_t i = 0; i < rings.size(); ++i) {
        if (depth[i] % 2 == 0) {
            pieceOfRing[i] = int(pieces.size());
            LoosePiece piece;
            piece.shape.rings.push_back(rings[i]);
            pieces.push_back(std::move(piece));
        } else if (const int outer = pieceOfRing[std::size_t(holder[i])]; outer >= 0) {
            Ring hole = rings[i];
            if (signedArea(hole) > 0) std::reverse(hole.begin(), hole.end());
            pieces[std::size_t(outer)].shape.rings.push_back(std::move(hole));
        }
    }
    for (std::size_t i = 0; i < pieces.size(); ++i)
        pieces[i].name = pieces.size() > 1 ? name + " " + std::to_string(i + 1) : name;
    return pieces;
}

QByteArray cutPiecesAsDxf(const ProductCut& cut) {
    // Millimetres; closed polylines of the oldest form, which everything reads.
    QByteArray out = "0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1009\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n"
                     "0\nSECTION\n2\nTABLES\n0\nTABLE\n2\nLAYER\n70\n5\n";
    for (const auto& [layer, colour] :
         {std::pair{"CUT", "1"}, {"FOLD", "5"}, {"MARK", "3"}, {"DRILL", "6"}, {"STOCK", "8"}})
        out += QByteArray("0\nLAYER\n2\n") + layer + "\n70\n0\n62\n" + colour + "\n6\nCONTINUOUS\n";
    out += "0\nENDTAB\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n";
    draw(
        cut,
        [&](const char* layer, const Ring& ring, bool closed) {
            out += QByteArray("0\nPOLYLINE\n8\n") + layer + "\n66\n1\n70\n" + (closed ? "1" : "0") + '\n';
            for (const Point& p : ring)
                out += QByteArray("0\nVERTEX\n8\n") + layer + "\n10\n" + figure(p.x) + "\n20\n" + figure(p.y) + '\n';
            out += QByteArray("0\nSEQEND\n8\n") + layer + '\n';
        },
        [&](const std::string& name, Point at, double height) {
            out += "0\nTEXT\n8\nMARK\n10\n" + figure(at.x) + "\n20\n" + figure(at.y) + "\n40\n" + figure(height) +
                   "\n1\n" + dxfText(name) + '\n';
        });
    return out + "0\nENDSEC\n0\nEOF\n";
}

QByteArray cutPiecesAsSvg(const ProductCut& cut, const QString& title) {
    double width = 1, height = 1;
    for (const auto& [item, at] : stacked(cut)) {
        width = std::max(width, item->lengthMm);
        height = std::max(height, at.y + item->widthMm);
    }
    QByteArray stock, cuts, folds, marks, drills;
    const auto y = [&](double up) { return figure(height - up); };
    draw(
        cut,
        [&](const char* layer, const Ring& ring, bool closed) {
            QByteArray path = "<path d=\"M";
            for (const Point& p : ring) path += ' ' + figure(p.x) + ',' + y(p.y);
            path += closed ? " Z\"/>\n" : "\"/>\n";
            const QByteArray name = layer;
            (name == "CUT"     ? cuts
             : name == "FOLD"  ? folds
             : name == "MARK"  ? marks
             : name == "DRILL" ? drills
                               : stock) += path;
        },
        [&](const std::string& name, Point at, double high) {
            marks += "<text x=\"" + figure(at.x) + "\" y=\"" + y(at.y) + "\" font-size=\"" + figure(high) +
                     "\" stroke=\"none\" fill=\"#393\" text-anchor=\"middle\">" +
                     QString::fromStdString(name).toHtmlEscaped().toUtf8() + "</text>\n";
        });
    const auto group = [](const char* id, const char* style, const QByteArray& content) {
        return QByteArray("<g id=\"") + id + "\" fill=\"none\" " + style + ">\n" + content + "</g>\n";
    };
    const QByteArray w = figure(width), h = figure(height);
    return "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" + w +
           "mm\" height=\"" + h + "mm\" viewBox=\"0 0 " + w + ' ' + h + "\">\n<title>" +
           title.toHtmlEscaped().toUtf8() + "</title>\n" + group("STOCK", "stroke=\"#999\" stroke-width=\"1\"", stock) +
           group("CUT", "stroke=\"#c00\" stroke-width=\"0.5\"", cuts) +
           group("FOLD", "stroke=\"#00c\" stroke-width=\"0.5\" stroke-dasharray=\"8 4\"", folds) +
           group("DRILL", "stroke=\"#909\" stroke-width=\"0.5\"", drills) +
           group("MARK", "stroke=\"#393\" stroke-width=\"0.5\"", marks) + "</svg>\n";
}

} // namespace westrum
