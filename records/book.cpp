#include "records/book.h"

#include "records/book_rows.h"
#include "records/book_schema.h"

#include <QAtomicInt>
#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QSqlError>
#include <QSqlQuery>
#include <QUrl>

#include <algorithm>

namespace westrum {
namespace {

using Kind = BookFault::Kind;

// Result codes of SQLite; the lower byte of its extended ones.
BookFault faultOf(const QSqlError& error) {
    constexpr int kBusy = 5, kLocked = 6, kReadOnly = 8, kCorrupt = 11, kFull = 13, kCannotOpen = 14,
                  kNotADatabase = 26;
    bool known = false;
    const int code = error.nativeErrorCode().toInt(&known) & 0xff;
    const QString said = error.databaseText();
    switch (known ? code : 0) {
    case kBusy:
    case kLocked: return {Kind::Busy};
    case kReadOnly: return {Kind::ReadOnly};
    case kCorrupt:
    case kNotADatabase: return {Kind::Damaged, said};
    case kFull: return {Kind::Full};
    case kCannotOpen: return {Kind::CannotOpen, said};
    default: return {Kind::Failed, said};
    }
}

QVariant valueOf(QSqlQuery& query, const QString& statement) {
    const QVariant value = query.exec(statement) && query.next() ? query.value(0) : QVariant();
    query.finish();
    return value;
}

QString quoted(QString path) {
    return QLatin1Char('\'') + path.replace(QLatin1Char('\''), QLatin1String("''")) + QLatin1Char('\'');
}

/// A whole copy beside the book, in place of the one that was there; false: it could not be made.
bool copyAside(QSqlDatabase& database, const QString& to) {
    const QString aside = to + QStringLiteral(".part");
    QFile::remove(aside);
    QSqlQuery query(database);
    if (!query.exec(QStringLiteral("VACUUM INTO ") + quoted(aside))) {
        QFile::remove(aside);
        return false;
    }
    QFile::remove(to);
    return QFile::rename(aside, to);
}

std::string nextNumber(QSqlQuery& query, const QString& kind, const QString& prefix, const QString& table) {
    for (;;) {
        query.prepare(
            QStringLiteral("INSERT INTO counter (kind, last) VALUES (?, 1) ON CONFLICT (kind) DO UPDATE SET last "
                           "= last + 1 RETURNING last"));
        query.addBindValue(kind);
        if (!query.exec() || !query.next()) return {};
        const QString number = prefix + query.value(0).toString();
        query.finish();
        query.prepare(QStringLiteral("SELECT 1 FROM %1 WHERE number = ?").arg(table));
        query.addBindValue(number);
        if (!query.exec()) return {};
        const bool there = query.next(); // one that came from another book
        query.finish();
        if (!there) return number.toStdString();
    }
}

} // namespace

Book::Book() {
    static QAtomicInt count;
    connection_ = QStringLiteral("westrum-book-%1").arg(count.fetchAndAddRelaxed(1));
}

Book::~Book() { close(); }

void Book::close() {
    if (!database_.isValid()) return;
    database_.close();
    database_ = {};
    QSqlDatabase::removeDatabase(connection_);
    path_.clear();
    readOnly_ = false;
}

MaybeBookFault Book::open(const QString& path, Way way) {
    close();
    const QFileInfo info(path);
    if (info.exists() && !info.isFile()) return BookFault{Kind::CannotOpen, path};
    const bool readOnly = way == Way::ReadOnly || (info.exists() && !info.isWritable());
    if (!info.exists() && !QDir().mkpath(info.absolutePath())) return BookFault{Kind::CannotOpen, info.absolutePath()};
    database_ = QSqlDatabase::addDatabase(QStringLiteral("QSQLITE"), connection_);
    if (!database_.isValid()) {
        close();
        return BookFault{Kind::CannotOpen, QStringLiteral("no driver")};
    }
    path_ = path;
    MaybeBookFault fault = checkedOpen(readOnly);
    // Where nothing may be written beside it either, it is read as it stands.
    if (fault && (fault->kind == Kind::ReadOnly || (fault->kind == Kind::CannotOpen && info.exists())))
        fault = checkedOpen(true);
    if (fault) close();
    return fault;
}

MaybeBookFault Book::checkedOpen(bool readOnly) {
    database_.close();
    readOnly_ = readOnly;
    const QString path = QFileInfo(path_).absoluteFilePath();
    database_.setConnectOptions(QStringLiteral("QSQLITE_OPEN_URI;QSQLITE_BUSY_TIMEOUT=3000"));
    const QString uri = QStringLiteral("file:") + QString::fromLatin1(QUrl::toPercentEncoding(path, "/"));
    database_.setDatabaseName(uri + (readOnly ? QStringLiteral("?immutable=1") : QString()));
    if (!database_.open()) return faultOf(database_.lastError());
    QSqlQuery query(database_);
    if (!query.exec(QStringLiteral("PRAGMA quick_check"))) return faultOf(query.lastError());
    if (!query.next() || query.value(0).toString() != QLatin1String("ok"))
        return BookFault{Kind::Damaged, query.value(0).toString()};
    query.finish();
    const int mark = valueOf(query, QStringLiteral("PRAGMA application_id")).toInt();
    const int version = valueOf(query, QStringLiteral("PRAGMA user_version")).toInt();
    const int tables = valueOf(query, QStringLiteral("SELECT count(*) FROM sqlite_master")).toInt();
    if (mark != kBookMark && (mark != 0 || version != 0 || tables != 0)) return BookFault{Kind::Foreign};
    if (version > newestBookVersion()) return BookFault{Kind::Newer, QString::number(version)};
    if (readOnly) return version == newestBookVersion() ? MaybeBookFault() : BookFault{Kind::ReadOnly};
    if (!query.exec(QStringLiteral("PRAGMA journal_mode = WAL"))) return faultOf(query.lastError());
    query.finish();
    for (const char* pragma : {"PRAGMA synchronous = FULL", "PRAGMA foreign_keys = ON"})
        if (!query.exec(QString::fromLatin1(pragma))) return faultOf(query.lastError());
    if (version < newestBookVersion()) {
        if (version > 0 && !copyAside(database_, path_ + QStringLiteral(".version-%1").arg(version)))
            return faultOf(query.lastError().isValid() ? query.lastError() : QSqlError());
        QString failed;
        if (!migrateBook(database_, version, newestBookVersion(), failed)) return BookFault{Kind::Failed, failed};
    }
    // Once a day a copy is laid aside.
    const QString copy = path_ + QLatin1Char('~');
    if (version == newestBookVersion() && QFileInfo(copy).lastModified().date() != QDate::currentDate())
        copyAside(database_, copy);
    return {};
}

qint64 Book::othersChanges() const {
    QSqlQuery query(database_);
    return valueOf(query, QStringLiteral("PRAGMA data_version")).toLongLong();
}

WorkshopBook Book::all() const {
    if (!isOpen()) return {};
    QSqlQuery query(database_);
    const bool snapshot = query.exec(QStringLiteral("BEGIN"));
    WorkshopBook book{readPeople(query), readRack(query),   readPacks(query),
                      readJobs(query),   readPrices(query), readBodies(query)};
    if (snapshot) query.exec(QStringLiteral("COMMIT"));
    return book;
}

std::vector<RackPiece> Book::rack() const {
    QSqlQuery query(database_);
    return isOpen() ? readRack(query) : std::vector<RackPiece>{};
}
std::vector<Person> Book::people() const {
    QSqlQuery query(database_);
    return isOpen() ? readPeople(query) : std::vector<Person>{};
}
std::vector<BodyShape> Book::bodies() const {
    QSqlQuery query(database_);
    return isOpen() ? readBodies(query) : std::vector<BodyShape>{};
}

/// One change: `work(query)` returns a fault, or nothing; what it did stays only if it returned none and the book took
/// it whole.
MaybeBookFault Book::change(const auto& work) {
    if (!isOpen()) return BookFault{Kind::CannotOpen};
    if (readOnly_) return BookFault{Kind::ReadOnly};
    QSqlQuery query(database_);
    if (!query.exec(QStringLiteral("BEGIN IMMEDIATE"))) return faultOf(query.lastError());
    MaybeBookFault fault = work(query);
    query.finish();
    if (!fault && !query.exec(QStringLiteral("COMMIT"))) fault = faultOf(query.lastError());
    if (fault) query.exec(QStringLiteral("ROLLBACK"));
    return fault;
}

namespace {

/// What a statement said, if it failed.
MaybeBookFault checked(QSqlQuery& query, bool well) {
    if (well) return {};
    return faultOf(query.lastError());
}

bool run(QSqlQuery& query, const QString& statement, const QVariantList& values) {
    if (!query.prepare(statement)) return false;
    for (const QVariant& v : values) query.addBindValue(v);
    return query.exec();
}

bool isThere(QSqlQuery& query, const QString& table, const QString& column, const std::string& value) {
    const bool there =
        run(query, QStringLiteral("SELECT 1 FROM %1 WHERE %2 = ?").arg(table, column), {text(value)}) && query.next();
    query.finish();
    return there;
}

} // namespace

MaybeBookFault Book::keep(std::vector<RackPiece>& pieces) {
    std::vector<RackPiece> kept = pieces;
    const MaybeBookFault fault = change([&](QSqlQuery& q) -> MaybeBookFault {
        for (RackPiece& p : kept) {
            if (p.number.empty())
                p.number = nextNumber(q, QStringLiteral("offcut"), QStringLiteral("R"), QStringLiteral("offcut"));
            if (p.number.empty()) return faultOf(q.lastError());
            if (isThere(q, QStringLiteral("offcut"), QStringLiteral("number"), p.number)) continue;
            if (auto f = checked(q, insertPiece(q, p))) return f;
        }
        return {};
    });
    if (!fault) pieces = std::move(kept);
    return fault;
}

MaybeBookFault Book::describe(const RackPiece& p) {
    return change([&](QSqlQuery& q) -> MaybeBookFault {
        const bool well =
            run(q, QStringLiteral("UPDATE offcut SET lot = ?, stands = ?, photograph = ? WHERE number = ?"),
                {text(p.lot), text(p.stands), text(p.photograph), text(p.number)});
        if (well && q.numRowsAffected() == 0) return BookFault{Kind::NotThere, text(p.number)};
        return checked(q, well);
    });
}

namespace {

/// The same for packs: they are reserved or free.
MaybeBookFault usePacks(QSqlQuery& q, const RackUse& use) {
    const std::vector<KeptPack> packs = readPacks(q);
    for (const std::string& number : use.packs) {
        const auto p = std::find_if(packs.begin(), packs.end(), [&](const KeptPack& k) { return k.number == number; });
        if (p == packs.end()) return BookFault{Kind::NotThere, text(number)};
        if (!p->job.empty() && p->job != use.job) return BookFault{Kind::Taken, text(number)};
        if (p->job == use.job && p->jobName == use.name) continue;
        if (!run(q, QStringLiteral("UPDATE pack SET job = ?, job_name = ? WHERE number = ?"),
                 {text(use.job), text(use.name), text(number)}))
            return faultOf(q.lastError());
    }
    for (const KeptPack& p : packs)
        if (p.job == use.job && !use.packs.contains(p.number) &&
            !run(q, QStringLiteral("UPDATE pack SET job = '', job_name = '' WHERE number = ?"), {text(p.number)}))
            return faultOf(q.lastError());
    return {};
}

} // namespace

MaybeBookFault Book::use(const RackUse& use) {
    return change([&](QSqlQuery& q) -> MaybeBookFault {
        std::vector<RackPiece> rack = readRack(q);
        const auto take = [&](const std::string& number, RackPiece::State state) -> MaybeBookFault {
            const auto p =
                std::find_if(rack.begin(), rack.end(), [&](const RackPiece& r) { return r.number == number; });
            if (p == rack.end() || p->state == RackPiece::State::Gone) return BookFault{Kind::NotThere, text(number)};
            if (p->state != RackPiece::State::Free && p->job != use.job) return BookFault{Kind::Taken, text(number)};
            if (p->state == state && p->job == use.job && p->jobName == use.name) return {};
            return checked(q,
                           run(q, QStringLiteral("UPDATE offcut SET state = ?, job = ?, job_name = ? WHERE number = ?"),
                               {static_cast<int>(state), text(use.job), text(use.name), text(number)}));
        };
        for (const std::string& number : use.reserved)
            if (!use.cut.contains(number))
                if (auto f = take(number, RackPiece::State::Reserved)) return f;
        for (const std::string& number : use.cut)
            if (auto f = take(number, RackPiece::State::Cut)) return f;
        for (const RackPiece& p : rack)
            if (p.job == use.job && (p.state == RackPiece::State::Reserved || p.state == RackPiece::State::Cut) &&
                !use.reserved.contains(p.number) && !use.cut.contains(p.number))
                if (!run(q, QStringLiteral("UPDATE offcut SET state = 0, job = '', job_name = '' WHERE number = ?"),
                         {text(p.number)}))
                    return faultOf(q.lastError());
        return usePacks(q, use);
    });
}

MaybeBookFault Book::strike(const std::set<std::string>& numbers) {
    return change([&](QSqlQuery& q) -> MaybeBookFault {
        for (const std::string& number : numbers) {
            if (!run(q, QStringLiteral("DELETE FROM offcut WHERE number = ? AND state IN (0, 3)"), {text(number)}))
                return faultOf(q.lastError());
            if (q.numRowsAffected() == 0 && isThere(q, QStringLiteral("offcut"), QStringLiteral("number"), number))
                return BookFault{Kind::Taken, text(number)};
        }
        return {};
    });
}

MaybeBookFault Book::free(const std::string& number) {
    return change([&](QSqlQuery& q) -> MaybeBookFault {
        const bool well = run(
            q, QStringLiteral("UPDATE offcut SET state = 0, job = '', job_name = '' WHERE number = ?"), {text(number)});
        if (well && q.numRowsAffected() == 0) return BookFault{Kind::NotThere, text(number)};
        return checked(q, well);
    });
}

MaybeBookFault Book::put(const Person& person) {
    return change([&](QSqlQuery& q) { return checked(q, writePerson(q, person)); });
}

MaybeBookFault Book::put(KeptPack pack) {
    return change([&](QSqlQuery& q) -> MaybeBookFault {
        if (pack.number.empty())
            pack.number = nextNumber(q, QStringLiteral("pack"), QStringLiteral("P"), QStringLiteral("pack"));
        if (pack.number.empty()) return faultOf(q.lastError());
        return checked(q, writePack(q, pack));
    });
}

MaybeBookFault Book::put(const JobDone& job) {
    return change([&](QSqlQuery& q) { return checked(q, writeJob(q, job)); });
}

MaybeBookFault Book::put(const BodyShape& body) {
    return change([&](QSqlQuery& q) { return checked(q, writeBody(q, body)); });
}

MaybeBookFault Book::putPrices(const std::string& job, const std::vector<PricePaid>& prices) {
    return change([&](QSqlQuery& q) -> MaybeBookFault {
        if (!run(q, QStringLiteral("DELETE FROM price WHERE job = ?"), {text(job)})) return faultOf(q.lastError());
        for (const PricePaid& p : prices)
            if (!writePrice(q, job, p)) return faultOf(q.lastError());
        return {};
    });
}

MaybeBookFault Book::dropPack(const std::string& number) {
    return change([&](QSqlQuery& q) {
        return checked(q, run(q, QStringLiteral("DELETE FROM pack WHERE number = ?"), {text(number)}));
    });
}

MaybeBookFault Book::freePack(const std::string& number) {
    return change([&](QSqlQuery& q) -> MaybeBookFault {
        const bool well =
            run(q, QStringLiteral("UPDATE pack SET job = '', job_name = '' WHERE number = ?"), {text(number)});
        if (well && q.numRowsAffected() == 0) return BookFault{Kind::NotThere, text(number)};
        return checked(q, well);
    });
}

QString Book::fileOf(const std::string& job) const {
    QSqlQuery q(database_);
    const bool there =
        isOpen() && run(q, QStringLiteral("SELECT path FROM job_file WHERE id = ?"), {text(job)}) && q.next();
    return there ? q.value(0).toString() : QString();
}

MaybeBookFault Book::putFile(const std::string& job, const QString& path) {
    return change([&](QSqlQuery& q) {
        return checked(q, run(q,
                              QStringLiteral("INSERT INTO job_file (id, path) VALUES (?, ?) ON CONFLICT (id) DO UPDATE "
                                             "SET path = excluded.path"),
                              {text(job), path}));
    });
}

MaybeBookFault Book::dropBody(const std::string& name) {
    return change([&](QSqlQuery& q) {
        return checked(q, run(q, QStringLiteral("DELETE FROM body WHERE name = ?"), {text(name)}));
    });
}

MaybeBookFault Book::merge(const WorkshopBook& other) {
    return change([&](QSqlQuery& q) -> MaybeBookFault {
        const auto missing = [&](const char* table, const char* column, const std::string& value) {
            return !isThere(q, QString::fromLatin1(table), QString::fromLatin1(column), value);
        };
        // The first that fails ends it: what the database says is of the last statement.
        const auto all = [&](const auto& list, const char* table, const char* column, const auto& keyOf,
                             const auto& write) {
            for (const auto& x : list)
                if (missing(table, column, keyOf(x)) && !write(q, x)) return false;
            return true;
        };
        const auto number = [](const auto& x) { return x.number; };
        const auto name = [](const auto& x) { return x.name; };
        bool well = all(other.people, "person", "name", name, writePerson) &&
                    all(other.rack, "offcut", "number", number, insertPiece) &&
                    all(other.packs, "pack", "number", number, writePack) &&
                    all(
                        other.jobs, "job", "id", [](const JobDone& j) { return j.id; }, writeJob) &&
                    all(other.bodies, "body", "name", name, writeBody);
        if (!well) return faultOf(q.lastError());
        // Prices have no key of their own: one that is the same in every respect is there already.
        const std::vector<PricePaid> here = readPrices(q);
        for (const PricePaid& p : other.prices)
            if (std::find(here.begin(), here.end(), p) == here.end()) well = well && writePrice(q, {}, p);
        return checked(q, well);
    });
}

void Book::limitPages(int pages) { QSqlQuery(database_).exec(QStringLiteral("PRAGMA max_page_count = %1").arg(pages)); }

} // namespace westrum
