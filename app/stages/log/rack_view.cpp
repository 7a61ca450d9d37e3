#include "app/stages/log/rack_view.h"

#include "app/drawing/theme.h"
#include "app/print/rack_labels.h"
#include "app/stages/stage_page.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/photograph.h"
#include "formats/book_file.h"
#include "formats/work_words.h"

#include <QDir>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QHeaderView>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>

namespace westrum {
namespace {

constexpr int kSoonDays = 30; ///< what goes off within them is told
constexpr int kPictureHeight = 84;

QPushButton* button(const QString& text, const char* id) {
    auto* b = new QPushButton(text);
    b->setObjectName(QString::fromLatin1(id));
    return b;
}

enum ShelfColumn { Number, Name, Count, Lot, GoesOff, Stands, For, ShelfColumns };

} // namespace

RackView::RackView(JobDocument& document, Workshop& workshop, QWidget* parent)
    : QWidget(parent),
      document_(document),
      workshop_(workshop),
      board_(new RackBoard),
      filter_(new QComboBox),
      hand_(new QLabel),
      shelfName_(new QLabel(tr("On the shelf"))),
      trouble_(new QLabel),
      shelf_(new QTableWidget) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto* troubleRow = new QHBoxLayout;
    trouble_->setWordWrap(true);
    trouble_->setObjectName(QStringLiteral("rackTrouble"));
    anew_ = button(tr("Put it aside and begin a new book"), "bookAnew");
    connect(anew_, &QPushButton::clicked, &workshop_, &Workshop::beginAnew);
    troubleRow->addWidget(trouble_, 1);
    troubleRow->addWidget(anew_);
    column->addLayout(troubleRow);
    column->addWidget(filterRow());
    auto* scroll = new QScrollArea;
    scroll->setWidget(board_);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    column->addWidget(scroll, 3);
    column->addWidget(handRow());
    shelfName_->setFont(textFont(1.08, true));
    auto* shelfRow = new QHBoxLayout;
    shelfRow->addWidget(shelfName_, 1);
    freePack_ = button(tr("Free it all the same"), "packFree");
    freePack_->hide();
    shelfRow->addWidget(freePack_);
    connect(freePack_, &QPushButton::clicked, this, [this] {
        if (const KeptPack* p = pack()) workshop_.freePack(std::string(p->number));
    });
    connect(shelf_, &QTableWidget::currentCellChanged, this, [this] {
        const KeptPack* p = pack();
        freePack_->setVisible(p && !p->job.empty() && p->job != workshop_.jobId());
    });
    column->addLayout(shelfRow);
    makeShelf();
    column->addWidget(shelf_, 1);
    connect(board_, &RackBoard::picked, this, &RackView::showInHand);
    connect(&workshop_, &Workshop::changed, this, [this] {
        if (isVisible()) show(figures_);
    });
}

QWidget* RackView::filterRow() {
    auto* bar = new QWidget;
    auto* row = new FlowRow;
    row->setContentsMargins(0, 4, 0, 4);
    filter_->setObjectName(QStringLiteral("rackFilter"));
    filter_->setAccessibleName(tr("Offcuts of which product"));
    filter_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    row->addWidget(filter_);
    freeOnly_ = button(tr("Free ones only"), "rackFree");
    freeOnly_->setCheckable(true);
    row->addWidget(freeOnly_);
    auto* labels = button(tr("Labels …"), "rackLabels");
    auto* out = button(tr("Write to a file …"), "rackOut");
    auto* in = button(tr("From a file …"), "rackIn");
    for (QPushButton* b : {labels, out, in}) row->addWidget(b);
    bar->setLayout(row);
    connect(filter_, &QComboBox::activated, this, [this] { show(figures_); });
    connect(freeOnly_, &QPushButton::clicked, this, [this] { show(figures_); });
    connect(labels, &QPushButton::clicked, this, [this] {
        const QString path =
            QFileDialog::getSaveFileName(this, tr("Labels of offcuts"), tr("labels.pdf"), tr("PDF (*.pdf)"));
        if (!path.isEmpty()) exportTo(path);
    });
    connect(out, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getSaveFileName(this, tr("The workshop's book"), tr("workshop.json"),
                                                          tr("The whole book (*.json);;Offcuts, a list (*.csv)"));
        if (!path.isEmpty()) exportTo(path);
    });
    connect(in, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getOpenFileName(this, tr("A book or a list of offcuts"), {},
                                                          tr("Books and lists (*.json *.csv)"));
        if (!path.isEmpty()) importFrom(path);
    });
    return bar;
}

