#include "app/stages/measure/import_preview.h"

#include "app/document/shell_commands.h"
#include "app/drawing/dimension.h"
#include "app/drawing/materials.h"
#include "app/drawing/plan_view.h"
#include "app/drawing/theme.h"
#include "core/measure/cutouts.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kUnits[] = {1, 10, 1000, 25.4, 304.8};

/// The first two straight sides that stand fairly square to each other; nothing where the outline has none.
std::optional<Placement> placementOn(const MeasuredOutline& measured) {
    Placement place;
    const int n = static_cast<int>(measured.sides.size());
    for (place.side = 0; place.side < n; ++place.side)
        for (place.cross = n - 1; place.cross >= 0; --place.cross)
            if (distancesOf(place, {0, 0}, 1, 1, measured)) return place;
    return std::nullopt;
}

MeasuredOutline drawnAs(const Ring& outline) {
    Measurement m;
    m.form = OutlineForm::Drawn;
    m.drawn = drawnOutline(outline);
    return outlineOf(m);
}

/// An opening's outline, made coarser until it has a number of corners that can be kept.
Ring keptCorners(const Ring& ring) {
    constexpr std::size_t most = 900;
    Ring kept = drawnOutline(ring);
    for (double tolerance = 0.1; kept.size() > most && tolerance < 10; tolerance *= 2)
        kept = drawnOutline(ring, tolerance);
    return kept.size() <= most ? kept : Ring{};
}

} // namespace

ImportPreview::ImportPreview(OutlineDrawing drawing, const Figures& figures, QWidget* parent, const QString& lost)
    : QDialog(parent),
      drawing_(std::move(drawing)),
      figures_(figures),
      lost_(lost),
      unit_(new QComboBox),
      ring_(new QComboBox),
      words_(new QLabel),
      take_(new QPushButton(tr("Take it in"))),
      picture_(new QWidget) {
    setWindowTitle(tr("An outline from a drawing"));
    resize(860, 620);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(24, 16, 24, 16);
    words_->setWordWrap(true);
    words_->setTextFormat(Qt::PlainText);
    words_->setFont(textFont(1.08));
    column->addWidget(words_);
    picture_->setMinimumHeight(320);
    column->addWidget(picture_, 1);
    auto* row = new QHBoxLayout;
    unit_->setObjectName(QStringLiteral("importUnit"));
    ring_->setObjectName(QStringLiteral("importRing"));
    if (drawing_.mmPerUnit) {
        unit_->addItem(tr("as the file says"));
        unit_->setEnabled(false);
    } else {
        unit_->addItems({tr("millimetres"), tr("centimetres"), tr("metres"), tr("inches"), tr("feet")});
    }
    for (std::size_t i = 0; i < std::min<std::size_t>(drawing_.rings.size(), 50); ++i)
        ring_->addItem(i == 0 ? tr("the largest outline") : tr("outline %1").arg(i + 1));
    row->addWidget(new QLabel(tr("The drawing is in")));
    row->addWidget(unit_);
    row->addWidget(ring_);
    row->addStretch(1);
    take_->setObjectName(QStringLiteral("takeIn"));
    auto* leave = new QPushButton(tr("Leave it"));
    row->addWidget(take_);
    row->addWidget(leave);
    column->addLayout(row);
    connect(unit_, &QComboBox::currentIndexChanged, this, &ImportPreview::refresh);
    connect(ring_, &QComboBox::currentIndexChanged, this, &ImportPreview::refresh);
    connect(take_, &QPushButton::clicked, this, &QDialog::accept);
    connect(leave, &QPushButton::clicked, this, &QDialog::reject);
    refresh();
}

double ImportPreview::scale() const {
    return drawing_.mmPerUnit ? *drawing_.mmPerUnit
                              : kUnits[static_cast<std::size_t>(std::max(0, unit_->currentIndex()))];
}

const Ring& ImportPreview::chosen() const {
    return drawing_.rings[static_cast<std::size_t>(std::max(0, ring_->currentIndex()))];
}

Ring ImportPreview::outline() const {
    Ring ring = chosen();
    for (Point& p : ring) p = p * scale();
    return ring;
}

std::vector<Ring> ImportPreview::openings() const {
    std::vector<Ring> inside;
    for (const Ring& ring : drawing_.rings) {
        if (&ring == &chosen() || inside.size() >= 60) continue;
        if (signedArea(ring) >= signedArea(chosen()) || !contains({{chosen()}}, ring.front())) continue;
        Ring scaled = ring;
        for (Point& p : scaled) p = p * scale();
        inside.push_back(std::move(scaled));
    }
    return inside;
}

