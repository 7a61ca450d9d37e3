#include "core/measure/frames.h"

#include "core/measure/developed.h"
#include "core/measure/slips.h"
#include "core/measure/stations.h"
#include "core/measure/two_point.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

using R = QuadReading;

/// A tape along a curve is good to about 5 mm; three times that from what chord and rise say is no accident.
constexpr double kCurveLimitMm = 15;

class Framer {
public:
    explicit Framer(const Measurement& m) : m_(m) {}

    MeasuredOutline run() {
        switch (m_.form) {
        case OutlineForm::Rectangle: rectangle(); break;
        case OutlineForm::FourSides: fourSides(); break;
        case OutlineForm::Polygon: polygon(); break;
        case OutlineForm::Stations: stations(); break;
        case OutlineForm::TwoPoint: twoPoint(); break;
        case OutlineForm::Drawn: drawn(); break;
        }
        return std::move(out_);
    }

private:
    void say(Severity severity, const std::string& key, RemarkKind kind, Facts facts, std::optional<Fix> fix = {}) {
        Place place{"", key.empty() ? Part::Whole : Part::Reading};
        place.key = key;
        out_.remarks.push_back({severity, std::move(place), kind, std::move(facts), std::move(fix)});
    }

    /// A reading that is there and sensible; what is wrong with one that is there is said.
    std::optional<double> sound(const MaybeReading& reading, const std::string& key, double least = kShortestSideMm) {
        if (!reading) return std::nullopt;
        const double mm = reading->length.value;
        if (!(mm >= 0) || (mm == 0 && least > 0)) {
            say(Severity::Error, key, RemarkKind::ReadingNotPositive, {{"reading", key}, {"length", reading->length}});
            return std::nullopt;
        }
        if (mm < least || mm > kLongestSideMm) {
            say(Severity::Error, key, RemarkKind::ReadingAbsurd,
                {{"reading", key}, {"length", reading->length}, {"least", Mm{least}}, {"most", Mm{kLongestSideMm}}});
            return std::nullopt;
        }
        return mm;
    }

    /// A reading that must be there: says that it is missing, once anything of the surface has been read.
    std::optional<double> needed(const MaybeReading& reading, const std::string& key, double least = kShortestSideMm) {
        if (!reading && !m_.empty()) say(Severity::Error, key, RemarkKind::ReadingMissing, {{"reading", key}});
        return sound(reading, key, least);
    }

    const MaybeReading& quad(R r) const { return m_.readings[static_cast<std::size_t>(r)]; }

    /// Takes a ring as frame, a side from each corner to the next, if it is an outline at all.
    void takeCorners(const Ring& ring) {
        std::vector<Ring> sides;
        for (std::size_t k = 0; k < ring.size(); ++k) sides.push_back({ring[k], ring[(k + 1) % ring.size()]});
        take(ring, std::move(sides));
    }
    void take(const Ring& ring, std::vector<Ring> sides) {
        if (crossesItself(ring)) return say(Severity::Error, {}, RemarkKind::OutlineCrosses, {});
        if (signedArea(ring) < kShortestSideMm * kShortestSideMm)
            return say(Severity::Error, {}, RemarkKind::OutlineEmpty, {});
        out_.frame = ring;
        out_.sides = std::move(sides);
    }

    /// The profile, if all its parts are read; says which is missing where some are.
    std::optional<std::vector<ProfilePart>> profile() {
        std::vector<ProfilePart> parts;
        const auto read = [](const CurveReadings::Part& part) { return part.length || part.rise; };
        if (std::any_of(m_.curve.parts.begin(), m_.curve.parts.end(), read))
            for (std::size_t i = 0; i < m_.curve.parts.size(); ++i)
                if (!m_.curve.parts[i].length)
                    say(Severity::Error, readingKey('p', static_cast<int>(i)), RemarkKind::ReadingMissing,
                        {{"reading", readingKey('p', static_cast<int>(i))}});
        for (std::size_t i = 0; i < m_.curve.parts.size(); ++i) {
            const CurveReadings::Part& part = m_.curve.parts[i];
            const auto length = sound(part.length, readingKey('p', static_cast<int>(i)));
            if (!length) return std::nullopt;
            const auto rise = sound(part.rise, readingKey('h', static_cast<int>(i)), 0);
            parts.push_back({*length, rise.value_or(0)});
        }
        return parts;
    }

