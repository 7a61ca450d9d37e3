#include "core/families/sundries.h"

#include "core/catalogue/sundry.h"

namespace westrum {

Family sundryFamily() {
    return {.product = {.id = "sundries",
                        .tradeName = "fixings and sundries",
                        .role = LayerRole::Sundry,
                        .soldBy = SoldBy::Pack,
                        .fields = sundryFields(),
                        .quantity = Quantity::Pack}};
}

} // namespace westrum
