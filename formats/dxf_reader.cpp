#include "formats/outline_file.h"

#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>

#include <QHash>
#include <QList>
#include <QSet>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>
#include <sstream>

namespace westrum {
namespace {

constexpr double kTolerance = 0.05; ///< mm that a flattened curve may lie off the true one
constexpr double kReach = 0.5;      ///< mm within which ends meet
constexpr double kFarthest = 1e7;
constexpr int kDeepestBlock = 8;
constexpr std::size_t kMostStrokes = 20000;

/// dxflib trusts counts and order of what it reads. It is therefore given a clean copy: blocks and entities only, only
/// the kinds read here, each pair of lines whole, coordinates that are numbers, and counts that are true. What is not
/// to be seen - on layers that are off or frozen, invisible, or on a sheet of paper beside the model - stays out.
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
                end(section);
                if (value == "SECTION") {
                    takesSectionName = true;
                    continue;
                }
                if (value == "ENDSEC" || value == "EOF") {
                    section.clear();
                    continue;
                }
                begin(section, value);
                continue;
            }
            if (takesSectionName && code == 2) {
                section = value;
                takesSectionName = false;
                continue;
            }
            if (section == "HEADER" && code == 9) variable_ = value;
            if (section == "HEADER" && code == 70 && variable_ == "$INSUNITS") insUnits = value.toInt();
            if (!kind_.isEmpty()) pairs_.append({code, value});
        }
        end(section);
        if (inBlock_) blocks_ += "0\nENDBLK\n8\n0\n";
        text = "0\nSECTION\n2\nBLOCKS\n" + blocks_ + "0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" + entities_ +
               "0\nENDSEC\n0\nEOF\n";
        return true;
    }

    QByteArray text;
    int insUnits = 0;
    int passedOver = 0;
    int where = 0;

