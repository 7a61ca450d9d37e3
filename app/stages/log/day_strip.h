#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "core/record/record.h"
#include "formats/words.h"

#include <optional>
#include <vector>

namespace westrum {

/// One day of the record as a strip of hours: what took time as blocks, what happened at a moment as marks, beside a
/// small picture of the surface that it was on. A press takes an entry in hand.
class DayStrip : public QWidget {
    Q_OBJECT
public:
    explicit DayStrip(JobDocument& document, QWidget* parent = nullptr);
    /// The day of an entry, and that entry in hand; nothing: no day.
    void show(const RecordEntry* entry, const Figures& figures);
    [[nodiscard]] QSize sizeHint() const override { return {500, kHeight}; }
    /// Where an entry lies; nothing if it is of another day.
    [[nodiscard]] std::optional<QPointF> spotOf(std::int64_t id) const;

signals:
    void picked(std::int64_t id);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    bool event(QEvent* event) override;

private:
    static constexpr int kHeight = 84, kPicture = 130;
    struct Block {
        std::int64_t id;
        int from, to; ///< minutes of the day
        int row;      ///< 0 what took time, 1 what happened at a moment
        bool spoilt;
        QString where; ///< its surface
    };
    [[nodiscard]] double xOf(int minute) const;
    [[nodiscard]] QRectF boxOf(const Block& block) const;
    void paintPicture(QPainter& p) const;
    void paintWhere(QPainter& p, const Block& block, const QRectF& box) const;

    JobDocument& document_;
    Figures figures_;
    CivilDate day_{};
    std::string surface_;
    std::int64_t inHand_ = 0;
    std::vector<Block> blocks_;
    int first_ = 0, last_ = 1440; ///< minutes shown
};

} // namespace westrum
