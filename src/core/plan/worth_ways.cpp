#include "core/plan/worth_ways.h"

#include <algorithm>
#include <cmath>

namespace knot::plan {
namespace {

using record::Outcome;
using record::OutcomeKind;

constexpr int longestStint = 12;

std::size_t clubsOf(const WorthOf& of) {
    return std::max<std::size_t>(of.test.builds.size(), 2);
}

// Of all players: each has laps of their own.
double minutesOf(const WorthOf& of, int rounds, int turnLength) {
    const double players = std::max(1.0, static_cast<double>(of.test.players.size()));
    return players * minutesFor({.builds = clubsOf(of)}, of.pace, rounds, turnLength);
}

Spreads spreadsOf(Way way, const WorthOf& of) {
    if (way == Way::equalDelivery)
        return of.equal;
    Spreads spreads = of.struck;
    if (way == Way::typicalShot) {
        spreads.sdTurn *= std::sqrt(of.typicalTimes);
        spreads.sdShot *= std::sqrt(of.typicalTimes);
    }
    return spreads;
}

int shortestStint(Way way, const Outcome& outcome) {
    const bool inside = record::isRatio(outcome); // seen inside stints alone
    return way == Way::typicalShot ? 3 : way == Way::equalDelivery || inside ? 2 : 1;
}

Worth worthOfErrors(const WorthOf& of, double error) {
    const Choosing choosing{.tau = of.tau, .errors = std::vector<double>(clubsOf(of), error)};
    return of.test.card.want(of.outcome).kind == record::Want::Kind::near ? worthNearValue(choosing)
                                                                          : worthOf(choosing);
}

WorthOption optionOf(Way way, const WorthOf& of, int rounds, int turnLength) {
    const int days = way == Way::twoSittings ? 2 : 1;
    return {.way = way,
            .rounds = rounds,
            .turnLength = turnLength,
            .days = days,
            .minutes = minutesOf(of, rounds, turnLength),
            .worth = worthOfErrors(of, errorOf(of.outcome, spreadsOf(way, of), rounds * days, turnLength))};
}

} // namespace

std::vector<Way> worthWays(const Outcome& outcome) {
    switch (outcome.kind) {
    case OutcomeKind::average:
        return {Way::asPlanned,   Way::shortStints, Way::equalDelivery,
                Way::typicalShot, Way::twoSittings, Way::threeEach};
    default:
        return {Way::asPlanned, Way::shortStints, Way::twoSittings, Way::threeEach};
    }
}

std::optional<WorthOption> mostWorth(Way way, const WorthOf& of, double minutes) {
    if (way == Way::threeEach)
        return minutesOf(of, 1, shotsByHand) <= minutes ? std::optional(optionOf(way, of, 1, shotsByHand))
                                                        : std::nullopt;
    const int first = way == Way::asPlanned ? of.turnLength : shortestStint(way, of.outcome);
    const int last = way == Way::asPlanned ? of.turnLength : longestStint;
    struct Found {
        int rounds = 0, turnLength = 0;
        double error = 0;
    };
    std::optional<Found> best;
    for (int length = first; length <= last; ++length) {
        int rounds = 0;
        while (rounds < 200 && minutesOf(of, rounds + 1, length) <= minutes)
            ++rounds;
        if (rounds < 2)
            break;
        const double error = errorOf(of.outcome, spreadsOf(way, of), rounds, length);
        if (!best || error < best->error - 1e-9)
            best = {rounds, length, error};
    }
    return best ? std::optional(optionOf(way, of, best->rounds, best->turnLength)) : std::nullopt;
}

std::optional<WorthOption> toGet(double share, Way way, const WorthOf& of, double most) {
    const auto gets = [&](const std::optional<WorthOption>& option) { return option && option->worth.share >= share; };
    if (!gets(mostWorth(way, of, most)))
        return std::nullopt;
    double low = 0;
    double high = most;
    while (high - low > 0.5) {
        const double middle = (low + high) / 2;
        (gets(mostWorth(way, of, middle)) ? high : low) = middle;
    }
    return mostWorth(way, of, high);
}

} // namespace knot::plan
