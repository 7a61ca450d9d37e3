#include "app/stages/buy/mass_view.h"

#include "app/document/shell_commands.h"
#include "app/drawing/dimension.h"
#include "app/drawing/theme.h"
#include "app/widgets/gesture.h"
#include "core/plan/area_sums.h"
#include "devices/weighbridge.h"

#include <QDate>
#include <QFile>
#include <QFileDialog>
#include <QMouseEvent>
#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace westrum {

static constexpr double kNamedFrom = 1; ///< kg: less is drawn, not named

MassPicture::MassPicture(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent), document_(document), decimalMark_(decimalMark) {
    setObjectName(QStringLiteral("massPicture"));
    setAccessibleName(tr("The van from above, with what its axles carry"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

const SurfacePlan* MassPicture::floor() const {
    const auto plan = document_.plan();
    for (const Surface& s : document_.job().surfaces)
        if (s.kind == SurfaceKind::Floor)
            if (const SurfacePlan* own = plan->surface(s.id); own && own->measured.measured()) return own;
    return nullptr;
}

PlanView MassPicture::view(const SurfacePlan& floor) const {
    const Bounds own = boundsOf(floor.measured.frame);
    Bounds b = own;
    const VanMass& van = document_.job().mass;
    if (van.rearAxle && van.wheelbase) {
        b.low.x = std::min(b.low.x, van.rearAxle->length.value - 380);
        b.high.x = std::max(b.high.x, van.rearAxle->length.value + van.wheelbase->length.value + 380);
    }
    const double out = own.height() * 0.1 + 60;
    b.low.y -= out;
    b.high.y += out;
    return {b, QRectF(rect()).adjusted(16, 34, -16, -34)};
}

double MassPicture::radiusOf(const SurfaceMass& m) const {
    double most = 1;
    for (const SurfaceMass& o : document_.plan()->balance.surfaces) most = std::max(most, o.mass.value);
    return 4 + 24 * std::sqrt(std::max(0.0, m.mass.value) / most);
}

QPointF MassPicture::discOf(const std::string& surface) const {
    const SurfacePlan* own = floor();
    if (!own) return {};
    for (const SurfaceMass& m : document_.plan()->balance.surfaces)
        if (m.surface == surface) return view(*own).map(m.at);
    return {};
}

void MassPicture::mousePressEvent(QMouseEvent* event) {
    held_.clear();
    if (!floor()) return;
    double nearest = 1e9;
    for (const SurfaceMass& m : document_.plan()->balance.surfaces) {
        // What ties place stays there; the rest is put by hand. Of several that lie on each other the smallest is
        // taken.
        const bool free = m.assumed || document_.job().mass.places.contains(m.surface);
        const QPointF by = discOf(m.surface) - event->position();
        const double r = radiusOf(m);
        if (!free || m.surface.empty() || m.mass.value <= 0 || std::hypot(by.x(), by.y()) > r + 3 || r > nearest)
            continue;
        nearest = r;
        held_ = m.surface;
    }
    gesture_ = nextGesture();
}

void MassPicture::mouseMoveEvent(QMouseEvent* event) {
    const SurfacePlan* own = floor();
    if (held_.empty() || !own) return;
    const Point at = view(*own).unmap(event->position());
    VanMass mass = document_.job().mass;
    mass.places[held_] = {std::round(at.x / 10) * 10, std::round(at.y / 10) * 10};
    push(document_, setVanMass(document_, std::move(mass), gesture_));
}

void MassPicture::mouseReleaseEvent(QMouseEvent*) { held_.clear(); }

/// The axle at one end, with what it carries.
void MassPicture::paintAxle(QPainter& p, const PlanView& view, const Bounds& floor, bool isFront) const {
    const Theme& t = Theme::now();
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const VanMass& van = document_.job().mass;
    const auto plan = document_.plan();
    const double x = van.rearAxle->length.value + (isFront ? van.wheelbase->length.value : 0);
    const double track = van.track ? van.track->length.value : floor.height();
    const double y = (floor.low.y + floor.high.y) / 2;
    p.setPen(QPen(t.muted, 3));
    p.drawLine(view.map({x, y - track / 2}), view.map({x, y + track / 2}));
    p.setPen(Qt::NoPen);
    p.setBrush(t.muted);
    for (const double side : {-0.5, 0.5}) {
        const QPointF at = view.map({x, y + side * track});
        const double r = 330 * view.scale();
        p.drawRoundedRect(QRectF(at.x() - r, at.y() - 5, 2 * r, 10), 4, 4);
    }
    if (!plan->balance.wheels) return;
    const MassBalance& w = *plan->balance.wheels;
    const Kg now = isFront ? w.front : w.rear, added = isFront ? w.frontAdded : w.rearAdded;
    const std::optional<double>& before = isFront ? van.front : van.rear;
    const std::optional<double>& limit = isFront ? van.frontLimit : van.rearLimit;
    QString text = (added.value < 0 ? QStringLiteral("−") : QStringLiteral("+")) + f.mass({std::abs(added.value)});
    if (before)
        text =
            limit ? tr("%1, %2 of %3").arg(text, f.mass(now), f.mass({*limit})) : tr("%1, %2").arg(text, f.mass(now));
    p.setFont(textFont(0.95, true));
    p.setPen((isFront ? w.frontOver : w.rearOver) ? t.pencil : t.graphite);
    const QFontMetricsF metrics(p.font());
    const double half = metrics.horizontalAdvance(text) / 2;
    const QPointF at(std::clamp(view.map({x, 0}).x(), half + 4, width() - half - 4), height() - 12.0);
    p.drawText(QRectF(at.x() - half, at.y() - metrics.height(), 2 * half + 2, metrics.height() + 4), Qt::AlignCenter,
               text);
}

/// Each surface's mass as a disc whose area goes with it; the largest are named.
void MassPicture::paintDiscs(QPainter& p, const PlanView& view) const {
    const Theme& t = Theme::now();
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const auto plan = document_.plan();
    std::vector<const SurfaceMass*> order;
    for (const SurfaceMass& m : plan->balance.surfaces)
        if (m.mass.value > 0) order.push_back(&m);
    std::stable_sort(order.begin(), order.end(),
                     [](const SurfaceMass* a, const SurfaceMass* c) { return a->mass.value > c->mass.value; });
    for (const SurfaceMass* m : order) {
        QColor wash = t.chalk;
        wash.setAlpha(m->assumed ? 30 : 80);
        p.setBrush(wash);
        p.setPen(QPen(t.chalk, 1.4, m->assumed ? Qt::DashLine : Qt::SolidLine));
        p.drawEllipse(view.map(m->at), radiusOf(*m), radiusOf(*m));
    }
    p.setFont(textFont(0.78));
    const QFontMetricsF metrics(p.font());
    std::vector<QRectF> taken;
    for (const SurfaceMass* m : order) {
        if (m->mass.value < kNamedFrom) break; // the rest is told on the map
        const Surface* s = document_.job().surface(m->surface);
        const QString text =
            (s ? QString::fromStdString(s->name) : tr("loose pieces")) + QLatin1Char(' ') + f.mass(m->mass);
        const double w = metrics.horizontalAdvance(text) + 6;
        const QPointF at = view.map(m->at);
        // Under its disc, or over it, whichever is free.
        for (const double side : {1.0, -1.0}) {
            QRectF label(at.x() - w / 2, at.y() + side * (radiusOf(*m) + metrics.height() / 2) - metrics.height() / 2,
                         w, metrics.height());
            label.moveLeft(std::clamp(label.left(), 2.0, std::max(2.0, width() - w - 2)));
            if (std::any_of(taken.begin(), taken.end(), [&](const QRectF& o) { return o.intersects(label); })) continue;
            taken.push_back(label);
            p.setPen(Qt::NoPen);
            QColor ground = t.raised;
            ground.setAlpha(200);
            p.setBrush(ground);
            p.drawRoundedRect(label, 3, 3);
            p.setPen(t.graphite);
            p.drawText(label, Qt::AlignCenter, text);
            break;
        }
    }
}

void MassPicture::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const SurfacePlan* floor = this->floor();
    if (!floor) {
        p.setPen(t.muted);
        p.drawText(QRectF(rect()), Qt::AlignCenter, tr("Measure the floor first: everything stands over it."));
        return;
    }
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const Bounds own = boundsOf(floor->measured.frame);
    const VanMass& van = document_.job().mass;
    const PlanView view = this->view(*floor);
    p.setPen(QPen(t.graphite, 1.6));
    p.setBrush(t.raised);
    p.drawPath(view.path(floor->measured.outline));
    if (van.rearAxle && van.wheelbase)
        for (const bool isFront : {true, false}) paintAxle(p, view, own, isFront);
    paintDiscs(p, view);
    p.setFont(textFont(0.85));
    p.setPen(t.muted);
    p.drawText(QRectF(4, 4, width() - 8.0, 20), Qt::AlignLeft, tr("rear"));
    p.drawText(QRectF(4, 4, width() - 8.0, 20), Qt::AlignRight, tr("front"));
    const auto plan = document_.plan();
    const auto& wheels = plan->balance.wheels;
    if (!wheels) return;
    p.drawText(QRectF(4, 4, width() - 8.0, 20), Qt::AlignHCenter,
               tr("left side +%1, right side +%2").arg(f.mass(wheels->leftAdded), f.mass(wheels->rightAdded)));
    if (!wheels->centre) return;
    // Where all of it together would stand.
    const double front = van.rearAxle->length.value + van.wheelbase->length.value;
    const QPointF at = view.map({front - wheels->centre->x, (own.low.y + own.high.y) / 2 - wheels->centre->y});
    p.setPen(QPen(t.pencil, 2.4));
    p.drawLine(at - QPointF(9, 0), at + QPointF(9, 0));
    p.drawLine(at - QPointF(0, 9), at + QPointF(0, 9));
}

MassView::MassView(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent),
      document_(document),
      decimalMark_(decimalMark),
      picture_(new MassPicture(document, decimalMark)),
      form_(new BoundForm(document, decimalMark)),
      sums_(new QLabel),
      weighings_(new QLabel) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(picture_, 1);
    for (QLabel* label : {sums_, weighings_}) {
        label->setTextFormat(Qt::PlainText);
        label->setWordWrap(true);
        column->addWidget(label);
    }
    sums_->setObjectName(QStringLiteral("massSums"));
    weighings_->setObjectName(QStringLiteral("weighings"));
    column->addWidget(form_);
    const auto change = [this](const std::function<void(VanMass&)>& does) {
        VanMass m = document_.job().mass;
        does(m);
        push(document_, setVanMass(document_, std::move(m)));
    };
    const auto length = [&](const QString& label, const char* name, MaybeReading VanMass::*which) {
        form_->length(
            label, QString::fromLatin1(name), [this, which] { return document_.job().mass.*which; },
            [change, which](MaybeReading r) { change([&](VanMass& m) { m.*which = r; }); });
    };
    const auto mass = [&](const QString& label, const char* name, std::optional<double> VanMass::*which) {
        form_->mass(
            label, QString::fromLatin1(name), [this, which] { return document_.job().mass.*which; },
            [change, which](std::optional<double> kg) { change([&](VanMass& m) { m.*which = kg; }); });
    };
    form_->row();
    length(tr("wheelbase"), "wheelbase", &VanMass::wheelbase);
    length(tr("track"), "track", &VanMass::track);
    length(tr("rear axle from the floor's rear edge"), "rearAxle", &VanMass::rearAxle);
    mass(tr("allowed for finishes"), "allowance", &VanMass::allowance);
    form_->stretch();
    form_->row();
    mass(tr("first weighing: front"), "frontKg", &VanMass::front);
    mass(tr("rear"), "rearKg", &VanMass::rear);
    mass(tr("plate: front"), "frontLimit", &VanMass::frontLimit);
    mass(tr("rear"), "rearLimit", &VanMass::rearLimit);
    mass(tr("whole"), "grossLimit", &VanMass::grossLimit);
    form_->stretch();
    form_->row();
    form_->button(tr("Take in a ticket…"), QStringLiteral("ticket"), [this] { openTicket(); });
    form_->button(tr("Simulated ticket"), QStringLiteral("simulatedTicket"), [this] {
        const VanMass& van = document_.job().mass;
        if (!van.front || !van.rear) {
            emit problem(tr("Type the first weighing before: a ticket tells what has come since."));
            return;
        }
        // As if what is ticked stood evenly on both axles: the stand-in knows no better.
        const double half = document_.plan()->balance.fitted.value / 2;
        SimulatedWeighbridge bridge(document_.job().seed + document_.job().weighings.size());
        const QString said =
            takeTicket(bridge.weigh(*van.front + half, *van.rear + half, QDate::currentDate().toString(Qt::ISODate)));
        if (!said.isEmpty()) emit problem(said);
    });
    form_->button(
        tr("Take the last away"), QStringLiteral("dropWeighing"),
        [this] {
            std::vector<Weighing> all = document_.job().weighings;
            if (all.empty()) return;
            all.pop_back();
            push(document_, setWeighings(document_, std::move(all)));
        },
        true);
    form_->stretch();
    connect(form_, &BoundForm::problem, this, &MassView::problem);
}

QString MassView::takeTicket(const QString& text) {
    const auto read = readTicket(text);
    if (const auto* fault = std::get_if<TicketFault>(&read)) {
        switch (*fault) {
        case TicketFault::TooLong: return tr("That is no ticket: it is far too long.");
        case TicketFault::NoAxles:
            return tr("The ticket does not say what both axles weigh: a line each for axle 1 and axle 2, or one and "
                      "the gross "
                      "weight.");
        case TicketFault::OutOfRange: return tr("The ticket says a weight that no axle of a van has.");
        case TicketFault::Contradicts:
            return tr("The ticket contradicts itself: its axles do not add up to its gross weight.");
        }
    }
    const auto& ticket = std::get<WeighTicket>(read);
    std::vector<Weighing> all = document_.job().weighings;
    all.push_back({ticket.when.toStdString(), ticket.front, ticket.rear, document_.plan()->balance.fitted.value, {}});
    push(document_, setWeighings(document_, std::move(all)));
    return {};
}

void MassView::openTicket() {
    const QString path =
        QFileDialog::getOpenFileName(this, tr("Ticket of a weighbridge"), {}, tr("Text (*.txt);;All files (*)"));
    if (path.isEmpty()) return;
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) {
        emit problem(tr("%1 cannot be read.").arg(path));
        return;
    }
    if (const QString said = takeTicket(QString::fromUtf8(file.read(kLongestTicket + 1))); !said.isEmpty())
        emit problem(said);
}

