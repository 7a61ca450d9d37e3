#include "app/stages/measure/outline_bench.h"

#include "app/drawing/dimension.h"
#include "app/drawing/materials.h"
#include "app/drawing/theme.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr std::array<const char*, kQuadReadings> kLetters{"a", "b", "c", "d", "e", "f"};
/// Until two sides are known the drawing shows a floor of this size as a ghost.
constexpr double kGhostLength = 3600, kGhostWidth = 1800;
/// Where a cut-out is not yet measured it is drawn as if it were this size.
constexpr double kGuessAlong = 700, kGuessDeep = 220;

double mmOf(const std::optional<Reading>& reading, double otherwise) {
    return reading && reading->length.value > 0 ? reading->length.value : otherwise;
}

QString sidesOf(const Measurement& m) {
    QString sides;
    for (const Notch& n : m.notches) sides += QString::number(n.side);
    return sides;
}

QPointF unit(QPointF v) {
    const double length = std::hypot(v.x(), v.y());
    return length > 0 ? v / length : QPointF(1, 0);
}

} // namespace

OutlineBench::OutlineBench(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent), document_(document), decimalMark_(decimalMark) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

const Measurement& OutlineBench::measurement() const {
    static const Measurement none;
    const Surface* s = document_.job().surface(document_.currentSurface());
    return s ? s->measurement : none;
}

const Notch* OutlineBench::notch(int index) const {
    const auto& all = measurement().notches;
    return index < static_cast<int>(all.size()) ? &all[static_cast<std::size_t>(index)] : nullptr;
}

const Step* OutlineBench::step(int index) const {
    const auto& all = measurement().steps;
    return index < static_cast<int>(all.size()) ? &all[static_cast<std::size_t>(index)] : nullptr;
}

std::array<Point, 4> OutlineBench::frame() const {
    if (const SurfacePlan* p = document_.plan()->surface(document_.currentSurface()); p && p->measured.frame)
        return *p->measured.frame;
    const auto read = [&](QuadReading r, double otherwise) {
        const double mm = mmOf(measurement().readings[static_cast<std::size_t>(r)], 0);
        return mm >= kShortestSideMm && mm <= kLongestSideMm ? mm : otherwise;
    };
    const double length = read(QuadReading::AB, read(QuadReading::CD, kGhostLength));
    const double width = read(QuadReading::BC, read(QuadReading::DA, kGhostWidth));
    return {{{0, 0}, {length, 0}, {length, width}, {0, width}}};
}

PlanView OutlineBench::view() const {
    const auto f = frame();
    const double side = QFontMetricsF(textFont(1.05, true)).horizontalAdvance(QStringLiteral("00 000 mm")) + 44;
    return {boundsOf(Ring(f.begin(), f.end())), QRectF(rect()).adjusted(side, 48, -side, -48)};
}

bool OutlineBench::isSuspect(int quad) const {
    const SurfacePlan* plan = document_.plan()->surface(document_.currentSurface());
    if (!plan || quad < 0 || !measurement().readings[static_cast<std::size_t>(quad)]) return false;
    return std::any_of(plan->measured.remarks.begin(), plan->measured.remarks.end(), [&](const Remark& r) {
        return r.severity == Severity::Error && r.place.part == Part::Reading && r.place.index == quad;
    });
}

void OutlineBench::refresh() {
    const Measurement& m = measurement();
    const QString wanted = QStringLiteral("%1/%2/%3/%4")
                               .arg(QString::fromStdString(document_.currentSurface()))
                               .arg(static_cast<int>(m.form))
                               .arg(m.notches.size())
                               .arg(m.steps.size()) +
                           sidesOf(m);
    if (wanted != built_) {
        built_ = wanted;
        rebuild();
    }
    const Figures f = figuresFor(document_.job(), decimalMark_);
    for (Place& p : places_) {
        const auto* reading = p.reading();
        if (!reading) continue;
        const QString typed = *reading ? QString::fromStdString((*reading)->typed) : QString();
        p.field->setFigure(*reading ? f.fineLength((*reading)->length, false) : QString(), typed);
        if (*reading && !p.field->isWrong())
            p.field->setToolTip(tr("%1, typed as %2").arg(f.fineLength((*reading)->length), typed));
        p.field->setSuspect(isSuspect(p.quad));
    }
    placeFields();
    update();
}

