#include "app/document/workshop.h"

#include "app/document/record_commands.h"
#include "app/document/set_value.h"
#include "core/plan/shelf.h"
#include "formats/demo.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QUuid>

#include <algorithm>
#include <utility>

namespace westrum {
namespace {

struct Words {
    Q_DECLARE_TR_FUNCTIONS(Workshop)
};

constexpr int kLookEveryMs = 3000;

auto listOf(const std::string& product) {
    return [product](auto& job) -> auto& {
        if constexpr (std::is_const_v<std::remove_reference_t<decltype(job)>>)
            return job.cutList(product);
        else
            return job.cutLists[product];
    };
}

auto shelfOf() {
    return [](auto& job) -> auto& { return job.shelf; };
}

std::string freeStockId(const CutList& list) {
    for (int n = 1;; ++n) {
        std::string id = "s" + std::to_string(n);
        if (std::none_of(list.stock.begin(), list.stock.end(), [&](const StockEntry& s) { return s.id == id; }))
            return id;
    }
}

/// A person of the book is put in place of another; undo puts the old one back.
class ChangePerson final : public QUndoCommand {
public:
    ChangePerson(Workshop& workshop, Person before, Person after)
        : workshop_(workshop), before_(std::move(before)), after_(std::move(after)) {
        setObsolete(before_ == after_);
    }
    void redo() override { workshop_.put(after_); }
    void undo() override { workshop_.put(before_); }

private:
    Workshop& workshop_;
    Person before_, after_;
};

} // namespace

QString sentence(const BookFault& fault) {
    using enum BookFault::Kind;
    switch (fault.kind) {
    case CannotOpen:
        return Words::tr("The workshop's book could not be opened (%1). This job works without it.").arg(fault.detail);
    case Damaged:
        return Words::tr("The workshop's book is damaged and is left as it is. This job works without it. The copy of "
                         "the day before lies beside it.");
    case Foreign: return Words::tr("The file in the place of the workshop's book is none. This job works without it.");
    case Newer:
        return Words::tr("The workshop's book was written by a newer Westrum and is left as it is. This job works "
                         "without it.");
    case ReadOnly: return Words::tr("The workshop's book can only be read: nothing is written into it.");
    case Full: return Words::tr("The disk is full: the workshop's book stays as it was. Nothing of this job is lost.");
    case Busy: return Words::tr("Another window is writing into the workshop's book. Nothing was written; try again.");
    case Taken: return Words::tr("Another job has %1.").arg(fault.detail);
    case NotThere: return Words::tr("%1 is not in this workshop's book.").arg(fault.detail);
    case Failed: return Words::tr("The workshop's book refused (%1). Nothing was written into it.").arg(fault.detail);
    }
    return {};
}

Workshop::Workshop(JobDocument& document, QString folder, QObject* parent)
    : QObject(parent), document_(document), folder_(std::move(folder)) {
    soon_.setSingleShot(true);
    soon_.setInterval(0);
    connect(&soon_, &QTimer::timeout, this, &Workshop::settle);
    often_.setInterval(kLookEveryMs);
    connect(&often_, &QTimer::timeout, this, &Workshop::look);
    often_.start();
    connect(&document_, &JobDocument::jobReplaced, this, [this] {
        letGo();
        openFor(document_.job());
    });
    connect(&document_, &JobDocument::saved, this, [this] {
        unsaved_ = false;
        if (isWritable()) did(file_.putFile(jobId(), QFileInfo(document_.path()).absoluteFilePath()));
    });
    connect(&document_, &JobDocument::jobChanged, this, [this](JobPart part) {
        if (part != JobPart::Cutting && part != JobPart::Log && part != JobPart::Buying && part != JobPart::Details)
            return;
        edited_ = true;
        soon_.start();
    });
    openFor(document_.job());
}

Workshop::~Workshop() {
    disconnect();
    letGo();
}

/// What a job reserved that no file holds, nobody could ever give back.
void Workshop::letGo() {
    if (std::exchange(unsaved_, false) && isWritable()) file_.use({lastId_, {}, {}, {}, {}});
}

/// A job's file that was copied has the number of the other: the copy gets one of its own, and the rack's offcuts stay
/// with the one that they were reserved for.
void Workshop::findCopy() {
    if (document_.path().isEmpty() || !isWritable() || jobId().starts_with(kExampleBookId)) return;
    const QString here = QFileInfo(document_.path()).absoluteFilePath(), known = file_.fileOf(jobId());
    if (known == here) return;
    if (known.isEmpty() || !QFileInfo::exists(known)) {
        did(file_.putFile(jobId(), here));
        return;
    }
    const std::string id = QUuid::createUuid().toString(QUuid::Id128).toStdString();
    document_.edit(JobPart::Work, {}, [&](Job& j) { j.bookId = id; });
    unsaved_ = true;
    emit told(Words::tr("This is a copy of %1. What that one has on the rack and the shelf stays with it.")
                  .arg(QFileInfo(known).fileName()),
              true);
}

void Workshop::openFor(const Job& job) {
    kept_.clear();
    prices_.clear();
    edited_ = false;
    refused_.clear();
    const bool example = job.bookId.starts_with(kExampleBookId);
    const QString wanted =
        folder_ + (example ? QStringLiteral("/examples.westrum-book") : QStringLiteral("/workshop.westrum-book"));
    if (job.bookId.empty()) {
        // A job gets its number the first time it is seen; nobody would want to undo that.
        const std::string id = QUuid::createUuid().toString(QUuid::Id128).toStdString();
        document_.edit(JobPart::Work, {}, [&](Job& j) { j.bookId = id; });
    }
    if (path_ != wanted || !file_.isOpen()) openBook(wanted);
    unsaved_ = document_.path().isEmpty() && !example;
    findCopy();
    lastId_ = jobId();
    if (example && isWritable() && book_ == WorkshopBook{}) did(file_.merge(exampleBook()));
    soon_.start();
}

void Workshop::openBook(const QString& path) {
    path_ = path;
    trouble_.clear();
    if (const auto fault = file_.open(path))
        trouble_ = sentence(*fault);
    else if (file_.isReadOnly())
        trouble_ = sentence(BookFault{BookFault::Kind::ReadOnly});
    reload();
    if (!trouble_.isEmpty()) emit told(trouble_, true);
}

void Workshop::beginAnew() {
    file_.close();
    const QString aside =
        path_ + QStringLiteral(".aside-") + QDateTime::currentDateTime().toString(QStringLiteral("yyyyMMdd-hhmmss"));
    for (const char* part : {"", "-wal", "-shm"}) {
        const QString suffix = QString::fromLatin1(part);
        if (QFileInfo::exists(path_ + suffix)) QFile::rename(path_ + suffix, aside + suffix);
    }
    openBook(path_);
}

void Workshop::look() {
    if (isOpen() && file_.othersChanges() != others_) reload();
}

void Workshop::reload() {
    others_ = isOpen() ? file_.othersChanges() : 0;
    book_ = file_.all();
    emit changed();
}

bool Workshop::did(const MaybeBookFault& fault) {
    if (fault) emit told(sentence(*fault), true);
    reload();
    return !fault;
}

void Workshop::settle() {
    soon_.stop();
    if (!isOpen()) return;
    std::set<std::string> inJob;
    for (const auto& [product, list] : document_.job().cutLists)
        for (const StockEntry& s : list.stock)
            if (!s.book.empty()) inJob.insert(s.book);
    if (isWritable()) settleKept(inJob);
    settleRack();
    if (isWritable() && edited_) settleFigures();
}

/// Offcuts that this job put on the rack come and go with undo and redo.
void Workshop::settleKept(const std::set<std::string>& inJob) {
    std::vector<RackPiece> again;
    std::set<std::string> undone;
    for (const auto& [number, piece] : kept_) {
        const bool there = std::any_of(book_.rack.begin(), book_.rack.end(),
                                       [&, n = number](const RackPiece& p) { return p.number == n; });
        if (inJob.contains(number) && !there) again.push_back(piece);
        if (!inJob.contains(number) && there) undone.insert(number);
    }
    if (!again.empty()) did(file_.keep(again));
    if (undone.empty()) return;
    // What this job had reserved of them is free first.
    const RackWish wish = rackWish(document_.job());
    const RackUse use{jobId(), document_.job().name, wish.reserved, wish.cut, wish.packs};
    if (!file_.use(use)) did(file_.strike(undone));
}

void Workshop::settleRack() {
    const RackWish wish = rackWish(document_.job());
    RackUse use{jobId(), document_.job().name, {}, {}, {}};
    QStringList taken, missing;
    const auto sort = [&](const std::set<std::string>& numbers, std::set<std::string>& into) {
        for (const std::string& n : numbers) {
            const auto p =
                std::find_if(book_.rack.begin(), book_.rack.end(), [&](const RackPiece& r) { return r.number == n; });
            if (p == book_.rack.end() || p->state == RackPiece::State::Gone)
                missing << QString::fromStdString(n);
            else if (p->state != RackPiece::State::Free && p->job != jobId())
                taken << Words::tr("%1 (%2)").arg(QString::fromStdString(n), QString::fromStdString(p->jobName));
            else
                into.insert(n);
        }
    };
    sort(wish.reserved, use.reserved);
    sort(wish.cut, use.cut);
    for (const std::string& n : wish.packs) {
        const auto p =
            std::find_if(book_.packs.begin(), book_.packs.end(), [&](const KeptPack& k) { return k.number == n; });
        if (p == book_.packs.end())
            missing << QString::fromStdString(n);
        else if (!p->job.empty() && p->job != jobId())
            taken << Words::tr("%1 (%2)").arg(QString::fromStdString(n), QString::fromStdString(p->jobName));
        else
            use.packs.insert(n);
    }
    QString refused;
    if (!taken.isEmpty())
        refused = Words::tr("Another job has %1: take it out of this job's stock, or free it on the rack.")
                      .arg(taken.join(QStringLiteral(", ")));
    else if (!missing.isEmpty())
        refused = Words::tr("Not on this workshop's rack or shelf: %1. The plan still reckons with it.")
                      .arg(missing.join(QStringLiteral(", ")));
    if (refused != refused_ && !refused.isEmpty()) emit told(refused, true);
    refused_ = refused;
    const bool differs = std::any_of(book_.rack.begin(), book_.rack.end(), [&](const RackPiece& p) {
        using enum RackPiece::State;
        const RackPiece::State wanted = use.cut.contains(p.number)        ? Cut
                                        : use.reserved.contains(p.number) ? Reserved
                                                                          : Free;
        const bool mine = p.job == jobId() && (p.state == Reserved || p.state == Cut);
        return wanted == Free ? mine : p.state != wanted || p.jobName != use.name;
    });
    const bool packsDiffer = std::any_of(book_.packs.begin(), book_.packs.end(), [&](const KeptPack& p) {
        const bool mine = p.job == jobId();
        return use.packs.contains(p.number) ? !mine || p.jobName != use.name : mine;
    });
    if ((differs || packsDiffer) && isWritable()) did(file_.use(use));
}

/// What was paid and what was left.
void Workshop::settleFigures() {
    const std::vector<PricePaid> prices = pricesPaid(document_.job(), document_.now().day);
    if (prices != prices_) {
        prices_ = prices;
        did(file_.putPrices(jobId(), prices));
    }
    std::set<std::string> left;
    for (const KeptPack& p : packsLeft(document_.job())) {
        left.insert(p.number);
        const bool there = std::any_of(book_.packs.begin(), book_.packs.end(),
                                       [&](const KeptPack& k) { return k.number == p.number; });
        if (!there && !did(file_.put(p))) return;
    }
    const std::string mine = "P-" + jobId().substr(0, 4) + "-";
    for (const KeptPack& p : std::vector<KeptPack>(book_.packs))
        if (p.number.starts_with(mine) && !left.contains(p.number)) did(file_.dropPack(p.number));
}

Command Workshop::keepOffcuts(const ProductCut& cut, std::size_t item, const std::string& name) {
    const Product* product = document_.job().catalogue.find(cut.product);
    std::vector<RackPiece> pieces;
    for (const Region& shape : offcutsOf(cut.items[item], cut.form)) {
        const Bounds b = boundsOf(shape);
        RackPiece p{.product = product ? productIdentity(*product) : std::string(),
                    .name = product ? product->name : cut.product,
                    .lengthMm = b.width(),
                    .widthMm = b.height(),
                    .kept = document_.now().day,
                    .from = document_.job().name};
        if (areaMm2(shape) < (1 - 1e-6) * b.width() * b.height()) p.shape = shape;
        for (const RecordEntry& e : document_.job().record)
            if (e.kind == EntryKind::Delivery && e.product == cut.product) p.lot = e.lot;
        pieces.push_back(std::move(p));
    }
    const bool inBook = isWritable() && !pieces.empty() && did(file_.keep(pieces));
    const QString what = tr("Leftovers to the rack");
    CutList list = document_.job().cutList(cut.product);
    std::vector<RecordEntry> entries;
    for (const RackPiece& p : pieces) {
        StockEntry entry = stockOf(p, freeStockId(list));
        if (!inBook) entry.name = name;
        if (inBook) kept_[p.number] = p;
        list.stock.push_back(std::move(entry));
        RecordEntry e = entryNow(document_, EntryKind::OffcutKept);
        e.product = cut.product;
        e.amount = 1;
        e.lot = p.lot;
        e.piece = inBook ? p.number : name;
        entries.push_back(std::move(e));
    }
    std::vector<Command> parts;
    parts.push_back(setValue(what, document_, JobPart::Cutting, std::string(), listOf(cut.product), std::move(list)));
    if (!entries.empty()) parts.push_back(addEntries(document_, std::move(entries)));
    return together(what, std::move(parts));
}

Command Workshop::reserve(const std::string& number, QString& why) {
    look();
    const auto p =
        std::find_if(book_.rack.begin(), book_.rack.end(), [&](const RackPiece& r) { return r.number == number; });
    if (p == book_.rack.end()) {
        why = sentence(BookFault{BookFault::Kind::NotThere, QString::fromStdString(number)});
        return {};
    }
    if (p->state != RackPiece::State::Free && p->job != jobId()) {
        why = tr("“%1” has the offcut %2.").arg(QString::fromStdString(p->jobName), QString::fromStdString(number));
        return {};
    }
    const Product* product = findIdentity(document_.job().catalogue, p->product);
    if (!product) {
        why = tr("This job has no %1 in its catalogue.").arg(QString::fromStdString(p->name));
        return {};
    }
    CutList list = document_.job().cutList(product->id);
    const auto known =
        std::find_if(list.stock.begin(), list.stock.end(), [&](const StockEntry& s) { return s.book == number; });
    if (known != list.stock.end())
        known->used = true;
    else
        list.stock.push_back(stockOf(*p, freeStockId(list)));
    return setValue(tr("Use an offcut of the rack"), document_, JobPart::Cutting, std::string(), listOf(product->id),
                    std::move(list));
}

Command Workshop::giveBack(const std::string& number) {
    const QString what = tr("Give an offcut back");
    std::vector<Command> parts;
    for (const auto& [product, stock] : document_.job().cutLists) {
        CutList list = stock;
        for (const StockEntry& s : stock.stock)
            if (s.book == number)
                std::erase_if(list.kept, [&](const KeptItem& k) { return k.stock == s.id && !k.locked; });
        // One that this job put there itself stays in its list, and is left out of the plan.
        for (StockEntry& s : list.stock)
            if (s.book == number) s.used = false;
        if (!kept_.contains(number)) std::erase_if(list.stock, [&](const StockEntry& s) { return s.book == number; });
        if (list != stock)
            parts.push_back(
                setValue(what, document_, JobPart::Cutting, std::string(), listOf(product), std::move(list)));
    }
    return together(what, std::move(parts));
}

std::vector<const KeptPack*> Workshop::onShelf(const Product& product) const {
    std::vector<const KeptPack*> packs;
    const std::string identity = productIdentity(product);
    for (const KeptPack& p : book_.packs)
        if (p.product == identity && p.count > 0 && (p.job.empty() || p.job == jobId()) &&
            !goesOffWithin(p, document_.now().day, -1))
            packs.push_back(&p);
    return packs;
}

Command Workshop::useShelf(const std::string& product, QString& why) {
    look();
    const Product* sold = document_.job().catalogue.find(product);
    std::vector<ShelfPack> shelf = document_.job().shelf;
    std::erase_if(shelf, [&](const ShelfPack& s) { return s.product == product; });
    const std::size_t others = shelf.size();
    if (sold && servesFromShelf(*sold))
        for (const KeptPack* p : onShelf(*sold)) shelf.push_back({product, p->count, p->number});
    if (shelf.size() == others) {
        why = tr("Nothing of it stands on the shelf that this job could use.");
        return {};
    }
    return setValue(tr("Use what is on the shelf"), document_, JobPart::Buying, std::string(), shelfOf(),
                    std::move(shelf));
}

Command Workshop::leaveShelf(const std::string& product) {
    std::vector<ShelfPack> shelf = document_.job().shelf;
    std::erase_if(shelf, [&](const ShelfPack& s) { return s.product == product; });
    return setValue(tr("Leave it on the shelf"), document_, JobPart::Buying, std::string(), shelfOf(),
                    std::move(shelf));
}

const Person* Workshop::person() const {
    const std::string& name = document_.job().work.person;
    const auto p =
        std::find_if(book_.people.begin(), book_.people.end(), [&](const Person& x) { return x.name == name; });
    return p == book_.people.end() ? nullptr : &*p;
}

Command Workshop::takeRateToo(const RateOffer& offer) {
    Command forJob = takeRate(document_, offer);
    const std::string& name = document_.job().work.person;
    if (name.empty() || !isWritable()) return forJob;
    const Person before = person() ? *person() : Person{.name = name};
    std::vector<Command> parts;
    const QString what = forJob->text();
    parts.push_back(std::move(forJob));
    const Job with = withRate(document_.job(), offer);
    parts.push_back(std::make_unique<ChangePerson>(*this, before, personOf(document_.job(), with, before)));
    return together(what, std::move(parts));
}

Command Workshop::takeFromBook(const BookRate& rate) {
    return changeRates(document_, tr("Take a rate from the book"), withRatesOf(document_.job(), rate.alone));
}

Command Workshop::choosePerson(const std::string& name) {
    Job with = document_.job();
    with.work.person = name;
    return changeRates(document_, tr("Say whose hands"), with);
}

bool Workshop::describe(const RackPiece& piece) { return did(file_.describe(piece)); }

bool Workshop::freeByHand(const std::string& number) { return did(file_.free(number)); }

bool Workshop::throwAway(const std::string& number) { return did(file_.strike({number})); }

bool Workshop::put(const KeptPack& pack) { return did(file_.put(pack)); }

bool Workshop::freePack(const std::string& number) { return did(file_.freePack(number)); }

bool Workshop::put(const Person& person) { return did(file_.put(person)); }

bool Workshop::writeDone(const JobDone& done) { return did(file_.put(done)); }

bool Workshop::keepBody(const BodyShape& body) { return did(file_.put(body)); }

bool Workshop::dropBody(const std::string& name) { return did(file_.dropBody(name)); }

bool Workshop::take(std::vector<RackPiece> pieces) {
    for (RackPiece& p : pieces)
        for (const Product& product : document_.job().catalogue.products)
            if (p.product.empty() &&
                QString::fromStdString(product.name).compare(QString::fromStdString(p.name), Qt::CaseInsensitive) == 0)
                p.product = productIdentity(product);
    return did(file_.keep(pieces));
}

bool Workshop::merge(const WorkshopBook& other) { return did(file_.merge(other)); }

} // namespace westrum
