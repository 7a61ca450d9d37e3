#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/catalogue/family.h"
#include "tests/support/registry.h"

#include <QDirIterator>
#include <QFile>
#include <QRegularExpression>

using namespace westrum;

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
        const QStringList order{QStringLiteral("units"),    QStringLiteral("geometry"),  QStringLiteral("measure"),
                                QStringLiteral("shell"),    QStringLiteral("catalogue"), QStringLiteral("buildup"),
                                QStringLiteral("setout"),   QStringLiteral("cutting"),   QStringLiteral("takeoff"),
                                QStringLiteral("buying"),   QStringLiteral("fitting"),   QStringLiteral("record"),
                                QStringLiteral("families"), QStringLiteral("plan"),      QStringLiteral("schedule"),
                                QStringLiteral("vanwork")};
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

    /// A family's id is known to its own folder and to files, to nobody else: whatever differs from family to family
    /// stands in its entry.
    void nobodyComparesAFamilysId() {
        QStringList ids;
        for (const ProductFamily* family : productFamilies())
            ids << QString::fromUtf8(family->id.data(), qsizetype(family->id.size()));
        QVERIFY(ids.size() >= 15);
        const QString one =
            QStringLiteral("(?:QStringLiteral\\(|QLatin1String\\()?\"(?:%1)\"").arg(ids.join(QLatin1Char('|')));
        const QRegularExpression compares(QStringLiteral("[=!]=\\s*%1|%1\\s*[=!]=").arg(one));
        QVERIFY(compares.match(QStringLiteral("if (p.family == \"planks\")")).hasMatch());
        for (const char* room : {"core", "formats", "app", "cli", "devices", "benchmarks"})
            for (const QString& path : sources(QString::fromLatin1(room))) {
                if (path.contains(QStringLiteral("/core/families/"))) continue;
                QFile file(path);
                QVERIFY(file.open(QIODevice::ReadOnly));
                const auto found = compares.match(QString::fromUtf8(file.readAll()));
                QVERIFY2(!found.hasMatch(), qPrintable(path + QStringLiteral(": ") + found.captured()));
            }
    }

    void sourcesStayShort() {
        for (const char* room : {"core", "formats", "app", "cli", "devices", "benchmarks"})
            for (const QString& path : sources(QString::fromLatin1(room))) {
                QFile file(path);
                QVERIFY(file.open(QIODevice::ReadOnly));
                const auto lines = file.readAll().count('\n');
                QVERIFY2(lines <= 600, qPrintable(QStringLiteral("%1: %2 lines").arg(path).arg(lines)));
            }
    }

    /// No function is longer than 80 lines unless it is a table: one sentence, or one name, for each kind of a thing.
    void functionsStayShort() {
        static const QRegularExpression begins(QStringLiteral("^( {0,4})(?! )[A-Za-z_~].*\\("));
        static const QRegularExpression noFunction(
            QStringLiteral("^\\s*(namespace|class|struct|enum|switch|if|for|while|static_assert|walk\\.)\\b"));
        static const QRegularExpression table(QStringLiteral(
            "^(QString (stepBody|finishSentence|sentence)|std::vector<std::string_view> translatableFieldNames)\\("));
        int found = 0;
        for (const char* room : {"core", "formats", "app", "cli", "devices"})
            for (const QString& path : sources(QString::fromLatin1(room))) {
                QFile file(path);
                QVERIFY(file.open(QIODevice::ReadOnly));
                const QStringList lines = QString::fromUtf8(file.readAll()).split(QLatin1Char('\n'));
                for (qsizetype i = 0; i < lines.size(); ++i) {
                    const auto match = begins.match(lines[i]);
                    if (!match.hasMatch() || noFunction.match(lines[i]).hasMatch()) continue;
                    qsizetype open = i;
                    while (open < lines.size() && open < i + 12 && !lines[open].endsWith(QLatin1Char('{')) &&
                           !lines[open].endsWith(QLatin1Char(';')) && !lines[open].endsWith(QLatin1Char('}')))
                        ++open;
                    if (open >= lines.size() || !lines[open].endsWith(QLatin1Char('{'))) continue;
                    qsizetype end = open + 1;
                    while (end < lines.size() && !lines[end].startsWith(match.captured(1) + QLatin1Char('}'))) ++end;
                    ++found;
                    QVERIFY2(end - i < 80 || table.match(lines[i]).hasMatch() ||
                                 lines[i].contains(QLatin1String("std::visit")),
                             qPrintable(QStringLiteral("%1:%2: %3 lines").arg(path).arg(i + 1).arg(end - i + 1)));
                    i = open;
                }
            }
        QVERIFY(found > 1000); // it does see them
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
