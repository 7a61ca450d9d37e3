#pragma once

#include <QWidget>

#include "app/document/job_document.h"

namespace westrum {

/// The unfolded inside of the van, true to scale: the map of the whole job. What is not measured is a dotted ghost,
/// what has no finish is bare metal, a surface with a remark carries a pencil mark.
class ShellMap : public QWidget {
    Q_OBJECT
public:
    ShellMap(JobDocument& document, QWidget* parent = nullptr);
    QSize sizeHint() const override { return {330, 600}; }
    QSize minimumSizeHint() const override { return {240, 300}; }

signals:
    void picked(const std::string& surface);
    /// A ghost was pressed: it cannot be planned yet.
    void ghostPressed(westrum::SurfaceKind kind);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    struct Leaf {
        SurfaceKind kind;
        QRectF box; ///< on the widget
        std::string surface;
    };
    [[nodiscard]] std::vector<Leaf> leaves() const;
    JobDocument& document_;
};

} // namespace westrum
