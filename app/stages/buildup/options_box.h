#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/document/option_worker.h"
#include "formats/words.h"

#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

#include <utility>
#include <vector>

namespace westrum {

/// The options kept for a surface side by side: one is chosen, the others say what differs from it. Their figures come
/// from a thread of their own; while they do, what is pressed or typed here stays where it is.
class OptionsBox : public QWidget {
    Q_OBJECT
public:
    OptionsBox(JobDocument& document, char decimalMark, QWidget* parent = nullptr);

    /// Shows the options of the surface in hand, and asks for their figures where they may have changed.
    void refresh();
    /// Whether the figures are still being worked out.
    [[nodiscard]] bool isWorkingOut() const { return working_; }

private:
    struct Row {
        QPushButton* pick;
        QLabel* itself;
        QLabel* against;
        QLabel* rest;
    };
    void write();
    Row makeRow(int k);
    void rename();
    /// "+4.0 mm": what an option has more than the one chosen.
    [[nodiscard]] static QString differences(const Figures& f, const OptionFigures& option,
                                             const OptionFigures& chosen);

    JobDocument& document_;
    char decimalMark_;
    OptionWorker worker_;
    std::string askedFor_;
    bool working_ = false; ///< the figures there are of the job as it was
    std::string foundFor_;
    std::vector<OptionFigures> found_;

    QGridLayout* grid_;
    std::vector<Row> rows_;
    QLineEdit* name_;
    std::pair<std::string, int> nameOf_; ///< surface and option that the field names
    QPushButton* remove_;
};

} // namespace westrum
