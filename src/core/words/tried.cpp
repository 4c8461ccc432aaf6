#include "core/words/tried.h"

#include "core/record/roster.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/statistics/moments.h"
#include "core/words/golfers_words.h"
#include "core/words/remarks/feels.h"
#include "core/words/while_hitting.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <utility>

namespace knot::words {
namespace {

using judge::Metric;
using judge::Reading;
using record::BuildAt;
using record::MetricFormat;
using record::Shot;
using record::ShotStatus;
using record::Test;

struct Readings {
    std::vector<double> values;
    double mean() const { return statistics::meanOf(values); }
};

template<typename Is> Readings readingsOf(const Test& test, Metric metric, Is isMeant) {
    Readings readings;
    for (const Shot& shot : test.shots)
        if (shot.status == ShotStatus::counted && isMeant(shot))
            if (const auto value = shot.readings.at(metric))
                readings.values.push_back(*value);
    return readings;
}

std::string seenText(const Test& test, BuildAt club, const Shot& like, const std::vector<Metric>& numbers,
                     bool isOneOfSeveral, const record::DisplayUnits& units) {
    auto isMeant = [&](const Shot& shot) {
        return shot.build == club && shot.player == like.player && shot.delivery == like.delivery;
    };
    const auto shots = std::ranges::count_if(
        test.shots, [&](const Shot& shot) { return shot.status == ShotStatus::counted && isMeant(shot); });
    std::string text = record::counted(static_cast<std::size_t>(shots), "shot");
    if (isOneOfSeveral)
        text += " by " + (like.player.empty() ? test.firstPlayer().name : like.player) +
                (like.delivery.empty() ? "" : ", " + like.delivery);
    std::string list;
    for (const Metric metric : numbers) {
        const Readings readings = readingsOf(test, metric, isMeant);
        if (readings.values.empty())
            continue;
        const MetricFormat format(metric, units);
        const auto [low, high] = std::ranges::minmax(readings.values);
        list += (list.empty() ? "" : ", ") + record::info(metric).label + " " + format.withUnit(readings.mean()) +
                (readings.values.size() > 1 ? " (" + format.range(low, high) + ")" : "");
    }
    return text + (list.empty() ? "" : ": " + list);
}

std::string saidText(const Test& test, BuildAt club, const record::DisplayUnits& units) {
    std::string text;
    auto add = [&](const std::string& part) {
        if (!part.empty())
            text += (text.empty() ? "" : "; ") + part;
    };
    for (record::Feel feel : test.feels) {
        if (feel.build != club)
            continue;
        const std::string seen = expectedSeen(test, feel, units);
        feel.expected.clear();
        add(feelText(feel));
        add(seen);
    }
    return text;
}

} // namespace

std::string expectedSeen(const Test& test, const record::Feel& feel, const record::DisplayUnits& units) {
    const auto expected = expectedIn(feel.expected);
    if (feel.expected.empty() || !expected)
        return {};
    const BuildAt own = test.baselineIndex();
    std::string text = "expected " + feel.expected;
    std::string found;
    for (const Meant& meant : *expected) {
        const Metric metric = meant.outcome.metric;
        const std::string label = record::info(metric).label;
        const auto stint = readingsOf(
            test, metric, [&](const Shot& shot) { return shot.build == feel.build && shot.turn == feel.turn; });
        const auto owns = readingsOf(test, metric, [&](const Shot& shot) { return shot.build == own; });
        found += found.empty() ? ": " : ", ";
        if (meant.outcome.kind != record::OutcomeKind::average || own == feel.build || stint.values.empty() ||
            owns.values.empty()) {
            found += label + " can't be told";
            continue;
        }
        const double gap = stint.mean() - owns.mean();
        const bool isMore = meant.want == record::Want::Kind::more;
        found += MetricFormat(metric, units).withUnit(std::fabs(gap)) + (gap > 0 ? " more " : " less ") + label +
                 ((gap > 0) == isMore ? ", as said" : ", not as said");
    }
    return text + found + ", as seen";
}

std::vector<Tried> tried(const Test& test, const record::DisplayUnits& units) {
    std::vector<Tried> all;
    const record::Roster roster(test);
    const auto numbers = numbersFor(test, {});
    std::set<std::pair<std::string, std::string>> settings;
    for (const Shot& shot : test.shots)
        if (shot.status == ShotStatus::counted)
            settings.insert({shot.player, shot.delivery});
    std::set<std::pair<BuildAt, std::pair<std::string, std::string>>> told;
    for (const Shot& shot : test.shots) {
        if (shot.status != ShotStatus::counted || !told.insert({shot.build, {shot.player, shot.delivery}}).second)
            continue;
        auto at = std::ranges::find(all, shot.build, &Tried::club);
        if (at == all.end()) {
            all.push_back({.club = shot.build,
                           .name = test.builds[shot.build].name,
                           .seen = {},
                           .said = saidText(test, shot.build, units),
                           .left = roster.isIn(shot.build) ? std::string() : roster.whyOut(shot.build)});
            at = std::prev(all.end());
            if (!roster.isIn(shot.build) && at->left.empty())
                at->left = "no reason given";
        }
        at->seen.push_back(seenText(test, shot.build, shot, numbers, settings.size() > 1, units));
    }
    return all;
}

std::string sentenceOf(const Tried& one) {
    std::string text = one.name;
    for (const std::string& seen : one.seen)
        text += (&seen == &one.seen.front() ? ", " : "; ") + seen;
    text += ".";
    if (!one.said.empty())
        text += " " + record::upperFirst(one.said) + ".";
    if (!one.left.empty())
        text += " Left: " + one.left + ".";
    return text;
}

namespace {

// Of the scales on which more is better; nothing where nothing was said.
std::optional<double> likingOf(const Test& test, BuildAt build) {
    using Scale = record::FeelScale;
    double sum = 0;
    int count = 0;
    for (const record::Feel& feel : test.feels)
        if (feel.build == build) {
            for (const Scale scale : {Scale::liveliness, Scale::control, Scale::look, Scale::confidence, Scale::sound})
                if (const int score = feel.scores[static_cast<std::size_t>(scale)]; score > 0) {
                    sum += score;
                    ++count;
                }
            if (feel.versus == record::Versus::better || feel.versus == record::Versus::worse) {
                sum += feel.versus == record::Versus::better ? 8 : 3;
                ++count;
            }
        }
    return count > 0 ? std::optional(sum / count) : std::nullopt;
}

bool isLikedBest(const Test& test, BuildAt build) {
    const auto own = likingOf(test, build);
    bool isOther = false;
    for (BuildAt other; other < test.builds.size(); ++other)
        if (const auto liking = other == build ? std::nullopt : likingOf(test, other)) {
            isOther = true;
            if (!own || *liking >= *own)
                return false;
        }
    return own && isOther;
}

struct Side {
    Metric metric;
    const char *more, *less, *same;
};
constexpr std::array sides = {Side{Metric::carry, "farther", "shorter", "about as far"},
                              Side{Metric::launch, "higher", "lower", ""},
                              Side{Metric::descent, "comes down steeper", "comes down flatter", "comes down as steep"}};

} // namespace

std::string tradeOff(const Test& test, const Reading& reading, BuildAt build, const record::DisplayUnits& units) {
    std::vector<std::string> parts;
    const std::string& own = reading.builds[reading.baseline].name;
    for (const Side& side : sides)
        for (const judge::BetOnPair& bet : reading.bets) {
            const bool isForth = bet.build == build && bet.against == reading.baseline;
            if (bet.metric != side.metric || (!isForth && (bet.against != build || bet.build != reading.baseline)))
                continue;
            const double expected = isForth ? bet.expected : -bet.expected;
            const bool isSame = std::fabs(expected) < reading.card.margin(side.metric) / 2;
            std::string part = isSame ? side.same : expected > 0 ? side.more : side.less;
            if (!isSame && side.metric == Metric::carry)
                part = MetricFormat(side.metric, units).withUnit(std::fabs(expected)) + " " + part;
            if (!part.empty())
                parts.push_back(part + (parts.empty() ? (isSame ? " as " : " than ") + own : ""));
        }
    const auto* mine = reading.summaryOf(Metric::side, build);
    const auto* owns = reading.summaryOf(Metric::side, reading.baseline);
    constexpr double clearly = 0.8;
    if (build != reading.baseline && mine != nullptr && owns != nullptr && mine->sd && owns->sd && *owns->sd > 0 &&
        *mine->sd < clearly * *owns->sd)
        parts.emplace_back("straighter, as seen");
    std::string text;
    for (std::size_t i = 0; i < parts.size(); ++i)
        text += (i == 0 ? "" : ", ") + parts[i];
    if (isLikedBest(test, build))
        text += (text.empty() ? "" : "; ") + std::string("liked best");
    return text;
}

} // namespace knot::words
