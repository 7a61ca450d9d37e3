#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "tests/support/registry.h"

#include <QDirIterator>
#include <QFile>
#include <QRegularExpression>

/// The rules of the house that a compiler does not hold: includes run one way.
class HouseTest : public QObject {
    Q_OBJECT

    static QStringList includesOf(const QString& path) {
        QFile file(path);
        if (!file.open(QIODevice::ReadOnly)) return {};
        QStringList found;
        static const QRegularExpression include(QStringLiteral("^\\s*#\\s*include\\s*[<\"]([^>\"]+)[>\"]"),
                                                QRegularExpression::MultilineOption);
        for (auto it = include.globalMatch(QString::fromUtf8(file.readAll())); it.hasNext();)
            found << it.next().captured(1);
        return found;
    }
    static QStringList sources(const QString& room) {
        QStringList all;
        for (QDirIterator it(QStringLiteral(WESTRUM_SOURCE_DIR "/") + room,
                             {QStringLiteral("*.h"), QStringLiteral("*.cpp")}, QDir::Files,
                             QDirIterator::Subdirectories);
             it.hasNext();)
            all << it.next();
        return all;
    }

private slots:
    void theCoreKnowsNoQtAndRunsOneWay() {
        const QStringList order{QStringLiteral("units"),  QStringLiteral("geometry"),  QStringLiteral("measure"),
                                QStringLiteral("shell"),  QStringLiteral("catalogue"), QStringLiteral("buildup"),
                                QStringLiteral("setout"), QStringLiteral("cutting"),   QStringLiteral("takeoff"),
                                QStringLiteral("buying"), QStringLiteral("fitting"),   QStringLiteral("record"),
                                QStringLiteral("plan")};
        int read = 0;
        for (const QString& path : sources(QStringLiteral("core"))) {
            const qsizetype here =
                order.indexOf(path.section(QStringLiteral("/core/"), 1).section(QLatin1Char('/'), 0, 0));
            QVERIFY2(here >= 0, qPrintable(path));
            for (const QString& include : includesOf(path)) {
                ++read;
                QVERIFY2(!include.startsWith(QLatin1Char('Q')), qPrintable(path + include));
                if (!include.startsWith(QStringLiteral("core/"))) {
                    QVERIFY2(!include.startsWith(QStringLiteral("formats/")) &&
                                 !include.startsWith(QStringLiteral("app/")),
                             qPrintable(path + include));
                    continue;
                }
                QVERIFY2(order.indexOf(include.section(QLatin1Char('/'), 1, 1)) <= here,
                         qPrintable(path + QLatin1Char(' ') + include));
            }
        }
        QVERIFY(read > 100);
    }

    void roomsDoNotReachUpwards() {
        for (const QString& path : sources(QStringLiteral("formats")))
            for (const QString& include : includesOf(path))
                QVERIFY2(!include.startsWith(QStringLiteral("app/")), qPrintable(path));
        for (const QString& path : sources(QStringLiteral("cli")))
            for (const QString& include : includesOf(path))
                QVERIFY2(!include.startsWith(QStringLiteral("app/")), qPrintable(path));
        static const QRegularExpression widgets(
            QStringLiteral("^Q(Widget|MainWindow|Dialog|Label|PushButton|Application)$"));
        for (const QString& path : sources(QStringLiteral("app/document")))
            for (const QString& include : includesOf(path)) {
                QVERIFY2(!widgets.match(include).hasMatch(), qPrintable(path + include));
                QVERIFY2(!include.startsWith(QStringLiteral("app/")) ||
                             include.startsWith(QStringLiteral("app/document/")),
                         qPrintable(path + include));
            }
    }
};
WESTRUM_TEST(HouseTest)

#include "house_test.moc"
