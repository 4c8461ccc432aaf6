#pragma once

#include "core/judge/reading.h"
#include "core/record/structure.h"

namespace knot::judge {

/// What a reader should know about the record before trusting the verdicts, worst first. Reads the
/// finished rows of `reading`; its own `checks` are not looked at.
std::vector<Check> checksOf(const record::Test& test, const record::Structure& structure, const Reading& reading);

} // namespace knot::judge
