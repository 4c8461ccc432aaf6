#pragma once

#include "core/record/test.h"
#include "files/csv_headings.h"
#include "files/error.h"

namespace knot::files {

struct ReadOptions {
    HeadingMap headings;
    /// A device's file knows no clubs: the column may be missing, and all shots are of one build "".
    enum class Clubs { named, unknown } clubs = Clubs::named;
};

/// A test read from a shot file, with what a user should know about the reading.
struct ImportedTest {
    record::Test test;
    std::vector<std::string> notes = {}; ///< "3 summary rows were left out."
    std::vector<std::size_t> lines = {}; ///< of a shot file: where each shot stands, from 1
};

/// Reads a shot file (docs/formats.md). All or nothing: the first thing that can't be understood
/// is returned as an error with its line and column. The title is the file's name.
Result<ImportedTest> readShotFile(const std::string& path, const ReadOptions& options = {});

/// The headings of a shot file as they stand; nothing when it can't be opened or has none.
std::vector<std::string> headingsOf(const std::string& path);

/// Whether an error is about what a heading means, so that saying what it means may mend it.
bool isAboutHeadings(ErrorKind kind);

/// The same from text already in memory; `file` is its name for messages.
Result<ImportedTest> readShots(const std::string& file, const std::string& bytes, const ReadOptions& options = {});

} // namespace knot::files
