#pragma once

#include <QWidget>

#include "core/plan/plan.h"
#include "core/plan/starts.h"
#include "formats/words.h"

#include <memory>

namespace westrum {

/// For every possible start: how wide the first and the last row get, and how many packs it takes. The strip is itself
/// the control: the start line is dragged along it.
class StartStrip : public QWidget {
    Q_OBJECT
public:
    explicit StartStrip(QWidget* parent = nullptr);
    void showStarts(std::shared_ptr<const Starts> starts, Mm current, double plankWidth, const Figures& figures,
                    bool settled);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {420, sizeHint().height()}; }

signals:
    void startMoved(westrum::Mm offset, int gesture);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] QRectF chart() const;
    [[nodiscard]] QRectF packsBar() const;
    [[nodiscard]] double xOf(double offset) const;
    void dragTo(double x);
    void paintRowWidths(QPainter& p) const;
    void paintPacks(QPainter& p) const;

    std::shared_ptr<const Starts> starts_;
    std::vector<StartChoice> strip_; ///< the start lines among them
    double current_ = 0;
    double width_ = 0; ///< of a plank
    Figures figures_;
    bool settled_ = false;
    int gesture_ = 0;
};

} // namespace westrum
