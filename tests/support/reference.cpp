#include "support/reference.h"

#include "files/import/shot_file.h"
#include "files/reading_json.h"

#include <cmath>
#include <fstream>
#include <stdexcept>

namespace knot::test {
namespace {

const std::string folder = std::string(KNOT_TEST_DATA) + "/reference/";

void differencesOfNumbers(double expected, double actual, double tolerance, const std::string& place,
                          std::vector<std::string>& lines) {
    const double gap = std::fabs(expected - actual);
    if (gap <= tolerance * std::fabs(expected) || gap <= 1e-12)
        return;
    lines.push_back(place + ": expected " + std::to_string(expected) + ", got " + std::to_string(actual));
}

} // namespace

nlohmann::json loadJson(const std::string& name) {
    std::ifstream in(folder + name + ".json");
    return nlohmann::json::parse(in);
}

Reference loadReference(const std::string& name) {
    Reference reference;
    reference.expected = loadJson(name);
    auto imported = files::readShotFile(folder + name + ".csv");
    if (!imported)
        throw std::runtime_error(files::sentence(imported.error()));
    reference.test = std::move(imported->test);
    record::Card& card = reference.test.card;
    card.baseline = reference.expected.value("baseline", "");
    const auto primary = reference.expected.value("primary", nlohmann::json::array());
    for (const auto& outcome : primary.is_string() ? nlohmann::json::array({primary}) : primary)
        card.primary.push_back(*record::outcomeFromText(outcome));
    if (name == "weight_ladder")
        card.trendColumn = "weight_g";
    if (name == "two_deliveries") {
        card.baseline = "Alder";
        card.factorColumn = "delivery";
    }
    if (name == "strike_and_drift")
        card.covariates = {record::Metric::strikeHigh};
    const auto margins = reference.expected.value("margins", nlohmann::json::object());
    for (const auto& [key, margin] : margins.items())
        card.margins[*record::metricFromKey(key)] = margin;
    return reference;
}

nlohmann::json readingOf(const record::Test& test) {
    return nlohmann::json::parse(files::readingJson(*judge::judge({.subject = judge::Case::of(test)})));
}

std::vector<std::string> differences(const nlohmann::json& expected, const nlohmann::json& actual, double tolerance,
                                     const std::string& place) {
    std::vector<std::string> lines;
    auto append = [&](const std::vector<std::string>& more) { lines.insert(lines.end(), more.begin(), more.end()); };
    if (expected.is_object()) {
        for (const auto& [key, value] : expected.items())
            if (!actual.contains(key))
                lines.push_back(place + "/" + key + ": missing");
            else
                append(
                    differences(value, actual.at(key), key.starts_with("var_") ? 1e-4 : tolerance, place + "/" + key));
    } else if (expected.is_array()) {
        if (!actual.is_array() || actual.size() != expected.size())
            return {place + ": another length"};
        for (std::size_t i = 0; i < expected.size(); ++i)
            append(differences(expected[i], actual[i], tolerance, place + "[" + std::to_string(i) + "]"));
    } else if (expected.is_number()) {
        // A variance at its border is 0 or a rounding residue.
        const bool border = place.ends_with("var_turn") && expected.get<double>() < 1e-9;
        if (!actual.is_number())
            lines.push_back(place + ": no number");
        else if (!border || actual.get<double>() > 1e-6)
            differencesOfNumbers(expected, actual, tolerance, place, lines);
    } else if (expected != actual) {
        lines.push_back(place + ": expected " + expected.dump() + ", got " + actual.dump());
    }
    return lines;
}

} // namespace knot::test
