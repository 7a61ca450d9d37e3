#pragma once

#include "app/document/work_worker.h"

#include <QRectF>
#include <QString>

#include <string>
#include <vector>

namespace westrum {

/// A day on the strip: as wide as its hours.
struct StripDay {
    CivilDate day;
    int from{}, to{}; ///< minutes from midnight that are shown
    double x{}, width{};
    bool evening = false; ///< worked in the dark hours only
    double dryChance = 1;
    bool forecast = false;
    int people{};
};
/// What one row shows: a surface, or work that is nobody's.
struct StripRow {
    enum Kind { Trips, Outside, OfSurface } kind{};
    std::string surface{}; ///< id
    double y{}, height{};
    int lanes = 1;
};
/// A stretch of a piece of work, where it is drawn.
struct StripBar {
    int item{};
    std::size_t row{};
    int lane{};
    WorkPart part;
    QRectF box;
    bool first = true, last = true;
    double room{}; ///< to the right, before something else lies there
};

/// Where everything of a plan lies on the strip, from its upper left corner.
class StripLayout {
public:
    static constexpr double kLane = 20, kRowPadding = 10;

    StripLayout() = default;
    StripLayout(const Job& job, const WorkAnswer& answer, double pixelsPerHour);

    [[nodiscard]] const std::vector<StripDay>& days() const { return days_; }
    [[nodiscard]] const std::vector<StripRow>& rows() const { return rows_; }
    [[nodiscard]] const std::vector<StripBar>& bars() const { return bars_; }
    [[nodiscard]] double width() const { return width_; }
    [[nodiscard]] double height() const { return height_; }
    /// Of a time of the plan's clock; nights and days off are crossed in no space.
    [[nodiscard]] double xAt(const WorkClock::Moment& m) const;
    /// The day under a place, or next to it; null if there are none.
    [[nodiscard]] const StripDay* dayAt(double x) const;
    [[nodiscard]] const StripDay* find(const CivilDate& day) const;
    /// The bar under a place; null: none.
    [[nodiscard]] const StripBar* barAt(QPointF at) const;
    [[nodiscard]] const StripBar* firstBarOf(int item) const;

private:
    void layDays(const WorkAnswer& answer, double pixelsPerHour);
    void layRows(const Job& job, const WorkAnswer& answer);

    std::vector<StripDay> days_;
    std::vector<StripRow> rows_;
    std::vector<StripBar> bars_;
    double width_ = 0, height_ = 0;
};

} // namespace westrum
