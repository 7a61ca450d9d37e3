#include "core/record/record.h"

#include <algorithm>
#include <cmath>

namespace westrum {

std::int64_t freeEntryId(const Record& record) {
    std::int64_t most = 0;
    for (const RecordEntry& e : record) most = std::max(most, e.id);
    return most + 1;
}

const RecordEntry* findEntry(const Record& record, std::int64_t id) {
    const auto found = std::find_if(record.begin(), record.end(), [&](const RecordEntry& e) { return e.id == id; });
    return found == record.end() ? nullptr : &*found;
}

const RecordEntry* lastOfStep(const Record& record, EntryKind kind, std::string_view surface, std::string_view step) {
    const auto found = std::find_if(record.rbegin(), record.rend(), [&](const RecordEntry& e) {
        return e.kind == kind && e.surface == surface && e.step == step;
    });
    return found == record.rend() ? nullptr : &*found;
}

LearnedRatio learnedRatio(const std::vector<Observed>& observed) {
    LearnedRatio learned;
    std::vector<double> logs;
    for (const Observed& o : observed)
        if (o.planned > 0 && o.really > 0) logs.push_back(std::log(o.really / o.planned));
    if (logs.empty()) return learned;
    const double n = static_cast<double>(logs.size());
    double sum = 0, squares = 0;
    for (const double l : logs) sum += l;
    const double mean = sum / n;
    for (const double l : logs) squares += (l - mean) * (l - mean);
    const double spread = logs.size() >= 3 ? std::sqrt(squares / (n - 1)) : kUsualSpread;
    learned.observations = static_cast<int>(logs.size());
    learned.observed = std::exp(mean);
    learned.ratio = std::exp(mean * n / (n + kDefaultCounts));
    learned.low = std::exp(mean - spread);
    learned.high = std::exp(mean + spread);
    return learned;
}

LearnedParts learnedParts(const std::vector<ObservedParts>& observed) {
    LearnedParts learned;
    std::vector<Observed> whole;
    double n = 0, logs = 0, shares = 0;
    for (const ObservedParts& o : observed) {
        if (!(o.whole.planned > 0) || !(o.whole.really > 0)) continue;
        whole.push_back(o.whole);
        n += 1;
        logs += std::log(o.whole.really / o.whole.planned);
        shares += o.first;
    }
    learned.whole = learnedRatio(whole);
    learned.first = learned.second = learned.whole.ratio;
    if (n == 0) return learned;
    // How much longer it takes the more of the first part there is; the default counts as one of each alone.
    double together = 0, apart = kDefaultCounts * 0.25;
    for (const ObservedParts& o : observed) {
        if (!(o.whole.planned > 0) || !(o.whole.really > 0)) continue;
        const double off = o.first - shares / n;
        together += off * (std::log(o.whole.really / o.whole.planned) - logs / n);
        apart += off * off;
    }
    const double tilt = together / apart;
    learned.first *= std::exp(tilt * (1 - shares / n));
    learned.second *= std::exp(-tilt * shares / n);
    return learned;
}

double learnedError(const std::vector<double>& noted, std::size_t readings, double usual) {
    double squares = 0;
    for (const double mm : noted) squares += mm * mm;
    const auto all = static_cast<double>(std::max(readings, noted.size()));
    if (all == 0) return usual;
    return std::sqrt((squares + (all - static_cast<double>(noted.size())) * usual * usual) / all);
}

double learnedWaste(double thrownAway, double used, double usual) {
    return (thrownAway + kDefaultCounts * usual) / (std::max(0.0, used) + kDefaultCounts);
}

LearnedShare learnedShare(int hits, int tries, double usual) {
    LearnedShare learned{tries, hits, usual, usual, usual};
    const double n = tries + kDefaultTries;
    learned.share = (hits + usual * kDefaultTries) / n;
    const double deviation = std::sqrt(learned.share * (1 - learned.share) / (n + 1));
    learned.low = std::max(0.0, learned.share - deviation);
    learned.high = std::min(1.0, learned.share + deviation);
    return learned;
}

} // namespace westrum
