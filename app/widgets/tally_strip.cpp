#include "app/widgets/tally_strip.h"

#include "app/document/commands.h"
#include "app/drawing/theme.h"
#include "app/widgets/risk.h"
#include "core/catalogue/family.h"
#include "core/catalogue/plank.h"
#include "core/families/family.h"
#include "core/plan/cost_sharing.h"
#include "core/units/unfinished.h"

#include <QFontMetricsF>
#include <QFrame>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <map>

namespace westrum {

static constexpr int kQuietMs = 3000;
static constexpr std::size_t kMostLines = 14; ///< told one by one; more are summed up

TallyStrip::TallyStrip(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent), document_(document), decimalMark_(decimalMark), now_(document.plan()) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Tally"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    connect(&document_, &JobDocument::jobReplaced, this, [this] {
        haveBefore_ = false;
        stepShown_ = 0;
        now_ = document_.plan();
        recompute();
    });
    connect(&document_, &JobDocument::planComputed, this, [this] {
        now_ = document_.plan();
        recompute();
    });
    connect(&document_, &JobDocument::purchasesChanged, this, [this](bool consequence) {
        // A search that found better is no consequence of what was done last.
        const std::shared_ptr<const Plan> then = std::exchange(now_, document_.plan());
        if (!consequence)
            for (Totals* t : {&before_, &candidate_}) {
                if (t->cost && then->totals.cost && now_->totals.cost &&
                    then->totals.cost->currency == t->cost->currency)
                    t->cost = *t->cost + (*now_->totals.cost - *then->totals.cost);
                t->laidMass = t->laidMass + (now_->totals.laidMass - then->totals.laidMass);
            }
        recompute();
    });
    // A new undo step: what stood before its first change is what it is compared with. A drag is one step throughout.
    connect(&document_, &JobDocument::jobChanged, this, [this] { candidate_ = now_->totals; });
    connect(&document_.undoStack(), &QUndoStack::indexChanged, this, [this](int step) {
        if (step == stepShown_) return;
        stepShown_ = step;
        before_ = candidate_;
        haveBefore_ = before_.laidArea.value > 0;
        recompute();
    });
    connect(&document_, &JobDocument::oddsChanged, this, [this] { recompute(); });
    // The same figure on every stage: it is tried wherever one is, when the hands rest.
    quiet_.setInterval(kQuietMs);
    connect(&document_, &JobDocument::planComputed, &quiet_, qOverload<>(&QTimer::start));
    connect(&document_, &JobDocument::purchasesChanged, &quiet_, qOverload<>(&QTimer::start));
    connect(&quiet_, &QTimer::timeout, this, [this] {
        if (document_.odds())
            quiet_.stop();
        else if (isVisible())
            document_.askOdds();
    });
    quiet_.start();
    recompute();
}

QSize TallyStrip::sizeHint() const {
    return {900, static_cast<int>(QFontMetricsF(textFont(1.35, true)).height()) + 38};
}

QString TallyStrip::signedNumber(double change, int decimals) const {
    if (!haveBefore_ || std::abs(change) < 0.5 * std::pow(10, -decimals)) return {};
    const Figures f = figuresFor(document_.job(), decimalMark_);
    return (change > 0 ? QStringLiteral("+") : QStringLiteral("−")) + f.number(std::abs(change), decimals);
}

TallyStrip::Figure TallyStrip::costFigure(const Plan& plan, const Figures& f) const {
    const Totals& t = plan.totals;
    const bool laid = t.laidArea.value > 0;
    Figure cost{.name = tr("Cost"), .value = none()};
    if (t.cost)
        cost.value = f.money(*t.cost);
    else if (laid)
        cost.value = tr("price missing");
    cost.needsAttention = laid && !t.cost;
    if (t.cost && haveBefore_ && before_.cost && before_.cost->currency == t.cost->currency &&
        *before_.cost != *t.cost) {
        const Money change = *t.cost - *before_.cost;
        cost.change = (change.minor > 0 ? QStringLiteral("+") : QString()) +
                      QString::fromStdString(printMoney(change, decimalMark_, false))
                          .replace(QLatin1Char('-'), QStringLiteral("−"));
    }
    return cost;
}