QWidget* RackView::handRow() {
    handBar_ = new QWidget;
    auto* column = new QVBoxLayout(handBar_);
    column->setContentsMargins(0, 0, 0, 6);
    hand_->setWordWrap(true);
    hand_->setTextFormat(Qt::PlainText);
    hand_->setObjectName(QStringLiteral("offcutInHand"));
    column->addWidget(hand_);
    picture_ = new QLabel;
    picture_->setObjectName(QStringLiteral("offcutPicture"));
    auto* row = new FlowRow;
    row->setContentsMargins(0, 0, 0, 0);
    use_ = button({}, "offcutUse");
    free_ = button(tr("Free it all the same"), "offcutFree");
    gone_ = button(tr("It is gone"), "offcutGone");
    photograph_ = button(tr("Photograph …"), "offcutPhotograph");
    stands_ = new QLineEdit;
    lot_ = new QLineEdit;
    for (const auto& [field, id, name, width] :
         {std::tuple{stands_, "offcutStands", tr("where it stands"), 190}, {lot_, "offcutLot", tr("lot"), 90}}) {
        field->setObjectName(QString::fromLatin1(id));
        field->setAccessibleName(name);
        field->setPlaceholderText(name);
        field->setFixedWidth(width);
        connect(field, &QLineEdit::editingFinished, this, &RackView::describe);
    }
    row->addWidget(use_);
    row->addWidget(free_);
    row->addWidget(stands_);
    row->addWidget(lot_);
    row->addWidget(photograph_);
    row->addWidget(gone_);
    row->addWidget(picture_);
    auto* bar = new QWidget;
    bar->setLayout(row);
    column->addWidget(bar);
    connect(use_, &QPushButton::clicked, this, &RackView::useInHand);
    connect(free_, &QPushButton::clicked, this, [this] {
        if (const RackPiece* p = piece()) workshop_.freeByHand(p->number);
    });
    connect(gone_, &QPushButton::clicked, this, [this] {
        if (const RackPiece* p = piece()) workshop_.throwAway(std::string(p->number));
    });
    connect(photograph_, &QPushButton::clicked, this, [this] {
        const RackPiece* p = piece();
        if (!p) return;
        const QString path = QFileDialog::getOpenFileName(this, tr("A photograph of the offcut"), {},
                                                          tr("Photographs (*.jpg *.jpeg *.png *.webp)"));
        if (path.isEmpty()) return;
        RackPiece changed = *p;
        changed.photograph = path.toStdString();
        workshop_.describe(changed);
    });
    return handBar_;
}

void RackView::makeShelf() {
    shelf_->setColumnCount(ShelfColumns);
    shelf_->setHorizontalHeaderLabels(
        {tr("Number"), tr("What"), tr("How many"), tr("Lot"), tr("Goes off"), tr("Where it stands"), tr("For")});
    shelf_->verticalHeader()->hide();
    shelf_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    shelf_->horizontalHeader()->setStretchLastSection(true);
    shelf_->setSelectionBehavior(QAbstractItemView::SelectRows);
    shelf_->setShowGrid(false);
    shelf_->setFrameShape(QFrame::NoFrame);
    shelf_->setObjectName(QStringLiteral("shelf"));
    shelf_->setAccessibleName(tr("Packs and tins that were left"));
    shelf_->setMinimumHeight(104);
    shelf_->setMaximumHeight(150);
    shelf_->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    shelf_->verticalHeader()->setDefaultSectionSize(QFontMetrics(font()).height() + 8);
    connect(shelf_, &QTableWidget::cellChanged, this, [this](int row, int cell) {
        if (filling_) return;
        shelf_->setCurrentCell(row, cell);
        const KeptPack* known = pack();
        if (!known) return;
        KeptPack pack = *known;
        const std::string typed = shelf_->item(row, cell)->text().trimmed().toStdString();
        if (cell == Count) {
            const auto n = parseNumber(typed);
            if (!n || n.value() < 0 || n.value() > 100000)
                emit said(tr("So many packs; half a tin is 0.5, and 0 once it is used up."), true);
            else
                pack.count = n.value();
        } else if (cell == GoesOff) {
            const auto day = parseIsoDate(typed);
            if (!day && !typed.empty())
                emit said(tr("“%1” is no date; it is written 2027-03-13.").arg(QString::fromStdString(typed)), true);
            else
                pack.goesOff = day;
        } else if (cell == Lot)
            pack.lot = typed;
        else
            pack.stands = typed;
        if (pack == *known)
            fillShelf();
        else
            workshop_.put(pack);
    });
}

