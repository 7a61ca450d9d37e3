#pragma once

#include "core/record/workshop.h"

#include <QSqlQuery>
#include <QString>
#include <QVariant>

namespace westrum {

// How what the book holds lies in its tables.

inline QString text(const std::string& s) { return QString::fromStdString(s); }
inline std::string text(const QVariant& v) { return v.toString().toStdString(); }
/// An outline as it is written into a cell, and back; what cannot be read is none.
QString writtenShape(const Region& shape);
Region readShape(const QString& text);

std::vector<RackPiece> readRack(QSqlQuery& query);
std::vector<Person> readPeople(QSqlQuery& query);
std::vector<KeptPack> readPacks(QSqlQuery& query);
std::vector<JobDone> readJobs(QSqlQuery& query);
std::vector<PricePaid> readPrices(QSqlQuery& query);
std::vector<BodyShape> readBodies(QSqlQuery& query);

/// False: the database refused, and query.lastError() says why.
bool insertPiece(QSqlQuery& query, const RackPiece& piece);
bool writePerson(QSqlQuery& query, const Person& person);
bool writePack(QSqlQuery& query, const KeptPack& pack);
bool writeJob(QSqlQuery& query, const JobDone& job);
bool writePrice(QSqlQuery& query, const std::string& jobId, const PricePaid& price);
bool writeBody(QSqlQuery& query, const BodyShape& body);

} // namespace westrum
