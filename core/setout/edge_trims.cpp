#include "core/setout/edge_trims.h"

#include "core/setout/trim_path.h"
#include "core/shell/ties.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>

namespace westrum {
namespace {

constexpr double kPi = std::numbers::pi;
constexpr double kCornerRad = 20 * kPi / 180; ///< a turn above this is a corner, below it a bend
constexpr double kTrueRad = 1.5 * kPi / 180;
constexpr double kSureRad = kPi / 180;        ///< a lean that is known no better sets no saw
constexpr double kPlumbRad = 0.5 * kPi / 180; ///< of a pose: 6 mm over 700
constexpr double kLeastRun = 30;              // mm: nothing shorter is trimmed
constexpr double kSameLine = 1e-3;            // rad
constexpr double kAtCorner = 2;               // mm
constexpr double kBendLimit = 3000;           // mm: a stiff trim springs round anything flatter
constexpr std::int64_t kMostParts = 400;

/// The surface that owns a shared edge: what lies before what stands, then the first in the job.
int ownerRank(const Surface& s) {
    if (s.kind == SurfaceKind::Floor) return 0;
    if (isOverhead(s.kind)) return 1;
    if (liesLevel(s.kind)) return 2;
    return 3;
}

/// Whether the trim stands in the corner and leans on the neighbour, so that its ends follow the neighbours' lean.
bool standsOnNeighbour(EdgeMeeting m) {
    return m == EdgeMeeting::FloorAtWall || m == EdgeMeeting::CeilingAtWall || m == EdgeMeeting::WetCorner;
}

bool continuous(Profile p) {
    return p == Profile::SealantBead || p == Profile::PushOnEdging || p == Profile::BoundEdge;
}

/// The side of the frame on which a stretch lies; -1: on none, as in a notch.
int sideOf(const MeasuredOutline& measured, Point a, Point b) {
    const Point middle = (a + b) * 0.5;
    int best = -1;
    double least = 1;
    for (std::size_t s = 0; s < measured.sides.size(); ++s) {
        const Ring& side = measured.sides[s];
        for (std::size_t i = 1; i < side.size(); ++i) {
            const Point ab = side[i] - side[i - 1];
            const double t = std::clamp(dot(middle - side[i - 1], ab) / std::max(1e-9, dot(ab, ab)), 0.0, 1.0);
            if (const double d = distance(middle, side[i - 1] + ab * t); d < least) {
                least = d;
                best = static_cast<int>(s);
            }
        }
    }
    return best;
}

class Trimmer {
public:
    Trimmer(std::span<const TrimSurface> surfaces, std::span<const Product> trims, std::span<const AreaTrim> byArea)
        : surfaces_(surfaces), trims_(trims), byArea_(byArea) {}

    TrimPlan run() {
        for (std::size_t i = 0; i < surfaces_.size(); ++i) {
            if (!surfaces_[i].measured || !surfaces_[i].measured->measured()) continue;
            follow(i);
            joints(i);
            openings(i);
        }
        for (std::size_t r = 0; r < out_.runs.size(); ++r) cut(r);
        for (const auto& [profile, surface] : missing_)
            out_.remarks.push_back({Severity::Note,
                                    {surface, Part::Edge},
                                    RemarkKind::TrimProfileMissing,
                                    {{"profile", std::string(profileName(profile))}},
                                    {}});
        return std::move(out_);
    }

private:
    struct Chain {
        int side = -1;
        Ring path;
        bool closed = false;
    };

    int find(const std::string& id) const {
        for (std::size_t i = 0; i < surfaces_.size(); ++i)
            if (surfaces_[i].surface->id == id) return static_cast<int>(i);
        return -1;
    }

    const Product* productOf(const std::string& id) const {
        for (const Product& p : trims_)
            if (p.id == id) return &p;
        return nullptr;
    }
    const Product* productOf(Profile profile) const {
        for (const Product& p : trims_)
            if (trimOf(p).profile == profile) return &p;
        return nullptr;
    }

