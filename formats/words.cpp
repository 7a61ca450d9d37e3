#include "formats/words.h"

#include "core/catalogue/family.h"
#include "core/shell/fold_up.h"
#include "formats/fact_printer.h"
#include "formats/suspect_words.h"

#include <QCoreApplication>

#include <array>
#include <cmath>

namespace westrum {
namespace {

/// The translation context of all sentences here.
struct Words {
    Q_DECLARE_TR_FUNCTIONS(Words)
};

/// The side of the van as the names of surfaces say it, before which their own name stands.
QString sideNamed(Hand hand) {
    const QString pattern = hand == Hand::Left ? Words::tr("%1, left") : Words::tr("%1, right");
    return pattern.section(QStringLiteral("%1"), -1);
}

} // namespace

Figures figuresFor(const Job& job, char decimalMark) { return {.unit = job.shownUnit, .decimalMark = decimalMark}; }

namespace {
/// Of an opening: which one is said beside it.
QString openingReadingName(const std::string& what) {
    if (what == "width") return Words::tr("width");
    if (what == "height") return Words::tr("height");
    if (what == "side") return Words::tr("distance from its side");
    if (what == "cross") return Words::tr("distance along its side");
    return fromStd(what);
}
} // namespace

QString readingName(const std::string& key) {
    static const std::string quad[] = {"AB", "BC", "CD", "DA", "AC", "BD"};
    for (int k = 0; k < kQuadReadings; ++k)
        if (key == quad[k])
            return (k < 4 ? Words::tr("side %1") : Words::tr("diagonal %1")).arg(QLatin1Char("abcdef"[k]));
    if (key == "base") return Words::tr("base from A to B");
    if (key == "chord2") return Words::tr("chord the other way");
    if (key == "rise2") return Words::tr("rise the other way");
    if (key == "heightRear") return Words::tr("height at the rear");
    if (key == "heightFront") return Words::tr("height at the front");
    if (key == "fromRear") return Words::tr("distance from the rear");
    if (key == "lean") return Words::tr("lean of the upper edge");
    if (key == kHeadroomRear) return Words::tr("bare height at the rear");
    if (key == kHeadroomMiddle) return Words::tr("bare height in the middle");
    if (key == kHeadroomFront) return Words::tr("bare height at the front");
    if (const std::size_t dot = key.find('.'); key.front() == 'o' && dot != std::string::npos)
        return openingReadingName(key.substr(dot + 1));
    bool isNumber = false;
    const int n = fromStd(key).mid(1).toInt(&isNumber);
    if (!isNumber) return fromStd(key);
    switch (key.front()) {
    case 'S': return Words::tr("side %1").arg(sideLetter(n));
    case 'D': return Words::tr("diagonal %1").arg(n + 1);
    case 'x': return Words::tr("station %1").arg(n + 1);
    case 'y': return Words::tr("offset %1").arg(n + 1);
    case 'z': return Words::tr("other offset %1").arg(n + 1);
    case 'a': return Words::tr("point %1 from A").arg(n + 1);
    case 'b': return Words::tr("point %1 from B").arg(n + 1);
    case 'p': return Words::tr("chord %1").arg(n + 1);
    case 'h': return Words::tr("rise %1").arg(n + 1);
    case 'R': return Words::tr("radius at corner %1").arg(QLatin1Char(static_cast<char>('A' + n % 26)));
    default: return fromStd(key);
    }
}

QString sideLetter(int side) { return QString(QLatin1Char(static_cast<char>('a' + side % 26))); }

QString surfaceKindName(SurfaceKind kind) {
    switch (kind) {
    case SurfaceKind::Floor: return Words::tr("Floor");
    case SurfaceKind::Ceiling: return Words::tr("Ceiling");
    case SurfaceKind::LeftWall: return Words::tr("Left wall");
    case SurfaceKind::RightWall: return Words::tr("Right wall");
    case SurfaceKind::Bulkhead: return Words::tr("Bulkhead");
    case SurfaceKind::RearDoors: return Words::tr("Rear doors");
    case SurfaceKind::LeftWallUpper: return Words::tr("Left wall, upper");
    case SurfaceKind::RightWallUpper: return Words::tr("Right wall, upper");
    case SurfaceKind::ArchTop: return Words::tr("Wheel arch, top");
    case SurfaceKind::ArchFace: return Words::tr("Wheel arch, face");
    case SurfaceKind::ArchEnd: return Words::tr("Wheel arch, end");
    case SurfaceKind::Pillar: return Words::tr("Pillar");
    case SurfaceKind::SlidingDoor: return Words::tr("Sliding door");
    case SurfaceKind::RearDoor: return Words::tr("Rear door");
    case SurfaceKind::CabReveal: return Words::tr("Cab reveal");
    case SurfaceKind::BenchFront: return Words::tr("Bench front");
    case SurfaceKind::BenchTop: return Words::tr("Bench top");
    case SurfaceKind::KitchenFront: return Words::tr("Kitchen front");
    case SurfaceKind::Splashback: return Words::tr("Splashback");
    case SurfaceKind::WetCellWall: return Words::tr("Wet cell wall");
    case SurfaceKind::Shelf: return Words::tr("Shelf");
    case SurfaceKind::Headliner: return Words::tr("Headliner");
    case SurfaceKind::Other: return Words::tr("Surface");
    }
    return {};
}

QString sentenceCase(QString text) {
    const auto first = std::find_if(text.begin(), text.end(), [](QChar c) { return c.isLetterOrNumber(); });
    if (first != text.end()) *first = first->toUpper();
    return text;
}

QString surfaceName(SurfaceKind kind, Hand hand, int number) {
    QString name = surfaceKindName(kind);
    switch (kind) {
    case SurfaceKind::LeftWall: name = Words::tr("Left wall, lower"); break;
    case SurfaceKind::RightWall: name = Words::tr("Right wall, lower"); break;
    case SurfaceKind::LeftWallUpper:
    case SurfaceKind::RightWallUpper:
    case SurfaceKind::SlidingDoor: break;
    case SurfaceKind::ArchEnd:
        name = number == 1 ? Words::tr("Wheel arch, rear end") : Words::tr("Wheel arch, front end");
        [[fallthrough]];
    default:
        if (hand == Hand::Left) name = Words::tr("%1, left").arg(name);
        if (hand == Hand::Right) name = Words::tr("%1, right").arg(name);
        if (kind == SurfaceKind::Pillar || kind == SurfaceKind::WetCellWall)
            name = QStringLiteral("%1 %2").arg(name).arg(number);
    }
    return name;
}

std::optional<QString> nameOnOtherSide(const QString& name) {
    const auto swapped = [&](const QString& a, const QString& b) -> std::optional<QString> {
        if (name.contains(a)) return QString(name).replace(a, b);
        if (name.contains(b)) return QString(name).replace(b, a);
        return std::nullopt;
    };
    if (const auto other = swapped(sideNamed(Hand::Left), sideNamed(Hand::Right))) return other;
    if (const auto other = swapped(Words::tr("left"), Words::tr("right"))) return other;
    return swapped(sentenceCase(Words::tr("left")), sentenceCase(Words::tr("right")));
}

QStringList areaNames() { return {Words::tr("living"), Words::tr("garage"), Words::tr("wet cell"), Words::tr("cab")}; }

namespace {
constexpr std::array<AreaKind, 4> kNamedAreas{AreaKind::Living, AreaKind::Garage, AreaKind::WetCell, AreaKind::Cab};
constexpr std::array<const char*, 4> kAreaWords{"living", "garage", "wet cell", "cab"};
} // namespace

QString pieceText(const PieceName& name) {
    const auto shared = [&](const QString& text) {
        return name.share > 0 ? QStringLiteral("%1.%2").arg(text).arg(name.share) : text;
    };
    switch (name.part) {
    case PiecePart::Named: return QString::fromStdString(name.own);
    case PiecePart::Corner: return Words::tr("corner %1").arg(name.number);
    case PiecePart::Batten: return shared(Words::tr("batten %1").arg(name.number));
    case PiecePart::Cover: return Words::tr("%1 cover").arg(name.unit);
    case PiecePart::Top: return Words::tr("%1 top").arg(name.unit);
    case PiecePart::Bottom: return Words::tr("%1 bottom").arg(name.unit);
    case PiecePart::Border: return shared(Words::tr("%1 border %2").arg(name.unit).arg(name.number));
    case PiecePart::ZipStrip:
        return shared((name.number == 1 ? Words::tr("%1 zip a") : Words::tr("%1 zip b")).arg(name.unit));
    case PiecePart::Piping: return Words::tr("piping");
    case PiecePart::BoxTop: return Words::tr("box top");
    case PiecePart::BoxFace: return Words::tr("box face");
    case PiecePart::BoxRearEnd: return Words::tr("box rear end");
    case PiecePart::BoxFrontEnd: return Words::tr("box front end");
    }
    return {};
}

QString areaText(const Area& area) {
    if (!area.name.empty()) return QString::fromStdString(area.name);
    for (std::size_t i = 0; i < kNamedAreas.size(); ++i)
        if (area.kind == kNamedAreas[i]) return areaNames()[static_cast<qsizetype>(i)];
    return {};
}

Area areaOf(const QString& typed) {
    const QString said = typed.trimmed();
    if (said.isEmpty()) return {};
    for (std::size_t i = 0; i < kNamedAreas.size(); ++i)
        if (said.compare(areaNames()[static_cast<qsizetype>(i)], Qt::CaseInsensitive) == 0 ||
            said.compare(QLatin1String(kAreaWords[i]), Qt::CaseInsensitive) == 0)
            return {kNamedAreas[i], {}};
    return {AreaKind::Other, said.toStdString()};
}

QString fieldName(std::string_view tradeName) {
    const QByteArray name(tradeName.data(), static_cast<qsizetype>(tradeName.size()));
    return QCoreApplication::translate("Field", name.constData());
}

namespace {

/// Which readings may be wrong, each with by how much, and what would tell.
QString suspectsSentence(const Remark& remark, const Figures& figures) {
    const FactPrinter f(remark.facts, figures);
    const bool van = remark.kind == RemarkKind::VanDoesNotClose;
    // Where several surfaces are spoken of, each reading is told with its own.
    const auto nameOf = [&](const char* key, const char* on) {
        const QString reading = readingName(f.text(key));
        return van ? Words::tr("%1 of %2").arg(reading, f[on]) : reading;
    };
    const auto suspect = [&](const char* key, const char* by, const char* on) {
        return Words::tr("the %1 (%2)").arg(nameOf(key, on), slipWords(f.text(key), {f.mm(by)}, figures));
    };
    QString who = suspect("reading", "misclosure", "on");
    if (!f.text("other").empty()) {
        if (f.text("another").empty())
            who = Words::tr("%1 or %2").arg(who, suspect("other", "otherBy", "otherOn"));
        else
            who = Words::tr("%1, %2 or %3")
                      .arg(who, suspect("other", "otherBy", "otherOn"), suspect("another", "anotherBy", "anotherOn"));
    }
    QStringList text;
    if (van) text << Words::tr("The van does not close.");
    if (remark.kind == RemarkKind::SeveralReadingsWrong || f.count("several") > 0)
        text << Words::tr("More than one reading is wrong. Begin with %1.").arg(who);
    else if (f.text("other").empty())
        text << Words::tr("One reading is wrong, most likely %1.").arg(who);
    else
        text << Words::tr("One reading is wrong, likeliest first: %1.").arg(who);
    if (f.count("count") > 0)
        text << Words::tr("%n other(s) could be, too.", nullptr, static_cast<int>(f.count("count")));
    text << (f.text("corner").empty() ? Words::tr("Take the %1 again: that tells.").arg(nameOf("reading", "on"))
             : van
                 ? Words::tr("Measure from %1 to %2 of %3: that tells.").arg(f["corner"], f["toCorner"], f["decidesOn"])
                 : Words::tr("Measure from %1 to %2: that tells.").arg(f["corner"], f["toCorner"]));
    return text.join(QLatin1Char(' '));
}

} // namespace

QString sentence(const Remark& remark, const Figures& figures) {
    const FactPrinter f(remark.facts, figures);
    const auto reading = [&](std::string_view key) {
        for (const auto& [name, value] : remark.facts)
            if (name == key)
                if (const auto* s = std::get_if<std::string>(&value)) return readingName(*s);
        return QString();
    };
    switch (remark.kind) {
    case RemarkKind::ReadingMissing: return Words::tr("Measure the %1 to close the outline.").arg(reading("reading"));
    case RemarkKind::ReadingNotPositive:
        return Words::tr("The %1 reads %2; a length must be more than nothing. Take it again.")
            .arg(reading("reading"), f["length"]);
    case RemarkKind::ReadingAbsurd:
        return Words::tr("The %1 reads %2; between %3 and %4 is possible. Is the unit right?")
            .arg(reading("reading"), f["length"], f["least"], f["most"]);
    case RemarkKind::SidesCannotClose:
        return Words::tr("The %1 is %2 longer than %3 and %4 together: they cannot meet. Take the %1 again.")
            .arg(reading("reading"), f["gap"], reading("other"), reading("another"));
    case RemarkKind::ReadingsDisagree:
        return Words::tr("The %1 is wrong by about %2: it reads %3, and all others make it %4. Take it again.")
            .arg(reading("reading"), figures.length({std::abs(f.mm("misclosure"))}), f["length"], f["implied"]);
    case RemarkKind::SquareAssumed:
        return Words::tr("No diagonal is measured: the corner between a and d is taken as square.");
    case RemarkKind::NotchOutside:
        return Words::tr("%1 ends at %2, but the side is only %3 long. It is left out.")
            .arg(f["cutout"], f["length"], f["limit"]);
    case RemarkKind::NotchTooDeep:
        return Words::tr("%1 is %2 deep, but the floor is only %3 there. It is left out.")
            .arg(f["cutout"], f["length"], f["limit"]);
    case RemarkKind::StepOutside:
        return Words::tr("%1 takes %2 of a side that is only %3 long. It is left out.")
            .arg(f["cutout"], f["length"], f["limit"]);
    case RemarkKind::CutoutIncomplete: {
        QString what;
        for (const auto& [name, value] : remark.facts)
            if (name == "reading") what = QCoreApplication::translate("Cutout", std::get<std::string>(value).c_str());
        return Words::tr("%1 still needs its %2. Until then it is left out.").arg(f["cutout"], what);
    }
    case RemarkKind::CutoutSideCurved:
        return Words::tr("%1 is on a curved side, where no cut-out can be placed. It is left out.").arg(f["cutout"]);
    case RemarkKind::RadiusTooLarge:
        return Words::tr("The %1 is %2; the sides allow %3 at most. The corner is left sharp.")
            .arg(reading("reading"), f["length"], f["limit"]);
    case RemarkKind::DrawnAbsurd:
        return Words::tr("The drawing is %1 across; between %2 and %3 is possible. Is the unit right?")
            .arg(f["length"], f["least"], f["most"]);
    case RemarkKind::OutlineCrosses:
        return Words::tr("The sides cross each other. Are the readings in the order of going round?");
    case RemarkKind::CurveUnmeasured:
        return Words::tr("Tape the %1 along the curve, or measure its chord and rise.").arg(reading("reading"));
    case RemarkKind::CurveDisagrees:
        return Words::tr("The %1 is taped as %2, but chord and rise make it %3. Take them again.")
            .arg(reading("reading"), f["length"], f["implied"]);
    case RemarkKind::DiagonalMissing:
        return Words::tr("Corner %1 is not held yet: measure a diagonal to it.").arg(f["corner"]);
    case RemarkKind::ReadingTooLong:
        return Words::tr(
                   "The %1 is longer than the two others of its triangle together: they cannot meet. Take it again.")
            .arg(reading("reading"));
    case RemarkKind::VanReadingWrong:
        return Words::tr("%1: the %2 is %3 for what it meets. It reads %4, and the van leaves room for %5. Take it "
                         "again.")
            .arg(f["on"], reading("reading"), slipWords(f.text("reading"), {f.mm("misclosure")}, figures), f["length"],
                 f["implied"]);
    case RemarkKind::VanDoesNotClose:
    case RemarkKind::OneReadingWrong:
    case RemarkKind::SeveralReadingsWrong: return suspectsSentence(remark, figures);
    case RemarkKind::OutlineEitherWay:
        return Words::tr("Corner %1 may turn outwards or inwards: the readings fit %2 as well as %3. Say which way it "
                         "turns, or measure one more diagonal.")
            .arg(f["corner"], figures.area({f.share("area")}), figures.area({f.share("otherArea")}));
    case RemarkKind::StationsNotRising:
        return Words::tr("The %1 is at %2, not beyond the one before at %3.")
            .arg(reading("reading"), f["length"], f["before"]);
    case RemarkKind::TapesDoNotMeet:
        return Words::tr("%1 and %2 fall %3 short of meeting. Take both again.")
            .arg(sentenceCase(reading("reading")), reading("other"), f["gap"]);
    case RemarkKind::TapesMeetFlat:
        return Words::tr(
                   "%1 and %2 meet at a flat angle: small errors grow there. Another fixed point would hold it better.")
            .arg(sentenceCase(reading("reading")), reading("other"));
    case RemarkKind::StretchUnknown:
        return Words::tr(
            "Bent both ways, but not both bends are measured: how far a lining must stretch is not known.");
    case RemarkKind::DoubleCurve:
        return Words::tr("Bent both ways: what covers it in one piece must stretch by about %1.")
            .arg(figures.percent(f.share("stretch")));
    case RemarkKind::OpeningIncomplete:
    case RemarkKind::ZoneIncomplete:
    case RemarkKind::SupportIncomplete:
        return Words::tr("%1 still needs its %2. Until then it is left out.")
            .arg(f["opening"] + f["zone"] + f["support"],
                 QCoreApplication::translate("Cutout", f.text("what").c_str()));
    case RemarkKind::OpeningOutside: return Words::tr("%1 lies outside the surface and is left out.").arg(f["opening"]);
    case RemarkKind::OpeningOverEdge:
        return Words::tr("%1 hangs over the edge of the surface. Only what lies on it counts.").arg(f["opening"]);
    case RemarkKind::OpeningsOverlap:
        return Words::tr("%1 and %2 overlap. Check where they are.").arg(f["opening"], f["other"]);
    case RemarkKind::OpeningCrossed:
        return Words::tr("The outline of %1 crosses itself. It is left out.").arg(f["opening"]);
    case RemarkKind::ZoneOutside:
        return Words::tr("%1 hides nothing of the surface. Check where it is.").arg(f["zone"]);
    case RemarkKind::AllHidden: return Words::tr("The hidden zones leave nothing to be seen.");
    case RemarkKind::SupportOutside:
        return Words::tr("%1 runs beyond the surface; what lies outside is left out.").arg(f["support"]);
    case RemarkKind::EdgeMeetsNothing:
        return Words::tr("Side %1 meets a surface that is gone. Say anew what it meets.").arg(f["edge"]);
    case RemarkKind::SharedEdgesDiffer:
        return Words::tr(
                   "Side %1 is %2, but side %3 of %4, which it meets, is %5: %6 apart, more than measuring explains. "
                   "Take both again.")
            .arg(f["edge"], f["length"], f["otherEdge"], f["other"], f["otherLength"], f["difference"]);
    case RemarkKind::HoleSidesDiffer:
        return Words::tr("%1 is %2 here, but %3 seen from %4: %5 apart, more than measuring explains. Take both again.")
            .arg(f["opening"], f["length"], f["otherLength"], f["other"], f["difference"]);
    case RemarkKind::HolesApartDiffer:
        return Words::tr("From the middle of %1 to that of %2 it is %3 here, but %4 seen from %5: %6 apart, more than "
                         "measuring explains. Take again where they lie.")
            .arg(f["from"], f["opening"], f["length"], f["otherLength"], f["other"], f["difference"]);
    case RemarkKind::PanelCannotPass:
        return Words::tr("A panel %1 thick does not go through %2 at all.").arg(f["thickness"], f["door"]);
    case RemarkKind::OutlineInPieces: return Words::tr("The cut-outs part the surface into %1 pieces.").arg(f["count"]);
    case RemarkKind::OutlineEmpty:
        return Words::tr("These readings leave no surface. Check the sides and the cut-outs.");
    case RemarkKind::ProductMissing:
        return Words::tr("The product “%1” is not in the catalogue. Choose another.").arg(f["product"]);
    case RemarkKind::NoProduct: return Words::tr("No finish is chosen yet. Choose one in Set out.");
    case RemarkKind::FieldMissing: return Words::tr("%1: %2 is missing.").arg(f["product"], f["field"]);
    case RemarkKind::FieldOutOfRange: {
        QString field;
        for (const auto& [name, value] : remark.facts)
            if (name == "field") field = fieldName(std::get<std::string>(value));
        const QString owner = f["product"];
        if (owner.isEmpty())
            return Words::tr("What is set for “%1” is %2; it must lie between %3 and %4.")
                .arg(field, f["value"], f["least"], f["most"]);
        return Words::tr("%1: %2 is %3; it must lie between %4 and %5.")
            .arg(owner, field, f["value"], f["least"], f["most"]);
    }
    case RemarkKind::PriceMissing: return Words::tr("%1 has no price, so the cost is not complete.").arg(f["product"]);
    case RemarkKind::NothingLeftInsideGap:
        return Words::tr("A movement gap of %1 leaves nothing to cover.").arg(f["gap"]);
    case RemarkKind::GapBelowProduct:
        if (remark.place.part == Part::Edge)
            return Words::tr("The movement gap of %1 at side %2 is less than the %3 that the product asks for.")
                .arg(f["gap"], f["edge"], f["limit"]);
        return Words::tr("The movement gap of %1 is less than the %2 that the product asks for.")
            .arg(f["gap"], f["limit"]);
    case RemarkKind::PlankWiderThanFloor:
        return Words::tr("A plank is %1 wide, the floor to cover only %2: one row, ripped.")
            .arg(f["width"], f["limit"]);
    case RemarkKind::TooManyPieces:
        return Words::tr("That would be about %1 pieces; more than %2 are not planned. Is the product's size right?")
            .arg(f["count"], f["limit"]);
    case RemarkKind::RowsCannotBeLaid:
        return Words::tr(
                   "A stagger of %1 with end pieces of %2 cannot be kept everywhere; laid with %3 and %4 instead.")
            .arg(f["stagger"], f["end"], f["gotStagger"], f["gotEnd"]);
    case RemarkKind::RowsNotLaid:
        return Words::tr("These planks cannot be laid in these rows. Try a shorter plank or the other direction.");
    case RemarkKind::EndStaggerBelowLabel:
        return Words::tr("The stagger of %1 is less than the %2 that the product asks for.")
            .arg(f["stagger"], f["limit"]);
    case RemarkKind::EdgeRowSliver:
        return Words::tr("Row %1 is only %2 wide; less than %3 is a sliver. Move the start line.")
            .arg(f["row"], f["width"], f["limit"]);
    case RemarkKind::CutoutSliver:
        return Words::tr("%n piece(s) beside a cut-out or a slanting wall are slivers, the narrowest %1.", nullptr,
                         static_cast<int>(f.count("count")))
            .arg(f["width"]);
    case RemarkKind::NotProvenLeast:
        return Words::tr("%1 planks; fewer than %2 cannot be, whatever the cuts.").arg(f["planks"], f["limit"]);
    case RemarkKind::PackEmpty: return Words::tr("%1: a pack holds no plank.").arg(f["product"]);
    default: return finishSentence(remark, figures);
    }
    return {};
}

QString sentenceWithPlace(const Job& job, const Remark& remark, const Figures& figures) {
    const Surface* surface = job.surface(remark.place.surface);
    const QString text = sentence(remark, figures);
    return surface && job.surfaces.size() > 1 ? Words::tr("%1: %2").arg(fromStd(surface->name), text) : text;
}

QString sentence(const FileFault& fault) {
    const QString path = fromStd(fault.path);
    const QString detail = fromStd(fault.detail);
    switch (fault.kind) {
    case FileFaultKind::CannotOpen: return Words::tr("The file cannot be opened: %1").arg(detail);
    case FileFaultKind::TooLarge: return Words::tr("The file is larger than any job can be (16 MB).");
    case FileFaultKind::Empty: return Words::tr("The file is empty.");
    case FileFaultKind::NotJson:
        return Words::tr("The file is damaged or no job: it breaks off at byte %1.").arg(detail);
    case FileFaultKind::TooDeep: return Words::tr("The file is nested deeper than any job.");
    case FileFaultKind::NotAJob: return Words::tr("The file is not a Westrum job.");
    case FileFaultKind::UnknownVersion:
        return Words::tr("The file has version %1, which this Westrum does not know.").arg(detail);
    case FileFaultKind::Missing: return Words::tr("“%1” is missing in the file.").arg(path);
    case FileFaultKind::WrongType: return Words::tr("“%1” in the file is not a %2.").arg(path, detail);
    case FileFaultKind::OutOfRange: return Words::tr("“%1” in the file is beyond what is possible.").arg(path);
    case FileFaultKind::UnknownWord:
        return Words::tr("“%1” in the file says “%2”, which means nothing there.").arg(path, detail);
    case FileFaultKind::Duplicate: return Words::tr("“%1” in the file: “%2” occurs twice.").arg(path, detail);
    case FileFaultKind::TooMany: return Words::tr("“%1” in the file has more entries than a job can hold.").arg(path);
    case FileFaultKind::CannotWrite: return Words::tr("The file cannot be written: %1").arg(detail);
    }
    return {};
}

QString sentence(const ParseError& error, const QString& typed) {
    const QString text = fromStd(error.text);
    const QByteArray before = typed.toUtf8().left(static_cast<qsizetype>(error.position));
    const qsizetype place = QString::fromUtf8(before).size() + 1;
    switch (error.fault) {
    case ParseFault::Empty: return Words::tr("Nothing is typed.");
    case ParseFault::NotANumber: return Words::tr("A number is expected at place %1, not “%2”.").arg(place).arg(text);
    case ParseFault::UnknownUnit: return Words::tr("“%2” at place %1 is no unit known here.").arg(place).arg(text);
    case ParseFault::Ambiguous:
        return Words::tr("“%1” can be read two ways. Write it without the comma, or name the unit m.").arg(text);
    case ParseFault::TrailingText: return Words::tr("“%2” at place %1 is not understood.").arg(place).arg(text);
    case ParseFault::Unfinished: return Words::tr("Something is missing at the end.");
    case ParseFault::ZeroDivisor: return Words::tr("A fraction cannot have 0 below its stroke.");
    case ParseFault::OutOfRange: return Words::tr("“%1” is too large.").arg(text);
    case ParseFault::TooPrecise: return Words::tr("“%1” has more decimals than the currency.").arg(text);
    case ParseFault::WrongCurrency: return Words::tr("“%1” is not the currency of this job.").arg(text);
    case ParseFault::Negative: return Words::tr("This cannot be less than nothing.");
    }
    return {};
}

QString packsText(const Purchase& purchase, const Figures& figures) {
    if (purchase.serves == Serves::Sealant) return Words::tr("%n cartridge(s)", nullptr, purchase.packs);
    const ProductFamily* family = productFamily(purchase.family);
    if (!family) return itemsText(purchase.family, purchase.packs, figures);
    switch (family->soldBy) {
    case SoldBy::Pack: return Words::tr("%n pack(s)", nullptr, purchase.packs);
    case SoldBy::Roll: return Words::tr("%n roll(s)", nullptr, purchase.packs);
    case SoldBy::Metre: return figures.run(purchase.lengthNeeded + purchase.lengthLeft);
    case SoldBy::Container: return Words::tr("%n container(s)", nullptr, purchase.packs);
    case SoldBy::Sheet:
    case SoldBy::Length: break;
    }
    return itemsText(purchase.family, purchase.packs, figures);
}

QString itemsText(const std::string& family, int items, const Figures& figures) {
    const ProductFamily* known = productFamily(family);
    switch (known ? known->counted : CountedAs::Lengths) {
    case CountedAs::Planks: return planksText(items);
    case CountedAs::Sheets: return Words::tr("%n sheet(s)", nullptr, items);
    case CountedAs::Boards: return Words::tr("%n board(s)", nullptr, items);
    case CountedAs::Batts: return Words::tr("%n batt(s)", nullptr, items);
    case CountedAs::Tiles: return Words::tr("%n tile(s)", nullptr, items);
    case CountedAs::MetresOfRoll: return Words::tr("%1 of roll").arg(figures.run(Mm{items * 10.0}));
    case CountedAs::Lengths: break;
    }
    return Words::tr("%n length(s)", nullptr, items);
}

QString sundryText(const Sundry& s, const Figures& f) {
    switch (s.kind) {
    case SundryKind::Zip: return Words::tr("%1 of zip").arg(f.length({s.amount}));
    case SundryKind::Thread: return Words::tr("%1 of thread").arg(f.run(Mm{s.amount}, 0));
    case SundryKind::PipingCord: return Words::tr("%1 of piping cord").arg(f.length({s.amount}));
    case SundryKind::Staples: return Words::tr("%n staple(s)", nullptr, static_cast<int>(s.amount));
    case SundryKind::FoamGlue: return Words::tr("%1 to glue").arg(f.area({s.amount}));
    case SundryKind::LiningCloth: return Words::tr("%1 of plain lining").arg(f.area({s.amount}));
    }
    return {};
}

QString measureText(Serves serves, double amount, const Figures& f) {
    switch (unitOf(serves)) {
    case NeedUnit::Pieces: return needText(serves, amount, f);
    case NeedUnit::Metres: return f.run(Mm{amount * 1000}, amount < 10 ? 1 : 0);
    case NeedUnit::SquareMetres: return f.area({amount});
    case NeedUnit::Millilitres: return Words::tr("%1 ml").arg(f.number(amount, 0));
    case NeedUnit::Kilograms: return f.mass({amount});
    }
    return {};
}

QString needText(Serves serves, double amount, const Figures& f) {
    const int n = static_cast<int>(std::ceil(amount - 1e-9));
    const auto so = [&] { return measureText(serves, amount, f); };
    switch (serves) {
    case Serves::Screws: return Words::tr("%n screw(s)", nullptr, n);
    case Serves::RivetNuts: return Words::tr("%n rivet nut(s)", nullptr, n);
    case Serves::MachineScrews: return Words::tr("%n machine screw(s)", nullptr, n);
    case Serves::ExpandingNuts: return Words::tr("%n expanding nut(s)", nullptr, n);
    case Serves::Packers: return Words::tr("%n packer(s)", nullptr, n);
    case Serves::Washers: return Words::tr("%n washer(s)", nullptr, n);
    case Serves::ScrewCups: return Words::tr("%n screw cup(s)", nullptr, n);
    case Serves::PanelClips: return Words::tr("%n panel clip(s)", nullptr, n);
    case Serves::HookAndLoop: return Words::tr("%1 of hook-and-loop").arg(so());
    case Serves::Staples: return Words::tr("%n staple(s)", nullptr, n);
    case Serves::AdhesiveTube: return Words::tr("%1 of adhesive from the tube").arg(so());
    case Serves::Grout: return Words::tr("%1 of grout").arg(so());
    case Serves::BarrierTape: return Words::tr("%1 of barrier tape").arg(so());
    case Serves::SeamSealer: return Words::tr("%1 of seam to seal").arg(so());
    case Serves::CornerBlocks: return Words::tr("%n corner block(s)", nullptr, n);
    case Serves::Zip: return Words::tr("%1 of zip").arg(so());
    case Serves::Thread: return Words::tr("%1 of thread").arg(so());
    case Serves::PipingCord: return Words::tr("%1 of piping cord").arg(so());
    case Serves::FoamGlue: return Words::tr("%1 to glue").arg(so());
    case Serves::PlainLining: return Words::tr("%1 of plain lining").arg(so());
    case Serves::AbrasiveDiscs: return Words::tr("%1 to sand").arg(so());
    case Serves::MaskingTape: return Words::tr("%1 of masking tape").arg(so());
    case Serves::Blades: return Words::tr("%1 to cut with a blade").arg(so());
    case Serves::Sealant: return Words::tr("%1 of bead").arg(so());
    }
    return {};
}

QString amountText(Quantity quantity, double amount, const Figures& f) {
    switch (quantity) {
    case Quantity::Area: return f.area({amount});
    case Quantity::Volume: return Words::tr("%1 l").arg(f.number(amount, 2));
    case Quantity::Mass: return f.mass({amount});
    case Quantity::Length: return f.run(Mm{amount * 1000});
    case Quantity::Piece:
    case Quantity::Pack: break;
    }
    return f.number(amount, 0);
}

namespace {

/// What one of it holds, where an offer's size is bought.
QString offeredText(const Purchase& p, const Figures& f) {
    const bool measured =
        p.quantity == Quantity::Volume || p.quantity == Quantity::Mass || p.quantity == Quantity::Length;
    if (p.serves || !measured) return f.number(*p.offered, *p.offered == std::floor(*p.offered) ? 0 : 2);
    return amountText(p.quantity, *p.offered, f);
}

} // namespace

QString shelfText(const Purchase& p, const Figures& f) {
    if (!(p.shelf > 0)) return {};
    if (p.serves) return measureText(*p.serves, p.shelf, f);
    if (p.measuredOut() || p.quantity == Quantity::Length) return amountText(p.quantity, p.shelf, f);
    return itemsText(p.family, static_cast<int>(std::lround(p.shelf)));
}

QString purchaseName(const Purchase& purchase, const Catalogue& catalogue, const Figures& figures) {
    const Product* product = catalogue.find(purchase.product);
    const QString name = product ? QString::fromStdString(product->name) : QString();
    if (purchase.size.empty()) return name;
    return Words::tr("%1, %2").arg(name, purchase.offered ? offeredText(purchase, figures)
                                                          : QString::fromStdString(purchase.size));
}

QString planksText(int planks) { return Words::tr("%n plank(s)", nullptr, planks); }

} // namespace westrum
