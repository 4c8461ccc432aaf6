#include "core/judge/checks.h"

#include "core/record/number_text.h"

#include <algorithm>
#include <set>

namespace knot::judge {
namespace {

using record::counted;

class Findings {
public:
    Findings(const record::Test& test, const record::Structure& structure, const Reading& reading)
        : m_test(test)
        , m_structure(structure)
        , m_reading(reading) {}

    std::vector<Check> all() {
        emptiness();
        fairness();
        fewRounds();
        thinRecord();
        monitorLimits();
        std::ranges::stable_sort(m_checks, std::greater{}, &Check::severity);
        return std::move(m_checks);
    }

private:
    void add(const char* code, Severity severity, std::string text) {
        m_checks.push_back({code, severity, std::move(text)});
    }

    void emptiness() {
        if (m_test.shots.empty())
            return add("no_shots", Severity::fault, "No shots yet, so there is nothing to judge.");
        if (m_test.builds.size() == 1)
            add("one_build", Severity::fault,
                "Only " + m_test.builds.front().name + " was struck. A comparison needs a second club.");
        if (m_reading.metrics.empty())
            add("no_readings", Severity::fault, "No counted shot has a reading, so nothing can be judged.");
        for (const BuildCount& build : m_reading.builds)
            if (build.counted > 0 && build.counted < 3)
                add("too_few_shots", Severity::caution,
                    build.name + " has " + counted(build.counted, "counted shot") + "; a verdict needs three.");
    }

    bool anyCap(Cap cap) const {
        return std::ranges::any_of(m_reading.average, [&](const AverageGap& row) { return row.claim.cap == cap; });
    }

    void fairness() {
        if (anyCap(Cap::oneTurnEach))
            add("one_turn_each", Severity::fault,
                "At least one club was hit in a single stint, so the club and the moment can't be "
                "told apart. Gaps are shown, not judged.");
        if (anyCap(Cap::separatedTurns))
            add("separated_turns", Severity::fault,
                "All stints with one club came before the other's, so the club and the moment "
                "can't be told apart. Gaps are shown, not judged.");
        if (anyCap(Cap::tooFewRounds))
            add("too_few_rounds", Severity::caution,
                "Some clubs share fewer than two laps, so their gap has no known error.");
    }

    void fewRounds() {
        std::size_t fewest = 0;
        for (const AverageGap& row : m_reading.average)
            if (row.method == GapMethod::rounds && row.rounds >= 2)
                fewest = fewest == 0 ? row.rounds : std::min(fewest, row.rounds);
        if (fewest >= 2 && fewest < 6)
            add("few_rounds", Severity::note,
                "With " + counted(fewest, "lap") + " the shuffle check can't go below " +
                    record::probability(2.0 / static_cast<double>(1U << fewest)) + ".");
    }

    void thinRecord() {
        std::size_t setAside = 0;
        for (const BuildCount& build : m_reading.builds)
            setAside += build.setAside;
        if (setAside > 0)
            add("set_asides", Severity::note,
                counted(setAside, "shot was", "shots were") + " set aside and not counted.");
        std::set<std::pair<std::size_t, std::size_t>> held;
        for (const auto& turn : m_structure.turns)
            if (turn.round != record::Turn::noRound)
                held.insert({turn.round, turn.build});
        const std::size_t missing = m_structure.rounds.size() * m_test.builds.size() - held.size();
        if (missing > 0 && m_structure.rounds.size() > 1)
            add("missing_turns", Severity::note,
                counted(missing, "lap lacks", "laps lack") + " a stint with one of the clubs.");
    }

    void monitorLimits() {
        for (const Metric metric : m_reading.metrics) {
            const auto& info = record::info(metric);
            const double margin = m_reading.card.margin(metric);
            if (margin < info.repeatability)
                add("below_repeatability", Severity::caution,
                    "The worthwhile gap in " + info.label + " is smaller than a monitor usually repeats itself.");
        }
    }

    const record::Test& m_test;
    const record::Structure& m_structure;
    const Reading& m_reading;
    std::vector<Check> m_checks;
};

} // namespace

std::vector<Check> checksOf(const record::Test& test, const record::Structure& structure, const Reading& reading) {
    return Findings(test, structure, reading).all();
}

} // namespace knot::judge