private:
    void begin(const QByteArray& section, const QByteArray& kind) {
        static const std::array<const char*, 10> known{"LINE", "LWPOLYLINE", "POLYLINE", "VERTEX", "SEQEND",
                                                       "ARC",  "CIRCLE",     "ELLIPSE",  "SPLINE", "INSERT"};
        if (section == "TABLES") {
            if (kind == "LAYER") kind_ = kind;
            return;
        }
        if (section != "ENTITIES" && section != "BLOCKS") return;
        if (section == "BLOCKS" && (kind == "BLOCK" || kind == "ENDBLK")) {
            kind_ = kind;
            return;
        }
        if (std::find(known.begin(), known.end(), kind) != known.end())
            kind_ = kind;
        else
            ++passedOver;
    }

    [[nodiscard]] QByteArray valueOf(int wanted) const {
        for (const auto& [code, value] : pairs_)
            if (code == wanted) return value;
        return {};
    }

    void end(const QByteArray& section) {
        if (kind_.isEmpty()) return;
        const QByteArray kind = kind_;
        kind_.clear();
        if (kind == "LAYER") {
            // Bit 1 of 70: frozen. A colour below 0: switched off.
            if ((valueOf(70).toInt() & 1) || valueOf(62).toInt() < 0) hidden_.insert(valueOf(2).toUpper());
        } else if (kind == "ENDBLK") {
            if (inBlock_) blocks_ += "0\nENDBLK\n8\n0\n";
            inBlock_ = false;
        } else if (kind == "BLOCK") {
            if (inBlock_) blocks_ += "0\nENDBLK\n8\n0\n";
            const QByteArray name = valueOf(2).toUpper();
            inBlock_ = !name.isEmpty();
            QByteArray body;
            if (inBlock_ && cleanBody(kind, body)) blocks_ += "0\nBLOCK\n8\n0\n2\n" + name + "\n70\n0\n" + body;
        } else if (section == "BLOCKS" ? inBlock_ : true) {
            take(kind, section == "BLOCKS" ? blocks_ : entities_);
        }
        pairs_.clear();
    }

    /// Corners and the end of an old polyline stand or fall with it.
    void take(const QByteArray& kind, QByteArray& into) {
        if (kind == "VERTEX" || kind == "SEQEND") {
            if (!inPolyline_) return;
            if (kind == "SEQEND") inPolyline_ = false;
        } else {
            inPolyline_ = false;
            if (valueOf(67).toInt() == 1 || valueOf(60).toInt() == 1 || hidden_.contains(valueOf(8).toUpper())) return;
        }
        QByteArray body;
        if (!cleanBody(kind, body)) {
            ++passedOver;
            return;
        }
        if (kind == "LWPOLYLINE" && body.isEmpty()) return;
        if (kind == "POLYLINE") inPolyline_ = true;
        into += "0\n" + kind + "\n8\n0\n" + body;
    }

    /// The figures of an entity, counts first: corners before them would have no place. False with a figure that is
    /// none: such an entity is left out whole.
    bool cleanBody(const QByteArray& kind, QByteArray& body) {
        std::map<int, int> times;
        for (const auto& [code, value] : pairs_) ++times[code];
        if (kind == "LWPOLYLINE") {
            if (times[10] < 2) return true;
            body += "90\n" + QByteArray::number(times[10]) + '\n';
        }
        if (kind == "SPLINE") {
            const int degree = std::clamp(valueOf(71).toInt(), 1, 10);
            if (times[40] > 20000 || times[10] > 20000 || times[11] > 20000) return false;
            body += "70\n" + QByteArray::number(valueOf(70).toInt()) + "\n71\n" + QByteArray::number(degree) +
                    "\n72\n" + QByteArray::number(times[40]) + "\n73\n" + QByteArray::number(times[10]) + "\n74\n" +
                    QByteArray::number(times[11]) + '\n';
        }
        if (kind == "INSERT") body += "2\n" + valueOf(2).toUpper() + '\n';
        for (const auto& [code, value] : pairs_) {
            const bool coordinate =
                (code >= 10 && code <= 59) || (code >= 140 && code <= 149) || (code >= 210 && code <= 239);
            const bool count = kind == "INSERT" && (code == 70 || code == 71);
            const bool flag = (code == 70 && kind != "SPLINE" && kind != "BLOCK") || count;
            if (!coordinate && !flag) continue;
            bool good = false;
            const double n = value.toDouble(&good);
            if (!good || !std::isfinite(n) || std::abs(n) > kFarthest) return false;
            body += QByteArray::number(code) + '\n' +
                    (flag ? QByteArray::number(std::clamp(static_cast<int>(n), -1000, 1000)) : value) + '\n';
        }
        return true;
    }

    QByteArray kind_, variable_, blocks_, entities_;
    QList<std::pair<int, QByteArray>> pairs_;
    QSet<QByteArray> hidden_; ///< layers
    bool inBlock_ = false, inPolyline_ = false;
};

/// A map of the plane: p -> a p.x + b p.y + c.
struct Affine {
    Point a{1, 0}, b{0, 1}, c{};
    [[nodiscard]] Point map(Point p) const { return a * p.x + b * p.y + c; }
    [[nodiscard]] Affine after(const Affine& first) const {
        const auto turn = [&](Point v) { return a * v.x + b * v.y; };
        return {turn(first.a), turn(first.b), map(first.c)};
    }
    [[nodiscard]] double scale() const { return std::max(std::hypot(a.x, a.y), std::hypot(b.x, b.y)); }
};

