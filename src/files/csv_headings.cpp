#include "files/csv_headings.h"

#include "core/record/text.h"

#include <algorithm>
#include <array>
#include <cctype>

namespace knot::files {
namespace {

using record::lowerCase;
using record::Metric;
using record::trimmed;
using record::Unit;

// Ways in which units are written beside a heading, beyond the suffixes of column names.
constexpr std::array<std::pair<std::string_view, Unit>, 33> unitNames = {
    {{"ms", Unit::ms},    {"m/s", Unit::ms},      {"mps", Unit::ms},    {"mph", Unit::mph},  {"kmh", Unit::kmh},
     {"km/h", Unit::kmh}, {"kph", Unit::kmh},     {"m", Unit::m},       {"metres", Unit::m}, {"meters", Unit::m},
     {"yd", Unit::yd},    {"yds", Unit::yd},      {"yards", Unit::yd},  {"ft", Unit::ft},    {"feet", Unit::ft},
     {"deg", Unit::deg},  {"degrees", Unit::deg}, {"°", Unit::deg},     {"rpm", Unit::rpm},  {"mm", Unit::mm},
     {"in", Unit::in},    {"inch", Unit::in},     {"inches", Unit::in}, {"\"", Unit::in},    {"s", Unit::s},
     {"sec", Unit::s},    {"seconds", Unit::s},   {"ratio", Unit::one}, {"-", Unit::one},    {"", Unit::one},
     {"metre", Unit::m},  {"meter", Unit::m},     {"yard", Unit::yd}}};

std::optional<Unit> unitFromName(std::string_view name) {
    for (const auto& [text, unit] : unitNames)
        if (text == name)
            return unit;
    return std::nullopt;
}

std::string withoutBrackets(const std::string& cell) {
    std::string text = lowerCase(trimmed(cell));
    if (text.size() >= 2 &&
        ((text.front() == '[' && text.back() == ']') || (text.front() == '(' && text.back() == ')')))
        text = std::string(trimmed(std::string_view(text).substr(1, text.size() - 2)));
    return text;
}

// "Ball Speed" → "ball_speed"
std::string plainName(const std::string& heading) {
    std::string name;
    for (const char c : lowerCase(trimmed(heading))) {
        const bool letter = std::isalnum(static_cast<unsigned char>(c)) != 0 || (c & 0x80) != 0;
        if (letter)
            name += c;
        else if (!name.empty() && name.back() != '_')
            name += '_';
    }
    while (name.ends_with('_'))
        name.pop_back();
    return name;
}

// The key without its unit: "carry_m" → "carry".
std::string stem(Metric metric) {
    const auto& info = record::info(metric);
    const auto unit = record::suffix(record::unitsOf(info.quantity).front());
    return unit.empty() ? info.key : info.key.substr(0, info.key.size() - unit.size() - 1);
}

// The metric whose stem begins the name, the longest such stem.
std::optional<Metric> metricOfName(const std::string& name) {
    std::optional<Metric> best;
    for (const Metric metric : record::allMetrics()) {
        const std::string own = stem(metric);
        if ((name == own || name.starts_with(own + "_")) && (!best || own.size() > stem(*best).size()))
            best = metric;
    }
    return best;
}

std::string choices(Metric metric) {
    std::string text;
    const auto& units = record::unitsOf(record::info(metric).quantity);
    for (std::size_t i = 0; i < units.size(); ++i) {
        const auto unit = record::suffix(units[i]);
        text += (i == 0                  ? ""
                 : i + 1 == units.size() ? " or "
                                         : ", ") +
                stem(metric) + (unit.empty() ? "" : "_") + std::string(unit);
    }
    return text;
}

class Heading {
public:
    Heading(Error place, std::string unitCell)
        : m_place(std::move(place))
        , m_unitCell(std::move(unitCell)) {}

    Result<ColumnMeaning> understand(const std::string& text) const {
        ColumnMeaning meaning;
        meaning.heading = std::string(trimmed(text));
        const auto [nameText, bracketUnit] = splitBrackets(meaning.heading);
        const std::string name = plainName(nameText);
        if (name == "build") {
            meaning.role = ColumnRole::build;
            return meaning;
        }
        if (const auto* field = record::shotFieldNamed(name);
            field != nullptr && field->inShotFiles != record::ShotField::InShotFiles::never) {
            meaning.role = ColumnRole::field;
            meaning.field = field;
            return meaning;
        }
        const auto metric = metricOfName(name);
        if (!metric)
            return meaning;
        meaning.metric = *metric;
        const std::string own = stem(*metric);
        const std::string tail = name.size() > own.size() ? name.substr(own.size() + 1) : "";
        return withUnit(meaning, tail, bracketUnit);
    }

private:
    // "Carry [yd]" → "Carry", "yd"
    static std::pair<std::string, std::string> splitBrackets(const std::string& heading) {
        const auto open = heading.find_last_of("[(");
        if (open == std::string::npos || heading.empty() || (heading.back() != ']' && heading.back() != ')'))
            return {heading, ""};
        return {heading.substr(0, open), withoutBrackets(heading.substr(open))};
    }

