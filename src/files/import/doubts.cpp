#include "files/import/doubts.h"

#include "core/record/text/number_text.h"
#include "core/record/typed/amount.h"
#include "files/import/cells/cell_number.h"
#include "files/import/go_together.h"
#include "files/import/units.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <set>

namespace knot::files {
namespace {

// "6.476" rpm is 6,476, and "980" beside it is 980.
double withThousands(record::Metric metric, record::Unit unit, double value) {
    const bool isThousands =
        !canBe(metric, record::toInternal(value, unit)) && canBe(metric, record::toInternal(1000 * value, unit));
    return isThousands ? 1000 * value : value;
}

using record::Metric;
using record::Unit;

constexpr std::size_t askedRows = 4000;
constexpr double wantedShare = 0.9; // of readings must be usual in the unit they are in

std::string brief(std::string_view text) {
    constexpr std::size_t most = 16;
    return text.size() <= most ? std::string(text) : std::string(text.substr(0, most - 1)) + "…";
}

// What stands in a column of readings.
struct Looked {
    std::vector<std::string_view> numbers;  ///< cells that are one
    std::vector<double> values;             ///< theirs, as written
    std::vector<std::string_view> unread;   ///< marks and words where a number should be
    std::vector<std::string_view> cannotBe; ///< numbers that no reading has
    std::size_t firstLine = 0;              ///< of what is asked about
};

class Asking {
public:
    Asking(const Sheet& sheet, const TableAt& table, const std::vector<RowKind>& kinds,
           std::vector<ColumnTaken>& columns)
        : m_sheet(sheet)
        , m_columns(columns) {
        for (std::size_t i = 0; i < kinds.size() && m_rows.size() < askedRows; ++i)
            if (kinds[i] == RowKind::shot)
                m_rows.push_back(table.first + i);
    }

    void all() {
        for (std::size_t i = 0; i < m_columns.size(); ++i)
            if (isOpen(m_columns[i]))
                askOne(i);
        askTogether(m_sheet, m_rows, m_columns);
    }

private:
    static bool isOpen(const ColumnTaken& column) {
        return column.meaning.role == ColumnRole::metric && column.meaning.doubtful == Doubtful::undecided;
    }

    Looked look(std::size_t at) const {
        const ColumnTaken& column = m_columns[at];
        Looked looked;
        for (const std::size_t row : m_rows) {
            const auto cell = m_sheet.cell(row, at);
            if (cell.empty())
                continue;
            const auto number = numberOfCell(cell, column.mark);
            const std::size_t before = looked.unread.size() + looked.cannotBe.size();
            if (!number || !isOfMetric(*number, column.meaning.metric)) {
                const bool isOpen = !number && number.error() == record::NumberFault::ambiguous;
                if (!Vocabulary::own().isMissing(cell) && !isOpen)
                    looked.unread.push_back(cell);
            } else {
                looked.numbers.push_back(cell);
                looked.values.push_back(number->value);
                if (!canBe(column.meaning.metric,
                           record::toInternal(number->value, number->unit.value_or(column.meaning.unit))))
                    looked.cannotBe.push_back(cell);
            }
            if (before == 0 && looked.unread.size() + looked.cannotBe.size() > 0)
                looked.firstLine = m_sheet.line(row);
        }
        return looked;
    }

    void askOne(std::size_t at) {
        ColumnTaken& column = m_columns[at];
        const Looked looked = look(at);
        const bool mostly = 2 * looked.cannotBe.size() > looked.numbers.size();
        if (!column.isByHand && !looked.numbers.empty() && askUnit(column, looked, mostly))
            return;
        if (!looked.cannotBe.empty() && !mostly)
            return leaveOut(column, looked, looked.cannotBe);
        if (mostly)
            return keepAsText(column, looked);
        if (!looked.unread.empty())
            leaveOut(column, looked, looked.unread);
    }

    // "6.476" under rpm where thousands are meant; 92 under m/s where miles an hour are.
    bool askUnit(ColumnTaken& column, const Looked& looked, bool mostly) {
        const Metric metric = column.meaning.metric;
        const Unit now = column.meaning.unit;
        const double fits = fitting(metric, now, looked.values);
        if (fits > 0.5 && !mostly)
            return false;
        if (fitting(metric, now, inThousands(looked, metric, now)) >= wantedShare) {
            ColumnMeaning meant = column.meaning;
            meant.doubtful = Doubtful::thousands;
            ask(column, meant, "“" + std::string(looked.numbers.front()) + "” cannot be: thousands?");
            return true;
        }
        std::optional<Unit> better;
        for (const Unit unit : record::unitsOf(record::info(metric).quantity))
            if (unit != now && fitting(metric, unit, looked.values) >= std::max(wantedShare, fits + 0.3))
                better = better ? better : std::optional(unit);
        if (!better)
            return false;
        ColumnMeaning meant = column.meaning;
        meant.unit = *better;
        ask(column, meant,
            std::string(looked.numbers.front()) + " " + std::string(record::symbol(now)) +
                " is not usual: " + std::string(record::symbol(*better)) + "?");
        return true;
    }