/// The drawing's own plane of an entity (its extrusion), seen from above: the arbitrary axis algorithm of the format.
Affine planeOf(const DL_Extrusion* extrusion) {
    if (!extrusion) return {};
    std::array<double, 3> n{};
    extrusion->getDirection(n.data());
    const double length = std::sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
    if (!(length > 1e-9)) return {};
    for (double& v : n) v /= length;
    std::array<double, 3> x{};
    if (std::abs(n[0]) < 1.0 / 64 && std::abs(n[1]) < 1.0 / 64)
        x = {n[2], 0, -n[0]}; // Y x n
    else
        x = {-n[1], n[0], 0}; // Z x n
    const double l = std::sqrt(x[0] * x[0] + x[1] * x[1] + x[2] * x[2]);
    for (double& v : x) v /= l;
    const std::array<double, 3> y{n[1] * x[2] - n[2] * x[1], n[2] * x[0] - n[0] * x[2], n[0] * x[1] - n[1] * x[0]};
    return {{x[0], x[1]}, {y[0], y[1]}, {}};
}

/// What an entity draws, not flattened yet: how fine depends on how large it comes out.
struct Figure {
    enum Kind { Bulged, Oval, Spline, Block } kind = Bulged;
    Affine plane;
    std::vector<std::pair<Point, double>> corners; ///< with bulges; of a spline its control points with weights
    bool closed = false;
    Point centre, major, minor; ///< of an oval: half axes
    double from{}, sweep{};     ///< its parameter, radians
    int degree = 3;
    std::vector<double> knots;
    std::vector<Point> through; ///< of a spline without control points
    std::string block;
    int columns = 1, rows = 1;
    Point apart; ///< columns, rows
};

/// Gathers figures as dxflib meets them.
class Gatherer final : public DL_CreationAdapter {
public:
    struct BlockOf {
        Point base;
        std::vector<Figure> figures;
    };
    std::vector<Figure> figures;
    std::map<std::string, BlockOf> blocks;

    void addBlock(const DL_BlockData& b) override {
        finish();
        block_ = b.name;
        blocks[block_] = {{b.bpx, b.bpy}, {}};
    }
    void endBlock() override {
        finish();
        block_.clear();
    }
    void addInsert(const DL_InsertData& i) override {
        finish();
        Figure f{.kind = Figure::Block, .plane = planeOf(getExtrusion())};
        f.block = i.name;
        const double turn = i.angle * std::numbers::pi / 180, c = std::cos(turn), s = std::sin(turn);
        const double sx = i.sx == 0 ? 1 : i.sx, sy = i.sy == 0 ? 1 : i.sy;
        f.major = Point{c, s} * sx;
        f.minor = Point{-s, c} * sy;
        f.centre = {i.ipx, i.ipy};
        f.columns = std::clamp(i.cols, 1, 200);
        f.rows = std::clamp(i.rows, 1, 200);
        f.apart = {i.colSp, i.rowSp};
        keep(std::move(f));
    }
    void addLine(const DL_LineData& l) override {
        finish();
        keep({.corners = {{{l.x1, l.y1}, 0}, {{l.x2, l.y2}, 0}}});
    }
    void addArc(const DL_ArcData& a) override {
        double sweep = std::fmod(a.angle2 - a.angle1, 360);
        if (sweep <= 0) sweep += 360;
        oval({a.cx, a.cy}, {a.radius, 0}, {0, a.radius}, a.angle1 * std::numbers::pi / 180,
             sweep * std::numbers::pi / 180, true);
    }
    void addCircle(const DL_CircleData& c) override {
        oval({c.cx, c.cy}, {c.radius, 0}, {0, c.radius}, 0, 2 * std::numbers::pi, true);
    }
    void addEllipse(const DL_EllipseData& e) override {
        // In the world's axes; seen from below it turns the other way.
        std::array<double, 3> n{0, 0, 1};
        if (getExtrusion()) getExtrusion()->getDirection(n.data());
        const double way = n[2] < 0 ? -1 : 1;
        double sweep = std::fmod(e.angle2 - e.angle1, 2 * std::numbers::pi);
        if (sweep <= 1e-12) sweep += 2 * std::numbers::pi;
        oval({e.cx, e.cy}, {e.mx, e.my}, Point{-e.my, e.mx} * (e.ratio * way), e.angle1, sweep, false);
    }
    void addPolyline(const DL_PolylineData& p) override {
        finish();
        now_ = Figure{.plane = planeOf(getExtrusion()), .closed = (p.flags & 1) != 0};
        gathering_ = true;
    }
    void addVertex(const DL_VertexData& v) override {
        if (gathering_ && now_.kind == Figure::Bulged && now_.corners.size() < kMostOutlineCorners)
            now_.corners.push_back({{v.x, v.y}, v.bulge});
    }
    void addSpline(const DL_SplineData& s) override {
        finish();
        now_ = Figure{.kind = Figure::Spline, .closed = (s.flags & 1) != 0};
        now_.degree = std::clamp(static_cast<int>(s.degree), 1, 10);
        gathering_ = true;
    }
    void addControlPoint(const DL_ControlPointData& p) override {
        if (gathering_) now_.corners.push_back({{p.x, p.y}, p.w > 0 ? p.w : 1});
    }
    void addFitPoint(const DL_FitPointData& p) override {
        if (gathering_) now_.through.push_back({p.x, p.y});
    }
    void addKnot(const DL_KnotData& k) override {
        if (gathering_) now_.knots.push_back(k.k);
    }
    void endEntity() override {
        if (gathering_ && now_.kind == Figure::Spline) finish();
    }
    void endSequence() override { finish(); }

