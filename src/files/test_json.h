#pragma once

#include "files/import/shot_file.h"

namespace knot::files {

/// A whole test as JSON (`knotcount.test`, version 1; docs/formats.md). Derived values are left
/// out, since reading derives them again.
std::string testJson(const record::Test& test);

/// What must not leave with a test while its seal is closed (the clubs, which is the baseline, whose
/// windows are whose), to be locked away with the assignment. `testJson` leaves it out until the
/// reveal.
std::string hiddenPartsJson(const record::Test& test);

/// Puts them back into a test that was exported while sealed; false when the text is not such.
bool restoreHiddenParts(record::Test& test, const std::string& text);

/// All of a test but its shots, in the same form on one line.
std::string testHeadJson(const record::Test& test);

/// What was declared, in the one form whose SHA-256 is kept when the test is frozen.
std::string declarationText(const record::Test& test);

/// Reads what `testJson` wrote. Anything that is not such a test, or refers to what is not there,
/// is refused whole.
Result<ImportedTest> readTestJson(const std::string& file, const std::string& text);
/// Reads what `testHeadJson` wrote; the shots are left empty.
Result<record::Test> readTestHeadJson(const std::string& file, const std::string& text);
Result<ImportedTest> readTestFile(const std::string& path);
/// Whether a file's bytes say that they are such a test: other JSON may hold shots.
bool looksLikeTest(std::string_view bytes);

} // namespace knot::files
