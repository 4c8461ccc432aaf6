#include "files/card_json.h"

#include <algorithm>

namespace knot::files {
namespace {

using nlohmann::json;
using nlohmann::ordered_json;
using record::Card;
using record::Metric;
using record::Want;

record::Outcome outcomeNamed(const std::string& text) {
    if (const auto outcome = record::outcomeFromText(text))
        return *outcome;
    throw Unreadable{"unknown outcome '" + text + "'"};
}

void putOutcomes(ordered_json& out, const Card& card) {
    out["primary"] = ordered_json::array();
    for (const auto& outcome : card.primary)
        out["primary"].push_back(record::outcomeText(outcome));
    out["want"] = ordered_json::object();
    for (const auto& [outcome, want] : card.wants) {
        ordered_json& entry = out["want"][record::outcomeText(outcome)];
        entry["kind"] = nameOf(record::wantNames, want.kind);
        if (want.kind == Want::Kind::near)
            entry["value"] = want.value;
    }
    out["margins"] = ordered_json::object();
    for (const auto& [metric, gap] : card.margins)
        out["margins"][record::info(metric).key] = gap;
    out["expectations"] = ordered_json::object();
    for (const auto& [metric, expected] : card.expectations)
        out["expectations"][record::info(metric).key] = nameOf(record::expectationNames, expected);
    if (!card.expectedOrder.empty())
        out["expected_order"] = card.expectedOrder;
    if (!card.expectedBy.empty())
        out["expected_by"] = card.expectedBy;
}

void putWindows(ordered_json& out, const Card& card) {
    out["shapes"] = ordered_json::array();
    for (const auto& shape : card.shapes)
        out["shapes"].push_back({{"name", shape.name},
                                 {"kind", nameOf(record::shapeNames, shape.kind)},
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
}

void readOutcomes(Card& card, const json& in) {
    for (const auto& outcome : in.at("primary")) // one that is named twice is one
        if (const auto named = outcomeNamed(outcome.get<std::string>());
            std::ranges::find(card.primary, named) == card.primary.end())
            card.primary.push_back(named);
    for (const auto& [outcome, want] : in.at("want").items())
        card.wants[outcomeNamed(outcome)] = {
            valueOrRefuse<Want::Kind>(record::wantNames, want.at("kind").get<std::string>()), want.value("value", 0.0)};
    for (const auto& [metric, gap] : in.at("margins").items())
        card.margins[metricNamed(metric)] = gap.get<double>();
    const json expectations = in.value("expectations", json::object());
    for (const auto& [metric, expected] : expectations.items())
        card.expectations[metricNamed(metric)] =
            valueOrRefuse<record::Expectation>(record::expectationNames, expected.get<std::string>());
    card.expectedOrder = in.value("expected_order", std::vector<std::string>());
    card.expectedBy = in.value("expected_by", "");
}

void readWindows(Card& card, const json& in) {
    for (const auto& shape : in.value("shapes", json::array()))
        card.shapes.push_back(
            {valueOrRefuse<record::Shape::Kind>(record::shapeNames, shape.at("kind").get<std::string>()),
             shape.at("name").get<std::string>(), shape.value("side", 0.0), shape.value("carry", 0.0),
             shape.at("width").get<double>(), shape.value("depth", 0.0)});
    for (const auto& target : in.value("targets", json::array()))
        card.targets.push_back({metricNamed(target.at("metric").get<std::string>()), target.value("build", ""),
                                target.at("low").get<double>(), target.at("high").get<double>()});
}

} // namespace

ordered_json cardJson(const Card& card) {
    ordered_json out;
    out["kind"] = nameOf(record::kindNames, card.kind);
    if (!card.clubKind.empty())
        out["club_kind"] = card.clubKind;
    out["factor"] = card.factor;
    out["comparison"] = nameOf(record::comparisonNames, card.comparison);
    out["baseline"] = card.baseline;
    putOutcomes(out, card);
    out["sd_ratio_margin"] = card.sdRatioMargin;
    out["area_ratio_margin"] = card.areaRatioMargin;
    out["alpha"] = card.alpha;
    out["looks"] = nameOf(record::looksNames, card.looks);
    out["planned_rounds"] = card.plannedRounds;
    out["held"] = ordered_json::array();
    for (const auto& held : card.held)
        out["held"].push_back({{"what", held.what}, {"held", held.held}, {"slip", held.slip}});
    out["blinding"] = nameOf(record::blindingNames, card.blinding);
    out["alone"] = card.alone;
    out["sees"] = {{"shots", nameOf(record::seesNames, card.visibility.shots)},
                   {"averages", nameOf(record::seesNames, card.visibility.averages)},
                   {"comparisons", nameOf(record::seesNames, card.visibility.comparisons)}};
    out["trend_column"] = card.trendColumn;
    out["factor_column"] = card.factorColumn;
    out["covariates"] = ordered_json::array();
    for (const Metric metric : card.covariates)
        out["covariates"].push_back(record::info(metric).key);
    if (card.aim)
        out["aim"] = {{"carry", card.aim->carry}, {"side", card.aim->side}};
    out["set_aside_rule"] = nameOf(record::ruleNames, card.setAsideRule);
    out["replace_set_aside"] = card.replaceSetAside;
    out["good_shots"] = card.goodShots;
    putWindows(out, card);
    return out;
}

Card cardFrom(const json& in) {
    Card card;
    card.kind = valueOrRefuse<record::TestKind>(record::kindNames, in.value("kind", "own"));
    card.clubKind = in.value("club_kind", "");
    card.factor = in.value("factor", "");
    card.comparison =
        valueOrRefuse<record::Comparison>(record::comparisonNames, in.at("comparison").get<std::string>());
    card.baseline = in.at("baseline").get<std::string>();
    readOutcomes(card, in);
    card.sdRatioMargin = in.at("sd_ratio_margin").get<double>();
    card.areaRatioMargin = in.at("area_ratio_margin").get<double>();
    card.alpha = in.at("alpha").get<double>();
    card.looks = valueOrRefuse<record::Looks>(record::looksNames, in.value("looks", "none"));
    card.plannedRounds = wholeAt(in, "planned_rounds", 0);
    for (const auto& held : in.value("held", json::array()))
        card.held.push_back({held.at("what").get<std::string>(), held.value("held", true), held.value("slip", "")});
    card.blinding = valueOrRefuse<record::Blinding>(record::blindingNames, in.value("blinding", "open"));
    card.alone = in.value("alone", false);
    if (const auto sees = in.find("sees"); sees != in.end()) {
        auto who = [&](const char* what) {
            return valueOrRefuse<record::Sees>(record::seesNames, sees->at(what).get<std::string>());
        };
        card.visibility = {who("shots"), who("averages"), who("comparisons")};
    }
    card.trendColumn = in.value("trend_column", "");
    card.factorColumn = in.value("factor_column", "");
    for (const auto& metric : in.at("covariates"))
        card.covariates.push_back(metricNamed(metric.get<std::string>()));
    if (const auto aim = in.find("aim"); aim != in.end())
        card.aim = record::Aim{aim->at("carry").get<double>(), aim->value("side", 0.0)};
    card.setAsideRule = valueOrRefuse<record::SetAsideRule>(record::ruleNames, in.value("set_aside_rule", "called"));
    card.replaceSetAside = in.value("replace_set_aside", true);
    card.goodShots = wholeAt(in, "good_shots", 0);
    readWindows(card, in);
    return card;
}

} // namespace knot::files
