#include "core/judge/causes/parts_of_gap.h"

#include "core/flight/flight.h"
#include "core/flight/impact.h"
#include "core/judge/resample.h"
#include "core/judge/seed.h"
#include "core/rack/club_kind.h"
#include "core/rack/figures.h"
#include "core/statistics/shapley.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <iterator>
#include <map>

namespace knot::judge {
namespace {

constexpr std::array modelled = {Metric::carry, Metric::side, Metric::apex, Metric::descent};
constexpr std::size_t fewestLaps = 5;
constexpr double leastHead = 0.5, leastWhole = 2; // g; less is how a scale reads
constexpr double leastPoints = 0.5;               // of swing weight

// What goes into a flight. With club speed the ball's is club speed × efficiency; else `speed` is the ball's.
enum Input : std::uint8_t { speed, efficiency, launch, spin, direction, axis };
constexpr std::size_t inputs = 6;
using Inputs = std::array<double, inputs>;
using Outputs = std::array<double, modelled.size()>;

// What is swapped together: the direction of the start and the axis of the spin.
struct Group {
    const char* key;
    std::vector<Input> members;
};

// Which way a ball starts and how its axis lies, where that is read: what is not read is no 0.
struct Sideways {
    bool direction = false, axis = false;
};

std::vector<Group> groupsOf(bool withClub, const Sideways& read) {
    std::vector<Group> groups;
    if (withClub)
        groups = {{"club_speed", {speed}}, {"efficiency", {efficiency}}};
    else
        groups = {{"ball_speed", {speed}}};
    groups.push_back({"launch", {launch}});
    groups.push_back({"spin", {spin}});
    if (read.direction || read.axis)
        groups.push_back({"direction", {direction, axis}});
    return groups;
}

Outputs flown(const Inputs& in) {
    constexpr double tolerance = 1e-7; // parts are told by the decimetre
    const auto flight = flight::fly({.ballSpeed = in[speed] * in[efficiency],
                                     .launch = in[launch],
                                     .direction = in[direction],
                                     .spin = std::max(0.0, in[spin]),
                                     .spinAxis = in[axis]},
                                    {}, flight::PathWanted::no, 0, tolerance);
    return {flight.carry, flight.side, flight.apex, flight.descent};
}

// Sums over shots, for means of what went in and what came out.
struct Sums {
    double n = 0;
    Inputs in{};
    Outputs out{};
};

// The means of one build in one lap: those of its stints.
struct Means {
    Inputs in{};
    Outputs out{};
};

Means operator+(Means a, const Means& b) {
    for (std::size_t i = 0; i < inputs; ++i)
        a.in[i] += b.in[i];
    for (std::size_t i = 0; i < modelled.size(); ++i)
        a.out[i] += b.out[i];
    return a;
}

Means operator/(Means a, double by) {
    for (double& value : a.in)
        value /= by;
    for (double& value : a.out)
        value /= by;
    return a;
}

// A lap's means of both builds of a pair.
struct Lap {
    Means own, other;
};

Lap meanOver(const std::vector<Lap>& laps, const std::vector<std::size_t>& chosen) {
    Lap sum;
    for (const std::size_t i : chosen) {
        sum.own = sum.own + laps[i].own;
        sum.other = sum.other + laps[i].other;
    }
    const auto n = static_cast<double>(chosen.size());
    return {sum.own / n, sum.other / n};
}

// The efficiency that goes with mean speeds, so that their product is the mean ball speed.
Inputs flyable(Inputs in, bool withClub) {
    const double ball = in[efficiency]; // kept there until the means are made
    in[efficiency] = withClub ? ball / in[speed] : 1;
    if (!withClub)
        in[speed] = ball;
    return in;
}

// The flight near a point to second order.
class Near {
public:
    explicit Near(const Inputs& middle)
        : m_middle(middle) {
        constexpr Inputs steps = {1, 0.02, 1, 300, 1, 2};
        const Outputs centre = flown(middle);
        std::array<Outputs, inputs> above{};
        for (std::size_t i = 0; i < inputs; ++i) {
            above[i] = flown(moved(i, steps[i]));
            const Outputs below = flown(moved(i, -steps[i]));
            for (std::size_t o = 0; o < centre.size(); ++o) {
                m_slope[o][i] = (above[i][o] - below[o]) / (2 * steps[i]);
                m_curve[o][i][i] = (above[i][o] - 2 * centre[o] + below[o]) / (steps[i] * steps[i]);
            }
        }
        for (std::size_t i = 0; i < inputs; ++i)
            for (std::size_t j = i + 1; j < inputs; ++j) {
                Inputs both = moved(i, steps[i]);
                both[j] += steps[j];
                const Outputs corner = flown(both);
                for (std::size_t o = 0; o < centre.size(); ++o)
                    m_curve[o][i][j] = m_curve[o][j][i] =
                        (corner[o] - above[i][o] - above[j][o] + centre[o]) / (steps[i] * steps[j]);
            }
    }

