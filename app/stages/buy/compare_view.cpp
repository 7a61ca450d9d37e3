#include "app/stages/buy/compare_view.h"

#include "app/document/commands.h"
#include "app/drawing/plan_view.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/surface_drawing.h"
#include "app/drawing/theme.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

constexpr double kNames = 118;  ///< pixels for what the rows are called
constexpr int kMostColumns = 5; ///< beside each other

double rowHeight() { return QFontMetricsF(textFont(0.95)).height() + 5; }

} // namespace

CompareView::CompareView(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent), document_(document), decimalMark_(decimalMark) {
    setObjectName(QStringLiteral("compare"));
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Options beside each other: a number key chooses"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    connect(&worker_, &OptionWorker::found, this,
            [this](const std::string& surface, const std::vector<OptionFigures>& figures) {
                const FinishOptions& options = document_.job().options(surface);
                if (whole_ || surface != document_.currentSurface() || options.options.size() != figures.size()) return;
                std::vector<Column> columns;
                for (std::size_t k = 0; k < figures.size(); ++k) {
                    const OptionFigures& o = figures[k];
                    Column c;
                    c.name = options.options[k].name.empty() ? tr("option %1").arg(k + 1)
                                                             : QString::fromStdString(options.options[k].name);
                    c.chosen = static_cast<int>(k) == options.chosen;
                    c.faces = {{surface, o}};
                    c.cost = o.cost;
                    c.mass = o.mass;
                    c.totalMass = o.totalMass;
                    c.hours = o.hours;
                    c.pieces = o.pieces;
                    c.cuts = o.cuts;
                    c.warnings = o.warnings;
                    c.thickness = o.thickness;
                    c.waste = o.wasteShare;
                    c.one = o;
                    for (const Remark& r : o.remarks)
                        if (c.remark.isEmpty() && r.severity != Severity::Note)
                            c.remark = westrum::sentence(r, figuresFor(document_.job(), decimalMark_));
                    columns.push_back(std::move(c));
                }
                take(std::move(columns));
            });
    connect(&worker_, &OptionWorker::schemesFound, this, [this](const std::vector<SchemeFigures>& schemes) {
        if (!whole_) return;
        std::vector<Column> columns;
        // As chosen is what the list says; the others by what they differ when cut as roughly.
        const std::optional<Money>& listed = document_.plan()->totals.cost;
        for (const SchemeFigures& s : schemes) {
            Column c;
            c.name = s.name.empty() ? tr("as chosen") : QString::fromStdString(s.name);
            c.chosen = s.name.empty();
            c.faces = s.faces;
            c.cost = s.cost;
            if (c.cost && listed && schemes.front().cost) c.cost = *listed + (*s.cost - *schemes.front().cost);
            c.mass = c.totalMass = s.mass;
            c.hours = s.hours;
            c.pieces = s.pieces;
            c.warnings = s.warnings;
            if (!s.name.empty()) c.remark = tr("changes %n surface(s)", nullptr, s.surfaces);
            columns.push_back(std::move(c));
        }
        take(std::move(columns));
    });
}

void CompareView::take(std::vector<Column> columns) {
    columns_ = std::move(columns);
    if (columns_.size() > kMostColumns) columns_.resize(kMostColumns);
    update();
    emit compared();
}

int CompareView::columns() const { return static_cast<int>(columns_.size()); }

void CompareView::compareVan(bool whole) {
    whole_ = whole;
    refresh();
}

void CompareView::refresh() {
    if (!worker_.request(document_.job(), whole_ ? std::string() : document_.currentSurface())) return;
    columns_.clear();
    update();
    emit compared();
}

QString CompareView::sentence() const {
    if (columns_.empty()) return tr("Being worked out …");
    if (whole_)
        return columns_.size() < 2
                   ? tr("No schemes yet: give options of several surfaces the same name in Build-up, such as everyday, "
                        "comfort "
                        "or light.")
                   : tr("The whole van in each scheme, cut roughly; press a number to choose one everywhere.");
    return columns_.size() < 2
               ? tr("This surface has one option only: add another in Build-up.")
               : tr("Each option as it will lie, cut roughly, against the one chosen; press a number to choose.");
}

QRectF CompareView::columnRect(int column) const {
    const double w = (width() - kNames) / std::max(1.0, static_cast<double>(columns_.size()));
    return {kNames + column * w, 0, w, static_cast<double>(height())};
}

QPointF CompareView::columnAt(int column) const { return columnRect(column).center(); }

