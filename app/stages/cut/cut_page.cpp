#include "app/stages/cut/cut_page.h"

#include "app/document/cut_commands.h"
#include "app/document/workshop.h"
#include "app/drawing/theme.h"
#include "app/print/cut_print.h"
#include "core/catalogue/family.h"
#include "core/catalogue/plank.h"
#include "core/families/family.h"
#include "formats/cut_pieces_file.h"
#include "formats/cutting_file.h"

#include <QDateTime>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QHeaderView>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace westrum {

/// The tape along the item in hand.
class TapePicture : public QWidget {
public:
    TapePicture(JobDocument& document, char decimalMark) : document_(document), decimalMark_(decimalMark) {
        setFixedHeight(84);
        setAccessibleName(CutPage::tr("Where to mark the cuts, along a tape"));
    }
    void show(std::optional<CutItem> item) {
        item_ = std::move(item);
        update();
    }

protected:
    void paintEvent(QPaintEvent*) override {
        if (!item_) return;
        QPainter p(this);
        paintTape(p, QRectF(rect()).adjusted(4, 6, -4, 0), *item_, figuresFor(document_.job(), decimalMark_));
    }

private:
    JobDocument& document_;
    char decimalMark_;
    std::optional<CutItem> item_;
};

namespace {

constexpr qint64 kTellMs = 8000; ///< so long an answer stands before the figures come back

void shapeTable(QTableView* table, const QString& name, int wide) {
    table->setAccessibleName(name);
    table->setShowGrid(false);
    table->verticalHeader()->hide();
    table->verticalHeader()->setDefaultSectionSize(QFontMetrics(textFont()).height() + 10);
    table->horizontalHeader()->setSectionResizeMode(QHeaderView::Interactive);
    table->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    table->horizontalHeader()->setSectionResizeMode(wide, QHeaderView::Stretch);
    table->setEditTriggers(QAbstractItemView::AllEditTriggers);
    table->setSelectionMode(QAbstractItemView::SingleSelection);
    table->setSelectionBehavior(QAbstractItemView::SelectItems);
    table->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
}

} // namespace

QPushButton* CutPage::button(const QString& text, const char* name, const QString& hint) {
    auto* b = new QPushButton(text);
    b->setObjectName(QLatin1String(name));
    b->setToolTip(hint);
    return b;
}

CutPage::CutPage(JobDocument& document, char decimalMark, QWidget* parent)
    : StagePage(document, decimalMark, parent),
      products_(new QComboBox),
      stop_(button(tr("Stop"), "stopSearch")),
      keep_(button(tr("Keep this layout"), "keepLayout", tr("Pins every piece where it lies now"))),
      takes_(new QLabel),
      trouble_(new QLabel),
      scroll_(new QScrollArea),
      bench_(new CutBench(document, decimalMark)),
      faces_(new QWidget),
      face_(new QStackedWidget),
      tape_(new TapePicture(document, decimalMark)),
      orderHead_(new QLabel),
      steps_(new QLabel),
      ticks_(new QListWidget),
      allCut_(button(tr("All of it is cut"), "allCut")),
      toRack_(
          button(tr("Leftovers to the rack"), "toRack", tr("What is worth keeping becomes stock that is used first"))),
      pin_(button(tr("Pin"), "pin", tr("P: the piece in hand stays where it is"))),
      turn_(button(tr("Turn"), "turn", tr("R: the next way in which the piece may lie"))),
      piecesModel_(new PiecesTable(document, decimalMark, this)),
      pieces_(new QTableView),
      stockModel_(new StockTable(document, decimalMark, this)),
      stock_(new QTableView),
      stockColumn_(nullptr),
      out_(button(tr("Print, save …"), "out")) {
    setUpHeading();
    takes_->setTextFormat(Qt::PlainText);
    takes_->setWordWrap(true);
    takes_->setObjectName(QStringLiteral("takes"));
    trouble_->setTextFormat(Qt::PlainText);
    trouble_->setWordWrap(true);
    trouble_->setObjectName(QStringLiteral("cutTrouble"));
    column()->addWidget(takes_);
    column()->addWidget(trouble_);

    scroll_->setWidgetResizable(true);
    scroll_->setWidget(bench_);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll_->setFocusPolicy(Qt::NoFocus);
    column()->addWidget(scroll_, 5);

    setUpBar();
    column()->addWidget(faces_);
    face_->addWidget(orderFace());
    face_->addWidget(piecesFace());
    face_->addWidget(stockFace());
    column()->addWidget(face_, 4);
    faceButtons_[0]->setChecked(true);
    connectParts();
}

