// westrum-cut INSTANCE [--seconds S] [--seed N] [--iterations N]: cuts pieces from bars, sheets or a roll.
// Exit status: 0 planned, 1 planned but not all pieces found stock, 2 cannot read or cannot be planned.

#include "formats/cutting_file.h"
#include "formats/translations.h"
#include "formats/words.h"

#include <QCommandLineParser>
#include <QCoreApplication>
#include <QFile>

#include <chrono>
#include <cstdio>

using namespace westrum;

namespace {

struct CutCommand {
    Q_DECLARE_TR_FUNCTIONS(CutCommand)
};

int refuse(const QString& text) {
    std::fprintf(stderr, "westrum-cut: %s\n", qPrintable(text));
    return 2;
}

bool allPlaced(const CuttingPlan& plan) {
    return std::visit([](const auto& p) { return p.unplaced.empty(); }, plan);
}

} // namespace

int main(int argc, char** argv) {
    const auto start = std::chrono::steady_clock::now();
    QCoreApplication app(argc, argv);
    QCoreApplication::setApplicationName(QStringLiteral("westrum-cut"));
    QCoreApplication::setApplicationVersion(QStringLiteral(WESTRUM_VERSION));
    loadTranslations();

    QCommandLineParser parser;
    parser.setApplicationDescription(
        CutCommand::tr("Cuts pieces from bars, sheets or a roll with little waste, and says how "
                       "little could be proved to be possible."));
    const QCommandLineOption seconds(QStringLiteral("seconds"), CutCommand::tr("How long to look for better (10)."),
                                     QStringLiteral("S"));
    const QCommandLineOption seed(QStringLiteral("seed"), CutCommand::tr("Of the search's random choices (1)."),
                                  QStringLiteral("N"));
    const QCommandLineOption iterations(
        QStringLiteral("iterations"),
        CutCommand::tr("How many steps to look for better: with these and no seconds the answer is always the same."),
        QStringLiteral("N"));
    parser.addOptions({seconds, seed, iterations});
    parser.addPositionalArgument(QStringLiteral("INSTANCE"),
                                 CutCommand::tr("A cutting problem; - reads standard input."));
    parser.addHelpOption();
    parser.addVersionOption();
    if (!parser.parse(app.arguments())) return refuse(parser.errorText());
    if (parser.isSet(QStringLiteral("help"))) parser.showHelp(0);
    if (parser.isSet(QStringLiteral("version"))) parser.showVersion();
    if (parser.positionalArguments().size() != 1)
        return refuse(CutCommand::tr("usage: westrum-cut INSTANCE [--seconds S] [--seed N] [--iterations N]"));

    Effort effort;
    bool sound = true;
    double limit = parser.isSet(iterations) ? 0 : 10;
    if (parser.isSet(seconds)) limit = parser.value(seconds).toDouble(&sound);
    if (!sound || !(limit >= 0) || limit > 1e6) return refuse(CutCommand::tr("--seconds wants a number of seconds."));
    if (parser.isSet(seed)) effort.seed = parser.value(seed).toULongLong(&sound);
    if (!sound) return refuse(CutCommand::tr("--seed wants a whole number."));
    if (parser.isSet(iterations)) effort.iterations = parser.value(iterations).toLongLong(&sound);
    if (!sound || effort.iterations < 0) return refuse(CutCommand::tr("--iterations wants a whole number."));
    if (parser.isSet(seconds) || !parser.isSet(iterations))
        effort.timeSpent = [start, limit] {
            const std::chrono::duration<double> gone = std::chrono::steady_clock::now() - start;
            return limit > 0 ? gone.count() / limit : 1;
        };

    const QString path = parser.positionalArguments().constFirst();
    QFile file(path);
    const bool open =
        path == QLatin1String("-") ? file.open(stdin, QIODevice::ReadOnly) : file.open(QIODevice::ReadOnly);
    if (!open) return refuse(sentence(FileFault{FileFaultKind::CannotOpen, {}, file.errorString().toStdString()}));
    const Result<CuttingInstance, FileFaults> instance = readCutting(file.read(kLargestJobFile + 1));
    if (!instance) {
        for (const FileFault& fault : instance.error()) (void)refuse(sentence(fault));
        return 2;
    }
    const CuttingFaults faults = faultsOf(instance.value());
    if (!faults.empty()) {
        constexpr std::size_t kMostSaid = 20;
        for (std::size_t i = 0; i < faults.size() && i < kMostSaid; ++i)
            (void)refuse(sentence(faults[i], instance.value().names));
        return 2;
    }
    const CuttingPlan plan = cut(instance.value(), effort);
    const QByteArray out = answerAsJson(instance.value(), plan);
    if (std::fwrite(out.constData(), 1, std::size_t(out.size()), stdout) != std::size_t(out.size()) ||
        std::fflush(stdout) != 0)
        return 2;
    return allPlaced(plan) ? 0 : 1;
}
