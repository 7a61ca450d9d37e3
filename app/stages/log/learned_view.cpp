#include "app/stages/log/learned_view.h"

#include "app/document/record_commands.h"
#include "app/drawing/theme.h"
#include "app/widgets/risk.h"
#include "core/families/family.h"
#include "formats/record_words.h"
#include "formats/work_words.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

/// What is left to do of a family with another rate, and the plan with it.
struct MinutesChange {
    double more = 0; ///< minutes
    Plan plan;
};
MinutesChange minutesChange(const Job& job, const Plan& plan, const RateOffer& offer) {
    MinutesChange change{0, plan};
    const Job with = withRate(job, offer);
    for (SurfacePlan& s : change.plan.surfaces)
        for (FitStep& step : s.steps) {
            if (step.layer < 0 || job.work.efforts.contains(step.kind)) continue;
            const LayerPlan& l = s.layers[static_cast<std::size_t>(step.layer)];
            if (l.family != offer.family) continue;
            const int pieces = static_cast<int>(l.setOut.pieces.size());
            const double now = hoursFor(l.family, l.area.value, pieces, job.work.hours),
                         then = hoursFor(l.family, l.area.value, pieces, with.work.hours);
            if (!(now > 0)) continue;
            if (!job.log(s.surface).done.contains(step.key))
                change.more += minutesOf(step, job.work.practised) * (then / now - 1);
            step.effort.minutes *= then / now;
            step.effort.firstMore *= then / now;
        }
    return change;
}

/// What was observed as a band on a line, the planned figure and the offered one as marks.
class Spread : public QWidget {
public:
    Spread(RateOffer offer, Figures figures) : offer_(std::move(offer)), figures_(std::move(figures)) {
        setFixedHeight(46);
        setAccessibleName(LearnedView::tr("Spread of what was observed"));
        setObjectName(QStringLiteral("spread"));
    }

protected:
    void paintEvent(QPaintEvent*) override {
        const Theme& t = Theme::now();
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const double most = std::max({offer_.high, offer_.now, offer_.offered}) * 1.15;
        const double left = 28, right = std::min(width() - 20.0, 520.0), y = 16;
        const auto x = [&](double v) { return left + (right - left) * v / std::max(most, 1e-9); };
        p.setPen(QPen(t.faint, 1.2));
        p.drawLine(QPointF(left, y), QPointF(right, y));
        p.setPen(Qt::NoPen);
        p.setBrush(t.agreedWash);
        p.drawRoundedRect(QRectF(x(offer_.low), y - 6, std::max(3.0, x(offer_.high) - x(offer_.low)), 12), 4, 4);
        p.setFont(textFont(0.85));
        const double a = x(offer_.now), b = x(offer_.offered);
        const QString now = LearnedView::tr("planned %1").arg(offerFigure(offer_, offer_.now, figures_)),
                      then = LearnedView::tr("offered %1").arg(offerFigure(offer_, offer_.offered, figures_));
        const auto mark = [&](double at, const QColor& colour, const QString& text, bool toTheLeft) {
            p.setPen(QPen(colour, 2.4));
            p.drawLine(QPointF(at, y - 9), QPointF(at, y + 9));
            const double wants = QFontMetricsF(p.font()).horizontalAdvance(text);
            const double from = std::clamp(toTheLeft ? at - wants - 2 : at + 2, 0.0, std::max(0.0, width() - wants));
            p.drawText(QRectF(from, y + 10, wants + 4, 18), Qt::AlignVCenter, text);
        };
        mark(a, t.graphite, now, a <= b);
        mark(b, t.chalk, then, a > b);
    }

private:
    RateOffer offer_;
    Figures figures_;
};

} // namespace

PlannedBars::PlannedBars(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("plannedBars"));
    setAccessibleName(tr("Planned and really"));
}

void PlannedBars::show(const Job& job, std::vector<PlannedReally> pairs, const Figures& figures) {
    job_ = job;
    pairs_ = std::move(pairs);
    figures_ = figures;
    setFixedHeight(std::max(1, static_cast<int>(pairs_.size())) * kRow + 4);
    updateGeometry();
    update();
}

