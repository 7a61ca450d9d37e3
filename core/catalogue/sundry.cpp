#include "core/catalogue/sundry.h"

#include <array>

namespace westrum {
namespace {

constexpr std::array<std::string_view, kServes> kPurposes{
    "screws",         "rivet nuts",   "machine screws", "washers",     "screw cups",    "panel clips",
    "hook-and-loop",  "staples",      "adhesive, tube", "grout",       "barrier tape",  "seam sealer",
    "corner blocks",  "zip",          "thread",         "piping cord", "foam glue",     "plain lining",
    "abrasive discs", "masking tape", "blades",         "packers",     "expanding nuts"};
constexpr std::array<Field, 4> kFields{{
    {"serves", "serves as", FieldUnit::Choice, 0, kServes - 1, 0, kPurposes},
    {"perPack", "in a pack", FieldUnit::Number, 0.01, 1e6, 100},
    {"length", "length, 0 if all alike", FieldUnit::Length, 0, 500, 0},
    {"mass", "mass of a pack", FieldUnit::Mass, 0, 100, 0},
}};

} // namespace

NeedUnit unitOf(Serves serves) {
    switch (serves) {
    case Serves::Screws:
    case Serves::RivetNuts:
    case Serves::ExpandingNuts:
    case Serves::Packers:
    case Serves::MachineScrews:
    case Serves::Washers:
    case Serves::ScrewCups:
    case Serves::PanelClips:
    case Serves::Staples:
    case Serves::CornerBlocks: return NeedUnit::Pieces;
    case Serves::HookAndLoop:
    case Serves::BarrierTape:
    case Serves::SeamSealer:
    case Serves::Zip:
    case Serves::Thread:
    case Serves::PipingCord:
    case Serves::MaskingTape:
    case Serves::Blades:
    case Serves::Sealant: return NeedUnit::Metres;
    case Serves::FoamGlue:
    case Serves::PlainLining:
    case Serves::AbrasiveDiscs: return NeedUnit::SquareMetres;
    case Serves::AdhesiveTube: return NeedUnit::Millilitres;
    case Serves::Grout: return NeedUnit::Kilograms;
    }
    return NeedUnit::Pieces;
}

bool isConsumable(Serves serves) {
    return serves == Serves::AbrasiveDiscs || serves == Serves::MaskingTape || serves == Serves::Blades;
}

std::span<const Field> sundryFields() { return kFields; }

SundryGoods sundryOf(const Product& product) {
    const auto value = [&](std::string_view key) { return valueOf(product.fields, kFields, key); };
    return {.serves = static_cast<Serves>(static_cast<int>(value("serves"))),
            .perPack = value("perPack"),
            .length = {value("length")},
            .packMass = {value("mass")}};
}

} // namespace westrum
