// One reader under libFuzzer: built six times, for job, dxf, svg, csv, cut or prices. scripts/fuzz runs them.

#include "core/plan/plan.h"
#include "formats/cutting_file.h"
#include "formats/demo.h"
#include "formats/job_file.h"
#include "formats/outline_file.h"
#include "formats/price_file.h"
#include "formats/words.h"

#include <cstdlib>

using namespace westrum;

namespace {

/// What was read is used as the application uses it: planned, written, or taken in as an outline.
[[maybe_unused]] void useJob(const QByteArray& bytes) {
    const auto job = readJob(bytes);
    if (!job) {
        for (const FileFault& fault : job.error())
            if (sentence(fault).isEmpty()) std::abort();
        return;
    }
    const auto back = readJob(writeJob(job.value()));
    if (!back || !(back.value() == job.value())) std::abort(); // what is read can be written and read again
    for (const Surface& s : job.value().surfaces) {
        const MeasuredOutline measured = outlineOf(s.measurement);
        if (measured.measured()) (void)shapeOf(s, measured);
        (void)mirrored(s);
    }
}

[[maybe_unused]] void useDrawing(const Result<OutlineDrawing, OutlineFault>& drawing) {
    if (!drawing) {
        if (sentence(drawing.error()).isEmpty()) std::abort();
        return;
    }
    for (const Ring& ring : drawing.value().rings) {
        if (ring.size() < 3 || signedArea(ring) <= 0) std::abort(); // outlines run counter-clockwise
        Measurement m;
        m.form = OutlineForm::Drawn;
        m.drawn = drawnOutline(ring);
        if (m.drawn.size() < 400) (void)outlineOf(m);
    }
}

[[maybe_unused]] void useCutting(const QByteArray& bytes) {
    const auto instance = readCutting(bytes);
    if (!instance) return;
    const CuttingFaults faults = faultsOf(instance.value());
    for (const CuttingFaultAt& fault : faults)
        if (sentence(fault, instance.value().names).isEmpty()) std::abort();
    if (!faults.empty()) return;
    const std::size_t pieces = std::visit(
        [](const auto& problem) {
            std::size_t sum = 0;
            for (const auto& piece : problem.pieces) sum += std::size_t(piece.count);
            return sum;
        },
        instance.value().problem);
    if (pieces > 60) return; // a valid answer, but not in a fuzzer's time
    if (answerAsJson(instance.value(), cut(instance.value(), {.seed = 1, .iterations = 5})).isEmpty()) std::abort();
}

/// What was saved once comes back as it was.
[[maybe_unused]] void usePrices(const QByteArray& bytes) {
    static const Catalogue catalogue = starterCatalogue();
    const PriceReading first = readPrices(bytes, {}, catalogue);
    for (const PriceFault& fault : first.faults)
        if (sentence(fault).isEmpty()) std::abort();
    if (first.offers.empty()) return;
    (void)reviewPrices({}, first.offers);
    // A file has three decimals of a size: the first writing rounds, from then on nothing changes.
    const auto savedAndRead = [](const std::vector<Offer>& offers) {
        return readPrices(pricesAsCsv({.offers = offers}, catalogue), {}, catalogue);
    };
    const PriceReading rounded = savedAndRead(first.offers);
    const PriceReading again = savedAndRead(rounded.offers);
    if (again.faulty != 0 || again.offers != rounded.offers) std::abort();
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const QByteArray bytes(reinterpret_cast<const char*>(data), static_cast<qsizetype>(size));
#if defined(WESTRUM_FUZZ_JOB)
    useJob(bytes);
#elif defined(WESTRUM_FUZZ_DXF)
    useDrawing(readDxf(bytes));
#elif defined(WESTRUM_FUZZ_SVG)
    useDrawing(readSvg(bytes));
#elif defined(WESTRUM_FUZZ_CUT)
    useCutting(bytes);
#elif defined(WESTRUM_FUZZ_PRICES)
    usePrices(bytes);
#else
    useDrawing(readPoints(bytes));
#endif
    return 0;
}
