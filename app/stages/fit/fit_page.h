#pragma once

#include "app/stages/stage_page.h"
#include "app/widgets/entry_field.h"

#include <QCheckBox>
#include <QScrollArea>

#include <vector>

namespace westrum {

/// Fit: the ordered steps for the surface in hand, each with its pieces and its caution, ticked as they are done.
class FitPage : public StagePage {
    Q_OBJECT
public:
    FitPage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);

protected:
    void refresh() override;

private:
    /// Both speeds, one of them as typed; a sentence if it is none.
    QString takePace(const QString& typed, bool spread);
    void rebuild(const SurfacePlan& plan);
    QScrollArea* scroll_;
    QWidget* pace_; ///< shown where adhesive is spread
    EntryField* spread_;
    EntryField* close_;
    std::vector<FitStep> built_;
    const void* builtFor_ = nullptr;
    std::vector<std::pair<std::string, QCheckBox*>> ticks_;
};

} // namespace westrum
