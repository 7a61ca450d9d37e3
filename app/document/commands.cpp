#include "app/document/commands.h"

#include "app/document/base_commands.h"
#include "app/document/record_commands.h"
#include "app/document/set_value.h"
#include "app/document/shell_commands.h"
#include "app/document/work_commands.h"
#include "core/families/family.h"
#include "core/fitting/efforts.h"
#include "core/plan/options.h"
#include "core/setout/set_out.h"
#include "formats/words.h"

#include <QCoreApplication>

#include <algorithm>
#include <utility>

namespace westrum {
namespace {

struct Commands {
    Q_DECLARE_TR_FUNCTIONS(Commands)
};

auto measurementOf(const std::string& surface) {
    return [surface](auto& job) -> auto& { return job.surface(surface)->measurement; };
}

auto productOf(const std::string& id) {
    return [id](auto& job) -> auto& {
        for (auto& p : job.catalogue.products)
            if (p.id == id) return p;
        Q_UNREACHABLE();
    };
}

/// A changed copy of the whole measurement: small, and every change of it is one exchange.
Command changeMeasurement(const QString& name, JobDocument& document, const std::string& surface, const auto& change) {
    Measurement m = document.job().surface(surface)->measurement;
    change(m);
    return setValue(name, document, JobPart::Measurement, surface, measurementOf(surface), std::move(m));
}

/// A changed copy of all options of a surface: small, and every change of them is one exchange.
Command changeOptions(const QString& name, JobDocument& document, const std::string& surface, const auto& change,
                      int gesture = -1) {
    FinishOptions f = document.job().options(surface);
    change(f);
    return setValue(name, document, JobPart::Finish, surface, optionsOf(surface), std::move(f), gesture);
}

Command changeFinish(const QString& name, JobDocument& document, const std::string& surface, const auto& change,
                     int gesture = -1) {
    return changeOptions(
        name, document, surface, [&](FinishOptions& f) { change(f.now()); }, gesture);
}

/// @param layer  its place; -1: the layer that is seen. Nothing changes if there is none.
Command changeLayer(const QString& name, JobDocument& document, const std::string& surface, int layer,
                    const auto& change, int gesture = -1) {
    const int at = layer < 0 ? faceLayer(document.job().finish(surface), document.job().catalogue) : layer;
    return changeFinish(
        name, document, surface,
        [&](Finish& f) {
            if (at >= 0 && at < static_cast<int>(f.layers.size())) change(f.layers[static_cast<std::size_t>(at)]);
        },
        gesture);
}

Command changeProduct(const QString& name, JobDocument& document, const std::string& id, const auto& change) {
    Product p = *document.job().catalogue.find(id);
    change(p);
    return setValue(name, document, JobPart::Catalogue, {}, productOf(id), std::move(p));
}

/// Several details of the job that change in one step; `Set` knows how to swap itself with the job's.
template <class Set> class ExchangeDetails final : public QUndoCommand {
public:
    ExchangeDetails(const QString& name, JobDocument& document, Set set)
        : QUndoCommand(name), document_(document), other_(std::move(set)) {
        setObsolete(other_.sameAs(document_.job()));
    }
    void undo() override { exchange(); }
    void redo() override { exchange(); }

private:
    void exchange() {
        document_.edit(JobPart::Details, {}, [this](Job& job) { other_.swapWith(job); });
    }
    JobDocument& document_;
    Set other_;
};

struct Names {
    std::string name, vehicle;
    [[nodiscard]] bool sameAs(const Job& job) const { return job.name == name && job.vehicle == vehicle; }
    void swapWith(Job& job) {
        std::swap(job.name, name);
        std::swap(job.vehicle, vehicle);
    }
};

struct Pace {
    double spread, close;
    [[nodiscard]] bool sameAs(const Job& job) const {
        return job.spreadM2PerMinute == spread && job.closeM2PerMinute == close;
    }
    void swapWith(Job& job) {
        std::swap(job.spreadM2PerMinute, spread);
        std::swap(job.closeM2PerMinute, close);
    }
};

struct Units {
    LengthUnit shown, bare;
    [[nodiscard]] bool sameAs(const Job& job) const { return job.shownUnit == shown && job.bareUnit == bare; }
    void swapWith(Job& job) {
        std::swap(job.shownUnit, shown);
        std::swap(job.bareUnit, bare);
    }
};

} // namespace

void push(JobDocument& document, Command command) {
    if (command->isObsolete()) return;
    document.undoStack().push(command.release());
}

Command chooseOutlineForm(JobDocument& d, const std::string& surface, OutlineForm form) {
    return changeMeasurement(Commands::tr("Change the way of measuring"), d, surface,
                             [&](Measurement& m) { m.form = form; });
}

Command addNotch(JobDocument& d, const std::string& surface, Notch notch) {
    return changeMeasurement(Commands::tr("Add a notch"), d, surface,
                             [&](Measurement& m) { m.notches.push_back(std::move(notch)); });
}

Command addStep(JobDocument& d, const std::string& surface, Step step) {
    return changeMeasurement(Commands::tr("Cut a corner"), d, surface,
                             [&](Measurement& m) { m.steps.push_back(std::move(step)); });
}

Command removeNotch(JobDocument& d, const std::string& surface, int index) {
    Command remove = changeMeasurement(Commands::tr("Remove a notch"), d, surface,
                                       [&](Measurement& m) { m.notches.erase(m.notches.begin() + index); });
    if (d.job().archBoxes.empty()) return remove;
    // A box over a wheel arch goes with the notch that it stood on; the others keep theirs.
    std::vector<ArchBox> boxes = d.job().archBoxes;
    std::erase_if(boxes, [&](const ArchBox& b) { return b.floor == surface && b.notch == index; });
    for (ArchBox& b : boxes)
        if (b.floor == surface && b.notch > index) --b.notch;
    std::vector<Command> parts;
    parts.push_back(std::move(remove));
    parts.push_back(setValue(
        Commands::tr("Remove a notch"), d, JobPart::Shell, surface, [](auto& job) -> auto& { return job.archBoxes; },
        std::move(boxes)));
    return together(Commands::tr("Remove a notch"), std::move(parts));
}

Command removeStep(JobDocument& d, const std::string& surface, int index) {
    return changeMeasurement(Commands::tr("Restore a corner"), d, surface,
                             [&](Measurement& m) { m.steps.erase(m.steps.begin() + index); });
}

Command moveNotchToSide(JobDocument& d, const std::string& surface, int index, int side) {
    return changeMeasurement(Commands::tr("Move a notch to another side"), d, surface,
                             [&](Measurement& m) { m.notches[static_cast<std::size_t>(index)].side = side; });
}

Command moveStepToCorner(JobDocument& d, const std::string& surface, int index, int corner) {
    return changeMeasurement(Commands::tr("Cut another corner"), d, surface,
                             [&](Measurement& m) { m.steps[static_cast<std::size_t>(index)].corner = corner; });
}

Command renameNotch(JobDocument& d, const std::string& surface, int index, const std::string& name) {
    return changeMeasurement(Commands::tr("Rename a notch"), d, surface,
                             [&](Measurement& m) { m.notches[static_cast<std::size_t>(index)].name = name; });
}

Command renameStep(JobDocument& d, const std::string& surface, int index, const std::string& name) {
    return changeMeasurement(Commands::tr("Rename a cut corner"), d, surface,
                             [&](Measurement& m) { m.steps[static_cast<std::size_t>(index)].name = name; });
}

Command describeNotchEdges(JobDocument& d, const std::string& surface, int index, EdgeKind edges) {
    return changeMeasurement(Commands::tr("Say what a notch's edges are"), d, surface,
                             [&](Measurement& m) { m.notches[static_cast<std::size_t>(index)].edges = edges; });
}

Command describeStepEdges(JobDocument& d, const std::string& surface, int index, EdgeKind edges) {
    return changeMeasurement(Commands::tr("Say what a cut corner's edges are"), d, surface,
                             [&](Measurement& m) { m.steps[static_cast<std::size_t>(index)].edges = edges; });
}

Command renameSurface(JobDocument& d, const std::string& surface, const std::string& name) {
    return setValue(
        Commands::tr("Rename the surface"), d, JobPart::Details,
        surface, [surface](auto& job) -> auto& { return job.surface(surface)->name; }, name);
}

namespace {

Command moveStart(JobDocument& d, const std::string& surface, Mm offset, int gesture, int layer,
                  FieldValues (*SetOutFamily::*rules)(Mm)) {
    const Job& job = d.job();
    return changeLayer(
        Commands::tr("Move the start line"), d, surface, layer,
        [&](Layer& l) {
            const Product* product = job.catalogue.find(l.product);
            const SetOutFamily* family = product ? findFamily(product->family) : nullptr;
            if (!family || !(family->*rules)) return;
            for (const auto& [key, value] : (family->*rules)(offset)) l.rules[key] = value;
        },
        gesture);
}

} // namespace

Command moveStartLine(JobDocument& d, const std::string& surface, Mm offset, int gesture, int layer) {
    return moveStart(d, surface, offset, gesture, layer, &SetOutFamily::startAt);
}

Command moveStartColumn(JobDocument& d, const std::string& surface, Mm offset, int gesture, int layer) {
    return moveStart(d, surface, offset, gesture, layer, &SetOutFamily::columnAt);
}

Command moveAllowance(JobDocument& d, const std::string& surface, const std::string& key, Mm allowance, int gesture,
                      int layer) {
    return changeLayer(
        Commands::tr("Change what is left to trim"), d, surface, layer,
        [&](Layer& l) { l.rules[key] = allowance.value; }, gesture);
}

Command setRule(JobDocument& d, const std::string& surface, const std::string& key, double value, int layer) {
    return changeLayer(Commands::tr("Change how it is laid"), d, surface, layer,
                       [&](Layer& l) { l.rules[key] = value; });
}

Command setRules(JobDocument& d, const std::string& surface, const FieldValues& rules, int layer) {
    return changeLayer(Commands::tr("Take another set-out"), d, surface, layer, [&](Layer& l) {
        for (const auto& [key, value] : rules) l.rules[key] = value;
    });
}

Command takeFix(JobDocument& d, const Remark& remark) {
    const int layer = remark.fix ? layerOf(d.job(), remark) : -1;
    if (!remark.fix) return nullptr;
    const std::string& surface = remark.place.surface;
    if (remark.fix->kind == FixKind::TurnBattens) return turnBattens(d, surface);
    if (remark.fix->kind == FixKind::TurnCorner)
        return turnCorner(d, surface, static_cast<int>(remark.fix->value),
                          remark.fix->key == "in" ? CornerTurn::Inwards : CornerTurn::Outwards);
    if (remark.fix->kind == FixKind::AddDiagonal)
        return addDiagonal(d, surface, QString::fromStdString(remark.fix->key).toInt(),
                           static_cast<int>(remark.fix->value));
    if (remark.fix->kind == FixKind::AddLayer)
        return addLayer(d, surface, remark.fix->key, static_cast<int>(remark.fix->value));
    if (Command base = takeBaseFix(d, remark)) return base;
    if (layer < 0) return nullptr;
    if (remark.fix->kind == FixKind::SetRule)
        return setRule(d, remark.place.surface, remark.fix->key, remark.fix->value, layer);
    const std::string& product = d.job().finish(remark.place.surface).layers[static_cast<std::size_t>(layer)].product;
    return setProductField(d, product, remark.fix->key, remark.fix->value);
}

Command moveJoints(JobDocument& d, const std::string& surface, std::vector<double> joints, int gesture, int layer) {
    return changeLayer(
        Commands::tr("Move a joint"), d, surface, layer, [&](Layer& l) { l.joints = std::move(joints); }, gesture);
}

Command moveReliefs(JobDocument& d, const std::string& surface, std::vector<ReliefCut> reliefs, int gesture,
                    int layer) {
    return changeLayer(
        Commands::tr("Move a relief cut"), d, surface, layer, [&](Layer& l) { l.reliefs = std::move(reliefs); },
        gesture);
}

Command chooseProduct(JobDocument& d, const std::string& surface, const std::string& product) {
    return changeFinish(Commands::tr("Choose another finish"), d, surface, [&](Finish& f) {
        if (const Product* p = d.job().catalogue.find(product))
            putLayer(f, d.job().catalogue, *p);
        else
            dropLayer(f, d.job().catalogue, LayerRole::Finish);
    });
}

Command chooseUnderlay(JobDocument& d, const std::string& surface, const std::string& product) {
    return changeFinish(Commands::tr("Choose another underlay"), d, surface, [&](Finish& f) {
        if (const Product* p = d.job().catalogue.find(product))
            putLayer(f, d.job().catalogue, *p);
        else
            dropLayer(f, d.job().catalogue, LayerRole::Underlay);
    });
}

Command addLayer(JobDocument& d, const std::string& surface, const std::string& product, int place) {
    return changeFinish(Commands::tr("Add a layer"), d, surface, [&](Finish& f) {
        const Product* p = d.job().catalogue.find(product);
        const ProductFamily* family = p ? productFamily(p->family) : nullptr;
        if (!family) return;
        const int at = place < 0 ? placeFor(f, d.job().catalogue, family->role)
                                 : std::min(place, static_cast<int>(f.layers.size()));
        f.layers.insert(f.layers.begin() + at, layerOf(*p));
    });
}

Command removeLayer(JobDocument& d, const std::string& surface, int layer) {
    return changeFinish(Commands::tr("Remove a layer"), d, surface,
                        [&](Finish& f) { f.layers.erase(f.layers.begin() + layer); });
}

Command moveLayer(JobDocument& d, const std::string& surface, int layer, int to) {
    return changeFinish(Commands::tr("Move a layer"), d, surface, [&](Finish& f) {
        Layer moved = std::move(f.layers[static_cast<std::size_t>(layer)]);
        f.layers.erase(f.layers.begin() + layer);
        f.layers.insert(f.layers.begin() + std::clamp(to, 0, static_cast<int>(f.layers.size())), std::move(moved));
    });
}

Command replaceLayer(JobDocument& d, const std::string& surface, int layer, const std::string& product) {
    return changeLayer(Commands::tr("Change a layer"), d, surface, layer, [&](Layer& l) {
        const Product* p = d.job().catalogue.find(product);
        if (!p) return;
        const Product* before = d.job().catalogue.find(l.product);
        Layer fresh = layerOf(*p);
        fresh.bolted = l.bolted;
        if (before && before->family == p->family) {
            FieldValues rules = l.rules;
            for (const auto& [key, value] : fresh.rules) rules[key] = value;
            fresh.rules = std::move(rules);
            fresh.joints = l.joints;
            fresh.reliefs = l.reliefs;
        }
        l = std::move(fresh);
    });
}

Command setBolted(JobDocument& d, const std::string& surface, int layer, bool bolted) {
    return changeLayer(Commands::tr("Change what is bolted through"), d, surface, layer,
                       [&](Layer& l) { l.bolted = bolted; });
}

Command addOption(JobDocument& d, const std::string& surface, const std::string& name) {
    return changeOptions(Commands::tr("Add an option"), d, surface, [&](FinishOptions& f) {
        Finish copy = f.now();
        copy.name = name;
        f.options.push_back(std::move(copy));
        f.chosen = static_cast<int>(f.options.size()) - 1;
    });
}

Command removeOption(JobDocument& d, const std::string& surface, int option) {
    return changeOptions(Commands::tr("Remove an option"), d, surface, [&](FinishOptions& f) {
        if (f.options.size() < 2) return;
        f.options.erase(f.options.begin() + option);
        if (f.chosen >= option && f.chosen > 0) --f.chosen;
    });
}

Command renameOption(JobDocument& d, const std::string& surface, int option, const std::string& name) {
    return changeOptions(Commands::tr("Rename an option"), d, surface,
                         [&](FinishOptions& f) { f.options[static_cast<std::size_t>(option)].name = name; });
}

Command chooseOption(JobDocument& d, const std::string& surface, int option) {
    return changeOptions(Commands::tr("Choose an option"), d, surface, [&](FinishOptions& f) {
        if (option >= 0 && option < static_cast<int>(f.options.size())) f.chosen = option;
    });
}

Command chooseScheme(JobDocument& d, const std::string& name) {
    return setValue(
        Commands::tr("Choose a scheme"), d, JobPart::Finish, {}, [](auto& job) -> auto& { return job.finishes; },
        withScheme(d.job(), name).finishes);
}

Command copyBuildUp(JobDocument& d, const std::string& from, const std::string& to) {
    const Finish copied = d.job().finish(from);
    return changeFinish(Commands::tr("Copy the build-up"), d, to, [&](Finish& f) {
        const std::string name = f.name;
        f = copied;
        f.name = name;
        // Where joints and relief cuts lie by hand belongs to the surface that they were set on.
        for (Layer& l : f.layers) {
            l.joints.clear();
            l.reliefs.clear();
        }
    });
}

Command chooseTrim(JobDocument& d, const std::string& surface, const std::string& product) {
    return changeFinish(Commands::tr("Choose the trim"), d, surface, [&](Finish& f) { f.trim = product; });
}

Command renameProduct(JobDocument& d, const std::string& product, const std::string& name) {
    return changeProduct(Commands::tr("Rename a product"), d, product, [&](Product& p) { p.name = name; });
}

Command setProductField(JobDocument& d, const std::string& product, const std::string& key, double value) {
    return changeProduct(Commands::tr("Change a product"), d, product, [&](Product& p) { p.fields[key] = value; });
}

Command setSpare(JobDocument& d, const std::string& product, int spare) {
    std::map<std::string, int> spares = d.job().spares;
    spares[product] = spare;
    if (spare <= 0) spares.erase(product);
    return setSpares(d, std::move(spares));
}

Command setSpares(JobDocument& d, std::map<std::string, int> spares) {
    return setValue(
        Commands::tr("Change what is bought to spare"), d, JobPart::Buying, {},
        [](auto& job) -> auto& { return job.spares; }, std::move(spares));
}

Command setPrices(JobDocument& d, PriceBook prices) {
    return setValue(
        Commands::tr("Change prices"), d, JobPart::Buying, {}, [](auto& job) -> auto& { return job.prices; },
        std::move(prices));
}

Command takeSaving(JobDocument& d, const std::string& product, const Saving& saving) {
    Job other = withSaving(d.job(), product, saving);
    if (saving.kind == Saving::Kind::Turned)
        return setValue(
            Commands::tr("Let pieces be turned"), d, JobPart::Catalogue, {},
            [](auto& job) -> auto& { return job.catalogue; }, std::move(other.catalogue));
    return setValue(Commands::tr("Save on a product"), d, JobPart::Finish, saving.surface, optionsOf(saving.surface),
                    std::move(other.finishes[saving.surface]));
}

Command tickBought(JobDocument& d, const std::string& key, std::optional<Bought> bought) {
    std::map<std::string, Bought> all = d.job().bought;
    const QString name = Commands::tr("Tick what is bought");
    std::vector<Command> parts;
    const std::string product = key.substr(0, key.find('/'));
    if (bought) {
        // Received with its lot: the first time that it is ticked.
        if (!all.contains(key)) {
            RecordEntry e = entryNow(d, EntryKind::Delivery);
            e.product = product;
            e.amount = bought->packs;
            e.lot = bought->lot;
            std::vector<RecordEntry> entries;
            entries.push_back(std::move(e));
            parts.push_back(addEntries(d, std::move(entries)));
        }
        all[key] = std::move(*bought);
    } else {
        all.erase(key);
        for (auto e = d.job().record.rbegin(); e != d.job().record.rend(); ++e)
            if (e->kind == EntryKind::Delivery && e->product == product) {
                parts.push_back(removeEntry(d, e->id));
                break;
            }
    }
    parts.insert(parts.begin(), setValue(
                                    name, d, JobPart::Buying, std::string(),
                                    [](auto& job) -> auto& { return job.bought; }, std::move(all)));
    return together(name, std::move(parts));
}

Command setBudget(JobDocument& d, std::optional<Money> budget) {
    return setValue(
        Commands::tr("Set the budget"), d, JobPart::Buying, {}, [](auto& job) -> auto& { return job.budget; }, budget);
}

Command countConsumables(JobDocument& d, bool counted) {
    return setValue(
        counted ? Commands::tr("Count what is used up") : Commands::tr("Leave out what is used up"), d, JobPart::Buying,
        {}, [](auto& job) -> auto& { return job.consumables; }, counted);
}

Command setPace(JobDocument& d, double spread, double close) {
    return std::make_unique<ExchangeDetails<Pace>>(Commands::tr("Say how fast you work"), d, Pace{spread, close});
}

Command acceptRisk(JobDocument& d, double risk) {
    return setValue(
        Commands::tr("Accept another risk"), d, JobPart::Buying, {},
        [](auto& job) -> auto& { return job.acceptedRisk; }, risk);
}

Command setSpoilChance(JobDocument& d, double chance) {
    return setValue(
        Commands::tr("Change how many cuts are spoiled"), d, JobPart::Buying, {},
        [](auto& job) -> auto& { return job.spoilChance; }, chance);
}

Command setPackPrice(JobDocument& d, const std::string& product, std::optional<Money> price) {
    return changeProduct(Commands::tr("Change a price"), d, product, [&](Product& p) { p.packPrice = price; });
}

Command addProduct(JobDocument& d, Product product) {
    Catalogue c = d.job().catalogue;
    c.products.push_back(std::move(product));
    return setValue(
        Commands::tr("Add a product"), d, JobPart::Catalogue, {}, [](auto& job) -> auto& { return job.catalogue; },
        std::move(c));
}

Command removeProduct(JobDocument& d, const std::string& product) {
    Catalogue c = d.job().catalogue;
    std::erase_if(c.products, [&](const Product& p) { return p.id == product; });
    return setValue(
        Commands::tr("Remove a product"), d, JobPart::Catalogue, {}, [](auto& job) -> auto& { return job.catalogue; },
        std::move(c));
}

Command mergeProducts(JobDocument& d, const std::vector<Product>& products) {
    Catalogue c = d.job().catalogue;
    for (const Product& p : products) {
        const auto same =
            std::find_if(c.products.begin(), c.products.end(), [&](const Product& q) { return q.id == p.id; });
        if (same == c.products.end())
            c.products.push_back(p);
        else
            *same = p;
    }
    return setValue(
        Commands::tr("Take products in"), d, JobPart::Catalogue, {}, [](auto& job) -> auto& { return job.catalogue; },
        std::move(c));
}

Command renameJob(JobDocument& d, const std::string& name, const std::string& vehicle) {
    Names names{name, vehicle};
    return std::make_unique<ExchangeDetails<Names>>(Commands::tr("Rename the job"), d, std::move(names));
}

Command chooseUnits(JobDocument& d, LengthUnit shown, LengthUnit bare) {
    return std::make_unique<ExchangeDetails<Units>>(Commands::tr("Choose units"), d, Units{shown, bare});
}

Command tickStep(JobDocument& d, const std::string& surface, const std::string& stepKey, bool done) {
    // A step is written down with its time; one of its places goes with it.
    const SurfacePlan* planned = d.plan()->surface(surface);
    if (planned)
        for (const FitStep& step : planned->steps)
            if (step.key == stepKey) {
                const double minutes = minutesOf(step, d.job().work.practised);
                return tickWorkSteps(d, {{surface, stepKey}}, done, workedUntilNow(d, minutes));
            }
    FitLog log = d.job().log(surface);
    if (done)
        log.done.insert(stepKey);
    else
        log.done.erase(stepKey);
    return setValue(done ? Commands::tr("Tick a step") : Commands::tr("Untick a step"), d, JobPart::Log, surface,
                    logOf(surface), std::move(log));
}

Command writeLog(JobDocument& d, const std::string& surface, FitLog log) {
    return setValue(Commands::tr("Write into the log"), d, JobPart::Log, surface, logOf(surface), std::move(log));
}

} // namespace westrum
