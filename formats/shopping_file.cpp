#include "formats/shopping_file.h"

#include "core/catalogue/family.h"
#include "core/plan/cost_sharing.h"

#include <QCoreApplication>
#include <QFile>
#include <QFileInfo>
#include <QRegularExpression>
#include <QTemporaryDir>

#include <xlsxwriter.h>

#include <algorithm>
#include <cmath>

namespace westrum {
namespace {

struct ShoppingFile {
    Q_DECLARE_TR_FUNCTIONS(ShoppingFile)
};

/// A sheet that is filled row by row.
class Sheet {
public:
    Sheet(lxw_workbook* book, const QString& name)
        : sheet_(workbook_add_worksheet(book, allowed(name).toUtf8().constData())) {}

    /// A name without what no sheet may be called by; what that is does not depend on the language.
    static QString allowed(QString name) {
        static const QRegularExpression refused(QStringLiteral("[\\[\\]:*?/\\\\]|^'|'$"));
        return name.remove(refused).left(31);
    }

    void widths(std::initializer_list<double> wide) {
        lxw_col_t column = 0;
        for (const double w : wide) {
            worksheet_set_column(sheet_, column, column, w, nullptr);
            ++column;
        }
    }
    void next() {
        ++row_;
        column_ = 0;
    }
    void text(const QString& s, lxw_format* format = nullptr) {
        worksheet_write_string(sheet_, row_, column_++, s.left(32000).toUtf8().constData(), format);
    }
    void number(double value, lxw_format* format = nullptr) {
        worksheet_write_number(sheet_, row_, column_++, value, format);
    }
    void money(const std::optional<Money>& m, lxw_format* format) {
        if (m)
            number(static_cast<double>(m->minor) / std::pow(10, m->currency.decimals), format);
        else
            ++column_;
    }
    void freeze() { worksheet_freeze_panes(sheet_, row_ + 1, 0); }

private:
    lxw_worksheet* sheet_;
    lxw_row_t row_ = 0;
    lxw_col_t column_ = 0;
};

QString supplierOf(const Job& job, const Purchase& p) {
    if (!p.supplier.empty()) return QString::fromStdString(p.supplier);
    const Product* product = job.catalogue.find(p.product);
    return product ? QString::fromStdString(product->supplier) : QString();
}

/// Off a roll.
QString metres(Mm length, const Figures& f) { return f.run(length); }

} // namespace

QString neededText(const Purchase& p, const Figures& f) {
    if (p.serves) return measureText(*p.serves, p.amount, f);
    if (stockFormOf(p.family) == StockForm::Roll || p.quantity == Quantity::Length) return metres(p.lengthNeeded, f);
    return p.measuredOut() ? amountText(p.quantity, p.amount, f) : itemsText(p.family, p.unitsNeeded, f);
}

QString leftOverText(const Purchase& p, const Figures& f) {
    if (p.offcuts > 0) {
        const bool flat = stockFormOf(p.family) != StockForm::Lengths;
        QString largest = f.length(p.offcutLength, !flat);
        if (flat) largest += QStringLiteral(" × ") + f.length(p.offcutWidth);
        return p.offcuts == 1 ? largest : ShoppingFile::tr("%1, up to %2").arg(p.offcuts).arg(largest);
    }
    const double left = p.amountLeft();
    if (p.serves) return left > 1e-9 ? measureText(*p.serves, left, f) : QStringLiteral("–");
    if (p.measuredOut()) return amountText(p.quantity, left, f);
    if (stockFormOf(p.family) == StockForm::Roll)
        return p.lengthLeft.value > 0 ? metres(p.lengthLeft, f) : QStringLiteral("–");
    if (p.quantity == Quantity::Length) return metres(p.lengthLeft, f);
    if (p.quantity != Quantity::Pack) return QStringLiteral("–"); // nothing worth keeping
    return itemsText(p.family, p.unitsLeft(), f);
}

QString nameWithLot(const Purchase& p, const Catalogue& catalogue, const Figures& f) {
    QString name = purchaseName(p, catalogue, f);
    if (p.shelf > 0) name = ShoppingFile::tr("%1, %2 of it from the shelf").arg(name, shelfText(p, f));
    return p.oneLot && p.packs > 1 ? ShoppingFile::tr("%1, of one lot").arg(name) : name;
}

QString spareText(const Purchase& p, const Catalogue& catalogue, const Figures& f) {
    const Product* product = catalogue.find(p.product);
    if (product && stockFormOf(p.family) == StockForm::Roll) return f.run(rollOf(*product).step * p.spare, 1);
    Purchase spare = p;
    spare.packs = p.spare;
    return packsText(spare, f);
}

QStringList roughCutTexts(const Job& job, const std::vector<RoughCut>& cuts, const Figures& f) {
    QStringList all;
    for (const RoughCut& r : cuts) {
        const Product* product = job.catalogue.find(r.product);
        QString name = product ? QString::fromStdString(product->name) : QString();
        if (!r.size.empty()) name = ShoppingFile::tr("%1, %2").arg(name, QString::fromStdString(r.size));
        const QString items = itemsText(product ? product->family : std::string(), r.items, f);
        if (r.across.empty()) {
            all << ShoppingFile::tr(
                       "%1, %2: too large for the car, and no cut right across parts it between its pieces.")
                       .arg(name, items);
            continue;
        }
        QStringList at;
        for (const double x : r.across) at << f.length({x});
        all << ShoppingFile::tr("%1: ask for %2 to be cut across at %3 from one end, and mark that end.")
                   .arg(name, items, at.join(ShoppingFile::tr(" and ")));
    }
    return all;
}

namespace {

struct Formats {
    lxw_format *bold, *money, *whole;
};

Formats formatsOf(lxw_workbook* book, const Currency& currency) {
    lxw_format* bold = workbook_add_format(book);
    format_set_bold(bold);
    lxw_format* money = workbook_add_format(book);
    format_set_num_format(money, currency.decimals == 0 ? "#,##0" : currency.decimals == 3 ? "#,##0.000" : "#,##0.00");
    lxw_format* whole = workbook_add_format(book);
    format_set_num_format(whole, "0.##");
    return {bold, money, whole};
}

/// What is bought, by trips, with what was really paid.
void writeList(lxw_workbook* book, const Formats& look, const Job& job, const Plan& plan, const Figures& f) {
    const QString currency = QString::fromStdString(job.currency.name());
    Sheet list(book, ShoppingFile::tr("To buy"));
    list.widths({22, 42, 16, 26, 22, 14, 14, 10, 14, 16});
    for (const QString& head :
         {ShoppingFile::tr("from"), ShoppingFile::tr("product"), ShoppingFile::tr("buy"), ShoppingFile::tr("needed"),
          ShoppingFile::tr("left over"), ShoppingFile::tr("each, %1").arg(currency),
          ShoppingFile::tr("cost, %1").arg(currency), ShoppingFile::tr("bought"),
          ShoppingFile::tr("paid, %1").arg(currency), ShoppingFile::tr("lot")})
        list.text(head, look.bold);
    list.freeze();
    std::vector<std::size_t> order;
    for (const Trip& t : tripsOf(job, plan)) order.insert(order.end(), t.lines.begin(), t.lines.end());
    for (const std::size_t i : order) {
        const Purchase& p = plan.purchases[i];
        list.next();
        list.text(supplierOf(job, p));
        list.text(nameWithLot(p, job.catalogue, f));
        list.text(packsText(p, f));
        list.text(neededText(p, f));
        list.text(leftOverText(p, f));
        list.money(p.packPrice, look.money);
        list.money(p.cost, look.money);
        const auto bought = job.bought.find(boughtKey(p.product, p.size));
        if (bought == job.bought.end()) continue;
        list.number(bought->second.packs, look.whole);
        list.money(bought->second.paid, look.money);
        list.text(QString::fromStdString(bought->second.lot));
    }
    for (const DeliveryPlan& d : plan.deliveries) {
        list.next();
        list.text(QString::fromStdString(d.supplier));
        list.text(ShoppingFile::tr("delivery"));
        for (int blank = 0; blank < 4; ++blank) list.text({});
        list.money(d.cost, look.money);
    }
    list.next();
    list.next();
    list.text(ShoppingFile::tr("in all"), look.bold);
    for (int blank = 0; blank < 5; ++blank) list.text({});
    list.money(plan.totals.cost, look.money);
}

/// What each surface bears of it.
void writeShares(lxw_workbook* book, const Formats& look, const Job& job, const Plan& plan, const Figures& f) {
    const QString currency = QString::fromStdString(job.currency.name());
    Sheet shares(book, ShoppingFile::tr("By surface"));
    shares.widths({30, 42, 14, 14});
    for (const QString& head : {ShoppingFile::tr("surface"), ShoppingFile::tr("product"),
                                ShoppingFile::tr("bears, %1").arg(currency), ShoppingFile::tr("carries, kg")})
        shares.text(head, look.bold);
    shares.freeze();
    for (const SurfaceCost& c : costBySurface(job, plan)) {
        const Surface* surface = job.surface(c.surface);
        const QString name = surface ? QString::fromStdString(surface->name) : ShoppingFile::tr("loose pieces");
        for (const Purchase& p : plan.purchases)
            for (const PurchaseShare& s : p.shares) {
                if (s.surface != c.surface) continue;
                shares.next();
                shares.text(name);
                shares.text(purchaseName(p, job.catalogue, f));
                shares.money(s.cost, look.money);
                shares.number(s.mass.value, look.whole);
            }
        shares.next();
        shares.text(name, look.bold);
        shares.text(ShoppingFile::tr("together"), look.bold);
        shares.money(c.cost, look.money);
        shares.number(c.mass.value, look.whole);
    }
}

} // namespace

QString saveShoppingXlsx(const QString& path, const Job& job, const Plan& plan, const Figures& f) {
    // Written beside, then put in place: a full disk leaves what was there.
    QTemporaryDir folder(QFileInfo(path).absolutePath() + QStringLiteral("/.westrum-XXXXXX"));
    if (!folder.isValid()) return ShoppingFile::tr("%1 cannot be written: %2").arg(path, folder.errorString());
    const QString aside = folder.filePath(QStringLiteral("list.xlsx"));
    lxw_workbook* book = workbook_new(QFile::encodeName(aside).constData());
    if (!book) return ShoppingFile::tr("%1 cannot be written.").arg(path);
    const Formats look = formatsOf(book, job.currency);
    writeList(book, look, job, plan, f);
    writeShares(book, look, job, plan, f);
    if (const lxw_error error = workbook_close(book); error != LXW_NO_ERROR)
        return ShoppingFile::tr("%1 cannot be written: %2").arg(path, QString::fromUtf8(lxw_strerror(error)));
    QFile::remove(path);
    return QFile::rename(aside, path) ? QString() : ShoppingFile::tr("%1 cannot be written.").arg(path);
}

} // namespace westrum
