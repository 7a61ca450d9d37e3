#pragma once

#include "core/cutting/effort.h"
#include "core/cutting/shape_forms.h"

#include <array>
#include <limits>
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
    static constexpr double kTouching = 0.008; ///< mm: overlaps up to this count as none
    static constexpr double kNever = std::numeric_limits<double>::infinity();
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

    /// Chances of the ways in which disturb() makes a layout another one. Else two large pieces change places.
    struct Disturbance {
        double exchange = 0.1; ///< two neighbouring parts of the roll change places, each as it lies
        double turn = 0.25;    ///< of those not exchanged: a part is turned by half
        double shuffle = 0.2;  ///< of those left: all pieces in a part change places
        double carry = 0.5;    ///< two pieces that change places take along the smaller ones that lie in their bounds
    };
    Disturbance disturbance;

    /// Limits for each group the length of roll that its pieces may lie apart; none by default.
    std::vector<double> groupSpanMm;

    /// Tries to part all pieces within the length. False: not found before patience or effort was at its end, or given
    /// up as hopeless; the layout is then the one with the least overlap. Counts its moves in `moves`.
    bool separate(double lengthMm, int patience, const Effort& effort, std::int64_t& moves);
    /// More overlap than this after a few rounds is hopeless; by default none is.
    double hopelessMm = std::numeric_limits<double>::infinity();
    /// The least overlap in those rounds, of the last separate(), unless it ended before.
    [[nodiscard]] std::optional<double> early() const { return early_; }

    /// Moves all pieces inside the length, as they are but shifted.
    void pushInside(double lengthMm);
    /// Makes the layout another one, with overlaps, inside the length: see Disturbance.
    void disturb(double lengthMm);
    /// All pieces anywhere inside the length, in any of their rotations; the largest in the next one at each call,
    /// since much hangs on it.
    void scatter(double lengthMm);
    /// Everything beyond a random line across is moved towards 0 by what the roll loses.
    void shortenAt(double byMm);

    [[nodiscard]] double overlap() const { return overlap_; }
    [[nodiscard]] Dice& dice() { return dice_; }

private:
    /// Another piece or obstacle, as the piece in hand sees it.
    struct Other {
        const NoFit* fit;
        Turn turn; ///< from places of the piece in hand, measured from `at`, into the region
        Point at;
        double weight;
        Point low, high; ///< places of the piece in hand outside which they cannot overlap

        [[nodiscard]] Point placeOf(Point p) const { return turn(p - at); }
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
    static constexpr std::size_t kBest = 3; ///< places from which better ones are looked for
    struct Candidate;
    /// Places that are looked at together.
    struct Places {
        std::vector<Point> at;
        std::vector<Four> x, y, atLeast; ///< the same, and what they cost at least
        void glance(const Others& others);
    };
    struct Try {
        double atLeast;
        std::size_t way;
        Point at;
    };
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
    /// The piece in hand in one of its rotations.
    struct Way {
        int form;
        std::optional<Box> room; ///< none: it cannot lie so
        Others others;
        Places places;
    };
    [[nodiscard]] PatternRepeat repeatOf(int form) const;
    [[nodiscard]] std::optional<Box> room(std::size_t item, int form, double lengthMm) const;
    [[nodiscard]] std::optional<Point> snapped(Point p, const Box& room) const;
    void gather(std::size_t item, int form, Others& others);
    static double weigh(const Others& others, Point p, double limit);
    void refine(const Way& way, Candidate& candidate, double reach);
    void drawPlaces(std::size_t item);
    void cheapest(std::array<Candidate, kBest>& best);
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
    const ShapeForms::Meeting& meeting(int a, int b);
    double measure(); ///< all overlaps; returns their sum
    [[nodiscard]] double& pair(std::vector<double>& of, std::size_t i, std::size_t j) {
        return of[i * (count_ + fixed_.size()) + j];
    }

    const ShapesProblem& problem_;
    ShapeForms& forms_;
    std::vector<std::size_t> pieces_;
    std::vector<Fixed> fixed_;
    std::size_t count_;
    std::size_t largest_ = 0; // item
    ShapeLayout layout_;
    std::vector<double> weight_; // by pair: item, then item or fixed
    std::vector<double> overlaps_;
    double overlap_ = 0;
    double deepest_ = 0;
    std::optional<double> early_;
    Dice dice_;
    std::uint64_t scattered_; // times, and some to begin with
    /// Two that may overlap, in what moves all pieces at once.
    struct Tie {
        std::size_t i, j; ///< j: an item, or beyond those a fixed one
        ShapeForms::Meeting meeting;
    };
    std::vector<Tie> ties_;
    double tightest_ = 0;
    std::vector<ShapeForms::Meeting> known_; // by pair of forms: spares the lock
    ShapeForms::Meeting asked_;              // the last one, of forms that are too many to be kept
    std::vector<Way> ways_;                  // kept to save allocations
    std::vector<Try> tries_;                 // the same
    std::vector<Line> lines_;                // the same
};

} // namespace westrum
