#pragma once

#include "app/document/commands.h"

#include <QUndoCommand>

#include <algorithm>
#include <utility>
#include <vector>

namespace westrum {

/// Exchanges one value of the job with another; undo and redo are the same exchange. `Access` finds the value in a job
/// by ids, never by a kept pointer.
template <class Value, class Access> class SetValue final : public QUndoCommand {
public:
    SetValue(const QString& name, JobDocument& document, JobPart part, std::string surface, Access access, Value value,
             int gesture = -1)
        : QUndoCommand(name),
          document_(document),
          part_(part),
          surface_(std::move(surface)),
          access_(std::move(access)),
          other_(std::move(value)),
          gesture_(gesture) {
        setObsolete(access_(document_.job()) == other_);
    }
    void undo() override { exchange(); }
    void redo() override { exchange(); }
    int id() const override { return gesture_; }
    bool mergeWith(const QUndoCommand* later) override {
        const auto* next = dynamic_cast<const SetValue*>(later);
        if (!next || next->surface_ != surface_) return false;
        // Ours still holds the value from before the gesture; the document has the newest.
        setObsolete(access_(document_.job()) == other_);
        return true;
    }

private:
    void exchange() {
        document_.edit(part_, surface_, [this](Job& job) { std::swap(access_(job), other_); });
    }

    JobDocument& document_;
    JobPart part_;
    std::string surface_;
    Access access_;
    Value other_;
    int gesture_;
};

/// Several exchanges that are one step.
class Together final : public QUndoCommand {
public:
    Together(const QString& name, std::vector<Command> parts) : QUndoCommand(name), parts_(std::move(parts)) {
        setObsolete(std::all_of(parts_.begin(), parts_.end(), [](const Command& c) { return c->isObsolete(); }));
    }
    void undo() override {
        for (auto part = parts_.rbegin(); part != parts_.rend(); ++part) (*part)->undo();
    }
    void redo() override {
        for (const Command& part : parts_) part->redo();
    }

private:
    std::vector<Command> parts_;
};

inline Command together(const QString& name, std::vector<Command> parts) {
    return std::make_unique<Together>(name, std::move(parts));
}

template <class Value, class Access>
Command setValue(const QString& name, JobDocument& document, JobPart part, const std::string& surface, Access access,
                 Value value, int gesture = -1) {
    return std::make_unique<SetValue<Value, Access>>(name, document, part, surface, std::move(access), std::move(value),
                                                     gesture);
}

/// The options of a surface. They may not be there yet: asked of a const job, an empty one stands in.
inline auto optionsOf(const std::string& surface) {
    return [surface](auto& job) -> auto& {
        if constexpr (std::is_const_v<std::remove_reference_t<decltype(job)>>)
            return job.options(surface);
        else
            return job.finishes[surface];
    };
}

/// What happened on a surface. It may not be there yet, as above.
inline auto logOf(const std::string& surface) {
    return [surface](auto& job) -> auto& {
        if constexpr (std::is_const_v<std::remove_reference_t<decltype(job)>>)
            return job.log(surface);
        else
            return job.logs[surface];
    };
}

} // namespace westrum
