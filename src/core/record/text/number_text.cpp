#include "core/record/text/number_text.h"

#include "core/record/text/text.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

namespace knot::record {
namespace {

std::string digits(double magnitude, int decimals) {
    std::array<char, 400> buffer{};
    const auto result =
        std::to_chars(buffer.data(), buffer.data() + buffer.size(), magnitude, std::chars_format::fixed, decimals);
    return {buffer.data(), result.ptr};
}

void groupThousands(std::string& text) {
    const auto point = std::min(text.find('.'), text.size());
    if (point < 5)
        return;
    for (auto at = point; at > 3;) {
        at -= 3;
        text.insert(at, "\u2009");
    }
}

} // namespace

std::string fixed(double value, int decimals) {
    if (!std::isfinite(value))
        return "–";
    double magnitude = std::fabs(value);
    if (decimals < 0) {
        const double step = std::pow(10.0, -decimals);
        magnitude = std::round(magnitude / step) * step;
    }
    std::string text = digits(magnitude, std::clamp(decimals, 0, 12));
    const bool zero = text.find_first_not_of("0.") == std::string::npos;
    groupThousands(text);
    return value < 0 && !zero ? "−" + text : text;
}

std::string signedFixed(double value, int decimals) {
    std::string text = fixed(value, decimals);
    const bool zero = text.find_first_not_of("0.") == std::string::npos;
    return value > 0 && std::isfinite(value) && !zero ? "+" + text : text;
}

std::string probability(double p) {
    if (!std::isfinite(p))
        return "–";
    if (p < 0.001)
        return "under 0.001";
    return fixed(p, p < 0.0995 ? 3 : 2);
}

int supportedDecimals(double standardError, int most) {
    if (!(standardError > 0) || !std::isfinite(standardError))
        return most;
    const int second = 1 - static_cast<int>(std::floor(std::log10(standardError)));
    return std::clamp(second, -3, most);
}

MetricFormat::MetricFormat(Metric metric, const DisplayUnits& units)
    : m_unit(displayUnit(info(metric).quantity, units))
    , m_decimals(info(metric).decimals) {}

MetricFormat MetricFormat::supportedBy(double standardError) const {
    MetricFormat format = *this;
    format.m_decimals = supportedDecimals(shown(standardError), m_decimals);
    return format;
}

std::string MetricFormat::number(double internal) const {
    return fixed(shown(internal), m_decimals);
}

std::string MetricFormat::signedNumber(double internal) const {
    return signedFixed(shown(internal), m_decimals);
}

std::string MetricFormat::withUnit(double internal) const {
    const std::string unit = unitText();
    if (unit.empty())
        return number(internal);
    return number(internal) + (unit == "°" ? "" : " ") + unit;
}

std::string MetricFormat::range(double low, double high) const {
    return number(low) + " to " + number(high);
}

namespace {

bool isDigit(char c) {
    return c >= '0' && c <= '9';
}

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

std::string counted(std::size_t count, const std::string& singular, const std::string& plural) {
    const std::string noun = count == 1 ? singular : plural.empty() ? singular + "s" : plural;
    return std::to_string(count) + " " + noun;
}

} // namespace knot::record
