#include "core/record/check.h"

#include "core/record/text/number_text.h"
#include "core/record/text/text.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <iterator>
#include <set>

namespace knot::record {
namespace {

class Faults {
public:
    void add(std::string sentence) { m_sentences.push_back(std::move(sentence)); }
    void add(std::vector<std::string> sentences) { std::ranges::move(sentences, std::back_inserter(m_sentences)); }
    /// low < value < high; also refuses what is not finite.
    void between(double value, double low, double high, const std::string& what) {
        if (!(value > low && value < high))
            add(what + " must be greater than " + fixed(low, 0) + " and less than " + fixed(high, 0) + ".");
    }
    void within(double value, double low, double high, const std::string& what) {
        if (!(value >= low && value <= high))
            add(what + " must be from " + fixed(low, 0) + " to " + fixed(high, 0) + ".");
    }
    void finite(const std::optional<double>& value, const std::string& what) {
        if (value && !(std::fabs(*value) < 1e9))
            add(what + " must be a number below " + fixed(1e9, 0) + ".");
    }
    std::vector<std::string> take() { return std::move(m_sentences); }

private:
    std::vector<std::string> m_sentences;
};

void checkPart(Faults& faults, const Part& part, const char* what) {
    for (const auto& value : {part.mass, part.loft, part.lie, part.volume, part.length, part.balance,
                              part.buttStiffness, part.tipStiffness})
        faults.finite(value, std::string("Each figure of the ") + what);
}

// What may be held equal is how the club was delivered, never what the ball made of it.
constexpr std::array deliveries = {Metric::clubSpeed,  Metric::attack,     Metric::path,
                                   Metric::face,       Metric::faceToPath, Metric::dynamicLoft,
                                   Metric::dynamicLie, Metric::strikeToe,  Metric::strikeHigh};

std::vector<std::string> faultsOfEqual(const Card& card, const Outcome& outcome) {
    const std::string what = upperFirst(outcomeLabel(outcome));
    if (card.covariates.empty())
        return {what + " needs what is held equal, such as club speed or strike height."};
    std::vector<std::string> faults;
    for (const Metric metric : card.covariates)
        if (std::ranges::find(deliveries, metric) == deliveries.end() || metric == outcome.metric)
            faults.push_back(what + ": " + info(metric).label +
                             " can't be held equal; choose among club speed, strike, attack, path and face.");
    return faults;
}

} // namespace

std::vector<std::string> faultsOf(const Card& card) {
    Faults faults;
    for (const auto& [metric, gap] : card.margins)
        faults.between(gap, 0, 1e9, "The worthwhile gap in " + info(metric).label);
    faults.between(card.sdRatioMargin, 1, 1000, "The worthwhile ratio of spreads");
    faults.between(card.areaRatioMargin, 1, 1000, "The worthwhile ratio of areas");
    faults.between(card.alpha, 0, 1, "The error rate");
    faults.within(card.plannedRounds, 0, mostRounds, "The number of planned laps");
    faults.within(card.goodShots, 0, 1000, "The good shots of a stint");
    for (std::size_t i = 0; i < card.primary.size(); ++i)
        if (std::find(card.primary.begin(), card.primary.begin() + static_cast<std::ptrdiff_t>(i), card.primary[i]) !=
            card.primary.begin() + static_cast<std::ptrdiff_t>(i))
            faults.add(upperFirst(outcomeLabel(card.primary[i])) + " is declared twice.");
    for (const auto& [outcome, want] : card.wants)
        faults.finite(want.value, "The wanted value of " + outcomeLabel(outcome));
    for (const Shape& shape : card.shapes) {
        faults.between(shape.width, 0, 10000, "The width of " + shape.name);
        faults.within(shape.depth, 0, 10000, "The depth of " + shape.name);
        faults.finite(shape.side, "The place of " + shape.name);
        faults.finite(shape.carry, "The place of " + shape.name);
    }
    if (card.aim) {
        faults.between(card.aim->carry, 0, 1000, "The distance to hit");
        faults.between(card.aim->side, -1000, 1000, "The line to hit");
    }
    for (const Outcome& outcome : card.primary)
        if (outcome.kind == OutcomeKind::equal)
            faults.add(faultsOfEqual(card, outcome));
    for (const Target& target : card.targets) {
        faults.finite(target.low, "A window in " + info(target.metric).label);
        faults.finite(target.high, "A window in " + info(target.metric).label);
        if (target.low > target.high)
            faults.add("A window in " + info(target.metric).label + " must go from low to high.");
    }
    return faults.take();
}

namespace {

std::vector<std::string> faultsOf(const std::vector<PlannedTurn>& turns, std::size_t builds) {
    Faults faults;
    std::set<int> ids;
    for (const PlannedTurn& turn : turns) {
        if (turn.build >= builds)
            faults.add("A planned stint names a club that is not on the rack.");
        if (turn.round < 1 || turn.round > 10 * mostRounds || turn.shots < 1 || turn.shots > 1000)
            faults.add("A planned stint needs a lap and a shot, both from 1 and no more than a day has.");
        if (turn.id < 0 || (turn.id > 0 && !ids.insert(turn.id).second))
            faults.add("Two planned stints have one number.");
    }
    return faults.take();
}

} // namespace

std::vector<std::string> faultsOf(const Plan& plan, std::size_t builds) {
    Faults faults;
    faults.within(plan.rounds, 1, mostRounds, "The number of laps");
    faults.within(plan.turnLength, 1, 1000, "The shots of a stint");
    faults.within(plan.warmUp, 0, 1000, "The warm-up");
    faults.within(plan.restEvery, 0, 10000, "The swings between rests");
    faults.within(plan.changeSeconds, 0, 86400, "The seconds of a change");
    faults.within(plan.shotSeconds, 0, 86400, "The seconds of a shot");
    faults.within(plan.restSeconds, 0, 86400, "The seconds of a rest");
    for (const ChangeTime& change : plan.changeTimes) {
        faults.within(change.seconds, 0, 86400, "The seconds of a change");
        if (change.a >= builds || change.b >= builds)
            faults.add("A change time names a club that is not on the rack.");
    }
    return faults.take();
}

std::vector<std::string> faultsOf(const Club& club) {
    Faults faults;
    checkPart(faults, club.head, "head");
    checkPart(faults, club.shaft, "shaft");
    checkPart(faults, club.grip, "grip");
    for (const auto& value :
         {club.length, club.headAt, std::optional(club.lead), std::optional(club.bentLoft), std::optional(club.bentLie),
          std::optional(club.grippedDown), std::optional(club.sleeve.loft), std::optional(club.sleeve.face),
          std::optional(club.sleeve.lie)})
        faults.finite(value, "Each figure of a club");
    return faults.take();
}

std::vector<std::string> faultsOf(const Player& player) {
    Faults faults;
    if (player.name.empty())
        faults.add("A player needs a name.");
    faults.finite(player.clubSpeed, "The player's driver speed");
    faults.finite(player.ironSpeed, "The player's iron speed");
    faults.finite(player.height, "The player's height");
    faults.finite(player.wristToFloor, "The player's wrist to floor");
    faults.finite(player.hand, "The size of the player's hand");
    for (const Usual& usual : player.usual)
        for (const auto& value : {usual.carry, usual.ballSpeed, usual.launch, usual.spin})
            faults.finite(value, "Each usual number of the player");
    return faults.take();
}

std::vector<std::string> headFaultsOf(const Test& test) {
    Faults faults;
    if (test.builds.size() > mostClubs)
        return {"A test has at most " + std::to_string(mostClubs) + " clubs; this has " +
                std::to_string(test.builds.size()) + "."};
    faults.add(faultsOf(test.card));
    faults.add(faultsOf(test.plan, test.builds.size()));
    faults.add(faultsOf(test.turns, test.builds.size()));
    for (const auto* builds : {&test.builds, &test.sealedBuilds}) {
        std::set<std::string> names;
        for (const Build& build : *builds) {
            faults.add(faultsOf(build.club));
            if (!names.insert(build.name).second)
                faults.add("Two clubs are called “" + build.name + "”; each needs a name of its own.");
        }
    }
    std::set<std::string> called;
    for (const Player& player : test.players) {
        faults.add(faultsOf(player));
        if (!called.insert(player.name).second)
            faults.add("Two players are called “" + player.name + "”; each needs a name of their own.");
    }
    for (const PlannedTurn& turn : test.turns)
        if (turn.player > 0 && turn.player >= test.players.size())
            faults.add("A planned stint names a player who is not in the test.");
    auto checkConditions = [&](const Conditions& conditions) {
        faults.finite(conditions.wind, "The wind");
        faults.finite(conditions.temperature, "The temperature");
    };
    for (const Sitting& sitting : test.sittings) {
        checkConditions(sitting.conditions);
        for (const ConditionsAt& later : sitting.later)
            checkConditions(later.conditions);
    }
    auto isListed = [&](BuildAt build) { return build < test.builds.size(); };
    if (!std::ranges::all_of(test.feels, isListed, &Feel::build) ||
        !std::ranges::all_of(test.guesses, isListed, &Guess::build))
        faults.add("A feel or a guess names a club that is not on the rack.");
    return faults.take();
}

std::vector<std::string> shotFaultsOf(const Test& test, std::size_t from) {
    Faults faults;
    std::set<ShotId> ids;
    for (std::size_t i = from; i < test.shots.size(); ++i) {
        const Shot& shot = test.shots[i];
        const std::string which = "Shot " + std::to_string(i + 1);
        if (shot.build >= test.builds.size())
            faults.add(which + " names a club that is not on the rack.");
        if (shot.extra.size() != test.extraColumns.size())
            faults.add(which + " has " + counted(shot.extra.size(), "cell") + " for " +
                       counted(test.extraColumns.size(), "column") + " of its own.");
        if (shot.feel < 0 || shot.feel > 10)
            faults.add(which + " has a feel that is not from 1 to 10.");
        if (shot.id != ShotId::none && !ids.insert(shot.id).second)
            faults.add(which + " has the id of another.");
        for (const Metric metric : allMetrics())
            if (const auto value = shot.readings.at(metric); value && !std::isfinite(*value))
                faults.add(which + " has no finite " + info(metric).label + ".");
            else if (value && std::fabs(*value) > mostReading)
                faults.add(which + " has a " + info(metric).label + " beyond a million, which nothing measures.");
    }
    return faults.take();
}

std::vector<std::string> faultsOf(const Test& test) {
    auto all = headFaultsOf(test);
    std::ranges::move(shotFaultsOf(test), std::back_inserter(all));
    return all;
}

} // namespace knot::record
