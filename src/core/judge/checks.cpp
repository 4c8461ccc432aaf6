#include "core/judge/checks.h"

#include "core/rack/difference.h"

#include <algorithm>
#include <map>
#include <set>

namespace knot::judge {
namespace {

class Findings {
public:
    Findings(const Case& subject, const Reading& reading)
        : m_subject(subject)
        , m_test(subject.test())
        , m_structure(subject.structure())
        , m_reading(reading) {}

    std::vector<Check> all() {
        emptiness();
        fairness();
        leads();
        fewRounds();
        thinRecord();
        plan();
        lateSetAsides();
        otherDifferences();
        monitorLimits();
        std::ranges::stable_sort(m_checks, std::greater{}, &Check::severity);
        return std::move(m_checks);
    }

private:
    void add(const char* code, Severity severity, Check fact = {}) {
        fact.code = code;
        fact.severity = severity;
        m_checks.push_back(std::move(fact));
    }

    void emptiness() {
        if (m_test.shots.empty())
            return add("no_shots", Severity::fault);
        if (m_test.builds.size() == 1)
            add("one_build", Severity::fault, {.what = m_test.builds.front().name});
        if (m_reading.metrics.empty())
            add("no_readings", Severity::fault);
        for (const BuildCount& build : m_reading.builds)
            if (build.counted > 0 && build.counted < 3)
                add("too_few_shots", Severity::caution, {.count = build.counted, .what = build.name});
    }

    bool anyCap(Cap cap) const {
        return std::ranges::any_of(m_reading.average, [&](const AverageGap& row) { return row.claim.cap == cap; });
    }

    void fairness() {
        if (anyCap(Cap::oneTurnEach))
            add("one_turn_each", Severity::fault);
        if (anyCap(Cap::separatedTurns))
            add("separated_turns", Severity::fault);
        if (anyCap(Cap::onePerPlayer))
            add("one_per_player", Severity::fault);
        if (anyCap(Cap::onePerDelivery))
            add("one_per_delivery", Severity::fault);
        if (anyCap(Cap::tooFewRounds))
            add("too_few_rounds", Severity::caution);
        sameOrder();
        playersInOneOrder();
        hangingOnDelivery();
    }

    // Where two clubs answer the delivery differently, there is no one gap at equal delivery.
    void hangingOnDelivery() {
        for (const AverageGap& row : m_reading.average)
            if (row.kind == record::OutcomeKind::equal && row.details.slopesDifferP.value_or(1) < 0.05)
                add("hangs_on_delivery", Severity::caution,
                    {.what = record::outcomeLabel({.kind = row.kind, .metric = row.metric}) + ", " +
                             m_test.builds[row.build].name + " against " + m_test.builds[row.against].name});
    }

    // The clubs in the order in which each player first met them.
    void playersInOneOrder() {
        std::map<std::size_t, std::vector<BuildAt>> met;
        for (const record::Turn& turn : m_structure.turns)
            if (turn.round)
                if (auto& own = met[turn.player]; std::ranges::find(own, turn.build) == own.end())
                    own.push_back(turn.build);
        if (met.size() < 2)
            return;
        const auto& first = met.begin()->second;
        if (first.size() > 1 && std::ranges::all_of(met, [&](const auto& own) { return own.second == first; }))
            add("players_one_order", Severity::caution, {.count = met.size()});
    }

    // Pairs that were hit in one order in nearly every lap: along a line where it could be laid, else by laps that
    // take no drift out.
    void sameOrder() {
        bool byLine = false;
        bool byLaps = false;
        for (const AverageGap& row : m_reading.average)
            if (row.sameOrder)
                (row.method == GapMethod::line ? byLine : byLaps) = true;
        if (byLaps)
            add("same_order", Severity::fault);
        else if (byLine)
            add("common_line", Severity::note);
    }

    void leads() {
        if (m_subject.givesLeadsOnly() && m_reading.builds.size() > 1)
            add("leads_only", Severity::caution,
                {.what = m_test.stage == record::Stage::screening ? "A screening" : "An open sitting"});
    }

