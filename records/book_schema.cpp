#include "records/book_schema.h"

#include <QSqlError>
#include <QSqlQuery>

#include <algorithm>

namespace westrum {

const std::vector<QStringList>& bookMigrations() {
    static const std::vector<QStringList> kMigrations{
        // 1: people with their rates, and the rack
        {QStringLiteral("CREATE TABLE person (name TEXT PRIMARY KEY, practised INTEGER NOT NULL, spoil_chance REAL)"),
         QStringLiteral(
             "CREATE TABLE person_hours (person TEXT NOT NULL REFERENCES person ON DELETE CASCADE, family TEXT "
             "NOT NULL, per_m2 REAL NOT NULL, per_piece REAL NOT NULL, PRIMARY KEY (person, family))"),
         QStringLiteral(
             "CREATE TABLE person_coverage (person TEXT NOT NULL REFERENCES person ON DELETE CASCADE, product "
             "TEXT NOT NULL, m2 REAL NOT NULL, PRIMARY KEY (person, product))"),
         QStringLiteral(
             "CREATE TABLE offcut (number TEXT PRIMARY KEY, product TEXT NOT NULL, name TEXT NOT NULL, "
             "length_mm REAL NOT NULL, width_mm REAL NOT NULL, shape TEXT NOT NULL, lot TEXT NOT NULL, stands "
             "TEXT NOT NULL, kept TEXT NOT NULL, from_job TEXT NOT NULL, state INTEGER NOT NULL, job TEXT NOT "
             "NULL, job_name TEXT NOT NULL, CHECK (state BETWEEN 0 AND 3))"),
         QStringLiteral("CREATE INDEX offcut_of_job ON offcut (job)"),
         // A number that was written on something is never given again.
         QStringLiteral("CREATE TABLE counter (kind TEXT PRIMARY KEY, last INTEGER NOT NULL)")},
        // 2: what was left, what was done, what was paid
        {QStringLiteral(
             "CREATE TABLE pack (number TEXT PRIMARY KEY, product TEXT NOT NULL, name TEXT NOT NULL, count REAL "
             "NOT NULL, opened INTEGER NOT NULL, lot TEXT NOT NULL, stands TEXT NOT NULL, kept TEXT NOT NULL, "
             "goes_off TEXT, from_job TEXT NOT NULL)"),
         QStringLiteral(
             "CREATE TABLE job (id TEXT PRIMARY KEY, name TEXT NOT NULL, vehicle TEXT NOT NULL, day TEXT NOT "
             "NULL, area_m2 REAL NOT NULL, mass_kg REAL NOT NULL, cost INTEGER, currency TEXT, hours_planned "
             "REAL NOT NULL, hours_really REAL NOT NULL, waste_share REAL NOT NULL)"),
         QStringLiteral(
             "CREATE TABLE price (day TEXT NOT NULL, product TEXT NOT NULL, name TEXT NOT NULL, supplier TEXT "
             "NOT NULL, packs REAL NOT NULL, paid INTEGER NOT NULL, currency TEXT NOT NULL, job TEXT NOT "
             "NULL, job_name TEXT NOT NULL)"),
         QStringLiteral("CREATE INDEX price_of_product ON price (product, day)")},
        // 3: bodies, and photographs of offcuts
        {QStringLiteral("CREATE TABLE body (name TEXT PRIMARY KEY, day TEXT NOT NULL, surfaces INTEGER NOT NULL, shell "
                        "TEXT NOT NULL)"),
         QStringLiteral("ALTER TABLE offcut ADD COLUMN photograph TEXT NOT NULL DEFAULT ''")},
        // 4: packs that a job means to use, more rates, and where a job's file was last
        {QStringLiteral("ALTER TABLE pack ADD COLUMN job TEXT NOT NULL DEFAULT ''"),
         QStringLiteral("ALTER TABLE pack ADD COLUMN job_name TEXT NOT NULL DEFAULT ''"),
         QStringLiteral("ALTER TABLE person ADD COLUMN reading_error_mm REAL"),
         QStringLiteral(
             "CREATE TABLE person_waste (person TEXT NOT NULL REFERENCES person ON DELETE CASCADE, product TEXT "
             "NOT NULL, share REAL NOT NULL, PRIMARY KEY (person, product))"),
         QStringLiteral("CREATE TABLE job_file (id TEXT PRIMARY KEY, path TEXT NOT NULL)")},
    };
    return kMigrations;
}

int newestBookVersion() { return static_cast<int>(bookMigrations().size()); }

bool migrateBook(QSqlDatabase& database, int from, int to, QString& failed) {
    QSqlQuery query(database);
    const auto run = [&](const QString& statement) {
        if (query.exec(statement)) return true;
        failed = query.lastError().text();
        return false;
    };
    if (!run(QStringLiteral("BEGIN IMMEDIATE"))) return false;
    bool well = true;
    // Another window may have been quicker.
    if (query.exec(QStringLiteral("PRAGMA user_version")) && query.next())
        from = std::max(from, query.value(0).toInt());
    query.finish();
    for (int version = from; well && version < to; ++version)
        for (const QString& statement : bookMigrations()[static_cast<std::size_t>(version)])
            well = well && run(statement);
    // Both marks are part of the transaction.
    well = well && run(QStringLiteral("PRAGMA application_id = %1").arg(kBookMark)) &&
           run(QStringLiteral("PRAGMA user_version = %1").arg(to)) && run(QStringLiteral("COMMIT"));
    if (!well) query.exec(QStringLiteral("ROLLBACK"));
    return well;
}

} // namespace westrum
