#include "files/json_read.h"

#include <cmath>

namespace knot::files {

record::Metric metricNamed(const std::string& key) {
    if (const auto metric = record::metricFromKey(key))
        return *metric;
    throw Unreadable{"unknown metric '" + key + "'"};
}

int wholeAt(const nlohmann::json& in, const char* name, std::optional<int> otherwise) {
    const auto at = in.find(name);
    if (at == in.end() && otherwise)
        return *otherwise;
    const double value = at != in.end() && at->is_number() ? at->get<double>() : 0.5;
    if (value != std::floor(value) || std::fabs(value) >= 1e9)
        throw Unreadable{"its " + std::string(name) + " is no whole number"};
    return static_cast<int>(value);
}

std::size_t placeAt(const nlohmann::json& in, const char* name) {
    const int place = wholeAt(in, name);
    if (place < 0)
        throw Unreadable{"its " + std::string(name) + " is no place in a list"};
    return static_cast<std::size_t>(place);
}

std::optional<double> numberAt(const nlohmann::json& in, const char* name) {
    const auto at = in.find(name);
    return at == in.end() ? std::nullopt : std::optional(at->get<double>());
}

} // namespace knot::files
