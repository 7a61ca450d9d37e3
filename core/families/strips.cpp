#include "core/families/strips.h"

namespace westrum {

bool lapTooWide(const Product& product, Mm lap, Mm width, std::vector<Remark>& remarks) {
    if (lap < width) return false; // one as wide as its roll would never end
    remarks.push_back({Severity::Error,
                       {"", Part::Product},
                       RemarkKind::FieldOutOfRange,
                       {{"product", product.name},
                        {"field", std::string("lap between strips")},
                        {"value", lap},
                        {"least", Mm{0}},
                        {"most", width}},
                       {}});
    return true;
}

void reckonStrips(const Product& product, const Underlay& roll, LayerPlan& layer) {
    layer.area = layer.take.area;
    layer.mass = layer.take.strips.laidMass;
    layer.purchase = buyStrips(product, roll, layer.take.strips);
}

} // namespace westrum
