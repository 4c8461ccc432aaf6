#pragma once

#include "core/record/metric.h"

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

/// The monitor link (docs/formats.md, "Monitor link"): lines of JSON in both directions.
namespace knot::link {

inline constexpr int protocolVersion = 1;
inline constexpr unsigned short usualPort = 47853;
inline constexpr std::size_t longestLine = std::size_t{64} * 1024;
inline constexpr std::size_t longestId = 200;
/// No reading of a golf shot is larger, in any unit of ours.
inline constexpr double largestReading = record::mostReading;

// From the monitor.
struct Hello {
    std::string device;
    int protocol = protocolVersion;
    std::vector<std::string> reads;
    std::string code; ///< the pairing code, where one is asked for
    std::string at;   ///< the monitor's clock now, ISO 8601; may be empty
    bool operator==(const Hello&) const = default;
};
struct ShotRead {
    std::string id, at; ///< `at` is ISO 8601 or empty
    record::Readings readings;
    std::optional<double> quality; ///< 0 to 1
    bool operator==(const ShotRead&) const = default;
};
struct NoRead {
    std::string id, at, reason;
    bool operator==(const NoRead&) const = default;
};
struct Heartbeat {
    std::string at; ///< as in Hello
    bool operator==(const Heartbeat&) const = default;
};

// From the application.
struct Welcome {
    bool operator==(const Welcome&) const = default;
};
struct Ack {
    std::string id;
    bool operator==(const Ack&) const = default;
};
/// Which club the player holds now: for stand-ins, which strike as that club would. Monitors ignore it.
struct InHand {
    std::string build;     ///< its name, or its tag while sealed
    std::size_t place = 0; ///< among the clubs of the test, from 0
    bool operator==(const InHand&) const = default;
};
struct Refused {
    std::string id, reason; ///< `id` where the refused line had one
    bool operator==(const Refused&) const = default;
};

/// A line that is not a message, and why.
struct Unreadable {
    std::string id, why;
    bool operator==(const Unreadable&) const = default;
};
/// A message of a type this program does not know; ignored.
struct Unknown {
    std::string type;
    bool operator==(const Unknown&) const = default;
};

using Message = std::variant<Hello, ShotRead, NoRead, Heartbeat, Welcome, Ack, InHand, Refused, Unreadable, Unknown>;

/// The message of one line without its end. Fields it does not know are left out, and so are metrics
/// it does not know and those that are null; a wrong type makes the line unreadable.
Message messageFrom(std::string_view line);

/// The line of a message, with its end. `Unreadable` is written as the refusal of its line.
std::string lineOf(const Message& message);

/// Cuts bytes into lines, however they arrive. A line that is too long is dropped up to its end and
/// given as one that is not there (`nullopt`). Empty lines are skipped.
class Lines {
public:
    std::vector<std::optional<std::string>> take(std::string_view bytes);

private:
    std::string m_partial;
    bool m_tooLong = false;
};

} // namespace knot::link
