#pragma once

#include <QWidget>

#include "app/document/workshop.h"
#include "app/stages/log/rack_board.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>

namespace westrum {

/// The workshop's rack: offcuts as drawings, which this job could cut from, and the packs and tins that were left.
class RackView : public QWidget {
    Q_OBJECT
public:
    RackView(JobDocument& document, Workshop& workshop, QWidget* parent = nullptr);
    void show(const Figures& figures);
    [[nodiscard]] RackBoard& board() { return *board_; }
    /// Takes a list (CSV) or a whole book (JSON) in; says how it went.
    void importFrom(const QString& path);
    /// Writes by the file's ending: .csv the rack, .json all of the book, .pdf labels.
    void exportTo(const QString& path);

signals:
    void said(const QString& sentence, bool attention);

private:
    void makeShelf();
    QWidget* filterRow();
    QWidget* handRow();
    void showInHand();
    void useInHand();
    void describe();
    void fillShelf();
    void showPicture(const RackPiece& piece, QString& text);
    [[nodiscard]] const KeptPack* pack() const;
    [[nodiscard]] QString servesText(const RackPiece& piece) const;
    [[nodiscard]] const RackPiece* piece() const;

    JobDocument& document_;
    Workshop& workshop_;
    Figures figures_;
    RackBoard* board_;
    QComboBox* filter_;
    QPushButton *freeOnly_, *use_, *free_, *gone_, *photograph_;
    QLineEdit *stands_, *lot_;
    QLabel *hand_, *shelfName_, *trouble_, *picture_;
    QString pictureOf_, pictureWhy_;
    QTableWidget* shelf_;
    QPushButton *freePack_, *anew_;
    QWidget* handBar_;
    bool filling_ = false;
};

} // namespace westrum
