#pragma once

#include "app/stages/measure/body_bar.h"
#include "app/stages/measure/closure_strip.h"
#include "app/stages/measure/doubt_bar.h"
#include "app/stages/measure/meter_strip.h"
#include "app/stages/measure/outline_bench.h"
#include "app/stages/measure/parts_panel.h"
#include "app/stages/measure/van_closing.h"
#include "app/stages/stage_page.h"

#include <QComboBox>

namespace westrum {

/// Measure: the readings of the surface in hand, what lies on it, and how well the readings close.
class MeasurePage : public StagePage {
    Q_OBJECT
public:
    MeasurePage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    /// A side was pointed at on the map for the side in hand.
    void sidePointedAt(const std::string& surface, int side);
    [[nodiscard]] PartsPanel& parts() { return *parts_; }
    [[nodiscard]] OutlineBench& bench() { return *bench_; }
    /// Reads a drawing and, once it has been looked at, takes it in. What cannot be read is said and changes nothing.
    void importFrom(const QString& path);
    /// Writes the outline by the file's ending: DXF, SVG or CSV.
    bool exportTo(const QString& path);
    void tracePhotograph(const QString& path);
    bool writeSheets(const QString& path, bool all, bool filled);

    [[nodiscard]] LaserMeter& meter() { return meter_; }

signals:
    /// The next side pressed on the map is meant for the side in hand.
    void pointAtSide();
    /// A bare height is to be taken again: it is typed in Build-up. @param field  its object's name there
    void headroomWanted(const QString& field);
    /// The next two sides pressed on the map meet.
    void tieOnMap();

protected:
    void refresh() override;

private:
    void connectParts();
    void connectDialogs();
    void takeAgain(const QString& key);
    void focusInParts(const QString& key);
    /// True if the file was a list of readings, taken in or refused; false if it may be an outline.
    bool importReadings(const QString& path);
    void tell(const QString& sentence, bool attention);
    void offerSheets();
    [[nodiscard]] QString sentenceFor(const Surface& s, const SurfacePlan* plan, bool& attention) const;

    QComboBox* form_;
    OutlineBench* bench_;
    BodyBar* body_;
    DoubtBar* doubt_;
    ClosureStrip* closure_;
    VanClosing* vanClosing_;
    PartsPanel* parts_;
    SocketMeter meter_;
    MeterStrip* meterStrip_;
    QString problem_; ///< of a field being typed in: goes before all else
    std::string shown_;
};

} // namespace westrum
