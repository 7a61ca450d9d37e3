#include <QtTest> // first: moc cannot parse some standard headers otherwise

#include "core/catalogue/plank.h"
#include "core/setout/plank_floor.h"
#include "formats/demo.h"
#include "formats/field_names.h"
#include "formats/shopping_file.h"
#include "formats/words.h"
#include "tests/support/demo_floor.h"
#include "tests/support/floors.h"
#include "tests/support/registry.h"

#include <set>
#include <tuple>

using namespace westrum;
using namespace westrum::test;

namespace {

QString plain(QString text) { return text.replace(QChar(0x202F), QLatin1Char(' ')); }

/// The sentence of the first remark of a kind in a plan of a changed demo job.
QString remarkOf(const std::function<void(Job&)>& change, RemarkKind kind) {
    Job job = test::demoFloor();
    change(job);
    const Plan p = plan(job);
    for (const Remark& r : p.remarks)
        if (r.kind == kind) return plain(sentence(r, figuresFor(job)));
    return {};
}

} // namespace

class WordsTest : public QObject {
    Q_OBJECT
private slots:
    /// Finer than the marks of a rule: thousandths of an inch, never nothing. 0.2 / 25.4 = 0.0079.
    void whatIsThinInInchesIsNotNothing() {
        const Figures inches{.unit = LengthUnit::Inch};
        QCOMPARE(inches.fineLength({0.2}), QStringLiteral("0.008\""));
        QCOMPARE(inches.length({0.1}, false), QStringLiteral("0.004"));
        QVERIFY(inches.length({25.4}).startsWith(QLatin1Char('1')));
        QCOMPARE(inches.mass({1 * inches.massUnit()}), QStringLiteral("1.0 lb"));
    }

    void everyKindOfRemarkHasASentence() {
        std::set<QString> all;
        for (int kind = 0; kind < kRemarkKinds; ++kind) {
            const QString text = sentence(Remark{Severity::Note, {}, static_cast<RemarkKind>(kind), {}, {}}, {});
            QVERIFY2(!text.trimmed().isEmpty(), qPrintable(QString::number(kind)));
            QVERIFY2(text.trimmed().endsWith(QLatin1Char('.')) || text.trimmed().endsWith(QLatin1Char('?')),
                     qPrintable(text));
            all.insert(text);
        }
        QVERIFY(all.size() > 90); // and nearly every kind one of its own, even without its facts
    }

    void remarksAreWholeSentences() {
        const auto floor = [](Job& j) -> Measurement& { return j.surfaces[0].measurement; };
        QCOMPARE(remarkOf([&](Job& j) { floor(j).readings[5] = mm(3958); }, RemarkKind::OneReadingWrong),
                 QStringLiteral(
                     "One reading is wrong, likeliest first: the diagonal f (94 mm too short), the side b (209 mm too "
                     "long) or the side d (210 mm too long). 3 others could be, too. Take the diagonal f again: "
                     "that tells."));
        QCOMPARE(remarkOf([&](Job& j) { floor(j).readings[0] = mm(0); }, RemarkKind::ReadingNotPositive),
                 QStringLiteral("The side a reads 0 mm; a length must be more than nothing. Take it again."));
        QCOMPARE(remarkOf([&](Job& j) { floor(j).readings[3].reset(); }, RemarkKind::ReadingMissing),
                 QStringLiteral("Measure the side d to close the outline."));
        QCOMPARE(remarkOf([&](Job& j) { floor(j).readings[4] = mm(5490); }, RemarkKind::SidesCannotClose),
                 QStringLiteral("The diagonal e is 65 mm longer than side a and side b together: they "
                                "cannot meet. Take the diagonal e again."));
        QCOMPARE(remarkOf([&](Job& j) { floor(j).notches[0].position = mm(3000); }, RemarkKind::NotchOutside).left(38),
                 QStringLiteral("Right wheel arch ends at 3 740 mm, but"));
        QCOMPARE(remarkOf([&](Job& j) { floor(j).notches[0].depth.reset(); }, RemarkKind::CutoutIncomplete),
                 QStringLiteral("Right wheel arch still needs its depth. Until then it is left out."));
        QCOMPARE(
            remarkOf([](Job& j) { j.catalogue.products[0].fields["perPack"] = 0; }, RemarkKind::FieldOutOfRange),
            QStringLiteral("Heron click vinyl, pale oak: planks in a pack is 0; it must lie between 1 and 1 000."));
        QCOMPARE(remarkOf([](Job& j) { j.catalogue.products[0].packPrice.reset(); }, RemarkKind::PriceMissing),
                 QStringLiteral("Heron click vinyl, pale oak has no price, so the cost is not complete."));
        QCOMPARE(remarkOf([](Job& j) { face(j).rules["gap"] = 3; }, RemarkKind::GapBelowProduct),
                 QStringLiteral("The movement gap of 3 mm is less than the 5 mm that the product asks for."));
    }

