#pragma once

#include "core/plan/planner.h"
#include "core/plan/spreads.h"
#include "core/record/test.h"
#include "core/record/units.h"

#include <QString>

namespace knot::app {

/// What the planner knows of the player in an outcome.
struct Planning {
    record::Outcome outcome;
    record::Metric metric = record::Metric::carry;
    plan::Question question;
    plan::Pace pace;
    plan::Spreads spreads;
    /// Of spreads and areas a gap is a ratio.
    bool isRatio() const {
        return outcome.kind == record::OutcomeKind::spread || outcome.kind == record::OutcomeKind::area;
    }
};

Planning planningOf(const record::Test& test, const record::Outcome& outcome, const plan::Spreads& spreads);

/// The planner's answers as short paragraphs (HTML): what this plan sees, what the worthwhile gap takes, and what three
/// shots each would see. The last only where no curve shows it.
QString answersHtml(const record::Test& test, const Planning& planning, double minutes,
                    const record::DisplayUnits& units, bool withThreeEach);

/// What as many laps as fit would give with a look after each: how often the worthwhile gap and twice that
/// are claimed, and after how many laps on average. Empty where under four laps fit.
QString looksHtml(const Planning& planning, double minutes);

/// What the chosen plan can't establish, as short paragraphs; empty when there is nothing to say.
QString limitsHtml(const record::Test& test, const Planning& planning);

} // namespace knot::app