void OutlineBench::addField(const QString& name, const QString& letter,
                            std::function<const std::optional<Reading>*()> reading,
                            std::function<void(std::optional<Reading>)> take, std::function<QPointF()> centre,
                            int quad) {
    auto* field = new EntryField(lengthCommit([this] { return document_.job().bareUnit; }, std::move(take)), this);
    const bool small = quad < 0;
    field->setLetter(letter);
    field->setAccessibleName(name);
    field->setObjectName(QStringLiteral("reading-") + (small ? name : letter));
    if (small) {
        field->setPlaceholderText(name.section(QLatin1Char(','), -1).trimmed());
        field->setAlignment(Qt::AlignCenter);
    } else {
        field->setAlignment(Qt::AlignRight);
    }
    field->setFont(small ? textFont(0.9) : textFont(1.05, true));
    connect(field, &EntryField::problemChanged, this, &OutlineBench::problem);
    field->show();
    places_.push_back({field, std::move(reading), std::move(centre), quad, small});
}

QPointF OutlineBench::notchPoint(int index, double alongMm, double inwardMm) const {
    const Notch* n = notch(index);
    if (!n) return {};
    const auto f = frame();
    Point a = f[static_cast<std::size_t>(n->side)];
    Point b = f[static_cast<std::size_t>((n->side + 1) % 4)];
    const double side = std::max(1.0, distance(a, b));
    const Point along = (b - a) * (1 / side);
    const Point inward{-along.y, along.x};
    if (n->side >= 2) std::swap(a, b);
    return view().map(a + (b - a) * (alongMm / side) + inward * inwardMm);
}

QPointF OutlineBench::stepPoint(int index, double alongShare, double acrossShare) const {
    const Step* s = step(index);
    if (!s) return {};
    const auto f = frame();
    const auto c = static_cast<std::size_t>(s->corner);
    const Point next = f[(c + 1) % 4], before = f[(c + 3) % 4];
    const Point alongEnd = s->corner % 2 == 0 ? next : before;
    const Point acrossEnd = s->corner % 2 == 0 ? before : next;
    const Point u = (alongEnd - f[c]) * (1 / std::max(1.0, distance(f[c], alongEnd)));
    const Point v = (acrossEnd - f[c]) * (1 / std::max(1.0, distance(f[c], acrossEnd)));
    return view().map(f[c] + u * (mmOf(s->along, kGuessAlong) * alongShare) +
                      v * (mmOf(s->across, kGuessDeep) * acrossShare));
}

void OutlineBench::addNotchFields(int i) {
    const std::string surface = document_.currentSurface();
    const bool sideways = notch(i) && notch(i)->side % 2 == 1;
    const auto add = [&](const QString& what, CutoutReading which, auto member, std::function<QPointF()> centre) {
        // An arrow says which way the figure runs on the drawing.
        const bool alongScreen = (which == CutoutReading::Depth) == sideways;
        addField(
            tr("Notch %1, %2").arg(i + 1).arg(what), alongScreen ? QStringLiteral("↔") : QStringLiteral("↕"),
            [this, i, member]() { return notch(i) ? &(notch(i)->*member) : nullptr; },
            [this, surface, i, which](std::optional<Reading> r) {
                push(document_, takeNotchReading(document_, surface, i, which, std::move(r)));
            },
            std::move(centre), -1);
    };
    // Position, length and depth stand in the open corner and the bay of the notch.
    const auto from = [this, i] { return notch(i) ? mmOf(notch(i)->position, 0) : 0; };
    const auto along = [this, i] { return notch(i) ? mmOf(notch(i)->length, kGuessAlong) : 0; };
    const auto deep = [this, i] { return notch(i) ? mmOf(notch(i)->depth, kGuessDeep) : 0; };
    add(tr("from rear"), CutoutReading::Position, &Notch::position,
        [=, this] { return notchPoint(i, from() / 2, deep() / 2); });
    add(tr("long"), CutoutReading::Length, &Notch::length,
        [=, this] { return notchPoint(i, from() + along() * 0.27, deep() / 2); });
    add(tr("deep"), CutoutReading::Depth, &Notch::depth,
        [=, this] { return notchPoint(i, from() + along() * 0.75, deep() / 2); });
}

