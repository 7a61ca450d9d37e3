#include "app/widgets/flow_row.h"

#include <QWidget>

#include <algorithm>
#include <vector>

namespace westrum {

FlowRow::~FlowRow() {
    while (QLayoutItem* item = takeAt(0)) delete item;
}

QLayoutItem* FlowRow::takeAt(int index) { return index >= 0 && index < items_.size() ? items_.takeAt(index) : nullptr; }

QSize FlowRow::minimumSize() const {
    QSize size; // of the widest alone: the rest can always go below it
    for (const QLayoutItem* item : items_)
        if (!item->isEmpty() && !item->hasHeightForWidth()) size = size.expandedTo(item->minimumSize());
    return size;
}

void FlowRow::setGeometry(const QRect& rect) {
    QLayout::setGeometry(rect);
    lay(rect, true);
}

int FlowRow::lay(const QRect& rect, bool place) const {
    constexpr int kLeastWords = 160; // words that wrap take what is left of a line, or a line of their own
    struct Put {
        QLayoutItem* item;
        int x;
        QSize size;
    };
    std::vector<Put> line;
    int x = 0, y = rect.y();
    const auto close = [&] {
        int high = 0;
        for (const Put& l : line) high = std::max(high, l.size.height());
        if (place) // each in the middle of its line
            for (const Put& l : line)
                l.item->setGeometry(QRect(QPoint(rect.x() + l.x, y + (high - l.size.height()) / 2), l.size));
        if (!line.empty()) y += high + gap_ / 2;
        line.clear();
        x = 0;
    };
    for (QLayoutItem* item : items_) {
        if (item->isEmpty()) continue;
        QSize size = item->sizeHint().boundedTo({std::max(1, rect.width()), QWIDGETSIZE_MAX});
        const bool wraps = item->hasHeightForWidth();
        if (wraps) {
            if (rect.width() - x < std::min(kLeastWords, size.width())) close();
            const int wide = std::min(std::max(1, rect.width() - x), item->maximumSize().width());
            size = {wide, item->heightForWidth(wide)};
        }
        if (x > 0 && x + size.width() > rect.width()) close();
        line.push_back({item, x, size});
        x += size.width() + gap_;
    }
    close();
    return std::max(0, y - gap_ / 2 - rect.y());
}

} // namespace westrum
