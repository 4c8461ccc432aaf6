// How often a bet comes true, by what it said; and what a best-looking club is worth.
#include "core/judge/bets/bet.h"
#include "core/judge/bets/choosing.h"
#include "core/judge/days/earlier.h"
#include "core/judge/days/usual.h"
#include "simulation/trial.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <array>
#include <cmath>

using namespace knot;
using namespace knot::test;
using record::Metric;

namespace {

/// Clubs whose true gaps are as the bet thinks, or closer or farther apart, or with other stints.
struct Truth {
    std::size_t builds = 2;
    int rounds = 1, turnLength = 5;
    double apart = 1;  ///< of clubs, against the prior's
    double stints = 1; ///< of what a stint adds, against the usual
};

const judge::BetPrior prior{.usual = plan::usualSpreads(Metric::carry, plan::Level::club),
                            .scale = record::info(Metric::carry).worthwhileGap};

std::vector<double> gapsOf(const Truth& truth, Random& random) {
    const double tau = truth.apart * prior.scale * std::fabs(random.studentT(4));
    std::vector<double> gaps;
    for (std::size_t b = 0; b < truth.builds; ++b)
        gaps.push_back(tau * random.normal());
    return gaps;
}

std::optional<judge::Bet> betOn(const Truth& truth, const std::vector<double>& gaps, Random& random) {
    const double shot = prior.usual.sdShot;
    Trial trial{.builds = truth.builds,
                .rounds = truth.rounds,
                .turnLength = truth.turnLength,
                .sdTurn = truth.stints * prior.usual.sdTurn / shot};
    for (const double gap : gaps)
        trial.gaps.push_back(gap / shot);
    record::Test test = trial.strike(random);
    for (record::Shot& made : test.shots)
        made.readings.measure(Metric::carry, 150 + shot * (*made.readings.at(Metric::carry) - 100));
    return judge::Bet::of(judge::columnOf(test, record::structureOf(test), Metric::carry, judge::Taken::counted),
                          prior);
}

constexpr std::array<double, 5> bins = {0.5, 0.7, 0.85, 0.95, 1.0000001};

// What was said and what came true, by how sure it was.
struct Calibration {
    std::array<Rate, 4> cameTrue;
    std::array<double, 4> said{}, count{};

    void add(double stated, bool isTrue) {
        for (std::size_t bin = 0; bin < 4; ++bin)
            if (stated >= bins[bin] && stated < bins[bin + 1]) {
                cameTrue[bin].count(isTrue);
                said[bin] += stated;
                ++count[bin];
            }
    }
    std::string row() const {
        std::string text;
        for (std::size_t bin = 0; bin < 4; ++bin) {
            char cell[48];
            std::snprintf(cell, sizeof cell, "%s%.0f → %.0f", bin == 0 ? "" : " / ",
                          count[bin] > 0 ? 100 * said[bin] / count[bin] : 0, 100 * cameTrue[bin].share());
            text += cell;
        }
        return text;
    }
};

Calibration calibrated(const Truth& truth, Random& random, int n) {
    Calibration result;
    for (int i = 0; i < n; ++i) {
        const auto gaps = gapsOf(truth, random);
        const auto bet = betOn(truth, gaps, random);
        const auto row = bet->pair(record::BuildAt(1), record::BuildAt(0), {record::Want::Kind::more, 0}, 1);
        const bool up = row.ahead >= 0.5;
        result.add(std::max(row.ahead, 1 - row.ahead), (gaps[1] > gaps[0]) == up);
    }
    return result;
}

} // namespace

TEST_CASE("a bet comes true about as often as it says where its prior is right") {
    Random random(20261128);
    printRow("bet: said → came true, times in 100, prior right");
    for (const Truth& truth : {Truth{.builds = 2}, Truth{.builds = 5}, Truth{.builds = 2, .rounds = 5, .turnLength = 3},
                               Truth{.builds = 5, .rounds = 5, .turnLength = 3}}) {
        const auto result = calibrated(truth, random, repetitions(1500));
        char text[160];
        std::snprintf(text, sizeof text, "%zu clubs, %d laps of %d | %s", truth.builds, truth.rounds, truth.turnLength,
                      result.row().c_str());
        printRow(text);
        for (std::size_t bin = 0; bin < 4; ++bin) {
            if (result.count[bin] < 50)
                continue;
            const double said = result.said[bin] / result.count[bin];
            CHECK(result.cameTrue[bin].isAtLeast(said));
            CHECK(result.cameTrue[bin].isAtMost(said));
        }
    }
}

