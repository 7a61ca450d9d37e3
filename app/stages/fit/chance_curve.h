#pragma once

#include <QWidget>

#include "app/document/work_worker.h"
#include "formats/words.h"

#include <memory>

namespace westrum {

/// When it is done: by each day the share of runs that are done. The mark is dragged, or moved by the arrow keys, to
/// the date that is needed.
class ChanceCurve : public QWidget {
    Q_OBJECT
public:
    explicit ChanceCurve(QWidget* parent = nullptr);
    /// @param accepted  chance with which the date that is told is to hold
    void show(std::shared_ptr<const WorkAnswer> answer, double accepted, const Figures& figures);
    QSize minimumSizeHint() const override { return {300, 84}; }
    QSize sizeHint() const override { return {600, 92}; }
    /// Where a day is, for tests.
    [[nodiscard]] double xOf(const CivilDate& day) const;
    /// The day that the mark stands on.
    [[nodiscard]] std::optional<CivilDate> marked() const;

signals:
    void chosen(double chance);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void chooseAt(double x);
    void choose(const CivilDate& day);
    [[nodiscard]] double by(const CivilDate& day) const;
    [[nodiscard]] QRectF frame() const;

    std::shared_ptr<const WorkAnswer> answer_;
    double accepted_ = 0.8;
    Figures figures_;
    CivilDate first_, last_;
};

} // namespace westrum
