#include "files/import/cells/moment_cell.h"

#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <chrono>
#include <cmath>
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

    // "140509", behind the T of a date without marks.
    bool takeUnmarked() {
        const Token& token = m_tokens[m_at];
        if (m_at == 0 || !token.isNumber() || (token.text.size() != 6 && token.text.size() != 4))
            return false;
        const int all = token.text.size() == 6 ? token.number() : 100 * token.number();
        m_hour = all / 10000;
        m_minute = all / 100 % 100;
        m_second = all % 100;
        ++m_at;
        if (isNumberAfter('.'))
            m_part = "." + m_tokens[m_at++].text;
        return true;
    }

    bool takeFigures() {
        if (m_at < m_tokens.size() && takeUnmarked())
            return true;
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

namespace {

constexpr int daysTo1970 = 25569; // of a spreadsheet that counts from 1900
constexpr double secondsADay = 86400;

std::string dayText(long long sinceEpoch) {
    using namespace std::chrono;
    const year_month_day date{sys_days{days{static_cast<int>(sinceEpoch)}}};
    return dateOf(static_cast<int>(date.year()), static_cast<int>(static_cast<unsigned>(date.month())),
                  static_cast<int>(static_cast<unsigned>(date.day())))
        .value_or(std::string());
}

std::string timeText(long long second) {
    return twoFigures(static_cast<int>(second / 3600)) + ":" + twoFigures(static_cast<int>(second / 60 % 60)) + ":" +
           twoFigures(static_cast<int>(second % 60));
}

// One number by itself: seconds or milliseconds since 1970, or a spreadsheet's day that lost its style.
std::optional<MomentCell> momentOfNumber(std::string_view cell) {
    const auto number = record::numberIn(cell, record::DecimalMark::point);
    if (!number || cell.front() == '-' || cell.front() == '+')
        return std::nullopt;
    const auto whole = cell.substr(0, cell.find('.'));
    const bool isMillis = whole.size() == 13 && whole.size() == cell.size();
    if (whole.size() == 10 || isMillis) {
        constexpr double least = 3e8, most = 4e9; // 1979 to 2096
        const double seconds = isMillis ? *number / 1000 : *number;
        if (seconds < least || seconds > most)
            return std::nullopt;
        const auto second = static_cast<long long>(seconds);
        const auto perDay = static_cast<long long>(secondsADay);
        std::string part(isMillis ? "." + std::string(cell.substr(10)) : cell.substr(whole.size()));
        if (part == ".000")
            part.clear();
        return MomentCell{dayText(second / perDay), timeText(second % perDay) + part + "Z"};
    }
    constexpr double earliest = 32874, latest = 73050; // 1990 to 2099
    const bool isDay = *number >= earliest && *number <= latest;
    const bool isTimeOfDay = *number > 0 && *number < 1 && cell.size() - std::min(cell.size(), whole.size()) > 3;
    if (!isDay && !isTimeOfDay)
        return std::nullopt;
    const std::string moment = momentOfSerial(*number, false);
    return isTimeOfDay          ? MomentCell{{}, moment}
           : moment.size() > 10 ? MomentCell{moment.substr(0, 10), moment.substr(11)}
                                : MomentCell{moment, {}};
}

} // namespace

std::string momentOfSerial(double serial, bool from1904) {
    constexpr double lastDay = 2'958'466; // of the year 9999
    constexpr int from1904To1970 = 24107;
    if (!(serial >= 0) || serial > lastDay)
        return {};
    const auto perDay = static_cast<long long>(secondsADay);
    const auto seconds = static_cast<long long>(std::llround(serial * secondsADay));
    const long long days = seconds / perDay;
    const std::string time = timeText(seconds % perDay);
    if (days == 0)
        return time;
    const std::string day = dayText(days - (from1904 ? from1904To1970 : daysTo1970));
    return day.empty() || seconds % perDay == 0 ? day : day + " " + time;
}

namespace {

// "2026-05-04 10:00:05", as most programs write it: there is nothing to be told of it.
std::optional<MomentCell> plainMoment(std::string_view cell) {
    constexpr std::string_view form = "0000-00-00 00:00:00";
    constexpr int shortestMonth = 28; // days: what is later goes the long way
    if (cell.size() != form.size())
        return std::nullopt;
    for (std::size_t i = 0; i < form.size(); ++i)
        if (form[i] == '0' ? !record::isDigit(cell[i]) : cell[i] != form[i])
            return std::nullopt;
    const auto two = [&](std::size_t at) { return 10 * (cell[at] - '0') + (cell[at + 1] - '0'); };
    const int month = two(5);
    const int day = two(8);
    if (month < 1 || month > 12 || day < 1 || day > shortestMonth || two(0) < 19 || two(11) > 23 || two(14) > 59 ||
        two(17) > 59)
        return std::nullopt;
    MomentCell moment;
    moment.date = cell.substr(0, 10);
    moment.time = cell.substr(11);
    return moment;
}

} // namespace

std::optional<MomentCell> momentOfCell(std::string_view cell, DateOrder order) {
    if (cell.empty() || cell.size() > 48)
        return std::nullopt;
    if (auto moment = plainMoment(cell))
        return moment;
    if (auto moment = momentOfNumber(cell))
        return moment;
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
