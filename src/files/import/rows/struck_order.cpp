#include "files/import/rows/struck_order.h"

#include "core/record/text/number_text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <numeric>
#include <optional>

namespace knot::files {
namespace {

using record::Shot;

constexpr std::size_t fewest = 3; // shots that have an order

// What puts a shot in order; nothing where any shot has none.
template<typename Of> std::vector<double> keysOf(const std::vector<Shot>& shots, std::size_t from, Of of) {
    std::vector<double> keys;
    keys.reserve(shots.size() - from);
    for (std::size_t i = from; i < shots.size(); ++i)
        if (const std::optional<double> key = of(shots[i]))
            keys.push_back(*key);
        else
            return {};
    return keys;
}

std::optional<double> timeOf(const Shot& shot) {
    if (const auto seconds = shot.takenAt.seconds())
        return seconds;
    // A time of day by itself.
    const std::string& text = shot.takenAt.text();
    if (text.size() < 8 || text[2] != ':' || text[5] != ':')
        return std::nullopt;
    const auto part = [&](std::size_t at) { return record::wholeIn(std::string_view(text).substr(at, 2)).value_or(0); };
    return 3600.0 * part(0) + 60.0 * part(3) + part(6);
}

std::optional<double> numberOf(const Shot& shot) {
    const auto number = record::countIn(shot.number);
    return number ? std::optional(static_cast<double>(*number)) : std::nullopt;
}

struct Steps {
    std::size_t rises = 0, falls = 0, risesInRun = 0;
    std::size_t mixedRuns = 0; ///< runs of one club that both rise and fall
};

Steps stepsOf(const std::vector<Shot>& shots, std::size_t from, const std::vector<double>& keys) {
    Steps steps;
    bool rose = false;
    bool fell = false;
    for (std::size_t i = 1; i < keys.size(); ++i) {
        const bool sameClub = shots[from + i].build == shots[from + i - 1].build;
        if (!sameClub)
            rose = fell = false;
        steps.rises += keys[i] > keys[i - 1] ? 1 : 0;
        steps.falls += keys[i] < keys[i - 1] ? 1 : 0;
        steps.risesInRun += sameClub && keys[i] > keys[i - 1] ? 1 : 0;
        const bool wasMixed = rose && fell;
        rose = rose || (sameClub && keys[i] > keys[i - 1]);
        fell = fell || (sameClub && keys[i] < keys[i - 1]);
        steps.mixedRuns += !wasMixed && rose && fell ? 1 : 0;
    }
    return steps;
}

std::vector<std::size_t> turnedRound(std::size_t count) {
    std::vector<std::size_t> places(count);
    std::iota(places.rbegin(), places.rend(), std::size_t{0});
    return places;
}

std::vector<std::size_t> sortedBy(const std::vector<double>& keys) {
    std::vector<std::size_t> places(keys.size());
    std::iota(places.begin(), places.end(), std::size_t{0});
    std::ranges::stable_sort(places, {}, [&](std::size_t at) { return keys[at]; });
    return places;
}

constexpr const char* newestFirst = "The newest shot stood first: the order was turned round.";

} // namespace

StruckOrder struckOrder(const std::vector<Shot>& shots, std::size_t from) {
    const std::size_t count = shots.size() - from;
    if (count < fewest)
        return {};
    if (const auto times = keysOf(shots, from, timeOf); !times.empty()) {
        const Steps steps = stepsOf(shots, from, times);
        if (steps.falls == 0)
            return {};
        // Two at most of a moment: else the times say no order of those that share it.
        if (steps.rises == 0 && steps.falls + 1 >= (count + 1) / 2)
            return {turnedRound(count), newestFirst};
        const bool isDated = shots[from].takenAt.seconds().has_value();
        if (isDated && steps.mixedRuns == 0 && steps.rises + steps.falls + 1 == count)
            return {sortedBy(times), "The shots were put in the order of their times."};
        return {{},
                "The clock jumps back " + record::counted(steps.falls, "time", "times") +
                    ": the order of the file was kept."};
    }
    const auto numbers = keysOf(shots, from, numberOf);
    if (numbers.empty())
        return {};
    const Steps steps = stepsOf(shots, from, numbers);
    if (steps.risesInRun == 0 && steps.falls > steps.rises && steps.falls + 1 >= (count + 1) / 2)
        return {turnedRound(count), newestFirst};
    return {};
}

} // namespace knot::files
