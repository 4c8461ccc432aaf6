#pragma once

#include "logbook/logbook.h"

#include <string>

namespace knot::app {

/// Makes the demo logbook at `path` from the simulated scenarios, unless one is there.
logbook::Result<void> ensureDemo(const std::string& path);

} // namespace knot::app