void CompareView::choose(int column) {
    if (column < 0 || column >= columns() || columns_[static_cast<std::size_t>(column)].chosen) return;
    if (whole_)
        push(document_, chooseScheme(document_, columns_[static_cast<std::size_t>(column)].name.toStdString()));
    else
        push(document_, chooseOption(document_, document_.currentSurface(), column));
}

void CompareView::mousePressEvent(QMouseEvent* event) {
    for (int k = 0; k < columns(); ++k)
        if (columnRect(k).contains(event->position())) choose(k);
}

void CompareView::keyPressEvent(QKeyEvent* event) {
    const int k = event->key() - Qt::Key_1;
    if (k < 0 || k > 8 || event->modifiers() != Qt::NoModifier) return QWidget::keyPressEvent(event);
    choose(k);
}

void CompareView::paintFaces(QPainter& p, const QRectF& into, const Column& column) const {
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const std::size_t n = column.faces.size();
    if (n == 0) return;
    // One fills it; several lie in two columns.
    const int across = n == 1 ? 1 : 2;
    const int down = static_cast<int>((n + static_cast<std::size_t>(across) - 1) / static_cast<std::size_t>(across));
    for (std::size_t i = 0; i < n; ++i) {
        const auto& [id, o] = column.faces[i];
        const SurfacePlan* s = document_.plan()->surface(id);
        const Surface* surface = document_.job().surface(id);
        if (!s || !surface || !s->measured.measured()) continue;
        const QRectF cell(into.left() +
                              static_cast<double>(i % static_cast<std::size_t>(across)) * into.width() / across,
                          into.top() + static_cast<double>(i / static_cast<std::size_t>(across)) * into.height() / down,
                          into.width() / across, into.height() / down);
        const PlanView view(boundsOf(s->measured.outline), cell.adjusted(4, 4, -4, -4));
        paintSetOut(p, view, s->measured.outline, o.face, document_.job().catalogue.find(o.product), f,
                    {.names = false, .offcuts = false, .slivers = n == 1});
        paintSurfaceParts(p, view, *surface, s->shape, {.supports = false, .names = false});
    }
}

