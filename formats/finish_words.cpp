#include "core/families/family.h"
#include "formats/base_words.h"
#include "formats/fact_printer.h"
#include "formats/words.h"

#include <QCoreApplication>

#include <cmath>

namespace westrum {
namespace {

/// The translation context of what is said about finishes and their build-ups.
struct FinishWords {
    Q_DECLARE_TR_FUNCTIONS(FinishWords)
};

QString edgeName(const std::string& edge) {
    return edge == "first row" ? FinishWords::tr("The first row") : FinishWords::tr("The last row");
}

} // namespace

QString finishSentence(const Remark& remark, const Figures& figures) {
    const FactPrinter f(remark.facts, figures);
    switch (remark.kind) {
    case RemarkKind::LayerTooDeep:
        return FinishWords::tr("%1 is %2 thick, but there is only %3 between the supports: %4 stand out.")
            .arg(f["layer"], f["length"], f["limit"], f["over"]);
    case RemarkKind::HeadroomShort:
        return FinishWords::tr("At worst %1 of headroom is left; to stand upright %2 are needed.")
            .arg(f["head"], f["limit"]);
    case RemarkKind::DoorStep:
        return f.mm("step") > 0
                   ? FinishWords::tr("At %1 the floor stands %2 over the sill: a sloping strip would be %3 long.")
                         .arg(f["door"], f["step"], f["length"])
                   : FinishWords::tr("At %1 the sill stands %2 over the floor: a sloping strip would be %3 long.")
                         .arg(f["door"], figures.fineLength({-f.mm("step")}), f["length"]);
    case RemarkKind::BoardWiderThanSurface:
        return FinishWords::tr("A board covers %1, the surface is only %2 wide: one board, ripped.")
            .arg(f["width"], f["limit"]);
    case RemarkKind::TileLargerThanSurface:
        return FinishWords::tr("A tile is %1 wide, the surface only %2: one tile, cut.").arg(f["width"], f["limit"]);
    case RemarkKind::EdgeBelowThird:
        return FinishWords::tr("%1 is only %2 wide; less than %3 is a sliver. Start elsewhere.")
            .arg(edgeName(f.text("edge")), f["width"], f["limit"]);
    case RemarkKind::RunLongerThanStock:
        return FinishWords::tr("Row %1 is %2 long, and the longest stock gives %3: it is joined.")
            .arg(f["row"], f["length"], f["limit"]);
    case RemarkKind::NoSupports:
        return FinishWords::tr(
            "Joints should lie on ribs or battens, but none are measured: back the joints, or measure "
            "the supports.");
    case RemarkKind::JointsOffSupport:
        return FinishWords::tr("%1 of %2 joints lie on no support. Back them, or move them.")
            .arg(f["count"], f["total"]);
    case RemarkKind::JointsInLine:
        return FinishWords::tr("%n joint(s) lie too near one in the next row for the stagger asked for.", nullptr,
                               static_cast<int>(f.count("count")));
    case RemarkKind::TaperTooNarrow:
        return f.count("least") > 0
                   ? FinishWords::tr(
                         "The surface tapers: %n board(s) that share it end at %1, under %2. Let %3 share it.", nullptr,
                         static_cast<int>(f.count("boards")))
                         .arg(f["width"], f["limit"], f["least"])
                   : FinishWords::tr("The surface tapers so much that however many boards share it, they end under %1.")
                         .arg(f["limit"]);
    case RemarkKind::TaperLosesLock:
        return FinishWords::tr(
            "%n board(s) in mid-field are ripped for the taper and lose a lock: re-groove or glue them.", nullptr,
            static_cast<int>(f.count("boards")));
    case RemarkKind::CentreOpeningsMissing:
        return FinishWords::tr("A centre line through two openings needs two of them; the surface's middle is taken.");
    case RemarkKind::NothingToRunOn:
        return FinishWords::tr("The tiles should run on from the surface at the left, but it has none of them.");
    case RemarkKind::DatumMissing:
        return FinishWords::tr("Lines from the datum are asked for, but no datum is measured for this surface.");
    case RemarkKind::PanelTooLarge:
        return FinishWords::tr("Panel %1, %2 × %3, does not fit the sheet. Add a joint, or choose a larger sheet.")
            .arg(f["panel"], figures.length({f.mm("length")}, false), figures.length({f.mm("width")}));
    case RemarkKind::PanelPastDoor:
        return FinishWords::tr("Panel %1 is %2 at its narrow side, and %3 lets only %4 through.")
            .arg(f["panel"], figures.length({f.mm("width")}), f["door"], figures.length({f.mm("limit")}));
    case RemarkKind::PanelPastLoad:
        return FinishWords::tr("Panel %1, %2 × %3, does not lie in the car, which takes %4 × %5. Move its joints.")
            .arg(f["panel"], figures.length({f.mm("length")}, false), figures.length({f.mm("width")}),
                 figures.length({f.mm("limitLength")}, false), figures.length({f.mm("limitWidth")}));
    case RemarkKind::LidInPieces:
        return FinishWords::tr("What is sawn out for %1 is in two parts and makes no lid. Move the joint, or saw the "
                               "lid from an offcut.")
            .arg(f["opening"]);
    case RemarkKind::LidUnderKerf:
        return FinishWords::tr("%1: the blade alone takes %2, more than the gap of %3 round its lid. Take a thinner "
                               "blade, or saw the lid from an offcut.")
            .arg(f["opening"], figures.fineLength({f.mm("limit")}), figures.fineLength({f.mm("gap")}));
    case RemarkKind::FingerTooLarge:
        return FinishWords::tr("%1: a hole of %2 leaves too little of a lid that is %3 wide.")
            .arg(f["opening"], figures.length({f.mm("length")}), figures.length({f.mm("limit")}));
    case RemarkKind::SpanTooWide:
        return FinishWords::tr(
                   "The supports stand %1 apart; %2 carries %3 as a rule. Add battens or take a thicker sheet. "
                   "The label goes before this.")
            .arg(figures.length({f.mm("length")}), f["product"], figures.length({f.mm("limit")}));
    case RemarkKind::BendTooTight:
        return FinishWords::tr(
                   "The surface is bent to a radius of %1; %2 bends to %3 as a rule. Two sheets of %4 glued "
                   "together bend to %5, or take it in %6 strips.")
            .arg(figures.length({f.mm("radius")}), f["product"], figures.length({f.mm("limit")}), f["half"],
                 figures.length({f.mm("halfLimit")}), f["strips"]);
    case RemarkKind::SolidMoves:
        return FinishWords::tr("%1 is solid and moves by about %2 over %3: leave %4 at either wall, and oversize holes "
                               "with washers.")
            .arg(f["product"], f["length"], figures.length({f.mm("width")}), f["gap"]);
    case RemarkKind::CutTileSliver:
        return FinishWords::tr("%n cut tile(s) are narrower than %1, the narrowest %2.", nullptr,
                               static_cast<int>(f.count("count")))
            .arg(f["limit"], f["width"]);
    case RemarkKind::LinesMissNeighbour:
        return FinishWords::tr("The lines miss those of %1 by %2. Start both from the datum.")
            .arg(f["other"], f["length"]);
    case RemarkKind::NeedUnserved: {
        const QString what = needText(static_cast<Serves>(f.count("serves")), f.share("amount"), figures);
        if (f.mm("least") <= 0)
            return FinishWords::tr("The catalogue has nothing for %1: it is not on the list.").arg(what);
        if (f.mm("most") > 0 && f.mm("most") < f.mm("least"))
            return FinishWords::tr(
                       "%1 would have to be %2 long to hold and no longer than %3 so as not to come through: "
                       "take thicker battens, or glue.")
                .arg(what, f["least"], f["most"]);
        return f.mm("most") > 0
                   ? FinishWords::tr("The catalogue has nothing for %1 between %2 and %3 long: it is not on the list.")
                         .arg(what, f["least"], f["most"])
                   : FinishWords::tr("The catalogue has nothing for %1 at least %2 long: it is not on the list.")
                         .arg(what, f["least"]);
    }
    case RemarkKind::RateMissing:
        return FinishWords::tr(
                   "%1 asks %2 for %3, and no rate is known: the offer is left out. Type the rate with the prices.")
            .arg(f["supplier"], f["currency"], f["product"]);
    case RemarkKind::AxleOver: {
        const QString kg = figures.mass({f.share("kg")}), limit = figures.mass({f.share("limit")});
        switch (f.count("which")) {
        case 0:
            return FinishWords::tr(
                       "The front axle would carry %1, and its plate says %2. Choose something lighter, or move "
                       "mass back.")
                .arg(kg, limit);
        case 1:
            return FinishWords::tr(
                       "The rear axle would carry %1, and its plate says %2. Choose something lighter, or move "
                       "mass forwards.")
                .arg(kg, limit);
        default:
            return FinishWords::tr("The van would weigh %1, and its plate says %2. Choose something lighter.")
                .arg(kg, limit);
        }
    }
    case RemarkKind::SideOver:
        return (f.count("right") > 0
                    ? FinishWords::tr(
                          "The right side would carry %1, more than half of what the van may weigh, %2. Move mass "
                          "to the left.")
                    : FinishWords::tr(
                          "The left side would carry %1, more than half of what the van may weigh, %2. Move mass "
                          "to the right."))
            .arg(figures.mass({f.share("kg")}), figures.mass({f.share("limit")}));
    case RemarkKind::AllowancePassed:
        return FinishWords::tr("The finishes weigh %1, and %2 were allowed for them.")
            .arg(figures.mass({f.share("kg")}), figures.mass({f.share("limit")}));
    case RemarkKind::AdhesiveNeverCloses:
        return FinishWords::tr(
                   "%1 must dry for %2 min and stays open for only %3: it cannot be closed in time. Correct its "
                   "fields by the label, or choose another.")
            .arg(f["product"], figures.number(f.share("flash"), 0), figures.number(f.share("open"), 0));
    case RemarkKind::AdhesiveTooCool:
        return FinishWords::tr(
                   "%1 holds up to %2 °C, and a skin in the sun gets about %3 °C here. Choose a heat-proof one.")
            .arg(f["product"], figures.number(f.share("limit"), 0), figures.number(f.share("heat"), 0));
    case RemarkKind::LampOffRow:
        return FinishWords::tr("%1 lies %2 off the middle of its row.").arg(f["opening"], f["length"]);
    case RemarkKind::CushionNoHeight:
        return FinishWords::tr(
            "A cushion needs a height: put foam below the cloth in Build-up, or say it under \"How laid\".");
    case RemarkKind::CushionHole:
        return FinishWords::tr(
            "A cushion cannot be boxed round a hole: it is made whole and lies loose over it. A wheel "
            "arch is measured as a notch in the outline.");
    case RemarkKind::CushionThin:
        return FinishWords::tr("Cushion %1 is only %2 wide somewhere: hard to fill and to turn. Make fewer.")
            .arg(f["piece"], f["width"]);
    case RemarkKind::RollTooNarrow:
        return FinishWords::tr(
                   "The roll gives %1 across, and its seams alone take %2. Choose a wider roll or a smaller lap.")
            .arg(f["width"], f["limit"]);
    case RemarkKind::PieceWiderThanRoll:
        return FinishWords::tr(
                   "Piece %1 is %2 across, the roll gives %3. Move the seams, turn the nap, or choose a wider "
                   "roll.")
            .arg(f["piece"], f["width"], f["limit"]);
    case RemarkKind::NoPanelsBelow:
        return FinishWords::tr(
            "It is to wrap panels, but no layer below it is of sheets. Add one in Build-up, or let it "
            "cover the surface.");
    case RemarkKind::NoGlass:
        return FinishWords::tr("Film is to cover glass, but the surface has no window. Add it in Measure.");
    case RemarkKind::StretchBeyondLining: {
        const QString way =
            f.count("hidden") > 0
                ? FinishWords::tr("or a relief cut of %1 where it is drawn dashed, out of sight").arg(f["depth"])
                : FinishWords::tr("or a relief cut where a trim can hide it");
        const QString piece = f["piece"];
        const QString asked = figures.number(f.share("share") * 100, 1),
                      gives = figures.number(f.share("limit") * 100, 1);
        const QString what =
            piece.isEmpty()
                ? FinishWords::tr("It must stretch by %1 %, and gives %2 %.").arg(asked, gives)
                : FinishWords::tr("Strip %1 must stretch by %2 %, and gives %3 %.").arg(piece, asked, gives);
        const int seams = static_cast<int>(f.count("seams"));
        return seams > 0
                   ? FinishWords::tr("%1 %n more seam(s), evenly spread, would do, %2.", nullptr, seams).arg(what, way)
                   : FinishWords::tr("%1 Seams evenly spread would do, %2.").arg(what, way);
    }
    case RemarkKind::ReliefOutside:
        return FinishWords::tr("Relief cut %1 does not reach into the lining. Move it, or take it away.")
            .arg(f["number"]);
    case RemarkKind::UndersizeBeyondStretch:
        return FinishWords::tr("It is cut %1 % smaller, but stretches by only %2 %. Cut it larger.")
            .arg(figures.number(f.share("share") * 100, 1), figures.number(f.share("limit") * 100, 1));
    case RemarkKind::PatternMisses:
        return FinishWords::tr(
                   "Piece %1 is %2 across: with the pattern repeating each %3 it cannot come out of %4 of roll "
                   "and meet its neighbour. Move the seam, or let the pattern miss.")
            .arg(f["piece"], f["width"], f["repeat"], f["limit"]);
    case RemarkKind::RepeatBeyondPiece:
        return FinishWords::tr("Piece %1 is %2 and the pattern repeats each %3: it will not show whole on it.")
            .arg(f["piece"], f["length"], f["repeat"]);
    case RemarkKind::NapDisagrees:
        return FinishWords::tr(
                   "The nap runs another way than on %1, which it meets: the two will look like two colours. "
                   "Turn one.")
            .arg(f["other"]);
    case RemarkKind::TrimProfileMissing:
        return FinishWords::tr(
                   "An edge wants a trim of the kind \"%1\", and the catalogue has none. Add one, or choose "
                   "another at that edge.")
            .arg(fieldName(f.text("profile")));
    case RemarkKind::GapBeyondTrim:
        return FinishWords::tr(
                   "Side %1 keeps a gap of %2, and %3 reaches %4 over it. Choose a wider one, or a smaller gap.")
            .arg(f["edge"], f["gap"], f["product"], f["limit"]);
    case RemarkKind::TrimStockTooShort:
        return FinishWords::tr("%1: a run of %2 cannot be made from lengths that give %3. Choose a longer one.")
            .arg(f["product"], f["length"], f["limit"]);
    case RemarkKind::TrimBendTooTight:
        return FinishWords::tr(
                   "%1 bends to a radius of %2, but the edge bends to %3 at %4. Choose a softer trim, or cut it in "
                   "parts.")
            .arg(f["product"], f["limit"], f["radius"], f["edge"]);
    case RemarkKind::TrimTooStiff:
        return FinishWords::tr(
                   "%1 is stiff, and the edge bends to a radius of %2 at %3. Choose a trim that bends, or kerf its "
                   "back.")
            .arg(f["product"], f["radius"], f["edge"]);
    case RemarkKind::EdgeOverhangs:
        return FinishWords::tr("%1 stands %2 free beyond its last support; %3 is what an edge of it bears.")
            .arg(f["product"], f["length"], f["limit"]);
    case RemarkKind::PanelsUnsupported:
        return f.count("supports") == 0
                   ? FinishWords::tr("No support is measured behind %1, which is to span %2; it carries %3.")
                         .arg(f["product"], f["length"], f["limit"])
                   : FinishWords::tr("One support behind %1 is not enough for %2; it carries %3.")
                         .arg(f["product"], f["length"], f["limit"]);
    case RemarkKind::PanelSlivers:
        return FinishWords::tr("%1 of %2 panels are narrower than %3, the narrowest %4: move the joints, or set a "
                               "support where a joint is to be.")
            .arg(f["count"], f["total"], f["limit"], f["width"]);
    case RemarkKind::RunsAlongSupports:
        return f.count("ribs") != 0
                   ? FinishWords::tr("%1 runs the same way as the ribs: there is nothing to fix it to. Lay it across "
                                     "them, or put battens across the ribs.")
                         .arg(f["product"])
                   : FinishWords::tr("%1 runs the same way as its battens: there is nothing to fix it to. Turn the "
                                     "battens, or the boards.")
                         .arg(f["product"]);
    case RemarkKind::LooseBelow:
        return FinishWords::tr("%1 would be glued to %2, which gives way: put a thin sheet between them.")
            .arg(f["product"], f["below"]);
    case RemarkKind::BarrierMissing:
        return FinishWords::tr("%1 lies where it gets damp, with no vapour barrier on its warm side.")
            .arg(f["product"]);
    case RemarkKind::WaterproofMissing:
        return (f.count("on") != 0
                    ? FinishWords::tr(
                          "%1 gets wet here, and nothing keeps the water out of it: put a waterproof coat on.")
                    : FinishWords::tr(
                          "Water gets behind %1 here, and nothing below keeps it out: put a waterproof coat "
                          "under it."))
            .arg(f["product"]);
    case RemarkKind::BattsTooStiff:
        return FinishWords::tr("%1 does not give way: offcuts cannot be pressed in, each bay takes pieces of its own.")
            .arg(f["product"]);
    case RemarkKind::NoBattens:
        return FinishWords::tr("%1 is a layer, but no batten is measured on this surface.").arg(f["product"]);
    default: return baseSentence(remark, figures);
    }
}

QString changeText(const FieldValues& change, const FieldValues& rules, std::span<const Field> fields,
                   const Figures& figures) {
    QStringList said;
    for (const Field& field : fields) {
        const auto to = change.find(field.key);
        if (to == change.end() || std::abs(to->second - valueOf(rules, field)) < 1e-9) continue;
        const auto place = static_cast<std::size_t>(to->second);
        if (field.unit == FieldUnit::Choice && place < field.choices.size())
            said << FinishWords::tr("%1 %2").arg(fieldName(field.tradeName), fieldName(field.choices[place]));
        else if (field.unit == FieldUnit::Flag)
            said << (to->second != 0 ? fieldName(field.tradeName)
                                     : FinishWords::tr("not: %1").arg(fieldName(field.tradeName)));
        else if (field.unit == FieldUnit::Length)
            said << FinishWords::tr("%1 %2").arg(fieldName(field.tradeName), figures.length({to->second}));
        else
            said << FinishWords::tr("%1 %2").arg(fieldName(field.tradeName), figures.number(to->second, 0));
    }
    return sentenceCase(said.join(QStringLiteral(", ")));
}

int layerOf(const Job& job, const Remark& remark) {
    const Finish& finish = job.finish(remark.place.surface);
    const int at = remark.place.layer >= 0 ? remark.place.layer : faceLayer(finish, job.catalogue);
    return at < static_cast<int>(finish.layers.size()) ? at : -1;
}

QString fixText(const Job& job, const Remark& remark, const Figures& figures) {
    if (!remark.fix) return {};
    if (remark.fix->kind == FixKind::TurnBattens) return FinishWords::tr("Battens across");
    const auto corner = [](int k) { return QString(QLatin1Char(static_cast<char>('A' + k % 26))); };
    if (remark.fix->kind == FixKind::TurnCorner)
        return (remark.fix->key == "in" ? FinishWords::tr("%1 turns inwards") : FinishWords::tr("%1 turns outwards"))
            .arg(corner(static_cast<int>(remark.fix->value)));
    if (remark.fix->kind == FixKind::AddDiagonal)
        return FinishWords::tr("Measure %1 to %2")
            .arg(corner(QString::fromStdString(remark.fix->key).toInt()), corner(static_cast<int>(remark.fix->value)));
    if (remark.fix->kind == FixKind::AddLayer) {
        const Product* product = job.catalogue.find(remark.fix->key);
        return product ? FinishWords::tr("Add %1").arg(QString::fromStdString(product->name)) : QString();
    }
    if (const QString base = baseFixText(remark, figures); !base.isEmpty()) return base;
    const int at = layerOf(job, remark);
    if (at < 0) return {};
    const Layer& layer = job.finish(remark.place.surface).layers[static_cast<std::size_t>(at)];
    const Product* product = job.catalogue.find(layer.product);
    const Family* family = product ? familyOf(product->family) : nullptr;
    if (!family) return {};
    const FieldValues change{{remark.fix->key, remark.fix->value}};
    if (remark.fix->kind == FixKind::SetField)
        return changeText(change, product->fields, family->product.fields, figures);
    for (const auto fields : {family->setOut ? family->setOut->ruleFields : std::span<const Field>(),
                              family->product.layerRules, family->fixing})
        if (const QString text = changeText(change, layer.rules, fields, figures); !text.isEmpty()) return text;
    return {};
}

QString suggestionText(const Suggestion& suggestion, const SetOut& now, const std::string& family,
                       const FieldValues& rules, int unitsPerPack, const Figures& figures) {
    const StartChoice& c = suggestion.choice;
    const int packs = (c.stock + unitsPerPack - 1) / unitsPerPack;
    const QString stock =
        unitsPerPack > 1 ? FinishWords::tr("%n pack(s)", nullptr, packs) : itemsText(family, c.stock, figures);
    const SetOutFamily* known = findFamily(family);
    const QString what = known ? changeText(c.change, rules, known->ruleFields, figures) : QString();
    const Family* lies = familyOf(family);
    const QString edges =
        lies && !lies->product.rowField.empty()
            ? FinishWords::tr("edges %1 and %2").arg(figures.fineLength(c.firstRow), figures.fineLength(c.lastRow))
        : lies && lies->laid.wrapped ? FinishWords::tr("%n panel(s)", nullptr, c.figures.pieces)
                                     : FinishWords::tr("%n piece(s)", nullptr, c.figures.pieces);
    if (what.isEmpty()) return FinishWords::tr("It is well set out: %1, %2.").arg(edges, stock);
    // What it claims is held against what lies there now.
    const Judgement &then = c.figures, &before = now.figures;
    QStringList better;
    if (then.unevenness.value < before.unevenness.value - 2)
        better << (then.unevenness.value <= 2 ? FinishWords::tr("even edges") : FinishWords::tr("more even edges"));
    if (then.narrowestEdge.value > before.narrowestEdge.value + 2)
        better << FinishWords::tr("no edge under %1").arg(figures.length(then.narrowestEdge));
    if (then.slivers < before.slivers)
        better << (then.slivers == 0 ? FinishWords::tr("no sliver") : FinishWords::tr("fewer slivers"));
    if (then.jointsOffSupport + then.jointsInLine < before.jointsOffSupport + before.jointsInLine)
        better << FinishWords::tr("better joints");
    if (then.pieces < before.pieces)
        better << FinishWords::tr("%n piece(s) fewer", nullptr, before.pieces - then.pieces);
    if (then.stock < before.stock) better << FinishWords::tr("less stock");
    const QString gain =
        better.isEmpty() ? QString() : FinishWords::tr(" That gives %1.").arg(better.join(QStringLiteral(", ")));
    return FinishWords::tr("%1: %2, %3.").arg(what, edges, stock) + gain;
}

QString startText(const Suggestion& suggestion, Mm currentOffset, int unitsPerPack, const Figures& figures) {
    const StartChoice& c = suggestion.choice;
    const int packs = (c.stock + unitsPerPack - 1) / unitsPerPack;
    const QString packText = FinishWords::tr("%n pack(s)", nullptr, packs);
    const QString first = figures.length(c.firstRow);
    const QString last = figures.length(c.lastRow);
    const double shift = c.startOffset.value - currentOffset.value;
    if (std::abs(shift) < 0.5)
        return FinishWords::tr("The start line is well placed: first row %1, last row %2, %3.")
            .arg(first, last, packText);
    const QString move = shift > 0 ? FinishWords::tr("Lay the first row %1 narrower").arg(figures.length({shift}))
                                   : FinishWords::tr("Lay the first row %1 wider").arg(figures.length({-shift}));
    switch (suggestion.reason) {
    case SuggestionReason::EqualEdges:
        return FinishWords::tr("%1: first row %2, last row %3, %4.").arg(move, first, last, packText);
    case SuggestionReason::FewestUnits:
        return FinishWords::tr("%1 and %2 do: edges %3 and %4.").arg(move, planksText(c.stock), first, last);
    case SuggestionReason::FewestSlivers:
        return c.slivers == 0 ? FinishWords::tr("%1 and no sliver is left beside a cut-out: edges %2 and %3, %4.")
                                    .arg(move, first, last, packText)
                              : FinishWords::tr("%1 for the fewest slivers beside cut-outs: edges %2 and %3, %4.")
                                    .arg(move, first, last, packText);
    default: return FinishWords::tr("%1: edges %2 and %3, %4.").arg(move, first, last, packText);
    }
    return {};
}

} // namespace westrum
