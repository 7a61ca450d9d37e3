#pragma once

#include "core/families/family.h"

namespace westrum::test {

/// Cork tiles, glued edge to edge: a family that the program does not ship. All that it is stands in this folder; one
/// line in a table lets it in.
Family corkFamily();

} // namespace westrum::test