QWidget* CutPage::orderFace() {
    auto* face = new QWidget;
    auto* column = new QVBoxLayout(face);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(2);
    auto* top = new QHBoxLayout;
    orderHead_->setFont(textFont(1.0, true));
    orderHead_->setTextFormat(Qt::PlainText);
    top->addWidget(orderHead_, 1);
    for (QPushButton* b : {pin_, turn_, allCut_, toRack_}) top->addWidget(b);
    column->addLayout(top);
    column->addWidget(tape_);
    auto* lists = new QHBoxLayout;
    lists->setSpacing(16);
    auto* stepsArea = new QScrollArea;
    stepsArea->setWidgetResizable(true);
    stepsArea->setFocusPolicy(Qt::NoFocus);
    steps_->setTextFormat(Qt::PlainText);
    steps_->setWordWrap(true);
    steps_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    steps_->setObjectName(QStringLiteral("cutSteps"));
    stepsArea->setWidget(steps_);
    ticks_->setAccessibleName(tr("Pieces of this item, to tick as they are cut"));
    ticks_->setObjectName(QStringLiteral("cutTicks"));
    ticks_->setFrameShape(QFrame::NoFrame);
    ticks_->setSpacing(2);
    lists->addWidget(stepsArea, 5);
    lists->addWidget(ticks_, 4);
    column->addLayout(lists, 1);
    connect(ticks_, &QListWidget::itemChanged, this, [this](QListWidgetItem* item) {
        const ProductCut* cut = bench_->cut();
        if (filling_ || !cut) return;
        push(document_, tickPiece(document_, *cut, std::size_t(bench_->itemInHand()), std::size_t(ticks_->row(item)),
                                  item->checkState() == Qt::Checked));
    });
    connect(ticks_, &QListWidget::currentRowChanged, this, [this](int row) {
        if (!filling_) bench_->takeInHand(bench_->itemInHand(), row);
    });
    connect(pin_, &QPushButton::clicked, bench_, &CutBench::pinInHand);
    connect(turn_, &QPushButton::clicked, bench_, &CutBench::turnInHand);
    connect(allCut_, &QPushButton::clicked, this, [this] {
        const ProductCut* cut = bench_->cut();
        if (!cut || cut->items.empty()) return;
        const auto& pieces = cut->items[std::size_t(bench_->itemInHand())].pieces;
        const bool all = std::all_of(pieces.begin(), pieces.end(), [](const LyingPiece& l) { return l.cut; });
        push(document_, tickItem(document_, *cut, std::size_t(bench_->itemInHand()), !all));
    });
    connect(toRack_, &QPushButton::clicked, this, [this] {
        const ProductCut* cut = bench_->cut();
        if (!cut || cut->items.empty() || !sold()) return;
        const std::size_t item = std::size_t(bench_->itemInHand());
        const std::string name = tr("left of %1").arg(itemName(*cut, item, sold()->family)).toStdString();
        push(document_,
             workshop_ ? workshop_->keepOffcuts(*cut, item, name) : leftoversToRack(document_, *cut, item, name));
        tell(tr("What is left of it is on the rack now and will be used first."), false);
    });
    return face;
}

