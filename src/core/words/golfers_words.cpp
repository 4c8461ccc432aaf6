#include "core/words/golfers_words.h"

#include "core/record/text/table.h"
#include "core/record/text/text.h"
#include "core/record/typed/club_names.h"

#include <algorithm>
#include <string_view>
#include <utility>

namespace knot::embedded {
extern const std::string_view wordTable;    // data/words.csv
extern const std::string_view headingTable; // data/headings.csv
} // namespace knot::embedded

namespace knot::words {
namespace {

using record::Metric;
using record::Outcome;
using record::OutcomeKind;
using record::Want;

std::string phraseOf(const std::vector<std::string>& words, std::size_t from = 0) {
    std::string text;
    for (std::size_t i = from; i < words.size(); ++i)
        text += (text.empty() ? "" : " ") + words[i];
    return text;
}

const std::vector<std::pair<std::string, Meant>>& table() {
    static const auto all = [] {
        std::vector<std::pair<std::string, Meant>> rows;
        for (const auto& cells : record::tableRows(embedded::wordTable, 3))
            rows.emplace_back(
                phraseOf(wordsOf(cells[0])),
                Meant{*record::outcomeFromText(cells[1]), cells[2] == "more" ? Want::Kind::more : Want::Kind::less});
        return rows;
    }();
    return all;
}

// "carry" of "carry_m": all but the unit behind the last mark.
bool isStemOf(const std::string& stem, const std::string& key) {
    return key == stem || (key.starts_with(stem + "_") && key.rfind('_') == stem.size());
}

// Headings of shot files that mean a number: "club head speed".
const std::vector<std::pair<std::string, Metric>>& headings() {
    static const auto all = [] {
        std::vector<std::pair<std::string, Metric>> rows;
        for (const auto& cells : record::tableRows(embedded::headingTable, 4))
            for (const Metric metric : record::allMetrics())
                if (cells[0] == "metric" && isStemOf(cells[2], record::info(metric).key))
                    rows.emplace_back(phraseOf(wordsOf(cells[1])), metric);
        return rows;
    }();
    return all;
}

bool isFiller(const std::string& word) {
    return word == "the" || word == "a" || word == "its" || word == "be" || word == "is" || word == "will" ||
           word == "should" || word == "bit" || word == "and";
}

} // namespace

std::vector<std::string> wordsOf(const std::string& text) {
    std::vector<std::string> words(1);
    for (const char c : record::lowerCase(text))
        if (c == ' ' || c == ',' || c == '-' || c == '(' || c == ')')
            words.emplace_back();
        else
            words.back() += c;
    std::erase(words, "");
    return words;
}

std::optional<Metric> numberMeant(const std::string& words) {
    const std::string said = phraseOf(wordsOf(words));
    if (said.empty())
        return std::nullopt;
    auto labelled = [](Metric metric) { return phraseOf(wordsOf(record::info(metric).label)); };
    for (const Metric metric : record::allMetrics())
        if (labelled(metric) == said)
            return metric;
    const auto& known = headings();
    if (const auto at = std::ranges::find(known, said, &std::pair<std::string, Metric>::first); at != known.end())
        return at->second;
    for (const auto& [golfers, meant] : table())
        if (golfers == said && meant.outcome.kind == OutcomeKind::average)
            return meant.outcome.metric;
    for (const Metric metric : asked)
        if (labelled(metric).starts_with(said))
            return metric;
    for (const Metric metric : record::allMetrics())
        if (labelled(metric).starts_with(said))
            return metric;
    return std::nullopt;
}

std::optional<Meant> golfersWord(const std::string& text) {
    auto words = wordsOf(text);
    std::erase_if(words, isFiller);
    const std::string said = phraseOf(words);
    for (const auto& [golfers, meant] : table())
        if (golfers == said)
            return meant;
    return std::nullopt;
}

std::optional<Meant> meantBy(const std::string& text) {
    if (const auto meant = golfersWord(text))
        return meant;
    auto words = wordsOf(text);
    std::erase_if(words, isFiller);
    if (words.empty())
        return std::nullopt;
    const bool isMore = words[0] == "more" || words[0] == "higher";
    const bool isLess = words[0] == "less" || words[0] == "lower" || words[0] == "fewer";
    if (words.size() < 2 || (!isMore && !isLess))
        return std::nullopt;
    const std::string rest = phraseOf(words, 1);
    for (const auto& [golfers, meant] : table())
        if (golfers == rest && meant.outcome.kind != OutcomeKind::average)
            return Meant{meant.outcome, isMore ? Want::Kind::more : Want::Kind::less};
    const auto metric = numberMeant(rest);
    if (!metric)
        return std::nullopt;
    return Meant{{.kind = OutcomeKind::average, .metric = *metric, .shape = {}},
                 isMore ? Want::Kind::more : Want::Kind::less};
}

std::string wordsFor(const Meant& meant) {
    std::string text;
    for (const auto& [golfers, means] : table())
        if (means == meant)
            text += " " + golfers;
    if (meant.outcome.kind == OutcomeKind::average)
        for (const auto& [heading, metric] : headings())
            if (metric == meant.outcome.metric)
                text += " " + heading;
    return text;
}

tl::expected<std::vector<Metric>, std::string> numbersIn(const std::string& text) {
    std::vector<Metric> metrics;
    for (const std::string& name : record::namesIn(text, {})) {
        const auto metric = numberMeant(name);
        if (!metric)
            return tl::unexpected("“" + name + "” is no number that a monitor gives.");
        if (std::ranges::find(metrics, *metric) == metrics.end())
            metrics.push_back(*metric);
    }
    return metrics;
}

tl::expected<std::vector<Meant>, std::string> expectedIn(const std::string& text) {
    std::vector<Meant> all;
    for (const std::string& name : record::namesIn(text, {})) {
        const auto meant = meantBy(name);
        if (!meant)
            return tl::unexpected("“" + name + "” says no direction of a number, as “higher” or “more spin” do.");
        all.push_back(*meant);
    }
    if (all.empty())
        return tl::unexpected(std::string("Say what you expect, as in “higher, more spin”."));
    return all;
}

} // namespace knot::words
