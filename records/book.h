#pragma once

#include "core/record/workshop.h"

#include <QSqlDatabase>
#include <QString>

#include <memory>
#include <optional>
#include <set>
#include <string>
#include <vector>

namespace westrum {

/// Why the book did not do as it was asked. Nothing of it is changed then, and no job hangs on it.
struct BookFault {
    enum class Kind {
        CannotOpen, ///< {detail}: what the system said
        Damaged,    ///< no database any more, or its pages contradict each other
        Foreign,    ///< a database, but no book of ours
        Newer,      ///< of a later version of the program: {detail}
        ReadOnly,
        Full,     ///< no room on the disk
        Busy,     ///< another window writes all the time
        Taken,    ///< {detail}: an offcut or a pack that another job has
        NotThere, ///< {detail}: an offcut or a pack that is not in the book
        Failed,   ///< {detail}: what the database said
    };
    Kind kind{};
    QString detail{};
    friend bool operator==(const BookFault&, const BookFault&) = default;
};
using MaybeBookFault = std::optional<BookFault>;

/// What a job does with the rack: which of its offcuts its plan draws on, and which of these it has cut.
struct RackUse {
    std::string job, name;               ///< of the job: its id in the book, and how it is called
    std::set<std::string> reserved, cut; ///< numbers; one that is cut is not reserved too
    std::set<std::string> packs{};       ///< numbers of packs that it means to use
};

/// The workshop's book: one file of SQLite. Every change is one transaction; several windows may have it open, one
/// writes at a time.
class Book {
public:
    Book();
    ~Book();
    Book(const Book&) = delete;
    Book& operator=(const Book&) = delete;

    /// Opens a book, or begins one where there is none. One of an earlier version is copied aside and brought up to
    /// date. A book that cannot be written to is opened to be read.
    enum class Way { Write, ReadOnly };
    MaybeBookFault open(const QString& path, Way way = Way::Write);
    void close();
    [[nodiscard]] bool isOpen() const { return database_.isOpen(); }
    [[nodiscard]] bool isReadOnly() const { return readOnly_; }
    [[nodiscard]] const QString& path() const { return path_; }
    /// Of another value once another window has changed the book.
    [[nodiscard]] qint64 othersChanges() const;

    /// All of it, as it is now.
    [[nodiscard]] WorkshopBook all() const;
    [[nodiscard]] std::vector<RackPiece> rack() const;
    [[nodiscard]] std::vector<Person> people() const;
    [[nodiscard]] std::vector<BodyShape> bodies() const;

    /// Puts offcuts on the rack; those without a number get one. One whose number is there already is left as it is.
    MaybeBookFault keep(std::vector<RackPiece>& pieces);
    /// What is written of an offcut: place, lot, photograph; neither its state nor its shape.
    MaybeBookFault describe(const RackPiece& piece);
    /// Brings the rack in line with what a job does with it: reserves and takes what it uses, gives back what it does
    /// not use any more. All of it or nothing: Taken, NotThere.
    MaybeBookFault use(const RackUse& use);
    /// Takes offcuts out that nobody reserved or cut; others stay, and it is told.
    MaybeBookFault strike(const std::set<std::string>& numbers);
    /// Frees an offcut whatever job has it: by a person's will.
    MaybeBookFault free(const std::string& number);

    /// In place of the one of that name, number or id.
    MaybeBookFault put(const Person& person);
    MaybeBookFault put(KeptPack pack); ///< one without a number gets one
    MaybeBookFault put(const JobDone& job);
    MaybeBookFault put(const BodyShape& body);
    /// Of a job, in place of what was written of it before.
    MaybeBookFault putPrices(const std::string& job, const std::vector<PricePaid>& prices);
    MaybeBookFault dropPack(const std::string& number);
    MaybeBookFault freePack(const std::string& number);
    /// Where a job's file was last: a file elsewhere with the same id is a copy of it.
    [[nodiscard]] QString fileOf(const std::string& job) const;
    MaybeBookFault putFile(const std::string& job, const QString& path);
    MaybeBookFault dropBody(const std::string& name);

    /// Takes in another book: what is here already stays as it is here.
    MaybeBookFault merge(const WorkshopBook& other);

    /// For tests: no more pages than this, as on a full disk.
    void limitPages(int pages);

private:
    MaybeBookFault change(const auto& work);
    MaybeBookFault checkedOpen(bool readOnly);

    QString path_, connection_;
    QSqlDatabase database_;
    bool readOnly_ = false;
};

} // namespace westrum
