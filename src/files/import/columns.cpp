#include "files/import/columns.h"

#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"
#include "files/import/cells/cell_number.h"
#include "files/import/columns_beside.h"
#include "files/import/table.h"
#include "files/import/units.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace knot::files {
namespace {

using Column = LookedColumn;
using record::DecimalMark;
using record::Metric;
using record::Unit;

constexpr std::size_t sampledRows = 2000;
constexpr double known = 0.8;     ///< a heading that is taken without asking
constexpr double nearly = 0.66;   ///< one that is asked about
constexpr double asLikely = 0.02; ///< less than this apart, two meanings are as likely as each other

constexpr std::string_view textMark = " (text)"; ///< behind a heading that only looks like a measurement

std::string withoutTextMark(const std::string& heading) {
    return heading.ends_with(textMark) ? heading.substr(0, heading.size() - textMark.size()) : heading;
}

class Understanding {
public:
    Understanding(const Sheet& sheet, const TableAt& table, const HeadingMap& map, const std::string& file)
        : m_sheet(sheet)
        , m_table(table)
        , m_map(map)
        , m_file(file) {}

    std::vector<ColumnTaken> all() {
        readMarks();
        for (std::size_t i = 0; i < m_table.headings.size(); ++i)
            m_columns.push_back(look(i));
        m_taken.resize(m_columns.size());
        for (const Column& column : m_columns) {
            ColumnTaken& taken = m_taken[column.at];
            taken.meaning.heading = withoutTextMark(m_table.headings[column.at]);
            taken.sample = column.values.cells.empty() ? std::string() : std::string(column.values.cells.front());
            taken.mark = column.values.mark;
            taken.isByHand = column.isByHand;
            taken.meaning.doubtful = column.words.doubtful;
            taken.meaning.isTurned = column.positive == record::Side::left;
        }
        assign();
        lookBeside(m_sheet, m_table, m_file, m_columns, m_taken);
        for (const Column& column : m_columns)
            if (m_taken[column.at].meaning.role == ColumnRole::metric)
                m_units.push_back(unitsOf(column));
        settleUnits(m_units);
        for (const auto& unit : m_units)
            take(unit);
        for (const Column& column : m_columns)
            if (m_taken[column.at].meaning.role == ColumnRole::date || isMoment(m_taken[column.at].meaning))
                m_taken[column.at].order = orderOf(column);
        return std::move(m_taken);
    }

private:
    static bool isMoment(const ColumnMeaning& meaning) {
        return meaning.field != nullptr && meaning.field->key == "taken_at";
    }

    // Which decimal marks were met.
    struct Marks {
        bool point = false, comma = false;
        void see(DecimalMark mark) { (mark == DecimalMark::point ? point : comma) = true; }
        DecimalMark told() const {
            return point == comma ? DecimalMark::open : point ? DecimalMark::point : DecimalMark::comma;
        }
        /// Points are met in nearly every cell; once is enough.
        bool learnsFrom(std::string_view cell) const {
            return cell.find(',') != std::string_view::npos || (!point && cell.find('.') != std::string_view::npos);
        }
    };

    // The decimal marks of the columns: each tells its own first, then all together.
    void readMarks() {
        std::vector<Marks> seen(m_table.headings.size());
        Marks all;
        for (std::size_t row = m_table.first; row < m_sheet.rows(); ++row)
            for (std::size_t i = 0; i < std::min(seen.size(), m_sheet.columns(row)); ++i)
                if (const auto cell = m_sheet.cell(row, i); seen[i].learnsFrom(cell))
                    if (const auto told = decimalMarkOfCell(cell)) {
                        seen[i].see(*told);
                        all.see(*told);
                    }
        for (const Marks& marks : seen)
            m_marks.push_back(marks.told() != DecimalMark::open ? marks.told() : all.told());
    }