QSize PlannedBars::sizeHint() const { return {500, std::max(1, static_cast<int>(pairs_.size())) * kRow + 4}; }

void PlannedBars::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    constexpr double kName = 230, kFigure = 150;
    const double room = std::max(60.0, width() - kName - kFigure);
    double y = 2;
    for (const PlannedReally& pair : pairs_) {
        const double most = std::max({pair.planned, pair.really, 1e-9});
        p.setFont(textFont(1.0));
        p.setPen(t.graphite);
        p.drawText(QRectF(0, y, kName - 8, kRow - 6), Qt::AlignVCenter,
                   QFontMetricsF(p.font()).elidedText(plannedText(job_, pair), Qt::ElideRight, kName - 8));
        const double a = room * pair.planned / most, b = room * pair.really / most;
        p.setPen(QPen(t.ruleEdge, 1));
        p.setBrush(t.ruleLight);
        p.drawRect(QRectF(kName, y + 4, std::max(2.0, a), 11));
        const bool more = pair.really > pair.planned * 1.05;
        p.setPen(QPen(more ? t.pencil : t.agreed, 1));
        p.setBrush(QBrush(more ? t.pencil : t.agreed, Qt::BDiagPattern));
        p.drawRect(QRectF(kName, y + 17, std::max(2.0, b), 11));
        p.setFont(textFont(0.85));
        p.setPen(t.muted);
        p.drawText(QRectF(kName + a + 6, y + 2, kFigure, 15), Qt::AlignVCenter,
                   tr("planned %1").arg(plannedFigure(pair, pair.planned, figures_)));
        p.setPen(more ? t.pencil : t.agreed);
        p.drawText(QRectF(kName + b + 6, y + 15, kFigure, 15), Qt::AlignVCenter,
                   tr("really %1").arg(plannedFigure(pair, pair.really, figures_)));
        y += kRow;
    }
}

LearnedView::LearnedView(JobDocument& document, Workshop& workshop, QWidget* parent)
    : QWidget(parent), document_(document), workshop_(workshop), scroll_(new QScrollArea) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    scroll_->setWidgetResizable(true);
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(scroll_);
    connect(&workshop_, &Workshop::changed, this, [this] {
        if (isVisible()) show(figures_);
    });
}

QString LearnedView::effectOf(const RateOffer& offer) const {
    const Job& job = document_.job();
    if (offer.what == RateOffer::Readings)
        return tr("What may run short is tried with it in Buy, and which readings are worth taking again.");
    if (offer.what == RateOffer::Spoils) {
        const auto chance = [&](double spoil) {
            const Purchase* p = riskiest(*document_.plan(), spoil);
            return p ? chanceOfRunningShort(p->unitsNeeded, document_.plan()->cutUnits(p->product), p->unitsAtHand(),
                                            spoil)
                     : 0.0;
        };
        return tr("The chance of running short by spoilt cuts alone goes from %1 to %2.")
            .arg(figures_.percent(chance(offer.now)), figures_.percent(chance(offer.offered)));
    }
    if (offer.what == RateOffer::Minutes) {
        const MinutesChange change = minutesChange(job, *document_.plan(), offer);
        if (std::abs(change.more) < 1) return tr("Nothing of that kind is left to do in this van.");
        QString text = change.more > 0 ? tr("What is left of it takes %1 longer.").arg(durationText(change.more))
                                       : tr("What is left of it takes %1 less.").arg(durationText(-change.more));
        if (const auto work = document_.work()) {
            const WorkQuestion asked = workQuestion(withRate(job, offer), change.plan, work->question.now);
            const auto before = planNear(work->question, work->plan).done(), after = planNear(asked, work->plan).done();
            if (before && after && *before != *after)
                text += QLatin1Char(' ') +
                        tr("The van is done on %1 instead of %2.").arg(dayText(*after), dayText(*before));
            else if (before && after)
                text += QLatin1Char(' ') + tr("The van is done on %1 as before.").arg(dayText(*after));
        }
        return text;
    }
    // A container covers so much more, or so much less is lost of it.
    const double ratio = offer.what == RateOffer::Waste ? (1 + offer.now) / (1 + offer.offered)
                         : offer.now > 0                ? offer.offered / offer.now
                                                        : 1;
    for (const Purchase& p : document_.plan()->purchases)
        if (p.product == offer.product && p.amountPerPack > 0) {
            const int then =
                std::max(0, static_cast<int>(std::ceil((p.amount / ratio - p.shelf) / p.amountPerPack - 1e-9)));
            const int more = then - (p.packs - p.spare);
            if (more == 0) return tr("The same number of containers does.");
            const QString cost =
                p.packPrice ? figures_.money({p.packPrice->minor * std::abs(more), p.packPrice->currency}) : QString();
            return more > 0 ? tr("%n more container(s), %1.", nullptr, more).arg(cost)
                            : tr("%n fewer container(s), %1 less.", nullptr, -more).arg(cost);
        }
    return {};
}

