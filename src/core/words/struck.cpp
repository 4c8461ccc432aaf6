#include "core/words/struck.h"

#include "core/rack/club_kind.h"
#include "core/record/text/moment.h"
#include "core/record/text/number_text.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace knot::words {
namespace {

using record::counted;
using record::Test;

constexpr double pauseSeconds = 300;
constexpr std::size_t mostPauses = 2;

std::string joined(const std::vector<std::string>& names) {
    std::string text;
    for (std::size_t i = 0; i < names.size(); ++i)
        text += (i == 0 ? "" : i + 1 == names.size() ? " and " : ", ") + names[i];
    return text;
}

// "4 clubs, one run each; Fern was gone back to."
std::string clubsFact(const Test& test, const std::vector<Run>& runs) {
    std::map<std::size_t, std::size_t> often;
    for (const Run& run : runs)
        ++often[run.build];
    const std::string clubs = counted(often.size(), "club");
    if (often.size() < 2)
        return clubs + ", " + counted(test.shots.size(), "shot") + ".";
    const auto [least, most] = std::ranges::minmax_element(often, {}, [](const auto& each) { return each.second; });
    if (least->second == most->second)
        return clubs + ", " + (most->second == 1 ? "one run each." : std::to_string(most->second) + " runs each.");
    std::vector<std::string> again;
    for (const auto& [build, times] : often)
        if (times > 1)
            again.push_back(test.builds[record::BuildAt(build)].name);
    if (again.size() <= 3 && least->second == 1)
        return clubs + ", one run each; " + joined(again) + (again.size() == 1 ? " was" : " were") + " gone back to.";
    return clubs + " in " + counted(runs.size(), "run") + ", " + std::to_string(least->second) + " to " +
           std::to_string(most->second) + " each.";
}

// Whether every lap so far holds each club once.
std::size_t wholeLaps(const std::vector<Run>& runs) {
    std::set<std::size_t> struck;
    for (const Run& run : runs)
        struck.insert(run.build);
    const std::size_t clubs = struck.size();
    if (clubs < 2)
        return 0;
    std::size_t laps = 0;
    for (std::size_t from = 0; from + clubs <= runs.size(); from += clubs, ++laps) {
        std::set<std::size_t> lap;
        for (std::size_t i = 0; i < clubs; ++i)
            lap.insert(runs[from + i].build);
        if (lap.size() < clubs)
            return 0;
    }
    return laps;
}

// "11 min", "5 h", "32 days": as fine as anybody asks of a pause.
std::string lengthOf(double seconds) {
    const double minutes = seconds / 60;
    if (minutes < 120)
        return std::to_string(std::lround(minutes)) + " min";
    const double hours = minutes / 60;
    return hours < 48 ? std::to_string(std::lround(hours)) + " h" : std::to_string(std::lround(hours / 24)) + " days";
}

void addPauses(const Test& test, std::vector<std::string>& facts) {
    struct Pause {
        std::size_t after = 0;
        double seconds = 0;
    };
    std::vector<Pause> pauses;
    for (std::size_t i = 1; i < test.shots.size(); ++i)
        if (const auto gap = record::secondsBetween(test.shots[i - 1].takenAt, test.shots[i].takenAt);
            gap && *gap > pauseSeconds)
            pauses.push_back({i, *gap});
    std::ranges::stable_sort(pauses, std::greater(), &Pause::seconds);
    pauses.resize(std::min(pauses.size(), mostPauses));
    std::ranges::sort(pauses, {}, &Pause::after);
    for (const Pause& pause : pauses)
        facts.push_back("A pause of " + lengthOf(pause.seconds) + " after shot " + std::to_string(pause.after) + ".");
}

void addMissing(const Test& test, std::vector<std::string>& facts) {
    std::vector<std::string> missing;
    for (const auto metric : test.metricsRead()) {
        const auto without = static_cast<std::size_t>(
            std::ranges::count_if(test.shots, [&](const auto& shot) { return !shot.readings.has(metric); }));
        if (without > 0)
            missing.push_back(record::info(metric).label + " " + std::to_string(without));
    }
    if (missing.size() > 4)
        facts.push_back("Readings are missing in " + counted(missing.size(), "column") + ".");
    else if (!missing.empty())
        facts.push_back("Shots without a reading: " + joined(missing) + ".");
}

} // namespace

std::vector<Run> runsOf(const Test& test) {
    std::vector<Run> runs;
    const auto goesOn = [&](std::size_t i) {
        const record::Shot& shot = test.shots[i];
        const record::Shot& before = test.shots[i - 1];
        return shot.build == before.build && shot.player == before.player && shot.delivery == before.delivery;
    };
    for (std::size_t i = 0; i < test.shots.size(); ++i)
        if (i > 0 && goesOn(i))
            ++runs.back().count;
        else
            runs.push_back({test.shots[i].build, i, 1});
    return runs;
}

std::vector<std::string> struckFacts(const Test& test) {
    std::vector<std::string> facts;
    if (test.shots.empty())
        return facts;
    const auto runs = runsOf(test);
    facts.push_back(clubsFact(test, runs));
    if (const auto laps = wholeLaps(runs); laps > 1)
        facts.push_back(counted(laps, "whole lap") + ": each club once in each.");
    addPauses(test, facts);
    std::vector<std::string> deliveries;
    for (const auto& shot : test.shots)
        if (!shot.delivery.empty() && std::ranges::find(deliveries, shot.delivery) == deliveries.end())
            deliveries.push_back(shot.delivery);
    if (deliveries.size() > 1)
        facts.push_back(counted(deliveries.size(), "delivery", "deliveries") + ": " + joined(deliveries) + ".");
    std::vector<std::string> players;
    for (const auto& shot : test.shots)
        if (!shot.player.empty() && std::ranges::find(players, shot.player) == players.end())
            players.push_back(shot.player);
    if (players.size() == 1)
        facts.push_back("Struck by " + players.front() + ".");
    else if (players.size() > 1)
        facts.push_back(counted(players.size(), "player") + ": " + joined(players) + ".");
    addMissing(test, facts);
    const rack::ClubKinds kinds(test);
    if (const auto& all = kinds.ofAll(); all && all->by == rack::ToldBy::shots)
        facts.push_back("By what was hit they look like " + rack::kindText(all->kind) + "s.");
    const auto turned = std::ranges::count_if(
        test.builds, [](const record::Build& build) { return !build.club.sleeve.setting.empty(); });
    if (turned > 1)
        facts.emplace_back("Settings of a sleeve turn face and lie with the loft: a gap between them is of all three.");
    return facts;
}

} // namespace knot::words
