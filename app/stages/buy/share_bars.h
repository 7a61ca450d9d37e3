#pragma once

#include <QWidget>

#include "core/plan/plan.h"
#include "formats/words.h"

namespace westrum {

/// The surfaces that a purchase goes to, each with its share of the cost as a bar. One that is pressed is picked.
class ShareBars : public QWidget {
    Q_OBJECT
public:
    explicit ShareBars(QWidget* parent = nullptr);
    void show(const Purchase& purchase, const Job& job, const Figures& figures);
    [[nodiscard]] int rows() const { return static_cast<int>(rows_.size()); }
    /// The middle of a row, for tests.
    [[nodiscard]] QPointF rowAt(int row) const;

signals:
    void picked(const std::string& surface);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    struct Row {
        std::string surface;
        QString name, amount, cost;
        double share{};
    };
    [[nodiscard]] double lineHeight() const;
    std::vector<Row> rows_;
};

} // namespace westrum
