#include "formats/suspect_words.h"

#include <QCoreApplication>

#include <cmath>

namespace westrum {
namespace {

struct SuspectWords {
    Q_DECLARE_TR_FUNCTIONS(SuspectWords)
};

} // namespace

QString slipWords(const std::string& key, Mm slip, const Figures& figures) {
    const QString by = figures.length({std::abs(slip.value)});
    const bool length = key != "lean" && !key.starts_with("height") && !key.starts_with("headroom") &&
                        key.find('.') == std::string::npos;
    if (length) return (slip.value > 0 ? SuspectWords::tr("%1 too long") : SuspectWords::tr("%1 too short")).arg(by);
    return (slip.value > 0 ? SuspectWords::tr("%1 too much") : SuspectWords::tr("%1 too little")).arg(by);
}

} // namespace westrum
