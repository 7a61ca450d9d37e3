#include <QtTest>

#include "core/plan/plan.h"
#include "formats/demo.h"
#include "formats/trim_words.h"
#include "tests/support/registry.h"

#include <numbers>
#include <set>

using namespace westrum;

/// What is said of trims, their ends and the saw.
class TrimWordsTest : public QObject {
    Q_OBJECT
    static constexpr double kDegree = std::numbers::pi / 180;

private slots:
    void everyProfileAndMeetingHasItsOwnName() {
        std::set<QString> names;
        for (int k = 0; k < kProfiles; ++k) names.insert(profileText(static_cast<Profile>(k)));
        QCOMPARE(names.size(), static_cast<std::size_t>(kProfiles));
        std::set<QString> meetings;
        for (int k = 0; k <= static_cast<int>(EdgeMeeting::OpeningReveal); ++k)
            meetings.insert(meetingText(static_cast<EdgeMeeting>(k)));
        QCOMPARE(meetings.size(), static_cast<std::size_t>(EdgeMeeting::OpeningReveal) + 1);
        QVERIFY(!meetings.contains(QString()));
    }

    void settingsAreToldInDegrees() {
        const Figures f;
        QCOMPARE(settingText({}, f), QString());
        QCOMPARE(settingText({31.619 * kDegree, 33.8629 * kDegree, LongEdge::Bottom}, f),
                 QStringLiteral("mitre 31.6°, bevel 33.9°"));
        QCOMPARE(settingText({0, 45 * kDegree, LongEdge::Equal}, f), QStringLiteral("bevel 45°"));
    }

    void everyEndSaysHowItIsMade() {
        for (int end = 0; end <= static_cast<int>(TrimEnd::Scarfed); ++end)
            for (const double plan : {0.0, 1.0, 90.0, 100.0, 179.5, 270.0, 359.9}) {
                TrimJoint j;
                j.end = static_cast<TrimEnd>(end);
                j.planRad = plan * kDegree;
                j.inside = plan < 180;
                j.crooked = std::abs(plan - 90) > 2 && std::abs(plan - 270) > 2;
                j.saw = {10 * kDegree, 20 * kDegree, LongEdge::Top};
                const QString title = jointTitle(j), text = jointText(j, Figures{});
                QVERIFY(!title.isEmpty());
                QVERIFY2(text.endsWith(QLatin1Char('.')) && !text.contains(QLatin1Char('%')), qPrintable(text));
            }
        // Corners of nothing and of a half turn are spoken of as what they are.
        TrimJoint j;
        j.end = TrimEnd::Mitred;
        j.planRad = 179.5 * kDegree;
        QVERIFY(jointText(j, Figures{}).contains(QStringLiteral("hardly turns")));
        j.planRad = 0.5 * kDegree;
        QVERIFY(jointText(j, Figures{}).contains(QStringLiteral("back on itself")));
    }

    void everyRunOfTheExampleIsNamed() {
        const Job job = demoJob();
        const Plan p = plan(job);
        QVERIFY(p.trims.runs.size() > 25);
        for (const TrimRun& r : p.trims.runs) {
            const QString text = runText(r, job, Figures{});
            QVERIFY2(text.contains(QStringLiteral(":")) && !text.contains(QLatin1Char('%')), qPrintable(text));
            QVERIFY2(!r.product.empty(), qPrintable(text)); // the example has a trim for every edge
        }
    }

    /// Every remark on soft finishes and edges, with its figures, in a whole sentence.
    void remarksOnSoftFinishesAreSentences() {
        const Facts facts{{"width", Mm{9}},
                          {"limit", Mm{2}},
                          {"piece", std::string("1")},
                          {"share", 0.2},
                          {"seams", std::int64_t{2}},
                          {"hidden", std::int64_t{1}},
                          {"repeat", Mm{300}},
                          {"length", Mm{200}},
                          {"other", std::string("Wall")},
                          {"profile", std::string("skirting")},
                          {"product", std::string("P")},
                          {"radius", Mm{50}},
                          {"edge", std::string("b")},
                          {"opening", std::string("O")}};
        for (int k = static_cast<int>(RemarkKind::CushionNoHeight); k <= static_cast<int>(RemarkKind::TrimTooStiff);
             ++k) {
            Facts given = facts;
            if (static_cast<RemarkKind>(k) == RemarkKind::StretchBeyondLining ||
                static_cast<RemarkKind>(k) == RemarkKind::UndersizeBeyondStretch)
                for (auto& [name, value] : given)
                    if (name == "limit") value = 0.12;
            const QString text = sentence(Remark{Severity::Note, {}, static_cast<RemarkKind>(k), given, {}}, Figures{});
            QVERIFY2(text.endsWith(QLatin1Char('.')), qPrintable(QString::number(k) + text));
            QVERIFY2(!text.contains(QRegularExpression(QStringLiteral("%[0-9n]"))), qPrintable(text));
        }
        for (int k = 0; k <= static_cast<int>(SundryKind::LiningCloth); ++k)
            QVERIFY(sundryText({static_cast<SundryKind>(k), 1250}, Figures{}).contains(QLatin1Char('1')));
    }
};

WESTRUM_TEST(TrimWordsTest)
#include "trim_words_test.moc"
