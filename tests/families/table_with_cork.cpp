#include "core/families/adhesives.h"
#include "core/families/barriers.h"
#include "core/families/battens.h"
#include "core/families/boards.h"
#include "core/families/cloth.h"
#include "core/families/coatings.h"
#include "core/families/foam.h"
#include "core/families/insulations.h"
#include "core/families/linings.h"
#include "core/families/planks.h"
#include "core/families/sheets.h"
#include "core/families/sundries.h"
#include "core/families/tiles.h"
#include "core/families/trims.h"
#include "core/families/underlays.h"
#include "tests/families/cork_tiles.h"

namespace westrum {

// The program's table with one line more. The linker takes this one instead of that in core/families/table.cpp.
std::span<const Family> familyTable() {
    static const std::array all{plankFamily(),    boardFamily(),   sheetFamily(),      tileFamily(),
                                liningFamily(),   foamFamily(),    clothFamily(),      test::corkFamily(),
                                underlayFamily(), barrierFamily(), insulationFamily(), battenFamily(),
                                adhesiveFamily(), coatingFamily(), trimFamily(),       sundryFamily()};
    return all;
}

} // namespace westrum
