#include "app/document/record_commands.h"

#include "app/document/set_value.h"
#include "core/fitting/efforts.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>
#include <set>

namespace westrum {
namespace {

struct RecordCommands {
    Q_DECLARE_TR_FUNCTIONS(RecordCommands)
};

/// Takes entries out and puts others in; undo puts everything back where it was.
class ChangeRecord final : public QUndoCommand {
public:
    ChangeRecord(const QString& name, JobDocument& document, std::vector<std::int64_t> out,
                 std::vector<std::pair<std::size_t, RecordEntry>> in)
        : QUndoCommand(name), document_(document), out_(std::move(out)), in_(std::move(in)) {
        setObsolete(out_.empty() && in_.empty());
    }
    void redo() override { exchange(); }
    void undo() override { exchange(); }

private:
    /// What goes out now comes in the next time, at its place.
    void exchange() {
        document_.edit(JobPart::Log, {}, [this](Job& job) {
            std::vector<std::pair<std::size_t, RecordEntry>> gone;
            for (std::size_t i = job.record.size(); i-- > 0;)
                if (std::find(out_.begin(), out_.end(), job.record[i].id) != out_.end()) {
                    gone.emplace_back(i, std::move(job.record[i]));
                    job.record.erase(job.record.begin() + static_cast<std::ptrdiff_t>(i));
                }
            std::reverse(gone.begin(), gone.end());
            out_.clear();
            for (auto& [place, entry] : in_) {
                out_.push_back(entry.id);
                job.record.insert(job.record.begin() + static_cast<std::ptrdiff_t>(std::min(place, job.record.size())),
                                  std::move(entry));
            }
            in_ = std::move(gone);
        });
    }

