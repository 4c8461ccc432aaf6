#pragma once

#include "core/plan/planner.h"
#include "core/plan/spreads.h"
#include "core/plan/worth_ways.h"
#include "core/record/test.h"
#include "core/record/units.h"

#include <QString>

#include <functional>
#include <optional>

namespace knot::app {

/// A record without a plan: a file, or hit first.
inline bool isStruckAsItCame(const record::Test& test) {
    return !test.shots.empty() && test.turns.empty();
}

/// What the planner knows of the player in an outcome.
struct Planning {
    record::Outcome outcome;
    record::Metric metric = record::Metric::carry;
    plan::Question question;
    plan::Pace pace;
    plan::Spreads spreads;
    double minutes = 0; ///< that the plan takes
    /// Of spreads and areas a gap is a ratio.
    bool isRatio() const {
        return outcome.kind == record::OutcomeKind::spread || outcome.kind == record::OutcomeKind::area;
    }
};

Planning planningOf(const record::Test& test, const record::Outcome& outcome, const plan::Spreads& spreads);

/// The planner's answers as short paragraphs (HTML): what this plan sees, and what the worthwhile gap takes.
QString answersHtml(const record::Test& test, const Planning& planning, double minutes,
                    const record::DisplayUnits& units);

/// What three shots each would see of a number, and how often plain tests of them call clubs different that are alike.
QString byHandHtml(const Planning& planning, const record::DisplayUnits& units);

/// What as many laps as fit would give with a look after each: how often the worthwhile gap and twice that
/// are claimed, and after how many laps on average. Empty where under four laps fit.
QString looksHtml(const Planning& planning, double minutes);

/// What has to be known before the first ball, as short paragraphs with links to numbers of laps; mostly empty.
QString cautionsHtml(const record::Test& test);

/// "1.7 of 2.2 m. Three shots each get 52, choosing unhit none."
QString getsText(const record::Outcome& outcome, const plan::Worth& worth, const plan::Worth& byHand,
                 const record::DisplayUnits& units);
/// What the same plan on a second day, and the other declared outcomes, get.
QString othersText(const record::Test& test, const plan::WorthOf& of,
                   const std::function<plan::WorthOf(const record::Outcome& outcome)>& worthOf);
/// "if one is 2.7 m better in carry and the others are alike"
QString ifBetterText(const plan::PlanWorth& planned, const record::DisplayUnits& units);
/// What is left lying where another one is taken: ": 2.7 m left lying".
QString leftText(const plan::PlanWorth& planned, const record::DisplayUnits& units);
/// A hundred futures of three shots each, and of the plan on two days: proved, chosen, wrong.
QString otherFuturesText(const plan::PlanWorth& byHand, const plan::PlanWorth& onTwoDays);
/// The minutes that the next test of a record's clubs may take, where nobody says.
inline constexpr double eveningMinutes = 45;
/// The planned test of them that gets most in those.
std::optional<plan::WorthOption> nextTest(const plan::WorthOf& of);
/// What that would get.
QString nextTestText(const plan::WorthOf& of);

/// What the chosen plan can't establish, as short paragraphs; empty when there is nothing to say.
QString limitsHtml(const record::Test& test, const Planning& planning);

} // namespace knot::app
