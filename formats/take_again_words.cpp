#include "formats/take_again_words.h"

#include <QCoreApplication>

#include <cmath>

namespace westrum {
namespace {

struct TakeAgainWords {
    Q_DECLARE_TR_FUNCTIONS(TakeAgainWords)
};

} // namespace

QString takeAgainSentence(const Job& job, const CostlyReading& reading, const Figures& figures) {
    const Surface* surface = job.surface(reading.surface);
    const QString where = QStringLiteral("%1, %2").arg(surface ? QString::fromStdString(surface->name)
                                                               : QString::fromStdString(reading.surface),
                                                       readingName(reading.key));
    const QString off = figures.length({std::abs(reading.off.value)});
    const QString text = reading.more
                             ? (reading.off.value > 0 ? TakeAgainWords::tr("%1: %2 longer would cost %3 more.")
                                                      : TakeAgainWords::tr("%1: %2 shorter would cost %3 more."))
                                   .arg(where, off, figures.money(*reading.more))
                             : (reading.off.value > 0 ? TakeAgainWords::tr("%1: %2 longer would not do.")
                                                      : TakeAgainWords::tr("%1: %2 shorter would not do."))
                                   .arg(where, off);
    return reading.brings ? text + QLatin1Char(' ') + sentence(*reading.brings, figures) : text;
}

} // namespace westrum
