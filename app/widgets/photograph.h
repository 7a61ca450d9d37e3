#pragma once

#include <QImage>
#include <QString>

namespace westrum {

/// Reads a photograph, turned upright by its own mark and no larger than it is wanted; a null picture, and why, where
/// it cannot be read.
QImage readPhotograph(const QString& path, QString& why, int mostPixels = 4000);

} // namespace westrum
