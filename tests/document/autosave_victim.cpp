// Opens the example, moves its start line (to argv[2] mm, or 33), autosaves, says "ready" and waits to be killed.

#include "app/document/autosave.h"
#include "app/document/commands.h"
#include "formats/demo.h"

#include <QGuiApplication>
#include <QTimer>

#include <cstdio>
#include <cstdlib>

using namespace westrum;

int main(int argc, char** argv) {
    QGuiApplication app(argc, argv);
    JobDocument document;
    Autosave autosave(document, QString::fromLocal8Bit(argv[1]));
    document.open(demoJob(), QStringLiteral("/somewhere/plover.westrum"));
    push(document, moveStartLine(document, "floor", {argc > 2 ? std::atof(argv[2]) : 33.0}, 1));
    autosave.writeNow();
    std::puts("ready");
    std::fflush(stdout);
    QTimer::singleShot(60000, &app, &QCoreApplication::quit);
    return QGuiApplication::exec();
}
