#pragma once

#include <QWidget>

#include "core/plan/odds.h"
#include "formats/words.h"

#include <optional>

namespace westrum {

/// For each number that might be bought, the chance that it is not enough: a row of bars under the line of the risk
/// that is accepted. A bar that is pressed, or the arrow keys, choose that number.
class OddsCurve : public QWidget {
    Q_OBJECT
public:
    explicit OddsCurve(QWidget* parent = nullptr);
    /// @param planned  packs, items or steps that the plan takes without spares  @param bought  with them
    /// @param metres  sold off the roll, told in m
    void show(const ProductOdds& odds, int planned, int bought, double accepted, bool metres, const Figures& figures);
    /// Nothing to show but a sentence.
    void say(const QString& sentence);
    QSize minimumSizeHint() const override { return {300, 150}; }
    /// The middle of the bar of a number, for tests; null if it is not shown.
    [[nodiscard]] QPointF barOf(int number) const;

signals:
    void chosen(int number);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] int numbers() const;
    /// What a bar stands for: one fewer than planned, then from there on in even steps that reach the risk accepted.
    [[nodiscard]] int numberAt(int place) const;
    [[nodiscard]] QRectF column(int place) const;
    [[nodiscard]] double chanceOf(int number) const;

    std::optional<ProductOdds> odds_;
    QString sentence_;
    Figures figures_;
    int planned_ = 0, bought_ = 0, step_ = 1;
    double accepted_ = 0.05;
    bool metres_ = false; ///< sold off the roll: told in m
};

} // namespace westrum
