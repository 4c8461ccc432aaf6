#include "files/import/headings/vocabulary.h"

#include "core/record/text/table.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"
#include "files/base/folded_text.h"
#include "files/import/headings/heading_words.h"
#include "files/import/headings/word_likeness.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cstdint>
#include <map>
#include <memory>
#include <set>
#include <utility>

namespace knot::embedded {
extern const std::string_view headingTable;
}

namespace knot::files {
namespace {

using record::Metric;
using record::trimmed;
using record::Unit;

constexpr double leastScore = 0.6;

std::optional<Metric> metricOfStem(std::string_view stem) {
    for (const Metric metric : record::allMetrics())
        if (stemOf(metric) == stem)
            return metric;
    return std::nullopt;
}

// A word of the table's third column: a metric's stem, a field's key, or a role.
ColumnMeaning meaningOf(const std::string& kind, const std::string& means) {
    ColumnMeaning meaning;
    if (kind == "metric") {
        meaning.role = ColumnRole::metric;
        meaning.metric = metricOfStem(means).value();
    } else if (means == "build" || means == "date" || means == "time") {
        meaning.role = means == "build" ? ColumnRole::build : means == "date" ? ColumnRole::date : ColumnRole::time;
    } else if (!means.empty()) {
        meaning.role = ColumnRole::field;
        meaning.field = record::shotFieldNamed(means);
    }
    return meaning;
}

std::string joined(const std::vector<std::string>& words) {
    std::string text;
    for (const auto& word : words)
        text += (text.empty() ? "" : " ") + word;
    return text;
}

} // namespace

bool ColumnMeaning::holdsSameAs(const ColumnMeaning& other) const {
    return role == other.role && role != ColumnRole::extra && field == other.field &&
           (role != ColumnRole::metric || metric == other.metric);
}

const std::string& stemOf(Metric metric) {
    static const auto stems = [] {
        std::array<std::string, record::metricCount> all;
        for (const Metric each : record::allMetrics()) {
            const auto& info = record::info(each);
            const auto unit = record::suffix(record::unitsOf(info.quantity).front());
            all[static_cast<std::size_t>(each)] =
                unit.empty() ? info.key : info.key.substr(0, info.key.size() - unit.size() - 1);
        }
        return all;
    }();
    return stems[static_cast<std::size_t>(metric)];
}

namespace {

std::string behindName(Doubtful doubtful) {
    for (const auto& [each, words] : decidedWords())
        if (each == doubtful)
            return std::string(words);
    return {};
}

} // namespace

std::string canonicalName(const ColumnMeaning& meaning) {
    switch (meaning.role) {
    case ColumnRole::metric: {
        const auto unit = record::suffix(meaning.unit);
        return stemOf(meaning.metric) + (unit.empty() ? "" : "_") + std::string(unit) + behindName(meaning.doubtful);
    }
    case ColumnRole::build:
        return "build";
    case ColumnRole::field:
        return std::string(meaning.field->key);
    case ColumnRole::date:
        return "date";
    case ColumnRole::time:
        return "time";
    case ColumnRole::extra:
        break;
    }
    return {};
}

struct Vocabulary::Tables {
    std::map<std::string, std::vector<std::string>, std::less<>> abbreviations;
    std::map<std::string, Unit, std::less<>> units;
    std::map<std::string, record::Side, std::less<>> sides;
    std::set<std::string, std::less<>> noise, missing, summaries, middles, parts, places;
    std::set<std::string, std::less<>> summaryWords; ///< at either end of a label
    std::set<std::string, std::less<>> words;        ///< of all phrases
    void take(const std::vector<std::string>& row);
    std::map<Metric, Range> ranges;
};

const Vocabulary& Vocabulary::own() {
    static const Vocabulary vocabulary;
    return vocabulary;
}

namespace {

using TableRow = std::vector<std::string>;

bool isPhrase(const TableRow& row) {
    return row[0] == "metric" || row[0] == "field" || row[0] == "text";
}

// The unit of a suffix as column names have it; "one" for a plain ratio.
Unit unitOfSuffix(std::string_view suffix) {
    for (const Unit unit : {Unit::ms, Unit::mph, Unit::kmh, Unit::m, Unit::yd, Unit::ft, Unit::deg, Unit::rpm, Unit::mm,
                            Unit::in, Unit::s})
        if (suffix == record::suffix(unit))
            return unit;
    return Unit::one;
}

} // namespace

void Vocabulary::Tables::take(const TableRow& row) {
    const std::string& kind = row[0];
    const std::string written = folded(row[1]);
    if (kind == "word")
        abbreviations[written] = wordsIn(row[2]);
    else if (kind == "noise")
        noise.insert(written);
    else if (kind == "middle")
        middles.insert(written);
    else if (kind == "place")
        places.insert(joined(wordsIn(written)));
    else if (kind == "part")
        parts.insert(joined(wordsIn(written)));
    else if (kind == "missing")
        missing.insert(written);
    else if (kind == "summary") {
        summaries.insert(joined(wordsIn(written)).empty() ? written : joined(wordsIn(written)));
        if (row[2] == "word")
            summaryWords.insert(joined(wordsIn(written)));
    } else if (kind == "sign")
        sides[written] = row[2] == "-" ? record::Side::left : record::Side::right;
    else if (kind == "unit")
        units[written] = unitOfSuffix(row[2]);
    else if (kind == "range")
        ranges[metricOfStem(written).value()] = {record::tableNumber(row[2].substr(0, row[2].find(':'))),
                                                 record::tableNumber(row[2].substr(row[2].find(':') + 1))};
    if (isPhrase(row))
        for (const auto& word : wordsIn(written))
            words.insert(word);
}

Vocabulary::Vocabulary() {
    auto tables = std::make_shared<Tables>();
    const auto rows = record::tableRows(embedded::headingTable, 4);
    for (const auto& row : rows)
        tables->take(row);
    m_tables = std::move(tables);
    for (const auto& row : rows)
        if (isPhrase(row))
            addPhrase(row[1], meaningOf(row[0], row[2]), record::tableNumber(row[3]));
    // Whatever this program writes and shows.
    for (const Metric metric : record::allMetrics()) {
        addPhrase(stemOf(metric), meaningOf("metric", stemOf(metric)), 1);
        addPhrase(record::info(metric).label, meaningOf("metric", stemOf(metric)), 1);
    }
    for (const auto& field : record::shotFields())
        if (field.inShotFiles != record::ShotField::InShotFiles::never)
            addPhrase(std::string(field.key), meaningOf("field", std::string(field.key)), 1);
}

void Vocabulary::addPhrase(const std::string& written, const ColumnMeaning& meaning, double weight) {
    auto words = canonicalWords(wordsIn(written));
    m_phrases.push_back({std::move(words), meaning, weight, joined(wordsIn(written))});
}

std::vector<std::string> Vocabulary::canonicalWords(const std::vector<std::string>& words) const {
    std::vector<std::string> plain;
    for (const auto& word : words)
        if (const auto full = m_tables->abbreviations.find(word); full != m_tables->abbreviations.end())
            plain.insert(plain.end(), full->second.begin(), full->second.end());
        else if (!m_tables->noise.contains(word))
            plain.push_back(word);
    return plain.empty() ? words : plain;
}

std::optional<Unit> Vocabulary::unitNamed(std::string_view text) const {
    std::string plain = folded(trimmed(text));
    if (plain.size() >= 2 &&
        ((plain.front() == '[' && plain.back() == ']') || (plain.front() == '(' && plain.back() == ')')))
        plain = std::string(trimmed(std::string_view(plain).substr(1, plain.size() - 2)));
    const auto at = m_tables->units.find(plain);
    return at == m_tables->units.end() ? std::nullopt : std::optional(at->second);
}

std::optional<record::Side> Vocabulary::sideNamed(std::string_view text) const {
    std::string plain = folded(trimmed(text));
    if (plain.ends_with('.'))
        plain.pop_back();
    const auto at = m_tables->sides.find(plain);
    return at == m_tables->sides.end() ? std::nullopt : std::optional(at->second);
}

bool Vocabulary::isPlace(const std::string& heading) const {
    return m_tables->places.contains(joined(wordsIn(heading)));
}

bool Vocabulary::isMiddle(std::string_view text) const {
    return m_tables->middles.contains(folded(text));
}

bool Vocabulary::hasSides(Metric metric) const {
    const Range range = usualRange(metric);
    return range.low <= -0.7 * range.high;
}

bool Vocabulary::saysPartOfClub(const HeadingWords& heading) const {
    return m_tables->parts.contains(joined(heading.words));
}

bool Vocabulary::isMissing(std::string_view text) const {
    if (std::ranges::all_of(text, [](char c) { return c == '-'; }))
        return true;
    return text.size() <= 12 && m_tables->missing.contains(folded(text));
}

namespace {

bool isCount(const std::string& word) {
    return std::ranges::all_of(word, [](char c) { return record::isDigit(c); });
}

// "average (12 shots)", "mean n 12": without how many there were.
std::vector<std::string> withoutCount(std::vector<std::string> words) {
    static const std::set<std::string, std::less<>> counted = {"shots", "shot",   "n",     "swings", "balls", "schlage",
                                                               "coups", "golpes", "colpi", "slag",   "of"};
    while (words.size() > 1 && (isCount(words.back()) || counted.contains(words.back())))
        words.pop_back();
    return words;
}

} // namespace

bool Vocabulary::isSummary(std::string_view text, LabelIn where) const {
    if (text.empty() || text.size() > 60)
        return false;
    const auto all = wordsIn(text);
    const auto& whole = where == LabelIn::names ? m_tables->summaries : m_tables->summaryWords;
    if (all.empty())
        return whole.contains(folded(text)); // "±" has no letter that parts words
    const auto words = withoutCount(all);
    if (whole.contains(joined(words)) || whole.contains(joined(all)))
        return true;
    // "7 iron average", "avg 7 iron", "Moss 72 - Std Dev"
    for (std::size_t size = 1; size <= 2 && size < words.size(); ++size) {
        const auto most = static_cast<std::ptrdiff_t>(size);
        const auto first = joined({words.begin(), words.begin() + most});
        const auto last = joined({words.end() - most, words.end()});
        if (m_tables->summaryWords.contains(first) || m_tables->summaryWords.contains(last))
            return true;
    }
    return false;
}

Vocabulary::Range Vocabulary::usualRange(Metric metric) const {
    return m_tables->ranges.at(metric);
}

bool Vocabulary::isKnownWord(std::string_view word) const {
    return m_tables->words.contains(word) || m_tables->abbreviations.contains(word);
}

HeadingWords Vocabulary::wordsOf(const std::string& heading) const {
    return headingWords(*this, heading);
}

// A heading is asked about many times while its table is found.
std::vector<Candidate> Vocabulary::candidatesFor(const HeadingWords& heading) const {
    constexpr std::size_t mostRemembered = 4096;
    thread_local std::map<std::vector<std::string>, std::vector<Candidate>> remembered;
    if (heading.words.empty() || heading.words.size() > 8)
        return {};
    if (const auto known = remembered.find(heading.words); known != remembered.end())
        return known->second;
    if (remembered.size() >= mostRemembered)
        remembered.clear();
    return remembered[heading.words] = weighed(heading);
}

std::vector<Candidate> Vocabulary::weighed(const HeadingWords& heading) const {
    std::vector<Candidate> best;
    for (const Phrase& phrase : m_phrases) {
        const double score = phrase.weight * sameness(heading.words, phrase.words);
        if (score < leastScore)
            continue;
        const auto known = std::ranges::find_if(best, [&](const Candidate& other) {
            return other.meaning.holdsSameAs(phrase.meaning) ||
                   (other.meaning.role == ColumnRole::extra && phrase.meaning.role == ColumnRole::extra);
        });
        if (known == best.end())
            best.push_back({phrase.meaning, score, phrase.text});
        else if (score > known->score)
            *known = {phrase.meaning, score, phrase.text};
    }
    std::ranges::stable_sort(best, std::greater(), &Candidate::score);
    return best;
}

std::optional<ColumnMeaning> Vocabulary::meaningNamed(const std::string& name) const {
    if (trimmed(name).empty())
        return ColumnMeaning{};
    const auto words = wordsOf(name);
    const auto candidates = candidatesFor(words);
    if (candidates.empty() || candidates.front().score < 0.95)
        return std::nullopt;
    ColumnMeaning meaning = candidates.front().meaning;
    meaning.doubtful = words.doubtful;
    if (meaning.role == ColumnRole::metric) {
        const auto& allowed = record::unitsOf(record::info(meaning.metric).quantity);
        const auto unit = words.unit ? words.unit : allowed.size() == 1 ? std::optional(allowed.front()) : std::nullopt;
        if (!unit || std::ranges::find(allowed, *unit) == allowed.end())
            return std::nullopt;
        meaning.unit = *unit;
    }
    return meaning;
}

} // namespace knot::files
