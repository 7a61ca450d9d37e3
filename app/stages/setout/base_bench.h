#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/drawing/plan_view.h"
#include "app/stages/setout/base_view.h"
#include "formats/words.h"

#include <functional>

namespace westrum {

/// The surface as its base sees it. What is in hand is taken by pointing at it, or by the arrow keys.
class BaseBench : public QWidget {
public:
    BaseBench(JobDocument& document, char decimalMark, std::function<void(int)> take, std::function<void(Point)> point,
              QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {360, 200}; }

    [[nodiscard]] const SurfacePlan* plan() const;
    [[nodiscard]] PlanView view(const SurfacePlan& plan) const;

    BaseView::Group group = BaseView::Fixings;
    int inHand = -1;
    int battenLayer = -1;

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

private:
    [[nodiscard]] const LayerPlan* layer(const SurfacePlan& plan) const;
    [[nodiscard]] int count() const;
    /// What lies at a point: a piece, a crossing, an opening; -1: nothing.
    [[nodiscard]] int at(QPointF point) const;
    [[nodiscard]] QString tip(QPointF point) const;

    JobDocument& document_;
    char decimalMark_;
    std::function<void(int)> take_;
    std::function<void(Point)> point_; ///< a place on the surface was pointed at
};

} // namespace westrum
