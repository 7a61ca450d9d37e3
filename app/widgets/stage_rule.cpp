#include "app/widgets/stage_rule.h"

#include "app/drawing/theme.h"

#include <QFontMetricsF>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

namespace westrum {

StageRule::StageRule(const QStringList& stages, QWidget* parent) : QWidget(parent), stages_(stages) {
    setFocusPolicy(Qt::StrongFocus);
    setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    setAccessibleName(tr("Stages of the work"));
}

QSize StageRule::sizeHint() const {
    const QFontMetricsF metrics(textFont(1.0, true));
    double widest = 0;
    for (const QString& s : stages_) widest = std::max(widest, metrics.horizontalAdvance(s));
    return {static_cast<int>((widest + 46) * stages_.size()), static_cast<int>(metrics.height()) + 24};
}

QSize StageRule::minimumSizeHint() const { return {static_cast<int>(66 * stages_.size()), sizeHint().height()}; }

void StageRule::setCurrent(int index) {
    if (index == current_) return;
    current_ = index;
    setAccessibleDescription(stages_.value(index));
    update();
}

QRectF StageRule::leaf(int index) const {
    const double step = static_cast<double>(width()) / static_cast<double>(stages_.size());
    return {index * step + 2, 3, step - 4, height() - 6.0};
}

void StageRule::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    for (int i = 0; i < stages_.size(); ++i) {
        const QRectF r = leaf(i);
        const bool here = i == current_;
        p.setPen(QPen(here && hasFocus() ? t.chalk : t.ruleEdge, here && hasFocus() ? 2 : 1.2));
        p.setBrush(here ? t.ruleDark : t.ruleLight);
        p.drawRoundedRect(r, 4, 4);
        p.setPen(QPen(t.ruleEdge, 1));
        const int marks = 14;
        for (int m = 1; m < marks; ++m) {
            const double x = r.left() + r.width() * m / marks;
            p.drawLine(QPointF(x, r.top() + 1), QPointF(x, r.top() + (m % 5 == 0 ? 9 : 5)));
        }
        const bool darkLeaf = t.dark && !here;
        p.setPen(darkLeaf ? t.graphite : QColor(0x2B2A28));
        QFont font = textFont(1.0, here);
        const double room = r.width() - 30;
        const double wants = QFontMetricsF(textFont(1.0, true)).horizontalAdvance(stages_[i]);
        if (wants > room) font.setPointSizeF(font.pointSizeF() * room / wants);
        p.setFont(font);
        p.drawText(r.adjusted(10, 8, -6, 0), Qt::AlignLeft | Qt::AlignVCenter, stages_[i]);
        p.setFont(textFont(0.8));
        p.drawText(r.adjusted(0, 8, -8, 0), Qt::AlignRight | Qt::AlignVCenter, QString::number(i + 1));
        if (i > 0) {
            p.setPen(Qt::NoPen);
            p.setBrush(t.ruleEdge);
            p.drawEllipse(QPointF(r.left() - 2, r.center().y()), 3.5, 3.5);
        }
    }
}

void StageRule::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < stages_.size(); ++i)
        if (leaf(i).contains(event->position())) emit chosen(i);
}

void StageRule::keyPressEvent(QKeyEvent* event) {
    const int step = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (step == 0) return QWidget::keyPressEvent(event);
    emit chosen(std::clamp(current_ + step, 0, static_cast<int>(stages_.size()) - 1));
}

bool StageRule::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        for (int i = 0; i < stages_.size(); ++i)
            if (leaf(i).contains(help->pos()))
                QToolTip::showText(help->globalPos(), tr("%1: Alt+%2").arg(stages_[i]).arg(i + 1), this);
        return true;
    }
    return QWidget::event(event);
}

} // namespace westrum
