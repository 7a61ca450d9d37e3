#include "app/print/work_print.h"

#include "app/print/page_flow.h"
#include "app/print/paper.h"
#include "formats/work_words.h"

#include <QCoreApplication>

#include <algorithm>
#include <map>

namespace westrum {
namespace {

struct WorkPrint {
    Q_DECLARE_TR_FUNCTIONS(WorkPrint)
};

/// What is begun or gone on with on a day, in the order of the clock.
struct OnDay {
    int item{};
    WorkPart part;
    bool first{}; ///< begun then
};

std::map<CivilDate, std::vector<OnDay>> byDay(const WorkAnswer& work, const WorkClock::Moment& now) {
    std::map<CivilDate, std::vector<OnDay>> days;
    for (std::size_t i = 0; i < work.question.net.items.size(); ++i) {
        const WorkItem& item = work.question.net.items[i];
        if (item.kind == WorkKind::Gate || item.left <= 0) continue;
        const auto& parts = work.plan.parts(static_cast<int>(i));
        for (const WorkPart& p : parts) {
            const CivilDate day = work.plan.clock.moment(p.start).day;
            if (day >= now.day) days[day].push_back({static_cast<int>(i), p, p == parts.front()});
        }
    }
    for (auto& [day, all] : days)
        std::stable_sort(all.begin(), all.end(),
                         [](const OnDay& a, const OnDay& b) { return a.part.start < b.part.start; });
    return days;
}

void printItem(PageFlow& sheet, const Job& job, const Plan& plan, const WorkAnswer& work, const OnDay& on,
               const Figures& f) {
    const WorkItem& item = work.question.net.items[static_cast<std::size_t>(on.item)];
    const WorkClock& clock = work.plan.clock;
    sheet.gap(0.4);
    sheet.keep(70);
    sheet.heading(WorkPrint::tr("%1 to %2  %3")
                      .arg(clockText(clock.moment(on.part.start).minute), clockText(clock.moment(on.part.end).minute),
                           workTitle(job, plan, item, f)),
                  1.1);
    QStringList facts{item.needs.hands > 1 ? WorkPrint::tr("two pairs of hands") : WorkPrint::tr("one pair of hands"),
                      placeText(item.place)};
    if (!on.first) facts << WorkPrint::tr("gone on with");
    if (item.wait > 0) facts << WorkPrint::tr("then it sets for %1").arg(durationText(item.wait));
    if (const QStringList tools = toolsText(item); !tools.isEmpty())
        facts << WorkPrint::tr("tools: %1").arg(tools.join(QStringLiteral(", ")));
    sheet.text(facts.join(QStringLiteral(" · ")));
    for (const StepRef& ref : item.steps) {
        const FitStep* step = stepOf(plan, ref);
        if (!step || job.log(ref.surface).done.contains(ref.key)) continue;
        QString line = QStringLiteral("☐ ") + stepTitle(*step, f);
        if (const QString body = stepBody(*step, f); !body.isEmpty()) line += QStringLiteral(": ") + body;
        if (!step->pieces.empty()) {
            const SurfacePlan* s = plan.surface(ref.surface);
            const LayerPlan& layer = s->layers[static_cast<std::size_t>(step->layer)];
            QStringList pieces;
            for (const int i : step->pieces) pieces << stepPiece(layer.setOut, i, layer.family, f);
            line += QLatin1Char(' ') + pieces.join(QStringLiteral("; "));
        }
        sheet.text(line);
        if (step->caution) sheet.text(QStringLiteral("   ! ") + cautionText(*step->caution));
    }
    if (item.steps.empty()) sheet.text(QStringLiteral("☐ ") + workTitle(job, plan, item, f));
}

} // namespace

QString printWork(const QString& path, const Job& job, const Plan& plan, const WorkAnswer& work,
                  const WorkClock::Moment& now, const Figures& f) {
    return savePdf(path, QString::fromStdString(job.name), QMarginsF(15, 15, 15, 15),
                   [&](QPainter& painter, const QRectF& page, const std::function<void()>& newPage) {
                       PageFlow sheet(painter, page, newPage);
                       sheet.heading(WorkPrint::tr("%1: the days ahead").arg(QString::fromStdString(job.name)), 1.6);
                       int shown = 0;
                       for (const auto& [day, all] : byDay(work, now)) {
                           if (shown++ == kDaysOnPaper) break;
                           if (shown > 1) sheet.turn();
                           const ExpectedWeather w = expectedWeather(work.question.settings, day);
                           sheet.heading(dayText(day), 1.4);
                           sheet.text(WorkPrint::tr("Dry with %1, %2 to %3 °C%4.")
                                          .arg(f.percent(w.dryChance), f.number(w.low, 0), f.number(w.high, 0),
                                               w.forecast ? QString() : WorkPrint::tr(", as the month usually is")));
                           for (const OnDay& on : all) printItem(sheet, job, plan, work, on, f);
                       }
                       if (shown == 0) sheet.text(WorkPrint::tr("Nothing is left to do."));
                   });
}

} // namespace westrum
