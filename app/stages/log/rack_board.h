#pragma once

#include <QWidget>

#include "core/plan/job.h"
#include "core/record/workshop.h"
#include "formats/words.h"

#include <vector>

namespace westrum {

/// The rack as it would stand against a wall: every offcut in its material, all to one scale, with its number, size and
/// place, and what it could serve.
class RackBoard : public QWidget {
    Q_OBJECT
public:
    /// What is drawn of an offcut besides itself.
    struct Card {
        RackPiece piece;
        QString state;  ///< "free", "reserved: Plover"
        QString serves; ///< empty: for nothing here
        bool mine = false;
    };
    explicit RackBoard(QWidget* parent = nullptr);
    void show(std::vector<Card> cards, const Catalogue& catalogue, const Figures& figures);
    [[nodiscard]] const std::vector<Card>& cards() const { return cards_; }
    [[nodiscard]] const Card* inHand() const;
    void takeInHand(int card);
    [[nodiscard]] QSize sizeHint() const override;
    [[nodiscard]] bool hasHeightForWidth() const override { return true; }
    [[nodiscard]] int heightForWidth(int width) const override;

signals:
    void picked();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] int columns(int width) const;
    [[nodiscard]] QSizeF cardSize(int width) const;
    [[nodiscard]] QRectF cardAt(int card) const;

    std::vector<Card> cards_;
    Catalogue catalogue_;
    Figures figures_;
    int inHand_ = -1;
};

} // namespace westrum
