#include "app/document/cut_commands.h"
#include "app/drawing/theme.h"
#include "app/print/cut_print.h"
#include "app/stages/cut/cut_page.h"
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

void CutPage::setUpHeading() {
    products_->setObjectName(QStringLiteral("cutProduct"));
    products_->setAccessibleName(tr("Product that is cut"));
    products_->setMinimumWidth(200);
    auto* add = button(tr("New …"), "newCutProduct", tr("Another product that is cut to size"));
    auto* kinds = new QMenu(this);
    kinds->addAction(tr("trim or boards in lengths"), this, [this] { addProductOf("trim", tr("Trim")); });
    kinds->addAction(tr("panels in sheets"), this, [this] { addProductOf("sheet", tr("Sheet")); });
    kinds->addAction(tr("lining from the roll"), this, [this] { addProductOf("roll", tr("Lining")); });
    add->setMenu(kinds);
    headingRow()->addWidget(products_);
    headingRow()->addWidget(add);
    sentenceRow()->addWidget(stop_, 0, Qt::AlignTop);
    sentenceRow()->addWidget(keep_, 0, Qt::AlignTop);
}

/// What a list of cut pieces can be saved as.
QMenu* CutPage::outMenu() {
    auto* ways = new QMenu(this);
    ways->addAction(tr("Cut sheets as PDF…"), this, [this] {
        if (const ProductCut* cut = bench_->cut())
            saveAs(
                tr("Cut sheets as PDF"), tr("PDF (*.pdf)"), tr("cut sheets") + QStringLiteral(".pdf"),
                [this, cut](const QString& path) { return saveCutSheetsPdf(path, document_.job(), *cut, figures()); });
    });
    ways->addAction(tr("Piece labels as PDF…"), this, [this] {
        if (const ProductCut* cut = bench_->cut())
            saveAs(tr("Piece labels as PDF"), tr("PDF (*.pdf)"), tr("labels") + QStringLiteral(".pdf"),
                   [this, cut](const QString& path) { return saveLabelsPdf(path, document_.job(), *cut, figures()); });
    });
    ways->addAction(tr("Pieces as DXF…"), this, [this] {
        if (const ProductCut* cut = bench_->cut())
            saveAs(tr("Pieces as DXF"), tr("DXF (*.dxf)"), tr("pieces") + QStringLiteral(".dxf"),
                   [cut](const QString& path) { return saveBytes(path, cutPiecesAsDxf(*cut)); });
    });
    ways->addAction(tr("Pieces as SVG…"), this, [this] {
        if (const ProductCut* cut = bench_->cut())
            saveAs(tr("Pieces as SVG"), tr("SVG (*.svg)"), tr("pieces") + QStringLiteral(".svg"),
                   [this, cut](const QString& path) {
                       return saveBytes(
                           path, cutPiecesAsSvg(*cut, sold() ? QString::fromStdString(sold()->name) : QString()));
                   });
    });
    return ways;
}

void CutPage::setUpBar() {
    auto* bar = new QHBoxLayout(faces_);
    bar->setContentsMargins(0, 2, 0, 2);
    for (const auto& [text, name] :
         {std::pair{tr("Cut order"), "faceOrder"}, {tr("Pieces"), "facePieces"}, {tr("Stock and rack"), "faceStock"}}) {
        auto* b = button(text, name);
        b->setCheckable(true);
        b->setAutoExclusive(true);
        const int which = int(faceButtons_.size());
        connect(b, &QPushButton::clicked, this, [this, which] { showFace(static_cast<Face>(which)); });
        faceButtons_ << b;
        bar->addWidget(b);
    }
    bar->addStretch(1);
    out_->setMenu(outMenu());
    bar->addWidget(out_);
}

void CutPage::connectParts() {
    connect(products_, &QComboBox::activated, this,
            [this](int index) { chooseProduct(products_->itemData(index).toString().toStdString()); });
    connect(stop_, &QPushButton::clicked, this, [this] {
        if (document_.cutting().state(product_).searching)
            document_.cutting().stop(product_);
        else
            document_.cutting().lookFurther(product_);
    });
    connect(keep_, &QPushButton::clicked, this, [this] {
        const ProductCut* cut = bench_->cut();
        if (!cut) return;
        const auto& kept = document_.job().cutList(product_).kept;
        const bool pinned = std::any_of(kept.begin(), kept.end(), [](const KeptItem& k) { return !k.locked; });
        push(document_, pinned ? unpinAll(document_, product_) : pinAll(document_, *cut));
    });
    connect(bench_, &CutBench::inHandChanged, this, [this] {
        refreshOrder();
        if (const ProductCut* cut = bench_->cut(); cut && bench_->pieceInHand() >= 0) {
            const LyingPiece& l =
                cut->items[std::size_t(bench_->itemInHand())].pieces[std::size_t(bench_->pieceInHand())];
            if (l.piece >= 0)
                emit glow(cut->pieces[std::size_t(l.piece)].surface, cut->pieces[std::size_t(l.piece)].place);
        }
    });
    connect(bench_, &CutBench::pointedAt, this, [this](int piece) {
        const ProductCut* cut = bench_->cut();
        if (!cut || piece < 0 || piece >= int(cut->pieces.size())) {
            bench_->light({});
            return emit glow({}, {});
        }
        bench_->light({piece});
        emit glow(cut->pieces[std::size_t(piece)].surface, cut->pieces[std::size_t(piece)].place);
    });
    const auto told = [this](const QString& sentence, bool attention) { tell(sentence, attention); };
    connect(bench_, &CutBench::said, this, told);
    connect(piecesModel_, &TypedTable::problem, this, [told](const QString& why) { told(why, true); });
    connect(stockModel_, &TypedTable::problem, this, [told](const QString& why) { told(why, true); });
    connect(&document_, &JobDocument::cuttingChanged, this, [this] {
        if (isVisible()) refreshCut();
    });
    clock_.setInterval(1000);
    connect(&clock_, &QTimer::timeout, this, [this] {
        if (isVisible() && (!said_.isEmpty() || document_.cutting().state(product_).searching)) refreshCut();
    });
    clock_.start();
}

} // namespace westrum