void LearnedView::addOffer(QVBoxLayout* column, std::size_t place) {
    const RateOffer offer = offers_[place];
    auto* text = new QLabel(offerText(document_.job(), offer, figures_));
    text->setWordWrap(true);
    text->setFont(textFont(1.05, true));
    column->addWidget(text);
    column->addWidget(new Spread(offer, figures_));
    auto* row = new QHBoxLayout;
    auto* effect = new QLabel(effectOf(offer));
    effect->setWordWrap(true);
    effect->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().muted)));
    row->addWidget(effect, 1);
    auto* take = new QPushButton(tr("Use it"));
    take->setObjectName(QStringLiteral("take-") + QString::fromStdString(offerKey(offer)));
    connect(take, &QPushButton::clicked, this, [this, offer] {
        const QString person = QString::fromStdString(document_.job().work.person);
        push(document_, workshop_.takeRateToo(offer));
        emit said(person.isEmpty() || !workshop_.isWritable()
                      ? tr("Taken for this job. One step back puts it as it was.")
                      : tr("Taken for this job and for %1's next ones. One step back puts it as it was.").arg(person),
                  false);
    });
    auto* refuse = new QPushButton(tr("Leave it"));
    refuse->setObjectName(QStringLiteral("refuse-") + QString::fromStdString(offerKey(offer)));
    connect(refuse, &QPushButton::clicked, this, [this, offer] { push(document_, refuseRate(document_, offer)); });
    row->addWidget(take);
    row->addWidget(refuse);
    column->addLayout(row);
    column->addSpacing(12);
}