    Column look(std::size_t at) const {
        Column column{.at = at};
        const std::string& heading = m_table.headings[at];
        const auto byHand = m_map.find(heading);
        column.isByHand = byHand != m_map.end();
        column.words = Vocabulary::own().wordsOf(column.isByHand ? byHand->second : heading);
        column.positive = column.isByHand ? Vocabulary::own().wordsOf(heading).positive : column.words.positive;
        column.values.mark = m_marks[at];
        readValues(column);
        if (column.isByHand && record::trimmed(byHand->second).empty())
            return column;
        if (!column.isByHand && heading.ends_with(textMark))
            return column;
        column.candidates = Vocabulary::own().candidatesFor(column.words);
        takeUnknownUnit(column);
        weighUnit(column);
        const bool hasUnit = column.words.unit || !column.words.unknownUnit.empty();
        if (!column.isByHand)
            std::erase_if(column.candidates, [&](const Candidate& c) {
                // What is named as our own files name it is meant, whatever stands under it.
                const bool own = c.meaning.role != ColumnRole::metric && canonicalName(c.meaning) == heading;
                const bool sure = own || (c.meaning.role == ColumnRole::metric && c.score >= 0.95 && hasUnit);
                return !sure && !allows(column.values, c.meaning);
            });
        return column;
    }

    // "Spin ax. [deg]", "length_in": what can't have the unit that is written is not meant, unless the heading is
    // its very name, whose unit is then asked about.
    static void weighUnit(Column& column) {
        if (!column.words.unit)
            return;
        auto can = [&](const Candidate& c) {
            const auto& allowed = record::unitsOf(record::info(c.meaning.metric).quantity);
            return c.meaning.role == ColumnRole::metric &&
                   std::ranges::find(allowed, *column.words.unit) != allowed.end();
        };
        const bool anyCan = std::ranges::any_of(column.candidates, can);
        std::erase_if(column.candidates, [&](const Candidate& c) {
            return c.meaning.role == ColumnRole::metric && !can(c) && (anyCan || c.score < 0.95);
        });
    }

    // "carry_furlong": a measurement's whole name, and a word behind it that no heading has.
    static void takeUnknownUnit(Column& column) {
        auto& words = column.words;
        if (words.words.size() < 2 || words.words.back().size() < 2 || words.unit ||
            Vocabulary::own().isKnownWord(words.words.back()) ||
            (!column.candidates.empty() && column.candidates.front().score >= known))
            return;
        HeadingWords shorter = words;
        shorter.unknownUnit = shorter.words.back();
        shorter.words.pop_back();
        auto candidates = Vocabulary::own().candidatesFor(shorter);
        if (candidates.empty() || candidates.front().score < 0.95 ||
            candidates.front().meaning.role != ColumnRole::metric)
            return;
        words = std::move(shorter);
        column.candidates = std::move(candidates);
    }

    void readValues(Column& column) const {
        const auto& vocabulary = Vocabulary::own();
        Values& values = column.values;
        std::map<Unit, std::size_t> units;
        std::vector<std::string_view> open; // "6,250": neither mark is told
        for (std::size_t row = m_table.first; row < m_sheet.rows() && values.cells.size() < sampledRows; ++row) {
            const auto cell = m_sheet.cell(row, column.at);
            const bool isAlone = column.at == 0 && filledCells(m_sheet, row) == 1; // a group's name, a footer
            if (cell.empty() || isAlone || vocabulary.isMissing(cell) || cell == m_table.headings[column.at])
                continue;
            values.cells.push_back(cell);
            const auto number = numberOfCell(cell, values.mark);
            if (!number) {
                if (number.error() == record::NumberFault::ambiguous)
                    open.push_back(cell);
                continue;
            }
            values.numbers.push_back(number->value);
            values.wholeNumbers += number->value == std::floor(number->value) ? 1 : 0;
            if (number->unit)
                ++units[*number->unit];
        }
        if (!open.empty())
            readOpen(column, open);
        for (const auto& [unit, often] : units)
            if (2 * often > values.numbers.size())
                values.unit = unit;
    }

