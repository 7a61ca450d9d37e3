#include "app/stages/measure/photograph_tracer.h"

#include "app/drawing/dimension.h"
#include "app/drawing/theme.h"
#include "formats/words.h"

#include <QHBoxLayout>
#include <QMouseEvent>
#include <QPainter>
#include <QVBoxLayout>

#include <cmath>

namespace westrum {
namespace {

QPointF toQt(Point p) { return {p.x, p.y}; }

} // namespace

PhotographTracer::PhotographTracer(JobDocument& document, QImage picture, char decimalMark, QWidget* parent)
    : QDialog(parent),
      document_(document),
      decimalMark_(decimalMark),
      picture_(std::move(picture)),
      fields_(new BoundForm(document, decimalMark)),
      words_(new QLabel),
      room_(new QWidget),
      take_(new QPushButton(tr("Take it in"))) {
    setWindowTitle(tr("An outline from a photograph"));
    resize(1240, 780);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(24, 14, 24, 14);
    words_->setWordWrap(true);
    words_->setTextFormat(Qt::PlainText);
    words_->setFont(textFont(1.08));
    words_->setObjectName(QStringLiteral("photographSays"));
    column->addWidget(words_);
    auto* stepsRow = new QHBoxLayout;
    const QString names[] = {tr("1  Mark four known points"), tr("2  Trace"), tr("3  Check a length")};
    for (int s = Mark; s <= Check; ++s) {
        auto* button = new QPushButton(names[s]);
        button->setCheckable(true);
        connect(button, &QPushButton::clicked, this, [this, s] { setStep(static_cast<Step>(s)); });
        steps_[static_cast<std::size_t>(s)] = button;
        stepsRow->addWidget(button);
    }
    stepsRow->addStretch(1);
    column->addLayout(stepsRow);
    column->addWidget(fields_);
    room_->setMinimumHeight(360);
    column->addWidget(room_, 1);
    auto* row = new QHBoxLayout;
    take_->setObjectName(QStringLiteral("takeIn"));
    auto* close = new QPushButton(tr("Close the ring"));
    close->setObjectName(QStringLiteral("closeRing"));
    auto* back = new QPushButton(tr("Take back"));
    auto* leave = new QPushButton(tr("Leave it"));
    for (QPushButton* b : {take_, close, back, leave}) {
        b->setAutoDefault(false);
        row->addWidget(b);
    }
    row->addStretch(1);
    column->addLayout(row);
    connect(take_, &QPushButton::clicked, this, &QDialog::accept);
    connect(leave, &QPushButton::clicked, this, &QDialog::reject);
    connect(close, &QPushButton::clicked, this, &PhotographTracer::closeRing);
    connect(back, &QPushButton::clicked, this, &PhotographTracer::takeBack);
    connect(fields_, &BoundForm::problem, this, [this](const QString& why) {
        if (why.isEmpty())
            refresh();
        else
            words_->setText(why);
    });
    buildFields();
    setStep(Mark);
}

void PhotographTracer::buildFields() {
    fields_->clear();
    fields_->row();
    if (step_ == Check) {
        fields_->length(
            tr("the length between the two marks is really"), QStringLiteral("checkLength"),
            [this] { return checkLength_; },
            [this](MaybeReading r) {
                checkLength_ = std::move(r);
                refresh();
            });
    } else {
        for (std::size_t k = 0; k < 4; ++k)
            for (const bool along : {true, false})
                fields_->length(
                    along ? QString(QLatin1Char("ABCD"[k])) : QString(),
                    QStringLiteral("known%1%2").arg(k).arg(along ? QLatin1Char('x') : QLatin1Char('y')),
                    [this, k, along] {
                        return MaybeReading(Reading{{}, {along ? known_[k].x : known_[k].y}});
                    },
                    [this, k, along](MaybeReading r) {
                        Point p = known_[k];
                        (along ? p.x : p.y) = r ? r->length.value : 0;
                        setKnown(k, p);
                    });
    }
    fields_->stretch();
    fields_->refresh();
}

void PhotographTracer::setStep(Step step) {
    step_ = step;
    nearer_ = QTransform();
    for (int s = Mark; s <= Check; ++s) steps_[static_cast<std::size_t>(s)]->setChecked(s == step);
    buildFields();
    refresh();
}

void PhotographTracer::setKnown(std::size_t index, Point mm) {
    known_.at(index) = mm;
    solve();
    refresh();
}

void PhotographTracer::solve() {
    toPlane_.reset();
    if (marked_.size() < 4) return;
    std::vector<PointPair> pairs;
    for (std::size_t k = 0; k < 4; ++k) pairs.push_back({marked_[k], known_[k]});
    toPlane_ = homographyOf(pairs);
}

void PhotographTracer::press(Point pixel) {
    if (step_ == Mark) {
        if (marked_.size() == 4) marked_.clear();
        marked_.push_back(pixel);
        solve();
        if (toPlane_) return setStep(Trace);
    } else if (step_ == Trace) {
        if (!open_) {
            if (rings_.size() >= 60) return;
            rings_.emplace_back();
            open_ = true;
        }
        if (rings_.back().size() < 1000) rings_.back().push_back(pixel);
    } else {
        if (check_.size() == 2) check_.clear();
        check_.push_back(pixel);
    }
    refresh();
}

void PhotographTracer::closeRing() {
    if (!open_ || rings_.back().size() < 3) return;
    if (crossesItself(rings_.back())) {
        words_->setText(tr("The outline traced crosses itself. Take the last corners back."));
        return;
    }
    open_ = false;
    refresh();
}

void PhotographTracer::takeBack() {
    if (step_ == Mark) {
        if (!marked_.empty()) marked_.pop_back();
        solve();
    } else if (step_ == Trace && !rings_.empty()) {
        rings_.back().pop_back();
        open_ = true;
        if (rings_.back().empty()) {
            rings_.pop_back();
            open_ = false;
        }
    } else if (step_ == Check && !check_.empty()) {
        check_.pop_back();
    }
    refresh();
}

std::vector<Ring> PhotographTracer::ringsMm() const {
    std::vector<Ring> out;
    if (!toPlane_) return out;
    for (std::size_t i = 0; i < rings_.size(); ++i) {
        if (i + 1 == rings_.size() && open_) break;
        Ring ring;
        for (Point p : rings_[i])
            if (const auto q = toPlane_->map(p)) ring.push_back(*q);
        if (ring.size() == rings_[i].size()) out.push_back(std::move(ring));
    }
    return out;
}

std::optional<double> PhotographTracer::checkResidualMm() const {
    if (!toPlane_ || check_.size() < 2 || !checkLength_) return std::nullopt;
    const auto a = toPlane_->map(check_[0]), b = toPlane_->map(check_[1]);
    if (!a || !b) return std::nullopt;
    return distance(*a, *b) - checkLength_->length.value;
}

void PhotographTracer::refresh() {
    fields_->refresh();
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const auto rings = ringsMm();
    take_->setEnabled(!rings.empty());
    QString text;
    if (step_ == Mark) {
        text =
            marked_.size() == 4 && !toPlane_
                ? tr("These four points cannot be the marks: three of them lie nearly on a line, or they were not "
                     "pressed in "
                     "the order A to D. Press them again.")
                : tr("Press the four known points in order, A to D; say above where they lie on the flat, in mm from A "
                     "(a sheet of paper, a board, a rectangle of masking tape).");
    } else if (step_ == Trace) {
        text = !toPlane_ ? tr("Mark the four known points first.")
               : rings.empty()
                   ? tr("Press the corners of the outline in order, then close the ring; what lies within it "
                        "can be traced after that.")
                   : tr("The outline is %1 × %2; %n opening(s) within it. Take it in, or check a length.", nullptr,
                        static_cast<int>(rings.size()) - 1)
                         .arg(f.length({boundsOf(rings[0]).width()}, false), f.length({boundsOf(rings[0]).height()}));
    } else {
        const auto off = checkResidualMm();
        text =
            !off
                ? tr("Press both ends of a length that you know, and type it above: how far it is off tells how far to "
                     "trust the picture.")
                : tr("The picture makes it %1 longer than it is: trust it to about that, and measure what matters by "
                     "tape.")
                      .arg(f.fineLength({*off}));
    }
    words_->setText(text);
    update();
}

QRectF PhotographTracer::canvas() const { return QRectF(room_->geometry()); }

QTransform PhotographTracer::toScreen() const {
    const QRectF box = canvas();
    QTransform t;
    if (step_ == Mark || !toPlane_) {
        const double s = std::min(box.width() / picture_.width(), box.height() / picture_.height());
        t.translate(box.center().x() - picture_.width() * s / 2, box.center().y() - picture_.height() * s / 2);
        t.scale(s, s);
        return t * nearer_;
    }
    // Set straight: what the picture shows of the plane, as far as three times the known points' extent round them.
    const Ring known(known_.begin(), known_.end());
    Bounds b = boundsOf(known);
    const double far = 3 * std::max(b.width(), b.height());
    const Bounds most{{b.low.x - far, b.low.y - far}, {b.high.x + far, b.high.y + far}};
    const auto take = [&](Point p) {
        b.low = {std::max(most.low.x, std::min(b.low.x, p.x)), std::max(most.low.y, std::min(b.low.y, p.y))};
        b.high = {std::min(most.high.x, std::max(b.high.x, p.x)), std::min(most.high.y, std::max(b.high.y, p.y))};
    };
    const double w = picture_.width(), h = picture_.height();
    for (const Point corner : {Point{0, 0}, {w, 0}, {w, h}, {0, h}})
        if (const auto p = toPlane_->map(corner)) take(*p);
    const double s = std::min(box.width() / std::max(1.0, b.width()), box.height() / std::max(1.0, b.height()));
    const auto& m = toPlane_->m;
    const QTransform plane(m[0], m[3], m[6], m[1], m[4], m[7], m[2], m[5], m[8]);
    QTransform place;
    place.translate(box.center().x(), box.center().y());
    place.scale(s, -s);
    place.translate(-(b.low.x + b.high.x) / 2, -(b.low.y + b.high.y) / 2);
    return plane * place * nearer_;
}

void PhotographTracer::wheelEvent(QWheelEvent* event) {
    if (!canvas().contains(event->position())) return;
    const double factor = std::pow(1.0015, event->angleDelta().y());
    const QPointF at = event->position();
    QTransform t;
    t.translate(at.x(), at.y());
    t.scale(factor, factor);
    t.translate(-at.x(), -at.y());
    nearer_ = nearer_ * t;
    if (nearer_.m11() < 1) nearer_ = QTransform();
    update();
}

std::optional<Point> PhotographTracer::pixelAt(QPointF onScreen) const {
    if (!canvas().contains(onScreen)) return std::nullopt;
    bool good = false;
    const QTransform back = toScreen().inverted(&good);
    if (!good) return std::nullopt;
    const QPointF p = back.map(onScreen);
    if (!std::isfinite(p.x()) || !std::isfinite(p.y())) return std::nullopt;
    return Point{p.x(), p.y()};
}

void PhotographTracer::mousePressEvent(QMouseEvent* event) {
    const auto pixel = pixelAt(event->position());
    if (!pixel) return;
    if (step_ == Mark)
        for (std::size_t k = 0; k < marked_.size(); ++k)
            if ((toScreen().map(toQt(marked_[k])) - event->position()).manhattanLength() < 14) {
                dragged_ = static_cast<int>(k);
                return;
            }
    press(*pixel);
}

void PhotographTracer::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_ < 0) return;
    if (const auto pixel = pixelAt(event->position())) {
        marked_[static_cast<std::size_t>(dragged_)] = *pixel;
        update();
    }
}

