#pragma once

#include "app/document/commands.h"
#include "core/plan/base_plan.h"
#include "core/plan/box_plan.h"
#include "core/shell/arch_box.h"

namespace westrum {

/// What a person does to what the finishes hang on. One undo step each.

/// Moves an opening, all of its row, by so much along x and y; nothing while the surface is not measured.
Command shiftOpening(JobDocument&, const std::string& surface, int index, Point by);
/// Timber right across the surface behind the middle of a zone.
Command addBacking(JobDocument&, const std::string& surface, int zone);
/// Rows of lamps that are kept even in what is seen, in place of those that the surface has.
Command spaceLamps(JobDocument&, const std::string& surface, int lamps, int rows, Mm diameter);
/// Openings for drawers and doors: so many across and up, the same gap round and between all of them, in place of those
/// of an earlier parting. Null where no room is left for them.
Command partFront(JobDocument&, const std::string& surface, int across, int up, Mm reveal);
/// The lamps that are kept even, put where that is now.
Command placeLamps(JobDocument&, const std::string& surface);
/// Battens of this option alone, by the span of what lies on them and its joints; empty: those that were measured.
Command setBattens(JobDocument&, const std::string& surface, int layer, std::vector<Support> battens);
Command setPacking(JobDocument&, const std::string& surface, Packing packing, int gesture = -1);
/// How far a rib stands at one crossing; nothing takes it away.
Command readCrossing(JobDocument&, const std::string& surface, CrossingReading crossing);
/// How one piece is held; nothing: as the layer is.
Command holdPiece(JobDocument&, const std::string& surface, int layer, const std::string& piece,
                  std::optional<FixedWith> by);
/// A box over a wheel arch, new or changed, with its four surfaces and the floor's notch.
Command putBox(JobDocument&, ArchBox box, const BoxSurfaceNamer& name);
/// Takes the box away; its surfaces stay, to be measured by themselves.
Command removeBox(JobDocument&, const std::string& id);
/// How far openings of a kind are kept from edges, joints and each other; nothing: as usual.
Command setClearance(JobDocument&, OpeningKind kind, std::optional<Mm> clear);

/// The outline of another surface as the template of this one: its sides moved outwards by so much (inwards where < 0),
/// its openings taken over. Null where nothing of it would be left. @param bySide  mm by side of the template
Command takeOutline(JobDocument&, const std::string& surface, const std::string& from,
                    const std::vector<double>& bySide, double rest, bool openings);

/// What settles a remark about the base; null for others.
Command takeBaseFix(JobDocument&, const Remark& remark);

} // namespace westrum
