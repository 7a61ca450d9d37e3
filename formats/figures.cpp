#include "formats/fact_printer.h"
#include "formats/words.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

struct FigureWords {
    Q_DECLARE_TR_FUNCTIONS(FigureWords)
};

} // namespace

QString Figures::length(Mm l, bool withUnit) const {
    constexpr double kInchMm = 25.4, kHalfAMarkMm = kInchMm / 32;
    if (measuresWith(unit) == Measures::Imperial && l.value != 0 &&
        std::abs(l.value) < kHalfAMarkMm) // no mark is so fine
        return fromStd(printNumber(l.value / kInchMm, 3, decimalMark)) + (withUnit ? QStringLiteral("\"") : QString());
    LengthStyle style{.unit = unit, .decimals = decimals, .decimalMark = decimalMark, .withUnit = withUnit};
    style.betweenMarks = BetweenMarks::SayAbout;
    return fromStd(printLength(l, style));
}

QString Figures::fineLength(Mm l, bool withUnit) const {
    Figures fine = *this;
    fine.decimals = std::max(1, decimals);
    return fine.length(l, withUnit);
}

QString Figures::number(double value, int places) const { return fromStd(printNumber(value, places, decimalMark)); }
QString Figures::money(Money m) const { return fromStd(printMoney(m, decimalMark)); }
QString Figures::area(M2 a) const { return fromStd(printArea(a, 2, decimalMark, measuresWith(unit))); }
QString Figures::mass(Kg m, int places) const { return fromStd(printMass(m, places, decimalMark, measuresWith(unit))); }
QString Figures::run(Mm l, int places) const { return fromStd(printRun(l, places, decimalMark, measuresWith(unit))); }
QString Figures::anArea() const {
    return measuresWith(unit) == Measures::Imperial ? FigureWords::tr("a ft²") : FigureWords::tr("a m²");
}
double Figures::massUnit() const { return measuresWith(unit) == Measures::Imperial ? kPoundKg : 1; }
double Figures::areaUnit() const { return measuresWith(unit) == Measures::Imperial ? kSquareFootM2 : 1; }
QString Figures::percent(double share) const {
    return fromStd(printNumber(share * 100, 1, decimalMark, true, true)) + QStringLiteral(" %");
}

} // namespace westrum
