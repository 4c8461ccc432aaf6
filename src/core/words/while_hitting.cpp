#include "core/words/while_hitting.h"

#include "core/rack/club_kind.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/statistics/moments.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace knot::words {
namespace {

using flight::HeadKind;
using record::BuildAt;
using record::Metric;
using record::MetricFormat;
using record::Shot;
using record::ShotStatus;
using record::Test;

std::array<Metric, mostNumbers> usualNumbers(HeadKind kind) {
    switch (kind) {
    case HeadKind::driver:
        return {Metric::carry, Metric::ballSpeed, Metric::launch, Metric::spin};
    case HeadKind::wood:
        return {Metric::carry, Metric::launch, Metric::spin, Metric::descent};
    case HeadKind::iron:
        return {Metric::carry, Metric::launch, Metric::spin, Metric::descent};
    case HeadKind::wedge:
        return {Metric::carry, Metric::spin, Metric::descent, Metric::apex};
    }
    return {};
}

} // namespace

std::vector<Metric> numbersFor(const Test& test, const std::vector<Metric>& chosen) {
    std::vector<Metric> numbers;
    const auto read = test.metricsRead();
    auto add = [&](Metric metric) {
        if (numbers.size() < mostNumbers && std::ranges::find(numbers, metric) == numbers.end() &&
            (read.empty() || std::ranges::find(read, metric) != read.end()))
            numbers.push_back(metric);
    };
    for (const record::Outcome& outcome : test.card.primary)
        if (outcome.kind == record::OutcomeKind::area || outcome.kind == record::OutcomeKind::share) {
            add(Metric::carry);
            add(Metric::side);
        } else {
            add(outcome.metric);
        }
    std::ranges::for_each(chosen, add);
    if (chosen.empty())
        std::ranges::for_each(usualNumbers(rack::ClubKinds(test).first()), add);
    if (numbers.empty()) // nothing of that was read
        std::ranges::for_each(read, add);
    return numbers;
}

namespace {

// Those of one club that count, by one player and with one delivery; as `build` of the case.
struct Values {
    std::vector<double> all;
    double mean() const { return statistics::meanOf(all); }
    double sd() const { return statistics::standardDeviation(all); }
};

Values valuesOf(const Test& test, BuildAt build, const Shot& like, Metric metric, const Shot* without = nullptr) {
    Values values;
    for (const Shot& shot : test.shots)
        if (&shot != without && shot.build == build && shot.status == ShotStatus::counted &&
            shot.player == like.player && shot.delivery == like.delivery)
            if (const auto value = shot.readings.at(metric))
                values.all.push_back(*value);
    return values;
}

} // namespace

std::vector<NumberSoFar> numbersSoFar(const judge::Case& subject, BuildAt club, std::span<const Metric> numbers) {
    const Test& test = subject.test();
    std::vector<NumberSoFar> soFar;
    if (test.shots.empty() || club >= subject.clubs())
        return soFar;
    BuildAt latest = club; // a club that was changed stands with what was struck since
    for (BuildAt build; build < test.builds.size(); ++build)
        if (subject.clubOf(build) == club)
            latest = build;
    const BuildAt own = test.baselineIndex();
    for (const Metric metric : numbers) {
        const Values values = valuesOf(test, latest, test.shots.back(), metric);
        if (values.all.empty())
            continue;
        NumberSoFar number{.metric = metric,
                           .shots = values.all.size(),
                           .mean = values.mean(),
                           .low = *std::ranges::min_element(values.all),
                           .high = *std::ranges::max_element(values.all),
                           .onOwn = {}};
        if (const Values owns = valuesOf(test, own, test.shots.back(), metric); own != latest && !owns.all.empty())
            number.onOwn = number.mean - owns.mean();
        soFar.push_back(number);
    }
    return soFar;
}

std::string soFarText(const NumberSoFar& number, const record::DisplayUnits& units) {
    const MetricFormat format(number.metric, units);
    std::string text = format.number(number.mean);
    if (number.shots > 1)
        text += " (" + format.range(number.low, number.high) + ")";
    if (number.onOwn)
        text += "\n" + format.signedNumber(*number.onOwn);
    return text;
}

std::string somebodyElse(const Test& test, const record::DisplayUnits& units) {
    constexpr std::size_t others = 4;
    constexpr double leastFar = 5; // m/s
    constexpr double farInSds = 4;
    if (test.shots.size() < others + 2)
        return {};
    const Shot& last = test.shots.back();
    std::vector<const Shot*> own;
    for (const Shot& shot : test.shots)
        if (shot.build == last.build && shot.player == last.player && shot.sitting == last.sitting &&
            shot.status != ShotStatus::warmUp && shot.delivery == last.delivery)
            own.push_back(&shot);
    for (const Metric metric : {Metric::clubSpeed, Metric::ballSpeed}) {
        Values values;
        for (const Shot* shot : own)
            if (const auto value = shot->readings.at(metric))
                values.all.push_back(*value);
        if (values.all.size() < others + 2 || !last.readings.at(metric))
            continue;
        const double second = values.all.back();
        const double first = values.all[values.all.size() - 2];
        values.all.resize(values.all.size() - 2);
        const double far = std::max(leastFar, farInSds * values.sd());
        const double mean = values.mean();
        const bool isFaster = first > mean + far && second > mean + far;
        // A slow ball may only be badly struck; a slow club is another player's.
        const bool isSlower = metric == Metric::clubSpeed && first < mean - far && second < mean - far;
        const double before = values.all.back();
        const bool wasSaid = std::fabs(before - mean) > far;
        if ((!isFaster && !isSlower) || wasSaid)
            return {};
        const std::string whose = last.player.empty() ? test.firstPlayer().name : last.player;
        return "The last two shots are " +
               MetricFormat(metric, units).withUnit(std::fabs((first + second) / 2 - mean)) +
               (isFaster ? " faster" : " slower") + " than " + (whose.empty() ? "this player" : whose) +
               "'s others with " + test.builds[last.build].name +
               ": somebody else? J brings another player, L puts the shots right.";
    }
    return {};
}

