#pragma once

#include "core/judge/claim.h"

#include <array>
#include <string>

namespace knot::judge {

/// Where a gap in what the ball did comes from, by the models of flight: what each input adds when it goes from
/// one build's mean to the other's (judgement §17). The parts and the rest make the measured gap exactly.
struct PartsOfGap {
    Metric metric = Metric::carry;
    BuildAt build, against;
    struct Part {
        std::string input; ///< club_speed, efficiency, ball_speed, launch, spin or direction
        double value = 0;
        std::optional<Interval> ci95; ///< by resampling laps, from five on
    };
    std::vector<Part> parts;
    double rest = 0, measured = 0, modelled = 0;
    std::optional<Interval> restInterval;
    /// What the difference of the heads' static lofts alone would do, by the impact model.
    struct OfLoft {
        double loft = 0; ///< degrees, build − against
        double launch = 0, spin = 0, ballSpeed = 0, value = 0;
    };
    std::optional<OfLoft> ofLoft;
    /// What else of the clubs could make the gap by itself, build − against. The heads' masses have a size by the
    /// impact model, at the same club speed; there swing weight and the whole club's mass do nothing.
    struct OfMass {
        std::optional<double> head;               ///< g, with lead
        std::optional<double> ballSpeed, value;   ///< what that alone would do
        std::optional<double> swingWeight, whole; ///< points, g
    };
    std::optional<OfMass> ofMass;
};

/// How many shots of two builds have no reading of a metric that others have, and how likely such shares are
/// where none is unread more often (Fisher's exact test).
struct Unread {
    Metric metric = Metric::carry;
    BuildAt build, against;
    struct Of {
        std::size_t unread = 0, n = 0;
        std::size_t struck = 0;    ///< of the unread, those whose strike was read
        std::size_t offMiddle = 0; ///< of those, farther from the face's middle than half of all shots
    } ofBuild, ofAgainst;
    double p = 1;
};

/// What the player called the shots of a build before their numbers showed; they count all the same.
struct Called {
    BuildAt build;
    std::size_t good = 0, soSo = 0;
    Share bad; ///< of the shots that were called anything
};

/// The gap between two builds among shots called alike; exploratory.
struct CalledGap {
    Metric metric = Metric::carry;
    BuildAt build, against;
    record::Call call = record::Call::bad;
    std::size_t nBuild = 0, nAgainst = 0;
    double gap = 0;
    std::optional<Interval> ci95; ///< whole stints resampled
    std::size_t past = 0;         ///< shots of `build` above the average of all of `against`
};

/// How far the caller's word goes with what was measured: Kendall's tau-b between bad, so-so, good and the
/// efficiency (smash), and the nearness of the strike to the face's middle.
struct CallAgreement {
    std::optional<double> withSmash, withStrike;
    std::size_t nSmash = 0, nStrike = 0;
};

/// Where a build's shots missed. On line and on length are within the metric's worthwhile gap of the aim; where
/// none is named, of the target line and of the build's own middle carry.
struct Misses {
    BuildAt build;
    std::size_t n = 0;
    bool aimed = false;
    /// By side (left, on line, right) and length (short, on length, long).
    std::array<std::array<std::size_t, 3>, 3> table{};
    struct OneWay {
        record::Side side = record::Side::notSaid;
        std::size_t count = 0, of = 0; ///< of those that missed to either side
        double p = 1;                  ///< exact sign test against even sides
    };
    std::optional<OneWay> oneWay;
    std::optional<Share> flyers; ///< spin far under the build's median while ball speed is not
    std::vector<record::ShotId> flyerShots;
};

/// The chance that a shot of `build` passes one of `against` (Mann and Whitney over all pairs; ties half).
struct Beats {
    Metric metric = Metric::carry;
    BuildAt build, against;
    double chance = 0.5;
    std::optional<Interval> ci95; ///< whole stints resampled
};

/// What lies between the longest and the shortest of ten shots with a build, on average.
struct TenShots {
    Metric metric = Metric::carry;
    BuildAt build;
    double range = 0;
};

/// Whether a feel says the same of the same club again: the intraclass correlation over clubs.
struct FeelLikeness {
    record::FeelScale scale = record::FeelScale::liveliness;
    std::size_t stints = 0;
    double icc = 0;
};

/// The gap between two builds in what was felt, by the method of averages.
struct FeelGap {
    record::FeelScale scale = record::FeelScale::liveliness;
    BuildAt build, against;
    std::size_t stints = 0; ///< of both together
    double gap = 0;
    std::optional<Interval> ci95;
    std::optional<double> p;
};

/// Spearman's rank correlation of a feel with a declared number, over stints.
struct FeelRank {
    record::FeelScale scale = record::FeelScale::liveliness;
    Metric metric = Metric::carry;
    std::size_t stints = 0;
    double rho = 0;
};

/// How often the player called a build better or worse than another one hit just before or after it.
struct VersusCount {
    BuildAt build, against;
    std::size_t better = 0, worse = 0, same = 0;
    double p = 1; ///< exact sign test of better against worse
};

/// What became of what was expected of a metric.
struct Expected {
    Metric metric = Metric::carry;
    BuildAt build, against;
    record::Expectation said = record::Expectation::noChange;
    enum class Found { asExpected, otherWay, nothingThatMatters, notSettled } found = Found::notSettled;
};

/// What became of the order that the builds were expected in, by the first declared outcome that has one: each pair's
/// verdict beside what was said.
struct ExpectedOrder {
    record::Outcome outcome;
    std::vector<BuildAt> said; ///< the best first
    std::size_t asExpected = 0, otherWay = 0, nothingThatMatters = 0, notSettled = 0;
};

/// The baseline's first stint against what is usual for the player with that club.
struct UsualNumber {
    Metric metric = Metric::carry;
    BuildAt build;
    double usual = 0, first = 0;
    Interval prediction; ///< where a new sitting's first stint should lie, 95 %
    bool outside() const { return !prediction.contains(first); }
};

/// A build against one that was not hit in this test, by what is usual of it (judgement §20): a historical control,
/// so a bet and never a verdict.
struct UsualBet {
    Metric metric = Metric::carry;
    BuildAt build, against; ///< `against` was not hit
    double usual = 0;
    std::size_t sittings = 0; ///< that the usual number rests on; 0: typed
    double ahead = 0.5;       ///< the chance that the gap favours `build`, as in a bet
    double expected = 0, sd = 0, low80 = 0, high80 = 0;
};

const char* key(Expected::Found found);

} // namespace knot::judge
