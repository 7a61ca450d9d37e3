#pragma once

#include "app/document/job_document.h"
#include "core/units/parse.h"

#include <QUndoCommand>

#include <memory>
#include <optional>
#include <string>

namespace westrum {

/// The things a person can do to a job, one undo step each, named as the menu says them. Each function returns the
/// command; push() puts it on the document's stack unless it would change nothing.
using Command = std::unique_ptr<QUndoCommand>;
void push(JobDocument& document, Command command);

Command chooseOutlineForm(JobDocument&, const std::string& surface, OutlineForm form);
Command addNotch(JobDocument&, const std::string& surface, Notch notch);
Command addStep(JobDocument&, const std::string& surface, Step step);
Command removeNotch(JobDocument&, const std::string& surface, int index);
Command removeStep(JobDocument&, const std::string& surface, int index);
Command moveNotchToSide(JobDocument&, const std::string& surface, int index, int side);
Command moveStepToCorner(JobDocument&, const std::string& surface, int index, int corner);
Command renameNotch(JobDocument&, const std::string& surface, int index, const std::string& name);
Command renameStep(JobDocument&, const std::string& surface, int index, const std::string& name);
Command renameSurface(JobDocument&, const std::string& surface, const std::string& name);

/// One drag, or a run of nudges, of the start line is one undo step: commands of the same `gesture` merge.
Command moveStartLine(JobDocument&, const std::string& surface, Mm offset, int gesture);
Command setRule(JobDocument&, const std::string& surface, const std::string& key, double value);
Command chooseProduct(JobDocument&, const std::string& surface, const std::string& product);
Command chooseUnderlay(JobDocument&, const std::string& surface, const std::string& product);

Command renameProduct(JobDocument&, const std::string& product, const std::string& name);
Command setProductField(JobDocument&, const std::string& product, const std::string& key, double value);
Command setPackPrice(JobDocument&, const std::string& product, std::optional<Money> price);
Command addProduct(JobDocument&, Product product);

Command renameJob(JobDocument&, const std::string& name, const std::string& vehicle);
Command chooseUnits(JobDocument&, LengthUnit shown, LengthUnit bare);

Command tickStep(JobDocument&, const std::string& surface, const std::string& stepKey, bool done);
/// Writes into the log; `name` is what the menu says.
Command writeLog(JobDocument&, const std::string& surface, FitLog log);

} // namespace westrum
