#include "core/plan/ways.h"

#include "core/plan/looks.h"
#include "core/plan/power.h"
#include "core/random.h"
#include "core/statistics/distributions.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

namespace knot::plan {

namespace {

constexpr int longestStint = 12, mostLaps = 200;

Question questionOf(Way way, const WaysOf& ways) {
    Question question = ways.question;
    if (way == Way::equalDelivery) {
        question.sdShot = ways.equalShot;
        question.sdTurn = ways.equalTurn;
    } else if (way == Way::typicalShot) {
        question.sdShot *= std::sqrt(ways.typicalTimes);
        question.sdTurn *= std::sqrt(ways.typicalTimes);
    }
    return question;
}

int shortestTurn(Way way) {
    return way == Way::equalDelivery ? 2 : way == Way::typicalShot ? 3 : 1;
}

// Laps inside two days are judged together: twice as many, a day's own middle taken out of neither.
double chanceOf(Way way, const Question& question, int rounds, int turnLength) {
    const PairPlan pair = pairOf(question, rounds, turnLength);
    if (way == Way::twoSittings)
        return powerFor(pair.standardError() / std::sqrt(2.0), 2 * pair.df(), question.gap, question.alpha);
    return powerToSee(pair, question.gap, question.alpha);
}

int roundsIn(double minutes, const Question& question, const Pace& pace, int turnLength) {
    int low = 0;
    int high = mostLaps;
    while (high - low > 1) {
        const int middle = (low + high) / 2;
        (minutesFor(question, pace, middle, turnLength) <= minutes ? low : high) = middle;
    }
    return low;
}

std::optional<WayOption> runsByHand(const WaysOf& ways, double minutes) {
    const Question& q = ways.question;
    const double takes = minutesFor(q, ways.pace, 1, shotsByHand);
    if (takes > minutes)
        return std::nullopt;
    return WayOption{.way = Way::threeEach,
                     .rounds = 1,
                     .turnLength = shotsByHand,
                     .minutes = takes,
                     .chance = powerOfRuns(q, shotsByHand)};
}

// The level of the look after each lap from the second; information by laps.
const std::vector<double>& lookLevels(int rounds, double alpha) {
    static thread_local std::map<std::pair<int, double>, std::vector<double>> known;
    auto& levels = known[{rounds, alpha}];
    if (levels.empty()) {
        std::vector<double> information;
        for (int lap = 2; lap <= rounds; ++lap)
            information.push_back(static_cast<double>(lap) / rounds);
        for (const Look& look : lookBoundaries(information, alpha))
            levels.push_back(look.level);
    }
    return levels;
}

} // namespace

std::optional<WayOption> bestOfWay(Way way, const WaysOf& ways, double minutes) {
    if (way == Way::threeEach)
        return runsByHand(ways, minutes);
    const Question question = questionOf(way, ways);
    const int first = way == Way::asPlanned ? ways.turnLength : shortestTurn(way);
    const int last = way == Way::asPlanned ? ways.turnLength : longestStint;
    std::optional<WayOption> best;
    for (int length = first; length <= last; ++length) {
        const int rounds = roundsIn(minutes, question, ways.pace, length);
        if (rounds < 2)
            break;
        const double chance = chanceOf(way, question, rounds, length);
        if (!best || chance > best->chance + 1e-9)
            best = WayOption{.way = way,
                             .rounds = rounds,
                             .turnLength = length,
                             .days = way == Way::twoSittings ? 2 : 1,
                             .minutes = minutesFor(question, ways.pace, rounds, length),
                             .chance = chance};
    }
    if (best && way == Way::withLooks)
        best->chance = withLooks(question, best->rounds, best->turnLength, 1).chance;
    return best;
}

std::optional<WayOption> toSeeBy(Way way, const WaysOf& ways, double most) {
    const auto at = [&](double minutes) { return bestOfWay(way, ways, minutes); };
    const auto sees = [](const std::optional<WayOption>& option) { return option && option->chance >= wantedPower; };
    if (way == Way::threeEach || !sees(at(most)))
        return std::nullopt;
    double low = 0;
    double high = most;
    while (high - low > 0.5) {
        const double middle = (low + high) / 2;
        (sees(at(middle)) ? high : low) = middle;
    }
    return at(high);
}

Looked withLooks(const Question& question, int rounds, int turnLength, double times, int draws) {
    if (rounds < 2)
        return {};
    const auto& levels = lookLevels(rounds, question.alpha);
    std::vector<double> critical; // by laps done from the second
    for (std::size_t i = 0; i < levels.size(); ++i)
        critical.push_back(levels[i] > 0 ? statistics::studentQuantile(1 - levels[i] / 2, static_cast<double>(i) + 1)
                                         : std::numeric_limits<double>::infinity());
    const PairPlan lap = pairOf(question, 1, turnLength);
    const double sd = std::sqrt(2 * (lap.varTurn + lap.varShot / lap.turnLength));
    Random random(static_cast<std::uint64_t>(rounds) * 1000 + static_cast<std::uint64_t>(turnLength));
    Looked looked;
    for (int draw = 0; draw < draws; ++draw) {
        double sum = 0;
        double squares = 0;
        int done = 0;
        while (done < rounds) {
            const double d = times * question.gap + sd * random.normal();
            sum += d;
            squares += d * d;
            ++done;
            if (done < 2)
                continue;
            const double mean = sum / done;
            const double variance = (squares - done * mean * mean) / (done - 1);
            const double t = std::fabs(mean) / std::sqrt(std::max(variance, 1e-300) / done);
            if (t > critical[static_cast<std::size_t>(done - 2)]) {
                looked.chance += 1.0 / draws;
                break;
            }
        }
        looked.meanLaps += static_cast<double>(done) / draws;
    }
    return looked;
}

} // namespace knot::plan
