#include "app/stages/log/entries_view.h"

#include "app/document/record_commands.h"
#include "app/document/set_value.h"
#include "app/document/shell_commands.h"
#include "app/drawing/theme.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/photograph.h"
#include "core/families/family.h"
#include "formats/record_words.h"
#include "formats/work_words.h"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QHeaderView>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

namespace westrum {
namespace {

const QString kOfPiece = QStringLiteral("#piece");

} // namespace

void EntryModel::show(const Job& job, std::shared_ptr<const Plan> plan, const Figures& figures,
                      const std::optional<std::string>& surface, std::optional<EntryKind> kind) {
    beginResetModel();
    job_ = job;
    plan_ = std::move(plan);
    figures_ = figures;
    shown_.clear();
    for (std::size_t i = 0; i < job_.record.size(); ++i) {
        const RecordEntry& e = job_.record[i];
        if ((!surface || e.surface == *surface) && (!kind || e.kind == *kind)) shown_.push_back(i);
    }
    std::stable_sort(shown_.begin(), shown_.end(), [&](std::size_t a, std::size_t b) {
        const WorkedTime &x = job_.record[a].when, &y = job_.record[b].when;
        return std::pair(x.day, x.to) > std::pair(y.day, y.to);
    });
    endResetModel();
}

int EntryModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(shown_.size());
}

const RecordEntry* EntryModel::entry(int row) const {
    return row >= 0 && row < static_cast<int>(shown_.size()) ? &job_.record[shown_[static_cast<std::size_t>(row)]]
                                                             : nullptr;
}

QVariant EntryModel::data(const QModelIndex& index, int role) const {
    const RecordEntry* e = entry(index.row());
    if (!e) return {};
    if (role == Qt::DisplayRole) {
        if (index.column() == 0) {
            const RecordEntry* above = entry(index.row() - 1);
            return !above || above->when.day != e->when.day ? dayText(e->when.day) : QString();
        }
        if (index.column() == 1)
            return e->when.to > e->when.from ? tr("%1 to %2").arg(clockText(e->when.from), clockText(e->when.to))
                                             : clockText(e->when.to);
        return entryText(job_, *plan_, *e, figures_);
    }
    if (role == Qt::ForegroundRole && e->kind == EntryKind::PieceSpoilt) return Theme::now().pencil;
    if (role == Qt::FontRole && (e->kind == EntryKind::PieceSpoilt || e->kind == EntryKind::Difference))
        return textFont(1.0, true);
    return {};
}

