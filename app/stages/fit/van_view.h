#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/stages/fit/chance_curve.h"
#include "app/stages/fit/work_strip.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

namespace westrum {

/// Fit for the whole van: the strip of days, what is in hand of it, how sure the date is, and the ways out.
class VanView : public QWidget {
    Q_OBJECT
public:
    explicit VanView(JobDocument& document, QWidget* parent = nullptr);
    void show(const Figures& figures);
    [[nodiscard]] WorkStrip& strip() { return *strip_; }
    [[nodiscard]] ChanceCurve& curve() { return *curve_; }
    /// What the whole of it comes to, in a sentence or two.
    [[nodiscard]] QString sentence(bool& attention) const;

signals:
    void said(const QString& sentence, bool attention);
    /// Back to what the plan says.
    void settled();
    void stepsWanted(const std::string& surface);
    void saveCalendar();
    void saveList();
    void printWeekend();

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    void addZoom(QHBoxLayout* row);
    void showHand();
    void tickHand();
    void drag(int item, const CivilDate& day);
    void drop(int item, const CivilDate& day);
    [[nodiscard]] QString titleOf(int item) const;
    [[nodiscard]] const WorkItem* inHand() const;

    JobDocument& document_;
    Figures figures_;
    WorkStrip* strip_;
    ChanceCurve* curve_;
    QWidget* legend_;
    QLabel* hand_;
    QLabel* late_;
    std::string shownSurface_; ///< whose row was brought into sight last
    QPushButton *done_, *letMove_, *steps_;
};

} // namespace westrum
