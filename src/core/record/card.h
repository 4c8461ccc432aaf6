#pragma once

#include "core/record/metric.h"

#include <cmath>
#include <compare>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace knot::record {

enum class OutcomeKind { average, spread, area, share, equal, typical };

/// Something a test can be about: the average of a metric, its spread, the landing area, the share of shots
/// inside a named shape, the average at equal delivery, or the typical shot.
struct Outcome {
    OutcomeKind kind = OutcomeKind::average;
    Metric metric = Metric::carry; ///< for all but area and share
    std::string shape;             ///< for share

    auto operator<=>(const Outcome&) const = default;
};

/// The written form: `carry_m`, `spread:side_m`, `area`, `share:NAME`, `equal:carry_m`, `typical:carry_m`.
std::string outcomeText(const Outcome& outcome);
std::optional<Outcome> outcomeFromText(const std::string& text);

/// Spreads and areas are compared by their ratio.
inline bool isRatio(const Outcome& outcome) {
    return outcome.kind == OutcomeKind::spread || outcome.kind == OutcomeKind::area;
}

/// What people call it: "carry", "side spread", "landing area", "share in NAME", "carry at equal
/// delivery", "typical carry".
std::string outcomeLabel(const Outcome& outcome);

/// The most outcomes that one test is judged by.
inline constexpr std::size_t mostOutcomes = 3;

/// What the player hopes for in an outcome.
struct Want {
    enum class Kind { none, more, less, near } kind = Kind::none;
    double value = 0; ///< the wanted value, internal units, for `near`
    /// How good a value is: larger is better. Without a direction what is more.
    double merit(double one) const {
        return kind == Kind::less ? -one : kind == Kind::near ? -std::fabs(one - value) : one;
    }
    bool operator==(const Want&) const = default;
};

/// A window that a metric should fall into, for one build or for all (`build` empty). `low` equal
/// to `high` is a wanted value; its window is the worthwhile gap to either side.
struct Target {
    Metric metric = Metric::carry;
    std::string build;
    double low = 0, high = 0; ///< internal units
    bool operator==(const Target&) const = default;
};

/// An area on the ground that shots should land in.
struct Shape {
    enum class Kind { fairway, ellipse, rectangle, beyondLeft, beyondRight } kind = Kind::fairway;
    std::string name;
    double side = 0, carry = 0;   ///< m, the centre; a fairway has only a side, what lies beyond a line only the line
    double width = 20, depth = 0; ///< m across and along; a fairway has no end
    bool isBeyond() const { return kind == Kind::beyondLeft || kind == Kind::beyondRight; }
    bool holds(double shotSide, double shotCarry) const;
    bool operator==(const Shape&) const = default;
};

/// Where to hit to: how far, and how far right of the target line. m
struct Aim {
    double carry = 0, side = 0;
    bool operator==(const Aim&) const = default;
};

/// Which shots may be set aside. The last two look at the numbers, so verdicts then come from every
/// read shot.
enum class SetAsideRule { keepAll, called, untilGood, byNumbers, bestAndWorst };

enum class Comparison { againstBaseline, whichOfThese };

/// The one thing that differs, or whole clubs knowingly, or a kind of the user's own.
enum class TestKind { own, shaft, head, loft, length, lie, grip, ball, delivery, wholeClubs };

/// Whether comparisons are looked at before the plan is done: never, or after each round from the
/// second. Only looks that may end the test cost α (judgement §9).
enum class Looks { none, eachRound };

/// What the player expects of a metric before the first shot.
enum class Expectation { noChange, up, down };

/// Something held constant between the builds, or that slipped, with what is known of the slip.
struct Held {
    std::string what;
    bool held = true;
    std::string slip;
    bool operator==(const Held&) const = default;
};

/// Who may know which tag is which build.
enum class Blinding { open, readingBlind, playerBlind, bothBlind };

/// Who sees a kind of number while the test runs.
enum class Sees { nobody, fitter, everyone };

/// The three kinds of numbers, apart from each other; only comparisons that may end the test cost α.
struct Visibility {
    Sees shots = Sees::everyone, averages = Sees::nobody, comparisons = Sees::nobody;
    bool operator==(const Visibility&) const = default;
};

/// The declaration of a test before its first shot (the test sheet).
struct Card {
    TestKind kind = TestKind::own;
    std::string clubKind; ///< what the clubs are, as somebody said it: "7-iron"; empty: as names and shots tell
    std::string factor;   ///< the thing under test in the user's words, for `own`
    Comparison comparison = Comparison::againstBaseline;
    std::string baseline; ///< a build's name; empty: the first build of the test
    std::vector<Outcome> primary;
    std::map<Outcome, Want> wants;    ///< where absent: less for spreads and areas, else none
    std::map<Metric, double> margins; ///< worthwhile gaps, internal units; where absent: the default
    double sdRatioMargin = 1.25;
    double areaRatioMargin = 1.5;
    double alpha = 0.05;
    Looks looks = Looks::none;
    int plannedRounds = 0; ///< 0: no plan; rounds beyond it have no error rate
    std::map<Metric, Expectation> expectations;
    std::vector<std::string> expectedOrder; ///< names of builds, the best expected first; some or all
    std::string expectedBy;                 ///< who expects this; empty: not said
    std::vector<Held> held;
    Blinding blinding = Blinding::open;
    bool alone = false; ///< no helper: tags are read after the stint
    Visibility visibility;
    std::string trendColumn;  ///< numeric extra column, or empty
    std::string factorColumn; ///< second factor, e.g. "delivery", or empty
    std::vector<Shape> shapes;
    SetAsideRule setAsideRule = SetAsideRule::called;
    bool replaceSetAside = true; ///< a set-aside shot is hit again
    int goodShots = 0;           ///< a stint's good shots under `untilGood`; 0: the plan's turn length
    std::vector<Target> targets;
    std::vector<Metric> covariates; ///< what is held equal, for the gap at equal strike or delivery
    std::optional<Aim> aim;         ///< misses are measured from it

    double margin(Metric metric) const;
    bool setsAsideByNumbers() const {
        return setAsideRule == SetAsideRule::byNumbers || setAsideRule == SetAsideRule::bestAndWorst;
    }
    Want want(const Outcome& outcome) const;
    bool operator==(const Card&) const = default;
};

} // namespace knot::record
