// westrum-schedule INSTANCE [--seconds S] [--seed N] [--iterations N]: plans work in time.
// Exit status: 0 planned, 1 planned but not all tasks have a place, 2 cannot read.

#include "formats/translations.h"
#include "formats/work_file.h"

#include <QCommandLineParser>
#include <QCoreApplication>
#include <QFile>

#include <cstdio>
#include <limits>

using namespace westrum;

namespace {

struct ScheduleCommand {
    Q_DECLARE_TR_FUNCTIONS(ScheduleCommand)
};

constexpr qint64 kLargestFile = 64 << 20;
constexpr double kUsualSeconds = 5;

int refuse(const QString& text) {
    std::fprintf(stderr, "westrum-schedule: %s\n", qPrintable(text));
    return 2;
}

} // namespace

int main(int argc, char** argv) {
    QCoreApplication app(argc, argv);
    QCoreApplication::setApplicationName(QStringLiteral("westrum-schedule"));
    QCoreApplication::setApplicationVersion(QStringLiteral(WESTRUM_VERSION));
    loadTranslations();

    QCommandLineParser parser;
    parser.setApplicationDescription(ScheduleCommand::tr(
        "Plans work in windows of time with people, weather and light, and says before when it cannot be done."));
    const QCommandLineOption seconds(QStringLiteral("seconds"), ScheduleCommand::tr("How long to look for better (5)."),
                                     QStringLiteral("S"));
    const QCommandLineOption seed(QStringLiteral("seed"), ScheduleCommand::tr("Of the search's random choices (1)."),
                                  QStringLiteral("N"));
    const QCommandLineOption iterations(
        QStringLiteral("iterations"),
        ScheduleCommand::tr("How many orders to try: with these and no seconds the answer is always the same."),
        QStringLiteral("N"));
    parser.addOptions({seconds, seed, iterations});
    parser.addPositionalArgument(QStringLiteral("INSTANCE"),
                                 ScheduleCommand::tr("A problem of work; - reads standard input."));
    parser.addHelpOption();
    parser.addVersionOption();
    if (!parser.parse(app.arguments())) return refuse(parser.errorText());
    if (parser.isSet(QStringLiteral("help"))) parser.showHelp(0);
    if (parser.isSet(QStringLiteral("version"))) parser.showVersion();
    if (parser.positionalArguments().size() != 1)
        return refuse(
            ScheduleCommand::tr("usage: westrum-schedule INSTANCE [--seconds S] [--seed N] [--iterations N]"));

    WorkEffort effort;
    effort.iterations = std::numeric_limits<std::int64_t>::max();
    bool sound = true;
    if (!parser.isSet(iterations)) effort.seconds = kUsualSeconds;
    if (parser.isSet(seconds)) effort.seconds = parser.value(seconds).toDouble(&sound);
    if (!sound || (effort.seconds && (!(*effort.seconds >= 0) || *effort.seconds > 1e6)))
        return refuse(ScheduleCommand::tr("--seconds wants a number of seconds."));
    if (parser.isSet(seed)) effort.seed = parser.value(seed).toULongLong(&sound);
    if (!sound) return refuse(ScheduleCommand::tr("--seed wants a whole number."));
    if (parser.isSet(iterations)) effort.iterations = parser.value(iterations).toLongLong(&sound);
    if (!sound || effort.iterations < 0) return refuse(ScheduleCommand::tr("--iterations wants a whole number."));

    const QString path = parser.positionalArguments().constFirst();
    QFile file(path);
    const bool open =
        path == QLatin1String("-") ? file.open(stdin, QIODevice::ReadOnly) : file.open(QIODevice::ReadOnly);
    if (!open) return refuse(file.errorString());
    const Result<WorkProblem, QString> problem = readWork(file.read(kLargestFile));
    if (!problem) return refuse(problem.error());
    const WorkSchedule schedule = planWork(problem.value(), effort);
    const QByteArray out = writeSchedule(problem.value(), schedule);
    if (std::fwrite(out.constData(), 1, std::size_t(out.size()), stdout) != std::size_t(out.size()) ||
        std::fflush(stdout) != 0)
        return 2;
    for (const WorkUnplaced& u : schedule.unplaced) (void)refuse(unplacedText(problem.value(), u));
    return schedule.unplaced.empty() ? 0 : 1;
}
