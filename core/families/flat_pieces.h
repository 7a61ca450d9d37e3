#pragma once

#include "core/catalogue/product.h"
#include "core/families/cut_pieces.h"
#include "core/families/layer_plan.h"

#include <string_view>

namespace westrum {

/// A piece of a set-out with all but its shape: key, name, surface, where it lies; weighed with its layer.
/// @param word  the family's own, begins its key
CutPiece wantedOf(std::string_view word, const std::string& surface, const std::string& layer, const Piece& piece);

/// Panels of sheets as the rectangles that hold them, lying as the sheet's grain wants it. For Family::pieces.
void addPanels(const Product& product, const std::string& surface, const std::string& layer, const LayerPlan& plan,
               WantedPieces& found);

/// Pieces off the roll as they are cut: turned so that the pile runs along the roll, their pattern meeting over the
/// seams. For Family::pieces.
void addLinings(const Product& product, const std::string& surface, const std::string& layer, const LayerPlan& plan,
                WantedPieces& found);

/// The layer's mass by its pieces as they are cut: all of them stays in the van. For Family::reckon.
void weighAsCut(const Product& product, LayerPlan& layer);

} // namespace westrum