QWidget* CutPage::piecesFace() {
    auto* face = new QWidget;
    auto* column = new QVBoxLayout(face);
    column->setContentsMargins(0, 0, 0, 0);
    pieces_->setModel(piecesModel_);
    pieces_->setObjectName(QStringLiteral("loosePieces"));
    pieces_->setItemDelegateForColumn(PiecesTable::Goes, new SurfaceChoice(document_, this));
    shapeTable(pieces_, tr("Loose pieces"), PiecesTable::Name);
    column->addWidget(pieces_, 1);
    auto* row = new QHBoxLayout;
    auto* read = button(tr("From a file …"), "importPieces", tr("A list (CSV) or a drawing (DXF, SVG)"));
    connect(read, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getOpenFileName(this, tr("Pieces from a list or a drawing"), {},
                                                          tr("Lists and drawings (*.csv *.txt *.dxf *.svg)"));
        if (!path.isEmpty()) importPieces(path);
    });
    auto* remove = button(tr("Remove piece"), "removePiece");
    connect(remove, &QPushButton::clicked, this, [this] {
        const std::string id = piecesModel_->pieceOf(pieces_->currentIndex().row());
        if (!id.empty()) push(document_, removeLoosePiece(document_, product_, id));
    });
    row->addWidget(read);
    row->addWidget(remove);
    row->addStretch(1);
    column->addLayout(row);
    return face;
}

QWidget* CutPage::stockFace() {
    auto* face = new QWidget;
    stockColumn_ = new QVBoxLayout(face);
    stockColumn_->setContentsMargins(0, 0, 0, 0);
    stock_->setModel(stockModel_);
    stock_->setObjectName(QStringLiteral("cutStock"));
    shapeTable(stock_, tr("Stock and rack"), StockTable::Name);
    stockColumn_->addWidget(stock_, 1);
    auto* row = new QHBoxLayout;
    auto* read = button(tr("Offcut from a drawing …"), "importOffcut", tr("An offcut of any shape, from DXF or SVG"));
    connect(read, &QPushButton::clicked, this, [this] {
        const QString path =
            QFileDialog::getOpenFileName(this, tr("Outline of an offcut"), {}, tr("Drawings (*.dxf *.svg *.csv)"));
        if (!path.isEmpty()) importOffcut(path);
    });
    auto* remove = button(tr("Remove stock"), "removeStock");
    connect(remove, &QPushButton::clicked, this, [this] {
        const std::string id = stockModel_->entryOf(stock_->currentIndex().row());
        if (!id.empty()) push(document_, removeStockEntry(document_, product_, id));
    });
    row->addWidget(read);
    row->addWidget(remove);
    row->addStretch(1);
    stockColumn_->addLayout(row);
    return face;
}

void CutPage::showFace(Face face) {
    face_->setCurrentIndex(face);
    faceButtons_[face]->setChecked(true);
    refreshFace();
}

void CutPage::chooseProduct(const std::string& id) {
    if (id == product_) return;
    product_ = id;
    said_.clear();
    refresh();
}

void CutPage::addProductOf(const std::string& family, const QString& name) {
    Product product;
    product.family = family;
    for (int n = 1; product.id.empty() || document_.job().catalogue.find(product.id); ++n) {
        product.id = family + "-" + std::to_string(n);
        product.name = QStringLiteral("%1 %2").arg(name).arg(n).toStdString();
    }
    const std::string id = product.id;
    push(document_, addProduct(document_, std::move(product)));
    chooseProduct(id);
    showFace(Stock);
}