void RackView::fillShelf() {
    filling_ = true;
    const CivilDate today = document_.now().day;
    shelf_->setRowCount(0);
    for (const KeptPack& p : workshop_.book().packs) {
        if (!(p.count > 0)) continue;
        const int row = shelf_->rowCount();
        shelf_->insertRow(row);
        const bool mine = p.job == workshop_.jobId();
        const bool fixed[] = {true, true, false, false, false, false, true};
        const QString cells[] = {QString::fromStdString(p.number),
                                 QString::fromStdString(p.name),
                                 figures_.number(p.count, p.count == std::floor(p.count) ? 0 : 2),
                                 QString::fromStdString(p.lot),
                                 p.goesOff ? QString::fromStdString(isoDate(*p.goesOff)) : QString(),
                                 QString::fromStdString(p.stands),
                                 p.job.empty() ? QString()
                                 : mine        ? tr("this job")
                                               : QString::fromStdString(p.jobName)};
        for (int c = 0; c < ShelfColumns; ++c) {
            auto* item = new QTableWidgetItem(cells[c]);
            if (fixed[c]) item->setFlags(item->flags() & ~Qt::ItemIsEditable);
            if (goesOffWithin(p, today, kSoonDays)) {
                item->setForeground(Theme::now().pencil);
                item->setToolTip(goesOffWithin(p, today, -1) ? tr("It is past its date.")
                                                             : tr("It goes off within a month."));
            }
            shelf_->setItem(row, c, item);
        }
    }
    freePack_->hide();
    shelf_->setVisible(shelf_->rowCount() > 0);
    shelfName_->setVisible(shelf_->rowCount() > 0);
    filling_ = false;
}

QString RackView::servesText(const RackPiece& piece) const {
    QStringList parts;
    for (const RackServes& s : servesNow(document_.job(), document_.cuts(), piece)) {
        const Surface* surface = document_.job().surface(s.surface);
        parts << tr("%1: %n piece(s)", nullptr, s.pieces)
                     .arg(surface ? QString::fromStdString(surface->name) : tr("loose pieces"));
    }
    return parts.join(QStringLiteral(", "));
}

const KeptPack* RackView::pack() const {
    const QTableWidgetItem* number = shelf_->item(shelf_->currentRow(), Number);
    const auto& packs = workshop_.book().packs;
    const auto p = std::find_if(packs.begin(), packs.end(),
                                [&](const KeptPack& k) { return number && k.number == number->text().toStdString(); });
    return p == packs.end() ? nullptr : &*p;
}

const RackPiece* RackView::piece() const {
    const RackBoard::Card* card = board_->inHand();
    return card ? &card->piece : nullptr;
}

