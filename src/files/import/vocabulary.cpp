#include "files/import/vocabulary.h"

#include "core/record/text/table.h"
#include "core/record/text/text.h"

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

using record::lowerCase;
using record::Metric;
using record::trimmed;
using record::Unit;

constexpr double leastScore = 0.6;

bool isLetter(char c) {
    return std::isalnum(static_cast<unsigned char>(c)) != 0 || (c & 0x80) != 0 || c == '#';
}

// "ClubSpeedMPH" → "Club Speed MPH"; "BALL" stays.
std::string withoutHumps(std::string_view text) {
    auto upper = [](char c) { return c >= 'A' && c <= 'Z'; };
    auto lower = [](char c) { return c >= 'a' && c <= 'z'; };
    std::string apart;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const bool begins = i > 0 && upper(text[i]) &&
                            (lower(text[i - 1]) || (upper(text[i - 1]) && i + 1 < text.size() && lower(text[i + 1])));
        if (begins)
            apart += ' ';
        apart += text[i];
    }
    return apart;
}

// Every kind of white space as one blank.
std::string withPlainSpaces(std::string_view text) {
    std::string plain;
    while (!text.empty())
        if (const std::size_t space = record::spaceAtStart(text); space > 0) {
            plain += ' ';
            text.remove_prefix(space);
        } else {
            plain += text.front();
            text.remove_prefix(1);
        }
    return plain;
}

std::vector<std::string> splitAsWritten(std::string_view text) {
    std::vector<std::string> words;
    std::string word;
    for (const char c : text)
        if (isLetter(c))
            word += c;
        else if (!word.empty())
            words.push_back(std::exchange(word, {}));
    if (!word.empty())
        words.push_back(std::move(word));
    return words;
}

std::vector<std::string> split(std::string_view text) {
    auto words = splitAsWritten(text);
    for (auto& word : words)
        word = lowerCase(word);
    return words;
}

// Letters to change, put in, take out or swap with the next to make one word the other; more than `most`
// where it takes more.
std::size_t distance(std::string_view a, std::string_view b, std::size_t most) {
    constexpr std::size_t longest = 24;
    if (a.size() > b.size() + most || b.size() > a.size() + most || std::max(a.size(), b.size()) > longest)
        return most + 1;
    std::array<std::array<std::uint8_t, longest + 1>, 3> rows{}; // of this letter of a, the one before, and that before
    auto row = [&](std::size_t i) -> auto& {
        return rows[i % 3];
    };
    for (std::size_t j = 0; j <= b.size(); ++j)
        row(0)[j] = static_cast<std::uint8_t>(j);
    for (std::size_t i = 1; i <= a.size(); ++i) {
        auto& now = row(i);
        const auto& before = row(i + 2);
        now[0] = static_cast<std::uint8_t>(i);
        std::uint8_t least = now[0];
        for (std::size_t j = 1; j <= b.size(); ++j) {
            int d = std::min({before[j] + 1, now[j - 1] + 1, before[j - 1] + (a[i - 1] == b[j - 1] ? 0 : 1)});
            if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
                d = std::min(d, row(i + 1)[j - 2] + 1);
            now[j] = static_cast<std::uint8_t>(d);
            least = std::min(least, now[j]);
        }
        if (least > most)
            return most + 1;
    }
    return row(a.size())[b.size()];
}

// How much one word is another: 1 the same, less for a slip of the pen, 0 for another word.
double alike(const std::string& a, const std::string& b) {
    if (a == b)
        return 1;
    const std::size_t shorter = std::min(a.size(), b.size());
    if (shorter >= 3 && (a + "s" == b || b + "s" == a))
        return 0.99;
    if (shorter < 3 || (shorter == 3 && a.front() != b.front()))
        return 0;
    const std::size_t slips = distance(a, b, shorter >= 8 ? 2 : 1);
    if (slips == 1 && (shorter > 3 || a.size() != b.size()))
        return 0.85;
    if (shorter < 4)
        return 0;
    if (slips == 2 && shorter >= 8)
        return 0.85;
    // "disp" for "dispersion"
    if (a.size() < b.size() ? b.starts_with(a) : a.starts_with(b))
        return 0.8;
    return 0;
}

// The share of two headings' words that are the same, each word once.
double sameness(const std::vector<std::string>& a, const std::vector<std::string>& b) {
    double same = 0;
    std::vector<bool> used(b.size(), false);
    for (const auto& word : a) {
        double best = 0;
        std::size_t at = 0;
        for (std::size_t i = 0; i < b.size(); ++i)
            if (!used[i])
                if (const double now = alike(word, b[i]); now > best) {
                    best = now;
                    at = i;
                }
        if (best > 0)
            used[at] = true;
        same += best;
    }
    return 2 * same / static_cast<double>(a.size() + b.size());
}

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

