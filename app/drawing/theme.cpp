#include "app/drawing/theme.h"

#include <QApplication>
#include <QFontDatabase>

// Must stand outside any namespace: the resources are in a static library.
static void initLook() { Q_INIT_RESOURCE(look); }

namespace westrum {
namespace {

const Theme kDay{.paper = QColor(0xF2EDE2),
                 .raised = QColor(0xFBF8F1),
                 .graphite = QColor(0x2B2A28),
                 .muted = QColor(0x6F695E),
                 .faint = QColor(0xCFC7B6),
                 .chalk = QColor(0x2A5F8E),
                 .pencil = QColor(0xB23A2A),
                 .agreed = QColor(0x3F7546),
                 .agreedWash = QColor(0xDCE6D2),
                 .ruleLight = QColor(0xF5E7B8),
                 .ruleDark = QColor(0xEFC94C),
                 .ruleEdge = QColor(0xB79A3E),
                 .tally = QColor(0xE9E2D2),
                 .metal = QColor(0xD9DAD4)};

const Theme kEvening{.paper = QColor(0x262420),
                     .raised = QColor(0x34312B),
                     .graphite = QColor(0xEDE6D8),
                     .muted = QColor(0xA79F90),
                     .faint = QColor(0x4C473E),
                     .chalk = QColor(0x86B9E6),
                     .pencil = QColor(0xF08A76),
                     .agreed = QColor(0x93C79A),
                     .agreedWash = QColor(0x37452F),
                     .ruleLight = QColor(0x5B5132),
                     .ruleDark = QColor(0xA8872A),
                     .ruleEdge = QColor(0x8A7434),
                     .tally = QColor(0x1E1C19),
                     .metal = QColor(0x4A4B48),
                     .dark = true};

bool evening = false;

} // namespace

const Theme& Theme::now() { return evening ? kEvening : kDay; }
void Theme::choose(bool dark) { evening = dark; }

QPalette Theme::palette() const {
    QPalette p;
    p.setColor(QPalette::Window, paper);
    p.setColor(QPalette::WindowText, graphite);
    p.setColor(QPalette::Base, raised);
    p.setColor(QPalette::AlternateBase, paper);
    p.setColor(QPalette::Text, graphite);
    p.setColor(QPalette::Button, raised);
    p.setColor(QPalette::ButtonText, graphite);
    p.setColor(QPalette::ToolTipBase, raised);
    p.setColor(QPalette::ToolTipText, graphite);
    p.setColor(QPalette::Highlight, chalk);
    p.setColor(QPalette::HighlightedText, dark ? paper : raised);
    p.setColor(QPalette::PlaceholderText, muted);
    p.setColor(QPalette::Disabled, QPalette::Text, muted);
    p.setColor(QPalette::Disabled, QPalette::ButtonText, muted);
    p.setColor(QPalette::Disabled, QPalette::WindowText, muted);
    return p;
}

void loadFonts() {
    initLook();
    QFontDatabase::addApplicationFont(QStringLiteral(":/look/fonts/Lato-Regular.ttf"));
    QFontDatabase::addApplicationFont(QStringLiteral(":/look/fonts/Lato-Bold.ttf"));
    QFont font(QStringLiteral("Lato"));
    font.setPointSizeF(QApplication::font().pointSizeF() > 0 ? std::max(11.0, QApplication::font().pointSizeF()) : 11);
    font.setStyleStrategy(QFont::PreferAntialias);
    QApplication::setFont(font);
}

QFont textFont(double relative, bool bold) {
    QFont font = QApplication::font();
    font.setPointSizeF(font.pointSizeF() * relative);
    font.setBold(bold);
    return font;
}

QString css(const QColor& colour) { return colour.name(QColor::HexRgb); }

QString styleSheet(const Theme& t) {
    return QStringLiteral(R"(
QWidget { color: %1; }
QMainWindow, QScrollArea, QScrollArea > QWidget > QWidget { background: %2; border: none; }
QLineEdit, QComboBox, QPlainTextEdit { background: %3; border: 1px solid %4; border-radius: 4px; padding: 3px 6px;
    selection-background-color: %5; }
QLineEdit:focus, QComboBox:focus, QPlainTextEdit:focus { border: 2px solid %5; padding: 2px 5px; }
QLineEdit[wrong="true"] { border: 2px solid %6; padding: 2px 5px; }
QComboBox::drop-down { width: 20px; border: none; }
QComboBox::down-arrow { image: url(:/look/icons/down.svg); width: 12px; height: 8px; margin-right: 8px; }
QComboBox QAbstractItemView { background: %3; border: 1px solid %4; selection-background-color: %5; }
QPushButton { background: transparent; border: 1px solid %5; border-radius: 11px; padding: 3px 14px; color: %5; font-weight: bold; }
QPushButton:hover, QPushButton:focus { background: %3; border-width: 2px; padding: 2px 13px; }
QPushButton:disabled { color: %7; border-color: %4; }
QPushButton:checked { background: %9; border-color: %8; color: %1; }
QPushButton[quiet="true"] { border: none; padding: 4px 6px; font-weight: normal; text-align: left; color: %1; }
QPushButton#jobMenu { font-weight: bold; }
QPushButton::menu-indicator { image: none; }
QPushButton[quiet="true"]:hover, QPushButton[quiet="true"]:focus { text-decoration: underline; background: transparent; }
QCheckBox { spacing: 8px; }
QCheckBox::indicator { width: 16px; height: 16px; border: 2px solid %7; border-radius: 3px; background: %3; }
QCheckBox::indicator:checked { border-color: %8; background: %8; image: url(:/look/icons/tick.svg); }
QCheckBox::indicator:focus { border-color: %5; }
QMenu { background: %3; border: 1px solid %4; padding: 4px; }
QMenu::item { padding: 6px 28px 6px 14px; }
QMenu::item:selected { background: %9; color: %1; }
QMenu::item:disabled { color: %7; }
QMenu::separator { height: 1px; background: %4; margin: 4px 8px; }
QToolTip { background: %3; color: %1; border: 1px solid %4; padding: 4px; }
QTableView { background: %3; border: 1px solid %4; gridline-color: %4; }
QTableView::item { padding: 0 12px; }
QListView { background: %2; border: none; outline: none; }
QListView::item:selected { background: %9; color: %1; }
QListView::indicator { width: 11px; height: 11px; border: 1px solid %7; background: %3; }
QListView::indicator:checked { border-color: %8; background: %8; image: url(:/look/icons/tick.svg); }
QHeaderView::section { background: %2; color: %7; border: none; border-bottom: 1px solid %4; padding: 4px 12px; }
QScrollBar:vertical { background: transparent; width: 10px; }
QScrollBar::handle:vertical { background: %4; border-radius: 5px; min-height: 30px; }
QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }
QScrollBar:horizontal { background: transparent; height: 10px; }
QScrollBar::handle:horizontal { background: %4; border-radius: 5px; min-width: 30px; }
)")
        .arg(css(t.graphite), css(t.paper), css(t.raised), css(t.faint), css(t.chalk), css(t.pencil), css(t.muted),
             css(t.agreed), css(t.agreedWash));
}

} // namespace westrum
