#include "formats/work_file.h"

#include "formats/json_walk.h"

#include <QCoreApplication>

#include <algorithm>
#include <map>

namespace westrum {
namespace {

struct WorkWords {
    Q_DECLARE_TR_FUNCTIONS(WorkWords)
};

constexpr std::size_t kMostTasks = 5000, kMostWindows = 20000, kMostLinks = 50000;
constexpr int kLatest = 60 * 24 * 366 * 20; // minutes: twenty years

class WorkReader : public JsonWalk {
public:
    WorkProblem read(const Json& root) {
        WorkProblem p;
        count(root, "", "vanHolds", 1, 100, p.holds);
        each(
            root, "", "windows",
            [&](const Json& e, const std::string& at) {
                WorkWindow w;
                count(e, at, "start", 0, kLatest, w.start, true);
                count(e, at, "end", 0, kLatest, w.end, true);
                count(e, at, "people", 0, 1000, w.people);
                flag(e, at, "dry", w.dry);
                flag(e, at, "light", w.light);
                number(e, at, "degC", -90, 90, w.degC, false);
                if (w.end <= w.start) fault(FileFaultKind::OutOfRange, at + ".end");
                if (!p.windows.empty() && w.start < p.windows.back().end)
                    fault(FileFaultKind::OutOfRange, at + ".start");
                p.windows.push_back(w);
            },
            true, kMostWindows);
        std::set<std::string> ids;
        std::map<std::string, int> place;
        each(
            root, "", "tasks",
            [&](const Json& e, const std::string& at) {
                WorkTask t;
                id(e, at, ids, t.id);
                count(e, at, "minutes", 1, kLatest, t.minutes, true);
                count(e, at, "hands", 1, 1000, t.hands);
                static constexpr FileWords<bool, 2> kPlaces{{{true, "van"}, {false, "yard"}}};
                word(e, at, "place", kPlaces, t.inside, false);
                flag(e, at, "split", t.split);
                flag(e, at, "dry", t.dry);
                flag(e, at, "light", t.light);
                double degC = 0;
                if (number(e, at, "minC", -90, 90, degC, false)) t.minC = degC;
                if (number(e, at, "maxC", -90, 90, degC, false)) t.maxC = degC;
                if (member(e, at, "fumes", false)) {
                    int minutes = 0;
                    count(e, at, "fumes", 0, kLatest, minutes, true);
                    t.fumes = minutes;
                }
                place[t.id] = static_cast<int>(p.tasks.size());
                p.tasks.push_back(std::move(t));
            },
            true, kMostTasks);
        each(
            root, "", "before",
            [&](const Json& e, const std::string& at) {
                std::string first, then;
                WorkBefore b;
                text(e, at, "first", first);
                text(e, at, "then", then);
                count(e, at, "wait", 0, kLatest, b.wait);
                if (!place.contains(first)) return fault(FileFaultKind::UnknownWord, at + ".first", first);
                if (!place.contains(then)) return fault(FileFaultKind::UnknownWord, at + ".then", then);
                b.first = place[first];
                b.then = place[then];
                p.before.push_back(b);
            },
            false, kMostLinks);
        return p;
    }
};

} // namespace

Result<WorkProblem, QString> readWork(const QByteArray& bytes) {
    const Json root = Json::parse(bytes.begin(), bytes.end(), nullptr, false);
    if (!root.is_object()) return WorkWords::tr("This is no file of work to be planned.");
    WorkReader reader;
    WorkProblem problem = reader.read(root);
    if (!reader.faults().empty())
        return WorkWords::tr("%1 is missing or cannot be.").arg(QString::fromStdString(reader.faults().front().path));
    return problem;
}

QByteArray writeSchedule(const WorkProblem& problem, const WorkSchedule& schedule) {
    Json out{{"finish", schedule.finish}, {"bound", schedule.bound}, {"tasks", Json::array()}};
    for (std::size_t i = 0; i < problem.tasks.size() && i < schedule.parts.size(); ++i) {
        Json parts = Json::array();
        for (const WorkPart& p : schedule.parts[i]) parts.push_back({p.start, p.end});
        out["tasks"].push_back({{"id", problem.tasks[i].id}, {"parts", std::move(parts)}});
    }
    return QByteArray::fromStdString(out.dump(1)) + '\n';
}

QString unplacedText(const WorkProblem& problem, const WorkUnplaced& unplaced) {
    const WorkTask& t = problem.tasks[static_cast<std::size_t>(unplaced.task)];
    const QString id = QString::fromStdString(t.id);
    switch (unplaced.fault) {
    case WorkFault::Circular: return WorkWords::tr("%1 waits for itself: what it waits for waits for it.").arg(id);
    case WorkFault::NeverDry: return WorkWords::tr("%1 must be dry, and no dry time is left in this calendar.").arg(id);
    case WorkFault::NeverLight:
        return WorkWords::tr("%1 needs daylight, and none with what else it needs is left in this calendar.").arg(id);
    case WorkFault::NeverOpen:
        return WorkWords::tr("%1 needs others to be open, and no time that is left is within their hours.").arg(id);
    case WorkFault::NeverWarm:
        return WorkWords::tr("%1: no time that is left is within its temperatures. Heat the place, or wait for a "
                             "warmer month.")
            .arg(id);
    case WorkFault::TooFewPeople:
        return WorkWords::tr("%1 takes %n pair(s) of hands, and no time that is left has so many.", nullptr, t.hands)
            .arg(id);
    case WorkFault::TooLong:
        return WorkWords::tr("%1 takes %2 minutes in one go, longer than any time that is left for it.")
            .arg(id)
            .arg(t.minutes);
    case WorkFault::AfterTheEnd: return WorkWords::tr("%1 has no time left in this calendar: add days.").arg(id);
    case WorkFault::Pinned: return WorkWords::tr("%1 cannot lie where it is pinned.").arg(id);
    case WorkFault::AfterUnplaced: return WorkWords::tr("%1 waits for something that has no place.").arg(id);
    }
    return {};
}

} // namespace westrum
