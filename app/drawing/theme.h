#pragma once

#include <QColor>
#include <QFont>
#include <QPalette>

namespace westrum {

/// The colours of marked-out timber and paper. Meaning is never carried by colour alone.
struct Theme {
    QColor paper;    ///< ground
    QColor raised;   ///< fields, labels
    QColor graphite; ///< lines and text
    QColor muted;    ///< second-rank text
    QColor faint;    ///< hairlines
    QColor chalk;    ///< datum and start lines, what is in hand
    QColor pencil;   ///< cuts and what needs attention
    QColor agreed;   ///< done, fair
    QColor agreedWash;
    QColor ruleLight, ruleDark, ruleEdge; ///< the folding rule of the stages
    QColor tally;                         ///< the strip at the foot
    QColor metal;                         ///< bare surface
    bool dark = false;

    static const Theme& now();
    static void choose(bool dark);
    [[nodiscard]] QPalette palette() const;
};

/// Loads the font that comes with the application; call once after QApplication is made.
void loadFonts();

/// The application font at a size in points relative to the user's own (1.0 = as set), so that 200 % text works.
QFont textFont(double relative = 1.0, bool bold = false);

/// A colour as #rrggbb for style sheets.
QString css(const QColor& colour);

/// The one style sheet of the window.
QString styleSheet(const Theme& theme);

} // namespace westrum
