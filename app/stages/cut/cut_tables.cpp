#include "app/stages/cut/cut_tables.h"

#include "app/document/cut_commands.h"
#include "app/drawing/theme.h"
#include "core/catalogue/plank.h"
#include "core/catalogue/stock.h"

#include <QComboBox>

namespace westrum {
namespace {

/// Letters with marks are compared as people read them: without case.
std::string surfaceNamed(const Job& job, const QString& name) {
    for (const Surface& s : job.surfaces)
        if (QString::fromStdString(s.name).compare(name, Qt::CaseInsensitive) == 0) return s.id;
    return {};
}

QString readingShown(const MaybeReading& reading, const Figures& f) {
    return reading ? f.fineLength(reading->length, false) : QString();
}

} // namespace

TypedTable::TypedTable(JobDocument& document, char decimalMark, QObject* parent)
    : QAbstractTableModel(parent), document_(document), decimalMark_(decimalMark) {}

void TypedTable::refresh(const std::string& product) {
    const int before = rows_;
    const bool same = product == product_;
    product_ = product;
    const int now = rowsNow();
    if (same && now > before && before > 0) { // who types in the last row goes on typing
        beginInsertRows({}, before, now - 1);
        rows_ = now;
        endInsertRows();
    }
    if (same && now == rows_) {
        if (now > 0) emit dataChanged(index(0, 0), index(now - 1, columnCount() - 1));
        return;
    }
    beginResetModel();
    wrong_.clear();
    rows_ = now;
    endResetModel();
}

QVariant TypedTable::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || index.row() >= rowCount()) return {};
    const auto tick_ = ticked(index.row(), index.column());
    if (role == Qt::CheckStateRole && tick_) return *tick_ ? Qt::Checked : Qt::Unchecked;
    if (tick_) return {};
    const auto wrong = wrong_.find({index.row(), index.column()});
    if (role == Qt::ForegroundRole && wrong != wrong_.end()) return Theme::now().pencil;
    if (role == Qt::DisplayRole || role == Qt::ToolTipRole)
        return wrong != wrong_.end() ? wrong->second : shown(index.row(), index.column());
    if (role == Qt::EditRole) return wrong != wrong_.end() ? wrong->second : typed(index.row(), index.column());
    return {};
}

bool TypedTable::setData(const QModelIndex& index, const QVariant& value, int role) {
    if (!index.isValid() || product_.empty()) return false;
    if (role == Qt::CheckStateRole) {
        tick(index.row(), index.column(), value.toInt() == Qt::Checked);
        return true;
    }
    if (role != Qt::EditRole) return false;
    const QString text = value.toString().trimmed();
    if (text == typed(index.row(), index.column()) && !wrong_.contains({index.row(), index.column()})) return true;
    const std::pair<int, int> cell{index.row(), index.column()};
    wrong_.erase(cell); // before the list changes: the table is shown anew by then
    const QString why = take(index.row(), index.column(), text);
    if (!why.isEmpty()) wrong_[cell] = text;
    emit problem(why);
    emit dataChanged(index, index);
    return true;
}

QString TypedTable::takeLength(const QString& text, const std::function<void(MaybeReading)>& with) const {
    if (text.isEmpty()) {
        with(std::nullopt);
        return {};
    }
    const auto length = parseLength(text.toStdString(), document_.job().bareUnit);
    if (!length) return sentence(length.error(), text);
    if (length.value().value <= 0) return tr("A size must be more than nothing.");
    with(Reading{text.toStdString(), length.value()});
    return {};
}

// ---- pieces ----

int PiecesTable::rowsNow() const { return sold() ? int(list().pieces.size()) + 1 : 0; }

int PiecesTable::columnCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : Columns; }

std::string PiecesTable::pieceOf(int row) const {
    return row >= 0 && row < int(list().pieces.size()) ? list().pieces[std::size_t(row)].id : std::string();
}

