#include "formats/base_words.h"

#include "core/plan/base_plan.h"
#include "core/shell/arch_box.h"
#include "formats/fact_printer.h"

#include <QCoreApplication>

#include <cmath>
#include <map>

namespace westrum {
namespace {

struct BaseWords {
    Q_DECLARE_TR_FUNCTIONS(BaseWords)
};

QString boxText(BoxFault fault) {
    switch (fault) {
    case BoxFault::LengthMissing: return BaseWords::tr("The box over the wheel arch lacks its length.");
    case BoxFault::HeightMissing: return BaseWords::tr("The box over the wheel arch lacks its height.");
    case BoxFault::DepthMissing: return BaseWords::tr("The box over the wheel arch lacks its depth.");
    case BoxFault::TooThick:
        return BaseWords::tr("The panels of the box are as thick as the box itself: thinner panels, or a larger box.");
    case BoxFault::RakeBeyondDepth:
        return BaseWords::tr("The box's face leans further than the box is deep: less rake, or more depth.");
    case BoxFault::HigherThanWall: return BaseWords::tr("The box is higher than the wall behind it: check its height.");
    }
    return {};
}

QString whatText(OpeningDistance::To to, const QString& name) {
    switch (to) {
    case OpeningDistance::To::Edge: return BaseWords::tr("the edge");
    case OpeningDistance::To::Opening: return name;
    case OpeningDistance::To::Joint: return BaseWords::tr("a joint of the panels");
    case OpeningDistance::To::Support: return name;
    }
    return {};
}

} // namespace

QString baseSentence(const Remark& remark, const Figures& figures) {
    const FactPrinter f(remark.facts, figures);
    switch (remark.kind) {
    case RemarkKind::FixingsLeftOut:
        return BaseWords::tr("%n fixing(s) of %1 would go into cables or covered openings and find no place beside "
                             "them: they are left out.",
                             nullptr, static_cast<int>(f.count("count")))
            .arg(f["product"]);
    case RemarkKind::PackingIncomplete:
        return BaseWords::tr("%1 of %2 crossings of battens and ribs are not read yet: those have no packers.")
            .arg(f["count"], f["total"]);
    case RemarkKind::PackingStandsOut:
        return BaseWords::tr("Where batten %1 crosses %2, number %3, the rib stands out: without it %4 less room is "
                             "lost. Read it again, or notch the batten there.")
            .arg(f["batten"], f["ribName"], f["rib"], f["length"]);
    case RemarkKind::PackersMissing:
        return BaseWords::tr("The battens are to be packed, and the catalogue has no packers: add some in Build-up.");
    case RemarkKind::PackerTooThick:
        return BaseWords::tr("%n crossing(s) want more than two packers give, up to %1: add thicker packers to the "
                             "catalogue, or a second batten.",
                             nullptr, static_cast<int>(f.count("count")))
            .arg(f["length"]);
    case RemarkKind::OpeningTooNear: {
        const auto to = static_cast<OpeningDistance::To>(f.count("what"));
        if (to == OpeningDistance::To::Joint && f.mm("length") < 0.05)
            return BaseWords::tr("A joint of the panels runs through %1: %2 clear of it are wanted.")
                .arg(f["opening"], f["limit"]);
        return f.mm("length") < 0 ? BaseWords::tr("%1: reaches over the edge.").arg(f["opening"])
                                  : BaseWords::tr("%1: only %2 from %3; %4 are wanted.")
                                        .arg(f["opening"], f["length"], whatText(to, f["name"]), f["limit"]);
    }
    case RemarkKind::OpeningOnSupport:
        return f.mm("length") > 0.05
                   ? BaseWords::tr("%1: %2 over %3, where the saw would meet it; %4 clear of it are wanted.")
                         .arg(f["opening"], f["length"], f["name"], f["limit"])
                   : BaseWords::tr("%1: close beside %2; %3 clear of it are wanted.")
                         .arg(f["opening"], f["name"], f["limit"]);
    case RemarkKind::BackingMissing:
        return BaseWords::tr("Something heavy hangs at %1, and no timber lies behind it.").arg(f["zone"]);
    case RemarkKind::LampsOffCentre:
        return BaseWords::tr("%1: up to %2 off where lamps stand even in what is seen.").arg(f["opening"], f["length"]);
    case RemarkKind::ArchBoxImpossible: return boxText(static_cast<BoxFault>(f.count("what")));
    default: return {};
    }
}

QString baseFixText(const Remark& remark, const Figures& figures) {
    const FactPrinter f(remark.facts, figures);
    if (!remark.fix) return {};
    switch (remark.fix->kind) {
    case FixKind::AddBacking: return BaseWords::tr("Add a backing timber");
    case FixKind::PlaceLamps: return BaseWords::tr("Space the lamps anew");
    case FixKind::ShiftOpening: {
        const double x = f.mm("x"), y = f.mm("y");
        QStringList ways;
        if (x != 0) {
            const QString by = figures.length({std::abs(x)});
            ways << (x > 0 ? BaseWords::tr("%1 to the front").arg(by) : BaseWords::tr("%1 to the rear").arg(by));
        }
        if (y != 0) {
            const QString by = figures.length({std::abs(y)});
            ways << (y > 0 ? BaseWords::tr("%1 up").arg(by) : BaseWords::tr("%1 down").arg(by));
        }
        return BaseWords::tr("Shift it %1").arg(ways.join(BaseWords::tr(" and ")));
    }
    default: return {};
    }
}

QString heldText(FixedWith by) {
    switch (by) {
    case FixedWith::Screws: return BaseWords::tr("screws");
    case FixedWith::RivetNuts: return BaseWords::tr("rivet nuts");
    case FixedWith::PanelClips: return BaseWords::tr("panel clips");
    case FixedWith::HookAndLoop: return BaseWords::tr("hook-and-loop");
    case FixedWith::Staples: return BaseWords::tr("staples");
    case FixedWith::AdhesiveAlone: return BaseWords::tr("adhesive alone");
    case FixedWith::ExpandingNuts: return BaseWords::tr("expanding nuts");
    case FixedWith::AsNeeded: return BaseWords::tr("as it needs");
    }
    return {};
}

QString fixingsText(const LayerPlan& layer, int piece, const Catalogue& catalogue, const Figures& figures) {
    // By what goes there, the most first.
    std::map<std::string, int> counts;
    int nothing = 0;
    for (const Fixing& f : layer.fixings) {
        if (piece >= 0 && f.piece != piece) continue;
        if (!f.place.holds) {
            ++nothing;
            continue;
        }
        if (!f.product.empty())
            ++counts[f.product];
        else if (f.least)
            ++counts[" " + heldText(f.by).toStdString() + " " + figures.length(*f.least).toStdString()];
        else
            ++counts[" " + heldText(f.by).toStdString()];
    }
    QStringList said;
    for (const auto& [id, n] : counts) {
        const Product* p = catalogue.find(id);
        said << BaseWords::tr("%1 × %2").arg(n).arg(p ? fromStd(p->name) : fromStd(id).trimmed());
    }
    if (nothing > 0) said << BaseWords::tr("%n place(s) with nothing behind", nullptr, nothing);
    return said.join(QStringLiteral(", "));
}

QString packerText(const PackerStack& stack, const Figures& figures) {
    if (stack.pieces.empty()) return BaseWords::tr("none");
    QStringList parts;
    for (const Mm piece : stack.pieces) parts << figures.fineLength(piece, false);
    return parts.join(QStringLiteral(" + "));
}

QString packingText(const PackedBattens& packed, const Figures& figures) {
    if (packed.to == PackTo::Nothing) return BaseWords::tr("The battens lie on the ribs as they are.");
    int count = 0;
    for (const auto& c : packed.crossings) count += static_cast<int>(c.stack.pieces.size());
    return BaseWords::tr("%n packer(s) at %1 crossings; %2 of room lost on average, %3 left out of flat at worst",
                         nullptr, count)
        .arg(packed.crossings.size())
        .arg(figures.fineLength(packed.lost), figures.fineLength(packed.worst));
}

} // namespace westrum
