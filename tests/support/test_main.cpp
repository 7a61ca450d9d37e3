// The main function of every test executable: `NAME [Class [arguments for Qt Test]]` runs one class or all.

#include "tests/support/registry.h"

#include <QtTest>

#ifdef WESTRUM_TEST_WITH_WINDOW
#include "app/drawing/theme.h"
#include "formats/translations.h"
#include <QApplication>
using Application = QApplication;
#else
#include "formats/translations.h"
#include <QCoreApplication>
using Application = QCoreApplication;
#endif

#include <cstdio>

namespace westrum::test {
std::vector<Entry>& registry() {
    static std::vector<Entry> entries;
    return entries;
}
} // namespace westrum::test

int main(int argc, char** argv) {
    QStandardPaths::setTestModeEnabled(true);
    Application app(argc, argv);
    QCoreApplication::setOrganizationName(QStringLiteral("WestrumTest"));
    QCoreApplication::setApplicationName(QStringLiteral("westrum-test"));
    westrum::loadTranslations();
#ifdef WESTRUM_TEST_WITH_WINDOW
    QApplication::setStyle(QStringLiteral("Fusion"));
    westrum::loadFonts();
#endif
    QStringList arguments = QCoreApplication::arguments();
    const QString wanted =
        arguments.size() > 1 && !arguments[1].startsWith(QLatin1Char('-')) ? arguments.takeAt(1) : QString();
    int failed = 0, ran = 0;
    for (const auto& entry : westrum::test::registry()) {
        if (!wanted.isEmpty() && entry.name != wanted) continue;
        const auto object = entry.make();
        failed += QTest::qExec(object.get(), arguments);
        ++ran;
    }
    if (ran == 0) std::fprintf(stderr, "no test class %s\n", qPrintable(wanted));
    return ran == 0 || failed > 0 ? 1 : 0;
}