QVariant PiecesTable::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole) return {};
    switch (section) {
    case Name: return tr("piece");
    case Length: return tr("length");
    case Width: return tr("width");
    case Count: return tr("how many");
    case Goes: return tr("goes to");
    case Turn: return tr("may turn");
    case Together: return tr("beside");
    default: return {};
    }
}

Qt::ItemFlags PiecesTable::flags(const QModelIndex& index) const {
    if (!index.isValid()) return {};
    const bool there = index.row() < int(list().pieces.size());
    const bool shaped = there && !list().pieces[std::size_t(index.row())].shape.empty();
    if (index.column() == Turn)
        return there ? Qt::ItemIsEnabled | Qt::ItemIsUserCheckable | Qt::ItemIsSelectable : Qt::ItemFlags();
    if (shaped && (index.column() == Length || index.column() == Width))
        return Qt::ItemIsEnabled | Qt::ItemIsSelectable;
    return Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable;
}

QString PiecesTable::shown(int row, int column) const {
    if (row >= int(list().pieces.size())) return column == Name ? tr("another piece …") : QString();
    const LoosePiece& p = list().pieces[std::size_t(row)];
    const Figures f = figures();
    const bool shaped = !p.shape.empty();
    switch (column) {
    case Name: return QString::fromStdString(p.name);
    case Length: return shaped ? f.fineLength({boundsOf(p.shape).width()}, false) : readingShown(p.length, f);
    case Width: return shaped ? f.fineLength({boundsOf(p.shape).height()}, false) : readingShown(p.width, f);
    case Count: return QString::number(p.count);
    case Goes: {
        const Surface* s = document_.job().surface(p.surface);
        return s ? QString::fromStdString(s->name) : QString();
    }
    case Together: return QString::fromStdString(p.together);
    default: return {};
    }
}

QString PiecesTable::typed(int row, int column) const {
    if (row >= int(list().pieces.size())) return {};
    const LoosePiece& p = list().pieces[std::size_t(row)];
    if (column == Length && p.length) return QString::fromStdString(p.length->typed);
    if (column == Width && p.width) return QString::fromStdString(p.width->typed);
    return shown(row, column);
}

void PiecesTable::change(int row, const QString& what, const std::function<void(LoosePiece&)>& with) {
    if (row >= int(list().pieces.size())) {
        LoosePiece piece;
        piece.name = tr("Piece %1").arg(list().pieces.size() + 1).toStdString();
        with(piece);
        push(document_, addLoosePieces(document_, product_, {std::move(piece)}));
        return;
    }
    CutList changed = list();
    with(changed.pieces[std::size_t(row)]);
    push(document_, changeCutList(document_, what, product_, std::move(changed)));
}

QString PiecesTable::take(int row, int column, const QString& text) {
    const bool fresh = row >= int(list().pieces.size());
    if (fresh && text.isEmpty()) return {};
    switch (column) {
    case Name: change(row, tr("Name a piece"), [&](LoosePiece& p) { p.name = text.toStdString(); }); return {};
    case Length:
        return takeLength(text, [&](const MaybeReading& r) {
            change(row, tr("Change a length"), [&](LoosePiece& p) { p.length = r; });
        });
    case Width:
        return takeLength(text, [&](const MaybeReading& r) {
            change(row, tr("Change a width"), [&](LoosePiece& p) { p.width = r; });
        });
    case Count: {
        bool ok = false;
        const int n = text.toInt(&ok);
        if (!ok || n < 0 || n > 10000) return tr("“%1” is no number of pieces from 0 to 10 000.").arg(text);
        change(row, tr("Change how many"), [&](LoosePiece& p) { p.count = n; });
        return {};
    }
    case Goes: {
        const std::string id = surfaceNamed(document_.job(), text);
        if (id.empty() && !text.isEmpty()) return tr("“%1” is none of the surfaces.").arg(text);
        change(row, tr("Say where it goes"), [&](LoosePiece& p) { p.surface = id; });
        return {};
    }
    case Together:
        change(row, tr("Keep pieces together"), [&](LoosePiece& p) { p.together = text.toStdString(); });
        return {};
    default: return {};
    }
}

