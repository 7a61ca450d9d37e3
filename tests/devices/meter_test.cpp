#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/measure/repeat.h"
#include "devices/laser_meter.h"
#include "devices/simulated_meter.h"
#include "tests/support/registry.h"

#include <QLocalServer>
#include <QLocalSocket>
#include <QProcess>

#include <random>

using namespace westrum;

/// The laser meter against its stand-in, and the stand-in's program.
class MeterTest : public QObject {
    Q_OBJECT

    static QString socketName() {
        static int n = 0;
        return QStringLiteral("westrum-meter-test-%1-%2").arg(QCoreApplication::applicationPid()).arg(++n);
    }
    /// What one take() answers: a length, or a fault.
    static MeterAnswer ask(SocketMeter& meter) {
        std::optional<MeterAnswer> answer;
        const auto length = connect(&meter, &LaserMeter::taken, &meter, [&](Mm mm) { answer = mm; });
        const auto fault = connect(&meter, &LaserMeter::failed, &meter, [&](MeterFault f) { answer = f; });
        meter.take();
        (void)QTest::qWaitFor([&] { return answer.has_value(); }, 5000);
        disconnect(length);
        disconnect(fault);
        return answer.value_or(MeterFault::NotThere);
    }
    static bool isFault(const MeterAnswer& a, MeterFault f) {
        return std::holds_alternative<MeterFault>(a) && std::get<MeterFault>(a) == f;
    }

private slots:
    void linesAreReadAndWritten() {
        QCOMPARE(std::get<Mm>(readMeterLine("R 3640.2").answer).value, 3640.2);
        QCOMPARE(std::get<Mm>(readMeterLine("R 3640.2\r").answer).value, 3640.2);
        QCOMPARE(meterLine(Mm{3640.2}), QByteArray("R 3640.2\n"));
        for (const MeterFault f : {MeterFault::WeakSignal, MeterFault::LowBattery, MeterFault::OutOfRange})
            QVERIFY(isFault(readMeterLine(meterLine(f).trimmed()).answer, f));
        QVERIFY(isFault(readMeterLine("R 12").answer, MeterFault::OutOfRange));
        QVERIFY(isFault(readMeterLine("R 99999999").answer, MeterFault::OutOfRange));
        for (const char* line :
             {"", "R", "R ", "R x", "R nan", "R inf", "R -5", "R 1e999", "E", "E fire", "3640", "R 12 13"})
            QVERIFY2(isFault(readMeterLine(line).answer, MeterFault::NotUnderstood), line);
        QVERIFY(isFault(readMeterLine("R " + QByteArray(500, '1')).answer, MeterFault::NotUnderstood));
    }

    void noiseOfAnyKindIsNeverAReadingByAccident() {
        std::mt19937 dice(5);
        for (int round = 0; round < 20000; ++round) {
            QByteArray line;
            for (std::size_t i = 0, n = dice() % 30; i < n; ++i) line.append(static_cast<char>(dice() % 256));
            const MeterAnswer a = readMeterLine(line).answer;
            if (const auto* mm = std::get_if<Mm>(&a))
                QVERIFY(line.trimmed().startsWith("R ") && mm->value >= kMeterLeastMm);
        }
    }

    void aTrueValueIsTaken() {
        SimulatedMeter sim;
        const QString name = socketName();
        QVERIFY(sim.listen(name));
        sim.setTrueLength({3640});
        SocketMeter meter;
        meter.connectTo(name);
        QVERIFY(QTest::qWaitFor([&] { return meter.isReady(); }));
        QCOMPARE(std::get<Mm>(ask(meter)).value, 3640.0);
        // With noise of 2 mm readings lie within 10, and the same seed gives the same.
        sim.setNoise({2});
        const double first = std::get<Mm>(ask(meter)).value;
        QVERIFY(std::abs(first - 3640) < 10 && first != 3640);
    }

    void everyWayAMeterFailsIsTold() {
        SimulatedMeter sim;
        const QString name = socketName();
        QVERIFY(sim.listen(name));
        SocketMeter meter(nullptr, std::chrono::milliseconds(150));
        for (const auto& [mood, fault] : {std::pair{MeterMood::Weak, MeterFault::WeakSignal},
                                          {MeterMood::Battery, MeterFault::LowBattery},
                                          {MeterMood::Range, MeterFault::OutOfRange},
                                          {MeterMood::Silent, MeterFault::Silent},
                                          {MeterMood::Garbage, MeterFault::NotUnderstood},
                                          {MeterMood::Drop, MeterFault::Disconnected}}) {
            if (!meter.isReady()) meter.connectTo(name);
            QVERIFY(QTest::qWaitFor([&] { return meter.isReady(); }));
            sim.setMood(mood);
            QVERIFY2(isFault(ask(meter), fault), qPrintable(QString::number(static_cast<int>(mood))));
            QVERIFY(!meter.isTaking());
        }
        // After all that it measures again.
        sim.setMood(MeterMood::Normal);
        meter.connectTo(name);
        QVERIFY(QTest::qWaitFor([&] { return meter.isReady(); }));
        QCOMPARE(std::get<Mm>(ask(meter)).value, 1000.0);
    }

