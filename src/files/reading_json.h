#pragma once

#include "core/judge/reading.h"

#include <string>

namespace knot::files {

/// The reading as JSON (`knotcount.reading`, version 1; docs/formats.md). What the data do not
/// give is left out; no NaN is ever written.
std::string readingJson(const judge::Reading& reading);

} // namespace knot::files