std::optional<bool> PiecesTable::ticked(int row, int column) const {
    if (column != Turn) return std::nullopt;
    return row < int(list().pieces.size()) ? std::optional(list().pieces[std::size_t(row)].mayTurn) : std::nullopt;
}

void PiecesTable::tick(int row, int column, bool on) {
    if (column == Turn && row < int(list().pieces.size()))
        change(row, tr("Let a piece turn"), [&](LoosePiece& p) { p.mayTurn = on; });
}

// ---- stock ----

int StockTable::rowsNow() const { return sold() ? int(list().stock.size()) + 2 : 0; }

int StockTable::columnCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : Columns; }

std::string StockTable::entryOf(int row) const {
    return row >= 1 && row <= int(list().stock.size()) ? list().stock[std::size_t(row - 1)].id : std::string();
}

QVariant StockTable::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole) return {};
    switch (section) {
    case Use: return tr("use");
    case Name: return tr("stock");
    case Length: return tr("length");
    case Width: return tr("width");
    case Rack: return tr("on the rack");
    case Price: return tr("price");
    case Count: return tr("how many");
    default: return {};
    }
}

Qt::ItemFlags StockTable::flags(const QModelIndex& index) const {
    if (!index.isValid()) return {};
    const bool own = index.row() == 0, last = index.row() > int(list().stock.size());
    const bool tickable = index.column() == Use || index.column() == Rack;
    if (tickable)
        return last || (own && index.column() == Rack)
                   ? Qt::ItemFlags()
                   : Qt::ItemIsEnabled | Qt::ItemIsUserCheckable | Qt::ItemIsSelectable;
    if (own) return Qt::ItemIsEnabled | Qt::ItemIsSelectable;
    const bool shaped = !last && !list().stock[std::size_t(index.row() - 1)].shape.empty();
    if (shaped && (index.column() == Length || index.column() == Width))
        return Qt::ItemIsEnabled | Qt::ItemIsSelectable;
    return Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable;
}

QString StockTable::shown(int row, int column) const {
    const Figures f = figures();
    const Product* product = sold();
    if (!product) return {};
    if (row == 0) {
        const std::optional<StockForm> form = stockFormOf(product->family);
        const auto mm = [&](const char* key) {
            return f.fineLength({valueOf(product->fields, fieldsOfFamily(product->family), key)}, false);
        };
        switch (column) {
        case Name: return tr("as sold");
        case Length: return form == StockForm::Roll ? tr("by the metre") : mm("length");
        case Width: return mm(form == StockForm::Roll ? "rollWidth" : "width");
        case Price: return product->packPrice ? f.money(*product->packPrice) : tr("no price");
        case Count: return tr("any");
        default: return {};
        }
    }
    if (row > int(list().stock.size())) return column == Name ? tr("another size, or an offcut …") : QString();
    const StockEntry& s = list().stock[std::size_t(row - 1)];
    const bool shaped = !s.shape.empty();
    switch (column) {
    case Name: return QString::fromStdString(s.name);
    case Length: return shaped ? f.fineLength({boundsOf(s.shape).width()}, false) : readingShown(s.length, f);
    case Width: return shaped ? f.fineLength({boundsOf(s.shape).height()}, false) : readingShown(s.width, f);
    case Price: return s.rack ? tr("in hand") : s.price ? f.money(*s.price) : tr("no price");
    case Count: return s.count ? QString::number(*s.count) : s.rack ? QStringLiteral("1") : tr("any");
    default: return {};
    }
}

QString StockTable::typed(int row, int column) const {
    if (row == 0 || row > int(list().stock.size())) return {};
    const StockEntry& s = list().stock[std::size_t(row - 1)];
    switch (column) {
    case Length: return s.length ? QString::fromStdString(s.length->typed) : QString();
    case Width: return s.width ? QString::fromStdString(s.width->typed) : QString();
    case Price: return s.price ? figures().money(*s.price) : QString();
    case Count: return s.count ? QString::number(*s.count) : QString();
    default: return shown(row, column);
    }
}