EntriesView::EntriesView(JobDocument& document, Workshop& workshop, QWidget* parent)
    : QWidget(parent),
      document_(document),
      workshop_(workshop),
      model_(new EntryModel(this)),
      list_(new QTableView),
      here_(new QPushButton(tr("This surface only"))),
      strike_(new QPushButton(tr("Strike it"))),
      write_(new QPushButton(tr("Write it down"))),
      choose_(new QPushButton(tr("Choose …"))),
      lay_(new QPushButton(tr("Lay it over the supports"))),
      take_(new QPushButton(tr("Put it into the reading"))),
      filter_(new QComboBox),
      kind_(new QComboBox),
      product_(new QComboBox),
      reason_(new QComboBox),
      reading_(new QComboBox),
      strip_(new DayStrip(document)),
      photograph_(new PhotographPane(document)),
      amount_(new QLineEdit),
      text_(new QLineEdit),
      amountName_(new QLabel) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto* row = new FlowRow;
    row->setContentsMargins(0, 0, 0, 0);
    const auto put = [&](QWidget* w, const char* id, const QString& name) {
        w->setObjectName(QString::fromLatin1(id));
        w->setAccessibleName(name);
        row->addWidget(w);
    };
    kind_->addItem(entryKindText(EntryKind::PieceSpoilt), static_cast<int>(EntryKind::PieceSpoilt));
    for (const EntryKind k : {EntryKind::OffcutKept, EntryKind::Opened, EntryKind::Emptied, EntryKind::ThrownAway,
                              EntryKind::LeftOver, EntryKind::Delivery, EntryKind::Climate, EntryKind::Weighed,
                              EntryKind::Difference, EntryKind::Photograph, EntryKind::BrokenOff, EntryKind::Note})
        kind_->addItem(entryKindText(k), static_cast<int>(k));
    for (int r = kSpoilReasons - 1; r >= 0; --r) reason_->addItem(reasonText(static_cast<SpoilReason>(r)), r);
    put(kind_, "entryKind", tr("What happened"));
    product_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    product_->setMinimumContentsLength(16);
    put(product_, "entryProduct", tr("Of which product"));
    put(reason_, "entryReason", tr("Why it was spoilt"));
    put(reading_, "entryReading", tr("Which reading it is about"));
    put(choose_, "choosePhotograph", tr("Choose a photograph"));
    row->addWidget(amountName_);
    amount_->setFixedWidth(70);
    put(amount_, "entryAmount", tr("How many, how much"));
    text_->setFixedWidth(190);
    put(text_, "entryText", tr("Words"));
    put(write_, "writeEntry", tr("Write it down"));
    auto* form = new QWidget;
    form->setLayout(row);
    column->addWidget(form);
    list_->setModel(model_);
    list_->horizontalHeader()->hide();
    list_->verticalHeader()->hide();
    list_->verticalHeader()->setDefaultSectionSize(QFontMetrics(font()).height() + 8);
    list_->verticalHeader()->setSectionResizeMode(QHeaderView::Fixed); // 50 000 rows are not measured one by one
    list_->horizontalHeader()->setStretchLastSection(true);
    list_->setColumnWidth(0, QFontMetrics(font()).horizontalAdvance(tr("Wed 29 September ")));
    list_->setColumnWidth(1, QFontMetrics(font()).horizontalAdvance(tr("00:00 to 00:00 ")) + 12);
    list_->setShowGrid(false);
    list_->setSelectionBehavior(QAbstractItemView::SelectRows);
    list_->setSelectionMode(QAbstractItemView::SingleSelection);
    list_->setObjectName(QStringLiteral("entries"));
    list_->setAccessibleName(tr("What happened"));
    list_->setFrameShape(QFrame::NoFrame);
    column->addWidget(strip_);
    auto* middle = new QHBoxLayout;
    middle->addWidget(list_, 3);
    middle->addWidget(photograph_, 2);
    column->addLayout(middle, 1);
    auto* foot = new FlowRow;
    foot->setContentsMargins(0, 0, 0, 0);
    here_->setCheckable(true);
    here_->setObjectName(QStringLiteral("entriesHere"));
    strike_->setObjectName(QStringLiteral("strikeEntry"));
    filter_->setObjectName(QStringLiteral("entryFilter"));
    filter_->setAccessibleName(tr("Which entries"));
    filter_->addItem(tr("everything"), -1);
    for (int k = 0; k < kEntryKinds; ++k) filter_->addItem(entryKindText(static_cast<EntryKind>(k)), k);
    foot->addWidget(here_);
    foot->addWidget(filter_);
    foot->addWidget(strike_);
    lay_->setObjectName(QStringLiteral("layPhotograph"));
    take_->setObjectName(QStringLiteral("takeDifference"));
    foot->addWidget(lay_);
    foot->addWidget(take_);
    auto* bar = new QWidget;
    bar->setLayout(foot);
    column->addWidget(bar);
    connect(kind_, &QComboBox::currentIndexChanged, this, &EntriesView::showForm);
    connect(reading_, &QComboBox::currentIndexChanged, this, &EntriesView::showForm);
    connect(write_, &QPushButton::clicked, this, &EntriesView::write);
    connect(text_, &QLineEdit::returnPressed, this, &EntriesView::write);
    connect(amount_, &QLineEdit::returnPressed, this, &EntriesView::write);
    connect(strike_, &QPushButton::clicked, this, &EntriesView::strike);
    connect(here_, &QPushButton::clicked, this, [this] { show(figures_); });
    connect(filter_, &QComboBox::currentIndexChanged, this, [this] { show(figures_); });
    connect(list_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, &EntriesView::showInHand);
    connect(lay_, &QPushButton::clicked, photograph_, &PhotographPane::beginLaying);
    connect(strip_, &DayStrip::picked, this, &EntriesView::takeInHand);
    connect(photograph_, &PhotographPane::said, this, &EntriesView::said);
    connect(take_, &QPushButton::clicked, this, &EntriesView::takeDifference);
    connect(choose_, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getOpenFileName(this, tr("A photograph"), QFileInfo(document_.path()).path(),
                                                          tr("Photographs (*.jpg *.jpeg *.png *.webp)"));
        if (!path.isEmpty()) writePhotograph(path);
    });
    showForm();
    showInHand();
}

