#include "devices/weighbridge.h"

#include "core/buying/need_odds.h"

#include <QRegularExpression>
#include <QStringList>

#include <cmath>

namespace westrum {
namespace {

constexpr double kLeastKg = 100, kMostKg = 40000; ///< of an axle of any van

/// The last figure of a line, in kg; nothing if there is none. A figure with a point or comma and "t" is in tonnes.
std::optional<double> kilograms(const QString& line) {
    static const QRegularExpression figure(QStringLiteral(R"((\d[\d\x{00A0}\x{202F} ]*(?:[.,]\d+)?)\s*(kg|t)?\s*$)"),
                                           QRegularExpression::CaseInsensitiveOption);
    const QRegularExpressionMatch m = figure.match(line.trimmed());
    if (!m.hasMatch()) return std::nullopt;
    QString number = m.captured(1);
    number.remove(QRegularExpression(QStringLiteral(R"([\s\x{00A0}\x{202F}])")));
    number.replace(QLatin1Char(','), QLatin1Char('.'));
    bool good = false;
    const double value = number.toDouble(&good);
    if (!good) return std::nullopt;
    return m.captured(2).compare(QStringLiteral("t"), Qt::CaseInsensitive) == 0 ? value * 1000 : value;
}

} // namespace

std::variant<WeighTicket, TicketFault> readTicket(const QString& text) {
    if (text.size() > kLongestTicket) return TicketFault::TooLong;
    WeighTicket ticket;
    std::optional<double> front, rear, gross;
    static const QRegularExpression first(QStringLiteral(R"(^\s*(axle\s*1|front)\b)"),
                                          QRegularExpression::CaseInsensitiveOption),
        second(QStringLiteral(R"(^\s*(axle\s*2|rear)\b)"), QRegularExpression::CaseInsensitiveOption),
        whole(QStringLiteral(R"(^\s*(gross|total)\b)"), QRegularExpression::CaseInsensitiveOption),
        date(QStringLiteral(R"(^\s*date\b[:\s]*(.*)$)"), QRegularExpression::CaseInsensitiveOption);
    for (const QString& line : text.split(QLatin1Char('\n'))) {
        // The name is taken off, so that the 1 of "Axle 1" is no weight.
        const auto after = [&](const QRegularExpression& name) -> std::optional<double> {
            const QRegularExpressionMatch m = name.match(line);
            return m.hasMatch() ? kilograms(line.mid(m.capturedEnd())) : std::nullopt;
        };
        if (const auto kg = after(first)) front = kg;
        if (const auto kg = after(second)) rear = kg;
        if (const auto kg = after(whole)) gross = kg;
        if (const QRegularExpressionMatch m = date.match(line); m.hasMatch())
            ticket.when = m.captured(1).trimmed().left(40);
    }
    // With the gross weight one axle is enough.
    if (gross && front && !rear) rear = *gross - *front;
    if (gross && rear && !front) front = *gross - *rear;
    if (!front || !rear) return TicketFault::NoAxles;
    for (const double kg : {*front, *rear})
        if (!(kg >= kLeastKg && kg <= kMostKg)) return TicketFault::OutOfRange;
    if (gross && std::abs(*gross - *front - *rear) > kTicketSlackKg) return TicketFault::Contradicts;
    ticket.front = *front;
    ticket.rear = *rear;
    return ticket;
}

SimulatedWeighbridge::SimulatedWeighbridge(std::uint64_t seed, double stepKg, double offKg)
    : state_(seed), step_(stepKg), off_(offKg) {}

QString SimulatedWeighbridge::weigh(double front, double rear, const QString& when) {
    Dice dice(state_++);
    const auto shown = [&](double kg) { return std::round((kg + offByChance(dice, off_)) / step_) * step_; };
    const double one = shown(front), two = shown(rear);
    return QStringLiteral("WEIGHBRIDGE TICKET (simulated)\nDate: %1\nAxle 1: %2 kg\nAxle 2: %3 kg\nGross: %4 kg\n")
        .arg(when)
        .arg(one, 0, 'f', 0)
        .arg(two, 0, 'f', 0)
        .arg(one + two, 0, 'f', 0);
}

} // namespace westrum
