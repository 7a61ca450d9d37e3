#include "formats/work_out.h"

#include "formats/csv.h"
#include "formats/work_words.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QTimeZone>

#include <algorithm>

namespace westrum {
namespace {

struct WorkOutWords {
    Q_DECLARE_TR_FUNCTIONS(WorkOutWords)
};

/// A stretch of work, in the order of time.
struct Stretch {
    int item{};
    WorkPart part;
    std::size_t nth{}, of{};
};

std::vector<Stretch> stretchesOf(const WorkQuestion& question, const WorkPlan& work) {
    std::vector<Stretch> all;
    for (std::size_t i = 0; i < question.net.items.size(); ++i) {
        if (question.net.items[i].kind == WorkKind::Gate) continue;
        const auto& parts = work.parts(static_cast<int>(i));
        for (std::size_t k = 0; k < parts.size(); ++k) all.push_back({static_cast<int>(i), parts[k], k, parts.size()});
    }
    std::stable_sort(all.begin(), all.end(),
                     [](const Stretch& a, const Stretch& b) { return a.part.start < b.part.start; });
    return all;
}

QByteArray escaped(const QString& text) {
    QByteArray out;
    for (const char c : text.toUtf8())
        if (c == '\n')
            out += "\\n";
        else if (c == ',' || c == ';' || c == '\\') {
            out += '\\';
            out += c;
        } else if (static_cast<unsigned char>(c) >= 0x20)
            out += c;
    return out;
}

/// A line of the calendar, folded to 75 octets without breaking a character.
void put(QByteArray& out, const QByteArray& line) {
    constexpr qsizetype kMost = 74;
    qsizetype at = 0;
    while (at < line.size()) {
        qsizetype length = std::min(at == 0 ? kMost + 1 : kMost, line.size() - at);
        while (at + length < line.size() && (static_cast<unsigned char>(line[at + length]) & 0xC0) == 0x80) --length;
        if (at > 0) out += ' ';
        out += line.mid(at, length) + "\r\n";
        at += length;
    }
}

QByteArray utc(const WorkClock::Moment& m, const WorkSite& site) {
    const QDateTime local(QDate(m.day.year, m.day.month, m.day.day), QTime(0, 0), QTimeZone::utc());
    return local.addSecs(60 * (m.minute - utcOffsetAt(m.day, m.minute, site)))
        .toString(QStringLiteral("yyyyMMdd'T'HHmmss'Z'"))
        .toLatin1();
}

QString detailsOf(const Plan& plan, const WorkItem& item, const Figures& figures) {
    QStringList lines;
    for (const StepRef& ref : item.steps)
        if (const FitStep* step = stepOf(plan, ref)) lines << stepTitle(*step, figures);
    if (const QStringList tools = toolsText(item); !tools.isEmpty())
        lines << WorkOutWords::tr("Tools: %1").arg(tools.join(QStringLiteral(", ")));
    return lines.join(QLatin1Char('\n'));
}

} // namespace

QByteArray workAsCalendar(const Job& job, const Plan& plan, const WorkQuestion& question, const WorkPlan& work,
                          const Figures& figures) {
    QByteArray out;
    put(out, "BEGIN:VCALENDAR");
    put(out, "VERSION:2.0");
    put(out, "PRODID:-//Westrum//Westrum//EN");
    put(out, "X-WR-CALNAME:" + escaped(QString::fromStdString(job.name)));
    for (const Stretch& s : stretchesOf(question, work)) {
        const WorkItem& item = question.net.items[static_cast<std::size_t>(s.item)];
        QString title = workTitle(job, plan, item, figures);
        if (s.of > 1) title = WorkOutWords::tr("%1 (%2 of %3)").arg(title).arg(s.nth + 1).arg(s.of);
        put(out, "BEGIN:VEVENT");
        put(out, "UID:" + QByteArray::fromStdString(item.id).toPercentEncoding() + '-' + QByteArray::number(s.nth + 1) +
                     "@westrum");
        put(out, "DTSTAMP:" + utc(question.now, question.settings.site));
        put(out, "DTSTART:" + utc(work.clock.moment(s.part.start), question.settings.site));
        put(out, "DTEND:" + utc(work.clock.moment(s.part.end), question.settings.site));
        put(out, "SUMMARY:" + escaped(title));
        if (const QString details = detailsOf(plan, item, figures); !details.isEmpty())
            put(out, "DESCRIPTION:" + escaped(details));
        put(out, "LOCATION:" + escaped(placeText(item.place)));
        put(out, "END:VEVENT");
    }
    put(out, "END:VCALENDAR");
    return out;
}

QByteArray workAsCsv(const Job& job, const Plan& plan, const WorkQuestion& question, const WorkPlan& work,
                     const Figures& figures) {
    QByteArray out;
    for (const QString& heading : {WorkOutWords::tr("day"), WorkOutWords::tr("from"), WorkOutWords::tr("to"),
                                   WorkOutWords::tr("work"), WorkOutWords::tr("where"), WorkOutWords::tr("hands")})
        out += csvCell(heading) + ';';
    out += csvCell(WorkOutWords::tr("hours waited for after")) + '\n';
    for (const Stretch& s : stretchesOf(question, work)) {
        const WorkItem& item = question.net.items[static_cast<std::size_t>(s.item)];
        const WorkClock::Moment from = work.clock.moment(s.part.start), to = work.clock.moment(s.part.end);
        out += QByteArray::fromStdString(isoDate(from.day)) + ';' + clockText(from.minute).toLatin1() + ';' +
               clockText(to.minute).toLatin1() + ';' + csvCell(workTitle(job, plan, item, figures)) + ';' +
               csvCell(placeText(item.place)) + ';' + csvNumber(item.needs.hands, 0) + ';' +
               csvNumber(s.nth + 1 == s.of ? item.wait / 60.0 : 0, 1) + '\n';
    }
    return out;
}

} // namespace westrum