void OutlineBench::addStepFields(int i) {
    const std::string surface = document_.currentSurface();
    const auto add = [&](const QString& what, CutoutReading which, auto member, double share) {
        addField(
            tr("Corner %1, %2").arg(i + 1).arg(what),
            which == CutoutReading::Along ? QStringLiteral("↔") : QStringLiteral("↕"),
            [this, i, member]() { return step(i) ? &(step(i)->*member) : nullptr; },
            [this, surface, i, which](std::optional<Reading> r) {
                push(document_, takeStepReading(document_, surface, i, which, std::move(r)));
            },
            [this, i, share] { return stepPoint(i, share, 0.5); }, -1);
    };
    add(tr("along"), CutoutReading::Along, &Step::along, 0.74);
    add(tr("across"), CutoutReading::Across, &Step::across, 0.25);
}

void OutlineBench::rebuild() {
    for (Place& p : places_) {
        p.field->hide(); // goes at once, though it is deleted later
        p.field->deleteLater();
    }
    places_.clear();
    const std::string surface = document_.currentSurface();
    const Measurement& m = measurement();
    const auto corner = [this](int k) { return view().map(frame()[static_cast<std::size_t>(k)]); };
    const int readings = m.form == OutlineForm::Rectangle ? 2 : kQuadReadings;
    for (int k = 0; k < readings; ++k) {
        const auto which = static_cast<QuadReading>(k);
        const auto centre = [this, k, corner]() -> QPointF {
            if (k == 4) return corner(0) + (corner(2) - corner(0)) * 0.32;
            if (k == 5) return corner(1) + (corner(3) - corner(1)) * 0.32;
            const QPointF a = corner(k), b = corner((k + 1) % 4);
            // Sides go round counter-clockwise; on the screen their right hand points outwards.
            const QPointF outward = unit(QPointF(-(b - a).y(), (b - a).x()));
            const double away = k % 2 == 0 ? 26 : (places_.empty() ? 50 : places_.front().field->width() / 2.0 + 10);
            return (a + b) / 2 + outward * away;
        };
        addField(
            readingName(readingKey(which)), QString::fromLatin1(kLetters[static_cast<std::size_t>(k)]),
            [this, k]() { return &measurement().readings[static_cast<std::size_t>(k)]; },
            [this, surface, which](std::optional<Reading> r) {
                push(document_, takeReading(document_, surface, which, std::move(r)));
            },
            centre, k);
    }
    for (int i = 0; i < static_cast<int>(m.notches.size()); ++i) addNotchFields(i);
    for (int i = 0; i < static_cast<int>(m.steps.size()); ++i) addStepFields(i);
    // Typed in the order in which a person goes round.
    for (std::size_t i = 1; i < places_.size(); ++i) QWidget::setTabOrder(places_[i - 1].field, places_[i].field);
    if (m.empty() && isVisible()) places_.front().field->setFocus();
}

