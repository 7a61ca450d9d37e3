#include "formats/plan_file.h"

#include "formats/csv.h"
#include "formats/trim_words.h"

#include <nlohmann/json.hpp>

#include <QCoreApplication>
#include <QStringList>

#include <cmath>
#include <numbers>

namespace westrum {
namespace {

struct PlanText {
    Q_DECLARE_TR_FUNCTIONS(PlanText)
};

using Json = nlohmann::ordered_json;

/// Rounded to 1e-6 so that a file does not show the noise of floating point.
double tidy(double v) {
    const double r = std::round(v * 1e6) / 1e6;
    return r == 0 ? 0 : r;
}

Json asJson(const Region& region) {
    Json rings = Json::array();
    for (const Ring& ring : region.rings) {
        Json points = Json::array();
        for (Point p : ring) points.push_back({tidy(p.x), tidy(p.y)});
        rings.push_back(std::move(points));
    }
    return rings;
}

const char* wordOf(Severity s) { return s == Severity::Error ? "error" : s == Severity::Warning ? "warning" : "note"; }

const char* wordOf(PieceKind kind) {
    switch (kind) {
    case PieceKind::Whole: return "whole";
    case PieceKind::First: return "first";
    case PieceKind::Last: return "last";
    case PieceKind::Single: return "single";
    case PieceKind::Inner: return "inner";
    case PieceKind::Cut: return "cut";
    }
    return "";
}

const char* wordOf(CutKind kind) { return kind == CutKind::Cross ? "cross" : kind == CutKind::Rip ? "rip" : "shape"; }

Json asJson(const Purchase& p, const Job& job) {
    const Product* product = job.catalogue.find(p.product);
    Json out{{"product", p.product},
             {"name", purchaseName(p, job.catalogue).toStdString()},
             {"supplier", !p.supplier.empty() ? p.supplier
                          : product           ? product->supplier
                                              : ""},
             {"amount", tidy(p.amount)},
             {"spare", p.spare},
             {"family", p.family},
             {"packs", p.packs},
             {"unitsPerPack", p.unitsPerPack},
             {"unitsNeeded", p.unitsNeeded},
             {"stock", p.stock},
             {"unitsLeft", p.unitsLeft()},
             {"packPriceMinor", p.packPrice ? Json(p.packPrice->minor) : Json()},
             {"costMinor", p.cost ? Json(p.cost->minor) : Json()},
             {"boughtM2", tidy(p.boughtArea.value)},
             {"consumedM2", tidy(p.consumedArea.value)},
             {"rackM2", tidy(p.rackArea.value)},
             {"fromShelf", tidy(p.shelf)},
             {"laidM2", tidy(p.laidArea.value)},
             {"wasteOfBoughtM2", tidy(p.wasteOfBought().value)},
             {"wasteOfConsumedM2", tidy(p.wasteOfConsumed().value)},
             {"boughtKg", tidy(p.boughtMass.value)},
             {"laidKg", tidy(p.laidMass.value)},
             {"lengthLeftMm", tidy(p.lengthLeft.value)}};
    out["shares"] = Json::array();
    for (const PurchaseShare& s : p.shares)
        out["shares"].push_back({{"surface", s.surface},
                                 {"consumed", tidy(s.consumed)},
                                 {"costMinor", s.cost ? Json(s.cost->minor) : Json()},
                                 {"massKg", tidy(s.mass.value)}});
    return out;
}

Json asJson(const Remark& r, const Figures& figures) {
    return {{"severity", wordOf(r.severity)},
            {"surface", r.place.surface},
            {"index", r.place.index},
            {"text", sentence(r, figures).toStdString()}};
}

Json piecesOf(const SetOut& s) {
    Json pieces = Json::array();
    for (const Piece& p : s.pieces) {
        pieces.push_back({{"name", p.name.key()},
                          {"row", p.row + 1},
                          {"kind", wordOf(p.kind)},
                          {"stock", p.stock + 1},
                          {"fromOffcut", p.fromOffcut},
                          {"lengthMm", tidy(p.length.value)},
                          {"widthMm", tidy(p.width.value)},
                          {"shaped", p.notched},
                          {"ripAtStartMm", tidy(p.ripAtStart.value)},
                          {"ripAtEndMm", tidy(p.ripAtEnd.value)},
                          {"ripFromMm", tidy(p.ripFrom.value)},
                          {"ripToMm", tidy(p.ripTo.value)},
                          {"removable", p.removable},
                          {"outline", asJson(p.shape)},
                          {"factoryEdges",
                           {{"left", p.factory.left},
                            {"right", p.factory.right},
                            {"near", p.factory.near},
                            {"far", p.factory.far}}}});
        if (!p.cut.empty()) {
            pieces.back()["cut"] = asJson(p.cut);
            pieces.back()["folds"] = asJson(Region{p.folds});
        }
    }
    return pieces;
}

Json stockOf(const SetOut& s) {
    Json stock = Json::array();
    for (std::size_t i = 0; i < s.stock.size(); ++i) {
        const StockUnit& u = s.stock[i];
        Json names = Json::array(), cuts = Json::array(), offcuts = Json::array();
        for (int id : u.pieces) names.push_back(s.pieces[static_cast<std::size_t>(id)].name.key());
        for (const Cut& c : u.cuts)
            cuts.push_back(
                {{"kind", wordOf(c.kind)}, {"atMm", c.kind == CutKind::Shape ? Json() : Json(tidy(c.at.value))}});
        for (const Offcut& o : u.offcuts)
            offcuts.push_back(
                {{"lengthMm", tidy(o.length.value)}, {"widthMm", tidy(o.width.value)}, {"ripped", o.ripped}});
        stock.push_back({{"number", i + 1},
                         {"pieces", names},
                         {"cuts", cuts},
                         {"offcuts", offcuts},
                         {"rippedInTwo", u.rippedInTwo}});
    }
    return stock;
}

Json asJson(const Judgement& f) {
    return {{"narrowestEdgeMm", tidy(f.narrowestEdge.value)},
            {"unevennessMm", tidy(f.unevenness.value)},
            {"offCentreMm", tidy(f.offCentre.value)},
            {"slivers", f.slivers},
            {"jointsOffSupport", f.jointsOffSupport},
            {"jointsInLine", f.jointsInLine},
            {"pieces", f.pieces},
            {"cutLengthMm", tidy(f.cutLength.value)},
            {"stock", f.stock},
            {"leastStock", f.leastStock},
            {"linesMissed", f.linesMissed}};
}

Json asJson(const SetOut& s) {
    Json rows = Json::array();
    for (const Row& r : s.rows)
        rows.push_back({{"lowMm", tidy(r.low)}, {"highMm", tidy(r.high)}, {"widthMm", tidy(r.width())}});
    Json joints = Json::array();
    for (const Joint& j : s.joints)
        joints.push_back({{"from", {tidy(j.from.x), tidy(j.from.y)}},
                          {"to", {tidy(j.to.x), tidy(j.to.y)}},
                          {"onSupport", j.onSupport}});
    Json reliefs = Json::array();
    for (const ReliefCut& r : s.reliefs)
        reliefs.push_back({{"from", {tidy(r.from.x), tidy(r.from.y)}}, {"to", {tidy(r.to.x), tidy(r.to.y)}}});
    return {{"direction", s.rowsAcross ? "across" : "along"},
            {"startOffsetMm", tidy(s.startOffset.value)},
            {"startLineMm", tidy(s.startLine)},
            {"firstRowMm", tidy(s.firstRow.value)},
            {"lastRowMm", tidy(s.lastRow.value)},
            {"leastPossible", s.leastStock},
            {"withoutRipReuse", s.stockWithoutRipReuse},
            {"slivers", s.slivers},
            {"net", asJson(s.net)},
            {"figures", asJson(s.figures)},
            {"firstColumnMm", tidy(s.firstColumn.value)},
            {"lastColumnMm", tidy(s.lastColumn.value)},
            {"joints", joints},
            {"reliefs", reliefs},
            {"rows", rows},
            {"pieces", piecesOf(s)},
            {"planks", stockOf(s)}};
}

const char* wordOf(TrimEnd end) {
    switch (end) {
    case TrimEnd::Square: return "square";
    case TrimEnd::Mitred: return "mitred";
    case TrimEnd::Coped: return "coped";
    case TrimEnd::Butted: return "butted";
    case TrimEnd::Blocked: return "blocked";
    case TrimEnd::Scarfed: return "scarfed";
    case TrimEnd::Angled: return "angled";
    }
    return "";
}

Json asJson(const TrimJoint& j) {
    constexpr double degree = std::numbers::pi / 180;
    return {{"made", wordOf(j.end)},
            {"planDeg", tidy(j.planRad / degree)},
            {"mitreDeg", tidy(j.saw.mitreRad / degree)},
            {"bevelDeg", tidy(j.saw.bevelRad / degree)},
            {"longEdge", j.saw.longEdge == LongEdge::Bottom ? "bottom"
                         : j.saw.longEdge == LongEdge::Top  ? "top"
                                                            : "equal"}};
}

Json asJson(const TrimRun& r) {
    Json pieces = Json::array();
    for (const TrimPiece& p : r.pieces)
        pieces.push_back(
            {{"name", p.name}, {"lengthMm", tidy(p.length.value)}, {"start", asJson(p.start)}, {"end", asJson(p.end)}});
    return {{"surface", r.surface},
            {"side", r.side},
            {"name", r.name},
            {"neighbour", r.neighbour},
            {"profile", std::string(profileName(r.profile))},
            {"product", r.product},
            {"lengthMm", tidy(r.length.value)},
            {"pieces", pieces}};
}

/// "mitred, inside corner (bevel 45°)".
QString endText(const TrimJoint& j, const Figures& f) {
    const QString setting = settingText(j.saw, f);
    return setting.isEmpty() ? jointTitle(j) : QStringLiteral("%1 (%2)").arg(jointTitle(j), setting);
}

QByteArray line(const QList<QByteArray>& cells) { return cells.join(',') + "\r\n"; }

} // namespace

QByteArray planAsJson(const Job& job, const Plan& plan) {
    const Figures figures = figuresFor(job);
    Json root{{"format", "westrum-plan"}, {"version", 3}, {"job", job.name}, {"currency", job.currency.name()}};
    root["surfaces"] = Json::array();
    for (const SurfacePlan& s : plan.surfaces) {
        const Surface* surface = job.surface(s.surface);
        Json out{{"id", s.surface}, {"name", surface ? surface->name : ""}, {"measured", s.measured.measured()}};
        out["outline"] = asJson(s.measured.outline);
        out["areaM2"] = tidy(areaMm2(s.measured.outline) / 1e6);
        out["thicknessMm"] = tidy(s.stack.total.value);
        out["gripMm"] = tidy(s.stack.grip.value);
        out["layers"] = Json::array();
        for (std::size_t i = 0; i < s.layers.size(); ++i) {
            const LayerPlan& l = s.layers[i];
            out["layers"].push_back({{"product", l.product},
                                     {"family", l.family},
                                     {"addsMm", tidy(s.stack.adds[i].value)},
                                     {"areaM2", tidy(l.area.value)},
                                     {"massKg", tidy(l.mass.value)},
                                     {"seen", static_cast<int>(i) == s.face},
                                     {"setOut", l.setOut.laid() ? asJson(l.setOut) : Json()}});
        }
        if (s.measured.fit && !s.measured.fit->impossible) {
            Json residuals = Json::object(), misclosures = Json::object();
            for (int k = 0; k < kQuadReadings; ++k) {
                const auto& residual = s.measured.fit->residual[static_cast<std::size_t>(k)];
                const auto& misclosure = s.measured.fit->misclosure[static_cast<std::size_t>(k)];
                if (residual) residuals[readingKey(static_cast<QuadReading>(k))] = tidy(*residual);
                if (misclosure) misclosures[readingKey(static_cast<QuadReading>(k))] = tidy(*misclosure);
            }
            out["residualsMm"] = residuals;
            out["misclosuresMm"] = misclosures;
        }
        root["surfaces"].push_back(std::move(out));
    }
    root["trims"] = Json::array();
    for (const TrimRun& r : plan.trims.runs) root["trims"].push_back(asJson(r));
    root["seats"] = Json::array();
    for (const SeatPlan& seat : plan.seats)
        root["seats"].push_back({{"surface", seat.surface},
                                 {"heightMm", tidy(seat.height.value)},
                                 {"aboveMm", seat.above ? Json(tidy(seat.above->value)) : Json()}});
    root["purchases"] = Json::array();
    for (const Purchase& p : plan.purchases) root["purchases"].push_back(asJson(p, job));
    root["deliveries"] = Json::array();
    for (const DeliveryPlan& d : plan.deliveries)
        root["deliveries"].push_back({{"supplier", d.supplier}, {"costMinor", d.cost.minor}});
    if (const auto& w = plan.balance.wheels)
        root["axles"] = {{"frontAddedKg", tidy(w->frontAdded.value)}, {"rearAddedKg", tidy(w->rearAdded.value)},
                         {"leftAddedKg", tidy(w->leftAdded.value)},   {"rightAddedKg", tidy(w->rightAdded.value)},
                         {"frontKg", tidy(w->front.value)},           {"rearKg", tidy(w->rear.value)}};
    root["totals"] = {{"costMinor", plan.totals.cost ? Json(plan.totals.cost->minor) : Json()},
                      {"laidKg", tidy(plan.totals.laidMass.value)},
                      {"laidM2", tidy(plan.totals.laidArea.value)},
                      {"boughtM2", tidy(plan.totals.boughtArea.value)},
                      {"consumedM2", tidy(plan.totals.consumedArea.value)},
                      {"rackM2", tidy(plan.totals.rackArea.value)},
                      {"chanceOfRunningShort", tidy(plan.totals.runShort)}};
    root["remarks"] = Json::array();
    for (const Remark& r : plan.remarks) root["remarks"].push_back(asJson(r, figures));
    return QByteArray::fromStdString(root.dump(1, ' ', false, Json::error_handler_t::replace)) + '\n';
}

QByteArray shoppingListAsCsv(const Job& job, const Plan& plan) {
    QByteArray out = line({"product", "supplier", "family", "packs", "units per pack", "units needed", "units left",
                           QByteArray("pack price ") + job.currency.name().c_str(),
                           QByteArray("cost ") + job.currency.name().c_str(), "bought m2", "consumed m2", "laid m2",
                           "bought kg", "laid kg", "of them spare", "one lot", "offcuts to keep"});
    const auto money = [](const std::optional<Money>& m) {
        return m ? QByteArray::fromStdString(printMoney(*m, '.', false)).replace("\xE2\x80\xAF", "") : QByteArray();
    };
    for (const Purchase& p : plan.purchases) {
        const Product* product = job.catalogue.find(p.product);
        out += line({csvCell(purchaseName(p, job.catalogue)),
                     csvCell(QString::fromStdString(!p.supplier.empty() ? p.supplier
                                                    : product           ? product->supplier
                                                                        : std::string())),
                     csvCell(QString::fromStdString(p.family)), csvNumber(p.packs, 0), csvNumber(p.unitsPerPack, 0),
                     csvNumber(p.unitsNeeded, 0), csvNumber(p.unitsLeft(), 0), money(p.packPrice), money(p.cost),
                     csvNumber(p.boughtArea.value, 3), csvNumber(p.consumedArea.value, 3),
                     csvNumber(p.laidArea.value, 3), csvNumber(p.boughtMass.value, 2), csvNumber(p.laidMass.value, 2),
                     csvNumber(p.spare, 0), p.oneLot ? "yes" : "no", csvNumber(p.offcuts, 0)});
    }
    for (const DeliveryPlan& d : plan.deliveries)
        out += line({csvCell(PlanText::tr("delivery")), csvCell(QString::fromStdString(d.supplier)), "", "1", "", "",
                     "", money(d.cost), money(d.cost), "", "", "", "", "", "", "", ""});
    return out;
}

QByteArray cutListAsCsv(const Job& job, const Plan& plan) {
    QByteArray out =
        line({"surface", "piece", "row", "kind", "plank", "from offcut", "length mm", "width mm", "shaped"});
    for (const SurfacePlan& s : plan.surfaces) {
        const Surface* surface = job.surface(s.surface);
        for (const LayerPlan& l : s.layers)
            for (const Piece& p : l.setOut.pieces)
                out +=
                    line({csvCell(surface ? QString::fromStdString(surface->name) : QString()),
                          csvCell(pieceText(p.name)), csvNumber(p.row + 1, 0), csvCell(QLatin1String(wordOf(p.kind))),
                          csvNumber(p.stock + 1, 0), p.fromOffcut ? "yes" : "no", csvNumber(p.length.value, 1),
                          csvNumber(p.width.value, 1), p.notched ? "yes" : "no"});
    }
    return out;
}

QString planAsText(const Job& job, const Plan& plan, const Figures& f) {
    QStringList lines;
    lines << QString::fromStdString(job.name) +
                 (job.vehicle.empty() ? QString() : QStringLiteral(", ") + QString::fromStdString(job.vehicle));
    for (const SurfacePlan& s : plan.surfaces) {
        const Surface* surface = job.surface(s.surface);
        lines << QString() << (surface ? QString::fromStdString(surface->name) : QString());
        if (!s.measured.measured()) {
            lines << PlanText::tr("  not measured");
            continue;
        }
        lines << PlanText::tr("  outline %1").arg(f.area({areaMm2(s.measured.outline) / 1e6}));
        for (const LayerPlan& l : s.layers) {
            const SetOut& o = l.setOut;
            if (!o.laid()) continue;
            const Product* product = job.catalogue.find(l.product);
            if (!l.planks) {
                lines << PlanText::tr("  %1: %2, about %3")
                             .arg(product ? QString::fromStdString(product->name) : QString(),
                                  PlanText::tr("%n piece(s)", nullptr, o.figures.pieces),
                                  itemsText(l.family, o.figures.stock, f));
                for (int p = 0; p < static_cast<int>(o.pieces.size()); ++p)
                    lines << QStringLiteral("    ") + stepPiece(o, p, l.family, f);
                continue;
            }
            lines << PlanText::tr("  %1 rows, first %2, last %3; %4, none fewer than %5 possible crosswise")
                         .arg(o.rows.size())
                         .arg(f.fineLength(o.firstRow), f.fineLength(o.lastRow),
                              planksText(static_cast<int>(o.stock.size())))
                         .arg(o.leastStock);
            for (int p = 0; p < static_cast<int>(o.pieces.size()); ++p)
                lines << QStringLiteral("    ") + stepPiece(o, p, l.family, f);
        }
    }
    if (!plan.trims.runs.empty()) lines << QString() << PlanText::tr("Edges");
    for (const TrimRun& r : plan.trims.runs) {
        const Surface* surface = job.surface(r.surface);
        lines << QStringLiteral("  %1, %2")
                     .arg(surface ? QString::fromStdString(surface->name) : QString(), runText(r, job, f));
        for (const TrimPiece& piece : r.pieces)
            lines << PlanText::tr("    %1  %2, left %3, right %4")
                         .arg(QString::fromStdString(piece.name), f.fineLength(piece.length), endText(piece.start, f),
                              endText(piece.end, f));
    }
    lines << QString() << PlanText::tr("To buy");
    for (const Purchase& p : plan.purchases) {
        lines << QStringLiteral("  %1  %2  %3")
                     .arg(packsText(p, f), purchaseName(p, job.catalogue, f),
                          p.cost ? f.money(*p.cost) : PlanText::tr("no price"));
    }
    for (const DeliveryPlan& d : plan.deliveries)
        lines << PlanText::tr("  delivery by %1  %2").arg(QString::fromStdString(d.supplier), f.money(d.cost));
    lines << PlanText::tr("  finishes: laid %1, bought %2, consumed %3; mass of all %4")
                 .arg(f.area(plan.totals.laidArea), f.area(plan.totals.boughtArea), f.area(plan.totals.consumedArea),
                      f.mass(plan.totals.laidMass));
    if (plan.totals.cost) lines << PlanText::tr("  cost %1").arg(f.money(*plan.totals.cost));
    if (!plan.remarks.empty()) lines << QString() << PlanText::tr("Remarks");
    for (const Remark& r : plan.remarks) lines << QStringLiteral("  ") + sentenceWithPlace(job, r, f);
    return lines.join(QLatin1Char('\n')) + QLatin1Char('\n');
}

} // namespace westrum
