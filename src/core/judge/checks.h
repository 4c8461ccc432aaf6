#pragma once

#include "core/judge/case.h"
#include "core/judge/reading.h"

namespace knot::judge {

/// What a reader should know about the record before trusting the verdicts, worst first. Reads the
/// finished rows of `reading`; its own `checks` are not looked at.
std::vector<Check> checksOf(const Case& subject, const Reading& reading);

} // namespace knot::judge
