// westrum-meter-sim [--socket NAME] [--value MM] [--noise MM] [--mood WORD] [--seed N]: a stand-in for a laser distance
// meter. While it runs it takes "value 3640", "noise 1.5", "mood weak" on its standard input, a line each.

#include "devices/simulated_meter.h"

#include <QCommandLineParser>
#include <QCoreApplication>
#include <QSocketNotifier>

#include <cstdio>
#include <unistd.h>

using namespace westrum;

int main(int argc, char** argv) {
    QCoreApplication app(argc, argv);
    QCoreApplication::setApplicationName(QStringLiteral("westrum-meter-sim"));
    QCoreApplication::setApplicationVersion(QStringLiteral(WESTRUM_VERSION));
    QCommandLineParser parser;
    parser.setApplicationDescription(QStringLiteral("A stand-in for a laser distance meter on a local socket."));
    const QCommandLineOption socket(QStringLiteral("socket"), QStringLiteral("The socket's name."),
                                    QStringLiteral("NAME"), QStringLiteral("westrum-meter"));
    const QCommandLineOption value(QStringLiteral("value"), QStringLiteral("The true length in mm."),
                                   QStringLiteral("MM"), QStringLiteral("1000"));
    const QCommandLineOption noise(QStringLiteral("noise"), QStringLiteral("One standard deviation in mm."),
                                   QStringLiteral("MM"), QStringLiteral("0"));
    const QCommandLineOption mood(QStringLiteral("mood"),
                                  QStringLiteral("normal, weak, battery, range, silent, garbage or drop."),
                                  QStringLiteral("WORD"), QStringLiteral("normal"));
    const QCommandLineOption seed(QStringLiteral("seed"), QStringLiteral("Of the noise."), QStringLiteral("N"),
                                  QStringLiteral("1"));
    parser.addOptions({socket, value, noise, mood, seed});
    parser.addHelpOption();
    parser.addVersionOption();
    parser.process(app);

    SimulatedMeter meter(parser.value(seed).toUInt());
    for (const QCommandLineOption* option : {&value, &noise, &mood})
        if (const QByteArray line = (option->names().constFirst() + QLatin1Char(' ') + parser.value(*option)).toUtf8();
            !meter.command(line)) {
            std::fprintf(stderr, "Not understood: %s\n", line.constData());
            return 2;
        }
    if (!meter.listen(parser.value(socket))) {
        std::fprintf(stderr, "Cannot listen on %s\n", qPrintable(parser.value(socket)));
        return 1;
    }
    std::printf("listening on %s\n", qPrintable(parser.value(socket)));
    std::fflush(stdout);
    QSocketNotifier input(STDIN_FILENO, QSocketNotifier::Read);
    QByteArray typed;
    QObject::connect(&input, &QSocketNotifier::activated, &app, [&] {
        char buffer[512];
        const auto n = ::read(STDIN_FILENO, buffer, sizeof buffer);
        if (n <= 0) return input.setEnabled(false); // no more input: it goes on listening
        typed.append(buffer, n);
        for (qsizetype end = typed.indexOf('\n'); end >= 0; end = typed.indexOf('\n')) {
            const QByteArray line = typed.left(end);
            typed.remove(0, end + 1);
            if (!line.trimmed().isEmpty()) std::printf("%s\n", meter.command(line) ? "ok" : "not understood");
            std::fflush(stdout);
        }
    });
    return QCoreApplication::exec();
}
