#pragma once

#include "core/vanwork/took.h"
#include "formats/words.h"

#include <QString>

namespace westrum {

/// What a job took, for paper. A PDF on the paper chosen; an empty text, or why it could not be written.
QString printTook(const QString& path, const Job& job, const Took& took, const Figures& figures);

/// Rows of a table of what was done on each surface and of what went into it, as text.
QStringList tookSurfaceHead();
QStringList tookSurfaceRow(const Job& job, const Took::OfSurface& of, const Figures& figures);
QStringList tookProductHead();
QStringList tookProductRow(const Job& job, const Took::OfProduct& of, const Figures& figures);
/// The whole in a few sentences.
QStringList tookSentences(const Job& job, const Took& took, const Figures& figures);

} // namespace westrum
