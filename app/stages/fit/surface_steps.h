#pragma once

#include <QScrollArea>

#include "app/document/job_document.h"
#include "app/stages/fit/effort_bar.h"
#include "app/widgets/entry_field.h"

#include <QCheckBox>
#include <QPushButton>
#include <QVBoxLayout>

#include <optional>
#include <vector>

namespace westrum {

/// The ordered steps of the surface in hand, each with its pieces, times, tools and caution, ticked as they are done;
/// what has a place of its own is ticked there.
class SurfaceSteps : public QWidget {
    Q_OBJECT
public:
    explicit SurfaceSteps(JobDocument& document, QWidget* parent = nullptr);
    void show(const Figures& figures);
    /// What comes next, and how many of how many are done.
    [[nodiscard]] QString sentence() const;
    [[nodiscard]] QString detail() const;

signals:
    void problem(const QString& sentence);

private:
    /// Both speeds, one of them as typed; a sentence if it is none.
    QString takePace(const QString& typed, bool spread);
    void rebuild(const SurfacePlan& plan);
    /// What must be ready before it, each ticked here as well as under the days and rules.
    void addGates(QVBoxLayout* column, const Surface& surface);
    void addStep(QVBoxLayout* column, const SurfacePlan& plan, const FitStep& step);
    /// Writes down that a step was begun and left, or strikes that out.
    void breakOff(const std::string& key);
    void addPlaces(QVBoxLayout* column, const SurfacePlan& plan, const FitStep& step);
    [[nodiscard]] const SurfacePlan* surfacePlan() const;

    JobDocument& document_;
    Figures figures_;
    QScrollArea* scroll_;
    QWidget* pace_; ///< shown where adhesive is spread
    EntryField* spread_;
    EntryField* close_;
    EffortBar* effort_;
    // What the list was built of: a tick alone leaves it standing.
    std::optional<SurfacePlan> built_;
    LengthUnit builtUnit_{};
    bool builtPractised_ = false;
    std::map<WorkGate, GateState> builtGates_;
    struct Tick {
        std::string key;
        QCheckBox* done;
        QPushButton* brokenOff; ///< begun and left
    };
    std::vector<Tick> ticks_;
};

} // namespace westrum