    void aSlipOfTheVanIsToldWithItsSurface() {
        const Remark remark{Severity::Warning,
                            {},
                            RemarkKind::VanDoesNotClose,
                            {{"reading", std::string("BC")},
                             {"misclosure", Mm{22}},
                             {"on", std::string("Left wall")},
                             {"other", std::string("AB")},
                             {"otherBy", Mm{-21}},
                             {"otherOn", std::string("Load floor")}},
                            {}};
        QCOMPARE(
            sentence(remark, {}),
            QStringLiteral("The van does not close. One reading is wrong, likeliest first: the side b of Left wall (22 "
                           "mm too long) or the side a of Load floor (21 mm too short). Take the side b of Left wall "
                           "again: that tells."));
        // A length that nobody read yet tells more; what stands over the floor is too much, not too long.
        Remark other = remark;
        other.facts = {{"reading", std::string("heightRear")},
                       {"misclosure", Mm{60}},
                       {"on", std::string("Left wall")},
                       {"other", std::string("o1.width")},
                       {"otherBy", Mm{-30}},
                       {"otherOn", std::string("Hatch, Bulkhead")},
                       {"corner", std::string("B")},
                       {"toCorner", std::string("D")},
                       {"decidesOn", std::string("Bulkhead")}};
        QCOMPARE(sentence(other, {}),
                 QStringLiteral("The van does not close. One reading is wrong, likeliest first: the height at the rear "
                                "of Left wall (60 mm too much) or the width of Hatch, Bulkhead (30 mm too little). "
                                "Measure from B to D of Bulkhead: that tells."));
        other.kind = RemarkKind::VanReadingWrong;
        other.facts.insert(other.facts.end(), {{"length", Mm{60}}, {"implied", Mm{0}}});
        QCOMPARE(
            sentence(other, {}),
            QStringLiteral("Left wall: the height at the rear is 60 mm too much for what it meets. It reads 60 mm, "
                           "and the van leaves room for 0 mm. Take it again."));
    }

    void everyRemarkHasASentenceWithoutHoles() {
        const Facts facts{{"reading", std::string("AB")},
                          {"length", Mm{1}},
                          {"limit", Mm{2}},
                          {"least", Mm{3}},
                          {"most", Mm{4}},
                          {"other", std::string("BC")},
                          {"decidesOn", std::string("there")},
                          {"another", std::string("CD")},
                          {"gap", Mm{5}},
                          {"misclosure", Mm{6}},
                          {"implied", Mm{7}},
                          {"cutout", std::string("Arch")},
                          {"count", std::int64_t{2}},
                          {"product", std::string("P")},
                          {"field", std::string("thickness")},
                          {"value", Mm{8}},
                          {"width", Mm{9}},
                          {"stagger", Mm{10}},
                          {"end", Mm{11}},
                          {"gotStagger", Mm{12}},
                          {"gotEnd", Mm{13}},
                          {"row", std::int64_t{3}},
                          {"planks", std::int64_t{4}}};
        for (int kind = 0; kind <= static_cast<int>(RemarkKind::PackEmpty); ++kind) {
            const QString text =
                sentence(Remark{Severity::Note, {}, static_cast<RemarkKind>(kind), facts, {}}, Figures{});
            QVERIFY2(text.endsWith(QLatin1Char('.')) || text.endsWith(QLatin1Char('?')),
                     qPrintable(QString::number(kind) + text));
            QVERIFY2(!text.contains(QRegularExpression(QStringLiteral("%[0-9n]"))) &&
                         !text.contains(QStringLiteral("(s)")),
                     qPrintable(text));
        }
        for (int kind = 0; kind <= static_cast<int>(FileFaultKind::CannotWrite); ++kind) {
            const QString text = sentence(FileFault{static_cast<FileFaultKind>(kind), "a.b", "detail"});
            QVERIFY2(!text.isEmpty() && !text.contains(QLatin1Char('%')), qPrintable(text));
        }
        for (int fault = 0; fault <= static_cast<int>(ParseFault::Negative); ++fault) {
            const QString text = sentence(ParseError{static_cast<ParseFault>(fault), 2, "x"}, QStringLiteral("12x"));
            QVERIFY2(text.endsWith(QLatin1Char('.')) && !text.contains(QLatin1Char('%')), qPrintable(text));
        }
    }

