#include "app/widgets/caution_line.h"

#include "app/drawing/theme.h"

#include <QFrame>
#include <QHBoxLayout>
#include <QLabel>

namespace westrum {

QLayout* cautionLine(const QString& text) {
    const Theme& t = Theme::now();
    auto* label = new QLabel(text);
    label->setTextFormat(Qt::PlainText);
    label->setWordWrap(true);
    label->setStyleSheet(QStringLiteral("color: %1;").arg(css(t.graphite)));
    auto* bar = new QFrame;
    bar->setFixedWidth(4);
    bar->setStyleSheet(QStringLiteral("background: %1;").arg(css(t.pencil)));
    auto* row = new QHBoxLayout;
    row->setContentsMargins(28, 4, 0, 0);
    row->setSpacing(10);
    row->addWidget(bar);
    row->addWidget(label, 1);
    return row;
}

} // namespace westrum
