#pragma once

#include <QLayout>
#include <QPushButton>

#include <functional>
#include <initializer_list>
#include <span>
#include <utility>

namespace westrum {

/// A row of buttons, one for each view of a page, of which the page checks the one that is shown.
/// @param tabs  receives them, as many as there are names  @param show  told the place of the one that is pressed
inline void addViewTabs(QLayout* row, std::initializer_list<std::pair<QString, const char*>> names,
                        std::span<QPushButton*> tabs, const std::function<void(int)>& show) {
    int at = 0;
    for (const auto& [text, id] : names) {
        auto* tab = new QPushButton(text);
        tab->setCheckable(true);
        tab->setObjectName(QString::fromLatin1(id));
        QObject::connect(tab, &QPushButton::clicked, tab, [show, at] { show(at); });
        tabs[static_cast<std::size_t>(at++)] = tab;
        row->addWidget(tab);
    }
}

} // namespace westrum
