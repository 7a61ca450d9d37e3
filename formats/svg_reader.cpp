#include "formats/outline_file.h"

#include <QTransform>
#include <QXmlStreamReader>

#include <cmath>
#include <numbers>

namespace westrum {
namespace {

constexpr double kTolerance = 0.05;
constexpr double kFarthest = 1e7;
constexpr int kDeepest = 64;

/// Reads numbers out of an attribute, one after the other, as SVG separates them.
class Numbers {
public:
    explicit Numbers(QStringView text) : text_(text) {}
    bool next(double& into) {
        skip();
        const qsizetype start = at_;
        if (at_ < text_.size() && (text_[at_] == u'-' || text_[at_] == u'+')) ++at_;
        bool dot = false;
        while (at_ < text_.size() && (text_[at_].isDigit() || (!dot && text_[at_] == u'.')))
            dot |= text_[at_++] == u'.';
        if (at_ + 1 < text_.size() && (text_[at_] == u'e' || text_[at_] == u'E') &&
            (text_[at_ + 1].isDigit() || ((text_[at_ + 1] == u'-' || text_[at_ + 1] == u'+') &&
                                          at_ + 2 < text_.size() && text_[at_ + 2].isDigit()))) {
            at_ += 2;
            while (at_ < text_.size() && text_[at_].isDigit()) ++at_;
        }
        bool good = false;
        into = text_.mid(start, at_ - start).toDouble(&good);
        if (!good || !std::isfinite(into) || std::abs(into) > kFarthest) {
            at_ = start;
            return false;
        }
        return true;
    }
    /// A flag of an arc: one digit, which may stand without a gap before the next.
    bool flag(bool& into) {
        skip();
        if (at_ >= text_.size() || (text_[at_] != u'0' && text_[at_] != u'1')) return false;
        into = text_[at_++] == u'1';
        return true;
    }
    /// The next command letter, if one comes.
    bool command(QChar& into) {
        skip();
        if (at_ >= text_.size() || !text_[at_].isLetter()) return false;
        into = text_[at_++];
        return true;
    }
    bool atEnd() {
        skip();
        return at_ >= text_.size();
    }
    bool is(QChar c) {
        skip();
        if (at_ >= text_.size() || text_[at_] != c) return false;
        ++at_;
        return true;
    }
    QString word() {
        skip();
        const qsizetype start = at_;
        while (at_ < text_.size() && text_[at_].isLetter()) ++at_;
        return text_.mid(start, at_ - start).toString();
    }

private:
    void skip() {
        while (at_ < text_.size() && (text_[at_].isSpace() || text_[at_] == u',')) ++at_;
    }
    QStringView text_;
    qsizetype at_ = 0;
};

QTransform transformOf(QStringView text) {
    QTransform all;
    Numbers n(text);
    for (int guard = 0; !n.atEnd() && guard < 100; ++guard) {
        const QString word = n.word();
        if (word.isEmpty() || !n.is(u'(')) return all;
        double v[6] = {};
        int count = 0;
        while (count < 6 && n.next(v[count])) ++count;
        if (!n.is(u')')) return all;
        QTransform one;
        if (word == QLatin1String("translate") && count >= 1)
            one.translate(v[0], count > 1 ? v[1] : 0);
        else if (word == QLatin1String("scale") && count >= 1)
            one.scale(v[0], count > 1 ? v[1] : v[0]);
        else if (word == QLatin1String("rotate") && count >= 1) {
            const double x = count > 2 ? v[1] : 0, y = count > 2 ? v[2] : 0;
            one.translate(x, y);
            one.rotate(v[0]);
            one.translate(-x, -y);
        } else if (word == QLatin1String("skewX") && count == 1)
            one.shear(std::tan(v[0] * std::numbers::pi / 180), 0);
        else if (word == QLatin1String("skewY") && count == 1)
            one.shear(0, std::tan(v[0] * std::numbers::pi / 180));
        else if (word == QLatin1String("matrix") && count == 6)
            one = QTransform(v[0], v[1], v[2], v[3], v[4], v[5]);
        else
            return all;
        all = one * all;
    }
    return all;
}

/// A length with a unit, in mm; nothing without a unit that has a size in the world.
std::optional<double> worldLength(const QString& text) {
    Numbers n(text);
    double v = 0;
    if (!n.next(v) || v <= 0) return std::nullopt;
    const QString unit = n.word();
    const std::pair<const char*, double> units[] = {{"mm", 1},         {"cm", 10},       {"in", 25.4},
                                                    {"pt", 25.4 / 72}, {"pc", 25.4 / 6}, {"m", 1000}};
    for (const auto& [name, mm] : units)
        if (unit == QLatin1String(name)) return v * mm;
    return std::nullopt;
}

class SvgReader {
public:
    Result<OutlineDrawing, OutlineFault> read(const QByteArray& bytes) {
        QXmlStreamReader xml(bytes);
        xml.setEntityExpansionLimit(1024);
        std::vector<QTransform> stack{QTransform()};
        int hidden = 0; // depth within parts that are not drawn
        bool svg = false;
        while (!xml.atEnd()) {
            const auto token = xml.readNext();
            if (token == QXmlStreamReader::StartElement) {
                if (static_cast<int>(stack.size()) > kDeepest) return OutlineFault{OutlineFaultKind::TooLarge, {}};
                const QString name = xml.name().toString();
                const auto a = xml.attributes();
                stack.push_back(transformOf(a.value(QLatin1String("transform"))) * stack.back());
                if (name == QLatin1String("svg") && !svg) {
                    svg = true;
                    takeSize(a);
                }
                if (hidden > 0 || name == QLatin1String("defs") || name == QLatin1String("clipPath") ||
                    name == QLatin1String("mask") || name == QLatin1String("symbol") ||
                    name == QLatin1String("pattern") || name == QLatin1String("marker"))
                    ++hidden;
                else
                    shape(name, a, stack.back());
                if (corners_ > kMostOutlineCorners) return OutlineFault{OutlineFaultKind::TooLarge, {}};
            } else if (token == QXmlStreamReader::EndElement) {
                stack.pop_back();
                if (hidden > 0) --hidden;
            }
        }
        if (xml.hasError() || !svg)
            return OutlineFault{OutlineFaultKind::Damaged,
                                svg || xml.hasError() ? std::to_string(xml.lineNumber()) : "svg"};
        // y runs down in the file and up here; a unit is what the drawing says or a user unit.
        const double scale = mmPerUnit_.value_or(1);
        for (auto& s : strokes_)
            for (Point& p : s) p = {p.x * scale, -p.y * scale};
        OutlineDrawing drawing = joinedRings(strokes_, 0.5);
        if (drawing.rings.empty()) return OutlineFault{OutlineFaultKind::NoOutline, {}};
        if (mmPerUnit_) drawing.mmPerUnit = 1; // brought to millimetres above
        drawing.passedOver = passedOver_;
        return drawing;
    }

private:
    void takeSize(const QXmlStreamAttributes& a) {
        const auto width = worldLength(a.value(QLatin1String("width")).toString());
        if (!width) return;
        Numbers box(a.value(QLatin1String("viewBox")));
        double v[4] = {};
        int count = 0;
        while (count < 4 && box.next(v[count])) ++count;
        mmPerUnit_ = count == 4 && v[2] > 0 ? *width / v[2] : 25.4 / 96;
    }