TEST_CASE("a bet errs by no more than it says where clubs are closer or stints larger than thought") {
    Random random(20261129);
    printRow("bet: said → came true, times in 100, prior wrong");
    for (const Truth& truth : {Truth{.apart = 0.5}, Truth{.apart = 2}, Truth{.stints = 2}, Truth{.stints = 0.5}}) {
        const auto result = calibrated(truth, random, repetitions(1500));
        char text[160];
        std::snprintf(text, sizeof text, "2 clubs, one run of 5, clubs %.1f times as far apart, stints %.1f times | %s",
                      truth.apart, truth.stints, result.row().c_str());
        printRow(text);
        for (std::size_t bin = 0; bin < 4; ++bin)
            if (result.count[bin] >= 50)
                CHECK(result.cameTrue[bin].isAtLeast(result.said[bin] / result.count[bin] - 0.15));
    }
}

namespace {

/// Clubs that were hit in one run each, one after the other, by a player who warms up through them.
struct Runs {
    std::size_t builds = 2;
    int shots = 5;
    double likeness = 0;    ///< correlation of neighbouring shots
    double warm = 0;        ///< what the first swing lacks, in shot SDs
    bool asAssumed = false; ///< warming up drawn as the bet assumes it

    judge::Column strike(const std::vector<double>& gaps, Random& random) const {
        const double shot = prior.usual.sdShot;
        constexpr std::array sizes = {0.0, 0.5, 2.6}; // times half a shot SD
        const double lacks =
            asAssumed ? 0.5 * sizes[static_cast<std::size_t>(random.uniform() * 3)] * random.normal() : warm;
        judge::Column column{.metric = Metric::carry, .builds = {}};
        int swings = 0;
        for (std::size_t b = 0; b < builds; ++b) {
            judge::TurnValues run{.turn = record::TurnAt(b), .round = record::RoundAt(0), .place = b};
            run.swings = swings + (shots - 1) / 2.0;
            const double middle = 150 + gaps[b] + prior.usual.sdTurn * random.normal();
            double noise = random.normal();
            for (int i = 0; i < shots; ++i, ++swings) {
                run.values.push_back(middle + shot * (noise - lacks * std::exp(-swings / 8.0)));
                noise = likeness * noise + std::sqrt(1 - likeness * likeness) * random.normal();
            }
            column.builds.push_back({.turns = {std::move(run)}});
        }
        return column;
    }
};

} // namespace

TEST_CASE("a bet on single runs holds where the player warms up through them and neighbours are alike") {
    Random random(20261202);
    printRow("bet on one run each: said → came true, times in 100 | what was said of 85 and more");
    const judge::BetPrior runs{.usual = prior.usual, .scale = prior.scale, .warmUp = judge::warmUpOf(prior.usual)};
    for (const Runs& truth :
         {Runs{.likeness = 0.1, .asAssumed = true}, Runs{.builds = 5, .likeness = 0.1, .asAssumed = true}, Runs{},
          Runs{.builds = 5}, Runs{.warm = 1}, Runs{.warm = 2}, Runs{.builds = 5, .warm = 2}, Runs{.likeness = 0.5},
          Runs{.builds = 5, .likeness = 0.5}, Runs{.shots = 8, .likeness = 0.5, .warm = 1}}) {
        Calibration result;
        Rate of85;
        double said85 = 0;
        std::size_t n85 = 0;
        for (int i = 0; i < repetitions(1500); ++i) {
            const auto gaps = gapsOf({.builds = truth.builds}, random);
            const auto bet = judge::Bet::of(truth.strike(gaps, random), runs);
            for (std::size_t b = 1; b < truth.builds; ++b) {
                const double ahead = bet->glance(record::BuildAt(b), record::BuildAt(0), {}, 1).ahead;
                const double said = std::max(ahead, 1 - ahead);
                const bool isTrue = (gaps[b] > gaps[0]) == (ahead >= 0.5);
                result.add(said, isTrue);
                if (said >= 0.8 && said < 0.9) {
                    of85.count(isTrue);
                    said85 += said;
                    ++n85;
                }
            }
        }
        char text[200];
        std::snprintf(text, sizeof text, "%zu clubs of %d, likeness %.1f, warm-up %s | %s | %.0f → %s", truth.builds,
                      truth.shots, truth.likeness,
                      truth.asAssumed ? "as assumed" : std::to_string(static_cast<int>(truth.warm)).c_str(),
                      result.row().c_str(), 100 * said85 / static_cast<double>(std::max<std::size_t>(n85, 1)),
                      of85.percent().c_str());
        printRow(text);
        CHECK(of85.isAtLeast(truth.asAssumed ? 0.80 : 0.78));
        if (truth.asAssumed) // with nothing of either it is more modest
            CHECK(of85.isAtMost(0.88));
    }
}

