#pragma once

#include "core/catalogue/product.h"
#include "core/record/workshop.h"
#include "formats/words.h"

#include <QString>

#include <vector>

namespace westrum {

/// A label for each offcut, to be cut out and stuck on: number, sketch with its sizes, product, lot, where it stands,
/// and the day it was kept. A PDF on the paper chosen; an empty text, or why it could not be written.
QString printRackLabels(const QString& path, const std::vector<RackPiece>& rack, const Catalogue& catalogue,
                        const Figures& figures);

} // namespace westrum
