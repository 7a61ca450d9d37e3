#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/widgets/flow_row.h"
#include "formats/words.h"

#include <QAbstractButton>

namespace westrum {

/// Where the readings leave the outline in doubt: each explanation is a button that shows the outline as it would be,
/// and the reading that decides between them is a press away.
class DoubtBar : public QWidget {
    Q_OBJECT
public:
    explicit DoubtBar(JobDocument& document, QWidget* parent = nullptr);
    /// Shows what the surface in hand leaves open; hidden where nothing is.
    void refresh(const MeasuredOutline& measured, const Figures& figures);
    /// The outline that is being looked at instead; empty: the one that stands.
    [[nodiscard]] const Ring& shown() const { return shown_; }
    [[nodiscard]] const QString& shownWords() const { return words_; }

signals:
    /// Another outline is looked at, or none any more.
    void lookedAt();
    /// This reading is to be taken: its field takes the keys.
    void takeWanted(const QString& key);

private:
    QAbstractButton* add(const QString& text, const QString& name, bool checkable);
    void addSuspects(const SlipReport& slip, const Figures& figures);
    void look(const Ring& instead, const QString& words, QAbstractButton* by);

    JobDocument& document_;
    FlowRow* row_;
    QList<QAbstractButton*> buttons_;
    std::string surface_;
    std::optional<SlipReport> slip_; ///< what the buttons are for
    std::vector<Point> otherwise_;
    Ring shown_;
    QString words_;
};

} // namespace westrum
