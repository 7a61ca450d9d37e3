#pragma once

#include <QHelpEvent>
#include <QString>
#include <QToolTip>

namespace westrum {

/// Tells what is pointed at, or nothing any more. @return  true: the event is done with
inline bool showTip(const QEvent* event, const QString& text, QWidget* on) {
    if (text.isEmpty())
        QToolTip::hideText();
    else
        QToolTip::showText(static_cast<const QHelpEvent*>(event)->globalPos(), text, on);
    return true;
}

} // namespace westrum