    void typedNonsenseIsAnsweredWithItsPlace() {
        const QString typed = QStringLiteral("18 parsecs");
        QCOMPARE(sentence(parseLength(typed.toStdString()).error(), typed),
                 QStringLiteral("“parsecs” at place 4 is no unit known here."));
        // The place counts characters, not bytes.
        const QString accent = QStringLiteral("½ é");
        QVERIFY(sentence(parseLength(accent.toStdString()).error(), accent).contains(QStringLiteral("3")));
    }

    void everyTradeNameCanBeTranslated() {
        const auto names = translatableFieldNames();
        const auto listed = [&](std::string_view n) { return std::find(names.begin(), names.end(), n) != names.end(); };
        for (const auto fields : {plankFields(), underlayFields(), plankRuleFields()})
            for (const Field& f : fields) {
                QVERIFY2(listed(f.tradeName), f.tradeName.data());
                for (std::string_view choice : f.choices) QVERIFY2(listed(choice), choice.data());
            }
    }

    void suggestionsCarryTheirFigures() {
        const Suggestion s{
            SuggestionReason::EqualEdges,
            {.startOffset = {41}, .rows = 10, .firstRow = {118}, .lastRow = {118}, .stock = 88, .fair = true}};
        QCOMPARE(plain(startText(s, {0}, 10, {})),
                 QStringLiteral("Lay the first row 41 mm narrower: first row 118 mm, last row 118 mm, 9 packs."));
        QVERIFY(startText(s, {50}, 10, {}).contains(QStringLiteral("9 mm wider")));
        QVERIFY(startText(s, {41}, 10, {}).contains(QStringLiteral("well placed")));
    }

    void figuresFollowTheReader() {
        const Figures german{.decimalMark = ','};
        QCOMPARE(plain(german.mass({12.34})), QStringLiteral("12,3 kg"));
        QCOMPARE(plain(german.percent(0.0789)), QStringLiteral("7,9 %"));
        const Figures inches{.unit = LengthUnit::Inch};
        QCOMPARE(plain(inches.length({1841.5})), QStringLiteral("72 1/2\""));
        QVERIFY(inches.length({1840}).startsWith(QChar(0x2248)));
    }

    void everyStepSpeaks() {
        const Job job = test::demoFloor();
        const Plan p = plan(job);
        for (const FitStep& step : p.surfaces[0].steps) {
            QVERIFY(!stepTitle(step, {}).isEmpty());
            QVERIFY(!stepBody(step, {}).contains(QLatin1Char('%')));
            QVERIFY(!stepBody(step, {}).isEmpty() || step.kind == StepKind::Row);
            if (step.caution) QVERIFY(cautionText(*step.caution).size() > 20);
            for (int id : step.pieces)
                QVERIFY(stepPiece(p.surfaces[0].setOut(), id, "planks", {}).contains(QStringLiteral("plank")));
        }
    }

    void whatNothingServesSaysWhatItWouldHaveToBe() {
        const auto told = [](double least, double most) {
            const Remark r{Severity::Note,
                           {},
                           RemarkKind::NeedUnserved,
                           {{"serves", static_cast<std::int64_t>(Serves::Screws)},
                            {"amount", 125.0},
                            {"least", Mm{least}},
                            {"most", Mm{most}}},
                           {}};
            return plain(sentence(r, {}));
        };
        QCOMPARE(told(0, 0), QStringLiteral("The catalogue has nothing for 125 screws: it is not on the list."));
        QCOMPARE(told(21, 30), QStringLiteral("The catalogue has nothing for 125 screws between 21 mm and 30 mm long: "
                                              "it is not on the list."));
        QCOMPARE(
            told(21, 0),
            QStringLiteral("The catalogue has nothing for 125 screws at least 21 mm long: it is not on the list."));
        // 9 mm of boards on strips of 9: to hold 12 mm in them a screw is 21 long, to stay 4 short of the skin 14.
        QCOMPARE(told(21, 14),
                 QStringLiteral("125 screws would have to be 21 mm long to hold and no longer than 14 mm so "
                                "as not to come through: take thicker battens, or glue."));
    }

