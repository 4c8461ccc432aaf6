#include "core/record/text/number_text.h"

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

std::string counted(std::size_t count, const std::string& singular, const std::string& plural) {
    const std::string noun = count == 1 ? singular : plural.empty() ? singular + "s" : plural;
    return std::to_string(count) + " " + noun;
}

} // namespace knot::record
