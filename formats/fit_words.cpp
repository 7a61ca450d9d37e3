#include "formats/fact_printer.h"
#include "formats/words.h"

#include <QCoreApplication>

#include <cmath>

namespace westrum {
namespace {

/// The translation context of the steps' sentences.
struct FitWords {
    Q_DECLARE_TR_FUNCTIONS(FitWords)
};

/// "ripped to 78", "ripped from 73 to 66", or nothing for a whole board.
QString ripText(const FactPrinter& f) {
    const double start = f.mm("ripStart"), end = f.mm("ripEnd");
    if (start <= 0) return {};
    return std::abs(start - end) < 0.5
               ? FitWords::tr("Rip to %1.").arg(f["ripStart"])
               : FitWords::tr("Rip from %1 at its start to %2 at its end.").arg(f["ripStart"], f["ripEnd"]);
}

} // namespace

QString stepTitle(const FitStep& step, const Figures& figures) {
    const FactPrinter f(step.facts, figures);
    const double waits = step.wait ? step.wait->hours : 0;
    const QString hours = figures.number(waits, waits == std::round(waits) ? 0 : 1);
    switch (step.kind) {
    case StepKind::CheckDelivery: return FitWords::tr("Check the delivery and the lots");
    case StepKind::Acclimatise: return FitWords::tr("Let the packs rest");
    case StepKind::CheckBase: return FitWords::tr("Check the base");
    case StepKind::LayUnderlay: return FitWords::tr("Lay the underlay");
    case StepKind::FirstRow: return FitWords::tr("Row %1, first row").arg(f["row"]);
    case StepKind::Row: return FitWords::tr("Row %1").arg(f["row"]);
    case StepKind::LastRow: return FitWords::tr("Row %1, last row").arg(f["row"]);
    case StepKind::Trims: return FitWords::tr("Trim the edges");
    case StepKind::CablesTested: return FitWords::tr("Before you cover it: cables in and tested");
    case StepKind::PipesTested: return FitWords::tr("Before you cover it: pipes and wiring tested, access kept");
    case StepKind::BackingIn: return FitWords::tr("Before you cover it: backing timbers in");
    case StepKind::SupportsRecorded: return FitWords::tr("Before you cover it: supports recorded");
    case StepKind::BarrierTaped: return FitWords::tr("Before you cover it: barrier taped");
    case StepKind::TailsThrough: return FitWords::tr("Before you cover it: tails through");
    case StepKind::LayBarrier: return FitWords::tr("Lay the barrier");
    case StepKind::FitInsulation: return FitWords::tr("Fit the insulation");
    case StepKind::FixBattens: return FitWords::tr("Fix the battens");
    case StepKind::SpreadAdhesive: return FitWords::tr("Spread the adhesive");
    case StepKind::Coat: return FitWords::tr("Coat %1 of %2").arg(f["coat"], f["coats"]);
    case StepKind::RestTimber: return FitWords::tr("Let the timber rest");
    case StepKind::SnapLine: return FitWords::tr("Snap the line of the first joint");
    case StepKind::FirstBoard: return FitWords::tr("Row %1, first row").arg(f["row"]);
    case StepKind::BoardRow: return FitWords::tr("Row %1").arg(f["row"]);
    case StepKind::LastBoard: return FitWords::tr("Row %1, last row").arg(f["row"]);
    case StepKind::RoutOpenings: return FitWords::tr("Rout the covered openings");
    case StepKind::CarryHatch: return FitWords::tr("Carry the lines over the hatch: %1").arg(f["opening"]);
    case StepKind::MakeTemplate: return FitWords::tr("Make a template");
    case StepKind::CutPanels: return FitWords::tr("Cut the panels");
    case StepKind::DryFitPanels: return FitWords::tr("Dry fit");
    case StepKind::CutOpenings:
        return f.count("count") > 0 ? FitWords::tr("Cut the holes for lamps, sockets and vents")
                                    : FitWords::tr("Saw out what keeps its lid");
    case StepKind::FixPanel: return FitWords::tr("Panel %1").arg(f["panel"]);
    case StepKind::CloseJoints: return FitWords::tr("Close the joints");
    case StepKind::CheckBacking: return FitWords::tr("Check the backing");
    case StepKind::TileLines: return FitWords::tr("Mark the start lines");
    case StepKind::LayTiles:
    case StepKind::PeelTiles: return FitWords::tr("Set the whole tiles");
    case StepKind::CutTiles: return FitWords::tr("Cut and set the edges");
    case StepKind::GroutTiles: return FitWords::tr("Grout");
    case StepKind::RestVinyl: return FitWords::tr("Let the vinyl lie");
    case StepKind::CutLinings: return FitWords::tr("Cut the lining");
    case StepKind::CleanFace: return FitWords::tr("Clean the face");
    case StepKind::CleanGlass: return FitWords::tr("Clean the glass");
    case StepKind::StickLining: return FitWords::tr("Stick the lining");
    case StepKind::LayVinyl: return FitWords::tr("Lay the vinyl");
    case StepKind::CloseSeams: return FitWords::tr("Close the seams");
    case StepKind::TurnUpstand: return FitWords::tr("Turn the up-stand");
    case StepKind::TrimLining: return FitWords::tr("Trim it");
    case StepKind::WrapPanels: return FitWords::tr("Wrap the panels");
    case StepKind::ClipPanels: return FitWords::tr("Clip them in");
    case StepKind::LayFilm: return FitWords::tr("Lay the film");
    case StepKind::CutFoam: return FitWords::tr("Cut the foam");
    case StepKind::CutCloth: return FitWords::tr("Cut the cloth");
    case StepKind::SewZip: return FitWords::tr("Sew the zip in");
    case StepKind::SewPiping: return FitWords::tr("Make the piping");
    case StepKind::SewCushions: return FitWords::tr("Sew the covers");
    case StepKind::FillCushions: return FitWords::tr("Fill the covers");
    case StepKind::StapleCover: return FitWords::tr("Staple the cover");
    case StepKind::FitFittings: return FitWords::tr("Fit lamps, sockets and vent trims");
    case StepKind::FitTrim:
    case StepKind::FitEdging:
    case StepKind::RunBead: return f["product"];
    }
    return {};
}

/// Holes that are made on the bench, and what of them is kept.
QString holesText(const FitStep& step, const FactPrinter& f, const Figures& figures) {
    QStringList lines;
    if (const auto holes = static_cast<int>(f.count("count")); holes > 0)
        lines << FitWords::tr("%n hole(s), on the bench: once the panel is up, nothing can be drilled from behind.",
                              nullptr, holes);
    for (std::size_t i = 0; i + 4 < step.facts.size(); ++i) {
        if (step.facts[i].first != "lid") continue;
        const Facts lid(step.facts.begin() + static_cast<std::ptrdiff_t>(i),
                        step.facts.begin() + static_cast<std::ptrdiff_t>(i + 5));
        const FactPrinter own(lid, figures);
        QString line = FitWords::tr("%1: begin the saw in a drilled corner, keep what comes out and trim it to %2 × %3 "
                                    "as its lid, %4 of a gap all round.")
                           .arg(own["lid"], figures.length({own.mm("length")}, false),
                                figures.length({own.mm("width")}), figures.fineLength({own.mm("gap")}));
        if (own.mm("finger") > 0)
            line += QLatin1Char(' ') + FitWords::tr("A hole of %1 in its middle lifts it; round its edge.")
                                           .arg(figures.length({own.mm("finger")}));
        lines << line;
    }
    return lines.join(QLatin1Char('\n'));
}

/// How a panel is held, in the one way that is bought for it.
QString panelText(const FactPrinter& f, const Figures& figures) {
    const QString apart = FitWords::tr("%1 apart at its edges, %2 in the field")
                              .arg(figures.length({f.mm("edge")}), figures.length({f.mm("field")}));
    const bool again = f.count("removable") != 0;
    QString held;
    switch (static_cast<FixedWith>(f.count("held"))) {
    case FixedWith::Screws:
        held = again ? FitWords::tr("It comes off again: screws with cups, %1, and no glue.").arg(apart)
                     : FitWords::tr("Screws %1.").arg(apart);
        break;
    case FixedWith::RivetNuts:
        held = FitWords::tr("Machine screws with washers into rivet nuts, %1.").arg(apart);
        break;
    case FixedWith::ExpandingNuts:
        held = FitWords::tr("Machine screws with washers into expanding nuts, %1.").arg(apart);
        break;
    case FixedWith::PanelClips: held = FitWords::tr("It hangs in panel clips and comes off again; no glue."); break;
    case FixedWith::HookAndLoop:
        held = FitWords::tr("Hook-and-loop behind it, %1; it comes off again.").arg(apart);
        break;
    case FixedWith::Staples: held = FitWords::tr("Staples %1.").arg(apart); break;
    case FixedWith::AsNeeded: break; // by now it is known
    case FixedWith::AdhesiveAlone:
        held = FitWords::tr("The adhesive below holds it: press or prop it until it has set.");
        break;
    }
    const int places = static_cast<int>(f.count("count")), drilled = static_cast<int>(f.count("drilled"));
    if (places > 0) held += FitWords::tr(" %n place(s) in all.", nullptr, places);
    if (drilled > 0) held += FitWords::tr(" Drill it on the bench, as its cut sheet marks it.");
    return FitWords::tr("%1 × %2. %3 Joints on their support.")
        .arg(figures.length({f.mm("length")}, false), figures.length({f.mm("width")}), held);
}

/// What whoever lays strips must know beyond their number.
QString jointsOf(int joints) {
    return joints > 0 ? FitWords::tr(" %n joint(s) in strips longer than a roll: butted, never where one treads most.",
                                     nullptr, joints)
                      : QString();
}

QString insulationText(const FactPrinter& f, const Figures& figures) {
    const int pieces = static_cast<int>(f.count("count"));
    const QString how = f.count("between") == 0 ? FitWords::tr("%1: over the supports, joints tight, %2.")
                        : f.count("gives") > 0
                            ? FitWords::tr("%1: cut a little over size and press between the supports, %2.")
                            : FitWords::tr("%1: cut to its bay, joints tight, gaps filled, %2.");
    const QString all = how.arg(f["product"], figures.area({f.share("area")}));
    return pieces > 0 ? all + FitWords::tr(" %n piece(s), as Cut lays them out.", nullptr, pieces)
                      : all + FitWords::tr(" Offcuts may be pressed in.");
}

QString stepBody(const FitStep& step, const Figures& figures) {
    const FactPrinter f(step.facts, figures);
    const double waits = step.wait ? step.wait->hours : 0;
    const QString hours = figures.number(waits, waits == std::round(waits) ? 0 : 1);
    switch (step.kind) {
    case StepKind::CheckDelivery:
        return FitWords::tr("%n pack(s) of one lot? Measure one plank: length, width, locks whole.", nullptr,
                            static_cast<int>(f.count("packs")));
    case StepKind::Acclimatise:
        return FitWords::tr(
                   "%1 hours flat in the van at %2 to %3 °C; lay at %4 to %5 °C. The label goes before these figures.")
            .arg(hours, f["restLow"], f["restHigh"], f["layLow"], f["layHigh"]);
    case StepKind::CheckBase:
        return FitWords::tr("Firm, dry, flat and swept; screws sunk. Mark a gap of %1 along every edge.").arg(f["gap"]);
    case StepKind::LayUnderlay: {
        const QString strips = FitWords::tr("%n strip(s)", nullptr, static_cast<int>(f.count("strips")));
        return (f.count("along") == 1 ? FitWords::tr("%1 along the van, %2 in all, butted and taped.")
                                      : FitWords::tr("%1 across the van, %2 in all, butted and taped."))
                   .arg(strips, figures.length({f.mm("total")})) +
               jointsOf(static_cast<int>(f.count("joints")));
    }
    case StepKind::FirstRow:
        return f.mm("ripped") > 0
                   ? FitWords::tr("Rip to %1 (take %2 off the wall side). Straight along the start line, "
                                  "lock away from the wall.")
                         .arg(f["width"], f["ripped"])
                   : FitWords::tr("Full width, %1. Straight along the start line, lock away from the wall.")
                         .arg(f["width"]);
    case StepKind::Row: return {};
    case StepKind::LastRow:
        return FitWords::tr("Rip to %1 with the lock towards the rows; scribe to the wall and keep the gap.")
            .arg(f["width"]);
    case StepKind::Trims:
        return FitWords::tr("%1 of edge in all. Fix trims to the wall or frame, never through the floor: it must move.")
            .arg(figures.length({f.mm("length")}));
    case StepKind::CablesTested:
        return FitWords::tr("Every cable of this surface is in its conduit, tested under load and photographed.");
    case StepKind::PipesTested:
        return FitWords::tr("Pressure-test what carries water; the panels in front of it stay removable. Gas and mains "
                            "are for licensed trades.");
    case StepKind::BackingIn:
        return FitWords::tr(
            "Where a cupboard, a shelf or a lamp will hang, a backing timber is in and its place noted.");
    case StepKind::SupportsRecorded:
        return FitWords::tr("%n rib(s) and batten(s): measured from the datum and photographed. Afterwards this map is "
                            "the only way to find them.",
                            nullptr, static_cast<int>(f.count("count")));
    case StepKind::BarrierTaped: return FitWords::tr("Laps and edges taped, every hole through it sealed.");
    case StepKind::TailsThrough:
        return FitWords::tr(
            "%n opening(s) will be covered: pull the tails through and write down where the middles are.", nullptr,
            static_cast<int>(f.count("count")));
    case StepKind::LayBarrier:
        return FitWords::tr("%1: %2 in all in %n strip(s), %3 over each other, taped.", nullptr,
                            static_cast<int>(f.count("strips")))
                   .arg(f["product"], figures.length({f.mm("total")}), f["lap"]) +
               jointsOf(static_cast<int>(f.count("joints")));
    case StepKind::FitInsulation: return insulationText(f, figures);
    case StepKind::FixBattens:
        return FitWords::tr("%1: %n piece(s), %2 in all. Pre-drill; check each with a straight edge.", nullptr,
                            static_cast<int>(f.count("count")))
            .arg(f["product"], figures.length({f.mm("total")}));
    case StepKind::SpreadAdhesive: {
        QStringList said{FitWords::tr("%1: %2, at %3 to %4 °C.")
                             .arg(f["product"], figures.mass({f.share("amount")}, 2), f["coldest"], f["warmest"])};
        if (f.count("flash") > 0)
            said << FitWords::tr("Let it dry for %1 minutes until it only just sticks.").arg(f["flash"]);
        if (f.count("bays") > 1)
            said << FitWords::tr(
                        "In %1 bays of %2, one after the other: each takes about %3 minutes to coat and close, "
                        "and it stays open for %4.")
                        .arg(f["bays"], figures.area({f.share("each")}), figures.number(f.share("bayMinutes"), 0),
                             f["minutes"]);
        else
            said << FitWords::tr("No more at a time than can be closed within %1 minutes.").arg(f["minutes"]);
        said << FitWords::tr("No load for %1 hours. The label goes before these figures.").arg(hours);
        return said.join(QLatin1Char(' '));
    }
    case StepKind::Coat:
        if (f.count("coat") < f.count("coats") && f.count("waterproof") != 0) // a film that must stay whole
            return FitWords::tr("%1: about %2 l. Then %3 hours; do not sand it.").arg(f["product"], f["amount"], hours);
        return f.count("coat") < f.count("coats")
                   ? FitWords::tr("%1: about %2 l. Then %3 hours, and rub it down lightly.")
                         .arg(f["product"], f["amount"], hours)
                   : FitWords::tr("%1: about %2 l. %3 hours before anything touches it.")
                         .arg(f["product"], f["amount"], hours);
    case StepKind::RestTimber:
        return FitWords::tr(
                   "%1: about %n board(s), flat and open in the van for two days. Sort them: the loud ones apart, "
                   "the bent ones for short pieces.",
                   nullptr, static_cast<int>(f.count("boards")))
            .arg(f["product"]);
    case StepKind::SnapLine:
        return FitWords::tr(
                   "%1 from the edge of the cladding, which keeps %2 from the wall. The first board lies straight "
                   "along it: everything follows.")
            .arg(f["at"], f["gap"]);
    case StepKind::FirstBoard:
    case StepKind::BoardRow: return ripText(f);
    case StepKind::LastBoard: {
        const QString rip = ripText(f);
        return (rip.isEmpty() ? QString() : rip + QLatin1Char(' ')) +
               FitWords::tr("Two fixings where a wide board crosses a support; pre-drill near ends.");
    }
    case StepKind::RoutOpenings:
        return FitWords::tr("%n opening(s): find the frame behind, drill, and rout flush to it.", nullptr,
                            static_cast<int>(f.count("count")));
    case StepKind::CarryHatch:
        return FitWords::tr("Part of each of these lies on its lid; cut along the hatch with a fine blade and keep the "
                            "gap round the lid.");
    case StepKind::MakeTemplate:
        return FitWords::tr("Card, cut and taped until it drops in: %n template(s). Mark which face is seen, and up.",
                            nullptr, static_cast<int>(f.count("count")));
    case StepKind::CutPanels:
        return FitWords::tr("%1: %n panel(s), in the order that Cut gives. Outdoors or in a workshop.", nullptr,
                            static_cast<int>(f.count("count")))
            .arg(f["product"]);
    case StepKind::DryFitPanels:
        return FitWords::tr(
            "Cardboard first where it is crooked, then thin scrap, then the panel. Mark every opening from "
            "behind.");
    case StepKind::CutOpenings: return holesText(step, f, figures);
    case StepKind::FitFittings:
        return FitWords::tr("%n place(s), once the coat is dry. Mains and gas are for a licensed trade.", nullptr,
                            static_cast<int>(f.count("count")));
    case StepKind::FixPanel: return panelText(f, figures);
    case StepKind::CloseJoints: {
        const QString joints = FitWords::tr("%n joint(s)", nullptr, static_cast<int>(f.count("count")));
        return (f.count("style") == 2   ? FitWords::tr("%1, %2 in all: cover strips, fixed to one panel only.")
                : f.count("style") == 1 ? FitWords::tr("%1, %2 in all: break the edges to a V before fixing.")
                                        : FitWords::tr("%1, %2 in all: butted, filled with what stays soft."))
            .arg(joints, figures.length({f.mm("total")}));
    }
    case StepKind::CheckBacking:
        return FitWords::tr("Stiff, dry, flat within 2 mm; joints taped, the waterproof coat cured where it gets wet.");
    case StepKind::TileLines:
        return FitWords::tr("The lowest row shows %1, the first column %2. Lay a dry row along both lines before the "
                            "first one is set.")
            .arg(f["first"], f["column"]);
    case StepKind::LayTiles:
        return FitWords::tr("%n whole tile(s) in flexible adhesive, joints of %1.", nullptr,
                            static_cast<int>(f.count("whole")))
            .arg(f["joint"]);
    case StepKind::RestVinyl:
        return FitWords::tr("Unrolled and flat for %1 hours at %2 °C or more, in the van, with what it is stuck with. "
                            "The label rules.")
            .arg(hours, f["degrees"]);
    case StepKind::CutLinings:
        return FitWords::tr("%n piece(s) of %1, as Cut lays them out; mark the pile and the name on the back of each.",
                            nullptr, static_cast<int>(f.count("count")))
            .arg(f["product"]);
    case StepKind::CleanFace:
        return FitWords::tr(
            "Free of rust, grease and dust, sharp edges filed; dry and warm, as the adhesive's label asks. Try every "
            "piece in its place first.");
    case StepKind::CleanGlass: return FitWords::tr("Washed and scraped; work in still air, with clean hands.");
    case StepKind::StickLining: {
        QString text =
            FitWords::tr("Coat both faces in bays that can be closed within the open time. Start in the middle of the "
                         "upper edge, press outwards, pull it into curves a little at a time. Leave it alone for %1 "
                         "hours before it is loaded.")
                .arg(hours);
        if (f.share("share") > 0)
            text += QLatin1Char(' ') + FitWords::tr("It is cut %1 % smaller: stretch it evenly to its edges.")
                                           .arg(figures.number(f.share("share") * 100, 1));
        return text;
    }
    case StepKind::LayVinyl:
        return FitWords::tr("Cut it round the subfloor as a template. Fold back one half, coat, wait as the label "
                            "says, lay and roll it "
                            "from the middle outwards; then the other half. Nothing heavy on it for %1 hours.")
            .arg(hours);
    case StepKind::CloseSeams:
        return f.count("lapped") > 0
                   ? FitWords::tr("%n seam(s), %1 in all: lapped by %2, the upper piece away from wet and traffic; "
                                  "seal them.",
                                  nullptr, static_cast<int>(f.count("count")))
                         .arg(f["total"], f.length(2 * f.mm("lap")))
                   : FitWords::tr("%n seam(s), %1 in all: both pieces lie %2 over each other; cut through both at once "
                                  "along a rule, take the strips out, press the edges down; seal or weld vinyl.",
                                  nullptr, static_cast<int>(f.count("count")))
                         .arg(f["total"], f.length(2 * f.mm("lap")));
    case StepKind::TurnUpstand:
        return FitWords::tr(
                   "%1 up the wall over a cove, warmed where it is tight. Inside corners are folded or cut to a "
                   "mitre and welded, outside ones take a corner piece.")
            .arg(f["height"]);
    case StepKind::TrimLining:
        return FitWords::tr(
                   "When it holds: trim what stands over (%1), snip to the corners, turn %2 in at doors and tuck "
                   "it under trims; cut covered openings out from the middle.")
            .arg(f["allowance"], f["turnIn"]);
    case StepKind::WrapPanels:
        return FitWords::tr(
                   "%n panel(s): face down on the lining, corners cut out, opposite sides pulled round by %1 and "
                   "stuck or stapled, middle first.",
                   nullptr, static_cast<int>(f.count("count")))
            .arg(f["turn"]);
    case StepKind::ClipPanels: {
        QString text =
            FitWords::tr("%n clip(s), %1 apart at most, each into a hole that is marked through the panel before it "
                         "is wrapped.",
                         nullptr, static_cast<int>(f.count("clips")))
                .arg(f["apart"]);
        // The facts of each side stand together, in this order.
        for (std::size_t i = 0; i + 4 < step.facts.size(); ++i) {
            if (step.facts[i].first != "panel") continue;
            const Facts side(step.facts.begin() + static_cast<std::ptrdiff_t>(i),
                             step.facts.begin() + static_cast<std::ptrdiff_t>(i + 5));
            const FactPrinter own(side, figures);
            text += QLatin1Char('\n') +
                    FitWords::tr("Panel %1, side of %2: %n clip(s), the first %3 from its end, then every %4.", nullptr,
                                 static_cast<int>(own.count("count")))
                        .arg(own["panel"], own["side"], own["first"], own["spacing"]);
        }
        return text;
    }
    case StepKind::LayFilm:
        return FitWords::tr(
            "%n window(s): wet both, lay it from the top, press the water out from the middle, trim 2 mm "
            "short of the rubber.",
            nullptr, static_cast<int>(f.count("count")));
    case StepKind::CutFoam: {
        QString text = FitWords::tr("%n block(s), with a long blade or a bread knife against a straight edge.", nullptr,
                                    static_cast<int>(f.count("count")));
        if (f.share("glue") > 0)
            text += QLatin1Char(' ') + FitWords::tr("Glue the joined ones with foam glue, both faces, %1.")
                                           .arg(figures.area({f.share("glue")}));
        return text;
    }
    case StepKind::CutCloth:
        return FitWords::tr("%n panel(s) of %1, as Cut lays them out; chalk the notches and the names on the back.",
                            nullptr, static_cast<int>(f.count("count")))
            .arg(f["product"]);
    case StepKind::SewZip:
        return FitWords::tr(
                   "%1 of zip in all, between the two strips of each border that is split, before anything else.")
            .arg(f["length"]);
    case StepKind::SewPiping:
        return FitWords::tr(
                   "%1 of cord, in strips %2 wide, joined; sewn to the panels' right side, snipped at corners, its "
                   "ends overlapped where they are not seen.")
            .arg(f["length"], f["width"]);
    case StepKind::SewCushions:
        return FitWords::tr(
                   "Right sides together, notch to notch, %1 in from the edge; corners with the needle down. About "
                   "%2 of thread.")
            .arg(f["seam"], f["thread"]);
    case StepKind::FillCushions:
        return FitWords::tr("The foam is %1 larger than its cover, so that it stays taut: fold it in, work it into the "
                            "corners.")
            .arg(f["ease"]);
    case StepKind::StapleCover:
        return FitWords::tr(
                   "Foam on the board, cloth over it, pulled round by %1: middle of each side first, corners last. "
                   "%n staple(s).",
                   nullptr, static_cast<int>(f.count("staples")))
            .arg(f["turn"]);
    case StepKind::FitTrim: {
        QString text = FitWords::tr("%n piece(s), %1 in all, after all neighbours are in.", nullptr,
                                    static_cast<int>(f.count("pieces")))
                           .arg(f["length"]);
        if (f.count("mitred") > 0)
            text += QLatin1Char(' ') + FitWords::tr("%n end(s) mitred: try each pair on scrap.", nullptr,
                                                    static_cast<int>(f.count("mitred")));
        if (f.count("coped") > 0)
            text += QLatin1Char(' ') + FitWords::tr("%n end(s) coped.", nullptr, static_cast<int>(f.count("coped")));
        return text + QLatin1Char(' ') + FitWords::tr("Set out, Edges, shows every end on the saw.");
    }
    case StepKind::FitEdging:
        return FitWords::tr("%1 in all, pressed on from the middle of a side; join it below, where no water runs.")
            .arg(f["length"]);
    case StepKind::RunBead:
        return FitWords::tr("%1 in all, on clean dry edges between two strips of tape; smooth it once and leave it to "
                            "cure as its label says before it gets wet.")
            .arg(f["length"]);
    case StepKind::PeelTiles:
        return FitWords::tr("%n whole tile(s). Primed and clean ground; press from the middle, no second try.", nullptr,
                            static_cast<int>(f.count("whole")));
    case StepKind::CutTiles:
        return FitWords::tr("%n piece(s) out of %1 tiles. Sawn edges to the wall, factory edges to the joint.", nullptr,
                            static_cast<int>(f.count("cut")))
            .arg(f["tiles"]);
    case StepKind::GroutTiles:
        return FitWords::tr("After %1 hours: about %2. Corners and edges get sealant, never grout.")
            .arg(hours, figures.mass({f.share("amount")}, 2));
    }
    return {};
}

QString ripText(const Piece& piece, const Figures& figures) {
    const QString start = figures.length(piece.ripAtStart, false), end = figures.length(piece.ripAtEnd, false);
    if (std::abs(piece.ripAtStart.value - piece.ripAtEnd.value) < 0.5) return FitWords::tr("ripped to %1").arg(start);
    // The saw runs out of the board on the way: where, counted from the end that comes first.
    if (piece.ripFrom.value > 0.5)
        return FitWords::tr("ripped from its edge at %1 to %2 at its end")
            .arg(figures.length(piece.ripFrom, false), end);
    if (piece.ripTo < piece.length - Mm{0.5})
        return FitWords::tr("ripped from %1 at its start to its edge at %2")
            .arg(start, figures.length(piece.ripTo, false));
    return FitWords::tr("ripped %1 to %2").arg(start, end);
}

QString stepPiece(const SetOut& setOut, int index, const std::string& family, const Figures& figures) {
    const Piece& piece = setOut.pieces[static_cast<std::size_t>(index)];
    QString text = pieceText(piece.name) + QStringLiteral("  ") + figures.length(piece.length, false);
    const ProductFamily* known = productFamily(family);
    const bool bar = known && known->form == StockForm::Lengths; // as wide as it comes, or ripped
    if (!bar) text += QStringLiteral(" × ") + figures.length(piece.width, false);
    if (piece.kind == PieceKind::Whole) text += FitWords::tr(" whole");
    if (piece.ripAtStart.value > 0) text += QStringLiteral(", ") + ripText(piece, figures);
    if (piece.stock >= 0) {
        const bool tile = known && known->counted == CountedAs::Tiles;
        const int number = piece.stock + 1;
        if (piece.fromOffcut)
            text +=
                (tile ? FitWords::tr(", left of tile %1") : FitWords::tr(", from the offcut of plank %1")).arg(number);
        else
            text += (tile ? FitWords::tr(", tile %1") : FitWords::tr(", plank %1")).arg(number);
        if (const int pack = setOut.stock[static_cast<std::size_t>(piece.stock)].pack; pack > 0)
            text += FitWords::tr(" of pack %1").arg(pack);
    }
    if (piece.feature) text += FitWords::tr(", the finest one");
    if (piece.notched) text += FitWords::tr(", shaped");
    if (piece.removable) text += FitWords::tr(", comes off");
    return text;
}

QString cautionText(Caution caution) {
    switch (caution) {
    case Caution::SawAndDust:
        return FitWords::tr(
            "Guard on, work held down, hands clear of the blade; eye and ear protection, mask and extraction. "
            "Follow the saw's manual.");
    case Caution::KneelAndLift: return FitWords::tr("Rolls and packs are heavy: two people, knees protected.");
    case Caution::KnowWhatIsBehind:
        return FitWords::tr(
            "Know what is under the floor before any screw goes in: fuel and brake lines, cables, tank. "
            "Gas drop-outs and fixed vents stay open; gas and mains work is for licensed trades.");
    case Caution::DrillIntoBody:
        return FitWords::tr(
            "Know what is behind before you drill or screw: airbags and their wiring along headliners and "
            "pillars, cables, brake and fuel lines. Never cover or cut an airbag's zone; a restraint "
            "system is for a trained person.");
    case Caution::Solvents:
        return FitWords::tr(
            "Solvents: doors open, organic-vapour respirator, gloves, no flame or spark, and nobody sleeps "
            "in the van until it has cured. Read the safety data sheet.");
    case Caution::Overhead:
        return FitWords::tr(
            "Overhead: two people and props; eye protection. Airbags and cables run along headliners: know "
            "where before any screw goes in.");
    case Caution::SharpBlades:
        return FitWords::tr("Fresh blades, changed often: cut away from the hand that holds, on a board, never over "
                            "the seal of a window "
                            "or a cable.");
    case Caution::HotTools:
        return FitWords::tr("Hot air and hot knives on synthetic cloth give off fumes and burn: doors open, "
                            "respirator, gloves, nothing "
                            "that burns near by.");
    case Caution::AirbagZones:
        return FitWords::tr("Curtain airbags and their wiring run in pillars, along the headliner and in the cab: "
                            "leave their zones and "
                            "seams free, glue nothing over them. Restraints are for a trained person.");
    case Caution::FoamFire:
        return FitWords::tr("Foam and cloth burn fast and smoke: use what meets the local rules for seats, keep it "
                            "clear of heaters and "
                            "hobs, fit smoke and carbon-monoxide alarms. Glue with doors open.");
    case Caution::TileDust:
        return FitWords::tr(
            "Cut wet or with extraction: tile and backer dust harms the lungs. Mask, eyes, ears, guard on.");
    }
    return {};
}

} // namespace westrum
