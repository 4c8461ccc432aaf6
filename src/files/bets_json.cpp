#include "files/bets_json.h"

#include <array>

namespace knot::files {
namespace {

using judge::Reading;
using nlohmann::ordered_json;

constexpr std::array swingWords = {"same", "differs", "open"};

ordered_json pairOf(const Reading& reading, const auto& row) {
    return {{"metric", record::info(row.metric).key},
            {"build", reading.builds[row.build].name},
            {"against", reading.builds[row.against].name}};
}

} // namespace

void writeBets(ordered_json& json, const Reading& reading) {
    json["bets"] = ordered_json::array();
    for (const auto& bet : reading.bets) {
        auto row = pairOf(reading, bet);
        row["ahead"] = bet.ahead;
        row["expected"] = bet.expected;
        row["sd"] = bet.sd;
        row["low80"] = bet.low80;
        row["high80"] = bet.high80;
        row["halved"] = {{"ahead", bet.halved.ahead}, {"expected", bet.halved.expected}};
        row["doubled"] = {{"ahead", bet.doubled.ahead}, {"expected", bet.doubled.expected}};
        json["bets"].push_back(std::move(row));
    }
    json["best_bet"] = ordered_json::array();
    for (const auto& best : reading.bestBets)
        json["best_bet"].push_back({{"metric", record::info(best.metric).key},
                                    {"build", reading.builds[best.build].name},
                                    {"chance", best.chance},
                                    {"loss", best.loss}});
    json["whose_doing"] = ordered_json::array();
    for (const auto& whose : reading.whoseDoing) {
        ordered_json row{{"metric", record::info(whose.metric).key}, {"n", whose.n}};
        for (const auto& part : whose.shares)
            row["shares"][part.cause] = part.share;
        for (const auto& part : whose.shares)
            if (part.ci95)
                row["shares_ci95"][part.cause] = {part.ci95->low, part.ci95->high};
        row["rest"] = whose.rest;
        for (const auto cause : whose.leftOut)
            row["left_out"].push_back(record::info(cause).key);
        json["whose_doing"].push_back(std::move(row));
    }
    json["same_swing"] = ordered_json::array();
    for (const auto& swing : reading.sameSwing) {
        auto row = pairOf(reading, swing);
        row["verdict"] = swingWords[static_cast<std::size_t>(swing.verdict)];
        row["gap"] = swing.gap;
        if (swing.ci90)
            row["ci90"] = {swing.ci90->low, swing.ci90->high};
        if (swing.asSeen)
            row["as_seen"] = true;
        json["same_swing"].push_back(std::move(row));
    }
}

} // namespace knot::files