void ImportPreview::refresh() {
    const Bounds b = boundsOf(outline());
    QStringList text{
        tr("The outline is %1 × %2.").arg(figures_.length({b.width()}, false), figures_.length({b.height()}))};
    const int inside = static_cast<int>(openings().size());
    if (inside > 0) {
        text << tr("%n opening(s) lie within it.", nullptr, inside);
        if (!placementOn(drawnAs(outline())))
            text << tr("It has no two straight sides to measure them from: they are left out.");
    }
    if (!lost_.isEmpty()) text << lost_;
    if (drawing_.open > 0) text << tr("%n stroke(s) do not close and are left out.", nullptr, drawing_.open);
    if (drawing_.passedOver > 0) text << tr("%n other object(s) are passed over.", nullptr, drawing_.passedOver);
    const bool sensible =
        std::min(b.width(), b.height()) >= kShortestSideMm && std::max(b.width(), b.height()) <= kLongestSideMm;
    if (!sensible) text << tr("No surface of a van is of that size: is the unit right?");
    words_->setText(text.join(QLatin1Char(' ')));
    words_->setStyleSheet(sensible ? QString() : QStringLiteral("color: %1;").arg(css(Theme::now().pencil)));
    take_->setEnabled(sensible);
    update();
}

void ImportPreview::paintEvent(QPaintEvent* event) {
    QDialog::paintEvent(event);
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Ring ring = outline();
    const Bounds b = boundsOf(ring);
    const PlanView v(b, QRectF(picture_->geometry()).adjusted(90, 20, -30, -50));
    paintMetal(p, v.path(ring));
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.graphite, 2));
    p.drawPath(v.path(ring));
    p.setBrush(t.paper);
    p.setPen(QPen(t.graphite, 1.2));
    for (const Ring& o : openings()) p.drawPath(v.path(o));
    // The scale is checked by these two figures before anything is taken in.
    paintDimension(p, v.map(b.low) + QPointF(0, 26), v.map({b.high.x, b.low.y}) + QPointF(0, 26),
                   figures_.length({b.width()}), t.chalk, true);
    paintDimension(p, v.map(b.low) + QPointF(-24, 0), v.map({b.low.x, b.high.y}) + QPointF(-24, 0),
                   figures_.length({b.height()}), t.chalk, true);
}

Command takeOutlineIn(JobDocument& document, const std::string& surface, const Ring& outline,
                      const std::vector<Ring>& openings) {
    Surface s = *document.job().surface(surface);
    s.measurement.form = OutlineForm::Drawn;
    s.measurement.drawn = drawnOutline(outline);
    // What was cut out of the outline before belongs to that one; the drawing brings its own openings.
    s.measurement.cornerRadii.clear();
    s.measurement.notches.clear();
    s.measurement.steps.clear();
    s.openings.clear();
    const Point shift = boundsOf(outline).low;
    const MeasuredOutline measured = outlineOf(s.measurement);
    if (const auto place = placementOn(measured)) {
        // An opening's box lies along its side: its corners are counted in that direction.
        const Point up = sideLine(measured, place->side)->inward, along{up.y, -up.x};
        for (const Ring& ring : openings) {
            Ring turned;
            for (const Point& p : ring) turned.push_back({dot(p - shift, along), dot(p - shift, up)});
            const Ring moved = keptCorners(turned);
            if (moved.empty()) continue;
            const Bounds b = boundsOf(turned);
            const Point middle = (b.low + b.high) * 0.5;
            const Point centre = along * middle.x + up * middle.y;
            Opening o;
            o.name =
                QCoreApplication::translate("ImportPreview", "Opening %1").arg(s.openings.size() + 1).toStdString();
            o.kind = OpeningKind::Other;
            o.shape = OpeningShape::Polygon;
            o.place = *place;
            const auto exactly = [](double mm) { return Reading{{}, {std::round(mm * 100) / 100}}; };
            for (const Point& p : moved) o.corners.push_back({exactly(p.x), exactly(p.y)});
            const auto d = distancesOf(*place, centre, b.width(), b.height(), measured);
            o.place.fromSide = exactly(d->fromSide.value);
            o.place.fromCross = exactly(d->fromCross.value);
            s.openings.push_back(std::move(o));
        }
    }
    return replaceSurface(QCoreApplication::translate("ImportPreview", "Take an outline in"), document, std::move(s));
}

QString lostWithOutline(const Surface& before) {
    const Measurement& m = before.measurement;
    const auto rounded =
        std::count_if(m.cornerRadii.begin(), m.cornerRadii.end(), [](const auto& r) { return r.has_value(); });
    const int cut = static_cast<int>(m.notches.size() + m.steps.size() + static_cast<std::size_t>(rounded));
    const int placed = static_cast<int>(before.openings.size());
    QStringList said;
    if (cut > 0)
        said << QCoreApplication::translate(
            "ImportPreview", "%n notch(es) or corner(s) cut out of the old outline go with it.", nullptr, cut);
    if (placed > 0)
        said << QCoreApplication::translate("ImportPreview", "%n opening(s) of the old outline go with it.", nullptr,
                                            placed);
    return said.join(QLatin1Char(' '));
}

} // namespace westrum
