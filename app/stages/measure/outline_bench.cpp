#include "app/stages/measure/outline_bench.h"

#include "app/document/shell_commands.h"
#include "app/drawing/dimension.h"
#include "app/drawing/materials.h"
#include "app/drawing/surface_drawing.h"
#include "app/drawing/theme.h"
#include "app/widgets/gesture.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

QPointF unit(QPointF v) {
    const double length = std::hypot(v.x(), v.y());
    return length > 0 ? v / length : QPointF(1, 0);
}

double distanceToLine(QPointF p, QPointF a, QPointF b) {
    const QPointF ab = b - a;
    const double length2 = std::max(1e-9, QPointF::dotProduct(ab, ab));
    const double t = std::clamp(QPointF::dotProduct(p - a, ab) / length2, 0.0, 1.0);
    return std::hypot((p - a - ab * t).x(), (p - a - ab * t).y());
}

} // namespace

OutlineBench::OutlineBench(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent), document_(document), decimalMark_(decimalMark) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

PlanView OutlineBench::view() const {
    const double side = QFontMetricsF(textFont(1.05, true)).horizontalAdvance(QStringLiteral("00 000 mm")) + 44;
    const bool below = surface() && surface()->measurement.form == OutlineForm::Stations &&
                       surface()->measurement.stations.rows.size() <= kMostStationsDrawn;
    return {boundsOf(sketch_.frame), QRectF(rect()).adjusted(side, 48, -side, below ? -84 : -48)};
}

bool OutlineBench::isSuspect(const std::string& key) const {
    const SurfacePlan* p = plan();
    if (p && p->measured.slip)
        for (const SuspectReading& s : p->measured.slip->suspects)
            if (s.key == key) return true;
    return p && std::any_of(p->remarks.begin(), p->remarks.end(), [&](const Remark& r) {
               return r.severity == Severity::Error && r.place.part == Part::Reading && r.place.key == key;
           });
}

void OutlineBench::setFocusOn(BenchFocus focus, int index) {
    focus_ = focus;
    index_ = index;
    refresh();
}

void OutlineBench::refresh() {
    const Surface* s = surface();
    if (!s) return;
    static const MeasuredOutline none;
    SketchParts parts;
    parts.cutouts = focus_ == BenchFocus::Outline;
    if (focus_ == BenchFocus::Openings) parts.opening = index_;
    if (focus_ == BenchFocus::Zones) parts.zone = index_;
    if (focus_ == BenchFocus::Supports) parts.support = index_;
    sketch_ = sketchOf(*s, plan() ? plan()->measured : none, parts);
    // What holds the outline is told with the outline only; else it would lie over what is in hand.
    if (focus_ != BenchFocus::Outline)
        std::erase_if(sketch_.places, [](const ReadingSlot& slot) {
            return slot.kind == SlotKind::Diagonal || slot.kind == SlotKind::Offset || slot.kind == SlotKind::Tape;
        });
    QString wanted = QString::fromStdString(document_.currentSurface());
    for (const ReadingSlot& slot : sketch_.places) wanted += QLatin1Char('/') + QString::fromStdString(slot.key);
    if (wanted != built_) {
        built_ = wanted;
        rebuild();
    }
    const Figures f = figuresFor(document_.job(), decimalMark_);
    for (std::size_t i = 0; i < places_.size(); ++i) {
        Place& p = places_[i];
        p.slot = sketch_.places[i];
        const MaybeReading* reading = findReading(*s, p.slot.key);
        const bool read = reading && *reading;
        const QString typed = read ? QString::fromStdString((*reading)->typed) : QString();
        const QString shown = read ? f.fineLength((*reading)->length, false) : QString();
        p.field->setFigure(shown, typed.isEmpty() ? shown : typed);
        if (read && !p.field->isWrong())
            p.field->setToolTip(typed.isEmpty() ? f.fineLength((*reading)->length)
                                                : tr("%1, typed as %2").arg(f.fineLength((*reading)->length), typed));
        p.field->setSuspect(isSuspect(p.slot.key));
    }
    placeFields();
    update();
}