    // "6,250" in a column that tells nothing: as a thousand, or as decimals, whichever the measurement has.
    static void readOpen(Column& column, const std::vector<std::string_view>& open) {
        const auto candidates = Vocabulary::own().candidatesFor(column.words);
        if (candidates.empty() || candidates.front().meaning.role != ColumnRole::metric)
            return;
        auto fits = [&](DecimalMark mark) {
            std::vector<double> numbers;
            for (const auto& cell : open)
                if (const auto number = numberOfCell(cell, mark))
                    numbers.push_back(number->value);
            const auto& allowed = record::unitsOf(record::info(candidates.front().meaning.metric).quantity);
            return !numbers.empty() && std::ranges::any_of(allowed, [&](Unit unit) {
                return (!column.words.unit || *column.words.unit == unit) &&
                       fitting(candidates.front().meaning.metric, unit, numbers) > 0.9;
            });
        };
        const bool point = fits(DecimalMark::point);
        const bool comma = fits(DecimalMark::comma);
        if (point == comma)
            return;
        column.values.mark = point ? DecimalMark::point : DecimalMark::comma;
        for (const auto& cell : open)
            if (const auto number = numberOfCell(cell, column.values.mark))
                column.values.numbers.push_back(number->value);
    }

    // Whether the values of a column can be what a heading says.
    static bool allows(const Values& values, const ColumnMeaning& meaning) {
        if (values.cells.empty())
            return true;
        const auto most = static_cast<double>(values.cells.size());
        switch (meaning.role) {
        case ColumnRole::metric:
            return values.numeric() >= 0.5;
        case ColumnRole::build:
            return values.numeric() < 0.5 || values.areNames();
        case ColumnRole::date:
        case ColumnRole::time:
            return static_cast<double>(std::ranges::count_if(values.cells, [](std::string_view cell) {
                       return momentOfCell(cell, DateOrder::dayFirst) || momentOfCell(cell, DateOrder::monthFirst);
                   })) >= 0.8 * most;
        case ColumnRole::field:
            return meaning.field->kind == record::ShotField::Kind::text ||
                   std::ranges::all_of(values.cells, [&](std::string_view cell) {
                       record::Shot shot;
                       return meaning.field->take(shot, cell);
                   });
        case ColumnRole::extra:
            return true;
        }
        return true;
    }

    // The surest column first; what is taken is left to it, and what is left for the others is surer.
    void assign() {
        std::vector<std::size_t> left;
        for (const Column& column : m_columns)
            if (!column.candidates.empty())
                left.push_back(column.at);
        auto best = [&](std::size_t at) { return sureness(m_columns[at]); };
        while (!left.empty()) {
            const auto next = std::ranges::max_element(
                left, [&](std::size_t a, std::size_t b) { return best(a) < best(b) || (best(a) == best(b) && a > b); });
            settle(m_columns[*next]);
            if (m_taken[*next].meaning.role != ColumnRole::extra)
                m_held.push_back(*next);
            left.erase(next);
        }
    }

    // By hand comes first; a canonical key before a word that is like it.
    double sureness(const Column& column) const {
        double best = 0;
        for (const auto& candidate : column.candidates)
            if (!isTaken(candidate.meaning))
                best = std::max(best, candidate.score);
        return best + (column.isByHand ? 1 : 0);
    }

    bool isTaken(const ColumnMeaning& meaning) const {
        return std::ranges::any_of(m_held, [&](std::size_t at) { return m_taken[at].meaning.holdsSameAs(meaning); });
    }

    void settle(const Column& column) {
        ColumnTaken& taken = m_taken[column.at];
        const auto free =
            std::ranges::find_if(column.candidates, [&](const Candidate& c) { return !isTaken(c.meaning); });
        if (const Candidate& first = column.candidates.front(); first.score >= 0.95 && isTaken(first.meaning))
            return sayTwice(column, first);
        if (free == column.candidates.end()) {
            taken.why = "kept as text: another column holds it";
            return;
        }
        // Whatever else it might have been has its column: "Distance" beside "Carry" is the total.
        std::size_t likely = 0, left = 0;
        for (const auto& other : column.candidates)
            if (std::fabs(other.score - free->score) <= asLikely) {
                ++likely;
                left += isTaken(other.meaning) ? 0 : 1;
            }
        const bool onlyOneLeft = left == 1 && likely > 1;
        const double score = onlyOneLeft ? std::max(free->score, known) : free->score;
        if (free->meaning.role == ColumnRole::extra)
            return;
        if (score >= known) {
            setMeaning(taken, free->meaning);
            if (free->score < 0.95 && !onlyOneLeft && !column.isByHand && sameWords(column, *free))
                taken.why.clear();
            else if (free->score < 0.95 && !column.isByHand)
                taken.why = "read as “" + free->phrase + "”";
            return;
        }
        if (score >= nearly && free->meaning.role != ColumnRole::field)
            askMeaning(column, *free);
    }

