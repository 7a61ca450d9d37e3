#include "formats/forecast_file.h"

#include "core/units/parse.h"
#include "formats/csv.h"

#include <QCoreApplication>

#include <map>

namespace westrum {
namespace {

struct ForecastWords {
    Q_DECLARE_TR_FUNCTIONS(ForecastWords)
};

constexpr std::size_t kFaultsKept = 100;
constexpr double kColdest = -60, kHottest = 60;

class Reader {
public:
    ForecastReading read(const QString& all, const CivilDate& made) {
        reading_.forecast.made = made;
        CsvReader rows(all, csvSeparator(all.section(QLatin1Char('\n'), 0, 0)));
        for (CsvRow row; rows.next(row);) {
            if (columns_.empty()) {
                for (int i = 0; i < row.cells.size(); ++i) columns_.emplace(row.cells[i].toLower(), i);
                if (columns_.contains(QStringLiteral("date"))) continue;
                fault(ForecastFault::Kind::NoHeading, row.line);
                break;
            }
            if (reading_.forecast.days.size() >= kMostForecastDays) {
                fault(ForecastFault::Kind::TooMany, row.line);
                break;
            }
            day(row);
        }
        return std::move(reading_);
    }

private:
    void fault(ForecastFault::Kind kind, int line, const QString& text = {}) {
        ++reading_.faulty;
        if (reading_.faults.size() < kFaultsKept) reading_.faults.push_back({kind, line, text});
    }

    [[nodiscard]] QString cell(const CsvRow& row, const char* column) const {
        const auto at = columns_.find(QString::fromLatin1(column));
        return at == columns_.end() ? QString() : row.cells.value(at->second).trimmed();
    }

    /// False where a figure is wrong; an empty cell is none.
    bool figure(const CsvRow& row, const char* column, double least, double most, std::optional<double>& into) {
        QString text = cell(row, column);
        if (text.endsWith(QLatin1Char('%'))) text.chop(1);
        if (text.trimmed().isEmpty()) return true;
        const auto n = parseNumber(text.trimmed().toStdString());
        if (!n || !(n.value() >= least) || n.value() > most) {
            fault(ForecastFault::Kind::BadNumber, row.line, cell(row, column));
            return false;
        }
        into = n.value();
        return true;
    }

    void day(const CsvRow& row) {
        const QString text = cell(row, "date");
        const auto date = parseIsoDate(text.toStdString());
        if (!date) return fault(ForecastFault::Kind::BadDate, row.line, text);
        DayWeather w;
        std::optional<double> percent;
        if (!figure(row, "dry", 0, 100, percent) || !figure(row, "low", kColdest, kHottest, w.low) ||
            !figure(row, "high", kColdest, kHottest, w.high))
            return;
        if (percent) w.dryChance = *percent / 100;
        if (!reading_.forecast.days.emplace(*date, w).second) fault(ForecastFault::Kind::Twice, row.line, text);
    }

    std::map<QString, int> columns_;
    ForecastReading reading_;
};

} // namespace

ForecastReading readForecast(const QByteArray& bytes, const CivilDate& made) {
    ForecastReading none;
    none.faulty = 1;
    if (bytes.size() > kLargestForecastFile) {
        none.faults = {{ForecastFault::Kind::TooLarge}};
        return none;
    }
    if (bytes.trimmed().isEmpty()) {
        none.faults = {{ForecastFault::Kind::Empty}};
        return none;
    }
    return Reader().read(QString::fromUtf8(bytes), made);
}

QByteArray forecastAsCsv(const Forecast& forecast) {
    QByteArray out = "date;dry;low;high\n";
    for (const auto& [date, w] : forecast.days) {
        out += QByteArray::fromStdString(isoDate(date)) + ';';
        if (w.dryChance) out += csvNumber(*w.dryChance * 100, 0);
        out += ';';
        if (w.low) out += csvNumber(*w.low, 1);
        out += ';';
        if (w.high) out += csvNumber(*w.high, 1);
        out += '\n';
    }
    return out;
}

QString sentence(const ForecastFault& f) {
    using enum ForecastFault::Kind;
    const QString line = ForecastWords::tr("Line %1: ").arg(f.line);
    switch (f.kind) {
    case Empty: return ForecastWords::tr("The file is empty.");
    case TooLarge: return ForecastWords::tr("The file is too large for a forecast.");
    case NoHeading:
        return ForecastWords::tr("The first line does not name the columns: date, dry, low, high. See the manual.");
    case BadDate: return line + ForecastWords::tr("“%1” is no date; it is written 2027-03-13.").arg(f.text);
    case BadNumber: return line + ForecastWords::tr("“%1” is no chance from 0 to 100, or no temperature.").arg(f.text);
    case Twice: return line + ForecastWords::tr("%1 stands there twice; the first is taken.").arg(f.text);
    case TooMany: return line + ForecastWords::tr("more days than can be read; the rest is left out.");
    }
    return {};
}

} // namespace westrum
