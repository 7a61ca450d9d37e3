#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/drawing/plan_view.h"
#include "app/widgets/entry_field.h"
#include "core/shell/sketch.h"
#include "formats/words.h"

#include <vector>

namespace westrum {

/// What is in hand on the bench: it decides which dimensions are shown and what the pointer takes hold of.
enum class BenchFocus { Outline, Openings, Edges, Zones, Supports };

/// The surface drawn to scale with its dimension lines; the readings are typed where they belong on the drawing.
class OutlineBench : public QWidget {
    Q_OBJECT
public:
    OutlineBench(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    void refresh();
    QSize minimumSizeHint() const override { return {480, 160}; }

    /// @param index  the opening, side, zone or support in hand; -1 for none
    void setFocusOn(BenchFocus focus, int index);
    [[nodiscard]] int inHand() const { return index_; }
    /// Where a point of the surface lies on the widget.
    [[nodiscard]] QPointF onScreen(Point p) const { return view().map(p); }
    /// The key of the reading whose field has the keyboard; empty if none has.
    [[nodiscard]] QString currentKey() const;
    /// The first field whose key starts so takes the keys; false if there is none.
    bool focusFirst(const QString& start);
    /// Gives the keyboard to the field of a key, or to the one after it.
    bool focusField(const QString& key, bool theNext = false);
    /// Draws another outline over the one that stands, with what it would be; empty: none.
    void showInstead(const Ring& outline, const QString& words);
    /// With a meter at hand, Space in a dimension that is not being typed in takes it.
    void setMeterReady(bool ready) { meterReady_ = ready; }

signals:
    /// What could not be understood in a field; empty when all is in order.
    void problem(const QString& sentence);
    /// An opening, side, zone or support was pressed.
    void pressed(int index);
    /// A box was drawn by hand in the surface's coordinates: a new zone.
    void boxDrawn(QRectF box);
    /// The dimension in hand is to be taken by the meter.
    void takeWanted();

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    struct Place {
        EntryField* field;
        ReadingSlot slot;
        [[nodiscard]] bool small() const { return slot.kind != SlotKind::Side && slot.kind != SlotKind::Diagonal; }
    };

    void rebuild();
    void placeFields();
    [[nodiscard]] QPointF centreOf(const ReadingSlot& slot, QSizeF field) const;
    [[nodiscard]] const Surface* surface() const { return document_.job().surface(document_.currentSurface()); }
    [[nodiscard]] const SurfacePlan* plan() const { return document_.plan()->surface(document_.currentSurface()); }
    [[nodiscard]] PlanView view() const;
    [[nodiscard]] bool isSuspect(const std::string& key) const;
    [[nodiscard]] QString nameOf(const std::string& key) const;
    [[nodiscard]] int under(QPointF at) const;
    void moveInHand(QPointF to);
    void paintWords(QPainter& p, const PlanView& v) const;
    void paintDimensionLines(QPainter& p, const PlanView& v) const;
    void paintDoubt(QPainter& p, const PlanView& v) const;

    JobDocument& document_;
    char decimalMark_;
    BenchFocus focus_ = BenchFocus::Outline;
    int index_ = -1;
    Sketch sketch_;
    std::vector<Place> places_;
    QString built_; ///< what the fields were built for
    bool dragging_ = false, drawing_ = false;
    PlanView held_;  ///< while something is dragged: as it was drawn when that began, for sentences that come and go
    QPointF heldAt_; ///< in the meantime move the drawing; and where its corner was on the screen
    QPointF grab_;   ///< pointer to centre, in pixels, of what is dragged; or where a box was begun
    QPointF drawnTo_;
    int gesture_ = 0;
    bool meterReady_ = false;
    Ring instead_;
    QString insteadWords_;
};

} // namespace westrum