    /// Takes what is under way; called once more when all is read.
    void finish() {
        if (gathering_) keep(std::move(now_));
        gathering_ = false;
        now_ = {};
    }

private:
    void keep(Figure figure) {
        auto& into = block_.empty() ? figures : blocks[block_].figures;
        if (into.size() < kMostStrokes) into.push_back(std::move(figure));
    }
    void oval(Point centre, Point major, Point minor, double from, double sweep, bool inPlane) {
        finish();
        Figure f{.kind = Figure::Oval, .plane = inPlane ? planeOf(getExtrusion()) : Affine{}};
        f.centre = centre;
        f.major = major;
        f.minor = minor;
        f.from = from;
        f.sweep = sweep;
        keep(std::move(f));
    }

    std::string block_;
    Figure now_;
    bool gathering_ = false;
};

/// Flattens figures into strokes, in the file's units, to within a tolerance in them.
class Flattener {
public:
    Flattener(const Gatherer& drawing, double tolerance) : drawing_(drawing), tolerance_(tolerance) {}

    void run() {
        for (const Figure& f : drawing_.figures) add(f, {}, 0);
    }
    std::vector<std::vector<Point>> strokes;
    std::size_t corners = 0;
    bool tooMuch = false;

private:
    void add(const Figure& f, const Affine& outer, int depth) {
        if (corners > kMostOutlineCorners || strokes.size() > kMostStrokes || ++visited_ > 200000) tooMuch = true;
        if (tooMuch) return;
        const Affine map = outer.after(f.plane);
        if (f.kind == Figure::Block) return insert(f, map, depth);
        std::vector<Point> stroke;
        const double tolerance = tolerance_ / std::max(1e-12, map.scale());
        switch (f.kind) {
        case Figure::Bulged: bulged(f, tolerance, stroke); break;
        case Figure::Oval: oval(f.centre, f.major, f.minor, f.from, f.sweep, tolerance, stroke); break;
        default: spline(f, tolerance, stroke); break;
        }
        if (stroke.size() < 2) return;
        for (Point& p : stroke) p = map.map(p);
        for (const Point& p : stroke)
            if (!(std::abs(p.x) <= kFarthest) || !(std::abs(p.y) <= kFarthest)) return;
        corners += stroke.size();
        strokes.push_back(std::move(stroke));
    }

