#pragma once

#include <cstddef>
#include <string>
#include <tl/expected.hpp>

namespace knot::files {

enum class ErrorKind {
    cannotOpen,
    tooLarge,
    emptyFile,
    headerOnly,
    lineTooLong,
    nulByte,
    badSpreadsheet, ///< `found` says why
    badQuotes,
    badJson, ///< no JSON from the line on
    noTable, ///< a page or a workbook of XML without one
    tooManyCells,
    tooManyColumns,
    tooManyRows,
    tooManyClubs, ///< `found` says how many
    noBuildColumn,
    noMetricColumn,
    unknownUnit,
    missingUnit,
    unknownHeading, ///< nearly understood: `expected` is what it may be
    duplicateColumn,
    notANumber,
    ambiguousNumber,
    beyondMeasure,
    unknownWord, ///< `found` begins with what it is
    missingBuild,
    notATest,
    newerTest,
    cannotWrite,
    givenUp ///< by who waited for it
};

/// What went wrong with a file and where. Lines and columns count from 1; 0 means "the whole file".
struct Error {
    ErrorKind kind = ErrorKind::cannotOpen;
    std::string file;
    std::size_t line = 0;
    std::size_t column = 0;
    std::string heading; ///< of the column
    std::string found;   ///< what stands there, shortened
    std::string expected = {};
};

template<typename T> using Result = tl::expected<T, Error>;

/// One sentence that says what, where, and what was expected.
std::string sentence(const Error& error);

} // namespace knot::files
