#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/widgets/entry_field.h"
#include "core/vanwork/today.h"
#include "formats/words.h"

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace westrum {

/// What can be done now: with who is here, for as long as there is time, in the weather that there is; what to lay out,
/// what is left for a wet day, and what to begin last.
class TodayView : public QWidget {
    Q_OBJECT
public:
    explicit TodayView(JobDocument& document, QWidget* parent = nullptr);
    void show(const Figures& figures);
    [[nodiscard]] QString sentence() const;
    /// As it is shown, for tests.
    [[nodiscard]] const TodayPlan& plan() const { return plan_; }

signals:
    void said(const QString& sentence, bool attention);

private:
    QString takePeople(const QString& typed);
    QString takeUntil(const QString& typed);
    QString takeInside(const QString& typed);
    void readThermometer();
    void rebuild();
    [[nodiscard]] QString titleOf(int item) const;
    void addWork(QVBoxLayout* column, std::size_t place);
    [[nodiscard]] QString layOut() const;

    JobDocument& document_;
    Figures figures_;
    QScrollArea* scroll_;
    EntryField *people_, *until_, *inside_;
    QPushButton *rain_, *read_;
    QLabel* climate_;
    // As the person says; nothing: by the calendar and the forecast. Of the day on which it was said.
    std::optional<int> peopleHere_, untilMinute_;
    std::optional<bool> wet_;
    std::optional<double> insideC_, humidity_;
    CivilDate saidOn_;
    int readings_ = 0;
    TodayIs today_;
    TodayPlan plan_;
};

} // namespace westrum
