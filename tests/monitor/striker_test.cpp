#include "monitor/striker.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <set>

using namespace knot;
using monitor::Faults;
using monitor::Striker;

namespace {

const simulate::Scenario& fiveWood() {
    return *simulate::scenarioByKey("five-wood");
}

struct Counts {
    int shots = 0, missed = 0, spin = 0, attack = 0, strike = 0, twice = 0, junk = 0, cut = 0, far = 0;
    std::vector<std::string> order;
    double meanCarry = 0;
};

Counts run(const Faults& faults, int swings, const char* club = nullptr) {
    Striker striker(fiveWood(), 7, faults);
    if (club != nullptr)
        striker.handOver(club, 0);
    Counts counts;
    auto take = [&](const link::Message& message) {
        if (const auto* noRead = std::get_if<link::NoRead>(&message)) {
            ++counts.missed;
            counts.order.push_back(noRead->id);
            return;
        }
        const auto& shot = std::get<link::ShotRead>(message);
        if (std::ranges::count(counts.order, shot.id) > 0) {
            ++counts.twice;
            return;
        }
        counts.order.push_back(shot.id);
        ++counts.shots;
        counts.spin += shot.readings.has(record::Metric::spin) ? 0 : 1;
        counts.attack += shot.readings.has(record::Metric::attack) ? 0 : 1;
        counts.strike += shot.readings.has(record::Metric::strikeToe) ? 0 : 1;
        const double carry = shot.readings.at(record::Metric::carry).value_or(0);
        counts.far += carry < 120 ? 1 : 0;
        counts.meanCarry += carry;
    };
    for (int i = 0; i < swings; ++i) {
        const auto strike = striker.strike("2026-05-02T09:00:00");
        counts.junk += static_cast<int>(strike.junk.size());
        counts.cut += strike.disconnect ? 1 : 0;
        for (const auto& message : strike.messages)
            take(message);
    }
    for (const auto& message : striker.rest())
        take(message);
    counts.meanCarry /= std::max(1, counts.shots);
    return counts;
}

// Within four standard errors of a share.
bool about(int count, int of, double share) {
    return std::fabs(count - share * of) < 4 * std::sqrt(of * share * (1 - share)) + 1;
}

} // namespace

TEST_CASE("without faults every swing is one whole shot, in order, and the same seed strikes the same") {
    const Counts counts = run({}, 60);
    CHECK(counts.shots == 60);
    CHECK(counts.missed + counts.spin + counts.attack + counts.strike + counts.twice + counts.junk + counts.cut == 0);
    CHECK(run({}, 60).meanCarry == counts.meanCarry);
}

TEST_CASE("each fault comes about as often as ordered, and no shot is lost by it") {
    constexpr int swings = 1500;
    const double rate = 0.1;
    CHECK(about(run({.missed = rate}, swings).missed, swings, rate));
    CHECK(about(run({.noSpin = rate}, swings).spin, swings, rate));
    CHECK(about(run({.noAttack = rate}, swings).attack, swings, rate));
    CHECK(about(run({.noStrike = rate}, swings).strike, swings, rate));
    CHECK(about(run({.outlier = rate}, swings).far, swings, rate));
    CHECK(about(run({.duplicate = rate}, swings).twice, swings, rate));
    CHECK(about(run({.disconnect = rate}, swings).cut, swings, rate));
    CHECK(about(run({.junk = rate}, swings).junk, swings, rate));
    const Counts late = run({.late = rate}, swings);
    CHECK(late.shots == swings);
    CHECK(!std::ranges::is_sorted(late.order, {},
                                  [](const std::string& id) { return std::stoi(id.substr(id.find('-') + 1)); }));
    CHECK(std::set<std::string>(late.order.begin(), late.order.end()).size() == static_cast<std::size_t>(swings));
}

TEST_CASE("it strikes as the club in hand would: by the scenario's name, else by place") {
    const double slate = run({}, 400, "Slate").meanCarry;
    const double fern = run({}, 400, "Fern").meanCarry;
    CHECK(fern > slate + 4);
    Striker striker(fiveWood(), 7, {});
    Striker other(fiveWood(), 7, {});
    striker.handOver("some tag", 4); // the second of three, counted round
    other.handOver("Fern", 0);
    CHECK(striker.strike("").messages == other.strike("").messages);
    CHECK(std::ranges::count(striker.reads(), std::string("carry_m")) == 1);
}
