#pragma once

#include "files/import/columns.h"

#include <string_view>
#include <vector>

namespace knot::files {

/// Finds rows that sum up others whatever they are called: each of their figures is the average, the spread or the
/// median of the rows above, of the run above, of those below or of all, to the last figure written. How likely that
/// is by chance is reckoned; a row that one file in a hundred thousand would have by chance is none.
class SummedUp {
public:
    SummedUp(const Sheet& sheet, const std::vector<ColumnTaken>& columns);

    /// A row that may be a shot or a summary; `name` is the column whose text tells them apart.
    void add(std::size_t row, std::size_t name);
    /// Those among them that sum up others.
    std::vector<std::size_t> rows() const;

private:
    struct Row {
        std::size_t row = 0;
        std::string_view name;
        std::vector<double> values; ///< by column; NaN where nothing was read
        std::vector<double> halfSteps;
    };
    struct Sum {
        double n = 0, sum = 0, squares = 0;
    };
    Sum between(std::size_t column, std::size_t from, std::size_t to) const;
    bool sumsUp(std::size_t at, std::size_t from, std::size_t to) const;

    const Sheet& m_sheet;
    const std::vector<ColumnTaken>& m_columns;
    std::vector<std::size_t> m_read; ///< columns of readings
    std::vector<Row> m_rows;
    std::vector<std::vector<Sum>> m_sums; ///< by column, of the rows before each
};

} // namespace knot::files
