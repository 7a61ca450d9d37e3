#include "app/stages/buy/share_bars.h"

#include "app/drawing/theme.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>

namespace westrum {

ShareBars::ShareBars(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("shareBars"));
    setAccessibleName(tr("Where it goes"));
}

double ShareBars::lineHeight() const { return QFontMetricsF(textFont(0.9)).height() + 3; }

QPointF ShareBars::rowAt(int row) const { return {width() / 3.0, (row + 0.5) * lineHeight()}; }

void ShareBars::show(const Purchase& purchase, const Job& job, const Figures& figures) {
    rows_.clear();
    double all = 0;
    for (const PurchaseShare& s : purchase.shares) all += s.consumed;
    for (const PurchaseShare& s : purchase.shares) {
        if (s.consumed <= 0) continue;
        const Surface* surface = job.surface(s.surface);
        Row r;
        r.surface = s.surface;
        r.name = surface ? QString::fromStdString(surface->name) : tr("loose pieces");
        r.share = all > 0 ? s.consumed / all : 0;
        r.amount = figures.percent(r.share);
        r.cost = s.cost ? figures.money(*s.cost) : QString();
        rows_.push_back(std::move(r));
    }
    std::stable_sort(rows_.begin(), rows_.end(), [](const Row& a, const Row& b) { return a.share > b.share; });
    setFixedHeight(static_cast<int>(lineHeight() * std::max<double>(1, static_cast<double>(rows_.size())) + 2));
    QStringList spoken;
    for (const Row& r : rows_) spoken << r.name + QStringLiteral(" ") + (r.cost.isEmpty() ? r.amount : r.cost);
    setAccessibleDescription(spoken.join(QStringLiteral(", ")));
    update();
}

void ShareBars::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setFont(textFont(0.9));
    const QFontMetricsF metrics(p.font());
    double costs = 0;
    for (const Row& r : rows_) costs = std::max(costs, metrics.horizontalAdvance(r.cost));
    const double names = std::min(150.0, width() * 0.42),
                 share = metrics.horizontalAdvance(QStringLiteral("100.0 %")) + 8;
    const double bars = std::max(20.0, width() - names - share - costs - 22);
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        const Row& r = rows_[i];
        const QRectF line(0, static_cast<double>(i) * lineHeight(), width(), lineHeight());
        p.setPen(t.graphite);
        p.drawText(QRectF(line.left(), line.top(), names, line.height()), Qt::AlignLeft | Qt::AlignVCenter,
                   metrics.elidedText(r.name, Qt::ElideRight, names));
        p.setPen(Qt::NoPen);
        p.setBrush(t.chalk);
        p.drawRect(QRectF(names + 8, line.top() + 4, std::max(1.5, bars * r.share), line.height() - 9));
        p.setPen(t.muted);
        p.drawText(QRectF(names + 8 + bars, line.top(), share, line.height()), Qt::AlignRight | Qt::AlignVCenter,
                   r.amount);
        p.setPen(t.graphite);
        p.drawText(QRectF(line.right() - costs - 2, line.top(), costs, line.height()),
                   Qt::AlignRight | Qt::AlignVCenter, r.cost);
    }
}

void ShareBars::mousePressEvent(QMouseEvent* event) {
    const auto row = static_cast<std::size_t>(std::max(0.0, event->position().y() / lineHeight()));
    if (row < rows_.size() && !rows_[row].surface.empty()) emit picked(rows_[row].surface);
}

} // namespace westrum
