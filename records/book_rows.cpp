#include "records/book_rows.h"

#include <QStringList>

namespace westrum {
namespace {

CivilDate day(const QVariant& v) { return parseIsoDate(text(v)).value_or(CivilDate{2000, 1, 1}); }
QString day(const CivilDate& date) { return text(isoDate(date)); }

Money money(const QVariant& minor, const QVariant& code) {
    return {minor.toLongLong(), currencyOf(text(code)).value_or(Currency{})};
}

bool run(QSqlQuery& query, const char* statement, const QVariantList& values) {
    if (!query.prepare(QString::fromLatin1(statement))) return false;
    for (const QVariant& v : values) query.addBindValue(v);
    return query.exec();
}

/// Calls `take` for every row; what a statement cannot read gives none.
void rows(QSqlQuery& query, const char* statement, const auto& take) {
    if (!query.exec(QString::fromLatin1(statement))) return;
    while (query.next()) take();
    query.finish();
}

} // namespace

QString writtenShape(const Region& shape) {
    if (shape.empty()) return QStringLiteral(""); // none, but a text all the same
    QStringList rings;
    for (const Ring& ring : shape.rings) {
        QStringList points;
        for (const Point& p : ring)
            points << QString::number(p.x, 'g', 12) + QLatin1Char(' ') + QString::number(p.y, 'g', 12);
        rings << points.join(QLatin1Char(';'));
    }
    return rings.join(QLatin1Char('/'));
}

Region readShape(const QString& written) {
    Region shape;
    if (written.isEmpty()) return shape;
    for (const QString& part : written.split(QLatin1Char('/'))) {
        Ring ring;
        for (const QString& point : part.split(QLatin1Char(';'))) {
            bool x = false, y = false;
            const Point p{point.section(QLatin1Char(' '), 0, 0).toDouble(&x),
                          point.section(QLatin1Char(' '), 1).toDouble(&y)};
            if (!x || !y) return {};
            ring.push_back(p);
        }
        if (ring.size() < 3) return {};
        shape.rings.push_back(std::move(ring));
    }
    return shape;
}

std::vector<RackPiece> readRack(QSqlQuery& q) {
    std::vector<RackPiece> rack;
    rows(q,
         "SELECT number, product, name, length_mm, width_mm, shape, lot, stands, photograph, kept, from_job, state, "
         "job, "
         "job_name FROM offcut ORDER BY rowid",
         [&] {
             RackPiece p{.number = text(q.value(0)),
                         .product = text(q.value(1)),
                         .name = text(q.value(2)),
                         .lengthMm = q.value(3).toDouble(),
                         .widthMm = q.value(4).toDouble(),
                         .shape = readShape(q.value(5).toString()),
                         .lot = text(q.value(6)),
                         .stands = text(q.value(7)),
                         .photograph = text(q.value(8)),
                         .kept = day(q.value(9)),
                         .from = text(q.value(10)),
                         .job = text(q.value(12)),
                         .jobName = text(q.value(13))};
             p.state = static_cast<RackPiece::State>(q.value(11).toInt());
             rack.push_back(std::move(p));
         });
    return rack;
}

std::vector<Person> readPeople(QSqlQuery& q) {
    std::vector<Person> people;
    const auto find = [&](const std::string& name) -> Person* {
        for (Person& p : people)
            if (p.name == name) return &p;
        return nullptr;
    };
    rows(q, "SELECT name, practised, spoil_chance, reading_error_mm FROM person ORDER BY rowid", [&] {
        Person p{.name = text(q.value(0)), .practised = q.value(1).toBool()};
        if (!q.value(2).isNull()) p.spoilChance = q.value(2).toDouble();
        if (!q.value(3).isNull()) p.readingErrorMm = q.value(3).toDouble();
        people.push_back(std::move(p));
    });
    rows(q, "SELECT person, family, per_m2, per_piece FROM person_hours", [&] {
        if (Person* p = find(text(q.value(0))))
            p->hours[text(q.value(1))] = {q.value(2).toDouble(), q.value(3).toDouble()};
    });
    rows(q, "SELECT person, product, m2 FROM person_coverage", [&] {
        if (Person* p = find(text(q.value(0)))) p->coverage[text(q.value(1))] = q.value(2).toDouble();
    });
    rows(q, "SELECT person, product, share FROM person_waste", [&] {
        if (Person* p = find(text(q.value(0)))) p->waste[text(q.value(1))] = q.value(2).toDouble();
    });
    return people;
}

std::vector<KeptPack> readPacks(QSqlQuery& q) {
    std::vector<KeptPack> packs;
    rows(q,
         "SELECT number, product, name, count, opened, lot, stands, kept, goes_off, from_job, job, job_name FROM pack "
         "ORDER BY rowid",
         [&] {
             KeptPack p{.number = text(q.value(0)),
                        .product = text(q.value(1)),
                        .name = text(q.value(2)),
                        .count = q.value(3).toDouble(),
                        .opened = q.value(4).toBool(),
                        .lot = text(q.value(5)),
                        .stands = text(q.value(6)),
                        .kept = day(q.value(7)),
                        .from = text(q.value(9)),
                        .job = text(q.value(10)),
                        .jobName = text(q.value(11))};
             if (!q.value(8).isNull()) p.goesOff = day(q.value(8));
             packs.push_back(std::move(p));
         });
    return packs;
}

std::vector<JobDone> readJobs(QSqlQuery& q) {
    std::vector<JobDone> jobs;
    rows(q,
         "SELECT id, name, vehicle, day, area_m2, mass_kg, cost, currency, hours_planned, hours_really, waste_share "
         "FROM "
         "job ORDER BY day, rowid",
         [&] {
             JobDone j{.id = text(q.value(0)),
                       .name = text(q.value(1)),
                       .vehicle = text(q.value(2)),
                       .day = day(q.value(3)),
                       .areaM2 = q.value(4).toDouble(),
                       .massKg = q.value(5).toDouble(),
                       .hoursPlanned = q.value(8).toDouble(),
                       .hoursReally = q.value(9).toDouble(),
                       .wasteShare = q.value(10).toDouble()};
             if (!q.value(6).isNull()) j.cost = money(q.value(6), q.value(7));
             jobs.push_back(std::move(j));
         });
    return jobs;
}

std::vector<PricePaid> readPrices(QSqlQuery& q) {
    std::vector<PricePaid> prices;
    rows(q, "SELECT day, product, name, supplier, packs, paid, currency, job_name FROM price ORDER BY day, rowid", [&] {
        prices.push_back({day(q.value(0)), text(q.value(1)), text(q.value(2)), text(q.value(3)), q.value(4).toDouble(),
                          money(q.value(5), q.value(6)), text(q.value(7))});
    });
    return prices;
}

std::vector<BodyShape> readBodies(QSqlQuery& q) {
    std::vector<BodyShape> bodies;
    rows(q, "SELECT name, day, surfaces, shell FROM body ORDER BY rowid", [&] {
        bodies.push_back({text(q.value(0)), day(q.value(1)), q.value(2).toInt(), text(q.value(3))});
    });
    return bodies;
}

bool insertPiece(QSqlQuery& q, const RackPiece& p) {
    return run(q,
               "INSERT INTO offcut (number, product, name, length_mm, width_mm, shape, lot, stands, photograph, kept, "
               "from_job, state, job, job_name) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
               {text(p.number), text(p.product), text(p.name), p.lengthMm, p.widthMm, writtenShape(p.shape),
                text(p.lot), text(p.stands), text(p.photograph), day(p.kept), text(p.from), static_cast<int>(p.state),
                text(p.job), text(p.jobName)});
}

bool writePerson(QSqlQuery& q, const Person& p) {
    const QString name = text(p.name);
    bool well =
        run(q,
            "INSERT INTO person (name, practised, spoil_chance, reading_error_mm) VALUES (?, ?, ?, ?) ON CONFLICT "
            "(name) "
            "DO UPDATE SET practised = excluded.practised, spoil_chance = excluded.spoil_chance, reading_error_mm = "
            "excluded.reading_error_mm",
            {name, p.practised, p.spoilChance ? QVariant(*p.spoilChance) : QVariant(),
             p.readingErrorMm ? QVariant(*p.readingErrorMm) : QVariant()}) &&
        run(q, "DELETE FROM person_hours WHERE person = ?", {name}) &&
        run(q, "DELETE FROM person_coverage WHERE person = ?", {name}) &&
        run(q, "DELETE FROM person_waste WHERE person = ?", {name});
    for (const auto& [family, rate] : p.hours)
        well = well && run(q, "INSERT INTO person_hours (person, family, per_m2, per_piece) VALUES (?, ?, ?, ?)",
                           {name, text(family), rate.perM2, rate.perPiece});
    for (const auto& [product, m2] : p.coverage)
        well = well &&
               run(q, "INSERT INTO person_coverage (person, product, m2) VALUES (?, ?, ?)", {name, text(product), m2});
    for (const auto& [product, share] : p.waste)
        well = well && run(q, "INSERT INTO person_waste (person, product, share) VALUES (?, ?, ?)",
                           {name, text(product), share});
    return well;
}

bool writePack(QSqlQuery& q, const KeptPack& p) {
    return run(q,
               "INSERT INTO pack (number, product, name, count, opened, lot, stands, kept, goes_off, from_job, job, "
               "job_name) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) "
               "ON CONFLICT (number) DO UPDATE SET product = excluded.product, name = "
               "excluded.name, count = excluded.count, opened = excluded.opened, lot = "
               "excluded.lot, stands = excluded.stands, kept = excluded.kept, goes_off = "
               "excluded.goes_off, from_job = excluded.from_job",
               {text(p.number), text(p.product), text(p.name), p.count, p.opened, text(p.lot), text(p.stands),
                day(p.kept), p.goesOff ? QVariant(day(*p.goesOff)) : QVariant(), text(p.from), text(p.job),
                text(p.jobName)});
}

bool writeJob(QSqlQuery& q, const JobDone& j) {
    return run(q,
               "INSERT INTO job (id, name, vehicle, day, area_m2, mass_kg, cost, currency, hours_planned, "
               "hours_really, waste_share) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) "
               "ON CONFLICT (id) DO UPDATE SET name = excluded.name, vehicle = excluded.vehicle, "
               "day = excluded.day, area_m2 = excluded.area_m2, mass_kg = excluded.mass_kg, cost "
               "= excluded.cost, currency = excluded.currency, hours_planned = "
               "excluded.hours_planned, hours_really = excluded.hours_really, waste_share = "
               "excluded.waste_share",
               {text(j.id), text(j.name), text(j.vehicle), day(j.day), j.areaM2, j.massKg,
                j.cost ? QVariant(qlonglong(j.cost->minor)) : QVariant(),
                j.cost ? QVariant(text(j.cost->currency.name())) : QVariant(), j.hoursPlanned, j.hoursReally,
                j.wasteShare});
}

bool writePrice(QSqlQuery& q, const std::string& jobId, const PricePaid& p) {
    return run(
        q,
        "INSERT INTO price (day, product, name, supplier, packs, paid, currency, job, job_name) VALUES (?, ?, ?, "
        "?, ?, ?, ?, ?, ?)",
        {day(p.day), text(p.product), text(p.name), text(p.supplier), p.packs, qlonglong(p.paid.minor),
         text(p.paid.currency.name()), text(jobId), text(p.job)});
}

bool writeBody(QSqlQuery& q, const BodyShape& b) {
    return run(q,
               "INSERT INTO body (name, day, surfaces, shell) VALUES (?, ?, ?, ?) "
               "ON CONFLICT (name) DO UPDATE SET day = excluded.day, surfaces = "
               "excluded.surfaces, shell = excluded.shell",
               {text(b.name), day(b.day), b.surfaces, text(b.shell)});
}

} // namespace westrum