    void rectangle() {
        const bool curved = m_.curve.curving != Curving::Flat;
        const auto length = needed(quad(R::AB), "AB");
        std::optional<double> width;
        if (curved && !quad(R::BC)) {
            // Not taped along the curve: the profile gives the width.
            const auto parts = profile();
            if (parts)
                width = developed(*parts).width.value;
            else if (!m_.empty() && std::none_of(m_.curve.parts.begin(), m_.curve.parts.end(),
                                                 [](const auto& part) { return part.length || part.rise; }))
                say(Severity::Error, "BC", RemarkKind::CurveUnmeasured, {{"reading", std::string("BC")}});
        } else {
            width = needed(quad(R::BC), "BC");
            if (curved && width) {
                const auto parts = profile();
                const double off = parts ? *width - developed(*parts).width.value : 0;
                if (std::abs(off) > kCurveLimitMm)
                    say(Severity::Warning, "BC", RemarkKind::CurveDisagrees,
                        {{"reading", std::string("BC")}, {"length", Mm{*width}}, {"implied", developed(*parts).width}});
            }
        }
        if (length && width) takeCorners({{0, 0}, {*length, 0}, {*length, *width}, {0, *width}});
    }

    void fourSides() {
        QuadReadings q;
        bool complete = true;
        for (R r : {R::AB, R::BC, R::CD, R::DA}) {
            q.mm[static_cast<std::size_t>(r)] = needed(quad(r), readingKey(r));
            complete = complete && q.has(r);
        }
        for (R r : {R::AC, R::BD}) q.mm[static_cast<std::size_t>(r)] = sound(quad(r), readingKey(r));
        if (!complete) return;
        if (!q.has(R::AC) && !q.has(R::BD)) {
            // Without a diagonal four sides can lean to either side: take a square corner at A and say so.
            q.mm[static_cast<std::size_t>(R::BD)] = std::hypot(q[R::AB], q[R::DA]);
            say(Severity::Warning, "AC", RemarkKind::SquareAssumed, {{"reading", std::string("AC")}});
        }
        QuadFit fit = fitQuad(q);
        if (fit.impossible) {
            const OpenTriangle& t = *fit.impossible;
            const std::string longest = readingKey(t.longest);
            say(Severity::Error, longest, RemarkKind::SidesCannotClose,
                {{"reading", longest},
                 {"other", readingKey(t.others[0])},
                 {"another", readingKey(t.others[1])},
                 {"gap", Mm{t.gap}}});
            out_.fit = fit;
            return;
        }
        if (q.has(R::AC) && q.has(R::BD)) {
            std::vector<CornerDistance> readings;
            std::vector<std::string> keys;
            for (std::size_t k = 0; k < kQuadReadings; ++k) {
                readings.push_back({kQuadEnds[k][0], kQuadEnds[k][1], *q.mm[k]});
                keys.push_back(readingKey(static_cast<R>(k)));
            }
            judge({fit.corners.begin(), fit.corners.end()}, readings, keys);
        }
        takeCorners(Ring(fit.corners.begin(), fit.corners.end()));
        out_.fit = fit;
    }

