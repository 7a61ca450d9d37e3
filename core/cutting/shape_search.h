#pragma once

#include "core/cutting/effort.h"
#include "core/cutting/shape_forms.h"

#include <array>
#include <optional>
#include <vector>

namespace westrum {

/// Where every piece lies: the forms and places of the movable ones.
struct ShapeLayout {
    std::vector<int> form;
    std::vector<Point> at;
};

/// Moves overlapping pieces on a roll of a given length until none overlaps: guided local search over no-fit regions.
class ShapeSearch {
public:
    struct Fixed {
        int form;
        Point at;
    };
    /// @param pieces  of each movable item its place in the problem's list; fixed ones are obstacles
    ShapeSearch(const ShapesProblem& problem, ShapeForms& forms, std::vector<std::size_t> pieces,
                std::vector<Fixed> fixed, std::uint64_t seed);

    [[nodiscard]] const ShapeLayout& layout() const { return layout_; }
    void setLayout(ShapeLayout layout) { layout_ = std::move(layout); }
    /// Length of roll that the layout takes, the fixed ones included.
    [[nodiscard]] double lengthOf(const ShapeLayout& layout) const;

    /// How the weight of an overlap that stays grows in each round, by its depth, and fades once it is gone.
    struct Temper {
        double least = 1.2;
        double most = 2.0;
        double fade = 0.99;
    };
    Temper temper;
    /// Chances of the ways in which disturb() makes a layout another one. Else two large pieces change places.
    struct Disturbance {
        double exchange = 0; ///< two neighbouring parts of the roll change places, each as it lies
        double turn = 0;     ///< of those not exchanged: a part is turned by half
        double shuffle = 0;  ///< of those left: all pieces in a part change places
        double carry = 0;    ///< two pieces that change places take along the smaller ones that lie in their bounds
    };
    Disturbance disturbance;

    /// Limits for each group the length of roll that its pieces may lie apart; none by default.
    std::vector<double> groupSpanMm;

    /// Tries to part all pieces within the length. False: not found before patience or effort was at its end; the
    /// layout is then the one with the least overlap. Counts its moves in `moves`.
    bool separate(double lengthMm, int patience, const Effort& effort, std::int64_t& moves);

    /// Moves all pieces inside the length, as they are but shifted.
    void pushInside(double lengthMm);
    /// Makes the layout another one, with overlaps, inside the length: see Disturbance.
    void disturb(double lengthMm);
    /// All pieces anywhere inside the length, in any of their rotations.
    void scatter(double lengthMm);
    /// Everything beyond a random line across is moved towards 0 by what the roll loses.
    void shortenAt(double byMm);

    [[nodiscard]] double overlap() const { return overlap_; }
    [[nodiscard]] Dice& dice() { return dice_; }

private:
    /// Another piece or obstacle, as the piece in hand sees it.
    struct Other {
        const NoFit* fit;
        Point at;
        double weight;
        Point low, high; ///< places of the piece in hand outside which they cannot overlap
        bool flipped;    ///< the no-fit region is that of the other against the piece in hand

        /// As the no-fit region has it.
        [[nodiscard]] Point placeOf(Point p) const { return flipped ? at - p : p - at; }
        [[nodiscard]] bool mayMeet(Point p) const { return p.x > low.x && p.x < high.x && p.y > low.y && p.y < high.y; }
    };
    /// All others, and once more the places outside which they cannot be met: laid out so that sixteen are compared
    /// together.
    struct Others {
        static constexpr std::size_t kBlock = 16;
        struct Block {
            std::array<float, kBlock> lowX, lowY, highX, highY;
        };
        std::vector<Other> list;
        std::vector<Block> blocks;
    };
    struct Candidate;
    /// All points p with dot(across, p) = at.
    struct Line {
        Point across; // of length 1
        double at;
    };
    static std::optional<Point> crossing(const Line& a, const Line& b);
    struct Box {
        Point low, high;
        PatternRepeat repeat{}; ///< that the piece must keep
    };
    [[nodiscard]] PatternRepeat repeatOf(int form) const;
    [[nodiscard]] std::optional<Box> room(std::size_t item, int form, double lengthMm) const;
    [[nodiscard]] std::optional<Point> snapped(Point p, const Box& room) const;
    void gather(std::size_t item, int form, Others& others);
    static double weigh(const Others& others, Point p, double limit);
    void refine(const Others& others, const Box& room, Candidate& candidate, double reach);
    void relocate(std::size_t item, double lengthMm);
    void settle(double lengthMm);
    double strain(const std::vector<Point>& at, std::vector<Point>& slope);
    [[nodiscard]] bool parted() const;
    [[nodiscard]] Point middle(std::size_t item) const;
    void exchangeParts(double lengthMm);
    void turnPart(double lengthMm);
    [[nodiscard]] std::vector<std::size_t> inSomePart(double lengthMm);
    [[nodiscard]] std::vector<std::size_t> twoLarge();
    [[nodiscard]] std::vector<std::size_t> lyingIn(std::size_t holder) const;
    const NoFit& noFit(int a, int b); ///< a <= b
    double measure();                 ///< all overlaps; returns their sum
    [[nodiscard]] double& pair(std::vector<double>& of, std::size_t i, std::size_t j) {
        return of[i * (count_ + fixed_.size()) + j];
    }

    const ShapesProblem& problem_;
    ShapeForms& forms_;
    std::vector<std::size_t> pieces_;
    std::vector<Fixed> fixed_;
    std::size_t count_;
    ShapeLayout layout_;
    std::vector<double> weight_; // by pair: item, then item or fixed
    std::vector<double> overlaps_;
    double overlap_ = 0;
    double deepest_ = 0;
    Dice dice_;
    /// Two that may overlap, in what moves all pieces at once.
    struct Tie {
        std::size_t i, j; ///< j: an item, or beyond those a fixed one
        const NoFit* fit;
        bool flipped; ///< the no-fit region is that of i against j
    };
    std::vector<Tie> ties_;
    double tightest_ = 0;
    std::vector<const NoFit*> known_; // by pair of forms: spares the lock
    std::vector<Others> gathered_;    // by rotation, kept to save allocations
    std::vector<Line> lines_;         // the same
};

} // namespace westrum
