#include "core/bag/bag.h"

#include "core/judge/case.h"
#include "core/judge/columns.h"
#include "core/judge/may_see.h"
#include "core/judge/resample.h"
#include "core/plan/spreads.h"
#include "core/rack/club_kind.h"
#include "core/record/structure.h"
#include "core/record/text/text.h"
#include "core/statistics/distributions.h"
#include "core/statistics/moments.h"
#include "core/statistics/ranks.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numeric>

namespace knot::bag {
namespace {

using record::Metric;

// Sums of what was read of a club.
struct Sums {
    std::map<Metric, std::pair<double, double>> of; ///< sum and count
    void add(const record::Shot& shot) {
        for (const Metric metric : {Metric::ballSpeed, Metric::launch, Metric::spin})
            if (const auto value = shot.readings.at(metric)) {
                of[metric].first += *value;
                of[metric].second += 1;
            }
    }
    std::optional<double> mean(Metric metric) const {
        const auto at = of.find(metric);
        return at == of.end() ? std::nullopt : std::optional(at->second.first / at->second.second);
    }
};

class Gathering {
public:
    explicit Gathering(std::string player)
        : m_player(std::move(player)) {}

    void add(const record::Test& test) {
        if (judge::withheld(test))
            return;
        const judge::Case subject = judge::Case::of(test);
        const record::Test& seen = subject.seen();
        const record::Structure structure = record::structureOf(seen);
        std::map<std::size_t, std::size_t> sittings; // of this test, as they are met
        const bool all = isOfBag(test);
        for (record::BuildAt build; build < seen.builds.size(); ++build) {
            if (!all &&
                !(test.decision.what != record::Action::none && seen.builds[build].isCalled(test.decision.club)))
                continue;
            addClub(seen, structure, build, sittings);
        }
        m_sittings += sittings.size();
    }

    Bag bag() {
        Bag bag;
        for (auto& [key, club] : m_clubs) {
            const Sums& sums = m_sums[key];
            double sum = 0;
            for (const InSitting& one : club.sittings)
                sum += one.mean();
            club.carry = sum / static_cast<double>(club.sittings.size());
            const auto ball = sums.mean(Metric::ballSpeed);
            const auto launch = sums.mean(Metric::launch);
            const auto spin = sums.mean(Metric::spin);
            if (ball && launch && spin)
                club.launch = flight::Launch{.ballSpeed = *ball, .launch = *launch, .spin = *spin};
            bag.clubs.push_back(std::move(club));
        }
        std::ranges::stable_sort(bag.clubs, std::greater{}, &Club::carry);
        bag.sittings = m_sittings;
        return bag;
    }

private:
    // Its stints with the delivery that this player hit it with most often.
    void addClub(const record::Test& seen, const record::Structure& structure, record::BuildAt build,
                 std::map<std::size_t, std::size_t>& sittings) {
        std::map<std::size_t, std::vector<std::vector<record::ShotAt>>> byDelivery;
        std::map<std::size_t, std::size_t> often;
        for (const record::Turn& turn : structure.turns) {
            if (turn.build != build || (!m_player.empty() && structure.players[turn.player] != m_player))
                continue;
            std::vector<record::ShotAt> taken;
            for (const record::ShotAt at : turn.shots)
                if (judge::isTaken(seen.shots[at], judge::Taken::counted) && seen.shots[at].readings.at(Metric::carry))
                    taken.push_back(at);
            often[turn.delivery] += taken.size();
            if (!taken.empty())
                byDelivery[turn.delivery].push_back(std::move(taken));
        }
        if (byDelivery.empty())
            return;
        const auto delivery = std::ranges::max_element(often, {}, [](const auto& each) { return each.second; })->first;
        const std::string key = record::lowerCase(seen.builds[build].name);
        Club& club = m_clubs[key];
        club.name = club.name.empty() ? seen.builds[build].name : club.name;
        for (const auto& stint : byDelivery[delivery]) {
            const std::size_t sitting = sittings
                                            .try_emplace(structure.turns[structure.turnOfShot[stint.front()]].sitting,
                                                         m_sittings + sittings.size())
                                            .first->second;
            if (club.sittings.empty() || club.sittings.back().sitting != sitting)
                club.sittings.push_back({.sitting = sitting, .stints = {}});
            auto& values = club.sittings.back().stints.emplace_back();
            for (const record::ShotAt at : stint) {
                values.push_back(*seen.shots[at].readings.at(Metric::carry));
                m_sums[key].add(seen.shots[at]);
            }
        }
    }

