#include "formats/work_words.h"

#include <QCoreApplication>
#include <QDate>
#include <QLocale>
#include <QRegularExpression>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

struct WorkWords {
    Q_DECLARE_TR_FUNCTIONS(WorkWords)
};

/// What a step is called where there is room for a word.
QString shortWord(StepKind kind) {
    switch (kind) {
    case StepKind::CheckDelivery: return WorkWords::tr("packs");
    case StepKind::Acclimatise:
    case StepKind::RestTimber:
    case StepKind::RestVinyl: return WorkWords::tr("rest");
    case StepKind::CheckBase:
    case StepKind::CheckBacking: return WorkWords::tr("base");
    case StepKind::LayUnderlay: return WorkWords::tr("underlay");
    case StepKind::FirstRow:
    case StepKind::Row:
    case StepKind::LastRow:
    case StepKind::FirstBoard:
    case StepKind::BoardRow:
    case StepKind::LastBoard: return WorkWords::tr("rows");
    case StepKind::Trims:
    case StepKind::FitTrim:
    case StepKind::FitEdging: return WorkWords::tr("trims");
    case StepKind::RunBead: return WorkWords::tr("sealant");
    case StepKind::CablesTested:
    case StepKind::PipesTested:
    case StepKind::BackingIn:
    case StepKind::SupportsRecorded:
    case StepKind::BarrierTaped:
    case StepKind::TailsThrough: return WorkWords::tr("checks");
    case StepKind::LayBarrier: return WorkWords::tr("barrier");
    case StepKind::FitInsulation: return WorkWords::tr("insulation");
    case StepKind::FixBattens: return WorkWords::tr("battens");
    case StepKind::SpreadAdhesive: return WorkWords::tr("glue");
    case StepKind::Coat: return WorkWords::tr("coat");
    case StepKind::SnapLine:
    case StepKind::TileLines: return WorkWords::tr("lines");
    case StepKind::RoutOpenings: return WorkWords::tr("rout");
    case StepKind::CarryHatch: return WorkWords::tr("hatch");
    case StepKind::MakeTemplate: return WorkWords::tr("template");
    case StepKind::CutPanels: return WorkWords::tr("cut");
    case StepKind::DryFitPanels: return WorkWords::tr("dry fit");
    case StepKind::CutOpenings: return WorkWords::tr("holes");
    case StepKind::FixPanel: return WorkWords::tr("panels");
    case StepKind::CloseJoints: return WorkWords::tr("joints");
    case StepKind::LayTiles:
    case StepKind::CutTiles:
    case StepKind::PeelTiles: return WorkWords::tr("tiles");
    case StepKind::GroutTiles: return WorkWords::tr("grout");
    case StepKind::CutLinings:
    case StepKind::CutCloth: return WorkWords::tr("cut");
    case StepKind::CleanFace:
    case StepKind::CleanGlass: return WorkWords::tr("clean");
    case StepKind::StickLining: return WorkWords::tr("lining");
    case StepKind::LayVinyl: return WorkWords::tr("vinyl");
    case StepKind::CloseSeams: return WorkWords::tr("seams");
    case StepKind::TurnUpstand: return WorkWords::tr("up-stand");
    case StepKind::TrimLining: return WorkWords::tr("trim");
    case StepKind::WrapPanels: return WorkWords::tr("wrap");
    case StepKind::ClipPanels: return WorkWords::tr("clips");
    case StepKind::LayFilm: return WorkWords::tr("film");
    case StepKind::CutFoam: return WorkWords::tr("foam");
    case StepKind::SewZip:
    case StepKind::SewPiping:
    case StepKind::SewCushions: return WorkWords::tr("sew");
    case StepKind::FillCushions: return WorkWords::tr("fill");
    case StepKind::StapleCover: return WorkWords::tr("staple");
    case StepKind::FitFittings: return WorkWords::tr("lamps");
    }
    return {};
}

/// The step that a piece of work is known by: what covers, else what is no check.
StepKind mainKind(const WorkItem& item) {
    for (const StepKind k : item.kinds)
        if (effortRow(k).needs.covers) return k;
    for (const StepKind k : item.kinds)
        if (!isCheck(k)) return k;
    return item.kinds.front();
}

