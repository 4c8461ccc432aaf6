#pragma once

#include <optional>
#include <string>

namespace knot::record {

/// Seconds from 1970, UTC, of an ISO 8601 date and time ("2026-05-02T09:00:00.250+02:00", the fraction
/// left out or not); without an offset, as if it were UTC. Nothing for any other text.
std::optional<double> secondsOf(const std::string& isoTime);

/// Seconds from one moment to another, of instants: where one has no offset from UTC it is taken to have
/// that of the other. Nothing where one is no moment.
std::optional<double> secondsBetween(const std::string& from, const std::string& to);

/// Whether a moment lies before another; false where one is no moment.
bool isEarlier(const std::string& moment, const std::string& other);

/// "2026-05-02 09:00", for people; other texts as they are.
std::string momentShown(const std::string& isoTime);

} // namespace knot::record
