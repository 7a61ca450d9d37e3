#pragma once

#include "formats/outline_file.h"

#include <QHash>
#include <QString>
#include <QTransform>
#include <QXmlStreamReader>

#include <cmath>
#include <memory>
#include <optional>
#include <vector>

namespace westrum {

/// The text of SVG files: numbers, transforms, lengths, elements and what style sheets say of them.

inline constexpr double kFarthestSvg = 1e7;
inline constexpr int kDeepestSvg = 64;
inline constexpr int kMostSvgElements = 200000;

/// Reads numbers out of an attribute, one after the other, as SVG separates them.
class Numbers {
public:
    explicit Numbers(QStringView text) : text_(text) {}
    bool next(double& into) {
        skip();
        const qsizetype start = at_;
        if (at_ < text_.size() && (text_[at_] == u'-' || text_[at_] == u'+')) ++at_;
        bool dot = false;
        while (at_ < text_.size() && (text_[at_].isDigit() || (!dot && text_[at_] == u'.')))
            dot |= text_[at_++] == u'.';
        if (at_ + 1 < text_.size() && (text_[at_] == u'e' || text_[at_] == u'E') &&
            (text_[at_ + 1].isDigit() || ((text_[at_ + 1] == u'-' || text_[at_ + 1] == u'+') &&
                                          at_ + 2 < text_.size() && text_[at_ + 2].isDigit()))) {
            at_ += 2;
            while (at_ < text_.size() && text_[at_].isDigit()) ++at_;
        }
        bool good = false;
        into = text_.mid(start, at_ - start).toDouble(&good);
        if (!good || !std::isfinite(into) || std::abs(into) > kFarthestSvg) {
            at_ = start;
            return false;
        }
        return true;
    }
    /// A flag of an arc: one digit, which may stand without a gap before the next.
    bool flag(bool& into) {
        skip();
        if (at_ >= text_.size() || (text_[at_] != u'0' && text_[at_] != u'1')) return false;
        into = text_[at_++] == u'1';
        return true;
    }
    /// The next command letter, if one comes.
    bool command(QChar& into) {
        skip();
        if (at_ >= text_.size() || !text_[at_].isLetter()) return false;
        into = text_[at_++];
        return true;
    }
    bool atEnd() {
        skip();
        return at_ >= text_.size();
    }
    bool is(QChar c) {
        skip();
        if (at_ >= text_.size() || text_[at_] != c) return false;
        ++at_;
        return true;
    }
    QString word() {
        skip();
        const qsizetype start = at_;
        while (at_ < text_.size() && text_[at_].isLetter()) ++at_;
        return text_.mid(start, at_ - start).toString();
    }

private:
    void skip() {
        while (at_ < text_.size() && (text_[at_].isSpace() || text_[at_] == u',')) ++at_;
    }
    QStringView text_;
    qsizetype at_ = 0;
};

/// All that a transform attribute says; what is not understood ends it.
QTransform transformOf(QStringView text);

/// mm of a unit's name; nothing for one that has no size in the world.
std::optional<double> mmOfSvgUnit(const QString& unit);
/// A length with such a unit, in mm.
std::optional<double> worldLength(const QString& text);

/// One element with what is in it.
struct Element {
    QString name;
    QXmlStreamAttributes attributes;
    std::vector<std::unique_ptr<Element>> inner;
    [[nodiscard]] QString value(const char* key) const { return attributes.value(QLatin1String(key)).toString(); }
    [[nodiscard]] QString id() const { return value("id"); }
};

/// What a style sheet or attribute says of whether a thing is drawn.
struct Look {
    bool shown = true;   ///< display
    bool visible = true; ///< visibility: what is inside may be visible again
    bool filled = true, stroked = false;
    [[nodiscard]] bool drawn() const { return shown && visible && (filled || stroked); }
};

/// What one property, or a list of declarations ("display: none; fill: red"), changes.
void applyLook(Look& look, const QString& property, const QString& value);
void applyDeclarations(Look& look, const QString& text);

/// Rules of a style sheet by plain selectors: an element's name, a class, an id.
class StyleSheet {
public:
    void add(QString text);
    void apply(const Element& e, Look& look) const;

private:
    QHash<QString, QString> rules_;
};

/// Reads the elements; what is wrong comes as a fault.
std::optional<OutlineFault> readElements(const QByteArray& bytes, std::unique_ptr<Element>& root, StyleSheet& styles);

} // namespace westrum
