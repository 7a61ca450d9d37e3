#include "core/units/piece_name.h"

namespace westrum {

std::string PieceName::key() const {
    const std::string of = std::to_string(unit) + ' ';
    const std::string sub = share > 0 ? "." + std::to_string(share) : std::string();
    switch (part) {
    case PiecePart::Named: return own;
    case PiecePart::Corner: return "corner " + std::to_string(number);
    case PiecePart::Batten: return "batten " + std::to_string(number) + sub;
    case PiecePart::Cover: return of + "cover";
    case PiecePart::Top: return of + "top";
    case PiecePart::Bottom: return of + "bottom";
    case PiecePart::Border: return of + "border " + std::to_string(number) + sub;
    case PiecePart::ZipStrip: return of + (number == 1 ? "zip a" : "zip b") + sub;
    case PiecePart::Piping: return "piping";
    case PiecePart::BoxTop: return "box-top";
    case PiecePart::BoxFace: return "box-face";
    case PiecePart::BoxRearEnd: return "box-rear-end";
    case PiecePart::BoxFrontEnd: return "box-front-end";
    }
    return own;
}

} // namespace westrum
