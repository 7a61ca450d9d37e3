#include "devices/price_feed.h"

#include "core/cutting/effort.h"

#include <cmath>

namespace westrum {

SimulatedPriceFeed::SimulatedPriceFeed(Catalogue catalogue, std::string supplier, std::string date, std::uint64_t seed)
    : catalogue_(std::move(catalogue)), supplier_(std::move(supplier)), date_(std::move(date)), state_(seed) {}

std::vector<Offer> SimulatedPriceFeed::fetch() {
    Dice dice(state_++);
    std::vector<Offer> offers;
    for (const Product& p : catalogue_.products) {
        if (!p.packPrice) continue;
        Offer o{.product = p.id, .supplier = supplier_, .size = 0, .price = *p.packPrice};
        // Prices end in a nine, as they do.
        const double price = static_cast<double>(p.packPrice->minor) * dice.between(0.88, 1.14);
        o.price.minor = std::max<std::int64_t>(9, std::llround(price / 10) * 10 - 1);
        o.date = date_;
        const double fate = dice.unit();
        if (fate < 0.05)
            o.state = OfferState::Withdrawn;
        else if (fate < 0.05 + 1.0 / 12)
            o.state = OfferState::OutOfStock;
        offers.push_back(std::move(o));
    }
    return offers;
}

} // namespace westrum
