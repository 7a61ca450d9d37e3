#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/drawing/plan_view.h"
#include "app/widgets/bound_form.h"
#include "formats/words.h"

#include <QLabel>

namespace westrum {

/// The van from above: what every surface adds, where, and what axles and sides carry of it.
class MassPicture : public QWidget {
    Q_OBJECT
public:
    MassPicture(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {480, 220}; }

    /// Where the disc of a surface lies, for tests; null if it has none.
    [[nodiscard]] QPointF discOf(const std::string& surface) const;

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;

private:
    [[nodiscard]] const SurfacePlan* floor() const;
    [[nodiscard]] PlanView view(const SurfacePlan& floor) const;
    [[nodiscard]] double radiusOf(const SurfaceMass& m) const;
    void paintAxle(QPainter& p, const PlanView& view, const Bounds& floor, bool isFront) const;
    void paintDiscs(QPainter& p, const PlanView& view) const;

    JobDocument& document_;
    char decimalMark_;
    int gesture_ = 0;
    std::string held_; ///< the surface whose disc is dragged
};

/// What the finishes weigh: the van on its wheels, plate and weighings typed, tickets of a weighbridge held against
/// what was fitted by then.
class MassView : public QWidget {
    Q_OBJECT
public:
    MassView(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    void refresh();
    /// Takes a ticket's text in; returns an empty text, or why not.
    QString takeTicket(const QString& text);

signals:
    void problem(const QString& sentence);

private:
    void openTicket();
    [[nodiscard]] QString weighingsText() const;

    JobDocument& document_;
    char decimalMark_;
    MassPicture* picture_;
    BoundForm* form_;
    QLabel* sums_;
    QLabel* weighings_;
};

} // namespace westrum
