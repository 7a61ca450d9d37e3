#pragma once

#include "core/record/workshop.h"
#include "core/units/result.h"
#include "formats/job_file.h"

#include <QByteArray>

namespace westrum {

// The workshop's book as files: docs/formats/book.md. Readers treat what they read as hostile.

inline constexpr int kBookFileVersion = 1;

/// All of it, as JSON: the same book is the same bytes.
QByteArray writeBook(const WorkshopBook& book);
Result<WorkshopBook, FileFaults> readBook(const QByteArray& bytes);

/// The inside of a body as a book keeps it; readJob() reads it.
std::string shellText(const Job& shell);

/// A line each, with a heading. Shapes stand as "x y; x y", rings parted by "/".
QByteArray rackAsCsv(const std::vector<RackPiece>& rack);
QByteArray packsAsCsv(const std::vector<KeptPack>& packs);
QByteArray pricesAsCsv(const std::vector<PricePaid>& prices);
QByteArray jobsAsCsv(const std::vector<JobDone>& jobs);

/// What is wrong with a line of a list of offcuts; the other lines are read.
struct RackLineFault {
    enum class Kind { Empty, TooLarge, NoHeading, NoProduct, BadSize, BadShape, BadDate, TooMany };
    Kind kind{};
    int line = 0;
    QString text{};
};
struct RackReading {
    std::vector<RackPiece> rack; ///< all free: what is reserved is a matter of the book that it came from
    std::vector<RackLineFault> faults;
};
/// Reads what rackAsCsv() writes, or a list typed elsewhere: columns by their heading, "product", "length" and "width"
/// are wanted.
RackReading readRackCsv(const QByteArray& bytes, const CivilDate& today);
QString sentence(const RackLineFault& fault);

/// An outline as text, "0 0; 600 0; 600 400": rings parted by "/". Nothing if it is none.
std::string shapeAsText(const Region& shape);
std::optional<Region> shapeFromText(std::string_view text);

} // namespace westrum