    /// The outline's stretches between corners, each along one side.
    static std::vector<Chain> chainsOf(const MeasuredOutline& measured) {
        std::vector<Chain> chains;
        Ring ring = measured.outline.rings.front();
        const std::size_t n = ring.size();
        if (n < 3) return chains;
        std::vector<int> sides(n);
        for (std::size_t i = 0; i < n; ++i) sides[i] = sideOf(measured, ring[i], ring[(i + 1) % n]);
        const auto breaks = [&](std::size_t i) {
            return sides[(i + n - 1) % n] != sides[i] || std::abs(turnAt(ring, i)) > kCornerRad;
        };
        std::size_t first = 0;
        while (first < n && !breaks(first)) ++first;
        if (first == n) { // round all the way
            Chain all{sides[0], ring, true};
            all.path.push_back(ring.front());
            return {all};
        }
        for (std::size_t k = 0; k < n; ++k) {
            const std::size_t i = (first + k) % n;
            if (breaks(i)) chains.push_back({sides[i], {ring[i]}, false});
            Ring& path = chains.back().path;
            const Point next = ring[(i + 1) % n];
            // Points on a straight stretch are none.
            if (path.size() >= 2) {
                const Point in = path.back() - path[path.size() - 2], out = next - path.back();
                if (std::abs(std::atan2(cross(in, out), dot(in, out))) < kSameLine) path.pop_back();
            }
            path.push_back(next);
        }
        return chains;
    }

    /// What runs along a chain of an edge; nothing where nothing closes it.
    std::optional<TrimRun> runAlong(const TrimSurface& s, const Chain& chain, const Edge& edge,
                                    const TrimSurface* there) {
        const auto meeting = meetingOf(*s.surface, edge, there ? there->surface : nullptr);
        if (!meeting) return std::nullopt;
        const Hardness beyond = there ? there->hardness : Hardness::Bare;
        if (s.hardness == Hardness::Bare && beyond == Hardness::Bare) return std::nullopt;
        std::optional<Profile> profile = profileFor(*meeting, s.hardness, beyond);
        std::string product;
        // What is said of the edge goes before what is said of the surface, and that before the table.
        std::string said = !edge.trim.empty() ? edge.trim : s.trim;
        if (said.empty() && there && !there->trim.empty()) said = there->trim;
        if (said.empty())
            for (const AreaTrim& a : byArea_)
                if (a.area == s.surface->area && a.meeting == *meeting) said = a.product;
        if (said == kNoTrim) return std::nullopt;
        if (const Product* p = said.empty() ? nullptr : productOf(said)) {
            profile = trimOf(*p).profile;
            product = p->id;
        }
        if (!profile) return std::nullopt;
        if (product.empty()) {
            if (const Product* p = productOf(*profile))
                product = p->id;
            else
                miss(*profile, s.surface->id);
        }
        TrimRun run;
        run.surface = s.surface->id;
        run.side = chain.side;
        run.neighbour = there ? there->surface->id : std::string();
        run.meeting = *meeting;
        run.profile = *profile;
        run.product = product;
        run.overruled = !edge.trim.empty();
        return run;
    }

    void follow(std::size_t i) {
        const TrimSurface& s = surfaces_[i];
        std::vector<int> runAtEnd; // of each chain: the run that reaches its last point, and its first
        std::vector<int> runAtStart;
        std::vector<Chain> chains = chainsOf(*s.measured);
        std::map<std::string, int> parts; // of each side, so far
        notches_ = 0;
        for (const Chain& chain : chains) {
            runAtStart.push_back(-1);
            runAtEnd.push_back(-1);
            Edge edge =
                chain.side >= 0 ? s.surface->edge(chain.side) : Edge{.kind = notchEdge(*s.measured, chain.path)};
            const int other = edge.kind == EdgeKind::Meets ? find(edge.surface) : -1;
            const TrimSurface* there = other >= 0 ? &surfaces_[static_cast<std::size_t>(other)] : nullptr;
            if (there && there->measured && there->measured->measured() && owns(there, &s)) continue;
            const std::optional<TrimRun> run = runAlong(s, chain, edge, there);
            if (!run) continue;
            const double whole = westrum::lengthOf(chain.path);
            double at = 0;
            const std::string side = chain.side >= 0 ? edgeName(chain.side) : "n" + std::to_string(++notches_);
            int& part = parts[side]; // a notch parts a side into several chains
            const auto add = [&](double from, double to) {
                if (to - from < kLeastRun) return;
                TrimRun r = *run;
                r.path = from <= 0 && to >= whole ? chain.path : partOf(chain.path, from, to);
                r.length = {to - from};
                ++part;
                r.name = side + (part > 1 ? "." + std::to_string(part) : std::string());
                r.leastRadius = leastRadiusOf(r.path);
                if (edge.allowance && edge.gapAtEnd)
                    r.filler = taperedFiller(r.length, edge.allowance->length, edge.gapAtEnd->length,
                                             stopsOf(s, r.path, r.length));
                if (from <= 0) runAtStart.back() = static_cast<int>(out_.runs.size());
                if (to >= whole) runAtEnd.back() = static_cast<int>(out_.runs.size());
                out_.runs.push_back(std::move(r));
                before_.push_back(-1);
                after_.push_back(-1);
            };
            auto gaps = gapsOf(chain.path, *s.surface, *s.shape, kLeastRun);
            if (there && chain.side >= 0 && there->measured && there->measured->measured() &&
                edge.side < static_cast<int>(there->measured->sides.size()))
                addGapsBeyond(s.measured->sides[static_cast<std::size_t>(chain.side)], chain.path,
                              there->measured->sides[static_cast<std::size_t>(edge.side)], *there->surface,
                              *there->shape, kLeastRun, gaps);
            for (const auto& [from, to] : gaps) {
                add(at, from);
                at = to;
            }
            add(at, whole);
        }
        for (std::size_t k = 0; k < chains.size(); ++k) {
            const int here = runAtEnd[k], next = runAtStart[(k + 1) % chains.size()];
            if (here < 0 || next < 0 || here == next) continue;
            after_[static_cast<std::size_t>(here)] = next;
            before_[static_cast<std::size_t>(next)] = here;
        }
    }

