#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/widgets/entry_field.h"
#include "app/widgets/flow_row.h"
#include "formats/words.h"

#include <QLabel>
#include <QPushButton>

#include <vector>

namespace westrum {

/// A van that starts from an earlier body: the few readings to take again, and what they say of the surface in hand.
/// Hidden once nothing is left as it was measured before.
class BodyBar : public QWidget {
    Q_OBJECT
public:
    explicit BodyBar(JobDocument& document, QWidget* parent = nullptr);
    void refresh(const Figures& figures);

private:
    void build();
    [[nodiscard]] QString verdictText(const Surface& surface, const Figures& figures) const;

    JobDocument& document_;
    QLabel *words_, *verdict_;
    FlowRow* row_;
    QPushButton* measured_;
    std::vector<QWidget*> made_;
    std::vector<EntryField*> fields_;
    std::vector<QPushButton*> names_;
    std::vector<BodyCheck> shown_; ///< that the fields were made for, what was taken left out
    Figures figures_;
};

} // namespace westrum