    void insert(const Figure& f, const Affine& map, int depth) {
        const auto block = drawing_.blocks.find(f.block);
        if (block == drawing_.blocks.end() || depth >= kDeepestBlock) return;
        for (int row = 0; row < f.rows; ++row)
            for (int column = 0; column < f.columns; ++column) {
                Affine in{f.major, f.minor, {}};
                // Rows and columns lie along the turned axes, not scaled with what is inserted.
                const double l = std::hypot(f.major.x, f.major.y), m = std::hypot(f.minor.x, f.minor.y);
                const Point grid =
                    f.major * (l > 0 ? f.apart.x * column / l : 0) + f.minor * (m > 0 ? f.apart.y * row / m : 0);
                in.c = f.centre + grid - in.map(block->second.base);
                for (const Figure& inner : block->second.figures) {
                    add(inner, map.after(in), depth + 1);
                    if (tooMuch) return;
                }
            }
    }

    static void oval(Point centre, Point major, Point minor, double from, double sweep, double tolerance,
                     std::vector<Point>& into) {
        const double radius = std::max(std::hypot(major.x, major.y), std::hypot(minor.x, minor.y));
        if (!(radius > 0) || !std::isfinite(radius)) return;
        const double step = 2 * std::acos(std::clamp(1 - tolerance / radius, 0.0, 1.0));
        const int pieces = std::clamp(static_cast<int>(std::ceil(std::abs(sweep) / std::max(step, 0.005))),
                                      std::max(4, static_cast<int>(std::abs(sweep) * 8)), 2000);
        for (int i = 0; i <= pieces; ++i) {
            const double a = from + sweep * i / pieces;
            into.push_back(centre + major * std::cos(a) + minor * std::sin(a));
        }
        if (std::abs(sweep - 2 * std::numbers::pi) < 1e-9)
            into.back() = into[into.size() - static_cast<std::size_t>(pieces) - 1];
    }

    /// A bulge is the tangent of a quarter of the arc's angle, positive counter-clockwise.
    static void bulge(Point a, Point b, double bulge, double tolerance, std::vector<Point>& into) {
        const double chord = distance(a, b);
        if (std::abs(bulge) < 1e-9 || chord < 1e-9 || std::abs(bulge) > 1e4) return;
        const double sweep = 4 * std::atan(bulge);
        const double radius = chord / (2 * std::sin(std::abs(sweep) / 2));
        const Point u = (b - a) * (1 / chord);
        const double apothem = chord / 2 / std::tan(sweep / 2);
        const Point centre = (a + b) * 0.5 + Point{-u.y, u.x} * apothem;
        std::vector<Point> points;
        oval(centre, {radius, 0}, {0, radius}, std::atan2(a.y - centre.y, a.x - centre.x), sweep, tolerance, points);
        for (std::size_t i = 1; i + 1 < points.size(); ++i) into.push_back(points[i]);
    }

    static void bulged(const Figure& f, double tolerance, std::vector<Point>& into) {
        const std::size_t n = f.corners.size();
        for (std::size_t i = 0; i < n; ++i) {
            into.push_back(f.corners[i].first);
            if (i + 1 == n && !f.closed) break;
            bulge(f.corners[i].first, f.corners[(i + 1) % n].first, f.corners[i].second, tolerance, into);
        }
        if (f.closed && n > 1) into.push_back(f.corners.front().first);
    }

