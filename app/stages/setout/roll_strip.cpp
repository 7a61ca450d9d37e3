#include "app/stages/setout/roll_strip.h"

#include "app/drawing/cut_drawing.h"
#include "app/drawing/theme.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QVBoxLayout>

#include <cmath>

namespace westrum {
namespace {

constexpr int kDrawingHeight = 110; ///< however many lines the words above it take

} // namespace

RollStrip::RollStrip(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent),
      document_(document),
      decimalMark_(decimalMark),
      text_(new QLabel),
      turn_(new QPushButton(tr("If it may be turned?"))) {
    setObjectName(QStringLiteral("rollStrip"));
    setAccessibleName(tr("The roll with the pieces of the whole van"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    text_->setObjectName(QStringLiteral("rollText"));
    text_->setWordWrap(true);
    text_->setTextFormat(Qt::PlainText);
    turn_->setObjectName(QStringLiteral("ifTurned"));
    turn_->setToolTip(tr("Tries what the roll would take if the nap did not matter"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto* row = new QHBoxLayout;
    row->addWidget(text_, 1);
    row->addWidget(turn_, 0, Qt::AlignTop);
    column->addLayout(row);
    column->addSpacing(kDrawingHeight);
    connect(&document_.cutting(), &CutWorker::changed, this, [this] {
        if (isVisible()) refresh();
    });
    connect(turn_, &QPushButton::clicked, this, [this] {
        const CutProblem problem = document_.cutting().problem(product_);
        if (problem.pieces.empty()) return;
        napText_ = tr("Trying how it lies without a nap …");
        nap_.ask(problem);
        refresh();
    });
    connect(&nap_, &NapWorker::found, this, [this](const std::string& product, Mm asIs, Mm half, Mm quarter) {
        if (product != product_) return;
        const Figures f = figures();
        const auto metres = [&](Mm length) { return f.run(length); };
        const auto against = [&](Mm length) {
            const double saved = (asIs - length).value / 1000;
            return saved > 0.005 ? tr("%1 less").arg(f.run(Mm{saved * 1000})) : tr("nothing less");
        };
        napText_ =
            tr("Tried alike for a moment: %1 with its nap; turned half round where that helps %2, %3; turned any "
               "quarter %4, %5.")
                .arg(metres(asIs), metres(half), against(half), metres(quarter), against(quarter));
        refresh();
    });
}

void RollStrip::showProduct(const std::string& product) {
    if (product != product_) {
        product_ = product;
        napText_.clear();
        cut_ = nullptr;
        before_ = now_ = 0;
    }
    refresh();
}

void RollStrip::refresh() {
    const CutState state = document_.cutting().state(product_);
    const Figures f = figures();
    if (state.cut && !state.stale) {
        if (cut_ && std::abs(state.cut->rollMm - now_) > 0.5 && state.cut->pieces != cut_->pieces) before_ = now_;
        cut_ = state.cut;
        now_ = cut_->rollMm;
    }
    if (!cut_) {
        text_->setText(tr("The roll is being laid out …"));
        turn_->setEnabled(false);
        return update();
    }
    int here = 0;
    for (const CutPiece& p : cut_->pieces) here += p.surface == document_.currentSurface();
    QString text = tr("%1 off the roll for the whole van, %n piece(s) of it for this surface.", nullptr, here)
                       .arg(f.run(Mm{now_}));
    if (before_ > 0 && std::abs(before_ - now_) > 5)
        text += QLatin1Char(' ') + (now_ < before_ ? tr("%1 less than before.") : tr("%1 more than before."))
                                       .arg(f.run(Mm{std::abs(before_ - now_)}));
    if (!cut_->unplaced.empty())
        text +=
            QLatin1Char(' ') + tr("%n piece(s) find no room on it.", nullptr, static_cast<int>(cut_->unplaced.size()));
    if (state.searching || state.stale) text += QLatin1Char(' ') + tr("Still looking for shorter.");
    if (!napText_.isEmpty()) text += QLatin1Char(' ') + napText_;
    text_->setText(text);
    turn_->setEnabled(!nap_.isWorking());
    update();
}

QRectF RollStrip::room() const {
    const double top = text_->geometry().bottom() + 6;
    return QRectF(rect()).adjusted(2, top, -2, -4);
}

void RollStrip::paintEvent(QPaintEvent*) {
    if (!cut_ || cut_->items.empty()) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    // Rolls one after the other, all to one scale.
    double length = 0, width = 1;
    for (const CutItem& item : cut_->items) {
        length += item.lengthMm + 80;
        width = std::max(width, item.widthMm);
    }
    const QRectF into = room();
    double x = 0;
    const double scale = std::min(into.width() / std::max(1.0, length), into.height() / width);
    for (const CutItem& item : cut_->items) {
        CutMarks marks;
        marks.inside = false;
        for (const LyingPiece& l : item.pieces)
            if (l.piece >= 0 && cut_->pieces[static_cast<std::size_t>(l.piece)].surface == document_.currentSurface())
                marks.lit.insert(l.piece);
        const QRectF at(into.left() + x * scale, into.top(), item.lengthMm * scale, item.widthMm * scale);
        const PlanView v(Bounds{{0, 0}, {std::max(1.0, item.lengthMm), std::max(1.0, item.widthMm)}}, at);
        paintCutItem(p, v, document_.job(), *cut_, item, figures(), marks);
        x += item.lengthMm + 80;
    }
}

} // namespace westrum
