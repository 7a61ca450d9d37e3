#include "formats/outline_file.h"

#include "core/geometry/boolean.h"
#include "core/units/parse.h"

#include <QCoreApplication>
#include <QFile>
#include <QFileInfo>

#include <algorithm>
#include <cctype>
#include <cmath>

namespace westrum {
namespace {

struct OutlineWords {
    Q_DECLARE_TR_FUNCTIONS(OutlineWords)
};

/// Drops points that repeat within a hair of `reach` and turns the ring counter-clockwise; empty if nothing is left.
Ring tidied(const Ring& ring, double reach) {
    const double hair = std::min(1e-6, reach * 1e-3);
    Ring clean;
    for (const Point& p : ring)
        if (clean.empty() || distance(clean.back(), p) > hair) clean.push_back(p);
    while (clean.size() > 1 && distance(clean.back(), clean.front()) <= hair) clean.pop_back();
    // Ends that met over a gap are one corner.
    if (clean.size() > 1 && distance(ring.front(), ring.back()) > hair &&
        distance(clean.back(), clean.front()) <= reach)
        clean.pop_back();
    if (clean.size() < 3 || std::abs(signedArea(clean)) < hair) return {};
    if (signedArea(clean) < 0) std::reverse(clean.begin(), clean.end());
    return clean;
}

std::vector<Ring> ringsToWrite(const MeasuredOutline& measured, const SurfaceShape& shape) {
    std::vector<Ring> rings = measured.outline.rings;
    for (const PlacedOpening& o : shape.openings) rings.push_back(o.shape);
    return rings;
}

/// A coordinate, with decimal point or comma, or as programs write large and small ones (1.2e3).
std::optional<double> numberOf(const QByteArray& cell) {
    std::optional<double> value;
    if (const auto n = parseNumber(cell.toStdString())) {
        value = n.value();
    } else {
        bool good = false;
        const double d = QByteArray(cell).replace(',', '.').toDouble(&good);
        if (good && std::isfinite(d)) value = d;
    }
    return value && std::abs(*value) <= 1e6 ? value : std::nullopt;
}

bool looksLikeNumber(const QByteArray& cell) {
    const QByteArray text = cell.trimmed();
    const qsizetype at = text.startsWith('-') || text.startsWith('+') || text.startsWith('.') ? 1 : 0;
    return text.size() > at && std::isdigit(static_cast<unsigned char>(text[at]));
}

QByteArray figure(double mm) { return QByteArray::number(mm, 'f', 3); }

} // namespace

OutlineDrawing joinedRings(const std::vector<std::vector<Point>>& strokes, double reach) {
    OutlineDrawing drawing;
    std::vector<std::vector<Point>> open;
    const auto keep = [&](const Ring& ring) {
        if (Ring clean = tidied(ring, reach); !clean.empty()) drawing.rings.push_back(std::move(clean));
    };
    for (const auto& s : strokes) {
        if (s.size() < 2) continue;
        if (s.size() > 2 && distance(s.front(), s.back()) <= reach)
            keep(s);
        else
            open.push_back(s);
    }
    // Each open stroke takes on whichever end comes near its own until it closes or nothing comes.
    std::vector<bool> used(open.size(), false);
    for (std::size_t i = 0; i < open.size(); ++i) {
        if (used[i]) continue;
        used[i] = true;
        std::vector<Point> chain = open[i];
        bool grew = true;
        while (grew && distance(chain.front(), chain.back()) > reach) {
            grew = false;
            // The nearest end of all, not the first that comes near enough.
            std::size_t next = 0;
            bool forwards = true;
            double nearest = reach;
            for (std::size_t k = 0; k < open.size(); ++k) {
                if (used[k]) continue;
                for (const bool way : {true, false}) {
                    const double gap = distance(chain.back(), way ? open[k].front() : open[k].back());
                    if (gap > nearest || (grew && gap >= nearest)) continue;
                    grew = true;
                    nearest = gap;
                    next = k;
                    forwards = way;
                }
            }
            if (!grew) break;
            used[next] = true;
            if (forwards)
                chain.insert(chain.end(), open[next].begin() + 1, open[next].end());
            else
                chain.insert(chain.end(), open[next].rbegin() + 1, open[next].rend());
        }
        if (chain.size() > 3 && distance(chain.front(), chain.back()) <= reach)
            keep(chain);
        else
            ++drawing.open;
    }
    std::stable_sort(drawing.rings.begin(), drawing.rings.end(),
                     [](const Ring& a, const Ring& b) { return signedArea(a) > signedArea(b); });
    return drawing;
}

Result<OutlineDrawing, OutlineFault> readPoints(const QByteArray& bytes) {
    if (bytes.size() > kLargestOutlineFile) return OutlineFault{OutlineFaultKind::TooLarge, {}};
    if (bytes.trimmed().isEmpty()) return OutlineFault{OutlineFaultKind::Empty, {}};
    std::vector<std::vector<Point>> rings(1);
    std::size_t corners = 0;
    int number = 0;
    bool heading = false;
    QByteArray text = bytes;
    if (text.startsWith("\xEF\xBB\xBF")) text.remove(0, 3); // a byte-order mark
    for (const QByteArray& raw : text.split('\n')) {
        ++number;
        const QByteArray line = raw.trimmed();
        if (line.isEmpty()) {
            if (!rings.back().empty()) rings.emplace_back();
            continue;
        }
        const char separator = line.contains(';') ? ';' : line.contains('\t') ? '\t' : ',';
        const QList<QByteArray> cells = line.split(separator);
        const auto cell = [&](qsizetype i) -> std::optional<double> {
            return i < cells.size() ? numberOf(cells[i].trimmed()) : std::nullopt;
        };
        const auto x = cell(0), y = cell(1);
        if (!x || !y) {
            // Words over the columns; a first line that begins like a number is one gone wrong.
            const bool words = cells.size() > 1 && !looksLikeNumber(cells[0]) && !looksLikeNumber(cells[1]);
            if (corners == 0 && rings.size() == 1 && words && !heading) {
                heading = true;
                continue;
            }
            return OutlineFault{OutlineFaultKind::NoNumber, std::to_string(number)};
        }
        if (++corners > kMostOutlineCorners) return OutlineFault{OutlineFaultKind::TooLarge, {}};
        rings.back().push_back({*x, *y});
    }
    for (auto& ring : rings)
        if (ring.size() > 2) ring.push_back(ring.front());
    OutlineDrawing drawing = joinedRings(rings, 1e-6);
    if (drawing.rings.empty()) return OutlineFault{OutlineFaultKind::NoOutline, {}};
    drawing.mmPerUnit = 1;
    return drawing;
}

Result<OutlineDrawing, OutlineFault> readOutlineFile(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly))
        return OutlineFault{OutlineFaultKind::CannotOpen, file.errorString().toStdString()};
    const QByteArray bytes = file.read(kLargestOutlineFile + 1);
    const QString ending = QFileInfo(path).suffix().toLower();
    if (ending == QLatin1String("dxf")) return readDxf(bytes);
    if (ending == QLatin1String("svg")) return readSvg(bytes);
    return readPoints(bytes);
}