    /// Whether `a` owns an edge that it shares with `b`.
    static bool owns(const TrimSurface* a, const TrimSurface* b) {
        const int ra = ownerRank(*a->surface), rb = ownerRank(*b->surface);
        return ra != rb ? ra < rb : a->surface->id < b->surface->id; // not by the order in which they are listed
    }

    void miss(Profile profile, const std::string& surface) {
        const auto same =
            std::find_if(missing_.begin(), missing_.end(), [&](const auto& m) { return m.first == profile; });
        if (same == missing_.end()) missing_.emplace_back(profile, surface);
    }

    /// Distances along a path at which supports cross it, its ends among them.
    static std::vector<Mm> stopsOf(const TrimSurface& s, const Ring& path, Mm length) {
        std::vector<Mm> stops{Mm{0}};
        for (const double at : crossingsOf(s, path)) stops.push_back({at});
        stops.push_back(length);
        return stops;
    }
    static std::vector<double> crossingsOf(const TrimSurface& s, const Ring& path) {
        std::vector<double> all;
        double before = 0;
        for (std::size_t i = 1; i < path.size(); ++i) {
            const Point a = path[i - 1], b = path[i];
            for (const PlacedSupport& u : s.shape->supports) {
                const double p = u.along ? a.y : a.x, q = u.along ? b.y : b.x;
                if (std::abs(q - p) < 1e-9) continue;
                const double t = (u.centre - p) / (q - p);
                if (t > 0 && t < 1) all.push_back(before + t * distance(a, b));
            }
            before += distance(a, b);
        }
        std::sort(all.begin(), all.end());
        return all;
    }

    void joints(std::size_t i) {
        const TrimSurface& s = surfaces_[i];
        if (!s.coverJoints || !s.face || s.trim == kNoTrim) return;
        const Product* product = productOf(Profile::CoverStrip);
        int number = 0;
        for (const Joint& j : s.face->joints) {
            const double length = distance(j.from, j.to);
            if (length < kLeastRun) continue;
            if (!product) miss(Profile::CoverStrip, s.surface->id);
            TrimRun r;
            r.surface = s.surface->id;
            r.meeting = EdgeMeeting::PanelJoint;
            r.profile = Profile::CoverStrip;
            r.product = product ? product->id : std::string();
            r.name = "j" + std::to_string(++number);
            r.path = {j.from, j.to};
            r.length = {length};
            push(std::move(r));
        }
    }

    void openings(std::size_t i) {
        const TrimSurface& s = surfaces_[i];
        if (s.hardness == Hardness::Bare) return;
        int number = 0;
        for (const PlacedOpening& o : s.shape->openings) {
            const Opening& opening = s.surface->openings[static_cast<std::size_t>(o.opening)];
            if (opening.edge != OpeningEdge::Bound && opening.edge != OpeningEdge::Reveal) continue;
            const EdgeMeeting meeting =
                opening.edge == OpeningEdge::Bound ? EdgeMeeting::Opening : EdgeMeeting::OpeningReveal;
            const auto profile = profileFor(meeting, s.hardness, Hardness::Bare);
            if (!profile) continue;
            const Product* product = productOf(*profile);
            if (!product) miss(*profile, s.surface->id);
            ++number;
            int part = 0;
            for (Ring& path : edgesWithin(o.shape, *s.measured)) {
                TrimRun r;
                r.surface = s.surface->id;
                r.meeting = meeting;
                r.profile = *profile;
                r.product = product ? product->id : std::string();
                r.name = "o" + std::to_string(number) + (++part > 1 ? "." + std::to_string(part) : std::string());
                r.length = {westrum::lengthOf(path)};
                r.path = std::move(path);
                if (r.length.value >= kLeastRun) push(std::move(r));
            }
        }
    }