void CutPage::fillProducts() {
    const QSignalBlocker block(products_);
    products_->clear();
    for (const Product& p : document_.job().catalogue.products)
        if (stockFormOf(p.family)) products_->addItem(QString::fromStdString(p.name), QString::fromStdString(p.id));
    if (product_.empty() || !sold() || !stockFormOf(sold()->family)) {
        product_.clear();
        // What is cut already comes first.
        for (const CutState& s : document_.cutting().states())
            if (product_.empty() && s.cut) product_ = s.cut->product;
        if (product_.empty() && products_->count() > 0) product_ = products_->itemData(0).toString().toStdString();
    }
    products_->setCurrentIndex(products_->findData(QString::fromStdString(product_)));
}

void CutPage::refresh() {
    fillProducts();
    const Product* product = sold();
    if (!product) {
        setHeading(tr("Cut"), {});
        say(tr("Nothing in the catalogue is cut to size yet: add trim, sheets or lining under “New …”."));
        for (QWidget* w : {static_cast<QWidget*>(stop_), static_cast<QWidget*>(keep_), static_cast<QWidget*>(scroll_),
                           static_cast<QWidget*>(face_)})
            w->hide();
        return;
    }
    for (QWidget* w : {static_cast<QWidget*>(scroll_), static_cast<QWidget*>(face_)}) w->show();
    const Figures f = figures();
    QString detail;
    if (const TrimLength t = barOf(*product); t.length.value > 0 && !familyOf(product->family)->laid.unitsBySetOut) {
        detail = tr("lengths of %1, saw kerf %2").arg(f.length(t.length, false), f.fineLength(t.kerf));
    } else if (stockFormOf(product->family) == StockForm::Sheets) {
        const SheetGoods g = sheetOf(*product);
        detail = tr("%1 × %2, %3")
                     .arg(f.length(g.length, false), f.length(g.width), g.grain ? tr("grain along") : tr("no grain"));
    } else if (stockFormOf(product->family) == StockForm::Roll) {
        const RollGoods g = rollOf(*product);
        detail =
            tr("%1 wide, %2")
                .arg(f.length(g.width), g.turning == RollTurning::OneWay ? tr("pile one way") : tr("may be turned"));
    } else {
        const Plank g = plankOf(*product);
        detail = tr("planks %1 × %2").arg(f.length(g.length, false), f.length(g.width));
    }
    setHeading(QString::fromStdString(product->name), detail);
    refreshCut();
    refreshFace();
}

void CutPage::tell(const QString& sentence, bool attention) {
    said_ = sentence;
    saidAttention_ = attention;
    saidSince_.start();
    refreshCut();
}

void CutPage::refreshCut() {
    if (!sold()) return;
    const CutState state = document_.cutting().state(product_);
    bench_->show(state.cut);
    const bool anything = state.cut && !state.cut->items.empty();
    const bool decidedOnly = anything && std::all_of(state.cut->items.begin(), state.cut->items.end(),
                                                     [](const CutItem& i) { return i.decided; });
    out_->setEnabled(anything);
    keep_->setVisible(anything && !decidedOnly);
    const auto& kept = document_.job().cutList(product_).kept;
    const bool pinned = std::any_of(kept.begin(), kept.end(), [](const KeptItem& k) { return !k.locked; });
    keep_->setText(pinned ? tr("Let all pins go") : tr("Keep this layout"));
    stop_->setVisible(anything && !decidedOnly && (state.searching || !state.cut->proven));
    stop_->setText(state.searching ? tr("Stop") : tr("Look further"));
    if (!state.searching) searchingSince_ = 0;
    QStringList troubles;
    if (state.cut)
        for (const CutTrouble& t : state.cut->troubles) troubles << troubleText(t);
    if (state.cut && !state.cut->unplaced.empty()) {
        QStringList names;
        for (std::size_t i = 0; i < std::min<std::size_t>(5, state.cut->unplaced.size()); ++i)
            names << pieceText(state.cut->pieces[std::size_t(state.cut->unplaced[i])].name);
        if (state.cut->unplaced.size() > 5) names << QStringLiteral("…");
        troubles << tr("%n piece(s) found no stock: %1.", nullptr, int(state.cut->unplaced.size()))
                        .arg(names.join(QStringLiteral(", ")));
    }
    if (troubles.size() > 3) {
        const int more = int(troubles.size()) - 3;
        troubles = troubles.mid(0, 3);
        troubles << tr("And %n more.", nullptr, more);
    }
    trouble_->setText(troubles.join(QLatin1Char(' ')));
    trouble_->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().pencil)));
    trouble_->setVisible(!troubles.isEmpty());
    takes_->setText(state.cut ? takes(*state.cut) : QString());
    takes_->setVisible(!takes_->text().isEmpty());
    if (!said_.isEmpty() && saidSince_.elapsed() < kTellMs) return say(said_, saidAttention_);
    said_.clear();
    if (!anything) {
        if (state.cut && !troubles.isEmpty()) return say(tr("Nothing can be cut yet."), true);
        return say(
            state.searching
                ? tr("Working it out …")
                : tr("Nothing is to be cut of this yet: type pieces under “Pieces”, or take them in from a file."));
    }
    QString text = bound(state);
    if (state.searching && !decidedOnly) {
        const qint64 now = QDateTime::currentSecsSinceEpoch();
        if (searchingSince_ == 0) searchingSince_ = now;
        text += QLatin1Char(' ') + tr("Still looking: %1 s.").arg(now - searchingSince_);
    }
    say(text);
}

