#include "core/plan/rack.h"
#include "formats/book_file.h"
#include "formats/demo.h"

#include <algorithm>
#include <string>
#include <utility>

namespace westrum {
namespace {

constexpr CivilDate kKept{2027, 4, 4};

/// An offcut that stands on the rack since Plover.
RackPiece left(const Catalogue& catalogue, const char* number, const char* product, double length, double width,
               Ring shape = {}) {
    const Product* p = catalogue.find(product);
    RackPiece piece{.number = number,
                    .product = p ? productIdentity(*p) : std::string(),
                    .name = p ? p->name : product,
                    .lengthMm = length,
                    .widthMm = width,
                    .kept = kKept,
                    .from = "Plover"};
    if (!shape.empty()) piece.shape = {{std::move(shape)}};
    return piece;
}

Reading mm(double length) { return {std::to_string(static_cast<int>(length)), {length}}; }

Surface rectangleOf(const char* id, const char* name, SurfaceKind kind, double length, double height) {
    Surface s;
    s.id = id;
    s.name = name;
    s.kind = kind;
    s.ghostLength = {length};
    s.ghostHeight = {height};
    s.measurement.readings[std::size_t(QuadReading::AB)] = mm(length);
    s.measurement.readings[std::size_t(QuadReading::BC)] = mm(height);
    return s;
}

} // namespace

WorkshopBook exampleBook() {
    const Job plover = demoJob();
    const Catalogue& all = plover.catalogue;
    const auto identity = [&](const char* product) { return productIdentity(*all.find(product)); };
    WorkshopBook book;
    Person wren{.name = "Wren", .practised = false, .hours = {}};
    wren.hours["boards"] = {0.95, 0.042};
    wren.spoilChance = 0.09;
    wren.coverage[identity("contact-can")] = 0.32;
    book.people = {wren};
    book.rack = {
        left(all, "R1", "dipper-ply", 1180, 610),
        left(all, "R2", "dipper-ply", 742, 418),
        left(all, "R3", "thrush-lining", 1460, 930,
             {{0, 0}, {1460, 0}, {1460, 930}, {820, 930}, {820, 640}, {430, 640}, {430, 930}, {0, 930}}),
        left(all, "R4", "poplar-ply-12", 1240, 388),
        left(all, "R5", "coot-vinyl", 1300, 720, {{0, 0}, {1300, 0}, {1300, 420}, {1010, 720}, {0, 720}}),
        left(all, "R6", "larch-board", 1340, 88),
        left(all, "R7", "larch-board", 910, 88),
        left(all, "R8", "birch-ply-18", 520, 460),
        left(all, "R9", "siskin-weave", 980, 640),
    };
    const auto where = [&](std::size_t at, const char* stands, const char* lot) {
        book.rack[at].stands = stands;
        book.rack[at].lot = lot;
    };
    where(0, "rack, lower left", "T-40");
    where(1, "rack, lower left", "T-40");
    where(2, "tube 2", "N-8");
    where(3, "rack, upper", "");
    where(4, "tube 1", "N-3");
    where(5, "under the bench", "B-117");
    where(6, "under the bench", "B-117");
    where(7, "rack, upper", "");
    where(8, "shelf", "W-2");
    const auto pack = [&](const char* number, const char* product, double count, const char* lot, CivilDate goesOff) {
        book.packs.push_back({.number = number,
                              .product = identity(product),
                              .name = all.find(product)->name,
                              .count = count,
                              .opened = count < 1,
                              .lot = lot,
                              .stands = "shelf, frost-free",
                              .kept = kKept,
                              .goesOff = goesOff,
                              .from = "Plover"});
    };
    pack("P1", "contact-can", 0.5, "G-2", {2027, 9, 30});
    pack("P2", "hard-oil", 1, "H-11", {2028, 6, 1});
    pack("P3", "tube-elastic", 2, "E-5", {2027, 4, 20});
    book.jobs = {{.id = "example-heron",
                  .name = "Heron, a post van",
                  .vehicle = "retired post van",
                  .day = {2026, 9, 20},
                  .areaM2 = 21.4,
                  .massKg = 164.0,
                  .cost = Money{118450, plover.currency},
                  .hoursPlanned = 96,
                  .hoursReally = 121,
                  .wasteShare = 0.31}};
    const auto paid = [&](CivilDate day, const char* product, double packs, std::int64_t minor) {
        book.prices.push_back({day, identity(product), all.find(product)->name, all.find(product)->supplier, packs,
                               Money{minor, plover.currency}, "Heron, a post van"});
    };
    paid({2026, 6, 12}, "contact-can", 2, 5180);
    paid({2026, 6, 12}, "larch-board", 12, 11160);
    paid({2026, 8, 2}, "contact-can", 1, 2790);
    const Job shell = shellOf(plover);
    book.bodies = {{"Plover's body", {2027, 3, 6}, static_cast<int>(shell.surfaces.size()), shellText(shell)}};
    return book;
}

Job demoSecondJob() {
    const Job plover = demoJob();
    const WorkshopBook book = exampleBook();
    std::vector<Surface> surfaces{
        rectangleOf("kitchen-front", "Galley front", SurfaceKind::KitchenFront, 860, 560),
        rectangleOf("splashback", "Splashback", SurfaceKind::Splashback, 640, 360),
        rectangleOf("bulkhead", "Bulkhead", SurfaceKind::Bulkhead, 520, 1100),
    };
    Job job = newVanJob("Dabchick, a small trailer", plover.catalogue, plover.currency, std::move(surfaces));
    job.vehicle = "box trailer, 2.1 m inside";
    job.bookId = std::string(kExampleBookId) + "dabchick";
    job.prices = plover.prices;
    const auto lay = [&](const char* surface, const char* product) {
        putLayer(job.finishes[surface].now(), job.catalogue, *job.catalogue.find(product));
    };
    lay("kitchen-front", "dipper-ply");
    lay("splashback", "dipper-ply");
    lay("bulkhead", "thrush-lining");
    for (const auto& [product, number] :
         {std::pair{"dipper-ply", "R1"}, {"dipper-ply", "R2"}, {"thrush-lining", "R3"}}) {
        const auto piece = std::find_if(book.rack.begin(), book.rack.end(),
                                        [n = number](const RackPiece& p) { return p.number == n; });
        auto& stock = job.cutLists[product].stock;
        stock.push_back(stockOf(*piece, "s" + std::to_string(stock.size() + 1)));
    }
    return job;
}

} // namespace westrum