void RackView::show(const Figures& figures) {
    figures_ = figures;
    trouble_->setText(workshop_.trouble());
    trouble_->setVisible(!workshop_.trouble().isEmpty());
    anew_->setVisible(!workshop_.isOpen());
    const QString chosen = filter_->currentData().toString();
    std::vector<std::pair<QString, QString>> products;
    std::vector<RackBoard::Card> cards;
    for (const RackPiece& p : workshop_.book().rack) {
        if (p.state == RackPiece::State::Gone) continue;
        const bool mine = p.job == workshop_.jobId();
        if (p.state == RackPiece::State::Cut && !mine) continue;
        const QString identity = QString::fromStdString(p.product);
        if (std::none_of(products.begin(), products.end(), [&](const auto& x) { return x.second == identity; }))
            products.emplace_back(QString::fromStdString(p.name), identity);
        if (!chosen.isEmpty() && identity != chosen) continue;
        if (freeOnly_->isChecked() && p.state != RackPiece::State::Free) continue;
        RackBoard::Card card{.piece = p, .state = {}, .serves = {}, .mine = mine};
        switch (p.state) {
        case RackPiece::State::Free: card.state = tr("free"); break;
        case RackPiece::State::Cut: card.state = tr("cut for this job"); break;
        default: card.state = mine ? tr("in this job's plan") : tr("for %1").arg(QString::fromStdString(p.jobName));
        }
        if (p.state != RackPiece::State::Cut && (mine || p.state == RackPiece::State::Free))
            card.serves = servesText(p);
        cards.push_back(std::move(card));
    }
    std::sort(products.begin(), products.end());
    filter_->clear();
    filter_->addItem(tr("all products"), QString());
    for (const auto& [name, identity] : products) filter_->addItem(name, identity);
    filter_->setCurrentIndex(std::max(0, filter_->findData(chosen)));
    board_->show(std::move(cards), document_.job().catalogue, figures);
    showInHand();
    fillShelf();
}

void RackView::showInHand() {
    const RackBoard::Card* card = board_->inHand();
    handBar_->setVisible(card || board_->cards().empty());
    for (QWidget* w : {static_cast<QWidget*>(use_), static_cast<QWidget*>(free_), static_cast<QWidget*>(gone_),
                       static_cast<QWidget*>(photograph_), static_cast<QWidget*>(stands_), static_cast<QWidget*>(lot_)})
        w->setVisible(card);
    if (!card) {
        picture_->hide();
        hand_->setText(tr("Nothing stands here. In Cut, “Leftovers to the rack” puts on it what is worth keeping, and "
                          "every later job may cut from it."));
        return;
    }
    const RackPiece& p = card->piece;
    const bool known = findIdentity(document_.job().catalogue, p.product) != nullptr;
    QString text = tr("%1, %2, kept %3 from %4: %5.")
                       .arg(QString::fromStdString(p.number), QString::fromStdString(p.name), dayText(p.kept),
                            p.from.empty() ? tr("elsewhere") : QString::fromStdString(p.from), card->state);
    if (!card->serves.isEmpty()) text += QLatin1Char(' ') + tr("It could serve %1.").arg(card->serves);
    if (!known) text += QLatin1Char(' ') + tr("This job has no such product.");
    showPicture(p, text);
    hand_->setText(text);
    const bool reserved = p.state == RackPiece::State::Reserved;
    use_->setText(card->mine && reserved ? tr("Give it back") : tr("Cut from it in this job"));
    use_->setEnabled(workshop_.isWritable() && known &&
                     (p.state == RackPiece::State::Free || (card->mine && reserved)));
    free_->setVisible(reserved && !card->mine);
    gone_->setEnabled(workshop_.isWritable() && p.state == RackPiece::State::Free);
    if (!stands_->hasFocus()) stands_->setText(QString::fromStdString(p.stands));
    if (!lot_->hasFocus()) lot_->setText(QString::fromStdString(p.lot));
}

/// Its photograph, small; or why it is not there.
void RackView::showPicture(const RackPiece& p, QString& text) {
    const QString path = QString::fromStdString(p.photograph);
    if (path != pictureOf_) {
        pictureOf_ = path;
        pictureWhy_.clear();
        const QImage image = path.isEmpty() ? QImage() : readPhotograph(path, pictureWhy_, 2 * kPictureHeight);
        picture_->setPixmap(QPixmap::fromImage(
            image.isNull() ? image : image.scaledToHeight(kPictureHeight, Qt::SmoothTransformation)));
        picture_->setAccessibleName(image.isNull() ? QString() : tr("Its photograph"));
    }
    picture_->setVisible(!picture_->pixmap().isNull());
    if (!pictureWhy_.isEmpty()) text += QLatin1Char(' ') + pictureWhy_;
}

