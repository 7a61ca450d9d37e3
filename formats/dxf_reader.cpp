#include "formats/outline_file.h"

#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>

#include <QList>

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <sstream>

namespace westrum {
namespace {

constexpr double kTolerance = 0.05;
constexpr double kFarthest = 1e7;

/// dxflib trusts counts and order of what it reads. It is therefore given a clean copy: header and entities only, only
/// the kinds read here, each pair of lines whole, coordinates that are numbers, and counts that are true.
class CleanCopy {
public:
    /// False if the lines are no pairs of code and value.
    bool make(const QByteArray& bytes) {
        const QList<QByteArray> lines = bytes.split('\n');
        QByteArray section;
        bool takesSectionName = false;
        for (qsizetype i = 0; i + 1 < lines.size(); i += 2) {
            bool good = false;
            const int code = lines[i].trimmed().toInt(&good);
            if (!good || code < 0 || code > 1071) {
                where = static_cast<int>(i) + 1;
                return false;
            }
            const QByteArray value = lines[i + 1].trimmed();
            if (code == 0) {
                endEntity();
                if (value == "SECTION") {
                    takesSectionName = true;
                    continue;
                }
                if (value == "ENDSEC" || value == "EOF") {
                    section.clear();
                    continue;
                }
                if (section == "ENTITIES") beginEntity(value);
                continue;
            }
            if (takesSectionName && code == 2) {
                section = value;
                takesSectionName = false;
                continue;
            }
            if (section == "HEADER" && code == 9) variable_ = value;
            if (section == "HEADER" && code == 70 && variable_ == "$INSUNITS") insUnits = value.toInt();
            if (section == "ENTITIES" && !kind_.isEmpty()) pairs_.append({code, value});
        }
        endEntity();
        text = "0\nSECTION\n2\nENTITIES\n" + text + "0\nENDSEC\n0\nEOF\n";
        return true;
    }

    QByteArray text;
    int insUnits = 0;
    int passedOver = 0;
    int where = 0;

private:
    void beginEntity(const QByteArray& kind) {
        static const std::array<const char*, 7> known{"LINE",   "LWPOLYLINE", "POLYLINE", "VERTEX",
                                                      "SEQEND", "ARC",        "CIRCLE"};
        if (std::find(known.begin(), known.end(), kind) != known.end())
            kind_ = kind;
        else
            ++passedOver;
    }

    void endEntity() {
        if (kind_.isEmpty()) return;
        QByteArray body;
        int corners = 0;
        for (const auto& [code, value] : pairs_) corners += code == 10;
        const bool lightweight = kind_ == "LWPOLYLINE";
        // The count goes first: corners before it would have no place.
        if (lightweight) body += "90\n" + QByteArray::number(corners) + '\n';
        for (const auto& [code, value] : pairs_) {
            const bool coordinate = (code >= 10 && code <= 59) || (code >= 140 && code <= 149);
            const bool flag = code == 70;
            if (!coordinate && !flag) continue;
            bool good = false;
            const double n = value.toDouble(&good);
            if (!good || !std::isfinite(n) || std::abs(n) > kFarthest) {
                // An entity with a figure that is none is left out whole.
                kind_.clear();
                pairs_.clear();
                ++passedOver;
                return;
            }
            body += QByteArray::number(code) + '\n' + (flag ? QByteArray::number(static_cast<int>(n)) : value) + '\n';
        }
        if (!lightweight || corners > 1) text += "0\n" + kind_ + "\n8\n0\n" + body;
        kind_.clear();
        pairs_.clear();
    }

    QByteArray kind_, variable_;
    QList<std::pair<int, QByteArray>> pairs_;
};

/// Gathers strokes as dxflib meets them.
class Strokes final : public DL_CreationAdapter {
public:
    void addLine(const DL_LineData& l) override { strokes.push_back({{l.x1, l.y1}, {l.x2, l.y2}}); }
    void addArc(const DL_ArcData& a) override {
        double sweep = std::fmod(a.angle2 - a.angle1, 360);
        if (sweep <= 0) sweep += 360;
        std::vector<Point> stroke;
        arc(stroke, {a.cx, a.cy}, a.radius, a.angle1 * std::numbers::pi / 180, sweep * std::numbers::pi / 180);
        strokes.push_back(std::move(stroke));
    }
    void addCircle(const DL_CircleData& c) override {
        std::vector<Point> stroke;
        arc(stroke, {c.cx, c.cy}, c.radius, 0, 2 * std::numbers::pi);
        if (!stroke.empty()) stroke.back() = stroke.front();
        strokes.push_back(std::move(stroke));
    }
    void addPolyline(const DL_PolylineData& p) override {
        finish();
        closed_ = p.flags & 1;
        inPolyline_ = true;
    }
    void addVertex(const DL_VertexData& v) override {
        if (inPolyline_ && corners_.size() < kMostOutlineCorners) corners_.push_back({{v.x, v.y}, v.bulge});
    }
    void endEntity() override {}
    void endSequence() override { finish(); }

