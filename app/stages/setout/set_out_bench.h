#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/drawing/plan_view.h"
#include "core/families/family.h"
#include "formats/words.h"

#include <optional>
#include <span>
#include <vector>

namespace westrum {

/// The surface with the layer in hand as it will lie. What can be moved by hand has a handle: the start line of rows,
/// the start column of a grid, joints of panels, lamps, and the line from which boards share a taper.
class SetOutBench : public QWidget {
    Q_OBJECT
public:
    SetOutBench(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {480, 180}; }

    /// Where handles stand, for tests; empty points where there is none.
    [[nodiscard]] QPointF startHandle() const;
    [[nodiscard]] QPointF columnHandle() const;
    [[nodiscard]] QPointF jointHandle(int joint) const;
    [[nodiscard]] QPointF taperHandle() const;
    /// On the edge of what is left to be trimmed.
    [[nodiscard]] QPointF allowanceHandle() const;
    [[nodiscard]] QPointF onScreen(Point p) const;

    /// Whether the neighbours lie beside the surface, to see lines run through.
    void showNeighbours(bool shown);
    /// Adds a relief cut: where one is proposed, else from the middle of the lowest side up.
    void addRelief();
    /// Where the grip of a relief cut's end lies, and of the one proposed; null if there is none.
    [[nodiscard]] QPointF reliefHandle(int index) const;
    [[nodiscard]] QPointF proposalHandle() const;
    /// The cushion whose panels are unfolded, from 1: that of the piece in hand, or the only one; 0: none.
    [[nodiscard]] int unitInHand() const;
    [[nodiscard]] int pieceInHand() const { return piece_; }

signals:
    /// The start line is to lie at this offset. Calls of one gesture carry the same number.
    void startMoved(westrum::Mm offset, int gesture);
    void columnMoved(westrum::Mm offset, int gesture);
    void jointsMoved(const std::vector<double>& joints, int gesture);
    void taperMoved(int boards);
    /// The relief cuts of a lining are to be these.
    void reliefsMoved(const std::vector<westrum::ReliefCut>& reliefs, int gesture);
    /// What is left at the edges of a lining is to be this.
    void allowanceMoved(const std::string& rule, westrum::Mm allowance, int gesture);
    void lampMoved(int opening, westrum::Point centre);
    void piecePointed(int piece);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

private:
    [[nodiscard]] const SurfacePlan* plan() const;
    [[nodiscard]] const LayerPlan* layer() const;
    [[nodiscard]] const Product* product() const;
    [[nodiscard]] PlanView view(const SurfacePlan& plan) const;
    /// Of the layer in hand; null if there is none.
    [[nodiscard]] const Family* family() const;
    /// What can be taken hold of, as the family of the layer in hand says.
    [[nodiscard]] std::vector<Grip> grips() const;
    [[nodiscard]] std::optional<Grip> gripOf(Moves moves, int index = -1) const;
    [[nodiscard]] std::optional<Grip> gripAt(QPointF at) const;
    [[nodiscard]] QPointF onScreen(const Grip& grip) const;
    [[nodiscard]] QPointF handle(Moves moves, int index = -1) const;
    [[nodiscard]] int pieceAt(QPointF at) const;
    /// Where the joints or seams lie that can be moved.
    [[nodiscard]] std::vector<double> jointsOf() const;
    /// What the rule of a grip says now.
    [[nodiscard]] double valueNow(const Grip& grip) const;
    [[nodiscard]] double snapped(double x) const;
    /// Those of the layer in hand, as the job has them.
    [[nodiscard]] const std::vector<ReliefCut>& reliefs() const;
    /// A key while a relief cut is in hand; false: it says nothing to it.
    bool keyOnRelief(const QKeyEvent* event, int sideways, int upwards);
    /// Asks for the rule of a grip to say this, as near as it may.
    void moveTo(const Grip& grip, double value, int gesture);
    void dragTo(QPointF at);
    void dragJoint(double to);
    void dragLamp(Point at);
    void dragRelief(Point at);
    void paintReliefs(QPainter& p, const SetOut& setOut, const PlanView& view, std::span<const Grip> grips) const;
    void paintEdges(QPainter& p, const SurfacePlan& plan, const SetOut& setOut, const PlanView& view) const;
    void paintHandles(QPainter& p, const SurfacePlan& plan, const SetOut& setOut, const PlanView& view) const;
    void paintNeighbours(QPainter& p, const SurfacePlan& plan, const PlanView& view) const;

    JobDocument& document_;
    char decimalMark_;
    std::optional<Grip> held_;    ///< as it was when it was taken
    Bounds heldBounds_{};         ///< what is shown while an allowance is moved
    double grab_ = 0;             ///< mm between pointer and line when taken hold of
    std::vector<double> dragged_; ///< joints while one of them is moved
    int gesture_ = 0;
    int joint_ = 0;   ///< in hand for the keys
    int relief_ = -1; ///< the same: place of an end, as Grip::index; -1: none
    int piece_ = -1;
    bool neighbours_ = false;
};

} // namespace westrum
