#pragma once

#include "core/plan/plan.h"
#include "formats/words.h"

#include <QCoreApplication>
#include <QPainter>

namespace westrum {

/// The floor from above, its rear at the left: what is left over each place of it, and where the person can stand.
class StandingRoom {
    Q_DECLARE_TR_FUNCTIONS(StandingRoom)
public:
    /// @param box  the drawing's, words and all
    StandingRoom(const HeadroomPlan& headroom, const QRectF& box);
    /// Height that it wants for its width; 0 where the van does not close up to a ceiling.
    static double heightFor(const HeadroomPlan& headroom, double width);
    /// @param person  whether one is said, so that some places are high enough and others are not
    void paint(QPainter& p, const Figures& figures, bool person) const;
    /// What is left over the place that is pointed at; empty off the floor.
    [[nodiscard]] QString told(QPointF at, const Figures& figures) const;

private:
    [[nodiscard]] QRectF cellOf(const HeadAt& place) const;

    const HeadroomPlan& headroom_;
    QRectF box_;
    Point low_;      ///< of the places, on the floor
    double wide_{};  ///< of all of them, across the van
    double scale_{}; ///< pixels to the millimetre
};

} // namespace westrum
