#pragma once

#include <QAbstractTableModel>
#include <QStyledItemDelegate>

#include "app/document/job_document.h"
#include "formats/words.h"

#include <map>

namespace westrum {

/// A table in which a person types. What cannot be understood stays in its cell, in red, and is told; nothing is lost.
class TypedTable : public QAbstractTableModel {
    Q_OBJECT
public:
    TypedTable(JobDocument& document, char decimalMark, QObject* parent = nullptr);

    /// Shows the list of another product, or the same one after a change.
    void refresh(const std::string& product);
    [[nodiscard]] const std::string& product() const { return product_; }

    int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : rows_; }
    QVariant data(const QModelIndex& index, int role = Qt::DisplayRole) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role = Qt::EditRole) override;

signals:
    void problem(const QString& sentence);

protected:
    [[nodiscard]] const CutList& list() const { return document_.job().cutList(product_); }
    [[nodiscard]] const Product* sold() const { return document_.job().catalogue.find(product_); }
    [[nodiscard]] virtual int rowsNow() const = 0;
    [[nodiscard]] Figures figures() const { return figuresFor(document_.job(), decimalMark_); }
    /// What a cell shows, and what it shows while it is edited.
    [[nodiscard]] virtual QString shown(int row, int column) const = 0;
    [[nodiscard]] virtual QString typed(int row, int column) const { return shown(row, column); }
    /// Takes what was typed; a sentence if it cannot be taken.
    virtual QString take(int row, int column, const QString& text) = 0;
    /// A cell with a tick: nothing if it is none.
    [[nodiscard]] virtual std::optional<bool> ticked(int, int) const { return std::nullopt; }
    virtual void tick(int, int, bool) {}

    /// Reads a length as people say it; calls `with` with the reading, or with nothing for an empty cell.
    QString takeLength(const QString& text, const std::function<void(MaybeReading)>& with) const;

    JobDocument& document_;
    char decimalMark_;
    std::string product_;

private:
    int rows_ = 0;
    std::map<std::pair<int, int>, QString> wrong_;
};

/// The loose pieces of a product; the last row, still empty, takes another one.
class PiecesTable : public TypedTable {
    Q_OBJECT
public:
    enum Column { Name, Length, Width, Count, Goes, Turn, Together, Columns };
    using TypedTable::TypedTable;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role = Qt::DisplayRole) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;
    /// The place of a piece in the list; -1 in the empty row.
    [[nodiscard]] std::string pieceOf(int row) const;

protected:
    int rowsNow() const override;
    QString shown(int row, int column) const override;
    QString typed(int row, int column) const override;
    QString take(int row, int column, const QString& text) override;
    std::optional<bool> ticked(int row, int column) const override;
    void tick(int row, int column, bool on) override;

private:
    void change(int row, const QString& what, const std::function<void(LoosePiece&)>& with);
};

/// The stock of a product: as it is sold, other sizes, the rack; the last row takes another one.
class StockTable : public TypedTable {
    Q_OBJECT
public:
    enum Column { Use, Name, Length, Width, Rack, Price, Count, Columns };
    using TypedTable::TypedTable;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role = Qt::DisplayRole) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;
    /// The id of the entry in a row; empty for what the product is sold as and for the last row.
    [[nodiscard]] std::string entryOf(int row) const;

protected:
    int rowsNow() const override;
    QString shown(int row, int column) const override;
    QString typed(int row, int column) const override;
    QString take(int row, int column, const QString& text) override;
    std::optional<bool> ticked(int row, int column) const override;
    void tick(int row, int column, bool on) override;

private:
    void change(int row, const QString& what, const std::function<void(StockEntry&)>& with);
};

/// Offers the job's surfaces in a list.
class SurfaceChoice : public QStyledItemDelegate {
    Q_OBJECT
public:
    SurfaceChoice(JobDocument& document, QObject* parent);
    QWidget* createEditor(QWidget* parent, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
    void setEditorData(QWidget* editor, const QModelIndex& index) const override;
    void setModelData(QWidget* editor, QAbstractItemModel* model, const QModelIndex& index) const override;

private:
    JobDocument& document_;
};

} // namespace westrum
