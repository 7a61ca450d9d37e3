#include "app/stages/log/took_view.h"

#include "app/drawing/theme.h"
#include "app/print/took_print.h"
#include "app/widgets/flow_row.h"
#include "formats/book_file.h"
#include "formats/work_words.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr int kBar = 46;

QLabel* headingOf(const QString& text) {
    auto* label = new QLabel(text);
    label->setFont(textFont(1.08, true));
    label->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().chalk)));
    return label;
}

QLayout* tableOf(const QStringList& head, const QList<QStringList>& rows) {
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(22);
    grid->setVerticalSpacing(3);
    for (int c = 0; c < head.size(); ++c) {
        auto* label = new QLabel(head[c]);
        label->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().muted)));
        grid->addWidget(label, 0, c, c == 0 ? Qt::AlignLeft : Qt::AlignRight);
    }
    for (int r = 0; r < rows.size(); ++r)
        for (int c = 0; c < rows[r].size(); ++c) {
            auto* label = new QLabel(rows[r][c]);
            label->setTextFormat(Qt::PlainText);
            grid->addWidget(label, r + 1, c, c == 0 ? Qt::AlignLeft : Qt::AlignRight);
        }
    grid->setColumnStretch(static_cast<int>(head.size()), 1);
    return grid;
}

} // namespace

TookBars::TookBars(std::vector<Bar> bars, QWidget* parent) : QWidget(parent), bars_(std::move(bars)) {
    setObjectName(QStringLiteral("tookBars"));
    setAccessibleName(tr("Planned and really"));
    setFixedHeight(std::max(1, static_cast<int>(bars_.size())) * kBar + 4);
}

QSize TookBars::sizeHint() const { return {500, std::max(1, static_cast<int>(bars_.size())) * kBar + 4}; }

void TookBars::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    constexpr double kName = 120, kFigure = 250;
    const double room = std::max(60.0, width() - kName - kFigure);
    double y = 2;
    for (const Bar& b : bars_) {
        const double most = std::max({b.planned, b.really, b.whole, 1e-9});
        p.setFont(textFont(1.0, true));
        p.setPen(t.graphite);
        p.drawText(QRectF(0, y, kName - 8, kBar - 8), Qt::AlignVCenter, b.name);
        // All that is planned, as an open frame; what of it was planned for what is done; what that really was.
        if (b.whole > 0) {
            p.setPen(QPen(t.faint, 1.2));
            p.setBrush(Qt::NoBrush);
            p.drawRect(QRectF(kName, y + 2, room * b.whole / most, kBar - 14));
        }
        p.setPen(QPen(t.ruleEdge, 1));
        p.setBrush(t.ruleLight);
        p.drawRect(QRectF(kName, y + 4, std::max(2.0, room * b.planned / most), 13));
        const bool more = b.moreIsWorse && b.really > b.planned * 1.05;
        p.setPen(QPen(more ? t.pencil : t.agreed, 1));
        p.setBrush(QBrush(more ? t.pencil : t.agreed, Qt::BDiagPattern));
        p.drawRect(QRectF(kName, y + 19, std::max(2.0, room * b.really / most), 11));
        p.setFont(textFont(0.85));
        p.setPen(t.muted);
        const double x = kName + room + 8;
        p.drawText(QRectF(x, y, kFigure - 8, 16), Qt::AlignVCenter,
                   b.wholeText.isEmpty() ? b.plannedText : tr("%1 of %2").arg(b.plannedText, b.wholeText));
        p.setPen(more ? t.pencil : t.agreed);
        p.drawText(QRectF(x, y + 17, kFigure - 8, 16), Qt::AlignVCenter, b.reallyText);
        y += kBar;
    }
}

std::vector<TookBars::Bar> tookBars(const Job& job, const Took& took, const Figures& f) {
    const auto hours = [&](double h) { return TookBars::tr("%1 h").arg(f.number(h, 1)); };
    std::vector<TookBars::Bar> bars;
    bars.push_back({.name = TookBars::tr("Hours"),
                    .planned = took.hoursPlanned,
                    .really = took.hoursReally,
                    .whole = took.hoursWhole,
                    .plannedText = TookBars::tr("planned %1").arg(hours(took.hoursPlanned)),
                    .reallyText = TookBars::tr("really %1").arg(hours(took.hoursReally)),
                    .wholeText = hours(took.hoursWhole)});
    if (took.costPlanned) {
        Money planned{0, job.currency}; // of the lines that are paid
        for (const Took::OfProduct& p : took.products)
            if (p.paid && p.planned) planned = planned + *p.planned;
        bars.push_back({.name = TookBars::tr("Money"),
                        .planned = static_cast<double>(planned.minor),
                        .really = static_cast<double>(took.paid.minor),
                        .whole = static_cast<double>(took.costPlanned->minor),
                        .plannedText = TookBars::tr("planned %1").arg(f.money(planned)),
                        .reallyText = TookBars::tr("paid %1").arg(f.money(took.paid)),
                        .wholeText = f.money(*took.costPlanned)});
    }
    if (took.weighed && took.weighedPlan)
        bars.push_back({.name = TookBars::tr("Mass"),
                        .planned = took.weighedPlan->value,
                        .really = std::max(0.0, took.weighed->value),
                        .plannedText = TookBars::tr("planned %1").arg(f.mass(*took.weighedPlan)),
                        .reallyText = TookBars::tr("weighed %1").arg(f.mass(*took.weighed))});
    if (const int cuts = took.cut + took.spoilt; cuts > 0)
        bars.push_back({.name = TookBars::tr("Cuts spoilt"),
                        .planned = job.spoilChance * cuts,
                        .really = static_cast<double>(took.spoilt),
                        .plannedText = TookBars::tr("reckoned with %1").arg(f.number(job.spoilChance * cuts, 1)),
                        .reallyText = TookBars::tr("really %1 of %2 cuts").arg(took.spoilt).arg(cuts)});
    return bars;
}

