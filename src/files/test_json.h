#pragma once

#include "files/csv_reader.h"

namespace knot::files {

/// A whole test as JSON (`knotcount.test`, version 1; docs/formats.md). Derived values are left
/// out, since reading derives them again.
std::string testJson(const record::Test& test);

/// Reads what `testJson` wrote. Anything that is not such a test, or refers to what is not there,
/// is refused whole.
Result<ImportedTest> readTestJson(const std::string& file, const std::string& text);
Result<ImportedTest> readTestFile(const std::string& path);

} // namespace knot::files