void CutPage::refreshFace() {
    switch (face_->currentIndex()) {
    case Order: return refreshOrder();
    case Pieces: {
        piecesModel_->refresh(product_);
        const bool bars = sold() && stockFormOf(sold()->family) == StockForm::Lengths;
        pieces_->setColumnHidden(PiecesTable::Width, bars);
        pieces_->setColumnHidden(PiecesTable::Turn, bars);
        pieces_->setColumnHidden(PiecesTable::Together, !sold() || stockFormOf(sold()->family) != StockForm::Roll);
        const int wide = QFontMetrics(textFont()).horizontalAdvance(QStringLiteral("0"));
        for (const int column : {int(PiecesTable::Length), int(PiecesTable::Width), int(PiecesTable::Count),
                                 int(PiecesTable::Turn), int(PiecesTable::Together)})
            pieces_->setColumnWidth(column, wide * 12);
        pieces_->setColumnWidth(PiecesTable::Goes, wide * 24);
        return;
    }
    default: {
        stockModel_->refresh(product_);
        const int wide = QFontMetrics(textFont()).horizontalAdvance(QStringLiteral("0"));
        for (const int column : {int(StockTable::Length), int(StockTable::Width), int(StockTable::Rack),
                                 int(StockTable::Price), int(StockTable::Count)})
            stock_->setColumnWidth(column, wide * 13);
        stock_->setColumnWidth(StockTable::Use, wide * 7);
        refreshStockFields();
    }
    }
}