QString OutlineBench::nameOf(const std::string& key) const {
    const auto dot = key.find('.');
    if (dot == std::string::npos) return readingName(key);
    const Surface* s = surface();
    const int n = QString::fromStdString(key.substr(1, dot - 1)).toInt();
    const QString what = QString::fromStdString(key.substr(dot + 1));
    const auto named = [&](const auto& list) {
        return static_cast<std::size_t>(n) < list.size()
                   ? QString::fromStdString(list[static_cast<std::size_t>(n)].name)
                   : QString();
    };
    const auto sideOf = [&](const Placement& p) {
        return what == QLatin1String("side") ? tr("from side %1").arg(sideLetter(p.side))
                                             : tr("from side %1").arg(sideLetter(p.cross));
    };
    const bool position = what == QLatin1String("side") || what == QLatin1String("cross");
    switch (key.front()) {
    case 'n':
        return tr("Notch %1, %2")
            .arg(n + 1)
            .arg(what == QLatin1String("position") ? tr("from rear")
                 : what == QLatin1String("length") ? tr("long")
                                                   : tr("deep"));
    case 's': return tr("Corner %1, %2").arg(n + 1).arg(what == QLatin1String("along") ? tr("along") : tr("across"));
    case 'o':
        return named(s->openings) + QStringLiteral(", ") +
               (position ? sideOf(s->openings[static_cast<std::size_t>(n)].place)
                : what == QLatin1String("width")
                    ? (s->openings[static_cast<std::size_t>(n)].shape == OpeningShape::Round ? tr("diameter")
                                                                                             : tr("width"))
                    : tr("height"));
    case 'z':
        return named(s->zones) + QStringLiteral(", ") +
               (position                         ? sideOf(s->zones[static_cast<std::size_t>(n)].place)
                : what == QLatin1String("width") ? tr("width")
                                                 : tr("height"));
    default: return named(s->supports) + QStringLiteral(", ") + tr("centre");
    }
}

void OutlineBench::rebuild() {
    for (Place& p : places_) {
        p.field->hide(); // goes at once, though it is deleted later
        p.field->deleteLater();
    }
    places_.clear();
    const std::string id = document_.currentSurface();
    for (const ReadingSlot& slot : sketch_.places) {
        const std::string key = slot.key;
        auto* field = new EntryField(lengthCommit([this] { return document_.job().bareUnit; },
                                                  [this, id, key](MaybeReading r) {
                                                      push(document_, takeReading(document_, id, key, std::move(r)));
                                                  }),
                                     this);
        Place place{field, slot};
        const QString name = nameOf(key);
        const bool small = place.small();
        QString letter = QString::fromStdString(slot.letter);
        if (slot.kind == SlotKind::Small) {
            // An arrow says which way the figure runs on the drawing.
            const Point d = slot.to - slot.from;
            letter = std::abs(d.x) >= std::abs(d.y) ? QStringLiteral("↔") : QStringLiteral("↕");
        } else if (slot.kind == SlotKind::Offset) {
            letter = QStringLiteral("↕");
        }
        field->setLetter(letter);
        field->setAccessibleName(name);
        const bool hasLetter = !small && !slot.letter.empty();
        field->setObjectName(QStringLiteral("reading-") + (hasLetter ? letter
                                                           : key.find('.') != std::string::npos
                                                               ? name
                                                               : QString::fromStdString(key)));
        if (small) field->setPlaceholderText(name.section(QLatin1Char(','), -1).trimmed());
        field->setAlignment(small ? Qt::AlignCenter : Qt::AlignRight);
        field->setFont(small ? textFont(0.9) : textFont(1.05, true));
        connect(field, &EntryField::problemChanged, this, &OutlineBench::problem);
        field->installEventFilter(this);
        field->show();
        places_.push_back(std::move(place));
    }
    // Typed in the order in which a person goes round.
    for (std::size_t i = 1; i < places_.size(); ++i) QWidget::setTabOrder(places_[i - 1].field, places_[i].field);
    if (!places_.empty() && surface()->measurement.empty() && isVisible()) places_.front().field->setFocus();
}

QString OutlineBench::currentKey() const {
    for (const Place& p : places_)
        if (p.field->hasFocus()) return QString::fromStdString(p.slot.key);
    return {};
}