    void aReadingBelongsToTheRequestThatAskedForIt() {
        SimulatedMeter sim;
        const QString name = socketName();
        QVERIFY(sim.listen(name));
        SocketMeter meter(nullptr, std::chrono::milliseconds(600)); // a busy machine is late by itself
        meter.connectTo(name);
        QVERIFY(QTest::qWaitFor([&] { return meter.isReady(); }));
        // The answer to the first request comes when the second has been asked: it is not taken for the second's.
        sim.setTrueLength({1111});
        sim.setMood(MeterMood::Late);
        sim.setLate(std::chrono::milliseconds(900));
        QVERIFY(isFault(ask(meter), MeterFault::Silent));
        sim.setMood(MeterMood::Silent);
        QVERIFY(isFault(ask(meter), MeterFault::Silent));
        sim.setMood(MeterMood::Normal);
        sim.setTrueLength({2222});
        QCOMPARE(std::get<Mm>(ask(meter)).value, 2222.0);
        // A second answer to one request is of that request.
        sim.setMood(MeterMood::Twice);
        sim.setTrueLength({3333});
        QCOMPARE(std::get<Mm>(ask(meter)).value, 3333.0);
        sim.setMood(MeterMood::Late);
        sim.setLate(std::chrono::milliseconds(120));
        sim.setTrueLength({4444});
        QCOMPARE(std::get<Mm>(ask(meter)).value, 4444.0);
        // Its own words sent back, and an empty line, are no answer and no fault.
        sim.setMood(MeterMood::Echo);
        sim.setTrueLength({555});
        QCOMPARE(std::get<Mm>(ask(meter)).value, 555.0);
    }

    void aMeterThatDoesNotNumberIsBelievedWhileNothingIsOutstanding() {
        QLocalServer server;
        const QString name = socketName();
        QVERIFY(server.listen(name));
        SocketMeter meter(nullptr, std::chrono::milliseconds(150));
        meter.connectTo(name);
        QVERIFY(server.waitForNewConnection(2000) && QTest::qWaitFor([&] { return meter.isReady(); }));
        QLocalSocket* far = server.nextPendingConnection();
        QByteArray answer = "R 1200.0\n";
        connect(far, &QLocalSocket::readyRead, far, [&] {
            far->readAll();
            far->write(answer);
        });
        QCOMPARE(std::get<Mm>(ask(meter)).value, 1200.0);
        answer.clear();
        QVERIFY(isFault(ask(meter), MeterFault::Silent));
        answer = "R 1300.0\n"; // of which request?
        QVERIFY(isFault(ask(meter), MeterFault::Silent));
    }

    void whereNoneListensIsSaid() {
        SocketMeter meter;
        std::optional<MeterFault> fault;
        connect(&meter, &LaserMeter::failed, &meter, [&](MeterFault f) { fault = f; });
        meter.connectTo(socketName());
        QVERIFY(QTest::qWaitFor([&] { return fault.has_value(); }));
        QVERIFY(*fault == MeterFault::NotThere && !meter.isReady());
        meter.take(); // harmless
    }

    void threeReadingsGiveTheirMiddle() {
        const Repeated r = repeated({{3640}, {3702}, {3641}});
        QCOMPARE(r.median.value, 3641.0);
        QCOMPARE(r.spread.value, 62.0);
        QCOMPARE(repeated({{10}, {20}}).median.value, 15.0);
    }

    void theProgramListensAndTakesCommands() {
        QProcess program;
        const QString name = socketName();
        program.start(QStringLiteral(WESTRUM_BINARY_DIR "/westrum-meter-sim"),
                      {QStringLiteral("--socket"), name, QStringLiteral("--value"), QStringLiteral("1234")});
        QVERIFY(program.waitForReadyRead(5000));
        SocketMeter meter;
        meter.connectTo(name);
        QVERIFY(QTest::qWaitFor([&] { return meter.isReady(); }));
        QCOMPARE(std::get<Mm>(ask(meter)).value, 1234.0);
        program.write("mood weak\nmood purple\n");
        QVERIFY(QTest::qWaitFor([&] { return program.canReadLine() || program.waitForReadyRead(100); }));
        QVERIFY(QTest::qWaitFor([&] { return isFault(ask(meter), MeterFault::WeakSignal); }, 3000));
        program.kill();
        program.waitForFinished();
        QVERIFY(program.readAllStandardOutput().contains("not understood"));
        QProcess wrong;
        wrong.start(QStringLiteral(WESTRUM_BINARY_DIR "/westrum-meter-sim"),
                    {QStringLiteral("--mood"), QStringLiteral("purple")});
        QVERIFY(wrong.waitForFinished(5000));
        QCOMPARE(wrong.exitCode(), 2);
    }
};
WESTRUM_TEST(MeterTest)

#include "meter_test.moc"
