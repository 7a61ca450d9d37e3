#pragma once

#include <QWidget>

#include "core/measure/measurement.h"
#include "formats/words.h"

#include <optional>
#include <vector>

namespace westrum {

/// How well the readings close: the residual of each after the best fit, as a bar up or down from zero.
class ClosureStrip : public QWidget {
    Q_OBJECT
public:
    explicit ClosureStrip(QWidget* parent = nullptr);
    void showClosure(const Measurement& measurement, const MeasuredOutline& measured, const Figures& figures);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {400, sizeHint().height()}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    struct Line {
        QString letter;
        double residual{};
        std::optional<double> misclosure;
        bool suspected = false; ///< its error would explain why they disagree
    };
    std::vector<Line> lines_;
    QString instead_; ///< the sentence shown where there is nothing to check
    Figures figures_;
};

} // namespace westrum