bool EntriesView::ofPiece() const { return reading_->currentData().toString() == kOfPiece; }

void EntriesView::showForm() {
    const auto kind = static_cast<EntryKind>(kind_->currentData().toInt());
    const bool ofProduct = kind == EntryKind::PieceSpoilt || kind == EntryKind::OffcutKept ||
                           kind == EntryKind::Opened || kind == EntryKind::Emptied || kind == EntryKind::LeftOver ||
                           kind == EntryKind::Delivery || kind == EntryKind::ThrownAway;
    product_->setVisible(ofProduct);
    reason_->setVisible(kind == EntryKind::PieceSpoilt);
    const bool amount = kind != EntryKind::Note && kind != EntryKind::Photograph && kind != EntryKind::PieceSpoilt &&
                        kind != EntryKind::OffcutKept && kind != EntryKind::BrokenOff;
    reading_->setVisible(kind == EntryKind::Difference);
    choose_->setVisible(kind == EntryKind::Photograph);
    amount_->setVisible(amount);
    amountName_->setVisible(amount);
    amountName_->setText(kind == EntryKind::Climate      ? tr("°C")
                         : kind == EntryKind::Weighed    ? tr("kg")
                         : kind == EntryKind::Difference ? tr("off by")
                                                         : tr("how many"));
    text_->setPlaceholderText(kind == EntryKind::PieceSpoilt  ? tr("which piece")
                              : kind == EntryKind::OffcutKept ? tr("size, and where it stands")
                              : kind == EntryKind::Delivery   ? tr("lot")
                              : kind == EntryKind::Climate    ? tr("humidity, %")
                              : kind == EntryKind::Difference ? (ofPiece() ? tr("which piece") : tr("where"))
                              : kind == EntryKind::Photograph ? tr("file beside the job")
                                                              : tr("what"));
}

QString EntriesView::refusal(RecordEntry& e) const {
    const QString text = text_->text().trimmed();
    e.product = product_->isVisible() ? product_->currentData().toString().toStdString() : std::string();
    if (amount_->isVisible()) {
        const std::string typed = amount_->text().trimmed().toStdString();
        if (e.kind == EntryKind::Difference) {
            const auto length = parseLength(typed, document_.job().bareUnit);
            if (!length) return westrum::sentence(length.error(), amount_->text());
            e.by = length.value();
        } else {
            const auto n = parseNumber(typed);
            if (!n) return westrum::sentence(n.error(), amount_->text());
            if (e.kind == EntryKind::Climate) {
                if (n.value() < -60 || n.value() > 90) return tr("A temperature in °C.");
                e.degC = n.value();
            } else {
                if (n.value() <= 0 || n.value() > 100000) return tr("More than nothing, and no more than 100000.");
                e.amount = n.value();
            }
        }
    }
    if (e.kind == EntryKind::PieceSpoilt) {
        e.piece = text.toStdString();
        e.amount = 1;
        e.reason = static_cast<SpoilReason>(reason_->currentData().toInt());
    } else if (e.kind == EntryKind::OffcutKept) {
        e.amount = 1;
        e.text = text.toStdString();
    } else if (e.kind == EntryKind::Delivery)
        e.lot = text.toStdString();
    else if (e.kind == EntryKind::Climate && !text.isEmpty()) {
        const auto n = parseNumber(text.toStdString());
        if (!n || n.value() < 0 || n.value() > 100) return tr("Humidity is from 0 to 100 %.");
        e.humidity = n.value();
    } else
        e.text = text.toStdString();
    if (e.kind == EntryKind::Difference && ofPiece()) {
        if (text.isEmpty()) return tr("Which piece came out other than it was drawn?");
        e.piece = std::exchange(e.text, {});
    } else if (e.kind == EntryKind::Difference)
        e.step = reading_->currentData().toString().toStdString();
    if (e.kind == EntryKind::BrokenOff && e.text.empty()) return tr("Which step was broken off?");
    if (e.kind == EntryKind::Note && e.text.empty()) return tr("There is nothing to write down yet.");
    if (e.kind == EntryKind::Photograph && e.text.empty()) return tr("Which file? It is looked for beside the job.");
    return {};
}