    std::string m_player;
    std::size_t m_sittings = 0;
    std::map<std::string, Club> m_clubs;
    std::map<std::string, Sums> m_sums;
};

// One sitting that holds both.
struct Difference {
    double gap = 0, stints = 0; ///< the stints harmonically, where the clubs' differ
    const InSitting* longer = nullptr;
    const InSitting* shorter = nullptr;
};

std::vector<Difference> differences(const Club& longer, const Club& shorter) {
    std::vector<Difference> all;
    for (const InSitting& one : longer.sittings)
        for (const InSitting& other : shorter.sittings)
            if (one.sitting == other.sitting) {
                const auto a = static_cast<double>(one.stints.size());
                const auto b = static_cast<double>(other.stints.size());
                all.push_back({one.mean() - other.mean(), 2 / (1 / a + 1 / b), &one, &other});
            }
    return all;
}

// The weighted mean of sittings, and their squares about it.
struct Pooled {
    double mean = 0, weights = 0, squares = 0, df = 0;
    double error(double variance) const { return std::sqrt(variance / weights); }
    /// Of a gap in a sitting of one stint each.
    double variance() const { return squares / df; }
};

Pooled pooled(const std::vector<Difference>& sittings) {
    Pooled result;
    for (const Difference& one : sittings) {
        result.weights += one.stints;
        result.mean += one.stints * one.gap;
    }
    result.mean /= result.weights;
    for (const Difference& one : sittings)
        result.squares += one.stints * (one.gap - result.mean) * (one.gap - result.mean);
    result.df = static_cast<double>(sittings.size()) - 1;
    return result;
}

// How shots stray inside the stints of the bag; with few of them as is usual.
double shotVariance(const Bag& bag) {
    constexpr double enough = 20;
    double squares = 0;
    double df = 0;
    for (const Club& club : bag.clubs)
        for (const InSitting& sitting : club.sittings)
            for (const auto& stint : sitting.stints) {
                const double middle = statistics::meanOf(stint);
                for (const double carry : stint)
                    squares += (carry - middle) * (carry - middle);
                df += static_cast<double>(stint.size()) - 1;
            }
    const double usual = plan::usualSpreads(Metric::carry, plan::Level::club).sdShot;
    return df >= enough ? squares / df : usual * usual;
}

// Of the difference of two means in one sitting, by the stints that are usual.
double usualError(const Difference& one, double ofShots) {
    const double ofStint = plan::usualSpreads(Metric::carry, plan::Level::club).sdTurn;
    double variance = 0;
    for (const InSitting* club : {one.longer, one.shorter})
        variance +=
            ofStint * ofStint / static_cast<double>(club->stints.size()) + ofShots / static_cast<double>(club->shots());
    return std::sqrt(variance);
}

judge::Interval about(double middle, double reach) {
    return {middle - reach, middle + reach, 0.95};
}

/// A gap with what its decision needs.
struct Weighed {
    Gap gap;
    std::optional<Pooled> pooled;
    double error = 0; ///< 0: none is known
    double df = std::numeric_limits<double>::infinity();
};

Weighed directGap(const std::vector<Difference>& sittings, double ofShots) {
    Weighed weighed;
    weighed.gap.sittings = sittings.size();
    if (sittings.size() == 1) {
        weighed.gap.rests = Rests::oneSitting;
        weighed.gap.gap = sittings.front().gap;
        weighed.error = usualError(sittings.front(), ofShots);
        weighed.gap.ci95 = about(weighed.gap.gap, statistics::normalQuantile(0.975) * weighed.error);
        return weighed;
    }
    weighed.pooled = pooled(sittings);
    weighed.gap.rests = Rests::severalSittings;
    weighed.gap.gap = weighed.pooled->mean;
    weighed.df = weighed.pooled->df;
    weighed.error = weighed.pooled->error(weighed.pooled->variance());
    weighed.gap.ci95 = about(weighed.gap.gap, statistics::studentQuantile(0.975, weighed.df) * weighed.error);
    return weighed;
}

// By the club that both met with the least error; nothing where there is none.
std::optional<Weighed> indirectGap(const Bag& bag, std::size_t longer, std::size_t shorter, double ofShots) {
    std::optional<Weighed> best;
    for (std::size_t third = 0; third < bag.clubs.size(); ++third) {
        if (third == longer || third == shorter)
            continue;
        const auto to = differences(bag.clubs[longer], bag.clubs[third]);
        const auto from = differences(bag.clubs[third], bag.clubs[shorter]);
        if (to.empty() || from.empty())
            continue;
        const Weighed first = directGap(to, ofShots);
        const Weighed second = directGap(from, ofShots);
        Weighed way;
        way.gap.rests = Rests::byAnother;
        way.gap.gap = first.gap.gap + second.gap.gap;
        way.error = std::hypot(first.error, second.error);
        way.df = std::min(first.df, second.df);
        if (best && best->error <= way.error)
            continue;
        const double quantile =
            std::isinf(way.df) ? statistics::normalQuantile(0.975) : statistics::studentQuantile(0.975, way.df);
        way.gap.ci95 = about(way.gap.gap, quantile * way.error);
        best = way;
    }
    return best;
}

std::vector<double> joined(const InSitting& club) {
    std::vector<double> all;
    for (const auto& stint : club.stints)
        all.insert(all.end(), stint.begin(), stint.end());
    std::ranges::sort(all);
    return all;
}

// Over all pairs inside sittings, and sittings drawn anew.
void addPassing(const std::vector<Difference>& sittings, Gap& gap) {
    std::vector<std::pair<double, double>> passes; // of each sitting: pairs that pass, and pairs
    for (const Difference& one : sittings) {
        const auto far = joined(*one.longer);
        const auto near = joined(*one.shorter);
        passes.emplace_back(statistics::pairsAbove(far, near),
                            static_cast<double>(far.size()) * static_cast<double>(near.size()));
    }
    const auto share = [](const auto& list, auto at) {
        double above = 0;
        double pairs = 0;
        for (std::size_t i = 0; i < list.size(); ++i) {
            above += list[at(i)].first;
            pairs += list[at(i)].second;
        }
        return above / pairs;
    };
    gap.outflown = share(passes, [](std::size_t i) { return i; });
    if (passes.size() < judge::fewestStints)
        return;
    constexpr std::uint64_t seed = 33;
    const auto drawn = judge::percentileInterval(seed, judge::usualDraws, [&](Random& random) {
        const auto places = judge::drawnWithReplacement(random, passes.size());
        return share(passes, [&](std::size_t i) { return places[i]; });
    });
    if (!drawn)
        return;
    const judge::Interval wide = judge::expanded(*drawn, *gap.outflown, passes.size());
    gap.outflownCi95 = judge::Interval{std::max(0.0, wide.low), std::min(1.0, wide.high), 0.95};
}

// Holes and twins, told together.
void tellHoles(std::vector<Weighed>& gaps, double step) {
    constexpr double farAbove = 1.25;
    constexpr double farUnder = 0.5;
    constexpr double errorRate = 0.05;
    double squares = 0;
    double df = 0;
    for (const Weighed& one : gaps)
        if (one.pooled) {
            squares += one.pooled->squares;
            df += one.pooled->df;
        }
    const double tail = errorRate / 2 / static_cast<double>(gaps.size());
    for (Weighed& one : gaps) {
        const bool isCommon = one.pooled && df > 0;
        const double error = isCommon ? one.pooled->error(squares / df) : one.error;
        if (!(error > 0) || one.gap.rests == Rests::averages)
            continue;
        const double degrees = isCommon ? df : one.df;
        const double reach = error * (std::isinf(degrees) ? statistics::normalQuantile(1 - tail)
                                                          : statistics::studentQuantile(1 - tail, degrees));
        if (one.gap.gap - reach > farAbove * step)
            one.gap.is = Gap::Is::hole;
        else if (one.gap.gap + reach < farUnder * step)
            one.gap.is = Gap::Is::twin;
    }
}

} // namespace

double InSitting::mean() const {
    double sum = 0; // of stints: one that is longer weighs no more
    for (const auto& stint : stints)
        sum += statistics::meanOf(stint);
    return sum / static_cast<double>(stints.size());
}

std::size_t InSitting::shots() const {
    return std::accumulate(stints.begin(), stints.end(), std::size_t{0},
                           [](std::size_t sum, const auto& stint) { return sum + stint.size(); });
}

std::size_t Club::shots() const {
    return std::accumulate(sittings.begin(), sittings.end(), std::size_t{0},
                           [](std::size_t sum, const InSitting& one) { return sum + one.shots(); });
}

bool isOfBag(const record::Test& test) {
    return test.stage == record::Stage::openSitting || !rack::ClubKinds(test).areOne();
}

Bag bagOf(const std::vector<record::Test>& tests, const std::string& player, std::optional<double> step) {
    Gathering gathering(player);
    for (const record::Test& test : tests)
        gathering.add(test);
    Bag bag = gathering.bag();
    if (bag.clubs.size() < 2)
        return bag;
    bag.step =
        step.value_or((bag.clubs.front().carry - bag.clubs.back().carry) / static_cast<double>(bag.clubs.size() - 1));
    const double ofShots = shotVariance(bag);
    std::vector<Weighed> gaps;
    for (std::size_t i = 0; i + 1 < bag.clubs.size(); ++i) {
        const auto sittings = differences(bag.clubs[i], bag.clubs[i + 1]);
        Weighed weighed;
        weighed.gap.gap = bag.clubs[i].carry - bag.clubs[i + 1].carry;
        if (!sittings.empty()) {
            weighed = directGap(sittings, ofShots);
            addPassing(sittings, weighed.gap);
        } else if (const auto way = indirectGap(bag, i, i + 1, ofShots)) {
            weighed = *way;
        }
        weighed.gap.longer = i;
        weighed.gap.shorter = i + 1;
        gaps.push_back(std::move(weighed));
    }
    tellHoles(gaps, bag.step);
    for (Weighed& one : gaps)
        bag.gaps.push_back(std::move(one.gap));
    return bag;
}

std::optional<double> carryIn(const Club& club, const flight::Air& air) {
    if (!club.launch)
        return std::nullopt;
    constexpr double tolerance = 1e-7;
    const double still = flight::fly(*club.launch, {}, flight::PathWanted::no, 0, tolerance).carry;
    return still > 0 ? std::optional(club.carry *
                                     flight::fly(*club.launch, air, flight::PathWanted::no, 0, tolerance).carry / still)
                     : std::nullopt;
}

} // namespace knot::bag