    void fewRounds() {
        std::size_t fewest = 0;
        for (const AverageGap& row : m_reading.average)
            if (row.method == GapMethod::rounds && row.rounds >= 2)
                fewest = fewest == 0 ? row.rounds : std::min(fewest, row.rounds);
        if (fewest >= 2 && fewest < 6)
            add("few_rounds", Severity::note, {.count = fewest});
    }

    void thinRecord() {
        std::size_t setAside = 0;
        for (const BuildCount& build : m_reading.builds)
            setAside += build.setAside;
        if (setAside > 0)
            add("set_asides", Severity::note, {.count = setAside});
        const auto rounds = roundsHeld(m_subject);
        const auto missing = static_cast<std::size_t>(
            std::ranges::count_if(rounds, [](const RoundHeld& round) { return !round.lacking.empty(); }));
        if (missing > 0 && rounds.size() > 1 && m_reading.singleRuns.empty())
            add("missing_turns", Severity::note, {.count = missing});
    }

    void plan() {
        if (m_subject.strikesOff()) {
            const record::Roster& roster = m_subject.roster();
            std::string gone;
            for (BuildAt club; club < roster.clubs(); ++club)
                if (roster.isStruckOff(club))
                    gone += (gone.empty() ? "" : ", ") + m_test.builds[club].name + " " + roster.whyOut(club);
            const std::size_t left = roster.left().size();
            add(left == 2                   ? "struck_off"
                : m_subject.endsBeforeTwo() ? "ended_before_two"
                                            : "striking_off",
                Severity::note, {.count = left, .of = roster.clubs(), .what = gone});
        }
        const auto planned = static_cast<std::size_t>(m_reading.card.plannedRounds);
        const Check laps{.count = m_reading.roundsDone, .of = planned};
        const bool hasLooks = m_reading.card.looks != record::Looks::none;
        if (planned > 0 && hasLooks)
            add(m_reading.roundsDone < 2 ? "before_first_look" : "look", Severity::note, laps);
        else if (planned > 0 && m_reading.roundsDone < planned)
            add("unfinished_plan", Severity::caution, laps);
        if (m_reading.roundsBeyond > 0)
            add("beyond_plan", Severity::note, {.count = m_reading.roundsBeyond});
        if (planned > 0 && m_reading.card.blinding == record::Blinding::open)
            add("not_blinded", Severity::note);
        for (const auto& amendment : m_reading.amendments)
            add(amendment.was.empty() ? "amended" : "put_right", Severity::caution,
                {.what = amendment.text, .at = amendment.at});
    }

    // What differs between the clubs besides the factor, and what was not held constant.
    void otherDifferences() {
        std::string besides;
        std::string with;
        for (const auto& row : rack::differenceSheet(m_test.builds, m_test.card.kind)) {
            if (row.weight == rack::Weight::slight || (row.follows && row.weight != rack::Weight::large))
                continue;
            std::string& text = row.follows ? with : besides;
            text += (text.empty() ? "" : "; ") + row.what + " (";
            for (std::size_t b = 0; b < row.values.size(); ++b)
                text += (b == 0 ? "" : ", ") + row.values[b];
            text += row.unit.empty() || row.unit == "points" ? ")" : " " + row.unit + ")";
        }
        if (!besides.empty())
            add("specs_differ", Severity::caution, {.what = besides});
        if (!with.empty())
            add("comes_with_factor", Severity::caution, {.what = with});
        for (const auto& held : m_test.card.held)
            if (!held.held)
                add("not_held", Severity::caution, {.what = held.what, .at = held.slip});
    }

    void lateSetAsides() {
        if (!m_reading.lateSetAsides.empty())
            add("late_set_asides", Severity::caution, {.count = m_reading.lateSetAsides.size()});
    }

    void monitorLimits() {
        for (const Metric metric : m_reading.metrics) {
            const auto& info = record::info(metric);
            const double margin = m_reading.card.margin(metric);
            if (margin < info.repeatability)
                add("below_repeatability", Severity::caution, {.what = info.label});
        }
    }

    const Case& m_subject;
    const record::Test& m_test;
    const record::Structure& m_structure;
    const Reading& m_reading;
    std::vector<Check> m_checks;
};

} // namespace

std::vector<Check> checksOf(const Case& subject, const Reading& reading) {
    return Findings(subject, reading).all();
}

} // namespace knot::judge
