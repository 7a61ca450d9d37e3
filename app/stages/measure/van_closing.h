#pragma once

#include <QWidget>

#include "core/plan/plan.h"
#include "formats/words.h"

namespace westrum {

/// How well the van closes: its faces in space from the rear right, seen from above, the gaps between corners that
/// meet drawn many times their size, the worst first in words. Pressing a line goes to the surface.
class VanClosing : public QWidget {
    Q_OBJECT
public:
    explicit VanClosing(QWidget* parent = nullptr);
    void showClosing(const Job& job, const Plan& plan, const Figures& figures);
    QSize sizeHint() const override { return {600, 260}; }
    QSize minimumSizeHint() const override { return {420, 170}; }

signals:
    void surfaceWanted(const std::string& surface);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    struct Line {
        std::string surface;
        QString text;
    };
    [[nodiscard]] double pictureWidth() const;
    [[nodiscard]] QRectF lineAt(std::size_t k) const;
    [[nodiscard]] QPointF onPicture(VanPoint p) const;

    FoldUp fold_;
    std::vector<Line> lines_;
    double scale_ = 0, exaggerated_ = 1;
    QPointF origin_;
    Figures figures_;
};

} // namespace westrum
