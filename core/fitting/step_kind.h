#pragma once

#include <map>
#include <optional>

namespace westrum {

/// What a step is about. Its sentence is put together at the edge from kind, facts and wait.
enum class StepKind {
    CheckDelivery, ///< {packs}
    Acclimatise,   ///< {restLow} {restHigh} {layLow} {layHigh}
    CheckBase,     ///< {gap}
    LayUnderlay,   ///< {strips} {total} {joints} {along}
    FirstRow,      ///< {row} {width} {ripped}
    Row,           ///< {row}
    LastRow,       ///< {row} {width}
    Trims,         ///< {length} {gap}
    // Before anything is covered.
    CablesTested,
    PipesTested,
    BackingIn,
    SupportsRecorded, ///< {count}
    BarrierTaped,
    TailsThrough, ///< {count} openings that are covered first
    // Layers below a finish.
    LayBarrier,     ///< {product} {strips} {total} {joints} {lap}
    FitInsulation,  ///< {product} {area} {between} {count} {gives}
    FixBattens,     ///< {product} {count} {total}
    SpreadAdhesive, ///< {product} {amount} {minutes} {coldest} {warmest} {flash} {bays} {each} {bayMinutes}
    Coat,           ///< {product} {coats} {amount}
    // Boards.
    RestTimber,   ///< {product} {boards}
    SnapLine,     ///< {at} from the first edge to the first joint
    FirstBoard,   ///< {row} {width} {ripStart} {ripEnd}
    BoardRow,     ///< {row} {ripStart} {ripEnd}
    LastBoard,    ///< {row} {ripStart} {ripEnd}
    RoutOpenings, ///< {count}
    CarryHatch,   ///< {opening}
    // Panels.
    MakeTemplate, ///< {count}
    CutPanels,    ///< {product} {count}
    DryFitPanels,
    CutOpenings, ///< {count} that are cut and drilled before it goes up
    FixPanel,    ///< {panel} {length} {width} {removable} {held} {edge} {field} {count} {drilled}; held: FixedWith
    CloseJoints, ///< {count} {total} {style}
    // Tiles.
    CheckBacking,
    TileLines,  ///< {first} {column}
    LayTiles,   ///< {whole}
    CutTiles,   ///< {cut} {tiles}
    GroutTiles, ///< {amount}
    PeelTiles,  ///< {whole}
    // Linings off the roll.
    RestVinyl,  ///< {degrees}
    CutLinings, ///< {product} {count}
    CleanFace,
    CleanGlass,
    StickLining, ///< {count} {share} by which it is cut smaller
    LayVinyl,    ///< {count}
    CloseSeams,  ///< {count} {total} {lap} {lapped}
    TurnUpstand, ///< {height}
    TrimLining,  ///< {allowance} {turnIn}
    WrapPanels,  ///< {count} {turn}
    ClipPanels,  ///< {clips} {apart}; for each side {panel} {side} {first} {spacing} {count}
    LayFilm,     ///< {count}
    // Upholstery.
    CutFoam,      ///< {count} {glue}
    CutCloth,     ///< {product} {count}
    SewZip,       ///< {length}
    SewPiping,    ///< {length} {strips}
    SewCushions,  ///< {cushions} {seam} {thread}
    FillCushions, ///< {ease}
    StapleCover,  ///< {staples} {turn}
    FitFittings,  ///< {count} lamps, sockets and vents, once the coat is dry
    // Edges.
    FitTrim,   ///< {product} {pieces} {length} {mitred} {coped}
    FitEdging, ///< {product} {length}
    RunBead,   ///< {product} {length}
};
inline constexpr int kStepKinds = static_cast<int>(StepKind::RunBead) + 1;

/// What a person knows better of a kind of step than the table of efforts does. What is not given stays as it is there.
struct OwnEffort {
    std::optional<double> once, each; ///< minutes in practised hands: to set up, and for each unit
    std::optional<int> hands;         ///< pairs of them, 1 or more
    std::optional<bool> dry, light;   ///< what it needs of the day
    std::optional<double> minC, maxC; ///< degrees C; a label's go before them
    std::optional<int> fumes;         ///< minutes for which others stay out after it; 0: they need not
    friend bool operator==(const OwnEffort&, const OwnEffort&) = default;
};
using OwnEfforts = std::map<StepKind, OwnEffort>;

} // namespace westrum
