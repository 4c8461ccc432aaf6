#pragma once

#include "core/judge/claim.h"

#include <array>
#include <string>

// How to choose, where nothing is settled.
namespace knot::judge {

/// Builds that no other beats, and the chances of being best (judgement §5, choosing).
struct BestOf {
    Outcome outcome;
    std::vector<BuildAt> set; ///< builds that may be best
    struct Choice {
        BuildAt build;
        double chanceBest = 0, meanLoss = 0;
    };
    /// A loss is in the outcome's own unit; for a spread or an area it is how much larger, as a share.
    std::vector<Choice> choosing;
    /// Mean loss of the choice that would be made now, and after further laps (simulated).
    double lossNow = 0, lossAfter = 0;
    int furtherLaps = 5;
};

template<class To> void tell(To& to, const BestOf::Choice& of) {
    to("build", of.build);
    to("chance_best", of.chanceBest);
    to("mean_loss", of.meanLoss, "the outcome's");
}

/// How often each build comes first by the card's priorities in their order: builds within the
/// worthwhile gap of the best stay in for the next one (judgement §5, choosing).
struct PriorityChoice {
    BuildAt build;
    double chanceBest = 0;
};

template<class To> void tell(To& to, const PriorityChoice& of) {
    to("build", of.build);
    to("chance_best", of.chanceBest);
}

/// What to expect of the gap between two builds, allowing for what a stint adds and for the best of several
/// always looking better than it is (judgement §14). Metric units.
struct BetOnPair {
    Metric metric = Metric::carry;
    BuildAt build, against;
    double ahead = 0.5; ///< the chance that the gap favours `build`; without a wanted direction that it is above 0
    double expected = 0, sd = 0;
    double low80 = 0, high80 = 0;
    /// The same where clubs differ, and stints move the player, half and twice as much as was assumed.
    struct Otherwise {
        double ahead = 0.5, expected = 0;
    } halved, doubled;
};

template<class To> void tell(To& to, const BetOnPair::Otherwise& of) {
    to("ahead", of.ahead);
    to("expected", of.expected, ofMetric);
}
template<class To> void tell(To& to, const BetOnPair& of) {
    tellPair(to, of);
    to("ahead", of.ahead);
    to("expected", of.expected, ofMetric);
    to("sd", of.sd, ofMetric);
    to("low80", of.low80, ofMetric);
    to("high80", of.high80, ofMetric);
    to("halved", of.halved);
    to("doubled", of.doubled);
}

/// A club that was gone back to, its last go against its first; or what was struck after a change against what was
/// struck before it; and how far goes of one club usually lie apart.
struct Again {
    Metric metric = Metric::carry;
    BuildAt build, before; ///< two of them where the club was changed
    std::size_t goes = 2;
    double gap = 0;     ///< last less first, or after less before
    double usually = 0; ///< 95 % of such gaps are no larger, by what stints and their shots usually add
    enum class After { left, playerChanged, clubChanged, otherDay } after = After::left;
    std::string words; ///< what was noted of the change
};

inline const char* key(Again::After after) {
    return std::array{"left", "player_changed", "club_changed", "other_day"}[static_cast<std::size_t>(after)];
}

template<class To> void tell(To& to, const Again& of) {
    to("metric", of.metric);
    to("build", of.build);
    to("goes", of.goes);
    to("gap", of.gap, ofMetric);
    to("usually", of.usually, ofMetric);
    if (of.after != Again::After::left)
        to("after", of.after);
    if (of.before != of.build)
        to("before", of.before);
    if (!of.words.empty())
        to("words", of.words);
}

/// How often a build is the best of all in a metric, and what choosing it loses on average.
struct BestBet {
    Metric metric = Metric::carry;
    BuildAt build;
    double chance = 0, loss = 0;
};

template<class To> void tell(To& to, const BestBet& of) {
    to("metric", of.metric);
    to("build", of.build);
    to("chance", of.chance);
    to("loss", of.loss, ofMetric);
}

/// What choosing the likeliest best of a metric leaves lying on average, and what would be left after more laps of such
/// stints, by the bet.
struct FurtherBet {
    Metric metric = Metric::carry;
    std::size_t laps = 5;
    double now = 0, after = 0;
};

template<class To> void tell(To& to, const FurtherBet& of) {
    to("metric", of.metric);
    to("laps", of.laps);
    to("left_now", of.now, ofMetric);
    to("left_after", of.after, ofMetric);
}

} // namespace knot::judge