    void shape(const QString& name, const QXmlStreamAttributes& a, const QTransform& t) {
        const auto number = [&](const char* key, double byDefault = 0) {
            Numbers n(a.value(QLatin1String(key)));
            double v = byDefault;
            return n.next(v) ? v : byDefault;
        };
        pen_ = &t;
        if (name == QLatin1String("path")) {
            path(a.value(QLatin1String("d")));
        } else if (name == QLatin1String("rect")) {
            const double x = number("x"), y = number("y"), w = number("width"), h = number("height");
            double rx = number("rx", -1), ry = number("ry", -1);
            if (rx < 0) rx = ry;
            if (ry < 0) ry = rx;
            rx = std::clamp(rx, 0.0, w / 2);
            ry = std::clamp(ry, 0.0, h / 2);
            if (w <= 0 || h <= 0) return;
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
            const double rx = number(round ? "r" : "rx"), ry = number(round ? "r" : "ry");
            const double cx = number("cx"), cy = number("cy");
            if (rx <= 0 || ry <= 0) return;
            begin({cx + rx, cy});
            arc(rx, ry, 0, false, true, {cx - rx, cy});
            arc(rx, ry, 0, false, true, {cx + rx, cy});
            close();
        } else if (name == QLatin1String("line")) {
            begin({number("x1"), number("y1")});
            line({number("x2"), number("y2")});
            end();
        } else if (name == QLatin1String("polygon") || name == QLatin1String("polyline")) {
            Numbers n(a.value(QLatin1String("points")));
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
        } else if (name == QLatin1String("use") || name == QLatin1String("text") || name == QLatin1String("image")) {
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
        if (std::isfinite(m.x()) && std::isfinite(m.y()) && std::abs(m.x()) < kFarthest && std::abs(m.y()) < kFarthest)
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
        const int pieces = std::clamp(static_cast<int>(std::ceil(std::sqrt(extent / kTolerance) / 2)), 4, 200);
        for (int i = 1; i <= pieces; ++i) {
            const double u = static_cast<double>(i) / pieces, v = 1 - u;
            line(from * (v * v * v) + a * (3 * v * v * u) + b * (3 * v * u * u) + p * (u * u * u));
        }
    }
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
        const double step = 2 * std::acos(std::clamp(1 - kTolerance / std::max(rx, ry), 0.0, 1.0));
        const int pieces = std::clamp(static_cast<int>(std::ceil(std::abs(span) / std::max(step, 0.005))), 4, 2000);
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
    std::optional<double> mmPerUnit_;
    std::size_t corners_ = 0;
    int passedOver_ = 0;
};

} // namespace

Result<OutlineDrawing, OutlineFault> readSvg(const QByteArray& bytes) {
    if (bytes.size() > kLargestOutlineFile) return OutlineFault{OutlineFaultKind::TooLarge, {}};
    if (bytes.trimmed().isEmpty()) return OutlineFault{OutlineFaultKind::Empty, {}};
    return SvgReader().read(bytes);
}

} // namespace westrum
