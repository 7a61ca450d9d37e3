#include "app/stages/buy/shopping_print.h"

#include "app/drawing/set_out_drawing.h"
#include "app/drawing/theme.h"
#include "app/stages/buy/purchase_model.h"

#include <QBuffer>
#include <QCoreApplication>
#include <QFileInfo>
#include <QFontMetricsF>
#include <QPdfWriter>

namespace westrum {
namespace {

struct ShoppingPrint {
    Q_DECLARE_TR_FUNCTIONS(ShoppingPrint)
};

/// Puts lines and tables under each other and turns the page when it is full.
class Sheet {
public:
    Sheet(QPainter& p, const QRectF& page, std::function<void()> newPage)
        : p_(p), page_(page), newPage_(std::move(newPage)), y_(page.top()) {}

    void heading(const QString& text, double size = 1.5) {
        p_.setFont(font(size, true));
        line(text);
        y_ += lineHeight() * 0.3;
    }
    void text(const QString& text) {
        p_.setFont(font(1, false));
        const QRectF box =
            p_.boundingRect(QRectF(page_.left(), y_, page_.width(), page_.height()), Qt::TextWordWrap, text);
        room(box.height());
        p_.drawText(QRectF(page_.left(), y_, page_.width(), box.height() + 2), Qt::TextWordWrap, text);
        y_ += box.height() * 1.15;
    }
    void row(const QStringList& cells, const QList<double>& shares, bool head = false) {
        p_.setFont(font(0.9, head));
        const double height = lineHeight() * 1.5;
        room(height);
        double x = page_.left();
        for (int i = 0; i < cells.size(); ++i) {
            const double w = page_.width() * shares[i];
            const Qt::Alignment align = i == 0 ? Qt::AlignLeft : Qt::AlignRight;
            p_.drawText(QRectF(x, y_, w - 4, height), align | Qt::AlignVCenter,
                        QFontMetricsF(p_.font()).elidedText(cells[i], Qt::ElideRight, w - 4));
            x += w;
        }
        y_ += height;
        p_.drawLine(QPointF(page_.left(), y_), QPointF(page_.right(), y_));
    }
    QRectF box(double height) {
        room(height);
        const QRectF r(page_.left(), y_, page_.width(), height);
        y_ += height;
        return r;
    }
    void gap() { y_ += lineHeight(); }
    void turn() {
        newPage_();
        y_ = page_.top();
    }

private:
    [[nodiscard]] QFont font(double size, bool bold) const {
        QFont f(QStringLiteral("Lato"));
        f.setPointSizeF(10.5 * size);
        f.setBold(bold);
        return f;
    }
    [[nodiscard]] double lineHeight() const { return QFontMetricsF(p_.font(), p_.device()).height(); }
    void room(double height) {
        if (y_ + height > page_.bottom()) turn();
    }
    void line(const QString& text) {
        const double h = lineHeight();
        room(h);
        p_.drawText(QRectF(page_.left(), y_, page_.width(), h), Qt::AlignLeft | Qt::AlignVCenter, text);
        y_ += h * 1.1;
    }

