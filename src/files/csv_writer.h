#pragma once

#include "core/record/test.h"

#include <string>

namespace knot::files {

/// A test's shots as a shot file in SI units. Reading it back gives the same shots; values that
/// were derived are left out, since reading derives them again, and columns without content too.
std::string shotCsv(const record::Test& test);

} // namespace knot::files