QString nameOf(const Job& job, const std::string& surface) {
    const Surface* s = job.surface(surface);
    return QString::fromStdString(s ? s->name : surface);
}

QString productName(const Job& job, const std::string& product) {
    const Product* p = job.catalogue.find(product);
    return QString::fromStdString(p ? p->name : product);
}

} // namespace

QString durationText(double minutes) {
    const int all = std::max(0, static_cast<int>(std::lround(minutes)));
    if (all < 60) return WorkWords::tr("%1 min").arg(all);
    constexpr int kRoundFrom = 20 * 60; // so long is said in whole hours
    if (all >= kRoundFrom) return WorkWords::tr("%1 h").arg((all + 30) / 60);
    if (all % 60 == 0) return WorkWords::tr("%1 h").arg(all / 60);
    return WorkWords::tr("%1 h %2").arg(all / 60).arg(all % 60, 2, 10, QLatin1Char('0'));
}

QString dayText(const CivilDate& day) {
    return QLocale().toString(QDate(day.year, day.month, day.day),
                              WorkWords::tr("ddd d MMMM", "a day of the week and of the month"));
}

QString clockText(int minute) {
    return QStringLiteral("%1:%2").arg(minute / 60, 2, 10, QLatin1Char('0')).arg(minute % 60, 2, 10, QLatin1Char('0'));
}

QString workDayText(const WorkDay& day, bool people) {
    QStringList spans;
    for (const WorkSpan& s : day)
        spans << clockText(s.from) + QStringLiteral("–") + clockText(s.to) +
                     (people ? QStringLiteral(" ×%1").arg(s.people) : QString());
    return spans.isEmpty() ? WorkWords::tr("off", "a day on which nobody works") : spans.join(QStringLiteral(", "));
}

std::optional<WorkDay> parseWorkDay(const QString& typed) {
    WorkDay day;
    const QString text = typed.trimmed();
    if (text.isEmpty() || text == WorkWords::tr("off", "a day on which nobody works") || text == QStringLiteral("-") ||
        text.compare(QStringLiteral("off"), Qt::CaseInsensitive) == 0)
        return day;
    static const QRegularExpression kSpan(QStringLiteral(
        "^\\s*(\\d{1,2})(?:[:.](\\d{2}))?\\s*[-–]\\s*(\\d{1,2})(?:[:.](\\d{2}))?\\s*(?:[x×*]\\s*(\\d{1,2}))?\\s*$"));
    static const QRegularExpression kBetween(QStringLiteral("[,;]"));
    int last = 0;
    for (const QString& part : text.split(kBetween)) {
        const QRegularExpressionMatch m = kSpan.match(part);
        if (!m.hasMatch()) return std::nullopt;
        const WorkSpan s{m.captured(1).toInt() * 60 + m.captured(2).toInt(),
                         m.captured(3).toInt() * 60 + m.captured(4).toInt(),
                         m.captured(5).isEmpty() ? 1 : m.captured(5).toInt()};
        if (m.captured(2).toInt() > 59 || m.captured(4).toInt() > 59 || s.from < last || s.to <= s.from ||
            s.to > 24 * 60 || s.people < 1 || s.people > 20)
            return std::nullopt;
        last = s.to;
        day.push_back(s);
    }
    return day;
}

std::optional<CivilDate> parseDay(const QString& typed) {
    const QString text = typed.trimmed();
    if (const auto iso = parseIsoDate(text.toStdString())) return iso;
    static const QRegularExpression kDay(QStringLiteral("^(\\d{1,2})[./ ](\\d{1,2})[./ ](\\d{4})$"));
    const QRegularExpressionMatch m = kDay.match(text);
    if (!m.hasMatch()) return std::nullopt;
    const CivilDate d{m.captured(3).toInt(), m.captured(2).toInt(), m.captured(1).toInt()};
    return isDay(d) ? std::optional(d) : std::nullopt;
}

const FitStep* stepOf(const Plan& plan, const StepRef& ref) {
    const SurfacePlan* s = plan.surface(ref.surface);
    if (!s) return nullptr;
    const auto step =
        std::find_if(s->steps.begin(), s->steps.end(), [&](const FitStep& x) { return x.key == ref.key; });
    return step == s->steps.end() ? nullptr : &*step;
}