bool OutlineBench::focusField(const QString& key, bool theNext) {
    for (std::size_t i = 0; i < places_.size(); ++i)
        if (QString::fromStdString(places_[i].slot.key) == key) {
            if (theNext && ++i == places_.size()) return false;
            places_[i].field->setFocus();
            places_[i].field->selectAll();
            return true;
        }
    return false;
}

bool OutlineBench::focusFirst(const QString& start) {
    for (const Place& p : places_)
        if (QString::fromStdString(p.slot.key).startsWith(start)) {
            p.field->setFocus();
            p.field->selectAll();
            return true;
        }
    return false;
}

bool OutlineBench::eventFilter(QObject* watched, QEvent* event) {
    if (meterReady_ && event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Space)
        if (const auto* field = qobject_cast<EntryField*>(watched); field && !field->isModified()) {
            emit takeWanted();
            return true;
        }
    return QWidget::eventFilter(watched, event);
}

QPointF OutlineBench::centreOf(const ReadingSlot& slot, QSizeF field) const {
    const PlanView v = view();
    const QPointF a = v.map(slot.from), b = v.map(slot.to);
    switch (slot.kind) {
    case SlotKind::Side: {
        // Sides go round counter-clockwise; on the screen their right hand points outwards.
        const QPointF outward = unit(QPointF(-(b - a).y(), (b - a).x()));
        const double away =
            std::abs(outward.x()) * (field.width() / 2 + 10) + std::abs(outward.y()) * (field.height() / 2 + 13);
        return (a + b) / 2 + outward * away;
    }
    case SlotKind::Diagonal: return a + (b - a) * 0.32;
    case SlotKind::Station: return b + QPointF(0, field.height() / 2 + 22);
    case SlotKind::Tape: return a + (b - a) * 0.55;
    default: return (a + b) / 2;
    }
}

void OutlineBench::placeFields() {
    std::vector<QRectF> taken;
    for (const Place& p : places_) {
        const QFontMetrics metrics(p.field->font());
        const bool small = p.small();
        const int w = metrics.horizontalAdvance(p.slot.kind == SlotKind::Station ? QStringLiteral("00 000")
                                                : small                          ? QStringLiteral("0 000")
                                                                                 : QStringLiteral("00 000 mm")) +
                      (small ? 31 : 32);
        const int h = metrics.height() + (small ? 8 : 12);
        p.field->resize(w, h);
        QPointF at = centreOf(p.slot, QSizeF(w, h)) - QPointF(w / 2.0, h / 2.0);
        at.setX(std::clamp(at.x(), 2.0, std::max(2.0, width() - w - 2.0)));
        at.setY(std::clamp(at.y(), 2.0, std::max(2.0, height() - h - 2.0)));
        QRectF box(at, QSizeF(w, h));
        // No field stands on another: a later one steps down, or up where there is no room.
        for (int tries = 0; tries < 12; ++tries) {
            const auto hit = std::find_if(taken.begin(), taken.end(),
                                          [&](const QRectF& t) { return t.adjusted(10, 4, -10, -4).intersects(box); });
            if (hit == taken.end()) break;
            const double down = hit->bottom() + 1, up = hit->top() - h - 1;
            box.moveTop(down + h < height() && tries < 6 ? down : std::max(0.0, up));
        }
        taken.push_back(box);
        p.field->move(box.topLeft().toPoint());
        if (small) p.field->raise();
    }
}

void OutlineBench::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    placeFields();
}

