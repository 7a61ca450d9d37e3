#pragma once

#include <QAbstractScrollArea>

#include "app/stages/fit/strip_layout.h"
#include "core/plan/plan.h"
#include "formats/words.h"

#include <QPixmap>

#include <map>
#include <memory>
#include <optional>
#include <utility>

namespace westrum {

/// The work in time: days as leaves of a folding rule against surfaces. Work in the van, work outside and waiting are
/// told apart by pattern; what covers something for good has a red mark, its checks hang from it. A piece of work is
/// dragged to another day, or moved with Shift and the arrow keys.
class WorkStrip : public QAbstractScrollArea {
    Q_OBJECT
public:
    explicit WorkStrip(QWidget* parent = nullptr);

    void show(const Job& job, std::shared_ptr<const Plan> plan, std::shared_ptr<const WorkAnswer> answer,
              const std::string& current, const Figures& figures);
    /// Another job: it is scrolled to its now again.
    void begin() { begun_ = false; }
    /// A plan while something is dragged; null: the one shown.
    void preview(std::shared_ptr<const WorkAnswer> answer);
    [[nodiscard]] int inHand() const { return hand_; }
    void takeInHand(int item);
    /// Scrolls to where it is.
    void reveal(int item);
    void revealRow(const std::string& surface);

    /// For tests: where a piece of work begins, a day, a check, on the viewport.
    [[nodiscard]] QRectF barOf(int item) const;
    [[nodiscard]] QRectF dayBox(const CivilDate& day) const;
    [[nodiscard]] QRectF checkBox(int item, std::size_t check) const;
    QSize sizeHint() const override { return {800, 340}; }
    QSize minimumSizeHint() const override { return {420, 200}; }

    /// Larger or smaller days, about the middle of what is shown.
    void zoomBy(double factor);

signals:
    void handChanged(int item);
    void dragged(int item, westrum::CivilDate day);
    void dropped(int item, westrum::CivilDate day);
    void dragGivenUp();
    void surfacePicked(const std::string& surface);
    void checkPressed(const westrum::StepRef& check);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool viewportEvent(QEvent* event) override;

private:
    void zoom(double factor, double x);
    static constexpr double kNames = 168, kHead = 38, kFoot = 26;

    void layOut();
    void setRanges();
    [[nodiscard]] QPointF origin() const; ///< of the layout on the viewport
    [[nodiscard]] const WorkAnswer& shown() const { return preview_ ? *preview_ : *answer_; }
    [[nodiscard]] const WorkItem& item(int i) const { return shown().question.net.items[static_cast<std::size_t>(i)]; }
    [[nodiscard]] QString tipOf(int item) const;
    void stepHand(int by);
    void pushToDay(int by);
    void paintGround(QPainter& p) const;
    void paintRows(QPainter& p) const;
    void paintWaits(QPainter& p) const;
    void paintBars(QPainter& p) const;
    void paintBar(QPainter& p, const StripBar& bar) const;
    void paintChecks(QPainter& p, const StripBar& bar) const;
    void paintHead(QPainter& p) const;
    void paintNames(QPainter& p);
    void paintHands(QPainter& p) const;
    void paintGates(QPainter& p) const;
    [[nodiscard]] std::vector<QRectF> checksOf(const StripBar& bar) const;
    const QPixmap& picture(const std::string& surface);

    Job job_;
    std::shared_ptr<const Plan> plan_;
    std::shared_ptr<const WorkAnswer> answer_, preview_;
    std::string current_;
    Figures figures_;
    StripLayout layout_;
    double pixelsPerHour_ = 10;
    bool begun_ = false; ///< scrolled to where it stands
    int hand_ = -1;
    int pressed_ = -1;
    QPointF pressedAt_;
    bool dragging_ = false;
    std::optional<CivilDate> over_;
    std::map<std::string, QPixmap> pictures_;
};

/// How each kind of work is filled; for the strip and its legend.
void paintWorkFill(QPainter& painter, const QRectF& box, WorkPlace place, bool done);
void paintWaitFill(QPainter& painter, const QRectF& box);
void paintRain(QPainter& painter, const QRectF& box);

} // namespace westrum
