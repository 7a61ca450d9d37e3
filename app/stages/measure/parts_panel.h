#pragma once

#include "app/stages/measure/outline_bench.h"
#include "app/widgets/bound_form.h"

namespace westrum {

/// Under the bench: what is in hand and everything of it that is no figure on the drawing. One group at a time - the
/// outline with its form and cut-outs, openings, edges, hidden zones, supports, the surface itself, the van.
class PartsPanel : public QWidget {
    Q_OBJECT
public:
    enum Group { Outline, Openings, Edges, Zones, Supports, Box, Itself, Van };

    PartsPanel(JobDocument& document, char decimalMark, QWidget* parent = nullptr);
    void refresh();
    void show(Group group, int inHand = -1);
    [[nodiscard]] Group group() const { return group_; }
    [[nodiscard]] int inHand() const { return inHand_; }
    /// A side was pointed at on the map: the side in hand meets it.
    void meetInHand(const std::string& surface, int side);
    /// A box was drawn on the bench: a new zone.
    void addZoneAt(const QRectF& box);

signals:
    void problem(const QString& sentence);
    /// Something was added: its first figure, by this key, is what is typed next.
    void begun(const QString& key);
    /// Another group or part is in hand.
    void turned();
    /// A side is to be pointed at on the map.
    void pointAtSide();
    /// Two sides that meet are to be pointed at on the map, one after the other.
    void tieOnMap();
    /// A drawing is to be taken in, the outline to be given out, a photograph to be traced, a sheet to be printed.
    void importWanted();
    void exportWanted();
    void photographWanted();
    void sheetsWanted();

private:
    void build();
    void buildOutline();
    void buildForm();
    void buildPolygon();
    void buildTurns();
    void buildStations();
    void buildFixedPoints();
    void buildCurve();
    void buildCutouts();
    void buildOpenings();
    void buildOpening(int index);
    void buildSameHole(int index);
    [[nodiscard]] QString hingeWords(int side) const;
    static QString hingeSentence(const Hinge& hinge, const Figures& figures);
    void buildCorners(int index);
    void buildEdges();
    void buildZones();
    void buildSupports();
    void buildDoorFloor(std::size_t index);
    void buildBox();
    void buildBoxFigures(const std::string& floor, int notch);
    /// Another surface as the template of this one.
    void buildTemplate();
    void buildItself();
    void buildVan();
    void placementFields(const QString& prefix,
                         const std::function<void(const std::function<void(Placement&)>&)>& change);

    [[nodiscard]] const Surface* surface() const { return document_.job().surface(document_.currentSurface()); }
    [[nodiscard]] std::string id() const { return document_.currentSurface(); }
    /// What the form's fields are built for: it is built anew when this changes.
    [[nodiscard]] QString structure() const;
    void shape(const std::function<void(Measurement&)>& change);
    [[nodiscard]] QStringList sideNames() const;

    JobDocument& document_;
    char decimalMark_;
    Group group_ = Outline;
    int inHand_ = -1;
    std::string template_; ///< surface that the outline is taken over from
    std::vector<Mm> grow_; ///< by side of that
    bool shrink_ = false, holes_ = true;
    BoundForm* groups_;
    BoundForm* form_;
    QString built_;
};

} // namespace westrum