    void push(TrimRun run) {
        out_.runs.push_back(std::move(run));
        before_.push_back(-1);
        after_.push_back(-1);
    }

    double carrierTilt(const TrimRun& run, const TrimSurface& owner) const {
        if (!standsOnNeighbour(run.meeting)) return kPi / 2;
        const int other = run.neighbour.empty() ? -1 : find(run.neighbour);
        if (other < 0) return kPi / 2;
        const TrimSurface& n = surfaces_[static_cast<std::size_t>(other)];
        const double tilt = tiltOf(n, owner.surface->edge(run.side).side);
        // Under the ceiling the trim hangs the other way up.
        return isOverhead(owner.surface->kind) ? kPi - tilt : tilt;
    }

    /// The corner at a run's end as a bevel gauge reads it, in radians: said at its own side, or at that of the run
    /// that comes there.
    std::optional<double> gaugedAt(const TrimRun& r, bool atEnd, int next) const {
        const auto said = [&](const TrimRun& run, bool end) -> std::optional<double> {
            const int s = find(run.surface);
            if (run.side < 0 || s < 0) return std::nullopt;
            const TrimSurface& owner = surfaces_[static_cast<std::size_t>(s)];
            const auto side = static_cast<std::size_t>(run.side);
            if (side >= owner.measured->sides.size() || owner.measured->sides[side].empty()) return std::nullopt;
            const Ring& line = owner.measured->sides[side];
            // Only where the run reaches the corner.
            const Point at = end ? run.path.back() : run.path.front(), corner = end ? line.back() : line.front();
            if (distance(at, corner) > kAtCorner) return std::nullopt;
            const Edge edge = owner.surface->edge(run.side);
            const std::optional<double> degrees = end ? edge.endDeg : edge.startDeg;
            return degrees ? std::optional(*degrees * kPi / 180) : std::nullopt;
        };
        if (const auto own = said(r, atEnd)) return own;
        return next < 0 ? std::nullopt : said(out_.runs[static_cast<std::size_t>(next)], !atEnd);
    }

    /// An end that runs against something at an angle of its own.
    static TrimJoint against(TrimJoint j, double planRad) {
        j.planRad = planRad;
        j.crooked = std::abs(planRad - kPi / 2) > kTrueRad;
        if (!j.crooked) return j;
        j.end = TrimEnd::Angled;
        j.saw.mitreRad = std::abs(kPi / 2 - planRad);
        return j;
    }

    /// How a run's end is cut where another one of the same owner comes.
    TrimJoint corner(std::size_t run, bool atEnd) const {
        const TrimRun& r = out_.runs[run];
        TrimJoint j;
        j.at = atEnd ? r.path.back() : r.path.front();
        const int next = atEnd ? after_[run] : before_[run];
        const std::optional<double> gauged = gaugedAt(r, atEnd, next);
        if (next < 0) return gauged ? against(j, *gauged) : j;
        const TrimRun& o = out_.runs[static_cast<std::size_t>(next)];
        const Ring &in = atEnd ? r.path : o.path, &out = atEnd ? o.path : r.path;
        const Point a = in.back() - in[in.size() - 2], b = out[1] - out[0];
        const double turn = gauged ? kPi - *gauged : std::atan2(cross(a, b), dot(a, b));
        j.planRad = kPi - turn;
        j.inside = turn > 0;
        j.crooked = std::abs(std::abs(turn) - kPi / 2) > kTrueRad;
        if (o.product != r.product || r.product.empty() || continuous(r.profile)) return j;
        j.run = next;
        const TrimLength trim = trimOf(*productOf(r.product));
        const TrimSurface& owner = surfaces_[static_cast<std::size_t>(find(r.surface))];
        CornerSetting both;
        if (standsOnNeighbour(r.meeting))
            both = compoundMitre({j.planRad, carrierTilt(atEnd ? r : o, owner), carrierTilt(atEnd ? o : r, owner)});
        else
            both.first.mitreRad = both.second.mitreRad = plainMitre(j.planRad);
        switch (j.inside ? trim.inside : trim.outside) {
        case CornerCut::Mitred:
            j.end = TrimEnd::Mitred;
            j.saw = atEnd ? both.first : both.second;
            break;
        case CornerCut::Coped:
            // The one that comes first round the room runs through, square; the next is sawn to its profile along the
            // line of a mitre. An outside corner cannot be coped.
            if (!j.inside) {
                j.end = TrimEnd::Mitred;
                j.saw = atEnd ? both.first : both.second;
            } else if (!atEnd) {
                j.end = TrimEnd::Coped;
                j.saw = both.second;
            } else {
                j.end = TrimEnd::Butted;
            }
            break;
        case CornerCut::Butted: j.end = TrimEnd::Butted; break;
        case CornerCut::Blocked: j.end = TrimEnd::Blocked; break;
        }
        return j;
    }

