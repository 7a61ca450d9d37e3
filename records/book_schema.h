#pragma once

#include <QSqlDatabase>
#include <QStringList>

#include <vector>

namespace westrum {

/// Written into every book, so that no other database is taken for one: "WSTB".
inline constexpr int kBookMark = 0x57535442;

/// The statements that lead from each version of the book's tables to the next; the first begin an empty book. What was
/// released is never changed: docs/formats/book.md tells the tables.
const std::vector<QStringList>& bookMigrations();
int newestBookVersion();

/// Runs the statements from one version to another; false: what failed stands in `failed`.
bool migrateBook(QSqlDatabase& database, int from, int to, QString& failed);

} // namespace westrum
