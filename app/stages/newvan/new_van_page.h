#pragma once

#include <QWidget>

#include "app/document/workshop.h"
#include "app/widgets/entry_field.h"
#include "core/shell/new_van.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QPushButton>

namespace westrum {

/// A new job: a few figures of the body, and all its usual surfaces lie there as ghosts, to be measured. Nothing of the
/// open job is touched until one of the two buttons is pressed.
class NewVanPage : public QWidget {
    Q_OBJECT
public:
    NewVanPage(Workshop& workshop, char decimalMark, QWidget* parent = nullptr);
    /// @param canGoBack  whether there is an open job to return to
    void begin(LengthUnit unit, bool canGoBack);
    [[nodiscard]] const BodyFigures& figures() const { return figures_; }

signals:
    void laidOut(const westrum::Job& job);
    void goBack();

private:
    QLayout* figuresGrid();
    QLayout* buttonsRow();
    /// Bodies that were measured before.
    QWidget* bodiesRow();
    void fromEarlierBody();
    void refresh();
    void say(const QString& sentence, bool attention);
    [[nodiscard]] std::vector<Surface> surfaces() const;

    class Preview;
    Workshop& workshop_;
    char decimalMark_;
    QWidget* bodies_;
    QComboBox* body_;
    LengthUnit unit_ = LengthUnit::Millimetre;
    BodyFigures figures_;
    std::vector<EntryField*> fields_;
    QCheckBox* doorLeft_;
    QLabel* sentence_;
    Preview* preview_;
    QPushButton* back_;
};

} // namespace westrum
