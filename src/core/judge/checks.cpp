#include "core/judge/checks.h"

#include "core/rack/difference.h"
#include "core/record/number_text.h"

#include <algorithm>
#include <set>

namespace knot::judge {
namespace {

using record::counted;

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
        if (anyCap(Cap::onePerPlayer))
            add("one_per_player", Severity::fault,
                "Each player hit the clubs in one lap, and players are no laps of each other. Gaps are shown, not "
                "judged.");
        if (anyCap(Cap::tooFewRounds))
            add("too_few_rounds", Severity::caution,
                "Some clubs share fewer than two laps, so their gap has no known error.");
    }

    void leads() {
        if (m_subject.givesLeadsOnly() && m_reading.builds.size() > 1)
            add("leads_only", Severity::caution,
                std::string(m_test.stage == record::Stage::screening ? "A screening" : "An open sitting") +
                    " gives leads, never verdicts: clubs come and go, and nothing was planned. A fair test of two "
                    "takes fresh shots.");
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
            if (turn.round)
                held.insert({*turn.round, turn.build});
        const std::size_t missing = m_structure.rounds.size() * m_test.builds.size() - held.size();
        if (missing > 0 && m_structure.rounds.size() > 1)
            add("missing_turns", Severity::note,
                counted(missing, "lap lacks", "laps lack") + " a stint with one of the clubs.");
    }

    void plan() {
        const auto planned = static_cast<std::size_t>(m_reading.card.plannedRounds);
        const std::string done = std::to_string(m_reading.roundsDone) + " of " + counted(planned, "planned lap");
        const bool hasLooks = m_reading.card.looks != record::Looks::none;
        if (planned > 0 && hasLooks && m_reading.roundsDone < 2)
            add("before_first_look", Severity::note, done + " done. The first look comes after two laps.");
        else if (planned > 0 && hasLooks)
            add("look", Severity::note,
                done + " done. At this look claims are made at " + record::probability(m_reading.level) +
                    (m_reading.roundsDone < planned ? "; a verdict is not kept if play goes on." : "."));
        else if (planned > 0 && m_reading.roundsDone < planned)
            add("unfinished_plan", Severity::caution,
                done + " done. The error rates hold only if nobody looks before the plan is done.");
        if (m_reading.roundsBeyond > 0)
            add("beyond_plan", Severity::note,
                counted(m_reading.roundsBeyond, "lap") + " beyond the plan " +
                    (m_reading.roundsBeyond == 1 ? "is" : "are") + " kept but not judged.");
        if (planned > 0 && m_reading.card.blinding == record::Blinding::open)
            add("not_blinded", Severity::note, "The player knew which club was which; that may have moved the swing.");
        for (const auto& amendment : m_reading.amendments)
            add("amended", Severity::caution,
                "The test sheet was amended after its first shot, " + amendment.at + ": " + amendment.text);
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
            add("specs_differ", Severity::caution,
                "The clubs also differ in " + besides + ", which may be what is seen.");
        if (!with.empty())
            add("comes_with_factor", Severity::caution,
                "What is tested brings " + with + " with it; that alone may make the gap.");
        for (const auto& held : m_test.card.held)
            if (!held.held)
                add("not_held", Severity::caution,
                    "Not held constant: " + held.what + (held.slip.empty() ? "." : " (" + held.slip + ")."));
    }

    void lateSetAsides() {
        if (m_reading.lateSetAsides.empty())
            return;
        std::string shots;
        for (const LateSetAside& late : m_reading.lateSetAsides)
            shots += (shots.empty() ? "" : ", ") + std::to_string(late.number);
        add("late_set_asides", Severity::caution,
            counted(m_reading.lateSetAsides.size(), "shot was", "shots were") +
                " set aside late, after the number was seen or the clubs were known: number " + shots + ".");
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