    // What an input's change adds over all orders: its change times the slope halfway.
    double part(std::size_t output, Input input, const Inputs& from, const Inputs& to) const {
        double slope = m_slope[output][input];
        for (std::size_t j = 0; j < inputs; ++j)
            slope += m_curve[output][input][j] * (0.5 * (from[j] + to[j]) - m_middle[j]);
        return slope * (to[input] - from[input]);
    }

private:
    Inputs moved(std::size_t input, double by) const {
        Inputs at = m_middle;
        at[input] += by;
        return at;
    }

    Inputs m_middle;
    std::array<Inputs, modelled.size()> m_slope{};
    std::array<std::array<Inputs, inputs>, modelled.size()> m_curve{};
};

// By Shapley over all orders, on the flights themselves.
std::vector<Outputs> partsByFlight(const std::vector<Group>& groups, const Inputs& from, const Inputs& to) {
    std::vector<Outputs> worth;
    for (std::size_t set = 0; set < std::size_t{1} << groups.size(); ++set) {
        Inputs in = from;
        for (std::size_t g = 0; g < groups.size(); ++g)
            if ((set >> g & 1U) != 0)
                for (const Input input : groups[g].members)
                    in[input] = to[input];
        worth.push_back(flown(in));
    }
    std::vector<Outputs> parts(groups.size(), Outputs{});
    for (std::size_t o = 0; o < modelled.size(); ++o) {
        std::vector<double> ofOutput;
        ofOutput.reserve(worth.size());
        for (const Outputs& one : worth)
            ofOutput.push_back(one[o]);
        const auto shares = statistics::shapley(ofOutput);
        for (std::size_t g = 0; g < groups.size(); ++g)
            parts[g][o] = shares[g];
    }
    return parts;
}

class Parting {
public:
    Parting(const JudgeRequest& request, const Reading& reading)
        : m_request(request)
        , m_test(request.subject.test())
        , m_kinds(m_test)
        , m_structure(request.subject.structure())
        , m_reading(reading) {}

    std::vector<PartsOfGap> all() {
        std::vector<PartsOfGap> rows;
        if (!isRead(Metric::ballSpeed) || !isRead(Metric::launch) || !isRead(Metric::spin))
            return rows;
        chooseReadings();
        std::vector<std::pair<BuildAt, BuildAt>> done;
        for (const AverageGap& row : m_reading.average) {
            const std::pair pair(row.build, row.against);
            if (std::ranges::find(done, pair) != done.end())
                continue;
            done.push_back(pair);
            ofPair(row.build, row.against, rows);
        }
        return rows;
    }

private:
    bool isRead(Metric metric) const { return std::ranges::find(m_reading.metrics, metric) != m_reading.metrics.end(); }

    // What is read in two thirds of the shots or more; what is read seldom would cost the others their shots.
    bool isOutput(Metric metric) const { return std::ranges::find(m_outputs, metric) != m_outputs.end(); }

    bool isOftenRead(Metric metric) const {
        std::size_t read = 0;
        std::size_t n = 0;
        for (const record::Shot& shot : m_test.shots)
            if (isTaken(shot, m_request.subject.taken())) {
                ++n;
                read += shot.readings.has(metric) ? 1 : 0;
            }
        return n > 0 && 3 * read >= 2 * n;
    }