TallyStrip::Figure TallyStrip::wasteFigure(const Totals& t, const Figures& f) const {
    // What is cut from the rack was paid for by an earlier job: it counts as opened, and neither as bought.
    const auto share = [&](M2 of) {
        return t.laidArea.value > 0 ? (of.value + t.rackArea.value - t.laidArea.value) / t.laidArea.value : 0;
    };
    if (!(t.laidArea.value > 0)) return {.name = tr("Waste bought"), .value = none()};
    Figure waste{.name = tr("Waste bought"), .value = f.percent(share(t.boughtArea))};
    if (haveBefore_ && before_.laidArea.value > 0)
        waste.change = signedNumber(
            100 * (share(t.boughtArea) - (before_.boughtArea.value + before_.rackArea.value - before_.laidArea.value) /
                                             before_.laidArea.value),
            1);
    if (t.rackArea.value > 0) waste.madeOf << tr("%1 more come off the rack.").arg(f.area(t.rackArea));
    waste.madeOf
        << tr("Of all finishes %1 are bought and %2 laid: %3 are opened or paid for and on no surface.")
               .arg(f.area(t.boughtArea), f.area(t.laidArea), f.area(t.boughtArea + t.rackArea - t.laidArea))
        << tr("What is opened of them comes to %1: %3 more than the %2 laid go in cutting or are left as offcuts (%4).")
               .arg(f.area(t.consumedArea), f.area(t.laidArea), f.area(t.consumedArea + t.rackArea - t.laidArea),
                    f.percent(share(t.consumedArea)));
    return waste;
}

/// Of the surface in hand.
TallyStrip::Figure TallyStrip::thickFigure(const Plan& plan, const Figures& f) const {
    Figure thick{.name = tr("Build-up"), .value = none()};
    const SurfacePlan* s = plan.surface(document_.currentSurface());
    if (!s || s->layers.empty()) return thick;
    thick.value = f.fineLength(s->stack.total);
    for (std::size_t i = 0; i < s->layers.size(); ++i)
        if (const Product* p = document_.job().catalogue.find(s->layers[i].product))
            thick.madeOf << tr("%1: %2").arg(QString::fromStdString(p->name), f.fineLength(s->stack.adds[i]));
    return thick;
}

/// By the formula for spoilt cuts alone.
TallyStrip::Figure TallyStrip::riskFigure(const Plan& plan, const Figures& f) const {
    const Job& job = document_.job();
    const bool laid = plan.totals.laidArea.value > 0;
    // No other figure stands in for the one that is tried.
    Figure risk{.name = tr("Run short"), .value = laid ? QStringLiteral("…") : none()};
    const Purchase* worst = riskiest(plan, job.spoilChance);
    for (const Purchase& p : plan.purchases) {
        const Family* family = familyOf(p.family);
        if (!family || !family->laid.unitsBySetOut || (worst && &p != worst)) continue;
        const int spoilsOne = job.spoilChance > 0 ? static_cast<int>(std::lround(1 / job.spoilChance)) : 0;
        risk.madeOf << purchaseName(p, job.catalogue)
                    << tr("%1 hold %2; the plan opens %3, so %4 may be spoilt.")
                           .arg(packsText(p), itemsText(p.family, p.packs * p.unitsPerPack, f),
                                QString::number(p.unitsNeeded), QString::number(p.unitsLeft()));
        if (spoilsOne > 0) risk.madeOf << tr("Reckoned with 1 cut in %1 spoilt, as a first-timer does.").arg(spoilsOne);
        risk.madeOf
            << tr("By spoils alone %1; it is tried with slips of the tape and damaged stock once the plan rests.")
                   .arg(f.percent(plan.totals.runShort));
        break;
    }
    return risk;
}

/// As it was tried out: better than the formula.
TallyStrip::Figure TallyStrip::triedRiskFigure(const std::vector<ProductOdds>& odds, const Figures& f) const {
    Figure risk{.name = tr("Run short"), .value = none()};
    std::vector<const ProductOdds*> order;
    for (const ProductOdds& o : odds) order.push_back(&o);
    std::stable_sort(order.begin(), order.end(),
                     [](const ProductOdds* a, const ProductOdds* b) { return a->chanceShort() > b->chanceShort(); });
    if (!order.empty()) {
        const double any = chanceOfAnyShort(odds);
        risk.value = f.percent(any);
        risk.needsAttention = any > document_.job().acceptedRisk;
    }
    risk.madeOf
        << tr("So often anything of all that is bought does not suffice, planned %1 times over with slips of the "
              "tape, spoilt cuts and damaged stock.")
               .arg(document_.oddsTries())
        << tr("By itself:");
    for (std::size_t i = 0; i < std::min<std::size_t>(8, order.size()); ++i)
        if (const Product* p = document_.job().catalogue.find(order[i]->product))
            risk.madeOf << tr("%1: %2").arg(QString::fromStdString(p->name), f.percent(order[i]->chanceShort()));
    return risk;
}

