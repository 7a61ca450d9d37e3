#include "core/setout/common_rules.h"

#include "core/geometry/boolean.h"
#include "core/shell/ties.h"
#include "core/units/count.h"

#include <algorithm>

namespace westrum {

double centreOf(const SetOutRequest& request, const Region& net, CentreRule rule, int openingA, int openingB,
                bool across, std::vector<Remark>& remarks) {
    const Bounds b = boundsOf(net);
    const double own = across ? (b.low.x + b.high.x) / 2 : (b.low.y + b.high.y) / 2;
    if (rule == CentreRule::Visible) return (across ? request.visibleCentreX : request.visibleCentreY).value_or(own);
    if (rule == CentreRule::Surface) return own;
    std::vector<Point> centres;
    const auto& all = request.openings;
    if (openingA > 0 && openingB > 0) {
        for (const int wanted : {openingA, openingB})
            for (const OpeningFact& o : all)
                if (o.placed.opening == wanted - 1 && o.placed.inRow == 0) centres.push_back(o.placed.centre);
    } else {
        for (const OpeningFact& o : all)
            if (o.kind == OpeningKind::RoofVent) centres.push_back(o.placed.centre);
        if (centres.size() < 2) {
            centres.clear();
            for (const OpeningFact& o : all) centres.push_back(o.placed.centre);
        }
    }
    if (centres.size() < 2) {
        remarks.push_back({Severity::Warning,
                           {"", Part::Rule},
                           RemarkKind::CentreOpeningsMissing,
                           {{"count", static_cast<std::int64_t>(centres.size())}},
                           Fix{FixKind::SetRule, "centre", 0.0}});
        return own;
    }
    const Point middle = (centres[0] + centres[1]) * 0.5;
    return across ? middle.x : middle.y;
}

Region insetBy(const Region& region, Mm gap) { return gap.value > 0 ? inset(region, gap.value) : region; }

void checkGap(Mm gap, Mm label, std::vector<Remark>& remarks) {
    if (gap < label)
        remarks.push_back({Severity::Warning,
                           {"", Part::Rule},
                           RemarkKind::GapBelowProduct,
                           {{"gap", gap}, {"limit", label}},
                           Fix{FixKind::SetRule, "gap", label.value}});
}

void checkSideGaps(const SetOutRequest& request, Mm label, std::vector<Remark>& remarks) {
    for (std::size_t i = 0; i < request.sides.size(); ++i) {
        const SideFact& side = request.sides[i];
        if (side.kind == EdgeKind::MovementGap && side.allowance && *side.allowance < label)
            remarks.push_back({Severity::Warning,
                               {"", Part::Edge, static_cast<int>(i)},
                               RemarkKind::GapBelowProduct,
                               {{"gap", *side.allowance}, {"limit", label}, {"edge", edgeName(static_cast<int>(i))}},
                               {}});
    }
}

bool nothingLeft(const Region& net, Mm gap, std::vector<Remark>& remarks) {
    if (!net.empty()) return false;
    remarks.push_back({Severity::Error, {"", Part::Rule}, RemarkKind::NothingLeftInsideGap, {{"gap", gap}}, {}});
    return true;
}

void checkEdge(std::string_view edge, Mm width, Mm module, std::vector<Remark>& remarks) {
    if (width.value <= 0 || width.value >= module.value / 3 - 1e-6) return;
    remarks.push_back({Severity::Warning,
                       {"", Part::Rule},
                       RemarkKind::EdgeBelowThird,
                       {{"edge", std::string(edge)}, {"width", width}, {"limit", module / 3}},
                       {}});
}

bool tooMany(double pieces, std::vector<Remark>& remarks) {
    if (pieces <= static_cast<double>(kMostLaid)) return false;
    remarks.push_back({Severity::Error,
                       {"", Part::Product},
                       RemarkKind::TooManyPieces,
                       {{"count", roundUp(std::min(pieces, 1e15))}, {"limit", kMostLaid}},
                       {}});
    return true;
}

void tell(const SetOutRequest& request, double share) {
    if (request.progress) request.progress(share);
}

double rowsOnRoll(std::vector<std::pair<double, double>> pieces, double usable, double gap) {
    std::sort(pieces.rbegin(), pieces.rend());
    std::vector<double> used; // across, of each row
    double run = 0;
    for (const auto& [length, width] : pieces) {
        const double wide = width;
        auto row = std::find_if(used.begin(), used.end(), [&](double u) { return u + gap + wide <= usable; });
        if (row == used.end()) {
            used.push_back(width);
            run += length + (run > 0 ? gap : 0);
        } else {
            *row += gap + width;
        }
    }
    return run;
}

StartChoice choiceOf(const SetOut& s, FieldValues change, bool onStrip) {
    const double third = s.module / 3;
    return {.startOffset = s.startOffset,
            .rows = static_cast<int>(s.rows.size()),
            .firstRow = s.firstRow,
            .lastRow = s.lastRow,
            .stock = s.laid() ? std::max(1, s.figures.stock) : 0,
            .slivers = s.slivers,
            .fair = s.figures.narrowestEdge.value >= third - 1e-6,
            .onStrip = onStrip,
            .change = std::move(change),
            .figures = s.figures};
}

} // namespace westrum
