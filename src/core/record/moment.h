#pragma once

#include <optional>
#include <string>

namespace knot::record {

/// Seconds from 1970 of an ISO 8601 date and time without a zone ("2026-05-02T09:00:00", a fraction
/// or not); nothing for any other text.
std::optional<double> secondsOf(const std::string& isoTime);

} // namespace knot::record