    QPainter& p_;
    QRectF page_;
    std::function<void()> newPage_;
    double y_;
};

} // namespace

void paintShopping(QPainter& painter, const QRectF& page, const std::function<void()>& newPage, const Job& job,
                   const Plan& plan, const Figures& f) {
    painter.setPen(QPen(Qt::black, 0.6));
    Sheet sheet(painter, page, newPage);
    sheet.heading(QString::fromStdString(job.name) +
                  (job.vehicle.empty() ? QString() : QStringLiteral(", ") + QString::fromStdString(job.vehicle)));
    sheet.heading(ShoppingPrint::tr("To buy"), 1.2);
    const QList<double> shares{0.34, 0.16, 0.12, 0.15, 0.11, 0.12};
    sheet.row({ShoppingPrint::tr("product"), ShoppingPrint::tr("from"), ShoppingPrint::tr("buy"),
               ShoppingPrint::tr("needed"), ShoppingPrint::tr("left over"), ShoppingPrint::tr("cost")},
              shares, true);
    for (const Purchase& p : plan.purchases) {
        const Product* product = job.catalogue.find(p.product);
        sheet.row({product ? QString::fromStdString(product->name) : QString(),
                   product ? QString::fromStdString(product->supplier) : QString(), packsText(p), neededText(p, f),
                   leftOverText(p, f), p.cost ? f.money(*p.cost) : QStringLiteral("–")},
                  shares);
    }
    sheet.gap();
    sheet.text(plan.totals.cost ? ShoppingPrint::tr("In all %1, %2 added to the van.")
                                      .arg(f.money(*plan.totals.cost), f.mass(plan.totals.laidMass))
                                : ShoppingPrint::tr("A price is missing, so there is no total. %1 added to the van.")
                                      .arg(f.mass(plan.totals.laidMass)));
    for (const Remark& r : plan.remarks) sheet.text(QStringLiteral("– ") + sentence(r, f));
    for (const SurfacePlan& s : plan.surfaces) {
        if (!s.setOut.laid()) continue;
        const Surface* surface = job.surface(s.surface);
        sheet.gap();
        sheet.heading(surface ? QString::fromStdString(surface->name) : QString(), 1.2);
        sheet.text(
            ShoppingPrint::tr(
                "First row %1 wide, last row %2. Row 1 is at the foot of the drawing; the rear of the van is left.")
                .arg(f.fineLength(s.setOut.firstRow), f.fineLength(s.setOut.lastRow)));
        const Bounds b = boundsOf(s.measured.outline);
        const double height = std::min(page.height() * 0.5, page.width() * b.height() / b.width() + 8);
        paintSetOut(painter, PlanView(b, sheet.box(height).adjusted(2, 4, -2, -4)), s.measured.outline, s.setOut,
                    job.finish(s.surface).product, f, {.names = false});
        painter.setPen(QPen(Qt::black, 0.6));
        painter.setBrush(Qt::NoBrush);
        sheet.turn();
        sheet.heading(
            ShoppingPrint::tr("Cut list, %1").arg(surface ? QString::fromStdString(surface->name) : QString()), 1.2);
        const QList<double> cuts{0.12, 0.18, 0.18, 0.16, 0.36};
        sheet.row({ShoppingPrint::tr("piece"), ShoppingPrint::tr("length mm"), ShoppingPrint::tr("width mm"),
                   ShoppingPrint::tr("plank"), ShoppingPrint::tr("remark")},
                  cuts, true);
        for (const Piece& p : s.setOut.pieces) {
            QStringList notes;
            if (p.kind == PieceKind::Whole && !p.notched) notes << ShoppingPrint::tr("whole");
            if (p.fromOffcut) notes << ShoppingPrint::tr("from offcut");
            if (p.notched) notes << ShoppingPrint::tr("shaped on site");
            sheet.row({QString::fromStdString(p.name), f.number(p.length.value, 1), f.number(p.width.value, 1),
                       QString::number(p.stock + 1), notes.join(QStringLiteral(", "))},
                      cuts);
        }
    }
}

QString saveShoppingPdf(const QString& path, const Job& job, const Plan& plan, const Figures& figures) {
    QBuffer buffer;
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter pdf(&buffer);
        pdf.setPageSize(QPageSize(QPageSize::A4));
        pdf.setPageMargins(QMarginsF(16, 16, 16, 16), QPageLayout::Millimeter);
        pdf.setResolution(96);
        pdf.setTitle(QString::fromStdString(job.name));
        QPainter painter(&pdf);
        paintShopping(
            painter, QRectF(0, 0, pdf.width(), pdf.height()), [&] { pdf.newPage(); }, job, plan, figures);
    }
    const auto fault = writeFile(buffer.data(), path);
    return fault ? sentence(*fault) : QString();
}

} // namespace westrum
