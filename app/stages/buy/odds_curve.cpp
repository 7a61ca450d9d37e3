#include "app/stages/buy/odds_curve.h"

#include "app/drawing/theme.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr int kNumbers = 7;    ///< shown beside each other
constexpr int kMostMore = 400; ///< beyond what is planned, looked at

} // namespace

OddsCurve::OddsCurve(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("oddsCurve"));
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Chance of running short by what is bought: arrow keys choose"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void OddsCurve::show(const ProductOdds& odds, int planned, int bought, double accepted, bool metres,
                     const Figures& figures) {
    odds_ = odds;
    planned_ = planned;
    bought_ = bought;
    accepted_ = accepted;
    metres_ = metres;
    // Where one more hardly matters, as with the decimetres of a roll, bars stand further apart.
    int enough = planned_;
    while (enough < planned_ + kMostMore && chanceOf(enough) > accepted_) ++enough;
    step_ = std::max(1, (enough - planned_ + kNumbers - 3) / (kNumbers - 2));
    figures_ = figures;
    setToolTip(tr("Press a bar to buy that many"));
    update();
}

void OddsCurve::say(const QString& sentence) {
    odds_.reset();
    sentence_ = sentence;
    setToolTip({});
    update();
}

int OddsCurve::numbers() const { return kNumbers; }

int OddsCurve::numberAt(int place) const {
    if (planned_ < 1) return planned_ + place * step_;
    return place == 0 ? planned_ - 1 : planned_ + (place - 1) * step_;
}

double OddsCurve::chanceOf(int number) const {
    // What the plan buys is `have`; one more is a step more.
    return odds_->needs.chanceShort(odds_->have + (number - bought_) * odds_->perPack);
}

QRectF OddsCurve::column(int place) const {
    const double head = QFontMetricsF(textFont(0.8)).height() + 6;
    const double step = (width() - 16.0) / numbers();
    return {8 + place * step, head, step, height() - 2 * head - 4};
}

QPointF OddsCurve::barOf(int number) const {
    for (int place = 0; odds_ && place < numbers(); ++place)
        if (numberAt(place) == number) return column(place).center();
    return {};
}

void OddsCurve::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (hasFocus()) {
        p.setPen(QPen(t.chalk, 1, Qt::DotLine));
        p.drawRect(rect().adjusted(0, 0, -1, -1));
    }
    p.setFont(textFont(0.88));
    p.setPen(t.muted);
    if (!odds_) {
        p.drawText(QRectF(rect()).adjusted(8, 8, -8, -8), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, sentence_);
        return;
    }
    p.setFont(textFont(0.8));
    const QFontMetricsF metrics(p.font());
    const QRectF all = column(0); // what is accepted, behind the bars
    const double accepted = all.bottom() - all.height() * accepted_;
    p.setPen(QPen(t.muted, 1, Qt::DashLine));
    p.drawLine(QPointF(8, accepted), QPointF(width() - 8, accepted));
    int mineAt = 0; // the last bar that stands for no more than is bought
    for (int place = 0; place < numbers(); ++place)
        if (numberAt(place) <= bought_) mineAt = place;
    for (int place = 0; place < numbers(); ++place) {
        const int number = numberAt(place);
        const double chance = chanceOf(number);
        const QRectF c = column(place);
        const bool mine = place == mineAt;
        if (mine) {
            QColor wash = t.chalk;
            wash.setAlpha(36);
            p.fillRect(QRectF(c.left(), 0, c.width(), height()), wash);
        }
        const double tall = std::max(1.5, c.height() * chance);
        p.setPen(Qt::NoPen);
        p.setBrush(chance > accepted_ ? t.pencil : t.agreed);
        p.drawRect(QRectF(c.left() + c.width() * 0.22, c.bottom() - tall, c.width() * 0.56, tall));
        p.setPen(t.graphite);
        p.setFont(textFont(0.8, mine));
        p.drawText(
            QRectF(c.left(), std::min(c.bottom() - tall, accepted) - metrics.height() - 2, c.width(), metrics.height()),
            Qt::AlignCenter, figures_.percent(chance));
        const QString name = metres_ ? figures_.run(Mm{(odds_->have + (number - bought_) * odds_->perPack) * 1000}, 1)
                                     : QString::number(number);
        p.drawText(QRectF(c.left(), c.bottom() + 3, c.width(), metrics.height() + 2), Qt::AlignCenter, name);
    }
}

void OddsCurve::mousePressEvent(QMouseEvent* event) {
    if (!odds_) return;
    for (int place = 0; place < numbers(); ++place) {
        const QRectF c = column(place);
        if (event->position().x() < c.left() || event->position().x() >= c.right()) continue;
        emit chosen(numberAt(place));
        return;
    }
}

void OddsCurve::keyPressEvent(QKeyEvent* event) {
    const int by = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (by == 0 || !odds_) return QWidget::keyPressEvent(event);
    emit chosen(bought_ + by);
}

} // namespace westrum