void CutPage::refreshOrder() {
    const ProductCut* cut = bench_->cut();
    const int index = bench_->itemInHand();
    const bool there = cut && index >= 0 && index < int(cut->items.size());
    filling_ = true;
    for (QWidget* w : {static_cast<QWidget*>(pin_), static_cast<QWidget*>(turn_), static_cast<QWidget*>(allCut_),
                       static_cast<QWidget*>(toRack_), static_cast<QWidget*>(tape_)})
        w->setVisible(there);
    if (!there) {
        ticks_->clear();
        steps_->clear();
        orderHead_->clear();
        tape_->show(std::nullopt);
        filling_ = false;
        return;
    }
    const CutItem& item = cut->items[std::size_t(index)];
    const Figures f = figures();
    const std::string family = sold() ? sold()->family : std::string();
    orderHead_->setText(itemName(*cut, std::size_t(index), family) + QStringLiteral("   ") +
                        tr("mark from the left, blade on the far side of each line"));
    tape_->show(item);
    QStringList steps;
    for (std::size_t i = 0; i < item.order.size(); ++i)
        steps << QStringLiteral("%1   ").arg(i + 1) + stepText(item, item.order[i], f);
    if (!steps.isEmpty()) steps << cutCaution(cut->form);
    steps_->setText(steps.join(QLatin1Char('\n')));
    if (ticks_->count() != int(item.pieces.size())) {
        ticks_->clear();
        for (std::size_t i = 0; i < item.pieces.size(); ++i) ticks_->addItem(QString());
    }
    bool all = !item.pieces.empty();
    for (std::size_t i = 0; i < item.pieces.size(); ++i) {
        const LyingPiece& l = item.pieces[i];
        const Bounds b = boundsOf(l.shape);
        QString text = pieceText(l.name) + QStringLiteral("   ") +
                       (l.piece >= 0 ? sizeText(cut->pieces[std::size_t(l.piece)], cut->form, f)
                                     : sizeText(b.width(), b.height(), cut->form, f));
        if (l.piece >= 0)
            if (const Surface* s = document_.job().surface(cut->pieces[std::size_t(l.piece)].surface))
                text += QStringLiteral("   ") + QString::fromStdString(s->name);
        QListWidgetItem* row = ticks_->item(int(i));
        row->setText(text);
        row->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable);
        row->setCheckState(l.cut ? Qt::Checked : Qt::Unchecked);
        all = all && l.cut;
    }
    ticks_->setCurrentRow(bench_->pieceInHand());
    filling_ = false;
    allCut_->setText(all ? tr("None of it is cut") : tr("All of it is cut"));
    allCut_->setEnabled(!item.pieces.empty());
    toRack_->setVisible(item.locked && !item.left.empty() && !item.decided);
    const bool free = bench_->pieceInHand() >= 0 && !item.locked && !item.decided;
    pin_->setVisible(!item.decided);
    turn_->setVisible(!item.decided && cut->form != StockForm::Lengths);
    pin_->setEnabled(free);
    turn_->setEnabled(free);
    pin_->setText(free && item.pieces[std::size_t(bench_->pieceInHand())].pinned ? tr("Let go") : tr("Pin"));
}

void CutPage::refreshStockFields() {
    const Product* product = sold();
    if (!product) return;
    if (soldFamily_ != product->family) { // each family has fields of its own
        delete sold_;
        soldFamily_ = product->family;
        sold_ = new ProductPanel(
            document_, decimalMark_, soldFamily_,
            {[this] { return product_; }, [this](const std::string& id) { chooseProduct(id); }, QString()});
        sold_->choice()->setParent(sold_); // products of all families are chosen above
        sold_->choice()->hide();
        connect(sold_, &ProductPanel::problem, this, [this](const QString& why) { tell(why, true); });
        stockColumn_->insertWidget(0, sold_);
    }
    sold_->refresh();
}

void CutPage::pointAt(const std::string& surface, Point at) {
    const ProductCut* cut = bench_->cut();
    if (!cut || !isVisible()) return;
    std::set<int> whole, under;
    for (std::size_t i = 0; i < cut->pieces.size() && !surface.empty(); ++i) {
        if (cut->pieces[i].surface != surface) continue;
        whole.insert(int(i));
        if (!cut->pieces[i].place.empty() && contains(cut->pieces[i].place, at)) under.insert(int(i));
    }
    bench_->light(under.empty() ? whole : under);
}

void CutPage::saveAs(const QString& what, const QString& filter, const QString& ending,
                     const std::function<QString(const QString&)>& write) {
    const QString base = QString::fromStdString(document_.job().name) + QStringLiteral(", ") +
                         (sold() ? QString::fromStdString(sold()->name) : QString()) + QStringLiteral(", ") + ending;
    bool wrong = false;
    const QString said = askAndSave(what, base, filter, write, wrong);
    if (!said.isEmpty()) tell(said, wrong);
}

} // namespace westrum
