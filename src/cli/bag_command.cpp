#include "cli/opening.h"

#include "core/bag/bag.h"
#include "core/flight/air.h"
#include "core/record/text/number_text.h"
#include "core/words/bag.h"
#include "files/bag_json.h"

#include <iostream>
#include <memory>
#include <optional>
#include <set>
#include <string>

namespace knot::cli {
namespace {

struct BagAsked {
    std::vector<std::string> files;
    std::string player;
    std::optional<double> step, wind;
    bool json = false;
    ReadingFlags reading;
};

void print(const bag::Bag& bag, const record::DisplayUnits& units, const BagAsked& asked) {
    const record::MetricFormat carry(record::Metric::carry, units);
    std::cout << record::counted(bag.clubs.size(), "club") << " in " << record::counted(bag.sittings, "sitting")
              << ", the longest first\n";
    for (std::size_t i = 0; i < bag.clubs.size(); ++i) {
        const bag::Club& club = bag.clubs[i];
        std::cout << "  " << record::printable(club.name) << ": " << carry.withUnit(club.carry) << ", "
                  << record::counted(club.shots(), "shot") << " in "
                  << record::counted(club.sittings.size(), "sitting");
        if (asked.wind)
            if (const auto other = bag::carryIn(club, {.windAlong = *asked.wind}))
                std::cout << "; " << carry.withUnit(*other) << " in that wind, modelled";
        std::cout << "\n";
        if (i < bag.gaps.size())
            std::cout << "    " << words::gapText(bag.gaps[i], units) << ", " << words::restsText(bag.gaps[i]) << "\n";
    }
    for (const std::string& sentence : words::bagSentences(bag, units))
        std::cout << record::printable(sentence) << "\n";
}

void runBag(const BagAsked& asked) {
    std::vector<record::Test> tests;
    record::DisplayUnits units;
    if (asked.files.size() == 1 && asked.files.front().ends_with(".knotbook")) {
        tests = earlierOf(asked.files.front(), {});
        units = orRefuse(orRefuse(logbook::Logbook::read(asked.files.front())).units());
    } else {
        const auto imported = openTest(asked.files, {}, anybodysFile(), asked.reading);
        units = unitsOf(imported, asked.reading);
        tests.push_back(imported.test);
        tests.back().stage = record::Stage::openSitting; // whoever asks says that it is a bag
    }
    std::set<std::string> players;
    for (const record::Test& test : tests)
        if (bag::isOfBag(test))
            for (const record::Shot& shot : test.shots)
                players.insert(shot.player);
    if (asked.player.empty() && players.size() > 1) {
        std::string names;
        for (const std::string& name : players)
            names += (names.empty() ? "" : ", ") + (name.empty() ? "somebody without a name" : name);
        throw Refusal{"These shots are of several players: " + names + ". A bag is one player's: say --player."};
    }
    const record::MetricFormat carry(record::Metric::carry, units);
    const auto bag =
        bag::bagOf(tests, asked.player, asked.step ? std::optional(carry.internal(*asked.step)) : std::nullopt);
    if (bag.clubs.empty())
        throw Refusal{
            "There is no bag in " + asked.files.front() +
            ": it is made of free shots, of files whose clubs are no rivals and of decided clubs, with a carry" +
            (asked.player.empty() ? "." : ", by " + asked.player + ".")};
    if (asked.json)
        std::cout << files::bagJson(bag, asked.wind) << "\n";
    else
        print(bag, units, asked);
}

} // namespace

void addBag(CLI::App& app) {
    auto asked = std::make_shared<BagAsked>();
    CLI::App* command = app.add_subcommand(
        "bag", "The clubs that a player carries: gaps with intervals, holes, doubles, what outflies what.");
    command->add_option("file", asked->files, "A logbook (.knotbook), or shot files of a bag")->required();
    command->add_option("--player", asked->player, "Whose shots, where several hit");
    command->add_option("--step", asked->step, "Wanted between neighbours, in the units shown; else the even step")
        ->check(CLI::PositiveNumber);
    command->add_option("--wind", asked->wind, "m/s along the line, + with the ball: carries in it, modelled");
    command->add_flag("--json", asked->json, "As JSON");
    addReading(*command, asked->reading);
    command->callback([asked] { runBag(*asked); });
}

} // namespace knot::cli
