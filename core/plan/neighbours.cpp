#include "core/plan/surface_stage.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kLinesMeet = 2; ///< mm: lines this near run through

bool napRunsOn(const std::string& id) {
    const Family* family = familyOf(id);
    return family && family->laid.napRunsOn;
}

} // namespace

void checkLines(const Job& job, SurfaceStage& plan) {
    const auto linesAt = [](const SurfacePlan& p, int side) {
        // Heights of the lines between rows over the lower end of the shared side.
        std::vector<double> heights;
        const Ring& s = p.measured.sides[static_cast<std::size_t>(side)];
        const double low = std::min(s.front().y, s.back().y), high = std::max(s.front().y, s.back().y);
        const double middle = (s.front().x + s.back().x) / 2;
        const Bounds b = boundsOf(p.measured.frame);
        const double share = b.width() > 0 ? (middle - b.low.x) / b.width() : 0;
        for (const Row& r : p.setOut().rows) {
            const double y = r.high + (r.highAtEnd - r.high) * share;
            if (y > low + 1 && y < high - 1) heights.push_back(y - low);
        }
        return heights;
    };
    const auto upright = [](const SurfacePlan& p, int side) {
        if (side < 0 || side >= static_cast<int>(p.measured.sides.size())) return false;
        const Ring& s = p.measured.sides[static_cast<std::size_t>(side)];
        return s.size() >= 2 && std::abs(s.back().y - s.front().y) > 2 * std::abs(s.back().x - s.front().x);
    };
    const auto rows = [](const SurfacePlan& p) {
        return p.measured.measured() && p.setOut().laid() && p.setOut().module > 0 && !p.setOut().rowsAcross;
    };
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        SurfacePlan& a = plan.surfaces[i];
        if (!rows(a)) continue;
        for (int side = 0; side < static_cast<int>(job.surfaces[i].edges.size()); ++side) {
            const Edge& e = job.surfaces[i].edges[static_cast<std::size_t>(side)];
            if (e.kind != EdgeKind::Meets || !upright(a, side)) continue;
            const auto other = std::find_if(plan.surfaces.begin(), plan.surfaces.end(),
                                            [&](const SurfacePlan& s) { return s.surface == e.surface; });
            if (other == plan.surfaces.end() || !rows(*other) || !upright(*other, e.side) ||
                std::abs(other->setOut().module - a.setOut().module) > 0.5)
                continue;
            const auto mine = linesAt(a, side), theirs = linesAt(*other, e.side);
            double worst = 0;
            for (const double y : mine) {
                double nearest = a.setOut().module;
                for (const double z : theirs) nearest = std::min(nearest, std::abs(y - z));
                if (!theirs.empty() && y <= theirs.back() + a.setOut().module / 2) worst = std::max(worst, nearest);
            }
            if (worst <= kLinesMeet) continue;
            SetOut& s = a.layers[static_cast<std::size_t>(a.face)].setOut;
            ++s.figures.linesMissed;
            const Surface* neighbour = job.surface(e.surface);
            const Remark r{Severity::Note,
                           {a.surface, Part::Edge, side},
                           RemarkKind::LinesMissNeighbour,
                           {{"other", neighbour ? neighbour->name : std::string()}, {"length", Mm{worst}}},
                           {}};
            a.remarks.push_back(r);
            plan.found.push_back(r);
        }
    }
}

void checkNaps(const Job& job, SurfaceStage& plan) {
    constexpr double kSameWay = 0.8; // cosine
    const auto lined = [&](const SurfacePlan& p) {
        const LayerPlan* face = p.faceLayer();
        return p.measured.measured() && face && napRunsOn(face->family) && face->setOut.pile;
    };
    for (std::size_t i = 0; i < job.surfaces.size(); ++i) {
        SurfacePlan& a = plan.surfaces[i];
        if (!lined(a)) continue;
        for (std::size_t side = 0; side < job.surfaces[i].edges.size() && side < a.measured.sides.size(); ++side) {
            const Edge& e = job.surfaces[i].edges[side];
            if (e.kind != EdgeKind::Meets) continue;
            for (std::size_t k = i + 1; k < job.surfaces.size(); ++k) {
                const SurfacePlan& b = plan.surfaces[k];
                if (job.surfaces[k].id != e.surface || !lined(b) || e.side < 0 ||
                    e.side >= static_cast<int>(b.measured.sides.size()) ||
                    a.faceLayer()->product != b.faceLayer()->product ||
                    liesLevel(job.surfaces[i].kind) != liesLevel(job.surfaces[k].kind))
                    continue;
                const Ring &mine = a.measured.sides[side], &theirs = b.measured.sides[static_cast<std::size_t>(e.side)];
                const Point u = mine.back() - mine.front(), v = theirs.front() - theirs.back();
                const double turn = std::atan2(u.y, u.x) - std::atan2(v.y, v.x);
                const Point pile = turned(Ring{*b.setOut().pile}, turn).front();
                if (dot(pile, *a.setOut().pile) > kSameWay) continue;
                const Remark r{Severity::Warning,
                               {a.surface, Part::Edge, static_cast<int>(side)},
                               RemarkKind::NapDisagrees,
                               {{"other", job.surfaces[k].name}},
                               {}};
                ++a.layers[static_cast<std::size_t>(a.face)].setOut.figures.linesMissed;
                a.remarks.push_back(r);
                plan.found.push_back(r);
            }
        }
    }
}

} // namespace westrum