QString workLabel(const WorkItem& item) {
    switch (item.kind) {
    case WorkKind::Trip: return WorkWords::tr("fetch");
    case WorkKind::Delivery: return WorkWords::tr("delivery");
    case WorkKind::Protect: return WorkWords::tr("protect");
    case WorkKind::Weigh: return WorkWords::tr("weigh");
    case WorkKind::Tidy: return WorkWords::tr("tidy");
    case WorkKind::Gate: return gateText(item.gate);
    case WorkKind::Surface:
    case WorkKind::Cutting:
    case WorkKind::Coating: break;
    }
    return item.kinds.empty() ? QString() : shortWord(mainKind(item));
}

QString workTitle(const Job& job, const Plan& plan, const WorkItem& item, const Figures& figures) {
    const QString of = QString::fromStdString(item.of);
    switch (item.kind) {
    case WorkKind::Trip:
        return of.isEmpty() ? WorkWords::tr("Fetch what is not bought yet") : WorkWords::tr("Fetch from %1").arg(of);
    case WorkKind::Delivery: return WorkWords::tr("Delivery from %1").arg(of);
    case WorkKind::Cutting: return WorkWords::tr("Cut all %1").arg(productName(job, item.of));
    case WorkKind::Coating: {
        const FitStep* step = item.steps.empty() ? nullptr : stepOf(plan, item.steps.front());
        return WorkWords::tr("%1: %2").arg(productName(job, item.of), step ? stepTitle(*step, figures) : QString());
    }
    case WorkKind::Protect: return WorkWords::tr("%1: cover it, others work over it").arg(nameOf(job, item.surface));
    case WorkKind::Weigh: return WorkWords::tr("Weigh the van");
    case WorkKind::Tidy: return WorkWords::tr("Tidy up");
    case WorkKind::Gate: return gateText(item.gate);
    case WorkKind::Surface: break;
    }
    QString what;
    const FitStep *first = nullptr, *last = nullptr;
    bool checks = false;
    for (const StepRef& ref : item.steps)
        if (const FitStep* step = stepOf(plan, ref)) {
            if (isCheck(step->kind)) {
                checks = true;
                continue;
            }
            first = first ? first : step;
            last = step;
        }
    if (first) what = stepTitle(*first, figures);
    if (first && first != last) what = WorkWords::tr("%1 to %2").arg(what, stepTitle(*last, figures));
    if (checks)
        what = what.isEmpty() ? WorkWords::tr("look behind it before it is covered")
                              : WorkWords::tr("%1, then look behind it").arg(what);
    return what.isEmpty() ? nameOf(job, item.surface) : WorkWords::tr("%1: %2").arg(nameOf(job, item.surface), what);
}

QString placeText(WorkPlace place) {
    switch (place) {
    case WorkPlace::Van: return WorkWords::tr("in the van");
    case WorkPlace::Yard: return WorkWords::tr("outside");
    case WorkPlace::Workshop: return WorkWords::tr("at a table");
    case WorkPlace::Shop: return WorkWords::tr("on the road");
    }
    return {};
}

QString toolText(Tool tool) {
    switch (tool) {
    case Tool::TapeMeasure: return WorkWords::tr("tape measure");
    case Tool::Pencil: return WorkWords::tr("pencil");
    case Tool::StraightEdge: return WorkWords::tr("straight edge");
    case Tool::ChalkLine: return WorkWords::tr("chalk line");
    case Tool::Level: return WorkWords::tr("level");
    case Tool::Card: return WorkWords::tr("card");
    case Tool::Saw: return WorkWords::tr("saw");
    case Tool::Jigsaw: return WorkWords::tr("jigsaw");
    case Tool::Router: return WorkWords::tr("router");
    case Tool::HoleSaw: return WorkWords::tr("hole saw");
    case Tool::Drill: return WorkWords::tr("drill");
    case Tool::Driver: return WorkWords::tr("screwdriver");
    case Tool::RivetNutTool: return WorkWords::tr("rivet-nut tool");
    case Tool::Mallet: return WorkWords::tr("mallet and block");
    case Tool::PullBar: return WorkWords::tr("pull bar");
    case Tool::Clamps: return WorkWords::tr("clamps");
    case Tool::Props: return WorkWords::tr("props");
    case Tool::Knife: return WorkWords::tr("knife, new blades");
    case Tool::Scissors: return WorkWords::tr("scissors");
    case Tool::Roller: return WorkWords::tr("pressing roller");
    case Tool::Trowel: return WorkWords::tr("notched trowel");
    case Tool::Brush: return WorkWords::tr("brush");
    case Tool::CoatRoller: return WorkWords::tr("paint roller");
    case Tool::Stapler: return WorkWords::tr("stapler");
    case Tool::SewingMachine: return WorkWords::tr("sewing machine");
    case Tool::HotKnife: return WorkWords::tr("hot-air gun");
    case Tool::SealantGun: return WorkWords::tr("sealant gun");
    case Tool::TileCutter: return WorkWords::tr("tile cutter");
    case Tool::GroutFloat: return WorkWords::tr("grout float");
    case Tool::Cloths: return WorkWords::tr("clean cloths");
    case Tool::Camera: return WorkWords::tr("camera");
    case Tool::Tester: return WorkWords::tr("tester");
    case Tool::Mask: return WorkWords::tr("mask");
    case Tool::Gloves: return WorkWords::tr("gloves");
    case Tool::EyeAndEar: return WorkWords::tr("eye and ear protection");
    }
    return {};
}

