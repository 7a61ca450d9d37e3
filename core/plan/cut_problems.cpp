#include "core/plan/cut_problems.h"

#include "core/catalogue/family.h"
#include "core/catalogue/plank.h"
#include "core/geometry/boolean.h"
#include "core/plan/balance.h"
#include "core/plan/cost_sharing.h"
#include "core/plan/offers.h"
#include "core/setout/plank_floor.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <string_view>

namespace westrum {
namespace {

/// A region, or lines, moved so that the region's bounds start at 0, 0.
void toOrigin(CutPiece& piece) {
    if (piece.shape.empty()) return;
    const Point low = boundsOf(piece.shape).low;
    const auto move = [&](std::vector<Ring>& rings) {
        for (Ring& ring : rings)
            for (Point& p : ring) p = p - low;
    };
    move(piece.shape.rings);
    move(piece.folds);
    move(piece.marks);
}

/// The planks of one set-out as bars with their pieces where they are cut.
void addPlanks(CutProblem& problem, const std::string& surface, const std::string& layer, const SetOut& setOut,
               Mm kerf) {
    const Plank plank = plankOf(problem.product);
    const double width = plank.width.value;
    for (std::size_t u = 0; u < setOut.stock.size(); ++u) {
        const StockUnit& unit = setOut.stock[u];
        CutItem item;
        item.name = std::to_string(u + 1);
        item.lengthMm = plank.length.value;
        item.widthMm = width;
        item.decided = true;
        item.kerfMm = kerf.value;
        double fromLeft[2] = {0, 0}; // of the near and of the far strip
        for (const int id : unit.pieces) {
            const Piece& piece = setOut.pieces[std::size_t(id)];
            const bool far = piece.factory.far && !piece.factory.near;
            double& used = fromLeft[unit.rippedInTwo && far ? 1 : 0];
            const bool right = piece.kind == PieceKind::First;
            const double x = right ? plank.length.value - piece.length.value : used;
            if (!right) used += piece.length.value + kerf.value;
            const double y = far ? width - piece.width.value : 0;
            CutPiece wanted;
            wanted.key = "plank/" + surface + layer + "/" + piece.name;
            wanted.name = piece.name;
            wanted.surface = surface;
            wanted.shape = {{rectangle(0, 0, piece.length.value, piece.width.value)}};
            wanted.place = piece.shape;
            LyingPiece lies;
            lies.piece = int(problem.pieces.size());
            lies.key = wanted.key;
            lies.name = wanted.name;
            lies.at = {x, y};
            lies.shape = {{rectangle(x, y, piece.length.value, piece.width.value)}};
            item.pieces.push_back(std::move(lies));
            problem.pieces.push_back(std::move(wanted));
        }
        for (const Cut& cut : unit.cuts) {
            if (cut.kind == CutKind::Cross)
                item.order.push_back({CutStep::Kind::Across, cut.at.value, 0, width, cut.at.value, {}});
            else if (cut.kind == CutKind::Rip)
                item.order.push_back({CutStep::Kind::Along, cut.at.value, 0, plank.length.value, cut.at.value, {}});
        }
        for (std::size_t i = 0; i < unit.pieces.size(); ++i) {
            const Piece& piece = setOut.pieces[std::size_t(unit.pieces[i])];
            const Bounds b = boundsOf(item.pieces[i].shape);
            // The line is drawn on the near side of the cut: of a piece at the right-hand end, a kerf before it.
            const bool right = piece.kind == PieceKind::First;
            for (CutStep& step : item.order) {
                if (step.kind != CutStep::Kind::Across) continue;
                if (right && std::abs(step.atMm - b.low.x) < 0.01) step.atMm = step.partAtMm = b.low.x - kerf.value;
                if (std::abs(step.atMm - (right ? b.low.x - kerf.value : b.high.x)) < 0.01)
                    step.frees.push_back(int(i));
            }
            if (piece.notched)
                item.order.push_back({CutStep::Kind::ByOutline, b.low.y, b.low.x, b.high.x, b.low.y, {int(i)}});
        }
        for (const Offcut& offcut : unit.offcuts) {
            if (offcut.ripped || offcut.length.value < keepRuleOf(StockForm::Lengths).leastLengthMm) continue;
            // A plank's rest lies between what was cut from its left end and from its right.
            const double x = fromLeft[0] > 0 || fromLeft[1] == 0 ? fromLeft[0] : fromLeft[1];
            item.left.push_back({x, 0, offcut.length.value, offcut.width.value});
        }
        problem.decided.push_back(std::move(item));
    }
    problem.leastDecided += setOut.leastStock;
}

/// Lines of a shape, each closed, to be marked on the rectangle that a saw cuts.
std::vector<Ring> outlineMarks(const Region& shape) {
    std::vector<Ring> marks = shape.rings;
    for (Ring& ring : marks)
        if (!ring.empty()) ring.push_back(ring.front());
    return marks;
}

/// Boards as bars of their lengths; rips and notches are marked on them.
void addBoards(CutProblem& problem, const std::string& surface, const std::string& layer, const SetOut& setOut) {
    const double width = barOf(problem.product).width.value;
    for (const Piece& piece : setOut.pieces) {
        CutPiece wanted;
        wanted.key = "board/" + surface + layer + "/" + piece.name;
        wanted.name = piece.name;
        wanted.surface = surface;
        wanted.shape = {{rectangle(0, 0, piece.length.value, width)}};
        wanted.place = piece.shape;
        if (piece.ripAtStart.value > 0 && std::min(piece.ripAtStart, piece.ripAtEnd).value < width - 1e-3)
            wanted.marks.push_back({{0, piece.ripAtStart.value}, {piece.length.value, piece.ripAtEnd.value}});
        problem.pieces.push_back(std::move(wanted));
    }
}

/// Panels as the rectangles that hold them, lying as the sheet's grain wants it.
void addPanels(CutProblem& problem, const std::string& surface, const std::string& layer, const SetOut& setOut) {
    for (const Piece& piece : setOut.pieces) {
        CutPiece wanted;
        wanted.key = "panel/" + surface + layer + "/" + piece.name;
        wanted.name = piece.name;
        wanted.surface = surface;
        const Region& own = piece.cut.empty() ? piece.shape : piece.cut;
        const Region lying = setOut.grainAcross ? transposed(own) : own;
        const Bounds b = boundsOf(lying);
        wanted.shape = {{rectangle(b.low.x, b.low.y, b.width(), b.height())}};
        if (piece.notched) wanted.marks = outlineMarks(lying);
        toOrigin(wanted);
        wanted.place = piece.shape;
        wanted.mayTurn = !sheetOf(problem.product).grain;
        problem.pieces.push_back(std::move(wanted));
    }
}

/// What is sawn out of the panels of a product serves pieces of the list.
void addCutouts(CutProblem& problem, const Job& job, const Plan& plan) {
    for (const Surface& surface : job.surfaces) {
        const SurfacePlan* planned = plan.surface(surface.id);
        if (!planned) continue;
        for (const LayerPlan& layer : planned->layers)
            for (std::size_t n = 0; n < layer.setOut.cutouts.size() && layer.product == problem.product.id; ++n) {
                const Cutout& c = layer.setOut.cutouts[n];
                CutStock offcut;
                offcut.id = std::string(kOffcutOf) + "cutout/" + surface.id + "/" + std::to_string(n);
                offcut.name = surface.name + ", " + layer.setOut.pieces[static_cast<std::size_t>(c.piece)].name;
                const bool turned = layer.setOut.grainAcross;
                offcut.lengthMm = (turned ? c.width : c.length).value;
                offcut.widthMm = (turned ? c.length : c.width).value;
                offcut.rack = true;
                offcut.count = 1;
                problem.stock.push_back(std::move(offcut));
            }
    }
}

/// Linings as they are cut: turned so that the pile runs along the roll, their pattern meeting over the seams.
void addLinings(CutProblem& problem, const std::string& surface, const std::string& layer, const SetOut& setOut) {
    const RollGoods roll = rollOf(problem.product);
    const Point usual = setOut.pile.value_or(Point{1, 0});
    const auto past = [](double from, double repeat) {
        return repeat > 0 ? from - std::floor(from / repeat) * repeat : 0.0;
    };
    for (const Piece& piece : setOut.pieces) {
        const Point pile = piece.pile.value_or(usual);
        const double turn = -std::atan2(pile.y, pile.x);
        const auto lying = [&](const std::vector<Ring>& lines) {
            std::vector<Ring> all;
            for (const Ring& line : lines) all.push_back(turned(line, turn));
            return all;
        };
        const Point pattern = turned(Ring{setOut.patternAt}, turn).front();
        CutPiece wanted;
        wanted.offPattern = piece.offPattern;
        wanted.key = "lining/" + surface + layer + "/" + piece.name;
        wanted.name = piece.name;
        wanted.surface = surface;
        wanted.shape = turned(piece.cut, turn);
        wanted.folds = lying(piece.folds);
        wanted.marks = lying(piece.marks);
        for (Ring& snip : lying(piece.snips)) wanted.marks.push_back(std::move(snip));
        const Point low = boundsOf(wanted.shape).low;
        wanted.patternAt = {past(low.x - pattern.x, roll.repeatAlong.value),
                            past(low.y - pattern.y, roll.repeatAcross.value)};
        // A surface in one piece may have its pattern where the roll has it.
        if (wanted.patternAt.y + boundsOf(wanted.shape).height() > roll.usable().value) wanted.patternAt.y = 0;
        toOrigin(wanted);
        wanted.place = piece.shape;
        wanted.mayTurn = piece.offPattern && roll.turning != RollTurning::OneWay;
        problem.pieces.push_back(std::move(wanted));
    }
}

void addBattens(CutProblem& problem, const std::string& surface, const LayerTakeoff& take) {
    const TrimLength bar = barOf(problem.product);
    const double most = (bar.length - bar.endTrim * 2).value;
    int number = 0;
    for (const Mm length : take.lengths) {
        ++number;
        const int parts = std::max(1, int(std::ceil(length.value / std::max(1.0, most) - 1e-9)));
        for (int n = 0; n < parts; ++n) {
            CutPiece wanted;
            wanted.key = "batten/" + surface + "/" + std::to_string(number) + "/" + std::to_string(n + 1);
            wanted.name =
                "batten " + std::to_string(number) + (parts > 1 ? "." + std::to_string(n + 1) : std::string());
            wanted.surface = surface;
            wanted.shape = {{rectangle(0, 0, length.value / parts, bar.width.value)}};
            problem.pieces.push_back(std::move(wanted));
        }
    }
}

/// The pieces of all runs of a trim.
void addTrims(CutProblem& problem, const TrimPlan& trims) {
    const TrimLength trim = trimOf(problem.product);
    for (const TrimRun& run : trims.runs) {
        if (run.product != problem.product.id || run.profile == Profile::SealantBead) continue;
        for (const TrimPiece& piece : run.pieces) {
            CutPiece wanted;
            wanted.key = "trim/" + run.surface + "/" + piece.name;
            wanted.name = piece.name;
            wanted.surface = run.surface;
            wanted.shape = {{rectangle(0, 0, piece.length.value, trim.width.value)}};
            wanted.place = stripAlong(piece.path, std::max(4.0, trim.width.value));
            // Where the saw leans the cut across the face, a line on it shows which way.
            const auto slant = [&](const TrimJoint& j, bool atEnd) {
                if (j.end == TrimEnd::Square || j.saw.mitreRad < 1e-4) return;
                const double slope = std::min(piece.length.value / 2, trim.width.value * std::tan(j.saw.mitreRad));
                const double x = atEnd ? piece.length.value : 0, inwards = atEnd ? -slope : slope;
                const bool lower = j.saw.longEdge == LongEdge::Top || (j.saw.longEdge == LongEdge::Equal && !j.inside);
                wanted.marks.push_back(lower ? Ring{{x + inwards, 0}, {x, trim.width.value}}
                                             : Ring{{x, 0}, {x + inwards, trim.width.value}});
            };
            slant(piece.start, false);
            slant(piece.end, true);
            problem.pieces.push_back(std::move(wanted));
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
            if (loose.count > 1) piece.name = loose.name + " " + std::to_string(n + 1);
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
        if (product.family == "planks") {
            const Plank plank = plankOf(product);
            own.lengthMm = plank.length.value;
            own.widthMm = plank.width.value;
            if (own.price && plank.perPack > 0)
                own.price->minor = (own.price->minor + plank.perPack / 2) / plank.perPack;
        } else {
            own.lengthMm = barOf(product).length.value;
            own.widthMm = barOf(product).width.value;
        }
        break;
    case StockForm::Sheets:
        own.lengthMm = sheetOf(product).length.value;
        own.widthMm = sheetOf(product).width.value;
        break;
    case StockForm::Roll: own.widthMm = rollOf(product).usable().value; break;
    }
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

bool sound(const Product& product) {
    return checkFields(product.fields, fieldsOfFamily(product.family), "", {}).empty();
}

} // namespace

namespace {

/// Products that something may have to be cut of.
std::set<std::string_view> wantedProducts(const Job& job, const Plan& plan) {
    std::set<std::string_view> wanted;
    for (const SurfacePlan& s : plan.surfaces)
        for (const LayerPlan& layer : s.layers) wanted.insert(layer.product);
    for (const TrimRun& run : plan.trims.runs) wanted.insert(run.product);
    for (const auto& [product, list] : job.cutLists)
        if (!list.pieces.empty() || !list.kept.empty()) wanted.insert(product);
    return wanted;
}

} // namespace

std::vector<CutProblem> cutProblems(const Job& job, const Plan& plan) {
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
        // A trim gains at most two mitres; what is squared off at the ends is lost to it.
        const double ownWidth = product.family == "planks" ? plankOf(product).width.value : barOf(product).width.value;
        for (const Surface& surface : job.surfaces) {
            const SurfacePlan* planned = plan.surface(surface.id);
            if (!planned) continue;
            for (std::size_t i = 0; i < planned->layers.size(); ++i) {
                const LayerPlan& layer = planned->layers[i];
                if (layer.product != product.id) continue;
                if (product.family == "battens") addBattens(problem, surface.id, layer.take);
                if (!layer.setOut.laid()) continue;
                // Several layers of one surface keep their pieces apart by the layer's place.
                const std::string at = static_cast<int>(i) == planned->face ? std::string() : "@" + std::to_string(i);
                if (product.family == "planks")
                    addPlanks(problem, surface.id, at, layer.setOut, plankRulesOf(layer.rules).kerf);
                else if (product.family == "boards")
                    addBoards(problem, surface.id, at, layer.setOut);
                else if (*form == StockForm::Sheets)
                    addPanels(problem, surface.id, at, layer.setOut);
                else if (*form == StockForm::Roll)
                    addLinings(problem, surface.id, at, layer.setOut);
            }
        }
        if (product.family == "trim") addTrims(problem, plan.trims);
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
        addLoose(problem, list, *form == StockForm::Lengths, ownWidth);
        if (problem.pieces.empty() && problem.troubles.empty() && problem.kept.empty()) continue;
        problems.push_back(std::move(problem));
    }
    return problems;
}

Plan withCuts(Plan plan, const Job& job, const std::vector<ProductCut>& cuts) {
    for (const ProductCut& cut : cuts) {
        const Product* product = job.catalogue.find(cut.product);
        if (!product) continue;
        std::map<std::string, Purchase> bySize; // by id of the stock
        double mass = 0, used = 0, besides = 0; // besides: what no layer weighs already, in mm2 or mm of bars
        for (const SurfacePlan& surface : plan.surfaces)
            for (const LayerPlan& layer : surface.layers)
                if (layer.product == product->id && !layer.purchase && layer.setOut.laid()) mass += layer.mass.value;
        const TrimLength bar = barOf(*product);
        for (const CutItem& item : cut.items) {
            for (const LyingPiece& l : item.pieces) {
                if (item.decided) continue;
                used += areaMm2(l.shape);
                if (!l.key.starts_with("board/") && !l.key.starts_with("panel/") && !l.key.starts_with("lining/"))
                    besides += bar.length.value > 0 ? boundsOf(l.shape).width() : areaMm2(l.shape);
            }
            if (item.rack || item.decided) continue;
            Purchase& p = bySize[item.stock];
            p.product = product->id;
            p.size = item.stock.empty() ? std::string() : item.name;
            p.family = product->family;
            p.unitsPerPack = product->family == "planks" ? plankOf(*product).perPack : 1;
            for (const LeftRectangle& left : item.left) {
                ++p.offcuts;
                if (left.widthMm * left.heightMm <= areaOf(p.offcutLength, p.offcutWidth).value * 1e6) continue;
                p.offcutLength = {left.widthMm};
                p.offcutWidth = {left.heightMm};
            }
            ++p.unitsNeeded;
            p.packs = (p.unitsNeeded + p.unitsPerPack - 1) / p.unitsPerPack;
            p.packPrice = product->family == "planks" ? product->packPrice : item.price;
            const M2 area{item.lengthMm * item.widthMm / 1e6};
            p.boughtArea = p.boughtArea + area;
            p.consumedArea = p.consumedArea + area;
            if (cut.form == StockForm::Roll) {
                p.lengthNeeded = p.lengthNeeded + Mm{item.lengthMm};
                p.packs = p.unitsNeeded = 1;
            }
        }
        if (bySize.empty() && used > 0) { // all of it comes off the rack: a line that costs nothing
            Purchase& p = bySize[{}];
            p.product = product->id;
            p.family = product->family;
            p.unitsPerPack = 1;
            p.packPrice = product->packPrice;
        }
        if (bySize.empty()) continue; // nothing of it can be cut
        const double perM2 = massPerM2Of(*product);
        mass += bar.length.value > 0 ? besides / bar.length.value * bar.mass.value : besides / 1e6 * perM2;
        bool first = true;
        for (auto& entry : bySize) {
            Purchase& p = entry.second;
            p.laidArea = {first ? used / 1e6 : 0};
            p.laidMass = {first ? mass : 0};
            p.boughtMass = {p.boughtArea.value * perM2};
            if (p.packs == 0)
                p.cost = Money{0, job.currency};
            else if (p.packPrice)
                p.cost = cut.form == StockForm::Roll
                             ? Money{std::llround(double(p.packPrice->minor) * p.lengthNeeded.value / 1000),
                                     p.packPrice->currency}
                             : *p.packPrice * p.packs;
            first = false;
            const auto same = std::find_if(plan.purchases.begin(), plan.purchases.end(), [&](const Purchase& q) {
                return q.product == p.product && q.size == p.size;
            });
            const std::optional<Money> before = same == plan.purchases.end() ? Money{0, job.currency} : same->cost;
            std::optional<Money> after = p.cost;
            if (same == plan.purchases.end()) {
                plan.purchases.push_back(p);
            } else if (p.packs == 0) { // of what the set-outs buy, more is cut from the rack
                same->laidMass = same->laidMass + p.laidMass;
                after = same->cost;
            } else {
                *same = boughtTogether(*same, p);
                after = same->cost;
            }
            if (!after || !before || after->currency != job.currency)
                plan.totals.cost.reset();
            else if (plan.totals.cost)
                plan.totals.cost = *plan.totals.cost + (*after - *before);
            else if (plan.purchases.size() == 1)
                plan.totals.cost = *after;
        }
        plan.totals.laidMass = plan.totals.laidMass + Kg{mass};
    }
    chooseOffers(job, plan);
    buySpares(job, plan);
    shareCosts(job, cuts, plan);
    weighVan(job, plan);
    return plan;
}

} // namespace westrum
