#pragma once

#include "cli/commands.h"

#include "files/csv_reader.h"
#include "logbook/logbook.h"

#include <string>

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

/// A test from a logbook (NAME.knotbook, which is not changed), an exported test (NAME.json) or a shot
/// file. `wanted` names it in a logbook; where that holds a single test it may be empty.
files::ImportedTest openTest(const std::string& file, const std::string& wanted, const files::ReadOptions& reading);

} // namespace knot::cli
