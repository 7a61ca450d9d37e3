#include "core/families/flat_pieces.h"

#include "core/geometry/boolean.h"

#include <cmath>

namespace westrum {

CutPiece wantedOf(std::string_view word, const std::string& surface, const std::string& layer, const Piece& piece) {
    CutPiece wanted;
    wanted.key = std::string(word) + "/" + surface + layer + "/" + piece.name.key();
    wanted.name = piece.name;
    wanted.surface = surface;
    wanted.place = piece.shape;
    wanted.weighed = true;
    return wanted;
}

void addPanels(const Product& product, const std::string& surface, const std::string& layer, const LayerPlan& plan,
               WantedPieces& found) {
    const SetOut& setOut = plan.setOut;
    for (std::size_t i = 0; i < setOut.pieces.size(); ++i) {
        const Piece& piece = setOut.pieces[i];
        CutPiece wanted = wantedOf("panel", surface, layer, piece);
        const Region& own = piece.cut.empty() ? piece.shape : piece.cut;
        const Region lying = setOut.grainAcross ? transposed(own) : own;
        const Bounds b = boundsOf(lying);
        wanted.shape = {{rectangle(b.low.x, b.low.y, b.width(), b.height())}};
        if (piece.notched) wanted.marks = outlineMarks(lying);
        for (const Fixing& f : plan.fixings)
            if (const Mm hole = drillFor(f); f.piece == static_cast<int>(i) && hole.value > 0)
                wanted.drills.push_back({setOut.grainAcross ? Point{f.place.at.y, f.place.at.x} : f.place.at, hole});
        for (const KeptLid& l : setOut.lids)
            if (l.piece == static_cast<int>(i))
                for (Ring& line : outlineMarks(setOut.grainAcross ? transposed(l.lid.shape) : l.lid.shape))
                    wanted.marks.push_back(std::move(line));
        // Turned over its diagonal, left is below.
        const FactoryEdges& w = piece.wants;
        wanted.wants = setOut.grainAcross ? FactoryEdges{w.near, w.far, w.left, w.right} : w;
        toOrigin(wanted);
        wanted.mayTurn = !sheetOf(product).grain;
        found.pieces.push_back(std::move(wanted));
    }
}

void addLinings(const Product& product, const std::string& surface, const std::string& layer, const LayerPlan& plan,
                WantedPieces& found) {
    const SetOut& setOut = plan.setOut;
    const RollGoods roll = rollOf(product);
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
        CutPiece wanted = wantedOf("lining", surface, layer, piece);
        wanted.offPattern = piece.offPattern;
        wanted.shape = turned(piece.cut, turn);
        wanted.folds = lying(piece.folds);
        wanted.marks = lying(piece.marks);
        for (Ring& snip : lying(piece.snips)) wanted.marks.push_back(std::move(snip));
        const Point low = boundsOf(wanted.shape).low;
        wanted.patternAt = {past(low.x - pattern.x, roll.repeatAlong.value),
                            past(low.y - pattern.y, roll.repeatAcross.value)};
        // One that cannot have its pattern where its neighbours want it is cut all the same; the set-out has told it.
        if (wanted.patternAt.y + boundsOf(wanted.shape).height() > roll.usable().value) wanted.patternAt.y = 0;
        toOrigin(wanted); // how it may turn, the roll says for all
        found.pieces.push_back(std::move(wanted));
    }
}

void weighAsCut(const Product& product, LayerPlan& layer) {
    double area = 0;
    for (const Piece& p : layer.setOut.pieces) area += areaMm2(p.cut) / 1e6;
    layer.mass = {area * massPerM2Of(product)};
}

} // namespace westrum
