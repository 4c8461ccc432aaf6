#pragma once

#include "logbook/logbook.h"

#include <QString>

#include <string>

namespace knot::app {

/// Where the user's own demo logbook stands.
QString demoPath();
/// Makes the demo logbook at `path` from the simulated scenarios, unless one is there.
logbook::Result<void> ensureDemo(const std::string& path);

} // namespace knot::app
