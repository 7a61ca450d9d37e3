#include "core/record/workshop.h"

#include <algorithm>
#include <cctype>
#include <cmath>

namespace westrum {
namespace {

/// In lower case, spaces at the ends taken off and others made one. Letters beyond ASCII stay as they are.
std::string plain(std::string_view text) {
    std::string out;
    bool space = false;
    for (const char c : text) {
        if (std::isspace(static_cast<unsigned char>(c))) {
            space = !out.empty();
            continue;
        }
        if (space) out += ' ';
        space = false;
        out += static_cast<char>(c >= 'A' && c <= 'Z' ? c - 'A' + 'a' : c);
    }
    return out;
}

} // namespace

std::string productIdentity(const Product& product) {
    std::string identity = product.family + '|' + plain(product.name);
    if (const auto thick = product.fields.find("thickness"); thick != product.fields.end())
        identity += '|' + std::to_string(std::lround(thick->second * 100)); // hundredths of a mm
    return identity;
}

const Product* findIdentity(const Catalogue& catalogue, std::string_view identity) {
    const auto found = std::find_if(catalogue.products.begin(), catalogue.products.end(),
                                    [&](const Product& p) { return productIdentity(p) == identity; });
    return found == catalogue.products.end() ? nullptr : &*found;
}

bool goesOffWithin(const KeptPack& pack, CivilDate today, int days) {
    return pack.goesOff && dayNumber(*pack.goesOff) <= dayNumber(today) + days;
}

} // namespace westrum
