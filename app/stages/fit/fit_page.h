#pragma once

#include "app/stages/fit/surface_steps.h"
#include "app/stages/fit/today_view.h"
#include "app/stages/fit/van_view.h"
#include "app/stages/fit/work_setup.h"
#include "app/stages/stage_page.h"

#include <QPushButton>
#include <QStackedWidget>

#include <array>

namespace westrum {

/// Fit: the work in time for the whole van, what can be done today, the steps of the surface in hand, and the days and
/// rules that all of it follows.
class FitPage : public StagePage {
    Q_OBJECT
public:
    enum View { WholeVan, Today, ThisSurface, DaysAndRules };
    FitPage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    void showView(View view);
    [[nodiscard]] VanView& van() { return *van_; }
    [[nodiscard]] TodayView& today() { return *today_; }

protected:
    void refresh() override;

private:
    void sayAll();
    void saveWork(bool calendar);
    void printAhead();

    std::array<QPushButton*, 4> tabs_{};
    QPushButton* rules_;
    QStackedWidget* views_;
    VanView* van_;
    TodayView* today_;
    SurfaceSteps* steps_;
    WorkSetup* setup_;
};

} // namespace westrum