void PhotographTracer::mouseReleaseEvent(QMouseEvent*) {
    if (dragged_ < 0) return;
    dragged_ = -1;
    solve();
    refresh();
}

void PhotographTracer::paintEvent(QPaintEvent* event) {
    QDialog::paintEvent(event);
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
    p.setClipRect(canvas());
    p.fillRect(canvas(), t.tally);
    const QTransform screen = toScreen();
    p.setTransform(screen);
    p.drawImage(0, 0, picture_);
    p.resetTransform();
    const auto mark = [&](Point pixel, const QString& name, const QColor& colour) {
        const QPointF at = screen.map(toQt(pixel));
        p.setPen(QPen(colour, 2));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(at, 7, 7);
        p.drawLine(at - QPointF(11, 0), at + QPointF(11, 0));
        p.drawLine(at - QPointF(0, 11), at + QPointF(0, 11));
        if (!name.isEmpty()) paintLabel(p, at + QPointF(16, -14), name, colour, true);
    };
    for (std::size_t k = 0; k < marked_.size(); ++k) mark(marked_[k], QString(QLatin1Char("ABCD"[k])), t.chalk);
    for (std::size_t r = 0; r < rings_.size(); ++r) {
        QPolygonF line;
        for (Point q : rings_[r]) line << screen.map(toQt(q));
        const bool openNow = open_ && r + 1 == rings_.size();
        p.setPen(QPen(r == 0 ? t.pencil : t.agreed, 2.2));
        p.setBrush(Qt::NoBrush);
        if (openNow)
            p.drawPolyline(line);
        else
            p.drawPolygon(line);
        for (const QPointF& q : line) p.drawEllipse(q, 3.5, 3.5);
    }
    for (Point q : check_) mark(q, {}, t.agreed);
    if (check_.size() == 2) {
        p.setPen(QPen(t.agreed, 2, Qt::DashLine));
        p.drawLine(screen.map(toQt(check_[0])), screen.map(toQt(check_[1])));
    }
}

} // namespace westrum