TallyStrip::Figure TallyStrip::remarksFigure(const Plan& plan, const Figures& f) const {
    Figure remarks{.name = tr("Remarks"), .value = QString::number(plan.remarks.size())};
    for (const Remark& r : plan.remarks) {
        if (r.severity != Severity::Note && !isUnfinished(r.kind)) remarks.needsAttention = true;
        remarks.madeOf << sentenceWithPlace(document_.job(), r, f);
        remarks.remarks.push_back(r);
    }
    if (plan.remarks.empty()) remarks.madeOf << tr("Nothing to remark.");
    return remarks;
}

void TallyStrip::recompute() {
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const Plan& plan = *now_;
    const Totals& t = plan.totals;
    const bool laid = t.laidArea.value > 0;
    Figure cost = costFigure(plan, f);
    Figure mass{.name = tr("Added mass"), .value = laid ? f.mass(t.laidMass) : none()};
    mass.change = signedNumber((t.laidMass.value - before_.laidMass.value) / f.massUnit(), 1);
    if (plan.purchases.size() > kMostLines)
        sumUp(plan, f, cost, mass);
    else
        for (const Purchase& p : plan.purchases) {
            const QString name = purchaseName(p, document_.job().catalogue);
            cost.madeOf << tr("%1: %2 × %3 = %4")
                               .arg(name, packsText(p, f), p.packPrice ? f.money(*p.packPrice) : tr("no price"),
                                    p.cost ? f.money(*p.cost) : none());
            mass.madeOf << tr("%1: %2 on %3").arg(name, f.mass(p.laidMass), f.area(p.laidArea));
        }
    const auto odds = document_.odds();
    figures_ = {cost,
                mass,
                wasteFigure(t, f),
                thickFigure(plan, f),
                odds && laid ? triedRiskFigure(*odds, f) : riskFigure(plan, f),
                remarksFigure(plan, f)};
    for (Figure& figure : figures_)
        if (figure.madeOf.isEmpty()) figure.madeOf << tr("Known once the floor is measured and set out.");
    QStringList spoken;
    for (const Figure& figure : figures_) spoken << figure.name + QStringLiteral(" ") + figure.value;
    setAccessibleDescription(spoken.join(QStringLiteral(", ")));
    update();
}

void TallyStrip::sumUp(const Plan& plan, const Figures& f, Figure& cost, Figure& mass) const {
    const Job& job = document_.job();
    // By finish: families in their order, what is paid for all of each.
    for (const ProductFamily* family : productFamilies()) {
        std::vector<std::optional<Money>> costs;
        Kg laid;
        for (const Purchase& p : plan.purchases) {
            if (p.family != family->id) continue;
            costs.push_back(p.cost);
            laid = laid + p.laidMass;
        }
        if (costs.empty()) continue;
        const QString name = fieldName(family->tradeName);
        const std::optional<Money> paid = sumOf(costs, job.currency);
        cost.madeOf << tr("%1: %2").arg(name, paid ? f.money(*paid) : tr("a price is missing"));
        mass.madeOf << tr("%1: %2").arg(name, f.mass(laid));
    }
    for (const DeliveryPlan& d : plan.deliveries)
        cost.madeOf << tr("brought by %1: %2").arg(QString::fromStdString(d.supplier), f.money(d.cost));
    // By area of the van.
    std::map<std::string, std::pair<std::vector<std::optional<Money>>, Kg>> areas;
    for (const SurfaceCost& c : costBySurface(job, plan)) {
        const Surface* s = job.surface(c.surface);
        auto& [costs, laid] = areas[s ? areaText(s->area).toStdString() : std::string()];
        costs.push_back(c.cost);
        laid = laid + c.mass;
    }
    for (const auto& [area, sums] : areas) {
        const QString name = area.empty() ? tr("of no area") : tr("area %1").arg(QString::fromStdString(area));
        const std::optional<Money> paid = sumOf(sums.first, job.currency);
        cost.madeOf << tr("%1: %2").arg(name, paid ? f.money(*paid) : tr("a price is missing"));
        mass.madeOf << tr("%1: %2").arg(name, f.mass(sums.second));
    }
}

QRectF TallyStrip::cell(int index) const {
    const double step = (width() - 40.0) / static_cast<double>(figures_.size());
    return {20 + index * step, 0, step, static_cast<double>(height())};
}

