#pragma once

#include "app/stages/cut/cut_bench.h"
#include "app/stages/cut/cut_tables.h"
#include "app/stages/stage_page.h"
#include "app/widgets/product_panel.h"

#include <QComboBox>
#include <QElapsedTimer>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QScrollArea>
#include <QStackedWidget>
#include <QTableView>
#include <QTimer>

namespace westrum {

class TapePicture;

/// Cut: the stock of one product after the other as it lies on the trestles, what is cut from it in which order, the
/// loose pieces and the stock there is.
class CutPage : public StagePage {
    Q_OBJECT
public:
    CutPage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    /// Where offcuts are kept across jobs.
    void setWorkshop(class Workshop& workshop) { workshop_ = &workshop; }

    void chooseProduct(const std::string& id);
    [[nodiscard]] const std::string& product() const { return product_; }
    [[nodiscard]] CutBench& bench() { return *bench_; }
    enum Face { Order, Pieces, Stock };
    void showFace(Face face);

    /// From the map: lights the pieces that go there.
    void pointAt(const std::string& surface, Point at);
    /// Reads pieces from a file of a list (CSV) or a drawing (DXF, SVG); says what it found or why it did not.
    bool importPieces(const QString& path);
    /// Reads an offcut's outline from a drawing and puts it on the rack.
    bool importOffcut(const QString& path);

signals:
    /// The place of the piece under the pointer; an empty surface: none.
    void glow(const std::string& surface, const westrum::Region& part);

protected:
    void refresh() override;

private:
    static QPushButton* button(const QString& text, const char* name, const QString& hint = {});
    void setUpHeading();
    QMenu* outMenu();
    void setUpBar();
    void connectParts();
    void fillProducts();
    void tell(const QString& sentence, bool attention);
    void refreshCut();
    void refreshFace();
    void refreshOrder();
    void refreshStockFields();
    void addProductOf(const std::string& family, const QString& name);
    void saveAs(const QString& what, const QString& filter, const QString& ending,
                const std::function<QString(const QString&)>& write);
    QWidget* orderFace();
    QWidget* piecesFace();
    QWidget* stockFace();
    [[nodiscard]] QString bound(const CutState& state) const;
    [[nodiscard]] bool severalSizes() const;
    [[nodiscard]] QString takes(const ProductCut& cut) const;
    [[nodiscard]] QString troubleText(const CutTrouble& trouble) const;
    [[nodiscard]] const Product* sold() const { return document_.job().catalogue.find(product_); }

    std::string product_;
    QComboBox* products_;
    QPushButton* stop_;
    QPushButton* keep_;
    QLabel* takes_;
    QLabel* trouble_;
    QScrollArea* scroll_;
    CutBench* bench_;
    QWidget* faces_;
    QList<QPushButton*> faceButtons_;
    QStackedWidget* face_;
    TapePicture* tape_;
    QLabel* orderHead_;
    QLabel* steps_;
    QListWidget* ticks_;
    QPushButton* allCut_;
    QPushButton* toRack_;
    QPushButton* pin_;
    QPushButton* turn_;
    PiecesTable* piecesModel_;
    QTableView* pieces_;
    StockTable* stockModel_;
    QTableView* stock_;
    QVBoxLayout* stockColumn_;
    ProductPanel* sold_ = nullptr; ///< the product itself, as it is sold
    std::string soldFamily_;
    QPushButton* out_;
    QTimer clock_;
    qint64 searchingSince_ = 0;
    bool filling_ = false;
    QElapsedTimer saidSince_;
    QString said_;
    bool saidAttention_ = false;
    Workshop* workshop_ = nullptr;
};

} // namespace westrum
