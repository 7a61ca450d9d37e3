#include "core/plan/cut_order.h"

#include <algorithm>
#include <numeric>

namespace westrum {
namespace {

constexpr double kFuzzMm = 0.01;

/// Places of the item's pieces by where they begin along it.
std::vector<int> byBeginning(const CutItem& item) {
    std::vector<int> order(item.pieces.size());
    std::iota(order.begin(), order.end(), 0);
    std::stable_sort(order.begin(), order.end(),
                     [&](int a, int b) { return item.pieces[std::size_t(a)].at < item.pieces[std::size_t(b)].at; });
    return order;
}

} // namespace

std::vector<CutStep> orderOfBar(const CutItem& bar, double endTrimMm) {
    std::vector<CutStep> steps;
    if (endTrimMm > 0) {
        // The trim holds the kerf: the line is drawn where the blade enters it.
        const double at = std::max(0.0, endTrimMm - bar.kerfMm);
        steps.push_back({CutStep::Kind::Across, at, 0, bar.widthMm, at, {}});
    }
    double from = endTrimMm;
    for (const int i : byBeginning(bar)) {
        const Bounds b = boundsOf(bar.pieces[std::size_t(i)].shape);
        if (b.high.x < bar.lengthMm - kFuzzMm) // a piece that is the whole bar needs no cut
            steps.push_back({CutStep::Kind::Across, b.high.x, 0, bar.widthMm, b.high.x - from, {i}});
        from = b.high.x + bar.kerfMm;
    }
    return steps;
}

TrimmedSheet trimmed(const SheetsProblem& problem, const CutSheet& sheet) {
    TrimmedSheet t{problem, sheet, problem.edgeTrimMm};
    SheetStock stock = problem.stock[sheet.stock];
    stock.widthMm -= 2 * t.trimMm;
    stock.heightMm -= 2 * t.trimMm;
    t.problem.edgeTrimMm = 0;
    t.problem.stock = {stock};
    t.problem.fixed.clear();
    t.sheet.stock = 0;
    for (PlacedRectangle& r : t.sheet.pieces) {
        r.x -= t.trimMm;
        r.y -= t.trimMm;
    }
    return t;
}

std::vector<LeftRectangle> leftOfSheet(const SheetsProblem& problem, const CutSheet& sheet, const KeepRule& rule) {
    const TrimmedSheet t = trimmed(problem, sheet);
    std::vector<LeftRectangle> left = leftoversWorthKeeping(t.problem, t.sheet, rule);
    for (LeftRectangle& l : left) {
        l.x += t.trimMm;
        l.y += t.trimMm;
    }
    return left;
}

std::vector<CutStep> orderOfSheet(const CutItem& sheet, const SheetsProblem& problem, const CutSheet& plan) {
    std::vector<CutStep> steps;
    const double trim = problem.edgeTrimMm, kerf = problem.kerfMm;
    if (trim > 0) {
        // The trim holds the kerf: near edges are marked where the blade enters.
        const double near = std::max(0.0, trim - kerf);
        const double top = sheet.widthMm - trim, right = sheet.lengthMm - trim;
        steps.push_back({CutStep::Kind::Along, near, 0, sheet.lengthMm, near, {}});
        steps.push_back({CutStep::Kind::Along, top, 0, sheet.lengthMm, top - trim, {}});
        steps.push_back({CutStep::Kind::Across, near, 0, sheet.widthMm, near, {}});
        steps.push_back({CutStep::Kind::Across, right, 0, sheet.widthMm, right - trim, {}});
    }
    const TrimmedSheet t = trimmed(problem, plan);
    const auto cuts = cutsOf(t.problem, t.sheet);
    if (!cuts) return steps;
    const auto freed = [&](int part, CutStep& step) {
        if (part < 0 || !cuts->parts[std::size_t(part)].piece) return;
        step.frees.push_back(int(*cuts->parts[std::size_t(part)].piece));
    };
    for (const SheetCut& cut : cuts->cuts) {
        const SheetPart& part = cuts->parts[std::size_t(cut.part)];
        CutStep step{cut.along ? CutStep::Kind::Along : CutStep::Kind::Across,
                     cut.sheetAtMm + trim,
                     (cut.along ? part.x : part.y) + trim,
                     (cut.along ? part.x + part.widthMm : part.y + part.heightMm) + trim,
                     cut.atMm,
                     {}};
        freed(cut.near, step);
        freed(cut.far, step);
        steps.push_back(std::move(step));
    }
    return steps;
}

std::vector<CutStep> orderOfRoll(const CutItem& run) {
    std::vector<CutStep> steps;
    const std::vector<int> order = byBeginning(run);
    std::vector<int> part; // pieces since the last cut right across
    double reach = 0;      // how far they lie along the roll
    const auto partEnds = [&](double next) {
        if (part.empty()) return;
        CutStep across{CutStep::Kind::Across, reach, 0, run.widthMm, reach, {}};
        // A single piece that fills the width is free with this cut.
        const bool alone = part.size() == 1 &&
                           boundsOf(run.pieces[std::size_t(part[0])].shape).height() >= run.widthMm - kFuzzMm &&
                           run.pieces[std::size_t(part[0])].shape.rings.size() == 1 &&
                           run.pieces[std::size_t(part[0])].shape.rings[0].size() == 4;
        if (alone) across.frees = part;
        if (next > reach - kFuzzMm && reach < run.lengthMm - kFuzzMm) steps.push_back(across);
        if (!alone)
            for (const int i : part) {
                const Bounds b = boundsOf(run.pieces[std::size_t(i)].shape);
                steps.push_back({CutStep::Kind::ByOutline, b.low.y, b.low.x, b.high.x, b.low.y, {i}});
            }
        part.clear();
    };
    for (const int i : order) {
        const Bounds b = boundsOf(run.pieces[std::size_t(i)].shape);
        if (b.low.x > reach - kFuzzMm) partEnds(b.low.x);
        part.push_back(i);
        reach = std::max(reach, b.high.x);
    }
    partEnds(run.lengthMm);
    // All that is marked with the tape comes first, in one go; then what is cut out of the parts.
    std::stable_partition(steps.begin(), steps.end(), [](const CutStep& s) { return s.kind == CutStep::Kind::Across; });
    return steps;
}

} // namespace westrum
