#pragma once

#include "core/flight/impact.h"

#include <optional>

namespace knot::rack {

/// What is wanted of a club at a ball speed: a driver's launch and spin, or how steeply a ball comes down.
struct WantedWindow {
    double launchLow = 0, launchHigh = 0; ///< degrees; a driver's, else 0
    double spinLow = 0, spinHigh = 0;     ///< rpm; a driver's, else 0
    double descentLow = 0;                ///< degrees at least; not a driver's
};

/// From the table data/windows.csv, between its rows in proportion; nothing beyond its ball speeds and for wedges,
/// whose flights are chosen. The table is what the flight model says carries within half a per cent of the farthest
/// (driver), or from where on a ball runs at most some twenty metres (woods) or ten (irons) by the run model:
/// `knotcount-cli windows` writes it.
std::optional<WantedWindow> wantedWindow(flight::HeadKind kind, double ballSpeed);

} // namespace knot::rack
