#pragma once

#include "core/flight/impact.h"

#include <optional>
#include <string>
#include <vector>

namespace knot::reach {

/// From where to where; an end that is missing is open.
struct Band {
    std::optional<double> from, to;
    bool isOpen() const { return !from && !to; }
    bool holds(double value) const { return (!from || value >= *from) && (!to || value <= *to); }
    bool operator==(const Band&) const = default;
};

/// What is wanted of a ball: degrees, rpm, m, degrees.
struct Wanted {
    Band launch, spin, height, descent;
    bool operator==(const Wanted&) const = default;
};

/// What is wanted of a kind of club by ball speed.
struct Chart {
    struct Row {
        flight::HeadKind kind = flight::HeadKind::driver;
        double ballSpeedFrom = 0, ballSpeedTo = 0; ///< m/s; the end is the next row's
        Wanted wanted;
        bool operator==(const Row&) const = default;
    };
    std::string name; ///< whose it is; empty: the one that ships
    std::vector<Row> rows;

    /// The row that holds this ball speed; nothing where none does.
    std::optional<Wanted> at(flight::HeadKind kind, double ballSpeed) const;
};

/// The one that ships, data/windows.csv: what `wantedAt` gives, as `knotcount-cli windows` writes it.
const Chart& usualChart();

/// Rows as in that file, with its heading.
std::string chartText(const std::vector<Chart::Row>& rows);

} // namespace knot::reach