QString MassView::weighingsText() const {
    const Job& job = document_.job();
    const Figures f = figuresFor(job, decimalMark_);
    if (job.weighings.empty())
        return tr("No ticket yet. Weigh the van now and then: it shows whether the plan weighs true.");
    QStringList lines;
    const std::size_t first = job.weighings.size() > 3 ? job.weighings.size() - 3 : 0;
    for (std::size_t i = first; i < job.weighings.size(); ++i) {
        const Weighing& w = job.weighings[i];
        QString line = tr("%1: front %2, rear %3, together %4")
                           .arg(w.when.empty() ? tr("undated") : QString::fromStdString(w.when), f.mass({w.front}),
                                f.mass({w.rear}), f.mass({w.front + w.rear}));
        if (job.mass.front && job.mass.rear) {
            const double since = w.front + w.rear - *job.mass.front - *job.mass.rear, off = since - w.fitted;
            line += tr("; that is %1 since the first, and %2 was fitted by the plan: %3")
                        .arg(f.mass({since}), f.mass({w.fitted}),
                             std::abs(off) < 25 ? tr("they agree within a bridge's steps")
                             : off > 0          ? tr("%1 more than reckoned").arg(f.mass({off}))
                                                : tr("%1 less than reckoned").arg(f.mass({-off})));
        }
        lines << line + QLatin1Char('.');
    }
    return lines.join(QLatin1Char('\n'));
}

