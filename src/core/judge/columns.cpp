#include "core/judge/columns.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace knot::judge {

double TurnValues::mean() const {
    return meanOf(values);
}

std::size_t BuildValues::count() const {
    std::size_t n = 0;
    for (const auto& turn : turns)
        n += turn.values.size();
    return n;
}

std::vector<double> BuildValues::all() const {
    std::vector<double> values;
    values.reserve(count());
    for (const auto& turn : turns)
        values.insert(values.end(), turn.values.begin(), turn.values.end());
    return values;
}

std::vector<double> BuildValues::turnMeans() const {
    std::vector<double> means;
    means.reserve(turns.size());
    for (const auto& turn : turns)
        means.push_back(turn.mean());
    return means;
}

bool isTaken(const record::Shot& shot, Taken taken) {
    return shot.status == record::ShotStatus::counted ||
           (taken == Taken::allRead && shot.status == record::ShotStatus::setAside);
}

Column columnOf(const record::Test& test, const record::Structure& structure, record::Metric metric, Taken taken) {
    Column column{.metric = metric, .shotByShot = structure.shotByShot, .drawn = !test.turns.empty(), .builds = {}};
    column.builds.resize(test.builds.size());
    std::size_t place = 0;
    std::map<std::pair<std::size_t, std::size_t>, double> swung; // by sitting and player
    for (std::size_t t = 0; t < structure.turns.size(); ++t) {
        const record::Turn& turn = structure.turns[t];
        const bool counts =
            std::ranges::any_of(turn.shots, [&](record::ShotAt shot) { return isTaken(test.shots[shot], taken); });
        TurnValues values{.turn = record::TurnAt(t),
                          .round = turn.round.value_or(record::RoundAt()),
                          .player = turn.player,
                          .delivery = turn.delivery,
                          .sitting = turn.sitting,
                          .place = place,
                          .phase = turn.phase,
                          .values = {},
                          .shots = {}};
        double& before = swung[{turn.sitting, turn.player}];
        values.swings = before + (static_cast<double>(turn.shots.size()) - 1) / 2;
        before += static_cast<double>(turn.shots.size());
        for (const record::ShotAt shot : turn.shots) {
            const auto reading = test.shots[shot].readings.at(metric);
            if (!reading || !std::isfinite(*reading) || !isTaken(test.shots[shot], taken))
                continue;
            values.values.push_back(*reading);
            values.shots.push_back(shot);
        }
        place += counts ? 1 : 0;
        if (!values.values.empty())
            column.builds[turn.build].turns.push_back(std::move(values));
    }
    return column;
}

} // namespace knot::judge
