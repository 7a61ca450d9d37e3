#pragma once

#include <QWidget>

#include "app/document/workshop.h"
#include "core/vanwork/learned.h"
#include "formats/words.h"

#include <QScrollArea>
#include <QVBoxLayout>

#include <vector>

namespace westrum {

/// Planned and really, pair by pair: what differs most stands first.
class PlannedBars : public QWidget {
    Q_OBJECT
public:
    explicit PlannedBars(QWidget* parent = nullptr);
    void show(const Job& job, std::vector<PlannedReally> pairs, const Figures& figures);
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    static constexpr int kRow = 40;
    Job job_;
    std::vector<PlannedReally> pairs_;
    Figures figures_;
};

/// What the record teaches: planned against really as a drawing, and rates offered one by one, taken or refused.
class LearnedView : public QWidget {
    Q_OBJECT
public:
    LearnedView(JobDocument& document, Workshop& workshop, QWidget* parent = nullptr);
    void show(const Figures& figures);
    [[nodiscard]] const std::vector<RateOffer>& offers() const { return offers_; }

signals:
    void said(const QString& sentence, bool attention);

private:
    void addOffer(QVBoxLayout* column, std::size_t place);
    /// Whose hands, and what the book knows of them that this job is not planned with.
    void addPerson(QVBoxLayout* column);
    /// What taking it changes in hours, and for containers in money.
    [[nodiscard]] QString effectOf(const RateOffer& offer) const;

    JobDocument& document_;
    Workshop& workshop_;
    Figures figures_;
    QScrollArea* scroll_;
    std::vector<RateOffer> offers_;
};

} // namespace westrum
