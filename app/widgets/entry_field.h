#pragma once

#include <QLineEdit>

#include "core/measure/measurement.h"
#include "core/plan/job.h"

#include <functional>
#include <optional>

namespace westrum {

/// A field in which one figure is typed. While it is not edited it shows the figure as the job shows it; while it is,
/// what was typed. What cannot be understood stays in the field, with a red edge and a sentence saying why; Escape
/// brings the old figure back.
class EntryField : public QLineEdit {
    Q_OBJECT
public:
    /// Takes what was typed; returns an empty text if it was taken, else the sentence why not.
    using Commit = std::function<QString(const QString& typed)>;

    explicit EntryField(Commit commit, QWidget* parent = nullptr);

    /// @param shown  as the job shows it  @param typed  as it was typed (shown while editing)
    void setFigure(const QString& shown, const QString& typed);
    /// A letter that stands in the field before the figure, as on the drawing.
    void setLetter(const QString& letter);
    /// Marks the figure as one that must be wrong.
    void setSuspect(bool suspect);
    [[nodiscard]] bool isWrong() const { return wrong_; }
    [[nodiscard]] QString problem() const { return problem_; }

signals:
    /// A sentence, or nothing once the field is in order again.
    void problemChanged(const QString& sentence);

protected:
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    void finish();
    void setWrong(const QString& sentence);

    Commit commit_;
    QString shown_, typed_, letter_, problem_;
    bool wrong_ = false;
    bool suspect_ = false;
};

/// Parses a typed length in the job's unit; calls `take` with the reading (nothing if the field was emptied).
EntryField::Commit lengthCommit(std::function<LengthUnit()> bareUnit, std::function<void(std::optional<Reading>)> take);

} // namespace westrum
