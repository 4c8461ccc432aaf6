#pragma once

#include <optional>
#include <string>

namespace knot::record {

/// A date and a time as ISO 8601 has them ("2026-05-02T09:00:00.250+02:00", the fraction left out or not), read once
/// where they come in. Any other text is kept, and is no moment.
class Moment {
public:
    Moment() = default;
    Moment(std::string text);
    Moment(const char* text)
        : Moment(std::string(text)) {}

    const std::string& text() const { return m_text; }
    bool empty() const { return m_text.empty(); }
    /// From 1970, UTC; without an offset, as if it were UTC. Nothing where it is no moment.
    std::optional<double> seconds() const;
    /// "2026-05-02 09:00", for people; other texts as they are.
    std::string shown() const;
    bool operator==(const Moment& other) const { return m_text == other.m_text; }

    /// Seconds from one to another, of instants: where one has no offset from UTC it is taken to have that of the
    /// other. Nothing where one is no moment.
    friend std::optional<double> secondsBetween(const Moment& from, const Moment& to);

private:
    std::string m_text;
    std::optional<double> m_local;  ///< seconds from 1970 by the clock on the wall
    std::optional<double> m_offset; ///< seconds that the wall's clock is ahead of UTC
};

std::optional<double> secondsBetween(const Moment& from, const Moment& to);

/// Whether a moment lies before another; false where one is no moment.
bool isEarlier(const Moment& moment, const Moment& other);

} // namespace knot::record
