#pragma once

#include "app/stages/buildup/catalogue_panel.h"
#include "app/stages/buildup/options_box.h"
#include "app/stages/buildup/section_bench.h"
#include "app/stages/stage_page.h"
#include "app/widgets/bound_form.h"

#include <QComboBox>
#include <QPushButton>

namespace westrum {

/// Build-up: what a surface is made of, layer by layer from the metal inwards, and the options kept for it.
class BuildUpPage : public StagePage {
    Q_OBJECT
public:
    BuildUpPage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);

    /// Whether the options in hand are still being worked out.
    [[nodiscard]] bool isWorkingOut() const { return options_->isWorkingOut(); }

protected:
    void refresh() override;

private:
    void refreshLayer();
    void refreshChoices();
    void addRule(const Field& field, int at);
    void buildHeadroom();
    void saySomething();

    OptionsBox* options_;
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
