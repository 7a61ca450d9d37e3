#include "formats/trim_words.h"

#include "formats/fact_printer.h"

#include <QCoreApplication>

#include <numbers>

namespace westrum {
namespace {

struct TrimWords {
    Q_DECLARE_TR_FUNCTIONS(TrimWords)
};

QString degrees(double rad, const Figures& figures) {
    return figures.number(rad * 180 / std::numbers::pi, 1) + QStringLiteral("°");
}

} // namespace

QString profileText(Profile profile) { return fieldName(profileName(profile)); }

QString meetingText(EdgeMeeting meeting) {
    switch (meeting) {
    case EdgeMeeting::FloorAtWall: return TrimWords::tr("floor against an upright surface");
    case EdgeMeeting::FloorAtDoor: return TrimWords::tr("floor at a door");
    case EdgeMeeting::CeilingAtWall: return TrimWords::tr("ceiling and wall");
    case EdgeMeeting::InsideCorner: return TrimWords::tr("inside corner");
    case EdgeMeeting::OutsideCorner: return TrimWords::tr("outside corner");
    case EdgeMeeting::WetCorner: return TrimWords::tr("corner of the wet cell");
    case EdgeMeeting::FreeEdge: return TrimWords::tr("free edge");
    case EdgeMeeting::Reveal: return TrimWords::tr("turned in at a door");
    case EdgeMeeting::UnderTrim: return TrimWords::tr("edge under a trim");
    case EdgeMeeting::PanelJoint: return TrimWords::tr("joint of two panels");
    case EdgeMeeting::Opening: return TrimWords::tr("bound edge of an opening");
    case EdgeMeeting::OpeningReveal: return TrimWords::tr("reveal of an opening");
    }
    return {};
}

QString runText(const TrimRun& run, const Job& job, const Figures& figures) {
    const Product* product = job.catalogue.find(run.product);
    const QString what =
        product ? fromStd(product->name) : TrimWords::tr("%1, none chosen").arg(profileText(run.profile));
    const Surface* other = job.surface(run.neighbour);
    QString where = meetingText(run.meeting);
    if (other) where = TrimWords::tr("to %1").arg(fromStd(other->name));
    const QString name = run.side >= 0                            ? TrimWords::tr("side %1").arg(fromStd(run.name))
                         : run.meeting == EdgeMeeting::PanelJoint ? TrimWords::tr("joint %1").arg(fromStd(run.name))
                                                                  : TrimWords::tr("cut-out %1").arg(fromStd(run.name));
    QString text = TrimWords::tr("%1: %2, %3, %4").arg(name, what, where, figures.length(run.length));
    if (run.pieces.size() > 1) text += TrimWords::tr(", in %n piece(s)", nullptr, static_cast<int>(run.pieces.size()));
    return text;
}

QString settingText(const SawSetting& s, const Figures& figures) {
    if (s.square()) return {};
    QStringList parts;
    if (s.mitreRad > 1e-6) parts << TrimWords::tr("mitre %1").arg(degrees(s.mitreRad, figures));
    if (s.bevelRad > 1e-6) parts << TrimWords::tr("bevel %1").arg(degrees(s.bevelRad, figures));
    return parts.join(QStringLiteral(", "));
}

QString jointTitle(const TrimJoint& j) {
    const QString corner = j.inside ? TrimWords::tr("inside corner") : TrimWords::tr("outside corner");
    switch (j.end) {
    case TrimEnd::Square:
        return j.planRad > 0 && j.planRad < std::numbers::pi * 0.999 ? TrimWords::tr("square end at a corner")
                                                                     : TrimWords::tr("square end");
    case TrimEnd::Mitred: return TrimWords::tr("mitred, %1").arg(corner);
    case TrimEnd::Coped: return TrimWords::tr("coped, %1").arg(corner);
    case TrimEnd::Butted: return TrimWords::tr("butted, %1").arg(corner);
    case TrimEnd::Blocked: return TrimWords::tr("against a corner block, %1").arg(corner);
    case TrimEnd::Scarfed: return TrimWords::tr("scarf in the run");
    case TrimEnd::Angled: return TrimWords::tr("at an angle of its own");
    }
    return {};
}

QString jointText(const TrimJoint& j, const Figures& figures) {
    const QString setting = settingText(j.saw, figures);
    QStringList said;
    switch (j.end) {
    case TrimEnd::Square: said << TrimWords::tr("Cut square; it ends here, or against something else."); break;
    case TrimEnd::Mitred:
        said << TrimWords::tr("Set the saw to %1.").arg(setting);
        if (j.saw.longEdge == LongEdge::Bottom) said << TrimWords::tr("The lower edge stays longer.");
        if (j.saw.longEdge == LongEdge::Top) said << TrimWords::tr("The upper edge stays longer.");
        break;
    case TrimEnd::Coped:
        said << TrimWords::tr("Saw it first at %1, face up: the line between face and cut is the profile to trace. "
                              "Saw back along it, a little under, and try it against the piece that runs through.")
                    .arg(setting);
        break;
    case TrimEnd::Butted:
        said << TrimWords::tr("Cut square; one of the two runs through, the other stops at its face.");
        break;
    case TrimEnd::Blocked: said << TrimWords::tr("Cut square; a corner block stands between the two."); break;
    case TrimEnd::Angled:
        said << TrimWords::tr("Set the saw to %1; it runs against what stands there.").arg(setting);
        said << (j.planRad < std::numbers::pi / 2 ? TrimWords::tr("Its back stays longer.")
                                                  : TrimWords::tr("Its front stays longer."));
        break;
    case TrimEnd::Scarfed:
        said << TrimWords::tr("Saw both pieces at 45° on the flat and lay one over the other, glued.");
        said << (j.onSupport ? TrimWords::tr("It lies on a support.")
                             : TrimWords::tr("No support lies under it: back it first."));
        break;
    }
    if (j.planRad > 0 && j.end != TrimEnd::Scarfed) {
        const double turn = std::abs(std::numbers::pi - j.planRad);
        if (turn < 3 * std::numbers::pi / 180)
            said << TrimWords::tr("The corner hardly turns.");
        else if (turn > 177 * std::numbers::pi / 180)
            said << TrimWords::tr("The corner turns back on itself: cut both square and cap them.");
        else if (j.crooked)
            said << TrimWords::tr("The corner is %1, not square: cut a trial pair from scrap.")
                        .arg(degrees(j.planRad, figures));
        else
            said << TrimWords::tr("The corner is %1.").arg(degrees(j.planRad, figures));
    }
    return said.join(QLatin1Char(' '));
}

} // namespace westrum
