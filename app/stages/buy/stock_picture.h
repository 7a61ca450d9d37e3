#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "formats/words.h"

#include <QPainter>

namespace westrum {

/// Draws every plank bought, pack by pack: which pieces come out of it, where it is cut, what is left, what is spare.
/// @param plank  its length and width  @param packs, perPack  as bought
void paintStock(QPainter& painter, const QRectF& into, const SetOut& setOut, Mm plankLength, int packs, int perPack,
                const std::string& productId, const Figures& figures);

/// The planks of the surface in hand.
class StockPicture : public QWidget {
    Q_OBJECT
public:
    StockPicture(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {480, 160}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    JobDocument& document_;
    char decimalMark_;
};

} // namespace westrum