QStringList toolsText(const WorkItem& item) {
    QStringList all;
    for (const StepKind k : item.kinds)
        for (const Tool tool : toolsFor(k))
            if (const QString text = toolText(tool); !all.contains(text)) all << text;
    return all;
}

QString gateText(WorkGate gate) {
    switch (gate) {
    case WorkGate::Watertight: return WorkWords::tr("windows and vents in, no leak");
    case WorkGate::FirstFix: return WorkWords::tr("first-fix wiring tested");
    case WorkGate::SignedOff: return WorkWords::tr("gas and mains signed off by a licensed trade");
    case WorkGate::FurnitureIn: return WorkWords::tr("furniture in");
    }
    return {};
}

QString ruleText(WorkRule rule, RuleWay way) {
    const bool usual = way == RuleWay::Usual, off = way == RuleWay::Off;
    switch (rule) {
    case WorkRule::CeilingBeforeWalls:
        return off     ? WorkWords::tr("ceiling and walls as it comes")
               : usual ? WorkWords::tr("ceiling before walls")
                       : WorkWords::tr("walls before ceiling");
    case WorkRule::WallsBeforeEnds:
        return off     ? WorkWords::tr("bulkhead and pillars as it comes")
               : usual ? WorkWords::tr("walls before bulkhead and pillars")
                       : WorkWords::tr("bulkhead and pillars before walls");
    case WorkRule::FloorBeforeWalls:
        return off     ? WorkWords::tr("floor as it comes")
               : usual ? WorkWords::tr("floor first")
                       : WorkWords::tr("floor last");
    case WorkRule::FloorBeforeFurniture:
        return off     ? WorkWords::tr("floor and furniture as it comes")
               : usual ? WorkWords::tr("floor before furniture")
                       : WorkWords::tr("furniture before floor");
    case WorkRule::WallsBeforeFronts:
        return off     ? WorkWords::tr("fronts as it comes")
               : usual ? WorkWords::tr("walls before fronts")
                       : WorkWords::tr("fronts before walls");
    case WorkRule::TrimsAfterFaces:
        return off     ? WorkWords::tr("trims as it comes")
               : usual ? WorkWords::tr("trims after both faces")
                       : WorkWords::tr("floor trims before the walls");
    case WorkRule::DoorsLast:
        return off     ? WorkWords::tr("doors as it comes")
               : usual ? WorkWords::tr("doors last")
                       : WorkWords::tr("doors first");
    case WorkRule::CoatsBeforeFitting:
        return usual ? WorkWords::tr("coats before fitting") : WorkWords::tr("coats after fitting");
    }
    return {};
}

