#include "files/bag_json.h"

#include <nlohmann/json.hpp>

#include <array>

namespace knot::files {
namespace {

using nlohmann::ordered_json;

ordered_json interval(const std::optional<judge::Interval>& of) {
    return of ? ordered_json{of->low, of->high} : ordered_json();
}

} // namespace

std::string bagJson(const bag::Bag& bag, std::optional<double> wind) {
    ordered_json out{{"format", "knotcount.bag"},
                     {"step_m", bag.step},
                     {"sittings", bag.sittings},
                     {"clubs", ordered_json::array()},
                     {"gaps", ordered_json::array()}};
    for (const bag::Club& club : bag.clubs) {
        ordered_json one{
            {"club", club.name}, {"carry_m", club.carry}, {"shots", club.shots()}, {"sittings", club.sittings.size()}};
        if (wind)
            if (const auto carry = bag::carryIn(club, {.windAlong = *wind}))
                one["carry_in_wind_m"] = *carry;
        out["clubs"].push_back(std::move(one));
    }
    constexpr std::array rests = {"several_sittings", "one_sitting", "by_another", "averages"};
    constexpr std::array is = {"neither", "hole", "double"};
    for (const bag::Gap& gap : bag.gaps)
        out["gaps"].push_back({{"longer", bag.clubs[gap.longer].name},
                               {"shorter", bag.clubs[gap.shorter].name},
                               {"gap_m", gap.gap},
                               {"ci95", interval(gap.ci95)},
                               {"rests_on", rests.at(static_cast<std::size_t>(gap.rests))},
                               {"sittings", gap.sittings},
                               {"outflown", gap.outflown ? ordered_json(*gap.outflown) : ordered_json()},
                               {"outflown_ci95", interval(gap.outflownCi95)},
                               {"is", is.at(static_cast<std::size_t>(gap.is))}});
    return out.dump(2);
}

} // namespace knot::files
