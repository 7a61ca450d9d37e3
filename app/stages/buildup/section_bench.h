#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "formats/words.h"

#include <vector>

namespace westrum {

/// The build-up in section, true to scale across its layers. A floor stands on its metal, a ceiling hangs from it, and
/// either shows the other with the headroom left between them; a wall is seen from above, its metal to the left.
/// Layers are picked by pointing and dragged to another place.
class SectionBench : public QWidget {
    Q_OBJECT
public:
    SectionBench(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {420, 200}; }
    [[nodiscard]] int layerInHand() const { return inHand_; }
    void takeInHand(int layer);
    /// The middle of a layer of the surface in hand, for tests.
    [[nodiscard]] QPointF middleOf(int layer) const;
    /// The middle of the floor where one can stand, for tests.
    [[nodiscard]] QPointF standingMiddle() const;

signals:
    void picked(int layer);
    void moved(int layer, int to);

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    enum class Lie { Floor, Ceiling, Wall };
    /// One layer where it is drawn.
    struct Slab {
        int layer;
        QRectF box;
        Mm adds;
        bool blocks = false; ///< battens: with room between them
    };
    [[nodiscard]] Lie lieOf(const std::string& surface) const;
    /// The other one of floor and ceiling; empty if there is none.
    [[nodiscard]] std::string partnerOf(const std::string& surface) const;
    [[nodiscard]] QRectF areaOf(bool partner) const;
    /// Of a surface's ribs, between which insulation may lie; 0 if not measured.
    [[nodiscard]] Mm ribDepthOf(const std::string& surface) const;
    [[nodiscard]] QRectF cavityOf(const std::string& surface, bool partner) const;
    [[nodiscard]] double scale() const; ///< pixels to the millimetre across the layers
    [[nodiscard]] std::vector<Slab> slabsOf(const std::string& surface, bool partner) const;
    void paintMaterials(QPainter& p, const std::string& id, bool partner, const std::vector<Slab>& slabs) const;
    static std::vector<double> nameHeights(Lie lie, const QRectF& area, const std::vector<Slab>& slabs, double line);
    void paintNames(QPainter& p, const std::string& id, bool partner, const std::vector<Slab>& slabs) const;
    void paintDrop(QPainter& p, Lie lie, const std::vector<Slab>& slabs) const;
    void paintStack(QPainter& p, const std::string& surface, bool partner) const;
    void paintHeadroom(QPainter& p) const;
    /// Right of the sections: all of what tells the headroom, and of that where one can stand.
    [[nodiscard]] QRectF headroomBox() const;
    [[nodiscard]] QRectF standingBox() const;

    JobDocument& document_;
    char decimalMark_;
    int inHand_ = -1;
    int dragged_ = -1;
    QPointF dragAt_;
};

} // namespace westrum