QString ruleReason(WorkRule rule) {
    switch (rule) {
    case WorkRule::CeilingBeforeWalls:
        return WorkWords::tr("The ceiling's edge rests on nothing, and the walls' upper edge hides under it. Some line "
                             "the walls first and cover the joint with a strip.");
    case WorkRule::WallsBeforeEnds:
        return WorkWords::tr("Bulkhead, pillars and reveals close over the ends of the walls.");
    case WorkRule::FloorBeforeWalls:
        return WorkWords::tr("A floor laid first runs under the walls and has clean edges, but must be covered while "
                             "others work over it. A floor laid last stays clean and is cut to every edge.");
    case WorkRule::FloorBeforeFurniture:
        return WorkWords::tr("A floor under the furniture allows another layout later. Furniture first saves material "
                             "and mass, and pins no floating floor.");
    case WorkRule::WallsBeforeFronts: return WorkWords::tr("Fronts and tops are scribed to walls that are there.");
    case WorkRule::TrimsAfterFaces: return WorkWords::tr("A trim is measured once both faces that it closes are up.");
    case WorkRule::DoorsLast: return WorkWords::tr("The way in stays bare and wide until everything large is inside.");
    case WorkRule::CoatsBeforeFitting:
        return WorkWords::tr("Boards and panels are coated on trestles, all at once, edges too; touched up after. "
                             "Coated in place, the joints are filled and the van is shut while it dries.");
    }
    return {};
}

QString faultText(WorkFault fault, const QString& title) {
    switch (fault) {
    case WorkFault::Circular:
        return WorkWords::tr("%1 waits for itself: two rules say the opposite. Switch one of them.").arg(title);
    case WorkFault::NeverDry: return WorkWords::tr("%1 finds no dry day in this calendar.").arg(title);
    case WorkFault::NeverLight:
        return WorkWords::tr("%1 needs daylight, and nobody works while there is any.").arg(title);
    case WorkFault::NeverOpen:
        return WorkWords::tr("%1: nobody is there while shops are open. Let somebody be, or change their hours.")
            .arg(title);
    case WorkFault::NeverWarm:
        return WorkWords::tr("%1 never finds the warmth that it needs: heat the van, or wait.").arg(title);
    case WorkFault::TooFewPeople: return WorkWords::tr("%1 takes two, and there never are.").arg(title);
    case WorkFault::TooLong:
        return WorkWords::tr("%1 cannot be broken off, and no day is as long as it takes.").arg(title);
    case WorkFault::AfterTheEnd: return WorkWords::tr("%1 finds no time in the next two years.").arg(title);
    case WorkFault::Pinned: return WorkWords::tr("%1 cannot be done on the day that you put it on.").arg(title);
    case WorkFault::AfterUnplaced: return WorkWords::tr("%1 waits for what has no place.").arg(title);
    }
    return {};
}

QString troubleText(const PinTrouble& trouble, const QString& title, const QString& waitsFor, const CivilDate& day) {
    const QString on = dayText(day);
    switch (trouble.why) {
    case PinTrouble::Past: return WorkWords::tr("%1 is over.").arg(on);
    case PinTrouble::NobodyThere: return WorkWords::tr("Nobody works on %1.").arg(on);
    case PinTrouble::TooShort: return WorkWords::tr("%1 finds too little time or too few hands on %2.").arg(title, on);
    case PinTrouble::Wet: return WorkWords::tr("%1 must stay dry, and %2 is likely wet.").arg(title, on);
    case PinTrouble::Dark:
        return WorkWords::tr("%1 needs daylight, and on %2 work is done in the dark.").arg(title, on);
    case PinTrouble::Shut:
        return WorkWords::tr("%1 needs shops to be open, and on %2 nobody is there while they are.").arg(title, on);
    case PinTrouble::Cold: return WorkWords::tr("%1 is too cold, or too warm, on %2.").arg(title, on);
    case PinTrouble::AlreadyDone: return WorkWords::tr("%1 is done.").arg(title);
    case PinTrouble::WaitsFor:
        return trouble.rule ? WorkWords::tr("%1 waits for “%2”: %3.")
                                  .arg(title, waitsFor, ruleText(*trouble.rule, RuleWay::Usual))
                            : WorkWords::tr("%1 waits for “%2”, which is not ready by %3.").arg(title, waitsFor, on);
    }
    return {};
}

QString delayText(const QString& title, DelayBy by, double share, const Figures& figures) {
    return by == DelayBy::Weather ? WorkWords::tr("rain or cold on “%1” (%2)").arg(title, figures.percent(share))
                                  : WorkWords::tr("“%1” (%2)").arg(title, figures.percent(share));
}

} // namespace westrum
