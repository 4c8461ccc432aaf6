#include "files/test_json.h"

#include "core/plan/seal.h"
#include "core/record/carry.h"
#include "core/record/check.h"
#include "core/record/roster.h"
#include "core/record/shot_fields.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"
#include "files/base/file.h"
#include "files/bay_json.h"
#include "files/card_json.h"
#include "files/club_json.h"
#include "files/seal_json.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <filesystem>

namespace knot::files {
namespace {

using nlohmann::json;
using nlohmann::ordered_json;
using record::Metric;
using record::Shot;
using record::Test;

constexpr int version = 1;

ordered_json shotJson(const Test& test, const Shot& shot) {
    ordered_json out;
    out["build"] = test.builds[shot.build].name;
    if (shot.id != record::ShotId::none)
        out["id"] = static_cast<std::int64_t>(shot.id);
    for (const record::ShotField& field : record::shotFields()) {
        const std::string text = field.text(shot);
        if (text.empty())
            continue;
        using Kind = record::ShotField::Kind;
        out[std::string(field.key)] = field.kind == Kind::flag    ? json(true)
                                      : field.kind == Kind::score ? json(record::wholeIn(text).value_or(0))
                                                                  : json(text);
    }
    out["metrics"] = ordered_json::object();
    ordered_json modelled = ordered_json::array();
    for (const Metric metric : record::allMetrics()) {
        const auto value = shot.readings.at(metric);
        if (!value || shot.readings.derived(metric))
            continue;
        out["metrics"][record::info(metric).key] = *value;
        if (shot.readings.modelled(metric))
            modelled.push_back(record::info(metric).key);
    }
    if (!modelled.empty())
        out["modelled"] = modelled;
    if (!shot.extra.empty())
        out["extra"] = shot.extra;
    return out;
}

Shot shotFrom(const json& in, const Test& test) {
    Shot shot;
    const auto build = test.buildIndex(in.at("build").get<std::string>());
    if (!build)
        throw Unreadable{"a shot names the build '" + in.at("build").get<std::string>() + "', which is not listed"};
    shot.build = *build;
    shot.id = record::ShotId{in.value("id", std::int64_t{0})};
    for (const record::ShotField& field : record::shotFields()) {
        const auto at = in.find(field.key);
        if (at == in.end())
            continue;
        const std::string text = at->is_string() ? at->get<std::string>() : at->dump();
        if (!field.take(shot, text))
            throw Unreadable{std::string(field.refused) + " '" + text + "'"};
    }
    const auto modelled = in.value("modelled", std::vector<std::string>{});
    for (const auto& [key, value] : in.at("metrics").items()) {
        const Metric metric = metricNamed(key);
        const bool isModelled = std::ranges::find(modelled, key) != modelled.end();
        isModelled ? shot.readings.model(metric, value.get<double>())
                   : shot.readings.measure(metric, value.get<double>());
    }
    record::deriveMissing(shot.readings);
    shot.extra = in.value("extra", std::vector<std::string>{});
    return shot;
}

ordered_json planJson(const record::Plan& plan, const std::vector<record::PlannedTurn>& turns) {
    ordered_json out{{"schedule", nameOf(record::scheduleNames, plan.schedule)},
                     {"rounds", plan.rounds},
                     {"turn_length", plan.turnLength},
                     {"seed", std::to_string(plan.seed)},
                     {"change_seconds", plan.changeSeconds},
                     {"shot_seconds", plan.shotSeconds},
                     {"warm_up", plan.warmUp},
                     {"rest_every", plan.restEvery},
                     {"rest_seconds", plan.restSeconds}};
    out["change_times"] = ordered_json::array();
    for (const auto& change : plan.changeTimes)
        out["change_times"].push_back(
            {{"a", std::size_t{change.a}}, {"b", std::size_t{change.b}}, {"seconds", change.seconds}});
    if (!plan.tagWords.empty())
        out["tag_words"] = plan.tagWords;
    out["turns"] = ordered_json::array();
    for (const auto& turn : turns) {
        out["turns"].push_back({{"build", std::size_t{turn.build}}, {"round", turn.round}, {"shots", turn.shots}});
        if (turn.ended)
            out["turns"].back()["ended"] = true;
        if (turn.player > 0)
            out["turns"].back()["player"] = std::size_t{turn.player};
        if (turn.id > 0)
            out["turns"].back()["id"] = turn.id;
    }
    return out;
}

record::Plan planFrom(const json& in) {
    record::Plan plan;
    plan.schedule = valueOrRefuse<record::Schedule>(record::scheduleNames, in.at("schedule").get<std::string>());
    plan.rounds = wholeAt(in, "rounds");
    plan.turnLength = wholeAt(in, "turn_length");
    plan.seed = record::countIn(in.at("seed").get<std::string>()).value();
    plan.changeSeconds = in.value("change_seconds", plan.changeSeconds);
    plan.shotSeconds = in.value("shot_seconds", plan.shotSeconds);
    plan.warmUp = wholeAt(in, "warm_up", plan.warmUp);
    plan.restEvery = in.value("rest_every", plan.restEvery);
    plan.restSeconds = in.value("rest_seconds", plan.restSeconds);
    for (const auto& change : in.value("change_times", json::array()))
        plan.changeTimes.push_back({record::BuildAt(placeAt(change, "a")), record::BuildAt(placeAt(change, "b")),
                                    change.at("seconds").get<double>()});
    plan.tagWords = in.value("tag_words", std::vector<std::string>{});
    return plan;
}

std::vector<record::PlannedTurn> turnsFrom(const json& plan) {
    std::vector<record::PlannedTurn> turns;
    for (const auto& turn : plan.value("turns", json::array()))
        turns.push_back({record::BuildAt(placeAt(turn, "build")), wholeAt(turn, "round"), wholeAt(turn, "shots"),
                         turn.value("ended", false),
                         record::PlayerAt(turn.contains("player") ? placeAt(turn, "player") : 0),
                         wholeAt(turn, "id", 0)});
    return turns;
}

ordered_json buildsJson(const std::vector<record::Build>& builds) {
    ordered_json out = ordered_json::array();
    for (const auto& build : builds)
        out.push_back(buildJson(build));
    return out;
}

// Clubs with why they were struck off.
ordered_json clubsJson(const Test& test) {
    ordered_json out = buildsJson(test.builds);
    const auto why = record::whyStruckOff(test);
    for (std::size_t i = 0; i < why.size(); ++i)
        if (!why[i].empty())
            out[i]["struck_off"] = why[i];
    return out;
}

// Who left is written where the clubs and the plan do not tell it.
void writeStandings(ordered_json& out, const Test& test) {
    Test told = record::headOf(test);
    told.standings = record::standingsTold(test, record::whyStruckOff(test));
    if (record::withNames(std::move(told)).standings == test.standings)
        return;
    for (const record::Standing& standing : test.standings)
        out["standings"].push_back({{"what", nameOf(record::standingNames, standing.what)},
                                    {"club", standing.club},
                                    {"lap", standing.lap},
                                    {"why", standing.why}});
}

void readStandings(const json& in, Test& test) {
    if (const auto standings = in.find("standings"); standings != in.end()) {
        for (const auto& standing : *standings)
            test.standings.push_back(
                {valueOrRefuse<record::Standing::What>(record::standingNames, standing.at("what").get<std::string>()),
                 standing.at("club").get<std::string>(), wholeAt(standing, "lap"), standing.value("why", "")});
        return;
    }
    std::vector<std::string> why;
    for (const auto& build : in.at("builds"))
        why.push_back(build.value("struck_off", ""));
    test.standings = record::standingsTold(test, why);
}

ordered_json amendmentJson(const Test& test, const record::Amendment& amendment) {
    ordered_json out{{"at", amendment.at}, {"text", amendment.text}};
    for (const Shot& shot : amendment.was)
        out["was"].push_back(shotJson(test, shot));
    return out;
}

record::Amendment amendmentFrom(const json& in, const Test& test) {
    record::Amendment amendment{in.value("at", ""), in.at("text").get<std::string>(), {}};
    for (const auto& shot : in.value("was", json::array()))
        amendment.was.push_back(shotFrom(shot, test));
    return amendment;
}

// Older exports have one player, by name and with a profile.
void readPlayers(const json& in, Test& test) {
    for (const auto& player : in.value("players", json::array()))
        test.players.push_back(playerFrom(player));
    if (in.contains("players"))
        return;
    record::Player player = playerFrom(in.value("profile", json::object()));
    player.name = in.value("player", player.name);
    if (!player.name.empty())
        test.players.push_back(std::move(player));
}

constexpr std::array<std::pair<const char*, record::Said record::Choices::*>, 3> choiceMembers = {
    {{"by_feel", &record::Choices::byFeel},
     {"own", &record::Choices::own},
     {"by_numbers", &record::Choices::byNumbers}}};

void writeDecision(ordered_json& out, const Test& test) {
    for (const auto& [name, member] : choiceMembers)
        if (const record::Said& said = test.choices.*member; !said.at.empty())
            out["choices"][name] = {{"tag", said.tag}, {"at", said.at}};
    const record::Decision& decision = test.decision;
    if (decision != record::Decision{})
        out["decision"] = {{"what", nameOf(record::actionNames, decision.what)},
                           {"club", decision.club},
                           {"reason", decision.reason},
                           {"price", decision.price},
                           {"watch", decision.watch},
                           {"at", decision.at}};
}

void readDecision(const json& in, Test& test) {
    if (const auto choices = in.find("choices"); choices != in.end())
        for (const auto& [name, member] : choiceMembers)
            if (const auto said = choices->find(name); said != choices->end())
                test.choices.*member = {said->value("tag", ""), said->value("at", "")};
    if (const auto at = in.find("decision"); at != in.end())
        test.decision = {.what = valueOrRefuse<record::Action>(record::actionNames, at->value("what", "none")),
                         .club = at->value("club", ""),
                         .reason = at->value("reason", ""),
                         .price = at->value("price", ""),
                         .watch = at->value("watch", ""),
                         .at = at->value("at", "")};
}

/// How much of the players is written: who they are, or all that is known of them.
enum class Players { names, whole };

ordered_json headOf(const Test& of, Players players) {
    const Test test = record::withNames(record::headOf(of));
    ordered_json out;
    out["format"] = "knotcount.test";
    out["version"] = version;
    out["title"] = test.title;
    out["question"] = test.question;
    out["player"] = test.playerNames();
    out["created_at"] = test.createdAt;
    out["stage"] = nameOf(record::stageNames, test.stage);
    if (!test.repeats.empty())
        out["repeats"] = test.repeats;
    out["players"] = ordered_json::array();
    for (const record::Player& player : test.players)
        out["players"].push_back(players == Players::whole ? playerJson(player) : playerNameJson(player));
    out["builds"] = clubsJson(test);
    if (!test.sealedBuilds.empty())
        out["sealed_builds"] = buildsJson(test.sealedBuilds);
    out["extra_columns"] = test.extraColumns;
    out["card"] = cardJson(test.card);
    out["plan"] = planJson(test.plan, test.turns);
    writeStandings(out, test);
    out["seal"] = sealJson(test);
    out["guesses"] = ordered_json::array();
    for (const auto& guess : test.guesses)
        out["guesses"].push_back(
            {{"build", test.builds[guess.build].name}, {"said", guess.said}, {"turn", guess.turn}});
    out["amendments"] = ordered_json::array();
    for (const auto& amendment : test.amendments)
        out["amendments"].push_back(amendmentJson(test, amendment));
    writeDecision(out, test);
    out["frozen"] = {{"at", test.frozenAt}, {"hash", test.frozenHash}};
    writeBay(out, test);
    return out;
}

record::BuildAt buildNamed(const Test& test, const std::string& name) {
    if (const auto build = test.buildIndex(name))
        return *build;
    throw Unreadable{"the build '" + name + "' is not listed"};
}

void refuseFaults(const std::vector<std::string>& faults) {
    if (!faults.empty())
        throw Unreadable{faults.front().substr(0, faults.front().size() - 1)};
}

Test headFrom(const json& in) {
    Test test;
    test.title = in.at("title").get<std::string>();
    test.question = in.value("question", "");
    test.createdAt = in.value("created_at", "");
    test.repeats = in.value("repeats", "");
    test.stage = valueOrRefuse<record::Stage>(record::stageNames, in.value("stage", "test"));
    readPlayers(in, test);
    for (const auto& build : in.at("builds"))
        test.builds.push_back(buildFrom(build));
    for (const auto& build : in.value("sealed_builds", json::array()))
        test.sealedBuilds.push_back(buildFrom(build));
    test.extraColumns = in.value("extra_columns", std::vector<std::string>{});
    test.card = cardFrom(in.at("card"));
    if (const auto plan = in.find("plan"); plan != in.end()) {
        test.plan = planFrom(*plan);
        test.turns = turnsFrom(*plan);
    }
    readStandings(in, test);
    test.seal = sealFrom(in.value("seal", json::object()));
    for (const auto& guess : in.value("guesses", json::array()))
        test.guesses.push_back({buildNamed(test, guess.at("build").get<std::string>()),
                                guess.at("said").get<std::string>(), guess.value("turn", "")});
    for (const auto& amendment : in.value("amendments", json::array()))
        test.amendments.push_back(amendmentFrom(amendment, test));
    readDecision(in, test);
    if (const auto frozen = in.find("frozen"); frozen != in.end()) {
        test.frozenAt = frozen->value("at", "");
        test.frozenHash = frozen->value("hash", "");
    }
    readBay(in, test);
    record::nameByIds(test);
    refuseFaults(record::headFaultsOf(test));
    return test;
}

// An id is one of ours or none.
std::string idFrom(const std::string& text) {
    constexpr std::size_t uuidLength = 36;
    const bool isOne = text.size() == uuidLength && text.find_first_not_of("0123456789abcdef-") == std::string::npos;
    return isOne ? text : std::string();
}

Test testFrom(const json& in) {
    Test test = headFrom(in);
    test.id = idFrom(in.value("id", ""));
    for (const auto& shot : in.at("shots"))
        test.shots.push_back(shotFrom(shot, test));
    test.nameShots();
    test.namePlayers();
    refuseFaults(record::shotFaultsOf(test));
    return test;
}

constexpr int deepest = 100;

// The texts of a document, all of them, without what is not to be printed.
json printableOnly(json in, int depth = 0) {
    if (depth > deepest)
        throw Unreadable{"nested more than a hundred deep"};
    if (in.is_string())
        in = record::printable(in.get<std::string>());
    else if (in.is_structured())
        for (auto& member : in)
            member = printableOnly(std::move(member), depth + 1);
    return in;
}

// Runs a reader and turns what it throws into an error.
template<typename Reader>
auto readingOf(const std::string& file, const std::string& text, Reader reader) -> Result<decltype(reader(json()))> {
    auto refuse = [&](ErrorKind kind, const std::string& found, const std::string& expected = {}) {
        return tl::unexpected(Error{kind, file, 0, 0, {}, found, expected});
    };
    try {
        const json in = printableOnly(json::parse(text));
        if (in.value("format", "") != "knotcount.test")
            return refuse(ErrorKind::notATest, "its format is another");
        if (const int found = wholeAt(in, "version"); found > version)
            return refuse(ErrorKind::newerTest, std::to_string(found), std::to_string(version));
        return reader(in);
    } catch (const Unreadable& reason) {
        return refuse(ErrorKind::notATest, reason.why);
    } catch (const json::parse_error& e) {
        return refuse(ErrorKind::notATest, "not JSON from byte " + std::to_string(e.byte) + " on");
    } catch (const std::exception&) {
        return refuse(ErrorKind::notATest, "a member is missing or of the wrong type");
    }
}

Test withoutHiddenParts(Test test) {
    test.sealedBuilds.clear();
    test.card.baseline.clear();
    test.card.expectedOrder.clear();
    for (auto& target : test.card.targets)
        target.build.clear();
    return test;
}

std::string written(const ordered_json& document, int indent) {
    return document.dump(indent, ' ', false, json::error_handler_t::replace);
}

} // namespace

std::string hiddenPartsJson(const Test& of) {
    const Test test = record::withNames(record::headOf(of));
    ordered_json out;
    out["builds"] = buildsJson(test.sealedBuilds.empty() ? test.builds : test.sealedBuilds);
    out["baseline"] = test.card.baseline;
    if (!test.card.expectedOrder.empty())
        out["expected_order"] = test.card.expectedOrder;
    out["target_builds"] = ordered_json::array();
    for (const auto& target : test.card.targets)
        out["target_builds"].push_back(target.build);
    return written(out, -1);
}

bool restoreHiddenParts(Test& test, const std::string& text) {
    try {
        const json in = json::parse(text);
        std::vector<record::Build> builds;
        for (const auto& build : in.at("builds"))
            builds.push_back(buildFrom(build));
        const auto targets = in.at("target_builds").get<std::vector<std::string>>();
        if (targets.size() != test.card.targets.size())
            return false;
        test.card.baseline = in.at("baseline").get<std::string>();
        test.card.expectedOrder = in.value("expected_order", std::vector<std::string>());
        for (std::size_t i = 0; i < targets.size(); ++i)
            test.card.targets[i].build = targets[i];
        test.sealedBuilds = std::move(builds);
        record::nameByIds(test);
        return true;
    } catch (const std::exception&) {
        return false;
    } catch (const Unreadable&) {
        return false;
    }
}

std::string testJson(const Test& test) {
    // Of a bag nobody knows more than the order of the sheet says; a seal's box holds the rest.
    if (test.seal.isClosed() && !test.seal.isBag() && !test.sealedBuilds.empty())
        return testJson(withoutHiddenParts(test));
    ordered_json out = headOf(test, Players::whole);
    if (!test.id.empty())
        out["id"] = test.id;
    out["shots"] = ordered_json::array();
    for (const Shot& shot : test.shots)
        out["shots"].push_back(shotJson(test, shot));
    return written(out, 1) + "\n";
}

std::string testHeadJson(const Test& test) {
    return written(headOf(test, Players::names), -1);
}

std::string declarationText(const Test& of) {
    const Test test = record::withNames(record::headOf(of));
    // What the question is judged by; the player's profile, the seal and later events are not part of it.
    ordered_json out;
    out["question"] = test.question;
    out["builds"] = ordered_json::array();
    for (record::Build build : plan::declaredBuilds(test)) {
        build.tag.clear(); // learned at the reveal
        build.id.clear();
        out["builds"].push_back(buildJson(build));
    }
    out["card"] = cardJson(test.card);
    out["commitment"] = test.seal.commitment;
    return written(out, -1);
}

Result<ImportedTest> readTestJson(const std::string& file, const std::string& text) {
    return readingOf(file, text, [](const json& in) { return ImportedTest{testFrom(in), {}}; });
}

Result<Test> readTestHeadJson(const std::string& file, const std::string& text) {
    return readingOf(file, text, [](const json& in) { return headFrom(in); });
}

bool looksLikeTest(std::string_view bytes) {
    return bytes.find("\"knotcount.test\"") != std::string_view::npos;
}

Result<ImportedTest> readTestFile(const std::string& path) {
    return readFile(path).and_then(
        [&](const std::string& bytes) { return readTestJson(std::filesystem::path(path).filename().string(), bytes); });
}

} // namespace knot::files