void EntriesView::write() {
    RecordEntry e = entryNow(document_, static_cast<EntryKind>(kind_->currentData().toInt()));
    e.surface = document_.currentSurface();
    if (const QString why = refusal(e); !why.isEmpty()) return emit said(why, true);
    amount_->clear();
    text_->clear();
    const RecordEntry written = e;
    std::vector<RecordEntry> one;
    one.push_back(std::move(e));
    push(document_, written.kind == EntryKind::PieceSpoilt ? spoilPiece(document_, std::move(one.front()))
                                                           : addEntries(document_, std::move(one)));
    sayWhatFollows(written);
}

/// What it asks for is said at once.
void EntriesView::sayWhatFollows(const RecordEntry& e) {
    const Job& job = document_.job();
    if (e.kind == EntryKind::Emptied) {
        const Product* product = job.catalogue.find(e.product);
        const auto c = emptiedConsequence(job, *document_.plan(), e.product);
        if (c && product) return emit said(emptiedText(*c, product->name, figures_), c->more > 0);
    }
    if (e.kind != EntryKind::PieceSpoilt) return emit said(tr("Written down."), false);
    Mm length, width;
    if (const SurfacePlan* s = document_.plan()->surface(e.surface))
        for (const LayerPlan& l : s->layers)
            if (l.product == e.product)
                for (const Piece& p : l.setOut.pieces)
                    if (pieceText(p.name).toStdString() == e.piece) {
                        length = p.length;
                        width = p.width;
                    }
    const SpoilConsequence c =
        spoilConsequence(job, *document_.plan(), e.product, length, width, workshop_.book().rack);
    std::optional<CivilDate> day;
    if (document_.work()) day = nextBuyingDay(document_.work()->question, document_.work()->plan);
    std::optional<SpoilDelay> delay;
    if (const auto work = document_.work(); work && c.from == SpoilConsequence::MustBuy)
        delay = spoilDelay(job, *document_.plan(), work->question, work->plan, e.product, e.surface);
    emit said(consequenceText(c, day, delay, figures_), c.from == SpoilConsequence::MustBuy);
}

void EntriesView::writePhotograph(const QString& path) {
    QString why;
    if (readPhotograph(path, why, 64).isNull()) return emit said(why, true);
    RecordEntry e = entryNow(document_, EntryKind::Photograph);
    e.surface = document_.currentSurface();
    e.text = (document_.path().isEmpty() ? QFileInfo(path).absoluteFilePath()
                                         : QFileInfo(document_.path()).dir().relativeFilePath(path))
                 .toStdString();
    std::vector<RecordEntry> one;
    one.push_back(std::move(e));
    push(document_, addEntries(document_, std::move(one)));
    list_->selectRow(0);
    emit said(document_.path().isEmpty()
                  ? tr("Written down. Once the job is saved beside it, it is found wherever the two go.")
                  : tr("Written down."),
              false);
}

void EntriesView::takeDifference() {
    const RecordEntry* e = model_->entry(list_->currentIndex().row());
    const Surface* s = e ? document_.job().surface(e->surface) : nullptr;
    const MaybeReading* reading = s ? findReading(*s, e->step) : nullptr;
    if (!reading || !*reading) return emit said(tr("That reading is not there any more: correct it in Measure."), true);
    const Mm now = (*reading)->length + e->by;
    if (!(now.value > 0)) return emit said(tr("Nothing would be left of that reading."), true);
    RecordEntry taken = *e;
    taken.amount = 1;
    const std::string typed = figures_.fineLength(now).toStdString();
    const QString what = tr("Put a difference into the readings");
    std::vector<Command> parts;
    parts.push_back(takeReading(document_, s->id, e->step, Reading{typed, now}));
    parts.push_back(correctEntry(document_, taken));
    const QString name = QString::fromStdString(s->name), of = readingName(e->step);
    push(document_, together(what, std::move(parts)));
    emit said(tr("%1, %2: %3 from now on.").arg(name, of, figures_.fineLength(now)), false);
}