    /// What an end adds to, or takes from, the length of the line that the run follows.
    static double addedBy(const TrimJoint& j, const TrimLength& trim, bool flat, bool atEnd) {
        const double depth = flat ? trim.width.value : trim.thickness.value;
        switch (j.end) {
        case TrimEnd::Mitred: {
            // The line is the edge at the corner's wall; where faces lean, the other long edge may be the longer one.
            const double lean =
                !flat && j.saw.longEdge == LongEdge::Top ? trim.width.value * std::tan(j.saw.mitreRad) : 0;
            return lean + (j.inside ? 0 : depth * std::abs(std::tan(kPi / 2 - j.planRad / 2)));
        }
        case TrimEnd::Scarfed: return depth;
        case TrimEnd::Angled: // its back lies along the line; where the corner is wide its front goes on
            return depth * std::max(0.0, -std::cos(j.planRad) / std::max(1e-6, std::sin(j.planRad)));
        case TrimEnd::Blocked: return -trim.width.value;
        case TrimEnd::Butted:
            // At an outside corner one of the two covers the other's end; inside, the second stops at the first's face.
            if (j.inside) return trim.inside == CornerCut::Coped || atEnd ? 0 : -depth;
            return atEnd ? depth : 0;
        case TrimEnd::Coped:
        case TrimEnd::Square: return 0;
        }
        return 0;
    }

    void cut(std::size_t index) {
        TrimRun& run = out_.runs[index];
        const Product* product = run.product.empty() ? nullptr : productOf(run.product);
        const TrimSurface& owner = surfaces_[static_cast<std::size_t>(find(run.surface))];
        TrimJoint start = corner(index, false), end = corner(index, true);
        if (!product) {
            run.pieces.push_back({run.name, run.length, run.path, start, end});
            return;
        }
        const TrimLength trim = trimOf(*product);
        bends(run, trim, *product);
        const bool flat = !standsOnNeighbour(run.meeting);
        const double stock = (trim.length - trim.endTrim * 2).value;
        const double first = addedBy(start, trim, flat, false), last = addedBy(end, trim, flat, true);
        const double depth = flat ? trim.width.value : trim.thickness.value;
        std::vector<double> joints;
        if (stock > 2 * depth + kLeastRun) joints = jointsAlong(run, owner, trim, stock, first, last, depth);
        if (joints.empty() && run.length.value + first + last > stock + 1e-6)
            out_.remarks.push_back({Severity::Warning,
                                    {run.surface, Part::Edge, run.side},
                                    RemarkKind::TrimStockTooShort,
                                    {{"product", product->name}, {"length", run.length}, {"limit", Mm{stock}}},
                                    {}});
        double at = 0;
        for (std::size_t k = 0; k <= joints.size(); ++k) {
            const bool isFirst = k == 0, isLast = k == joints.size();
            const double to = isLast ? run.length.value : joints[k];
            TrimPiece piece;
            piece.name = run.name + (joints.empty() ? std::string() : "/" + std::to_string(k + 1));
            piece.path = joints.empty() ? run.path : partOf(run.path, at, to);
            const auto scarf = [&](Point where, double along) {
                TrimJoint j;
                j.end = continuous(run.profile) ? TrimEnd::Square : TrimEnd::Scarfed;
                j.planRad = kPi;
                j.at = where;
                if (j.end == TrimEnd::Scarfed) j.saw.mitreRad = kPi / 4;
                j.onSupport = nearSupport(owner, run.path, along);
                return j;
            };
            piece.start = isFirst ? start : scarf(piece.path.front(), at);
            piece.end = isLast ? end : scarf(piece.path.back(), to);
            // A scarf's overlap belongs to the piece before it.
            piece.length = {std::max(
                1.0,
                to - at + (isFirst ? first : 0) +
                    (isLast ? last : (piece.end.end == TrimEnd::Scarfed ? addedBy(piece.end, trim, flat, true) : 0)))};
            run.pieces.push_back(std::move(piece));
            at = to;
        }
    }

