#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "core/record/record.h"
#include "formats/words.h"

#include <QImage>

#include <optional>
#include <vector>

namespace westrum {

/// A photograph of the record: by itself, or laid over what lies behind its surface. It is laid by pressing, in the
/// picture, the four corners of the surface's box.
class PhotographPane : public QWidget {
    Q_OBJECT
public:
    explicit PhotographPane(JobDocument& document, QWidget* parent = nullptr);
    /// The entry's photograph; nothing: none is in hand.
    void show(const RecordEntry* entry, const Figures& figures);
    /// The next four presses are the corners: lower left, lower right, upper right, upper left.
    void beginLaying();
    [[nodiscard]] bool isLaying() const { return laying_; }
    /// Where a point of the picture, as shares of its width and height, lies on the pane.
    [[nodiscard]] QPointF onPane(QPointF share) const;
    [[nodiscard]] bool hasPicture() const { return !picture_.isNull(); }
    [[nodiscard]] const QString& why() const { return why_; }
    [[nodiscard]] QSize sizeHint() const override { return {420, 320}; }

signals:
    void said(const QString& sentence, bool attention);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    [[nodiscard]] QRectF pictureBox() const;
    [[nodiscard]] const Surface* surface() const;
    void lay();

    JobDocument& document_;
    Figures figures_;
    std::optional<RecordEntry> entry_;
    QString path_, why_;
    QImage picture_;
    bool laying_ = false;
    std::vector<Point> pressed_; ///< in pixels of the picture, y up
};

/// Where a photograph of a record is: beside the job's file.
QString photographPath(const JobDocument& document, const RecordEntry& entry);

} // namespace westrum
