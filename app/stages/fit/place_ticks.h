#pragma once

#include <QWidget>

#include "app/drawing/plan_view.h"
#include "core/plan/plan.h"

#include <set>
#include <string>
#include <vector>

namespace westrum {

/// Places of a step on its piece or surface, each to be ticked by a press: fixings, tails of cables, backing timbers. A
/// missed one is seen before the panel goes up.
class PlaceTicks : public QWidget {
    Q_OBJECT
public:
    struct Place {
        Point at;
        std::string key;     ///< under which it is ticked
        bool square = false; ///< drawn as a square: a timber, not a screw
    };
    /// @param outline  that they lie on
    PlaceTicks(Region outline, std::vector<Place> places, QWidget* parent = nullptr);
    void setDone(const std::set<std::string>& done);
    [[nodiscard]] int missing() const;
    /// Where a place is drawn, for tests.
    [[nodiscard]] QPointF spot(std::size_t place) const;
    QSize sizeHint() const override { return {420, 130}; }

signals:
    void pressed(const std::string& key, bool done);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] PlanView view() const;
    [[nodiscard]] bool isDone(std::size_t place) const { return done_.contains(places_[place].key); }
    Region outline_;
    std::vector<Place> places_;
    std::set<std::string> done_;
    std::size_t hand_ = 0;
};

} // namespace westrum
