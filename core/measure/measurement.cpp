#include "core/measure/measurement.h"

#include "core/geometry/boolean.h"

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

using R = QuadReading;

constexpr std::array<const char*, kQuadReadings> kKeys{"AB", "BC", "CD", "DA", "AC", "BD"};

class Outliner {
public:
    explicit Outliner(const Measurement& m) : m_(m) {}

    MeasuredOutline run() {
        if (!frame()) return std::move(out_);
        Region outline{{Ring(out_.frame->begin(), out_.frame->end())}};
        for (std::size_t i = 0; i < m_.notches.size(); ++i)
            if (const auto cut = notch(static_cast<int>(i))) outline = difference(outline, {{*cut}});
        for (std::size_t i = 0; i < m_.steps.size(); ++i)
            if (const auto cut = step(static_cast<int>(i))) outline = difference(outline, {{*cut}});
        std::vector<Region> parts = partsOf(outline);
        std::erase_if(parts, [](const Region& part) { return areaMm2(part) < kShortestSideMm * kShortestSideMm; });
        if (parts.empty()) {
            say(Severity::Error, {"", Part::Whole}, RemarkKind::OutlineEmpty, {});
            return std::move(out_);
        }
        if (parts.size() > 1)
            say(Severity::Warning, {"", Part::Whole}, RemarkKind::OutlineInPieces,
                {{"count", static_cast<std::int64_t>(parts.size())}});
        for (const Region& part : parts)
            out_.outline.rings.insert(out_.outline.rings.end(), part.rings.begin(), part.rings.end());
        return std::move(out_);
    }

private:
    void say(Severity severity, Place place, RemarkKind kind, Facts facts, std::optional<Fix> fix = {}) {
        out_.remarks.push_back({severity, std::move(place), kind, std::move(facts), std::move(fix)});
    }

    /// A side or diagonal that is there and sensible.
    std::optional<double> sound(R r) {
        const auto& reading = m_.readings[static_cast<std::size_t>(r)];
        const Place place{"", Part::Reading, static_cast<int>(r)};
        if (!reading) return std::nullopt;
        const double mm = reading->length.value;
        if (!(mm > 0)) {
            say(Severity::Error, place, RemarkKind::ReadingNotPositive,
                {{"reading", readingKey(r)}, {"length", reading->length}},
                Fix{FixKind::RetakeReading, readingKey(r), {}});
            return std::nullopt;
        }
        if (mm < kShortestSideMm || mm > kLongestSideMm) {
            say(Severity::Error, place, RemarkKind::ReadingAbsurd,
                {{"reading", readingKey(r)},
                 {"length", reading->length},
                 {"least", Mm{kShortestSideMm}},
                 {"most", Mm{kLongestSideMm}}},
                Fix{FixKind::RetakeReading, readingKey(r), {}});
            return std::nullopt;
        }
        return mm;
    }

    void missing(R r) {
        if (m_.readings[static_cast<std::size_t>(r)]) return; // it is there, but wrong: already said
        say(Severity::Error, {"", Part::Reading, static_cast<int>(r)}, RemarkKind::ReadingMissing,
            {{"reading", readingKey(r)}}, Fix{FixKind::RetakeReading, readingKey(r), {}});
    }

    bool frame() { return m_.form == OutlineForm::Rectangle ? rectangle() : fourSides(); }

    bool rectangle() {
        const auto length = sound(R::AB);
        const auto width = sound(R::BC);
        if (!length || !width) {
            if (!m_.empty()) {
                if (!length) missing(R::AB);
                if (!width) missing(R::BC);
            }
            return false;
        }
        out_.frame = {{{0, 0}, {*length, 0}, {*length, *width}, {0, *width}}};
        return true;
    }

    bool fourSides() {
        QuadReadings q;
        bool complete = true;
        for (R r : {R::AB, R::BC, R::CD, R::DA}) {
            q.mm[static_cast<std::size_t>(r)] = sound(r);
            if (!q.has(r)) {
                complete = false;
                if (!m_.empty()) missing(r);
            }
        }
        for (R r : {R::AC, R::BD}) q.mm[static_cast<std::size_t>(r)] = sound(r);
        if (!complete) return false;
        if (!q.has(R::AC) && !q.has(R::BD)) {
            // Without a diagonal four sides can lean to either side: take a square corner at A and say so.
            q.mm[static_cast<std::size_t>(R::BD)] = std::hypot(q[R::AB], q[R::DA]);
            say(Severity::Warning, {"", Part::Reading, static_cast<int>(R::AC)}, RemarkKind::SquareAssumed,
                {{"reading", readingKey(R::AC)}}, Fix{FixKind::RetakeReading, readingKey(R::AC), {}});
        }
        QuadFit fit = fitQuad(q);
        if (fit.impossible) {
            const OpenTriangle& t = *fit.impossible;
            say(Severity::Error, {"", Part::Reading, static_cast<int>(t.longest)}, RemarkKind::SidesCannotClose,
                {{"reading", readingKey(t.longest)},
                 {"other", readingKey(t.others[0])},
                 {"another", readingKey(t.others[1])},
                 {"gap", Mm{t.gap}}},
                Fix{FixKind::RetakeReading, readingKey(t.longest), {}});
            out_.fit = std::move(fit);
            return false;
        }
        if (const auto off = fit.misclosure[static_cast<std::size_t>(fit.likeliest)];
            off && std::abs(*off) > kMisclosureLimitMm) {
            const double reads = q[fit.likeliest];
            say(Severity::Error, {"", Part::Reading, static_cast<int>(fit.likeliest)}, RemarkKind::ReadingsDisagree,
                {{"reading", readingKey(fit.likeliest)},
                 {"misclosure", Mm{*off}},
                 {"length", Mm{reads}},
                 {"implied", Mm{reads - *off}}},
                Fix{FixKind::RetakeReading, readingKey(fit.likeliest), reads - *off});
        }
        const Ring ring(fit.corners.begin(), fit.corners.end());
        const bool usable = signedArea(ring) >= kShortestSideMm * kShortestSideMm && !crossesItself(ring);
        if (usable)
            out_.frame = fit.corners;
        else
            say(Severity::Error, {"", Part::Whole}, RemarkKind::OutlineEmpty, {});
        out_.fit = std::move(fit);
        return usable;
    }

