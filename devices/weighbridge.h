#pragma once

#include <QString>

#include <cstdint>
#include <optional>
#include <variant>

namespace westrum {

/// What a weighbridge prints: docs/formats/weighbridge.md.
struct WeighTicket {
    QString when;           ///< as printed; empty if it says none
    double front{}, rear{}; ///< kg
    [[nodiscard]] double gross() const { return front + rear; }
    friend bool operator==(const WeighTicket&, const WeighTicket&) = default;
};

enum class TicketFault {
    TooLong,     ///< no ticket is that long
    NoAxles,     ///< it does not say what both axles weigh
    OutOfRange,  ///< no van weighs that
    Contradicts, ///< the axles do not add up to the gross weight
};

/// Reads a ticket's text. Lines in any order: "Axle 1" or "front", "Axle 2" or "rear", "gross" or "total", "date",
/// each with a figure in kg or t; other lines are passed over.
std::variant<WeighTicket, TicketFault> readTicket(const QString& text);

/// A weighbridge: asked for a ticket, it gives the text of one.
class Weighbridge {
public:
    virtual ~Weighbridge() = default;
    /// @param front, rear  what truly stands on it, kg
    [[nodiscard]] virtual QString weigh(double front, double rear, const QString& when) = 0;
};

/// A stand-in that rounds to its steps and is off by chance as a real one. The same seed gives the same tickets.
class SimulatedWeighbridge final : public Weighbridge {
public:
    explicit SimulatedWeighbridge(std::uint64_t seed, double stepKg = 10, double offKg = 4);
    [[nodiscard]] QString weigh(double front, double rear, const QString& when) override;

private:
    std::uint64_t state_;
    double step_, off_;
};

/// Axles may differ from the gross weight by this: each is rounded by itself.
inline constexpr double kTicketSlackKg = 45;
inline constexpr int kLongestTicket = 20000;

} // namespace westrum