void LearnedView::addPerson(QVBoxLayout* column) {
    const Job& job = document_.job();
    auto* row = new QHBoxLayout;
    row->addWidget(new QLabel(tr("Whose hands")));
    auto* name = new QComboBox;
    name->setEditable(true);
    name->setObjectName(QStringLiteral("person"));
    name->setAccessibleName(tr("Whose hands"));
    name->setMinimumWidth(170);
    for (const Person& p : workshop_.book().people) name->addItem(QString::fromStdString(p.name));
    name->setCurrentText(QString::fromStdString(job.work.person));
    name->lineEdit()->setPlaceholderText(tr("nobody in particular"));
    row->addWidget(name);
    auto* what =
        new QLabel(job.work.person.empty()  ? tr("Rates taken stay with this job alone.")
                   : workshop_.isWritable() ? tr("Rates taken are kept for the next jobs too.")
                                            : tr("There is no book to keep rates in: they stay with this job."));
    what->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().muted)));
    what->setWordWrap(true);
    row->addWidget(what, 1);
    column->addLayout(row);
    // A list box must not be taken away while it tells: what it says waits for the next turn.
    const auto take = [this, name] {
        const std::string typed = name->currentText().trimmed().toStdString();
        if (typed == document_.job().work.person) return;
        QMetaObject::invokeMethod(
            this, [this, typed] { push(document_, workshop_.choosePerson(typed)); }, Qt::QueuedConnection);
    };
    connect(name, &QComboBox::activated, this, take);
    connect(name->lineEdit(), &QLineEdit::editingFinished, this, take);
    const Person* person = workshop_.person();
    if (!person) return;
    const auto figure = [&](const BookRate& r, double value) {
        return r.kind == BookRate::Spoils || r.kind == BookRate::Waste ? figures_.percent(value)
               : r.kind == BookRate::Readings ? figures_.fineLength({std::round(value * 10) / 10})
               : r.kind == BookRate::Minutes  ? tr("%1 h a m²").arg(figures_.number(value, 2))
               : r.aSquareMetre               ? tr("%1 kg a m²").arg(figures_.number(value, 2))
                                              : tr("%1 m² a litre").arg(figures_.number(value, 1));
    };
    for (const BookRate& r : ratesOf(*person, job)) {
        const Family* family = familyOf(r.of);
        const Product* product = job.catalogue.find(r.of);
        const QString of = r.kind == BookRate::Spoils     ? tr("cuts spoilt")
                           : r.kind == BookRate::Readings ? tr("readings")
                           : r.kind == BookRate::Waste && product
                               ? tr("thrown away of %1").arg(QString::fromStdString(product->name))
                           : family  ? fieldName(family->product.tradeName)
                           : product ? tr("spreading of %1").arg(QString::fromStdString(product->name))
                                     : QString::fromStdString(r.of);
        auto* line = new QHBoxLayout;
        auto* text = new QLabel(tr("From the book, %1: %2 by earlier jobs, this one is planned with %3.")
                                    .arg(of, figure(r, r.offered), figure(r, r.now)));
        text->setWordWrap(true);
        line->addWidget(text, 1);
        auto* use = new QPushButton(tr("Use it"));
        use->setObjectName(QStringLiteral("book-") + QString::fromStdString(r.kind == BookRate::Readings ? "readings"
                                                                            : r.kind == BookRate::Waste
                                                                                ? "waste-" + r.of
                                                                            : r.of.empty() ? "spoils"
                                                                                           : r.of));
        connect(use, &QPushButton::clicked, this, [this, r] {
            push(document_, workshop_.takeFromBook(r));
            emit said(tr("Taken from the book. One step back puts it as it was."), false);
        });
        line->addWidget(use);
        column->addLayout(line);
    }
}

void LearnedView::show(const Figures& figures) {
    figures_ = figures;
    const Job& job = document_.job();
    offers_ = rateOffers(job, *document_.plan());
    auto* list = new QWidget;
    auto* column = new QVBoxLayout(list);
    column->setContentsMargins(0, 6, 12, 6);
    const auto heading = [&](const QString& text) {
        auto* label = new QLabel(text);
        label->setFont(textFont(1.08, true));
        label->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().chalk)));
        column->addWidget(label);
    };
    addPerson(column);
    heading(tr("Offered by the record"));
    if (!offers_.empty()) {
        auto* how =
            new QLabel(tr("The band is what was observed. What is offered lies between it and the plan, the nearer to "
                          "it the more was written down."));
        how->setWordWrap(true);
        how->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().muted)));
        column->addWidget(how);
    }
    for (std::size_t i = 0; i < offers_.size(); ++i) addOffer(column, i);
    if (offers_.empty())
        column->addWidget(new QLabel(tr("Nothing yet: what was planned holds, or too little is written down.")));
    if (!job.work.refused.empty()) {
        auto* again = new QPushButton(tr("Offer again what was left"));
        again->setObjectName(QStringLiteral("offerAgain"));
        connect(again, &QPushButton::clicked, this, [this] { push(document_, offerRefused(document_)); });
        column->addWidget(again, 0, Qt::AlignLeft);
    }
    std::vector<PlannedReally> pairs = plannedAndReally(job, *document_.plan());
    if (!pairs.empty()) {
        heading(tr("As planned, and really"));
        auto* bars = new PlannedBars;
        bars->show(job, std::move(pairs), figures);
        column->addWidget(bars);
    }
    column->addStretch(1);
    scroll_->setWidget(list);
}

} // namespace westrum
