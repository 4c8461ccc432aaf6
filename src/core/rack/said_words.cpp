#include "core/rack/said_words.h"

#include "core/record/text/number_text.h"

#include <algorithm>
#include <array>
#include <utility>

namespace knot::rack {
namespace {

struct UnitWord {
    std::string_view word;
    Measured what;
};

constexpr std::array<UnitWord, 11> unitWords = {{{"g", Measured::mass},
                                                 {"°", Measured::angle},
                                                 {"deg", Measured::angle},
                                                 {"mm", Measured::length},
                                                 {"in", Measured::inches},
                                                 {"\"", Measured::inches},
                                                 {"”", Measured::inches},
                                                 {"″", Measured::inches},
                                                 {"cm³", Measured::volume},
                                                 {"cm3", Measured::volume},
                                                 {"cc", Measured::volume}}};

// A quarter, a half, three quarters, and eighths as one character.
std::optional<std::pair<double, std::size_t>> fractionAt(std::string_view text) {
    constexpr std::array<std::pair<std::string_view, double>, 7> fractions = {
        {{"¼", 0.25}, {"½", 0.5}, {"¾", 0.75}, {"⅛", 0.125}, {"⅜", 0.375}, {"⅝", 0.625}, {"⅞", 0.875}}};
    for (const auto& [sign, value] : fractions)
        if (text.starts_with(sign))
            return std::pair(value, sign.size());
    return std::nullopt;
}

bool isUnit(std::string_view word) {
    return std::ranges::find(unitWords, word, &UnitWord::word) != unitWords.end();
}

} // namespace

std::optional<Quantity> quantityIn(std::string_view word) {
    std::size_t at = 0;
    while (at < word.size() &&
           ((word[at] >= '0' && word[at] <= '9') || word[at] == '.' || (at == 0 && word[at] == '-')))
        ++at;
    const auto number = at > 0 ? record::numberIn(std::string(word.substr(0, at))) : record::numberIn("0");
    if (!number)
        return std::nullopt;
    double value = *number;
    if (const auto fraction = fractionAt(word.substr(at))) {
        value += fraction->first;
        at += fraction->second;
    }
    if (at == 0)
        return std::nullopt;
    for (const UnitWord& unit : unitWords)
        if (word.substr(at) == unit.word)
            return Quantity{value, unit.what};
    return std::nullopt;
}

std::vector<std::string> wordsOf(const std::string& text) {
    constexpr std::string_view dot = "·";
    std::string plain = text;
    for (auto at = plain.find(dot); at != std::string::npos; at = plain.find(dot))
        plain.replace(at, dot.size(), " ");
    std::vector<std::string> words(1);
    for (const char c : plain)
        if (c == ' ' || c == ',')
            words.emplace_back();
        else
            words.back() += c;
    std::erase(words, "");
    for (std::size_t i = 1; i < words.size();)
        if (isUnit(words[i]) && quantityIn(words[i - 1] + words[i])) {
            words[i - 1] += words[i];
            words.erase(words.begin() + static_cast<std::ptrdiff_t>(i));
        } else {
            ++i;
        }
    return words;
}

std::string joined(const std::vector<std::string>& words) {
    std::string text;
    for (const std::string& word : words)
        text += (text.empty() ? "" : " ") + word;
    return text;
}

std::optional<double> bareIn(std::string_view word) {
    if (word.ends_with("°"))
        word.remove_suffix(std::string_view("°").size());
    if (const auto fraction = fractionAt(word); fraction && fraction->second == word.size())
        return fraction->first;
    std::size_t at = 0;
    while (at < word.size() && ((word[at] >= '0' && word[at] <= '9') || word[at] == '.'))
        ++at;
    const auto number = record::numberIn(std::string(word.substr(0, at)));
    if (at == 0 || !number)
        return std::nullopt;
    if (at == word.size())
        return *number;
    const auto fraction = fractionAt(word.substr(at));
    return fraction && at + fraction->second == word.size() ? std::optional(*number + fraction->first) : std::nullopt;
}

} // namespace knot::rack
