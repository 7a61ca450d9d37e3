#include "app/stages/measure/doubt_bar.h"

#include "app/document/shell_commands.h"
#include "core/shell/holes.h"
#include "formats/suspect_words.h"

#include <QPushButton>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

QString cornerLetter(int corner) { return QString(QLatin1Char(static_cast<char>('A' + corner % 26))); }

} // namespace

DoubtBar::DoubtBar(JobDocument& document, QWidget* parent) : QWidget(parent), document_(document), row_(new FlowRow) {
    row_->setContentsMargins(0, 0, 0, 0);
    setLayout(row_);
    hide();
}

QAbstractButton* DoubtBar::add(const QString& text, const QString& name, bool checkable) {
    auto* button = new QPushButton(text);
    button->setObjectName(name);
    button->setCheckable(checkable);
    row_->addWidget(button);
    buttons_ << button;
    return button;
}

void DoubtBar::look(const Ring& instead, const QString& words, QAbstractButton* by) {
    const bool on = by && by->isChecked();
    for (QAbstractButton* b : buttons_)
        if (b != by && b->isChecked()) b->setChecked(false);
    shown_ = on ? instead : Ring{};
    words_ = on ? words : QString();
    emit lookedAt();
}

void DoubtBar::addSuspects(const SlipReport& slip, const Figures& figures) {
    // What is an opening's says of which.
    const auto nameOf = [this](const std::string& key) {
        const Surface* s = document_.job().surface(document_.currentSurface());
        const auto opening = openingOfKey(key);
        if (!s || !opening || *opening >= s->openings.size()) return readingName(key);
        return tr("%1 of %2").arg(readingName(key), QString::fromStdString(s->openings[*opening].name));
    };
    for (std::size_t k = 0; k < slip.suspects.size(); ++k) {
        const SuspectReading& s = slip.suspects[k];
        const QString what = tr("%1 is %2").arg(sentenceCase(nameOf(s.key)), slipWords(s.key, s.slip(), figures));
        QAbstractButton* button = add(what, QStringLiteral("suspect%1").arg(k), true);
        button->setToolTip(tr("Shows the outline as it is if this one should read %1").arg(figures.length(s.implied)));
        connect(button, &QAbstractButton::clicked, this,
                [this, button, corners = s.corners, name = nameOf(s.key), implied = figures.length(s.implied)] {
                    look(corners, tr("if the %1 reads %2").arg(name, implied), button);
                });
    }
    if (slip.decides) {
        const auto [from, to] = *slip.decides;
        QAbstractButton* button =
            add(tr("Measure %1 to %2").arg(cornerLetter(from), cornerLetter(to)), QStringLiteral("decide"), false);
        connect(button, &QAbstractButton::clicked, this, [this, from = from, to = to] {
            const std::string id = document_.currentSurface();
            if (document_.job().surface(id)->measurement.form == OutlineForm::FourSides)
                return emit takeWanted(
                    QString::fromStdString(readingKey(from == 0 ? QuadReading::AC : QuadReading::BD)));
            push(document_, addDiagonal(document_, id, from, to));
            const auto& diagonals = document_.job().surface(id)->measurement.polygon.diagonals;
            for (std::size_t d = 0; d < diagonals.size(); ++d)
                if (std::minmax(diagonals[d].from, diagonals[d].to) == std::minmax(from, to))
                    emit takeWanted(QString::fromStdString(readingKey('D', static_cast<int>(d))));
        });
        return;
    }
    const std::string key = slip.suspects.front().key;
    QAbstractButton* button = add(tr("Take the %1 again").arg(nameOf(key)), QStringLiteral("decide"), false);
    connect(button, &QAbstractButton::clicked, this, [this, key] { emit takeWanted(QString::fromStdString(key)); });
}

void DoubtBar::refresh(const MeasuredOutline& measured, const Figures& figures) {
    const bool eitherWay = measured.network && measured.network->fit.turnsEitherWay >= 0;
    const std::vector<Point> otherwise = eitherWay ? measured.network->fit.otherwise : std::vector<Point>{};
    if (surface_ == document_.currentSurface() && slip_ == measured.slip && otherwise_ == otherwise) return;
    surface_ = document_.currentSurface();
    slip_ = measured.slip;
    otherwise_ = otherwise;
    while (QLayoutItem* item = row_->takeAt(0)) delete item;
    for (QAbstractButton* b : buttons_) {
        b->hide();
        b->deleteLater(); // it may be the one that was just pressed
    }
    buttons_.clear();
    shown_.clear();
    words_.clear();
    if (eitherWay) {
        const int corner = measured.network->fit.turnsEitherWay;
        QAbstractButton* button = add(tr("The other outline: %1").arg(figures.area({signedArea(otherwise) / 1e6})),
                                      QStringLiteral("otherOutline"), true);
        connect(button, &QAbstractButton::clicked, this, [this, button, otherwise, corner] {
            look(otherwise, tr("if corner %1 turns the other way").arg(cornerLetter(corner)), button);
        });
        const std::size_t n = measured.frame.size(), k = static_cast<std::size_t>(corner);
        const bool inwards = n > k && cross(measured.frame[k] - measured.frame[(k + n - 1) % n],
                                            measured.frame[(k + 1) % n] - measured.frame[k]) < 0;
        for (const bool in : {false, true}) {
            QAbstractButton* says =
                add((in ? tr("%1 turns inwards") : tr("%1 turns outwards")).arg(cornerLetter(corner)),
                    in == inwards ? QStringLiteral("asItStands") : QStringLiteral("otherWay"), false);
            connect(says, &QAbstractButton::clicked, this, [this, corner, in] {
                push(document_, turnCorner(document_, document_.currentSurface(), corner,
                                           in ? CornerTurn::Inwards : CornerTurn::Outwards));
            });
        }
    }
    if (measured.slip) addSuspects(*measured.slip, figures);
    setVisible(!buttons_.isEmpty());
    updateGeometry();
    emit lookedAt();
}

} // namespace westrum
