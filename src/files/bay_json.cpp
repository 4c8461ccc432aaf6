#include "files/bay_json.h"

#include "files/json_read.h"

namespace knot::files {
namespace {

using nlohmann::json;
using nlohmann::ordered_json;

ordered_json feelJson(const record::Test& test, const record::Feel& feel) {
    ordered_json out{{"turn", feel.turn}, {"build", test.builds[feel.build].name}};
    for (std::size_t i = 0; i < feel.scores.size(); ++i)
        if (feel.scores[i] > 0)
            out[record::feelNames[i]] = feel.scores[i];
    if (!feel.words.empty())
        out["words"] = feel.words;
    if (!feel.expected.empty())
        out["expected"] = feel.expected;
    if (feel.versus != record::Versus::notSaid) {
        out["versus"] = nameOf(record::versusNames, feel.versus);
        out["against"] = feel.against;
    }
    return out;
}

record::Feel feelFrom(const json& in, const record::Test& test) {
    record::Feel feel;
    feel.turn = in.value("turn", "");
    const auto build = test.buildIndex(in.at("build").get<std::string>());
    if (!build)
        throw Unreadable{"a feel names a build that is not listed"};
    feel.build = *build;
    for (std::size_t i = 0; i < feel.scores.size(); ++i) {
        feel.scores[i] = in.value(record::feelNames[i], 0);
        if (feel.scores[i] < 0 || feel.scores[i] > 10)
            throw Unreadable{"a feel is not from 1 to 10"};
    }
    feel.words = in.value("words", "");
    feel.expected = in.value("expected", "");
    feel.versus = valueOrRefuse<record::Versus>(record::versusNames, in.value("versus", "not_said"));
    feel.against = in.value("against", "");
    return feel;
}

void putConditions(ordered_json& out, const record::Conditions& c) {
    if (c.place != record::Place::notSaid)
        out["place"] = nameOf(record::placeNames, c.place);
    if (c.wind)
        out["wind_ms"] = *c.wind;
    if (c.temperature)
        out["temperature_c"] = *c.temperature;
    if (!c.ball.empty())
        out["ball"] = c.ball;
    if (!c.surface.empty())
        out["surface"] = c.surface;
}

record::Conditions conditionsFrom(const json& in) {
    record::Conditions conditions;
    conditions.place = valueOrRefuse<record::Place>(record::placeNames, in.value("place", record::placeNames.front()));
    conditions.wind = numberAt(in, "wind_ms");
    conditions.temperature = numberAt(in, "temperature_c");
    conditions.ball = in.value("ball", "");
    conditions.surface = in.value("surface", "");
    return conditions;
}

ordered_json sittingJson(const record::Sitting& sitting) {
    ordered_json out{{"label", sitting.label}, {"started_at", sitting.startedAt.text()}};
    putConditions(out, sitting.conditions);
    for (const record::ConditionsAt& later : sitting.later) {
        ordered_json change{{"at", later.at}, {"after_shots", later.afterShots}};
        putConditions(change, later.conditions);
        out["later"].push_back(std::move(change));
    }
    return out;
}

record::Sitting sittingFrom(const json& in) {
    record::Sitting sitting{.label = in.at("label").get<std::string>(),
                            .startedAt = in.value("started_at", ""),
                            .conditions = conditionsFrom(in),
                            .later = {}};
    for (const auto& change : in.value("later", json::array()))
        sitting.later.push_back(
            {change.value("at", ""), change.value("after_shots", std::size_t{0}), conditionsFrom(change)});
    return sitting;
}

ordered_json progressJson(const record::Test& test) {
    const record::Progress& progress = test.progress;
    ordered_json out{{"warmed_up", progress.warmedUp},
                     {"confirmed", progress.confirmed},
                     {"named", progress.named},
                     {"handed_over_at", progress.handedOverAt.text()}};
    if (progress.inHand < test.builds.size())
        out["in_hand"] = test.builds[progress.inHand].name;
    else if (progress.inHand == record::nowhere)
        out["in_hand"] = "";
    if (progress.player < test.players.size() && progress.player > 0)
        out["player"] = test.players[progress.player].name;
    if (!progress.delivery.empty())
        out["delivery"] = progress.delivery;
    if (progress.handOverNext)
        out["hand_over_next"] = true;
    if (progress.nextMark != record::Mark::none)
        out["next_mark"] = nameOf(record::markNames, progress.nextMark);
    return out;
}

record::Progress progressFrom(const json& in, const record::Test& test) {
    record::Progress progress;
    progress.warmedUp = in.value("warmed_up", false);
    progress.confirmed = wholeAt(in, "confirmed", 0);
    progress.named = wholeAt(in, "named", 0);
    progress.handedOverAt = in.value("handed_over_at", "");
    if (in.contains("in_hand"))
        progress.inHand = test.buildIndex(in.value("in_hand", "")).value_or(record::nowhere);
    progress.player = test.playerIndex(in.value("player", "")).value_or(record::PlayerAt());
    progress.delivery = in.value("delivery", "");
    progress.handOverNext = in.value("hand_over_next", false);
    progress.nextMark = valueOrRefuse<record::Mark>(record::markNames, in.value("next_mark", "none"));
    return progress;
}

} // namespace

void writeBay(ordered_json& head, const record::Test& test) {
    for (const auto& feel : test.feels)
        head["feels"].push_back(feelJson(test, feel));
    for (const auto& sitting : test.sittings)
        head["sittings"].push_back(sittingJson(sitting));
    for (const auto& event : test.events)
        head["events"].push_back({{"kind", nameOf(record::eventNames, event.kind)},
                                  {"at", event.at},
                                  {"after_shots", event.afterShots},
                                  {"text", event.text}});
    if (test.progress != record::Progress{})
        head["progress"] = progressJson(test);
}

void readBay(const json& head, record::Test& test) {
    for (const auto& feel : head.value("feels", json::array()))
        test.feels.push_back(feelFrom(feel, test));
    for (const auto& sitting : head.value("sittings", json::array()))
        test.sittings.push_back(sittingFrom(sitting));
    for (const auto& event : head.value("events", json::array()))
        test.events.push_back(
            {valueOrRefuse<record::EventKind>(record::eventNames, event.at("kind").get<std::string>()),
             event.value("at", ""), event.value("after_shots", std::size_t{0}), event.value("text", "")});
    if (const auto progress = head.find("progress"); progress != head.end())
        test.progress = progressFrom(*progress, test);
}

} // namespace knot::files
