#pragma once

#include "core/judge/reading.h"
#include "core/record/units.h"

namespace knot::judge {

/// One row of the verdict ledger, in words. Numbers are rounded to what their standard error
/// supports and stand in the user's units.
struct LedgerLine {
    std::size_t row = 0; ///< index into Reading::average
    Verdict verdict = Verdict::open;
    Role role = Role::exploratory;
    std::size_t build = 0;
    std::string finding;  ///< after the build's name: "carries farther", or "carry" when no gap stands
    std::string judged;   ///< "Real, and big enough to matter: better"
    std::string value;    ///< "6.4 m"
    std::string interval; ///< "2.9 to 9.9", at 90 % for `same` and `slight`
    std::string because;  ///< a cap's reason or what would settle it; may be empty
};

/// The ledger: primary outcomes in the card's order, then the rest, settled before unsettled.
std::vector<LedgerLine> ledger(const Reading& reading, const record::DisplayUnits& units);

/// A whole sentence for one row: "Fern carries farther than Slate by 6.4 m (2.9 to 9.9): real, and
/// big enough to matter."
std::string sentence(const Reading& reading, const AverageGap& row, const record::DisplayUnits& units);

/// All sentences of the reading: what was compared, each ledger row, each check.
std::vector<std::string> sentences(const Reading& reading, const record::DisplayUnits& units);

/// "Real, but too small to matter" and so on, without direction.
std::string words(Verdict verdict);

} // namespace knot::judge
