#include "formats/outline_file.h"
#include "formats/svg_elements.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr double kTolerance = 0.05; ///< mm that a flattened curve may lie off the true one
constexpr int kMostDrawn = 500000;
constexpr double kUserMm = 25.4 / 96; ///< a user unit is a 96th of an inch where the file gives lengths in units

/// A viewport: what percentages are of, in user units.
struct Viewport {
    double width = 0, height = 0;
};

class SvgReader {
public:
    Result<OutlineDrawing, OutlineFault> read(const QByteArray& bytes) {
        std::unique_ptr<Element> root;
        if (const auto fault = readElements(bytes, root, styles_)) return *fault;
        index(*root);
        // Millimetres where the file says how large it is in the world, else user units.
        const auto width = worldLength(root->value("width")), height = worldLength(root->value("height"));
        std::array<double, 4> box{};
        const bool hasBox = viewBox(*root, box);
        QTransform outer;
        Viewport port;
        if (width || height) {
            mmPerUnit_ = 1;
            if (hasBox) {
                // One of them alone: the other follows from the box.
                const double w = width.value_or(height.value_or(1) * box[2] / box[3]),
                             h = height.value_or(w * box[3] / box[2]);
                outer = fitted(box, w, h, root->value("preserveAspectRatio"));
                port = {box[2], box[3]};
            } else {
                outer.scale(kUserMm, kUserMm);
                port = {width.value_or(0) / kUserMm, height.value_or(0) / kUserMm};
            }
        } else if (hasBox) {
            port = {box[2], box[3]};
        }
        Look look;
        const std::optional<Look> drawn = lookOf(*root, look);
        if (drawn)
            for (const auto& e : root->inner) draw(*e, outer, *drawn, port, 1);
        if (corners_ > kMostOutlineCorners || drawn_ > kMostDrawn) return OutlineFault{OutlineFaultKind::TooLarge, {}};
        // y runs down in the file and up here.
        for (auto& s : strokes_)
            for (Point& p : s) p.y = -p.y;
        OutlineDrawing drawing = joinedRings(strokes_, mmPerUnit_ ? 0.5 : extent() * 2e-4);
        if (drawing.rings.empty()) return OutlineFault{OutlineFaultKind::NoOutline, {}};
        drawing.mmPerUnit = mmPerUnit_;
        drawing.passedOver = passedOver_;
        return drawing;
    }

private:
    void index(const Element& e) {
        if (!e.id().isEmpty() && !byId_.contains(e.id())) byId_.insert(e.id(), &e);
        for (const auto& inner : e.inner) index(*inner);
    }

    [[nodiscard]] double extent() const {
        Ring all;
        for (const auto& s : strokes_) all.insert(all.end(), s.begin(), s.end());
        if (all.empty()) return 1;
        const Bounds b = boundsOf(all);
        return std::max({b.width(), b.height(), 1e-9});
    }

    static bool viewBox(const Element& e, std::array<double, 4>& into) {
        const QString text = e.value("viewBox");
        Numbers n(text);
        for (double& v : into)
            if (!n.next(v)) return false;
        return into[2] > 0 && into[3] > 0;
    }

    /// Fits a box into a viewport as preserveAspectRatio says; xMidYMid meet if it does not.
    static QTransform fitted(const std::array<double, 4>& box, double width, double height, const QString& rule) {
        const QString how = rule.trimmed();
        double sx = width / box[2], sy = height / box[3];
        double dx = 0, dy = 0;
        if (!how.startsWith(QLatin1String("none"))) {
            const double s = how.endsWith(QLatin1String("slice")) ? std::max(sx, sy) : std::min(sx, sy);
            sx = sy = s;
            const auto part = [&](const char* least, const char* most) {
                return how.contains(QLatin1String(least)) ? 0.0 : how.contains(QLatin1String(most)) ? 1.0 : 0.5;
            };
            dx = (width - s * box[2]) * part("xMin", "xMax");
            dy = (height - s * box[3]) * part("YMin", "YMax");
        }
        QTransform t;
        t.translate(dx, dy);
        t.scale(sx, sy);
        t.translate(-box[0], -box[1]);
        return t;
    }

    /// How an element is drawn within what holds it; nothing if it and all in it are not.
    [[nodiscard]] std::optional<Look> lookOf(const Element& e, Look look) const {
        for (const char* property : {"display", "opacity", "visibility", "fill", "stroke"})
            if (e.attributes.hasAttribute(QLatin1String(property)))
                applyLook(look, QLatin1String(property), e.value(property));
        styles_.apply(e, look);
        applyDeclarations(look, e.value("style"));
        return look.shown ? std::optional(look) : std::nullopt;
    }