TookView::TookView(JobDocument& document, Workshop& workshop, QWidget* parent)
    : QWidget(parent),
      document_(document),
      workshop_(workshop),
      scroll_(new QScrollArea),
      paper_(new QPushButton(tr("For paper …"))),
      done_(new QPushButton(tr("Write the job into the book"))),
      body_(new QPushButton(tr("Keep this body's shape"))) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    scroll_->setWidgetResizable(true);
    scroll_->setFrameShape(QFrame::NoFrame);
    column->addWidget(scroll_, 1);
    auto* row = new FlowRow;
    row->setContentsMargins(0, 0, 0, 0);
    for (const auto& [b, id] : {std::pair{paper_, "tookPaper"}, {done_, "tookDone"}, {body_, "tookBody"}}) {
        b->setObjectName(QString::fromLatin1(id));
        row->addWidget(b);
    }
    done_->setToolTip(tr("Its key figures stand beside those of later jobs"));
    body_->setToolTip(tr("A later van of this make starts from it"));
    column->addLayout(row);
    connect(paper_, &QPushButton::clicked, this, [this] {
        const QString path =
            QFileDialog::getSaveFileName(this, tr("What it took"), tr("what-it-took.pdf"), tr("PDF (*.pdf)"));
        if (path.isEmpty()) return;
        const QString wrong = exportTo(path);
        emit said(wrong.isEmpty() ? tr("Written: %1.").arg(QFileInfo(path).fileName()) : wrong, !wrong.isEmpty());
    });
    connect(done_, &QPushButton::clicked, this, &TookView::writeDone);
    connect(body_, &QPushButton::clicked, this, &TookView::keepBody);
    connect(&workshop_, &Workshop::changed, this, [this] {
        if (isVisible()) show(figures_);
    });
}

QString TookView::exportTo(const QString& path) {
    return printTook(path, document_.job(), tookOf(document_.job(), *document_.plan()), figures_);
}

void TookView::writeDone() {
    if (workshop_.writeDone(jobDone(document_.job(), *document_.plan(), document_.now().day)))
        emit said(tr("The job stands in the workshop's book."), false);
}

void TookView::keepBody() {
    const Job shell = shellOf(document_.job());
    const std::string name = document_.job().vehicle.empty() ? document_.job().name : document_.job().vehicle;
    if (std::none_of(shell.surfaces.begin(), shell.surfaces.end(),
                     [](const Surface& s) { return !s.measurement.empty(); }))
        return emit said(tr("Nothing of this body is measured yet."), true);
    if (workshop_.keepBody({name, document_.now().day, static_cast<int>(shell.surfaces.size()), shellText(shell)}))
        emit said(tr("Kept as “%1”: New job offers it as a start.").arg(QString::fromStdString(name)), false);
}

void TookView::show(const Figures& figures) {
    figures_ = figures;
    const Job& job = document_.job();
    const Took took = tookOf(job, *document_.plan());
    auto* list = new QWidget;
    auto* column = new QVBoxLayout(list);
    column->setContentsMargins(0, 6, 12, 6);
    column->addWidget(new TookBars(tookBars(job, took, figures)));
    for (const QString& line : tookSentences(job, took, figures)) {
        auto* label = new QLabel(line);
        label->setWordWrap(true);
        label->setTextFormat(Qt::PlainText);
        label->setObjectName(QStringLiteral("tookSentence"));
        column->addWidget(label);
    }
    QList<QStringList> rows;
    for (const Took::OfSurface& s : took.surfaces)
        if (s.done > 0) rows << tookSurfaceRow(job, s, figures);
    column->addSpacing(8);
    column->addWidget(headingOf(tr("By surface")));
    if (rows.isEmpty())
        column->addWidget(new QLabel(tr("Nothing is ticked as done yet.")));
    else
        column->addLayout(tableOf(tookSurfaceHead(), rows));
    if (!took.products.empty()) {
        rows.clear();
        for (const Took::OfProduct& p : took.products) rows << tookProductRow(job, p, figures);
        column->addSpacing(8);
        column->addWidget(headingOf(tr("By product")));
        column->addLayout(tableOf(tookProductHead(), rows));
    }
    if (!workshop_.book().jobs.empty()) {
        rows.clear();
        for (const JobDone& j : workshop_.book().jobs)
            rows << QStringList{
                QString::fromStdString(j.name),
                dayText(j.day),
                figures.area({j.areaM2}),
                figures.mass({j.massKg}),
                j.cost && j.cost->currency == job.currency ? figures.money(*j.cost) : QStringLiteral("–"),
                tr("%1 h").arg(figures.number(j.hoursReally, 0)),
                j.areaM2 > 0 ? tr("%1 h").arg(figures.number(j.hoursReally / j.areaM2 * figures.areaUnit(),
                                                             measuresWith(figures.unit) == Measures::Imperial ? 2 : 1))
                             : QStringLiteral("–")};
        column->addSpacing(8);
        column->addWidget(headingOf(tr("Jobs in the book")));
        column->addLayout(
            tableOf({tr("Job"), tr("done"), tr("laid"), tr("mass"), tr("cost"), tr("time"), figures.anArea()}, rows));
    }
    column->addStretch(1);
    done_->setEnabled(workshop_.isWritable());
    body_->setEnabled(workshop_.isWritable());
    scroll_->setWidget(list);
}

} // namespace westrum
