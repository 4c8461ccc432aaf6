#pragma once

#include "cli/commands.h"

#include "files/import/shot_file.h"
#include "logbook/logbook.h"

#include <string>
#include <vector>

namespace knot::cli {

/// What a call on a logbook gave, or its refusal thrown as one.
template<typename T> T orRefuse(logbook::Result<T> result) {
    if (!result)
        throw Refusal{logbook::sentence(result.error())};
    if constexpr (!std::is_void_v<T>)
        return std::move(*result);
}

/// A test of a logbook by its id or its exact title.
record::Test findTest(logbook::Logbook& book, const std::string& wanted);

/// Somebody's file as it comes: without clubs, and with what is only likely.
files::ReadOptions anybodysFile();
files::SecondPart secondPartNamed(const std::string& word);
/// How shot files are read and said.
struct ReadingFlags {
    bool explain = false;
    std::string split, each, units;
};
/// Adds --explain, --split, --each and --units, for commands that read shot files.
void addReading(CLI::App& command, ReadingFlags& flags);

/// A test from a logbook (NAME.knotbook, which is not changed), an exported test (NAME.json) or shot files: one,
/// several or a folder of them, and "-" for what comes in. `wanted` names it in a logbook; where that holds a single
/// test it may be empty. What was kept as text is among the notes.
files::ImportedTest openTest(const std::vector<std::string>& files, const std::string& wanted,
                             files::ReadOptions reading, const ReadingFlags& flags);
/// The units to say it in: those asked for, else those of the file or the logbook.
record::DisplayUnits unitsOf(const files::ImportedTest& imported, const ReadingFlags& flags);

/// Looks at a test whose comparisons nobody sees before its plan is done; the logbook notes it, so there must be one.
void takeLook(const std::string& file, record::Test& test);

/// What a logbook holds besides the test; nothing where `file` is no logbook.
std::vector<record::Test> earlierOf(const std::string& file, const record::Test& test);

} // namespace knot::cli
