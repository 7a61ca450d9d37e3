#pragma once

#include <QWidget>

#include "app/document/workshop.h"
#include "app/stages/log/day_strip.h"
#include "app/stages/log/photograph_pane.h"
#include "core/record/record.h"
#include "formats/words.h"

#include <QAbstractTableModel>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableView>

#include <optional>
#include <string>
#include <vector>

namespace westrum {

/// The record as rows of day, time and what happened, day by day, the newest first; texts are made as they come into
/// sight.
class EntryModel : public QAbstractTableModel {
    Q_OBJECT
public:
    using QAbstractTableModel::QAbstractTableModel;
    void show(const Job& job, std::shared_ptr<const Plan> plan, const Figures& figures,
              const std::optional<std::string>& surface, std::optional<EntryKind> kind);
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : 3; }
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] const RecordEntry* entry(int row) const;

private:
    Job job_; ///< names and the record
    std::shared_ptr<const Plan> plan_;
    Figures figures_;
    std::vector<std::size_t> shown_; ///< places in the record, newest first
};

/// What happened: the list, filtered by what is in hand, and a line to write more.
class EntriesView : public QWidget {
    Q_OBJECT
public:
    EntriesView(JobDocument& document, Workshop& workshop, QWidget* parent = nullptr);
    void show(const Figures& figures);
    [[nodiscard]] EntryModel& model() { return *model_; }
    [[nodiscard]] QTableView& list() { return *list_; }
    [[nodiscard]] PhotographPane& photograph() { return *photograph_; }
    /// Writes a photograph down by its path, relative to the job's file where there is one.
    void writePhotograph(const QString& path);

signals:
    void said(const QString& sentence, bool attention);

private:
    void write();
    void strike();
    void showForm();
    /// Whether a difference is of a piece rather than of a reading.
    [[nodiscard]] bool ofPiece() const;
    void showInHand();
    void takeInHand(std::int64_t id);
    /// A difference goes into the reading that it names.
    void takeDifference();
    void sayWhatFollows(const RecordEntry& entry);
    [[nodiscard]] QString refusal(RecordEntry& entry) const;

    JobDocument& document_;
    Workshop& workshop_;
    Figures figures_;
    EntryModel* model_;
    QTableView* list_;
    QPushButton *here_, *strike_, *write_, *choose_, *lay_, *take_;
    QComboBox *filter_, *kind_, *product_, *reason_, *reading_;
    std::string formFor_; ///< the surface that the form was made ready for
    DayStrip* strip_;
    PhotographPane* photograph_;
    QLineEdit *amount_, *text_;
    QLabel* amountName_;
};

} // namespace westrum
