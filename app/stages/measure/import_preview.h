#pragma once

#include <QDialog>

#include "app/document/commands.h"
#include "formats/outline_file.h"
#include "formats/words.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>

namespace westrum {

/// A drawing before it is taken in: what it holds, how large that is in the unit chosen, which ring is the outline.
class ImportPreview : public QDialog {
    Q_OBJECT
public:
    /// @param lost  what goes with the old outline, in words (lostWithOutline())
    ImportPreview(OutlineDrawing drawing, const Figures& figures, QWidget* parent = nullptr, const QString& lost = {});
    /// The outline chosen, in mm.
    [[nodiscard]] Ring outline() const;
    /// Rings that lie within it, in mm, as the drawing has them: openings.
    [[nodiscard]] std::vector<Ring> openings() const;
    [[nodiscard]] QString said() const { return words_->text(); }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    void refresh();
    [[nodiscard]] double scale() const;
    [[nodiscard]] const Ring& chosen() const;

    OutlineDrawing drawing_;
    Figures figures_;
    QString lost_;
    QComboBox* unit_;
    QComboBox* ring_;
    QLabel* words_;
    QPushButton* take_;
    QWidget* picture_;
};

/// Takes a ring in as the outline of a surface, and rings within it as openings, in place of the old one with all that
/// was cut out of it; one undo step.
Command takeOutlineIn(JobDocument& document, const std::string& surface, const Ring& outline,
                      const std::vector<Ring>& openings);
/// What a new outline takes away of the old one, in words; empty if nothing.
QString lostWithOutline(const Surface& before);

} // namespace westrum