    static bool sameWords(const Column& column, const Candidate& candidate) {
        std::string text;
        for (const auto& word : column.words.words)
            text += (text.empty() ? "" : " ") + word;
        return text == candidate.phrase;
    }

    static void setMeaning(ColumnTaken& taken, const ColumnMeaning& meaning) {
        const ColumnMeaning before = taken.meaning;
        taken.meaning = meaning;
        taken.meaning.heading = before.heading;
        taken.meaning.doubtful = before.doubtful;
        taken.meaning.isTurned = before.isTurned;
    }

    void sayTwice(const Column& column, const Candidate& candidate) {
        ColumnTaken& taken = m_taken[column.at];
        const auto other = static_cast<std::size_t>(
            std::ranges::find_if(m_taken, [&](const auto& t) { return t.meaning.holdsSameAs(candidate.meaning); }) -
            m_taken.begin());
        const std::string& first = m_table.headings[other];
        // Two names of one thing, the plainer one taken: nothing to ask.
        if (sureness(m_columns[other]) > 1 || (column.isByHand && m_columns[other].isByHand) ||
            candidate.score >= 0.999) {
            taken.question = "“" + first + "” holds the same measurement. Which counts?";
            taken.choices = {"", canonicalName(candidate.meaning)};
            taken.unanswered = errorAt(ErrorKind::duplicateColumn, column.at);
            taken.unanswered.found = std::to_string(other + 1) + " (" + first + ")";
        }
        taken.why = "kept as text: “" + first + "” holds it";
    }

    void askMeaning(const Column& column, const Candidate& candidate) {
        ColumnTaken& taken = m_taken[column.at];
        const bool several = column.candidates.size() > 1 && column.candidates[1].score >= candidate.score - asLikely &&
                             column.candidates[1].meaning.role != ColumnRole::extra &&
                             labelOf(column.candidates[1]) != labelOf(candidate) &&
                             !isTaken(column.candidates[1].meaning);
        if (several) {
            setMeaning(taken, candidate.meaning);
            taken.choices = {named(column, candidate), named(column, column.candidates[1]), ""};
            taken.question = "Is it " + labelOf(candidate) + " or " + labelOf(column.candidates[1]) + "?";
        } else {
            taken.choices = {"", named(column, candidate)};
            taken.question = "Is it " + labelOf(candidate) + "?";
        }
        taken.unanswered = errorAt(ErrorKind::unknownHeading, column.at);
        taken.unanswered.expected =
            taken.choices.front().empty() ? taken.choices[1] : taken.choices[0] + " or " + taken.choices[1];
    }

    static std::string labelOf(const Candidate& candidate) {
        return candidate.meaning.role == ColumnRole::metric ? record::info(candidate.meaning.metric).label
                                                            : candidate.phrase;
    }

    static std::string named(const Column& column, const Candidate& candidate) {
        ColumnMeaning meaning = candidate.meaning;
        if (meaning.role == ColumnRole::metric)
            meaning.unit = likeliestUnit(meaning.metric, column.words.unit, column.values.numbers);
        return canonicalName(meaning);
    }

