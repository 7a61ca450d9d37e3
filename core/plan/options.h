#pragma once

#include "core/catalogue/suitability.h"
#include "core/plan/plan.h"

#include <optional>
#include <stop_token>
#include <string>
#include <vector>

namespace westrum {

/// What one option of a surface comes to, to be held against the others.
struct OptionFigures {
    Mm thickness;
    Kg mass;                   ///< of the surface
    Kg totalMass;              ///< of all finishes of the job with this option
    std::optional<Money> cost; ///< of all that the job buys with this option, trims and deliveries too: to be compared
    double wasteShare{};       ///< of what is opened of its finish, by area or length
    int pieces{};              ///< of its finish
    int warnings{};            ///< remarks on the surface that ask for something
    bool planned{};            ///< false: it has no finish, or was not worked out
    double hours{};            ///< of laying, all layers
    int cuts{};                ///< pieces of its finish that are cut
    std::string product;       ///< id of its finish
    SetOut face;               ///< how that lies
    Suitability suits{}, asked{};
    std::vector<Remark> remarks; ///< on the surface, notes too
    friend bool operator==(const OptionFigures&, const OptionFigures&) = default;
};

/// The figures of every option of a surface, in order, each as if it were chosen. What is cut to size is cut as well,
/// quickly. Empty when stopped.
std::vector<OptionFigures> optionFigures(const Job& job, const std::string& surface, const std::stop_token& stop = {});

/// A way to finish the whole van: on every surface that has an option of this name, that one; else the one chosen.
struct SchemeFigures {
    std::string name; ///< of the options; empty: as chosen
    std::optional<Money> cost;
    Kg mass;
    double hours{};
    int pieces{}, warnings{};
    int surfaces{};                                           ///< on which it differs from what is chosen
    std::vector<std::pair<std::string, OptionFigures>> faces; ///< of the largest surfaces, by id
    friend bool operator==(const SchemeFigures&, const SchemeFigures&) = default;
};

/// Names of options that at least two surfaces have, in the order in which they come.
std::vector<std::string> schemesOf(const Job& job);
/// The job with a scheme chosen.
Job withScheme(const Job& job, const std::string& scheme);
/// As chosen, then every scheme; all cut quickly. Empty when stopped.
std::vector<SchemeFigures> schemeFigures(const Job& job, const std::stop_token& stop = {});

} // namespace westrum
