#pragma once

#include "core/judge/reading.h"
#include "core/record/text/text.h"
#include "core/record/units.h"

#include <optional>

namespace knot::words {

using judge::BuildAt;
using judge::Outcome;
using judge::Reading;
using judge::Role;
using judge::Verdict;
using record::upperFirst;

/// One row of the verdict ledger, in words. Numbers are rounded to what their standard error
/// supports and stand in the user's units.
struct LedgerLine {
    Outcome outcome; ///< an average, a spread or the landing area
    Verdict verdict = Verdict::open;
    Role role = Role::exploratory;
    BuildAt build, against;
    std::string finding;  ///< after the build's name: "carries farther", or "carry" when no gap stands
    std::string judged;   ///< "Real, and big enough to matter: better"
    std::string value;    ///< "6.4 m", "1.6 ×"
    std::string interval; ///< "2.9 to 9.9", at 90 % for `same` and `slight`
    std::string because;  ///< a cap's reason or what would settle it; may be empty
    std::string sentence; ///< the whole row as one sentence
    /// The interval as it is written, in worthwhile gaps: ±1 is the edge of what matters. Of a ratio by its logarithm.
    std::optional<judge::Interval> inGaps;
};

/// The ledger: declared outcomes in the card's order, then the rest, settled before unsettled.
std::vector<LedgerLine> ledger(const Reading& reading, const record::DisplayUnits& units);

/// "Real, but too small to matter" and so on, without direction.
std::string of(Verdict verdict);

/// One number of how a line was reckoned.
struct ArithmeticStep {
    std::string what, value, how; ///< "Standard error", "1.2 m", "on 4 degrees of freedom"
};

/// How a line of the ledger was reckoned: estimate, error, the p's before and after their family
/// (that of "big enough" doubled, since it is judged at half the level) and the second opinions.
std::vector<ArithmeticStep> arithmetic(const Reading& reading, const LedgerLine& line,
                                       const record::DisplayUnits& units);

} // namespace knot::words
