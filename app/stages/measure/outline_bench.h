#pragma once

#include <QWidget>

#include "app/document/commands.h"
#include "app/document/job_document.h"
#include "app/drawing/plan_view.h"
#include "app/widgets/entry_field.h"
#include "formats/words.h"

#include <array>
#include <functional>
#include <vector>

namespace westrum {

/// The surface drawn to scale with its dimension lines; the readings are typed where they belong on the drawing.
class OutlineBench : public QWidget {
    Q_OBJECT
public:
    OutlineBench(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    void refresh();
    QSize minimumSizeHint() const override { return {480, 260}; }

signals:
    /// What could not be understood in a field; empty when all is in order.
    void problem(const QString& sentence);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    struct Place {
        EntryField* field;
        std::function<const std::optional<Reading>*()> reading; ///< null if what it belongs to is gone
        std::function<QPointF()> centre;                        ///< on the widget
        int quad = -1;                                          ///< QuadReading of a side or diagonal
        bool small = false;                                     ///< of a cut-out
    };

    void rebuild();
    void placeFields();
    void addField(const QString& name, const QString& letter, std::function<const std::optional<Reading>*()> reading,
                  std::function<void(std::optional<Reading>)> take, std::function<QPointF()> centre, int quad);
    void addNotchFields(int index);
    void addStepFields(int index);
    [[nodiscard]] const Measurement& measurement() const;
    [[nodiscard]] const Notch* notch(int index) const;
    [[nodiscard]] const Step* step(int index) const;
    [[nodiscard]] std::array<Point, 4> frame() const;
    [[nodiscard]] PlanView view() const;
    /// Where a cut-out's field stands, by shares of its length and depth from its corner nearest the rear (right).
    [[nodiscard]] QPointF notchPoint(int index, double alongMm, double inwardMm) const;
    [[nodiscard]] QPointF stepPoint(int index, double alongShare, double acrossShare) const;
    [[nodiscard]] bool isSuspect(int quad) const;

    JobDocument& document_;
    char decimalMark_;
    std::vector<Place> places_;
    QString built_; ///< what the fields were built for
};

} // namespace westrum
