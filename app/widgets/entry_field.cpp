#include "app/widgets/entry_field.h"

#include "app/drawing/theme.h"
#include "formats/words.h"

#include <QKeyEvent>
#include <QPainter>
#include <QStyle>

namespace westrum {

EntryField::EntryField(Commit commit, QWidget* parent) : QLineEdit(parent), commit_(std::move(commit)) {
    connect(this, &QLineEdit::returnPressed, this, [this] {
        finish();
        if (!wrong_) focusNextChild();
    });
}

void EntryField::setFigure(const QString& shown, const QString& typed) {
    shown_ = shown;
    typed_ = typed.isEmpty() ? shown : typed;
    // Half-typed text is not taken away by a change elsewhere.
    if (hasFocus() && isModified()) return;
    if (wrong_ && isModified()) return;
    setText(hasFocus() ? typed_ : shown_);
    setModified(false);
}

void EntryField::setLetter(const QString& letter) {
    letter_ = letter;
    setTextMargins(letter.isEmpty() ? 0 : 16, 0, 0, 0);
}

void EntryField::setSuspect(bool suspect) {
    if (suspect_ == suspect) return;
    suspect_ = suspect;
    QPalette p = palette();
    p.setColor(QPalette::Text, suspect ? Theme::now().pencil : Theme::now().graphite);
    setPalette(p);
    setStyleSheet(suspect ? QStringLiteral("color: %1; font-weight: bold;").arg(css(Theme::now().pencil)) : QString());
}

void EntryField::focusInEvent(QFocusEvent* event) {
    QLineEdit::focusInEvent(event);
    if (!isModified()) {
        setText(typed_);
        setModified(false);
    }
    selectAll();
}

void EntryField::focusOutEvent(QFocusEvent* event) {
    finish();
    QLineEdit::focusOutEvent(event);
    if (!wrong_) {
        setText(shown_);
        setModified(false);
    }
}

void EntryField::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape && (isModified() || wrong_)) {
        setText(typed_);
        setModified(false);
        setWrong({});
        selectAll();
        return;
    }
    QLineEdit::keyPressEvent(event);
}

void EntryField::paintEvent(QPaintEvent* event) {
    QLineEdit::paintEvent(event);
    if (letter_.isEmpty()) return;
    QPainter painter(this);
    painter.setFont(textFont(0.9));
    painter.setPen(Theme::now().muted);
    painter.drawText(rect().adjusted(6, 0, 0, 0), Qt::AlignVCenter | Qt::AlignLeft, letter_);
}

void EntryField::finish() {
    if (!isModified()) return;
    const QString typed = text().trimmed();
    if (typed == typed_.trimmed()) {
        setModified(false);
        setWrong({});
        return;
    }
    const QString why = commit_(typed);
    setWrong(why);
    if (why.isEmpty()) {
        setModified(false);
        setText(hasFocus() ? typed_ : shown_);
    }
}

void EntryField::setWrong(const QString& sentence) {
    const bool wrong = !sentence.isEmpty();
    if (wrong == wrong_ && sentence == problem_) return;
    wrong_ = wrong;
    problem_ = sentence;
    setProperty("wrong", wrong);
    style()->unpolish(this);
    style()->polish(this);
    if (wrong) setToolTip(sentence);
    emit problemChanged(sentence);
}

EntryField::Commit lengthCommit(std::function<LengthUnit()> bareUnit,
                                std::function<void(std::optional<Reading>)> take) {
    return [bareUnit = std::move(bareUnit), take = std::move(take)](const QString& typed) -> QString {
        if (typed.isEmpty()) {
            take(std::nullopt);
            return {};
        }
        const auto length = parseLength(typed.toStdString(), bareUnit());
        if (!length) return sentence(length.error(), typed);
        take(Reading{typed.toStdString(), length.value()});
        return {};
    };
}

} // namespace westrum
