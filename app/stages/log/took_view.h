#pragma once

#include <QWidget>

#include "app/document/workshop.h"
#include "core/vanwork/took.h"

#include <QLabel>
#include <QPushButton>
#include <QScrollArea>

namespace westrum {

/// Pairs of bars, planned and really, one for each of some figures.
class TookBars : public QWidget {
    Q_OBJECT
public:
    struct Bar {
        QString name;
        double planned = 0, really = 0, whole = 0; ///< whole: planned of everything, 0 where there is no such figure
        QString plannedText, reallyText, wholeText;
        bool moreIsWorse = true;
    };
    explicit TookBars(std::vector<Bar> bars, QWidget* parent = nullptr);
    [[nodiscard]] const std::vector<Bar>& bars() const { return bars_; }
    [[nodiscard]] QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::vector<Bar> bars_;
};
std::vector<TookBars::Bar> tookBars(const Job& job, const Took& took, const Figures& figures);

/// What the whole van took: hours, money, mass, spoils, by surface and by product, for paper too; and what of it is
/// kept for later jobs.
class TookView : public QWidget {
    Q_OBJECT
public:
    TookView(JobDocument& document, Workshop& workshop, QWidget* parent = nullptr);
    void show(const Figures& figures);
    QString exportTo(const QString& path);
    void writeDone();
    void keepBody();

signals:
    void said(const QString& sentence, bool attention);

private:
    JobDocument& document_;
    Workshop& workshop_;
    Figures figures_;
    QScrollArea* scroll_;
    QPushButton *paper_, *done_, *body_;
};

} // namespace westrum
