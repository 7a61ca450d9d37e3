#pragma once

#include "app/document/option_worker.h"
#include "app/stages/buildup/catalogue_panel.h"
#include "app/stages/buildup/section_bench.h"
#include "app/stages/stage_page.h"
#include "app/widgets/bound_form.h"

#include <QComboBox>
#include <QGridLayout>
#include <QPushButton>

#include <vector>

namespace westrum {

/// Build-up: what a surface is made of, layer by layer from the metal inwards, and the options kept for it.
class BuildUpPage : public StagePage {
    Q_OBJECT
public:
    BuildUpPage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);

    /// Whether the options in hand are still being worked out.
    [[nodiscard]] bool isWorkingOut() const { return foundFor_ != askedFor_ || foundWith_ != askedWith_; }

protected:
    void refresh() override;

private:
    void refreshOptions();
    void refreshLayer();
    void refreshChoices();
    void buildHeadroom();
    void saySomething();
    /// "+4.0 mm": what an option has more than the one chosen; empty if nothing.
    [[nodiscard]] QString differences(const OptionFigures& option, const OptionFigures& chosen) const;

    OptionWorker worker_;
    std::string askedFor_;
    std::shared_ptr<const Plan> askedWith_;
    std::string foundFor_;
    std::shared_ptr<const Plan> foundWith_; ///< the plan of the question that was answered last
    std::vector<OptionFigures> found_;

    QWidget* optionsBox_;
    QGridLayout* options_;
    SectionBench* bench_;
    BoundForm* layer_;
    BoundForm* headroom_;
    QComboBox* add_;
    QComboBox* copy_;
    QPushButton* catalogueButton_;
    CataloguePanel* catalogue_;
    std::string layerBuiltFor_; ///< surface, layer and product that the row shows
    std::string headroomBuiltFor_;
    QString problem_;
};

} // namespace westrum
