#pragma once

#include "app/drawing/theme.h"

#include <QFontMetricsF>
#include <QMarginsF>
#include <QPainter>
#include <QString>

#include <functional>

namespace westrum {

/// Puts lines and tables under each other and turns the page when it is full.
class PageFlow {
public:
    PageFlow(QPainter& p, const QRectF& page, std::function<void()> newPage)
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
    /// Turns the page unless so much room is left on it.
    void keep(double height) {
        if (y_ > page_.top()) room(height);
    }
    void gap(double lines = 1) { y_ += lines * lineHeight(); }
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

/// Daylight colours while something is painted for paper.
class PaperLight {
public:
    PaperLight() : dark_(Theme::now().dark) { Theme::choose(false); }
    ~PaperLight() { Theme::choose(dark_); }
    PaperLight(const PaperLight&) = delete;
    PaperLight& operator=(const PaperLight&) = delete;

private:
    bool dark_;
};

} // namespace westrum
