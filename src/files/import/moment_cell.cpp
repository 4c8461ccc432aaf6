#include "files/import/moment_cell.h"

#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <chrono>
#include <vector>

namespace knot::files {
namespace {

struct Token {
    std::string text; ///< digits or letters, lower case
    char before = 0;  ///< the mark that stands before it; a blank for white space
    bool isNumber() const { return record::isDigit(text.front()); }
    int number() const { return text.size() > 8 ? -1 : record::wholeIn(text).value_or(0); }
};

std::vector<Token> tokensOf(std::string_view cell) {
    std::vector<Token> tokens;
    tokens.reserve(8);
    char before = ' ';
    for (std::size_t i = 0; i < cell.size();) {
        const auto c = static_cast<unsigned char>(cell[i]);
        if (std::isalnum(c) == 0) {
            const std::size_t space = record::spaceAtStart(cell.substr(i));
            before = space > 0 ? (before == 0 ? ' ' : before) : static_cast<char>(c);
            i += std::max<std::size_t>(space, 1);
            continue;
        }
        const bool digit = record::isDigit(cell[i]);
        Token token{{}, before};
        for (; i < cell.size() && std::isalnum(static_cast<unsigned char>(cell[i])) != 0 &&
               record::isDigit(cell[i]) == digit;
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

std::string twoFigures(int value) {
    return {static_cast<char>('0' + value / 10), static_cast<char>('0' + value % 10)};
}

std::optional<std::string> dateOf(int year, int month, int day) {
    if (year < 100)
        year += year < 70 ? 2000 : 1900;
    using namespace std::chrono;
    const year_month_day date(std::chrono::year(year), std::chrono::month(static_cast<unsigned>(month)),
                              std::chrono::day(static_cast<unsigned>(day)));
    if (year < 1900 || year > 2200 || !date.ok())
        return std::nullopt;
    return twoFigures(year / 100) + twoFigures(year % 100) + "-" + twoFigures(month) + "-" + twoFigures(day);
}

bool isWeekday(const Token& token) {
    return !token.isNumber() && monthNamed(token.text) == 0 && (token.text.ends_with("day") || token.text.size() == 3);
}

// Three tokens as a date: with the month's name in the middle or in front, or all in figures.
std::optional<std::string> dateOfThree(const Token& first, const Token& second, const Token& third, DateOrder order) {
    if (!third.isNumber() || !isDateMark(second.before) || !isDateMark(third.before))
        return std::nullopt;
    const int a = first.number();
    const int b = second.number();
    const int c = third.number();
    if (const int month = monthNamed(second.text); month > 0 && first.isNumber())
        return first.text.size() == 4 ? dateOf(a, month, c) : dateOf(c, month, a);
    if (const int month = monthNamed(first.text); month > 0 && second.isNumber())
        return dateOf(c, month, b);
    const bool figures = first.isNumber() && second.isNumber() && second.before == third.before &&
                         second.before != ' ' && second.before != 0;
    if (!figures)
        return std::nullopt;
    if (first.text.size() == 4 || order == DateOrder::yearFirst)
        return dateOf(a, b, c);
    return order == DateOrder::monthFirst ? dateOf(c, a, b) : dateOf(c, b, a);
}

// A date at the front of the tokens, which it takes away.
std::optional<std::string> takeDate(std::vector<Token>& tokens, DateOrder order) {
    auto dropped = [&](std::optional<std::string> date, std::size_t count) {
        if (date)
            tokens.erase(tokens.begin(), tokens.begin() + static_cast<long>(count));
        return date;
    };
    if (tokens.size() > 3 && isWeekday(tokens.front())) // "Mon, 4 May 2031"
        tokens.erase(tokens.begin());
    if (!tokens.empty() && tokens.front().isNumber() && tokens.front().text.size() == 8) {
        const int all = tokens.front().number();
        return dropped(dateOf(all / 10000, all / 100 % 100, all % 100), 1);
    }
    return tokens.size() < 3 ? std::nullopt : dropped(dateOfThree(tokens[0], tokens[1], tokens[2], order), 3);
}

// A time of day with whatever zone stands behind it; all of the tokens.
class ClockReader {
public:
    ClockReader(const std::vector<Token>& tokens, std::string_view cell)
        : m_tokens(tokens)
        , m_cell(cell) {}

    std::optional<std::string> read() {
        if (is("t"))
            ++m_at;
        if (!takeFigures() || !takeBehind())
            return std::nullopt;
        const bool isTime = m_hour >= 0 && m_hour <= 23 && m_minute >= 0 && m_minute <= 59 && m_second >= 0 &&
                            m_second <= 60 && m_at == m_tokens.size();
        if (!isTime)
            return std::nullopt;
        return twoFigures(m_hour) + ":" + twoFigures(m_minute) + ":" + twoFigures(m_second) + m_part + m_zone;
    }

private:
    bool is(std::string_view word) const { return m_at < m_tokens.size() && m_tokens[m_at].text == word; }
    bool isNumberAfter(char mark) const {
        return m_at < m_tokens.size() && m_tokens[m_at].isNumber() && m_tokens[m_at].before == mark;
    }

    bool takeFigures() {
        if (m_tokens.size() < m_at + 2 || !m_tokens[m_at].isNumber() || !m_tokens[m_at + 1].isNumber())
            return false;
        const char mark = m_tokens[m_at + 1].before;
        if (mark != ':' && mark != '.')
            return false;
        m_hour = m_tokens[m_at].number();
        m_minute = m_tokens[m_at + 1].number();
        m_at += 2;
        if (isNumberAfter(mark)) {
            m_second = m_tokens[m_at++].number();
            if (isNumberAfter('.') || isNumberAfter(','))
                m_part = "." + m_tokens[m_at++].text;
        }
        return true;
    }

    // "PM", "p.m.", "Z", "+02:00", or nothing.
    bool takeBehind() {
        const bool morning = is("am") || is("a");
        const bool afternoon = is("pm") || is("p");
        if (morning || afternoon) {
            if (m_hour < 1 || m_hour > 12)
                return false;
            m_hour = m_hour % 12 + (afternoon ? 12 : 0);
            ++m_at;
            m_at += is("m") ? 1 : 0;
        } else if (is("z")) {
            m_zone = "Z";
            ++m_at;
        } else if (m_at < m_tokens.size() && (m_tokens[m_at].before == '+' || m_tokens[m_at].before == '-')) {
            m_zone = std::string(m_cell.substr(m_cell.find_last_of("+-")));
            m_at = m_tokens.size();
        }
        return true;
    }

    const std::vector<Token>& m_tokens;
    std::string_view m_cell;
    std::size_t m_at = 0;
    int m_hour = 0, m_minute = 0, m_second = 0;
    std::string m_part, m_zone;
};

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
    const auto time = ClockReader(tokens, cell).read();
    if (!time)
        return std::nullopt;
    moment.time = *time;
    return moment;
}

bool isNoDay(std::string_view cell) {
    const auto tokens = tokensOf(cell);
    if (tokens.size() < 3 || !std::ranges::all_of(tokens.begin(), tokens.begin() + 3, &Token::isNumber) ||
        !isDateMark(tokens[1].before) || tokens[1].before != tokens[2].before)
        return false;
    return std::ranges::none_of(
        std::array{DateOrder::yearFirst, DateOrder::dayFirst, DateOrder::monthFirst},
        [&](DateOrder order) { return dateOfThree(tokens[0], tokens[1], tokens[2], order).has_value(); });
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
