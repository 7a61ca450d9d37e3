#include "formats/cutting_file.h"

#include "formats/json_walk.h"

#include <QCoreApplication>

#include <cmath>
#include <numbers>

namespace westrum {

namespace {

struct CuttingWords {
    Q_DECLARE_TR_FUNCTIONS(CuttingWords)
};

constexpr double kAny = 1e300; // the core says what is wrong with a size; the file only has to hold a number
constexpr int kMostOfAPiece = 1'000'000;
constexpr std::size_t kMostKinds = 20000;
constexpr std::size_t kMostCorners = 4000;
constexpr std::size_t kMostRotations = 720;

enum class Kind { Linear, Sheet, Roll };
const FileWords<Kind, 3> kKinds{{{Kind::Linear, "linear"}, {Kind::Sheet, "sheet"}, {Kind::Roll, "roll"}}};

int nestingOf(const QByteArray& bytes) {
    int depth = 0;
    int deepest = 0;
    for (const char c : bytes) {
        if (c == '[' || c == '{') deepest = std::max(deepest, ++depth);
        if (c == ']' || c == '}') --depth;
    }
    return deepest;
}

class CuttingReader : public JsonWalk {
public:
    CuttingInstance read(const Json& root) {
        CuttingInstance instance;
        Kind kind = Kind::Linear;
        word(root, {}, "kind", kKinds, kind);
        if (!faults().empty()) return instance;
        if (kind == Kind::Linear)
            instance.problem = linear(root, instance.names);
        else if (kind == Kind::Sheet)
            instance.problem = sheet(root, instance.names);
        else
            instance.problem = roll(root, instance.names);
        return instance;
    }

private:
    void stockCount(const Json& entry, const std::string& at, std::optional<int>& into) {
        if (!member(entry, at, "count", false)) return;
        int n = 0;
        count(entry, at, "count", 0, kMostOfAPiece, n, true);
        into = n;
    }
    void piece(const Json& entry, const std::string& at, std::vector<std::string>& names, int& pieces) {
        std::string name;
        id(entry, at, seen_, name);
        names.push_back(name);
        count(entry, at, "count", 0, kMostOfAPiece, pieces, false);
    }

    LengthsProblem linear(const Json& root, std::vector<std::string>& names) {
        LengthsProblem problem;
        number(root, {}, "kerf", -kAny, kAny, problem.kerfMm);
        number(root, {}, "end_trim", -kAny, kAny, problem.endTrimMm, false);
        each(root, {}, "stock", [&](const Json& entry, const std::string& at) {
            LengthStock stock;
            number(entry, at, "length", -kAny, kAny, stock.lengthMm);
            number(entry, at, "price", -kAny, kAny, stock.price);
            stockCount(entry, at, stock.count);
            problem.stock.push_back(stock);
        });
        each(
            root, {}, "pieces",
            [&](const Json& entry, const std::string& at) {
                LengthPiece p;
                piece(entry, at, names, p.count);
                number(entry, at, "length", -kAny, kAny, p.lengthMm);
                problem.pieces.push_back(p);
            },
            true, kMostKinds);
        return problem;
    }

    SheetsProblem sheet(const Json& root, std::vector<std::string>& names) {
        SheetsProblem problem;
        number(root, {}, "kerf", -kAny, kAny, problem.kerfMm);
        number(root, {}, "edge_trim", -kAny, kAny, problem.edgeTrimMm, false);
        each(root, {}, "stock", [&](const Json& entry, const std::string& at) {
            SheetStock stock;
            number(entry, at, "w", -kAny, kAny, stock.widthMm);
            number(entry, at, "h", -kAny, kAny, stock.heightMm);
            number(entry, at, "price", -kAny, kAny, stock.price);
            stockCount(entry, at, stock.count);
            problem.stock.push_back(stock);
        });
        each(
            root, {}, "pieces",
            [&](const Json& entry, const std::string& at) {
                SheetPiece p;
                piece(entry, at, names, p.count);
                number(entry, at, "w", -kAny, kAny, p.widthMm);
                number(entry, at, "h", -kAny, kAny, p.heightMm);
                flag(entry, at, "rotate", p.mayTurn);
                problem.pieces.push_back(p);
            },
            true, kMostKinds);
        return problem;
    }

    std::optional<Point> point(const Json& value, const std::string& at) {
        if (value.is_array() && value.size() == 2 && value[0].is_number() && value[1].is_number())
            return Point{value[0].get<double>(), value[1].get<double>()};
        fault(FileFaultKind::WrongType, at, "point");
        return std::nullopt;
    }
    Ring ring(const Json& value, const std::string& at) {
        Ring result;
        if (!value.is_array()) {
            fault(FileFaultKind::WrongType, at, "list");
            return result;
        }
        if (value.size() > kMostCorners) {
            fault(FileFaultKind::TooMany, at);
            return result;
        }
        for (const Json& corner : value) {
            const auto p = point(corner, at);
            if (!p) break;
            result.push_back(*p);
        }
        return result;
    }
    template <class Take>
    void list(const Json& object, const std::string& at, const char* key, std::size_t most, const Take& take) {
        const Json* values = member(object, at, key, false);
        if (!values) return;
        if (!values->is_array()) return fault(FileFaultKind::WrongType, join(at, key), "list");
        if (values->size() > most) return fault(FileFaultKind::TooMany, join(at, key));
        for (const Json& value : *values) take(value, join(at, key));
    }