QByteArray writeDxf(const MeasuredOutline& measured, const SurfaceShape& shape) {
    // Millimetres; closed polylines of the oldest form, which everything reads.
    QByteArray out =
        "0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1009\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n";
    bool outline = true;
    std::size_t count = measured.outline.rings.size();
    for (const Ring& ring : ringsToWrite(measured, shape)) {
        const QByteArray layer = outline ? "OUTLINE" : "OPENINGS";
        out += "0\nPOLYLINE\n8\n" + layer + "\n66\n1\n70\n1\n";
        for (const Point& p : ring)
            out += "0\nVERTEX\n8\n" + layer + "\n10\n" + figure(p.x) + "\n20\n" + figure(p.y) + '\n';
        out += "0\nSEQEND\n8\n" + layer + '\n';
        if (--count == 0) outline = false;
    }
    return out + "0\nENDSEC\n0\nEOF\n";
}

QByteArray writeSvg(const QString& name, const MeasuredOutline& measured, const SurfaceShape& shape) {
    if (measured.outline.empty()) return {};
    const Bounds b = boundsOf(measured.outline);
    const QByteArray w = figure(b.width()), h = figure(b.height());
    QByteArray out = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" +
                     w + "mm\" height=\"" + h + "mm\" viewBox=\"0 0 " + w + ' ' + h + "\">\n<title>" +
                     name.toHtmlEscaped().toUtf8() + "</title>\n";
    for (const Ring& ring : ringsToWrite(measured, shape)) {
        out += "<path fill=\"none\" stroke=\"#000\" stroke-width=\"0.5\" d=\"M";
        for (const Point& p : ring) out += ' ' + figure(p.x - b.low.x) + ',' + figure(b.high.y - p.y);
        out += " Z\"/>\n";
    }
    return out + "</svg>\n";
}

QByteArray writePoints(const MeasuredOutline& measured, const SurfaceShape& shape) {
    QByteArray out = "x mm,y mm\r\n";
    bool first = true;
    for (const Ring& ring : ringsToWrite(measured, shape)) {
        if (!first) out += "\r\n";
        first = false;
        for (const Point& p : ring) out += figure(p.x) + ',' + figure(p.y) + "\r\n";
    }
    return out;
}

QString sentence(const OutlineFault& fault) {
    const QString detail = QString::fromStdString(fault.detail);
    switch (fault.kind) {
    case OutlineFaultKind::CannotOpen: return OutlineWords::tr("The file cannot be opened: %1").arg(detail);
    case OutlineFaultKind::TooLarge: return OutlineWords::tr("The file holds more than any outline needs.");
    case OutlineFaultKind::Empty: return OutlineWords::tr("The file is empty.");
    case OutlineFaultKind::Damaged: return OutlineWords::tr("The file is damaged or of another kind: %1").arg(detail);
    case OutlineFaultKind::NoOutline: return OutlineWords::tr("The file holds no closed outline.");
    case OutlineFaultKind::NoNumber: return OutlineWords::tr("Line %1 is no pair of numbers.").arg(detail);
    }
    return {};
}

} // namespace westrum
