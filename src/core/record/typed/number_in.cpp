#include "core/record/typed/number_in.h"

#include "core/record/text/text.h"

#include <algorithm>
#include <charconv>
#include <climits>
#include <string>

namespace knot::record {

namespace {

// A number in figures: whole part, mark, decimals and exponent, with thousands marks still inside.
struct Figures {
    bool negative = false;
    std::string body;     ///< digits, points, commas, and ' for any other thousands mark
    std::string exponent; ///< "e-3" or empty
};

// True where there was a minus; a plus is taken as well.
bool takeSign(std::string_view& text) {
    for (const std::string_view sign : {"-", "\u2212", "+"})
        if (text.starts_with(sign)) {
            text.remove_prefix(sign.size());
            return sign != "+";
        }
    return false;
}

// The digits with their marks, as far as they go.
std::string takeBody(std::string_view& text) {
    std::string body;
    while (!text.empty()) {
        const char c = text.front();
        if (isDigit(c) || c == '.' || c == ',') {
            body += c;
            text.remove_prefix(1);
        } else if (const std::size_t space = spaceAtStart(text); space > 0) {
            body += '\'';
            text.remove_prefix(space);
        } else if (text.starts_with("'") || text.starts_with("\u2019")) {
            body += '\'';
            text.remove_prefix(c == '\'' ? 1 : 3);
        } else {
            break;
        }
    }
    return body;
}

// "e-3" of all that is left; nothing where that is something else.
std::optional<std::string> exponentIn(std::string_view text) {
    if (text.empty())
        return std::string();
    if (!text.starts_with('e') && !text.starts_with('E'))
        return std::nullopt;
    std::string_view digits = text.substr(1);
    if (digits.starts_with('-') || digits.starts_with('+'))
        digits.remove_prefix(1);
    if (digits.empty() || !std::ranges::all_of(digits, isDigit))
        return std::nullopt;
    return text[1] == '+' ? "e" + std::string(digits) : std::string(text);
}

std::optional<Figures> figuresOf(std::string_view text) {
    text = trimmed(text);
    Figures figures;
    figures.negative = takeSign(text);
    figures.body = takeBody(text);
    auto exponent = exponentIn(text);
    if (!exponent || figures.body.find_first_of("0123456789") == std::string::npos)
        return std::nullopt;
    figures.exponent = std::move(*exponent);
    return figures;
}

// Digits in groups of three parted by `mark`, or without any: then what is left without them.
std::optional<std::string> ungrouped(std::string_view whole, char mark) {
    if (whole.find(mark) == std::string_view::npos)
        return std::ranges::all_of(whole, isDigit) ? std::optional<std::string>(whole) : std::nullopt;
    std::string digits;
    std::size_t group = 0;
    bool first = true;
    for (const char c : whole) {
        if (isDigit(c)) {
            ++group;
            digits += c;
        } else if (c == mark && (first ? group >= 1 && group <= 3 : group == 3)) {
            first = false;
            group = 0;
        } else {
            return std::nullopt;
        }
    }
    return group == 3 ? std::optional(digits) : std::nullopt;
}

// The figures with a decimal point, read with this mark for decimals; nothing when they don't fit it.
std::optional<std::string> pointed(const std::string& body, char decimal) {
    const auto at = body.find(decimal);
    if (at != std::string::npos && body.find(decimal, at + 1) != std::string::npos)
        return std::nullopt;
    const std::string_view whole = std::string_view(body).substr(0, at);
    const std::string_view decimals =
        at == std::string::npos ? std::string_view() : std::string_view(body).substr(at + 1);
    if (!std::ranges::all_of(decimals, isDigit))
        return std::nullopt;
    for (const char mark : {decimal == '.' ? ',' : '.', '\''})
        if (const auto digits = ungrouped(whole, mark))
            return *digits + "." + std::string(decimals);
    return std::nullopt;
}

// Digits with at most a minus and a point, as most cells are; nothing for whatever needs more thought.
std::optional<double> plainNumber(std::string_view text, DecimalMark mark) {
    if (mark == DecimalMark::comma || text.empty() || text.size() > 20)
        return std::nullopt;
    for (const char c : text.substr(text.front() == '-' ? 1 : 0))
        if (!isDigit(c) && c != '.')
            return std::nullopt;
    double value = 0;
    const auto [stop, error] = std::from_chars(text.data(), text.data() + text.size(), value, std::chars_format::fixed);
    return error == std::errc() && stop == text.data() + text.size() ? std::optional(value) : std::nullopt;
}

} // namespace

std::optional<DecimalMark> decimalMarkTold(std::string_view text) {
    const auto figures = figuresOf(text);
    if (!figures || figures->body.find_first_of(".,") == std::string::npos)
        return std::nullopt;
    const bool point = pointed(figures->body, '.').has_value();
    const bool comma = pointed(figures->body, ',').has_value();
    if (point == comma)
        return std::nullopt;
    return point ? DecimalMark::point : DecimalMark::comma;
}

tl::expected<double, NumberFault> numberIn(std::string_view text, DecimalMark mark) {
    if (const auto plain = plainNumber(text, mark))
        return *plain;
    const auto figures = figuresOf(text);
    if (!figures)
        return tl::unexpected(NumberFault::notANumber);
    const std::string& body = figures->body;
    const auto point = mark == DecimalMark::comma ? std::nullopt : pointed(body, '.');
    const auto comma = mark == DecimalMark::point ? std::nullopt : pointed(body, ',');
    if (!point && !comma)
        return tl::unexpected(NumberFault::notANumber);
    // "6.250" is read as most write it; "6,250" may be either, unless it begins with 0.
    if (point && comma && body.find(',') != std::string::npos && body.front() != '0' && body.front() != ',')
        return tl::unexpected(NumberFault::ambiguous);
    std::string plain = point && !(comma && body.find(',') != std::string::npos) ? *point : *comma;
    if (plain.front() == '.')
        plain.insert(0, 1, '0');
    plain += figures->exponent;
    double value = 0;
    const auto [stop, error] = std::from_chars(plain.data(), plain.data() + plain.size(), value);
    if (error != std::errc() && plain.find("e-") == std::string::npos)
        return tl::unexpected(NumberFault::notFinite);
    return figures->negative ? -value : value;
}

std::optional<std::uint64_t> countIn(std::string_view digits) {
    std::uint64_t value = 0;
    const char* const end = digits.data() + digits.size();
    const auto read = std::from_chars(digits.data(), end, value);
    return read.ec == std::errc() && read.ptr == end ? std::optional(value) : std::nullopt;
}

std::optional<int> wholeIn(std::string_view digits) {
    const auto count = countIn(digits);
    return count && *count <= INT_MAX ? std::optional(static_cast<int>(*count)) : std::nullopt;
}

} // namespace knot::record