    static bool nearSupport(const TrimSurface& owner, const Ring& path, double at) {
        for (const double s : crossingsOf(owner, path))
            if (std::abs(s - at) < 1) return true;
        return false;
    }

    /// Where a run that is longer than its stock is joined: each time on the furthest support that a length reaches,
    /// or at the length's end where there is none.
    std::vector<double> jointsAlong(const TrimRun& run, const TrimSurface& owner, const TrimLength& trim, double stock,
                                    double first, double last, double depth) const {
        std::vector<double> joints;
        const double whole = run.length.value;
        if (whole + first + last <= stock + 1e-6 || whole / stock > static_cast<double>(kMostParts)) return joints;
        const std::vector<double> supports =
            continuous(trim.profile) ? std::vector<double>{} : crossingsOf(owner, run.path);
        double at = 0;
        while (whole - at + (at == 0 ? first : 0) + last > stock + 1e-6 && joints.size() < kMostParts) {
            double reach = at + stock - depth - (at == 0 ? first : 0);
            // The last part keeps a length that can be held.
            reach = std::min(reach, whole - std::min(stock / 4, 300.0));
            if (reach <= at + kLeastRun) return {};
            double best = reach;
            for (const double s : supports)
                if (s <= reach && s > at + stock / 4) best = s;
            joints.push_back(best);
            at = best;
        }
        return joints;
    }

    void bends(const TrimRun& run, const TrimLength& trim, const Product& product) {
        if (!run.leastRadius) return;
        const double limit = trim.leastRadius.value > 0 ? trim.leastRadius.value : kBendLimit;
        if (run.leastRadius->value >= limit) return;
        out_.remarks.push_back({Severity::Warning,
                                {run.surface, Part::Edge, run.side},
                                trim.leastRadius.value > 0 ? RemarkKind::TrimBendTooTight : RemarkKind::TrimTooStiff,
                                {{"product", product.name},
                                 {"radius", *run.leastRadius},
                                 {"limit", Mm{limit}},
                                 {"edge", run.side >= 0 ? edgeName(run.side) : run.name}},
                                {}});
    }

    std::span<const TrimSurface> surfaces_;
    std::span<const Product> trims_;
    std::span<const AreaTrim> byArea_;
    TrimPlan out_;
    std::vector<int> before_, after_; ///< of each run: its neighbour round the same outline, or -1
    std::vector<std::pair<Profile, std::string>> missing_;
    int notches_ = 0;
};

} // namespace

Mm TrimPlan::lengthOf(std::string_view product) const {
    Mm sum;
    for (const TrimRun& r : runs)
        if (r.product == product) sum = sum + r.length;
    return sum;
}

TrimPlan trimEdges(std::span<const TrimSurface> surfaces, std::span<const Product> trims,
                   std::span<const AreaTrim> byArea) {
    return Trimmer(surfaces, trims, byArea).run();
}

double tiltOf(const TrimSurface& trimmed, int side) {
    const Surface& surface = *trimmed.surface;
    if (liesLevel(surface.kind)) return 0;
    if (!trimmed.measured || !trimmed.measured->measured()) return kPi / 2;
    const MeasuredOutline& measured = *trimmed.measured;
    if (trimmed.pose && (surface.lean || trimmed.pose->leanErrorRad < kSureRad)) {
        const bool has = side >= 0 && side < static_cast<int>(measured.sides.size());
        const Ring& line = measured.sides[has ? static_cast<std::size_t>(side) : 0];
        const VanPoint facing = trimmed.pose->facing((line.front() + line.back()) * 0.5);
        const double tilt = std::atan2(std::hypot(facing.x, facing.y), -facing.z);
        // Nobody sets a saw to what a tape cannot tell from plumb.
        return !surface.lean && std::abs(tilt - kPi / 2) < kPlumbRad ? kPi / 2 : tilt;
    }
    if (!surface.lean) return kPi / 2;
    const double height = boundsOf(measured.frame).height();
    if (height <= 0) return kPi / 2;
    const double over = std::clamp(surface.lean->length.value / height, 0.0, 0.99);
    return surface.leansOut ? kPi - std::acos(over) : std::acos(over);
}

} // namespace westrum
