#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/widgets/entry_field.h"
#include "formats/words.h"

#include <QLabel>
#include <QPushButton>

#include <optional>

namespace westrum {

/// What a kind of step takes: minutes, hands, warmth, weather, typed by a person in place of the usual figures, for all
/// steps of its kind in this job.
class EffortBar : public QWidget {
    Q_OBJECT
public:
    explicit EffortBar(JobDocument& document, QWidget* parent = nullptr);
    /// The step whose kind is changed; nothing: the bar is shut.
    void take(std::optional<FitStep> step, const Figures& figures);
    [[nodiscard]] bool isOpen() const { return step_.has_value(); }
    /// The step as the plan has it now.
    [[nodiscard]] const std::optional<FitStep>& step() const { return step_; }

signals:
    void problem(const QString& sentence);

private:
    EntryField* field(const char* id, const QString& name, EntryField::Commit commit);
    EntryField* figure(const char* id, const QString& name, double least, double most,
                       std::optional<double> OwnEffort::*member);
    EntryField* whole(const char* id, const QString& name, int least, int most, std::optional<int> OwnEffort::*member);
    QPushButton* flag(const char* id, const QString& text, std::optional<bool> OwnEffort::*member);
    [[nodiscard]] OwnEffort own() const;
    void put(const OwnEffort& own);
    void show();

    JobDocument& document_;
    Figures figures_;
    std::optional<FitStep> step_;
    QLabel *what_, *unit_;
    EntryField *once_, *each_, *hands_, *least_, *most_, *fumes_;
    QPushButton *dry_, *light_, *usual_, *shut_;
};

} // namespace westrum