    void chooseReadings() {
        std::ranges::copy_if(modelled, std::back_inserter(m_outputs),
                             [&](Metric metric) { return isOftenRead(metric); });
        m_sideways = {isOftenRead(Metric::launchDirection), isOftenRead(Metric::spinAxis)};
    }

    bool hasAll(const record::Shot& shot, bool withClub) const {
        const auto& r = shot.readings;
        return isTaken(shot, m_request.subject.taken()) && r.has(Metric::ballSpeed) && r.has(Metric::launch) &&
               r.has(Metric::spin) && (!withClub || r.has(Metric::clubSpeed)) &&
               (!m_sideways.direction || r.has(Metric::launchDirection)) &&
               (!m_sideways.axis || r.has(Metric::spinAxis)) &&
               std::ranges::all_of(m_outputs, [&](Metric metric) { return r.has(metric); });
    }

    // The means of the stints that a build has in each lap.
    std::map<record::RoundAt, std::vector<Means>> stintsOf(BuildAt build, bool withClub) const {
        std::map<record::RoundAt, std::vector<Means>> laps;
        for (const record::Turn& turn : m_structure.turns) {
            if (turn.build != build || !turn.round)
                continue;
            Means sum;
            double n = 0;
            for (const record::ShotAt at : turn.shots) {
                const record::Shot& shot = m_test.shots[at];
                if (!hasAll(shot, withClub))
                    continue;
                const auto& r = shot.readings;
                Means one;
                one.in = {withClub ? *r.at(Metric::clubSpeed) : 0,
                          *r.at(Metric::ballSpeed),
                          *r.at(Metric::launch),
                          *r.at(Metric::spin),
                          m_sideways.direction ? *r.at(Metric::launchDirection) : 0,
                          m_sideways.axis ? *r.at(Metric::spinAxis) : 0};
                for (std::size_t o = 0; o < modelled.size(); ++o)
                    one.out[o] = r.at(modelled[o]).value_or(0);
                sum = sum + one;
                ++n;
            }
            if (n > 0)
                laps[*turn.round].push_back(sum / n);
        }
        return laps;
    }

    std::size_t shotsOf(BuildAt build, bool withClub) const {
        std::size_t n = 0;
        for (const record::Turn& turn : m_structure.turns)
            if (turn.build == build && turn.round)
                n += static_cast<std::size_t>(std::ranges::count_if(
                    turn.shots, [&](record::ShotAt at) { return hasAll(m_test.shots[at], withClub); }));
        return n;
    }

    static Means meanOfStints(const std::vector<Means>& stints) {
        Means sum;
        for (const Means& stint : stints)
            sum = sum + stint;
        return sum / static_cast<double>(stints.size());
    }

    // The laps that hold both, or one that holds all stints of each where no lap does.
    std::vector<Lap> lapsOf(BuildAt build, BuildAt against, bool withClub) const {
        const auto own = stintsOf(build, withClub);
        const auto other = stintsOf(against, withClub);
        std::vector<Lap> laps;
        for (const auto& [round, stints] : own)
            if (const auto at = other.find(round); at != other.end())
                laps.push_back({meanOfStints(stints), meanOfStints(at->second)});
        if (!laps.empty() || own.empty() || other.empty())
            return laps;
        auto joined = [](const auto& byLap) {
            std::vector<Means> all;
            for (const auto& [round, stints] : byLap)
                all.insert(all.end(), stints.begin(), stints.end());
            return meanOfStints(all);
        };
        return {{joined(own), joined(other)}};
    }