void EntriesView::takeInHand(std::int64_t id) {
    for (int row = 0; row < model_->rowCount(); ++row)
        if (model_->entry(row)->id == id) {
            list_->selectRow(row);
            list_->scrollTo(model_->index(row, 0));
            return;
        }
}

void EntriesView::showInHand() {
    const RecordEntry* e = model_->entry(list_->currentIndex().row());
    // With none in hand the newest day.
    strip_->show(e ? e : model_->entry(0), figures_);
    const bool picture = e && e->kind == EntryKind::Photograph;
    photograph_->setVisible(picture);
    lay_->setVisible(picture);
    photograph_->show(picture ? e : nullptr, figures_);
    take_->setVisible(e && e->kind == EntryKind::Difference && !e->step.empty());
    take_->setEnabled(e && e->amount == 0);
    take_->setToolTip(e && e->amount > 0 ? tr("It is in the reading already") : QString());
    strike_->setEnabled(e);
}

void EntriesView::strike() {
    const RecordEntry* e = model_->entry(list_->currentIndex().row());
    if (!e) return emit said(tr("Press the entry that is to go."), true);
    push(document_, removeEntry(document_, e->id));
}

void EntriesView::show(const Figures& figures) {
    figures_ = figures;
    document_.askWork();
    const Job& job = document_.job();
    const RecordEntry* current = model_->entry(list_->currentIndex().row());
    const std::optional<std::int64_t> inHand = current ? std::optional(current->id) : std::nullopt;
    const QString chosen = product_->currentData().toString();
    std::vector<std::pair<QString, QString>> products;
    for (const Purchase& p : document_.plan()->purchases)
        if (const Product* sold = job.catalogue.find(p.product))
            products.emplace_back(QString::fromStdString(sold->name), QString::fromStdString(sold->id));
    std::sort(products.begin(), products.end());
    products.erase(std::unique(products.begin(), products.end()), products.end());
    product_->clear();
    for (const auto& [name, id] : products) product_->addItem(name, id);
    int at = product_->findData(chosen);
    if (std::exchange(formFor_, document_.currentSurface()) != document_.currentSurface() || at < 0)
        for (const bool faces : {false, true}) // what is seen, or else the outermost that is bought
            for (const Layer& l : job.finish(document_.currentSurface()).layers) {
                const Product* sold = job.catalogue.find(l.product);
                const Family* family = sold ? familyOf(sold->family) : nullptr;
                const int own = product_->findData(QString::fromStdString(l.product));
                if (own >= 0 && (!faces || (family && family->product.role == LayerRole::Finish))) at = own;
            }
    product_->setCurrentIndex(std::max(0, at));
    const int kind = filter_->currentData().toInt();
    model_->show(job, document_.plan(), figures,
                 here_->isChecked() ? std::optional(document_.currentSurface()) : std::nullopt,
                 kind < 0 ? std::nullopt : std::optional(static_cast<EntryKind>(kind)));
    if (inHand) // the entry in hand stays in hand
        takeInHand(*inHand);
    const QString of = reading_->currentData().toString();
    reading_->clear();
    reading_->addItem(tr("no reading"), QString());
    reading_->addItem(tr("a piece, at its dry fit"), kOfPiece);
    if (const Surface* s = job.surface(document_.currentSurface()))
        for (const std::string& key : readingKeys(s->measurement))
            if (const MaybeReading* r = findReading(*s, key); r && *r)
                reading_->addItem(readingName(key), QString::fromStdString(key));
    reading_->setCurrentIndex(std::max(0, reading_->findData(of)));
    showForm();
    showInHand();
}

} // namespace westrum
