#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/drawing/plan_view.h"
#include "core/shell/unfold.h"

#include <QPixmap>
#include <QTimer>

#include <optional>

namespace westrum {

/// The unfolded inside of the van, true to scale: the map of the whole job. What is not measured is a dotted ghost,
/// what has no finish is bare metal, a surface with a remark carries a pencil mark. Wheel and + - 0 zoom, dragging
/// moves it, arrow keys go from surface to surface.
class ShellMap : public QWidget {
    Q_OBJECT
public:
    ShellMap(JobDocument& document, QWidget* parent = nullptr);
    QSize sizeHint() const override { return {330, 600}; }
    QSize minimumSizeHint() const override { return {240, 300}; }

    /// The next side pressed is told by sidePicked(); Escape gives up.
    void pointAtSide(const QString& why);
    [[nodiscard]] bool isPointing() const { return !why_.isEmpty(); }
    void zoomBy(double factor, QPointF around);
    void showAll();
    void setEnlarged(bool enlarged);

    /// Shades surfaces by what is theirs of something, and says how much; none: as usual.
    struct Shade {
        std::string surface;
        double share{}; ///< 0 to 1: how strong
        QString text;
        friend bool operator==(const Shade&, const Shade&) = default;
    };
    void shade(std::vector<Shade> shades);

    /// Lights a part of a surface, or all of it; nothing for an empty id.
    void glow(const std::string& surface, const Region& part);

    /// Where a surface's middle lies on the widget, for tests and tools.
    [[nodiscard]] QPointF middleOf(const std::string& surface) const;
    /// The surface under a point; empty if none.
    [[nodiscard]] std::string surfaceAt(QPointF at) const;
    /// A surface and its side near a point.
    struct SideAt {
        std::string surface;
        int side = -1;
    };
    [[nodiscard]] SideAt sideAt(QPointF at) const;

signals:
    void picked(const std::string& surface);
    void sidePicked(const std::string& surface, int side);
    /// The pointer is over a surface, at a point of it; over none when it is empty.
    void pointedAt(const std::string& surface, westrum::Point at);
    /// The map is to fill the window, or to go back to its place.
    void enlargeWanted();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    bool event(QEvent* event) override;

private:
    struct Leaf {
        Flap flap;
        Unfolded place;
        Ring onMap;
    };
    void layOut();
    void changed();
    [[nodiscard]] PlanView view() const;
    void paintShades(QPainter& p, const PlanView& v) const;
    void paintLeaf(QPainter& p, const PlanView& v, const Leaf& leaf, bool current) const;
    void paintLabelOf(QPainter& p, const PlanView& v, const Leaf& leaf, bool current) const;
    void goTowards(int key);

    JobDocument& document_;
    std::vector<Leaf> leaves_;
    Bounds bounds_;
    double zoom_ = 1;
    QPointF pan_;
    QPointF pressedAt_, panAtPress_;
    bool panning_ = false, enlarged_ = false;
    QString why_;
    SideAt hovered_;
    QPixmap drawn_; ///< the map as last painted: moved and scaled while a gesture lasts, painted anew when it rests
    PlanView drawnView_;
    bool stale_ = true;
    QTimer rest_;
    std::vector<Shade> shades_;
    std::string glowing_;
    Region glowPart_;
};

} // namespace westrum