    ShapesProblem roll(const Json& root, std::vector<std::string>& names) {
        ShapesProblem problem;
        number(root, {}, "width", -kAny, kAny, problem.widthMm);
        number(root, {}, "gap", -kAny, kAny, problem.gapMm, false);
        if (const Json* repeat = objectMember(root, {}, "repeat", false)) {
            number(*repeat, "repeat", "along", -kAny, kAny, problem.repeat.alongMm, false);
            number(*repeat, "repeat", "across", -kAny, kAny, problem.repeat.acrossMm, false);
            if (const Json* phase = member(*repeat, "repeat", "phase", false))
                problem.repeat.phase = point(*phase, "repeat.phase").value_or(Point{});
        }
        list(root, {}, "forbidden", 1000, [&](const Json& value, const std::string& at) {
            problem.forbidden.push_back({{ring(value, at)}});
            Ring& outline = problem.forbidden.back().rings[0];
            if (outline.size() < 3 || crossesItself(outline))
                fault(FileFaultKind::OutOfRange, at);
            else if (signedArea(outline) < 0)
                std::reverse(outline.begin(), outline.end());
        });
        each(
            root, {}, "pieces",
            [&](const Json& entry, const std::string& at) {
                ShapePiece p;
                piece(entry, at, names, p.count);
                if (const Json* outline = member(entry, at, "outline")) p.outline = ring(*outline, join(at, "outline"));
                list(entry, at, "holes", 1000,
                     [&](const Json& value, const std::string& path) { p.holes.push_back(ring(value, path)); });
                p.rotationsRad.clear();
                list(entry, at, "rotations", kMostRotations, [&](const Json& value, const std::string& path) {
                    if (value.is_number())
                        p.rotationsRad.push_back(value.get<double>() * std::numbers::pi / 180);
                    else
                        fault(FileFaultKind::WrongType, path, "number");
                });
                if (!entry.contains("rotations")) p.rotationsRad = {0};
                count(entry, at, "group", 0, 10000, p.group, false);
                problem.pieces.push_back(std::move(p));
            },
            true, kMostKinds);
        return problem;
    }

