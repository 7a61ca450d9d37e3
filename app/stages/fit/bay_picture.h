#pragma once

#include <QWidget>

#include "core/geometry/polygon.h"

#include <vector>

namespace westrum {

/// A surface in the bays in which adhesive is laid, numbered in laying order.
class BayPicture : public QWidget {
    Q_OBJECT
public:
    /// @param bays  in laying order; not empty
    explicit BayPicture(std::vector<Region> bays, QWidget* parent = nullptr);
    QSize sizeHint() const override { return {420, 118}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::vector<Region> bays_;
    Bounds bounds_;
};

} // namespace westrum