void CompareView::paintFigures(QPainter& p, const QRectF& into, const Column& c, const Column& chosen,
                               const Figures& f) const {
    const Theme& t = Theme::now();
    double y = into.top();
    const auto row = [&](const QString& text, const QString& change, bool bad = false) {
        p.setFont(textFont(0.95));
        p.setPen(bad ? t.pencil : t.graphite);
        const QRectF line(into.left(), y, into.width(), rowHeight());
        p.drawText(line, Qt::AlignLeft | Qt::AlignVCenter, text);
        if (!c.chosen && !change.isEmpty()) {
            const double used = QFontMetricsF(p.font()).horizontalAdvance(text) + 10;
            p.setFont(textFont(0.85));
            p.setPen(t.muted);
            if (used + QFontMetricsF(p.font()).horizontalAdvance(change) <= into.width())
                p.drawText(line.adjusted(used, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, change);
        }
        y += rowHeight();
    };
    const auto change = [&](double by, int decimals) {
        if (std::abs(by) < 0.5 * std::pow(10, -decimals)) return QStringLiteral("=");
        return (by > 0 ? QStringLiteral("+") : QStringLiteral("−")) + f.number(std::abs(by), decimals);
    };
    const auto thicker = [&](double by) {
        if (std::abs(by) < 0.05) return QStringLiteral("=");
        return (by > 0 ? QStringLiteral("+") : QStringLiteral("−")) + f.fineLength({std::abs(by)}, false);
    };
    // Of a surface the money is told as a difference: what it costs alone hangs on what others buy with it.
    QString money = QStringLiteral("–"), moneyChange;
    if (c.cost && chosen.cost && c.cost->currency == chosen.cost->currency) {
        const Money by = *c.cost - *chosen.cost;
        moneyChange = by.minor == 0 ? QStringLiteral("=")
                                    : (by.minor > 0 ? QStringLiteral("+") : QStringLiteral("−")) +
                                          f.money({std::abs(by.minor), by.currency});
        money = whole_ ? f.money(*c.cost) : c.chosen ? tr("chosen") : moneyChange;
    }
    row(money, whole_ ? moneyChange : QString());
    // What changes with it elsewhere, trims and battens, counts too.
    const QString heavier = change((c.totalMass.value - chosen.totalMass.value) / f.massUnit(), 1);
    row(f.mass(c.mass), whole_ || heavier.size() < 2 ? heavier : tr("%1 in the van").arg(heavier));
    if (c.thickness && chosen.thickness)
        row(f.fineLength(*c.thickness), thicker(c.thickness->value - chosen.thickness->value));
    row(tr("%1 h").arg(f.number(c.hours, 1)), change(c.hours - chosen.hours, 1));
    if (c.waste && chosen.waste) row(f.percent(*c.waste), change(100 * (*c.waste - *chosen.waste), 1));
    row(c.one ? tr("%1, %2 cut").arg(c.pieces).arg(c.cuts) : QString::number(c.pieces),
        change(c.pieces - chosen.pieces, 0));
    if (c.one)
        for (std::size_t k = 0; k < kStrains; ++k) {
            const int has = c.one->suits[k], asked = c.one->asked[k];
            QString dots;
            for (int n = 0; n < 3; ++n) dots += n < has ? QStringLiteral("●") : QStringLiteral("○");
            row(has < asked ? tr("%1 too little").arg(dots) : dots, {}, has < asked);
        }
    row(c.warnings == 0 ? tr("nothing") : tr("%n thing(s)", nullptr, c.warnings), {}, c.warnings > 0);
    if (!c.remark.isEmpty()) {
        p.setFont(textFont(0.85));
        p.setPen(t.muted);
        p.drawText(QRectF(into.left(), y, into.width() - 6, std::max(0.0, into.bottom() - y)),
                   Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, c.remark);
    }
}

void CompareView::paintEvent(QPaintEvent*) {
    const Theme& t = Theme::now();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (columns_.empty()) return;
    const Figures f = figuresFor(document_.job(), decimalMark_);
    const Column* chosen = &columns_.front();
    for (const Column& c : columns_)
        if (c.chosen) chosen = &c;
    QStringList names{whole_ ? tr("cost") : tr("cost differs by"), tr("mass")};
    if (chosen->thickness) names << tr("thickness");
    names << tr("laying");
    if (chosen->waste) names << tr("cut away");
    names << tr("pieces");
    if (chosen->one) names << tr("in the wet") << tr("in heat") << tr("wear") << tr("curves") << tr("cleaning");
    names << tr("to put right");
    const double head = QFontMetricsF(textFont(1.05, true)).height() + 10;
    const double figures = rowHeight() * static_cast<double>(names.size()) + 3 * rowHeight();
    // The figures stand close under the drawings, however flat these are.
    double tall = 80;
    for (const Column& c : columns_)
        if (c.faces.size() == 1)
            if (const SurfacePlan* s = document_.plan()->surface(c.faces.front().first); s && s->measured.measured()) {
                const Bounds b = boundsOf(s->measured.outline);
                tall = std::max(tall, (columnRect(0).width() - 24) * b.height() / b.width() + 20);
            }
    const double room = height() - figures - head;
    const double top = head + std::max(80.0, whole_ ? room : std::min(tall, room));
    p.setFont(textFont(0.9));
    p.setPen(t.muted);
    for (int i = 0; i < names.size(); ++i)
        p.drawText(QRectF(6, top + i * rowHeight(), kNames - 14, rowHeight()), Qt::AlignLeft | Qt::AlignVCenter,
                   names[i]);
    for (int k = 0; k < columns(); ++k) {
        const Column& c = columns_[static_cast<std::size_t>(k)];
        const QRectF r = columnRect(k).adjusted(4, 0, -4, 0);
        if (c.chosen) {
            QColor wash = t.agreed;
            wash.setAlpha(26);
            p.fillRect(r, wash);
        }
        p.setFont(textFont(1.05, true));
        p.setPen(c.chosen ? t.agreed : t.graphite);
        const QString title = QStringLiteral("%1  %2").arg(k + 1).arg(c.name);
        p.drawText(QRectF(r.left() + 8, 4, r.width() - 12, head - 8), Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetricsF(p.font()).elidedText(title, Qt::ElideRight, r.width() - 12));
        paintFaces(p, QRectF(r.left() + 4, head, r.width() - 8, top - head - 8), c);
        paintFigures(p, QRectF(r.left() + 8, top, r.width() - 10, height() - top), c, *chosen, f);
    }
    p.setPen(QPen(t.faint, 1));
    for (int i = 0; i <= names.size(); ++i)
        p.drawLine(QPointF(0, top + i * rowHeight()), QPointF(width(), top + i * rowHeight()));
    if (hasFocus()) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(t.chalk, 1, Qt::DotLine));
        p.drawRect(rect().adjusted(0, 0, -1, -1));
    }
}

} // namespace westrum