    /// A reading of a notch or step; says what is missing or not positive.
    std::optional<double> cutoutReading(const std::optional<Reading>& reading, const char* what,
                                        const std::string& name, Place place, bool zeroAllowed) {
        if (!reading) {
            say(Severity::Warning, place, RemarkKind::CutoutIncomplete,
                {{"cutout", name}, {"reading", std::string(what)}});
            return std::nullopt;
        }
        const double mm = reading->length.value;
        if (mm < 0 || (mm == 0 && !zeroAllowed)) {
            say(Severity::Error, place, RemarkKind::ReadingNotPositive,
                {{"reading", name + " " + what}, {"length", reading->length}});
            return std::nullopt;
        }
        return mm;
    }

    std::optional<Ring> notch(int index) {
        const Notch& n = m_.notches[static_cast<std::size_t>(index)];
        const Place place{"", Part::Notch, index};
        const auto position = cutoutReading(n.position, "position", n.name, place, true);
        const auto length = cutoutReading(n.length, "length", n.name, place, false);
        const auto depth = cutoutReading(n.depth, "depth", n.name, place, false);
        if (!position || !length || !depth || n.side < 0 || n.side > 3) return std::nullopt;
        const auto& c = *out_.frame;
        Point start = c[static_cast<std::size_t>(n.side)];
        Point end = c[static_cast<std::size_t>((n.side + 1) % 4)];
        const Point inward = [&] {
            const Point u = (end - start) * (1 / distance(start, end));
            return Point{-u.y, u.x};
        }();
        // Sides CD and DA run towards the rear and the right; their notches are still measured from there.
        if (n.side >= 2) std::swap(start, end);
        const double side = distance(start, end);
        if (*position + *length > side + 1) {
            say(Severity::Error, place, RemarkKind::NotchOutside,
                {{"cutout", n.name}, {"length", Mm{*position + *length}}, {"limit", Mm{side}}});
            return std::nullopt;
        }
        const Ring frameRing(c.begin(), c.end());
        const Bounds b = boundsOf(frameRing);
        const double across = n.side % 2 == 0 ? b.height() : b.width();
        if (*depth >= across) {
            say(Severity::Error, place, RemarkKind::NotchTooDeep,
                {{"cutout", n.name}, {"length", Mm{*depth}}, {"limit", Mm{across}}});
            return std::nullopt;
        }
        const Point u = (end - start) * (1 / side);
        // A margin outwards, so that nothing of the side is left standing in front of the notch.
        // At a corner that is not square the notch takes the corner's lean with it.
        constexpr double lean = 200;
        const Point from = start + u * (*position < 1 ? -lean : *position);
        const Point to = start + u * (*position + *length > side - 1 ? side + lean : *position + *length);
        const Point out = inward * -1.0;
        Ring cut{from + out, to + out, to + inward * *depth, from + inward * *depth};
        if (signedArea(cut) < 0) std::reverse(cut.begin(), cut.end());
        return cut;
    }

    std::optional<Ring> step(int index) {
        const Step& s = m_.steps[static_cast<std::size_t>(index)];
        const Place place{"", Part::Step, index};
        const auto along = cutoutReading(s.along, "along", s.name, place, false);
        const auto across = cutoutReading(s.across, "across", s.name, place, false);
        if (!along || !across || s.corner < 0 || s.corner > 3) return std::nullopt;
        const auto& c = *out_.frame;
        const Point corner = c[static_cast<std::size_t>(s.corner)];
        const Point next = c[static_cast<std::size_t>((s.corner + 1) % 4)];
        const Point before = c[static_cast<std::size_t>((s.corner + 3) % 4)];
        // From A and C the next side is one of AB, CD; from B and D it is the one before.
        const Point alongEnd = s.corner % 2 == 0 ? next : before;
        const Point acrossEnd = s.corner % 2 == 0 ? before : next;
        const double alongSide = distance(corner, alongEnd);
        const double acrossSide = distance(corner, acrossEnd);
        if (*along >= alongSide || *across >= acrossSide) {
            const bool first = *along >= alongSide;
            say(Severity::Error, place, RemarkKind::StepOutside,
                {{"cutout", s.name},
                 {"length", Mm{first ? *along : *across}},
                 {"limit", Mm{first ? alongSide : acrossSide}}});
            return std::nullopt;
        }
        const Point u = (alongEnd - corner) * (1 / alongSide);
        const Point v = (acrossEnd - corner) * (1 / acrossSide);
        Ring cut{corner - u - v, corner + u * *along - v, corner + u * *along + v * *across, corner - u + v * *across};
        if (signedArea(cut) < 0) std::reverse(cut.begin(), cut.end());
        return cut;
    }

    const Measurement& m_;
    MeasuredOutline out_;
};

} // namespace

bool Measurement::empty() const {
    return std::none_of(readings.begin(), readings.end(), [](const auto& r) { return r.has_value(); });
}

std::string readingKey(QuadReading reading) { return kKeys[static_cast<std::size_t>(reading)]; }

MeasuredOutline outlineOf(const Measurement& measurement) { return Outliner(measurement).run(); }

} // namespace westrum
