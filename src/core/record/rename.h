#pragma once

#include "core/record/test.h"

#include <string>

namespace knot::record {

/// Another name for a build, wherever its card names it.
void renameBuild(Test& test, BuildAt build, const std::string& name);

} // namespace knot::record
