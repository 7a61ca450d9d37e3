#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "formats/words.h"

#include <QString>
#include <QStringList>
#include <QTimer>

#include <optional>
#include <vector>

namespace westrum {

/// The strip at the foot: what everything comes to. Each figure opens into what it is made of; after a change it shows
/// the difference from before.
class TallyStrip : public QWidget {
    Q_OBJECT
public:
    TallyStrip(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    QSize sizeHint() const override;

    struct Figure {
        QString name;
        QString value;
        QString change;
        bool needsAttention = false;
        QStringList madeOf;
        std::vector<Remark> remarks{}; ///< of those among them that are remarks, in the same order
    };
    /// What is shown now, for tests and for the printed sheet.
    [[nodiscard]] const std::vector<Figure>& figures() const { return figures_; }

signals:
    void remarksWanted();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;

private:
    void recompute();
    static QString none() { return QStringLiteral("–"); }
    /// A change since the last undo step; empty if it does not show.
    [[nodiscard]] QString signedNumber(double change, int decimals) const;
    [[nodiscard]] Figure costFigure(const Plan& plan, const Figures& f) const;
    [[nodiscard]] Figure wasteFigure(const Totals& totals, const Figures& f) const;
    [[nodiscard]] Figure thickFigure(const Plan& plan, const Figures& f) const;
    [[nodiscard]] Figure riskFigure(const Plan& plan, const Figures& f) const;
    [[nodiscard]] Figure triedRiskFigure(const std::vector<ProductOdds>& odds, const Figures& f) const;
    [[nodiscard]] Figure remarksFigure(const Plan& plan, const Figures& f) const;
    /// Cost and mass of many lines by finish and by area of the van.
    void sumUp(const Plan& plan, const Figures& figures, Figure& cost, Figure& mass) const;
    void open(int index);
    [[nodiscard]] QRectF cell(int index) const;

    JobDocument& document_;
    char decimalMark_;
    std::vector<Figure> figures_;
    std::shared_ptr<const Plan> now_;
    Totals before_; ///< as they stood before the last undo step
    bool haveBefore_ = false;
    Totals candidate_;
    int stepShown_ = 0;
    int current_ = 0;
    QTimer quiet_; ///< once nothing has changed for a while, what may run short is tried
};

} // namespace westrum