    std::set<std::string> seen_;
};

double degrees(double rad) {
    const double d = rad * 180 / std::numbers::pi;
    return std::abs(d - std::round(d)) < 1e-9 ? std::round(d) : d;
}

template <class... Visitors> struct Overloaded : Visitors... { using Visitors::operator()...; };
template <class... Visitors> Overloaded(Visitors...) -> Overloaded<Visitors...>;

} // namespace

Result<CuttingInstance, FileFaults> readCutting(const QByteArray& bytes) {
    const auto refuse = [](FileFaultKind kind, std::string detail = {}) {
        return FileFaults{{kind, {}, std::move(detail)}};
    };
    if (bytes.size() > kLargestJobFile) return refuse(FileFaultKind::TooLarge);
    if (bytes.trimmed().isEmpty()) return refuse(FileFaultKind::Empty);
    if (nestingOf(bytes) > 20) return refuse(FileFaultKind::TooDeep);
    Json root;
    try {
        root = Json::parse(bytes.constData(), bytes.constData() + bytes.size());
    } catch (const Json::parse_error& e) {
        return refuse(FileFaultKind::NotJson, std::to_string(e.byte));
    } catch (const Json::exception&) {
        return refuse(FileFaultKind::NotJson, "0");
    }
    if (!root.is_object()) return FileFaults{{FileFaultKind::Missing, "kind", {}}};
    CuttingReader reader;
    CuttingInstance instance = reader.read(root);
    if (!reader.faults().empty()) return std::move(reader.faults());
    return instance;
}

CuttingFaults faultsOf(const CuttingInstance& instance) {
    return std::visit([](const auto& problem) { return faultsOf(problem); }, instance.problem);
}

CuttingPlan cut(const CuttingInstance& instance, const Effort& effort) {
    return std::visit(
        Overloaded{[&](const LengthsProblem& problem) -> CuttingPlan { return cutLengths(problem, effort); },
                   [&](const SheetsProblem& problem) -> CuttingPlan { return cutSheets(problem, effort); },
                   [&](const ShapesProblem& problem) -> CuttingPlan { return placeShapes(problem, effort); }},
        instance.problem);
}

QByteArray answerAsJson(const CuttingInstance& instance, const CuttingPlan& plan) {
    const auto& names = instance.names;
    Json root;
    const auto unplaced = [&](const std::vector<std::size_t>& pieces) {
        if (pieces.empty()) return;
        root["unplaced"] = Json::array();
        for (const std::size_t i : pieces) root["unplaced"].push_back(names[i]);
    };
    std::visit(
        Overloaded{
            [&](const LengthsPlan& lengths) {
                const auto& problem = std::get<LengthsProblem>(instance.problem);
                root = {{"kind", "linear"},
                        {"lower_bound_cost", lengths.lowerBoundCost},
                        {"cost", lengths.cost},
                        {"proven", lengths.proven},
                        {"bars", Json::array()}};
                for (const CutBar& bar : lengths.bars) {
                    Json pieces = Json::array();
                    for (const std::size_t i : bar.pieces) pieces.push_back(names[i]);
                    root["bars"].push_back(
                        {{"stock", bar.stock}, {"pieces", std::move(pieces)}, {"leftover", leftoverMm(problem, bar)}});
                }
                unplaced(lengths.unplaced);
            },
            [&](const SheetsPlan& sheets) {
                root = {{"kind", "sheet"},
                        {"lower_bound_cost", sheets.lowerBoundCost},
                        {"cost", sheets.cost},
                        {"proven", sheets.proven},
                        {"sheets", Json::array()}};
                for (const CutSheet& sheet : sheets.sheets) {
                    Json pieces = Json::array();
                    for (const PlacedRectangle& p : sheet.pieces)
                        pieces.push_back({{"id", names[p.piece]}, {"x", p.x}, {"y", p.y}, {"rotated", p.turned}});
                    root["sheets"].push_back({{"stock", sheet.stock}, {"pieces", std::move(pieces)}});
                }
                unplaced(sheets.unplaced);
            },
            [&](const ShapesPlan& shapes) {
                root = {{"kind", "roll"},
                        {"length", shapes.lengthMm},
                        {"lower_bound", shapes.lowerBoundMm},
                        {"proven", shapes.proven},
                        {"placements", Json::array()}};
                for (const PlacedShape& p : shapes.placements)
                    root["placements"].push_back(
                        {{"id", names[p.piece]}, {"x", p.at.x}, {"y", p.at.y}, {"rotation", degrees(p.rotationRad)}});
                unplaced(shapes.unplaced);
            }},
        plan);
    return QByteArray::fromStdString(root.dump()) + '\n';
}

QString sentence(const CuttingFaultAt& fault, const std::vector<std::string>& pieceNames) {
    const QString piece = fault.index < pieceNames.size() ? QString::fromStdString(pieceNames[fault.index])
                                                          : QString::number(fault.index + 1);
    const QString place = QString::number(fault.index + 1);
    switch (fault.fault) {
    case CuttingFault::NoPieces: return CuttingWords::tr("There are no pieces to cut.");
    case CuttingFault::NoStock: return CuttingWords::tr("There is no stock to cut from.");
    case CuttingFault::PieceNotPositive:
        return CuttingWords::tr("Piece “%1” has no size: it must be greater than 0.").arg(piece);
    case CuttingFault::PieceAbsurd:
        return CuttingWords::tr("Piece “%1” is larger, or has more corners, than any stock could carry.").arg(piece);
    case CuttingFault::PieceTooLarge:
        return CuttingWords::tr("Piece “%1” is larger than any stock, as it may lie.").arg(piece);
    case CuttingFault::PieceCountNegative:
        return CuttingWords::tr("Piece “%1” cannot be wanted less than no times.").arg(piece);
    case CuttingFault::PieceCrosses: return CuttingWords::tr("The outline of piece “%1” crosses itself.").arg(piece);
    case CuttingFault::PieceHoleOutside:
        return CuttingWords::tr("A hole of piece “%1” lies outside it, or crosses it or another hole.").arg(piece);
    case CuttingFault::PieceTooMany: return CuttingWords::tr("There are more than %1 pieces.").arg(kMostPieces);
    case CuttingFault::PieceNoRotation: return CuttingWords::tr("Piece “%1” may not lie in any rotation.").arg(piece);
    case CuttingFault::StockNotPositive:
        return CuttingWords::tr("Stock %1 has no size: it must be greater than 0.").arg(place);
    case CuttingFault::StockAbsurd: return CuttingWords::tr("Stock %1 is larger than any stock can be.").arg(place);
    case CuttingFault::StockPriceNegative:
        return CuttingWords::tr("The price of stock %1 must be 0 or more.").arg(place);
    case CuttingFault::KerfNegative: return CuttingWords::tr("Kerf, gap and trim must be 0 or more.");
    case CuttingFault::TrimEatsStock:
        return CuttingWords::tr("Nothing of stock %1 is left between its trimmed edges.").arg(place);
    case CuttingFault::RepeatNegative: return CuttingWords::tr("The pattern repeat must be 0 or more.");
    case CuttingFault::LockedUnknown:
        return CuttingWords::tr("What is already cut (%1) is not among the pieces and the stock.").arg(place);
    case CuttingFault::LockedDoesNotFit:
        return CuttingWords::tr("What is already cut or pinned (%1) overlaps, or does not lie on its stock.")
            .arg(place);
    }
    return {};
}

} // namespace westrum
