#pragma once

#include <QLayout>

namespace westrum {

/// A row of widgets, each as wide as it wants to be; what does not fit goes on in the next line.
class FlowRow : public QLayout {
    Q_OBJECT
public:
    explicit FlowRow(int gap = 8) : gap_(gap) {}
    ~FlowRow() override;

    void addItem(QLayoutItem* item) override { items_.push_back(item); }
    [[nodiscard]] int count() const override { return static_cast<int>(items_.size()); }
    [[nodiscard]] QLayoutItem* itemAt(int index) const override { return items_.value(index); }
    QLayoutItem* takeAt(int index) override;
    [[nodiscard]] Qt::Orientations expandingDirections() const override { return {}; }
    [[nodiscard]] bool hasHeightForWidth() const override { return true; }
    [[nodiscard]] int heightForWidth(int width) const override { return lay({0, 0, width, 0}, false); }
    [[nodiscard]] QSize sizeHint() const override { return minimumSize(); }
    [[nodiscard]] QSize minimumSize() const override;
    void setGeometry(const QRect& rect) override;

private:
    /// Lays all that is shown into lines as wide as the rectangle. @return  how high they are
    int lay(const QRect& rect, bool place) const;

    QList<QLayoutItem*> items_;
    int gap_;
};

} // namespace westrum
