#include "core/plan/cut_problems.h"

#include "core/families/family.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <string_view>

namespace westrum {
namespace {

/// What is sawn out of the panels of a product serves pieces of the list.
void addCutouts(CutProblem& problem, const Job& job, const SurfaceStage& plan) {
    for (const Surface& surface : job.surfaces) {
        const SurfacePlan* planned = plan.surface(surface.id);
        if (!planned) continue;
        for (const LayerPlan& layer : planned->layers)
            for (std::size_t n = 0; n < layer.setOut.cutouts.size() && layer.product == problem.product.id; ++n) {
                const Cutout& c = layer.setOut.cutouts[n];
                CutStock offcut;
                offcut.id = std::string(kOffcutOf) + "cutout/" + surface.id + "/" + std::to_string(n);
                offcut.name = surface.name + ", " + layer.setOut.pieces[static_cast<std::size_t>(c.piece)].name.key();
                const bool turned = layer.setOut.grainAcross;
                offcut.lengthMm = (turned ? c.width : c.length).value;
                offcut.widthMm = (turned ? c.length : c.width).value;
                offcut.rack = true;
                offcut.count = 1;
                problem.stock.push_back(std::move(offcut));
            }
    }
}

/// Ticks and locks of planks: they lie where the set-out puts them.
void tickPlanks(CutProblem& problem) {
    std::vector<KeptItem> others;
    for (KeptItem& kept : problem.kept) {
        const auto same = std::find_if(problem.decided.begin(), problem.decided.end(), [&](const CutItem& item) {
            return !kept.pieces.empty() && item.pieces.size() == kept.pieces.size() &&
                   std::equal(item.pieces.begin(), item.pieces.end(), kept.pieces.begin(),
                              [&](const LyingPiece& l, const KeptPiece& k) {
                                  const Bounds a = boundsOf(l.shape), b = boundsOf(k.shape);
                                  return l.key == k.piece && std::abs(a.width() - b.width()) < 0.5 &&
                                         std::abs(a.height() - b.height()) < 0.5;
                              });
        });
        if (same == problem.decided.end()) {
            others.push_back(std::move(kept));
            continue;
        }
        same->locked = kept.locked;
        for (std::size_t i = 0; i < kept.pieces.size(); ++i) same->pieces[i].cut = kept.pieces[i].cut;
    }
    problem.kept = std::move(others);
}

void addLoose(CutProblem& problem, const CutList& list, bool bars, double stockWidth) {
    for (const LoosePiece& loose : list.pieces) {
        CutPiece piece;
        piece.name = loose.name;
        piece.surface = loose.surface;
        piece.mayTurn = loose.mayTurn;
        piece.together = loose.together;
        const bool incomplete = loose.shape.empty() && (!loose.length || (!bars && !loose.width));
        const double length = loose.length ? loose.length->length.value : 0;
        const double width = bars ? stockWidth : loose.width ? loose.width->length.value : 0;
        if (incomplete || (loose.shape.empty() && !(length > 0 && width > 0)) || loose.count < 0) {
            // A line that is just being typed: what it lacks is told, nothing is lost.
            problem.troubles.push_back(
                {loose.count < 0 ? CuttingFault::PieceCountNegative : CuttingFault::PieceNotPositive, loose.name,
                 "loose/" + loose.id});
            continue;
        }
        piece.shape = loose.shape.empty() ? Region{{rectangle(0, 0, length, width)}} : loose.shape;
        if (!loose.shape.empty() && problem.form != StockForm::Roll) {
            const Bounds b = boundsOf(loose.shape);
            piece.marks = outlineMarks(loose.shape); // sawn out as a rectangle, its outline is marked on it
            piece.shape = {{rectangle(b.low.x, b.low.y, b.width(), bars ? stockWidth : b.height())}};
        }
        piece.folds = loose.folds;
        piece.marks.insert(piece.marks.end(), loose.marks.begin(), loose.marks.end());
        toOrigin(piece);
        for (int n = 0; n < loose.count; ++n) {
            piece.key = "loose/" + loose.id + "/" + std::to_string(n + 1);
            if (loose.count > 1) piece.name = PieceName(loose.name + " " + std::to_string(n + 1));
            problem.pieces.push_back(piece);
        }
    }
}

void addStock(CutProblem& problem, const CutList& list) {
    const Product& product = problem.product;
    CutStock own;
    own.name = product.name;
    own.price = product.packPrice;
    switch (problem.form) {
    case StockForm::Lengths:
        own.lengthMm = barOf(product).length.value;
        own.widthMm = barOf(product).width.value;
        break;
    case StockForm::Sheets:
        own.lengthMm = sheetOf(product).length.value;
        own.widthMm = sheetOf(product).width.value;
        break;
    case StockForm::Roll: own.widthMm = rollOf(product).usable().value; break;
    }
    const int perPack = perPackOf(product);
    if (own.price) own.price->minor = (own.price->minor + perPack / 2) / perPack; // of one of a pack
    const double ownWidth = own.widthMm;
    if (list.useOwnStock) problem.stock.push_back(std::move(own));
    for (const StockEntry& entry : list.stock) {
        if (!entry.used) continue;
        CutStock stock;
        stock.id = entry.id;
        stock.name = entry.name;
        stock.rack = entry.rack;
        stock.price = entry.price;
        stock.count = entry.count ? entry.count : entry.rack ? std::optional(1) : std::nullopt;
        stock.shape = entry.shape;
        if (!entry.shape.empty() && problem.form != StockForm::Roll) {
            // A saw cuts right across: of an offcut of any shape it can use the largest rectangle.
            const LeftRectangle usable = largestRectangle(entry.shape, {0, 0});
            stock.shape = {};
            stock.lengthMm = usable.widthMm;
            stock.widthMm = usable.heightMm;
        } else if (!entry.shape.empty()) {
            const Bounds b = boundsOf(entry.shape);
            for (Ring& ring : stock.shape.rings)
                for (Point& p : ring) p = p - b.low;
            stock.lengthMm = b.width();
            stock.widthMm = b.height();
        } else {
            stock.lengthMm = entry.length ? entry.length->length.value : 0;
            stock.widthMm = entry.width ? entry.width->length.value : ownWidth;
        }
        if (!(stock.lengthMm > 0) || !(stock.widthMm > 0)) {
            problem.troubles.push_back({CuttingFault::StockNotPositive, entry.name, {}});
            continue;
        }
        problem.stock.push_back(std::move(stock));
    }
}

/// The panels of a box over a wheel arch.
void addBox(const ArchBox& box, std::vector<CutPiece>& pieces) {
    const auto parts = boxParts(box).parts;
    if (!parts) return;
    const auto put = [&](const char* key, PiecePart part, const std::string& surface, const Ring& shape) {
        CutPiece piece;
        piece.key = "box/" + box.id + "/" + key;
        piece.name = PieceName::of(part, 0);
        piece.surface = surface;
        const Bounds b = boundsOf(shape);
        piece.shape = {{rectangle(0, 0, b.width(), b.height())}};
        if (std::abs(signedArea(shape)) < b.width() * b.height() - 1) piece.marks = outlineMarks({{shape}});
        piece.mayTurn = true;
        pieces.push_back(std::move(piece));
    };
    put("top", PiecePart::BoxTop, box.top, rectangle(0, 0, parts->topLength, parts->topDepth));
    put("face", PiecePart::BoxFace, box.face, rectangle(0, 0, parts->faceLength, parts->faceHeight));
    // The wall's edge upright, the face's leaning to it.
    const Ring end{{0, 0}, {parts->endDepth, 0}, {parts->endDepthAbove, parts->endHeight}, {0, parts->endHeight}};
    put("rear", PiecePart::BoxRearEnd, box.rearEnd, end);
    put("front", PiecePart::BoxFrontEnd, box.frontEnd, end);
}

bool sound(const Product& product) {
    return checkFields(product.fields, fieldsOfFamily(product.family), "", {}).empty();
}

/// Products that something may have to be cut of.
std::set<std::string_view> wantedProducts(const Job& job, const SurfaceStage& plan) {
    std::set<std::string_view> wanted;
    for (const SurfacePlan& s : plan.surfaces)
        for (const LayerPlan& layer : s.layers) wanted.insert(layer.product);
    for (const TrimRun& run : plan.trims.runs) wanted.insert(run.product);
    for (const ArchBox& box : job.archBoxes) wanted.insert(box.product);
    for (const auto& [product, list] : job.cutLists)
        if (!list.pieces.empty() || !list.kept.empty()) wanted.insert(product);
    return wanted;
}

} // namespace

namespace {

/// Surfaces in an order of their own: how a job lists them must not change what the searches find.
std::vector<const SurfacePlan*> byId(const std::vector<SurfacePlan>& surfaces) {
    std::vector<const SurfacePlan*> all;
    for (const SurfacePlan& s : surfaces) all.push_back(&s);
    std::stable_sort(all.begin(), all.end(), [](const auto* a, const auto* b) { return a->surface < b->surface; });
    return all;
}

} // namespace

std::vector<CutProblem> cutProblems(const SurfaceStage& plan, const CuttingInput& input) {
    const Job& job = input.read;
    std::vector<CutProblem> problems;
    const std::set<std::string_view> wanted = wantedProducts(job, plan);
    for (const Product& product : job.catalogue.products) {
        const std::optional<StockForm> form = stockFormOf(product.family);
        if (!form || !wanted.contains(product.id)) continue;
        const CutList& list = job.cutList(product.id);
        CutProblem problem;
        problem.product = product;
        problem.form = *form;
        problem.seed = job.seed;
        problem.kept = list.kept;
        if (!sound(product)) {
            if (list.pieces.empty()) continue;
            problem.troubles.push_back({CuttingFault::StockNotPositive, product.name, {}});
            problems.push_back(std::move(problem));
            continue;
        }
        addStock(problem, list);
        const Family& family = *familyOf(product.family);
        WantedPieces found;
        for (const SurfacePlan* surface : byId(plan.surfaces))
            for (std::size_t i = 0; i < surface->layers.size() && family.pieces; ++i) {
                const SurfacePlan& planned = *surface;
                const LayerPlan& layer = planned.layers[i];
                if (layer.product != product.id || (family.setOut && !layer.setOut.laid())) continue;
                // Several layers of one surface keep their pieces apart by the layer's place.
                const std::string at = static_cast<int>(i) == planned.face ? std::string() : "@" + std::to_string(i);
                family.pieces(product, planned.surface, at, layer, found);
            }
        if (family.edgePieces) {
            family.edgePieces(product, plan.trims, found);
            std::stable_sort(found.pieces.begin(), found.pieces.end(),
                             [](const CutPiece& a, const CutPiece& b) { return a.key < b.key; });
        }
        if (*form == StockForm::Sheets)
            for (const ArchBox& box : job.archBoxes)
                if (box.product == product.id) addBox(box, found.pieces);
        problem.pieces = std::move(found.pieces);
        problem.decided = std::move(found.decided);
        problem.leastDecided = found.leastDecided;
        tickPlanks(problem);
        if (!list.pieces.empty()) // what the floor leaves of its planks serves first
            for (std::size_t i = 0; i < problem.decided.size(); ++i)
                for (std::size_t n = 0; n < problem.decided[i].left.size(); ++n) {
                    const LeftRectangle& left = problem.decided[i].left[n];
                    CutStock offcut;
                    offcut.id = offcutId(problem.decided[i], n);
                    offcut.name = problem.decided[i].name;
                    offcut.lengthMm = left.widthMm;
                    offcut.widthMm = left.heightMm;
                    offcut.rack = true;
                    offcut.count = 1;
                    problem.stock.push_back(std::move(offcut));
                }
        if (!list.pieces.empty() && *form == StockForm::Sheets) addCutouts(problem, job, plan);
        addLoose(problem, list, *form == StockForm::Lengths, barOf(product).width.value);
        if (problem.pieces.empty() && problem.troubles.empty() && problem.kept.empty()) continue;
        problems.push_back(std::move(problem));
    }
    return problems;
}

std::vector<CutProblem> cutProblems(const Job& job, const SurfaceStage& surfaces) {
    return cutProblems(surfaces, cuttingInput(job));
}

} // namespace westrum