    /// A rational B-spline by de Boor's recursion; one that gives only points is taken through them as they come.
    static void spline(const Figure& f, double tolerance, std::vector<Point>& into) {
        const auto n = static_cast<int>(f.corners.size());
        const int degree = f.degree;
        const bool sound = n > degree && static_cast<int>(f.knots.size()) == n + degree + 1 &&
                           std::is_sorted(f.knots.begin(), f.knots.end());
        if (!sound) {
            into = f.through;
            if (into.empty())
                for (const auto& [p, w] : f.corners) into.push_back(p);
            if (f.closed && into.size() > 2) into.push_back(into.front());
            return;
        }
        const auto knot = [&](int i) { return f.knots[static_cast<std::size_t>(i)]; };
        for (int span = degree; span < n; ++span) {
            if (knot(span + 1) - knot(span) < 1e-12) continue;
            double extent = 0;
            for (int i = span - degree; i < span; ++i)
                extent += distance(f.corners[static_cast<std::size_t>(i)].first,
                                   f.corners[static_cast<std::size_t>(i) + 1].first);
            const int pieces = std::clamp(static_cast<int>(std::ceil(std::sqrt(extent / tolerance) / 2)), 8, 400);
            for (int i = into.empty() ? 0 : 1; i <= pieces; ++i)
                into.push_back(deBoor(f, span, knot(span) + (knot(span + 1) - knot(span)) * i / pieces));
        }
    }
    static Point deBoor(const Figure& f, int span, double u) {
        struct Weighted {
            double x, y, w;
        };
        const int p = f.degree;
        std::vector<Weighted> d;
        for (int i = 0; i <= p; ++i) {
            const auto& [at, w] = f.corners[static_cast<std::size_t>(span - p + i)];
            d.push_back({at.x * w, at.y * w, w});
        }
        for (int r = 1; r <= p; ++r)
            for (int i = p; i >= r; --i) {
                const double low = f.knots[static_cast<std::size_t>(span - p + i)];
                const double high = f.knots[static_cast<std::size_t>(span + 1 + i - r)];
                const double t = high - low > 1e-15 ? (u - low) / (high - low) : 0;
                Weighted &a = d[static_cast<std::size_t>(i) - 1], &b = d[static_cast<std::size_t>(i)];
                b = {a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t, a.w + (b.w - a.w) * t};
            }
        const Weighted& end = d.back();
        return {end.x / end.w, end.y / end.w};
    }

    const Gatherer& drawing_;
    double tolerance_;
    int visited_ = 0;
};

/// $INSUNITS in mm; nothing where the drawing has no unit.
std::optional<double> mmOf(int insUnits) {
    switch (insUnits) {
    case 1: return 25.4;
    case 2: return 304.8;
    case 4: return 1;
    case 5: return 10;
    case 6: return 1000;
    case 10: return 914.4;
    case 14: return 100;
    default: return std::nullopt;
    }
}

/// Extent of all strokes, in the file's units.
double extentOf(const std::vector<std::vector<Point>>& strokes) {
    Ring all;
    for (const auto& s : strokes) all.insert(all.end(), s.begin(), s.end());
    if (all.empty()) return 1;
    const Bounds b = boundsOf(all);
    return std::max({b.width(), b.height(), 1e-9});
}

} // namespace

Result<OutlineDrawing, OutlineFault> readDxf(const QByteArray& bytes) {
    if (bytes.size() > kLargestOutlineFile) return OutlineFault{OutlineFaultKind::TooLarge, {}};
    if (bytes.trimmed().isEmpty()) return OutlineFault{OutlineFaultKind::Empty, {}};
    CleanCopy copy;
    if (!copy.make(bytes)) return OutlineFault{OutlineFaultKind::Damaged, std::to_string(copy.where)};
    std::istringstream stream(copy.text.toStdString());
    DL_Dxf reader;
    Gatherer gatherer;
    reader.in(static_cast<std::istream&>(stream), &gatherer);
    gatherer.finish();
    const auto unit = mmOf(copy.insUnits);
    // Without a unit the drawing is taken to be about as large as a wall is: 2.5 m.
    double units = unit ? 1 / *unit : 0;
    if (!unit) {
        Flattener rough(gatherer, 1e9);
        rough.run();
        units = extentOf(rough.strokes) / 2500;
    }
    Flattener flat(gatherer, kTolerance * units);
    flat.run();
    if (flat.tooMuch || flat.corners > kMostOutlineCorners) return OutlineFault{OutlineFaultKind::TooLarge, {}};
    OutlineDrawing drawing = joinedRings(flat.strokes, kReach * units);
    if (drawing.rings.empty()) return OutlineFault{OutlineFaultKind::NoOutline, {}};
    drawing.mmPerUnit = unit;
    drawing.passedOver = copy.passedOver;
    return drawing;
}

} // namespace westrum
