#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/units/count.h"
#include "core/units/parse.h"
#include "core/units/print.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;

class PrintTest : public QObject {
    Q_OBJECT

    static QString plain(std::string text) {
        return QString::fromStdString(text).replace(QChar(0x202F), QLatin1Char(' '));
    }

private slots:
    void metricLeavesOffNeedlessZeros() {
        QCOMPARE(plain(printLength({3640})), QStringLiteral("3 640 mm"));
        QCOMPARE(plain(printLength({0.5})), QStringLiteral("0.5 mm"));
        QCOMPARE(plain(printLength({1840}, {.unit = LengthUnit::Metre})), QStringLiteral("1.84 m"));
        QCOMPARE(plain(printLength({1845}, {.unit = LengthUnit::Centimetre, .decimalMark = ','})),
                 QStringLiteral("184,5 cm"));
        QCOMPARE(plain(printLength({-0.001})), QStringLiteral("0 mm"));
        QCOMPARE(plain(printLength({1234567}, {.withUnit = false})), QStringLiteral("1 234 567"));
    }

    void inchesShowTheNearestMarkAndNeverLoseTheRest() {
        // 72 1/2" = 1841.5 mm exactly.
        QCOMPARE(plain(printLength({1841.5}, {.unit = LengthUnit::Inch})), QStringLiteral("72 1/2\""));
        // 1840 mm = 72.4409": nearest sixteenth 72 7/16 = 1839.9125 mm, so 0.09 mm are left.
        QCOMPARE(plain(printLength({1840}, {.unit = LengthUnit::Inch})), QStringLiteral("72 7/16\" + 0.09 mm"));
        QCOMPARE(plain(printLength({1840}, {.unit = LengthUnit::Inch, .betweenMarks = BetweenMarks::SayAbout})),
                 QStringLiteral("≈72 7/16\""));
        QCOMPARE(plain(printLength({25.4 * 3 / 32}, {.unit = LengthUnit::Inch, .inchDenominator = 32})),
                 QStringLiteral("3/32\""));
        QCOMPARE(plain(printLength({6 * 304.8 + 12.7}, {.unit = LengthUnit::Foot})), QStringLiteral("6' 1/2\""));
        QCOMPARE(plain(printLength({304.8}, {.unit = LengthUnit::Foot})), QStringLiteral("1'"));
    }

    void printingThenParsingGivesTheSameLength() {
        std::mt19937 dice(3);
        for (int round = 0; round < 5000; ++round) {
            const Mm length{(static_cast<double>(dice() % 4000000) - 1000000) / 331.0};
            for (const LengthUnit unit : {LengthUnit::Millimetre, LengthUnit::Centimetre, LengthUnit::Metre,
                                          LengthUnit::Inch, LengthUnit::Foot})
                for (const char mark : {'.', ','})
                    for (const int denominator : {16, 32}) {
                        const std::string text =
                            printLength(length, {.unit = unit, .inchDenominator = denominator, .decimalMark = mark});
                        const auto back = parseLength(text);
                        QVERIFY2(back.has_value(), text.c_str());
                        QVERIFY2(std::abs(back.value().value - length.value) <= 0.01, text.c_str());
                    }
        }
    }

    void moneyHasAllItsDecimals() {
        QCOMPARE(plain(printMoney({123450, Currency{}})), QStringLiteral("1 234.50 EUR"));
        QCOMPARE(plain(printMoney({5, Currency{}}, ',', false)), QStringLiteral("0,05"));
        QCOMPARE(plain(printMoney({-7, Currency{}})), QStringLiteral("-0.07 EUR"));
        QCOMPARE(plain(printMoney({1500, *currencyOf("JPY")})), QStringLiteral("1 500 JPY"));
        for (const std::int64_t minor : {0LL, 1LL, 99LL, 100LL, 123456789LL})
            QCOMPARE(parseMoney(printMoney({minor, Currency{}}), Currency{}).value().minor, minor);
    }

    void areasAndMassesKeepTheirDecimals() {
        QCOMPARE(plain(printArea({6.5})), QStringLiteral("6.50 m²"));
        QCOMPARE(plain(printMass({53})), QStringLiteral("53.0 kg"));
        QCOMPARE(plain(printMass({0.04}, 2, ',')), QStringLiteral("0,04 kg"));
    }

    /// 9.290304 m2 are 100 square feet; a tonne 2204.6 lb; 3.048 m ten feet.
    void whatGoesWithInchesIsImperial() {
        QCOMPARE(measuresWith(LengthUnit::Inch), Measures::Imperial);
        QCOMPARE(measuresWith(LengthUnit::Metre), Measures::Metric);
        QCOMPARE(plain(printArea({9.290304}, 2, '.', Measures::Imperial)), QStringLiteral("100.0 ft²"));
        QCOMPARE(plain(printMass({1000}, 1, '.', Measures::Imperial)), QStringLiteral("2 204.6 lb"));
        QCOMPARE(plain(printRun({3048}, 2, '.', Measures::Imperial)), QStringLiteral("10 ft"));
        QCOMPARE(plain(printRun({8400})), QStringLiteral("8.4 m"));
    }

    void countsForgiveFloatingPoint() {
        QCOMPARE(roundUp(26.0000000001), 26);
        QCOMPARE(roundUp(26.001), 27);
        QCOMPARE(roundDown(25.9999999999), 26);
        QCOMPARE(roundDown(25.99), 25);
    }
};
WESTRUM_TEST(PrintTest)

#include "print_test.moc"
