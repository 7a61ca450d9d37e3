#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/drawing/plan_view.h"
#include "formats/words.h"

namespace westrum {

/// The floor with its planks as they will lie; the start line is moved by hand.
class SetOutBench : public QWidget {
    Q_OBJECT
public:
    SetOutBench(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {480, 240}; }

    /// Where the start line's handle stands, for tests.
    [[nodiscard]] QPointF startHandle() const;

signals:
    /// The start line is to lie at this offset. Calls of one gesture carry the same number.
    void startMoved(westrum::Mm offset, int gesture);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] const SurfacePlan* plan() const;
    [[nodiscard]] PlanView view(const SurfacePlan& plan) const;
    [[nodiscard]] double plankWidth() const;
    [[nodiscard]] bool onStartLine(QPointF at) const;
    void moveTo(double offset, int gesture);
    void paintEdgeRows(QPainter& p, const SurfacePlan& plan, const PlanView& view) const;

    JobDocument& document_;
    char decimalMark_;
    bool dragging_ = false;
    double grab_ = 0; ///< mm between pointer and line when taken hold of
    int gesture_ = 0;
};

} // namespace westrum