    void ofPair(BuildAt build, BuildAt against, std::vector<PartsOfGap>& rows) const {
        bool withClub = isRead(Metric::clubSpeed);
        std::vector<Lap> laps = lapsOf(build, against, withClub);
        if (laps.empty() && withClub) {
            withClub = false;
            laps = lapsOf(build, against, withClub);
        }
        if (laps.empty())
            return;
        std::vector<std::size_t> every(laps.size());
        for (std::size_t i = 0; i < every.size(); ++i)
            every[i] = i;
        const Lap means = meanOver(laps, every);
        const Inputs from = flyable(means.other.in, withClub);
        const Inputs to = flyable(means.own.in, withClub);
        if (!std::isfinite(from[efficiency]) || !std::isfinite(to[efficiency]))
            return;
        const auto groups = groupsOf(withClub, m_sideways);
        const auto parts = partsByFlight(groups, from, to);
        const std::size_t first = rows.size();
        const std::size_t shots = shotsOf(build, withClub) + shotsOf(against, withClub);
        for (std::size_t o = 0; o < modelled.size(); ++o) {
            PartsOfGap row{.metric = modelled[o], .build = build, .against = against, .n = shots};
            row.measured = means.own.out[o] - means.other.out[o];
            for (std::size_t g = 0; g < groups.size(); ++g) {
                row.parts.push_back({groups[g].key, parts[g][o], {}});
                row.modelled += parts[g][o];
            }
            row.rest = row.measured - row.modelled;
            if (!isOutput(modelled[o]))
                continue;
            row.ofLoft = ofLoft(build, against, from, o);
            row.ofMass = ofMass(build, against, from, o);
            rows.push_back(std::move(row));
        }
        if (laps.size() >= fewestLaps && rows.size() > first)
            addIntervals(laps, groups, withClub, from, to, rows, first);
    }

    void addIntervals(const std::vector<Lap>& laps, const std::vector<Group>& groups, bool withClub, const Inputs& from,
                      const Inputs& to, std::vector<PartsOfGap>& rows, std::size_t first) const {
        Inputs middle{};
        for (std::size_t i = 0; i < inputs; ++i)
            middle[i] = 0.5 * (from[i] + to[i]);
        const Near near(middle);
        // The same laps are drawn for every part of every number.
        std::vector<std::vector<std::vector<double>>> drawn(rows.size() - first);
        for (auto& ofRow : drawn)
            ofRow.resize(groups.size() + 1); // the last is what is not explained
        Random random(seedFor(m_request, "parts", Metric::carry, rows[first].build, rows[first].against));
        const int times = drawsFor(usualDraws, laps.size());
        for (int draw = 0; draw < times; ++draw) {
            const Lap means = meanOver(laps, drawnWithReplacement(random, laps.size()));
            const Inputs a = flyable(means.other.in, withClub);
            const Inputs b = flyable(means.own.in, withClub);
            for (std::size_t r = first; r < rows.size(); ++r) {
                const auto output =
                    static_cast<std::size_t>(std::ranges::find(modelled, rows[r].metric) - modelled.begin());
                double rest = means.own.out[output] - means.other.out[output];
                for (std::size_t g = 0; g < groups.size(); ++g) {
                    double part = 0;
                    for (const Input input : groups[g].members)
                        part += near.part(output, input, a, b);
                    rest -= part;
                    drawn[r - first][g].push_back(part);
                }
                drawn[r - first].back().push_back(rest);
            }
        }
        for (std::size_t r = first; r < rows.size(); ++r) {
            for (std::size_t g = 0; g < groups.size(); ++g)
                rows[r].parts[g].ci95 = expanded(percentiles(drawn[r - first][g]), rows[r].parts[g].value, laps.size());
            rows[r].restInterval = expanded(percentiles(drawn[r - first].back()), rows[r].rest, laps.size());
        }
    }

    // What the difference in static loft alone would do, at the delivery that was seen with the other club.
    std::optional<PartsOfGap::OfLoft> ofLoft(BuildAt build, BuildAt against, const Inputs& from,
                                             std::size_t output) const {
        const auto own = rack::figuresOf(m_test.builds[build].club).loft;
        const auto other = rack::figuresOf(m_test.builds[against].club).loft;
        const auto delivery = deliveredWith(against);
        if (!own || !other || std::fabs(*own - *other) < 0.05 || !delivery)
            return std::nullopt;
        const flight::Head head = flight::usualHead(m_kinds.head(against));
        flight::Delivery turned = *delivery;
        turned.dynamicLoft += *own - *other;
        const auto before = flight::launchOf(*delivery, head);
        const auto after = flight::launchOf(turned, head);
        return PartsOfGap::OfLoft{.loft = *own - *other,
                                  .launch = after.launch - before.launch,
                                  .spin = after.spin - before.spin,
                                  .ballSpeed = after.ballSpeed - before.ballSpeed,
                                  .value = changed(from, before, after, output)};
    }