void TallyStrip::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.tally);
    p.setPen(t.faint);
    p.drawLine(0, 0, width(), 0);
    for (std::size_t i = 0; i < figures_.size(); ++i) {
        const Figure& f = figures_[i];
        const QRectF r = cell(static_cast<int>(i)).adjusted(4, 9, -4, -8);
        if (hasFocus() && static_cast<int>(i) == current_) {
            p.setPen(QPen(t.chalk, 2));
            p.setBrush(Qt::NoBrush);
            p.drawRoundedRect(r.adjusted(-6, -2, 0, 2), 4, 4);
        }
        p.setPen(t.muted);
        p.setFont(textFont(0.88));
        p.drawText(r, Qt::AlignTop | Qt::AlignLeft, f.name);
        p.setFont(textFont(1.35, true));
        p.setPen(f.needsAttention ? t.pencil : t.graphite);
        p.drawText(r, Qt::AlignBottom | Qt::AlignLeft, f.value);
        const double used = QFontMetricsF(p.font()).horizontalAdvance(f.value) + 10;
        p.setFont(textFont(0.9));
        p.setPen(t.muted);
        const QRectF rest = r.adjusted(used, 0, 0, -2);
        if (QFontMetricsF(p.font()).horizontalAdvance(f.change) < rest.width())
            p.drawText(rest, Qt::AlignBottom | Qt::AlignLeft, f.change);
    }
}

void TallyStrip::mousePressEvent(QMouseEvent* event) {
    for (std::size_t i = 0; i < figures_.size(); ++i)
        if (cell(static_cast<int>(i)).contains(event->position())) {
            current_ = static_cast<int>(i);
            open(current_);
        }
    update();
}

void TallyStrip::keyPressEvent(QKeyEvent* event) {
    const int last = static_cast<int>(figures_.size()) - 1;
    if (event->key() == Qt::Key_Right)
        current_ = std::min(last, current_ + 1);
    else if (event->key() == Qt::Key_Left)
        current_ = std::max(0, current_ - 1);
    else if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Space)
        open(current_);
    else
        return QWidget::keyPressEvent(event);
    update();
}

void TallyStrip::focusInEvent(QFocusEvent* event) {
    QWidget::focusInEvent(event);
    update();
}

void TallyStrip::open(int index) {
    const Figure& f = figures_[static_cast<std::size_t>(index)];
    auto* popup = new QFrame(this, Qt::Popup);
    popup->setObjectName(QStringLiteral("madeOf"));
    popup->setAttribute(Qt::WA_DeleteOnClose);
    popup->setStyleSheet(QStringLiteral("QFrame#madeOf { background: %1; border: 1px solid %2; }")
                             .arg(css(Theme::now().raised), css(Theme::now().faint)));
    auto* column = new QVBoxLayout(popup);
    column->setContentsMargins(16, 12, 16, 12);
    auto* title = new QLabel(f.name + QStringLiteral("  ") + f.value);
    title->setFont(textFont(1.05, true));
    column->addWidget(title);
    const Figures figures = figuresFor(document_.job(), decimalMark_);
    for (qsizetype i = 0; i < f.madeOf.size(); ++i) {
        const QString& line = f.madeOf[i];
        auto* label = new QLabel(line);
        label->setTextFormat(Qt::PlainText);
        label->setWordWrap(true);
        label->setMinimumWidth(std::min(460, QFontMetrics(label->font()).horizontalAdvance(line) + 8));
        auto* row = new QHBoxLayout;
        row->setSpacing(12);
        row->addWidget(label, 1);
        column->addLayout(row);
        if (i >= static_cast<qsizetype>(f.remarks.size())) continue;
        // What would settle it stands beside it, to be done by one press.
        const Remark remark = f.remarks[static_cast<std::size_t>(i)];
        const QString fix = fixText(document_.job(), remark, figures);
        if (fix.isEmpty()) continue;
        auto* button = new QPushButton(fix);
        button->setObjectName(QStringLiteral("fix"));
        button->setAccessibleDescription(line);
        connect(button, &QPushButton::clicked, popup, [this, popup, remark] {
            popup->close();
            if (Command command = takeFix(document_, remark)) push(document_, std::move(command));
        });
        row->addWidget(button, 0, Qt::AlignTop);
    }
    popup->adjustSize();
    const QPoint at = mapToGlobal(cell(index).topLeft().toPoint());
    const int x = std::min(at.x(), mapToGlobal(QPoint(width(), 0)).x() - popup->width() - 8);
    popup->move(x, at.y() - popup->height() - 4);
    popup->show();
    popup->setFocus();
}

} // namespace westrum
