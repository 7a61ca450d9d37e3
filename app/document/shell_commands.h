#pragma once

#include "app/document/commands.h"
#include "core/shell/shape.h"

namespace westrum {

/// What a person does to the shell: its surfaces and what lies on them. One undo step each.

/// Any reading of a surface by its key (core/shell/surface.h); nothing takes it away.
Command takeReading(JobDocument&, const std::string& surface, const std::string& key, MaybeReading reading);
/// Another form, or more or fewer sides, diagonals, stations, points or profile parts; readings that still have a place
/// are kept. `shaped` is the changed copy.
Command shapeMeasurement(JobDocument&, const std::string& surface, Measurement shaped);

/// A check of an earlier body is read in this van, and stands in its surface's readings too; nothing takes it away.
Command takeCheck(JobDocument&, std::size_t check, MaybeReading reading);
/// A surface is no longer as it was measured in an earlier body.
Command measuredHere(JobDocument&, const std::string& surface);

/// What is said of a polygon's corner: which way the outline turns there.
Command turnCorner(JobDocument&, const std::string& surface, int corner, CornerTurn turn);
/// A diagonal of a polygon, not read yet; nothing changes where there is one between these corners.
Command addDiagonal(JobDocument&, const std::string& surface, int from, int to);

/// Puts a changed copy in the place of the surface with its id; `name` is what the menu says.
Command replaceSurface(const QString& name, JobDocument&, Surface surface);
Command addSurface(JobDocument&, Surface surface);
/// With all its options; what it meets is for the person to say.
Command duplicateSurface(JobDocument&, const std::string& surface, const std::string& name);
/// A mirror image for the other side of the van.
Command mirrorSurface(JobDocument&, const std::string& surface, const std::string& name);
Command removeSurface(JobDocument&, const std::string& surface);
Command describeSurface(JobDocument&, const std::string& surface, SurfaceKind kind, Hand hand, const Area& area);

/// Which way its upper edge leans.
Command leanSurface(JobDocument&, const std::string& surface, bool outwards);

Command addOpening(JobDocument&, const std::string& surface, Opening opening);
Command changeOpening(JobDocument&, const std::string& surface, int index, Opening opening);
/// An opening is the same hole as one of another surface, seen from there. @param other  empty: of none
Command joinHole(JobDocument&, const std::string& surface, int index, const std::string& other, int otherIndex);
Command removeOpening(JobDocument&, const std::string& surface, int index);
Command addZone(JobDocument&, const std::string& surface, Zone zone);
Command changeZone(JobDocument&, const std::string& surface, int index, Zone zone);
Command removeZone(JobDocument&, const std::string& surface, int index);
/// All battens of a surface laid the other way; nothing while it is not measured.
Command turnBattens(JobDocument&, const std::string& surface);
Command addSupport(JobDocument&, const std::string& surface, Support support);
Command changeSupport(JobDocument&, const std::string& surface, int index, Support support);
Command removeSupport(JobDocument&, const std::string& surface, int index);

/// One drag of an opening or zone is one undo step: commands of the same gesture merge.
Command moveOpening(JobDocument&, const std::string& surface, int index, PlacementDistances to, int gesture);
Command moveZone(JobDocument&, const std::string& surface, int index, PlacementDistances to, int gesture);

/// What happens at a side, other than meeting a surface; a tie that was there is undone at both ends.
Command describeEdge(JobDocument&, const std::string& surface, int side, Edge edge);
/// What closes one side, whatever the surface's trim or the rule say; empty: they decide.
/// What closes all such edges in an area of the van, this edge with them; empty: by the rule table again.
Command chooseAreaTrim(JobDocument&, const AreaTrim& trim, const std::string& surface, int side);
/// The corner at an end of a side as a bevel gauge reads it, in degrees; nothing: as it is drawn.
Command gaugeCorner(JobDocument&, const std::string& surface, int side, bool atEnd, std::optional<double> degrees);
Command chooseEdgeTrim(JobDocument&, const std::string& surface, int side, const std::string& product);
Command meetSides(JobDocument&, const std::string& surface, int side, const std::string& other, int otherSide);

Command setDatum(JobDocument&, Datum datum);
Command setAccess(JobDocument&, Access access);
/// The van on its wheels: plate and first weighing.
Command setVanMass(JobDocument&, VanMass mass, int gesture = -1);
/// All visits to the weighbridge; one more or one fewer is a change as well.
Command setWeighings(JobDocument&, std::vector<Weighing> weighings);
Command saySymmetric(JobDocument&, bool symmetric);
Command setHeadroom(JobDocument&, Headroom headroom);

} // namespace westrum
