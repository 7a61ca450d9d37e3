#pragma once

#include <QWidget>

#include <QStringList>

namespace westrum {

/// The stages as the leaves of a folding rule: any of them, any time.
class StageRule : public QWidget {
    Q_OBJECT
public:
    explicit StageRule(const QStringList& stages, QWidget* parent = nullptr);
    void setCurrent(int index);
    [[nodiscard]] int current() const { return current_; }
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override; ///< names shrink before they are cut off

signals:
    void chosen(int index);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

private:
    [[nodiscard]] QRectF leaf(int index) const;
    QStringList stages_;
    int current_ = 0;
};

} // namespace westrum