    /// A length of an attribute in user units: with a unit, or in percent of the viewport.
    static std::optional<double> length(const Element& e, const char* key, double whole) {
        const QString text = e.value(key);
        Numbers n(text);
        double v = 0;
        if (!n.next(v)) return std::nullopt;
        if (n.is(u'%')) return v / 100 * whole;
        const QString unit = n.word();
        if (const auto mm = mmOfSvgUnit(unit)) return v * *mm / kUserMm;
        if (unit == QLatin1String("em")) return v * 16;
        return v;
    }

    void draw(const Element& e, QTransform t, const Look& outer, const Viewport& port, int depth) {
        if (depth > kDeepestSvg || ++drawn_ > kMostDrawn || corners_ > kMostOutlineCorners) return;
        static const QStringList never{QStringLiteral("defs"),   QStringLiteral("clipPath"), QStringLiteral("mask"),
                                       QStringLiteral("symbol"), QStringLiteral("pattern"),  QStringLiteral("marker"),
                                       QStringLiteral("style"),  QStringLiteral("metadata"), QStringLiteral("title"),
                                       QStringLiteral("desc"),   QStringLiteral("script")};
        if (never.contains(e.name)) return;
        const auto look = lookOf(e, outer);
        if (!look) return;
        const QString own = e.value("transform");
        t = transformOf(own) * t;
        if (e.name == QLatin1String("use")) return used(e, t, *look, port, depth);
        Viewport inner = port;
        if (e.name == QLatin1String("svg")) t = nested(e, e, inner) * t;
        if (look->drawn()) shape(e, t, port);
        for (const auto& child : e.inner) draw(*child, t, *look, inner, depth + 1);
    }

    /// Where a nested svg or a used symbol lies: `sized` says how large, `holder` has the box.
    static QTransform nested(const Element& sized, const Element& holder, Viewport& port) {
        const double x = length(sized, "x", port.width).value_or(0), y = length(sized, "y", port.height).value_or(0);
        const double w =
            length(sized, "width", port.width).value_or(length(holder, "width", port.width).value_or(port.width));
        const double h =
            length(sized, "height", port.height).value_or(length(holder, "height", port.height).value_or(port.height));
        QTransform t;
        std::array<double, 4> box{};
        if (viewBox(holder, box) && w > 0 && h > 0) {
            t = fitted(box, w, h, holder.value("preserveAspectRatio"));
            port = {box[2], box[3]};
        } else if (w > 0 && h > 0) {
            port = {w, h};
        }
        QTransform move;
        move.translate(x, y);
        return t * move;
    }

    void used(const Element& e, QTransform t, const Look& look, const Viewport& port, int depth) {
        QString target = e.value("href");
        if (target.isEmpty())
            target =
                e.attributes.value(QLatin1String("http://www.w3.org/1999/xlink"), QLatin1String("href")).toString();
        if (target.isEmpty()) target = e.attributes.value(QLatin1String("xlink:href")).toString();
        const auto found = target.startsWith(QLatin1Char('#')) ? byId_.find(target.mid(1)) : byId_.end();
        if (found == byId_.end()) {
            ++passedOver_; // of another file, or of none
            return;
        }
        const Element& what = **found;
        if (what.name == QLatin1String("symbol") || what.name == QLatin1String("svg")) {
            const auto own = lookOf(what, look);
            if (!own) return;
            Viewport inner = port;
            t = nested(e, what, inner) * t;
            for (const auto& child : what.inner) draw(*child, t, *own, inner, depth + 1);
            return;
        }
        QTransform move;
        move.translate(length(e, "x", port.width).value_or(0), length(e, "y", port.height).value_or(0));
        draw(what, move * t, look, port, depth + 1);
    }

