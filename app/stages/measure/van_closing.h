#pragma once

#include <QWidget>

#include "app/document/newest_question.h"
#include "core/plan/take_again.h"
#include "formats/words.h"

#include <QPushButton>

#include <memory>

namespace westrum {

/// How well the van closes: its faces in space from the rear right, seen from above, the gaps between corners that
/// meet drawn many times their size, the worst first in words. Asked, it tries which readings would cost most if they
/// were a little off. Pressing a line goes to the surface and the reading.
class VanClosing : public QWidget {
    Q_OBJECT
public:
    explicit VanClosing(QWidget* parent = nullptr);
    void showClosing(const Job& job, const Plan& plan, const Figures& figures);
    /// Readings that were found to be taken again, and where the first of them is written.
    [[nodiscard]] int found() const { return static_cast<int>(lines_.size() - gaps_.size()); }
    [[nodiscard]] QPointF firstFound() const { return lineAt(gaps_.size() + 1).center(); }
    QSize sizeHint() const override { return {600, 260}; }
    QSize minimumSizeHint() const override { return {420, 170}; }

signals:
    /// @param key  of a reading; empty: none in particular
    void surfaceWanted(const std::string& surface, const QString& key);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    struct Line {
        std::string surface;
        QString text;
        QString key{};
        bool bad = false;
    };
    void tell();
    [[nodiscard]] double pictureWidth() const;
    [[nodiscard]] QRectF lineAt(std::size_t k) const;
    [[nodiscard]] QPointF onPicture(VanPoint p) const;

    FoldUp fold_;
    std::vector<std::vector<VanPoint>> faces_; ///< what stands, as it is drawn: bent sides strip by strip
    std::vector<Line> gaps_, lines_;           ///< all that is written; the gaps are its first part
    QString said_;
    std::shared_ptr<const Job> job_;
    std::shared_ptr<const Job> askedFor_; ///< whose readings were tried, or are being
    std::optional<std::vector<CostlyReading>> costly_;
    double share_ = 0; ///< of them that are tried
    QPushButton* again_;
    double scale_ = 0, exaggerated_ = 1;
    QPointF origin_;
    Figures figures_;
    NewestQuestion<std::shared_ptr<const Job>> worker_;
};

} // namespace westrum
