#include "files/window_chart.h"

#include "core/rack/club_kind.h"
#include "core/record/text/text.h"
#include "files/base/text_decoding.h"
#include "files/import/cells/cell_number.h"
#include "files/import/forms/sheet.h"
#include "files/import/headings/vocabulary.h"

#include <algorithm>
#include <array>
#include <map>

namespace knot::files {
namespace {

using record::Metric;

enum class End { from, to };

// What a column holds: the kind of club, or one end of a number.
struct ChartColumn {
    bool isKind = false;
    std::optional<Metric> metric;
    End end = End::from;
    record::Unit unit = record::Unit::one;
};

std::optional<End> endNamed(const std::string& word) {
    constexpr std::array<std::string_view, 5> from = {"from", "low", "lowest", "least", "min"};
    constexpr std::array<std::string_view, 5> to = {"to", "high", "highest", "most", "max"};
    if (std::ranges::find(from, word) != from.end())
        return End::from;
    return std::ranges::find(to, word) != to.end() ? std::optional(End::to) : std::nullopt;
}

constexpr std::array charted = {Metric::ballSpeed, Metric::launch, Metric::spin, Metric::apex, Metric::descent};

ChartColumn chartColumnOf(const std::string& heading) {
    const Vocabulary& vocabulary = Vocabulary::own();
    HeadingWords words = vocabulary.wordsOf(heading);
    ChartColumn column;
    if (words.words.size() == 1 && (words.words[0] == "kind" || words.words[0] == "club"))
        return {.isKind = true};
    const auto end = words.words.size() < 2 ? std::nullopt : endNamed(words.words.back());
    if (!end)
        return {};
    words.words.pop_back();
    const auto candidates = vocabulary.candidatesFor(words);
    if (candidates.empty() || candidates.front().meaning.role != ColumnRole::metric)
        return {};
    const Metric metric = candidates.front().meaning.metric;
    if (std::ranges::find(charted, metric) == charted.end())
        return {};
    return {.isKind = false,
            .metric = metric,
            .end = *end,
            .unit = words.unit.value_or(record::unitsOf(record::info(metric).quantity).front())};
}

std::vector<ChartColumn> chartColumnsOf(const Sheet& sheet) {
    std::vector<ChartColumn> columns;
    for (std::size_t i = 0; sheet.rows() > 0 && i < sheet.columns(0); ++i)
        columns.push_back(chartColumnOf(std::string(sheet.cell(0, i))));
    return columns;
}

bool isChart(const std::vector<ChartColumn>& columns) {
    const auto has = [&](auto test) { return std::ranges::any_of(columns, test); };
    return has([](const ChartColumn& c) { return c.isKind; }) &&
           has([](const ChartColumn& c) { return c.metric == Metric::ballSpeed && c.end == End::from; }) &&
           has([](const ChartColumn& c) { return c.metric == Metric::ballSpeed && c.end == End::to; });
}

std::optional<flight::HeadKind> kindNamed(std::string_view text) {
    using flight::HeadKind;
    for (const HeadKind kind : {HeadKind::driver, HeadKind::wood, HeadKind::iron, HeadKind::wedge})
        if (record::lowerCase(std::string(text)) == rack::kindName(kind))
            return kind;
    return std::nullopt;
}

reach::Band* bandOf(reach::Wanted& wanted, Metric metric) {
    switch (metric) {
    case Metric::launch:
        return &wanted.launch;
    case Metric::spin:
        return &wanted.spin;
    case Metric::apex:
        return &wanted.height;
    case Metric::descent:
        return &wanted.descent;
    default:
        return nullptr;
    }
}

} // namespace

bool looksLikeChart(const std::string& bytes) {
    const std::string text = decodeText(bytes.substr(0, bytes.find('\n')));
    const auto sheet = sheetOfText({}, text);
    return sheet && isChart(chartColumnsOf(*sheet));
}

Result<reach::Chart> readChart(const std::string& name, const std::string& bytes) {
    const auto sheet = sheetOfText(name, decodeText(bytes));
    if (!sheet)
        return tl::unexpected(sheet.error());
    const auto columns = chartColumnsOf(*sheet);
    auto refuse = [&](ErrorKind kind, std::size_t row, std::size_t column, std::string found, std::string expected) {
        return tl::unexpected(Error{kind, name, sheet->line(row), column + 1, std::string(sheet->cell(0, column)),
                                    std::move(found), std::move(expected)});
    };
    reach::Chart chart{.name = name, .rows = {}};
    for (std::size_t row = 1; row < sheet->rows(); ++row) {
        if (sheet->isBlank(row))
            continue;
        reach::Chart::Row one;
        for (std::size_t i = 0; i < columns.size(); ++i) {
            const std::string_view cell = sheet->cell(row, i);
            if (columns[i].isKind) {
                const auto kind = kindNamed(cell);
                if (!kind)
                    return refuse(ErrorKind::unknownWord, row, i, "kind of club: " + std::string(cell),
                                  "driver, wood, iron or wedge");
                one.kind = *kind;
            }
            if (!columns[i].metric || cell.empty())
                continue;
            const auto number = numberOfCell(cell, decimalMarkOfCell(cell).value_or(record::DecimalMark::point));
            if (!number)
                return refuse(ErrorKind::notANumber, row, i, std::string(cell), "a number");
            const double value = record::toInternal(number->value, number->unit.value_or(columns[i].unit));
            const bool isFrom = columns[i].end == End::from;
            if (*columns[i].metric == Metric::ballSpeed)
                (isFrom ? one.ballSpeedFrom : one.ballSpeedTo) = value;
            else
                bandOf(one.wanted, *columns[i].metric)->*(isFrom ? &reach::Band::from : &reach::Band::to) = value;
        }
        if (!(one.ballSpeedFrom < one.ballSpeedTo))
            return refuse(ErrorKind::unknownWord, row, 0, "ball speeds that end before they begin",
                          "from lower to higher");
        chart.rows.push_back(one);
    }
    if (chart.rows.empty())
        return tl::unexpected(Error{ErrorKind::headerOnly, name, 0, 0, {}, {}});
    return chart;
}

} // namespace knot::files
