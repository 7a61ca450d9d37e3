#pragma once

#include "core/plan/plan.h"
#include "core/units/print.h"
#include "formats/job_file.h"

#include <QString>
#include <QStringList>

namespace westrum {

/// How figures are written for this reader: the job's unit and the locale's decimal mark.
struct Figures {
    LengthUnit unit = LengthUnit::Millimetre;
    char decimalMark = '.';
    int decimals = 0; ///< of millimetres in sentences

    [[nodiscard]] QString length(Mm length, bool withUnit = true) const;
    /// With one decimal of a millimetre where the length has one.
    [[nodiscard]] QString fineLength(Mm length, bool withUnit = true) const;
    [[nodiscard]] QString number(double value, int decimals) const;
    [[nodiscard]] QString money(Money money) const;
    [[nodiscard]] QString area(M2 area) const;
    [[nodiscard]] QString mass(Kg mass, int decimals = 1) const;
    /// Off a roll, or to saw in all: metres or feet.
    [[nodiscard]] QString run(Mm length, int decimals = 2) const;
    /// "a m²": what something costs or takes on one, as the reader reckons; and how much of a square metre that is.
    [[nodiscard]] QString anArea() const;
    [[nodiscard]] double areaUnit() const;
    [[nodiscard]] double massUnit() const; ///< kilograms in one of what masses are shown in
    [[nodiscard]] QString percent(double share) const;
};

/// The figures of a job: its shown unit, decimal mark of the given locale character.
Figures figuresFor(const Job& job, char decimalMark = '.');

/// Each remark, fault and step in one plain sentence, in the language that is loaded. This is the only place where
/// such sentences are put together.
QString sentence(const Remark& remark, const Figures& figures);
/// The same with the name of its surface before it, where the job has more than one.
QString sentenceWithPlace(const Job& job, const Remark& remark, const Figures& figures);
QString sentence(const FileFault& fault);
/// "212 screws", "3.1 kg of grout": so much of what serves a purpose.
QString needText(Serves serves, double amount, const Figures& figures);
/// The same where what it is stands beside it: "12 m", "444 ml".
QString measureText(Serves serves, double amount, const Figures& figures);
QString sentence(const ParseError& error, const QString& typed);

QString stepTitle(const FitStep& step, const Figures& figures);
/// What to do, one sentence a line; for rows the pieces follow by stepPiece().
QString stepBody(const FitStep& step, const Figures& figures);
/// One piece of a set-out: name, size, what it comes out of. @param family  of its product
/// How a board is ripped along: to one width, or from one to another, and where the saw runs out of it.
/// @pre it is: ripAtStart > 0
QString ripText(const Piece& piece, const Figures& figures);
QString stepPiece(const SetOut& setOut, int piece, const std::string& family, const Figures& figures);
QString cautionText(Caution caution);

/// A start line worth taking, against the one that is there.
QString startText(const Suggestion& suggestion, Mm currentOffset, int unitsPerPack, const Figures& figures);
/// Another way to lay it: what changes, what it gives, and in what it is better than `now`.
QString suggestionText(const Suggestion& suggestion, const SetOut& now, const std::string& family,
                       const FieldValues& rules, int unitsPerPack, const Figures& figures);
/// The rules that a change sets anew, in words; empty if it changes nothing.
QString changeText(const FieldValues& change, const FieldValues& rules, std::span<const Field> fields,
                   const Figures& figures);
/// Of remarks on finishes and build-ups: a part of sentence().
QString finishSentence(const Remark& remark, const Figures& figures);

/// "side a", "diagonal e", "offset 3" as the bench names them.
QString readingName(const std::string& key);
QString sideLetter(int side);
QString surfaceKindName(SurfaceKind kind);
/// The name of a new van's surface: kind, hand, and its number where there are several.
QString surfaceName(SurfaceKind kind, Hand hand, int number);
/// The name of a surface with its side of the van exchanged; nothing where it names none.
std::optional<QString> nameOnOtherSide(const QString& name);

/// The text with its first letter large, as at the beginning of a line.
QString sentenceCase(QString text);
/// Of the van: living, garage, wet cell, cab.
/// What a remark's fix does, as a button says it: "Movement gap 10 mm"; empty where there is none, or nothing to do.
QString fixText(const Job& job, const Remark& remark, const Figures& figures);
/// The layer of a surface's build-up that a remark is about; -1: none.
int layerOf(const Job& job, const Remark& remark);
/// What a piece is called, in the reader's language.
QString pieceText(const PieceName& name);
QStringList areaNames();
/// What an area is called: by its own name, or else by its kind in the reader's language.
QString areaText(const Area& area);
/// The area that somebody names so: by its kind if it is the word for one, here or as files have it.
Area areaOf(const QString& typed);
/// The trade name of a field or of one of its choices.
QString fieldName(std::string_view tradeName);

/// "9 packs", "1 roll", "4 sheets", "2 containers", "8.4 m": by the family of the product.
QString packsText(const Purchase& purchase, const Figures& figures = {});
/// "4 sheets", "7 lengths", "28 planks": so many items of stock.
QString itemsText(const std::string& family, int items, const Figures& figures = {});
/// "1 260 mm of zip", "84 staples": what a soft finish takes besides its cloth.
QString sundryText(const Sundry& sundry, const Figures& figures);
/// The product's name, with its size where it is sold in several.
QString purchaseName(const Purchase& purchase, const Catalogue& catalogue, const Figures& figures = {});
/// "2.5 l", "1.5 kg", "2 m2": so much of what is measured out.
QString amountText(Quantity quantity, double amount, const Figures& figures);
/// "1.5 packs", "0.5 containers", "2 rolls": so much of it comes off the shelf; empty: none does.
QString shelfText(const Purchase& purchase, const Figures& figures);
QString planksText(int planks);

} // namespace westrum
