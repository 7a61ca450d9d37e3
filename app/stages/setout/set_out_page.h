#pragma once

#include "app/stages/setout/set_out_bench.h"
#include "app/stages/setout/start_strip.h"
#include "app/stages/stage_page.h"
#include "app/widgets/field_form.h"
#include "app/widgets/product_panel.h"

#include <QPushButton>

namespace westrum {

/// Set out: the finish as it will lie, its start line, and the rules by which it is laid.
class SetOutPage : public StagePage {
    Q_OBJECT
public:
    SetOutPage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);

protected:
    void refresh() override;

private:
    void moveStart(Mm offset, int gesture);
    void saySuggestion();
    void takeSuggestion();

    QPushButton* doIt_;
    QPushButton* next_; ///< another suggestion, if there is one
    std::size_t suggestion_ = 0;
    ProductPanel* planks_;
    ProductPanel* underlay_;
    ProductPanel* trim_;
    FieldForm* rules_;
    SetOutBench* bench_;
    StartStrip* strip_;
    QString problem_;
};

} // namespace westrum