void OutlineBench::placeFields() {
    for (const Place& p : places_) {
        if (!p.reading()) continue;
        const QFontMetrics metrics(p.field->font());
        const int w = metrics.horizontalAdvance(p.small ? QStringLiteral("0 000") : QStringLiteral("00 000 mm")) +
                      (p.small ? 31 : 32);
        const int h = metrics.height() + (p.small ? 8 : 12);
        p.field->resize(w, h);
        QPointF at = p.centre() - QPointF(w / 2.0, h / 2.0);
        at.setX(std::clamp(at.x(), 2.0, std::max(2.0, width() - w - 2.0)));
        at.setY(std::clamp(at.y(), 2.0, std::max(2.0, height() - h - 2.0)));
        p.field->move(at.toPoint());
        if (p.small) p.field->raise();
    }
}

void OutlineBench::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    placeFields();
}

void OutlineBench::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const PlanView v = view();
    const auto f = frame();
    const Ring ring(f.begin(), f.end());
    const SurfacePlan* plan = document_.plan()->surface(document_.currentSurface());
    if (plan && plan->measured.measured()) {
        const QPainterPath outline = v.path(plan->measured.outline);
        paintMetal(p, outline);
        p.setPen(QPen(t.muted, 1, Qt::DotLine));
        p.setBrush(Qt::NoBrush);
        p.drawPath(v.path(ring));
        p.setPen(QPen(t.graphite, 2));
        p.drawPath(outline);
        p.setPen(QPen(t.muted, 1));
        for (int i = 0; i < static_cast<int>(measurement().notches.size()); ++i) {
            const Notch& n = *notch(i);
            if (!n.position) continue;
            const double level = mmOf(n.depth, kGuessDeep) / 2;
            p.drawLine(notchPoint(i, 0, level), notchPoint(i, n.position->length.value, level));
        }
    } else {
        p.setPen(QPen(t.muted, 1.5, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawPath(v.path(ring));
    }
    if (measurement().form == OutlineForm::FourSides) {
        const auto diagonal = [&](int k, std::size_t from, std::size_t to) {
            const bool read = measurement().readings[static_cast<std::size_t>(k)].has_value();
            const bool suspect = isSuspect(k);
            p.setPen(QPen(suspect ? t.pencil : t.chalk, suspect ? 2 : 1.2, read ? Qt::DashLine : Qt::DotLine));
            p.drawLine(v.map(f[from]), v.map(f[to]));
        };
        diagonal(4, 0, 2);
        diagonal(5, 1, 3);
    }
    // What was typed stands by the millimetres, where it is something else.
    p.setFont(textFont(0.78));
    p.setPen(t.muted);
    for (const Place& place : places_) {
        const auto* reading = place.reading();
        if (place.small || !reading || !*reading) continue;
        const QString typed = QString::fromStdString((*reading)->typed);
        const auto plain = parseNumber((*reading)->typed);
        if (plain && plain.value() == (*reading)->length.value) continue;
        const QRect at = place.field->geometry();
        p.drawText(QRect(at.center().x() - 80, at.bottom() + 2, 160, 18), Qt::AlignHCenter | Qt::AlignTop,
                   tr("typed %1").arg(typed));
    }
    // What lies where.
    const Bounds b = boundsOf(ring);
    const QRectF shown(v.map({b.low.x, b.high.y}), v.map({b.high.x, b.low.y}));
    p.setFont(textFont(0.88));
    p.setPen(t.muted);
    const auto word = [&](double x, double y, Qt::Alignment align, const QString& text) {
        p.drawText(QRectF(x - (align & Qt::AlignRight ? 240 : 0), y, 240, 20), align | Qt::AlignVCenter, text);
    };
    word(shown.left(), shown.top() - 26, Qt::AlignLeft, tr("left wall, rear"));
    word(shown.right(), shown.top() - 26, Qt::AlignRight, tr("left wall, front"));
    word(shown.left(), shown.bottom() + 8, Qt::AlignLeft, tr("right wall, rear"));
    word(shown.right(), shown.bottom() + 8, Qt::AlignRight, tr("right wall, front"));
}

} // namespace westrum