void StockTable::change(int row, const QString& what, const std::function<void(StockEntry&)>& with) {
    if (row > int(list().stock.size())) {
        StockEntry entry;
        entry.name = tr("Offcut %1").arg(list().stock.size() + 1).toStdString();
        entry.rack = true;
        with(entry);
        push(document_, addStockEntry(document_, product_, std::move(entry)));
        return;
    }
    CutList changed = list();
    with(changed.stock[std::size_t(row - 1)]);
    push(document_, changeCutList(document_, what, product_, std::move(changed)));
}

QString StockTable::take(int row, int column, const QString& text) {
    if (row == 0 || (row > int(list().stock.size()) && text.isEmpty())) return {};
    switch (column) {
    case Name: change(row, tr("Name stock"), [&](StockEntry& s) { s.name = text.toStdString(); }); return {};
    case Length:
        return takeLength(text, [&](const MaybeReading& r) {
            change(row, tr("Change a length"), [&](StockEntry& s) { s.length = r; });
        });
    case Width:
        return takeLength(text, [&](const MaybeReading& r) {
            change(row, tr("Change a width"), [&](StockEntry& s) { s.width = r; });
        });
    case Price: {
        if (text.isEmpty()) {
            change(row, tr("Change a price"), [](StockEntry& s) { s.price.reset(); });
            return {};
        }
        const auto price = parseMoney(text.toStdString(), document_.job().currency);
        if (!price) return sentence(price.error(), text);
        change(row, tr("Change a price"), [&](StockEntry& s) {
            s.price = price.value();
            s.rack = false; // what has a price is to be bought
        });
        return {};
    }
    case Count: {
        if (text.isEmpty()) {
            change(row, tr("Change how many"), [](StockEntry& s) { s.count.reset(); });
            return {};
        }
        bool ok = false;
        const int n = text.toInt(&ok);
        if (!ok || n < 0 || n > 100000) return tr("“%1” is no number of items from 0 to 100 000.").arg(text);
        change(row, tr("Change how many"), [&](StockEntry& s) { s.count = n; });
        return {};
    }
    default: return {};
    }
}

std::optional<bool> StockTable::ticked(int row, int column) const {
    if (row > int(list().stock.size())) return std::nullopt;
    if (column == Use) return row == 0 ? list().useOwnStock : list().stock[std::size_t(row - 1)].used;
    if (column == Rack && row > 0) return list().stock[std::size_t(row - 1)].rack;
    return std::nullopt;
}

void StockTable::tick(int row, int column, bool on) {
    if (row > int(list().stock.size())) return;
    if (column == Use) push(document_, useStock(document_, product_, entryOf(row), on));
    if (column == Rack && row > 0) change(row, tr("Put on the rack"), [&](StockEntry& s) { s.rack = on; });
}

// ---- surfaces ----

SurfaceChoice::SurfaceChoice(JobDocument& document, QObject* parent)
    : QStyledItemDelegate(parent), document_(document) {}

QWidget* SurfaceChoice::createEditor(QWidget* parent, const QStyleOptionViewItem&, const QModelIndex&) const {
    auto* box = new QComboBox(parent);
    box->addItem(tr("nowhere in particular"), QString());
    for (const Surface& s : document_.job().surfaces)
        box->addItem(QString::fromStdString(s.name), QString::fromStdString(s.name));
    return box;
}

void SurfaceChoice::setEditorData(QWidget* editor, const QModelIndex& index) const {
    auto* box = qobject_cast<QComboBox*>(editor);
    box->setCurrentIndex(std::max(0, box->findData(index.data(Qt::EditRole))));
}

void SurfaceChoice::setModelData(QWidget* editor, QAbstractItemModel* model, const QModelIndex& index) const {
    model->setData(index, qobject_cast<QComboBox*>(editor)->currentData());
}

} // namespace westrum