void OutlineBench::paintDimensionLines(QPainter& p, const PlanView& v) const {
    const Theme& t = Theme::now();
    const Surface* s = surface();
    for (const ReadingSlot& slot : sketch_.places) {
        const MaybeReading* reading = findReading(*s, slot.key);
        const bool read = reading && *reading;
        const bool suspect = isSuspect(slot.key);
        switch (slot.kind) {
        case SlotKind::Diagonal:
        case SlotKind::Tape:
            p.setPen(QPen(suspect ? t.pencil : t.chalk, suspect ? 2 : 1.2, read ? Qt::DashLine : Qt::DotLine));
            p.drawLine(v.map(slot.from), v.map(slot.to));
            break;
        case SlotKind::Offset:
            p.setPen(QPen(suspect ? t.pencil : t.chalk, 1, read ? Qt::SolidLine : Qt::DotLine));
            p.drawLine(v.map(slot.from), v.map(slot.to));
            break;
        case SlotKind::Station:
            p.setPen(QPen(t.muted, 1));
            p.drawLine(v.map(slot.to), v.map(slot.to) + QPointF(0, 22));
            break;
        case SlotKind::Small:
            if (read || slot.key.front() != 'n') {
                p.setPen(QPen(t.muted, 1, read ? Qt::SolidLine : Qt::DotLine));
                p.drawLine(v.map(slot.from), v.map(slot.to));
            }
            break;
        case SlotKind::Side: break;
        }
    }
    if (s->measurement.form == OutlineForm::TwoPoint) {
        p.setBrush(t.chalk);
        p.setPen(Qt::NoPen);
        for (const auto& [at, name] : {std::pair{sketch_.fixedA, tr("A")}, {sketch_.fixedB, tr("B")}}) {
            p.drawEllipse(v.map(at), 5, 5);
            paintLabel(p, v.map(at) + QPointF(0, 18), name, t.chalk, true);
        }
    }
}

void OutlineBench::showInstead(const Ring& outline, const QString& words) {
    instead_ = outline;
    insteadWords_ = words;
    update();
}

