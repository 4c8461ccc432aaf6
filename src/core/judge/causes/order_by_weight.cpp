#include "core/judge/causes/order_by_weight.h"

#include "core/rack/figures.h"

#include <algorithm>
#include <map>

namespace knot::judge {
namespace {

constexpr std::size_t fewestClubs = 3, mostClubs = 8;

// Whether numbers rise or fall all the way.
bool goesOneWay(const std::vector<double>& means, const std::vector<std::size_t>& order) {
    bool rises = true;
    bool falls = true;
    for (std::size_t i = 1; i < order.size(); ++i) {
        rises = rises && means[order[i]] > means[order[i - 1]];
        falls = falls && means[order[i]] < means[order[i - 1]];
    }
    return rises || falls;
}

} // namespace

std::optional<WeightOrder> orderByWeight(const record::Test& test, const std::vector<Summary>& summaries) {
    std::vector<std::pair<double, BuildAt>> weights;
    for (BuildAt b; b < test.builds.size(); ++b)
        if (std::ranges::any_of(summaries, [&](const Summary& one) { return one.build == b; })) {
            const auto mass = rack::figuresOf(test.builds[b].club).mass;
            if (!mass)
                return std::nullopt;
            weights.emplace_back(*mass, b);
        }
    std::ranges::sort(weights);
    const auto alike = [](const auto& a, const auto& b) { return b.first - a.first < 0.5; }; // g
    if (weights.size() < fewestClubs || weights.size() > mostClubs ||
        std::ranges::adjacent_find(weights, alike) != weights.end())
        return std::nullopt;
    std::map<Metric, std::map<BuildAt, double>> byMetric;
    for (const Summary& one : summaries)
        if (!record::isStrike(one.metric) && one.metric != Metric::miss)
            byMetric[one.metric][one.build] = one.mean;
    std::vector<std::vector<double>> numbers; // by weight
    for (const auto& [metric, means] : byMetric)
        if (means.size() == weights.size()) {
            auto& row = numbers.emplace_back();
            for (const auto& [mass, build] : weights)
                row.push_back(means.at(build));
        }
    if (numbers.empty())
        return std::nullopt;
    std::vector<std::size_t> order(weights.size());
    for (std::size_t i = 0; i < order.size(); ++i)
        order[i] = i;
    auto count = [&] {
        return static_cast<std::size_t>(
            std::ranges::count_if(numbers, [&](const auto& means) { return goesOneWay(means, order); }));
    };
    WeightOrder result{.numbers = count(), .of = numbers.size()};
    double asMany = 0;
    double ways = 0;
    do {
        asMany += count() >= result.numbers ? 1 : 0;
        ++ways;
    } while (std::ranges::next_permutation(order).found);
    result.p = asMany / ways;
    return result;
}

} // namespace knot::judge
