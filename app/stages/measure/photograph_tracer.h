#pragma once

#include <QDialog>

#include "app/document/job_document.h"
#include "app/widgets/bound_form.h"
#include "core/geometry/homography.h"

#include <QImage>
#include <QLabel>
#include <QPushButton>
#include <QTransform>

#include <array>

namespace westrum {

/// A photograph with four known points in it: they are marked, the picture is set straight, the outline and what lies
/// within it is traced; a fifth length that is known says how far to trust it.
class PhotographTracer : public QDialog {
    Q_OBJECT
public:
    PhotographTracer(JobDocument& document, QImage picture, char decimalMark, QWidget* parent = nullptr);

    enum Step { Mark, Trace, Check };
    void setStep(Step step);
    /// Where the four known points lie on the flat, in mm: a rectangle's corners, or any.
    void setKnown(std::size_t index, Point mm);
    /// A press on the picture, in its own pixels: a known point, a traced corner, an end of the check length.
    void press(Point pixel);
    /// Closes the ring being traced; the first one is the outline, the next ones lie within it.
    void closeRing();
    void takeBack();

    [[nodiscard]] std::vector<Ring> ringsMm() const;
    /// Measured length of the check stroke less what is known; nothing until both are there.
    [[nodiscard]] std::optional<double> checkResidualMm() const;
    [[nodiscard]] QString said() const { return words_->text(); }
    [[nodiscard]] const std::optional<Homography>& toPlane() const { return toPlane_; }

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override; ///< nearer and farther, to press exactly

private:
    void solve();
    void refresh();
    void buildFields();
    [[nodiscard]] QRectF canvas() const;
    [[nodiscard]] QTransform toScreen() const; ///< picture pixels to the dialog
    [[nodiscard]] std::optional<Point> pixelAt(QPointF onScreen) const;

    JobDocument& document_;
    char decimalMark_;
    QImage picture_;
    Step step_ = Mark;
    std::vector<Point> marked_; ///< in pixels, in order A B C D
    std::array<Point, 4> known_{{{0, 0}, {1000, 0}, {1000, 1000}, {0, 1000}}};
    std::optional<Homography> toPlane_;
    std::vector<std::vector<Point>> rings_; ///< in pixels; the last one may be open
    bool open_ = false;
    std::vector<Point> check_;
    MaybeReading checkLength_;
    int dragged_ = -1;
    QTransform nearer_;
    BoundForm* fields_;
    QLabel* words_;
    QWidget* room_;
    QPushButton* take_;
    std::array<QPushButton*, 3> steps_{};
};

} // namespace westrum
