#include "core/judge/bets/leads.h"

#include "core/judge/gaps/summary.h"
#include "core/judge/spreads/dispersion.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {
namespace {

using record::OutcomeKind;

// What one build has shown in an outcome.
class Shown {
public:
    Shown(const Case& subject, const record::Outcome& outcome)
        : m_subject(subject)
        , m_outcome(outcome)
        , m_column(columnOf(subject.test(), subject.structure(), outcome.metric, subject.taken())) {}

    std::size_t shots(BuildAt build) const { return m_column.builds[build].count(); }

    std::optional<double> value(BuildAt build) const {
        switch (m_outcome.kind) {
        case OutcomeKind::average:
        case OutcomeKind::equal:
        case OutcomeKind::typical: // leads are of what was struck
            return mean(m_column, build);
        case OutcomeKind::spread:
            if (const auto summary = summarise(m_column, build))
                return summary->withinTurnSd;
            return std::nullopt;
        case OutcomeKind::area:
            if (const auto area =
                    landingArea(landingsOf(m_subject.test(), m_subject.structure(), m_subject.taken()), build))
                return area->area50;
            return std::nullopt;
        case OutcomeKind::share:
            for (const auto& shape : m_subject.test().card.shapes)
                if (shape.name == m_outcome.shape)
                    return mean(hitsOf(m_subject.test(), m_subject.structure(), shape, m_subject.taken()), build);
            return std::nullopt;
        }
        return std::nullopt;
    }

private:
    static std::optional<double> mean(const Column& column, BuildAt build) {
        const auto values = column.builds[build].all();
        return values.empty() ? std::nullopt : std::optional(meanOf(values));
    }

    const Case& m_subject;
    const record::Outcome& m_outcome;
    Column m_column;
};

} // namespace

record::Outcome leadOutcome(const record::Card& card) {
    return card.primary.empty() ? record::Outcome{.kind = OutcomeKind::average, .metric = Metric::carry, .shape = {}}
                                : card.primary.front();
}

std::vector<Lead> leads(const Case& subject) {
    const record::Test& test = subject.test();
    const record::Outcome outcome = leadOutcome(test.card);
    const Shown shown(subject, outcome);
    std::vector<Lead> leads;
    for (BuildAt club; club < subject.clubs(); ++club) {
        BuildAt latest = club;
        for (BuildAt build; build < test.builds.size(); ++build)
            if (subject.clubOf(build) == club)
                latest = build;
        if (subject.roster().isIn(club) && shown.shots(latest) > 0)
            leads.push_back({club, shown.shots(latest), shown.value(latest)});
    }
    const record::Want want = test.card.want(outcome);
    std::ranges::stable_sort(leads, [&](const Lead& a, const Lead& b) {
        if (a.value.has_value() != b.value.has_value())
            return a.value.has_value();
        return a.value && want.merit(*a.value) > want.merit(*b.value);
    });
    return leads;
}

std::vector<LiveAverage> liveAverages(const Case& subject, Metric metric) {
    const Column column = columnOf(subject.test(), subject.structure(), metric, Taken::counted);
    std::vector<LiveAverage> averages;
    for (BuildAt build; build < column.builds.size(); ++build)
        if (const auto values = column.builds[build].all(); !values.empty())
            averages.push_back({build, meanOf(values), values.size()});
    return averages;
}

} // namespace knot::judge
