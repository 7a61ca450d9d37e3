#pragma once

#include <QLayout>
#include <QString>

namespace westrum {

/// A caution as it stands with its step: behind a red bar, calm and always there.
QLayout* cautionLine(const QString& text);

} // namespace westrum
