#include "app/document/commands.h"

#include "app/document/set_value.h"

#include <QCoreApplication>

#include <utility>

namespace westrum {
namespace {

struct Commands {
    Q_DECLARE_TR_FUNCTIONS(Commands)
};

auto measurementOf(const std::string& surface) {
    return [surface](auto& job) -> auto& { return job.surface(surface)->measurement; };
}

/// A finish or log may not be there yet: asked of a const job, an empty one stands in.
auto finishOf(const std::string& surface) {
    return [surface](auto& job) -> auto& {
        if constexpr (std::is_const_v<std::remove_reference_t<decltype(job)>>)
            return job.finish(surface);
        else
            return job.finishes[surface];
    };
}

auto logOf(const std::string& surface) {
    return [surface](auto& job) -> auto& {
        if constexpr (std::is_const_v<std::remove_reference_t<decltype(job)>>)
            return job.log(surface);
        else
            return job.logs[surface];
    };
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

Command changeFinish(const QString& name, JobDocument& document, const std::string& surface, const auto& change,
                     int gesture = -1) {
    Finish f = document.job().finish(surface);
    change(f);
    return setValue(name, document, JobPart::Finish, surface, finishOf(surface), std::move(f), gesture);
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
    return changeMeasurement(Commands::tr("Remove a notch"), d, surface,
                             [&](Measurement& m) { m.notches.erase(m.notches.begin() + index); });
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

Command renameSurface(JobDocument& d, const std::string& surface, const std::string& name) {
    return setValue(
        Commands::tr("Rename the surface"), d, JobPart::Details,
        surface, [surface](auto& job) -> auto& { return job.surface(surface)->name; }, name);
}

Command moveStartLine(JobDocument& d, const std::string& surface, Mm offset, int gesture) {
    return changeFinish(
        Commands::tr("Move the start line"), d, surface, [&](Finish& f) { f.rules["startOffset"] = offset.value; },
        gesture);
}

Command setRule(JobDocument& d, const std::string& surface, const std::string& key, double value) {
    return changeFinish(Commands::tr("Change how it is laid"), d, surface, [&](Finish& f) { f.rules[key] = value; });
}

Command chooseProduct(JobDocument& d, const std::string& surface, const std::string& product) {
    return changeFinish(Commands::tr("Choose another finish"), d, surface, [&](Finish& f) {
        f.product = product;
        // The label's gap and stagger come with the product; a start line of a wider plank may not exist here.
        const Product* p = d.job().catalogue.find(product);
        if (!p) return;
        for (const auto& [rule, field] : {std::pair{"gap", "movementGap"}, {"stagger", "leastStagger"}})
            if (const auto value = p->fields.find(field); value != p->fields.end()) f.rules[rule] = value->second;
        if (const auto width = p->fields.find("width");
            width != p->fields.end() && f.rules["startOffset"] >= width->second)
            f.rules["startOffset"] = 0;
    });
}

Command chooseUnderlay(JobDocument& d, const std::string& surface, const std::string& product) {
    return changeFinish(Commands::tr("Choose another underlay"), d, surface, [&](Finish& f) { f.underlay = product; });
}

Command renameProduct(JobDocument& d, const std::string& product, const std::string& name) {
    return changeProduct(Commands::tr("Rename a product"), d, product, [&](Product& p) { p.name = name; });
}

Command setProductField(JobDocument& d, const std::string& product, const std::string& key, double value) {
    return changeProduct(Commands::tr("Change a product"), d, product, [&](Product& p) { p.fields[key] = value; });
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

Command renameJob(JobDocument& d, const std::string& name, const std::string& vehicle) {
    Names names{name, vehicle};
    return std::make_unique<ExchangeDetails<Names>>(Commands::tr("Rename the job"), d, std::move(names));
}

Command chooseUnits(JobDocument& d, LengthUnit shown, LengthUnit bare) {
    return std::make_unique<ExchangeDetails<Units>>(Commands::tr("Choose units"), d, Units{shown, bare});
}

Command tickStep(JobDocument& d, const std::string& surface, const std::string& stepKey, bool done) {
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
