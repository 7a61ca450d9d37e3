#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "devices/weighbridge.h"
#include "tests/support/registry.h"

#include <random>

using namespace westrum;

class WeighbridgeTest : public QObject {
    Q_OBJECT
    static std::optional<WeighTicket> good(const char* text) {
        const auto read = readTicket(QString::fromUtf8(text));
        return std::holds_alternative<WeighTicket>(read) ? std::optional(std::get<WeighTicket>(read)) : std::nullopt;
    }
    static bool isFault(const char* text, TicketFault fault) {
        const auto read = readTicket(QString::fromUtf8(text));
        return std::holds_alternative<TicketFault>(read) && std::get<TicketFault>(read) == fault;
    }

private slots:
    void linesInAnyOrderAndUnit() {
        const auto t = good("Total 1 940 kg\nrear: 0,9 t\r\nDATE 20 Nov\nthanks\nFront  1040\n");
        QVERIFY(t);
        QCOMPARE(t->front, 1040.0);
        QCOMPARE(t->rear, 900.0);
        QCOMPARE(t->when, QStringLiteral("20 Nov"));
        // The gross weight and one axle say the other.
        QCOMPARE(good("Gross 2000\nAxle 1 1100")->rear, 900.0);
    }

    void whatIsNoTicketIsSaid() {
        QVERIFY(isFault("", TicketFault::NoAxles));
        QVERIFY(isFault("Axle 1\nAxle 2", TicketFault::NoAxles)); // names without weights
        QVERIFY(isFault("Axle 1 1040\nGross", TicketFault::NoAxles));
        QVERIFY(isFault("Axle 1 9\nAxle 2 900", TicketFault::OutOfRange));
        QVERIFY(isFault("Axle 1 1040\nAxle 2 99999999999", TicketFault::OutOfRange));
        QVERIFY(isFault("Axle 1 1040\nAxle 2 900\nGross 1986", TicketFault::Contradicts)); // 46 kg off
        QVERIFY(good("Axle 1 1040\nAxle 2 900\nGross 1985"));
        QVERIFY(isFault(QByteArray(30000, 'x').constData(), TicketFault::TooLong));
    }

    void theStandInWeighsAsARealOne() {
        SimulatedWeighbridge bridge(4);
        double off = 0;
        for (int i = 0; i < 200; ++i) {
            const auto t = good(bridge.weigh(1043, 897, QStringLiteral("2026-11-20")).toUtf8().constData());
            QVERIFY(t);
            QCOMPARE(std::fmod(t->front, 10), 0.0); // in its steps
            QVERIFY(std::abs(t->front - 1043) < 30 && std::abs(t->rear - 897) < 30);
            off += t->gross() - 1940;
        }
        QVERIFY(std::abs(off / 200) < 3); // and true on the whole
        QCOMPARE(SimulatedWeighbridge(4).weigh(1000, 900, {}), SimulatedWeighbridge(4).weigh(1000, 900, {}));
    }

    void noiseNeverPassesForATicketThatContradicts() {
        std::mt19937 dice(2);
        const QStringList words{QStringLiteral("Axle 1"), QStringLiteral("rear"), QStringLiteral("gross"),
                                QStringLiteral("\n"),     QStringLiteral(" kg"),  QStringLiteral(" t"),
                                QStringLiteral("1,0"),    QStringLiteral(":")};
        for (int round = 0; round < 4000; ++round) {
            QString text;
            for (std::size_t i = 0, n = dice() % 24; i < n; ++i)
                text += dice() % 3 ? words[static_cast<int>(dice() % 8)] : QString::number(dice() % 4000);
            const auto read = readTicket(text);
            if (const auto* t = std::get_if<WeighTicket>(&read)) QVERIFY(t->front >= 100 && t->rear >= 100);
        }
    }
};

WESTRUM_TEST(WeighbridgeTest)
#include "weighbridge_test.moc"
