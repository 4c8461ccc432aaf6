#pragma once

#include <functional>

namespace knot::logbook {

/// Hears now and then what share of the shots is written, 0 to 1.
using Progress = std::function<void(double share)>;

} // namespace knot::logbook