    void polygon() {
        const PolygonReadings& p = m_.polygon;
        const int n = static_cast<int>(p.sides.size());
        if (n < 3 || m_.empty()) return;
        NetworkReport report;
        std::vector<CornerDistance> readings;
        bool complete = true;
        for (int k = 0; k < n; ++k) {
            const std::string key = readingKey('S', k);
            const auto mm = needed(p.sides[static_cast<std::size_t>(k)], key);
            complete = complete && mm;
            if (mm) {
                readings.push_back({k, (k + 1) % n, *mm});
                report.keys.push_back(key);
            }
        }
        for (std::size_t d = 0; d < p.diagonals.size(); ++d) {
            const PolygonReadings::Diagonal& diagonal = p.diagonals[d];
            const std::string key = readingKey('D', static_cast<int>(d));
            const auto mm = sound(diagonal.length, key);
            const int from = diagonal.from, to = diagonal.to;
            if (!mm || from == to || from < 0 || to < 0 || from >= n || to >= n) continue;
            readings.push_back({from, to, *mm});
            report.keys.push_back(key);
        }
        if (!complete) return;
        report.fit = fitNetwork(n, readings, p.turns);
        const NetworkFit& fit = report.fit;
        const auto keyOf = [&](int reading) { return report.keys[static_cast<std::size_t>(reading)]; };
        switch (fit.state) {
        case NetworkState::Undetermined: {
            // The first diagonal not yet read that would hold the corner.
            std::string key;
            for (std::size_t d = 0; d < p.diagonals.size() && key.empty(); ++d)
                if (!p.diagonals[d].length && (p.diagonals[d].from == fit.at || p.diagonals[d].to == fit.at))
                    key = readingKey('D', static_cast<int>(d));
            say(Severity::Error, key, RemarkKind::DiagonalMissing, {{"corner", cornerName(fit.at)}});
            break;
        }
        case NetworkState::CannotClose:
            say(Severity::Error, keyOf(fit.at), RemarkKind::ReadingTooLong, {{"reading", keyOf(fit.at)}});
            break;
        case NetworkState::Crosses: say(Severity::Error, {}, RemarkKind::OutlineCrosses, {}); break;
        case NetworkState::Solved:
            if (fit.turnsEitherWay >= 0)
                say(Severity::Error, {}, RemarkKind::OutlineEitherWay,
                    {{"corner", cornerName(fit.turnsEitherWay)},
                     {"area", signedArea(fit.corners) / 1e6},
                     {"otherArea", signedArea(fit.otherwise) / 1e6}},
                    Fix{FixKind::TurnCorner, turnsIn(fit.corners, fit.turnsEitherWay) ? "out" : "in",
                        static_cast<double>(fit.turnsEitherWay)});
            judge(fit.corners, readings, report.keys);
            takeCorners(fit.corners);
            break;
        }
        out_.network = std::move(report);
    }

    static std::string cornerName(int corner) { return std::string(1, static_cast<char>('A' + corner % 26)); }

    static bool turnsIn(const std::vector<Point>& corners, int corner) {
        const std::size_t n = corners.size(), k = static_cast<std::size_t>(corner);
        return cross(corners[k] - corners[(k + n - 1) % n], corners[(k + 1) % n] - corners[k]) < 0;
    }