TEST_CASE("a bet against a club that was not hit comes true about as often as it says") {
    Random random(20261201);
    printRow("bet against what is usual: said → came true, times in 100");
    for (const std::size_t sittings : {0, 1, 3, 8}) {
        Calibration result;
        for (int i = 0; i < repetitions(3000); ++i) {
            const auto gaps = gapsOf({.builds = 2}, random);
            const double day = prior.usual.sdTurn; // days vary as stints do
            std::vector<double> earlier;
            for (std::size_t s = 0; s < std::max<std::size_t>(sittings, 1); ++s)
                earlier.push_back(150 + gaps[0] + day * random.normal());
            const judge::UsualBasis basis{.club = "own",
                                          .metric = Metric::carry,
                                          .mean = statistics::meanOf(earlier),
                                          .sd = sittings < 2 ? std::nullopt
                                                             : std::optional(statistics::standardDeviation(earlier)),
                                          .sittings = sittings};
            judge::Column column{.metric = Metric::carry, .builds = {{}, {}}};
            const double today = day * random.normal();
            for (std::size_t lap = 0; lap < 3; ++lap) {
                judge::TurnValues stint{.turn = record::TurnAt(lap), .round = record::RoundAt(lap)};
                const double middle = 150 + gaps[1] + today + prior.usual.sdTurn * random.normal();
                for (int shot = 0; shot < 4; ++shot)
                    stint.values.push_back(middle + prior.usual.sdShot * random.normal());
                column.builds[record::BuildAt(1)].turns.push_back(std::move(stint));
            }
            const auto row = judge::betAgainstUsual(basis, column, record::BuildAt(1), record::BuildAt(0), prior,
                                                    {record::Want::Kind::more, 0}, 1);
            result.add(std::max(row->ahead, 1 - row->ahead), (gaps[1] > gaps[0]) == (row->ahead >= 0.5));
        }
        char text[160];
        std::snprintf(text, sizeof text, "%zu earlier sittings (0: typed) | %s", sittings, result.row().c_str());
        printRow(text);
        for (std::size_t bin = 0; bin < 4; ++bin)
            if (result.count[bin] >= 50) {
                const double said = result.said[bin] / result.count[bin];
                CHECK(result.cameTrue[bin].isAtLeast(said - 0.03));
                CHECK(result.cameTrue[bin].isAtMost(std::min(said + 0.05, 1.0)));
            }
    }
}

TEST_CASE("the best-looking of four is expected to be worth what it is") {
    Random random(20261130);
    const Truth truth{.builds = 4};
    double looked = 0;
    double expected = 0;
    double true_ = 0;
    const int n = repetitions(1500);
    for (int i = 0; i < n; ++i) {
        const auto gaps = gapsOf(truth, random);
        const auto bet = betOn(truth, gaps, random);
        const auto best = bet->best({record::Want::Kind::more, 0}, 1, 400);
        std::size_t top = 0;
        for (std::size_t b = 1; b < best.size(); ++b)
            top = best[b].chance > best[top].chance ? b : top;
        double others = 0;
        double truths = 0;
        for (std::size_t b = 0; b < best.size(); ++b)
            if (b != top) {
                others += bet->pair(record::BuildAt(top), record::BuildAt(b), {}, 1).expected / 3;
                truths += (gaps[top] - gaps[b]) / 3;
            }
        expected += others / n;
        true_ += truths / n;
        looked += others > 0 ? 1.0 / n : 0;
    }
    char text[96];
    std::snprintf(text, sizeof text, "best-looking of four, one run of 5 | expected %+.1f m | true %+.1f m", expected,
                  true_);
    printRow(text);
    CHECK(std::fabs(expected - true_) < 0.6);
    CHECK(looked > 0.9);
}

TEST_CASE("of clubs wanted near a value the nearest is left out of the best set at most as often as said") {
    Random random(20261201);
    printRow("best set near a value | nearest left out (≤ 5) | clubs in the set");
    for (const double wanted : {100.0, 100.5, 101.5}) {
        Rate missed;
        double size = 0;
        const int n = repetitions(800);
        for (int i = 0; i < n; ++i) {
            Trial trial{.builds = 3, .rounds = 6, .turnLength = 3, .sdRound = 0.3};
            trial.gaps = {0, 0.5, 1.5};
            const auto test = trial.strike(random);
            const auto column = judge::columnOf(test, record::structureOf(test), Metric::carry, judge::Taken::counted);
            const auto set = judge::bestSet(column, {record::Want::Kind::near, wanted}, 0.05);
            const std::size_t nearest = wanted < 100.25 ? 0 : wanted < 101 ? 1 : 2;
            missed.count(std::ranges::find(set, nearest, [](record::BuildAt b) { return std::size_t{b}; }) ==
                         set.end());
            size += static_cast<double>(set.size()) / n;
        }
        char text[96];
        std::snprintf(text, sizeof text, "%.1f wanted of 100, 100.5 and 101.5 | %s | %.1f of 3", wanted,
                      missed.percent().c_str(), size);
        printRow(text);
        CHECK(missed.isAtMost(0.05));
    }
}