    void shape(const Element& e, const QTransform& t, const Viewport& port) {
        const QString& name = e.name;
        const double across = port.width, down = port.height;
        const double both = std::hypot(across, down) / std::numbers::sqrt2;
        const auto number = [&](const char* key, double whole, double byDefault = 0) {
            return length(e, key, whole).value_or(byDefault);
        };
        pen_ = &t;
        // How fine a curve is flattened follows from how large it comes out.
        const double scale = std::sqrt(std::abs(t.determinant()));
        tolerance_ = mmPerUnit_ && scale > 1e-12 ? kTolerance / scale : 0;
        if (name == QLatin1String("path")) {
            const QString d = e.value("d");
            path(d);
        } else if (name == QLatin1String("rect")) {
            const double x = number("x", across), y = number("y", down), w = number("width", across),
                         h = number("height", down);
            double rx = number("rx", across, -1), ry = number("ry", down, -1);
            if (rx < 0) rx = ry;
            if (ry < 0) ry = rx;
            if (w <= 0 || h <= 0) return;
            rx = std::clamp(rx, 0.0, w / 2);
            ry = std::clamp(ry, 0.0, h / 2);
            begin({x + rx, y});
            line({x + w - rx, y});
            if (rx > 0 && ry > 0) arc(rx, ry, 0, false, true, {x + w, y + ry});
            line({x + w, y + h - ry});
            if (rx > 0 && ry > 0) arc(rx, ry, 0, false, true, {x + w - rx, y + h});
            line({x + rx, y + h});
            if (rx > 0 && ry > 0) arc(rx, ry, 0, false, true, {x, y + h - ry});
            line({x, y + ry});
            if (rx > 0 && ry > 0) arc(rx, ry, 0, false, true, {x + rx, y});
            close();
        } else if (name == QLatin1String("circle") || name == QLatin1String("ellipse")) {
            const bool round = name == QLatin1String("circle");
            const double rx = number(round ? "r" : "rx", round ? both : across), ry = round ? rx : number("ry", down);
            const double cx = number("cx", across), cy = number("cy", down);
            if (rx <= 0 || ry <= 0) return;
            begin({cx + rx, cy});
            arc(rx, ry, 0, false, true, {cx - rx, cy});
            arc(rx, ry, 0, false, true, {cx + rx, cy});
            close();
        } else if (name == QLatin1String("line")) {
            begin({number("x1", across), number("y1", down)});
            line({number("x2", across), number("y2", down)});
            end();
        } else if (name == QLatin1String("polygon") || name == QLatin1String("polyline")) {
            const QString points = e.value("points");
            Numbers n(points);
            Point p;
            bool first = true;
            while (n.next(p.x) && n.next(p.y) && corners_ <= kMostOutlineCorners) {
                if (first)
                    begin(p);
                else
                    line(p);
                first = false;
            }
            if (name == QLatin1String("polygon"))
                close();
            else
                end();
        } else if (name == QLatin1String("text") || name == QLatin1String("image")) {
            ++passedOver_;
        }
    }

    void path(QStringView d) {
        Numbers n(d);
        QChar command;
        Point start, control;
        QChar before;
        while (n.command(command)) {
            const bool relative = command.isLower();
            const QChar c = command.toUpper();
            bool more = true;
            bool first = true;
            while (more && corners_ <= kMostOutlineCorners) {
                const Point origin = relative ? here_ : Point{};
                const auto point = [&](Point& p) {
                    if (!n.next(p.x) || !n.next(p.y)) return false;
                    p = p + origin;
                    return true;
                };
                Point a, b, p;
                more = true;
                switch (c.unicode()) {
                case 'M':
                    if ((more = point(p))) {
                        if (first)
                            begin(p), start = p;
                        else
                            line(p);
                    }
                    break;
                case 'L':
                    if ((more = point(p))) line(p);
                    break;
                case 'H':
                    if ((more = n.next(p.x))) line({p.x + (relative ? here_.x : 0), here_.y});
                    break;
                case 'V':
                    if ((more = n.next(p.y))) line({here_.x, p.y + (relative ? here_.y : 0)});
                    break;
                case 'C':
                    if ((more = point(a) && point(b) && point(p))) cubic(a, b, p), control = b;
                    break;
                case 'S':
                    if ((more = point(b) && point(p))) {
                        a = before == u'C' || before == u'S' ? here_ * 2 - control : here_;
                        cubic(a, b, p);
                        control = b;
                    }
                    break;
                case 'Q':
                    if ((more = point(a) && point(p))) quadratic(a, p), control = a;
                    break;
                case 'T':
                    if ((more = point(p))) {
                        a = before == u'Q' || before == u'T' ? here_ * 2 - control : here_;
                        quadratic(a, p);
                        control = a;
                    }
                    break;
                case 'A': {
                    double rx = 0, ry = 0, turn = 0;
                    bool large = false, sweep = false;
                    more = n.next(rx) && n.next(ry) && n.next(turn) && n.flag(large) && n.flag(sweep) && point(p);
                    if (more) arc(rx, ry, turn, large, sweep, p);
                    break;
                }
                case 'Z':
                    close();
                    here_ = start;
                    more = false;
                    break;
                default: more = false;
                }
                if (more) before = c;
                first = false;
            }
        }
        end();
    }