std::string canonicalName(const ColumnMeaning& meaning) {
    switch (meaning.role) {
    case ColumnRole::metric: {
        const auto unit = record::suffix(meaning.unit);
        return stemOf(meaning.metric) + (unit.empty() ? "" : "_") + std::string(unit);
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
    std::set<std::string, std::less<>> noise, missing, summaries;
    std::set<std::string, std::less<>> words; ///< of all phrases
    void take(const std::vector<std::string>& row);
    std::map<Metric, Range> ranges;
};

const Vocabulary& Vocabulary::own() {
    static const Vocabulary vocabulary;
    return vocabulary;
}

namespace {

using Row = std::vector<std::string>;

bool isPhrase(const Row& row) {
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

void Vocabulary::Tables::take(const Row& row) {
    const std::string& kind = row[0];
    const std::string& written = row[1];
    if (kind == "word")
        abbreviations[written] = split(row[2]);
    else if (kind == "noise")
        noise.insert(written);
    else if (kind == "missing")
        missing.insert(written);
    else if (kind == "summary")
        summaries.insert(written);
    else if (kind == "sign")
        sides[written] = row[2] == "-" ? record::Side::left : record::Side::right;
    else if (kind == "unit")
        units[written] = unitOfSuffix(row[2]);
    else if (kind == "range")
        ranges[metricOfStem(written).value()] = {record::tableNumber(row[2].substr(0, row[2].find(':'))),
                                                 record::tableNumber(row[2].substr(row[2].find(':') + 1))};
    if (isPhrase(row))
        for (const auto& word : split(written))
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
    auto words = canonicalWords(split(written));
    m_phrases.push_back({std::move(words), meaning, weight, joined(split(written))});
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
    std::string plain = lowerCase(trimmed(text));
    if (plain.size() >= 2 &&
        ((plain.front() == '[' && plain.back() == ']') || (plain.front() == '(' && plain.back() == ')')))
        plain = std::string(trimmed(std::string_view(plain).substr(1, plain.size() - 2)));
    const auto at = m_tables->units.find(plain);
    return at == m_tables->units.end() ? std::nullopt : std::optional(at->second);
}

std::optional<record::Side> Vocabulary::sideNamed(std::string_view text) const {
    std::string plain = lowerCase(trimmed(text));
    if (plain.ends_with('.'))
        plain.pop_back();
    const auto at = m_tables->sides.find(plain);
    return at == m_tables->sides.end() ? std::nullopt : std::optional(at->second);
}

bool Vocabulary::isMissing(std::string_view text) const {
    if (std::ranges::all_of(text, [](char c) { return c == '-'; }))
        return true;
    return text.size() <= 12 && m_tables->missing.contains(lowerCase(text));
}

bool Vocabulary::isSummary(std::string_view text) const {
    if (text.empty() || text.size() > 60)
        return false;
    const auto words = split(text);
    const std::string whole = joined(words);
    if (m_tables->summaries.contains(whole))
        return true;
    // "7 iron average", "avg 7 iron", "average (12 shots)"
    static const std::set<std::string> said = {"average", "averages", "avg", "mean", "median", "stdev"};
    return words.size() > 1 && (said.contains(words.front()) || said.contains(words.back()));
}

Vocabulary::Range Vocabulary::usualRange(Metric metric) const {
    return m_tables->ranges.at(metric);
}

bool Vocabulary::isKnownWord(std::string_view word) const {
    return m_tables->words.contains(word) || m_tables->abbreviations.contains(word);
}

// "Carry [yd]", "Ball Speed (mph)"; what else stands in brackets is words.
void Vocabulary::takeBracket(std::string& text, HeadingWords& found) const {
    const auto open = text.find_last_of("[(");
    if (open == std::string::npos || open == 0)
        return;
    const auto close = text.find_first_of("])", open);
    const std::string inside(trimmed(
        std::string_view(text).substr(open + 1, (close == std::string::npos ? text.size() : close) - open - 1)));
    if (const auto unit = unitNamed(inside)) {
        found.unit = unit;
        found.unitText = inside;
        text.erase(open);
    } else if (close != std::string::npos && close + 1 == text.size() && split(inside).size() == 1) {
        found.unknownUnit = inside;
    }
}

// "Carry, yds", "carry_m", "Launch Angle °", "Club Speed - mph"
void Vocabulary::takeUnitBehind(std::string& text, HeadingWords& found) const {
    constexpr std::string_view degree = "°";
    const auto at = text.find_last_of(" _,;:|-");
    const std::string_view last = at == std::string::npos ? std::string_view() : std::string_view(text).substr(at + 1);
    if (last.empty() || at == 0) {
        if (text.ends_with(degree) && text.size() > degree.size()) {
            found.unit = Unit::deg;
            found.unitText = degree;
            text.erase(text.size() - degree.size());
        }
        return;
    }
    if (const auto unit = unitNamed(last); unit && *unit != Unit::one) {
        found.unit = unit;
        found.unitText = last;
        text.erase(at);
    }
}

HeadingWords Vocabulary::wordsOf(const std::string& heading) const {
    HeadingWords found;
    std::string text = withPlainSpaces(trimmed(heading));
    takeBracket(text, found);
    if (!found.unit)
        takeUnitBehind(text, found);
    for (const auto& word : splitAsWritten(text))
        if (isKnownWord(lowerCase(word)))
            found.words.push_back(lowerCase(word));
        else
            for (auto& part : split(withoutHumps(word)))
                found.words.push_back(std::move(part));
    // "CarryYards", "ballSpeedMph"
    if (!found.unit && found.words.size() > 1 && found.words.back().size() > 1)
        if (const auto unit = unitNamed(found.words.back()); unit && *unit != Unit::one) {
            found.unit = unit;
            found.unitText = found.words.back();
            found.words.pop_back();
        }
    found.words = canonicalWords(found.words);
    return found;
}

std::vector<Candidate> Vocabulary::candidatesFor(const HeadingWords& heading) const {
    std::vector<Candidate> best;
    if (heading.words.empty() || heading.words.size() > 8)
        return best;
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
