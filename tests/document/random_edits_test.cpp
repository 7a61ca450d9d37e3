#include <QtTest>

#include "app/document/commands.h"
#include "app/document/cut_commands.h"
#include "app/document/option_worker.h"
#include "app/document/set_value.h"
#include "app/document/shell_commands.h"
#include "app/document/work_commands.h"
#include "tests/support/any_van.h"
#include "tests/support/registry.h"
#include "tests/support/settle.h"

#include <QSignalSpy>

using namespace westrum;
using namespace westrum::test;

namespace {

/// What the window would show of a document once all of it is worked out.
struct Shown {
    std::shared_ptr<const Plan> plan;
    std::shared_ptr<const Starts> starts;
    std::vector<ProductCut> cuts;
    std::vector<OptionFigures> options;
    std::vector<std::pair<std::string, double>> odds; ///< chance of running short, by product
    std::shared_ptr<const WorkAnswer> work;
};

/// A job of every family that is set out, on four surfaces with two options for one of them.
Job someJob(std::mt19937& dice) {
    Job job = anyVan(dice);
    const auto product = [&](const char* id, const char* family, std::int64_t price, FieldValues fields = {}) {
        Product p{.id = id, .family = family, .name = id};
        p.packPrice = Money{price, {}};
        p.fields = std::move(fields);
        job.catalogue.products.push_back(std::move(p));
    };
    product("plank", "planks", 3000);
    product("mat", "underlay", 1500);
    product("board", "boards", 450, {{"length", 2000}});
    product("ply", "sheet", 2800, {{"length", 1500}, {"width", 1250}});
    product("tile", "tiles", 1900);
    product("oil", "coating", 2200);
    product("glue", "adhesive", 1700);
    product("screw", "sundries", 300);
    Surface ceiling;
    ceiling.id = ceiling.name = "ceiling";
    ceiling.kind = SurfaceKind::Ceiling;
    ceiling.measurement = test::rectangle(1800, 700);
    for (const double at : {200.0, 800.0, 1400.0}) {
        Support s;
        s.name = "rib";
        s.position = mm(at);
        s.width = mm(40);
        ceiling.supports.push_back(s);
    }
    job.surfaces.push_back(ceiling);
    FinishOptions& over = job.finishes["ceiling"];
    over.now() = {"boards", {{"board", {}, {}, false}, {"oil", {}, {}, false}}, {}};
    over.options.push_back({"panels", {{"ply", {}, {}, false}}, {}});
    Surface cell;
    cell.id = cell.name = "cell";
    cell.kind = SurfaceKind::WetCellWall;
    cell.measurement = test::rectangle(800, 600);
    job.surfaces.push_back(cell);
    job.finishes["cell"].now().layers = {{"ply", {}, {}, false}, {"glue", {}, {}, false}, {"tile", {}, {}, false}};
    job.finishes["floor"].now().layers = {{"mat", {}, {}, false}, {"plank", {}, {}, false}};
    return job;
}

} // namespace

/// Whatever is edited, nothing that is shown is of the job before: after every edit each figure equals that of a
/// document opened freshly on the same job.
class RandomEditsTest : public QObject {
    Q_OBJECT

    static void prepare(JobDocument& d) {
        d.cutting().setPatience(0.001);
        d.setOddsTries(2);
        d.setWorkSearch(5, 5);
        d.setNow(WorkClock::Moment{{2027, 3, 1}, 600});
    }
    static bool workOut(JobDocument& d, const std::string& surface, Shown& shown, OptionWorker& worker) {
        d.setCurrentSurface(surface);
        const auto settled = [&] { return d.isSettled() && !d.cutting().isSearching(); };
        if (!QTest::qWaitFor(settled, 60000)) return false;
        QCoreApplication::processEvents();
        if (!QTest::qWaitFor(settled, 60000)) return false;
        d.askOdds();
        if (!d.plan()->purchases.empty() && !QTest::qWaitFor([&] { return d.odds() != nullptr; }, 60000)) return false;
        if (worker.request(d.job(), surface)) {
            QSignalSpy found(&worker, &OptionWorker::found);
            if (!QTest::qWaitFor([&] { return found.count() > 0; }, 60000)) return false;
            shown.options = qvariant_cast<std::vector<OptionFigures>>(found.last().at(1));
        }
        // On a busy machine a cut may come in while the work is planned: then it is asked for anew.
        do {
            shown.plan = d.plan();
            d.askWork();
            if (!QTest::qWaitFor([&] { return settled() && d.isWorkSettled(); }, 60000)) return false;
        } while (d.plan() != shown.plan);
        shown.work = d.work();
        shown.starts = d.starts();
        shown.cuts = d.cuts();
        shown.odds.clear();
        if (d.odds())
            for (const ProductOdds& o : *d.odds()) shown.odds.emplace_back(o.product, o.chanceShort());
        return true;
    }