    // What the difference of the heads' masses alone would do, at the delivery that was seen with the other club;
    // beside it what else of the clubs' weights differs.
    std::optional<PartsOfGap::OfMass> ofMass(BuildAt build, BuildAt against, const Inputs& from,
                                             std::size_t output) const {
        const record::Club& own = m_test.builds[build].club;
        const record::Club& other = m_test.builds[against].club;
        const auto ownFigures = rack::figuresOf(own);
        const auto otherFigures = rack::figuresOf(other);
        PartsOfGap::OfMass of{.head = apart(massAtHead(own), massAtHead(other), leastHead),
                              .ballSpeed = {},
                              .value = {},
                              .swingWeight = apart(ownFigures.swingWeight, otherFigures.swingWeight, leastPoints),
                              .whole = apart(ownFigures.mass, otherFigures.mass, leastWhole)};
        if (!of.head && !of.swingWeight && !of.whole)
            return std::nullopt;
        const auto delivery = deliveredWith(against);
        if (of.head && delivery) {
            flight::Head head = flight::usualHead(m_kinds.head(against));
            const auto before = flight::launchOf(*delivery, head);
            head.mass += *of.head / 1000;
            const auto after = flight::launchOf(*delivery, head);
            of.ballSpeed = after.ballSpeed - before.ballSpeed;
            of.value = changed(from, before, after, output);
        }
        return of;
    }

    static std::optional<double> massAtHead(const record::Club& club) {
        return club.head.mass ? std::optional(*club.head.mass + club.lead) : std::nullopt;
    }

    // Nothing where either is not known, or they lie nearer than `least`.
    static std::optional<double> apart(std::optional<double> own, std::optional<double> other, double least) {
        return own && other && std::fabs(*own - *other) >= least ? std::optional(*own - *other) : std::nullopt;
    }

    std::optional<flight::Delivery> deliveredWith(BuildAt build) const {
        const auto clubSpeed = meanOfAll(build, Metric::clubSpeed);
        const auto dynamicLoft = meanOfAll(build, Metric::dynamicLoft);
        if (!clubSpeed || !dynamicLoft)
            return std::nullopt;
        return flight::Delivery{.clubSpeed = *clubSpeed,
                                .dynamicLoft = *dynamicLoft,
                                .attack = meanOfAll(build, Metric::attack).value_or(0)};
    }

    // What an output becomes where a launch that the impact model gives goes from `before` to `after`.
    static double changed(const Inputs& from, const flight::Launch& before, const flight::Launch& after,
                          std::size_t output) {
        Inputs in = from;
        in[launch] += after.launch - before.launch;
        in[spin] += after.spin - before.spin;
        in[efficiency] *= 1 + (after.ballSpeed - before.ballSpeed) / (from[speed] * from[efficiency]);
        return flown(in)[output] - flown(from)[output];
    }

    std::optional<double> meanOfAll(BuildAt build, Metric metric) const {
        const Summary* summary = m_reading.summaryOf(metric, build);
        return summary == nullptr ? std::nullopt : std::optional(summary->mean);
    }

    const JudgeRequest& m_request;
    const record::Test& m_test;
    rack::ClubKinds m_kinds;
    const record::Structure& m_structure;
    const Reading& m_reading;
    std::vector<Metric> m_outputs;
    Sideways m_sideways;
};

} // namespace

std::vector<PartsOfGap> partsOfGaps(const JudgeRequest& request, const Reading& reading) {
    return Parting(request, reading).all();
}

} // namespace knot::judge
