#include "files/import/moment_cell.h"

#include "core/record/text.h"

#include <array>
#include <cctype>
#include <cstdio>
#include <vector>

namespace knot::files {
namespace {

struct Token {
    std::string text; ///< digits or letters, lower case
    char before = 0;  ///< the mark that stands before it; a blank for white space
    bool isNumber() const { return std::isdigit(static_cast<unsigned char>(text.front())) != 0; }
    int number() const { return text.size() > 8 ? -1 : std::atoi(text.c_str()); }
};

std::vector<Token> tokensOf(std::string_view cell) {
    std::vector<Token> tokens;
    char before = ' ';
    for (std::size_t i = 0; i < cell.size();) {
        const auto c = static_cast<unsigned char>(cell[i]);
        if (std::isalnum(c) == 0) {
            const std::size_t space = record::spaceAtStart(cell.substr(i));
            before = space > 0 ? (before == 0 ? ' ' : before) : static_cast<char>(c);
            i += std::max<std::size_t>(space, 1);
            continue;
        }
        const bool digit = std::isdigit(c) != 0;
        Token token{{}, before};
        for (; i < cell.size() && std::isalnum(static_cast<unsigned char>(cell[i])) != 0 &&
               (std::isdigit(static_cast<unsigned char>(cell[i])) != 0) == digit;
             ++i)
            token.text += static_cast<char>(std::tolower(static_cast<unsigned char>(cell[i])));
        tokens.push_back(std::move(token));
        before = 0;
    }
    return tokens;
}

int monthNamed(const std::string& word) {
    constexpr std::array<std::string_view, 12> months = {"jan", "feb", "mar", "apr", "may", "jun",
                                                         "jul", "aug", "sep", "oct", "nov", "dec"};
    for (std::size_t i = 0; i < months.size(); ++i)
        if (word.size() >= 3 && word.starts_with(months[i]))
            return static_cast<int>(i) + 1;
    return 0;
}

bool isDateMark(char mark) {
    return mark == '-' || mark == '/' || mark == '.' || mark == ' ' || mark == ',' || mark == 0;
}

std::optional<std::string> dateOf(int year, int month, int day) {
    if (year < 100)
        year += year < 70 ? 2000 : 1900;
    if (year < 1900 || year > 2200 || month < 1 || month > 12 || day < 1 || day > 31)
        return std::nullopt;
    std::array<char, 32> text{};
    (void)std::snprintf(text.data(), text.size(), "%04d-%02d-%02d", year, month, day);
    return std::string(text.data());
}

// A date at the front of the tokens, which it takes away.
std::optional<std::string> takeDate(std::vector<Token>& tokens, DateOrder order) {
    auto drop = [&](std::size_t count) { tokens.erase(tokens.begin(), tokens.begin() + static_cast<long>(count)); };
    if (tokens.empty())
        return std::nullopt;
    // "Mon, 4 May 2031"
    if (!tokens.front().isNumber() && monthNamed(tokens.front().text) == 0 && tokens.size() > 3 &&
        tokens.front().text.ends_with("day") + (tokens.front().text.size() == 3) > 0)
        drop(1);
    if (tokens.front().isNumber() && tokens.front().text.size() == 8) {
        const int all = tokens.front().number();
        const auto date = dateOf(all / 10000, all / 100 % 100, all % 100);
        if (date)
            drop(1);
        return date;
    }
    if (tokens.size() < 3 || !isDateMark(tokens[1].before) || !isDateMark(tokens[2].before) || !tokens[2].isNumber())
        return std::nullopt;
    std::optional<std::string> date;
    if (const int month = monthNamed(tokens[1].text); month > 0 && tokens[0].isNumber())
        date = tokens[0].text.size() == 4 ? dateOf(tokens[0].number(), month, tokens[2].number())
                                          : dateOf(tokens[2].number(), month, tokens[0].number());
    else if (const int first = monthNamed(tokens[0].text); first > 0 && tokens[1].isNumber())
        date = dateOf(tokens[2].number(), first, tokens[1].number());
    else if (tokens[0].isNumber() && tokens[1].isNumber() && tokens[1].before == tokens[2].before &&
             tokens[1].before != ' ' && tokens[1].before != 0) {
        const int a = tokens[0].number();
        const int b = tokens[1].number();
        const int c = tokens[2].number();
        if (tokens[0].text.size() == 4)
            date = dateOf(a, b, c);
        else if (order == DateOrder::monthFirst)
            date = dateOf(c, a, b);
        else if (order == DateOrder::dayFirst)
            date = dateOf(c, b, a);
        else
            date = dateOf(a, b, c);
    }
    if (date)
        drop(3);
    return date;
}

// A time of day with whatever zone stands behind it; all of the tokens.
std::optional<std::string> timeOf(const std::vector<Token>& tokens, std::string_view cell) {
    std::size_t at = 0;
    if (at < tokens.size() && tokens[at].text == "t")
        ++at;
    if (tokens.size() < at + 2 || !tokens[at].isNumber() || !tokens[at + 1].isNumber())
        return std::nullopt;
    const char mark = tokens[at + 1].before;
    if (mark != ':' && mark != '.' && mark != 'h')
        return std::nullopt;
    int hour = tokens[at].number();
    const int minute = tokens[at + 1].number();
    at += 2;
    int second = 0;
    std::string part;
    if (at < tokens.size() && tokens[at].isNumber() && tokens[at].before == mark) {
        second = tokens[at++].number();
        if (at < tokens.size() && tokens[at].isNumber() && (tokens[at].before == '.' || tokens[at].before == ','))
            part = "." + tokens[at++].text;
    }
    std::string zone;
    if (at < tokens.size() &&
        (tokens[at].text == "am" || tokens[at].text == "pm" || tokens[at].text == "a" || tokens[at].text == "p")) {
        const bool afternoon = tokens[at].text.front() == 'p';
        if (hour < 1 || hour > 12)
            return std::nullopt;
        hour = hour % 12 + (afternoon ? 12 : 0);
        ++at;
        if (at < tokens.size() && tokens[at].text == "m")
            ++at;
    } else if (at < tokens.size() && tokens[at].text == "z") {
        zone = "Z";
        ++at;
    } else if (at < tokens.size() && (tokens[at].before == '+' || tokens[at].before == '-')) {
        zone = std::string(cell.substr(cell.find_last_of("+-")));
        at = tokens.size();
    }
    if (at != tokens.size() || hour > 23 || minute > 59 || second > 60 || hour < 0 || minute < 0 || second < 0)
        return std::nullopt;
    std::array<char, 32> text{};
    (void)std::snprintf(text.data(), text.size(), "%02d:%02d:%02d", hour, minute, second);
    return std::string(text.data()) + part + zone;
}

} // namespace

std::optional<MomentCell> momentOfCell(std::string_view cell, DateOrder order) {
    if (cell.empty() || cell.size() > 48)
        return std::nullopt;
    auto tokens = tokensOf(cell);
    MomentCell moment;
    if (const auto date = takeDate(tokens, order))
        moment.date = *date;
    if (tokens.empty())
        return moment.date.empty() ? std::nullopt : std::optional(moment);
    const auto time = timeOf(tokens, cell);
    if (!time)
        return std::nullopt;
    moment.time = *time;
    return moment;
}

std::optional<DateOrder> dateOrderTold(std::string_view cell) {
    const auto tokens = tokensOf(cell);
    if (tokens.size() < 3 || !tokens[0].isNumber() || !tokens[1].isNumber() || !tokens[2].isNumber() ||
        !isDateMark(tokens[1].before) || tokens[1].before != tokens[2].before)
        return std::nullopt;
    if (tokens[0].text.size() == 4)
        return DateOrder::yearFirst;
    if (tokens[0].number() > 12 && tokens[1].number() <= 12)
        return DateOrder::dayFirst;
    if (tokens[1].number() > 12 && tokens[0].number() <= 12)
        return DateOrder::monthFirst;
    return std::nullopt;
}

} // namespace knot::files
