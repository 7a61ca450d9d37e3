#pragma once

#include "app/stages/stage_page.h"
#include "app/widgets/entry_field.h"

#include <QPlainTextEdit>

#include <functional>
#include <vector>

namespace westrum {

/// Log: what it really took, beside what was planned.
class LogPage : public StagePage {
    Q_OBJECT
public:
    LogPage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);

protected:
    void refresh() override;

private:
    void nameUnits(CountedAs counted);
    void sayWhatTheyMake(const FitLog& log, const Purchase* bought);
    struct Line {
        EntryField* entry;
        QLabel* planned;
        QLabel* verdict;
        QLabel* name = nullptr;
    };
    /// Adds a line; `take` parses into the log and returns why not.
    Line addLine(class QGridLayout* grid, const QString& name, const QString& objectName,
                 std::function<QString(const QString&, FitLog&)> take);

    Line opened_, spoilt_, leftOver_, hours_, paid_;
    QPlainTextEdit* note_;
};

} // namespace westrum
