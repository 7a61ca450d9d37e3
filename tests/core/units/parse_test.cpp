#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/units/parse.h"
#include "core/units/print.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;

class ParseTest : public QObject {
    Q_OBJECT
private slots:
    void lengthsAsPeopleSayThem_data() {
        QTest::addColumn<QString>("typed");
        QTest::addColumn<double>("mm");
        const auto row = [](const char* typed, double mm) { QTest::newRow(typed) << QString::fromUtf8(typed) << mm; };
        row("1840", 1840);
        row(" 1840 ", 1840);
        row("1 840", 1840);
        row("1\xE2\x80\xAF"
            "840",
            1840); // thin space, as printed
        row("184 cm", 1840);
        row("184cm", 1840);
        row("1.84 m", 1840);
        row("1,84 m", 1840);
        row("1,840 m", 1840); // nothing in a van is 1840 m
        row("0,5", 0.5);
        row(".5 m", 500);
        row("72 1/2\"", 72.5 * 25.4);
        row("72-1/2 in", 72.5 * 25.4);
        row("72½\"", 72.5 * 25.4);
        row("1/2\"", 12.7);
        row("6' 1/2\"", 6 * 304.8 + 12.7);
        row("6ft 0.5in", 6 * 304.8 + 12.7);
        row("6'", 1828.8);
        row("6' 3", 1828.8 + 76.2); // bare inches after feet
        row("6'-3", 1828.8 + 76.2); // as drawings write it
        row("6'-3 1/2", 1828.8 + 88.9);
        row("6' - 3", 1828.8 - 3);  // with blanks it is a minus, of the usual unit
        row("6'-3cm", 1828.8 - 30); // and with another unit
        row("6'-40", 1828.8 - 40);  // and what is no inches
        row("4' 3-3/8", 4 * 304.8 + 3.375 * 25.4);
        row("4'-3 3/8\"", 4 * 304.8 + 3.375 * 25.4);
        row("620+38+620", 1278);
        row("2 m - 5 cm", 1950);
        row("620 + 1.5\" - 3", 620 + 38.1 - 3);
        row("-40", -40);
        row("72 1/2\" + 0.31 mm", 72.5 * 25.4 + 0.31);
        row("3640 mm", 3640);
        row("2 metres", 2000);
    }
    void lengthsAsPeopleSayThem() {
        QFETCH(QString, typed);
        QFETCH(double, mm);
        const auto length = parseLength(typed.toStdString());
        QVERIFY2(length.has_value(), qPrintable(typed));
        QVERIFY2(std::abs(length.value().value - mm) < 1e-9,
                 qPrintable(QString::number(length.value().value, 'g', 12)));
    }

    void aBareFigureTakesTheJobsUnit() {
        QCOMPARE(parseLength("184", LengthUnit::Centimetre).value().value, 1840.0);
        QCOMPARE(parseLength("10", LengthUnit::Inch).value().value, 254.0);
        QCOMPARE(parseLength("10 + 5 mm", LengthUnit::Inch).value().value, 259.0);
    }

    void whatIsNotUnderstoodIsNamedWithItsPlace_data() {
        QTest::addColumn<QString>("typed");
        QTest::addColumn<int>("fault");
        QTest::addColumn<int>("position");
        QTest::addColumn<QString>("text");
        const auto row = [](const char* typed, ParseFault fault, int position, const char* text) {
            QTest::newRow(*typed ? typed : "(empty)")
                << QString::fromUtf8(typed) << static_cast<int>(fault) << position << QString::fromUtf8(text);
        };
        row("", ParseFault::Empty, 0, "");
        row("   ", ParseFault::Empty, 0, "");
        row("abc", ParseFault::NotANumber, 0, "abc");
        row("18 parsecs", ParseFault::UnknownUnit, 3, "parsecs");
        row("1840 mmm", ParseFault::UnknownUnit, 5, "mmm");
        row("620+", ParseFault::Unfinished, 4, "");
        row("620+x", ParseFault::NotANumber, 4, "x");
        row("1,840", ParseFault::Ambiguous, 0, "1,840");
        row("1.234.5", ParseFault::Ambiguous, 0, "1.234.5");
        row("12 34", ParseFault::TrailingText, 3, "34");
        row("5/0 in", ParseFault::ZeroDivisor, 2, "0");
        row("1/", ParseFault::Unfinished, 2, "");
        row("1e308", ParseFault::UnknownUnit, 1, "e308");
        row("99999999999999999999999999", ParseFault::OutOfRange, 0, "99999999999999999999999999");
        row("200 m", ParseFault::OutOfRange, 0, "200 m");
        row("nan", ParseFault::NotANumber, 0, "nan");
    }
    void whatIsNotUnderstoodIsNamedWithItsPlace() {
        QFETCH(QString, typed);
        QFETCH(int, fault);
        QFETCH(int, position);
        QFETCH(QString, text);
        const auto length = parseLength(typed.toStdString());
        QVERIFY(!length.has_value());
        QCOMPARE(static_cast<int>(length.error().fault), fault);
        QCOMPARE(static_cast<int>(length.error().position), position);
        QCOMPARE(QString::fromStdString(length.error().text), text);
    }

