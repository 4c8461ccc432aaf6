#include "files/base/error.h"

#include "core/record/text/text.h"

namespace knot::files {
namespace {

std::string what(const Error& e) {
    switch (e.kind) {
    case ErrorKind::cannotOpen:
        return "can't be opened (" + e.found + "); check the name and that you may read it";
    case ErrorKind::tooLarge:
        return "is larger than 32 MiB; split it, some hundred thousand shots at a time";
    case ErrorKind::emptyFile:
        return "is empty; expected a heading row and one row a shot";
    case ErrorKind::headerOnly:
        return "has headings but no shots; expected one row a shot under them";
    case ErrorKind::givenUp:
        return "was not read to its end";
    case ErrorKind::lineTooLong:
        return "the line is longer than 1 MiB; expected one shot a line";
    case ErrorKind::nulByte:
        return "there is a NUL byte; expected a text file with comma-separated values";
    case ErrorKind::badSpreadsheet:
        return "can't be read as a spreadsheet: " + e.found + "; save it as XLSX, ODS or CSV";
    case ErrorKind::badQuotes:
        return "a quotation mark is not closed; expected quotes in pairs";
    case ErrorKind::badJson:
        return "this is no JSON; expected an array of shots, or one shot a line";
    case ErrorKind::noTable:
        return "holds no table; save the shots as XLSX, ODS or CSV";
    case ErrorKind::tooManyCells:
        return e.found + " cells in this row; expected at most " + e.expected + ", one for each heading";
    case ErrorKind::tooManyColumns:
        return e.found + " columns; expected at most " + e.expected;
    case ErrorKind::tooManyRows:
        return "has more than " + e.expected + " rows; split it";
    case ErrorKind::tooManyClubs:
        return "has " + e.found + " clubs; at most " + e.expected +
               " are compared. Is another column the club, or is each its own test?";
    case ErrorKind::noBuildColumn:
        return "no column says which club was struck; expected one headed 'build'";
    case ErrorKind::noMetricColumn:
        return "no column holds a measurement; expected one such as carry_m or ball_speed_mph";
    case ErrorKind::unknownUnit:
        return "unknown unit '" + e.found + "'; expected " + e.expected;
    case ErrorKind::missingUnit:
        return "no unit is given; expected " + e.expected;
    case ErrorKind::unknownHeading:
        return "may be " + e.expected + "; say which, or keep it as text";
    case ErrorKind::duplicateColumn:
        return "holds the same measurement as column " + e.found + "; expected each once";
    case ErrorKind::notANumber:
        return "'" + e.found + "' is not a number; expected " + e.expected +
               ", or an empty cell where nothing was measured";
    case ErrorKind::ambiguousNumber:
        return "'" + e.found +
               "' has a comma that may part thousands or decimals; write it without one, or with a point";
    case ErrorKind::beyondMeasure:
        return "'" + e.found + "' is more than anything measures; leave the cell empty where nothing was measured";
    case ErrorKind::unknownWord:
        return e.found + "; expected " + e.expected;
    case ErrorKind::missingBuild:
        return "the build is missing; expected the name of the club that was struck";
    case ErrorKind::notATest:
        return "is not a Knot Count test (" + e.found + "); expected JSON with the format knotcount.test";
    case ErrorKind::newerTest:
        return "was written by a newer Knot Count (version " + e.found + "); expected version " + e.expected;
    case ErrorKind::cannotWrite:
        return "can't be written (" + e.found + "); check the folder and the space left";
    }
    return {};
}

} // namespace

std::string sentence(const Error& e) {
    std::string where = e.file;
    if (e.line > 0)
        where += ", line " + std::to_string(e.line);
    if (e.column > 0)
        where += ", column " + std::to_string(e.column);
    if (!e.heading.empty())
        where += " (" + e.heading + ")";
    const bool whole = e.line == 0 && e.column == 0;
    return record::printable(where + (whole ? " " : ": ") + what(e) + ".");
}

} // namespace knot::files