    void measuresStandWithAndWithoutWhatTheyAreOf() {
        for (const auto& [serves, alone, whole] :
             {std::tuple(Serves::Zip, "2.5 m", "2.5 m of zip"), std::tuple(Serves::Grout, "1.1 kg", "1.1 kg of grout"),
              std::tuple(Serves::AdhesiveTube, "444 ml", "444 ml of adhesive from the tube"),
              std::tuple(Serves::AbrasiveDiscs, "14.22 m²", "14.22 m² to sand"),
              std::tuple(Serves::Screws, "3 screws", "3 screws")}) {
            const double amount = serves == Serves::Zip            ? 2.5
                                  : serves == Serves::Grout        ? 1.1
                                  : serves == Serves::AdhesiveTube ? 444
                                  : serves == Serves::Screws       ? 2.4 // whole ones
                                                                   : 14.22;
            QCOMPARE(plain(measureText(serves, amount, {})), QString::fromUtf8(alone));
            QCOMPARE(plain(needText(serves, amount, {})), QString::fromUtf8(whole));
        }
    }

    void whatIsLeftOfCutGoodsIsTheLargestAndHowMany() {
        Purchase p{.product = "x", .family = "sheet", .packs = 2, .unitsNeeded = 2};
        QCOMPARE(leftOverText(p, {}), QStringLiteral("–"));
        p.offcuts = 1;
        p.offcutLength = {1188};
        p.offcutWidth = {558};
        QCOMPARE(plain(leftOverText(p, {})), QStringLiteral("1 188 × 558 mm"));
        p.offcuts = 3;
        QCOMPARE(plain(leftOverText(p, {})), QStringLiteral("3, up to 1 188 × 558 mm"));
        p.family = "trim"; // as wide as it comes
        QCOMPARE(plain(leftOverText(p, {})), QStringLiteral("3, up to 1 188 mm"));
        Catalogue catalogue;
        catalogue.products = {{.id = "x", .family = "sheet", .name = "Ply"}};
        p.oneLot = true;
        QCOMPARE(nameWithLot(p, catalogue), QStringLiteral("Ply, of one lot"));
        p.packs = 1; // one is one lot anyway
        QCOMPARE(nameWithLot(p, catalogue), QStringLiteral("Ply"));
    }

    void whatIsBoughtIsSaidByItsKind() {
        Purchase p{.product = "x", .family = "sheet", .packs = 4};
        QCOMPARE(packsText(p), QStringLiteral("4 sheets"));
        p.family = "trim";
        p.packs = 1;
        QCOMPARE(packsText(p), QStringLiteral("1 length"));
        p.family = "roll";
        p.lengthNeeded = {8800};
        QCOMPARE(packsText(p), QStringLiteral("8.8 m"));
        QCOMPARE(packsText(p, {.decimalMark = ','}), QStringLiteral("8,8 m"));
        Catalogue catalogue;
        catalogue.products = {{.id = "x", .family = "sheet", .name = "Ply"}};
        QCOMPARE(purchaseName(p, catalogue), QStringLiteral("Ply"));
        p.size = "half sheet";
        QCOMPARE(purchaseName(p, catalogue), QStringLiteral("Ply, half sheet"));
        // A size that an offer has is written as this reader writes figures; its key stays.
        Purchase tin{.product = "x", .size = "2.5 l", .offered = 2.5, .family = "coating"};
        tin.quantity = Quantity::Volume;
        QCOMPARE(purchaseName(tin, catalogue, {.decimalMark = ','}), QStringLiteral("Ply, 2,5 l"));
        tin.amount = 1;
        tin.shelf = 0.375;
        QCOMPARE(shelfText(tin, {}), QStringLiteral("0.38 l"));
        QCOMPARE(nameWithLot(tin, catalogue), QStringLiteral("Ply, 2.5 l, 0.38 l of it from the shelf"));
        Purchase planks{.product = "x", .size = {}, .family = "planks"};
        planks.shelf = 12;
        QCOMPARE(shelfText(planks, {}), QStringLiteral("12 planks"));
        planks.shelf = 0;
        QVERIFY(shelfText(planks, {}).isEmpty());
    }
};
WESTRUM_TEST(WordsTest)

#include "words_test.moc"
