#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/drawing/trim_drawing.h"
#include "app/widgets/entry_field.h"
#include "formats/words.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>

namespace westrum {

class EdgeBench;
class SawPicture;

/// The edges of the surface in hand: what closes each, where its pieces end, and how the saw is set for every end.
/// A trim is overruled at the edge that is pointed at.
class EdgeView : public QWidget {
    Q_OBJECT
public:
    EdgeView(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    void refresh();
    /// What closes the surface's edges, in a sentence.
    [[nodiscard]] QString summary() const;
    /// Takes the next joint round the surface in hand, or the one before.
    void stepJoint(int by);

    /// Where joints are drawn on the bench, for tests; and the bench itself.
    [[nodiscard]] QWidget* bench() const;
    [[nodiscard]] QPointF onBench(const JointPlace& joint) const;
    [[nodiscard]] QPointF onBench(int run) const;

signals:
    void problem(const QString& sentence);

private:
    void takeRun(int run);
    void chooseEverywhere();
    QString takeGauge(const QString& typed);
    void showGauge(const TrimRun* run, const TrimJoint* joint);
    /// What is said of all such edges in the run's area; null: nothing.
    [[nodiscard]] const AreaTrim* saidOfArea(const TrimRun& run) const;
    void takeJoint(const JointPlace& joint);
    [[nodiscard]] const TrimRun* run() const;
    [[nodiscard]] Figures figures() const { return figuresFor(document_.job(), decimalMark_); }

    JobDocument& document_;
    char decimalMark_;
    EdgeBench* bench_;
    QLabel* runLine_;
    QComboBox* choice_;
    QPushButton* everywhere_; ///< the same at all such edges of its area
    EntryField* gauge_;       ///< the corner at the joint in hand
    QLabel* gaugeName_;
    QLabel* jointTitle_;
    SawPicture* saw_;
    QLabel* jointText_;
    QLabel* filler_;
    int run_ = -1;
    JointPlace joint_;
};

} // namespace westrum
