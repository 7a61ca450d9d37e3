#pragma once

#include "app/document/job_document.h"
#include "core/plan/savings.h"
#include "core/units/parse.h"

#include <QUndoCommand>

#include <memory>
#include <optional>
#include <string>
#include <vector>

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
Command describeNotchEdges(JobDocument&, const std::string& surface, int index, EdgeKind edges);
Command describeStepEdges(JobDocument&, const std::string& surface, int index, EdgeKind edges);
Command renameSurface(JobDocument&, const std::string& surface, const std::string& name);

/// What settles a remark, if anything does; null otherwise.
Command takeFix(JobDocument&, const Remark& remark);
/// One drag, or a run of nudges, of the start line is one undo step: commands of the same `gesture` merge.
/// @param layer  of the option chosen; -1: the layer that is seen, here and below
Command moveStartLine(JobDocument&, const std::string& surface, Mm offset, int gesture, int layer = -1);
/// The other start line of a grid.
Command moveStartColumn(JobDocument&, const std::string& surface, Mm offset, int gesture, int layer = -1);
/// Joints of panels by hand; none: where the set-out puts them.
Command moveJoints(JobDocument&, const std::string& surface, std::vector<double> joints, int gesture, int layer = -1);
/// Relief cuts of a lining, all of them; one more or one fewer is a change as well.
Command moveReliefs(JobDocument&, const std::string& surface, std::vector<ReliefCut> reliefs, int gesture,
                    int layer = -1);
/// A rule of a lining moved by hand: what is left at its edges ("allowance"), or its up-stand ("upstand").
Command moveAllowance(JobDocument&, const std::string& surface, const std::string& key, Mm allowance, int gesture,
                      int layer = -1);
Command setRule(JobDocument&, const std::string& surface, const std::string& key, double value, int layer = -1);
/// Several rules at once: a suggestion taken.
Command setRules(JobDocument&, const std::string& surface, const FieldValues& rules, int layer = -1);
/// In place of the layer that is seen; empty: it is taken out.
Command chooseProduct(JobDocument&, const std::string& surface, const std::string& product);
Command chooseUnderlay(JobDocument&, const std::string& surface, const std::string& product);
/// What runs along the edges; empty: chosen edge by edge, by rule; kNoTrim: nothing.
Command chooseTrim(JobDocument&, const std::string& surface, const std::string& product);

/// @param place  where it is put in, counted from the metal; -1: where its kind belongs
Command addLayer(JobDocument&, const std::string& surface, const std::string& product, int place = -1);
Command removeLayer(JobDocument&, const std::string& surface, int layer);
Command moveLayer(JobDocument&, const std::string& surface, int layer, int to);
Command replaceLayer(JobDocument&, const std::string& surface, int layer, const std::string& product);
Command setBolted(JobDocument&, const std::string& surface, int layer, bool bolted);
/// Another option, a copy of the one chosen, which it becomes.
Command addOption(JobDocument&, const std::string& surface, const std::string& name);
Command removeOption(JobDocument&, const std::string& surface, int option);
/// On every surface that has an option of this name, that one is chosen.
Command chooseScheme(JobDocument&, const std::string& name);
Command renameOption(JobDocument&, const std::string& surface, int option, const std::string& name);
Command chooseOption(JobDocument&, const std::string& surface, int option);
/// The option chosen of one surface, with its trim, becomes the one of another.
Command copyBuildUp(JobDocument&, const std::string& from, const std::string& to);

Command renameProduct(JobDocument&, const std::string& product, const std::string& name);
Command setProductField(JobDocument&, const std::string& product, const std::string& key, double value);
/// So many packs, items or steps of a roll beyond the plan; 0: none.
Command setSpare(JobDocument&, const std::string& product, int spare);
/// Offers, suppliers and rates, all of them.
Command setPrices(JobDocument&, PriceBook prices);
/// All spares at once.
Command setSpares(JobDocument&, std::map<std::string, int> spares);
/// Takes what saves on a product: a surface is laid another way, or its pieces may be turned.
Command takeSaving(JobDocument&, const std::string& product, const Saving& saving);
/// What was really bought of a line; nothing: it is not bought yet.
Command tickBought(JobDocument&, const std::string& key, std::optional<Bought> bought);
Command setBudget(JobDocument&, std::optional<Money> budget);
/// Whether discs, masking tape and blades are counted and bought.
Command countConsumables(JobDocument&, bool counted);
/// The person's speed with adhesive: m2 a minute of one coat, and of closing.
Command setPace(JobDocument&, double spread, double close);
Command acceptRisk(JobDocument&, double risk);
/// @param chance  that a cut is spoiled
Command setSpoilChance(JobDocument&, double chance);
Command setPackPrice(JobDocument&, const std::string& product, std::optional<Money> price);
Command addProduct(JobDocument&, Product product);
/// Not while a layer or a trim is made of it.
Command removeProduct(JobDocument&, const std::string& product);
/// Adds products, or puts them in place of those with the same id.
Command mergeProducts(JobDocument&, const std::vector<Product>& products);

Command renameJob(JobDocument&, const std::string& name, const std::string& vehicle);
Command chooseUnits(JobDocument&, LengthUnit shown, LengthUnit bare);

Command tickStep(JobDocument&, const std::string& surface, const std::string& stepKey, bool done);
/// Writes into the log; `name` is what the menu says.
Command writeLog(JobDocument&, const std::string& surface, FitLog log);

} // namespace westrum
