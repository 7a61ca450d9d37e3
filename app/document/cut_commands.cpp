#include "app/document/cut_commands.h"

#include "app/document/record_commands.h"
#include "app/document/set_value.h"
#include "core/units/print.h"
#include "formats/words.h"

#include <QCoreApplication>

#include <algorithm>
#include <set>

namespace westrum {
namespace {

struct CutCommands {
    Q_DECLARE_TR_FUNCTIONS(CutCommands)
};

auto cutListOf(const std::string& product) {
    return [product](auto& job) -> auto& {
        if constexpr (std::is_const_v<std::remove_reference_t<decltype(job)>>)
            return job.cutList(product);
        else
            return job.cutLists[product];
    };
}

/// An id that none of a list has.
template <class List> std::string freeId(const List& list, const char* stem) {
    std::set<std::string> taken;
    for (const auto& entry : list) taken.insert(entry.id);
    for (std::size_t n = list.size() + 1;; ++n)
        if (std::string id = stem + std::to_string(n); !taken.contains(id)) return id;
}

/// The piece's own shape, not turned: as it is to be kept.
KeptPiece keptOf(const ProductCut& cut, const LyingPiece& lies) {
    return {lies.key,         lies.name.key(), lies.at,
            lies.rotationRad, lies.cut,        lies.piece >= 0 ? cut.pieces[std::size_t(lies.piece)].shape : Region{}};
}

bool holds(const KeptItem& item, const std::string& key) {
    return std::any_of(item.pieces.begin(), item.pieces.end(), [&](const KeptPiece& p) { return p.piece == key; });
}

/// The kept item on which one of the item's pieces is kept; none if nothing of it is.
KeptItem* keptItemOf(CutList& list, const CutItem& item) {
    for (KeptItem& kept : list.kept)
        for (const LyingPiece& lies : item.pieces)
            if (holds(kept, lies.key)) return &kept;
    return nullptr;
}

KeptItem& keepItem(CutList& list, const CutItem& item) {
    if (KeptItem* kept = keptItemOf(list, item)) return *kept;
    list.kept.push_back({item.stock, false, 0, 0, {}});
    return list.kept.back();
}

void letGo(CutList& list, const std::string& key) {
    for (KeptItem& kept : list.kept)
        if (!kept.locked) std::erase_if(kept.pieces, [&](const KeptPiece& p) { return p.piece == key; });
    std::erase_if(list.kept, [](const KeptItem& k) { return k.pieces.empty(); });
}

/// Locks an item with all that lies on it.
KeptItem& lock(CutList& list, const ProductCut& cut, const CutItem& item) {
    KeptItem* kept = keptItemOf(list, item);
    if (kept && kept->locked) return *kept;
    for (const LyingPiece& lies : item.pieces) letGo(list, lies.key);
    KeptItem locked{item.stock, true, item.lengthMm, item.widthMm, {}};
    for (const LyingPiece& lies : item.pieces) locked.pieces.push_back(keptOf(cut, lies));
    list.kept.push_back(std::move(locked));
    return list.kept.back();
}

CutList listOf(JobDocument& d, const std::string& product) { return d.job().cutList(product); }

} // namespace

Command changeCutList(JobDocument& d, const QString& what, const std::string& product, CutList list) {
    return setValue(what, d, JobPart::Cutting, {}, cutListOf(product), std::move(list));
}

Command addLoosePieces(JobDocument& d, const std::string& product, std::vector<LoosePiece> pieces) {
    CutList list = listOf(d, product);
    for (LoosePiece& piece : pieces) {
        if (piece.id.empty()) piece.id = freeId(list.pieces, "p");
        list.pieces.push_back(std::move(piece));
    }
    return changeCutList(d, CutCommands::tr("Add pieces"), product, std::move(list));
}

Command removeLoosePiece(JobDocument& d, const std::string& product, const std::string& piece) {
    CutList list = listOf(d, product);
    std::erase_if(list.pieces, [&](const LoosePiece& p) { return p.id == piece; });
    return changeCutList(d, CutCommands::tr("Remove a piece"), product, std::move(list));
}

Command addStockEntry(JobDocument& d, const std::string& product, StockEntry entry) {
    CutList list = listOf(d, product);
    if (entry.id.empty()) entry.id = freeId(list.stock, "s");
    list.stock.push_back(std::move(entry));
    return changeCutList(d, CutCommands::tr("Add stock"), product, std::move(list));
}

Command removeStockEntry(JobDocument& d, const std::string& product, const std::string& entry) {
    CutList list = listOf(d, product);
    std::erase_if(list.stock, [&](const StockEntry& s) { return s.id == entry; });
    return changeCutList(d, CutCommands::tr("Remove stock"), product, std::move(list));
}

Command useStock(JobDocument& d, const std::string& product, const std::string& entry, bool use) {
    CutList list = listOf(d, product);
    if (entry.empty()) list.useOwnStock = use;
    for (StockEntry& s : list.stock)
        if (s.id == entry) s.used = use;
    return changeCutList(d, use ? CutCommands::tr("Use stock") : CutCommands::tr("Leave stock out"), product,
                         std::move(list));
}

Command pinPiece(JobDocument& d, const ProductCut& cut, std::size_t item, std::size_t piece, bool pin) {
    CutList list = listOf(d, cut.product);
    const CutItem& on = cut.items[item];
    const LyingPiece& lies = on.pieces[piece];
    if (!pin) {
        letGo(list, lies.key);
    } else if (!on.locked && !on.decided) {
        KeptItem& kept = keepItem(list, on);
        if (!holds(kept, lies.key)) kept.pieces.push_back(keptOf(cut, lies));
    }
    return changeCutList(d,
                         pin ? CutCommands::tr("Pin %1").arg(pieceText(lies.name))
                             : CutCommands::tr("Let %1 go").arg(pieceText(lies.name)),
                         cut.product, std::move(list));
}

Command pinAll(JobDocument& d, const ProductCut& cut) {
    CutList list = listOf(d, cut.product);
    for (const CutItem& item : cut.items) {
        if (item.locked || item.decided || item.pieces.empty()) continue;
        KeptItem& kept = keepItem(list, item);
        for (const LyingPiece& lies : item.pieces)
            if (!holds(kept, lies.key)) kept.pieces.push_back(keptOf(cut, lies));
    }
    return changeCutList(d, CutCommands::tr("Keep this layout"), cut.product, std::move(list));
}

Command movePiece(JobDocument& d, const ProductCut& cut, std::size_t item, std::size_t piece, std::size_t to, Point at,
                  double rotationRad) {
    CutList list = listOf(d, cut.product);
    const LyingPiece& lies = cut.items[item].pieces[piece];
    letGo(list, lies.key);
    KeptPiece moved = keptOf(cut, lies);
    moved.at = at;
    moved.rotationRad = rotationRad;
    // Its own item may have been kept for this piece alone: then the new place is a kept item of its own.
    CutItem target = cut.items[to];
    std::erase_if(target.pieces, [&](const LyingPiece& l) { return l.key == lies.key; });
    keepItem(list, target).pieces.push_back(std::move(moved));
    return changeCutList(d, CutCommands::tr("Move %1").arg(pieceText(lies.name)), cut.product, std::move(list));
}

Command unpinAll(JobDocument& d, const std::string& product) {
    CutList list = listOf(d, product);
    std::erase_if(list.kept, [](const KeptItem& k) { return !k.locked; });
    return changeCutList(d, CutCommands::tr("Let all pins go"), product, std::move(list));
}

/// Writes down what was cut, or strikes it.
static Command writeCut(JobDocument& d, const ProductCut& cut, const std::vector<LyingPiece>& pieces, bool done) {
    std::vector<RecordEntry> entries;
    std::vector<Command> struck;
    for (const LyingPiece& p : pieces) {
        const std::string name = pieceText(p.name).toStdString();
        const std::string surface =
            p.piece >= 0 ? cut.pieces[static_cast<std::size_t>(p.piece)].surface : std::string();
        const auto same = [&](const RecordEntry& e) {
            return e.kind == EntryKind::PieceCut && e.product == cut.product && e.piece == name && e.surface == surface;
        };
        const auto& record = d.job().record;
        const auto known = std::find_if(record.rbegin(), record.rend(), same);
        if (!done) {
            if (known != record.rend()) struck.push_back(removeEntry(d, known->id));
            continue;
        }
        if (known != record.rend()) continue; // ticked before
        RecordEntry e = entryNow(d, EntryKind::PieceCut);
        e.product = cut.product;
        e.surface = surface;
        e.piece = name;
        e.amount = 1;
        entries.push_back(std::move(e));
    }
    if (done) return addEntries(d, std::move(entries));
    return together(CutCommands::tr("Take the ticks away"), std::move(struck));
}

Command tickPiece(JobDocument& d, const ProductCut& cut, std::size_t item, std::size_t piece, bool done) {
    CutList list = listOf(d, cut.product);
    const std::string key = cut.items[item].pieces[piece].key;
    KeptItem& kept = lock(list, cut, cut.items[item]);
    for (KeptPiece& p : kept.pieces)
        if (p.piece == key) p.cut = done;
    if (std::none_of(kept.pieces.begin(), kept.pieces.end(), [](const KeptPiece& p) { return p.cut; })) {
        // Nothing of it is cut: it may change again, but what was pinned on purpose is not known any more.
        list.kept.erase(list.kept.begin() + (&kept - list.kept.data()));
    }
    const QString name = done ? CutCommands::tr("Tick a piece") : CutCommands::tr("Take a tick away");
    std::vector<Command> parts;
    parts.push_back(changeCutList(d, name, cut.product, std::move(list)));
    parts.push_back(writeCut(d, cut, {cut.items[item].pieces[piece]}, done));
    return together(name, std::move(parts));
}

Command tickItem(JobDocument& d, const ProductCut& cut, std::size_t item, bool done) {
    CutList list = listOf(d, cut.product);
    KeptItem& kept = lock(list, cut, cut.items[item]);
    for (KeptPiece& p : kept.pieces) p.cut = done;
    if (!done) list.kept.erase(list.kept.begin() + (&kept - list.kept.data()));
    const QString name = done ? CutCommands::tr("Tick all of it as cut") : CutCommands::tr("Take the ticks away");
    std::vector<Command> parts;
    parts.push_back(changeCutList(d, name, cut.product, std::move(list)));
    parts.push_back(writeCut(d, cut, cut.items[item].pieces, done));
    return together(name, std::move(parts));
}

Command leftoversToRack(JobDocument& d, const ProductCut& cut, std::size_t item, const std::string& name) {
    CutList list = listOf(d, cut.product);
    for (const LeftRectangle& left : cut.items[item].left) {
        StockEntry entry;
        entry.id = freeId(list.stock, "s");
        entry.name = name;
        entry.rack = true;
        entry.count = 1;
        // A leftover is measured down to whole millimetres: it can only turn out larger.
        const auto reading = [](double mm) {
            const double whole = std::floor(mm);
            return Reading{std::to_string(static_cast<long>(whole)) + " mm", {whole}};
        };
        entry.length = reading(left.widthMm);
        entry.width = reading(left.heightMm);
        list.stock.push_back(std::move(entry));
    }
    return changeCutList(d, CutCommands::tr("Leftovers to the rack"), cut.product, std::move(list));
}

} // namespace westrum
