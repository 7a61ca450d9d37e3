#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/document/option_worker.h"
#include "formats/words.h"

#include <vector>

namespace westrum {

/// The options of the surface in hand, or the schemes of the whole van, beside each other: each as it will really lie,
/// and under it what it comes to against the one chosen. A number key chooses.
class CompareView : public QWidget {
    Q_OBJECT
public:
    CompareView(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {520, 300}; }
    /// Asks anew if the job is another than the one compared.
    void refresh();
    void compareVan(bool whole);
    [[nodiscard]] bool ofVan() const { return whole_; }
    /// Columns shown so far; 0 while they are being worked out.
    [[nodiscard]] int columns() const;
    /// The middle of a column, for tests.
    [[nodiscard]] QPointF columnAt(int column) const;
    /// One sentence on what is compared.
    [[nodiscard]] QString sentence() const;

signals:
    void compared();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Column {
        QString name;
        bool chosen = false;
        std::vector<std::pair<std::string, OptionFigures>> faces; ///< to be drawn, by surface
        std::optional<Money> cost;
        Kg mass;
        Kg totalMass; ///< of the job with it
        double hours{};
        int pieces{}, cuts{}, warnings{};
        std::optional<Mm> thickness;
        std::optional<double> waste;
        std::optional<OptionFigures> one; ///< of a surface: what it suits
        QString remark;                   ///< the first, if any
    };
    void take(std::vector<Column> columns);
    void choose(int column);
    [[nodiscard]] QRectF columnRect(int column) const;
    void paintFaces(QPainter& p, const QRectF& into, const Column& column) const;
    void paintFigures(QPainter& p, const QRectF& into, const Column& column, const Column& chosen,
                      const Figures& f) const;

    JobDocument& document_;
    char decimalMark_;
    OptionWorker worker_;
    bool whole_ = false;
    std::vector<Column> columns_;
};

} // namespace westrum
