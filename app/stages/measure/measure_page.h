#pragma once

#include "app/stages/measure/closure_strip.h"
#include "app/stages/measure/outline_bench.h"
#include "app/stages/stage_page.h"

#include <QComboBox>
#include <QGridLayout>

#include <functional>

namespace westrum {

/// Measure: the readings of the surface in hand, its cut-outs, and how well they close.
class MeasurePage : public StagePage {
    Q_OBJECT
public:
    MeasurePage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);

protected:
    void refresh() override;

private:
    /// One cut-out in the list under the drawing: its name, where it is, and a way to remove it.
    struct Chip {
        std::string name;
        QStringList places;
        int place = 0;
        std::function<void(const std::string&)> rename;
        std::function<void(int)> move;
        std::function<void()> remove;
    };
    void rebuildCutouts();
    [[nodiscard]] std::vector<Chip> chips();
    [[nodiscard]] QWidget* chipWidget(const Chip& chip);
    void addCutout(bool notch);

    QComboBox* form_;
    OutlineBench* bench_;
    ClosureStrip* closure_;
    QWidget* cutouts_;
    QGridLayout* cutoutGrid_;
    QString built_;
    QString problem_; ///< of a field being typed in: goes before all else
};

} // namespace westrum