    /// Says which readings may be wrong, and by how much.
    void judge(const std::vector<Point>& corners, const std::vector<CornerDistance>& readings,
               const std::vector<std::string>& keys) {
        const SlipFinding finding = findSlip(corners, readings);
        if (!finding.wrong()) return;
        SlipReport report{{}, finding.proved, finding.several, finding.others, {}};
        for (const Suspect& s : finding.suspects) {
            const double reads = readings[static_cast<std::size_t>(s.reading)].mm;
            report.suspects.push_back(
                {keys[static_cast<std::size_t>(s.reading)], Mm{reads}, Mm{reads - s.slip}, s.chance, s.corners});
        }
        if (finding.decides) report.decides = {finding.decides->from, finding.decides->to};
        const SuspectReading& first = report.suspects.front();
        Facts facts{
            {"reading", first.key}, {"misclosure", first.slip()}, {"length", first.reads}, {"implied", first.implied}};
        static constexpr std::array<const char*, 3> names{"reading", "other", "another"},
            by{"", "otherBy", "anotherBy"};
        for (std::size_t k = 1; k < report.suspects.size(); ++k) {
            facts.emplace_back(names[k], report.suspects[k].key);
            facts.emplace_back(by[k], report.suspects[k].slip());
        }
        if (report.others > 0) facts.emplace_back("count", static_cast<std::int64_t>(report.others));
        if (report.decides) {
            facts.emplace_back("corner", cornerName(report.decides->first));
            facts.emplace_back("toCorner", cornerName(report.decides->second));
        }
        say(Severity::Error, first.key,
            report.proved    ? RemarkKind::ReadingsDisagree
            : report.several ? RemarkKind::SeveralReadingsWrong
                             : RemarkKind::OneReadingWrong,
            std::move(facts),
            report.decides ? std::optional(Fix{FixKind::AddDiagonal, std::to_string(report.decides->first),
                                               static_cast<double>(report.decides->second)})
                           : std::nullopt);
        out_.slip = std::move(report);
    }

    void stations() {
        const StationReadings& s = m_.stations;
        if (m_.empty()) return;
        StationCurve upper, lower;
        upper.join = lower.join = s.smooth ? StationJoin::Smooth : StationJoin::Straight;
        bool good = true;
        for (std::size_t i = 0; i < s.rows.size(); ++i) {
            const StationReadings::Row& row = s.rows[i];
            const int at = static_cast<int>(i);
            if (!row.at && !row.offset && !row.other) continue; // a line not used
            const auto x = needed(row.at, readingKey('x', at), 0);
            const auto y = needed(row.offset, readingKey('y', at), 0);
            const auto z = s.bothSides ? needed(row.other, readingKey('z', at), 0) : std::optional<double>(0);
            if (!x || !y || !z) {
                good = false;
                continue;
            }
            if (!upper.at.empty() && *x <= upper.at.back()) {
                say(Severity::Error, readingKey('x', at), RemarkKind::StationsNotRising,
                    {{"reading", readingKey('x', at)}, {"length", Mm{*x}}, {"before", Mm{upper.at.back()}}});
                good = false;
                continue;
            }
            upper.at.push_back(*x);
            upper.offset.push_back(*y);
            lower.at.push_back(*x);
            lower.offset.push_back(-*z);
        }
        if (!good) return;
        if (upper.at.size() < 2)
            return say(Severity::Error, readingKey('x', 1), RemarkKind::ReadingMissing,
                       {{"reading", readingKey('x', 1)}});
        Ring top = flattened(upper);
        std::reverse(top.begin(), top.end());
        const Ring base = s.bothSides ? flattened(lower) : Ring{{upper.at.front(), 0}, {upper.at.back(), 0}};
        // An end of no height is no side; where an offset is 0 the curve meets the baseline.
        Ring ring = base;
        std::vector<Ring> sides{base, {base.back(), top.front()}, top, {top.back(), base.front()}};
        for (const Point& p : top)
            if (distance(ring.back(), p) > 1e-9) ring.push_back(p);
        if (distance(ring.back(), ring.front()) <= 1e-9) ring.pop_back();
        take(ring, std::move(sides));
    }

    void drawn() {
        if (m_.drawn.size() < 3) return;
        const Bounds b = boundsOf(m_.drawn);
        for (const double extent : {b.width(), b.height()})
            if (!(extent >= kShortestSideMm) || extent > kLongestSideMm)
                return say(Severity::Error, {}, RemarkKind::DrawnAbsurd,
                           {{"length", Mm{extent}}, {"least", Mm{kShortestSideMm}}, {"most", Mm{kLongestSideMm}}});
        // The frame starts where its first side does.
        std::vector<Ring> sides = drawnSides(m_.drawn);
        Ring ring;
        for (const Ring& side : sides) ring.insert(ring.end(), side.begin(), side.end() - 1);
        take(ring, std::move(sides));
    }

