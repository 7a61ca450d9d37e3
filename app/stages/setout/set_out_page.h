#pragma once

#include "app/stages/setout/base_view.h"
#include "app/stages/setout/cushion_picture.h"
#include "app/stages/setout/edge_view.h"
#include "app/stages/setout/roll_strip.h"
#include "app/stages/setout/set_out_bench.h"
#include "app/stages/setout/start_strip.h"
#include "app/stages/stage_page.h"
#include "app/widgets/field_form.h"
#include "app/widgets/product_panel.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>

namespace westrum {

/// Set out: a layer as it will lie, what can be moved by hand, the rules by which it is laid, and better ways.
class SetOutPage : public StagePage {
    Q_OBJECT
public:
    SetOutPage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    /// Crossings of battens and ribs may be read by it.
    void setMeter(LaserMeter& meter) { base_->setMeter(meter); }

protected:
    void refresh() override;

private:
    [[nodiscard]] const Layer* layer() const;
    [[nodiscard]] const LayerPlan* layerPlan() const;
    [[nodiscard]] const Product* product() const;
    void moveStart(Mm offset, int gesture);
    void moveLamp(int opening, Point centre);
    void lampsOntoRows();
    void saySuggestion();
    void takeSuggestion();
    [[nodiscard]] QString headingDetail(const Figures& f) const;
    void refreshBaseSentence(const SurfacePlan& whole, const Figures& f);
    void refreshSentence(const SurfacePlan* whole, const Figures& f);
    void refreshLists();
    void refreshForms();
    /// What a good fitter weighs, in one line.
    [[nodiscard]] QString figuresText(const LayerPlan& plan) const;

    std::optional<Remark> settles_; ///< the error said, where one press settles it
    QPushButton* doIt_;
    QPushButton* next_; ///< another suggestion, if there is one
    std::size_t suggestion_ = 0;
    QComboBox* finish_;            ///< products of all families that can be set out
    QComboBox* layers_;            ///< which of the surface's layers is in hand
    QComboBox* trim_;              ///< what closes the edges
    ProductPanel* sold_ = nullptr; ///< the fields of the product in hand
    FieldForm* fixes_ = nullptr;   ///< how it is held
    FieldForm* rules_ = nullptr;
    std::string soldFamily_, rulesFamily_;
    QPushButton* editProduct_;
    QPushButton* editRules_;
    QPushButton* lamps_;
    QPushButton* freeJoints_;
    QPushButton* relief_;
    QVBoxLayout* forms_;
    SetOutBench* bench_;
    CushionPicture* cushion_;
    EdgeView* edges_;
    QPushButton* showEdges_;
    BaseView* base_;
    QPushButton* showBase_;
    QLabel* figures_;
    StartStrip* strip_;
    RollStrip* roll_;
    double progress_ = 0; ///< of the search for better ways
    QString problem_;
};

} // namespace westrum