    void anyBytesGiveAnAnswerAndNeverACrash() {
        std::mt19937 dice(20);
        const std::string alphabet = "0123456789 .,+-/'\"mcfint\xE2\x80\xB3\xC2\xBD\t";
        int understood = 0;
        for (int round = 0; round < 20000; ++round) {
            std::string typed;
            for (unsigned n = dice() % 12; n > 0; --n) typed += alphabet[dice() % alphabet.size()];
            const auto length = parseLength(typed);
            if (length) {
                ++understood;
                QVERIFY(std::abs(length.value().value) <= kLongestLength.value);
            } else {
                QVERIFY2(length.error().position <= typed.size(), typed.c_str());
            }
        }
        QVERIFY2(understood > 500, "the generator should hit real lengths too");
    }

    void moneyIsExactInMinorUnits() {
        const Currency eur;
        QCOMPARE(parseMoney("12.50", eur).value().minor, 1250);
        QCOMPARE(parseMoney("12,5", eur).value().minor, 1250);
        QCOMPARE(parseMoney("1 234.50 EUR", eur).value().minor, 123450);
        QCOMPARE(parseMoney("0.07", eur).value().minor, 7);
        QCOMPARE(parseMoney("49", eur).value().minor, 4900);
        QCOMPARE(parseMoney("90071992.47", eur).value().minor, 9007199247);
        QCOMPARE(parseMoney("150", *currencyOf("JPY")).value().minor, 150);
        QCOMPARE(static_cast<int>(parseMoney("1.005", eur).error().fault), static_cast<int>(ParseFault::TooPrecise));
        QCOMPARE(static_cast<int>(parseMoney("-3", eur).error().fault), static_cast<int>(ParseFault::Negative));
        QCOMPARE(static_cast<int>(parseMoney("3 USD", eur).error().fault), static_cast<int>(ParseFault::WrongCurrency));
        QCOMPARE(static_cast<int>(parseMoney("99999999999999999999", eur).error().fault),
                 static_cast<int>(ParseFault::OutOfRange));
        QVERIFY(!currencyOf("eur"));
        QVERIFY(!currencyOf("EURO"));
    }

    void areasAndMassesTakeTheirUnits() {
        QCOMPARE(parseArea("6.03").value().value, 6.03);
        QCOMPARE(parseArea("6,03 m²").value().value, 6.03);
        QVERIFY(std::abs(parseArea("100 sqft").value().value - 9.290304) < 1e-9);
        QCOMPARE(parseMass("850 g").value().value, 0.85);
        QCOMPARE(parseMass("18,6").value().value, 18.6);
        QVERIFY(std::abs(parseMass("2 lb").value().value - 0.90718474) < 1e-9);
        QCOMPARE(static_cast<int>(parseMass("3 stone").error().fault), static_cast<int>(ParseFault::UnknownUnit));
        QCOMPARE(static_cast<int>(parseArea("-1").error().fault), static_cast<int>(ParseFault::Negative));
        QCOMPARE(parseNumber("-2.5").value(), -2.5);
    }
};
WESTRUM_TEST(ParseTest)

#include "parse_test.moc"