void RackView::useInHand() {
    const RackBoard::Card* card = board_->inHand();
    if (!card) return;
    const std::string number = card->piece.number;
    if (card->mine && card->piece.state == RackPiece::State::Reserved) {
        push(document_, workshop_.giveBack(number));
        workshop_.settle();
        return emit said(tr("%1 is free again.").arg(QString::fromStdString(number)), false);
    }
    QString why;
    Command command = workshop_.reserve(number, why);
    if (!command) return emit said(why, true);
    push(document_, std::move(command));
    workshop_.settle();
    emit said(
        tr("This job's plan draws on %1 first. Ticked as cut, it leaves the rack.").arg(QString::fromStdString(number)),
        false);
}

void RackView::describe() {
    const RackPiece* p = piece();
    if (!p) return;
    RackPiece changed = *p;
    changed.stands = stands_->text().trimmed().toStdString();
    changed.lot = lot_->text().trimmed().toStdString();
    if (changed != *p) workshop_.describe(changed);
}

void RackView::importFrom(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return emit said(file.errorString(), true);
    const QByteArray bytes = file.read(kLargestJobFile + 1);
    if (path.endsWith(QStringLiteral(".csv"), Qt::CaseInsensitive)) {
        RackReading read = readRackCsv(bytes, document_.now().day);
        const auto all = read.rack.size();
        std::erase_if(read.rack, [&](const RackPiece& p) {
            return std::none_of(document_.job().catalogue.products.begin(), document_.job().catalogue.products.end(),
                                [&](const Product& x) {
                                    return QString::fromStdString(x.name).compare(QString::fromStdString(p.name),
                                                                                  Qt::CaseInsensitive) == 0;
                                });
        });
        QString text = tr("%n offcut(s) taken in.", nullptr, static_cast<int>(read.rack.size()));
        if (all > read.rack.size())
            text += QLatin1Char(' ') + tr("%n left out: this job's catalogue has no product of that name.", nullptr,
                                          static_cast<int>(all - read.rack.size()));
        if (!read.faults.empty()) text += QLatin1Char(' ') + sentence(read.faults.front());
        const bool attention = !read.faults.empty() || all > read.rack.size();
        if (read.rack.empty() || workshop_.take(std::move(read.rack))) emit said(text, attention);
        return;
    }
    const auto book = readBook(bytes);
    if (!book) return emit said(sentence(book.error().front()), true);
    if (workshop_.merge(book.value()))
        emit said(tr("The book was taken in; what was here already stays as it is."), false);
}

void RackView::exportTo(const QString& path) {
    QString wrong;
    if (path.endsWith(QStringLiteral(".pdf"), Qt::CaseInsensitive)) {
        std::vector<RackPiece> pieces;
        for (const RackBoard::Card& c : board_->cards()) pieces.push_back(c.piece);
        if (pieces.empty()) return emit said(tr("There is no offcut here to make a label of."), true);
        wrong = printRackLabels(path, pieces, document_.job().catalogue, figures_);
    } else if (path.endsWith(QStringLiteral(".csv"), Qt::CaseInsensitive)) {
        // The other lists lie beside it.
        const QFileInfo info(path);
        const QString base = info.absolutePath() + QLatin1Char('/') + info.completeBaseName();
        const WorkshopBook& book = workshop_.book();
        wrong = saveBytes(path, rackAsCsv(book.rack));
        for (const auto& [name, bytes] : {std::pair{QStringLiteral("-packs.csv"), packsAsCsv(book.packs)},
                                          {QStringLiteral("-prices.csv"), pricesAsCsv(book.prices)},
                                          {QStringLiteral("-jobs.csv"), jobsAsCsv(book.jobs)}})
            if (wrong.isEmpty()) wrong = saveBytes(base + name, bytes);
    } else
        wrong = saveBytes(path, writeBook(workshop_.book()));
    emit said(wrong.isEmpty() ? tr("Written: %1.").arg(QFileInfo(path).fileName()) : wrong, !wrong.isEmpty());
}

} // namespace westrum
