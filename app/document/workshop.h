#pragma once

#include "app/document/commands.h"
#include "core/plan/rack.h"
#include "core/vanwork/learned.h"
#include "records/book.h"

#include <QObject>
#include <QTimer>

#include <map>
#include <set>

namespace westrum {

/// Why the book did not do as it was asked, in a sentence.
QString sentence(const BookFault& fault);

/// The workshop's book beside the open job. What a job does with the rack is read off its cut lists after every change,
/// undo among them, and brought into the book; a job never waits for the book, nor fails by it. The examples have a
/// book of their own.
class Workshop : public QObject {
    Q_OBJECT
public:
    /// @param folder  where the books are kept
    Workshop(JobDocument& document, QString folder, QObject* parent = nullptr);
    /// A job that no file ever held lets go of what it reserved.
    ~Workshop() override;
    Workshop(const Workshop&) = delete;
    Workshop& operator=(const Workshop&) = delete;

    /// Whether there is a book to read, and one to write.
    [[nodiscard]] bool isOpen() const { return file_.isOpen(); }
    [[nodiscard]] bool isWritable() const { return file_.isOpen() && !file_.isReadOnly(); }
    /// Why not; empty if all is well.
    [[nodiscard]] const QString& trouble() const { return trouble_; }
    [[nodiscard]] const WorkshopBook& book() const { return book_; }
    [[nodiscard]] QString path() const { return path_; }
    /// Under which the book knows the open job.
    [[nodiscard]] const std::string& jobId() const { return document_.job().bookId; }
    /// Another book than the usual one.
    void openBook(const QString& path);
    /// A book that cannot be read is put aside, and an empty one begun.
    void beginAnew();
    /// Reads it again if another window changed it.
    void look();
    /// Brings the book in line with the job now; else it is done when the program has a moment.
    void settle();

    /// What an item leaves goes on the rack: into this job's stock and into the book; one undo step.
    /// @param name  of the stock where there is no book
    Command keepOffcuts(const ProductCut& cut, std::size_t item, const std::string& name);
    /// This job draws on an offcut of the rack. Empty, and why: another job has it, or it is of no product here.
    Command reserve(const std::string& number, QString& why);
    /// This job does without it.
    Command giveBack(const std::string& number);
    /// This job uses what is on the shelf of a product before it buys: what no other job has and is not past its date.
    /// Empty, and why: there is none.
    Command useShelf(const std::string& product, QString& why);
    /// It buys all of it after all.
    Command leaveShelf(const std::string& product);
    /// Packs of a product that useShelf() would take.
    [[nodiscard]] std::vector<const KeptPack*> onShelf(const Product& product) const;
    /// A rate from the record is taken, for this job and into the person's.
    Command takeRateToo(const RateOffer& offer);
    /// A rate of the person's is taken for this job.
    Command takeFromBook(const BookRate& rate);
    /// Whose hands.
    Command choosePerson(const std::string& name);
    [[nodiscard]] const Person* person() const;

    // Written into the book at once, which no undo of the job reaches; false: told why not.
    bool describe(const RackPiece& piece);
    bool freeByHand(const std::string& number);
    bool throwAway(const std::string& number);
    bool put(const KeptPack& pack);
    bool freePack(const std::string& number);
    bool put(const Person& person);
    bool writeDone(const JobDone& done);
    bool keepBody(const BodyShape& body);
    bool dropBody(const std::string& name);
    /// Offcuts from a list.
    bool take(std::vector<RackPiece> pieces);
    bool merge(const WorkshopBook& other);

    /// For tests: as on a full disk.
    void limitPages(int pages) { file_.limitPages(pages); }

signals:
    void changed();
    void told(const QString& sentence, bool attention);

private:
    bool did(const MaybeBookFault& fault);
    void reload();
    void openFor(const Job& job);
    void findCopy();
    void letGo();
    void settleKept(const std::set<std::string>& inJob);
    void settleRack();
    void settleFigures();

    JobDocument& document_;
    Book file_;
    QString folder_, path_, trouble_;
    WorkshopBook book_;
    qint64 others_ = 0;
    std::map<std::string, RackPiece> kept_; ///< put on the rack by this job since it was opened
    std::vector<PricePaid> prices_;         ///< as last written
    std::string lastId_;                    ///< of the job that is open
    bool unsaved_ = false;                  ///< no file holds that id
    bool edited_ = false;                   ///< since it was opened: what was bought or left is written then only
    QString refused_;                       ///< what was told of the rack last, so that it is told once
    QTimer soon_, often_;
};

} // namespace westrum