    std::mt19937 dice_;
    int any(int below) { return static_cast<int>(dice_() % static_cast<unsigned>(std::max(1, below))); }
    const Surface& anySurface(const Job& job) {
        return job.surfaces[static_cast<std::size_t>(any(int(job.surfaces.size())))];
    }
    const Product& anyProduct(const Job& job) {
        return job.catalogue.products[static_cast<std::size_t>(any(int(job.catalogue.products.size())))];
    }
    Reading millimetres(int least, int span) { return mm(least + any(span)); }

    using Edit = std::function<bool(JobDocument&)>; ///< false: there was nothing to edit

    std::vector<std::pair<const char*, Edit>> everyEdit() {
        const auto layerOf = [this](JobDocument& d, const std::string& id) {
            return any(static_cast<int>(d.job().finish(id).layers.size()));
        };
        std::vector<std::pair<const char*, Edit>> all;
        const auto on = [&](const char* name, auto make) {
            all.emplace_back(name, [this, make](JobDocument& d) {
                push(d, make(d, anySurface(d.job())));
                return true;
            });
        };
        const auto layered = [&](const char* name, auto make) {
            all.emplace_back(name, [this, make, layerOf](JobDocument& d) {
                const Surface& s = anySurface(d.job());
                if (d.job().finish(s.id).layers.empty()) return false;
                push(d, make(d, s, layerOf(d, s.id)));
                return true;
            });
        };
        const auto ofProduct = [&](const char* name, auto make) {
            all.emplace_back(name, [this, make](JobDocument& d) {
                push(d, make(d, anyProduct(d.job())));
                return true;
            });
        };
        const auto plain = [&](const char* name, auto make) {
            all.emplace_back(name, [make](JobDocument& d) {
                push(d, make(d));
                return true;
            });
        };
        // Measuring and the shell.
        all.emplace_back("takeReading", [this](JobDocument& d) {
            const Surface& s = anySurface(d.job());
            const auto keys = readingKeys(s.measurement);
            if (keys.empty()) return false;
            const std::string key = keys[static_cast<std::size_t>(any(int(keys.size())))];
            Measurement readings = s.measurement;
            MaybeReading now = *findReading(readings, key);
            if (!now) return false;
            now->length.value += any(21) - 10;
            push(d, takeReading(d, s.id, key, now));
            return true;
        });
        on("addNotch", [this](JobDocument& d, const Surface& s) {
            return addNotch(d, s.id, notch(any(4), 100 + any(100), 80 + any(60), 40 + any(40)));
        });
        all.emplace_back("removeNotch", [this](JobDocument& d) {
            const Surface& s = anySurface(d.job());
            if (s.measurement.notches.empty()) return false;
            push(d, removeNotch(d, s.id, 0));
            return true;
        });
        const auto anyKind = [this] { return static_cast<StepKind>(any(kStepKinds)); };
        on("setEffort", [this, anyKind](JobDocument& d, const Surface&) {
            return setEffort(d, anyKind(), {.once = double(any(30)), .hands = 1 + any(2), .dry = any(2) == 0});
        });
        on("setHours", [this](JobDocument& d, const Surface&) {
            return setHours(d, any(2) ? "boards" : "sheet", HourRate{0.1 * (1 + any(9)), 0.01 * any(9)});
        });
        on("setShops", [this](JobDocument& d, const Surface&) { return setShops(d, any(7), {{540, 720 + any(300)}}); });
        on("setWeekday", [this](JobDocument& d, const Surface&) {
            return setWeekday(d, any(7), {{540, 800 + any(300), 2}});
        });
        on("switchRule", [this](JobDocument& d, const Surface&) {
            return switchRule(d, static_cast<WorkRule>(any(kWorkRules)), static_cast<RuleWay>(any(3)));
        });
        on("setGate", [this](JobDocument& d, const Surface&) {
            return setGate(d, static_cast<WorkGate>(any(kWorkGates)),
                           {.expected = CivilDate{2027, 3, 2} + any(20), .passed = {}});
        });
        on("setPractised", [this](JobDocument& d, const Surface&) { return setPractised(d, any(2) == 0); });
        ofProduct("useShelf", [this](JobDocument& d, const Product& p) {
            return setValue(
                QStringLiteral("shelf"), d, JobPart::Buying, std::string(),
                [](auto& job) -> auto& { return job.shelf; }, std::vector<ShelfPack>{{p.id, 0.5 * (1 + any(5)), {}}});
        });
        on("renameSurface", [](JobDocument& d, const Surface& s) { return renameSurface(d, s.id, s.name + "'"); });
        on("describeSurface", [this](JobDocument& d, const Surface& s) {
            return describeSurface(d, s.id, static_cast<SurfaceKind>(any(12)), s.hand, s.area);
        });
        on("addOpening", [this](JobDocument& d, const Surface& s) {
            Opening o;
            o.name = "lamp";
            o.kind = OpeningKind::Lamp;
            o.shape = OpeningShape::Round;
            o.width = millimetres(60, 40);
            o.place.fromSide = millimetres(150, 200);
            o.place.fromCross = millimetres(200, 300);
            return addOpening(d, s.id, o);
        });
        all.emplace_back("removeOpening", [this](JobDocument& d) {
            const Surface& s = anySurface(d.job());
            if (s.openings.empty()) return false;
            push(d, removeOpening(d, s.id, 0));
            return true;
        });
        on("addSupport", [this](JobDocument& d, const Surface& s) {
            Support support;
            support.name = "batten";
            support.kind = any(2) ? SupportKind::Batten : SupportKind::Rib;
            support.position = millimetres(100, 900);
            support.width = millimetres(30, 30);
            return addSupport(d, s.id, support);
        });
        all.emplace_back("removeSupport", [this](JobDocument& d) {
            const Surface& s = anySurface(d.job());
            if (s.supports.empty()) return false;
            push(d, removeSupport(d, s.id, 0));
            return true;
        });
        on("describeEdge", [this](JobDocument& d, const Surface& s) {
            Edge e;
            e.kind = any(2) ? EdgeKind::MovementGap : EdgeKind::UnderTrim;
            e.allowance = millimetres(5, 60);
            return describeEdge(d, s.id, any(4), e);
        });
        all.emplace_back("meetSides", [this](JobDocument& d) {
            const Surface &a = anySurface(d.job()), &b = anySurface(d.job());
            if (a.id == b.id) return false;
            push(d, meetSides(d, a.id, any(4), b.id, any(4)));
            return true;
        });
        on("duplicateSurface",
           [](JobDocument& d, const Surface& s) { return duplicateSurface(d, s.id, s.name + " 2"); });
        all.emplace_back("removeSurface", [this](JobDocument& d) {
            if (d.job().surfaces.size() < 5) return false;
            push(d, removeSurface(d, anySurface(d.job()).id));
            return true;
        });
        plain("saySymmetric", [](JobDocument& d) { return saySymmetric(d, !d.job().symmetricBody); });
        all.emplace_back("describeStepEdges", [](JobDocument& d) {
            for (const Surface& s : d.job().surfaces)
                if (!s.measurement.steps.empty()) {
                    const EdgeKind edges = s.measurement.steps[0].edges;
                    push(d,
                         describeStepEdges(d, s.id, 0, edges == EdgeKind::Free ? EdgeKind::UnderTrim : EdgeKind::Free));
                    return true;
                }
            return false;
        });
        plain("setHeadroom", [this](JobDocument& d) {
            Headroom h;
            h.rear = millimetres(1800, 200);
            h.person = millimetres(1700, 200);
            return setHeadroom(d, h);
        });
        plain("setDatum", [this](JobDocument& d) {
            Datum datum;
            datum.rear = millimetres(300, 300);
            return setDatum(d, datum);
        });
        plain("setAccess", [this](JobDocument& d) {
            Access access;
            access.doors.push_back({.name = "door", .width = millimetres(500, 600), .height = millimetres(1200, 400)});
            return setAccess(d, access);
        });
        plain("setVanMass", [this](JobDocument& d) {
            VanMass m;
            m.wheelbase = millimetres(3000, 500);
            m.track = millimetres(1700, 100);
            m.rearAxle = millimetres(900, 300);
            m.allowance = 10 + any(80);
            return setVanMass(d, m);
        });
        // Finishes.
        layered("moveStartLine", [this](JobDocument& d, const Surface& s, int) {
            return moveStartLine(d, s.id, {double(any(80))}, any(1000000));
        });
        layered("moveStartColumn", [this](JobDocument& d, const Surface& s, int) {
            return moveStartColumn(d, s.id, {double(any(80))}, any(1000000));
        });
        layered("setRule gap", [this](JobDocument& d, const Surface& s, int layer) {
            return setRule(d, s.id, "gap", 3 + any(12), layer);
        });
        layered("setRule direction", [this](JobDocument& d, const Surface& s, int layer) {
            return setRule(d, s.id, "direction", any(2), layer);
        });
        layered("setRule fixEdge", [this](JobDocument& d, const Surface& s, int layer) {
            return setRule(d, s.id, "fixEdge", 100 + any(100), layer);
        });
        layered("moveJoints", [this](JobDocument& d, const Surface& s, int layer) {
            return moveJoints(d, s.id, {300.0 + any(300)}, any(1000000), layer);
        });
        layered("removeLayer", [](JobDocument& d, const Surface& s, int layer) { return removeLayer(d, s.id, layer); });
        layered("replaceLayer", [this](JobDocument& d, const Surface& s, int layer) {
            return replaceLayer(d, s.id, layer, anyProduct(d.job()).id);
        });
        layered("setBolted",
                [this](JobDocument& d, const Surface& s, int layer) { return setBolted(d, s.id, layer, any(2) == 0); });
        on("addLayer", [this](JobDocument& d, const Surface& s) { return addLayer(d, s.id, anyProduct(d.job()).id); });
        on("chooseProduct",
           [this](JobDocument& d, const Surface& s) { return chooseProduct(d, s.id, anyProduct(d.job()).id); });
        on("chooseTrim", [this](JobDocument& d, const Surface& s) {
            return chooseTrim(d, s.id, any(2) ? std::string("skirting") : std::string());
        });
        on("addOption", [](JobDocument& d, const Surface& s) { return addOption(d, s.id, "another"); });
        on("chooseOption", [this](JobDocument& d, const Surface& s) {
            return chooseOption(d, s.id, any(int(d.job().options(s.id).options.size())));
        });
        on("renameOption", [](JobDocument& d, const Surface& s) { return renameOption(d, s.id, 0, "light"); });
        on("copyBuildUp",
           [this](JobDocument& d, const Surface& s) { return copyBuildUp(d, anySurface(d.job()).id, s.id); });
        plain("chooseScheme", [](JobDocument& d) { return chooseScheme(d, "light"); });
        // Products and buying.
        ofProduct("renameProduct",
                  [](JobDocument& d, const Product& p) { return renameProduct(d, p.id, p.name + "'"); });
        ofProduct("setPackPrice", [this](JobDocument& d, const Product& p) {
            return setPackPrice(d, p.id, any(5) ? std::optional(Money{500 + any(3000), {}}) : std::nullopt);
        });
        all.emplace_back("setProductField", [this](JobDocument& d) {
            const Product& p = anyProduct(d.job());
            const auto fields = fieldsOfFamily(p.family);
            const Field& f = fields[static_cast<std::size_t>(any(int(fields.size())))];
            const double now = valueOf(p.fields, f);
            const bool counted = f.unit == FieldUnit::Count || f.unit == FieldUnit::Flag || f.unit == FieldUnit::Choice;
            push(d, setProductField(d, p.id, std::string(f.key),
                                    std::clamp(counted ? now + 1 : now * 1.05, f.least, f.most)));
            return true;
        });
        ofProduct("setSpare", [this](JobDocument& d, const Product& p) { return setSpare(d, p.id, any(3)); });
        plain("setBudget", [this](JobDocument& d) { return setBudget(d, Money{10000 + any(50000), {}}); });
        plain("countConsumables", [](JobDocument& d) { return countConsumables(d, !d.job().consumables); });
        plain("setPace", [this](JobDocument& d) { return setPace(d, 0.3 + any(10) / 10.0, 1.2); });
        plain("acceptRisk", [this](JobDocument& d) { return acceptRisk(d, 0.01 + any(10) / 100.0); });
        plain("setSpoilChance", [this](JobDocument& d) { return setSpoilChance(d, any(10) / 100.0); });
        plain("setPrices", [this](JobDocument& d) {
            PriceBook book = d.job().prices;
            Offer o;
            o.product = anyProduct(d.job()).id;
            o.supplier = "Yard";
            o.price = Money{300 + any(2000), {}};
            book.offers.push_back(o);
            return setPrices(d, book);
        });
        ofProduct("removeProduct", [](JobDocument& d, const Product& p) { return removeProduct(d, p.id); });
        plain("addProduct", [](JobDocument& d) {
            return addProduct(d, Product{.id = "plank-2", .family = "planks", .name = "Another plank"});
        });
        // Cutting.
        all.emplace_back("addLoosePieces", [this](JobDocument& d) {
            for (const Product& p : d.job().catalogue.products)
                if (stockFormOf(p.family) && any(3) == 0) {
                    LoosePiece piece;
                    piece.name = "shelf";
                    piece.length = millimetres(200, 400);
                    piece.width = millimetres(100, 200);
                    push(d, addLoosePieces(d, p.id, {piece}));
                    return true;
                }
            return false;
        });
        all.emplace_back("addStockEntry", [this](JobDocument& d) {
            for (const Product& p : d.job().catalogue.products)
                if (stockFormOf(p.family) && any(3) == 0) {
                    StockEntry e;
                    e.name = "rest";
                    e.rack = any(2) == 0;
                    e.length = millimetres(600, 1500);
                    e.width = millimetres(400, 800);
                    e.price = Money{400, {}};
                    push(d, addStockEntry(d, p.id, e));
                    return true;
                }
            return false;
        });
        all.emplace_back("tickItem", [this](JobDocument& d) {
            const auto cuts = d.cuts();
            if (cuts.empty()) return false;
            const ProductCut& c = cuts[static_cast<std::size_t>(any(int(cuts.size())))];
            if (c.items.empty() || c.items[0].pieces.empty()) return false;
            push(d, tickItem(d, c, 0, any(2) == 0));
            return true;
        });
        all.emplace_back("pinAll", [this](JobDocument& d) {
            const auto cuts = d.cuts();
            if (cuts.empty()) return false;
            push(d, pinAll(d, cuts[static_cast<std::size_t>(any(int(cuts.size())))]));
            return true;
        });
        ofProduct("unpinAll", [](JobDocument& d, const Product& p) { return unpinAll(d, p.id); });
        // The record, and what is said about the job.
        all.emplace_back("tickStep", [this](JobDocument& d) {
            const Surface& s = anySurface(d.job());
            const SurfacePlan* p = d.plan()->surface(s.id);
            if (!p || p->steps.empty()) return false;
            for (const FitStep& step : p->steps)
                if (any(3)) push(d, tickStep(d, s.id, step.key, true));
            return true;
        });
        on("writeLog", [](JobDocument& d, const Surface& s) {
            FitLog log = d.job().log(s.id);
            log.note = "dry and warm";
            log.hours = 3;
            return writeLog(d, s.id, log);
        });
        plain("renameJob", [](JobDocument& d) { return renameJob(d, d.job().name + "'", "van"); });
        plain("chooseUnits", [this](JobDocument& d) {
            return chooseUnits(d, any(2) ? LengthUnit::Inch : LengthUnit::Millimetre, LengthUnit::Millimetre);
        });
        all.emplace_back("undo", [](JobDocument& d) {
            if (!d.undoStack().canUndo()) return false;
            d.undoStack().undo();
            return true;
        });
        return all;
    }

private slots:
    void nothingShownIsOfTheJobBefore_data() {
        QTest::addColumn<unsigned>("seed");
        for (const unsigned seed : {11U, 12U, 13U}) QTest::addRow("%u", seed) << seed;
    }
    void nothingShownIsOfTheJobBefore() {
        QFETCH(unsigned, seed);
        dice_.seed(seed);
        JobDocument edited;
        prepare(edited);
        edited.open(someJob(dice_), {});
        OptionWorker editedOptions;
        Shown is;
        auto edits = everyEdit();
        std::shuffle(edits.begin(), edits.end(), dice_);
        std::string last = "opened", tried;
        for (std::size_t n = 0; n <= edits.size(); ++n) {
            const std::string surface = anySurface(edited.job()).id;
            QVERIFY2(workOut(edited, surface, is, editedOptions), tried.c_str());
            JobDocument fresh;
            prepare(fresh);
            fresh.open(edited.job(), {});
            OptionWorker freshOptions;
            Shown should;
            QVERIFY2(workOut(fresh, surface, should, freshOptions), tried.c_str());
            const std::string where = "after " + last + " on " + surface;
            QVERIFY2(is.plan->surfaces == should.plan->surfaces, where.c_str());
            QVERIFY2(is.plan->purchases == should.plan->purchases, where.c_str());
            QVERIFY2(is.plan->balance == should.plan->balance, where.c_str());
            QVERIFY2(*is.plan == *should.plan, where.c_str());
            QVERIFY2(*is.starts == *should.starts, where.c_str());
            QVERIFY2(is.cuts == should.cuts, where.c_str());
            QVERIFY2(is.odds == should.odds, where.c_str());
            QVERIFY2(is.options == should.options, where.c_str());
            QVERIFY2(is.work->question == should.work->question, where.c_str());
            QVERIFY2(is.work->plan == should.work->plan, where.c_str());
            if (n == edits.size()) break;
            if (edits[n].second(edited)) last = edits[n].first;
            tried += std::string(" ") + edits[n].first;
        }
    }
};
WESTRUM_TEST(RandomEditsTest)

#include "random_edits_test.moc"
