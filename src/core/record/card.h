#pragma once

#include "core/record/metric.h"

#include <compare>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace knot::record {

enum class OutcomeKind { average, spread, area, share };

/// Something a test can be about: the average of a metric, its spread, the landing area, or the
/// share of shots inside a named shape.
struct Outcome {
    OutcomeKind kind = OutcomeKind::average;
    Metric metric = Metric::carry; ///< for average and spread
    std::string shape;             ///< for share

    auto operator<=>(const Outcome&) const = default;
};

/// The written form: `carry_m`, `spread:side_m`, `area`, `share:NAME`.
std::string outcomeText(const Outcome& outcome);
std::optional<Outcome> outcomeFromText(const std::string& text);

/// What the player hopes for in an outcome.
struct Want {
    enum class Kind { none, more, less, near } kind = Kind::none;
    double value = 0; ///< the wanted value, internal units, for `near`
    bool operator==(const Want&) const = default;
};

/// A window that a metric should fall into, for one build or for all (`build` empty).
struct Target {
    Metric metric = Metric::carry;
    std::string build;
    double low = 0, high = 0; ///< internal units
    bool operator==(const Target&) const = default;
};

/// An area on the ground that shots should land in.
struct Shape {
    enum class Kind { fairway, ellipse, rectangle } kind = Kind::fairway;
    std::string name;
    double side = 0, carry = 0;   ///< m, the centre; a fairway has only a side
    double width = 20, depth = 0; ///< m across and along; a fairway has no end
    bool holds(double shotSide, double shotCarry) const;
    bool operator==(const Shape&) const = default;
};

/// Which shots may be set aside. The last two look at the numbers, so verdicts then come from every
/// read shot.
enum class SetAsideRule { keepAll, called, untilGood, byNumbers, bestAndWorst };

enum class Comparison { againstBaseline, whichOfThese };

/// The declaration of a test before its first shot (the test sheet).
struct Card {
    Comparison comparison = Comparison::againstBaseline;
    std::string baseline; ///< a build's name; empty: the first build of the test
    std::vector<Outcome> primary;
    std::map<Outcome, Want> wants;    ///< where absent: less for spreads and areas, else none
    std::map<Metric, double> margins; ///< worthwhile gaps, internal units; where absent: the default
    double sdRatioMargin = 1.25;
    double areaRatioMargin = 1.5;
    double alpha = 0.05;
    std::string trendColumn;  ///< numeric extra column, or empty
    std::string factorColumn; ///< second factor, e.g. "delivery", or empty
    std::vector<Shape> shapes;
    SetAsideRule setAsideRule = SetAsideRule::called;
    std::vector<Target> targets;
    std::vector<Metric> covariates; ///< for the gap at equal strike

    double margin(Metric metric) const;
    bool setsAsideByNumbers() const {
        return setAsideRule == SetAsideRule::byNumbers || setAsideRule == SetAsideRule::bestAndWorst;
    }
    Want want(const Outcome& outcome) const;
    bool operator==(const Card&) const = default;
};

} // namespace knot::record
