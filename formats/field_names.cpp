// The trade names of all fields and choices, listed for translation: the core that owns them knows no translator.
// tests/formats holds this list against the field tables.

#include "formats/field_names.h"

#include <QtGlobal>

namespace westrum {

std::vector<std::string_view> translatableFieldNames() {
    return {QT_TRANSLATE_NOOP("Field", "plank length"),
            QT_TRANSLATE_NOOP("Field", "plank width"),
            QT_TRANSLATE_NOOP("Field", "thickness"),
            QT_TRANSLATE_NOOP("Field", "planks in a pack"),
            QT_TRANSLATE_NOOP("Field", "mass of a pack"),
            QT_TRANSLATE_NOOP("Field", "least movement gap"),
            QT_TRANSLATE_NOOP("Field", "least stagger"),
            QT_TRANSLATE_NOOP("Field", "roll width"),
            QT_TRANSLATE_NOOP("Field", "roll length"),
            QT_TRANSLATE_NOOP("Field", "lap between strips"),
            QT_TRANSLATE_NOOP("Field", "mass per area"),
            QT_TRANSLATE_NOOP("Field", "rows run"),
            QT_TRANSLATE_NOOP("Field", "movement gap"),
            QT_TRANSLATE_NOOP("Field", "ripped off the first row"),
            QT_TRANSLATE_NOOP("Field", "stagger"),
            QT_TRANSLATE_NOOP("Field", "least end piece"),
            QT_TRANSLATE_NOOP("Field", "saw kerf"),
            QT_TRANSLATE_NOOP("Field", "way of working"),
            QT_TRANSLATE_NOOP("Field", "rip one plank for first and last row"),
            QT_TRANSLATE_NOOP("Field", "along the van"),
            QT_TRANSLATE_NOOP("Field", "across the van"),
            QT_TRANSLATE_NOOP("Field", "plan all cuts ahead"),
            QT_TRANSLATE_NOOP("Field", "cut as you go"),
            QT_TRANSLATE_NOOP("Field", "length sold"),
            QT_TRANSLATE_NOOP("Field", "width"),
            QT_TRANSLATE_NOOP("Field", "squared off each end"),
            QT_TRANSLATE_NOOP("Field", "mass of a length"),
            QT_TRANSLATE_NOOP("Field", "sheet length"),
            QT_TRANSLATE_NOOP("Field", "sheet width"),
            QT_TRANSLATE_NOOP("Field", "trimmed off each edge"),
            QT_TRANSLATE_NOOP("Field", "grain"),
            QT_TRANSLATE_NOOP("Field", "none"),
            QT_TRANSLATE_NOOP("Field", "along the sheet"),
            QT_TRANSLATE_NOOP("Field", "room between pieces"),
            QT_TRANSLATE_NOOP("Field", "pieces may turn"),
            QT_TRANSLATE_NOOP("Field", "one way"),
            QT_TRANSLATE_NOOP("Field", "half turn"),
            QT_TRANSLATE_NOOP("Field", "quarter turns"),
            QT_TRANSLATE_NOOP("Field", "any way"),
            QT_TRANSLATE_NOOP("Field", "pattern repeat along"),
            QT_TRANSLATE_NOOP("Field", "pattern repeat across"),
            QT_TRANSLATE_NOOP("Field", "sold in steps of"),
            QT_TRANSLATE_NOOP("Cutout", "position"),
            QT_TRANSLATE_NOOP("Cutout", "length"),
            QT_TRANSLATE_NOOP("Cutout", "depth"),
            QT_TRANSLATE_NOOP("Cutout", "along"),
            QT_TRANSLATE_NOOP("Cutout", "across")};
}

} // namespace westrum