    void begin(Point p) {
        end();
        here_ = p;
        put(p);
    }
    void put(Point p) {
        ++corners_;
        const QPointF m = pen_->map(QPointF(p.x, p.y));
        if (std::isfinite(m.x()) && std::isfinite(m.y()) && std::abs(m.x()) < kFarthestSvg &&
            std::abs(m.y()) < kFarthestSvg)
            stroke_.push_back({m.x(), m.y()});
    }
    void line(Point p) {
        if (stroke_.empty()) put(here_);
        here_ = p;
        put(p);
    }
    void close() {
        if (stroke_.size() > 2) stroke_.push_back(stroke_.front());
        end();
    }
    void end() {
        if (stroke_.size() > 1 && strokes_.size() < 20000) strokes_.push_back(std::move(stroke_));
        stroke_.clear();
    }
    void cubic(Point a, Point b, Point p) {
        const Point from = here_;
        const double extent = distance(from, a) + distance(a, b) + distance(b, p);
        const int pieces = std::clamp(static_cast<int>(std::ceil(std::sqrt(extent / fine(extent)) / 2)), 8, 400);
        for (int i = 1; i <= pieces; ++i) {
            const double u = static_cast<double>(i) / pieces, v = 1 - u;
            line(from * (v * v * v) + a * (3 * v * v * u) + b * (3 * v * u * u) + p * (u * u * u));
        }
    }
    /// How far a flattened curve may lie off, in its own units; without a size in the world by how large it is itself.
    [[nodiscard]] double fine(double size) const { return tolerance_ > 0 ? tolerance_ : size * 1e-4; }
    void quadratic(Point a, Point p) { cubic(here_ + (a - here_) * (2.0 / 3), p + (a - p) * (2.0 / 3), p); }
    /// Endpoint to centre form as the format's own notes on arcs have it.
    void arc(double rx, double ry, double turnDeg, bool large, bool sweep, Point p) {
        rx = std::abs(rx);
        ry = std::abs(ry);
        const Point from = here_;
        if (rx < 1e-9 || ry < 1e-9 || distance(from, p) < 1e-12) return line(p);
        const double phi = turnDeg * std::numbers::pi / 180, c = std::cos(phi), s = std::sin(phi);
        const Point half = (from - p) * 0.5;
        const Point q{c * half.x + s * half.y, -s * half.x + c * half.y};
        const double grow = q.x * q.x / (rx * rx) + q.y * q.y / (ry * ry);
        if (grow > 1) rx *= std::sqrt(grow), ry *= std::sqrt(grow);
        const double rest = rx * rx * ry * ry - rx * rx * q.y * q.y - ry * ry * q.x * q.x;
        double k = std::sqrt(std::max(0.0, rest / (rx * rx * q.y * q.y + ry * ry * q.x * q.x)));
        if (large == sweep) k = -k;
        const Point centre{k * rx * q.y / ry, -k * ry * q.x / rx};
        const double a0 = std::atan2((q.y - centre.y) / ry, (q.x - centre.x) / rx);
        const double a1 = std::atan2((-q.y - centre.y) / ry, (-q.x - centre.x) / rx);
        double span = a1 - a0;
        if (sweep && span < 0) span += 2 * std::numbers::pi;
        if (!sweep && span > 0) span -= 2 * std::numbers::pi;
        const double step = 2 * std::acos(std::clamp(1 - fine(std::max(rx, ry)) / std::max(rx, ry), 0.0, 1.0));
        const int pieces = std::clamp(static_cast<int>(std::ceil(std::abs(span) / std::max(step, 0.005))),
                                      std::max(4, static_cast<int>(std::abs(span) * 8)), 2000);
        const Point middle = (from + p) * 0.5;
        for (int i = 1; i <= pieces; ++i) {
            const double a = a0 + span * i / pieces;
            const Point e{centre.x + rx * std::cos(a), centre.y + ry * std::sin(a)};
            line(i == pieces ? p : Point{c * e.x - s * e.y + middle.x, s * e.x + c * e.y + middle.y});
        }
    }

    std::vector<std::vector<Point>> strokes_;
    std::vector<Point> stroke_;
    Point here_;
    const QTransform* pen_ = nullptr;
    double tolerance_ = 0; ///< of the element in hand, in its own units; 0: not known
    std::optional<double> mmPerUnit_;
    QHash<QString, const Element*> byId_;
    StyleSheet styles_;
    std::size_t corners_ = 0;
    int drawn_ = 0, passedOver_ = 0;
};

} // namespace

Result<OutlineDrawing, OutlineFault> readSvg(const QByteArray& bytes) {
    if (bytes.size() > kLargestOutlineFile) return OutlineFault{OutlineFaultKind::TooLarge, {}};
    if (bytes.trimmed().isEmpty()) return OutlineFault{OutlineFaultKind::Empty, {}};
    return SvgReader().read(bytes);
}

} // namespace westrum
