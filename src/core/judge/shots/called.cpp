#include "core/judge/shots/called.h"

#include "core/judge/resample.h"
#include "core/judge/seed.h"
#include "core/judge/spreads/shares.h"
#include "core/statistics/ranks.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace knot::judge {
namespace {

using record::Call;

constexpr std::size_t fewestAlike = 2;
constexpr std::size_t fewestAgreeing = 8;

// The values of one build's shots called alike, stint by stint.
std::vector<std::vector<double>> alike(const record::Test& test, const BuildValues& build, Call call) {
    std::vector<std::vector<double>> stints;
    for (const TurnValues& turn : build.turns) {
        std::vector<double> values;
        for (std::size_t i = 0; i < turn.values.size(); ++i)
            if (test.shots[turn.shots[i]].call == call)
                values.push_back(turn.values[i]);
        stints.push_back(std::move(values));
    }
    return stints;
}

std::vector<double> joined(const std::vector<std::vector<double>>& stints) {
    std::vector<double> all;
    for (const auto& stint : stints)
        all.insert(all.end(), stint.begin(), stint.end());
    return all;
}

double resampledMean(Random& random, const std::vector<std::vector<double>>& stints) {
    double sum = 0;
    double count = 0;
    for (const std::size_t stint : drawnWithReplacement(random, stints.size()))
        for (const double value : stints[stint]) {
            sum += value;
            ++count;
        }
    return sum / count; // nan where no such shot was drawn, which is passed over
}

// Kendall's tau-b between three ordered words and a number (1945).
std::optional<double> tauWithWords(std::array<std::vector<double>, 3> byWord) {
    double agree = 0;
    double wordPairs = 0;
    std::vector<double> all;
    for (auto& values : byWord) {
        std::ranges::sort(values);
        all.insert(all.end(), values.begin(), values.end());
    }
    for (std::size_t low = 0; low < byWord.size(); ++low)
        for (std::size_t high = low + 1; high < byWord.size(); ++high) {
            const auto pairs = static_cast<double>(byWord[low].size() * byWord[high].size());
            agree += 2 * statistics::pairsAbove(byWord[low], byWord[high]) - pairs;
            wordPairs += pairs;
        }
    std::ranges::sort(all);
    const auto n = static_cast<double>(all.size());
    double valuePairs = n * (n - 1) / 2;
    for (std::size_t from = 0; from < all.size();) {
        const auto to = static_cast<std::size_t>(std::ranges::upper_bound(all, all[from]) - all.begin());
        const auto tied = static_cast<double>(to - from);
        valuePairs -= tied * (tied - 1) / 2;
        from = to;
    }
    if (!(wordPairs > 0) || !(valuePairs > 0))
        return std::nullopt;
    return agree / std::sqrt(wordPairs * valuePairs);
}

std::size_t rankOf(Call call) {
    return call == Call::bad ? 0 : call == Call::soSo ? 1 : 2;
}

} // namespace

std::vector<Called> calledOf(const Case& subject) {
    const record::Test& test = subject.test();
    std::vector<Called> called;
    std::vector<std::vector<std::vector<bool>>> bad(test.builds.size());
    std::vector<Called> counts(test.builds.size());
    for (const record::Turn& turn : subject.structure().turns) {
        std::vector<bool> own;
        for (const record::ShotAt at : turn.shots) {
            const record::Shot& shot = test.shots[at];
            if (shot.call == Call::none || !isTaken(shot, subject.taken()))
                continue;
            own.push_back(shot.call == Call::bad);
            counts[turn.build].good += shot.call == Call::good ? 1 : 0;
            counts[turn.build].soSo += shot.call == Call::soSo ? 1 : 0;
        }
        bad[turn.build].push_back(std::move(own));
    }
    for (BuildAt b; b < test.builds.size(); ++b)
        if (const auto share = shareByTurns(bad[b])) {
            counts[b].build = b;
            counts[b].bad = *share;
            called.push_back(counts[b]);
        }
    return called;
}

std::vector<CalledGap> calledGaps(const JudgeRequest& request, const Column& column, const Reading& reading) {
    const record::Test& test = request.subject.test();
    std::vector<CalledGap> gaps;
    for (const AverageGap& row : reading.average) {
        if (row.metric != column.metric || row.kind != record::OutcomeKind::average)
            continue;
        for (const Call call : {Call::bad, Call::good}) {
            const auto own = alike(test, column.builds[row.build], call);
            const auto other = alike(test, column.builds[row.against], call);
            const auto ownAll = joined(own);
            const auto otherAll = joined(other);
            if (ownAll.size() < fewestAlike || otherAll.size() < fewestAlike)
                continue;
            CalledGap gap{.metric = column.metric, .build = row.build, .against = row.against, .call = call};
            gap.nBuild = ownAll.size();
            gap.nAgainst = otherAll.size();
            gap.gap = meanOf(ownAll) - meanOf(otherAll);
            const double average = meanOf(column.builds[row.against].all());
            gap.past =
                static_cast<std::size_t>(std::ranges::count_if(ownAll, [&](double value) { return value > average; }));
            if (std::min(own.size(), other.size()) >= fewestStints)
                if (const auto drawn =
                        percentileInterval(seedFor(request, call == Call::bad ? "called bad" : "called good",
                                                   column.metric, row.build, row.against),
                                           drawsFor(usualDraws, own.size() + other.size()), [&](Random& random) {
                                               return resampledMean(random, own) - resampledMean(random, other);
                                           }))
                    gap.ci95 = expanded(*drawn, gap.gap, std::min(own.size(), other.size()));
            gaps.push_back(gap);
        }
    }
    return gaps;
}

std::optional<CallAgreement> callAgreement(const Case& subject) {
    std::array<std::vector<double>, 3> smash;
    std::array<std::vector<double>, 3> nearness;
    CallAgreement agreement;
    for (const record::Shot& shot : subject.test().shots) {
        if (shot.call == Call::none || !isTaken(shot, subject.taken()))
            continue;
        if (const auto value = shot.readings.at(Metric::smash)) {
            smash[rankOf(shot.call)].push_back(*value);
            ++agreement.nSmash;
        }
        const auto toe = shot.readings.at(Metric::strikeToe);
        const auto high = shot.readings.at(Metric::strikeHigh);
        if (toe && high) {
            nearness[rankOf(shot.call)].push_back(-std::hypot(*toe, *high));
            ++agreement.nStrike;
        }
    }
    if (agreement.nSmash >= fewestAgreeing)
        agreement.withSmash = tauWithWords(std::move(smash));
    if (agreement.nStrike >= fewestAgreeing)
        agreement.withStrike = tauWithWords(std::move(nearness));
    if (!agreement.withSmash && !agreement.withStrike)
        return std::nullopt;
    return agreement;
}

} // namespace knot::judge
