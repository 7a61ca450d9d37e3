#include "formats/cut_list_json.h"

#include <cmath>

namespace westrum {
namespace {

constexpr double kMostMm = 1e6;
constexpr std::size_t kMostCorners = 4000;
constexpr std::size_t kMostPiecesInList = 5000;

std::vector<Ring> readLines(JsonWalk& walk, const Json& entry, const std::string& path, const char* key) {
    std::vector<Ring> lines;
    const Json* list = walk.member(entry, path, key, false);
    if (!list) return lines;
    const std::string at = JsonWalk::join(path, key);
    if (!list->is_array()) {
        walk.fault(FileFaultKind::WrongType, at, "list");
        return lines;
    }
    std::size_t corners = 0;
    for (const Json& line : *list) {
        if (!line.is_array() || (corners += line.size()) > kMostCorners) {
            walk.fault(line.is_array() ? FileFaultKind::TooMany : FileFaultKind::WrongType, at, "list of lines");
            return {};
        }
        Ring ring;
        for (const Json& p : line) {
            if (!p.is_array() || p.size() != 2 || !p[0].is_number() || !p[1].is_number()) {
                walk.fault(FileFaultKind::WrongType, at, "list of x and y");
                return {};
            }
            const Point point{p[0].get<double>(), p[1].get<double>()};
            if (!(std::abs(point.x) <= kMostMm) || !(std::abs(point.y) <= kMostMm)) {
                walk.fault(FileFaultKind::OutOfRange, at);
                return {};
            }
            ring.push_back(point);
        }
        lines.push_back(std::move(ring));
    }
    return lines;
}

} // namespace

Region readShape(JsonWalk& walk, const Json& entry, const std::string& path) {
    Region shape{readLines(walk, entry, path, "shape")};
    for (const Ring& ring : shape.rings)
        if (ring.size() < 3) {
            walk.fault(FileFaultKind::OutOfRange, path + ".shape");
            return {};
        }
    return shape;
}

Json written(const std::vector<Ring>& lines) {
    Json list = Json::array();
    for (const Ring& ring : lines) {
        Json line = Json::array();
        for (const Point& p : ring) line.push_back({p.x, p.y});
        list.push_back(std::move(line));
    }
    return list;
}

CutList readCutList(JsonWalk& walk, const Json& entry, const std::string& path, Currency currency) {
    CutList list;
    std::set<std::string> pieceIds, stockIds;
    const auto flag = [&](const Json& object, const std::string& at, const char* key, bool& into) {
        walk.flag(object, at, key, into);
    };
    walk.each(
        entry, path, "pieces",
        [&](const Json& p, const std::string& at) {
            LoosePiece piece;
            walk.id(p, at, pieceIds, piece.id);
            walk.text(p, at, "name", piece.name, false);
            walk.text(p, at, "surface", piece.surface, false);
            piece.length = walk.reading(p, at, "length");
            piece.width = walk.reading(p, at, "width");
            walk.count(p, at, "count", 0, 10000, piece.count);
            flag(p, at, "mayTurn", piece.mayTurn);
            walk.text(p, at, "together", piece.together, false);
            piece.shape = readShape(walk, p, at);
            piece.folds = readLines(walk, p, at, "folds");
            piece.marks = readLines(walk, p, at, "marks");
            list.pieces.push_back(std::move(piece));
        },
        false, kMostPiecesInList);
    flag(entry, path, "useOwnStock", list.useOwnStock);
    walk.each(
        entry, path, "stock",
        [&](const Json& s, const std::string& at) {
            StockEntry stock;
            walk.id(s, at, stockIds, stock.id);
            walk.text(s, at, "name", stock.name, false);
            flag(s, at, "rack", stock.rack);
            flag(s, at, "used", stock.used);
            stock.length = walk.reading(s, at, "length");
            stock.width = walk.reading(s, at, "width");
            stock.shape = readShape(walk, s, at);
            double minor = 0;
            if (walk.number(s, at, "priceMinor", 0, double(kMostMinorUnits), minor, false))
                stock.price = Money{std::int64_t(std::llround(minor)), currency};
            int count = -1;
            walk.count(s, at, "count", 0, 100000, count);
            if (count >= 0) stock.count = count;
            walk.text(s, at, "book", stock.book, false);
            walk.text(s, at, "lot", stock.lot, false);
            walk.text(s, at, "stands", stock.stands, false);
            list.stock.push_back(std::move(stock));
        },
        false);
    walk.each(
        entry, path, "kept",
        [&](const Json& k, const std::string& at) {
            KeptItem item;
            walk.text(k, at, "stock", item.stock, false);
            flag(k, at, "locked", item.locked);
            walk.number(k, at, "lengthMm", 0, kMostMm, item.lengthMm, false);
            walk.number(k, at, "widthMm", 0, kMostMm, item.widthMm, false);
            walk.each(
                k, at, "pieces",
                [&](const Json& p, const std::string& on) {
                    KeptPiece piece;
                    walk.text(p, on, "piece", piece.piece);
                    walk.text(p, on, "name", piece.name, false);
                    walk.number(p, on, "x", -kMostMm, kMostMm, piece.at.x);
                    walk.number(p, on, "y", -kMostMm, kMostMm, piece.at.y);
                    walk.number(p, on, "rotationRad", -10, 10, piece.rotationRad, false);
                    flag(p, on, "cut", piece.cut);
                    piece.shape = readShape(walk, p, on);
                    if (piece.shape.empty()) walk.fault(FileFaultKind::Missing, on + ".shape");
                    item.pieces.push_back(std::move(piece));
                },
                true, kMostPiecesInList);
            list.kept.push_back(std::move(item));
        },
        false, kMostPiecesInList);
    return list;
}

Json written(const CutList& list) {
    Json out = Json::object();
    out["pieces"] = Json::array();
    for (const LoosePiece& p : list.pieces) {
        Json piece{{"id", p.id}, {"name", p.name}, {"count", p.count}};
        if (!p.surface.empty()) piece["surface"] = p.surface;
        putReading(piece, "length", p.length);
        putReading(piece, "width", p.width);
        if (p.mayTurn) piece["mayTurn"] = true;
        if (!p.together.empty()) piece["together"] = p.together;
        if (!p.shape.empty()) piece["shape"] = written(p.shape.rings);
        if (!p.folds.empty()) piece["folds"] = written(p.folds);
        if (!p.marks.empty()) piece["marks"] = written(p.marks);
        out["pieces"].push_back(std::move(piece));
    }
    out["useOwnStock"] = list.useOwnStock;
    out["stock"] = Json::array();
    for (const StockEntry& s : list.stock) {
        Json stock{{"id", s.id}, {"name", s.name}, {"rack", s.rack}, {"used", s.used}};
        putReading(stock, "length", s.length);
        putReading(stock, "width", s.width);
        if (!s.shape.empty()) stock["shape"] = written(s.shape.rings);
        if (s.price) stock["priceMinor"] = s.price->minor;
        if (s.count) stock["count"] = *s.count;
        for (const auto& [key, text] : {std::pair{"book", &s.book}, {"lot", &s.lot}, {"stands", &s.stands}})
            if (!text->empty()) stock[key] = *text;
        out["stock"].push_back(std::move(stock));
    }
    out["kept"] = Json::array();
    for (const KeptItem& k : list.kept) {
        Json item{{"stock", k.stock}, {"locked", k.locked}, {"lengthMm", k.lengthMm}, {"widthMm", k.widthMm}};
        item["pieces"] = Json::array();
        for (const KeptPiece& p : k.pieces)
            item["pieces"].push_back({{"piece", p.piece},
                                      {"name", p.name},
                                      {"x", p.at.x},
                                      {"y", p.at.y},
                                      {"rotationRad", p.rotationRad},
                                      {"cut", p.cut},
                                      {"shape", written(p.shape.rings)}});
        out["kept"].push_back(std::move(item));
    }
    return out;
}

} // namespace westrum