    UnitAsked unitsOf(const Column& column) const {
        UnitAsked asked{
            .column = column.at, .metric = m_taken[column.at].meaning.metric, .numbers = column.values.numbers};
        const auto& allowed = record::unitsOf(record::info(asked.metric).quantity);
        auto isAllowed = [&](std::optional<Unit> unit) {
            return unit && std::ranges::find(allowed, *unit) != allowed.end();
        };
        std::optional<Unit> below;
        if (m_table.units)
            below = Vocabulary::own().unitNamed(m_sheet.cell(*m_table.units, column.at));
        const std::optional<Unit> written = column.words.unit ? column.words.unit : below;
        if (isAllowed(written)) {
            asked.unit = written;
        } else if (written) {
            asked.refused = column.words.unit ? column.words.unitText : std::string(record::suffix(*written));
        } else if (isAllowed(column.values.unit)) {
            asked.unit = column.values.unit;
            asked.why = "as its cells say";
        } else if (!column.words.unknownUnit.empty()) {
            asked.refused = column.words.unknownUnit;
        }
        return asked;
    }

    void take(const UnitAsked& asked) {
        ColumnTaken& taken = m_taken[asked.column];
        taken.meaning.unit = *asked.unit;
        if (!asked.why.empty())
            taken.why += (taken.why.empty() ? "" : "; ") + std::string(record::symbol(*asked.unit)) + " " + asked.why;
        if (asked.question.empty() || taken.isAsked())
            return;
        taken.question = asked.question;
        for (const Unit unit : asked.choices) {
            ColumnMeaning meaning = taken.meaning;
            meaning.unit = unit;
            taken.choices.push_back(canonicalName(meaning));
        }
        taken.unanswered =
            errorAt(asked.refused.empty() ? ErrorKind::missingUnit : ErrorKind::unknownUnit, asked.column);
        taken.unanswered.found = asked.refused;
        taken.unanswered.expected = allNames(taken.meaning.metric);
    }

    static std::string allNames(Metric metric) {
        std::string text;
        const auto& units = record::unitsOf(record::info(metric).quantity);
        for (std::size_t i = 0; i < units.size(); ++i) {
            ColumnMeaning meaning{.role = ColumnRole::metric, .metric = metric, .unit = units[i]};
            text += (i == 0 ? "" : i + 1 == units.size() ? " or " : ", ") + canonicalName(meaning);
        }
        return text;
    }

    static DateOrder orderOf(const Column& column) {
        bool point = false;
        for (const auto& cell : column.values.cells) {
            if (const auto told = dateOrderTold(cell))
                return *told;
            point = point || (cell.find('.') != std::string_view::npos && cell.find('/') == std::string_view::npos);
        }
        // Nothing tells: with slashes and AM or PM the month stands first, else the day.
        const bool clock = std::ranges::any_of(column.values.cells, [](std::string_view cell) {
            return record::lowerCase(cell).ends_with("am") || record::lowerCase(cell).ends_with("pm");
        });
        return !point && clock ? DateOrder::monthFirst : DateOrder::dayFirst;
    }

    Error errorAt(ErrorKind kind, std::size_t column) const {
        return {kind, m_file, m_sheet.line(m_table.heading), column + 1, m_table.headings[column], {}};
    }

    const Sheet& m_sheet;
    const TableAt& m_table;
    const HeadingMap& m_map;
    const std::string& m_file;
    std::vector<DecimalMark> m_marks;
    std::vector<Column> m_columns;
    std::vector<ColumnTaken> m_taken;
    std::vector<std::size_t> m_held; ///< columns that mean something by now
    std::vector<UnitAsked> m_units;
};

} // namespace

std::string asTextHeading(const std::string& heading) {
    const auto candidates = Vocabulary::own().candidatesFor(Vocabulary::own().wordsOf(heading));
    const bool mayBeMore =
        std::ranges::any_of(candidates, [](const Candidate& c) { return c.meaning.role != ColumnRole::extra; });
    return mayBeMore || heading.ends_with(textMark) ? heading + std::string(textMark) : heading;
}

std::vector<ColumnTaken> understandColumns(const Sheet& sheet, const TableAt& table, const HeadingMap& map,
                                           const std::string& file) {
    return Understanding(sheet, table, map, file).all();
}

} // namespace knot::files
