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

namespace westrum {

// One line a family, and nothing else in this file: a program that has a family more links its own table.
std::span<const Family> familyTable() {
    static const std::array all{
        plankFamily(),  boardFamily(),    sheetFamily(),    tileFamily(),    liningFamily(),
        foamFamily(),   clothFamily(),    underlayFamily(), barrierFamily(), insulationFamily(),
        battenFamily(), adhesiveFamily(), coatingFamily(),  trimFamily(),    sundryFamily(),
    };
    return all;
}

} // namespace westrum
