#pragma once

#include <string>
#include <utility>

namespace westrum {

/// What a piece is, where it is more than a number: whoever shows it says it in the reader's language.
enum class PiecePart {
    Named,  ///< by its own number or name
    Corner, ///< closes the corner of an up-stand
    Batten,
    Cover, ///< of a wrapped cushion
    Top,
    Bottom,
    Border,
    ZipStrip, ///< one of the two beside a zip
    Piping,
    BoxTop, ///< of the box over a wheel arch
    BoxFace,
    BoxRearEnd,
    BoxFrontEnd,
};

/// What a piece is called.
struct PieceName {
    std::string own{}; ///< of PiecePart::Named: "3.2", "shelf"
    PiecePart part = PiecePart::Named;
    int unit = 0;   ///< the cushion that it belongs to, from 1; 0: none
    int number = 0; ///< among its kind, from 1; 0: the only one
    int share = 0;  ///< of one that is made of several, from 1; 0: it is whole

    PieceName() = default;
    PieceName(std::string name) : own(std::move(name)) {} // NOLINT: a name is a name
    PieceName(const char* name) : own(name) {}            // NOLINT
    static PieceName of(PiecePart part, int unit, int number = 0, int share = 0) {
        PieceName n;
        n.part = part;
        n.unit = unit;
        n.number = number;
        n.share = share;
        return n;
    }
    /// As keys and files have it: the same in every language.
    [[nodiscard]] std::string key() const;
    [[nodiscard]] bool empty() const { return part == PiecePart::Named && own.empty(); }
    friend bool operator==(const PieceName&, const PieceName&) = default;
    friend bool operator==(const PieceName& a, const std::string& key) { return a.key() == key; }
    friend bool operator==(const PieceName& a, const char* key) { return a.key() == key; }
};

} // namespace westrum
