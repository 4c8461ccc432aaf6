// How often a reading of equal clubs says outside the ledger that they differ.
#include "core/judge/judge.h"
#include "core/words/remarks/remarks.h"
#include "core/words/remarks/shot_remarks.h"
#include "core/words/remarks/swing_remarks.h"
#include "simulation/trial.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

using namespace knot;
using namespace knot::test;
using record::Metric;

namespace {

/// Clubs that are one: a player who drifts, mishits and is not always read.
struct Equal {
    std::size_t clubs = 2;
    int laps = 5, stint = 4;
    double mishits = 0.08, unread = 0.04;
    double drift = 1.5; ///< of club speed over the whole test, in its own SDs

    record::Test strike(Random& random) const {
        record::Test test;
        for (std::size_t b = 0; b < clubs; ++b)
            test.builds.push_back({.name = std::string(1, static_cast<char>('A' + b))});
        test.card.primary = {{.metric = Metric::carry}};
        test.card.wants[{.metric = Metric::carry}] = {record::Want::Kind::more, 0};
        test.card.covariates = {Metric::strikeHigh};
        test.card.comparison = record::Comparison::whichOfThese;
        const double swings = static_cast<double>(clubs) * laps * stint;
        double done = 0;
        for (int lap = 0; lap < laps; ++lap) {
            std::vector<std::size_t> order(clubs);
            for (std::size_t i = 0; i < clubs; ++i)
                order[i] = i;
            for (std::size_t i = clubs; i > 1; --i)
                std::swap(order[i - 1], order[static_cast<std::size_t>(random.uniform() * static_cast<double>(i))]);
            const double ofLap = 0.2 * random.normal();
            for (const std::size_t club : order) {
                const double stintSpeed = ofLap + 0.25 * random.normal();
                const double stintDirection = 0.6 * random.normal();
                for (int i = 0; i < stint; ++i)
                    test.shots.push_back(
                        shot(club, lap, i == 0, stintSpeed + 0.7 * drift * (done++ / swings), stintDirection, random));
            }
        }
        return test;
    }

    record::Shot shot(std::size_t club, int lap, bool isFirst, double faster, double turned, Random& random) const {
        record::Shot shot{.build = record::BuildAt(club), .handedOver = isFirst, .round = std::to_string(lap)};
        const bool isMishit = random.uniform() < mishits;
        const double toe = 6.5 * random.normal() + (isMishit ? 12 : 0);
        const double high = 5 * random.normal() - (isMishit ? 10 : 0);
        const double speed = 41 + faster + 0.7 * random.normal();
        const double ball = speed * (1.47 - 0.0003 * (toe * toe + high * high) + 0.008 * random.normal());
        const double launch = 13 + 0.12 * high + 1.3 * random.normal();
        const double spin = 2600 - 40 * high + 220 * random.normal();
        const double direction = turned + 1.5 * random.normal();
        const double axis = -0.5 * toe + 3 * random.normal();
        const auto put = [&](Metric metric, double value) {
            if (random.uniform() >= unread)
                shot.readings.measure(metric, value);
        };
        put(Metric::clubSpeed, speed);
        put(Metric::attack, 1.5 * random.normal());
        put(Metric::ballSpeed, ball);
        put(Metric::launch, launch);
        put(Metric::spin, spin);
        put(Metric::launchDirection, direction);
        put(Metric::spinAxis, axis);
        put(Metric::strikeToe, toe);
        put(Metric::strikeHigh, high);
        put(Metric::carry, 200 + 4.4 * (ball - 59.5) + 1.2 * (launch - 13) - 0.008 * (spin - 2600) + random.normal());
        put(Metric::side, 3.4 * direction + 1.1 * axis + random.normal());
        return shot;
    }
};

// What says that something differs between clubs, or of one of them that it isn't even, where it stands at all.
bool namesADifference(const words::Remark& remark) {
    static const std::set<std::string> codes = {"getting_used", "inside_stints", "forgiveness",   "one_way",
                                                "centre",       "worst_fifth",   "longest_fifth", "feel_gap",
                                                "feel_rank",    "swing_differs"};
    if (remark.code == "best_set")
        return remark.text.starts_with("Best in");
    if (remark.code == "two_factors")
        return remark.text.starts_with("The gap");
    return codes.contains(remark.code);
}

} // namespace

TEST_CASE("a reading of equal clubs seldom says outside the ledger that they differ") {
    Random random(20261203);
    printRow("equal clubs, outside the ledger | readings with such a sentence | which");
    for (const auto& [clubs, most] : {std::pair(std::size_t{2}, 0.06), std::pair(std::size_t{3}, 0.08)}) {
        Rate any;
        std::map<std::string, int> which;
        for (int i = 0; i < repetitions(40); ++i) {
            const auto test =
                Equal{.clubs = clubs, .laps = i % 2 == 0 ? 5 : 6, .stint = i % 3 == 0 ? 3 : 5}.strike(random);
            const auto reading = judge::judge({.subject = judge::Case::of(test)});
            std::vector<words::Remark> said = words::remarks(*reading, {});
            for (const auto& more : {words::shotRemarks(*reading, {}), words::sameSwing(*reading, {})})
                said.insert(said.end(), more.begin(), more.end());
            std::set<std::string> codes;
            for (const words::Remark& remark : said)
                if (namesADifference(remark))
                    codes.insert(remark.code);
            any.count(!codes.empty());
            for (const std::string& code : codes)
                ++which[code];
        }
        std::string text;
        for (const auto& [code, count] : which)
            text += (text.empty() ? "" : ", ") + code + " " + std::to_string(count);
        printRow(std::to_string(clubs) + " clubs | " + any.percent() + " | " + text);
        CHECK(any.isAtMost(most));
    }
}