namespace {

constexpr std::size_t fewest = 3;
constexpr double worthAWord = 1; // SDs of the club's other shots

// How one number of a shot lies beside the club's others, in words; empty where it lies among them.
struct Beside {
    Metric metric;
    const char *more, *less; ///< "more ball speed", "lower"
};
constexpr std::array delivered = {Beside{Metric::clubSpeed, "more club speed", "less club speed"},
                                  Beside{Metric::attack, "more upward", "more downward"},
                                  Beside{Metric::dynamicLoft, "more loft", "less loft"},
                                  Beside{Metric::path, "more from the left", "more from the right"},
                                  Beside{Metric::face, "the face farther right", "the face farther left"}};
constexpr std::array flown = {Beside{Metric::ballSpeed, "more ball speed", "less ball speed"},
                              Beside{Metric::launch, "higher", "lower"}, Beside{Metric::spin, "more spin", "less spin"},
                              Beside{Metric::apex, "more height", "less height"}};

std::string joined(const std::vector<std::string>& parts) {
    std::string text;
    for (std::size_t i = 0; i < parts.size(); ++i)
        text += (i == 0 ? "" : i + 1 == parts.size() ? " and " : ", ") + parts[i];
    return text;
}

} // namespace

std::string shotExplained(const Test& test, record::ShotAt at, const record::DisplayUnits& units) {
    const Shot& shot = test.shots[at];
    const std::string name =
        "Shot " + std::to_string(static_cast<std::size_t>(at) + 1) + ", " + test.builds[shot.build].name;
    auto others = [&](Metric metric) { return valuesOf(test, shot.build, shot, metric, &shot); };
    auto gap = [&](Metric metric, const Values& values) {
        const double own = *shot.readings.at(metric);
        return MetricFormat(metric, units).withUnit(std::fabs(own - values.mean()));
    };
    auto said = [&](const auto& metrics) {
        std::vector<std::string> parts;
        for (const Beside& one : metrics) {
            const auto value = shot.readings.at(one.metric);
            const Values values = others(one.metric);
            if (value && values.all.size() >= fewest && std::fabs(*value - values.mean()) > worthAWord * values.sd())
                parts.push_back(gap(one.metric, values) + " " + (*value > values.mean() ? one.more : one.less));
        }
        return joined(parts);
    };
    bool hasUsual = false;
    for (const Metric metric : test.metricsRead())
        hasUsual = hasUsual || others(metric).all.size() >= fewest;
    if (!hasUsual)
        return name + ": what is usual with this club shows from four shots on.";
    std::vector<std::string> sentences;
    const std::string swing = said(delivered);
    const auto toe = shot.readings.at(Metric::strikeToe);
    const auto high = shot.readings.at(Metric::strikeHigh);
    const bool isMeasured =
        std::ranges::any_of(delivered, [&](const Beside& one) { return shot.readings.at(one.metric).has_value(); });
    if (isMeasured)
        sentences.push_back(swing.empty() ? "Delivered as usual" : "Delivered with " + swing + " than usual");
    if (toe || high) {
        constexpr double middle = 4; // mm
        std::vector<std::string> where;
        if (toe && std::fabs(*toe) >= middle)
            where.push_back(record::fixed(std::fabs(*toe), 0) + " mm toward the " + (*toe > 0 ? "toe" : "heel"));
        if (high && std::fabs(*high) >= middle)
            where.push_back(record::fixed(std::fabs(*high), 0) + " mm " + (*high > 0 ? "high" : "low"));
        sentences.push_back(where.empty() ? "struck in the middle" : "struck " + joined(where));
    }
    const std::string flight = said(flown);
    sentences.push_back(flight.empty() ? "it flew as usual" : "it flew with " + flight);
    std::string text = name + ": ";
    for (std::size_t i = 0; i < sentences.size(); ++i)
        text += (i == 0 ? record::upperFirst(sentences[i]) : "; " + sentences[i]);
    if (const auto carry = shot.readings.at(Metric::carry)) {
        const Values values = others(Metric::carry);
        const MetricFormat format(Metric::carry, units);
        text += ". Carry " + format.withUnit(*carry);
        if (values.all.size() >= fewest)
            text += ", " + format.withUnit(std::fabs(*carry - values.mean())) +
                    (*carry < values.mean() ? " less" : " more") + " than its usual " + format.withUnit(values.mean());
    }
    return text + ". As seen beside " + record::counted(others(test.metricsRead().front()).all.size(), "other shot") +
           "; why is a guess.";
}

} // namespace knot::words