    JobDocument& document_;
    std::vector<std::int64_t> out_;
    std::vector<std::pair<std::size_t, RecordEntry>> in_;
};

} // namespace

Command addEntries(JobDocument& d, std::vector<RecordEntry> entries) {
    std::int64_t id = freeEntryId(d.job().record);
    std::vector<std::pair<std::size_t, RecordEntry>> in;
    for (RecordEntry& e : entries) {
        e.id = id++;
        in.emplace_back(d.job().record.size() + in.size(), std::move(e));
    }
    return std::make_unique<ChangeRecord>(RecordCommands::tr("Write into the record"), d, std::vector<std::int64_t>{},
                                          std::move(in));
}

Command removeEntry(JobDocument& d, std::int64_t id) {
    const bool there = findEntry(d.job().record, id) != nullptr;
    return std::make_unique<ChangeRecord>(RecordCommands::tr("Strike an entry"), d,
                                          there ? std::vector<std::int64_t>{id} : std::vector<std::int64_t>{},
                                          std::vector<std::pair<std::size_t, RecordEntry>>{});
}

Command correctEntry(JobDocument& d, RecordEntry entry) {
    const RecordEntry* old = findEntry(d.job().record, entry.id);
    if (!old || *old == entry) return removeEntry(d, -1); // nothing to do
    const QString name = RecordCommands::tr("Correct an entry");
    const std::size_t place = static_cast<std::size_t>(old - d.job().record.data());
    std::vector<Command> parts;
    // A step's time is also that of its tick.
    if (entry.kind == EntryKind::StepDone && d.job().log(entry.surface).when.contains(entry.step)) {
        FitLog log = d.job().log(entry.surface);
        log.when[entry.step] = entry.when;
        parts.push_back(setValue(name, d, JobPart::Log, entry.surface, logOf(entry.surface), std::move(log)));
    }
    const std::int64_t id = entry.id;
    std::vector<std::pair<std::size_t, RecordEntry>> in;
    in.emplace_back(place, std::move(entry));
    parts.push_back(std::make_unique<ChangeRecord>(name, d, std::vector<std::int64_t>{id}, std::move(in)));
    return together(name, std::move(parts));
}

Command spoilPiece(JobDocument& d, RecordEntry entry) {
    const QString name = RecordCommands::tr("A piece is spoilt");
    std::vector<Command> parts;
    if (const auto list = d.job().cutLists.find(entry.product); list != d.job().cutLists.end()) {
        CutList changed = list->second;
        // Its place on the stock is gone; it goes back to be cut.
        for (KeptItem& item : changed.kept)
            std::erase_if(item.pieces, [&](const KeptPiece& p) { return p.cut && p.name == entry.piece; });
        const std::string product = entry.product;
        parts.push_back(setValue(
            name, d, JobPart::Cutting, std::string(),
            [product](auto& job) -> auto& {
                if constexpr (std::is_const_v<std::remove_reference_t<decltype(job)>>)
                    return job.cutList(product);
                else
                    return job.cutLists[product];
            },
            std::move(changed)));
    }
    std::vector<RecordEntry> entries;
    entries.push_back(std::move(entry));
    parts.push_back(addEntries(d, std::move(entries)));
    return together(name, std::move(parts));
}

Command changeRates(JobDocument& d, const QString& name, const Job& with) {
    std::vector<Command> parts;
    if (with.work != d.job().work)
        parts.push_back(setValue(
            name, d, JobPart::Finish, std::string(), [](auto& job) -> auto& { return job.work; }, with.work));
    if (with.catalogue != d.job().catalogue)
        parts.push_back(setValue(
            name, d, JobPart::Catalogue, std::string(), [](auto& job) -> auto& { return job.catalogue; },
            with.catalogue));
    if (with.spoilChance != d.job().spoilChance) parts.push_back(setSpoilChance(d, with.spoilChance));
    return together(name, std::move(parts));
}

Command takeRate(JobDocument& d, const RateOffer& offer) {
    return changeRates(d, RecordCommands::tr("Take a rate from the record"), withRate(d.job(), offer));
}

Command refuseRate(JobDocument& d, const RateOffer& offer) {
    std::set<std::string> refused = d.job().work.refused;
    refused.insert(offerKey(offer));
    return setValue(
        RecordCommands::tr("Refuse a rate"), d, JobPart::Work, std::string(),
        [](auto& job) -> auto& { return job.work.refused; }, std::move(refused));
}

Command offerRefused(JobDocument& d) {
    return setValue(
        RecordCommands::tr("Offer refused rates again"), d, JobPart::Work, std::string(),
        [](auto& job) -> auto& { return job.work.refused; }, std::set<std::string>{});
}

std::vector<RecordEntry> stepEntries(const JobDocument& d, const std::vector<StepRef>& steps, const WorkedTime& when) {
    std::vector<RecordEntry> entries;
    double planned = 0;
    // The first of its kind in a job takes longer, as the plan of the work has it.
    std::set<StepKind> begun;
    for (const SurfacePlan& s : d.plan()->surfaces)
        for (const FitStep& step : s.steps)
            if (d.job().log(s.surface).done.contains(step.key)) begun.insert(step.kind);
    for (const StepRef& ref : steps) {
        RecordEntry e{.kind = EntryKind::StepDone, .when = when, .surface = ref.surface, .step = ref.key};
        if (const SurfacePlan* s = d.plan()->surface(ref.surface))
            for (const FitStep& step : s->steps)
                if (step.key == ref.key) {
                    const double more = begun.insert(step.kind).second ? step.effort.firstMore : 0;
                    e.planned =
                        minutesOf(step, d.job().work.practised) + more * (d.job().work.practised ? 1 : kFirstTimer);
                }
        planned += e.planned;
        entries.push_back(std::move(e));
    }
    // Each has its share of the time, one after the other.
    double at = when.from;
    for (RecordEntry& e : entries) {
        e.when.from = static_cast<int>(std::lround(at));
        at += planned > 0 ? (when.to - when.from) * e.planned / planned
                          : static_cast<double>(when.to - when.from) / static_cast<double>(entries.size());
        e.when.to = static_cast<int>(std::lround(at));
    }
    return entries;
}

RecordEntry entryNow(const JobDocument& d, EntryKind kind) {
    const WorkClock::Moment now = d.now();
    return {.kind = kind, .when = {now.day, now.minute, now.minute}};
}

} // namespace westrum
