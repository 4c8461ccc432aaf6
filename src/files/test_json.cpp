#include "files/test_json.h"

#include "files/text_decoding.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <filesystem>

namespace knot::files {
namespace {

using nlohmann::json;
using nlohmann::ordered_json;
using record::Card;
using record::Metric;
using record::Shot;
using record::Test;
using record::Want;

constexpr int version = 1;
constexpr std::array<const char*, 3> statusNames = {"counted", "set_aside", "warm_up"};
constexpr std::array<const char*, 5> ruleNames = {"keep_all", "called", "until_good", "by_numbers", "best_and_worst"};
constexpr std::array<const char*, 3> shapeNames = {"fairway", "ellipse", "rectangle"};
constexpr std::array<const char*, 3> markNames = {"none", "club", "player"};
constexpr std::array<const char*, 4> wantNames = {"none", "more", "less", "near"};

// Text members of a shot, which are left out when empty.
constexpr std::array<std::pair<const char*, std::string Shot::*>, 9> textMembers = {{{"shot", &Shot::number},
                                                                                     {"sitting", &Shot::sitting},
                                                                                     {"player", &Shot::player},
                                                                                     {"round", &Shot::round},
                                                                                     {"turn", &Shot::turn},
                                                                                     {"delivery", &Shot::delivery},
                                                                                     {"reason", &Shot::reason},
                                                                                     {"taken_at", &Shot::takenAt},
                                                                                     {"note", &Shot::note}}};

struct Unreadable {
    std::string why;
};

template<std::size_t N> std::size_t indexOf(const std::array<const char*, N>& names, const std::string& text) {
    for (std::size_t i = 0; i < N; ++i)
        if (text == names[i])
            return i;
    throw Unreadable{"unknown word '" + text + "'"};
}

ordered_json cardJson(const Card& card) {
    ordered_json out;
    out["comparison"] = card.comparison == record::Comparison::whichOfThese ? "which_of_these" : "against_baseline";
    out["baseline"] = card.baseline;
    out["primary"] = ordered_json::array();
    for (const auto& outcome : card.primary)
        out["primary"].push_back(record::outcomeText(outcome));
    out["want"] = ordered_json::object();
    for (const auto& [outcome, want] : card.wants) {
        ordered_json& entry = out["want"][record::outcomeText(outcome)];
        entry["kind"] = wantNames[static_cast<std::size_t>(want.kind)];
        if (want.kind == Want::Kind::near)
            entry["value"] = want.value;
    }
    out["margins"] = ordered_json::object();
    for (const auto& [metric, gap] : card.margins)
        out["margins"][record::info(metric).key] = gap;
    out["sd_ratio_margin"] = card.sdRatioMargin;
    out["area_ratio_margin"] = card.areaRatioMargin;
    out["alpha"] = card.alpha;
    out["trend_column"] = card.trendColumn;
    out["factor_column"] = card.factorColumn;
    out["covariates"] = ordered_json::array();
    for (const Metric metric : card.covariates)
        out["covariates"].push_back(record::info(metric).key);
    out["set_aside_rule"] = ruleNames[static_cast<std::size_t>(card.setAsideRule)];
    out["shapes"] = ordered_json::array();
    for (const auto& shape : card.shapes)
        out["shapes"].push_back({{"name", shape.name},
                                 {"kind", shapeNames[static_cast<std::size_t>(shape.kind)]},
                                 {"side", shape.side},
                                 {"carry", shape.carry},
                                 {"width", shape.width},
                                 {"depth", shape.depth}});
    out["targets"] = ordered_json::array();
    for (const auto& target : card.targets)
        out["targets"].push_back({{"metric", record::info(target.metric).key},
                                  {"build", target.build},
                                  {"low", target.low},
                                  {"high", target.high}});
    return out;
}

ordered_json shotJson(const Test& test, const Shot& shot) {
    ordered_json out;
    out["build"] = test.builds[shot.build].name;
    out["status"] = statusNames[static_cast<std::size_t>(shot.status)];
    for (const auto& [name, member] : textMembers)
        if (!(shot.*member).empty())
            out[name] = shot.*member;
    if (shot.handedOver)
        out["handed_over"] = true;
    if (shot.mark != record::Mark::none)
        out["mark"] = markNames[static_cast<std::size_t>(shot.mark)];
    if (shot.feel > 0)
        out["feel"] = shot.feel;
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

Metric metricNamed(const std::string& key) {
    if (const auto metric = record::metricFromKey(key))
        return *metric;
    throw Unreadable{"unknown metric '" + key + "'"};
}

record::Outcome outcomeNamed(const std::string& text) {
    if (const auto outcome = record::outcomeFromText(text))
        return *outcome;
    throw Unreadable{"unknown outcome '" + text + "'"};
}

double within(double value, double low, double high, const char* name) {
    if (!(value > low && value < high))
        throw Unreadable{std::string(name) + " is out of range"};
    return value;
}

Card cardFrom(const json& in) {
    Card card;
    card.comparison = in.at("comparison") == "which_of_these" ? record::Comparison::whichOfThese
                                                              : record::Comparison::againstBaseline;
    card.baseline = in.at("baseline").get<std::string>();
    for (const auto& outcome : in.at("primary"))
        card.primary.push_back(outcomeNamed(outcome.get<std::string>()));
    for (const auto& [outcome, want] : in.at("want").items())
        card.wants[outcomeNamed(outcome)] = {
            static_cast<Want::Kind>(indexOf(wantNames, want.at("kind").get<std::string>())), want.value("value", 0.0)};
    for (const auto& [metric, gap] : in.at("margins").items())
        card.margins[metricNamed(metric)] = within(gap.get<double>(), 0, 1e9, "a worthwhile gap");
    card.sdRatioMargin = within(in.at("sd_ratio_margin").get<double>(), 1, 1e3, "sd_ratio_margin");
    card.areaRatioMargin = within(in.at("area_ratio_margin").get<double>(), 1, 1e3, "area_ratio_margin");
    card.alpha = within(in.at("alpha").get<double>(), 0, 1, "alpha");
    card.trendColumn = in.value("trend_column", "");
    card.factorColumn = in.value("factor_column", "");
    for (const auto& metric : in.at("covariates"))
        card.covariates.push_back(metricNamed(metric.get<std::string>()));
    card.setAsideRule = static_cast<record::SetAsideRule>(indexOf(ruleNames, in.value("set_aside_rule", "called")));
    for (const auto& shape : in.value("shapes", json::array()))
        card.shapes.push_back(
            {static_cast<record::Shape::Kind>(indexOf(shapeNames, shape.at("kind").get<std::string>())),
             shape.at("name").get<std::string>(), shape.value("side", 0.0), shape.value("carry", 0.0),
             within(shape.at("width").get<double>(), 0, 1e4, "the width of a shape"), shape.value("depth", 0.0)});
    for (const auto& target : in.value("targets", json::array()))
        card.targets.push_back({metricNamed(target.at("metric").get<std::string>()), target.value("build", ""),
                                target.at("low").get<double>(), target.at("high").get<double>()});
    return card;
}

Shot shotFrom(const json& in, const Test& test) {
    Shot shot;
    const auto build = test.buildIndex(in.at("build").get<std::string>());
    if (!build)
        throw Unreadable{"a shot names the build '" + in.at("build").get<std::string>() + "', which is not listed"};
    shot.build = *build;
    shot.status = static_cast<record::ShotStatus>(indexOf(statusNames, in.at("status").get<std::string>()));
    for (const auto& [name, member] : textMembers)
        shot.*member = in.value(name, "");
    shot.mark = static_cast<record::Mark>(indexOf(markNames, in.value("mark", "none")));
    shot.handedOver = in.value("handed_over", false);
    shot.feel = in.value("feel", 0);
    const auto modelled = in.value("modelled", std::vector<std::string>{});
    for (const auto& [key, value] : in.at("metrics").items()) {
        const Metric metric = metricNamed(key);
        const bool isModelled = std::ranges::find(modelled, key) != modelled.end();
        isModelled ? shot.readings.model(metric, value.get<double>())
                   : shot.readings.measure(metric, value.get<double>());
    }
    record::deriveMissing(shot.readings);
    shot.extra = in.value("extra", std::vector<std::string>{});
    if (shot.extra.size() != test.extraColumns.size())
        throw Unreadable{"a shot has " + std::to_string(shot.extra.size()) + " extra cells for " +
                         std::to_string(test.extraColumns.size()) + " columns"};
    return shot;
}

Test testFrom(const json& in) {
    Test test;
    test.title = in.at("title").get<std::string>();
    test.question = in.value("question", "");
    test.player = in.value("player", "");
    test.createdAt = in.value("created_at", "");
    for (const auto& build : in.at("builds"))
        test.builds.push_back({build.at("build").get<std::string>(), build.value("note", "")});
    test.extraColumns = in.value("extra_columns", std::vector<std::string>{});
    test.card = cardFrom(in.at("card"));
    for (const auto& shot : in.at("shots"))
        test.shots.push_back(shotFrom(shot, test));
    return test;
}

} // namespace

std::string testJson(const Test& test) {
    ordered_json out;
    out["format"] = "knotcount.test";
    out["version"] = version;
    out["title"] = test.title;
    out["question"] = test.question;
    out["player"] = test.player;
    out["created_at"] = test.createdAt;
    out["builds"] = ordered_json::array();
    for (const auto& build : test.builds)
        out["builds"].push_back({{"build", build.name}, {"note", build.note}});
    out["extra_columns"] = test.extraColumns;
    out["card"] = cardJson(test.card);
    out["shots"] = ordered_json::array();
    for (const Shot& shot : test.shots)
        out["shots"].push_back(shotJson(test, shot));
    return out.dump(1, ' ', false, json::error_handler_t::replace) + "\n";
}

Result<ImportedTest> readTestJson(const std::string& file, const std::string& text) {
    auto refuse = [&](ErrorKind kind, const std::string& found, const std::string& expected = {}) {
        return tl::unexpected(Error{kind, file, 0, 0, {}, found, expected});
    };
    try {
        const json in = json::parse(text);
        if (in.value("format", "") != "knotcount.test")
            return refuse(ErrorKind::notATest, "its format is another");
        if (const int found = in.at("version").get<int>(); found > version)
            return refuse(ErrorKind::newerTest, std::to_string(found), std::to_string(version));
        return ImportedTest{testFrom(in), {}};
    } catch (const Unreadable& reason) {
        return refuse(ErrorKind::notATest, reason.why);
    } catch (const json::parse_error& e) {
        return refuse(ErrorKind::notATest, "not JSON from byte " + std::to_string(e.byte) + " on");
    } catch (const json::exception&) {
        return refuse(ErrorKind::notATest, "a member is missing or of the wrong type");
    }
}

Result<ImportedTest> readTestFile(const std::string& path) {
    auto bytes = readFile(path);
    if (!bytes)
        return tl::unexpected(bytes.error());
    return readTestJson(std::filesystem::path(path).filename().string(), *bytes);
}

} // namespace knot::files
