#include "files/import/columns_beside.h"

#include <algorithm>
#include <map>

namespace knot::files {
namespace {

using Column = LookedColumn;

constexpr std::size_t mostNames = 24; ///< of what is compared
constexpr std::size_t rowsBeside = 2000;

class Beside {
public:
    Beside(const Sheet& sheet, const TableAt& table, const std::string& file, const std::vector<Column>& columns,
           std::vector<ColumnTaken>& taken)
        : m_sheet(sheet)
        , m_table(table)
        , m_file(file)
        , m_columns(columns)
        , m_taken(taken) {}

    void all() {
        findClub();
        leaveClubThatNeverChanges();
        findSides();
        findSideSpin();
    }

private:
    // Where no heading names the club: the one column of text whose values come again and again.
    void findClub() {
        if (std::ranges::any_of(m_taken, [](const auto& t) { return t.meaning.role == ColumnRole::build; }))
            return;
        std::vector<std::size_t> may;
        for (const Column& column : m_columns)
            if (const auto distinct = column.values.distinct();
                m_taken[column.at].meaning.role == ColumnRole::extra && !column.isByHand &&
                column.values.numeric() < 0.2 && column.candidates.empty() && distinct >= 2 && distinct <= 24 &&
                2 * distinct <= column.values.cells.size())
                may.push_back(column.at);
        if (may.size() != 1)
            return;
        ColumnTaken& taken = m_taken[may.front()];
        taken.meaning.role = ColumnRole::build;
        taken.question = "Does it name the club? Its words come again and again.";
        taken.choices = {"build", ""};
        taken.unanswered = errorAt(ErrorKind::noBuildColumn, may.front());
    }

    // How many names a column has that come again; a row that sums up others and a footer come once.
    static std::size_t namesIn(const Column& column) {
        std::map<std::string_view, std::size_t> often;
        for (const auto cell : column.values.cells)
            ++often[cell];
        return static_cast<std::size_t>(std::ranges::count_if(
            often, [](const auto& name) { return name.second > 1 && !Vocabulary::own().isSummary(name.first); }));
    }

    bool isNamed(const Column& column) const {
        const auto distinct = namesIn(column);
        return m_taken[column.at].meaning.role == ColumnRole::extra && !column.isByHand && distinct >= 2 &&
               distinct <= mostNames && 2 * distinct <= column.values.cells.size();
    }

    // Whether each name of one column has one value of another: a shaft and its weight.
    bool goesWith(std::size_t names, std::size_t values) const {
        std::map<std::string_view, std::string_view> valueOf;
        for (std::size_t row = m_table.first; row < std::min(m_sheet.rows(), m_table.first + rowsBeside); ++row)
            if (const auto name = m_sheet.cell(row, names); !name.empty())
                if (valueOf.try_emplace(name, m_sheet.cell(row, values)).first->second != m_sheet.cell(row, values))
                    return false;
        return true;
    }

    // "Club: 7 iron" in every row, beside a shaft, a head or a loft that changes: that is what was compared.
    void leaveClubThatNeverChanges() {
        const auto club = std::ranges::find_if(
            m_columns, [&](const Column& c) { return m_taken[c.at].meaning.role == ColumnRole::build; });
        constexpr std::size_t leastRows = 4;
        if (club == m_columns.end() || club->isByHand || club->values.cells.size() < leastRows || namesIn(*club) != 1)
            return;
        std::vector<std::size_t> may;
        for (const Column& column : m_columns)
            if (isNamed(column) && Vocabulary::own().saysPartOfClub(column.words))
                may.push_back(column.at);
        if (may.empty() || !std::ranges::all_of(may, [&](std::size_t at) { return goesWith(may.front(), at); }))
            return;
        ColumnTaken& taken = m_taken[may.front()];
        ColumnTaken& same = m_taken[club->at];
        same.meaning.role = ColumnRole::extra;
        same.why = "kept as text: it never changes";
        taken.meaning.role = ColumnRole::build;
        taken.why.clear();
        taken.question = "“" + same.meaning.heading + "” never changes. Is this what was compared?";
        taken.choices = {"build", ""};
        taken.unanswered = errorAt(ErrorKind::noBuildColumn, may.front());
    }

    // "Left" and "Right" beside distances without a sign.
    void findSides() {
        for (const Column& column : m_columns) {
            ColumnTaken& taken = m_taken[column.at];
            if (taken.meaning.role != ColumnRole::metric || !Vocabulary::own().hasSides(taken.meaning.metric) ||
                column.values.numbers.empty() ||
                std::ranges::any_of(column.values.numbers, [](double n) { return n < 0; }))
                continue;
            for (const std::size_t beside : {column.at + 1, column.at - 1})
                if (beside < m_columns.size() && m_taken[beside].meaning.role == ColumnRole::extra &&
                    !m_columns[beside].isByHand && saysSides(m_columns[beside].values)) {
                    taken.sides = beside;
                    taken.why = "its sides by “" + m_taken[beside].meaning.heading + "”";
                    m_taken[beside].why = "the sides of “" + taken.meaning.heading + "”";
                    break;
                }
        }
    }

    // Back spin and side spin are parts of one spin and its axis.
    void findSideSpin() {
        auto says = [&](const Column& column, std::string_view part) {
            return column.words.words.size() > 1 && column.words.words[0] == part && column.words.words[1] == "spin";
        };
        for (const Column& back : m_columns) {
            ColumnTaken& taken = m_taken[back.at];
            if (taken.meaning.role != ColumnRole::metric || taken.meaning.metric != record::Metric::spin ||
                !says(back, "back"))
                continue;
            for (const Column& side : m_columns)
                if (m_taken[side.at].meaning.role == ColumnRole::extra && !side.isByHand && says(side, "side") &&
                    side.values.numeric() > 0.5) {
                    taken.sideSpin = side.at;
                    taken.why = "with “" + m_taken[side.at].meaning.heading + "” the whole spin, and its axis";
                    m_taken[side.at].why = "a part of the spin";
                    return;
                }
        }
    }

    static bool saysSides(const Values& values) {
        return !values.cells.empty() && std::ranges::all_of(values.cells, [](std::string_view cell) {
            return Vocabulary::own().sideNamed(cell) || Vocabulary::own().isMiddle(cell);
        });
    }

    Error errorAt(ErrorKind kind, std::size_t column) const {
        return {kind, m_file, m_sheet.line(m_table.heading), column + 1, m_table.headings[column], {}};
    }

    const Sheet& m_sheet;
    const TableAt& m_table;
    const std::string& m_file;
    const std::vector<Column>& m_columns;
    std::vector<ColumnTaken>& m_taken;
};

} // namespace

void lookBeside(const Sheet& sheet, const TableAt& table, const std::string& file,
                const std::vector<LookedColumn>& columns, std::vector<ColumnTaken>& taken) {
    Beside(sheet, table, file, columns, taken).all();
}

} // namespace knot::files
