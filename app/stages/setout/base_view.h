#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/drawing/base_drawing.h"
#include "app/widgets/bound_form.h"
#include "devices/laser_meter.h"
#include "formats/words.h"

#include <QLabel>

namespace westrum {

class BaseBench;

/// What the layer in hand hangs on: every fixing at its place, the battens below it, packers between those and the
/// ribs, and how near openings come to what is there.
class BaseView : public QWidget {
    Q_OBJECT
public:
    enum Group { Fixings, Battens, Packers, Openings };

    BaseView(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    void refresh();
    void show(Group group, int inHand = -1);
    /// What there is to say of it, in a sentence.
    [[nodiscard]] QString summary() const;

    /// With a meter at hand a crossing is read by it.
    void setMeter(LaserMeter& meter);
    /// Writes the fixing plan of the surface as a PDF; returns an empty text, or why not.
    QString printTo(const QString& path) const;

    /// Where things are drawn, for tests.
    [[nodiscard]] QWidget* bench() const;
    [[nodiscard]] QPointF onBench(Point p) const;
    [[nodiscard]] Group group() const { return group_; }
    [[nodiscard]] int inHand() const { return inHand_; }

signals:
    void problem(const QString& sentence);
    /// Another group, or something else, is in hand.
    void turned();

private:
    void print();
    void build();
    void buildFixings();
    void buildBattens();
    void buildPackers();
    void buildOpenings();
    [[nodiscard]] QString structure() const;
    [[nodiscard]] QString figuresText() const;
    void setBySpan();
    /// A hole of the body in the rib at a place, or away with the one that is there.
    void toggleHole(Point at);
    /// The first opening that is too near something; else the first.
    [[nodiscard]] int nearestToTrouble() const;
    /// The next crossing that is not read, after the one in hand; -1: all are.
    [[nodiscard]] int nextUnread() const;
    [[nodiscard]] const Surface* surface() const { return document_.job().surface(document_.currentSurface()); }
    [[nodiscard]] const SurfacePlan* plan() const;
    [[nodiscard]] int layerInHand() const { return document_.currentLayer(); }
    /// The layer of battens of the option chosen; -1: it has none.
    [[nodiscard]] int battenLayer() const;
    [[nodiscard]] const LayerPlan* layer() const;
    [[nodiscard]] Figures figures() const { return figuresFor(document_.job(), decimalMark_); }

    JobDocument& document_;
    char decimalMark_;
    Group group_ = Fixings;
    int inHand_ = -1;
    int lamps_ = 6, rows_ = 2; ///< to be spaced
    MaybeReading lampWidth_;
    int across_ = 3, up_ = 1; ///< drawers and doors of a front
    MaybeReading reveal_;
    void readCrossingByMeter();
    void keepCrossing(Mm length);
    LaserMeter* meter_ = nullptr;
    std::string asked_; ///< surface whose crossing is being read; empty: none
    CrossingReading askedWhere_;
    BoundForm* groups_;
    BoundForm* form_;
    BaseBench* bench_;
    QLabel* figuresLine_;
    QString built_;
};

} // namespace westrum