/// By how much each suspect would be wrong, at its field, and the outline that is looked at instead.
void OutlineBench::paintDoubt(QPainter& p, const PlanView& v) const {
    const Theme& t = Theme::now();
    const SurfacePlan* planned = plan();
    if (!planned || focus_ != BenchFocus::Outline) return;
    if (instead_.size() > 2) {
        p.setPen(QPen(t.chalk, 2.5, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawPath(v.path(instead_));
        const Bounds b = boundsOf(instead_);
        paintLabel(p, v.map((b.low + b.high) * 0.5), insteadWords_, t.chalk, true);
    }
    if (!planned->measured.slip) return;
    const Figures f = figuresFor(document_.job(), decimalMark_);
    p.setFont(textFont(0.85, true));
    p.setPen(t.pencil);
    for (const SuspectReading& s : planned->measured.slip->suspects)
        for (const Place& place : places_) {
            if (place.slot.key != s.key) continue;
            const QRect at = place.field->geometry();
            const QString by = f.length({std::abs(s.slip().value)});
            const int above = at.top() >= 20 ? at.top() - 19 : at.bottom() + 2;
            p.drawText(QRect(at.center().x() - 90, above, 180, 18), Qt::AlignHCenter | Qt::AlignBottom,
                       s.slip().value > 0 ? tr("%1 too long?").arg(by) : tr("%1 too short?").arg(by));
        }
}

void OutlineBench::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Surface* s = surface();
    if (!s || sketch_.frame.empty()) return;
    const PlanView v = view();
    const SurfacePlan* planned = plan();
    const bool measured = planned && planned->measured.measured();
    if (measured) {
        const QPainterPath outline = v.path(planned->measured.outline);
        paintMetal(p, outline);
        paintSurfaceParts(p, v, *s, planned->shape,
                          {.centreLine = focus_ == BenchFocus::Zones,
                           .openingInHand = focus_ == BenchFocus::Openings ? index_ : -1,
                           .zoneInHand = focus_ == BenchFocus::Zones ? index_ : -1,
                           .supportInHand = focus_ == BenchFocus::Supports ? index_ : -1});
        if (planned->datum) {
            paintDatum(p, v, *planned->datum);
            paintLabel(p, v.map(planned->datum->right) + QPointF(-34, -12), tr("datum"), t.chalk, false);
        }
        p.setPen(QPen(t.muted, 1, Qt::DotLine));
        p.setBrush(Qt::NoBrush);
        p.drawPath(v.path(sketch_.frame));
        // An outline in doubt is no firm line.
        p.setPen(planned->measured.inDoubt() ? QPen(t.pencil, 2, Qt::DashLine) : QPen(t.graphite, 2));
        p.drawPath(outline);
    } else {
        p.setPen(QPen(t.muted, 1.5, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawPath(v.path(sketch_.frame));
    }
    if (focus_ == BenchFocus::Edges)
        for (std::size_t k = 0; k < sketch_.sides.size(); ++k) {
            const Edge edge = s->edge(static_cast<int>(k));
            const bool inHand = static_cast<int>(k) == index_;
            if (!inHand && edge.kind == EdgeKind::Unsaid) continue;
            paintSide(p, v, sketch_.sides[k], inHand ? t.chalk : t.agreed, inHand ? 6 : 3);
        }
    paintDimensionLines(p, v);
    if (drawing_) {
        p.setPen(QPen(t.chalk, 1.5, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawRect(QRectF(grab_, drawnTo_).normalized());
    }
    paintWords(p, v);
    paintDoubt(p, v);
}

void OutlineBench::paintWords(QPainter& p, const PlanView& v) const {
    const Theme& t = Theme::now();
    const Surface* s = surface();
    // What was typed stands by the millimetres, where it is something else.
    p.setFont(textFont(0.78));
    p.setPen(t.muted);
    for (const Place& place : places_) {
        const MaybeReading* reading = findReading(*s, place.slot.key);
        if (place.small() || !reading || !*reading || (*reading)->typed.empty()) continue;
        const auto plain = parseNumber((*reading)->typed);
        if (plain && plain.value() == (*reading)->length.value) continue;
        const QRect at = place.field->geometry();
        p.drawText(QRect(at.center().x() - 80, at.bottom() + 2, 160, 18), Qt::AlignHCenter | Qt::AlignTop,
                   tr("typed %1").arg(QString::fromStdString((*reading)->typed)));
    }
    // What lies where.
    const Bounds b = boundsOf(sketch_.frame);
    const QRectF shown(v.map({b.low.x, b.high.y}), v.map({b.high.x, b.low.y}));
    p.setFont(textFont(0.88));
    p.setPen(t.muted);
    const auto word = [&](double x, double y, Qt::Alignment align, const QString& text) {
        p.drawText(QRectF(x - (align & Qt::AlignRight ? 240 : 0), y, 240, 20), align | Qt::AlignVCenter, text);
    };
    QString left, right, up, down;
    switch (s->kind) {
    case SurfaceKind::Floor:
        word(shown.left(), shown.top() - 26, Qt::AlignLeft, tr("left wall, rear"));
        word(shown.right(), shown.top() - 26, Qt::AlignRight, tr("left wall, front"));
        word(shown.left(), shown.bottom() + 8, Qt::AlignLeft, tr("right wall, rear"));
        word(shown.right(), shown.bottom() + 8, Qt::AlignRight, tr("right wall, front"));
        return;
    case SurfaceKind::Ceiling:
        left = tr("rear");
        right = tr("front");
        up = tr("right wall");
        down = tr("left wall");
        break;
    case SurfaceKind::RightWall:
    case SurfaceKind::RightWallUpper:
        left = tr("front");
        right = tr("rear");
        break;
    case SurfaceKind::LeftWall:
    case SurfaceKind::LeftWallUpper:
        left = tr("rear");
        right = tr("front");
        break;
    case SurfaceKind::Bulkhead:
        left = tr("left");
        right = tr("right");
        break;
    default: break;
    }
    // Stations have their figures below the baseline: there the words stand above.
    const double foot = s->measurement.form == OutlineForm::Stations ? shown.top() - 26 : shown.bottom() + 8;
    word(shown.left(), foot, Qt::AlignLeft, down.isEmpty() ? left : left + QStringLiteral(", ") + down);
    word(shown.right(), foot, Qt::AlignRight, right);
    word(shown.left(), shown.top() - 26, Qt::AlignLeft, up);
}

int OutlineBench::under(QPointF at) const {
    const Surface* s = surface();
    const SurfacePlan* planned = plan();
    const PlanView v = view();
    if (focus_ == BenchFocus::Edges) {
        int nearest = -1;
        double best = 14;
        for (std::size_t k = 0; k < sketch_.sides.size(); ++k)
            for (std::size_t i = 1; i < sketch_.sides[k].size(); ++i) {
                const double d = distanceToLine(at, v.map(sketch_.sides[k][i - 1]), v.map(sketch_.sides[k][i]));
                if (d < best) {
                    best = d;
                    nearest = static_cast<int>(k);
                }
            }
        return nearest;
    }
    if (!s || !planned) return -1;
    if (focus_ == BenchFocus::Openings)
        for (const PlacedOpening& o : planned->shape.openings)
            if (v.path(o.shape).contains(at)) return o.opening;
    if (focus_ == BenchFocus::Zones)
        for (const PlacedZone& z : planned->shape.zones)
            if (v.path(z.shape).contains(at)) return z.zone;
    if (focus_ == BenchFocus::Supports)
        for (const PlacedSupport& u : planned->shape.supports)
            if (v.path(u.shape).boundingRect().adjusted(-4, -4, 4, 4).contains(at)) return u.support;
    return -1;
}

void OutlineBench::mousePressEvent(QMouseEvent* event) {
    if (focus_ == BenchFocus::Outline || event->button() != Qt::LeftButton) return QWidget::mousePressEvent(event);
    const int index = under(event->position());
    if (index >= 0 || focus_ != BenchFocus::Zones) emit pressed(index);
    const SurfacePlan* planned = plan();
    if (!planned || !planned->measured.measured()) return;
    held_ = view();
    heldAt_ = event->globalPosition() - event->position();
    if (index < 0) {
        if (focus_ == BenchFocus::Zones) {
            drawing_ = true;
            grab_ = drawnTo_ = event->position();
        }
        return;
    }
    const auto take = [&](const Ring& ring) {
        const Bounds b = boundsOf(ring);
        grab_ = view().map((b.low + b.high) * 0.5) - event->position();
        dragging_ = true;
        gesture_ = nextGesture();
    };
    if (focus_ == BenchFocus::Openings) {
        for (const PlacedOpening& o : planned->shape.openings)
            if (o.opening == index && o.inRow == 0) {
                grab_ = view().map(o.centre) - event->position();
                dragging_ = true;
                gesture_ = nextGesture();
            }
    } else if (focus_ == BenchFocus::Zones) {
        for (const PlacedZone& z : planned->shape.zones)
            if (z.zone == index) take(z.shape.rings.front());
    }
}

void OutlineBench::moveInHand(QPointF to) {
    const Surface* s = surface();
    const SurfacePlan* planned = plan();
    if (!s || !planned || index_ < 0) return;
    const Point centre = held_.unmap(to);
    const auto rounded = [](PlacementDistances d) {
        return PlacementDistances{{std::max(0.0, std::round(d.fromSide.value))},
                                  {std::max(0.0, std::round(d.fromCross.value))}};
    };
    const auto at = static_cast<std::size_t>(index_);
    if (focus_ == BenchFocus::Openings && at < s->openings.size()) {
        const Opening& o = s->openings[at];
        double width = o.width ? o.width->length.value : 0;
        double height = o.shape == OpeningShape::Round ? width : o.height ? o.height->length.value : 0;
        if (o.shape == OpeningShape::Polygon)
            for (const PlacedOpening& placed : planned->shape.openings)
                if (placed.opening == index_) {
                    width = boundsOf(placed.shape).width();
                    height = boundsOf(placed.shape).height();
                }
        if (const auto d = distancesOf(o.place, centre, width, height, planned->measured))
            push(document_, moveOpening(document_, s->id, index_, rounded(*d), gesture_));
    } else if (focus_ == BenchFocus::Zones && at < s->zones.size()) {
        const Zone& z = s->zones[at];
        if (!z.width || !z.height) return;
        if (const auto d =
                distancesOf(z.place, centre, z.width->length.value, z.height->length.value, planned->measured))
            push(document_, moveZone(document_, s->id, index_, rounded(*d), gesture_));
    }
}

void OutlineBench::mouseMoveEvent(QMouseEvent* event) {
    if (drawing_) {
        drawnTo_ = event->position();
        update();
    } else if (dragging_) {
        moveInHand(event->globalPosition() - heldAt_ + grab_);
    }
}

void OutlineBench::mouseReleaseEvent(QMouseEvent* event) {
    dragging_ = false;
    if (!drawing_) return;
    drawing_ = false;
    const Point a = view().unmap(grab_), b = view().unmap(event->position());
    const QRectF box = QRectF(QPointF(a.x, a.y), QPointF(b.x, b.y)).normalized();
    update();
    if (box.width() >= 20 && box.height() >= 20) emit boxDrawn(box);
}

} // namespace westrum
