#pragma once

#include "core/cutting/shape_search.h"

#include <functional>
#include <vector>

namespace westrum {

/// A layout on its way: what it has come to, and how it is being shortened.
struct ShapeAttempt {
    static constexpr double kLongestStep = 0.03; ///< by which a layout is shortened, as a share of its length

    ShapeLayout best;
    double length = 0; ///< mm of roll that it takes
    double step = kLongestStep;
    double aim = 0;   ///< the length that is tried, mm
    int failures = 0; ///< at this length
    /// Layouts of that length whose pieces could not be parted, no two of them alike: the best, the least overlap
    /// first.
    struct Failed {
        double overlap;
        ShapeLayout layout;
    };
    std::vector<Failed> failed;
    std::vector<double> early;    ///< overlaps of the last tries at this length after a few rounds
    std::vector<double> overlaps; ///< of all that failed at this length; nearly equal ones are of the same layout
};

/// One of the searches that run side by side. It makes layouts without overlaps and shortens them, each for as long as
/// it is told to; what an attempt has come to stays with the attempt.
class ShapeShortener {
public:
    /// Called with each better layout and its length.
    using Found = std::function<void(const ShapeLayout&, double)>;

    /// @param pieces  of each item that is moved, its place in the problem's list
    /// @param least   no layout is shorter, mm
    ShapeShortener(const ShapesProblem& problem, ShapeForms& forms, const Effort& effort, double least,
                   ShapeSearch search, std::vector<std::size_t> pieces, Found found);

    [[nodiscard]] std::int64_t moves() const { return moves_; }
    void countMoves(std::int64_t made) { moves_ += made; } ///< by another search, of those that the effort allows
    [[nodiscard]] double spent() const { return effort_.spent(moves_); } ///< share of the effort
    [[nodiscard]] std::size_t items() const { return pieces_.size(); }
    [[nodiscard]] bool atItsLeast() const { return length_ <= least_ + kShapeToleranceMm; }
    [[nodiscard]] const ShapeLayout& best() const { return best_; }
    [[nodiscard]] double length() const { return length_; }

    /// Goes on with an attempt.
    void take(const ShapeAttempt& attempt);
    /// The length that a layout takes, mm.
    [[nodiscard]] double lengthOf(const ShapeLayout& layout) const { return search_.lengthOf(layout); }

    /// Looks for a layout from anywhere, of a length or little more. False: none before that share of the effort.
    bool scatter(ShapeAttempt& attempt, double aim, double until);
    /// Looks for a layout in which some items begin as another search laid them and the others lie anywhere.
    /// @param items  those, by place; in the order of `laid`
    bool fill(ShapeAttempt& attempt, const std::vector<std::size_t>& items, const ShapeAttempt& laid, double until);
    /// Shortens the attempt step by step, up to a share of the effort; when its pieces cannot be parted, the layout is
    /// disturbed and it is tried again.
    /// @param untilSqueezed  what is found is squeezed at once up to this share
    void advance(ShapeAttempt& attempt, double until, double untilSqueezed);
    /// The best layout is squeezed: a little is taken out at a random line, less and less as the effort is used up.
    void compress();

private:
    void found(double aim);
    void keepGroups();
    void parted(ShapeAttempt& attempt, double aim) const;
    bool hopefullySeparate(ShapeAttempt& attempt);
    void failedAgain(ShapeAttempt& attempt) const;
    void disturb(const ShapeAttempt& attempt);
    void squeeze(double until);
    bool separate(double aim, int patience) { return search_.separate(aim, patience, effort_, moves_); }

    const ShapesProblem& problem_;
    const ShapeForms& forms_;
    const Effort& effort_;
    double least_;
    ShapeSearch search_;
    std::vector<std::size_t> pieces_;
    std::int64_t moves_ = 0;
    Found found_;
    ShapeLayout best_; // of the attempt in hand
    double length_ = 0;
};

} // namespace westrum
