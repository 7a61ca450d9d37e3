#pragma once

#include "app/shellmap/shell_map.h"
#include "app/stages/log/entries_view.h"
#include "app/stages/log/learned_view.h"
#include "app/stages/log/rack_view.h"
#include "app/stages/log/took_view.h"
#include "app/stages/stage_page.h"
#include "app/widgets/entry_field.h"

#include <QPlainTextEdit>
#include <QPushButton>
#include <QStackedWidget>

#include <array>

#include <functional>
#include <vector>

namespace westrum {

/// Log: what happened, what it teaches, and what a surface really took beside what was planned.
class LogPage : public StagePage {
    Q_OBJECT
public:
    enum View { Entries, Learned, Rack, Took, Surface };
    LogPage(JobDocument& document, Workshop& workshop, char decimalMark, QWidget* parent = nullptr);
    void showView(View view);
    [[nodiscard]] EntriesView& entries() { return *entries_; }
    [[nodiscard]] LearnedView& learned() { return *learned_; }
    [[nodiscard]] RackView& rack() { return *rack_; }
    [[nodiscard]] TookView& took() { return *took_; }

signals:
    /// How far each surface is, by its steps.
    void shaded(const std::vector<westrum::ShellMap::Shade>& shades);

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

    void addFigures(QVBoxLayout* figuresColumn);
    void addTabs();
    void refreshSurface();
    void shadeMap();
    std::array<QPushButton*, 5> tabs_{};
    QStackedWidget* views_;
    EntriesView* entries_;
    LearnedView* learned_;
    RackView* rack_;
    TookView* took_;
    Workshop& workshop_;
    Line opened_, spoilt_, leftOver_, hours_, paid_;
    QPlainTextEdit* note_;
};

} // namespace westrum
