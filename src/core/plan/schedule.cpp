#include "core/plan/schedule.h"

#include "core/random.h"

#include <algorithm>
#include <functional>
#include <numeric>
#include <optional>

namespace knot::plan {
namespace {

using record::PlannedTurn;
using record::Schedule;
using Order = std::vector<std::size_t>;

Order identity(std::size_t count) {
    Order order(count);
    std::iota(order.begin(), order.end(), std::size_t{0});
    return order;
}

template<typename T> void shuffle(std::vector<T>& list, Random& random) {
    for (std::size_t i = list.size(); i > 1; --i)
        std::swap(list[i - 1], list[random.below(i)]);
}

// Orders for the rounds of two builds, each tossed by a coin: AB BA pairs like shots across the border of two
// laps where neighbouring shots are alike, which a coin does not. Not all of them alike where there are two.
std::vector<Order> tossed(int rounds, Random& random) {
    std::vector<Order> orders;
    do {
        orders.clear();
        for (int r = 0; r < rounds; ++r)
            orders.push_back(random.below(2) == 1 ? Order{1, 0} : Order{0, 1});
    } while (rounds > 1 && std::ranges::adjacent_find(orders, std::not_equal_to{}) == orders.end());
    return orders;
}

// Whole Williams designs under fresh names and in a random order of rows, then random orders.
std::vector<Order> rotatedOrders(std::size_t builds, int rounds, Random& random) {
    const auto rows = williamsRows(builds);
    std::vector<Order> orders;
    while (orders.size() + rows.size() <= static_cast<std::size_t>(rounds)) {
        Order names = identity(builds);
        shuffle(names, random);
        auto design = rows;
        shuffle(design, random);
        for (Order& row : design)
            for (std::size_t& build : row)
                build = names[build];
        orders.insert(orders.end(), design.begin(), design.end());
    }
    while (orders.size() < static_cast<std::size_t>(rounds)) {
        orders.push_back(identity(builds));
        shuffle(orders.back(), random);
    }
    return orders;
}

std::vector<Order> sandwiched(const ScheduleInput& in, Random& random) {
    Order others = identity(in.builds);
    std::erase(others, in.baseline);
    std::vector<Order> orders;
    for (int r = 0; r < in.rounds; ++r) {
        shuffle(others, random);
        Order order{in.baseline};
        order.insert(order.end(), others.begin(), others.end());
        order.push_back(in.baseline);
        orders.push_back(order);
    }
    return orders;
}

struct Cost {
    std::size_t repeats = 0; // neighbours of one build across rounds
    double seconds = 0;
    auto operator<=>(const Cost&) const = default;
};

Cost costOf(const std::vector<Order>& orders, const ScheduleInput& in) {
    Cost cost;
    std::optional<std::size_t> last;
    for (const Order& order : orders)
        for (const std::size_t build : order) {
            if (last == build)
                ++cost.repeats;
            else if (last)
                cost.seconds += changeTime(in.changeTimes, in.changeSeconds, *last, build);
            last = build;
        }
    return cost;
}

std::vector<Order> drawn(const ScheduleInput& in, Random& random) {
    if (in.schedule == Schedule::sandwich)
        return sandwiched(in, random);
    if (in.builds == 2)
        return tossed(in.rounds, random);
    return rotatedOrders(in.builds, in.rounds, random);
}

} // namespace

std::vector<std::vector<std::size_t>> williamsRows(std::size_t builds) {
    // 0, 1, n−1, 2, n−2, … and its cyclic shifts; for odd n also each row backwards.
    Order first;
    for (std::size_t i = 0; i < builds; ++i)
        first.push_back(i % 2 == 1 ? (i + 1) / 2 : (builds - i / 2) % builds);
    std::vector<Order> rows;
    for (std::size_t shift = 0; shift < builds; ++shift) {
        Order row;
        for (const std::size_t build : first)
            row.push_back((build + shift) % builds);
        rows.push_back(row);
        if (builds % 2 == 1)
            rows.emplace_back(row.rbegin(), row.rend());
    }
    return rows;
}

double changeTime(const std::vector<record::ChangeTime>& times, double usual, std::size_t from, std::size_t to) {
    for (const auto& time : times)
        if ((time.a == from && time.b == to) || (time.a == to && time.b == from))
            return time.seconds;
    return usual;
}

bool needsHandOver(const std::vector<PlannedTurn>& turns, std::size_t turn) {
    return turn > 0 && turns[turn - 1].build == turns[turn].build;
}

std::vector<PlannedTurn> turnedFor(std::vector<PlannedTurn> turns, record::PlayerAt player, std::size_t builds,
                                   Schedule schedule) {
    for (PlannedTurn& turn : turns) {
        if (schedule != Schedule::sandwich)
            turn.build = record::BuildAt((turn.build + player) % builds);
        turn.player = player;
        turn.ended = false;
    }
    return turns;
}

ScheduledTurns scheduled(const ScheduleInput& input) {
    ScheduleInput in = input;
    if (in.schedule == Schedule::oneRunEach)
        in.rounds = 1;
    if (in.schedule == Schedule::shotByShot)
        in.turnLength = 1;
    Random random(in.seed);
    // A coin has its repeats; other orders are drawn until one has none, and the quickest is kept.
    std::vector<Order> best = drawn(in, random);
    const bool choosable = in.schedule != Schedule::sandwich && in.builds > 2;
    for (int attempt = 0; choosable && attempt < 200; ++attempt)
        if (auto other = drawn(in, random); costOf(other, in) < costOf(best, in))
            best = std::move(other);
    ScheduledTurns result;
    const auto rows = static_cast<int>(williamsRows(in.builds).size());
    result.balanced = choosable && in.rounds % rows == 0;
    for (std::size_t round = 0; round < best.size(); ++round)
        for (const std::size_t build : best[round])
            result.turns.push_back({record::BuildAt(build), static_cast<int>(round) + 1, in.turnLength});
    return result;
}

} // namespace knot::plan
