#pragma once

#include "files/import/column_values.h"
#include "files/import/columns.h"
#include "files/import/table.h"

#include <vector>

namespace knot::files {

/// A column as it was looked at, before it means anything.
struct LookedColumn {
    std::size_t at = 0;
    HeadingWords words;
    std::vector<Candidate> candidates; ///< those that its values allow, best first
    Values values;
    std::optional<record::Side> positive; ///< that its heading says
    bool isByHand = false;
};

/// What columns say of each other once their headings are settled: which one names the club where no heading does,
/// that a club which never changes is not what was compared, and which column of words gives the sides of another.
void lookBeside(const Sheet& sheet, const TableAt& table, const std::string& file,
                const std::vector<LookedColumn>& columns, std::vector<ColumnTaken>& taken);

} // namespace knot::files
