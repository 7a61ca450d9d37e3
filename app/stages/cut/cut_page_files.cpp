#include "app/stages/cut/cut_page.h"

#include "app/document/cut_commands.h"
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

bool CutPage::importPieces(const QString& path) {
    const QFileInfo info(path);
    const auto refuse = [&](const QString& why) {
        tell(tr("%1 was not taken in. %2").arg(info.fileName(), why), true);
        return false;
    };
    if (!sold()) return false;
    const bool bars = stockFormOf(sold()->family) == StockForm::Lengths;
    std::vector<LoosePiece> pieces;
    QString note;
    const QString ending = info.suffix().toLower();
    if (ending == QLatin1String("dxf") || ending == QLatin1String("svg")) {
        const auto drawing = readOutlineFile(path);
        if (!drawing) return refuse(sentence(drawing.error()));
        pieces =
            piecesOf(drawing.value(), drawing.value().mmPerUnit.value_or(1), info.completeBaseName().toStdString());
        if (!drawing.value().mmPerUnit)
            note = QLatin1Char(' ') + tr("The drawing does not say its unit; millimetres are taken.");
        if (drawing.value().open > 0)
            note += QLatin1Char(' ') +
                    tr("%n stroke(s) that do not close were passed over.", nullptr, drawing.value().open);
    } else {
        QFile file(path);
        if (!file.open(QIODevice::ReadOnly)) return refuse(file.errorString());
        auto list = readPieces(file.read(kLargestOutlineFile), document_.job(), bars);
        if (!list) return refuse(sentence(list.error()));
        pieces = std::move(list.value());
    }
    if (pieces.empty()) return refuse(tr("It holds no closed outline."));
    if (pieces.size() + document_.job().cutList(product_).pieces.size() > kMostListedPieces)
        return refuse(tr("The list would hold more than 5 000 pieces."));
    const int count = int(pieces.size());
    push(document_, addLoosePieces(document_, product_, std::move(pieces)));
    refresh();
    tell(tr("%n piece(s) taken in.", nullptr, count) + note, false);
    return true;
}

bool CutPage::importOffcut(const QString& path) {
    const QFileInfo info(path);
    const auto drawing = readOutlineFile(path);
    const auto refuse = [&](const QString& why) {
        tell(tr("%1 was not taken in. %2").arg(info.fileName(), why), true);
        return false;
    };
    if (!drawing) return refuse(sentence(drawing.error()));
    const auto shapes =
        piecesOf(drawing.value(), drawing.value().mmPerUnit.value_or(1), info.completeBaseName().toStdString());
    if (shapes.empty()) return refuse(tr("It holds no closed outline."));
    StockEntry entry;
    entry.name = shapes.front().name;
    entry.rack = true;
    entry.count = 1;
    entry.shape = shapes.front().shape;
    push(document_, addStockEntry(document_, product_, std::move(entry)));
    return true;
}

} // namespace westrum
