#include "files/json_read.h"

namespace knot::files {

record::Metric metricNamed(const std::string& key) {
    if (const auto metric = record::metricFromKey(key))
        return *metric;
    throw Unreadable{"unknown metric '" + key + "'"};
}

std::optional<double> numberAt(const nlohmann::json& in, const char* name) {
    const auto at = in.find(name);
    return at == in.end() ? std::nullopt : std::optional(at->get<double>());
}

} // namespace knot::files