    // Those that cannot be, a thousand times.
    static std::vector<double> inThousands(const Looked& looked, Metric metric, Unit unit) {
        std::vector<double> values;
        for (const double value : looked.values)
            values.push_back(withThousands(metric, unit, value));
        return values;
    }

    void leaveOut(ColumnTaken& column, const Looked& looked, const std::vector<std::string_view>& cells) {
        ColumnMeaning meant = column.meaning;
        meant.doubtful = Doubtful::leftOut;
        const std::set<std::string_view> different(cells.begin(), cells.end());
        // A mark is asked about once a file.
        const bool isMark = &cells == &looked.unread;
        const bool isKnown =
            isMark && std::ranges::all_of(different, [&](auto cell) { return m_marks.contains(cell); });
        m_marks.insert(different.begin(), different.end());
        if (isKnown) {
            column.meaning = meant;
            column.why = "“" + brief(cells.front()) + "” is not measured";
            return;
        }
        const std::string mark = "“" + brief(cells.front()) + "”";
        const std::string more = isSaidAlike(different) ? "" : " and the like";
        ask(column, meant,
            (cells.size() == 1 ? "Line " + std::to_string(looked.firstLine) + " says " + mark
                               : std::to_string(cells.size()) + " cells say " + mark + more) +
                ": not measured?");
    }

    // "0" and "0.0" are one, and so is a mark by itself.
    static bool isSaidAlike(const std::set<std::string_view>& cells) {
        std::set<double> values;
        for (const auto cell : cells)
            if (const auto number = numberOfCell(cell, record::DecimalMark::open))
                values.insert(number->value);
        return values.empty() ? cells.size() == 1 : values.size() == 1;
    }

    static void keepAsText(ColumnTaken& column, const Looked& looked) {
        const ColumnMeaning said = column.meaning;
        const std::string question = "“" + std::string(looked.cannotBe.front()) + "” cannot be " +
                                     record::info(said.metric).label + ". What is it?";
        ColumnMeaning text;
        text.heading = said.heading;
        ask(column, text, question);
        ColumnMeaning leftOut = said;
        leftOut.doubtful = Doubtful::leftOut;
        column.choices.push_back(canonicalName(leftOut));
    }

    // The likely answer is taken; the other is what stands there.
    static void ask(ColumnTaken& column, const ColumnMeaning& meant, const std::string& question) {
        ColumnMeaning asIs = column.meaning;
        asIs.doubtful = Doubtful::asItStands;
        column.meaning = meant;
        column.isOfValues = true;
        // What was asked before, of its unit, keeps its choices; of the values it is said beside it.
        if (column.isAsked()) {
            column.question += " " + question;
            return;
        }
        column.question = question;
        column.choices = {canonicalName(meant), canonicalName(asIs)};
    }

    const Sheet& m_sheet;
    std::vector<ColumnTaken>& m_columns;
    std::vector<std::size_t> m_rows;
    std::set<std::string_view> m_marks; ///< that were asked about
};

} // namespace

bool canBe(Metric metric, double reading) {
    const auto usual = Vocabulary::own().usualRange(metric);
    const double low = usual.low > 0 ? usual.low / 4 : 1.1 * usual.low;
    return reading >= low && reading <= 1.1 * usual.high;
}

bool isOfMetric(const CellNumber& number, Metric metric) {
    return !number.isHinged || metric == Metric::face || metric == Metric::faceToPath; // "15o" is no carry
}

std::optional<double> readingOf(const CellNumber& number, const ColumnTaken& column, std::string_view sideCell) {
    if (!isOfMetric(number, column.meaning.metric))
        return std::nullopt;
    const auto unit = number.unit.value_or(column.meaning.unit);
    double value = column.meaning.doubtful == Doubtful::thousands
                       ? withThousands(column.meaning.metric, unit, number.value)
                       : number.value;
    bool isSided = number.isSided;
    if (!sideCell.empty())
        if (const auto side = Vocabulary::own().sideNamed(sideCell)) {
            value = record::onSide(value, *side).value_or(value);
            isSided = true;
        }
    // A heading tells the sign of plain figures; a letter beside them says it itself.
    const bool isTurned = (column.meaning.isTurned && !isSided) != (column.meaning.doubtful == Doubtful::turned);
    const double sign = isTurned ? -1 : 1;
    const double reading = sign * record::toInternal(value, unit);
    if (column.meaning.doubtful == Doubtful::leftOut && !canBe(column.meaning.metric, reading))
        return std::nullopt;
    return reading;
}

void askAboutValues(const Sheet& sheet, const TableAt& table, const std::vector<RowKind>& kinds,
                    std::vector<ColumnTaken>& columns) {
    Asking(sheet, table, kinds, columns).all();
}

} // namespace knot::files
