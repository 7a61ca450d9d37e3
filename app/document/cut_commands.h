#pragma once

#include "app/document/commands.h"
#include "core/plan/product_cut.h"

namespace westrum {

/// What a person does about the cutting of one product, one undo step each. `what` is what the menu says.
Command changeCutList(JobDocument&, const QString& what, const std::string& product, CutList list);

/// Pieces without an id get one; all are added at the end.
Command addLoosePieces(JobDocument&, const std::string& product, std::vector<LoosePiece> pieces);
Command removeLoosePiece(JobDocument&, const std::string& product, const std::string& piece);
Command addStockEntry(JobDocument&, const std::string& product, StockEntry entry);
Command removeStockEntry(JobDocument&, const std::string& product, const std::string& entry);
/// Stock with an empty id is the product as it is sold.
Command useStock(JobDocument&, const std::string& product, const std::string& entry, bool use);

/// Pins a piece of an item where it lies, or lets it go.
Command pinPiece(JobDocument&, const ProductCut&, std::size_t item, std::size_t piece, bool pin);
/// Pins everything: the layout as it is stays, whatever else changes.
Command pinAll(JobDocument&, const ProductCut&);
/// Puts a piece elsewhere and pins it there. `to` is an item of the same cut; `at` the lower left of its bounds.
Command movePiece(JobDocument&, const ProductCut&, std::size_t item, std::size_t piece, std::size_t to, Point at,
                  double rotationRad);
/// Lets go all pins that are not being cut.
Command unpinAll(JobDocument&, const std::string& product);

/// Ticks a piece as cut, or takes the tick away. The first tick locks its item, the last one taken away frees it.
Command tickPiece(JobDocument&, const ProductCut&, std::size_t item, std::size_t piece, bool cut);
/// Ticks all pieces of an item, or none.
Command tickItem(JobDocument&, const ProductCut&, std::size_t item, bool cut);

/// Puts the leftovers worth keeping of a locked item on the rack.
Command leftoversToRack(JobDocument&, const ProductCut&, std::size_t item, const std::string& name);

} // namespace westrum