void MassView::refresh() {
    const Job& job = document_.job();
    const Figures f = figuresFor(job, decimalMark_);
    const auto plan = document_.plan();
    const BalancePlan& b = plan->balance;
    QStringList said{tr("All finishes together add %1; %2 of it is fitted by the ticks in Fit.")
                         .arg(f.mass(b.added), f.mass(b.fitted))};
    if (job.mass.allowance) {
        const double left = *job.mass.allowance - b.added.value;
        said << (left >= 0 ? tr("%1 of the allowance is left.").arg(f.mass({left}))
                           : tr("That is %1 more than allowed.").arg(f.mass({-left})));
    }
    if (b.wheels && job.mass.front && job.mass.rear) {
        QString whole = tr("The van then weighs %1").arg(f.mass(b.wheels->gross()));
        if (job.mass.grossLimit)
            whole += tr(", %1 under its plate").arg(f.mass({*job.mass.grossLimit - b.wheels->gross().value}));
        said << whole + QLatin1Char('.');
    }
    if (!b.wheels) said << tr("Type wheelbase, track and where the rear axle is to see what each axle carries.");
    const auto assumed = std::count_if(b.surfaces.begin(), b.surfaces.end(),
                                       [](const SurfaceMass& m) { return m.assumed && m.mass.value > 0; });
    if (assumed > 0)
        said << tr("%n surface(s) taken to stand mid-floor (dashed): drag them to where they are.", nullptr,
                   static_cast<int>(assumed));
    QStringList areas;
    for (const AreaSum& a : sumsByArea(job, *plan, costBySurface(job, *plan))) {
        const QString name = areaText(a.area);
        areas << tr("%1: %2, %3, %4 h")
                     .arg(name.isEmpty() ? tr("elsewhere") : name, a.cost ? f.money(*a.cost) : tr("no price"),
                          f.mass(a.mass), f.number(a.hours, 0));
    }
    sums_->setText(said.join(QLatin1Char(' ')) + QLatin1Char('\n') + sentenceCase(areas.join(QStringLiteral("  ·  "))));
    weighings_->setText(weighingsText());
    form_->refresh();
    picture_->update();
}

} // namespace westrum
