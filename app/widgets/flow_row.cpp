#include "app/widgets/flow_row.h"

#include <QWidget>

#include <algorithm>

namespace westrum {

FlowRow::~FlowRow() {
    while (QLayoutItem* item = takeAt(0)) delete item;
}

QLayoutItem* FlowRow::takeAt(int index) { return index >= 0 && index < items_.size() ? items_.takeAt(index) : nullptr; }

QSize FlowRow::minimumSize() const {
    QSize size; // of the widest alone: the rest can always go below it
    for (const QLayoutItem* item : items_)
        if (!item->isEmpty()) size = size.expandedTo(item->minimumSize());
    return size;
}

void FlowRow::setGeometry(const QRect& rect) {
    QLayout::setGeometry(rect);
    lay(rect, true);
}

int FlowRow::lay(const QRect& rect, bool place) const {
    int x = rect.x(), y = rect.y(), high = 0;
    for (QLayoutItem* item : items_) {
        if (item->isEmpty()) continue;
        const QSize size = item->sizeHint().boundedTo({std::max(1, rect.width()), QWIDGETSIZE_MAX});
        if (x > rect.x() && x + size.width() > rect.x() + rect.width()) {
            x = rect.x();
            y += high + gap_ / 2;
            high = 0;
        }
        if (place) item->setGeometry(QRect(QPoint(x, y), size));
        x += size.width() + gap_;
        high = std::max(high, size.height());
    }
    return y + high - rect.y();
}

} // namespace westrum