    void twoPoint() {
        const FixedPointReadings& f = m_.fixedPoints;
        if (m_.empty()) return;
        const auto base = needed(f.base, "base");
        std::vector<TwoPointReading> readings;
        std::vector<int> rowOf;
        bool good = base.has_value();
        for (std::size_t i = 0; i < f.rows.size(); ++i) {
            const FixedPointReadings::Row& row = f.rows[i];
            if (!row.fromA && !row.fromB) continue;
            const auto a = needed(row.fromA, readingKey('a', static_cast<int>(i)), 0);
            const auto b = needed(row.fromB, readingKey('b', static_cast<int>(i)), 0);
            good = good && a && b;
            if (!a || !b) continue;
            readings.push_back({*a, *b, row.below});
            rowOf.push_back(static_cast<int>(i));
        }
        if (!good) return;
        if (readings.size() < 3) {
            const std::string key = readingKey('a', static_cast<int>(readings.size()));
            return say(Severity::Error, key, RemarkKind::ReadingMissing, {{"reading", key}});
        }
        Ring ring;
        const std::vector<TwoPointCorner> corners = cornersFromTwoPoints(*base, readings);
        for (std::size_t i = 0; i < corners.size(); ++i) {
            const std::string key = readingKey('a', rowOf[i]);
            if (corners[i].meeting == TapeMeeting::Impossible) {
                say(Severity::Error, key, RemarkKind::TapesDoNotMeet,
                    {{"reading", key}, {"other", readingKey('b', rowOf[i])}, {"gap", Mm{corners[i].shortBy}}});
                good = false;
            } else if (corners[i].meeting == TapeMeeting::Weak) {
                say(Severity::Warning, key, RemarkKind::TapesMeetFlat,
                    {{"reading", key}, {"other", readingKey('b', rowOf[i])}});
            }
            ring.push_back(corners[i].at);
        }
        if (!good) return;
        if (crossesItself(ring)) return say(Severity::Error, {}, RemarkKind::OutlineCrosses, {});
        if (signedArea(ring) < 0) std::reverse(ring.begin(), ring.end());
        // The frame's lower left is the origin, whatever the fixed points were.
        const Bounds b = boundsOf(ring);
        for (Point& p : ring) p = p - b.low;
        out_.fixedA = Point{} - b.low;
        out_.fixedB = Point{*base, 0} - b.low;
        takeCorners(ring);
    }

    const Measurement& m_;
    MeasuredOutline out_;
};

} // namespace

MeasuredOutline frameOf(const Measurement& measurement) { return Framer(measurement).run(); }

void addCurvature(const Measurement& m, Mm width, Mm height, MeasuredOutline& out) {
    if (m.curve.curving == Curving::Flat) return;
    std::vector<ProfilePart> parts;
    for (const CurveReadings::Part& part : m.curve.parts)
        if (part.length && part.length->length.value > 0)
            parts.push_back({part.length->length.value, part.rise ? std::max(0.0, part.rise->length.value) : 0});
    const Developed across = developed(parts);
    out.leastRadius = across.leastRadius;
    if (m.curve.curving != Curving::Double) return;
    const auto& chord = m.curve.alongChord;
    const auto& rise = m.curve.alongRise;
    if (!chord || !rise || chord->length.value <= 0 || rise->length.value <= 0 || !across.leastRadius) {
        out.remarks.push_back({Severity::Warning, {"", Part::Whole}, RemarkKind::StretchUnknown, {}, {}});
        return;
    }
    const Mm along{radiusOf({chord->length.value, rise->length.value})};
    out.leastRadius = std::min(*out.leastRadius, along);
    out.stretch = stretchOfDoubleCurve(width, height, *across.leastRadius, along);
    out.remarks.push_back(
        {Severity::Note, {"", Part::Whole}, RemarkKind::DoubleCurve, {{"stretch", *out.stretch}}, {}});
}

} // namespace westrum
