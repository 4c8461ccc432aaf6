#pragma once

#include "core/record/test.h"
#include "files/error.h"

#include <string>

namespace knot::files {

/// A test's shots as a shot file in SI units. Reading it back gives the same shots; values that
/// were derived are left out, since reading derives them again, and columns without content too.
std::string shotCsv(const record::Test& test);

/// Writes text to a file by way of a neighbour that is renamed, so that a failure leaves the old
/// file whole.
Result<void> writeFile(const std::string& path, const std::string& text);

} // namespace knot::files
