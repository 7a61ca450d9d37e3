#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/drawing/cut_drawing.h"
#include "core/plan/hand_place.h"

#include <memory>
#include <optional>
#include <set>

namespace westrum {

/// The stock of one product as it lies on the trestles, to scale. A piece is taken in hand by a press or with the arrow
/// keys, dragged where it shall lie, turned with R, pinned and let go with P, ticked as cut with the space bar.
class CutBench : public QWidget {
    Q_OBJECT
public:
    CutBench(JobDocument& document, char decimalMark, QWidget* parent = nullptr);

    void show(std::shared_ptr<const ProductCut> cut);
    [[nodiscard]] const ProductCut* cut() const { return cut_.get(); }
    [[nodiscard]] int itemInHand() const { return item_; }
    [[nodiscard]] int pieceInHand() const { return piece_; } ///< place in the item's pieces; -1: none
    void takeInHand(int item, int piece);
    /// Lights pieces from outside, by place in ProductCut::pieces.
    void light(std::set<int> pieces);
    void pinInHand();
    void turnInHand();
    void tickInHand();

    /// Where a lying piece's middle is on the widget, for tests and tools.
    [[nodiscard]] QPointF middleOf(int item, int piece) const;
    [[nodiscard]] QSize sizeHint() const override { return {600, std::max(160, height_)}; }

signals:
    void inHandChanged();
    /// The piece under the pointer, by place in ProductCut::pieces; -1: none.
    void pointedAt(int piece);
    void said(const QString& sentence, bool attention);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void leaveEvent(QEvent* event) override;
    bool event(QEvent* event) override;

private:
    struct Place {
        QRectF box;   ///< of the item itself
        QPointF head; ///< where its name stands
        PlanView view;
        double grown = 1; ///< bars are drawn wider than they are, or nothing could be read on them
    };
    struct At {
        int item = -1, piece = -1;
    };
    struct Dragged {
        CutProblem problem; ///< as it was when the drag began
        int item{}, piece{};
        Point grip; ///< from the lower left of the piece to where it was gripped
        double rotationRad{};
        int onto = -1;
        HandPlace place;
    };
    void layOut();
    [[nodiscard]] At under(QPointF at) const;
    [[nodiscard]] Point onStock(int item, QPointF at) const;
    void dragTo(QPointF at);
    void moveBy(Point by);

    JobDocument& document_;
    char decimalMark_;
    std::shared_ptr<const ProductCut> cut_;
    std::vector<Place> places_;
    int height_ = 160;
    int item_ = 0, piece_ = -1;
    std::set<int> lit_;
    QPointF pressedAt_;
    At pressed_;
    std::optional<Dragged> dragged_;
};

} // namespace westrum
