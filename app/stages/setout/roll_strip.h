#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/document/nap_worker.h"
#include "formats/words.h"

#include <QLabel>
#include <QPushButton>

namespace westrum {

/// The roll that the surface in hand is cut from, pulled out: where its pieces lie among those of the whole van, how
/// much is to be bought, what the last change did to that, and what turning the pieces would save.
class RollStrip : public QWidget {
    Q_OBJECT
public:
    RollStrip(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    void showProduct(const std::string& product);
    [[nodiscard]] QString said() const { return text_->text(); }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    void refresh();
    [[nodiscard]] Figures figures() const { return figuresFor(document_.job(), decimalMark_); }
    [[nodiscard]] QRectF room() const;

    JobDocument& document_;
    char decimalMark_;
    std::string product_;
    QLabel* text_;
    QPushButton* turn_;
    NapWorker nap_;
    QString napText_;
    std::shared_ptr<const ProductCut> cut_;
    double before_ = 0; ///< mm that the roll took before the last change; 0: not known
    double now_ = 0;
};

} // namespace westrum
