#pragma once

#include "core/judge/claim.h"
#include "core/record/text/names.h"

#include <array>
#include <string>

// What single shots tell.
namespace knot::judge {

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

template<class To> void tell(To& to, const Unread::Of& of) {
    to("unread", of.unread);
    to("n", of.n);
    to("struck", of.struck);
    to("off_middle", of.offMiddle);
}
template<class To> void tell(To& to, const Unread& of) {
    tellPair(to, of);
    to("of_build", of.ofBuild);
    to("of_against", of.ofAgainst);
    to("p", of.p);
}

/// What the player called the shots of a build before their numbers showed; they count all the same.
struct Called {
    BuildAt build;
    std::size_t good = 0, soSo = 0;
    Share bad; ///< of the shots that were called anything
};

template<class To> void tell(To& to, const Called& of) {
    to("build", of.build);
    to("good", of.good);
    to("so_so", of.soSo);
    to("bad", of.bad);
}

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

template<class To> void tell(To& to, const CalledGap& of) {
    tellPair(to, of);
    to("call", std::string(record::nameOf(record::callNames, of.call)));
    to("n_build", of.nBuild);
    to("n_against", of.nAgainst);
    to("gap", of.gap, ofMetric);
    to("ci95", of.ci95, ofMetric);
    to("past", of.past);
}

/// How far the caller's word goes with what was measured: Kendall's tau-b between bad, so-so, good and the
/// efficiency (smash), and the nearness of the strike to the face's middle.
struct CallAgreement {
    std::optional<double> withSmash, withStrike;
    std::size_t nSmash = 0, nStrike = 0;
};

template<class To> void tell(To& to, const CallAgreement& of) {
    to("smash_tau", of.withSmash);
    to("strike_tau", of.withStrike);
}

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
        double p = 1;                  ///< exact sign test against even sides, shots taken for independent
        std::optional<double> stintsP; ///< t on the stints' misses to the right less those to the left; two or more
    };
    std::optional<OneWay> oneWay;
    /// That either side has at least a quarter of the misses: the larger of both sides' p's, exact on shots and by t on
    /// stints; from twelve such misses and two stints.
    std::optional<double> bothWaysP;
    std::size_t left = 0, right = 0; ///< misses to either side
    std::optional<Share> flyers;     ///< spin far under the build's median while ball speed is not
    std::vector<record::ShotId> flyerShots;
};

template<class To> void tell(To& to, const Misses::OneWay& of) {
    to("side", std::string(record::nameOf(record::sideNames, of.side)));
    to("count", of.count);
    to("of", of.of);
    to("p", of.p);
    to("stints_p", of.stintsP);
}
template<class To> void tell(To& to, const Misses& of) {
    constexpr std::array sides = {"left", "on_line", "right"};
    constexpr std::array lengths = {"short", "on_length", "long"};
    to("build", of.build);
    to("n", of.n);
    to("aimed", of.aimed);
    to.object("table", [&](auto& table) {
        for (std::size_t side = 0; side < sides.size(); ++side)
            table.object(sides[side], [&](auto& row) {
                for (std::size_t length = 0; length < lengths.size(); ++length)
                    row(lengths[length], of.table[side][length]);
            });
    });
    to("one_way", of.oneWay);
    to("both_ways_p", of.bothWaysP);
    to("flyers", of.flyers);
}

/// The chance that a shot of `build` passes one of `against` (Mann and Whitney over all pairs; ties half).
struct Beats {
    Metric metric = Metric::carry;
    BuildAt build, against;
    double chance = 0.5;
    std::optional<Interval> ci95; ///< whole stints resampled
};

template<class To> void tell(To& to, const Beats& of) {
    tellPair(to, of);
    to("chance", of.chance);
    to("ci95", of.ci95);
}

/// What lies between the longest and the shortest of ten shots with a build, on average.
struct TenShots {
    Metric metric = Metric::carry;
    BuildAt build;
    double range = 0;
};

template<class To> void tell(To& to, const TenShots& of) {
    to("metric", of.metric);
    to("build", of.build);
    to("range", of.range, ofMetric);
}

/// How much a build loses per mm away from its own best strike point.
struct Forgiveness {
    Metric metric = Metric::ballSpeed;
    BuildAt build;
    double lossPerMm = 0, se = 0, df = 0;
    Interval ci95;
};

template<class To> void tell(To& to, const Forgiveness& of) {
    to("metric", of.metric);
    to("build", of.build);
    to("loss_per_mm", of.lossPerMm, ofMetric);
    to("se", of.se, ofMetric);
    to("df", of.df);
    to("ci95", of.ci95, ofMetric);
}

enum class AgainstTarget { inside, below, above, open };

inline const char* key(AgainstTarget verdict) {
    return std::array{"inside", "below", "above", "open"}[static_cast<std::size_t>(verdict)];
}

/// A build's mean and shots against a wanted value or window.
struct TargetResult {
    Metric metric = Metric::carry;
    BuildAt build;
    AgainstTarget verdict = AgainstTarget::open;
    Share share;
    bool oneStint = false; ///< nothing but what was seen
};

template<class To> void tell(To& to, const TargetResult& of) {
    to("metric", of.metric);
    to("build", of.build);
    to("verdict", of.verdict);
    to("share", of.share.share);
    to("share_ci95", of.share.ci95);
    if (of.oneStint)
        to("one_stint", true);
}

/// A shot that was set aside after its number was seen, or after the reveal.
struct LateSetAside {
    record::ShotId shot = record::ShotId::none;
    std::size_t number = 0; ///< of the shot in the record, from 1
    BuildAt build;
    record::SetAsideWhen when = record::SetAsideWhen::afterNumber;
};

template<class To> void tell(To& to, const LateSetAside& of) {
    to("shot", of.number);
    to("build", of.build);
    to("when", std::string(record::nameOf(record::setAsideWhenNames, of.when)));
}

} // namespace knot::judge