    Result<ColumnMeaning> withUnit(ColumnMeaning meaning, const std::string& tail,
                                   const std::string& bracketUnit) const {
        const auto& allowed = record::unitsOf(record::info(meaning.metric).quantity);
        // Words after the name that are no single unit make it a heading of its own.
        if (tail.find('_') != std::string::npos)
            return meaning;
        const std::string written = !tail.empty()          ? tail
                                    : !bracketUnit.empty() ? bracketUnit
                                                           : withoutBrackets(m_unitCell);
        if (written.empty() && allowed.size() > 1)
            return fail(ErrorKind::missingUnit, "", choices(meaning.metric));
        const auto unit = written.empty() ? std::optional(allowed.front()) : unitFromName(written);
        if (!unit || std::ranges::find(allowed, *unit) == allowed.end())
            return fail(ErrorKind::unknownUnit, written, choices(meaning.metric));
        meaning.role = ColumnRole::metric;
        meaning.unit = *unit;
        return meaning;
    }

    tl::unexpected<Error> fail(ErrorKind kind, const std::string& found, const std::string& expected) const {
        Error error = m_place;
        error.kind = kind;
        error.found = found;
        error.expected = expected;
        return tl::unexpected(std::move(error));
    }

    Error m_place;
    std::string m_unitCell;
};

std::optional<Error> firstConflict(const std::vector<ColumnMeaning>& meanings, const Error& place) {
    for (std::size_t i = 0; i < meanings.size(); ++i)
        for (std::size_t j = 0; j < i; ++j) {
            const auto& a = meanings[i];
            const auto& b = meanings[j];
            if (a.role == b.role && a.role != ColumnRole::extra && a.field == b.field &&
                (a.role != ColumnRole::metric || a.metric == b.metric)) {
                Error error = place;
                error.kind = ErrorKind::duplicateColumn;
                error.column = i + 1;
                error.heading = a.heading;
                error.found = std::to_string(j + 1) + " (" + b.heading + ")";
                return error;
            }
        }
    return std::nullopt;
}

} // namespace

bool isUnitRow(const std::vector<std::string>& cells) {
    bool any = false;
    for (const auto& cell : cells) {
        const std::string text = withoutBrackets(cell);
        if (text.empty())
            continue;
        if (!unitFromName(text) || text == "-")
            return false;
        any = true;
    }
    return any;
}

Result<std::vector<ColumnMeaning>> understandHeadings(const std::string& file, std::size_t line,
                                                      const std::vector<std::string>& headings,
                                                      const std::vector<std::string>& unitRow, const HeadingMap& map) {
    std::vector<ColumnMeaning> meanings;
    for (std::size_t i = 0; i < headings.size(); ++i) {
        const std::string own(trimmed(headings[i]));
        const auto mapped = map.find(own);
        const Error place{ErrorKind::unknownUnit, file, line, i + 1, own, {}};
        auto meaning = Heading(place, i < unitRow.size() ? unitRow[i] : std::string())
                           .understand(mapped == map.end() ? own : mapped->second);
        if (!meaning)
            return tl::unexpected(meaning.error());
        meaning->heading = own;
        meanings.push_back(std::move(*meaning));
    }
    const Error place{ErrorKind::duplicateColumn, file, line, 0, {}, {}};
    if (auto conflict = firstConflict(meanings, place))
        return tl::unexpected(std::move(*conflict));
    auto has = [&](ColumnRole role) {
        return std::ranges::any_of(meanings, [&](const auto& m) { return m.role == role; });
    };
    if (!has(ColumnRole::build))
        return tl::unexpected(Error{ErrorKind::noBuildColumn, file, line, 0, {}, {}});
    if (!has(ColumnRole::metric))
        return tl::unexpected(Error{ErrorKind::noMetricColumn, file, line, 0, {}, {}});
    return meanings;
}

} // namespace knot::files
