// Opens the example, moves its start line, autosaves, says "ready" and waits to be killed: for autosave_test.

#include "app/document/autosave.h"
#include "app/document/commands.h"
#include "formats/demo.h"

#include <QGuiApplication>
#include <QTimer>

#include <cstdio>

using namespace westrum;

int main(int argc, char** argv) {
    QGuiApplication app(argc, argv);
    JobDocument document;
    Autosave autosave(document, QString::fromLocal8Bit(argv[1]));
    document.open(demoJob(), QStringLiteral("/somewhere/plover.westrum"));
    push(document, moveStartLine(document, "floor", {33}, 1));
    autosave.writeNow();
    std::puts("ready");
    std::fflush(stdout);
    QTimer::singleShot(60000, &app, &QCoreApplication::quit);
    return QGuiApplication::exec();
}
