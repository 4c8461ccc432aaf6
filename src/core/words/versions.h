#pragma once

#include "core/record/test.h"

#include <string>
#include <vector>

namespace knot::words {

/// One thing in which two versions of a test differ, as each has it.
struct VersionRow {
    std::string what, here, there;
};

/// Two versions of one test side by side: only what differs, the shots first. Never what a closed seal hides.
std::vector<VersionRow> versionRows(const record::Test& here, const record::Test& there);

} // namespace knot::words