    /// Takes the polyline under way; called once more when all is read.
    void finish() {
        std::vector<Point> stroke;
        const std::size_t n = corners_.size();
        for (std::size_t i = 0; i < n; ++i) {
            stroke.push_back(corners_[i].first);
            if (i + 1 == n && !closed_) break;
            bulge(stroke, corners_[i].first, corners_[(i + 1) % n].first, corners_[i].second);
        }
        if (closed_ && n > 1) stroke.push_back(corners_.front().first);
        if (stroke.size() > 1) strokes.push_back(std::move(stroke));
        corners_.clear();
        inPolyline_ = false;
    }

    std::vector<std::vector<Point>> strokes;

private:
    static void arc(std::vector<Point>& into, Point centre, double radius, double from, double sweep) {
        if (!(radius > 0) || !std::isfinite(radius)) return;
        const double step = 2 * std::acos(std::clamp(1 - kTolerance / radius, 0.0, 1.0));
        const int pieces = std::clamp(static_cast<int>(std::ceil(std::abs(sweep) / std::max(step, 0.005))), 4, 2000);
        for (int i = 0; i <= pieces; ++i) {
            const double a = from + sweep * i / pieces;
            into.push_back({centre.x + radius * std::cos(a), centre.y + radius * std::sin(a)});
        }
    }
    /// A bulge is the tangent of a quarter of the arc's angle, positive counter-clockwise.
    static void bulge(std::vector<Point>& into, Point a, Point b, double bulge) {
        const double chord = distance(a, b);
        if (std::abs(bulge) < 1e-9 || chord < 1e-9 || std::abs(bulge) > 1e4) return;
        const double sweep = 4 * std::atan(bulge);
        const double radius = chord / (2 * std::sin(std::abs(sweep) / 2));
        const Point u = (b - a) * (1 / chord);
        const double apothem = chord / 2 / std::tan(sweep / 2);
        const Point centre = (a + b) * 0.5 + Point{-u.y, u.x} * apothem;
        std::vector<Point> points;
        arc(points, centre, radius, std::atan2(a.y - centre.y, a.x - centre.x), sweep);
        for (std::size_t i = 1; i + 1 < points.size(); ++i) into.push_back(points[i]);
    }

    std::vector<std::pair<Point, double>> corners_;
    bool closed_ = false, inPolyline_ = false;
};

/// $INSUNITS in mm; nothing where the drawing has no unit.
std::optional<double> mmOf(int insUnits) {
    switch (insUnits) {
    case 1: return 25.4;
    case 2: return 304.8;
    case 4: return 1;
    case 5: return 10;
    case 6: return 1000;
    default: return std::nullopt;
    }
}

} // namespace

Result<OutlineDrawing, OutlineFault> readDxf(const QByteArray& bytes) {
    if (bytes.size() > kLargestOutlineFile) return OutlineFault{OutlineFaultKind::TooLarge, {}};
    if (bytes.trimmed().isEmpty()) return OutlineFault{OutlineFaultKind::Empty, {}};
    CleanCopy copy;
    if (!copy.make(bytes)) return OutlineFault{OutlineFaultKind::Damaged, std::to_string(copy.where)};
    std::istringstream stream(copy.text.toStdString());
    DL_Dxf reader;
    Strokes strokes;
    reader.in(static_cast<std::istream&>(stream), &strokes);
    strokes.finish();
    std::size_t corners = 0;
    for (const auto& s : strokes.strokes) corners += s.size();
    if (corners > kMostOutlineCorners || strokes.strokes.size() > 20000)
        return OutlineFault{OutlineFaultKind::TooLarge, {}};
    OutlineDrawing drawing = joinedRings(strokes.strokes, 0.5);
    if (drawing.rings.empty()) return OutlineFault{OutlineFaultKind::NoOutline, {}};
    drawing.mmPerUnit = mmOf(copy.insUnits);
    drawing.passedOver = copy.passedOver;
    return drawing;
}

} // namespace westrum
