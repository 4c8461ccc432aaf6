#include "files/import/rows/summed_up.h"

#include "files/import/cells/cell_number.h"
#include "files/import/doubts.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

namespace knot::files {
namespace {

constexpr std::size_t mostColumnsLooked = 12;
constexpr double byChance = 1e-5;      // in a file
constexpr std::size_t leastSummed = 3; // that are worth summing up

// Half of the last figure's place: 0.05 for "12.3", 0.5 for "12".
double halfStep(std::string_view cell, record::DecimalMark mark) {
    const auto point = cell.find(mark == record::DecimalMark::comma ? ',' : '.');
    double half = 0.5;
    if (point != std::string_view::npos)
        for (std::size_t i = point + 1; i < cell.size() && record::isDigit(cell[i]); ++i)
            half /= 10;
    return half;
}

} // namespace

SummedUp::SummedUp(const Sheet& sheet, const std::vector<ColumnTaken>& columns)
    : m_sheet(sheet)
    , m_columns(columns) {
    for (std::size_t i = 0; i < columns.size() && m_read.size() < mostColumnsLooked; ++i)
        if (columns[i].meaning.role == ColumnRole::metric)
            m_read.push_back(i);
    m_sums.resize(m_read.size(), {Sum{}});
}

void SummedUp::add(std::size_t row, std::size_t name) {
    Row added{row, m_sheet.cell(row, name), {}, {}};
    const bool isNothing = std::ranges::all_of(m_read, [&](std::size_t at) {
        return numberOfCell(m_sheet.cell(row, at), m_columns[at].mark).value_or(CellNumber{}).value == 0;
    });
    for (std::size_t k = 0; k < m_read.size(); ++k) {
        const ColumnTaken& column = m_columns[m_read[k]];
        const auto cell = m_sheet.cell(row, m_read[k]);
        const auto number =
            cell.empty() ? tl::unexpected(record::NumberFault::notANumber) : numberOfCell(cell, column.mark);
        added.values.push_back(number ? number->value : std::numeric_limits<double>::quiet_NaN());
        added.halfSteps.push_back(number ? halfStep(cell, column.mark) : 0);
        Sum sum = m_sums[k].back();
        // What cannot be was not averaged.
        if (number && !isNothing &&
            canBe(column.meaning.metric, record::toInternal(number->value, column.meaning.unit))) {
            ++sum.n;
            sum.sum += number->value;
            sum.squares += number->value * number->value;
        }
        m_sums[k].push_back(sum);
    }
    m_rows.push_back(std::move(added));
}

SummedUp::Sum SummedUp::between(std::size_t column, std::size_t from, std::size_t to) const {
    const Sum& low = m_sums[column][from];
    const Sum& high = m_sums[column][to];
    return {high.n - low.n, high.sum - low.sum, high.squares - low.squares};
}

// Whether the row's figures are all averages, or all spreads, of the rows from one to before another.
bool SummedUp::sumsUp(std::size_t at, std::size_t from, std::size_t to) const {
    const Row& row = m_rows[at];
    double asMean = 1;
    double asSpread = 1;
    std::size_t compared = 0;
    for (std::size_t k = 0; k < m_read.size(); ++k) {
        const Sum sum = between(k, from, to);
        if (std::isnan(row.values[k]) || sum.n < static_cast<double>(leastSummed))
            continue;
        const double mean = sum.sum / sum.n;
        const double variance = std::max(0.0, (sum.squares - sum.sum * mean) / (sum.n - 1));
        const double sd = std::sqrt(variance);
        if (sd <= 0)
            continue;
        ++compared;
        const double half = row.halfSteps[k];
        const double slack = half * 1.05 + 1e-9 * std::fabs(mean);
        // About the share of shots within the rounding, were this one of them.
        const double chance = std::min(1.0, 0.8 * half / sd);
        const double spreadOfN = sd * std::sqrt((sum.n - 1) / sum.n);
        const bool isSpread = std::fabs(row.values[k] - sd) <= slack || std::fabs(row.values[k] - spreadOfN) <= slack;
        asMean *= std::fabs(row.values[k] - mean) <= slack ? chance : 1e9;
        asSpread *= isSpread ? chance : 1e9;
    }
    const double most = byChance / static_cast<double>(m_rows.size() * 5);
    return compared >= 2 && std::min(asMean, asSpread) < most;
}

std::vector<std::size_t> SummedUp::rows() const {
    std::vector<std::size_t> found;
    std::size_t run = 0;   // where the last rows of one name begin
    std::size_t block = 0; // and those since the last summary
    std::optional<std::size_t> summaries;
    for (std::size_t i = 0; i < m_rows.size(); ++i) {
        const bool begins = i == 0 || m_rows[i].name != m_rows[i - 1].name;
        const bool isAlone = begins && (i + 1 == m_rows.size() || m_rows[i + 1].name != m_rows[i].name);
        const std::size_t end = summaries.value_or(i);
        std::size_t next = i + 1; // the end of the run below
        while (isAlone && next + 1 < m_rows.size() && next < i + 200 && m_rows[next + 1].name == m_rows[i + 1].name)
            ++next;
        if ((isAlone || m_rows[i].name.empty()) && m_rows.size() > leastSummed &&
            (sumsUp(i, run, end) || sumsUp(i, block, end) || sumsUp(i, 0, end) || sumsUp(i, i + 1, m_rows.size()) ||
             sumsUp(i, i + 1, std::min(next + 1, m_rows.size())))) {
            found.push_back(m_rows[i].row);
            summaries = end;
            continue;
        }
        if (begins || summaries)
            run = i;
        if (summaries)
            block = i;
        summaries.reset();
    }
    return found;
}

} // namespace knot::files
